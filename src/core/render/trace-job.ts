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
  /** Makes ready. */
  prepare(): Promise<readonly LightGroup[]>;
  /** Traces one sample of every pixel and adds it to what it has. @param number which of the samples it is: no two trace the same paths */
  pass(number: number): Promise<void>;
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
  /** How uncertain the light still was before the grain was taken out, as `Film.noise` has it. */
  noise: number;
  /** What else is known of each pixel. */
  passes: ReturnType<Film['passes']>;
  /** Of a picture that was made in bands: this is a small one of it, and these are the bytes of each block of the large one. */
  blocks?: number[];
}

/** A picture under way. */
export interface Job {
  /** Ends it: nothing is told of it any more. */
  cancel(): void;
  /** Puts it aside: what has been traced is kept. */
  halt(): void;
  /** @returns the picture; null where it was cancelled or put aside */
  run(): Promise<Finished | null>;
}

/** What has been traced of a picture, to go on from later. */
export interface Kept {
  /** What was kept before, if anything. */
  film: Exposed | null;
  /** Keeps what there is. */
  keep(film: Exposed): Promise<void>;
}

/** What there is is kept no more often than this, seconds, and takes no more than this share of the time. */
const KEEPING = { every: 15, share: 0.05 } as const;

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
export class TraceJob implements Job {
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
  private halted = false;
  private taken = false;
  /** When what there is is kept again. */
  private due = 0;
  /** What was traced before it was last put aside. */
  private before: Exposed | null = null;

  /**
   * @param size pixels, and samples a pixel, all hands together; whether its lights are told apart, as they are unless told
   * @param watch told how far it is, not after it was cancelled
   * @param clock seconds
   * @param kept where it goes on from, and keeps what there is
   */
  constructor(
    readonly stamp: Stamp,
    private readonly hands: readonly TraceHand[],
    private readonly cleaner: Cleaner,
    private readonly size: { width: number; height: number; samples: number; parted?: boolean },
    private readonly watch: (progress: TraceProgress) => void,
    private readonly clock: () => number,
    private readonly kept: Kept | null = null,
  ) {}

  cancel(): void {
    this.cancelled = true;
  }

  /** Puts it aside once the samples under way are there: what has been traced is kept. */
  halt(): void {
    this.halted = true;
  }

  /**
   * Traces, brings together and cleans.
   *
   * @returns the picture; null where it was cancelled or put aside
   * @throws what a hand throws
   */
  async run(): Promise<Finished | null> {
    this.tell({ phase: 'preparing', samples: 0, left: null });
    await Promise.all(this.hands.map((hand) => this.trace(hand)));
    if (this.cancelled) return null;
    if (this.halted && this.traced < this.size.samples) {
      if (this.traced) await this.kept?.keep((await this.gather()).sums);
      return null;
    }
    this.tell({ phase: 'cleaning', samples: this.traced, left: null });
    await this.cleaning;
    const picture = await this.gather();
    const radiance = await this.cleaner.clean(picture.mean(), picture.guides());
    if (this.cancelled) return null;
    const exposure = meterExposure(radiance);
    this.tell({ phase: 'parting', samples: picture.samples, left: null, shown: { radiance, exposure } });
    const parted = this.size.parted ?? true;
    const shares = parted ? await partLight(picture, this.groups, async (light, guides) => (this.cancelled ? light : this.cleaner.clean(light, guides))) : [];
    if (this.cancelled) return null;
    this.tell({ phase: 'done', samples: picture.samples, left: null });
    return { radiance, shares, samples: picture.samples, exposure, noise: picture.noise(), passes: picture.passes() };
  }

  private tell(progress: TraceProgress): void {
    if (!this.cancelled) this.watch(progress);
  }

  private async trace(hand: TraceHand): Promise<void> {
    this.groups = await hand.prepare();
    this.takeUp();
    const from = this.before ? new Film(this.before).samples : 0;
    while (!this.cancelled && !this.halted && this.asked < this.size.samples) {
      await hand.pass(this.asked++);
      this.traced++;
      if (this.cancelled) return;
      const [since, own] = [this.clock() - this.began, this.traced - from];
      // The first passes tell little of how long the others take.
      this.left = own < 2 ? null : (since / own) * (this.size.samples - this.traced);
      this.tell({ phase: 'tracing', samples: this.traced, left: this.left });
      await this.repaint();
    }
  }

  /** Begins, from what was traced before where that is of this picture. */
  private takeUp(): void {
    if (this.taken) return;
    this.taken = true;
    this.began = this.clock();
    this.due = this.began + KEEPING.every;
    const film = this.kept?.film ?? null;
    if (film && film.groups === this.groups.length && film.width === this.size.width && film.height === this.size.height) {
      this.before = film;
      this.asked = this.traced = Math.round(new Film(film).samples);
    }
    this.tell({ phase: 'tracing', samples: this.traced, left: null });
  }

  private async repaint(): Promise<void> {
    const now = this.clock();
    if (this.painting || (this.painted && now - this.painted < this.pause)) return;
    this.painting = true;
    try {
      const picture = await this.gather();
      if (this.painted) this.pause = Math.min(REPAINT.longest, this.pause * 2);
      this.painted = this.clock();
      await this.keep(picture);
      if (!this.cleaned) this.show(picture.mean());
      if (!this.cleaning && picture.samples >= CLEAN_FROM && this.painted >= this.rested) this.cleaning = this.clean(picture);
    } finally {
      this.painting = false;
    }
  }

  /** Keeps what there is, from time to time. */
  private async keep(picture: Film): Promise<void> {
    const from = this.clock();
    if (!this.kept || this.cancelled || from < this.due) return;
    await this.kept.keep(picture.sums);
    const now = this.clock();
    this.due = now + Math.max(KEEPING.every, (now - from) / KEEPING.share);
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
    const parts = await Promise.all(this.hands.map((hand) => hand.exposed()));
    return Film.of(this.before ? [this.before, ...parts] : parts);
  }
}
