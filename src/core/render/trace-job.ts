import type { LightShare } from '../light/shares';
import { Film, type Exposed } from './film';
import { partLight } from './parting';
import type { LightGroup } from './scene';
import { meterExposure } from './tone';

/** What a picture was begun with: it belongs to that, whatever is looked at when it is finished. */
export interface Stamp {
  project: string;
  scheme: string;
  name: string;
  viewpoint: string | null;
}

/** Someone who traces passes of a picture and keeps their sums. */
export interface TraceHand {
  /** Makes ready. @param own which samples of each pixel are its own, of every `of`: no two trace the same paths */
  prepare(own: number, of: number): Promise<readonly LightGroup[]>;
  /** Traces one pass of one sample a pixel and adds it to what it has. */
  pass(): Promise<void>;
  /** What it has so far. */
  exposed(): Promise<Exposed>;
}

/** Someone who takes the grain out of what was traced, beside those who trace. */
export interface Cleaner {
  /** @param radiance three values a pixel @param guides six values a pixel, as `Film` has them */
  clean(radiance: Float32Array, guides: Float32Array): Promise<Float32Array>;
}

/** How far a job is. */
export interface TraceProgress {
  phase: 'preparing' | 'tracing' | 'cleaning' | 'parting' | 'done';
  samples: number;
  /** Seconds it will still trace; null while that can’t be told. */
  left: number | null;
  /** A new state to be shown: radiance, three values a pixel, cd/m², with the exposure metered from it. */
  shown?: { radiance: Float32Array; exposure: number };
}

export interface Finished {
  /** Linear radiance, three values a pixel, cd/m². */
  radiance: Float32Array;
  /** What of it each light group gives, but for groups that give nothing. */
  shares: LightShare[];
  samples: number;
  /** EV at ISO 100 that the meter reads. */
  exposure: number;
}

/** Seconds between two repaints at first; each takes twice as long as the one before, up to the longest. */
const REPAINT = { first: 0.4, longest: 4 } as const;

/** Samples a pixel from which a picture is cleaned while it grows. */
const CLEAN_FROM = 2;

/** A growing picture rests so many times as long as its cleaning took before it is cleaned again: most of the machine goes on tracing. */
const REST = 3;

/**
 * A picture being traced by several hands. Project, scheme and viewpoint are stamped when it begins. The hands keep their
 * sums; they are brought together when the picture is repainted, more and more seldom, and at the end. It is cleaned
 * while it grows; once one could see it clean it is not shown with its grain again. Exposure is metered on what is
 * shown: the meter takes the mean of logarithms, which grain lowers.
 */
export class TraceJob {
  private cancelled = false;
  private asked = 0;
  private traced = 0;
  private left: number | null = null;
  private began = 0;
  private painting = false;
  private painted = 0;
  private pause: number = REPAINT.first;
  private cleaning: Promise<void> | null = null;
  private cleaned = 0;
  private groups: readonly LightGroup[] = [];
  /** When it may be cleaned again. */
  private rested = 0;

  /**
   * @param samples a pixel, all hands together
   * @param watch told how far it is, not after it was cancelled
   * @param clock seconds
   */
  constructor(
    readonly stamp: Stamp,
    private readonly hands: readonly TraceHand[],
    private readonly cleaner: Cleaner,
    private readonly size: { width: number; height: number; samples: number },
    private readonly watch: (progress: TraceProgress) => void,
    private readonly clock: () => number,
  ) {}

  /** Ends it: nothing is told of it any more. */
  cancel(): void {
    this.cancelled = true;
  }

  /**
   * Traces, brings together and cleans.
   *
   * @returns the picture; null where it was cancelled
   * @throws what a hand throws
   */
  async run(): Promise<Finished | null> {
    this.tell({ phase: 'preparing', samples: 0, left: null });
    await Promise.all(this.hands.map((hand, i) => this.trace(hand, i)));
    if (this.cancelled) return null;
    this.tell({ phase: 'cleaning', samples: this.traced, left: null });
    await this.cleaning;
    const picture = await this.gather();
    const radiance = await this.cleaner.clean(picture.mean(), picture.guides());
    if (this.cancelled) return null;
    const exposure = meterExposure(radiance);
    this.tell({ phase: 'parting', samples: picture.samples, left: null, shown: { radiance, exposure } });
    const shares = await partLight(picture, this.groups, async (light, guides) => (this.cancelled ? light : this.cleaner.clean(light, guides)));
    if (this.cancelled) return null;
    this.tell({ phase: 'done', samples: picture.samples, left: null });
    return { radiance, shares, samples: picture.samples, exposure };
  }

  private tell(progress: TraceProgress): void {
    if (!this.cancelled) this.watch(progress);
  }

  private async trace(hand: TraceHand, own: number): Promise<void> {
    this.groups = await hand.prepare(own, this.hands.length);
    this.began ||= this.clock();
    while (!this.cancelled && this.asked < this.size.samples) {
      this.asked++;
      await hand.pass();
      this.traced++;
      if (this.cancelled) return;
      const since = this.clock() - this.began;
      // The first passes tell little of how long the others take.
      this.left = this.traced < 2 ? null : (since / this.traced) * (this.size.samples - this.traced);
      this.tell({ phase: 'tracing', samples: this.traced, left: this.left });
      await this.repaint();
    }
  }

  private async repaint(): Promise<void> {
    const now = this.clock();
    if (this.painting || (this.painted && now - this.painted < this.pause)) return;
    this.painting = true;
    try {
      const picture = await this.gather();
      if (this.painted) this.pause = Math.min(REPAINT.longest, this.pause * 2);
      this.painted = this.clock();
      if (!this.cleaned) this.show(picture.mean());
      if (!this.cleaning && picture.samples >= CLEAN_FROM && this.painted >= this.rested) this.cleaning = this.clean(picture);
    } finally {
      this.painting = false;
    }
  }

  /** Cleans what there is so far, beside the tracing. */
  private async clean(picture: Film): Promise<void> {
    const from = this.clock();
    try {
      const radiance = await this.cleaner.clean(picture.mean(), picture.guides());
      this.cleaned++;
      this.show(radiance);
    } catch {
      // The last cleaning fails in the same way, and tells it.
    } finally {
      this.rested = this.clock() + REST * (this.clock() - from);
      this.cleaning = null;
    }
  }

  private show(radiance: Float32Array): void {
    this.tell({ phase: 'tracing', samples: this.traced, left: this.left, shown: { radiance, exposure: meterExposure(radiance) } });
  }

  private async gather(): Promise<Film> {
    return Film.of(await Promise.all(this.hands.map((hand) => hand.exposed())));
  }
}
