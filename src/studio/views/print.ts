import { ExrFile } from '@/core/formats/exr/exr';
import { packPrint, printRows, printStart, type PictureLight, type PicturePasses } from '@/core/formats/light-file';
import { LIGHT_TYPE } from '@/core/formats/light-type';
import type { LightShare } from '@/core/light/shares';
import { smallSums, type RawRows } from '@/core/render/large';
import { blend, partWeights } from '@/core/render/part-again';
import type { Region } from '@/core/render/tracer';

interface Size {
  width: number;
  height: number;
}

/** Rows of blocks of the file; so many of them are changed at once. */
const BLOCK = 16;
const SLAB = 18 * BLOCK;

/**
 * The light of a picture for print with a part of it made again. Only the blocks it lies in are read and packed anew, a few rows at a
 * time; the others are taken over as they lie on the disk.
 *
 * @param file all its light @param part pixels of the region
 * @throws DomainError of the reader
 */
export async function printWithPart(file: Blob, part: Pick<RawRows, 'radiance' | 'cover'>, region: Region, size: Size): Promise<Blob> {
  const read = async (from: number, length: number): Promise<Uint8Array> => new Uint8Array(await file.slice(from, from + length).arrayBuffer());
  const exr = await ExrFile.open(read, file.size);
  const weights = partWeights(region, size);
  const { width, height } = size;
  const first = Math.floor(region.y / BLOCK) * BLOCK;
  const last = Math.min(height, Math.ceil((region.y + region.height) / BLOCK) * BLOCK);
  const parts: Blob[] = [];
  const sizes: number[] = [];
  const take = (from: number, to: number): void => {
    for (let y = from; y < to; y += BLOCK) {
      const { start, bytes } = exr.place(y / BLOCK);
      parts.push(file.slice(start, start + bytes));
      sizes.push(bytes);
    }
  };
  take(0, first);
  for (let from = first; from < last; from += SLAB) {
    const rows = await printRows(exr, from, Math.min(SLAB, last - from));
    const high = rows.cover.length / width;
    // The rows of the part that lie in these.
    const [top, end] = [Math.max(region.y, from), Math.min(region.y + region.height, from + high)];
    const within = (values: Float32Array, per: number): Float32Array =>
      values.subarray((top - region.y) * region.width * per, (end - region.y) * region.width * per);
    const place = { x: region.x, y: top - from, width: region.width, height: end - top };
    const radiance = blend(rows.radiance, within(part.radiance, 3), within(weights, 1), place, width, 3);
    const cover = blend(rows.cover, within(part.cover, 1), within(weights, 1), place, width, 1);
    const packed = packPrint(size, from, radiance, cover);
    parts.push(new Blob([packed.bytes]));
    sizes.push(...packed.sizes);
  }
  take(last, height);
  return new Blob([printStart(size, sizes), ...parts], { type: LIGHT_TYPE });
}

/** A part of a picture for print as its small picture has it. */
export interface SmallPart {
  region: Region;
  light: Pick<PictureLight, 'radiance' | 'shares'>;
  passes: PicturePasses;
}

/** Makes a part of a picture for print smaller: its radiance is the mean of what belongs to each small pixel, all else is that of its middle. */
export function smallPart(
  part: { radiance: Float32Array; shares: readonly LightShare[]; passes: PicturePasses },
  region: Region,
  size: Size,
  view: Size,
): SmallPart {
  const [kx, ky] = [view.width / size.width, view.height / size.height];
  const [x, y] = [Math.floor(region.x * kx), Math.floor(region.y * ky)];
  const own: Region = {
    x,
    y,
    width: Math.floor((region.x + region.width - 1) * kx) - x + 1,
    height: Math.floor((region.y + region.height - 1) * ky) - y + 1,
  };
  const places = (per: number): number[] =>
    Array.from({ length: own.width * own.height * per }, (_, i) => {
      const [p, c] = [Math.floor(i / per), i % per];
      const middle = (at: number, k: number, from: number, count: number): number => Math.min(count - 1, Math.max(0, Math.floor((at + 0.5) / k) - from));
      const [px, py] = [middle(x + (p % own.width), kx, region.x, region.width), middle(y + Math.floor(p / own.width), ky, region.y, region.height)];
      return (py * region.width + px) * per + c;
    });
  const nearest = (values: Float32Array, per: number): Float32Array => Float32Array.from(places(per), (i) => values[i]);
  // The part laid into rows of the whole, so that each pixel belongs to what it does there.
  const sums = new Float32Array(own.width * own.height * 3);
  const counts = new Float32Array(own.width * own.height * 3);
  const row = new Float32Array(size.width * 3);
  const ones = new Float32Array(size.width * 3).fill(1, region.x * 3, (region.x + region.width) * 3);
  for (let j = 0; j < region.height; j++) {
    row.set(part.radiance.subarray(j * region.width * 3, (j + 1) * region.width * 3), region.x * 3);
    for (const [into, values] of [
      [sums, row],
      [counts, ones],
    ] as const) {
      const { from, sums: all } = smallSums(values, region.y + j, 1, size, view);
      for (let i = 0; i < own.width * 3; i++) into[(from - y) * own.width * 3 + i] += all[x * 3 + i];
    }
  }
  return {
    region: own,
    light: {
      radiance: sums.map((v, i) => v / (counts[i] || 1)),
      shares: part.shares.map((s) => ({ ...s, share: nearest(s.share, 3) })),
    },
    passes: {
      guides: nearest(part.passes.guides, 6),
      depth: nearest(part.passes.depth, 1),
      cover: nearest(part.passes.cover, 1),
      objects: part.passes.objects && { ...part.passes.objects, ids: Uint32Array.from(places(1), (i) => part.passes.objects!.ids[i]) },
    },
  };
}
