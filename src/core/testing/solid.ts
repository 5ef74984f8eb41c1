import Module, { type ManifoldToplevel } from 'manifold-3d';
import type { Mesh } from '../geometry/mesh';

let kernel: ManifoldToplevel | null = null;

/** Loads the kernel that solids are measured with; to be awaited before `volume`. */
export async function loadKernel(): Promise<void> {
  if (kernel) return;
  kernel = await Module();
  kernel.setup();
}

/** Points brought together by place, and triangles over them. */
function welded(mesh: Mesh): { points: number[]; triangles: number[] } {
  const index = new Map<string, number>();
  const points: number[] = [];
  const at = (i: number): number => {
    const p = [0, 1, 2].map((k) => mesh.positions[i * 3 + k]);
    const key = p.map((v) => Math.round(v * 1e5)).join(' ');
    let n = index.get(key);
    if (n === undefined) {
      index.set(key, (n = points.length / 3));
      points.push(...p);
    }
    return n;
  };
  const triangles: number[] = [];
  for (let k = 0; k < mesh.indices.length; k += 3) {
    const [a, b, c] = [at(mesh.indices[k]), at(mesh.indices[k + 1]), at(mesh.indices[k + 2])];
    if (a !== b && b !== c && c !== a) triangles.push(a, b, c);
  }
  return { points, triangles };
}

/** Edges that are not met by as many the other way round: none in a closed solid. */
export function openEdges(mesh: Mesh): number {
  const { triangles } = welded(mesh);
  const count = new Map<string, number>();
  for (let k = 0; k < triangles.length; k += 3)
    for (const [a, b] of [
      [triangles[k], triangles[k + 1]],
      [triangles[k + 1], triangles[k + 2]],
      [triangles[k + 2], triangles[k]],
    ]) {
      const [key, way] = a < b ? [`${a} ${b}`, 1] : [`${b} ${a}`, -1];
      count.set(key, (count.get(key) ?? 0) + way);
    }
  return [...count.values()].filter((n) => n !== 0).length;
}

/** Volume of a solid as an independent kernel measures it, which takes nothing that is not closed, m³. */
export function volume(mesh: Mesh): number {
  const { points, triangles } = welded(mesh);
  const solid = new kernel!.Manifold(new kernel!.Mesh({ numProp: 3, vertProperties: Float32Array.from(points), triVerts: Uint32Array.from(triangles) }));
  if (solid.status() !== 'NoError') throw new Error(`not a solid: ${solid.status()}`);
  const measured = solid.volume();
  solid.delete();
  return measured;
}
