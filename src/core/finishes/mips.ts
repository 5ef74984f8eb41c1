import { encode8, LINEAR } from './colour';

/** A smaller step of a texture's relief, for where it is seen from afar. */
export interface ReliefMip {
  width: number;
  height: number;
  /** RGBA, normals as colours. */
  normals: Uint8Array;
  /** RGBA, roughness in green. */
  rough: Uint8Array;
}

/**
 * The relief of a texture in steps of half the size, down to one pixel. What becomes too small to be seen as relief is seen as
 * roughness: the shorter the mean of the normals under a pixel, the rougher it is. Without it joints and grain glint and
 * crawl where several of them fall into one pixel.
 *
 * The variance of slopes is that of Toksvig's measure, σ² = (1 − |N|) / |N|, and adds to the square of the roughness of a GGX
 * surface as 2σ² (Olano and Baker, LEAN mapping, 2010).
 *
 * @param normals RGBA, as colours; @param rough a byte a pixel, or null; @param roughness of all of it where there is no map, 0 to 1
 * @returns the first step as large as what was given
 */
export function reliefMips(width: number, height: number, normals: Uint8Array, rough: Uint8Array | null, roughness: number): ReliefMip[] {
  // Normals and the fourth power of roughness (the square of what GGX calls α), to be averaged as they are.
  const relief = new Float32Array(width * height * 4);
  for (let i = 0; i < width * height; i++) {
    const [x, y, z] = [0, 1, 2].map((k) => normals[i * 4 + k] / 127.5 - 1);
    const l = Math.hypot(x, y, z) || 1;
    relief.set([x / l, y / l, z / l, (rough ? rough[i] / 255 : roughness) ** 4], i * 4);
  }
  return chain({ width, height, values: relief }).map(encodedRelief);
}

/** A smaller step of a texture's colours. */
export interface ColourMip {
  width: number;
  height: number;
  /** RGBA, sRGB. */
  data: Uint8Array;
}

/**
 * The colours of a texture in steps of half the size, down to one pixel, averaged in linear light.
 *
 * @param colour RGBA, sRGB
 * @returns the first step as large as what was given
 */
export function colourMips(width: number, height: number, colour: Uint8Array): ColourMip[] {
  const values = new Float32Array(width * height * 4);
  for (let i = 0; i < values.length; i++) values[i] = i % 4 === 3 ? colour[i] / 255 : LINEAR[colour[i]];
  return chain({ width, height, values }).map(({ width: w, height: h, values: v }, step) => {
    if (!step) return { width: w, height: h, data: colour };
    const data = new Uint8Array(v.length);
    for (let i = 0; i < v.length; i++) data[i] = i % 4 === 3 ? Math.round(255 * v[i]) : encode8(v[i]);
    return { width: w, height: h, data };
  });
}

/** Four values a pixel, rows from above. */
interface Field {
  width: number;
  height: number;
  values: Float32Array;
}

/** A field and its halves, down to one pixel. */
function chain(first: Field): Field[] {
  const out = [first];
  for (let last = first; last.width > 1 || last.height > 1; out.push(last)) {
    if (last.width > 1) last = halved(last, 'x');
    if (last.height > 1) last = halved(last, 'y');
  }
  return out;
}

/** The shares of four neighbours in one of half as many. */
const SHARES = [1 / 8, 3 / 8, 3 / 8, 1 / 8];

/**
 * Half as many along one axis, by binomial shares. The mean of two neighbours, as graphics make it, is too narrow: a joint that
 * falls into one pixel stands out, the next that falls between two does not, and courses of brick show bands.
 * The texture goes on round its edges.
 */
function halved({ width, height, values }: Field, axis: 'x' | 'y'): Field {
  const [w, h] = axis === 'x' ? [width >> 1, height] : [width, height >> 1];
  const count = axis === 'x' ? width : height;
  const out = new Float32Array(w * h * 4);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++)
      for (const [k, share] of SHARES.entries()) {
        const from = ((axis === 'x' ? x : y) * 2 + k - 1 + count) % count;
        const at = (axis === 'x' ? y * width + from : from * width + x) * 4;
        for (let c = 0; c < 4; c++) out[(y * w + x) * 4 + c] += values[at + c] * share;
      }
  return { width: w, height: h, values: out };
}

function encodedRelief({ width, height, values: v }: Field): ReliefMip {
  const [normals, rough] = [new Uint8Array(width * height * 4).fill(255), new Uint8Array(width * height * 4).fill(255)];
  for (let i = 0; i < width * height; i++) {
    const l = Math.max(0.05, Math.hypot(v[i * 4], v[i * 4 + 1], v[i * 4 + 2]));
    for (let k = 0; k < 3; k++) normals[i * 4 + k] = Math.round((v[i * 4 + k] / l + 1) * 127.5);
    rough[i * 4 + 1] = Math.round(255 * Math.min(1, v[i * 4 + 3] + 2 * Math.max(0, (1 - l) / l)) ** 0.25);
  }
  return { width, height, normals, rough };
}
