import { apart, boxOf, inBox, type Box } from '../geometry/polygon';
import type { Ring } from '../geometry/region';
import type { Vec2 } from '../geometry/vec';
import type { RoofPlane, RoofShape } from '../project/roofs';
import { DUST } from '../units/tolerance';

/** What of some roofs lies over a place of the plan, and how it looks there. */
export interface RoofsNear {
  /** The roofs with the planes that come near; beyond the box they may be those of an earlier time. */
  roofs: RoofShape[];
  /** Their outlines and planes within the box. */
  seen: { outlines: Ring[]; planes: { plane: RoofPlane['plane']; ring: Ring }[] }[];
}

/** Room round what a roof is asked for, metres. */
const ROUND = 0.6;

/** What of some roofs lies over and round some points. */
export function roofsNear(roofs: readonly RoofShape[], points: readonly Vec2[]): RoofsNear {
  const box: Box = boxOf(points, ROUND);
  const near: RoofsNear = { roofs: [], seen: [] };
  for (const shape of roofs) {
    const outlines = shape.outlines.flatMap((o) => [o.outer, ...o.holes]).map((ring) => inBox(ring, box));
    if (outlines.every((ring) => ring.length < 3)) continue;
    const under = shape.under.filter((p) => !apart(box, boxOf(p.ring)));
    near.roofs.push({ ...shape, under });
    near.seen.push({ outlines, planes: under.map(({ plane, ring }) => ({ plane, ring: inBox(ring, box) })) });
  }
  return near;
}

const sameRing = (a: Ring, b: Ring): boolean => a.length === b.length && a.every((p, i) => Math.abs(p.x - b[i].x) < DUST && Math.abs(p.y - b[i].y) < DUST);

/** Whether roofs look the same over a place. */
export const sameNear = (a: RoofsNear, b: RoofsNear): boolean =>
  a.seen.length === b.seen.length &&
  a.seen.every(({ outlines, planes }, i) => {
    const other = b.seen[i];
    return (
      a.roofs[i].roof.form === b.roofs[i].roof.form &&
      outlines.length === other.outlines.length &&
      outlines.every((ring, k) => sameRing(ring, other.outlines[k])) &&
      planes.length === other.planes.length &&
      planes.every(({ plane, ring }, k) => {
        const q = other.planes[k];
        if (plane === null || q.plane === null) return plane === q.plane && sameRing(ring, q.ring);
        return (
          Math.abs(plane.gx - q.plane.gx) < DUST && Math.abs(plane.gy - q.plane.gy) < DUST && Math.abs(plane.c - q.plane.c) < DUST && sameRing(ring, q.ring)
        );
      })
    );
  });
