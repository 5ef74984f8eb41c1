import { z } from 'zod';
import { MeshBuilder } from '../../geometry/mesh';
import { cuts, isFine, isLight } from '../../geometry/shapes';
import { board, timber } from '../forms/boards';
import { about, shiftBy } from '../forms/carry';
import { roundRectangle, slab } from '../forms/flat';
import { bar, loft, rod } from '../forms/skin';
import { padded } from '../forms/soft';
import { post, turned } from '../forms/turned';
import { choice, toggle } from '../traits';
import { maker, outline, rectangle, stroke, v3, type Made, type PieceSize, type StockItem } from '../types';

const screenTraits = z.object({ stand: choice('Stand', ['feet', 'plate', 'on the wall'], 'feet') });

function television({ width, depth, height }: PieceSize, { stand }: z.output<typeof screenTraits>): Made[] {
  const body = new MeshBuilder();
  const glass = new MeshBuilder();
  const [w, d] = [width / 2, depth / 2];
  const foot = stand === 'on the wall' ? 0 : Math.min(0.07, height * 0.1);
  const t = Math.min(0.028, depth * 0.6);
  const y0 = stand === 'on the wall' ? d - 0.03 - t : -t / 2;
  body
    .add(board(-w, y0, foot, w, y0 + t, height, 0.003))
    .add(padded(v3(-w * 0.62, y0 + t - 0.004, foot + height * 0.08), v3(w * 0.62, Math.min(d, y0 + t + 0.026), foot + (height - foot) * 0.6), 0.01, 0.002));
  glass.add(board(-w + 0.006, y0 - 0.0048, foot + 0.012, w - 0.006, y0 - 0.0006, height - 0.006, 0.0006));
  if (stand === 'feet')
    for (const x of [-1, 1])
      for (const y of [-1, 1]) body.add(bar(v3(x * w * 0.68, y * (d - 0.012), 0.006), v3(x * w * 0.66, y * 0.004, foot + 0.006), 0.006, 0.008));
  else if (stand === 'plate')
    body.add(slab(roundRectangle(Math.min(width * 0.5, 0.6), depth, 0.03), 0, 0.009, 0.003)).add(board(-0.05, -0.012, 0.008, 0.05, 0.02, foot + 0.01, 0.003));
  else body.add(board(-0.16, d - 0.032, foot + height * 0.35, 0.16, d, foot + height * 0.65, 0.003));
  return [
    { part: 'body', mesh: body.build() },
    { part: 'screen', mesh: glass.build() },
  ];
}

const computerTraits = z.object({ form: choice('Form', ['laptop', 'monitor', 'all in one'], 'laptop'), keys: toggle('Keyboard and mouse', true) });

function computer({ width, depth, height }: PieceSize, { form, keys }: z.output<typeof computerTraits>): Made[] {
  const body = new MeshBuilder();
  const glass = new MeshBuilder();
  const dark = new MeshBuilder();
  const [w, d] = [width / 2, depth / 2];
  const caps = (x0: number, x1: number, y0: number, y1: number, z: number): void => {
    const rows = 5;
    const across = cuts(14, 0);
    if (!across) {
      dark.add(board(x0, y0, z - 0.001, x1, y1, z + 0.0012, 0.0004));
      return;
    }
    const [kx, ky] = [(x1 - x0) / across, (y1 - y0) / rows];
    for (let r = 0; r < rows; r++)
      for (let c = 0; c < across; c++) {
        if (r === 0 && c > 3 && c < 9) {
          if (c === 4) dark.add(board(x0 + c * kx + 0.001, y0 + 0.001, z - 0.0005, x0 + 9 * kx - 0.001, y0 + ky - 0.001, z + 0.0015, 0.0004));
          continue;
        }
        dark.add(board(x0 + c * kx + 0.001, y0 + r * ky + 0.001, z - 0.0005, x0 + (c + 1) * kx - 0.001, y0 + (r + 1) * ky - 0.001, z + 0.0015, 0.0004));
      }
  };
  if (form === 'laptop') {
    const t = 0.014;
    const base = Math.min(depth * 0.86, 0.24);
    const y1 = -d + base;
    body.add(slab(roundRectangle(width, base, 0.012), 0, t, 0.0025), shiftBy(0, -d + base / 2, 0));
    caps(-w * 0.86, w * 0.86, -d + base * 0.42, -d + base * 0.92, t);
    dark.add(board(-w * 0.26, -d + base * 0.06, t - 0.0004, w * 0.26, -d + base * 0.36, t + 0.0003, 0.0002));
    const lean = Math.asin(Math.min(0.45, Math.max(0.05, (depth - base - 0.008) / Math.max(0.1, height))));
    const tall = (height - t - 0.004) / Math.cos(lean);
    const m = about('x', Math.PI / 2 - lean, 0, y1 + Math.sin(lean) * (tall / 2) - 0.004, t + Math.cos(lean) * (tall / 2));
    body
      .add(slab(roundRectangle(width, tall, 0.012), -0.006, 0, 0.002), m)
      .add(bar(v3(-w * 0.8, y1 - 0.004, t * 0.8), v3(w * 0.8, y1 - 0.004, t * 0.8), 0.005));
    glass.add(slab(roundRectangle(width - 0.012, tall - 0.012, 0.008), 0.0003, 0.0016, 0.0005), m);
  } else {
    const kd = keys ? Math.min(0.13, depth * 0.4) : 0;
    const py = d - 0.1;
    const foot = Math.min(0.13, height * 0.3);
    body
      .add(slab(roundRectangle(Math.min(0.24, width * 0.5), Math.min(0.18, depth * 0.5), 0.02), 0, 0.008, 0.002), shiftBy(0, py, 0))
      .add(board(-0.035, py + 0.012, 0.007, 0.035, py + 0.022, foot + (height - foot) * 0.45, 0.003));
    const thick = form === 'monitor' ? 0.016 : 0.024;
    body
      .add(board(-w, py - thick, foot, w, py, height, 0.004))
      .add(padded(v3(-w * 0.35, py - 0.004, foot + (height - foot) * 0.3), v3(w * 0.35, Math.min(d, py + 0.02), foot + (height - foot) * 0.7), 0.008, 0.001));
    glass.add(board(-w + 0.007, py - thick - 0.0045, foot + (form === 'monitor' ? 0.012 : 0.05), w - 0.007, py - thick - 0.0006, height - 0.007, 0.0005));
    if (keys) {
      const kw = Math.min(0.42, width * 0.78);
      body.add(slab(roundRectangle(kw, kd, 0.008), 0, 0.011, 0.002), shiftBy(-width * 0.06, -d + kd / 2 + 0.004, 0));
      caps(-width * 0.06 - kw * 0.47, -width * 0.06 + kw * 0.47, -d + 0.012, -d + kd - 0.004, 0.011);
      body.add(
        slab(roundRectangle(0.058, 0.104, 0.026), 0.001, 0.03, 0.014, 5),
        shiftBy(Math.min(w - 0.032, kw / 2 - width * 0.06 + 0.06), -d + kd / 2 + 0.004, 0),
      );
    }
  }
  return [
    { part: 'body', mesh: body.build() },
    { part: 'screen', mesh: glass.build() },
    { part: 'keys', mesh: dark.build() },
  ];
}

const pianoTraits = z.object({ form: choice('Form', ['upright', 'grand'], 'upright'), lid: toggle('Keyboard lid open', true), music: toggle('Music', true) });

/** Octaves of white and black keys between two ends at a depth. */
function keyboard(white: MeshBuilder, black: MeshBuilder, x0: number, x1: number, y0: number, y1: number, z: number): void {
  if (isLight()) {
    white.add(board(x0, y0, z, x1, y1, z + 0.018));
    black.add(board(x0 + 0.01, y0 + (y1 - y0) * 0.36, z + 0.018, x1 - 0.01, y1 - 0.002, z + 0.021));
    return;
  }
  // 52 white keys on a full piano; fewer where it is narrower.
  const n = Math.round((x1 - x0) / 0.0236);
  const k = (x1 - x0) / n;
  for (let i = 0; i < n; i++) {
    white.add(board(x0 + i * k + 0.0005, y0, z, x0 + (i + 1) * k - 0.0005, y1, z + 0.018, 0.0012));
    // From A: black keys stand between all but B–C and E–F.
    if (i + 1 < n && ![1, 4].includes(i % 7))
      black.add(board(x0 + (i + 1) * k - 0.0055, y0 + (y1 - y0) * 0.35, z + 0.0178, x0 + (i + 1) * k + 0.0055, y1 - 0.001, z + 0.029, 0.0018));
  }
}

function piano({ width, depth, height }: PieceSize, { form, lid, music }: { form: 'upright' | 'grand' | 'stage'; lid: boolean; music: boolean }): Made[] {
  const body = new MeshBuilder();
  const white = new MeshBuilder();
  const black = new MeshBuilder();
  const brass = new MeshBuilder();
  const paper = new MeshBuilder();
  const [w, d] = [width / 2, depth / 2];
  const keys = form === 'stage' ? height - 0.06 : 0.655;
  if (form === 'upright') {
    const t = 0.03;
    const deep = depth - 0.3;
    const yb = d - deep;
    for (const x of [-1, 1])
      body
        .add(timber(x < 0 ? -w : w - t, yb, 0.02, x < 0 ? -w + t : w, d, height - 0.03))
        .add(timber(x < 0 ? -w : w - t, -d, keys - 0.085, x < 0 ? -w + t : w, yb + 0.001, keys + 0.055))
        .add(bar(v3(x * (w - 0.03), -d + 0.05, 0.05), v3(x * (w - 0.03), -d + 0.045, keys - 0.08), 0.024, 0.018))
        .add(timber(x < 0 ? -w : w - 0.06, -d + 0.01, 0, x < 0 ? -w + 0.06 : w, d - 0.02, 0.055));
    body
      .add(timber(-w + t, yb + 0.012, 0.06, w - t, yb + 0.03, keys - 0.1))
      .add(timber(-w + t, yb + 0.035, keys + 0.07, w - t, yb + 0.052, height - 0.03))
      .add(timber(-w + t, d - 0.02, 0.05, w - t, d - 0.0005, height - 0.031))
      .add(timber(-w, yb - 0.012, height - 0.03, w, d, height))
      .add(timber(-w + t, -d + 0.012, keys - 0.07, w - t, yb + 0.012, keys - 0.03));
    body.add(timber(-w + t, -d + 0.002, keys - 0.07, w - t, -d + 0.022, keys)).add(timber(-w + t, yb, keys + 0.03, w - t, yb + 0.034, keys + 0.07));
    for (const x of [-1, 1]) body.add(timber(x < 0 ? -w + t : w - 0.11, -d + 0.022, keys - 0.03, x < 0 ? -w + 0.11 : w - t, yb + 0.011, keys + 0.022));
    keyboard(white, black, -w + 0.112, w - 0.112, -d + 0.024, -d + 0.024 + 0.148, keys - 0.03 + 0.004);
    if (lid) body.add(timber(-w + t + 0.002, yb - 0.028, keys + 0.05, w - t - 0.002, yb - 0.012, keys + 0.22));
    else body.add(timber(-w + t + 0.001, -d + 0.016, keys + 0.0225, w - t - 0.001, yb + 0.01, keys + 0.036));
    for (const x of [-0.08, 0, 0.08])
      brass.add(rod([v3(x, yb + 0.02, 0.075), v3(x, yb - 0.05, 0.07), v3(x, yb - 0.09, 0.062)], (q) => 0.006 + 0.006 * q, { section: 10, flat: 0.5 }));
    if (music) {
      body.add(bar(v3(-0.3, yb + 0.025, keys + 0.26), v3(0.3, yb + 0.025, keys + 0.26), 0.008));
      const tall = Math.min(0.3, height - keys - 0.22);
      if (tall > 0.12)
        for (const x of [-0.115, 0.115]) paper.add(board(x - 0.11, -0.001, 0, x + 0.11, 0.001, tall, 0.0005), about('x', -0.16, 0, yb + 0.02, keys + 0.27));
    }
  } else if (form === 'stage') {
    body
      .add(slab(roundRectangle(width, depth, 0.02), height - 0.11, height - 0.045, 0.006, 4))
      .add(timber(-w + 0.01, -d + depth * 0.62, height - 0.046, w - 0.01, d - 0.008, height - 0.01));
    keyboard(white, black, -w + 0.05, w - 0.05, -d + 0.012, -d + Math.min(0.155, depth * 0.58), height - 0.052);
    for (const x of [-1, 1]) {
      body
        .add(bar(v3(x * (w - 0.12), -d + 0.01, 0), v3(x * (w - 0.28), d - 0.02, height - 0.11), 0.014, 0.014, { section: 10 }))
        .add(bar(v3(x * (w - 0.12), d - 0.01, 0), v3(x * (w - 0.28), -d + 0.02, height - 0.11), 0.014, 0.014, { section: 10 }));
    }
    body.add(bar(v3(-w + 0.2, 0, height * 0.5), v3(w - 0.2, 0, height * 0.5), 0.011));
    for (let i = 0; i < 6; i++) brass.add(post(-w * 0.4 + i * w * 0.16, d - depth * 0.2, height - 0.011, height, 0.008));
    if (music)
      for (const x of [-0.115, 0.115]) paper.add(board(x - 0.11, -0.001, 0, x + 0.11, 0.001, 0.28, 0.0005), about('x', -0.2, 0, d - 0.07, height - 0.011));
  } else {
    // The curved side of a grand, its lid on a prop, three legs.
    const n = cuts(isFine() ? 40 : 24, 12);
    const side = (by: number, z: number) => {
      const ring = [];
      ring.push(v3(-w + by, -d + by + 0.28, z), v3(w - by, -d + by + 0.28, z));
      for (let i = 0; i <= n; i++) {
        const t = i / n;
        // From the treble corner, in at the waist, out to the tail.
        const y = -d + 0.28 + (depth - 0.28) * t;
        const x = w - 0.62 * width * (1 / (1 + Math.exp(-(t - 0.45) * 9)));
        const end = Math.sqrt(Math.max(0, 1 - Math.max(0, (t - 0.86) / 0.14) ** 2));
        ring.push(v3(-w + by + Math.max(0.02, x + w - 2 * by) * (0.35 + 0.65 * end), Math.min(d - by, y), z));
      }
      ring.push(v3(-w + by, d - 0.12 - by, z));
      return ring;
    };
    const [z0, z1] = [0.62, Math.min(0.98, height - 0.02)];
    body.add(loft([side(0.02, z0), side(0.004, z0 + 0.008), side(0, z0 + 0.03), side(0, z1 - 0.004), side(0.003, z1)], { crease: 0.6 }));
    body
      .add(timber(-w, -d, z0, w, -d + 0.3, keys - 0.02))
      .add(timber(-w, -d + 0.01, keys - 0.021, -w + 0.1, -d + 0.3, z1 - 0.02))
      .add(timber(w - 0.1, -d + 0.01, keys - 0.021, w, -d + 0.3, z1 - 0.02))
      .add(timber(-w + 0.1, -d + 0.18, keys - 0.021, w - 0.1, -d + 0.3, z1 - 0.02));
    keyboard(white, black, -w + 0.102, w - 0.102, -d + 0.016, -d + 0.166, keys - 0.0195);
    for (const [x, y] of [
      [-w + 0.12, -d + 0.3],
      [w - 0.12, -d + 0.3],
      [-w + 0.35, d - 0.35],
    ]) {
      body.add(
        turned(
          [
            [0, 0.05],
            [0.03, 0.05],
            [0.035, 0.1],
            [0.06, 0.4],
            [0.045, 0.5],
            [0.075, z0 + 0.01],
            [0, z0 + 0.01],
          ],
          { x, y, segments: 24, round: 0.004 },
        ),
      );
      brass.add(bar(v3(x - 0.014, y, 0.026), v3(x + 0.014, y, 0.026), 0.026, 0.026, { section: 18 }));
    }
    for (const x of [-0.08, 0, 0.08])
      brass.add(rod([v3(x, -d + 0.4, 0.1), v3(x, -d + 0.32, 0.09), v3(x, -d + 0.28, 0.082)], (q) => 0.006 + 0.006 * q, { section: 10, flat: 0.5 }));
    body
      .add(timber(-0.14, -d + 0.39, 0.08, 0.14, -d + 0.43, 0.2))
      .add(bar(v3(-0.09, -d + 0.41, 0.19), v3(-0.09, -d + 0.41, z0 + 0.01), 0.014))
      .add(bar(v3(0.09, -d + 0.41, 0.19), v3(0.09, -d + 0.41, z0 + 0.01), 0.014));
    if (music) {
      body.add(timber(-0.36, -d + 0.34, z1 - 0.021, 0.36, -d + 0.36, z1));
      for (const x of [-0.115, 0.115])
        paper.add(board(x - 0.11, -0.001, 0, x + 0.11, 0.001, Math.min(0.3, Math.max(0.05, height - z1)), 0.0005), about('x', -0.2, 0, -d + 0.35, z1 - 0.001));
    }
  }
  return [
    { part: 'case', mesh: body.build() },
    { part: 'white keys', mesh: white.build() },
    { part: 'black keys', mesh: black.build() },
    { part: 'metal', mesh: brass.build() },
    { part: 'music', mesh: paper.build() },
  ];
}

const keyed = ({ width, depth }: PieceSize) => [
  outline(rectangle(width, depth)),
  stroke([-width / 2, -depth / 2 + Math.min(0.28, depth * 0.5)], [width / 2, -depth / 2 + Math.min(0.28, depth * 0.5)]),
];

export const machines: StockItem[] = [
  maker({
    id: 'television',
    name: 'Television',
    category: 'Books & things',
    traits: screenTraits,
    size: { width: 1.23, depth: 0.24, height: 0.76 },
    min: { width: 0.5, depth: 0.06, height: 0.32 },
    max: { width: 2, depth: 0.4, height: 1.25 },
    mount: 'top',
    foot: 0.45,
    parts: { body: 'metal.powder-black', screen: 'glass.smoke' },
    words: 'tv screen media',
    sold: { supplier: 'Relay Street Electrical', price: 620 },
    connections: ['socket'],
    cards: [
      { id: 'television', name: 'Television' },
      { id: 'television-plate', name: 'Small television', size: { width: 0.72, depth: 0.2, height: 0.48 }, traits: { stand: 'plate' } },
    ],
    make: television,
    symbol: ({ width, depth }) => [outline(rectangle(width, Math.min(0.05, depth))), outline(rectangle(width * 0.6, depth), true)],
  }),
  maker({
    id: 'wall-television',
    name: 'Television on the wall',
    category: 'On walls',
    size: { width: 1.23, depth: 0.07, height: 0.71 },
    min: { width: 0.5, depth: 0.05, height: 0.3 },
    max: { width: 2, depth: 0.12, height: 1.2 },
    mount: 'wall',
    foot: 0.85,
    parts: { body: 'metal.powder-black', screen: 'glass.smoke' },
    words: 'tv screen media',
    sold: { supplier: 'Relay Street Electrical', price: 640 },
    connections: ['socket'],
    make: (size) => television(size, { stand: 'on the wall' }),
    symbol: ({ width, depth }) => [outline(rectangle(width, depth))],
  }),
  maker({
    id: 'computer',
    name: 'Computer',
    category: 'Books & things',
    traits: computerTraits,
    size: { width: 0.33, depth: 0.3, height: 0.22 },
    min: { width: 0.26, depth: 0.2, height: 0.18 },
    max: { width: 0.95, depth: 0.5, height: 0.65 },
    mount: 'top',
    foot: 0.75,
    parts: { body: 'metal.steel-brushed', screen: 'glass.smoke', keys: 'paint.soot' },
    words: 'laptop monitor desk study',
    sold: { supplier: 'Relay Street Electrical', price: 980 },
    connections: ['socket'],
    cards: [
      { id: 'computer', name: 'Laptop' },
      {
        id: 'computer-monitor',
        name: 'Monitor and keyboard',
        size: { width: 0.61, depth: 0.42, height: 0.48 },
        traits: { form: 'monitor' },
        finishes: { body: 'metal.powder-black' },
      },
    ],
    make: computer,
    symbol: ({ width, depth }) => [outline(rectangle(width, depth)), stroke([-width / 2, depth * 0.2], [width / 2, depth * 0.2])],
  }),
  maker({
    id: 'piano',
    name: 'Piano',
    category: 'Books & things',
    traits: pianoTraits,
    size: { width: 1.48, depth: 0.6, height: 1.18 },
    min: { width: 1.2, depth: 0.55, height: 1 },
    max: { width: 1.6, depth: 2.2, height: 1.3 },
    mount: 'floor',
    parts: { case: 'timber.ebonised', 'white keys': 'paper.cream', 'black keys': 'timber.ebonised', metal: 'metal.brass-polished', music: 'paper.cream' },
    words: 'music keyboard upright grand',
    sold: { supplier: 'Lantern Yard Instruments', price: 3400 },
    clear: { front: 0.9 },
    cards: [
      { id: 'piano', name: 'Upright piano' },
      { id: 'piano-grand', name: 'Grand piano', size: { width: 1.5, depth: 1.7, height: 1.2 }, traits: { form: 'grand' } },
    ],
    make: piano,
    symbol: keyed,
  }),
  maker({
    id: 'keyboard',
    name: 'Keyboard on a stand',
    category: 'Books & things',
    size: { width: 1.3, depth: 0.34, height: 0.86 },
    min: { width: 0.8, depth: 0.26, height: 0.6 },
    max: { width: 1.5, depth: 0.45, height: 1 },
    mount: 'floor',
    parts: { case: 'metal.powder-black', 'white keys': 'paper.cream', 'black keys': 'timber.ebonised', metal: 'metal.steel-brushed' },
    words: 'music piano',
    sold: { supplier: 'Lantern Yard Instruments', price: 680 },
    clear: { front: 0.8 },
    connections: ['socket'],
    make: (size) => piano(size, { form: 'stage', lid: true, music: false }),
    symbol: keyed,
  }),
];
