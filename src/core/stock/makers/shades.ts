import { MeshBuilder, type Mesh } from '../../geometry/mesh';
import { cuts, isLight, lathe } from '../../geometry/shapes';
import type { Vec3 } from '../../geometry/vec';
import { shiftBy } from '../forms/carry';
import { bar, curve, loop, rod } from '../forms/skin';
import { post, turned, type Turn } from '../forms/turned';
import { ellipseLine, outline, rectangle, stroke, v3, type Made, type PieceSize } from '../types';

/** The glowing bulb of a luminaire: the part that gives its light. */
export const LAMP_PART = 'lamp';

/** A glowing ball. */
export const ball = (z: number, r: number, x = 0, y = 0, segments = 16): Mesh =>
  lathe(
    Array.from({ length: cuts(11, 6) }, (_, i) => {
      const a = (i / (cuts(11, 6) - 1)) * Math.PI;
      return [r * Math.sin(a), z - r * Math.cos(a)] as const;
    }),
    { x, y, segments },
  );

/** A bulb of glass: pear-shaped, its cap upwards or downwards. */
export function bulb(z: number, r: number, x = 0, y = 0, cap: 'up' | 'down' = 'up'): Mesh {
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

export const SHADES = ['bell', 'globe', 'dome', 'cone', 'drum', 'empire', 'cage', 'none'] as const;

export type Shade = (typeof SHADES)[number];

interface Shaded {
  shade: MeshBuilder;
  inner: MeshBuilder;
  fittings: MeshBuilder;
  lamp: MeshBuilder;
}

export const shaded = (): Shaded => ({ shade: new MeshBuilder(), inner: new MeshBuilder(), fittings: new MeshBuilder(), lamp: new MeshBuilder() });

/** The height of a shade of a radius. */
export const tallOf = (form: Shade, r: number): number =>
  ({ bell: 0.9, globe: 2, dome: 0.72, cone: 0.85, drum: 0.95, empire: 1.15, cage: 1.5, none: 0.35 })[form] * r;

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
export function shadeAt(into: Shaded, form: Shade, r: number, x: number, y: number, z: number, from: 'above' | 'below'): void {
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
export const rose = (x: number, y: number, z: number, r = 0.05): Mesh =>
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
export const flex = (x: number, y: number, z0: number, z1: number): Mesh => rod([v3(x, y, z0), v3(x, y, z1)], 0.0028, { section: 8 });

export const listed = ({ shade, inner, fittings, lamp }: Shaded, names: { shade?: string; inner?: string; fittings?: string } = {}): Made[] => [
  { part: names.shade ?? 'shade', mesh: shade.build() },
  { part: names.inner ?? 'inner', mesh: inner.build() },
  { part: names.fittings ?? 'fittings', mesh: fittings.build() },
  { part: LAMP_PART, mesh: lamp.build() },
];

export const crossed = ({ width, depth }: PieceSize) => {
  const [a, b] = [width / 2, depth / 2];
  return [ellipseLine(width, depth), stroke([-a * 0.7, -b * 0.7], [a * 0.7, b * 0.7]), stroke([-a * 0.7, b * 0.7], [a * 0.7, -b * 0.7])];
};

export const strip = ({ width, depth }: PieceSize) => [outline(rectangle(width, depth)), stroke([-width / 2, 0], [width / 2, 0])];

export const metal = { shade: 'metal.enamel-green', inner: 'paint.skein', [LAMP_PART]: 'light.opal' };

export const sold = (price: number) => ({ supplier: 'Tallow & Wick', price });
