import { prism } from '../geometry/extrude';
import { multiply, placement, transformPoint, type Matrix } from '../geometry/mesh';
import type { Cabinet, Construction, FrontGrid, Run } from '../project/schema/cabinets';
import type { Region } from '../geometry/region';
import { board } from '../stock/forms/boards';
import type { Made } from '../stock/types';
import { cornerParts } from './corner';
import { BLIND_FILLER, layRun, type BackLine, type LaidRun, type PlacedUnit, type RunUnit } from './run';
import { DUST } from '../units/tolerance';
import { makeUnit } from './unit';
import { plinthOf, worktopOf, type Worktop } from './worktop';

/** A unit of a run where it stands. */
export interface AssembledUnit {
  unit: Cabinet;
  placed: PlacedUnit;
  /** Where its axes lie: x along the run, y to the back, z up from the floor of the level. */
  matrix: Matrix;
  /** Of its carcass, metres. */
  size: { width: number; depth: number; height: number };
}

/** How a run is made, and how it looks. */
export type RunStyle = Pick<Run, 'made' | 'fronts' | 'handles'>;

/** A run as it is laid out. */
export interface AssembledRun {
  /** What stands on the floor, and what hangs above it. */
  floor: LaidRun;
  hung: LaidRun;
  units: AssembledUnit[];
  worktop: Worktop;
  /** Where its plinth stands, in the plan. */
  plinth: Region[];
}

/** No unit that shares hangs in less, metres. */
const LEAST = 0.1;

/** Thickness of a plinth board, metres. */
const PLINTH = 0.016;

/** Height of the foot of wall units above the floor, metres. */
export const wallFoot = ({ plinth, base, worktop, wall }: Construction): number => plinth + base.height + worktop.thickness + wall.above;

/** Depth and height of the carcass of a unit, metres. */
export const sizeOf = ({ band, depth, height }: Pick<Cabinet, 'band' | 'depth' | 'height'>, made: Construction): { depth: number; height: number } => ({
  depth: depth ?? made[band].depth,
  height: height ?? made[band].height,
});

/** What the fronts of a unit that runs blind into a corner are: a panel where the next leg stands before it. */
function blindFront(grid: FrontGrid, corner: 'blind left' | 'blind right', hidden: number): FrontGrid {
  return grid.map(({ height, cells }) => {
    const panel = { width: hidden, kind: 'panel', hand: null, shelves: 0 } as const;
    return { height, cells: corner === 'blind left' ? [...cells, panel] : [panel, ...cells] };
  });
}

const middleOf = ({ stretch: { from, to } }: PlacedUnit): number => (from + to) / 2;

/**
 * What hangs, with the tall units it has to leave room for where they stand: each unit hangs before the first tall one that it
 * would reach, else beyond it.
 */
function aroundTall(hung: readonly RunUnit[], tall: readonly PlacedUnit[], start: number): RunUnit[] {
  const waiting = tall.filter((t) => !t.corner).sort((a, b) => a.leg - b.leg || a.stretch.from - b.stretch.from);
  const out: RunUnit[] = [];
  let [leg, at] = [0, start];
  const pass = (reaches: () => number): void => {
    for (let next; (next = waiting[0]) && (next.leg < leg || (next.leg === leg && next.stretch.from < reaches() - DUST));) {
      waiting.shift();
      if (next.leg < leg) continue;
      out.push({ id: next.id, width: next.width, depth: next.depth, middle: middleOf(next) });
      at = Math.max(at, next.stretch.to);
    }
  };
  for (const unit of hung) {
    const width = unit.width ?? 0;
    if (unit.corner) pass(() => Infinity);
    else pass(() => (unit.middle === undefined ? at + Math.max(width, LEAST) : unit.middle));
    out.push(unit);
    at = unit.middle === undefined ? at + width : unit.middle + width / 2;
    if (unit.corner) [leg, at] = [leg + 1, 0];
  }
  pass(() => Infinity);
  return out;
}

/**
 * A run as it is laid out: its units where they stand, the worktop over its base units, the plinth below those that stand on
 * one.
 *
 * @param units of the run, in order
 * @param legs lines their backs stand on, in the plan
 */
export function assembleRun(run: Pick<Run, 'made' | 'packed' | 'start'>, units: readonly Cabinet[], legs: readonly BackLine[]): AssembledRun {
  const { made } = run;
  const order = [...units].sort((a, b) => a.order - b.order);
  const word = (u: Cabinet, middle?: number): RunUnit => ({
    id: u.id,
    width: u.width,
    depth: sizeOf(u, made).depth,
    ...(u.corner ? { corner: u.corner } : {}),
    ...(middle === undefined ? {} : { middle }),
  });
  const floor = layRun(
    legs,
    order.filter((u) => u.band !== 'wall').map((u) => word(u)),
    run.packed,
    run.start,
  );
  const below = new Map(floor.units.map((p) => [p.id, middleOf(p)]));
  const tall = new Set(order.filter((u) => u.band === 'tall').map((u) => u.id));
  const hanging = order.filter((u) => u.band === 'wall').map((u) => word(u, u.over === null ? undefined : below.get(u.over)));
  const between = aroundTall(
    hanging,
    floor.units.filter((p) => tall.has(p.id)),
    run.start,
  );
  const along = layRun(legs, between, run.packed, run.start);
  const hung = { ...along, units: along.units.filter((p) => !tall.has(p.id)) };
  const byId = new Map(units.map((u) => [u.id, u]));
  const assembled = [...floor.units, ...hung.units].map((placed): AssembledUnit => {
    const unit = byId.get(placed.id)!;
    const lift = unit.band === 'wall' ? wallFoot(made) : 0;
    const matrix = multiply(placement(0, 0, lift, 0), placed.matrix);
    // What a unit is made of does not follow the last bits of where it stands.
    return { unit, placed, matrix, size: { width: Math.round(placed.width / DUST) * DUST, ...sizeOf(unit, made) } };
  });
  const standing = floor.units.filter((p) => byId.get(p.id)!.bare !== 'space');
  const worktop = worktopOf(
    legs,
    standing.filter((p) => byId.get(p.id)!.band === 'base'),
    made.worktop.overhang,
  );
  const plinth = made.plinth > 0 ? plinthOf(legs, standing, made.toe, PLINTH) : [];
  return { floor, hung, units: assembled, worktop, plinth };
}

/** What a run has as a whole, in the plan, z up from the floor of the level. */
export function runParts({ worktop, plinth }: AssembledRun, { made }: RunStyle): Made[] {
  const parts: Made[] = [];
  const top = made.plinth + made.base.height;
  if (worktop.regions.length) parts.push({ part: 'worktop', mesh: prism(worktop.regions, top, top + made.worktop.thickness) });
  if (plinth.length) parts.push({ part: 'plinth', mesh: prism(plinth, 0, made.plinth - 0.002) });
  return parts;
}

/** All that the parts of a unit follow from, as one word: two that are alike are made alike. */
export const likeness = ({ unit: { front, band, bare }, placed: { corner, footprint, matrix }, size }: AssembledUnit, style: RunStyle): string =>
  JSON.stringify([front, band, bare, corner ?? null, corner ? [footprint, matrix] : 0, size, style.made, style.fronts, style.handles]);

/** All that a unit is made of, in its own axes. */
export function unitParts({ unit, placed, size: { width, depth, height } }: AssembledUnit, style: RunStyle): Made[] {
  const { made } = style;
  const lift = unit.band === 'wall' ? 0 : made.plinth;
  if (unit.bare === 'space') return [];
  if (unit.bare === 'filler')
    // A strip of front, scribed to what it meets.
    return [{ part: 'fronts', mesh: board(0, -depth - made.front, lift, width, -depth, lift + height - (unit.band === 'base' ? made.under : 0)) }];
  if (placed.corner === 'L' || placed.corner === 'diagonal') {
    // Its footprint in its own axes.
    const { x, y } = placed.footprint[0];
    const turn = -Math.atan2(placed.matrix[1], placed.matrix[0]);
    const back = placement(0, 0, 0, turn);
    const own = placed.footprint.map((p) => {
      const q = transformPoint(back, { x: p.x - x, y: p.y - y, z: 0 });
      return { x: q.x, y: q.y };
    });
    const cell = unit.front[0]?.cells[0] ?? { width: null, kind: 'open', hand: null, shelves: 0 };
    return cornerParts(own, height, cell, unit.band, made, style, lift);
  }
  const blind = placed.corner === 'blind left' || placed.corner === 'blind right' ? placed.corner : null;
  const hidden = Math.min(width - 0.2, depth + BLIND_FILLER);
  const grid = blind ? blindFront(unit.front, blind, hidden) : unit.front;
  return makeUnit(grid, { width, height, depth }, unit.band, made, style).parts;
}
