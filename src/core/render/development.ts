import { blackBody, fromLinear, luminance, type Rgb } from '../finishes/colour';
import type { LightShare } from '../light/shares';
import { OFF, type Development, type GroupLight } from '../project/schema';
import { balance, exposureScale, toneCurve } from './tone';

/** What the light of a group is multiplied by. */
export function gainOf({ level, kelvin }: GroupLight, own: number): Rgb {
  const k = level <= OFF ? 0 : 2 ** level;
  if (kelvin === null) return [k, k, k];
  const [from, to] = [blackBody(own), blackBody(kelvin)];
  // As bright as before: only its colour is another.
  return [0, 1, 2].map((c) => (k * to[c]) / Math.max(0.05, from[c])) as unknown as Rgb;
}

/** Whether anything is changed about the lights of a picture. */
export const lightsAsTraced = (lights: readonly GroupLight[]): boolean => lights.every((l) => l.level === 0 && l.kelvin === null);

/**
 * The light of a picture with its groups dimmed, switched and coloured: no ray is traced anew.
 *
 * @param radiance of the whole, three values a pixel, cd/m²
 */
export function relight(radiance: Float32Array, shares: readonly LightShare[], lights: readonly GroupLight[]): Float32Array {
  if (!shares.length || lightsAsTraced(lights)) return radiance;
  const gains = shares.map(({ name, kelvin }) => {
    const set = lights.find((l) => l.name === name);
    return set ? gainOf(set, kelvin) : ([1, 1, 1] as Rgb);
  });
  const out = new Float32Array(radiance.length);
  shares.forEach(({ share }, g) => {
    for (let i = 0; i < out.length; i++) out[i] += radiance[i] * share[i] * gains[g][i % 3];
  });
  return out;
}

/**
 * Shares of light groups from what each has brought: where hardly anything has come, all groups have the share they have of the
 * whole picture, so that nothing is divided by nothing.
 *
 * @param groups light of each group, three values a pixel; none of it negative
 */
export function sharesOf(groups: readonly Float32Array[]): Float32Array[] {
  const n = groups[0].length;
  const totals = groups.map((g) => g.reduce((sum, v) => sum + Math.max(0, v), 0));
  const all = totals.reduce((a, b) => a + b, 0);
  const usual = totals.map((t) => (all > 0 ? t / all : 1 / groups.length));
  // A hundred-millionth of the mean: below it a pixel is black whatever is switched.
  const floor = (all / n) * 1e-8;
  const out = groups.map(() => new Float32Array(n));
  for (let i = 0; i < n; i++) {
    let sum = floor;
    for (const g of groups) sum += Math.max(0, g[i]);
    for (let k = 0; k < groups.length; k++) out[k][i] = sum > 0 ? (Math.max(0, groups[k][i]) + floor * usual[k]) / sum : usual[k];
  }
  return out;
}

const MIDDLE = 0.18;
/** Display value from which highlights are held. */
const HIGH = 0.35;

const TABLE_SIZE = 4096;
let table: Uint8Array | null = null;

/** How far the warmest goes, as stops between red and blue. */
const WARMEST = 0.8;

/** What the channels are multiplied by so that a picture is warmer or colder, a grey as bright as before. @param warmth −1…1 */
export function warmed(warmth: number): Rgb {
  const [r, b] = [2 ** ((warmth * WARMEST) / 2), 2 ** ((-warmth * WARMEST) / 2)];
  const k = 1 / luminance([r, 1, b]);
  return [r * k, k, b * k];
}

/**
 * Display pixels of a radiance image as it is developed: exposure and white, then contrast about middle grey, highlights held,
 * saturation, and the tone curve of the view.
 *
 * @param radiance linear sRGB luminance in cd/m², three values a pixel
 * @returns RGBA, 8 bits, sRGB
 */
export function developed(
  radiance: Float32Array,
  { exposure, white, contrast, saturation, highlights, warmth }: Omit<Development, 'lights'>,
): Uint8ClampedArray<ArrayBuffer> {
  table ??= Uint8Array.from({ length: TABLE_SIZE + 1 }, (_, i) => Math.round(255 * fromLinear(i / TABLE_SIZE)));
  const tint = warmed(warmth);
  const [r, g, b] = balance(white).map((c, i) => c * tint[i] * exposureScale(exposure));
  const out = new Uint8ClampedArray((radiance.length / 3) * 4);
  const pixel = [0, 0, 0];
  const plain = contrast === 0 && saturation === 0 && highlights === 0;
  for (let i = 0, o = 0; i < radiance.length; i += 3, o += 4) {
    pixel[0] = Math.max(0, radiance[i] * r);
    pixel[1] = Math.max(0, radiance[i + 1] * g);
    pixel[2] = Math.max(0, radiance[i + 2] * b);
    if (!plain) {
      const l = 0.2126 * pixel[0] + 0.7152 * pixel[1] + 0.0722 * pixel[2];
      if (l > 0) {
        let to = contrast === 0 ? l : MIDDLE * (l / MIDDLE) ** (1 + contrast);
        if (highlights > 0 && to > HIGH) to = HIGH + (to - HIGH) / (1 + highlights * 2 * (to - HIGH));
        const k = to / l;
        for (let c = 0; c < 3; c++) pixel[c] = Math.max(0, (l + (pixel[c] - l) * (1 + saturation)) * k);
      }
    }
    toneCurve(pixel);
    for (let c = 0; c < 3; c++) out[o + c] = table[Math.round(Math.min(1, Math.max(0, pixel[c])) * TABLE_SIZE)];
    out[o + 3] = 255;
  }
  return out;
}

/** What is done to a picture at first beyond exposure and white: nothing. */
export const AS_TRACED = { warmth: 0, contrast: 0, saturation: 0, highlights: 0, lights: [] as GroupLight[] } satisfies Partial<Development>;

/** Display pixels of a radiance image at an exposure (EV at ISO 100) and a white (K; null: that of the display). */
export const develop = (radiance: Float32Array, exposure: number, white: number | null = null): Uint8ClampedArray<ArrayBuffer> =>
  developed(radiance, { ...AS_TRACED, exposure, white });

/** Display values beyond which nothing more is told apart in print or on screen. */
const LIMITS = { under: 5, over: 250 } as const;

/**
 * Marks what is over- or under-exposed with slanting stripes, in place: in one colour where all channels are nearly white, in
 * another where all are nearly black. Returns the shares of the picture that are.
 */
export function markLimits(pixels: Uint8ClampedArray, width: number, over: readonly number[], under: readonly number[]): { over: number; under: number } {
  const count = { over: 0, under: 0 };
  for (let o = 0, i = 0; o < pixels.length; o += 4, i++) {
    const low = Math.min(pixels[o], pixels[o + 1], pixels[o + 2]);
    const high = Math.max(pixels[o], pixels[o + 1], pixels[o + 2]);
    const mark = low >= LIMITS.over ? over : high <= LIMITS.under ? under : null;
    if (!mark) continue;
    count[mark === over ? 'over' : 'under']++;
    if (((i % width) + Math.floor(i / width)) % 6 < 3) for (let c = 0; c < 3; c++) pixels[o + c] = mark[c];
  }
  const all = pixels.length / 4;
  return { over: count.over / all, under: count.under / all };
}

/** Kelvin between which a white is set. */
const WHITES = { least: 1500, most: 15000 } as const;

/** The white that shows a colour as grey, as near as the black bodies come to it, K. @param rgb radiance of what should be grey */
export function whiteFrom([r, g, b]: readonly number[]): number {
  if (!(luminance([r, g, b]) > 0)) return 6500;
  // Red over blue falls steadily as a black body gets hotter: found by halving.
  const wanted = r / Math.max(1e-9, b);
  let [low, high]: [number, number] = [WHITES.least, WHITES.most];
  for (let i = 0; i < 40; i++) {
    const middle = (low + high) / 2;
    const [red, , blue] = balance(middle).map((c) => 1 / c);
    if (red / blue > wanted) low = middle;
    else high = middle;
  }
  return Math.round((low + high) / 2 / 10) * 10;
}
