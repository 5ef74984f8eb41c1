import { packLight, stepOf } from '../../light/rgbe';
import { DomainError } from '../../project/errors';

/** Radiance HDR (RGBE) pictures: written flat, read flat or run-length coded. */

/** What stands before the pixels of a picture that is written flat. */
export const hdrHead = (width: number, height: number): Uint8Array<ArrayBuffer> =>
  new TextEncoder().encode(`#?RADIANCE\nFORMAT=32-bit_rle_rgbe\n\n-Y ${height} +X ${width}\n`);

/** Packs pixels as they are written flat, from a byte on. @param radiance linear RGB, three values a pixel, top row first */
export function packHdr(radiance: Float32Array, into: Uint8Array, at: number): void {
  for (let i = 0, o = at; i < radiance.length; i += 3, o += 4) packLight(radiance[i], radiance[i + 1], radiance[i + 2], into, o);
}

/**
 * @param radiance linear RGB, three values a pixel, top row first
 */
export function writeHdr(radiance: Float32Array, width: number, height: number): Uint8Array<ArrayBuffer> {
  const head = hdrHead(width, height);
  const out = new Uint8Array(head.length + width * height * 4);
  out.set(head);
  packHdr(radiance, out, head.length);
  return out;
}

/**
 * @throws DomainError `hdr.…` when the bytes are not such a picture
 */
export function readHdr(bytes: Uint8Array): { width: number; height: number; radiance: Float32Array } {
  const head = new TextDecoder().decode(bytes.subarray(0, 512));
  const match = /^#\?(?:RADIANCE|RGBE)[\s\S]*?\n\n-Y (\d+) \+X (\d+)\n/.exec(head);
  if (!match) throw new DomainError('hdr.header', 'The file is not a Radiance HDR picture.');
  const [height, width] = [Number(match[1]), Number(match[2])];
  if (width * height > 1e8) throw new DomainError('hdr.size', 'The HDR picture is too large.');
  const radiance = new Float32Array(width * height * 3);
  const data = bytes.subarray(new TextEncoder().encode(match[0]).length);
  const put = (i: number, r: number, g: number, b: number, e: number): void => {
    const k = stepOf(e);
    if (!k) return;
    radiance.set([(r + 0.5) * k, (g + 0.5) * k, (b + 0.5) * k], i * 3);
  };
  if (data.length === width * height * 4 && !(data[0] === 2 && data[1] === 2 && width >= 8 && width < 32768 && data[2] * 256 + data[3] === width)) {
    for (let i = 0; i < width * height; i++) put(i, data[i * 4], data[i * 4 + 1], data[i * 4 + 2], data[i * 4 + 3]);
    return { width, height, radiance };
  }
  let at = 0;
  const row = new Uint8Array(width * 4);
  for (let y = 0; y < height; y++) {
    at += 4;
    for (let c = 0; c < 4; c++)
      for (let x = 0; x < width;) {
        if (at >= data.length) throw new DomainError('hdr.short', 'The HDR picture ends too early.');
        const n = data[at++];
        if (n > 128) {
          row.fill(data[at++], c * width + x, c * width + x + n - 128);
          x += n - 128;
        } else {
          row.set(data.subarray(at, at + n), c * width + x);
          at += n;
          x += n;
        }
      }
    for (let x = 0; x < width; x++) put(y * width + x, row[x], row[width + x], row[2 * width + x], row[3 * width + x]);
  }
  return { width, height, radiance };
}
