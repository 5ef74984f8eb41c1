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
