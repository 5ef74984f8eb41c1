import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { insideRegion, labelPoint, regionArea } from '../../geometry/polygon';
import { rectangle, type Region } from '../../geometry/region';
import { add, rotate } from '../../geometry/vec';
import type { LabelLine } from '../display';
import type { DisplayItem } from '../display';
import { labelSize, setLabel, settled } from './labels';

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

describe('texts that yield', () => {
  const room: Region = { outer: rectangle(0, 0, 5, 4), holes: [] };
  const label: Extract<DisplayItem, { kind: 'label' }> = {
    kind: 'label',
    at: { x: 2.5, y: 2 },
    region: room,
    lines: [
      { text: 'Kitchen', mm: 2.8, strong: true },
      { text: '20.0 m²', mm: 2.4, strong: false },
      { text: '5000 × 4000', mm: 2.1, strong: false },
    ],
    entity: 'room',
    layer: 'label',
  };
  const note = (x: number, y: number, text: string, yields: 'aside' | 'down' | 'out'): Extract<DisplayItem, { kind: 'text' }> => ({
    kind: 'text',
    at: { x, y },
    text,
    mm: 1.9,
    ink: 'thin',
    weight: 400,
    angle: 0,
    entity: text,
    layer: 'stair',
    yields,
  });
  const box = (item: Extract<DisplayItem, { kind: 'text' }>, k: number): [number, number, number, number] => {
    const { width } = labelSize([{ text: item.text, mm: item.mm, strong: false }], 1);
    const y = item.at.y * k - (item.dy ?? 0) + item.mm * 0.35;
    return [item.at.x * k - width / 2, y - item.mm / 2, item.at.x * k + width / 2, y + item.mm / 2];
  };

  it('cover no label and not one another, at any scale; what does not yield is as it was', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.tuple(
            fc.double({ min: 0, max: 5, noNaN: true }),
            fc.double({ min: 0, max: 4, noNaN: true }),
            fc.constantFrom('aside' as const, 'down' as const, 'out' as const),
          ),
          {
            maxLength: 20,
          },
        ),
        fc.double({ min: 4, max: 60, noNaN: true }),
        (places, k) => {
          const items: DisplayItem[] = [
            label,
            ...places.map(([x, y, yields], i) => note(x, y, `note ${i}`, yields)),
            { ...note(2.5, 2, 'fixed', 'out'), yields: undefined },
          ];
          const out = settled(items, k);
          expect(out[0]).toBe(label);
          expect(out.at(-1)).toBe(items.at(-1));
          const set = setLabel(room, label.at, label.lines, k);
          const half = set ? labelSize(set.lines, 1) : { width: 0, height: 0 };
          const [w, h] = set?.angle ? [half.height, half.width] : [half.width, half.height];
          const boxes = [
            ...(set ? [[label.at.x * k - w / 2, label.at.y * k - h / 2, label.at.x * k + w / 2, label.at.y * k + h / 2] as const] : []),
            ...out.flatMap((i) => (i.kind === 'text' && i.yields ? [box(i, k)] : [])),
          ];
          boxes.forEach((a, i) =>
            boxes.slice(i + 1).forEach((b) => expect(a[0] < b[2] - 1e-9 && a[2] > b[0] + 1e-9 && a[1] < b[3] - 1e-9 && a[3] > b[1] + 1e-9).toBe(false)),
          );
        },
      ),
    );
  });

  it('stay where they stand clear, move aside where they do not, or are left out', () => {
    const items = [label, note(0.8, 0.5, 'up 14', 'aside'), note(2.5, 2, 'up 15', 'aside'), note(2.5, 2, '7', 'out')];
    const out = settled(items, 12);
    expect(out[1]).toBe(items[1]);
    expect(out).toHaveLength(3);
    expect(Math.abs((out[2] as { dy: number }).dy)).toBeGreaterThan(2);
    const plain = [label];
    expect(settled(plain, 12)).toBe(plain);
  });

  it('never rise into the figures above them where they go down alone', () => {
    // Names of walls side by side, each narrower than its name, as an unrolled recess has them.
    const names = Array.from({ length: 5 }, (_, i) => note(i * 0.35, 0, 'north wall', 'down'));
    const out = settled(names, 12);
    expect(out).toHaveLength(5);
    for (const item of out) expect((item as { dy?: number }).dy ?? 0).toBeGreaterThanOrEqual(0);
    expect(new Set(out.map((item) => (item as { dy?: number }).dy ?? 0)).size).toBeGreaterThan(1);
  });
});
