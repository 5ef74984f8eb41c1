import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Halves } from './splitting';

type Box = [number, number, number, number, number, number];

const fill = (boxes: readonly Box[]) => (into: Float32Array) => boxes.forEach((b, i) => into.set([b[0], b[1], b[2], 0, b[3], b[4], b[5], 0], i * 8));

const coordinate = fc.float({ min: -50, max: 50, noNaN: true });
const length = fc.oneof(fc.constant(0), fc.float({ min: 0, max: 4, noNaN: true }));
const box = fc
  .tuple(coordinate, coordinate, coordinate, length, length, length)
  .map(([x, y, z, a, b, c]): Box => [x, y, z, Math.fround(x + a), Math.fround(y + b), Math.fround(z + c)]);
const many = fc.oneof(
  fc.array(box, { minLength: 1, maxLength: 120 }),
  // Places that agree to the last bit, which no plane can part.
  fc.tuple(box, fc.integer({ min: 1, max: 60 })).map(([b, n]) => Array.from({ length: n }, () => b)),
);

/** Expected visits of a ray that goes through the root: what the heuristic makes little (MacDonald and Booth 1990). */
function cost(halves: Halves, node = 0): number {
  const children = halves.children(node);
  const share = halves.area(node) / halves.area(0);
  return share + (children ? children.reduce((sum, c) => sum + cost(halves, c), 0) : share * halves.members(node).length);
}

describe('boxes that are split', () => {
  it('lie in one leaf each, within all boxes above them, and four at most together; some alone', () => {
    fc.assert(
      fc.property(many, fc.double({ min: 0, max: 1, noNaN: true }), (boxes, share) => {
        const solo = Math.round(boxes.length * share);
        const halves = Halves.of(boxes.length, solo, fill(boxes));
        const seen: number[] = [];
        const visit = (node: number): void => {
          const members = [...halves.members(node)];
          for (let k = 0; k < 6; k++) {
            const sides = members.map((i) => boxes[i][k]);
            // Exactly the box about them.
            expect(halves.side(node, k)).toBe(Math.fround(k < 3 ? Math.min(...sides) : Math.max(...sides)));
          }
          const children = halves.children(node);
          if (children) {
            expect(children.flatMap((c) => [...halves.members(c)])).toEqual(members);
            children.forEach(visit);
          } else {
            expect(members.length).toBeLessThanOrEqual(4);
            if (members.some((i) => i >= solo)) expect(members).toHaveLength(1);
            seen.push(...members);
          }
        };
        visit(0);
        expect(seen.sort((a, b) => a - b)).toEqual(boxes.map((_, i) => i));
      }),
    );
  });

  it('make rays visit less than halves of equal number would, also where sizes differ by thousands', () => {
    let seed = 5;
    const random = (): number => (seed = (seed * 16807) % 2147483647) / 2147483647;
    const boxes = Array.from({ length: 3000 }, (_, i): Box => {
      // Long walls between heaps of small things.
      const heap = i % 40;
      const [x, y, z] = i % 100 === 0 ? [0, random() * 20, 0] : [heap % 8, Math.floor(heap / 8) * 3, 0].map((c) => c + 0.3 * random());
      const size = i % 100 === 0 ? [20, 0.1, 2.5] : [0.01, 0.01, 0.01];
      return [x, y, z, x + size[0], y + size[1], z + size[2]];
    });
    const halves = Halves.of(boxes.length, boxes.length, fill(boxes));
    /** The same boxes halved by number along their longest side. */
    const area = (ids: number[]): number => {
      const e = [0, 1, 2].map((k) => Math.max(...ids.map((i) => boxes[i][k + 3])) - Math.min(...ids.map((i) => boxes[i][k])));
      return e[0] * e[1] + e[1] * e[2] + e[2] * e[0];
    };
    const root = area(boxes.map((_, i) => i));
    const plain = (ids: number[]): number => {
      const share = area(ids) / root;
      if (ids.length <= 4) return share * (1 + ids.length);
      const spread = [0, 1, 2].map((k) => Math.max(...ids.map((i) => boxes[i][k])) - Math.min(...ids.map((i) => boxes[i][k])));
      const axis = spread.indexOf(Math.max(...spread));
      const sorted = [...ids].sort((a, b) => boxes[a][axis] - boxes[b][axis]);
      const half = sorted.length >> 1;
      return share + plain(sorted.slice(0, half)) + plain(sorted.slice(half));
    };
    expect(cost(halves)).toBeLessThan(0.8 * plain(boxes.map((_, i) => i)));
  });
});
