import { distance, type Vec2 } from './vec';

/** A place an outline can be taken hold of: a corner, or the middle of an edge, where a corner is added. */
export interface Corner {
  at: Vec2;
  adds: boolean;
}

/** Corners of an outline first, then the middles of its edges. @param closed whether its last point is joined to the first */
export function cornersOf(points: readonly Vec2[], closed: boolean): Corner[] {
  const edges = closed ? points.length : points.length - 1;
  const middles = Array.from({ length: edges }, (_, i) => {
    const [p, q] = [points[i], points[(i + 1) % points.length]];
    return { x: (p.x + q.x) / 2, y: (p.y + q.y) / 2 };
  });
  return [...points.map((at) => ({ at, adds: false })), ...middles.map((at) => ({ at, adds: true }))];
}

/**
 * An outline with one of `cornersOf` dragged to a place. A corner dragged onto its neighbour goes, as long as enough are left:
 * three of a closed outline, two of an open one; else the outline stays as it is.
 *
 * @param least how near two corners may come, in the unit of the points
 */
export function draggedCorner(points: readonly Vec2[], index: number, to: Vec2, closed: boolean, least: number): Vec2[] {
  const n = points.length;
  const moved = index < n ? points.map((p, i) => (i === index ? to : p)) : [...points.slice(0, index - n + 1), to, ...points.slice(index - n + 1)];
  const kept = moved.filter((p, i) => (!closed && i === moved.length - 1) || distance(p, moved[(i + 1) % moved.length]) >= least);
  return kept.length < (closed ? 3 : 2) ? [...points] : kept;
}
