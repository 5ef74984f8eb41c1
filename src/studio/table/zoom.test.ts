import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { CLOSEST, FARTHEST, zoomed } from './zoom';

const views = fc.record({
  k: fc.double({ min: FARTHEST, max: CLOSEST, noNaN: true }),
  x: fc.integer({ min: -900, max: 900 }),
  y: fc.integer({ min: -900, max: 900 }),
});

describe('zooming a drawing', () => {
  it('keeps what is under the pointer under it, and within its limits', () => {
    fc.assert(
      fc.property(views, fc.integer({ min: 0, max: 900 }), fc.integer({ min: 0, max: 700 }), fc.integer({ min: -3000, max: 3000 }), (v, x, y, by) => {
        const next = zoomed(v, { x, y }, by);
        expect((x - next.x) / next.k).toBeCloseTo((x - v.x) / v.k, 6);
        expect((y - next.y) / next.k).toBeCloseTo((y - v.y) / v.k, 6);
        expect(next.k).toBeGreaterThanOrEqual(FARTHEST);
        expect(next.k).toBeLessThanOrEqual(CLOSEST);
      }),
    );
  });

  it('comes back where it began, unless it met a limit', () => {
    const v = { k: 100, x: 20, y: 40 };
    const back = zoomed(zoomed(v, { x: 300, y: 200 }, 400), { x: 300, y: 200 }, -400);
    expect([back.k, back.x, back.y].map((n) => n.toFixed(6))).toEqual(['100.000000', '20.000000', '40.000000']);
  });
});
