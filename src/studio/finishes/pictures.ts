import { meanOfImage, repeated, straightened, type Quad } from '@/core/finishes/picture';
import { writePng } from '@/core/formats/png';
import { DomainError } from '@/core/project/errors';

export type Corners = [{ x: number; y: number }, { x: number; y: number }, { x: number; y: number }, { x: number; y: number }];

/** The most a picture may weigh, and the longest side it is worked with. */
const MOST_BYTES = 30 * 1024 * 1024;
const MOST_PIXELS = 1600;

export interface Pixels {
  width: number;
  height: number;
  data: Uint8Array | Uint8ClampedArray;
}

/**
 * A picture somebody has chosen, decoded by the browser.
 *
 * @throws DomainError in one sentence: not a picture, too large, broken
 */
export async function readPicture(file: File): Promise<Pixels> {
  if (!/^image\/(png|jpeg|webp)$/.test(file.type))
    throw new DomainError('picture.kind', `“${file.name}” was not taken: it is not a PNG, JPEG or WebP picture.`);
  if (file.size > MOST_BYTES) throw new DomainError('picture.large', `“${file.name}” was not taken: it is larger than 30 MB; save a smaller copy of it.`);
  let bitmap: ImageBitmap;
  try {
    bitmap = await createImageBitmap(file);
  } catch {
    throw new DomainError('picture.broken', `“${file.name}” was not taken: the picture is damaged.`);
  }
  const k = Math.min(1, MOST_PIXELS / Math.max(bitmap.width, bitmap.height));
  const [width, height] = [Math.max(1, Math.round(bitmap.width * k)), Math.max(1, Math.round(bitmap.height * k))];
  const canvas = new OffscreenCanvas(width, height);
  const context = canvas.getContext('2d')!;
  context.drawImage(bitmap, 0, 0, width, height);
  bitmap.close();
  return { width, height, data: context.getImageData(0, 0, width, height).data };
}

interface Made extends Pixels {
  png(): Uint8Array<ArrayBuffer>;
  mean(): string;
}

const made = (pixels: Pixels): Made => ({ ...pixels, png: () => writePng(pixels.data, pixels.width, pixels.height), mean: () => meanOfImage(pixels) });

export const straighten = (picture: Pixels, corners: Corners, most: number): Made => made(straightened(picture, corners as Quad, most));
export const seamless = (picture: Pixels): Made => made(repeated(picture));
