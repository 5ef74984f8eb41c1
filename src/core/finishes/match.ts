import { converter, differenceCiede2000, type Oklab } from 'culori';
import { hexToLinear, linearToHex, toLinear } from './colour';
import { meanHex, type Finish } from './finish';
import { hash } from './noise';

const difference = differenceCiede2000();
const toOklab = converter('oklab');
const toOklch = converter('oklch');

/** Colour difference ΔE by CIEDE2000 (CIE 142-2001, through culori) between two colours `#rrggbb`. */
export const colourDifference = (a: string, b: string): number => difference(a, b);

/** A finish with how far its mean colour lies from one looked for. */
export interface Match {
  finish: Finish;
  deltaE: number;
}

/** The finishes that come nearest to a colour, the nearest first. */
export function nearest(colour: string, finishes: Iterable<Finish>, count = 1): Match[] {
  const list: Match[] = [];
  for (const finish of finishes) list.push({ finish, deltaE: colourDifference(colour, meanHex(finish)) });
  return list.sort((a, b) => a.deltaE - b.deltaE || (a.finish.id < b.finish.id ? -1 : 1)).slice(0, count);
}

/** One colour of a palette and its share of the picture. */
export interface Swatch {
  colour: string;
  share: number;
}

/**
 * A palette of a picture: its pixels gathered into clusters in OKLab (k-means, begun after k-means++ with a fixed seed, so
 * that the same picture gives the same palette), clusters nearer than what one tells apart drawn together.
 *
 * @param data RGBA, 8 bits
 */
export function paletteOf(data: Uint8Array | Uint8ClampedArray, count = 7): Swatch[] {
  const pixels = data.length / 4;
  const step = Math.max(1, Math.floor(pixels / 12000));
  const points: [number, number, number][] = [];
  for (let k = 0; k < pixels; k += step) {
    if (data[k * 4 + 3] < 128) continue;
    const lab = toOklab({ mode: 'rgb', r: data[k * 4] / 255, g: data[k * 4 + 1] / 255, b: data[k * 4 + 2] / 255 });
    points.push([lab.l, lab.a, lab.b]);
  }
  if (!points.length) return [];
  const away = (p: readonly number[], q: readonly number[]): number => (p[0] - q[0]) ** 2 + (p[1] - q[1]) ** 2 + (p[2] - q[2]) ** 2;
  const centres: [number, number, number][] = [points[Math.floor(hash(1, 2, 3) * points.length)]];
  const least = points.map((p) => away(p, centres[0]));
  while (centres.length < count) {
    const total = least.reduce((sum, d) => sum + d, 0);
    if (total < 1e-9) break;
    let at = hash(centres.length, 7, 11) * total;
    let i = 0;
    while (i < points.length - 1 && (at -= least[i]) > 0) i++;
    centres.push([...points[i]]);
    points.forEach((p, k) => (least[k] = Math.min(least[k], away(p, points[i]))));
  }
  let sizes: number[] = [];
  for (let pass = 0; pass < 24; pass++) {
    const sums = centres.map(() => [0, 0, 0, 0]);
    for (const p of points) {
      let best = 0;
      for (let c = 1; c < centres.length; c++) if (away(p, centres[c]) < away(p, centres[best])) best = c;
      const s = sums[best];
      s[0] += p[0];
      s[1] += p[1];
      s[2] += p[2];
      s[3]++;
    }
    let moved = 0;
    sums.forEach((s, c) => {
      if (!s[3]) return;
      const next: [number, number, number] = [s[0] / s[3], s[1] / s[3], s[2] / s[3]];
      moved = Math.max(moved, away(next, centres[c]));
      centres[c] = next;
    });
    sizes = sums.map((s) => s[3]);
    if (moved < 1e-8) break;
  }
  const merged: { centre: [number, number, number]; size: number }[] = [];
  centres.forEach((centre, c) => {
    const near = merged.find((m) => away(m.centre, centre) < 0.02 ** 2);
    if (near) near.size += sizes[c];
    else if (sizes[c]) merged.push({ centre, size: sizes[c] });
  });
  return merged
    .sort((a, b) => b.size - a.size)
    .map(({ centre: [l, a, b], size }) => ({ colour: hexOfOklab({ mode: 'oklab', l, a, b }), share: size / points.length }));
}

const toRgb = converter('rgb');

function hexOfOklab(lab: Oklab): string {
  const { r, g, b } = toRgb(lab);
  const c = (v: number): number => toLinear(Math.min(1, Math.max(0, v)));
  return linearToHex([c(r), c(g), c(b)]);
}

/** Hue of a colour in degrees of OKLCH; null for greys, which have none to speak of. */
export function hueOf(colour: string): number | null {
  const { c, h } = toOklch(colour)!;
  return c < 0.03 || h === undefined ? null : h;
}

/** Whether a colour falls into a range of hues, which may go round past 360°. */
export function inHues(colour: string, range: { from: number; to: number }): boolean {
  const h = hueOf(colour);
  if (h === null) return false;
  return range.from <= range.to ? h >= range.from && h <= range.to : h >= range.from || h <= range.to;
}

/** What a coat on timber is called, and what it adds to the price of a square metre (invented). */
const COATS = { stain: { word: 'stained', price: 9 }, solid: { word: 'painted over', price: 12 } } as const;
const COATED = new RegExp(
  `, (${Object.values(COATS)
    .map((c) => c.word)
    .join('|')})$`,
);

/** Name and price of timber with a coat in place of the one it may have. */
function withCoat({ name, price, coverage }: Finish, how: keyof typeof COATS): Pick<Finish, 'name' | 'price'> {
  const before = COATED.exec(name)?.[1];
  const had = Object.values(COATS).find((c) => c.word === before)?.price ?? 0;
  const whole = price + (COATS[how].price - had) * coverage;
  return { name: `${name.replace(COATED, '')}, ${COATS[how].word}`, price: Math.round(whole * 100) / 100 };
}

/** Timber stained (its grain stays and darkens or colours) or painted over (the grain is covered), under a name and at a price of its own. */
export function coated(finish: Finish, how: 'stain' | 'solid', colour: string): Pick<Finish, 'colour' | 'body' | 'roughness' | 'name' | 'price'> {
  const wood = finish.body.kind === 'timber' || finish.body.kind === 'boards' || finish.body.kind === 'ribs';
  if (how === 'solid') {
    const body =
      finish.body.kind === 'timber'
        ? { ...finish.body, contrast: finish.body.contrast * 0.06 }
        : finish.body.kind === 'flat'
          ? finish.body
          : covered(finish.body);
    return { ...withCoat(finish, how), colour, body, roughness: 0.45 };
  }
  // A stain lets a part of the wood's own colour through, linearly.
  const [a, b] = [hexToLinear(finish.colour), hexToLinear(colour)];
  const mixed = a.map((v, i) => v * 0.3 * b[i] * 1.2 + b[i] * 0.7) as [number, number, number];
  return { ...withCoat(finish, how), colour: wood ? linearToHex(mixed) : colour, body: finish.body, roughness: finish.roughness };
}

const covered = (body: Finish['body']): Finish['body'] =>
  'grain' in body && (body.kind === 'boards' || body.kind === 'ribs') ? { ...body, grain: body.grain * 0.05 } : body;

/**
 * How far a colour is from another, as people see it side by side (ΔE by CIEDE2000: about 1 is the least that is told apart, and
 * from some 5 on nobody takes one for the other; Sharma 2003).
 */
export function nearness(deltaE: number): string {
  if (deltaE < 1) return 'as good as the same';
  if (deltaE < 2) return 'hardly told apart';
  if (deltaE < 3.5) return 'very near';
  if (deltaE < 5) return 'near';
  return deltaE < 10 ? 'clearly another shade' : 'another colour';
}

/** The same with its figure. */
export const nearnessOf = (deltaE: number): string => `${nearness(deltaE)} (ΔE ${deltaE.toFixed(1)})`;
