import { current, type Draft } from 'immer';
import { z } from 'zod';
import { DomainError } from '../errors';
import { Coordinate, Id, Picture, Piece, Viewpoint, type Project } from '../schema';
import { carriedAlong, inCircle, standingOn } from '../standing-on';
import { stateOf } from '../topology';
import { define, editable, need, refuseTaken } from './define';

/** Refuses a piece that would stand on itself, or on nothing. @throws DomainError `piece.circle` */
function refuseCircle(draft: Draft<Project>, id: string, on: string | null): void {
  if (on === null) return;
  need(draft.pieces, on, 'piece');
  if (inCircle(stateOf(draft.pieces) as Project['pieces'], id, on))
    throw new DomainError('piece.circle', 'The piece was not put there: it would stand on itself.', [id]);
}

/** Takes what stands on a piece along with it. */
function carry(draft: Draft<Project>, before: Piece, after: Piece): void {
  const same = (['x', 'y', 'rotation', 'elevation', 'level'] as const).every((key) => before[key] === after[key]) && before.size.height === after.size.height;
  if (same) return;
  for (const id of standingOn(stateOf(draft.pieces) as Project['pieces'], [after.id]))
    Object.assign(draft.pieces[id], carriedAlong(draft.pieces[id], before, after), { level: after.level });
}

/** Edits of pieces, viewpoints and pictures. */
export const pieceCommands = {
  'piece.add': define({
    title: 'Place piece',
    args: z.object({ pieces: z.array(Piece).min(1).max(500) }),
    apply(draft, { pieces }) {
      for (const piece of pieces) {
        refuseTaken(draft.pieces, piece.id);
        need(draft.levels, piece.level, 'level');
        draft.pieces[piece.id] = piece;
      }
      for (const { id, on } of pieces) refuseCircle(draft, id, on);
    },
  }),
  'piece.set': define({
    title: 'Change piece',
    args: z.object({ piece: Id, set: editable(Piece, ['id', 'maker', 'finishes']) }),
    apply(draft, { piece, set }) {
      const target = need(draft.pieces, piece, 'piece');
      const before = { ...(current(target) as Piece) };
      Object.assign(target, set);
      need(draft.levels, target.level, 'level');
      refuseCircle(draft, piece, target.on);
      carry(draft, before, current(target) as Piece);
    },
  }),
  'pieces.move': define({
    title: 'Move pieces',
    args: z.object({
      pieces: z.array(Id).min(1).max(500),
      by: z.object({ x: Coordinate, y: Coordinate }),
      turn: Piece.shape.rotation.describe('radians each turns about its own middle'),
    }),
    apply(draft, { pieces, by, turn }) {
      // What stands on one that moves goes with it, once, whether it was chosen too or not.
      const known = stateOf(draft.pieces) as Project['pieces'];
      const along = new Set(pieces.flatMap((id) => standingOn(known, [id])));
      for (const id of pieces) {
        if (along.has(id)) continue;
        const piece = need(draft.pieces, id, 'piece');
        const before = { ...(current(piece) as Piece) };
        piece.x += by.x;
        piece.y += by.y;
        piece.rotation += turn;
        carry(draft, before, current(piece) as Piece);
      }
    },
  }),
  'viewpoint.add': define({
    title: 'Keep viewpoint',
    args: Viewpoint,
    apply(draft, viewpoint) {
      refuseTaken(draft.viewpoints, viewpoint.id);
      draft.viewpoints[viewpoint.id] = viewpoint;
    },
  }),
  'viewpoint.set': define({
    title: 'Change viewpoint',
    args: z.object({ viewpoint: Id, set: editable(Viewpoint, ['id']) }),
    apply: (draft, { viewpoint, set }) => void Object.assign(need(draft.viewpoints, viewpoint, 'viewpoint'), set),
  }),
  'picture.add': define({
    title: 'Keep picture',
    args: Picture,
    apply(draft, picture) {
      refuseTaken(draft.pictures, picture.id);
      draft.pictures[picture.id] = picture;
    },
  }),
  'picture.set': define({
    title: 'Change picture',
    args: z.object({
      picture: Id,
      set: editable(Picture, ['id', 'viewpoint', 'width', 'height', 'samples', 'scheme', 'made', 'shot', 'moment', 'noise', 'state']),
    }),
    apply: (draft, { picture, set }) => void Object.assign(need(draft.pictures, picture, 'picture'), set),
  }),
};
