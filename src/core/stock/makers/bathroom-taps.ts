import { z } from 'zod';
import { MeshBuilder } from '../../geometry/mesh';
import { isLight } from '../../geometry/shapes';
import { roseOn } from '../forms/sanitary';
import { curve, rod } from '../forms/skin';
import { turned, type Turn } from '../forms/turned';
import { choice } from '../traits';
import { circle, maker, outline, rectangle, stroke, v3, type Made, type PieceSize, type StockItem, type SymbolLine } from '../types';
import { mixerOn } from './basins';

const deckTraits = z.object({ form: choice('Form', ['mixer', 'bath filler'], 'mixer') });
const wallTraits = z.object({ form: choice('Form', ['basin', 'bath filler'], 'basin') });

/** How far apart the valves of a filler are. */
const spanOf = ({ width }: PieceSize): number => Math.max(0.06, Math.min(0.18, width - 0.12));

/** A bath filler: two valves on a body with a spout between them. */
function filler(y: number, z: number, wide: number, reach: number): MeshBuilder {
  const out = new MeshBuilder().add(rod([v3(-wide / 2, y, z), v3(wide / 2, y, z)], 0.019, { section: 20 }));
  for (const s of [-1, 1]) {
    out.add(rod([v3(s * wide * 0.5, y, z), v3(s * (wide * 0.5 + 0.035), y, z)], 0.023, { section: 22 }));
    out.add(rod([v3(s * (wide * 0.5 + 0.02), y, z + 0.01), v3(s * (wide * 0.5 + 0.02), y, z + 0.055)], 0.006, { section: 12 }));
  }
  return out.add(
    rod(curve([v3(0, y, z), v3(0, y - reach * 0.5, z + 0.012), v3(0, y - reach * 0.9, z), v3(0, y - reach, z - 0.03)], isLight() ? 2 : 6), 0.0145, {
      section: 18,
    }),
  );
}

/** A leg of a filler, from its flange up. */
const leg = (flange: number, stem: number, high: number): Turn[] => [
  [0, 0],
  [flange, 0],
  [flange, 0.005],
  [stem + 0.003, 0.011],
  [stem, high],
  [0, high],
];

function deckTap(size: PieceSize, { form }: z.output<typeof deckTraits>): Made[] {
  const { depth, height } = size;
  const d = depth / 2;
  if (form === 'mixer') return [{ part: 'body', mesh: mixerOn(0, d - 0.028, 0, depth - 0.06, Math.max(0.05, height - 0.04)) }];
  const wide = spanOf(size);
  const z = Math.min(0.14, height * 0.6);
  const out = filler(d - 0.05, z, wide, Math.min(0.17, depth - 0.07));
  for (const s of [-1, 1]) out.add(turned(leg(0.028, 0.014, z), { x: s * wide * 0.36, y: d - 0.05, segments: 22, round: 0.001 }));
  return [{ part: 'body', mesh: out.build() }];
}

function wallTap(size: PieceSize, { form }: z.output<typeof wallTraits>): Made[] {
  const { depth, height } = size;
  const d = depth / 2;
  const z = height * 0.5;
  const wide = spanOf(size);
  if (form === 'bath filler') {
    const out = filler(d - 0.055, z, wide, Math.min(0.17, depth - 0.07));
    for (const s of [-1, 1])
      out.add(roseOn(s * wide * 0.4, d, z, 0.032, 0.012)).add(rod([v3(s * wide * 0.4, d - 0.008, z), v3(s * wide * 0.4, d - 0.05, z)], 0.012, { section: 16 }));
    return [{ part: 'body', mesh: out.build() }];
  }
  const spout = curve([v3(0, d - 0.004, z), v3(0, 0, z), v3(0, -d + 0.03, z - 0.002), v3(0, -d + 0.014, z - 0.02)], isLight() ? 2 : 5);
  const out = new MeshBuilder().add(roseOn(0, d, z, 0.03, 0.008)).add(rod(spout, 0.012, { section: 16 }));
  for (const s of [-1, 1])
    out.add(roseOn(s * wide * 0.5, d, z, 0.03, 0.008)).add(rod([v3(s * wide * 0.5, d - 0.006, z), v3(s * wide * 0.5, d - 0.06, z)], 0.019, { section: 20 }));
  return [{ part: 'body', mesh: out.build() }];
}

/** A filler on a pillar, with a hand shower in a fork above it. */
function floorTap(size: PieceSize): Made[] {
  const { depth, height } = size;
  const y = depth / 2 - 0.065;
  const z = height - 0.16;
  const out = filler(y, z, spanOf(size), Math.min(0.19, depth - 0.09))
    .add(turned(leg(0.06, 0.017, z), { x: 0, y, segments: 26, round: 0.002 }))
    .add(rod([v3(0, y, z), v3(0, y, z + 0.07)], 0.009, { section: 14 }))
    .add(rod([v3(0, y - 0.025, z + 0.075), v3(0, y + 0.025, z + 0.075)], 0.01, { section: 14 }))
    .add(rod([v3(-0.1, y, z + 0.09), v3(0.06, y, z + 0.09)], (t) => 0.015 - 0.006 * t, { section: 14 }))
    .add(rod([v3(-0.1, y, z + 0.1), v3(-0.1, y, z + 0.06)], 0.026, { section: 22 }));
  const hose = rod(
    curve(
      [v3(0.06, y, z + 0.09), v3(0.11, y, z + 0.04), v3(0.1, y, z - 0.35), v3(0.05, y, z - 0.42), v3(0.02, y, z - 0.2), v3(0.01, y, z - 0.01)],
      isLight() ? 2 : 6,
    ),
    0.007,
    { section: 10 },
  );
  return [
    { part: 'body', mesh: out.build() },
    { part: 'hose', mesh: hose },
  ];
}

const barred = (size: PieceSize, y: number): SymbolLine[] => [
  outline(rectangle(Math.min(size.width, spanOf(size) + 0.06), 0.04, 0, size.depth / 2 - y)),
  stroke([0, size.depth / 2 - y], [0, -size.depth / 2 + 0.01]),
];

export const bathroomTaps: StockItem[] = [
  maker({
    id: 'bathroom-tap',
    name: 'Bathroom tap',
    category: 'Bathroom',
    traits: deckTraits,
    size: { width: 0.08, depth: 0.17, height: 0.13 },
    min: { width: 0.07, depth: 0.13, height: 0.09 },
    max: { width: 0.36, depth: 0.3, height: 0.4 },
    mount: 'top',
    builtIn: {
      word: 'tap',
      how: () => 'tap',
      // Trade figures: the hole for a tap is 35 across.
      cut: ({ depth }, { form }) => (form === 'mixer' ? circle(0.0175, 0, depth / 2 - 0.028, 16) : []),
      tap: ({ depth }) => ({ x: 0, y: depth / 2 - 0.028 }),
    },
    parts: { body: 'metal.chrome' },
    words: 'mixer spout filler basin bath',
    sold: { supplier: 'Sluice & Penn', price: 140 },
    connections: ['water'],
    cards: [
      { id: 'tap-basin', name: 'Basin tap' },
      { id: 'tap-basin-tall', name: 'Tall basin tap', size: { width: 0.08, depth: 0.19, height: 0.3 } },
      { id: 'tap-bath', name: 'Bath filler', size: { width: 0.32, depth: 0.24, height: 0.14 }, traits: { form: 'bath filler' } },
    ],
    make: deckTap,
    symbol: (size, { form }) =>
      form === 'mixer'
        ? [outline(circle(0.024, 0, size.depth / 2 - 0.028, 18)), stroke([0, size.depth / 2 - 0.05], [0, -size.depth / 2 + 0.02])]
        : barred(size, 0.05),
  }),
  maker({
    id: 'tap-on-wall',
    name: 'Tap on the wall',
    category: 'Bathroom',
    traits: wallTraits,
    size: { width: 0.28, depth: 0.2, height: 0.1 },
    min: { width: 0.2, depth: 0.14, height: 0.08 },
    max: { width: 0.36, depth: 0.3, height: 0.2 },
    mount: 'wall',
    foot: 0.98,
    parts: { body: 'metal.chrome' },
    words: 'mixer spout filler basin bath concealed',
    sold: { supplier: 'Sluice & Penn', price: 220 },
    connections: ['water'],
    cards: [
      { id: 'tap-wall', name: 'Basin tap on the wall' },
      { id: 'tap-wall-bath', name: 'Bath filler on the wall', size: { width: 0.32, depth: 0.24, height: 0.12 }, traits: { form: 'bath filler' } },
    ],
    make: wallTap,
    symbol: (size) => barred(size, 0.04),
  }),
  maker({
    id: 'tap-on-floor',
    name: 'Bath filler on the floor',
    category: 'Bathroom',
    size: { width: 0.3, depth: 0.3, height: 1 },
    min: { width: 0.26, depth: 0.24, height: 0.8 },
    max: { width: 0.36, depth: 0.34, height: 1.2 },
    mount: 'floor',
    parts: { body: 'metal.chrome', hose: 'metal.chrome' },
    words: 'mixer spout freestanding bath',
    sold: { supplier: 'Sluice & Penn', price: 480 },
    connections: ['water'],
    make: floorTap,
    symbol: (size) => [...barred(size, 0.065), outline(circle(0.06, 0, size.depth / 2 - 0.065, 18))],
  }),
];
