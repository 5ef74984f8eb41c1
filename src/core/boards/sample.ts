import { encode8, hexToLinear } from '../finishes/colour';
import type { Finish } from '../finishes/finish';
import { toLinear } from '../finishes/colour';
import type { SampleForm } from '../project/schema';
import { textureOf } from '../render/picture';

/** The form that suits a finish as a sample. */
export function naturalForm(finish: Finish): SampleForm {
  switch (finish.category) {
    case 'Timber':
      return 'plank';
    case 'Tile & brick':
      return 'tiles';
    case 'Carpet & cloth':
      return 'swatch';
    case 'Metal':
      return 'disc';
    default:
      return 'board';
  }
}

/** How much of the real surface a sample shows across its longer side, metres: one can see what the finish is. */
export function sampleSpan(finish: Finish): number {
  const m = finish.maker;
  switch (m.kind) {
    case 'tiles':
      return Math.max(0.3, m.width * 4.2);
    case 'hexagons':
      return m.across * 4;
    case 'planks':
    case 'herringbone':
      return 0.62;
    case 'grain':
      return 0.5;
    case 'weave':
      return 0.06;
    case 'pile':
      return 0.18;
    case 'hide':
      return 0.12;
    case 'terrazzo':
      return 0.32;
    case 'pebbles':
      return 0.3;
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

/**
 * A finish as a physical chip seen from above: its texture at true proportion, the outline of its form, an edge that
 * catches the light from the upper left.
 *
 * @param width pixels
 * @param height pixels
 * @param texturePixels resolution the texture is made at
 */
export function makeSample(finish: Finish, form: SampleForm, width: number, height: number, texturePixels = 384): SamplePicture {
  const pixels = new Uint8ClampedArray(width * height * 4);
  const texture = finish.maker.kind === 'flat' ? null : textureOf(finish, texturePixels);
  const base = hexToLinear(finish.colour);
  const span = sampleSpan(finish) / Math.max(width, height);
  const glossy = finish.roughness < 0.35;
  const metal = finish.metalness > 0.5;
  const pitch = Math.max(5, Math.min(width, height) / 16);
  const table = Float32Array.from({ length: 256 }, (_, i) => toLinear(i / 255));
  // Texels under one pixel are averaged, so that fine patterns do not shimmer.
  const steps = texture ? Math.max(1, Math.min(4, Math.round((span * texture.width) / finish.size.width))) : 1;
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const o = (y * width + x) * 4;
      const inside = coverage(form, x + 0.5, y + 0.5, width, height, pitch);
      if (inside <= 0) continue;
      let [r, g, b] = base;
      if (texture) {
        [r, g, b] = [0, 0, 0];
        for (let sy = 0; sy < steps; sy++)
          for (let sx = 0; sx < steps; sx++) {
            const u = ((x + (sx + 0.5) / steps) * span) / finish.size.width;
            const v = ((y + (sy + 0.5) / steps) * span) / finish.size.height;
            const k = (Math.floor((v % 1) * texture.height) * texture.width + Math.floor((u % 1) * texture.width)) * 4;
            r += table[texture.colour[k]];
            g += table[texture.colour[k + 1]];
            b += table[texture.colour[k + 2]];
          }
        const n = steps * steps;
        r /= n;
        g /= n;
        b /= n;
      }
      // The sheen of the whole chip, and its lit and shaded edges.
      const diagonal = (x / width + y / height) / 2;
      let light = 1;
      if (metal) light = 0.82 + 0.5 * Math.exp(-(((diagonal - 0.32) / 0.16) ** 2)) - 0.25 * diagonal;
      else if (glossy) light = 0.98 + 0.1 * Math.exp(-(((diagonal - 0.3) / 0.2) ** 2));
      else if (form === 'swatch') light = 1 + 0.035 * Math.sin((x / width) * 9 + (y / height) * 4);
      const edge = bevelLight(form, x + 0.5, y + 0.5, width, height);
      light *= 1 + edge;
      pixels[o] = encode8(Math.min(1, r * light));
      pixels[o + 1] = encode8(Math.min(1, g * light));
      pixels[o + 2] = encode8(Math.min(1, b * light));
      pixels[o + 3] = Math.round(255 * inside * (finish.transmission > 0 ? 0.55 : 1));
    }
  return { width, height, pixels };
}

/** Share of a pixel inside the outline of a form. */
function coverage(form: SampleForm, x: number, y: number, w: number, h: number, pitch: number): number {
  const soft = (d: number): number => Math.max(0, Math.min(1, d + 0.5));
  if (form === 'disc') {
    const r = Math.min(w, h) / 2 - 1;
    return soft(r - Math.hypot(x - w / 2, y - h / 2));
  }
  if (form === 'swatch') {
    // Pinked edges: a row of teeth along each side.
    const tooth = (t: number): number => Math.abs(((t / pitch) % 1) - 0.5) * pitch;
    const d = Math.min(x - tooth(y) - 0.5, w - x - tooth(y) - 0.5, y - tooth(x) - 0.5, h - y - tooth(x) - 0.5);
    return soft(d);
  }
  return soft(Math.min(x, w - x, y, h - y) - 0.5);
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
