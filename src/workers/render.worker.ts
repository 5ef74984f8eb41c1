import { expose, transfer } from 'comlink';
import { z } from 'zod';
import { readAsset } from './assets';
import { deriveModel } from '@/core/model/derive';
import { fetchImages } from '@/core/finishes/store';
import { validateProject } from '@/core/project/commands';
import { Point3 } from '@/core/project/schema';
import type { Exposed } from '@/core/render/film';
import { FIREFLY, pictureScene } from '@/core/render/picture';
import { prepareScene, type PreparedScene } from '@/core/render/prepared';
import { Tracer } from '@/core/render/tracer';

const Camera = z.object({
  eye: Point3,
  target: Point3,
  fov: z.number().min(0.02).max(2.6),
  projection: z.enum(['perspective', 'parallel', 'sphere']).optional(),
  height: z.number().positive().max(1000).optional(),
  upright: z.boolean().optional(),
  lens: z.object({ radius: z.number().min(0).max(1), focus: z.number().positive() }).optional(),
  cuts: z
    .array(z.object({ normal: Point3, offset: z.number() }))
    .max(6)
    .optional(),
  indoors: z.boolean().optional(),
});
const Side = z.number().int().min(1).max(16384);
const Job = z.object({
  camera: Camera,
  width: Side,
  height: Side,
  region: z.object({ x: z.number().int().min(0), y: z.number().int().min(0), width: Side, height: Side }).optional(),
  seed: z.number().int(),
  share: z.object({ own: z.number().int().min(0), of: z.number().int().min(1) }),
});
export type RenderJob = z.infer<typeof Job>;

let scene: PreparedScene | null = null;
let tracer: Tracer | null = null;

/** Traces one picture, a pass at a time, and keeps what its passes sum up to. */
const service = {
  /** Makes the scene of a project ready, for itself and for all who trace with it. @param texture longest side of textures, pixels */
  async compile(value: unknown, texture: number): Promise<PreparedScene> {
    const project = validateProject(value);
    await fetchImages(Object.values(project.finishes), readAsset);
    return (scene = prepareScene(pictureScene(deriveModel(project), z.number().int().min(64).max(2048).parse(texture))));
  },
  /** Takes over a scene that another has made ready. */
  take(prepared: PreparedScene): void {
    scene = prepared;
  },
  begin(job: RenderJob): void {
    tracer = new Tracer(scene!, { ...Job.parse(job), clamp: FIREFLY });
    // The tracer has its own copy.
    scene = null;
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
