import { Finish } from '../schema/finishes';
import { Board, Picture, Piece, Viewpoint } from '../schema/presentation';
import { Moulding, Patch, Profile, Scheme } from '../schema/surfaces';
import { kind, onLevel } from './kind';

/** What stands in rooms, lies on faces, and shows it all. */
export const furnishingKinds = {
  pieces: kind({
    schema: Piece,
    word: 'piece',
    onLevel: true,
    status: true,
    openParts: true,
    alike: ({ maker }) => ({ key: maker, words: 'alike' }),
    refers: ({ level, on, hangs }) => [
      onLevel(level),
      ...(on === null ? [] : [{ to: 'pieces', id: on, as: 'stands on a piece', gone: 'stays' } as const]),
      ...(hangs === null ? [] : [{ to: 'openings', id: hangs.opening, as: 'hangs at an opening', gone: 'along' } as const]),
    ],
  }),
  viewpoints: kind({ schema: Viewpoint, word: 'viewpoint' }),
  pictures: kind({
    schema: Picture,
    word: 'picture',
    refers: ({ viewpoint }) => (viewpoint === null ? [] : [{ to: 'viewpoints', id: viewpoint, as: 'belongs to a viewpoint', gone: 'stays' }]),
  }),
  boards: kind({ schema: Board, word: 'board' }),
  finishes: kind({ schema: Finish, word: 'finish' }),
  patches: kind({ schema: Patch, word: 'patch' }),
  mouldings: kind({ schema: Moulding, word: 'moulding' }),
  profiles: kind({ schema: Profile, word: 'section' }),
  schemes: kind({ schema: Scheme, word: 'scheme' }),
};
