import fc from 'fast-check';
import { beforeAll, describe, expect, it } from 'vitest';
import { board } from '../stock/forms/boards';
import { post, turned } from '../stock/forms/turned';
import { loadKernel, openEdges, volume } from '../testing/solid';
import { prism } from './extrude';
import { belowPlane } from './halfspace';
import { MeshBuilder } from './mesh';
import { within } from './shapes';
import { FINE } from '../stock/stock';

beforeAll(loadKernel);

const slope = fc.record({
  gx: fc.double({ min: -1.5, max: 1.5, noNaN: true }),
  gy: fc.double({ min: -1.5, max: 1.5, noNaN: true }),
  c: fc.double({ min: -0.3, max: 1.3, noNaN: true }),
});

describe('what of solids lies below a plane', () => {
  it('of a box is as large as calculus says, closed, and with what lies above the whole box', () => {
    fc.assert(
      fc.property(slope, ({ gx, gy, c }) => {
        const box = new MeshBuilder().box(0, 0, 0, 1, 1, 1).build();
        const below = belowPlane(box, { gx, gy, c });
        // The height of the plane over the unit square, kept between floor and lid, by Simpson’s rule on a fine grid.
        const n = 200;
        let sum = 0;
        for (let i = 0; i < n; i++) for (let j = 0; j < n; j++) sum += Math.min(1, Math.max(0, (gx * (i + 0.5)) / n + (gy * (j + 0.5)) / n + c));
        if (below.indices.length) expect(openEdges(below)).toBe(0);
        expect(below.indices.length ? volume(below) : 0).toBeCloseTo(sum / n ** 2, 3);
      }),
      { numRuns: 60 },
    );
  });

  it('of boards with round edges, of bars and of what is turned stays closed, at the most awkward places too', () => {
    within(FINE, () => {
      const solids = [
        board(0.02, 0.1, 0, 0.98, 0.12, 1),
        post(0.5, 0.5, 0.1, 0.9, 0.05, 0.02, 24),
        turned(
          [
            [0, 0.1],
            [0.3, 0.1],
            [0.3, 0.5],
            [0, 0.5],
          ],
          { x: 0.5, y: 0.5 },
        ),
        prism(
          [
            {
              outer: [
                { x: 0, y: 0 },
                { x: 1, y: 0 },
                { x: 1, y: 1 },
                { x: 0, y: 1 },
              ],
              holes: [
                [
                  { x: 0.3, y: 0.3 },
                  { x: 0.3, y: 0.7 },
                  { x: 0.7, y: 0.7 },
                  { x: 0.7, y: 0.3 },
                ],
              ],
            },
          ],
          0,
          0.6,
        ),
      ];
      const all = new MeshBuilder();
      for (const s of solids) all.add(s);
      const together = all.build();
      fc.assert(
        fc.property(slope, (plane) => {
          let sum = 0;
          for (const s of solids) {
            const cut = belowPlane(s, plane);
            if (!cut.indices.length) continue;
            expect(openEdges(cut)).toBe(0);
            sum += volume(cut);
          }
          const cut = belowPlane(together, plane);
          if (cut.indices.length) expect(volume(cut)).toBeCloseTo(sum, 5);
        }),
        { numRuns: 30 },
      );
      // Level with a face, through corners and along edges.
      for (const plane of [
        { gx: 0, gy: 0, c: 0.6 },
        { gx: 1, gy: 0, c: 0 },
        { gx: 1, gy: 1, c: -0.5 },
        { gx: 0, gy: 0, c: 2 },
        { gx: 0, gy: 0, c: -1 },
      ])
        for (const s of solids) {
          const cut = belowPlane(s, plane);
          if (cut.indices.length) expect(openEdges(cut)).toBe(0);
        }
    });
  });
});
