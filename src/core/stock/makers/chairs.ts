import { z } from 'zod';
import { MeshBuilder } from '../../geometry/mesh';
import { cuts, isFine, roundedBox } from '../../geometry/shapes';
import { timber } from '../forms/boards';
import { shiftBy } from '../forms/carry';
import { ellipse, roundRectangle, slab } from '../forms/flat';
import { bar, rod, skin, slat } from '../forms/skin';
import { cushion } from '../forms/soft';
import { subdivide, thickened } from '../forms/subdivide';
import { post, turned } from '../forms/turned';
import { choice, length, toggle } from '../traits';
import { ellipseLine, maker, outline, rectangle, rounded, v3, type Made, type PieceSize, type StockItem } from '../types';

const chairTraits = z.object({
  back: choice('Back', ['rails', 'spindles', 'panel', 'ladder'], 'rails'),
  seat: choice('Seat', ['cushion', 'wood'], 'cushion'),
  arms: toggle('Arms', false),
  sitting: length('Seat height', { min: 0.38, max: 0.8, first: 0.44 }),
});

type ChairTraits = z.output<typeof chairTraits>;

/** Radius of legs, and half of the thickness of back rails, metres. */
const LEG = 0.016;
const RAIL = 0.009;

/** A bent rail between the two back posts, its edges round. */
function bentRail(frame: MeshBuilder, { width, depth, height }: PieceSize, z0: number, z1: number): void {
  const n = cuts(12, 4);
  const middle = (z0 + z1) / 2;
  const line = Array.from({ length: n + 1 }, (_, k) => {
    const t = k / n;
    // It leans with the posts, and its middle lies farther back.
    return v3(-width / 2 + 0.03 + (width - 0.06) * t, depth / 2 - 0.028 + 0.019 * Math.sin(Math.PI * t) - (height - middle) * 0.12, middle);
  });
  const half = (z1 - z0) / 2;
  const l = Math.hypot(0.12, 1);
  frame.add(slat(line, () => v3(0, (0.12 / l) * half, half / l), 2 * RAIL));
}

function chair(size: PieceSize, { back, seat, arms, sitting }: ChairTraits): Made[] {
  const { width, depth, height } = size;
  const [w, d] = [width / 2, depth / 2];
  const top = Math.min(sitting, height - 0.2);
  const frame = new MeshBuilder();
  for (const x of [-1, 1]) {
    frame.add(bar(v3(x * (w - 0.018), -d + 0.02, 0), v3(x * (w - 0.038), -d + 0.052, top - 0.004), 0.0115, LEG));
    // The back leg goes on as the post of the back.
    frame.add(
      rod(
        [
          v3(x * (w - 0.028), d - 0.018, 0),
          v3(x * (w - 0.035), d - 0.06, top),
          v3(x * (w - 0.03), d - 0.028 - (height - top - 0.2) * 0.12, top + 0.2),
          v3(x * (w - 0.025), d - 0.022, height),
        ],
        (t) => 0.012 + (LEG - 0.012) * Math.sin(Math.PI * Math.min(1, 0.1 + t * 0.95)),
        { section: 12 },
      ),
    );
    frame.add(timber(x * (w - 0.037) - 0.01, -d + 0.06, top - 0.07, x * (w - 0.037) + 0.01, d - 0.07, top - 0.022));
    if (top > 0.55) frame.add(bar(v3(x * (w - 0.025), -d + 0.035, 0.24), v3(x * (w - 0.032), d - 0.04, 0.24), 0.009, 0.011));
    if (arms) {
      frame.add(bar(v3(x * (w - 0.038), -d + 0.052, top - 0.01), v3(x * (w - 0.032), -d + 0.06, top + 0.2), LEG * 0.9, LEG * 0.75));
      frame.add(
        slat(
          [v3(x * (w - 0.03), -d + 0.028, top + 0.209), v3(x * (w - 0.027), 0, top + 0.212), v3(x * (w - 0.03), d - 0.036, top + 0.203)],
          () => v3(0.024, 0, 0),
          0.026,
        ),
      );
    }
  }
  for (const y of [-d + 0.05, d - 0.06]) frame.add(timber(-w + 0.04, y - 0.01, top - 0.068, w - 0.04, y + 0.01, top - 0.0225));
  if (top > 0.55) frame.add(bar(v3(-w + 0.025, -d + 0.035, 0.2), v3(w - 0.025, -d + 0.035, 0.2), 0.011));
  const high = height - RAIL;
  if (back === 'rails') {
    bentRail(frame, size, height - 0.12, high);
    if (height - top > 0.3) bentRail(frame, size, height - 0.26, height - 0.2);
  } else if (back === 'panel') bentRail(frame, size, Math.max(top + 0.06, height - 0.34), high);
  else if (back === 'ladder') {
    const n = Math.max(2, Math.round((height - top - 0.08) / 0.1));
    for (let i = 0; i < n; i++) {
      const z = top + 0.1 + ((high - 0.02 - top - 0.1) * (i + 0.5)) / n;
      bentRail(frame, size, z - 0.023, z + 0.023);
    }
  } else {
    bentRail(frame, size, height - 0.07, high);
    const n = Math.max(3, Math.round((width - 0.1) / 0.065));
    for (let i = 1; i < n; i++) {
      const t = i / n;
      const x = -w + 0.03 + (width - 0.06) * t;
      frame.add(
        rod(
          [
            v3(0.92 * x, d - 0.062, top - 0.02),
            v3(0.96 * x, d - 0.055, (top + height) / 2 - 0.06),
            v3(x, d - 0.028 + 0.019 * Math.sin(Math.PI * t) - 0.07 * 0.12, height - 0.055),
          ],
          (k) => 0.0052 + 0.003 * Math.sin(Math.PI * k),
          { section: 8 },
        ),
      );
    }
  }
  const [x, y0, y1] = [w - 0.005, -d, d - 0.05];
  const middle = (y0 + y1) / 2;
  const board = new MeshBuilder();
  // A wooden seat is dished; cloth is drawn over a pad.
  board.add(
    seat === 'cushion'
      ? cushion({ width: 2 * x, depth: y1 - y0, thick: 0.034, crown: 0.022, corner: 0.03, swell: [0.003, 0.003, 0.003, 0.003], piping: true, seed: 1 })
      : cushion({ width: 2 * x, depth: y1 - y0, thick: 0.024, crown: -0.009, corner: 0.05, swell: [0.002, 0.002, 0.003, 0.002], piping: false }),
    shiftBy(0, middle, top - 0.024),
  );
  return [
    { part: seat === 'cushion' ? 'seat' : 'board', mesh: board.build() },
    { part: 'frame', mesh: frame.build() },
  ];
}

const shellTraits = z.object({
  base: choice('Base', ['four legs', 'wire', 'star on castors'], 'four legs'),
  arms: toggle('Arms', false),
  pad: toggle('Seat pad', false),
  sitting: length('Seat height', { min: 0.4, max: 0.7, first: 0.45 }),
});

/** A seat and back in one moulded sheet, on legs, wire or a star. */
function shellChair({ width, depth, height }: PieceSize, { base, arms, pad, sitting }: z.output<typeof shellTraits>): Made[] {
  const [w, d] = [width / 2, depth / 2];
  const sit = Math.min(sitting, height - 0.25);
  const tall = height - sit;
  // From the front edge over the seat to the top of the back: how far back, how high, how wide, how far its sides turn up.
  const stations: [number, number, number, number][] = [
    [0.015, -0.03, 0.8, 0],
    [0.05, 0.0, 0.88, 0.01],
    [0.3, -0.02, 0.96, 0.03],
    [0.58, -0.03, 1, arms ? 0.16 : 0.05],
    [0.78, 0.02, 1, arms ? 0.2 : 0.07],
    [0.87, 0.28, 0.98, 0.05],
    [0.92, 0.62, 0.92, 0.02],
    [0.97, 0.9, 0.84, 0],
    [0.985, 0.985, 0.76, 0],
  ];
  const across = [-1, -0.86, -0.4, 0, 0.4, 0.86, 1];
  const points = stations.flatMap(([y, z, wide, up], k) =>
    across.map((u) => {
      const lift = up * Math.abs(u) ** 2.2;
      const back = k > 4;
      // Sides of the seat turn up, those of the back come forward.
      return v3(u * w * wide, -d + y * depth - (back ? (0.07 + lift) * u * u : 0), sit + z * tall * (z > 0.1 ? 1 : 0.35) + (back ? 0 : lift));
    }),
  );
  const m = across.length;
  const faces: number[][] = [];
  for (let k = 0; k + 1 < stations.length; k++) for (let i = 0; i + 1 < m; i++) faces.push([k * m + i, k * m + i + 1, (k + 1) * m + i + 1, (k + 1) * m + i]);
  const net = subdivide(thickened({ points, faces }, 0.011), isFine() ? 2 : cuts(1, 0));
  const shell = skin(net.points, net.faces, 1);
  const frame = new MeshBuilder();
  const cast = new MeshBuilder();
  const under = sit - 0.045;
  if (base === 'four legs') {
    for (const x of [-1, 1])
      for (const y of [-1, 1]) frame.add(bar(v3(x * (w - 0.03), y < 0 ? -d + 0.04 : d - 0.06, 0), v3(x * 0.11, y * 0.1 - 0.03, under + 0.012), 0.009, 0.0145));
    cast.add(bar(v3(-0.12, -0.13, under), v3(0.12, 0.07, under), 0.006)).add(bar(v3(0.12, -0.13, under + 0.004), v3(-0.12, 0.07, under + 0.004), 0.006));
  } else if (base === 'wire') {
    for (const x of [-1, 1])
      cast.add(
        rod(
          [
            v3(x * 0.12, 0.08, under + 0.008),
            v3(x * (w - 0.05), d - 0.08, 0.03),
            v3(x * (w - 0.045), d - 0.1, 0.006),
            v3(x * (w - 0.045), -d + 0.07, 0.006),
            v3(x * (w - 0.05), -d + 0.05, 0.03),
            v3(x * 0.12, -0.14, under + 0.008),
          ],
          0.0055,
          { section: 8 },
        ),
      );
    for (const y of [-0.14, 0.08]) cast.add(bar(v3(-0.13, y, under + 0.005), v3(0.13, y, under + 0.005), 0.0055));
  } else {
    const r = Math.min(0.3, w * 1.1, d * 1.05);
    for (let i = 0; i < 5; i++) {
      const a = (2 * Math.PI * i) / 5 + Math.PI / 2;
      const at = (k: number, z: number) => v3(Math.cos(a) * r * k * 0.86, Math.sin(a) * r * k * 0.86, z);
      cast.add(bar(at(0.05, 0.095), at(0.95, 0.07), 0.017, 0.011, { flat: 0.8 }));
      const [ox, oy] = [-Math.sin(a) * 0.014, Math.cos(a) * 0.014];
      const p = at(0.95, 0.026);
      frame.add(bar(v3(p.x - ox, p.y - oy, 0.026), v3(p.x + ox, p.y + oy, 0.026), 0.026, 0.026, { section: 14 }));
    }
    cast
      .add(post(0, 0, 0.08, 0.2, 0.025))
      .add(post(0, 0, 0.19, under - 0.01, 0.014))
      .add(timber(-0.09, -0.11, under - 0.015, 0.09, 0.07, under + 0.004));
  }
  const seat = new MeshBuilder();
  if (pad)
    seat.add(
      cushion({ width: width * 0.84, depth: depth * 0.7, thick: 0.022, crown: 0.012, corner: 0.09, piping: false }),
      shiftBy(0, -d + depth * 0.4, sit - 0.006),
    );
  return [
    { part: 'seat', mesh: seat.build() },
    { part: 'shell', mesh: shell },
    { part: 'frame', mesh: frame.build() },
    { part: 'metal', mesh: cast.build() },
  ];
}

const stoolTraits = z.object({
  shape: choice('Shape', ['round', 'square'], 'round'),
  seat: choice('Seat', ['wood', 'cushion'], 'wood'),
  base: choice('Base', ['four legs', 'three legs', 'pedestal', 'none'], 'four legs'),
});

type StoolTraits = z.output<typeof stoolTraits>;

function stool({ width, depth, height }: PieceSize, { shape, seat, base }: StoolTraits): Made[] {
  const [w, d] = [width / 2, depth / 2];
  const top = new MeshBuilder();
  const frame = new MeshBuilder();
  const whole = base === 'none';
  const thick = whole ? height : seat === 'wood' ? 0.032 : 0.06;
  const under = height - thick;
  const shapeOf = () => (shape === 'round' ? ellipse(width, depth) : roundRectangle(width, depth, 0.03));
  if (shape === 'square' && (seat === 'cushion' || whole))
    top.add(roundedBox(v3(-w, -d, under), v3(w, d, height), { radius: whole ? 0.05 : 0.025, steps: 4, bulge: 0.012 }));
  else top.add(slab(shapeOf(), under, height, whole ? 0.06 : seat === 'wood' ? 0.01 : 0.025, 5));
  if (base === 'pedestal') {
    const foot = Math.min(w, d);
    frame.add(
      turned(
        [
          [0, 0],
          [foot, 0],
          [foot, 0.008],
          [foot * 0.9, 0.014],
          [0.03, 0.03],
          [0.024, 0.06],
          [0.024, under - 0.02],
          [foot * 0.6, under - 0.006],
          [foot * 0.6, under + 0.001],
          [0, under + 0.001],
        ],
        { segments: 32 },
      ),
    );
  } else if (!whole) {
    const n = base === 'three legs' ? 3 : 4;
    const feet = Array.from({ length: n }, (_, i) => {
      const a = ((i + 0.5) * 2 * Math.PI) / n + (n === 3 ? Math.PI / 6 : 0);
      // On a square they stand in its corners.
      const k = shape === 'square' && n === 4 ? Math.SQRT2 : 1;
      return { x: Math.cos(a) * k, y: Math.sin(a) * k };
    });
    const at = (f: { x: number; y: number }, z: number) => {
      const out = 0.92 - 0.26 * (z / under);
      return v3(f.x * (w - 0.016) * out, f.y * (d - 0.016) * out, z);
    };
    for (const f of feet) frame.add(bar(at(f, 0), at(f, under + 0.002), 0.0115, 0.0165));
    const low = Math.min(0.22, under * 0.35);
    feet.forEach((f, i) => frame.add(bar(at(f, low + 0.03 * (i % 2)), at(feet[(i + 1) % n], low + 0.03 * (i % 2)), 0.0095)));
  }
  return [
    { part: seat === 'cushion' || whole ? 'seat' : 'board', mesh: top.build() },
    { part: 'frame', mesh: frame.build() },
  ];
}

export const chairs: StockItem[] = [
  maker({
    id: 'chair',
    name: 'Chair',
    category: 'Seating',
    traits: chairTraits,
    size: { width: 0.45, depth: 0.5, height: 0.82 },
    min: { width: 0.38, depth: 0.42, height: 0.72 },
    max: { width: 0.64, depth: 0.64, height: 1.15 },
    mount: 'floor',
    parts: { seat: 'cloth.damson-linen', board: 'timber.oak', frame: 'timber.oak' },
    sold: { supplier: 'Ferrow & Daughters', price: 185 },
    clear: { back: 0.6 },
    seats: () => 1,
    cards: [
      { id: 'chair', name: 'Dining chair' },
      {
        id: 'chair-spindles',
        name: 'Spindle chair',
        size: { width: 0.46, depth: 0.5, height: 0.86 },
        traits: { back: 'spindles', seat: 'wood' },
        words: 'dining kitchen',
      },
      { id: 'chair-panel', name: 'Panel-back chair', size: { width: 0.46, depth: 0.5, height: 0.8 }, traits: { back: 'panel' }, words: 'dining desk' },
      { id: 'chair-arms', name: 'Carver', size: { width: 0.56, depth: 0.54, height: 0.84 }, traits: { arms: true }, words: 'dining armchair desk' },
      {
        id: 'chair-ladder',
        name: 'Ladder-back chair',
        size: { width: 0.46, depth: 0.46, height: 1 },
        traits: { back: 'ladder', seat: 'wood' },
        words: 'dining kitchen',
      },
      { id: 'chair-bar', name: 'Bar chair', size: { width: 0.42, depth: 0.46, height: 1 }, traits: { sitting: 0.72, back: 'panel' }, words: 'high counter' },
    ],
    make: chair,
    symbol: ({ width, depth }, { arms }) => [
      outline(rounded(width, depth - 0.06, 0.05, 0, -0.03)),
      outline(rectangle(width, 0.05, 0, depth / 2 - 0.025)),
      ...(arms ? [-1, 1].map((x) => outline(rectangle(0.048, depth - 0.07, x * (width / 2 - 0.03), -0.005))) : []),
    ],
  }),
  maker({
    id: 'shell-chair',
    name: 'Shell chair',
    category: 'Seating',
    traits: shellTraits,
    size: { width: 0.47, depth: 0.54, height: 0.8 },
    min: { width: 0.4, depth: 0.46, height: 0.7 },
    max: { width: 0.66, depth: 0.7, height: 1.1 },
    mount: 'floor',
    parts: { shell: 'sheet.lacquer-cream', seat: 'cloth.grey-herringbone', frame: 'timber.beech', metal: 'metal.powder-black' },
    words: 'moulded',
    sold: { supplier: 'Hollin Boardmakers', price: 160 },
    clear: { back: 0.6 },
    seats: () => 1,
    cards: [
      { id: 'shell-chair', name: 'Shell chair' },
      { id: 'shell-chair-wire', name: 'Wire-base chair', traits: { base: 'wire', pad: true }, finishes: { shell: 'sheet.lacquer-petrol' } },
      {
        id: 'shell-chair-arms',
        name: 'Tub chair',
        size: { width: 0.62, depth: 0.58, height: 0.8 },
        traits: { arms: true, pad: true },
        words: 'armchair dining',
      },
      {
        id: 'desk-chair',
        name: 'Desk chair',
        size: { width: 0.58, depth: 0.58, height: 0.86 },
        traits: { base: 'star on castors', arms: true, pad: true, sitting: 0.47 },
        finishes: { shell: 'sheet.laminate-ink', frame: 'metal.powder-black' },
        words: 'office castors swivel',
      },
    ],
    make: shellChair,
    symbol: ({ width, depth }, { base }) => [
      outline(rounded(width, depth, 0.14)),
      outline(rectangle(width * 0.8, 0.03, 0, depth / 2 - 0.06)),
      ...(base === 'star on castors' ? [ellipseLine(0.05, 0.05)] : []),
    ],
  }),
  maker({
    id: 'stool',
    name: 'Stool',
    category: 'Seating',
    traits: stoolTraits,
    size: { width: 0.36, depth: 0.36, height: 0.45 },
    min: { width: 0.26, depth: 0.26, height: 0.3 },
    max: { width: 0.7, depth: 0.7, height: 0.82 },
    mount: 'floor',
    parts: { seat: 'cloth.oat-weave', board: 'timber.ash', frame: 'timber.ash' },
    sold: { supplier: 'Ferrow & Daughters', price: 120 },
    seats: () => 1,
    cards: [
      { id: 'stool', name: 'Stool', traits: { base: 'three legs' } },
      { id: 'stool-bar', name: 'Bar stool', size: { width: 0.38, depth: 0.38, height: 0.74 }, words: 'high counter' },
      {
        id: 'stool-cushion',
        name: 'Cushioned stool',
        size: { width: 0.44, depth: 0.38, height: 0.46 },
        traits: { shape: 'square', seat: 'cushion' },
        words: 'dressing',
      },
      {
        id: 'stool-pedestal',
        name: 'Pedestal stool',
        size: { width: 0.38, depth: 0.38, height: 0.72 },
        traits: { base: 'pedestal', seat: 'cushion' },
        words: 'bar high',
      },
      { id: 'pouf', name: 'Pouf', size: { width: 0.5, depth: 0.5, height: 0.4 }, traits: { base: 'none', seat: 'cushion' }, words: 'footstool' },
    ],
    make: stool,
    symbol: ({ width, depth }, { shape }) => [shape === 'round' ? ellipseLine(width, depth) : outline(rounded(width, depth, 0.03))],
  }),
];
