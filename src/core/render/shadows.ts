import { fresnelDielectric } from './bsdf';
import type { RayKernel } from './kernel/kernel';
import { crosses } from './panes';
import { setRay } from './rays';
import type { Scene } from './scene';

/** What the light of a shadow ray that gets through is added to. */
export type Deposit = (pixel: number, r: number, g: number, b: number) => void;

/** Shadow rays of a batch: each carries the light that arrives if nothing is in its way. */
export class ShadowRays {
  private readonly rays: Float32Array;
  private readonly light: Float32Array;
  private readonly pixel: Int32Array;
  private count = 0;

  /** @param capacity most rays of one batch; the kernel must hold as many */
  constructor(
    private readonly scene: Scene,
    private readonly kernel: RayKernel,
    capacity: number,
  ) {
    this.rays = new Float32Array(capacity * 8);
    this.light = new Float32Array(capacity * 3);
    this.pixel = new Int32Array(capacity);
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
  }

  /** Sends them all, and gives the light of those that get through to their pixels. */
  send(deposit: Deposit): void {
    const { count, kernel, light, pixel } = this;
    if (!count) return;
    kernel.rays.set(this.rays.subarray(0, count * 8));
    kernel.occluded(count);
    const { blocked } = kernel;
    for (let i = 0; i < count; i++) if (!blocked[i]) deposit(pixel[i], light[i * 3], light[i * 3 + 1], light[i * 3 + 2]);
  }
}
