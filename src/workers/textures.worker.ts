import { expose, transfer } from 'comlink';
import { makeSample } from '@/core/boards/sample';
import { finishById } from '@/core/finishes/library';
import { normalMap } from '@/core/finishes/texture';
import { SampleForm } from '@/core/project/schema';
import { textureOf } from '@/core/render/picture';
import { z } from 'zod';

const Pixels = z.number().int().min(8).max(2048);

/** Pixels of finishes and samples, made off the page's own thread. */
const service = {
  texture(finish: string, pixels: number) {
    const own = finishById(z.string().max(80).parse(finish));
    const texture = textureOf(own, Pixels.parse(pixels));
    const colour = texture.colour.slice();
    const normals = normalMap(texture, own.size);
    return transfer({ width: texture.width, height: texture.height, colour, normals }, [colour.buffer, ...(normals ? [normals.buffer] : [])]);
  },
  sample(finish: string, form: SampleForm, width: number, height: number) {
    const { pixels } = makeSample(finishById(z.string().max(80).parse(finish)), SampleForm.parse(form), Pixels.parse(width), Pixels.parse(height));
    return transfer({ pixels, width, height }, [pixels.buffer]);
  },
};

export type TextureService = typeof service;

expose(service);
