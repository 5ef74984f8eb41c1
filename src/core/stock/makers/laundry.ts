import { z } from 'zod';
import { MeshBuilder } from '../../geometry/mesh';
import { isLight } from '../../geometry/shapes';
import type { Joint } from '../../geometry/joint';
import { board } from '../forms/boards';
import { upright } from '../forms/carry';
import { basketOf, handleBar, knobOn, shellOf } from '../forms/metalwork';
import { post, turned } from '../forms/turned';
import { choice } from '../traits';
import { circle, maker, outline, rectangle, stroke, v3, type Made, type PieceSize, type StockItem } from '../types';

/** Height of the recess for toes under a machine, metres. */
const TOE = 0.1;

const dishTraits = z.object({ front: choice('Front', ['its own', 'of the unit'], 'its own') });

/** A dishwasher: its door comes down, two baskets are in its tub. */
function dishwasher({ width, depth, height }: PieceSize, { front }: z.output<typeof dishTraits>): Made[] {
  const [w, d] = [width / 2, depth / 2];
  const thick = front === 'its own' ? 0.05 : 0.028;
  const f = -d + thick;
  const [tub, baskets, feet] = [new MeshBuilder(), new MeshBuilder(), new MeshBuilder()];
  const low = front === 'its own' ? TOE : 0.012;
  tub.add(shellOf({ x0: -w + 0.001, x1: w - 0.001, y0: f + 0.0004, y1: d, z0: low, z1: height }, 0.02));
  for (const [a, b] of [
    [0.1, 0.36],
    [0.5, 0.72],
  ])
    baskets.add(
      basketOf(
        { x0: -w + 0.034, x1: w - 0.034, y0: f + 0.03, y1: d - 0.05, z0: low + (height - low) * a, z1: low + (height - low) * b },
        isLight() ? 0.16 : 0.05,
      ),
    );
  // The arm that sprays.
  tub.add(board(-w * 0.7, -0.02, low + 0.032, w * 0.7, 0.02, low + 0.044, 0.003));
  if (front === 'its own') feet.add(board(-w + 0.004, f + 0.03, 0.004, w - 0.004, f + 0.04, TOE - 0.0004));
  for (const x of [-1, 1]) for (const y of [f + 0.09, d - 0.06]) feet.add(post(x * (w - 0.05), y, 0, low + 0.0004, 0.016, undefined, 12));
  const joint: Joint = { kind: 'hinge', at: v3(0, f, low), axis: v3(1, 0, 0), range: [0, (88 * Math.PI) / 180] };
  const [p, q] = [-w + 0.0015, w - 0.0015];
  const strip = Math.min(0.11, (height - low) * 0.16);
  const door = new MeshBuilder().add(board(p, -d, low + 0.002, q, f - 0.0004, front === 'its own' ? height - strip : height - 0.002, 0.003));
  const controls = new MeshBuilder();
  const marks = new MeshBuilder();
  if (front === 'its own') {
    door.add(board(p, -d, height - strip + 0.0015, q, f - 0.0004, height - 0.002, 0.003));
    for (let k = 0; k < 5; k++)
      controls.add(board(-0.02 + k * 0.034, -d - 0.0014, height - strip * 0.62, 0.004 + k * 0.034, -d + 0.001, height - strip * 0.4, 0.001));
    marks.add(board(-w * 0.8, -d - 0.0006, height - strip * 0.6, -w * 0.35, -d + 0.0004, height - strip * 0.38, 0.0004));
  } else {
    // Its controls are on the edge of its door, seen when it is open.
    for (let k = 0; k < 5; k++) controls.add(board(-0.1 + k * 0.05, -d + 0.006, height - 0.0022, -0.076 + k * 0.05, f - 0.008, height - 0.0008, 0.0005));
    marks.add(board(-w * 0.8, -d + 0.006, height - 0.0022, -w * 0.4, f - 0.008, height - 0.0012, 0.0004));
  }
  return [
    { part: 'fronts', mesh: door.build(), joint },
    { part: 'controls', mesh: controls.build(), joint },
    { part: 'marks', mesh: marks.build(), joint },
    ...(front === 'its own' ? [{ part: 'handles', mesh: handleBar(0, -d, height - strip - 0.045, width * 0.72), joint }] : []),
    { part: 'tub', mesh: tub.build() },
    { part: 'baskets', mesh: baskets.build() },
    { part: 'feet', mesh: feet.build() },
  ];
}

const washTraits = z.object({ kind: choice('Kind', ['washer', 'dryer'], 'washer') });

/** A washer or a dryer: a round door before its drum. */
function washer({ width, depth, height }: PieceSize, { kind }: z.output<typeof washTraits>): Made[] {
  const [w, d] = [width / 2, depth / 2];
  const f = -d + 0.03;
  const foot = 0.02;
  const [body, drum, controls, marks, feet, display] = Array.from({ length: 6 }, () => new MeshBuilder());
  const strip = height - 0.13;
  const middle = foot + (strip - foot) * 0.52;
  const r = Math.min(0.165, w * 0.62, (strip - foot) * 0.36);
  const case_ = { x0: -w, x1: w, y0: f + 0.02, y1: d, z0: foot, z1: height - 0.022 };
  body.add(shellOf(case_, 0.01)).add(board(-w, f - 0.002, height - 0.0216, w, d, height, 0.006));
  // The front stands round the opening in four boards, with a ring in it.
  const q = r * 1.08;
  body
    .add(board(-w, f, foot, w, f + 0.0196, middle - q, 0.003))
    .add(board(-w, f, middle + q, w, f + 0.0196, strip - 0.001, 0.003))
    .add(board(-w, f + 0.0002, middle - q, -q, f + 0.0194, middle + q, 0.0008))
    .add(board(q, f + 0.0002, middle - q, w, f + 0.0194, middle + q, 0.0008))
    .add(
      turned(
        [
          [r * 0.98, 0],
          [q * 1.1, 0],
          [q * 1.46, 0.0085],
          [q * 1.46, 0.012],
          [r * 0.98, 0.012],
          [r * 0.98, 0],
        ],
        { segments: 40, round: 0 },
      ),
      upright(0, f + 0.0158, middle),
    );
  body.add(board(-w, f, strip + 0.001, w, f + 0.0196, height - 0.0222, 0.003));
  // The drum is seen through the door.
  drum.add(
    turned(
      [
        [0, 0.02],
        [r * 1.18, 0.02],
        [r * 1.22, 0.04],
        [r * 1.22, depth - 0.12],
        [r, depth - 0.095],
        [r - 0.004, depth - 0.095],
        [r * 1.2 - 0.006, depth - 0.125],
        [r * 1.2 - 0.006, 0.045],
        [r * 1.1, 0.026],
        [0, 0.026],
      ],
      { segments: 36, round: 0.002 },
    ),
    upright(0, d - 0.02, middle),
  );
  const { knob, mark } = knobOn(w * 0.12, f, (strip + height - 0.022) / 2, 0.026);
  controls.add(knob);
  marks.add(mark);
  display.add(board(w * 0.42, f - 0.0015, strip + 0.03, w * 0.86, f + 0.001, height - 0.052, 0.0008));
  for (let k = 0; k < 4; k++)
    controls.add(board(w * (0.44 + 0.11 * k), f - 0.0016, strip + 0.012, w * (0.44 + 0.11 * k) + 0.014, f + 0.001, strip + 0.02, 0.0008));
  // The drawer for powder, or the one for water.
  body.add(board(-w + 0.02, f - 0.004, strip + 0.016, -w * 0.38, f + 0.004, height - 0.04, 0.003));
  for (const x of [-1, 1]) for (const y of [f + 0.09, d - 0.06]) feet.add(post(x * (w - 0.06), y, 0, foot + 0.0004, 0.02, undefined, 14));
  const hung = kind === 'washer' ? -1 : 1;
  const joint: Joint = { kind: 'hinge', at: v3(hung * q * 1.36, f, 0), axis: v3(0, 0, hung), range: [0, (110 * Math.PI) / 180] };
  const ring = new MeshBuilder().add(
    turned(
      [
        [r * 0.82, 0],
        [r * 1.34, 0],
        [r * 1.34, 0.014],
        [r * 1.2, 0.026],
        [r * 0.9, 0.026],
        [r * 0.82, 0.018],
        [r * 0.82, 0],
      ],
      { segments: 44, round: 0.002 },
    ),
    upright(0, f - 0.0004, middle),
  );
  const glass = new MeshBuilder().add(
    turned(
      [
        [0, -0.05],
        [r * 0.5, -0.05],
        [r * 0.8, -0.02],
        [r * 0.83, 0.012],
        [r * 0.8, 0.016],
        [r * 0.76, -0.016],
        [r * 0.48, -0.044],
        [0, -0.044],
      ],
      { segments: 36, round: 0.004 },
    ),
    upright(0, f - 0.0004, middle),
  );
  return [
    { part: 'fronts', mesh: ring.build(), joint },
    { part: 'glass', mesh: glass.build(), joint },
    { part: 'handles', mesh: board(-hung * r * 1.24 - 0.012, f - 0.034, middle - 0.045, -hung * r * 1.24 + 0.012, f - 0.012, middle + 0.045, 0.005), joint },
    { part: 'body', mesh: body.build() },
    { part: 'drum', mesh: drum.build() },
    { part: 'controls', mesh: controls.build() },
    { part: 'marks', mesh: marks.build() },
    { part: 'display', mesh: display.build() },
    { part: 'feet', mesh: feet.build() },
  ];
}

export const laundry: StockItem[] = [
  maker({
    id: 'dishwasher',
    name: 'Dishwasher',
    category: 'Appliances',
    traits: dishTraits,
    size: { width: 0.598, depth: 0.58, height: 0.82 },
    min: { width: 0.44, depth: 0.5, height: 0.66 },
    max: { width: 0.62, depth: 0.65, height: 0.88 },
    mount: 'floor',
    builtIn: { word: 'dishwasher', how: ({ front }) => (front === 'its own' ? 'stands' : 'behind') },
    parts: {
      fronts: 'metal.steel-brushed',
      controls: 'metal.chrome',
      marks: 'glass.smoke',
      handles: 'metal.steel-brushed',
      tub: 'metal.steel-polished',
      baskets: 'paint.skein',
      feet: 'metal.powder-black',
    },
    words: 'dishes washing machine',
    sold: { supplier: 'Relay Street Electrical', price: 520 },
    clear: { front: 0.9 },
    connections: ['water', 'waste', 'socket'],
    cards: [
      { id: 'dishwasher', name: 'Dishwasher' },
      { id: 'dishwasher-narrow', name: 'Dishwasher, narrow', size: { width: 0.448, depth: 0.58, height: 0.82 } },
      { id: 'dishwasher-built-in', name: 'Dishwasher, built in', size: { width: 0.598, depth: 0.55, height: 0.7 }, traits: { front: 'of the unit' } },
    ],
    make: dishwasher,
    symbol: ({ width, depth }) => [
      outline(rectangle(width, depth)),
      stroke([-width / 2, -depth / 2], [width / 2, depth / 2]),
      stroke([-width / 2, depth / 2], [width / 2, -depth / 2]),
    ],
  }),
  maker({
    id: 'washer',
    name: 'Washer',
    category: 'Appliances',
    traits: washTraits,
    size: { width: 0.6, depth: 0.6, height: 0.85 },
    min: { width: 0.5, depth: 0.45, height: 0.8 },
    max: { width: 0.69, depth: 0.7, height: 0.98 },
    mount: 'floor',
    builtIn: { word: 'washer', how: () => 'stands' },
    parts: {
      fronts: 'metal.chrome',
      glass: 'glass.smoke',
      handles: 'metal.powder-black',
      body: 'metal.enamel-white',
      drum: 'metal.steel-polished',
      controls: 'metal.steel-brushed',
      marks: 'paint.soot',
      display: 'glass.smoke',
      feet: 'metal.powder-black',
    },
    words: 'washing machine laundry dryer tumble',
    sold: { supplier: 'Relay Street Electrical', price: 460 },
    clear: { front: 0.9 },
    connections: ['water', 'waste', 'socket'],
    cards: [
      { id: 'washer', name: 'Washing machine' },
      { id: 'dryer', name: 'Dryer', traits: { kind: 'dryer' } },
    ],
    make: washer,
    symbol: ({ width, depth }) => [outline(rectangle(width, depth)), outline(circle(Math.min(width, depth) * 0.36))],
  }),
];
