import { expose, transfer } from 'comlink';
import { packPrint } from '@/core/formats/light-file';
import type { ExrBlocks } from '@/core/formats/exr/exr';
import { cleanPicture } from '@/core/render/denoiser/picture';

/** Takes the grain out of pictures. Its memory never shrinks: it is ended with the picture. */
const service = {
  clean(radiance: Float32Array, guides: Float32Array, width: number, height: number, round: boolean, scale?: number): Float32Array {
    const out = cleanPicture(radiance, guides, width, height, round, scale);
    return transfer(out, [out.buffer]);
  },
  /** Packs rows of a picture for print. */
  pack(width: number, height: number, from: number, radiance: Float32Array, cover: Float32Array): ExrBlocks {
    const out = packPrint({ width, height }, from, radiance, cover);
    return transfer(out, [out.bytes.buffer]);
  },
};

export type CleanService = typeof service;

expose(service);
