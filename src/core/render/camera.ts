import { cross3, dot3, sub3, unit3, type Vec3 } from '../geometry/vec';

/** An eye and what it sees, as a photographer sets it. */
export interface Camera {
  eye: Vec3;
  target: Vec3;
  /** Vertical field of view of a picture in perspective, radians. */
  fov: number;
  /** In perspective unless told; parallel at a height of the picture in metres; or all round. */
  projection?: 'perspective' | 'parallel' | 'sphere';
  /** Height of a parallel picture, metres. */
  height?: number;
  /** Whether the picture stands upright, its middle shifted to the target, so that verticals are parallel. */
  upright?: boolean;
  /** Radius of the lens, metres, and how far off it is sharp. */
  lens?: { radius: number; focus: number };
  /** Sides of planes that are kept: n · p + offset ≥ 0; what lies beyond is not seen, though light is as ever. */
  cuts?: readonly { normal: Vec3; offset: number }[];
  /** Whether the eye stands in a room: what it sees through an opening is outside, a light group of its own. */
  indoors?: boolean;
}

/** A camera as directions: a place at x, y in −1…1 of the picture is seen along forward + x · right + y · up (in parallel from eye + x · right + y · up). */
export interface CameraFrame {
  eye: Vec3;
  forward: Vec3;
  right: Vec3;
  up: Vec3;
  /** Across the picture, unit; distances are measured along it. */
  axis: Vec3;
  /** Unit directions across the lens. */
  side: Vec3;
  rise: Vec3;
}

const UP: Vec3 = { x: 0, y: 0, z: 1 };
const times = (v: Vec3, k: number): Vec3 => ({ x: v.x * k, y: v.y * k, z: v.z * k });
const plus = (a: Vec3, b: Vec3): Vec3 => ({ x: a.x + b.x, y: a.y + b.y, z: a.z + b.z });

/** Steepest view that can be held upright, as the ratio of rise to run: beyond it the shift would tear the picture. */
const STEEPEST = 2.5;

/** @param aspect width of the picture over its height */
export function cameraFrame(camera: Camera, aspect: number): CameraFrame {
  const { eye, target, fov, projection = 'perspective' } = camera;
  const towards = unit3(sub3(target, eye));
  const flat = Math.hypot(towards.x, towards.y);
  const level = camera.upright || projection === 'sphere';
  const axis = level && flat > 1e-6 ? { x: towards.x / flat, y: towards.y / flat, z: 0 } : towards;
  const across = cross3(axis, UP);
  // Straight down or up, north is at the top or the bottom.
  const side = Math.hypot(across.x, across.y, across.z) < 1e-6 ? { x: 1, y: 0, z: 0 } : unit3(across);
  const rise = cross3(side, axis);
  if (projection === 'sphere') return { eye, forward: axis, right: side, up: rise, axis, side, rise };
  // The middle of the picture is shifted to what is looked at; in parallel too, where lines to the eye slant.
  const slope = Math.max(-STEEPEST, Math.min(STEEPEST, dot3(towards, rise) / Math.max(1e-6, dot3(towards, axis))));
  const forward = plus(axis, times(rise, slope));
  const half = projection === 'parallel' ? (camera.height ?? 3) / 2 : Math.tan(fov / 2);
  return { eye, forward, right: times(side, half * aspect), up: times(rise, half), axis, side, rise };
}

/** Where in the picture a point is seen: x and y in −1…1 within it; null where it lies behind the eye. Not of pictures all round. */
export function project(frame: CameraFrame, parallel: boolean, p: Vec3): { x: number; y: number } | null {
  const { eye, forward, right, up, axis } = frame;
  const d = sub3(p, eye);
  const depth = dot3(d, axis);
  if (!parallel && depth <= 0) return null;
  const q = sub3(d, times(forward, depth));
  const k = parallel ? 1 : 1 / depth;
  return { x: (dot3(q, right) / dot3(right, right)) * k, y: (dot3(q, up) / dot3(up, up)) * k };
}

/** Height of the picture on the film of a camera of 24 × 36 mm, metres: what focal lengths are spoken of with. */
const FILM = 0.024;

/** Vertical field of view, radians, of a focal length in millimetres (24 × 36 mm). */
export const fovOfFocal = (mm: number): number => 2 * Math.atan(FILM / 2 / (mm / 1000));
export const focalOfFov = (fov: number): number => (FILM / 2 / Math.tan(fov / 2)) * 1000;

/** Radius of the lens, metres, at an f-number, for a vertical field of view. */
export const lensOf = (fov: number, stop: number): number => focalOfFov(fov) / 1000 / stop / 2;
