import { creases, roofHeight } from '../project/roofs';
import { wallProfile, wallTopAt } from '../project/wall-line';

import type { UpperEdge, WallInputs } from './wall-types';

/** The upper edge of a wall: level, raking, or the underside of the roofs above. */
export function upperEdge({ wall, level, path, roofs }: WallInputs): UpperEdge {
  const length = path[path.length - 1].s;
  if (wall.top.kind === 'roof' && roofs.length)
    return {
      at: (p) => roofHeight(roofs, p) ?? level.height,
      alongWall: false,
      folds: [],
      bends: (line) => line.slice(1).flatMap((b, i) => creases(roofs, line[i].p, b.p).map((t) => line[i].s + (b.s - line[i].s) * t)),
      roofs,
    };
  const folds = wallProfile(wall, level)
    .slice(1, -1)
    .map((q) => q.t * length);
  return { at: (_, s) => wallTopAt(wall, level, s / length), alongWall: true, folds, bends: () => folds, roofs: [] };
}
