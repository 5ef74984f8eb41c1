import { describe, expect, it } from 'vitest';
import { newRun } from '../cabinetry/begin';
import { legAlong, legsAround } from '../cabinetry/sides';
import { deriveModel } from '../model/derive';
import { newOpening } from '../project/opening-defaults';
import type { Project, Run } from '../project/schema';
import { pieceFrom, stockCard } from '../stock/stock';
import { unitsSaid } from '../testing/cabinets';
import { box, edit, wallBy } from '../testing/drafting';
import { runFindings } from './cabinets';

const room = box(6, 5);
const [inside] = Object.keys(room.rooms);
const [level] = Object.keys(room.levels);
const north = legAlong({ wall: wallBy(room, [0, 5], [6, 5]), side: 'left', room: inside });

/** The findings of a run along the far wall, or as is said, by code. */
function found(line: string, over: Partial<Run> = {}, project: Project = room): Record<string, string> {
  const own = { ...newRun('run-a', 'Kitchen', level, [legAlong({ wall: wallBy(project, [0, 0], [6, 0]), side: 'left', room: inside })], 'metric'), ...over };
  const units = unitsSaid(line);
  const run = { ...own, legs: legsAround(own, units, deriveModel(project).shell) };
  const model = deriveModel(edit(project, 'run.lay', { run, units }));
  return Object.fromEntries(runFindings(run, model).map((f) => [f.code, f.message]));
}

describe('what is worth a look in a run of cabinets', () => {
  it('is nothing where all is as wanted', () => {
    expect(found('600 door, 800 sink, 600 dishwasher, 600 door, 900 hob, 400 door, 600 canopy hood').code).toBeUndefined();
    expect(found('100 filler, 600 door, 800 sink, 600 dishwasher, 900 hob, 600 door')).toEqual({});
  });

  it('is worktop that is missing beside what one cooks on and washes at, by hand', () => {
    // 600 of hob: (600 − 590) / 2 beside it, then a larder.
    const messages = found('100 filler, 600 door, 600 hob, 600 larder');
    expect(messages['run.worktop']).toBe('Kitchen: 5 of worktop beside the hob; 300 are wanted.');
    expect(messages['hob.tall']).toBe('Kitchen: the hob is 5 from the side of larder; 300 are wanted.');
    // A sink of 540 in 800, 130 to its end at the wall, 600 more at the other side.
    expect(found('800 sink, 600 door')['run.worktop']).toBe('Kitchen: 130 of worktop beside the sink; 450 are wanted.');
  });

  it('is a hood that hangs too low, or is narrower than what it is over', () => {
    const said = (gas: boolean, above: number, hood = 'canopy hood') => {
      const units = unitsSaid(`100 filler, 600 door, 900 ${gas ? 'gas hob' : 'hob'}, 600 door, 900 ${hood}`);
      const own = newRun('run-a', 'Kitchen', level, [legAlong({ wall: wallBy(room, [0, 0], [6, 0]), side: 'left', room: inside })], 'metric');
      const fitted = units.map((u) =>
        u.name === hood
          ? {
              ...u,
              middle: { of: 'unit' as const, id: units[2].id },
              fittings: u.fittings.map((f) => ({ ...f, size: { width: above, depth: 0.5, height: 0.5 } })),
            }
          : u,
      );
      return Object.fromEntries(runFindings(own, deriveModel(edit(room, 'run.lay', { run: own, units: fitted }))).map((f) => [f.code, f.message]));
    };
    expect(said(true, 0.9)['hood.low']).toBeUndefined();
    expect(said(false, 0.5)['hood.narrow']).toBe('Kitchen: the hood is 90 narrower than the hob.');
  });

  it('is a hob under a window', () => {
    const wall = wallBy(room, [0, 0], [6, 0]);
    const window = newOpening(room, { id: 'w1', name: 'W1', wall, kind: 'window', at: 2, width: 1.2, height: 1, sill: 1.05 });
    const lit = edit(room, 'opening.add', window);
    const messages = found('100 filler, 3000 door, 900 hob, 1000 door', {}, lit);
    const side = 'hob.window';
    expect(messages[side]).toContain('the hob is under W1');
    expect(found('100 filler, 1000 door, 900 hob, 3000 door', {}, lit)[side]).toBeUndefined();
  });

  it('is a dishwasher away from the sink, an oven in the corner, fronts at a wall without a filler', () => {
    expect(found('100 filler, 600 dishwasher, 1000 door, 800 sink, 600 door')['dishwasher.sink']).toContain('the dishwasher is not beside the sink');
    const corner = found('600 oven, 600 drawers');
    expect(corner['oven.corner']).toContain('the oven stands in the corner');
    expect(found('600 drawers, 600 door')['unit.filler']).toContain('drawers stands against the wall without a filler');
    expect(found('50 filler, 600 drawers, 600 door')['unit.filler']).toBeUndefined();
  });

  it('is an aisle that is too narrow, by the profile', () => {
    const table = { ...pieceFrom(stockCard('table')!, 't', room.levels[level], { x: 2, y: 0.15 + 0.58 + 1 + 0.45 }), rotation: 0 };
    const narrow = edit(room, 'piece.add', { pieces: [{ ...table, size: { width: 1.6, depth: 0.9, height: 0.75 } }] });
    // The wall is 300 thick; fronts lie 580 before its face, the table begins 1000 further on.
    expect(found('100 filler, 4 x 900 door', {}, narrow)['run.aisle']).toBe('Kitchen: the aisle to Dining table is 1000 wide; 1070 are wanted.');
    expect(found('100 filler, 4 x 900 door', {}, edit(narrow, 'project.clearances', { clearances: 'close' }))['run.aisle']).toBeUndefined();
  });

  it('is an aisle to a wall, and not to what stands behind it', () => {
    // 1.7 m between the faces, less 580 of the run.
    const galley = box(6, 2);
    const [at] = Object.keys(galley.levels);
    const behind = { ...pieceFrom(stockCard('table')!, 't', galley.levels[at], { x: 2, y: 2.7 }), rotation: 0 };
    const narrow = edit(galley, 'piece.add', { pieces: [behind] });
    const leg = legAlong({ wall: wallBy(narrow, [0, 0], [6, 0]), side: 'left', room: Object.keys(narrow.rooms)[0] });
    const deep = (depth: number) => {
      const first = newRun('run-a', 'Kitchen', at, [leg], 'metric');
      const run = { ...first, made: { ...first.made, base: { ...first.made.base, depth } } };
      const model = deriveModel(edit(narrow, 'run.lay', { run, units: unitsSaid('100 filler, 4 x 900 door') }));
      return runFindings(run, model).find((f) => f.code === 'run.aisle')?.message;
    };
    expect(deep(0.56)).toBeUndefined();
    expect(deep(0.7)).toBe('Kitchen: the aisle to the wall is 980 wide; 1070 are wanted.');
  });

  it('is a front that opens into another, round the corner', () => {
    // Drawers hard beside the corner unit open before the fronts of the next leg only where nothing keeps them apart.
    const island: Run['legs'] = [{ kind: 'free', from: { x: 4, y: 1.15 }, to: { x: 2, y: 1.15 } }];
    const project = edit(room, 'run.lay', { run: { ...newRun('run-b', 'Island', level, island, 'metric') }, units: unitsSaid('900 door, 900 door', 'run-b') });
    const messages = found('100 filler, 600 door, 600 drawers, 600 dishwasher, 600 drawers', {}, project);
    expect(messages['unit.opens']).toMatch(/^Kitchen: (a drawer of drawers|the door of the dishwasher) opens into door\.$/);
  });

  it('is a front whose swept volume meets a wall, or what stands as high as it hangs; not what lies below it', () => {
    // Doors of 600 before a wall 450 away.
    const galley = box(6, 0.3 + 0.58 + 0.45);
    const near = found('100 filler, 600 door', {}, galley);
    expect(near['unit.opens']).toBe('Kitchen: a door of door opens into the wall.');
    // What hangs 350 deep opens 600 into the room: a larder 400 before it is in the way, base units are not.
    const before = (words: string): string | undefined => {
      const legs: Run['legs'] = [{ kind: 'free', from: { x: 6, y: 6 - 0.15 - 0.35 - 0.4 - 0.6 }, to: { x: 0, y: 6 - 0.15 - 0.35 - 0.4 - 0.6 } }];
      const tall = box(6, 6);
      const island = { ...newRun('run-b', 'Island', Object.keys(tall.levels)[0], legs, 'metric'), ends: 'bare' as const };
      const wall = legAlong({ wall: wallBy(tall, [6, 6], [0, 6]), side: 'left', room: Object.keys(tall.rooms)[0] });
      const run = newRun('run-a', 'Kitchen', Object.keys(tall.levels)[0], [wall], 'metric');
      const laid = edit(edit(tall, 'run.lay', { run: island, units: unitsSaid(words, 'run-b') }), 'run.lay', {
        run,
        units: unitsSaid('100 filler, 600 wall, 600 wall'),
      });
      return runFindings(run, deriveModel(laid)).find((f) => f.code === 'unit.opens')?.message;
    };
    expect(before('6 x 900 larder')).toMatch(/^Kitchen: a door of wall opens into larder/);
    expect(before('6 x 900 door')).toBeUndefined();
  });

  it('is the way from sink to hob to fridge where it is too long', () => {
    const far = found('100 filler, 600 fridge, 500 door, 1500 door, 800 sink, 100 door, 900 hob');
    expect(far['run.path']).toMatch(/^Kitchen: from the (hob to the fridge|fridge to the sink|sink to the hob) it is \d+; 1200 to 2700 are wanted\.$/);
  });

  it('is what does not fit: a run longer than its wall, something larger than its unit', () => {
    expect(found('3000 door, 3000 drawers')['run.long']).toBe('Kitchen is 300 too long for its wall.');
    const [oven] = unitsSaid('600 oven');
    const own = newRun('run-a', 'Kitchen', level, [north], 'metric');
    const big = { ...oven, fittings: [{ ...oven.fittings[0], size: { width: 0.6, depth: 0.55, height: 0.75 } }] };
    const messages = runFindings(own, deriveModel(edit(room, 'run.lay', { run: own, units: [big] }))).map((f) => f.message);
    expect(messages.some((m) => /^Oven, \w+ is \d+ too high for its place in Kitchen\.$/.test(m))).toBe(true);
  });

  it('is room for knees at an island one sits at', () => {
    const legs: Run['legs'] = [{ kind: 'free', from: { x: 4, y: 2.5 }, to: { x: 2, y: 2.5 } }];
    expect(found('900 door, 900 door', { legs, behind: 0.25 })['run.knees']).toBe('Kitchen: 250 for knees under the worktop; 380 are wanted at this height.');
    expect(found('900 door, 900 door', { legs, behind: 0.38 })['run.knees']).toBeUndefined();
  });

  it('is what one does not reach from a wheelchair, in that profile alone', () => {
    const line = '100 filler, 600 door, 800 sink, 600 door, 600 wall';
    const seated = { ...room, clearances: 'wheelchair' as const };
    expect(found(line)['run.seated']).toBeUndefined();
    expect(found(line, {}, seated)).toMatchObject({
      'run.seated': 'Kitchen: its worktop is 900 high; from a wheelchair one works at 865 at most.',
      'run.reach': 'Kitchen: the lowest shelf of what hangs is 1398 high; over a worktop one reaches 1120 from a wheelchair.',
    });
    const { made } = newRun('r', 'R', level, [], 'metric');
    const low = { made: { ...made, base: { ...made.base, height: 0.68 }, wall: { ...made.wall, above: 0.2 } } };
    expect(Object.keys(found(line, low, seated)).filter((code) => code === 'run.seated' || code === 'run.reach')).toEqual([]);
  });
});
