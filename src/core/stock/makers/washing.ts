import { MeshBuilder } from '../../geometry/mesh';
import { cylinder, lathe, roundedBox, tube } from '../../geometry/shapes';
import { circle, outline, rectangle, rounded, stroke, v3, type StockItem } from '../types';

/** Height of a shower tray and of the glass that stands on it, metres. */
const TRAY = 0.04;
const GLASS = 0.008;

export const washing: StockItem[] = [
  {
    id: 'basin',
    name: 'Wash basin',
    category: 'Kitchen & bath',
    size: { width: 0.55, depth: 0.45, height: 0.85 },
    min: { width: 0.36, depth: 0.3, height: 0.72 },
    max: { width: 0.9, depth: 0.55, height: 0.9 },
    mount: 'wall',
    parts: { basin: 'ceramic.white', tap: 'metal.chrome', trap: 'metal.chrome' },
    words: 'bathroom sink washbasin',
    sold: { supplier: 'Sluice & Penn', price: 290 },
    clear: { front: 0.7 },
    connections: ['water', 'waste'],
    make({ width, depth, height }) {
      const [w, d] = [width / 2, depth / 2];
      const basin = new MeshBuilder();
      basin.add(roundedBox(v3(-w, -d, height - 0.14), v3(w, d, height - 0.07), { radius: 0.03, steps: 3 }));
      const rim = 0.035;
      basin.add(roundedBox(v3(-w, -d, height - 0.12), v3(-w + rim, d, height), { radius: 0.015, steps: 3 }));
      basin.add(roundedBox(v3(w - rim, -d, height - 0.12), v3(w, d, height), { radius: 0.015, steps: 3 }));
      basin.add(roundedBox(v3(-w, -d, height - 0.12), v3(w, -d + rim, height), { radius: 0.015, steps: 3 }));
      basin.add(roundedBox(v3(-w, d - 0.11, height - 0.12), v3(w, d, height), { radius: 0.015, steps: 3 }));
      const tap = new MeshBuilder()
        .add(cylinder(0, d - 0.055, height - 0.005, height + 0.1, 0.02, 0.018))
        .add(tube([v3(0, d - 0.06, height + 0.075), v3(0, d - 0.19, height + 0.06), v3(0, d - 0.19, height + 0.045)], 0.011))
        .add(tube([v3(0, d - 0.055, height + 0.1), v3(0, d - 0.1, height + 0.13)], 0.006, 8));
      const trap = new MeshBuilder().add(tube([v3(0, 0, height - 0.14), v3(0, 0, height - 0.3), v3(0, 0.04, height - 0.33), v3(0, d, height - 0.33)], 0.018));
      return [
        { part: 'basin', mesh: basin.build() },
        { part: 'tap', mesh: tap.build() },
        { part: 'trap', mesh: trap.build() },
      ];
    },
    symbol: ({ width, depth }) => [
      outline(rounded(width, depth, 0.06)),
      outline(rounded(width - 0.09, depth - 0.16, 0.1, 0, -0.04)),
      outline(circle(0.02, 0, depth / 2 - 0.055)),
    ],
  },
  {
    id: 'wc',
    name: 'WC',
    category: 'Kitchen & bath',
    size: { width: 0.38, depth: 0.66, height: 0.8 },
    min: { width: 0.34, depth: 0.5, height: 0.7 },
    max: { width: 0.42, depth: 0.75, height: 0.9 },
    mount: 'floor',
    parts: { pan: 'ceramic.white', seat: 'ceramic.white', button: 'metal.chrome' },
    words: 'toilet lavatory',
    sold: { supplier: 'Sluice & Penn', price: 340 },
    clear: { front: 0.6 },
    connections: ['water', 'waste'],
    make({ width, depth, height }) {
      const d = depth / 2;
      const r = width / 2;
      const pan = new MeshBuilder();
      const bowl = lathe(
        [
          [0, 0],
          [r * 0.62, 0],
          [r * 0.6, 0.08],
          [r * 0.68, 0.2],
          [r * 0.95, 0.34],
          [r * 0.97, 0.4],
          [r * 0.97, 0.4],
          [r * 0.74, 0.4],
          [r * 0.74, 0.4],
          [r * 0.55, 0.28],
          [0, 0.24],
        ],
        { segments: 28 },
      );
      const stretch = 1.25;
      pan.add(bowl, [1, 0, 0, 0, 0, stretch, 0, 0, 0, 0, 1, 0, 0, -d + r * stretch, 0, 1]);
      pan.add(roundedBox(v3(-r * 0.6, 0, 0), v3(r * 0.6, d - 0.02, 0.39), { radius: 0.05, steps: 3 }));
      pan.add(roundedBox(v3(-r, d - 0.19, 0.36), v3(r, d, height), { radius: 0.03, steps: 3 }));
      const seat = lathe(
        [
          [r * 0.66, 0.4],
          [r * 0.99, 0.4],
          [r * 0.99, 0.418],
          [r * 0.95, 0.425],
          [r * 0.7, 0.425],
          [r * 0.66, 0.418],
          [r * 0.66, 0.4],
        ],
        { segments: 28 },
      );
      return [
        { part: 'pan', mesh: pan.build() },
        { part: 'seat', mesh: new MeshBuilder().add(seat, [1, 0, 0, 0, 0, stretch, 0, 0, 0, 0, 1, 0, 0, -d + r * stretch, 0, 1]).build() },
        { part: 'button', mesh: cylinder(0, d - 0.095, height - 0.002, height + 0.006, 0.02, 0.018) },
      ];
    },
    symbol: ({ width, depth }) => [
      outline(rounded(width, 0.19, 0.03, 0, depth / 2 - 0.095)),
      outline(
        circle(width / 2, 0, 0).map((p) => ({ x: p.x * 0.97, y: Math.max(-depth / 2, Math.min(depth / 2, p.y * 1.25 - depth / 2 + (width / 2) * 1.25)) })),
      ),
    ],
  },
  {
    id: 'shower',
    name: 'Shower',
    category: 'Kitchen & bath',
    size: { width: 0.9, depth: 0.9, height: 2.05 },
    min: { width: 0.7, depth: 0.7, height: 1.85 },
    max: { width: 1.8, depth: 1.2, height: 2.4 },
    mount: 'floor',
    parts: { tray: 'ceramic.white', screen: 'glass.clear', rail: 'metal.chrome', frame: 'metal.chrome' },
    words: 'tray cubicle screen bathroom',
    sold: { supplier: 'Sluice & Penn', price: 760 },
    clear: { front: 0.7 },
    connections: ['water', 'waste'],
    // Back and left stand against walls; the screen keeps the right side, the front is open.
    make({ width, depth, height }) {
      // It stands a hair off the walls, so that no two faces lie in one plane.
      const [w, d] = [width / 2 - 0.0006, depth / 2 - 0.0006];
      const tray = new MeshBuilder();
      const rim = 0.045;
      tray.add(roundedBox(v3(-w, -d, 0), v3(w, d, TRAY - 0.015), { radius: 0.008, steps: 2 }));
      for (const [x0, y0, x1, y1] of [
        [-w, -d, -w + rim, d],
        [w - rim, -d, w, d],
        [-w, -d, w, -d + rim],
        [-w, d - rim, w, d],
      ])
        tray.add(roundedBox(v3(x0, y0, 0), v3(x1, y1, TRAY), { radius: 0.008, steps: 2 }));
      const x = w - rim / 2;
      const screen = new MeshBuilder().box(x - GLASS / 2, -d + 0.02, TRAY + 0.012, x + GLASS / 2, d - 0.001, height - 0.02);
      const frame = new MeshBuilder()
        .box(x - 0.012, -d + 0.02, TRAY, x + 0.012, d, TRAY + 0.012)
        .box(x - 0.012, -d + 0.02, height - 0.02, x + 0.012, d, height)
        .box(x - 0.012, d - 0.02, TRAY + 0.012, x + 0.012, d, height - 0.02);
      const y = d - 0.05;
      const top = height - 0.05;
      const rail = new MeshBuilder()
        .add(tube([v3(0, y, 1), v3(0, y, top - 0.05), v3(0, y - 0.05, top), v3(0, y - 0.34, top)], 0.011))
        .add(cylinder(0, y - 0.34, top - 0.035, top - 0.005, 0.02, 0.02))
        .add(cylinder(0, y - 0.34, top - 0.047, top - 0.035, 0.11, 0.11, 28))
        .add(tube([v3(-0.13, y, 1), v3(0.13, y, 1)], 0.022, 16))
        .add(tube([v3(0, y, 1.45), v3(0, d, 1.45)], 0.009, 8))
        .add(cylinder(0, 0, TRAY - 0.014, TRAY - 0.008, 0.045, 0.045, 20));
      return [
        { part: 'tray', mesh: tray.build() },
        { part: 'screen', mesh: screen.build() },
        { part: 'frame', mesh: frame.build() },
        { part: 'rail', mesh: rail.build() },
      ];
    },
    symbol: ({ width, depth }) => [
      outline(rectangle(width, depth)),
      outline(rounded(width - 0.09, depth - 0.09, 0.04)),
      outline(circle(0.045)),
      stroke([-width / 2 + 0.045, -depth / 2 + 0.045], [-0.04, -0.02]),
      stroke([width / 2 - 0.045, depth / 2 - 0.045], [0.04, 0.02]),
      stroke([width / 2 - 0.022, -depth / 2 + 0.02], [width / 2 - 0.022, depth / 2]),
    ],
  },
];
