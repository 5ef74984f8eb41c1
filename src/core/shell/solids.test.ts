import fc from 'fast-check';
import { beforeAll, describe, expect, it } from 'vitest';
import { deriveModel } from '../model/derive';
import type { Mesh } from '../geometry/mesh';
import { signedArea } from '../geometry/polygon';
import type { CommandArgs } from '../project/commands';
import { newOpening } from '../project/opening-defaults';
import { openingOutline } from '../project/openings';
import { emptyProject, type Opening, type Project } from '../project/schema';
import { wallThickness } from '../project/wall-line';
import { draw, edit, wallAt } from '../testing/drafting';
import { loadKernel, openEdges, volume } from '../testing/solid';
import { wallSolid } from './walls';

const ring: [number, number][] = [
  [0, 0],
  [6, 0],
  [6, 4],
  [0, 4],
];
const house = (extra: Partial<CommandArgs<'wall.draw'>> = {}): Project => draw(emptyProject('p', 'House'), ring, { closed: true, thickness: 0.3, ...extra });
const south = (p: Project): string => wallAt(p, (a, b) => a.y === 0 && b.y === 0);

beforeAll(loadKernel);

const solids = (project: Project): { id: string; mesh: Mesh }[] =>
  deriveModel(project)
    .shell.levels.flatMap((l) => l.walls)
    .filter((w) => w.wall.kind === 'wall')
    .map((w) => ({ id: w.id, mesh: wallSolid(w) }));

/** Footprint times height, less the openings times the thickness. */
function expectClosed(project: Project): void {
  for (const { id, mesh } of solids(project)) expect([id, openEdges(mesh)]).toEqual([id, 0]);
}

describe('walls are closed solids', () => {
  it('of the volume of their footprint times their height', () => {
    const project = draw(house(), [
      [2, 0],
      [2, 4],
    ]);
    expectClosed(project);
    const total = solids(project).reduce((sum, s) => sum + volume(s.mesh), 0);
    // Outside 6.3 × 4.3, inside 5.7 × 3.7; the partition 3.7 × 0.1.
    expect(total).toBeCloseTo((6.3 * 4.3 - 5.7 * 3.7 + 3.7 * 0.1) * 2.5, 4);
  });

  it('that lose the volume of their openings: doors, windows, arches, round ones, niches, full height', () => {
    const shapes: Partial<Opening>[] = [
      { kind: 'door' },
      { kind: 'window' },
      { kind: 'window', shape: { kind: 'arch', rise: 0.6 } },
      { kind: 'window', shape: { kind: 'arch', rise: 0.2 } },
      { kind: 'window', shape: { kind: 'ellipse' } },
      { kind: 'passage', shape: { kind: 'arch', rise: 0.4 }, sill: 0 },
      { kind: 'passage', height: 2.5, sill: 0 },
      {
        kind: 'window',
        shape: {
          kind: 'outline',
          points: [
            { x: 0, y: 0 },
            { x: 1, y: 0 },
            { x: 1, y: 0.5 },
            { x: 0.5, y: 1 },
            { x: 0, y: 0.5 },
          ],
        },
      },
      { kind: 'niche', depth: 0.12, swing: 'left' },
      { kind: 'niche', depth: 0.12, swing: 'right', shape: { kind: 'arch', rise: 0.3 } },
    ];
    for (const shape of shapes) {
      const plain = house();
      const wall = south(plain);
      const opening = newOpening(plain, { id: 'o', wall, at: 3, ...shape, kind: shape.kind! });
      const cut = edit(plain, 'opening.add', opening);
      expectClosed(cut);
      const [before, after] = [plain, cut].map((p) => volume(solids(p).find((s) => s.id === wall)!.mesh));
      const depth = opening.kind === 'niche' ? opening.depth : wallThickness(cut, cut.walls[wall]);
      expect(before - after).toBeCloseTo(signedArea(openingOutline(opening)) * depth, 4);
    }
  });

  it('on arcs, with windows in them', () => {
    let project = draw(house(), [
      [6, 0],
      [6, -3],
    ]);
    project = edit(project, 'wall.draw', {
      level: 'ground',
      points: [
        { x: 6, y: -3 },
        { x: 0, y: 0 },
      ],
      bulges: [-0.4],
      closed: false,
      thickness: 0.2,
    });
    const arc = Object.values(project.walls).find((w) => w.bulge !== 0)!;
    expectClosed(project);
    project = edit(project, 'opening.add', newOpening(project, { id: 'o', wall: arc.id, kind: 'window', at: 3, width: 1 }));
    expectClosed(project);
    // The middle line of a ring segment times its thickness.
    const chord = Math.hypot(6, 3);
    const angle = 4 * Math.atan(0.4);
    const radius = chord / 2 / Math.sin(angle / 2);
    const solid = solids(project).find((s) => s.id === arc.id)!;
    expect(volume(solid.mesh)).toBeGreaterThan(radius * angle * 0.2 * 2.5 - 1 * 1.2 * 0.2 - 0.2);
    expect(volume(solid.mesh)).toBeLessThan(radius * angle * 0.2 * 2.5 - 1 * 1.2 * 0.2 + 0.2);
  });

  it('with raking tops, raised feet and lowered floors', () => {
    let project = house();
    const wall = south(project);
    project = edit(project, 'wall.set', { wall, set: { top: { kind: 'raking', start: 2.2, end: 4 } } });
    expectClosed(project);
    const rake = volume(solids(project).find((s) => s.id === wall)!.mesh);
    // Beyond its corners, in the mitres, it keeps the height of its end.
    expect(rake).toBeCloseTo(6 * 0.3 * ((2.2 + 4) / 2), 1);
    project = edit(project, 'wall.set', { wall, set: { base: 0.4 } });
    expectClosed(project);
    expect(volume(solids(project).find((s) => s.id === wall)!.mesh)).toBeCloseTo(6 * 0.3 * (3.1 - 0.4), 1);
    project = edit(project, 'room.set', { room: Object.keys(project.rooms)[0], set: { step: -0.15 } });
    expectClosed(project);
    expect(() => edit(project, 'opening.add', newOpening(project, { id: 'o', wall, kind: 'door', at: 3 }))).toThrow('below the foot');
  });

  it('with a ridge, whose gable follows it, a window under it', () => {
    let project = house();
    const wall = south(project);
    project = edit(project, 'wall.set', { wall, set: { top: { kind: 'raking', start: 2.5, end: 2.5, apex: { at: 0.4, height: 5.5 } } } });
    expectClosed(project);
    // The gable is a triangle 3 m high over the 6 m of the wall; in the mitres it keeps to its ends.
    expect(volume(solids(project).find((s) => s.id === wall)!.mesh)).toBeCloseTo(6 * 0.3 * 2.5 + ((6 * 3) / 2) * 0.3, 1);
    const opening = newOpening(project, { id: 'o', wall, kind: 'window', at: 1, sill: 2.7, width: 1, height: 1, place: { kind: 'ridge' } });
    project = edit(project, 'opening.add', opening);
    expect(project.openings.o.at).toBeCloseTo(0.4 * 6, 9);
    expectClosed(project);
    const side = deriveModel(project)
      .shell.walls.get(wall)!
      .sides.find((s) => s.outdoors)!;
    expect(side.area).toBeCloseTo(6.3 * 2.5 + (6.3 * 3) / 2 - 1, 6);
    project = edit(project, 'wall.set', { wall, set: { top: { kind: 'raking', start: 2.5, end: 2.5, apex: { at: 0.5, height: 6 } } } });
    expect(project.openings.o.at).toBeCloseTo(3, 9);
    expect(() => edit(project, 'opening.set', { opening: 'o', set: { sill: 4.8 } })).toThrow('above the wall');
    const flat = edit(project, 'wall.set', { wall, set: { top: { kind: 'fixed', height: 4 } } });
    expect(flat.openings.o.place).toEqual({ kind: 'free' });
    expect(() => edit(flat, 'opening.set', { opening: 'o', set: { place: { kind: 'ridge' } } })).toThrow('has no ridge');
    const [left] = Object.values(edit(project, 'wall.split', { wall, at: [1.5] }).walls).filter((w) => w.id === wall);
    expect(left.top).toMatchObject({ kind: 'raking', start: 2.5, end: 2.5 + 3.5 / 2, apex: null });
  });

  it('in random plans with random openings', () => {
    const line = fc.record({
      x: fc.integer({ min: 0, max: 12 }),
      y: fc.integer({ min: 0, max: 8 }),
      across: fc.boolean(),
      skew: fc.integer({ min: -3, max: 3 }),
    });
    const hole = fc.record({
      wall: fc.nat(30),
      at: fc.double({ min: 0, max: 1, noNaN: true }),
      kind: fc.constantFrom('door', 'window', 'passage', 'niche') as fc.Arbitrary<Opening['kind']>,
      width: fc.integer({ min: 3, max: 12 }),
      round: fc.constantFrom('rectangle', 'arch', 'ellipse'),
    });
    fc.assert(
      fc.property(fc.array(line, { maxLength: 5 }), fc.array(hole, { maxLength: 6 }), fc.integer({ min: 1, max: 4 }), (lines, holes, tenths) => {
        let project = house({ thickness: tenths / 10 });
        for (const { x, y, across, skew } of lines)
          try {
            project = draw(
              project,
              across
                ? [
                    [0, y / 2],
                    [6, y / 2 + skew / 4],
                  ]
                : [
                    [x / 2, 0],
                    [x / 2 + skew / 4, 4],
                  ],
            );
          } catch {
            // A wall that stands there already is refused, as it should be.
          }
        const walls = Object.keys(project.walls);
        holes.forEach(({ wall, at, kind, width, round }, i) => {
          const id = walls[wall % walls.length];
          const [a, b] = [project.corners[project.walls[id].start], project.corners[project.walls[id].end]];
          const opening = newOpening(project, {
            id: `o${i}`,
            wall: id,
            kind,
            at: at * Math.hypot(a.x - b.x, a.y - b.y),
            width: width / 10,
            shape:
              kind === 'door' || round === 'rectangle' ? { kind: 'rectangle' } : round === 'arch' ? { kind: 'arch', rise: width / 20 } : { kind: 'ellipse' },
            ...(kind === 'passage' && round === 'ellipse' ? { sill: 0.3 } : {}),
          });
          try {
            project = edit(project, 'opening.add', opening);
          } catch {
            // What has no room is refused.
          }
        });
        expectClosed(project);
        const model = deriveModel(project);
        for (const room of model.shell.rooms.values()) expect(room.area).toBeGreaterThanOrEqual(0);
      }),
      { numRuns: 80 },
    );
  });
});

describe('splitting and joining', () => {
  it('keep area and volume, and what stands in the wall', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.3, max: 0.7, noNaN: true }), fc.double({ min: -0.5, max: 0.5, noNaN: true }), (share, bulge) => {
        const arc = Math.abs(bulge) < 0.05 ? 0 : bulge;
        let project = edit(emptyProject('p', 'P'), 'wall.draw', {
          level: 'ground',
          points: [
            { x: 0, y: 0 },
            { x: 8, y: 0 },
          ],
          bulges: [arc],
          closed: false,
          thickness: 0.2,
        });
        const [id] = Object.keys(project.walls);
        const sum = (p: Project): number => solids(p).reduce((total, s) => total + volume(s.mesh), 0);
        project = edit(project, 'opening.add', newOpening(project, { id: 'o', wall: id, kind: 'window', at: 1.2, width: 0.8 }));
        const before = sum(project);
        const at = share * 8;
        const split = edit(project, 'wall.split', { wall: id, at: [at] });
        expect(Object.keys(split.walls)).toHaveLength(2);
        expectClosed(split);
        expect(sum(split)).toBeCloseTo(before, arc ? 1 : 4);
        if (arc) return;
        const [a, b] = Object.keys(split.walls);
        const joined = edit(split, 'wall.join', { a, b });
        expect(Object.keys(joined.walls)).toHaveLength(1);
        expect(sum(joined)).toBeCloseTo(before, 4);
        expect(joined.openings.o.at).toBeCloseTo(1.2, 9);
      }),
      { numRuns: 30 },
    );
  });
});
