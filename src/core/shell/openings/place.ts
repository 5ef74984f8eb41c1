import type { Opening, Side } from '../../project/schema';

/**
 * How far the middle of a frame lies to the left of the middle of its wall, metres: at its reveal behind the outer face,
 * or half way, and never outside the wall. A leaf that hangs in a lining stands in the middle.
 *
 * @param inside the side of the wall that is indoors
 */
export function framePlace(opening: Pick<Opening, 'kind' | 'reveal' | 'frame'>, thickness: number, inside: Side): number {
  if (opening.kind !== 'window' || opening.reveal === 'equal') return 0;
  const most = Math.max(0, thickness / 2 - opening.frame.depth / 2);
  const out = Math.max(-most, Math.min(most, thickness / 2 - opening.reveal - opening.frame.depth / 2));
  return inside === 'left' ? -out : out;
}
