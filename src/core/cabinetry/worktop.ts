import { clipRegions } from '../geometry/clipping';
import { prism, prismWithArris } from '../geometry/extrude';
import type { Mesh } from '../geometry/mesh';
import { tidyRing } from '../geometry/polygon';
import type { Region, Ring } from '../geometry/region';
import { isLight } from '../geometry/shapes';
import { add, cross, distance, dot, left, scale, sub, unit, type Vec2 } from '../geometry/vec';
import type { Run, WorktopEdge } from '../project/schema/cabinets';
import { DUST } from '../units/tolerance';
import type { Stretch } from './leg';
import { coverOf, stretchOn, type BackLine, type PlacedUnit } from './run';

/** How far the arris of an edge goes in and down, metres. */
const ARRIS: Readonly<Record<WorktopEdge, number>> = { square: 0, eased: 0.002, rounded: 0.012, bevelled: 0.008 };

/** A slab of worktop between two heights, its upper edges as is said. */
export function slabOf(regions: readonly Region[], z0: number, z1: number, edge: WorktopEdge): Mesh {
  const by = Math.min(ARRIS[edge], (z1 - z0) / 2);
  if (by === 0) return prism(regions, z0, z1);
  const steps = edge === 'bevelled' ? 1 : isLight() ? 2 : 6;
  const profile = Array.from({ length: steps + 1 }, (_, k): [number, number] => {
    const a = (Math.PI / 2) * (k / steps);
    return edge === 'bevelled' ? [by * k, z1 - by * (1 - k)] : [by * (1 - Math.cos(a)), z1 - by * (1 - Math.sin(a))];
  });
  return prismWithArris(regions, z0, profile);
}

/** The corners of an outline that are free, rounded or cut off. @param free whether a corner is */
export function withCorners(outline: Ring, { form, by }: Run['corners'], free: (p: Vec2) => boolean): Ring {
  if (form === 'square' || by < DUST) return outline;
  const ring = tidyRing(outline);
  return ring.flatMap((p, i): Vec2[] => {
    const [a, b] = [ring[(i + ring.length - 1) % ring.length], ring[(i + 1) % ring.length]];
    const [d, e] = [unit(sub(p, a)), unit(sub(b, p))];
    const turn = cross(d, e);
    // No more is taken off than there is edge beside it.
    const most = Math.min(by, distance(a, p) / 2, distance(p, b) / 2);
    if (turn < LEAST_TURN || most < DUST || !free(p)) return [p];
    const [from, to] = [add(p, scale(d, -most)), add(p, scale(e, most))];
    if (form === 'cut') return [from, to];
    const sweep = Math.atan2(turn, dot(d, e));
    const radius = most / Math.tan(sweep / 2);
    const centre = add(from, scale(left(d), radius));
    const start = Math.atan2(from.y - centre.y, from.x - centre.x);
    const steps = Math.max(3, Math.ceil(sweep / (Math.PI / 24)));
    return Array.from({ length: steps + 1 }, (_, k) => ({
      x: centre.x + radius * Math.cos(start + (sweep * k) / steps),
      y: centre.y + radius * Math.sin(start + (sweep * k) / steps),
    }));
  });
}

/** Corners that turn by less are none: the sine of the turn. */
const LEAST_TURN = 0.2;

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
 * @param corner how its corners are, and which of them are free
 * @param beyond rings it covers besides: of end panels, and what stands out behind what stands free
 */
export function worktopOf(
  legs: readonly BackLine[],
  under: readonly PlacedUnit[],
  overhang: number,
  cutOuts: readonly Ring[] = [],
  beyond: readonly Ring[] = [],
  corner?: { corners: Run['corners']; free(p: Vec2): boolean },
): Worktop {
  const covers = [...under.map((u) => coverOf(u, legs, u.depth + overhang)), ...beyond].map(whole);
  const square = covers.length ? clipRegions('union', covers, []) : [];
  const outline = corner ? square.map((r) => ({ ...r, outer: withCorners(r.outer, corner.corners, corner.free) })) : square;
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
