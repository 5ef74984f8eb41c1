import { turnAbout } from '../../geometry/extrude';
import type { Matrix } from '../../geometry/mesh';

/** Matrices by which forms are put in their place: columns, as `geometry/mesh`. */

export { shiftBy } from '../../geometry/extrude';

const AXES = { x: { x: 1, y: 0, z: 0 }, y: { x: 0, y: 1, z: 0 }, z: { x: 0, y: 0, z: 1 } } as const;
const ORIGIN = { x: 0, y: 0, z: 0 };

/** Turned about an axis through the origin by an angle, radians, then moved. */
export const about = (axis: 'x' | 'y' | 'z', angle: number, x = 0, y = 0, z = 0): Matrix => [...turnAbout(ORIGIN, AXES[axis], angle).slice(0, 12), x, y, z, 1];

/** Lying form stood up: what looked up looks to the front (−y), then moved. */
export const upright = (x = 0, y = 0, z = 0): Matrix => about('x', Math.PI / 2, x, y, z);

/** Stretched along the axes, then moved. */
export const stretched = (sx: number, sy: number, sz: number, x = 0, y = 0, z = 0): Matrix => [sx, 0, 0, 0, 0, sy, 0, 0, 0, 0, sz, 0, x, y, z, 1];
