import { DUST } from '../units/tolerance';

/** Sizes side by side within a length, and what is left of it. Metres. */
export interface Shared {
  sizes: number[];
  /** What nothing takes; less than nothing where the sizes need more than there is. */
  rest: number;
}

/**
 * Divides a length: what has a size keeps it, what has none shares the rest evenly. Sizes and rest add up to the length.
 *
 * @param least what shares is never smaller than this, metres
 */
export function sharedOut(length: number, sizes: readonly (number | null)[], least = 0): Shared {
  const fixed = sizes.reduce<number>((sum, s) => sum + (s ?? 0), 0);
  const count = sizes.filter((s) => s === null).length;
  const each = count ? Math.max(least, (length - fixed) / count) : 0;
  const out = sizes.map((s) => s ?? each);
  const rest = length - fixed - count * each;
  return { sizes: out, rest: Math.abs(rest) < DUST ? 0 : rest };
}
