import { z } from 'zod';
import { Coordinate, Id, Picture, Piece, Viewpoint } from '../schema';

import { define, editable, need, refuseTaken } from './define';

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
    },
  }),
  'piece.set': define({
    title: 'Change piece',
    args: z.object({ piece: Id, set: editable(Piece, ['id', 'maker', 'finishes']) }),
    apply(draft, { piece, set }) {
      const target = need(draft.pieces, piece, 'piece');
      Object.assign(target, set);
      need(draft.levels, target.level, 'level');
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
      for (const id of pieces) {
        const piece = need(draft.pieces, id, 'piece');
        piece.x += by.x;
        piece.y += by.y;
        piece.rotation += turn;
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
