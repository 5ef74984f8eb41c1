import type { Finish } from '../project/schema';
import { DUST } from '../units/tolerance';

/** What is bought of something: never less than is needed, in packs as they are sold. */
export interface Goods {
  /** In the unit it is priced by. */
  quantity: number;
  /** As one says it to whoever sells it: "2 × 5 l + 0.75 l", "7 rolls". */
  text: string;
}

/** Sizes paint is filled in, litres (trade figures). */
export const TINS = [0.75, 1, 2.5, 5, 10] as const;
/** Lengths mouldings are sold in, metres (trade figures). */
export const LENGTHS = [2.4, 3, 4.2] as const;
/** What is lost of a moulding at mitres and joints, as a share of its length. */
export const OFFCUTS = 0.1;
/** What is cut from a roll or a sheet is sold by tenths. */
const TENTH = 0.1;

/**
 * Packs that cover a need, with least over and of few pieces: one more pack counts as much as `each` more. Exact, by the
 * smallest cost of every amount up to the need (unbounded knapsack; Martello and Toth 1990).
 *
 * @param need in the unit of the sizes; @param sizes each a multiple of `step`
 * @returns counts by size, the largest first
 */
export function packsFor(need: number, sizes: readonly number[], step: number, each: number): { size: number; count: number }[] {
  const steps = sizes.map((size) => Math.round(size / step));
  const wanted = Math.ceil(need / step - DUST);
  if (wanted <= 0) return [];
  const most = Math.max(...steps);
  // Far from the end the largest pack is always right.
  const sure = Math.max(0, Math.floor((wanted - 4 * most) / most));
  const rest = wanted - sure * most;
  const end = rest + most;
  const best = new Float64Array(end + 1).fill(Infinity);
  const last = new Int32Array(end + 1).fill(-1);
  best[0] = 0;
  for (let amount = 1; amount <= end; amount++)
    steps.forEach((s, i) => {
      const cost = s <= amount ? best[amount - s] + s * step + each : Infinity;
      if (cost < best[amount] - DUST) {
        best[amount] = cost;
        last[amount] = i;
      }
    });
  let at = rest;
  for (let amount = rest; amount <= end; amount++) if (best[amount] < best[at] - DUST) at = amount;
  const counts = sizes.map(() => 0);
  counts[steps.indexOf(most)] = sure;
  for (; at > 0; at -= steps[last[at]]) counts[last[at]]++;
  return sizes
    .map((size, i) => ({ size, count: counts[i] }))
    .filter((p) => p.count)
    .reverse();
}

const inPacks = (packs: readonly { size: number; count: number }[], unit: string): Goods => ({
  quantity: Math.round(packs.reduce((sum, p) => sum + p.size * p.count, 0) * 1e6) / 1e6,
  text: packs.map(({ size, count }) => `${count > 1 ? `${count} × ` : ''}${size} ${unit}`).join(' + '),
});

const UNITS: Record<'roll' | 'box' | 'piece', [one: string, many: string]> = {
  roll: ['roll', 'rolls'],
  box: ['box', 'boxes'],
  piece: ['piece', 'pieces'],
};

/** What must be bought of goods sold by a unit. @param need in that unit, waste included */
export function goodsOf(unit: Finish['unit'], need: number): Goods {
  if (need <= DUST) return { quantity: 0, text: '' };
  switch (unit) {
    case 'litre':
      return inPacks(packsFor(need, TINS, 0.25, 0.25), 'l');
    case 'm2':
    case 'metre': {
      const tenths = Math.ceil(need / TENTH - DUST);
      return { quantity: tenths / 10, text: `${(tenths / 10).toFixed(1)} ${unit === 'm2' ? 'm²' : 'm'}` };
    }
    default: {
      const count = Math.ceil(need - DUST);
      return { quantity: count, text: `${count} ${UNITS[unit][count === 1 ? 0 : 1]}` };
    }
  }
}

/** Lengths of a moulding for so many metres of it, with what is lost. */
export const lengthsOf = (metres: number): Goods =>
  metres <= DUST ? { quantity: 0, text: '' } : inPacks(packsFor(metres * (1 + OFFCUTS), LENGTHS, 0.1, 0.1), 'm');
