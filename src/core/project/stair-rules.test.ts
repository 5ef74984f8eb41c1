import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { solveStair, STAIR_PROFILES, type StairWish } from './stair-rules';

const wish = (over: Partial<StairWish>): StairWish => ({
  height: 2.75,
  profile: 'A',
  width: 0.9,
  risers: null,
  going: null,
  space: null,
  flights: 1,
  units: 'metric',
  ...over,
});

describe('a stair from floor to floor', () => {
  it('of 2750: worked out by hand', () => {
    // 16 risers of 171.9 with a going of 286.2 walk at 630.
    const s = solveStair(wish({}));
    expect(s.risers).toBe(16);
    expect(s.rise).toBeCloseTo(2.75 / 16, 12);
    expect(s.going).toBeCloseTo(0.63 - 2 * (2.75 / 16), 12);
    expect(s.breaches).toEqual([]);
  });

  it('keeps to the rules of both profiles at hundreds of heights, the risers equal', () => {
    fc.assert(
      fc.property(fc.double({ min: 1.2, max: 4.5, noNaN: true }), fc.constantFrom('A', 'B') as fc.Arbitrary<'A' | 'B'>, (height, profile) => {
        const s = solveStair(wish({ height, profile, width: 1 }));
        const r = STAIR_PROFILES[profile];
        expect(s.risers * s.rise).toBeCloseTo(height, 9);
        expect(s.breaches).toEqual([]);
        expect(s.rise).toBeLessThanOrEqual(r.rise.max + 1e-6);
        expect(s.rise).toBeGreaterThanOrEqual(r.rise.min - 1e-6);
        expect(s.going).toBeGreaterThanOrEqual(r.going.min - 1e-6);
        expect(s.going).toBeLessThanOrEqual(r.going.max + 1e-6);
        if (r.stride) {
          expect(2 * s.rise + s.going).toBeGreaterThanOrEqual(r.stride.min - 1e-6);
          expect(2 * s.rise + s.going).toBeLessThanOrEqual(r.stride.max + 1e-6);
        }
        if (r.pitch !== null) expect(Math.atan(s.rise / s.going)).toBeLessThanOrEqual(r.pitch + 1e-6);
      }),
      { numRuns: 500 },
    );
  });

  it('fits into the length there is where that can be, and says so where it cannot', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 2.2, max: 3.6, noNaN: true }),
        fc.double({ min: 1.5, max: 6, noNaN: true }),
        fc.constantFrom('A', 'B') as fc.Arbitrary<'A' | 'B'>,
        (height, space, profile) => {
          const s = solveStair(wish({ height, space, profile, width: 1 }));
          const needed = s.going * (s.risers - 1);
          const r = STAIR_PROFILES[profile];
          // Whether any number of risers could be walked by the rules in this length.
          let possible = false;
          for (let n = 2; n < 40; n++) {
            const rise = height / n;
            if (rise > r.rise.max || rise < r.rise.min) continue;
            const least = Math.max(r.going.min, r.pitch === null ? 0 : rise / Math.tan(r.pitch), r.stride ? r.stride.min - 2 * rise : 0);
            if (least <= r.going.max && least * (n - 1) <= space - 1e-4) possible = true;
          }
          if (possible) {
            expect(s.breaches).toEqual([]);
            expect(needed).toBeLessThanOrEqual(space + 1e-6);
          } else if (needed > space + 1e-4) expect(s.breaches.map((b) => b.rule)).toContain('space');
        },
      ),
      { numRuns: 400 },
    );
  });

  it('takes a fixed number of risers, a fixed going, and gives its reasons', () => {
    const steep = solveStair(wish({ risers: 11, going: 0.2 }));
    expect(steep).toMatchObject({ risers: 11, going: 0.2 });
    expect(steep.breaches.map((b) => b.rule).sort()).toEqual(['going', 'pitch', 'rise']);
    expect(steep.breaches.find((b) => b.rule === 'rise')!.text).toContain('add a riser');
    expect(solveStair(wish({ width: 0.7 })).breaches.map((b) => b.rule)).toEqual(['width']);
    const imperial = solveStair(wish({ profile: 'B', units: 'imperial', height: 9 * 0.3048, risers: 13 }));
    expect(imperial.breaches[0].text).toMatch(/7 ?3\/4|7 11\/16|in/);
  });
});
