import fc from 'fast-check';
import { beforeAll, describe, expect, it } from 'vitest';
import { within } from '../geometry/shapes';
import { INSIDES, type Inside } from '../project/schema/cabinets';
import { FINE, LIGHT } from '../stock/stock';
import { bounds } from '../testing/measures';
import { loadKernel, openEdges, volume } from '../testing/solid';
import { unitsSaid } from '../testing/cabinets';
import { CONSTRUCTIONS } from './figures';
import { insideParts, layInside } from './inside';
import { PLAIN_LOOK } from '../project/joinery';
import { makeUnit } from './unit';

beforeAll(loadKernel);

const share = fc.oneof(fc.constant(null), fc.constantFrom(0.2, 0.4, 0.9));
const inside: fc.Arbitrary<Inside> = fc.array(
  fc.record({
    height: share,
    fields: fc.array(fc.record({ width: share, kind: fc.constantFrom(...INSIDES), count: fc.integer({ min: 0, max: 6 }) }), { minLength: 1, maxLength: 3 }),
  }),
  { minLength: 1, maxLength: 4 },
);
const space = fc.record({ wide: fc.integer({ min: 120, max: 1200 }), high: fc.integer({ min: 150, max: 2300 }), deep: fc.integer({ min: 250, max: 600 }) });
const t = 0.018;

describe('the inside of a unit', () => {
  it('is fields that lie apart within it, boards between them, and all that stands in them is closed and stays in its field', () => {
    fc.assert(
      fc.property(inside, space, (rows, { wide, high, deep }) => {
        const whole = { x0: 0.018, x1: 0.018 + wide / 1000, y0: -deep / 1000, y1: -0.05, z0: 0.018, z1: 0.018 + high / 1000 };
        const laid = layInside(rows, whole, t);
        for (const a of laid.fields) {
          expect(a.space.x1 - a.space.x0).toBeGreaterThan(0);
          expect(a.space.z1 - a.space.z0).toBeGreaterThan(0);
          for (const b of laid.fields) {
            if (a === b) continue;
            const apart = Math.max(b.space.x0 - a.space.x1, a.space.x0 - b.space.x1, b.space.z0 - a.space.z1, a.space.z0 - b.space.z1);
            expect(apart).toBeGreaterThan(t - 1e-9);
          }
          for (const off of [LIGHT, FINE])
            within(off, () => {
              for (const { part, mesh } of insideParts(a, 0.02)) {
                if (!mesh.indices.length) continue;
                expect([a.kind, part, openEdges(mesh)]).toEqual([a.kind, part, 0]);
                expect(volume(mesh)).toBeGreaterThan(0);
                const { low, high: top } = bounds([mesh]);
                expect([a.kind, low[0] > a.space.x0 - 1e-5, top[0] < a.space.x1 + 1e-5]).toEqual([a.kind, true, true]);
                expect([a.kind, low[1] > a.space.y0 - 1e-5, top[1] < a.space.y1 + 1e-5]).toEqual([a.kind, true, true]);
                expect([a.kind, low[2] > a.space.z0 - 1e-5, top[2] < a.space.z1 + 1e-5]).toEqual([a.kind, true, true]);
              }
            });
        }
        // Fields and the boards between them are the whole of it, where all of them find room.
        if (laid.fields.length === rows.reduce((sum, r) => sum + r.fields.length, 0)) {
          const area = laid.fields.reduce((sum, f) => sum + (f.space.x1 - f.space.x0) * (f.space.z1 - f.space.z0), 0);
          const dividers = laid.dividers.reduce((sum, d) => sum + t * (d.z1 - d.z0), 0);
          const boards = laid.shelves.filter((s) => !s.back).length * t * (whole.x1 - whole.x0);
          expect(area + dividers + boards).toBeCloseTo((whole.x1 - whole.x0) * (whole.z1 - whole.z0), 9);
        }
      }),
      { numRuns: 60 },
    );
  });

  it('of a wardrobe is a rail as high as coats are long, and drawers below it', () => {
    const [{ front }] = unitsSaid('1000 wardrobe drawers');
    const made = makeUnit(front, { width: 1, height: 2.2, depth: 0.6 }, 'tall', CONSTRUCTIONS.frameless, PLAIN_LOOK);
    const rail = made.carcass.fields.find((f) => f.kind === 'rail')!;
    expect(rail.space.z1 - rail.space.z0).toBeGreaterThan(1.1);
    const drawers = made.carcass.fields.find((f) => f.kind === 'drawers')!;
    expect(drawers.space.z0).toBeCloseTo(0.018, 9);
    expect(new Set(made.parts.map((p) => p.part))).toEqual(new Set(['carcass', 'fronts', 'handles', 'wire', 'drawers', 'legs']));
  });

  it('of what is pulled out comes out with its front', () => {
    const [{ front }] = unitsSaid('450 bins');
    const made = makeUnit(front, { width: 0.45, height: 0.72, depth: 0.56 }, 'base', CONSTRUCTIONS.frameless, PLAIN_LOOK);
    const bins = made.parts.filter((p) => p.part === 'bins');
    expect(bins).toHaveLength(1);
    expect(bins[0].joint).toEqual(made.parts.find((p) => p.part === 'fronts' && p.joint)!.joint);
    expect(made.parts.some((p) => p.part === 'drawers')).toBe(false);
  });
});
