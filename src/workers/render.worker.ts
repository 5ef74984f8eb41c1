import { expose, transfer } from 'comlink';
import { z } from 'zod';
import { readAsset } from './assets';
import { deriveModel } from '@/core/model/derive';
import { fetchImages } from '@/core/finishes/store';
import { validateProject } from '@/core/project/commands';
import { Point3 } from '@/core/project/schema';
import { denoise } from '@/core/render/denoise';
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
let size = { width: 0, height: 0 };

/** Traces one picture, a pass at a time; the page asks for the next pass and adds it to what it has. */
const service = {
  async prepare(value: unknown, job: RenderJob): Promise<{ triangles: number }> {
    const { camera, width, height, seed, texture } = Job.parse(job);
    const project = validateProject(value);
    await fetchImages(Object.values(project.finishes), readAsset);
    const scene = pictureScene(deriveModel(project), texture);
    tracer = new Tracer(scene, { width, height, camera, seed, clamp: FIREFLY });
    size = { width, height };
    return { triangles: scene.material.length };
  },
  pass(): { sum: Float32Array; guides: Float32Array } {
    const sum = new Float32Array(size.width * size.height * 3);
    const guides = new Float32Array(size.width * size.height * 6);
    tracer!.pass(sum, guides);
    return transfer({ sum, guides }, [sum.buffer, guides.buffer]);
  },
  filter(radiance: Float32Array, guides: Float32Array, variance: Float32Array, width: number, height: number): Float32Array {
    const out = denoise(radiance, guides, variance, width, height);
    return transfer(out, [out.buffer]);
  },
};

export type RenderService = typeof service;

expose(service);
