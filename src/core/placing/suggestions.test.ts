import { describe, expect, it } from 'vitest';
import { newRun } from '../cabinetry/begin';
import { wallFoot } from '../cabinetry/assemble';
import { insideRegion } from '../geometry/polygon';
import { deriveModel } from '../model/derive';
import { derivedOf } from '../model/model';
import type { Piece, Project, Run } from '../project/schema';
import { unitsSaid } from '../testing/cabinets';
import { box, edit, wallBy } from '../testing/drafting';
import { suggested, type Suggestion } from './suggestions';

const room = box(5, 4);
const south = wallBy(room, [0, 0], [5, 0]);
const inside = Object.keys(room.rooms)[0];
const level = Object.keys(room.levels)[0];
const said = (line: string, run: Partial<Run> = {}, legs: Run['legs'] = [{ kind: 'wall', wall: south, side: 'left', room: inside }]): Project =>
  edit(room, 'run.lay', { run: { ...newRun('run-a', 'Run', level, legs, 'metric'), ...run }, units: unitsSaid(line) });

const asked = (p: Project, what: Suggestion): Piece[] | string => {
  const model = deriveModel(p);
  let n = 0;
  return suggested(model, derivedOf(model, 'runs')[0], what, () => `new-${n++}`);
};
const pieces = (p: Project, what: Suggestion): Piece[] => {
  const found = asked(p, what);
  if (typeof found === 'string') throw new Error(found);
  return found;
};

describe('what is suggested for a run', () => {
  it('is downlights in the ceiling over the front edge of its worktop, one of them over the sink', () => {
    const p = said('600 drawers, 800 sink, 1200 door, 600 larder');
    const lights = pieces(p, 'downlights');
    const model = deriveModel(p);
    const { region } = model.shell.rooms.get(inside)!;
    // 2.6 m of worktop: three of them, and the one over the sink in the place of the one beside it.
    expect(lights).toHaveLength(3);
    for (const l of lights) {
      expect(insideRegion(l, region)).toBe(true);
      expect(l.elevation + l.size.height).toBeCloseTo(2.5, 9);
      expect(l.lamp).not.toBeNull();
    }
    const [sink, ...rest] = lights;
    const [run] = derivedOf(model, 'runs');
    const middle = run.units[1].placed.footprint.reduce((s, q) => s + q.x / 4, 0);
    expect(sink.x).toBeCloseTo(middle, 2);
    const face = run.legs[0].from.y;
    for (const l of rest) expect(Math.abs(l.y - face)).toBeCloseTo(0.6, 9);
  });

  it('is a strip of light under each wall unit, as long as that, behind its front', () => {
    const strips = pieces(said('600 drawers, 600 door, 600 wall, 450 wall glazed, 600 hood'), 'lights under wall units');
    expect(strips.map((s) => s.size.width)).toEqual([expect.closeTo(0.54, 9), expect.closeTo(0.39, 9)]);
    const foot = wallFoot(newRun('r', 'R', level, [], 'metric').made);
    for (const s of strips) expect(s.elevation + s.size.height).toBeCloseTo(foot, 9);
    expect(asked(said('600 drawers'), 'lights under wall units')).toMatch(/Nothing hangs there/);
  });

  it('is crockery on open shelves, no higher and no wider than there is room, none where something stands', () => {
    const p = said('600 open 2, 600 door, 600 wall open 2');
    const things = pieces(p, 'crockery and jars');
    expect(things.length).toBeGreaterThanOrEqual(5);
    expect(new Set(things.map((t) => t.name)).size).toBeGreaterThan(1);
    for (const t of things) expect(t.size.width).toBeLessThan(0.6);
    const set = edit(p, 'piece.add', { pieces: things });
    expect(asked(set, 'crockery and jars')).toBe('On its open shelves nothing more finds room.');
    expect(asked(said('600 door'), 'crockery and jars')).toBe('It has no open shelves.');
  });

  it('is stools behind an island, one for 600 mm, their seats as far below the worktop as knees want', () => {
    const free: Run['legs'] = [{ kind: 'free', from: { x: 1.5, y: 2 }, to: { x: 3.3, y: 2 } }];
    const seats = pieces(said('600 pans, 600 door, 600 open', { behind: 0.35 }, free), 'stools');
    expect(seats).toHaveLength(3);
    expect(seats.map((s) => s.size.height)).toEqual(Array.from({ length: 3 }, () => expect.closeTo(0.9 - 0.27, 9) as number));
    for (const s of seats) expect(s.y).toBeCloseTo(2.35, 9);
    expect(asked(said('600 pans', {}, free), 'stools')).toMatch(/give it room for seats first/);
    expect(asked(said('600 pans'), 'stools')).toMatch(/stands out behind what stands free/);
  });
});
