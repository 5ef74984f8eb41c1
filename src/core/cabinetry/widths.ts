import { newCell } from '../project/joinery';
import type { Cabinet, FrontGrid, Hand, Run } from '../project/schema/cabinets';
import { formatLength, INCH, micro, type UnitSystem } from '../units/length';
import { NEAR } from '../units/tolerance';
import { assembleRun, type AssembledRun } from './assemble';
import type { DerivedRun } from './derive';
import { WIDTHS } from './figures';
import { fillings, widened } from './leg';
import { inOrder, unitsFrom } from './line';
import type { BackLine } from './run';

/** No unit is made narrower, metres. */
export const LEAST_WIDTH = 0.15;

/** No filler is narrower, metres. */
const LEAST_FILLER = 0.01;

/** What may give way or get wider: a unit of a width of its own that nothing is built into. */
export const canGive = (u: Cabinet): boolean => u.width !== null && !u.corner && !u.bare && !u.fittings.length;

/** Units of the same band side by side on a leg, from the left, as they stand. */
const rowOn = (laid: Pick<AssembledRun, 'units'>, leg: number, hung: boolean): Cabinet[] =>
  laid.units
    .filter((u) => u.placed.leg === leg && (u.unit.band === 'wall') === hung)
    .sort((a, b) => a.placed.stretch.from - b.placed.stretch.from)
    .map((u) => u.unit);

/**
 * The units of a run after one of them got another width. The others shift; where there is no room for that the one beside it
 * gives way.
 *
 * @param way who makes room: the others shift, the one beside it gives way, or one that is named
 * @param side of the unit whose edge moves: the one beside it there gives way first
 * @returns the units, or one sentence on what does not fit, and by how much
 */
export function resized(
  run: Run,
  units: readonly Cabinet[],
  legs: readonly BackLine[],
  id: string,
  width: number,
  way: 'shift' | 'beside' | { unit: string },
  side: 'left' | 'right',
  system: UnitSystem,
): Cabinet[] | string {
  const unit = units.find((u) => u.id === id)!;
  if (width < LEAST_WIDTH - NEAR && !unit.bare) return `No unit is narrower than ${formatLength(LEAST_WIDTH, system)}.`;
  const laid = assembleRun(run, units, legs);
  const own = laid.units.find((u) => u.unit.id === id)!;
  const hung = unit.band === 'wall';
  const { leg } = own.placed;
  const next = units.map((u) => (u.id === id ? { ...u, width: micro(width) } : u));
  const free = run.legs.length === 1 && run.legs[0]?.kind === 'free';
  if (unit.corner || unit.width === null || own.placed.corner) return next;
  const row = rowOn(laid, leg, hung).filter((u) => u.width !== null);
  const at = row.findIndex((u) => u.id === id);
  const beside = side === 'right' ? [at + 1, at - 1] : [at - 1, at + 1];
  const taker = typeof way === 'object' ? row.findIndex((u) => u.id === way.unit && canGive(u)) : (beside.find((k) => row[k] && canGive(row[k])) ?? -1);
  const rest = laid[hung ? 'hung' : 'floor'].gaps.filter((g) => g.leg === leg).reduce((sum, g) => sum + g.to - g.from, 0);
  const room = free ? Infinity : rest;
  const widths = row.map((u) => u.width!);
  if (way === 'shift' || taker < 0) {
    const shifted = widened(widths, at, width, { kind: 'shift' }, room, LEAST_WIDTH);
    if (shifted.ok) return next;
    if (taker < 0) return `It is ${formatLength(shifted.lacks, system)} wider than there is room for, and no unit beside it can be narrower.`;
  }
  const given = widened(widths, at, width, { kind: 'unit', unit: taker }, 0, LEAST_WIDTH);
  if (!given.ok) return `It is ${formatLength(given.lacks, system)} wider than ${row[taker].name} beside it can give.`;
  return next.map((u) => (u.id === row[taker].id ? { ...u, width: micro(given.widths[taker]) } : u));
}

/** A unit of another kind in the place of one, as wide as that. */
export function replacedBy(unit: Cabinet, word: string, system: UnitSystem): Cabinet | string {
  const made = unitsFrom(`rest ${word}`, unit.run, [], system, () => unit.id);
  if (!made.ok) return made.message;
  const [fresh] = made.units;
  return {
    ...fresh,
    width: unit.width ?? fresh.width,
    height: unit.height,
    depth: unit.depth,
    order: unit.order,
    corner: fresh.corner === null ? null : unit.corner,
    like: unit.like,
    middle: unit.middle,
    finishes: { ...unit.finishes, ...fresh.finishes },
    look: unit.look,
  };
}

/** A run without a unit: the others close up, or its place stays free. */
export function withoutUnit(units: readonly Cabinet[], id: string, keep: boolean, wide: number): Cabinet[] {
  const order = inOrder(units);
  const rest = keep
    ? order.map((u): Cabinet =>
        u.id === id
          ? { ...u, name: 'space', bare: 'space', backless: false, width: u.width ?? micro(wide), front: [], fittings: [], corner: null, finishes: {} }
          : u,
      )
    : order.filter((u) => u.id !== id);
  const ids = new Set(rest.filter((u) => u.bare !== 'space').map((u) => u.id));
  return rest.map((u, i) => ({
    ...u,
    order: i,
    middle: u.middle?.of === 'unit' && !ids.has(u.middle.id) ? null : u.middle,
    like: u.like !== null && !ids.has(u.like) ? null : u.like,
  }));
}

const OTHER: Readonly<Partial<Record<Hand, Hand>>> = { left: 'right', right: 'left' };

/** A front as it is seen in a mirror. */
const mirroredFront = (grid: FrontGrid): FrontGrid =>
  grid.map((r) => ({
    ...r,
    cells: [...r.cells].reverse().map((c) =>
      newCell({
        ...c,
        hand: c.hand === null ? null : (OTHER[c.hand] ?? c.hand),
        held: c.held && { ...c.held, from: c.held.from === 'left' ? 'right' : 'left' },
        inside: c.inside.map((i) => ({ ...i, fields: [...i.fields].reverse() })),
      }),
    ),
  }));

/** A unit as it is seen in a mirror, beside another. */
const mirroredUnit = (u: Cabinet, id: string): Cabinet => ({
  ...u,
  id,
  front: mirroredFront(u.front),
  // What the one keeps to is not the place of the other.
  middle: null,
  // Both sides stay as wide as one another.
  like: u.width === null || u.corner ? null : (u.like ?? u.id),
  fittings: u.fittings.map((f) => ({
    ...f,
    traits: Object.fromEntries(Object.entries(f.traits).map(([k, v]) => [k, v === 'left' ? 'right' : v === 'right' ? 'left' : v])),
  })),
});

/**
 * The stretch on one side of a unit copied to its other side as in a mirror, so that both sides match: of what stands or of what
 * hangs, as the unit does, up to the ends of its leg. What stood on that side goes.
 *
 * @param from the side that is copied
 * @returns the units, or one sentence on why there is nothing to mirror
 */
export function mirroredAbout(
  derived: Pick<DerivedRun, 'units'>,
  all: readonly Cabinet[],
  id: string,
  from: 'left' | 'right',
  newId: () => string,
): Cabinet[] | string {
  const own = derived.units.find((u) => u.unit.id === id);
  if (!own || own.placed.corner) return 'A corner unit is no axis to mirror about.';
  const hung = own.unit.band === 'wall';
  const row = rowOn(derived, own.placed.leg, hung);
  const at = row.findIndex((u) => u.id === id);
  const kept = from === 'left' ? row.slice(0, at) : row.slice(at + 1);
  const gone = new Set((from === 'left' ? row.slice(at + 1) : row.slice(0, at)).map((u) => u.id));
  if (!kept.length) return `Nothing stands on that side of ${own.unit.name}.`;
  if ([...kept, ...row.filter((u) => gone.has(u.id))].some((u) => u.corner)) return 'A corner unit can’t be mirrored along its wall.';
  const copies = [...kept].reverse().map((u) => mirroredUnit(u, newId()));
  const out = inOrder(all).flatMap((u): Cabinet[] => {
    if (gone.has(u.id)) return [];
    if (u.id !== id) return [u];
    return from === 'left' ? [u, ...copies] : [...copies, u];
  });
  const ids = new Set(out.map((u) => u.id));
  return out.map((u, order) => ({
    ...u,
    order,
    middle: u.middle?.of === 'unit' && !ids.has(u.middle.id) ? null : u.middle,
    like: u.like !== null && !ids.has(u.like) ? null : u.like,
  }));
}

/** A way to fill what is left along a leg: what it says, and the units of the run when it is taken. */
export interface Offer {
  text: string;
  units: Cabinet[];
}

/**
 * Ways to fill what is left on the floor along a leg: the last unit wider, all that may change wider by the same, a filler, the
 * widest unit that fits.
 *
 * @param all units of the run
 */
export function offersOn(
  derived: Pick<DerivedRun, 'run' | 'units' | 'floor' | 'legs'>,
  all: readonly Cabinet[],
  leg: number,
  system: UnitSystem,
  newId: () => string,
): Offer[] {
  const { run, floor } = derived;
  if (run.legs[leg]?.kind === 'free') return [];
  const gap = floor.gaps.filter((g) => g.leg === leg).sort((a, b) => b.to - b.from - (a.to - a.from))[0];
  const row = rowOn(derived, leg, false);
  if (!gap || !row.length) return [];
  const order = inOrder(all);
  const stretch = (u: Cabinet) => derived.units.find((p) => p.unit.id === u.id)!.placed.stretch;
  // Units on the side of the gap they lie packed against.
  const before = row.filter((u) => stretch(u).to <= gap.from + NEAR);
  const atEnd = before.length > 0;
  const beside = atEnd ? before : [...row].reverse();
  const sold = system === 'metric' ? WIDTHS.metric : WIDTHS.imperial;
  const last = beside[beside.length - 1];
  const put = (said: string): Cabinet[] => {
    const made = unitsFrom(said, run.id, [], system, newId);
    if (!made.ok) return [...order];
    const index = order.findIndex((u) => u.id === last.id) + (atEnd ? 1 : 0);
    const fresh = atEnd ? made.units : [...made.units].reverse();
    return [...order.slice(0, index), ...fresh, ...order.slice(index)].map((u, i) => ({ ...u, order: i }));
  };
  const exact = (metres: number): string => `${micro(metres * (system === 'metric' ? 1000 : 1 / 0.0254))}`;
  // A narrower strip is not cut.
  const isCut = (filler: number): boolean => filler < NEAR || filler >= LEAST_FILLER;
  return fillings(
    gap.to - gap.from,
    beside.map((u) => (canGive(u) ? u.width : null)),
    sold,
  )
    .filter((way) => (way.kind === 'filler' ? isCut(way.width) : way.kind !== 'unit' || isCut(way.filler)))
    .map((way): Offer => {
      const set = (widths: ReadonlyMap<string, number>): Cabinet[] => order.map((u) => (widths.has(u.id) ? { ...u, width: micro(widths.get(u.id)!) } : u));
      switch (way.kind) {
        case 'widen':
          return { text: `${last.name} ${formatLength(way.width, system)} wide`, units: set(new Map([[last.id, way.width]])) };
        case 'spread':
          return { text: 'spread over all', units: set(new Map(beside.flatMap((u, i) => (canGive(u) ? [[u.id, way.widths[i]] as const] : [])))) };
        case 'filler':
          return { text: `filler of ${formatLength(way.width, system)}`, units: put(`${exact(way.width)} filler`) };
        case 'unit':
          return {
            text: `door of ${formatLength(way.width, system)}${way.filler > NEAR ? `, filler of ${formatLength(way.filler, system)}` : ''}`,
            units: put(`${exact(way.width)} door${way.filler > NEAR ? `, ${exact(way.filler)} filler` : ''}`),
          };
      }
    });
}

/** Steps in which the edges of units are dragged, and the finer ones, metres. */
const STEPS: Readonly<Record<UnitSystem, { step: number; fine: number }>> = {
  metric: { step: 0.05, fine: 0.001 },
  imperial: { step: 3 * INCH, fine: INCH / 16 },
};

/** A width in the steps of dragging. @param fine in the finer ones */
export const stepped = (width: number, system: UnitSystem, fine: boolean): number => {
  const by = STEPS[system][fine ? 'fine' : 'step'];
  return micro(Math.max(Math.ceil(LEAST_WIDTH / by - NEAR) * by, Math.round(width / by) * by));
};

/**
 * The units of a run when an edge of one of them is dragged along its leg: at the edge that looks to where units are packed the
 * one beside it gives way, at the other all that follow shift, as far as there is room.
 *
 * @param to where the edge is dragged to, metres along its leg
 * @returns the units, or one sentence on why that is not possible
 */
export function edgeDragged(
  derived: Pick<DerivedRun, 'run' | 'units' | 'legs' | 'floor' | 'hung'>,
  all: readonly Cabinet[],
  id: string,
  side: 'left' | 'right',
  to: number,
  system: UnitSystem,
  fine: boolean,
): Cabinet[] | string {
  const { run, legs, units } = derived;
  const own = units.find((u) => u.unit.id === id)!;
  const { leg, stretch } = own.placed;
  const row = rowOn(derived, leg, own.unit.band === 'wall');
  const at = row.findIndex((u) => u.id === id);
  const width = stepped(side === 'right' ? to - stretch.from : stretch.to - to, system, fine);
  // Units lie together at the corner before them, at the one behind them, or where they are packed.
  const turns = run.legs.length > 1;
  const packed = turns && leg === 0 && all.some((u) => u.corner) ? 'end' : turns && leg > 0 ? 'start' : run.packed;
  const shifts = (side === 'right') === (packed === 'start');
  const neighbour = row[side === 'right' ? at + 1 : at - 1];
  return resized(run, all, legs, id, width, shifts || !neighbour || !canGive(neighbour) ? 'shift' : 'beside', side, system);
}

/**
 * The units of a run when one of them is dragged along its leg: it stands before the first whose middle lies farther on.
 *
 * @param to where its middle is dragged to, metres along its leg
 */
export function unitDragged(derived: Pick<DerivedRun, 'units'>, all: readonly Cabinet[], id: string, to: number): Cabinet[] {
  const own = derived.units.find((u) => u.unit.id === id)!;
  const hung = own.unit.band === 'wall';
  const others = derived.units.filter((u) => u.unit.id !== id && u.placed.leg === own.placed.leg && (u.unit.band === 'wall') === hung && !u.placed.corner);
  const order = inOrder(all);
  const rest = order.filter((u) => u.id !== id);
  const next = others.filter((u) => (u.placed.stretch.from + u.placed.stretch.to) / 2 > to).sort((a, b) => a.placed.stretch.from - b.placed.stretch.from)[0];
  const last = [...others].sort((a, b) => b.placed.stretch.to - a.placed.stretch.to)[0];
  if (!last) return order;
  const index = next ? rest.findIndex((u) => u.id === next.unit.id) : rest.findIndex((u) => u.id === last.unit.id) + 1;
  return [...rest.slice(0, index), own.unit, ...rest.slice(index)].map((u, i) => ({ ...u, order: i }));
}

/**
 * The units of a run with what hangs aligned with what stands below: each unit that hangs over one keeps to its middle and is as
 * wide, from now on. Hoods and what follows a corner keep their own widths.
 *
 * @returns the units, or one sentence on why nothing is aligned
 */
export function alignedBelow(derived: Pick<DerivedRun, 'units'>, all: readonly Cabinet[]): Cabinet[] | string {
  const standing = derived.units.filter((u) => u.unit.band === 'base' && u.unit.bare !== 'space' && !u.placed.corner && u.unit.width !== null);
  const used = new Set<string>();
  const below = new Map<string, Cabinet>();
  for (const { unit, placed } of derived.units) {
    if (unit.band !== 'wall' || unit.corner || unit.bare) continue;
    const middle = (placed.stretch.from + placed.stretch.to) / 2;
    const own = standing.find((u) => u.placed.leg === placed.leg && u.placed.stretch.from <= middle && u.placed.stretch.to >= middle && !used.has(u.unit.id));
    if (!own) continue;
    used.add(own.unit.id);
    below.set(unit.id, own.unit);
  }
  if (!below.size) return 'Nothing of it hangs over a unit that stands.';
  return inOrder(all).map((u) => {
    const own = below.get(u.id);
    if (!own) return u;
    const middle = { of: 'unit', id: own.id } as const;
    return u.fittings.length ? { ...u, middle } : { ...u, middle, like: own.id, width: own.width };
  });
}
