import { z } from 'zod';
import { MeshBuilder } from '../../geometry/mesh';
import { cuts, isLight } from '../../geometry/shapes';
import type { Joint } from '../../geometry/joint';
import { board } from '../forms/boards';
import { about } from '../forms/carry';
import { handleBar, rackOf, shellOf } from '../forms/metalwork';
import { post, turned } from '../forms/turned';
import { choice } from '../traits';
import { maker, outline, rectangle, stroke, v3, type Made, type PieceSize, type StockItem } from '../types';

/** How thick the doors and the walls of a refrigerator are, metres. */
const DOOR = 0.06;
const WALL = 0.04;
const OPEN = (105 * Math.PI) / 180;

const fridgeTraits = z.object({
  form: choice('Form', ['fridge', 'fridge over freezer', 'side by side'], 'fridge over freezer'),
  doors: choice('Doors', ['its own', 'of the unit'], 'its own'),
  hung: choice('Hung', ['left', 'right'], 'right'),
});

interface Room {
  x0: number;
  x1: number;
  z0: number;
  z1: number;
  cold: 'fridge' | 'freezer';
  hung: 'left' | 'right';
}

function fridge({ width, depth, height }: PieceSize, { form, doors, hung }: z.output<typeof fridgeTraits>): Made[] {
  const [w, d] = [width / 2, depth / 2];
  const out: Made[] = [];
  const own = doors === 'its own';
  const foot = own ? 0.03 : 0.012;
  const f = own ? -d + DOOR : -d;
  const rooms: Room[] =
    form === 'side by side'
      ? [
          { x0: -w, x1: -w * 0.12, z0: foot, z1: height, cold: 'freezer', hung: 'left' },
          { x0: -w * 0.12, x1: w, z0: foot, z1: height, cold: 'fridge', hung: 'right' },
        ]
      : form === 'fridge'
        ? [{ x0: -w, x1: w, z0: foot, z1: height, cold: 'fridge', hung }]
        : [
            { x0: -w, x1: w, z0: foot, z1: foot + (height - foot) * 0.38, cold: 'freezer', hung },
            { x0: -w, x1: w, z0: foot + (height - foot) * 0.38, z1: height, cold: 'fridge', hung },
          ];
  const [body, liner, shelves, trays, seal, feet] = Array.from({ length: 6 }, () => new MeshBuilder());
  for (const { x0, x1, z0, z1, cold, hung: side } of rooms) {
    body.add(shellOf({ x0, x1, y0: f + 0.0004, y1: d, z0, z1: z1 - 0.001 }, 0.006));
    const inner = { x0: x0 + 0.0064, x1: x1 - 0.0064, y0: f + 0.001, y1: d - 0.0064, z0: z0 + 0.0064, z1: z1 - 0.0074 };
    liner.add(shellOf(inner, WALL - 0.006));
    const [a, b, low, high] = [x0 + WALL + 0.001, x1 - WALL - 0.001, z0 + WALL, z1 - WALL];
    const [near, back] = [f + (own ? 0.05 : 0.02), d - WALL - 0.004];
    if (cold === 'fridge') {
      const n = Math.max(2, Math.round((high - low) / 0.24));
      for (let k = 1; k < n; k++) {
        const z = low + ((high - low) * k) / n;
        shelves.add(board(a, near + 0.03, z, b, back, z + 0.005, 0.0015));
        trays.add(board(a, near + 0.018, z - 0.004, b, near + 0.0296, z + 0.009, 0.002));
      }
      // A drawer for vegetables on its floor.
      const top = low + Math.min(0.19, ((high - low) / n) * 0.85);
      trays
        .add(board(a + 0.004, near + 0.02, low + 0.003, b - 0.004, near + 0.026, top, 0.002))
        .add(board(a + 0.004, near + 0.0262, low + 0.003, b - 0.004, back - 0.02, low + 0.007, 0.001));
    } else {
      const n = Math.max(2, Math.round((high - low) / 0.22));
      for (let k = 0; k < n; k++) {
        const z = low + ((high - low) * k) / n;
        trays
          .add(board(a + 0.004, near, z + 0.006, b - 0.004, near + 0.012, z + (high - low) / n - 0.008, 0.004))
          .add(board(a + 0.01, near + 0.0122, z + 0.006, b - 0.01, back, z + 0.01, 0.001))
          .add(handleBar((a + b) / 2, near + 0.001, z + ((high - low) / n) * 0.7, (b - a) * 0.4, false, 0.016));
      }
    }
    if (!own) continue;
    const joint: Joint =
      side === 'left'
        ? { kind: 'hinge', at: v3(x0, f, 0), axis: v3(0, 0, -1), range: [0, OPEN] }
        : { kind: 'hinge', at: v3(x1, f, 0), axis: v3(0, 0, 1), range: [0, OPEN] };
    const [p, q] = [x0 + 0.0015, x1 - 0.0015];
    const door = new MeshBuilder().add(board(p, -d, z0 + 0.002, q, f - 0.006, z1 - 0.002, 0.006));
    const inside = new MeshBuilder();
    // What stands in the door of a refrigerator.
    if (cold === 'fridge')
      for (const t of [0.12, 0.42, 0.72]) {
        const z = low + (high - low) * t;
        inside
          .add(board(p + WALL, f - 0.0056, z, q - WALL, f + 0.07, z + 0.004, 0.001))
          .add(board(p + WALL, f + 0.0702, z, q - WALL, f + 0.073, z + 0.07, 0.001));
      }
    const rim = new MeshBuilder();
    for (const [m, n, r, s] of [
      [p + 0.012, z0 + 0.014, q - 0.012, z0 + 0.026],
      [p + 0.012, z1 - 0.026, q - 0.012, z1 - 0.014],
      [p + 0.012, z0 + 0.0262, p + 0.024, z1 - 0.0262],
      [q - 0.024, z0 + 0.0262, q - 0.012, z1 - 0.0262],
    ])
      rim.add(board(m, f - 0.0058, n, r, f - 0.0004, s, 0.002));
    const middle =
      cold === 'freezer' && form !== 'side by side' ? z1 - (z1 - z0) * 0.28 : form === 'side by side' ? (z0 + z1) / 2 + 0.05 : z0 + (z1 - z0) * 0.3;
    out.push(
      { part: 'fronts', mesh: door.build(), joint },
      { part: 'trays', mesh: inside.build(), joint },
      { part: 'seal', mesh: rim.build(), joint },
      { part: 'handles', mesh: handleBar(side === 'left' ? q - 0.045 : p + 0.045, -d, middle, Math.min(0.55, (z1 - z0) * 0.4), true), joint },
    );
  }
  if (own) for (const x of [-1, 1]) for (const y of [-d + 0.1, d - 0.06]) feet.add(post(x * (w - 0.06), y, 0, foot + 0.0055, 0.02, undefined, 14));
  else feet.add(board(-w + 0.02, f + 0.03, 0, w - 0.02, d - 0.02, foot + 0.0003, 0.003));
  out.push(
    { part: 'body', mesh: body.build() },
    { part: 'liner', mesh: liner.build() },
    { part: 'shelves', mesh: shelves.build() },
    { part: 'trays', mesh: trays.build() },
    { part: 'seal', mesh: seal.build() },
    { part: 'feet', mesh: feet.build() },
  );
  return out.filter((p) => p.mesh.indices.length);
}

/** A bottle that lies with its neck to the front. */
function bottle(x: number, y: number, z: number, long: number) {
  const r = 0.036;
  const section = turned(
    [
      [0, 0],
      [r * 0.9, 0],
      [r, 0.006],
      [r, long * 0.62],
      [r * 0.45, long * 0.76],
      [r * 0.38, long * 0.98],
      [r * 0.42, long],
      [0, long],
    ],
    { segments: cuts(18, 8), round: 0.003 },
  );
  return new MeshBuilder().add(section, about('x', Math.PI / 2, x, y, z)).build();
}

function wineCooler({ width, depth, height }: PieceSize): Made[] {
  const [w, d] = [width / 2, depth / 2];
  const f = -d + 0.045;
  const foot = 0.09;
  const [case_, liner, racks, bottles, feet] = Array.from({ length: 5 }, () => new MeshBuilder());
  case_.add(shellOf({ x0: -w, x1: w, y0: f + 0.0004, y1: d, z0: foot, z1: height }, 0.004));
  liner.add(shellOf({ x0: -w + 0.0044, x1: w - 0.0044, y0: f + 0.001, y1: d - 0.0044, z0: foot + 0.0044, z1: height - 0.0044 }, 0.022));
  const [a, b] = [-w + 0.028, w - 0.028];
  const rows = Math.max(1, Math.floor((height - foot - 0.08) / 0.12));
  const across = Math.max(1, Math.floor((b - a) / 0.086));
  for (let k = 0; k < rows; k++) {
    const z = foot + 0.04 + ((height - foot - 0.08) * k) / rows;
    racks.add(rackOf({ x0: a, x1: b, y0: f + 0.04, y1: d - 0.06 }, z, 0.05)).add(board(a, f + 0.02, z - 0.012, b, f + 0.034, z + 0.014, 0.002));
    if (isLight() && k % 2) continue;
    for (let i = 0; i < across; i++) bottles.add(bottle(a + ((b - a) * (i + 0.5)) / across, d - 0.07, z + 0.042, Math.min(0.3, depth - 0.2)));
  }
  const joint: Joint = { kind: 'hinge', at: v3(w, f, 0), axis: v3(0, 0, 1), range: [0, OPEN] };
  const [p, q, z0, z1] = [-w + 0.0015, w - 0.0015, foot + 0.002, height - 0.002];
  const s = Math.min(0.045, width * 0.16);
  const frame = new MeshBuilder()
    .add(board(p, -d, z0, p + s, f - 0.004, z1, 0.002))
    .add(board(q - s, -d, z0, q, f - 0.004, z1, 0.002))
    .add(board(p + s, -d + 0.0003, z0, q - s, f - 0.0043, z0 + s, 0.002))
    .add(board(p + s, -d + 0.0003, z1 - s, q - s, f - 0.0043, z1, 0.002));
  for (const x of [-1, 1]) for (const y of [f + 0.06, d - 0.06]) feet.add(post(x * (w - 0.03), y, 0, foot + 0.0003, 0.016, undefined, 12));
  feet.add(board(-w + 0.004, f + 0.03, 0.01, w - 0.004, f + 0.04, foot - 0.0004));
  return [
    { part: 'fronts', mesh: frame.build(), joint },
    { part: 'glass', mesh: board(p + s - 0.006, -d + 0.012, z0 + s - 0.006, q - s + 0.006, -d + 0.018, z1 - s + 0.006), joint },
    { part: 'handles', mesh: handleBar(p + s / 2, -d, (z0 + z1) / 2, (z1 - z0) * 0.5, true), joint },
    { part: 'body', mesh: case_.build() },
    { part: 'liner', mesh: liner.build() },
    { part: 'racks', mesh: racks.build() },
    { part: 'bottles', mesh: bottles.build() },
    { part: 'feet', mesh: feet.build() },
  ];
}

export const cooling: StockItem[] = [
  maker({
    id: 'fridge',
    name: 'Fridge',
    category: 'Appliances',
    traits: fridgeTraits,
    size: { width: 0.6, depth: 0.65, height: 1.85 },
    min: { width: 0.48, depth: 0.5, height: 0.78 },
    max: { width: 1.0, depth: 0.76, height: 2.1 },
    mount: 'floor',
    builtIn: { word: 'fridge', air: true, how: ({ doors }) => (doors === 'its own' ? 'stands' : 'inside') },
    parts: {
      fronts: 'metal.enamel-white',
      body: 'metal.enamel-white',
      liner: 'paint.skein',
      shelves: 'glass.clear',
      trays: 'glass.clear',
      seal: 'paint.soot',
      handles: 'metal.steel-brushed',
      feet: 'metal.powder-black',
    },
    words: 'refrigerator freezer cold',
    sold: { supplier: 'Relay Street Electrical', price: 690 },
    clear: { front: 0.9 },
    connections: ['socket'],
    handed: ({ form }) => form !== 'side by side',
    cards: [
      { id: 'fridge', name: 'Fridge over freezer' },
      { id: 'fridge-under', name: 'Fridge under a worktop', size: { width: 0.6, depth: 0.6, height: 0.85 }, traits: { form: 'fridge' } },
      {
        id: 'fridge-two-doors',
        name: 'Fridge with two doors',
        size: { width: 0.91, depth: 0.7, height: 1.78 },
        traits: { form: 'side by side' },
        finishes: { fronts: 'metal.steel-brushed', body: 'metal.powder-black' },
      },
      { id: 'fridge-built-in', name: 'Fridge over freezer, built in', size: { width: 0.56, depth: 0.55, height: 1.78 }, traits: { doors: 'of the unit' } },
      {
        id: 'fridge-built-in-tall',
        name: 'Fridge, built in',
        size: { width: 0.56, depth: 0.55, height: 1.78 },
        traits: { doors: 'of the unit', form: 'fridge' },
      },
    ],
    make: fridge,
    symbol: ({ width, depth }, { doors }) => [
      outline(rectangle(width, depth)),
      ...(doors === 'its own' ? [stroke([-width / 2, -depth / 2 + DOOR], [width / 2, -depth / 2 + DOOR])] : []),
      stroke([-width / 2, -depth / 2], [width / 2, depth / 2]),
    ],
  }),
  maker({
    id: 'wine-cooler',
    name: 'Wine cooler',
    category: 'Appliances',
    size: { width: 0.298, depth: 0.57, height: 0.85 },
    min: { width: 0.148, depth: 0.5, height: 0.78 },
    max: { width: 0.6, depth: 0.65, height: 0.9 },
    mount: 'floor',
    builtIn: { word: 'wine cooler', air: true, how: () => 'stands' },
    parts: {
      fronts: 'metal.powder-black',
      glass: 'glass.smoke',
      handles: 'metal.steel-brushed',
      body: 'metal.powder-black',
      liner: 'paint.soot',
      racks: 'metal.chrome',
      bottles: 'glass.weir',
      feet: 'metal.powder-black',
    },
    words: 'bottles drinks fridge',
    sold: { supplier: 'Relay Street Electrical', price: 480 },
    clear: { front: 0.7 },
    connections: ['socket'],
    cards: [
      { id: 'wine-cooler', name: 'Wine cooler, 300' },
      { id: 'wine-cooler-wide', name: 'Wine cooler, 600', size: { width: 0.598, depth: 0.57, height: 0.85 } },
    ],
    make: wineCooler,
    symbol: ({ width, depth }) => [outline(rectangle(width, depth)), stroke([-width / 2, -depth / 2 + 0.045], [width / 2, -depth / 2 + 0.045])],
  }),
];
