import { prism } from '../geometry/extrude';
import { multiply, placement, transformPoint, type Matrix } from '../geometry/mesh';
import type { Construction, FrontGrid, Run, Unit } from '../project/schema/cabinets';
import { board } from '../stock/forms/boards';
import type { Made } from '../stock/types';
import { cornerParts } from './corner';
import { BLIND_FILLER, layRun, type BackLine, type LaidRun, type PlacedUnit, type RunUnit } from './run';
import { makeUnit } from './unit';
import { plinthOf, worktopOf, type Worktop } from './worktop';

/** A unit of a run with all that it is made of, in its own axes. */
export interface AssembledUnit {
  unit: Unit;
  placed: PlacedUnit;
  /** Where its axes lie: x along the run, y to the back, z up from the floor of the level. */
  matrix: Matrix;
  parts: Made[];
}

/** A run as it is built. */
export interface AssembledRun {
  laid: LaidRun;
  units: AssembledUnit[];
  worktop: Worktop;
  /** What it has as a whole, in the plan, z up from the floor of the level. */
  parts: Made[];
}

/** Thickness of a plinth board, metres. */
const PLINTH = 0.016;

/** Height of the foot of wall units above the floor, metres. */
export const wallFoot = ({ plinth, base, worktop, wall }: Construction): number => plinth + base.height + worktop.thickness + wall.above;

/** Depth and height of the carcass of a unit, metres. */
export const sizeOf = ({ band, depth, height }: Pick<Unit, 'band' | 'depth' | 'height'>, made: Construction): { depth: number; height: number } => ({
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

/**
 * All that a run is made of: its units where they stand, the worktop over its base units, the plinth below those that stand on
 * one.
 *
 * @param units of the run, in order
 * @param legs lines their backs stand on, in the plan
 */
export function assembleRun(
  run: Pick<Run, 'made' | 'fronts' | 'handles' | 'packed' | 'start'>,
  units: readonly Unit[],
  legs: readonly BackLine[],
): AssembledRun {
  const { made } = run;
  const style = { fronts: run.fronts, handles: run.handles };
  const order = [...units].sort((a, b) => a.order - b.order);
  const laid = layRun(
    legs,
    order.map((u): RunUnit => ({ id: u.id, width: u.width, depth: sizeOf(u, made).depth, ...(u.corner ? { corner: u.corner } : {}) })),
    run.packed,
    run.start,
  );
  const byId = new Map(units.map((u) => [u.id, u]));
  const assembled = laid.units.map((placed): AssembledUnit => {
    const unit = byId.get(placed.id)!;
    const lift = unit.band === 'wall' ? wallFoot(made) : 0;
    const matrix = multiply(placement(0, 0, lift, 0), placed.matrix);
    return { unit, placed, matrix, parts: partsOf(unit, placed, made, style) };
  });
  const standing = laid.units.filter((p) => byId.get(p.id)!.bare !== 'space' && byId.get(p.id)!.band !== 'wall');
  const worktop = worktopOf(
    legs,
    standing.filter((p) => byId.get(p.id)!.band === 'base'),
    made.worktop.overhang,
  );
  const parts: Made[] = [];
  const top = made.plinth + made.base.height;
  if (worktop.regions.length) parts.push({ part: 'worktop', mesh: prism(worktop.regions, top, top + made.worktop.thickness) });
  const plinth = made.plinth > 0 ? plinthOf(legs, standing, made.toe, PLINTH) : [];
  if (plinth.length) parts.push({ part: 'plinth', mesh: prism(plinth, 0, made.plinth - 0.002) });
  return { laid, units: assembled, worktop, parts };
}

function partsOf(unit: Unit, placed: PlacedUnit, made: Construction, style: { fronts: Run['fronts']; handles: Run['handles'] }): Made[] {
  const { depth, height } = sizeOf(unit, made);
  const lift = unit.band === 'wall' ? 0 : made.plinth;
  if (unit.bare === 'space') return [];
  if (unit.bare === 'filler')
    // A strip of front, scribed to what it meets.
    return [{ part: 'fronts', mesh: board(0, -depth - made.front, lift, placed.width, -depth, lift + height - (unit.band === 'base' ? made.under : 0)) }];
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
  const hidden = Math.min(placed.width - 0.2, depth + BLIND_FILLER);
  const grid = blind ? blindFront(unit.front, blind, hidden) : unit.front;
  return makeUnit(grid, { width: placed.width, height, depth }, unit.band, made, style).parts;
}
