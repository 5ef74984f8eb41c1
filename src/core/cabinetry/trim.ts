import { prism } from '../geometry/extrude';
import type { Mesh } from '../geometry/mesh';
import { clipRegions } from '../geometry/clipping';
import { withoutSpikes } from '../geometry/polygon';
import type { Region, Ring } from '../geometry/region';
import { closedSection, sweep, type SweepStretch } from '../geometry/sweep';
import { add, cross, distance, left, scale, sub, unit as unitVector, type Vec2, type Vec3 } from '../geometry/vec';
import type { Cabinet, Construction, Run, RunLook } from '../project/schema/cabinets';
import { NEAR } from '../units/tolerance';
import { goesUnder, isWithoutFronts, standsItself, whatIs } from './fittings';
import { frontOut } from './front';
import { PLINTH } from './plinth';
import type { Stretch } from './leg';
import { meeting, stretchOn, type BackLine, type PlacedUnit } from './run';
import type { Obstacle } from './sides';

/** What a unit takes of one leg, as far as it matters to what ends at it. Heights above the floor, metres. */
interface Span extends Stretch {
  unit: Cabinet;
  placed: PlacedUnit;
  leg: number;
  foot: number;
  top: number;
  depth: number;
}

/** What is seen of one side of a unit. */
type Side = 'left' | 'right';

/** A board that stands upright along a run: its ring in the plan, from where to where it goes up. Metres. */
export interface Upright {
  ring: Ring;
  z0: number;
  z1: number;
}

/** Something that runs along the fronts of units, and round free ends to the wall. */
export interface Edging {
  stretches: SweepStretch[];
  z: number;
}

/** What finishes a run at its ends and edges. */
export interface Trim {
  /** End panels, and the back of what stands free. */
  panels: Upright[];
  /** Ends of the worktop that go down to the floor. */
  falls: Upright[];
  /** The strip of worktop along the wall. */
  upstands: (Stretch & { leg: number })[];
  /** What of the plan panels and falls add to the worktop: along legs. */
  beyond: (Stretch & { leg: number; depth: number })[];
  /** Sides no neighbour covers and no panel finds room beside. */
  clad: ReadonlyMap<string, Side[]>;
  cornices: Edging[];
  pelmets: Edging[];
  /** Where the plinth returns to the wall, at ends no panel closes, in the plan. */
  returns: Ring[];
  /** Boards over hung and tall units, up to the ceiling. */
  infills: Upright[];
}

/** How near a wall a row still ends at it: closer than this nothing shows, metres. */
const AT_WALL = 0.02;

/** Panels stand a hair off the wall, where skirtings run, metres. */
const OFF_WALL = 0.0006;

/** What is lower under the ceiling is not closed, metres. */
const LEAST_INFILL = 0.01;

/** Thickness of upstands, metres. */
const UPSTAND = 0.015;

const along = ({ from, to }: BackLine): Vec2 => unitVector(sub(to, from));

/** A point along a leg, so far before its line. */
const before = (line: BackLine, at: number, by: number): Vec2 => {
  const d = along(line);
  return add(add(line.from, scale(d, at)), scale(left(d), -by));
};

/** A rectangle along a leg, from so far before its line to so far before it. */
const strip = (line: BackLine, { from, to }: Stretch, near: number, far: number): Ring => [
  before(line, from, near),
  before(line, from, far),
  before(line, to, far),
  before(line, to, near),
];

interface Trimmed {
  run: Pick<Run, 'made' | 'legs' | 'ends' | 'falls' | 'upstand' | 'behind' | 'raised' | 'infill'> & Pick<RunLook, 'cornices' | 'pelmet'>;
  legs: readonly BackLine[];
  floor: readonly PlacedUnit[];
  hung: readonly PlacedUnit[];
  unitOf(id: string): Cabinet;
  sizeOf(unit: Cabinet): { height: number; depth: number };
  wallFoot: number;
  /** Height of the ceiling above the floor they stand on, metres; null: none they could go up to. */
  ceiling: number | null;
}

/**
 * What finishes a run: panels at free ends, falls of the worktop, upstands, and where cornice and pelmet run. A side is covered by
 * a wall, or by a neighbour that is as high and as deep; else it shows.
 */
export function trimOf({ run, legs, floor, hung, unitOf, sizeOf, wallFoot, ceiling }: Trimmed): Trim {
  const { made } = run;
  const free = (leg: number): boolean => run.legs[leg]?.kind === 'free';
  const spansOf = (placed: readonly PlacedUnit[]): Span[] =>
    placed.flatMap((p) => {
      const unit = unitOf(p.id);
      if (unit.bare === 'space') return [];
      const { height, depth } = sizeOf(unit);
      const foot = unit.band === 'wall' ? wallFoot : made.stands === 'plinth' ? 0 : made.plinth;
      const top = (unit.band === 'wall' ? wallFoot : made.plinth) + height;
      return legs.flatMap((_, leg): Span[] => {
        const stretch = stretchOn(p, legs, leg);
        return stretch ? [{ ...stretch, unit, placed: p, leg, foot, top, depth }] : [];
      });
    });
  const standing = spansOf(floor);
  const hanging = spansOf(hung);
  const all = [...standing, ...hanging];
  const length = (leg: number): number => distance(legs[leg].from, legs[leg].to);
  /** What covers an end: a wall, a neighbour; or how much room there is beside it. */
  const beside = (s: Span, side: Side): { covered: true } | { covered: false; touched: boolean; room: number } => {
    const at = side === 'left' ? s.from : s.to;
    const toWall = free(s.leg) ? Infinity : side === 'left' ? at : length(s.leg) - at;
    const end = legs[s.leg].ends?.[side === 'left' ? 0 : 1] ?? 'wall';
    if (toWall < AT_WALL && end === 'wall') return { covered: true };
    let room = end === 'nothing' ? Infinity : toWall;
    let touched = false;
    for (const o of all) {
      if (o === s || o.leg !== s.leg || o.top < s.foot + NEAR || o.foot > s.top - NEAR) continue;
      const gap = side === 'left' ? at - o.to : o.from - at;
      if (gap < -NEAR) {
        // A corner unit goes on round the corner, and covers what lies within it.
        if (o.placed === s.placed || (o.from < at - NEAR && o.to > at + NEAR)) return { covered: true };
        continue;
      }
      if (gap < NEAR) {
        if (o.foot <= s.foot + NEAR && o.top >= s.top - NEAR && o.depth >= s.depth - NEAR) return { covered: true };
        touched = true;
      }
      room = Math.min(room, gap);
    }
    return { covered: false, touched, room };
  };
  const out: Trim = { panels: [], falls: [], upstands: [], beyond: [], clad: new Map(), cornices: [], pelmets: [], returns: [], infills: [] };
  const clad = new Map<string, Side[]>();
  const outward = new Map<string, number>();
  const t = made.front;
  // Sides that go down to the floor want no plinth beside them.
  const onPlinth = made.plinth > 0 && made.stands === 'plinth' && (made.build === 'frameless' || made.build === 'in-frame');
  const bases = standing.filter((s) => s.unit.band === 'base');
  const isOutermost = (s: Span, side: Side): boolean =>
    side === 'left'
      ? !bases.some((o) => o.leg < s.leg || (o.leg === s.leg && o.from < s.from - NEAR))
      : !bases.some((o) => o.leg > s.leg || (o.leg === s.leg && o.to > s.to + NEAR));
  for (const s of all) {
    if (s.unit.bare || (s.unit.band === 'wall' && isWithoutFronts(s.unit))) continue;
    // Beside a range cooker nothing ends.
    const alone = standsItself(s.unit) && !underWorktop(s.unit, made);
    if (alone) continue;
    for (const side of ['left', 'right'] as const) {
      const found = beside(s, side);
      if (found.covered) continue;
      const falls = s.unit.band === 'base' && !found.touched && (run.falls === 'both' || run.falls === side) && isOutermost(s, side);
      const thick = falls ? made.worktop.thickness : t;
      const fits = !found.touched && found.room >= thick - NEAR;
      if (falls && fits) {
        const stretch = side === 'left' ? { from: s.from - thick, to: s.from } : { from: s.to, to: s.to + thick };
        out.falls.push({ ring: strip(legs[s.leg], stretch, 0, s.depth + made.worktop.overhang), z0: 0, z1: s.top });
        out.beyond.push({ ...stretch, leg: s.leg, depth: s.depth });
        continue;
      }
      if (run.ends === 'panels' && fits) {
        const stretch = side === 'left' ? { from: s.from - t, to: s.from } : { from: s.to, to: s.to + t };
        // What stands free has a back that its ends cover.
        out.panels.push({ ring: strip(legs[s.leg], stretch, free(s.leg) ? -t : OFF_WALL, s.depth + frontOut(made)), z0: s.foot, z1: s.top });
        outward.set(`${s.unit.id} ${side}`, t);
        if (s.unit.band === 'base') out.beyond.push({ ...stretch, leg: s.leg, depth: s.depth });
        continue;
      }
      if (onPlinth && s.unit.band !== 'wall') {
        const end = side === 'left' ? { from: s.from, to: s.from + PLINTH } : { from: s.to - PLINTH, to: s.to };
        out.returns.push(strip(legs[s.leg], end, OFF_WALL, s.depth - made.toe - PLINTH));
      }
      if (run.ends === 'panels') clad.set(s.unit.id, [...(clad.get(s.unit.id) ?? []), side]);
    }
  }
  out.clad = clad;
  // What stands free without a panel behind it shows its plinth there too.
  if (run.ends === 'bare' && onPlinth) for (const s of standing) if (free(s.leg)) out.returns.push(strip(legs[s.leg], s, 0, PLINTH));
  if (run.ends === 'panels')
    for (const s of standing)
      if (free(s.leg) && !s.unit.bare) {
        // The back goes on up to what lies higher for seats.
        const bears = run.raised > 0 && run.behind > 0 && s.unit.band === 'base' && !s.placed.corner;
        out.panels.push({ ring: strip(legs[s.leg], s, -t, 0), z0: s.foot, z1: s.top + (bears ? run.raised : 0) });
      }
  if (run.upstand > 0) for (const s of [...bases, ...out.beyond]) if (!free(s.leg)) out.upstands.push({ leg: s.leg, from: s.from, to: s.to });
  const edges = (rows: readonly PlacedUnit[], spans: readonly Span[], height: (s: Span) => number): Edging[] =>
    groupsOf(rows, spans, height).map((group) => edgeOf(group, legs, frontOut(made), height, (id, side) => outward.get(`${id} ${side}`) ?? 0, beside));
  if (run.cornices.length) {
    const tall = standing.filter((s) => s.unit.band === 'tall');
    out.cornices = [
      ...edges(hung, hanging, (s) => s.top),
      ...edges(
        floor.filter((p) => unitOf(p.id).band === 'tall'),
        tall,
        (s) => s.top,
      ),
    ];
  }
  if (run.infill && ceiling !== null)
    for (const s of all) {
      if (s.unit.band === 'base' || s.unit.bare || (s.unit.band === 'wall' && isWithoutFronts(s.unit))) continue;
      if (ceiling - s.top < LEAST_INFILL) continue;
      const between = { z0: s.top, z1: ceiling - OFF_WALL };
      const face = s.depth + frontOut(made);
      // A board in the plane of the fronts, cut short where the next leg turns; and one back to the wall at ends that show.
      const turn = s.placed.corner && s.placed.corner !== 'diagonal' ? { first: s.leg < legs.length - 1 && s.to > length(s.leg) - NEAR } : null;
      const [from, to] = turn ? (turn.first ? [s.from, s.to - s.depth] : [s.from + s.depth, s.to]) : [s.from, s.to];
      if (to - from > NEAR) out.infills.push({ ring: strip(legs[s.leg], { from, to }, face - t, face), ...between });
      for (const side of ['left', 'right'] as const) {
        const found = beside(s, side);
        if (found.covered) continue;
        const end = side === 'left' ? { from: s.from, to: s.from + t } : { from: s.to - t, to: s.to };
        out.infills.push({ ring: strip(legs[s.leg], end, free(s.leg) ? 0 : OFF_WALL, face - t), ...between });
      }
    }
  if (run.pelmet > 0) out.pelmets = edges(hung, hanging, (s) => s.foot);
  return out;
}

/**
 * Where the upstand of a worktop stands: along the wall, and round what stands out from it.
 *
 * @param obstacles what stands out above the worktop
 */
export function upstandOf(along: Trim['upstands'], legs: readonly BackLine[], obstacles: readonly Obstacle[]): Region[] {
  if (!along.length) return [];
  const whole = (outer: Ring): Region => ({ outer, holes: [] });
  const strips = along.flatMap((s) => {
    const own = obstacles.filter((o) => o.leg === s.leg).map((o) => ({ ...o, from: Math.max(s.from, o.from - UPSTAND), to: Math.min(s.to, o.to + UPSTAND) }));
    return [strip(legs[s.leg], s, 0, UPSTAND), ...own.filter((o) => o.to > o.from + NEAR).map((o) => strip(legs[o.leg], o, 0, o.depth + UPSTAND))];
  });
  const round = clipRegions('union', strips.map(whole), []);
  const out = obstacles.map((o) => whole(strip(legs[o.leg], o, 0, o.depth)));
  return out.length ? withoutSpikes(clipRegions('difference', round, out)) : round;
}

/** Whether what stands in a unit is low enough for the worktop to go over it. */
export const underWorktop = ({ fittings }: Pick<Cabinet, 'fittings'>, made: Construction): boolean =>
  fittings.every((f) => {
    const what = whatIs(f);
    return !what || what.how !== 'stands' || goesUnder(f, what.item, made.plinth + made.base.height);
  });

/** Units that follow one another without a gap at one height and depth, as one edge. */
function groupsOf(rows: readonly PlacedUnit[], spans: readonly Span[], height: (s: Span) => number): Span[][] {
  const groups: Span[][] = [];
  for (const placed of rows) {
    const own = spans.filter((s) => s.placed === placed).sort((a, b) => a.leg - b.leg);
    if (!own.length || isWithoutFronts(own[0].unit) || own[0].unit.bare) continue;
    const group = groups.at(-1);
    const last = group?.at(-1);
    const first = own[0];
    const goesOn =
      last &&
      last.leg === first.leg &&
      Math.abs(last.to - first.from) < NEAR &&
      Math.abs(height(last) - height(first)) < NEAR &&
      Math.abs(last.depth - first.depth) < NEAR;
    if (goesOn) group!.push(...own);
    else groups.push([...own]);
  }
  return groups;
}

/** The way along the fronts of a group of units, with returns to the wall at ends that show. */
function edgeOf(
  group: readonly Span[],
  legs: readonly BackLine[],
  front: number,
  height: (s: Span) => number,
  outward: (id: string, side: Side) => number,
  beside: (s: Span, side: Side) => { covered: boolean },
): Edging {
  const z = height(group[0]);
  const deep = group[0].depth + front;
  const [first, last] = [group[0], group[group.length - 1]];
  const start = first.from - outward(first.unit.id, 'left');
  const end = last.to + outward(last.unit.id, 'right');
  const points: Vec2[] = [before(legs[first.leg], start, deep)];
  for (let leg = first.leg; leg < last.leg; leg++) {
    const corner = group.find((s) => s.placed.corner && s.leg === leg && group.some((o) => o.placed === s.placed && o.leg === leg + 1));
    const next = group.find((s) => s.placed === corner?.placed && s.leg === leg + 1);
    const [p, q] = [before(legs[leg], corner?.from ?? 0, deep), before(legs[leg + 1], next?.to ?? 0, deep)];
    if (corner?.placed.corner === 'diagonal') points.push(p, q);
    else points.push(meeting(p, along(legs[leg]), q, along(legs[leg + 1])));
  }
  points.push(before(legs[last.leg], end, deep));
  if (!beside(first, 'left').covered) points.unshift(before(legs[first.leg], start, 0));
  if (!beside(last, 'right').covered) points.push(before(legs[last.leg], end, 0));
  const at = (p: Vec2): Vec3 => ({ ...p, z });
  const stretches: SweepStretch[] = [];
  points.forEach((p, i) => {
    const q = points[i + 1];
    if (!q || distance(p, q) < NEAR) return;
    const d = unitVector(sub(q, p));
    const o = scale(left(d), -1);
    const before_ = stretches.at(-1);
    // What goes straight on is one stretch.
    if (before_ && Math.abs(cross({ x: before_.to.x - before_.from.x, y: before_.to.y - before_.from.y }, d)) < NEAR) before_.to = at(q);
    else stretches.push({ from: at(p), to: at(q), out: { ...o, z: 0 } });
  });
  return { stretches, z };
}

/** A board that stands upright, as a solid. */
export const uprights = (boards: readonly Upright[]): Mesh[] => boards.map(({ ring, z0, z1 }) => prism([{ outer: ring, holes: [] }], z0, z1));

/** A moulding along an edge. @param section closed or open at its back, x before the fronts, y up from the edge */
export const swept = ({ stretches }: Edging, section: readonly Vec2[], out = 0, up = 0): Mesh =>
  sweep(
    closedSection(section).map((p) => ({ x: p.x + out, y: p.y + up })),
    stretches,
    false,
  );

/** The light rail under what hangs, as a section that stands behind the fronts. */
export const pelmetSection = (high: number, thick: number): Vec2[] => [
  { x: -thick, y: -high },
  { x: 0, y: -high },
  { x: 0, y: 0 },
  { x: -thick, y: 0 },
];

/** Metres along an edging, returns and all, measured where it lies on the fronts. */
export const lengthOf = ({ stretches }: Edging): number => stretches.reduce((sum, s) => sum + Math.hypot(s.to.x - s.from.x, s.to.y - s.from.y), 0);
