import { wrap } from 'comlink';
import { VIEW_TEXTURE } from '../../finishes/textures';
import type { Order } from '@/core/render/orders';
import type { Cleaner, TraceHand } from '@/core/render/trace-job';
import type { CleanService } from '@/workers/clean.worker';
import type { RenderService } from '@/workers/render.worker';

/** How many workers trace: the machine's cores, at most eight. */
export const workerCount = (): number => Math.max(1, Math.min(8, navigator.hardwareConcurrency || 2));

/** Longest side of textures, pixels: those of the view, or what a picture of this width can tell apart. */
const textureFor = (width: number): number => (width <= 1440 ? VIEW_TEXTURE : 2 * VIEW_TEXTURE);

export interface Workshop {
  hands: TraceHand[];
  cleaner: Cleaner;
  /** Ends all who work. */
  close(): void;
}

/** Workers who trace and clean one picture. */
export function openWorkshop({ project, shot, width, height, samples, done, part }: Order): Workshop {
  const workers = Array.from(
    { length: Math.min(workerCount(), Math.max(1, samples - done)) },
    () => new Worker(new URL('../../../workers/render.worker.ts', import.meta.url), { type: 'module' }),
  );
  const traced = part?.region ?? { width, height };
  const remotes = workers.map((worker) => wrap<RenderService>(worker));
  // One works out the shape of the scene and puts it together for all; the others draw its textures meanwhile.
  const texture = textureFor(width);
  const drawers = remotes.length > 1 ? remotes.slice(1) : remotes;
  const scene = Promise.all([remotes[0].shape(project, shot), ...drawers.map((drawer, i) => drawer.textures(project, shot, texture, i, drawers.length))]).then(
    ([, ...drawn]) => remotes[0].finish(drawn),
  );
  const hands = remotes.map((remote, i): TraceHand => ({
    prepare: async () => {
      const ready = await scene;
      if (i > 0) await remote.take(ready);
      await remote.begin({ width, height, seed: 1, ...(part ? { region: part.region } : {}) });
      return ready.scene.groups;
    },
    pass: (number) => remote.pass(number),
    exposed: () => remote.exposed(),
  }));
  const cleaning = new Worker(new URL('../../../workers/clean.worker.ts', import.meta.url), { type: 'module' });
  const cleaner = wrap<CleanService>(cleaning);
  return {
    hands,
    cleaner: { clean: (radiance, guides) => cleaner.clean(radiance, guides, traced.width, traced.height) },
    close() {
      for (const worker of [...workers, cleaning]) worker.terminate();
    },
  };
}
