import type { ImagePixels } from '@/core/finishes/finish';
import { readLandscape } from '@/core/formats/landscape';
import { readPixels } from '@/core/formats/png';
import type { LightPixels } from '@/core/light/rgbe';
import type { Surroundings } from '@/core/project/schema';

async function fileAt(address: string): Promise<Blob> {
  const response = await fetch(address);
  if (!response.ok) throw new Error(`The picture ${address} did not come (${response.status}).`);
  return response.blob();
}

async function pixelsOf(file: Blob): Promise<ImagePixels> {
  if (file.type === 'image/png') return readPixels(new Uint8Array(await file.arrayBuffer()));
  const bitmap = await createImageBitmap(file);
  const context = new OffscreenCanvas(bitmap.width, bitmap.height).getContext('2d')!;
  context.drawImage(bitmap, 0, 0);
  const { data } = context.getImageData(0, 0, bitmap.width, bitmap.height);
  return { width: bitmap.width, height: bitmap.height, data: new Uint8Array(data.buffer) };
}

/** The picture a finish of one's own is made from, from the server: PNG, or JPEG where it was a photo. */
export const readAsset = async (hash: string): Promise<ImagePixels> => pixelsOf(await fileAt(`/api/assets/${hash}`));

/** The picture of a site's surroundings, from the server. */
export async function readBeyond(picture: Surroundings['picture']): Promise<LightPixels> {
  const file = await fileAt(picture.kind === 'own' ? `/api/assets/${picture.image}` : `/api/surroundings/${picture.landscape}`);
  return readLandscape(new Uint8Array(await file.arrayBuffer()), () => pixelsOf(file));
}
