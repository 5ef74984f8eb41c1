import { releaseProxy, transfer, wrap, type Remote } from 'comlink';
import type { Project, Shot } from '@/core/project/schema';
import type { Camera } from '@/core/render/camera';
import type { LightGroup } from '@/core/render/scene';
import type { ExrBlocks } from '@/core/formats/exr/exr';
import type { LargeWorkshop, RawRows } from '@/core/render/large';
import type { Cleaner, TraceHand } from '@/core/render/trace-job';
import type { Region } from '@/core/render/tracer';
import type { CleanService } from '@/workers/clean.worker';
import type { RenderService } from '@/workers/render.worker';
import { VIEW_TEXTURE } from '../../finishes/textures';

/** How many workers trace: the machine's cores, at most eight. */
export const workerCount = (): number => Math.max(1, Math.min(8, navigator.hardwareConcurrency || 2));

/** Longest side of textures, pixels: those of the view, or what a picture of this width can tell apart. */
const textureFor = (width: number): number => (width <= 1440 ? VIEW_TEXTURE : 2 * VIEW_TEXTURE);

/** What is traced. */
export interface Job {
  project: Project;
  shot: Shot;
  width: number;
  height: number;
  /** The part of it that is traced; the whole unless told. */
  region?: Region;
  /** Width its textures are drawn for, pixels: its own unless told. */
  detail?: number;
}

const tokens = new WeakMap<Project, string>();
let tokenCount = 0;
const tokenOf = (project: Project): string => {
  let token = tokens.get(project);
  if (!token) tokens.set(project, (token = `p${tokenCount++}`));
  return token;
};

/**
 * Workers who trace, and the scene they have ready: the next picture of it, from elsewhere or of another size, begins at once. One
 * works out the shape of a scene and hands it to all; the others draw its textures meanwhile.
 */
class Tracers {
  private readonly workers = Array.from(
    { length: workerCount() },
    () => new Worker(new URL('../../../workers/render.worker.ts', import.meta.url), { type: 'module' }),
  );
  private readonly remotes: Remote<RenderService>[] = this.workers.map((worker) => wrap<RenderService>(worker));
  private groups: readonly LightGroup[] | null = null;
  /** What the tracers are set up for; null until they are. */
  private begun: string | null = null;
  /** Scenes are made ready one after another. */
  private last: Promise<unknown> = Promise.resolve();

  /** Makes a picture ready to be traced. */
  prepare(job: Job): Promise<readonly LightGroup[]> {
    const made = this.last.catch(() => undefined).then(() => this.ready(job));
    this.last = made;
    return made;
  }

  /** Has the scene put together before a picture of it is asked for. */
  ahead({ project, shot }: Pick<Job, 'project' | 'shot'>, texture: number): void {
    const [first] = this.remotes;
    const token = `${tokenOf(project)} ${texture}`;
    this.last = this.last
      .catch(() => undefined)
      .then(async () => (await first.compile(token, null, shot)) ?? first.compile(token, project, shot))
      .catch(() => undefined);
  }

  private async ready({ project, shot, width, height, region, detail = width }: Job): Promise<readonly LightGroup[]> {
    const [first] = this.remotes;
    const texture = textureFor(detail);
    const token = `${tokenOf(project)} ${texture}`;
    const made = (await first.compile(token, null, shot)) ?? (await first.compile(token, project, shot))!;
    if (!made.same || !this.groups) {
      this.begun = null;
      this.groups = null;
      this.groups = await this.together(made.sources, texture);
    }
    await this.begin(made.camera, { width, height, region });
    return this.groups;
  }

  private async together(sources: Parameters<RenderService['textures']>[0], texture: number): Promise<readonly LightGroup[]> {
    const [first, ...rest] = this.remotes;
    const drawers = rest.length ? rest : [first];
    const [, ...drawn] = await Promise.all([
      first.lay(),
      ...drawers.map((drawer, i) =>
        drawer.textures(
          sources.map((s, k) => (k % drawers.length === i ? s : null)),
          texture,
        ),
      ),
    ]);
    const textures = sources.map((_, k) => drawn[k % drawers.length][k]);
    const buffers = new Set(textures.flatMap((t) => (t ? [t.colour.buffer, t.relief?.buffer, t.rough?.buffer] : [])).filter((b) => b !== undefined));
    const scene = await first.finish(transfer(textures, [...buffers] as ArrayBuffer[]));
    await Promise.all(rest.map((remote) => remote.take(scene)));
    return scene.groups;
  }

  private async begin(camera: Camera, { width, height, region }: Pick<Job, 'width' | 'height' | 'region'>): Promise<void> {
    const key = JSON.stringify([width, height, region]);
    const again = this.begun === key;
    this.begun = key;
    await Promise.all(
      this.remotes.map((remote) =>
        again ? remote.aim(camera, width, height) : remote.begin({ width, height, seed: 1, ...(region ? { region } : {}) }, camera),
      ),
    );
  }

  /** Hands that trace the picture that was made ready last. */
  hands(job: Job): TraceHand[] {
    const ready = this.prepare(job);
    return this.remotes.map((remote) => ({ prepare: () => ready, pass: (number) => remote.pass(number), exposed: () => remote.exposed() }));
  }

  close(): void {
    for (const remote of this.remotes) remote[releaseProxy]();
    for (const worker of this.workers) worker.terminate();
  }
}

/** Those who trace in this window: made when they are first needed, and let go when nothing has been asked of them for a while. */
let tracers: Tracers | null = null;
/** Who has them open now. */
const users = new Set<Workshop>();
let idle: ReturnType<typeof setTimeout> | null = null;
/** How long they wait to be asked again, ms: their scenes are large. */
const PATIENCE = 60_000;

export interface Workshop extends LargeWorkshop {
  /** Takes the grain out of the picture as it was asked for. */
  cleaner: Cleaner;
  /** Packs rows of a picture for print. @param from first row */
  pack(from: number, rows: Pick<RawRows, 'radiance' | 'cover'>): Promise<ExrBlocks>;
  /** Ends the work on it. @param finished whether those who trace are done with it; else they are broken off */
  close(finished: boolean): void;
}

/** Lets those who trace begin with a scene of which a picture will be asked for soon. */
export function prepareAhead(sight: Pick<Job, 'project' | 'shot'> & { width: number }): void {
  if (users.size) return;
  const own = (tracers ??= new Tracers());
  own.ahead(sight, textureFor(sight.width));
  restLater(own);
}

function restLater(own: Tracers): void {
  if (idle) clearTimeout(idle);
  idle = setTimeout(() => closeTracers(own), PATIENCE);
}

/** Workers who trace and clean one picture. One picture is traced at a time. */
export function openWorkshop(job: Job): Workshop {
  if (idle) clearTimeout(idle);
  idle = null;
  const own = (tracers ??= new Tracers());
  // Its memory never shrinks: it is ended with the picture.
  const cleaning = new Worker(new URL('../../../workers/clean.worker.ts', import.meta.url), { type: 'module' });
  const cleaner = wrap<CleanService>(cleaning);
  const clean: Workshop['clean'] = (radiance, guides, size, scale) =>
    cleaner.clean(radiance, guides, size.width, size.height, job.shot.round && !job.region, scale);
  const made: Workshop = {
    hands: (size, region) => own.hands({ ...job, ...size, region: region ?? undefined, detail: job.width }),
    clean,
    cleaner: { clean: (radiance, guides) => clean(radiance, guides, job.region ?? job) },
    pack: (from, { radiance, cover }) => cleaner.pack(job.width, job.height, from, radiance, cover),
    close(finished) {
      cleaning.terminate();
      users.delete(made);
      // Who has taken them over meanwhile goes on with them.
      if (users.size || tracers !== own) return;
      if (finished) restLater(own);
      else closeTracers(own);
    },
  };
  users.add(made);
  return made;
}

function closeTracers(own: Tracers): void {
  own.close();
  if (tracers === own) tracers = null;
}
