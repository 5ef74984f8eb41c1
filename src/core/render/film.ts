import type { Mask } from '../light/mask';
import { luminance } from '../finishes/colour';

/** What has been traced of a picture or of a part of it, as sums; plain data. */
export interface Exposed {
  width: number;
  height: number;
  /** How many light groups each pixel keeps. */
  groups: number;
  /** Samples of each pixel. */
  counts: Uint32Array;
  /** Light: red, green, blue and nothing of each group of each pixel, cd/m². */
  light: Float32Array;
  /** Squares of the luminance of each sample. */
  squares: Float32Array;
  /** Of the first surface that scatters: colour, depth; normal, how many samples met one; eight values a pixel. */
  guides: Float32Array;
  /** The object each pixel shows, 1 for the first of `names`; 0: none. What was kept before there were masks has neither. */
  objects?: Uint32Array;
  names?: readonly string[];
}

/** The samples of a picture added up: light by group, guides, and how uncertain each pixel still is. */
export class Film {
  constructor(readonly sums: Exposed) {}

  /** The samples of several hands together. @throws RangeError where they are not of one size */
  static of(parts: readonly Exposed[]): Film {
    const [first, ...rest] = parts;
    if (!rest.length) return new Film(first);
    const whole: Exposed = {
      ...first,
      counts: first.counts.slice(),
      light: first.light.slice(),
      squares: first.squares.slice(),
      guides: first.guides.slice(),
      ...(first.objects ? { objects: first.objects.slice() } : {}),
    };
    for (const part of rest) {
      if (part.width !== whole.width || part.height !== whole.height || part.groups !== whole.groups) throw new RangeError('Parts of different pictures.');
      for (const key of ['counts', 'light', 'squares', 'guides'] as const) {
        const [to, from] = [whole[key], part[key]];
        for (let i = 0; i < to.length; i++) to[i] += from[i];
      }
      // A pixel shows what the first hand met there.
      const [own, more] = [whole.objects, part.objects];
      if (own && more) for (let i = 0; i < own.length; i++) own[i] ||= more[i];
    }
    return new Film(whole);
  }

  /** Mean number of samples a pixel. */
  get samples(): number {
    const { counts } = this.sums;
    let sum = 0;
    for (const n of counts) sum += n;
    return counts.length ? sum / counts.length : 0;
  }

  /** Mean radiance of the whole, or of one light group, three values a pixel. */
  mean(group?: number): Float32Array<ArrayBuffer> {
    const { counts, light, groups } = this.sums;
    const out = new Float32Array(counts.length * 3);
    const [from, to] = group === undefined ? [0, groups] : [group, group + 1];
    for (let i = 0; i < counts.length; i++) {
      const n = counts[i] || 1;
      for (let g = from; g < to; g++) {
        const k = (i * groups + g) * 4;
        out[i * 3] += light[k] / n;
        out[i * 3 + 1] += light[k + 1] / n;
        out[i * 3 + 2] += light[k + 2] / n;
      }
    }
    return out;
  }

  /** Mean colour and normal of the first surface that scatters, six values a pixel, as the denoiser is guided. */
  guides(): Float32Array<ArrayBuffer> {
    const { counts, guides } = this.sums;
    const out = new Float32Array(counts.length * 6);
    for (let i = 0; i < counts.length; i++) {
      const n = counts[i] || 1;
      for (let c = 0; c < 3; c++) {
        out[i * 6 + c] = guides[i * 8 + c] / n;
        out[i * 6 + 3 + c] = guides[i * 8 + 4 + c] / n;
      }
    }
    return out;
  }

  /** Mean distance of what is seen, along the axis of the camera, metres; infinite where nothing is. */
  depth(): Float32Array<ArrayBuffer> {
    const { counts, guides } = this.sums;
    return Float32Array.from({ length: counts.length }, (_, i) => (guides[i * 8 + 7] ? guides[i * 8 + 3] / guides[i * 8 + 7] : Infinity));
  }

  /** How much of each pixel shows something, 0…1: elsewhere it is open ground or sky. */
  cover(): Float32Array<ArrayBuffer> {
    const { counts, guides } = this.sums;
    return Float32Array.from(counts, (n, i) => (n ? guides[i * 8 + 7] / n : 0));
  }

  /** All that is known of each pixel besides its light. */
  passes(): { guides: Float32Array; depth: Float32Array; cover: Float32Array; objects?: Mask | null } {
    const { objects: ids, names } = this.sums;
    return { guides: this.guides(), depth: this.depth(), cover: this.cover(), objects: ids && names ? { ids, names } : null };
  }

  /** Mean standard error of the luminance of a pixel, as a share of the mean luminance; 0 where all is dark. */
  noise(): number {
    const mean = this.mean();
    let [light, error] = [0, 0];
    this.variance().forEach((v, i) => {
      error += Math.sqrt(v);
      light += luminance([mean[i * 3], mean[i * 3 + 1], mean[i * 3 + 2]]);
    });
    return light > 0 ? error / light : 0;
  }

  /** Variance of the mean luminance of each pixel (unbiased; very large after a single sample). */
  variance(): Float32Array<ArrayBuffer> {
    const { counts, squares } = this.sums;
    const mean = this.mean();
    const out = new Float32Array(counts.length);
    for (let i = 0; i < counts.length; i++) {
      const n = counts[i];
      const l = luminance([mean[i * 3], mean[i * 3 + 1], mean[i * 3 + 2]]);
      out[i] = n < 2 ? l * l : Math.max(0, squares[i] / n - l * l) / (n - 1);
    }
    return out;
  }
}
