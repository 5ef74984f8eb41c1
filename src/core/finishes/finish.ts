import { lrv } from './colour';

export type Role = 'floor' | 'wall' | 'ceiling' | 'joinery' | 'worktop' | 'metal' | 'textile' | 'accent';

export type Category = 'Paint' | 'Timber' | 'Tile & brick' | 'Stone & plaster' | 'Carpet & cloth' | 'Metal' | 'Glass' | 'Outside & other';

/** How a texture is made; lengths in metres. */
export type Maker =
  | { kind: 'flat' }
  | { kind: 'planks'; width: number; length: number; contrast: number; gap: number }
  | { kind: 'herringbone'; width: number; length: number; contrast: number; gap: number }
  | { kind: 'grain'; contrast: number; figure: number }
  | { kind: 'tiles'; width: number; height: number; joint: number; offset: number; joints: string; variation: number; surface: 'glazed' | 'stone' | 'brick' }
  | { kind: 'hexagons'; across: number; joint: number; joints: string; variation: number }
  | { kind: 'mottle'; cell: number; contrast: number; relief: number }
  | { kind: 'terrazzo'; chip: number; chips: string[] }
  | { kind: 'veins'; scale: number; vein: string }
  | { kind: 'pile'; loop: number; contrast: number; ribbed: boolean }
  | { kind: 'weave'; thread: number; pattern: 'plain' | 'twill' | 'herringbone'; second: string | null; slub: number }
  | { kind: 'nap'; contrast: number }
  | { kind: 'hide'; cell: number }
  | { kind: 'brushed'; contrast: number }
  | { kind: 'blades'; contrast: number }
  | { kind: 'pebbles'; size: number; contrast: number };

/**
 * A material with a real size and appearance. One definition drives the 3D view, the picture, the sample and the
 * export.
 */
export interface Finish {
  id: string;
  name: string;
  category: Category;
  roles: Role[];
  /** Mean colour, sRGB. The texture keeps exactly this mean, so the light reflectance follows from it. */
  colour: string;
  maker: Maker;
  /** Real size of the texture before it repeats, metres. */
  size: { width: number; height: number };
  /** Perceptual roughness 0…1 as in glTF. */
  roughness: number;
  metalness: number;
  /** Share of light that passes through: glass. */
  transmission: number;
  /** Share of light that passes through scattered: thin cloth, shades, leaves. */
  translucency: number;
  ior: number;
  /** Solid glass, through which light is bent; otherwise a pane. */
  solid?: boolean;
  /** Glows by itself when its luminaire is lit. */
  glows?: boolean;
  /** Not offered on the ledge: what a surface is before anything has been chosen. */
  bare?: boolean;
  supplier: string;
  code: string;
}

/** Light reflectance value, 0…100, of a finish. */
export const finishLrv = (finish: Finish): number => lrv(finish.colour);

/** Pixels of a finish: linear-mean-true sRGB colour, height above the surface in metres. */
export interface Texture {
  width: number;
  height: number;
  /** RGBA, 8 bits, sRGB. */
  colour: Uint8Array;
  /** Metres above the lowest point; null for smooth finishes. */
  relief: Float32Array | null;
}
