import { expose, transfer } from 'comlink';
import { z } from 'zod';
import { readAsset, readBeyond } from './assets';
import { drawnTexture } from './drawn-textures';
import { deriveModel } from '@/core/model/derive';
import type { Texture } from '@/core/finishes/finish';
import { fetchImages } from '@/core/finishes/store';
import { fetchSurroundings } from '@/core/light/surroundings';
import type { Model } from '@/core/model/model';
import { validateProject } from '@/core/project/commands';
import { Finish, Shot, type Shot as ShotGiven } from '@/core/project/schema';
import type { Camera } from '@/core/render/camera';
import type { Exposed } from '@/core/render/film';
import { FIREFLY, untextured } from '@/core/render/picture';
import { prepareScene, prepareShape, type PreparedScene, type PreparedShape } from '@/core/render/prepared';
import { texture } from '@/core/render/compile';
import { type Scene } from '@/core/render/scene';
import { cameraOf, presenceKey } from '@/core/render/shot';
import { Tracer } from '@/core/render/tracer';

const Side = z.number().int().min(1).max(16384);
const Job = z.object({
  width: Side,
  height: Side,
  seed: z.number().int(),
  region: z.object({ x: z.number().int().min(0), y: z.number().int().min(0), width: Side, height: Side }).optional(),
});
export type RenderJob = z.infer<typeof Job>;

/** What a scene needs besides its shape. */
export interface Compiled {
  /** Whether it is the scene that is ready already. */
  same: boolean;
  camera: Camera;
  /** The finishes whose textures it wants, null for plain ones. */
  sources: (Finish | null)[];
}

/** The model that was derived last, by what its project is called by. */
let derived: { token: string; model: Model } | null = null;
let compiled: { scene: Scene; shape: PreparedShape | null; key: string } | null = null;
let ready: { scene: PreparedScene; key: string } | null = null;
let tracer: Tracer | null = null;

/** Traces pictures of a scene, a pass at a time, and keeps what the passes sum up to. */
const service = {
  /**
   * Puts a scene together, but for its textures and its hierarchy.
   *
   * @param token what the project is called by; the same project is not sent twice
   * @param value null where it was sent before
   * @returns null where the project has to be sent again
   */
  async compile(token: string, value: unknown, shot: ShotGiven): Promise<Compiled | null> {
    if (derived?.token !== token) {
      if (value === null) return null;
      derived = { token, model: deriveModel(validateProject(value)) };
    }
    const { model } = derived;
    const taken = Shot.parse(shot);
    const camera = cameraOf(model, taken);
    const key = `${token} ${taken.looking.look.mode === 'white'} ${presenceKey(model, taken.looking)}`;
    if (ready?.key === key) return { same: true, camera, sources: [] };
    await fetchSurroundings(model.project.site, readBeyond);
    const scene = untextured(model, taken.looking);
    compiled = { scene, shape: null, key };
    return { same: false, camera, sources: scene.sources };
  },
  /** Works out the hierarchy of the scene that was put together. */
  lay(): void {
    compiled!.shape = prepareShape(compiled!.scene);
  },
  /** Draws textures. @param pixels longest side */
  async textures(finishes: unknown[], pixels: number): Promise<(Texture | null)[]> {
    const own = finishes.map((f) => (f === null ? null : Finish.parse(f)));
    const side = z.number().int().min(64).max(2048).parse(pixels);
    await fetchImages(
      own.filter((f) => f !== null),
      readAsset,
    );
    const drawn: (Texture | null)[] = [];
    for (const finish of own) drawn.push(finish && (await drawnTexture(finish, side)));
    const buffers = new Set(drawn.flatMap((t) => (t ? [t.colour.buffer, t.relief?.buffer, t.rough?.buffer] : [])).filter((b) => b !== undefined));
    return transfer(drawn, [...buffers] as ArrayBuffer[]);
  },
  /** Puts shape and textures together, for itself and for all who trace with it. @param drawn one for each of the sources */
  finish(drawn: (Texture | null)[]): PreparedScene {
    const { scene, shape, key } = compiled!;
    compiled = null;
    const byFinish = new Map(scene.sources.map((finish, i) => [finish, drawn[i]]));
    texture(scene, (finish) => byFinish.get(finish) ?? null);
    ready = { scene: prepareScene(scene, shape!), key };
    return ready.scene;
  },
  /** Takes over a scene that another has made ready. */
  take(scene: PreparedScene): void {
    ready = { scene, key: '' };
  },
  begin(job: RenderJob, camera: Camera): void {
    tracer = new Tracer(ready!.scene, { ...Job.parse(job), camera, clamp: FIREFLY });
  },
  /** Looks from elsewhere, in a picture of the same size. */
  aim(camera: Camera, width: number, height: number): void {
    tracer!.aim(camera, width, height);
  },
  pass(number: number): void {
    tracer!.pass(number);
  },
  exposed(): Exposed {
    const own = tracer!.exposed();
    return transfer(own, [
      own.counts.buffer,
      own.light.buffer,
      own.squares.buffer,
      own.guides.buffer,
      ...(own.objects ? [own.objects.buffer] : []),
    ] as ArrayBuffer[]);
  },
};

export type RenderService = typeof service;

expose(service);
