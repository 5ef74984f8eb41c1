import { open, readFile, stat } from 'node:fs/promises';
import sharp, { type Metadata, type SharpOptions } from 'sharp';
import { LIGHT_TYPE } from '@/core/formats/light-type';
import { readHdr } from '@/core/formats/hdr/hdr';
import { DomainError } from '@/core/project/errors';
import { LIMITS, MAX_PIXELS } from '../config';
import { storeFault } from '../store/faults';
import { digest, type PictureFacts } from '../store/files';
import { withExr } from './exr-file';

/** Kinds of pictures that are read, by their first bytes. */
const KINDS: { kind: 'png' | 'jpeg' | 'hdr' | 'exr' | 'webp' | 'avif' | 'tiff' | 'heic'; starts: RegExp }[] = [
  { kind: 'png', starts: /^\x89PNG\r\n\x1a\n/ },
  { kind: 'jpeg', starts: /^\xff\xd8\xff/ },
  { kind: 'hdr', starts: /^#\?(RADIANCE|RGBE)/ },
  { kind: 'exr', starts: /^v\/1\x01/ },
  { kind: 'webp', starts: /^RIFF[\s\S]{4}WEBP/ },
  { kind: 'tiff', starts: /^(II\x2a\x00|MM\x00\x2a)/ },
  { kind: 'avif', starts: /^[\s\S]{4}ftypavi[fs]/ },
  { kind: 'heic', starts: /^[\s\S]{4}ftyp(hei[cfxms]|hev[cmx]|mif1|msf1)/ },
];

/** The kind of a file by its content; null for anything that is no picture. */
export const sniff = (bytes: Uint8Array): (typeof KINDS)[number]['kind'] | null =>
  KINDS.find(({ starts }) => starts.test(Buffer.from(bytes.subarray(0, 32)).toString('latin1')))?.kind ?? null;

const MIME = { png: 'image/png', jpeg: 'image/jpeg', hdr: 'image/vnd.radiance', exr: LIGHT_TYPE } as const;

const refuse = (code: string, why: string): DomainError => new DomainError(`asset.${code}`, `The picture was not kept: ${why}.`);
const tooLarge = (): DomainError => refuse('size', `it has more than ${MAX_PIXELS / 1e6} million pixels; make it smaller first`);
const damaged = (): DomainError => refuse('damaged', 'its file is damaged or ends too early');

/** Half-way damaged files are refused, oddities that every reader passes over are not. */
const READ: SharpOptions = { limitInputPixels: MAX_PIXELS, failOn: 'error', sequentialRead: true, unlimited: false };

/**
 * Looks a picture through to its last pixel and makes it plain: 8 bits of sRGB, upright, as PNG or JPEG, without notes of
 * place, camera or maker. A file that is plain already is kept byte for byte.
 *
 * @param out where the plain picture is written if it has to be another one
 * @throws DomainError `asset.kind`, `asset.size`, `asset.damaged`, `asset.large`
 */
export async function lookThrough(file: string, out: string): Promise<PictureFacts> {
  const handle = await open(file, 'r');
  const { buffer } = await handle.read(Buffer.alloc(32), 0, 32, 0).finally(() => handle.close());
  const kind = sniff(buffer);
  if (!kind) throw refuse('kind', 'only PNG, JPEG, WebP, AVIF, TIFF, Radiance HDR and OpenEXR pictures belong here');
  if (kind === 'heic') throw refuse('kind', 'HEIC photos can’t be read here; save it as JPEG first');
  const most = kind === 'exr' ? LIMITS.light : LIMITS.asset;
  if ((await stat(file)).size > most) throw refuse('large', `it is larger than ${most / 1024 / 1024} MB`);
  if (kind === 'hdr' || kind === 'exr') return lookThroughLight(file, kind);
  let facts: Metadata;
  try {
    // The head is read of any size, so that what is too large can be called so.
    facts = await sharp(file, { ...READ, limitInputPixels: false }).metadata();
  } catch {
    throw damaged();
  }
  if (facts.width * facts.height > MAX_PIXELS) throw tooLarge();
  const turned = (facts.orientation ?? 1) > 1;
  const plain =
    (kind === 'png' || kind === 'jpeg') &&
    !turned &&
    !facts.exif &&
    !facts.xmp &&
    !facts.iptc &&
    !facts.icc &&
    !facts.tifftagPhotoshop &&
    !facts.comments?.length &&
    facts.depth === 'uchar' &&
    (facts.space === 'srgb' || facts.space === 'b-w') &&
    !(kind === 'png' && (facts.isPalette || facts.isProgressive || (facts.pages ?? 1) > 1));
  try {
    if (plain) {
      await sharp(file, READ).stats();
      return { file, ...(await digest(file)), mime: MIME[kind], width: facts.width, height: facts.height };
    }
    const upright = sharp(file, { ...READ, sequentialRead: !turned })
      .autoOrient()
      .toColourspace('srgb');
    const asJpeg = kind === 'jpeg' || ((kind === 'webp' || kind === 'avif') && !facts.hasAlpha);
    const info = await (asJpeg ? upright.jpeg({ quality: 93, chromaSubsampling: '4:4:4' }) : upright.png({ compressionLevel: 7 })).toFile(out);
    return { file: out, ...(await digest(out)), mime: asJpeg ? MIME.jpeg : MIME.png, width: info.width, height: info.height };
  } catch (error) {
    // A disk that is full while the plain picture is written is not the picture’s fault.
    if (/no space|ENOSPC/i.test(String(error))) throw storeFault('full');
    throw damaged();
  }
}

/** Rows that are looked through at once: a picture for print is larger than memory should be. */
const ROWS = 256;

async function lookThroughLight(file: string, kind: 'hdr' | 'exr'): Promise<PictureFacts> {
  if (kind === 'exr') {
    try {
      return await withExr(file, async (exr) => {
        const { width, height } = exr.layout;
        if (width * height > MAX_PIXELS) throw tooLarge();
        for (let from = 0; from < height; from += ROWS) await exr.rows(from, ROWS);
        return { file, ...(await digest(file)), mime: MIME[kind], width, height };
      });
    } catch (error) {
      throw error instanceof DomainError && error.code === 'asset.size' ? error : damaged();
    }
  }
  const bytes = new Uint8Array(await readFile(file));
  const { width, height } = sizeOfLight(bytes);
  if (width * height > MAX_PIXELS / 2) throw tooLarge();
  try {
    readHdr(bytes);
  } catch {
    throw damaged();
  }
  return { file, ...(await digest(file)), mime: MIME[kind], width, height };
}

/** Size of a Radiance HDR picture by the head of its file. */
function sizeOfLight(bytes: Uint8Array): { width: number; height: number } {
  const size = /-Y (\d{1,6}) \+X (\d{1,6})\n/.exec(Buffer.from(bytes.subarray(0, 512)).toString('latin1'));
  if (!size) throw damaged();
  return { width: Number(size[2]), height: Number(size[1]) };
}

/** Pixels of a kept picture as RGBA, 8 bits, whatever its kind. */
export async function pixelsOf(file: string | Buffer): Promise<{ width: number; height: number; data: Uint8Array }> {
  const { data, info } = await sharp(file, READ).toColourspace('srgb').ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  return { width: info.width, height: info.height, data: new Uint8Array(data) };
}

/** RGBA pixels, 8 bits, as PNG; the alpha channel is left out where it says nothing. It is written beside the caller's own work. */
export const encodePng = async (pixels: Uint8Array, width: number, height: number): Promise<Uint8Array> => {
  let clear = false;
  for (let k = 3; k < pixels.length && !clear; k += 4) clear = pixels[k] < 255;
  const picture = sharp(Buffer.from(pixels.buffer, pixels.byteOffset, pixels.length), { raw: { width, height, channels: 4 } });
  return new Uint8Array(await (clear ? picture : picture.removeAlpha()).png({ compressionLevel: 6 }).toBuffer());
};
