import { cross, distance, dot, sub, type Vec2 } from '../geometry/vec';
import type { Station } from '../project/wall-line';
import type { Wall } from '../project/schema';
import { DUST, NEAR } from '../units/tolerance';
import type { WallSide } from './wall-types';

/** How a side of a curved wall differs from the chords it is drawn by. */
export interface Bow {
  /** Length of its true arc over that of its chords. */
  stretch: number;
  /** What the room at this side has more than its outline of chords encloses, m²; less where the wall curves into it. */
  area: number;
}

/** A side that is straight. */
export const STRAIGHT: Bow = { stretch: 1, area: 0 };

/** Whether a side runs in one line, whatever bends its upper edge has: under a ridge its path has a point more. */
export const isStraight = ({ path, from, to }: Pick<WallSide, 'path' | 'from' | 'to'>): boolean =>
  path.every(({ p }) => Math.abs(cross(sub(to, from), sub(p, from))) <= NEAR * Math.max(1, distance(from, to)));

/** Centre of the circle through three points. */
function centreOf(a: Vec2, b: Vec2, c: Vec2): Vec2 {
  const [u, v] = [sub(b, a), sub(c, a)];
  const d = 2 * cross(u, v);
  const [uu, vv] = [dot(u, u), dot(v, v)];
  return { x: a.x + (v.y * uu - u.y * vv) / d, y: a.y + (u.x * vv - v.x * uu) / d };
}

/**
 * What the true arc of a side adds to its chords: over each chord the sector of the face’s own circle less the triangle under the
 * chord. Exact for whole chords; where a junction cuts one short, off by less than the square of its sagitta.
 *
 * @param path the reference line of the wall, its points on its arc; @param extents how far its faces lie from that line, metres
 */
export function bowOf(wall: Wall, path: readonly Station[], extents: { left: number; right: number }, side: Pick<WallSide, 'path' | 'side'>): Bow {
  if (Math.abs(wall.bulge) < NEAR || path.length < 3) return STRAIGHT;
  const [a, b, c] = [path[0].p, path[path.length >> 1].p, path[path.length - 1].p];
  if (Math.abs(cross(sub(b, a), sub(c, a))) < DUST) return STRAIGHT;
  const centre = centreOf(a, b, c);
  const atLeft = wall.bulge > 0;
  const out = side.side === 'left' ? extents.left : extents.right;
  // The face on the centre's side of the wall has the smaller circle.
  const inside = atLeft === (side.side === 'left');
  const r = distance(centre, a) + (inside ? -out : out);
  let [area, chords, arcs] = [0, 0, 0];
  for (let i = 1; i < side.path.length; i++) {
    const [p, q] = [sub(side.path[i - 1].p, centre), sub(side.path[i].p, centre)];
    const turn = cross(p, q);
    const angle = Math.abs(Math.atan2(turn, dot(p, q)));
    area += (r * r * angle - Math.abs(turn)) / 2;
    chords += distance(p, q);
    arcs += r * angle;
  }
  return chords < NEAR || r <= 0 ? STRAIGHT : { stretch: arcs / chords, area: inside ? area : -area };
}
