import type { Build, Construction } from '../project/schema/cabinets';
import { INCH } from '../units/length';

/** Figures of the trade that cabinets begin with, metres. */

const METRIC: Construction = {
  build: 'frameless',
  board: 0.018,
  back: 0.008,
  groove: 0.008,
  void: 0.05,
  rail: 0.1,
  setback: 0.02,
  edging: 0.001,
  front: 0.02,
  lies: 'on',
  gap: 0.003,
  side: 0.0015,
  under: 0.003,
  frame: 0,
  frameThick: 0,
  stands: 'plinth',
  plinth: 0.15,
  toe: 0.055,
  vented: false,
  base: { height: 0.72, depth: 0.56 },
  wall: { height: 0.72, depth: 0.33, above: 0.48 },
  tall: { height: 2.05, depth: 0.56 },
  worktop: { thickness: 0.03, overhang: 0.04 },
};

const IMPERIAL: Construction = {
  ...METRIC,
  build: 'imperial',
  void: 0,
  groove: 0,
  plinth: 4 * INCH,
  toe: 3 * INCH,
  base: { height: 30.5 * INCH, depth: 24 * INCH },
  wall: { height: 30 * INCH, depth: 12 * INCH, above: 18 * INCH },
  tall: { height: 80 * INCH, depth: 24 * INCH },
  worktop: { thickness: 1.5 * INCH, overhang: 1 * INCH },
};

/** How cabinets are made until a project or a run says otherwise. */
export const CONSTRUCTIONS: Readonly<Record<Build, Construction>> = {
  frameless: METRIC,
  imperial: IMPERIAL,
  'imperial framed': { ...IMPERIAL, build: 'imperial framed', lies: 'inset', frame: 1.5 * INCH, frameThick: 0.75 * INCH },
  'in-frame': { ...METRIC, build: 'in-frame', lies: 'inset', frame: 0.04, frameThick: 0.022, gap: 0.002, side: 0.002, under: 0 },
};

/** Widths units are sold in, metres. */
export const WIDTHS = {
  metric: [0.15, 0.2, 0.3, 0.4, 0.45, 0.5, 0.6, 0.8, 0.9, 1],
  imperial: Array.from({ length: 14 }, (_, i) => (9 + 3 * i) * INCH),
} as const;

/** A door that is wider is made as a pair, metres. */
export const WIDEST_DOOR = 0.6;

/** Heights of the boxes of drawers, metres: the highest that fits behind a front is taken. */
export const DRAWER_BOXES = [0.085, 0.15, 0.21] as const;

/** Lengths of drawer runners, metres. */
export const RUNNERS = Array.from({ length: 6 }, (_, i) => Math.round((0.27 + 0.05 * i) * 100) / 100).concat(0.55);
