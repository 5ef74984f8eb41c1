import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { newCell } from '../project/joinery';
import type { FrontGrid } from '../project/schema/cabinets';
import { unitsSaid } from '../testing/cabinets';
import {
  borderAt,
  borderMoved,
  cellAt,
  cellDivided,
  cellRemoved,
  cellSet,
  cellSized,
  frontMoved,
  insideFieldAdded,
  insideFieldRemoved,
  insideRowAdded,
  insideSet,
  LEAST_PART,
  rowDivided,
  rowSized,
  sized,
} from './dividing';
import { CONSTRUCTIONS } from './figures';
import { layFront, type LaidFront } from './front';
import { sharedOut } from './shares';

const made = CONSTRUCTIONS.frameless;
const lay = (grid: FrontGrid, width = 0.8, height = 0.72): LaidFront => layFront(grid, width, height, 'base', made);
const heights = (grid: FrontGrid): number[] => grid.map((_, r) => lay(grid).cells.find((c) => c.row === r)!.field).map((f) => f.z1 - f.z0);
const widths = (grid: FrontGrid, row: number): number[] =>
  lay(grid)
    .cells.filter((c) => c.row === row)
    .map(({ field }) => field.x1 - field.x0);

/** A length of 2 m in parts, of which some share what others leave. */
const parts = fc
  .array(
    fc.oneof(
      fc.constant(null),
      fc.integer({ min: 60, max: 300 }).map((mm) => mm / 1000),
    ),
    { minLength: 2, maxLength: 6 },
  )
  .map((given) => ({ given, sizes: sharedOut(2, given, LEAST_PART).sizes }))
  // What all of them leave goes to nobody; parts fill their length where one shares.
  .filter(({ given }) => given.includes(null));

describe('a length that is divided', () => {
  it('has its borders moved without anything changing but the two beside it', () => {
    fc.assert(
      fc.property(parts, fc.nat(), fc.double({ min: -0.4, max: 0.4, noNaN: true }), (divided, at, by) => {
        const i = at % (divided.given.length - 1);
        const next = sharedOut(2, borderMoved(divided, i, by), LEAST_PART).sizes;
        expect(next.reduce((a, b) => a + b, 0)).toBeCloseTo(2, 5);
        next.forEach((size, k) => k !== i && k !== i + 1 && expect(size).toBeCloseTo(divided.sizes[k], 5));
        expect(next[i] + next[i + 1]).toBeCloseTo(divided.sizes[i] + divided.sizes[i + 1], 5);
        expect(next[i]).toBeGreaterThan(LEAST_PART - 1e-5);
        expect(next[i + 1]).toBeGreaterThan(LEAST_PART - 1e-5);
        const free = Math.min(divided.sizes[i + 1] - LEAST_PART, Math.max(LEAST_PART - divided.sizes[i], by));
        expect(next[i]).toBeCloseTo(divided.sizes[i] + free, 5);
      }),
    );
  });

  it('has one part of the size that is typed, or says what is missing', () => {
    fc.assert(
      fc.property(parts, fc.nat(), fc.double({ min: 0.06, max: 1.9, noNaN: true }), (divided, at, size) => {
        const i = at % divided.given.length;
        const next = sized(divided, i, size);
        if (!Array.isArray(next)) {
          expect(next.lacks).toBeGreaterThan(0);
          return;
        }
        const own = sharedOut(2, next, LEAST_PART);
        expect(own.sizes[i]).toBeCloseTo(size, 5);
        expect(own.sizes.reduce((a, b) => a + b, 0) + own.rest).toBeCloseTo(2, 5);
        expect(own.rest).toBeGreaterThan(-1e-5);
        own.sizes.forEach((s) => expect(s).toBeGreaterThan(LEAST_PART - 1e-5));
      }),
    );
  });
});

describe('a front', () => {
  // A drawer over a pair of pan drawers.
  const [{ front: drawers }] = unitsSaid('800 drawers');

  it('is divided across in halves, the other rows as they were', () => {
    const before = heights(drawers);
    const next = rowDivided(drawers, lay(drawers), 1);
    expect(next).toHaveLength(4);
    expect(heights(next)).toEqual([before[0], before[1] / 2, before[1] / 2, before[2]].map((h) => expect.closeTo(h, 5) as number));
    expect(next[2].cells[0].kind).toBe('pan drawer');
  });

  it('is divided down, and put together again by taking a cell away', () => {
    const two = cellDivided(drawers, lay(drawers), { row: 0, column: 0 });
    expect(widths(two, 0)).toEqual([0.4, 0.4].map((w) => expect.closeTo(w, 9) as number));
    expect(two[0].cells.map((c) => c.width)).toEqual([null, null]);
    const three = cellDivided(two, lay(two), { row: 0, column: 1 });
    expect(widths(three, 0)).toEqual([0.4, 0.2, 0.2].map((w) => expect.closeTo(w, 9) as number));
    const one = cellRemoved(three, lay(three), { row: 0, column: 1 });
    expect(widths(one, 0)).toEqual([0.4, 0.4].map((w) => expect.closeTo(w, 9) as number));
    expect(cellRemoved(one, lay(one), { row: 0, column: 0 })[0].cells).toHaveLength(1);
    const rest = cellRemoved(drawers, lay(drawers), { row: 1, column: 0 });
    expect(rest).toHaveLength(2);
    expect(heights(rest)[0]).toBeCloseTo(0.14, 9);
    // The last cell of all stays.
    const [{ front: door }] = unitsSaid('600 door');
    expect(cellRemoved(door, lay(door), { row: 0, column: 0 })).toBe(door);
  });

  it('is pointed at: cells, and the borders between them', () => {
    const grid: FrontGrid = [
      { height: 0.2, cells: [newCell({ width: 0.3 }), newCell()] },
      { height: null, cells: [newCell({ kind: 'open' })] },
    ];
    const laid = lay(grid);
    expect(cellAt(laid, 0.5, 0.6)).toEqual({ row: 0, column: 1 });
    expect(cellAt(laid, 0.5, 0.1)).toEqual({ row: 1, column: 0 });
    expect(cellAt(laid, 2, 0.1)).toBeNull();
    expect(borderAt(laid, 0.6, 0.521, 0.01)).toEqual({ between: 'rows', at: { row: 0, column: 0 } });
    expect(borderAt(laid, 0.305, 0.6, 0.01)).toEqual({ between: 'cells', at: { row: 0, column: 0 } });
    expect(borderAt(laid, 0.6, 0.6, 0.01)).toBeNull();
    expect(heights(frontMoved(grid, laid, { between: 'rows', at: { row: 0, column: 0 } }, 0.1))[0]).toBeCloseTo(0.3, 9);
    expect(widths(frontMoved(grid, laid, { between: 'cells', at: { row: 0, column: 0 } }, -0.1), 0)[0]).toBeCloseTo(0.2, 9);
  });

  it('has rows and cells of the sizes that are typed, where there is room', () => {
    const next = rowSized(drawers, lay(drawers), 0, 0.2);
    expect(Array.isArray(next) && heights(next)[0]).toBeCloseTo(0.2, 9);
    expect(rowSized(drawers, lay(drawers), 0, 0.7)).toEqual({ lacks: expect.closeTo(0.08, 6) });
    const two = cellDivided(drawers, lay(drawers), { row: 0, column: 0 });
    const wide = cellSized(two, lay(two), { row: 0, column: 0 }, 0.55);
    expect(Array.isArray(wide) && widths(wide, 0)).toEqual([expect.closeTo(0.55, 9), expect.closeTo(0.25, 9)]);
    expect(Array.isArray(cellSized(two, lay(two), { row: 0, column: 0 }, 0.78))).toBe(false);
  });

  it('stands open where its front is taken away', () => {
    const open = cellSet(drawers, { row: 1, column: 0 }, { kind: 'open' });
    expect(lay(open).cells.map((c) => c.leaves.length)).toEqual([1, 0, 1]);
    expect(open[0]).toBe(drawers[0]);
  });
});

describe('the inside of a cell', () => {
  it('is divided from its shelves on, below and beside, and put together again', () => {
    const first = insideRowAdded([], 0, 3);
    expect(first).toEqual([{ height: null, fields: [{ width: null, kind: 'shelves', count: 3 }] }]);
    const two = insideSet(insideRowAdded(first, 0, 0), { row: 0, column: 0 }, { kind: 'rail' }, 1.1);
    expect(two.map((r) => [r.height, r.fields[0].kind])).toEqual([
      [1.1, 'rail'],
      [null, 'shelves'],
    ]);
    const three = insideFieldAdded(two, { row: 1, column: 0 });
    expect(three[1].fields).toHaveLength(2);
    expect(insideFieldRemoved(insideFieldRemoved(three, { row: 1, column: 0 }), { row: 1, column: 0 })).toHaveLength(1);
  });
});
