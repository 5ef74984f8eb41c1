import { decode, encode } from 'fast-png';
import { DomainError } from '../project/errors';

/** PNG of RGBA pixels, 8 bits. */
export const writePng = (pixels: Uint8Array | Uint8ClampedArray, width: number, height: number): Uint8Array<ArrayBuffer> =>
  new Uint8Array(
    encode({
      data: pixels instanceof Uint8Array ? pixels : new Uint8Array(pixels.buffer, pixels.byteOffset, pixels.length),
      width,
      height,
      channels: 4,
      depth: 8,
    }),
  );

/**
 * Pixels of a PNG.
 *
 * @throws DomainError `png.broken`
 */
export function readPng(bytes: Uint8Array): { width: number; height: number; channels: number; data: Uint8Array | Uint8ClampedArray | Uint16Array } {
  try {
    const { width, height, channels, data } = decode(bytes);
    return { width, height, channels, data };
  } catch {
    throw new DomainError('png.broken', 'The file is not a readable PNG picture.');
  }
}

/**
 * Pixels of a PNG as RGBA, 8 bits.
 *
 * @throws DomainError `png.broken`
 */
export function readPixels(bytes: Uint8Array): { width: number; height: number; data: Uint8Array } {
  const { width, height, channels, data } = readPng(bytes);
  const out = new Uint8Array(width * height * 4);
  const eight = data instanceof Uint16Array ? (v: number): number => v >> 8 : (v: number): number => v;
  for (let k = 0; k < width * height; k++) {
    const at = k * channels;
    for (let c = 0; c < 3; c++) out[k * 4 + c] = eight(data[at + (channels < 3 ? 0 : c)]);
    out[k * 4 + 3] = channels === 2 ? eight(data[at + 1]) : channels === 4 ? eight(data[at + 3]) : 255;
  }
  return { width, height, data: out };
}
