import type { Mesh } from '../geometry/mesh';
import { WELD } from '../units/tolerance';

/** What tests measure of meshes. */

/** The corner of least and of greatest coordinates of some meshes. */
export const bounds = (meshes: readonly Mesh[]): { low: number[]; high: number[] } => {
  const [low, high] = [
    [Infinity, Infinity, Infinity],
    [-Infinity, -Infinity, -Infinity],
  ];
  for (const { positions } of meshes)
    for (let k = 0; k < positions.length; k++) {
      low[k % 3] = Math.min(low[k % 3], positions[k]);
      high[k % 3] = Math.max(high[k % 3], positions[k]);
    }
  return { low, high };
};

/** Volume within closed surfaces, m³: by the divergence theorem. */
export const volume = ({ positions: p, indices }: Mesh): number => {
  let sum = 0;
  for (let k = 0; k < indices.length; k += 3) {
    const [a, b, c] = [indices[k] * 3, indices[k + 1] * 3, indices[k + 2] * 3];
    sum += p[a] * (p[b + 1] * p[c + 2] - p[b + 2] * p[c + 1]) + p[a + 1] * (p[b + 2] * p[c] - p[b] * p[c + 2]) + p[a + 2] * (p[b] * p[c + 1] - p[b + 1] * p[c]);
  }
  return sum / 6;
};

/** How many triangles some meshes have. */
export const triangles = (meshes: readonly Mesh[]): number => meshes.reduce((sum, m) => sum + m.indices.length / 3, 0);

/**
 * Lengths of the edges of a mesh, metres: of all; of those that stand out by more than an angle, radians, and are shaded as
 * edges, which thin round bars are not; of those at a rim.
 */
export function edgeLengths({ positions: p, normals: n, indices }: Mesh, angle: number): { all: number; sharp: number; open: number } {
  const ids = new Map<string, number>();
  const at = Array.from({ length: p.length / 3 }, (_, i) => {
    const key = `${Math.round(p[i * 3] / WELD)} ${Math.round(p[i * 3 + 1] / WELD)} ${Math.round(p[i * 3 + 2] / WELD)}`;
    let id = ids.get(key);
    if (id === undefined) ids.set(key, (id = ids.size));
    return id;
  });
  const flat = (k: number): [number, number, number] => {
    const [a, b, c] = [indices[k] * 3, indices[k + 1] * 3, indices[k + 2] * 3];
    const [ux, uy, uz] = [p[b] - p[a], p[b + 1] - p[a + 1], p[b + 2] - p[a + 2]];
    const [vx, vy, vz] = [p[c] - p[a], p[c + 1] - p[a + 1], p[c + 2] - p[a + 2]];
    const m = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
    const l = Math.hypot(m[0], m[1], m[2]) || 1;
    return [m[0] / l, m[1] / l, m[2] / l];
  };
  const edges = new Map<string, { k: number; i: number }[]>();
  for (let k = 0; k < indices.length; k += 3) {
    const own = [at[indices[k]], at[indices[k + 1]], at[indices[k + 2]]];
    if (new Set(own).size < 3) continue;
    for (let i = 0; i < 3; i++) {
      const [a, b] = [own[i], own[(i + 1) % 3]];
      const key = a < b ? `${a} ${b}` : `${b} ${a}`;
      const list = edges.get(key);
      if (list) list.push({ k, i });
      else edges.set(key, [{ k, i }]);
    }
  }
  const out = { all: 0, sharp: 0, open: 0 };
  const cos = Math.cos(angle);
  for (const uses of edges.values()) {
    const corner = (u: { k: number; i: number }, j: number): number => indices[u.k + ((u.i + j) % 3)] * 3;
    const [a, b] = [corner(uses[0], 0), corner(uses[0], 1)];
    const l = Math.hypot(p[a] - p[b], p[a + 1] - p[b + 1], p[a + 2] - p[b + 2]);
    out.all += l;
    if (uses.length === 1) out.open += l;
    if (uses.length !== 2) continue;
    const [f, g] = [flat(uses[0].k), flat(uses[1].k)];
    if (f[0] * g[0] + f[1] * g[1] + f[2] * g[2] >= cos) continue;
    // The other face runs the edge the other way round: its corners lie crosswise.
    const split = [0, 1].some((j) => {
      const [q, r] = [corner(uses[0], j), corner(uses[1], 1 - j)];
      return n[q] * n[r] + n[q + 1] * n[r + 1] + n[q + 2] * n[r + 2] < 0.985;
    });
    const c = corner(uses[1], 2);
    const out_ = (p[c] - p[a]) * f[0] + (p[c + 1] - p[a + 1]) * f[1] + (p[c + 2] - p[a + 2]) * f[2] < 0;
    if (split && out_) out.sharp += l;
  }
  return out;
}
