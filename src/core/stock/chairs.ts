import { z } from 'zod';
import { MeshBuilder } from '../geometry/mesh';
import { lathe, roundedBox, tube } from '../geometry/shapes';
import { ellipse, roundRectangle, slab } from './form';
import { choice, length, toggle } from './traits';
import { circle, maker, outline, rectangle, rounded, v3, type PieceSize, type StockItem } from './types';

const chairTraits = z.object({
  back: choice('Back', ['rails', 'spindles', 'panel'], 'rails'),
  seat: choice('Seat', ['cushion', 'wood'], 'cushion'),
  arms: toggle('Arms', false),
  sitting: length('Seat height', { min: 0.38, max: 0.8, first: 0.44 }),
});

type ChairTraits = z.output<typeof chairTraits>;

/** Radius of legs, and half of the thickness of back rails, metres. */
const LEG = 0.016;
const RAIL = 0.009;

/** A bent rail between the two back posts, its edges round. */
function bentRail(frame: MeshBuilder, { width, depth, height }: PieceSize, z0: number, z1: number): void {
  const n = 12;
  const point = (k: number, z: number) => {
    const t = k / n;
    // It leans with the posts, and its middle lies farther back.
    return v3(-width / 2 + 0.03 + (width - 0.06) * t, depth / 2 - 0.028 + 0.019 * Math.sin(Math.PI * t) - (height - z) * 0.12, z);
  };
  const line = (z: number) => Array.from({ length: n + 1 }, (_, k) => point(k, z));
  for (const z of [z0, z1]) frame.add(tube(line(z), RAIL, 10));
  for (let k = 0; k < n; k++)
    for (const side of [-1, 1]) {
      const at = (i: number, z: number) => ({ ...point(i, z), y: point(i, z).y + side * RAIL });
      const [a, b, c, d] = [at(k, z0), at(k + 1, z0), at(k + 1, z1), at(k, z1)];
      if (side < 0) frame.quad(a, b, c, d, a.x, z0);
      else frame.quad(b, a, d, c, -b.x, z0);
    }
}

function chair(size: PieceSize, { back, seat, arms, sitting }: ChairTraits): ReturnType<StockItem['make']> {
  const { width, depth, height } = size;
  const [w, d] = [width / 2, depth / 2];
  const top = Math.min(sitting, height - 0.2);
  const frame = new MeshBuilder();
  for (const x of [-1, 1]) {
    frame.add(tube([v3(x * (w - 0.02), -d + 0.025, 0), v3(x * (w - 0.035), -d + 0.05, top)], LEG, 12));
    // The back leg goes on as the post of the back.
    frame.add(
      tube(
        [
          v3(x * (w - 0.03), d - 0.02, 0),
          v3(x * (w - 0.035), d - 0.06, top),
          v3(x * (w - 0.03), d - 0.028 - (height - top - 0.2) * 0.12, top + 0.2),
          v3(x * (w - 0.025), d - 0.022, height),
        ],
        LEG,
        12,
      ),
    );
    frame.add(roundedBox(v3(x * (w - 0.035) - 0.01, -d + 0.06, top - 0.07), v3(x * (w - 0.035) + 0.01, d - 0.07, top - 0.02), { radius: 0.006 }));
    if (top > 0.55) frame.add(tube([v3(x * (w - 0.027), -d + 0.035, 0.24), v3(x * (w - 0.032), d - 0.04, 0.24)], 0.011, 10));
    if (arms) {
      frame.add(tube([v3(x * (w - 0.035), -d + 0.05, top), v3(x * (w - 0.03), -d + 0.06, top + 0.2)], LEG * 0.85, 12));
      frame.add(roundedBox(v3(x * (w - 0.03) - 0.024, -d + 0.03, top + 0.195), v3(x * (w - 0.03) + 0.024, d - 0.04, top + 0.222), { radius: 0.01, steps: 3 }));
    }
  }
  for (const y of [-d + 0.05, d - 0.06]) frame.add(roundedBox(v3(-w + 0.04, y - 0.01, top - 0.07), v3(w - 0.04, y + 0.01, top - 0.02), { radius: 0.006 }));
  if (top > 0.55) frame.add(tube([v3(-w + 0.027, -d + 0.035, 0.2), v3(w - 0.027, -d + 0.035, 0.2)], 0.011, 10));
  const high = height - RAIL;
  if (back === 'rails') {
    bentRail(frame, size, height - 0.12, high);
    if (height - top > 0.3) bentRail(frame, size, height - 0.25, height - 0.21);
  } else if (back === 'panel') bentRail(frame, size, Math.max(top + 0.06, height - 0.34), high);
  else {
    bentRail(frame, size, height - 0.07, high);
    const n = Math.max(3, Math.round((width - 0.1) / 0.065));
    for (let i = 1; i < n; i++) {
      const t = i / n;
      const x = -w + 0.03 + (width - 0.06) * t;
      frame.add(tube([v3(0.92 * x, d - 0.062, top - 0.02), v3(x, d - 0.028 + 0.019 * Math.sin(Math.PI * t) - 0.07 * 0.12, height - 0.065)], 0.007, 10));
    }
  }
  const [x, y0, y1] = [w - 0.005, -d, d - 0.05];
  const middle = (y0 + y1) / 2;
  const mesh =
    seat === 'cushion'
      ? roundedBox(v3(-x, y0, top - 0.02), v3(x, y1, top + 0.025), { radius: 0.022, steps: 3, bulge: 0.012 })
      : new MeshBuilder()
          .add(slab(roundRectangle(2 * x, y1 - y0, 0.05), top - 0.021, top + 0.005, 0.01), [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, middle, 0, 1])
          .build();
  return [
    { part: seat === 'cushion' ? 'seat' : 'board', mesh },
    { part: 'frame', mesh: frame.build() },
  ];
}

const stoolTraits = z.object({
  shape: choice('Shape', ['round', 'square'], 'round'),
  seat: choice('Seat', ['wood', 'cushion'], 'wood'),
  base: choice('Base', ['four legs', 'three legs', 'pedestal', 'none'], 'four legs'),
});

type StoolTraits = z.output<typeof stoolTraits>;

function stool({ width, depth, height }: PieceSize, { shape, seat, base }: StoolTraits): ReturnType<StockItem['make']> {
  const [w, d] = [width / 2, depth / 2];
  const top = new MeshBuilder();
  const frame = new MeshBuilder();
  const whole = base === 'none';
  const thick = whole ? height : seat === 'wood' ? 0.032 : 0.06;
  const under = height - thick;
  const shapeOf = () => (shape === 'round' ? ellipse(width, depth) : roundRectangle(width, depth, 0.03));
  if (shape === 'square' && (seat === 'cushion' || whole))
    top.add(roundedBox(v3(-w, -d, under), v3(w, d, height), { radius: whole ? 0.05 : 0.025, steps: 4, bulge: 0.012 }));
  else top.add(slab(shapeOf(), under, height, whole ? 0.06 : seat === 'wood' ? 0.01 : 0.025, 5));
  if (base === 'pedestal') {
    const foot = Math.min(w, d);
    frame.add(
      lathe(
        [
          [0, 0],
          [foot, 0],
          [foot, 0],
          [foot, 0.008],
          [foot * 0.9, 0.014],
          [0.03, 0.03],
          [0.024, 0.06],
          [0.024, under - 0.02],
          [foot * 0.6, under - 0.006],
          [foot * 0.6, under - 0.006],
          [foot * 0.6, under + 0.001],
          [0, under + 0.001],
        ],
        { segments: 32 },
      ),
    );
  } else if (!whole) {
    const n = base === 'three legs' ? 3 : 4;
    const feet = Array.from({ length: n }, (_, i) => {
      const a = ((i + 0.5) * 2 * Math.PI) / n + (n === 3 ? Math.PI / 6 : 0);
      // On a square they stand in its corners.
      const k = shape === 'square' && n === 4 ? Math.SQRT2 : 1;
      return { x: Math.cos(a) * k, y: Math.sin(a) * k };
    });
    const at = (f: { x: number; y: number }, z: number) => {
      const out = 0.92 - 0.26 * (z / under);
      return v3(f.x * (w - 0.016) * out, f.y * (d - 0.016) * out, z);
    };
    for (const f of feet) frame.add(tube([at(f, 0), at(f, under + 0.002)], 0.015, 12));
    const low = Math.min(0.22, under * 0.35);
    feet.forEach((f, i) => frame.add(tube([at(f, low + 0.03 * (i % 2)), at(feet[(i + 1) % n], low + 0.03 * (i % 2))], 0.01, 10)));
  }
  return [
    { part: seat === 'cushion' || whole ? 'seat' : 'board', mesh: top.build() },
    { part: 'frame', mesh: frame.build() },
  ];
}

export const chairs: StockItem[] = [
  maker({
    id: 'chair',
    name: 'Chair',
    category: 'Seating',
    traits: chairTraits,
    size: { width: 0.45, depth: 0.5, height: 0.82 },
    min: { width: 0.38, depth: 0.42, height: 0.72 },
    max: { width: 0.64, depth: 0.64, height: 1.15 },
    mount: 'floor',
    parts: { seat: 'cloth.damson-linen', board: 'timber.oak', frame: 'timber.oak' },
    cards: [
      { id: 'chair', name: 'Dining chair' },
      {
        id: 'chair-spindles',
        name: 'Spindle chair',
        size: { width: 0.46, depth: 0.5, height: 0.86 },
        traits: { back: 'spindles', seat: 'wood' },
        words: 'dining kitchen',
      },
      { id: 'chair-panel', name: 'Panel-back chair', size: { width: 0.46, depth: 0.5, height: 0.8 }, traits: { back: 'panel' }, words: 'dining desk' },
      { id: 'chair-arms', name: 'Carver', size: { width: 0.56, depth: 0.54, height: 0.84 }, traits: { arms: true }, words: 'dining armchair desk' },
      { id: 'chair-bar', name: 'Bar chair', size: { width: 0.42, depth: 0.46, height: 1 }, traits: { sitting: 0.72, back: 'panel' }, words: 'high counter' },
    ],
    make: chair,
    symbol: ({ width, depth }, { arms }) => [
      outline(rounded(width, depth - 0.06, 0.05, 0, -0.03)),
      outline(rectangle(width, 0.05, 0, depth / 2 - 0.025)),
      ...(arms ? [-1, 1].map((x) => outline(rectangle(0.048, depth - 0.07, x * (width / 2 - 0.03), -0.005))) : []),
    ],
  }),
  maker({
    id: 'stool',
    name: 'Stool',
    category: 'Seating',
    traits: stoolTraits,
    size: { width: 0.36, depth: 0.36, height: 0.45 },
    min: { width: 0.26, depth: 0.26, height: 0.3 },
    max: { width: 0.7, depth: 0.7, height: 0.82 },
    mount: 'floor',
    parts: { seat: 'cloth.oat-weave', board: 'timber.ash', frame: 'timber.ash' },
    cards: [
      { id: 'stool', name: 'Stool', traits: { base: 'three legs' } },
      { id: 'stool-bar', name: 'Bar stool', size: { width: 0.38, depth: 0.38, height: 0.74 }, words: 'high counter' },
      {
        id: 'stool-cushion',
        name: 'Cushioned stool',
        size: { width: 0.44, depth: 0.38, height: 0.46 },
        traits: { shape: 'square', seat: 'cushion' },
        words: 'dressing',
      },
      {
        id: 'stool-pedestal',
        name: 'Pedestal stool',
        size: { width: 0.38, depth: 0.38, height: 0.72 },
        traits: { base: 'pedestal', seat: 'cushion' },
        words: 'bar high',
      },
      { id: 'pouf', name: 'Pouf', size: { width: 0.5, depth: 0.5, height: 0.4 }, traits: { base: 'none', seat: 'cushion' }, words: 'footstool' },
    ],
    make: stool,
    symbol: ({ width, depth }, { shape }) => [
      outline(shape === 'round' ? circle(0.5, 0, 0).map((p) => ({ x: p.x * width, y: p.y * depth })) : rounded(width, depth, 0.03)),
    ],
  }),
];
