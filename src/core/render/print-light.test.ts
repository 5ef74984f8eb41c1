import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { LightShare } from '../light/shares';
import { OFF, type GroupLight } from '../project/schema';
import { relight } from './development';
import { PrintLights } from './print-light';

const [SW, SH, K] = [24, 16, 4];
const size = { width: SW * K, height: SH * K };

/** A wall in the sun beside one in the shade that a lamp lights; the edge lies between two small pixels. */
function room(edge = SW / 2) {
  const sunlit = (x: number): boolean => x < edge;
  const small = { width: SW, height: SH, radiance: new Float32Array(SW * SH * 3), shares: [] as LightShare[] };
  const [sun, lamp] = [new Float32Array(SW * SH * 3), new Float32Array(SW * SH * 3)];
  const rows = new Float32Array(size.width * size.height * 3);
  for (let i = 0; i < small.radiance.length; i++) {
    const on = sunlit(Math.floor(i / 3) % SW);
    small.radiance[i] = on ? 900 : 60;
    sun[i] = on ? 0.95 : 0.1;
    lamp[i] = 1 - sun[i];
  }
  for (let i = 0; i < rows.length; i++) rows[i] = sunlit(((Math.floor(i / 3) % size.width) + 0.5) / K) ? 900 : 60;
  small.shares = [
    { name: 'Sun', kelvin: 5300, share: sun },
    { name: 'Lamps', kelvin: 2700, share: lamp },
  ];
  return { small, rows, sunlit };
}
const off: GroupLight[] = [{ name: 'Sun', level: OFF, kelvin: null }];

describe('the lights of a picture for print', () => {
  it('are those of the small one, with edges as sharp as they are', () => {
    const { small, rows, sunlit } = room();
    const lit = new PrintLights(small, off).lit(rows, 0, size);
    for (let i = 0; i < lit.length; i++) {
      const want = sunlit(((Math.floor(i / 3) % size.width) + 0.5) / K) ? 900 * 0.05 : 60 * 0.9;
      // Without looking at brightness pixels beside the edge would be wrong by a third.
      expect(Math.abs(lit[i] / want - 1)).toBeLessThan(0.01);
    }
  });

  it('are the same in rows as at once, and left alone where nothing is set', () => {
    const { small, rows } = room(7.3);
    const lights = new PrintLights(small, [{ name: 'Lamps', level: 1.5, kelvin: 4000 }]);
    const whole = lights.lit(rows, 0, size);
    for (const [from, count] of [
      [0, 16],
      [16, 32],
      [48, 16],
    ]) {
      const part = lights.lit(rows.slice(from * size.width * 3, (from + count) * size.width * 3), from, size);
      expect(part).toEqual(whole.slice(from * size.width * 3, (from + count) * size.width * 3));
    }
    expect(new PrintLights(small, []).lit(rows, 0, size)).toBe(rows);
    expect(new PrintLights({ ...small, shares: [] }, off).lit(rows, 0, size)).toBe(rows);
  });

  it('at the size of the small picture are what they are there, and stay within what its pixels are multiplied by', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 12 }),
        fc.integer({ min: 1, max: 12 }),
        fc.double({ min: -4, max: 3, noNaN: true }),
        fc.integer(),
        (w, h, level, seed) => {
          let state = seed >>> 0 || 1;
          const next = (): number => (state = (state * 1664525 + 1013904223) >>> 0) / 2 ** 32;
          const radiance = Float32Array.from({ length: w * h * 3 }, () => next() * 1000);
          const share = Float32Array.from(radiance, next);
          const shares = [
            { name: 'Sun', kelvin: 5300, share },
            { name: 'Lamps', kelvin: 2700, share: share.map((v) => 1 - v) },
          ];
          const lights = [{ name: 'Sun', level, kelvin: null }];
          const small = { width: w, height: h, radiance, shares };
          const own = new PrintLights(small, lights);
          const want = relight(radiance, shares, lights);
          own.lit(radiance, 0, { width: w, height: h }).forEach((v, i) => expect(Math.abs(v - want[i])).toBeLessThan(1e-3 * (1 + want[i])));
          const gains = want.map((v, i) => v / radiance[i]);
          const [least, most] = [Math.min(...gains), Math.max(...gains)];
          const rows = Float32Array.from({ length: 3 * w * 2 * h * 3 }, () => next() * 3000);
          own.lit(rows, 0, { width: 3 * w, height: 2 * h }).forEach((v, i) => {
            expect(v / rows[i]).toBeGreaterThan(least * 0.999);
            expect(v / rows[i]).toBeLessThan(most * 1.001);
          });
        },
      ),
      { numRuns: 40 },
    );
  });
});
