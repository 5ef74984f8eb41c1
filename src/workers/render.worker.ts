import { expose, transfer } from 'comlink';
import { z } from 'zod';
import { readAsset } from './assets';
import { drawnTexture } from './drawn-textures';
import { deriveModel } from '@/core/model/derive';
import type { Texture } from '@/core/finishes/finish';
import { fetchImages } from '@/core/finishes/store';
import { validateProject } from '@/core/project/commands';
import { Shot } from '@/core/project/schema';
import type { Camera } from '@/core/render/camera';
import type { Exposed } from '@/core/render/film';
import { FIREFLY, untextured } from '@/core/render/picture';
import { prepareScene, prepareShape, type PreparedScene, type PreparedShape } from '@/core/render/prepared';
import { texture, type Scene } from '@/core/render/scene';
import { cameraOf } from '@/core/render/shot';
import { Tracer } from '@/core/render/tracer';

const Side = z.number().int().min(1).max(16384);
const Job = z.object({
  width: Side,
  height: Side,
  seed: z.number().int(),
  region: z.object({ x: z.number().int().min(0), y: z.number().int().min(0), width: Side, height: Side }).optional(),
});
export type RenderJob = z.infer<typeof Job>;

/** A scene made ready, with the camera it is seen by. */
export interface ReadyScene {
  scene: PreparedScene;
  camera: Camera;
}

let ready: ReadyScene | null = null;
let shaped: { scene: Scene; shape: PreparedShape; camera: Camera } | null = null;
let tracer: Tracer | null = null;

/** Traces one picture, a pass at a time, and keeps what its passes sum up to. */
const service = {
  /** Works out the shape of a scene: all of it but the textures of its finishes. */
  async shape(value: unknown, shot: Shot): Promise<void> {
    const project = validateProject(value);
    const model = deriveModel(project);
    const taken = Shot.parse(shot);
    const scene = untextured(model, taken.looking);
    shaped = { scene, shape: prepareShape(scene), camera: cameraOf(model, taken) };
  },
  /**
   * Draws some of the textures of a scene: of every `of` finishes the one numbered `own`.
   *
   * @param pixels longest side
   */
  async textures(value: unknown, shot: Shot, pixels: number, own: number, of: number): Promise<(Texture | null)[]> {
    const project = validateProject(value);
    await fetchImages(Object.values(project.finishes), readAsset);
    const side = z.number().int().min(64).max(2048).parse(pixels);
    const { sources } = untextured(deriveModel(project), Shot.parse(shot).looking);
    const drawn: (Texture | null)[] = [];
    for (const [i, finish] of sources.entries()) drawn.push(finish && i % of === own ? await drawnTexture(finish, side) : null);
    const buffers = new Set(drawn.flatMap((t) => (t ? [t.colour.buffer, t.relief?.buffer, t.rough?.buffer] : [])).filter((b) => b !== undefined));
    return transfer(drawn, [...buffers] as ArrayBuffer[]);
  },
  /** Puts shape and textures together, for itself and for all who trace with it. @param drawn by everyone who drew some */
  finish(drawn: (Texture | null)[][]): ReadyScene {
    const { scene, shape, camera } = shaped!;
    shaped = null;
    const byFinish = new Map(scene.sources.map((finish, i) => [finish, drawn[i % drawn.length][i]]));
    texture(scene, (finish) => byFinish.get(finish) ?? null);
    return (ready = { scene: prepareScene(scene, shape), camera });
  },
  /** Takes over a scene that another has made ready. */
  take(prepared: ReadyScene): void {
    ready = prepared;
  },
  begin(job: RenderJob): void {
    tracer = new Tracer(ready!.scene, { ...Job.parse(job), camera: ready!.camera, clamp: FIREFLY });
    // The tracer has its own copy.
    ready = null;
  },
  pass(number: number): void {
    tracer!.pass(number);
  },
  exposed(): Exposed {
    const own = tracer!.exposed();
    return transfer(own, [own.counts.buffer, own.light.buffer, own.squares.buffer, own.guides.buffer] as ArrayBuffer[]);
  },
};

export type RenderService = typeof service;

expose(service);
