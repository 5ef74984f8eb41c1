import { readFile } from 'node:fs/promises';
import sharp, { type Sharp } from 'sharp';
import { packPrint, printRows, printStart, readLight } from '@/core/formats/light-file';
import { hdrHead, packHdr } from '@/core/formats/hdr/hdr';
import type { Development, Picture } from '@/core/project/schema';
import { developed } from '@/core/render/development';
import { PrintLights } from '@/core/render/print-light';
import { keptFile } from '../store/files';
import { withExr } from './exr-file';

/** Rows that are read and developed at once: blocks of the file are sixteen high. */
const ROWS = 64;

/** A picture for print, developed a few rows at a time as it is set now. */
export class PrintPicture {
  private readonly lights: PrintLights;

  /** @param small its small picture of light, with the shares of its lights @param full path of its full light */
  constructor(
    private readonly picture: Development & Pick<Picture, 'width' | 'height'>,
    small: Uint8Array,
    private readonly full: string,
  ) {
    this.lights = new PrintLights(readLight(small), picture.lights);
  }

  /** All rows, from the first to the last. */
  private async rows(each: (rows: { from: number; radiance: Float32Array<ArrayBuffer>; cover: Float32Array }) => void): Promise<void> {
    const { width, height } = this.picture;
    await withExr(this.full, async (exr) => {
      for (let from = 0; from < height; from += ROWS) {
        const { radiance, cover } = await printRows(exr, from, ROWS);
        each({ from, radiance: this.lights.lit(radiance, from, { width, height }), cover });
      }
    });
  }

  /** As it is shown, for a file of 8 bits. @param clear whether it is clear where nothing is built */
  async shown(clear = false): Promise<Sharp> {
    const { width, height } = this.picture;
    const channels = clear ? 4 : 3;
    const data = Buffer.alloc(width * height * channels);
    await this.rows(({ from, radiance, cover }) => {
      const pixels = developed(radiance, this.picture);
      for (let i = 0, o = from * width * channels; i < cover.length; i++, o += channels) {
        for (let c = 0; c < 3; c++) data[o + c] = pixels[i * 4 + c];
        if (clear) data[o + 3] = Math.round(255 * cover[i]);
      }
    });
    return sharp(data, { raw: { width, height, channels } });
  }

  /** Its light as Radiance HDR. */
  async hdr(): Promise<Uint8Array> {
    const { width, height } = this.picture;
    const head = hdrHead(width, height);
    const out = new Uint8Array(head.length + width * height * 4);
    out.set(head);
    await this.rows(({ from, radiance }) => packHdr(radiance, out, head.length + from * width * 4));
    return out;
  }

  /** Its light as OpenEXR, in thousands of cd/m², with how much of each pixel shows something. */
  async exr(): Promise<Uint8Array> {
    const size = this.picture;
    const packed: Uint8Array[] = [];
    const sizes: number[] = [];
    await this.rows(({ from, radiance, cover }) => {
      const blocks = packPrint(size, from, radiance, cover);
      packed.push(blocks.bytes);
      sizes.push(...blocks.sizes);
    });
    return Buffer.concat([printStart(size, sizes), ...packed]);
  }
}

/**
 * A kept picture for print, with its files.
 *
 * @param folder the data folder
 * @returns null where it is no picture for print
 */
export async function openPrint(picture: Picture, folder: string): Promise<PrintPicture | null> {
  if (picture.full === null) return null;
  const small = new Uint8Array(await readFile(await keptFile(folder, picture.radiance)));
  return new PrintPicture(picture, small, await keptFile(folder, picture.full));
}
