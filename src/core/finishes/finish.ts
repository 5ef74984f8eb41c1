import type { Category, Finish, Role } from '../project/schema';
import { hexToLinear, linearToHex, luminance, type Rgb } from './colour';
import { jointShare } from './laying/pattern';

export type { Body, Category, Finish, Laying, Role } from '../project/schema';
export const CATEGORY_ROLES: Record<Category, readonly Role[]> = {
  Paint: ['wall', 'ceiling', 'joinery'],
  Plaster: ['wall', 'ceiling'],
  Wallpaper: ['wall'],
  Timber: ['floor', 'joinery'],
  Tile: ['floor', 'wall'],
  Brick: ['wall'],
  Stone: ['floor', 'wall', 'worktop'],
  Sheet: ['floor', 'joinery', 'worktop'],
  Carpet: ['floor'],
  Cloth: ['textile'],
  Metal: ['metal', 'accent'],
  Glass: ['accent'],
  Outside: ['floor'],
};

/** Whether a finish is one even colour without any pattern. */
export const isPlain = (finish: Finish): boolean => finish.body.kind === 'flat' && !finish.laying;

/** Whether one looks through a finish between its wires or through its holes. */
export const isOpen = (finish: Finish): boolean => (finish.body.kind === 'mesh' || finish.body.kind === 'perforated') && !finish.laying;

/** Whether a finish is wood in one piece, whose grain runs the way of what it is put on. */
export const isGrained = (finish: Finish): boolean => finish.body.kind === 'timber' && !finish.laying;

/** Mean colour of a whole surface, joints included, linear. */
export function meanColour(finish: Finish): Rgb {
  const own = hexToLinear(finish.colour);
  if (!finish.laying) return own;
  const joints = hexToLinear(finish.laying.joints);
  const share = jointShare(finish.laying);
  return [own[0] + (joints[0] - own[0]) * share, own[1] + (joints[1] - own[1]) * share, own[2] + (joints[2] - own[2]) * share];
}

/** The same as a colour to paint a flat chip with. */
export const meanHex = (finish: Finish): string => linearToHex(meanColour(finish));

/** Light reflectance value, 0…100: the measured one where there is one, else 100 × CIE Y of its mean colour. */
export const finishLrv = (finish: Finish): number => finish.reflectance ?? 100 * luminance(meanColour(finish));

/** Pixels of a finish over what repeats of it: colour, height, roughness. */
export interface Texture {
  width: number;
  height: number;
  /** What it covers, metres. */
  size: { width: number; height: number };
  /** RGBA, 8 bits, sRGB; clear where the matter is open, as between wires. */
  colour: Uint8Array;
  /** Metres above the lowest point; null for smooth finishes. */
  relief: Float32Array | null;
  /** Perceptual roughness, 0…255; null where it is the finish's own all over. */
  rough: Uint8Array | null;
}

/** Pixels of a picture that a finish of one's own is made from, RGBA. */
export interface ImagePixels {
  width: number;
  height: number;
  data: Uint8Array | Uint8ClampedArray;
}
