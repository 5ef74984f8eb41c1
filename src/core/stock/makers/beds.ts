import { z } from 'zod';
import { MeshBuilder, type Mesh } from '../../geometry/mesh';
import { isFine, isLight } from '../../geometry/shapes';
import type { Vec3 } from '../../geometry/vec';
import { drawer, timber, type Moving } from '../forms/boards';
import { about, shiftBy, upright } from '../forms/carry';
import { blockSupport, coarserGrid, draped, filled, finerGrid, floorSupport, gridNormals } from '../forms/cloth';
import { bar, rod, skin, squareSection } from '../forms/skin';
import { cushion, padded, pillow, tufted } from '../forms/soft';
import { post } from '../forms/turned';
import { choice, toggle } from '../traits';
import { maker, outline, rectangle, rounded, stroke, v3, type Made, type PieceSize } from '../types';
import { movingParts } from './moving';

const bedTraits = z.object({
  head: choice('Headboard', ['panel', 'slats', 'upholstered', 'buttoned', 'none'], 'panel'),
  foot: toggle('Footboard', false),
  posts: choice('Posts', ['none', 'four posts', 'four posts and curtains'], 'none'),
  base: choice('Base', ['legs', 'divan', 'drawers'], 'legs'),
  linen: choice('Linen', ['made', 'made with a throw', 'mattress only'], 'made'),
});

/** Upper side of a mattress, and how thick it is, metres. */
const LYING = 0.52;
const MATTRESS = 0.22;

/** A grid of resting cloth as fine as it is looked at. */
export const asLooked = (grid: readonly (readonly Vec3[])[]): Vec3[][] => (isFine() ? finerGrid(grid, 2) : coarserGrid(grid, isLight() ? 3 : 1));

/** A duvet over a mattress, let fall from above it. The mattress reaches from x0, y0 to x1, y1; its head is at y1. */
function duvet(x0: number, y0: number, x1: number, y1: number, top: number, hang: number, name: string): { cover: Mesh; turned: Mesh } {
  const head = y1 - 0.58;
  const [w, l] = [x1 - x0 + 2 * hang, head - y0 + hang * 0.7];
  const grid = draped(`${name} ${x0} ${y0} ${x1} ${y1} ${top} ${hang}`, () => ({
    nu: Math.round(w / 0.068),
    nv: Math.round(l / 0.068),
    start: (u, v) => ({ x: (x0 + x1) / 2 + (u - 0.5) * w, y: head - l + v * l, z: top + 0.03 }),
    supports: [blockSupport({ x: x0, y: y0, z: 0 }, { x: x1, y: y1, z: top }, 0.06), floorSupport],
    thick: 0.008,
    bend: 3e-3,
    steps: 460,
    seed: Math.round(w * 1000),
  }));
  // What bunches at the corners of the foot is tucked in: it stands out by a hand's breadth at most.
  const most = 0.02;
  const held = (v: number, low: number, high: number): number =>
    v > high ? high + most * Math.tanh((v - high) / most) : v < low ? low - most * Math.tanh((low - v) / most) : v;
  const looked = asLooked(grid.map((row) => row.map((p) => ({ x: held(p.x, x0 - 0.01, x1 + 0.01), y: held(p.y, y0 - 0.01, y1), z: p.z }))));
  const net = filled(looked, 0.034, 0.012);
  // The sheet is turned back over the duvet at its head.
  const m = looked[0].length;
  const rows = Math.max(2, Math.round((0.26 / l) * (m - 1)) + 1);
  const normals = gridNormals(looked);
  const by = 0.037;
  const lifted = looked.map((row, i) =>
    row.slice(m - rows).map((p, k) => {
      const n = normals[i][m - rows + k];
      return { x: p.x + n.x * by, y: p.y + n.y * by + (k === rows - 1 ? 0.006 : 0), z: p.z + n.z * by };
    }),
  );
  const band = filled(lifted, 0.012, 0.005);
  return { cover: skin(net.points, net.faces, 1.1), turned: skin(band.points, band.faces, 1.1) };
}

/** Pillows at the head of a bed: one to lie on, one that leans behind it, for each who sleeps. */
function pillows(x0: number, x1: number, y1: number, top: number, count: number, leaning: boolean): Mesh {
  const out = new MeshBuilder();
  const each = (x1 - x0) / count;
  const wide = Math.min(0.74, each - 0.04);
  for (let i = 0; i < count; i++) {
    const x = x0 + each * (i + 0.5);
    const lean = 0.62;
    const [c, s] = [Math.cos(lean), Math.sin(lean)];
    if (leaning) out.add(pillow({ width: wide, depth: 0.46, thick: 0.15, seed: i + 1 }), [1, 0, 0, 0, 0, s, c, 0, 0, -c, s, 0, x, y1 - 0.13, top + 0.2, 1]);
    out.add(pillow({ width: wide, depth: 0.44, thick: 0.14, seed: i + 4 }), about('x', 0.2, x, y1 - (leaning ? 0.38 : 0.24), top - 0.002));
  }
  return out.build();
}

function bed({ width, depth, height }: PieceSize, { head, foot, posts, base, linen }: z.output<typeof bedTraits>): Made[] {
  const [w, d] = [width / 2, depth / 2];
  const frame = new MeshBuilder();
  const soft = new MeshBuilder();
  const throw_ = new MeshBuilder();
  const hangings = new MeshBuilder();
  const moving: Moving[] = [];
  const poster = posts !== 'none';
  const high = poster ? Math.min(1.15, height * 0.55) : height;
  const back = head === 'none' ? 0.02 : head === 'upholstered' || head === 'buttoned' ? 0.11 : 0.05;
  const front = foot ? 0.05 : 0.01;
  const bottom = LYING - MATTRESS;
  // Headboard.
  if (head === 'panel') {
    for (const x of [-1, 1]) frame.add(timber(x < 0 ? -w : w - 0.06, d - 0.045, 0, x < 0 ? -w + 0.06 : w, d, high));
    frame
      .add(timber(-w + 0.06, d - 0.042, high - 0.1, w - 0.06, d - 0.003, high - 0.004))
      .add(timber(-w + 0.06, d - 0.042, bottom - 0.06, w - 0.06, d - 0.003, bottom + 0.04));
    const n = Math.max(1, Math.round((width - 0.12) / 0.5));
    for (let i = 0; i < n; i++) {
      const a = -w + 0.06 + ((width - 0.12) * i) / n;
      const b = a + (width - 0.12) / n;
      if (i) frame.add(timber(a - 0.03, d - 0.0415, bottom + 0.04, a + 0.03, d - 0.0035, high - 0.1));
      frame.add(timber(a - 0.004, d - 0.028, bottom + 0.034, b + 0.004, d - 0.014, high - 0.094));
    }
  } else if (head === 'slats') {
    for (const x of [-1, 1])
      frame.add(bar(v3(x * (w - 0.028), d - 0.026, 0), v3(x * (w - 0.028), d - 0.026, high), 0.024, 0.024, { section: squareSection(0.3) }));
    frame
      .add(bar(v3(-w + 0.03, d - 0.026, high - 0.03), v3(w - 0.03, d - 0.026, high - 0.03), 0.016, 0.016, { section: squareSection(0.4) }))
      .add(timber(-w + 0.05, d - 0.04, bottom - 0.04, w - 0.05, d - 0.012, bottom + 0.04));
    const n = Math.max(4, Math.round(width / 0.11));
    for (let i = 1; i < n; i++)
      frame.add(bar(v3(-w + (width * i) / n, d - 0.026, bottom + 0.03), v3(-w + (width * i) / n, d - 0.026, high - 0.035), 0.0085, 0.0085, { section: 10 }));
  } else if (head !== 'none') {
    // Between posts it is as wide as they leave it.
    const half = w - (poster ? 0.05 : 0);
    soft.add(padded(v3(-half, d - back, 0.1), v3(half, d - 0.004, high), 0.035, 0.012));
    const [low, top] = [LYING - 0.06, high - 0.045];
    if (head === 'buttoned' && top - low > 0.12) {
      const size = { width: 2 * half - 0.08, height: top - low, thick: 0.032 };
      const rows = Math.max(1, Math.round(size.height / 0.14));
      soft.add(tufted({ ...size, columns: Math.max(3, Math.round(width / 0.2)), rows }), upright(0, d - back - 0.004, (low + top) / 2));
    }
  }
  if (foot) {
    for (const x of [-1, 1]) frame.add(timber(x < 0 ? -w : w - 0.06, -d, 0, x < 0 ? -w + 0.06 : w, -d + 0.045, LYING + 0.08));
    frame
      .add(timber(-w + 0.06, -d + 0.004, LYING, w - 0.06, -d + 0.04, LYING + 0.075))
      .add(timber(-w + 0.056, -d + 0.014, bottom - 0.05, w - 0.056, -d + 0.03, LYING + 0.006));
  }
  // Base.
  const [by0, by1] = [-d + front, d - back + 0.006];
  if (base === 'divan') {
    soft.add(padded(v3(-w + 0.012, by0 + 0.012, 0.03), v3(w - 0.012, by1, bottom), 0.02, 0.002));
    for (const x of [-1, 1]) for (const y of [by0 + 0.12, by1 - 0.12]) frame.add(post(x * (w - 0.1), y, 0, 0.034, 0.02, 0.024));
  } else {
    const rail = bottom - 0.09;
    frame
      .add(timber(-w + 0.004, by0, rail, -w + 0.032, by1, bottom + 0.03))
      .add(timber(w - 0.032, by0, rail, w - 0.004, by1, bottom + 0.03))
      .add(timber(-w + 0.032, by0 + 0.002, rail + 0.001, w - 0.032, by0 + 0.028, bottom + 0.029));
    const slats = Math.round((by1 - by0) / 0.12);
    for (let i = 0; i < slats && !isLight(); i++)
      frame.add(
        timber(
          -w + 0.034,
          by0 + 0.04 + ((by1 - by0 - 0.06) * i) / slats,
          bottom - 0.016,
          w - 0.034,
          by0 + 0.1 + ((by1 - by0 - 0.06) * i) / slats,
          bottom - 0.001,
        ),
      );
    if (base === 'drawers') {
      frame
        .add(timber(-w + 0.03, by1 - 0.05, 0.02, w - 0.03, by1 - 0.02, rail + 0.001))
        .add(timber(-0.012, by0 + 0.05, 0.02, 0.012, by1 - 0.05, rail + 0.001))
        .add(timber(-w + 0.03, by0 + 0.001, 0.02, w - 0.03, by0 + 0.03, rail - 0.0005));
      const n = 2;
      const run = (by1 - by0 - 0.1) / n;
      for (const s of [-1, 1])
        for (let i = 0; i < n; i++) {
          // Drawers come out at the sides: made to the front, then turned.
          const m = drawer({ x0: 0.002, x1: run - 0.004, z0: 0.03, z1: rail - 0.003, y: 0, depth: w - 0.05, style: 'flat', handles: 'none' });
          const carry = about('z', (s * Math.PI) / 2, s * (w - 0.026), s > 0 ? by0 + 0.05 + i * run : by0 + 0.05 + (i + 1) * run, 0);
          const turn = (mesh: Mesh): Mesh => new MeshBuilder().add(mesh, carry).build();
          moving.push({ wood: turn(m.wood), glass: m.glass, metal: turn(m.metal), box: turn(m.box), joint: { ...m.joint, axis: { x: s, y: 0, z: 0 } } });
        }
    } else
      for (const x of [-1, 1])
        for (const y of [by0 + 0.1, ...(head === 'panel' || head === 'slats' ? [] : [by1 - 0.08])])
          frame.add(bar(v3(x * (w - 0.06), y, 0), v3(x * (w - 0.06), y, rail + 0.01), 0.019, 0.027));
  }
  const [mx0, mx1, my0, my1] = [-w + 0.036, w - 0.036, by0 + 0.034, by1 - 0.006];
  const mattress = new MeshBuilder().add(
    cushion({ width: mx1 - mx0, depth: my1 - my0, thick: MATTRESS - 0.006, crown: 0.008, corner: 0.07, swell: [0.004, 0.004, 0.004, 0.004], piping: true }),
    shiftBy((mx0 + mx1) / 2, (my0 + my1) / 2, bottom + 0.001),
  );
  const sleepers = width > 1.2 ? 2 : 1;
  const made = linen !== 'mattress only';
  const over = made ? duvet(mx0, my0, mx1, my1, LYING + 0.004, Math.min(0.27, LYING - 0.2), 'duvet') : null;
  const heads = made ? pillows(mx0, mx1, my1, LYING, sleepers, head !== 'none' && high > 0.93) : null;
  if (linen === 'made with a throw') {
    const l = 0.62;
    const wide = mx1 - mx0 + 0.62;
    const from = my0 + 0.12;
    const grid = draped(`throw ${mx0} ${my0} ${mx1} ${my1}`, () => ({
      nu: Math.round(wide / 0.06),
      nv: 11,
      start: (u, v) => ({ x: (u - 0.5) * wide, y: from + v * l + 0.02 * Math.sin(u * 5), z: LYING + 0.09 }),
      supports: [blockSupport({ x: mx0 - 0.06, y: my0 - 0.06, z: 0 }, { x: mx1 + 0.06, y: my1, z: LYING + 0.048 }, 0.08), floorSupport],
      thick: 0.003,
      bend: 1e-2,
      steps: 420,
      seed: 7,
    }));
    const net = filled(asLooked(grid), 0.007, 0.004);
    throw_.add(skin(net.points, net.faces, 1.1));
  }
  if (poster) {
    const t = 0.03;
    for (const x of [-1, 1])
      for (const y of [-1, 1]) {
        const [px, py] = [x * (w - t), y * (d - t)];
        frame.add(bar(v3(px, py, 0), v3(px, py, bottom + 0.1), t, t, { section: squareSection(0.12) }));
        frame.add(
          rod(
            [v3(px, py, bottom + 0.09), v3(px, py, bottom + 0.2), v3(px, py, height * 0.6), v3(px, py, height - 0.05)],
            (k) => (k < 0.05 ? 0.022 : 0.026 - 0.01 * k),
            { section: 14 },
          ),
        );
        frame.add(post(px, py, height - 0.052, height, 0.018, 0.026, 16));
      }
    for (const x of [-1, 1])
      frame.add(bar(v3(x * (w - t), -d + t, height - 0.03), v3(x * (w - t), d - t, height - 0.03), 0.014, 0.014, { section: squareSection(0.3) }));
    for (const y of [-1, 1])
      frame.add(bar(v3(-w + t, y * (d - t), height - 0.031), v3(w - t, y * (d - t), height - 0.031), 0.014, 0.014, { section: squareSection(0.3) }));
    if (posts === 'four posts and curtains')
      for (const x of [-1, 1])
        for (const y of [-1, 1]) {
          // Gathered at the post, tied half way up.
          const n = isLight() ? 3 : 14;
          const folds = isFine() ? 72 : isLight() ? 8 : 30;
          const points: Vec3[] = [];
          const faces: number[][] = [];
          for (let i = 0; i <= n; i++) {
            const t2 = i / n;
            const zz = height - 0.05 - t2 * (height - 0.08);
            const r = 0.055 + 0.05 * Math.abs(t2 - 0.45) + 0.05 * Math.max(0, t2 - 0.45);
            for (let k = 0; k < folds; k++) {
              const a = (2 * Math.PI * k) / folds;
              const rr = r * (1 + 0.2 * Math.sin(9 * a + x + 2 * y + 0.4 * t2));
              points.push(v3(x * (w - t - 0.03) + rr * Math.cos(a) * 0.7, y * (d - t - 0.05) + rr * Math.sin(a), zz));
            }
          }
          for (let i = 0; i < n; i++)
            for (let k = 0; k < folds; k++)
              faces.push([i * folds + k, (i + 1) * folds + k, (i + 1) * folds + ((k + 1) % folds), i * folds + ((k + 1) % folds)]);
          hangings.add(skin(points, faces, 1.3));
        }
  }
  return [
    { part: 'frame', mesh: frame.build() },
    { part: 'upholstery', mesh: soft.build() },
    {
      part: 'sheet',
      mesh: new MeshBuilder()
        .add(mattress.build())
        .add(over?.turned ?? new MeshBuilder().build())
        .build(),
    },
    ...(over ? [{ part: 'cover', mesh: over.cover }] : []),
    ...(heads ? [{ part: 'pillows', mesh: heads }] : []),
    { part: 'throw', mesh: throw_.build() },
    { part: 'curtains', mesh: hangings.build() },
    ...movingParts(moving),
  ];
}

const bedSymbol = ({ width, depth }: PieceSize) => [
  outline(rounded(width, depth, 0.03)),
  stroke([-width / 2, depth / 2 - 0.62], [width / 2, depth / 2 - 0.62]),
  ...(width > 1.2
    ? [-1, 1].map((s) => outline(rounded(width / 2 - 0.16, 0.38, 0.08, (s * width) / 4, depth / 2 - 0.32)))
    : [outline(rounded(width - 0.25, 0.38, 0.08, 0, depth / 2 - 0.32))]),
];

const bunkTraits = z.object({ ladder: choice('Ladder', ['left', 'right'], 'right'), linen: toggle('Made up', true) });

function bunk({ width, depth, height }: PieceSize, { ladder, linen }: z.output<typeof bunkTraits>): Made[] {
  const [w, d] = [width / 2, depth / 2];
  const frame = new MeshBuilder();
  const sheet = new MeshBuilder();
  const cover = new MeshBuilder();
  const soft = new MeshBuilder();
  const t = 0.03;
  const decks = [0.36, height - 0.42];
  for (const x of [-1, 1])
    for (const y of [-1, 1]) frame.add(bar(v3(x * (w - t), y * (d - t), 0), v3(x * (w - t), y * (d - t), height), t, t, { section: squareSection(0.15) }));
  decks.forEach((z0, k) => {
    for (const x of [-1, 1]) frame.add(timber(x < 0 ? -w + 0.004 : w - 0.026, -d + 2 * t, z0 - 0.11, x < 0 ? -w + 0.026 : w - 0.004, d - 2 * t, z0));
    for (const y of [-1, 1]) {
      frame.add(timber(-w + 2 * t, y < 0 ? -d + 0.01 : d - 0.032, z0 - 0.11, w - 2 * t, y < 0 ? -d + 0.032 : d - 0.01, z0));
      for (let i = 0; i < 3; i++)
        frame.add(
          timber(
            -w + 2 * t - 0.004,
            y < 0 ? -d + 0.016 : d - 0.03,
            z0 + 0.12 + i * 0.09,
            w - 2 * t + 0.004,
            y < 0 ? -d + 0.03 : d - 0.016,
            z0 + 0.17 + i * 0.09,
          ),
        );
    }
    frame.add(timber(-w + 0.03, -d + 0.05, z0 - 0.05, w - 0.03, d - 0.05, z0 - 0.03));
    if (k) {
      const way = ladder === 'right' ? 1 : -1;
      // Guards all round but where one climbs in.
      for (const x of [-1, 1])
        for (let i = 0; i < 2; i++) {
          const from = x === way ? -d + 0.52 : -d + 2 * t;
          frame.add(timber(x < 0 ? -w + 0.008 : w - 0.024, from, z0 + 0.15 + i * 0.13, x < 0 ? -w + 0.024 : w - 0.008, d - 2 * t, z0 + 0.21 + i * 0.13));
        }
      frame.add(bar(v3(way * (w - 0.016), -d + 0.52, z0 - 0.02), v3(way * (w - 0.016), -d + 0.52, z0 + 0.36), 0.016, 0.016, { section: squareSection(0.2) }));
      const rungs = Math.round((z0 + 0.1) / 0.27);
      for (const y of [-d + 0.1, -d + 0.48])
        frame.add(bar(v3(way * (w - 0.001), y, 0.01), v3(way * (w - 0.012), y, z0 + 0.34), 0.014, 0.014, { section: squareSection(0.25) }));
      for (let i = 1; i <= rungs; i++)
        frame.add(bar(v3(way * (w - 0.004), -d + 0.1, (i * z0) / rungs - 0.03), v3(way * (w - 0.004), -d + 0.48, (i * z0) / rungs - 0.03), 0.013));
    }
    sheet.add(
      cushion({ width: width - 0.07, depth: depth - 0.14, thick: 0.14, crown: 0.008, corner: 0.05, swell: [0, 0, 0, 0], piping: false }),
      shiftBy(0, 0, z0 - 0.03),
    );
    if (linen) {
      const top = z0 + 0.115;
      cover.add(
        cushion({ width: width - 0.09, depth: depth - 0.72, thick: 0.026, crown: 0.028, corner: 0.03, swell: [0, 0, 0, 0], piping: false, seed: k + 2 }),
        shiftBy(0, -0.27, top),
      );
      cover.add(
        cushion({ width: width - 0.086, depth: 0.24, thick: 0.05, crown: 0.022, corner: 0.02, swell: [0, 0, 0.004, 0], piping: false, seed: k + 5 }),
        shiftBy(0, d - 0.6, top),
      );
      soft.add(pillow({ width: Math.min(0.7, width - 0.16), depth: 0.42, thick: 0.13, seed: k + 1 }), about('x', 0.1, 0, d - 0.32, top - 0.002));
    }
  });
  return [
    { part: 'frame', mesh: frame.build() },
    { part: 'sheet', mesh: sheet.build() },
    { part: 'cover', mesh: cover.build() },
    { part: 'pillows', mesh: soft.build() },
  ];
}

const cotTraits = z.object({ side: choice('Front side', ['up', 'down', 'off'], 'up'), linen: toggle('Made up', true) });

function cot({ width, depth, height }: PieceSize, { side, linen }: z.output<typeof cotTraits>): Made[] {
  const [w, d] = [width / 2, depth / 2];
  const frame = new MeshBuilder();
  const sheet = new MeshBuilder();
  const cover = new MeshBuilder();
  const floor = 0.3;
  for (const x of [-1, 1])
    for (const y of [-1, 1])
      frame.add(bar(v3(x * (w - 0.02), y * (d - 0.02), 0), v3(x * (w - 0.02), y * (d - 0.02), height), 0.02, 0.02, { section: squareSection(0.25) }));
  const fence = (from: Vec3, to: Vec3, drop: number): void => {
    const top = height - 0.03 - drop;
    frame
      .add(bar({ ...from, z: top }, { ...to, z: top }, 0.014, 0.014, { section: squareSection(0.4) }))
      .add(bar({ ...from, z: floor - 0.02 }, { ...to, z: floor - 0.02 }, 0.014, 0.014, { section: squareSection(0.3) }));
    const long = Math.hypot(to.x - from.x, to.y - from.y);
    // Bars no more than 6.5 cm apart: a child's head does not come through.
    const n = Math.ceil(long / 0.075);
    for (let i = 1; i < n; i++) {
      const t = i / n;
      const p = v3(from.x + (to.x - from.x) * t, from.y + (to.y - from.y) * t, 0);
      frame.add(bar({ ...p, z: floor - 0.02 }, { ...p, z: top }, 0.0065, 0.0065, { section: 8 }));
    }
  };
  const [a, b] = [w - 0.03, d - 0.02];
  fence(v3(-a, b, 0), v3(a, b, 0), 0);
  if (side !== 'off') fence(v3(-a, -b, 0), v3(a, -b, 0), side === 'down' ? 0.2 : 0);
  fence(v3(-w + 0.02, -d + 0.03, 0), v3(-w + 0.02, d - 0.03, 0), 0);
  fence(v3(w - 0.02, -d + 0.03, 0), v3(w - 0.02, d - 0.03, 0), 0);
  frame.add(timber(-w + 0.035, -d + 0.035, floor - 0.012, w - 0.035, d - 0.035, floor));
  sheet.add(
    cushion({ width: width - 0.08, depth: depth - 0.08, thick: 0.1, crown: 0.006, corner: 0.05, swell: [0, 0, 0, 0], piping: true }),
    shiftBy(0, 0, floor + 0.001),
  );
  if (linen)
    cover.add(
      cushion({ width: width * 0.55, depth: depth - 0.1, thick: 0.02, crown: 0.02, corner: 0.03, swell: [0, 0.003, 0, 0], piping: true, seed: 2 }),
      shiftBy(-width * 0.19, 0, floor + 0.106),
    );
  return [
    { part: 'frame', mesh: frame.build() },
    { part: 'sheet', mesh: sheet.build() },
    { part: 'cover', mesh: cover.build() },
  ];
}

const dayTraits = z.object({ back: toggle('Back', true), trundle: toggle('Second bed below', false) });

function dayBed({ width, depth, height }: PieceSize, { back, trundle }: z.output<typeof dayTraits>): Made[] {
  const [w, d] = [width / 2, depth / 2];
  const frame = new MeshBuilder();
  const cloth = new MeshBuilder();
  const soft = new MeshBuilder();
  const moving: Moving[] = [];
  const deck = 0.34;
  for (const x of [-1, 1]) {
    for (const y of [-1, 1])
      frame.add(bar(v3(x * (w - 0.025), y * (d - 0.025), 0), v3(x * (w - 0.025), y * (d - 0.025), height), 0.022, 0.022, { section: squareSection(0.2) }));
    frame.add(timber(x < 0 ? -w + 0.006 : w - 0.044, -d + 0.02, height - 0.05, x < 0 ? -w + 0.044 : w - 0.006, d - 0.02, height - 0.008));
    const n = Math.max(3, Math.round(depth / 0.12));
    for (let i = 1; i < n; i++)
      frame.add(
        bar(v3(x * (w - 0.025), -d + (depth * i) / n, deck - 0.06), v3(x * (w - 0.025), -d + (depth * i) / n, height - 0.045), 0.008, 0.008, { section: 10 }),
      );
  }
  for (const y of [-1, 1]) frame.add(timber(-w + 0.045, y < 0 ? -d + 0.006 : d - 0.03, deck - 0.12, w - 0.045, y < 0 ? -d + 0.03 : d - 0.006, deck));
  if (back) {
    frame.add(timber(-w + 0.04, d - 0.044, height - 0.05, w - 0.04, d - 0.006, height - 0.008));
    const n = Math.round(width / 0.14);
    for (let i = 1; i < n; i++)
      frame.add(bar(v3(-w + (width * i) / n, d - 0.025, deck - 0.06), v3(-w + (width * i) / n, d - 0.025, height - 0.045), 0.008, 0.008, { section: 10 }));
  }
  frame.add(timber(-w + 0.046, -d + 0.032, deck - 0.03, w - 0.046, d - 0.032, deck - 0.012));
  cloth.add(
    cushion({ width: width - 0.1, depth: depth - 0.07, thick: 0.17, crown: 0.014, sag: 0.006, corner: 0.05, swell: [0, 0, 0.005, 0], piping: true }),
    shiftBy(0, 0, deck - 0.01),
  );
  const n = Math.max(2, Math.round(width / 0.65));
  if (back)
    for (let i = 0; i < n; i++) {
      const x = -w + 0.05 + ((width - 0.1) * (i + 0.5)) / n;
      const [c, s] = [Math.cos(0.3), Math.sin(0.3)];
      soft.add(pillow({ width: (width - 0.12) / n, depth: Math.min(0.42, height - deck - 0.12), thick: 0.16, pinch: 0.04, piping: true, seed: i + 1 }), [
        1,
        0,
        0,
        0,
        0,
        s,
        c,
        0,
        0,
        -c,
        s,
        0,
        x,
        d - 0.1,
        deck + 0.15 + Math.min(0.42, height - deck - 0.12) / 2,
        1,
      ]);
    }
  if (trundle)
    moving.push(drawer({ x0: -w + 0.06, x1: w - 0.06, z0: 0.03, z1: deck - 0.13, y: -d + 0.03, depth: depth - 0.08, style: 'flat', handles: 'bar' }));
  return [{ part: 'frame', mesh: frame.build() }, { part: 'mattress', mesh: cloth.build() }, { part: 'pillows', mesh: soft.build() }, ...movingParts(moving)];
}

const slept = ({ width }: PieceSize): number => (width > 1.2 ? 2 : 1);

export const beds = [
  maker({
    id: 'bed',
    name: 'Bed',
    category: 'Beds',
    traits: bedTraits,
    size: { width: 1.6, depth: 2.1, height: 1.0 },
    min: { width: 0.8, depth: 1.9, height: 0.6 },
    max: { width: 2.1, depth: 2.3, height: 2.3 },
    mount: 'floor',
    parts: {
      frame: 'timber.walnut',
      upholstery: 'cloth.boucle-cream',
      sheet: 'cloth.white-linen',
      cover: 'cloth.moss-herringbone',
      pillows: 'cloth.white-linen',
      throw: 'cloth.basket-rust',
      curtains: 'cloth.sheer-oat',
      fronts: 'timber.walnut',
      drawers: 'timber.birch',
    },
    words: 'sleep bedroom',
    sold: { supplier: 'Ostrey Beds', price: 1250 },
    // Beds for two are got into from both sides.
    clear: ({ width }) => ({ front: 0.9, sides: width > 1.2 ? 0.7 : 0 }),
    sleeps: slept,
    cards: [
      { id: 'bed', name: 'Bed' },
      {
        id: 'bed-upholstered',
        name: 'Upholstered bed',
        size: { width: 1.66, depth: 2.14, height: 1.1 },
        traits: { head: 'upholstered', linen: 'made with a throw' },
        finishes: { cover: 'cloth.white-linen', throw: 'cloth.tweed-heath' },
      },
      {
        id: 'bed-single',
        name: 'Single bed',
        size: { width: 0.96, depth: 2.04, height: 0.95 },
        traits: { head: 'slats', foot: true },
        finishes: { frame: 'timber.beech', cover: 'cloth.sky-linen' },
      },
      {
        id: 'bed-small-double',
        name: 'Small double bed',
        size: { width: 1.26, depth: 2.04, height: 1 },
        traits: { head: 'panel' },
        finishes: { frame: 'timber.oak', cover: 'cloth.flax-linen' },
      },
      {
        id: 'bed-king',
        name: 'King bed',
        size: { width: 1.86, depth: 2.16, height: 1.15 },
        traits: { head: 'buttoned', base: 'divan', linen: 'made with a throw' },
        finishes: { upholstery: 'cloth.blush-velvet', cover: 'cloth.white-linen' },
      },
      {
        id: 'bed-panel',
        name: 'Panelled bed',
        size: { width: 1.66, depth: 2.12, height: 1.1 },
        traits: { head: 'panel', foot: true, linen: 'made with a throw' },
        finishes: { frame: 'timber.oak' },
      },
      {
        id: 'bed-drawers',
        name: 'Bed with drawers',
        size: { width: 1.5, depth: 2.08, height: 0.98 },
        traits: { base: 'drawers', head: 'panel' },
        finishes: { frame: 'timber.ash', fronts: 'timber.ash', cover: 'cloth.sage-linen' },
        words: 'storage',
      },
      {
        id: 'bed-poster',
        name: 'Four-poster bed',
        size: { width: 1.66, depth: 2.16, height: 2.1 },
        traits: { posts: 'four posts', head: 'panel', foot: true },
        finishes: { frame: 'timber.oak-smoked', cover: 'cloth.white-linen' },
      },
      {
        id: 'bed-curtained',
        name: 'Curtained four-poster',
        size: { width: 1.66, depth: 2.16, height: 2.15 },
        traits: { posts: 'four posts and curtains', head: 'upholstered' },
        finishes: { frame: 'timber.ebonised', cover: 'cloth.print-sprig' },
      },
      {
        id: 'mattress',
        name: 'Mattress on slats',
        size: { width: 1.4, depth: 2.04, height: 0.6 },
        traits: { head: 'none', linen: 'mattress only' },
        finishes: { frame: 'timber.pine' },
      },
    ],
    make: bed,
    symbol: bedSymbol,
  }),
  maker({
    id: 'bunk-bed',
    name: 'Bunk bed',
    category: 'Beds',
    traits: bunkTraits,
    size: { width: 0.98, depth: 2.04, height: 1.65 },
    min: { width: 0.8, depth: 1.7, height: 1.5 },
    max: { width: 1.3, depth: 2.2, height: 2 },
    mount: 'floor',
    parts: { frame: 'timber.pine', sheet: 'cloth.white-linen', cover: 'cloth.stripe-deck', pillows: 'cloth.white-linen' },
    words: 'children two sleep',
    sold: { supplier: 'Ostrey Beds', price: 690 },
    clear: { sides: 0.6 },
    sleeps: () => 2,
    cards: [
      { id: 'bunk-bed', name: 'Bunk bed' },
      {
        id: 'bunk-bed-small',
        name: 'Small bunk bed',
        size: { width: 0.85, depth: 1.76, height: 1.55 },
        traits: { ladder: 'left' },
        finishes: { frame: 'paint.sluice-white', cover: 'cloth.print-dot' },
      },
    ],
    make: bunk,
    symbol: (size, { ladder }) => [
      ...bedSymbol(size),
      outline(rectangle(0.06, 0.42, (ladder === 'right' ? 1 : -1) * (size.width / 2 - 0.03), -size.depth / 2 + 0.29)),
    ],
  }),
  maker({
    id: 'cot',
    name: 'Cot',
    category: 'Beds',
    traits: cotTraits,
    size: { width: 1.26, depth: 0.68, height: 0.92 },
    min: { width: 0.9, depth: 0.5, height: 0.8 },
    max: { width: 1.5, depth: 0.8, height: 1.05 },
    mount: 'floor',
    parts: { frame: 'timber.beech', sheet: 'cloth.white-linen', cover: 'cloth.print-dot' },
    words: 'baby child nursery',
    sold: { supplier: 'Ostrey Beds', price: 380 },
    clear: { front: 0.6 },
    sleeps: () => 1,
    cards: [
      { id: 'cot', name: 'Cot' },
      {
        id: 'cot-bedside',
        name: 'Bedside cot',
        size: { width: 0.95, depth: 0.55, height: 0.82 },
        traits: { side: 'off' },
        finishes: { frame: 'paint.sluice-white' },
      },
    ],
    make: cot,
    symbol: ({ width, depth }) => [outline(rectangle(width, depth)), outline(rectangle(width - 0.08, depth - 0.08))],
  }),
  maker({
    id: 'day-bed',
    name: 'Day bed',
    category: 'Beds',
    traits: dayTraits,
    size: { width: 2.04, depth: 0.92, height: 0.82 },
    min: { width: 1.7, depth: 0.75, height: 0.6 },
    max: { width: 2.3, depth: 1.1, height: 1 },
    mount: 'floor',
    parts: {
      frame: 'timber.ash',
      mattress: 'cloth.oat-weave',
      pillows: 'cloth.sage-linen',
      fronts: 'timber.ash',
      drawers: 'timber.birch',
      handles: 'metal.brass-aged',
    },
    words: 'sofa guest',
    sold: { supplier: 'Ostrey Beds', price: 740 },
    clear: { front: 0.6 },
    seats: () => 3,
    sleeps: (_size, { trundle }) => (trundle ? 2 : 1),
    cards: [
      { id: 'day-bed', name: 'Day bed' },
      { id: 'day-bed-trundle', name: 'Day bed for two', traits: { trundle: true }, finishes: { frame: 'paint.sluice-white', fronts: 'paint.sluice-white' } },
      {
        id: 'day-bed-open',
        name: 'Open day bed',
        size: { width: 2, depth: 0.86, height: 0.62 },
        traits: { back: false },
        finishes: { mattress: 'cloth.navy-twill' },
      },
    ],
    make: dayBed,
    symbol: ({ width, depth }) => [outline(rounded(width, depth, 0.02)), outline(rounded(width - 0.1, depth - 0.12, 0.05, 0, -0.03))],
  }),
];
