import type { z } from 'zod';
import { Opening } from '../schema/openings';
import { Rooflight } from '../schema/rooms';
import { BARE, CABINETS } from './first-finishes';
import { kind, onLevel, type PartKind } from './kind';

/** The parts of doors, windows and rooflights, each with its own finish. */
export const OPENING_PARTS = ['leaf', 'frame', 'glass', 'sill', 'architrave', 'handle', 'lining'] as const;
export type OpeningPart = (typeof OPENING_PARTS)[number];

const PARTS: Record<OpeningPart, PartKind> = {
  leaf: { part: 'leaf', role: 'joinery', finish: 'paint.skein' },
  frame: { part: 'frame', role: 'joinery', finish: 'paint.skein' },
  glass: { part: 'glass', role: 'accent', finish: 'glass.clear' },
  sill: { part: 'sill', role: 'joinery', finish: 'paint.skein' },
  architrave: { part: 'architrave', role: 'joinery', finish: 'paint.skein' },
  handle: { part: 'handle', role: 'metal', finish: 'metal.brass-brushed' },
  lining: { part: 'lining', role: 'wall', finish: CABINETS.splashback },
};

/** The floor of a way that leads outside, as far as the middle of its wall. */
const THRESHOLD: PartKind = { part: 'threshold', role: 'floor', finish: BARE.outside };

const WORDS = { door: 'doors', window: 'windows', passage: 'passages', niche: 'niches' } as const;

/** The parts an opening of a kind has. */
export function openingParts(opening: Pick<z.infer<typeof Opening>, 'kind' | 'form' | 'glazed' | 'fanlight' | 'sidelights' | 'finishes'>): OpeningPart[] {
  switch (opening.kind) {
    case 'door': {
      const glass = opening.glazed > 0 || opening.fanlight > 0 || opening.sidelights.start + opening.sidelights.end > 0;
      return ['leaf', 'frame', 'architrave', ...(glass ? (['glass'] as const) : []), 'handle'];
    }
    case 'window':
      return opening.form === 'corner' ? ['frame', 'glass', 'sill'] : ['frame', 'glass', 'sill', 'architrave', 'handle'];
    case 'passage':
      return ['architrave'];
    case 'niche':
      // One that is lined has been given its finish; else its wall goes on in it.
      return Object.hasOwn(opening.finishes, 'lining') ? ['lining'] : [];
  }
}

/** What fills holes in walls and roofs. */
export const openingKinds = {
  openings: kind({
    schema: Opening,
    word: 'opening',
    status: true,
    parts: (opening) => [...openingParts(opening).map((part) => PARTS[part]), ...(opening.sill > 0 || opening.kind === 'niche' ? [] : [THRESHOLD])],
    alike: ({ kind: own }) => ({ key: own, words: WORDS[own] }),
    refers: ({ wall }) => [{ to: 'walls', id: wall, as: 'stands in a wall', gone: 'along' }],
  }),
  rooflights: kind({
    schema: Rooflight,
    word: 'rooflight',
    onLevel: true,
    status: true,
    parts: () => [PARTS.frame, PARTS.glass],
    refers: ({ level }) => [onLevel(level)],
    put: { title: 'Set rooflight', shell: true },
  }),
};
