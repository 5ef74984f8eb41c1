import type { Mesh } from './mesh';
import { cross3, dot3, sub3, type Vec3 } from './vec';
import { edgeUses, triangleNormals, weld, type Welded } from './welding';
import { PLANE, WELD } from '../units/tolerance';

/** A plane face of a mesh: its outline with holes, in the coordinates of the mesh. */
export interface PlanarFace {
  normal: Vec3;
  /** Distance of its plane from the origin along the normal, metres. */
  offset: number;
  /** Counter-clockwise seen from its front. */
  outer: Vec3[];
  /** Clockwise seen from its front. */
  holes: Vec3[][];
  /** m². */
  area: number;
}

const known = new WeakMap<Mesh, PlanarFace[]>();

/**
 * The plane faces of a mesh: triangles that adjoin one another in one plane are one face, with an outline and holes. Found
 * once for each mesh. A rounded surface gives as many faces as it has facets.
 */
export function planarFaces(mesh: Mesh): PlanarFace[] {
  let made = known.get(mesh);
  if (!made) known.set(mesh, (made = findFaces(weld(mesh))));
  return made;
}

function findFaces(mesh: Welded): PlanarFace[] {
  const normals = triangleNormals(mesh);
  const count = mesh.triangles.length / 3;
  const group = Int32Array.from({ length: count }, (_, i) => i);
  const root = (i: number): number => {
    while (group[i] !== i) i = group[i] = group[group[i]];
    return i;
  };
  const uses = edgeUses(mesh);
  const alike = (t: number, u: number): boolean => {
    const [x, y, z] = [0, 1, 2].map((c) => normals[t * 3 + c] - normals[u * 3 + c]);
    return Math.hypot(x, y, z) < PLANE && withinPlane(mesh, normals, t, u);
  };
  for (const { along, back } of uses) for (const t of along) for (const u of back) if (root(t) !== root(u) && alike(t, u)) group[root(u)] = root(t);
  // Of each group the edges that are not met from within, from point to point.
  const next = new Map<number, Map<number, number[]>>();
  for (const { a, b, along, back } of uses) {
    const balance = new Map<number, number>();
    for (const t of along) balance.set(root(t), (balance.get(root(t)) ?? 0) + 1);
    for (const t of back) balance.set(root(t), (balance.get(root(t)) ?? 0) - 1);
    for (const [g, n] of balance) {
      if (n === 0) continue;
      let ways = next.get(g);
      if (!ways) next.set(g, (ways = new Map()));
      const [from, to] = n > 0 ? [a, b] : [b, a];
      // Solids that lie face to face may run along an edge more than once.
      ways.set(from, [...(ways.get(from) ?? []), ...Array.from({ length: Math.abs(n) }, () => to)]);
    }
  }
  const faces: PlanarFace[] = [];
  for (const [g, ways] of next) {
    const normal = { x: normals[g * 3], y: normals[g * 3 + 1], z: normals[g * 3 + 2] };
    if (normal.x === 0 && normal.y === 0 && normal.z === 0) continue;
    const loops = loopsOf(mesh, ways, normal).map((ring) => ({ ring, area: signedArea(ring, normal) }));
    const outers = loops
      .filter((l) => l.area > WELD * WELD)
      .map(({ ring, area }): PlanarFace => ({ normal, offset: dot3(ring[0], normal), outer: ring, holes: [], area }));
    for (const { ring, area } of loops) {
      if (area > -WELD * WELD) continue;
      const owner = outers.length === 1 ? outers[0] : outers.find((f) => inside(ring[0], f.outer, normal));
      if (!owner) continue;
      owner.holes.push(ring);
      owner.area += area;
    }
    faces.push(...outers);
  }
  return faces;
}

/** Whether the corners of one triangle lie in the plane of another. */
function withinPlane({ points, triangles }: Welded, normals: Float64Array, t: number, u: number): boolean {
  const origin = triangles[t * 3] * 3;
  for (let i = 0; i < 3; i++) {
    const p = triangles[u * 3 + i] * 3;
    const off = [0, 1, 2].reduce((sum, c) => sum + (points[p + c] - points[origin + c]) * normals[t * 3 + c], 0);
    if (Math.abs(off) > 5 * WELD) return false;
  }
  return true;
}

/** Closed chains of points; where several ways lead on, the one that turns most to the left keeps loops apart that touch in a point. */
function loopsOf({ points }: Welded, ways: Map<number, number[]>, normal: Vec3): Vec3[][] {
  const at = (n: number): Vec3 => ({ x: points[n * 3], y: points[n * 3 + 1], z: points[n * 3 + 2] });
  const loops: Vec3[][] = [];
  for (const start of ways.keys())
    while (ways.get(start)!.length) {
      const chain = [start];
      let here = ways.get(start)!.pop()!;
      while (here !== start) {
        const list = ways.get(here);
        if (!list?.length) break;
        const before = chain[chain.length - 1];
        chain.push(here);
        const turn = (to: number): number => {
          const [p, q, r] = [at(before), at(chain[chain.length - 1]), at(to)];
          const [u, v] = [sub3(q, p), sub3(r, q)];
          return Math.atan2(dot3(cross3(u, v), normal), dot3(u, v));
        };
        const to = list.length === 1 ? list[0] : list.reduce((best, n) => (turn(n) > turn(best) ? n : best));
        list.splice(list.indexOf(to), 1);
        here = to;
      }
      if (here === start && chain.length > 2) loops.push(straightened(chain.map(at)));
    }
  return loops.filter((ring) => ring.length > 2);
}

/** A ring without the points that lie on the line between their neighbours. */
function straightened(ring: readonly Vec3[]): Vec3[] {
  return ring.filter((q, i) => {
    const [p, r] = [ring[(i + ring.length - 1) % ring.length], ring[(i + 1) % ring.length]];
    const [u, v] = [sub3(q, p), sub3(r, p)];
    const l = Math.hypot(v.x, v.y, v.z);
    if (l < WELD) return true;
    const c = cross3(u, v);
    return Math.hypot(c.x, c.y, c.z) / l > WELD || dot3(u, v) < 0 || dot3(u, v) > l * l;
  });
}

/** Area of a ring in its plane, positive where it runs counter-clockwise about the normal (Newell). */
function signedArea(ring: readonly Vec3[], normal: Vec3): number {
  let sum = 0;
  ring.forEach((p, i) => (sum += dot3(cross3(sub3(p, ring[0]), sub3(ring[(i + 1) % ring.length], ring[0])), normal)));
  return sum / 2;
}

/** Whether a point lies within a ring, both in one plane. */
function inside(p: Vec3, ring: readonly Vec3[], normal: Vec3): boolean {
  const [ax, ay, az] = [Math.abs(normal.x), Math.abs(normal.y), Math.abs(normal.z)];
  const [u, v]: ['x' | 'y', 'y' | 'z'] = az >= ax && az >= ay ? ['x', 'y'] : ax >= ay ? ['y', 'z'] : ['x', 'z'];
  let within = false;
  ring.forEach((a, i) => {
    const b = ring[(i + 1) % ring.length];
    if (a[v] > p[v] !== b[v] > p[v] && p[u] < a[u] + ((b[u] - a[u]) * (p[v] - a[v])) / (b[v] - a[v])) within = !within;
  });
  return within;
}
