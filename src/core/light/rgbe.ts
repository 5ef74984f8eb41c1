import { toLinear } from '../finishes/colour';
import type { ImagePixels } from '../finishes/finish';

/** A picture of light, four bytes a pixel, top row first: three mantissas of one exponent (Ward 1991), so that sun and shade both fit. */
export interface LightPixels {
  width: number;
  height: number;
  rgbe: Uint8Array;
}

/** Writes one pixel; what is below nothing is nothing. */
export function packLight(r: number, g: number, b: number, out: Uint8Array, at: number): void {
  const peak = Math.max(r, g, b);
  if (!(peak > 1e-32) || peak === Infinity) {
    out.fill(0, at, at + 4);
    return;
  }
  const exponent = Math.ceil(Math.log2(peak));
  const e = peak >= 2 ** exponent ? exponent + 1 : exponent;
  const k = 256 / 2 ** e;
  out[at] = Math.max(0, Math.floor(r * k));
  out[at + 1] = Math.max(0, Math.floor(g * k));
  out[at + 2] = Math.max(0, Math.floor(b * k));
  out[at + 3] = e + 128;
}

/** What a mantissa of an exponent stands for: a step of a mantissa by the middle of it. */
export const stepOf = (e: number): number => (e ? 2 ** (e - 136) : 0);

/** Three values a pixel as a picture of light, made smaller by whole steps until it is no wider than told. */
export function lightPixels(radiance: Float32Array, width: number, height: number, most = Infinity): LightPixels {
  const step = Math.max(1, Math.ceil(width / most));
  const [w, h] = [Math.max(1, Math.floor(width / step)), Math.max(1, Math.floor(height / step))];
  const rgbe = new Uint8Array(w * h * 4);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const sum = [0, 0, 0];
      for (let j = 0; j < step; j++)
        for (let i = 0; i < step; i++) {
          const k = ((y * step + j) * width + x * step + i) * 3;
          for (let c = 0; c < 3; c++) sum[c] += radiance[k + c];
        }
      packLight(sum[0] / step ** 2, sum[1] / step ** 2, sum[2] / step ** 2, rgbe, (y * w + x) * 4);
    }
  return { width: w, height: h, rgbe };
}

/** Pixels of a display, RGBA, 8 bits, sRGB, as a picture of light whose white is 1; made smaller as `lightPixels` does. */
export function fromDisplay({ data, width, height }: ImagePixels, most = Infinity): LightPixels {
  const linear = Float32Array.from({ length: 256 }, (_, v) => toLinear(v / 255));
  const radiance = new Float32Array(width * height * 3);
  for (let i = 0, o = 0; o < radiance.length; i += 4, o += 3) for (let c = 0; c < 3; c++) radiance[o + c] = linear[data[i + c]];
  return lightPixels(radiance, width, height, most);
}

/** Three values a pixel of a picture of light. */
export function radianceOf({ width, height, rgbe }: LightPixels): Float32Array<ArrayBuffer> {
  const out = new Float32Array(width * height * 3);
  for (let i = 0, o = 0; i < rgbe.length; i += 4, o += 3) {
    const k = stepOf(rgbe[i + 3]);
    if (k) for (let c = 0; c < 3; c++) out[o + c] = (rgbe[i + c] + 0.5) * k;
  }
  return out;
}
