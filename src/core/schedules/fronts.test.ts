import { beforeAll, describe, expect, it } from 'vitest';
import { unitParts } from '../cabinetry/assemble';
import { newRun } from '../cabinetry/begin';
import { legAlong, legsAround } from '../cabinetry/sides';
import { within } from '../geometry/shapes';
import { deriveModel } from '../model/derive';
import { derivedOf } from '../model/model';
import { LIGHT } from '../stock/stock';
import { unitsSaid } from '../testing/cabinets';
import { box, edit, wallBy } from '../testing/drafting';
import { loadKernel, volume } from '../testing/solid';
import { frontSchedule, hingesFor, ironmongerySchedule } from './fronts';

beforeAll(loadKernel);

const room = box(5, 4);
const [inside] = Object.keys(room.rooms);
const first = {
  ...newRun('run-a', 'Kitchen', Object.keys(room.levels)[0], [legAlong({ wall: wallBy(room, [0, 0], [5, 0]), side: 'left', room: inside })], 'metric'),
};
const units = unitsSaid('600 drawers, 900 door, 450 door left, rest larder, corner, 600 oven with hob, 600 dishwasher, 450 wall, 600 bridge');
const run = {
  ...first,
  look: { fronts: 'flat' as const, handles: 'bar' as const },
  ends: 'bare' as const,
  legs: legsAround(first, units, deriveModel(room).shell),
};
const model = deriveModel(edit(room, 'run.lay', { run, units }));
const rows = frontSchedule(model);
const of = (unit: string) => rows.filter((r) => r.unit === unit).map((r) => [r.what, r.hand, r.count]);

describe('the schedules of fronts and of ironmongery', () => {
  it('list every front once, those that are alike together, by what it is and where it hangs', () => {
    expect(of('drawers')).toEqual([
      ['drawer front', '', 1],
      ['drawer front', '', 2],
    ]);
    expect(of('door').sort()).toEqual([
      ['door', 'left', 1],
      ['door', 'left', 1],
      ['door', 'right', 1],
    ]);
    expect(of('corner')).toEqual([['corner door', 'right', 2]]);
    expect(of('oven with hob')).toEqual([['panel', '', 1]]);
    // A machine has a front of its own.
    expect(of('dishwasher')).toEqual([]);
    expect(of('bridge')).toEqual([['door', 'up', 1]]);
    // 600 less 1.5 at each side, 140 less 3 under the worktop and half a gap.
    expect(rows[0]).toMatchObject({ width: expect.closeTo(0.597, 9), height: expect.closeTo(0.14 - 0.003 - 0.0015, 9), thickness: 0.02, handle: 'bar' });
    expect(rows.filter((r) => r.what === 'panel').map((r) => r.handle)).toEqual(['']);
  });

  it('are as large as the fronts that are built: flat ones have the volume of their sizes', () => {
    const [derived] = derivedOf(model, 'runs');
    for (const own of derived.units) {
      const solid = within(LIGHT, () => unitParts({ ...own, clad: [] }, derived.run.made))
        .filter((p) => p.part === 'fronts')
        .reduce((sum, p) => sum + volume(p.mesh), 0);
      const listed = rows.filter((r) => r.id === own.unit.id).reduce((sum, r) => sum + r.count * r.width * r.height * r.thickness, 0);
      expect([own.unit.name, listed]).toEqual([own.unit.name, expect.closeTo(solid, 6)]);
    }
  });

  it('count what is screwed on: by hand', () => {
    const metal = new Map(ironmongerySchedule(model).map((r) => [r.what, r.count]));
    // Doors of 717: a pair, a single, the wall door of 717, two leaves of the corner, two of 1025 and two beside them of the larder.
    const doors = rows.filter((r) => r.hand === 'left' || r.hand === 'right');
    expect(metal.get('hinge')).toBe(doors.reduce((sum, r) => sum + r.count * hingesFor(r.height), 0));
    expect([hingesFor(0.717), hingesFor(1.02), hingesFor(1.8), hingesFor(2.05)]).toEqual([2, 3, 4, 5]);
    expect(metal.get('stay of a flap')).toBe(2);
    expect([...metal].filter(([what]) => what.startsWith('pair of runners')).reduce((sum, [, n]) => sum + n, 0)).toBe(3);
    const moving = rows.filter((r) => r.handle && r.what !== 'corner door').reduce((sum, r) => sum + r.count, 0);
    // The corner unit has one handle for both its leaves.
    expect(metal.get('handle, bar')).toBe(moving + 1);
    // Frameless units stand on four legs; the dishwasher has its own, what hangs has hangers.
    expect(metal.get('leg')).toBe(4 * 6);
    expect(metal.get('hanger')).toBe(2 * 2);
  });
});
