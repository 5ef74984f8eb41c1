import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { blend, maskWithPart, partWeights, withPart } from './part-again';

const SIZE = { width: 64, height: 48 };
const filled = (n: number, v: number): Float32Array => new Float32Array(n).fill(v);

/** Pictures of two lights of given strengths. */
const lit = (n: number, lights: Record<string, number>) => {
  const all = Object.values(lights).reduce((a, b) => a + b, 0);
  return { radiance: filled(n * 3, all), shares: Object.entries(lights).map(([name, v]) => ({ name, kelvin: 4000, share: filled(n * 3, v / all) })) };
};

describe('a part of a picture that was made again', () => {
  it('is new inside, goes over softly into what is about it, and is whole at the sides of the picture', () => {
    const region = { x: 10, y: 0, width: 30, height: 40 };
    const weights = partWeights(region, SIZE);
    const at = (i: number, j: number): number => weights[j * region.width + i];
    expect(at(15, 20)).toBe(1);
    expect(at(15, 0)).toBe(1);
    expect(at(0, 20)).toBeLessThan(0.1);
    expect(at(29, 20)).toBeCloseTo(at(0, 20), 6);
    expect(at(15, 39)).toBeLessThan(0.1);
    // Over the whole picture nothing of the old one is left.
    expect(partWeights({ x: 0, y: 0, ...SIZE }, SIZE).every((w) => w === 1)).toBe(true);
    // It rises steadily from the edge inwards.
    for (let i = 1; i < 15; i++) expect(at(i, 20)).toBeGreaterThanOrEqual(at(i - 1, 20));
  });

  it('leaves all else as it was, bit for bit', () => {
    const whole = Float32Array.from({ length: SIZE.width * SIZE.height }, (_, i) => Math.sin(i));
    fc.assert(
      fc.property(fc.nat(40), fc.nat(30), fc.integer({ min: 1, max: 24 }), fc.integer({ min: 1, max: 18 }), (x, y, width, height) => {
        const region = { x, y, width, height };
        const out = blend(whole, filled(width * height, 9), partWeights(region, SIZE), region, SIZE.width, 1);
        whole.forEach((v, k) => {
          const [i, j] = [k % SIZE.width, Math.floor(k / SIZE.width)];
          const inside = i >= x && i < x + width && j >= y && j < y + height;
          if (!inside) expect(out[k]).toBe(v);
          else expect(out[k]).toBeGreaterThanOrEqual(v);
        });
      }),
      { numRuns: 40 },
    );
  });

  it('keeps the sum of its lights, also where one of them is only in the part', () => {
    const region = { x: 8, y: 8, width: 32, height: 24 };
    const n = SIZE.width * SIZE.height;
    const made = withPart(lit(n, { Sun: 80, Sky: 20 }), lit(region.width * region.height, { Sky: 30, Lamps: 60 }), region, SIZE);
    expect(made.shares.map((s) => s.name)).toEqual(['Sun', 'Sky', 'Lamps']);
    for (let i = 0; i < n * 3; i++) expect(made.shares.reduce((sum, s) => sum + s.share[i], 0)).toBeCloseTo(1, 5);
    const middle = (20 * SIZE.width + 24) * 3;
    expect(made.radiance[middle]).toBeCloseTo(90, 4);
    expect(made.shares[2].share[middle]).toBeCloseTo(60 / 90, 5);
    expect([made.radiance[0], made.shares[0].share[0], made.shares[2].share[0]]).toEqual([100, expect.closeTo(0.8, 5), 0]);
    // A picture whose lights were not told apart has none afterwards.
    expect(withPart({ radiance: filled(n * 3, 1), shares: [] }, lit(region.width * region.height, { Sky: 1, Sun: 1 }), region, SIZE).shares).toEqual([]);
  });

  it('does not mix what is endlessly far with what is near', () => {
    const region = { x: 4, y: 4, width: 20, height: 20 };
    const out = blend(filled(64 * 48, Infinity), filled(400, 3), partWeights(region, SIZE), region, 64, 1);
    expect(out.every((v) => v === Infinity || v === 3)).toBe(true);
  });
});

describe('the mask of a picture with a part made again', () => {
  it('knows objects by their names, whatever their numbers were', () => {
    const region = { x: 1, y: 0, width: 2, height: 2 };
    const whole = { ids: Uint32Array.from([1, 1, 2, 2, 0, 1, 2, 2]), names: ['Wall', 'Chair'] };
    const part = { ids: Uint32Array.from([1, 2, 3, 0]), names: ['Lamp', 'Chair', 'Wall'] };
    const made = maskWithPart(whole, part, Float32Array.from([1, 1, 1, 0.4]), region, 4);
    expect(made.names).toEqual(['Wall', 'Chair', 'Lamp']);
    expect([...made.ids]).toEqual([1, 3, 2, 2, 0, 1, 2, 2]);
    expect(whole.names).toHaveLength(2);
  });
});
