import fc from 'fast-check';
import * as THREE from 'three';
import { describe, expect, it } from 'vitest';
import { insideRegion, insideRing } from '@/core/geometry/polygon';
import { deriveModel } from '@/core/model/derive';
import { house } from '@/core/testing/drafting';
import { cameraFrame } from '@/core/render/camera';
import { backFrom, between, Camera, fovFor, inSight, outOfWalls, upwards, type EyeState } from './camera';

const view = ({ eye, target, fov }: EyeState, aspect: number): THREE.PerspectiveCamera => {
  const camera = new THREE.PerspectiveCamera((fov * 180) / Math.PI, aspect, 0.05, 900);
  camera.up.set(0, 0, 1);
  camera.position.set(eye.x, eye.y, eye.z);
  camera.lookAt(target.x, target.y, target.z);
  camera.updateProjectionMatrix();
  return camera;
};
const direction = ({ eye, target }: EyeState): THREE.Vector3 => new THREE.Vector3(target.x - eye.x, target.y - eye.y, target.z - eye.z).normalize();

const eyes = fc.record({
  x: fc.double({ min: -20, max: 20, noNaN: true }),
  y: fc.double({ min: -30, max: -5, noNaN: true }),
  z: fc.double({ min: 1, max: 20, noNaN: true }),
});
const boxes = fc
  .tuple(...[0, 1, 2].map(() => fc.tuple(fc.double({ min: -15, max: 15, noNaN: true }), fc.double({ min: 0.2, max: 25, noNaN: true }))))
  .map(([x, y, z]) => ({ min: { x: x[0], y: y[0], z: z[0] }, max: { x: x[0] + x[1], y: y[0] + y[1], z: z[0] + z[1] } }));

describe('the eye that follows the work', () => {
  it('sees all of what there is from where it is brought, looking the way it looked', () => {
    fc.assert(
      fc.property(eyes, boxes, fc.double({ min: 0.3, max: 1.2, noNaN: true }), fc.double({ min: 0.4, max: 2.5, noNaN: true }), (eye, box, fov, aspect) => {
        const from: EyeState = { eye, target: { x: 0, y: 0, z: 0 }, fov };
        const to = backFrom(from, box, aspect);
        expect(inSight(box, view(to, aspect))).toBe(true);
        expect(direction(to).dot(direction(from))).toBeCloseTo(1, 9);
        expect(to.fov).toBe(fov);
      }),
    );
  });

  it('tells what is beside the picture, behind the eye and too near', () => {
    const from: EyeState = { eye: { x: 0, y: -10, z: 2 }, target: { x: 0, y: 0, z: 2 }, fov: 0.8 };
    const at = (x: number, y: number, z: number, s = 1): { min: { x: number; y: number; z: number }; max: { x: number; y: number; z: number } } => ({
      min: { x, y, z },
      max: { x: x + s, y: y + s, z: z + s },
    });
    expect(inSight(at(-0.5, 0, 1.5), view(from, 1))).toBe(true);
    expect(inSight(at(8, 0, 1.5), view(from, 1))).toBe(false);
    expect(inSight(at(-0.5, -14, 1.5), view(from, 1))).toBe(false);
    expect(inSight(at(-9, -9, -9, 18), view(from, 1))).toBe(false);
  });

  it('goes from one place to another without a jerk at either end', () => {
    const a: EyeState = { eye: { x: 0, y: 0, z: 0 }, target: { x: 1, y: 0, z: 0 }, fov: 0.5 };
    const b: EyeState = { eye: { x: 10, y: 4, z: 2 }, target: { x: 0, y: 8, z: 0 }, fov: 0.9 };
    expect(between(a, b, 0)).toEqual(a);
    expect(between(a, b, 1)).toEqual(b);
    expect(between(a, b, 0.5).eye).toEqual({ x: 5, y: 2, z: 1 });
    // Slow at first and at last.
    expect(between(a, b, 0.01).eye.x).toBeLessThan(0.004);
    expect(between(a, b, 0.99).eye.x).toBeGreaterThan(9.996);
  });
});

describe('an eye that is moved into a wall', () => {
  const walls = deriveModel(
    house([
      [0, 0],
      [6, 0],
      [6, 4],
      [0, 4],
    ]),
  ).shell.levels[0].walls.flatMap((wall) => wall.rings.map((ring) => ({ ring, low: 0, high: wall.height })));
  const within = (p: { x: number; y: number }): boolean => walls.some(({ ring }) => insideRing(p, ring));

  it('comes out of it, by less than the wall is thick; any other stays where it is', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -1, max: 7, noNaN: true }),
        fc.double({ min: -1, max: 5, noNaN: true }),
        fc.double({ min: 0.1, max: 2.4, noNaN: true }),
        (x, y, z) => {
          const eye = { x, y, z };
          const out = outOfWalls(eye, walls);
          if (!within(eye)) {
            expect(out).toBe(eye);
            return;
          }
          expect(within(out)).toBe(false);
          expect(out.z).toBe(z);
          expect(Math.hypot(out.x - x, out.y - y)).toBeLessThan(0.3);
        },
      ),
      { numRuns: 500 },
    );
  });

  it('is left alone above a wall', () => {
    const above = { x: 3, y: 0, z: 4 };
    expect(within(above)).toBe(true);
    expect(outOfWalls(above, walls)).toBe(above);
  });
});

describe('looking up at a ceiling', () => {
  it('is from inside the room, below its ceiling, with the middle of the ceiling in sight', () => {
    fc.assert(
      fc.property(fc.integer({ min: 10, max: 90 }), fc.integer({ min: 10, max: 90 }), fc.boolean(), fc.integer({ min: 20, max: 40 }), (w, d, l, h) => {
        const [x, y] = [w / 10, d / 10];
        const outer = l
          ? [{ x: 0, y: 0 }, { x, y: 0 }, { x, y: y / 2 }, { x: x / 3, y: y / 2 }, { x: x / 3, y }, { x: 0, y }]
          : [{ x: 0, y: 0 }, { x, y: 0 }, { x, y }, { x: 0, y }]; // prettier-ignore
        const region = { outer, holes: [] };
        const { eye, target, fov } = upwards(region, 2.75, 2.75 + h / 10);
        expect(insideRegion(eye, region)).toBe(true);
        expect(eye.z).toBeGreaterThan(2.75);
        expect(eye.z).toBeLessThan(2.75 + h / 10);
        // Right over the eye is seen as well.
        const tilt = Math.atan2(Math.hypot(target.x - eye.x, target.y - eye.y), target.z - eye.z);
        expect(tilt).toBeGreaterThan(0);
        expect(tilt).toBeLessThan(fov / 2);
      }),
      { numRuns: 50 },
    );
  });
});

describe('a picture’s frame in the view', () => {
  const camera = (aspect: number, frame: number | null, upright = false): Camera => {
    const own = new Camera(() => new THREE.Vector3(4, 0, upright ? 3 : 1.5));
    own.perspective.position.set(0, 0, 1.5);
    own.perspective.lookAt(4, 0, upright ? 3 : 1.5);
    own.perspective.fov = 50;
    own.perspective.aspect = aspect;
    own.perspective.updateProjectionMatrix();
    own.frame = frame;
    own.upright = upright;
    return own;
  };
  /** Where the corners of the picture show, −1…1 of the pane. */
  const corner = (own: Camera, frame: number, upright: boolean): THREE.Vector3 => {
    const taken = cameraFrame({ eye: { x: 0, y: 0, z: 1.5 }, target: { x: 4, y: 0, z: upright ? 3 : 1.5 }, fov: (50 * Math.PI) / 180, upright }, frame);
    const d = new THREE.Vector3(0, 0, 0);
    for (const part of [taken.forward, taken.right, taken.up]) d.add(new THREE.Vector3(part.x, part.y, part.z));
    const { view } = own;
    view.updateMatrixWorld();
    return new THREE.Vector3(0, 0, 1.5).addScaledVector(d, 3).applyMatrix4(view.matrixWorldInverse).applyMatrix4(view.projectionMatrix);
  };

  it.each([false, true])('shows whole: wider than the pane it touches its sides, else its top and foot (upright: %s)', (upright) => {
    const wide = corner(camera(0.8, 1.6, upright), 1.6, upright);
    expect(wide.x).toBeCloseTo(1, 6);
    expect(wide.y).toBeCloseTo(0.5, 6);
    const narrow = corner(camera(1.6, 0.8, upright), 0.8, upright);
    expect(narrow.x).toBeCloseTo(0.5, 6);
    expect(narrow.y).toBeCloseTo(1, 6);
  });

  it('changes nothing of the picture itself', () => {
    const own = camera(0.8, 1.6);
    expect(own.perspective.fov).toBe(50);
    expect(own.fov).toBeCloseTo(fovFor((50 * Math.PI) / 180, 1.6, 0.8), 9);
    own.frame = null;
    expect(own.fov).toBeCloseTo((50 * Math.PI) / 180, 9);
  });
});
