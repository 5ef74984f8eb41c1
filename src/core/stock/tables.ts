import { z } from 'zod';
import { MeshBuilder } from '../geometry/mesh';
import { cylinder, lathe, roundedBox, sheet, tube, within } from '../geometry/shapes';
import { ellipse, roundRectangle, slab } from './form';
import { choice, length, toggle } from './traits';
import { circle, maker, outline, rectangle, stroke, v3, type PieceSize, type StockItem } from './types';

const tableTraits = (leg: number) =>
  z.object({
    top: choice('Top', ['square corners', 'round corners', 'round'], 'square corners'),
    base: choice('Base', ['four legs', 'trestles', 'pedestal'], 'four legs'),
    leg: length('Leg', { min: 0.02, max: 0.12, first: leg, step: 0.001 }),
    thick: length('Thickness', { min: 0.015, max: 0.06, first: 0.032, step: 0.001 }),
    apron: toggle('Rails', true),
  });

type TableTraits = z.output<ReturnType<typeof tableTraits>>;

/** The outline of a top: its corners, or none. */
const topOutline = ({ width, depth }: PieceSize, top: TableTraits['top']) =>
  top === 'round' ? ellipse(width, depth) : roundRectangle(width, depth, top === 'round corners' ? 0.28 * Math.min(width, depth) : 0.012);

function table(size: PieceSize, { top, base, leg, thick, apron }: TableTraits): ReturnType<StockItem['make']> {
  const { width, depth, height } = size;
  const [w, d] = [width / 2, depth / 2];
  const under = height - thick;
  const legs = new MeshBuilder();
  if (base === 'four legs') {
    // Under a round top they stand on a smaller rectangle.
    const k = top === 'round' ? Math.SQRT1_2 : 1;
    const inset = leg / 2 + (top === 'round' ? 0.02 : 0.05);
    const [x1, y1] = [w * k - inset, d * k - inset];
    for (const x of [-1, 1])
      for (const y of [-1, 1]) legs.add(tube([v3(x * (x1 + 0.015), y * (y1 + 0.015), 0), v3(x * x1, y * y1, under + 0.002)], leg / 2, 16));
    if (apron) {
      const rail = Math.min(0.09, height * 0.2);
      for (const y of [-1, 1]) legs.add(roundedBox(v3(-x1, y * y1 - 0.011, under - rail), v3(x1, y * y1 + 0.011, under + 0.001), { radius: 0.002 }));
      for (const x of [-1, 1]) legs.add(roundedBox(v3(x * x1 - 0.011, -y1, under - rail), v3(x * x1 + 0.011, y1, under + 0.001), { radius: 0.002 }));
    }
  } else if (base === 'trestles') {
    const splay = Math.min(0.1, 0.3 * w);
    const [x1, y1] = [Math.min(w - splay - leg / 2, Math.max(w - 0.28, 0.35 * w)), Math.min(d - leg / 2, Math.max(d - 0.1, 0.5 * d))];
    for (const x of [-1, 1]) {
      for (const y of [-1, 1])
        legs
          .add(tube([v3(x * (x1 + splay), y * y1, 0), v3(x * x1, y * y1 * 0.45, under - 0.05)], leg / 2, 16))
          .add(tube([v3(x * (x1 - splay), y * y1, 0), v3(x * x1, y * y1 * 0.45, under - 0.05)], leg / 2, 16));
      legs.add(roundedBox(v3(x * x1 - leg * 0.6, -y1, under - 0.07), v3(x * x1 + leg * 0.6, y1, under + 0.001), { radius: 0.003 }));
    }
    if (apron) legs.add(roundedBox(v3(-x1, -0.014, under * 0.45), v3(x1, 0.014, under * 0.45 + 0.07), { radius: 0.002 }));
  } else {
    const foot = Math.min(w, d) * 0.62;
    const r = leg * 0.7;
    legs.add(
      lathe(
        [
          [0, 0],
          [foot, 0],
          [foot, 0],
          [foot, 0.012],
          [foot * 0.6, 0.028],
          [r * 1.25, 0.05],
          [r, 0.12],
          [r, under - 0.06],
          [r * 1.5, under - 0.02],
          [foot * 0.7, under - 0.012],
          [foot * 0.7, under - 0.012],
          [foot * 0.7, under + 0.001],
          [0, under + 0.001],
        ],
        { segments: 40 },
      ),
    );
  }
  return [
    { part: 'top', mesh: slab(topOutline(size, top), under, height, 0.009) },
    { part: 'legs', mesh: legs.build() },
  ];
}

const tableSymbol = (size: PieceSize, { top }: TableTraits) => [outline(within(0.002, () => topOutline(size, top)))];

/** A pseudo-random number in 0…1 from two whole numbers, for leaves and folds that differ but never change. */
const scatter = (a: number, b: number): number => {
  const v = Math.sin(a * 127.1 + b * 311.7) * 43758.5453;
  return v - Math.floor(v);
};

export const tables: StockItem[] = [
  maker({
    id: 'table',
    name: 'Table',
    category: 'Tables',
    traits: tableTraits(0.065),
    size: { width: 1.8, depth: 0.9, height: 0.75 },
    min: { width: 0.6, depth: 0.3, height: 0.6 },
    max: { width: 3.2, depth: 1.6, height: 1.1 },
    mount: 'floor',
    parts: { top: 'timber.oak', legs: 'timber.oak' },
    cards: [
      { id: 'table', name: 'Dining table' },
      {
        id: 'table-round',
        name: 'Round table',
        size: { width: 1.2, depth: 1.2, height: 0.75 },
        traits: { top: 'round', base: 'pedestal', leg: 0.09 },
        words: 'dining',
      },
      { id: 'table-oval', name: 'Oval table', size: { width: 2, depth: 1.05, height: 0.75 }, traits: { top: 'round' }, words: 'dining' },
      {
        id: 'table-trestle',
        name: 'Trestle table',
        size: { width: 2, depth: 0.85, height: 0.75 },
        traits: { base: 'trestles', leg: 0.045 },
        words: 'dining desk',
      },
      {
        id: 'table-soft',
        name: 'Rounded table',
        size: { width: 1.6, depth: 0.9, height: 0.75 },
        traits: { top: 'round corners', apron: false },
        words: 'dining',
      },
      { id: 'console', name: 'Console table', size: { width: 1.2, depth: 0.34, height: 0.8 }, traits: { leg: 0.04 }, words: 'hall' },
      { id: 'desk', name: 'Writing table', size: { width: 1.3, depth: 0.65, height: 0.74 }, traits: { leg: 0.045, thick: 0.026 }, words: 'desk study' },
      {
        id: 'table-bar',
        name: 'Bar table',
        size: { width: 0.7, depth: 0.7, height: 1.05 },
        traits: { top: 'round', base: 'pedestal', leg: 0.07 },
        words: 'high',
      },
    ],
    make: table,
    symbol: tableSymbol,
  }),
  maker({
    id: 'low-table',
    name: 'Low table',
    category: 'Tables',
    traits: tableTraits(0.032),
    size: { width: 1.1, depth: 0.6, height: 0.4 },
    min: { width: 0.3, depth: 0.3, height: 0.3 },
    max: { width: 1.6, depth: 1.2, height: 0.6 },
    mount: 'floor',
    parts: { top: 'timber.walnut', legs: 'metal.iron-black' },
    words: 'coffee side',
    cards: [
      { id: 'low-table', name: 'Low table' },
      { id: 'low-table-round', name: 'Round low table', size: { width: 0.8, depth: 0.8, height: 0.38 }, traits: { top: 'round', apron: false } },
      { id: 'low-table-soft', name: 'Rounded low table', size: { width: 1.2, depth: 0.7, height: 0.36 }, traits: { top: 'round corners', apron: false } },
      {
        id: 'side-table',
        name: 'Side table',
        size: { width: 0.42, depth: 0.42, height: 0.52 },
        traits: { top: 'round', base: 'pedestal', leg: 0.03, thick: 0.018 },
        words: 'lamp bedside',
      },
    ],
    make: table,
    symbol: tableSymbol,
  }),
  {
    id: 'bench-table',
    name: 'Work bench',
    category: 'Tables',
    size: { width: 2.0, depth: 0.75, height: 0.9 },
    min: { width: 1.0, depth: 0.55, height: 0.7 },
    max: { width: 3.0, depth: 1.0, height: 1.0 },
    mount: 'floor',
    parts: { top: 'timber.ash', legs: 'timber.ash', drawers: 'paint.soot', handles: 'metal.brass-brushed' },
    words: 'desk workshop bookbinder',
    make(size) {
      const parts = table(size, { top: 'square corners', base: 'four legs', leg: 0.085, thick: 0.032, apron: true });
      const drawers = new MeshBuilder();
      const handles = new MeshBuilder();
      const { width, depth, height } = size;
      const w = width / 2 - 0.14;
      const count = Math.max(2, Math.round(width / 0.7));
      const step = (2 * w) / count;
      for (let i = 0; i < count; i++) {
        const x0 = -w + i * step + 0.01;
        drawers.add(roundedBox(v3(x0, -depth / 2 + 0.055, height - 0.16), v3(x0 + step - 0.02, depth / 2 - 0.2, height - 0.045), { radius: 0.003, steps: 1 }));
        handles.add(
          lathe(
            [
              [0, 0],
              [0.014, 0.004],
              [0.012, 0.016],
              [0.007, 0.024],
              [0, 0.024],
            ],
            { segments: 12 },
          ),
          [1, 0, 0, 0, 0, 0, -1, 0, 0, 1, 0, 0, x0 + step / 2 - 0.01, -depth / 2 + 0.055 - 0.024 + 0.024, height - 0.1, 1],
        );
      }
      return [...parts, { part: 'drawers', mesh: drawers.build() }, { part: 'handles', mesh: handles.build() }];
    },
    symbol: ({ width, depth }) => [outline(rectangle(width, depth)), stroke([-width / 2, -depth / 2 + 0.06], [width / 2, -depth / 2 + 0.06])],
  },
  {
    id: 'rug',
    lies: true,
    name: 'Rug',
    category: 'Textiles',
    size: { width: 2.4, depth: 1.7, height: 0.012 },
    min: { width: 0.5, depth: 0.5, height: 0.006 },
    max: { width: 5, depth: 4, height: 0.03 },
    mount: 'floor',
    parts: { field: 'carpet.wool-oat', border: 'cloth.ink-linen' },
    words: 'carpet mat',
    make({ width, depth, height }) {
      const [w, d] = [width / 2, depth / 2];
      const b = 0.05;
      const border = new MeshBuilder();
      for (const [x0, y0, x1, y1] of [
        [-w, -d, w, -d + b],
        [-w, d - b, w, d],
        [-w, -d + b, -w + b, d - b],
        [w - b, -d + b, w, d - b],
      ])
        border.add(roundedBox(v3(x0, y0, 0.001), v3(x1, y1, height * 0.92), { radius: height * 0.4, steps: 2 }));
      return [
        { part: 'field', mesh: new MeshBuilder().box(-w + b, -d + b, 0.001, w - b, d - b, height).build() },
        { part: 'border', mesh: border.build() },
      ];
    },
    symbol: ({ width, depth }) => [outline(rectangle(width, depth), true), outline(rectangle(width - 0.1, depth - 0.1), true)],
  },
  {
    id: 'curtain',
    name: 'Curtain pair',
    category: 'Textiles',
    size: { width: 1.8, depth: 0.14, height: 2.2 },
    min: { width: 0.6, depth: 0.1, height: 0.8 },
    max: { width: 4.5, depth: 0.22, height: 3.2 },
    mount: 'window',
    parts: { cloth: 'cloth.oat-weave', rail: 'metal.iron-black' },
    words: 'drapes window covering blind shade',
    make({ width, depth, height }) {
      const cloth = new MeshBuilder();
      const w = width / 2;
      const stack = Math.max(0.16, width * 0.16);
      const amplitude = depth * 0.32;
      for (const side of [-1, 1]) {
        const folds = Math.max(3, Math.round(stack / 0.075));
        cloth.add(
          sheet(
            (from, v) => {
              // Both face the room: one is made from its outer edge, the other towards it.
              const u = side < 0 ? from : 1 - from;
              const drop = 1 - v;
              const x = side * (w - 0.03 - u * stack * (1 + 0.08 * drop));
              const phase = u * folds * 2 * Math.PI + Math.sin(u * 9 + side) * 0.6;
              const y = Math.sin(phase) * amplitude * (0.72 + 0.28 * drop) + 0.006 * Math.sin(drop * 5 + u * 20);
              return v3(x, y, 0.012 + v * (height - 0.06));
            },
            folds * 10,
            14,
            stack * 2.2,
            height,
          ),
        );
      }
      const rail = new MeshBuilder().add(tube([v3(-w, 0, height - 0.025), v3(w, 0, height - 0.025)], 0.011, 12));
      for (const x of [-w, w])
        rail.add(
          lathe(
            [
              [0, -0.02],
              [0.018, -0.012],
              [0.022, 0],
              [0.018, 0.012],
              [0, 0.02],
            ],
            { segments: 14 },
          ),
          [0, 0, -1, 0, 0, 1, 0, 0, 1, 0, 0, 0, x, 0, height - 0.025, 1],
        );
      return [
        { part: 'cloth', mesh: cloth.build() },
        { part: 'rail', mesh: rail.build() },
      ];
    },
    symbol: ({ width, depth }) => {
      const wave = (side: number): [number, number][] =>
        Array.from({ length: 21 }, (_, i) => [side * (width / 2 - (i / 20) * Math.max(0.16, width * 0.16)), (i % 2 ? 0.3 : -0.3) * depth]);
      return [stroke([-width / 2, 0], [width / 2, 0]), stroke(...wave(-1)), stroke(...wave(1))];
    },
  },
  {
    id: 'plant',
    name: 'Rubber plant',
    category: 'Greenery',
    size: { width: 0.7, depth: 0.7, height: 1.4 },
    min: { width: 0.25, depth: 0.25, height: 0.4 },
    max: { width: 1.4, depth: 1.4, height: 2.4 },
    mount: 'floor',
    parts: { leaves: 'leaf.green', stems: 'timber.walnut', pot: 'clay.pot', soil: 'ground.soil' },
    words: 'pot green tree',
    make({ width, depth, height }) {
      const pot = Math.min(0.17, width * 0.26);
      const potHeight = Math.min(pot * 1.9, height * 0.3);
      const leaves = new MeshBuilder();
      const stems = new MeshBuilder();
      const reach = Math.min(width, depth) / 2;
      const count = 4;
      for (let s = 0; s < count; s++) {
        const a = (s / count) * 2 * Math.PI + 0.7;
        const lean = 0.35 * reach * (0.5 + scatter(s, 1));
        const top = height * (0.72 + 0.24 * scatter(s, 2));
        const path = Array.from({ length: 8 }, (_, i) => {
          const t = i / 7;
          return v3(Math.cos(a) * (0.02 + lean * t * t), Math.sin(a) * (0.02 + lean * t * t), potHeight * 0.85 + (top - potHeight * 0.85) * t);
        });
        stems.add(tube(path, 0.008, 8));
        const n = 11;
        for (let k = 0; k < n; k++) {
          const t = 0.18 + (0.82 * k) / (n - 1);
          const p = path[Math.min(6, Math.floor(t * 7))];
          const q = path[Math.min(7, Math.floor(t * 7) + 1)];
          const f = t * 7 - Math.floor(t * 7);
          const base = v3(p.x + (q.x - p.x) * f, p.y + (q.y - p.y) * f, p.z + (q.z - p.z) * f);
          const turn = k * 2.4 + s * 1.3;
          const len = Math.min(0.24, reach * 0.75) * (0.75 + 0.4 * scatter(k, s + 5)) * (1 - 0.25 * t);
          const wide = len * 0.42;
          const rise = 0.75 - 1.1 * scatter(k, s + 9) + t * 0.5;
          const [c, d] = [Math.cos(turn), Math.sin(turn)];
          leaves.add(
            sheet(
              (u, v) => {
                const across = (v - 0.5) * 2;
                const half = wide * Math.sin(Math.PI * Math.min(1, 0.04 + u * 0.96)) ** 0.75 * 0.5;
                const r = 0.03 + len * u;
                const droop = rise * len * u - 0.55 * len * u * u + Math.abs(across) * half * 0.35;
                return v3(base.x + c * r - d * across * half, base.y + d * r + c * across * half, base.z + droop);
              },
              7,
              4,
              len,
              wide,
            ),
          );
          stems.add(tube([base, v3(base.x + c * 0.035, base.y + d * 0.035, base.z + 0.01)], 0.003, 5));
        }
      }
      return [
        { part: 'leaves', mesh: leaves.build() },
        { part: 'stems', mesh: stems.build() },
        {
          part: 'pot',
          mesh: lathe(
            [
              [0, 0],
              [pot * 0.72, 0],
              [pot * 0.74, 0.01],
              [pot * 0.96, potHeight * 0.86],
              [pot, potHeight * 0.86],
              [pot, potHeight * 0.86],
              [pot, potHeight],
              [pot, potHeight],
              [pot * 0.9, potHeight],
              [pot * 0.9, potHeight],
              [pot * 0.86, potHeight * 0.8],
            ],
            { segments: 32 },
          ),
        },
        { part: 'soil', mesh: cylinder(0, 0, potHeight * 0.7, potHeight * 0.86, pot * 0.86, pot * 0.88, 24) },
      ];
    },
    symbol: ({ width, depth }) => {
      const r = Math.min(width, depth) / 2;
      const star = Array.from({ length: 18 }, (_, i) => {
        const a = (i / 18) * 2 * Math.PI;
        const k = i % 2 ? 0.72 : 1;
        return { x: r * k * Math.cos(a), y: r * k * Math.sin(a) };
      });
      return [outline(star), outline(circle(Math.min(0.17, width * 0.26)))];
    },
  },
  {
    id: 'mirror',
    foot: 1.2,
    name: 'Round mirror',
    category: 'Kitchen & bath',
    size: { width: 0.7, depth: 0.03, height: 0.7 },
    min: { width: 0.3, depth: 0.02, height: 0.3 },
    max: { width: 1.4, depth: 0.06, height: 1.4 },
    mount: 'wall',
    parts: { glass: 'mirror.silver', rim: 'metal.brass-brushed' },
    words: 'looking glass bathroom hall',
    make({ width, depth, height }) {
      const r = width / 2;
      const upright = [1, 0, 0, 0, 0, 0, height / width, 0, 0, -1, 0, 0, 0, depth / 2, height / 2, 1];
      return [
        {
          part: 'glass',
          mesh: new MeshBuilder()
            .add(
              lathe(
                [
                  [r - 0.012, depth * 0.7],
                  [0, depth * 0.7],
                ],
                { segments: 48 },
              ),
              upright,
            )
            .build(),
        },
        {
          part: 'rim',
          mesh: new MeshBuilder()
            .add(
              lathe(
                [
                  [0, 0],
                  [r, 0],
                  [r, 0],
                  [r, depth],
                  [r, depth],
                  [r - 0.012, depth],
                  [r - 0.012, depth],
                  [r - 0.012, depth * 0.7],
                ],
                { segments: 48 },
              ),
              upright,
            )
            .build(),
        },
      ];
    },
    symbol: ({ width, depth }) => [outline(rectangle(width, depth))],
  },
];
