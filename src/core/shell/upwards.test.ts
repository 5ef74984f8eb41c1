import fc from 'fast-check';
import { beforeAll, describe, expect, it } from 'vitest';
import { joinMeshes, type Mesh, meshArea } from '../geometry/mesh';
import { regionArea, signedArea } from '../geometry/polygon';
import { newBeam, newFence, newGround, newSlab, newVoid, rectangleOf, ROOF_SECTIONS, roofSection } from '../project/built-defaults';
import { checkDormer, newDormer } from '../project/dormers';
import { newRoof } from '../project/roof-defaults';
import { roofShape } from '../project/roofs';
import { DORMER_FORMS, emptyProject, FENCE_KINDS, type Project } from '../project/schema';
import { edit, house } from '../testing/drafting';
import { loadKernel, openEdges, volume } from '../testing/solid';
import { slabMeshes } from './level';
import { deriveModel, deriveShell } from '../model/derive';
import { bodyOf, derivedOf } from '../model/model';
import { FRAMING } from './framing';
import { depthAt } from './ground';

const derive = (project: Project) => deriveShell(project);
const sizes = fc.double({ min: 0, max: 1, noNaN: true });

/** A house 8 × 6 m under a roof of a form. */
function roofed(form: 'hip' | 'gable' = 'gable', pitch = 0.75): Project {
  const project = house([
    [0, 0],
    [8, 0],
    [8, 6],
    [0, 6],
  ]);
  const roof = newRoof(project, { id: 'roof', level: 'ground' }, form);
  const all = { ...roof.all, pitch };
  return edit(project, 'roof.put', { roof: { ...roof, all, edges: Object.fromEntries(Object.entries(roof.edges).map(([k, e]) => [k, { ...e, pitch }])) } });
}

beforeAll(loadKernel);

describe('dormers', () => {
  it('are closed solids on any slope, and the roof stays closed round what they cut out', () => {
    let made = 0;
    fc.assert(
      fc.property(fc.constantFrom(...DORMER_FORMS), sizes, sizes, sizes, sizes, (form, w, h, s, p) => {
        const project = roofed(p > 0.5 ? 'gable' : 'hip', 0.65 + 0.35 * p);
        const dormer = { ...newDormer(project, { id: 'd', roof: 'roof', form })!, width: 0.9 + w, height: 0.9 + 0.5 * h, setback: 0.3 + 0.6 * s };
        let next: Project;
        try {
          next = edit(project, 'dormer.put', dormer);
        } catch (error) {
          expect(String(error)).toMatch(/was not set/);
          return;
        }
        made++;
        const level = derive(next).levels[0];
        const [own] = level.dormers;
        for (const solid of own.solids) {
          expect(openEdges(solid)).toBe(0);
          expect(volume(solid)).toBeGreaterThan(0);
        }
        const [roof] = level.roofs;
        const whole = joinMeshes([roof.covering, roof.fascia, roof.underside, roof.cuts]);
        expect(openEdges(whole)).toBe(0);
        const before = derive(project).levels[0].roofs[0];
        const full = joinMeshes([before.covering, before.fascia, before.underside]);
        const hole = Math.abs(signedArea(own.shape.hole));
        // What is cut out is the build-up, plumb: its plan times its upright thickness.
        const t = next.roofs.roof.thickness / Math.cos(next.roofs.roof.all.pitch);
        expect(volume(full) - volume(whole)).toBeCloseTo(hole * t, 3);
        expect(before.area - roof.area).toBeCloseTo(hole / Math.cos(next.roofs.roof.all.pitch), 5);
      }),
      { numRuns: 60 },
    );
    expect(made).toBeGreaterThan(20);
  });

  it('are refused where they would reach over their slope or another one', () => {
    const project = roofed();
    const dormer = newDormer(project, { id: 'd', roof: 'roof' })!;
    expect(() => checkDormer(project, { ...dormer, height: 4 })).toThrow(/over the edge of its slope/);
    const one = edit(project, 'dormer.put', dormer);
    expect(() => edit(one, 'dormer.put', { ...dormer, id: 'e', name: 'Dormer 2', at: dormer.at + 0.5 })).toThrow(/would overlap Dormer 1/);
    expect(Object.keys(edit(one, 'delete', { ids: ['roof'] }).dormers)).toEqual([]);
  });
});

describe('framing', () => {
  it('is of closed timbers at the spacing asked for, in every roof', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('hip' as const, 'gable' as const),
        sizes,
        fc.constantFrom('none' as const, 'tie' as const, 'truss' as const),
        fc.integer({ min: 0, max: 2 }),
        (form, p, ties, purlins) => {
          const project = roofed(form, 0.5 + 0.4 * p);
          const spacing = 0.4 + 0.2 * p;
          const framed = edit(project, 'roof.put', { roof: { ...project.roofs.roof, framing: { ...FRAMING, spacing, ties, purlins } } });
          const [roof] = derive(framed).levels[0].roofs;
          const { members } = roof.framing!;
          for (const m of members) {
            expect([m.kind, openEdges(m.mesh)]).toEqual([m.kind, 0]);
            expect(volume(m.mesh)).toBeGreaterThan(0);
          }
          const rafters = members.filter((m) => m.kind === 'rafter');
          const plan = roofShape(framed, framed.roofs.roof)!;
          // As much timber as fits: the plan of the slopes over the spacing, plus one rafter for every plane at most.
          const run = rafters.reduce((sum, m) => sum + Math.hypot(m.b.x - m.a.x, m.b.y - m.a.y), 0);
          const area = regionArea(plan.outlines[0]);
          expect(run).toBeGreaterThan(area / spacing - 1);
          expect(run).toBeLessThan(area / spacing + plan.under.length * 5);
          expect(members.filter((m) => m.kind === 'ridge').length).toBe(1);
          expect(members.filter((m) => m.kind === 'hip').length).toBe(form === 'hip' ? 4 : 0);
          expect(members.some((m) => m.kind === 'king post')).toBe(ties === 'truss');
          expect(members.filter((m) => m.kind === 'purlin').length).toBe((form === 'hip' ? 4 : 2) * purlins);
        },
      ),
      { numRuns: 25 },
    );
  });

  it('rafters of a gable: hand counted', () => {
    const project = roofed('gable', Math.PI / 4);
    const framed = edit(project, 'roof.put', { roof: { ...project.roofs.roof, framing: { ...FRAMING, spacing: 0.5, ties: 'none' } } });
    const { members } = derive(framed).levels[0].roofs[0].framing!;
    const rafters = members.filter((m) => m.kind === 'rafter');
    // 8 m and the walls' outer halves and two overhangs of 300: 8.9 m; as many bays of about half a metre, one more rafter, twice.
    const outline = roofShape(framed, framed.roofs.roof)!.outlines[0].outer.map((p) => p.x);
    const long = Math.max(...outline) - Math.min(...outline);
    expect(rafters.length).toBe(2 * (Math.round((long - 0.047) / 0.5) + 1));
  });
});

describe('roofs as they are drawn', () => {
  it('swept and single planes are closed, and sum up to their plan', () => {
    fc.assert(
      fc.property(fc.constantFrom(...ROOF_SECTIONS), sizes, sizes, (section, bend, t) => {
        const project = emptyProject('p', 'House');
        const path = [
          { x: 0, y: 0 },
          { x: 9, y: 0 },
          { x: 9 + 6 * bend, y: 8 },
        ];
        const roof = {
          ...newRoof(project, { id: 'r', level: 'ground', over: { kind: 'swept', path, section: roofSection(section, 4) } }, 'hip'),
          thickness: 0.05 + 0.35 * t,
        };
        const swept = edit(project, 'roof.put', { roof });
        const [own] = derive(swept).levels[0].roofs;
        expect(openEdges(joinMeshes([own.covering, own.fascia, own.underside]))).toBe(0);
        const cos = own.shape.under.reduce((sum, q) => sum + Math.abs(signedArea(q.ring)), 0);
        expect(cos).toBeCloseTo(regionArea(own.shape.outlines[0]), 6);
        expect(volume(joinMeshes([own.covering, own.fascia, own.underside]))).toBeGreaterThan(0);
      }),
      { numRuns: 30 },
    );
    const project = emptyProject('p', 'House');
    const points = rectangleOf({ x: 0, y: 0 }, { x: 4, y: 3 });
    const roof = {
      ...newRoof(project, { id: 'r', level: 'ground', over: { kind: 'plane', points, z: 0.4, direction: Math.PI / 2, pitch: 0.3 } }, 'hip'),
      thickness: 0.1,
    };
    const [own] = derive(edit(project, 'roof.put', { roof })).levels[0].roofs;
    const whole = joinMeshes([own.covering, own.fascia, own.underside]);
    expect(openEdges(whole)).toBe(0);
    expect(volume(whole)).toBeCloseTo((12 * 0.1) / Math.cos(0.3), 5);
    expect(own.area).toBeCloseTo(12 / Math.cos(0.3), 6);
    expect(own.shape.under[0].ring[2].z).toBeCloseTo(2.5 + 0.4 + 3 * Math.tan(0.3), 9);
    expect(() =>
      edit(project, 'roof.put', { roof: { ...roof, over: { ...roof.over, points: [points[0], points[2], points[1], points[3]] } as never } }),
    ).toThrow(/crosses itself/);
  });
});

describe('slabs, voids, beams', () => {
  it('a floor slab with voids is closed and has the volume that is left', () => {
    fc.assert(
      fc.property(sizes, sizes, sizes, (x, y, s) => {
        const outline = [{ outer: rectangleOf({ x: 0, y: 0 }, { x: 8, y: 6 }), holes: [] }];
        const hole = rectangleOf({ x: 0.5 + x * 4, y: 0.5 + y * 3 }, { x: 1.5 + x * 4 + s, y: 2 + y * 3 });
        const mesh = slab(outline, 2.75, 0.25, [{ outer: hole, holes: [] }]);
        const top = slab(outline, 2.75, 0.25, [{ outer: hole, holes: [] }]);
        // The upper side is the floors of the rooms: here the underside, lifted and turned over.
        const lid = { ...top, positions: top.positions.map((v, i) => (i % 3 === 2 ? 2.75 : v)), indices: top.indices.slice().reverse() };
        expect(openEdges(joinMeshes([mesh, flat(lid)]))).toBe(0);
        expect(volume(joinMeshes([mesh, flat(lid)]))).toBeCloseTo((48 - Math.abs(signedArea(hole))) * 0.25, 4);
      }),
      { numRuns: 30 },
    );
  });

  it('a void takes floor and ceiling away, and its guard goes round it', () => {
    let project = house([
      [0, 0],
      [8, 0],
      [8, 6],
      [0, 6],
    ]);
    project = edit(project, 'level.add', { id: 'upper', name: 'Upper', of: 'ground', where: 'above', walls: 'all', height: 2.4, slab: 0.25 });
    const plain = derive(project);
    project = edit(project, 'void.put', newVoid(project, { id: 'v', level: 'upper', points: rectangleOf({ x: 2, y: 2 }, { x: 4, y: 5 }) }));
    const model = derive(project);
    const room = (m: typeof model, i: number) => m.levels[i].rooms[0];
    expect(room(plain, 1).area - room(model, 1).area).toBeCloseTo(6, 6);
    expect(room(model, 1).highArea).toBeCloseTo(room(model, 1).area, 6);
    const area = (m: typeof model, i: number, kind: string) =>
      m.levels[i].parts.filter(({ part }) => part.sort === kind).reduce((sum, { part }) => sum + meshArea(part.mesh), 0);
    expect(area(plain, 0, 'ceiling') - area(model, 0, 'ceiling')).toBeCloseTo(6, 5);
    expect(area(plain, 1, 'floor') - area(model, 1, 'floor')).toBeCloseTo(6, 5);
    expect(model.levels[1].voids[0].guard!.length).toBeCloseTo(2 * (2.1 + 3.1), 6);
    expect(() =>
      edit(
        project,
        'void.put',
        newVoid(project, {
          id: 'w',
          level: 'upper',
          points: [
            { x: 0, y: 0 },
            { x: 1, y: 0 },
            { x: 0, y: 1 },
            { x: 1, y: 1 },
          ],
        }),
      ),
    ).toThrow(/crosses itself/);
  });

  it('slabs and inclined beams have their volumes', () => {
    let project = emptyProject('p', 'House');
    project = edit(project, 'slab.put', newSlab(project, { id: 's', level: 'ground', kind: 'balcony', points: rectangleOf({ x: 0, y: 0 }, { x: 3, y: 1.2 }) }));
    project = edit(
      project,
      'beam.put',
      newBeam(project, { id: 'b', level: 'ground', a: { x: 0, y: 0, z: 0 }, b: { x: 2, y: 1, z: 2 }, width: 0.1, depth: 0.2 }),
    );
    project = edit(
      project,
      'beam.put',
      newBeam(project, { id: 'c', level: 'ground', a: { x: 4, y: 0, z: 0 }, b: { x: 4, y: 0, z: 2.5 }, section: 'round', width: 0.2, depth: 0.2 }),
    );
    const [level] = derive(project).levels;
    expect(volume(level.slabs[0].mesh)).toBeCloseTo(3 * 1.2 * 0.2, 6);
    expect(volume(derivedOf(deriveModel(project), 'beams')[0].mesh)).toBeCloseTo(3 * 0.1 * 0.2, 6);
    expect(volume(derivedOf(deriveModel(project), 'beams')[1].mesh)).toBeCloseTo(2.5 * 12 * 0.01 * Math.sin(Math.PI / 12), 5);
    for (const part of ['rail', 'infill'] as const) expect(openEdges(level.slabs[0].guard![part])).toBe(0);
    expect(() => edit(project, 'beam.put', { ...project.beams.b, b: project.beams.b.a })).toThrow(/in one point/);
  });
});

describe('outside', () => {
  it('a pool with a sloping bottom holds the water it should', () => {
    let project = emptyProject('p', 'House');
    project = edit(project, 'ground.put', newGround(project, { id: 'g', kind: 'pool', points: rectangleOf({ x: 0, y: 0 }, { x: 4, y: 10 }) }));
    const [pool] = derivedOf(deriveModel(project), 'grounds');
    expect(openEdges(pool.water)).toBe(0);
    expect(volume(pool.water)).toBeCloseTo(40 * 1.5, 4);
    expect(pool.volume).toBeCloseTo(60, 9);
    expect(depthAt(pool.own, { x: 1, y: 5 })).toBeCloseTo(1.5, 9);
    expect(openEdges(pool.edge)).toBe(0);
    // A pond of any outline under a level bottom.
    project = edit(
      project,
      'ground.put',
      newGround(project, {
        id: 'h',
        kind: 'water',
        points: [
          { x: 20, y: 0 },
          { x: 26, y: 1 },
          { x: 24, y: 5 },
          { x: 22, y: 2 },
        ],
      }),
    );
    const pond = derivedOf(deriveModel(project), 'grounds')[1];
    expect(volume(pond.water)).toBeCloseTo(pond.area * 0.8, 4);
  });

  it('areas are taken out of the ground, and fences stand on the slopes they cross', () => {
    let project = emptyProject('p', 'House');
    project = edit(
      project,
      'ground.put',
      newGround(project, {
        id: 'g',
        kind: 'lawn',
        edge: 'retaining',
        z: 0.5,
        points: rectangleOf({ x: 0, y: 0 }, { x: 10, y: 10 }),
        slope: { direction: 0, fall: 0.1 },
      }),
    );
    for (const kind of FENCE_KINDS)
      project = edit(
        project,
        'fence.put',
        newFence(project, {
          id: kind,
          kind,
          points: [
            { x: 1, y: 2 },
            { x: 9, y: 2 },
            { x: 9, y: 8 },
          ],
        }),
      );
    const model = deriveModel(project);
    const sheet = bodyOf(model, '/site')!.parts[0];
    expect(meshArea(sheet.mesh)).toBeCloseTo(800 * 800 - 100, 0);
    expect(meshArea(derivedOf(model, 'grounds')[0].surface)).toBeCloseTo(100 * Math.hypot(1, 0.1), 4);
    for (const fence of derivedOf(model, 'fences')) {
      expect(openEdges(fence.mesh)).toBe(0);
      expect(fence.length).toBeCloseTo(14, 9);
      const z = fence.mesh.positions.filter((_, i) => i % 3 === 2);
      expect(Math.max(...z)).toBeGreaterThan(-0.26 + 0.5 + 0.9 + fence.fence.height - 0.01);
    }
  });
});

/** A mesh of which only what lies flat is kept. */
const slab = (...args: Parameters<typeof slabMeshes>): Mesh => {
  const { edge, voids, underside } = slabMeshes(...args);
  return joinMeshes([edge, voids, underside]);
};

function flat(mesh: Mesh): Mesh {
  const kept: number[] = [];
  for (let k = 0; k < mesh.indices.length; k += 3) {
    const i = mesh.indices[k];
    if (Math.abs(mesh.normals[i * 3 + 2]) > 0.5) kept.push(mesh.indices[k], mesh.indices[k + 1], mesh.indices[k + 2]);
  }
  return { ...mesh, indices: Uint32Array.from(kept) };
}
