import type { Model } from './model';
import { segmentDistance } from '../geometry/vec';

/** The wall each hung piece (mirror, curtain) hangs on: the nearest one within reach of its back. */
export function hangers(model: Model): Map<string, string> {
  const hosts = new Map<string, string>();
  for (const { id, piece, item } of model.pieces) {
    if (item?.mount !== 'wall' && item?.mount !== 'window') continue;
    let least = piece.size.depth + 0.15;
    for (const { wall, sides } of model.shell.walls.values()) {
      if (wall.level !== piece.level) continue;
      for (const { from, to } of sides) {
        const off = segmentDistance(piece, from, to);
        if (off >= least) continue;
        least = off;
        hosts.set(id, wall.id);
      }
    }
  }
  return hosts;
}
