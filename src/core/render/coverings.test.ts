import { describe, expect, it } from 'vitest';
import { finishById } from '../finishes/library';
import { meanColour } from '../finishes/finish';
import { IDENTITY } from '../geometry/mesh';
import type { Vec3 } from '../geometry/vec';
import type { Traits } from '../stock/traits';
import { FINE, makeParts, stockItem } from '../stock/stock';
import { Random } from './bsdf';
import { materialOf } from './compile';
import { diffuse, SceneBuilder, type Material } from './scene';
import { prepareScene } from './prepared';
import { Tracer } from './tracer';

const v = (x: number, y: number, z: number): Vec3 => ({ x, y, z });
const SIZE = { width: 1.2, depth: 0.1, height: 1.4 };

/**
 * What is seen through a covering from the room: the mean light over a part of it, where all that is behind it is an
 * even sky of 1 cd/m² and all before it is dark.
 */
function through(maker: string, traits: Traits, of: (part: string) => Material, [z0, z1]: [number, number], samples = 6000, size = SIZE): number {
  const builder = new SceneBuilder();
  for (const { part, mesh } of makeParts(stockItem(maker)!, size, traits, FINE)) builder.mesh(mesh, IDENTITY, builder.material(of(part)));
  const scene = builder.build({ sun: v(0, 0, 1), sunIlluminance: [0, 0, 0], sky: (d) => (d.y > 0 ? [1, 1, 1] : [0, 0, 0]) });
  const random = new Random(5);
  const rays = Array.from({ length: samples }, (_, i) => ({
    origin: v(0.08 + random.next() * 0.35, -2, z0 + ((i + random.next()) / samples) * (z1 - z0)),
    direction: v(0, 1, 0),
  }));
  const sum = Tracer.along(prepareScene(scene), rays, { seed: 3, bounces: 12 });
  let mean = 0;
  for (let i = 0; i < sum.length; i++) mean += [0.2126, 0.7152, 0.0722][i % 3] * sum[i];
  return mean / samples;
}
/** It throws nothing back, not even at a grazing angle. */
const black = { ...diffuse([0, 0, 0]), ior: 1 };
const luminance = ([r, g, b]: readonly number[]): number => 0.2126 * r + 0.7152 * g + 0.0722 * b;

describe('light through coverings', () => {
  it('through a flat blind is what its cloth leaves open, and what it scatters of the rest', () => {
    for (const id of ['cloth.sheer', 'cloth.sheer-oat', 'cloth.shade', 'cloth.oat-weave']) {
      const finish = finishById(id);
      const { opacity: o, translucency: t } = finish;
      const own = { ...materialOf(finish, null), sheen: 0 };
      const wanted = 1 - o + o * t * luminance(meanColour(finish));
      for (const [maker, traits] of [
        ['roller-blind', { lowered: 100 }],
        ['roman-blind', { lowered: 100, fold: 0.36 }],
      ] as const)
        // Between two rods of a Roman blind.
        expect(
          through(maker, traits, (part) => (part === 'cloth' ? own : black), maker === 'roman-blind' ? [0.05, 0.25] : [0.3, 0.9]),
          `${maker} ${id}`,
        ).toBeCloseTo(wanted, 1.5);
    }
  });

  it('is blocked by slats as far as they stand in its way, which is all when they are turned up', () => {
    // Slats 50 mm deep and 3 mm thick with edges rounded by 1.05 mm, 43 mm apart: what each covers of a pitch, seen straight.
    for (const tilt of [0, 20, 40]) {
      const a = (tilt * Math.PI) / 180;
      const r = 0.00105;
      const covered = Math.min(1, ((0.05 - 2 * r) * Math.sin(a) + (0.003 - 2 * r) * Math.cos(a) + 2 * r) / 0.043);
      // Twenty whole pitches.
      const seen = through('slatted-blind', { slat: '50 mm', lowered: 100, tilt }, (part) => (part === 'slats' ? black : { ...black, opacity: 0.02 }), [
        0.3,
        0.3 + 20 * 0.043,
      ]);
      expect(seen, `${tilt}°`).toBeCloseTo(1 - covered, 1.5);
    }
    expect(through('slatted-blind', { slat: '50 mm', lowered: 100, tilt: 75 }, () => black, [0.3, 1])).toBeLessThan(0.005);
  });

  it('is nothing through lined curtains that are drawn, less through the folds of a voile than through one layer of it', () => {
    const voile = finishById('cloth.sheer');
    const own = { ...materialOf(voile, null), sheen: 0 };
    const traits = { heading: 'wave', hung: 'track', drawn: 100 };
    const size = { width: 1.6, depth: 0.14, height: 1.4 };
    const layer = 1 - voile.opacity + voile.opacity * voile.translucency * luminance(meanColour(voile));
    const seen = through('curtain', traits, (part) => (part === 'cloth' ? own : black), [0.2, 1.1], 6000, size);
    // A fold scatters into its neighbours, and is seen aslant; at least the open part of one or two layers is left.
    expect(seen).toBeGreaterThan((1 - voile.opacity) ** 2);
    expect(seen).toBeLessThan(layer + 0.02);
    const oat = { ...materialOf(finishById('cloth.oat-weave'), null), sheen: 0 };
    expect(through('curtain', { ...traits, lining: 'lined' }, () => oat, [0.2, 1.1], 3000, size)).toBeLessThan(1e-6);
    // Undrawn they leave the middle free.
    expect(through('curtain', { ...traits, drawn: 0, lining: 'lined' }, () => oat, [0.2, 1.1], 2000, { width: 4, depth: 0.14, height: 1.4 })).toBeCloseTo(1, 6);
  });
});
