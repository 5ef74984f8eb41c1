import { distance, lerp, segmentDistance, type Vec2 } from '../../geometry/vec';
import type { RoofShape } from '../../project/roofs';
import { HAIR } from '../../units/tolerance';

/** Where two planes of a roof meet, seen from above: ridges, hips and valleys, and where a slope breaks. Metres. */
export function roofFolds({ upper, outlines }: Pick<RoofShape, 'upper' | 'outlines'>): [Vec2, Vec2][] {
  const borders = outlines.flatMap(({ outer, holes }) => [outer, ...holes]).flatMap((ring) => ring.map((p, i) => [p, ring[(i + 1) % ring.length]] as const));
  const found = new Map<string, [Vec2, Vec2]>();
  const word = (p: Vec2): string => `${Math.round(p.x * 1000)} ${Math.round(p.y * 1000)}`;
  for (const { ring, plane } of upper) {
    // What stands upright is seen as a line that its neighbours draw.
    if (!plane) continue;
    ring.forEach((p, i) => {
      const q = ring[(i + 1) % ring.length];
      if (distance(p, q) < HAIR * 10) return;
      // The edge of the overhang and the verges of gables are the outline itself.
      const middle = lerp(p, q, 0.5);
      if (borders.some(([a, b]) => segmentDistance(middle, a, b) < HAIR * 10)) return;
      const key = [word(p), word(q)].sort().join(' ');
      if (!found.has(key))
        found.set(key, [
          { x: p.x, y: p.y },
          { x: q.x, y: q.y },
        ]);
    });
  }
  return [...found.values()];
}
