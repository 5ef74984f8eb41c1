import { z } from 'zod';
import { MeshBuilder } from '../../geometry/mesh';
import { isLight } from '../../geometry/shapes';
import type { Vec2, Vec3 } from '../../geometry/vec';
import { board } from '../forms/boards';
import { collar, cornerSteps, ringOf, shellFrom, wasteOf, type Section, type Waste } from '../forms/sanitary';
import { curve, loop, rod } from '../forms/skin';
import { turned } from '../forms/turned';
import { choice, unless } from '../traits';
import { circle, maker, outline, v3, type Made, type PieceSize, type StockItem } from '../types';

const bathTraits = z.object({
  form: choice('Form', ['straight', 'double ended', 'corner left', 'corner right', 'oval', 'slipper', 'on feet'], 'straight'),
  panel: unless(choice('Panel', ['front', 'all round', 'none'], 'front'), 'form', 'oval', 'slipper', 'on feet'),
});
type BathTraits = z.output<typeof bathTraits>;

const isFree = ({ form }: BathTraits): boolean => form === 'oval' || form === 'slipper' || form === 'on feet';

/** Width of the rim, thickness of the shell, how high the floor lies, how round it meets the sides, how far it falls to the waste. Metres. */
const RIM = 0.055;
const SHELL = 0.007;
const FLOOR = 0.115;
const FILLET = 0.06;
const FALL = 0.02;

/** How far the end one leans on slopes, the end with the waste, and the sides, from rim to floor, metres. */
const SLOPE = { head: 0.17, foot: 0.05, side: 0.045 } as const;

/** How much the free corner of a corner bath is cut, of its depth. */
const CUT = 0.72;

/** How much higher the end of a slipper is, metres. */
const RAISED = 0.14;

/** Radii of the corners of a bath, drawn in by a distance. */
function radiiOf({ width, depth }: PieceSize, { form }: BathTraits, by: number, corner: number): Section['radius'] {
  const cut = Math.max(0.02, Math.min(width * 0.6, depth * CUT) - by);
  if (form === 'corner left') return [corner, corner, corner, cut];
  if (form === 'corner right') return [corner, corner, cut, corner];
  return corner;
}

/** The inside of a bath at a share of its height, from its floor to its rim. */
function insideAt(size: PieceSize, traits: BathTraits, share: number, grown = 0): Section {
  const { width, depth, height } = size;
  const free = isFree(traits);
  const rim = free ? 0.032 : RIM;
  const foot = traits.form === 'straight' ? SLOPE.foot : traits.form === 'slipper' ? 0.1 : SLOPE.head;
  const lean = (1 - share) ** 1.4;
  const side = free ? 0.1 : SLOPE.side;
  const x0 = -width / 2 + rim + Math.min(SLOPE.head, width * 0.14) * lean - grown;
  const x1 = width / 2 - rim - Math.min(foot, width * 0.14) * lean + grown;
  const half = depth / 2 - rim - Math.min(side, depth * 0.12) * lean + grown;
  const floor = floorOf(traits);
  return {
    width: x1 - x0,
    depth: 2 * half,
    x: (x0 + x1) / 2,
    z: floor + share * (height - floor),
    radius: free ? half * 0.94 : radiiOf(size, traits, rim, 0.13 - 0.03 * share),
  };
}

const floorOf = ({ form }: BathTraits): number => (form === 'on feet' ? 0.2 : form === 'oval' || form === 'slipper' ? 0.09 : FLOOR);

/** Where a bath runs out: at the foot of one that has a head, in the middle of others. */
function wasteAt(size: PieceSize, traits: BathTraits): Waste {
  const { x = 0, width } = insideAt(size, traits, 0);
  const end = traits.form === 'straight' || traits.form === 'slipper';
  return { x: end ? x + width / 2 - 0.17 : 0, y: 0, z: floorOf(traits) - FALL, radius: 0.028 };
}

/** The inside of a bath, section by section, from its rim to the edge of its floor. */
function insideRings(size: PieceSize, traits: BathTraits, steps: number): Vec3[][] {
  const { height } = size;
  const floor = floorOf(traits);
  const least = Math.min(0.4, FILLET / (height - floor));
  const walls = isLight() ? [1, 0.5] : [1, 0.88, 0.74, 0.6, 0.46, 0.32];
  const rings = walls.map((t) => insideAt(size, traits, Math.max(t, least)));
  const edge = insideAt(size, traits, least);
  const round = isLight() ? 2 : 5;
  for (let k = 0; k <= round; k++) {
    const a = ((Math.PI / 2) * k) / round;
    const by = FILLET * (1 - Math.cos(a));
    const radius = typeof edge.radius === 'number' ? edge.radius - by : (edge.radius.map((r) => Math.max(0.02, r - by)) as [number, number, number, number]);
    rings.push({ ...edge, width: edge.width - 2 * by, depth: edge.depth - 2 * by, radius, z: floor + FILLET * (1 - Math.sin(a)) });
  }
  return rings.map((s) => ringOf(s, steps));
}

/** Sections over a rim from its outer edge to its inner one, round at both. */
function overRim(outer: Section, inner: Section, top: number, round: number, steps: number): Vec3[][] {
  const n = isLight() ? 1 : 3;
  const by = (s: Section, d: number, z: number): Vec3[] => {
    const radius = typeof s.radius === 'number' ? s.radius - d : (s.radius.map((r) => Math.max(0.004, r - d)) as [number, number, number, number]);
    return ringOf({ ...s, width: s.width - 2 * d, depth: s.depth - 2 * d, radius, z }, steps);
  };
  const out: Vec3[][] = [];
  for (let k = 0; k <= n; k++) {
    const a = ((Math.PI / 2) * k) / n;
    out.push(by(outer, round * (1 - Math.cos(a)), top - round * (1 - Math.sin(a))));
  }
  for (let k = n; k > 0; k--) {
    const a = ((Math.PI / 2) * k) / n;
    out.push(by(inner, -round * (1 - Math.cos(a)), top - round * (1 - Math.sin(a))));
  }
  return out;
}

function builtIn(size: PieceSize, traits: BathTraits): Made[] {
  const { width, depth, height } = size;
  const corner = traits.form.startsWith('corner');
  const steps = cornerSteps(corner ? depth * CUT : 0.13);
  const waste = wasteAt(size, traits);
  // Its shell follows its inside, below a rim that lies on it.
  const under = [0, 0.35, 0.8].map((t) => {
    const s = insideAt(size, traits, t, SHELL);
    return ringOf({ ...s, z: t === 0 ? waste.z - 0.016 : Math.min(s.z, height - 0.04) }, steps);
  });
  const rim: Section = { width, depth, z: height, radius: radiiOf(size, traits, 0, 0.014) };
  const tub = [
    ...under,
    ringOf({ ...insideAt(size, traits, 1, SHELL), z: height - 0.032 }, steps),
    ringOf({ ...rim, width: width - 0.008, depth: depth - 0.008, z: height - 0.032 }, steps),
    ringOf({ ...rim, z: height - 0.028 }, steps),
    ...overRim(rim, insideAt(size, traits, 1), height, 0.012, steps),
    ...insideRings(size, traits, steps),
  ];
  const inset = (by: number): Vec3[] => ringOf({ width: width - 2 * by, depth: depth - 2 * by, z: 0, radius: radiiOf(size, traits, by, 0.014) }, steps);
  const panel =
    traits.panel === 'none'
      ? null
      : traits.panel === 'all round' || corner
        ? collar(inset(0.012), inset(0.03), 0.004, height - 0.034)
        : board(-width / 2 + 0.003, -depth / 2 + 0.012, 0.004, width / 2 - 0.003, -depth / 2 + 0.03, height - 0.034);
  const { x = 0, width: long } = insideAt(size, traits, 0.75);
  const plate = x + long / 2;
  return [
    { part: 'tub', mesh: shellFrom(tub, waste) },
    ...(panel ? [{ part: 'panel', mesh: panel }] : []),
    {
      part: 'waste',
      mesh: new MeshBuilder()
        .add(wasteOf(waste))
        .add(rod([v3(plate - 0.006, 0, height - 0.13), v3(plate + 0.004, 0, height - 0.13)], 0.032, { section: 20 }))
        .build(),
    },
  ];
}

/** A point of the shell raised towards the end one leans on, the more the higher it lies. */
const raisedBy =
  (size: PieceSize, by: number) =>
  (p: Vec3): Vec3 => {
    const t = Math.max(0, -p.x / (size.width / 2));
    return { ...p, z: p.z + by * t * t * (3 - 2 * t) * Math.max(0, p.z / size.height) ** 2 };
  };

function freestanding(whole: PieceSize, traits: BathTraits): Made[] {
  const by = traits.form === 'slipper' ? Math.min(RAISED, whole.height * 0.3) : 0;
  const size = { ...whole, height: whole.height - by };
  const { width, depth, height } = size;
  const feet = traits.form === 'on feet';
  const roll = feet ? 0.016 : 0.012;
  const steps = cornerSteps(depth / 2);
  const waste = wasteAt(size, traits);
  const foot = feet ? 0.15 : 0;
  // How wide it is at a share of its height: it stands on a foot and opens to its rim; one on feet is round below.
  const wide = (t: number): number => (feet ? 0.62 + 0.38 * Math.sin((Math.PI / 2) * Math.min(1, t + 0.12)) : 0.74 + 0.26 * t ** 1.6);
  const outerAt = (t: number): Section => {
    const k = wide(t);
    const [w, d] = [(width - 2 * roll * (feet ? 1 : 0)) * (1 - (1 - k) * 0.75), (depth - 2 * roll * (feet ? 1 : 0)) * k];
    return { width: w, depth: d, radius: (d / 2) * 0.94, z: foot + t * (height - foot) };
  };
  const rim = { ...outerAt(1), z: height };
  const out = (isLight() ? [0, 0.5] : [0, 0.12, 0.26, 0.42, 0.6, 0.8, 0.93]).map((t) => ringOf(outerAt(t), steps));
  const base = outerAt(0);
  const bottom = [0.024, 0.012, 0.004].map((d, k) =>
    ringOf({ ...base, width: base.width - 2 * d, depth: base.depth - 2 * d, radius: (base.radius as number) - d, z: foot + [0, 0.003, 0.012][k] }, steps),
  );
  out[0] = ringOf({ ...base, z: foot + 0.024 }, steps);
  const rings = [
    ...(isLight() ? bottom.slice(0, 1) : bottom),
    ...out,
    ...overRim(rim, insideAt(size, traits, 1), height, 0.01, steps),
    ...insideRings(size, traits, steps),
  ];
  const raise = raisedBy(size, by);
  const parts: Made[] = [
    {
      part: 'tub',
      mesh: shellFrom(
        rings.map((r) => r.map(raise)),
        waste,
      ),
    },
    { part: 'waste', mesh: wasteOf(waste) },
  ];
  if (!feet) return parts;
  // The rim is rolled outwards; four feet with a ball each.
  const lip = ringOf({ ...rim, z: height - roll * 0.6 }, steps);
  parts[0] = {
    part: 'tub',
    mesh: new MeshBuilder()
      .add(parts[0].mesh)
      .add(loop(lip, roll, 10))
      .build(),
  };
  const metal = new MeshBuilder();
  const under = outerAt(0.12);
  for (const sx of [-1, 1])
    for (const sy of [-1, 1]) {
      const [x, y] = [sx * under.width * 0.34, sy * under.depth * 0.4];
      metal.add(
        rod(
          curve([v3(x * 0.97, y * 0.86, foot + 0.04), v3(x, y, foot - 0.02), v3(x * 1.04, y * 1.12, 0.07), v3(x * 1.05, y * 1.18, 0.03)], isLight() ? 2 : 5),
          (t) => 0.026 - 0.012 * t,
          { section: 14 },
        ),
      );
      metal.add(
        turned(
          [
            [0, 0],
            [0.024, 0.008],
            [0.03, 0.026],
            [0.022, 0.044],
            [0, 0.05],
          ],
          { x: x * 1.05, y: y * 1.18, segments: 20, round: 0.006 },
        ),
      );
    }
  return [...parts, { part: 'feet', mesh: metal.build() }];
}

const plan = (s: Section): Vec2[] => ringOf(s, 6).map(({ x, y }) => ({ x, y }));

/** What a bath covers of the floor. */
const outlineOf = (size: PieceSize, traits: BathTraits): Vec2[] =>
  plan({ width: size.width, depth: size.depth, z: 0, radius: isFree(traits) ? (size.depth / 2) * 0.94 : radiiOf(size, traits, 0, 0.014) });

export const baths: StockItem[] = [
  maker({
    id: 'bath',
    name: 'Bath',
    category: 'Bathroom',
    traits: bathTraits,
    size: { width: 1.7, depth: 0.7, height: 0.56 },
    min: { width: 1.2, depth: 0.65, height: 0.48 },
    max: { width: 2, depth: 1.2, height: 0.8 },
    mount: 'floor',
    wet: outlineOf,
    parts: { tub: 'ceramic.white', panel: 'paint.sluice-white', waste: 'metal.chrome', feet: 'metal.brass-brushed' },
    words: 'tub bathroom soak',
    sold: { supplier: 'Sluice & Penn', price: 540 },
    clear: { front: 0.7 },
    connections: ['water', 'waste'],
    cards: [
      { id: 'bath', name: 'Bath' },
      { id: 'bath-short', name: 'Short bath', size: { width: 1.5, depth: 0.7, height: 0.56 } },
      { id: 'bath-double', name: 'Double-ended bath', size: { width: 1.8, depth: 0.8, height: 0.56 }, traits: { form: 'double ended' } },
      {
        id: 'bath-recess',
        name: 'Bath for a recess',
        size: { width: 1.7, depth: 0.75, height: 0.54 },
        traits: { panel: 'none' },
        words: 'tiled apron built in',
      },
      { id: 'bath-corner', name: 'Corner bath, left', size: { width: 1.5, depth: 1, height: 0.56 }, traits: { form: 'corner left' } },
      { id: 'bath-corner-right', name: 'Corner bath, right', size: { width: 1.5, depth: 1, height: 0.56 }, traits: { form: 'corner right' } },
      {
        id: 'bath-oval',
        name: 'Freestanding bath',
        size: { width: 1.65, depth: 0.76, height: 0.58 },
        traits: { form: 'oval', panel: 'none' },
        words: 'free-standing',
      },
      { id: 'bath-slipper', name: 'Slipper bath', size: { width: 1.6, depth: 0.75, height: 0.74 }, traits: { form: 'slipper', panel: 'none' } },
      {
        id: 'bath-feet',
        name: 'Roll-top bath on feet',
        size: { width: 1.65, depth: 0.74, height: 0.62 },
        traits: { form: 'on feet', panel: 'none' },
        words: 'claw',
      },
      { id: 'bath-tub', name: 'Deep soaking tub', size: { width: 1.2, depth: 0.9, height: 0.72 }, traits: { form: 'oval', panel: 'none' } },
    ],
    make: (size, traits) => (isFree(traits) ? freestanding(size, traits) : builtIn(size, traits)),
    symbol(size, traits) {
      const waste = wasteAt(size, traits);
      return [outline(outlineOf(size, traits)), outline(plan(insideAt(size, traits, 0.9))), outline(circle(0.03, waste.x, waste.y, 16))];
    },
  }),
];
