import { isLarge, SMALL_SAMPLES, smallSize } from './large';

/** How quickly a machine makes pictures, learned from those it has made. */
export interface Pace {
  /** Seconds until a scene is ready to be traced. */
  prepare: number;
  /** Samples a second, all hands together. */
  samples: number;
  /** Seconds from the last sample to the finished picture, for each million pixels: grain taken out of the whole and of each light. */
  finish: number;
}

/** What a machine that has made no picture yet is thought to do. @param hands how many trace */
export const firstPace = (hands: number): Pace => ({ prepare: 12, samples: 50_000 * hands, finish: 90 });

/** What is wanted of a picture. */
export interface Wanted {
  width: number;
  height: number;
  /** A pixel. */
  samples: number;
}

/** Of the time a finished picture takes for each of its pixels, what one takes whose lights are not told apart. */
const LARGE_FINISH = 0.4;

/** Seconds a picture will take. */
export const expectedSeconds = ({ prepare, samples, finish }: Pace, wanted: Wanted): number => {
  const pixels = wanted.width * wanted.height;
  if (isLarge(wanted)) {
    const small = smallSize(wanted);
    const most = small.width * small.height;
    // The small picture, whose lights are told apart, and beside it the large one: its grain is taken out while it is traced.
    return prepare + (pixels * wanted.samples + most * wanted.samples * SMALL_SAMPLES) / samples + finish * ((most + LARGE_FINISH * pixels) / 1e6);
  }
  return prepare + (pixels * wanted.samples) / samples + (finish * pixels) / 1e6;
};

/** How much the last picture counts against all before it: scenes and what else the machine does change. */
const NEWS = 0.5;

/** What is known after one more picture. @param took seconds of its parts */
export function learned(pace: Pace, { width, height, samples }: Wanted, took: { prepare: number; trace: number; finish: number }): Pace {
  const pixels = width * height;
  const measured = (now: number): boolean => Number.isFinite(now) && now > 0;
  const mix = (before: number, now: number): number => (measured(now) ? before * (1 - NEWS) + now * NEWS : before);
  return {
    prepare: mix(pace.prepare, took.prepare),
    // Times are averaged, not rates: a rate of one slow picture would hardly count.
    samples: measured(took.trace / (pixels * samples)) ? 1 / mix(1 / pace.samples, took.trace / (pixels * samples)) : pace.samples,
    finish: mix(pace.finish, (took.finish * 1e6) / pixels),
  };
}

/** A span as one says it: 40 s, 3 min, 1 h 20 min. */
export function spanText(seconds: number): string {
  if (seconds < 55) return `${Math.max(5, Math.round(seconds / 5) * 5)} s`;
  const minutes = Math.max(1, Math.round(seconds / 60));
  if (minutes < 60) return `${minutes} min`;
  const rest = Math.round((minutes % 60) / 5) * 5;
  const hours = Math.floor(minutes / 60) + (rest === 60 ? 1 : 0);
  return rest % 60 ? `${hours} h ${rest} min` : `${hours} h`;
}
