import { clipRegions } from '../geometry/clipping';
import { MeshBuilder, placement, type Mesh } from '../geometry/mesh';
import { insideRegion, insideRing, ringDistance, signedArea, tidyRing, withoutSpikes } from '../geometry/polygon';
import type { Region, Ring } from '../geometry/region';
import { isLight } from '../geometry/shapes';
import { slab, type Arris, type Pocket } from '../geometry/slab';
import { add, cross, distance, dot, left, scale, segmentDistance, sub, unit, type Vec2 } from '../geometry/vec';
import type { Run, WorktopEdge } from '../project/schema/cabinets';
import { DUST, HAIR, TOUCH } from '../units/tolerance';
import type { Stretch } from './leg';
import { coverOf, stretchOn, type BackLine, type PlacedUnit } from './run';
import { slabsOf, type Slabs } from './slabs';

/** How far the arris of an edge goes in and down, metres. */
const ARRIS: Readonly<Record<WorktopEdge, number>> = { square: 0, eased: 0.002, rounded: 0.012, bevelled: 0.008 };

/** The arris of the upper edges of a slab whose upper face is so high. */
function arrisOf(edge: WorktopEdge, z0: number, z1: number): Arris {
  const by = Math.min(ARRIS[edge], (z1 - z0) / 2);
  if (by === 0) return [[0, z1]];
  const steps = edge === 'bevelled' ? 1 : isLight() ? 2 : 6;
  return Array.from({ length: steps + 1 }, (_, k): [number, number] => {
    const a = (Math.PI / 2) * (k / steps);
    return edge === 'bevelled' ? [by * k, z1 - by * (1 - k)] : [by * (1 - Math.cos(a)), z1 - by * (1 - Math.sin(a))];
  });
}

/** A slab of worktop between two heights, its upper edges as is said, all of them alike unless some are said to have less. */
export const slabOf = (
  regions: readonly Region[],
  z0: number,
  z1: number,
  edge: WorktopEdge,
  ratio: (a: Vec2, b: Vec2) => number = () => 1,
  pockets: readonly Pocket[] = [],
): Mesh => slab(regions, z0, arrisOf(edge, z0, z1), ratio, pockets);

/** How far edges at joints and at cut-outs go in at most, metres: a hair where slabs meet, a finger's touch where one reaches in. */
const GENTLE = { joint: 0.0003, cut: 0.002 } as const;

/** How far grooves are sunk where they begin and where they run out, metres. */
const GROOVE = { wide: 0.009, apart: 0.032, long: 0.42, least: 0.15, high: 0.0015, low: 0.006, round: 0.06, edge: 0.06, over: 0.004 } as const;

/** A groove that drains into a sink: its outline in the plan, from its far end to the sink. */
export interface Groove {
  ring: Ring;
  far: Vec2;
  mouth: Vec2;
}

/**
 * Grooves beside a cut-out, that run out over its edge.
 *
 * @param cut its outline, in axes whose x runs along the run
 * @param side at which they lie
 * @param place of a point of these axes in the plan
 * @param front where the front edge of the worktop lies in these axes, metres
 * @param slabs the worktop, in the plan: grooves end before its edges
 */
export function groovesBeside(cut: Ring, side: 'left' | 'right', front: number, place: (p: Vec2) => Vec2, slabs: readonly Region[]): Groove[] {
  const way = side === 'left' ? -1 : 1;
  const edge = side === 'left' ? Math.min(...cut.map((p) => p.x)) : Math.max(...cut.map((p) => p.x));
  const low = Math.max(Math.min(...cut.map((p) => p.y)) + GROOVE.round, front + 2 * GROOVE.edge);
  const high = Math.min(Math.max(...cut.map((p) => p.y)) - GROOVE.round, -2 * GROOVE.edge);
  const n = Math.floor((high - low) / GROOVE.apart) + 1;
  if (n < 2) return [];
  const first = (low + high) / 2 - ((n - 1) * GROOVE.apart) / 2;
  // All are as long as the one that has least room.
  const free = (long: number): boolean =>
    [first - GROOVE.edge, first + (n - 1) * GROOVE.apart + GROOVE.edge].every((y) => {
      const p = place({ x: edge + way * (long + GROOVE.edge), y });
      return slabs.some((r) => insideRegion(p, r));
    });
  let { long } = GROOVE as { long: number };
  while (long >= GROOVE.least && !free(long)) long -= 0.05;
  if (long < GROOVE.least) return [];
  const r = GROOVE.wide / 2;
  return Array.from({ length: n }, (_, k): Groove => {
    const y = first + k * GROOVE.apart;
    const steps = isLight() ? 2 : 6;
    const round = Array.from({ length: steps + 1 }, (_, j): Vec2 => {
      const a = Math.PI / 2 + (Math.PI * j) / steps;
      return { x: edge + way * (long - r) - way * r * Math.cos(a), y: y + r * Math.sin(a) };
    });
    const ring = [...round, { x: edge - way * GROOVE.over, y: y - r }, { x: edge - way * GROOVE.over, y: y + r }].map(place);
    return { ring: signedArea(ring) < 0 ? ring.reverse() : ring, far: place({ x: edge + way * long, y }), mouth: place({ x: edge, y }) };
  });
}

/** The slabs of a worktop as solids between two heights, each in the axes of its leg: its grain runs along that. */
export function slabMeshes(
  { slabs, regions, cutOuts, walls, grooves, joints }: Worktop,
  legs: readonly BackLine[],
  z0: number,
  z1: number,
  edge: WorktopEdge,
): Mesh[] {
  const by = Math.max(ARRIS[edge], DUST);
  const turns = joints.some((j) => j.corner !== null);
  const rings = regions.flatMap((r) => [r.outer, ...r.holes]);
  const nearest = (p: Vec2, all: readonly Ring[]): number => Math.min(Infinity, ...all.map((ring) => ringDistance(p, ring)));
  return slabs.map(({ leg, regions: own }, i) => {
    const { from, to } = legs[leg];
    const d = unit(sub(to, from));
    const local = (p: Vec2): Vec2 => ({ x: dot(sub(p, from), d), y: cross(d, sub(p, from)) });
    const world = (p: Vec2): Vec2 => add(add(from, scale(d, p.x)), scale(left(d), p.y));
    const ratio = (a: Vec2, b: Vec2): number => {
      const p = world({ x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 });
      if (walls.some(([q, r]) => segmentDistance(p, q, r) < AT_WALL)) return 0;
      if (nearest(p, rings) > TOUCH) return Math.min(1, GENTLE.joint / by);
      if (nearest(p, cutOuts) < TOUCH) return grooves.length ? 0 : Math.min(1, GENTLE.cut / by);
      return 1;
    };
    // What is cut by a line that goes on as the edge of another slab has a corner there.
    const ends = turns ? slabs.flatMap((s) => (s === slabs[i] ? [] : s.regions.flatMap((r) => r.outer))) : [];
    const parted = (ring: Ring): Ring =>
      !turns
        ? ring
        : ring.flatMap((p, k) => {
            const q = ring[(k + 1) % ring.length];
            const between = ends.filter((e) => segmentDistance(e, p, q) < TOUCH && distance(e, p) > HAIR && distance(e, q) > HAIR);
            return [p, ...between.sort((e, f) => distance(e, p) - distance(f, p))];
          });
    const place = (ring: Ring): Ring => parted(ring).map(local);
    const pockets = grooves.flatMap(({ ring, far, mouth }): Pocket[] => {
      const [a, b] = [local(far), local(mouth)];
      const floor = (p: Vec2): number => z1 - GROOVE.high - (GROOVE.low - GROOVE.high) * ((p.x - a.x) / (b.x - a.x));
      return own.some((r) => insideRing(far, r.outer)) ? [{ ring: ring.map(local), floor }] : [];
    });
    const made = slabOf(
      own.map(({ outer, holes }) => ({ outer: place(outer), holes: holes.map((h) => h.map(local)) })),
      z0,
      z1,
      edge,
      ratio,
      pockets,
    );
    // Slabs are sawn from other places of the stone or the tree.
    const uvs = made.uvs.map((t, k) => (k % 2 ? t : t + i * APART));
    return new MeshBuilder().add({ ...made, uvs }, placement(from.x, from.y, 0, Math.atan2(d.y, d.x))).build();
  });
}

/** How far the patterns of slabs lie apart, metres. */
const APART = 0.731;

/** What is nearer to a wall is at it, metres. */
const AT_WALL = 0.002;

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
export interface Worktop extends Slabs {
  /** Its outline in the plan, cut-outs taken out. */
  regions: Region[];
  /** Where it runs along each leg, one after another where something interrupts it, metres. */
  stretches: (Stretch & { leg: number })[];
  /** What is taken out of it. */
  cutOuts: readonly Ring[];
  /** Lines of the walls it lies at. */
  walls: readonly (readonly [Vec2, Vec2])[];
  grooves: readonly Groove[];
  /** The part of it for seats that lies higher, in the plan. */
  raised: Region[];
}

const whole = (ring: Ring): Region => ({ outer: ring, holes: [] });

/** What a worktop is laid on, and how. */
export interface Laying {
  legs: readonly BackLine[];
  /** Units it lies on. */
  under: readonly PlacedUnit[];
  /** In front of them, metres. */
  overhang: number;
  slabs: Run['slabs'];
  /** Of sinks, hobs and taps, in the plan. */
  cutOuts?: readonly Ring[];
  /** Rings it covers besides: of end panels, and what stands out behind what stands free. */
  beyond?: readonly Ring[];
  /** How its corners are, and which of them are free. */
  corner?: { corners: Run['corners']; free(p: Vec2): boolean };
  /** Lines of the walls it lies at. */
  walls?: Worktop['walls'];
  /** Grooves in it, of its outline. */
  grooved?(regions: readonly Region[]): Groove[];
}

/** A worktop over units, as deep as they are and standing out before them. */
export function worktopOf({ legs, under, overhang, slabs, cutOuts = [], beyond = [], corner, walls = [], grooved }: Laying): Worktop {
  const covers = [...under.map((u) => coverOf(u, legs, u.depth + overhang)), ...beyond].map(whole);
  const square = covers.length ? withoutSpikes(clipRegions('union', covers, [])) : [];
  const outline = corner ? square.map((r) => ({ ...r, outer: withCorners(r.outer, corner.corners, corner.free) })) : square;
  const regions = cutOuts.length ? clipRegions('difference', outline, cutOuts.map(whole)) : outline;
  const grooves = grooved?.(regions) ?? [];
  // No joint runs through grooves.
  const kept = [...cutOuts, ...grooves.map((g) => g.ring)];
  return { regions, stretches: stretchesOf(legs, under), cutOuts, walls, grooves, raised: [], ...slabsOf(regions, legs, under, overhang, slabs, kept) };
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
