import { hexToLinear, type Rgb } from '../colour';
import { hash } from '../noise';
import { clamp01, Fields, mix, mod, smoothstep, type Ground, type Makers } from './body';

/** The relief of a plain weave, which prints and papers lie on: 1 without threads. */
function clothUnder(thread: number, ground: Ground): (x: number, y: number) => { shade: number; height: number } {
  if (thread <= 0) return () => ({ shade: 1, height: 0 });
  const even = (n: number): number => Math.max(2, Math.round(n / 2) * 2);
  const [nx, ny] = [even(ground.width / thread), even(ground.height / thread)];
  return (x, y) => {
    const [p, q] = [(x / ground.width) * nx, (y / ground.height) * ny];
    const over = (Math.floor(p) + Math.floor(q)) % 2 === 0;
    const a = over ? p - Math.floor(p) : q - Math.floor(q);
    const across = 1 - (2 * a - 1) ** 2;
    return { shade: 0.72 + 0.38 * across, height: thread * 0.3 * across };
  };
}

/** How much of the second colour lies at a point of a motif's cell, and of the third; coordinates −1…1. */
const MOTIFS: Record<string, (u: number, v: number, odd: boolean) => [number, number]> = {
  dot: (u, v) => [smoothstep(0.42, 0.36, Math.hypot(u, v)), 0],
  star: (u, v) => {
    const a = Math.atan2(v, u);
    return [smoothstep(0.04, -0.04, Math.hypot(u, v) - (0.34 + 0.16 * Math.cos(5 * a))), smoothstep(0.14, 0.08, Math.hypot(u, v))];
  },
  flower: (u, v) => {
    const [r, a] = [Math.hypot(u, v), Math.atan2(v, u)];
    return [smoothstep(0.05, -0.05, r - (0.4 + 0.14 * Math.cos(6 * a))), smoothstep(0.17, 0.12, r)];
  },
  leaf: (u, v) => {
    const body = Math.abs(u) - 0.34 * Math.sqrt(clamp01(1 - (v / 0.82) ** 2)) * (1 - 0.35 * (v + 0.82));
    const rib = Math.min(Math.abs(u), Math.abs(mod(v * 4 + Math.abs(u) * 2.4, 1) - 0.5) * 0.5);
    return [smoothstep(0.03, -0.03, body), smoothstep(0.045, 0.02, rib) * smoothstep(0.0, -0.05, body)];
  },
  sprig: (u, v) => {
    const stem = smoothstep(0.06, 0.03, Math.abs(u - 0.16 * Math.sin(v * 2.6))) * smoothstep(0.84, 0.8, Math.abs(v));
    let leaf = 0;
    for (let k = -2; k <= 2; k++)
      for (const s of [-1, 1]) {
        const cy = k * 0.32 + s * 0.07;
        const cx = 0.16 * Math.sin(cy * 2.6) + s * 0.24;
        const [dx, dy] = [u - cx, v - cy];
        const [p, q] = [dx * 0.82 + s * dy * 0.57, -s * dx * 0.57 + dy * 0.82];
        leaf = Math.max(leaf, smoothstep(1.1, 0.85, Math.hypot(p / 0.19, q / 0.08)));
      }
    return [Math.max(stem, leaf), smoothstep(0.13, 0.09, Math.hypot(u - 0.16 * Math.sin(2.1), v - 0.82))];
  },
  trellis: (u, v) => {
    const d = Math.min(Math.abs(mod(u + v + 1, 2) - 1), Math.abs(mod(u - v + 1, 2) - 1));
    return [smoothstep(0.13, 0.09, d), smoothstep(0.2, 0.15, Math.hypot(Math.abs(u) - 1, v) * 1.4)];
  },
  scallop: (u, v) => {
    const rings = (r: number): number => smoothstep(0.5, 0.62, Math.abs(mod(r * 3.2, 1) - 0.5) * 2);
    const inside = Math.hypot(u, v + 1);
    if (inside < 1.05) return [rings(inside / 1.05) * smoothstep(0.0, 0.05, 1.05 - inside) + smoothstep(0.06, 0, 1.05 - inside), 0];
    const other = Math.hypot(Math.abs(u) - 1, v);
    return [rings(other / 1.05), 0];
  },
  wave: (u, v) => [smoothstep(0.05, -0.05, Math.abs(mod(v * 2 + 0.35 * Math.sin(u * Math.PI) + 1, 2) - 1) - 0.45), 0],
  check: (u, v) => {
    const [a, b] = [u > 0 ? 1 : 0, v > 0 ? 1 : 0];
    return [(a + b) / 2, 0];
  },
  key: (u, v) => {
    const [x, y] = [Math.abs(u), Math.abs(v)];
    const m = Math.max(x, y);
    const line = Math.abs(mod(m * 4, 2) - 1) < 0.42;
    const cut = u > 0 && Math.abs(v) < 0.14;
    return [line && !cut ? 1 : 0, 0];
  },
  'star-tile': (u, v) => {
    const eight = Math.max(Math.abs(u) + Math.abs(v), Math.max(Math.abs(u), Math.abs(v)) * 1.42) - 0.82;
    const corner = Math.hypot(Math.abs(u) - 1, Math.abs(v) - 1);
    return [Math.max(smoothstep(0.02, -0.02, eight), smoothstep(0.36, 0.32, corner)), smoothstep(0.32, 0.28, Math.hypot(u, v))];
  },
  quarter: (u, v, odd) => {
    const r = Math.hypot(u + 1, (odd ? v : -v) + 1);
    return [r < 1.05 || (r > 1.4 && r < 1.6) ? 1 : 0, 0];
  },
};

/** Cloth, carpet, hide and printed or woven paper. */
export const textileMakers: Makers<'pile' | 'weave' | 'boucle' | 'nap' | 'hide' | 'motif' | 'stripe' | 'grasscloth'> = {
  pile({ loop, contrast, form }, ground) {
    const { width, height, seed } = ground;
    const f = new Fields(width, height, seed);
    if (form === 'rib') {
      const [nx, ny] = [f.countAcross(loop), f.countUp(loop)];
      const fibre = f.noise(loop / 6, loop);
      return (x, y) => {
        const s = (x / width) * nx;
        const column = Math.floor(s);
        const across = Math.abs((s - column) * 2 - 1);
        const t = (y / height) * ny;
        const knot = Math.abs(Math.sin((t + (column % 2) * 0.5) * Math.PI));
        const h = (1 - across * across) * (0.55 + 0.45 * knot);
        return { shade: 1 + contrast * (h * 1.2 - 0.8 + fibre(x, y) * 0.5 + (hash(column, Math.floor(t), seed) - 0.5) * 0.4), height: 0.003 * h };
      };
    }
    const tuft = f.cells(loop);
    const fibre = f.noise(loop / 5, loop / 5, 3);
    const tread = f.fractal(0.3, 0.3, 3, 8);
    return (x, y) => {
      const c = tuft(x, y);
      const h = Math.max(0, 1 - c.near * 1.35);
      const lean = form === 'cut' ? 0.5 * tread(x, y) : 0;
      return {
        shade: 1 + contrast * (h * (form === 'cut' ? 0.7 : 1.3) - 0.6 + fibre(x, y) * (form === 'cut' ? 0.6 : 0.3) + lean + (hash(c.id, 2, seed) - 0.5) * 0.6),
        height: (form === 'cut' ? 0.0006 : 0.0035) * Math.sqrt(h),
      };
    };
  },

  weave({ thread, pattern, second, slub }, ground) {
    const { width, height, seed, colour } = ground;
    const whole = (n: number): number => Math.max(8, Math.round(n / 8) * 8);
    const [nx, ny] = [whole(width / thread), whole(height / thread)];
    const other = second ? hexToLinear(second) : null;
    const f = new Fields(width, height, seed);
    const [warp, weft] = [f.noise(thread, 0.04), f.noise(0.04, thread, 1)];
    const lies = (i: number, j: number): boolean => {
      if (pattern === 'plain') return (i + j) % 2 === 0;
      if (pattern === 'basket') return (Math.floor(i / 2) + Math.floor(j / 2)) % 2 === 0;
      const turn = pattern === 'herringbone' && Math.floor(i / 8) % 2 ? -i : i;
      return mod(turn + j, 4) < 2;
    };
    return (x, y) => {
      const [p, q] = [(x / width) * nx, (y / height) * ny];
      const [i, j] = [Math.floor(p) % nx, Math.floor(q) % ny];
      const over = lies(i, j);
      const [a, b] = over ? [p - Math.floor(p), q - Math.floor(q)] : [q - Math.floor(q), p - Math.floor(p)];
      const across = 1 - (2 * a - 1) ** 2;
      const crown = pattern === 'plain' ? Math.sin(Math.PI * b) : 0.75 + 0.25 * Math.sin(Math.PI * b);
      const uneven = slub * (over ? warp(x, y) : weft(x, y));
      return {
        shade: (0.58 + 0.55 * across * crown) * (1 + uneven * 0.4),
        colour: other && !over ? other : colour,
        height: thread * 0.35 * across * crown,
      };
    };
  },

  boucle({ loop, contrast }, ground) {
    const f = new Fields(ground.width, ground.height, ground.seed);
    const curl = f.cells(loop);
    const small = f.cells(loop * 0.6, loop * 0.6, 5);
    return (x, y) => {
      const [a, b] = [curl(x, y), small(x, y)];
      // Loops of yarn: a ring round each centre.
      const ring = (r: number): number => clamp01(1 - Math.abs(r - 0.42) * 3.2);
      const h = Math.max(ring(a.near), 0.75 * ring(b.near));
      return { shade: 1 + contrast * (h * 1.1 - 0.6 + (hash(a.id, 3, ground.seed) - 0.5) * 0.3), height: 0.0028 * h };
    };
  },

  nap({ contrast }, ground) {
    const f = new Fields(ground.width, ground.height, ground.seed);
    const [stroke, fibre, low] = [f.fractal(0.1, 0.125, 3), f.noise(0.0022, 0.0022, 9), f.noise(0.0025, 0.0025, 3)];
    return (x, y) => ({ shade: 1 + contrast * (stroke(x, y) * 1.1 + fibre(x, y) * 0.35), height: 0.0001 * (low(x, y) + 1) });
  },

  hide({ cell }, ground) {
    const f = new Fields(ground.width, ground.height, ground.seed);
    const [grain, cloud] = [f.cells(cell), f.fractal(0.06, 0.06, 3, 5)];
    return (x, y) => {
      const c = grain(x, y);
      const crease = Math.min(1, (c.next - c.near) * 3.5);
      return { shade: (0.82 + 0.18 * crease) * (1 + 0.1 * cloud(x, y)), height: 0.00035 * crease, rough: 1.15 - 0.15 * crease };
    };
  },

  motif({ motif, pitch, ground: paper, second, third, thread }, ground) {
    const { width, height } = ground;
    const base = hexToLinear(paper);
    const f = new Fields(width, height, ground.seed);
    const even = (n: number): number => Math.max(2, Math.round(n / 2) * 2);
    const columns = f.countAcross(pitch);
    // Sprigs and dots stand in alternate rows, as printers set them.
    const dropped = ['sprig', 'flower', 'dot', 'star', 'leaf'].includes(motif);
    const rows = dropped || motif === 'quarter' ? even(height / pitch) : f.countUp(pitch);
    const [w, h] = [width / columns, height / rows];
    // What stands alone keeps its proportions.
    const [kx, ky] = dropped ? [w / Math.min(w, h), h / Math.min(w, h)] : [1, 1];
    const [two, three] = [hexToLinear(second), hexToLinear(third ?? second)];
    const under = clothUnder(thread, ground);
    const draw = MOTIFS[motif];
    return (x, y) => {
      const row = Math.floor(y / h);
      const sx = x / w + (dropped && row % 2 ? 0.5 : 0);
      const u = ((sx - Math.floor(sx)) * 2 - 1) * kx;
      const v = ((y / h - row) * 2 - 1) * ky;
      const [a, b] = draw(u, v, row % 2 === 1);
      let c: Rgb = base;
      if (a > 0) c = mix(c, two, clamp01(a));
      if (b > 0) c = mix(c, three, clamp01(b));
      const cloth = under(x, y);
      return { shade: cloth.shade, colour: c, height: cloth.height };
    };
  },

  stripe({ width: wide, ground: first, colours, thread }, ground) {
    const all: Rgb[] = [first, ...colours].map(hexToLinear);
    const f = new Fields(ground.width, ground.height, ground.seed);
    const sets = Math.max(1, Math.round(ground.width / (wide * all.length)));
    const step = ground.width / (sets * all.length);
    const under = clothUnder(thread, ground);
    const tone = f.fractal(0.2, 0.2, 2);
    return (x, y) => {
      const cloth = under(x, y);
      return { shade: cloth.shade * (1 + 0.01 * tone(x, y)), colour: all[Math.floor(x / step) % all.length], height: cloth.height };
    };
  },

  grasscloth({ thread, second }, ground) {
    const other = hexToLinear(second);
    const { width, height, seed, colour } = ground;
    const f = new Fields(width, height, seed);
    const ny = f.countUp(thread);
    const [wobble, slub, warp] = [f.noise(0.09, thread * 3), f.noise(0.12, thread, 4), f.noise(0.011, height, 8)];
    return (x, y) => {
      const t = (y / height) * ny + 0.35 * wobble(x, y);
      const row = Math.floor(t);
      const a = t - row;
      const across = 1 - (2 * a - 1) ** 2;
      const tone = hash(((row % ny) + ny) % ny, 3, seed);
      const thin = slub(x, y) > 0.1 + 0.4 * tone;
      return {
        shade: (0.7 + 0.35 * across) * (1 + (tone - 0.5) * 0.2) * (warp(x, y) > 0.93 ? 1.12 : 1),
        colour: mix(colour, other, thin ? 0.8 : tone * 0.35),
        height: thread * 0.4 * across,
      };
    };
  },
};
