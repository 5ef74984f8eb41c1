import { describe, expect, it } from 'vitest';
import { Random } from './bsdf';
import { buildHierarchy } from './bvh';
import { RayKernel } from './kernel/kernel';

describe('ray kernel', () => {
  it('finds what a search through all triangles finds', () => {
    const random = new Random(11);
    const count = 700;
    const positions = new Float32Array(count * 9);
    for (let i = 0; i < count; i++) {
      const c = [random.next() * 10, random.next() * 10, random.next() * 10];
      for (let k = 0; k < 9; k++) positions[i * 9 + k] = c[k % 3] + (random.next() - 0.5) * 1.5;
    }
    const kernel = new RayKernel(buildHierarchy(positions), 512);
    const dirs: number[][] = [];
    for (let i = 0; i < 512; i++) {
      const d = [random.next() - 0.5, random.next() - 0.5, i % 7 === 0 ? 0 : random.next() - 0.5];
      const l = Math.hypot(...d);
      dirs.push(d.map((x) => x / l));
      kernel.rays.set([random.next() * 10, random.next() * 10, random.next() * 10, 0, ...dirs[i], 1e30], i * 8);
    }
    const rays = kernel.rays.slice();
    kernel.closest(512);
    const hits = kernel.hits.slice();
    const ids = kernel.hitIds.slice();
    kernel.occluded(512);
    for (let i = 0; i < 512; i++) {
      let best = Infinity;
      for (let t = 0; t < count; t++) best = Math.min(best, intersect(positions, t, rays.subarray(i * 8, i * 8 + 8)));
      expect(ids[i * 4 + 3] >= 0).toBe(best < Infinity);
      expect(kernel.blocked[i]).toBe(best < Infinity ? 1 : 0);
      if (best < Infinity) expect(hits[i * 4]).toBeCloseTo(best, 3);
    }
  });
});

function intersect(p: Float32Array, t: number, ray: Float32Array): number {
  const at = (c: number): number[] => [p[t * 9 + c * 3], p[t * 9 + c * 3 + 1], p[t * 9 + c * 3 + 2]];
  const sub = (a: number[], b: number[]): number[] => a.map((x, i) => x - b[i]);
  const cross = (a: number[], b: number[]): number[] => [a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]];
  const dot = (a: number[], b: number[]): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
  const [a, b, c] = [at(0), at(1), at(2)];
  const d = [ray[4], ray[5], ray[6]];
  const [e1, e2] = [sub(b, a), sub(c, a)];
  const q = cross(d, e2);
  const det = dot(e1, q);
  const s = sub([ray[0], ray[1], ray[2]], a);
  const u = dot(s, q) / det;
  const w = cross(s, e1);
  const v2 = dot(d, w) / det;
  const hit = dot(e2, w) / det;
  return u >= 0 && v2 >= 0 && u + v2 <= 1 && hit > 0 ? hit : Infinity;
}
