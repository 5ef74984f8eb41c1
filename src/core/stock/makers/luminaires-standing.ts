import { LAMP_PART, type Shade, bulb, crossed, listed, shadeAt, shaded, sold, tallOf } from './shades';
import { z } from 'zod';
import { MeshBuilder } from '../../geometry/mesh';
import { cuts, isFine } from '../../geometry/shapes';
import { about, stretched } from '../forms/carry';
import { bar, curve, rod } from '../forms/skin';
import { post, turned, vessel, type Turn } from '../forms/turned';
import { choice } from '../traits';
import { circle, maker, outline, stroke, v3, type Made, type PieceSize, type StockItem } from '../types';

const tableLampTraits = z.object({
  base: choice('Base', ['jar', 'column', 'ball', 'tripod', 'candlestick'], 'jar'),
  shade: choice('Shade', ['empire', 'drum', 'dome', 'globe'], 'empire'),
});

function tableLamp({ width, depth, height }: PieceSize, { base, shade }: z.output<typeof tableLampTraits>): Made[] {
  const into = shaded();
  const body = new MeshBuilder();
  const r = Math.min(width, depth) / 2;
  const own = shade === 'globe' ? Math.min(r, height * 0.26) : r;
  const h = Math.min(tallOf(shade, own), height * 0.55);
  const z0 = height - h - (shade === 'dome' ? 0.046 : 0);
  const neck = z0 + (shade === 'globe' ? -0.02 : h * 0.12);
  const b = Math.min(r * 0.62, height * 0.22);
  const rounded: Turn[] =
    base === 'jar'
      ? [
          [0, 0],
          [b * 0.62, 0],
          [b * 0.7, 0.012],
          [b * 0.94, neck * 0.3],
          [b, neck * 0.5],
          [b * 0.86, neck * 0.72],
          [b * 0.42, neck * 0.88],
          [0.016, neck * 0.94],
          [0.013, neck],
          [0, neck],
        ]
      : base === 'ball'
        ? [
            [0, 0],
            [b * 0.6, 0],
            ...Array.from({ length: cuts(12, 5) }, (_, i): Turn => {
              const a = -Math.PI / 2 + 0.65 + ((Math.PI - 0.9) * i) / (cuts(12, 5) - 1);
              return [b * Math.cos(a), neck * 0.44 + Math.min(b, neck * 0.44) * Math.sin(a)];
            }),
            [0.016, neck * 0.92],
            [0.012, neck],
            [0, neck],
          ]
        : base === 'column'
          ? [
              [0, 0],
              [b * 0.9, 0],
              [b * 0.9, 0.016],
              [b * 0.5, 0.026],
              [b * 0.4, 0.05],
              [b * 0.38, neck * 0.86],
              [b * 0.5, neck * 0.9],
              [0.014, neck * 0.95],
              [0.012, neck],
              [0, neck],
            ]
          : [
              [0, 0],
              [b, 0],
              [b, 0.01],
              [b * 0.85, 0.02],
              [b * 0.22, 0.04],
              [b * 0.16, neck * 0.22],
              [b * 0.3, neck * 0.3],
              [b * 0.18, neck * 0.38],
              [b * 0.15, neck * 0.74],
              [b * 0.32, neck * 0.82],
              [0.012, neck * 0.9],
              [0.011, neck],
              [0, neck],
            ];
  if (base === 'tripod') {
    for (let i = 0; i < 3; i++) {
      const a = (2 * Math.PI * i) / 3 + Math.PI / 2;
      body.add(bar(v3(r * 0.8 * Math.cos(a), r * 0.8 * Math.sin(a), 0), v3(0.018 * Math.cos(a), 0.018 * Math.sin(a), neck * 0.94), 0.0075, 0.0105));
    }
    body.add(post(0, 0, neck * 0.88, neck, 0.026));
  } else body.add(turned(rounded, { segments: 36, round: 0.002 }));
  const k = h / tallOf(shade, own);
  const top = shaded();
  shadeAt(top, shade, own, 0, 0, 0, 'below');
  const place = stretched(1, 1, k, 0, 0, z0);
  for (const key of ['shade', 'inner', 'fittings', 'lamp'] as const) into[key].add(top[key].build(), place);
  into.fittings
    .add(post(0, 0, neck - 0.004, z0 + h * 0.34, 0.0065))
    .add(rod([v3(0, b * 0.9, 0.006), v3(0.02, Math.min(r, b * 1.2), 0.003), v3(0.03, r * 0.98, 0.0032)], 0.0025, { section: 6 }));
  return [{ part: 'base', mesh: body.build() }, ...listed(into)];
}

const deskLampTraits = z.object({ form: choice('Form', ['jointed', 'swan neck', 'folding'], 'jointed') });

function deskLamp({ width, depth, height }: PieceSize, { form }: z.output<typeof deskLampTraits>): Made[] {
  const into = shaded();
  const frame = new MeshBuilder();
  const [w, d] = [width / 2, depth / 2];
  const r = Math.min(0.085, d * 0.9, width * 0.2);
  const foot = v3(w - r - 0.002, 0, 0);
  frame.add(
    turned(
      [
        [0, 0],
        [r, 0],
        [r, 0.008],
        [r * 0.93, 0.018],
        [0.016, 0.022],
        [0.013, 0.05],
        [0, 0.05],
      ],
      { x: foot.x, segments: 36, round: 0.002 },
    ),
  );
  const head = Math.min(0.075, width * 0.18);
  const tip = v3(-w + head + 0.03, 0, height * (form === 'swan neck' ? 0.66 : 0.6));
  if (form === 'swan neck')
    frame.add(
      rod(
        curve(
          [
            v3(foot.x, 0, 0.045),
            v3(foot.x, 0, height * 0.5),
            v3(foot.x - width * 0.18, 0, height - 0.012),
            v3(tip.x + width * 0.06, 0, height * 0.93),
            v3(tip.x, 0, tip.z + 0.07),
          ],
          cuts(isFine() ? 10 : 5, 3),
        ),
        0.0068,
        { section: 10 },
      ),
    );
  else {
    const elbow = v3(w - 0.02, 0, height * 0.55);
    const top = v3(tip.x + 0.02, 0, height - 0.02);
    for (const y of form === 'jointed' ? [-0.011, 0.011] : [0]) {
      frame.add(bar(v3(foot.x, y, 0.05), { ...elbow, y }, 0.0052)).add(bar({ ...elbow, y }, { ...top, y }, 0.0048));
    }
    for (const p of [v3(foot.x, 0, 0.052), elbow, top]) frame.add(bar({ ...p, y: -0.018 }, { ...p, y: 0.018 }, 0.011, 0.011, { section: 16 }));
    frame.add(bar(top, v3(tip.x, 0, tip.z + 0.075), 0.005));
  }
  // A spun head that looks down and a little back to its foot.
  const carry = about('y', 0.35, tip.x, 0, tip.z);
  into.shade.add(
    turned(
      [
        [head, -0.03],
        [head * 0.96, 0.0],
        [head * 0.62, 0.05],
        [0.024, 0.078],
        [0.02, 0.1],
        [0, 0.102],
      ],
      { segments: 36, round: 0.0015 },
    ),
    carry,
  );
  into.inner.add(
    turned(
      [
        [0, 0.07],
        [head * 0.58, 0.047],
        [head * 0.94, -0.001],
        [head, -0.03],
      ],
      { segments: 36, round: 0.001 },
    ),
    carry,
  );
  into.lamp.add(bulb(0.01, Math.min(0.026, head * 0.4)), carry);
  return [{ part: 'frame', mesh: frame.build() }, ...listed(into)];
}

const floorLampTraits = z.object({
  form: choice('Form', ['stand', 'tripod', 'arc', 'reading', 'uplighter'], 'stand'),
  shade: choice('Shade', ['empire', 'drum', 'dome', 'cone', 'globe'], 'empire'),
});

function floorLamp({ width, depth, height }: PieceSize, { form, shade }: z.output<typeof floorLampTraits>): Made[] {
  const into = shaded();
  const stand = new MeshBuilder();
  const [w, d] = [width / 2, depth / 2];
  const base = Math.min(0.15, w * 0.8, d * 0.9);
  const foot = (x: number): void =>
    void stand.add(
      turned(
        [
          [0, 0],
          [base, 0],
          [base, 0.01],
          [base * 0.93, 0.022],
          [0.022, 0.03],
          [0.012, 0.07],
          [0, 0.07],
        ],
        { x, segments: 44, round: 0.003 },
      ),
    );
  if (form === 'stand' || form === 'tripod') {
    const r = Math.min(w, d);
    const h = Math.min(tallOf(shade, r), height * 0.28);
    const z0 = height - h - (shade === 'dome' || shade === 'cone' ? 0.046 : 0);
    const top = shaded();
    shadeAt(top, shade, r, 0, 0, 0, 'below');
    const place = stretched(1, 1, h / tallOf(shade, r), 0, 0, z0);
    for (const key of ['shade', 'inner', 'fittings', 'lamp'] as const) into[key].add(top[key].build(), place);
    if (form === 'stand') {
      foot(0);
      stand.add(rod([v3(0, 0, 0.06), v3(0, 0, z0 + h * 0.34)], 0.0105, { section: 14 }));
    } else {
      for (let i = 0; i < 3; i++) {
        const a = (2 * Math.PI * i) / 3 + Math.PI / 2;
        stand.add(bar(v3(r * 0.96 * Math.cos(a), r * 0.96 * Math.sin(a), 0), v3(0.03 * Math.cos(a), 0.03 * Math.sin(a), z0 * 0.96), 0.011, 0.0145));
      }
      stand.add(post(0, 0, z0 * 0.9, z0, 0.038)).add(post(0, 0, z0 - 0.01, z0 + h * 0.34, 0.008));
    }
  } else if (form === 'uplighter') {
    foot(0);
    const r = Math.min(w, d);
    stand.add(rod([v3(0, 0, 0.06), v3(0, 0, height - r * 0.5)], 0.0115, { section: 14 }));
    const bowl: Turn[] = [
      [0.02, height - r * 0.55],
      [r * 0.5, height - r * 0.42],
      [r * 0.88, height - r * 0.18],
      [r, height],
    ];
    into.shade.add(turned(vessel(bowl, 0.0018, 0.001), { segments: 44, round: 0.0008 }));
    into.lamp.add(
      turned(
        [
          [0, height - r * 0.36],
          [r * 0.4, height - r * 0.32],
          [r * 0.4, height - r * 0.26],
          [0, height - r * 0.24],
        ],
        { segments: 24, round: 0.003 },
      ),
    );
  } else {
    // Its foot at one end, its shade over the other.
    const x = w - base;
    foot(x);
    const r = form === 'arc' ? Math.min(0.2, w * 0.3, d) : Math.min(0.09, w * 0.4, d);
    const own: Shade = form === 'arc' ? shade : 'dome';
    const tall = tallOf(own, r);
    const tip = v3(-w + r, 0, form === 'arc' ? height * 0.78 - tall : height * 0.82);
    stand.add(
      rod(
        curve(
          form === 'arc'
            ? [
                v3(x, 0, 0.06),
                v3(x, 0, height * 0.5),
                v3(x - width * 0.12, 0, height * 0.82),
                v3(0, 0, height - 0.012),
                v3(tip.x + width * 0.08, 0, height * 0.93),
                v3(tip.x, 0, tip.z + tall + 0.03),
              ]
            : [v3(x, 0, 0.06), v3(x, 0, height * 0.6), v3(x, 0, height - 0.06), v3(x - width * 0.15, 0, height - 0.012), v3(tip.x, 0, tip.z + tall + 0.02)],
          cuts(isFine() ? 10 : 5, 3),
        ),
        0.0105,
        { section: 12 },
      ),
    );
    shadeAt(into, own, r, tip.x, 0, tip.z, 'above');
  }
  return [{ part: 'stand', mesh: stand.build() }, ...listed(into)];
}

export const standingLuminaires: StockItem[] = [
  maker({
    id: 'table-lamp',
    name: 'Table lamp',
    category: 'Luminaires',
    traits: tableLampTraits,
    size: { width: 0.32, depth: 0.32, height: 0.5 },
    min: { width: 0.14, depth: 0.14, height: 0.22 },
    max: { width: 0.5, depth: 0.5, height: 0.8 },
    mount: 'top',
    foot: 0.5,
    parts: { base: 'clay.pot', shade: 'cloth.shade', inner: 'paint.skein', fittings: 'metal.brass-brushed', [LAMP_PART]: 'light.opal' },
    lamp: { lumen: 470, kelvin: 2700, on: true },
    words: 'light bedside',
    sold: sold(96),
    connections: ['socket'],
    cards: [
      { id: 'table-lamp', name: 'Table lamp' },
      {
        id: 'table-lamp-column',
        name: 'Column lamp',
        size: { width: 0.34, depth: 0.34, height: 0.6 },
        traits: { base: 'column', shade: 'drum' },
        finishes: { base: 'stone.marble' },
      },
      {
        id: 'table-lamp-ball',
        name: 'Ball lamp',
        size: { width: 0.32, depth: 0.32, height: 0.48 },
        traits: { base: 'ball', shade: 'drum' },
        finishes: { base: 'ceramic.ink' },
      },
      {
        id: 'table-lamp-tripod',
        name: 'Tripod table lamp',
        size: { width: 0.3, depth: 0.3, height: 0.5 },
        traits: { base: 'tripod' },
        finishes: { base: 'timber.ash' },
      },
      {
        id: 'table-lamp-globe',
        name: 'Globe table lamp',
        size: { width: 0.22, depth: 0.22, height: 0.32 },
        traits: { base: 'column', shade: 'globe' },
        finishes: { base: 'metal.brass-brushed', shade: 'glass.frosted' },
        words: 'bedside',
      },
      {
        id: 'table-lamp-stick',
        name: 'Candlestick lamp',
        size: { width: 0.26, depth: 0.26, height: 0.52 },
        traits: { base: 'candlestick' },
        finishes: { base: 'timber.ebonised' },
      },
    ],
    make: tableLamp,
    symbol: crossed,
  }),
  maker({
    id: 'desk-lamp',
    name: 'Desk lamp',
    category: 'Luminaires',
    traits: deskLampTraits,
    size: { width: 0.5, depth: 0.2, height: 0.5 },
    min: { width: 0.3, depth: 0.14, height: 0.3 },
    max: { width: 0.9, depth: 0.3, height: 0.8 },
    mount: 'top',
    foot: 0.75,
    parts: { frame: 'metal.powder-black', shade: 'metal.powder-black', inner: 'paint.skein', [LAMP_PART]: 'light.opal' },
    lamp: { lumen: 600, kelvin: 3500, on: true },
    words: 'task work light',
    sold: sold(120),
    connections: ['socket'],
    cards: [
      { id: 'desk-lamp', name: 'Desk lamp' },
      { id: 'desk-lamp-swan', name: 'Swan-neck lamp', traits: { form: 'swan neck' }, finishes: { frame: 'metal.brass-brushed', shade: 'metal.enamel-green' } },
    ],
    make: deskLamp,
    symbol: ({ width, depth }) => [
      outline(circle(Math.min(0.085, depth * 0.45, width * 0.2), width / 2 - Math.min(0.085, depth * 0.45, width * 0.2), 0)),
      stroke([width / 2 - 0.08, 0], [-width / 2 + 0.08, 0]),
      outline(circle(Math.min(0.07, depth / 2), -width / 2 + 0.09, 0)),
    ],
  }),
  maker({
    id: 'floor-lamp',
    name: 'Floor lamp',
    category: 'Luminaires',
    traits: floorLampTraits,
    size: { width: 0.42, depth: 0.42, height: 1.55 },
    min: { width: 0.25, depth: 0.22, height: 1.0 },
    max: { width: 1.6, depth: 0.8, height: 2.2 },
    mount: 'floor',
    parts: { stand: 'metal.brass-brushed', shade: 'cloth.shade', inner: 'paint.skein', fittings: 'metal.brass-brushed', [LAMP_PART]: 'light.opal' },
    lamp: { lumen: 800, kelvin: 2700, on: true },
    words: 'standard light reading',
    sold: sold(190),
    connections: ['socket'],
    cards: [
      { id: 'floor-lamp', name: 'Floor lamp' },
      {
        id: 'floor-lamp-tripod',
        name: 'Tripod floor lamp',
        size: { width: 0.5, depth: 0.5, height: 1.5 },
        traits: { form: 'tripod', shade: 'drum' },
        finishes: { stand: 'timber.ash' },
      },
      {
        id: 'floor-lamp-arc',
        name: 'Arc lamp',
        size: { width: 1.3, depth: 0.4, height: 1.9 },
        traits: { form: 'arc', shade: 'dome' },
        finishes: { shade: 'metal.steel-polished', stand: 'metal.steel-polished' },
      },
      {
        id: 'floor-lamp-reading',
        name: 'Reading lamp',
        size: { width: 0.5, depth: 0.28, height: 1.35 },
        traits: { form: 'reading' },
        finishes: { shade: 'metal.powder-black', stand: 'metal.powder-black' },
      },
      {
        id: 'floor-lamp-up',
        name: 'Uplighter',
        size: { width: 0.36, depth: 0.36, height: 1.8 },
        traits: { form: 'uplighter' },
        finishes: { shade: 'metal.enamel-white', stand: 'metal.powder-black' },
      },
    ],
    make: floorLamp,
    symbol: (size) => [...crossed(size), outline(circle(Math.min(0.14, size.width * 0.4, size.depth * 0.4)))],
  }),
];
