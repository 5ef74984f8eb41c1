import { hexToLinear } from '../colour';
import { hash } from '../noise';
import { clamp01, Fields, mix, smoothstep, type Makers } from './body';

/** What is fired, cut, cast or trowelled. */
export const mineralMakers: Makers<
  | 'flat'
  | 'glaze'
  | 'ceramic'
  | 'brick'
  | 'rock'
  | 'mottle'
  | 'concrete'
  | 'terrazzo'
  | 'granite'
  | 'veins'
  | 'rubble'
  | 'stipple'
  | 'comb'
  | 'marbled'
  | 'studs'
> = {
  flat: () => () => ({ shade: 1, height: 0 }),

  glaze({ pool, crackle }, ground) {
    const f = new Fields(ground.width, ground.height, ground.seed);
    const depth = f.fractal(0.07, 0.07, 3);
    const wave = f.fractal(0.11, 0.09, 2, 9);
    const crack = f.cells(0.012, 0.012, 4);
    return (x, y) => {
      const d = depth(x, y);
      let shade = 1 + 0.22 * pool * d;
      if (crackle > 0) {
        const c = crack(x + 0.002 * d, y);
        shade *= 1 - 0.35 * crackle * (1 - smoothstep(0.02, 0.07, c.next - c.near));
      }
      return { shade, height: 0.0005 * (0.5 + 0.5 * pool) * (wave(x, y) + 1) };
    };
  },

  ceramic({ speckle, relief }, ground) {
    const f = new Fields(ground.width, ground.height, ground.seed);
    const cloud = f.fractal(0.09, 0.09, 4);
    const fleck = f.noise(0.002, 0.002, 7);
    return (x, y) => {
      const c = cloud(x, y);
      return { shade: 1 + 0.12 * speckle * c - 0.5 * speckle * Math.max(0, fleck(x, y) - 0.5), height: relief * (0.5 + 0.5 * c) };
    };
  },

  brick({ contrast, relief }, ground) {
    const f = new Fields(ground.width, ground.height, ground.seed);
    const face = f.fractal(0.03, 0.02, 4);
    const drag = f.noise(0.05, 0.004, 5);
    const fleck = f.noise(0.005, 0.004, 12);
    return (x, y) => {
      const g = face(x, y);
      const k = Math.max(0, fleck(x, y) - 0.4);
      return { shade: 1 + contrast * (0.3 * g + 0.12 * drag(x, y) - 0.5 * k), height: relief * (0.6 + 0.4 * g - 0.5 * k) };
    };
  },

  rock({ cell, contrast, relief, layers }, ground) {
    const f = new Fields(ground.width, ground.height, ground.seed);
    const bulk = f.fractal(cell, cell * (1 - 0.6 * Math.min(1, layers)), 5);
    const bed = f.fractal(cell * 6, cell * 0.25, 3, 21);
    const ledge = f.cells(cell * 1.6, cell * 1.1, 33);
    return (x, y) => {
      const b = bulk(x, y);
      const l = layers > 0 ? bed(x, y) * layers : 0;
      // Riven faces break off in flat ledges.
      const step = layers > 0 ? (hash(ledge(x + 0.15 * cell * b, y).id, 2, ground.seed) - 0.5) * layers : 0;
      return { shade: 1 + contrast * (0.35 * b + 0.3 * l + 0.25 * step), height: relief * clamp01(0.5 + 0.35 * b + 0.4 * step), rough: 1 + 0.1 * b };
    };
  },

  mottle({ cell, contrast, relief }, ground) {
    const f = new Fields(ground.width, ground.height, ground.seed);
    const slow = f.fractal(cell, cell, 4);
    const trowel = f.fractal(cell, cell / 3, 3, 40);
    const fine = f.noise(cell / 24, cell / 24, 80);
    return (x, y) => {
      const [t, n] = [trowel(x, y), fine(x, y)];
      return { shade: 1 + contrast * (slow(x, y) * 1.2 + t * 0.5 + n * 0.25), height: relief * (1.4 + t + n * 0.4) };
    };
  },

  concrete({ board, contrast }, ground) {
    const f = new Fields(ground.width, ground.height, ground.seed);
    const slow = f.fractal(0.5, 0.5, 5);
    const fine = f.noise(0.006, 0.006, 3);
    const hole = f.cells(0.045, 0.045, 8);
    const rows = board > 0 ? f.countUp(board) : 0;
    const h = rows ? ground.height / rows : 1;
    const wood = f.fractal(1.2, 0.009, 3, 15);
    return (x, y) => {
      let shade = 1 + contrast * (0.5 * slow(x, y) + 0.12 * fine(x, y));
      let height = 0.001;
      const c = hole(x, y);
      if (hash(c.id, 4, ground.seed) < 0.16 && c.near < 0.07 + 0.06 * hash(c.id, 5, ground.seed)) {
        shade *= 0.62;
        height = 0;
      }
      if (rows) {
        const row = Math.floor(y / h);
        const edge = Math.min(y - row * h, (row + 1) * h - y);
        shade *= 1 + (hash(row, 6, ground.seed) - 0.5) * 0.12 + 0.07 * wood(x + hash(row, 7, ground.seed) * ground.width, y);
        height += 0.0008 * wood(x, y) + 0.0016 * hash(row, 8, ground.seed) + (edge < 0.003 ? 0.001 : 0);
      }
      return { shade, height };
    };
  },

  terrazzo({ chip, chips }, ground) {
    const palette = chips.map(hexToLinear);
    const f = new Fields(ground.width, ground.height, ground.seed);
    const layers = [1, 1.9, 3.4].map((k, l) => ({
      cells: f.cells((chip * 2.2) / k, (chip * 2.2) / k, l * 50),
      wobble: f.noise((chip * 0.44) / k, (chip * 0.44) / k, l + 7),
    }));
    const matrix = f.fractal(chip, chip, 2, 90);
    const { seed } = ground;
    return (x, y) => {
      for (let l = 0; l < layers.length; l++) {
        const c = layers[l].cells(x, y);
        if (hash(c.id, 4, seed + l) >= 0.5 || c.next - c.near <= 0.06) continue;
        if (c.near + 0.1 * layers[l].wobble(x, y) < 0.22 + 0.2 * hash(c.id, 5, seed + l))
          return { shade: 0.85 + 0.3 * hash(c.id, 6, seed + l), colour: palette[Math.floor(hash(c.id, 7, seed + l) * palette.length)], height: 0 };
      }
      return { shade: 1.05 + 0.05 * matrix(x, y), height: 0 };
    };
  },

  granite({ grain, flecks, share }, ground) {
    const palette = flecks.map(hexToLinear);
    const f = new Fields(ground.width, ground.height, ground.seed);
    const [coarse, fine] = [f.cells(grain), f.cells(grain * 0.45, grain * 0.45, 9)];
    const cloud = f.fractal(grain * 14, grain * 14, 3, 5);
    const { seed } = ground;
    return (x, y) => {
      const k = cloud(x, y) * 0.15;
      for (const [l, c] of [coarse(x, y), fine(x, y)].entries())
        if (hash(c.id, 3, seed + l) < share * (0.5 + k)) {
          const p = palette[Math.floor(hash(c.id, 7, seed + l) * palette.length)];
          return { shade: 0.85 + 0.3 * hash(c.id, 8, seed + l), colour: p, height: 0 };
        }
      return { shade: 1 + 0.06 * k, height: 0 };
    };
  },

  veins({ scale, vein, strength }, ground) {
    const line = hexToLinear(vein);
    const f = new Fields(ground.width, ground.height, ground.seed);
    const wx = f.fractal(scale / 2, scale / 2, 5);
    const wy = f.fractal(scale / 2, scale / 2, 5, 31);
    const ridge = f.fractal(scale, scale / 2, 3, 62);
    const fine = f.fractal(scale / 3, scale / 3, 3, 91);
    const cloud = f.fractal(scale / 2, scale / 2, 4, 120);
    const warp = 0.24 * ground.width;
    return (x, y) => {
      const [dx, dy] = [wx(x, y) * warp, wy(x, y) * warp];
      const r = 1 - Math.abs(ridge(x + dx, y + dy));
      const q = 1 - Math.abs(fine(x + dx * 0.7, y + dy * 0.7));
      const s = clamp01((r ** 16 * 0.85 + q ** 26 * 0.4) * strength);
      return { shade: 1 + 0.06 * cloud(x, y), height: 0, colour: s > 0.01 ? mix(ground.colour, line, s) : undefined };
    };
  },

  rubble({ stone, joint, joints, contrast }, ground) {
    const mortar = hexToLinear(joints);
    const f = new Fields(ground.width, ground.height, ground.seed);
    const stones = f.cells(stone * 1.35, stone * 0.8);
    const warp = f.fractal(stone * 0.8, stone * 0.8, 3, 6);
    const face = f.fractal(stone * 0.3, stone * 0.3, 5, 8);
    const sand = f.noise(0.004, 0.004, 3);
    const { seed } = ground;
    const width = (joint / stone) * 1.1;
    return (x, y) => {
      const w = warp(x, y) * stone * 0.12;
      const c = stones(x + w, y + w * 0.6);
      const gap = c.next - c.near - width;
      if (gap < 0) return { shade: 1 + 0.14 * sand(x, y), colour: mortar, height: 0, rough: 1.1 };
      const g = face(x, y);
      const tone = (hash(c.id, 3, seed) - 0.5) * contrast;
      return { shade: 1 + tone + 0.3 * g * (0.4 + contrast), height: 0.012 * smoothstep(0, 0.25, gap) + 0.004 * g };
    };
  },

  stipple({ cell, relief }, ground) {
    const f = new Fields(ground.width, ground.height, ground.seed);
    const peak = f.cells(cell);
    const fine = f.noise(cell / 3, cell / 3, 4);
    return (x, y) => {
      const c = peak(x, y);
      const h = clamp01(1.1 - c.near * 1.5) * (0.4 + 0.6 * hash(c.id, 2, ground.seed));
      return { shade: 0.93 + 0.1 * h + 0.02 * fine(x, y), height: relief * (h + 0.12 * (fine(x, y) + 1)) };
    };
  },

  comb({ radius, relief }, ground) {
    const f = new Fields(ground.width, ground.height, ground.seed);
    const rows = f.countUp(radius);
    const columns = f.countAcross(radius * 2);
    const [w, h] = [ground.width / columns, ground.height / rows];
    return (x, y) => {
      // Fans drawn with a comb, each lying over the ones behind it.
      let best = { d: 0, row: 0 };
      for (const k of [0, 1]) {
        const row = Math.floor(y / h) - k;
        const shift = ((((row % 2) + 2) % 2) * w) / 2;
        const cx = (Math.floor((x - shift) / w) + 0.5) * w + shift;
        const d = Math.hypot((x - cx) / (w / 2), (y - row * h) / (h * 2)) * radius;
        if (d < radius) {
          best = { d, row };
          break;
        }
        best = { d, row };
      }
      const line = 0.5 + 0.5 * Math.cos((best.d / (radius / 7)) * 2 * Math.PI);
      return { shade: 0.94 + 0.08 * line, height: relief * line };
    };
  },

  marbled({ scale, second }, ground) {
    const other = hexToLinear(second);
    const f = new Fields(ground.width, ground.height, ground.seed);
    const warp = f.fractal(scale * 2, scale, 3, 3);
    const streak = f.fractal(scale * 1.6, scale * 0.4, 4, 9);
    const { width } = ground;
    return (x, y) => {
      const s = streak(x + warp(x, y) * Math.min(width, scale), y);
      return { shade: 1, colour: mix(ground.colour, other, smoothstep(-0.1, 0.7, s) * 0.8), height: 0 };
    };
  },

  studs({ pitch, stud }, ground) {
    const f = new Fields(ground.width, ground.height, ground.seed);
    const [px, py] = [f.fitAcross(pitch), f.fitUp(pitch)];
    return (x, y) => {
      const dx = (x / px - Math.floor(x / px) - 0.5) * px;
      const dy = (y / py - Math.floor(y / py) - 0.5) * py;
      const edge = stud / 2 - Math.hypot(dx, dy);
      const h = smoothstep(0, 0.002, edge);
      return { shade: 0.94 + 0.08 * h - 0.12 * smoothstep(-0.003, 0, edge) * (1 - h), height: 0.001 * h };
    };
  },
};
