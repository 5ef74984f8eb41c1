import { z } from 'zod';
import { MeshBuilder } from '../../geometry/mesh';
import { cuts, isFine, isLight, lathe } from '../../geometry/shapes';
import type { Vec3 } from '../../geometry/vec';
import { NEAR } from '../../units/tolerance';
import { board, timber } from '../forms/boards';
import { about, shiftBy } from '../forms/carry';
import { roundRectangle } from '../forms/flat';
import { randomFrom } from '../forms/random';
import { bar, curve, loft, loop, rod, skin } from '../forms/skin';
import { cushion } from '../forms/soft';
import { post, turned } from '../forms/turned';
import { choice, toggle } from '../traits';
import { maker, v3, type Made, type PieceSize, type StockItem } from '../types';
import { fruit, lying, round } from './vessels';

const toyTraits = z.object({ kind: choice('Toy', ['blocks', 'train', 'rings', 'boat', 'balls'], 'blocks') });

function toys({ width, depth, height }: PieceSize, { kind }: z.output<typeof toyTraits>): Made[] {
  const groups = [0, 1, 2].map(() => new MeshBuilder());
  const random = randomFrom(3);
  const [w, d] = [width / 2, depth / 2];
  if (kind === 'blocks') {
    const s = Math.min(width, depth, height) * 0.3;
    const spots: [number, number, number, number][] = [];
    const n = Math.max(2, Math.floor((width - 0.01) / (s * 1.35)));
    for (let i = 0; i < n; i++) spots.push([-w + s * 0.75 + i * s * 1.3, -d + s * 0.8 + (depth - 1.7 * s) * random(), 0, 0.7 * (random() - 0.5)]);
    spots.push([spots[0][0] + s * 0.12, spots[0][1], s, 0.2], [spots[1][0] - s * 0.1, spots[1][1], s, -0.3], [spots[0][0] + s * 0.05, spots[0][1], 2 * s, 0.5]);
    spots.forEach(
      ([x, y, zz, a], i) =>
        zz + s <= height + NEAR &&
        groups[i % 3].add(
          board(-s / 2, -s / 2, 0, s / 2, s / 2, s, 0.003),
          about('z', a, Math.min(w - s * 0.72, Math.max(-w + s * 0.72, x)), Math.min(d - s * 0.72, Math.max(-d + s * 0.72, y)), zz),
        ),
    );
  } else if (kind === 'train') {
    const n = Math.max(2, Math.round(width / 0.16));
    const l = width / n;
    const r = Math.min(height * 0.2, l * 0.16);
    for (let i = 0; i < n; i++) {
      const x = -w + l * i;
      groups[0].add(timber(x + 0.004, -d * 0.7, r * 0.9, x + l - 0.008, d * 0.7, r * 1.8));
      if (i) groups[1 + (i % 2)].add(timber(x + 0.012, -d * 0.62, r * 1.8 - 0.0004, x + l - 0.016, d * 0.62, height * (0.66 + 0.1 * (i % 2))));
      else {
        groups[1]
          .add(
            bar(v3(x + l * 0.98 - 0.012, 0, r * 1.8 + height * 0.2), v3(x + l * 0.4, 0, r * 1.8 + height * 0.2), height * 0.2, height * 0.2, { section: 20 }),
          )
          .add(timber(x + 0.012, -d * 0.66, r * 1.8 - 0.0004, x + l * 0.42, d * 0.66, height));
        groups[2].add(post(x + l * 0.76, 0, height * 0.66, height * 0.95, height * 0.06, height * 0.08));
      }
      for (const y of [-1, 1])
        for (const k of [0.22, 0.74]) groups[2].add(bar(v3(x + l * k, y * d * 0.72, r), v3(x + l * k, y * d * 0.98, r), r, r, { section: 18 }));
      if (i) groups[2].add(bar(v3(x - 0.01, 0, r * 1.3), v3(x + 0.006, 0, r * 1.3), 0.003, 0.003, { section: 6 }));
    }
  } else if (kind === 'rings') {
    const r = Math.min(w, d);
    const n = 5;
    groups[0].add(
      turned(
        [
          [0, 0],
          [r, 0],
          [r, height * 0.07],
          [r * 0.16, height * 0.1],
          [r * 0.13, height * 0.92],
          [r * 0.2, height * 0.96],
          [0, height],
        ],
        { segments: 32, round: 0.003 },
      ),
    );
    for (let i = 0; i < n; i++) {
      const q = r * (0.9 - 0.13 * i);
      const t = (height * 0.78) / n / 2;
      const m = cuts(28, 12);
      groups[i % 2 ? 1 : 2].add(
        loop(
          Array.from({ length: m }, (_, k) =>
            v3((q - t) * Math.cos((2 * Math.PI * k) / m), (q - t) * Math.sin((2 * Math.PI * k) / m), height * 0.1 + t * (2 * i + 1)),
          ),
          t,
          12,
        ),
      );
    }
  } else if (kind === 'boat') {
    const n = cuts(isFine() ? 20 : 12, 6);
    const rings: Vec3[][] = [];
    for (let i = 0; i <= n; i++) {
      const t = i / n;
      const half = d * 0.96 * Math.min(1, 0.6 + 2 * t) * Math.max(0.03, 1 - t ** 3.2);
      const sheer = height * (0.26 + 0.08 * (2 * t - 1) ** 2);
      const x = -w * 0.98 + 2 * w * 0.98 * t;
      rings.push(
        [
          v3(x, half, sheer),
          v3(x, half * 0.9, sheer * 0.5),
          v3(x, half * 0.4, 0.003),
          v3(x, -half * 0.4, 0.003),
          v3(x, -half * 0.9, sheer * 0.5),
          v3(x, -half, sheer),
        ].reverse(),
      );
    }
    groups[0].add(loft(rings, { crease: 0.9 }));
    groups[1].add(rod([v3(w * 0.05, 0, height * 0.2), v3(w * 0.05, 0, height)], 0.003, { section: 8 }));
    groups[2].add(
      skin(
        [
          v3(w * 0.07, 0.001, height * 0.36),
          v3(w * 0.07, 0.001, height * 0.96),
          v3(w * 0.8, 0.012, height * 0.38),
          v3(w * 0.02, 0.001, height * 0.36),
          v3(w * 0.02, 0.001, height * 0.9),
          v3(-w * 0.8, 0.014, height * 0.38),
        ],
        [
          [0, 2, 1],
          [3, 4, 5],
        ],
      ),
    );
  } else {
    const spots = [
      [-0.5, 0.1, 0.5],
      [0.35, -0.3, 0.36],
      [0.45, 0.42, 0.28],
    ];
    spots.forEach(([x, y, k], i) => {
      const r = Math.min(height / 2, Math.min(w, d) * k * 1.2);
      const n = cuts(16, 7);
      groups[i].add(
        lathe(
          Array.from({ length: n + 1 }, (_, j) => [r * Math.sin((Math.PI * j) / n), r - r * Math.cos((Math.PI * j) / n)] as const),
          { x: Math.max(-w + r, Math.min(w - r, x * w)), y: Math.max(-d + r, Math.min(d - r, y * d)), segments: 28 },
        ),
      );
    });
  }
  return groups.map((g, i) => ({ part: ['first', 'second', 'third'][i], mesh: g.build() }));
}

const basketTraits = z.object({
  form: choice('Form', ['round', 'oblong', 'crate', 'bin'], 'round'),
  filling: choice('In it', ['nothing', 'blankets', 'toys'], 'nothing'),
  handles: toggle('Handles', true),
});

function basket({ width, depth, height }: PieceSize, { form, filling, handles }: z.output<typeof basketTraits>): Made[] {
  const weave = new MeshBuilder();
  const cloth = new MeshBuilder();
  const things = new MeshBuilder();
  const [w, d] = [width / 2 - (handles && form !== 'bin' ? 0.012 : 0), depth / 2];
  const rim = filling === 'nothing' ? height - (handles && form === 'round' ? height * 0.08 : 0) : height * 0.8;
  if (form === 'crate') {
    const t = 0.009;
    for (const x of [-1, 1])
      for (const y of [-1, 1])
        weave.add(
          timber(
            x < 0 ? -w + t : w - t - 0.02,
            y < 0 ? -d + t : d - t - 0.02,
            0.006,
            x < 0 ? -w + t + 0.02 : w - t,
            y < 0 ? -d + t + 0.02 : d - t,
            rim - 0.004,
          ),
        );
    const n = Math.max(2, Math.round(rim / 0.09));
    for (let i = 0; i < n; i++) {
      const [a, b] = [(rim * i) / n + 0.004, (rim * (i + 1)) / n - 0.008];
      for (const y of [-1, 1]) weave.add(timber(-w, y < 0 ? -d : d - t, a, w, y < 0 ? -d + t : d, b));
      for (const x of [-1, 1]) weave.add(timber(x < 0 ? -w + 0.0004 : w - t, -d + t, a + 0.0004, x < 0 ? -w + t : w - 0.0004, d - t, b - 0.0004));
    }
    weave.add(timber(-w + t, -d + t, 0, w - t, d - t, t));
  } else {
    const coils = cuts(Math.max(6, Math.round(rim / 0.017)), 4);
    const n = cuts(isFine() ? 56 : 36, 14);
    const oblong = form === 'oblong';
    const ring = (k: number, zz: number): Vec3[] =>
      oblong
        ? roundRectangle(2 * w * k, 2 * (d - Math.min(w, d) * (1 - k)), Math.min(w, d) * 0.45, cuts(6, 2)).map((p) => ({ ...p, z: zz }))
        : Array.from({ length: n }, (_, i) => v3(w * k * Math.cos((2 * Math.PI * i) / n), d * k * Math.sin((2 * Math.PI * i) / n), zz));
    const rings: Vec3[][] = [ring(0.77, 0), ring(0.8, 0.002)];
    const h = rim / coils / 2;
    for (let i = 0; i < coils; i++) {
      const t = (i + 0.5) / coils;
      const k = form === 'bin' ? 0.86 + 0.13 * t : 0.84 + 0.16 * Math.sin((Math.PI / 2) * Math.min(1, t * 1.35)) - 0.03 * t ** 3;
      for (const a of isLight() ? [0] : [-0.95, -0.35, 0.35, 0.95])
        rings.push(ring(Math.min(1, k - (h / Math.min(w, d)) * 1.4 * (1 - Math.cos(a))), rim * t + h * Math.sin(a) * 1.05));
    }
    rings.push(ring(0.9, rim - 0.002), ring(0.86, rim - 0.008), ring(0.76, 0.014));
    const m = rings[0].length;
    const points = rings.flat();
    const faces: number[][] = [];
    for (let a = 0; a + 1 < rings.length; a++)
      for (let i = 0; i < m; i++) faces.push([a * m + i, a * m + ((i + 1) % m), (a + 1) * m + ((i + 1) % m), (a + 1) * m + i]);
    for (const [k, up] of [
      [0, false],
      [rings.length - 1, true],
    ] as const) {
      const middle = points.length;
      points.push(v3(0, 0, rings[k][0].z));
      for (let i = 0; i < m; i++) faces.push(up ? [middle, k * m + i, k * m + ((i + 1) % m)] : [middle, k * m + ((i + 1) % m), k * m + i]);
    }
    weave.add(skin(points, faces, 1.35));
    if (handles && form !== 'bin')
      for (const s of [-1, 1]) {
        const lift = form === 'round' ? height * 0.08 : 0;
        weave.add(
          rod(
            curve(
              [
                v3(s * w * 0.96, -0.07, rim - 0.03),
                v3(s * (w + 0.003), -0.05, rim - 0.01 + lift * 0.7),
                v3(s * (w + 0.003), 0, rim - 0.008 + lift),
                v3(s * (w + 0.003), 0.05, rim - 0.01 + lift * 0.7),
                v3(s * w * 0.96, 0.07, rim - 0.03),
              ],
              cuts(4, 1),
            ),
            0.006,
            { section: 8 },
          ),
        );
      }
  }
  if (filling === 'blankets') {
    cloth.add(
      cushion({
        width: w * 1.5,
        depth: d * 1.45,
        thick: height - rim * 0.78,
        crown: 0.012,
        corner: Math.min(w, d) * 0.4,
        swell: [0.004, 0.004, 0.004, 0.004],
        piping: false,
        seed: 2,
      }),
      shiftBy(0, 0, rim * 0.72),
    );
  } else if (filling === 'toys') {
    const random = randomFrom(8);
    for (let i = 0; i < 9; i++) {
      const a = i * 2.39996;
      const q = 0.62 * Math.sqrt(i / 9);
      const s = Math.min(w, d) * 0.36;
      things.add(
        i % 3 ? board(-s / 2, -s / 2, 0, s / 2, s / 2, s, 0.004) : fruit('lemons', s * 0.6),
        about(i % 2 ? 'x' : 'y', random() * 1.2, q * w * Math.cos(a), q * d * Math.sin(a), Math.max(0.02, rim - s * 1.2 + s * 0.3 * random())),
      );
    }
  }
  const mesh = things.build();
  for (let k = 2; k < mesh.positions.length; k += 3) mesh.positions[k] = Math.min(height, mesh.positions[k]);
  return [
    { part: 'basket', mesh: weave.build() },
    { part: 'blankets', mesh: cloth.build() },
    { part: 'toys', mesh },
  ];
}

export const toysAndBaskets: StockItem[] = [
  maker({
    id: 'toys',
    name: 'Toys',
    category: 'Books & things',
    traits: toyTraits,
    size: { width: 0.3, depth: 0.2, height: 0.15 },
    min: { width: 0.12, depth: 0.08, height: 0.08 },
    max: { width: 0.9, depth: 0.6, height: 0.5 },
    mount: 'floor',
    parts: { first: 'timber.beech', second: 'sheet.lacquer-red', third: 'sheet.lacquer-petrol' },
    words: 'children play',
    sold: { supplier: 'Marren Market Hall', price: 32 },
    cards: [
      { id: 'toys', name: 'Building blocks' },
      { id: 'toy-train', name: 'Toy train', size: { width: 0.5, depth: 0.09, height: 0.12 }, traits: { kind: 'train' } },
      { id: 'toy-rings', name: 'Stacking rings', size: { width: 0.14, depth: 0.14, height: 0.22 }, traits: { kind: 'rings' } },
      { id: 'toy-boat', name: 'Toy boat', size: { width: 0.3, depth: 0.1, height: 0.28 }, traits: { kind: 'boat' }, finishes: { third: 'cloth.white-linen' } },
      { id: 'toy-balls', name: 'Balls', size: { width: 0.4, depth: 0.3, height: 0.16 }, traits: { kind: 'balls' } },
    ],
    make: toys,
    symbol: lying,
  }),
  maker({
    id: 'basket',
    name: 'Basket',
    category: 'Books & things',
    traits: basketTraits,
    size: { width: 0.42, depth: 0.4, height: 0.36 },
    min: { width: 0.18, depth: 0.16, height: 0.12 },
    max: { width: 0.9, depth: 0.7, height: 0.8 },
    mount: 'floor',
    parts: { basket: 'carpet.seagrass', blankets: 'cloth.basket-cream', toys: 'sheet.lacquer-red' },
    words: 'storage laundry crate',
    sold: { supplier: 'Marren Market Hall', price: 46 },
    cards: [
      { id: 'basket', name: 'Basket' },
      { id: 'basket-blankets', name: 'Basket of blankets', size: { width: 0.48, depth: 0.46, height: 0.46 }, traits: { filling: 'blankets' } },
      {
        id: 'basket-oblong',
        name: 'Shelf basket',
        size: { width: 0.36, depth: 0.26, height: 0.2 },
        traits: { form: 'oblong' },
        finishes: { basket: 'carpet.jute' },
      },
      {
        id: 'basket-laundry',
        name: 'Laundry basket',
        size: { width: 0.4, depth: 0.4, height: 0.6 },
        traits: { form: 'bin' },
        finishes: { basket: 'carpet.sisal' },
      },
      { id: 'basket-toys', name: 'Basket of toys', size: { width: 0.46, depth: 0.36, height: 0.36 }, traits: { form: 'oblong', filling: 'toys' } },
      {
        id: 'crate',
        name: 'Crate',
        size: { width: 0.46, depth: 0.32, height: 0.28 },
        traits: { form: 'crate', handles: false },
        finishes: { basket: 'timber.pine' },
      },
      {
        id: 'waste-bin',
        name: 'Paper bin',
        size: { width: 0.28, depth: 0.28, height: 0.32 },
        traits: { form: 'bin' },
        finishes: { basket: 'cloth.ink-linen' },
      },
    ],
    make: basket,
    symbol: round,
  }),
];
