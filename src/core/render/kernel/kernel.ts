import { fromBase64 } from '../../units/base64';
import type { Hierarchy } from '../bvh';
import { kernelTables, SKY_SIZE, type PreparedScene } from '../prepared';
import { KERNEL } from './kernel.generated';

interface Exports {
  memory: WebAssembly.Memory;
  alloc(bytes: number): number;
  setScene(at: number): void;
  configurePaths(at: number): void;
  trace(from: number, count: number): void;
  closest(count: number, rays: number, hits: number): void;
  occluded(count: number, rays: number, out: number): void;
  scattering(id: number, dx: number, dy: number, dz: number, ox: number, oy: number, oz: number, out: number): void;
  scattered(id: number, dx: number, dy: number, dz: number, seed: number, sample: number, out: number): void;
  drawn(pixel: number, sample: number, dimension: number, out: number): void;
  nearestRays: { value: number };
  shadowRays: { value: number };
}

let compiled: WebAssembly.Module | null = null;

/** One instance of the compiled kernel with memory of its own. Views of it are taken anew for every use: memory grows. */
export class KernelMemory {
  readonly exports: Exports;

  constructor() {
    compiled ??= new WebAssembly.Module(fromBase64(KERNEL));
    this.exports = new WebAssembly.Instance(compiled, { env: { abort: () => undefined } }).exports as unknown as Exports;
  }

  /** Reserves room and fills it; never less than 16 bytes. */
  put(data: ArrayBufferView | ArrayBuffer): number {
    const bytes = data instanceof ArrayBuffer ? new Uint8Array(data) : new Uint8Array(data.buffer, data.byteOffset, data.byteLength);
    const at = this.reserve(bytes.length);
    new Uint8Array(this.exports.memory.buffer).set(bytes, at);
    return at;
  }

  reserve(bytes: number): number {
    return this.exports.alloc(Math.max(16, bytes)) >>> 0;
  }

  floats(at: number, count: number): Float32Array {
    return new Float32Array(this.exports.memory.buffer, at, count);
  }

  words(at: number, count: number): Int32Array {
    return new Int32Array(this.exports.memory.buffer, at, count);
  }

  private beyond({ table, pixels }: NonNullable<PreparedScene['beyond']>): number {
    const own = table.slice();
    new Int32Array(own.buffer)[0] = this.put(pixels);
    return this.put(own);
  }

  /** Bytes it holds. */
  get size(): number {
    return this.exports.memory.buffer.byteLength;
  }

  /** Puts a scene into the memory; once. */
  takeScene(scene: PreparedScene): void {
    const { linear, sheens, albedos } = kernelTables();
    const places = scene.textures.map((t) => this.put(t));
    const materials = scene.materials.slice();
    const words = new Int32Array(materials.buffer);
    for (let k = 0; k < words.length; k += 32) for (const w of [16, 19]) words[k + w] = words[k + w] < 0 ? 0 : places[words[k + w]];
    const list = this.put(scene.lampTriangles);
    const lamps = scene.lamps.slice();
    const lampWords = new Int32Array(lamps.buffer);
    for (let i = 0; i < scene.counts.lamps; i++) lampWords[i * 8 + 5] = list + lampWords[i * 8 + 5] * 64;
    const settings = [
      this.put(scene.nodes),
      this.put(scene.leaves),
      this.put(scene.instances),
      this.put(scene.triangles),
      this.put(materials),
      this.put(scene.lampGroups),
      this.put(lamps),
      this.put(scene.portalGroups),
      this.put(scene.portals),
      this.put(scene.paneGroups),
      scene.sky ? this.put(scene.sky) : 0,
      this.put(linear),
      this.put(sheens),
      this.put(albedos),
      this.put(scene.sun),
      scene.counts.lamps,
      scene.counts.portals,
      scene.counts.panes,
      SKY_SIZE,
      scene.sunUp ? 1 : 0,
      scene.sky ? 1 : 0,
      scene.groups.length,
      scene.beyond ? this.beyond(scene.beyond) : 0,
      0,
    ];
    const told = Int32Array.from(settings);
    new Float32Array(told.buffer)[told.length - 1] = scene.outside;
    this.exports.setScene(this.put(told));
  }
}

/**
 * Batches of rays against a hierarchy alone. Callers fill `rays` (origin, tmin, direction, tmax) and read `hits` (t, u, v and,
 * in `hitIds`, the triangle or −1) or `blocked`.
 */
export class RayKernel {
  private readonly memory = new KernelMemory();
  private readonly at: { rays: number; hits: number; blocked: number };

  /** @param capacity most rays of one batch */
  constructor(
    hierarchy: Hierarchy,
    readonly capacity: number,
  ) {
    this.memory.takeScene({ ...NOTHING, nodes: hierarchy.nodes, leaves: hierarchy.leaves, instances: hierarchy.instances });
    this.at = { rays: this.memory.reserve(capacity * 32), hits: this.memory.reserve(capacity * 16), blocked: this.memory.reserve(capacity * 4) };
  }

  get rays(): Float32Array {
    return this.memory.floats(this.at.rays, this.capacity * 8);
  }
  get hits(): Float32Array {
    return this.memory.floats(this.at.hits, this.capacity * 4);
  }
  get hitIds(): Int32Array {
    return this.memory.words(this.at.hits, this.capacity * 4);
  }
  get blocked(): Int32Array {
    return this.memory.words(this.at.blocked, this.capacity);
  }

  /** Nearest hits of the first `count` rays. */
  closest(count: number): void {
    this.memory.exports.closest(count, this.at.rays, this.at.hits);
  }

  /** Whether something opaque lies along the first `count` rays. */
  occluded(count: number): void {
    this.memory.exports.occluded(count, this.at.rays, this.at.blocked);
  }
}

const none = new Float32Array(0);
const NOTHING: Omit<PreparedScene, 'nodes' | 'leaves' | 'instances'> = {
  triangles: none,
  materials: none,
  textures: [],
  lampGroups: none,
  lamps: none,
  lampTriangles: none,
  portalGroups: none,
  portals: none,
  paneGroups: none,
  sky: null,
  sun: none,
  counts: { lamps: 0, portals: 0, panes: 0 },
  sunUp: false,
  beyond: null,
  outside: 1,
  groups: [{ name: 'Sun', kelvin: 5300 }],
  names: [],
};
