import * as THREE from 'three';
import type { Mesh } from '@/core/geometry/mesh';

/** A mesh as the graphics card takes it. */
export function geometryOf({ positions, normals, uvs, indices }: Mesh): THREE.BufferGeometry {
  const geometry = new THREE.BufferGeometry();
  geometry.setAttribute('position', new THREE.BufferAttribute(positions, 3));
  geometry.setAttribute('normal', new THREE.BufferAttribute(normals, 3));
  geometry.setAttribute('uv', new THREE.BufferAttribute(uvs, 2));
  geometry.setIndex(new THREE.BufferAttribute(indices, 1));
  return geometry;
}

/** What a geometry takes on the graphics card, bytes. */
export const geometryBytes = (geometry: THREE.BufferGeometry): number =>
  Object.values(geometry.attributes).reduce((sum, a) => sum + a.array.byteLength, geometry.index?.array.byteLength ?? 0);

/** One geometry a mesh, shared by all that show it, and given back to the graphics card when the last of them is gone. */
export class Geometries {
  private readonly known = new Map<Mesh, { geometry: THREE.BufferGeometry; uses: number }>();

  /** How many meshes lie on the graphics card. */
  get size(): number {
    return this.known.size;
  }

  take(mesh: Mesh): THREE.BufferGeometry {
    let own = this.known.get(mesh);
    if (!own) this.known.set(mesh, (own = { geometry: geometryOf(mesh), uses: 0 }));
    own.uses++;
    return own.geometry;
  }

  give(mesh: Mesh): void {
    const own = this.known.get(mesh);
    if (!own || --own.uses > 0) return;
    own.geometry.disposeBoundsTree?.();
    own.geometry.dispose();
    this.known.delete(mesh);
  }
}
