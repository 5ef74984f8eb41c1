import type { Vec2 } from './vec';

/** A simple polygon, counter-clockwise, without repeating its first point. */
export type Ring = Vec2[];

/** An outer ring (counter-clockwise) with holes (clockwise). */
export interface Region {
  outer: Ring;
  holes: Ring[];
}

/** The upright rectangle between two opposite corners, counter-clockwise from the lower left one. */
export const rectangle = (x0: number, y0: number, x1: number, y1: number): Ring => [
  { x: x0, y: y0 },
  { x: x1, y: y0 },
  { x: x1, y: y1 },
  { x: x0, y: y1 },
];

/** The same as a region without holes. */
export const rectangleRegion = (x0: number, y0: number, x1: number, y1: number): Region => ({ outer: rectangle(x0, y0, x1, y1), holes: [] });
