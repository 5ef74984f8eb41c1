import * as THREE from 'three';
import type { Finish } from '@/core/project/schema';

/** One material a finish, as the view makes them, without textures: for tests and the bench. */
export function plainMaterials() {
  const made = new Map<Finish, THREE.Material>();
  return {
    of(finish: Finish): THREE.MeshPhysicalMaterial {
      if (!made.has(finish)) made.set(finish, new THREE.MeshPhysicalMaterial({ transparent: finish.transmission > 0 || finish.translucency > 0.5 }));
      return made.get(finish) as THREE.MeshPhysicalMaterial;
    },
    cut: () => new THREE.MeshBasicMaterial(),
  };
}
