import { NEAR, NIL } from '../units/tolerance';
/** Plane and space vectors as plain objects and tuples; small pure functions. */

export interface Vec2 {
  x: number;
  y: number;
}

export interface Vec3 {
  x: number;
  y: number;
  z: number;
}

export const add = (a: Vec2, b: Vec2): Vec2 => ({ x: a.x + b.x, y: a.y + b.y });
export const sub = (a: Vec2, b: Vec2): Vec2 => ({ x: a.x - b.x, y: a.y - b.y });
export const scale = (a: Vec2, k: number): Vec2 => ({ x: a.x * k, y: a.y * k });
export const dot = (a: Vec2, b: Vec2): number => a.x * b.x + a.y * b.y;
/** The z component of the cross product: positive when `b` is to the left of `a`. */
export const cross = (a: Vec2, b: Vec2): number => a.x * b.y - a.y * b.x;
export const length = (a: Vec2): number => Math.hypot(a.x, a.y);
export const distance = (a: Vec2, b: Vec2): number => Math.hypot(a.x - b.x, a.y - b.y);
export const lerp = (a: Vec2, b: Vec2, t: number): Vec2 => ({ x: a.x + (b.x - a.x) * t, y: a.y + (b.y - a.y) * t });
export const same = (a: Vec2, b: Vec2): boolean => distance(a, b) <= NEAR;
/** Turned a quarter counter-clockwise: the left normal of a direction. */
export const left = (a: Vec2): Vec2 => ({ x: -a.y, y: a.x });
export const angleOf = (a: Vec2): number => Math.atan2(a.y, a.x);
export const rotate = (a: Vec2, angle: number): Vec2 => {
  const c = Math.cos(angle);
  const s = Math.sin(angle);
  return { x: a.x * c - a.y * s, y: a.x * s + a.y * c };
};

/** Unit vector of the same direction; (0, 0) stays (0, 0). */
export function unit(a: Vec2): Vec2 {
  const l = length(a);
  return l === 0 ? { x: 0, y: 0 } : { x: a.x / l, y: a.y / l };
}

/**
 * Where the line through `p` along `d` meets the line through `q` along `e`.
 *
 * @returns the point, or null for parallel lines
 */
export function meet(p: Vec2, d: Vec2, q: Vec2, e: Vec2): Vec2 | null {
  const det = cross(d, e);
  if (Math.abs(det) < NIL * length(d) * length(e)) return null;
  const t = cross(sub(q, p), e) / det;
  return { x: p.x + d.x * t, y: p.y + d.y * t };
}

/** Parameter (0 at `a`, 1 at `b`) of the foot of `p` on the line through `a` and `b`. */
export function project(p: Vec2, a: Vec2, b: Vec2): number {
  const d = sub(b, a);
  const l2 = dot(d, d);
  return l2 === 0 ? 0 : dot(sub(p, a), d) / l2;
}

/** Distance of `p` from the segment `a`–`b`, metres. */
export function segmentDistance(p: Vec2, a: Vec2, b: Vec2): number {
  const t = Math.min(1, Math.max(0, project(p, a, b)));
  return distance(p, lerp(a, b, t));
}

export const sub3 = (a: Vec3, b: Vec3): Vec3 => ({ x: a.x - b.x, y: a.y - b.y, z: a.z - b.z });
export const add3 = (a: Vec3, b: Vec3): Vec3 => ({ x: a.x + b.x, y: a.y + b.y, z: a.z + b.z });
export const scale3 = (a: Vec3, k: number): Vec3 => ({ x: a.x * k, y: a.y * k, z: a.z * k });
export const dot3 = (a: Vec3, b: Vec3): number => a.x * b.x + a.y * b.y + a.z * b.z;
export const cross3 = (a: Vec3, b: Vec3): Vec3 => ({
  x: a.y * b.z - a.z * b.y,
  y: a.z * b.x - a.x * b.z,
  z: a.x * b.y - a.y * b.x,
});
export const length3 = (a: Vec3): number => Math.sqrt(a.x * a.x + a.y * a.y + a.z * a.z);
export function unit3(a: Vec3): Vec3 {
  const l = length3(a);
  return l === 0 ? { x: 0, y: 0, z: 0 } : { x: a.x / l, y: a.y / l, z: a.z / l };
}
