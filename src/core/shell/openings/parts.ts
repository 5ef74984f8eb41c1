import { architraves } from './architrave';
import { doorParts } from './door';
import type { OpeningParts, OpeningSpace } from './space';
import { windowParts } from './window';

/**
 * Frame, leaves, panes and fittings of an opening as solids. Local axes: x along the wall from the centre of the
 * opening, y to the left of the wall's direction from the middle of the wall, z up from the floor of the level. What opens
 * by a joint stands shut; what folds or tips in another way stands as far open as the opening says.
 */
export function openingParts(space: OpeningSpace): OpeningParts[] {
  const { opening, thickness, inside, profile } = space;
  if (opening.kind === 'door') return doorParts(space);
  if (opening.kind === 'window') return windowParts(space);
  return architraves(opening, thickness, inside, profile);
}
