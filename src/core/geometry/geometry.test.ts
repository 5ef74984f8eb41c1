import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { LATTICE } from '../units/tolerance';
import { arrange, edgeDirection, straightLine, type ArrangedLine } from './arrangement';
import { MeshBuilder, meshArea, placement, transformPoint, type Mesh } from './mesh';
import {
  isConvex,
  hull,
  boolean,
  insideRegion,
  insideRing,
  isSimple,
  labelPoint,
  perimeter,
  regionArea,
  ringDistance,
  signedArea,
  tidyRing,
  totalArea,
  triangulate,
  union,
} from './polygon';
import type { Region } from './region';
import { cylinder, lathe, roundedBox, sheet, tube } from './shapes';
import {
  cross,
  cross3,
  distance,
  dot3,
  left,
  length,
  length3,
  meet,
  project,
  rotate,
  segmentDistance,
  sub,
  sub3,
  unit,
  unit3,
  type Vec2,
  type Vec3,
} from './vec';

const coordinate = fc.double({ min: -50, max: 50, noNaN: true });
const point = fc.record({ x: coordinate, y: coordinate });
const square = (x: number, y: number, size: number): Vec2[] => [
  { x, y },
  { x: x + size, y },
  { x: x + size, y: y + size },
  { x, y: y + size },
];
const region = (outer: Vec2[], holes: Vec2[][] = []): Region => ({ outer, holes });

/** A star-shaped polygon: always simple, usually concave. */
const star = fc
  .record({
    n: fc.integer({ min: 3, max: 24 }),
    radii: fc.array(fc.double({ min: 0.2, max: 5, noNaN: true }), { minLength: 24, maxLength: 24 }),
    centre: point,
  })
  .map(({ n, radii, centre }) =>
    Array.from({ length: n }, (_, i) => {
      const a = (i / n) * 2 * Math.PI;
      return { x: centre.x + radii[i] * Math.cos(a), y: centre.y + radii[i] * Math.sin(a) };
    }),
  );

describe('vectors', () => {
  it('turn, project and meet as they should', () => {
    fc.assert(
      fc.property(point, point, fc.double({ min: -7, max: 7, noNaN: true }), (a, b, angle) => {
        expect(length(rotate(a, angle))).toBeCloseTo(length(a), 9);
        expect(cross(a, left(a))).toBeCloseTo(length(a) ** 2, 6);
        fc.pre(distance(a, b) > 1e-3);
        expect(length(unit(sub(b, a)))).toBeCloseTo(1, 12);
        expect(project(a, a, b)).toBeCloseTo(0, 12);
        expect(project(b, a, b)).toBeCloseTo(1, 9);
        expect(segmentDistance(a, a, b)).toBe(0);
      }),
    );
    expect(meet({ x: 0, y: 0 }, { x: 1, y: 0 }, { x: 3, y: -2 }, { x: 0, y: 1 })).toEqual({ x: 3, y: 0 });
    expect(meet({ x: 0, y: 0 }, { x: 1, y: 0 }, { x: 0, y: 1 }, { x: 2, y: 0 })).toBeNull();
    expect(unit({ x: 0, y: 0 })).toEqual({ x: 0, y: 0 });
  });

  it('are square in space after a cross product', () => {
    const v3 = fc.record({ x: coordinate, y: coordinate, z: coordinate });
    fc.assert(
      fc.property(v3, v3, (a, b) => {
        const c = cross3(a, b);
        expect(dot3(a, c)).toBeCloseTo(0, 6);
        if (length3(c) > 1e-6) expect(length3(unit3(c))).toBeCloseTo(1, 9);
      }),
    );
  });
});

describe('polygons', () => {
  it('have the area their triangles have, holes taken off', () => {
    fc.assert(
      fc.property(star, (ring) => {
        fc.pre(Math.abs(signedArea(ring)) > 1e-6);
        const { points, indices } = triangulate(region(ring));
        let sum = 0;
        for (let k = 0; k < indices.length; k += 3) {
          const [a, b, c] = [points[indices[k]], points[indices[k + 1]], points[indices[k + 2]]];
          const twice = cross(sub(b, a), sub(c, a));
          expect(twice).toBeGreaterThanOrEqual(-1e-9);
          sum += twice / 2;
        }
        expect(sum).toBeCloseTo(signedArea(ring), 6);
      }),
    );
    const holed = region(square(0, 0, 4), [square(1, 1, 2).reverse()]);
    expect(regionArea(holed)).toBe(12);
    expect(perimeter(holed.outer)).toBe(16);
  });

  it('obey the laws of sets: |A| + |B| = |A ∪ B| + |A ∩ B|, A ∖ B is A without A ∩ B', () => {
    fc.assert(
      fc.property(star, star, (p, q) => {
        const centred = q.map((v) => ({ x: v.x - q[0].x + p[0].x, y: v.y - q[0].y + p[0].y }));
        fc.pre(signedArea(p) > 0.1 && signedArea(centred) > 0.1);
        const [a, b] = [region(p), region(centred)];
        const both = totalArea(boolean('intersection', [a], [b]));
        expect(totalArea(boolean('union', [a], [b])) + both).toBeCloseTo(regionArea(a) + regionArea(b), 4);
        expect(totalArea(boolean('difference', [a], [b]))).toBeCloseTo(regionArea(a) - both, 4);
      }),
      { numRuns: 60 },
    );
    expect(boolean('difference', [], [region(square(0, 0, 1))])).toEqual([]);
    expect(totalArea(boolean('difference', [region(square(0, 0, 1))], []))).toBe(1);
    expect(totalArea(union([region(square(0, 0, 2)), region(square(1, 1, 2))]))).toBeCloseTo(7, 9);
  });

  it('place their label inside, as far from the edge as they can', () => {
    fc.assert(
      fc.property(star, (ring) => {
        fc.pre(signedArea(ring) > 0.5);
        const p = labelPoint(region(ring));
        expect(insideRing(p, ring)).toBe(true);
      }),
    );
    // In an L the best place is in the corner, not in the middle of its box.
    const l = [
      [0, 0],
      [4, 0],
      [4, 1],
      [1, 1],
      [1, 4],
      [0, 4],
    ].map(([x, y]) => ({ x, y }));
    const p = labelPoint(region(l));
    expect(ringDistance(p, l)).toBeGreaterThan(0.5);
    expect(insideRegion({ x: 0.5, y: 0.5 }, region(l, [square(0.4, 0.4, 0.2).reverse()]))).toBe(false);
  });

  it('are tidied of doubles, straight points and spikes', () => {
    const ring = [
      [0, 0],
      [0, 0],
      [1, 0],
      [2, 0],
      [2, 2],
      [2, 5],
      [2, 2],
      [0, 2],
    ].map(([x, y]) => ({ x, y }));
    expect(tidyRing(ring)).toEqual(square(0, 0, 2));
    expect(tidyRing(tidyRing(ring))).toEqual(square(0, 0, 2));
  });

  it('know when they cross themselves', () => {
    expect(isSimple(square(0, 0, 1))).toBe(true);
    expect(
      isSimple(
        [
          [0, 0],
          [1, 1],
          [1, 0],
          [0, 1],
        ].map(([x, y]) => ({ x, y })),
      ),
    ).toBe(false);
  });
});

describe('arrangements of lines', () => {
  const line = (id: number, a: Vec2, b: Vec2): ArrangedLine => straightLine(`l${id}`, a, b, 0);

  it('keep Euler’s formula: nodes − pieces + faces = connected groups', () => {
    const small = fc.record({ x: fc.integer({ min: 0, max: 12 }), y: fc.integer({ min: 0, max: 12 }) });
    fc.assert(
      fc.property(fc.array(fc.tuple(small, small), { minLength: 1, maxLength: 14 }), (pairs) => {
        const lines = pairs.filter(([a, b]) => distance(a, b) > 0).map(([a, b], i) => line(i, a, b));
        fc.pre(lines.length > 0);
        // Lines on top of one another are no plan.
        const way = ({ path: [a, b] }: ArrangedLine): Vec2 => sub(b.p, a.p);
        fc.pre(lines.every((l, i) => lines.every((o, j) => j <= i || Math.abs(cross(way(l), way(o))) > 1e-9)));
        const { nodes, pieces: all, faces } = arrange(lines);
        const pieces = all.filter((p) => p !== undefined);
        const group = nodes.map((_, i) => i);
        const root = (i: number): number => (group[i] === i ? i : root(group[i]));
        for (const { from, to } of pieces) group[root(from)] = root(to);
        const used = new Set(pieces.flatMap((p) => [p.from, p.to]));
        const groups = new Set([...used].map(root)).size;
        expect(used.size - pieces.length + faces.length).toBe(groups);
      }),
      { numRuns: 200 },
    );
  });

  it('find each face once, counter-clockwise, and nest what stands free in it', () => {
    const ring = (id: number, s: Vec2[]): ArrangedLine[] => s.map((p, i) => line(id + i, p, s[(i + 1) % s.length]));
    const { faces, outside } = arrange([...ring(0, square(0, 0, 10)), ...ring(10, square(2, 2, 3)), ...ring(20, square(6, 6, 1))]);
    expect(faces.map((f) => [Math.round(f.outer.area), f.inner.length]).sort((a, b) => b[0] - a[0])).toEqual([
      [100, 2],
      [9, 0],
      [1, 0],
    ]);
    expect(outside).toHaveLength(1);
  });

  it('split crossing lines and keep their directions', () => {
    const arrangement = arrange([line(0, { x: 0, y: 0 }, { x: 4, y: 4 }), line(1, { x: 0, y: 4 }, { x: 4, y: 0 })]);
    expect(arrangement.pieces).toHaveLength(4);
    for (const piece of arrangement.pieces.filter((p) => p !== undefined)) {
      const d = edgeDirection(arrangement, { piece: piece.index, forward: true });
      const expected = unit(sub(piece.line === 'l0' ? { x: 4, y: 4 } : { x: 4, y: 0 }, piece.line === 'l0' ? { x: 0, y: 0 } : { x: 0, y: 4 }));
      expect(distance(d, expected)).toBeLessThan(1e-9);
    }
    expect(arrangement.faces).toEqual([]);
  });

  it('give rings whose area is the face’s', () => {
    const arrangement = arrange([...square(0, 0, 3).map((p, i, s) => line(i, p, s[(i + 1) % 4])), line(9, { x: 1, y: 0 }, { x: 2, y: 3 })]);
    for (const face of arrangement.faces) expect(signedArea(face.outer.ring)).toBeCloseTo(face.outer.area, 9);
    expect(arrangement.faces.reduce((sum, f) => sum + f.outer.area, 0)).toBeCloseTo(9, 9);
  });
});

/** Volume of a closed mesh by the divergence theorem, m³. */
function volume(mesh: Mesh): number {
  const at = (i: number): Vec3 => ({ x: mesh.positions[i * 3], y: mesh.positions[i * 3 + 1], z: mesh.positions[i * 3 + 2] });
  let sum = 0;
  for (let k = 0; k < mesh.indices.length; k += 3) sum += dot3(at(mesh.indices[k]), cross3(at(mesh.indices[k + 1]), at(mesh.indices[k + 2]))) / 6;
  return sum;
}

/** Whether every edge is met once in each direction, vertices welded by place. */
function closed(mesh: Mesh): boolean {
  const key = (i: number): string => [0, 1, 2].map((c) => Math.round(mesh.positions[i * 3 + c] * 1e5)).join(' ');
  const edges = new Map<string, number>();
  for (let k = 0; k < mesh.indices.length; k += 3) {
    const corners = [0, 1, 2].map((c) => key(mesh.indices[k + c]));
    if (new Set(corners).size < 3) continue;
    corners.forEach((a, c) => {
      const b = corners[(c + 1) % 3];
      const [name, way] = a < b ? [`${a}|${b}`, 1] : [`${b}|${a}`, -1];
      edges.set(name, (edges.get(name) ?? 0) + way);
    });
  }
  return [...edges.values()].every((v) => v === 0);
}

/** Share of triangles whose vertex normals point to the side the triangle faces. */
function outward(mesh: Mesh): number {
  let good = 0;
  for (let k = 0; k < mesh.indices.length; k += 3) {
    const [a, b, c] = [0, 1, 2].map((i) => {
      const v = mesh.indices[k + i] * 3;
      return { x: mesh.positions[v], y: mesh.positions[v + 1], z: mesh.positions[v + 2] };
    });
    const n = cross3(sub3(b, a), sub3(c, a));
    const v = mesh.indices[k] * 3;
    if (dot3(n, { x: mesh.normals[v], y: mesh.normals[v + 1], z: mesh.normals[v + 2] }) >= -1e-12) good++;
  }
  return good / (mesh.indices.length / 3);
}

describe('solids', () => {
  it('are closed, face outwards and hold their volume: box', () => {
    const mesh = new MeshBuilder().box(0, 0, 0, 2, 3, 4).build();
    expect(closed(mesh)).toBe(true);
    expect(outward(mesh)).toBe(1);
    expect(volume(mesh)).toBeCloseTo(24, 5);
    expect(meshArea(mesh)).toBeCloseTo(2 * (6 + 8 + 12), 5);
  });

  it('a rounded box lies between its box and the box less its edges', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.005, max: 0.2, noNaN: true }), fc.integer({ min: 1, max: 5 }), (radius, steps) => {
        const mesh = roundedBox({ x: 0, y: 0, z: 0 }, { x: 1, y: 0.8, z: 0.5 }, { radius, steps });
        expect(closed(mesh)).toBe(true);
        expect(outward(mesh)).toBe(1);
        expect(volume(mesh)).toBeLessThanOrEqual(0.4 + 1e-6);
        expect(volume(mesh)).toBeGreaterThan(0.4 - (1 - Math.PI / 4) * radius ** 2 * 4 * 2.3 * 2);
      }),
      { numRuns: 30 },
    );
  });

  it('a cylinder and a cone approach πr²h and πr²h/3 from within', () => {
    const drum = cylinder(0, 0, 0, 2, 0.5, 0.5, 64);
    expect(closed(drum)).toBe(true);
    expect(volume(drum)).toBeLessThan(Math.PI * 0.25 * 2);
    expect(volume(drum)).toBeGreaterThan(Math.PI * 0.25 * 2 * 0.99);
    const cone = lathe(
      [
        [0, 0],
        [1, 0],
        [0, 3],
      ],
      { segments: 96 },
    );
    expect(volume(cone)).toBeCloseTo(Math.PI, 1);
    expect(outward(cone)).toBe(1);
  });

  it('a tube follows its path with its own thickness', () => {
    const mesh = tube(
      [
        { x: 0, y: 0, z: 0 },
        { x: 0, y: 0, z: 1 },
        { x: 0, y: 0, z: 2 },
      ],
      0.1,
      48,
    );
    expect(volume(mesh)).toBeCloseTo(Math.PI * 0.01 * 2, 3);
    expect(outward(mesh)).toBeGreaterThan(0.99);
  });

  it('a sheet has the area of its surface, and texture over its whole size', () => {
    const mesh = sheet((u, v) => ({ x: u * 2, y: 0, z: v * 3 }), 4, 4, 2, 3);
    expect(Math.max(...mesh.uvs.filter((_, i) => i % 2 === 0))).toBeCloseTo(2, 6);
    // Both of its sides are there.
    expect([6, 12].some((a) => Math.abs(meshArea(mesh) - a) < 1e-4)).toBe(true);
  });

  it('are carried by a matrix, normals square to what is stretched', () => {
    const cone = lathe([
      [0.5, 0],
      [0.2, 1],
    ]);
    const stretched = new MeshBuilder().add(cone, [3, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 5, 0, 0, 1]).build();
    for (let k = 0; k < stretched.indices.length; k += 3) {
      const at = (i: number, from: Float32Array): Vec3 => {
        const v = stretched.indices[k + i] * 3;
        return { x: from[v], y: from[v + 1], z: from[v + 2] };
      };
      const face = unit3(cross3(sub3(at(1, stretched.positions), at(0, stretched.positions)), sub3(at(2, stretched.positions), at(0, stretched.positions))));
      expect(Math.abs(dot3(face, at(0, stretched.normals)))).toBeGreaterThan(0.93);
    }
    const m = placement(1, 2, 3, Math.PI / 2);
    const p = transformPoint(m, { x: 1, y: 0, z: 0 });
    expect([p.x, p.y, p.z]).toEqual([expect.closeTo(1), expect.closeTo(3), 3]);
  });
});

describe('what two convex rings have in common', () => {
  it('is the same as by clipping in general, on random triangles and quadrilaterals', () => {
    const ring = fc
      .array(fc.tuple(fc.double({ min: -3, max: 3, noNaN: true }), fc.double({ min: -3, max: 3, noNaN: true })), { minLength: 3, maxLength: 9 })
      .map((points) => hull(points.map(([x, y]) => ({ x: Math.round(x * 1e4) / 1e4, y: Math.round(y * 1e4) / 1e4 }))))
      .filter((r) => r.length > 2 && signedArea(r) > 0.05);
    fc.assert(
      fc.property(ring, ring, (a, b) => {
        const fast = boolean('intersection', [{ outer: a, holes: [] }], [{ outer: b, holes: [] }]);
        // Two at once go the general way.
        const far = { outer: a.map((p) => ({ x: p.x + 50, y: p.y })), holes: [] };
        const slow = boolean(
          'intersection',
          [{ outer: a, holes: [] }, far],
          [
            { outer: b, holes: [] },
            { ...far, outer: far.outer.map((p) => ({ x: p.x + 1e-3, y: p.y })) },
          ],
        );
        const near = slow.filter((r) => r.outer[0].x < 20);
        // The general way rounds to its lattice.
        expect(Math.abs(totalArea(fast) - totalArea(near))).toBeLessThan((perimeter(a) + perimeter(b)) * LATTICE);
        for (const r of fast) expect(isConvex(r.outer)).toBe(true);
      }),
      { numRuns: 200 },
    );
  });
});
