import { DUST } from '../../units/tolerance';

/** Cloth for what hangs at windows: how wide and long it is made, and how much is bought (trade figures). Lengths in metres. */

/** How the top of a curtain is gathered. */
export const HEADINGS = ['eyelet', 'pencil pleat', 'pinch pleat', 'wave', 'tab'] as const;
export type Heading = (typeof HEADINGS)[number];

/** Width of cloth for a width it covers. */
export const FULLNESS: Readonly<Record<Heading, number>> = { eyelet: 1.8, 'pencil pleat': 2, 'pinch pleat': 2.35, wave: 1.8, tab: 1.5 };

/** What is turned in at the top and the bottom of a drop. */
const HEADING = 0.15;
const HEM = 0.18;

/** What a curtain needs to be told for its cloth. */
export interface ClothAsked {
  /** What all curtains of the window cover together, and how long they hang. */
  width: number;
  drop: number;
  /** Width of cloth for a width it covers. */
  fullness: number;
  /** How many curtains there are: a pair, or a single one. */
  curtains: 1 | 2;
  /** Width of the cloth as it is sold, and how far its pattern repeats along it; 0: plain. */
  bolt: number;
  repeat: number;
}

/** The cloth of a window. */
export interface Cloth {
  /** Widths of cloth sewn side by side in each curtain, to the half. */
  widths: number;
  /** Lengths that are cut from the bolt for all curtains. */
  drops: number;
  /** How long each is cut: with heading and hem, to the whole repeat. */
  cut: number;
  /** What is bought. */
  metres: number;
}

/** The cloth that is bought for the curtains of a window. */
export function clothFor({ width, drop, fullness, curtains, bolt, repeat }: ClothAsked): Cloth {
  const each = (width / curtains) * fullness;
  const widths = Math.max(0.5, Math.ceil((2 * each) / bolt - DUST) / 2);
  // Two halves are cut from one length.
  const drops = Math.ceil(widths * curtains - DUST);
  const bare = drop + HEADING + HEM;
  const cut = repeat > 0 ? Math.ceil(bare / repeat - DUST) * repeat : bare;
  return { widths, drops, cut, metres: drops * cut };
}

/** How wide drawn-back cloth stands at its side, as a share of what it covers: of a pair 0.1 to 0.2 of the width at each side. */
const STACK = 0.32;

/** Width of one curtain drawn back. @param covers what it covers when it is drawn */
export const stackOf = (covers: number, heading: Heading): number => (covers * STACK * FULLNESS[heading]) / 2;
