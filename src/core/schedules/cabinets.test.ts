import { describe, expect, it } from 'vitest';
import { SHEETS } from '../cabinetry/boards';
import { newRun } from '../cabinetry/begin';
import { legAlong } from '../cabinetry/sides';
import { deriveModel } from '../model/derive';
import { unitsSaid } from '../testing/cabinets';
import { box, edit, wallBy } from '../testing/drafting';
import { boardSchedule, cabinetSchedule, panelSchedule, worktopSchedule } from './cabinets';

const room = box(5, 4);
const [inside] = Object.keys(room.rooms);
const walls = [wallBy(room, [0, 0], [5, 0]), wallBy(room, [0, 4], [0, 0])];
const legs = walls.map((wall) => legAlong({ wall, side: 'left', room: inside }));
const run = { ...newRun('run-a', 'Kitchen', Object.keys(room.levels)[0], legs, 'metric'), finishes: { fronts: 'paint.reed' } };
const units = unitsSaid('600 drawers, 900 door, rest open, 900 corner, 600 oven, 450 door left, 600 wall');
const model = deriveModel(edit(room, 'run.lay', { run, units }));

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
      [7, 'wall', 'door left', 1],
    ]);
    expect(rows[0]).toMatchObject({ run: 'Kitchen', width: expect.closeTo(0.6, 9), height: 0.72, depth: 0.56, finish: 'Reed' });
    // What shares is as wide as what the others leave of 4.7 m.
    expect(rows[2].width).toBeCloseTo(4.7 - 0.6 - 0.9 - 0.9, 6);
  });

  it('measure the worktop by its outline, with a joint in the corner and where slabs end', () => {
    const [top] = worktopSchedule(model);
    expect(top.length).toBeCloseTo(4.7 + 0.9 + 0.6 + 0.45, 6);
    // An end panel stands at its free end.
    expect(top.panels).toBe(2);
    expect(top.area).toBeCloseTo((4.7 + 0.9 + 1.05 + 0.02 - 0.6) * 0.6, 5);
    // 4.7 m of slabs of 3 m at most, and the corner.
    expect(top.joints).toBe(2);
  });

  it('cut as many boards as units have, of sizes less edging, on sheets that hold them', () => {
    const panels = panelSchedule(model);
    const count = (name: string): number => panels.filter((p) => p.name === name).reduce((sum, p) => sum + p.count, 0);
    // Six units, and one in the corner with a back along each wall.
    expect([count('side'), count('back')]).toEqual([14, 8]);
    const [side] = panels.filter((p) => p.name === 'side' && Math.abs(p.length - 0.72) < 0.01);
    expect(side.width).toBeCloseTo(0.56 - run.made.edging, 6);
    // What is wanted and what is left over make up the sheets; the back of 2.3 m is on none.
    const sheet = SHEETS.metric.length * SHEETS.metric.width;
    for (const { board, thickness, sheets, waste, over } of boardSchedule(model)) {
      const own = panels.filter((p) => p.board === board && p.thickness === thickness);
      const laid = own.filter((p) => p.width < SHEETS.metric.width);
      expect(over).toBe(board === 'back board' ? 1 : 0);
      expect(own.length - laid.length).toBe(over);
      const wanted = laid.reduce((sum, p) => sum + p.count * p.length * p.width, 0);
      expect(wanted).toBeCloseTo(sheets * sheet * (1 - waste), 6);
      expect(sheets).toBeGreaterThanOrEqual(Math.ceil(wanted / sheet));
    }
    expect(new Set(boardSchedule(model).map((b) => b.board))).toEqual(new Set(['carcass board', 'back board']));
  });
});
