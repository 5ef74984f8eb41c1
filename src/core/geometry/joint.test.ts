import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { moved, reachOf, type Joint } from './joint';
import { IDENTITY, multiply, transformPoint } from './mesh';
import { cross3, dot3, sub3, unit3, type Vec3 } from './vec';

const number = fc.double({ min: -4, max: 4, noNaN: true });
const points = fc.record({ x: number, y: number, z: number });
const axes = points.filter((v) => Math.hypot(v.x, v.y, v.z) > 0.2).map((v) => unit3(v));
const hinge = (at: Vec3, axis: Vec3): Joint => ({ kind: 'hinge', at, axis, range: [0, Math.PI / 2] });
const slide = (axis: Vec3): Joint => ({ kind: 'slide', at: { x: 0, y: 0, z: 0 }, axis, range: [0, 0.6] });
const awayFrom = ({ at, axis }: Joint, p: Vec3): number => {
  const n = cross3(sub3(p, at), axis);
  return Math.sqrt(dot3(n, n));
};

describe('a joint', () => {
  it('that is a hinge keeps the distance from its axis and the place along it, and turns by its angle', () => {
    fc.assert(
      fc.property(points, axes, points, fc.double({ min: -3, max: 3, noNaN: true }), (at, axis, p, angle) => {
        const joint = hinge(at, axis);
        const q = transformPoint(moved(joint, angle), p);
        expect(awayFrom(joint, q)).toBeCloseTo(awayFrom(joint, p), 8);
        expect(dot3(sub3(q, at), axis)).toBeCloseTo(dot3(sub3(p, at), axis), 8);
        // A point of the axis stays.
        const on = { x: at.x + axis.x, y: at.y + axis.y, z: at.z + axis.z };
        const still = transformPoint(moved(joint, angle), on);
        expect(Math.hypot(still.x - on.x, still.y - on.y, still.z - on.z)).toBeLessThan(1e-9);
      }),
    );
    // Anticlockwise seen from the tip of the axis.
    const turned = transformPoint(moved(hinge({ x: 0, y: 0, z: 0 }, { x: 0, y: 0, z: 1 }), Math.PI / 2), { x: 1, y: 0, z: 0 });
    expect([turned.x, turned.y]).toEqual([expect.closeTo(0, 12), expect.closeTo(1, 12)]);
  });

  it('that is a slide moves all points alike along its axis', () => {
    fc.assert(
      fc.property(axes, points, number, (axis, p, by) => {
        const q = transformPoint(moved(slide(axis), by), p);
        expect(q.x - p.x).toBeCloseTo(axis.x * by, 9);
        expect(q.y - p.y).toBeCloseTo(axis.y * by, 9);
        expect(q.z - p.z).toBeCloseTo(axis.z * by, 9);
      }),
    );
  });

  it('goes by shares of its range, and back to where it was', () => {
    const joint = { ...slide({ x: 1, y: 0, z: 0 }), range: [0.1, 0.5] as const };
    expect([0, 0.25, 1].map((share) => reachOf(joint, share))).toEqual([0.1, 0.2, 0.5]);
    expect(moved(joint, 0)).toBe(IDENTITY);
    fc.assert(
      fc.property(points, axes, points, fc.double({ min: 0.1, max: 3, noNaN: true }), (at, axis, p, by) => {
        for (const own of [hinge(at, axis), slide(axis)]) {
          const back = transformPoint(multiply(moved(own, -by), moved(own, by)), p);
          expect(Math.hypot(back.x - p.x, back.y - p.y, back.z - p.z)).toBeLessThan(1e-8);
        }
      }),
    );
  });
});
