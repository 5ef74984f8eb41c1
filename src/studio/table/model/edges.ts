import * as THREE from 'three';
import { meshEdges } from '@/core/geometry/edges';
import type { Mesh } from '@/core/geometry/mesh';

const known = new WeakMap<Mesh, THREE.BufferGeometry>();

/** The edges of a mesh as lines: creases and boundaries. Made once. */
export function edgesOf(mesh: Mesh): THREE.BufferGeometry {
  let geometry = known.get(mesh);
  if (!geometry) {
    const { ends, kinds } = meshEdges(mesh);
    const lines = kinds.flatMap((kind, i) => (kind === 'smooth' ? [] : [...ends.subarray(i * 6, i * 6 + 6)]));
    geometry = new THREE.BufferGeometry();
    geometry.setAttribute('position', new THREE.Float32BufferAttribute(lines, 3));
    known.set(mesh, geometry);
  }
  return geometry;
}
