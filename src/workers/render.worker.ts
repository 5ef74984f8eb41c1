import { expose, transfer } from 'comlink';
import { z } from 'zod';
import { readAsset } from './assets';
import { deriveModel } from '@/core/model/derive';
import { fetchImages } from '@/core/finishes/store';
import { validateProject } from '@/core/project/commands';
import { Look, Point3 } from '@/core/project/schema';
import type { Camera } from '@/core/render/camera';
import type { Exposed } from '@/core/render/film';
import { FIREFLY, pictureScene } from '@/core/render/picture';
import { prepareScene, type PreparedScene } from '@/core/render/prepared';
import { cameraOf, type Shot } from '@/core/render/shot';
import { Tracer } from '@/core/render/tracer';

const Taken = z.object({
  looking: z.object({ look: Look, eye: Point3, level: z.string().nullable(), room: z.string().nullable(), afoot: z.boolean() }),
  camera: z.object({
    eye: Point3,
    target: Point3,
    fov: z.number().min(0.02).max(2.6),
    aperture: z.number().positive().nullable().optional(),
    focus: z.number().positive().nullable().optional(),
  }),
});
const Side = z.number().int().min(1).max(16384);
const Job = z.object({
  width: Side,
  height: Side,
  seed: z.number().int(),
  share: z.object({ own: z.number().int().min(0), of: z.number().int().min(1) }),
});
export type RenderJob = z.infer<typeof Job>;

/** A scene made ready, with the camera it is seen by. */
export interface ReadyScene {
  scene: PreparedScene;
  camera: Camera;
}

let ready: ReadyScene | null = null;
let tracer: Tracer | null = null;

/** Traces one picture, a pass at a time, and keeps what its passes sum up to. */
const service = {
  /** Makes the scene of a project ready, for itself and for all who trace with it. @param texture longest side of textures, pixels */
  async compile(value: unknown, shot: Shot, texture: number): Promise<ReadyScene> {
    const project = validateProject(value);
    await fetchImages(Object.values(project.finishes), readAsset);
    const model = deriveModel(project);
    const taken = Taken.parse(shot);
    const pixels = z.number().int().min(64).max(2048).parse(texture);
    return (ready = { scene: prepareScene(pictureScene(model, pixels, taken.looking)), camera: cameraOf(model, taken) });
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
  pass(): void {
    tracer!.pass();
  },
  exposed(): Exposed {
    const own = tracer!.exposed();
    return transfer(own, [own.counts.buffer, own.light.buffer, own.squares.buffer, own.guides.buffer] as ArrayBuffer[]);
  },
};

export type RenderService = typeof service;

expose(service);
