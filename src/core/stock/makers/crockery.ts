import { z } from 'zod';
import { MeshBuilder, type Mesh } from '../../geometry/mesh';
import { cuts } from '../../geometry/shapes';
import { board } from '../forms/boards';
import { about, shiftBy } from '../forms/carry';
import { roundRectangle, slab } from '../forms/flat';
import { curve, rod } from '../forms/skin';
import { turned, vessel, type Turn } from '../forms/turned';
import { choice, count } from '../traits';
import { circle, maker, outline, rectangle, v3, type Made, type PieceSize, type StockItem } from '../types';

/** A plate: foot ring, well, rim that rises. */
const plate = (r: number, high = r * 0.16): Mesh =>
  turned(
    vessel(
      [
        [r * 0.58, 0],
        [r * 0.66, high * 0.22],
        [r * 0.97, high * 0.92],
        [r, high],
      ],
      Math.max(0.0028, r * 0.028),
      0.0015,
    ),
    { segments: 44, round: 0.0015 },
  );

/** A cup or a mug with its handle at +x. */
function cup(into: MeshBuilder, r: number, h: number, carry: readonly number[], straight: boolean): void {
  into.add(
    turned(
      vessel(
        straight
          ? [
              [r * 0.92, 0],
              [r, h * 0.06],
              [r, h],
            ]
          : [
              [r * 0.5, 0],
              [r * 0.78, h * 0.22],
              [r * 0.95, h * 0.6],
              [r, h],
            ],
        0.003,
        0.002,
      ),
      { segments: 32, round: 0.0012 },
    ),
    carry,
  );
  into.add(
    rod(
      curve([v3(r * 0.9, 0, h * 0.8), v3(r * 1.35, 0, h * 0.82), v3(r * 1.6, 0, h * 0.55), v3(r * 1.3, 0, h * 0.28), v3(r * 0.86, 0, h * 0.3)], cuts(5, 2)),
      0.0042,
      { section: 8, flat: 0.7 },
    ),
    carry,
  );
}

/** A stemmed or a plain glass. */
export function glass(into: MeshBuilder, r: number, h: number, carry: readonly number[], stem: boolean): void {
  const profile: Turn[] = stem
    ? [
        [0, 0.001, 0],
        [r * 0.86, 0],
        [r * 0.84, 0.003],
        [r * 0.12, 0.006],
        [0.0036, h * 0.08],
        [0.0034, h * 0.42],
        [r * 0.5, h * 0.5],
        [r, h * 0.68],
        [r * 0.86, h],
        [r * 0.86 - 0.0012, h],
        [r - 0.0014, h * 0.68],
        [r * 0.47, h * 0.51],
        [0, h * 0.455, 0],
      ]
    : vessel(
        [
          [r * 0.84, 0],
          [r * 0.88, h * 0.08],
          [r, h],
        ],
        0.002,
        0.004,
      );
  into.add(turned(profile, { segments: 32, round: 0.0008 }), carry);
}

/** Knife, fork and spoon lying along y. */
function cutlery(into: MeshBuilder, kind: 'knife' | 'fork' | 'spoon', carry: readonly number[]): void {
  const l = 0.105;
  into.add(
    rod([v3(0, -l, 0.0035), v3(0, -l * 0.55, 0.003), v3(0, l * 0.1, 0.0032)], (t) => 0.0042 - 0.0016 * t, { section: 8, flat: 0.45 }),
    carry,
  );
  if (kind === 'knife')
    into.add(
      slab(roundRectangle(0.016, l * 0.95, 0.0075), 0, 0.0018, 0.0006),
      about('z', 0, carry[12] + carry[4] * l * 0.55, carry[13] + carry[5] * l * 0.55, carry[14] + 0.002),
    );
  else if (kind === 'spoon')
    into.add(
      turned(
        vessel(
          [
            [0.006, 0],
            [0.016, 0.003],
            [0.02, 0.008],
          ],
          0.0012,
          0.0003,
        ),
        { segments: 20, round: 0.0005 },
      ),
      [
        carry[0],
        carry[1],
        0,
        0,
        carry[4] * 1.45,
        carry[5] * 1.45,
        0,
        0,
        0,
        0,
        1,
        0,
        carry[12] + carry[4] * l * 0.36,
        carry[13] + carry[5] * l * 0.36,
        carry[14] + 0.001,
        1,
      ],
    );
  else {
    into.add(slab(roundRectangle(0.022, 0.03, 0.008), 0.0022, 0.0042, 0.0008), [
      carry[0],
      carry[1],
      0,
      0,
      carry[4],
      carry[5],
      0,
      0,
      0,
      0,
      1,
      0,
      carry[12] + carry[4] * l * 0.24,
      carry[13] + carry[5] * l * 0.24,
      carry[14],
      1,
    ]);
    for (const x of [-0.0085, -0.0028, 0.0028, 0.0085])
      into.add(
        rod([v3(x, l * 0.34, 0.0032), v3(x, l * 0.7, 0.005), v3(x, l * 0.98, 0.007)], (t) => 0.0014 - 0.0006 * t, { section: 6 }),
        carry,
      );
  }
}

const crockeryTraits = z.object({
  what: choice('What', ['place setting', 'stack of plates', 'mugs', 'tea set', 'glasses', 'jugs'], 'place setting'),
  count: count('How many', { min: 1, max: 12, first: 4 }),
});

function crockery({ width, depth, height }: PieceSize, { what, count: n }: z.output<typeof crockeryTraits>): Made[] {
  const china = new MeshBuilder();
  const glasses = new MeshBuilder();
  const metal = new MeshBuilder();
  const cloth = new MeshBuilder();
  const [w, d] = [width / 2, depth / 2];
  if (what === 'place setting') {
    const r = Math.min(0.14, w * 0.58, d * 0.82);
    const y = -d + r + 0.006;
    china.add(plate(r), shiftBy(0, y, 0)).add(plate(r * 0.72, r * 0.12), shiftBy(0, y, r * 0.075));
    cloth.add(board(-r * 0.3, y - r * 0.62, r * 0.16, r * 0.3, y + r * 0.62, r * 0.16 + 0.006, 0.0028));
    const row = (x: number, kind: 'knife' | 'fork' | 'spoon'): void => cutlery(metal, kind, shiftBy(x, y, 0));
    row(-Math.min(w - 0.012, r + 0.025), 'fork');
    row(Math.min(w - 0.03, r + 0.022), 'knife');
    row(Math.min(w - 0.008, r + 0.05), 'spoon');
    glass(glasses, 0.034, Math.min(height, 0.19), shiftBy(Math.min(w - 0.036, r * 0.85), d - 0.036, 0), true);
    glass(glasses, 0.033, Math.min(height, 0.09), shiftBy(Math.min(w - 0.036, r * 0.85) - 0.078, d - 0.036, 0), false);
  } else if (what === 'stack of plates') {
    const r = Math.min(w, d);
    const step = Math.min(0.0115, (height - r * 0.14) / Math.max(1, n - 1));
    for (let i = 0; i < n; i++) china.add(plate(i < n / 2 ? r : r * 0.78, r * 0.14), shiftBy(0.0012 * Math.sin(i * 3), 0.001 * Math.cos(i * 5), i * step));
  } else if (what === 'mugs') {
    const across = Math.max(1, Math.min(n, Math.floor(width / 0.105)));
    const rows = Math.ceil(n / across);
    const r = Math.min(0.041, (width / across) * 0.37, (depth / rows) * 0.42);
    for (let i = 0; i < n; i++) {
      const [c, q] = [i % across, Math.floor(i / across)];
      const x = -w + (width / across) * (c + 0.5) - r * 0.3;
      const y = -d + (depth / rows) * (q + 0.5);
      cup(china, r, Math.min(height, 0.098), about('z', 0.3 * Math.sin(i * 2.2), x, y, 0), true);
    }
  } else if (what === 'glasses') {
    const across = Math.max(1, Math.min(n, Math.floor(width / 0.085)));
    const rows = Math.ceil(n / across);
    for (let i = 0; i < n; i++)
      glass(
        glasses,
        Math.min(0.036, (width / across) * 0.46, (depth / rows) * 0.46),
        height,
        shiftBy(-w + (width / across) * ((i % across) + 0.5), -d + (depth / rows) * (Math.floor(i / across) + 0.5), 0),
        height > 0.14,
      );
  } else if (what === 'jugs') {
    const each = width / Math.min(n, 3);
    for (let i = 0; i < Math.min(n, 3); i++) {
      const h = height * (1 - 0.2 * i);
      const r = Math.min(each * 0.34, d * 0.7, h * 0.4);
      const carry = about('z', i ? -0.4 : 0.2, -w + each * (i + 0.5) - r * 0.2, 0, 0);
      china.add(
        turned(
          vessel(
            [
              [r * 0.7, 0],
              [r, h * 0.3],
              [r * 0.92, h * 0.55],
              [r * 0.66, h * 0.86],
              [r * 0.78, h],
            ],
            0.0034,
            0.002,
          ),
          { segments: 36, round: 0.0015 },
        ),
        carry,
      );
      china.add(
        rod(curve([v3(r * 0.62, 0, h * 0.9), v3(r * 1.2, 0, h * 0.92), v3(r * 1.42, 0, h * 0.66), v3(r * 0.95, 0, h * 0.38)], cuts(6, 2)), 0.0052, {
          section: 8,
          flat: 0.75,
        }),
        carry,
      );
      china.add(
        rod([v3(-r * 0.62, 0, h * 0.9), v3(-r * 0.98, 0, h * 0.985)], (t) => r * (0.2 - 0.1 * t), { section: 10, flat: 0.6 }),
        carry,
      );
    }
  } else {
    // A pot with its lid, cups on saucers, a milk jug.
    const r = Math.min(0.075, d * 0.7, w * 0.32);
    const h = Math.min(height, r * 2);
    const carry = about('z', 0.4, -w * 0.35, 0, 0);
    china.add(
      turned(
        [
          ...vessel(
            [
              [r * 0.55, 0],
              [r * 0.94, h * 0.2],
              [r, h * 0.42],
              [r * 0.8, h * 0.68],
              [r * 0.42, h * 0.8],
            ],
            0.003,
            0.002,
          ),
        ],
        { segments: 36, round: 0.0015 },
      ),
      carry,
    );
    china.add(
      turned(
        [
          [0, h * 0.775],
          [r * 0.4, h * 0.8],
          [r * 0.3, h * 0.87],
          [r * 0.09, h * 0.9],
          [r * 0.07, h * 0.93],
          [r * 0.14, h * 0.97],
          [0, h],
        ],
        { segments: 28, round: 0.0015 },
      ),
      carry,
    );
    china.add(
      rod(
        curve([v3(-r * 0.85, 0, h * 0.32), v3(-r * 1.2, 0, h * 0.45), v3(-r * 1.35, 0, h * 0.7), v3(-r * 1.6, 0, h * 0.78)], cuts(5, 2)),
        (t) => r * (0.2 - 0.11 * t),
        { section: 10 },
      ),
      carry,
    );
    china.add(
      rod(curve([v3(r * 0.72, 0, h * 0.7), v3(r * 1.35, 0, h * 0.75), v3(r * 1.5, 0, h * 0.45), v3(r * 0.92, 0, h * 0.26)], cuts(6, 2)), 0.005, {
        section: 8,
        flat: 0.7,
      }),
      carry,
    );
    const m = Math.max(1, Math.min(n, 4));
    for (let i = 0; i < m; i++) {
      const x = w * 0.2 + (i % 2) * Math.min(0.16, w * 0.55);
      const y = -d * 0.5 + Math.floor(i / 2) * d;
      const q = Math.min(0.042, d * 0.3, w * 0.16);
      china.add(plate(q * 1.6, 0.014), shiftBy(x, y * 0.9, 0));
      cup(china, q, Math.min(h * 0.5, q * 1.4), about('z', 0.5 + i, x, y * 0.9, 0.006), false);
    }
  }
  return [
    { part: 'china', mesh: china.build() },
    { part: 'glass', mesh: glasses.build() },
    { part: 'cutlery', mesh: metal.build() },
    { part: 'napkin', mesh: cloth.build() },
  ];
}

export const crockeryMakers: StockItem[] = [
  maker({
    id: 'crockery',
    name: 'Crockery',
    category: 'Books & things',
    traits: crockeryTraits,
    size: { width: 0.44, depth: 0.36, height: 0.19 },
    min: { width: 0.12, depth: 0.1, height: 0.04 },
    max: { width: 0.7, depth: 0.5, height: 0.3 },
    mount: 'top',
    foot: 0.75,
    parts: { china: 'ceramic.white', glass: 'glass.low-iron', cutlery: 'metal.steel-polished', napkin: 'cloth.flax-linen' },
    words: 'plates cups table kitchen',
    sold: { supplier: 'Orrin Kilns', price: 42 },
    cards: [
      { id: 'place-setting', name: 'Place setting' },
      { id: 'plates', name: 'Stack of plates', size: { width: 0.27, depth: 0.27, height: 0.12 }, traits: { what: 'stack of plates', count: 8 } },
      {
        id: 'mugs',
        name: 'Mugs',
        size: { width: 0.4, depth: 0.12, height: 0.1 },
        traits: { what: 'mugs', count: 3 },
        finishes: { china: 'ceramic.celadon' },
      },
      { id: 'tea-set', name: 'Tea set', size: { width: 0.46, depth: 0.24, height: 0.16 }, traits: { what: 'tea set', count: 2 } },
      { id: 'glasses', name: 'Glasses', size: { width: 0.36, depth: 0.18, height: 0.12 }, traits: { what: 'glasses', count: 8 } },
      {
        id: 'jugs',
        name: 'Jugs',
        size: { width: 0.42, depth: 0.16, height: 0.22 },
        traits: { what: 'jugs', count: 3 },
        finishes: { china: 'ceramic.milk' },
      },
    ],
    make: crockery,
    symbol: ({ width, depth }, { what }) =>
      what === 'place setting'
        ? [outline(circle(Math.min(width * 0.29, depth * 0.4), 0, -depth / 2 + Math.min(width * 0.29, depth * 0.4)))]
        : [outline(rectangle(width, depth), true)],
  }),
];
