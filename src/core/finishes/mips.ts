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
  let [w, h] = [width, height];
  // Normals and the fourth power of roughness (the square of what GGX calls α), to be averaged as they are.
  let n = new Float32Array(w * h * 3);
  let a = new Float32Array(w * h);
  for (let i = 0; i < w * h; i++) {
    const [x, y, z] = [0, 1, 2].map((k) => normals[i * 4 + k] / 127.5 - 1);
    const l = Math.hypot(x, y, z) || 1;
    n[i * 3] = x / l;
    n[i * 3 + 1] = y / l;
    n[i * 3 + 2] = z / l;
    a[i] = (rough ? rough[i] / 255 : roughness) ** 4;
  }
  const out = [encoded(w, h, n, a)];
  while (w > 1 || h > 1) {
    const [w2, h2] = [Math.max(1, w >> 1), Math.max(1, h >> 1)];
    const n2 = new Float32Array(w2 * h2 * 3);
    const a2 = new Float32Array(w2 * h2);
    for (let y = 0; y < h2; y++)
      for (let x = 0; x < w2; x++) {
        const at = y * w2 + x;
        for (const sy of [2 * y, Math.min(h - 1, 2 * y + 1)])
          for (const sx of [2 * x, Math.min(w - 1, 2 * x + 1)]) {
            const from = sy * w + sx;
            for (let k = 0; k < 3; k++) n2[at * 3 + k] += n[from * 3 + k] / 4;
            a2[at] += a[from] / 4;
          }
      }
    [w, h, n, a] = [w2, h2, n2, a2];
    out.push(encoded(w, h, n, a));
  }
  return out;
}

function encoded(width: number, height: number, n: Float32Array, a: Float32Array): ReliefMip {
  const [normals, rough] = [new Uint8Array(width * height * 4).fill(255), new Uint8Array(width * height * 4).fill(255)];
  for (let i = 0; i < width * height; i++) {
    const l = Math.max(0.05, Math.hypot(n[i * 3], n[i * 3 + 1], n[i * 3 + 2]));
    for (let k = 0; k < 3; k++) normals[i * 4 + k] = Math.round((n[i * 3 + k] / l + 1) * 127.5);
    rough[i * 4 + 1] = Math.round(255 * Math.min(1, a[i] + 2 * Math.max(0, (1 - l) / l)) ** 0.25);
  }
  return { width, height, normals, rough };
}
