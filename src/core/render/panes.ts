import type { Portal } from './scene';

/** Distance along a ray of direction cosine `c` to the plane of a rectangle. */
export const crossing = (p: Portal, x: number, y: number, z: number, c: number): number =>
  Math.abs(c) < 1e-9 ? -1 : ((p.corner.x - x) * p.normal.x + (p.corner.y - y) * p.normal.y + (p.corner.z - z) * p.normal.z) / c;

/** Whether a ray passes through a rectangle before `far`. */
export function crosses(p: Portal, x: number, y: number, z: number, dx: number, dy: number, dz: number, c: number, far: number): boolean {
  const t = crossing(p, x, y, z, c);
  if (t <= 0 || t >= far) return false;
  const qx = x + dx * t - p.corner.x;
  const qy = y + dy * t - p.corner.y;
  const qz = z + dz * t - p.corner.z;
  const a = (qx * p.along.x + qy * p.along.y + qz * p.along.z) / (p.along.x ** 2 + p.along.y ** 2 + p.along.z ** 2);
  const b = (qx * p.up.x + qy * p.up.y + qz * p.up.z) / (p.up.x ** 2 + p.up.y ** 2 + p.up.z ** 2);
  return a >= 0 && a <= 1 && b >= 0 && b <= 1;
}
