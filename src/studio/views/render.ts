import { wrap, type Remote } from 'comlink';
import { create } from 'zustand';
import { Accumulator } from '@/core/render/accumulator';
import { meterExposure } from '@/core/render/tone';
import type { Project } from '@/core/project/schema';
import type { RenderService } from '@/workers/render.worker';
import { errorText } from '../store/sync';
import type { EyeState } from '../table/model/ModelScene';
import { keepPicture } from './keep';

/** How many workers trace: the machine's cores, at most eight. */
const workerCount = (): number => Math.max(1, Math.min(8, navigator.hardwareConcurrency || 2));

export const QUALITIES = { Draft: 8, Good: 48, Fine: 160 } as const;
export type Quality = keyof typeof QUALITIES;

export const SIZES = { Small: [480, 300], Medium: [720, 450], Large: [1280, 800] } as const;
export type PictureSize = keyof typeof SIZES;

interface RenderState {
  phase: 'idle' | 'preparing' | 'tracing' | 'filtering' | 'keeping' | 'done' | 'failed';
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
  /** Mean radiance so far. */
  radiance: Float32Array | null;
  version: number;
  message: string | null;
  start(project: Project, name: string, viewpoint: string | null, eye: EyeState, size: PictureSize, quality: Quality): void;
  cancel(): void;
  setExposure(ev: number): void;
  close(): void;
}

let workers: Worker[] = [];
let job = 0;

function stop(): void {
  job++;
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
  radiance: null,
  version: 0,
  message: null,
  start(project, name, viewpoint, eye, size, quality) {
    stop();
    const own = job;
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
      message: null,
    });
    const picture = new Accumulator(width, height);
    let asked = 0;
    let tracingSince = 0;
    const show = (): void => {
      const mean = picture.mean();
      const { samples } = picture;
      const seconds = (performance.now() - tracingSince) / 1000;
      const exposure = get().metered ? get().exposure : Math.round(meterExposure(mean) * 10) / 10;
      set((s) => ({
        phase: 'tracing',
        samples,
        radiance: mean,
        left: samples >= 2 ? (seconds / samples) * (target - samples) : null,
        exposure,
        version: s.version + 1,
      }));
    };
    const work = async (remote: Remote<RenderService>, seed: number): Promise<void> => {
      await remote.prepare(project, { camera: eye, width, height, seed, texture: size === 'Small' ? 384 : 640 });
      if (!tracingSince) tracingSince = performance.now();
      while (own === job && asked < target) {
        asked++;
        const pass = await remote.pass();
        if (own !== job) return;
        picture.add(pass.sum, pass.guides);
        show();
      }
    };
    workers = Array.from(
      { length: Math.min(workerCount(), target) },
      () => new Worker(new URL('../../workers/render.worker.ts', import.meta.url), { type: 'module' }),
    );
    const remotes = workers.map((worker) => wrap<RenderService>(worker));
    void Promise.all(remotes.map((remote, i) => work(remote, i * 7919 + 1)))
      .then(async () => {
        if (own !== job) return;
        set({ phase: 'filtering', left: null });
        const clean = await remotes[0].filter(picture.mean(), picture.guides(), picture.variance(), width, height);
        if (own !== job) return;
        set((s) => ({ phase: 'keeping', radiance: clean, version: s.version + 1 }));
        const stamp = { project: project.id, scheme: project.scheme, name, viewpoint };
        await keepPicture(stamp, { radiance: clean, width, height, samples: picture.samples, exposure: get().exposure });
        if (own === job) set({ phase: 'done' });
        stop();
      })
      .catch((error: unknown) => {
        if (own !== job) return;
        stop();
        set({ phase: 'failed', message: `The picture was not finished. ${errorText(error)}` });
      });
  },
  cancel() {
    stop();
    set({ phase: 'idle', radiance: null });
  },
  setExposure: (exposure) => set({ exposure, metered: true }),
  close() {
    if (get().phase === 'done' || get().phase === 'failed') set({ phase: 'idle', radiance: null });
  },
}));
