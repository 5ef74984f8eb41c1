import type { Exposed } from './film';

/** Sums of a picture of which nothing has been traced, for tests. */
export function unexposed({ width, height }: { width: number; height: number }, groups = 1): Exposed {
  const n = width * height;
  return {
    width,
    height,
    groups,
    counts: new Uint32Array(n),
    light: new Float32Array(n * groups * 4),
    squares: new Float32Array(n),
    guides: new Float32Array(n * 8),
  };
}
