import { beforeAll, describe, expect, it } from 'vitest';
import { deriveModel } from '../model/derive';
import { joinMeshes } from '../geometry/mesh';
import { boolean, signedArea, totalArea } from '../geometry/polygon';
import { rectangleRegion } from '../geometry/region';
import { draw, edit, house } from '../testing/drafting';
import { loadKernel, openEdges, volume } from '../testing/solid';
import { newBeam } from './built-defaults';
import { newRoof, type RoofForm } from './roof-defaults';
import { foundOutline, overLevel } from './roof-outline';
import { roofHeight, roofShape, type RoofShape } from './roofs';
import { emptyProject, type Project } from './schema';

beforeAll(loadKernel);

const PITCH = Math.PI / 4;
const roofed = (project: Project, form: RoofForm = 'hip'): Project => {
  const roof = newRoof(project, { id: 'roof', level: 'ground', over: overLevel(project, 'ground') }, form);
  return edit(project, 'roof.put', { roof: { ...roof, all: { ...roof.all, pitch: PITCH, overhang: 0.4 } } });
};
const shapeOf = (project: Project): RoofShape => roofShape(project, project.roofs.roof)!;
/** The volume and the open edges of a roof's build-up. */
const solid = (project: Project): { open: number; volume: number; area: number } => {
  const { covering, fascia, underside, area } = deriveModel(project).shell.levels[0].roofs[0];
  const mesh = joinMeshes([covering, fascia, underside]);
  return { open: openEdges(mesh), volume: openEdges(mesh) ? NaN : volume(mesh), area };
};

/** A square house of 12 m about a court of 4 m, its rooms parted at two corners. */
const aroundCourt = (): Project => {
  let project = house([
    [0, 0],
    [12, 0],
    [12, 12],
    [0, 12],
  ]);
  project = draw(
    project,
    [
      [4, 4],
      [8, 4],
      [8, 8],
      [4, 8],
    ],
    { closed: true, thickness: 0.3 },
  );
  const court = Object.values(project.rooms).find((r) => Math.abs(r.anchor.x - 6) < 2.2 && Math.abs(r.anchor.y - 6) < 2.2)!;
  return edit(project, 'room.set', { room: court.id, set: { outdoors: true, cover: { kind: 'open' } } });
};

describe('a roof over a level with a court in it', () => {
  it('leaves the court free, and is closed round it', () => {
    const project = roofed(aroundCourt());
    const shape = shapeOf(project);
    expect(shape.outlines).toHaveLength(1);
    expect(shape.outlines[0].holes).toHaveLength(1);
    // Outer faces of 12.3 with the overhang; the court’s faces of 3.7, drawn in by it.
    expect(totalArea(shape.outlines)).toBeCloseTo(13.1 ** 2 - 2.9 ** 2, 6);
    expect(roofHeight([shape], { x: 6, y: 6 })).toBeNull();
    const { open, area, volume: build } = solid(project);
    expect(open).toBe(0);
    expect(area).toBeCloseTo(totalArea(shape.outlines) / Math.cos(PITCH), 3);
    expect(build).toBeGreaterThan(0.9 * area * project.roofs.roof.thickness);
  });

  it('falls to the court as to the outside: half way between them it has its ridge', () => {
    const shape = shapeOf(roofed(aroundCourt()));
    const z = (x: number): number => roofHeight([shape], { x, y: 6 })!;
    // Between the outer face at −0.15 and that to the court at 4.15.
    expect(z(2)).toBeGreaterThan(z(1.5));
    expect(z(2)).toBeGreaterThan(z(2.5));
    expect(z(0) - z(-0.15)).toBeCloseTo(0.15, 6);
    expect(z(4) - z(4.15)).toBeCloseTo(0.15, 6);
  });

  it('covers it again when it gets a ceiling, and also a flat roof goes round it', () => {
    const project = aroundCourt();
    const court = Object.values(project.rooms).find((r) => r.cover.kind === 'open')!;
    const closed = edit(roofed(project), 'room.set', { room: court.id, set: { cover: { kind: 'flat', height: null } } });
    expect(shapeOf(closed).outlines[0].holes).toEqual([]);
    const flat = roofed(project, 'flat');
    expect(roofHeight([shapeOf(flat)], { x: 6, y: 6 })).toBeNull();
    expect(solid(flat).open).toBe(0);
    expect(solid(flat).area).toBeCloseTo(totalArea(shapeOf(flat).outlines), 4);
  });
});

describe('a roof over a level of several outlines', () => {
  const two = (): Project =>
    draw(
      house([
        [0, 0],
        [8, 0],
        [8, 5],
        [0, 5],
      ]),
      [
        [12, 0],
        [16, 0],
        [16, 3],
        [12, 3],
      ],
      { closed: true, thickness: 0.3 },
    );

  it.each(['hip', 'gable', 'half-hip', 'single', 'mansard', 'flat'] as const)('%s: covers each of them, closed', (form) => {
    const project = roofed(two(), form);
    const shape = shapeOf(project);
    expect(shape.outlines).toHaveLength(2);
    for (const at of [
      { x: 4, y: 2.5 },
      { x: 14, y: 1.5 },
    ])
      expect(roofHeight([shape], at)).not.toBeNull();
    expect(roofHeight([shape], { x: 10, y: 2 })).toBeNull();
    expect(solid(project).open).toBe(0);
    // Every edge’s own form is told by its own wall: planes and lines are numbered alike.
    for (const { edge, plane, ring } of shape.under) {
      if (!plane || edge < 0) continue;
      const [a, b] = [shape.lines[edge].a, shape.lines[edge].b];
      const rise = plane.gx * (b.x - a.x) + plane.gy * (b.y - a.y);
      expect(Math.abs(rise)).toBeLessThan(1e-6);
      expect(signedArea(ring)).toBeGreaterThan(0);
    }
  });

  it('with gables has them at the ends of both', () => {
    const { roof } = roofed(two(), 'gable').roofs;
    expect(Object.values(roof.edges).filter((e) => e.form === 'gable')).toHaveLength(4);
  });
});

describe('an outline that is found', () => {
  const posts = (at: [number, number][], project = emptyProject('p', 'P')): Project =>
    at.reduce((all, [x, y], i) => edit(all, 'beam.put', newBeam(all, { id: `post${i}`, level: 'ground', a: { x, y, z: 0 }, b: { x, y, z: 2.4 } })), project);

  it('goes round the outside of posts', () => {
    const project = posts([
      [0, 0],
      [4, 0],
      [4, 3],
      [0, 3],
      [2, 1.5],
    ]);
    const ring = foundOutline(project, 'ground')!;
    expect(ring).toHaveLength(4);
    expect(signedArea(ring)).toBeCloseTo(4.12 * 3.12, 9);
    const roof = roofed(project);
    expect(roof.roofs.roof.over.kind).toBe('outline');
    expect(solid(roof).open).toBe(0);
    expect(totalArea(shapeOf(roof).outlines)).toBeCloseTo(4.92 * 3.92, 6);
  });

  it('closes the open side of a run of walls, also where it goes round a corner', () => {
    const run = draw(
      emptyProject('p', 'P'),
      [
        [0, 3],
        [0, 0],
        [8, 0],
        [8, 6],
        [5, 6],
        [5, 3],
      ],
      { thickness: 0.2 },
    );
    const ring = foundOutline(run, 'ground')!;
    expect(ring).toHaveLength(6);
    // An L, not its hull: the notch stays free.
    expect(totalArea(boolean('intersection', [{ outer: ring, holes: [] }], [rectangleRegion(1, 4, 4, 6)]))).toBeLessThan(1e-9);
    expect(solid(roofed(run)).open).toBe(0);
  });

  it('takes walls and posts together, and nothing where all stands in one line', () => {
    const wall = draw(emptyProject('p', 'P'), [
      [0, 0],
      [4, 0],
    ]);
    const long = draw(
      emptyProject('p', 'P'),
      [
        [0, 0],
        [20, 0],
      ],
      { thickness: 0.4 },
    );
    expect(foundOutline(long, 'ground')).toBeNull();
    expect(foundOutline(wall, 'ground')).toBeNull();
    const carport = posts(
      [
        [0.1, 3],
        [3.9, 3],
      ],
      wall,
    );
    const ring = foundOutline(carport, 'ground')!;
    expect(Math.max(...ring.map((p) => p.y))).toBeCloseTo(3.06, 9);
    expect(Math.min(...ring.map((p) => p.y))).toBeCloseTo(-0.05, 9);
    expect(foundOutline(emptyProject('p', 'P'), 'ground')).toBeNull();
    // Without anything to stand on there is none, and that is said.
    expect(() => roofed(wall)).toThrow(/there is no closed outline for it to cover/);
  });

  it('is not looked for where walls close', () => {
    const closed = house([
      [0, 0],
      [4, 0],
      [4, 3],
      [0, 3],
    ]);
    expect(overLevel(closed, 'ground')).toEqual({ kind: 'level' });
  });
});
