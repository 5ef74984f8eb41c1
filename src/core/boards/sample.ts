import { encode8, toLinear } from '../finishes/colour';
import { isPlain, meanColour, type Finish } from '../finishes/finish';
import { tilingOf } from '../finishes/laying/pattern';
import { cuttingOf } from '../finishes/store';
import type { SampleForm } from '../project/schema';

/** The form that suits a finish as a sample. */
export function naturalForm(finish: Finish): SampleForm {
  switch (finish.category) {
    case 'Timber':
      return 'plank';
    case 'Tile':
    case 'Brick':
      return 'tiles';
    case 'Carpet':
    case 'Cloth':
      return 'swatch';
    case 'Metal':
      return 'disc';
    default:
      return finish.laying ? 'tiles' : 'board';
  }
}

/** How much of the real surface a sample shows across its longer side, metres: one can see what the finish is. */
export function sampleSpan(finish: Finish): number {
  if (finish.laying) {
    const { pattern, width, height } = finish.laying;
    const { period, units } = tilingOf(finish.laying);
    if (pattern === 'panel') return Math.min(1.6, width * 1.25);
    // About six units across, whatever their pattern; boards by their width.
    return pattern === 'plank' ? Math.max(0.5, height * 4.2) : Math.min(2.4, Math.max(0.1, 5 * Math.sqrt((period.x * period.y) / units.length)));
  }
  const m = finish.body;
  switch (m.kind) {
    case 'timber':
      return 0.5;
    case 'weave':
      return m.thread * 30;
    case 'boucle':
      return m.loop * 14;
    case 'pile':
      return m.loop * 26;
    case 'hide':
      return 0.12;
    case 'grasscloth':
      return 0.16;
    case 'motif':
      return m.pitch * 3.2;
    case 'stripe':
      return m.width * m.colours.length * 5 + m.width * 4;
    case 'terrazzo':
      return Math.max(0.32, m.chip * 12);
    case 'granite':
      return m.grain * 40;
    case 'pebbles':
      return m.stone * 12;
    case 'ribs':
      return m.pitch * 9;
    case 'boards':
      return m.height * 5;
    case 'stipple':
      return m.cell * 26;
    case 'cork':
      return m.grain * 26;
    case 'studs':
    case 'perforated':
    case 'mesh':
      return m.pitch * 8;
    case 'hammered':
      return m.cell * 9;
    default:
      return Math.min(finish.size.width, 1);
  }
}

export interface SamplePicture {
  width: number;
  height: number;
  /** RGBA, 8 bits, sRGB, transparent outside the sample's outline. */
  pixels: Uint8ClampedArray;
}

/** Light from the upper left, a little above the sample. */
const LIGHT = { x: -0.62, y: 0.62, z: 0.48 };

/**
 * A finish as a physical chip seen from above: its own matter at true proportion with the light in its relief, the
 * outline of its form, an edge that catches the light from the upper left.
 *
 * @param width pixels
 * @param height pixels
 * @param fine how many samples a pixel is the mean of, in each direction
 */
export function makeSample(finish: Finish, form: SampleForm, width: number, height: number, fine = 2): SamplePicture {
  const pixels = new Uint8ClampedArray(width * height * 4);
  const span = sampleSpan(finish) / Math.max(width, height);
  const window = { x: 0, y: 0, width: span * width, height: span * height };
  const texture = isPlain(finish) ? null : cuttingOf(finish, window, width * fine, height * fine);
  const base = meanColour(finish);
  const glossy = finish.roughness < 0.35;
  const metal = finish.metalness > 0.5;
  const pitch = Math.max(5, Math.min(width, height) / 16);
  const table = Float32Array.from({ length: 256 }, (_, i) => toLinear(i / 255));
  const step = texture ? window.width / texture.width : 1;
  const mean = [0, 0, 0];
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const o = (y * width + x) * 4;
      const inside = coverage(form, x + 0.5, y + 0.5, width, height, pitch);
      if (inside <= 0) continue;
      mean[0] = mean[1] = mean[2] = 0;
      if (texture)
        for (let sy = 0; sy < fine; sy++)
          for (let sx = 0; sx < fine; sx++) {
            const i = x * fine + sx;
            // Surfaces run upwards, pictures downwards.
            const j = texture.height - 1 - (y * fine + sy);
            const k = j * texture.width + i;
            const lit = texture.relief ? reliefLight(texture.relief, texture.width, texture.height, i, j, step) : 1;
            for (let c = 0; c < 3; c++) mean[c] += (table[texture.colour[k * 4 + c]] * lit) / (fine * fine);
          }
      else for (let c = 0; c < 3; c++) mean[c] = base[c];
      // The sheen of the whole chip, and its lit and shaded edges.
      const diagonal = (x / width + y / height) / 2;
      let light = 1;
      if (metal) light = 0.82 + 0.5 * Math.exp(-(((diagonal - 0.32) / 0.16) ** 2)) - 0.25 * diagonal;
      else if (glossy) light = 0.98 + 0.1 * Math.exp(-(((diagonal - 0.3) / 0.2) ** 2));
      else if (form === 'swatch') light = 1 + 0.035 * Math.sin((x / width) * 9 + (y / height) * 4);
      light *= 1 + bevelLight(form, x + 0.5, y + 0.5, width, height);
      for (let c = 0; c < 3; c++) pixels[o + c] = encode8(Math.min(1, mean[c] * light));
      pixels[o + 3] = Math.round(255 * inside * (finish.transmission > 0 ? 0.55 : 1));
    }
  return { width, height, pixels };
}

/** How light falls on a point of a relief against a flat one, gently. */
function reliefLight(relief: Float32Array, width: number, height: number, i: number, j: number, step: number): number {
  const row = Math.min(height - 1, Math.max(0, j)) * width;
  const column = Math.min(width - 1, Math.max(0, i));
  const gx = (relief[row + Math.min(width - 1, i + 1)] - relief[row + Math.max(0, i - 1)]) / (2 * step);
  const gy = (relief[Math.min(height - 1, j + 1) * width + column] - relief[Math.max(0, j - 1) * width + column]) / (2 * step);
  const lit = (-gx * LIGHT.x - gy * LIGHT.y + LIGHT.z) / Math.hypot(gx, gy, 1) / LIGHT.z;
  return Math.max(0.35, Math.min(1.6, 0.45 + 0.55 * lit));
}

const soft = (d: number): number => Math.max(0, Math.min(1, d + 0.5));

/** Depth of a pinked edge along a side, a tooth every pitch. */
const tooth = (t: number, pitch: number): number => Math.abs(((t / pitch) % 1) - 0.5) * pitch;

/** Share of a pixel inside the outline of a form. */
function coverage(form: SampleForm, x: number, y: number, w: number, h: number, pitch: number): number {
  if (form === 'disc') return soft(Math.min(w, h) / 2 - 1 - Math.hypot(x - w / 2, y - h / 2));
  if (form !== 'swatch') return soft(Math.min(x, w - x, y, h - y) - 0.5);
  const [across, down] = [tooth(y, pitch), tooth(x, pitch)];
  return soft(Math.min(x - across - 0.5, w - x - across - 0.5, y - down - 0.5, h - y - down - 0.5));
}

/** Light on the edge of a chip: positive at the upper left, negative at the lower right. */
function bevelLight(form: SampleForm, x: number, y: number, w: number, h: number): number {
  if (form === 'swatch' || form === 'tiles') return 0;
  const band = Math.max(1.2, Math.min(w, h) * (form === 'plank' ? 0.02 : 0.012));
  if (form === 'disc') {
    const d = Math.min(w, h) / 2 - Math.hypot(x - w / 2, y - h / 2);
    return d < band * 2 ? 0.3 * ((w / 2 - x + h / 2 - y) / (w / 2 + h / 2)) * 2 * (1 - d / (band * 2)) : 0;
  }
  if (Math.min(x, y) < band) return 0.22 * (1 - Math.min(x, y) / band);
  if (Math.min(w - x, h - y) < band) return -0.3 * (1 - Math.min(w - x, h - y) / band);
  return 0;
}
