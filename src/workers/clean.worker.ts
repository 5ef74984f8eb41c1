import { expose, transfer } from 'comlink';
import { cleanPicture } from '@/core/render/denoiser/picture';

/** Takes the grain out of pictures. Its memory never shrinks: it is ended with the picture. */
const service = {
  clean(radiance: Float32Array, guides: Float32Array, width: number, height: number, round: boolean): Float32Array {
    const out = cleanPicture(radiance, guides, width, height, round);
    return transfer(out, [out.buffer]);
  },
};

export type CleanService = typeof service;

expose(service);
