import { z } from 'zod';
import { MeshBuilder, type Mesh } from '../../geometry/mesh';
import { isLight } from '../../geometry/shapes';
import type { Vec2, Vec3 } from '../../geometry/vec';
import { cornerSteps, ringOf, roseOn, shellFrom, wasteOf, type Section, type Waste } from '../forms/sanitary';
import { curve, rod } from '../forms/skin';
import { post, turned } from '../forms/turned';
import { choice } from '../traits';
import { besideMiddle } from './pans';
import { circle, maker, outline, v3, type Made, type PieceSize, type StockItem } from '../types';

const basinTraits = z.object({
  stand: choice('Stand', ['on the wall', 'pedestal', 'half pedestal'], 'on the wall'),
  form: choice('Form', ['round in front', 'square', 'shallow'], 'round in front'),
  tap: choice('Tap', ['one', 'two', 'none'], 'one'),
});
type BasinTraits = z.output<typeof basinTraits>;

/** How high the body of a basin is, the ledge for its tap, its rim, how far its floor falls, metres. */
const BODY = { 'round in front': 0.17, square: 0.15, shallow: 0.11 } as const;
const LEDGE = 0.105;
const RIM = 0.028;
const FALL = 0.01;

/** A basin between a foot and a rim: outside from below, over a round rim, inside to its waste. */
function basinShell(
  outer: (share: number, by: number) => Section,
  inner: (share: number, by: number) => Section,
  top: number,
  steps: number,
  waste: Waste,
): Mesh {
  const round = 0.008;
  const ring = (s: Section, z: number): Vec3[] => ringOf({ ...s, z }, steps);
  // Above the round edge of its foot.
  const shares = (isLight() ? [0, 0.5] : [0, 0.12, 0.2, 0.3, 0.42, 0.54, 0.66, 0.78]).filter((t) => t === 0 || t * (top - outer(0, 0).z) > 0.02);
  const deep = top - waste.z - FALL;
  const turn = isLight() ? [1] : [0, 0.35, 0.7, 1];
  const arc = (t: number): [number, number] => [round * (1 - Math.cos((Math.PI / 2) * t)), round * (1 - Math.sin((Math.PI / 2) * t))];
  const low = outer(0, 0);
  return shellFrom(
    [
      ...(isLight() ? [] : [ring(outer(0, 0.012), low.z), ring(outer(0, 0.003), low.z + 0.003)]),
      ...shares.map((t) => {
        const s = outer(t, 0);
        return ring(s, t === 0 && !isLight() ? s.z + 0.012 : s.z);
      }),
      ...turn.map((t) => ring(outer(1, arc(t)[0]), top - arc(t)[1])),
      ...[...turn].reverse().map((t) => ring(inner(1, -arc(t)[0]), top - arc(t)[1])),
      ...(isLight() ? [0.6, 0.2] : [0.9, 0.75, 0.58, 0.42, 0.28, 0.16, 0.08, 0.03, 0]).map((t) => ring(inner(t, 0), top - deep * (1 - t ** 1.6))),
    ],
    waste,
  );
}

/** Where the bowl of a basin on a wall lies, and its waste. */
function bowlOf(size: PieceSize, { form }: BasinTraits): { inner: (share: number, by: number) => Section; waste: Waste } {
  const { width, depth, height } = size;
  const back = depth / 2 - Math.min(LEDGE, depth * 0.26);
  const front = -depth / 2 + RIM;
  const y = (back + front) / 2;
  const square = form !== 'round in front';
  const deep = BODY[form] * 0.72;
  return {
    inner(t, by) {
      // It narrows to its floor, the more the lower it is.
      const k = square ? 0.86 + 0.14 * t ** 0.5 : 0.55 + 0.45 * t ** 0.55;
      const [w, d] = [(width - 2 * RIM - 0.03) * k - 2 * by, (back - front) * k - 2 * by];
      return { width: w, depth: d, y, z: 0, radius: square ? 0.045 : [0.06, 0.06, Math.min(w, d) * 0.48, Math.min(w, d) * 0.48] };
    },
    waste: { x: 0, y: y + (square ? 0.02 : 0.03), z: height - deep - FALL, radius: 0.025 },
  };
}

/** A mixer on a ledge: its body, a spout, a lever. @param reach of its spout, metres @param tall height of its body, metres */
export function mixerOn(x: number, y: number, z: number, reach: number, tall: number): Mesh {
  const steps = isLight() ? 2 : 6;
  return new MeshBuilder()
    .add(
      turned(
        [
          [0, 0],
          [0.027, 0],
          [0.027, 0.004],
          [0.0215, 0.007],
          [0.0205, tall],
          [0, tall],
        ],
        { x, y, segments: 26, round: 0.0015 },
      ),
      [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, z, 1],
    )
    .add(
      rod(
        curve(
          [v3(x, y, z + tall * 0.62), v3(x, y - reach * 0.3, z + tall * 0.8), v3(x, y - reach * 0.85, z + tall * 0.82), v3(x, y - reach, z + tall * 0.66)],
          steps,
        ),
        0.0115,
        { section: 16 },
      ),
    )
    .add(
      rod([v3(x, y, z + tall - 0.002), v3(x, y + 0.002, z + tall + 0.014), v3(x, y - reach * 0.42, z + tall + 0.034)], (t) => 0.0105 - 0.004 * t, {
        section: 14,
      }),
    )
    .build();
}

/** A tap with a spout of its own, one of two. */
function pillarTap(x: number, y: number, z: number): Mesh {
  const out = new MeshBuilder()
    .add(
      turned(
        [
          [0, 0],
          [0.022, 0],
          [0.022, 0.004],
          [0.015, 0.008],
          [0.014, 0.05],
          [0.018, 0.056],
          [0.012, 0.07],
          [0, 0.072],
        ],
        { x, y, segments: 22, round: 0.001 },
      ),
      [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, z, 1],
    )
    .add(
      rod(curve([v3(x, y, z + 0.034), v3(x, y - 0.04, z + 0.05), v3(x, y - 0.078, z + 0.042), v3(x, y - 0.084, z + 0.022)], isLight() ? 2 : 5), 0.0095, {
        section: 14,
      }),
    );
  for (const [dx, dy] of [
    [0.026, 0],
    [0, 0.026],
  ])
    out.add(rod([v3(x - dx, y - dy, z + 0.08), v3(x + dx, y + dy, z + 0.08)], 0.005, { section: 10 }));
  return out.add(post(x, y, z + 0.068, z + 0.088, 0.01, 0.008, 14)).build();
}

function basin(size: PieceSize, traits: BasinTraits): Made[] {
  const { width, depth, height } = size;
  const body = BODY[traits.form];
  const steps = cornerSteps(traits.form === 'round in front' ? Math.min(width, depth) * 0.42 : 0.04);
  const { inner, waste } = bowlOf(size, traits);
  const round = traits.form === 'round in front';
  const front = round ? Math.min(width * 0.46, depth * 0.8) : 0.02;
  const outer = (t: number, by: number): Section => {
    // It is drawn in below from the front and the sides, not at the wall.
    const k = round ? 0.52 + 0.48 * Math.sin((Math.PI / 2) * t) : 0.78 + 0.22 * Math.sin((Math.PI / 2) * Math.min(1, t * 1.6));
    const [w, d] = [width * k - 2 * by, depth * (0.3 + 0.7 * k) - 2 * by];
    const radius = (round ? [0.012, 0.012, Math.max(0.01, front * k - by), Math.max(0.01, front * k - by)] : 0.02) as Section['radius'];
    return { width: w, depth: d, y: depth / 2 - 0.0006 - by - d / 2, z: height - body + body * t, radius };
  };
  const ledge = depth / 2 - Math.min(LEDGE, depth * 0.26) / 2;
  const tap = new MeshBuilder();
  if (traits.tap === 'one') tap.add(mixerOn(0, ledge, height - 0.0004, Math.min(0.13, depth * 0.32), 0.085));
  if (traits.tap === 'two') for (const s of [-1, 1]) tap.add(pillarTap(s * Math.min(0.1, width * 0.24), ledge, height - 0.0004));
  const parts: Made[] = [
    { part: 'basin', mesh: basinShell(outer, inner, height, steps, waste) },
    {
      part: 'waste',
      mesh: new MeshBuilder()
        .add(wasteOf(waste))
        .add(roseOn(0, inner(0.8, 0).y! + inner(0.8, 0).depth / 2, height - body * 0.2, 0.012, 0.003))
        .build(),
    },
    { part: 'tap', mesh: tap.build() },
  ];
  const under = height - body;
  if (traits.stand === 'on the wall') {
    // A bottle trap and its way into the wall; beside it the valves water comes from, each with its hose.
    const y = waste.y;
    const pipes = new MeshBuilder();
    for (const side of [-1, 1]) {
      const x = side * Math.min(0.09, width * 0.22);
      const z = under - 0.2;
      pipes
        .add(roseOn(x, depth / 2, z, 0.024, 0.008))
        .add(rod([v3(x, depth / 2 - 0.006, z), v3(x, depth / 2 - 0.052, z)], 0.0115, { section: 16 }))
        .add(rod([v3(x, depth / 2 - 0.05, z), v3(x, depth / 2 - 0.068, z)], 0.016, { section: 16 }))
        .add(
          rod(
            curve(
              [
                v3(x, depth / 2 - 0.04, z + 0.008),
                v3(x, depth / 2 - 0.045, z + 0.07),
                v3(x * 0.4, depth / 2 - 0.055, z + 0.15),
                v3(x * 0.2, depth / 2 - 0.055, under + 0.01),
              ],
              isLight() ? 2 : 6,
            ),
            0.006,
            { section: 10 },
          ),
        );
    }
    parts.push({
      part: 'trap',
      mesh: pipes
        .add(post(0, y, under - 0.09, under + 0.01, 0.016, 0.016, 18))
        .add(
          turned(
            [
              [0, 0],
              [0.024, 0],
              [0.031, 0.006],
              [0.031, 0.06],
              [0.024, 0.068],
              [0, 0.07],
            ],
            { x: 0, y, segments: 24, round: 0.0015 },
          ),
          [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, under - 0.15, 1],
        )
        .add(rod([v3(0, y + 0.02, under - 0.098), v3(0, depth / 2 - 0.003, under - 0.098)], 0.016, { section: 18 }))
        .add(roseOn(0, depth / 2, under - 0.098, 0.032, 0.008))
        .build(),
    });
  } else {
    const half = traits.stand === 'half pedestal';
    const foot = half ? under - 0.3 : 0;
    const n = cornerSteps(0.1);
    const at = (t: number): Section => {
      const k = half ? 0.55 + 0.45 * t : 1 - 0.3 * Math.sin(Math.PI * Math.min(1, t * 1.15)) + 0.1 * (1 - t) ** 6;
      const d = half ? depth * (0.3 + 0.14 * t) : 0.2 * k;
      const y = half ? depth / 2 - 0.0006 - d / 2 : Math.min(waste.y, depth / 2 - 0.11);
      return {
        width: Math.min(0.2, width * 0.36) * k,
        depth: d,
        y,
        z: foot + t * (under + 0.02 - foot),
        radius: half ? [0.01, 0.01, d * 0.45, d * 0.45] : 0.09 * k,
      };
    };
    const rings = (isLight() ? [0, 0.5, 1] : [0, 0.02, 0.06, 0.14, 0.28, 0.45, 0.62, 0.8, 0.92, 1]).map((t) => ringOf(at(t), n));
    parts.push({
      part: 'pedestal',
      mesh: shellFrom(
        isLight()
          ? rings
          : [
              ringOf({ ...at(0), width: at(0).width - 0.01, depth: at(0).depth - 0.01, z: foot }, n),
              ...rings.map((r, k) => (k ? r : r.map((p) => ({ ...p, z: foot + 0.004 })))),
            ],
        null,
      ),
    });
  }
  return parts.filter((p) => p.mesh.indices.length);
}

const topTraits = z.object({
  set: choice('Set', ['on the top', 'into the top', 'under the top'], 'on the top'),
  form: choice('Form', ['round', 'oval', 'square'], 'round'),
});
type TopTraits = z.output<typeof topTraits>;

/** Thickness of a vessel, and how far the rim of one that is let in lies on the top, metres. */
const THIN = 0.009;
const LIES = 0.024;

function topSections(
  size: PieceSize,
  { form, set }: TopTraits,
): { outer: (t: number, by: number) => Section; inner: (t: number, by: number) => Section; waste: Waste } {
  const { width, depth, height } = size;
  const square = form === 'square';
  const rim = set === 'on the top' ? THIN : LIES;
  const wide = (t: number): number => (square ? 0.86 + 0.14 * t ** 0.6 : 0.48 + 0.52 * t ** 0.55);
  const radius = (w: number, d: number): number => (square ? 0.04 : Math.min(w, d) / 2);
  const section = (k: number, less: number, z: number): Section => {
    const [w, d] = [width * k - 2 * less, depth * k - 2 * less];
    return { width: w, depth: d, z, radius: radius(w, d) };
  };
  return {
    // Of what is let in the body is as its inside; its rim lies on the top.
    outer: (t, by) => (set === 'on the top' || t === 1 ? section(wide(t), by, height * t) : section(wide(t), by + rim - THIN, height * t)),
    inner: (t, by) => section(wide(t), by + rim, 0),
    waste: { x: 0, y: 0, z: THIN + 0.004, radius: 0.024 },
  };
}

function topBasin(size: PieceSize, traits: TopTraits): Made[] {
  const { outer, inner, waste } = topSections(size, traits);
  return [
    { part: 'basin', mesh: basinShell(outer, inner, size.height, cornerSteps(traits.form === 'square' ? 0.04 : size.depth / 2), waste) },
    { part: 'waste', mesh: wasteOf(waste) },
  ];
}

const plan = (s: Section): Vec2[] => ringOf(s, 7).map(({ x, y }) => ({ x, y }));

export const basins: StockItem[] = [
  maker({
    id: 'basin',
    name: 'Wash basin',
    category: 'Bathroom',
    traits: basinTraits,
    size: { width: 0.55, depth: 0.45, height: 0.85 },
    min: { width: 0.34, depth: 0.28, height: 0.7 },
    max: { width: 1.2, depth: 0.58, height: 0.92 },
    mount: 'wall',
    parts: { basin: 'ceramic.white', tap: 'metal.chrome', trap: 'metal.chrome', waste: 'metal.chrome', pedestal: 'ceramic.white' },
    words: 'bathroom sink washbasin',
    sold: { supplier: 'Sluice & Penn', price: 290 },
    clear: ({ width }) => ({ front: 0.7, sides: besideMiddle(width) }),
    connections: ['water', 'waste'],
    cards: [
      { id: 'basin', name: 'Wash basin' },
      { id: 'basin-small', name: 'Cloakroom basin', size: { width: 0.4, depth: 0.3, height: 0.85 }, traits: { form: 'square' } },
      { id: 'basin-pedestal', name: 'Basin on a pedestal', size: { width: 0.6, depth: 0.48, height: 0.85 }, traits: { stand: 'pedestal', tap: 'two' } },
      { id: 'basin-half', name: 'Basin on a half pedestal', size: { width: 0.56, depth: 0.46, height: 0.85 }, traits: { stand: 'half pedestal' } },
      { id: 'basin-square', name: 'Square basin', size: { width: 0.6, depth: 0.46, height: 0.85 }, traits: { form: 'square' } },
      { id: 'basin-wide', name: 'Wide basin', size: { width: 1, depth: 0.46, height: 0.85 }, traits: { form: 'square' } },
      {
        id: 'basin-shallow',
        name: 'Shallow basin',
        size: { width: 0.6, depth: 0.55, height: 0.73 },
        traits: { form: 'shallow' },
        words: 'wheelchair knee space',
      },
    ],
    make: basin,
    symbol(size, traits) {
      const { inner, waste } = bowlOf(size, traits);
      const round = traits.form === 'round in front';
      const r = Math.min(size.width * 0.46, size.depth * 0.8);
      const at = size.depth / 2 - Math.min(LEDGE, size.depth * 0.26) / 2;
      const taps = traits.tap === 'one' ? [0] : traits.tap === 'two' ? [-Math.min(0.1, size.width * 0.24), Math.min(0.1, size.width * 0.24)] : [];
      return [
        outline(plan({ width: size.width, depth: size.depth, z: 0, radius: round ? [0.012, 0.012, r, r] : 0.02 })),
        outline(plan(inner(1, 0))),
        outline(circle(waste.radius, waste.x, waste.y, 14)),
        ...taps.map((x) => outline(circle(0.02, x, at, 14))),
      ];
    },
  }),
  maker({
    id: 'basin-top',
    name: 'Basin on a top',
    category: 'Bathroom',
    traits: topTraits,
    size: { width: 0.4, depth: 0.4, height: 0.14 },
    min: { width: 0.28, depth: 0.26, height: 0.1 },
    max: { width: 0.8, depth: 0.5, height: 0.2 },
    mount: 'top',
    builtIn: {
      word: 'basin',
      how: () => 'top',
      surface: ({ height }, { set }) => (set === 'on the top' ? -0.0004 : set === 'into the top' ? height - 0.008 : undefined),
      cut(size, traits) {
        if (traits.set === 'on the top') return circle(0.0225, 0, 0, 16);
        const { outer, inner } = topSections(size, traits);
        return plan(traits.set === 'into the top' ? outer(0.98, 0.002) : inner(1, 0.003));
      },
      tap: ({ depth }) => ({ x: 0, y: depth / 2 + 0.045 }),
    },
    parts: { basin: 'ceramic.white', waste: 'metal.chrome' },
    words: 'bathroom vessel bowl vanity countertop washbasin',
    sold: { supplier: 'Sluice & Penn', price: 230 },
    connections: ['water', 'waste'],
    cards: [
      { id: 'basin-bowl', name: 'Bowl basin, round' },
      { id: 'basin-bowl-oval', name: 'Bowl basin, oval', size: { width: 0.56, depth: 0.36, height: 0.14 }, traits: { form: 'oval' } },
      { id: 'basin-bowl-square', name: 'Bowl basin, square', size: { width: 0.5, depth: 0.36, height: 0.13 }, traits: { form: 'square' } },
      { id: 'basin-inset', name: 'Inset basin', size: { width: 0.52, depth: 0.4, height: 0.17 }, traits: { set: 'into the top', form: 'oval' } },
      { id: 'basin-under', name: 'Basin under the top', size: { width: 0.5, depth: 0.36, height: 0.16 }, traits: { set: 'under the top', form: 'square' } },
    ],
    make: topBasin,
    symbol(size, traits) {
      const { outer, inner, waste } = topSections(size, traits);
      return [outline(plan(outer(1, 0))), outline(plan(inner(1, 0))), outline(circle(waste.radius, 0, 0, 14))];
    },
  }),
];
