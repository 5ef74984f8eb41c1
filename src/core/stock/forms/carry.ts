import type { Matrix } from '../../geometry/mesh';

/** Matrices by which forms are put in their place: columns, as `geometry/mesh`. */

export { shiftBy } from '../../geometry/extrude';

/** Turned about an axis through the origin by an angle, radians, then moved. */
export function about(axis: 'x' | 'y' | 'z', angle: number, x = 0, y = 0, z = 0): Matrix {
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  if (axis === 'x') return [1, 0, 0, 0, 0, c, s, 0, 0, -s, c, 0, x, y, z, 1];
  if (axis === 'y') return [c, 0, -s, 0, 0, 1, 0, 0, s, 0, c, 0, x, y, z, 1];
  return [c, s, 0, 0, -s, c, 0, 0, 0, 0, 1, 0, x, y, z, 1];
}

/** Lying form stood up: what looked up looks to the front (−y), then moved. */
export const upright = (x = 0, y = 0, z = 0): Matrix => about('x', Math.PI / 2, x, y, z);

/** Stretched along the axes, then moved. */
export const stretched = (sx: number, sy: number, sz: number, x = 0, y = 0, z = 0): Matrix => [sx, 0, 0, 0, 0, sy, 0, 0, 0, 0, sz, 0, x, y, z, 1];
