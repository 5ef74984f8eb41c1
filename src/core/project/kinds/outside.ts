import { Fence, GroundArea } from '../schema/outside';
import { BASINS, EDGE, FENCES, GROUNDS } from './first-finishes';
import { kind } from './kind';

/** What lies and stands outside, on no level. */
export const outsideKinds = {
  grounds: kind({
    schema: GroundArea,
    word: 'ground',
    status: true,
    alike: ({ kind: own }) => ({ key: own, words: 'areas' }),
    parts: (area) => {
      const water = area.kind === 'water' || area.kind === 'pool';
      const surface = area.finishes.surface ?? GROUNDS[area.kind];
      return [
        { part: 'surface', role: 'floor', finish: GROUNDS[area.kind] },
        // Banks go on as the area does, unless something holds them.
        {
          part: 'sides',
          role: 'floor',
          finish: area.kind === 'water' || area.kind === 'pool' ? BASINS[area.kind] : area.edge === 'retaining' ? EDGE : surface,
        },
        ...(area.edge === 'none' && !water ? [] : [{ part: 'edge', role: 'floor', finish: EDGE } as const]),
      ];
    },
    put: { title: 'Set area of the ground' },
  }),
  fences: kind({
    schema: Fence,
    word: 'fence',
    status: true,
    alike: ({ kind: own }) => ({ key: own, words: 'fences' }),
    parts: ({ kind: own }) => [{ part: 'body', role: own === 'hedge' ? null : 'joinery', finish: FENCES[own] }],
    put: { title: 'Set fence' },
  }),
};
