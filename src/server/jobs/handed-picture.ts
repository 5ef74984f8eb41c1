import { readFile } from 'node:fs/promises';
import { zipSync } from 'fflate';
import sharp, { type Sharp } from 'sharp';
import { isExr, writeExr, type ExrChannel } from '@/core/formats/exr/exr';
import { writeHdr } from '@/core/formats/hdr/hdr';
import { objectNames, passesIn, readLight } from '@/core/formats/light-file';
import { lookRoundPage } from '@/core/formats/panorama/page';
import { SIDES, sideOf } from '@/core/formats/panorama/sides';
import { DomainError } from '@/core/project/errors';
import type { Picture } from '@/core/project/schema';
import { developed, gainOf, relight } from '@/core/render/development';
import { keptFile } from '../store/files';
import type { PictureKind } from './picture-kinds';
import { pixelsOf } from './pictures';
import { openPrint } from './print-picture';

const refuse = (why: string): DomainError => new DomainError('picture.kind', `The picture was not made: ${why}.`);

/**
 * A kept picture as a file to hand over. PNG and JPEG say which colours they are of (sRGB) and how many dots an inch they are meant for.
 *
 * @param dots dots an inch
 * @throws DomainError `picture.kind` where the picture can't be had as that
 */
export async function handedPicture(picture: Picture, as: PictureKind, dots: number, folder: string): Promise<Uint8Array> {
  // Of a picture for print the files beside its full light are smaller than it: it is developed anew.
  const print = await openPrint(picture, folder);
  const image = (): Promise<string> => keptFile(folder, picture.image);
  const shown = async (): Promise<Sharp> => (print ? print.shown() : sharp(await image()));
  const light = async (): Promise<Uint8Array> => new Uint8Array(await readFile(await keptFile(folder, picture.radiance)));
  // Said by its own colours: sRGB. Whoever prints it knows them.
  const told = (s: Sharp): Sharp => s.withIccProfile('srgb').withMetadata({ density: dots });
  if ((as === 'sides' || as === 'round') && !picture.shot?.round) throw refuse('it is not one all round');
  switch (as) {
    case 'png':
      return told((await shown()).removeAlpha())
        .png({ compressionLevel: print ? 6 : 9 })
        .toBuffer();
    case 'jpeg':
      return told((await shown()).flatten({ background: 'white' }))
        .jpeg({ quality: 94, chromaSubsampling: '4:4:4' })
        .toBuffer();
    case 'clear': {
      if (print)
        return told(await print.shown(true))
          .png({ compressionLevel: 6 })
          .toBuffer();
      const bytes = await light();
      const { width, height, radiance, shares } = readLight(bytes);
      const cover = passesIn(bytes).find((c) => c.name === 'A')?.data;
      if (!cover) throw refuse('what of it is open ground was not kept with it; render it again');
      const pixels = developed(relight(radiance, shares, picture.lights), picture);
      cover.forEach((a, i) => (pixels[i * 4 + 3] = Math.round(255 * a)));
      return told(sharp(Buffer.from(pixels.buffer), { raw: { width, height, channels: 4 } }))
        .png({ compressionLevel: 9 })
        .toBuffer();
    }
    case 'hdr': {
      if (print) return print.hdr();
      const { width, height, radiance, shares } = readLight(await light());
      return writeHdr(relight(radiance, shares, picture.lights), width, height);
    }
    case 'exr':
      if (print) return print.exr();
      return lightAndPasses(await light(), picture);
    case 'passes':
      return lightAndPasses(await light(), picture);
    case 'sides': {
      const whole = await pixelsOf(print ? await (await print.shown()).png({ compressionLevel: 1 }).toBuffer() : await image());
      const size = Math.round(whole.width / 4);
      const sides = await Promise.all(
        SIDES.map(async (side) => {
          const data = Buffer.from(sideOf(whole, side, size).buffer);
          return [
            `${side}.png`,
            new Uint8Array(
              await told(sharp(data, { raw: { width: size, height: size, channels: 4 } }).removeAlpha())
                .png()
                .toBuffer(),
            ),
          ];
        }),
      );
      // PNG is packed already.
      return zipSync(Object.fromEntries(sides), { level: 0 });
    }
    case 'round': {
      const jpeg = await sharp(await image())
        .flatten()
        .jpeg({ quality: 92, chromaSubsampling: '4:4:4' })
        .toBuffer();
      return new TextEncoder().encode(lookRoundPage(picture.name, `data:image/jpeg;base64,${jpeg.toString('base64')}`));
    }
  }
}

/** Light as it is developed now, each of its lights, and the passes, in thousands of cd/m². */
function lightAndPasses(bytes: Uint8Array, picture: Picture): Uint8Array {
  const { width, height, radiance, shares } = readLight(bytes);
  const passes = isExr(bytes) ? passesIn(bytes) : [];
  const plane = (name: string, data: Float32Array, c: number): ExrChannel => ({
    name,
    type: 'half',
    data: Float32Array.from({ length: width * height }, (_, i) => data[i * 3 + c] / 1000),
  });
  const rgb = (layer: string, data: Float32Array): ExrChannel[] => ['R', 'G', 'B'].map((name, c) => plane(`${layer}${name}`, data, c));
  const plain = (name: string): string =>
    name
      .replace(/[^\p{L}\p{N}]+/gu, '_')
      .normalize('NFD')
      .replace(/[^\w]/g, '') || 'light';
  const names = new Set<string>();
  const layers = shares.flatMap((own) => {
    let name = plain(own.name);
    while (names.has(name)) name += '_';
    names.add(name);
    const set = picture.lights.find((l) => l.name === own.name);
    const gain = set ? gainOf(set, own.kelvin) : [1, 1, 1];
    return rgb(
      `${name}.`,
      radiance.map((v, i) => v * own.share[i] * gain[i % 3]),
    );
  });
  const objects = objectNames(bytes);
  const notes = {
    comments: 'Linear sRGB, thousands of cd/m². Depth in metres along the axis of the camera. Objects by number: 1 is the first of their names.',
    ...(objects ? { objects: JSON.stringify(objects) } : {}),
  };
  return writeExr({ width, height, channels: [...rgb('', relight(radiance, shares, picture.lights)), ...layers, ...passes], notes });
}
