import type { Site } from '../project/schema';
import { sunPosition } from './daylight';
import { skyType } from './sky-types';

/** What a photographer sets a camera to: daylight, a covered sky, lamps, K. */
export const WHITES = { day: 5500, covered: 6500, lamps: 3200 } as const;

/** Colour temperature of the light that a picture of a site is balanced to at first, K: the sun’s, a covered sky’s, or that of lamps after sunset. */
export function usualWhite(site: Site): number {
  if (sunPosition(site).altitude <= 0) return WHITES.lamps;
  return skyType(site.sky).group === 'overcast' ? WHITES.covered : WHITES.day;
}
