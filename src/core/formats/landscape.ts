import type { ImagePixels } from '../finishes/finish';
import { fromDisplay, lightPixels, type LightPixels } from '../light/rgbe';
import { WIDEST } from '../light/surroundings';
import { isExr } from './exr/exr';
import { readHdr } from './hdr/hdr';
import { readLight } from './light-file';

const isHdr = (bytes: Uint8Array): boolean => bytes[0] === 0x23 && bytes[1] === 0x3f;

/**
 * A picture of surroundings, no wider than is worked with: light itself, or what a display shows, whose white is 1.
 *
 * @param decode reads a PNG or JPEG
 * @throws DomainError of the readers
 */
export async function readLandscape(bytes: Uint8Array, decode: (bytes: Uint8Array) => Promise<ImagePixels>): Promise<LightPixels> {
  if (!isHdr(bytes) && !isExr(bytes)) return fromDisplay(await decode(bytes), WIDEST);
  const { radiance, width, height } = isExr(bytes) ? readLight(bytes) : readHdr(bytes);
  return lightPixels(radiance, width, height, WIDEST);
}
