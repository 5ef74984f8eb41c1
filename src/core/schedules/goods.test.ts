import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { goodsOf, LENGTHS, lengthsOf, OFFCUTS, packsFor, TINS } from './goods';

describe('what is bought', () => {
  it('is rounded up, in what it is sold in', () => {
    expect(goodsOf('litre', 0.3)).toEqual({ quantity: 0.75, text: '0.75 l' });
    expect(goodsOf('litre', 2.1)).toEqual({ quantity: 2.5, text: '2.5 l' });
    expect(goodsOf('litre', 12.4)).toEqual({ quantity: 12.5, text: '10 l + 2.5 l' });
    expect(goodsOf('litre', 14.9)).toEqual({ quantity: 15, text: '10 l + 5 l' });
    expect(goodsOf('m2', 11.23)).toEqual({ quantity: 11.3, text: '11.3 m²' });
    expect(goodsOf('m2', 182.05)).toEqual({ quantity: 182.1, text: '182.1 m²' });
    expect(goodsOf('metre', 3.41)).toEqual({ quantity: 3.5, text: '3.5 m' });
    expect(goodsOf('box', 4.02)).toEqual({ quantity: 5, text: '5 boxes' });
    expect(goodsOf('roll', 1)).toEqual({ quantity: 1, text: '1 roll' });
    expect(goodsOf('piece', 0)).toEqual({ quantity: 0, text: '' });
    // 12 m of skirting, 13.2 with its offcuts: a length of 4.2 m more than three would be too much, two shorter ones do.
    expect(lengthsOf(12)).toEqual({ quantity: 13.2, text: '2 × 4.2 m + 2 × 2.4 m' });
    expect(lengthsOf(0)).toEqual({ quantity: 0, text: '' });
  });

  it('covers what is needed by whole packs, and no cheaper choice of packs does', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.01, max: 60, noNaN: true }), fc.boolean(), (need, paint) => {
        const [sizes, step, each] = paint ? [TINS, 0.25, 0.25] : [LENGTHS, 0.1, 0.1];
        const packs = packsFor(need, sizes, step, each);
        const sum = packs.reduce((s, p) => s + p.size * p.count, 0);
        const cost = sum + each * packs.reduce((s, p) => s + p.count, 0);
        expect(sum).toBeGreaterThan(need - 1e-6);
        for (const { size, count } of packs) {
          expect(sizes).toContain(size);
          expect(Number.isInteger(count) && count > 0).toBe(true);
          // Without any one of them it would not do.
          expect(sum - size).toBeLessThan(need + 1e-6);
        }
        // Every choice of up to four packs besides so many of the largest.
        const most = Math.max(...sizes);
        let best = Infinity;
        const tryOut = (left: number, from: number, total: number, count: number): void => {
          if (total > need - 1e-9) best = Math.min(best, total + each * count);
          else {
            const more = Math.ceil((need - total) / most - 1e-9);
            best = Math.min(best, total + more * most + each * (count + more));
          }
          if (left) for (let i = from; i < sizes.length; i++) tryOut(left - 1, i, total + sizes[i], count + 1);
        };
        for (let n = 0; n * most <= need + most; n++) tryOut(4, 0, n * most, n);
        expect(cost).toBeLessThan(best + 1e-6);
      }),
      { numRuns: 150 },
    );
  });

  it('of a thousand litres too is found at once', () => {
    expect(goodsOf('litre', 1000.3).quantity).toBe(1000.75);
    expect(lengthsOf(1000).quantity).toBeGreaterThanOrEqual(1000 * (1 + OFFCUTS));
  });
});
