import { z } from 'zod';
import { MeshBuilder, type Mesh } from '../../geometry/mesh';
import { cuts, isFine, isLight, lathe, within } from '../../geometry/shapes';
import type { Vec2, Vec3 } from '../../geometry/vec';
import { about } from '../forms/carry';
import { blockSupport, draped, filled, floorSupport, roundSupport } from '../forms/cloth';
import { ellipse, roundRectangle } from '../forms/flat';
import { randomFrom } from '../forms/random';
import { bar, rod, skin } from '../forms/skin';
import { cushion, pillow } from '../forms/soft';
import { choice, count, length, toggle } from '../traits';
import { ellipseLine, maker, outline, rectangle, stroke, v3, type Made, type PieceSize, type StockItem } from '../types';
import { asLooked } from './beds';

const rugTraits = z.object({
  shape: choice('Shape', ['rectangle', 'round', 'oval', 'hide'], 'rectangle'),
  border: length('Border', { min: 0, max: 0.3, first: 0.05, step: 0.01 }),
  fringe: toggle('Fringe', false),
  pile: choice('Pile', ['flat', 'short', 'long'], 'short'),
});
type RugTraits = z.output<typeof rugTraits>;

/** The edge of a hide, as a radius about its middle: legs at four corners, neck and tail. */
function hide(width: number, depth: number, by: number): Vec2[] {
  const n = cuts(96, 28);
  return Array.from({ length: n }, (_, i) => {
    const a = (2 * Math.PI * i) / n;
    const [c, s] = [Math.cos(a), Math.sin(a)];
    const legs = 0.2 * Math.abs(Math.sin(2 * a)) ** 3;
    const waist = 0.1 * Math.cos(2 * a);
    const edge = 0.012 * Math.sin(13 * a) + 0.008 * Math.sin(29 * a);
    const k = (0.94 + legs * 0.8 - waist * 0.8 + edge) * (0.98 - by);
    return { x: Math.max(-1, Math.min(1, c * k)) * (width / 2), y: Math.max(-1, Math.min(1, s * k * 1.04)) * (depth / 2) };
  });
}

const rugOutline = ({ width, depth }: PieceSize, shape: RugTraits['shape'], by: number): Vec2[] => {
  if (shape === 'hide') return hide(width, depth, by);
  if (shape === 'rectangle') return roundRectangle(width - 2 * by, depth - 2 * by, 0.006, 3);
  return ellipse(width - 2 * by, depth - 2 * by, 48, ellipse(width, depth, 48).length);
};

/** A flat piece of an even thickness whose edge is round: rings from below to the middle of its upper side. Its outline may bulge inwards. */
function mat(outlineOf: (by: number) => readonly Vec2[], bottom: number, top: number, round: number): Mesh {
  const steps = cuts(isFine() ? 4 : 3, 1);
  const rings: Vec3[][] = [outlineOf(round * 0.6).map((p) => ({ ...p, z: bottom }))];
  for (let k = 0; k <= steps; k++) {
    const a = (Math.PI / 2) * (k / steps);
    rings.push(outlineOf(round * (1 - Math.cos(a))).map((p) => ({ ...p, z: bottom + (top - bottom) * (0.35 + 0.65 * Math.sin(a)) })));
  }
  const points = rings.flat();
  const n = rings[0].length;
  const faces: number[][] = [];
  for (let k = 0; k + 1 < rings.length; k++)
    for (let i = 0; i < n; i++) faces.push([k * n + i, k * n + ((i + 1) % n), (k + 1) * n + ((i + 1) % n), (k + 1) * n + i]);
  for (const [k, up] of [
    [0, false],
    [rings.length - 1, true],
  ] as const) {
    const middle = points.length;
    points.push({ x: 0, y: 0, z: up ? top : bottom });
    for (let i = 0; i < n; i++) faces.push(up ? [middle, k * n + i, k * n + ((i + 1) % n)] : [middle, k * n + ((i + 1) % n), k * n + i]);
  }
  return skin(points, faces, 1);
}

function rug(size: PieceSize, { shape, border, fringe, pile }: RugTraits): Made[] {
  const { width, depth, height } = size;
  const edged = border > 0.004 && shape !== 'hide' && border < Math.min(width, depth) / 2 - 0.05;
  const tassels = new MeshBuilder();
  const end = fringe && shape === 'rectangle' ? Math.min(0.07, width * 0.06) : 0;
  const own = { ...size, width: width - 2 * end };
  const ring = new MeshBuilder();
  if (edged) ring.add(mat((by) => rugOutline(own, shape, by), 0.0006, height * 0.92, Math.min(0.012, height)));
  const field = mat(
    (by) => rugOutline(own, shape, (edged ? border : 0) + by),
    edged ? height * 0.5 : 0.0006,
    height,
    Math.min(pile === 'long' ? 0.03 : 0.008, height),
  );
  if (end) {
    const random = randomFrom(5);
    const n = cuts(Math.round(depth / 0.015), Math.round(depth / 0.12));
    for (const s of [-1, 1])
      for (let i = 0; i < n; i++) {
        const y = -depth / 2 + (depth * (i + 0.5)) / n;
        const x = s * (own.width / 2 - 0.004);
        const long = end * (0.86 + 0.13 * random());
        const turn = 0.012 * (random() - 0.5);
        const r = isLight() ? 0.012 : 0.0022;
        tassels.add(
          rod([v3(x, y, height * 0.45), v3(x + s * long * 0.5, y + turn * 0.4, 0.003), v3(x + s * long, y + turn, 0.0026)], (t) => r * (1 - 0.3 * t), {
            section: 6,
          }),
        );
      }
  }
  return [
    { part: 'field', mesh: field },
    { part: 'border', mesh: ring.build() },
    { part: 'fringe', mesh: tassels.build() },
  ];
}

const cushionTraits = z.object({
  form: choice('Form', ['square', 'box', 'bolster', 'round'], 'square'),
  pose: choice('Pose', ['leaning', 'lying'], 'leaning'),
  piping: toggle('Piping', true),
  count: count('Cushions', { min: 1, max: 4, first: 1 }),
});

function scatter({ width, depth, height }: PieceSize, { form, pose, piping, count: n }: z.output<typeof cushionTraits>): Made[] {
  const out = new MeshBuilder();
  const each = width / n;
  for (let i = 0; i < n; i++) {
    const x = -width / 2 + each * (i + 0.5);
    if (form === 'bolster') {
      const r = Math.min(height, depth) / 2;
      const l = each / 2 - 0.004;
      const turns: [number, number][] = [];
      const m = cuts(8, 3);
      turns.push([0, -l + 0.006]);
      for (let k = 1; k <= m; k++)
        turns.push([r * Math.sin((Math.PI / 2) * (k / m)) ** 0.5, -l + 0.02 * (1 - Math.cos((Math.PI / 2) * (k / m))) + (k === m ? 0 : 0)]);
      for (let k = m; k >= 1; k--) turns.push([r * Math.sin((Math.PI / 2) * (k / m)) ** 0.5, l - 0.02 * (1 - Math.cos((Math.PI / 2) * (k / m)))]);
      turns.push([0, l - 0.006]);
      out.add(lathe(turns, { segments: 28 }), about('y', Math.PI / 2, x, 0, r));
      continue;
    }
    const flat = pose === 'lying';
    const fat = Math.min(height * 0.5, form === 'square' ? Math.min(0.15, depth * 0.6) : depth * 0.42);
    const lean = Math.asin(Math.max(0, Math.min(0.6, (depth * 0.45) / Math.max(0.2, height))));
    const [c, s] = [Math.cos(lean), Math.sin(lean)];
    const tall = flat ? depth : Math.max(0.06, (height - s * fat) / c);
    const made =
      form === 'box' || form === 'round'
        ? cushion({
            width: each - 0.01,
            depth: tall,
            thick: flat ? height * 0.72 : fat * 0.7,
            crown: flat ? height * 0.26 : fat * 0.28,
            corner: form === 'round' ? tall / 2 : 0.03,
            swell: [0.003, 0.003, 0.003, 0.003],
            piping,
            seed: i,
          })
        : pillow({ width: each - 0.01, depth: tall * 0.985, thick: flat ? height : fat, piping, seed: i + 1 });
    if (flat) out.add(made, about('z', n > 1 ? 0.06 * (i % 2 ? 1 : -1) : 0, x, 0, 0));
    else {
      // It stands on its edge and leans back over its depth.
      out.add(made, [1, 0, 0, 0, 0, s, c, 0, 0, -c, s, 0, x, depth / 2 - 0.01 - (s * tall) / 2, (c * tall) / 2 + 0.002, 1]);
    }
  }
  return [{ part: 'cloth', mesh: out.build() }];
}

const throwTraits = z.object({
  lie: choice('Lies', ['folded', 'over an edge', 'in a heap'], 'folded'),
  fringe: toggle('Fringe', true),
});

/** What raises the folds of a dropped blanket: middle, half width and height as shares of its size. */
const LUMPS = [
  [-0.18, 0.05, 0.16, 0.85],
  [0.14, -0.12, 0.13, 0.6],
  [0.12, 0.2, 0.09, 0.45],
  [-0.05, -0.24, 0.08, 0.35],
] as const;

/** A throw: folded to a stack, hanging over an edge as wide as it is deep, or dropped. */
function blanket({ width, depth, height }: PieceSize, { lie, fringe }: z.output<typeof throwTraits>): Made[] {
  const cloth = new MeshBuilder();
  const tassels = new MeshBuilder();
  const [w, d] = [width / 2, depth / 2];
  const hang = (ends: readonly { at: Vec3; out: Vec3 }[]): void => {
    if (!fringe) return;
    for (const [k, { at, out }] of ends.entries())
      if (!isLight() || k % 12 === 0)
        tassels.add(
          rod(
            [
              at,
              v3(at.x + out.x * 0.5, at.y + out.y * 0.5, Math.max(0.002, at.z + out.z * 0.5)),
              v3(at.x + out.x, at.y + out.y, Math.max(0.002, at.z + out.z)),
            ],
            0.0014,
            { section: 4 },
          ),
        );
  };
  if (lie === 'folded') {
    // Three layers that go round at their ends, a ribbon seen from the side.
    const layers = Math.max(2, Math.min(6, Math.round(height / 0.022)));
    const t = height / layers;
    const line: Vec3[] = [];
    const m = cuts(5, 2);
    for (let k = 0; k < layers; k++) {
      const zz = t * (k + 0.5);
      const dir = k % 2 ? -1 : 1;
      for (let i = 0; i <= 4; i++) line.push(v3(dir * (-d + t + ((2 * d - 2 * t) * i) / 4), 0, zz));
      if (k + 1 < layers)
        for (let i = 1; i < m; i++) {
          const a = -Math.PI / 2 + (Math.PI * i) / m;
          line.push(v3(dir * (d - t + (t / 2) * Math.cos(a)), 0, t * (k + 1) + (t / 2) * Math.sin(a)));
        }
    }
    const n = cuts(12, 2);
    const grid: Vec3[][] = [];
    for (let i = 0; i <= n; i++) {
      const u = i / n;
      grid.push(line.map((p, k) => v3((u - 0.5) * 2 * w * (1 - 0.004 * Math.sin(k)), p.x, Math.max(0.003, p.z - t * 0.42 + 0.0015 * Math.sin(7 * u + k)))));
    }
    const net = filled(grid, t * 0.74, t * 0.6);
    cloth.add(skin(net.points, net.faces, 1.1));
    const last = line[line.length - 1];
    hang(
      Array.from({ length: Math.round(width / 0.012) }, (_, i) => ({
        at: v3(-w + 0.006 + i * 0.012, last.x, height - t * 0.5),
        out: v3(0, (layers % 2 ? 1 : -1) * -0.02 + (layers % 2 ? 0.055 : -0.055), -0.02),
      })),
    );
  } else if (lie === 'over an edge') {
    const across = 0.2;
    const over = Math.min(across, depth * 0.6);
    const long = 2 * (height - 0.01) + over;
    const grid = draped(`over ${width} ${depth} ${height}`, () => ({
      nu: Math.max(8, Math.round(width / 0.035)),
      nv: Math.max(16, Math.round(long / 0.04)),
      start: (u, v) => v3((u - 0.5) * width * 0.98 * (1 - 0.03 * Math.sin(3 * v)), (v - 0.5) * long, height + 0.01),
      supports: [blockSupport({ x: -2, y: -over / 2 + 0.02, z: -1 }, { x: 2, y: over / 2 - 0.02, z: height - 0.012 }, 0.045), floorSupport],
      thick: 0.003,
      bend: 2e-3,
      steps: 520,
      seed: 3,
    })).map((row) =>
      row.map((p) => v3(Math.max(-w, Math.min(w, p.x)), Math.max(-d + 0.008, Math.min(d - 0.008, p.y)), Math.max(0.004, Math.min(height - 0.008, p.z)))),
    );
    const looked = asLooked(grid);
    const net = filled(looked, 0.0055, 0.003);
    cloth.add(skin(net.points, net.faces, 1.1));
    const m = looked[0].length - 1;
    hang(
      looked.flatMap((row) =>
        [row[0], row[m]].flatMap((p) =>
          [0, 0.5].map((k) => ({ at: v3(p.x + k * 0.016 - 0.004, p.y, p.z + 0.002), out: v3(0.002, 0.001, -Math.min(0.06, p.z)) })),
        ),
      ),
    );
  } else {
    const l = Math.min(1.4, width * 1.5);
    const grid = draped(`heap ${width} ${depth} ${height}`, () => ({
      nu: 26,
      nv: 30,
      start: (u, v) =>
        v3((u - 0.5) * l * 0.6 + 0.1 * Math.sin(6 * v), (v - 0.5) * l * 0.62, 0.06 + 0.5 * Math.abs(Math.sin(3.4 * u + 2.2 * v)) * height + 0.25 * v),
      // It lies over itself; what is below the folds is not seen.
      supports: [
        floorSupport,
        ...LUMPS.map(([x, y, r, h]) =>
          blockSupport(
            { x: (x - r) * width, y: (y - r) * depth, z: -1 },
            { x: (x + r) * width, y: (y + r) * depth, z: h * height },
            Math.min(0.05, h * height * 0.8),
          ),
        ),
      ],
      thick: 0.004,
      bend: 1e-3,
      steps: 420,
      seed: 11,
    })).map((row) =>
      row.map((p) =>
        v3(Math.max(-w + 0.01, Math.min(w - 0.01, p.x)), Math.max(-d + 0.01, Math.min(d - 0.01, p.y)), Math.max(0.004, Math.min(height - 0.008, p.z))),
      ),
    );
    const net = filled(asLooked(grid), 0.006, 0.003);
    cloth.add(skin(net.points, net.faces, 1.1));
  }
  return [
    { part: 'cloth', mesh: cloth.build() },
    { part: 'fringe', mesh: tassels.build() },
  ];
}

const coverTraits = z.object({
  shape: choice('Table', ['rectangle', 'round'], 'rectangle'),
  lace: toggle('Runner only', false),
});

/** A tablecloth: its size is that of what hangs; the table it lies on is smaller by what hangs over. */
function tablecloth({ width, depth, height }: PieceSize, { shape, lace }: z.output<typeof coverTraits>): Made[] {
  const drop = Math.max(0.01, height - 0.004);
  const out = drop * 0.2;
  const [tw, td] = [width - 2 * out, lace ? depth : depth - 2 * out];
  const [cw, cd] = [tw + 2 * drop, lace ? depth : td + 2 * drop];
  const top = height - 0.004;
  const grid = draped(`table ${width} ${depth} ${height} ${shape} ${lace}`, () => ({
    nu: Math.max(12, Math.min(44, Math.round(cw / 0.055))),
    nv: Math.max(6, Math.min(44, Math.round(cd / 0.055))),
    start: (u, v) => {
      let [x, y] = [(u - 0.5) * cw, (v - 0.5) * cd];
      if (shape === 'round' && !lace) {
        // A round cloth, as a square one whose corners were cut: the square is carried onto the disc.
        const [a, b] = [2 * u - 1, 2 * v - 1];
        x = (a * Math.sqrt(1 - (b * b) / 2) * cw) / 2;
        y = (b * Math.sqrt(1 - (a * a) / 2) * cd) / 2;
      }
      return v3(x, y, top + 0.004);
    },
    supports: [
      shape === 'round' && !lace
        ? roundSupport(tw / 2, td / 2, top - 0.004)
        : blockSupport({ x: -tw / 2, y: lace ? -9 : -td / 2, z: top - 0.05 }, { x: tw / 2, y: lace ? 9 : td / 2, z: top - 0.004 }, 0.006),
      floorSupport,
    ],
    thick: 0.003,
    bend: 4e-3,
    steps: 520,
    seed: 5,
  })).map((row) =>
    row.map((p) =>
      v3(
        Math.max(-width / 2 + 0.002, Math.min(width / 2 - 0.002, p.x)),
        Math.max(-depth / 2 + 0.002, Math.min(depth / 2 - 0.002, p.y)),
        Math.max(0.001, Math.min(height - 0.003, p.z)),
      ),
    ),
  );
  const net = filled(asLooked(grid), 0.0016, 0.0012);
  return [{ part: 'cloth', mesh: skin(net.points, net.faces, 1.1) }];
}

const towelTraits = z.object({ form: choice('Form', ['folded', 'rolled'], 'folded'), count: count('Towels', { min: 1, max: 6, first: 3 }) });

function towels({ width, depth, height }: PieceSize, { form, count: n }: { form: 'folded' | 'rolled' | 'hanging'; count: number }): Made[] {
  const cloth = new MeshBuilder();
  const rail = new MeshBuilder();
  const [w, d] = [width / 2, depth / 2];
  if (form === 'folded') {
    const t = height / n;
    for (let i = 0; i < n; i++) {
      for (const k of [0, 1])
        cloth.add(
          cushion({
            width: width * (0.985 - 0.02 * ((i * 0.37) % 1)),
            depth: depth - 0.006,
            thick: t * 0.44,
            crown: t * 0.05,
            corner: 0.012,
            swell: [0.002, 0.002, 0.004, 0.002],
            piping: false,
            seed: i * 2 + k,
          }),
          about('z', 0.015 * Math.sin(i * 4 + 1), 0, 0, i * t + k * t * 0.47),
        );
    }
  } else if (form === 'rolled') {
    let across = Math.max(1, Math.min(n, Math.floor(width / Math.max(0.08, height * 0.7))));
    // A heap narrows by one from row to row.
    while ((across * (across + 1)) / 2 < n) across++;
    let rows = 0;
    for (let left = n; left > 0; rows++) left -= Math.max(1, across - rows);
    const r = Math.min(width / across / 2, height / (2 + 1.74 * (rows - 1)));
    let at = 0;
    for (let row = 0; at < n; row++)
      for (let c = 0; c < Math.max(1, across - row) && at < n; c++, at++) {
        const x = -((Math.max(1, across - row) - 1) * r) + 2 * r * c;
        const turns: [number, number][] = [
          [0, -d + 0.01],
          [r * 0.85, -d + 0.004],
          [r, -d + 0.018],
          [r, d - 0.018],
          [r * 0.85, d - 0.004],
          [0, d - 0.01],
        ];
        cloth.add(lathe(turns, { segments: 24 }), about('x', -Math.PI / 2, x, 0, r + row * r * 1.73));
      }
  } else {
    rail.add(bar(v3(-w + 0.01, 0, height - 0.012), v3(w - 0.01, 0, height - 0.012), 0.009));
    for (const x of [-1, 1])
      rail
        .add(bar(v3(x * (w - 0.012), 0, height - 0.012), v3(x * (w - 0.012), d - 0.002, height - 0.012), 0.007))
        .add(bar(v3(x * (w - 0.012), d - 0.008, height - 0.012), v3(x * (w - 0.012), d, height - 0.012), 0.02));
    const line: Vec3[] = [];
    const deep = Math.min(0.022, d * 0.6);
    for (let i = 0; i <= 8; i++) line.push(v3(0, -deep, ((height - 0.02) * i) / 8));
    for (let i = 1; i < 6; i++) line.push(v3(0, -deep * Math.cos((Math.PI * i) / 6), height - 0.02 + 0.012 * Math.sin((Math.PI * i) / 6)));
    for (let i = 8; i >= 2; i--) line.push(v3(0, deep, ((height - 0.02) * i) / 8));
    const m = cuts(16, 3);
    const wide = (2 * w - 0.08) / 2;
    const grid = Array.from({ length: m + 1 }, (_, i) => {
      const u = (2 * i) / m - 1;
      return line.map((p) => v3(u * wide, p.y + 0.005 * Math.sin(9 * u + 2) * (1 - p.z / height), p.z));
    });
    const net = filled(grid, 0.006, 0.004);
    cloth.add(skin(net.points, net.faces, 1.1));
  }
  return [
    { part: 'cloth', mesh: cloth.build() },
    { part: 'rail', mesh: rail.build() },
  ];
}

export const textiles: StockItem[] = [
  maker({
    id: 'rug',
    lies: true,
    name: 'Rug',
    category: 'Textiles',
    traits: rugTraits,
    size: { width: 2.4, depth: 1.7, height: 0.012 },
    min: { width: 0.5, depth: 0.4, height: 0.006 },
    max: { width: 5, depth: 4, height: 0.05 },
    mount: 'floor',
    parts: { field: 'carpet.wool-oat', border: 'cloth.ink-linen', fringe: 'cloth.flax-linen' },
    words: 'carpet mat',
    sold: { supplier: 'Wether Mill', price: 460 },
    cards: [
      { id: 'rug', name: 'Rug' },
      {
        id: 'rug-fringed',
        name: 'Fringed rug',
        size: { width: 2.3, depth: 1.6, height: 0.01 },
        traits: { fringe: true, border: 0.12 },
        finishes: { field: 'carpet.kelim', border: 'cloth.damson-linen' },
      },
      {
        id: 'rug-round',
        name: 'Round rug',
        size: { width: 1.8, depth: 1.8, height: 0.014 },
        traits: { shape: 'round', border: 0.04 },
        finishes: { field: 'carpet.jute', border: 'cloth.flax-linen' },
      },
      {
        id: 'rug-oval',
        name: 'Oval rug',
        size: { width: 2, depth: 1.3, height: 0.012 },
        traits: { shape: 'oval', border: 0.08 },
        finishes: { field: 'carpet.wool-moss' },
      },
      {
        id: 'rug-long',
        name: 'Long-pile rug',
        size: { width: 2.4, depth: 1.7, height: 0.04 },
        traits: { pile: 'long', border: 0 },
        finishes: { field: 'carpet.shag' },
      },
      {
        id: 'runner',
        name: 'Runner',
        size: { width: 2.8, depth: 0.75, height: 0.01 },
        traits: { border: 0.06 },
        finishes: { field: 'carpet.stripe' },
        words: 'hall corridor',
      },
      {
        id: 'rug-hide',
        name: 'Hide',
        size: { width: 2, depth: 1.7, height: 0.006 },
        traits: { shape: 'hide', border: 0 },
        finishes: { field: 'cloth.tan-hide' },
      },
      {
        id: 'door-mat',
        name: 'Door mat',
        size: { width: 0.75, depth: 0.45, height: 0.018 },
        traits: { border: 0.03 },
        finishes: { field: 'carpet.coir', border: 'cloth.black-hide' },
        words: 'porch hall',
      },
    ],
    make: rug,
    symbol: (size, { shape, border, fringe }) =>
      within(0.0019, () => {
        const end = fringe && shape === 'rectangle' ? Math.min(0.07, size.width * 0.06) : 0;
        const own = { ...size, width: size.width - 2 * end };
        return [
          outline(rugOutline(own, shape, 0), true),
          ...(border > 0.004 && shape !== 'hide' && border < Math.min(size.width, size.depth) / 2 - 0.05
            ? [outline(rugOutline(own, shape, border), true)]
            : []),
        ];
      }),
  }),
  maker({
    id: 'cushion',
    name: 'Cushion',
    category: 'Textiles',
    traits: cushionTraits,
    size: { width: 0.45, depth: 0.2, height: 0.44 },
    min: { width: 0.25, depth: 0.12, height: 0.12 },
    max: { width: 2, depth: 0.9, height: 0.6 },
    mount: 'top',
    foot: 0.44,
    parts: { cloth: 'cloth.rust-velvet' },
    words: 'scatter pillow sofa',
    sold: { supplier: 'Wether Mill', price: 42 },
    cards: [
      { id: 'cushion', name: 'Cushion' },
      {
        id: 'cushion-pair',
        name: 'Two cushions',
        size: { width: 0.88, depth: 0.2, height: 0.44 },
        traits: { count: 2 },
        finishes: { cloth: 'cloth.print-sprig' },
      },
      {
        id: 'cushion-bolster',
        name: 'Bolster',
        size: { width: 0.6, depth: 0.18, height: 0.18 },
        traits: { form: 'bolster' },
        finishes: { cloth: 'cloth.forest-velvet' },
      },
      {
        id: 'cushion-floor',
        name: 'Floor cushion',
        size: { width: 0.7, depth: 0.7, height: 0.18 },
        traits: { form: 'box', pose: 'lying' },
        finishes: { cloth: 'cloth.stripe-deck' },
        words: 'seat',
      },
      {
        id: 'cushion-round',
        name: 'Round cushion',
        size: { width: 0.4, depth: 0.4, height: 0.12 },
        traits: { form: 'round', pose: 'lying' },
        finishes: { cloth: 'cloth.boucle-olive' },
      },
    ],
    make: scatter,
    symbol: ({ width, depth }) => [outline(roundRectangle(width, depth, 0.04))],
  }),
  maker({
    id: 'throw',
    name: 'Throw',
    category: 'Textiles',
    traits: throwTraits,
    size: { width: 0.5, depth: 0.36, height: 0.1 },
    min: { width: 0.3, depth: 0.2, height: 0.05 },
    max: { width: 1.6, depth: 1.2, height: 0.8 },
    mount: 'top',
    foot: 0.44,
    drop: ({ height }, { lie }) => (lie === 'over an edge' ? height - 0.012 : 0),
    parts: { cloth: 'cloth.basket-cream', fringe: 'cloth.basket-cream' },
    words: 'blanket plaid',
    sold: { supplier: 'Wether Mill', price: 95 },
    cards: [
      { id: 'throw', name: 'Folded throw' },
      {
        id: 'throw-arm',
        name: 'Throw over an arm',
        size: { width: 0.62, depth: 0.3, height: 0.44 },
        traits: { lie: 'over an edge' },
        finishes: { cloth: 'cloth.tweed-heath', fringe: 'cloth.tweed-heath' },
        words: 'sofa hanging',
      },
      { id: 'throw-heap', name: 'Thrown blanket', size: { width: 0.8, depth: 0.7, height: 0.16 }, traits: { lie: 'in a heap', fringe: false } },
    ],
    make: blanket,
    symbol: ({ width, depth }) => [outline(roundRectangle(width, depth, 0.02)), stroke([-width / 2, depth * 0.3], [width / 2, depth * 0.3])],
  }),
  maker({
    id: 'tablecloth',
    name: 'Tablecloth',
    category: 'Textiles',
    traits: coverTraits,
    size: { width: 1.92, depth: 1.02, height: 0.25 },
    min: { width: 0.3, depth: 0.25, height: 0.03 },
    max: { width: 3.4, depth: 1.8, height: 0.8 },
    mount: 'top',
    foot: 0.507,
    drop: ({ height }) => height - 0.008,
    parts: { cloth: 'cloth.check-kitchen' },
    words: 'linen dining',
    sold: { supplier: 'Wether Mill', price: 68 },
    cards: [
      { id: 'tablecloth', name: 'Tablecloth' },
      {
        id: 'tablecloth-round',
        name: 'Round tablecloth',
        size: { width: 1.32, depth: 1.32, height: 0.25 },
        traits: { shape: 'round' },
        finishes: { cloth: 'cloth.white-linen' },
      },
      {
        id: 'table-runner',
        name: 'Table runner',
        size: { width: 1.9, depth: 0.36, height: 0.2 },
        traits: { lace: true },
        finishes: { cloth: 'cloth.flax-linen' },
      },
    ],
    make: tablecloth,
    symbol: ({ width, depth }, { shape, lace }) => [shape === 'round' && !lace ? ellipseLine(width, depth) : outline(rectangle(width, depth), true)],
  }),
  maker({
    id: 'towels',
    name: 'Towels',
    category: 'Textiles',
    traits: towelTraits,
    size: { width: 0.34, depth: 0.26, height: 0.16 },
    min: { width: 0.15, depth: 0.04, height: 0.06 },
    max: { width: 0.9, depth: 0.5, height: 0.9 },
    mount: 'top',
    foot: 0.5,
    parts: { cloth: 'cloth.white-linen' },
    words: 'bathroom linen',
    sold: { supplier: 'Wether Mill', price: 36 },
    cards: [
      { id: 'towels', name: 'Folded towels' },
      { id: 'towels-rolled', name: 'Rolled towels', size: { width: 0.36, depth: 0.3, height: 0.22 }, traits: { form: 'rolled', count: 5 } },
    ],
    make: towels,
    symbol: ({ width, depth }) => [outline(rectangle(width, depth))],
  }),
  maker({
    id: 'towel-rail',
    name: 'Towel on a rail',
    category: 'Textiles',
    size: { width: 0.6, depth: 0.1, height: 0.62 },
    min: { width: 0.3, depth: 0.06, height: 0.3 },
    max: { width: 1, depth: 0.16, height: 0.9 },
    mount: 'wall',
    foot: 0.6,
    parts: { cloth: 'cloth.sage-linen', rail: 'metal.chrome' },
    words: 'bathroom',
    sold: { supplier: 'Brake Forge', price: 58 },
    make: (size) => towels(size, { form: 'hanging', count: 1 }),
    symbol: ({ width, depth }) => [outline(rectangle(width, depth))],
  }),
];
