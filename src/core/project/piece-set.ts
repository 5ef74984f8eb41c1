import { z } from 'zod';
import type { Vec2 } from '../geometry/vec';
import { footprintOf } from './footprint';
import { Finish, Piece, type Project } from './schema';
import { onCopies, standingOn } from './standing-on';

/** Pieces kept together, told so that they fit any project: where they stand is from the middle of the set. */
export const PieceSet = z.object({
  pieces: z.array(Piece).min(1).max(200),
  /** Finishes of one's own that they need. */
  finishes: z.array(Finish).max(500),
});
export type PieceSet = z.infer<typeof PieceSet>;

/** The middle of the footprints of pieces, in the plan. */
function middleOf(pieces: readonly Piece[]): Vec2 {
  const corners = pieces.flatMap((p) => footprintOf(p, p.size));
  const mid = (axis: 'x' | 'y'): number => (Math.min(...corners.map((c) => c[axis])) + Math.max(...corners.map((c) => c[axis]))) / 2;
  return { x: mid('x'), y: mid('y') };
}

/** Some pieces of a project as a set, with what stands on them and the finishes of one's own they have. */
export function pieceSetOf(project: Project, ids: readonly string[]): PieceSet {
  const all = [...new Set([...ids, ...standingOn(project.pieces, ids)])].map((id) => project.pieces[id]).filter(Boolean);
  const middle = middleOf(all);
  const within = new Set(all.map((p) => p.id));
  const used = new Set(all.flatMap((p) => Object.values(p.finishes)));
  return {
    pieces: all.map((p) => ({ ...structuredClone(p), x: p.x - middle.x, y: p.y - middle.y, on: p.on !== null && within.has(p.on) ? p.on : null, hangs: null })),
    finishes: Object.values(project.finishes).filter((f) => used.has(f.id)),
  };
}

/** A set as it stands in a project: its pieces with ids of their own, and the finishes the project lacks. @param at middle of the set in the plan */
export function placedSet(set: PieceSet, project: Project, level: string, at: Vec2, newId: () => string): { pieces: Piece[]; finishes: Finish[] } {
  const links = new Map<string, string>();
  const copies = new Map(
    set.pieces.map((p) => {
      const id = newId();
      // Copies that are linked are linked with one another, not with those of another project.
      if (p.linked !== null && !links.has(p.linked)) links.set(p.linked, `link.${id}`);
      return [p.id, { ...structuredClone(p), id, level, x: p.x + at.x, y: p.y + at.y, linked: p.linked === null ? null : links.get(p.linked)! }];
    }),
  );
  return { pieces: onCopies(copies), finishes: set.finishes.filter((f) => !Object.hasOwn(project.finishes, f.id)) };
}

/** The set a piece is kept together in; null: none. */
export const setWith = (project: Pick<Project, 'contents'>, id: string): Project['contents']['groups'][string] | null =>
  Object.values(project.contents.groups).find((g) => g.together && g.members.includes(id)) ?? null;
