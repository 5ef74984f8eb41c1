import { BOUND } from './shelves';
import { z } from 'zod';
import { MeshBuilder, type Mesh } from '../../geometry/mesh';
import { cuts, isFine } from '../../geometry/shapes';
import type { Vec3 } from '../../geometry/vec';
import { board, timber } from '../forms/boards';
import { about, shiftBy, stretched } from '../forms/carry';
import { roundRectangle, slab } from '../forms/flat';
import { blade } from '../forms/leaves';
import { randomFrom } from '../forms/random';
import { bar, curve, loft, rod } from '../forms/skin';
import { post, turned, vessel } from '../forms/turned';
import { choice, count } from '../traits';
import { maker, outline, rectangle, v3, type Made, type PieceSize, type StockItem } from '../types';
import { book, rowOfBooks, type BookGroups } from './books';
import { lying } from './vessels';

const bookTraits = z.object({ lie: choice('Lie', ['in a row', 'stacked', 'open'], 'in a row'), seed: count('Order', { min: 1, max: 40, first: 1 }) });

function books({ width, depth, height }: PieceSize, { lie, seed }: z.output<typeof bookTraits>): Made[] {
  const groups: BookGroups = { covers: [0, 1, 2, 3, 4].map(() => new MeshBuilder()), leaves: new MeshBuilder() };
  const random = randomFrom(seed);
  if (lie === 'in a row') rowOfBooks(groups, -width / 2, width / 2, -depth / 2, 0, height + 0.012, depth, 1, seed);
  else if (lie === 'stacked') {
    let at = 0;
    for (let i = 0; at + 0.012 < height; i++) {
      const thick = Math.min(height - at, 0.014 + 0.024 * random());
      const k = 1 - 0.28 * random() * Math.min(1, i / 4);
      book(groups, i + seed, (depth - 0.012) * k, (width - 0.012) * k, thick, about('z', 0.12 * (random() - 0.5) * Math.min(1, i), 0, 0, at));
      at += thick;
    }
  } else {
    // An open book: two blocks that fall away from the fold, leaves that curl.
    const n = cuts(isFine() ? 14 : 8, 4);
    const ring = (x: number, s: number): Vec3[] => {
      const t = Math.abs(x) / (width / 2);
      const top = Math.max(0.004, (height - 0.002) * (0.55 + 0.45 * Math.sin(Math.PI * Math.min(1, t * 0.9 + 0.08)) ** 0.6) * (t > 0.96 ? 0.9 : 1));
      return [
        v3(s * Math.abs(x), -depth / 2 + 0.004, 0.003),
        v3(s * Math.abs(x), depth / 2 - 0.004, 0.003),
        v3(s * Math.abs(x), depth / 2 - 0.004, top),
        v3(s * Math.abs(x), -depth / 2 + 0.004, top),
      ];
    };
    for (const s of [-1, 1]) {
      const rings = Array.from({ length: n + 1 }, (_, i) => ring(((width / 2 - 0.005) * i) / n + 0.0005, s));
      groups.leaves.add(loft(s > 0 ? rings : rings.reverse(), { crease: 0.5 }));
      groups.covers[0].add(board(s < 0 ? -width / 2 : 0.001, -depth / 2, 0, s < 0 ? -0.001 : width / 2, depth / 2, 0.0028, 0.0006));
    }
  }
  return [
    ...(['first', 'second', 'third', 'fourth', 'fifth'] as const).map((k, i) => ({ part: `books, ${k}`, mesh: groups.covers[i].build() })),
    { part: 'leaves', mesh: groups.leaves.build() },
  ];
}

const bootTraits = z.object({ kind: choice('Kind', ['boots', 'shoes', 'slippers'], 'boots'), pairs: count('Pairs', { min: 1, max: 6, first: 1 }) });

/** A boot from its sole up: rings of a foot, then of a leg. */
function footwear(kind: 'boots' | 'shoes' | 'slippers', long: number, high: number, left: boolean): { upper: Mesh; sole: Mesh } {
  const n = cuts(isFine() ? 28 : 18, 10);
  const wide = long * 0.36;
  const foot = (k: number, zz: number, from = 0, to = 1): Vec3[] =>
    Array.from({ length: n }, (_, i) => {
      const a = (2 * Math.PI * i) / n;
      const t = (1 - Math.cos(a)) / 2;
      const u = from + (to - from) * t;
      // Narrow at the waist, broad at the ball; the toe turns inwards a little.
      const half = (wide / 2) * (0.78 + 0.3 * Math.sin(Math.PI * (0.15 + 0.75 * u)) - 0.16 * Math.exp(-(((u - 0.36) / 0.14) ** 2))) * k;
      // Heel and toe are blunter than an ellipse.
      return v3(-half * Math.sign(Math.sin(a)) * Math.abs(Math.sin(a)) ** 0.62 + (left ? 1 : -1) * 0.012 * u * u, long / 2 - u * long * (0.94 + 0.06 * k), zz);
    });
  const sole = loft([foot(0.94, 0), foot(1, 0.003), foot(1, 0.02), foot(0.97, 0.023)], { crease: 1.6 });
  const upper: Vec3[][] = [foot(0.93, 0.022), foot(0.97, 0.035)];
  if (kind === 'boots') {
    upper.push(
      foot(0.95, 0.06),
      foot(0.84, 0.09, 0, 0.82),
      foot(0.8, 0.12, 0, 0.56),
      foot(0.84, 0.16, 0, 0.47),
      foot(0.9, high * 0.7, 0, 0.47),
      foot(1, high * 0.97, 0, 0.5),
      foot(1.01, high, 0, 0.5),
      foot(0.97, high - 0.004, 0.004, 0.49),
      foot(0.84, 0.16, 0.01, 0.45),
    );
  } else {
    const h = kind === 'shoes' ? 0.075 : 0.06;
    upper.push(foot(0.92, h * 0.7), foot(0.82, h, 0, 0.72), foot(0.72, h + 0.006, 0.02, 0.56), foot(0.64, h, 0.04, 0.52), foot(0.7, 0.032, 0.04, 0.56));
  }
  return { upper: loft(upper, { crease: 1.5 }), sole };
}

function boots({ width, depth, height }: PieceSize, { kind, pairs }: z.output<typeof bootTraits>): Made[] {
  const uppers = new MeshBuilder();
  const soles = new MeshBuilder();
  const each = width / pairs;
  for (let i = 0; i < pairs; i++)
    for (const s of [-1, 1]) {
      const { upper, sole } = footwear(kind, depth * 0.96, 0.36, s < 0);
      const narrow = Math.min(1, (each * 0.47) / (depth * 0.96 * 0.4));
      const m = stretched(narrow, 1, kind === 'boots' ? height / 0.36 : Math.min(1, height / 0.085), -width / 2 + each * (i + 0.5) + s * each * 0.235, 0, 0);
      uppers.add(upper, m);
      soles.add(sole, m);
    }
  return [
    { part: 'upper', mesh: uppers.build() },
    { part: 'sole', mesh: soles.build() },
  ];
}

const toolTraits = z.object({ set: choice('Tools', ['bench tools', 'bookbinder', 'gardener', 'toolbox'], 'bench tools') });

function tools({ width, depth, height }: PieceSize, { set }: z.output<typeof toolTraits>): Made[] {
  const wood = new MeshBuilder();
  const steel = new MeshBuilder();
  const other = new MeshBuilder();
  const [w, d] = [width / 2, depth / 2];
  const handle = (long: number, r: number): Mesh =>
    turned(
      [
        [0, 0],
        [r * 0.8, 0],
        [r, long * 0.2],
        [r * 0.78, long * 0.55],
        [r * 0.95, long * 0.85],
        [r * 0.6, long],
        [0, long],
      ],
      { segments: 16, round: 0.002 },
    );
  const lay = (x: number, y: number, turn: number, up: number) => [
    Math.cos(turn),
    Math.sin(turn),
    0,
    0,
    0,
    0,
    1,
    0,
    Math.sin(turn),
    -Math.cos(turn),
    0,
    0,
    x,
    y,
    up,
    1,
  ];
  if (set === 'toolbox') {
    const t = 0.01;
    for (const y of [-1, 1]) other.add(board(-w, y < 0 ? -d : d - t, 0, w, y < 0 ? -d + t : d, height * 0.55));
    for (const x of [-1, 1])
      other
        .add(board(x < 0 ? -w + 0.0005 : w - t, -d + t, 0, x < 0 ? -w + t : w - 0.0005, d - t, height * 0.62))
        .add(bar(v3(x * (w - t), 0, height * 0.5), v3(x * (w - t), 0, height - 0.012), 0.014, 0.012, { flat: 0.4, up: v3(0, 1, 0) }));
    other.add(board(-w + t, -d + t, 0.003, w - t, d - t, 0.012));
    wood.add(bar(v3(-w + 0.004, 0, height - 0.018), v3(w - 0.004, 0, height - 0.018), 0.0145));
    for (const [x, y] of [
      [-w * 0.5, -d * 0.4],
      [-w * 0.1, d * 0.4],
      [w * 0.35, -d * 0.35],
    ]) {
      wood.add(handle(height * 0.4, 0.013), shiftBy(x, y, height * 0.38));
      steel.add(bar(v3(x, y, 0.02), v3(x, y, height * 0.4), 0.004));
    }
  } else if (set === 'bookbinder') {
    // A press of two boards and two screws, a bone folder, a hammer, thread.
    const pw = Math.min(w * 1.1, 0.2);
    const ph = Math.min(height, 0.22);
    const x = -w + pw;
    for (const zz of [0, ph * 0.42]) wood.add(timber(x - pw, -d * 0.75, zz, x + pw * 0.98, d * 0.75, zz + 0.03));
    other.add(board(x - pw * 0.6, -d * 0.6, 0.031, x + pw * 0.6, d * 0.6, ph * 0.42 - 0.0006, 0.002));
    for (const k of [-0.8, 0.78])
      steel
        .add(post(x + pw * k, 0, 0.02, ph * 0.86, 0.009))
        .add(bar(v3(x + pw * k - 0.035, 0, ph * 0.86), v3(x + pw * k + 0.035, 0, ph * 0.86), 0.006))
        .add(post(x + pw * k, 0, ph * 0.42 + 0.03, ph * 0.42 + 0.045, 0.02));
    other.add(slab(roundRectangle(0.15, 0.02, 0.009), 0, 0.004, 0.0018), about('z', 0.5, w - 0.1, -d * 0.4, 0));
    wood.add(handle(0.14, 0.011), lay(w - 0.03, d * 0.2, 2.6, 0.012));
    other.add(
      turned(
        [
          [0, 0],
          [0.02, 0],
          [0.02, 0.005],
          [0.012, 0.008],
          [0.012, 0.045],
          [0.02, 0.048],
          [0.02, 0.053],
          [0, 0.053],
        ],
        { x: w - 0.06, y: d * 0.6, segments: 20 },
      ),
    );
  } else if (set === 'gardener') {
    const fork = (x: number): void => {
      wood.add(handle(0.12, 0.013), lay(x, d - 0.005, 0, 0.016));
      steel.add(rod([v3(x, d - 0.12, 0.016), v3(x, d - 0.18, 0.02)], 0.005));
      for (const k of [-0.02, 0, 0.02])
        steel.add(
          rod([v3(x + k * 0.5, d - 0.178, 0.02), v3(x + k, d - 0.2, 0.018), v3(x + k, -d + 0.01, 0.008)], (t) => 0.003 * (1 - 0.6 * t), { section: 6 }),
        );
    };
    fork(-w * 0.55);
    wood.add(handle(0.12, 0.013), lay(0, d - 0.005, 0, 0.016));
    steel
      .add(rod([v3(0, d - 0.12, 0.016), v3(0, d - 0.17, 0.02)], 0.005))
      .add(blade(v3(0, d - 0.165, 0.018), { x: 0, y: -1, z: -0.05 }, { length: depth - 0.18, width: 0.07, outline: 'spoon', fold: 0.45, droop: 0.1 }));
    other.add(
      turned(
        vessel(
          [
            [0.024, 0],
            [0.036, height * 0.7],
            [0.034, height],
          ],
          0.002,
        ),
        { x: w * 0.6, y: 0, segments: 24 },
      ),
    );
  } else {
    // Hammer, saw, plane, square, chisels side by side.
    wood.add(handle(Math.min(0.26, depth * 0.8), 0.014), lay(-w + 0.05, d - 0.01, 0, 0.018));
    steel.add(bar(v3(-w + 0.005, -d + 0.05, 0.02), v3(-w + 0.11, -d + 0.05, 0.02), 0.013, 0.011, { section: 12 }));
    const px = -w + 0.19;
    wood
      .add(slab(roundRectangle(0.062, Math.min(0.24, depth * 0.8), 0.012), 0, Math.min(0.045, height * 0.5), 0.004), shiftBy(px, 0, 0))
      .add(rod(curve([v3(px, d * 0.35, 0.03), v3(px, d * 0.5, Math.min(0.1, height * 0.8)), v3(px, d * 0.3, Math.min(0.11, height * 0.9))], cuts(5, 2)), 0.012))
      .add(post(px, -d * 0.4, 0.03, Math.min(0.085, height * 0.8), 0.013, 0.017));
    steel.add(board(px - 0.021, d * 0.02, 0.02, px + 0.021, d * 0.02 + 0.004, Math.min(0.1, height * 0.8), 0.0008));
    const n = Math.max(1, Math.floor((2 * w - 0.32) / 0.045));
    for (let i = 0; i < n; i++) {
      const x = -w + 0.28 + i * 0.045;
      wood.add(handle(0.11, 0.0125), lay(x, d - 0.01, 0, 0.014));
      steel.add(board(x - 0.004 - 0.002 * i, -d + 0.03, 0.012, x + 0.004 + 0.002 * i, d - 0.118, 0.016, 0.0006));
    }
  }
  return [
    { part: 'wood', mesh: wood.build() },
    { part: 'steel', mesh: steel.build() },
    { part: 'other', mesh: other.build() },
  ];
}

export const belongings: StockItem[] = [
  maker({
    id: 'books',
    name: 'Books',
    category: 'Books & things',
    traits: bookTraits,
    size: { width: 0.4, depth: 0.2, height: 0.28 },
    min: { width: 0.08, depth: 0.12, height: 0.02 },
    max: { width: 1.6, depth: 0.5, height: 0.4 },
    mount: 'top',
    foot: 0.8,
    parts: { ...BOUND },
    words: 'read shelf',
    sold: { supplier: 'Marren Market Hall', price: 60 },
    cards: [
      { id: 'books', name: 'Row of books' },
      { id: 'books-stacked', name: 'Stack of books', size: { width: 0.3, depth: 0.23, height: 0.14 }, traits: { lie: 'stacked', seed: 3 } },
      { id: 'book-open', name: 'Open book', size: { width: 0.36, depth: 0.25, height: 0.03 }, traits: { lie: 'open' } },
    ],
    make: books,
    symbol: lying,
  }),
  maker({
    id: 'boots',
    name: 'Boots',
    category: 'Books & things',
    traits: bootTraits,
    size: { width: 0.24, depth: 0.3, height: 0.36 },
    min: { width: 0.16, depth: 0.2, height: 0.08 },
    max: { width: 1.6, depth: 0.34, height: 0.46 },
    mount: 'floor',
    parts: { upper: 'cloth.black-hide', sole: 'cloth.tan-hide' },
    words: 'shoes wellingtons porch hall',
    sold: { supplier: 'Marren Market Hall', price: 90 },
    cards: [
      { id: 'boots', name: 'Boots' },
      {
        id: 'boots-pairs',
        name: 'Boots of the house',
        size: { width: 0.76, depth: 0.3, height: 0.34 },
        traits: { pairs: 3 },
        finishes: { upper: 'metal.enamel-green' },
      },
      { id: 'shoes', name: 'Shoes', size: { width: 0.24, depth: 0.29, height: 0.1 }, traits: { kind: 'shoes' }, finishes: { upper: 'cloth.oxblood-hide' } },
    ],
    make: boots,
    symbol: ({ width, depth }, { pairs }) =>
      Array.from({ length: pairs * 2 }, (_, i) => outline(rectangle((width / pairs) * 0.38, depth, -width / 2 + (width / (pairs * 2)) * (i + 0.5), 0))),
  }),
  maker({
    id: 'tools',
    name: 'Tools',
    category: 'Books & things',
    traits: toolTraits,
    size: { width: 0.5, depth: 0.3, height: 0.12 },
    min: { width: 0.36, depth: 0.2, height: 0.08 },
    max: { width: 0.9, depth: 0.4, height: 0.4 },
    mount: 'top',
    foot: 0.9,
    parts: { wood: 'timber.beech', steel: 'metal.steel-brushed', other: 'paper.cream' },
    words: 'workshop bench hammer press',
    sold: { supplier: 'Brake Forge', price: 140 },
    cards: [
      { id: 'tools', name: 'Bench tools' },
      { id: 'tools-binder', name: 'Bookbinder’s tools', size: { width: 0.7, depth: 0.32, height: 0.22 }, traits: { set: 'bookbinder' }, words: 'press' },
      {
        id: 'tools-garden',
        name: 'Garden hand tools',
        size: { width: 0.4, depth: 0.34, height: 0.1 },
        traits: { set: 'gardener' },
        finishes: { other: 'clay.pot' },
      },
      { id: 'toolbox', name: 'Tool box', size: { width: 0.5, depth: 0.24, height: 0.3 }, traits: { set: 'toolbox' }, finishes: { other: 'timber.pine' } },
    ],
    make: tools,
    symbol: lying,
  }),
];
