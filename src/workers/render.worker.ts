import { expose, transfer } from 'comlink';
import { z } from 'zod';
import { readAsset } from './assets';
import { deriveModel } from '@/core/model/derive';
import { fetchImages } from '@/core/finishes/store';
import { validateProject } from '@/core/project/commands';
import { Point3 } from '@/core/project/schema';
import { Accumulator, type Sums } from '@/core/render/accumulator';
import { FIREFLY, pictureScene } from '@/core/render/picture';
import { Tracer } from '@/core/render/tracer';

const Job = z.object({
  camera: z.object({ eye: Point3, target: Point3, fov: z.number().min(0.05).max(2.6) }),
  width: z.number().int().min(16).max(4096),
  height: z.number().int().min(16).max(4096),
  seed: z.number().int(),
  texture: z.number().int().min(64).max(2048),
});
export type RenderJob = z.infer<typeof Job>;

let tracer: Tracer | null = null;
let picture = new Accumulator(1, 1);
let [sum, guides] = [new Float32Array(0), new Float32Array(0)];

/** Traces one picture, a pass at a time, and keeps what its passes sum up to. */
const service = {
  async prepare(value: unknown, job: RenderJob): Promise<{ triangles: number }> {
    const { camera, width, height, seed, texture } = Job.parse(job);
    const project = validateProject(value);
    await fetchImages(Object.values(project.finishes), readAsset);
    const scene = pictureScene(deriveModel(project), texture);
    tracer = new Tracer(scene, { width, height, camera, seed, clamp: FIREFLY });
    picture = new Accumulator(width, height);
    [sum, guides] = [new Float32Array(width * height * 3), new Float32Array(width * height * 6)];
    return { triangles: scene.material.length };
  },
  pass(): void {
    sum.fill(0);
    guides.fill(0);
    tracer!.pass(sum, guides);
    picture.add(sum, guides);
  },
  sums(): Sums {
    const own = picture.sums();
    return transfer(own, [own.sum.buffer, own.guides.buffer, own.squares.buffer]);
  },
};

export type RenderService = typeof service;

expose(service);
