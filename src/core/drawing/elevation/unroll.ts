import type { DressedFace } from '../../shell/dress/dressed';
import { wallsRound } from '../../shell/dress/faces';

/** A face of a wall as it stands in an elevation: where its left end lies, metres. */
export interface Placed {
  face: DressedFace;
  x: number;
}

/** Between unrolled walls of a room, metres. */
const GAP = 0.35;

/** Faces side by side in the order one sees them turning round in the room, the first one in hand; or one alone. */
export function unroll(faces: readonly DressedFace[], first: string): Placed[] {
  const bySide = new Map(faces.map((f) => [f.side!, f]));
  const ordered = wallsRound([...bySide.keys()]).flatMap((c) => c.chain.map((s) => bySide.get(s)!));
  const at = Math.max(
    0,
    ordered.findIndex((f) => f.side!.wall === first),
  );
  let x = 0;
  return [...ordered.slice(at), ...ordered.slice(0, at)].map((face) => {
    const put = { face, x };
    x += face.side!.length + GAP;
    return put;
  });
}

/** The face a place along the drawing lies on, or the nearest one. */
export function placedAt(faces: readonly Placed[], x: number): Placed {
  let best = faces[0];
  let least = Infinity;
  for (const placed of faces) {
    const off = Math.max(0, placed.x - x, x - placed.x - placed.face.side!.length);
    if (off < least) {
      least = off;
      best = placed;
    }
  }
  return best;
}
