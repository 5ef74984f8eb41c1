import { z } from 'zod';
import { MeshBuilder, type Mesh } from '../../geometry/mesh';
import { cuts, isFine, isLight, lathe } from '../../geometry/shapes';
import type { Vec3 } from '../../geometry/vec';
import { NEAR } from '../../units/tolerance';
import { board, timber } from '../forms/boards';
import { about, shiftBy, stretched } from '../forms/carry';
import { ellipse, roundRectangle, slab } from '../forms/flat';
import { blade, heldWithin } from '../forms/leaves';
import { randomFrom } from '../forms/random';
import { bar, curve, loft, loop, rod, skin } from '../forms/skin';
import { cushion } from '../forms/soft';
import { post, turned, vessel, type Turn } from '../forms/turned';
import { choice, count, toggle } from '../traits';
import { ellipseLine, maker, outline, rectangle, v3, type Made, type PieceSize, type StockItem } from '../types';
import { book, rowOfBooks, type BookGroups } from './books';
import { BOUND } from './storage';

const bookTraits = z.object({ lie: choice('Lie', ['in a row', 'stacked', 'open'], 'in a row'), seed: count('Order', { min: 1, max: 40, first: 1 }) });

function books({ width, depth, height }: PieceSize, { lie, seed }: z.output<typeof bookTraits>): Made[] {
  const groups: BookGroups = { covers: [0, 1, 2, 3, 4].map(() => new MeshBuilder()), leaves: new MeshBuilder() };
  const random = randomFrom(seed);
  if (lie === 'in a row') rowOfBooks(groups, -width / 2, width / 2, -depth / 2, 0, height + 0.012, depth, 1, seed);
  else if (lie === 'stacked') {
    let at = 0;
    for (let i = 0; at + 0.012 < height; i++) {
      const thick = Math.min(height - at, 0.014 + 0.024 * random());
      const k = 1 - 0.28 * random() * Math.min(1, i / 4);
      book(groups, i + seed, (depth - 0.012) * k, (width - 0.012) * k, thick, about('z', 0.12 * (random() - 0.5) * Math.min(1, i), 0, 0, at));
      at += thick;
    }
  } else {
    // An open book: two blocks that fall away from the fold, leaves that curl.
    const n = cuts(isFine() ? 14 : 8, 4);
    const ring = (x: number, s: number): Vec3[] => {
      const t = Math.abs(x) / (width / 2);
      const top = Math.max(0.004, (height - 0.002) * (0.55 + 0.45 * Math.sin(Math.PI * Math.min(1, t * 0.9 + 0.08)) ** 0.6) * (t > 0.96 ? 0.9 : 1));
      return [
        v3(s * Math.abs(x), -depth / 2 + 0.004, 0.003),
        v3(s * Math.abs(x), depth / 2 - 0.004, 0.003),
        v3(s * Math.abs(x), depth / 2 - 0.004, top),
        v3(s * Math.abs(x), -depth / 2 + 0.004, top),
      ];
    };
    for (const s of [-1, 1]) {
      const rings = Array.from({ length: n + 1 }, (_, i) => ring(((width / 2 - 0.005) * i) / n + 0.0005, s));
      groups.leaves.add(loft(s > 0 ? rings : rings.reverse(), { crease: 0.5 }));
      groups.covers[0].add(board(s < 0 ? -width / 2 : 0.001, -depth / 2, 0, s < 0 ? -0.001 : width / 2, depth / 2, 0.0028, 0.0006));
    }
  }
  return [
    ...(['first', 'second', 'third', 'fourth', 'fifth'] as const).map((k, i) => ({ part: `books, ${k}`, mesh: groups.covers[i].build() })),
    { part: 'leaves', mesh: groups.leaves.build() },
  ];
}

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
function fruit(kind: 'apples' | 'lemons' | 'pears', r: number): Mesh {
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
      const n = cuts(isFine() ? 18 : 10, 5);
      const m = cuts(20, 8);
      const tall = Math.max(0.015, Math.min(0.09, height - 0.02));
      const rings: Vec3[][] = [];
      for (let i = 0; i <= n; i++) {
        const t = -1 + (2 * i) / n;
        const q = Math.sqrt(Math.max(0.0004, 1 - t ** 4));
        const slash = isFine() && Math.abs(t) < 0.75 ? 0.06 * Math.max(0, Math.cos(t * 13)) ** 6 : 0;
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
    const inner = form === 'tray' ? Math.min(width, depth) / 2 - f - 0.012 : r * 0.74 - f * 0.4;
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

const toyTraits = z.object({ kind: choice('Toy', ['blocks', 'train', 'rings', 'boat', 'balls'], 'blocks') });

function toys({ width, depth, height }: PieceSize, { kind }: z.output<typeof toyTraits>): Made[] {
  const groups = [0, 1, 2].map(() => new MeshBuilder());
  const random = randomFrom(3);
  const [w, d] = [width / 2, depth / 2];
  if (kind === 'blocks') {
    const s = Math.min(width, depth, height) * 0.3;
    const spots: [number, number, number, number][] = [];
    const n = Math.max(2, Math.floor((width - 0.01) / (s * 1.35)));
    for (let i = 0; i < n; i++) spots.push([-w + s * 0.75 + i * s * 1.3, -d + s * 0.8 + (depth - 1.7 * s) * random(), 0, 0.7 * (random() - 0.5)]);
    spots.push([spots[0][0] + s * 0.12, spots[0][1], s, 0.2], [spots[1][0] - s * 0.1, spots[1][1], s, -0.3], [spots[0][0] + s * 0.05, spots[0][1], 2 * s, 0.5]);
    spots.forEach(
      ([x, y, zz, a], i) =>
        zz + s <= height + NEAR &&
        groups[i % 3].add(
          board(-s / 2, -s / 2, 0, s / 2, s / 2, s, 0.003),
          about('z', a, Math.min(w - s * 0.72, Math.max(-w + s * 0.72, x)), Math.min(d - s * 0.72, Math.max(-d + s * 0.72, y)), zz),
        ),
    );
  } else if (kind === 'train') {
    const n = Math.max(2, Math.round(width / 0.16));
    const l = width / n;
    const r = Math.min(height * 0.2, l * 0.16);
    for (let i = 0; i < n; i++) {
      const x = -w + l * i;
      groups[0].add(timber(x + 0.004, -d * 0.7, r * 0.9, x + l - 0.008, d * 0.7, r * 1.8));
      if (i) groups[1 + (i % 2)].add(timber(x + 0.012, -d * 0.62, r * 1.8 - 0.0004, x + l - 0.016, d * 0.62, height * (0.66 + 0.1 * (i % 2))));
      else {
        groups[1]
          .add(
            bar(v3(x + l * 0.98 - 0.012, 0, r * 1.8 + height * 0.2), v3(x + l * 0.4, 0, r * 1.8 + height * 0.2), height * 0.2, height * 0.2, { section: 20 }),
          )
          .add(timber(x + 0.012, -d * 0.66, r * 1.8 - 0.0004, x + l * 0.42, d * 0.66, height));
        groups[2].add(post(x + l * 0.76, 0, height * 0.66, height * 0.95, height * 0.06, height * 0.08));
      }
      for (const y of [-1, 1])
        for (const k of [0.22, 0.74]) groups[2].add(bar(v3(x + l * k, y * d * 0.72, r), v3(x + l * k, y * d * 0.98, r), r, r, { section: 18 }));
      if (i) groups[2].add(bar(v3(x - 0.01, 0, r * 1.3), v3(x + 0.006, 0, r * 1.3), 0.003, 0.003, { section: 6 }));
    }
  } else if (kind === 'rings') {
    const r = Math.min(w, d);
    const n = 5;
    groups[0].add(
      turned(
        [
          [0, 0],
          [r, 0],
          [r, height * 0.07],
          [r * 0.16, height * 0.1],
          [r * 0.13, height * 0.92],
          [r * 0.2, height * 0.96],
          [0, height],
        ],
        { segments: 32, round: 0.003 },
      ),
    );
    for (let i = 0; i < n; i++) {
      const q = r * (0.9 - 0.13 * i);
      const t = (height * 0.78) / n / 2;
      const m = cuts(28, 12);
      groups[i % 2 ? 1 : 2].add(
        loop(
          Array.from({ length: m }, (_, k) =>
            v3((q - t) * Math.cos((2 * Math.PI * k) / m), (q - t) * Math.sin((2 * Math.PI * k) / m), height * 0.1 + t * (2 * i + 1)),
          ),
          t,
          12,
        ),
      );
    }
  } else if (kind === 'boat') {
    const n = cuts(isFine() ? 20 : 12, 6);
    const rings: Vec3[][] = [];
    for (let i = 0; i <= n; i++) {
      const t = i / n;
      const half = d * 0.96 * Math.min(1, 0.6 + 2 * t) * Math.max(0.03, 1 - t ** 3.2);
      const sheer = height * (0.26 + 0.08 * (2 * t - 1) ** 2);
      const x = -w * 0.98 + 2 * w * 0.98 * t;
      rings.push(
        [
          v3(x, half, sheer),
          v3(x, half * 0.9, sheer * 0.5),
          v3(x, half * 0.4, 0.003),
          v3(x, -half * 0.4, 0.003),
          v3(x, -half * 0.9, sheer * 0.5),
          v3(x, -half, sheer),
        ].reverse(),
      );
    }
    groups[0].add(loft(rings, { crease: 0.9 }));
    groups[1].add(rod([v3(w * 0.05, 0, height * 0.2), v3(w * 0.05, 0, height)], 0.003, { section: 8 }));
    groups[2].add(
      skin(
        [
          v3(w * 0.07, 0.001, height * 0.36),
          v3(w * 0.07, 0.001, height * 0.96),
          v3(w * 0.8, 0.012, height * 0.38),
          v3(w * 0.02, 0.001, height * 0.36),
          v3(w * 0.02, 0.001, height * 0.9),
          v3(-w * 0.8, 0.014, height * 0.38),
        ],
        [
          [0, 2, 1],
          [3, 4, 5],
        ],
      ),
    );
  } else {
    const spots = [
      [-0.5, 0.1, 0.5],
      [0.35, -0.3, 0.36],
      [0.45, 0.42, 0.28],
    ];
    spots.forEach(([x, y, k], i) => {
      const r = Math.min(height / 2, Math.min(w, d) * k * 1.2);
      const n = cuts(16, 7);
      groups[i].add(
        lathe(
          Array.from({ length: n + 1 }, (_, j) => [r * Math.sin((Math.PI * j) / n), r - r * Math.cos((Math.PI * j) / n)] as const),
          { x: Math.max(-w + r, Math.min(w - r, x * w)), y: Math.max(-d + r, Math.min(d - r, y * d)), segments: 28 },
        ),
      );
    });
  }
  return groups.map((g, i) => ({ part: ['first', 'second', 'third'][i], mesh: g.build() }));
}

const basketTraits = z.object({
  form: choice('Form', ['round', 'oblong', 'crate', 'bin'], 'round'),
  filling: choice('In it', ['nothing', 'blankets', 'toys'], 'nothing'),
  handles: toggle('Handles', true),
});

function basket({ width, depth, height }: PieceSize, { form, filling, handles }: z.output<typeof basketTraits>): Made[] {
  const weave = new MeshBuilder();
  const cloth = new MeshBuilder();
  const things = new MeshBuilder();
  const [w, d] = [width / 2 - (handles && form !== 'bin' ? 0.012 : 0), depth / 2];
  const rim = filling === 'nothing' ? height - (handles && form === 'round' ? height * 0.08 : 0) : height * 0.8;
  if (form === 'crate') {
    const t = 0.009;
    for (const x of [-1, 1])
      for (const y of [-1, 1])
        weave.add(
          timber(
            x < 0 ? -w + t : w - t - 0.02,
            y < 0 ? -d + t : d - t - 0.02,
            0.006,
            x < 0 ? -w + t + 0.02 : w - t,
            y < 0 ? -d + t + 0.02 : d - t,
            rim - 0.004,
          ),
        );
    const n = Math.max(2, Math.round(rim / 0.09));
    for (let i = 0; i < n; i++) {
      const [a, b] = [(rim * i) / n + 0.004, (rim * (i + 1)) / n - 0.008];
      for (const y of [-1, 1]) weave.add(timber(-w, y < 0 ? -d : d - t, a, w, y < 0 ? -d + t : d, b));
      for (const x of [-1, 1]) weave.add(timber(x < 0 ? -w + 0.0004 : w - t, -d + t, a + 0.0004, x < 0 ? -w + t : w - 0.0004, d - t, b - 0.0004));
    }
    weave.add(timber(-w + t, -d + t, 0, w - t, d - t, t));
  } else {
    const coils = cuts(Math.max(6, Math.round(rim / 0.017)), 4);
    const n = cuts(isFine() ? 56 : 36, 14);
    const oblong = form === 'oblong';
    const ring = (k: number, zz: number): Vec3[] =>
      oblong
        ? roundRectangle(2 * w * k, 2 * (d - Math.min(w, d) * (1 - k)), Math.min(w, d) * 0.45, cuts(6, 2)).map((p) => ({ ...p, z: zz }))
        : Array.from({ length: n }, (_, i) => v3(w * k * Math.cos((2 * Math.PI * i) / n), d * k * Math.sin((2 * Math.PI * i) / n), zz));
    const rings: Vec3[][] = [ring(0.77, 0), ring(0.8, 0.002)];
    const h = rim / coils / 2;
    for (let i = 0; i < coils; i++) {
      const t = (i + 0.5) / coils;
      const k = form === 'bin' ? 0.86 + 0.13 * t : 0.84 + 0.16 * Math.sin((Math.PI / 2) * Math.min(1, t * 1.35)) - 0.03 * t ** 3;
      for (const a of isLight() ? [0] : [-0.95, -0.35, 0.35, 0.95])
        rings.push(ring(Math.min(1, k - (h / Math.min(w, d)) * 1.4 * (1 - Math.cos(a))), rim * t + h * Math.sin(a) * 1.05));
    }
    rings.push(ring(0.9, rim - 0.002), ring(0.86, rim - 0.008), ring(0.76, 0.014));
    const m = rings[0].length;
    const points = rings.flat();
    const faces: number[][] = [];
    for (let a = 0; a + 1 < rings.length; a++)
      for (let i = 0; i < m; i++) faces.push([a * m + i, a * m + ((i + 1) % m), (a + 1) * m + ((i + 1) % m), (a + 1) * m + i]);
    for (const [k, up] of [
      [0, false],
      [rings.length - 1, true],
    ] as const) {
      const middle = points.length;
      points.push(v3(0, 0, rings[k][0].z));
      for (let i = 0; i < m; i++) faces.push(up ? [middle, k * m + i, k * m + ((i + 1) % m)] : [middle, k * m + ((i + 1) % m), k * m + i]);
    }
    weave.add(skin(points, faces, 1.35));
    if (handles && form !== 'bin')
      for (const s of [-1, 1]) {
        const lift = form === 'round' ? height * 0.08 : 0;
        weave.add(
          rod(
            curve(
              [
                v3(s * w * 0.96, -0.07, rim - 0.03),
                v3(s * (w + 0.003), -0.05, rim - 0.01 + lift * 0.7),
                v3(s * (w + 0.003), 0, rim - 0.008 + lift),
                v3(s * (w + 0.003), 0.05, rim - 0.01 + lift * 0.7),
                v3(s * w * 0.96, 0.07, rim - 0.03),
              ],
              cuts(4, 1),
            ),
            0.006,
            { section: 8 },
          ),
        );
      }
  }
  if (filling === 'blankets') {
    cloth.add(
      cushion({
        width: w * 1.5,
        depth: d * 1.45,
        thick: height - rim * 0.78,
        crown: 0.012,
        corner: Math.min(w, d) * 0.4,
        swell: [0.004, 0.004, 0.004, 0.004],
        piping: false,
        seed: 2,
      }),
      shiftBy(0, 0, rim * 0.72),
    );
  } else if (filling === 'toys') {
    const random = randomFrom(8);
    for (let i = 0; i < 9; i++) {
      const a = i * 2.39996;
      const q = 0.62 * Math.sqrt(i / 9);
      const s = Math.min(w, d) * 0.36;
      things.add(
        i % 3 ? board(-s / 2, -s / 2, 0, s / 2, s / 2, s, 0.004) : fruit('lemons', s * 0.6),
        about(i % 2 ? 'x' : 'y', random() * 1.2, q * w * Math.cos(a), q * d * Math.sin(a), Math.max(0.02, rim - s * 1.2 + s * 0.3 * random())),
      );
    }
  }
  const mesh = things.build();
  for (let k = 2; k < mesh.positions.length; k += 3) mesh.positions[k] = Math.min(height, mesh.positions[k]);
  return [
    { part: 'basket', mesh: weave.build() },
    { part: 'blankets', mesh: cloth.build() },
    { part: 'toys', mesh },
  ];
}

const bootTraits = z.object({ kind: choice('Kind', ['boots', 'shoes', 'slippers'], 'boots'), pairs: count('Pairs', { min: 1, max: 6, first: 1 }) });

/** A boot from its sole up: rings of a foot, then of a leg. */
function footwear(kind: 'boots' | 'shoes' | 'slippers', long: number, high: number, left: boolean): { upper: Mesh; sole: Mesh } {
  const n = cuts(isFine() ? 28 : 18, 10);
  const wide = long * 0.36;
  const foot = (k: number, zz: number, from = 0, to = 1): Vec3[] =>
    Array.from({ length: n }, (_, i) => {
      const a = (2 * Math.PI * i) / n;
      const t = (1 - Math.cos(a)) / 2;
      const u = from + (to - from) * t;
      // Narrow at the waist, broad at the ball; the toe turns inwards a little.
      const half = (wide / 2) * (0.78 + 0.3 * Math.sin(Math.PI * (0.15 + 0.75 * u)) - 0.16 * Math.exp(-(((u - 0.36) / 0.14) ** 2))) * k;
      return v3(-half * Math.sin(a) + (left ? 1 : -1) * 0.012 * u * u, long / 2 - u * long * (0.94 + 0.06 * k), zz);
    });
  const sole = loft([foot(0.94, 0), foot(1, 0.003), foot(1, 0.02), foot(0.97, 0.023)], { crease: 1.6 });
  const upper: Vec3[][] = [foot(0.93, 0.022), foot(0.97, 0.035)];
  if (kind === 'boots') {
    upper.push(
      foot(0.95, 0.06),
      foot(0.84, 0.09, 0, 0.82),
      foot(0.8, 0.12, 0, 0.56),
      foot(0.84, 0.16, 0, 0.47),
      foot(0.9, high * 0.7, 0, 0.47),
      foot(1, high * 0.97, 0, 0.5),
      foot(1.01, high, 0, 0.5),
      foot(0.97, high - 0.004, 0.004, 0.49),
      foot(0.84, 0.16, 0.01, 0.45),
    );
  } else {
    const h = kind === 'shoes' ? 0.075 : 0.06;
    upper.push(foot(0.92, h * 0.7), foot(0.82, h, 0, 0.72), foot(0.72, h + 0.006, 0.02, 0.56), foot(0.64, h, 0.04, 0.52), foot(0.7, 0.032, 0.04, 0.56));
  }
  return { upper: loft(upper, { crease: 1.5 }), sole };
}

function boots({ width, depth, height }: PieceSize, { kind, pairs }: z.output<typeof bootTraits>): Made[] {
  const uppers = new MeshBuilder();
  const soles = new MeshBuilder();
  const each = width / pairs;
  for (let i = 0; i < pairs; i++)
    for (const s of [-1, 1]) {
      const { upper, sole } = footwear(kind, depth * 0.96, 0.36, s < 0);
      const narrow = Math.min(1, (each * 0.47) / (depth * 0.96 * 0.4));
      const m = stretched(narrow, 1, kind === 'boots' ? height / 0.36 : Math.min(1, height / 0.085), -width / 2 + each * (i + 0.5) + s * each * 0.235, 0, 0);
      uppers.add(upper, m);
      soles.add(sole, m);
    }
  return [
    { part: 'upper', mesh: uppers.build() },
    { part: 'sole', mesh: soles.build() },
  ];
}

const toolTraits = z.object({ set: choice('Tools', ['bench tools', 'bookbinder', 'gardener', 'toolbox'], 'bench tools') });

function tools({ width, depth, height }: PieceSize, { set }: z.output<typeof toolTraits>): Made[] {
  const wood = new MeshBuilder();
  const steel = new MeshBuilder();
  const other = new MeshBuilder();
  const [w, d] = [width / 2, depth / 2];
  const handle = (long: number, r: number): Mesh =>
    turned(
      [
        [0, 0],
        [r * 0.8, 0],
        [r, long * 0.2],
        [r * 0.78, long * 0.55],
        [r * 0.95, long * 0.85],
        [r * 0.6, long],
        [0, long],
      ],
      { segments: 16, round: 0.002 },
    );
  const lay = (x: number, y: number, turn: number, up: number) => [
    Math.cos(turn),
    Math.sin(turn),
    0,
    0,
    0,
    0,
    1,
    0,
    Math.sin(turn),
    -Math.cos(turn),
    0,
    0,
    x,
    y,
    up,
    1,
  ];
  if (set === 'toolbox') {
    const t = 0.01;
    for (const y of [-1, 1]) other.add(board(-w, y < 0 ? -d : d - t, 0, w, y < 0 ? -d + t : d, height * 0.55));
    for (const x of [-1, 1])
      other
        .add(board(x < 0 ? -w + 0.0005 : w - t, -d + t, 0, x < 0 ? -w + t : w - 0.0005, d - t, height * 0.62))
        .add(bar(v3(x * (w - t), 0, height * 0.5), v3(x * (w - t), 0, height - 0.012), 0.014, 0.012, { flat: 0.4, up: v3(0, 1, 0) }));
    other.add(board(-w + t, -d + t, 0.003, w - t, d - t, 0.012));
    wood.add(bar(v3(-w + 0.004, 0, height - 0.018), v3(w - 0.004, 0, height - 0.018), 0.0145));
    for (const [x, y] of [
      [-w * 0.5, -d * 0.4],
      [-w * 0.1, d * 0.4],
      [w * 0.35, -d * 0.35],
    ]) {
      wood.add(handle(height * 0.4, 0.013), shiftBy(x, y, height * 0.38));
      steel.add(bar(v3(x, y, 0.02), v3(x, y, height * 0.4), 0.004));
    }
  } else if (set === 'bookbinder') {
    // A press of two boards and two screws, a bone folder, a hammer, thread.
    const pw = Math.min(w * 1.1, 0.2);
    const ph = Math.min(height, 0.22);
    const x = -w + pw / 1;
    for (const zz of [0, ph * 0.42]) wood.add(timber(x - pw, -d * 0.75, zz, x + pw * 0.98, d * 0.75, zz + 0.03));
    other.add(board(x - pw * 0.6, -d * 0.6, 0.031, x + pw * 0.6, d * 0.6, ph * 0.42 - 0.0006, 0.002));
    for (const k of [-0.8, 0.78])
      steel
        .add(post(x + pw * k, 0, 0.02, ph * 0.86, 0.009))
        .add(bar(v3(x + pw * k - 0.035, 0, ph * 0.86), v3(x + pw * k + 0.035, 0, ph * 0.86), 0.006))
        .add(post(x + pw * k, 0, ph * 0.42 + 0.03, ph * 0.42 + 0.045, 0.02));
    other.add(slab(roundRectangle(0.15, 0.02, 0.009), 0, 0.004, 0.0018), about('z', 0.5, w - 0.1, -d * 0.4, 0));
    wood.add(handle(0.14, 0.011), lay(w - 0.03, d * 0.2, 2.6, 0.012));
    other.add(
      turned(
        [
          [0, 0],
          [0.02, 0],
          [0.02, 0.005],
          [0.012, 0.008],
          [0.012, 0.045],
          [0.02, 0.048],
          [0.02, 0.053],
          [0, 0.053],
        ],
        { x: w - 0.06, y: d * 0.6, segments: 20 },
      ),
    );
  } else if (set === 'gardener') {
    const fork = (x: number): void => {
      wood.add(handle(0.12, 0.013), lay(x, d - 0.005, 0, 0.016));
      steel.add(rod([v3(x, d - 0.12, 0.016), v3(x, d - 0.18, 0.02)], 0.005));
      for (const k of [-0.02, 0, 0.02])
        steel.add(
          rod([v3(x + k * 0.5, d - 0.178, 0.02), v3(x + k, d - 0.2, 0.018), v3(x + k, -d + 0.01, 0.008)], (t) => 0.003 * (1 - 0.6 * t), { section: 6 }),
        );
    };
    fork(-w * 0.55);
    wood.add(handle(0.12, 0.013), lay(0, d - 0.005, 0, 0.016));
    steel
      .add(rod([v3(0, d - 0.12, 0.016), v3(0, d - 0.17, 0.02)], 0.005))
      .add(blade(v3(0, d - 0.165, 0.018), { x: 0, y: -1, z: -0.05 }, { length: depth - 0.18, width: 0.07, outline: 'spoon', fold: 0.45, droop: 0.1 }));
    other.add(
      turned(
        vessel(
          [
            [0.024, 0],
            [0.036, height * 0.7],
            [0.034, height],
          ],
          0.002,
        ),
        { x: w * 0.6, y: 0, segments: 24 },
      ),
    );
  } else {
    // Hammer, saw, plane, square, chisels side by side.
    wood.add(handle(Math.min(0.26, depth * 0.8), 0.014), lay(-w + 0.05, d - 0.01, 0, 0.018));
    steel.add(bar(v3(-w + 0.005, -d + 0.05, 0.02), v3(-w + 0.11, -d + 0.05, 0.02), 0.013, 0.011, { section: 12 }));
    const px = -w + 0.19;
    wood
      .add(slab(roundRectangle(0.062, Math.min(0.24, depth * 0.8), 0.012), 0, Math.min(0.045, height * 0.5), 0.004), shiftBy(px, 0, 0))
      .add(rod(curve([v3(px, d * 0.35, 0.03), v3(px, d * 0.5, Math.min(0.1, height * 0.8)), v3(px, d * 0.3, Math.min(0.11, height * 0.9))], cuts(5, 2)), 0.012))
      .add(post(px, -d * 0.4, 0.03, Math.min(0.085, height * 0.8), 0.013, 0.017));
    steel.add(board(px - 0.021, d * 0.02, 0.02, px + 0.021, d * 0.02 + 0.004, Math.min(0.1, height * 0.8), 0.0008));
    const n = Math.max(1, Math.floor((2 * w - 0.32) / 0.045));
    for (let i = 0; i < n; i++) {
      const x = -w + 0.28 + i * 0.045;
      wood.add(handle(0.11, 0.0125), lay(x, d - 0.01, 0, 0.014));
      steel.add(board(x - 0.004 - 0.002 * i, -d + 0.03, 0.012, x + 0.004 + 0.002 * i, d - 0.118, 0.016, 0.0006));
    }
  }
  return [
    { part: 'wood', mesh: wood.build() },
    { part: 'steel', mesh: steel.build() },
    { part: 'other', mesh: other.build() },
  ];
}

const lying = ({ width, depth }: PieceSize) => [outline(rectangle(width, depth))];
const round = ({ width, depth }: PieceSize) => [ellipseLine(width, depth)];

export const things: StockItem[] = [
  maker({
    id: 'books',
    name: 'Books',
    category: 'Books & things',
    traits: bookTraits,
    size: { width: 0.4, depth: 0.2, height: 0.28 },
    min: { width: 0.08, depth: 0.12, height: 0.02 },
    max: { width: 1.6, depth: 0.5, height: 0.4 },
    mount: 'top',
    foot: 0.8,
    parts: { ...BOUND },
    words: 'read shelf',
    sold: { supplier: 'Marren Market Hall', price: 60 },
    cards: [
      { id: 'books', name: 'Row of books' },
      { id: 'books-stacked', name: 'Stack of books', size: { width: 0.3, depth: 0.23, height: 0.14 }, traits: { lie: 'stacked', seed: 3 } },
      { id: 'book-open', name: 'Open book', size: { width: 0.36, depth: 0.25, height: 0.03 }, traits: { lie: 'open' } },
    ],
    make: books,
    symbol: lying,
  }),
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
        finishes: { vase: 'tile.glazed-ink' },
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
        finishes: { petals: 'cloth.white-linen', vase: 'tile.glazed-honey' },
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
        finishes: { bowl: 'timber.walnut' },
        words: 'fruit',
      },
      {
        id: 'bowl-lemons',
        name: 'Dish of lemons',
        size: { width: 0.34, depth: 0.34, height: 0.14 },
        traits: { form: 'dish', filling: 'lemons' },
        finishes: { food: 'sheet.lacquer-cream' },
        words: 'fruit',
      },
      {
        id: 'bowl-pears',
        name: 'Footed bowl of pears',
        size: { width: 0.28, depth: 0.28, height: 0.26 },
        traits: { form: 'footed', filling: 'pears' },
        finishes: { food: 'cloth.boucle-olive' },
        words: 'fruit',
      },
      {
        id: 'bread',
        name: 'Bread on a board',
        size: { width: 0.42, depth: 0.26, height: 0.12 },
        traits: { form: 'tray', filling: 'bread' },
        finishes: { bowl: 'timber.oak', food: 'cloth.tan-hide' },
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
  maker({
    id: 'toys',
    name: 'Toys',
    category: 'Books & things',
    traits: toyTraits,
    size: { width: 0.3, depth: 0.2, height: 0.15 },
    min: { width: 0.12, depth: 0.08, height: 0.08 },
    max: { width: 0.9, depth: 0.6, height: 0.5 },
    mount: 'floor',
    parts: { first: 'timber.beech', second: 'sheet.lacquer-red', third: 'sheet.lacquer-petrol' },
    words: 'children play',
    sold: { supplier: 'Marren Market Hall', price: 32 },
    cards: [
      { id: 'toys', name: 'Building blocks' },
      { id: 'toy-train', name: 'Toy train', size: { width: 0.5, depth: 0.09, height: 0.12 }, traits: { kind: 'train' } },
      { id: 'toy-rings', name: 'Stacking rings', size: { width: 0.14, depth: 0.14, height: 0.22 }, traits: { kind: 'rings' } },
      { id: 'toy-boat', name: 'Toy boat', size: { width: 0.3, depth: 0.1, height: 0.28 }, traits: { kind: 'boat' }, finishes: { third: 'cloth.white-linen' } },
      { id: 'toy-balls', name: 'Balls', size: { width: 0.4, depth: 0.3, height: 0.16 }, traits: { kind: 'balls' } },
    ],
    make: toys,
    symbol: lying,
  }),
  maker({
    id: 'basket',
    name: 'Basket',
    category: 'Books & things',
    traits: basketTraits,
    size: { width: 0.42, depth: 0.4, height: 0.36 },
    min: { width: 0.18, depth: 0.16, height: 0.12 },
    max: { width: 0.9, depth: 0.7, height: 0.8 },
    mount: 'floor',
    parts: { basket: 'carpet.seagrass', blankets: 'cloth.basket-cream', toys: 'sheet.lacquer-red' },
    words: 'storage laundry crate',
    sold: { supplier: 'Marren Market Hall', price: 46 },
    cards: [
      { id: 'basket', name: 'Basket' },
      { id: 'basket-blankets', name: 'Basket of blankets', size: { width: 0.48, depth: 0.46, height: 0.46 }, traits: { filling: 'blankets' } },
      {
        id: 'basket-oblong',
        name: 'Shelf basket',
        size: { width: 0.36, depth: 0.26, height: 0.2 },
        traits: { form: 'oblong' },
        finishes: { basket: 'carpet.jute' },
      },
      {
        id: 'basket-laundry',
        name: 'Laundry basket',
        size: { width: 0.4, depth: 0.4, height: 0.6 },
        traits: { form: 'bin' },
        finishes: { basket: 'carpet.sisal' },
      },
      { id: 'basket-toys', name: 'Basket of toys', size: { width: 0.46, depth: 0.36, height: 0.36 }, traits: { form: 'oblong', filling: 'toys' } },
      {
        id: 'crate',
        name: 'Crate',
        size: { width: 0.46, depth: 0.32, height: 0.28 },
        traits: { form: 'crate', handles: false },
        finishes: { basket: 'timber.pine' },
      },
      {
        id: 'waste-bin',
        name: 'Paper bin',
        size: { width: 0.28, depth: 0.28, height: 0.32 },
        traits: { form: 'bin' },
        finishes: { basket: 'cloth.ink-linen' },
      },
    ],
    make: basket,
    symbol: round,
  }),
  maker({
    id: 'boots',
    name: 'Boots',
    category: 'Books & things',
    traits: bootTraits,
    size: { width: 0.24, depth: 0.3, height: 0.36 },
    min: { width: 0.16, depth: 0.2, height: 0.08 },
    max: { width: 1.6, depth: 0.34, height: 0.46 },
    mount: 'floor',
    parts: { upper: 'cloth.black-hide', sole: 'cloth.tan-hide' },
    words: 'shoes wellingtons porch hall',
    sold: { supplier: 'Marren Market Hall', price: 90 },
    cards: [
      { id: 'boots', name: 'Boots' },
      {
        id: 'boots-pairs',
        name: 'Boots of the house',
        size: { width: 0.76, depth: 0.3, height: 0.34 },
        traits: { pairs: 3 },
        finishes: { upper: 'metal.enamel-green' },
      },
      { id: 'shoes', name: 'Shoes', size: { width: 0.24, depth: 0.29, height: 0.1 }, traits: { kind: 'shoes' }, finishes: { upper: 'cloth.oxblood-hide' } },
    ],
    make: boots,
    symbol: ({ width, depth }, { pairs }) =>
      Array.from({ length: pairs * 2 }, (_, i) => outline(rectangle((width / pairs) * 0.38, depth, -width / 2 + (width / (pairs * 2)) * (i + 0.5), 0))),
  }),
  maker({
    id: 'tools',
    name: 'Tools',
    category: 'Books & things',
    traits: toolTraits,
    size: { width: 0.5, depth: 0.3, height: 0.12 },
    min: { width: 0.36, depth: 0.2, height: 0.08 },
    max: { width: 0.9, depth: 0.4, height: 0.4 },
    mount: 'top',
    foot: 0.9,
    parts: { wood: 'timber.beech', steel: 'metal.steel-brushed', other: 'paper.cream' },
    words: 'workshop bench hammer press',
    sold: { supplier: 'Brake Forge', price: 140 },
    cards: [
      { id: 'tools', name: 'Bench tools' },
      { id: 'tools-binder', name: 'Bookbinder’s tools', size: { width: 0.7, depth: 0.32, height: 0.22 }, traits: { set: 'bookbinder' }, words: 'press' },
      {
        id: 'tools-garden',
        name: 'Garden hand tools',
        size: { width: 0.4, depth: 0.34, height: 0.1 },
        traits: { set: 'gardener' },
        finishes: { other: 'clay.pot' },
      },
      { id: 'toolbox', name: 'Tool box', size: { width: 0.5, depth: 0.24, height: 0.3 }, traits: { set: 'toolbox' }, finishes: { other: 'timber.pine' } },
    ],
    make: tools,
    symbol: lying,
  }),
];
