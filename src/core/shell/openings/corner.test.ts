import fc from 'fast-check';
import { beforeAll, describe, expect, it } from 'vitest';
import { deriveModel } from '../../model/derive';
import { meshArea } from '../../geometry/mesh';
import { newOpening } from '../../project/opening-defaults';
import type { Opening, Project } from '../../project/schema';
import { edit, house, wallAt } from '../../testing/drafting';
import { loadKernel, openEdges, volume } from '../../testing/solid';
import { wallSolid } from '../walls';

const SQUARE: [number, number][] = [
  [0, 0],
  [6, 0],
  [6, 4],
  [0, 4],
];
const south = (p: Project): string => wallAt(p, (a, b) => a.y === 0 && b.y === 0);
const withWindow = (project: Project, extra: Partial<Opening> = {}): Project =>
  edit(project, 'opening.add', newOpening(project, { id: 'o', wall: south(project), kind: 'window', form: 'corner', hinge: 'end', at: 0, ...extra }));
const walls = (project: Project) => [...deriveModel(project).shell.walls.values()];
const total = (project: Project): number => walls(project).reduce((sum, w) => sum + volume(wallSolid(w)), 0);

beforeAll(loadKernel);

describe('a corner window', () => {
  it('takes its band out of both walls, which stay closed', () => {
    for (const hinge of ['start', 'end'] as const)
      for (const size of [{}, { sill: 0, height: 2.1 }, { sill: 0.4, height: 2.1 }, { sill: 0, height: 2.5 }]) {
        const plain = house(SQUARE);
        const project = withWindow(plain, { hinge, width: 1.4, depth: 0.9, ...size });
        for (const wall of walls(project)) expect([wall.id, openEdges(wallSolid(wall))]).toEqual([wall.id, 0]);
        // Round a right angle the middle of the band is as long as its two parts.
        expect(total(plain) - total(project)).toBeCloseTo((1.4 + 0.9) * 0.3 * project.openings.o.height, 4);
        expect(project.openings.o.at).toBeCloseTo(hinge === 'end' ? 6 - 0.7 : 0.7, 9);
        for (const wall of walls(project))
          wall.sides.forEach((side) => {
            if (!side.openings.length) return;
            expect(side.outdoors || side.room !== null).toBe(true);
          });
      }
  });

  it('leaves its faces as large inside and outside as they show', () => {
    const project = withWindow(house(SQUARE), { width: 1.4, depth: 0.9 });
    const wall = walls(project).find((w) => w.id === south(project))!;
    const [inside, outside] = [false, true].map((outdoors) => wall.sides.find((s) => s.outdoors === outdoors)!);
    expect(inside.area).toBeCloseTo(5.7 * 2.5 - 1.25 * 1.2, 6);
    expect(outside.area).toBeCloseTo(6.3 * 2.5 - 1.55 * 1.2, 6);
  });

  it('is closed at oblique corners, of unequal and offset walls', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -0.9, max: 2.4, noNaN: true }),
        fc.integer({ min: 1, max: 4 }),
        fc.double({ min: -0.5, max: 0.5, noNaN: true }),
        (lean, tenths, offset) => {
          let project = house([
            [0, 0],
            [6, 0],
            [6 + lean, 4],
            [0, 4],
          ]);
          const other = Object.values(project.walls).find((w) => project.corners[w.start].x === 6 && project.corners[w.start].y === 0)!;
          project = edit(project, 'wall.set', { wall: other.id, set: { offset: (offset * tenths) / 10 } });
          project = edit(project, 'wall.build', { walls: [other.id], type: null, thickness: tenths / 10, keep: 'line' });
          project = withWindow(project, { width: 1.6, depth: 1.2 });
          for (const wall of walls(project)) expect([wall.id, openEdges(wallSolid(wall))]).toEqual([wall.id, 0]);
          for (const part of deriveModel(project).shell.openings.get('o')!.parts) if (part.part !== 'frame') expect(openEdges(part.mesh)).toBe(0);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('follows its walls, and has glass in both', () => {
    let project = withWindow(house(SQUARE), { width: 1.4, depth: 0.9 });
    const east = Object.values(project.walls).find((w) => project.corners[w.start].x === 6 && project.corners[w.end].x === 6)!;
    project = edit(project, 'wall.move', { wall: east.id, offset: 1 });
    const wall = project.walls[south(project)];
    const length = Math.abs(project.corners[wall.end].x - project.corners[wall.start].x);
    expect([5, 7]).toContain(Math.round(length));
    expect(project.openings.o.at).toBeCloseTo(length - 0.7, 9);
    const derived = deriveModel(project).shell.openings.get('o')!;
    expect(derived.glazing).toHaveLength(2);
    // Two panes two by two, their bars on them: as much glass as the frames leave.
    const glass = derived.parts.find((p) => p.part === 'glass')!;
    expect(meshArea(glass.mesh)).toBeGreaterThan(2 * (1.2 + 0.7) * 1);
  });

  it('refuses a corner that is none, what has no room, and what stands round the corner already', () => {
    const plain = house(SQUARE);
    const partition = edit(plain, 'wall.draw', {
      level: 'ground',
      points: [
        { x: 6, y: 0 },
        { x: 8, y: 0 },
      ],
      closed: false,
      thickness: 0.1,
    });
    expect(() => withWindow(partition)).toThrow('goes round a corner, and at that end');
    expect(() => withWindow(plain, { depth: 3.9 })).toThrow('from the corner it would reach');
    expect(() => withWindow(plain, { shape: { kind: 'ellipse' } })).toThrow('rectangular outline');
    const east = Object.values(plain.walls).find((w) => plain.corners[w.start].x === 6 && plain.corners[w.end].x === 6)!;
    const beside = edit(plain, 'opening.add', newOpening(plain, { id: 'w', wall: east.id, kind: 'window', at: 1.2, width: 1 }));
    expect(() => withWindow(beside)).toThrow('overlap');
    const there = withWindow(plain);
    expect(() => edit(there, 'opening.add', newOpening(there, { id: 'w', wall: east.id, kind: 'window', at: 1.2, width: 1 }))).toThrow('overlap');
    // A wall drawn to its corner would take the corner away.
    expect(() =>
      edit(there, 'wall.draw', {
        level: 'ground',
        points: [
          { x: 6, y: 0 },
          { x: 8, y: 0 },
        ],
        closed: false,
        thickness: 0.1,
      }),
    ).toThrow('corner');
  });
});
