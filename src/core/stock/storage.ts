import { MeshBuilder } from '../geometry/mesh';
import { cylinder, lathe, roundedBox, tube } from '../geometry/shapes';
import { circle, outline, rectangle, rounded, stroke, v3, type PieceSize, type StockItem } from './types';

/** Doors or drawer fronts over a carcass, with bar handles. */
function fronts(
  { width, height, y, z0 = 0 }: { width: number; height: number; y: number; z0?: number },
  columns: number,
  rows: number,
  handles: MeshBuilder,
  vertical: boolean,
): MeshBuilder {
  const out = new MeshBuilder();
  const gap = 0.003;
  const w = width / columns;
  const h = height / rows;
  for (let c = 0; c < columns; c++)
    for (let r = 0; r < rows; r++) {
      const [x0, x1] = [-width / 2 + c * w + gap / 2, -width / 2 + (c + 1) * w - gap / 2];
      const [a, b] = [z0 + r * h + gap / 2, z0 + (r + 1) * h - gap / 2];
      out.add(roundedBox(v3(x0, y - 0.02, a), v3(x1, y, b), { radius: 0.003, steps: 1 }));
      if (vertical) {
        const x = c % 2 === 0 ? x1 - 0.045 : x0 + 0.045;
        const m = (a + b) / 2;
        const l = Math.min(0.16, h * 0.2);
        handles.add(tube([v3(x, y - 0.02, m - l), v3(x, y - 0.05, m - l), v3(x, y - 0.05, m + l), v3(x, y - 0.02, m + l)], 0.006, 8));
      } else {
        const z = b - Math.min(0.06, h / 3);
        const l = Math.min(0.11, w * 0.25);
        const x = (x0 + x1) / 2;
        handles.add(tube([v3(x - l, y - 0.02, z), v3(x - l, y - 0.046, z), v3(x + l, y - 0.046, z), v3(x + l, y - 0.02, z)], 0.006, 8));
      }
    }
  return out;
}

function bed({ width, depth, height }: PieceSize): ReturnType<StockItem['make']> {
  const [w, d] = [width / 2, depth / 2];
  const frame = new MeshBuilder();
  frame.add(roundedBox(v3(-w, d - 0.06, 0.1), v3(w, d, height), { radius: 0.025, steps: 3, bulge: 0.01 }));
  frame.add(roundedBox(v3(-w, -d, 0.14), v3(w, d - 0.05, 0.3), { radius: 0.02, steps: 3 }));
  for (const x of [-w + 0.06, w - 0.06]) for (const y of [-d + 0.06, d - 0.08]) frame.add(cylinder(x, y, 0, 0.15, 0.02, 0.026, 12));
  const mattress = roundedBox(v3(-w + 0.03, -d + 0.03, 0.26), v3(w - 0.03, d - 0.07, 0.5), { radius: 0.06, steps: 4, bulge: 0.01 });
  const cover = new MeshBuilder();
  cover.add(roundedBox(v3(-w + 0.005, -d + 0.01, 0.33), v3(w - 0.005, d - 0.62, 0.545), { radius: 0.055, steps: 4, bulge: 0.02 }));
  cover.add(roundedBox(v3(-w + 0.005, d - 0.8, 0.45), v3(w - 0.005, d - 0.56, 0.575), { radius: 0.05, steps: 4, bulge: 0.015 }));
  const pillows = new MeshBuilder();
  const count = width > 1.2 ? 2 : 1;
  for (let i = 0; i < count; i++) {
    const x = count === 1 ? 0 : (i - 0.5) * (width / 2 - 0.02);
    const p = Math.min(0.34, width / count / 2 - 0.04);
    pillows.add(roundedBox(v3(x - p, d - 0.5, 0.5), v3(x + p, d - 0.1, 0.58), { radius: 0.038, steps: 4, bulge: 0.05 }));
  }
  return [
    { part: 'frame', mesh: frame.build() },
    { part: 'sheet', mesh: mattress },
    { part: 'cover', mesh: cover.build() },
    { part: 'pillows', mesh: pillows.build() },
  ];
}

/** Books as boxes of pseudo-random thickness, height and colour group along a shelf. */
function books(groups: MeshBuilder[], x0: number, x1: number, y: number, z: number, room: number, seed: number): void {
  let state = seed * 7919 + 13;
  const random = (): number => {
    state = (state * 1103515245 + 12345) & 0x7fffffff;
    return state / 0x7fffffff;
  };
  let x = x0 + 0.01;
  const stop = x0 + (x1 - x0) * (0.45 + 0.5 * random());
  while (x < stop - 0.05) {
    const t = 0.014 + 0.032 * random();
    const h = room * (0.58 + 0.3 * random());
    const d = 0.13 + 0.05 * random();
    groups[Math.floor(random() * groups.length)].add(roundedBox(v3(x, y - 0.02 - d, z), v3(x + t, y - 0.02, z + h), { radius: 0.002, steps: 1 }));
    x += t + 0.0015;
  }
}

export const storage: StockItem[] = [
  {
    id: 'bed',
    name: 'Bed',
    category: 'Beds & storage',
    size: { width: 1.6, depth: 2.1, height: 1.0 },
    min: { width: 0.9, depth: 1.9, height: 0.6 },
    max: { width: 2.1, depth: 2.3, height: 1.4 },
    mount: 'floor',
    parts: { frame: 'timber.walnut', sheet: 'cloth.white-linen', cover: 'cloth.moss-herringbone', pillows: 'cloth.white-linen' },
    make: bed,
    symbol: ({ width, depth }) => [
      outline(rounded(width, depth, 0.03)),
      stroke([-width / 2, depth / 2 - 0.62], [width / 2, depth / 2 - 0.62]),
      ...(width > 1.2
        ? [-1, 1].map((s) => outline(rounded(width / 2 - 0.16, 0.38, 0.08, (s * width) / 4, depth / 2 - 0.32)))
        : [outline(rounded(width - 0.25, 0.38, 0.08, 0, depth / 2 - 0.32))]),
    ],
  },
  {
    id: 'wardrobe',
    name: 'Wardrobe',
    category: 'Beds & storage',
    size: { width: 1.6, depth: 0.6, height: 2.1 },
    min: { width: 0.5, depth: 0.4, height: 1.6 },
    max: { width: 3.6, depth: 0.7, height: 2.4 },
    cabinet: true,
    mount: 'floor',
    parts: { fronts: 'paint.lockgate-green', carcass: 'timber.oak', handles: 'metal.brass-brushed' },
    words: 'closet cupboard',
    make({ width, depth, height }) {
      const [w, d] = [width / 2, depth / 2];
      const handles = new MeshBuilder();
      const carcass = new MeshBuilder().box(-w, -d + 0.02, 0.06, w, d, height - 0.03).box(-w + 0.03, -d + 0.06, 0, w - 0.03, d - 0.02, 0.06);
      carcass.add(roundedBox(v3(-w - 0.015, -d - 0.01, height - 0.03), v3(w + 0.015, d, height), { radius: 0.008 }));
      const doors = fronts({ width, height: height - 0.1, y: -d + 0.02, z0: 0.065 }, Math.max(1, Math.round(width / 0.45)), 1, handles, true);
      return [
        { part: 'fronts', mesh: doors.build() },
        { part: 'carcass', mesh: carcass.build() },
        { part: 'handles', mesh: handles.build() },
      ];
    },
    symbol: ({ width, depth }) => [
      outline(rectangle(width, depth)),
      stroke([-width / 2, -depth / 2], [width / 2, depth / 2]),
      stroke([-width / 2, depth / 2], [width / 2, -depth / 2]),
    ],
  },
  {
    id: 'bookcase',
    name: 'Bookcase',
    category: 'Beds & storage',
    size: { width: 1.0, depth: 0.3, height: 2.0 },
    min: { width: 0.4, depth: 0.22, height: 0.7 },
    max: { width: 2.8, depth: 0.45, height: 2.4 },
    mount: 'floor',
    parts: {
      carcass: 'timber.oak',
      back: 'timber.oak',
      'books, first': 'cloth.damson-linen',
      'books, second': 'paper.cream',
      'books, third': 'cloth.ink-linen',
    },
    words: 'shelves shelf',
    make({ width, depth, height }) {
      const [w, d] = [width / 2, depth / 2];
      const t = 0.022;
      const carcass = new MeshBuilder();
      const bays = Math.max(1, Math.round(width / 0.85));
      for (let i = 0; i <= bays; i++) {
        const x = -w + t / 2 + ((width - t) * i) / bays;
        carcass.add(roundedBox(v3(x - t / 2, -d, 0), v3(x + t / 2, d, height), { radius: 0.003, steps: 1 }));
      }
      const shelves = Math.max(2, Math.round(height / 0.36));
      const groups = [new MeshBuilder(), new MeshBuilder(), new MeshBuilder()];
      for (let s = 0; s <= shelves; s++) {
        const z = s === 0 ? 0.06 : s === shelves ? height - t : 0.06 + ((height - 0.06) * s) / shelves;
        for (let i = 0; i < bays; i++) {
          const x0 = -w + t + ((width - t) * i) / bays;
          const x1 = x0 + (width - t) / bays - t;
          carcass.box(x0, -d + 0.006, z, x1, d - 0.006, z + t);
          if (s < shelves) books(groups, x0, x1, d, z + t, (height - 0.06) / shelves - t, s * 7 + i * 3 + 1);
        }
      }
      return [
        { part: 'carcass', mesh: carcass.build() },
        { part: 'back', mesh: new MeshBuilder().box(-w + t, d - 0.01, 0.06, w - t, d - 0.002, height - t).build() },
        { part: 'books, first', mesh: groups[0].build() },
        { part: 'books, second', mesh: groups[1].build() },
        { part: 'books, third', mesh: groups[2].build() },
      ];
    },
    symbol: ({ width, depth }) => [outline(rectangle(width, depth)), stroke([-width / 2, depth / 2], [width / 2, -depth / 2])],
  },
  {
    id: 'sideboard',
    name: 'Sideboard',
    category: 'Beds & storage',
    size: { width: 1.6, depth: 0.45, height: 0.75 },
    min: { width: 0.6, depth: 0.32, height: 0.5 },
    max: { width: 2.6, depth: 0.6, height: 1.1 },
    cabinet: true,
    mount: 'floor',
    parts: { fronts: 'timber.walnut', carcass: 'timber.walnut', handles: 'metal.brass-brushed', legs: 'metal.iron-black' },
    words: 'cabinet chest drawers',
    make({ width, depth, height }) {
      const [w, d] = [width / 2, depth / 2];
      const handles = new MeshBuilder();
      const legs = new MeshBuilder();
      for (const x of [-w + 0.1, w - 0.1]) for (const y of [-d + 0.06, d - 0.06]) legs.add(cylinder(x, y, 0, 0.14, 0.01, 0.014, 10));
      const carcass = new MeshBuilder().box(-w + 0.004, -d + 0.02, 0.14, w - 0.004, d, height - 0.024);
      carcass.add(roundedBox(v3(-w, -d - 0.002, height - 0.024), v3(w, d, height), { radius: 0.006 }));
      const doors = fronts({ width: width - 0.012, height: height - 0.17, y: -d + 0.02, z0: 0.143 }, Math.max(1, Math.round(width / 0.5)), 2, handles, false);
      return [
        { part: 'fronts', mesh: doors.build() },
        { part: 'carcass', mesh: carcass.build() },
        { part: 'handles', mesh: handles.build() },
        { part: 'legs', mesh: legs.build() },
      ];
    },
    symbol: ({ width, depth }) => [outline(rectangle(width, depth)), stroke([-width / 2, -depth / 2 + 0.03], [width / 2, -depth / 2 + 0.03])],
  },
  {
    id: 'counter',
    name: 'Sink counter',
    category: 'Kitchen & bath',
    size: { width: 2.4, depth: 0.63, height: 0.91 },
    min: { width: 1.0, depth: 0.6, height: 0.8 },
    max: { width: 4.2, depth: 0.7, height: 0.95 },
    fixed: true,
    cabinet: true,
    mount: 'floor',
    parts: {
      fronts: 'paint.lockgate-green',
      carcass: 'paint.lockgate-green',
      worktop: 'terrazzo.pale',
      sink: 'metal.steel-brushed',
      tap: 'metal.brass-brushed',
      handles: 'metal.brass-brushed',
    },
    words: 'kitchen cabinet worktop base',
    make({ width, depth, height }) {
      const [w, d] = [width / 2, depth / 2];
      const handles = new MeshBuilder();
      const top = 0.03;
      const carcass = new MeshBuilder().box(-w + 0.003, -d + 0.05, 0.12, w - 0.003, d, height - top).box(-w + 0.01, -d + 0.1, 0, w - 0.01, d, 0.12);
      const doors = fronts(
        { width: width - 0.006, height: height - top - 0.125, y: -d + 0.05, z0: 0.122 },
        Math.max(2, Math.round(width / 0.6)),
        1,
        handles,
        false,
      );
      // The worktop runs round the bowl.
      const [sx, sw, sy, sd] = [0, 0.25, -0.02, 0.19];
      const z0 = height - top;
      const worktop = new MeshBuilder()
        .box(-w, -d, z0, sx - sw, d, height)
        .box(sx + sw, -d, z0, w, d, height)
        .box(sx - sw, -d, z0, sx + sw, sy - sd, height)
        .box(sx - sw, sy + sd, z0, sx + sw, d, height);
      const bowl = new MeshBuilder();
      const zb = height - 0.2;
      bowl.quad(v3(sx - sw, sy + sd, zb), v3(sx - sw, sy - sd, zb), v3(sx - sw, sy - sd, height - 0.002), v3(sx - sw, sy + sd, height - 0.002));
      bowl.quad(v3(sx + sw, sy - sd, zb), v3(sx + sw, sy + sd, zb), v3(sx + sw, sy + sd, height - 0.002), v3(sx + sw, sy - sd, height - 0.002));
      bowl.quad(v3(sx - sw, sy - sd, zb), v3(sx + sw, sy - sd, zb), v3(sx + sw, sy - sd, height - 0.002), v3(sx - sw, sy - sd, height - 0.002));
      bowl.quad(v3(sx + sw, sy + sd, zb), v3(sx - sw, sy + sd, zb), v3(sx - sw, sy + sd, height - 0.002), v3(sx + sw, sy + sd, height - 0.002));
      bowl.quad(v3(sx - sw, sy - sd, zb), v3(sx - sw, sy + sd, zb), v3(sx + sw, sy + sd, zb), v3(sx + sw, sy - sd, zb));
      bowl.add(cylinder(sx, sy, zb, zb + 0.003, 0.04, 0.036));
      const arc = Array.from({ length: 13 }, (_, i) => {
        const a = Math.PI - (i / 12) * Math.PI;
        return v3(sx, sy + sd + 0.045 - 0.085 + 0.085 * -Math.cos(a), height + 0.24 + 0.085 * Math.sin(a));
      }).reverse();
      const tap = new MeshBuilder().add(tube([v3(sx, sy + sd + 0.045, height), ...arc, v3(sx, arc[arc.length - 1].y, height + 0.18)], 0.012, 12));
      tap.add(cylinder(sx, sy + sd + 0.045, height, height + 0.05, 0.024, 0.02));
      tap.add(tube([v3(sx + 0.02, sy + sd + 0.045, height + 0.04), v3(sx + 0.09, sy + sd + 0.045, height + 0.055)], 0.007, 8));
      return [
        { part: 'fronts', mesh: doors.build() },
        { part: 'carcass', mesh: carcass.build() },
        { part: 'worktop', mesh: worktop.build() },
        { part: 'sink', mesh: bowl.build() },
        { part: 'tap', mesh: tap.build() },
        { part: 'handles', mesh: handles.build() },
      ];
    },
    symbol: ({ width, depth }) => [
      outline(rectangle(width, depth)),
      outline(rounded(0.5, 0.38, 0.05, 0, -0.02)),
      outline(circle(0.03, 0, 0.2)),
      stroke([0, 0.2], [0, 0.06]),
    ],
  },
  {
    id: 'stove',
    name: 'Wood stove',
    category: 'Kitchen & bath',
    size: { width: 0.52, depth: 0.42, height: 0.72 },
    min: { width: 0.4, depth: 0.34, height: 0.55 },
    max: { width: 0.8, depth: 0.6, height: 1.1 },
    mount: 'floor',
    parts: { body: 'metal.iron-black', window: 'glass.smoke', pipe: 'metal.iron-black' },
    words: 'fire hearth',
    make({ width, depth, height }) {
      const [w, d] = [width / 2, depth / 2];
      const body = new MeshBuilder();
      for (const x of [-w + 0.05, w - 0.05]) for (const y of [-d + 0.05, d - 0.05]) body.add(cylinder(x, y, 0, 0.13, 0.016, 0.024, 10));
      body.add(roundedBox(v3(-w, -d, 0.12), v3(w, d, height - 0.03), { radius: 0.018, steps: 3 }));
      body.add(roundedBox(v3(-w - 0.015, -d - 0.015, height - 0.03), v3(w + 0.015, d + 0.005, height), { radius: 0.01, steps: 2 }));
      const [x0, x1, z0, z1] = [-w + 0.05, w - 0.05, 0.24, height - 0.1];
      body.box(x0, -d - 0.02, z0, x0 + 0.04, -d, z1).box(x1 - 0.04, -d - 0.02, z0, x1, -d, z1);
      body.box(x0 + 0.04, -d - 0.02, z0, x1 - 0.04, -d, z0 + 0.04).box(x0 + 0.04, -d - 0.02, z1 - 0.04, x1 - 0.04, -d, z1);
      body.add(tube([v3(x1 - 0.02, -d - 0.02, 0.4), v3(x1 - 0.02, -d - 0.06, 0.4), v3(x1 - 0.02, -d - 0.06, 0.52)], 0.009, 8));
      return [
        { part: 'body', mesh: body.build() },
        { part: 'window', mesh: new MeshBuilder().box(x0 + 0.04, -d - 0.008, z0 + 0.04, x1 - 0.04, -d - 0.003, z1 - 0.04).build() },
        {
          part: 'pipe',
          mesh: lathe(
            [
              [0.065, height - 0.01],
              [0.065, 2.48],
            ],
            { x: 0, y: d - 0.13, segments: 20 },
          ),
        },
      ];
    },
    symbol: ({ width, depth }) => [outline(rectangle(width, depth)), outline(circle(0.065, 0, depth / 2 - 0.13))],
  },
];
