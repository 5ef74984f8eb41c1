import { expose, transfer } from 'comlink';
import { packPrint } from '@/core/formats/light-file';
import type { ExrBlocks } from '@/core/formats/exr/exr';
import { cleanPicture, shippedWeights } from '@/core/render/denoiser/picture';
import { graphicsRunner } from './graphics-network';

/** The graphics card where the browser has one: sought once. */
let graphics: ReturnType<typeof graphicsRunner> | null = null;

/** Takes the grain out of pictures. Its memory never shrinks: it is ended with the picture. */
const service = {
  async clean(radiance: Float32Array, guides: Float32Array, width: number, height: number, round: boolean, scale?: number): Promise<Float32Array> {
    const make = await (graphics ??= graphicsRunner(shippedWeights()));
    const as = { round, scale };
    const processor = () => cleanPicture(radiance, guides, width, height, as);
    const out = await (make
      ? cleanPicture(radiance, guides, width, height, { ...as, make }).catch(() => {
          // A card that was taken away or has too little room: the processor is the sure way, for the rest of the picture too.
          graphics = Promise.resolve(null);
          return processor();
        })
      : processor());
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
