import type { Vec3 } from '../geometry/vec';
import { cameraFrame, type Camera } from './camera';
import type { Exposed } from './film';
import { KernelMemory } from './kernel/kernel';
import type { PreparedScene } from './prepared';

/** A part of a picture, pixels. */
export interface Region {
  x: number;
  y: number;
  width: number;
  height: number;
}

export interface TraceOptions {
  width: number;
  height: number;
  camera: Camera;
  seed: number;
  /** The part that is traced; the whole unless told. */
  region?: Region;
  /** Which samples of each pixel are this tracer's: of every `of` the one numbered `own`, so that several make one picture. */
  share?: { own: number; of: number };
  /** Longest path, in meetings with surfaces. */
  bounces?: number;
  /** Contributions that have been scattered are cut to this luminance (cd/m²): a small, known bias against rare bright specks. */
  clamp?: number;
  /** Whether what is cut is added up too, for proofs. */
  watched?: boolean;
}

/** Longest path unless told: what is left by then is ended by chance long before. */
const BOUNCES = 16;

/**
 * A path tracer on batches of rays, in WebAssembly (kernel/assembly/paths.ts): next-event estimation towards the sun's disc,
 * towards openings as portals to the sky, and towards luminaires, combined with scattered rays by the power heuristic (Veach 1997).
 * Radiance is luminance in cd/m², as linear sRGB. For one seed the samples of a pixel are the same, whoever traces them.
 */
export class Tracer {
  private readonly memory = new KernelMemory();
  private readonly region: Region;
  private readonly groups: number;
  private readonly names: readonly string[];
  private readonly at: {
    counts: number;
    light: number;
    squares: number;
    guides: number;
    objects: number;
    list: number;
    camera: number;
    frame: number;
    taken: number;
  };
  private readonly share: { own: number; of: number };

  /** @throws RangeError where the picture has no pixels */
  constructor(scene: PreparedScene, options: TraceOptions) {
    const { width, height, camera, seed, share = { own: 0, of: 1 }, bounces = BOUNCES, clamp = Infinity, watched = false } = options;
    this.region = options.region ?? { x: 0, y: 0, width, height };
    this.share = share;
    const pixels = this.region.width * this.region.height;
    if (!(pixels > 0)) throw new RangeError('A picture has at least one pixel.');
    const { memory } = this;
    memory.takeScene(scene);
    this.groups = scene.groups.length;
    this.names = scene.names;
    this.at = {
      counts: memory.reserve(pixels * 4),
      light: memory.reserve(pixels * this.groups * 16),
      squares: memory.reserve(pixels * 4),
      guides: memory.reserve(pixels * 32),
      objects: memory.reserve(pixels * 4),
      list: memory.put(Int32Array.from({ length: pixels }, (_, i) => i)),
      camera: memory.put(cameraWords(camera, width, height)),
      frame: memory.put(Int32Array.from([this.region.x, this.region.y, this.region.width, this.region.height, seed, share.of, share.own, 0])),
      taken: watched ? memory.reserve(pixels * 16) : 0,
    };
    this.configure(this.at.frame, 0, bounces, clamp);
    this.clear();
  }

  private configure(frame: number, given: number, bounces: number, clamp: number, bare = false): void {
    const { at, memory } = this;
    const settings = Int32Array.from([
      at.camera,
      frame,
      at.list,
      given,
      at.counts,
      at.light,
      at.squares,
      at.guides,
      bounces,
      0,
      at.taken,
      bare ? 1 : 0,
      at.objects,
    ]);
    new Float32Array(settings.buffer)[9] = clamp;
    memory.exports.configurePaths(memory.put(settings));
  }

  private get pixels(): number {
    return this.region.width * this.region.height;
  }

  /** Looks from elsewhere: all samples are forgotten. */
  aim(camera: Camera, width: number, height: number): void {
    this.memory.floats(this.at.camera, 64).set(cameraWords(camera, width, height));
    this.clear();
  }

  /** Forgets all samples. */
  clear(): void {
    const { memory, at, pixels, groups } = this;
    memory.words(at.counts, pixels).fill(0);
    memory.floats(at.light, pixels * groups * 4).fill(0);
    memory.floats(at.squares, pixels).fill(0);
    memory.floats(at.guides, pixels * 8).fill(0);
    memory.words(at.objects, pixels).fill(0);
    if (at.taken) memory.floats(at.taken, pixels * 4).fill(0);
  }

  /** Adds one sample to every pixel. @param number which of the samples of a pixel; the next one of its share unless told */
  pass(number?: number): void {
    const { of, own } = this.share;
    if (number !== undefined) this.stride(0, number);
    this.memory.exports.trace(0, this.pixels);
    if (number !== undefined) this.stride(of, own);
  }

  private stride(of: number, own: number): void {
    this.memory.words(this.at.frame + 20, 2).set([of, own]);
  }

  /** Adds one sample to each of some pixels, numbered row by row within the region; each may be named once. */
  sample(pixels: ArrayLike<number>): void {
    const { memory, at } = this;
    memory.words(at.list, pixels.length).set(pixels);
    memory.exports.trace(0, pixels.length);
    // The list stands ready for whole passes again.
    const list = memory.words(at.list, this.pixels);
    for (let i = 0; i < pixels.length; i++) list[i] = i;
  }

  /** What has been traced so far, as copies. */
  exposed(): Exposed {
    const { memory, at, pixels, groups, region } = this;
    return {
      width: region.width,
      height: region.height,
      groups,
      counts: new Uint32Array(memory.words(at.counts, pixels)),
      light: memory.floats(at.light, pixels * groups * 4).slice(),
      squares: memory.floats(at.squares, pixels).slice(),
      guides: memory.floats(at.guides, pixels * 8).slice(),
      objects: new Uint32Array(memory.words(at.objects, pixels)),
      names: this.names,
    };
  }

  /** What the limit has taken so far where that is watched, as sums: red, green, blue and nothing of each pixel, cd/m². */
  taken(): Float32Array {
    return this.memory.floats(this.at.taken, this.at.taken ? this.pixels * 4 : 0).slice();
  }

  /** Rays sent so far: to the nearest hit, and to lights. */
  get sent(): { nearest: number; shadow: number } {
    const { nearestRays, shadowRays } = this.memory.exports;
    return { nearest: nearestRays.value >>> 0, shadow: shadowRays.value >>> 0 };
  }

  /** Bytes of memory it holds. */
  get memorySize(): number {
    return this.memory.size;
  }

  /**
   * Light arriving along given rays, one estimate each, three values a ray; for probes and proofs.
   *
   * @param options with `bare`, without what shines into the ray by itself: the sun’s disc and luminaires
   */
  static along(
    scene: PreparedScene,
    rays: readonly { origin: Vec3; direction: Vec3 }[],
    options: Pick<TraceOptions, 'seed' | 'bounces' | 'clamp'> & { bare?: boolean },
  ): Float32Array {
    const camera: Camera = { eye: { x: 0, y: 0, z: 0 }, target: { x: 1, y: 0, z: 0 }, fov: 1 };
    const tracer = new Tracer(scene, { ...options, width: rays.length, height: 1, camera });
    const { memory, at } = tracer;
    memory.words(at.camera, 1)[0] = GIVEN;
    const list = Float32Array.from(rays.flatMap(({ origin: o, direction: d }) => [o.x, o.y, o.z, 0, d.x, d.y, d.z, 0]));
    const given = memory.put(list);
    const frame = memory.put(Int32Array.from([0, 0, rays.length, 1, options.seed, 1, 0, 0]));
    tracer.configure(frame, given, options.bounces ?? BOUNCES, options.clamp ?? Infinity, options.bare);
    tracer.pass();
    const { light, groups } = tracer.exposed();
    const out = new Float32Array(rays.length * 3);
    for (let i = 0; i < rays.length; i++) for (let g = 0; g < groups; g++) for (let c = 0; c < 3; c++) out[i * 3 + c] += light[(i * groups + g) * 4 + c];
    return out;
  }
}

const PROJECTIONS = { perspective: 0, parallel: 1, sphere: 2 } as const;
const GIVEN = 3;
/** Most planes of a cut. */
const CUTS = 6;

/** The camera as the kernel reads it. */
function cameraWords(camera: Camera, width: number, height: number): Float32Array {
  const out = new Float32Array(64);
  const words = new Int32Array(out.buffer);
  const { eye, forward, right, up, axis, side, rise } = cameraFrame(camera, width / height);
  const cuts = (camera.cuts ?? []).slice(0, CUTS);
  words[0] = PROJECTIONS[camera.projection ?? 'perspective'];
  words[1] = cuts.length;
  words[2] = camera.indoors ? 1 : 0;
  [eye, forward, right, up].forEach((v, i) => out.set([v.x, v.y, v.z], 4 + i * 4));
  out[20] = camera.lens?.radius ?? 0;
  out[21] = camera.lens?.focus ?? 1;
  words[22] = width;
  words[23] = height;
  [axis, side, rise].forEach((v, i) => out.set([v.x, v.y, v.z], 24 + i * 4));
  cuts.forEach(({ normal: n, offset }, i) => out.set([n.x, n.y, n.z, offset], 36 + i * 4));
  return out;
}
