import { stockCard } from '../stock/stock';
import type { BuiltInHow, StockCard } from '../stock/types';
import type { Cabinet, Run } from '../project/schema/cabinets';
import { formatLength, type UnitSystem } from '../units/length';
import { NEAR } from '../units/tolerance';
import { assembleRun, fittingsIn, sizeOf } from './assemble';
import { howIn, isRaisedIn, partOf, whatIs } from './fittings';
import { layFront } from './front';
import type { BackLine } from './run';
import { builtInOf } from './said';
import { newCell } from '../project/joinery';

/** What may be put in the place of what: machines of all kinds stand in one another’s place, with or without fronts before them. */
const PLACES: readonly (readonly BuiltInHow[])[] = [['cell'], ['top'], ['through'], ['tap'], ['stands', 'inside', 'behind'], ['hangs'], ['below']];

const placeOf = (how: BuiltInHow): number => PLACES.findIndex((p) => p.includes(how));

const howOf = ({ item, traits }: Pick<StockCard, 'item' | 'traits'>): BuiltInHow | null => whatIs({ maker: item.id, traits: { ...traits } })?.how ?? null;

/** Cards of the stock that can be put where something is built in. */
export function exchangeable(cards: readonly StockCard[], how: BuiltInHow): StockCard[] {
  return cards.filter((card) => {
    const own = howOf(card);
    return own !== null && placeOf(own) === placeOf(how);
  });
}

/** Cards of the stock that can be built into a unit of a band besides what it has. */
export function addable(cards: readonly StockCard[], { band, fittings, front, corner }: Pick<Cabinet, 'band' | 'fittings' | 'front' | 'corner'>): StockCard[] {
  if (corner) return [];
  const has = fittings.map((f) => whatIs(f)?.how);
  const cells = front.flatMap((r) => r.cells).filter((c) => c.kind === 'appliance').length - has.filter((h) => h === 'cell' || h === 'through').length;
  return cards.filter((card) => {
    switch (howOf(card)) {
      case 'cell':
        return cells > 0;
      case 'top':
        return band === 'base' && !has.some((h) => h === 'top' || h === 'through' || h === 'stands');
      case 'tap':
        return band === 'base' && !has.includes('tap') && !has.includes('stands');
      case 'below':
        return band === 'wall' && !has.includes('below') && !has.includes('hangs');
      default:
        return false;
    }
  });
}

/** No unit is made narrower so that another finds room, metres. */
const LEAST = 0.15;

/**
 * What a unit has to be as wide as for something to be built in, metres; null: its width does not matter.
 *
 * @param between it stands between the sides, raised
 */
function widthFor(how: BuiltInHow, width: number, board: number, between: boolean): number | null {
  if (between) return width + 2 * board + 0.003;
  if (how === 'cell') return width + 0.005;
  if (how === 'stands' || how === 'behind') return width + 0.003;
  if (how === 'inside') return width + 2 * board + 0.004;
  if (how === 'hangs') return width;
  return null;
}

/** Fronts of a unit in which something stands instead of its doors, or doors before what has none. */
function frontFor(how: BuiltInHow, was: BuiltInHow, { band, front }: Pick<Cabinet, 'band' | 'front'>): Cabinet['front'] {
  if (how === was) return front;
  const cell = (kind: 'appliance' | 'door', hand: 'down' | null = null) => newCell({ kind, hand });
  // A raised machine has its own front, or a door before it, in its place among others.
  if (howIn({ band, front }, was) !== was && (how === 'stands' || how === 'behind'))
    return front.map((row) => ({
      ...row,
      cells: row.cells.map((c) =>
        isRaisedIn(c, was) ? { ...cell(how === 'stands' ? 'appliance' : 'door', how === 'stands' ? null : 'down'), width: c.width } : c,
      ),
    }));
  if (how === 'stands') return [{ height: null, cells: [cell('appliance')] }];
  if (how === 'behind') return [{ height: null, cells: [cell('door', 'down')] }];
  return band === 'tall'
    ? [
        { height: null, cells: [cell('door')] },
        { height: 0.715, cells: [cell('door')] },
      ]
    : [{ height: null, cells: [cell('door')] }];
}

/**
 * A unit with something else built in: its housing follows (the row of its front, the width of the unit), and its neighbours give
 * way: they shift as far as there is room, else the nearest that may be narrower is.
 *
 * @param units of the run
 * @param index of what is exchanged among what is built into the unit; as many as there are: the card is added
 * @param card of the stock
 * @returns the units of the run, or one sentence on what does not fit, and by how much
 */
export function exchanged(
  run: Run,
  units: readonly Cabinet[],
  legs: readonly BackLine[],
  id: string,
  index: number,
  card: string,
  system: UnitSystem,
): Cabinet[] | string {
  const unit = units.find((u) => u.id === id);
  const own = stockCard(card);
  const { fittings: [fitting] = [], finishes } = builtInOf([card]);
  if (!unit || !own || !fitting) return 'This can’t be built into a unit.';
  const now = whatIs(fitting)!;
  const before = unit.fittings[index] && whatIs(unit.fittings[index]);
  const size = fitting.size ?? own.item.size;
  const word = own.name;
  // What was chosen for parts that it does not have is forgotten.
  const dropped = new Set(before && before.item !== now.item ? Object.keys(before.item.parts).map((p) => partOf(before.built, p)) : []);
  const fittings = unit.fittings.slice();
  fittings[index] = fitting;
  let front = before ? frontFor(now.how, before.how, unit) : unit.front;
  const raised = howIn({ band: unit.band, front }, now.how) !== now.how;
  if (now.how === 'cell' || (raised && now.how === 'stands')) {
    // Its row of the front is as high as it is.
    const at = fittings.slice(0, index).filter((f) => ['cell', 'through', ...(raised ? ['stands'] : [])].includes(whatIs(f)?.how ?? '')).length;
    let k = -1;
    front = front.map((row) => {
      const has = row.cells.filter((c) => c.kind === 'appliance').length;
      const mine = at > k && at <= k + has;
      k += has;
      return mine && row.height !== null ? { ...row, height: Math.round((size.height + (raised ? 1.5 * run.made.board : 0) + 0.003) * 1e4) / 1e4 } : row;
    });
  }
  const needs = widthFor(now.how, size.width, run.made.board, raised);
  const wide = unit.width;
  const follows = now.how === 'stands' || now.how === 'behind' || now.how === 'hangs';
  const width = needs === null || wide === null ? wide : follows || needs > wide + NEAR ? Math.ceil(Math.round(needs * 1e6) / 1e3) / 1e3 : wide;
  const changed: Cabinet = {
    ...unit,
    width,
    front,
    fittings,
    finishes: { ...Object.fromEntries(Object.entries(unit.finishes).filter(([part]) => !dropped.has(part))), ...finishes },
  };
  const { height } = sizeOf(changed, run.made);
  const lacks = layFront(front, width ?? 0.6, height, unit.band, run.made).lacks;
  if (lacks > NEAR) return `${word} is ${formatLength(lacks, system)} too high for its housing.`;
  const next = units.map((u) => (u.id === id ? changed : u));
  const lackOf = (all: readonly Cabinet[]): { lacks: number; leg: number } => {
    const laid = assembleRun(run, all, legs);
    const placed = laid.units.find((u) => u.unit.id === id)!;
    const row = unit.band === 'wall' ? laid.hung : laid.floor;
    return { lacks: row.lacks[placed.placed.leg] ?? 0, leg: placed.placed.leg };
  };
  const was = lackOf(units).lacks;
  const found = lackOf(next);
  const over = found.lacks - was;
  let out = next;
  if (over > NEAR) {
    const laid = assembleRun(run, next, legs);
    const row = laid.units.filter((u) => u.placed.leg === found.leg && (u.unit.band === 'wall') === (unit.band === 'wall'));
    const at = row.findIndex((u) => u.unit.id === id);
    const gives = row
      .map((u, i) => ({ unit: u.unit, away: Math.abs(i - at) }))
      .filter(({ unit: u }) => u.id !== id && u.width !== null && !u.corner && !u.bare && !u.fittings.length && u.width - over >= LEAST - NEAR)
      .sort((a, b) => a.away - b.away)[0];
    if (!gives) return `${word} is ${formatLength(over, system)} wider than there is room for; none of its neighbours can be that much narrower.`;
    out = next.map((u) => (u.id === gives.unit.id ? { ...u, width: Math.round((gives.unit.width! - over) * 1e6) / 1e6 } : u));
  }
  const laid = assembleRun(run, out, legs).units.find((u) => u.unit.id === id)!;
  const placed = fittingsIn(laid, run.made)[index];
  for (const [key, say] of [
    ['width', 'wide'],
    ['height', 'high'],
    ['depth', 'deep'],
  ] as const)
    if ((placed?.over[key] ?? 0) > NEAR) return `${word} is ${formatLength(placed.over[key]!, system)} too ${say} for its place.`;
  return out;
}
