/** Noise that repeats: every function takes the number of cells per tile, so that opposite edges agree. */

/** A well-mixed number in 0…1 from whole numbers (integer hash after Jenkins). */
export function hash(x: number, y: number, seed: number): number {
  let h = (Math.imul(x, 374761393) + Math.imul(y, 668265263) + Math.imul(seed, 1442695041)) | 0;
  h = Math.imul(h ^ (h >>> 13), 1274126177);
  h = Math.imul(h ^ (h >>> 15), -2048144777);
  return ((h ^ (h >>> 16)) >>> 0) / 4294967296;
}

const wrap = (v: number, n: number): number => {
  const r = (v % n) | 0;
  return r < 0 ? r + n : r;
};
const smooth = (t: number): number => t * t * t * (t * (t * 6 - 15) + 10);

/** Value noise in −1…1 over a unit tile of `nx` × `ny` cells. */
export function noise(u: number, v: number, nx: number, ny: number, seed: number): number {
  const x = u * nx;
  const y = v * ny;
  const i = Math.floor(x);
  const j = Math.floor(y);
  const a = smooth(x - i);
  const b = smooth(y - j);
  const i0 = wrap(i, nx);
  const j0 = wrap(j, ny);
  const i1 = i0 + 1 === nx ? 0 : i0 + 1;
  const j1 = j0 + 1 === ny ? 0 : j0 + 1;
  const p = hash(i0, j0, seed);
  const q = hash(i0, j1, seed);
  const low = p + (hash(i1, j0, seed) - p) * a;
  const high = q + (hash(i1, j1, seed) - q) * a;
  return (low + (high - low) * b) * 2 - 1;
}

/** Octaves of noise, each twice as fine and half as strong, in about −1…1. */
export function fractal(u: number, v: number, nx: number, ny: number, seed: number, octaves = 4): number {
  let sum = 0;
  let weight = 0.5;
  let total = 0;
  for (let o = 0; o < octaves; o++) {
    sum += weight * noise(u, v, nx << o, ny << o, seed + o * 17);
    total += weight;
    weight *= 0.5;
  }
  return sum / total;
}

/** The two nearest of one random point a cell (Worley noise): distances in cells and the number of the nearest. */
export function cells(u: number, v: number, nx: number, ny: number, seed: number): { near: number; next: number; id: number } {
  const x = u * nx;
  const y = v * ny;
  const i = Math.floor(x);
  const j = Math.floor(y);
  let near = 9;
  let next = 9;
  let id = 0;
  for (let q = j - 1; q <= j + 1; q++)
    for (let p = i - 1; p <= i + 1; p++) {
      const cx = wrap(p, nx);
      const cy = wrap(q, ny);
      const d = Math.hypot(p + hash(cx, cy, seed) - x, q + hash(cx, cy, seed + 1) - y);
      if (d < near) {
        next = near;
        near = d;
        id = cy * nx + cx;
      } else if (d < next) next = d;
    }
  return { near, next, id };
}

/** The most lattice points that are worked out ahead; finer noise is hashed as it goes. */
const TABLE = 1 << 18;

/** `noise` for one lattice, its random values worked out once: many times quicker where many points are asked for. */
export function noiseField(nx: number, ny: number, seed: number): (u: number, v: number) => number {
  if (nx * ny > TABLE) return (u, v) => noise(u, v, nx, ny, seed);
  const table = new Float32Array(nx * ny);
  for (let j = 0; j < ny; j++) for (let i = 0; i < nx; i++) table[j * nx + i] = hash(i, j, seed);
  return (u, v) => {
    const x = u * nx;
    const y = v * ny;
    const i = Math.floor(x);
    const j = Math.floor(y);
    const a = smooth(x - i);
    const b = smooth(y - j);
    const i0 = wrap(i, nx);
    const j0 = wrap(j, ny) * nx;
    const i1 = i0 + 1 === nx ? 0 : i0 + 1;
    const j1 = j0 + nx === nx * ny ? 0 : j0 + nx;
    const low = table[j0 + i0] + (table[j0 + i1] - table[j0 + i0]) * a;
    const high = table[j1 + i0] + (table[j1 + i1] - table[j1 + i0]) * a;
    return (low + (high - low) * b) * 2 - 1;
  };
}

/** `fractal` for one lattice, worked out ahead in the same way. */
export function fractalField(nx: number, ny: number, seed: number, octaves = 4): (u: number, v: number) => number {
  const fields = Array.from({ length: octaves }, (_, o) => noiseField(nx << o, ny << o, seed + o * 17));
  const total = 1 - 0.5 ** octaves;
  return (u, v) => {
    let sum = 0;
    let weight = 0.5;
    for (const field of fields) {
      sum += weight * field(u, v);
      weight *= 0.5;
    }
    return sum / total;
  };
}

/** `cells` for one lattice, its points worked out ahead. */
export function cellField(nx: number, ny: number, seed: number): (u: number, v: number) => { near: number; next: number; id: number } {
  if (nx * ny > TABLE) return (u, v) => cells(u, v, nx, ny, seed);
  const px = new Float32Array(nx * ny);
  const py = new Float32Array(nx * ny);
  for (let j = 0; j < ny; j++)
    for (let i = 0; i < nx; i++) {
      px[j * nx + i] = hash(i, j, seed);
      py[j * nx + i] = hash(i, j, seed + 1);
    }
  return (u, v) => {
    const x = u * nx;
    const y = v * ny;
    const i = Math.floor(x);
    const j = Math.floor(y);
    let near = 81;
    let next = 81;
    let id = 0;
    for (let q = j - 1; q <= j + 1; q++) {
      const row = wrap(q, ny) * nx;
      for (let p = i - 1; p <= i + 1; p++) {
        const k = row + wrap(p, nx);
        const dx = p + px[k] - x;
        const dy = q + py[k] - y;
        const d = dx * dx + dy * dy;
        if (d < near) {
          next = near;
          near = d;
          id = k;
        } else if (d < next) next = d;
      }
    }
    return { near: Math.sqrt(near), next: Math.sqrt(next), id };
  };
}
