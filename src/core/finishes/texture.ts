import type { Body, Finish } from '../project/schema';
import { encode8, hexToLinear, LINEAR, linearToHex, luminance, type Rgb } from './colour';
import { mod, type Ground, type Makers, type Matter } from './bodies/body';
import { metalMakers } from './bodies/metal';
import { mineralMakers } from './bodies/mineral';
import { outsideMakers } from './bodies/outside';
import { textileMakers } from './bodies/textile';
import { timberMakers } from './bodies/timber';
import { isPlain, type ImagePixels, type Texture } from './finish';
import { tilingOf } from './laying/pattern';
import { hash } from './noise';

const MAKERS: Makers<Exclude<Body['kind'], 'image'>> = { ...mineralMakers, ...timberMakers, ...textileMakers, ...metalMakers, ...outsideMakers };

/** The matter of a picture, between its pixels. */
function fromImage(image: ImagePixels | undefined, ground: Ground): Matter {
  if (!image) return () => ({ shade: 1, height: 0 });
  const { width, height, data } = image;
  return (x, y) => {
    // Pictures run downwards, surfaces upwards.
    const fx = mod((x / ground.width) * width - 0.5, width);
    const fy = mod((1 - y / ground.height) * height - 0.5, height);
    const [x0, y0] = [Math.floor(fx), Math.floor(fy)];
    const [a, b] = [fx - x0, fy - y0];
    const [x1, y1] = [(x0 + 1) % width, (y0 + 1) % height];
    const at = (i: number, j: number, c: number): number => LINEAR[data[(j * width + i) * 4 + c]];
    const colour = [0, 1, 2].map((c) => (at(x0, y0, c) * (1 - a) + at(x1, y0, c) * a) * (1 - b) + (at(x0, y1, c) * (1 - a) + at(x1, y1, c) * a) * b) as [
      number,
      number,
      number,
    ];
    return { shade: 1, colour, height: 0 };
  };
}

/** The matter of a finish as a function of the place on it. */
export function matterOf(finish: Finish, seed: number, image?: ImagePixels): Matter {
  const ground: Ground = { ...finish.size, colour: hexToLinear(finish.colour), seed };
  if (finish.body.kind === 'image') return fromImage(image, ground);
  return (MAKERS[finish.body.kind] as (body: Body, ground: Ground) => Matter)(finish.body, ground);
}

/** Mean colour of what a finish's maker draws, before it is brought to the declared one. @param samples in each direction */
export function meanOfMatter(finish: Finish, samples = 120, image?: ImagePixels): string {
  const matter = matterOf(finish, 1, image);
  const base = hexToLinear(finish.colour);
  const sum: [number, number, number] = [0, 0, 0];
  const { width, height } = finish.size;
  for (let j = 0; j < samples; j++)
    for (let i = 0; i < samples; i++) {
      const spot = matter(((i + 0.5) / samples) * width, ((j + 0.5) / samples) * height, 0);
      for (let c = 0; c < 3; c++) sum[c] += (spot.colour ?? base)[c] * spot.shade;
    }
  return linearToHex([sum[0] / samples ** 2, sum[1] / samples ** 2, sum[2] / samples ** 2]);
}

/** What a texture of a finish covers, metres: one repeat of its matter, or as many of its pattern as look unrepeated. */
export function textureSpan(finish: Finish): { width: number; height: number } {
  if (!finish.laying) return finish.size;
  const { period, units } = tilingOf(finish.laying);
  const each = Math.sqrt((period.x * period.y) / units.length);
  // At least eight units in each direction, but no more than three metres of them.
  const times = (length: number): number => Math.max(1, Math.round(Math.min(3.2, Math.max(8 * each, 0.5)) / length));
  return { width: period.x * times(period.x), height: period.y * times(period.y) };
}

interface Field {
  width: number;
  height: number;
  /** Colour of what matter there is, times how much of the pixel it covers. */
  linear: Float32Array;
  /** Share of the pixel that is matter; the rest is joint. */
  cover: Float32Array;
  relief: Float32Array;
  rough: Float32Array;
  /** Share of the pixel that is open. */
  open: Float32Array;
}

/** A part of a surface, metres from where its pattern begins. */
export interface Window {
  x: number;
  y: number;
  width: number;
  height: number;
}

/** One sheet: its matter, pixel by pixel. */
function sheet(field: Field, finish: Finish, matter: Matter, base: Rgb, window: Window): void {
  const { width, height, linear, relief, rough, open } = field;
  const { size } = finish;
  field.cover.fill(1);
  const xs = Float64Array.from({ length: width }, (_, i) => mod(window.x + ((i + 0.5) / width) * window.width, size.width));
  for (let j = 0; j < height; j++) {
    const y = mod(window.y + ((j + 0.5) / height) * window.height, size.height);
    for (let i = 0; i < width; i++) {
      const k = j * width + i;
      const spot = matter(xs[i], y, 0);
      const c = spot.colour ?? base;
      linear[k * 3] = c[0] * spot.shade;
      linear[k * 3 + 1] = c[1] * spot.shade;
      linear[k * 3 + 2] = c[2] * spot.shade;
      relief[k] = spot.height;
      rough[k] = spot.rough ?? 1;
      open[k] = spot.open ?? 0;
    }
  }
}

/**
 * Units in their pattern: each unit's outline is filled with matter from another place of it, its edges rounded, and
 * what is left is joint.
 */
function laid(field: Field, finish: Finish, matter: Matter, base: Rgb, window: Window, seed: number): void {
  const laying = finish.laying!;
  const span = textureSpan(finish);
  const { period, units } = tilingOf(laying);
  const { width, height, linear, cover, relief, rough } = field;
  const [dx, dy] = [window.width / width, window.height / height];
  // Pixels on an edge are covered in part: thin joints keep their share however coarse the pixels are.
  const pixel = Math.max(dx, dy);
  const [columns, rows] = [Math.round(span.width / period.x), Math.round(span.height / period.y)];
  const edge = Math.max(laying.edge, 1e-6);
  // A printed or pictured unit begins where the unit does.
  const fixed = finish.body.kind === 'motif' || finish.body.kind === 'image';
  units.forEach((unit, u) => {
    const { ring, origin, along } = unit;
    const edges = ring.map((a, i) => {
      const b = ring[(i + 1) % ring.length];
      const l = Math.hypot(b.x - a.x, b.y - a.y) || 1;
      return { x: a.x, y: a.y, nx: -(b.y - a.y) / l, ny: (b.x - a.x) / l };
    });
    const xs = ring.map((p) => p.x);
    const ys = ring.map((p) => p.y);
    const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
    for (let c = Math.floor((window.x - x1) / period.x); c <= Math.ceil((window.x + window.width - x0) / period.x); c++)
      for (let r = Math.floor((window.y - y1) / period.y); r <= Math.ceil((window.y + window.height - y0) / period.y); r++) {
        const [ox, oy] = [c * period.x - window.x, r * period.y - window.y];
        const i0 = Math.max(0, Math.floor((x0 + ox) / dx - 1));
        const i1 = Math.min(width - 1, Math.ceil((x1 + ox) / dx));
        const j0 = Math.max(0, Math.floor((y0 + oy) / dy - 1));
        const j1 = Math.min(height - 1, Math.ceil((y1 + oy) / dy));
        if (i1 < i0 || j1 < j0) continue;
        // The same unit on the other side of the texture's edge is the same board.
        const id = u * 7919 + mod(c, columns) * 211 + mod(r, rows) * 13;
        const tone = 1 + (hash(id, 1, seed) - 0.5) * 2 * laying.variation;
        const [sx, sy] = fixed ? [0, 0] : [hash(id, 8, seed) * finish.size.width, hash(id, 9, seed) * finish.size.height];
        const flip = hash(id, 10, seed) < 0.5 && !fixed ? -1 : 1;
        for (let j = j0; j <= j1; j++)
          for (let i = i0; i <= i1; i++) {
            const [x, y] = [(i + 0.5) * dx - ox, (j + 0.5) * dy - oy];
            let d = Infinity;
            for (const e of edges) {
              const t = (x - e.x) * e.nx + (y - e.y) * e.ny;
              if (t < d) d = t;
            }
            const k = j * width + i;
            const part = Math.min(1 - cover[k], d / pixel + 0.5);
            if (part <= 0) continue;
            cover[k] += part;
            const [px, py] = [x - origin.x, y - origin.y];
            const p = px * along.x + py * along.y;
            const q = -px * along.y + py * along.x;
            const spot = matter(mod(sx + p * flip, finish.size.width), mod(sy + q * flip, finish.size.height), id);
            const bevel = d < edge ? Math.max(0, d) / edge : 1;
            const shade = spot.shade * tone * (0.62 + 0.38 * bevel) * part;
            const colour = spot.colour ?? base;
            linear[k * 3] += colour[0] * shade;
            linear[k * 3 + 1] += colour[1] * shade;
            linear[k * 3 + 2] += colour[2] * shade;
            // The lower edge of a lapped unit stands out, its upper edge lies under the next course.
            const lap = laying.lap > 0 ? laying.lap * (1 - q / unit.height) : 0;
            relief[k] += part * (laying.recess * Math.sqrt(bevel) + spot.height + lap);
            rough[k] += part * (spot.rough ?? 1);
          }
      }
  });
}

/** Sum over all pixels of the linear colour times a factor a channel, no more than covers the pixel. */
function sumOf({ linear, cover }: Field, [r, g, b]: readonly number[]): [number, number, number] {
  let [sr, sg, sb] = [0, 0, 0];
  for (let k = 0, j = 0; k < cover.length; k++, j += 3) {
    const most = cover[k];
    const [x, y, z] = [linear[j] * r, linear[j + 1] * g, linear[j + 2] * b];
    if (x > 0) sr += x < most ? x : most;
    if (y > 0) sg += y < most ? y : most;
    if (z > 0) sb += z < most ? z : most;
  }
  return [sr, sg, sb];
}

/** Factors that bring the mean of the matter to a colour; what is clipped at white is made up for. */
function gainsOf(field: Field, base: Rgb): number[] {
  const { linear, cover } = field;
  let count = 0;
  let [r, g, b] = [0, 0, 0];
  // The brightest matter of each channel, where it fills its pixel.
  let [br, bg, bb] = [0, 0, 0];
  for (let k = 0, j = 0; k < cover.length; k++, j += 3) {
    const share = cover[k];
    if (share === 0) continue;
    count += share;
    const [x, y, z] = [linear[j], linear[j + 1], linear[j + 2]];
    if (x > 0) r += x;
    if (y > 0) g += y;
    if (z > 0) b += z;
    if (x > br * share) br = x / share;
    if (y > bg * share) bg = y / share;
    if (z > bb * share) bb = z / share;
  }
  const [mean, brightest] = [
    [r, g, b],
    [br, bg, bb],
  ];
  let gain = base.map((colour, c) => (mean[c] > 0 ? (colour * count) / mean[c] : 1));
  // Where nothing is clipped the mean is right at once.
  if (gain.every((own, c) => own * brightest[c] <= 1)) return gain;
  for (let pass = 0; pass < 3; pass++) {
    const sum = sumOf(field, gain);
    gain = gain.map((own, c) => (sum[c] > 0 ? (own * base[c] * count) / sum[c] : own));
  }
  return gain;
}

/** Roughness of joints: mortar and grout are matt. */
const JOINT_ROUGHNESS = 0.92;

function paint(finish: Finish, width: number, height: number, window: Window, seed: number, image?: ImagePixels): Field {
  const count = width * height;
  const field: Field = {
    width,
    height,
    linear: new Float32Array(count * 3),
    cover: new Float32Array(count),
    relief: new Float32Array(count),
    rough: new Float32Array(count),
    open: new Float32Array(count),
  };
  const base = hexToLinear(finish.colour);
  const matter = matterOf(finish, seed, image);
  if (finish.laying) laid(field, finish, matter, base, window, seed);
  else sheet(field, finish, matter, base, window);
  return field;
}

/** Factors for the matter of a finish, from a small picture of all that repeats. */
function wholeGains(finish: Finish, seed: number, image?: ImagePixels): number[] {
  const { width, height } = textureSpan(finish);
  const k = 160 / Math.max(width, height);
  const field = paint(finish, Math.max(8, Math.round(width * k)), Math.max(8, Math.round(height * k)), { x: 0, y: 0, width, height }, seed, image);
  return gainsOf(field, hexToLinear(finish.colour));
}

function finished(field: Field, finish: Finish, gain: readonly number[], seed: number, size: { width: number; height: number }): Texture {
  const { width, height } = field;
  const count = width * height;
  const { linear, cover } = field;
  const [jr, jg, jb] = finish.laying ? hexToLinear(finish.laying.joints) : [0, 0, 0];
  const [gr, gg, gb] = gain;
  const colour = new Uint8Array(count * 4);
  // Written out by channel: this is gone through for every pixel of every texture.
  const mixed = (matter: number, most: number, joint: number): number => {
    const v = (matter > 0 ? (matter < most ? matter : most) : 0) + joint;
    return encode8(v < 1 ? v : 1);
  };
  for (let k = 0; k < count; k++) {
    const most = cover[k];
    const sand = most < 1 ? (1 - most) * (1 + 0.2 * (hash(k, 5, seed) - 0.5)) : 0;
    colour[k * 4] = mixed(linear[k * 3] * gr, most, jr * sand);
    colour[k * 4 + 1] = mixed(linear[k * 3 + 1] * gg, most, jg * sand);
    colour[k * 4 + 2] = mixed(linear[k * 3 + 2] * gb, most, jb * sand);
    colour[k * 4 + 3] = Math.round(255 * (1 - field.open[k]));
  }
  let [low, high] = [Infinity, -Infinity];
  for (const h of field.relief) {
    if (h < low) low = h;
    if (h > high) high = h;
  }
  const relief = high - low > 1e-7 && finish.relief > 0 ? field.relief.map((h) => (h - low) * finish.relief) : null;
  let rough: Uint8Array | null = null;
  if (field.rough.some((r) => r !== 1)) {
    rough = new Uint8Array(count);
    for (let k = 0; k < count; k++)
      rough[k] = Math.round(255 * Math.min(1, Math.max(0.02, finish.roughness * field.rough[k] + (1 - field.cover[k]) * JOINT_ROUGHNESS)));
  }
  return { width, height, size, colour, relief, rough };
}

/**
 * Makes the pixels of a finish over one repeat of its real size. Opposite edges agree; the linear mean colour of its
 * matter equals the declared one, that of its joints theirs, so that light reflectance and appearance cannot drift apart.
 *
 * @param pixels width of the texture, or its height where that is the longer side
 * @param seed changes the pattern, not its character
 * @param image pixels of the picture it is made from, where it is
 */
export function makeTexture(finish: Finish, pixels: number, seed = finish.figure, image?: ImagePixels): Texture {
  const { width, height } = textureSpan(finish);
  const k = pixels / Math.max(width, height);
  const [w, h] = isPlain(finish) ? [4, 4] : [Math.max(4, Math.round(width * k)), Math.max(4, Math.round(height * k))];
  const field = paint(finish, w, h, { x: 0, y: 0, width, height }, seed, image);
  return finished(field, finish, gainsOf(field, hexToLinear(finish.colour)), seed, { width, height });
}

/** A part of a finish's surface at any resolution, as a sample shows it; its tone is that of the whole. @param width, height pixels */
export function makeCutting(finish: Finish, window: Window, width: number, height: number, seed = finish.figure, image?: ImagePixels): Texture {
  return finished(paint(finish, width, height, window, seed, image), finish, wholeGains(finish, seed, image), seed, window);
}

/** Mean light reflectance value of a texture's own pixels, 0…100. */
export function textureLrv(texture: Texture): number {
  let sum = 0;
  const n = texture.width * texture.height;
  for (let k = 0; k < n; k++) sum += luminance([LINEAR[texture.colour[k * 4]], LINEAR[texture.colour[k * 4 + 1]], LINEAR[texture.colour[k * 4 + 2]]]);
  return (100 * sum) / n;
}

/**
 * Tangent-space normal map of a relief (OpenGL convention, y up along v), RGBA 8 bits.
 *
 * @param strength exaggeration of slopes
 */
export function normalMap(texture: Texture, strength = 1): Uint8Array | null {
  const { width, height, relief, size } = texture;
  if (!relief) return null;
  const out = new Uint8Array(width * height * 4);
  const dx = size.width / width;
  const dy = size.height / height;
  for (let j = 0; j < height; j++)
    for (let i = 0; i < width; i++) {
      const east = i + 1 === width ? 0 : i + 1;
      const west = i === 0 ? width - 1 : i - 1;
      const north = j + 1 === height ? 0 : j + 1;
      const south = j === 0 ? height - 1 : j - 1;
      const gx = ((relief[j * width + east] - relief[j * width + west]) / (2 * dx)) * strength;
      const gy = ((relief[north * width + i] - relief[south * width + i]) / (2 * dy)) * strength;
      const l = Math.sqrt(gx * gx + gy * gy + 1);
      const k = (j * width + i) * 4;
      out[k] = Math.round((-gx / l) * 127.5 + 127.5);
      out[k + 1] = Math.round((-gy / l) * 127.5 + 127.5);
      out[k + 2] = Math.round((1 / l) * 127.5 + 127.5);
      out[k + 3] = 255;
    }
  return out;
}
