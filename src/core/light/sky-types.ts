/** How the luminance of a sky is spread: its gradation from horizon to zenith (a, b) and its brightening towards the sun (c, d, e). */
export interface SkyType {
  /** Number in ISO 15469. */
  number: number;
  group: SkyGroup;
  /** What it looks like. */
  name: string;
  a: number;
  b: number;
  c: number;
  d: number;
  e: number;
}

export type SkyGroup = 'overcast' | 'intermediate' | 'clear';

const type = (number: number, group: SkyGroup, name: string, a: number, b: number, c: number, d: number, e: number): SkyType => ({
  number,
  group,
  name,
  a,
  b,
  c,
  d,
  e,
});

/** The fifteen standard relative luminance distributions of ISO 15469 (CIE S 011), by number from 1. */
export const SKY_TYPES: readonly SkyType[] = [
  type(1, 'overcast', 'Dark towards the horizon', 4, -0.7, 0, -1, 0),
  type(2, 'overcast', 'Dark towards the horizon, brighter about the sun', 4, -0.7, 2, -1.5, 0.15),
  type(3, 'overcast', 'Somewhat darker towards the horizon', 1.1, -0.8, 0, -1, 0),
  type(4, 'overcast', 'Somewhat darker towards the horizon, brighter about the sun', 1.1, -0.8, 2, -1.5, 0.15),
  type(5, 'overcast', 'Even all over', 0, -1, 0, -1, 0),
  type(6, 'intermediate', 'Clouds, slightly brighter about the sun', 0, -1, 2, -1.5, 0.15),
  type(7, 'intermediate', 'Clouds, brighter about the sun', 0, -1, 5, -2.5, 0.3),
  type(8, 'intermediate', 'Clouds, a bright ring about the sun', 0, -1, 10, -3, 0.45),
  type(9, 'intermediate', 'Clouds, the sun hidden', -1, -0.55, 2, -1.5, 0.15),
  type(10, 'intermediate', 'Clouds, pale towards the horizon', -1, -0.55, 5, -2.5, 0.3),
  type(11, 'clear', 'White-blue, a bright ring about the sun', -1, -0.55, 10, -3, 0.45),
  type(12, 'clear', 'Blue', -1, -0.32, 10, -3, 0.45),
  type(13, 'clear', 'Blue, the air of a town', -1, -0.32, 16, -3, 0.3),
  type(14, 'clear', 'Cloudless and hazy', -1, -0.15, 16, -3, 0.3),
  type(15, 'clear', 'White-blue and hazy', -1, -0.15, 24, -2.8, 0.15),
];

/** A sky by its number. @throws RangeError if there is none */
export function skyType(number: number): SkyType {
  const found = SKY_TYPES[number - 1];
  if (!found) throw new RangeError(`no sky has the number ${number}`);
  return found;
}

/** Whether the sun shines through: not behind a sky all covered, nor where a cloud hides it. */
export const sunShines = (sky: SkyType): boolean => sky.group !== 'overcast' && sky.number !== 9;

/**
 * Luminance of a sky in a direction, relative: φ(Z)·f(χ) of ISO 15469, not yet divided by its value at the zenith.
 *
 * @param up cosine of the direction's angle from the zenith, 0 to 1
 * @param towards cosine of its angle from the sun
 */
export function relativeLuminance({ a, b, c, d, e }: SkyType, up: number, towards: number): number {
  const gradation = 1 + (a ? a * Math.exp(b / Math.max(1e-4, up)) : 0);
  if (!c) return gradation;
  const chi = Math.acos(Math.max(-1, Math.min(1, towards)));
  return gradation * (1 + c * (Math.exp(d * chi) - Math.exp((d * Math.PI) / 2)) + e * towards * towards);
}
