import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { layBoards, SAW, SHEETS, type LaidSheet } from './boards';

const wanted = fc.array(
  fc.record({
    length: fc.integer({ min: 60, max: 2600 }).map((mm) => mm / 1000),
    width: fc.integer({ min: 40, max: 1200 }).map((mm) => mm / 1000),
    count: fc.integer({ min: 1, max: 6 }),
    turns: fc.boolean(),
  }),
  { minLength: 1, maxLength: 14 },
);

interface Rectangle {
  x: number;
  y: number;
  length: number;
  width: number;
}

const overlaps = (a: Rectangle, b: Rectangle, by = 1e-9): boolean =>
  a.x < b.x + b.length - by && b.x < a.x + a.length - by && a.y < b.y + b.width - by && b.y < a.y + a.width - by;

/** Whether rectangles can be parted by cuts from edge to edge, one after another: an independent reading of what a panel saw can do. */
function sawable(list: readonly Rectangle[]): boolean {
  if (list.length < 2) return true;
  for (const [at, size] of [
    ['x', 'length'],
    ['y', 'width'],
  ] as const)
    for (const r of list) {
      const line = r[at] + r[size];
      const before = list.filter((o) => o[at] + o[size] <= line + 1e-9);
      const behind = list.filter((o) => o[at] >= line - 1e-9);
      if (before.length && behind.length && before.length + behind.length === list.length) return sawable(before) && sawable(behind);
    }
  return false;
}

const within = ({ cuts, rest }: LaidSheet, length: number, width: number): void => {
  for (const c of [...cuts, ...rest]) {
    expect(c.x).toBeGreaterThan(-1e-9);
    expect(c.y).toBeGreaterThan(-1e-9);
    expect(c.x + c.length).toBeLessThan(length + 1e-9);
    expect(c.y + c.width).toBeLessThan(width + 1e-9);
  }
};

describe('boards that are cut from sheets', () => {
  it('never overlap, keep the saw between them, can be cut from edge to edge, and what is left is counted exactly', () => {
    fc.assert(
      fc.property(wanted, fc.constantFrom(SHEETS.metric, SHEETS.imperial), (list, sheet) => {
        const { sheets, tooLarge, area } = layBoards(list, sheet, SAW);
        for (const one of sheets) {
          within(one, sheet.length, sheet.width);
          const all: Rectangle[] = [...one.cuts, ...one.rest];
          all.forEach((a, i) => {
            for (const b of all.slice(i + 1)) expect(overlaps(a, b)).toBe(false);
          });
          one.cuts.forEach((a, i) => {
            const grown = { x: a.x - SAW, y: a.y - SAW, length: a.length + 2 * SAW, width: a.width + 2 * SAW };
            for (const b of one.cuts.slice(i + 1)) expect(overlaps(grown, b)).toBe(false);
          });
          expect(sawable(one.cuts)).toBe(true);
        }
        const cut = new Map<number, number>();
        for (const c of sheets.flatMap((s) => s.cuts)) {
          cut.set(c.of, (cut.get(c.of) ?? 0) + 1);
          const w = list[c.of];
          expect(c.turned ? [c.width, c.length] : [c.length, c.width]).toEqual([w.length, w.width]);
          if (c.turned) expect(w.turns).toBe(true);
        }
        list.forEach((w, i) => expect(cut.get(i) ?? 0).toBe(tooLarge.includes(i) ? 0 : w.count));
        expect(area.wanted + area.saw + area.rest).toBeCloseTo(area.sheets, 9);
        expect(area.saw).toBeGreaterThan(-1e-9);
      }),
    );
  });

  it('fill a sheet that they fit exactly, and turn where there is no grain', () => {
    const four = layBoards([{ length: (2.8 - SAW) / 2, width: (2.07 - SAW) / 2, count: 4, turns: false }], SHEETS.metric, SAW);
    expect(four.sheets).toHaveLength(1);
    expect(four.area.rest).toBeCloseTo(0, 9);
    // The saw went through the length once and through the width once.
    expect(four.area.saw).toBeCloseTo(SAW * (2.8 + 2.07 - SAW), 9);
    const long = { length: 1.2, width: 2.4, count: 1 };
    expect(layBoards([{ ...long, turns: true }], SHEETS.imperial, SAW).sheets[0].cuts[0]).toMatchObject({ turned: true, length: 2.4, width: 1.2 });
    expect(layBoards([{ ...long, turns: false }], SHEETS.imperial, SAW)).toMatchObject({ tooLarge: [0], sheets: [] });
  });

  it('of a kitchen need five sheets: strips of 0.37 m beside three sides of 0.56 m are of no use', () => {
    const kitchen = [
      { length: 0.72, width: 0.56, count: 20, turns: false },
      { length: 0.564, width: 0.56, count: 10, turns: false },
      { length: 0.564, width: 0.1, count: 20, turns: false },
      { length: 0.564, width: 0.48, count: 14, turns: false },
      { length: 2.05, width: 0.56, count: 4, turns: false },
    ];
    expect(layBoards(kitchen, SHEETS.metric, SAW).sheets).toHaveLength(5);
  });
});
