import * as THREE from 'three';
import { geometryBytes } from './geometries';

/** What can be drawn together with others: an object that is not itself in the scene while it is. */
export interface Batchable {
  object: THREE.Mesh;
  /** What it is drawn with: only what agrees in this goes together. */
  group: string;
  /** The batch that draws it; null while it is drawn alone. */
  slot: Slot | null;
}

export interface Slot {
  batch: THREE.BatchedMesh;
  instance: number;
}

interface Batch {
  mesh: THREE.BatchedMesh;
  /** How many of its members it still draws. */
  live: number;
}

/** Fewer than these are drawn alone: a batch of one saves nothing. */
const LEAST = 2;

/**
 * Draws what rests together: one call for all parts of one material. What has just changed is drawn alone until it
 * rests too, so that a drag never packs anything anew.
 */
export class Batches {
  private readonly batches = new Map<string, Batch>();

  constructor(private readonly scene: THREE.Object3D) {}

  /** Takes a part away, out of its batch or the scene. */
  drop(item: Batchable): void {
    if (item.slot) this.leave(item);
    else this.scene.remove(item.object);
  }

  private leave(item: Batchable): void {
    const { batch, instance } = item.slot!;
    item.slot = null;
    batch.deleteInstance(instance);
    const own = this.batches.get(item.group)!;
    if (!--own.live) this.end(item.group);
  }

  private end(group: string): void {
    const own = this.batches.get(group);
    if (!own) return;
    this.scene.remove(own.mesh);
    own.mesh.dispose();
    this.batches.delete(group);
  }

  /** Draws together what goes together; groups without a newcomer stay as they are. */
  gather(items: Iterable<Batchable>): void {
    const groups = new Map<string, Batchable[]>();
    for (const item of items) {
      const own = groups.get(item.group);
      if (own) own.push(item);
      else groups.set(item.group, [item]);
    }
    for (const [group, members] of groups) {
      if (members.length < LEAST || members.every((m) => m.slot)) continue;
      this.end(group);
      this.pack(group, members);
    }
  }

  private pack(group: string, members: readonly Batchable[]): void {
    const geometries = new Set(members.map((m) => m.object.geometry));
    let [vertices, indices] = [0, 0];
    for (const g of geometries) {
      vertices += g.getAttribute('position').count;
      indices += g.getIndex()!.count;
    }
    const like = members[0].object;
    const mesh = new THREE.BatchedMesh(members.length, vertices, indices, like.material as THREE.Material);
    // The card sorts by depth what is not seen through.
    mesh.sortObjects = false;
    mesh.frustumCulled = false;
    mesh.layers.mask = like.layers.mask;
    mesh.castShadow = like.castShadow;
    mesh.receiveShadow = like.receiveShadow;
    mesh.raycast = () => undefined;
    const numbers = new Map<THREE.BufferGeometry, number>();
    for (const item of members) {
      const { object } = item;
      let number = numbers.get(object.geometry);
      if (number === undefined) {
        numbers.set(object.geometry, (number = mesh.addGeometry(object.geometry)));
        // Its own copy on the card is needed no more; it comes back by itself if it is.
        object.geometry.dispose();
      }
      const instance = mesh.addInstance(number);
      mesh.setMatrixAt(instance, object.matrix);
      mesh.setVisibleAt(instance, object.visible);
      this.scene.remove(object);
      item.slot = { batch: mesh, instance };
    }
    this.batches.set(group, { mesh, live: members.length });
    this.scene.add(mesh);
  }

  /** Geometry of all batches, bytes. */
  get bytes(): number {
    return [...this.batches.values()].reduce((sum, { mesh }) => sum + geometryBytes(mesh.geometry), 0);
  }

  dispose(): void {
    for (const group of [...this.batches.keys()]) this.end(group);
  }
}
