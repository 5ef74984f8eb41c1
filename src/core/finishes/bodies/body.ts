import type { Body } from '../../project/schema';
import type { Rgb } from '../colour';
import { cellField, fractalField, noiseField } from '../noise';

/** What a maker says about one point of matter. */
export interface Spot {
  /** Multiplies the base colour. */
  shade: number;
  /** Replaces the base colour, linear; `shade` still multiplies it. */
  colour?: Rgb;
  /** Metres above the lowest point. */
  height: number;
  /** Factor on the finish's roughness, 1 where it is left out. */
  rough?: number;
  /** Share of it that is open: what lies behind is seen. 0 where it is left out. */
  open?: number;
}

/** Matter at a point, in metres from the corner of what repeats; `id` tells units apart. */
export type Matter = (x: number, y: number, id: number) => Spot;

/** What a maker draws on: the size of what repeats, the base colour and a seed. */
export interface Ground {
  width: number;
  height: number;
  colour: Rgb;
  seed: number;
}

export type Makers<K extends Body['kind']> = { [P in K]: (body: Extract<Body, { kind: P }>, ground: Ground) => Matter };

/** Random fields over what repeats, told how long their features are in metres. */
export class Fields {
  constructor(
    private readonly width: number,
    private readonly height: number,
    private readonly seed: number,
  ) {}

  private across(length: number): number {
    return Math.max(1, Math.round(this.width / length));
  }

  private up(length: number): number {
    return Math.max(1, Math.round(this.height / length));
  }

  /** Value noise in −1…1 with features `lx` × `ly` metres. */
  noise(lx: number, ly = lx, salt = 0): (x: number, y: number) => number {
    const { width, height } = this;
    const field = noiseField(this.across(lx), this.up(ly), this.seed + salt);
    return (x, y) => field(x / width, y / height);
  }

  /** Octaves of noise, the coarsest with features `lx` × `ly` metres. */
  fractal(lx: number, ly = lx, octaves = 4, salt = 0): (x: number, y: number) => number {
    const { width, height } = this;
    const field = fractalField(this.across(lx), this.up(ly), this.seed + salt, octaves);
    return (x, y) => field(x / width, y / height);
  }

  /** Cells about `length` metres wide: distances to the nearest two centres in cells, and the number of the nearest. */
  cells(lx: number, ly = lx, salt = 0): (x: number, y: number) => { near: number; next: number; id: number } {
    const { width, height } = this;
    const field = cellField(this.across(lx), this.up(ly), this.seed + salt);
    return (x, y) => field(x / width, y / height);
  }

  /** A length brought to a whole number of times across, or up. */
  fitAcross(length: number): number {
    return this.width / this.across(length);
  }

  fitUp(length: number): number {
    return this.height / this.up(length);
  }

  countUp(length: number): number {
    return this.up(length);
  }

  countAcross(length: number): number {
    return this.across(length);
  }
}

export const clamp01 = (v: number): number => (v < 0 ? 0 : v > 1 ? 1 : v);
export const smoothstep = (a: number, b: number, v: number): number => {
  const t = clamp01((v - a) / (b - a));
  return t * t * (3 - 2 * t);
};
export const mix = (a: Rgb, b: Rgb, t: number): Rgb => [a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t, a[2] + (b[2] - a[2]) * t];
export const mod = (v: number, n: number): number => ((v % n) + n) % n;
