import { hash } from '../noise';
import { Fields, clamp01, smoothstep, type Makers } from './body';

/** Sheets, meshes and beaten surfaces. */
export const metalMakers: Makers<'brushed' | 'hammered' | 'perforated' | 'mesh' | 'seam'> = {
  brushed({ contrast }, ground) {
    const f = new Fields(ground.width, ground.height, ground.seed);
    const [long, short] = [f.noise(0.1, 0.0007), f.noise(0.033, 0.00034, 1)];
    return (x, y) => {
      const line = long(x, y) * 0.6 + short(x, y) * 0.4;
      return { shade: 1 + contrast * line, height: 0.00001 * (line + 1), rough: 1 + 0.25 * line };
    };
  },

  hammered({ cell, relief }, ground) {
    const f = new Fields(ground.width, ground.height, ground.seed);
    const dent = f.cells(cell);
    return (x, y) => {
      const c = dent(x, y);
      const bowl = clamp01(c.near * c.near * 1.6);
      return { shade: 0.94 + 0.1 * bowl, height: relief * bowl };
    };
  },

  perforated({ pitch, hole }, ground) {
    const { width, height } = ground;
    const columns = Math.max(1, Math.round(width / pitch));
    const rows = Math.max(2, Math.round(height / ((pitch * Math.sqrt(3)) / 2) / 2) * 2);
    const [w, h] = [width / columns, height / rows];
    return (x, y) => {
      let d = Infinity;
      const r0 = Math.round(y / h);
      for (let r = r0 - 1; r <= r0 + 1; r++) {
        const shift = ((r % 2) + 2) % 2 === 1 ? 0.5 : 0;
        d = Math.min(d, Math.hypot((x / w - shift - Math.round(x / w - shift)) * w, y - r * h));
      }
      const solid = smoothstep(hole / 2 - 0.0003, hole / 2 + 0.0003, d);
      return { shade: 0.05 + 0.95 * solid, height: 0.001 * solid, rough: solid > 0.5 ? 1 : 2.5, open: 1 - solid };
    };
  },

  mesh({ pitch, wire }, ground) {
    const { width, height } = ground;
    const even = (n: number): number => Math.max(2, Math.round(n / 2) * 2);
    const [nx, ny] = [even(width / pitch), even(height / pitch)];
    const r = wire / 2;
    return (x, y) => {
      const [p, q] = [(x / width) * nx, (y / height) * ny];
      const [i, j] = [Math.round(p), Math.round(q)];
      const [dx, dy] = [Math.abs(p - i) * (width / nx), Math.abs(q - j) * (height / ny)];
      const over = (i + j) % 2 === 0;
      const bulge = (d: number): number => Math.sqrt(Math.max(0, 1 - (d / r) ** 2));
      const [up, along] = [bulge(dx) * (over ? 1 : 0.75), bulge(dy) * (over ? 0.75 : 1)];
      const h = Math.max(up, along);
      return { shade: h > 0 ? 0.35 + 0.75 * h : 0.06, height: wire * h, rough: h > 0 ? 1 : 2.5, open: h > 0 ? 0 : 1 };
    };
  },

  seam({ pitch, height: rise }, ground) {
    const f = new Fields(ground.width, ground.height, ground.seed);
    const step = f.fitAcross(pitch);
    const [cloud, oil] = [f.fractal(0.7, 1.2, 4), f.fractal(0.35, 0.9, 2, 5)];
    return (x, y) => {
      const k = Math.floor(x / step);
      const d = Math.min(x - k * step, (k + 1) * step - x);
      const ridge = 1 - smoothstep(0.004, 0.009, d);
      const tone = (hash(k, 4, ground.seed) - 0.5) * 0.05;
      return { shade: (1 + tone + 0.07 * cloud(x, y)) * (d < 0.014 && d > 0.008 ? 0.72 : 1), height: rise * ridge + 0.0012 * oil(x, y) };
    };
  },
};
