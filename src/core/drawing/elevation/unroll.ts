import type { Model } from '../../model/model';
import type { Side } from '../../project/schema';
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

/** What an elevation looks at: one side of a wall; where a wall passes several rooms, what one of them sees of it. */
export interface Elevation {
  wall: string;
  side: Side;
  room?: string | null;
}

/**
 * The faces of an elevation side by side.
 *
 * @param round all walls of the room instead of the one
 */
export function elevationFaces({ shell }: Pick<Model, 'shell'>, { wall, side, room }: Elevation, round: boolean): Placed[] {
  const level = shell.levels.find((l) => l.walls.some((w) => w.id === wall));
  const all = level?.faces.filter((f) => f.side?.wall === wall && f.side.side === side) ?? [];
  // A room that is no longer beside it is not asked for any more.
  const seen = room === undefined ? [] : all.filter((f) => f.room === room);
  const own = seen.length ? seen : all;
  const within = own[0]?.room ?? null;
  return unroll(round && within !== null ? level!.faces.filter((f) => f.kind === 'wall' && f.room === within) : own, wall);
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
