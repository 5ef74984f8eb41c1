import { describe, expect, it } from 'vitest';
import { IDENTITY, MeshBuilder } from '../geometry/mesh';
import type { Vec3 } from '../geometry/vec';
import { ggxValue, Random } from './bsdf';
import { KernelMemory } from './kernel/kernel';
import { prepareScene } from './prepared';
import { diffuse, SceneBuilder, type Material } from './scene';

const v = (x: number, y: number, z: number): Vec3 => ({ x, y, z });

/** One surface of a material, asked as paths ask it. */
class Surface {
  private readonly memory = new KernelMemory();
  private readonly out: number;

  constructor(material: Partial<Material>) {
    const builder = new SceneBuilder();
    builder.mesh(
      new MeshBuilder().quad(v(0, 0, 0), v(1, 0, 0), v(1, 1, 0), v(0, 1, 0)).build(),
      IDENTITY,
      builder.material({ ...diffuse([1, 1, 1]), ...material }),
    );
    this.memory.takeScene(prepareScene(builder.build(null)));
    this.out = this.memory.reserve(32);
  }

  /** Scattering times cosine from a direction to another, both away from the surface; and the density of scattering there. */
  value(from: Vec3, to: Vec3): { rgb: number[]; density: number } {
    this.memory.exports.scattering(0, -from.x, -from.y, -from.z, to.x, to.y, to.z, this.out);
    const [r, g, b, density] = this.memory.floats(this.out, 4);
    return { rgb: [r, g, b], density };
  }

  /** A direction drawn, its density, and scattering times cosine there. */
  draw(from: Vec3, sample: number): { to: Vec3; density: number; rgb: number[] } {
    this.memory.exports.scattered(0, -from.x, -from.y, -from.z, 77, sample, this.out);
    const [x, y, z, density, r, g, b] = this.memory.floats(this.out, 7);
    return { to: v(x, y, z), density, rgb: [r, g, b] };
  }

  /** The share of the light of an even white sky that is thrown back to a direction, by draws of its own. */
  albedo(from: Vec3, n = 4096): number {
    let sum = 0;
    for (let i = 0; i < n; i++) {
      const { density, rgb } = this.draw(from, i);
      if (density > 0) sum += rgb[1] / density;
    }
    return sum / n;
  }

  /** The same by quadrature over the sphere, so that draws and values are told apart. */
  integral(from: Vec3, steps = 160): { albedo: number; density: number } {
    let [albedo, density] = [0, 0];
    for (let i = 0; i < 2 * steps; i++) {
      const z = (i + 0.5) / steps - 1;
      const s = Math.sqrt(1 - z * z);
      for (let j = 0; j < steps; j++) {
        const a = ((j + 0.5) / steps) * 2 * Math.PI;
        const q = this.value(from, v(s * Math.cos(a), s * Math.sin(a), z));
        if (!(q.density > 0)) continue;
        albedo += q.rgb[1];
        density += q.density;
      }
    }
    const solid = (2 * Math.PI) / (steps * steps);
    return { albedo: albedo * solid, density: density * solid };
  }
}

const random = new Random(91);
const direction = (): Vec3 => {
  const z = 0.05 + 0.95 * random.next();
  const a = 2 * Math.PI * random.next();
  return v(Math.sqrt(1 - z * z) * Math.cos(a), Math.sqrt(1 - z * z) * Math.sin(a), z);
};
const at = (cos: number, turn = 0): Vec3 => v(Math.sqrt(1 - cos * cos) * Math.cos(turn), Math.sqrt(1 - cos * cos) * Math.sin(turn), cos);

const KINDS: [string, Partial<Material>][] = [
  ['matt paint', {}],
  ['satin paint', { roughness: 0.45 }],
  ['gloss paint', { roughness: 0.15 }],
  ['rough metal', { roughness: 0.8, metalness: 1 }],
  ['metal', { roughness: 0.4, metalness: 1 }],
  ['brushed metal', { roughness: 0.45, metalness: 1, anisotropy: 0.8 }],
  ['metal brushed the other way', { roughness: 0.45, metalness: 1, anisotropy: -0.8 }],
  ['half metal', { roughness: 0.5, metalness: 0.5 }],
  ['varnished wood', { coat: 1, coatRoughness: 0.15 }],
  ['lacquer on a rough ground', { roughness: 0.6, coat: 0.6, coatRoughness: 0.3 }],
  ['car paint', { roughness: 0.5, metalness: 1, coat: 1, coatRoughness: 0.1 }],
  ['lampshade', { roughness: 0.95, translucency: 0.5 }],
  ['glossy leaf', { roughness: 0.5, translucency: 0.3 }],
  ['velvet', { roughness: 0.95, sheen: 1 }],
];

describe.each(KINDS)('%s', (name, material) => {
  const surface = new Surface(material);

  it('throws back the same light whichever way it runs', () => {
    for (let i = 0; i < 300; i++) {
      const [a, b] = [direction(), direction()];
      const [there, back] = [surface.value(a, b), surface.value(b, a)];
      // Values carry the cosine of the way out.
      for (let c = 0; c < 3; c++) expect(Math.abs(there.rgb[c] / b.z - back.rgb[c] / a.z)).toBeLessThan(2e-3 * Math.abs(there.rgb[c] / b.z) + 1e-5);
    }
  });

  it('draws directions as often as it says', () => {
    for (const cos of [0.95, 0.5]) {
      const { density } = surface.integral(at(cos, 0.4), 200);
      // What is drawn into the ground is lost: the density sums to a little less than one.
      expect(density).toBeGreaterThan(0.82);
      expect(density).toBeLessThan(1.03);
      for (let i = 0; i < 50; i++) {
        const { to, density: own, rgb } = surface.draw(at(cos, 0.4), i);
        if (own <= 0) continue;
        const told = surface.value(at(cos, 0.4), to);
        expect(Math.abs(told.density / own - 1)).toBeLessThan(0.02);
        expect(Math.abs(told.rgb[1] - rgb[1])).toBeLessThan(0.02 * rgb[1] + 1e-6);
      }
    }
  });

  it('in a white furnace gives back all it gets where it is white, never more', () => {
    for (const cos of [0.98, 0.7, 0.35, 0.15]) {
      const albedo = surface.albedo(at(cos, 1.1));
      expect([name, cos, albedo < 1.02]).toEqual([name, cos, true]);
      // A coat over what mirrors keeps some, and so does a grain, whose albedo is taken from an even one.
      const least = material.coat && (material.metalness || material.roughness) ? 0.8 : material.sheen ? 0.75 : material.anisotropy ? 0.85 : 0.97;
      expect([name, cos, albedo > least || albedo]).toEqual([name, cos, true]);
    }
  });
});

describe('surfaces', () => {
  it('scatter by GGX as it is published: metal of one colour against the formula', () => {
    const rough = 0.5;
    const metal = new Surface({ roughness: rough, metalness: 1, colour: [1, 1, 1] });
    for (let i = 0; i < 300; i++) {
      const [a, b] = [direction(), direction()];
      const l = Math.hypot(a.x + b.x, a.y + b.y, a.z + b.z);
      const once = ggxValue(a.z, b.z, (a.z + b.z) / l, rough * rough);
      const value = metal.value(a, b).rgb[1];
      // A perfect reflector throws back what is scattered once, and what is scattered more often besides, which is little.
      expect(value).toBeGreaterThan(once * 0.998);
      expect(value - once).toBeLessThan(0.06);
    }
  });

  it('gain what single scattering loses: a rough perfect metal reflects all, without it a third is missing', () => {
    const metal = new Surface({ roughness: 1, metalness: 1 });
    let once = 0;
    const from = at(0.6);
    const steps = 200;
    for (let i = 0; i < steps; i++)
      for (let j = 0; j < steps; j++) {
        const to = at((i + 0.5) / steps, ((j + 0.5) / steps) * 2 * Math.PI);
        const l = Math.hypot(from.x + to.x, from.y + to.y, from.z + to.z);
        once += (ggxValue(from.z, to.z, (from.z + to.z) / l, 1) * 2 * Math.PI) / (steps * steps);
      }
    expect(once).toBeLessThan(0.75);
    expect(metal.albedo(from, 16384)).toBeCloseTo(1, 1.5);
  });

  it('with a grain reflect a streak across it: wide across the lines, narrow along them', () => {
    const brushed = new Surface({ roughness: 0.45, metalness: 1, anisotropy: 0.8 });
    const up = v(0, 0, 1);
    // Lines run along u, which is x here.
    const tilt = 0.3;
    const [along, across] = [brushed.value(up, v(Math.sin(tilt), 0, Math.cos(tilt))), brushed.value(up, v(0, Math.sin(tilt), Math.cos(tilt)))];
    expect(across.rgb[1]).toBeGreaterThan(along.rgb[1] * 3);
    const even = new Surface({ roughness: 0.45, metalness: 1 });
    expect(even.value(up, v(Math.sin(tilt), 0, Math.cos(tilt))).rgb[1]).toBeCloseTo(even.value(up, v(0, Math.sin(tilt), Math.cos(tilt))).rgb[1], 4);
  });

  it('under a clear coat have its highlight, uncoloured, whatever lies below', () => {
    const below: Partial<Material> = { colour: [0.4, 0.02, 0.02] };
    const [bare, coated] = [new Surface(below), new Surface({ ...below, coat: 1, coatRoughness: 0.1 })];
    const [from, mirrored, aside] = [v(0.6, 0, 0.8), v(-0.6, 0, 0.8), v(0, 0.6, 0.8)];
    const highlight = coated.value(from, mirrored).rgb;
    const grey = highlight.map((h, c) => h - coated.value(from, aside).rgb[c]);
    expect(grey[0] / grey[1]).toBeCloseTo(1, 1);
    expect(highlight[1]).toBeGreaterThan(bare.value(from, mirrored).rgb[1] * 20);
    // Towards grazing the coat throws most of it back before it gets below.
    const low = v(0, Math.sqrt(1 - 0.2 ** 2), 0.2);
    expect(coated.value(low, from).rgb[0]).toBeLessThan(bare.value(low, from).rgb[0] * 0.85);
  });
});
