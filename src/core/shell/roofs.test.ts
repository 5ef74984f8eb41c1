import fc from 'fast-check';
import { beforeAll, describe, expect, it } from 'vitest';
import { deriveModel } from '../model/derive';
import { joinMeshes, meshArea } from '../geometry/mesh';
import { signedArea } from '../geometry/polygon';
import { validateProject } from '../project/commands';
import { newOpening } from '../project/opening-defaults';
import { newRoof } from '../project/roof-defaults';
import { endBelowBreak, roofHeight, roofShape } from '../project/roofs';
import { emptyProject, type Project, type Roof, type RoofEdge } from '../project/schema';
import { roofSchedule } from '../schedules/shell';
import { edit, house } from '../testing/drafting';
import { loadKernel, openEdges, volume } from '../testing/solid';
import { wallSolid } from './walls';

const RECTANGLE: [number, number][] = [
  [0, 0],
  [8, 0],
  [8, 5],
  [0, 5],
];
const LETTER: [number, number][] = [
  [0, 0],
  [9, 0],
  [9, 4],
  [4, 4],
  [4, 9],
  [0, 9],
];
const PITCH = Math.PI / 4;
const roofed = (project: Project, form: Parameters<typeof newRoof>[2], extra: Partial<Roof> = {}): Project => {
  const roof = newRoof(project, { id: 'roof', level: 'ground' }, form);
  return edit(project, 'roof.put', { roof: { ...roof, ...extra, all: { ...roof.all, pitch: PITCH, ...extra.all } } });
};
const roofOf = (project: Project) => deriveModel(project).shell.levels[0].roofs[0];
const solid = (project: Project) => {
  const { covering, fascia, underside } = roofOf(project);
  return joinMeshes([covering, fascia, underside]);
};
const expectClosed = (project: Project): void => {
  expect(openEdges(solid(project))).toBe(0);
  for (const wall of deriveModel(project).shell.walls.values()) expect([wall.id, openEdges(wallSolid(wall))]).toEqual([wall.id, 0]);
};

beforeAll(loadKernel);

describe('a roof over a level', () => {
  it('hipped: closed, with the area of its plan over the cosine', () => {
    const project = roofed(house(RECTANGLE), 'hip');
    expectClosed(project);
    expect(roofSchedule(deriveModel(project))).toMatchObject([
      {
        name: 'Roof 1',
        pitches: '45',
        planArea: expect.closeTo(8.9 * 5.9, 6),
        slopingArea: expect.closeTo((8.9 * 5.9) / Math.cos(PITCH), 5),
        eaves: expect.closeTo(2 * (8.9 + 5.9), 6),
      },
    ]);
    const { area, shape } = roofOf(project);
    // Outside 8.3 × 5.3, an overhang of 300 all round.
    expect(signedArea(shape.outlines[0].outer)).toBeCloseTo(8.9 * 5.9, 6);
    expect(area).toBeCloseTo((8.9 * 5.9) / Math.cos(PITCH), 5);
    // As thick square to the plane as was asked for.
    expect(volume(solid(project))).toBeCloseTo((8.9 * 5.9 * 0.25) / Math.cos(PITCH) - edgeLoss(8.9, 5.9), 2);
  });

  /** Upright between two parallel pyramids of the same plan the band is as high all over: nothing is lost. */
  const edgeLoss = (_w: number, _d: number): number => 0;

  it('with gables: the walls below rise to it and leave neither gap nor overlap', () => {
    const project = roofed(house(RECTANGLE), 'gable');
    expectClosed(project);
    const model = deriveModel(project);
    const [roof] = model.shell.levels[0].roofs;
    const walls = [...model.shell.walls.values()];
    const high = Math.max(...walls.flatMap((w) => [...wallSolid(w).positions].filter((_, i) => i % 3 === 2)));
    // The gable goes up to the underside: the plate, and half the span of the outside at 45°.
    expect(high).toBeCloseTo(2.5 + 5.3 / 2, 5);
    // What stands below the roof: the outer prism less the inner one.
    const total = walls.reduce((sum, w) => sum + volume(wallSolid(w)), 0);
    const prism = (w: number, d: number): number => w * d * 2.5 + (w * (d * d)) / 4 + w * d * ((5.3 - d) / 2);
    expect(total).toBeCloseTo(prism(8.3, 5.3) - prism(7.7, 4.7), 3);
    // No corner of a wall is above the underside.
    for (const wall of walls) {
      const { positions } = wallSolid(wall);
      for (let i = 0; i < positions.length; i += 3) {
        const over = roofHeight([roof.shape], { x: positions[i], y: positions[i + 1] });
        if (over !== null) expect(positions[i + 2]).toBeLessThan(over + 1e-4);
      }
    }
  });

  it('of an L, a single slope, half hips, a mansard, flat with a parapet: all closed', () => {
    for (const form of ['hip', 'gable', 'half-hip', 'single', 'mansard', 'flat'] as const)
      for (const plan of [RECTANGLE, LETTER]) {
        if (form === 'single' && plan === LETTER) continue;
        const project = roofed(house(plan), form);
        expect([form, openEdges(solid(project))]).toEqual([form, 0]);
        expectClosed(project);
        expect(volume(solid(project))).toBeGreaterThan(1);
      }
  });

  it('on random outlines, pitches and thicknesses stays closed, and so do the walls below', () => {
    const plan = fc.record({
      w: fc.integer({ min: 4, max: 12 }),
      d: fc.integer({ min: 4, max: 10 }),
      cut: fc.integer({ min: 1, max: 3 }),
      skew: fc.double({ min: -1, max: 1, noNaN: true }),
      pitch: fc.double({ min: 0.2, max: 1.1, noNaN: true }),
      overhang: fc.double({ min: 0, max: 0.8, noNaN: true }),
      thickness: fc.double({ min: 0.05, max: 0.4, noNaN: true }),
      gables: fc.boolean(),
    });
    fc.assert(
      fc.property(plan, ({ w, d, cut, skew, pitch, overhang, thickness, gables }) => {
        const base = house([
          [0, 0],
          [w, 0],
          [w + skew, d - cut],
          [w - cut, d - cut],
          [w - cut, d],
          [0, d],
        ]);
        const roof = newRoof(base, { id: 'roof', level: 'ground' }, gables ? 'gable' : 'hip');
        const edge = (e: Roof['all']): Roof['all'] => ({ ...e, pitch, overhang });
        const project = edit(base, 'roof.put', {
          roof: { ...roof, thickness, all: edge(roof.all), edges: Object.fromEntries(Object.entries(roof.edges).map(([k, e]) => [k, edge(e)])) },
        });
        expectClosed(project);
        const { area, shape } = roofOf(project);
        const flat = shape.upper.reduce((sum, q) => sum + (q.plane ? signedArea(q.ring) : 0), 0);
        expect(flat).toBeCloseTo(signedArea(shape.outlines[0].outer), 4);
        expect(area).toBeCloseTo(flat / Math.cos(pitch), 3);
      }),
      { numRuns: 40 },
    );
  });

  it('follows its walls, holds a window in its gable, and opens a room to itself', () => {
    let project = roofed(house(RECTANGLE), 'gable');
    const gable = Object.values(project.walls).find((w) => project.corners[w.start].x === 8 && project.corners[w.end].x === 8)!;
    project = edit(
      project,
      'opening.add',
      newOpening(project, { id: 'o', wall: gable.id, kind: 'window', at: 1, sill: 2.7, width: 0.8, height: 0.9, place: { kind: 'ridge' } }),
    );
    expect(project.openings.o.at).toBeCloseTo(2.5, 6);
    expectClosed(project);
    expect(() => edit(project, 'opening.set', { opening: 'o', set: { height: 3 } })).toThrow('above the wall');
    const room = Object.keys(project.rooms)[0];
    const flat = deriveModel(project).shell.levels[0].parts.find((p) => p.part.key === `${room}/ceiling`)!.part;
    expect(meshArea(flat.mesh)).toBeCloseTo(7.7 * 4.7, 4);
    project = edit(project, 'room.set', { room, set: { cover: { kind: 'roof' } } });
    const open = deriveModel(project).shell.levels[0].parts.find((p) => p.part.key === `${room}/ceiling`)!.part;
    expect(meshArea(open.mesh)).toBeCloseTo((7.7 * 4.7) / Math.cos(PITCH), 3);
    // The gable, as the room sees it, has its triangle.
    const side = deriveModel(project)
      .shell.walls.get(gable.id)!
      .sides.find((s) => s.room === room)!;
    expect(side.area).toBeCloseTo(4.7 * 2.8 + (4.7 * 4.7) / 4 - 0.8 * 0.9, 4);
    const south = Object.values(project.walls).find((w) => project.corners[w.start].y === 0 && project.corners[w.end].y === 0)!;
    const before = roofOf(project).area;
    project = edit(project, 'wall.move', { wall: south.id, offset: -1 });
    expect(roofOf(project).area).not.toBeCloseTo(before, 1);
    expectClosed(project);
    expect(validateProject(JSON.parse(JSON.stringify(project)))).toEqual(project);
    expect(() => edit(project, 'delete', { ids: ['roof'] })).toThrow('above the wall');
    expect(Object.keys(edit(project, 'delete', { ids: ['o', 'roof'] }).roofs)).toHaveLength(0);
  });

  it('stands over posts on an outline of its own, and is refused where its planes never meet or nothing is below', () => {
    const plain = emptyProject('p', 'Shelter');
    const over: Roof['over'] = {
      kind: 'outline',
      points: [
        { x: 0, y: 0 },
        { x: 4, y: 0 },
        { x: 4, y: 3 },
        { x: 0, y: 3 },
      ],
    };
    const shelter = roofed(plain, 'hip', { over });
    expect(openEdges(solid(shelter))).toBe(0);
    expect(roofShape(shelter, shelter.roofs.roof)!.lines).toHaveLength(4);
    expect(() => roofed(plain, 'hip')).toThrow('no closed outline');
    const upright = newRoof(plain, { id: 'roof', level: 'ground' }, 'hip');
    expect(() => edit(plain, 'roof.put', { roof: { ...upright, over, all: { ...upright.all, form: 'gable' } } })).toThrow('never meet');
  });

  it('does not cut the walls of the house beside it', () => {
    const project = roofed(house(RECTANGLE), 'gable');
    const before = [...deriveModel(project).shell.walls.values()].reduce((sum, w) => sum + volume(wallSolid(w)), 0);
    // A shelter that reaches over the outer face of the north wall, lower than the roof there.
    const points = [
      { x: 2, y: 5 },
      { x: 5, y: 5 },
      { x: 5, y: 7 },
      { x: 2, y: 7 },
    ];
    const shelter = newRoof(project, { id: 'shelter', level: 'ground', over: { kind: 'outline', points } }, 'hip');
    const both = edit(project, 'roof.put', { roof: { ...shelter, all: { ...shelter.all, rise: -0.5 } } });
    expect(deriveModel(both).shell.levels[0].roofs).toHaveLength(2);
    expectClosed(both);
    expect([...deriveModel(both).shell.walls.values()].reduce((sum, w) => sum + volume(wallSolid(w)), 0)).toBeCloseTo(before, 6);
  });

  it('covers chosen rooms only', () => {
    let project = house(RECTANGLE);
    project = edit(project, 'wall.draw', {
      level: 'ground',
      points: [
        { x: 3, y: 0 },
        { x: 3, y: 5 },
      ],
      closed: false,
      thickness: 0.1,
    });
    const small = [...deriveModel(project).shell.rooms.values()].sort((a, b) => a.area - b.area)[0];
    project = roofed(project, 'hip', { over: { kind: 'rooms', rooms: [small.id] } });
    const { shape } = roofOf(project);
    expect(signedArea(shape.outlines[0].outer)).toBeCloseTo((3.2 + 0.6) * (5.3 + 0.6), 4);
    expect(openEdges(solid(project))).toBe(0);
  });
});

describe('a mansard', () => {
  it('tells which of its edges come to an end below their break', () => {
    const chamfered = (corner: number): Project => house([[0, 0], [8, 0], [8, 6], [corner, 6], [0, 6 - corner]]); // prettier-ignore
    const ended = (corner: number, from: number): number => {
      const project = chamfered(corner);
      const roof = newRoof(project, { id: 'r', level: 'ground' }, 'mansard');
      const set = (e: RoofEdge): RoofEdge => ({ ...e, pitch: 1.2, upper: { from, pitch: 0.5 } });
      const own = { ...roof, all: set(roof.all), edges: Object.fromEntries(Object.entries(roof.edges).map(([k, e]) => [k, set(e)])) };
      return endBelowBreak(roofShape(edit(project, 'roof.put', { roof: own }), own)!).length;
    };
    // The edge over the cut corner, half a metre long, has shrunk to nothing some 0.6 m in, where the roof is 1.5 m high.
    expect(ended(0.35, 2.6)).toBe(1);
    expect(ended(0.35, 0.6)).toBe(0);
    expect(ended(2, 1)).toBe(0);
  });
});
