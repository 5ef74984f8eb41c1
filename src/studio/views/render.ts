import { wrap } from 'comlink';
import { create } from 'zustand';
import { TraceJob, type TraceHand, type TraceProgress } from '@/core/render/trace-job';
import { usualWhite } from '@/core/light/white';
import type { Project } from '@/core/project/schema';
import type { CleanService } from '@/workers/clean.worker';
import type { RenderService } from '@/workers/render.worker';
import { learned } from '@/core/render/pace';
import { rememberedPace, rememberPace } from '../store/habits';
import { errorText } from '../store/sync';
import type { Shot } from '@/core/render/shot';
import { keepPicture } from './keep';

/** How many workers trace: the machine's cores, at most eight. */
export const workerCount = (): number => Math.max(1, Math.min(8, navigator.hardwareConcurrency || 2));

/** Samples a pixel by what a picture is for. */
export const QUALITIES = { Look: 8, Client: 48, Print: 160 } as const;
export type Quality = keyof typeof QUALITIES;

/** Frames by use, pixels. */
export const SIZES = {
  Small: [480, 300],
  Medium: [720, 450],
  Large: [1280, 800],
  Square: [1080, 1080],
  'Photograph 4:3': [1440, 1080],
  'Screen 16:9': [1920, 1080],
  'A4 at 150 dpi': [1754, 1240],
} as const;
export type PictureSize = keyof typeof SIZES;

interface RenderState {
  phase: 'idle' | 'preparing' | 'tracing' | 'cleaning' | 'parting' | 'keeping' | 'done' | 'failed';
  name: string;
  viewpoint: string | null;
  width: number;
  height: number;
  samples: number;
  target: number;
  started: number;
  /** Seconds left, as far as it can be told. */
  left: number | null;
  exposure: number;
  metered: boolean;
  /** Colour temperature shown as white, K. */
  white: number;
  /** Mean radiance so far. */
  radiance: Float32Array | null;
  version: number;
  message: string | null;
  start(project: Project, name: string, viewpoint: string | null, shot: Shot, size: PictureSize, quality: Quality): void;
  cancel(): void;
  setExposure(ev: number): void;
  setWhite(kelvin: number): void;
  close(): void;
}

let workers: Worker[] = [];
let job: TraceJob | null = null;

function stop(): void {
  job?.cancel();
  job = null;
  for (const worker of workers) worker.terminate();
  workers = [];
}

/** The picture being made, in this window; the designer goes on working meanwhile. */
export const useRender = create<RenderState>()((set, get) => ({
  phase: 'idle',
  name: '',
  viewpoint: null,
  width: 0,
  height: 0,
  samples: 0,
  target: 0,
  started: 0,
  left: null,
  exposure: 10,
  metered: false,
  white: 5500,
  radiance: null,
  version: 0,
  message: null,
  start(project, name, viewpoint, shot, size, quality) {
    stop();
    const [width, height] = SIZES[size];
    const target = QUALITIES[quality];
    set({
      phase: 'preparing',
      name,
      viewpoint,
      width,
      height,
      samples: 0,
      target,
      started: performance.now(),
      left: null,
      radiance: null,
      metered: false,
      white: usualWhite(project.site),
      message: null,
    });
    workers = Array.from(
      { length: Math.min(workerCount(), target) },
      () => new Worker(new URL('../../workers/render.worker.ts', import.meta.url), { type: 'module' }),
    );
    const remotes = workers.map((worker) => wrap<RenderService>(worker));
    // One works out the shape of the scene and puts it together for all; the others draw its textures meanwhile.
    const texture = size === 'Small' ? 384 : 640;
    const drawers = remotes.length > 1 ? remotes.slice(1) : remotes;
    const scene = Promise.all([
      remotes[0].shape(project, shot),
      ...drawers.map((drawer, i) => drawer.textures(project, shot, texture, i, drawers.length)),
    ]).then(([, ...drawn]) => remotes[0].finish(drawn));
    const hands = remotes.map((remote, i): TraceHand => ({
      prepare: async (own, of) => {
        const ready = await scene;
        if (i > 0) await remote.take(ready);
        await remote.begin({ width, height, seed: 1, share: { own, of } });
        return ready.scene.groups;
      },
      pass: () => remote.pass(),
      exposed: () => remote.exposed(),
    }));
    const cleaning = new Worker(new URL('../../workers/clean.worker.ts', import.meta.url), { type: 'module' });
    workers.push(cleaning);
    const cleaner = wrap<CleanService>(cleaning);
    // When each part began, for what this machine is known to take.
    const began = { preparing: performance.now(), tracing: 0, cleaning: 0 };
    const watch = ({ phase, samples, left, shown }: TraceProgress): void => {
      if (phase === 'tracing') began.tracing ||= performance.now();
      if (phase === 'cleaning') began.cleaning ||= performance.now();
      set((s) => ({
        phase: phase === 'done' ? 'keeping' : phase,
        samples,
        left,
        ...(shown ? { radiance: shown.radiance, version: s.version + 1, exposure: s.metered ? s.exposure : Math.round(shown.exposure * 10) / 10 } : {}),
      }));
    };
    const own = new TraceJob(
      { project: project.id, scheme: project.scheme, name, viewpoint },
      hands,
      { clean: (radiance, guides) => cleaner.clean(radiance, guides, width, height) },
      { width, height, samples: target },
      watch,
      () => performance.now() / 1000,
    );
    job = own;
    own
      .run()
      .then(async (finished) => {
        if (!finished) return;
        const took = {
          prepare: (began.tracing - began.preparing) / 1000,
          trace: (began.cleaning - began.tracing) / 1000,
          finish: (performance.now() - began.cleaning) / 1000,
        };
        rememberPace(learned(rememberedPace(workerCount()), { width, height, samples: target }, took));
        await keepPicture(own.stamp, { ...finished, width, height, exposure: get().exposure, white: get().white });
        if (job !== own) return;
        set({ phase: 'done' });
        stop();
      })
      .catch((error: unknown) => {
        if (job !== own) return;
        stop();
        set({ phase: 'failed', message: `The picture was not finished. ${errorText(error)}` });
      });
  },
  cancel() {
    stop();
    set({ phase: 'idle', radiance: null });
  },
  setExposure: (exposure) => set({ exposure, metered: true }),
  setWhite: (white) => set({ white }),
  close() {
    if (get().phase === 'done' || get().phase === 'failed') set({ phase: 'idle', radiance: null });
  },
}));
