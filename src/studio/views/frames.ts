import { PRINT_LIMITS } from '@/core/render/large';

/** Samples a pixel by what a picture is for. */
export const QUALITIES = { Look: 8, Client: 48, Print: 160 } as const;
export type Quality = keyof typeof QUALITIES;

/** Frames by use, pixels. */
export const FRAMES = {
  Small: [480, 300],
  Medium: [720, 450],
  Large: [1280, 800],
  Square: [1080, 1080],
  'Photograph 4:3': [1440, 1080],
  'Screen 16:9': [1920, 1080],
  'A4 at 150 dpi': [1754, 1240],
  'A4 at 300 dpi': [3508, 2480],
  'A3 at 300 dpi': [4961, 3508],
  'A2 at 300 dpi': [7016, 4961],
} as const satisfies Record<string, readonly [number, number]>;

/** Frames of pictures all round: twice as wide as high. */
export const ROUND_FRAMES = {
  'All round, first look': [512, 256],
  'All round, small': [1024, 512],
  'All round': [2048, 1024],
  'All round, fine': [6144, 3072],
} as const satisfies Record<string, readonly [number, number]>;

export type FrameName = keyof typeof FRAMES | keyof typeof ROUND_FRAMES;

/** A picture’s size in pixels. */
export interface Frame {
  width: number;
  height: number;
}

/** Pixels a side, and in all, that a picture may have. */
export const FRAME_LIMITS = { least: 64, most: PRINT_LIMITS.side, pixels: PRINT_LIMITS.pixels } as const;
