import { newCell } from '../project/joinery';
import type { Cell, FrontGrid, Inside } from '../project/schema/cabinets';
import { NEAR } from '../units/tolerance';
import type { Field, LaidFront } from './front';

/** A length that is divided: what has a size keeps it, what has none shares the rest. */
interface Divided {
  given: readonly (number | null)[];
  /** As they are laid out, metres. */
  sizes: readonly number[];
}

/** No row, no cell and no field is made smaller, metres. */
export const LEAST_PART = 0.05;

const round = (metres: number): number => Math.round(metres * 1e6) / 1e6;

/** Whether others than those two share what is left. */
const sharesBeside = (given: Divided['given'], i: number, j: number): boolean => given.some((g, k) => g === null && k !== i && k !== j);

/**
 * Two parts side by side with new sizes of the same sum; all others stay as they are. Where no other shares the rest one of the
 * two goes on sharing it.
 */
function paired({ given }: Divided, i: number, a: number, b: number): (number | null)[] {
  const out = [...given];
  const only = !sharesBeside(given, i, i + 1);
  out[i] = only && given[i] === null && given[i + 1] !== null ? null : round(a);
  out[i + 1] = only && given[i + 1] === null ? null : round(b);
  return out;
}

/** The border between two parts, moved. @param by metres towards the second */
export function borderMoved(parts: Divided, i: number, by: number): (number | null)[] {
  const [a, b] = [parts.sizes[i], parts.sizes[i + 1]];
  const most = b - LEAST_PART;
  const least = LEAST_PART - a;
  const way = Math.max(Math.min(least, 0), Math.min(Math.max(most, 0), by));
  return paired(parts, i, a + way, b - way);
}

/**
 * One part with another size: those that share take up the difference, else the next one, else the one before it.
 *
 * @param size metres; null: it shares the rest with others
 * @returns the sizes, or by how much there is too little room, metres
 */
export function sized({ given, sizes }: Divided, i: number, size: number | null): (number | null)[] | { lacks: number } {
  const out = [...given];
  if (size === null || given.length === 1) {
    out[i] = size;
    return out;
  }
  const more = size - sizes[i];
  const sharing = given.flatMap((g, k) => (g === null && k !== i ? [k] : []));
  const givers = sharing.length ? sharing : [i + 1 < given.length ? i + 1 : i - 1];
  const room = givers.reduce((sum, k) => sum + sizes[k] - LEAST_PART, 0);
  if (more > room + NEAR) return { lacks: more - room };
  out[i] = round(size);
  if (!sharing.length) out[givers[0]] = round(sizes[givers[0]] - more);
  return out;
}

/** One part in two halves. */
function halved({ given, sizes }: Divided, i: number): [number | null, number | null] {
  if (given[i] === null && !sharesBeside(given, i, i)) return [null, null];
  return [round(sizes[i] / 2), round(sizes[i] / 2)];
}

/** The sizes that are left when one part is taken away: the one behind it, else the one before it, takes its place. */
function without({ given, sizes }: Divided, i: number): (number | null)[] {
  const taker = i + 1 < given.length ? i + 1 : i - 1;
  const out = [...given];
  if (taker >= 0 && (out[taker] !== null || sharesBeside(given, i, taker))) out[taker] = round(sizes[taker] + sizes[i]);
  return out.filter((_, k) => k !== i);
}

/** Where a cell is in a front, or a field in the inside of one. */
export interface At {
  row: number;
  column: number;
}

const rowsOf = (grid: FrontGrid, laid: LaidFront): Divided => ({
  given: grid.map((r) => r.height),
  sizes: grid.map((_, row) => sizeOf(laid.cells.find((c) => c.row === row)?.field, 'z')),
});

const sizeOf = (field: Field | undefined, axis: 'x' | 'z'): number => (field ? (axis === 'x' ? field.x1 - field.x0 : field.z1 - field.z0) : 0);

const columnsOf = (grid: FrontGrid, laid: LaidFront, row: number): Divided => ({
  given: grid[row].cells.map((c) => c.width),
  sizes: grid[row].cells.map((_, column) => sizeOf(laid.cells.find((c) => c.row === row && c.column === column)?.field, 'x')),
});

const withHeights = (grid: FrontGrid, heights: readonly (number | null)[]): FrontGrid => grid.map((r, i) => ({ ...r, height: heights[i] }));
const withWidths = (grid: FrontGrid, row: number, widths: readonly (number | null)[]): FrontGrid =>
  grid.map((r, i) => (i === row ? { ...r, cells: r.cells.map((c, k) => ({ ...c, width: widths[k] })) } : r));

/** The cell one points at, from the lower left corner of the unit. Metres. */
export const cellAt = ({ cells }: LaidFront, x: number, z: number): At | null => {
  const own = cells.find(({ field: f }) => x >= f.x0 && x <= f.x1 && z >= f.z0 && z <= f.z1);
  return own ? { row: own.row, column: own.column } : null;
};

/** A border between rows, or between two cells of one. */
export interface Border {
  between: 'rows' | 'cells';
  /** The row above it, or the row and the cell left of it. */
  at: At;
}

/** The border one points at; null: none is so near. @param near metres */
export function borderAt({ cells }: LaidFront, x: number, z: number, near: number): Border | null {
  for (const { row, column, field: f } of cells) {
    const below = cells.some((c) => c.row === row + 1);
    if (below && x >= f.x0 && x <= f.x1 && Math.abs(z - f.z0) < near) return { between: 'rows', at: { row, column: 0 } };
    const beside = cells.find((c) => c.row === row && c.column === column + 1);
    if (beside && z >= f.z0 && z <= f.z1 && Math.abs(x - (f.x1 + beside.field.x0) / 2) < near + (beside.field.x0 - f.x1) / 2)
      return { between: 'cells', at: { row, column } };
  }
  return null;
}

/** A front with one of its borders moved. @param by metres, down or to the right */
export const frontMoved = (grid: FrontGrid, laid: LaidFront, { between, at }: Border, by: number): FrontGrid =>
  between === 'rows'
    ? withHeights(grid, borderMoved(rowsOf(grid, laid), at.row, by))
    : withWidths(grid, at.row, borderMoved(columnsOf(grid, laid, at.row), at.column, by));

/** A front with the height of a row, or by how much there is too little room, metres. */
export function rowSized(grid: FrontGrid, laid: LaidFront, row: number, height: number | null): FrontGrid | { lacks: number } {
  const next = sized(rowsOf(grid, laid), row, height);
  return Array.isArray(next) ? withHeights(grid, next) : next;
}

/** A front with the width of a cell, or by how much there is too little room, metres. */
export function cellSized(grid: FrontGrid, laid: LaidFront, { row, column }: At, width: number | null): FrontGrid | { lacks: number } {
  const next = sized(columnsOf(grid, laid, row), column, width);
  return Array.isArray(next) ? withWidths(grid, row, next) : next;
}

/** A front with another row below one, as high as half of it: of what that is closed with. */
export function rowDivided(grid: FrontGrid, laid: LaidFront, row: number): FrontGrid {
  const [upper, lower] = halved(rowsOf(grid, laid), row);
  return grid.flatMap((r, i) =>
    i === row
      ? [
          { ...r, height: upper },
          { height: lower, cells: r.cells.map((c) => ({ ...c })) },
        ]
      : [r],
  );
}

/** A front with another cell beside one, as wide as half of it. */
export function cellDivided(grid: FrontGrid, laid: LaidFront, { row, column }: At): FrontGrid {
  const [a, b] = halved(columnsOf(grid, laid, row), column);
  return grid.map((r, i) =>
    i === row
      ? {
          ...r,
          cells: r.cells.flatMap((c, k) =>
            k === column
              ? [
                  { ...c, width: a },
                  { ...c, width: b },
                ]
              : [c],
          ),
        }
      : r,
  );
}

/** A front without a cell, or without its row where it is the only one of that; the last of all stays. */
export function cellRemoved(grid: FrontGrid, laid: LaidFront, { row, column }: At): FrontGrid {
  if (grid[row].cells.length > 1) {
    const widths = without(columnsOf(grid, laid, row), column);
    return grid.map((r, i) => (i === row ? { ...r, cells: r.cells.filter((_, k) => k !== column).map((c, k) => ({ ...c, width: widths[k] })) } : r));
  }
  if (grid.length === 1) return grid;
  const heights = without(rowsOf(grid, laid), row);
  return withHeights(
    grid.filter((_, i) => i !== row),
    heights,
  );
}

/** A front with something of one of its cells changed. */
export const cellSet = (grid: FrontGrid, { row, column }: At, values: Partial<Cell>): FrontGrid =>
  grid.map((r, i) => (i === row ? { ...r, cells: r.cells.map((c, k) => (k === column ? newCell({ ...c, ...values }) : c)) } : r));

/** A field of an inside that is like any until something is said of it. */
const newField = (): Inside[number]['fields'][number] => ({ width: null, kind: 'shelves', count: 1 });

/** An inside with a row more below one; the first of one that was not divided holds its shelves. */
export const insideRowAdded = (inside: Inside, row: number, shelves: number): Inside =>
  inside.length
    ? inside.flatMap((r, i) => (i === row ? [r, { height: null, fields: [newField()] }] : [r]))
    : [{ height: null, fields: [{ ...newField(), count: shelves }] }];

/** An inside with a field more beside one. */
export const insideFieldAdded = (inside: Inside, { row, column }: At): Inside =>
  inside.map((r, i) => (i === row ? { ...r, fields: r.fields.flatMap((f, k) => (k === column ? [f, newField()] : [f])) } : r));

/** An inside without a field, or without its row where it was the only one of that. */
export const insideFieldRemoved = (inside: Inside, { row, column }: At): Inside =>
  inside.flatMap((r, i) => {
    if (i !== row) return [r];
    const fields = r.fields.filter((_, k) => k !== column);
    return fields.length ? [{ ...r, fields }] : [];
  });

/** An inside with something of a field, or the height of its row, changed. */
export const insideSet = (inside: Inside, { row, column }: At, values: Partial<Inside[number]['fields'][number]>, height?: number | null): Inside =>
  inside.map((r, i) =>
    i === row ? { height: height === undefined ? r.height : height, fields: r.fields.map((f, k) => (k === column ? { ...f, ...values } : f)) } : r,
  );
