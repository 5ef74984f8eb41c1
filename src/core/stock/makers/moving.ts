import type { Moving } from '../forms/boards';
import type { Made } from '../types';

/** Doors and drawers as parts of a piece: each moves with all that hangs on it. */
export const movingParts = (moving: readonly Moving[], names = { wood: 'fronts', glass: 'glass', metal: 'handles', box: 'drawers' }): Made[] =>
  moving.flatMap(({ joint, ...meshes }) => (['wood', 'glass', 'metal', 'box'] as const).map((k) => ({ part: names[k], mesh: meshes[k], joint })));
