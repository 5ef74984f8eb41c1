import { z } from 'zod';
import { MeshBuilder, type Mesh } from '../../geometry/mesh';
import { cuts, isFine, lathe } from '../../geometry/shapes';
import type { Vec3 } from '../../geometry/vec';
import { about, shiftBy, stretched } from '../forms/carry';
import { ellipse, roundRectangle, slab } from '../forms/flat';
import { blade, heldWithin } from '../forms/leaves';
import { randomFrom } from '../forms/random';
import { curve, loft, rod, skin } from '../forms/skin';
import { turned, vessel, type Turn } from '../forms/turned';
import { choice, count } from '../traits';
import { ellipseLine, maker, outline, rectangle, v3, type Made, type PieceSize, type StockItem } from '../types';

const VASES: Record<string, (r: number, h: number) => Turn[]> = {
  tall: (r, h) => [
    [r * 0.62, 0],
    [r * 0.82, h * 0.25],
    [r, h * 0.6],
    [r * 0.7, h * 0.86],
    [r * 0.46, h * 0.93],
    [r * 0.56, h],
  ],
  bottle: (r, h) => [
    [r * 0.8, 0],
    [r, h * 0.12],
    [r, h * 0.42],
    [r * 0.72, h * 0.58],
    [r * 0.24, h * 0.7],
    [r * 0.2, h * 0.95],
    [r * 0.27, h],
  ],
  round: (r, h) => [
    [r * 0.5, 0],
    [r * 0.84, h * 0.16],
    [r, h * 0.42],
    [r * 0.9, h * 0.68],
    [r * 0.56, h * 0.87],
    [r * 0.44, h * 0.92],
    [r * 0.5, h],
  ],
  cylinder: (r, h) => [
    [r * 0.97, 0],
    [r, h * 0.05],
    [r, h * 0.95],
    [r, h],
  ],
  flared: (r, h) => [
    [r * 0.5, 0],
    [r * 0.46, h * 0.3],
    [r * 0.58, h * 0.62],
    [r * 0.84, h * 0.9],
    [r, h],
  ],
};

const vaseTraits = z.object({
  form: choice('Form', ['tall', 'bottle', 'round', 'cylinder', 'flared'], 'tall'),
  flowers: choice('In it', ['nothing', 'branches', 'tulips', 'grasses', 'daisies'], 'nothing'),
});

function vase({ width, depth, height }: PieceSize, { form, flowers }: z.output<typeof vaseTraits>): Made[] {
  const full = flowers !== 'nothing';
  const r = Math.min(width, depth) / 2;
  const h = full ? height * 0.44 : height;
  const own = full ? Math.min(r * 0.62, h * 0.42) : r;
  const leaves = new MeshBuilder();
  const stems = new MeshBuilder();
  const petals = new MeshBuilder();
  const body = turned(vessel(VASES[form](own, h), Math.max(0.0025, own * 0.055)), { segments: 40, round: 0.002 });
  if (full) {
    const random = randomFrom(9);
    const n = { branches: 5, tulips: 9, grasses: 22, daisies: 13, nothing: 0 }[flowers];
    const neck = form === 'bottle' ? own * 0.12 : form === 'round' ? own * 0.3 : own * 0.4;
    for (let i = 0; i < n; i++) {
      const a = i * 2.39996;
      const out = r * 0.92 * Math.sqrt((i + 0.5) / n);
      const top = height * (0.99 - 0.24 * ((i * 0.618) % 1)) - (flowers === 'tulips' ? 0.02 : 0.012);
      const path = curve(
        [
          v3(-Math.cos(a) * neck * 0.5, -Math.sin(a) * neck * 0.5, h * 0.12),
          v3(Math.cos(a) * neck, Math.sin(a) * neck, h * 0.97),
          v3(Math.cos(a) * out * 0.55, Math.sin(a) * out * 0.55, h + (top - h) * 0.6),
          v3(Math.cos(a) * out, Math.sin(a) * out, top),
        ],
        cuts(4, 1),
      );
      stems.add(rod(path, (t) => (flowers === 'branches' ? 0.0034 : 0.0019) * (1 - 0.5 * t), { section: cuts(6, 3) }));
      const tip = path[path.length - 1];
      if (flowers === 'branches') {
        for (let k = 3; k < 11; k++) {
          const p = path[Math.min(path.length - 1, Math.floor((k / 11) * path.length))];
          if (p.z < h) continue;
          const b = k * 2.4 + i;
          leaves.add(
            blade(
              p,
              { x: Math.cos(b) * 0.8, y: Math.sin(b) * 0.8, z: 0.5 },
              { length: 0.05 + 0.02 * random(), width: 0.022, outline: 'lance', fold: 0.3, droop: 0.4 },
            ),
          );
        }
      } else if (flowers === 'grasses')
        leaves.add(
          blade(
            path[Math.floor(path.length / 2)],
            { x: Math.cos(a) * 0.4, y: Math.sin(a) * 0.4, z: 0.9 },
            { length: (top - h) * 0.5, width: 0.008, outline: 'strap', fold: 0.5, droop: 0.9 },
          ),
        );
      else if (flowers === 'tulips') {
        for (let k = 0; k < 6; k++) {
          const b = (k / 6) * 2 * Math.PI + (k % 2) * 0.2;
          petals.add(
            blade(
              v3(tip.x, tip.y, tip.z - 0.03),
              { x: Math.cos(b) * 0.42, y: Math.sin(b) * 0.42, z: 1 },
              { length: 0.052, width: 0.034, outline: 'spoon', fold: 0.5, droop: -0.7 },
            ),
          );
        }
        if (i % 2)
          leaves.add(
            blade(
              path[Math.floor(path.length * 0.45)],
              { x: Math.cos(a + 1) * 0.5, y: Math.sin(a + 1) * 0.5, z: 0.9 },
              { length: 0.16, width: 0.03, outline: 'lance', fold: 0.6, droop: 0.8 },
            ),
          );
      } else {
        petals.add(new MeshBuilder().add(slab(ellipse(0.014, 0.014), 0, 0.006, 0.003), shiftBy(tip.x, tip.y, tip.z)).build());
        for (let k = 0; k < 12; k++) {
          const b = (k / 12) * 2 * Math.PI;
          petals.add(
            blade(
              v3(tip.x + 0.005 * Math.cos(b), tip.y + 0.005 * Math.sin(b), tip.z + 0.003),
              { x: Math.cos(b), y: Math.sin(b), z: 0.12 },
              { length: 0.019, width: 0.0075, outline: 'spoon', fold: 0.1, droop: 0.3 },
            ),
          );
        }
      }
    }
  }
  return [
    { part: 'vase', mesh: body },
    { part: 'stems', mesh: heldWithin(stems.build(), width, depth, height) },
    { part: 'leaves', mesh: heldWithin(leaves.build(), width, depth, height) },
    { part: 'petals', mesh: heldWithin(petals.build(), width, depth, height) },
  ];
}

const bowlTraits = z.object({
  form: choice('Form', ['bowl', 'dish', 'footed', 'tray'], 'bowl'),
  filling: choice('In it', ['nothing', 'apples', 'lemons', 'pears', 'bread'], 'nothing'),
});

/** A fruit about the origin: an apple dimpled at both ends, a lemon pointed, a pear drawn out. */
export function fruit(kind: 'apples' | 'lemons' | 'pears', r: number): Mesh {
  const n = cuts(12, 5);
  const profile: [number, number][] = [];
  for (let i = 0; i <= n; i++) {
    const a = -Math.PI / 2 + (Math.PI * i) / n;
    const c = Math.cos(a);
    if (kind === 'apples') profile.push([r * c * (1 + 0.06 * Math.sin(a)), r * (0.9 * Math.sin(a) - 0.16 * Math.sign(Math.sin(a)) * (1 - c) ** 6 * 1.4)]);
    else if (kind === 'lemons') profile.push([r * 0.86 * c ** 0.9, r * 1.12 * Math.sin(a) * (1 + 0.12 * Math.abs(Math.sin(a)) ** 9)]);
    else profile.push([r * c * (Math.sin(a) > 0 ? 1 - 0.5 * Math.sin(a) ** 1.4 : 1), r * (Math.sin(a) > 0 ? 1.5 : 0.9) * Math.sin(a)]);
  }
  profile[0][0] = 0;
  profile[n][0] = 0;
  return lathe(profile, { segments: 18 });
}

function bowl({ width, depth, height }: PieceSize, { form, filling }: z.output<typeof bowlTraits>): Made[] {
  const r = Math.min(width, depth) / 2;
  const k = [width / (2 * r), depth / (2 * r)];
  const heaped = filling !== 'nothing';
  const rim = heaped && form !== 'tray' ? height * 0.62 : form === 'tray' && heaped ? Math.min(0.05, height * 0.4) : height;
  const carry = stretched(k[0], k[1], 1);
  const body = new MeshBuilder();
  const wall = Math.max(0.0025, r * 0.03);
  if (form === 'tray') {
    const t = Math.min(0.008, rim * 0.3);
    body.add(slab(roundRectangle(width, depth, 0.03), 0, t, 0.002));
    const n = cuts(6, 2);
    const ring = (by: number, zz: number): Vec3[] => roundRectangle(width - 2 * by, depth - 2 * by, 0.03 - by * 0.5, n).map((p) => ({ ...p, z: zz }));
    const rings = [
      ring(0.0, t * 0.5),
      ring(0, rim - 0.003),
      ring(0.001, rim - 0.0008),
      ring(0.0035, rim),
      ring(0.006, rim - 0.0008),
      ring(0.007, rim - 0.003),
      ring(0.0075, t * 0.5),
    ];
    const m = rings[0].length;
    const points = rings.flat();
    const faces: number[][] = [];
    for (let a = 0; a + 1 < rings.length; a++)
      for (let i = 0; i < m; i++) faces.push([a * m + i, a * m + ((i + 1) % m), (a + 1) * m + ((i + 1) % m), (a + 1) * m + i]);
    body.add(skin(points, faces, 1.05));
  } else {
    const outer: Turn[] =
      form === 'dish'
        ? [
            [r * 0.55, 0],
            [r * 0.72, rim * 0.3],
            [r * 0.97, rim * 0.92],
            [r, rim],
          ]
        : form === 'footed'
          ? [
              [r * 0.42, 0],
              [r * 0.3, rim * 0.06],
              [r * 0.12, rim * 0.22],
              [r * 0.12, rim * 0.4],
              [r * 0.5, rim * 0.55],
              [r * 0.9, rim * 0.82],
              [r, rim],
            ]
          : [
              [r * 0.42, 0],
              [r * 0.7, rim * 0.2],
              [r * 0.92, rim * 0.6],
              [r, rim],
            ];
    if (form === 'footed') {
      const cup: Turn[] = [
        [r - wall, rim - 0.0001],
        [r * 0.88 - wall, rim * 0.84],
        [r * 0.46, rim * 0.62],
        [0, rim * 0.56, 0],
      ];
      body.add(turned([[0, 0.003, 0], [r * 0.38, 0], ...outer, ...cup], { segments: 44, round: 0.002 }), carry);
    } else body.add(turned(vessel(outer, wall), { segments: 44, round: 0.002 }), carry);
  }
  const food = new MeshBuilder();
  const stalks = new MeshBuilder();
  if (filling === 'bread') {
    const l = Math.min(width * 0.4, 0.15);
    for (const [x, y, turn] of form === 'tray'
      ? [
          [-width * 0.16, 0, 0.2],
          [width * 0.22, depth * 0.08, -0.4],
        ]
      : [[0, 0, 0.3]]) {
      const n = cuts(isFine() ? 30 : 10, 5);
      const m = cuts(20, 8);
      const tall = Math.max(0.015, Math.min(0.09, height - 0.02));
      const rings: Vec3[][] = [];
      for (let i = 0; i <= n; i++) {
        const t = -1 + (2 * i) / n;
        const q = Math.sqrt(Math.max(0.0004, 1 - t ** 4));
        const slash = isFine() && Math.abs(t) < 0.75 ? 0.13 * Math.max(0, Math.cos(t * 13)) ** 6 : 0;
        rings.push(
          Array.from({ length: m }, (_, j) => {
            const a = (2 * Math.PI * j) / m;
            const up = Math.sin(a);
            return v3(
              t * l,
              l * 0.42 * q * Math.cos(a),
              (form === 'tray' ? 0.008 : rim * 0.35) +
                tall * 0.5 * (1 + (up > 0 ? up * q * (1 - slash * (up > 0.7 ? 1 : 0)) : -(1 - (1 - Math.abs(up)) ** 2) * 0.98)),
            );
          }),
        );
      }
      food.add(loft(rings.map((ring) => [...ring].reverse()).reverse(), { crease: 1 }), about('z', turn, x, y, 0));
    }
  } else if (heaped) {
    const random = randomFrom(6);
    const f = Math.min(0.038, r * 0.34, height * 0.3);
    const inner = form === 'tray' ? Math.min(width, depth) / 2 - f - 0.012 : form === 'dish' ? r * 0.76 - f * 1.25 : r * 0.74 - f * 0.4;
    let zz = form === 'footed' ? rim * 0.62 : form === 'dish' ? wall + 0.006 : form === 'tray' ? 0.008 : rim * 0.2;
    zz += f * 0.85;
    for (let layer = 0; layer < 4 && zz + f < height + 0.001; layer++) {
      const ring = inner * (1 - layer * 0.36);
      const n = ring < f * 0.6 ? 1 : Math.max(1, Math.floor((2 * Math.PI * ring) / (2.06 * f)));
      for (let i = 0; i < n; i++) {
        const a = (2 * Math.PI * i) / n + layer * 0.7;
        const q = n === 1 ? 0 : ring;
        const m = about(random() > 0.5 ? 'x' : 'y', (random() - 0.5) * 1.3, q * Math.cos(a), q * Math.sin(a), zz + f * 0.1 * (random() - 0.5));
        food.add(fruit(filling, f * (0.92 + 0.12 * random())), m);
        if (filling !== 'lemons')
          stalks.add(
            rod([v3(0, 0, f * (filling === 'pears' ? 1.42 : 0.62)), v3(0.002, 0.001, f * (filling === 'pears' ? 1.75 : 1.05))], 0.0011, { section: 5 }),
            m,
          );
      }
      // A heap is filled in its middle too.
      if (n > 5) food.add(fruit(filling, f), shiftBy(0, 0, zz));
      zz += f * 1.35;
    }
  }
  return [
    { part: 'bowl', mesh: body.build() },
    { part: 'food', mesh: food.build() },
    { part: 'stalks', mesh: stalks.build() },
  ];
}

const candleTraits = z.object({ holder: choice('Holder', ['none', 'stick', 'pan', 'glass'], 'stick'), count: count('Candles', { min: 1, max: 5, first: 1 }) });

function candles({ width, depth, height }: PieceSize, { holder, count: n }: z.output<typeof candleTraits>): Made[] {
  const wax = new MeshBuilder();
  const metal = new MeshBuilder();
  const wicks = new MeshBuilder();
  const each = width / n;
  for (let i = 0; i < n; i++) {
    const x = -width / 2 + each * (i + 0.5);
    const k = 1 - 0.22 * ((i * 0.618) % 1);
    const r = Math.min(each, depth) / 2 - 0.002;
    const tall = height * k;
    const [r0, z0, z1] =
      holder === 'none'
        ? [r, 0, tall - 0.012]
        : holder === 'stick'
          ? [Math.min(0.0115, r * 0.4), tall * 0.5, tall - 0.012]
          : holder === 'pan'
            ? [Math.min(0.02, r * 0.45), 0.012, tall - 0.012]
            : [r * 0.78, 0.006, tall * 0.62];
    wax.add(
      turned(
        [
          [0, z0],
          [r0 * 1.02, z0],
          [r0, z1 - 0.002],
          [r0 * 0.7, z1 - 0.0035],
          [0, z1 - 0.006],
        ],
        { x, segments: 20, round: Math.min(0.003, r0 * 0.25) },
      ),
    );
    wicks.add(rod([v3(x, 0, z1 - 0.007), v3(x + 0.0006, 0, z1 + 0.004), v3(x + 0.0016, 0, z1 + 0.01)], 0.0008, { section: 5 }));
    if (holder === 'stick')
      metal.add(
        turned(
          [
            [0, 0],
            [r, 0],
            [r, 0.005],
            [r * 0.88, 0.01],
            [r * 0.26, 0.02],
            [r * 0.17, tall * 0.14],
            [r * 0.34, tall * 0.2],
            [r * 0.15, tall * 0.26],
            [r * 0.14, tall * 0.4],
            [r * 0.42, tall * 0.46],
            [r * 0.5, tall * 0.5],
            [r0 + 0.002, tall * 0.505],
            [r0 + 0.002, tall * 0.53],
            [r0 + 0.0005, tall * 0.53],
            [r0 + 0.0005, tall * 0.49],
            [0, tall * 0.49],
          ],
          { x, segments: 28, round: 0.0012 },
        ),
      );
    else if (holder === 'pan') {
      metal
        .add(
          turned(
            vessel(
              [
                [r * 0.7, 0],
                [r * 0.96, 0.014],
              ],
              0.0014,
              0.001,
            ),
            { x, segments: 32, round: 0.0006 },
          ),
        )
        .add(
          turned(
            [
              [r0 + 0.0004, 0.002],
              [r0 + 0.003, 0.002],
              [r0 + 0.003, 0.03],
              [r0 + 0.0004, 0.03],
            ],
            { x, segments: 20, round: 0.0005 },
          ),
        );
    } else if (holder === 'glass')
      metal.add(
        turned(
          vessel(
            [
              [r * 0.9, 0],
              [r * 0.97, tall * 0.1],
              [r, tall],
            ],
            0.0024,
            0.003,
          ),
          { x, segments: 32, round: 0.001 },
        ),
      );
  }
  return [
    { part: 'wax', mesh: wax.build() },
    { part: 'holder', mesh: metal.build() },
    { part: 'wick', mesh: wicks.build() },
  ];
}

export const lying = ({ width, depth }: PieceSize) => [outline(rectangle(width, depth))];

export const round = ({ width, depth }: PieceSize) => [ellipseLine(width, depth)];

export const vessels: StockItem[] = [
  maker({
    id: 'vase',
    name: 'Vase',
    category: 'Books & things',
    traits: vaseTraits,
    size: { width: 0.16, depth: 0.16, height: 0.32 },
    min: { width: 0.06, depth: 0.06, height: 0.1 },
    max: { width: 0.7, depth: 0.7, height: 1.3 },
    mount: 'top',
    foot: 0.8,
    parts: { vase: 'ceramic.white', stems: 'leaf.green', leaves: 'leaf.green', petals: 'cloth.rust-velvet' },
    words: 'flowers pot jug',
    sold: { supplier: 'Orrin Kilns', price: 48 },
    cards: [
      { id: 'vase', name: 'Tall vase' },
      {
        id: 'vase-bottle',
        name: 'Bottle vase',
        size: { width: 0.12, depth: 0.12, height: 0.26 },
        traits: { form: 'bottle' },
        finishes: { vase: 'glass.weir' },
      },
      {
        id: 'vase-round',
        name: 'Round vase',
        size: { width: 0.22, depth: 0.22, height: 0.22 },
        traits: { form: 'round' },
        finishes: { vase: 'ceramic.ink' },
      },
      {
        id: 'vase-tulips',
        name: 'Tulips',
        size: { width: 0.32, depth: 0.32, height: 0.42 },
        traits: { form: 'flared', flowers: 'tulips' },
        finishes: { vase: 'glass.clear' },
      },
      {
        id: 'vase-branches',
        name: 'Vase with branches',
        size: { width: 0.5, depth: 0.5, height: 0.8 },
        traits: { form: 'tall', flowers: 'branches' },
        finishes: { vase: 'clay.pot', stems: 'timber.walnut' },
      },
      {
        id: 'vase-grasses',
        name: 'Dry grasses',
        size: { width: 0.36, depth: 0.36, height: 0.7 },
        traits: { form: 'cylinder', flowers: 'grasses' },
        finishes: { leaves: 'carpet.jute', stems: 'carpet.jute' },
      },
      {
        id: 'vase-daisies',
        name: 'Daisies',
        size: { width: 0.24, depth: 0.24, height: 0.3 },
        traits: { form: 'round', flowers: 'daisies' },
        finishes: { petals: 'cloth.white-linen', vase: 'ceramic.honey' },
      },
    ],
    make: vase,
    symbol: round,
  }),
  maker({
    id: 'bowl',
    name: 'Bowl',
    category: 'Books & things',
    traits: bowlTraits,
    size: { width: 0.28, depth: 0.28, height: 0.1 },
    min: { width: 0.1, depth: 0.1, height: 0.02 },
    max: { width: 0.7, depth: 0.5, height: 0.4 },
    mount: 'top',
    foot: 0.8,
    parts: { bowl: 'ceramic.white', food: 'cloth.oxblood-hide', stalks: 'timber.walnut' },
    words: 'fruit food kitchen dish',
    sold: { supplier: 'Orrin Kilns', price: 38 },
    cards: [
      { id: 'bowl', name: 'Bowl' },
      {
        id: 'bowl-apples',
        name: 'Bowl of apples',
        size: { width: 0.3, depth: 0.3, height: 0.17 },
        traits: { filling: 'apples' },
        finishes: { bowl: 'timber.walnut', food: 'food.apple' },
        words: 'fruit',
      },
      {
        id: 'bowl-lemons',
        name: 'Dish of lemons',
        size: { width: 0.34, depth: 0.34, height: 0.14 },
        traits: { form: 'dish', filling: 'lemons' },
        finishes: { food: 'food.lemon' },
        words: 'fruit',
      },
      {
        id: 'bowl-pears',
        name: 'Footed bowl of pears',
        size: { width: 0.28, depth: 0.28, height: 0.26 },
        traits: { form: 'footed', filling: 'pears' },
        finishes: { food: 'food.pear' },
        words: 'fruit',
      },
      {
        id: 'bread',
        name: 'Bread on a board',
        size: { width: 0.42, depth: 0.26, height: 0.12 },
        traits: { form: 'tray', filling: 'bread' },
        finishes: { bowl: 'timber.oak', food: 'food.crust' },
        words: 'food loaf',
      },
      { id: 'tray', name: 'Tray', size: { width: 0.45, depth: 0.32, height: 0.04 }, traits: { form: 'tray' }, finishes: { bowl: 'timber.walnut' } },
    ],
    make: bowl,
    symbol: round,
  }),
  maker({
    id: 'candles',
    name: 'Candles',
    category: 'Books & things',
    traits: candleTraits,
    size: { width: 0.1, depth: 0.1, height: 0.34 },
    min: { width: 0.05, depth: 0.05, height: 0.05 },
    max: { width: 0.6, depth: 0.2, height: 0.6 },
    mount: 'top',
    foot: 0.8,
    parts: { wax: 'paper.cream', holder: 'metal.brass-brushed', wick: 'paint.soot' },
    words: 'light stick wax',
    sold: { supplier: 'Tallow & Wick', price: 26 },
    cards: [
      { id: 'candles', name: 'Candlestick' },
      { id: 'candles-pair', name: 'Pair of candlesticks', size: { width: 0.24, depth: 0.1, height: 0.36 }, traits: { count: 2 } },
      { id: 'candles-pillar', name: 'Pillar candles', size: { width: 0.28, depth: 0.08, height: 0.18 }, traits: { holder: 'none', count: 3 } },
      {
        id: 'candle-glass',
        name: 'Candle in a glass',
        size: { width: 0.08, depth: 0.08, height: 0.1 },
        traits: { holder: 'glass' },
        finishes: { holder: 'glass.amber' },
      },
    ],
    make: candles,
    symbol: lying,
  }),
];
