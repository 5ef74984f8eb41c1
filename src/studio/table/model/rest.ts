import { usualWhite } from '@/core/light/white';
import type { Project, Shot } from '@/core/project/schema';
import { develop } from '@/core/render/development';
import { TraceJob } from '@/core/render/trace-job';
import { rememberedPace } from '../../store/habits';
import { openWorkshop, prepareAhead, workerCount, type Workshop } from '../../views/queue/hands';

/** How long the eye has rested before the picture is traced, ms. */
const REST = 500;

/** After so long the scene of another project is put together ahead, ms: while something is dragged it would be another one soon. */
const AHEAD = 120;

/** Samples a pixel of the first look, which comes soon and is coarse, and of the fine picture after it. */
export const STAGES = { first: 16, fine: 64 } as const;

/** A pass of the first look takes one of those who trace about so long, seconds: it is the coarser, the slower the machine is. */
const PASS = 0.5;

/** Pixels of the shorter side below which nothing would be told apart, and of the fine picture at most. */
const LEAST = 120;
const MOST = 700_000;

/** Samples a pixel from which the fine picture takes the place of the first look. */
const FINER = 4;

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

/** Sizes a sight is traced at, pixels: at once, and when it rests on. @param rate samples a second of one who traces */
export function restingSizes({ width, height }: Pick<Sight, 'width' | 'height'>, rate: number): { width: number; height: number }[] {
  const scaled = (k: number) => ({ width: Math.max(16, Math.round(width * k)), height: Math.max(16, Math.round(height * k)) });
  const fine = Math.min(1, Math.sqrt(MOST / (width * height)));
  const first = Math.max(Math.sqrt((rate * PASS) / (width * height)), LEAST / Math.min(width, height));
  // A fine picture that is hardly finer is not worth beginning anew.
  return first > 0.8 * fine ? [scaled(fine)] : [scaled(first), scaled(fine)];
}

/** A picture of the view at rest, as it is shown. */
interface Still {
  radiance: Float32Array;
  exposure: number;
  width: number;
  height: number;
}

interface Under {
  sight: Sight;
  job: TraceJob | null;
  workshop: Workshop | null;
  last: Still | null;
  /** Samples a pixel of the fine picture; null while only the first look is there. */
  samples: number | null;
}

interface Told {
  /** A new state of the picture: RGBA, with its size. */
  show(pixels: Uint8ClampedArray<ArrayBuffer>, width: number, height: number): void;
  hide(): void;
  /** How far it is: samples a pixel of the fine picture, or the first look; null: it does not rest. */
  tell(far: number | 'first look' | null): void;
}

/**
 * The 3D view at rest: when nothing has moved for half a second what is looked at is traced in place, denoised, finer and finer; at
 * the first touch it gives way. What has been traced is shown again where nothing has changed.
 */
export class RestingView {
  private timer: ReturnType<typeof setTimeout> | null = null;
  private early: ReturnType<typeof setTimeout> | null = null;
  /** The project whose scene was put together ahead. */
  private begun: Project | null = null;
  private under: Under | null = null;
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
    if (this.early) clearTimeout(this.early);
    this.early = setTimeout(() => this.ahead(), AHEAD);
    const now = this.sight();
    if (this.under && !(now && alike(now, this.under.sight))) this.stop(true);
  }

  /** Ends it. @param warm whether those who trace stay ready for the next rest */
  stop(warm: boolean): void {
    const own = this.under;
    this.under = null;
    this.giveWay();
    own?.job?.cancel();
    own?.workshop?.close(warm);
  }

  private ahead(): void {
    this.early = null;
    const sight = this.sight();
    if (!sight || this.under || sight.project === this.begun) return;
    this.begun = sight.project;
    prepareAhead(sight);
  }

  dispose(): void {
    if (this.timer) clearTimeout(this.timer);
    if (this.early) clearTimeout(this.early);
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
    const own: Under = { sight, job: null, workshop: null, last: null, samples: null };
    this.under = own;
    // The view stays as it is drawn where it fails; the next rest tries again.
    this.trace(own).catch(() => this.under === own && this.stop(false));
  }

  private async trace(own: Under): Promise<void> {
    const { project, shot } = own.sight;
    const sizes = restingSizes(own.sight, rememberedPace(workerCount()).samples / workerCount());
    for (const size of sizes) {
      const fine = size === sizes.at(-1);
      const workshop = openWorkshop({ project, shot, ...size });
      own.workshop = workshop;
      const stamp = { project: project.id, scheme: project.scheme, name: '', viewpoint: null };
      own.job = new TraceJob(
        stamp,
        workshop.hands(size, null),
        workshop.cleaner,
        { ...size, samples: fine ? STAGES.fine : STAGES.first, parted: false },
        ({ samples, shown }) => {
          if (this.under !== own) return;
          if (fine && own.last) own.samples = samples;
          // Grain would deceive as much as what it takes the place of; a few samples of a fine picture are less than the first look.
          if (shown && samples >= (fine && own.last ? FINER : 2)) own.last = { ...shown, ...size };
          if (shown || this.shown) this.show();
        },
        () => performance.now() / 1000,
      );
      const done = await own.job.run();
      if (this.under !== own || !done) return;
      own.last = { radiance: done.radiance, exposure: done.exposure, ...size };
      if (fine) own.samples = done.samples;
      this.show();
      workshop.close(true);
      own.workshop = null;
    }
  }

  private show(): void {
    const { last, samples = null, sight } = this.under ?? {};
    if (!last || !sight || this.timer) return;
    this.shown = true;
    this.told.show(develop(last.radiance, last.exposure, usualWhite(sight.project.site)), last.width, last.height);
    this.told.tell(samples === null ? 'first look' : Math.floor(samples));
  }
}
