import { z } from 'zod';
import { MeshBuilder, type Mesh } from '../../geometry/mesh';
import { cuts, isFine, isLight, lathe } from '../../geometry/shapes';
import type { Vec3 } from '../../geometry/vec';
import { board, timber } from '../forms/boards';
import { about, shiftBy, stretched, upright } from '../forms/carry';
import { bar, curve, loop, rod } from '../forms/skin';
import { post, turned, vessel, type Turn } from '../forms/turned';
import { choice, count, length, toggle } from '../traits';
import { circle, ellipseLine, maker, outline, rectangle, stroke, v3, type Made, type PieceSize, type StockItem } from '../types';

/** The glowing bulb of a luminaire: the part that gives its light. */
export const LAMP_PART = 'lamp';

/** A glowing ball. */
const ball = (z: number, r: number, x = 0, y = 0, segments = 16): Mesh =>
  lathe(
    Array.from({ length: cuts(11, 6) }, (_, i) => {
      const a = (i / (cuts(11, 6) - 1)) * Math.PI;
      return [r * Math.sin(a), z - r * Math.cos(a)] as const;
    }),
    { x, y, segments },
  );

/** A bulb of glass: pear-shaped, its cap upwards or downwards. */
function bulb(z: number, r: number, x = 0, y = 0, cap: 'up' | 'down' = 'up'): Mesh {
  const way = cap === 'up' ? 1 : -1;
  const profile: [number, number][] = [];
  const n = cuts(10, 4);
  for (let i = 0; i <= n; i++) {
    const a = (i / n) * Math.PI * 0.78;
    profile.push([r * Math.sin(a), z - way * r * Math.cos(a)]);
  }
  profile.push([r * 0.46, z + way * r * 1.25], [r * 0.42, z + way * r * 1.6], [0, z + way * r * 1.6]);
  return lathe(way > 0 ? profile : profile.reverse(), { x, y, segments: 16 });
}

const SHADES = ['bell', 'globe', 'dome', 'cone', 'drum', 'empire', 'cage', 'none'] as const;
type Shade = (typeof SHADES)[number];

interface Shaded {
  shade: MeshBuilder;
  inner: MeshBuilder;
  fittings: MeshBuilder;
  lamp: MeshBuilder;
}

const shaded = (): Shaded => ({ shade: new MeshBuilder(), inner: new MeshBuilder(), fittings: new MeshBuilder(), lamp: new MeshBuilder() });

/** The height of a shade of a radius. */
const tallOf = (form: Shade, r: number): number => ({ bell: 0.9, globe: 2, dome: 0.72, cone: 0.85, drum: 0.95, empire: 1.15, cage: 1.5, none: 0.35 })[form] * r;

/** The outer side of an opaque shade, from its lower edge up. */
const outside = (form: Shade, r: number, h: number): Turn[] =>
  form === 'bell'
    ? [
        [r, 0],
        [r * 0.97, h * 0.03],
        [r * 0.86, h * 0.3],
        [r * 0.66, h * 0.62],
        [r * 0.36, h * 0.86],
        [0.034, h],
      ]
    : form === 'dome'
      ? [
          [r, 0],
          ...Array.from({ length: cuts(9, 3) }, (_, i): Turn => {
            const a = (Math.PI / 2) * ((i + 1) / (cuts(9, 3) + 1));
            return [Math.max(0.03, r * Math.cos(a)), h * Math.sin(a)];
          }),
          [0.028, h],
        ]
      : [
          [r, 0],
          [0.034, h],
        ];

/** A shade with its bulb inside, its lower edge at z. What carries it comes from above or from below. */
function shadeAt(into: Shaded, form: Shade, r: number, x: number, y: number, z: number, from: 'above' | 'below'): void {
  const h = tallOf(form, r);
  const at = shiftBy(x, y, z);
  const segments = 40;
  const bulbR = Math.min(0.032, r * 0.34);
  if (form === 'globe') {
    // A ball of glass, open where it is held: above on a flex, below on a stand.
    const n = cuts(15, 6);
    const up = from === 'above' ? 1 : -1;
    const outer = Array.from({ length: n + 1 }, (_, i): Turn => {
      const a = Math.PI - ((Math.PI - 0.22) * i) / n;
      return [Math.max(0.001, r * Math.sin(a)), r + up * r * Math.cos(a), 0];
    });
    const inner = outer.map(([q, zz]): Turn => [Math.max(0.0005, q * (1 - 0.0025 / r)), r + (zz - r) * (1 - 0.0025 / r), 0]).reverse();
    const profile = [...outer, ...inner];
    into.shade.add(turned(up > 0 ? profile : profile.reverse(), { segments }), at);
    const cap: Turn[] = [
      [0, 2 * r - 0.004],
      [0.034, 2 * r - 0.004],
      [0.034, 2 * r + 0.02],
      [0.012, 2 * r + 0.034],
      [0, 2 * r + 0.034],
    ];
    into.fittings.add(turned(up > 0 ? cap : cap.map(([q, zz]): Turn => [q, 2 * r - zz]).reverse(), { segments: 20 }), at);
    into.lamp.add(bulb(r, bulbR, 0, 0, up > 0 ? 'up' : 'down'), at);
    return;
  }
  if (form === 'drum' || form === 'empire') {
    const top = form === 'drum' ? r * 0.94 : r * 0.56;
    // Cloth between two rings, with a rolled hem at both.
    into.shade.add(
      turned(
        [
          [r - 0.0006, 0.003],
          [r, 0.003],
          [top, h - 0.003],
          [top - 0.0006, h - 0.003],
          [r - 0.0006, 0.003],
        ].map(([a, b]) => [a, b, 0] as const),
        { segments: 48 },
      ),
      at,
    );
    if (!isLight()) {
      const ring = (q: number, zz: number): Vec3[] =>
        Array.from({ length: 48 }, (_, i) => v3(q * Math.cos((2 * Math.PI * i) / 48), q * Math.sin((2 * Math.PI * i) / 48), zz));
      into.shade.add(loop(ring(r, 0.004), 0.0035, 6), at).add(loop(ring(top, h - 0.004), 0.0035, 6), at);
      // The spider that carries it.
      const zz = from === 'above' ? h - 0.03 : h * 0.62;
      const q = top + (r - top) * (1 - zz / h);
      for (let i = 0; i < 3; i++)
        into.fittings.add(bar(v3(0, 0, zz), v3(q * Math.cos((2 * Math.PI * i) / 3), q * Math.sin((2 * Math.PI * i) / 3), zz), 0.0015), at);
      into.fittings.add(loop(ring(0.02, zz), 0.0018, 6), at);
    }
    into.fittings.add(from === 'above' ? post(0, 0, h * 0.62, h - 0.01, 0.015) : post(0, 0, h * 0.1, h * 0.32, 0.015), at);
    into.lamp.add(from === 'above' ? bulb(h * 0.46, bulbR) : bulb(h * 0.46, bulbR, 0, 0, 'down'), at);
    return;
  }
  if (form === 'cage') {
    const n = 8;
    for (let i = 0; i < n; i++) {
      const a = (2 * Math.PI * i) / n;
      const p = (q: number, zz: number) => v3(q * r * Math.cos(a), q * r * Math.sin(a), zz * h);
      into.shade.add(rod(curve([p(0.2, 0.02), p(0.75, 0.1), p(1, 0.4), p(0.75, 0.75), p(0.26, 0.98)], cuts(4, 1)), 0.0022, { section: 6 }), at);
    }
    const ring = (q: number, zz: number): Vec3[] =>
      Array.from({ length: cuts(36, 10) }, (_, i) =>
        v3(q * r * Math.cos((2 * Math.PI * i) / cuts(36, 10)), q * r * Math.sin((2 * Math.PI * i) / cuts(36, 10)), zz * h),
      );
    into.shade.add(loop(ring(0.985, 0.4), 0.0022, 6), at).add(loop(ring(0.21, 0.02), 0.0022, 6), at);
    into.fittings.add(
      turned(
        [
          [0, h * 0.86],
          [0.02, h * 0.86],
          [0.022, h],
          [0.01, h + 0.02],
          [0, h + 0.02],
        ],
        { segments: 18 },
      ),
      at,
    );
    into.lamp.add(bulb(h * 0.56, Math.min(0.045, r * 0.42)), at);
    return;
  }
  if (form === 'none') {
    into.fittings.add(
      turned(
        [
          [0, h * 0.2],
          [0.02, h * 0.2],
          [0.021, h * 0.8],
          [0.012, h],
          [0, h],
        ],
        { segments: 20 },
      ),
      at,
    );
    into.lamp.add(ball(0, Math.min(0.05, r * 0.55)), shiftBy(x, y, z + Math.min(0.05, r * 0.55)));
    return;
  }
  // Spun metal: an outer and an inner side with a rolled edge.
  const outer = outside(form, r, h);
  const t = 0.0016;
  into.shade.add(turned([...outer, [0.026, h + 0.03], [0.012, h + 0.045], [0, h + 0.045]], { segments: 48, round: 0.0008 }), at);
  into.inner.add(
    turned([...outer.map(([a, b]): Turn => [Math.max(0.012, a - t), Math.max(b - t * 0.5, 0)]), [0, h - t] as Turn].reverse().concat([[r, 0, 0]]), {
      segments: 48,
      round: 0.0006,
    }),
    at,
  );
  into.fittings.add(post(0, 0, h * 0.72, h, 0.016), at);
  into.lamp.add(bulb(h * 0.46, Math.min(0.036, r * 0.32)), at);
}

/** The rose at the ceiling: a shallow cup with its rounded lip. */
const rose = (x: number, y: number, z: number, r = 0.05): Mesh =>
  turned(
    [
      [0, z - 0.026],
      [0.008, z - 0.026],
      [r * 0.86, z - 0.02],
      [r, z - 0.006],
      [r, z],
      [0, z],
    ],
    { x, y, segments: 28, round: 0.004 },
  );

/** A flex that hangs: cloth-covered, round. */
const flex = (x: number, y: number, z0: number, z1: number): Mesh => rod([v3(x, y, z0), v3(x, y, z1)], 0.0028, { section: 8 });

const listed = ({ shade, inner, fittings, lamp }: Shaded, names: { shade?: string; inner?: string; fittings?: string } = {}): Made[] => [
  { part: names.shade ?? 'shade', mesh: shade.build() },
  { part: names.inner ?? 'inner', mesh: inner.build() },
  { part: names.fittings ?? 'fittings', mesh: fittings.build() },
  { part: LAMP_PART, mesh: lamp.build() },
];

const crossed = ({ width, depth }: PieceSize) => {
  const [a, b] = [width / 2, depth / 2];
  return [ellipseLine(width, depth), stroke([-a * 0.7, -b * 0.7], [a * 0.7, b * 0.7]), stroke([-a * 0.7, b * 0.7], [a * 0.7, -b * 0.7])];
};
const strip = ({ width, depth }: PieceSize) => [outline(rectangle(width, depth)), stroke([-width / 2, 0], [width / 2, 0])];

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

const ceilingTraits = z.object({
  form: choice('Form', ['disc', 'dish', 'ring', 'square', 'spots'], 'disc'),
  count: count('Spots', { min: 1, max: 6, first: 3 }),
});

function onCeiling({ width, depth, height }: PieceSize, { form, count: n }: z.output<typeof ceilingTraits>): Made[] {
  const into = shaded();
  const k = depth / width;
  const r = width / 2;
  const carry = stretched(1, k, 1);
  if (form === 'square') {
    into.shade.add(board(-r, -depth / 2, 0.012, r, depth / 2, height, 0.004));
    into.lamp.add(board(-r + 0.012, -depth / 2 + 0.012, 0, r - 0.012, depth / 2 - 0.012, 0.014, 0.005));
  } else if (form === 'spots') {
    into.shade.add(board(-r, -Math.min(0.035, depth / 2), height - Math.min(0.02, height * 0.3), r, Math.min(0.035, depth / 2), height, 0.004));
    for (let i = 0; i < n; i++) {
      const x = -r + (width * (i + 0.5)) / n;
      const head = Math.min(0.032, (width / n) * 0.4);
      const pivot = height - Math.min(0.05, height * 0.4);
      const tilt = about('x', 0.5, x, -0.01, pivot);
      const long = Math.min(0.09, pivot * 0.95);
      into.shade.add(post(x, 0, pivot, height - 0.012, 0.006));
      into.shade.add(
        turned(
          [
            [head, -long],
            [head, 0.0],
            [head * 0.5, 0.016],
            [0, 0.018],
          ],
          { segments: 24 },
        ),
        tilt,
      );
      into.inner.add(
        turned(
          [
            [0, -0.02],
            [head - 0.003, -long + 0.01],
            [head, -long],
          ],
          { segments: 24, round: 0 },
        ),
        tilt,
      );
      into.lamp.add(
        turned(
          [
            [0, -long + 0.01],
            [head * 0.8, -long + 0.01],
            [head * 0.8, -long + 0.016],
            [0, -long + 0.016],
          ],
          { segments: 20 },
        ),
        tilt,
      );
    }
  } else if (form === 'ring') {
    into.shade.add(
      turned(
        [
          [r * 0.62, height],
          [r * 0.62, 0.012],
          [r * 0.66, 0.004],
          [r * 0.96, 0.004],
          [r, 0.012],
          [r, height],
        ],
        { segments: 56, round: 0.003 },
      ),
      carry,
    );
    into.lamp.add(
      turned(
        [
          [r * 0.68, 0.0042],
          [r * 0.7, 0.0],
          [r * 0.92, 0.0],
          [r * 0.94, 0.0042],
        ],
        { segments: 56 },
      ),
      carry,
    );
  } else if (form === 'dish') {
    into.shade.add(
      turned(
        [
          [r * 0.5, height - 0.012],
          [r * 0.5, height],
          [0, height],
        ],
        { segments: 40 },
      ),
      carry,
    );
    into.fittings.add(post(0, 0, height * 0.3, height - 0.01, 0.008)).add(
      turned(
        [
          [0, 0],
          [0.011, 0.004],
          [0.012, 0.012],
          [0, 0.014],
        ],
        { segments: 16 },
      ),
    );
    // A dish of glass that glows.
    into.lamp.add(
      turned(
        Array.from({ length: cuts(12, 5) + 1 }, (_, i): Turn => {
          const t = i / cuts(12, 5);
          return [r * 0.985 * t, 0.012 + height * 0.62 * t ** 2.4, 0];
        }),
        { segments: 48 },
      ),
      carry,
    );
    into.inner.add(
      turned(
        [
          [r * 0.985, height * 0.62 + 0.012],
          [r, height * 0.62 + 0.016],
          [r * 0.985, height * 0.62 + 0.02],
        ],
        { segments: 48, round: 0.001 },
      ),
      carry,
    );
  } else {
    into.shade.add(
      turned(
        [
          [r * 0.985, 0.006],
          [r, 0.008],
          [r, height],
          [0, height],
        ],
        { segments: 48, round: 0.002 },
      ),
      carry,
    );
    into.lamp.add(
      turned(
        [
          [0, 0, 0],
          [r * 0.9, 0.0008],
          [r * 0.985, 0.0062, 0],
        ],
        { segments: 48, round: 0.01 },
      ),
      carry,
    );
  }
  return listed(into, { shade: 'body' });
}

const recessedTraits = z.object({ form: choice('Form', ['round', 'square', 'pair'], 'round') });

/** Set into the ceiling: a rim that lies on it, a dark cone, the lamp behind. All of it is shallow, for the ceiling is not cut. */
function recessed({ width, depth, height }: PieceSize, { form }: z.output<typeof recessedTraits>): Made[] {
  const into = shaded();
  const one = (x: number, r: number): void => {
    into.shade.add(
      turned(
        [
          [r * 0.78, height],
          [r * 0.8, 0.001],
          [r * 0.97, 0.0005],
          [r, height * 0.6],
          [r, height],
        ],
        { x, segments: 40, round: 0.001 },
      ),
    );
    into.inner.add(
      turned(
        [
          [r * 0.55, height * 0.92],
          [r * 0.79, 0.0012],
        ],
        { x, segments: 40, round: 0 },
      ),
    );
    into.lamp.add(
      turned(
        [
          [0, height * 0.7, 0],
          [r * 0.57, height * 0.86],
          [r * 0.57, height * 0.98],
          [0, height * 0.98],
        ],
        { x, segments: 28, round: 0.001 },
      ),
    );
  };
  const k = Math.min(width, depth) / 2;
  if (form === 'square') {
    const r = k;
    into.shade
      .add(board(-r, -r, 0, r, -r * 0.82, height))
      .add(board(-r, r * 0.82, 0, r, r, height))
      .add(board(-r, -r * 0.82, 0.0003, -r * 0.82, r * 0.82, height))
      .add(board(r * 0.82, -r * 0.82, 0.0003, r, r * 0.82, height));
    into.lamp.add(board(-r * 0.82, -r * 0.82, height * 0.5, r * 0.82, r * 0.82, height * 0.95));
  } else if (form === 'pair') {
    const r = Math.min(depth / 2, width / 4) * 0.86;
    for (const x of [-1, 1]) one((x * width) / 4, r);
    into.shade.add(board(-width / 2, -depth / 2, height * 0.72, width / 2, depth / 2, height));
  } else one(0, k);
  return listed(into, { shade: 'rim', inner: 'cone' });
}

const trackTraits = z.object({ heads: count('Heads', { min: 1, max: 8, first: 3 }), tilt: length('Tilt', { min: 0, max: 1.2, first: 0.5, step: 0.05 }) });

function track({ width, height }: PieceSize, { heads, tilt }: z.output<typeof trackTraits>): Made[] {
  const into = shaded();
  const w = width / 2;
  into.fittings.add(board(-w, -0.017, height - 0.02, w, 0.017, height, 0.002));
  into.inner.add(board(-w + 0.004, -0.006, height - 0.0205, w - 0.004, 0.006, height - 0.018, 0.0004));
  for (let i = 0; i < heads; i++) {
    const x = -w + (width * (i + 0.5)) / heads;
    const long = Math.min(0.13, height - 0.04);
    into.fittings.add(board(x - 0.03, -0.014, height - 0.038, x + 0.03, 0.014, height - 0.0195, 0.002)).add(post(x, 0, height - 0.075, height - 0.037, 0.005));
    const m = about('x', i % 2 ? tilt : -tilt * 0.6, x, 0, height - 0.075);
    into.shade.add(
      turned(
        [
          [0.032, -long + 0.05],
          [0.032, 0.035],
          [0.027, 0.045],
          [0, 0.047],
        ],
        { segments: 24 },
      ),
      m,
    );
    into.inner.add(
      turned(
        [
          [0.012, -long + 0.08],
          [0.0295, -long + 0.052],
          [0.032, -long + 0.05],
        ],
        { segments: 24, round: 0 },
      ),
      m,
    );
    into.lamp.add(
      turned(
        [
          [0, -long + 0.068],
          [0.023, -long + 0.068],
          [0.023, -long + 0.075],
          [0, -long + 0.075],
        ],
        { segments: 20 },
      ),
      m,
    );
  }
  return listed(into, { shade: 'heads', fittings: 'track' });
}

const wallTraits = z.object({
  form: choice('Form', ['arm', 'globe', 'up and down', 'half shade', 'candle'], 'arm'),
  shade: choice('Shade', ['empire', 'drum', 'cone', 'dome'], 'empire'),
  arms: count('Arms', { min: 1, max: 3, first: 1 }),
});

function wallLight({ width, depth, height }: PieceSize, { form, shade, arms }: z.output<typeof wallTraits>): Made[] {
  const into = shaded();
  const back = depth / 2;
  const plate = (z0: number, r: number): void =>
    void into.fittings.add(
      turned(
        [
          [0, 0],
          [r, 0],
          [r, 0.008],
          [r * 0.8, 0.014],
          [0, 0.015],
        ],
        { segments: 28, round: 0.003 },
      ),
      upright(0, back, z0),
    );
  if (form === 'up and down') {
    const r = Math.min(width / 2, depth * 0.42);
    const y = back - depth + r;
    into.shade
      .add(
        turned(
          [
            [r * 0.92, 0.008],
            [r, 0],
            [r, height],
            [r * 0.92, height - 0.008],
          ],
          { y, segments: 32, round: 0.001 },
        ),
      )
      .add(
        turned(
          [
            [r * 0.92, height - 0.008],
            [r * 0.9, height * 0.86],
            [0, height * 0.84],
          ],
          { y, segments: 32, round: 0.001 },
        ),
      )
      .add(
        turned(
          [
            [0, height * 0.16],
            [r * 0.9, height * 0.14],
            [r * 0.92, 0.008],
          ],
          { y, segments: 32, round: 0.001 },
        ),
      );
    into.fittings.add(board(-r * 0.5, y + r * 0.5, height * 0.3, r * 0.5, back, height * 0.7, 0.003));
    for (const [z0, z1] of [
      [height * 0.86, height * 0.9],
      [height * 0.1, height * 0.14],
    ])
      into.lamp.add(
        turned(
          [
            [0, z0],
            [r * 0.8, z0],
            [r * 0.8, z1],
            [0, z1],
          ],
          { y, segments: 24 },
        ),
      );
  } else if (form === 'half shade') {
    const r = Math.min(width / 2, depth - 0.01);
    const n = cuts(28, 8);
    const at = (i: number, q: number, zz: number) =>
      v3(q * Math.cos(Math.PI + (Math.PI * i) / n), back - 0.004 + q * Math.sin(Math.PI + (Math.PI * i) / n), zz);
    for (let i = 0; i < n; i++) into.shade.quad(at(i, r, 0), at(i + 1, r, 0), at(i + 1, r * 0.86, height), at(i, r * 0.86, height));
    const hem = (q: number, zz: number): Vec3[] => Array.from({ length: n + 1 }, (_, i) => at(i, q, zz));
    into.shade.add(rod(hem(r, 0.003), 0.003, { section: 6 })).add(rod(hem(r * 0.86, height - 0.003), 0.003, { section: 6 }));
    into.fittings
      .add(board(-0.05, back - 0.012, height * 0.2, 0.05, back, height * 0.8, 0.003))
      .add(post(0, back - r * 0.42, height * 0.3, height * 0.42, 0.014))
      .add(bar(v3(0, back - 0.01, height * 0.32), v3(0, back - r * 0.42, height * 0.32), 0.006));
    into.lamp.add(bulb(height * 0.56, Math.min(0.03, r * 0.25), 0, back - r * 0.42, 'down'));
  } else {
    const r = form === 'globe' ? Math.min(width / 2 / arms, height * 0.36, depth * 0.36) : Math.min(width / 2 / arms, depth * 0.45, height * 0.34);
    const h = form === 'candle' ? 0.16 : tallOf(form === 'globe' ? 'globe' : shade, r);
    const z0 = height - h - (form === 'globe' ? 0.035 : 0.05);
    const reach = depth - r;
    for (let i = 0; i < arms; i++) {
      const x = arms === 1 ? 0 : -width / 2 + r + ((width - 2 * r) * i) / (arms - 1);
      const y = back - reach;
      const low = Math.max(0.03, z0 * 0.45);
      into.fittings.add(
        rod(
          curve(
            [
              v3(0, back - 0.006, low),
              v3(x * 0.5, back - reach * 0.45, low - Math.min(0.03, low * 0.5)),
              v3(x, y, low + (z0 - low) * 0.35),
              v3(x, y, Math.max(low + 0.01, z0 + h * 0.1)),
            ],
            cuts(isFine() ? 7 : 4, 2),
          ),
          0.0055,
          { section: 8 },
        ),
      );
      if (form === 'candle') {
        into.fittings.add(
          turned(
            vessel(
              [
                [0.012, z0 - 0.004],
                [0.034, z0 + 0.01],
              ],
              0.0015,
              0.001,
            ),
            { x, y, segments: 20, round: 0.0008 },
          ),
        );
        into.inner.add(post(x, y, z0, z0 + 0.075, 0.0105));
        into.lamp.add(
          lathe(
            [
              [0, z0 + 0.075],
              [0.012, z0 + 0.085],
              [0.0145, z0 + 0.1],
              [0.008, z0 + 0.122],
              [0, z0 + 0.136],
            ],
            { x, y, segments: 12 },
          ),
        );
      } else shadeAt(into, form === 'globe' ? 'globe' : shade, r, x, y, form === 'globe' ? z0 : z0 + 0.03, 'below');
    }
    plate(Math.max(0.05, Math.max(0.03, z0 * 0.45)), Math.min(0.05, height * 0.25, width * 0.45));
  }
  return listed(into);
}

const stripTraits = z.object({ form: choice('For', ['picture', 'mirror', 'shelf'], 'picture') });

function stripLight({ width, depth, height }: PieceSize, { form }: z.output<typeof stripTraits>): Made[] {
  const into = shaded();
  const [w, back] = [width / 2, depth / 2];
  if (form === 'picture') {
    // A trough on an arm that reaches over the frame.
    const r = Math.min(0.028, height * 0.25, depth * 0.3);
    const low = Math.min(0.03, height * 0.25);
    const [y, zz] = [-depth / 2 + r, height - r];
    into.fittings
      .add(
        rod(
          curve(
            [v3(0, back, low), v3(0, back - depth * 0.3, height * 0.55), v3(0, y + depth * 0.15, height - r * 0.4), v3(0, y, zz + r * 0.7)],
            cuts(isFine() ? 7 : 4, 2),
          ),
          0.0045,
          { section: 8 },
        ),
      )
      .add(board(-0.025, back - Math.min(0.008, depth * 0.3), 0, 0.025, back, Math.min(0.07, height * 0.8), 0.002));
    into.shade.add(rod([v3(-w, y, zz), v3(w, y, zz)], r, { section: 20 }));
    into.lamp.add(board(-w + 0.01, y - r * 0.4, zz - r - 0.001, w - 0.01, y + r * 0.7, zz - r * 0.72, 0.001));
  } else if (form === 'mirror') {
    const r = Math.min(0.022, height * 0.4);
    into.fittings
      .add(board(-w * 0.3, back - 0.014, height * 0.2, w * 0.3, back, height * 0.8, 0.003))
      .add(bar(v3(0, back - 0.01, height / 2), v3(0, -depth / 2 + r, height / 2), 0.012));
    into.lamp.add(rod([v3(-w + 0.012, -depth / 2 + r, height / 2), v3(w - 0.012, -depth / 2 + r, height / 2)], r * 0.9, { section: 20 }));
    for (const s of [-1, 1])
      into.shade.add(
        turned(
          [
            [0, 0],
            [r, 0],
            [r, 0.02],
            [0, 0.02],
          ],
          { segments: 24 },
        ),
        about('y', Math.PI / 2, s > 0 ? w - 0.02 : -w, -depth / 2 + r, height / 2),
      );
  } else {
    into.shade.add(board(-w, -depth / 2, 0.003, w, back, height, 0.0008));
    into.lamp.add(board(-w + 0.006, -depth / 2 + depth * 0.18, 0, w - 0.006, back - depth * 0.18, 0.0042, 0.0006));
  }
  return listed(into, { shade: 'body' });
}

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

const metal = { shade: 'metal.enamel-green', inner: 'paint.skein', [LAMP_PART]: 'light.opal' };
const sold = (price: number) => ({ supplier: 'Tallow & Wick', price });

export const luminaires: StockItem[] = [
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
  maker({
    id: 'ceiling-disc',
    name: 'Ceiling light',
    category: 'Luminaires',
    traits: ceilingTraits,
    size: { width: 0.36, depth: 0.36, height: 0.07 },
    min: { width: 0.15, depth: 0.08, height: 0.04 },
    max: { width: 1.2, depth: 0.8, height: 0.25 },
    mount: 'ceiling',
    parts: { body: 'metal.steel-brushed', inner: 'metal.brass-brushed', fittings: 'metal.brass-brushed', [LAMP_PART]: 'light.opal' },
    lamp: { lumen: 1600, kelvin: 3000, on: true },
    words: 'flush bathroom hall',
    sold: sold(95),
    connections: ['socket'],
    cards: [
      { id: 'ceiling-disc', name: 'Ceiling disc' },
      { id: 'ceiling-dish', name: 'Glass dish', size: { width: 0.4, depth: 0.4, height: 0.17 }, traits: { form: 'dish' } },
      {
        id: 'ceiling-ring',
        name: 'Ceiling ring',
        size: { width: 0.5, depth: 0.5, height: 0.06 },
        traits: { form: 'ring' },
        finishes: { body: 'metal.powder-black' },
      },
      {
        id: 'ceiling-square',
        name: 'Square ceiling light',
        size: { width: 0.32, depth: 0.32, height: 0.06 },
        traits: { form: 'square' },
        finishes: { body: 'metal.enamel-white' },
      },
      {
        id: 'ceiling-spots',
        name: 'Ceiling spots',
        size: { width: 0.6, depth: 0.1, height: 0.15 },
        traits: { form: 'spots' },
        finishes: { body: 'metal.enamel-white', inner: 'metal.steel-brushed' },
      },
    ],
    make: onCeiling,
    symbol: crossed,
  }),
  maker({
    id: 'recessed-light',
    name: 'Recessed light',
    category: 'Luminaires',
    traits: recessedTraits,
    size: { width: 0.09, depth: 0.09, height: 0.012 },
    min: { width: 0.05, depth: 0.05, height: 0.008 },
    max: { width: 0.4, depth: 0.25, height: 0.03 },
    mount: 'ceiling',
    parts: { rim: 'metal.enamel-white', cone: 'metal.steel-brushed', [LAMP_PART]: 'light.opal' },
    lamp: { lumen: 600, kelvin: 3000, on: true },
    words: 'downlight ceiling spot',
    sold: sold(32),
    connections: ['socket'],
    cards: [
      { id: 'recessed-light', name: 'Recessed light' },
      { id: 'recessed-square', name: 'Square recessed light', size: { width: 0.1, depth: 0.1, height: 0.012 }, traits: { form: 'square' } },
      {
        id: 'recessed-pair',
        name: 'Recessed pair',
        size: { width: 0.2, depth: 0.11, height: 0.012 },
        traits: { form: 'pair' },
        finishes: { rim: 'metal.powder-black' },
      },
    ],
    make: recessed,
    symbol: (size) => [ellipseLine(size.width, size.depth), ...crossed(size).slice(1)],
  }),
  maker({
    id: 'track-light',
    name: 'Track',
    category: 'Luminaires',
    traits: trackTraits,
    size: { width: 1.2, depth: 0.14, height: 0.18 },
    min: { width: 0.4, depth: 0.08, height: 0.12 },
    max: { width: 3, depth: 0.2, height: 0.3 },
    mount: 'ceiling',
    parts: { heads: 'metal.powder-black', inner: 'metal.steel-brushed', track: 'metal.powder-black', [LAMP_PART]: 'light.opal' },
    lamp: { lumen: 1800, kelvin: 3000, on: true },
    words: 'spots ceiling rail',
    sold: sold(210),
    connections: ['socket'],
    cards: [
      { id: 'track-light', name: 'Track with spots' },
      {
        id: 'track-long',
        name: 'Long track',
        size: { width: 2.2, depth: 0.14, height: 0.18 },
        traits: { heads: 5 },
        finishes: { heads: 'metal.enamel-white', track: 'metal.enamel-white' },
      },
    ],
    make: track,
    symbol: strip,
  }),
  maker({
    id: 'wall-light',
    name: 'Wall light',
    category: 'Luminaires',
    traits: wallTraits,
    size: { width: 0.2, depth: 0.22, height: 0.32 },
    min: { width: 0.08, depth: 0.07, height: 0.15 },
    max: { width: 0.6, depth: 0.4, height: 0.6 },
    mount: 'wall',
    foot: 1.55,
    parts: { shade: 'cloth.shade', inner: 'paper.cream', fittings: 'metal.brass-aged', [LAMP_PART]: 'light.opal' },
    lamp: { lumen: 400, kelvin: 2700, on: true },
    words: 'sconce bracket lamp',
    sold: sold(88),
    connections: ['socket'],
    cards: [
      { id: 'wall-light', name: 'Wall light' },
      {
        id: 'wall-globe',
        name: 'Globe wall light',
        size: { width: 0.15, depth: 0.19, height: 0.28 },
        traits: { form: 'globe' },
        finishes: { shade: 'glass.frosted', fittings: 'metal.brass-brushed' },
      },
      {
        id: 'wall-up-down',
        name: 'Up and down light',
        size: { width: 0.1, depth: 0.13, height: 0.2 },
        traits: { form: 'up and down' },
        finishes: { shade: 'metal.powder-black', fittings: 'metal.powder-black' },
      },
      { id: 'wall-half', name: 'Half-shade light', size: { width: 0.26, depth: 0.15, height: 0.2 }, traits: { form: 'half shade' } },
      { id: 'wall-candles', name: 'Candle bracket', size: { width: 0.3, depth: 0.18, height: 0.34 }, traits: { form: 'candle', arms: 2 } },
    ],
    make: wallLight,
    symbol: ({ width, depth }) => [
      outline(rectangle(Math.min(0.1, width), 0.015, 0, depth / 2 - 0.0075)),
      outline(circle(Math.min(width, depth) * 0.35, 0, -depth * 0.05)),
    ],
  }),
  maker({
    id: 'strip-light',
    name: 'Strip light',
    category: 'Luminaires',
    traits: stripTraits,
    size: { width: 0.45, depth: 0.18, height: 0.14 },
    min: { width: 0.2, depth: 0.012, height: 0.008 },
    max: { width: 2, depth: 0.3, height: 0.3 },
    mount: 'wall',
    foot: 1.9,
    parts: { body: 'metal.brass-brushed', fittings: 'metal.brass-brushed', [LAMP_PART]: 'light.opal' },
    lamp: { lumen: 450, kelvin: 3000, on: true },
    words: 'picture mirror shelf under cabinet',
    sold: sold(74),
    connections: ['socket'],
    cards: [
      { id: 'picture-light', name: 'Picture light' },
      {
        id: 'mirror-light',
        name: 'Mirror light',
        size: { width: 0.6, depth: 0.1, height: 0.06 },
        traits: { form: 'mirror' },
        finishes: { body: 'metal.chrome', fittings: 'metal.chrome' },
        words: 'bathroom',
      },
      {
        id: 'shelf-light',
        name: 'Shelf strip',
        size: { width: 0.8, depth: 0.025, height: 0.01 },
        traits: { form: 'shelf' },
        finishes: { body: 'metal.steel-brushed' },
      },
    ],
    make: stripLight,
    symbol: strip,
  }),
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
        finishes: { base: 'tile.glazed-ink' },
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
