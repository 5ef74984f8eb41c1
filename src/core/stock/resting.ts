import type { Vec2 } from '../geometry/vec';
import { HAIR } from '../units/tolerance';
import type { DerivedPiece } from './stock';

/** What something small comes to rest on. */
export interface Rest {
  /** The piece it stands on. */
  piece: string;
  /** Height of that surface above the floor of the level, metres. */
  height: number;
}

/** How far a side may lean and still carry something, as the upward share of its normal. */
const LEVEL = 0.85;
/** How high things are put at most: over that no hand puts a lamp, metres. */
const REACH = 2.2;

/** Heights at which a plumb line through a point meets what of a piece looks up, above the floor of its level. */
function surfacesUnder({ piece, parts }: DerivedPiece, p: Vec2): number[] {
  // The point in the axes of the piece.
  const [c, s] = [Math.cos(piece.rotation), Math.sin(piece.rotation)];
  const [dx, dy] = [p.x - piece.x, p.y - piece.y];
  const [x, y] = [c * dx + s * dy, c * dy - s * dx];
  const slack = 0.08;
  if (Math.abs(x) > piece.size.width / 2 + slack || Math.abs(y) > piece.size.depth / 2 + slack) return [];
  const out: number[] = [];
  for (const { mesh, part } of parts) {
    const { positions: q, indices } = mesh;
    // Drawers that stand open are no place for a lamp.
    if (piece.open && part === 'drawers') continue;
    for (let k = 0; k < indices.length; k += 3) {
      const [i, j, l] = [indices[k] * 3, indices[k + 1] * 3, indices[k + 2] * 3];
      const [ax, ay, bx, by, ex, ey] = [q[i], q[i + 1], q[j], q[j + 1], q[l], q[l + 1]];
      const area = (bx - ax) * (ey - ay) - (ex - ax) * (by - ay);
      if (area <= 0) continue;
      const u = ((bx - x) * (ey - y) - (ex - x) * (by - y)) / area;
      const v = ((ex - x) * (ay - y) - (ax - x) * (ey - y)) / area;
      const w = 1 - u - v;
      if (u < -HAIR || v < -HAIR || w < -HAIR) continue;
      const [az, bz, ez] = [q[i + 2], q[j + 2], q[l + 2]];
      const nx = (by - ay) * (ez - az) - (bz - az) * (ey - ay);
      const ny = (bz - az) * (ex - ax) - (bx - ax) * (ez - az);
      if (area / Math.hypot(nx, ny, area) < LEVEL) continue;
      out.push(piece.elevation + u * az + v * bz + w * ez);
    }
  }
  return out;
}

/**
 * What lies under a point of a level, to put something on: the highest surface that looks up, or the nearest one to where
 * one points in the model. Null: the floor.
 *
 * @param aim height one points at above the floor of the level, metres, where that is known
 * @param except pieces that do not count: itself, and what stands on it
 */
export function restUnder(pieces: readonly DerivedPiece[], level: string, p: Vec2, except: ReadonlySet<string>, aim?: number): Rest | null {
  let best: Rest | null = null;
  for (const derived of pieces) {
    const { piece, item } = derived;
    if (piece.level !== level || except.has(piece.id) || item?.mount === 'ceiling' || item?.lies) continue;
    for (const height of surfacesUnder(derived, p)) {
      if (height > REACH || height < HAIR) continue;
      const better = !best || (aim === undefined ? height > best.height : Math.abs(height - aim) < Math.abs(best.height - aim));
      if (better) best = { piece: piece.id, height };
    }
  }
  // One points at the floor beside it, or below it.
  return best && aim !== undefined && aim < best.height - 0.12 && aim < 0.05 ? null : best;
}
