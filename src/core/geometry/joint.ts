import { shiftBy, turnAbout } from './extrude';
import { IDENTITY, multiply, type Matrix } from './mesh';
import { scale3, type Vec3 } from './vec';

/** What a leaf, a light or a drawer opens by, in the axes of its body. */
export interface Joint {
  kind: 'hinge' | 'slide';
  /** A point of the axis it turns about; of a slide, any point. */
  at: Vec3;
  /** Unit length: it turns anticlockwise seen from the tip of the axis, or moves along it. */
  axis: Vec3;
  /** From shut to as wide open as it goes: radians, or metres. */
  range: readonly [number, number];
  /** Once it is wide open it goes on so far along an axis, as a door does into its pocket: the second half of its way. Metres. */
  then?: { axis: Vec3; by: number };
}

/** Where something shut comes to stand when its joint is moved. @param by radians, or metres */
export function moved({ kind, at, axis }: Joint, by: number): Matrix {
  if (by === 0) return IDENTITY;
  if (kind === 'hinge') return turnAbout(at, axis, by);
  const { x, y, z } = scale3(axis, by);
  return shiftBy(x, y, z);
}

/** How far a joint is moved that is open by a share of its range. */
export const reachOf = ({ range: [shut, open] }: Joint, share: number): number => shut + (open - shut) * share;

/** Where something shut comes to stand when it is opened by a share of its way, 0…1. */
export function opensTo(joint: Joint, share: number): Matrix {
  const { then } = joint;
  if (!then) return moved(joint, reachOf(joint, share));
  const turned = moved(joint, reachOf(joint, Math.min(1, share * 2)));
  const { x, y, z } = scale3(then.axis, then.by * Math.max(0, share * 2 - 1));
  return multiply(shiftBy(x, y, z), turned);
}
