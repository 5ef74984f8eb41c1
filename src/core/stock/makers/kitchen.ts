import { MeshBuilder } from '../../geometry/mesh';
import { cylinder, roundedBox, tube } from '../../geometry/shapes';
import { circle, outline, rectangle, rounded, stroke, v3, type StockItem } from '../types';

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

export const kitchen: StockItem[] = [
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
    sold: { supplier: 'Ferrow & Daughters', price: 2100 },
    clear: { front: 1 },
    connections: ['water', 'waste'],
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
];
