import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { reliefMips } from './mips';

/** Normals of a surface whose slopes are told at each pixel. */
const relief = (width: number, height: number, slope: (x: number, y: number) => [number, number]): Uint8Array => {
  const out = new Uint8Array(width * height * 4).fill(255);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const [sx, sy] = slope(x, y);
      const l = Math.hypot(sx, sy, 1);
      [-sx / l, -sy / l, 1 / l].forEach((v, k) => (out[(y * width + x) * 4 + k] = Math.round((v + 1) * 127.5)));
    }
  return out;
};
const green = (rough: Uint8Array): number[] => [...rough].filter((_, i) => i % 4 === 1).map((v) => v / 255);

describe('the relief of a texture from afar', () => {
  it('goes down to one pixel, by halves', () => {
    const steps = reliefMips(
      16,
      4,
      relief(16, 4, () => [0, 0]),
      null,
      0.5,
    );
    expect(steps.map((s) => [s.width, s.height])).toEqual([
      [16, 4],
      [8, 2],
      [4, 1],
      [2, 1],
      [1, 1],
    ]);
    for (const s of steps) expect([s.normals.length, s.rough.length]).toEqual([s.width * s.height * 4, s.width * s.height * 4]);
  });

  it('is as rough as it was where it is flat, whatever the step', () => {
    for (const step of reliefMips(
      8,
      8,
      relief(8, 8, () => [0, 0]),
      null,
      0.3,
    )) {
      for (const r of green(step.rough)) expect(r).toBeCloseTo(0.3, 2);
      expect([...step.normals.slice(0, 3)]).toEqual([128, 128, 255]);
    }
  });

  it('takes slopes that fall into one pixel as roughness: α² grows by twice their variance', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.02, max: 0.4, noNaN: true }), fc.double({ min: 0.1, max: 0.6, noNaN: true }), (slope, roughness) => {
        const steps = reliefMips(
          4,
          4,
          relief(4, 4, (x) => [x % 2 ? slope : -slope, 0]),
          null,
          roughness,
        );
        // Two slopes one against the other: their mean is upright, and as long as the cosine of each.
        const length = 1 / Math.hypot(slope, 1);
        const expected = Math.min(1, roughness ** 4 + (2 * (1 - length)) / length) ** 0.25;
        for (const step of steps.slice(1)) {
          for (const r of green(step.rough)) expect(Math.abs(r - expected)).toBeLessThan(0.012);
          expect(Math.abs(step.normals[0] - 128)).toBeLessThan(2);
          expect(step.normals[2]).toBeGreaterThan(253);
        }
        for (const r of green(steps[0].rough)) expect(r).toBeCloseTo(roughness, 2);
      }),
    );
  });

  it('averages a map of roughness', () => {
    const rough = new Uint8Array(4).map((_, i) => (i % 2 ? 255 : 0));
    const [, half] = reliefMips(
      2,
      2,
      relief(2, 2, () => [0, 0]),
      rough,
      1,
    );
    expect(green(half.rough)[0]).toBeCloseTo(0.5 ** 0.25, 2);
  });
});
