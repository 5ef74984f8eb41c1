import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { cross, distance, dot, sub, unit } from '../geometry/vec';
import { deriveModel } from '../model/derive';
import { draw, edit, house } from '../testing/drafting';
import { newOpening } from './opening-defaults';
import { emptyProject, type Project } from './schema';
import { wallEnds } from './wall-line';

/** Lengths along which two straight walls of one level lie in one another. */
function doubled(project: Project): number {
  const walls = Object.values(project.walls);
  let sum = 0;
  walls.forEach((w, i) =>
    walls.slice(i + 1).forEach((o) => {
      const [a, b] = wallEnds(project, w);
      const [p, q] = wallEnds(project, o);
      const d = unit(sub(b, a));
      if (Math.abs(cross(d, sub(p, a))) > 1e-5 || Math.abs(cross(d, sub(q, a))) > 1e-5) return;
      const [s, t] = [dot(d, sub(p, a)), dot(d, sub(q, a))].sort((x, y) => x - y);
      sum += Math.max(0, Math.min(t, distance(a, b)) - Math.max(s, 0));
    }),
  );
  return sum;
}

const areas = (project: Project): number[] => [...deriveModel(project).shell.rooms.values()].map((r) => r.area).sort((a, b) => a - b);

describe('walls drawn over walls', () => {
  it('stand once where an L meets half of a room’s wall', () => {
    const room = house([
      [0, 0],
      [4.5, 0],
      [4.5, 3.75],
      [0, 3.75],
    ]);
    const both = draw(
      room,
      [
        [0, -3.3],
        [4.5, -3.3],
        [4.5, -1.65],
        [2.25, -1.65],
        [2.25, 0],
        [0, 0],
      ],
      { closed: true, thickness: 0.3 },
    );
    expect(doubled(both)).toBe(0);
    expect(Object.keys(both.walls)).toHaveLength(9);
    expect(areas(both)).toEqual([expect.closeTo(1.95 * 3 + 2.25 * 1.35, 6), expect.closeTo(4.2 * 3.45, 6)]);
  });

  it('stand once wherever rectangles of one grid are drawn, and part the plane as they should', () => {
    const side = fc.tuple(fc.integer({ min: 0, max: 5 }), fc.integer({ min: 1, max: 4 }));
    fc.assert(
      fc.property(fc.array(fc.tuple(side, side), { minLength: 2, maxLength: 4 }), (boxes) => {
        let project = emptyProject('p', 'P');
        for (const [[x, w], [y, h]] of boxes) {
          try {
            project = draw(
              project,
              [
                [x, y],
                [x + w, y],
                [x + w, y + h],
                [x, y + h],
              ],
              { closed: true, thickness: 0.1 },
            );
          } catch (error) {
            // All of it stood there before.
            expect((error as { code: string }).code).toBe('wall.nothing');
          }
        }
        expect(doubled(project)).toBe(0);
        const used = new Set(Object.values(project.walls).flatMap((w) => [w.start, w.end]));
        expect(Object.keys(project.corners).sort()).toEqual([...used].sort());
      }),
      { numRuns: 60 },
    );
  });

  it('may stand back to back on one line', () => {
    const one = draw(
      emptyProject('p', 'P'),
      [
        [0, 0],
        [4, 0],
      ],
      { thickness: 0.2, offset: 0.1 },
    );
    const longer = draw(
      one,
      [
        [6, 0],
        [1, 0],
      ],
      { thickness: 0.2, offset: 0.1 },
    );
    expect(Object.keys(longer.walls)).toHaveLength(2);
    expect(doubled(longer)).toBeCloseTo(3, 6);
  });

  it('go on beyond a wall on both sides, and leave its openings alone', () => {
    const room = house([
      [0, 0],
      [4, 0],
      [4, 3],
      [0, 3],
    ]);
    const [wall] = Object.keys(room.walls);
    const with1 = edit(room, 'opening.add', newOpening(room, { id: 'o', wall, kind: 'door', at: 2 }));
    const over = draw(
      with1,
      [
        [-1, 0],
        [5, 0],
      ],
      { thickness: 0.3 },
    );
    expect(over.openings.o).toEqual(with1.openings.o);
    expect(doubled(over)).toBe(0);
    expect(Object.keys(over.walls)).toHaveLength(6);
  });
});
