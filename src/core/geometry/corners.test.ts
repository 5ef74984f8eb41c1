import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { cornersOf, draggedCorner } from './corners';
import { signedArea } from './polygon';
import type { Vec2 } from './vec';

const square: Vec2[] = [
  { x: 0, y: 0 },
  { x: 2, y: 0 },
  { x: 2, y: 2 },
  { x: 0, y: 2 },
];

describe('corners of an outline', () => {
  it('come first, then the middles of its edges, the last one only where it is closed', () => {
    expect(cornersOf(square, true)).toHaveLength(8);
    expect(cornersOf(square, false)).toHaveLength(7);
    expect(cornersOf(square, true)[7]).toEqual({ at: { x: 0, y: 1 }, adds: true });
  });

  it('are moved, added and taken away by dragging', () => {
    expect(draggedCorner(square, 2, { x: 3, y: 3 }, true, 0.01)[2]).toEqual({ x: 3, y: 3 });
    expect(draggedCorner(square, 7, { x: -1, y: 1 }, true, 0.01)).toEqual([...square, { x: -1, y: 1 }]);
    expect(draggedCorner(square, 4, { x: 1, y: -1 }, true, 0.01)).toHaveLength(5);
    expect(draggedCorner(square, 1, { x: 2, y: 1.999 }, true, 0.01)).toHaveLength(3);
    const triangle = square.slice(0, 3);
    expect(draggedCorner(triangle, 1, { x: 2, y: 2 }, true, 0.01)).toEqual(triangle);
    expect(draggedCorner(square.slice(0, 2), 0, { x: 2, y: 0 }, false, 0.01)).toHaveLength(2);
  });

  it('dragged to the middle of an edge leave the area as it is; dragged back, the outline', () => {
    fc.assert(
      fc.property(fc.integer({ min: 4, max: 7 }), fc.double({ min: 0.1, max: 5, noNaN: true }), (index, out) => {
        const { at } = cornersOf(square, true)[index];
        const on = draggedCorner(square, index, at, true, 0.01);
        expect(signedArea(on)).toBeCloseTo(4, 9);
        // Out of the edge by a distance, it gains a triangle on an edge of two.
        const d = { x: at.x - 1, y: at.y - 1 };
        expect(signedArea(draggedCorner(square, index, { x: at.x + d.x * out, y: at.y + d.y * out }, true, 0.01))).toBeCloseTo(4 + out, 9);
      }),
    );
  });
});
