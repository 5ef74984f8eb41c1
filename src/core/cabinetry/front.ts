import type { Band, Cell, Construction, FrontGrid, Hand } from '../project/schema/cabinets';
import { handOf, isWide } from './said';
import { sharedOut } from './shares';

/** A rectangle of a front seen from before it: x from the left edge of the unit, z above the foot of its carcass. Metres. */
export interface Field {
  x0: number;
  x1: number;
  z0: number;
  z1: number;
}

/** A leaf: a door, a drawer front or a panel. */
export interface Leaf extends Field {
  hand: Hand | null;
  /** Once it stands open it slides back into its unit, beside the side it hangs at. */
  pocket?: true;
}

/** A cell of a front with where it lies. */
export interface LaidCell {
  row: number;
  column: number;
  cell: Cell;
  /** What it takes of the unit: the middle of gaps, or the opening of the frame. */
  field: Field;
  /** What closes it; nothing where it stands open. */
  leaves: Leaf[];
}

/** A front that is divided. */
export interface LaidFront {
  cells: LaidCell[];
  /** Stiles and rails of a frame before the carcass; none where there is none. Stiles go through, rails stand between them. */
  frame: Field[];
  /** Where the carcass is divided behind the front: between rows and between cells. */
  between: { rows: number[]; cells: { row: number; x: number }[] };
  /** By how much rows or cells need more than there is, metres. */
  lacks: number;
}

/** Whether what is in a cell comes out with its front: of drawers, and of what is pulled out. */
export const isDrawn = ({ kind, hand }: Pick<Cell, 'kind' | 'hand'>): boolean =>
  kind === 'drawer' || kind === 'pan drawer' || ((kind === 'door' || kind === 'glazed') && hand === 'pull-out');

/** Cells that nothing closes. */
const STANDS_OPEN: ReadonlySet<Cell['kind']> = new Set(['open', 'niche', 'appliance']);

/** No row and no cell that shares is smaller, metres. */
const LEAST = 0.05;

/**
 * Divides the front of a unit into its cells, and finds what closes them: laid on the carcass with gaps between, or inset in the
 * openings of a frame. Fields of cells fill the unit; leaves keep the gaps.
 *
 * @param width of the unit, metres
 * @param height of its carcass, metres
 * @param hangs where a single door hangs that nobody has said
 */
export function layFront(grid: FrontGrid, width: number, height: number, band: Band, made: Construction, hangs: 'left' | 'right' = 'left'): LaidFront {
  const out: LaidFront = { cells: [], frame: [], between: { rows: [], cells: [] }, lacks: 0 };
  if (!grid.length) return out;
  const f = made.frame;
  const framed = f > 0;
  // Rows share the height less the rails of a frame; laid on, they meet in the middle of the gap between them.
  const rails = framed ? (grid.length + 1) * f : 0;
  const rows = sharedOut(
    height - rails,
    grid.map(({ height: h }) => h),
    LEAST,
  );
  out.lacks = Math.max(0, -rows.rest);
  // What rows that all have a height leave goes to the lowest.
  if (rows.rest > 0) rows.sizes[grid.length - 1] += rows.rest;
  if (framed) {
    out.frame.push({ x0: 0, x1: f, z0: 0, z1: height }, { x0: width - f, x1: width, z0: 0, z1: height });
    out.frame.push({ x0: f, x1: width - f, z0: height - f, z1: height });
  }
  let top = height - (framed ? f : 0);
  grid.forEach((row, r) => {
    const z1 = top;
    const z0 = r === grid.length - 1 && !framed ? 0 : top - rows.sizes[r];
    const stiles = framed ? (row.cells.length + 1) * f : 0;
    const columns = sharedOut(
      width - stiles,
      row.cells.map(({ width: w }) => w),
      LEAST,
    );
    out.lacks = Math.max(out.lacks, -columns.rest);
    if (columns.rest > 0) columns.sizes[row.cells.length - 1] += columns.rest;
    let left = framed ? f : 0;
    row.cells.forEach((cell, c) => {
      const field = { x0: left, x1: left + columns.sizes[c], z0, z1 };
      out.cells.push({ row: r, column: c, cell, field, leaves: leavesOf(cell, field, edgesOf(field, width, height, band, made), made, hangs) });
      left = field.x1;
      if (c < row.cells.length - 1) {
        out.between.cells.push({ row: r, x: left + f / 2 });
        if (framed) out.frame.push({ x0: left, x1: left + f, z0, z1 });
        left += f;
      }
    });
    top = z0 - f;
    if (framed) out.frame.push({ x0: f, x1: width - f, z0: top, z1: z0 });
    if (r < grid.length - 1) out.between.rows.push(z0 - f / 2);
  });
  return out;
}

/** What a leaf keeps free at each side of its field, laid on: half a gap to others, its own margin at the edges of the unit. */
function edgesOf(field: Field, width: number, height: number, band: Band, { gap, side, under, frame }: Construction): Record<keyof Field, number> {
  if (frame > 0) return { x0: gap, x1: gap, z0: gap, z1: gap };
  return {
    x0: field.x0 === 0 ? side : gap / 2,
    x1: field.x1 > width - gap ? side : gap / 2,
    z0: field.z0 === 0 ? side : gap / 2,
    z1: field.z1 > height - gap ? (band === 'base' ? under : side) : gap / 2,
  };
}

function leavesOf(cell: Cell, field: Field, edge: Record<keyof Field, number>, { gap }: Construction, hangs: 'left' | 'right'): Leaf[] {
  if (STANDS_OPEN.has(cell.kind)) return [];
  const whole = { x0: field.x0 + edge.x0, x1: field.x1 - edge.x1, z0: field.z0 + edge.z0, z1: field.z1 - edge.z1 };
  const hung = cell.kind === 'door' || cell.kind === 'glazed';
  const hand = hung ? handOf(cell, field.x1 - field.x0, hangs) : null;
  const wide = field.x1 - field.x0;
  if (hand === 'pocket' && !isWide(wide)) return [{ ...whole, hand: hangs, pocket: true }];
  if (hand !== 'pair' && hand !== 'pocket') return [{ ...whole, hand }];
  const into = hand === 'pocket' ? { pocket: true as const } : {};
  const middle = (field.x0 + field.x1) / 2;
  const half = gap / 2;
  return [
    { ...whole, x1: middle - half, hand: 'left', ...into },
    { ...whole, x0: middle + half, hand: 'right', ...into },
  ];
}
