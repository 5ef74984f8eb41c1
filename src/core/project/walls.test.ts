import { newOpening } from './opening-defaults';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { deriveModel } from '../model/derive';
import { cross, distance, sub, unit } from '../geometry/vec';
import { runChange, type CommandArgs, type CommandName } from './commands';
import { DomainError } from './errors';
import { checkOpening, clearSpans, fitOpening, openingGaps } from './openings';
import { wallEnds, wallLength } from './wall-line';
import { emptyProject, type Opening, type Project } from './schema';
import { faceAt, planOf, roomsByFace } from './topology';

let step = 0;
const METRIC = { openings: {}, units: 'metric' } as const;
const edit = <N extends CommandName>(project: Project, command: N, args: CommandArgs<N>): Project =>
  runChange(project, { id: `walls${String(step++).padStart(4, '0')}`, kind: 'do', command, args }).project;
const draw = (project: Project, points: [number, number][], thickness = 0.1, closed = false): Project =>
  edit(project, 'wall.draw', { level: 'ground', points: points.map(([x, y]) => ({ x, y })), closed, thickness });
const empty = (): Project => emptyProject('p', 'P');
const wallBetween = (project: Project, a: [number, number], b: [number, number]): string =>
  Object.values(project.walls).find((w) => {
    const [p, q] = wallEnds(project, w);
    const near = (r: { x: number; y: number }, [x, y]: [number, number]): boolean => distance(r, { x, y }) < 1e-6;
    return (near(p, a) && near(q, b)) || (near(p, b) && near(q, a));
  })!.id;

describe('moving a wall', () => {
  it('keeps the directions of oblique neighbours', () => {
    const before = draw(
      empty(),
      [
        [0, 0],
        [6, 0],
        [5, 3],
        [1, 3],
      ],
      0.1,
      true,
    );
    const top = wallBetween(before, [5, 3], [1, 3]);
    const after = edit(before, 'wall.move', { wall: top, offset: -0.6 });
    for (const id of Object.keys(before.walls)) {
      const direction = (p: Project) => {
        const [a, b] = wallEnds(p, p.walls[id]);
        return unit(sub(b, a));
      };
      expect(cross(direction(before), direction(after))).toBeCloseTo(0, 9);
    }
    expect([...deriveModel(after).shell.rooms.values()]).toHaveLength(1);
  });

  it('takes along the partitions that end on it', () => {
    let project = draw(
      empty(),
      [
        [0, 0],
        [6, 0],
        [6, 4],
        [0, 4],
      ],
      0.2,
      true,
    );
    project = draw(project, [
      [3, 0],
      [3, 4],
    ]);
    const south = wallBetween(project, [0, 0], [6, 0]);
    const rooms = Object.keys(project.rooms).sort();
    project = edit(project, 'wall.move', { wall: south, offset: -1 });
    expect(Object.keys(project.rooms).sort()).toEqual(rooms);
    const partition = Object.values(project.walls).find((w) => w.thickness === 0.1)!;
    expect(wallLength(project, partition)).toBeCloseTo(5, 9);
  });

  it('puts a short wall between where a neighbour runs on in line', () => {
    let project = draw(empty(), [
      [0, 0],
      [3, 0],
      [6, 0],
    ]);
    const first = wallBetween(project, [0, 0], [3, 0]);
    project = edit(project, 'wall.move', { wall: first, offset: 1 });
    expect(Object.keys(project.walls)).toHaveLength(3);
    expect(wallLength(project, project.walls[wallBetween(project, [3, 0], [3, 1])])).toBeCloseTo(1, 9);
  });

  it('there and back is where it was', () => {
    const project = draw(
      empty(),
      [
        [0, 0],
        [6, 0],
        [6.5, 4],
        [-1, 5],
      ],
      0.2,
      true,
    );
    fc.assert(
      fc.property(fc.nat(3), fc.double({ min: -0.8, max: 0.8, noNaN: true }), (which, offset) => {
        const wall = Object.keys(project.walls)[which];
        const back = edit(edit(project, 'wall.move', { wall, offset }), 'wall.move', { wall, offset: -offset });
        for (const [id, c] of Object.entries(project.corners)) expect(distance(back.corners[id], c)).toBeLessThan(1e-9);
      }),
    );
  });
});

describe('typing a length', () => {
  it('gives exactly that, from either end, whatever the neighbours', () => {
    fc.assert(
      fc.property(fc.nat(3), fc.integer({ min: 1500, max: 9000 }), fc.constantFrom('start' as const, 'end' as const), (which, millimetres, keep) => {
        const project = draw(
          empty(),
          [
            [0, 0],
            [6, 0],
            [6, 4],
            [0, 4],
          ],
          0.2,
          true,
        );
        const wall = Object.keys(project.walls)[which];
        const after = edit(project, 'wall.length', { wall, length: millimetres / 1000, keep });
        expect(wallLength(after, after.walls[wall])).toBeCloseTo(millimetres / 1000, 9);
        const kept = project.walls[wall][keep];
        expect(after.corners[kept]).toEqual(project.corners[kept]);
        expect(Object.keys(after.rooms)).toEqual(Object.keys(project.rooms));
      }),
    );
  });

  it('of a wall that stands free moves its free end', () => {
    const project = draw(empty(), [
      [0, 0],
      [2, 2],
    ]);
    const [wall] = Object.keys(project.walls);
    const after = edit(project, 'wall.length', { wall, length: 1, keep: 'start' });
    expect(wallEnds(after, after.walls[wall])[1]).toEqual({ x: expect.closeTo(Math.SQRT1_2), y: expect.closeTo(Math.SQRT1_2) });
  });
});

describe('the clear part of a wall', () => {
  it('ends at the faces of what meets it, partitions taken out', () => {
    let project = draw(
      empty(),
      [
        [0, 0],
        [6, 0],
        [6, 4],
        [0, 4],
      ],
      0.3,
      true,
    );
    project = draw(
      project,
      [
        [2, 0],
        [2, 4],
      ],
      0.1,
    );
    const south = project.walls[wallBetween(project, [0, 0], [6, 0])];
    expect(clearSpans(project, south)).toEqual([
      { from: expect.closeTo(0.15), to: expect.closeTo(1.95) },
      { from: expect.closeTo(2.05), to: expect.closeTo(5.85) },
    ]);
  });

  it('takes every opening that lies in it, and no other', () => {
    let project = draw(
      empty(),
      [
        [0, 0],
        [7, 0],
        [7, 4],
        [0, 4],
      ],
      0.25,
      true,
    );
    project = draw(
      project,
      [
        [2.5, 0],
        [3.4, 4],
      ],
      0.12,
    );
    const south = project.walls[wallBetween(project, [0, 0], [7, 0])];
    const spans = clearSpans(project, south);
    fc.assert(
      fc.property(fc.double({ min: 0, max: 7, noNaN: true }), fc.double({ min: 0.2, max: 3, noNaN: true }), (at, width) => {
        const o: Opening = newOpening(METRIC, {
          id: 'o',
          name: 'O',
          wall: south.id,
          kind: 'window',
          at,
          width,
          height: 1,
          sill: 0.9,
          hinge: 'start',
          swing: 'left',
          panes: { across: 1, up: 1 },
          finishes: {},
        });
        const inside = spans.some((s) => at - width / 2 >= s.from - 1e-9 && at + width / 2 <= s.to + 1e-9);
        const edge = spans.some((s) => Math.min(Math.abs(at - width / 2 - s.from), Math.abs(at + width / 2 - s.to)) < 1e-5);
        fc.pre(!edge);
        let refused = false;
        try {
          checkOpening(project, o);
        } catch (error) {
          expect(error).toBeInstanceOf(DomainError);
          refused = true;
        }
        expect(refused).toBe(!inside);
        const fit = fitOpening(spans, at, width);
        if (fit) {
          expect(() => checkOpening(project, { ...o, at: fit.at })).not.toThrow();
          const gaps = openingGaps(project, { ...o, at: fit.at })!;
          expect(gaps.start + gaps.end + width).toBeCloseTo(fit.span.to - fit.span.from, 9);
        }
      }),
      { numRuns: 300 },
    );
  });
});

describe('rooms', () => {
  it('know which face is theirs, inside and outside', () => {
    let project = draw(
      empty(),
      [
        [0, 0],
        [6, 0],
        [6, 4],
        [0, 4],
      ],
      0.2,
      true,
    );
    project = draw(project, [
      [3, 0],
      [3, 4],
    ]);
    const { arrangement } = planOf(project, 'ground');
    expect(roomsByFace(project, 'ground').size).toBe(2);
    expect(faceAt(arrangement, { x: 1, y: 1 })).not.toBe(faceAt(arrangement, { x: 5, y: 1 }));
    expect(faceAt(arrangement, { x: 9, y: 1 })).toBe(-1);
  });

  it('end when their ring is opened, and come back with undo as they were', () => {
    const project = edit(
      draw(
        empty(),
        [
          [0, 0],
          [6, 0],
          [6, 4],
          [0, 4],
        ],
        0.2,
        true,
      ),
      'finish.apply',
      { targets: [{ kind: 'ground' }], finish: 'ground.grass' },
    );
    const wall = Object.keys(project.walls)[0];
    const outcome = runChange(project, { id: 'openring', kind: 'do', command: 'delete', args: { ids: [wall] } });
    expect(outcome.project.rooms).toEqual({});
    const undone = runChange(outcome.project, { id: 'closering', kind: 'undo', command: 'history.patch', args: { patches: outcome.inverse } });
    expect(undone.project).toEqual(project);
  });

  it('of a plan drawn in any order are the same rooms', () => {
    const parts: [number, number][][] = [
      [
        [0, 0],
        [6, 0],
      ],
      [
        [6, 0],
        [6, 4],
      ],
      [
        [6, 4],
        [0, 4],
      ],
      [
        [0, 4],
        [0, 0],
      ],
      [
        [3, 0],
        [3, 4],
      ],
    ];
    fc.assert(
      fc.property(fc.shuffledSubarray(parts, { minLength: 5 }), (order) => {
        let project = empty();
        for (const part of order) project = draw(project, part, 0.2);
        const areas = [...deriveModel(project).shell.rooms.values()].map((r) => Math.round(r.area * 1e6)).sort();
        expect(areas).toEqual([Math.round(2.8 * 3.8 * 1e6), Math.round(2.8 * 3.8 * 1e6)]);
      }),
      { numRuns: 40 },
    );
  });

  it('are one where two rings share nothing, and nested where one stands in the other', () => {
    let project = draw(
      empty(),
      [
        [0, 0],
        [8, 0],
        [8, 8],
        [0, 8],
      ],
      0.2,
      true,
    );
    project = draw(
      project,
      [
        [3, 3],
        [5, 3],
        [5, 5],
        [3, 5],
      ],
      0.1,
      true,
    );
    const areas = [...deriveModel(project).shell.rooms.values()].map((r) => r.area).sort((a, b) => a - b);
    expect(areas[0]).toBeCloseTo(1.9 ** 2, 9);
    expect(areas[1]).toBeCloseTo(7.8 ** 2 - 2.1 ** 2, 9);
  });
});
