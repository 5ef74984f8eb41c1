import { describe, expect, it } from 'vitest';
import { heronLockCottage } from '../demo/heron-lock';
import { IDENTITY, MeshBuilder, placement } from '../geometry/mesh';
import { lathe } from '../geometry/shapes';
import type { Vec3 } from '../geometry/vec';
import { deriveModel } from '../model/derive';
import { box } from '../testing/drafting';
import { FIRST_LOOK } from '../project/looks';
import { cameraFrame, focalOfFov, fovOfFocal, lensOf, project, type Camera } from './camera';
import { Film } from './film';
import { pictureScene } from './picture';
import { prepareScene } from './prepared';
import { diffuse, SceneBuilder, type Scene } from './scene';
import { cameraOf, presenceIn } from './shot';
import { Tracer } from './tracer';

const v = (x: number, y: number, z: number): Vec3 => ({ x, y, z });
const even = { sun: v(0, 0, 1), sunIlluminance: [0, 0, 0] as [number, number, number], sky: (): [number, number, number] => [100, 100, 100] };

/** Guides of a picture: six values a pixel. */
function guides(scene: Scene, camera: Camera, width: number, height: number, passes = 1): { guides: Float32Array; depth: Float32Array; mean: Float32Array } {
  const tracer = new Tracer(prepareScene(scene), { width, height, camera, seed: 2, bounces: 1 });
  for (let i = 0; i < passes; i++) tracer.pass();
  const film = new Film(tracer.exposed());
  return { guides: film.guides(), depth: film.depth(), mean: film.mean() };
}

describe('a camera', () => {
  it('has the angle of its focal length on a film of 24 × 36 mm', () => {
    expect((fovOfFocal(24) * 180) / Math.PI).toBeCloseTo(53.13, 2);
    expect((fovOfFocal(50) * 180) / Math.PI).toBeCloseTo(26.99, 2);
    for (const mm of [12, 18, 35, 85]) expect(focalOfFov(fovOfFocal(mm))).toBeCloseTo(mm, 9);
    // f/2 at 50 mm: a lens of 25 mm.
    expect(lensOf(fovOfFocal(50), 2) * 2).toBeCloseTo(0.025, 9);
  });

  it('kept upright shows verticals parallel to a hundredth of a pixel, and what it looks at in the middle', () => {
    for (const target of [v(8, 2, 0.4), v(6, -3, 4), v(5, 5, 6)]) {
      const eye = v(0, 0, 1.5);
      const frame = cameraFrame({ eye, target, fov: 0.9, upright: true }, 1.6);
      const middle = project(frame, false, target)!;
      expect([middle.x, middle.y].map((c) => Math.abs(c) < 1e-9)).toEqual([true, true]);
      for (const [x, y] of [
        [4, 1],
        [7, -2],
        [5, 3],
      ]) {
        const [low, high] = [0, 3].map((z) => project(frame, false, v(x, y, z))!);
        expect(Math.abs(low.x - high.x) * 640).toBeLessThan(0.01);
      }
      // Tilted, they lean.
      const tilted = cameraFrame({ eye, target, fov: 0.9 }, 1.6);
      const [low, high] = [0, 3].map((z) => project(tilted, false, v(7, -2, z))!);
      expect(Math.abs(low.x - high.x) * 640).toBeGreaterThan(5);
    }
  });

  it('traces the edge of a tall board where the frame says it is, upright', () => {
    const builder = new SceneBuilder();
    builder.mesh(new MeshBuilder().box(6, 1, -30, 6.0001, 90, 60).build(), IDENTITY, builder.material(diffuse([0.9, 0.1, 0.1])));
    const camera: Camera = { eye: v(0, 0, 1), target: v(6, 0.5, 3), fov: 0.8, upright: true };
    const [width, height] = [320, 64];
    const seen = guides(builder.build(null), camera, width, height, 16).guides;
    const edges = Array.from({ length: height }, (_, y) => {
      let open = 0;
      for (let x = 0; x < width; x++) open += 1 + seen[(y * width + x) * 6 + 3];
      return open;
    });
    const frame = cameraFrame(camera, width / height);
    // The board stands to the left: all right of its edge is open. Every row has the edge at the same place.
    const own = project(frame, false, v(6, 1, 2))!;
    for (const open of edges) expect(Math.abs(Math.abs(open) - (width * (1 - own.x)) / 2)).toBeLessThan(0.6);
  });

  it('in parallel shows a metre as a metre, near and far', () => {
    const camera: Camera = { eye: v(0, 0, 1), target: v(5, 0, 1), fov: 1, projection: 'parallel', height: 4 };
    for (const x of [3, 30]) {
      const builder = new SceneBuilder();
      builder.mesh(new MeshBuilder().box(x, -0.5, 0.5, x + 0.1, 0.5, 1.5).build(), IDENTITY, builder.material(diffuse([1, 1, 1])));
      const { guides: seen } = guides(builder.build(null), camera, 80, 80, 8);
      const area = seen.reduce((sum, g, i) => (i % 6 === 3 ? sum - g : sum), 0);
      expect((area * (4 / 80) ** 2) / 1).toBeCloseTo(1, 1.7);
    }
  });

  it('all round sees each direction where it belongs: the middle ahead, quarters to the sides, the top above', () => {
    const [width, height] = [64, 32];
    const scene = new SceneBuilder().build({ ...even, sky: (d) => [1 + d.x, 1 + d.y, 1 + d.z] });
    const camera: Camera = { eye: v(0, 0, 1), target: v(1, 0, 1), fov: 1, projection: 'sphere' };
    const { mean } = guides(scene, camera, width, height, 64);
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++) {
        const [az, el] = [(((x + 0.5) / width) * 2 - 1) * Math.PI, (1 - ((y + 0.5) / height) * 2) * (Math.PI / 2)];
        // To the right of ahead, along x, lies minus y.
        const d = [Math.cos(az) * Math.cos(el), -Math.sin(az) * Math.cos(el), Math.sin(el)];
        for (let c = 0; c < 3; c++) expect(Math.abs(mean[(y * width + x) * 3 + c] - 1 - d[c])).toBeLessThan(0.03);
      }
  });

  it('with a lens is sharp at its distance and blurred before and behind it by the circle of confusion', () => {
    const edge = (x: number): number => {
      const builder = new SceneBuilder();
      builder.mesh(new MeshBuilder().box(x, 0, -9, x + 0.1, 9, 9).build(), IDENTITY, builder.material(diffuse([1, 1, 1])));
      const camera: Camera = { eye: v(0, 0, 0), target: v(1, 0, 0), fov: 0.012, lens: { radius: 0.05, focus: 2 } };
      const [width, height] = [200, 4];
      const { guides: seen } = guides(builder.build(null), camera, width, height, 64);
      // How many pixels the edge takes from nine tenths to one tenth.
      const row = Array.from({ length: width }, (_, i) => -seen[(width + i) * 6 + 3]);
      return row.filter((g) => g > 0.1 && g < 0.9).length;
    };
    expect(edge(2)).toBeLessThanOrEqual(2);
    const across = (x: number): number => (2 * 0.05 * Math.abs(1 / x - 1 / 2)) / ((2 * Math.tan(0.006) * 50) / 200);
    // From a tenth to nine tenths of a disc's area: 0.687 of its width.
    for (const x of [1, 1.4, 6]) expect(Math.abs(edge(x) / across(x) / 0.687 - 1)).toBeLessThan(0.3);
  });

  it('begins behind what a plane cuts off, though the light is as ever', () => {
    const builder = new SceneBuilder();
    const white = builder.material(diffuse([0.6, 0.6, 0.6]));
    builder.mesh(new MeshBuilder().box(-5, -5, -0.1, 5, 5, 0).build(), IDENTITY, white);
    // A lid over half of the floor keeps the sky from it.
    builder.mesh(new MeshBuilder().box(-5, -5, 2, 0, 5, 2.1).build(), IDENTITY, white);
    const camera: Camera = { eye: v(0, 0, 6), target: v(0, 0.001, 0), fov: 1.2 };
    const scene = builder.build(even);
    const whole = guides(scene, camera, 32, 32, 200);
    const open = guides(scene, { ...camera, cuts: [{ normal: v(0, 0, -1), offset: 1 }] }, 32, 32, 200);
    // Looking down with north up: the left half lies under the lid.
    const at = (list: Float32Array, x: number): number => list[(16 * 32 + x) * 3];
    expect(at(open.mean, 27) / at(whole.mean, 27)).toBeCloseTo(1, 1);
    expect(at(open.mean, 6)).toBeLessThan(at(whole.mean, 6) * 0.6);
    expect(open.depth[16 * 32 + 6]).toBeCloseTo(6, 1);
    expect(whole.depth[16 * 32 + 6]).toBeCloseTo(3.9, 1);
  });
});

describe('meshes that stand in many places', () => {
  it('are met where their copies would be, turned and mirrored ones too, and take hardly any memory', () => {
    const ball = lathe(
      Array.from({ length: 25 }, (_, i) => [0.4 * Math.sin((i / 24) * Math.PI), -0.4 * Math.cos((i / 24) * Math.PI)] as const),
      { segments: 80 },
    );
    const places = Array.from({ length: 100 }, (_, i) => {
      const m = [...placement((i % 10) * 1.2, Math.floor(i / 10) * 1.2, 0.5, i)];
      // Every third is mirrored.
      if (i % 3 === 0) for (let k = 0; k < 3; k++) m[k] *= -1;
      return m;
    });
    const build = (shared: boolean, count: number): Scene => {
      const builder = new SceneBuilder();
      const material = builder.material(diffuse([0.2, 0.5, 0.8]));
      builder.mesh(new MeshBuilder().box(-2, -2, -0.1, 14, 14, 0).build(), IDENTITY, builder.material(diffuse([0.6, 0.6, 0.6])));
      if (shared) builder.share(ball, places.slice(0, count), material);
      else for (const place of places.slice(0, count)) builder.mesh(ball, place, material);
      return builder.build(even);
    };
    const camera: Camera = { eye: v(6, -5, 5), target: v(6, 6, 0), fov: 0.9 };
    const [one, many] = [guides(build(true, 100), camera, 120, 80, 4), guides(build(false, 100), camera, 120, 80, 4)];
    let off = 0;
    for (let i = 0; i < one.guides.length; i++) if (Math.abs(one.guides[i] - many.guides[i]) > 0.02) off++;
    expect(off / one.guides.length).toBeLessThan(0.002);
    const light = (a: Float32Array): number => a.reduce((s, x) => s + x, 0);
    expect(light(one.mean) / light(many.mean)).toBeCloseTo(1, 2);
    const bytes = (scene: Scene): number => {
      const { nodes, leaves, instances, triangles } = prepareScene(scene);
      return nodes.byteLength + leaves.byteLength + instances.byteLength + triangles.byteLength;
    };
    expect(bytes(build(true, 100)) / bytes(build(true, 1))).toBeLessThan(1.05);
  });
});

describe('what a viewpoint shows', () => {
  const model = deriveModel(heronLockCottage());
  const looking = (over: object) => ({ look: { ...FIRST_LOOK, ...over }, eye: v(20, -12, 9), level: null, room: null, afoot: false });
  const wall = model.bodies.find((b) => Object.hasOwn(model.project.walls, b.id))!;
  const part = wall.parts[0];

  it('holds in pictures: hidden things are gone, walls cut away are passed by the eye, others looked through', () => {
    const of = (over: object, id = wall.id) => presenceIn(model, looking(over))(id, wall.level, part);
    expect(of({ cut: false })).toBe('shown');
    expect(of({ cut: false, hidden: [wall.id] })).toBe('gone');
    expect(of({ cut: false, hidden: [`all/${part.sort}`] })).toBe('gone');
    expect(of({ cut: false, through: [wall.id] })).toBe('through');
    const seenFrom = (eye: Vec3): Set<string> => {
      const presence = presenceIn(model, { ...looking({ cut: true }), eye });
      return new Set(model.bodies.filter((b) => Object.hasOwn(model.project.walls, b.id)).map((b) => presence(b.id, b.level, b.parts[0])));
    };
    // From beside the eye alone passes; from above it is a model whose lid is off, and light falls in.
    expect([...seenFrom(v(20, -12, 1.6))].sort()).toEqual(['shown', 'unseen']);
    expect([...seenFrom(v(20, -12, 9))].sort()).toEqual(['gone', 'shown']);
  });

  it('has light where a closed room is looked into from above, and keeps the lamps of its ceiling', () => {
    const room = deriveModel(box(4, 3));
    const eye = v(-3, -4, 7);
    const shot = {
      looking: { look: { ...FIRST_LOOK, cut: true }, eye, level: null, room: null, afoot: false },
      camera: { eye, target: v(2, 1.5, 0), fov: 0.6, aperture: null, focus: null },
      round: false,
    };
    const tracer = new Tracer(prepareScene(pictureScene(room, 64, shot.looking)), { width: 16, height: 12, camera: cameraOf(room, shot), seed: 1 });
    for (let i = 0; i < 16; i++) tracer.pass();
    const mean = new Film(tracer.exposed()).mean();
    // The floor, in the middle of the picture: sunlit or in the light of the sky, not dark.
    for (const k of [5 * 16 + 7, 6 * 16 + 8]) expect(mean[k * 3 + 1]).toBeGreaterThan(200);
    const lamps = model.bodies.flatMap((b) =>
      b.parts.filter((p) => p.lamp).map((p) => presenceIn(model, { ...looking({ cut: true }), eye: v(20, -12, 9) })(b.id, b.level, p)),
    );
    expect(lamps.length).toBeGreaterThan(0);
    expect(lamps).not.toContain('gone');
  });

  it('gives its camera the projection, the section and the lens', () => {
    const camera = { eye: v(0, 0, 1.5), target: v(4, 0, 1.5), fov: fovOfFocal(50), aperture: 2, focus: null };
    const made = cameraOf(model, { looking: { ...looking({ section: { axis: 'z', at: 1.2, keep: 'below' } }), eye: camera.eye }, camera, round: false });
    expect(made.lens).toEqual({ radius: expect.closeTo(0.0125, 6) as number, focus: expect.closeTo(4, 6) as number });
    expect(made.cuts).toEqual([{ normal: { x: 0, y: 0, z: -1 }, offset: 1.2 }]);
    const parallel = { looking: looking({ projection: 'parallel' }), camera, round: false };
    expect(cameraOf(model, parallel).projection).toBe('parallel');
    expect(cameraOf(model, { ...parallel, round: true }).projection).toBe('sphere');
  });
});
