import { DUST } from '../units/tolerance';

/** A rectangle that is to be cut, metres. Its length lies along the grain. */
export interface Wanted {
  length: number;
  width: number;
  count: number;
  /** Whether it may be turned: where the board has no grain. */
  turns: boolean;
}

/** A sheet as it is sold, metres: its grain runs along its length. */
export interface Sheet {
  length: number;
  width: number;
}

/** A rectangle cut from a sheet: its corner nearest to that of the sheet, and its sizes as they lie. */
export interface CutOut {
  /** Which of the wanted. */
  of: number;
  x: number;
  y: number;
  length: number;
  width: number;
  turned: boolean;
}

export interface LaidSheet {
  cuts: CutOut[];
  /** What is left as rectangles, once the saw has gone through, metres. */
  rest: { x: number; y: number; length: number; width: number }[];
}

/** Sheets with what is cut from them. */
export interface BoardLayout {
  sheets: LaidSheet[];
  /** Those of the wanted that are larger than a sheet. */
  tooLarge: number[];
  /** m² of the sheets, of what is wanted, of dust, and of what is left. They add up. */
  area: { sheets: number; wanted: number; saw: number; rest: number };
}

type Piece = Wanted & { of: number };

/** In which order pieces are taken. */
const ORDERS: readonly ((p: Piece) => number)[] = [
  (p) => p.length * p.width,
  (p) => Math.max(p.length, p.width),
  (p) => p.width,
  (p) => p.length,
  (p) => p.length + p.width,
];

/** How well a piece lies in a free rectangle: what is left over, the less the better. @param l, w what is left of its sides */
const FITS: readonly ((l: number, w: number, area: number) => number)[] = [(_l, _w, area) => area, (l, w) => Math.min(l, w), (l, w) => Math.max(l, w)];

/** Whether the first cut beside a piece goes along the length of the sheet. @param l, w what is left of the sides of the free rectangle */
const SPLITS: readonly ((l: number, w: number, p: { length: number; width: number }) => boolean)[] = [
  (l, w) => l < w,
  (l, w) => l >= w,
  // The larger of what is left stays as large as it can.
  (l, w, p) => l * p.width < w * p.length,
];

/**
 * Lays rectangles on sheets so that a panel saw can cut them, edge to edge: the guillotine algorithm (Jylänki, "A thousand ways
 * to pack the bin", 2010) with its rules for choosing a free rectangle and for splitting it, in several orders; the layout of
 * the fewest sheets, and of these the one with the largest piece left, is taken. Every cut takes the width of the saw.
 *
 * @param saw width of a cut, metres
 */
export function layBoards(wanted: readonly Wanted[], sheet: Sheet, saw: number): BoardLayout {
  const tooLarge: number[] = [];
  const pieces = wanted.flatMap((w, of): Piece[] => {
    const fits = (l: number, h: number): boolean => l <= sheet.length + DUST && h <= sheet.width + DUST;
    if (fits(w.length, w.width) || (w.turns && fits(w.width, w.length))) return Array.from({ length: w.count }, () => ({ ...w, of }));
    tooLarge.push(of);
    return [];
  });
  let best: LaidSheet[] | null = null;
  const largest = (sheets: readonly LaidSheet[]): number => Math.max(0, ...sheets.flatMap((s) => s.rest.map((r) => r.length * r.width)));
  for (const order of ORDERS) {
    const queue = [...pieces].sort((a, b) => order(b) - order(a) || b.length - a.length || b.width - a.width || a.of - b.of);
    for (const fit of FITS)
      for (const split of SPLITS) {
        const made = layInOrder(queue, sheet, saw, fit, split);
        if (!best || made.length < best.length || (made.length === best.length && largest(made) > largest(best) + DUST)) best = made;
      }
  }
  const sheets = best ?? [];
  const area = { sheets: sheets.length * sheet.length * sheet.width, wanted: 0, saw: 0, rest: 0 };
  for (const { cuts, rest } of sheets) {
    for (const c of cuts) area.wanted += c.length * c.width;
    for (const f of rest) area.rest += f.length * f.width;
  }
  area.saw = area.sheets - area.wanted - area.rest;
  return { sheets, tooLarge, area };
}

function layInOrder(queue: readonly Piece[], sheet: Sheet, saw: number, fit: (typeof FITS)[number], split: (typeof SPLITS)[number]): LaidSheet[] {
  const sheets: LaidSheet[] = [];
  for (const { of, length, width, turns } of queue) {
    const ways = [{ length, width, turned: false }, ...(turns && length !== width ? [{ length: width, width: length, turned: true }] : [])];
    let best: { on: LaidSheet; free: number; way: (typeof ways)[number]; value: number } | null = null;
    const look = (on: LaidSheet): void =>
      on.rest.forEach((f, free) => {
        for (const way of ways) {
          const [l, w] = [f.length - way.length, f.width - way.width];
          if (l < -DUST || w < -DUST) continue;
          const value = fit(l, w, f.length * f.width - way.length * way.width);
          if (!best || value < best.value - DUST) best = { on, free, way, value };
        }
      });
    sheets.forEach(look);
    if (!best) {
      const fresh: LaidSheet = { cuts: [], rest: [{ x: 0, y: 0, ...sheet }] };
      sheets.push(fresh);
      look(fresh);
    }
    const { on, free, way } = best!;
    const [f] = on.rest.splice(free, 1);
    on.cuts.push({ of, x: f.x, y: f.y, ...way });
    // The saw goes beside it both ways; the first cut goes through the whole of the free rectangle.
    const [restL, restW] = [f.length - way.length, f.width - way.width];
    const along = split(restL, restW, way);
    const right = { x: f.x + way.length + saw, y: f.y, length: restL - saw, width: along ? way.width : f.width };
    const above = { x: f.x, y: f.y + way.width + saw, length: along ? f.length : way.length, width: restW - saw };
    for (const part of [right, above]) if (part.length > DUST && part.width > DUST) on.rest.push(part);
  }
  return sheets;
}

/** Sheets boards are sold in, and the width of a cut, metres. */
export const SHEETS = { metric: { length: 2.8, width: 2.07 }, imperial: { length: 2.44, width: 1.22 } } as const;
export const SAW = 0.004;
