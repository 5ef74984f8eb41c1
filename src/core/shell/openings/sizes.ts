import { LEAF } from '../../project/opening-stand';
import type { Opening } from '../../project/schema';

/** Sizes of the parts that are not chosen one by one (trade figures), metres. */
export const JOINERY = {
  leaf: LEAF,
  /** Play between a leaf and its frame, at each side. */
  play: 0.003,
  foot: 0.008,
  stop: 0.012,
  sash: 0.045,
  sashDepth: 0.044,
  bar: 0.022,
  pane: 0.006,
  architraveDepth: 0.018,
  sillThickness: 0.03,
  stile: 0.11,
  rail: 0.14,
  /** How wide a leaf of a folding door and a casement are made at most. */
  fold: 0.6,
  light: 0.65,
} as const;

/** How far a sill board reaches past its window at each end, metres. */
export const SILL_HORN = 0.04;

/** Whether a window has a board inside, on what is below it. */
export const hasSillBoard = ({ kind, form, shape, sill, sillBoard }: Opening): boolean =>
  kind === 'window' && form !== 'corner' && sillBoard > 0 && sill > 0.05 && (shape.kind === 'rectangle' || shape.kind === 'arch');

/** A rectangle of an opening’s elevation, metres: x along the wall from its middle, z up from the floor. */
export interface UprightBox {
  x0: number;
  x1: number;
  z0: number;
  z1: number;
}

/** The way between the linings of a door: what is left for its leaves. `foot`: of the light above it; null where there is none. */
export function wayOf({
  width,
  height,
  sill,
  frame,
  sidelights,
  fanlight,
  threshold,
}: Pick<Opening, 'width' | 'height' | 'sill' | 'frame' | 'sidelights' | 'fanlight' | 'threshold'>): UprightBox & { foot: number | null } {
  const lining = frame.face;
  const beside = (light: number): number => (light > 0 ? light + lining : 0);
  const head = sill + height - lining;
  const foot = fanlight > 0 && fanlight < height - 1 ? head - fanlight : null;
  return {
    x0: -width / 2 + lining + beside(sidelights.start),
    x1: width / 2 - lining - beside(sidelights.end),
    z0: sill + threshold,
    z1: foot === null ? head : foot - lining,
    foot,
  };
}

/** Number of lights a window of a form is divided into. */
export function lightsOf(opening: Pick<Opening, 'form' | 'width' | 'frame' | 'panes'>): number {
  const inner = opening.width - 2 * opening.frame.face;
  switch (opening.form) {
    case 'casement':
      return Math.max(1, Math.min(4, Math.round(inner / JOINERY.light)));
    case 'sliding':
      return Math.max(2, Math.round(inner / 1.2));
    case 'glazed-wall':
      return opening.panes.across;
    default:
      return 1;
  }
}

/** Number of leaves of a folding door: an even number, so that they fold in pairs. */
export const foldsOf = (width: number): number => Math.max(2, 2 * Math.round(width / JOINERY.fold / 2));

/**
 * The part of a doorway that is free when it stands as wide open as it goes, metres: linings, sidelights, stops and the
 * leaves at 90° (or their stack) taken off.
 */
export function clearWidth(opening: Pick<Opening, 'kind' | 'form' | 'width' | 'frame' | 'sidelights'>): number {
  const { width, frame, sidelights } = opening;
  if (opening.kind !== 'door') return width;
  const lights = (sidelights.start > 0 ? sidelights.start + frame.face : 0) + (sidelights.end > 0 ? sidelights.end + frame.face : 0);
  const between = width - 2 * frame.face - lights;
  const leaf = JOINERY.stop + JOINERY.leaf;
  switch (opening.form) {
    case 'pair':
    case 'unequal':
      return between - 2 * leaf;
    case 'bifold':
      return between - foldsOf(between) * JOINERY.leaf - JOINERY.stop;
    case 'sliding':
    case 'pocket':
    case 'sectional':
    case 'up-and-over':
      return between;
    default:
      return between - leaf;
  }
}
