import { boolean, clipHalf, insideRegion, isConvex, signedArea, totalArea, union } from '../../geometry/polygon';
import type { Region, Ring } from '../../geometry/region';
import type { Vec2 } from '../../geometry/vec';
import type { Laying } from '../../project/schema';
import { tilingOf, type PatternUnit } from './pattern';
import { fromPattern, toPattern, type Placing } from './place';
import { DUST, HAIR, NEAR, NIL, TIGHT } from '../../units/tolerance';

/** One unit as it comes to lie on a face. */
export interface LaidUnit {
  /** What of it shows, in the coordinates of the face. */
  parts: Ring[];
  whole: boolean;
  /** m². */
  area: number;
  /** Extent of what is left of it along and across its length, metres. */
  width: number;
  height: number;
}

export interface Layout {
  units: LaidUnit[];
  whole: number;
  cut: number;
  /** Area of the units without joints, and of the face, m². */
  covered: number;
  area: number;
}

/** The most units that are laid out one by one. */
export const MOST_UNITS = 200_000;

/** A piece thinner than this is lost in the joint, metres. */
export const SHAVING = 0.0005;

interface Edge {
  x0: number;
  y0: number;
  x1: number;
  y1: number;
  a: Vec2;
  b: Vec2;
  region: number;
  /** The ring it belongs to: 0 for the outline, then the holes. */
  ring: number;
  hole: boolean;
}

/** Edges of regions, for telling quickly what lies wholly inside, and what to clip with what. */
class Border {
  private readonly edges: Edge[] = [];

  constructor(private readonly regions: readonly Region[]) {
    regions.forEach(({ outer, holes }, region) => {
      [outer, ...holes].forEach((ring, n) =>
        ring.forEach((a, i) => {
          const b = ring[(i + 1) % ring.length];
          this.edges.push({
            x0: Math.min(a.x, b.x),
            y0: Math.min(a.y, b.y),
            x1: Math.max(a.x, b.x),
            y1: Math.max(a.y, b.y),
            a,
            b,
            region,
            ring: n,
            hole: n > 0,
          });
        }),
      );
    });
  }

  /** The edges that pass through a convex ring; those that only touch it do not. */
  crossing(ring: Ring): Edge[] {
    let [x0, y0, x1, y1] = [Infinity, Infinity, -Infinity, -Infinity];
    for (const p of ring) {
      if (p.x < x0) x0 = p.x;
      if (p.x > x1) x1 = p.x;
      if (p.y < y0) y0 = p.y;
      if (p.y > y1) y1 = p.y;
    }
    const out: Edge[] = [];
    for (const e of this.edges) if (e.x0 < x1 - TIGHT && e.x1 > x0 + TIGHT && e.y0 < y1 - TIGHT && e.y1 > y0 + TIGHT && passes(e.a, e.b, ring)) out.push(e);
    return out;
  }

  inside(p: Vec2): boolean {
    return this.regions.some((r) => insideRegion(p, r));
  }

  /**
   * What of a convex unit lies on the regions: each outline clipped by the unit's few edges (Sutherland–Hodgman), convex
   * holes taken out edge by edge; anything else goes to the general clipper.
   */
  clip(ring: Ring, crossing: readonly Edge[]): { parts: Ring[]; area: number } {
    const own = new Set(crossing.map((e) => e.region));
    if (own.size === 1) {
      const region = this.regions[crossing[0].region];
      const holes = [...new Set(crossing.filter((e) => e.hole).map((e) => e.ring))];
      const convex = holes.map((n) => this.turned(crossing[0].region, n));
      if (convex.every((h) => h !== null)) {
        const whole = crossing.every((e) => e.hole) ? ring : window(region.outer, ring);
        // A hollow outline may leave several pieces, joined by edges without area.
        let parts: Ring[] = whole.length > 2 ? [whole] : [];
        for (const hole of convex) parts = parts.flatMap((part) => without(part, hole));
        return { parts, area: parts.reduce((sum, part) => sum + Math.max(0, signedArea(part)), 0) };
      }
    }
    const left = boolean('intersection', [{ outer: ring, holes: [] }], this.regions as Region[]);
    return { parts: left.map((r) => r.outer), area: totalArea(left) };
  }

  private readonly rings = new Map<string, Ring | null>();

  /** A hole counter-clockwise where it is convex, else null. */
  private turned(region: number, n: number): Ring | null {
    const key = `${region} ${n}`;
    let known = this.rings.get(key);
    if (known === undefined) {
      const ring = this.regions[region].holes[n - 1];
      const turned = signedArea(ring) < 0 ? [...ring].reverse() : ring;
      this.rings.set(key, (known = isConvex(turned) ? turned : null));
    }
    return known;
  }
}

/** Distance of a point to the left of an edge. */
const side =
  (p: Vec2, q: Vec2) =>
  (v: Vec2): number =>
    (q.x - p.x) * (v.y - p.y) - (q.y - p.y) * (v.x - p.x);

/** What of a ring lies in a convex one. */
function window(ring: Ring, convex: Ring): Ring {
  let part = ring;
  for (let i = 0; i < convex.length && part.length > 2; i++) part = clipHalf(part, side(convex[i], convex[(i + 1) % convex.length]));
  return part;
}

/** What of a ring lies outside a convex one, in pieces: beyond its first edge, then beyond its second within the first, and so on. */
function without(ring: Ring, convex: Ring): Ring[] {
  const out: Ring[] = [];
  let rest = ring;
  for (let i = 0; i < convex.length && rest.length > 2; i++) {
    const inward = side(convex[i], convex[(i + 1) % convex.length]);
    const beyond = clipHalf(rest, (v) => -inward(v));
    if (beyond.length > 2 && signedArea(beyond) > 1e-10) out.push(beyond);
    rest = clipHalf(rest, inward);
  }
  return out;
}

/** The outlines of what is left of a unit, pieces that touch drawn together: for drawing. */
export const outlinesOf = (unit: LaidUnit): Ring[] =>
  unit.parts.length < 2 ? unit.parts : union(unit.parts.map((outer): Region => ({ outer, holes: [] }))).map((r) => r.outer);

/** Whether a segment has a length inside a convex ring (Cyrus–Beck). */
function passes(a: Vec2, b: Vec2, ring: Ring): boolean {
  const d = { x: b.x - a.x, y: b.y - a.y };
  let [t0, t1] = [0, 1];
  for (let i = 0; i < ring.length; i++) {
    const p = ring[i];
    const q = ring[(i + 1) % ring.length];
    const l = Math.hypot(q.x - p.x, q.y - p.y);
    const n = { x: -(q.y - p.y) / l, y: (q.x - p.x) / l };
    const off = (a.x - p.x) * n.x + (a.y - p.y) * n.y - TIGHT;
    const run = d.x * n.x + d.y * n.y;
    if (Math.abs(run) < NIL) {
      if (off < 0) return false;
    } else if (run > 0) t0 = Math.max(t0, -off / run);
    else t1 = Math.min(t1, -off / run);
    if (t1 - t0 < DUST) return false;
  }
  return true;
}

function middle(ring: Ring): Vec2 {
  let [x, y] = [0, 0];
  for (const p of ring) {
    x += p.x;
    y += p.y;
  }
  return { x: x / ring.length, y: y / ring.length };
}

/** Extent of rings along and across a direction, metres. */
function extent(rings: readonly Ring[], along: Vec2): { width: number; height: number } {
  let [u0, u1, v0, v1] = [Infinity, -Infinity, Infinity, -Infinity];
  for (const ring of rings)
    for (const p of ring) {
      const u = p.x * along.x + p.y * along.y;
      const v = -p.x * along.y + p.y * along.x;
      u0 = Math.min(u0, u);
      u1 = Math.max(u1, u);
      v0 = Math.min(v0, v);
      v1 = Math.max(v1, v);
    }
  return { width: u1 - u0, height: v1 - v0 };
}

/**
 * The units of a laying over a face, whole and cut by exact clipping: what is counted here is what the texture shows.
 *
 * @param regions what shows of the face, in its own coordinates, metres
 * @throws RangeError where there would be more than `MOST_UNITS`
 */
export function layOut(laying: Laying, placing: Placing, regions: readonly Region[]): Layout {
  const tiling = tilingOf(laying);
  const area = totalArea(regions);
  const units: LaidUnit[] = [];
  if (area <= 0) return { units, whole: 0, cut: 0, covered: 0, area: 0 };
  let [x0, y0, x1, y1] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const { outer } of regions)
    for (const p of outer) {
      const q = toPattern(placing, p);
      x0 = Math.min(x0, q.x);
      y0 = Math.min(y0, q.y);
      x1 = Math.max(x1, q.x);
      y1 = Math.max(y1, q.y);
    }
  const { period } = tiling;
  const spans = tiling.units.map((unit) => {
    const xs = unit.ring.map((p) => p.x);
    const ys = unit.ring.map((p) => p.y);
    return {
      c0: Math.floor((x0 - Math.max(...xs)) / period.x),
      c1: Math.ceil((x1 - Math.min(...xs)) / period.x),
      r0: Math.floor((y0 - Math.max(...ys)) / period.y),
      r1: Math.ceil((y1 - Math.min(...ys)) / period.y),
    };
  });
  if (spans.reduce((sum, s) => sum + (s.c1 - s.c0 + 1) * (s.r1 - s.r0 + 1), 0) > MOST_UNITS)
    throw new RangeError(`More than ${MOST_UNITS} units would have to be laid out.`);
  const border = new Border(regions);
  let [whole, cut, covered] = [0, 0, 0];
  tiling.units.forEach((unit, i) => {
    const full = signedArea(unit.ring);
    const { c0, c1, r0, r1 } = spans[i];
    for (let c = c0; c <= c1; c++)
      for (let r = r0; r <= r1; r++) {
        const ring = unit.ring.map((p) => fromPattern(placing, { x: p.x + c * period.x, y: p.y + r * period.y }));
        const crossing = border.crossing(ring);
        if (!crossing.length) {
          if (!border.inside(middle(ring))) continue;
          whole++;
          covered += full;
          units.push({ parts: [ring], whole: true, area: full, width: unit.width, height: unit.height });
          continue;
        }
        const { parts, area: own } = border.clip(ring, crossing);
        // A unit that only loses the rounding of its edges is whole; a shaving of it is none.
        if (own < full * HAIR) continue;
        const size = extentOf(parts, unit, placing);
        if (Math.min(size.width, size.height) < SHAVING) continue;
        const complete = own > full * (1 - HAIR);
        if (complete) whole++;
        else cut++;
        covered += own;
        units.push({ parts, whole: complete, area: own, ...(complete ? { width: unit.width, height: unit.height } : size) });
      }
  });
  return { units, whole, cut, covered, area };
}

function extentOf(parts: readonly Ring[], unit: PatternUnit, placing: Placing): { width: number; height: number } {
  const [c, s] = [Math.cos(placing.angle), Math.sin(placing.angle)];
  return extent(parts, { x: unit.along.x * c - unit.along.y * s, y: unit.along.x * s + unit.along.y * c });
}

/** Width of a saw cut, metres. */
const KERF = 0.003;

/**
 * How many units must be had for a layout: every whole one, and as many more as the cut ones are sawn from. What is left of
 * a unit serves a second time only where the next piece fits into it, the way it lies (first fit, largest pieces first).
 *
 * @param units of one layout, or of several laid with the same units
 */
export function unitsNeeded(units: readonly LaidUnit[], laying: Laying): number {
  const whole = units.filter((u) => u.whole).length;
  const straight = !['hexagon', 'octagon', 'chevron'].includes(laying.pattern);
  const pieces = units.filter((u) => !u.whole).sort((a, b) => b.width * b.height - a.width * a.height);
  const size = { width: laying.width, height: laying.height };
  let opened = 0;
  const rests: { width: number; height: number }[] = [];
  for (const piece of pieces) {
    const at = straight ? rests.findIndex((r) => r.width >= piece.width - NEAR && r.height >= piece.height - NEAR) : -1;
    const from = at >= 0 ? rests.splice(at, 1)[0] : (opened++, size);
    if (!straight) continue;
    // One straight cut across, one along: the larger rest is kept whole.
    const right = { width: from.width - piece.width - KERF, height: from.height };
    const above = { width: Math.min(from.width, piece.width), height: from.height - piece.height - KERF };
    for (const rest of [right, above]) if (rest.width > 0.01 && rest.height > 0.01) rests.push(rest);
  }
  return whole + opened;
}
