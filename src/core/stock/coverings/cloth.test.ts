import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { clothFor, FULLNESS, HEADINGS, stackOf } from './cloth';

describe('cloth for curtains', () => {
  it('by worked examples', () => {
    // A pair over 2.4 m, pencil pleat: 2.4 m of cloth a curtain, that is 1.75 widths of 1.37 m, two to the half; four drops.
    expect(clothFor({ width: 2.4, drop: 2.25, fullness: FULLNESS['pencil pleat'], curtains: 2, bolt: 1.37, repeat: 0 })).toEqual({
      widths: 2,
      drops: 4,
      cut: expect.closeTo(2.58, 9),
      metres: expect.closeTo(10.32, 9),
    });
    // With a repeat of 64 cm five of them are cut: 3.2 m a drop.
    expect(clothFor({ width: 2.4, drop: 2.25, fullness: FULLNESS['pencil pleat'], curtains: 2, bolt: 1.37, repeat: 0.64 })).toMatchObject({
      cut: expect.closeTo(3.2, 9),
      metres: expect.closeTo(12.8, 9),
    });
    // A pair of one and a half widths each is cut from three lengths.
    expect(clothFor({ width: 2, drop: 1.4, fullness: FULLNESS.wave, curtains: 2, bolt: 1.4, repeat: 0 })).toMatchObject({ widths: 1.5, drops: 3 });
    // A single one of two and a half widths takes three.
    expect(clothFor({ width: 1.9, drop: 1.4, fullness: FULLNESS.wave, curtains: 1, bolt: 1.4, repeat: 0 })).toMatchObject({ widths: 2.5, drops: 3 });
    // Wide cloth covers a small window in one.
    expect(clothFor({ width: 1.2, drop: 1.4, fullness: FULLNESS['pinch pleat'], curtains: 1, bolt: 2.9, repeat: 0 })).toMatchObject({ widths: 1, drops: 1 });
  });

  it('is never less than the fullness asks for, and never a half width more than that', () => {
    fc.assert(
      fc.property(
        fc.record({
          width: fc.double({ min: 0.4, max: 6, noNaN: true }),
          drop: fc.double({ min: 0.5, max: 4, noNaN: true }),
          fullness: fc.constantFrom(1, ...HEADINGS.map((h) => FULLNESS[h])),
          curtains: fc.constantFrom(1 as const, 2 as const),
          bolt: fc.constantFrom(1.37, 1.4, 2.8, 3),
          repeat: fc.constantFrom(0, 0.32, 0.64),
        }),
        (asked) => {
          const { widths, drops, cut, metres } = clothFor(asked);
          const needed = (asked.width / asked.curtains) * asked.fullness;
          expect(widths * asked.bolt).toBeGreaterThanOrEqual(needed - 1e-6);
          expect((widths - 0.5) * asked.bolt).toBeLessThan(Math.max(needed, 1e-9) + 1e-6);
          expect(drops).toBeGreaterThanOrEqual(widths * asked.curtains - 1e-9);
          expect(cut).toBeGreaterThanOrEqual(asked.drop + 0.2);
          if (asked.repeat) expect(cut / asked.repeat).toBeCloseTo(Math.round(cut / asked.repeat), 6);
          expect(metres).toBeCloseTo(drops * cut, 9);
        },
      ),
    );
  });

  it('drawn back stands at a share of its width', () => {
    for (const heading of HEADINGS) {
      // Each of a pair covers half of the width.
      expect(stackOf(1.2, heading) / 2.4).toBeGreaterThanOrEqual(0.1);
      expect(stackOf(1.2, heading) / 2.4).toBeLessThanOrEqual(0.2);
    }
  });
});
