import { encode8, hexToLinear, luminance, type Rgb } from './colour';
import type { Finish, Maker, Texture } from './finish';
import { cells, fractal, hash, noise } from './noise';

/** What a maker says about one point: a factor on the finish's colour or a colour of its own, and a height in metres. */
interface Spot {
  /** Multiplies the base colour. */
  shade: number;
  /** Replaces the base colour, linear. */
  colour?: Rgb;
  /** Metres. */
  height: number;
}

type Point = (x: number, y: number) => Spot;

/** Wood grain along x: growth rings cut lengthwise, warped by slow noise, with fine pores. `u`, `v` in metres. */
function grain(u: number, v: number, seed: number, figure: number, period: { nx: number; ny: number; w: number; h: number }): number {
  const s = u / period.w;
  const t = v / period.h;
  const warp = fractal(s, t, Math.max(1, Math.round(period.w * 1.2)), Math.max(1, Math.round(period.h * 6)), seed, 3) * 0.02 * figure;
  const rings = fractal(s, (v + warp) / period.h, 1, Math.max(4, Math.round(period.h * 90)), seed + 5, 3);
  const streak = noise(s, (v + warp * 0.3) / period.h, Math.max(2, Math.round(period.w * 5)), Math.max(8, Math.round(period.h * 520)), seed + 11);
  const pore = noise(s, t, Math.max(4, Math.round(period.w * 28)), Math.max(8, Math.round(period.h * 900)), seed + 23);
  return rings * 0.55 + streak * 0.3 - Math.max(0, pore - 0.45) * 0.7;
}

const bevel = (distance: number, width: number): number => Math.min(1, Math.max(0, distance / width));

const builders: { [K in Maker['kind']]: (maker: Extract<Maker, { kind: K }>, finish: Finish, seed: number) => Point } = {
  flat: () => () => ({ shade: 1, height: 0 }),

  planks({ width, length, contrast, gap }, { size }, seed) {
    const rows = Math.max(1, Math.round(size.height / width));
    const columns = Math.max(1, Math.round(size.width / length));
    const [w, h] = [size.width / columns, size.height / rows];
    return (x, y) => {
      const row = Math.floor(y / h) % rows;
      const shift = hash(row, 3, seed) * w;
      const along = (x + shift) % size.width;
      const column = Math.floor(along / w) % columns;
      const edge = Math.min(y - row * h, (row + 1) * h - y, Math.min(along - column * w, (column + 1) * w - along));
      const board = row * 31 + column;
      const tone = (hash(board, 7, seed) - 0.5) * 0.34;
      const g = grain(along + hash(board, 8, seed) * 40, y - row * h + hash(board, 9, seed) * 17, seed + board, 1, { nx: 1, ny: 1, w: 4, h: 1 });
      const joint = bevel(edge, gap);
      return { shade: (1 + contrast * (tone + g * 0.5)) * (0.35 + 0.65 * joint), height: 0.0008 * bevel(edge, gap * 2.5) + 0.00012 * g };
    };
  },

  herringbone({ width, length, contrast, gap }, { size }, seed) {
    // Blocks at right angles, turned 45°: in block axes (p, q) the pattern repeats every 2 × length along the diagonal.
    const n = Math.round(length / width);
    const w = size.width / Math.SQRT2 / (2 * n);
    return (x, y) => {
      const p = (x + y) / Math.SQRT2 / w;
      const q = (y - x) / Math.SQRT2 / w;
      const i = Math.floor(p);
      const j = Math.floor(q);
      const m = (((i - j) % (2 * n)) + 2 * n) % (2 * n);
      const lying = m < n;
      // Start of the block along its length and the fractions inside it.
      const a = lying ? m + (p - i) : 2 * n - 1 - m + (q - j);
      const b = lying ? q - j : p - i;
      const first = lying ? i - m : j - (2 * n - 1 - m);
      const second = lying ? j : i;
      // The tile repeats after 2n blocks along each diagonal direction.
      const wrapped = (((first + second) % (2 * n)) + 2 * n) % (2 * n);
      const across = (((first - second) % (2 * n)) + 2 * n) % (2 * n);
      const board = (lying ? 0 : 500) + wrapped * 40 + across;
      const edge = Math.min(a, n - a, b, 1 - b) * w;
      const tone = (hash(board, 7, seed) - 0.5) * 0.34;
      const g = grain(a * w + hash(board, 8, seed) * 40, b * w + hash(board, 9, seed) * 17, seed + board, 0.8, { nx: 1, ny: 1, w: 4, h: 1 });
      return { shade: (1 + contrast * (tone + g * 0.5)) * (0.4 + 0.6 * bevel(edge, gap)), height: 0.0006 * bevel(edge, gap * 2) + 0.0001 * g };
    };
  },

  grain({ contrast, figure }, { size }, seed) {
    const period = { nx: 1, ny: 1, w: size.width, h: size.height };
    return (x, y) => {
      const g = grain(x, y, seed, figure, period);
      return { shade: 1 + contrast * g * 0.6, height: 0.00008 * g };
    };
  },

  tiles({ width, height, joint, offset, joints, variation, surface }, { size }, seed) {
    const rows = Math.max(1, Math.round(size.height / (height + joint)));
    const columns = Math.max(1, Math.round(size.width / (width + joint)));
    const [w, h] = [size.width / columns, size.height / rows];
    const grout = hexToLinear(joints);
    return (x, y) => {
      const row = Math.floor(y / h) % rows;
      const along = (x + offset * w * row + (surface === 'brick' ? 0 : 0)) % size.width;
      const column = Math.floor(along / w) % columns;
      const [p, q] = [along - column * w, y - row * h];
      const rough =
        surface === 'brick'
          ? 0.0016 * noise(x / size.width, y / size.height, 90, 60, seed + 3)
          : surface === 'stone'
            ? 0.0008 * noise(x / size.width, y / size.height, 60, 60, seed + 3)
            : 0;
      const edge = Math.min(p, w - p, q, h - q) - joint / 2 + rough;
      if (edge < 0) {
        const sand = 1 + 0.12 * noise(x / size.width, y / size.height, 220, 220, seed + 4);
        return { shade: 1, colour: [grout[0] * sand, grout[1] * sand, grout[2] * sand], height: -0.0012 };
      }
      const id = row * 57 + column;
      const tone = (hash(id, 1, seed) - 0.5) * 2 * variation;
      const [s, t] = [x / size.width, y / size.height];
      if (surface === 'glazed') {
        const pool = fractal(s, t, columns * 2, rows * 2, seed + id, 3);
        const rim = 1 - bevel(edge, 0.004);
        return {
          shade: 1 + tone + variation * 0.4 * pool + 0.18 * rim * (variation > 0.04 ? 1 : 0),
          height: 0.0012 * Math.sqrt(bevel(edge, 0.003)) + 0.00025 * fractal(s, t, columns, rows * 2, seed + 9, 2),
        };
      }
      const face = fractal(s, t, surface === 'brick' ? 46 : 14, surface === 'brick' ? 60 : 14, seed + id, 4);
      const fleck = surface === 'brick' ? Math.max(0, noise(s, t, 260, 260, seed + 12) - 0.4) * 0.5 : 0;
      return {
        shade: 1 + tone + face * (surface === 'brick' ? 0.22 : 0.28) * (variation + 0.35) - fleck * variation * 2,
        height: 0.002 * bevel(edge, 0.005) + 0.0012 * face,
      };
    };
  },

  hexagons({ across, joint, joints, variation }, { size }, seed) {
    const columns = Math.max(1, Math.round(size.width / (across + joint)));
    const pitch = size.width / columns;
    const rowStep = (pitch * Math.sqrt(3)) / 2;
    const rows = Math.max(2, Math.round(size.height / rowStep / 2) * 2);
    const step = size.height / rows;
    const grout = hexToLinear(joints);
    return (x, y) => {
      // Nearest of the centres of a triangular grid.
      let best = Infinity;
      let second = Infinity;
      let id = 0;
      const r0 = Math.floor(y / step);
      for (let r = r0 - 1; r <= r0 + 2; r++) {
        const shift = (((r % 2) + 2) % 2) * 0.5;
        const c0 = Math.floor(x / pitch - shift);
        for (let c = c0; c <= c0 + 1; c++) {
          const d = Math.hypot((c + shift) * pitch - x, r * step - y);
          if (d < best) {
            second = best;
            best = d;
            id = (((r % rows) + rows) % rows) * 71 + (((c % columns) + columns) % columns);
          } else if (d < second) second = d;
        }
      }
      const edge = (second - best) / 2 - joint / 2;
      if (edge < 0) return { shade: 1, colour: grout, height: -0.001 };
      const face = fractal(x / size.width, y / size.height, 16, 16, seed + id, 4);
      return { shade: 1 + (hash(id, 1, seed) - 0.5) * 2 * variation + face * (0.08 + variation * 0.5), height: 0.0012 * bevel(edge, 0.003) + 0.0003 * face };
    };
  },

  mottle({ cell, contrast, relief }, { size }, seed) {
    const nx = Math.max(1, Math.round(size.width / cell));
    const ny = Math.max(1, Math.round(size.height / cell));
    return (x, y) => {
      const [s, t] = [x / size.width, y / size.height];
      const slow = fractal(s, t, nx, ny, seed, 4);
      const trowel = fractal(s, t, nx, ny * 3, seed + 40, 3);
      const fine = noise(s, t, nx * 24, ny * 24, seed + 80);
      return { shade: 1 + contrast * (slow * 1.2 + trowel * 0.5 + fine * 0.25), height: relief * (trowel + fine * 0.4) };
    };
  },

  terrazzo({ chip, chips }, { size }, seed) {
    const palette = chips.map(hexToLinear);
    const layers = [1, 1.9, 3.4].map((k) => ({ nx: Math.round((size.width / chip / 2.2) * k), ny: Math.round((size.height / chip / 2.2) * k) }));
    return (x, y) => {
      const [s, t] = [x / size.width, y / size.height];
      for (let l = 0; l < layers.length; l++) {
        const { nx, ny } = layers[l];
        const c = cells(s, t, nx, ny, seed + l * 50);
        const present = hash(c.id, 4, seed + l) < 0.5;
        const radius = 0.22 + 0.2 * hash(c.id, 5, seed + l);
        const wobble = 0.1 * noise(s, t, nx * 5, ny * 5, seed + l + 7);
        if (present && c.near + wobble < radius && c.next - c.near > 0.06) {
          const k = 0.85 + 0.3 * hash(c.id, 6, seed + l);
          const p = palette[Math.floor(hash(c.id, 7, seed + l) * palette.length)];
          return { shade: 1, colour: [p[0] * k, p[1] * k, p[2] * k], height: 0 };
        }
      }
      return { shade: 1.05 + 0.05 * fractal(s, t, 40, 40, seed + 90, 2), height: 0 };
    };
  },

  veins({ scale, vein }, { size }, seed) {
    const nx = Math.max(1, Math.round(size.width / scale));
    const ny = Math.max(1, Math.round(size.height / scale));
    const line = hexToLinear(vein);
    return (x, y) => {
      const [s, t] = [x / size.width, y / size.height];
      const wx = fractal(s, t, nx * 2, ny * 2, seed, 5) * 0.24;
      const wy = fractal(s, t, nx * 2, ny * 2, seed + 31, 5) * 0.24;
      const ridge = 1 - Math.abs(fractal(s + wx, t + wy, nx, ny * 2, seed + 62, 3));
      const fine = 1 - Math.abs(fractal(s + wx * 0.7, t + wy * 0.7, nx * 3, ny * 3, seed + 91, 3));
      const strength = Math.min(1, ridge ** 16 * 0.85 + fine ** 26 * 0.4);
      const cloud = 1 + 0.06 * fractal(s, t, nx * 2, ny * 2, seed + 120, 4);
      const base = 1 - strength;
      return {
        shade: cloud,
        height: 0,
        colour: strength > 0.02 ? [base * 0.76 + strength * line[0], base * 0.74 + strength * line[1], base * 0.69 + strength * line[2]] : undefined,
      };
    };
  },

  pile({ loop, contrast, ribbed }, { size }, seed) {
    const nx = Math.round(size.width / loop);
    const ny = Math.round(size.height / loop);
    return (x, y) => {
      const [s, t] = [x / size.width, y / size.height];
      if (ribbed) {
        const column = Math.floor(s * nx);
        const across = Math.abs((s * nx - column) * 2 - 1);
        const knot = Math.abs(Math.sin((t * ny + (column % 2) * 0.5) * Math.PI));
        const fibre = noise(s, t, nx * 6, ny, seed);
        const h = (1 - across * across) * (0.55 + 0.45 * knot);
        return { shade: 1 + contrast * (h * 1.2 - 0.8 + fibre * 0.5 + (hash(column, Math.floor(t * ny), seed) - 0.5) * 0.4), height: 0.003 * h };
      }
      const c = cells(s, t, nx, ny, seed);
      const h = Math.max(0, 1 - c.near * 1.35);
      const fibre = noise(s, t, nx * 5, ny * 5, seed + 3);
      return { shade: 1 + contrast * (h * 1.3 - 0.7 + fibre * 0.3 + (hash(c.id, 2, seed) - 0.5) * 0.6), height: 0.0035 * Math.sqrt(h) };
    };
  },

  weave({ thread, pattern, second, slub }, { size, colour }, seed) {
    const nx = Math.max(8, Math.round(size.width / thread / 8) * 8);
    const ny = Math.max(8, Math.round(size.height / thread / 8) * 8);
    const other = second ? hexToLinear(second) : null;
    const base = hexToLinear(colour);
    return (x, y) => {
      const p = (x / size.width) * nx;
      const q = (y / size.height) * ny;
      const i = Math.floor(p) % nx;
      const j = Math.floor(q) % ny;
      const turn = pattern === 'herringbone' ? (Math.floor(i / 8) % 2 ? -i : i) : i;
      const over = pattern === 'plain' ? (i + j) % 2 === 0 : (((turn + j) % 4) + 4) % 4 < 2;
      const [a, b] = over ? [p - Math.floor(p), q - Math.floor(q)] : [q - Math.floor(q), p - Math.floor(p)];
      const across = 1 - (2 * a - 1) ** 2;
      const crown = pattern === 'plain' ? Math.sin(Math.PI * b) : 0.75 + 0.25 * Math.sin(Math.PI * b);
      const uneven = slub * (over ? noise(i / nx, y / size.height, nx, 12, seed) : noise(x / size.width, j / ny, 12, ny, seed + 1));
      const shade = (0.58 + 0.55 * across * crown) * (1 + uneven * 0.4);
      const threadColour = other && !over ? other : null;
      return {
        shade,
        colour: threadColour
          ? [threadColour[0] * shade, threadColour[1] * shade, threadColour[2] * shade]
          : [base[0] * shade, base[1] * shade, base[2] * shade],
        height: thread * 0.35 * across * crown,
      };
    };
  },

  nap({ contrast }, { size }, seed) {
    return (x, y) => {
      const [s, t] = [x / size.width, y / size.height];
      return {
        shade: 1 + contrast * (fractal(s, t, 5, 4, seed, 3) * 1.1 + noise(s, t, 220, 220, seed + 9) * 0.35),
        height: 0.0001 * noise(s, t, 200, 200, seed + 3),
      };
    };
  },

  hide({ cell }, { size }, seed) {
    const nx = Math.round(size.width / cell);
    const ny = Math.round(size.height / cell);
    return (x, y) => {
      const [s, t] = [x / size.width, y / size.height];
      const c = cells(s, t, nx, ny, seed);
      const crease = Math.min(1, (c.next - c.near) * 3.5);
      return { shade: (0.82 + 0.18 * crease) * (1 + 0.1 * fractal(s, t, 4, 4, seed + 5, 3)), height: 0.00035 * crease };
    };
  },

  brushed({ contrast }, { size }, seed) {
    return (x, y) => {
      const [s, t] = [x / size.width, y / size.height];
      const line = noise(s, t, 3, 420, seed) * 0.6 + noise(s, t, 9, 900, seed + 1) * 0.4;
      return { shade: 1 + contrast * line, height: 0.00001 * line };
    };
  },

  blades({ contrast }, _finish, seed) {
    return (x, y) => {
      const [s, t] = [x / _finish.size.width, y / _finish.size.height];
      const tuft = fractal(s, t, 12, 12, seed, 4);
      const blade = noise(s + 0.004 * tuft, t, 190, 60, seed + 7);
      return { shade: 1 + contrast * (tuft * 0.5 + blade * 0.6), height: 0.01 * (blade + 1) };
    };
  },

  pebbles({ size: stone, contrast }, { size }, seed) {
    const nx = Math.round(size.width / stone);
    const ny = Math.round(size.height / stone);
    return (x, y) => {
      const [s, t] = [x / size.width, y / size.height];
      const c = cells(s, t, nx, ny, seed);
      const edge = Math.min(1, (c.next - c.near) * 2.5);
      const tone = (hash(c.id, 3, seed) - 0.5) * contrast;
      return { shade: (0.45 + 0.55 * edge) * (1 + tone + 0.1 * noise(s, t, nx * 6, ny * 6, seed + 2)), height: stone * 0.3 * Math.sqrt(edge) };
    };
  },
};

/**
 * Makes the pixels of a finish over one repeat of its real size. Opposite edges agree; the linear mean colour equals
 * the declared one, so that light reflectance and appearance cannot drift apart.
 *
 * @param pixels width of the texture; its height follows the real proportions
 * @param seed changes the pattern, not its character
 */
export function makeTexture(finish: Finish, pixels: number, seed = 1): Texture {
  const width = finish.maker.kind === 'flat' ? 4 : pixels;
  const height = finish.maker.kind === 'flat' ? 4 : Math.max(4, Math.round((pixels * finish.size.height) / finish.size.width));
  const build = builders[finish.maker.kind] as (maker: Maker, finish: Finish, seed: number) => Point;
  const point = build(finish.maker, finish, seed);
  const base = hexToLinear(finish.colour);
  const linear = new Float32Array(width * height * 3);
  const relief = finish.maker.kind === 'flat' ? null : new Float32Array(width * height);
  const mean = [0, 0, 0];
  for (let j = 0; j < height; j++)
    for (let i = 0; i < width; i++) {
      const k = j * width + i;
      const spot = point(((i + 0.5) / width) * finish.size.width, ((j + 0.5) / height) * finish.size.height);
      for (let c = 0; c < 3; c++) {
        const v = Math.max(0, spot.colour ? spot.colour[c] : base[c] * spot.shade);
        linear[k * 3 + c] = v;
        mean[c] += v;
      }
      if (relief) relief[k] = spot.height;
    }
  const count = width * height;
  const colour = new Uint8Array(count * 4);
  // Values clipped at white would darken the mean; a second pass makes up for it.
  let gain = base.map((b, c) => (mean[c] > 0 ? (b * count) / mean[c] : 1));
  for (let pass = 0; pass < 2; pass++) {
    const sum = [0, 0, 0];
    for (let k = 0; k < linear.length; k++) sum[k % 3] += Math.min(1, linear[k] * gain[k % 3]);
    gain = gain.map((g, c) => (sum[c] > 0 ? (g * base[c] * count) / sum[c] : g));
  }
  for (let k = 0; k < count; k++) {
    for (let c = 0; c < 3; c++) colour[k * 4 + c] = encode8(Math.min(1, linear[k * 3 + c] * gain[c]));
    colour[k * 4 + 3] = 255;
  }
  return { width, height, colour, relief };
}

/** Mean light reflectance value of a texture's own pixels, 0…100. */
export function textureLrv(texture: Texture): number {
  let sum = 0;
  const n = texture.width * texture.height;
  const table = Float64Array.from({ length: 256 }, (_, i) => (i / 255 <= 0.04045 ? i / 255 / 12.92 : ((i / 255 + 0.055) / 1.055) ** 2.4));
  for (let k = 0; k < n; k++) sum += luminance([table[texture.colour[k * 4]], table[texture.colour[k * 4 + 1]], table[texture.colour[k * 4 + 2]]]);
  return (100 * sum) / n;
}

/**
 * Tangent-space normal map of a relief (OpenGL convention, y up along v), RGB 8 bits.
 *
 * @param strength exaggeration of slopes
 */
export function normalMap(texture: Texture, size: { width: number; height: number }, strength = 1): Uint8Array | null {
  const { width, height, relief } = texture;
  if (!relief) return null;
  const out = new Uint8Array(width * height * 4);
  const dx = size.width / width;
  const dy = size.height / height;
  for (let j = 0; j < height; j++)
    for (let i = 0; i < width; i++) {
      const east = i + 1 === width ? 0 : i + 1;
      const west = i === 0 ? width - 1 : i - 1;
      const north = j + 1 === height ? 0 : j + 1;
      const south = j === 0 ? height - 1 : j - 1;
      const gx = ((relief[j * width + east] - relief[j * width + west]) / (2 * dx)) * strength;
      const gy = ((relief[north * width + i] - relief[south * width + i]) / (2 * dy)) * strength;
      const l = Math.sqrt(gx * gx + gy * gy + 1);
      const k = (j * width + i) * 4;
      out[k] = Math.round((-gx / l) * 127.5 + 127.5);
      out[k + 1] = Math.round((-gy / l) * 127.5 + 127.5);
      out[k + 2] = Math.round((1 / l) * 127.5 + 127.5);
      out[k + 3] = 255;
    }
  return out;
}
