import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { MeshBuilder } from '@/core/geometry/mesh';
import { insideRegion, ringDistance, signedArea } from '@/core/geometry/polygon';
import { boundaryWithin } from './outlines';

describe('the outline of a face', () => {
  it('runs within it, as far from its edges as is said, along all of them and along no other', () => {
    fc.assert(
      fc.property(fc.integer({ min: 12, max: 60 }), fc.integer({ min: 12, max: 60 }), fc.boolean(), (w, d, l) => {
        const [x, y] = [w / 10, d / 10];
        const outer = l
          ? [{ x: 0, y: 0 }, { x, y: 0 }, { x, y: y / 2 }, { x: x / 2, y: y / 2 }, { x: x / 2, y }, { x: 0, y }]
          : [{ x: 0, y: 0 }, { x, y: 0 }, { x, y }, { x: 0, y }]; // prettier-ignore
        const region = { outer, holes: [] };
        const mesh = new MeshBuilder().region(region, (p) => ({ ...p, z: 2.5 }), { x: 0, y: 0, z: 1 }).build();
        expect(signedArea(outer)).toBeGreaterThan(0);
        const lines = boundaryWithin(mesh, 0.03);
        let length = 0;
        for (let i = 0; i < lines.length; i += 6) {
          const [a, b] = [0, 3].map((k) => ({ x: lines[i + k], y: lines[i + k + 1] }));
          const middle = { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 };
          expect(lines[i + 2]).toBeCloseTo(2.5, 6);
          expect(insideRegion(middle, region)).toBe(true);
          expect(ringDistance(middle, outer)).toBeCloseTo(0.03, 5);
          length += Math.hypot(b.x - a.x, b.y - a.y);
        }
        expect(length).toBeCloseTo(2 * (x + y), 4);
      }),
      { numRuns: 40 },
    );
  });
});
