import { luminousDepth } from './atmosphere';
import { degrees } from '../units/angle';
import { sunShines, type SkyGroup, type SkyType } from './sky-types';

/** Illuminance of the sun above the air at its mean distance, lux (Illuminating Engineering Society, RP-21). */
export const SOLAR_CONSTANT = 127_500;

/** The haze of the clear sky whose figures were published. */
export const PUBLISHED_HAZE = 3;

/** How much more than on average the sun gives on a day, from its distance (RP-21). @param day of the year, from 1 */
export const sunDistance = (day: number): number => 1 + 0.034 * Math.cos((2 * Math.PI * (day - 2)) / 365);

/** Air mass the sun shines through, in vertical columns (Kasten and Young 1989). @param altitude radians, not below 0 */
export const airMass = (altitude: number): number => 1 / (Math.sin(altitude) + 0.50572 * (degrees(altitude) + 6.07995) ** -1.6364);

/** Optical depth of a sky half covered by clouds, to the sun (RP-21). */
const CLOUDED = 0.8;

/**
 * Illuminance of a plane that faces the sun, lux: E = E₀·exp(−c·m) of RP-21, c = 0.21 for the clear sky, 0.80 for the
 * partly cloudy one; behind an overcast sky there is no sun. A clear sky's c goes with its haze.
 *
 * @param altitude of the sun, radians @param day of the year
 */
export function beamIlluminance(sky: SkyType, haze: number, altitude: number, day: number): number {
  if (!sunShines(sky) || altitude <= 0) return 0;
  return SOLAR_CONSTANT * sunDistance(day) * Math.exp(-(sky.group === 'clear' ? luminousDepth(haze) : CLOUDED) * airMass(altitude));
}

/** What the sky alone gives the level ground while the sun is up, lux: a, b and the power of sin h in E = a + b·sinᵖ h (RP-21). */
const DIFFUSE: Record<SkyGroup, readonly [number, number, number]> = {
  clear: [800, 15_500, 0.5],
  intermediate: [300, 45_000, 1],
  overcast: [300, 21_000, 1],
};

/**
 * Common logarithm of the illuminance of level ground in twilight, lux, in powers of the sun's altitude as a part of a
 * right angle, from the first altitude down to the next (Janiczek and DeYoung, Circular 171 of the United States Naval
 * Observatory, 1987). Their figures end at −18°, where stars and airglow take over.
 */
const TWILIGHT: readonly (readonly [number, readonly number[]])[] = [
  [5, [2.88, 22.26, -207.64, 1034.3]],
  [-0.8, [2.88, 21.81, -258.11, -858.36]],
  [-5, [2.7, 12.17, -431.69, -1899.83]],
  [-12, [13.84, 262.72, 1447.42, 2797.93]],
];

/** Illuminance of level ground by the sun's altitude from 5° down, lux, as published. @param altitude radians */
export function twilightIlluminance(altitude: number): number {
  const x = Math.max(-18, degrees(altitude)) / 90;
  const row = TWILIGHT.findLast(([from]) => x * 90 <= from) ?? TWILIGHT[0];
  return 10 ** row[1].reduce((sum, l, power) => sum + l * x ** power, 0);
}

/** Illuminance of the level ground from the sky alone, lux, by day, in twilight and at night. @param altitude of the sun, radians */
export function diffuseIlluminance(group: SkyGroup, altitude: number): number {
  const [a, b, power] = DIFFUSE[group];
  if (altitude >= 0) return a + b * Math.sin(altitude) ** power;
  // Both sources meet within a twentieth where the sun sets; the later one goes on from the earlier.
  return (a * twilightIlluminance(altitude)) / twilightIlluminance(0);
}
