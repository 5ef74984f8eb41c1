import type { Mesh } from './mesh';
import { WELD } from '../units/tolerance';

/** A mesh by its points alone: those that lie in one place are one. */
export interface Welded {
  /** x, y, z of each point. */
  points: Float64Array;
  /** Three points a triangle; triangles without an area are left out. */
  triangles: Uint32Array;
}

const known = new WeakMap<Mesh, Welded>();

/** Points brought together by place, and the triangles over them; found once for each mesh. */
export function weld(mesh: Mesh): Welded {
  let made = known.get(mesh);
  if (!made) known.set(mesh, (made = welded(mesh)));
  return made;
}

function welded({ positions, indices }: Mesh): Welded {
  const cells = new Map<string, number[]>();
  const points: number[] = [];
  const cell = (v: number): number => Math.floor(v / (4 * WELD));
  const near = (v: number): number[] => {
    const own = cell(v);
    const [low, high] = [cell(v - WELD), cell(v + WELD)];
    return low === high ? [own] : [low, high];
  };
  const at = (i: number): number => {
    const [x, y, z] = [positions[i * 3], positions[i * 3 + 1], positions[i * 3 + 2]];
    for (const cx of near(x))
      for (const cy of near(y))
        for (const cz of near(z))
          for (const n of cells.get(`${cx} ${cy} ${cz}`) ?? [])
            if (Math.abs(points[n * 3] - x) < WELD && Math.abs(points[n * 3 + 1] - y) < WELD && Math.abs(points[n * 3 + 2] - z) < WELD) return n;
    const n = points.length / 3;
    points.push(x, y, z);
    const key = `${cell(x)} ${cell(y)} ${cell(z)}`;
    const list = cells.get(key);
    if (list) list.push(n);
    else cells.set(key, [n]);
    return n;
  };
  const index = new Int32Array(positions.length / 3).fill(-1);
  const of = (i: number): number => (index[i] < 0 ? (index[i] = at(i)) : index[i]);
  const triangles: number[] = [];
  for (let k = 0; k < indices.length; k += 3) {
    const [a, b, c] = [of(indices[k]), of(indices[k + 1]), of(indices[k + 2])];
    if (a !== b && b !== c && c !== a) triangles.push(a, b, c);
  }
  return { points: Float64Array.from(points), triangles: Uint32Array.from(triangles) };
}

/** Unit normal of each triangle, x, y, z; zero for slivers without an area. */
export function triangleNormals({ points, triangles }: Welded): Float64Array {
  const out = new Float64Array(triangles.length);
  for (let k = 0; k < triangles.length; k += 3) {
    const [a, b, c] = [triangles[k] * 3, triangles[k + 1] * 3, triangles[k + 2] * 3];
    const [ux, uy, uz] = [points[b] - points[a], points[b + 1] - points[a + 1], points[b + 2] - points[a + 2]];
    const [vx, vy, vz] = [points[c] - points[a], points[c + 1] - points[a + 1], points[c + 2] - points[a + 2]];
    const [nx, ny, nz] = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
    const l = Math.hypot(nx, ny, nz);
    if (l === 0) continue;
    out[k] = nx / l;
    out[k + 1] = ny / l;
    out[k + 2] = nz / l;
  }
  return out;
}

/** What lies at one edge: the triangles that run along it from its lower to its higher point, and those that run back. */
export interface EdgeUse {
  a: number;
  b: number;
  along: number[];
  back: number[];
}

/**
 * The edges of a welded mesh. Where points of other triangles lie on an edge, as in a T-shaped joint, it is parted there,
 * so that neighbours meet whatever way they were triangulated.
 */
export function edgeUses(mesh: Welded): EdgeUse[] {
  const uses = new Map<number, EdgeUse>();
  const count = mesh.points.length / 3;
  const put = (into: Map<number, EdgeUse>, p: number, q: number, triangle: number): void => {
    const [a, b] = p < q ? [p, q] : [q, p];
    const key = a * count + b;
    let use = into.get(key);
    if (!use) into.set(key, (use = { a, b, along: [], back: [] }));
    (p < q ? use.along : use.back).push(triangle);
  };
  for (let k = 0; k < mesh.triangles.length; k += 3) for (let i = 0; i < 3; i++) put(uses, mesh.triangles[k + i], mesh.triangles[k + ((i + 1) % 3)], k / 3);
  const open = [...uses].filter(([, u]) => u.along.length !== u.back.length);
  if (!open.length) return [...uses.values()];
  const ends = [...new Set(open.flatMap(([, u]) => [u.a, u.b]))];
  for (const [key, use] of open) {
    const stops = between(mesh.points, use.a, use.b, ends);
    if (!stops.length) continue;
    uses.delete(key);
    const chain = [use.a, ...stops, use.b];
    for (let i = 0; i + 1 < chain.length; i++) {
      for (const t of use.along) put(uses, chain[i], chain[i + 1], t);
      for (const t of use.back) put(uses, chain[i + 1], chain[i], t);
    }
  }
  return [...uses.values()];
}

/** Those of some points that lie on the line between two, in order from the first to the second. */
function between(points: Float64Array, a: number, b: number, among: readonly number[]): number[] {
  const [ax, ay, az] = [points[a * 3], points[a * 3 + 1], points[a * 3 + 2]];
  const [dx, dy, dz] = [points[b * 3] - ax, points[b * 3 + 1] - ay, points[b * 3 + 2] - az];
  const l2 = dx * dx + dy * dy + dz * dz;
  const out: { n: number; t: number }[] = [];
  for (const n of among) {
    if (n === a || n === b) continue;
    const [x, y, z] = [points[n * 3] - ax, points[n * 3 + 1] - ay, points[n * 3 + 2] - az];
    const t = (x * dx + y * dy + z * dz) / l2;
    if (t <= 0 || t >= 1) continue;
    const off = Math.hypot(x - dx * t, y - dy * t, z - dz * t);
    if (off < WELD) out.push({ n, t });
  }
  return out.sort((p, q) => p.t - q.t).map((o) => o.n);
}
