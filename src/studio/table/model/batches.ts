import * as THREE from 'three';
import type { Mesh } from '@/core/geometry/mesh';
import { coarserOf } from './coarser';
import { geometryBytes } from './geometries';

/** What can be drawn together with others: an object that is not itself in the scene while it is. */
export interface Batchable {
  object: THREE.Mesh;
  source: Mesh;
  /** What it is drawn with: only what agrees in this goes together. */
  group: string;
  /** The batch that draws it; null while it is drawn alone. */
  slot: Slot | null;
}

export interface Slot {
  batch: THREE.BatchedMesh;
  instance: number;
  /** Geometries of the batch it can be drawn with, from whole to coarse, and how far they lie from the whole, m. */
  ways: readonly Way[];
  /** Which of them it is drawn with; null: it is too small to be seen. */
  way: number | null;
  /** A ball about it, in the world. */
  ball: THREE.Sphere;
}

interface Way {
  geometry: number;
  error: number;
}

/** How closely what is drawn has to be the whole of it. */
export interface Closeness {
  /** What it is seen with, brought up to date. */
  view: THREE.PerspectiveCamera | THREE.OrthographicCamera;
  /** Of the picture, pixels. */
  height: number;
  /** Pixels by which outlines may be off. */
  off: number;
  /** What is smaller across than so many pixels is not drawn. */
  least: number;
}

/** A geometry of a batch by how far it may be off. @param metres how long a pixel is where it stands @returns null: it is too small to be drawn */
export function wayFor(ways: readonly Way[], radius: number, metres: number, { off, least }: Pick<Closeness, 'off' | 'least'>): number | null {
  if (2 * radius < least * metres) return null;
  let way = 0;
  while (way + 1 < ways.length && ways[way + 1].error <= off * metres) way++;
  return way;
}

interface Batch {
  mesh: THREE.BatchedMesh;
  /** How many of its members it still draws. */
  live: number;
}

/** What is drawn with the same, together. */
export function byGroup<T extends Batchable>(items: Iterable<T>): Map<string, T[]> {
  const groups = new Map<string, T[]>();
  for (const item of items) {
    const own = groups.get(item.group);
    if (own) own.push(item);
    else groups.set(item.group, [item]);
  }
  return groups;
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
    for (const [group, members] of byGroup(items)) {
      if (members.length < LEAST || members.every((m) => m.slot && m.slot.ways.length > (coarserOf(m.source)?.length ?? 0))) continue;
      this.end(group);
      this.pack(group, members);
    }
  }

  private pack(group: string, members: readonly Batchable[]): void {
    const geometries = new Map(members.map((m) => [m.object.geometry, m.source]));
    const kinds = [...geometries].flatMap(([whole, source]) => [whole, ...(coarserOf(source) ?? []).map((c) => c.geometry)]);
    let [vertices, indices] = [0, 0];
    for (const g of kinds) {
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
    const known = new Map<THREE.BufferGeometry, Way[]>();
    for (const item of members) {
      const { object } = item;
      let ways = known.get(object.geometry);
      if (!ways) {
        ways = [
          { geometry: mesh.addGeometry(object.geometry), error: 0 },
          ...(coarserOf(item.source) ?? []).map(({ geometry, error }) => ({ geometry: mesh.addGeometry(geometry), error })),
        ];
        known.set(object.geometry, ways);
        if (!object.geometry.boundingSphere) object.geometry.computeBoundingSphere();
        // Its own copy on the card is needed no more; it comes back by itself if it is.
        object.geometry.dispose();
      }
      const instance = mesh.addInstance(ways[0].geometry);
      mesh.setMatrixAt(instance, object.matrix);
      mesh.setVisibleAt(instance, object.visible);
      this.scene.remove(object);
      item.slot = { batch: mesh, instance, ways, way: 0, ball: object.geometry.boundingSphere!.clone().applyMatrix4(object.matrix) };
    }
    this.batches.set(group, { mesh, live: members.length });
    this.scene.add(mesh);
  }

  /**
   * Draws what is far off as coarsely as one may, and leaves out what is too small to be seen.
   *
   * @param closeness null: everything whole, as shadows need it
   */
  fit(items: Iterable<Batchable>, closeness: Closeness | null): void {
    const eye = closeness?.view.getWorldPosition(new THREE.Vector3());
    for (const { slot, object } of items) {
      if (!slot || !object.visible) continue;
      const way = closeness ? wayFor(slot.ways, slot.ball.radius, metresAPixel(closeness, eye!, slot.ball), closeness) : 0;
      if (way === slot.way) continue;
      slot.way = way;
      slot.batch.setVisibleAt(slot.instance, way !== null);
      if (way !== null) slot.batch.setGeometryIdAt(slot.instance, slot.ways[way].geometry);
    }
  }

  /** Geometry of all batches, bytes. */
  get bytes(): number {
    return [...this.batches.values()].reduce((sum, { mesh }) => sum + geometryBytes(mesh.geometry), 0);
  }

  dispose(): void {
    for (const group of [...this.batches.keys()]) this.end(group);
  }
}

/** How long a pixel is at the near end of a ball, m. */
function metresAPixel({ view, height }: Closeness, eye: THREE.Vector3, { center, radius }: THREE.Sphere): number {
  const halves = 2 / (view.projectionMatrix.elements[5] * height);
  if (!(view instanceof THREE.PerspectiveCamera)) return halves;
  return Math.max(view.near, eye.distanceTo(center) - radius) * halves;
}
