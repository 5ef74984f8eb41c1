import type { Mask } from '../light/mask';
import type { LightShare } from '../light/shares';
import type { Region } from './tracer';

/** A picture’s light, or that of a part of it. */
export interface Lit {
  /** Three values a pixel, cd/m². */
  radiance: Float32Array;
  shares: readonly LightShare[];
}

/** Over so many pixels a part that was made again goes over into what is about it. */
const EDGE = 8;

/**
 * How much of each pixel of a part is new: all of it inside, less towards the sides that lie within the picture.
 *
 * @param size of the picture, pixels
 */
export function partWeights(region: Region, size: { width: number; height: number }): Float32Array {
  const soft = (near: number, inside: boolean): number => (inside ? Math.min(1, (near + 0.5) / EDGE) : 1);
  const { x, y, width: w, height: h } = region;
  return Float32Array.from({ length: w * h }, (_, k) => {
    const [i, j] = [k % w, Math.floor(k / w)];
    return soft(i, x > 0) * soft(w - 1 - i, x + w < size.width) * soft(j, y > 0) * soft(h - 1 - j, y + h < size.height);
  });
}

/** Blends values of a part into those of the whole, in a copy. @param per values a pixel */
export function blend(whole: Float32Array, part: Float32Array, weights: Float32Array, region: Region, width: number, per: number): Float32Array<ArrayBuffer> {
  const out = new Float32Array(whole);
  weights.forEach((w, k) => {
    const at = ((region.y + Math.floor(k / region.width)) * width + region.x + (k % region.width)) * per;
    for (let c = 0; c < per; c++) {
      const [before, now] = [whole[at + c], part[k * per + c]];
      // What is infinitely far has no middle.
      out[at + c] = w >= 1 || !Number.isFinite(before) || !Number.isFinite(now) ? now : before + (now - before) * w;
    }
  });
  return out;
}

/** A mask with a part of it made again: what is called alike is one object, what is new gets a number of its own. Pixels that are mostly new are those of the part. */
export function maskWithPart(whole: Mask, part: Mask, weights: Float32Array, region: Region, width: number): Mask {
  const names = [...whole.names];
  const numbers = part.names.map((name) => {
    const known = names.indexOf(name);
    return known < 0 ? names.push(name) : known + 1;
  });
  const ids = whole.ids.slice();
  weights.forEach((w, k) => {
    const own = part.ids[k];
    if (w >= 0.5) ids[(region.y + Math.floor(k / region.width)) * width + region.x + (k % region.width)] = own ? numbers[own - 1] : 0;
  });
  return { ids, names };
}

/**
 * A picture with a part of it made again. Each light is blended by itself, so that shares still sum to one; a light that only
 * one of the two knows gives nothing in the other.
 */
export function withPart(
  whole: Lit,
  part: Lit,
  region: Region,
  size: { width: number; height: number },
): { radiance: Float32Array<ArrayBuffer>; shares: LightShare[] } {
  const weights = partWeights(region, size);
  const radiance = blend(whole.radiance, part.radiance, weights, region, size.width, 3);
  const kinds = [...whole.shares, ...part.shares.filter((s) => !whole.shares.some((w) => w.name === s.name))];
  // Without the lights of one of the two told apart, none are afterwards.
  if (!whole.shares.length || !part.shares.length) return { radiance, shares: [] };
  const none = { whole: new Float32Array(whole.radiance.length), part: new Float32Array(part.radiance.length) };
  const shares = kinds.map(({ name, kelvin }): LightShare => {
    const lightOf = ({ radiance: all, shares: own }: Lit, empty: Float32Array): Float32Array => {
      const share = own.find((s) => s.name === name)?.share;
      return share ? share.map((v, i) => v * all[i]) : empty;
    };
    const light = blend(lightOf(whole, none.whole), lightOf(part, none.part), weights, region, size.width, 3);
    const outside = whole.shares.find((s) => s.name === name)?.share;
    // Where nothing shines shares stay what they were.
    return { name, kelvin, share: light.map((v, i) => (radiance[i] > 0 ? v / radiance[i] : (outside?.[i] ?? 0))) };
  });
  return { radiance, shares };
}
