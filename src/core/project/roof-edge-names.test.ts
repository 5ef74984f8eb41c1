import { describe, expect, it } from 'vitest';
import { roofEdgeNames } from './roof-edge-names';

const site = (north = Math.PI / 2) => ({ site: { north } }) as never;
const ring = (points: [number, number][]) =>
  points.map(([x, y], i) => {
    const [u, v] = points[(i + 1) % points.length];
    return { a: { x, y }, b: { x: u, y: v } };
  });

describe('names of the edges of a roof', () => {
  it('are points of the compass where no two look the same way', () => {
    expect(
      roofEdgeNames(
        site(),
        ring([
          [0, 0],
          [6, 0],
          [6, 4],
          [0, 4],
        ]),
      ),
    ).toEqual(['south', 'east', 'north', 'west']);
    // North to the right in the plan.
    expect(
      roofEdgeNames(
        site(0),
        ring([
          [0, 0],
          [6, 0],
          [6, 4],
          [0, 4],
        ]),
      ),
    ).toEqual(['east', 'north', 'west', 'south']);
  });

  it('say which is meant on an L: two look north and two look east', () => {
    const names = roofEdgeNames(
      site(),
      ring([
        [0, 0],
        [8, 0],
        [8, 3],
        [4, 3],
        [4, 7],
        [0, 7],
      ]),
    );
    expect(names).toEqual(['south', 'east, southern', 'north, eastern', 'east, northern', 'north, western', 'west']);
    expect(new Set(names).size).toBe(6);
  });

  it('say middle of three, and what lies behind what', () => {
    // A T lying on its side: three look south.
    const t = roofEdgeNames(
      site(),
      ring([
        [0, 2],
        [3, 2],
        [3, 0],
        [6, 0],
        [6, 2],
        [9, 2],
        [9, 5],
        [0, 5],
      ]),
    );
    expect(t.filter((n) => n.startsWith('south'))).toEqual(['south, western', 'south, middle', 'south, eastern']);
    // A wing with a notch straight above: one edge to the south right behind another.
    const behind = roofEdgeNames(site(), [
      { a: { x: 0, y: 0 }, b: { x: 4, y: 0 } },
      { a: { x: 1, y: 6 }, b: { x: 3, y: 6 } },
    ]);
    expect(behind).toEqual(['south, outer', 'south, inner']);
  });
});
