import { MeshBuilder, type Matrix, type Mesh } from './mesh';
import { ringNormal, signedArea, tidyRing, triangulateKeeping } from './polygon';
import type { Region, Ring } from './region';
import { add, cross, left, meet, scale, sub, unit, type Vec2, type Vec3 } from './vec';
import { DUST, NEAR, NIL } from '../units/tolerance';

/** Column-major matrix of a turn about an axis through a point, by Rodrigues' formula. */
export function turnAbout(origin: Vec3, axis: Vec3, angle: number): Matrix {
  const l = Math.hypot(axis.x, axis.y, axis.z);
  const [x, y, z] = [axis.x / l, axis.y / l, axis.z / l];
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  const t = 1 - c;
  const r = [
    [t * x * x + c, t * x * y - s * z, t * x * z + s * y],
    [t * x * y + s * z, t * y * y + c, t * y * z - s * x],
    [t * x * z - s * y, t * y * z + s * x, t * z * z + c],
  ];
  const o = [origin.x, origin.y, origin.z];
  const m = [0, 1, 2].map((i) => o[i] - r[i][0] * o[0] - r[i][1] * o[1] - r[i][2] * o[2]);
  return [r[0][0], r[1][0], r[2][0], 0, r[0][1], r[1][1], r[2][1], 0, r[0][2], r[1][2], r[2][2], 0, m[0], m[1], m[2], 1];
}

/** A move as a matrix. */
export const shiftBy = (x: number, y: number, z: number): Matrix => [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, x, y, z, 1];

/**
 * A ring with each edge set inwards by a distance (outwards where it is negative), neighbours brought to meet. Right for
 * the convex or gently hollow outlines of openings; edges do not vanish.
 */
export function offsetRing(ring: Ring, by: number): Ring {
  const clean = tidyRing(ring);
  return clean.map((p, i) => {
    const a = clean[(i + clean.length - 1) % clean.length];
    const b = clean[(i + 1) % clean.length];
    const [d, e] = [unit(sub(p, a)), unit(sub(b, p))];
    const [q, r] = [add(p, scale(left(d), by)), add(p, scale(left(e), by))];
    return Math.abs(cross(d, e)) < NEAR ? q : (meet(q, d, r, e) ?? q);
  });
}

/**
 * Upright regions (x along, y up) as solids between two depths: local x along, y deep, z up.
 */
export function extrude(regions: readonly Region[], y0: number, y1: number): Mesh {
  const builder = new MeshBuilder();
  for (const region of regions) {
    if (Math.abs(signedArea(region.outer)) < DUST) continue;
    builder.region(region, (p) => ({ x: p.x, y: y0, z: p.y }), { x: 0, y: -1, z: 0 });
    builder.region(region, (p) => ({ x: p.x, y: y1, z: p.y }), { x: 0, y: 1, z: 0 }, true);
    for (const ring of [region.outer, ...region.holes])
      ring.forEach((a: Vec2, i: number) => {
        const b = ring[(i + 1) % ring.length];
        builder.quad({ x: a.x, y: y0, z: a.y }, { x: a.x, y: y1, z: a.y }, { x: b.x, y: y1, z: b.y }, { x: b.x, y: y0, z: b.y });
      });
  }
  return builder.build();
}

/** Flat regions as upright solids between two heights. */
export function prism(regions: readonly Region[], z0: number, z1: number): Mesh {
  const builder = new MeshBuilder();
  for (const region of regions) {
    if (Math.abs(signedArea(region.outer)) < DUST) continue;
    builder.region(region, (p) => ({ ...p, z: z1 }), { x: 0, y: 0, z: 1 });
    builder.region(region, (p) => ({ ...p, z: z0 }), { x: 0, y: 0, z: -1 }, true);
    for (const ring of [region.outer, ...region.holes])
      ring.forEach((a: Vec2, i: number) => {
        const b = ring[(i + 1) % ring.length];
        builder.quad({ ...a, z: z0 }, { ...b, z: z0 }, { ...b, z: z1 }, { ...a, z: z1 });
      });
  }
  return builder.build();
}

/** A closed body between two quadrilaterals, each counter-clockwise seen from above. */
export function hexahedron(builder: MeshBuilder, bottom: readonly Vec3[], top: readonly Vec3[]): void {
  builder.quad(top[0], top[1], top[2], top[3]).quad(bottom[3], bottom[2], bottom[1], bottom[0]);
  for (let i = 0; i < 4; i++) {
    const j = (i + 1) % 4;
    builder.quad(bottom[i], bottom[j], top[j], top[i]);
  }
}

const QUAD: readonly number[] = [0, 1, 2, 0, 2, 3];

/** Whether a ring has four corners and turns left at each of them. */
const convexQuad = (ring: readonly Vec2[]): boolean =>
  ring.length === 4 &&
  ring.every((a, i) => {
    const [b, c] = [ring[(i + 1) % 4], ring[(i + 2) % 4]];
    return (b.x - a.x) * (c.y - b.y) - (b.y - a.y) * (c.x - b.x) > NIL;
  });

/** A closed body between two flat rings over the same outline, counter-clockwise seen from above, the first one below. */
export function between(builder: MeshBuilder, low: readonly Vec3[], high: readonly Vec3[]): void {
  const indices = convexQuad(high) ? QUAD : triangulateKeeping(high.map(({ x, y }) => ({ x, y })));
  for (const [ring, up] of [
    [high, 1],
    [low, -1],
  ] as const) {
    const own = ringNormal(ring) ?? { x: 0, y: 0, z: 1 };
    const n = { x: own.x * up, y: own.y * up, z: own.z * up };
    const base = ring.map((p) => builder.vertex(p, n, p.x, p.y));
    for (let k = 0; k < indices.length; k += 3) {
      const [a, b, c] = [base[indices[k]], base[indices[k + 1]], base[indices[k + 2]]];
      if (up > 0) builder.triangle(a, b, c);
      else builder.triangle(a, c, b);
    }
  }
  low.forEach((a, i) => {
    const j = (i + 1) % low.length;
    builder.quad(a, low[j], high[j], high[i]);
  });
}

/** A bar with plumb ends between two points, its section upright: so wide, from `low` to `high` above its line. */
export function bar(builder: MeshBuilder, a: Vec3, b: Vec3, width: number, low: number, high: number): void {
  const d = unit(sub(b, a));
  const n = scale(left(d), width / 2);
  const at = (p: Vec3, k: 1 | -1, by: number): Vec3 => ({ x: p.x + n.x * k, y: p.y + n.y * k, z: p.z + by });
  const ring = (by: number): Vec3[] => [at(a, -1, by), at(b, -1, by), at(b, 1, by), at(a, 1, by)];
  hexahedron(builder, ring(low), ring(high));
}

/** An upright post of square section, turned with a direction of the plan. */
export function post(builder: MeshBuilder, p: Vec2, d: Vec2, width: number, z0: number, z1: number): void {
  const [u, v] = [scale(d, width / 2), scale(left(d), width / 2)];
  const ring = [sub(sub(p, u), v), sub(add(p, u), v), add(add(p, u), v), add(sub(p, u), v)];
  hexahedron(
    builder,
    ring.map((q) => ({ ...q, z: z0 })),
    ring.map((q) => ({ ...q, z: z1 })),
  );
}
