import { clipRegions } from '../geometry/clipping';
import { insideRing, ringDistance, withoutSpikes } from '../geometry/polygon';
import type { Region, Ring } from '../geometry/region';
import { add, cross, distance, dot, left, scale, sub, unit, type Vec2 } from '../geometry/vec';
import type { Run, SlabJoint } from '../project/schema/cabinets';
import { DUST, NEAR, TOUCH } from '../units/tolerance';
import type { Stretch } from './leg';
import { meeting, type BackLine, type PlacedUnit } from './run';

/** A slab of worktop as it lies on a leg of its run. */
export interface Slab {
  leg: number;
  /** Its outline in the plan, cut-outs taken out. */
  regions: Region[];
  /** Along its leg, metres. */
  length: number;
  /** Across it, metres. */
  width: number;
}

/** Where two slabs of a worktop meet. */
export interface Joint {
  /** Of a corner of the run; null: across a leg. */
  corner: SlabJoint | null;
  lines: [Vec2, Vec2][];
}

export interface Slabs {
  slabs: Slab[];
  joints: Joint[];
  /** Slabs that are longer than one is had, since cut-outs leave no place for a joint. */
  tooLong: number;
}

/** How far the short mitre of a mason's joint goes in from the front, metres: as far as a front edge is rounded. */
const MITRE = 0.025;

/** Half planes are so large in numbers, metres: more than a run is. */
const FAR = 20;

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

/** All that lies to the left of a line, near it. */
const halfPlane = (p: Vec2, d: Vec2): Region => {
  const at = (x: number, y: number): Vec2 => add(add(p, scale(d, x)), scale(left(d), y));
  return { outer: [at(-FAR, 0), at(FAR, 0), at(FAR, FAR), at(-FAR, FAR)], holes: [] };
};

const along = ({ from, to }: BackLine): Vec2 => unit(sub(to, from));

/** How long what lies within regions is of a line, and where it begins and ends. */
function within(p: Vec2, d: Vec2, regions: readonly Region[]): [Vec2, Vec2][] {
  return regions.flatMap(({ outer }) => {
    const at = outer.flatMap((a, i) => {
      const b = outer[(i + 1) % outer.length];
      const [u, v] = [cross(d, sub(a, p)), cross(d, sub(b, p))];
      if (Math.abs(u) < TOUCH) return [dot(sub(a, p), d)];
      if (Math.abs(v) < TOUCH || u * v > 0) return [];
      const q = add(a, scale(sub(b, a), u / (u - v)));
      return [dot(sub(q, p), d)];
    });
    at.sort((x, y) => x - y);
    const out: [Vec2, Vec2][] = [];
    for (let i = 1; i < at.length; i++) {
      if (at[i] - at[i - 1] < TOUCH) continue;
      const middle = add(p, scale(d, (at[i] + at[i - 1]) / 2));
      if (insideRing(middle, outer) || ringDistance(middle, outer) < TOUCH) out.push([add(p, scale(d, at[i - 1])), add(p, scale(d, at[i]))]);
    }
    return out;
  });
}

/** A corner of a run in which its worktop turns. */
interface Turn {
  /** The first of its two legs. */
  leg: number;
  /** Depth of the worktop there. */
  deep: number;
  /** The second slab goes through to the wall, the first one ends at it. */
  second: boolean;
}

/** The side of a joint in a corner on which the slab that ends there lies, and the lines of the joint. */
function cornerJoint({ leg, deep, second }: Turn, legs: readonly BackLine[], form: SlabJoint): { side: Region[]; lines: [Vec2, Vec2][] } {
  const [a, b] = [legs[leg], legs[leg + 1]];
  const [through, ends] = second ? [b, a] : [a, b];
  const d = along(through);
  const corner = a.to;
  const front = (line: BackLine): Vec2 => add(line.from, scale(left(along(line)), -deep));
  const inner = meeting(front(a), along(a), front(b), along(b));
  const mitre = unit(sub(corner, inner));
  // Which way the ending leg goes from the corner.
  const away = second ? scale(along(ends), -1) : along(ends);
  const mitreSide = cross(mitre, away) > 0 ? halfPlane(inner, mitre) : halfPlane(inner, scale(mitre, -1));
  if (form === 'mitred') return { side: [mitreSide], lines: [[inner, corner]] };
  const straight = (p: Vec2): Region => halfPlane(p, scale(d, -1));
  if (form === 'butted') return { side: [straight(inner)], lines: [[inner, add(inner, scale(d, second ? -FAR : FAR))]] };
  // As deep behind the front of what goes through as the mitre reaches, along that.
  const off = Math.abs(cross(mitre, d));
  const step = add(inner, scale(mitre, MITRE / Math.max(off, DUST)));
  return {
    side: clipRegions('intersection', [straight(step)], [mitreSide]),
    lines: [
      [inner, step],
      [step, add(step, scale(d, second ? -FAR : FAR))],
    ],
  };
}

/** A point of each unit on each leg that lies in no corner. */
function probesOf(under: readonly PlacedUnit[], turns: readonly Turn[], legs: readonly BackLine[]): Vec2[][] {
  return legs.map((line, leg) =>
    under.flatMap((u): Vec2[] => {
      const at = (x: number): Vec2 => add(add(line.from, scale(along(line), x)), scale(left(along(line)), -u.depth / 2));
      if (!u.corner || !u.arms) return u.leg === leg ? [at((u.stretch.from + u.stretch.to) / 2)] : [];
      const first = u.corner === 'blind right' ? u.leg - 1 : u.leg;
      const deep = turns.find((t) => t.leg === first)?.deep ?? u.depth;
      const length = distance(line.from, line.to);
      if (leg === first) return [at(length - (u.arms[0] + deep) / 2)];
      return leg === first + 1 ? [at((u.arms[1] + deep) / 2)] : [];
    }),
  );
}

/**
 * A worktop as the slabs it is put together from: parted in the corners of its run, and where a slab would be longer than one is
 * had. What goes through in a butted corner is the first leg, or the one a blind unit lies on.
 *
 * @param regions its outline, cut-outs taken out
 * @param under units it lies on
 * @param cutOuts rings that were taken out of it
 */
export function slabsOf(
  regions: readonly Region[],
  legs: readonly BackLine[],
  under: readonly PlacedUnit[],
  overhang: number,
  { joint, longest }: Run['slabs'],
  cutOuts: readonly Ring[],
): Slabs {
  const out: Slabs = { slabs: [], joints: [], tooLong: 0 };
  const turns = under.flatMap((u): Turn[] =>
    u.corner && u.arms ? [{ leg: u.corner === 'blind right' ? u.leg - 1 : u.leg, deep: u.depth + overhang, second: u.corner === 'blind right' }] : [],
  );
  const probes = probesOf(under, turns, legs);
  let rest = [...regions];
  const byLeg: Region[][] = [];
  for (let leg = 0; leg < legs.length; leg++) {
    const turn = turns.find((t) => t.leg === leg);
    if (!turn) {
      // Nothing turns here: what lies on this leg is apart from what follows.
      const own = rest.filter((r) => leg === legs.length - 1 || probes[leg].some((p) => insideRing(p, r.outer)));
      byLeg.push(own);
      rest = rest.filter((r) => !own.includes(r));
      continue;
    }
    const { side, lines } = cornerJoint(turn, legs, joint);
    const ended = withoutSpikes(clipRegions('intersection', rest, side));
    const through = withoutSpikes(clipRegions('difference', rest, side));
    const [low, high] = turn.second ? [ended, through] : [through, ended];
    const isOf = (r: Region, k: readonly Vec2[]): boolean => k.some((p) => insideRing(p, r.outer));
    const [own, beyond] = [probes[leg], probes.slice(leg + 1).flat()];
    // The line of a joint goes on over what lies on later legs: what it cuts off there is put back.
    const strays = low.filter((r) => !isOf(r, own) && isOf(r, beyond));
    const back = high.filter((r) => isOf(r, own) && !isOf(r, beyond));
    byLeg.push(back.length ? clipRegions('union', [...low.filter((r) => !strays.includes(r)), ...back], []) : low.filter((r) => !strays.includes(r)));
    rest = strays.length || back.length ? clipRegions('union', [...high.filter((r) => !back.includes(r)), ...strays], []) : high;
    const seen = lines.flatMap(([p, q]) => {
      const d = unit(sub(q, p));
      // Beyond its ends the line is an edge, or leaves the slab.
      const cut = (x: Vec2): number => Math.min(distance(p, q), Math.max(0, dot(sub(x, p), d)));
      return within(p, d, byLeg[leg]).flatMap(([a, b]): [Vec2, Vec2][] => {
        const [x, y] = [cut(a), cut(b)];
        return y - x > TOUCH ? [[add(p, scale(d, x)), add(p, scale(d, y))]] : [];
      });
    });
    out.joints.push({ corner: joint, lines: seen });
  }
  byLeg.forEach((all, leg) => {
    const line = legs[leg];
    const d = along(line);
    const at = (p: Vec2): number => dot(sub(p, line.from), d);
    const over = (ring: Ring, by: (p: Vec2) => number): Stretch => ({ from: Math.min(...ring.map(by)), to: Math.max(...ring.map(by)) });
    for (const region of all) {
      const whole = over(region.outer, at);
      const cuts = cutOuts
        .filter((ring) => ring.some((p) => insideRing(p, region.outer) || ringDistance(p, region.outer) < NEAR))
        .map((ring) => over(ring, at));
      const places = slabJoints(whole, longest, cuts);
      if (!places) out.tooLong++;
      let left_: Region[] = [region];
      const put = (own: Region[]): void => {
        const ring = own.flatMap((r) => r.outer);
        const across = over(ring, (p) => cross(sub(p, line.from), d));
        const { from, to } = over(ring, at);
        if (own.length) out.slabs.push({ leg, regions: own, length: to - from, width: across.to - across.from });
      };
      for (const x of places ?? []) {
        const p = add(line.from, scale(d, x));
        // To the left of a line that goes from the wall into the room is what lies further along.
        const side = [halfPlane(p, scale(left(d), -1))];
        put(clipRegions('difference', left_, side));
        out.joints.push({ corner: null, lines: within(p, scale(left(d), -1), left_) });
        left_ = clipRegions('intersection', left_, side);
      }
      put(left_);
    }
  });
  return out;
}
