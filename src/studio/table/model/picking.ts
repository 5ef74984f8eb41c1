import * as THREE from 'three';
import { acceleratedRaycast, computeBoundsTree, disposeBoundsTree } from 'three-mesh-bvh';
import type { Vec2, Vec3 } from '@/core/geometry/vec';
import type { Spot } from '../../store/studio';
import type { Drawn } from './drawn';

THREE.Mesh.prototype.raycast = acceleratedRaycast;
THREE.BufferGeometry.prototype.computeBoundsTree = computeBoundsTree;
THREE.BufferGeometry.prototype.disposeBoundsTree = disposeBoundsTree;

/** A line of sight through a point of the canvas. */
export type Sight = THREE.Raycaster;

/** @param x, y pixels of the window */
export function sightAt(canvas: HTMLCanvasElement, camera: THREE.Camera, x: number, y: number): Sight {
  const box = canvas.getBoundingClientRect();
  const caster = new THREE.Raycaster();
  (caster as THREE.Raycaster & { firstHitOnly: boolean }).firstHitOnly = true;
  caster.setFromCamera(new THREE.Vector2(((x - box.left) / box.width) * 2 - 1, 1 - ((y - box.top) / box.height) * 2), camera);
  return caster;
}

/** The box round a part in the world; worked out once for where it stands. */
function boxOf(drawn: Drawn): THREE.Box3 {
  if (!drawn.box) {
    drawn.object.geometry.computeBoundingBox();
    drawn.box = drawn.object.geometry.boundingBox!.clone().applyMatrix4(drawn.object.matrix);
  }
  return drawn.box;
}

/** Meshes with more corners than this are asked through a tree. */
const TREE = 300;

/** The nearest part that is met. @param counts whether a part can be meant at all */
export function pickFrom(parts: Iterable<Drawn>, sight: Sight, counts: (part: Drawn) => boolean): { spot: Spot; point: Vec3 } | null {
  // The nearest boxes first: what lies behind a hit is not asked.
  const reached: { part: Drawn; distance: number }[] = [];
  const at = new THREE.Vector3();
  for (const part of parts) {
    if (!part.object.visible) continue;
    const box = boxOf(part);
    if (box.containsPoint(sight.ray.origin)) reached.push({ part, distance: 0 });
    else if (sight.ray.intersectBox(box, at)) reached.push({ part, distance: at.distanceTo(sight.ray.origin) });
  }
  reached.sort((a, b) => a.distance - b.distance);
  let best: { spot: Spot; point: Vec3; distance: number } | null = null;
  for (const { part, distance } of reached) {
    if (best && distance > best.distance) break;
    const { object, source, seen, target } = part;
    if (!counts(part)) continue;
    if (!object.geometry.boundsTree && source.indices.length > TREE) object.geometry.computeBoundsTree();
    for (const hit of sight.intersectObject(object, false)) {
      // Faces turned away are not drawn, so they are not met either.
      const material = object.material as THREE.Material;
      if (material.side === THREE.FrontSide && hit.face && hit.face.normal.clone().transformDirection(object.matrixWorld).dot(sight.ray.direction) > 0)
        continue;
      if (!best || hit.distance < best.distance) best = { spot: { entity: seen.entity, target }, point: hit.point, distance: hit.distance };
    }
  }
  return best;
}

/** Where a line of sight meets a horizontal plane; null where it does not within half a kilometre. */
export function floorPoint({ ray: { origin, direction } }: Sight, z: number): Vec2 | null {
  const t = (z - origin.z) / direction.z;
  return t > 0 && t < 500 ? { x: origin.x + direction.x * t, y: origin.y + direction.y * t } : null;
}
