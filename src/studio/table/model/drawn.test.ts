import * as THREE from 'three';
import { describe, expect, it } from 'vitest';
import { heronLockCottage } from '@/core/demo/heron-lock';
import { runChange } from '@/core/project/commands';
import { emptyProject } from '@/core/project/schema';
import { placesOf } from '@/core/model/body';
import { Deriver } from '@/core/model/derive';
import { partsOf, type Model } from '@/core/model/model';
import { FIRST_LOOK } from '@/core/project/looks';
import { DrawnParts, type Drawn } from './drawn';
import { floorPoint, pickFrom } from './picking';
import { plainMaterials } from './testing';

const demo = heronLockCottage();
const deriver = new Deriver();

function stage(model: Model) {
  const scene = new THREE.Group();
  const parts = new DrawnParts(scene, plainMaterials());
  parts.show(model, FIRST_LOOK, true);
  return { scene, parts };
}

/** Where everything is drawn: of each geometry, its places, alone or in a batch; the corners of all triangles added up. */
function drawnSum(scene: THREE.Group): { places: number; corners: number; moment: number } {
  let [places, corners, moment] = [0, 0, 0];
  const matrix = new THREE.Matrix4();
  for (const child of scene.children) {
    if (child instanceof THREE.BatchedMesh) {
      for (let i = 0; i < child.maxInstanceCount; i++) {
        let range: { start: number; count: number };
        try {
          range = child.getGeometryRangeAt(child.getGeometryIdAt(i))!;
        } catch {
          // Nobody stands there any more.
          continue;
        }
        child.getMatrixAt(i, matrix);
        places++;
        corners += range.count;
        moment += range.count * (matrix.elements[12] + 3 * matrix.elements[13] + 7 * matrix.elements[14] + 11 * matrix.elements[0]);
      }
    } else if (child instanceof THREE.Mesh) {
      const { elements } = child.matrix;
      const count = child.geometry.getIndex()!.count;
      places++;
      corners += count;
      moment += count * (elements[12] + 3 * elements[13] + 7 * elements[14] + 11 * elements[0]);
    }
  }
  return { places, corners, moment };
}

describe('what is drawn of a model', () => {
  const model = deriver.derive(demo);
  const places = [...partsOf(model)].flatMap(([body, part]) => placesOf(body, part).map(() => part));

  it('is every part once where the model has it, alone and together', () => {
    const { scene, parts } = stage(model);
    expect(parts.size).toBe(places.length);
    const alone = drawnSum(scene);
    expect([alone.places, alone.corners]).toEqual([places.length, places.reduce((sum, p) => sum + p.mesh.indices.length, 0)]);
    parts.rest();
    const together = drawnSum(scene);
    expect([together.places, together.corners]).toEqual([alone.places, alone.corners]);
    expect(Math.abs(together.moment - alone.moment)).toBeLessThan(1e-4 * Math.abs(alone.moment));
    // One call a material, and what is seen through.
    expect(scene.children.length).toBeLessThan(places.length / 3);
    // Shared meshes lie on the card once a batch, not once a place.
    const copies = places.reduce((sum, { mesh }) => sum + mesh.positions.byteLength * (8 / 3) + mesh.indices.byteLength, 0);
    expect(parts.bytes).toBeLessThan(copies);
  });

  it('is taken out of its batch by an edit, and joins it again when it rests', () => {
    const { scene, parts } = stage(model);
    parts.rest();
    const before = new Map([...parts].map((p) => [p.object, p.slot]));
    const wall = Object.values(demo.walls).find((w) => demo.corners[w.start].x === 3.6 && demo.corners[w.end].x === 3.6)!;
    const moved = deriver.derive(runChange(demo, { id: 'move', kind: 'do', command: 'wall.move', args: { wall: wall.id, offset: 0.05 } }).project);
    parts.show(moved, FIRST_LOOK, true);
    const changed = [...parts].filter((p) => p.slot !== before.get(p.object));
    expect(changed.some((p) => p.seen.entity === wall.id)).toBe(true);
    expect(changed.length).toBeLessThan(parts.size / 2);
    expect(changed.every((p) => p.slot === null && p.object.parent === scene)).toBe(true);
    const alone = drawnSum(scene);
    parts.rest();
    const together = drawnSum(scene);
    expect([together.places, together.corners]).toEqual([alone.places, alone.corners]);
    expect(scene.children.length).toBeLessThan(parts.size / 3);
    deriver.derive(demo);
  });

  it('is shown and hidden alike, alone and together', () => {
    const { parts } = stage(model);
    parts.rest();
    const shows = (p: { entity: string }): boolean => p.entity in demo.walls;
    expect([parts.reveal(shows), parts.reveal(shows)]).toEqual([true, false]);
    for (const { object, slot, seen } of parts) {
      expect(object.visible).toBe(shows(seen));
      if (slot) expect(slot.batch.getVisibleAt(slot.instance)).toBe(shows(seen));
    }
    // What is hidden while it is packed stays hidden.
    const again = stage(model);
    again.parts.reveal(shows);
    again.parts.rest();
    for (const { slot, seen } of again.parts) if (slot) expect(slot.batch.getVisibleAt(slot.instance)).toBe(shows(seen));
  });

  it('throws the shadows of ceilings for whoever is inside alone', () => {
    const { parts } = stage(model);
    parts.rest();
    const shadows = (): Set<boolean> =>
      new Set([...parts].filter((p) => p.seen.sort === 'ceiling').map((p) => p.slot?.batch.castShadow ?? p.object.castShadow));
    expect([...shadows()]).toEqual([false]);
    expect([parts.roofOver(true), parts.roofOver(true)]).toEqual([true, false]);
    expect([...shadows()]).toEqual([true]);
  });

  it('leaves nothing behind', () => {
    const { scene, parts } = stage(model);
    parts.rest();
    parts.show(new Deriver().derive(emptyProject('empty', 'Empty')), FIRST_LOOK, false);
    expect([parts.size, scene.children.length, parts.bytes]).toEqual([0, 0, 0]);
  });

  it('stands alone where it is drawn as lines or cut open', () => {
    const { scene, parts } = stage(model);
    parts.rest();
    for (const look of [
      { ...FIRST_LOOK, mode: 'lines' as const },
      { ...FIRST_LOOK, section: { axis: 'z' as const, at: 1, keep: 'below' as const } },
    ]) {
      parts.show(model, look, true);
      parts.rest();
      expect([...parts].every((p) => p.slot === null)).toBe(true);
      expect(scene.children.length).toBe(parts.size);
    }
    parts.show(model, FIRST_LOOK, true);
    parts.rest();
    expect(scene.children.length).toBeLessThan(parts.size / 3);
  });
});

describe('picking', () => {
  const model = deriver.derive(demo);
  const down = (x: number, y: number): THREE.Raycaster => new THREE.Raycaster(new THREE.Vector3(x, y, 20), new THREE.Vector3(0, 0, -1));
  const hit = (parts: Iterable<Drawn>, x: number, y: number): string => {
    const found = pickFrom(parts, down(x, y), (p) => p.target !== null);
    return found ? `${found.spot.entity} ${found.point.z.toFixed(5)}` : 'nothing';
  };

  it('meets the same part where it is drawn alone and together', () => {
    const { parts } = stage(model);
    const points = Array.from({ length: 200 }, (_, i) => [-2 + ((i * 0.618034) % 1) * 16, -2 + ((i * 0.754877) % 1) * 12] as const);
    const alone = points.map(([x, y]) => hit(parts, x, y));
    parts.rest();
    expect(points.map(([x, y]) => hit(parts, x, y))).toEqual(alone);
    expect(new Set(alone).size).toBeGreaterThan(10);
  });

  it('goes past what is hidden', () => {
    const { parts } = stage(model);
    const roofs = new Set(Object.keys(demo.roofs));
    const first = hit(parts, 3, 3).split(' ')[0];
    parts.reveal((p) => p.entity !== first && !roofs.has(p.entity));
    expect(hit(parts, 3, 3).split(' ')[0]).not.toBe(first);
  });

  it('finds the floor along the line of sight, and nothing behind the eye', () => {
    const slanted = new THREE.Raycaster(new THREE.Vector3(0, 0, 3), new THREE.Vector3(0.6, 0, -0.8));
    expect(floorPoint(slanted, 0)!.x).toBeCloseTo((3 * 0.6) / 0.8, 12);
    expect(floorPoint(slanted, 4)).toBeNull();
  });
});
