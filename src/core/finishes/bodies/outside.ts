import { hash } from '../noise';
import { Fields, type Makers } from './body';

/** What grows, flows and lies outside. */
export const outsideMakers: Makers<'blades' | 'pebbles' | 'sand' | 'water'> = {
  blades({ contrast }, ground) {
    const f = new Fields(ground.width, ground.height, ground.seed);
    const [tuft, blade] = [f.fractal(0.1, 0.1, 4), f.noise(0.0063, 0.02, 7)];
    return (x, y) => {
      const t = tuft(x, y);
      const b = blade(x + 0.005 * t, y);
      return { shade: 1 + contrast * (t * 0.5 + b * 0.6), height: 0.01 * (b + 1) };
    };
  },

  pebbles({ stone, contrast }, ground) {
    const f = new Fields(ground.width, ground.height, ground.seed);
    const [bed, fine] = [f.cells(stone), f.noise(stone / 6, stone / 6, 2)];
    return (x, y) => {
      const c = bed(x, y);
      const edge = Math.min(1, (c.next - c.near) * 2.5);
      return { shade: (0.45 + 0.55 * edge) * (1 + (hash(c.id, 3, ground.seed) - 0.5) * contrast + 0.1 * fine(x, y)), height: stone * 0.3 * Math.sqrt(edge) };
    };
  },

  sand({ grain, contrast }, ground) {
    const f = new Fields(ground.width, ground.height, ground.seed);
    const [slow, fine, ripple] = [f.fractal(0.3, 0.3, 4), f.noise(grain, grain, 3), f.fractal(0.12, 0.04, 3, 7)];
    return (x, y) => ({ shade: 1 + contrast * (0.4 * slow(x, y) + 0.5 * fine(x, y)), height: 0.002 * (1 + ripple(x, y)) + grain * 0.3 * (fine(x, y) + 1) });
  },

  water({ wave, contrast }, ground) {
    const f = new Fields(ground.width, ground.height, ground.seed);
    const [deep, chop] = [f.fractal(wave, wave, 4), f.fractal(wave, wave / 3, 3, 40)];
    return (x, y) => ({ shade: 1 + contrast * deep(x, y), height: 0.0014 * (1 + chop(x, y)) });
  },
};
