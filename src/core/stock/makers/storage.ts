import { z } from 'zod';
import { MeshBuilder } from '../../geometry/mesh';
import { isFine } from '../../geometry/shapes';
import { board, door, drawer, timber, type FrontStyle, type HandleStyle, type Moving } from '../forms/boards';
import { upright } from '../forms/carry';
import { roundRectangle, slab } from '../forms/flat';
import { bar, curve, rod, slat, squareSection } from '../forms/skin';
import { post, turned } from '../forms/turned';
import { choice, count, length, toggle } from '../traits';
import { maker, outline, rectangle, stroke, v3, type Made, type PieceSize, type StockItem } from '../types';
import { rowOfBooks, type BookGroups } from './books';
import { movingParts } from './moving';

const FRONTS = ['flat', 'framed', 'boarded', 'glazed'] as const;
const HANDLES = ['bar', 'knob', 'cup', 'none'] as const;
const BASES = ['plinth', 'legs', 'bracket feet', 'on the wall'] as const;

const cabinetTraits = (first: { layout: Layout; base: (typeof BASES)[number]; fronts: FrontStyle; handles: HandleStyle; rows: number }) =>
  z.object({
    layout: choice('Layout', LAYOUTS, first.layout),
    rows: count('Drawers in a column', { min: 1, max: 8, first: first.rows }),
    bay: length('Width of a bay', { min: 0.3, max: 1.2, first: 0.5, step: 0.01 }),
    fronts: choice('Fronts', FRONTS, first.fronts),
    handles: choice('Handles', HANDLES, first.handles),
    base: choice('Base', BASES, first.base),
    cornice: toggle('Cornice', false),
  });

const LAYOUTS = ['doors', 'drawers', 'drawers over doors', 'doors beside drawers', 'open', 'open over doors', 'open over drawers'] as const;
type Layout = (typeof LAYOUTS)[number];
type CabinetTraits = z.output<ReturnType<typeof cabinetTraits>>;

/** How thick sides, shelves and tops are, metres. */
const T = 0.018;

/** A cabinet of bays side by side: a carcass with sides that go through, and what each bay is closed with. */
function cabinet({ width, depth, height }: PieceSize, { layout, rows, bay, fronts, handles, base, cornice }: CabinetTraits): Made[] {
  const [w, d] = [width / 2, depth / 2];
  const carcass = new MeshBuilder();
  const legs = new MeshBuilder();
  const moving: Moving[] = [];
  const foot = base === 'legs' ? Math.min(0.16, height * 0.22) : base === 'plinth' ? 0.06 : base === 'bracket feet' ? 0.1 : 0;
  const crown = cornice ? 0.05 : 0;
  const over = cornice ? 0.022 : 0;
  const top = height - crown;
  // Fronts lie over the edges of the carcass; a cornice and a top stand out over them.
  const face = -d + over + 0.022;
  const [cw, back] = [w - over, d];
  const n = Math.max(1, Math.round((2 * cw) / bay));
  const step = (2 * cw - T) / n;
  for (const x of [-cw, cw - T]) carcass.add(board(x, face, foot, x + T, back, top - 0.022));
  carcass
    .add(board(-cw + T, face + 0.002, foot, cw - T, back - 0.0006, foot + T))
    .add(board(-cw + T - 0.004, back - 0.007, foot + T - 0.004, cw - T + 0.004, back - 0.001, top - 0.026));
  carcass.add(timber(-cw - (cornice ? 0 : 0.002), -d + over, top - 0.022, cw + (cornice ? 0 : 0.002), back, top));
  for (let i = 1; i < n; i++) carcass.add(board(-cw + step * i, face + 0.002, foot + T, -cw + step * i + T, back - 0.0075, top - 0.0225));
  if (cornice) {
    // A cavetto under a fillet, returned at both sides.
    const steps = isFine() ? 8 : 2;
    for (let k = 0; k < steps; k++) {
      const t = (k + 1) / steps;
      const o = over * (1 - Math.cos((Math.PI / 2) * t)) + 0.002;
      carcass.add(
        board(
          -cw - o,
          -d + over - o,
          top + ((crown - 0.012) * k) / steps + (k ? 0 : -0.0004),
          cw + o,
          back,
          top + ((crown - 0.012) * (k + 1)) / steps + 0.0004,
          0.0004,
        ),
      );
    }
    carcass.add(timber(-w, -d, height - 0.0125, w, back, height));
  }
  if (base === 'plinth') legs.add(board(-cw + 0.012, face + 0.03, 0, cw - 0.012, back - 0.02, foot + 0.001));
  else if (base === 'legs')
    for (const x of [-1, 1])
      for (const y of [face + 0.06, back - 0.05])
        legs.add(bar(v3(x * (cw - 0.07), y, 0), v3(x * (cw - 0.085), y + (y < 0 ? 0.012 : -0.012), foot + 0.001), 0.0085, 0.0145));
  else if (base === 'bracket feet')
    for (const x of [-1, 1])
      for (const y of [face, back - 0.022]) {
        legs.add(timber(x < 0 ? -cw : cw - 0.13, y, 0, x < 0 ? -cw + 0.13 : cw, y + 0.022, foot + 0.001));
        legs.add(
          timber(x < 0 ? -cw + 0.0004 : cw - 0.0224, y < 0 ? y + 0.022 : y - 0.09, 0, x < 0 ? -cw + 0.0224 : cw - 0.0004, y < 0 ? y + 0.11 : y, foot + 0.001),
        );
      }
  const [z0, z1] = [foot + 0.002, top - 0.0235];
  const gap = 0.0015;
  const inside = back - face - 0.01;
  const shelves = (i: number, a: number, b: number, each: number): void => {
    const m = Math.max(1, Math.round((b - a) / each));
    for (let k = 1; k < m; k++)
      carcass.add(board(-cw + step * i + T, face + 0.012, a + ((b - a) * k) / m - T / 2, -cw + step * (i + 1), back - 0.0078, a + ((b - a) * k) / m + T / 2));
  };
  const doors = (i: number, a: number, b: number): void => {
    const [x0, x1] = [-cw + step * i + (i ? T / 2 : 0) + gap, -cw + step * (i + 1) + (i === n - 1 ? T : T / 2) - gap];
    const tall = b - a > 1.2;
    const leaf = (p: number, q: number, hung: 'left' | 'right'): void =>
      void moving.push(
        door({
          x0: p,
          x1: q,
          z0: a + gap,
          z1: b - gap,
          y: face - 0.0005,
          style: fronts,
          handles,
          hung,
          level: tall ? 1.02 : b - a < 0.5 ? (a + b) / 2 : b - 0.12,
        }),
      );
    // Wide bays have two leaves; single ones of a pair of bays meet.
    if (x1 - x0 > 0.62) {
      leaf(x0, (x0 + x1) / 2 - gap, 'left');
      leaf((x0 + x1) / 2 + gap, x1, 'right');
    } else leaf(x0, x1, i % 2 === 0 ? 'left' : 'right');
    shelves(i, a, b, tall ? 0.9 : 0.32);
    if (tall && inside > 0.45)
      legs.add(
        bar(v3(-cw + step * i + T, (face + back) / 2, b - 0.28), v3(-cw + step * (i + 1), (face + back) / 2, b - 0.28), 0.0125, 0.0125, { section: 12 }),
      );
  };
  const drawers = (i: number, a: number, b: number, m: number): void => {
    const [x0, x1] = [-cw + step * i + (i ? T / 2 : 0) + gap, -cw + step * (i + 1) + (i === n - 1 ? T : T / 2) - gap];
    // Lower drawers are deeper, each by a tenth more than the one above it.
    const weights = Array.from({ length: m }, (_, k) => 1.12 ** (m - 1 - k));
    const sum = weights.reduce((p, q) => p + q, 0);
    let at = a;
    for (const weight of weights) {
      const h = ((b - a) * weight) / sum;
      moving.push(drawer({ x0, x1, z0: at + gap, z1: at + h - gap, y: face - 0.0005, depth: inside, style: fronts, handles }));
      at += h;
    }
  };
  for (let i = 0; i < n; i++) {
    const split =
      layout === 'drawers over doors' ? z1 - Math.min(0.2, (z1 - z0) * 0.3) : layout.startsWith('open over') ? z0 + Math.min(0.8, (z1 - z0) * 0.42) : 0;
    if (split) carcass.add(board(-cw + step * i + T, face + 0.002, split - T / 2, -cw + step * (i + 1), back - 0.0079, split + T / 2));
    if (layout === 'doors') doors(i, z0, z1);
    else if (layout === 'drawers') drawers(i, z0, z1, rows);
    else if (layout === 'drawers over doors') {
      doors(i, z0, split);
      drawers(i, split, z1, 1);
    } else if (layout === 'doors beside drawers') {
      if (i % 2 === 0) doors(i, z0, z1);
      else drawers(i, z0, z1, rows);
    } else if (layout === 'open') shelves(i, z0, z1, 0.36);
    else {
      if (layout === 'open over doors') doors(i, z0, split);
      else drawers(i, z0, split, Math.min(rows, 3));
      shelves(i, split, z1, 0.34);
    }
  }
  return [{ part: 'carcass', mesh: carcass.build() }, { part: 'legs', mesh: legs.build() }, ...movingParts(moving)];
}

const crossed = ({ width, depth }: PieceSize) => [
  outline(rectangle(width, depth)),
  stroke([-width / 2, -depth / 2], [width / 2, depth / 2]),
  stroke([-width / 2, depth / 2], [width / 2, -depth / 2]),
];
const fronted = ({ width, depth }: PieceSize) => [outline(rectangle(width, depth)), stroke([-width / 2, -depth / 2 + 0.03], [width / 2, -depth / 2 + 0.03])];

const cabinetParts = (wood: string, handles: string, legs = wood, carcass = wood): StockItem['parts'] => ({
  fronts: wood,
  carcass,
  legs,
  drawers: 'timber.birch',
  handles,
  glass: 'glass.clear',
});

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
    const zz =
      form === 'cube' ? 0 : n === 1 ? (booked ? foot : height - t) : foot + (i * (height - t - foot - (booked ? Math.min(0.26, height * 0.25) : 0))) / (n - 1);
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
        form === 'cube' ? height - 2 * t : Math.min(0.3, n === 1 ? height - t : Math.min(height - zz - t, (height - t) / n)),
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

const hookTraits = z.object({
  form: choice('Form', ['pegs', 'hooks'], 'pegs'),
  spacing: length('Between them', { min: 0.08, max: 0.3, first: 0.14, step: 0.01 }),
  shelf: toggle('Shelf above', false),
});

function hooks({ width, depth, height }: PieceSize, { form, spacing, shelf }: z.output<typeof hookTraits>): Made[] {
  const [w, d] = [width / 2, depth / 2];
  const wood = new MeshBuilder();
  const metal = new MeshBuilder();
  const rail = Math.min(height, 0.11);
  wood.add(timber(-w, d - 0.02, 0, w, d, rail));
  if (shelf) {
    wood.add(timber(-w, -d, height - 0.02, w, d - 0.0005, height));
    for (const x of [-1, 1]) wood.add(timber(x < 0 ? -w + 0.03 : w - 0.05, -d + 0.04, rail - 0.02, x < 0 ? -w + 0.05 : w - 0.03, d - 0.0005, height - 0.0195));
  }
  const n = Math.max(1, Math.floor((width - 0.08) / spacing) + 1);
  const reach = Math.min(depth - 0.02, 0.09);
  for (let i = 0; i < n; i++) {
    const x = n === 1 ? 0 : -((n - 1) * spacing) / 2 + i * spacing;
    if (form === 'pegs')
      wood.add(
        turned(
          [
            [0, -0.004],
            [0.009, -0.004],
            [0.0075, reach * 0.45],
            [0.0065, reach * 0.75],
            [0.0125, reach * 0.93],
            [0.011, reach],
            [0, reach],
          ],
          { segments: 16, round: 0.002 },
        ),
        // Pegs point a little upwards.
        [1, 0, 0, 0, 0, Math.sin(0.2), Math.cos(0.2), 0, 0, -Math.cos(0.2), Math.sin(0.2), 0, x, d - 0.02, rail * 0.45, 1],
      );
    else {
      const y = d - 0.02;
      metal.add(
        rod(
          curve(
            [v3(x, y, rail * 0.75), v3(x, y - reach * 0.55, rail * 0.82), v3(x, y - reach * 0.9, rail * 0.98), v3(x, y - reach, rail * 1.12)],
            isFine() ? 6 : 2,
          ),
          0.0038,
          { section: 8 },
        ),
      );
      metal.add(
        rod(
          curve(
            [v3(x, y, rail * 0.55), v3(x, y - reach * 0.25, rail * 0.2), v3(x, y - reach * 0.5, rail * 0.14), v3(x, y - reach * 0.62, rail * 0.38)],
            isFine() ? 6 : 2,
          ),
          0.0036,
          { section: 8 },
        ),
      );
      metal.add(slab(roundRectangle(0.018, 0.06, 0.008), 0, 0.004, 0.001), upright(x, y + 0.0005, rail * 0.6));
    }
  }
  return [
    { part: 'rail', mesh: wood.build() },
    { part: 'hooks', mesh: metal.build() },
  ];
}

const standTraits = z.object({ arms: count('Arms', { min: 3, max: 10, first: 8 }), ring: toggle('Ring for umbrellas', false) });

function coatStand({ width, depth, height }: PieceSize, { arms, ring }: z.output<typeof standTraits>): Made[] {
  const frame = new MeshBuilder();
  const r = Math.min(width, depth) / 2;
  const n = isFine() ? 6 : 2;
  frame.add(rod([v3(0, 0, 0.2), v3(0, 0, 0.6), v3(0, 0, height - 0.18)], 0.018, { section: 14 }));
  frame.add(post(0, 0, height - 0.185, height, 0.021, 0.008, 14));
  for (let i = 0; i < 4; i++) {
    const a = (i / 4) * 2 * Math.PI + Math.PI / 4;
    const at = (k: number, zz: number) => v3(Math.cos(a) * r * k, Math.sin(a) * r * k, zz);
    frame.add(rod(curve([at(0.05, 0.46), at(0.2, 0.3), at(0.55, 0.1), at(0.95, 0.012)], n), 0.011, { section: 10 }));
  }
  for (let i = 0; i < arms; i++) {
    const a = (i / arms) * 2 * Math.PI;
    const low = i % 2 ? 0.16 : 0;
    const at = (k: number, zz: number) => v3(Math.cos(a) * r * k, Math.sin(a) * r * k, zz);
    frame.add(
      rod(curve([at(0.05, height - 0.22 - low), at(0.3, height - 0.25 - low), at(0.62, height - 0.17 - low), at(0.72, height - 0.08 - low)], n), 0.009, {
        section: 10,
      }),
    );
  }
  if (ring) {
    const rr = r * 0.72;
    frame.add(
      rod(
        Array.from({ length: 25 }, (_, i) => v3(rr * Math.cos((i / 24) * 2 * Math.PI), rr * Math.sin((i / 24) * 2 * Math.PI), 0.56)),
        0.006,
        { section: 8 },
      ),
    );
    for (let i = 0; i < 4; i++) frame.add(bar(v3(0, 0, 0.56), v3(rr * Math.cos((i * Math.PI) / 2), rr * Math.sin((i * Math.PI) / 2), 0.56), 0.005));
  }
  return [{ part: 'frame', mesh: frame.build() }];
}

const screenTraits = z.object({
  leaves: count('Leaves', { min: 2, max: 6, first: 3 }),
  filling: choice('Filling', ['cloth', 'slats', 'panel'], 'cloth'),
});

/** A folding screen: leaves that stand in a zigzag over its whole depth. */
function screen({ width, depth, height }: PieceSize, { leaves, filling }: z.output<typeof screenTraits>): Made[] {
  const frame = new MeshBuilder();
  const infill = new MeshBuilder();
  const step = width / leaves;
  const deep = Math.max(0.03, depth - 0.03);
  const t = 0.02;
  for (let i = 0; i < leaves; i++) {
    const up = i % 2 === 0;
    const [x0, y0] = [-width / 2 + i * step, up ? deep / 2 : -deep / 2];
    const [x1, y1] = [x0 + step, -y0];
    const long = Math.hypot(x1 - x0, y1 - y0);
    const a = Math.atan2(y1 - y0, x1 - x0);
    const [c, s] = [Math.cos(a), Math.sin(a)];
    const carry = [c, s, 0, 0, -s, c, 0, 0, 0, 0, 1, 0, x0, y0, 0, 1];
    const [u0, u1] = [0.008, long - 0.008];
    for (const u of [u0, u1 - 0.036]) frame.add(timber(u, -t / 2, 0.02, u + 0.036, t / 2, height), carry);
    for (const [zz, hh] of [
      [0.12, 0.05],
      [height * 0.56, 0.04],
      [height - 0.055, 0.05],
    ])
      frame.add(timber(u0 + 0.036, -t / 2 + 0.0006, zz, u1 - 0.036, t / 2 - 0.0006, zz + hh), carry);
    for (const [p, q] of [
      [0.17, height * 0.56],
      [height * 0.56 + 0.04, height - 0.055],
    ]) {
      if (filling === 'slats') {
        const n = Math.round((q - p) / 0.045);
        for (let k = 0; k < n; k++)
          infill.add(
            slat([v3(u0 + 0.03, 0, p + ((q - p) * (k + 0.5)) / n), v3(u1 - 0.03, 0, p + ((q - p) * (k + 0.5)) / n)], () => v3(0, 0.009, 0.014), 0.004),
            carry,
          );
      } else infill.add(board(u0 + 0.03, filling === 'cloth' ? -0.002 : -0.005, p - 0.006, u1 - 0.03, filling === 'cloth' ? 0.002 : 0.005, q + 0.006), carry);
    }
  }
  return [
    { part: 'frame', mesh: frame.build() },
    { part: 'filling', mesh: infill.build() },
  ];
}

export const storage: StockItem[] = [
  maker({
    id: 'bedside',
    name: 'Bedside table',
    category: 'Storage',
    traits: cabinetTraits({ layout: 'open over drawers', base: 'legs', fronts: 'flat', handles: 'knob', rows: 1 }),
    size: { width: 0.45, depth: 0.4, height: 0.55 },
    min: { width: 0.3, depth: 0.25, height: 0.35 },
    max: { width: 0.8, depth: 0.6, height: 0.8 },
    mount: 'floor',
    parts: cabinetParts('timber.walnut', 'metal.brass-brushed'),
    words: 'nightstand cabinet',
    sold: { supplier: 'Ferrow & Daughters', price: 240 },
    cards: [
      { id: 'bedside', name: 'Bedside table' },
      {
        id: 'bedside-drawers',
        name: 'Bedside chest',
        size: { width: 0.45, depth: 0.4, height: 0.6 },
        traits: { layout: 'drawers', rows: 3, base: 'plinth' },
        finishes: { fronts: 'paint.dusk-heather', carcass: 'paint.dusk-heather', legs: 'paint.dusk-heather' },
      },
      {
        id: 'bedside-door',
        name: 'Bedside cupboard',
        size: { width: 0.42, depth: 0.38, height: 0.62 },
        traits: { layout: 'drawers over doors', fronts: 'framed', base: 'legs' },
        finishes: { fronts: 'timber.oak', carcass: 'timber.oak', legs: 'timber.oak' },
      },
    ],
    make: cabinet,
    symbol: fronted,
  }),
  maker({
    id: 'chest',
    name: 'Chest of drawers',
    category: 'Storage',
    traits: cabinetTraits({ layout: 'drawers', base: 'bracket feet', fronts: 'flat', handles: 'knob', rows: 4 }),
    size: { width: 0.9, depth: 0.48, height: 0.95 },
    min: { width: 0.4, depth: 0.32, height: 0.5 },
    max: { width: 2, depth: 0.65, height: 1.5 },
    mount: 'floor',
    parts: cabinetParts('timber.oak', 'timber.oak'),
    words: 'bedroom linen',
    sold: { supplier: 'Ferrow & Daughters', price: 690 },
    clear: { front: 0.75 },
    cards: [
      { id: 'chest', name: 'Chest of drawers', traits: { bay: 0.9 } },
      {
        id: 'chest-wide',
        name: 'Wide chest',
        size: { width: 1.5, depth: 0.48, height: 0.8 },
        traits: { bay: 0.75, rows: 3, base: 'legs', handles: 'none' },
        finishes: { fronts: 'timber.walnut', carcass: 'timber.walnut', legs: 'timber.walnut' },
      },
      {
        id: 'chest-tall',
        name: 'Tall chest',
        size: { width: 0.55, depth: 0.42, height: 1.3 },
        traits: { bay: 0.6, rows: 6, handles: 'cup', base: 'plinth' },
        finishes: { fronts: 'paint.barge-green', carcass: 'paint.barge-green', legs: 'paint.barge-green', handles: 'metal.brass-aged' },
      },
    ],
    make: cabinet,
    symbol: fronted,
  }),
  maker({
    id: 'wardrobe',
    name: 'Wardrobe',
    category: 'Storage',
    traits: cabinetTraits({ layout: 'doors', base: 'plinth', fronts: 'flat', handles: 'bar', rows: 3 }),
    size: { width: 1.6, depth: 0.6, height: 2.1 },
    min: { width: 0.5, depth: 0.4, height: 1.6 },
    max: { width: 3.6, depth: 0.7, height: 2.4 },
    cabinet: true,
    mount: 'floor',
    parts: cabinetParts('paint.lockgate-green', 'metal.brass-brushed', 'timber.oak', 'timber.oak'),
    words: 'closet cupboard clothes',
    sold: { supplier: 'Ferrow & Daughters', price: 1480 },
    clear: { front: 0.75 },
    cards: [
      { id: 'wardrobe', name: 'Wardrobe' },
      {
        id: 'wardrobe-framed',
        name: 'Framed wardrobe',
        size: { width: 1.2, depth: 0.6, height: 2.1 },
        traits: { fronts: 'framed', cornice: true, handles: 'knob', bay: 0.6 },
        finishes: { fronts: 'timber.oak', legs: 'timber.oak' },
      },
      {
        id: 'wardrobe-drawers',
        name: 'Wardrobe with drawers',
        size: { width: 1.6, depth: 0.6, height: 2.1 },
        traits: { layout: 'doors beside drawers', rows: 6, fronts: 'framed', bay: 0.8 },
      },
      {
        id: 'wardrobe-boarded',
        name: 'Boarded wardrobe',
        size: { width: 1, depth: 0.58, height: 2 },
        traits: { fronts: 'boarded', base: 'legs', handles: 'knob' },
        finishes: { fronts: 'timber.pine', carcass: 'timber.pine', legs: 'timber.pine' },
      },
      {
        id: 'wardrobe-open',
        name: 'Open wardrobe',
        size: { width: 1.2, depth: 0.55, height: 2 },
        traits: { layout: 'open over drawers', bay: 0.6 },
        finishes: { fronts: 'timber.birch', carcass: 'timber.birch' },
      },
    ],
    make: cabinet,
    symbol: crossed,
  }),
  maker({
    id: 'sideboard',
    name: 'Sideboard',
    category: 'Storage',
    traits: cabinetTraits({ layout: 'drawers', base: 'legs', fronts: 'flat', handles: 'bar', rows: 2 }),
    size: { width: 1.6, depth: 0.45, height: 0.75 },
    min: { width: 0.6, depth: 0.32, height: 0.4 },
    max: { width: 2.6, depth: 0.6, height: 2.3 },
    cabinet: true,
    mount: 'floor',
    parts: cabinetParts('timber.walnut', 'metal.brass-brushed', 'metal.iron-black'),
    words: 'cabinet cupboard',
    sold: { supplier: 'Ferrow & Daughters', price: 980 },
    clear: { front: 0.6 },
    cards: [
      { id: 'sideboard', name: 'Sideboard' },
      {
        id: 'sideboard-framed',
        name: 'Framed sideboard',
        size: { width: 1.5, depth: 0.46, height: 0.86 },
        traits: { layout: 'drawers over doors', fronts: 'framed', base: 'plinth', handles: 'cup' },
        finishes: { fronts: 'paint.wet-slate', carcass: 'paint.wet-slate', legs: 'paint.wet-slate' },
      },
      {
        id: 'dresser',
        name: 'Dresser',
        size: { width: 1.2, depth: 0.46, height: 2 },
        traits: { layout: 'open over doors', fronts: 'framed', base: 'plinth', cornice: true, handles: 'knob', bay: 0.6 },
        finishes: { fronts: 'paint.duck-egg', carcass: 'paint.duck-egg', legs: 'paint.duck-egg' },
        words: 'kitchen plates',
      },
      {
        id: 'glass-cabinet',
        name: 'Glazed cabinet',
        size: { width: 0.9, depth: 0.4, height: 1.9 },
        traits: { layout: 'doors', fronts: 'glazed', base: 'legs', handles: 'knob', bay: 0.45 },
        finishes: { fronts: 'timber.ebonised', carcass: 'timber.ebonised' },
        words: 'display china',
      },
      {
        id: 'media-bench',
        name: 'Low cabinet',
        size: { width: 1.8, depth: 0.42, height: 0.45 },
        traits: { layout: 'doors beside drawers', base: 'legs', handles: 'none', rows: 1, bay: 0.6 },
        words: 'television media',
      },
    ],
    make: cabinet,
    symbol: fronted,
  }),
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
  maker({
    id: 'hooks',
    name: 'Hook rail',
    category: 'Storage',
    traits: hookTraits,
    size: { width: 0.9, depth: 0.1, height: 0.11 },
    min: { width: 0.2, depth: 0.05, height: 0.06 },
    max: { width: 2.4, depth: 0.35, height: 0.5 },
    mount: 'wall',
    foot: 1.6,
    parts: { rail: 'timber.oak', hooks: 'metal.iron-black' },
    words: 'coat pegs hall porch',
    sold: { supplier: 'Brake Forge', price: 55 },
    cards: [
      { id: 'hooks', name: 'Peg rail' },
      { id: 'hooks-iron', name: 'Hook rail', traits: { form: 'hooks' } },
      { id: 'hooks-shelf', name: 'Hook rail with shelf', size: { width: 1.1, depth: 0.26, height: 0.32 }, traits: { form: 'hooks', shelf: true } },
    ],
    make: hooks,
    symbol: ({ width, depth }) => [outline(rectangle(width, 0.02, 0, depth / 2 - 0.01)), outline(rectangle(width, depth), true)],
  }),
  maker({
    id: 'coat-stand',
    name: 'Coat stand',
    category: 'Storage',
    traits: standTraits,
    size: { width: 0.5, depth: 0.5, height: 1.8 },
    min: { width: 0.35, depth: 0.35, height: 1.5 },
    max: { width: 0.7, depth: 0.7, height: 2 },
    mount: 'floor',
    parts: { frame: 'timber.beech' },
    words: 'hall hat umbrella bentwood',
    sold: { supplier: 'Ferrow & Daughters', price: 130 },
    cards: [
      { id: 'coat-stand', name: 'Coat stand' },
      { id: 'coat-stand-ring', name: 'Coat and umbrella stand', traits: { ring: true }, finishes: { frame: 'metal.powder-black' } },
    ],
    make: coatStand,
    symbol: ({ width, depth }) => [
      outline(rectangle(width * 0.7, depth * 0.7), true),
      stroke([-width / 2, 0], [width / 2, 0]),
      stroke([0, -depth / 2], [0, depth / 2]),
    ],
  }),
  maker({
    id: 'screen',
    name: 'Folding screen',
    category: 'Storage',
    traits: screenTraits,
    size: { width: 1.35, depth: 0.25, height: 1.75 },
    min: { width: 0.8, depth: 0.12, height: 1.2 },
    max: { width: 3, depth: 0.6, height: 2.2 },
    mount: 'floor',
    parts: { frame: 'timber.ash', filling: 'cloth.flax-linen' },
    words: 'room divider paravent',
    sold: { supplier: 'Ferrow & Daughters', price: 260 },
    cards: [
      { id: 'screen', name: 'Folding screen' },
      { id: 'screen-slatted', name: 'Slatted screen', traits: { filling: 'slats', leaves: 4 }, size: { width: 1.8, depth: 0.3, height: 1.8 } },
    ],
    make: screen,
    symbol: ({ width, depth }, { leaves }) => [
      stroke(...Array.from({ length: leaves + 1 }, (_, i): [number, number] => [-width / 2 + (width * i) / leaves, (i % 2 ? -1 : 1) * (depth / 2 - 0.015)])),
    ],
  }),
];
