import { Network } from './network';
import { decode, encode, exposure } from './transfer';
import type { Weights } from './weights';

/** How far a pixel of the network’s result looks, rounded up to what the network halves: strips that overlap by this are whole. */
export const OVERLAP = 96;

/** Pixels of one strip, so that memory stays the same however large a picture is. */
const STRIP = 500_000;

const up16 = (n: number): number => (n + 15) & ~15;

/**
 * Takes the grain out of a traced picture by the published network of Open Image Denoise, in strips of rows.
 *
 * @param radiance mean radiance, three values a pixel, linear
 * @param guides colour and normal of the first surface that scatters, six values a pixel
 * @param strip most pixels that are in work at once
 * @param done told the share that is done
 * @returns radiance, three values a pixel
 */
export function denoise(
  weights: Weights,
  radiance: Float32Array,
  guides: Float32Array,
  width: number,
  height: number,
  { strip = STRIP, done }: { strip?: number; done?: (share: number) => void } = {},
): Float32Array<ArrayBuffer> {
  const wide = up16(width);
  const whole = up16(height);
  // A strip holds what it is for and the overlap on both sides.
  const high = Math.min(whole, Math.max(3 * OVERLAP, Math.floor(strip / wide / 16) * 16));
  const network = new Network(weights, wide, high);
  const scale = exposure(radiance, width, height);
  const out = new Float32Array(width * height * 3);
  const input = new Float32Array(wide * high * network.channels);
  let finished = 0;
  while (finished < height) {
    // Strips begin at a multiple of 16, where the network’s halvings begin; the last one is moved up to end with the picture.
    const start = Math.min(whole - high, Math.max(0, finished - OVERLAP));
    const end = start + high >= whole ? height : start + high - OVERLAP;
    input.fill(0);
    for (let y = 0; y < Math.min(high, height - start); y++)
      for (let x = 0; x < width; x++) {
        const p = (start + y) * width + x;
        const k = (y * wide + x) * network.channels;
        for (let c = 0; c < 3; c++) {
          input[k + c] = encode(radiance[p * 3 + c] * scale);
          input[k + 3 + c] = Math.min(1, Math.max(0, guides[p * 6 + c]));
          input[k + 6 + c] = Math.min(1, Math.max(-1, guides[p * 6 + 3 + c])) * 0.5 + 0.5;
        }
      }
    const clean = network.run(input);
    for (let y = finished; y < end; y++)
      for (let x = 0; x < width; x++) for (let c = 0; c < 3; c++) out[(y * width + x) * 3 + c] = decode(clean[((y - start) * wide + x) * 3 + c]) / scale;
    finished = end;
    done?.(finished / height);
  }
  return out;
}
