import type { Draft } from 'immer';
import type { Piece, Project } from './schema';
import { stateOf } from './topology';

/** Linked copies: pieces of one make. What is changed of one is changed of all; where each stands, and whether it is lit, is its own. */

/** Ids of the other pieces that are linked with one. */
export function linkedWith(pieces: Project['pieces'], id: string): string[] {
  const own = pieces[id];
  return own?.linked ? Object.values(pieces).flatMap((p) => (p.linked === own.linked && p.id !== id ? [p.id] : [])) : [];
}

/** What linked copies have in common. */
const shared = ({ maker, size, traits, finishes }: Piece): Pick<Piece, 'maker' | 'size' | 'traits' | 'finishes'> =>
  structuredClone({ maker, size, traits, finishes });

/** A piece of the make of another, where it stands. */
export const ofMake = (piece: Piece, like: Piece): Piece => ({
  ...piece,
  ...shared(like),
  // What gives light gives the same; each is switched by itself.
  lamp: like.lamp && { ...like.lamp, on: piece.lamp?.on ?? like.lamp.on },
});

/** Brings what is linked with a piece to its make. @returns each as it was and as it is */
export function share(draft: Draft<Project>, id: string): [before: Piece, after: Piece][] {
  const pieces = stateOf(draft.pieces) as Project['pieces'];
  return linkedWith(pieces, id).map((other) => {
    const before = pieces[other];
    const after = ofMake(before, pieces[id]);
    draft.pieces[other] = after;
    return [before, after];
  });
}
