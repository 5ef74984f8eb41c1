import fc from 'fast-check';
import * as polyclip from 'polyclip-ts';
import { describe, expect, it } from 'vitest';
import { LATTICE } from '../units/tolerance';
import { clipRegions, type ClipOperation } from './clipping';
import { perimeter, regionArea, signedArea, totalArea } from './polygon';
import type { Region, Ring } from './region';

const OPERATIONS: ClipOperation[] = ['union', 'intersection', 'difference'];

/** A star-shaped ring about a point, with true notches. */
const star = (reach: number) =>
  fc
    .tuple(
      fc.double({ min: -reach, max: reach, noNaN: true }),
      fc.double({ min: -reach, max: reach, noNaN: true }),
      fc.array(fc.double({ min: 0.3, max: 3, noNaN: true }), { minLength: 3, maxLength: 14 }),
    )
    .map(([x, y, radii]): Ring =>
      radii.map((r, i) => {
        const angle = (i / radii.length) * 2 * Math.PI;
        return { x: x + r * Math.cos(angle), y: y + r * Math.sin(angle) };
      }),
    );
const region = (outer: Ring, holes: Ring[] = []): Region => ({ outer, holes });
const square = (x: number, y: number, w: number, h = w): Ring => [
  { x, y },
  { x: x + w, y },
  { x: x + w, y: y + h },
  { x, y: y + h },
];

/** The same by another library, in numbers of any length. */
const reference = (operation: ClipOperation, a: Region[], b: Region[]): number => {
  const geometry = (list: Region[]) => list.map((r) => [r.outer, ...r.holes].map((ring) => [...ring, ring[0]].map((p): [number, number] => [p.x, p.y])));
  return (polyclip[operation](geometry(a), geometry(b)) as [number, number][][][])
    .map((polygon) => polygon.map((ring) => Math.abs(signedArea(ring.map(([x, y]) => ({ x, y }))))))
    .reduce((sum, [outer, ...holes]) => sum + outer - holes.reduce((s, h) => s + h, 0), 0);
};

const lengthOf = (list: Region[]): number => list.reduce((sum, r) => sum + perimeter(r.outer) + r.holes.reduce((s, h) => s + perimeter(h), 0), 0);

describe('clipping on the lattice', () => {
  it('has the areas of exact clipping, to what the lattice takes along the outline', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...OPERATIONS),
        fc.array(star(4), { minLength: 1, maxLength: 3 }),
        fc.array(star(4), { minLength: 1, maxLength: 4 }),
        (operation, a, b) => {
          const [first, second] = [a.map((r) => region(r)), b.map((r) => region(r))];
          const made = clipRegions(operation, first, second);
          expect(Math.abs(totalArea(made) - reference(operation, first, second))).toBeLessThan((lengthOf(first) + lengthOf(second)) * LATTICE + 1e-8);
        },
      ),
      { numRuns: 200 },
    );
  });

  it('keeps what is true of sets: both together, both apart, and what is taken off twice', () => {
    fc.assert(
      fc.property(star(3), star(3), (a, b) => {
        const [first, second] = [[region(a)], [region(b)]];
        const slack = (perimeter(a) + perimeter(b)) * LATTICE * 4 + 1e-8;
        const [both, common, left] = OPERATIONS.map((o) => clipRegions(o, first, second));
        expect(Math.abs(totalArea(both) + totalArea(common) - Math.abs(signedArea(a)) - Math.abs(signedArea(b)))).toBeLessThan(slack);
        expect(Math.abs(totalArea(left) + totalArea(common) - Math.abs(signedArea(a)))).toBeLessThan(slack);
        if (left.length) expect(Math.abs(totalArea(clipRegions('difference', left, second)) - totalArea(left))).toBeLessThan(slack);
      }),
      { numRuns: 200 },
    );
  });

  it('gives points that went in back as they were, to the last bit', () => {
    // A sixteenth of an inch and its like have no end in binary numbers.
    const inch = 0.0254;
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 1, max: 16 * 400 }), { minLength: 8, maxLength: 8 }), ([x, y, w, h, dx, dy, w2, h2]) => {
        const at = (sixteenths: number): number => (sixteenths * inch) / 16;
        const a = square(at(x), at(y), at(w), at(h));
        const b = square(at(x + (dx % w)), at(y + (dy % h)), at(w2), at(h2));
        const xs = new Set([...a, ...b].map((p) => p.x));
        const ys = new Set([...a, ...b].map((p) => p.y));
        // What is cut straight lies on the very coordinates that went in, crossings too.
        for (const operation of OPERATIONS)
          for (const r of clipRegions(operation, [region(a)], [region(b)]))
            for (const p of [r.outer, ...r.holes].flat()) expect([xs.has(p.x), ys.has(p.y)]).toEqual([true, true]);
      }),
      { numRuns: 300 },
    );
  });

  it('turns outer rings to the left and holes to the right, and nests them, however they came in', () => {
    const frame = clipRegions('difference', [region(square(0, 0, 6).reverse())], [region(square(1, 1, 4))]);
    expect(frame).toHaveLength(1);
    expect([signedArea(frame[0].outer) > 0, frame[0].holes.map((h) => signedArea(h) < 0)]).toEqual([true, [true]]);
    expect(regionArea(frame[0])).toBeCloseTo(20, 9);
    const island = clipRegions('union', frame, [region(square(2, 2, 2))]);
    expect(island.map((r) => [Math.round(regionArea(r)), r.holes.length])).toEqual([
      [20, 1],
      [4, 0],
    ]);
    // Rings are written from their leftmost point, regions from left to right.
    expect(frame[0].outer[0]).toEqual({ x: 0, y: 0 });
    const apart = clipRegions('union', [region(square(9, 0, 1)), region(square(-9, 0, 1)), region(square(0, 0, 1))], []);
    expect(apart.map((r) => r.outer[0].x)).toEqual([-9, 0, 9]);
  });

  it('leaves no crumbs where edges nearly coincide', () => {
    fc.assert(
      fc.property(fc.double({ min: -3e-7, max: 3e-7, noNaN: true }), fc.double({ min: -3e-7, max: 3e-7, noNaN: true }), (dx, dy) => {
        const a = square(0.1, 0.2, 3, 2);
        const moved = a.map((p) => ({ x: p.x + dx, y: p.y + dy }));
        expect(clipRegions('difference', [region(a)], [region(moved)]).length).toBeLessThanOrEqual(1);
        expect(totalArea(clipRegions('difference', [region(a)], [region(moved)]))).toBeLessThan(1e-5);
        expect(clipRegions('intersection', [region(a)], [region(moved)])).toHaveLength(1);
      }),
    );
    expect(clipRegions('intersection', [region(square(0, 0, 1))], [region(square(1, 0, 1))])).toEqual([]);
    expect(clipRegions('union', [region(square(0, 0, 1)), region(square(1, 0, 1))], [])).toHaveLength(1);
  });

  it('is the same far from the origin, and over a whole site', () => {
    for (const [x, y] of [
      [8000.123, -7000.456],
      [-9999, 9999],
    ]) {
      const made = clipRegions('difference', [region(square(x, y, 300))], [region(square(x + 100, y + 100, 50))]);
      expect(totalArea(made)).toBeCloseTo(300 * 300 - 50 * 50, 2);
      expect(made[0].holes).toHaveLength(1);
    }
  });
});
