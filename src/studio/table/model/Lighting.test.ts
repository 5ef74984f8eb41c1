import * as THREE from 'three';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { emptyProject } from '@/core/project/schema';
import { Lighting } from './Lighting';

const { site } = emptyProject('p', 'P');
const box = (x: number, y: number, w: number, d: number, h: number): THREE.Box3 =>
  new THREE.Box3(new THREE.Vector3(x, y, 0), new THREE.Vector3(x + w, y + d, h));

/** The sun of a scene as its shadows are drawn: what it sees of a point, −1 to 1 on every axis. */
function shadowOf(scene: THREE.Scene): (p: THREE.Vector3) => THREE.Vector3 {
  const sun = scene.children.find((c): c is THREE.DirectionalLight => c instanceof THREE.DirectionalLight)!;
  scene.updateMatrixWorld(true);
  sun.shadow.updateMatrices(sun);
  const { camera } = sun.shadow;
  return (p) => p.clone().project(camera);
}

describe('shadows of the sun', () => {
  it('are drawn for all of a house, however it has grown since it was first shown', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            x: fc.integer({ min: -80, max: 80 }),
            y: fc.integer({ min: -80, max: 80 }),
            w: fc.integer({ min: 1, max: 40 }),
            h: fc.integer({ min: 2, max: 12 }),
          }),
          {
            minLength: 1,
            maxLength: 4,
          },
        ),
        (houses) => {
          const scene = new THREE.Scene();
          const lighting = new Lighting(scene);
          for (const { x, y, w, h } of houses) {
            const all = box(x, y, w, w, h);
            lighting.daylight(site, all);
            const seen = shadowOf(scene);
            for (let i = 0; i < 8; i++) {
              const at = seen(new THREE.Vector3(i & 1 ? all.max.x : all.min.x, i & 2 ? all.max.y : all.min.y, i & 4 ? all.max.z : all.min.z));
              for (const k of ['x', 'y', 'z'] as const) expect(Math.abs(at[k])).toBeLessThanOrEqual(1);
            }
          }
        },
      ),
      { numRuns: 60 },
    );
  });
});
