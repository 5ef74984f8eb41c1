import type { ImagePixels } from '@/core/finishes/finish';
import { readPixels } from '@/core/formats/png';

/** The picture a finish of one's own is made from, from the server: PNG, or JPEG where it was a photo. */
export async function readAsset(hash: string): Promise<ImagePixels> {
  const response = await fetch(`/api/assets/${hash}`);
  if (!response.ok) throw new Error(`The picture ${hash} did not come (${response.status}).`);
  const file = await response.blob();
  if (file.type === 'image/png') return readPixels(new Uint8Array(await file.arrayBuffer()));
  const bitmap = await createImageBitmap(file);
  const context = new OffscreenCanvas(bitmap.width, bitmap.height).getContext('2d')!;
  context.drawImage(bitmap, 0, 0);
  const { data } = context.getImageData(0, 0, bitmap.width, bitmap.height);
  return { width: bitmap.width, height: bitmap.height, data: new Uint8Array(data.buffer) };
}
