import { blackBody, luminance, type Rgb } from '../finishes/colour';

/** Scale from luminance in cd/m² to display value at an exposure: 1 is what saturates a sensor at ISO 100 (1.2 · 2^EV). */
export const exposureScale = (ev: number): number => 1 / (1.2 * 2 ** ev);

/** Display value from which the shoulder of the tone curve bends; below it colours are shown as they are. */
export const SHOULDER = 0.6;

/** How fast colours brighter than the display lose their chroma. */
export const BLEACH = 0.25;

/**
 * The tone curve of pictures and of the view alike: straight up to the shoulder, so that finishes keep their measured
 * colour and darks their depth; above it the brightest channel approaches 1 along a hyperbola and the others follow in
 * proportion, bleaching towards white the farther it had to be brought down. Input and output linear sRGB; changes
 * `rgb` in place.
 */
export function toneCurve(rgb: Float32Array | number[], at = 0): void {
  const peak = Math.max(rgb[at], rgb[at + 1], rgb[at + 2]);
  if (peak <= SHOULDER) return;
  const d = 1 - SHOULDER;
  const next = 1 - (d * d) / (peak + d - SHOULDER);
  const keep = 1 / (BLEACH * (peak - next) + 1);
  const k = (next / peak) * keep;
  for (let c = 0; c < 3; c++) rgb[at + c] = rgb[at + c] * k + next * (1 - keep);
}

/** What the channels are multiplied by so that a white lit by a black body of a temperature is shown as white, as bright as before. */
export function balance(white: number | null): Rgb {
  if (white === null) return [1, 1, 1];
  const [r, g, b] = blackBody(white);
  // The deepest reds have hardly any blue to be brought up.
  return [1 / r, 1 / g, 1 / Math.max(0.05, b)];
}

/** Rooms are shown this much brighter than the meter says, EV: pale walls are meant to look pale. */
const ROOM_BIAS = 1.4;

/** The exposure for a log-mean luminance, cd/m²; EV at ISO 100. */
export const meteredExposure = (luminance: number): number => Math.log2(luminance * (100 / 12.5)) - ROOM_BIAS;

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
  return count ? meteredExposure(2 ** (sum / count)) : 0;
}
