import { Film, type Exposed } from './film';
import { exposure } from './denoiser/transfer';
import { OVERLAP } from './denoiser/denoiser';
import { TraceJob, type Cleaner, type Finished, type Job, type Kept, type Stamp, type TraceHand, type TraceProgress } from './trace-job';
import type { Region } from './tracer';

/** Pixels up to which a picture is traced in one piece; what is larger is traced in bands, so that memory stays bounded. */
export const ONE_PIECE = 2_300_000;

/** Pixels of the small picture of a large one: enough for a screen, and its lights are told apart in bearable time. */
const SMALL = 1_200_000;

interface Size {
  width: number;
  height: number;
}

/** Pixels a side, and in all, that a picture may have at most: A2 at 300 dots an inch has 35 million. */
export const PRINT_LIMITS = { side: 12_000, pixels: 60_000_000 } as const;

/** Whether a picture of this size is traced in bands. */
export const isLarge = ({ width, height }: Size): boolean => width * height > ONE_PIECE;

/** A size of the same shape that is traced in one piece; the size itself where it is. */
export function smallSize({ width, height }: Size): Size {
  const k = isLarge({ width, height }) ? Math.sqrt(SMALL / (width * height)) : 1;
  return { width: Math.max(1, Math.floor(width * k)), height: Math.max(1, Math.floor(height * k)) };
}

/** Rows of blocks of a file: bands and what is cleaned at once begin and end with them. */
const BLOCK = 16;
/** Pixels that are traced at once. */
const BAND = 500_000;
/** Rows that are cleaned at once, beside those the network sees about them. */
const CLEANED = 288;

/** How a large picture is parted: rows that are traced at once, and rows that are cleaned at once, a whole number of the others. */
export function bandsOf({ width, height }: Size, pixels = BAND): { rows: number; count: number; cleaned: number; pieces: number } {
  const rows = Math.max(BLOCK, Math.floor(pixels / width / BLOCK) * BLOCK);
  const cleaned = rows * Math.max(1, Math.ceil(CLEANED / rows));
  return { rows, count: Math.ceil(height / rows), cleaned, pieces: Math.ceil(height / cleaned) };
}

/** Pixels of some rows, with their grain. */
export interface RawRows {
  /** Three values a pixel. */
  radiance: Float32Array;
  /** Six values a pixel. */
  guides: Float32Array;
  /** One value a pixel. */
  cover: Float32Array;
}

/** Rows that are done: as the file of the picture has them, and what they add to the small picture. */
export interface DoneRows {
  /** Bytes of each block of the file. */
  sizes: number[];
  /** Sums of radiance in the pixels of the small picture, from its row `from` on, three values a pixel. */
  small: { from: number; sums: Float32Array };
}

/** What is kept of a large picture on the way: it goes on from there after a break. */
export interface LargeStore {
  /** The small picture, once it is finished. */
  small(): Promise<Finished | null>;
  keepSmall(small: Finished): Promise<void>;
  band(index: number): Promise<RawRows | null>;
  keepBand(index: number, rows: RawRows): Promise<void>;
  /** Forgets a band that is not wanted any more. */
  dropBand(index: number): Promise<void>;
  done(piece: number): Promise<DoneRows | null>;
  /** Packs rows that are clean and keeps them. @param from first row @returns bytes of each block */
  pack(piece: number, from: number, rows: Pick<RawRows, 'radiance' | 'cover'>, small: DoneRows['small']): Promise<number[]>;
}

/** Those who trace and clean parts of a picture. */
export interface LargeWorkshop {
  /** Hands for the whole at a small size, or for some rows of it. */
  hands(size: Size, region: Region | null): TraceHand[];
  /** @param scale as the denoiser's `Cleaning` has it; metered where it is undefined */
  clean(radiance: Float32Array, guides: Float32Array, size: Size, scale?: number): Promise<Float32Array>;
}

/** Of the samples of a pixel so many are taken in the small picture: it tells exposure and the shares of the lights, its light comes from the large one. */
export const SMALL_SAMPLES = 0.5;

/**
 * A picture for print. First it is traced small, in one piece: from that come exposure, the scale of the denoiser, the shares of
 * its lights and its passes. Then it is traced in bands of rows at full size; as soon as all rows the network sees are there, some
 * are cleaned, packed and kept. The small picture ends with the means of the large one. Memory holds some rows at a time.
 */
export class LargeJob implements Job {
  private halted = false;
  private cancelled = false;
  private inner: TraceJob | null = null;
  private began = 0;
  /** Samples of pixels that were traced by now, and by those before a break. */
  private traced = 0;
  private before = 0;
  private shown: { radiance: Float32Array; exposure: number } | undefined;

  constructor(
    private readonly stamp: Stamp,
    private readonly size: Size & { samples: number },
    private readonly workshop: LargeWorkshop,
    private readonly store: LargeStore,
    private readonly watch: (progress: TraceProgress) => void,
    private readonly clock: () => number,
    private readonly kept: Kept | null = null,
    private readonly bandPixels?: number,
  ) {}

  cancel(): void {
    this.cancelled = true;
    this.inner?.cancel();
  }

  /** Puts it aside: bands that are whole are kept. */
  halt(): void {
    this.halted = true;
    this.inner?.halt();
  }

  private get stopped(): boolean {
    return this.cancelled || this.halted;
  }

  /** Samples of pixels of the small picture. */
  private get smallWork(): number {
    const { width, height } = smallSize(this.size);
    return width * height * this.smallSamples;
  }

  private get smallSamples(): number {
    return Math.max(1, Math.round(this.size.samples * SMALL_SAMPLES));
  }

  private tell(phase: TraceProgress['phase'], shown?: TraceProgress['shown']): void {
    if (this.cancelled) return;
    const { width, height, samples } = this.size;
    const all = this.smallWork + width * height * samples;
    const own = this.traced - this.before;
    const left = own > 0 ? ((this.clock() - this.began) / own) * (all - this.traced) : null;
    this.watch({ phase, samples: Math.min(samples, Math.floor((samples * this.traced) / all)), left, ...(shown ? { shown } : {}) });
  }

  /** @returns the small picture, and bytes of all blocks of the large one; null where it was cancelled or put aside */
  async run(): Promise<Finished | null> {
    this.began = this.clock();
    const small = (await this.store.small()) ?? (await this.traceSmall());
    if (!small || this.stopped) return null;
    this.traced = Math.max(this.traced, this.smallWork);
    return this.traceBands(small);
  }

  private async traceSmall(): Promise<Finished | null> {
    const size = smallSize(this.size);
    const pixels = size.width * size.height;
    let first: number | null = null;
    const cleaner: Cleaner = { clean: (radiance, guides) => this.workshop.clean(radiance, guides, size) };
    this.inner = new TraceJob(
      this.stamp,
      this.workshop.hands(size, null),
      cleaner,
      { ...size, samples: this.smallSamples },
      ({ phase, samples, shown }) => {
        this.traced = samples * pixels;
        if (phase === 'tracing' && first === null) {
          first = this.traced;
          [this.before, this.began] = [first, this.clock()];
        }
        if (phase !== 'done') this.tell(phase, shown);
      },
      this.clock,
      this.kept,
    );
    const small = await this.inner.run();
    this.inner = null;
    if (small && !this.cancelled) await this.store.keepSmall(small);
    return small;
  }

  private async traceBands(small: Finished): Promise<Finished | null> {
    const { width, height, samples } = this.size;
    const { rows, count, cleaned, pieces } = bandsOf(this.size, this.bandPixels);
    const view = smallSize(this.size);
    const scale = exposure(small.radiance, view.width, view.height);
    const sums = new Float32Array(small.radiance.length);
    const counts = cellsOf(this.size, view);
    this.shown = { radiance: small.radiance.slice(), exposure: small.exposure };
    const sizes: number[] = [];
    const takeOver = (done: DoneRows): void => {
      sizes.push(...done.sizes);
      const at = done.small.from * view.width * 3;
      done.small.sums.forEach((v, i) => (sums[at + i] += v));
      const last = sizes.length * BLOCK >= height ? view.height : Math.floor((sizes.length * BLOCK * view.height) / height);
      for (let i = done.small.from * view.width * 3; i < last * view.width * 3; i++) this.shown!.radiance[i] = sums[i] / counts(Math.floor(i / 3));
    };
    let piece = 0;
    for (let done = await this.store.done(0); done; done = piece < pieces ? await this.store.done(piece) : null) {
      takeOver(done);
      piece++;
    }
    // What lies before the first row that is wanted is done.
    let next = piece < pieces ? Math.max(0, Math.floor((piece * cleaned - OVERLAP) / rows)) : count;
    while (next < count && (await this.store.band(next))) next++;
    this.traced = this.smallWork + Math.min(height, next * rows) * width * samples;
    this.before = this.traced;
    this.began = this.clock();
    this.tell('tracing', this.shown);
    // One piece is cleaned while the next bands are traced.
    let cleaning: Promise<void> = Promise.resolve();
    let fault: unknown = null;
    let traced = false;
    const clean = async (which: number): Promise<void> => {
      if (this.cancelled || fault) return;
      try {
        takeOver(await this.cleanPiece(which, { scale, rows, cleaned, view }));
        this.tell(traced ? 'cleaning' : 'tracing', { ...this.shown!, radiance: this.shown!.radiance.slice() });
      } catch (error) {
        fault = error;
      }
    };
    let queued = piece;
    for (;;) {
      while (queued < pieces && Math.min(height, (queued + 1) * cleaned + OVERLAP) <= next * rows) {
        const which = queued++;
        await cleaning;
        cleaning = clean(which);
      }
      if (fault) throw fault as Error;
      if (next >= count || this.stopped) break;
      const film = await this.traceBand(next * rows, Math.min(rows, height - next * rows));
      if (!film) break;
      await this.store.keepBand(next, { radiance: film.mean(), guides: film.guides(), cover: film.cover() });
      next++;
    }
    traced = true;
    if (!this.stopped) this.tell('cleaning');
    await cleaning;
    if (fault) throw fault as Error;
    if (this.stopped && sizes.length < Math.ceil(height / BLOCK)) return null;
    if (this.cancelled) return null;
    this.tell('done');
    return { ...small, samples, radiance: this.shown.radiance, blocks: sizes };
  }

  private async traceBand(y: number, rows: number): Promise<Film | null> {
    const { width, samples } = this.size;
    const hands = this.workshop.hands(this.size, { x: 0, y, width, height: rows });
    let asked = 0;
    await Promise.all(
      hands.map(async (hand) => {
        await hand.prepare();
        while (!this.stopped && asked < samples) {
          await hand.pass(asked++);
          this.traced += width * rows;
          this.tell('tracing');
        }
      }),
    );
    if (this.stopped) return null;
    const parts: Exposed[] = [];
    // One after another: each is large.
    for (const hand of hands) parts.push(await hand.exposed());
    return Film.of(parts);
  }

  private async cleanPiece(piece: number, { scale, rows, cleaned, view }: { scale: number; rows: number; cleaned: number; view: Size }): Promise<DoneRows> {
    const { width, height } = this.size;
    const [from, to] = [piece * cleaned, Math.min(height, (piece + 1) * cleaned)];
    const [start, end] = [Math.max(0, from - OVERLAP), Math.min(height, to + OVERLAP)];
    const radiance = new Float32Array((end - start) * width * 3);
    const guides = new Float32Array((end - start) * width * 6);
    const cover = new Float32Array((to - from) * width);
    for (let band = Math.floor(start / rows); band * rows < end; band++) {
      const raw = (await this.store.band(band))!;
      const top = band * rows;
      const put = (into: Float32Array, values: Float32Array, per: number, a: number, b: number): void => {
        const [first, last] = [Math.max(a, top), Math.min(b, top + rows, height)];
        if (last > first) into.set(values.subarray((first - top) * width * per, (last - top) * width * per), (first - a) * width * per);
      };
      put(radiance, raw.radiance, 3, start, end);
      put(guides, raw.guides, 6, start, end);
      put(cover, raw.cover, 1, from, to);
    }
    const all = await this.workshop.clean(radiance, guides, { width, height: end - start }, scale);
    const clean = all.subarray((from - start) * width * 3, (to - start) * width * 3);
    const small = smallSums(clean, from, to - from, this.size, view);
    const sizes = await this.store.pack(piece, from, { radiance: clean, cover }, small);
    // The next piece looks back no farther than this.
    for (let band = Math.floor(start / rows); (band + 1) * rows <= to - OVERLAP; band++) await this.store.dropBand(band);
    return { sizes, small };
  }
}

const cell = (i: number, from: number, to: number): number => Math.floor((i * to) / from);

/** Sums of rows of a picture in the pixels of a smaller one: each pixel belongs to one of them. */
export function smallSums(rows: Float32Array, from: number, count: number, size: Size, view: Size): DoneRows['small'] {
  const top = cell(from, size.height, view.height);
  const sums = new Float32Array((cell(from + count - 1, size.height, view.height) - top + 1) * view.width * 3);
  for (let y = 0; y < count; y++)
    for (let x = 0; x < size.width; x++) {
      const k = ((cell(from + y, size.height, view.height) - top) * view.width + cell(x, size.width, view.width)) * 3;
      for (let c = 0; c < 3; c++) sums[k + c] += rows[(y * size.width + x) * 3 + c];
    }
  return { from: top, sums };
}

/** How many pixels of a picture belong to a pixel of a smaller one. */
export function cellsOf(size: Size, view: Size): (pixel: number) => number {
  const along = (whole: number, cells: number): number[] => {
    const out = Array.from({ length: cells }, () => 0);
    for (let i = 0; i < whole; i++) out[cell(i, whole, cells)]++;
    return out;
  };
  const [columns, rows] = [along(size.width, view.width), along(size.height, view.height)];
  return (pixel) => columns[pixel % view.width] * rows[Math.floor(pixel / view.width)];
}
