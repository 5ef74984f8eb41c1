import { luminance } from '../finishes/colour';

/** What some passes of a picture sum up to. */
export interface Sums {
  samples: number;
  sum: Float32Array;
  guides: Float32Array;
  squares: Float32Array;
}

/** The passes of a picture added up: mean radiance, mean guides and how uncertain each pixel still is. */
export class Accumulator {
  samples = 0;
  private readonly sum: Float32Array;
  private readonly guideSum: Float32Array;
  private readonly squares: Float32Array;

  constructor(
    readonly width: number,
    readonly height: number,
  ) {
    const n = width * height;
    this.sum = new Float32Array(n * 3);
    this.guideSum = new Float32Array(n * 6);
    this.squares = new Float32Array(n);
  }

  /**
   * Adds one pass of one sample a pixel, as `Tracer.pass` makes it in empty buffers.
   *
   * @param pass linear RGB, cd/m²
   * @param guides first-hit colour and normal
   */
  add(pass: Float32Array, guides: Float32Array): void {
    for (let i = 0; i < this.sum.length; i++) this.sum[i] += pass[i];
    for (let i = 0; i < this.guideSum.length; i++) this.guideSum[i] += guides[i];
    for (let i = 0, k = 0; i < this.squares.length; i++, k += 3) {
      const l = luminance([pass[k], pass[k + 1], pass[k + 2]]);
      this.squares[i] += l * l;
    }
    this.samples++;
  }

  /** What has been added so far, as copies. */
  sums(): Sums {
    return { samples: this.samples, sum: this.sum.slice(), guides: this.guideSum.slice(), squares: this.squares.slice() };
  }

  /** The passes of several together, each with what it has so far. */
  static of(width: number, height: number, parts: readonly Sums[]): Accumulator {
    const whole = new Accumulator(width, height);
    for (const { samples, sum, guides, squares } of parts) {
      whole.samples += samples;
      for (let i = 0; i < sum.length; i++) whole.sum[i] += sum[i];
      for (let i = 0; i < guides.length; i++) whole.guideSum[i] += guides[i];
      for (let i = 0; i < squares.length; i++) whole.squares[i] += squares[i];
    }
    return whole;
  }

  /** Mean radiance, three values a pixel. */
  mean(): Float32Array<ArrayBuffer> {
    return new Float32Array(this.sum.map((v) => v / this.samples));
  }

  guides(): Float32Array<ArrayBuffer> {
    return new Float32Array(this.guideSum.map((v) => v / this.samples));
  }

  /** Variance of the mean luminance of each pixel (unbiased; very large after a single pass). */
  variance(): Float32Array<ArrayBuffer> {
    const n = this.samples;
    return new Float32Array(
      this.squares.map((square, i) => {
        const mean = luminance([this.sum[i * 3], this.sum[i * 3 + 1], this.sum[i * 3 + 2]]) / n;
        return n < 2 ? mean * mean : Math.max(0, square / n - mean * mean) / (n - 1);
      }),
    );
  }
}
