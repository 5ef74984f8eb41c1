import { z } from 'zod';
import { MeshBuilder } from '../geometry/mesh';
import { cylinder, roundedBox, tube } from '../geometry/shapes';
import { chairs } from './chairs';
import { choice, length } from './traits';
import { maker, outline, rounded, stroke, v3, type PieceSize, type StockItem } from './types';

/** A tapered round leg under a point. */
const leg = (builder: MeshBuilder, x: number, y: number, height: number, radius = 0.02): void =>
  void builder.add(cylinder(x, y, 0, height, radius * 0.65, radius, 12));

const upholsteredTraits = (arms: 'broad' | 'slim') =>
  z.object({
    arms: choice('Arms', ['broad', 'slim', 'low', 'none'], arms),
    back: choice('Back', ['cushions', 'tight'], 'cushions'),
    chaise: choice('Chaise', ['none', 'left', 'right'], 'none'),
    seat: length('Seat depth', { min: 0.78, max: 1.1, first: 0.92, step: 0.01 }),
    base: choice('Base', ['turned legs', 'block feet', 'plinth'], 'turned legs'),
  });

type Upholstered = z.output<ReturnType<typeof upholsteredTraits>>;

/** Width of an arm, metres. */
const ARM = { broad: 0.18, slim: 0.14, low: 0.16, none: 0.012 } as const;

/** How an upholstered piece is divided: arms, seats in the width between them, and where the chaise stands out. */
function divided({ width, depth }: PieceSize, { arms, chaise, seat }: Upholstered) {
  const arm = ARM[arms];
  const inner = width - 2 * arm;
  const seats = Math.max(1, Math.round(inner / 0.68));
  // Without a chaise the whole depth is seat; with one the seat lies at the back of it.
  const own = chaise === 'none' ? depth : Math.min(seat, depth);
  return { arm, inner, seats, step: inner / seats, front: depth / 2 - own, out: chaise === 'none' ? -1 : chaise === 'left' ? 0 : seats - 1 };
}

/** Sofas and armchairs: legs, frame, arms, back and as many seats as the width holds, one of them drawn out where there is a chaise. */
function upholstered(size: PieceSize, traits: Upholstered): ReturnType<StockItem['make']> {
  const { width, depth, height } = size;
  const { arm, step, seats, front, out } = divided(size, traits);
  const frame = new MeshBuilder();
  const cushions = new MeshBuilder();
  const legs = new MeshBuilder();
  const [w, d] = [width / 2, depth / 2];
  const foot = traits.base === 'plinth' ? 0.06 : traits.base === 'block feet' ? 0.09 : 0.13;
  const seat = 0.42;
  const stand = (x: number, y: number): void => {
    if (traits.base === 'turned legs') leg(legs, x, y, foot, 0.022);
    else legs.add(roundedBox(v3(x - 0.035, y - 0.035, 0), v3(x + 0.035, y + 0.035, foot), { radius: 0.003 }));
  };
  // Where each seat begins at the front.
  const fronts = Array.from({ length: seats }, (_, i) => (i === out ? -d : front));
  if (traits.base === 'plinth') {
    legs.add(roundedBox(v3(-w + 0.05, front + 0.06, 0), v3(w - 0.05, d - 0.05, foot), { radius: 0.003 }));
    if (out >= 0) {
      const x = -w + arm + out * step;
      legs.add(roundedBox(v3(x + 0.05, -d + 0.06, 0), v3(x + step - 0.05, front + 0.08, foot), { radius: 0.003 }));
    }
  } else {
    for (const x of [-w + 0.09, w - 0.09]) for (const y of [front + 0.09, d - 0.09]) stand(x, y);
    if (out >= 0) for (const x of [0.09, step - 0.09]) stand(-w + arm + out * step + x, -d + 0.09);
  }
  frame.add(roundedBox(v3(-w + 0.02, front + 0.03, foot), v3(w - 0.02, d - 0.02, 0.29), { radius: 0.03, steps: 3 }));
  if (out >= 0) {
    const x = -w + arm + out * step;
    frame.add(roundedBox(v3(x + 0.006, -d + 0.03, foot), v3(x + step - 0.006, front + 0.05, 0.29), { radius: 0.03, steps: 3 }));
  }
  const rest = traits.arms === 'low' ? 0.5 : 0.6;
  if (traits.arms !== 'none')
    for (const side of [-1, 1])
      frame.add(
        roundedBox(v3(side < 0 ? -w : w - arm, front, foot + 0.02), v3(side < 0 ? -w + arm : w, d - 0.05, rest), {
          radius: traits.arms === 'slim' ? 0.05 : 0.055,
          steps: 4,
          bulge: 0.008,
        }),
      );
  const inset = traits.arms === 'none' ? 0.004 : arm * 0.4;
  frame.add(roundedBox(v3(-w + inset, d - 0.24, foot + 0.02), v3(w - inset, d, height), { radius: 0.07, steps: 4, bulge: 0.01 }));
  fronts.forEach((from, i) => {
    const x0 = -w + arm + i * step + 0.004;
    const x1 = x0 + step - 0.008;
    cushions.add(roundedBox(v3(x0, from + 0.005, 0.285), v3(x1, d - 0.22, seat), { radius: 0.05, steps: 4, bulge: 0.022 }));
    if (traits.back === 'cushions')
      cushions.add(roundedBox(v3(x0 + 0.01, d - 0.36, seat + 0.005), v3(x1 - 0.01, d - 0.19, height + 0.02), { radius: 0.07, steps: 4, bulge: 0.03 }));
  });
  return [
    { part: 'frame', mesh: frame.build() },
    { part: 'cushions', mesh: cushions.build() },
    { part: 'legs', mesh: legs.build() },
  ];
}

function upholsteredSymbol(size: PieceSize, traits: Upholstered) {
  const { width, depth } = size;
  const { arm, inner, seats, step, front, out } = divided(size, traits);
  const own = depth / 2 - front;
  const middle = depth / 2 - own / 2;
  const lines = [outline(rounded(width, own, 0.07, 0, middle)), outline(rounded(inner, own - 0.24, 0.05, 0, middle - 0.12))];
  for (let i = 1; i < seats; i++) {
    const x = -inner / 2 + step * i;
    lines.push(stroke([x, front], [x, depth / 2 - 0.24]));
  }
  if (out >= 0) {
    const x = -width / 2 + arm + out * step;
    lines.push(
      stroke([x, front], [x, -depth / 2 + 0.05], [x + 0.05, -depth / 2], [x + step - 0.05, -depth / 2], [x + step, -depth / 2 + 0.05], [x + step, front]),
    );
  }
  return lines;
}

export const seating: StockItem[] = [
  maker({
    id: 'sofa',
    name: 'Sofa',
    category: 'Seating',
    traits: upholsteredTraits('broad'),
    size: { width: 2.1, depth: 0.92, height: 0.8 },
    min: { width: 1.3, depth: 0.78, height: 0.68 },
    max: { width: 3.6, depth: 1.9, height: 1.1 },
    mount: 'floor',
    parts: { cushions: 'cloth.oat-weave', frame: 'cloth.oat-weave', legs: 'timber.oak' },
    words: 'couch settee lounge',
    cards: [
      { id: 'sofa', name: 'Sofa' },
      { id: 'sofa-two', name: 'Two-seat sofa', size: { width: 1.6, depth: 0.9, height: 0.8 }, traits: { arms: 'slim' } },
      { id: 'sofa-plinth', name: 'Plinth sofa', size: { width: 2.4, depth: 0.98, height: 0.74 }, traits: { arms: 'low', base: 'plinth' }, words: 'low' },
      { id: 'sofa-tight', name: 'Tight-back sofa', size: { width: 1.9, depth: 0.84, height: 0.84 }, traits: { arms: 'slim', back: 'tight' }, words: 'upright' },
      {
        id: 'sofa-chaise',
        name: 'Chaise sofa',
        size: { width: 2.5, depth: 1.6, height: 0.8 },
        traits: { chaise: 'right', base: 'block feet' },
        words: 'corner',
      },
      { id: 'sofa-armless', name: 'Armless sofa', size: { width: 1.5, depth: 0.86, height: 0.78 }, traits: { arms: 'none', base: 'block feet' } },
    ],
    make: upholstered,
    symbol: upholsteredSymbol,
  }),
  maker({
    id: 'armchair',
    name: 'Armchair',
    category: 'Seating',
    traits: upholsteredTraits('slim').omit({ chaise: true }),
    size: { width: 0.84, depth: 0.86, height: 0.78 },
    min: { width: 0.55, depth: 0.72, height: 0.65 },
    max: { width: 1.1, depth: 1.05, height: 1.0 },
    mount: 'floor',
    parts: { cushions: 'cloth.moss-herringbone', frame: 'cloth.moss-herringbone', legs: 'timber.walnut' },
    words: 'easy chair reading',
    cards: [
      { id: 'armchair', name: 'Armchair' },
      { id: 'armchair-tight', name: 'Upright armchair', size: { width: 0.76, depth: 0.8, height: 0.86 }, traits: { back: 'tight' } },
      { id: 'armchair-broad', name: 'Broad armchair', size: { width: 1, depth: 0.92, height: 0.76 }, traits: { arms: 'broad', base: 'plinth' } },
      {
        id: 'slipper-chair',
        name: 'Slipper chair',
        size: { width: 0.64, depth: 0.76, height: 0.78 },
        traits: { arms: 'none', back: 'tight' },
        words: 'low bedroom',
      },
    ],
    make: (size, traits) => upholstered(size, { ...traits, chaise: 'none' }),
    symbol: (size, traits) => upholsteredSymbol(size, { ...traits, chaise: 'none' }),
  }),
  ...chairs,
  {
    id: 'bench',
    name: 'Bench',
    category: 'Seating',
    size: { width: 1.4, depth: 0.36, height: 0.45 },
    min: { width: 0.6, depth: 0.28, height: 0.38 },
    max: { width: 2.4, depth: 0.5, height: 0.5 },
    mount: 'floor',
    parts: { top: 'timber.ash', legs: 'timber.ash' },
    words: 'stool seat hall',
    make({ width, depth, height }) {
      const [w, d] = [width / 2, depth / 2];
      const legs = new MeshBuilder();
      for (const x of [-1, 1])
        for (const y of [-1, 1]) legs.add(tube([v3(x * (w - 0.06), y * (d - 0.03), 0), v3(x * (w - 0.14), y * (d - 0.07), height - 0.03)], 0.018, 12));
      for (const x of [-1, 1]) legs.add(tube([v3(x * (w - 0.09), -d + 0.045, 0.16), v3(x * (w - 0.09), d - 0.045, 0.16)], 0.011, 10));
      return [
        { part: 'top', mesh: roundedBox(v3(-w, -d, height - 0.04), v3(w, d, height), { radius: 0.016, steps: 3 }) },
        { part: 'legs', mesh: legs.build() },
      ];
    },
    symbol: ({ width, depth }) => [outline(rounded(width, depth, 0.03))],
  },
];
