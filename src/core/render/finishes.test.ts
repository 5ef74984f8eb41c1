import { describe, expect, it } from 'vitest';
import { finishLrv, isPlain, meanColour, type Finish } from '../finishes/finish';
import { FINISHES, finishById } from '../finishes/library';
import { makeTexture } from '../finishes/texture';
import { IDENTITY, MeshBuilder } from '../geometry/mesh';
import type { Vec3 } from '../geometry/vec';
import { Random } from './bsdf';
import { materialOf } from './compile';
import { SceneBuilder } from './scene';
import { prepareScene } from './prepared';
import { Tracer } from './tracer';

const v = (x: number, y: number, z: number): Vec3 => ({ x, y, z });
const textureOf = (finish: Finish, pixels = 64) => (isPlain(finish) ? null : makeTexture(finish, pixels));

/** Light a wide floor of a finish throws back at the eye under an even sky of one cd/m², looked at over all of what repeats. */
function shown(finish: Finish, slant: number, samples = 2500): [number, number, number] {
  const builder = new SceneBuilder();
  const floor = new MeshBuilder().quad(v(-60, -60, 0), v(60, -60, 0), v(60, 60, 0), v(-60, 60, 0)).build();
  builder.mesh(floor, IDENTITY, builder.material(materialOf(finish, textureOf(finish))));
  const scene = builder.build({ sun: v(0, 0, 1), sunIlluminance: [0, 0, 0], sky: () => [1, 1, 1] });
  const random = new Random(17);
  const rays = Array.from({ length: samples }, () => ({
    origin: v(random.next() * 12 - 6, random.next() * 12 - 6, 2),
    direction: v(Math.sin(slant), 0, -Math.cos(slant)),
  }));
  const sum = Tracer.along(prepareScene(scene), rays, { seed: 4, bounces: 4 });
  const mean: [number, number, number] = [0, 0, 0];
  for (let i = 0; i < sum.length; i++) mean[i % 3] += sum[i] / samples;
  return mean;
}
const luminance = ([r, g, b]: readonly number[]): number => 0.2126 * r + 0.7152 * g + 0.0722 * b;

const matt = FINISHES.filter(
  (f) => f.roughness >= 0.9 && f.metalness === 0 && f.transmission === 0 && f.translucency === 0 && f.sheen === 0 && f.opacity === 1,
);

describe('finishes in a picture', () => {
  it('matt ones throw back as much light as their reflectance says, in their own colour', () => {
    expect(matt.length).toBeGreaterThan(40);
    // Every second: each takes a texture of its own.
    for (const finish of matt.filter((_, i) => i % 2 === 0)) {
      const rgb = shown({ ...finish, relief: 0 }, 0);
      const wanted = meanColour(finish);
      expect(Math.abs(100 * luminance(rgb) - (finish.reflectance ?? finishLrv(finish))), finish.id).toBeLessThan(1.5);
      for (let c = 0; c < 3; c++) expect(Math.abs(rgb[c] - wanted[c]), finish.id).toBeLessThan(0.02);
    }
  });

  it('relief shades them a little and never adds light', () => {
    for (const kind of ['brick', 'rubble', 'pebbles', 'stipple']) {
      const finish = FINISHES.find((f) => f.body.kind === kind)!;
      const [flat, deep] = [luminance(shown({ ...finish, relief: 0 }, 0.5)), luminance(shown(finish, 0.5))];
      expect(deep / flat).toBeLessThan(1.02);
      expect(deep / flat).toBeGreaterThan(0.7);
    }
  });

  it('glossy ones throw back more the flatter they are looked at, matt ones do not', () => {
    const gloss = { ...finishById('paint.ink-bottle'), roughness: 0.2 };
    expect(luminance(shown(gloss, 1.35))).toBeGreaterThan(luminance(shown(gloss, 0.1)) * 1.5);
    const dull = { ...gloss, roughness: 1 };
    expect(luminance(shown(dull, 1.35)) / luminance(shown(dull, 0.1))).toBeCloseTo(1, 1.5);
  });

  it('metals tint what they mirror: a polished brass in an even field shows its own colour', () => {
    const brass = finishById('metal.brass-polished');
    const rgb = shown(brass, 0.2);
    const own = meanColour(brass);
    expect(rgb[0]).toBeGreaterThan(rgb[2]);
    for (let c = 0; c < 3; c++) expect(Math.abs(rgb[c] - own[c])).toBeLessThan(0.08);
  });

  it('never throw back more than they get, whatever they are', () => {
    for (const finish of FINISHES.filter((f, i) => i % 12 === 0 && f.transmission === 0 && !f.glows)) {
      expect(luminance(shown(finish, 1.1, 800)), finish.id).toBeLessThan(1.02);
    }
  });

  it('are panes, solid glass or surfaces as their definition says', () => {
    for (const finish of FINISHES) {
      const material = materialOf(finish, null);
      expect(material.pane && material.solid).toBe(false);
      if (finish.transmission === 0) expect([material.pane, material.solid], finish.id).toEqual([false, false]);
      expect(material.opacity).toBe(finish.opacity);
      expect(material.sheen).toBe(finish.sheen);
    }
    expect(materialOf(finishById('glass.clear'), null).pane).toBe(true);
    expect(materialOf(finishById('glass.frosted'), null).pane).toBe(false);
    expect(materialOf(finishById('glass.frosted'), null).translucency).toBeGreaterThan(0);
    expect(materialOf(finishById('glass.cast'), null).solid).toBe(true);
    const reeded = finishById('glass.reeded');
    expect(materialOf(reeded, textureOf(reeded)).texture?.normals).toBeTruthy();
  });
});
