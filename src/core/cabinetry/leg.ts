import { DUST } from '../units/tolerance';
import { sharedOut } from './shares';

/** A stretch along a leg of a run, metres from its start. */
export interface Stretch {
  from: number;
  to: number;
}

/** A unit that stands where something else says: its middle, metres from the start of the leg. */
export interface Pin {
  /** Its place in the row. */
  unit: number;
  middle: number;
}

/** Units along one leg of a run. */
export interface LaidLeg {
  units: Stretch[];
  /** What no unit takes, in order: before the first, between two, after the last. */
  gaps: Stretch[];
  /** By how much the units are too long for where they have to stand, metres; 0 where they fit. */
  lacks: number;
}

/**
 * Stands units side by side along a leg. Those without a width share what is left. A pinned unit stands with its middle where
 * its pin says: units before it end at it, units behind it begin at it, and units that share fill up between pins.
 *
 * @param length of the leg, metres
 * @param widths of its units in order; null: shares
 * @param packed where units without a pin lie together
 * @param least width of a unit that shares, metres
 * @param held whether what is laid goes on from a corner: units before the first pin begin there, and do not end at it
 */
export function layLeg(
  length: number,
  widths: readonly (number | null)[],
  pins: readonly Pin[] = [],
  packed: 'start' | 'end' = 'start',
  least = 0,
  held = false,
): LaidLeg {
  const order = [...pins].sort((a, b) => a.unit - b.unit);
  // A pinned unit that shares takes no more than its least: what it would share is not known on either side.
  const own = (i: number): number => widths[i] ?? least;
  const units: Stretch[] = new Array<Stretch>(widths.length);
  let lacks = 0;
  const segment = (from: number, to: number, low: number, high: number, towards: 'start' | 'end'): void => {
    const { sizes, rest } = sharedOut(high - low, widths.slice(from, to), least);
    lacks += Math.max(0, -rest);
    let at = towards === 'end' ? high - sizes.reduce((s, w) => s + w, 0) : low;
    sizes.forEach((w, k) => {
      units[from + k] = { from: at, to: at + w };
      at += w;
    });
  };
  let [next, low] = [0, 0];
  for (const { unit, middle } of order) {
    const half = own(unit) / 2;
    segment(next, unit, low, middle - half, next === 0 && low === 0 && !held ? 'end' : 'start');
    units[unit] = { from: middle - half, to: middle + half };
    [next, low] = [unit + 1, middle + half];
  }
  segment(next, widths.length, low, length, packed);
  const outside = units.length ? Math.max(0, -units[0].from, units[units.length - 1].to - length) : 0;
  const gaps: Stretch[] = [];
  let at = 0;
  for (const { from, to } of [...units, { from: length, to: length }]) {
    if (from > at + DUST) gaps.push({ from: at, to: from });
    at = Math.max(at, to);
  }
  return { units, gaps, lacks: Math.max(lacks, outside) };
}

/** A way to fill what is left of a leg. */
export type Filling =
  | { kind: 'widen'; unit: number; width: number }
  | { kind: 'spread'; widths: number[] }
  | { kind: 'filler'; width: number }
  | { kind: 'unit'; width: number; filler: number };

/**
 * The ways in which what is left beside a row of units can be filled: the last one wider, all of those that may change wider by
 * the same, a filler, the widest unit that fits.
 *
 * @param rest what is left, metres
 * @param widths of the units beside it, the nearest last; null where one may not be changed
 * @param sold widths units are sold in, metres
 * @param most a filler is no wider, metres
 */
export function fillings(rest: number, widths: readonly (number | null)[], sold: readonly number[], most = 0.1): Filling[] {
  if (rest <= DUST) return [];
  const out: Filling[] = [];
  const last = widths.length - 1;
  if (last >= 0 && widths[last] !== null) out.push({ kind: 'widen', unit: last, width: widths[last] + rest });
  const free = widths.filter((w) => w !== null).length;
  if (free > 1) out.push({ kind: 'spread', widths: widths.map((w) => (w === null ? 0 : w + rest / free)) });
  if (rest <= most + DUST) out.push({ kind: 'filler', width: rest });
  const fits = sold.filter((w) => w <= rest + DUST);
  if (fits.length) {
    const width = Math.max(...fits);
    const filler = rest - width;
    out.push({ kind: 'unit', width, filler: filler < DUST ? 0 : filler });
  }
  return out;
}

/** How the others make room for a unit whose width changes: they shift, or one of them gives way. */
export type GivingWay = { kind: 'shift' } | { kind: 'unit'; unit: number };

/**
 * Widths of a row after one of them is changed.
 *
 * @param room what is left beside the row, metres: as far as the others can shift
 * @param least no unit gets narrower, metres
 * @returns the widths, or by how much there is too little room, metres
 */
export function widened(
  widths: readonly number[],
  unit: number,
  width: number,
  way: GivingWay,
  room: number,
  least: number,
): { ok: true; widths: number[] } | { ok: false; lacks: number } {
  const more = width - widths[unit];
  const out = widths.slice();
  out[unit] = width;
  if (way.kind === 'shift') return more <= room + DUST ? { ok: true, widths: out } : { ok: false, lacks: more - room };
  out[way.unit] -= more;
  return out[way.unit] >= least - DUST ? { ok: true, widths: out } : { ok: false, lacks: least - out[way.unit] };
}
