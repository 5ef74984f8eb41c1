import { clipRegions } from '../geometry/clipping';
import type { Region, Ring } from '../geometry/region';
import { DUST } from '../units/tolerance';
import type { Stretch } from './leg';
import { coverOf, stretchOn, type BackLine, type PlacedUnit } from './run';

/** A worktop as it lies on a run. */
export interface Worktop {
  /** Its outline in the plan, cut-outs taken out. */
  regions: Region[];
  /** Where it runs along each leg, one after another where something interrupts it, metres. */
  stretches: (Stretch & { leg: number })[];
}

const whole = (ring: Ring): Region => ({ outer: ring, holes: [] });

/**
 * The outline of a worktop over units, as deep as they are and standing out before them.
 *
 * @param under units it lies on
 * @param overhang in front of them, metres
 * @param cutOuts of sinks, hobs and taps, in the plan
 * @param beyond rings it covers besides: of end panels, and what stands out behind what stands free
 */
export function worktopOf(
  legs: readonly BackLine[],
  under: readonly PlacedUnit[],
  overhang: number,
  cutOuts: readonly Ring[] = [],
  beyond: readonly Ring[] = [],
): Worktop {
  const covers = [...under.map((u) => coverOf(u, legs, u.depth + overhang)), ...beyond].map(whole);
  const outline = covers.length ? clipRegions('union', covers, []) : [];
  const regions = cutOuts.length ? clipRegions('difference', outline, cutOuts.map(whole)) : outline;
  return { regions, stretches: stretchesOf(legs, under) };
}

/** Where units run along each leg without a break. */
function stretchesOf(legs: readonly BackLine[], units: readonly PlacedUnit[]): Worktop['stretches'] {
  return legs.flatMap((_, leg) => {
    const own = units.flatMap((u) => stretchOn(u, legs, leg) ?? []).sort((a, b) => a.from - b.from);
    const out: (Stretch & { leg: number })[] = [];
    for (const { from, to } of own) {
      const last = out[out.length - 1];
      if (last && from <= last.to + DUST) last.to = Math.max(last.to, to);
      else out.push({ from, to, leg });
    }
    return out;
  });
}

/**
 * Where a plinth stands below units: a strip of a thickness along their fronts, set back behind them, round corners as the
 * fronts go.
 *
 * @param back how far behind the fronts of the carcasses it stands, metres
 */
export function plinthOf(legs: readonly BackLine[], over: readonly PlacedUnit[], back: number, thickness: number): Region[] {
  const cover = (by: number): Region[] => {
    const rings = over.map((u) => whole(coverOf(u, legs, u.depth - by)));
    return rings.length ? clipRegions('union', rings, []) : [];
  };
  return clipRegions('difference', cover(back), cover(back + thickness));
}

/** A joint stays so far from a cut-out, metres. */
const FROM_CUT_OUT = 0.15;

/**
 * Where slabs of a worktop meet along a stretch: as few as can be, as even as can be, none nearer to a cut-out than is good
 * (trade figures: 150 mm).
 *
 * @param longest slab, metres
 * @param cutOuts along the stretch, metres
 * @returns the joints, or null where cut-outs leave no place for one
 */
export function slabJoints({ from, to }: Stretch, longest: number, cutOuts: readonly Stretch[] = [], keep = FROM_CUT_OUT): number[] | null {
  const blocked = cutOuts.map((c): Stretch => ({ from: c.from - keep, to: c.to + keep }));
  const inside = (x: number): Stretch | undefined => blocked.find((b) => x > b.from + DUST && x < b.to - DUST);
  const least = Math.max(1, Math.ceil((to - from) / longest - DUST));
  // One slab more for each joint that has to be moved may be needed.
  for (let n = least; n <= least + blocked.length + 1; n++) {
    const joints: number[] = [];
    let at = from;
    for (let k = 1; k < n; k++) {
      const even = at + (to - at) / (n - k + 1);
      // The place nearest to an even one that is free, within reach of the slab before.
      const places = [even, ...blocked.flatMap((b) => [b.from, b.to])].filter((x) => x > at + DUST && x < to - DUST && x <= at + longest + DUST && !inside(x));
      if (!places.length) break;
      const joint = places.reduce((p, q) => (Math.abs(q - even) < Math.abs(p - even) ? q : p));
      joints.push(joint);
      at = joint;
    }
    if (joints.length === n - 1 && to - at <= longest + DUST) return joints;
  }
  return null;
}
