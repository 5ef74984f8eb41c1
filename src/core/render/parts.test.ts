import { describe, expect, it } from 'vitest';
import { IDENTITY, MeshBuilder, placement, type Mesh } from '../geometry/mesh';
import type { Vec3 } from '../geometry/vec';
import { Random } from './bsdf';
import { buildHierarchy } from './bvh';
import type { Camera } from './camera';
import { relight } from './development';
import { Film } from './film';
import { RayKernel } from './kernel/kernel';
import { partLight } from './parting';
import { prepareScene, type PreparedScene } from './prepared';
import { portalOf } from './compile';
import { diffuse, SceneBuilder } from './scene';
import { Tracer } from './tracer';

const v = (x: number, y: number, z: number): Vec3 => ({ x, y, z });

/** A room of 4 × 4 × 2.5 m with a window to the south, a lamp, a sun and a sky; outside a green lawn. */
function room(): PreparedScene {
  const builder = new SceneBuilder();
  const white = builder.material(diffuse([0.7, 0.7, 0.7]));
  const box = (a: Vec3, b: Vec3): Mesh => new MeshBuilder().box(a.x, a.y, a.z, b.x, b.y, b.z).build();
  for (const [a, b] of [
    [v(-2.1, -2.1, -0.1), v(2.1, 2.1, 0)],
    [v(-2.1, -2.1, 2.5), v(2.1, 2.1, 2.6)],
    [v(-2.1, -2.1, 0), v(-2, 2.1, 2.5)],
    [v(2, -2.1, 0), v(2.1, 2.1, 2.5)],
    [v(-2.1, 2, 0), v(2.1, 2.1, 2.5)],
    [v(-2.1, -2.1, 0), v(2.1, -2, 0.9)],
    [v(-2.1, -2.1, 2.1), v(2.1, -2, 2.5)],
    [v(-2.1, -2.1, 0.9), v(-0.8, -2, 2.1)],
    [v(0.8, -2.1, 0.9), v(2.1, -2, 2.1)],
  ])
    builder.mesh(box(a, b), IDENTITY, white);
  builder.mesh(
    new MeshBuilder().quad(v(-50, -50, -0.2), v(50, -50, -0.2), v(50, 50, -0.2), v(-50, 50, -0.2)).build(),
    IDENTITY,
    builder.material(diffuse([0.1, 0.4, 0.05])),
  );
  builder.portals.push(portalOf({ corner: v(-0.8, -2.05, 0.9), along: v(1.6, 0, 0), up: v(0, 0, 1.2) }, [1, 1, 1], 1));
  const group = builder.group('Lamps, Room', 2700);
  const glow: [number, number, number] = [4000, 3000, 1500];
  const lamp = builder.material({ ...diffuse([0, 0, 0]), emission: glow, lamp: 0, group });
  const { first, count } = builder.mesh(
    new MeshBuilder().quad(v(-0.2, 0.2, 2.4), v(0.2, 0.2, 2.4), v(0.2, -0.2, 2.4), v(-0.2, -0.2, 2.4)).build(),
    IDENTITY,
    lamp,
  );
  builder.light(first, count, glow, 1500, group);
  return prepareScene(builder.build({ sun: v(0.2, -0.8, 0.566), sunIlluminance: [60000, 58000, 54000], sky: () => [3000, 3600, 5000] }));
}

const scene = room();
const inside: Camera = { eye: v(0, 1.8, 1.5), target: v(0, -2, 1.3), fov: 1.2, indoors: true };
const [width, height] = [48, 32];

function shoot(camera: Camera, passes: number, own = scene): Film {
  const tracer = new Tracer(own, { width, height, camera, seed: 6 });
  for (let i = 0; i < passes; i++) tracer.pass();
  return new Film(tracer.exposed());
}

const total = (a: Float32Array): number => a.reduce((s, x) => s + x, 0);

describe('light by groups', () => {
  const film = shoot(inside, 64);
  const names = scene.groups.map((g) => g.name);

  it('sums to the whole in every pixel', () => {
    expect(names).toEqual(['Sun', 'Sky', 'Lamps, Room', 'Seen outside']);
    const whole = film.mean();
    const groups = names.map((_, g) => film.mean(g));
    for (let i = 0; i < whole.length; i++) expect(Math.abs(groups.reduce((s, g) => s + g[i], 0) - whole[i])).toBeLessThan(1e-4 * whole[i] + 1e-4);
    for (const g of groups) expect(total(g)).toBeGreaterThan(0);
  });

  it('has what is seen outside through the opening, and nothing of it within the room', () => {
    const outside = film.mean(3);
    const whole = film.mean();
    // The middle of the picture is the window, its lower edge the floor of the room.
    const middle = (14 * width + 24) * 3;
    expect(outside[middle] / whole[middle]).toBeGreaterThan(0.99);
    for (let x = 0; x < width; x++) expect(outside[((height - 1) * width + x) * 3]).toBe(0);
    // From outside nothing is told apart: what the eye sees there is simply what it sees.
    const garden = shoot({ eye: v(0, -9, 1.6), target: v(0, 0, 1.2), fov: 0.6 }, 8);
    expect(total(garden.mean(3))).toBe(0);
  });

  it('is the light each would give alone', () => {
    // The same room at night has the lamp's light and no other.
    const night = shoot(inside, 128, { ...scene, sky: null, sunUp: false });
    const lamp = film.mean(2);
    expect(total(lamp) / (total(night.mean()) - total(night.mean(3)))).toBeCloseTo(1, 1.3);
  });

  it('is parted and put together again: as it was, or without the sun', async () => {
    const radiance = film.mean();
    const shares = await partLight(film, scene.groups, (light) => Promise.resolve(light));
    expect(shares.map((s) => s.name)).toEqual(names);
    const off = relight(radiance, shares, [{ name: 'Sun', level: -8, kelvin: null }]);
    expect(total(off) / (total(radiance) - total(film.mean(0)))).toBeCloseTo(1, 3);
    // Of ten groups the weakest become one, and nothing is lost.
    const [n, count] = [4, 10];
    const light = Float32Array.from({ length: n * count * 4 }, (_, i) => (i % 4 === 3 ? 0 : 1 + (Math.floor(i / 4) % count)));
    const many = new Film({
      width: 2,
      height: 2,
      groups: count,
      counts: new Uint32Array(n).fill(1),
      light,
      squares: new Float32Array(n),
      guides: new Float32Array(n * 8),
    });
    const named = Array.from({ length: count }, (_, g) => ({ name: `g${g}`, kelvin: 3000 }));
    const few = await partLight(many, named, (l) => Promise.resolve(l));
    expect(few.map((s) => s.name)).toEqual(['g5', 'g6', 'g7', 'g8', 'g9', 'Other lights']);
    expect(few.reduce((sum, s) => sum + s.share[0], 0)).toBeCloseTo(1, 6);
    expect(few[5].share[0]).toBeCloseTo(15 / 55, 5);
    const dark = await partLight(shoot(inside, 2, { ...scene, sky: null, sunUp: false, counts: { ...scene.counts, lamps: 0 } }), scene.groups, (light) =>
      Promise.resolve(light),
    );
    expect(dark.length).toBeLessThan(2);
  });
});

describe('samples where they are wanted', () => {
  it('have the mean of samples everywhere, pixel by pixel, and are counted', () => {
    const tracer = new Tracer(scene, { width, height, camera: inside, seed: 6 });
    for (let i = 0; i < 16; i++) tracer.pass();
    const first = new Film(tracer.exposed());
    // More for the noisiest half, as samples of another picture say: chosen by its own, pixels that missed what is rare would be left at that.
    const pilot = new Tracer(scene, { width, height, camera: inside, seed: 99 });
    for (let i = 0; i < 16; i++) pilot.pass();
    const variance = new Film(pilot.exposed()).variance();
    const order = [...variance.keys()].sort((a, b) => variance[b] - variance[a]).slice(0, variance.length / 2);
    for (let i = 0; i < 48; i++) tracer.sample(order);
    const adapted = new Film(tracer.exposed());
    expect(adapted.samples).toBeCloseTo(40, 6);
    const fixed = shoot(inside, 64);
    const [a, b] = [adapted.mean(), fixed.mean()];
    // Where as many were taken they are the very same; the rest is what 16 give.
    for (const p of order) for (let c = 0; c < 3; c++) expect(Math.abs(a[p * 3 + c] - b[p * 3 + c])).toBeLessThan(1e-3 * b[p * 3 + c] + 1e-3);
    // The mean of the picture stays where it is, within its noise.
    const noise = Math.sqrt(total(adapted.variance()) + total(fixed.variance()));
    expect(Math.abs(total(a) - total(b)) / 3).toBeLessThan(4 * noise);
    const spread = (film: Film): number => total(film.variance());
    expect(spread(adapted)).toBeLessThan(spread(first) * 0.8);
    // A pass over all goes on from there.
    tracer.pass();
    expect(new Film(tracer.exposed()).samples).toBeCloseTo(41, 6);
  });

  it('of hands that share them are as good as of one, and a handed-on scene is the scene', () => {
    const copy = structuredClone(scene);
    expect(shoot(inside, 4, copy).mean()).toEqual(shoot(inside, 4).mean());
  });

  it('are refused for a picture of no pixels', () => {
    expect(() => new Tracer(scene, { width: 0, height: 4, camera: inside, seed: 1 })).toThrow(RangeError);
  });
});

describe('a hierarchy with meshes in several places', () => {
  it('finds what a search through all copies finds: nearest, blocked, dimmed or open', () => {
    const random = new Random(5);
    const own = 60;
    const mesh = 40;
    const count = own + mesh;
    const positions = new Float32Array(count * 9);
    for (let i = 0; i < count; i++) {
      const c = i < own ? [random.next() * 8, random.next() * 8, random.next() * 8] : [random.next(), random.next(), random.next()];
      for (let k = 0; k < 9; k++) positions[i * 9 + k] = c[k % 3] + (random.next() - 0.5) * 2.5;
    }
    const places = Array.from({ length: 9 }, (_, i) => placement(random.next() * 7, random.next() * 7, random.next() * 7, i * 0.7));
    const seeThrough = Uint8Array.from({ length: count }, (_, i) => (i % 5 === 0 ? 1 : i % 7 === 0 ? 2 : 0));
    const kernel = new RayKernel(buildHierarchy(positions, seeThrough, [{ first: own, count: mesh, places }]), 400);
    // All copies written out.
    const copies = places.flatMap((m) =>
      Array.from({ length: mesh }, (_, i) => {
        const p = Array.from({ length: 9 }, (_c, k) => positions[(own + i) * 9 + k]);
        const moved = [0, 3, 6].flatMap((o) => [0, 1, 2].map((row) => m[row] * p[o] + m[4 + row] * p[o + 1] + m[8 + row] * p[o + 2] + m[12 + row]));
        return { id: own + i, p: moved };
      }),
    );
    const all = [...Array.from({ length: own }, (_, i) => ({ id: i, p: [...positions.subarray(i * 9, i * 9 + 9)] })), ...copies];
    const rays = kernel.rays;
    for (let i = 0; i < 400; i++) {
      const d = [random.next() - 0.5, random.next() - 0.5, random.next() - 0.5];
      const l = Math.hypot(...d);
      rays.set([random.next() * 8, random.next() * 8, random.next() * 8, 0, ...d.map((x) => x / l), 1e30], i * 8);
    }
    const list = rays.slice();
    kernel.closest(400);
    const [hits, ids] = [kernel.hits.slice(), kernel.hitIds.slice()];
    kernel.occluded(400);
    let met = 0;
    for (let i = 0; i < 400; i++) {
      const ray = list.subarray(i * 8, i * 8 + 8);
      let [best, id, blocked] = [Infinity, -1, 0];
      for (const t of all) {
        const at = meet(t.p, ray);
        if (at < best) [best, id] = [at, t.id];
        if (at < Infinity && !seeThrough[t.id]) blocked = 1;
      }
      expect(ids[i * 4 + 3]).toBe(id);
      expect(kernel.blocked[i]).toBe(blocked);
      if (id >= 0) {
        met++;
        expect(hits[i * 4]).toBeCloseTo(best, 3);
      }
    }
    expect(met).toBeGreaterThan(100);
  });
});

/** Möller and Trumbore, written out. */
function meet(p: ArrayLike<number>, ray: Float32Array): number {
  const [e1, e2] = [3, 6].map((o) => [p[o] - p[0], p[o + 1] - p[1], p[o + 2] - p[2]]);
  const d = [ray[4], ray[5], ray[6]];
  const cross = (a: number[], b: number[]): number[] => [a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]];
  const dot = (a: number[], b: number[]): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
  const h = cross(d, e2);
  const det = dot(e1, h);
  const s = [ray[0] - p[0], ray[1] - p[1], ray[2] - p[2]];
  const u = dot(s, h) / det;
  const q = cross(s, e1);
  const w = dot(d, q) / det;
  const t = dot(e2, q) / det;
  return u >= 0 && w >= 0 && u + w <= 1 && t > 0 ? t : Infinity;
}
