import { placement, type Matrix } from '../geometry/mesh';
import { add, cross, distance, dot, left, scale, sub, unit as unitVector, type Vec2 } from '../geometry/vec';
import type { Ring } from '../geometry/region';
import type { CornerForm } from '../project/schema/cabinets';
import { DUST } from '../units/tolerance';
import { layLeg, type Pin, type Stretch } from './leg';

/** What a leg ends at. */
export type LegEnd = 'wall' | 'way' | 'nothing';

/** The line the backs of units stand on, from left to right as one sees it from the room. Metres. */
export interface BackLine {
  from: Vec2;
  to: Vec2;
  /** What is at its ends: a wall, the way of a door, nothing. Left out: walls. */
  ends?: readonly [LegEnd, LegEnd];
  /** Middles of openings in its wall that units keep to, by id, metres along it. */
  middles?: Readonly<Record<string, number>>;
}

/** What is laid along the legs of a run. */
export interface RunUnit {
  id: string;
  /** Metres along its leg; of a corner unit along both legs; null: shares what is left. */
  width: number | null;
  depth: number;
  /** It stands in the corner between two legs, and what follows is on the next one. */
  corner?: CornerForm;
  /** It stands with its middle there, metres along its leg. */
  middle?: number;
}

/** A unit where it stands in the plan. */
export interface PlacedUnit {
  id: string;
  leg: number;
  /** Along its leg, metres. */
  stretch: Stretch;
  /** Of a corner unit, its part along the leg it ends at and along the next. */
  arms?: [number, number];
  corner?: CornerForm;
  /** Its axes: x along the run to the right, y to the back, from its back left corner as one sees it. */
  matrix: Matrix;
  width: number;
  depth: number;
  footprint: Ring;
}

export interface LaidRun {
  units: PlacedUnit[];
  /** What is left on each leg, in order. */
  gaps: (Stretch & { leg: number })[];
  /** By how much units are too long for their leg, metres; 0 where they fit. */
  lacks: number[];
}

/** Room a corner unit that is blind leaves beside the fronts of the next leg, for handles, metres. */
export const BLIND_FILLER = 0.05;

/** Legs that turn by hardly anything, or back on themselves, make no corner: this is the least sine of the angle between them. */
const LEAST_SINE = 0.2;

/** Direction of a leg. */
const along = ({ from, to }: BackLine): Vec2 => unitVector(sub(to, from));

/** Straight out of the wall, into the room: units look there. */
const out = (d: Vec2): Vec2 => scale(left(d), -1);

/** Where two lines meet, each through a point along a direction; the second point where they run side by side. */
export function meeting(p: Vec2, d: Vec2, q: Vec2, e: Vec2): Vec2 {
  const c = cross(d, e);
  return Math.abs(c) < DUST ? q : add(p, scale(d, cross(sub(q, p), e) / c));
}

/**
 * How much of each leg a corner unit takes. An L and a diagonal one take their width of both; a blind one takes its width of
 * the leg it lies on, and of the other what its front and a filler take there. In narrow corners fronts meet further out.
 */
export function armsOf({ corner, width, depth }: RunUnit, first: BackLine, second: BackLine): [number, number] {
  const [d, e] = [along(first), along(second)];
  const [cosine, sine] = [-dot(d, e), Math.max(LEAST_SINE, Math.abs(cross(d, e)))];
  // How far from the corner a front as deep stands free, at its foot and at its face.
  const clear = depth * Math.max(1 / sine, (1 + cosine) / sine) + BLIND_FILLER;
  const w = width ?? 0;
  if (corner === 'blind left') return [w, clear];
  if (corner === 'blind right') return [clear, w];
  return [Math.max(w, clear), Math.max(w, clear)];
}

/**
 * Stands the units of a run along its legs: one after another, corner units in the corners where two legs meet, the rest packed
 * against them. On a leg between two corners they begin at the first.
 *
 * @param legs each begins where the one before it ends
 * @param units in order; each with a corner is followed by those of the next leg
 * @param packed on a leg without a corner, the end at which units lie together
 * @param start on a first leg without a corner at its end, how far from its beginning (or end) units begin, metres
 */
export function layRun(legs: readonly BackLine[], units: readonly RunUnit[], packed: 'start' | 'end' = 'start', start = 0, least = 0.1): LaidRun {
  const laid: LaidRun = { units: [], gaps: [], lacks: [] };
  const rows: RunUnit[][] = [[]];
  const corners: RunUnit[] = [];
  for (const unit of units) {
    if (unit.corner && corners.length < legs.length - 1) {
      corners.push(unit);
      rows.push([]);
    } else rows[rows.length - 1].push(unit);
  }
  const arms = corners.map((c, i) => armsOf(c, legs[i], legs[i + 1]));
  legs.forEach((leg, i) => {
    const row = rows[i] ?? [];
    const [before, behind] = [i > 0 && i <= corners.length, i < corners.length];
    const length = distance(leg.from, leg.to);
    const way = before ? 'start' : behind ? 'end' : packed;
    const first = before ? arms[i - 1][1] : way === 'start' ? start : 0;
    const last = behind ? arms[i][0] : way === 'end' && !before ? start : 0;
    const pins: Pin[] = row.flatMap((u, k) => (u.middle === undefined ? [] : [{ unit: k, middle: u.middle - first }]));
    const own = layLeg(
      length - first - last,
      row.map((u) => u.width),
      pins,
      way,
      least,
      before,
    );
    const shift = ({ from, to }: Stretch): Stretch => ({ from: from + first, to: to + first });
    row.forEach((u, k) => laid.units.push(placed(u, i, leg, shift(own.units[k]))));
    for (const g of own.gaps) laid.gaps.push({ ...shift(g), leg: i });
    if (!before && first > DUST) laid.gaps.unshift({ from: 0, to: first, leg: i });
    if (!behind && last > DUST) laid.gaps.push({ from: length - last, to: length, leg: i });
    laid.lacks.push(own.lacks);
    if (behind) laid.units.push(inCorner(corners[i], i, leg, legs[i + 1], arms[i]));
  });
  return laid;
}

function placed(u: RunUnit, leg: number, line: BackLine, stretch: Stretch): PlacedUnit {
  const d = along(line);
  const at = add(line.from, scale(d, stretch.from));
  const own = { id: u.id, leg, stretch, matrix: placement(at.x, at.y, 0, Math.atan2(d.y, d.x)), width: stretch.to - stretch.from, depth: u.depth };
  return { ...own, footprint: straight(line, stretch, u.depth) };
}

/** A unit in the corner where two legs meet. One that runs on blind along the second leg is a unit of that leg. */
function inCorner(u: RunUnit, leg: number, line: BackLine, next: BackLine, arms: [number, number]): PlacedUnit {
  const length = distance(line.from, line.to);
  const second = u.corner === 'blind right';
  const on = second ? next : line;
  const stretch = second ? { from: 0, to: arms[1] } : { from: length - arms[0], to: length };
  const d = along(on);
  const at = add(on.from, scale(d, stretch.from));
  return {
    id: u.id,
    leg: second ? leg + 1 : leg,
    stretch,
    arms,
    corner: u.corner,
    matrix: placement(at.x, at.y, 0, Math.atan2(d.y, d.x)),
    width: stretch.to - stretch.from,
    depth: u.depth,
    footprint: cornered(u.corner!, line, next, arms, u.depth),
  };
}

/** A stretch of a leg, as deep as is said. */
export const straight = (line: BackLine, { from, to }: Stretch, depth: number): Ring => {
  const d = along(line);
  const [a, b] = [add(line.from, scale(d, from)), add(line.from, scale(d, to))];
  const o = scale(out(d), depth);
  return [a, add(a, o), add(b, o), b];
};

/** The footprint of a corner unit: it follows both legs, whatever the angle between them. */
function cornered(corner: CornerForm, line: BackLine, next: BackLine, arms: [number, number], depth: number): Ring {
  const [d, e] = [along(line), along(next)];
  const turn = line.to;
  const a = add(turn, scale(d, -arms[0]));
  const b = add(turn, scale(e, arms[1]));
  const [fa, fb] = [add(a, scale(out(d), depth)), add(b, scale(out(e), depth))];
  switch (corner) {
    case 'diagonal':
      return [a, fa, fb, b, turn];
    case 'blind left':
      // It runs into the corner along the first leg, to the wall of the next.
      return [a, fa, meeting(fa, d, turn, e), turn];
    case 'blind right':
      return [turn, meeting(fb, e, turn, d), fb, b];
    case 'L':
      // Its fronts meet where those of both legs do.
      return [a, fa, meeting(fa, d, fb, e), fb, b, turn];
  }
}

/** What a unit takes of a leg: a corner unit of both that it joins; null: nothing. */
export function stretchOn({ corner, arms, leg, stretch }: PlacedUnit, legs: readonly BackLine[], on: number): Stretch | null {
  if (!corner || !arms) return leg === on ? stretch : null;
  const first = corner === 'blind right' ? leg - 1 : leg;
  const length = distance(legs[first].from, legs[first].to);
  if (on === first) return { from: length - arms[0], to: length };
  return on === first + 1 ? { from: 0, to: arms[1] } : null;
}

/** What a unit would cover of the plan if it were as deep as is said: what lies on it, or stands back under it. @param depth metres */
export function coverOf({ corner, arms, leg, stretch }: PlacedUnit, legs: readonly BackLine[], depth: number): Ring {
  if (!corner || !arms) return straight(legs[leg], stretch, depth);
  const first = corner === 'blind right' ? leg - 1 : leg;
  return cornered(corner, legs[first], legs[first + 1], arms, depth);
}
