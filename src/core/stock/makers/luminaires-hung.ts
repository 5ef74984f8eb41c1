import { LAMP_PART, SHADES, ball, crossed, flex, listed, metal, rose, shadeAt, shaded, sold, strip, tallOf } from './shades';
import { z } from 'zod';
import { cuts, isFine, lathe } from '../../geometry/shapes';
import type { Vec3 } from '../../geometry/vec';
import { board, timber } from '../forms/boards';
import { bar, curve, loop, rod } from '../forms/skin';
import { post, turned, vessel } from '../forms/turned';
import { choice, count, toggle } from '../traits';
import { circle, maker, outline, rectangle, v3, type Made, type PieceSize, type StockItem } from '../types';

const pendantTraits = z.object({
  shade: choice('Shade', SHADES, 'bell'),
  count: count('Shades', { min: 1, max: 7, first: 1 }),
  hung: choice('Hung', ['in a row', 'in a bunch'], 'in a row'),
});

/** Pendants: one shade, several from one rail, or a bunch at several heights. */
function pendant({ width, depth, height }: PieceSize, { shade, count: n, hung }: z.output<typeof pendantTraits>): Made[] {
  const into = shaded();
  const bunch = hung === 'in a bunch' && n > 1;
  const own = bunch ? Math.min(width, depth) * 0.3 : n > 1 ? Math.min(depth, (width / n) * 0.9) / 2 : Math.min(width, depth) / 2;
  const r = Math.min(own, height * 0.45);
  const room = bunch ? Math.min(width, depth) / 2 - r : 0;
  for (let i = 0; i < n; i++) {
    const a = i * 2.39996;
    const [x, y] = n === 1 ? [0, 0] : bunch ? [room * Math.cos(a), room * Math.sin(a)] : [-width / 2 + (width * (i + 0.5)) / n, 0];
    const lift = bunch ? Math.max(0, height - tallOf(shade, r) - 0.2) * ((i * 0.618) % 1) * 0.7 : 0;
    const top = tallOf(shade, r) + lift + (shade === 'globe' ? 0.03 : 0.04);
    shadeAt(into, shade, r, x, y, lift, 'above');
    into.fittings.add(flex(x, y, top - (shade === 'drum' || shade === 'empire' ? 0.06 : 0.012), height - 0.022));
    if (n === 1) into.fittings.add(rose(x, y, height));
  }
  if (bunch) into.fittings.add(rose(0, 0, height, Math.min(0.13, room + 0.04)));
  else if (n > 1) into.fittings.add(board(-width / 2 + 0.02, -0.03, height - 0.028, width / 2 - 0.02, 0.03, height, 0.003));
  return listed(into, { fittings: 'flex' });
}

const linearTraits = z.object({ form: choice('Form', ['bar', 'wood', 'ring'], 'bar'), up: toggle('Light upwards too', false) });

function linear({ width, depth, height }: PieceSize, { form, up }: z.output<typeof linearTraits>): Made[] {
  const into = shaded();
  const w = width / 2;
  const d = Math.min(0.05, depth / 2, height * 0.2);
  if (form === 'ring') {
    const n = cuts(72, 24);
    const [rx, ry] = [w - 0.014, Math.max(0.025, depth / 2 - 0.014)];
    const ring = (q: number, zz: number): Vec3[] =>
      Array.from({ length: n }, (_, i) => v3((rx + q) * Math.cos((2 * Math.PI * i) / n), (ry + q) * Math.sin((2 * Math.PI * i) / n), zz));
    into.shade.add(loop(ring(0, 0.026), 0.012, 10));
    into.lamp.add(loop(ring(0, 0.012), 0.008, 8));
    if (up) into.lamp.add(loop(ring(0, 0.038), 0.006, 8));
    for (let i = 0; i < 3; i++) {
      const a = (2 * Math.PI * i) / 3 + Math.PI / 2;
      into.fittings.add(
        bar(v3(rx * Math.cos(a), ry * Math.sin(a), 0.036), v3(0.02 * Math.cos(a), 0.02 * Math.sin(a), height - 0.02), 0.0012, 0.0012, { section: 6 }),
      );
    }
  } else {
    const high = form === 'wood' ? 0.06 : 0.035;
    into.shade.add(form === 'wood' ? timber(-w, -d, 0.002, w, d, high) : board(-w, -d * 0.6, 0.002, w, d * 0.6, high, 0.003));
    const k = form === 'wood' ? d * 0.7 : d * 0.42;
    into.lamp.add(board(-w + 0.012, -k, 0, w - 0.012, k, 0.004, 0.001));
    if (up) into.lamp.add(board(-w + 0.012, -k, high - 0.002, w - 0.012, k, high + 0.002, 0.001));
    for (const x of [-1, 1])
      into.fittings.add(bar(v3(x * w * 0.8, 0, high), v3(x * w * 0.8, 0, height - 0.01), 0.0012, 0.0012, { section: 6 })).add(
        turned(
          [
            [0, height - 0.012],
            [0.012, height - 0.012],
            [0.012, height],
            [0, height],
          ],
          { x: x * w * 0.8, segments: 16 },
        ),
      );
    into.fittings.add(flex(-w * 0.78, 0, high, height - 0.01));
  }
  into.fittings.add(rose(0, 0, height));
  return listed(into, { shade: 'body', fittings: 'flex' });
}

const chandelierTraits = z.object({
  arms: count('Arms', { min: 3, max: 16, first: 8 }),
  form: choice('Form', ['swept', 'wheel', 'globes'], 'swept'),
  shades: toggle('Shades', false),
});

function chandelier({ width, depth, height }: PieceSize, { arms, form, shades }: z.output<typeof chandelierTraits>): Made[] {
  const into = shaded();
  const [rx, ry] = [width / 2 - 0.05, depth / 2 - 0.05];
  const hub = form === 'wheel' ? 0.06 : Math.min(0.28, height * 0.3);
  const steps = cuts(isFine() ? 8 : 4, 2);
  for (let i = 0; i < arms; i++) {
    const a = (2 * Math.PI * i) / arms;
    const p = (k: number, zz: number) => v3(rx * k * Math.cos(a), ry * k * Math.sin(a), zz);
    const [x, y] = [rx * Math.cos(a), ry * Math.sin(a)];
    const seat = form === 'wheel' ? 0.05 : 0.16;
    if (form === 'swept')
      into.fittings.add(rod(curve([p(0.06, hub), p(0.3, hub - 0.02), p(0.6, 0.03), p(0.9, 0.03), p(1, seat)], steps), 0.0065, { section: 8 }));
    else if (form === 'globes') into.fittings.add(bar(p(0.04, hub), p(1, i % 2 ? hub + 0.12 : hub - 0.08), 0.0055));
    if (form === 'globes') {
      const zz = i % 2 ? hub + 0.12 : hub - 0.08;
      into.lamp.add(ball(zz, 0.048, x, y));
      continue;
    }
    // A pan, a candle, a flame of glass.
    into.fittings.add(
      turned(
        vessel(
          [
            [0.012, seat - 0.004],
            [0.036, seat + 0.012],
          ],
          0.0015,
          0.001,
        ),
        { x, y, segments: 20, round: 0.0008 },
      ),
    );
    into.inner.add(post(x, y, seat, seat + 0.075, 0.0105, 0.0105, 14));
    if (shades)
      into.shade.add(
        turned(
          [
            [0.042, seat + 0.07, 0],
            [0.0425, seat + 0.07, 0],
            [0.026, seat + 0.14, 0],
            [0.0255, seat + 0.14, 0],
            [0.042, seat + 0.07, 0],
          ],
          { x, y, segments: 24 },
        ),
      );
    into.lamp.add(
      lathe(
        [
          [0, seat + 0.075],
          [0.012, seat + 0.085],
          [0.0145, seat + 0.1],
          [0.008, seat + 0.122],
          [0, seat + 0.136],
        ],
        { x, y, segments: 12 },
      ),
    );
  }
  if (form === 'wheel') {
    const n = cuts(72, 24);
    const ring = (zz: number, k = 1): Vec3[] =>
      Array.from({ length: n }, (_, i) => v3(rx * k * Math.cos((2 * Math.PI * i) / n), ry * k * Math.sin((2 * Math.PI * i) / n), zz));
    into.fittings.add(loop(ring(0.03), 0.011, 8)).add(loop(ring(0.05), 0.008, 8));
    for (let i = 0; i < 4; i++) {
      const a = (Math.PI * i) / 2 + 0.4;
      into.fittings.add(bar(v3(rx * Math.cos(a), ry * Math.sin(a), 0.04), v3(0.02 * Math.cos(a), 0.02 * Math.sin(a), Math.min(height - 0.1, 0.5)), 0.004));
    }
    into.fittings.add(rod([v3(0, 0, Math.min(height - 0.1, 0.5) - 0.02), v3(0, 0, height - 0.02)], 0.006, { section: 10 }));
  } else {
    into.fittings.add(
      turned(
        [
          [0, hub - 0.1],
          [0.012, hub - 0.09],
          [0.03, hub - 0.05],
          [0.014, hub - 0.015],
          [0.036, hub + 0.012],
          [0.016, hub + 0.05],
          [0.009, hub + 0.1],
          [0.009, height - 0.02],
          [0, height - 0.02],
        ],
        { segments: 24 },
      ),
    );
  }
  into.fittings.add(rose(0, 0, height, 0.06));
  return listed(into, { inner: 'candles', fittings: 'frame' });
}

export const hungLuminaires: StockItem[] = [
  maker({
    id: 'pendant',
    name: 'Pendant',
    category: 'Luminaires',
    traits: pendantTraits,
    size: { width: 0.42, depth: 0.42, height: 0.95 },
    min: { width: 0.12, depth: 0.1, height: 0.3 },
    max: { width: 2, depth: 1, height: 2.4 },
    mount: 'ceiling',
    parts: { ...metal, flex: 'metal.iron-black' },
    lamp: { lumen: 900, kelvin: 2700, on: true },
    words: 'lamp light hanging ceiling',
    sold: sold(140),
    connections: ['socket'],
    cards: [
      { id: 'pendant', name: 'Pendant' },
      {
        id: 'pendant-globe',
        name: 'Globe pendant',
        size: { width: 0.28, depth: 0.28, height: 0.9 },
        traits: { shade: 'globe' },
        finishes: { shade: 'glass.frosted', flex: 'metal.brass-brushed' },
      },
      {
        id: 'pendant-dome',
        name: 'Dome pendant',
        size: { width: 0.5, depth: 0.5, height: 0.9 },
        traits: { shade: 'dome' },
        finishes: { shade: 'metal.copper', inner: 'metal.enamel-white' },
      },
      {
        id: 'pendant-cone',
        name: 'Cone pendant',
        size: { width: 0.3, depth: 0.3, height: 1 },
        traits: { shade: 'cone' },
        finishes: { shade: 'metal.powder-black' },
      },
      {
        id: 'pendant-drum',
        name: 'Drum pendant',
        size: { width: 0.5, depth: 0.5, height: 0.75 },
        traits: { shade: 'drum' },
        finishes: { shade: 'cloth.shade' },
      },
      {
        id: 'pendant-empire',
        name: 'Cloth-shade pendant',
        size: { width: 0.4, depth: 0.4, height: 0.8 },
        traits: { shade: 'empire' },
        finishes: { shade: 'cloth.shade' },
      },
      {
        id: 'pendant-cage',
        name: 'Cage pendant',
        size: { width: 0.26, depth: 0.26, height: 0.9 },
        traits: { shade: 'cage' },
        finishes: { shade: 'metal.iron-black' },
      },
      {
        id: 'pendant-bare',
        name: 'Bare lamp',
        size: { width: 0.16, depth: 0.16, height: 0.9 },
        traits: { shade: 'none' },
        finishes: { flex: 'metal.brass-brushed' },
      },
      {
        id: 'pendant-row',
        name: 'Row of three pendants',
        size: { width: 1.1, depth: 0.28, height: 0.95 },
        traits: { shade: 'cone', count: 3 },
        finishes: { shade: 'metal.brass-brushed', inner: 'metal.enamel-white' },
        words: 'island table',
      },
      {
        id: 'pendant-bunch',
        name: 'Bunch of globes',
        size: { width: 0.6, depth: 0.6, height: 1.3 },
        traits: { shade: 'globe', count: 5, hung: 'in a bunch' },
        finishes: { shade: 'glass.frosted' },
        words: 'stairwell',
      },
    ],
    make: pendant,
    symbol: (size, { count: n, hung }) =>
      n > 1 && hung === 'in a row'
        ? [
            outline(rectangle(size.width, size.depth)),
            ...Array.from({ length: n }, (_, i) =>
              outline(circle(Math.min(size.depth, (size.width / n) * 0.9) / 2, -size.width / 2 + (size.width * (i + 0.5)) / n, 0)),
            ),
          ]
        : crossed(size),
  }),
  maker({
    id: 'linear-pendant',
    name: 'Linear pendant',
    category: 'Luminaires',
    traits: linearTraits,
    size: { width: 1.3, depth: 0.08, height: 0.9 },
    min: { width: 0.5, depth: 0.05, height: 0.3 },
    max: { width: 2.4, depth: 1.6, height: 2 },
    mount: 'ceiling',
    parts: { body: 'metal.powder-black', flex: 'metal.iron-black', [LAMP_PART]: 'light.opal' },
    lamp: { lumen: 2400, kelvin: 3000, on: true },
    words: 'lamp light bar table island',
    sold: sold(290),
    connections: ['socket'],
    cards: [
      { id: 'linear-pendant', name: 'Linear pendant' },
      {
        id: 'linear-wood',
        name: 'Timber linear pendant',
        size: { width: 1.2, depth: 0.1, height: 0.9 },
        traits: { form: 'wood', up: true },
        finishes: { body: 'timber.oak' },
      },
      {
        id: 'ring-pendant',
        name: 'Ring pendant',
        size: { width: 0.8, depth: 0.8, height: 1 },
        traits: { form: 'ring' },
        finishes: { body: 'metal.brass-brushed' },
      },
    ],
    make: linear,
    symbol: (size, { form }) => (form === 'ring' ? crossed(size) : strip(size)),
  }),
  maker({
    id: 'chandelier',
    name: 'Chandelier',
    category: 'Luminaires',
    traits: chandelierTraits,
    size: { width: 0.75, depth: 0.75, height: 0.9 },
    min: { width: 0.45, depth: 0.45, height: 0.5 },
    max: { width: 1.4, depth: 1.4, height: 1.8 },
    mount: 'ceiling',
    parts: { shade: 'cloth.shade', candles: 'paper.cream', frame: 'metal.brass-aged', [LAMP_PART]: 'light.opal' },
    lamp: { lumen: 2200, kelvin: 2700, on: true },
    words: 'lamp light candles',
    sold: sold(520),
    connections: ['socket'],
    cards: [
      { id: 'chandelier', name: 'Chandelier' },
      {
        id: 'chandelier-wheel',
        name: 'Wheel chandelier',
        size: { width: 0.9, depth: 0.9, height: 0.9 },
        traits: { form: 'wheel', arms: 10 },
        finishes: { frame: 'metal.iron-black' },
      },
      {
        id: 'chandelier-globes',
        name: 'Branching globes',
        size: { width: 0.9, depth: 0.9, height: 0.8 },
        traits: { form: 'globes', arms: 8 },
        finishes: { frame: 'metal.brass-brushed' },
      },
    ],
    make: chandelier,
    symbol: crossed,
  }),
];
