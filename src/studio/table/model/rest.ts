import type { Project, Shot } from '@/core/project/schema';
import { develop } from '@/core/render/development';
import { TraceJob } from '@/core/render/trace-job';
import { rememberedPace } from '../../store/habits';
import { openWorkshop, workerCount, type Job, type Workshop } from '../../views/queue/hands';

/** How long the eye has rested before the picture is traced, ms. */
const REST = 500;

/** Samples a pixel after which a resting picture is done. */
export const ENOUGH = 64;

/** A pass of a resting picture takes about so long, seconds: it is the coarser, the slower the machine is. */
const PASS = 0.9;

/** Pixels of the shorter side below which nothing would be told apart. */
const LEAST = 120;

/** What is looked at: two that are alike show one picture. */
export interface Sight {
  project: Project;
  shot: Shot;
  /** Of the pane, pixels. */
  width: number;
  height: number;
}

const alike = (a: Sight, b: Sight): boolean =>
  a.project === b.project && a.width === b.width && a.height === b.height && JSON.stringify(a.shot) === JSON.stringify(b.shot);

/** Size a sight is traced at, pixels. @param rate samples a second */
export function restingSize({ width, height }: Pick<Sight, 'width' | 'height'>, rate: number): { width: number; height: number } {
  const k = Math.min(1, Math.max(Math.sqrt((rate * PASS) / (width * height)), LEAST / Math.min(width, height)));
  return { width: Math.max(16, Math.round(width * k)), height: Math.max(16, Math.round(height * k)) };
}

interface Told {
  /** A new state of the picture: RGBA, with its size. */
  show(pixels: Uint8ClampedArray<ArrayBuffer>, width: number, height: number): void;
  hide(): void;
  /** Samples a pixel there are; null: it does not rest. */
  tell(samples: number | null): void;
}

/**
 * The 3D view at rest: when nothing has moved for half a second what is looked at is traced in place, denoised, finer and finer; at
 * the first touch it gives way. What has been traced is shown again where nothing has changed.
 */
export class RestingView {
  private timer: ReturnType<typeof setTimeout> | null = null;
  private under: {
    sight: Sight;
    job: TraceJob;
    workshop: Workshop;
    last: { radiance: Float32Array; exposure: number; width: number; height: number } | null;
    samples: number;
  } | null = null;
  private shown = false;

  /** @param sight what is looked at now; null while it is not to be traced: one walks, nothing is there, pictures are being made */
  constructor(
    private readonly sight: () => Sight | null,
    private readonly told: Told,
  ) {}

  /** Something was touched, or drawn: it gives way, and is taken up again when all rests. */
  touch(): void {
    this.giveWay();
    if (this.timer) clearTimeout(this.timer);
    this.timer = setTimeout(() => this.rest(), REST);
    const now = this.sight();
    if (this.under && !(now && alike(now, this.under.sight))) this.stop(true);
  }

  /** Ends it. @param warm whether those who trace stay ready for the next rest */
  stop(warm: boolean): void {
    const own = this.under;
    this.under = null;
    this.giveWay();
    own?.job.cancel();
    own?.workshop.close(warm);
  }

  dispose(): void {
    if (this.timer) clearTimeout(this.timer);
    this.stop(false);
  }

  private giveWay(): void {
    if (this.shown) this.told.hide();
    this.shown = false;
    this.told.tell(null);
  }

  private rest(): void {
    this.timer = null;
    const sight = this.sight();
    if (!sight) return;
    if (this.under && alike(sight, this.under.sight)) return this.show();
    this.stop(true);
    const size = restingSize(sight, rememberedPace(workerCount()).samples);
    const job: Job = { project: sight.project, shot: sight.shot, ...size };
    const workshop = openWorkshop(job);
    const stamp = { project: sight.project.id, scheme: sight.project.scheme, name: '', viewpoint: null };
    const trace = new TraceJob(
      stamp,
      workshop.hands,
      workshop.cleaner,
      { ...size, samples: ENOUGH, parted: false },
      ({ samples, shown }) => {
        if (this.under !== own) return;
        own.samples = samples;
        // Grain alone would deceive as much as what it takes the place of.
        if (shown && samples > 1) own.last = { ...shown, ...size };
        if (shown || this.shown) this.show();
      },
      () => performance.now() / 1000,
    );
    const own = (this.under = {
      sight,
      job: trace,
      workshop,
      last: null as { radiance: Float32Array; exposure: number; width: number; height: number } | null,
      samples: 0,
    });
    trace
      .run()
      .then((done) => {
        if (this.under !== own || !done) return;
        own.last = { radiance: done.radiance, exposure: done.exposure, ...size };
        own.samples = done.samples;
        this.show();
      })
      // The view stays as it is; the next rest tries again.
      .catch(() => this.under === own && this.stop(false));
  }

  private show(): void {
    const { last, samples } = this.under ?? {};
    if (!last || this.timer) return;
    this.shown = true;
    this.told.show(develop(last.radiance, last.exposure), last.width, last.height);
    this.told.tell(Math.floor(samples ?? 0));
  }
}
