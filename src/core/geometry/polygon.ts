import earcut from 'earcut';
import polylabel from 'polylabel';
import { clipRegions } from './clipping';
import type { Region, Ring } from './region';
import { add, cross, distance, dot, scale, segmentDistance, sub, unit, type Vec2, type Vec3 } from './vec';
import { DUST, HAIR, NEAR, NIL, TIGHT, TOUCH } from '../units/tolerance';

/** Signed area of a ring in square metres (shoelace formula); positive when counter-clockwise. */
export function signedArea(ring: readonly Vec2[]): number {
  let sum = 0;
  for (let i = 0, j = ring.length - 1; i < ring.length; j = i++) sum += cross(ring[j], ring[i]);
  return sum / 2;
}

/** Area of a region, holes taken off, in square metres. */
export const regionArea = (region: Region): number =>
  Math.abs(signedArea(region.outer)) - region.holes.reduce((sum, hole) => sum + Math.abs(signedArea(hole)), 0);

/** Length of a ring's outline in metres. */
export const perimeter = (ring: readonly Vec2[]): number => ring.reduce((sum, p, i) => sum + distance(p, ring[(i + 1) % ring.length]), 0);

/** Whether a point lies inside a ring (even–odd rule; points on the edge may go either way). */
export function insideRing(p: Vec2, ring: readonly Vec2[]): boolean {
  let inside = false;
  for (let i = 0, j = ring.length - 1; i < ring.length; j = i++) {
    const a = ring[i];
    const b = ring[j];
    if (a.y > p.y !== b.y > p.y && p.x < ((b.x - a.x) * (p.y - a.y)) / (b.y - a.y) + a.x) inside = !inside;
  }
  return inside;
}

export const insideRegion = (p: Vec2, region: Region): boolean => insideRing(p, region.outer) && !region.holes.some((hole) => insideRing(p, hole));

/** Least distance of a point from a ring's outline, metres. */
export function ringDistance(p: Vec2, ring: readonly Vec2[]): number {
  let best = Infinity;
  for (let i = 0, j = ring.length - 1; i < ring.length; j = i++) best = Math.min(best, segmentDistance(p, ring[j], ring[i]));
  return best;
}

/** The point inside a region that is farthest from its edges: where a label stands best. */
export function labelPoint(region: Region): Vec2 {
  const close = (ring: Ring): [number, number][] => [...ring, ring[0]].map((p) => [p.x, p.y]);
  const [x, y] = polylabel([region.outer, ...region.holes].map(close), 0.01);
  return { x, y };
}

/** Whether no two edges of a ring cross or touch, apart from neighbours at their common point. */
export function isSimple(ring: readonly Vec2[]): boolean {
  const n = ring.length;
  if (n < 3) return false;
  for (let i = 0; i < n; i++) {
    const a = ring[i];
    const b = ring[(i + 1) % n];
    for (let j = i + 2; j < n; j++) {
      if (i === 0 && j === n - 1) continue;
      const c = ring[j];
      const d = ring[(j + 1) % n];
      const d1 = cross(sub(b, a), sub(c, a));
      const d2 = cross(sub(b, a), sub(d, a));
      const d3 = cross(sub(d, c), sub(a, c));
      const d4 = cross(sub(d, c), sub(b, c));
      if (d1 * d2 < 0 && d3 * d4 < 0) return false;
    }
  }
  return true;
}

/** Unit normal of a flat ring in space, by Newell's sums: towards where it runs counter-clockwise; null where it has no area. */
export function ringNormal(ring: readonly Vec3[]): Vec3 | null {
  let [x, y, z] = [0, 0, 0];
  ring.forEach((p, i) => {
    const q = ring[(i + 1) % ring.length];
    x += (p.y - q.y) * (p.z + q.z);
    y += (p.z - q.z) * (p.x + q.x);
    z += (p.x - q.x) * (p.y + q.y);
  });
  const l = Math.hypot(x, y, z);
  return l < DUST ? null : { x: x / l, y: y / l, z: z / l };
}

/** Drops points that repeat their predecessor, lie on the straight line of their neighbours or stick out as a spike. */
export function tidyRing(ring: readonly Vec2[], tolerance = TIGHT): Ring {
  let out: Ring = [...ring];
  for (;;) {
    const kept: Ring = [];
    for (const p of out) if (!kept.length || distance(kept[kept.length - 1], p) > tolerance) kept.push(p);
    while (kept.length > 1 && distance(kept[0], kept[kept.length - 1]) <= tolerance) kept.pop();
    const straight = kept.filter((p, i) => {
      const a = kept[(i + kept.length - 1) % kept.length];
      const b = kept[(i + 1) % kept.length];
      return Math.abs(cross(sub(p, a), sub(b, p))) > 1e-10;
    });
    if (straight.length === out.length || straight.length < 3) return straight;
    out = straight;
  }
}

/** What the lattice of clipping may leave of an edge that is cut along itself is no wider, metres. */
const SPIKE = TOUCH / 2;

/** A ring without spikes and points on its edges. */
function withoutSpike(ring: Ring): Ring {
  let out = ring;
  for (;;) {
    const first = out.findIndex((p, i) => {
      const [a, b] = [out[(i + out.length - 1) % out.length], out[(i + 1) % out.length]];
      const long = distance(a, b);
      return distance(a, p) < SPIKE || long < SPIKE || Math.abs(cross(sub(p, a), sub(b, a))) / long < SPIKE;
    });
    if (first < 0 || out.length < 3) return out;
    out = [...out.slice(0, first), ...out.slice(first + 1)];
  }
}

/** Regions without the hairs that clipping leaves where something is cut along one of its edges, and without points on straight edges. */
export const withoutSpikes = (regions: readonly Region[]): Region[] =>
  regions.flatMap(({ outer, holes }) => {
    const ring = withoutSpike(outer);
    return ring.length > 2 ? [{ outer: ring, holes: holes.map(withoutSpike).filter((h) => h.length > 2) }] : [];
  });

/** Union, intersection or difference of plane regions. */
export function boolean(op: 'union' | 'intersection' | 'difference', first: Region[], second: Region[]): Region[] {
  if (!first.length) return op === 'union' ? second : [];
  if (!second.length) return op === 'intersection' ? [] : op === 'difference' ? first : union(first);
  if (op === 'union') return clipRegions(op, first, second);
  // What lies apart from all of the others has no part in it.
  const boxes = first.map((r) => boxOf(r.outer));
  const near = second.filter((r) => {
    const box = boxOf(r.outer);
    return boxes.some((b) => !apart(b, box));
  });
  if (!near.length) return op === 'intersection' ? [] : union(first);
  if (op === 'intersection' && first.length === 1 && near.length === 1) {
    const [a, b] = [first[0], near[0]];
    if (!a.holes.length && !b.holes.length && isConvex(a.outer) && isConvex(b.outer)) return convexIntersection(a.outer, b.outer);
  }
  return clipRegions(op, first, near);
}

/** Whether a ring turns to one side only, counter-clockwise. */
export function isConvex(ring: readonly Vec2[]): boolean {
  const n = ring.length;
  let turned = 0;
  for (let i = 0; i < n; i++) {
    const [a, b, c] = [ring[i], ring[(i + 1) % n], ring[(i + 2) % n]];
    const [d, e] = [sub(b, a), sub(c, b)];
    const turn = cross(d, e);
    if (turn < -NIL) return false;
    turned += Math.atan2(turn, d.x * e.x + d.y * e.y);
  }
  // Once round, not twice.
  return Math.abs(turned - 2 * Math.PI) < NEAR;
}

/** What two convex rings have in common (Sutherland–Hodgman), empty where it has no area. */
function convexIntersection(a: Ring, b: Ring): Region[] {
  let ring = a;
  for (let i = 0; i < b.length && ring.length > 2; i++) {
    const p = b[i];
    const d = sub(b[(i + 1) % b.length], p);
    const l = Math.hypot(d.x, d.y);
    if (l > NIL) ring = clipHalf(ring, (q) => cross(d, sub(q, p)) / l);
  }
  const clean = tidyRing(ring);
  return clean.length > 2 && signedArea(clean) > 1e-10 ? [{ outer: clean, holes: [] }] : [];
}

/** Union of many regions. */
export function union(regions: Region[]): Region[] {
  if (regions.length < 2) return regions;
  return clipRegions('union', regions, []);
}

export const totalArea = (regions: readonly Region[]): number => regions.reduce((sum, r) => sum + regionArea(r), 0);

/**
 * Triangles of a ring that use every one of its points, also those on the straight line of their neighbours, so that
 * what adjoins there meets it point to point. Such points are set a hair outwards while the triangles are found.
 */
export const triangulateKeeping = (ring: Ring): number[] => triangulate({ outer: setOut(ring), holes: [] }).indices;

/** A ring with the points on the straight line of their neighbours set a hair outwards. */
const setOut = (ring: Ring): Ring =>
  ring.map((p, i) => {
    const a = ring[(i + ring.length - 1) % ring.length];
    const b = ring[(i + 1) % ring.length];
    const d = sub(b, a);
    const l = Math.hypot(d.x, d.y);
    if (l < NIL || Math.abs(cross(d, sub(p, a))) / l > NEAR) return p;
    return { x: p.x + (d.y / l) * HAIR, y: p.y - (d.x / l) * HAIR };
  });

/** Triangles of a region that use every one of its points, as `triangulate` gives them. */
export const triangulateAll = ({ outer, holes }: Region): { points: Vec2[]; indices: number[] } => ({
  points: [...outer, ...holes.flat()],
  indices: triangulate({ outer: setOut(outer), holes: holes.map(setOut) }).indices,
});

/**
 * Triangles of a region (earcut).
 *
 * @returns all points, outer ring first, and three indices a triangle, counter-clockwise
 */
export function triangulate(region: Region): { points: Vec2[]; indices: number[] } {
  const points = [...region.outer];
  const holeStarts: number[] = [];
  for (const hole of region.holes) {
    holeStarts.push(points.length);
    points.push(...hole);
  }
  const indices = earcut(
    points.flatMap((p) => [p.x, p.y]),
    holeStarts.length ? holeStarts : undefined,
    2,
  );
  for (let i = 0; i < indices.length; i += 3) {
    const [a, b, c] = [points[indices[i]], points[indices[i + 1]], points[indices[i + 2]]];
    if (cross(sub(b, a), sub(c, a)) < 0) [indices[i + 1], indices[i + 2]] = [indices[i + 2], indices[i + 1]];
  }
  return { points, indices };
}

/** The part of a ring where a function of the plan is not negative; the function is linear (Sutherland–Hodgman for one edge). */
export function clipHalf(ring: readonly Vec2[], side: (p: Vec2) => number): Ring {
  const out: Ring = [];
  ring.forEach((a, i) => {
    const b = ring[(i + 1) % ring.length];
    const [u, v] = [side(a), side(b)];
    if (u >= 0) out.push(a);
    if (u >= 0 !== v >= 0) out.push({ x: a.x + ((b.x - a.x) * u) / (u - v), y: a.y + ((b.y - a.y) * u) / (u - v) });
  });
  return out;
}

/** What is left of a ring round holes cut out of it, as simple pieces: it is parted through the middle of every hole. */
export function piecesAround(ring: Ring, holes: readonly Ring[]): Ring[] {
  let pieces: Ring[] = [ring];
  for (const hole of holes) {
    const middle = scale(
      hole.reduce((sum, p) => add(sum, p), { x: 0, y: 0 }),
      1 / hole.length,
    );
    const d = unit(sub(hole[1], hole[0]));
    const side =
      (k: 1 | -1) =>
      (p: Vec2): number =>
        k * dot(sub(p, middle), d);
    pieces = pieces
      .flatMap((piece) => [clipHalf(piece, side(1)), clipHalf(piece, side(-1))])
      .filter((piece) => piece.length > 2)
      .flatMap((piece) => boolean('difference', [{ outer: piece, holes: [] }], [{ outer: hole, holes: [] }]).map((r) => r.outer));
  }
  return pieces;
}

/** Convex hull of points of the plan, counter-clockwise (Andrew's monotone chain). */
export function hull(points: readonly Vec2[]): Ring {
  const sorted = [...points].sort((a, b) => a.x - b.x || a.y - b.y);
  const half = (list: readonly Vec2[]): Vec2[] => {
    const out: Vec2[] = [];
    for (const p of list) {
      while (out.length > 1) {
        const [a, b] = [out[out.length - 2], out[out.length - 1]];
        if ((b.x - a.x) * (p.y - a.y) - (b.y - a.y) * (p.x - a.x) > NIL) break;
        out.pop();
      }
      out.push(p);
    }
    return out.slice(0, -1);
  };
  return [...half(sorted), ...half([...sorted].reverse())];
}

/** A rectangle along the axes, metres. */
export interface Box {
  x0: number;
  y0: number;
  x1: number;
  y1: number;
}

/** The box round some points, so much larger on every side. */
export function boxOf(points: readonly Vec2[], by = 0): Box {
  const box = { x0: Infinity, y0: Infinity, x1: -Infinity, y1: -Infinity };
  for (const { x, y } of points) {
    box.x0 = Math.min(box.x0, x - by);
    box.y0 = Math.min(box.y0, y - by);
    box.x1 = Math.max(box.x1, x + by);
    box.y1 = Math.max(box.y1, y + by);
  }
  return box;
}

/** Whether two boxes have nothing in common. */
export const apart = (a: Box, b: Box): boolean => a.x0 > b.x1 || a.x1 < b.x0 || a.y0 > b.y1 || a.y1 < b.y0;

/** What of a ring lies in a box (Sutherland and Hodgman, 1974); fewer than three points: nothing. */
export const inBox = (ring: Ring, { x0, y0, x1, y1 }: Box): Ring =>
  clipHalf(
    clipHalf(
      clipHalf(
        clipHalf(ring, (p) => p.x - x0),
        (p) => x1 - p.x,
      ),
      (p) => p.y - y0,
    ),
    (p) => y1 - p.y,
  );
