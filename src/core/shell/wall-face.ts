import { boolean, signedArea } from '../geometry/polygon';
import type { Region } from '../geometry/region';
import { distance, type Vec2 } from '../geometry/vec';
import { openingOutline } from '../project/openings';
import type { Opening } from '../project/schema';
import type { UpperEdge, WallSide } from './wall-types';
import { DUST } from '../units/tolerance';

/** How far a distance along the wall's line lies along a face, from its left end as it is seen, metres. */
export function faceX({ path, side }: Pick<WallSide, 'path' | 'side'>, s: number): number {
  let x = 0;
  let at = 0;
  for (let i = 1; i < path.length; i++) {
    const [a, b] = [path[i - 1], path[i]];
    const d = distance(a.p, b.p);
    const share = b.s - a.s < DUST ? 0 : (s - a.s) / (b.s - a.s);
    // Beyond its ends it goes on as it ends.
    const part = (share < 0 && i > 1) || (share > 1 && i < path.length - 1) ? Math.max(0, Math.min(1, share)) : share;
    at += d * part;
    x += d;
  }
  return side === 'left' ? x - at : at;
}

/** The other way round: the distance along the wall's line of a place on a face. */
export function faceS(side: Pick<WallSide, 'path' | 'side' | 'length'>, x: number): number {
  const { path } = side;
  let left = side.side === 'left' ? side.length - x : x;
  for (let i = 1; i < path.length; i++) {
    const [a, b] = [path[i - 1], path[i]];
    const d = distance(a.p, b.p);
    if (left <= d || i === path.length - 1) return a.s + ((b.s - a.s) * left) / (d || 1);
    left -= d;
  }
  return path[0].s;
}

/** The upper edge of what shows of a side, level where its ceiling cuts it, from left to right. */
export function sideTop(side: WallSide, upper: UpperEdge): Vec2[] {
  const top: Vec2[] = [];
  const limit = side.height;
  side.path.forEach((b, i) => {
    const h = upper.at(b.p, b.s);
    const a = side.path[i - 1];
    if (a) {
      const before = upper.at(a.p, a.s);
      if (before > limit !== h > limit && Math.abs(h - before) > DUST) {
        const t = (limit - before) / (h - before);
        top.push({ x: faceX(side, a.s + (b.s - a.s) * t), y: limit });
      }
    }
    top.push({ x: faceX(side, b.s), y: Math.min(h, limit) });
  });
  return side.side === 'left' ? top.reverse() : top;
}

/** What shows of a side between floor and ceiling, without its openings, in the coordinates of the face. */
export function sideRegions(side: WallSide, openings: readonly Opening[]): Region[] {
  const length = side.top[side.top.length - 1].x;
  const outer = [{ x: 0, y: side.foot }, { x: length, y: side.foot }, ...[...side.top].reverse()].filter(
    (p, i, all) => distance(p, all[(i + 1) % all.length]) > DUST,
  );
  if (outer.length < 3 || signedArea(outer) <= DUST) return [];
  const holes = openings
    .filter((o) => o.kind !== 'niche' || o.swing === side.side)
    .map((o): Region => {
      // A window that goes round the corner leaves nothing of the face there.
      const far = (x: number): number => (o.form === 'corner' && (o.hinge === 'start' ? x < 0 : x > 0) ? x * 1e3 : x);
      const ring = openingOutline(o).map((p) => ({ x: faceX(side, o.at + far(p.x)), y: p.y }));
      return { outer: signedArea(ring) < 0 ? ring.reverse() : ring, holes: [] };
    });
  return holes.length ? boolean('difference', [{ outer, holes: [] }], holes) : [{ outer, holes: [] }];
}

const sameRing = (a: readonly Vec2[], b: readonly Vec2[]): boolean => a.length === b.length && a.every((p, i) => p.x === b[i].x && p.y === b[i].y);

/** Whether two sides are the same in all that follows from them. */
export function sameSide(a: WallSide, b: WallSide): boolean {
  return (
    a.room === b.room &&
    a.outdoors === b.outdoors &&
    a.foot === b.foot &&
    a.height === b.height &&
    a.area === b.area &&
    a.ends === b.ends &&
    a.length === b.length &&
    a.bow.area === b.bow.area &&
    a.bow.stretch === b.bow.stretch &&
    a.s0 === b.s0 &&
    a.s1 === b.s1 &&
    a.openings.length === b.openings.length &&
    a.openings.every((id, i) => id === b.openings[i]) &&
    a.path.length === b.path.length &&
    a.path.every((q, i) => q.s === b.path[i].s && q.p.x === b.path[i].p.x && q.p.y === b.path[i].p.y) &&
    sameRing(a.top, b.top) &&
    a.regions.length === b.regions.length &&
    a.regions.every(
      (r, i) =>
        sameRing(r.outer, b.regions[i].outer) && r.holes.length === b.regions[i].holes.length && r.holes.every((h, k) => sameRing(h, b.regions[i].holes[k])),
    )
  );
}
