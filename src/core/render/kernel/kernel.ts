import type { Hierarchy } from '../bvh';
import { fromBase64 } from '../../units/base64';
import { KERNEL } from './kernel.generated';

interface Exports {
  memory: WebAssembly.Memory;
  alloc(bytes: number): number;
  setScene(nodes: number, leaves: number): void;
  closest(count: number, rays: number, hits: number): void;
  occluded(count: number, rays: number, out: number): void;
}

/**
 * Batches of rays against a hierarchy, in WebAssembly memory. Callers fill `rays` (origin, tmin, direction, tmax) and
 * read `hits` (t, u, v and, in `hitIds`, the triangle or −1) or `blocked`.
 */
export class RayKernel {
  readonly rays: Float32Array;
  readonly hits: Float32Array;
  readonly hitIds: Int32Array;
  readonly blocked: Int32Array;
  private readonly exports: Exports;
  private readonly at: { rays: number; hits: number; blocked: number };

  /** @param capacity most rays of one batch */
  constructor(
    hierarchy: Hierarchy,
    readonly capacity: number,
  ) {
    const module = new WebAssembly.Module(fromBase64(KERNEL));
    const instance = new WebAssembly.Instance(module, { env: { abort: () => undefined } });
    this.exports = instance.exports as unknown as Exports;
    const nodes = this.exports.alloc(Math.max(112, hierarchy.nodes.byteLength));
    const leaves = this.exports.alloc(Math.max(160, hierarchy.leaves.byteLength));
    this.at = { rays: this.exports.alloc(capacity * 32), hits: this.exports.alloc(capacity * 16), blocked: this.exports.alloc(capacity * 4) };
    const { buffer } = this.exports.memory;
    new Uint8Array(buffer).set(new Uint8Array(hierarchy.nodes), nodes);
    new Uint8Array(buffer).set(new Uint8Array(hierarchy.leaves), leaves);
    this.exports.setScene(nodes, leaves);
    this.rays = new Float32Array(buffer, this.at.rays, capacity * 8);
    this.hits = new Float32Array(buffer, this.at.hits, capacity * 4);
    this.hitIds = new Int32Array(buffer, this.at.hits, capacity * 4);
    this.blocked = new Int32Array(buffer, this.at.blocked, capacity);
  }

  /** Nearest hits of the first `count` rays. */
  closest(count: number): void {
    this.exports.closest(count, this.at.rays, this.at.hits);
  }

  /** Whether something opaque lies along the first `count` rays. */
  occluded(count: number): void {
    this.exports.occluded(count, this.at.rays, this.at.blocked);
  }
}
