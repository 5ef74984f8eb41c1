import { luminance } from '../finishes/colour';
import type { LightShare } from '../light/shares';
import type { GroupLight } from '../project/schema';
import { lightsAsTraced, relight } from './development';

/** A small picture of one for print, whose lights are told apart. */
export interface SmallLight {
  width: number;
  height: number;
  /** Three values a pixel, cd/m². */
  radiance: Float32Array;
  shares: readonly LightShare[];
}

/** Stops between two pixels at which one counts half as much for the other: across an edge of light or colour it hardly counts. */
const APART = 0.5;

/**
 * Dims, switches and colours the lights of a picture for print by the shares of its small picture: joint bilateral upsampling
 * (Kopf, Cohen, Lischinski and Uyttendaele 2007). What a pixel is multiplied by comes from the four small ones about it, and most
 * from those that are as bright as it is, so that edges stay as sharp as they are.
 */
export class PrintLights {
  private readonly gains: Float32Array | null;
  private readonly stops: Float32Array;

  constructor(
    private readonly small: SmallLight,
    lights: readonly GroupLight[],
  ) {
    const { radiance, shares, width, height } = small;
    const lit = !shares.length || lightsAsTraced(lights) ? null : relight(radiance, shares, lights);
    this.gains = lit && lit.map((v, i) => (radiance[i] > 0 ? v / radiance[i] : 1));
    this.stops = Float32Array.from({ length: lit ? width * height : 0 }, (_, i) => stopsOf(radiance, i));
  }

  /**
   * Rows of the large picture as they are lit now.
   *
   * @param rows radiance, three values a pixel @param from which row of the picture the first of them is @param size of the whole picture
   */
  lit(rows: Float32Array<ArrayBuffer>, from: number, size: { width: number; height: number }): Float32Array<ArrayBuffer> {
    const { gains, stops } = this;
    if (!gains) return rows;
    const { width: sw, height: sh } = this.small;
    const { width } = size;
    const out = new Float32Array(rows.length);
    const near = [0, 0, 0, 0];
    const weights = [0, 0, 0, 0];
    for (let i = 0; i < rows.length / 3; i++) {
      const u = (((i % width) + 0.5) * sw) / width - 0.5;
      const v = ((from + Math.floor(i / width) + 0.5) * sh) / size.height - 0.5;
      const [x, y] = [Math.floor(u), Math.floor(v)];
      const own = stopsOf(rows, i);
      let sum = 0;
      for (let k = 0; k < 4; k++) {
        const [dx, dy] = [k & 1, k >> 1];
        near[k] = Math.min(sh - 1, Math.max(0, y + dy)) * sw + Math.min(sw - 1, Math.max(0, x + dx));
        const lie = (dx ? u - x : 1 - u + x) * (dy ? v - y : 1 - v + y);
        const apart = (stops[near[k]] - own) / APART;
        // Never nothing: a pixel like none of the four is lit as all of them.
        weights[k] = lie * (2 ** -(apart * apart) + 1e-6);
        sum += weights[k];
      }
      for (let c = 0; c < 3; c++) {
        let gain = 0;
        for (let k = 0; k < 4; k++) gain += gains[near[k] * 3 + c] * weights[k];
        out[i * 3 + c] = (rows[i * 3 + c] * gain) / sum;
      }
    }
    return out;
  }
}

/** Luminance of a pixel in stops. */
const stopsOf = (radiance: Float32Array, i: number): number => Math.log2(1e-4 + luminance([radiance[i * 3], radiance[i * 3 + 1], radiance[i * 3 + 2]]));
