import { hash } from '../noise';
import { clamp01, Fields, mod, smoothstep, type Ground, type Makers } from './body';

type Grain = (x: number, y: number) => number;

/** Wood grain along x, about −1…1: growth rings cut lengthwise, warped by slow noise, with fine pores. */
export function grainOf(ground: Pick<Ground, 'width' | 'height' | 'seed'>, cut: 'plain' | 'quarter' | 'burr', figure: number, pores: number): Grain {
  const f = new Fields(ground.width, ground.height, ground.seed);
  const pore = f.noise(0.036, 0.0011, 23);
  const streak = f.noise(0.32, 0.0021, 11);
  if (cut === 'burr') {
    const swirl = f.fractal(0.09, 0.09, 4, 1);
    const eye = f.cells(0.05, 0.05, 7);
    const ring = f.fractal(0.02, 0.02, 3, 9);
    return (x, y) => {
      const s = swirl(x, y);
      const e = eye(x + 0.02 * s, y + 0.02 * s);
      return 0.7 * Math.sin(e.near * 22 + s * 6) * clamp01(1.1 - e.near) + 0.35 * ring(x, y) - (e.near < 0.12 ? 0.6 : 0) * pores;
    };
  }
  if (cut === 'quarter') {
    const bands = f.fractal(2.4, 0.006, 3, 5);
    const ray = f.noise(0.05, 0.012, 31);
    return (x, y) => bands(x, y) * 0.6 + streak(x, y) * 0.35 + Math.max(0, ray(x, y) - 0.55) * 0.9 * figure - Math.max(0, pore(x, y) - 0.45) * 0.7 * pores;
  }
  const warp = f.fractal(0.9, 0.16, 3, 0);
  const rings = f.fractal(4, 0.011, 3, 5);
  // Cathedrals: where the board lies near the heart, the rings run out into long arches.
  const slow = f.fractal(1.6, 0.3, 2, 40);
  return (x, y) => {
    const w = warp(x, y) * 0.02 * figure;
    const arch = Math.sin((slow(x, y) * 9 + y * 26) * Math.PI) * 0.28 * figure;
    return rings(x, y + w) * 0.5 + arch + streak(x, y + w * 0.3) * 0.3 - Math.max(0, pore(x, y) - 0.45) * 0.7 * pores;
  };
}

/** Timber and what is made of it. */
export const timberMakers: Makers<'timber' | 'ribs' | 'boards' | 'cork' | 'thatch'> = {
  timber({ cut, contrast, figure, pores }, ground) {
    const grain = grainOf(ground, cut, figure, pores);
    return (x, y) => {
      const g = grain(x, y);
      return { shade: 1 + contrast * g * 0.6, height: 0.0001 * (g + 1), rough: 1 + 0.12 * g };
    };
  },

  ribs({ pitch, gap, depth, form, grain, upright }, ground) {
    const { width, height, seed } = ground;
    // Along the ribs runs the grain.
    const along = upright ? height : width;
    const across = upright ? width : height;
    const count = Math.max(1, Math.round(across / pitch));
    const step = across / count;
    const wood = grainOf({ width: along, height: across, seed }, 'quarter', 0.6, 0.8);
    return (x, y) => {
      const [u, v] = upright ? [y, x] : [x, y];
      const k = Math.floor(v / step);
      const t = v / step - k;
      const tone = (hash(k, 5, seed) - 0.5) * 0.14 * grain;
      const g = grain > 0 ? wood(u, mod(v + hash(k, 6, seed) * across, across)) * grain * 0.5 : 0;
      const inGap = t < gap;
      if (form === 'slat') {
        const edge = Math.min(t - gap, 1 - t) * step;
        if (inGap) return { shade: 0.12, height: 0, rough: 1.1 };
        return { shade: (1 + tone + g) * (0.8 + 0.2 * smoothstep(0, 0.0015, edge)), height: depth * (0.9 + 0.1 * smoothstep(0, 0.002, edge)) };
      }
      const a = inGap ? 0 : Math.sin((Math.PI * (t - gap)) / Math.max(1e-6, 1 - gap));
      const h = form === 'round' ? Math.sqrt(a) : 1 - Math.sqrt(a);
      return { shade: (1 + tone + g) * (0.55 + 0.45 * Math.sqrt(h)), height: depth * h };
    };
  },

  boards({ height: board, form, grain, contrast }, ground) {
    const { width, height, seed } = ground;
    const rows = Math.max(1, Math.round(height / board));
    const h = height / rows;
    const wood = grainOf(ground, 'plain', 0.6, 0.6);
    return (x, y) => {
      const row = Math.floor(y / h);
      const t = y / h - row;
      const tone = (hash(row, 3, seed) - 0.5) * 0.3 * contrast;
      const g = grain > 0 ? wood(mod(x + hash(row, 4, seed) * width, width), mod(y + hash(row, 5, seed) * height, height)) * grain * 0.45 : 0;
      const shade = 1 + tone + g * (0.4 + contrast);
      if (form === 'log') {
        const round = Math.sqrt(Math.max(0, 1 - (2 * t - 1) ** 2));
        return { shade: shade * (0.45 + 0.55 * round), height: h * 0.24 * round };
      }
      if (form === 'groove') {
        const edge = Math.min(t, 1 - t) * h;
        return { shade: shade * (0.4 + 0.6 * smoothstep(0, 0.004, edge)), height: 0.005 * smoothstep(0, 0.006, edge) + 0.0001 * g };
      }
      // Each board leans out over the one below; under its lower edge lies shade.
      const under = smoothstep(0.9, 1, t);
      return { shade: shade * (1 - 0.5 * under) * (0.94 + 0.06 * (1 - t)), height: 0.014 * (1 - t) * (1 - under) };
    };
  },

  cork({ grain, contrast }, ground) {
    const f = new Fields(ground.width, ground.height, ground.seed);
    const chunk = f.cells(grain);
    const fine = f.noise(grain / 5);
    return (x, y) => {
      const c = chunk(x, y);
      const tone = (hash(c.id, 3, ground.seed) - 0.5) * contrast;
      const seam = smoothstep(0, 0.12, c.next - c.near);
      return { shade: (1 + tone + 0.1 * fine(x, y)) * (0.72 + 0.28 * seam), height: 0.0003 * seam };
    };
  },

  thatch({ contrast }, ground) {
    const f = new Fields(ground.width, ground.height, ground.seed);
    const clump = f.fractal(0.14, 0.5, 3);
    const straw = f.noise(0.006, 0.28, 4);
    const fine = f.noise(0.0035, 0.16, 9);
    return (x, y) => {
      const s = straw(x + 0.01 * clump(x, y), y);
      const h = 0.5 * s + 0.3 * fine(x, y) + 0.5 * clump(x, y);
      return { shade: 1 + contrast * h * 0.7, height: 0.012 * (h + 1) };
    };
  },
};
