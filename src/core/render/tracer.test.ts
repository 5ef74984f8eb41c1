import { describe, expect, it } from 'vitest';
import { IDENTITY, MeshBuilder, type Matrix, type Mesh } from '../geometry/mesh';
import { lathe } from '../geometry/shapes';
import type { Vec3 } from '../geometry/vec';
import { sheenAlbedo } from './bsdf';
import { portalOf } from './compile';
import { diffuse, SceneBuilder, type Material, type Scene } from './scene';
import { Film } from './film';
import { prepareScene } from './prepared';
import { Tracer, type Region } from './tracer';

const v = (x: number, y: number, z: number): Vec3 => ({ x, y, z });
const camera = { eye: v(0, 0, 0), target: v(1, 0, 0), fov: 1 };

/** A box seen from inside: its triangles face inwards. */
function inside(size: number): Mesh {
  const box = new MeshBuilder().box(-size, -size, -size, size, size, size).build();
  const indices = box.indices.slice();
  for (let i = 0; i < indices.length; i += 3) [indices[i + 1], indices[i + 2]] = [indices[i + 2], indices[i + 1]];
  return { ...box, indices, normals: box.normals.map((n) => -n) };
}

const sphere = (radius: number, z: number): Mesh =>
  lathe(
    Array.from({ length: 25 }, (_, i) => [radius * Math.sin((i / 24) * Math.PI), z - radius * Math.cos((i / 24) * Math.PI)] as const),
    { segments: 48 },
  );

/** Mean radiance (green) over many estimates of one ray. */
function measure(scene: Scene, ray: { origin: Vec3; direction: Vec3 }, n: number, bounces: number, seed = 1): { mean: number; variance: number } {
  const sum = Tracer.along(prepareScene(scene), new Array<typeof ray>(n).fill(ray), { seed, bounces });
  let mean = 0;
  for (let i = 0; i < n; i++) mean += sum[i * 3 + 1] / n;
  let variance = 0;
  for (let i = 0; i < n; i++) variance += (sum[i * 3 + 1] - mean) ** 2 / (n - 1);
  return { mean, variance };
}

const floor = (z = 0, r = 50): Mesh => new MeshBuilder().quad(v(-r, -r, z), v(r, -r, z), v(r, r, z), v(-r, r, z)).build();

describe('light transport', () => {
  it('fills a closed furnace of uniform emitter and albedo with the analytic radiance Le / (1 − ρ)', () => {
    for (const rho of [0.2, 0.5, 0.8]) {
      const builder = new SceneBuilder();
      builder.mesh(inside(5), IDENTITY, builder.material({ ...diffuse([rho, rho, rho]), emission: [10, 10, 10] }));
      const { mean, variance } = measure(builder.build(null), { origin: v(1, 0.1, 0.2), direction: v(-0.6, 0, 0.8) }, 20000, 100);
      expect(Math.abs(mean - 10 / (1 - rho))).toBeLessThan(5 * Math.sqrt(variance / 20000) + 1e-3);
    }
  });

  it('shows a convex body in a uniform field with its albedo times the field', () => {
    for (const rho of [0.2, 0.5, 0.8]) {
      const builder = new SceneBuilder();
      builder.mesh(inside(5), IDENTITY, builder.material({ ...diffuse([0, 0, 0]), emission: [10, 10, 10] }));
      builder.mesh(sphere(1, 0), IDENTITY, builder.material(diffuse([rho, rho, rho])));
      // A thousandth of the directions about the smoothed normal lies below the facet, and ends there.
      const { mean } = measure(builder.build(null), { origin: v(3, 0.1, 0.2), direction: v(-1, 0, 0) }, 4000, 12);
      expect(Math.abs(mean / (10 * rho) - 1)).toBeLessThan(0.002);
    }
  });

  it('shows open ground under a uniform sky with its albedo times the sky', () => {
    const builder = new SceneBuilder();
    builder.mesh(floor(0, 200), IDENTITY, builder.material(diffuse([0.6, 0.6, 0.6])));
    const scene = builder.build({ sun: v(0, 0, 1), sunIlluminance: [0, 0, 0], sky: () => [7, 7, 7] });
    expect(measure(scene, { origin: v(0, 0, 2), direction: v(0, 0, -1) }, 4000, 12).mean).toBeCloseTo(4.2, 4);
  });

  it('gives a point source the illuminance Φ / (4π d²)', () => {
    const flux = 1000;
    for (const d of [1, 2, 3]) {
      const builder = new SceneBuilder();
      const ground = builder.material(diffuse([0.5, 0.5, 0.5]));
      builder.mesh(floor(), IDENTITY, ground);
      const bulb = sphere(0.02, d);
      const area = builderArea(bulb);
      const l = flux / (Math.PI * area);
      const lamp = builder.material({ ...diffuse([0, 0, 0]), emission: [l, l, l], lamp: 0 });
      const { first, count } = builder.mesh(bulb, IDENTITY, lamp);
      builder.light(first, count, [l, l, l], flux);
      const { mean } = measure(builder.build(null), { origin: v(0.3, 0, 0.2), direction: v(-0.83205, 0, -0.5547) }, 40000, 1);
      // Shown radiance ρE/π at the foot of the source.
      expect((mean * Math.PI) / 0.5 / (flux / (4 * Math.PI * d * d))).toBeCloseTo(1, 1.5);
    }
  });

  it('gives a Lambertian rectangle the closed-form illuminance below its corner', () => {
    // Form factor of a parallel rectangle a × b at height c above a point under its corner.
    const [a, b, c] = [1.2, 0.8, 1.5];
    const x = a / c;
    const y = b / c;
    const factor =
      (1 / (2 * Math.PI)) *
      ((x / Math.sqrt(1 + x * x)) * Math.atan(y / Math.sqrt(1 + x * x)) + (y / Math.sqrt(1 + y * y)) * Math.atan(x / Math.sqrt(1 + y * y)));
    const l = 500;
    const builder = new SceneBuilder();
    builder.mesh(floor(), IDENTITY, builder.material(diffuse([0.4, 0.4, 0.4])));
    const lamp = builder.material({ ...diffuse([0, 0, 0]), emission: [l, l, l], lamp: 0 });
    const panel = new MeshBuilder().quad(v(0, b, c), v(a, b, c), v(a, 0, c), v(0, 0, c)).build();
    const { first, count } = builder.mesh(panel, IDENTITY, lamp);
    builder.light(first, count, [l, l, l], l * Math.PI * a * b);
    const { mean } = measure(builder.build(null), { origin: v(-1, -1, 1), direction: v(0.57735, 0.57735, -0.57735) }, 40000, 1);
    const expected = Math.PI * l * factor;
    expect((mean * Math.PI) / 0.4 / expected).toBeGreaterThan(0.985);
    expect((mean * Math.PI) / 0.4 / expected).toBeLessThan(1.015);
  });

  it('lets the sky through a window the same way whether it is aimed at or found by chance', () => {
    const room = (aimed: boolean): Scene => {
      const builder = new SceneBuilder();
      const wall = builder.material(diffuse([0.5, 0.5, 0.5]));
      builder.mesh(floor(0, 4), IDENTITY, wall);
      // A wall with a hole: four slabs round an opening of 1.2 × 1.2, and the other sides closed.
      for (const q of [
        [v(2, -4, 0), v(2, 4, 0), v(2, 4, 0.9), v(2, -4, 0.9)],
        [v(2, -4, 2.1), v(2, 4, 2.1), v(2, 4, 4), v(2, -4, 4)],
        [v(2, -4, 0.9), v(2, -0.6, 0.9), v(2, -0.6, 2.1), v(2, -4, 2.1)],
        [v(2, 0.6, 0.9), v(2, 4, 0.9), v(2, 4, 2.1), v(2, 0.6, 2.1)],
        [v(-4, -4, 4), v(2, -4, 4), v(2, 4, 4), v(-4, 4, 4)],
        [v(-4, -4, 0), v(-4, 4, 0), v(-4, 4, 4), v(-4, -4, 4)],
        [v(-4, -4, 0), v(2, -4, 0), v(2, -4, 4), v(-4, -4, 4)],
        [v(-4, 4, 0), v(2, 4, 0), v(2, 4, 4), v(-4, 4, 4)],
      ])
        builder.mesh(new MeshBuilder().quad(q[0], q[1], q[2], q[3]).build(), IDENTITY, wall);
      if (aimed) builder.portals.push(portalOf({ corner: v(2, -0.6, 0.9), along: v(0, 1.2, 0), up: v(0, 0, 1.2) }, [1, 1, 1], 1));
      return builder.build({ sun: v(1, 0, 0.5), sunIlluminance: [0, 0, 0], sky: (d) => [1000 + 500 * d.z, 1000 + 500 * d.z, 1000 + 500 * d.z] });
    };
    const ray = { origin: v(0, 0, 1), direction: v(0, 0, -1) };
    const chance = measure(room(false), ray, 600000, 3);
    const aimed = measure(room(true), ray, 30000, 3);
    expect(aimed.mean / chance.mean).toBeGreaterThan(0.96);
    expect(aimed.mean / chance.mean).toBeLessThan(1.04);
    expect(aimed.variance).toBeLessThan(chance.variance / 4);
  });

  it('never gains energy, whatever the surface', () => {
    for (const [roughness, metalness, translucency, sheen, opacity] of [
      [0.1, 0, 0, 0, 1],
      [0.4, 0, 0, 0, 1],
      [0.75, 0, 0, 0, 1],
      [0.3, 1, 0, 0, 1],
      [0.6, 1, 0, 0, 1],
      [0.95, 0, 0.5, 0, 1],
      [0.4, 0, 0.3, 0, 1],
      [0.01, 1, 0, 0, 1],
      [0.95, 0, 0, 1, 1],
      [0.8, 0, 0, 0.5, 1],
      [0.95, 0, 0.5, 0.3, 0.6],
    ]) {
      const builder = new SceneBuilder();
      builder.mesh(inside(5), IDENTITY, builder.material({ ...diffuse([0, 0, 0]), emission: [1, 1, 1] }));
      builder.mesh(sphere(1, 0), IDENTITY, builder.material({ ...diffuse([1, 1, 1]), roughness, metalness, translucency, sheen, opacity }));
      for (const height of [0, 0.6, 0.93]) {
        const { mean, variance } = measure(builder.build(null), { origin: v(3, 0, height), direction: v(-1, 0, 0) }, 6000, 40);
        expect(mean).toBeLessThan(1 + 4 * Math.sqrt(variance / 6000) + 1e-4);
        expect(mean).toBeGreaterThan(0.6);
      }
    }
  });

  it('lets through a loose weave the share that is open, seen and as light, once for every layer', () => {
    for (const layers of [1, 2, 3]) {
      const builder = new SceneBuilder();
      builder.mesh(floor(), IDENTITY, builder.material(diffuse([0.5, 0.5, 0.5])));
      const weave = builder.material({ ...diffuse([0, 0, 0]), opacity: 0.3 });
      for (let k = 0; k < layers; k++) builder.mesh(floor(1 + k * 0.1), IDENTITY, weave);
      const open = 0.7 ** layers;
      // The sun from straight above; a sky that is dark but for a lamp's worth of light straight up.
      const sunlit = builder.build({ sun: v(0, 0, 1), sunIlluminance: [1000, 1000, 1000], sky: () => [0, 0, 0] });
      const under = measure(sunlit, { origin: v(0, 0, 0.5), direction: v(0.6, 0, -0.8) }, 2000, 1);
      expect(under.mean / ((0.5 * 1000 * open) / Math.PI)).toBeCloseTo(1, 3);
      const seen = measure(
        builder.build({ sun: v(1, 0, 0), sunIlluminance: [0, 0, 0], sky: () => [8, 8, 8] }),
        { origin: v(0, 0, 0.5), direction: v(0, 0, 1) },
        20000,
        8,
      );
      expect(seen.mean / (8 * open)).toBeCloseTo(1, 1.5);
    }
  });

  it('looks and lights through a sheet where its texture is open, and nowhere else', () => {
    // Half of every metre is open, in stripes along y.
    const [width, height] = [64, 2];
    const colour = Uint8Array.from({ length: width * height * 4 }, (_, i) => (i % 4 === 3 ? ((i >> 2) % width < width / 2 ? 0 : 255) : 0));
    const texture = { width, height, colour, detail: null, normals: false, rough: false, size: { width: 1, height: 1 } };
    const builder = new SceneBuilder();
    builder.mesh(floor(), IDENTITY, builder.material(diffuse([0.5, 0.5, 0.5])));
    builder.mesh(floor(0.5), IDENTITY, builder.material({ ...diffuse([0, 0, 0]), texture, open: true }));
    const sky = (sun: Vec3, light: number, glow: number) => ({
      sun,
      sunIlluminance: [light, light, light] as [number, number, number],
      sky: () => [glow, glow, glow] as const,
    });
    const up = builder.build(sky(v(1, 0, 0), 0, 8));
    for (const x of [0.1, 0.25, 0.4, 0.6, 0.75, 0.9, 7.25, -3.25]) {
      const open = ((x % 1) + 1) % 1 < 0.5;
      expect(measure(up, { origin: v(x, 0.3, 0.2), direction: v(0, 0, 1) }, 64, 1).mean).toBeCloseTo(open ? 8 : 0, 5);
      // The sun from straight above shines through where one looks through; half a metre aside where it stands at 45°.
      const lit = (at: Vec3, from: number): number =>
        measure(builder.build(sky(at, 1000, 0)), { origin: v(from, 0.3, 0.2), direction: v(0, 0, -1) }, 64, 1).mean / ((0.5 * 1000 * at.z) / Math.PI);
      expect(lit(v(0, 0, 1), x)).toBeCloseTo(open ? 1 : 0, 3);
      expect(lit(v(Math.SQRT1_2, 0, Math.SQRT1_2), x)).toBeCloseTo(open ? 0 : 1, 3);
    }
    // The same sheet without a word of being open is closed.
    const closed = new SceneBuilder();
    closed.mesh(floor(0.5), IDENTITY, closed.material({ ...diffuse([0, 0, 0]), texture }));
    expect(measure(closed.build(sky(v(1, 0, 0), 0, 8)), { origin: v(0.25, 0.3, 0.2), direction: v(0, 0, 1) }, 64, 1).mean).toBe(0);
  });

  it('finds the same light behind a loose weave by aiming at a lamp and by chance', () => {
    const scene = (aimed: boolean): Scene => {
      const builder = new SceneBuilder();
      builder.mesh(floor(), IDENTITY, builder.material(diffuse([0.5, 0.5, 0.5])));
      builder.mesh(floor(0.5), IDENTITY, builder.material({ ...diffuse([0, 0, 0]), opacity: 0.4 }));
      const lamp = builder.material({ ...diffuse([0, 0, 0]), emission: [100, 100, 100], lamp: aimed ? 0 : -1 });
      const { first, count } = builder.mesh(new MeshBuilder().quad(v(-1, 1, 1), v(1, 1, 1), v(1, -1, 1), v(-1, -1, 1)).build(), IDENTITY, lamp);
      if (aimed) builder.light(first, count, [100, 100, 100], 400 * Math.PI);
      return builder.build(null);
    };
    const ray = { origin: v(0, 0, 0.3), direction: v(0.3, 0, -0.954) };
    expect(measure(scene(true), ray, 20000, 3).mean / measure(scene(false), ray, 60000, 3).mean).toBeCloseTo(1, 1.5);
  });

  it('finds the same light behind a sheet of tinted glass by aiming at a lamp and by chance', () => {
    const scene = (aimed: boolean): Scene => {
      const builder = new SceneBuilder();
      builder.mesh(floor(), IDENTITY, builder.material(diffuse([0.5, 0.5, 0.5])));
      const glass = builder.material({ ...diffuse([0.5, 0.6, 0.7]), pane: true, ior: 1.5 });
      builder.mesh(new MeshBuilder().box(-9, -9, 0.5, 9, 9, 0.506).build(), IDENTITY, glass);
      const lamp = builder.material({ ...diffuse([0, 0, 0]), emission: [100, 100, 100], lamp: aimed ? 0 : -1 });
      const { first, count } = builder.mesh(new MeshBuilder().quad(v(-1, 1, 1), v(1, 1, 1), v(1, -1, 1), v(-1, -1, 1)).build(), IDENTITY, lamp);
      if (aimed) builder.light(first, count, [100, 100, 100], 400 * Math.PI);
      return builder.build(null);
    };
    const ray = { origin: v(0, 0, 0.3), direction: v(0.3, 0, -0.954) };
    const [aimed, chance] = [measure(scene(true), ray, 20000, 6), measure(scene(false), ray, 60000, 6)];
    expect(aimed.mean / chance.mean).toBeCloseTo(1, 1.5);
    expect(aimed.variance).toBeLessThan(chance.variance);
  });

  it('tells which object each pixel shows, through a pane, wherever equal ones stand', () => {
    const builder = new SceneBuilder();
    const plain = builder.material(diffuse([0.5, 0.5, 0.5]));
    const [wall, first, second] = ['Wall', 'Chair', 'Chair'].map((name) => builder.object(name));
    // A wall at x = 5; before its left and its right the same block, kept once; a pane before all of it.
    builder.mesh(new MeshBuilder().quad(v(5, 9, -9), v(5, -9, -9), v(5, -9, 9), v(5, 9, 9)).build(), IDENTITY, plain, false, false, wall);
    const block = new MeshBuilder().box(3, -0.3, -0.3, 4, 0.3, 0.3).build();
    const at = (y: number): Matrix => IDENTITY.map((m, i) => (i === 13 ? y : m)) as unknown as Matrix;
    builder.share(block, [at(1), at(-1)], plain, false, [first, second]);
    const glass = builder.material({ ...diffuse([1, 1, 1]), pane: true });
    builder.mesh(new MeshBuilder().quad(v(2, 9, -9), v(2, -9, -9), v(2, -9, 9), v(2, 9, 9)).build(), IDENTITY, glass, true, false, builder.object('Pane'));
    const scene = prepareScene(builder.build({ sun: v(0, 0, 1), sunIlluminance: [0, 0, 0], sky: () => [1, 1, 1] }));
    const tracer = new Tracer(scene, { width: 60, height: 30, camera, seed: 1 });
    // A sample that the pane throws back meets nothing; the next one does.
    for (let i = 0; i < 8; i++) tracer.pass();
    const { ids, names } = new Film(tracer.exposed()).passes().objects!;
    expect(names).toEqual(['Wall', 'Chair', 'Chair', 'Pane']);
    // Left is where y is greater. A block of 0.6 m 3 m away, 1 m aside, is seen from 0.7/3 to 1.3/3 of the depth.
    const scale = 15 / Math.tan(0.5);
    const of = (y: number): number => ids[15 * 60 + Math.round(30 - y * scale)];
    expect([of(1 / 3.2), of(-1 / 3.2), of(0), of(0.55), of(-0.55)]).toEqual([first, second, wall, wall, wall]);
    expect(new Set(ids)).toEqual(new Set([wall, first, second]));
    // Seen from elsewhere all is forgotten; where nothing is there is no object.
    tracer.aim({ ...camera, target: v(-1, 0, 0) }, 60, 30);
    tracer.pass();
    expect(new Set(tracer.exposed().objects)).toEqual(new Set([0]));
  });

  it('brightens the edge of what has fibres and leaves its middle, as the albedo of the fibres says', () => {
    // A body of black cloth with white fibres, seen at an angle in a uniform field, shows the share the fibres throw back.
    const cloth = { ...diffuse([0.999, 0.999, 0.999]), sheen: 1 };
    const shown = (cos: number): number => {
      const builder = new SceneBuilder();
      builder.mesh(floor(), IDENTITY, builder.material({ ...cloth, colour: [0.5, 0.5, 0.5] }));
      const scene = builder.build({ sun: v(0, 0, 1), sunIlluminance: [0, 0, 0], sky: () => [1, 1, 1] });
      return measure(scene, { origin: v(-Math.sqrt(1 - cos * cos), 0, cos), direction: v(Math.sqrt(1 - cos * cos), 0, -cos) }, 40000, 2).mean;
    };
    for (const cos of [1, 0.6, 0.25]) {
      // The body below: ∫ 0.5 (1 − 0.5 max(E(v), E(l))) l dl·2, by the midpoint rule.
      const n = 2000;
      let below = 0;
      for (let i = 0; i < n; i++) {
        const l = (i + 0.5) / n;
        below += (0.5 * (1 - 0.5 * Math.max(sheenAlbedo(cos), sheenAlbedo(l))) * l * 2) / n;
      }
      expect(shown(cos) / (below + 0.5 * sheenAlbedo(cos))).toBeCloseTo(1, 1.7);
    }
    expect(shown(0.15)).toBeGreaterThan(shown(1) * 1.15);
  });

  it('guides the denoiser by the first surface that scatters: through a pane, in a mirror, and to the sky', () => {
    const wall = (x: number, away: 1 | -1): Mesh =>
      new MeshBuilder().quad(v(x, -9 * away, -9), v(x, 9 * away, -9), v(x, 9 * away, 9), v(x, -9 * away, 9)).build();
    const seen = (between: Partial<Material> | null, behind: boolean): number[] => {
      const builder = new SceneBuilder();
      if (between) builder.mesh(wall(1, -1), IDENTITY, builder.material({ ...diffuse([0.9, 0.8, 0.7]), ...between }));
      if (behind) builder.mesh(wall(between?.metalness ? -2 : 4, between?.metalness ? 1 : -1), IDENTITY, builder.material(diffuse([0.2, 0.5, 0.6])));
      const scene = builder.build({ sun: v(0, 0, 1), sunIlluminance: [0, 0, 0], sky: () => [1, 1, 1] });
      const tracer = new Tracer(prepareScene(scene), { width: 4, height: 4, camera, seed: 2 });
      for (let i = 0; i < 200; i++) tracer.pass();
      const guides = new Film(tracer.exposed()).guides();
      return Array.from({ length: 6 }, (_, c) => guides.reduce((t, g, k) => (k % 6 === c ? t + g : t), 0) / 16);
    };
    const near = (a: readonly number[], b: readonly number[], within: number): void =>
      a.forEach((value, i) => expect(Math.abs(value - b[i]), `${i}`).toBeLessThan(within));
    near(seen(null, true), [0.2, 0.5, 0.6, -1, 0, 0], 1e-3);
    // A pane of colour tints what lies behind by the root at each of its faces; a few hundredths are mirrored to the sky.
    const through = seen({ pane: true, ior: 1.5 }, true);
    expect(through[3]).toBeLessThan(-0.9);
    expect(through[1] / through[0]).toBeGreaterThan(1.8);
    // In a mirror the wall behind the eye is seen, tinted, with its own normal.
    near(seen({ metalness: 1, roughness: 0 }, true), [0.9 * 0.2, 0.8 * 0.5, 0.7 * 0.6, 1, 0, 0], 0.03);
    // The sky behind a pane is bright and has no normal.
    const sky = seen({ pane: true, ior: 1.5 }, false);
    expect(Math.min(...sky.slice(0, 3))).toBeGreaterThan(0.7);
    near(sky.slice(3), [0, 0, 0], 1e-6);
  });

  it('mirrors the sky in glass before the dark as Fresnel says, in every pixel after few samples', () => {
    const ior = 1.5;
    const builder = new SceneBuilder();
    const wall = (x: number): Mesh => new MeshBuilder().quad(v(x, 9, -9), v(x, -9, -9), v(x, -9, 9), v(x, 9, 9)).build();
    builder.mesh(wall(1), IDENTITY, builder.material({ ...diffuse([1, 1, 1]), pane: true, ior }), true);
    builder.mesh(wall(4), IDENTITY, builder.material(diffuse([0, 0, 0])));
    const scene = prepareScene(builder.build({ sun: v(0, 0, 1), sunIlluminance: [0, 0, 0], sky: () => [1, 1, 1] }));
    const tracer = new Tracer(scene, { width: 16, height: 16, camera: { ...camera, fov: 0.05 }, seed: 5 });
    for (let i = 0; i < 16; i++) tracer.pass();
    const light = new Film(tracer.exposed()).mean();
    // Square on, a boundary mirrors ((n − 1) / (n + 1))².
    const expected = ((ior - 1) / (ior + 1)) ** 2;
    const pixels = Array.from({ length: 256 }, (_, i) => light[i * 3 + 1]);
    const mean = pixels.reduce((t, x) => t + x) / 256;
    expect(mean / expected).toBeGreaterThan(0.97);
    expect(mean / expected).toBeLessThan(1.03);
    // Chosen as rarely as it mirrors, it would spread by all of itself.
    expect(Math.sqrt(pixels.reduce((t, x) => t + (x - mean) ** 2, 0) / 256) / mean).toBeLessThan(0.25);
  });

  it('bends what is seen through ribbed glass as a prism of its slope does', () => {
    const slope = 0.2;
    const sx = Math.sin(slope);
    const builder = new SceneBuilder();
    // A sheet 4 mm thick across the view, its ribs one even slope.
    const ribs = {
      width: 1,
      height: 1,
      colour: Uint8Array.from([255, 255, 255, 255]),
      detail: Uint8Array.from([Math.round(sx * 127.5), 0, 0, 0]),
      normals: true,
      rough: false,
      size: { width: 1, height: 1 },
    };
    const glass = builder.material({ ...diffuse([1, 1, 1]), pane: true, ior: 1.5, texture: ribs });
    builder.mesh(new MeshBuilder().box(-9, -9, 0, 9, 9, 0.004).build(), IDENTITY, glass, true);
    // The sky tells the direction in which it is looked at.
    const look = (sky: (d: Vec3) => number): number =>
      measure(
        builder.build({ sun: v(1, 0, 0), sunIlluminance: [0, 0, 0], sky: (d) => [0, d.z < 0 ? sky(d) : 0, 0] }),
        { origin: v(0, 0, 1), direction: v(0, 0, -1) },
        4000,
        6,
      ).mean;
    const seen = look(() => 1);
    expect(seen).toBeGreaterThan(0.9);
    // Straight in; out through the slope: sin(slope + deviation) = n · sin(slope).
    const deviation = Math.asin(1.5 * sx) - slope;
    expect(Math.abs(look((d) => d.x) / seen)).toBeCloseTo(Math.sin(deviation), 2);
  });

  it('halves the error with four times the samples', () => {
    const builder = new SceneBuilder();
    builder.mesh(floor(), IDENTITY, builder.material(diffuse([0.5, 0.5, 0.5])));
    const scene = builder.build({ sun: v(0, 0, 1), sunIlluminance: [0, 0, 0], sky: (d) => [d.x > 0 ? 10 : 0, d.x > 0 ? 10 : 0, 0] });
    const spread = (n: number): number => {
      const means = Array.from({ length: 60 }, (_, i) => measure(scene, { origin: v(0, 0, 1), direction: v(0, 0, -1) }, n, 2, i * 77 + 5).mean);
      const m = means.reduce((s, x) => s + x, 0) / means.length;
      return means.reduce((s, x) => s + (x - m) ** 2, 0) / (means.length - 1);
    };
    const ratio = spread(100) / spread(1600);
    expect(ratio).toBeGreaterThan(8);
    expect(ratio).toBeLessThan(32);
  });

  it('is the same for the same seed', () => {
    const builder = new SceneBuilder();
    builder.mesh(floor(), IDENTITY, builder.material(diffuse([0.5, 0.4, 0.3])));
    const scene = builder.build({ sun: v(0, 0.3, 0.95), sunIlluminance: [1e4, 1e4, 9e3], sky: () => [3000, 3500, 4000] });
    const run = (own: number, of: number, passes: number, region?: Region): Float32Array => {
      const eye = { eye: v(0, -3, 1.6), target: v(0, 0, 0), fov: 1 };
      const tracer = new Tracer(prepareScene(scene), { width: 24, height: 16, camera: eye, seed: 3, share: { own, of }, region });
      for (let k = 0; k < passes; k++) tracer.pass();
      return new Film(tracer.exposed()).mean();
    };
    const whole = run(0, 1, 4);
    expect(run(0, 1, 4)).toEqual(whole);
    // Two hands that share the samples make the same picture, but for rounding; a part of it has its very pixels.
    const [a, b] = [run(0, 2, 2), run(1, 2, 2)];
    for (let i = 0; i < whole.length; i++) expect(Math.abs((a[i] + b[i]) / 2 - whole[i])).toBeLessThan(1e-4 * whole[i] + 1e-3);
    // Samples that are named are those of the row, in whatever order they are traced.
    const eye = { eye: v(0, -3, 1.6), target: v(0, 0, 0), fov: 1 };
    const named = new Tracer(prepareScene(scene), { width: 24, height: 16, camera: eye, seed: 3 });
    for (const k of [2, 0, 3, 1]) named.pass(k);
    const again = new Film(named.exposed()).mean();
    for (let i = 0; i < whole.length; i++) expect(Math.abs(again[i] - whole[i])).toBeLessThan(1e-4 * whole[i] + 1e-3);
    named.aim({ ...eye, fov: 0.5 }, 24, 16);
    expect(new Film(named.exposed()).samples).toBe(0);
    const part = run(0, 1, 4, { x: 5, y: 3, width: 7, height: 6 });
    for (let y = 0; y < 6; y++) for (let x = 0; x < 21; x++) expect(part[y * 21 + x]).toBe(whole[((y + 3) * 24 + 5) * 3 + x]);
  });
});

function builderArea(mesh: Mesh): number {
  let sum = 0;
  for (let k = 0; k < mesh.indices.length; k += 3) {
    const at = (i: number): number[] => [...mesh.positions.subarray(mesh.indices[k + i] * 3, mesh.indices[k + i] * 3 + 3)];
    const [a, b, c] = [at(0), at(1), at(2)];
    const e1 = b.map((x, i) => x - a[i]);
    const e2 = c.map((x, i) => x - a[i]);
    sum += Math.hypot(e1[1] * e2[2] - e1[2] * e2[1], e1[2] * e2[0] - e1[0] * e2[2], e1[0] * e2[1] - e1[1] * e2[0]) / 2;
  }
  return sum;
}
