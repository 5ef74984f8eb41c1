import { fromLinear, luminance } from '../finishes/colour';

/** Scale from luminance in cd/m² to display value at an exposure: 1 is what saturates a sensor at ISO 100 (1.2 · 2^EV). */
export const exposureScale = (ev: number): number => 1 / (1.2 * 2 ** ev);

/**
 * The Khronos PBR neutral tone curve: keeps base colours as they are and rolls off only highlights. Input and output
 * linear sRGB; changes `rgb` in place.
 */
export function neutralTone(rgb: Float32Array | number[], at = 0): void {
  const start = 0.8 - 0.04;
  const desaturation = 0.15;
  let r = rgb[at];
  let g = rgb[at + 1];
  let b = rgb[at + 2];
  const x = Math.min(r, g, b);
  const offset = x < 0.08 ? x - 6.25 * x * x : 0.04;
  r -= offset;
  g -= offset;
  b -= offset;
  const peak = Math.max(r, g, b);
  if (peak >= start) {
    const d = 1 - start;
    const next = 1 - (d * d) / (peak + d - start);
    const k = next / peak;
    const f = 1 - 1 / (desaturation * (peak - next) + 1);
    r = r * k * (1 - f) + next * f;
    g = g * k * (1 - f) + next * f;
    b = b * k * (1 - f) + next * f;
  }
  rgb[at] = r;
  rgb[at + 1] = g;
  rgb[at + 2] = b;
}

const TABLE_SIZE = 4096;
let table: Uint8Array | null = null;

/**
 * Display pixels of a radiance image.
 *
 * @param radiance linear sRGB luminance in cd/m², three values a pixel
 * @param ev exposure value at ISO 100
 * @returns RGBA, 8 bits, sRGB
 */
export function develop(radiance: Float32Array, ev: number, out = new Uint8ClampedArray((radiance.length / 3) * 4)): Uint8ClampedArray {
  table ??= Uint8Array.from({ length: TABLE_SIZE + 1 }, (_, i) => Math.round(255 * fromLinear(i / TABLE_SIZE)));
  const k = exposureScale(ev);
  const pixel = [0, 0, 0];
  for (let i = 0, o = 0; i < radiance.length; i += 3, o += 4) {
    pixel[0] = Math.max(0, radiance[i] * k);
    pixel[1] = Math.max(0, radiance[i + 1] * k);
    pixel[2] = Math.max(0, radiance[i + 2] * k);
    neutralTone(pixel);
    for (let c = 0; c < 3; c++) out[o + c] = table[Math.round(Math.min(1, Math.max(0, pixel[c])) * TABLE_SIZE)];
    out[o + 3] = 255;
  }
  return out;
}

/** The exposure a camera's averaging meter would choose (ISO 2720, K = 12.5): from the log-mean luminance. */
export function meterExposure(radiance: Float32Array): number {
  let sum = 0;
  let count = 0;
  for (let i = 0; i < radiance.length; i += 3) {
    const l = luminance([radiance[i], radiance[i + 1], radiance[i + 2]]);
    if (l > 0) {
      sum += Math.log2(l);
      count++;
    }
  }
  return count ? sum / count + Math.log2(100 / 12.5) - 1 : 0;
}
