/** Colour: sRGB at the edge, linear inside (IEC 61966-2-1). */

export type Rgb = readonly [number, number, number];

export const toLinear = (c: number): number => (c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4);
export const fromLinear = (c: number): number => (c <= 0.0031308 ? 12.92 * c : 1.055 * c ** (1 / 2.4) - 0.055);

/** Linear light of each byte of an sRGB channel. */
export const LINEAR = Float32Array.from({ length: 256 }, (_, i) => toLinear(i / 255));

/** Where the 8-bit value changes to the next: half-way between two values, linear. */
const STEPS = Float64Array.from({ length: 256 }, (_, i) => (i < 255 ? toLinear((i + 0.5) / 255) : Infinity));

/** The value at the lower end of each 4096th part of 0…1: the one sought is that or one of the next few. */
const FIRST = Uint8Array.from({ length: 4097 }, (_, i) => Math.round(fromLinear(i / 4096) * 255));

/** The nearest 8-bit sRGB value of a linear component in 0…1. */
export function encode8(c: number): number {
  let value = FIRST[(c * 4096) | 0];
  while (c >= STEPS[value]) value++;
  return value;
}

/** Linear components of `#rrggbb`. */
export function hexToLinear(hex: string): Rgb {
  const n = parseInt(hex.slice(1), 16);
  return [toLinear(((n >> 16) & 255) / 255), toLinear(((n >> 8) & 255) / 255), toLinear((n & 255) / 255)];
}

/** CIE Y of a linear sRGB colour (ITU-R BT.709 weights). */
export const luminance = (rgb: Rgb): number => 0.2126 * rgb[0] + 0.7152 * rgb[1] + 0.0722 * rgb[2];

/** Light reflectance value of a colour: 100 × CIE Y. */
export const lrv = (hex: string): number => 100 * luminance(hexToLinear(hex));

/**
 * Linear sRGB of a black body with luminance 1: chromaticity on the Planckian locus by the cubic approximation of
 * Kim et al. (2002), 1667–25000 K.
 */
export function blackBody(kelvin: number): Rgb {
  const t = Math.min(25000, Math.max(1667, kelvin));
  const x =
    t <= 4000
      ? -0.2661239e9 / t ** 3 - 0.2343589e6 / t ** 2 + 0.8776956e3 / t + 0.17991
      : -3.0258469e9 / t ** 3 + 2.1070379e6 / t ** 2 + 0.2226347e3 / t + 0.24039;
  const y =
    t <= 2222
      ? -1.1063814 * x ** 3 - 1.3481102 * x ** 2 + 2.18555832 * x - 0.20219683
      : t <= 4000
        ? -0.9549476 * x ** 3 - 1.37418593 * x ** 2 + 2.09137015 * x - 0.16748867
        : 3.081758 * x ** 3 - 5.8733867 * x ** 2 + 3.75112997 * x - 0.37001483;
  return chromaticityToLinear(x, y);
}

/** Linear sRGB with luminance 1 of a CIE chromaticity; components outside the gamut are brought to 0. */
export function chromaticityToLinear(x: number, y: number): Rgb {
  const X = x / y;
  const Z = (1 - x - y) / y;
  const rgb: Rgb = [
    Math.max(0, 3.2404542 * X - 1.5371385 - 0.4985314 * Z),
    Math.max(0, -0.969266 * X + 1.8760108 + 0.041556 * Z),
    Math.max(0, 0.0556434 * X - 0.2040259 + 1.0572252 * Z),
  ];
  const l = luminance(rgb);
  return [rgb[0] / l, rgb[1] / l, rgb[2] / l];
}

/** `#rrggbb` of linear components. */
export const linearToHex = (rgb: Rgb): string =>
  `#${rgb
    .map((c) =>
      encode8(Math.min(1, Math.max(0, c)))
        .toString(16)
        .padStart(2, '0'),
    )
    .join('')}`;
