import { describe, expect, it } from 'vitest';
import { sparseCottage } from '../testing/cottage';
import type { Vec3 } from '../geometry/vec';
import { daylight } from '../light/daylight';
import { lightPixels, radianceOf, type LightPixels } from '../light/rgbe';
import { fetchSurroundings, sceneryOf, type Scenery } from '../light/surroundings';
import { deriveModel } from '../model/derive';
import type { Model } from '../model/model';
import type { Surroundings } from '../project/schema';
import type { Camera } from './camera';
import { Film } from './film';
import { pictureScene } from './picture';
import { prepareScene } from './prepared';
import { diffuse, SceneBuilder } from './scene';
import { Tracer } from './tracer';

// Each place has a colour of its own, so that a place that is mistaken shows.
const WIDTH = 64;
const HEIGHT = 32;
const coloured = ((): LightPixels => {
  const radiance = new Float32Array(WIDTH * HEIGHT * 3);
  for (let y = 0; y < HEIGHT; y++)
    for (let x = 0; x < WIDTH; x++)
      radiance.set(
        [1 + Math.cos((2 * Math.PI * (x + 0.5)) / WIDTH), 0.2 + (y + 0.5) / HEIGHT, 1 + Math.sin((2 * Math.PI * (x + 0.5)) / WIDTH)],
        (y * WIDTH + x) * 3,
      );
  return lightPixels(radiance, WIDTH, HEIGHT);
})();

const settings: Surroundings = {
  picture: { kind: 'own', name: 'Colours', image: 'd'.repeat(64), ratio: 2 },
  lie: 'round',
  turn: 0.9,
  at: { x: 5, y: 3 },
  lift: 0.12,
  tilt: -0.07,
  distance: 30,
  width: 60,
  foot: -3,
  lights: false,
  reach: 40,
};

const demo = sparseCottage();
const withBeyond = (set: Partial<Surroundings> | null, seen = 0): Model =>
  deriveModel({ ...demo, site: { ...demo.site, background: 'none', seen, surroundings: set && { ...settings, ...set } } });

const sceneryFor = async (set: Partial<Surroundings>): Promise<Scenery> => {
  const { site } = withBeyond(set).project;
  await fetchSurroundings(site, () => Promise.resolve(coloured));
  return sceneryOf(site)!;
};

/** The picture's light in a direction, by the middles of its pixels, an independent way. */
function expected(scenery: Scenery, from: Vec3, d: Vec3): number[] | null {
  const place = scenery.placeOf(from, d);
  if (!place) return null;
  const data = radianceOf(coloured);
  const round = scenery.settings.lie === 'round';
  const [fx, fy] = [place.u * WIDTH - 0.5, Math.max(0, Math.min(HEIGHT - 1.001, place.v * HEIGHT - 0.5))];
  const [i, j] = [Math.floor(fx), Math.floor(fy)];
  const at = (x: number, y: number, c: number): number =>
    data[(Math.min(HEIGHT - 1, y) * WIDTH + (round ? (x + WIDTH) % WIDTH : Math.max(0, Math.min(WIDTH - 1, x)))) * 3 + c];
  return [0, 1, 2].map((c) => {
    const row = (y: number): number => at(i, y, c) * (1 - fx + i) + at(i + 1, y, c) * (fx - i);
    return (row(j) * (1 - fy + j) + row(j + 1) * (fy - j)) * scenery.scale;
  });
}

/** What an eye sees in a scene of nothing but its surroundings. */
function seenIn(scenery: Scenery, camera: Camera, width: number, height: number): Float32Array {
  const builder = new SceneBuilder();
  // Something has to be there; it lies behind the eye.
  builder.mesh(
    {
      positions: Float32Array.of(0, 0, -500, 1, 0, -500, 0, 1, -500),
      normals: new Float32Array(9).fill(0.577),
      uvs: new Float32Array(6),
      indices: Uint32Array.of(0, 1, 2),
    },
    [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1],
    builder.material(diffuse([0.5, 0.5, 0.5])),
  );
  const scene = { ...builder.build(daylight(demo.site)), beyond: scenery };
  const tracer = new Tracer(prepareScene(scene), { width, height, camera, seed: 5 });
  for (let i = 0; i < 4; i++) tracer.pass();
  return new Film(tracer.exposed()).mean();
}

describe('what lies beyond, in a picture', () => {
  it('is seen all round where the picture has it, seam and poles too', async () => {
    const scenery = await sceneryFor({});
    const [w, h] = [90, 45];
    const eye = { x: 2, y: 1, z: 1.6 };
    const camera: Camera = { eye, target: { x: 3, y: 1, z: 1.6 }, fov: 1, projection: 'sphere' };
    const seen = seenIn(scenery, camera, w, h);
    for (let y = 0; y < h; y++)
      for (let x = 0; x < w; x += 3) {
        const [around, up] = [(0.5 - (x + 0.5) / w) * 2 * Math.PI, (0.5 - (y + 0.5) / h) * Math.PI];
        const d = { x: Math.cos(up) * Math.cos(around), y: Math.cos(up) * Math.sin(around), z: Math.sin(up) };
        const want = expected(scenery, eye, d)!;
        // A pixel spans a step of the picture and a half.
        for (let c = 0; c < 3; c++)
          expect(Math.abs(seen[(y * w + x) * 3 + c] / scenery.scale - want[c] / scenery.scale)).toBeLessThan(Math.abs(up) > 1.35 ? 0.6 : 0.16);
      }
  });

  it('stands flat at its distance, and the sky stands beside it', async () => {
    const scenery = await sceneryFor({ lie: 'flat', turn: 0, foot: -3 });
    const eye = { x: 5, y: 3, z: 3 };
    const [w, h] = [60, 40];
    const camera: Camera = { eye, target: { x: 6, y: 3, z: 3 }, fov: 1.4 };
    const seen = seenIn(scenery, camera, w, h);
    const half = Math.tan(0.7);
    let [inside, outside] = [0, 0];
    for (let y = 0; y < h; y++)
      for (let x = 0; x < w; x++) {
        const at = (dx: number, dy: number): Vec3 => {
          const [a, b] = [((x + 0.5 + dx) / w) * 2 - 1, 1 - ((y + 0.5 + dy) / h) * 2];
          const d = { x: 1, y: -a * half * (w / h), z: b * half };
          const l = Math.hypot(d.x, d.y, d.z);
          return { x: d.x / l, y: d.y / l, z: d.z / l };
        };
        const edge = [-0.5, 0.5].flatMap((dx) => [-0.5, 0.5].map((dy) => scenery.placeOf(eye, at(dx, dy)) !== null));
        if (new Set(edge).size > 1) continue;
        const want = expected(scenery, eye, at(0, 0));
        if (want) {
          inside++;
          for (let c = 0; c < 3; c++) expect(Math.abs(seen[(y * w + x) * 3 + c] - want[c]) / scenery.scale).toBeLessThan(0.12);
        } else {
          outside++;
          expect(seen[(y * w + x) * 3 + 2]).toBeGreaterThan(0);
        }
      }
    expect(inside).toBeGreaterThan(500);
    expect(outside).toBeGreaterThan(200);
  });

  it('is shown darker to an eye indoors by the stops that are set, and the room keeps its light to the last bit', async () => {
    await sceneryFor({});
    const { eye, target, fov } = demo.viewpoints['view-kitchen'];
    const light = (seen: number): { outside: number; rest: Float32Array } => {
      const scene = prepareScene(pictureScene(withBeyond({}, seen), 32));
      const tracer = new Tracer(scene, { width: 48, height: 30, camera: { eye, target, fov, indoors: true }, seed: 3 });
      for (let i = 0; i < 2; i++) tracer.pass();
      const film = new Film(tracer.exposed());
      const last = scene.groups.length - 1;
      expect(scene.groups[last].name).toBe('Seen outside');
      const rest = new Float32Array(48 * 30 * 3);
      for (let g = 0; g < last; g++) film.mean(g).forEach((v, i) => (rest[i] += v));
      return { outside: film.mean(last).reduce((sum, v) => sum + v, 0), rest };
    };
    const [as, darker] = [light(0), light(-3)];
    expect(as.outside).toBeGreaterThan(0);
    expect(darker.outside / as.outside).toBeCloseTo(1 / 8, 6);
    expect(darker.rest).toEqual(as.rest);
  });

  it('lights the house or not, as is set; from outdoors it is as bright as it is', async () => {
    await sceneryFor({});
    const along = (model: Model): number[] => {
      const scene = pictureScene(model, 32);
      return [...scene.daylight!.sky({ x: 0, y: 0.6, z: 0.8 })];
    };
    const sky = along(withBeyond(null));
    expect(along(withBeyond({ lights: false }))).toEqual(sky);
    expect(along(withBeyond({ lights: true }))).not.toEqual(sky);
    const scene = prepareScene(pictureScene(withBeyond({}, -3), 32));
    const up = (seen: typeof scene): number => {
      const tracer = new Tracer(seen, { width: 4, height: 4, camera: { eye: { x: 30, y: -20, z: 2 }, target: { x: 40, y: -40, z: 12 }, fov: 0.4 }, seed: 1 });
      tracer.pass();
      return new Film(tracer.exposed()).mean().reduce((sum, v) => sum + v, 0);
    };
    expect(up(scene)).toBeCloseTo(up(prepareScene(pictureScene(withBeyond({}, 0), 32))), 4);
  });

  it('ends the ground of the site where that of a picture all round begins', () => {
    const widest = (model: Model): number => {
      const sheet = model.bodies.find((b) => b.id === '/site')!.parts[0];
      let most = 0;
      for (let i = 0; i < sheet.mesh.positions.length; i += 3) most = Math.max(most, Math.hypot(sheet.mesh.positions[i] - 5, sheet.mesh.positions[i + 1] - 3));
      return most;
    };
    expect(widest(withBeyond({ reach: 25 }))).toBeCloseTo(25, 3);
    expect(widest(withBeyond({ lie: 'flat' }))).toBeGreaterThan(400);
    expect(widest(withBeyond(null))).toBeGreaterThan(400);
  });
});
