import { LIGHT_TYPE } from '@/core/formats/light-type';

/** What a picture is handed over as: ending of its file and what the file is. */
export const PICTURE_KINDS = {
  png: { ending: '.png', mime: 'image/png' },
  jpeg: { ending: '.jpg', mime: 'image/jpeg' },
  clear: { ending: '.png', mime: 'image/png' },
  hdr: { ending: '.hdr', mime: 'image/vnd.radiance' },
  exr: { ending: '.exr', mime: LIGHT_TYPE },
  passes: { ending: '.exr', mime: LIGHT_TYPE },
  sides: { ending: '.zip', mime: 'application/zip' },
  round: { ending: '.html', mime: 'text/html; charset=utf-8' },
} as const;
export type PictureKind = keyof typeof PICTURE_KINDS;

/** Dots an inch that may be asked for. */
export const DOTS = { least: 30, most: 2400 } as const;
