import fc from 'fast-check';
import { beforeAll, describe, expect, it } from 'vitest';
import { boolean, totalArea } from '../geometry/polygon';
import { transformPoint } from '../geometry/mesh';
import { deriveModel } from '../model/derive';
import { bodyOf, derivedOf } from '../model/model';
import { runFindings } from '../checks/cabinets';
import { putUnit } from '../placing/units';
import { newOpening } from '../project/opening-defaults';
import type { Project, Run } from '../project/schema';
import { unitsSaid } from '../testing/cabinets';
import { box, edit, wallBy } from '../testing/drafting';
import { loadKernel, openEdges } from '../testing/solid';
import { newRun } from './begin';
import { legAlong, legsAround } from './sides';
import { splashbacksOf } from './splashback';

beforeAll(loadKernel);

const room = box(5, 4);
const south = wallBy(room, [0, 0], [5, 0]);
const [level] = Object.keys(room.levels);

/** A room with a door of 900 in its south wall, its middle so far from the west end. */
const doored = (at: number, project = room): Project =>
  edit(project, 'opening.add', newOpening(project, { id: 'door', wall: south, kind: 'door', at, width: 0.9 }));
/** With boxing for a pipe before the south wall. */
const boxed = (at: number, width: number, depth: number): Project => edit(room, 'wall.box', { wall: south, side: 'left', at, width, depth, thickness: 0.05 });

const roomOf = (p: Project): string => Object.values(p.rooms).find((r) => r.use !== 'duct')!.id;
function laid(project: Project, line: string, more: Partial<Run> = {}, at?: number) {
  const own: Run = {
    ...newRun('run-a', 'Kitchen', level, [legAlong({ wall: south, side: 'left', room: roomOf(project), ...(at === undefined ? {} : { at }) })], 'metric'),
    ...more,
  };
  const units = unitsSaid(line);
  const run = { ...own, legs: legsAround(own, units, deriveModel(project).shell) };
  const next = edit(project, 'run.lay', { run, units });
  const model = deriveModel(next);
  return { next, model, run: derivedOf(model, 'runs').find((r) => r.id === 'run-a')! };
}
const spans = ({ run }: ReturnType<typeof laid>): [number, number][] =>
  // From the east end, at the left of who looks at it from within.
  run.units.map((u) => {
    const xs = u.placed.footprint.map((p) => 4.85 - p.x);
    return [Math.min(...xs), Math.max(...xs)].map((x) => Math.round(x * 1e4) / 1e4) as [number, number];
  });

describe('a run along a wall with a door', () => {
  it('ends before it with what frames it, at the end where it is packed', () => {
    // The door reaches from 2.05 to 2.95 m of the wall, with architraves of 60: 1.84 m from the east end, 1.84 from the west.
    expect(spans(laid(doored(2.5), '600 drawers, rest door'))).toEqual([
      [0, 0.6],
      [0.6, 1.84],
    ]);
    expect(spans(laid(doored(2.5), '600 drawers, rest door', { packed: 'end' }))).toEqual([
      [2.86, 3.46],
      [3.46, 4.7],
    ]);
    // It begins beyond the door where one says so, or points there.
    expect(spans(laid(doored(2.5), 'rest door', { start: 3 }))).toEqual([[3, 4.7]]);
    expect(spans(laid(doored(2.5), 'rest door', {}, 1))).toEqual([[2.86, 4.7]]);
    expect(spans(laid(doored(2.5), 'rest door', {}, 4))).toEqual([[0, 1.84]]);
    expect(laid(doored(2.5), '1000 door, 1000 door').run.floor.lacks[0]).toBeCloseTo(0.16, 9);
  });

  it('reaches from the door to its corner, and is not parted by a window', () => {
    expect(spans(laid(doored(2.5), '600 drawers, rest door, corner'))[0]).toEqual([2.86, 3.46]);
    const lit = edit(room, 'opening.add', newOpening(room, { id: 'w', wall: south, kind: 'window', at: 2.5, width: 1.2 }));
    expect(spans(laid(lit, 'rest door'))).toEqual([[0, 4.7]]);
    const french = edit(room, 'opening.add', newOpening(room, { id: 'w', wall: south, kind: 'window', at: 2.5, width: 1.2, sill: 0, height: 2.1 }));
    expect(spans(laid(french, 'rest door'))[0][1]).toBeLessThan(1.8);
  });

  it('shows its side at the door, where a panel would stand before what frames that, and a panel where a wall ends free', () => {
    const { run } = laid(doored(2.5), '600 drawers, rest door');
    expect(run.trim.panels).toEqual([]);
    expect([...run.trim.clad]).toEqual([['run-a-1', ['right']]]);
    const stub = edit(room, 'wall.draw', {
      level,
      points: [
        { x: 2.5, y: 0 },
        { x: 2.5, y: 1.8 },
      ],
      closed: false,
      thickness: 0.1,
    });
    const wall = Object.values(stub.walls).find((w) => Math.abs(stub.corners[w.start].x - 2.5) < 1e-6 && Math.abs(stub.corners[w.end].x - 2.5) < 1e-6)!;
    for (const side of ['left', 'right'] as const) {
      const own = newRun('run-a', 'Shelves', level, [legAlong({ wall: wall.id, side, room: roomOf(stub) })], 'metric');
      const made = derivedOf(deriveModel(edit(stub, 'run.lay', { run: own, units: unitsSaid('rest door') })), 'runs')[0];
      expect(made.trim.panels).toHaveLength(1);
      // At the end in the room, 1.8 m from the middle of the other wall.
      const ys = made.trim.panels[0].ring.map((p) => p.y);
      expect(Math.min(...ys)).toBeGreaterThan(1.7);
    }
  });

  it('is begun on the side of the door one points at', () => {
    const model = deriveModel(doored(2.5));
    for (const [x, wide] of [
      [0.6, 1.84],
      [4.2, 1.84],
    ]) {
      const put = putUnit(model, level, { x, y: 0.4 }, 'rest door', (what) => `new-${what}`);
      if (typeof put === 'string') throw new Error(put);
      const run = derivedOf(deriveModel(edit(doored(2.5), 'run.lay', { run: put.run, units: put.units })), 'runs')[0];
      expect(run.units[0].placed.width).toBeCloseTo(wide, 9);
      expect(Math.abs(run.units[0].placed.footprint[0].x - x)).toBeLessThan(2);
    }
  });
});

describe('a run past a boxed pipe', () => {
  it('goes on before it: units there step back from it, their fronts in line with the others', () => {
    const made = laid(boxed(2.5, 0.4, 0.2), '1000 drawers, 1000 door, 1000 pans, rest door');
    const [a, b, c, d] = made.run.units;
    expect(made.run.floor.gaps).toEqual([]);
    // The boxing reaches from 2.15 to 2.55 m from the east end: before the third unit alone.
    expect([a, b, c, d].map((u) => Math.round(u.size.depth * 1000))).toEqual([560, 560, 350, 560]);
    const front = (u: typeof a): number => transformPoint(u.matrix, { x: 0, y: -u.size.depth, z: 0 }).y;
    for (const u of [b, c, d]) expect(front(u)).toBeCloseTo(front(a), 9);
    for (const id of ['run-a', ...made.run.units.map((u) => u.unit.id)])
      for (const part of bodyOf(made.model, id)!.parts) expect([id, part.name, openEdges(part.mesh)]).toEqual([id, part.name, 0]);
    // The worktop is cut round it.
    expect(totalArea(made.run.worktop.regions)).toBeCloseTo(4.7 * 0.6 - 0.4 * 0.2, 5);
    // Its splashback lies where the run does, whichever part of the wall that begins on.
    const [patch] = splashbacksOf(made.run, made.model.shell, {}, 'tile.glazed-white');
    expect(patch.shape).toMatchObject({ at: expect.closeTo(2.5, 6), width: expect.closeTo(4.7, 6) });
  });

  it('has an upstand that goes round it, and on along the wall where what stands out is lower', () => {
    const upstand = (project: Project): number => totalArea(laid(project, '1000 drawers, 1000 door, 1000 pans, rest door', { upstand: 0.1 }).run.upstand);
    const plain = 4.7 * 0.015;
    // It is 15 thick round three sides of what is 400 by 200, and goes on there from the wall.
    expect(upstand(boxed(2.5, 0.4, 0.2))).toBeCloseTo(plain + 0.43 * 0.2 - 0.4 * 0.2, 5);
    const low = edit(room, 'wall.box', { wall: south, side: 'left', at: 2.5, width: 0.4, depth: 0.2, thickness: 0.05, top: { kind: 'fixed', height: 0.6 } });
    expect(upstand(low)).toBeCloseTo(plain, 6);
  });

  it('steps back only as high as it stands: what hangs over it, and a worktop over it, are whole', () => {
    const low = edit(room, 'wall.box', { wall: south, side: 'left', at: 2.5, width: 0.4, depth: 0.2, thickness: 0.05, top: { kind: 'fixed', height: 0.6 } });
    const { run } = laid(low, '2000 drawers, 1000 door, 2000 wall, 1000 wall');
    const deep = (name: string): number[] => run.units.filter((u) => u.unit.name === name).map((u) => Math.round(u.size.depth * 1000));
    expect([deep('drawers'), deep('door'), deep('wall')]).toEqual([[560], [350], [330, 330]]);
    expect(totalArea(run.worktop.regions)).toBeCloseTo(3 * 0.6 + 0.02 * 0.6, 5);
    expect(run.units.some((u) => u.unit.band === 'wall')).toBe(true);
  });

  it('is said where it is too shallow to step back', () => {
    const { run, model } = laid(boxed(2.5, 0.4, 0.3), '2300 drawers, 600 door, 2300 wall, 600 wall');
    expect(runFindings(run.run, model).filter((f) => f.code === 'unit.boxed')).toMatchObject([
      { message: 'Kitchen: behind wall something stands out 300 from the wall; it is 330 deep.', ids: ['run-a-2', 'run-a'] },
      { ids: ['run-a-3', 'run-a'] },
    ]);
  });

  it('stands in the alcove one points at beside a chimney breast', () => {
    const breast = boxed(2.5, 1.2, 0.4);
    expect(spans(laid(breast, 'rest door', {}, 4.5))).toEqual([[0, 1.75]]);
    expect(spans(laid(breast, 'rest door', {}, 0.5))).toEqual([[2.95, 4.7]]);
  });

  it('never stands in it, wherever it is and however units are as wide', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.8, max: 4.2, noNaN: true }),
        fc.double({ min: 0.12, max: 1, noNaN: true }),
        fc.double({ min: 0.06, max: 0.2, noNaN: true }),
        fc.array(fc.integer({ min: 2, max: 10 }), { minLength: 1, maxLength: 6 }),
        (at, width, depth, widths) => {
          const made = laid(boxed(at, width, depth), widths.map((w) => `${w * 100} drawers, ${w * 100} wall`).join(', '));
          const ducts = [...made.model.shell.rooms.values()].filter((r) => r.room.use === 'duct').flatMap((r) => r.floor);
          expect(ducts.length).toBeGreaterThan(0);
          for (const u of made.run.units) {
            const ring = [
              [0, 0],
              [u.size.width, 0],
              [u.size.width, -u.size.depth],
              [0, -u.size.depth],
            ].map(([x, y]) => transformPoint(u.matrix, { x, y, z: 0 }));
            const outer = ring.map(({ x, y }) => ({ x, y }));
            const both = [outer, [...outer].reverse()].map((o) => totalArea(boolean('intersection', [{ outer: o, holes: [] }], ducts)));
            expect(Math.max(...both)).toBeLessThan(1e-6);
          }
        },
      ),
      { numRuns: 40 },
    );
  });
});
