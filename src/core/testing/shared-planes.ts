import { BufferAttribute, BufferGeometry, DoubleSide, Ray, Vector3 } from 'three';
import { MeshBVH } from 'three-mesh-bvh';
import { placesOf } from '../model/body';
import type { Model } from '../model/model';

/** Two parts of different finishes with faces in one plane that look the same way and are seen: a picture would flicker there. */
export interface SharedPlane {
  /** Kinds and names of both. */
  parts: string;
  /** What they have in common of the plane, m². */
  area: number;
  /** A place in it, metres. */
  at: number[];
  normal: number[];
}

interface Triangle {
  body: string;
  name: string;
  key: string;
  finish: string;
  points: number[][];
  normal: number[];
  /** Distance of its plane from the origin. */
  d: number;
}

/** Planes nearer to one another than this are one, metres. */
const APART = 2e-4;
/** How much of the half space before a face must be open for it to count as seen. */
const SEEN = 0.2;

const dot = (a: readonly number[], b: readonly number[]): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];

function trianglesOf(model: Pick<Model, 'bodies'>): Triangle[] {
  const out: Triangle[] = [];
  for (const body of model.bodies)
    for (const part of body.parts)
      for (const m of placesOf(body, part)) {
        const { positions: p, indices } = part.mesh;
        const at = (i: number): number[] => [0, 1, 2].map((r) => m[r] * p[3 * i] + m[4 + r] * p[3 * i + 1] + m[8 + r] * p[3 * i + 2] + m[12 + r]);
        for (let k = 0; k < indices.length; k += 3) {
          const points = [0, 1, 2].map((j) => at(indices[k + j]));
          const [u, v] = [1, 2].map((j) => points[j].map((x, r) => x - points[0][r]));
          const n = [u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]];
          const l = Math.hypot(...n);
          if (l < 1e-6) continue;
          const normal = n.map((x) => x / l);
          out.push({ body: body.id, name: `${body.kind} ${part.name}`, key: part.key, finish: part.finish, points, normal, d: dot(normal, points[0]) });
        }
      }
  return out;
}

const area = (ring: readonly number[][]): number =>
  ring.reduce((s, [x, y], i) => s + x * ring[(i + 1) % ring.length][1] - y * ring[(i + 1) % ring.length][0], 0) / 2;

/** What two triangles of a plane have in common (Sutherland and Hodgman). Both counter-clockwise. */
function common(subject: number[][], by: readonly number[][]): number[][] {
  let out = subject;
  for (let i = 0; i < by.length && out.length; i++) {
    const [a, b] = [by[i], by[(i + 1) % by.length]];
    const side = ([x, y]: number[]): number => (b[0] - a[0]) * (y - a[1]) - (b[1] - a[1]) * (x - a[0]);
    const kept: number[][] = [];
    out.forEach((p, j) => {
      const q = out[(j + 1) % out.length];
      const [s, t] = [side(p), side(q)];
      if (s >= 0) kept.push(p);
      if (s > 0 !== t > 0 && s !== t) kept.push(p.map((x, r) => x + ((q[r] - x) * s) / (s - t)));
    });
    out = kept;
  }
  return out;
}

/** How much of the half space before a point is open or looked into from its outside. */
function seer(triangles: readonly Triangle[]): (at: readonly number[], normal: readonly number[]) => number {
  const geometry = new BufferGeometry();
  geometry.setAttribute('position', new BufferAttribute(Float32Array.from(triangles.flatMap((t) => t.points.flat())), 3));
  const tree = new MeshBVH(geometry);
  const RAYS = 32;
  return (at, normal) => {
    const n = new Vector3(...normal);
    const u = new Vector3(0, 0, 1);
    if (Math.abs(n.z) > 0.9) u.set(1, 0, 0);
    u.cross(n).normalize();
    const v = n.clone().cross(u);
    const origin = new Vector3(...at).addScaledVector(n, 2 * APART);
    let seen = 0;
    for (let i = 0; i < RAYS; i++) {
      const z = 1 - (i + 0.5) / RAYS;
      const [r, turn] = [Math.sqrt(1 - z * z), i * Math.PI * (3 - Math.sqrt(5))];
      const way = n
        .clone()
        .multiplyScalar(z)
        .addScaledVector(u, r * Math.cos(turn))
        .addScaledVector(v, r * Math.sin(turn));
      const ray = new Ray(origin, way);
      const hit = tree.raycastFirst(ray, DoubleSide);
      // What lies back to back with a face that is looked at from behind hides with it, whichever of the two is met first.
      const behind = (far: number): boolean => tree.raycast(ray, DoubleSide, far - APART, far + APART).some((h) => h.face!.normal.dot(way) > 0);
      if (!hit || (hit.distance > 0.02 && hit.face!.normal.dot(way) < 0 && !behind(hit.distance))) seen++;
    }
    return seen / RAYS;
  };
}

/** Where faces of different finishes lie in one plane, look the same way and are seen; each pair of parts once, the largest first. */
export function sharedPlanes(model: Pick<Model, 'bodies'>): SharedPlane[] {
  const all = trianglesOf(model);
  // One looks through glass and water.
  const open = seer(all.filter((t) => !/glass|water/.test(t.name)));
  const cells = new Map<string, Triangle[]>();
  for (const t of all) {
    const key = [...t.normal.map((x) => Math.round(x * 100)), Math.round(t.d * 1000)].join();
    const cell = cells.get(key);
    if (cell) cell.push(t);
    else cells.set(key, [t]);
  }
  const found = new Map<string, SharedPlane>();
  for (const cell of cells.values())
    for (let i = 0; i < cell.length; i++)
      for (let j = i + 1; j < cell.length; j++) {
        const [a, b] = [cell[i], cell[j]];
        if (a.finish === b.finish || Math.abs(a.d - b.d) > APART || dot(a.normal, b.normal) < 0.99999) continue;
        const size = a.normal.map(Math.abs);
        const w = size.indexOf(Math.max(...size));
        const [u, v] = [(w + 1) % 3, (w + 2) % 3];
        const flat = (t: Triangle): number[][] => {
          const ring = t.points.map((p) => [p[u], p[v]]);
          return area(ring) < 0 ? ring.reverse() : ring;
        };
        const ring = common(flat(a), flat(b));
        const shared = Math.abs(area(ring)) / size[w];
        if (ring.length < 3 || shared < 1e-5) continue;
        const at = [0, 0, 0];
        at[u] = ring.reduce((s, p) => s + p[0], 0) / ring.length;
        at[v] = ring.reduce((s, p) => s + p[1], 0) / ring.length;
        at[w] = (a.d - a.normal[u] * at[u] - a.normal[v] * at[v]) / a.normal[w];
        if (open(at, a.normal) < SEEN) continue;
        const parts = [`${a.body} (${a.name})`, `${b.body} (${b.name})`].sort().join(' and ');
        const known = found.get(parts);
        if (known) known.area += shared;
        else found.set(parts, { parts, area: shared, at, normal: a.normal });
      }
  return [...found.values()].sort((a, b) => b.area - a.area);
}
