/** The soft shadow of what lies on a page; the light comes from the upper left. Metres. */
export const SHADOW = { dx: 0.0012, dy: 0.0018, blur: 0.0035, strength: 0.3 } as const;

/** Cumulative of a smooth bump, for the blurred edge of a box. */
const ramp = (t: number): number => {
  const c = Math.max(0, Math.min(1, t));
  return c * c * (3 - 2 * c);
};

/**
 * The blurred shadow of a rectangle, or of the largest disc in it, larger than it by the blur on every side.
 *
 * @param density pixels a metre; fewer where there would be more than a million
 */
export function shadowPicture(width: number, height: number, density: number, round = false): { width: number; height: number; pixels: Uint8ClampedArray } {
  const b = SHADOW.blur;
  const fine = Math.min(density, Math.sqrt(1e6 / ((width + 2 * b) * (height + 2 * b))));
  const w = Math.max(4, Math.round((width + 2 * b) * fine));
  const h = Math.max(4, Math.round((height + 2 * b) * fine));
  const pixels = new Uint8ClampedArray(w * h * 4);
  const side = (p: number, n: number, total: number): number => {
    const at = ((p + 0.5) / n) * total;
    return ramp(Math.min(at, total - at) / (2 * b));
  };
  const reach = Math.min(width, height) / 2 + b;
  for (let y = 0; y < h; y++) {
    const v = side(y, h, height + 2 * b);
    for (let x = 0; x < w; x++) {
      const from = Math.hypot(((x + 0.5) / w - 0.5) * (width + 2 * b), ((y + 0.5) / h - 0.5) * (height + 2 * b));
      const share = round ? ramp((reach - from) / (2 * b)) : v * side(x, w, width + 2 * b);
      pixels[(y * w + x) * 4 + 3] = Math.round(255 * SHADOW.strength * share);
    }
  }
  return { width: w, height: h, pixels };
}
