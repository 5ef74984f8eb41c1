import { z } from 'zod';
import { MeshBuilder, type Mesh } from '../../geometry/mesh';
import { isLight, roundedBox } from '../../geometry/shapes';
import type { Joint } from '../../geometry/joint';
import { board } from '../forms/boards';
import { roseOn } from '../forms/sanitary';
import { curve, loop, rod } from '../forms/skin';
import { turned, type Turn } from '../forms/turned';
import { choice, count, toggle } from '../traits';
import { circle, maker, outline, rectangle, rounded, stroke, v3, type Made, type PieceSize, type StockItem } from '../types';

const cabinetTraits = z.object({ doors: count('Doors', { min: 1, max: 3, first: 2 }), shelves: count('Shelves', { min: 1, max: 5, first: 2 }) });

/** Thickness of the boards of a mirror cabinet, and of its doors, metres. */
const BOARD = 0.012;
const DOOR = 0.018;

/** A cabinet whose doors are mirrors: a case with glass shelves, each door silvered outside. */
function mirrorCabinet({ width, depth, height }: PieceSize, { doors, shelves }: z.output<typeof cabinetTraits>): Made[] {
  const [w, d] = [width / 2, depth / 2];
  const front = -d + DOOR;
  const box = new MeshBuilder()
    .add(board(-w, front, 0, -w + BOARD, d, height))
    .add(board(w - BOARD, front, 0, w, d, height))
    .add(board(-w + BOARD + 0.0002, front, 0, w - BOARD - 0.0002, d, BOARD))
    .add(board(-w + BOARD + 0.0002, front, height - BOARD, w - BOARD - 0.0002, d, height))
    .add(board(-w + BOARD + 0.0002, d - 0.008, BOARD + 0.0002, w - BOARD - 0.0002, d - 0.0004, height - BOARD - 0.0002));
  const glass = new MeshBuilder();
  for (let k = 1; k <= shelves; k++) {
    const z = BOARD + ((height - 2 * BOARD) * k) / (shelves + 1);
    glass.add(board(-w + BOARD + 0.001, front + 0.012, z - 0.003, w - BOARD - 0.001, d - 0.009, z + 0.003));
  }
  const parts: Made[] = [
    { part: 'box', mesh: box.build() },
    { part: 'shelves', mesh: glass.build() },
  ];
  const each = width / doors;
  for (let k = 0; k < doors; k++) {
    const [x0, x1] = [-w + k * each + 0.001, -w + (k + 1) * each - 0.001];
    const left = k < doors / 2;
    const joint: Joint = {
      kind: 'hinge',
      at: { x: left ? x0 : x1, y: front, z: 0 },
      axis: { x: 0, y: 0, z: left ? -1 : 1 },
      range: [0, (105 * Math.PI) / 180],
    };
    parts.push({ part: 'fronts', mesh: board(x0, -d + 0.005, 0.001, x1, front - 0.0006, height - 0.001), joint });
    parts.push({ part: 'mirror', mesh: board(x0, -d, 0.001, x1, -d + 0.0046, height - 0.001), joint });
  }
  return parts;
}

const railTraits = z.object({
  form: choice(
    'Form',
    ['towel rail', 'two rails', 'towel ring', 'paper holder', 'spare rolls', 'hooks', 'soap dish', 'tumbler', 'brush', 'shelf'],
    'towel rail',
  ),
  bare: toggle('Without towel or paper', true),
});

/** Something that is held off the wall: a rose, and an arm straight out. */
function arm(out: MeshBuilder, x: number, y: number, z: number, reach: number, r = 0.007): void {
  out.add(roseOn(x, y, z, 0.022, 0.008)).add(rod([v3(x, y - 0.005, z), v3(x, y - reach, z)], r, { section: 14 }));
}

/** A bar from end to end that stands off the wall on two arms. */
function barOn(out: MeshBuilder, x0: number, x1: number, y: number, z: number, reach: number, r = 0.009): void {
  for (const x of [x0 + 0.03, x1 - 0.03]) arm(out, x, y, z, reach);
  out.add(rod([v3(x0 + 0.012, y - reach, z), v3(x1 - 0.012, y - reach, z)], r, { section: 18 }));
}

const lifted = (profile: Turn[], x: number, y: number, z: number): Mesh =>
  new MeshBuilder().add(turned(profile, { x, y, segments: 26, round: 0.001 }), [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, z, 1]).build();

/** A roll of paper about a rod along x. */
function roll(x: number, y: number, z: number): Mesh {
  const r = 0.052;
  const core = 0.02;
  const profile: Turn[] = [
    [core, 0],
    [r, 0],
    [r, 0.1],
    [core, 0.1],
    [core, 0],
  ];
  // Turned upright, then laid along x.
  return new MeshBuilder().add(turned(profile, { segments: 32, round: 0.002 }), [0, 1, 0, 0, 0, 0, 1, 0, 1, 0, 0, 0, x - 0.05, y, z, 1]).build();
}

function bathroomFitting({ width, depth, height }: PieceSize, { form, bare }: z.output<typeof railTraits>): Made[] {
  const [w, y] = [width / 2, depth / 2];
  const metal = new MeshBuilder();
  const ware = new MeshBuilder();
  const soft = new MeshBuilder();
  const reach = Math.max(0.04, Math.min(0.075, depth - 0.02));
  const towel = (x0: number, x1: number, at: number, z: number, long: number): void => {
    const line = curve(
      [v3(0, at + 0.014, z - long * 0.8), v3(0, at + 0.013, z - 0.02), v3(0, at, z + 0.0135), v3(0, at - 0.013, z - 0.02), v3(0, at - 0.015, z - long)],
      isLight() ? 2 : 6,
    );
    const points = line.map((p) => ({ ...p, x: (x0 + x1) / 2 }));
    soft.add(
      rod(points, 0.0035, {
        section: [v3((x1 - x0) / 0.007, 1, 0), v3(-(x1 - x0) / 0.007, 1, 0), v3(-(x1 - x0) / 0.007, -1, 0), v3((x1 - x0) / 0.007, -1, 0)],
        up: v3(0, 1, 0),
      }),
    );
  };
  switch (form) {
    case 'towel rail':
      barOn(metal, -w, w, y, height - 0.03, reach);
      if (!bare) towel(-w * 0.55, w * 0.55, y - reach, height - 0.03, Math.max(0.05, height - 0.06));
      break;
    case 'two rails':
      barOn(metal, -w, w, y, height - 0.03, reach);
      barOn(metal, -w, w, y, height * 0.4, Math.min(depth - 0.015, reach + 0.05));
      break;
    case 'towel ring': {
      const r = Math.min(0.09, w - 0.02, (height - 0.05) / 2);
      const z = height - 0.03;
      arm(metal, 0, y, z, 0.035);
      metal.add(
        loop(
          Array.from({ length: isLight() ? 14 : 36 }, (_, k) =>
            v3(r * Math.sin((2 * Math.PI * k) / (isLight() ? 14 : 36)), y - 0.04, z - r + r * Math.cos((2 * Math.PI * k) / (isLight() ? 14 : 36))),
          ),
          0.0055,
          10,
        ),
      );
      break;
    }
    case 'paper holder': {
      const z = height - 0.03;
      arm(metal, -0.066, y, z, reach);
      metal.add(rod([v3(-0.066, y - reach, z), v3(0.06, y - reach, z)], 0.008, { section: 16 }));
      if (!bare) soft.add(roll(0, y - reach, z - 0.011));
      break;
    }
    case 'spare rolls': {
      metal.add(rod([v3(0, y - 0.06, 0.01), v3(0, y - 0.06, height - 0.01)], 0.007, { section: 14 }));
      for (const z of [0.03, height - 0.05]) arm(metal, 0, y, z, 0.062);
      metal.add(
        lifted(
          [
            [0, 0],
            [0.04, 0],
            [0.04, 0.004],
            [0, 0.005],
          ],
          0,
          y - 0.06,
          0.004,
        ),
      );
      break;
    }
    case 'hooks': {
      const n = Math.max(1, Math.round(width / 0.12));
      if (n > 1) metal.add(roundedBox(v3(-w, y - 0.01, height - 0.06), v3(w, y - 0.0004, height - 0.02), { radius: 0.003, steps: 3 }));
      for (let k = 0; k < n; k++) {
        const x = -w + (width * (k + 0.5)) / n;
        if (n === 1) metal.add(roseOn(x, y, height - 0.03, 0.028, 0.008));
        metal.add(
          rod(
            curve(
              [v3(x, y - 0.006, height - 0.035), v3(x, y - 0.045, height - 0.04), v3(x, y - 0.055, height - 0.02), v3(x, y - 0.052, height - 0.006)],
              isLight() ? 2 : 5,
            ),
            (t) => 0.0055 + 0.0025 * t,
            { section: 14 },
          ),
        );
      }
      break;
    }
    case 'soap dish': {
      const at = y - Math.min(0.085, depth - 0.05);
      arm(metal, 0, y, 0.03, 0.05);
      metal.add(
        loop(
          Array.from({ length: isLight() ? 12 : 32 }, (_, k) =>
            v3(0.058 * Math.sin((2 * Math.PI * k) / (isLight() ? 12 : 32)), at + 0.045 * Math.cos((2 * Math.PI * k) / (isLight() ? 12 : 32)), 0.03),
          ),
          0.004,
          8,
        ),
      );
      ware.add(
        lifted(
          [
            [0, 0],
            [0.03, 0],
            [0.052, 0.012],
            [0.056, 0.02],
            [0.05, 0.019],
            [0.03, 0.008],
            [0, 0.008],
          ],
          0,
          at,
          0.022,
        ),
      );
      break;
    }
    case 'tumbler':
      arm(metal, 0, y, height * 0.5, 0.045);
      metal.add(
        loop(
          Array.from({ length: isLight() ? 12 : 28 }, (_, k) =>
            v3(
              0.039 * Math.sin((2 * Math.PI * k) / (isLight() ? 12 : 28)),
              y - 0.078 + 0.039 * Math.cos((2 * Math.PI * k) / (isLight() ? 12 : 28)),
              height * 0.5,
            ),
          ),
          0.004,
          8,
        ),
      );
      ware.add(
        lifted(
          [
            [0, 0],
            [0.03, 0],
            [0.0355, Math.max(0.06, height - 0.02)],
            [0.033, Math.max(0.06, height - 0.02)],
            [0.0275, 0.006],
            [0, 0.006],
          ],
          0,
          y - 0.078,
          0.004,
        ),
      );
      break;
    case 'brush': {
      arm(metal, 0, y, 0.16, 0.045);
      metal.add(rod([v3(0, y - 0.078, 0.12), v3(0, y - 0.078, Math.max(0.2, height - 0.03))], 0.006, { section: 14 })).add(
        lifted(
          [
            [0, 0],
            [0.012, 0.002],
            [0.016, 0.012],
            [0.01, 0.024],
            [0, 0.026],
          ],
          0,
          y - 0.078,
          Math.max(0.18, height - 0.035),
        ),
      );
      ware.add(
        lifted(
          [
            [0, 0],
            [0.04, 0],
            [0.045, 0.15],
            [0.041, 0.15],
            [0.037, 0.008],
            [0, 0.008],
          ],
          0,
          y - 0.078,
          0.01,
        ),
      );
      metal.add(
        loop(
          Array.from({ length: isLight() ? 12 : 28 }, (_, k) =>
            v3(0.047 * Math.sin((2 * Math.PI * k) / (isLight() ? 12 : 28)), y - 0.078 + 0.047 * Math.cos((2 * Math.PI * k) / (isLight() ? 12 : 28)), 0.13),
          ),
          0.004,
          8,
        ),
      );
      break;
    }
    case 'shelf':
      for (const x of [-w + 0.06, w - 0.06]) arm(metal, x, y, 0.02, Math.max(0.06, depth - 0.03));
      ware.add(board(-w, -y + 0.004, 0.0275, w, y - 0.012, 0.0355, 0.002));
      metal.add(rod([v3(-w + 0.012, -y + 0.014, 0.062), v3(w - 0.012, -y + 0.014, 0.062)], 0.004, { section: 12 }));
      for (const x of [-w + 0.02, w - 0.02]) metal.add(rod([v3(x, -y + 0.014, 0.03), v3(x, -y + 0.014, 0.064)], 0.004, { section: 12 }));
      break;
  }
  return [
    { part: 'metal', mesh: metal.build() },
    { part: 'ware', mesh: ware.build() },
    { part: 'soft', mesh: soft.build() },
  ].filter((p) => p.mesh.indices.length);
}

const grabTraits = z.object({ form: choice('Form', ['straight', 'upright', 'angled', 'drop down'], 'straight') });

/** How thick rails one holds on to are, and how far they stand off the wall, metres: a hand goes round them. */
const GRIP = 0.016;
const OFF = 0.055;

function grabRail({ width, depth, height }: PieceSize, { form: asked }: z.output<typeof grabTraits>): Made[] {
  // What drops down is as long as an arm.
  const form = asked === 'drop down' && depth < 0.4 ? 'straight' : asked;
  const [w, y] = [width / 2, depth / 2];
  const out = new MeshBuilder();
  const off = y - Math.max(0.04, Math.min(OFF, depth - GRIP));
  const bent = (points: ReturnType<typeof v3>[]): void => void out.add(rod(curve(points, isLight() ? 2 : 4), GRIP, { section: 20 }));
  const foot = (x: number, z: number): void => void out.add(roseOn(x, y, z, 0.036, 0.006));
  if (form === 'straight') {
    const z = height / 2;
    bent([
      v3(-w + 0.036, y - 0.002, z),
      v3(-w + 0.037, off + 0.016, z),
      v3(-w + 0.056, off, z),
      v3(w - 0.056, off, z),
      v3(w - 0.037, off + 0.016, z),
      v3(w - 0.036, y - 0.002, z),
    ]);
    foot(-w + 0.036, z);
    foot(w - 0.036, z);
  } else if (form === 'upright') {
    bent([
      v3(0, y - 0.002, 0.036),
      v3(0, off + 0.016, 0.037),
      v3(0, off, 0.056),
      v3(0, off, height - 0.056),
      v3(0, off + 0.016, height - 0.037),
      v3(0, y - 0.002, height - 0.036),
    ]);
    foot(0, 0.036);
    foot(0, height - 0.036);
  } else if (form === 'angled') {
    bent([
      v3(-w + 0.036, y - 0.002, 0.04),
      v3(-w + 0.037, off + 0.016, 0.04),
      v3(-w + 0.056, off, 0.04),
      v3(-0.03, off, 0.04),
      v3(0.05, off, 0.09),
      v3(w - 0.05, off, height - 0.05),
      v3(w - 0.04, off + 0.016, height - 0.04),
      v3(w - 0.038, y - 0.002, height - 0.038),
    ]);
    foot(-w + 0.036, 0.04);
    foot(w - 0.038, height - 0.038);
  } else {
    // Beside a WC: two bars out from a plate, joined in front, that turn up about it.
    const front = -y + 0.03;
    out.add(roundedBox(v3(-0.05, y - 0.008, 0), v3(0.05, y, Math.min(height, 0.24)), { radius: 0.003, steps: 3 }));
    const [z0, z1] = [0.05, Math.min(height, 0.24) - 0.04];
    const joint: Joint = { kind: 'hinge', at: { x: 0, y: y - 0.03, z: z1 - 0.02 }, axis: { x: -1, y: 0, z: 0 }, range: [0, (86 * Math.PI) / 180] };
    const bar = rod(
      curve(
        [
          v3(0, y - 0.02, z0),
          v3(0, front + 0.12, z0),
          v3(0, front + 0.03, (z0 + z1) / 2 - 0.02),
          v3(0, front + 0.02, z1 - 0.02),
          v3(0, front + 0.06, z1),
          v3(0, y - 0.02, z1),
        ],
        isLight() ? 2 : 5,
      ),
      GRIP,
      { section: 20 },
    );
    return [
      { part: 'rail', mesh: out.build() },
      { part: 'fronts', mesh: bar, joint },
    ];
  }
  return [{ part: 'rail', mesh: out.build() }];
}

/** Slats of a seat between two heights, from side to side. */
function slats({ width, depth }: PieceSize, z0: number, z1: number): Mesh {
  const out = new MeshBuilder();
  const n = Math.max(3, Math.round(depth / 0.06));
  const each = (depth - 0.02) / n;
  for (let k = 0; k < n; k++) out.add(board(-width / 2, -depth / 2 + k * each + 0.004, z0, width / 2, -depth / 2 + (k + 1) * each - 0.004, z1, 0.004));
  return out.build();
}

/** Thickness of the slats of a seat, metres. */
const SEAT = 0.022;

/** A seat on the wall that turns up about its back. */
function showerSeat(size: PieceSize): Made[] {
  const { width, depth, height } = size;
  const [w, d] = [width / 2, depth / 2];
  const joint: Joint = { kind: 'hinge', at: { x: 0, y: d - 0.014, z: height - SEAT / 2 }, axis: { x: -1, y: 0, z: 0 }, range: [0, (88 * Math.PI) / 180] };
  const plates = new MeshBuilder();
  const arms = new MeshBuilder();
  for (const x of [-w + 0.05, w - 0.05]) {
    plates.add(roundedBox(v3(x - 0.022, d - 0.008, 0), v3(x + 0.022, d, height - 0.002), { radius: 0.003, steps: 2 }));
    arms.add(rod([v3(x, d - 0.02, height - SEAT - 0.01), v3(x, -d + 0.03, height - SEAT - 0.01)], 0.0095, { section: 14 }));
    // A stay under it, which folds with it.
    arms.add(rod([v3(x, d - 0.014, height * 0.2), v3(x, -d + depth * 0.4, height - SEAT - 0.012)], 0.008, { section: 14 }));
  }
  return [
    { part: 'metal', mesh: plates.build() },
    { part: 'fronts', mesh: slats(size, height - SEAT, height), joint },
    { part: 'arms', mesh: arms.build(), joint },
  ];
}

function stool(size: PieceSize): Made[] {
  const { width, depth, height } = size;
  const [w, d] = [width / 2, depth / 2];
  const metal = new MeshBuilder();
  for (const sx of [-1, 1]) {
    for (const sy of [-1, 1])
      metal.add(rod([v3(sx * (w - 0.03), sy * (d - 0.04), height - SEAT - 0.002), v3(sx * (w - 0.012), sy * (d - 0.02), 0.004)], 0.012, { section: 16 }));
    metal.add(rod([v3(sx * (w - 0.03), -d + 0.03, height - SEAT - 0.012), v3(sx * (w - 0.03), d - 0.03, height - SEAT - 0.012)], 0.011, { section: 14 }));
  }
  return [
    { part: 'seat', mesh: slats(size, height - SEAT, height) },
    { part: 'metal', mesh: metal.build() },
  ];
}

const slatLines = ({ width, depth }: PieceSize) => [
  outline(rounded(width, depth, 0.01)),
  ...[0.25, 0.5, 0.75].map((t) => stroke([-width / 2, -depth / 2 + depth * t], [width / 2, -depth / 2 + depth * t])),
];

export const bathroomThings: StockItem[] = [
  maker({
    id: 'mirror-cabinet',
    name: 'Mirror cabinet',
    category: 'Bathroom',
    traits: cabinetTraits,
    size: { width: 0.8, depth: 0.14, height: 0.7 },
    min: { width: 0.3, depth: 0.1, height: 0.4 },
    max: { width: 1.6, depth: 0.2, height: 1.2 },
    mount: 'wall',
    foot: 1.2,
    cabinet: true,
    parts: { box: 'paint.sluice-white', shelves: 'glass.clear', fronts: 'paint.sluice-white', mirror: 'mirror.silver' },
    words: 'bathroom medicine',
    sold: { supplier: 'Sluice & Penn', price: 280 },
    cards: [
      { id: 'mirror-cabinet', name: 'Mirror cabinet' },
      { id: 'mirror-cabinet-one', name: 'Mirror cabinet, one door', size: { width: 0.45, depth: 0.14, height: 0.7 }, traits: { doors: 1 } },
      { id: 'mirror-cabinet-wide', name: 'Mirror cabinet, three doors', size: { width: 1.2, depth: 0.14, height: 0.7 }, traits: { doors: 3 } },
    ],
    make: mirrorCabinet,
    symbol: ({ width, depth }) => [outline(rectangle(width, depth)), stroke([-width / 2, -depth / 2 + DOOR], [width / 2, -depth / 2 + DOOR])],
  }),
  maker({
    id: 'bathroom-fitting',
    name: 'Rails and holders',
    category: 'Bathroom',
    traits: railTraits,
    size: { width: 0.6, depth: 0.09, height: 0.06 },
    min: { width: 0.1, depth: 0.08, height: 0.05 },
    max: { width: 1, depth: 0.2, height: 0.6 },
    mount: 'wall',
    foot: 1,
    parts: { metal: 'metal.chrome', ware: 'ceramic.white', soft: 'cloth.oat-weave' },
    words: 'bathroom towel toilet paper robe soap tumbler',
    sold: { supplier: 'Sluice & Penn', price: 45 },
    cards: [
      { id: 'towel-bar', name: 'Bathroom towel rail' },
      { id: 'towel-bars', name: 'Two towel rails', size: { width: 0.6, depth: 0.15, height: 0.2 }, traits: { form: 'two rails' } },
      { id: 'towel-bar-hung', name: 'Towel rail with a towel', size: { width: 0.6, depth: 0.1, height: 0.55 }, traits: { bare: false } },
      { id: 'towel-ring', name: 'Towel ring', size: { width: 0.22, depth: 0.08, height: 0.24 }, traits: { form: 'towel ring' } },
      { id: 'paper-holder', name: 'Paper holder', size: { width: 0.16, depth: 0.14, height: 0.1 }, traits: { form: 'paper holder', bare: false } },
      { id: 'paper-spare', name: 'Holder for spare rolls', size: { width: 0.12, depth: 0.12, height: 0.36 }, traits: { form: 'spare rolls' } },
      { id: 'robe-hook', name: 'Robe hook', size: { width: 0.1, depth: 0.08, height: 0.07 }, traits: { form: 'hooks' } },
      { id: 'robe-hooks', name: 'Row of robe hooks', size: { width: 0.48, depth: 0.08, height: 0.07 }, traits: { form: 'hooks' } },
      { id: 'soap-dish', name: 'Soap dish', size: { width: 0.13, depth: 0.15, height: 0.06 }, traits: { form: 'soap dish' } },
      {
        id: 'tumbler',
        name: 'Tumbler in a ring',
        size: { width: 0.1, depth: 0.13, height: 0.11 },
        traits: { form: 'tumbler' },
        finishes: { ware: 'glass.frosted' },
      },
      { id: 'wc-brush', name: 'WC brush', size: { width: 0.11, depth: 0.14, height: 0.4 }, traits: { form: 'brush' }, finishes: { ware: 'glass.frosted' } },
      { id: 'glass-shelf', name: 'Glass shelf', size: { width: 0.6, depth: 0.13, height: 0.07 }, traits: { form: 'shelf' }, finishes: { ware: 'glass.clear' } },
    ],
    make: bathroomFitting,
    symbol: ({ width, depth }, { form }) =>
      form === 'shelf'
        ? [outline(rectangle(width, depth))]
        : form === 'soap dish' || form === 'tumbler' || form === 'brush'
          ? [outline(circle(Math.min(0.05, width / 2, depth / 2), 0, 0, 16))]
          : [stroke([-width / 2, depth / 2], [-width / 2, 0], [width / 2, 0], [width / 2, depth / 2])],
  }),
  maker({
    id: 'grab-rail',
    name: 'Grab rail',
    category: 'Bathroom',
    traits: grabTraits,
    size: { width: 0.6, depth: 0.08, height: 0.08 },
    min: { width: 0.1, depth: 0.07, height: 0.07 },
    max: { width: 1.2, depth: 0.9, height: 1 },
    mount: 'wall',
    foot: 0.7,
    parts: { rail: 'metal.steel-brushed', fronts: 'metal.steel-brushed' },
    words: 'bathroom support wheelchair handrail',
    sold: { supplier: 'Sluice & Penn', price: 60 },
    cards: [
      { id: 'grab-rail', name: 'Grab rail' },
      { id: 'grab-rail-upright', name: 'Grab rail, upright', size: { width: 0.1, depth: 0.08, height: 0.6 }, traits: { form: 'upright' } },
      { id: 'grab-rail-angled', name: 'Grab rail, angled', size: { width: 0.6, depth: 0.08, height: 0.4 }, traits: { form: 'angled' } },
      { id: 'grab-rail-drop', name: 'Drop-down rail', size: { width: 0.12, depth: 0.75, height: 0.26 }, traits: { form: 'drop down' } },
    ],
    make: grabRail,
    symbol: ({ width, depth }, { form }) =>
      form === 'drop down'
        ? [outline(rounded(Math.min(0.034, width), depth, 0.016))]
        : form === 'upright'
          ? [outline(circle(0.018, 0, 0, 14))]
          : [stroke([-width / 2, depth / 2], [-width / 2, 0], [width / 2, 0], [width / 2, depth / 2])],
  }),
  maker({
    id: 'shower-seat',
    name: 'Folding shower seat',
    category: 'Bathroom',
    size: { width: 0.4, depth: 0.36, height: 0.16 },
    min: { width: 0.3, depth: 0.26, height: 0.12 },
    max: { width: 0.6, depth: 0.5, height: 0.24 },
    mount: 'wall',
    foot: 0.32,
    parts: { fronts: 'timber.oak', metal: 'metal.steel-brushed', arms: 'metal.steel-brushed' },
    words: 'bathroom bench wheelchair',
    sold: { supplier: 'Sluice & Penn', price: 190 },
    seats: () => 1,
    make: showerSeat,
    symbol: slatLines,
  }),
  maker({
    id: 'bathroom-stool',
    name: 'Bathroom stool',
    category: 'Bathroom',
    size: { width: 0.36, depth: 0.32, height: 0.45 },
    min: { width: 0.3, depth: 0.26, height: 0.4 },
    max: { width: 0.6, depth: 0.45, height: 0.52 },
    mount: 'floor',
    parts: { seat: 'timber.oak', metal: 'metal.steel-brushed' },
    words: 'seat bench shower',
    sold: { supplier: 'Sluice & Penn', price: 90 },
    seats: () => 1,
    make: stool,
    symbol: slatLines,
  }),
];
