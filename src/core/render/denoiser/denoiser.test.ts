import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Random } from '../bsdf';
import { denoise, OVERLAP } from './denoiser';
import pair from './pair.json' with { type: 'json' };
import { Network } from './network';
import { cleanPicture, shippedWeights } from './picture';
import { decode, encode, exposure } from './transfer';
import { readWeights, type Weights } from './weights';

const weights = shippedWeights();

type Picture = { c: number; w: number; h: number; at(c: number, x: number, y: number): number };
const picture = (c: number, w: number, h: number, data: Float32Array): Picture => ({
  c,
  w,
  h,
  at: (k, x, y) => (x < 0 || y < 0 || x >= w || y >= h ? 0 : data[(y * w + x) * c + k]),
});

/** The network written out plainly, from the published description: no blocks, no shared memory, no SIMD. */
function plainly(all: Weights, input: Picture): Picture {
  const convolve = (name: string, p: Picture): Picture => {
    const { dims, data } = all.get(`${name}.weight`)!;
    const bias = all.get(`${name}.bias`)!.data;
    const out = new Float32Array(p.w * p.h * dims[0]);
    for (let y = 0; y < p.h; y++)
      for (let x = 0; x < p.w; x++)
        for (let o = 0; o < dims[0]; o++) {
          let sum = bias[o];
          for (let c = 0; c < dims[1]; c++)
            for (let ky = 0; ky < 3; ky++) for (let kx = 0; kx < 3; kx++) sum += data[((o * dims[1] + c) * 3 + ky) * 3 + kx] * p.at(c, x + kx - 1, y + ky - 1);
          out[(y * p.w + x) * dims[0] + o] = Math.max(0, sum);
        }
    return picture(dims[0], p.w, p.h, out);
  };
  const of = (c: number, w: number, h: number, value: (k: number, x: number, y: number) => number): Picture => {
    const data = new Float32Array(c * w * h);
    for (let y = 0; y < h; y++) for (let x = 0; x < w; x++) for (let k = 0; k < c; k++) data[(y * w + x) * c + k] = value(k, x, y);
    return picture(c, w, h, data);
  };
  const pool = (p: Picture): Picture =>
    of(p.c, p.w / 2, p.h / 2, (k, x, y) =>
      Math.max(p.at(k, 2 * x, 2 * y), p.at(k, 2 * x + 1, 2 * y), p.at(k, 2 * x, 2 * y + 1), p.at(k, 2 * x + 1, 2 * y + 1)),
    );
  const join = (small: Picture, big: Picture): Picture =>
    of(small.c + big.c, big.w, big.h, (k, x, y) => (k < small.c ? small.at(k, x >> 1, y >> 1) : big.at(k - small.c, x, y)));
  const down: Picture[] = [input];
  let p = convolve('enc_conv1', convolve('enc_conv0', input));
  for (const name of ['enc_conv2', 'enc_conv3', 'enc_conv4']) {
    down.push(pool(p));
    p = convolve(name, down[down.length - 1]);
  }
  p = convolve('enc_conv5b', convolve('enc_conv5a', pool(p)));
  for (let level = 4; level >= 1; level--) p = convolve(`dec_conv${level}b`, convolve(`dec_conv${level}a`, join(p, down[level - 1])));
  return convolve('dec_conv0', p);
}

/** A room’s corner with a bright window and grain on it, with its guides. */
function scene(w: number, h: number, grain: number, seed = 3): { noisy: Float32Array; clean: Float32Array; guides: Float32Array } {
  const random = new Random(seed);
  const [noisy, clean, guides] = [new Float32Array(w * h * 3), new Float32Array(w * h * 3), new Float32Array(w * h * 6)];
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const left = x < w / 2;
      const window = x > w * 0.7 && x < w * 0.9 && y > h * 0.2 && y < h * 0.5;
      const colour = window ? [1, 1, 1] : left ? [0.7, 0.68, 0.6] : [0.3, 0.42, 0.38];
      const light = window ? 2500 : (left ? 180 : 70) * (1 - (0.4 * y) / h);
      const k = 1 - grain + grain * -Math.log(1 - random.next());
      for (let c = 0; c < 3; c++) {
        clean[(y * w + x) * 3 + c] = light * colour[c];
        noisy[(y * w + x) * 3 + c] = light * colour[c] * (window ? 1 : k);
        guides[(y * w + x) * 6 + c] = colour[c];
        guides[(y * w + x) * 6 + 3 + c] = window ? 0 : [left ? 1 : 0, left ? 0 : -1, 0][c];
      }
    }
  return { noisy, clean, guides };
}

describe('the denoising network', () => {
  it('gives what the same layers written out plainly give', () => {
    const [w, h] = [32, 16];
    const random = new Random(1);
    const input = Float32Array.from({ length: w * h * 9 }, () => random.next());
    const own = new Network(weights, w, h).run(input);
    const plain = plainly(weights, picture(9, w, h, input));
    let worst = 0;
    for (let y = 0; y < h; y++)
      for (let x = 0; x < w; x++) for (let c = 0; c < 3; c++) worst = Math.max(worst, Math.abs(own[(y * w + x) * 3 + c] - plain.at(c, x, y)));
    expect(worst).toBeLessThan(2e-5);
    // The same bytes each time, also where the memory has been used before.
    const again = new Network(weights, w, h);
    again.run(input.map((v) => 1 - v));
    expect(again.run(input)).toEqual(own);
  });

  it('takes sides that can be halved four times, and says so', () => {
    expect(() => new Network(weights, 40, 16)).toThrow(RangeError);
  });
});

describe('a picture that is cleaned', () => {
  it('is what another implementation made of it: a stored pair', async () => {
    // The pair was made once by an independent open implementation (oidn-web, MIT) of the same network with the same weights, which meters each pixel by itself.
    const { width, height, radiance, colour, normal, clean } = pair;
    const guides = Float32Array.from({ length: width * height * 6 }, (_, i) => {
      const [p, c] = [Math.floor(i / 6), i % 6];
      return c < 3 ? colour[p * 3 + c] / 255 : (normal[p * 3 + c - 3] / 255) * 2 - 1;
    });
    let sum = 0;
    for (let p = 0; p < width * height; p++)
      sum += Math.log2(0.212671 * radiance[p * 3] + 0.71516 * radiance[p * 3 + 1] + 0.072169 * radiance[p * 3 + 2] + 1e-4);
    const scale = 0.18 / 2 ** (sum / (width * height));
    const own = await denoise(weights, Float32Array.from(radiance), guides, width, height, { scale });
    for (const [i, v] of own.entries()) expect(Math.abs(v / clean[i] - 1)).toBeLessThan(2e-4);
  });

  it('comes near to what it would be without its grain, and keeps its light and its edges', async () => {
    const [w, h] = [160, 112];
    const { noisy, clean, guides } = scene(w, h, 0.8);
    const out = await denoise(weights, noisy, guides, w, h);
    // Relative to the light there is: the dark half counts as much as the bright one.
    const error = (a: Float32Array): number => a.reduce((sum, v, i) => sum + (v / clean[i] - 1) ** 2, 0) / a.length;
    expect(error(out)).toBeLessThan(error(noisy) / 40);
    const mean = (a: Float32Array, from: number, to: number): number => {
      let [sum, n] = [0, 0];
      for (let y = 70; y < h; y++)
        for (let x = from; x < to; x++)
          for (let c = 0; c < 3; c++) {
            sum += a[(y * w + x) * 3 + c];
            n++;
          }
      return sum / n;
    };
    expect(Math.abs(mean(out, 10, 70) / mean(clean, 10, 70) - 1)).toBeLessThan(0.03);
    expect(Math.abs(mean(out, 90, 150) / mean(clean, 90, 150) - 1)).toBeLessThan(0.03);
    // The edge between both walls stays where it is.
    const column = (x: number): number => Array.from({ length: h }, (_, y) => out[(y * w + x) * 3]).reduce((a, b) => a + b, 0) / h;
    expect(column(w / 2 - 1) / column(w / 2)).toBeGreaterThan(3);
  });

  it.each([
    ['strips', 48, 560],
    ['tiles', 400, 400],
  ])('is the same in %s as in one piece, and as a part of a larger one where it is told its scale', async (_, w, h) => {
    const { noisy, guides } = scene(w, h, 0.7);
    const worst = (a: Float32Array, b: Float32Array): number => a.reduce((most, v, i) => Math.max(most, Math.abs(b[i] - v) / (v + 1)), 0);
    const whole = await denoise(weights, noisy, guides, w, h, { tile: 1e9 });
    expect(worst(whole, await denoise(weights, noisy, guides, w, h, { tile: Math.min(w, 288) * 288 }))).toBeLessThan(1e-5);
    // Rows from the middle, with what the network sees about them.
    const [from, rows] = [112, 208];
    const part = (a: Float32Array, per: number): Float32Array => a.slice(from * w * per, (from + rows) * w * per);
    const own = await denoise(weights, part(noisy, 3), part(guides, 6), w, rows, { scale: exposure(noisy, w, h) });
    const inner = (a: Float32Array, start: number): Float32Array => a.slice((start + OVERLAP) * w * 3, (start + rows - OVERLAP) * w * 3);
    expect(worst(inner(whole, from), inner(own, 0))).toBeLessThan(1e-5);
  });

  it('of any size, also of one that cannot be halved, has as many pixels as before and no wrong ones', async () => {
    await fc.assert(
      fc.asyncProperty(fc.integer({ min: 1, max: 50 }), fc.integer({ min: 1, max: 50 }), async (w, h) => {
        const { noisy, guides } = scene(w, h, 0.5);
        const out = await denoise(weights, noisy, guides, w, h);
        expect(out).toHaveLength(w * h * 3);
        expect(out.every((v) => Number.isFinite(v) && v >= 0)).toBe(true);
      }),
      { numRuns: 12 },
    );
  });
});

describe('the curve before the network', () => {
  it('leads back to where it came from, from starlight to the sun', () => {
    fc.assert(
      fc.property(fc.double({ min: -8, max: 4.8, noNaN: true }), (p) => {
        const v = 10 ** p;
        expect(decode(encode(v)) / v).toBeCloseTo(1, 5);
      }),
    );
    expect([encode(-1), encode(0), encode(65504)]).toEqual([0, 0, 1]);
  });

  it('is set by the mean of logarithms over cells: a picture ten times as bright is the same to the network', () => {
    const flat = new Float32Array(64 * 48 * 3).fill(50);
    expect(exposure(flat, 64, 48) * 50).toBeCloseTo(0.18, 3);
    const { noisy } = scene(64, 48, 0.5);
    expect(
      exposure(
        noisy.map((v) => v * 10),
        64,
        48,
      ) * 10,
    ).toBeCloseTo(exposure(noisy, 64, 48), 6);
    expect(exposure(new Float32Array(48), 4, 4)).toBe(1);
  });
});

describe('an archive of weights', () => {
  it('is refused where it is none', () => {
    expect(() => readWeights(new Uint8Array(64))).toThrow('not an archive of weights');
    expect(() => readWeights(new Uint8Array(3))).toThrow(RangeError);
  });

  it('has a weight and a bias for every layer', () => {
    expect([...weights.keys()].filter((k) => k.endsWith('.weight'))).toHaveLength(16);
    expect(weights.get('enc_conv0.weight')!.dims).toEqual([32, 9, 3, 3]);
    for (const { data } of weights.values()) expect(data.every(Number.isFinite)).toBe(true);
  });
});

describe('a picture all round', () => {
  const [w, h] = [256, 32];
  const { noisy, guides } = scene(w, h, 0.6, 11);
  /** Turned by half a turn. */
  const turned = (values: Float32Array, per: number): Float32Array => {
    const out = new Float32Array(values.length);
    for (let y = 0; y < h; y++)
      for (let x = 0; x < w; x++) for (let c = 0; c < per; c++) out[(y * w + ((x + w / 2) % w)) * per + c] = values[(y * w + x) * per + c];
    return out;
  };
  const worst = (a: Float32Array, b: Float32Array): number => a.reduce((most, v, i) => Math.max(most, Math.abs(v - b[i]) / (Math.abs(v) + 1)), 0);

  it('is cleaned alike whichever way it begins: no seam shows where its ends meet', async () => {
    const round = worst(
      turned(await cleanPicture(noisy, guides, w, h, { round: true }), 3),
      await cleanPicture(turned(noisy, 3), turned(guides, 6), w, h, { round: true }),
    );
    const flat = worst(turned(await cleanPicture(noisy, guides, w, h), 3), await cleanPicture(turned(noisy, 3), turned(guides, 6), w, h));
    // The same but for the exposure the network is given, which is of the columns it sees.
    expect(round).toBeLessThan(flat / 10);
    expect(round).toBeLessThan(0.06);
  });
});
