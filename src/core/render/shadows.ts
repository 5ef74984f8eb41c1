import { cross3, sub3, unit3, type Vec3 } from '../geometry/vec';
import { fresnelDielectric } from './bsdf';
import type { RayKernel } from './kernel/kernel';
import { crosses } from './panes';
import { setRay } from './rays';
import { SHADOW, type Scene } from './scene';

/** What the light of a shadow ray that gets through is added to. */
export type Deposit = (pixel: number, r: number, g: number, b: number) => void;

/** Shadow rays of a batch: each carries the light that arrives if nothing is in its way. */
export class ShadowRays {
  private readonly rays: Float32Array;
  private readonly light: Float32Array;
  private readonly pixel: Int32Array;
  private count = 0;
  /** Boxes round the meshes that dim light without stopping it. */
  private readonly veils: Box[];
  private readonly veiled: Uint8Array;

  /** @param capacity most rays of one batch; the kernel must hold as many */
  constructor(
    private readonly scene: Scene,
    private readonly kernel: RayKernel,
    capacity: number,
  ) {
    this.rays = new Float32Array(capacity * 8);
    this.light = new Float32Array(capacity * 3);
    this.pixel = new Int32Array(capacity);
    this.veils = boxesOfVeils(scene);
    this.veiled = new Uint8Array(capacity);
  }

  clear(): void {
    this.count = 0;
  }

  /** Puts a ray on the list; the panes it crosses take their part of its light. */
  add(pixel: number, ox: number, oy: number, oz: number, dx: number, dy: number, dz: number, far: number, r: number, g: number, b: number): void {
    const i = this.count++;
    setRay(this.rays, i, ox, oy, oz, 0, dx, dy, dz, far);
    const { panes } = this.scene;
    for (let k = 0; k < panes.length; k++) {
      const pane = panes[k];
      const c = dx * pane.normal.x + dy * pane.normal.y + dz * pane.normal.z;
      if (!crosses(pane, ox, oy, oz, dx, dy, dz, c, far)) continue;
      const f = 1 - fresnelDielectric(c, pane.ior);
      r *= f * f * pane.tint[0];
      g *= f * f * pane.tint[1];
      b *= f * f * pane.tint[2];
    }
    this.light[i * 3] = r;
    this.light[i * 3 + 1] = g;
    this.light[i * 3 + 2] = b;
    this.pixel[i] = pixel;
    this.veiled[i] = this.veils.some((box) => meets(box, this.rays, i)) ? 1 : 0;
  }

  /** Sends them all, and gives the light of those that get through to their pixels. */
  send(deposit: Deposit): void {
    const { count, kernel, light, pixel } = this;
    if (!count) return;
    kernel.rays.set(this.rays.subarray(0, count * 8));
    kernel.occluded(count);
    const { blocked } = kernel;
    const behind: number[] = [];
    for (let i = 0; i < count; i++) {
      if (blocked[i]) continue;
      if (this.veiled[i]) behind.push(i);
      else deposit(pixel[i], light[i * 3], light[i * 3 + 1], light[i * 3 + 2]);
    }
    if (behind.length) this.dim(behind);
    for (const i of behind) deposit(pixel[i], light[i * 3], light[i * 3 + 1], light[i * 3 + 2]);
  }

  /** Takes from rays the part that loose weaves and the glass of pieces on their way keep, one layer after another. */
  private dim(rays: readonly number[]): void {
    const { kernel, light, scene } = this;
    let left = rays.map((ray) => ({ ray, from: 0 }));
    for (let step = 0; left.length && step < LAYERS; step++) {
      left.forEach(({ ray, from }, k) => {
        kernel.rays.set(this.rays.subarray(ray * 8, ray * 8 + 8), k * 8);
        kernel.rays[k * 8 + 3] = from;
      });
      kernel.closest(left.length);
      left = left.flatMap(({ ray }, k) => {
        const id = kernel.hitIds[k * 4 + 3];
        if (id < 0) return [];
        if (scene.seeThrough[id] === SHADOW.dimmed) {
          const { opacity, pane, colour, ior } = scene.materials[scene.material[id]];
          // Through glass as paths go straight through it: one face after the other.
          const lost = pane ? fresnelDielectric(this.cosine(ray, id), ior) : opacity;
          for (let c = 0; c < 3; c++) light[ray * 3 + c] *= (1 - lost) * (pane ? Math.sqrt(colour[c]) : 1);
        }
        return [{ ray, from: kernel.hits[k * 4] + 1e-5 }];
      });
    }
  }

  /** Between a ray and the normal of a triangle. */
  private cosine(ray: number, id: number): number {
    const p = this.scene.positions;
    const at = (c: number): Vec3 => ({ x: p[id * 9 + c * 3], y: p[id * 9 + c * 3 + 1], z: p[id * 9 + c * 3 + 2] });
    const n = unit3(cross3(sub3(at(1), at(0)), sub3(at(2), at(0))));
    const k = ray * 8 + 4;
    return this.rays[k] * n.x + this.rays[k + 1] * n.y + this.rays[k + 2] * n.z;
  }
}

/** Most layers a shadow ray is followed through: hardly any light is left behind them. */
const LAYERS = 24;

interface Box {
  min: [number, number, number];
  max: [number, number, number];
}

function boxesOfVeils(scene: Scene): Box[] {
  const boxes: Box[] = [];
  let last = -2;
  for (let t = 0; t < scene.material.length; t++) {
    if (scene.seeThrough[t] !== SHADOW.dimmed) continue;
    if (t !== last + 1 || scene.material[t] !== scene.material[last])
      boxes.push({ min: [Infinity, Infinity, Infinity], max: [-Infinity, -Infinity, -Infinity] });
    last = t;
    const { min, max } = boxes[boxes.length - 1];
    for (let k = 0; k < 9; k++) {
      const value = scene.positions[t * 9 + k];
      min[k % 3] = Math.min(min[k % 3], value - 1e-4);
      max[k % 3] = Math.max(max[k % 3], value + 1e-4);
    }
  }
  return boxes;
}

/** Whether a ray of a list passes a box (slabs, Kay and Kajiya 1986). */
function meets({ min, max }: Box, rays: Float32Array, ray: number): boolean {
  let near = 0;
  let end = rays[ray * 8 + 7];
  for (let c = 0; c < 3; c++) {
    const o = rays[ray * 8 + c];
    const inverse = 1 / rays[ray * 8 + 4 + c];
    const a = (min[c] - o) * inverse;
    const b = (max[c] - o) * inverse;
    // A ray within a face of the box leaves the other slabs to decide.
    if (a !== a || b !== b) continue;
    near = Math.max(near, Math.min(a, b));
    end = Math.min(end, Math.max(a, b));
  }
  return near <= end;
}
