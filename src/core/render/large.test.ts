import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { cleanPicture } from './denoiser/picture';
import { exposure } from './denoiser/transfer';
import {
  bandsOf,
  cellsOf,
  isLarge,
  LargeJob,
  ONE_PIECE,
  smallSize,
  smallSums,
  type DoneRows,
  type LargeStore,
  type LargeWorkshop,
  type RawRows,
} from './large';
import type { Finished, TraceHand, TraceProgress } from './trace-job';
import { unexposed } from './testing';

const stamp = { project: 'p', scheme: 's', name: 'Kitchen', viewpoint: null };

/** Light of a sample of a pixel: some shapes, and grain that is another for each sample. */
function lightAt(x: number, y: number, sample: number): number {
  const grain = Math.abs(Math.sin(x * 12.9898 + y * 78.233 + sample * 37.719) * 43758.5453) % 1;
  return (20 + 60 * Number((x >> 4) % 2 === (y >> 5) % 2) + y / 10) * (0.5 + grain);
}

/** Those who work, on a picture that is the same whoever traces which part of it. */
function workshop(width: number, count = 2) {
  const counted = { passes: 0, bands: [] as number[], fault: '', onPass: () => undefined as void };
  const made: LargeWorkshop = {
    hands: (size, region) => {
      const [x0, y0, w, h] = region ? [region.x, region.y, region.width, region.height] : [0, 0, size.width, size.height];
      if (region) counted.bands.push(region.y);
      const k = width / size.width;
      return Array.from({ length: count }, (): TraceHand => {
        const n = w * h;
        const own = unexposed({ width: w, height: h });
        return {
          prepare: () => Promise.resolve([{ name: 'Sun', kelvin: 5300 }]),
          pass: (number) => {
            counted.passes++;
            counted.onPass();
            if (counted.fault) return Promise.reject(new Error(counted.fault));
            for (let i = 0; i < n; i++) {
              const [x, y] = [x0 + (i % w), y0 + Math.floor(i / w)];
              own.counts[i]++;
              for (let c = 0; c < 3; c++) own.light[i * 4 + c] += lightAt(Math.floor(x * k), Math.floor(y * k), number);
              own.guides[i * 8] += 0.5;
              own.guides[i * 8 + 7] += y % 2;
            }
            return Promise.resolve();
          },
          exposed: () => Promise.resolve(structuredClone(own)),
        };
      });
    },
    clean: (radiance, guides, size, scale) => cleanPicture(radiance, guides, size.width, size.height, { scale }),
  };
  return { made, counted };
}

/** A store in memory, and what it was asked to hold at most. */
function memory() {
  const bands = new Map<number, RawRows>();
  const done = new Map<number, DoneRows>();
  const rows = new Map<number, Pick<RawRows, 'radiance' | 'cover'>>();
  let small: Finished | null = null;
  let most = 0;
  const store: LargeStore = {
    small: () => Promise.resolve(small),
    keepSmall: (s) => Promise.resolve(void (small = s)),
    band: (i) => Promise.resolve(bands.get(i) ?? null),
    keepBand: (i, b) => Promise.resolve(void (bands.set(i, b), (most = Math.max(most, bands.size)))),
    dropBand: (i) => Promise.resolve(void bands.delete(i)),
    done: (i) => Promise.resolve(done.get(i) ?? null),
    pack: (i, _, own, sums) => {
      rows.set(i, { radiance: own.radiance.slice(), cover: own.cover });
      const sizes = Array.from({ length: Math.ceil(own.cover.length / W / 16) }, () => 1);
      done.set(i, { sizes, small: sums });
      return Promise.resolve(sizes);
    },
  };
  const light = (): number[] => [...rows.keys()].sort((a, b) => a - b).flatMap((k) => [...rows.get(k)!.radiance]);
  return { store, light, held: () => most, finished: () => small };
}

const [W, H, SAMPLES] = [64, 700, 3];
const job = (own: LargeWorkshop, store: LargeStore, watch: (p: TraceProgress) => void = () => undefined): LargeJob => {
  let now = 0;
  return new LargeJob(stamp, { width: W, height: H, samples: SAMPLES }, own, store, watch, () => (now += 0.01), null, W * 48);
};

/** The same picture traced and cleaned at once. */
function atOnce(scale: number): Promise<Float32Array> {
  const radiance = new Float32Array(W * H * 3);
  for (let i = 0; i < W * H * 3; i++) {
    const p = Math.floor(i / 3);
    for (let s = 0; s < SAMPLES; s++) radiance[i] += lightAt(p % W, Math.floor(p / W), s) / SAMPLES;
  }
  const guides = Float32Array.from({ length: W * H * 6 }, (_, i) => (i % 6 ? 0 : 0.5));
  return cleanPicture(radiance, guides, W, H, { scale });
}

const worst = (a: ArrayLike<number>, b: ArrayLike<number>): number => Array.from(a).reduce((most, v, i) => Math.max(most, Math.abs(v - b[i]) / (1 + v)), 0);

describe('a picture that is traced in bands', () => {
  it('is what it would be in one piece, holds few bands at a time, and its small picture has its means', async () => {
    const { made, counted } = workshop(W);
    const kept = memory();
    const told: TraceProgress[] = [];
    const finished = (await job(made, kept.store, (p) => told.push(p)).run())!;
    const light = kept.light();
    expect(light).toHaveLength(W * H * 3);
    const { radiance } = kept.finished()!;
    expect(worst(light, await atOnce(exposure(radiance, W, H)))).toBeLessThan(1e-5);
    expect([finished.samples, finished.blocks!.length]).toEqual([SAMPLES, Math.ceil(H / 16)]);
    // Here small and large are of one size.
    expect(worst(finished.radiance, light)).toBeLessThan(1e-6);
    // A whole picture has 15 bands: those of a piece and of what is about it are held, and those traced meanwhile.
    expect(kept.held()).toBeLessThanOrEqual(12);
    expect(counted.bands).toHaveLength(15);
    const counts = told.map((t) => t.samples);
    expect(counts).toEqual(counts.toSorted((a, b) => a - b));
    expect([told.at(-1)!.phase, counts.at(-1)]).toEqual(['done', SAMPLES]);
  });

  it('goes on after any number of breaks from what was kept, to the same picture', async () => {
    const { made, counted } = workshop(W);
    const kept = memory();
    let breaks = 0;
    let finished: Finished | null = null;
    while (!finished && breaks < 40) {
      const own = job(made, kept.store);
      // Put aside in the middle of a band, or cancelled as by a reload, each time a little later.
      let left = 5 + breaks * 2;
      counted.onPass = () => void (--left === 0 && (breaks++ % 2 ? own.halt() : own.cancel()));
      finished = await own.run();
    }
    expect(breaks).toBeGreaterThan(3);
    expect(worst(kept.light(), await atOnce(exposure(kept.finished()!.radiance, W, H)))).toBeLessThan(1e-5);
    expect(finished!.blocks).toHaveLength(Math.ceil(H / 16));
    // Finished once more, nothing is traced again.
    const before = counted.passes;
    counted.onPass = () => undefined;
    expect((await job(made, kept.store).run())!.blocks).toEqual(finished!.blocks);
    expect(counted.passes).toBe(before);
  });

  it('tells what went wrong with one who traces, cleans or keeps', async () => {
    const traced = workshop(W);
    traced.counted.onPass = () => void (traced.counted.fault = 'no memory');
    await expect(job(traced.made, memory().store).run()).rejects.toThrow('no memory');
    const { made } = workshop(W);
    const full = memory().store;
    full.pack = () => Promise.reject(new Error('Quota exceeded'));
    await expect(job(made, full).run()).rejects.toThrow('Quota exceeded');
    const cleaner = workshop(W).made;
    const clean = cleaner.clean.bind(cleaner);
    cleaner.clean = (radiance, guides, size, scale) => (scale === undefined ? clean(radiance, guides, size) : Promise.reject(new Error('lost')));
    await expect(job(cleaner, memory().store).run()).rejects.toThrow('lost');
  });
});

describe('sizes', () => {
  const Sizes = fc.record({ width: fc.integer({ min: 64, max: 12_000 }), height: fc.integer({ min: 64, max: 12_000 }) });

  it('of any shape are parted into bands of whole blocks of bounded size, and have a small one of their shape', () => {
    fc.assert(
      fc.property(Sizes, (size) => {
        const { rows, count, cleaned, pieces } = bandsOf(size);
        expect([rows % 16, cleaned % rows, (count - 1) * rows < size.height, count * rows >= size.height]).toEqual([0, 0, true, true]);
        expect([(pieces - 1) * cleaned < size.height, pieces * cleaned >= size.height]).toEqual([true, true]);
        expect(rows * size.width).toBeLessThanOrEqual(Math.max(500_000, 16 * size.width));
        const small = smallSize(size);
        expect(small.width * small.height).toBeLessThanOrEqual(ONE_PIECE);
        if (!isLarge(size)) expect(small).toEqual(size);
        // Its sides are rounded to a pixel.
        expect(Math.abs(small.width / small.height - size.width / size.height) / (size.width / size.height)).toBeLessThan(
          1.1 / Math.min(small.width, small.height),
        );
      }),
    );
  });

  it('each pixel belongs to one of the small picture, whose means are those of the large one', () => {
    fc.assert(
      fc.property(fc.integer({ min: 20, max: 90 }), fc.integer({ min: 20, max: 90 }), fc.double({ min: 0.2, max: 1, noNaN: true }), (width, height, k) => {
        const view = { width: Math.floor(width * k), height: Math.floor(height * k) };
        const counts = cellsOf({ width, height }, view);
        const all = Array.from({ length: view.width * view.height }, (_, i) => counts(i));
        expect(all.reduce((a, b) => a + b, 0)).toBe(width * height);
        expect(Math.min(...all)).toBeGreaterThan(0);
        // Rows in any pieces add up to the same sums.
        const light = Float32Array.from({ length: width * height * 3 }, (_, i) => i % 101);
        const sums = new Float32Array(view.width * view.height * 3);
        for (let y = 0; y < height; y += 7) {
          const rows = Math.min(7, height - y);
          const part = smallSums(light.subarray(y * width * 3, (y + rows) * width * 3), y, rows, { width, height }, view);
          part.sums.forEach((v, i) => (sums[part.from * view.width * 3 + i] += v));
        }
        const total = (a: Float32Array): number => a.reduce((x, y) => x + y, 0);
        expect(total(sums)).toBe(total(light));
      }),
      { numRuns: 30 },
    );
  });
});
