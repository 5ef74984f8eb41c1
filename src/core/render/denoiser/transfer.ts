/** The curve pictures of high range are brought into reach of the network by: piecewise, steep in the dark (Open Image Denoise, its PU function). */
const CURVE = {
  a: 1.41283765e3,
  b: 1.64593172,
  c: 4.31384981e-1,
  d: -2.94139609e-3,
  e: 1.92653254e-1,
  f: 6.26026094e-3,
  g: 9.98620152e-1,
  y0: 1.5794576e-6,
  y1: 3.22087631e-2,
  x0: 2.23151711e-3,
  x1: 3.70974749e-1,
} as const;

const forward = (y: number): number => {
  const { a, b, c, d, e, f, g, y0, y1 } = CURVE;
  return y <= y0 ? a * y : y <= y1 ? b * y ** c + d : e * Math.log(y + f) + g;
};
const backward = (x: number): number => {
  const { a, b, c, d, e, f, g, x0, x1 } = CURVE;
  return x <= x0 ? x / a : x <= x1 ? ((x - d) / b) ** (1 / c) : Math.exp((x - g) / e) - f;
};

/** The brightest there is: the largest half float. */
const BRIGHTEST = 65504;
const TOP = forward(BRIGHTEST);

/** Radiance as the network wants it, 0 to 1. @param radiance scaled by `exposure` */
export const encode = (radiance: number): number => forward(Math.min(BRIGHTEST, Math.max(0, radiance))) / TOP;
/** Radiance, still scaled, that the network means. */
export const decode = (value: number): number => backward(Math.max(0, value) * TOP);

/** Pixels a side of what one value of the meter stands for. */
const CELL = 16;

/**
 * What radiance is multiplied by before the network sees it: it brings the log-mean of its luminance, over cells of
 * 16 pixels, to 0.18.
 */
export function exposure(radiance: Float32Array, width: number, height: number): number {
  const [rows, columns] = [Math.ceil(height / CELL), Math.ceil(width / CELL)];
  let [sum, count] = [0, 0];
  for (let j = 0; j < rows; j++)
    for (let i = 0; i < columns; i++) {
      const [ya, yb] = [Math.floor((j * height) / rows), Math.floor(((j + 1) * height) / rows)];
      const [xa, xb] = [Math.floor((i * width) / columns), Math.floor(((i + 1) * width) / columns)];
      let l = 0;
      for (let y = ya; y < yb; y++)
        for (let x = xa; x < xb; x++) {
          const p = (y * width + x) * 3;
          l += 0.212671 * radiance[p] + 0.71516 * radiance[p + 1] + 0.072169 * radiance[p + 2];
        }
      l /= (yb - ya) * (xb - xa);
      if (!(l > 1e-8)) continue;
      sum += Math.log2(l);
      count++;
    }
  return count ? 0.18 / 2 ** (sum / count) : 1;
}
