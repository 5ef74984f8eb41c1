import { MeshBuilder } from '../geometry/mesh';
import { cylinder, roundedBox, tube } from '../geometry/shapes';
import { outline, rectangle, rounded, stroke, v3, type PieceSize, type StockItem } from './types';

/** A tapered round leg under a point. */
const leg = (builder: MeshBuilder, x: number, y: number, height: number, radius = 0.02): void =>
  void builder.add(cylinder(x, y, 0, height, radius * 0.65, radius, 12));

/** Sofa and armchair: legs, plinth, arms, back and as many seats as the width holds. */
function upholstered({ width, depth, height }: PieceSize, arm: number): ReturnType<StockItem['make']> {
  const frame = new MeshBuilder();
  const cushions = new MeshBuilder();
  const legs = new MeshBuilder();
  const [w, d] = [width / 2, depth / 2];
  const foot = 0.13;
  const seat = 0.42;
  for (const x of [-w + 0.09, w - 0.09]) for (const y of [-d + 0.09, d - 0.09]) leg(legs, x, y, foot, 0.022);
  frame.add(roundedBox(v3(-w + 0.02, -d + 0.03, foot), v3(w - 0.02, d - 0.02, 0.29), { radius: 0.03, steps: 3 }));
  for (const side of [-1, 1])
    frame.add(roundedBox(v3(side < 0 ? -w : w - arm, -d, foot + 0.02), v3(side < 0 ? -w + arm : w, d - 0.05, 0.6), { radius: 0.055, steps: 4, bulge: 0.008 }));
  frame.add(roundedBox(v3(-w + arm * 0.4, d - 0.24, foot + 0.02), v3(w - arm * 0.4, d, height), { radius: 0.07, steps: 4, bulge: 0.01 }));
  const inner = width - 2 * arm;
  const seats = Math.max(1, Math.round(inner / 0.68));
  const step = inner / seats;
  for (let i = 0; i < seats; i++) {
    const x0 = -w + arm + i * step + 0.004;
    const x1 = x0 + step - 0.008;
    cushions.add(roundedBox(v3(x0, -d + 0.005, 0.285), v3(x1, d - 0.22, seat), { radius: 0.05, steps: 4, bulge: 0.022 }));
    cushions.add(roundedBox(v3(x0 + 0.01, d - 0.36, seat + 0.005), v3(x1 - 0.01, d - 0.19, height + 0.02), { radius: 0.07, steps: 4, bulge: 0.03 }));
  }
  return [
    { part: 'frame', mesh: frame.build() },
    { part: 'cushions', mesh: cushions.build() },
    { part: 'legs', mesh: legs.build() },
  ];
}

const upholsteredSymbol =
  (arm: number) =>
  ({ width, depth }: PieceSize) => {
    const inner = width - 2 * arm;
    const seats = Math.max(1, Math.round(inner / 0.68));
    const lines = [outline(rounded(width, depth, 0.07)), outline(rounded(inner, depth - 0.24, 0.05, 0, -0.12))];
    for (let i = 1; i < seats; i++) {
      const x = -inner / 2 + (inner * i) / seats;
      lines.push(stroke([x, -depth / 2], [x, depth / 2 - 0.24]));
    }
    return lines;
  };

export const seating: StockItem[] = [
  {
    id: 'sofa',
    name: 'Sofa',
    category: 'Seating',
    size: { width: 2.1, depth: 0.92, height: 0.8 },
    min: { width: 1.3, depth: 0.78, height: 0.68 },
    max: { width: 3.2, depth: 1.1, height: 0.98 },
    mount: 'floor',
    parts: { cushions: 'cloth.oat-weave', frame: 'cloth.oat-weave', legs: 'timber.oak' },
    words: 'couch settee lounge',
    make: (size) => upholstered(size, 0.18),
    symbol: upholsteredSymbol(0.18),
  },
  {
    id: 'armchair',
    name: 'Armchair',
    category: 'Seating',
    size: { width: 0.84, depth: 0.86, height: 0.78 },
    min: { width: 0.7, depth: 0.72, height: 0.65 },
    max: { width: 1.1, depth: 1.05, height: 1.0 },
    mount: 'floor',
    parts: { cushions: 'cloth.moss-herringbone', frame: 'cloth.moss-herringbone', legs: 'timber.walnut' },
    words: 'easy chair reading',
    make: (size) => upholstered(size, 0.14),
    symbol: upholsteredSymbol(0.14),
  },
  {
    id: 'chair',
    name: 'Dining chair',
    category: 'Seating',
    size: { width: 0.45, depth: 0.5, height: 0.82 },
    min: { width: 0.38, depth: 0.42, height: 0.72 },
    max: { width: 0.58, depth: 0.6, height: 1.1 },
    mount: 'floor',
    parts: { seat: 'cloth.damson-linen', frame: 'timber.oak' },
    make({ width, depth, height }) {
      const frame = new MeshBuilder();
      const [w, d] = [width / 2, depth / 2];
      const top = 0.44;
      for (const x of [-1, 1]) {
        frame.add(tube([v3(x * (w - 0.02), -d + 0.025, 0), v3(x * (w - 0.035), -d + 0.05, top)], 0.016, 12));
        frame.add(
          tube(
            [
              v3(x * (w - 0.03), d - 0.01, 0),
              v3(x * (w - 0.035), d - 0.06, top),
              v3(x * (w - 0.03), d - 0.045, top + 0.2),
              v3(x * (w - 0.025), d - 0.012, height),
            ],
            0.016,
            12,
          ),
        );
        frame.add(roundedBox(v3(x * (w - 0.035) - 0.01, -d + 0.06, top - 0.07), v3(x * (w - 0.035) + 0.01, d - 0.07, top - 0.02), { radius: 0.006 }));
      }
      frame.add(roundedBox(v3(-w + 0.04, -d + 0.04, top - 0.07), v3(w - 0.04, -d + 0.06, top - 0.02), { radius: 0.006 }));
      // A bent back rail between the two back legs.
      const rail = 10;
      for (const [z0, z1] of [
        [height - 0.13, height - 0.01],
        [height - 0.25, height - 0.2],
      ])
        for (let i = 0; i < rail; i++) {
          const x = (k: number): number => -w + 0.03 + ((width - 0.06) * k) / rail;
          const y = (k: number): number => d - 0.02 + 0.028 * Math.sin((Math.PI * k) / rail) - (height - z1) * 0.12;
          frame.quad(v3(x(i), y(i) - 0.012, z0), v3(x(i + 1), y(i + 1) - 0.012, z0), v3(x(i + 1), y(i + 1) - 0.012, z1), v3(x(i), y(i) - 0.012, z1), x(i));
          frame.quad(v3(x(i + 1), y(i + 1) + 0.006, z0), v3(x(i), y(i) + 0.006, z0), v3(x(i), y(i) + 0.006, z1), v3(x(i + 1), y(i + 1) + 0.006, z1), x(i));
          frame.quad(v3(x(i), y(i) - 0.012, z1), v3(x(i + 1), y(i + 1) - 0.012, z1), v3(x(i + 1), y(i + 1) + 0.006, z1), v3(x(i), y(i) + 0.006, z1), x(i));
          frame.quad(v3(x(i), y(i) + 0.006, z0), v3(x(i + 1), y(i + 1) + 0.006, z0), v3(x(i + 1), y(i + 1) - 0.012, z0), v3(x(i), y(i) - 0.012, z0), x(i));
        }
      const seat = roundedBox(v3(-w + 0.005, -d, top - 0.02), v3(w - 0.005, d - 0.05, top + 0.025), { radius: 0.022, steps: 3, bulge: 0.012 });
      return [
        { part: 'seat', mesh: seat },
        { part: 'frame', mesh: frame.build() },
      ];
    },
    symbol: ({ width, depth }) => [outline(rounded(width, depth - 0.06, 0.05, 0, -0.03)), outline(rectangle(width, 0.05, 0, depth / 2 - 0.025))],
  },
  {
    id: 'bench',
    name: 'Bench',
    category: 'Seating',
    size: { width: 1.4, depth: 0.36, height: 0.45 },
    min: { width: 0.6, depth: 0.28, height: 0.38 },
    max: { width: 2.4, depth: 0.5, height: 0.5 },
    mount: 'floor',
    parts: { top: 'timber.ash', legs: 'timber.ash' },
    words: 'stool seat hall',
    make({ width, depth, height }) {
      const [w, d] = [width / 2, depth / 2];
      const legs = new MeshBuilder();
      for (const x of [-1, 1])
        for (const y of [-1, 1]) legs.add(tube([v3(x * (w - 0.06), y * (d - 0.03), 0), v3(x * (w - 0.14), y * (d - 0.07), height - 0.03)], 0.018, 12));
      for (const x of [-1, 1]) legs.add(tube([v3(x * (w - 0.09), -d + 0.045, 0.16), v3(x * (w - 0.09), d - 0.045, 0.16)], 0.011, 10));
      return [
        { part: 'top', mesh: roundedBox(v3(-w, -d, height - 0.04), v3(w, d, height), { radius: 0.016, steps: 3 }) },
        { part: 'legs', mesh: legs.build() },
      ];
    },
    symbol: ({ width, depth }) => [outline(rounded(width, depth, 0.03))],
  },
];
