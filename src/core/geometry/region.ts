import type { Vec2 } from './vec';

/** A simple polygon, counter-clockwise, without repeating its first point. */
export type Ring = Vec2[];

/** An outer ring (counter-clockwise) with holes (clockwise). */
export interface Region {
  outer: Ring;
  holes: Ring[];
}
