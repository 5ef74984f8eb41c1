import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { colourMips, reliefMips } from './mips';
import { toLinear } from './colour';

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

describe('the colours of a texture from afar', () => {
  it('keep their mean in linear light', () => {
    fc.assert(
      fc.property(fc.uint8Array({ minLength: 16 * 8, maxLength: 16 * 8 }), (bytes) => {
        const colour = new Uint8Array(16 * 8 * 4).map((_, i) => (i % 4 === 3 ? 255 : bytes[i >> 2]));
        const steps = colourMips(16, 8, colour);
        const mean = [...bytes].reduce((sum, b) => sum + toLinear(b / 255), 0) / bytes.length;
        const last = steps.at(-1)!;
        expect([last.width, last.height]).toEqual([1, 1]);
        expect(toLinear(last.data[0] / 255)).toBeCloseTo(mean, 2);
        expect(last.data[3]).toBe(255);
      }),
    );
  });

  it('show joints alike, wherever they fall between pixels: within a third of what the mean of two neighbours makes of them', () => {
    // Courses whose joints fall anywhere: 13 of them over 512 rows, each joint 8 rows high.
    const [size, courses, joint] = [512, 13, 8];
    const colour = new Uint8Array(size * 4 * 4).fill(255);
    const dark = (y: number): boolean => (y * courses) % size >= joint * courses;
    for (let y = 0; y < size; y++) for (let x = 0; x < 4; x++) colour.set(dark(y) ? [90, 40, 30, 255] : [220, 210, 200, 255], (y * 4 + x) * 4);
    /** How much the brightest rows of the joints differ, in steps of an eighth. */
    const spread = (rows: number[]): number => {
      const peaks = rows.filter((v, i) => v >= rows[(i + rows.length - 1) % rows.length] && v > rows[(i + 1) % rows.length]);
      return Math.max(...peaks) - Math.min(...peaks);
    };
    const own = colourMips(4, size, colour).find((s) => s.height === 64)!;
    const ours = Array.from({ length: 64 }, (_, y) => toLinear(own.data[y * own.width * 4] / 255));
    const boxed = Array.from(
      { length: 64 },
      (_, y) => Array.from({ length: 8 }, (_k, k) => toLinear(colour[(y * 8 + k) * 16] / 255)).reduce((a, b) => a + b) / 8,
    );
    expect(spread(ours)).toBeLessThan(spread(boxed) * 0.67);
  });
});
