import { releaseProxy, wrap } from 'comlink';
import * as THREE from 'three';
import type { Mesh } from '@/core/geometry/mesh';
import type { CoarserMesh } from '@/workers/coarser-meshes';
import type { CoarserService } from '@/workers/coarser.worker';

/** A mesh with fewer triangles, as the graphics card takes it. */
export interface Coarser {
  geometry: THREE.BufferGeometry;
  /** How far corners of the whole mesh lie from it at most, m. */
  error: number;
}

/** Makes meshes coarser: from fine to coarse. */
export type MakeCoarser = (positions: Float32Array, indices: Uint32Array) => Promise<CoarserMesh[]>;

/** Meshes with fewer triangles are drawn as they are. */
const LEAST = 100;

const known = new WeakMap<Mesh, readonly Coarser[]>();

/** What has been worked out of a mesh: null where it is still to be done. */
export const coarserOf = (mesh: Mesh): readonly Coarser[] | null => (mesh.indices.length < LEAST * 3 ? [] : (known.get(mesh) ?? null));

/** Works out coarser meshes of one and remembers them as long as there is that one. */
export async function coarsen(mesh: Mesh, make: MakeCoarser): Promise<readonly Coarser[]> {
  const done = coarserOf(mesh);
  if (done) return done;
  const made = (await make(mesh.positions, mesh.indices)).map(({ indices, error }) => ({ geometry: compact(mesh, indices), error }));
  known.set(mesh, made);
  return made;
}

/** Only the corners that are used, in the order they are. */
function compact(mesh: Mesh, indices: Uint32Array): THREE.BufferGeometry {
  const numbers = new Map<number, number>();
  const index = indices.map((i) => numbers.get(i) ?? (numbers.set(i, numbers.size), numbers.size - 1));
  const taken = (from: ArrayLike<number>, per: number): THREE.BufferAttribute => {
    const out = new Float32Array(numbers.size * per);
    for (const [i, to] of numbers) for (let c = 0; c < per; c++) out[to * per + c] = from[i * per + c];
    return new THREE.BufferAttribute(out, per);
  };
  const geometry = new THREE.BufferGeometry();
  geometry.setAttribute('position', taken(mesh.positions, 3));
  geometry.setAttribute('normal', taken(mesh.normals, 3));
  geometry.setAttribute('uv', taken(mesh.uvs, 2));
  geometry.setIndex(new THREE.BufferAttribute(index, 1));
  return geometry;
}

/** A worker that makes meshes coarser, until it is ended. */
export function coarserWorker(): { make: MakeCoarser; end(): void } {
  const worker = new Worker(new URL('../../../workers/coarser.worker.ts', import.meta.url), { type: 'module' });
  const remote = wrap<CoarserService>(worker);
  let over = false;
  return {
    make: (positions, indices) => remote.coarser(positions, indices),
    end() {
      if (over) return;
      over = true;
      remote[releaseProxy]();
      worker.terminate();
    },
  };
}
