import { type Vec2 } from '../geometry/vec';
import { creases, roofHeight, type RoofShape } from '../project/roofs';
import { wallProfile, wallTopAt, type Station } from '../project/wall-line';

import type { WallInputs } from './walls';

/** The upper edge of a wall. */
export interface UpperEdge {
  /** Height at a point of its footprint, whose place along the wall is `s`, above the floor of the level. */
  at(p: Vec2, s: number): number;
  /** Whether the height follows from the place along the wall alone. */
  alongWall: boolean;
  /** Where it folds square across the wall, as distances along it. */
  folds: number[];
  /** Where it bends above a line of the plan, as distances along the wall. */
  bends(line: readonly Station[]): number[];
  /** The planes it lies in, where these are not square to the wall. */
  roofs: readonly RoofShape[];
}

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
