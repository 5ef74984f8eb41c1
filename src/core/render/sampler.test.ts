import { describe, expect, it } from 'vitest';
import { KernelMemory } from './kernel/kernel';

const memory = new KernelMemory();
const out = memory.reserve(16);
const pair = (pixel: number, sample: number, dimension: number): [number, number] => {
  memory.exports.drawn(pixel, sample, dimension, out);
  const [a, b] = memory.floats(out, 2);
  return [a, b];
};

describe('the numbers paths are drawn from', () => {
  it('lie in 0…1, 1 excluded, and are the same for the same pixel, sample and dimension', () => {
    for (let k = 0; k < 4000; k++) {
      const [pixel, sample, dimension] = [(k * 2654435761) >>> 0, (k * 40503) >>> 0, k % 140];
      const [a, b] = pair(pixel, sample, dimension);
      for (const v of [a, b]) expect(v >= 0 && v < 1).toBe(true);
      expect(pair(pixel, sample, dimension)).toEqual([a, b]);
    }
  });

  it.each([0, 1, 2, 7, 31, 66])('of dimension %i: 2ⁿ samples lie one in each of 2ⁿ strips either way, and of their rectangles', (dimension) => {
    for (const pixel of [1, 77, 0xdeadbeef])
      for (let n = 0; n <= 8; n++) {
        const count = 2 ** n;
        const points = Array.from({ length: count }, (_, i) => pair(pixel, i, dimension));
        // Elementary intervals of a (0, 2)-sequence: 2ᵏ by 2ⁿ⁻ᵏ cells hold one point each (Niederreiter 1992); scrambling keeps it (Owen 1995).
        for (let k = 0; k <= n; k++) {
          const cells = new Set(points.map(([a, b]) => Math.floor(a * 2 ** k) * 2 ** (n - k) + Math.floor(b * 2 ** (n - k))));
          expect(cells.size).toBe(count);
        }
      }
  });

  it('differ from pixel to pixel and from dimension to dimension as chance would have it', () => {
    const correlation = (of: (i: number) => [number, number]): number => {
      const list = Array.from({ length: 4096 }, (_, i) => of(i));
      const mean = (c: 0 | 1): number => list.reduce((s, p) => s + p[c], 0) / list.length;
      const [ma, mb] = [mean(0), mean(1)];
      expect(Math.abs(ma - 0.5)).toBeLessThan(0.03);
      const cov = list.reduce((s, [a, b]) => s + (a - ma) * (b - mb), 0) / list.length;
      return cov * 12;
    };
    for (let d = 0; d < 12; d++) {
      expect(Math.abs(correlation((i) => [pair(i, 0, d)[0], pair(i, 0, d)[1]]))).toBeLessThan(0.08);
      expect(Math.abs(correlation((i) => [pair(i, 0, d)[0], pair(i + 1, 0, d)[0]]))).toBeLessThan(0.08);
      expect(Math.abs(correlation((i) => [pair(5, i, d)[0], pair(5, i, d + 1)[0]]))).toBeLessThan(0.08);
      expect(Math.abs(correlation((i) => [pair(i, 3, d)[0], pair(i, 4, d)[0]]))).toBeLessThan(0.08);
    }
  });

  it('integrate a smooth function with far less error than chance: with 256 samples less than a tenth', () => {
    const f = ([a, b]: [number, number]): number => Math.sin(3 * a) * Math.exp(b);
    const exact = ((1 - Math.cos(3)) / 3) * (Math.E - 1);
    const rms = (samples: number): number => {
      let sum = 0;
      for (let pixel = 0; pixel < 64; pixel++) {
        let mean = 0;
        for (let i = 0; i < samples; i++) mean += f(pair(pixel * 977 + 13, i, 4)) / samples;
        sum += (mean - exact) ** 2 / 64;
      }
      return Math.sqrt(sum);
    };
    // By chance the deviation of f, 0.62, over the root of their number.
    expect(rms(256)).toBeLessThan((0.62 / 16) * 0.1);
    expect(rms(16)).toBeLessThan((0.62 / 4) * 0.4);
  });
});
