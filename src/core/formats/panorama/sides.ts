/**
 * A picture all round (equirectangular: longitude across, 0 in the middle, latitude down from the zenith) as six square sides of a
 * cube about the eye, each 90° wide, as one sees them looking that way.
 */
export const SIDES = ['front', 'right', 'back', 'left', 'up', 'down'] as const;
export type Side = (typeof SIDES)[number];

type Axes = readonly [forward: readonly number[], right: readonly number[], up: readonly number[]];

/** Axes of each side: x ahead, y to the right, z up. */
const AXES: Record<Side, Axes> = {
  front: [
    [1, 0, 0],
    [0, 1, 0],
    [0, 0, 1],
  ],
  right: [
    [0, 1, 0],
    [-1, 0, 0],
    [0, 0, 1],
  ],
  back: [
    [-1, 0, 0],
    [0, -1, 0],
    [0, 0, 1],
  ],
  left: [
    [0, -1, 0],
    [1, 0, 0],
    [0, 0, 1],
  ],
  up: [
    [0, 0, 1],
    [0, 1, 0],
    [-1, 0, 0],
  ],
  down: [
    [0, 0, -1],
    [0, 1, 0],
    [1, 0, 0],
  ],
};

/**
 * One side, interpolated between the four nearest pixels.
 *
 * @param picture RGBA, row by row from the top
 * @param size pixels of the side
 */
export function sideOf(
  picture: { data: Uint8Array | Uint8ClampedArray; width: number; height: number },
  side: Side,
  size: number,
): Uint8ClampedArray<ArrayBuffer> {
  const { data, width, height } = picture;
  const [forward, right, up] = AXES[side];
  const out = new Uint8ClampedArray(size * size * 4);
  for (let j = 0; j < size; j++)
    for (let i = 0; i < size; i++) {
      const [a, b] = [(2 * (i + 0.5)) / size - 1, 1 - (2 * (j + 0.5)) / size];
      const [x, y, z] = [0, 1, 2].map((c) => forward[c] + a * right[c] + b * up[c]);
      const u = (Math.atan2(y, x) / (2 * Math.PI) + 0.5) * width - 0.5;
      const v = Math.min(height - 1, Math.max(0, (0.5 - Math.atan2(z, Math.hypot(x, y)) / Math.PI) * height - 0.5));
      const [u0, v0] = [Math.floor(u), Math.floor(v)];
      const v1 = Math.min(height - 1, v0 + 1);
      const [fu, fv] = [u - u0, v - v0];
      // Round the back the last column meets the first.
      const [c0, c1] = [(u0 + width) % width, (u0 + 1) % width];
      for (let c = 0; c < 4; c++) {
        const at = (col: number, row: number): number => data[(row * width + col) * 4 + c];
        const top = at(c0, v0) * (1 - fu) + at(c1, v0) * fu;
        const foot = at(c0, v1) * (1 - fu) + at(c1, v1) * fu;
        out[(j * size + i) * 4 + c] = top * (1 - fv) + foot * fv;
      }
    }
  return out;
}
