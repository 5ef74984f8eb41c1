import { between, hexahedron } from '../geometry/extrude';
import { MeshBuilder, placement, type Matrix, type Mesh } from '../geometry/mesh';
import type { Region, Ring } from '../geometry/region';
import { beside, Polyline } from '../geometry/polyline';
import { add, cross, distance, left, rotate, scale, sub, unit, type Vec2, type Vec3 } from '../geometry/vec';
import { DEFAULTS, type Level, type Stair } from '../project/schema';
import { guardHeight } from '../project/stairs';
import { spiralCentre, stairToPlan, type StairEdge, type StairLayout } from '../project/stair-layout';
import { STAIR_PROFILES } from '../project/stair-rules';
import { GUARD, guardAlong } from './guards';
import { DUST, NEAR, TIGHT } from '../units/tolerance';

export const STAIR_PARTS = ['tread', 'riser', 'string', 'rail', 'infill'] as const;
export type StairPart = (typeof STAIR_PARTS)[number];

export interface DerivedStair {
  id: string;
  stair: Stair;
  layout: StairLayout;
  matrix: Matrix;
  /** Closed solids in the coordinates of the stair, by part. */
  parts: { part: StairPart; mesh: Mesh }[];
  /** Its outline in the plan, steps and nosings together. */
  outline: Ring[];
  /** Widest gap in its guards, metres; null where there are none. */
  gap: number | null;
}

const STRING = DEFAULTS.stair.string;
/** How far a string reaches below the pitch line and above it, metres, upright. */
const BELOW = 0.26;
const ABOVE = 0.045;
/** Thickness of a solid flight, square to its slope, metres. */
const WAIST = 0.14;
/** How far a stair keeps from the faces of the floor it arrives at, so that no two faces lie in one plane, metres. */
const CLEAR = 0.001;

/** An outline at a height. */
const at = (ring: readonly Vec2[], z: (i: number) => number): Vec3[] => ring.map((p, i) => ({ ...p, z: z(i) }));

/** A place along an edge, with the height of what is asked about it. */
interface Station {
  s: number;
  low: number;
  high: number;
}

/** Stretches of an edge in which its pitch line runs on without a jump: places and heights of the line. */
function pitchRuns(layout: StairLayout, edge: StairEdge): { s: number; z: number }[][] {
  const { rise } = layout.sizes;
  const runs: { s: number; z: number }[][] = [];
  let run: { s: number; z: number }[] = [];
  const end = (): void => {
    if (run.length > 1 && run[run.length - 1].s - run[0].s > NEAR) runs.push(run);
    run = [];
  };
  layout.risers.forEach((_, i) => {
    const s = edge.at[i];
    const z = (i + 1) * rise;
    const last = run[run.length - 1];
    // Riser lines that meet in one point make the line jump there.
    if (last && s - last.s < NEAR) end();
    run.push({ s, z });
    if (layout.steps[i]?.landing) {
      const on = edge.at[i + 1];
      if (on - s > NEAR) run.push({ s: on, z });
      end();
    }
  });
  end();
  return runs;
}

/**
 * A board on edge along a line of the plan: closed, from station to station.
 *
 * @param out how far it reaches from the line; @param inset and to its other side
 */
function board(builder: MeshBuilder, edge: StairEdge, out: number, stations: readonly Station[], inset = 0): void {
  const line = new Polyline(edge.points);
  const { s } = line;
  // As long as the line itself, so that a place on it is one on its neighbours.
  const inner = line.withPoints(beside(edge.points, -inset * Math.sign(out)));
  const outer = line.withPoints(beside(edge.points, out));
  const marks = [...stations];
  // The line's own corners are stations too.
  s.forEach((at) => {
    const k = stations.findIndex((q, i) => i + 1 < stations.length && at > q.s + TIGHT && at < stations[i + 1].s - TIGHT);
    if (k < 0) return;
    const [p, q] = [stations[k], stations[k + 1]];
    const t = (at - p.s) / (q.s - p.s);
    marks.push({ s: at, low: p.low + (q.low - p.low) * t, high: p.high + (q.high - p.high) * t });
  });
  marks.sort((a, b) => a.s - b.s);
  const on = (m: Station, line: Polyline, high: boolean): Vec3 => ({ ...line.at(m.s), z: high ? m.high : m.low });
  const [right, leftward] = out > 0 ? [inner, outer] : [outer, inner];
  for (let i = 0; i + 1 < marks.length; i++) {
    const [a, b] = [marks[i], marks[i + 1]];
    if (b.s - a.s < TIGHT) continue;
    const corner = (high: boolean): Vec3[] => [on(a, right, high), on(b, right, high), on(b, leftward, high), on(a, leftward, high)];
    const [low, top] = [corner(false), corner(true)];
    builder.quad(top[0], top[1], top[2], top[3]).quad(low[3], low[2], low[1], low[0]);
    builder.quad(low[0], low[1], top[1], top[0]).quad(low[2], low[3], top[3], top[2]);
    if (i === 0) builder.quad(low[3], low[0], top[0], top[3]);
    if (i + 2 === marks.length) builder.quad(low[1], low[2], top[2], top[1]);
  }
}

/** Whether an edge is the one at the column of a spiral, with neither string nor guard. @param outward 1: the left one */
const insideOf = (stair: Stair, outward: 1 | -1): boolean => stair.form === 'spiral' && (stair.turn === 'left') === (outward === 1);

/** The strings of a stair along one edge. */
function strings(builder: MeshBuilder, layout: StairLayout, edge: StairEdge, outward: 1 | -1): void {
  const { stair, sizes } = layout;
  const floor = (z: number): number => Math.max(0, z);
  if (stair.build === 'closed') {
    for (const run of pitchRuns(layout, edge)) {
      const stations = run.map(({ s, z }): Station => ({ s, low: floor(z - sizes.rise - BELOW + 0.06), high: Math.min(z + ABOVE, layout.height + ABOVE) }));
      // Where the underside meets the floor the board is cut level.
      board(builder, edge, outward * STRING, stations, CLEAR);
    }
    return;
  }
  const top = (i: number): number => (i + 1) * sizes.rise - stair.tread;
  layout.steps.forEach((step, i) => {
    const [s0, s1] = [edge.at[i], edge.at[i + 1]];
    if (s1 - s0 < 0.01) return;
    const level = step.landing;
    const stations: Station[] = [
      { s: s0, low: floor(top(i) - (level ? 0.2 : sizes.rise + BELOW - 0.1)), high: top(i) },
      { s: s1, low: floor(top(i) - (level ? 0.2 : BELOW - 0.1)), high: top(i) },
    ];
    board(builder, edge, -outward * STRING, stations);
  });
}

/** The line of a guard: the pitch line beside the edge, broken where the stair's own line jumps. */
function guardRuns(layout: StairLayout, edge: StairEdge, off: number): Vec3[][] {
  const own = new Polyline(edge.points);
  const { s } = own;
  const line = own.withPoints(beside(edge.points, off));
  return pitchRuns(layout, edge).map((run) => {
    const marks = [...run];
    s.forEach((at) => {
      const k = run.findIndex((q, i) => i + 1 < run.length && at > q.s + TIGHT && at < run[i + 1].s - TIGHT);
      if (k >= 0) marks.push({ s: at, z: run[k].z + ((run[k + 1].z - run[k].z) * (at - run[k].s)) / (run[k + 1].s - run[k].s) });
    });
    return marks.sort((a, b) => a.s - b.s).map((m) => ({ ...line.at(m.s), z: m.z }));
  });
}

/**
 * A stair as closed solids: treads with nosings, risers, strings or a solid flight, guards on its sides.
 */
export function deriveStair(layout: StairLayout, level: Level): DerivedStair {
  const { stair, sizes, steps, risers } = layout;
  const { rise } = sizes;
  const [tread, riser, string, rail, infill] = STAIR_PARTS.map(() => new MeshBuilder());
  const solid = stair.build === 'solid';
  const waist = WAIST / Math.cos(sizes.pitch);
  steps.forEach((step, i) => {
    between(
      tread,
      at(step.tread, () => step.z - stair.tread),
      at(step.tread, () => step.z),
    );
    if (!solid) return;
    const body = step.z - stair.tread;
    const low = (end: 'front' | 'back'): number => Math.max(0, step.landing ? step.z - 0.2 : i * rise + (end === 'front' ? 0 : rise) - waist - stair.tread);
    const line = risers[i];
    const back = risers[i + 1];
    const depth = (p: Vec2): number => {
      const [f, b] = [segmentOff(p, line), segmentOff(p, back)];
      return f + b < DUST ? 0 : f / (f + b);
    };
    if (body - Math.max(low('front'), low('back')) > 0.002)
      between(
        string,
        at(step.ring, (k) => low('front') + (low('back') - low('front')) * depth(step.ring[k])),
        at(step.ring, () => body),
      );
  });
  if (!stair.open)
    risers.forEach((line, i) => {
      const across = unit(sub(line.right, line.left));
      // A riser stands between cut strings, and before a solid flight; closed strings lie outside its ends.
      const [l, r] = ([1, -1] as const).map((k) => (solid ? CLEAR : stair.build === 'cut' && !insideOf(stair, k) ? STRING : 0));
      if (distance(line.left, line.right) < l + r + 0.02) return;
      const top = i < steps.length ? steps[i].z - stair.tread : layout.height - CLEAR;
      // The uppermost covers the edge of the floor.
      const before = solid || i === steps.length ? CLEAR : 0;
      const inward = scale(left(across), DEFAULTS.stair.riser);
      const [a, b] = [add(line.left, scale(across, l)), add(line.right, scale(across, -r))].map((p) => sub(p, scale(left(across), before)));
      const ring: Vec2[] = [a, b, add(b, inward), add(a, inward)];
      hexahedron(
        riser,
        ring.map((p) => ({ ...p, z: i * rise })),
        ring.map((p) => ({ ...p, z: top })),
      );
    });
  const { gap: limit } = STAIR_PROFILES[stair.profile];
  const height = (guard: NonNullable<Stair['left']>): number => guardHeight(guard, stair.profile, 'stair');
  let gap: number | null = null;
  for (const [edge, guard, outward] of [
    [layout.left, stair.left, 1],
    [layout.right, stair.right, -1],
  ] as const) {
    const inside = insideOf(stair, outward);
    if (!solid && !inside) strings(string, layout, edge, outward);
    if (!guard || inside) continue;
    const off = outward * (stair.build === 'closed' ? STRING / 2 : -GUARD.post / 2 - 2 * CLEAR);
    const made = guardAlong(guardRuns(layout, edge, off), guard, height(guard), limit);
    rail.add(made.rail);
    infill.add(made.infill);
    if (made.gap !== null) gap = Math.max(gap ?? 0, made.gap);
  }
  if (stair.form === 'spiral') {
    const c = spiralCentre(stair);
    const ring: Vec2[] = Array.from({ length: 24 }, (_, k) => add(c, rotate({ x: stair.column, y: 0 }, (k * Math.PI) / 12)));
    between(
      string,
      at(ring, () => 0),
      at(ring, () => layout.height + 1),
    );
  }
  const parts = STAIR_PARTS.map((part, k) => ({ part, mesh: [tread, riser, string, rail, infill][k].build() })).filter((p) => p.mesh.indices.length);
  return {
    id: stair.id,
    stair,
    layout,
    matrix: placement(stair.x, stair.y, level.elevation + stair.z, stair.rotation),
    parts,
    outline: steps.map((step) => step.tread.map((p) => stairToPlan(stair, p))),
    gap,
  };
}

function segmentOff(p: Vec2, { left: a, right: b }: { left: Vec2; right: Vec2 }): number {
  const d = sub(b, a);
  const l = Math.hypot(d.x, d.y);
  return l < DUST ? distance(p, a) : Math.abs(cross(d, sub(p, a))) / l;
}

/** The line one arrives over at the top of a stair, in the plan. */
export const arrival = (layout: StairLayout): [Vec2, Vec2] => {
  const { left: a, right: b } = layout.risers[layout.risers.length - 1];
  return [stairToPlan(layout.stair, a), stairToPlan(layout.stair, b)];
};

/** Where one stands on a stair, in the plan: its steps with their heights above the floor of its level. */
export const stairFloors = (stair: DerivedStair): { region: Region; z: number }[] =>
  stair.layout.steps.map((step, i) => ({ region: { outer: stair.outline[i], holes: [] }, z: step.z }));
