import { z } from 'zod';
import { MeshBuilder } from '../../geometry/mesh';
import { isFine } from '../../geometry/shapes';
import { board, timber } from '../forms/boards';
import { bar, curve, rod, squareSection } from '../forms/skin';
import { choice, count, length, toggle } from '../traits';
import { maker, outline, rectangle, stroke, v3, type Made, type PieceSize, type StockItem } from '../types';
import { rowOfBooks, type BookGroups } from './books';

const bookcaseTraits = z.object({
  back: toggle('Back', true),
  form: choice('Form', ['uprights', 'ladder', 'steel frame'], 'uprights'),
  spacing: length('Between shelves', { min: 0.2, max: 0.6, first: 0.34, step: 0.01 }),
  books: choice('Books', ['none', 'some', 'many', 'full'], 'many'),
});

function bookcase({ width, depth, height }: PieceSize, { back, form, spacing, books }: z.output<typeof bookcaseTraits>): Made[] {
  const [w, d] = [width / 2, depth / 2];
  const t = 0.022;
  const carcass = new MeshBuilder();
  const frame = new MeshBuilder();
  const panel = new MeshBuilder();
  const groups: BookGroups = { covers: [0, 1, 2, 3, 4].map(() => new MeshBuilder()), leaves: new MeshBuilder() };
  const bays = Math.max(1, Math.round(width / 0.85));
  const shelves = Math.max(1, Math.round((height - 0.06) / spacing));
  const full = { none: 0, some: 0.45, many: 0.75, full: 1 }[books];
  const lean = form === 'ladder';
  for (let i = 0; i <= bays; i++) {
    const x = -w + t / 2 + ((width - t) * i) / bays;
    if (form === 'uprights') carcass.add(timber(x - t / 2, -d, 0, x + t / 2, d, height));
    else if (form === 'steel frame')
      for (const y of [-d + 0.012, d - 0.012]) frame.add(bar(v3(x, y, 0), v3(x, y, height), 0.0105, 0.0105, { section: squareSection(0.15) }));
    else {
      frame.add(bar(v3(x, -d + 0.02, 0), v3(x, d - 0.016, height), 0.014, 0.014, { section: squareSection(0.25), flat: 1.4 }));
      frame.add(bar(v3(x, d - 0.016, 0), v3(x, d - 0.016, height * 0.98), 0.011, 0.011, { section: squareSection(0.25) }));
    }
  }
  for (let s = 0; s <= shelves; s++) {
    const last = s === shelves;
    const zz = form === 'uprights' ? (s === 0 ? 0.06 : last ? height - t : 0.06 + ((height - 0.06) * s) / shelves) : 0.05 + ((height - 0.05 - t) * s) / shelves;
    if (lean && last) continue;
    const room = (height - 0.06) / shelves - t;
    // Shelves of a ladder grow shallower upwards.
    const front = lean ? -d + 0.03 + (zz / height) * (depth - 0.16) : -d + (form === 'uprights' ? 0.004 : 0.0);
    for (let i = 0; i < bays; i++) {
      const own = form === 'uprights';
      const x0 = own ? -w + t + ((width - t) * i) / bays : -w + (width * i) / bays + (i ? 0.001 : 0);
      const x1 = own ? x0 + (width - t) / bays - t : -w + (width * (i + 1)) / bays;
      carcass.add(board(x0, front, zz, x1, d - (own ? 0.0125 : 0.001), zz + t * (own ? 1 : 0.9), 0.0015));
      if (!last && full) {
        const seed = s * 7 + i * 3 + 1;
        const share = books === 'full' ? 0.98 : full * (0.7 + 0.3 * ((seed * 0.618) % 1));
        rowOfBooks(
          groups,
          x0 + 0.004,
          x1 - 0.004,
          Math.max(front + 0.006, d - 0.26),
          zz + t + 0.0003,
          room,
          d - 0.014 - Math.max(front + 0.006, d - 0.26),
          share,
          seed,
        );
      }
    }
    if (own_(form) && s === 0) carcass.add(board(-w + t, -d + 0.03, 0, w - t, -d + 0.045, 0.0595));
  }
  if (back && form === 'uprights') panel.add(board(-w + t - 0.002, d - 0.0095, 0.06, w - t + 0.002, d - 0.003, height - t));
  return [
    { part: 'carcass', mesh: carcass.build() },
    { part: 'back', mesh: panel.build() },
    { part: 'frame', mesh: frame.build() },
    { part: 'books, first', mesh: groups.covers[0].build() },
    { part: 'books, second', mesh: groups.covers[1].build() },
    { part: 'books, third', mesh: groups.covers[2].build() },
    { part: 'books, fourth', mesh: groups.covers[3].build() },
    { part: 'books, fifth', mesh: groups.covers[4].build() },
    { part: 'leaves', mesh: groups.leaves.build() },
  ];
}

const own_ = (form: string): boolean => form === 'uprights';

/** Cloths that books are bound in. */
export const BOUND = {
  'books, first': 'cloth.damson-linen',
  'books, second': 'cloth.flax-linen',
  'books, third': 'cloth.ink-linen',
  'books, fourth': 'cloth.tan-hide',
  'books, fifth': 'cloth.sage-linen',
  leaves: 'paper.cream',
} as const;

const wallShelfTraits = z.object({
  form: choice('Form', ['floating', 'brackets', 'ledge', 'cube'], 'floating'),
  shelves: count('Shelves', { min: 1, max: 6, first: 1 }),
  books: choice('Books', ['none', 'some', 'many'], 'none'),
});

function wallShelf({ width, depth, height }: PieceSize, { form, shelves, books }: z.output<typeof wallShelfTraits>): Made[] {
  const [w, d] = [width / 2, depth / 2];
  const wood = new MeshBuilder();
  const metal = new MeshBuilder();
  const groups: BookGroups = { covers: [0, 1, 2].map(() => new MeshBuilder()), leaves: new MeshBuilder() };
  const t = form === 'floating' ? 0.036 : 0.02;
  const n = form === 'cube' ? 1 : shelves;
  for (let i = 0; i < n; i++) {
    // A shelf by itself lies above its brackets, or below its books.
    const booked = books !== 'none' && height > 0.2;
    const foot = form === 'brackets' ? Math.min(0.16, depth * 0.9, height * 0.4) : 0;
    const pitch = n === 1 ? 0 : (height - t - foot - (booked ? Math.min(0.26, height * 0.25) : 0)) / (n - 1);
    const zz = form === 'cube' ? 0 : n === 1 ? (booked ? foot : height - t) : foot + i * pitch;
    if (form === 'cube') {
      wood
        .add(timber(-w, -d, 0, -w + t, d, height))
        .add(timber(w - t, -d, 0, w, d, height))
        .add(timber(-w + t, -d + 0.0005, 0, w - t, d - 0.0005, t))
        .add(timber(-w + t, -d + 0.0005, height - t, w - t, d - 0.0005, height));
      wood.add(board(-w + t - 0.002, d - 0.008, t - 0.002, w - t + 0.002, d - 0.002, height - t + 0.002));
    } else wood.add(timber(-w, -d, zz, w, d, zz + t));
    if (form === 'ledge') wood.add(timber(-w, -d, zz + t - 0.001, w, -d + 0.012, zz + t + 0.03));
    if (form === 'brackets')
      for (const x of [-1, 1]) {
        const px = x * (w - Math.min(0.16, w * 0.4));
        metal.add(bar(v3(px, d - 0.005, Math.max(0, zz - foot)), v3(px, d - 0.005, zz), 0.009, 0.009, { section: squareSection(0.3), flat: 0.4 }));
        metal.add(
          rod(
            curve([v3(px, d - 0.008, zz - foot * 0.92), v3(px, d - depth * 0.35, zz - foot * 0.6), v3(px, -d + 0.03, zz - 0.008)], isFine() ? 8 : 2),
            0.0055,
            { section: 8 },
          ),
        );
        metal.add(
          bar(v3(px, d - 0.003, zz - 0.0045), v3(px, -d + 0.02, zz - 0.0045), 0.009, 0.009, { section: squareSection(0.3), flat: 0.4, up: v3(0, 0, 1) }),
        );
      }
    if (booked && (form === 'cube' || height - zz - t > 0.14))
      rowOfBooks(
        groups,
        -w + (form === 'cube' ? t : 0) + 0.01,
        w - (form === 'cube' ? t : 0) - 0.01,
        -d + 0.02,
        zz + t + 0.0003,
        form === 'cube' ? height - 2 * t : Math.min(0.3, i === n - 1 ? height - zz - t : pitch - t),
        depth - 0.03,
        books === 'some' ? 0.4 : 0.8,
        i * 5 + 3,
      );
  }
  return [
    { part: 'shelf', mesh: wood.build() },
    { part: 'brackets', mesh: metal.build() },
    { part: 'books, first', mesh: groups.covers[0].build() },
    { part: 'books, second', mesh: groups.covers[1].build() },
    { part: 'books, third', mesh: groups.covers[2].build() },
    { part: 'leaves', mesh: groups.leaves.build() },
  ];
}

export const shelves: StockItem[] = [
  maker({
    id: 'bookcase',
    name: 'Bookcase',
    category: 'Storage',
    traits: bookcaseTraits,
    size: { width: 1.0, depth: 0.3, height: 2.0 },
    min: { width: 0.4, depth: 0.22, height: 0.7 },
    max: { width: 2.8, depth: 0.45, height: 2.4 },
    mount: 'floor',
    parts: { carcass: 'timber.oak', back: 'timber.oak', frame: 'metal.powder-black', ...BOUND },
    words: 'shelves shelf library',
    sold: { supplier: 'Ferrow & Daughters', price: 560 },
    clear: { front: 0.6 },
    cards: [
      { id: 'bookcase', name: 'Bookcase' },
      { id: 'bookcase-low', name: 'Low bookcase', size: { width: 1.2, depth: 0.3, height: 0.85 }, traits: { books: 'full' } },
      {
        id: 'bookcase-wide',
        name: 'Library wall',
        size: { width: 2.5, depth: 0.32, height: 2.3 },
        traits: { books: 'full', spacing: 0.32 },
        finishes: { carcass: 'paint.barge-green', back: 'paint.barge-green' },
      },
      {
        id: 'bookcase-steel',
        name: 'Steel-frame shelves',
        size: { width: 1, depth: 0.34, height: 1.85 },
        traits: { form: 'steel frame', books: 'some', spacing: 0.42 },
      },
      {
        id: 'bookcase-ladder',
        name: 'Ladder shelves',
        size: { width: 0.65, depth: 0.42, height: 1.9 },
        traits: { form: 'ladder', books: 'some', spacing: 0.38 },
        finishes: { frame: 'timber.ash', carcass: 'timber.ash' },
        words: 'leaning',
      },
      {
        id: 'shelves-empty',
        name: 'Empty shelves',
        size: { width: 0.9, depth: 0.36, height: 1.8 },
        traits: { books: 'none', back: false },
        finishes: { carcass: 'timber.pine' },
        words: 'store pantry',
      },
    ],
    make: bookcase,
    symbol: ({ width, depth }) => [outline(rectangle(width, depth)), stroke([-width / 2, depth / 2], [width / 2, -depth / 2])],
  }),
  maker({
    id: 'wall-shelf',
    name: 'Wall shelf',
    category: 'Storage',
    traits: wallShelfTraits,
    size: { width: 0.9, depth: 0.22, height: 0.036 },
    min: { width: 0.2, depth: 0.08, height: 0.02 },
    max: { width: 2.4, depth: 0.4, height: 1.8 },
    mount: 'wall',
    foot: 1.4,
    parts: {
      shelf: 'timber.oak',
      brackets: 'metal.iron-black',
      'books, first': BOUND['books, first'],
      'books, second': BOUND['books, second'],
      'books, third': BOUND['books, third'],
      leaves: BOUND.leaves,
    },
    words: 'ledge',
    sold: { supplier: 'Ferrow & Daughters', price: 70 },
    cards: [
      { id: 'wall-shelf', name: 'Floating shelf' },
      {
        id: 'wall-shelf-books',
        name: 'Shelves with books',
        size: { width: 0.9, depth: 0.24, height: 0.9 },
        traits: { form: 'brackets', shelves: 3, books: 'many' },
      },
      { id: 'wall-shelf-bracket', name: 'Bracket shelf', size: { width: 0.9, depth: 0.24, height: 0.2 }, traits: { form: 'brackets' } },
      {
        id: 'wall-shelf-ledge',
        name: 'Picture ledge',
        size: { width: 1, depth: 0.1, height: 0.05 },
        traits: { form: 'ledge' },
        finishes: { shelf: 'paint.sluice-white' },
      },
      { id: 'wall-shelf-cube', name: 'Wall box', size: { width: 0.4, depth: 0.28, height: 0.4 }, traits: { form: 'cube', books: 'some' } },
    ],
    make: wallShelf,
    symbol: ({ width, depth }) => [outline(rectangle(width, depth), true)],
  }),
];
