import { add, rotate, sub, type Vec2 } from '../geometry/vec';

/** Where something stands in the plan, and how it is turned, radians. */
export interface Stand extends Vec2 {
  rotation: number;
}

/** A point of the plan in the axes of what stands there: x to its right, y to its back. */
export const inAxesOf = (stand: Stand, p: Vec2): Vec2 => rotate(sub(p, stand), -stand.rotation);

/** The other way round: a point in the axes of what stands there, in the plan. */
export const fromAxesOf = (stand: Stand, p: Vec2): Vec2 => add(stand, rotate(p, stand.rotation));

/** The corners of a box in the plan, counter-clockwise from its front left one, metres. */
export const footprintOf = (stand: Stand, { width, depth }: { width: number; depth: number }): Vec2[] =>
  [
    { x: -width / 2, y: -depth / 2 },
    { x: width / 2, y: -depth / 2 },
    { x: width / 2, y: depth / 2 },
    { x: -width / 2, y: depth / 2 },
  ].map((p) => fromAxesOf(stand, p));
