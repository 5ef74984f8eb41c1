import { add3, scale3, type Vec3 } from '../../geometry/vec';
import type { Net } from './skin';

/** Edges that stay sharp: pairs of indices of points. */
export type Creases = readonly (readonly [number, number])[];

const name = (a: number, b: number): string => (a < b ? `${a} ${b}` : `${b} ${a}`);

/**
 * A net made finer and rounder once (Catmull and Clark 1978). Edges at the rim and `creases` keep their line (Hoppe and
 * others 1994): points on one crease follow it, points where three or more meet, or one ends at a rim, stay.
 *
 * @returns the finer net, and its creases
 */
export function subdivideOnce({ points, faces }: Net, creases: Creases = []): { net: Net; creases: [number, number][] } {
  const sharp = new Set(creases.map(([a, b]) => name(a, b)));
  const edges = new Map<string, { a: number; b: number; faces: number[]; point: number }>();
  const facePoints = faces.map((f) => scale3(f.map((i) => points[i]).reduce(add3), 1 / f.length));
  faces.forEach((f, k) =>
    f.forEach((a, i) => {
      const b = f[(i + 1) % f.length];
      const key = name(a, b);
      const edge = edges.get(key);
      if (edge) edge.faces.push(k);
      else edges.set(key, { a, b, faces: [k], point: -1 });
    }),
  );
  const crisp = (key: string): boolean => sharp.has(key) || edges.get(key)!.faces.length !== 2;
  const out: Vec3[] = points.map(() => ({ x: 0, y: 0, z: 0 }));
  const base = out.length;
  out.push(...facePoints);
  for (const [key, edge] of edges) {
    edge.point = out.length;
    const ends = add3(points[edge.a], points[edge.b]);
    out.push(crisp(key) ? scale3(ends, 0.5) : scale3(add3(ends, add3(facePoints[edge.faces[0]], facePoints[edge.faces[1]])), 0.25));
  }
  const ofPoint: { faces: number[]; edges: string[] }[] = points.map(() => ({ faces: [], edges: [] }));
  faces.forEach((f, k) => f.forEach((i) => ofPoint[i].faces.push(k)));
  for (const [key, { a, b }] of edges) {
    ofPoint[a].edges.push(key);
    ofPoint[b].edges.push(key);
  }
  points.forEach((p, i) => {
    const { faces: own, edges: about } = ofPoint[i];
    const hard = about.filter(crisp);
    const other = (key: string): Vec3 => points[edges.get(key)!.a === i ? edges.get(key)!.b : edges.get(key)!.a];
    if (!own.length || hard.length > 2) out[i] = p;
    else if (hard.length === 2) out[i] = add3(scale3(p, 0.75), scale3(add3(other(hard[0]), other(hard[1])), 0.125));
    else {
      const n = own.length;
      const f = scale3(own.map((k) => facePoints[k]).reduce(add3), 1 / n);
      const r = scale3(about.map((key) => scale3(add3(p, other(key)), 0.5)).reduce(add3), 1 / about.length);
      out[i] = scale3(add3(add3(f, scale3(r, 2)), scale3(p, n - 3)), 1 / n);
    }
  });
  const finer = faces.flatMap((f, k) =>
    f.map((a, i) => {
      const [next, before] = [f[(i + 1) % f.length], f[(i + f.length - 1) % f.length]];
      return [a, edges.get(name(a, next))!.point, base + k, edges.get(name(before, a))!.point];
    }),
  );
  const kept = creases.flatMap(([a, b]): [number, number][] => {
    const edge = edges.get(name(a, b));
    return edge
      ? [
          [a, edge.point],
          [edge.point, b],
        ]
      : [];
  });
  return { net: { points: out, faces: finer }, creases: kept };
}

/** A net made finer and rounder so many times. */
export function subdivide(net: Net, times: number, creases: Creases = []): Net {
  let state: { net: Net; creases: Creases } = { net, creases };
  for (let i = 0; i < times; i++) state = subdivideOnce(state.net, state.creases);
  return state.net;
}

/** A sheet of faces given a thickness: itself, its other side, and its rim between them. @param thick metres, to the back of the sheet */
export function thickened({ points, faces }: Net, thick: number): Net {
  const normals = points.map(() => ({ x: 0, y: 0, z: 0 }));
  const uses = new Map<string, number>();
  for (const f of faces) {
    const [a, b, c] = [points[f[0]], points[f[1]], points[f[2]]];
    const d = points[f[f.length - 1]];
    const [p, q] = [
      { x: c.x - a.x, y: c.y - a.y, z: c.z - a.z },
      { x: d.x - b.x, y: d.y - b.y, z: d.z - b.z },
    ];
    const n = { x: p.y * q.z - p.z * q.y, y: p.z * q.x - p.x * q.z, z: p.x * q.y - p.y * q.x };
    f.forEach((i, k) => {
      normals[i] = add3(normals[i], n);
      const key = name(i, f[(k + 1) % f.length]);
      uses.set(key, (uses.get(key) ?? 0) + 1);
    });
  }
  const n = points.length;
  const back = points.map((p, i) => {
    const { x, y, z } = normals[i];
    const l = Math.hypot(x, y, z) || 1;
    return { x: p.x - (x / l) * thick, y: p.y - (y / l) * thick, z: p.z - (z / l) * thick };
  });
  const rim = faces.flatMap((f) =>
    f.flatMap((a, k) => {
      const b = f[(k + 1) % f.length];
      return uses.get(name(a, b)) === 1 ? [[b, a, n + a, n + b]] : [];
    }),
  );
  return { points: [...points, ...back], faces: [...faces, ...faces.map((f) => f.map((i) => i + n).reverse()), ...rim] };
}
