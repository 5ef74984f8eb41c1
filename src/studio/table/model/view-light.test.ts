import fc from 'fast-check';
import * as THREE from 'three';
import { describe, expect, it } from 'vitest';
import { heronLockCottage } from '@/core/demo/heron-lock';
import { deriveModel } from '@/core/model/derive';
import { FramePace } from './FramePace';
import { Lamps, roomAt, SHADOWED } from './Lamps';
import { largestFace } from './Mirrors';

describe('the pace of frames', () => {
  it('is quick until frames are slow again and again, and then stays slow', () => {
    const pace = new FramePace();
    const frames = (waited: number, count: number): boolean => {
      for (let i = 0; i < count; i++) pace.frame(waited);
      return pace.quick;
    };
    expect(frames(16, 100)).toBe(true);
    // A slow frame now and then says nothing, not even one that waited while the window was hidden.
    for (let i = 0; i < 10; i++) expect(frames(i ? 200 : 60_000, 1) && frames(16, 1)).toBe(true);
    // Frames of many seconds are slow too.
    expect(frames(6000, 4)).toBe(false);
    expect(frames(10, 100)).toBe(false);
  });
});

describe('luminaires of the view', () => {
  const model = deriveModel(heronLockCottage());
  const named = (name: string) => [...model.shell.rooms.values()].find((r) => r.room.name === name)!;
  const middle = (name: string) => {
    const [a, , c] = named(name).region.outer;
    return { x: (a.x + c.x) / 2, y: (a.y + c.y) / 2, z: model.project.levels[named(name).room.level].elevation + 1.5 };
  };

  it('know which room they are in, on whichever storey', () => {
    for (const { room } of model.shell.rooms.values()) {
      const at = middle(room.name);
      const own = roomAt(model, at);
      if (own) expect(model.project.rooms[own].level).toBe(room.level);
    }
    expect(roomAt(model, middle('Living'))).toBe(named('Living').room.id);
    expect(roomAt(model, { x: -5, y: -5, z: 1 })).toBeNull();
  });

  it('throw shadows in the room of the eye first, and the others do not shine far through walls', () => {
    const lamps = new Lamps();
    expect(lamps.set(model)).toHaveLength(lamps.group.children.length);
    const lights = lamps.group.children as THREE.PointLight[];
    expect(lights.length).toBeGreaterThan(2);
    for (const name of ['Living', 'Kitchen & dining', 'Shower room']) {
      expect(lamps.near(middle(name), true)).toBe(true);
      expect(lamps.near(middle(name), true)).toBe(false);
      const throwing = lights.filter((l) => l.castShadow);
      expect(throwing).toHaveLength(Math.min(SHADOWED, lights.length));
      const own = lights.filter((l) => roomAt(model, l.position) === named(name).room.id);
      for (const l of own.slice(0, SHADOWED)) expect(throwing).toContain(l);
      for (const l of lights) expect(l.distance > 0).toBe(!l.castShadow);
    }
    // The house is looked into from outside: as many could, but none does, and all shine.
    expect(lamps.near(null, true)).toBe(true);
    expect(lights.filter((l) => l.castShadow)).toHaveLength(Math.min(SHADOWED, lights.length));
    for (const l of lights) expect([l.shadow.intensity, l.shadow.autoUpdate, l.distance]).toEqual([0, false, 0]);
    // Without shadows no shader has any.
    expect(lamps.near(middle('Living'), false)).toBe(true);
    for (const l of lights) expect([l.castShadow, l.distance]).toEqual([false, 0]);
    // A model that has changed keeps the lights there are, and what they hold on the card.
    const before = [...lights];
    lamps.set(model);
    expect([...lamps.group.children]).toEqual(before);
  });
});

describe('the face of a mirror', () => {
  const Turn = fc.record({
    x: fc.double({ min: -3, max: 3, noNaN: true }),
    y: fc.double({ min: -3, max: 3, noNaN: true }),
    z: fc.double({ min: -3, max: 3, noNaN: true }),
    flip: fc.boolean(),
  });

  it('is found however it hangs, as large as it is, looking away from its body', () => {
    fc.assert(
      fc.property(Turn, ({ x, y, z, flip }) => {
        const glass = new THREE.BoxGeometry(0.8, 1.1, 0.01);
        const world = new THREE.Matrix4().makeRotationFromEuler(new THREE.Euler(x, y, z)).setPosition(x, y, z);
        if (flip) world.multiply(new THREE.Matrix4().makeScale(-1, 1, 1));
        const face = largestFace(glass, world)!;
        expect(face.area).toBeCloseTo(0.88, 6);
        const [at, normal] = [new THREE.Vector3().setFromMatrixPosition(face.matrix), new THREE.Vector3().setFromMatrixColumn(face.matrix, 2)];
        const body = new THREE.Vector3().setFromMatrixPosition(world);
        expect(at.clone().sub(body).dot(normal)).toBeCloseTo(0.005 + 5e-4, 6);
        // Its corners are those of the glass, and its triangles look the way it does.
        const corner = (i: number): THREE.Vector3 => new THREE.Vector3().fromArray(face.positions, i * 3).applyMatrix4(face.matrix);
        const back = world.clone().invert();
        for (let i = 0; i < face.positions.length / 3; i++) {
          const p = corner(i).applyMatrix4(back);
          expect([Math.abs(p.x), Math.abs(p.y)].map((v) => Math.round(v * 1e4) / 1e4)).toEqual([0.4, 0.55]);
        }
        const [a, b, c] = [corner(0), corner(1), corner(2)];
        expect(b.sub(a).cross(c.sub(a)).dot(normal)).toBeGreaterThan(0);
      }),
      { numRuns: 50 },
    );
  });

  it('is none where nothing is flat, or what is flat is small', () => {
    expect(largestFace(new THREE.SphereGeometry(0.5, 24, 16), new THREE.Matrix4())).toBeNull();
    expect(largestFace(new THREE.BoxGeometry(0.1, 0.1, 0.1), new THREE.Matrix4())).toBeNull();
    expect(largestFace(new THREE.CircleGeometry(0.3, 32), new THREE.Matrix4())!.area).toBeCloseTo(Math.PI * 0.09, 1);
  });
});
