import { rotate, type Vec2 } from '../geometry/vec';
import type { Piece, Project } from './schema';
import { stateOf } from './topology';

/** What stands on what: a piece on another goes with it. */

/** Pieces that stand on some pieces, on what stands on them, and so on; without those themselves. */
export function standingOn(pieces: Project['pieces'], ids: readonly string[]): string[] {
  const own = new Set(ids);
  const carried: string[] = [];
  for (let found = true; found;) {
    found = false;
    for (const piece of Object.values(pieces))
      if (piece.on !== null && own.has(piece.on) && !own.has(piece.id)) {
        own.add(piece.id);
        carried.push(piece.id);
        found = true;
      }
  }
  return carried;
}

/** Where a piece comes to stand when what it stands on moves from one place to another: it turns about it and rises with its top. */
export function carriedAlong(
  piece: Pick<Piece, 'x' | 'y' | 'rotation' | 'elevation'>,
  from: Piece,
  to: Piece,
): { x: number; y: number; rotation: number; elevation: number } {
  const turn = to.rotation - from.rotation;
  const at: Vec2 = rotate({ x: piece.x - from.x, y: piece.y - from.y }, turn);
  return {
    x: to.x + at.x,
    y: to.y + at.y,
    rotation: piece.rotation + turn,
    elevation: piece.elevation + (to.elevation + to.size.height - from.elevation - from.size.height),
  };
}

/** Copies of pieces as they stand on one another: what stood on one that was copied too stands on its copy. @param copies by the id of what each is a copy of */
export const onCopies = (copies: ReadonlyMap<string, Piece>): Piece[] =>
  [...copies.values()].map((copy) => ({ ...copy, on: copy.on === null ? null : (copies.get(copy.on)?.id ?? copy.on) }));

/** Lets what stood on pieces that are gone stay where it was, on nothing, and units that kept to what is gone stand beside the one before them. */
export function letGo({ pieces, cabinets }: Pick<Project, 'pieces' | 'cabinets'>, gone: ReadonlySet<string>): void {
  for (const { id, on } of Object.values(stateOf(pieces))) if (on !== null && gone.has(on)) pieces[id].on = null;
  for (const { id, middle, like } of Object.values(stateOf(cabinets))) {
    if (middle && middle.of !== 'leg' && gone.has(middle.id)) cabinets[id].middle = null;
    if (like !== null && gone.has(like)) cabinets[id].like = null;
  }
}

/** Whether a piece would stand on itself. */
export function inCircle(pieces: Project['pieces'], id: string, on: string): boolean {
  const seen = new Set([id]);
  for (let at: string | null = on; at !== null; at = pieces[at]?.on ?? null) {
    if (seen.has(at)) return true;
    seen.add(at);
  }
  return false;
}
