import { rectangle, type Region } from '../../geometry/region';
import type { Opening, Side } from '../../project/schema';
import { architraveOutline, architraveSides } from './architrave';
import { JOINERY, SILL_HORN, hasSillBoard } from './sizes';

/**
 * What the joinery of an opening covers of a face of its wall: what is laid on the wall stops at its mouldings and its sill
 * board. The opening itself is in it. x along the wall from its middle, y above the floor of the level, metres.
 *
 * @param inside the side of the wall that is indoors
 */
export function surroundOf(opening: Opening, thickness: number, inside: Side, side: Side): Region[] {
  const { width, sill } = opening;
  const covered = architraveSides(opening, thickness, inside).includes(side) ? architraveOutline(opening) : [];
  if (side !== inside || !hasSillBoard(opening)) return covered;
  const half = width / 2 + SILL_HORN;
  return [...covered, { outer: rectangle(-half, sill - JOINERY.sillThickness, half, sill), holes: [] }];
}
