import { z } from 'zod';
import { prism } from '../../geometry/extrude';
import { MeshBuilder } from '../../geometry/mesh';
import { isLight } from '../../geometry/shapes';
import { roundRectangle } from '../forms/flat';
import { bowlOf } from '../forms/metalwork';
import { curve, rod } from '../forms/skin';
import { post, turned } from '../forms/turned';
import { choice } from '../traits';
import { circle, maker, outline, rounded, stroke, v3, type Made, type PieceSize, type StockItem } from '../types';

const sinkTraits = z.object({
  set: choice('Set', ['into the worktop', 'under the worktop', 'Belfast'], 'into the worktop'),
  bowls: choice('Bowls', ['one', 'one and a half', 'two'], 'one'),
  drainer: choice('Drainer', ['none', 'left', 'right'], 'none'),
});
type SinkTraits = z.output<typeof sinkTraits>;

/** Flange of a sink that lies on the worktop, the ledge behind its bowls, and room between two of them, metres. */
const RIM = { flange: 0.018, ledge: 0.06, between: 0.03 } as const;

/** The walls of fireclay, metres. */
const CLAY = 0.025;

interface Field {
  x: number;
  y: number;
  width: number;
  depth: number;
}

/** Where the bowls of a sink lie, and its drainer. */
function fieldsOf({ width, depth }: PieceSize, { set, bowls, drainer }: SinkTraits): { bowls: Field[]; drainer: Field | null } {
  const belfast = set === 'Belfast';
  const rim = belfast ? CLAY : RIM.flange;
  const behind = belfast ? CLAY : set === 'under the worktop' ? RIM.flange : RIM.ledge;
  const dry = belfast || set === 'under the worktop' || drainer === 'none' ? 0 : Math.min(0.42, width * 0.42);
  const [low, high] = [-width / 2 + rim + (drainer === 'left' ? dry : 0), width / 2 - rim - (drainer === 'right' ? dry : 0)];
  const [front, back] = [-depth / 2 + rim, depth / 2 - behind];
  const deep = back - front;
  const y = (front + back) / 2;
  const gap = belfast ? CLAY : RIM.between;
  const shares = bowls === 'one' ? [1] : bowls === 'two' ? [0.5, 0.5] : [0.68, 0.32];
  const room = high - low - gap * (shares.length - 1);
  let at = low;
  const out = shares.map((share): Field => {
    const field = { x: at + (room * share) / 2, y, width: room * share, depth: deep };
    at += room * share + gap;
    return field;
  });
  // The half bowl is on the side of the drainer.
  if (drainer === 'left') out.forEach((f) => (f.x = low + high - f.x));
  return { bowls: out, drainer: dry ? { x: (drainer === 'left' ? -1 : 1) * (width / 2 - rim - dry / 2), y, width: dry - 0.03, depth: deep } : null };
}

function sink({ width, depth, height }: PieceSize, traits: SinkTraits): Made[] {
  const belfast = traits.set === 'Belfast';
  const { bowls, drainer } = fieldsOf({ width, depth, height }, traits);
  const bowl = new MeshBuilder();
  const waste = new MeshBuilder();
  const radius = belfast ? 0.03 : 0.045;
  const top = belfast ? height : height - 0.0012;
  for (const f of bowls) {
    const small = f.width < 0.24;
    const own = bowlOf({
      ...f,
      top,
      deep: belfast ? height - 0.045 : (height - 0.03) * (small ? 0.75 : 1),
      radius: Math.min(radius, f.width * 0.25),
      thick: belfast ? CLAY - 0.001 : 0.0011,
    });
    bowl.add(own.bowl);
    waste.add(own.waste);
  }
  if (!belfast) {
    const flat = roundRectangle(width, depth, traits.set === 'under the worktop' ? 0.05 : 0.02);
    const holes = bowls.map((f) => rounded(f.width + 0.002, f.depth + 0.002, Math.min(radius, f.width * 0.25), f.x, f.y).reverse());
    bowl.add(prism([{ outer: flat, holes }], height - 0.0012, height));
    if (!isLight() && traits.set === 'into the worktop') {
      // The pressed edge of the flange.
      const edge = roundRectangle(width - 0.004, depth - 0.004, 0.018).map((p) => v3(p.x, p.y, height));
      bowl.add(rod([...edge, edge[0]], 0.0016, { section: 6 }));
    }
    if (drainer) {
      const n = isLight() ? 4 : Math.round(drainer.width / 0.03);
      for (let k = 0; k <= n; k++) {
        const x = drainer.x - drainer.width / 2 + (drainer.width * k) / n;
        bowl.add(rod([v3(x, drainer.y - drainer.depth / 2, height), v3(x, drainer.y + drainer.depth / 2, height)], 0.0028, { section: 8 }));
      }
    }
  }
  // The trap below the first waste.
  const [first] = bowls;
  const pipe = new MeshBuilder().add(post(first.x, first.y, 0.0, 0.022, 0.022, 0.03, 16));
  return [
    { part: 'sink', mesh: bowl.build() },
    { part: 'waste', mesh: waste.build() },
    { part: 'trap', mesh: pipe.build() },
  ];
}

/** Behind which the tap stands, and how far, metres. */
function tapOf(size: PieceSize, traits: SinkTraits): { x: number; y: number } {
  const { bowls } = fieldsOf(size, traits);
  const back = size.depth / 2;
  return { x: bowls.length > 1 ? (bowls[0].x + bowls[1].x) / 2 : bowls[0].x, y: traits.set === 'into the worktop' ? back - RIM.ledge / 2 : back + 0.035 };
}

const tapTraits = z.object({ form: choice('Form', ['swan neck', 'square', 'bridge', 'pull-out'], 'swan neck') });

function tap({ width, depth, height }: PieceSize, { form }: z.output<typeof tapTraits>): Made[] {
  const out = new MeshBuilder();
  const steps = isLight() ? 3 : 8;
  const [y, reach] = [depth / 2 - 0.026, depth - 0.05];
  const spout = (points: ReturnType<typeof v3>[], r: number): void => void out.add(rod(points, r, { section: 16 }));
  const base = (x: number, r: number): void =>
    void out.add(
      turned(
        [
          [0, 0],
          [r, 0],
          [r, 0.006],
          [r * 0.8, 0.01],
          [r * 0.8, 0.05],
          [0, 0.05],
        ],
        { x, y, segments: 24, round: 0.0015 },
      ),
    );
  const r = 0.011;
  const neck = (z0: number) =>
    curve(
      [
        v3(0, y, z0),
        v3(0, y, height * 0.62),
        v3(0, y - reach * 0.1, height - reach * 0.28),
        v3(0, y - reach * 0.5, height - 0.012),
        v3(0, y - reach * 0.9, height - reach * 0.28),
        v3(0, y - reach, height * 0.62),
      ],
      steps,
    );
  if (form === 'bridge') {
    for (const s of [-1, 1]) {
      const x = s * (width / 2 - 0.034);
      base(x, 0.027);
      out.add(post(x, y, 0.045, 0.1, 0.011, 0.011, 14)).add(post(x, y, 0.098, 0.125, 0.017, 0.014, 18));
      // Cross heads.
      for (const [dx, dy] of [
        [0.034, 0],
        [0, 0.026],
      ])
        out.add(rod([v3(x - dx, y - dy, 0.136), v3(x + dx, y + dy, 0.136)], 0.0062, { section: 12 }));
      out.add(post(x, y, 0.122, 0.144, 0.012, 0.01, 16));
    }
    spout([v3(-width / 2 + 0.034, y, 0.075), v3(width / 2 - 0.034, y, 0.075)], 0.009);
    spout(neck(0.07), r);
  } else {
    base(0, 0.027);
    if (form === 'square')
      spout(
        [
          v3(0, y, 0.04),
          v3(0, y, height - 0.02),
          v3(0, y - 0.012, height - 0.012),
          v3(0, y - reach, height - 0.012),
          v3(0, y - reach - 0.003, height - 0.016),
          v3(0, y - reach - 0.003, height - 0.045),
        ],
        r,
      );
    else spout(neck(0.04), form === 'pull-out' ? 0.014 : r);
    if (form === 'pull-out') out.add(post(0, y - reach, height * 0.62 - 0.09, height * 0.62 + 0.004, 0.016, 0.014, 18));
    // Its lever at the right.
    out
      .add(rod([v3(0.012, y, 0.055), v3(0.04, y, 0.06)], 0.0105, { section: 14 }))
      .add(rod([v3(0.034, y, 0.06), v3(Math.min(width / 2 - 0.006, 0.058), y - 0.02, 0.115)], (t) => 0.0055 - 0.0012 * t, { section: 12 }));
  }
  return [{ part: 'body', mesh: out.build() }];
}

export const sinks: StockItem[] = [
  maker({
    id: 'sink',
    name: 'Sink',
    category: 'Appliances',
    traits: sinkTraits,
    size: { width: 0.54, depth: 0.5, height: 0.2 },
    min: { width: 0.34, depth: 0.38, height: 0.13 },
    max: { width: 1.2, depth: 0.54, height: 0.27 },
    mount: 'floor',
    foot: 0.71,
    builtIn: {
      word: 'sink',
      how: ({ set }) => (set === 'Belfast' ? 'through' : 'top'),
      surface: ({ height }, { set }) => (set === 'into the worktop' ? height - 0.0012 : undefined),
      cut(size, traits) {
        const { width, depth } = size;
        if (traits.set === 'into the worktop') return rounded(width - 2 * 0.012, depth - 2 * 0.012, 0.015);
        // The worktop lies on the sides and the back of fireclay, and is open before it.
        if (traits.set === 'Belfast')
          return [
            { x: -width / 2 + CLAY / 2, y: -depth / 2 - 0.2 },
            { x: width / 2 - CLAY / 2, y: -depth / 2 - 0.2 },
            { x: width / 2 - CLAY / 2, y: depth / 2 - CLAY / 2 },
            { x: -width / 2 + CLAY / 2, y: depth / 2 - CLAY / 2 },
          ];
        // The worktop stands out a little over the bowls.
        const { bowls } = fieldsOf(size, traits);
        const [low, high] = [Math.min(...bowls.map((f) => f.x - f.width / 2)), Math.max(...bowls.map((f) => f.x + f.width / 2))];
        return rounded(high - low - 0.006, bowls[0].depth - 0.006, 0.042, (low + high) / 2, bowls[0].y);
      },
      tap: tapOf,
    },
    parts: { sink: 'metal.steel-brushed', waste: 'metal.chrome', trap: 'metal.chrome' },
    words: 'bowl drainer kitchen washing up',
    sold: { supplier: 'Sluice & Penn', price: 240 },
    clear: { front: 1 },
    connections: ['water', 'waste'],
    cards: [
      { id: 'sink', name: 'Sink, one bowl' },
      { id: 'sink-drainer', name: 'Sink, one bowl, drainer left', size: { width: 0.86, depth: 0.5, height: 0.2 }, traits: { drainer: 'left' } },
      { id: 'sink-drainer-right', name: 'Sink, one bowl, drainer right', size: { width: 0.86, depth: 0.5, height: 0.2 }, traits: { drainer: 'right' } },
      {
        id: 'sink-one-and-half',
        name: 'Sink, one and a half bowls',
        size: { width: 0.98, depth: 0.5, height: 0.2 },
        traits: { bowls: 'one and a half', drainer: 'right' },
      },
      { id: 'sink-two', name: 'Sink, two bowls', size: { width: 0.8, depth: 0.5, height: 0.2 }, traits: { bowls: 'two' } },
      { id: 'sink-under', name: 'Sink under the worktop', size: { width: 0.54, depth: 0.44, height: 0.2 }, traits: { set: 'under the worktop' } },
      {
        id: 'sink-belfast',
        name: 'Belfast sink',
        size: { width: 0.595, depth: 0.46, height: 0.255 },
        traits: { set: 'Belfast' },
        finishes: { sink: 'ceramic.white' },
      },
    ],
    make: sink,
    symbol: (size, traits) => {
      const { bowls, drainer } = fieldsOf(size, traits);
      return [
        outline(rounded(size.width, size.depth, 0.02)),
        ...bowls.flatMap((f) => [outline(rounded(f.width, f.depth, 0.04, f.x, f.y)), outline(circle(0.022, f.x, f.y, 14))]),
        ...(drainer
          ? [1, 2, 3, 4].map((k) => {
              const x = drainer.x - drainer.width / 2 + (drainer.width * k) / 5;
              return stroke([x, drainer.y - drainer.depth / 2], [x, drainer.y + drainer.depth / 2]);
            })
          : []),
      ];
    },
  }),
  maker({
    id: 'tap',
    name: 'Tap',
    category: 'Appliances',
    traits: tapTraits,
    size: { width: 0.12, depth: 0.24, height: 0.36 },
    min: { width: 0.12, depth: 0.14, height: 0.18 },
    max: { width: 0.3, depth: 0.32, height: 0.5 },
    mount: 'floor',
    foot: 0.9,
    builtIn: {
      word: 'tap',
      how: () => 'tap',
      // Trade figures: the hole for a tap is 35 across.
      cut: ({ depth }, { form }) => (form === 'bridge' ? [] : circle(0.0175, 0, depth / 2 - 0.026, 16)),
      tap: ({ depth }) => ({ x: 0, y: depth / 2 - 0.026 }),
    },
    parts: { body: 'metal.brass-brushed' },
    words: 'mixer spout kitchen',
    sold: { supplier: 'Sluice & Penn', price: 160 },
    connections: ['water'],
    cards: [
      { id: 'tap', name: 'Tap, swan neck' },
      { id: 'tap-square', name: 'Tap, square', traits: { form: 'square' }, finishes: { body: 'metal.chrome' } },
      { id: 'tap-bridge', name: 'Tap, bridge', size: { width: 0.26, depth: 0.24, height: 0.34 }, traits: { form: 'bridge' } },
      { id: 'tap-pull-out', name: 'Tap, pull-out', traits: { form: 'pull-out' }, finishes: { body: 'metal.steel-brushed' } },
    ],
    make: tap,
    symbol: ({ depth }) => [outline(circle(0.025, 0, depth / 2 - 0.026, 18)), stroke([0, depth / 2 - 0.05], [0, -depth / 2 + 0.02])],
  }),
];
