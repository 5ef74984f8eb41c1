import { Network } from './network';
import { decode, encode, exposure } from './transfer';
import type { Weights } from './weights';

/** How far a pixel of the network’s result looks, rounded up to what the network halves: tiles that overlap by this are whole. */
export const OVERLAP = 96;

/** Pixels of one tile, so that memory stays the same however large a picture is. */
const TILE = 500_000;

const up16 = (n: number): number => (n + 15) & ~15;

/** A stretch of a row or column that is in work at once, and what of it is taken over. */
interface Stretch {
  start: number;
  from: number;
  to: number;
}

/** Stretches of one length that overlap. They begin at multiples of 16, where the network’s halvings begin; the last is moved up to end with the picture. */
function stretches(whole: number, length: number): Stretch[] {
  const padded = up16(whole);
  const out: Stretch[] = [];
  for (let from = 0; from < whole;) {
    const start = Math.min(padded - length, Math.max(0, from - OVERLAP));
    const to = start + length >= padded ? whole : start + length - OVERLAP;
    out.push({ start, from, to });
    from = to;
  }
  return out;
}

/** The network for pictures of one size, by whoever works it out. */
export interface Runner {
  /** Channels of the input. */
  readonly channels: number;
  /** @param input all channels of a pixel together, row by row @returns three values a pixel */
  run(input: Float32Array): Float32Array | Promise<Float32Array>;
}

/** Makes the network for pictures of one size, whose sides are multiples of 16. */
export type MakeRunner = (weights: Weights, width: number, height: number) => Runner;

/** How a picture is cleaned. */
export interface Cleaning {
  /** What radiance is multiplied by before the network sees it; metered unless told, as it must be for a part of a picture. */
  scale?: number;
  /** Most pixels that are in work at once. */
  tile?: number;
  /** Who works the network out; the processor unless told. */
  make?: MakeRunner;
}

const onProcessor: MakeRunner = (weights, width, height) => new Network(weights, width, height);

/**
 * Takes the grain out of a traced picture by the published network of Open Image Denoise, in tiles that overlap: to the last bit as if it were done at once.
 *
 * @param radiance mean radiance, three values a pixel, linear
 * @param guides colour and normal of the first surface that scatters, six values a pixel
 * @returns radiance, three values a pixel
 */
export async function denoise(
  weights: Weights,
  radiance: Float32Array,
  guides: Float32Array,
  width: number,
  height: number,
  { tile = TILE, scale = exposure(radiance, width, height), make = onProcessor }: Cleaning = {},
): Promise<Float32Array<ArrayBuffer>> {
  const side = (whole: number, room: number): number => Math.min(up16(whole), Math.max(3 * OVERLAP, Math.floor(room / 16) * 16));
  // As wide as the picture if it can be: strips overlap least.
  const wide = side(width, tile / Math.min(up16(height), 3 * OVERLAP));
  const high = side(height, tile / wide);
  const network = make(weights, wide, high);
  const n = network.channels;
  const out = new Float32Array(width * height * 3);
  const input = new Float32Array(wide * high * n);
  for (const down of stretches(height, high))
    for (const across of stretches(width, wide)) {
      input.fill(0);
      for (let y = 0; y < Math.min(high, height - down.start); y++)
        for (let x = 0; x < Math.min(wide, width - across.start); x++) {
          const p = (down.start + y) * width + across.start + x;
          const k = (y * wide + x) * n;
          for (let c = 0; c < 3; c++) {
            input[k + c] = encode(radiance[p * 3 + c] * scale);
            input[k + 3 + c] = Math.min(1, Math.max(0, guides[p * 6 + c]));
            input[k + 6 + c] = Math.min(1, Math.max(-1, guides[p * 6 + 3 + c])) * 0.5 + 0.5;
          }
        }
      const clean = await network.run(input);
      for (let y = down.from; y < down.to; y++)
        for (let x = across.from; x < across.to; x++)
          for (let c = 0; c < 3; c++) out[(y * width + x) * 3 + c] = decode(clean[((y - down.start) * wide + x - across.start) * 3 + c]) / scale;
    }
  return out;
}
