import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { deriveModel } from '../model/derive';
import { derivedOf } from '../model/model';
import { findings } from '../checks/findings';
import { boolean, insideRing, isSimple, signedArea, totalArea, union } from '../geometry/polygon';
import type { Mesh } from '../geometry/mesh';
import { rectangle } from '../geometry/region';
import { segmentDistance, type Vec2 } from '../geometry/vec';
import { newGround, newSlab } from '../project/built-defaults';
import { runChange } from '../project/commands';
import { cutting, orderPast } from '../project/ground-order';
import { newOpening } from '../project/opening-defaults';
import { emptyProject, type GroundArea, type Project } from '../project/schema';
import { openEdges } from '../testing/solid';
import { areaHeight, deriveGround, groundHeight } from './ground';

const GROUND = -0.26;

/** Face areas of a mesh, summed as vectors. */
function faces({ positions: p, indices }: Mesh): [number, number, number] {
  const sum: [number, number, number] = [0, 0, 0];
  for (let i = 0; i < indices.length; i += 3) {
    const [a, b, c] = [0, 1, 2].map((k) => indices[i + k] * 3);
    const [u, v] = [b, c].map((k) => [0, 1, 2].map((j) => p[k + j] - p[a + j]));
    sum[0] += (u[1] * v[2] - u[2] * v[1]) / 2;
    sum[1] += (u[2] * v[0] - u[0] * v[2]) / 2;
    sum[2] += (u[0] * v[1] - u[1] * v[0]) / 2;
  }
  return sum;
}

const withAreas = (areas: GroundArea[]): Project => {
  const project = emptyProject('p', 'P');
  for (const area of areas) project.grounds[area.id] = area;
  return project;
};

const area = (id: string, kind: GroundArea['kind'], points: Vec2[], over: Partial<GroundArea> = {}): GroundArea => ({
  ...newGround(emptyProject('p', 'P'), { id, kind, points }),
  ...over,
});

const derive = (areas: readonly GroundArea[]): ReturnType<typeof deriveGround>[] => {
  const sorted = [...areas].sort((a, b) => a.order - b.order);
  return sorted.map((own) =>
    deriveGround(
      own,
      GROUND,
      sorted.filter((o) => o !== own),
    ),
  );
};

/** Whether no corner comes near an edge it is not on. */
const clear = (ring: readonly Vec2[]): boolean =>
  ring.every((p, i) => ring.every((a, k) => k === i || (k + 1) % ring.length === i || segmentDistance(p, a, ring[(k + 1) % ring.length]) > 0.1));

/** Quadrilaterals about a few metres, of any height and slope, some of them water. */
const someAreas = fc
  .array(
    fc.record({
      corners: fc.array(fc.tuple(fc.integer({ min: 0, max: 60 }), fc.integer({ min: 0, max: 60 })), { minLength: 3, maxLength: 5 }),
      kind: fc.constantFrom('lawn' as const, 'paving' as const, 'bed' as const, 'pool' as const),
      z: fc.integer({ min: -6, max: 6 }),
      fall: fc.integer({ min: 0, max: 3 }),
      direction: fc.double({ min: 0, max: 6, noNaN: true }),
    }),
    { minLength: 1, maxLength: 4 },
  )
  .map((list) =>
    list.map(({ corners, kind, z, fall, direction }, i) =>
      area(
        `a${i}`,
        kind,
        corners.map(([x, y]) => ({ x: x / 5, y: y / 5 })),
        { z: z / 10, slope: { direction, fall: kind === 'pool' ? 0 : fall / 20 }, depth: { from: 1, to: 1.5 }, edge: 'none', order: i },
      ),
    ),
  )
  .filter((areas) => areas.every(({ points }) => isSimple(points) && clear(points) && Math.abs(signedArea(points)) > 0.2));

describe('areas of the ground that lie over one another', () => {
  it('cover their union once, and each point is of the one on top', () => {
    fc.assert(
      fc.property(someAreas, (areas) => {
        const derived = derive(areas);
        const whole = totalArea(union(derived.map((d) => ({ outer: d.ring, holes: [] }))));
        expect(derived.reduce((sum, d) => sum + d.area, 0)).toBeCloseTo(whole, 3);
        derived.forEach((d, i) =>
          derived.slice(i + 1).forEach((o) => {
            if (d.regions.length && o.regions.length) expect(totalArea(boolean('intersection', d.regions, o.regions))).toBeLessThan(1e-4);
          }),
        );
      }),
      { numRuns: 150 },
    );
  });

  it('leave no gap between them: the faces of the whole ground add up to its plan', () => {
    fc.assert(
      fc.property(someAreas, (areas) => {
        const derived = derive(areas);
        const sum: [number, number, number] = [0, 0, 0];
        for (const d of derived) {
          const wet = d.own.kind === 'pool';
          for (const mesh of wet ? [d.sides] : [d.surface, d.sides]) faces(mesh).forEach((v, k) => (sum[k] += v));
        }
        const whole = totalArea(union(derived.map((d) => ({ outer: d.ring, holes: [] }))));
        // A surface over the plan that ends at one height has no area but its plan's (the divergence theorem).
        expect(sum[2]).toBeCloseTo(whole, 3);
        // What lies beside an edge is asked a fiftieth of a millimetre off it: in a needle that takes a millimetre of bank.
        expect(Math.abs(sum[0])).toBeLessThan(2e-3);
        expect(Math.abs(sum[1])).toBeLessThan(2e-3);
      }),
      { numRuns: 200 },
    );
  });

  it('has a basin go up to the lawn round it, however that lies', () => {
    const lawn = area('lawn', 'lawn', rectangle(0, 0, 20, 20), { z: 0.4, slope: { direction: 0, fall: 0.05 }, order: 0 });
    const pool = area('pool', 'pool', rectangle(5, 5, 9, 8), { z: 0.1, depth: { from: 1, to: 1 }, edge: 'none', order: 1 });
    const [, wet] = derive([lawn, pool]);
    const z = [...wet.sides.positions].filter((_, i) => i % 3 === 2);
    expect(Math.min(...z)).toBeCloseTo(GROUND + 0.1 - 1, 5);
    expect(Math.max(...z)).toBeCloseTo(areaHeight(lawn, GROUND, { x: 9, y: 5 }), 5);
    expect(wet.volume).toBeCloseTo(12, 9);
    expect(openEdges(wet.water)).toBe(0);
  });

  it('ends a kerb where another area lies over it, and holds the water with an island in it', () => {
    const paving = area('paving', 'paving', rectangle(0, 0, 4, 4), { order: 0, edge: 'kerb' });
    const bed = area('bed', 'bed', rectangle(3, -1, 6, 2), { order: 1 });
    const [cut] = derive([paving, bed]);
    expect(cut.area).toBeCloseTo(14, 6);
    const reach = (mesh: Mesh): number[] => [...mesh.positions].filter((_, i, all) => i % 3 === 0 && all[i + 1] < 1.99);
    expect(Math.max(...reach(cut.edge))).toBeCloseTo(3, 5);
    const pond = area('pond', 'water', rectangle(0, 0, 10, 10), { depth: { from: 2, to: 2 }, order: 0, edge: 'none' });
    const island = area('island', 'bed', rectangle(4, 4, 6, 6), { order: 1 });
    const [water] = derive([pond, island]);
    expect(water.volume).toBeCloseTo((100 - 4) * 2, 9);
    expect(openEdges(water.water)).toBe(0);
  });

  it('is as high as the one on top, water passed over', () => {
    const project = withAreas([
      area('lawn', 'lawn', rectangle(0, 0, 9, 9), { z: 0.5, order: 0 }),
      area('terrace', 'paving', rectangle(2, 2, 5, 5), { z: 0.1, order: 1 }),
      area('pool', 'pool', rectangle(6, 6, 8, 8), { order: 2 }),
    ]);
    const { ground } = project.site;
    expect(groundHeight(project, { x: 1, y: 1 })).toBeCloseTo(ground + 0.5);
    expect(groundHeight(project, { x: 3, y: 3 })).toBeCloseTo(ground + 0.1);
    expect(groundHeight(project, { x: 7, y: 7 })).toBeCloseTo(ground + 0.5);
    expect(groundHeight(project, { x: 20, y: 7 })).toBeCloseTo(ground);
  });
});

describe('the order of areas', () => {
  const put = (project: Project, own: GroundArea): Project =>
    runChange(project, { id: `put-${own.id}-${own.order}`, kind: 'do', command: 'ground.put', args: own }).project;

  it('has a pool, paving and a bed cut the lawn, whichever was drawn first', () => {
    const draw = (kinds: GroundArea['kind'][]): Project =>
      kinds.reduce(
        (project, kind, i) => put(project, newGround(project, { id: `${kind}-1`, kind, points: rectangle(i, i, i + 5, i + 5) })),
        emptyProject('p', 'P'),
      );
    for (const kinds of [
      ['pool', 'lawn', 'paving', 'bed'],
      ['lawn', 'pool', 'bed', 'paving'],
      ['bed', 'paving', 'pool', 'lawn'],
    ] as const) {
      const project = draw([...kinds]);
      expect(cutting(project, 'lawn-1').below).toEqual([]);
      expect(cutting(project, 'lawn-1').above.map((g) => g.kind)).toEqual(['paving', 'bed', 'pool']);
    }
  });

  it('can be changed, one past the next it meets, and no other area is touched', () => {
    let project = emptyProject('p', 'P');
    const squares: [string, GroundArea['kind'], number][] = [
      ['lawn', 'lawn', 0],
      ['far', 'paving', 100],
      ['terrace', 'paving', 2],
      ['pool', 'pool', 4],
    ];
    for (const [id, kind, at] of squares) project = put(project, newGround(project, { id, kind, points: rectangle(at, at, at + 5, at + 5) }));
    const before = project.grounds;
    project = put(project, { ...before.pool, order: orderPast(project, 'pool', 'under')! });
    expect(cutting(project, 'pool').above.map((g) => g.id)).toEqual(['terrace']);
    expect(cutting(project, 'pool').below.map((g) => g.id)).toEqual(['lawn']);
    for (const id of ['lawn', 'far', 'terrace']) expect(project.grounds[id]).toBe(before[id]);
    project = put(project, { ...project.grounds.pool, order: orderPast(project, 'pool', 'under')! });
    expect(cutting(project, 'pool').below).toEqual([]);
    expect(orderPast(project, 'pool', 'under')).toBeNull();
    expect(orderPast(project, 'far', 'over')).toBeNull();
    project = put(project, { ...project.grounds.pool, order: orderPast(project, 'pool', 'over')! });
    expect(cutting(project, 'lawn').above.map((g) => g.id)).toEqual(['pool', 'terrace']);
  });

  it('is told where an area is wholly covered', () => {
    const project = withAreas([area('lawn', 'lawn', rectangle(1, 1, 3, 3), { order: 0 }), area('drive', 'drive', rectangle(0, 0, 5, 5), { order: 1 })]);
    const model = deriveModel(project);
    expect(derivedOf(model, 'grounds').find((g) => g.id === 'lawn')!.regions).toEqual([]);
    expect(findings(model).map((f) => f.message)).toContain(`${project.grounds.lawn.name} is not seen: ${project.grounds.drive.name} lies over all of it.`);
  });
});

describe('a door that leads into the air', () => {
  const upstairs = (): Project => {
    let project = emptyProject('p', 'P');
    const run = (command: 'wall.draw' | 'opening.add', args: object): void =>
      void ({ project } = runChange(project, { id: `c-${command}`, kind: 'do', command, args }));
    run('wall.draw', { level: 'ground', points: rectangle(0, 0, 4, 3), closed: true, thickness: 0.1 });
    const wall = Object.values(project.walls).find((w) => {
      const [a, b] = [project.corners[w.start], project.corners[w.end]];
      return a.y < 1 && b.y < 1;
    })!;
    project = structuredClone(project);
    project.levels.ground.elevation = 2.9;
    run('opening.add', newOpening(project, { id: 'door', wall: wall.id, kind: 'door', at: 2 }));
    return project;
  };

  it('is told, unless something lies there to step on', () => {
    const project = upstairs();
    const told = (p: Project): string[] => findings(deriveModel(p)).flatMap((f) => (f.code === 'door.drop' ? [f.message] : []));
    expect(told(project)).toEqual(['Door 1 leads into the air: outside it the ground lies 3160 lower.']);
    const balcony = newSlab(project, { id: 'balcony', level: 'ground', kind: 'balcony', points: rectangle(0, -2, 4, 0) });
    expect(told({ ...project, slabs: { balcony } })).toEqual([]);
    const low = structuredClone(project);
    low.levels.ground.elevation = 0;
    expect(told(low)).toEqual([]);
    expect(insideRing({ x: 2, y: -0.5 }, balcony.points)).toBe(true);
  });
});
