import { describe, expect, it } from 'vitest';
import { cylinder, lathe, roundedBox, sheet, tube, within } from './shapes';
import { meshArea, type Mesh } from './mesh';

/** How far the middles of edges lie inside a circle about the z axis, at most. */
function deepest(mesh: Mesh, radius: number): number {
  let worst = 0;
  for (let k = 0; k < mesh.indices.length; k += 3)
    for (let e = 0; e < 3; e++) {
      const [a, b] = [mesh.indices[k + e] * 3, mesh.indices[k + ((e + 1) % 3)] * 3];
      const p = mesh.positions;
      const [ra, rb] = [Math.hypot(p[a], p[a + 1]), Math.hypot(p[b], p[b + 1])];
      if (Math.abs(ra - radius) > 1e-5 || Math.abs(rb - radius) > 1e-5 || Math.abs(p[a + 2] - p[b + 2]) > 1e-6) continue;
      worst = Math.max(worst, radius - Math.hypot((p[a] + p[b]) / 2, (p[a + 1] + p[b + 1]) / 2));
    }
  return worst;
}

describe('curves cut finer', () => {
  it('lie within what is asked for, as the sagitta of a chord says', () => {
    for (const radius of [0.03, 0.1, 0.3]) {
      const plain = deepest(cylinder(0, 0, 0, 1, radius), radius);
      expect(plain).toBeCloseTo(radius * (1 - Math.cos(Math.PI / 16)), 6);
      const fine = deepest(
        within(0.0005, () => cylinder(0, 0, 0, 1, radius)),
        radius,
      );
      expect(fine).toBeLessThanOrEqual(0.0005 + 1e-6);
      expect(fine).toBeLessThanOrEqual(plain);
    }
  });

  it('stay as they are where they are fine enough, and after it', () => {
    const edge = (): Mesh => roundedBox({ x: 0, y: 0, z: 0 }, { x: 1, y: 1, z: 1 }, { radius: 0.003, steps: 3 });
    // What is light is sharp where it would be round by so little.
    expect(within(0.003, edge).indices.length).toBe(36);
    expect(within(0.001, edge)).toEqual(edge());
    const bar = (): Mesh =>
      tube(
        [
          { x: 0, y: 0, z: 0 },
          { x: 0, y: 0, z: 1 },
        ],
        0.05,
      );
    const plain = bar();
    expect(within(0.0002, bar).indices.length).toBeGreaterThan(plain.indices.length);
    expect(() =>
      within(0.0002, () => {
        throw new Error('no such shape');
      }),
    ).toThrow('no such shape');
    expect(bar()).toEqual(plain);
  });

  it('come nearer to the true surface', () => {
    const sphere = (): Mesh => {
      const profile = Array.from({ length: 33 }, (_, i) => [Math.max(0, 0.2 * Math.sin((Math.PI * i) / 32)), -0.2 * Math.cos((Math.PI * i) / 32)] as const);
      return lathe(profile, { segments: 12 });
    };
    const truth = 4 * Math.PI * 0.2 ** 2;
    const [plain, fine] = [meshArea(sphere()), meshArea(within(0.0001, sphere))];
    expect(plain).toBeLessThan(fine);
    expect(fine).toBeLessThan(truth);
    expect(truth - fine).toBeLessThan((truth - plain) / 8);
    const wave = (): Mesh => sheet((u, v) => ({ x: u, y: 0.1 * Math.sin(u * 9), z: v }), 10, 2, 1, 1);
    expect(meshArea(within(0.001, wave))).toBeGreaterThan(meshArea(wave()));
  });
});
