import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { insideRegion, labelPoint, regionArea } from '../../geometry/polygon';
import type { Region } from '../../geometry/region';
import { add, rotate } from '../../geometry/vec';
import type { LabelLine } from '../display';
import { labelSize, setLabel } from './labels';

const lines: LabelLine[] = [
  { text: 'Shower room', mm: 2.9, strong: true },
  { text: '5.5 m²', mm: 2.6, strong: false },
  { text: '2300 × 2400', mm: 2.2, strong: false },
  { text: 'ceiling 2500', mm: 2.2, strong: false },
];

const shape = fc
  .record({
    w: fc.double({ min: 0.5, max: 9, noNaN: true }),
    h: fc.double({ min: 0.5, max: 9, noNaN: true }),
    cut: fc.double({ min: 0.1, max: 0.9, noNaN: true }),
    turn: fc.double({ min: 0, max: 3, noNaN: true }),
  })
  .map(({ w, h, cut, turn }): Region => ({
    outer: [
      { x: 0, y: 0 },
      { x: w, y: 0 },
      { x: w, y: h * cut },
      { x: w * cut, y: h * cut },
      { x: w * cut, y: h },
      { x: 0, y: h },
    ].map((p) => rotate(p, turn)),
    holes: [],
  }));

describe('a room’s label', () => {
  it('never leaves its room, at any scale', () => {
    fc.assert(
      fc.property(shape, fc.double({ min: 3, max: 60, noNaN: true }), (region, mmPerMetre) => {
        const set = setLabel(region, labelPoint(region), lines, mmPerMetre);
        if (!set) return;
        const { width, height } = labelSize(lines.slice(0, set.lines.length), set.scale);
        for (const [i, j] of [
          [-1, -1],
          [1, -1],
          [1, 1],
          [-1, 1],
        ])
          expect(insideRegion(add(set.at, rotate({ x: (i * width) / 2 / mmPerMetre, y: (j * height) / 2 / mmPerMetre }, set.angle)), region)).toBe(true);
      }),
      { numRuns: 400 },
    );
  });

  it('says all where there is room, the name alone where there is little, nothing where there is none', () => {
    const room = (w: number, h: number): Region => ({
      outer: [
        { x: 0, y: 0 },
        { x: w, y: 0 },
        { x: w, y: h },
        { x: 0, y: h },
      ],
      holes: [],
    });
    const at = (w: number, h: number, scale: number) => setLabel(room(w, h), { x: w / 2, y: h / 2 }, lines, scale);
    expect(at(4, 3, 20)!.lines).toHaveLength(4);
    expect(at(0.9, 3, 20)!).toMatchObject({ angle: Math.PI / 2 });
    expect(at(0.3, 0.3, 20)).toBeNull();
    expect(regionArea(room(4, 3))).toBe(12);
  });
});
