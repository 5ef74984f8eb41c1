import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { distance, rotate } from '../geometry/vec';
import { brought, corners, fromPixels, laidUnder, measured, stretchOf, toPixels } from './underlay';

const plain = laidUnder('0'.repeat(64), 'scan.png', { width: 2000, height: 1500 }, { x: 3, y: 2 });

describe('an underlay', () => {
  it('is to scale by one length, the first point staying under the pointer', () => {
    const pair = [
      { x: 0, y: 0 },
      { x: 4, y: 0 },
    ] as const;
    const { underlay } = brought(plain, pair, 6.2, 'first');
    const [a, b] = pair.map((p) => toPixels(plain, p));
    expect(measured(underlay, a, b)).toBeCloseTo(6.2, 9);
    expect(fromPixels(underlay, a)).toEqual({ x: expect.closeTo(0), y: expect.closeTo(0) });
  });

  it('finds out how a scan is stretched from two pairs, whichever way they run and however it is turned', () => {
    const arb = fc.record({
      sx: fc.double({ min: 0.002, max: 0.02, noNaN: true }),
      stretch: fc.double({ min: 0.9, max: 1.1, noNaN: true }),
      rotation: fc.double({ min: -0.3, max: 0.3, noNaN: true }),
      angle: fc.double({ min: 0, max: 0.6, noNaN: true }),
    });
    fc.assert(
      fc.property(arb, ({ sx, stretch, rotation, angle }) => {
        const truth = { x: sx, y: sx / stretch };
        const real = (u: { x: number; y: number }): number => Math.hypot(u.x * truth.x, u.y * truth.y);
        const start = { ...plain, rotation };
        const a = { x: -400, y: -300 };
        const along = rotate({ x: 900, y: 0 }, angle);
        const across = rotate({ x: 0, y: 700 }, angle);
        const pairOf = (u: typeof start, d: typeof along): [ReturnType<typeof fromPixels>, ReturnType<typeof fromPixels>] => [
          fromPixels(u, a),
          fromPixels(u, { x: a.x + d.x, y: a.y + d.y }),
        ];
        const first = brought(start, pairOf(start, along), real(along), 'first').underlay;
        const known = { u: Math.abs(along.x), v: Math.abs(along.y), d: real(along) };
        const { underlay, note } = brought(first, pairOf(first, across), real(across), 'second', known);
        expect(underlay.scale.x / truth.x).toBeCloseTo(1, 6);
        expect(underlay.scale.y / truth.y).toBeCloseTo(1, 6);
        expect(stretchOf(underlay)).toBeCloseTo(stretch - 1, 6);
        expect(note).toMatch(/^The scan is (not )?stretched/);
      }),
    );
  });

  it('lies where its corners are', () => {
    const [a, b, , d] = corners(plain);
    expect(distance(a, b)).toBeCloseTo(12, 9);
    expect(distance(a, d)).toBeCloseTo(9, 9);
  });
});
