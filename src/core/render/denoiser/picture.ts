import { fromBase64 } from '../../units/base64';
import { denoise, OVERLAP, type Cleaning } from './denoiser';
import { WEIGHTS } from './weights.generated';
import { readWeights, type Weights } from './weights';

let weights: Weights | null = null;

/** The weights that ship: for light of high range, with colours and normals that have no grain of their own. */
export const shippedWeights = (): Weights => (weights ??= readWeights(fromBase64(WEIGHTS)));

/** Rows with so many columns of the other end put before and behind them. @param per values a pixel */
function wrapped(values: Float32Array, width: number, height: number, per: number, by: number): Float32Array<ArrayBuffer> {
  const wide = width + 2 * by;
  const out = new Float32Array(wide * height * per);
  for (let y = 0; y < height; y++) {
    const row = values.subarray(y * width * per, (y + 1) * width * per);
    const at = y * wide * per;
    out.set(row.subarray((width - by) * per), at);
    out.set(row, at + by * per);
    out.set(row.subarray(0, by * per), at + (by + width) * per);
  }
  return out;
}

/**
 * A picture without its grain, by the weights that ship.
 *
 * @param radiance three values a pixel @param guides six values a pixel, as `Film` has them
 * @param round all round: its last column meets the first, and no seam shows there
 */
export async function cleanPicture(
  radiance: Float32Array,
  guides: Float32Array,
  width: number,
  height: number,
  { round = false, ...as }: { round?: boolean } & Cleaning = {},
): Promise<Float32Array<ArrayBuffer>> {
  if (!round) return denoise(shippedWeights(), radiance, guides, width, height, as);
  const by = Math.min(OVERLAP, width);
  const wide = width + 2 * by;
  const cleaned = await denoise(shippedWeights(), wrapped(radiance, width, height, 3, by), wrapped(guides, width, height, 6, by), wide, height, as);
  const out = new Float32Array(width * height * 3);
  for (let y = 0; y < height; y++) out.set(cleaned.subarray((y * wide + by) * 3, (y * wide + by + width) * 3), y * width * 3);
  return out;
}
