import * as THREE from 'three';
import { MeshBVH } from 'three-mesh-bvh';

/** A mesh of fewer triangles between corners of a whole one. */
export interface CoarserMesh {
  indices: Uint32Array<ArrayBuffer>;
  /** How far corners of the whole mesh lie from it at most, m. */
  error: number;
}

/** How far coarser meshes may lie from the whole one, of its longest side, as the quadric error has it. */
const ERRORS = [0.004, 0.02] as const;

/** A coarser mesh that does not save half is not worth its room. */
const WORTH = 0.5;

type Simplifier = Pick<(typeof import('meshoptimizer'))['MeshoptSimplifier'], 'simplify'>;

let simplifier: Promise<Simplifier> | null = null;
async function load(): Promise<Simplifier> {
  const { MeshoptSimplifier } = await import('meshoptimizer');
  await MeshoptSimplifier.ready;
  return MeshoptSimplifier;
}

/**
 * Works out coarser meshes by collapsing edges in the order of the quadric error (Garland and Heckbert 1997, as meshoptimizer
 * has it). Corners stay where they are; seams of normals and textures stay shut.
 *
 * @param positions three values a corner, m
 * @returns from fine to coarse
 */
export async function coarserMeshes(positions: Float32Array, indices: Uint32Array): Promise<CoarserMesh[]> {
  const own = await (simplifier ??= load());
  const made: CoarserMesh[] = [];
  let last = indices;
  for (const wanted of ERRORS) {
    const [fewer] = own.simplify(last, positions, 3, 0, wanted);
    // What vanished altogether would be seen to be missing.
    if (!fewer.length || fewer.length > last.length * WORTH) continue;
    last = fewer;
    made.push({ indices: fewer.slice(), error: distanceTo(fewer, positions) });
  }
  return made;
}

/** How far corners lie from a surface between them at most, m. The quadric error tells a mean, and far less where thin things vanish. */
function distanceTo(indices: Uint32Array, positions: Float32Array): number {
  const surface = new THREE.BufferGeometry();
  surface.setAttribute('position', new THREE.BufferAttribute(positions, 3));
  surface.setIndex(new THREE.BufferAttribute(indices, 1));
  // The order of its triangles is left alone.
  const tree = new MeshBVH(surface, { indirect: true });
  const [corner, hit] = [new THREE.Vector3(), { point: new THREE.Vector3(), distance: 0, faceIndex: 0 }];
  let most = 0;
  for (let i = 0; i < positions.length; i += 3) most = Math.max(most, tree.closestPointToPoint(corner.fromArray(positions, i), hit)!.distance);
  return most;
}
