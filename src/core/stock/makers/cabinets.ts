import { movingParts } from './moving';
import { z } from 'zod';
import { MeshBuilder } from '../../geometry/mesh';
import { isFine } from '../../geometry/shapes';
import { FRONTS, HANDLES, type FrontStyle, type HandleStyle } from '../../project/schema/cabinets';
import { board, door, drawer, timber, type Moving } from '../forms/boards';
import { bar } from '../forms/skin';
import { choice, count, length, toggle } from '../traits';
import { maker, outline, rectangle, stroke, v3, type Made, type PieceSize, type StockItem } from '../types';

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

export const cabinets: StockItem[] = [
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
    clear: { front: 0.9 },
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
];
