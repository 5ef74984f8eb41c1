import { fromBase64 } from '../../units/base64';
import { denoise } from './denoiser';
import { WEIGHTS } from './weights.generated';
import { readWeights, type Weights } from './weights';

let weights: Weights | null = null;

/** The weights that ship: for light of high range, with colours and normals that have no grain of their own. */
export const shippedWeights = (): Weights => (weights ??= readWeights(fromBase64(WEIGHTS)));

/** A picture without its grain, by the weights that ship. */
export const cleanPicture = (radiance: Float32Array, guides: Float32Array, width: number, height: number): Float32Array<ArrayBuffer> =>
  denoise(shippedWeights(), radiance, guides, width, height);
