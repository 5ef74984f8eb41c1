import * as THREE from 'three';
import type { Mesh } from '@/core/geometry/mesh';

const known = new WeakMap<Mesh, THREE.BufferGeometry>();
/** Neighbouring faces that differ by more than so many degrees have a line between them. */
const CREASE = 24;

/** The edges of a mesh as lines; found once. */
export function edgesOf(mesh: Mesh): THREE.BufferGeometry {
  let geometry = known.get(mesh);
  if (!geometry) known.set(mesh, (geometry = new THREE.EdgesGeometry(welded(mesh), CREASE)));
  return geometry;
}

/** A mesh with points that lie in one place made one, so that edges are told from joints. */
function welded(mesh: Mesh): THREE.BufferGeometry {
  const index = new Map<string, number>();
  const points: number[] = [];
  const triangles: number[] = [];
  for (const i of mesh.indices) {
    const p = [mesh.positions[i * 3], mesh.positions[i * 3 + 1], mesh.positions[i * 3 + 2]];
    const key = p.map((v) => Math.round(v * 1e4)).join(' ');
    let n = index.get(key);
    if (n === undefined) {
      index.set(key, (n = points.length / 3));
      points.push(...p);
    }
    triangles.push(n);
  }
  const geometry = new THREE.BufferGeometry();
  geometry.setAttribute('position', new THREE.Float32BufferAttribute(points, 3));
  geometry.setIndex(triangles);
  return geometry;
}
