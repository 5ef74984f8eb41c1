import { describe, expect, it } from 'vitest';
import { unitsFrom } from '../cabinetry/line';
import { CONSTRUCTIONS } from '../cabinetry/figures';
import { deriveModel } from '../model/derive';
import { derivedOf } from '../model/model';
import type { Project, Run } from '../project/schema';
import { box, edit, wallBy } from '../testing/drafting';
import { cabinetSchedule, panelSchedule, sheetsOf, worktopSchedule } from './cabinets';

const room = box(5, 4);
const [inside] = Object.keys(room.rooms);
const walls = [wallBy(room, [0, 0], [5, 0]), wallBy(room, [0, 4], [0, 0])];
const run: Run = {
  id: 'run-a',
  name: 'Kitchen',
  level: Object.keys(room.levels)[0],
  legs: walls.map((wall) => ({ kind: 'wall', wall, side: 'left', room: inside })),
  packed: 'start',
  start: 0,
  made: CONSTRUCTIONS.frameless,
  fronts: 'framed',
  handles: 'bar',
  status: 'new',
  finishes: { fronts: 'paint.reed' },
};
function laid(line: string): Project {
  let n = 0;
  const read = unitsFrom(line, run.id, [], 'metric', () => `u${n++}`);
  if (!read.ok) throw new Error(read.message);
  return edit(room, 'run.lay', { run, units: read.units });
}
const model = deriveModel(laid('600 drawers, 900 door, rest open, 900 corner, 600 oven, 450 door left, 600 wall'));

describe('the schedules of cabinets', () => {
  it('list units with their marks, sizes, fronts and finishes', () => {
    const rows = cabinetSchedule(model);
    expect(rows.map((r) => [r.mark, r.name, r.front, r.handles])).toEqual([
      [1, 'drawers', '3 drawers', 3],
      [2, 'door', '2 doors', 2],
      [3, 'open', 'open', 0],
      [4, 'corner', expect.any(String), expect.any(Number)],
      [5, 'oven', 'panel, open', 0],
      [6, 'door', 'door left', 1],
      [7, 'wall', expect.stringContaining('door'), 1],
    ]);
    expect(rows[0]).toMatchObject({ run: 'Kitchen', width: 0.6, height: 0.72, depth: 0.56, finish: 'Reed' });
    // What shares is as wide as what the others leave of 4.7 m.
    expect(rows[2].width).toBeCloseTo(4.7 - 0.6 - 0.9 - 0.9, 6);
  });

  it('measure the worktop by its outline, with a joint in the corner and where slabs end', () => {
    const [top] = worktopSchedule(model);
    expect(top.length).toBeCloseTo(4.7 + 0.9 + 0.6 + 0.45, 6);
    expect(top.area).toBeCloseTo((4.7 + 0.9 + 1.05 - 0.6) * 0.6, 5);
    // 4.7 m of slabs of 3 m at most, and the corner.
    expect(top.joints).toBe(2);
  });

  it('cut as many boards as units have, of sizes less edging, on sheets that hold them', () => {
    const panels = panelSchedule(model);
    const count = (name: string): number => panels.filter((p) => p.name === name).reduce((sum, p) => sum + p.count, 0);
    // Six units that are no corner units.
    expect([count('side'), count('back')]).toEqual([12, 6]);
    const [side] = panels.filter((p) => p.name === 'side' && Math.abs(p.length - 0.72) < 0.01);
    expect(side.width).toBeCloseTo(0.56 - run.made.edging, 6);
    for (const { sheets, waste } of sheetsOf(derivedOf(model, 'runs')[0], 'metric')) {
      expect(sheets).toBeGreaterThan(0);
      expect(waste > 0 && waste < 1).toBe(true);
    }
  });
});
