import { add, cross, dot, left, rotate, scale, sub, unit, type Vec2 } from '../geometry/vec';
import { DEFAULTS, type Stair } from '../project/schema';
import type { DerivedLevel } from './model';

/** How far from a wall a stair still goes against it, metres. */
const REACH = 0.3;
/** Play between a string and the wall, metres. */
const PLAY = 0.005;

/**
 * A stair brought against the wall beside its first flight, where one runs along it within reach; there it has no guard.
 *
 * @returns the stair as it is, and no side, where no wall is near
 */
export function againstWall(stair: Stair, level: Pick<DerivedLevel, 'walls'>, reach = REACH): { stair: Stair; side: 'left' | 'right' | null } {
  const d = rotate({ x: 0, y: 1 }, stair.rotation);
  const out = stair.width / 2 + (stair.build === 'closed' ? DEFAULTS.stair.string : 0) + PLAY;
  let best: { shift: Vec2; by: number; side: 'left' | 'right' } | null = null;
  for (const wall of level.walls) {
    if (wall.wall.kind !== 'wall') continue;
    for (const { from, to } of wall.sides) {
      const e = sub(to, from);
      if (Math.hypot(e.x, e.y) < 0.3 || Math.abs(cross(d, unit(e))) > 0.02) continue;
      // It has to run beside the flight, not before or behind it.
      const along = [from, to].map((p) => dot(sub(p, stair), d));
      if (Math.max(...along) < 0.5 || Math.min(...along) > 1.5) continue;
      for (const side of ['left', 'right'] as const) {
        const n = scale(left(d), side === 'left' ? 1 : -1);
        const away = dot(sub(from, stair), n);
        const by = away - out;
        if (away < 0 || Math.abs(by) > reach || (best && Math.abs(by) >= Math.abs(best.by))) continue;
        best = { shift: scale(n, by), by, side };
      }
    }
  }
  if (!best) return { stair, side: null };
  const p = add(stair, best.shift);
  const round = (v: number): number => Math.round(v * 1e6) / 1e6;
  return { stair: { ...stair, x: round(p.x), y: round(p.y), [best.side]: null }, side: best.side };
}
