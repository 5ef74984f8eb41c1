import { z } from 'zod';
import { MeshBuilder, type Mesh } from '../../geometry/mesh';
import { cuts, sheet } from '../../geometry/shapes';
import type { Vec3 } from '../../geometry/vec';
import { POLE } from '../../project/hanging';
import { FULLNESS, HEADINGS, stackOf, type Heading } from '../coverings/cloth';
import { board } from '../forms/boards';
import { scatter } from '../forms/random';
import { bar, loop, rod, slat } from '../forms/skin';
import { choice, count, toggle } from '../traits';
import { maker, outline, rectangle, stroke, v3, type Made, type PieceSize, type Sewn, type StockItem } from '../types';

/** Curtains and valances. Their width, and their height from the hem to the top, are finished sizes. */

/** How far the hem of cloth is above the foot of a piece, so that it lies in no floor, metres. */
const HEM = 0.001;

const curtainTraits = z.object({
  curtains: choice('Curtains', ['pair', 'single, to the left', 'single, to the right'], 'pair'),
  heading: choice('Heading', HEADINGS, 'pencil pleat'),
  hung: choice('Hung from', ['pole', 'track', 'pelmet'], 'pole'),
  drawn: count('Drawn, %', { min: 0, max: 100, first: 0 }),
  lining: choice('Lining', ['unlined', 'lined', 'interlined'], 'unlined'),
  sheer: toggle('Sheer behind', false),
});
type CurtainTraits = z.output<typeof curtainTraits>;

/** How far the pole or the track runs below the top, metres. */
const BELOW_TOP = 0.025;
/** Cloth in one fold, metres. */
const IN_FOLD = 0.24;
/** How much folds differ from one another; those of a wave do not. */
const VARIES = 0.15;

/** How deep the folds are at the top, as a share of what they are below: pleats open downwards. */
const AT_TOP: Readonly<Record<Heading, number>> = { eyelet: 0.9, 'pencil pleat': 0.35, 'pinch pleat': 0.22, wave: 1, tab: 0.55 };

/** Folds of a lining, as a share of those of its cloth. */
const FLATTER = 0.15;

interface Hanging {
  /** From the end that is held to the one that is drawn, along x. */
  from: number;
  to: number;
  /** Cloth across, metres. */
  cloth: number;
  heading: Heading;
  top: number;
  /** Half of the room the folds have. */
  deep: number;
  y: number;
  seed: number;
  /** Of a lining, how far it hangs behind its cloth at the least, metres; its folds are flatter. */
  lining?: number;
}

/** A curtain: one surface of cloth in folds, which lie close where it is drawn back. */
function hanging({ from, to, cloth, heading, top, deep, y, seed, lining }: Hanging): Mesh {
  const span = Math.abs(to - from);
  const folds = Math.max(2, Math.round(cloth / IN_FOLD));
  const own = heading === 'wave' ? 0.02 : VARIES;
  // Ends of the folds along the span, each a little wider or narrower than the next.
  const ends = [0];
  for (let i = 0; i < folds; i++) ends.push(ends[i] + 1 + own * (2 * scatter(seed, i) - 1));
  const pitch = span / folds;
  // As deep as the cloth in a fold reaches over its pitch, by the arc of a sine wave, as far as there is room.
  const reach = Math.min(deep, (pitch / Math.PI) * Math.sqrt(Math.max(0, 2 * (cloth / folds / Math.max(pitch, 0.02) - 1))) + 0.012);
  // A lining ends a little above the hem, so that it is not seen below.
  const low = lining === undefined ? HEM : HEM + 0.006;
  const point = (u: number, v: number): Vec3 => {
    const at = u * ends[folds];
    const i = Math.min(folds - 1, Math.max(0, ends.findIndex((e) => e > at) - 1));
    const within = (at - ends[i]) / (ends[i + 1] - ends[i]);
    const down = 1 - v;
    const open = AT_TOP[heading] + (1 - AT_TOP[heading]) * Math.min(1, (down * top) / 0.35);
    const depth = reach * open * (1 - own * scatter(seed + 3, i) * down);
    // A lining hangs behind the folds of its cloth: nowhere do they meet.
    const [share, back] = lining === undefined ? [1, 0] : [FLATTER, depth * (1 - FLATTER) + lining];
    const swing = own * 0.25 * pitch * down * (2 * scatter(seed + 5, i) - 1);
    // Between tabs the edge hangs through.
    const sag = heading === 'tab' ? 0.012 * Math.sin(within * Math.PI) ** 2 * v ** 24 : 0;
    return v3(from + (to - from) * u + swing, y + back + depth * share * Math.sin(2 * Math.PI * (i + within)), low + v * (top - low) - sag);
  };
  return sheet(from < to ? point : (u, v) => point(1 - u, v), folds * 8, 8, cloth, top);
}

/** The cord, rings or tabs a curtain hangs by: one for each fold. */
function hangers(parts: MeshBuilder, cloth: MeshBuilder, { from, to, cloth: wide, heading, top, y }: Hanging, pole: number): void {
  const folds = Math.max(2, Math.round(wide / IN_FOLD));
  for (let i = 0; i < folds; i++) {
    const x = from + ((to - from) * (i + 0.5)) / folds;
    if (heading === 'eyelet') {
      const steps = cuts(18, 8);
      const ring = Array.from({ length: steps }, (_, k) => {
        const a = (k / steps) * 2 * Math.PI;
        return v3(x, y + 0.021 * Math.cos(a), pole + 0.021 * Math.sin(a));
      });
      parts.add(loop(ring, 0.003));
    } else if (heading === 'tab') {
      const path = [
        v3(x, y - 0.002, top - 0.01),
        v3(x, y - 0.017, pole + 0.005),
        v3(x, y, pole + 0.018),
        v3(x, y + 0.017, pole + 0.005),
        v3(x, y + 0.002, top - 0.01),
      ];
      cloth.add(slat(path, () => v3(0.02, 0, 0), 0.002));
    }
  }
}

/** A pole with its ends and brackets, a track, or a board with a front. */
function rail(size: PieceSize, hung: CurtainTraits['hung']): { metal: Mesh; pelmet: Mesh } {
  const { width, depth, height } = size;
  const w = width / 2;
  const back = depth / 2;
  const z = height - BELOW_TOP;
  const metal = new MeshBuilder();
  const pelmet = new MeshBuilder();
  if (hung === 'pole') {
    metal.add(bar(v3(-w + 0.02, 0, z), v3(w - 0.02, 0, z), 0.011));
    for (const side of [-1, 1]) {
      metal.add(
        rod(
          [v3(side * (w - 0.026), 0, z), v3(side * (w - 0.018), 0, z), v3(side * (w - 0.008), 0, z), v3(side * w, 0, z)],
          (t) => [0.011, 0.019, 0.022, 0.006][Math.round(t * 3)],
          { section: 14 },
        ),
      );
      metal.add(rod([v3(side * (w - 0.1), 0, z - 0.004), v3(side * (w - 0.1), back - 0.006, z - 0.004)], 0.006));
      metal.add(bar(v3(side * (w - 0.1), back - 0.006, z - 0.004), v3(side * (w - 0.1), back, z - 0.004), 0.02));
    }
  } else {
    metal.add(board(-w + 0.004, -0.012, z - 0.006, w - 0.004, 0.012, z + 0.014));
    if (hung === 'pelmet') {
      const high = Math.min(0.18, height * 0.12);
      const front = -depth / 2;
      pelmet.add(board(-w, front, height - high, w, front + 0.016, height));
      for (const side of [-1, 1]) pelmet.add(board(side < 0 ? -w : w - 0.016, front + 0.016, height - high, side < 0 ? -w + 0.016 : w, back, height));
      pelmet.add(board(-w + 0.016, front + 0.016, height - 0.016, w - 0.016, back, height));
    }
  }
  return { metal: metal.build(), pelmet: pelmet.build() };
}

/** How far the lining hangs behind its cloth, metres. */
const LINING = { lined: 0.005, interlined: 0.009 } as const;

/** Cloth of a sheer for a width it covers. */
const SHEER = 1.6;

/** What curtains cover, from the middle, and where their tops are: of the cloth and of a sheer behind it, metres. */
function extents(
  { width, height }: PieceSize,
  { heading, hung }: Pick<CurtainTraits, 'heading' | 'hung'>,
): { w: number; pole: number; top: number; sheer: number } {
  const pole = height - BELOW_TOP;
  return {
    w: width / 2 - (hung === 'pelmet' ? 0.02 : 0.03),
    pole,
    top: heading === 'eyelet' ? pole + 0.02 : heading === 'tab' ? pole - 0.045 : pole - 0.016,
    sheer: pole - 0.03,
  };
}

/** What is sewn of cloth, lining and sheer for curtains. */
function curtainsSewn(size: PieceSize, traits: CurtainTraits): Sewn[] {
  const { w, top, sheer } = extents(size, traits);
  const count = traits.curtains === 'pair' ? 2 : 1;
  const cloth = { width: 2 * w, drop: top - HEM, fullness: FULLNESS[traits.heading], count } as const;
  return [
    { part: 'cloth', ...cloth },
    ...(traits.lining === 'unlined' ? [] : [{ part: 'lining', ...cloth }]),
    ...(traits.sheer ? [{ part: 'sheer', width: 2 * w, drop: sheer - HEM, fullness: SHEER, count: 1 } as const] : []),
  ];
}

function curtains(size: PieceSize, traits: CurtainTraits): Made[] {
  const { depth } = size;
  const { curtains: which, heading, hung, drawn, sheer, lining } = traits;
  const { w, pole, top, sheer: sheerTop } = extents(size, traits);
  const share = drawn / 100;
  const cloth = new MeshBuilder();
  const linings = new MeshBuilder();
  const rings = new MeshBuilder();
  const one = (side: -1 | 1, covers: number): void => {
    const stack = Math.min(covers, Math.max(0.12, stackOf(covers, heading)));
    const held = side * w;
    const own: Hanging = {
      from: held,
      to: held - side * (stack + (covers - stack) * share),
      cloth: covers * FULLNESS[heading],
      heading,
      top,
      deep: Math.min(0.07, depth * 0.36),
      y: hung === 'pelmet' ? 0.012 : 0,
      seed: side + 2,
    };
    cloth.add(hanging(own));
    if (lining !== 'unlined') linings.add(hanging({ ...own, lining: LINING[lining] }));
    hangers(rings, cloth, own, pole);
  };
  if (which === 'pair') for (const side of [-1, 1] as const) one(side, w);
  else one(which === 'single, to the left' ? -1 : 1, 2 * w);
  const sheers = new MeshBuilder();
  if (sheer)
    sheers.add(
      hanging({
        from: -w + 0.01,
        to: w - 0.01,
        cloth: 2 * w * SHEER,
        heading: 'wave',
        top: sheerTop,
        deep: 0.014,
        y: Math.min(depth / 2 - 0.02, 0.055),
        seed: 9,
      }),
    );
  const { metal, pelmet } = rail(size, hung);
  return [
    { part: 'cloth', mesh: cloth.build() },
    { part: 'lining', mesh: linings.build() },
    { part: 'sheer', mesh: sheers.build() },
    { part: 'rail', mesh: new MeshBuilder().add(metal).add(rings.build()).build() },
    { part: 'pelmet', mesh: pelmet },
  ];
}

/** The symbol of curtains: the rail, and the folds of what hangs from it. */
const curtainSymbol = ({ width, depth }: PieceSize, { curtains: which, heading, drawn }: CurtainTraits) => {
  const w = width / 2;
  const wave = (side: number, covers: number) => {
    const stack = Math.max(0.12, stackOf(covers, heading));
    const long = Math.min(covers, stack + (covers - stack) * (drawn / 100));
    return stroke(...Array.from({ length: 21 }, (_, i): [number, number] => [side * (w - (i / 20) * long), (i % 2 ? 0.3 : -0.3) * depth]));
  };
  return [stroke([-w, 0], [w, 0]), ...(which === 'pair' ? [wave(-1, w), wave(1, w)] : [wave(which === 'single, to the left' ? -1 : 1, 2 * w)])];
};

const valanceTraits = z.object({ edge: choice('Lower edge', ['straight', 'arched', 'scalloped', 'pointed'], 'straight'), gathered: toggle('Gathered', true) });

function valance({ width, depth, height }: PieceSize, { edge, gathered }: z.output<typeof valanceTraits>): Made[] {
  const w = width / 2;
  const waves = Math.max(2, Math.round(width / 0.3));
  const low = (u: number): number => {
    switch (edge) {
      case 'arched':
        return height * 0.45 * Math.sin(Math.PI * u) ** 0.8;
      case 'scalloped':
        return height * 0.22 * (1 - Math.abs(Math.sin(Math.PI * waves * u)));
      case 'pointed':
        return height * 0.3 * Math.abs(((u * waves) % 1) - 0.5) * 2;
      default:
        return 0;
    }
  };
  const folds = Math.max(4, Math.round(width / 0.09));
  const y = (u: number, v: number): number => (gathered ? 0.011 * Math.sin(2 * Math.PI * folds * u) * (0.5 + 0.5 * (1 - v)) : 0);
  const front = -depth / 2 + 0.014;
  const point = (u: number, v: number): Vec3 => {
    const z = low(Math.min(1, Math.max(0, u)));
    return v3(-w + 2 * w * u, front + y(u, v), z + (height - 0.004 - z) * v);
  };
  const cloth = new MeshBuilder().add(sheet(point, gathered ? folds * 8 : waves * 12, 4, width * (gathered ? 2 : 1), height));
  const shelf = new MeshBuilder().add(board(-w + 0.006, front + 0.014, height - 0.02, w - 0.006, depth / 2, height));
  return [
    { part: 'cloth', mesh: cloth.build() },
    { part: 'board', mesh: shelf.build() },
  ];
}

const across = ({ width, depth }: PieceSize) => [outline(rectangle(width, depth)), stroke([-width / 2, 0], [width / 2, 0])];

export const curtainsAndValances: StockItem[] = [
  maker({
    id: 'curtain',
    name: 'Curtains',
    category: 'At windows',
    traits: curtainTraits,
    size: { width: 1.8, depth: 0.14, height: 2.2 },
    min: { width: 0.6, depth: 0.1, height: 0.8 },
    max: { width: 5, depth: 0.22, height: 3.6 },
    mount: 'window',
    hangs: { where: 'wall', ends: 'floor', ...POLE, below: 0 },
    handed: ({ curtains: which }) => which !== 'pair',
    sewn: curtainsSewn,
    track: ({ width }) => width,
    parts: { cloth: 'cloth.oat-weave', lining: 'cloth.white-linen', sheer: 'cloth.sheer', rail: 'metal.iron-black', pelmet: 'paint.sluice-white' },
    words: 'drapes window covering',
    sold: { supplier: 'Wether Mill', price: 340 },
    cards: [
      { id: 'curtain', name: 'Curtain pair', traits: { lining: 'lined' } },
      {
        id: 'curtain-eyelet',
        name: 'Eyelet curtains',
        traits: { heading: 'eyelet', lining: 'lined' },
        finishes: { cloth: 'cloth.flax-linen', rail: 'metal.brass-aged' },
      },
      {
        id: 'curtain-pinch',
        name: 'Pinch-pleat curtains',
        size: { width: 2, depth: 0.16, height: 2.35 },
        traits: { heading: 'pinch pleat', hung: 'pelmet', lining: 'interlined' },
        finishes: { cloth: 'cloth.rust-velvet' },
      },
      {
        id: 'curtain-wave',
        name: 'Wave curtains with sheer',
        size: { width: 2.2, depth: 0.2, height: 2.4 },
        traits: { heading: 'wave', hung: 'track', sheer: true },
      },
      {
        id: 'curtain-tab',
        name: 'Tab curtains',
        size: { width: 1.5, depth: 0.12, height: 1.5 },
        traits: { heading: 'tab' },
        hangs: { ends: 'below the sill' },
        finishes: { cloth: 'cloth.white-linen' },
      },
      { id: 'curtain-single', name: 'Single curtain', size: { width: 1.2, depth: 0.14, height: 2.2 }, traits: { curtains: 'single, to the left' } },
      {
        id: 'curtain-voile',
        name: 'Voile, drawn',
        traits: { heading: 'wave', hung: 'track', drawn: 100 },
        finishes: { cloth: 'cloth.sheer-oat' },
        words: 'net sheer',
      },
    ],
    make: curtains,
    symbol: curtainSymbol,
  }),
  maker({
    id: 'valance',
    name: 'Valance',
    category: 'At windows',
    traits: valanceTraits,
    size: { width: 1.7, depth: 0.14, height: 0.32 },
    min: { width: 0.5, depth: 0.08, height: 0.12 },
    max: { width: 4, depth: 0.2, height: 0.6 },
    mount: 'window',
    foot: 2,
    hangs: { where: 'wall', ends: 'as high as it is', sides: POLE.sides + 0.04, above: POLE.above + 0.03, below: 0 },
    sewn: ({ width, height }, { gathered }) => [{ part: 'cloth', width, drop: height, fullness: gathered ? 2 : 1, count: 1 }],
    parts: { cloth: 'cloth.check-kitchen', board: 'timber.birch' },
    words: 'pelmet frill window covering',
    sold: { supplier: 'Wether Mill', price: 120 },
    cards: [
      { id: 'valance', name: 'Gathered valance' },
      { id: 'valance-arched', name: 'Arched valance', traits: { edge: 'arched' }, finishes: { cloth: 'cloth.flax-linen' } },
      { id: 'valance-scalloped', name: 'Scalloped valance', traits: { edge: 'scalloped', gathered: false }, finishes: { cloth: 'cloth.rust-velvet' } },
    ],
    make: valance,
    symbol: across,
  }),
];
