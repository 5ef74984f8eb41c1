import { EDGE_PULL } from '../stock/forms/boards';
import { HANDLE_INSET } from '../project/joinery';
import type { Band, FrontLook, HandleStyle, Held } from '../project/schema/cabinets';
import { micro } from '../units/length';
import { isDrawn, type Field, type LaidCell, type Leaf } from './front';

/** A handle on a leaf: its middle, in the axes the leaf is in. Metres. */
export interface PlacedHandle {
  style: HandleStyle;
  x: number;
  z: number;
  long: number;
  upright: boolean;
  /** It is at the left edge of its leaf, or at its foot: what is folded over that edge looks the other way. */
  before: boolean;
}

/** Height at which one takes hold of a tall door, above the floor, metres. */
const REACH = 1.05;

/** A drawer that is lower has its handle in the middle; a wider one has two knobs. Metres. */
const LOW = 0.2;
const WIDE = 0.7;

/** How far the handle of a flap that lifts is from its foot at most, metres. */
const FLAP_FOOT = 0.04;

/** A handle stays so far within its leaf, metres. */
const WITHIN = 0.005;

/** What a handle follows from. */
export interface Holding {
  /** What is behind its front comes out with it. */
  drawn: boolean;
  band: Band;
  /** Where somebody has put it. */
  held: Held | null;
}

/** Whether handles of a style are fixed to fronts: others are a part of their edge, or none. */
export const isFixed = (style: HandleStyle): boolean => style !== 'rail' && style !== 'none';

const clamp = (value: number, least: number, most: number): number => (least > most ? (least + most) / 2 : Math.max(least, Math.min(most, value)));

/**
 * The handles of a leaf, by rule: on the edge away from its hinges, low on wall doors, high on base doors, within reach on tall
 * ones; along the upper edge of drawers; or in the middle. Where somebody has put it, one there.
 *
 * @param leaf with its heights above the floor, or above the foot of what hangs
 */
export function placeHandles(leaf: Field & Pick<Leaf, 'hand' | 'second'>, { drawn, band, held }: Holding, look: FrontLook): PlacedHandle[] {
  const { handles, grip, holds, inset = HANDLE_INSET } = look;
  if (!isFixed(handles)) return [];
  const { x0, x1, z0, z1, hand } = leaf;
  const [w, h] = [x1 - x0, z1 - z0];
  const level = drawn || hand === 'up' || hand === 'down' || hand === null;
  const upright = held ? held.upright : !level;
  const style = upright && handles === 'cup' ? 'knob' : handles;
  const long = Math.min(grip ?? (upright ? Math.min(0.16, h * 0.4) : Math.min(0.32, w * 0.45)), (upright ? h : w) - 2 * WITHIN);
  const half = style === 'knob' || style === 'cup' ? 0 : long / 2;
  // All of it stays on its front.
  const covers = handleField({ style, x: 0, z: 0, long, upright, before: false });
  const at = (x: number, z: number, before: boolean): PlacedHandle => ({
    style,
    x: clamp(x, x0 + covers.x1, x1 - covers.x1),
    z: clamp(z, z0 + covers.z1, z1 - covers.z1),
    long,
    upright,
    before,
  });
  if (held) {
    // The right one of a pair is as the left one in a mirror.
    const left = (held.from === 'left') === !leaf.second;
    return [at(left ? x0 + held.in : x1 - held.in, z0 + held.up, upright ? left : held.up < h / 2)];
  }
  if (level) {
    const lifts = hand === 'up';
    const edge = style === 'edge' ? EDGE_PULL : lifts ? Math.min(inset.top, FLAP_FOOT) : inset.top;
    const middle = style !== 'edge' && (holds === 'middle' || (!lifts && h < LOW));
    const z = middle ? (z0 + z1) / 2 : lifts ? z0 + edge : z1 - edge;
    const two = style === 'knob' && w > WIDE ? [0.25, 0.75] : [0.5];
    return two.map((t) => at(x0 + w * t, z, lifts));
  }
  const edge = style === 'edge' ? EDGE_PULL : inset.edge;
  const x = hand === 'left' ? x1 - edge : x0 + edge;
  const end = inset.end + half;
  const z = holds === 'middle' ? (z0 + z1) / 2 : z0 < REACH && z1 > REACH + 0.3 ? REACH : band === 'wall' || z0 > REACH ? z0 + end : z1 - end;
  return [at(x, z, hand !== 'left')];
}

/** The handles of all that closes a cell: of panels that are fixed none. @param lift of the front above the floor, or above the foot of what hangs, metres */
export const handlesIn = ({ cell, leaves }: Pick<LaidCell, 'cell' | 'leaves'>, band: Band, look: FrontLook, lift = 0): PlacedHandle[] =>
  cell.kind === 'panel'
    ? []
    : leaves.flatMap((leaf) => placeHandles({ ...leaf, z0: leaf.z0 + lift, z1: leaf.z1 + lift }, { drawn: isDrawn(cell), band, held: cell.held }, look));

/** What somebody who puts a handle at a place of a leaf means: so far from the nearer of its sides, and from its foot. */
export function heldAt(leaf: Field & Pick<Leaf, 'second'>, { x, z, upright }: Pick<PlacedHandle, 'x' | 'z' | 'upright'>): Held {
  const left = x - leaf.x0 <= leaf.x1 - x;
  return {
    from: left === !leaf.second ? 'left' : 'right',
    in: Math.max(0, micro(left ? x - leaf.x0 : leaf.x1 - x)),
    up: Math.max(0, micro(z - leaf.z0)),
    upright,
  };
}

/** How thick handles look from before them, metres. */
const LOOKS: Readonly<Partial<Record<HandleStyle, number>>> = { bar: 0.011, edge: 0.02, recessed: 0.034 };

/** What a handle covers of its front, seen from before it. A knob is round, and as wide as it is high. */
export function handleField({ style, x, z, long, upright }: PlacedHandle): Field {
  const [along, across] = style === 'knob' ? [0.031, 0.031] : style === 'cup' ? [Math.min(0.084, long), 0.027] : [long, LOOKS[style] ?? 0.011];
  const [w, h] = upright ? [across, along] : [along, across];
  return { x0: x - w / 2, x1: x + w / 2, z0: z - h / 2, z1: z + h / 2 };
}
