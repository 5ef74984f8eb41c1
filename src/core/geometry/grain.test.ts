import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { alongGrain, type Grain } from './grain';
import { MeshBuilder, meshArea, placement, type Mesh } from './mesh';
import { cylinder, roundedBox, tube } from './shapes';
import type { Vec3 } from './vec';

/** Where u grows fastest on each triangle, and its normal, by solving for the plane's own axes. */
function tangents({ positions: p, uvs: t, indices }: Mesh): { u: Vec3; n: Vec3; area: number }[] {
  const out: { u: Vec3; n: Vec3; area: number }[] = [];
  for (let k = 0; k < indices.length; k += 3) {
    const [a, b, c] = [indices[k], indices[k + 1], indices[k + 2]];
    const edge = (q: number): number[] => [0, 1, 2].map((i) => p[q * 3 + i] - p[a * 3 + i]);
    const [e, f] = [edge(b), edge(c)];
    const [u1, v1, u2, v2] = [t[b * 2] - t[a * 2], t[b * 2 + 1] - t[a * 2 + 1], t[c * 2] - t[a * 2], t[c * 2 + 1] - t[a * 2 + 1]];
    const d = u1 * v2 - u2 * v1;
    const n = [e[1] * f[2] - e[2] * f[1], e[2] * f[0] - e[0] * f[2], e[0] * f[1] - e[1] * f[0]];
    const l = Math.hypot(...n);
    if (Math.abs(d) < 1e-12 || l < 1e-9) continue;
    const u = [0, 1, 2].map((i) => (v2 * e[i] - v1 * f[i]) / d);
    const m = Math.hypot(...u) || 1;
    out.push({ u: { x: u[0] / m, y: u[1] / m, z: u[2] / m }, n: { x: n[0] / l, y: n[1] / l, z: n[2] / l }, area: l / 2 });
  }
  return out;
}

/** Share of the surface, ends of boards left out, on which u runs along an axis. */
function shareAlong(mesh: Mesh, axis: 'x' | 'y' | 'z'): number {
  let [along, all] = [0, 0];
  for (const { u, n, area } of tangents(mesh)) {
    if (Math.abs(n[axis]) > 0.9) continue;
    all += area;
    if (Math.abs(u[axis]) > 0.7) along += area;
  }
  return along / all;
}

const box = (x: number, y: number, z: number): Mesh => new MeshBuilder().box(0, 0, 0, x, y, z).build();

describe('the grain of a mesh', () => {
  it('runs along the longest side of a board, whichever that is', () => {
    for (const [sides, axis] of [
      [[2, 0.1, 0.02], 'x'],
      [[0.1, 2, 0.02], 'y'],
      [[0.1, 0.02, 2], 'z'],
    ] as [[number, number, number], 'x' | 'y' | 'z'][]) {
      expect(shareAlong(alongGrain(box(...sides), 'length'), axis)).toBe(1);
      const round = roundedBox({ x: 0, y: 0, z: 0 }, { x: sides[0], y: sides[1], z: sides[2] }, { radius: 0.004 });
      expect(shareAlong(alongGrain(round, 'length'), axis)).toBeGreaterThan(0.97);
    }
  });

  it('runs along each board of a mesh for itself', () => {
    const frame = new MeshBuilder()
      .box(0, 0, 0, 0.05, 0.05, 0.7)
      .add(box(1.5, 0.05, 0.05), placement(0, 3, 0.7, 0))
      .build();
    const made = alongGrain(frame, 'length');
    const legs = { ...made, indices: made.indices.slice(0, 36) };
    const rail = { ...made, indices: made.indices.slice(36) };
    expect(shareAlong(legs, 'z')).toBe(1);
    expect(shareAlong(rail, 'x')).toBe(1);
  });

  it('runs up a turned leg and along a bar, not round them', () => {
    expect(shareAlong(alongGrain(cylinder(0, 0, 0, 0.7, 0.02), 'length'), 'z')).toBeGreaterThan(0.99);
    const bar = tube(
      [
        { x: 0, y: 0, z: 1 },
        { x: 0, y: 1.2, z: 1 },
      ],
      0.015,
    );
    expect(shareAlong(alongGrain(bar, 'length'), 'y')).toBeGreaterThan(0.95);
  });

  it('goes the way that is asked for, over the length', () => {
    expect(shareAlong(alongGrain(box(0.9, 0.04, 0.5), { x: 0, y: 0, z: 1 }), 'z')).toBe(1);
  });

  it('leaves shape and size of the texture alone, and makes nothing twice', () => {
    const side = fc.double({ min: 0.01, max: 3, noNaN: true });
    fc.assert(
      fc.property(side, side, side, fc.constantFrom<Grain>('length', { x: 1, y: 0, z: 0 }, { x: 0, y: 0, z: 1 }), (x, y, z, grain) => {
        const mesh = box(x, y, z);
        const made = alongGrain(mesh, grain);
        expect(made.positions).toBe(mesh.positions);
        expect(made.indices).toBe(mesh.indices);
        expect(meshArea(made)).toBeCloseTo(2 * (x * y + y * z + z * x), 4);
        expect(alongGrain(mesh, grain)).toBe(made);
        // A quarter turn keeps areas and their sign in the texture.
        const spread = ({ uvs: t, indices: k }: Mesh): number[] =>
          Array.from({ length: k.length / 3 }, (_, i) => {
            const [a, b, c] = [k[i * 3] * 2, k[i * 3 + 1] * 2, k[i * 3 + 2] * 2];
            return (t[b] - t[a]) * (t[c + 1] - t[a + 1]) - (t[c] - t[a]) * (t[b + 1] - t[a + 1]);
          });
        const [before, after] = [spread(mesh), spread(made)];
        after.forEach((v, i) => expect(v).toBeCloseTo(before[i], 5));
      }),
      { numRuns: 60 },
    );
  });
});
