import { MeshBuilder, type Mesh } from './mesh';
import { insideRing, signedArea, triangulateAll } from './polygon';
import type { Ring } from './region';
import type { Vec3 } from './vec';
import { NEAR, NIL } from '../units/tolerance';

/** A plane that leans: its height over a point of the plan is gx·x + gy·y + c. */
export interface Leaning {
  gx: number;
  gy: number;
  c: number;
}

/** Positions that round to the same are one point: finer than what single precision holds of a room. */
const GRID = 1e7;
const key = (p: Vec3): string => `${Math.round(p.x * GRID)} ${Math.round(p.y * GRID)} ${Math.round(p.z * GRID)}`;

interface Corner extends Vec3 {
  n: Vec3;
  u: number;
  v: number;
  /** How far it lies above the plane. */
  above: number;
}

/** Where an edge goes through the plane: reckoned from the same of its ends, whichever triangle asks, so that neighbours meet. */
function crossing(a: Corner, b: Corner): Corner {
  const [p, q] = a.x < b.x || (a.x === b.x && (a.y < b.y || (a.y === b.y && a.z <= b.z))) ? [a, b] : [b, a];
  const t = p.above / (p.above - q.above);
  const mix = (x: number, y: number): number => x + (y - x) * t;
  return {
    x: mix(p.x, q.x),
    y: mix(p.y, q.y),
    z: mix(p.z, q.z),
    n: { x: mix(p.n.x, q.n.x), y: mix(p.n.y, q.n.y), z: mix(p.n.z, q.n.z) },
    u: mix(p.u, q.u),
    v: mix(p.v, q.v),
    above: 0,
  };
}

/** Loops of segments that begin where others end. */
function chained(segments: readonly [Vec3, Vec3][]): Vec3[][] {
  const starts = new Map<string, number[]>();
  segments.forEach(([a], i) => starts.set(key(a), [...(starts.get(key(a)) ?? []), i]));
  const used = new Set<number>();
  const loops: Vec3[][] = [];
  segments.forEach((first, i) => {
    if (used.has(i)) return;
    used.add(i);
    const loop = [first[0]];
    let at = first[1];
    for (const begun = key(first[0]); key(at) !== begun;) {
      loop.push(at);
      const next = starts.get(key(at))?.find((k) => !used.has(k));
      // What is open has no lid.
      if (next === undefined) return;
      used.add(next);
      at = segments[next][1];
    }
    if (loop.length > 2) loops.push(loop);
  });
  return loops;
}

/** How near a corner may come to the plane, and by how much the plane sinks where one comes nearer, metres: no corner lies in it. */
const CLEAR = NEAR;
const SINKS = 3 * NEAR;
const TRIES = 40;

/** The height of a plane, sunk by as little as it takes that no corner lies in it. */
function clearOf(positions: Float32Array, { gx, gy, c }: Leaning): number {
  for (let k = 0; k < TRIES; k++) {
    const own = c - k * SINKS;
    let clear = true;
    for (let i = 0; clear && i < positions.length; i += 3) clear = Math.abs(positions[i + 2] - gx * positions[i] - gy * positions[i + 1] - own) > CLEAR;
    if (clear) return own;
  }
  return c;
}

/**
 * What of closed solids lies below a plane, closed again where they are cut (clipping triangle by triangle, the cut loops
 * triangulated as lids).
 */
export function belowPlane({ positions, normals, uvs, indices }: Mesh, plane: Leaning): Mesh {
  const { gx, gy } = plane;
  const c = clearOf(positions, plane);
  const corner = (i: number): Corner => {
    const [x, y, z] = [positions[3 * i], positions[3 * i + 1], positions[3 * i + 2]];
    return {
      x,
      y,
      z,
      n: { x: normals[3 * i], y: normals[3 * i + 1], z: normals[3 * i + 2] },
      u: uvs[2 * i],
      v: uvs[2 * i + 1],
      above: z - (gx * x + gy * y + c),
    };
  };
  const out = new MeshBuilder();
  const segments: [Vec3, Vec3][] = [];
  const put = (p: Corner): number => out.point(p.x, p.y, p.z, p.n.x, p.n.y, p.n.z, p.u, p.v);
  for (let k = 0; k < indices.length; k += 3) {
    const own = [corner(indices[k]), corner(indices[k + 1]), corner(indices[k + 2])];
    const kept: Corner[] = [];
    let [leaves, enters]: (Corner | null)[] = [null, null];
    own.forEach((a, i) => {
      const b = own[(i + 1) % 3];
      if (a.above <= 0) kept.push(a);
      if (a.above <= 0 === b.above <= 0) return;
      const p = crossing(a, b);
      kept.push(p);
      if (a.above <= 0) leaves = p;
      else enters = p;
    });
    if (kept.length < 3) continue;
    const at = kept.map(put);
    for (let i = 2; i < at.length; i++) out.triangle(at[0], at[i - 1], at[i]);
    // The lid runs along the cut the other way round.
    if (leaves && enters && key(leaves) !== key(enters)) segments.push([enters, leaves]);
  }
  const l = Math.hypot(gx, gy, 1);
  const normal = { x: -gx / l, y: -gy / l, z: 1 / l };
  const loops = chained(segments).map((loop) => ({ loop, ring: loop.map(({ x, y }) => ({ x, y })) as Ring }));
  const areas = loops.map(({ ring }) => signedArea(ring));
  loops.forEach(({ ring }, i) => {
    if (areas[i] < NIL) return;
    // Holes of the smallest loop they lie in.
    const holes = loops.flatMap((o, k) => {
      if (areas[k] >= 0 || !insideRing(o.ring[0], ring)) return [];
      const nearer = loops.some((other, j) => j !== i && areas[j] > NIL && areas[j] < areas[i] && insideRing(o.ring[0], other.ring));
      return nearer ? [] : [o.ring];
    });
    const { points, indices: lid } = triangulateAll({ outer: ring, holes });
    const base = points.map((p) => out.vertex({ ...p, z: gx * p.x + gy * p.y + c }, normal, p.x, p.y));
    for (let k = 0; k < lid.length; k += 3) out.triangle(base[lid[k]], base[lid[k + 1]], base[lid[k + 2]]);
  });
  return out.build();
}
