import { prism } from '../geometry/extrude';
import { clipRegions } from '../geometry/clipping';
import { multiply, placement, transformPoint, type Matrix } from '../geometry/mesh';
import type { Cabinet, Cell, Construction, FrontGrid, FrontLook, Run } from '../project/schema/cabinets';
import type { Leaning } from '../geometry/halfspace';
import type { Region, Ring } from '../geometry/region';
import { insideRing, ringDistance, withoutSpikes } from '../geometry/polygon';
import { add, cross, distance, dot, left, scale, sub, unit as unitVector, type Vec2 } from '../geometry/vec';
import { board } from '../stock/forms/boards';
import type { Made, PieceSize } from '../stock/types';
import { cornerParts } from './corner';
import { cutsOf, placeFittings, standsItself, type PlacedFitting } from './fittings';
import { frontOut, layFront, type LaidFront } from './front';
import type { Stretch } from './leg';
import type { Obstacle } from './sides';
import { armsOf, BLIND_FILLER, layRun, straight, type BackLine, type LaidRun, type PlacedUnit, type RunUnit } from './run';
import { DUST, NEAR } from '../units/tolerance';
import { lookOf, newCell, unitLook } from '../project/joinery';
import { pelmetSection, swept, trimOf, upstandOf, underWorktop, uprights, type Trim } from './trim';
import { cutToRoof } from './under-roof';
import { makeUnit } from './unit';
import { grilleBelow, PLINTH, plinthOf, plinthParts, type Grille } from './plinth';
import { groovesBeside, slabMeshes, slabOf, withCorners, worktopOf, type Groove, type Worktop } from './worktop';

/** A unit of a run where it stands. */
export interface AssembledUnit {
  unit: Cabinet;
  placed: PlacedUnit;
  /** Where its axes lie: x along the run, y to the back, z up from the floor of the level. */
  matrix: Matrix;
  /** Of its carcass, metres. */
  size: PieceSize;
  /** Sides of its carcass that are seen. */
  clad: readonly ('left' | 'right')[];
  /** How its fronts look. */
  look: FrontLook;
  /** Planes of the roof it is cut to, in its axes. */
  cut: readonly Leaning[];
}

/** What of a run decides how it is laid out. Its look is whole, or what is apart from how runs begin. */
export type LaidOut = Pick<
  Run,
  'made' | 'packed' | 'start' | 'legs' | 'ends' | 'falls' | 'upstand' | 'behind' | 'raised' | 'slabs' | 'grooves' | 'infill' | 'corners' | 'look'
>;

/** A run as it is laid out. */
export interface AssembledRun {
  /** What stands on the floor, and what hangs above it. */
  floor: LaidRun;
  hung: LaidRun;
  units: AssembledUnit[];
  worktop: Worktop;
  /** Where its upstand stands, in the plan. */
  upstand: Region[];
  /** Where its plinth stands, in the plan. */
  plinth: Region[];
  /** Grilles in it: where they go through it in the plan, and between which heights above the floor, metres. */
  grilles: Grille[];
  /** What finishes it at its ends and edges. */
  trim: Trim;
}

/** No unit that shares hangs in less, metres. */
const LEAST = 0.1;

/** What is nearer to a wall is at it, metres. */
const AT_WALL = 0.03;

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
    const panel = newCell({ width: hidden, kind: 'panel' });
    return { height, cells: corner === 'blind left' ? [...cells, panel] : [panel, ...cells] };
  });
}

const middleOf = ({ stretch: { from, to } }: PlacedUnit): number => (from + to) / 2;

/**
 * Units of a row with where their middles have to be along their legs: of openings and of units below as these stand, else of the
 * leg itself. What is not on the leg of its unit holds nothing.
 *
 * @param below middles of the units that stand, by id
 */
function withMiddles(row: readonly Cabinet[], legs: readonly BackLine[], below: ReadonlyMap<string, number> = new Map()): [Cabinet, number | undefined][] {
  let leg = 0;
  return row.map((u): [Cabinet, number | undefined] => {
    const line = legs[Math.min(leg, legs.length - 1)];
    if (u.corner && leg < legs.length - 1) {
      leg++;
      return [u, undefined];
    }
    if (!u.middle) return [u, undefined];
    if (u.middle.of === 'leg') return [u, distance(line.from, line.to) / 2];
    return [u, u.middle.of === 'unit' ? below.get(u.middle.id) : line.middles?.[u.middle.id]];
  });
}

/** A tall unit as what hangs leaves room for it: where its middle is along its leg. */
const asPin = (tall: PlacedUnit): RunUnit => ({ id: tall.id, width: tall.width, depth: tall.depth, middle: middleOf(tall) });

/** What hangs along one leg with the tall units of it, from where units begin. @param at where they begin, metres @param of where a tall unit stands, as seen from there */
function betweenTall(row: readonly RunUnit[], tall: readonly PlacedUnit[], at: number, of: (t: PlacedUnit) => Stretch): RunUnit[] {
  const waiting = [...tall].sort((a, b) => of(a).from - of(b).from);
  const out: RunUnit[] = [];
  const pass = (reach: () => number): void => {
    for (let next; (next = waiting[0]) && of(next).from < reach() - DUST;) {
      waiting.shift();
      out.push(asPin(next));
      at = Math.max(at, of(next).to);
    }
  };
  for (const unit of row) {
    const width = unit.width ?? 0;
    const middle = unit.middle === undefined ? undefined : of({ stretch: { from: unit.middle, to: unit.middle } } as PlacedUnit).from;
    pass(() => middle ?? at + Math.max(width, LEAST));
    out.push(unit);
    at = middle === undefined ? at + width : middle + width / 2;
  }
  pass(() => Infinity);
  return out;
}

/**
 * What hangs, with the tall units it has to leave room for where they stand: each unit hangs before the first tall one that it
 * would reach, else beyond it. On a leg that ends in a corner units are counted from there, as they lie together there.
 */
function aroundTall(hung: readonly RunUnit[], tall: readonly PlacedUnit[], legs: readonly BackLine[], run: Pick<LaidOut, 'packed' | 'start'>): RunUnit[] {
  const rows: RunUnit[][] = [[]];
  const corners: RunUnit[] = [];
  for (const unit of hung)
    if (unit.corner && corners.length < legs.length - 1) {
      corners.push(unit);
      rows.push([]);
    } else rows[rows.length - 1].push(unit);
  const arms = corners.map((c, i) => armsOf(c, legs[i], legs[i + 1]));
  return legs.flatMap((leg, i): RunUnit[] => {
    // Beyond the last corner it turns in nothing hangs.
    if (i > corners.length) return [];
    const own = tall.filter((t) => !t.corner && t.leg === i);
    const row = rows[i] ?? [];
    const corner = i < corners.length ? [corners[i]] : [];
    const isFirst = i === 0;
    const backwards = isFirst && (corner.length > 0 || run.packed === 'end');
    const start = isFirst && !corner.length ? run.start : 0;
    if (!backwards) return [...betweenTall(row, own, i > 0 && i <= corners.length ? arms[i - 1][1] : start, (t) => t.stretch), ...corner];
    const end = distance(leg.from, leg.to) - (corner.length ? arms[i][0] : start);
    const back = betweenTall([...row].reverse(), own, 0, ({ stretch: { from, to } }) => ({ from: end - to, to: end - from }));
    return [...back.reverse(), ...corner];
  });
}

/** Whether a corner of a worktop is free: no wall is at it, and no unit goes on beside it. */
function standsFree(p: Vec2, run: Pick<Run, 'legs'>, legs: readonly BackLine[], units: readonly PlacedUnit[], overhang: number): boolean {
  const near = legs.some(({ from, to }, i) => {
    if (run.legs[i]?.kind !== 'wall') return false;
    const d = unitVector(sub(to, from));
    const [along, off] = [dot(sub(p, from), d), Math.abs(cross(d, sub(p, from)))];
    const length = distance(from, to);
    // At the wall itself, and at those that meet it at its ends.
    return (off < AT_WALL && along > -AT_WALL && along < length + AT_WALL) || (Math.min(Math.abs(along), Math.abs(along - length)) < AT_WALL && off < 2);
  });
  if (near) return false;
  // A unit that goes on beside it touches it with its side: two of them, or a tall one.
  const reach = overhang + NEAR;
  return units.filter(({ footprint }) => ringDistance(p, footprint) < reach || insideRing(p, footprint)).length < 2;
}

/**
 * A run as it is laid out: its units where they stand, the worktop over its base units, the plinth below those that stand on
 * one.
 *
 * @param units of the run, in order
 * @param legs lines their backs stand on, in the plan
 * @param ceiling height of the ceiling above the floor they stand on, metres; null: none
 * @param obstacles what stands out from walls behind them, as high as it is: their backs stand before it, their fronts where those of others do
 */
export function assembleRun(
  run: LaidOut,
  units: readonly Cabinet[],
  legs: readonly BackLine[],
  ceiling: number | null = null,
  obstacles: readonly Obstacle[] = [],
): AssembledRun {
  const { made } = run;
  const order = [...units].sort((a, b) => a.order - b.order);
  const look = lookOf(run);
  const word = (u: Cabinet, middle?: number): RunUnit => ({
    id: u.id,
    width: u.width,
    depth: sizeOf(u, made).depth,
    ...(u.corner ? { corner: u.corner } : {}),
    ...(middle === undefined ? {} : { middle }),
  });
  const floor = layRun(
    legs,
    withMiddles(
      order.filter((u) => u.band !== 'wall'),
      legs,
    ).map(([u, middle]) => word(u, middle)),
    run.packed,
    run.start,
  );
  const below = new Map(floor.units.map((p) => [p.id, middleOf(p)]));
  const tall = new Set(order.filter((u) => u.band === 'tall').map((u) => u.id));
  const hanging = withMiddles(
    order.filter((u) => u.band === 'wall'),
    legs,
    below,
  ).map(([u, middle]) => word(u, middle));
  const between = aroundTall(
    hanging,
    floor.units.filter((p) => tall.has(p.id)),
    legs,
    run,
  );
  const along = layRun(legs, between, run.packed, run.start);
  const hung = { ...along, units: along.units.filter((p) => !tall.has(p.id)) };
  const byId = new Map(units.map((u) => [u.id, u]));
  const unitOf = (id: string): Cabinet => byId.get(id)!;
  const trim = trimOf({
    run: { ...run, ...look },
    legs,
    floor: floor.units,
    hung: hung.units,
    unitOf,
    sizeOf: (u) => sizeOf(u, made),
    wallFoot: wallFoot(made),
    ceiling,
  });
  const assembled = [...floor.units, ...hung.units].map((placed): AssembledUnit => {
    const unit = unitOf(placed.id);
    const lift = unit.band === 'wall' ? wallFoot(made) : 0;
    const whole = sizeOf(unit, made);
    const back = backBefore(placed, obstacles, whole.depth, lift);
    // It steps back from what stands out behind it: y grows to the wall.
    const matrix = multiply(multiply(placement(0, 0, lift, 0), placed.matrix), placement(0, -back, 0, 0));
    // What a unit is made of does not follow the last bits of where it stands.
    const size = { width: Math.round(placed.width / DUST) * DUST, ...whole, depth: whole.depth - back };
    return { unit, placed, matrix, size, clad: trim.clad.get(unit.id) ?? [], look: unitLook(unit, look), cut: [] };
  });
  const standing = floor.units.filter((p) => unitOf(p.id).bare !== 'space');
  const under = standing.filter((p) => unitOf(p.id).band === 'base' && underWorktop(unitOf(p.id), made));
  const cuts = assembled.filter((u) => under.includes(u.placed)).flatMap((u) => cutOutsOf(u, made));
  const seated = run.behind > 0 ? under.filter((p) => run.legs[p.leg]?.kind === 'free' && !p.corner) : [];
  const behind = (p: PlacedUnit): Ring => [...straight(legs[p.leg], p.stretch, -run.behind)].reverse();
  const beyond = trim.beyond.map((b) => straight(legs[b.leg], b, b.depth + made.worktop.overhang));
  const corners = { corners: run.corners, free: (p: Vec2) => standsFree(p, run, legs, floor.units, made.worktop.overhang) };
  const flat = worktopOf({
    legs,
    under,
    overhang: made.worktop.overhang,
    slabs: run.slabs,
    cutOuts: [...cuts, ...obstacles.filter((o) => o.top > made.plinth + made.base.height + NEAR).map((o) => straight(legs[o.leg], o, o.depth))],
    beyond: [...beyond, ...(run.raised > 0 ? [] : seated.map(behind))],
    corner: corners,
    walls: wallsAt(run, legs),
    grooved: (regions) => assembled.filter((u) => under.includes(u.placed)).flatMap((u) => groovesOf(u, run, regions)),
  });
  const worktop = run.raised > 0 ? { ...flat, raised: raisedOf(seated, legs, behind, corners) } : flat;
  // Machines that stand on the floor have feet of their own.
  const onPlinth = standing.filter((p) => !standsItself(unitOf(p.id)));
  const fronts = made.plinth > 0 && made.stands === 'plinth' ? plinthOf(legs, onPlinth, made.toe, PLINTH) : [];
  const returns = trim.returns.map((outer): Region => ({ outer, holes: [] }));
  const plinth = returns.length ? withoutSpikes(clipRegions('union', [...fronts, ...returns], [])) : fronts;
  const grilles = made.vented && plinth.length ? onPlinth.flatMap((p) => grilleBelow(p, unitOf(p.id), legs, made) ?? []) : [];
  const high = obstacles.filter((o) => o.top > made.plinth + made.base.height + made.worktop.thickness + NEAR);
  return { floor, hung, units: assembled, worktop, upstand: upstandOf(trim.upstands, legs, high), plinth, grilles, trim };
}

/** A unit that steps back is no shallower, metres; and so far from what stands out. */
export const SHALLOWEST = 0.1;
const OFF_OBSTACLE = 0.01;

/** How far the back of a unit stands before its line, since something stands out from the wall behind it, metres. */
function backBefore({ leg, stretch, corner }: PlacedUnit, obstacles: readonly Obstacle[], depth: number, foot: number): number {
  if (corner) return 0;
  const behind = obstacles.filter((o) => o.leg === leg && o.top > foot + NEAR && Math.min(o.to, stretch.to) - Math.max(o.from, stretch.from) > NEAR);
  return behind.length ? Math.min(Math.max(...behind.map((o) => o.depth)) + OFF_OBSTACLE, Math.max(0, depth - SHALLOWEST)) : 0;
}

/** The part for seats where it lies higher: over the back of what stands free, and out behind it. */
function raisedOf(
  seated: readonly PlacedUnit[],
  legs: readonly BackLine[],
  behind: (p: PlacedUnit) => Ring,
  { corners, free }: { corners: Run['corners']; free(p: Vec2): boolean },
): Region[] {
  const rings = seated.flatMap((p) => [straight(legs[p.leg], p.stretch, ON_BACK), behind(p)]);
  return clipRegions(
    'union',
    rings.map((outer) => ({ outer, holes: [] })),
    [],
  ).map((r) => ({ ...r, outer: withCorners(r.outer, corners, free) }));
}

/** How far the raised part of a worktop comes forward over it, metres. */
const ON_BACK = 0.1;

/** Lines of the walls a worktop can lie at: those its legs run along, and those that meet them at their ends. */
const wallsAt = ({ legs: of }: Pick<LaidOut, 'legs'>, legs: readonly BackLine[]): [Vec2, Vec2][] =>
  legs.flatMap(({ from, to }, i): [Vec2, Vec2][] => {
    if (of[i]?.kind !== 'wall') return [];
    const out = scale(left(unitVector(sub(to, from))), -2);
    return [
      [from, to],
      [from, add(from, out)],
      [to, add(to, out)],
    ];
  });

/** Grooves of the worktop beside a sink in a unit that has no drainer of its own. */
function groovesOf(own: AssembledUnit, { made, grooves }: Pick<LaidOut, 'made' | 'grooves'>, regions: readonly Region[]): Groove[] {
  if (grooves === 'none') return [];
  const place = (p: Vec2): Vec2 => {
    const q = transformPoint(own.matrix, { ...p, z: 0 });
    return { x: q.x, y: q.y };
  };
  const front = -own.size.depth - made.worktop.overhang;
  return fittingsIn(own, made)
    .filter(({ built, traits }) => built.word === 'sink' && traits.drainer === 'none' && traits.set !== 'into the worktop')
    .flatMap((f) => cutsOf([f]))
    .flatMap((cut) =>
      (['left', 'right'] as const).flatMap((side) => (grooves === side || grooves === 'both' ? groovesBeside(cut, side, front, place, regions) : [])),
    );
}

/** What is built into a unit where it is. Corner units have nothing built in. */
export const fittingsIn = ({ unit, placed, size }: AssembledUnit, made: Construction): PlacedFitting[] =>
  placed.corner || !unit.fittings.length ? [] : placeFittings(unit, size, frontOf({ unit, placed, size }, made), made);

/** What of the worktop is cut out for what is built into a unit, in the plan. */
const cutOutsOf = (own: AssembledUnit, made: Construction): Ring[] =>
  cutsOf(fittingsIn(own, made)).map((ring) => ring.map((p) => transformPoint(own.matrix, { ...p, z: 0 })).map(({ x, y }) => ({ x, y })));

/** What a run has as a whole, in the plan, z up from the floor of the level. @param sections of its cornices, x before the fronts, y up */
export function runParts(
  { worktop, upstand, plinth, grilles, trim }: AssembledRun,
  run: LaidOut,
  legs: readonly BackLine[],
  sections: readonly (readonly Vec2[])[] = [],
): Made[] {
  const { made } = run;
  const { cornices, pelmet, edge } = lookOf(run);
  const parts: Made[] = [];
  const top = made.plinth + made.base.height;
  const surface = top + made.worktop.thickness;
  for (const mesh of slabMeshes(worktop, legs, top, surface, edge)) parts.push({ part: 'worktop', mesh });
  if (worktop.raised.length)
    parts.push({ part: 'worktop', mesh: slabOf(worktop.raised, surface + run.raised - made.worktop.thickness, surface + run.raised, edge) });
  for (const mesh of uprights(trim.falls)) parts.push({ part: 'worktop', mesh });
  if (upstand.length) parts.push({ part: 'worktop', mesh: prism(upstand, surface, surface + run.upstand) });
  parts.push(...plinthParts(plinth, grilles, made.plinth - 0.002));
  for (const mesh of uprights([...trim.panels, ...trim.infills])) parts.push({ part: 'panels', mesh });
  for (const edge of trim.cornices)
    cornices.forEach(({ out, up }, i) => {
      if (sections[i]?.length) parts.push({ part: 'cornice', mesh: swept(edge, sections[i], out, up) });
    });
  for (const edge of trim.pelmets) parts.push({ part: 'pelmet', mesh: swept(edge, pelmetSection(pelmet, made.front)) });
  return parts;
}

/** The front of a unit as it is divided: where it runs blind into a corner, a panel stands before the next leg. */
export function gridOf({ unit, placed: { corner }, size: { width, depth } }: Pick<AssembledUnit, 'unit' | 'placed' | 'size'>): FrontGrid {
  if (corner !== 'blind left' && corner !== 'blind right') return unit.front;
  return blindFront(unit.front, corner, Math.min(width - 0.2, depth + BLIND_FILLER));
}

/** A unit that follows both legs of its corner: its front is not divided as others are. */
export const followsCorner = ({ placed: { corner } }: Pick<AssembledUnit, 'placed'>): boolean => corner === 'L' || corner === 'diagonal';

/** What closes a unit that follows its corner: the first of its cells; without one it stands open. */
export const cornerCell = ({ unit }: Pick<AssembledUnit, 'unit'>): Cell => unit.front[0]?.cells[0] ?? newCell({ kind: 'open' });

/** The footprint of a unit in its own axes. */
export function ownFootprint({ footprint, matrix }: PlacedUnit): Ring {
  const [{ x, y }] = footprint;
  const back = placement(0, 0, 0, -Math.atan2(matrix[1], matrix[0]));
  return footprint.map((p) => {
    const q = transformPoint(back, { x: p.x - x, y: p.y - y, z: 0 });
    return { x: q.x, y: q.y };
  });
}

/** The front of a unit with what closes it; of one that follows its corner nothing. */
export const frontOf = (own: Pick<AssembledUnit, 'unit' | 'placed' | 'size'>, made: Construction): LaidFront =>
  layFront(followsCorner(own) ? [] : gridOf(own), own.size.width, own.size.height, own.unit.band, made);

/** All that the parts of a unit follow from, as one word: two that are alike are made alike. */
export const likeness = (
  { unit: { front, band, bare, backless, fittings }, placed: { corner, footprint, matrix }, size, clad, look, cut }: AssembledUnit,
  made: Construction,
): string => JSON.stringify([front, band, bare, backless, fittings, clad, corner ?? null, corner ? [footprint, matrix] : 0, size, made, look, cut]);

/** All that a unit is made of, in its own axes. @param banded the edging of its boards is of another finish than these */
export const unitParts = (own: AssembledUnit, made: Construction, banded = false): Made[] =>
  own.cut.length ? cutToRoof(wholeParts(own, made, banded), own, made) : wholeParts(own, made, banded);

/** What a unit would be made of where no roof is in its way. */
function wholeParts({ unit, placed, clad, look, size: { width, depth, height } }: AssembledUnit, made: Construction, banded: boolean): Made[] {
  const lift = unit.band === 'wall' ? 0 : made.plinth;
  if (unit.bare === 'space') return [];
  if (unit.bare === 'filler')
    // A strip of front, scribed to what it meets.
    return [
      {
        part: 'fronts',
        mesh: board(0, -depth - frontOut(made), lift, width, made.front - frontOut(made) - depth, lift + height - (unit.band === 'base' ? made.under : 0)),
      },
    ];
  if (followsCorner({ placed })) {
    return cornerParts(ownFootprint(placed), height, cornerCell({ unit }), unit.band, made, look, lift, banded);
  }
  const grid = gridOf({ unit, placed, size: { width, depth, height } });
  return makeUnit(grid, { width, height, depth }, unit.band, made, look, 'left', unit.fittings, clad, { backless: unit.backless, banded }).parts;
}
