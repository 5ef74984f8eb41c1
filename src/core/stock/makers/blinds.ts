import { z } from 'zod';
import type { Joint } from '../../geometry/joint';
import { MeshBuilder, type Mesh } from '../../geometry/mesh';
import { sheet } from '../../geometry/shapes';
import { BEFORE_WALL } from '../../project/hanging';
import { board } from '../forms/boards';
import { about, shiftBy } from '../forms/carry';
import { scatter } from '../forms/random';
import { bar, rod } from '../forms/skin';
import { choice, count, length, toggle } from '../traits';
import { maker, outline, rectangle, stroke, v3, type HangsHow, type Made, type PieceSize, type Sewn, type StockItem } from '../types';

/** Blinds and shutters. Their width, and their height from the lowest to the top, are finished sizes. */

/** How far the hem of cloth is above the foot of a piece, so that it lies in no floor, metres. */
const HEM = 0.006;

const lowered = count('Lowered, %', { min: 0, max: 100, first: 60 });
const across = ({ width, depth }: PieceSize) => [outline(rectangle(width, depth)), stroke([-width / 2, 0], [width / 2, 0])];

/** How high the box of a blind is that its cloth or its slats hang from, metres. */
const HEAD = 0.06;

/** Flat cloth that hangs: one layer of it, so that it lets through what its finish says. @param y how far back */
const hangingCloth = (x0: number, x1: number, y: number, z0: number, z1: number): Mesh =>
  sheet((u, v) => v3(x0 + (x1 - x0) * u, y, z0 + (z1 - z0) * v), 1, 1, x1 - x0, z1 - z0);

const rollerTraits = z.object({
  lowered,
  cassette: toggle('Cassette', false),
  chain: choice('Chain', ['left', 'right'], 'right'),
});

function roller({ width, depth, height }: PieceSize, { lowered: down, cassette, chain }: z.output<typeof rollerTraits>): Made[] {
  const w = width / 2;
  const cloth = new MeshBuilder();
  const metal = new MeshBuilder();
  const r = Math.min(0.024, depth * 0.3);
  const z = height - Math.max(r, 0.03) - 0.004;
  const drop = 0.06 + (z - 0.06 - HEM) * (down / 100);
  // The cloth is narrower than its fixings, and comes off the back of the roll.
  const c = w - 0.018;
  cloth.add(rod([v3(-c, 0, z), v3(c, 0, z)], r, { section: 24 }));
  cloth.add(hangingCloth(-c, c, r - 0.0006, z - drop + 0.02, z));
  cloth.add(board(-c, r - 0.008, z - drop, c, r + 0.004, z - drop + 0.026, 0.003));
  for (const side of [-1, 1]) metal.add(board(side < 0 ? -w : w - 0.016, -r, z - r - 0.006, side < 0 ? -w + 0.016 : w, Math.min(depth / 2, r + 0.006), height));
  if (cassette) metal.add(board(-w + 0.016, -depth / 2, z - r - 0.01, w - 0.016, -r - 0.003, height, 0.004));
  const x = (chain === 'left' ? -1 : 1) * (w - 0.008);
  const low = Math.max(HEM + 0.02, z - Math.min(height * 0.7, 1));
  metal.add(rod([v3(x, -0.012, z), v3(x, -0.012, low), v3(x, 0, low - 0.012), v3(x, 0.012, low), v3(x, 0.012, z)], 0.0016, { section: 6 }));
  return [
    { part: 'cloth', mesh: cloth.build() },
    { part: 'fixings', mesh: metal.build() },
  ];
}

const romanTraits = z.object({ lowered, fold: length('Folds', { min: 0.16, max: 0.36, first: 0.25, step: 0.01 }) });

function roman({ width, depth, height }: PieceSize, { lowered: down, fold }: z.output<typeof romanTraits>): Made[] {
  const w = width / 2;
  const cloth = new MeshBuilder();
  const top = height - 0.03;
  const full = top - HEM;
  const folds = Math.max(2, Math.round(full / fold));
  const each = full / folds;
  // What is drawn up lies in folds below, one on the other; what hangs is flat with a rod at every fold.
  const hangs = Math.max(1, Math.round(folds * (down / 100)));
  const thick = 0.004;
  const end = top - hangs * each;
  cloth.add(hangingCloth(-w, w, -thick, end, height));
  for (let i = 1; i < hangs; i++)
    cloth.add(rod([v3(-w + 0.004, -thick - 0.0045, top - i * each), v3(w - 0.004, -thick - 0.0045, top - i * each)], 0.004, { section: 10 }));
  const up = folds - hangs;
  const room = Math.min(depth - 0.012, up * 0.014);
  for (let i = 0; i < up; i++) {
    const y = depth / 2 - 0.004 - ((i + 1) / Math.max(1, up)) * room;
    const high = each * (0.42 + 0.05 * scatter(7, i));
    cloth.add(board(-w, y - thick / 2, end + 0.006, w, y + thick / 2, end + high, 0.0015));
  }
  const head = new MeshBuilder().add(board(-w, 0.001, height - 0.03, w, Math.min(depth / 2, 0.032), height));
  return [
    { part: 'cloth', mesh: cloth.build() },
    { part: 'fixings', mesh: head.build() },
  ];
}

/** A Roman blind is one flat piece of cloth. */
const romanSewn = ({ width, height }: PieceSize): Sewn[] => [{ part: 'cloth', width, drop: height - HEM, fullness: 1, count: 1 }];

const slattedTraits = z.object({
  slat: choice('Slats', ['25 mm', '50 mm', '63 mm'], '50 mm'),
  lowered: count('Lowered, %', { min: 0, max: 100, first: 100 }),
  tilt: count('Slats turned, °', { min: -75, max: 75, first: 20 }),
  tapes: toggle('Tapes', false),
});

function slatted({ width, height }: PieceSize, { slat: wide, lowered: down, tilt, tapes }: z.output<typeof slattedTraits>): Made[] {
  const w = width / 2;
  const deep = parseInt(wide, 10) / 1000;
  const thick = deep > 0.03 ? 0.003 : 0.0016;
  const pitch = deep * 0.86;
  const slats = new MeshBuilder();
  const cords = new MeshBuilder();
  const z1 = height - HEAD;
  const count_ = Math.max(2, Math.floor((z1 - HEM - 0.03) / pitch));
  const hanging = Math.max(1, Math.round(count_ * (down / 100)));
  const angle = (tilt * Math.PI) / 180;
  const c = w - 0.006;
  const one = board(-c, -deep / 2, -thick / 2, c, deep / 2, thick / 2, thick * 0.35);
  for (let i = 0; i < hanging; i++) slats.add(one, about('x', angle, 0, 0, z1 - (i + 0.6) * pitch));
  // The rest lies on the bottom rail.
  const stacked = count_ - hanging;
  const low = Math.max(HEM, z1 - hanging * pitch - 0.02 - stacked * thick * 1.5 - 0.02);
  for (let i = 0; i < stacked; i++) slats.add(one, shiftBy(0, 0, low + 0.02 + (i + 0.7) * thick * 1.5));
  slats.add(board(-c, -deep / 2, low, c, deep / 2, low + 0.018));
  slats.add(board(-w, -deep / 2 - 0.004, z1, w, deep / 2 + 0.004, height));
  const n = Math.max(2, Math.round(width / 0.6) + 1);
  for (let i = 0; i < n; i++) {
    const x = -w + 0.12 + ((width - 0.24) * i) / (n - 1);
    for (const y of [-1, 1])
      if (tapes)
        cords.add(
          board(
            x - 0.012,
            y < 0 ? -deep / 2 - 0.0022 : deep / 2 + 0.001,
            low + 0.004,
            x + 0.012,
            y < 0 ? -deep / 2 - 0.001 : deep / 2 + 0.0022,
            z1 - 0.001,
            0.0004,
          ),
        );
      else cords.add(rod([v3(x, y * (deep / 2 + 0.002), low + 0.004), v3(x, y * (deep / 2 + 0.002), z1 - 0.001)], 0.0009, { section: 6 }));
  }
  return [
    { part: 'slats', mesh: slats.build() },
    { part: 'cords', mesh: cords.build() },
  ];
}

const verticalTraits = z.object({
  vane: choice('Vanes', ['89 mm', '127 mm'], '89 mm'),
  drawn: count('Drawn, %', { min: 0, max: 100, first: 100 }),
  turn: count('Vanes turned, °', { min: -80, max: 80, first: 35 }),
  side: choice('Stack', ['left', 'right'], 'left'),
});

function vertical({ width, height }: PieceSize, { vane, drawn, turn, side }: z.output<typeof verticalTraits>): Made[] {
  const w = width / 2;
  const wide = parseInt(vane, 10) / 1000;
  const count_ = Math.max(3, Math.ceil(width / (wide * 0.88)));
  const vanes = new MeshBuilder();
  const metal = new MeshBuilder();
  const top = height - 0.045;
  const one = hangingCloth(-wide / 2, wide / 2, 0, HEM + 0.012, top);
  const weight = board(-wide / 2 + 0.004, -0.0016, HEM, wide / 2 - 0.004, 0.0016, HEM + 0.024, 0.0005);
  const hand = side === 'left' ? -1 : 1;
  const full = width - wide - 0.02;
  const stack = count_ * 0.009;
  const long = stack + (full - stack) * (drawn / 100);
  // Drawn back they stand across.
  const angle = ((turn * (drawn / 100) + 80 * (1 - drawn / 100)) * Math.PI) / 180;
  for (let i = 0; i < count_; i++) {
    const x = hand * (w - wide / 2 - 0.01 - (long * i) / (count_ - 1));
    vanes.add(one, about('z', angle, x, 0, 0)).add(weight, about('z', angle, x, 0, 0));
    metal.add(board(x - 0.003, -0.003, top - 0.002, x + 0.003, 0.003, height - 0.034, 0.0008));
  }
  metal.add(board(-w, -0.02, height - 0.034, w, 0.02, height));
  return [
    { part: 'cloth', mesh: vanes.build() },
    { part: 'fixings', mesh: metal.build() },
  ];
}

const pleatedTraits = z.object({ lowered, pleat: length('Pleats', { min: 0.015, max: 0.04, first: 0.02, step: 0.001 }) });

function pleated({ width, depth, height }: PieceSize, { lowered: down, pleat }: z.output<typeof pleatedTraits>): Made[] {
  const w = width / 2;
  const top = height - 0.022;
  const folds = Math.max(4, Math.round((top - HEM - 0.02) / pleat / 2) * 2);
  const drop = folds * 0.0018 + (top - HEM - 0.02 - folds * 0.0018) * (down / 100);
  const deep = Math.min(depth / 2 - 0.004, pleat * 0.6);
  const c = w - 0.004;
  const cloth = new MeshBuilder();
  // One zigzag: its ends are straight, every second fold is in front.
  for (let i = 0; i < folds; i++) {
    const [za, zb] = [top - (drop * i) / folds, top - (drop * (i + 1)) / folds];
    const [ya, yb] = i % 2 ? [-deep, deep] : [deep, -deep];
    cloth.add(sheet((u, v) => v3(-c + 2 * c * u, yb + (ya - yb) * v, zb + (za - zb) * v), 1, 1, 2 * c, Math.hypot(za - zb, 2 * deep)));
  }
  const rails = new MeshBuilder().add(board(-w, -0.012, top, w, 0.012, height)).add(board(-w, -0.012, top - drop - 0.018, w, 0.012, top - drop));
  return [
    { part: 'cloth', mesh: cloth.build() },
    { part: 'fixings', mesh: rails.build() },
  ];
}

const shutterTraits = z.object({
  style: choice('Shutters', ['full', 'café', 'tiers'], 'full'),
  panels: count('Panels', { min: 2, max: 6, first: 2 }),
  louvre: length('Louvres', { min: 0.04, max: 0.115, first: 0.064, step: 0.001 }),
  tilt: count('Louvres turned, °', { min: -75, max: 75, first: 30 }),
});

/** Stiles and rails of a shutter, metres. */
const STILE = 0.05;
const RAIL = 0.075;
const THICK = 0.027;

function shutters({ width, height }: PieceSize, { style, panels, louvre, tilt }: z.output<typeof shutterTraits>): Made[] {
  const w = width / 2;
  const half = height * 0.52;
  const tiers: [number, number][] = style === 'full' ? [[0, height]] : style === 'café' ? [[0, half]] : [[0, half - 0.004], [half, height]]; // prettier-ignore
  const each = width / panels;
  const frame: Made[] = tiers.flatMap(([z0, z1]) =>
    Array.from({ length: panels }, (_, i): Made => {
      const [x0, x1] = [-w + i * each + 0.002, -w + (i + 1) * each - 0.002];
      const wood = new MeshBuilder();
      wood.add(board(x0, -THICK / 2, z0, x0 + STILE, THICK / 2, z1, 0.0025)).add(board(x1 - STILE, -THICK / 2, z0, x1, THICK / 2, z1, 0.0025));
      // Rails stand between the stiles, a hair behind them.
      const y = THICK / 2 - 0.0006;
      wood.add(board(x0 + STILE, -y, z0, x1 - STILE, y, z0 + RAIL, 0.001)).add(board(x0 + STILE, -y, z1 - RAIL, x1 - STILE, y, z1, 0.001));
      const room = z1 - z0 - 2 * RAIL - 0.01;
      const blades = Math.max(1, Math.floor(room / (louvre * 0.88)));
      const blade = board(x0 + STILE + 0.002, -louvre / 2, -0.0045, x1 - STILE - 0.002, louvre / 2, 0.0045, 0.0025);
      for (let k = 0; k < blades; k++) wood.add(blade, about('x', (tilt * Math.PI) / 180, 0, 0, z0 + RAIL + 0.005 + (room * (k + 0.5)) / blades));
      // Hung from the nearer side; those in the middle fold on with the one beside them.
      const left = i < panels / 2;
      const joint: Joint | undefined =
        i === 0 || i === panels - 1
          ? { kind: 'hinge', at: v3(left ? x0 : x1, -THICK / 2, 0), axis: v3(0, 0, left ? -1 : 1), range: [0, (100 * Math.PI) / 180] }
          : undefined;
      return { part: 'fronts', mesh: wood.build(), joint };
    }),
  );
  const metal = new MeshBuilder();
  for (const [z0, z1] of tiers)
    for (const side of [-1, 1])
      for (const t of [0.15, 0.85])
        metal.add(bar(v3(side * w, -THICK / 2, z0 + (z1 - z0) * t - 0.03), v3(side * w, -THICK / 2, z0 + (z1 - z0) * t + 0.03), 0.004, 0.004, { section: 8 }));
  return [...frame, { part: 'hinges', mesh: metal.build() }];
}

/** Blinds hang between the reveals, or over the edges of the opening. */
const HANGS: HangsHow = { where: 'recess', ends: 'opening', ...BEFORE_WALL };

const LIMITS = { min: { width: 0.4, depth: 0.06, height: 0.4 }, max: { width: 3, depth: 0.16, height: 3 } } as const;

export const blindsAndShutters: StockItem[] = [
  maker({
    id: 'roller-blind',
    name: 'Roller blind',
    category: 'At windows',
    traits: rollerTraits,
    size: { width: 1.2, depth: 0.07, height: 1.3 },
    ...LIMITS,
    mount: 'window',
    hangs: HANGS,
    handed: () => true,
    foot: 0.9,
    parts: { cloth: 'cloth.oat-weave', fixings: 'metal.steel-brushed' },
    words: 'shade window covering',
    sold: { supplier: 'Wether Mill', price: 110 },
    cards: [
      { id: 'roller-blind', name: 'Roller blind' },
      {
        id: 'roller-cassette',
        name: 'Roller blind in a cassette',
        size: { width: 1.4, depth: 0.09, height: 1.3 },
        traits: { cassette: true },
        finishes: { cloth: 'cloth.white-linen' },
      },
      { id: 'roller-sheer', name: 'Sheer roller blind', traits: { lowered: 100 }, finishes: { cloth: 'cloth.sheer' } },
    ],
    make: roller,
    symbol: across,
  }),
  maker({
    id: 'roman-blind',
    name: 'Roman blind',
    category: 'At windows',
    traits: romanTraits,
    size: { width: 1.2, depth: 0.1, height: 1.4 },
    ...LIMITS,
    mount: 'window',
    hangs: HANGS,
    foot: 0.85,
    sewn: romanSewn,
    parts: { cloth: 'cloth.flax-linen', fixings: 'timber.birch' },
    words: 'shade window covering',
    sold: { supplier: 'Wether Mill', price: 190 },
    cards: [
      { id: 'roman-blind', name: 'Roman blind' },
      { id: 'roman-check', name: 'Checked Roman blind', traits: { fold: 0.2, lowered: 45 }, finishes: { cloth: 'cloth.check-kitchen' } },
    ],
    make: roman,
    symbol: across,
  }),
  maker({
    id: 'slatted-blind',
    name: 'Venetian blind',
    category: 'At windows',
    traits: slattedTraits,
    size: { width: 1.2, depth: 0.08, height: 1.3 },
    min: { width: 0.4, depth: 0.075, height: 0.4 },
    max: { width: 2.7, depth: 0.12, height: 2.6 },
    mount: 'window',
    hangs: HANGS,
    foot: 0.9,
    parts: { slats: 'timber.oak', cords: 'cloth.white-linen' },
    words: 'wooden slats shade window covering',
    sold: { supplier: 'Ferrow & Daughters', price: 210 },
    cards: [
      { id: 'slatted-wood', name: 'Slatted wood blind' },
      {
        id: 'slatted-tapes',
        name: 'Slatted blind with tapes',
        traits: { slat: '63 mm', tapes: true },
        finishes: { slats: 'timber.walnut', cords: 'cloth.flax-linen' },
      },
      { id: 'venetian', name: 'Venetian blind', traits: { slat: '25 mm', tilt: 35 }, finishes: { slats: 'metal.steel-brushed' } },
    ],
    make: slatted,
    symbol: across,
  }),
  maker({
    id: 'vertical-blind',
    name: 'Vertical blind',
    category: 'At windows',
    traits: verticalTraits,
    size: { width: 1.8, depth: 0.13, height: 2.1 },
    min: { width: 0.6, depth: 0.09, height: 0.6 },
    max: { width: 4, depth: 0.16, height: 3 },
    mount: 'window',
    hangs: HANGS,
    handed: () => true,
    parts: { cloth: 'cloth.oat-weave', fixings: 'metal.steel-brushed' },
    words: 'vanes shade window covering',
    sold: { supplier: 'Wether Mill', price: 180 },
    cards: [{ id: 'vertical-blind', name: 'Vertical blind' }],
    make: vertical,
    symbol: across,
  }),
  maker({
    id: 'pleated-blind',
    name: 'Pleated blind',
    category: 'At windows',
    traits: pleatedTraits,
    size: { width: 1, depth: 0.06, height: 1.2 },
    ...LIMITS,
    mount: 'window',
    hangs: HANGS,
    foot: 0.9,
    parts: { cloth: 'cloth.sheer-oat', fixings: 'metal.steel-brushed' },
    words: 'honeycomb shade window covering',
    sold: { supplier: 'Wether Mill', price: 130 },
    cards: [{ id: 'pleated-blind', name: 'Pleated blind' }],
    make: pleated,
    symbol: across,
  }),
  maker({
    id: 'shutters',
    name: 'Shutters',
    category: 'At windows',
    traits: shutterTraits,
    size: { width: 1.2, depth: 0.13, height: 1.3 },
    min: { width: 0.5, depth: 0.13, height: 0.6 },
    max: { width: 3, depth: 0.16, height: 2.6 },
    mount: 'window',
    hangs: HANGS,
    foot: 0.85,
    parts: { fronts: 'paint.sluice-white', hinges: 'metal.brass-aged' },
    words: 'louvres window covering',
    sold: { supplier: 'Ferrow & Daughters', price: 480 },
    cards: [
      { id: 'shutters', name: 'Full shutters' },
      { id: 'shutters-cafe', name: 'Café shutters', traits: { style: 'café' } },
      { id: 'shutters-tiers', name: 'Shutters in tiers', traits: { style: 'tiers', panels: 4 }, size: { width: 1.6, depth: 0.13, height: 1.5 } },
    ],
    make: shutters,
    symbol: across,
  }),
];
