import type { Finish } from '../project/schema';

/** A measure in a word, with the value it stands for. */
export type Word = readonly [name: string, value: number];

/** How much light the fibres of a cloth catch at a grazing angle. */
export const CLOTH_SHEENS: readonly Word[] = [
  ['none', 0],
  ['faint, as linen', 0.15],
  ['soft, as wool', 0.4],
  ['strong, as velvet', 0.8],
];

/** How deep the relief of a finish is, against how deep it truly is. */
export const RELIEFS: readonly Word[] = [
  ['smooth', 0],
  ['half as deep', 0.5],
  ['true to it', 1],
  ['twice as deep', 2],
];

/** The word nearest to a value. */
export const wordOf = (words: readonly Word[], value: number): string => words.reduce((a, b) => (Math.abs(b[1] - value) < Math.abs(a[1] - value) ? b : a))[0];

/** What a word stands for. @throws RangeError where it is none of them */
export function valueOf(words: readonly Word[], name: string): number {
  const found = words.find(([n]) => n === name);
  if (!found) throw new RangeError(`no word “${name}”`);
  return found[1];
}

/** How a finish lets light through. */
export const PASSINGS = {
  none: 'no',
  clear: 'clear, as glass',
  scattered: 'scattered, as paper',
  woven: 'between its threads',
} as const;
export type Passing = keyof typeof PASSINGS;

type Passes = Pick<Finish, 'transmission' | 'translucency' | 'opacity'>;

/** How a finish lets most of its light through. */
export function passingOf({ transmission, translucency, opacity }: Passes): Passing {
  const most = Math.max(transmission, translucency, 1 - opacity);
  if (most === 0) return 'none';
  return most === transmission ? 'clear' : most === translucency ? 'scattered' : 'woven';
}

/** What a finish is given so that it lets light through in a way; a woven one keeps what its threads scatter. */
export function withPassing(finish: Passes, passing: Passing): Passes {
  if (passing === passingOf(finish)) return { transmission: finish.transmission, translucency: finish.translucency, opacity: finish.opacity };
  return {
    transmission: passing === 'clear' ? 0.9 : 0,
    translucency: passing === 'scattered' ? 0.5 : passing === 'woven' ? Math.min(0.25, finish.translucency) : 0,
    opacity: passing === 'woven' ? 0.6 : 1,
  };
}
