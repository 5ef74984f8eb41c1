import type { Band, Cell, Construction, FrontGrid, Hand } from '../project/schema/cabinets';
import { handOf, isWide } from './said';
import { sharedOut } from './shares';
import { NEAR } from '../units/tolerance';

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
  /** It is the right one of a pair. */
  second?: true;
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

/** How far fronts stand out before the carcass, or the frame before it, metres. */
export const frontOut = ({ lies, front }: Pick<Construction, 'lies' | 'front'>): number => (lies === 'inset' ? 0 : front);

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

/** Half laid on, a front covers no more of a frame, metres: half an inch. */
const HALF_LAP = 0.0127;

/** Whether a board lies between two rows: drawers that lie over one another need none. */
export const parted = (above: readonly Pick<Cell, 'kind' | 'hand'>[], below: readonly Pick<Cell, 'kind' | 'hand'>[]): boolean =>
  [...above, ...below].some((cell) => !isDrawn(cell) && cell.kind !== 'dummy');

/** Cells that nothing closes. */
const STANDS_OPEN: ReadonlySet<Cell['kind']> = new Set(['open', 'niche', 'appliance']);

/** No row and no cell that shares is smaller, metres. */
const LEAST = 0.05;

/**
 * Divides the front of a unit into its cells, and finds what closes them: laid on the carcass or on its frame, on all of its edges
 * or on half of them, with gaps between; or set in between these. Fields of cells fill the unit, or are the openings of its frame.
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
    // Whether a board lies over this row, and under it.
    const boards = { over: r === 0 || parted(grid[r - 1].cells, row.cells), under: r === grid.length - 1 || parted(row.cells, grid[r + 1].cells) };
    row.cells.forEach((cell, c) => {
      const field = { x0: left, x1: left + columns.sizes[c], z0, z1 };
      out.cells.push({ row: r, column: c, cell, field, leaves: leavesOf(cell, field, edgesOf(field, width, height, band, made, boards), made, hangs) });
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

/**
 * What a leaf keeps free at each side of its field; less than nothing where it goes beyond, on a frame. Laid on, it keeps half a gap
 * to others and its own margin at the edges of the unit; half laid on, half of each board that is seen beside it; inset, a gap to
 * whatever it stands between.
 *
 * @param boards whether one lies over the row of the field, and under it
 */
function edgesOf(
  field: Field,
  width: number,
  height: number,
  band: Band,
  made: Construction,
  boards: { over: boolean; under: boolean },
): Record<keyof Field, number> {
  const { gap, side, under, frame, board, lies } = made;
  const least = frame > 0 ? frame : gap;
  const outer = { x0: field.x0 < least + NEAR, x1: field.x1 > width - least - NEAR, z0: field.z0 < least + NEAR, z1: field.z1 > height - least - NEAR };
  const beside = { x0: true, x1: true, z0: boards.under, z1: boards.over };
  const edge = (key: keyof Field): number => {
    if (frame > 0) {
      if (lies === 'inset') return gap;
      const all = outer[key] ? frame - (key === 'z1' && band === 'base' ? under : side) : (frame - gap) / 2;
      return -(lies === 'on' ? all : Math.min(all, HALF_LAP));
    }
    if (lies === 'inset') return (outer[key] ? board : beside[key] ? board / 2 : -gap / 2) + gap;
    if (!outer[key]) return gap / 2;
    if (key === 'z1' && band === 'base') return under;
    return lies === 'half' ? board / 2 : side;
  };
  return { x0: edge('x0'), x1: edge('x1'), z0: edge('z0'), z1: edge('z1') };
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
    { ...whole, x0: middle + half, hand: 'right', second: true, ...into },
  ];
}
