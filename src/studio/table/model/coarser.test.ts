import fc from 'fast-check';
import * as THREE from 'three';
import { describe, expect, it } from 'vitest';
import { heronLockCottage } from '@/core/demo/heron-lock';
import { MeshBuilder, placement, type Mesh } from '@/core/geometry/mesh';
import { Deriver } from '@/core/model/derive';
import { FIRST_LOOK } from '@/core/project/looks';
import { Batches, wayFor, type Batchable } from './batches';
import { coarserMeshes } from '@/workers/coarser-meshes';
import { coarsen, coarserOf } from './coarser';
import { DrawnParts } from './drawn';
import { geometryOf } from './geometries';
import { plainMaterials } from './testing';

const model = new Deriver().derive(heronLockCottage());
const meshes = [...new Set(model.bodies.flatMap((b) => b.parts.map((p) => p.mesh)))].filter((m) => m.indices.length >= 300);

/** How far a point lies from a triangle, m: Ericson, Real-Time Collision Detection, 5.1.5. */
function fromTriangle(p: THREE.Vector3, [a, b, c]: readonly THREE.Vector3[]): number {
  return new THREE.Triangle(a, b, c).closestPointToPoint(p, new THREE.Vector3()).distanceTo(p);
}

/** A ball of so many rings. */
function ball(rings: number): Mesh {
  const made = new THREE.SphereGeometry(0.4, rings * 2, rings);
  const array = (name: string): Float32Array => Float32Array.from(made.getAttribute(name).array);
  return { positions: array('position'), normals: array('normal'), uvs: array('uv'), indices: Uint32Array.from(made.getIndex()!.array) };
}

describe('coarser meshes', () => {
  it('lie as near to the whole as they say, and save half each time', async () => {
    for (const mesh of meshes) {
      const made = await coarsen(mesh, coarserMeshes);
      let last = mesh.indices.length;
      for (const { geometry, error } of made) {
        const count = geometry.getIndex()!.count;
        expect(count).toBeLessThanOrEqual(last / 2);
        last = count;
        // Some corners of the whole against every triangle of the coarse one.
        const [position, index] = [geometry.getAttribute('position'), geometry.getIndex()!];
        const corner = (k: number): THREE.Vector3 => new THREE.Vector3().fromBufferAttribute(position, index.getX(k));
        const triangles = Array.from({ length: count / 3 }, (_, t) => [corner(3 * t), corner(3 * t + 1), corner(3 * t + 2)]);
        for (let i = 0; i < mesh.positions.length; i += 3 * 97) {
          const p = new THREE.Vector3().fromArray(mesh.positions, i);
          expect(Math.min(...triangles.map((t) => fromTriangle(p, t)))).toBeLessThan(error + 1e-5);
        }
      }
      expect(coarserOf(mesh)).toBe(made);
    }
    const [whole, coarse] = [meshes.map((m) => m.indices.length), meshes.map((m) => coarserOf(m)!.at(-1)?.geometry.getIndex()!.count ?? m.indices.length)];
    const sum = (a: number[]): number => a.reduce((x, y) => x + y, 0);
    // Meshes of the view are light already, and small things of a furnished house have little to give.
    expect(sum(coarse)).toBeLessThan(sum(whole) * 0.6);
  });

  it('are not made of what is coarse already', async () => {
    const builder = new MeshBuilder();
    const at = (x: number, y: number) => ({ x, y, z: 0 });
    builder.quad(at(0, 0), at(1, 0), at(1, 1), at(0, 1));
    expect(await coarsen(builder.build(), coarserMeshes)).toEqual([]);
  });

  it('are chosen so that no outline is off by more than is allowed, and nothing that can be seen is left out', () => {
    const ways = fc
      .array(fc.double({ min: 1e-4, max: 0.5, noNaN: true }), { maxLength: 3 })
      .map((errors) => [0, ...errors.sort((a, b) => a - b)].map((error, geometry) => ({ geometry, error })));
    const positive = (max: number) => fc.double({ min: 1e-4, max, noNaN: true });
    fc.assert(
      fc.property(ways, positive(20), positive(2), positive(5), positive(5), (all, radius, metres, off, least) => {
        const way = wayFor(all, radius, metres, { off, least });
        expect(way === null).toBe((2 * radius) / metres < least * (1 - 1e-12));
        if (way === null) return;
        expect(all[way].error / metres).toBeLessThanOrEqual(off * (1 + 1e-12));
        if (way + 1 < all.length) expect(all[way + 1].error).toBeGreaterThan(off * metres);
      }),
    );
  });
});

describe('what is drawn from afar', () => {
  const eye = (distance: number): THREE.PerspectiveCamera => {
    const view = new THREE.PerspectiveCamera(48, 1.6, 0.05, 900);
    view.position.set(0, -distance, 1);
    view.updateMatrixWorld();
    return view;
  };
  /** Two balls side by side in one batch, as far off as their places say. */
  async function balls(...places: number[]): Promise<{ batches: Batches; items: Batchable[] }> {
    const source = ball(40);
    await coarsen(source, coarserMeshes);
    const [geometry, material] = [geometryOf(source), new THREE.MeshBasicMaterial()];
    const items = places.map((y): Batchable => {
      const object = new THREE.Mesh(geometry, material);
      object.matrix.fromArray(placement(0, y, 1, 0) as number[]);
      return { object, source, group: 'all', slot: null };
    });
    const batches = new Batches(new THREE.Group());
    batches.gather(items);
    return { batches, items };
  }

  it('is coarser the farther it is, comes back whole, and is whole for shadows', async () => {
    const { batches, items } = await balls(0, 60, 4000);
    const seen = (): (number | null)[] => items.map((i) => i.slot!.way);
    batches.fit(items, { view: eye(1), height: 800, off: 0.7, least: 0.7 });
    expect(seen()).toEqual([0, 2, null]);
    const { batch, instance } = items[2].slot!;
    expect(batch.getVisibleAt(instance)).toBe(false);
    batches.fit(items, null);
    expect(seen()).toEqual([0, 0, 0]);
    expect(batch.getVisibleAt(instance)).toBe(true);
    // While one moves half as much will do, and a parallel view is as coarse everywhere.
    batches.fit(items, { view: eye(12), height: 800, off: 3, least: 3 });
    expect(seen()[0]).toBeGreaterThan(0);
    const flat = new THREE.OrthographicCamera(-80, 80, 50, -50, -600, 900);
    flat.updateMatrixWorld();
    batches.fit(items, { view: flat, height: 800, off: 0.7, least: 0.7 });
    expect(new Set(seen()).size).toBe(1);
    // What is hidden stays hidden.
    items[0].object.visible = false;
    items[0].slot!.batch.setVisibleAt(items[0].slot!.instance, false);
    batches.fit(items, null);
    expect(items[0].slot!.batch.getVisibleAt(items[0].slot!.instance)).toBe(false);
  });

  it('of the demo is a small part of its triangles, and all of it where one stands before it', async () => {
    const scene = new THREE.Group();
    const parts = new DrawnParts(scene, plainMaterials());
    parts.show(model, FIRST_LOOK, true);
    parts.rest();
    await parts.coarsen(coarserMeshes, () => Promise.resolve());
    const triangles = (): number =>
      [...parts].reduce((sum, { slot, source }) => {
        if (!slot) return sum + source.indices.length / 3;
        return slot.way === null ? sum : sum + slot.batch.getGeometryRangeAt(slot.ways[slot.way].geometry)!.count / 3;
      }, 0);
    parts.fit(null);
    const whole = triangles();
    parts.fit({ view: eye(300), height: 800, off: 0.7, least: 0.7 });
    // Boards of cabinets are as few triangles as they can be.
    expect(triangles()).toBeLessThan(whole * 0.65);
    // Hidden and shown again by the cut, it stays out where it is too small.
    parts.reveal(() => false);
    parts.reveal(() => true);
    for (const { slot } of parts) if (slot) expect(slot.batch.getVisibleAt(slot.instance)).toBe(slot.way !== null);
    parts.dispose();
  });
});
