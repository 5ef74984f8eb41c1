import { z } from 'zod';
import type { Joint } from '../../geometry/joint';
import { MeshBuilder, type Mesh } from '../../geometry/mesh';
import { isLight, roundedBox } from '../../geometry/shapes';
import type { Vec3 } from '../../geometry/vec';
import { between, collar, eggRing, eggSteps, roseOn, shellFrom, wasteOf } from '../forms/sanitary';
import { curve, loft, rod } from '../forms/skin';
import { post } from '../forms/turned';
import { choice, length } from '../traits';
import { maker, outline, rounded, v3, type Made, type PieceSize, type StockItem } from '../types';

const wcTraits = z.object({
  form: choice('Form', ['close coupled', 'back to wall', 'wall hung', 'high cistern'], 'close coupled'),
  rim: length('Height of the rim', { min: 0.38, max: 0.5, first: 0.4, step: 0.01 }),
});
type WcTraits = z.output<typeof wcTraits>;

/** Depth of a cistern that stands on the pan, how far a pan hangs above the floor, how thick the wall of its bowl is, metres. */
const CISTERN = 0.18;
const HUNG = 0.08;
const WALL = 0.028;

/** What rises and falls between the pan and its seat, and between that and its lid, metres: buffers of rubber. */
const GAP = 0.003;

/** Room beside what one sits on or stands at, so that its middle is as far from a wall as the trade has it, metres. @param width of it */
export const besideMiddle = (width: number): number => Math.max(0, MIDDLE - width / 2);

/** How far the middle of a WC, a bidet, a basin is from a wall beside it, metres (trade figures). */
const MIDDLE = 0.4;

/** The plan of a pan: how far it goes before and behind the middle of its bowl. */
interface Plan {
  width: number;
  /** The middle of the bowl. */
  y: number;
  front: number;
  back: number;
}

/** The plan of a pan between its front and the place where its cistern or its wall begins. */
function planOf({ width, depth }: PieceSize, behind: number): Plan {
  const [f, b] = [-depth / 2, depth / 2 - behind];
  const long = b - f;
  const front = Math.min(long * 0.58, width * 0.78);
  return { width, y: f + front, front, back: long - front };
}

const eggAt = ({ width, y, front, back }: Plan, n: number, by: number, z: number, square = 4): Vec3[] =>
  eggRing({ width: Math.max(0.02, width - 2 * by), front: Math.max(0.01, front - by), back: Math.max(0.01, back - by), y, z, square }, n);

/** A pan: its foot, a waist, its rim, the bowl down to the water and the trap. */
function pan(plan: Plan, rim: number, foot: number, standing: boolean, shelf: number): { pan: Mesh; water: Mesh } {
  const n = eggSteps(plan.width);
  const waist = (t: number): number => {
    // From the foot in, then out to the rim; one that hangs is drawn in below instead.
    if (!standing) return (1 - t) ** 1.8 * plan.width * 0.3;
    const foot_ = plan.width * 0.17;
    return (
      foot_ +
      plan.width * 0.04 * Math.sin(Math.PI * Math.min(1, t * 1.7)) -
      foot_ * Math.max(0, (t - 0.35) / 0.65) ** 1.3 -
      (t > 0.35 ? plan.width * 0.02 * Math.sin(Math.PI * t) : 0)
    );
  };
  const top = rim;
  const shares = isLight() ? [0, 0.45, 0.92] : [0, 0.05, 0.14, 0.26, 0.38, 0.5, 0.62, 0.74, 0.84, 0.92];
  const outside = shares.map((t) => eggAt(plan, n, Math.max(0.001, waist(t)), foot + (t === 0 ? 0 : t * (top - foot)), standing ? 5 : 4));
  const rounded = isLight() ? [1] : [0, 0.35, 0.7, 1];
  const r = 0.012;
  const over = rounded.map((t) => eggAt(plan, n, 0.001 + r * (1 - Math.cos((Math.PI / 2) * t)), top - r * (1 - Math.sin((Math.PI / 2) * t))));
  // Behind the bowl the pan goes on as a shelf that bears the seat.
  const bowl: Plan = { ...plan, back: Math.min(plan.back - shelf, plan.front * 1.05) };
  const deep = Math.min(0.2, (top - foot) * 0.62);
  const inner = (isLight() ? [0, 0.4, 0.8] : [0, 0.06, 0.18, 0.32, 0.48, 0.64, 0.8, 0.92]).map((t) => {
    const by = WALL + 0.012 + (t < 0.06 ? 0 : plan.width * 0.3 * ((t - 0.06) / 0.94) ** 1.5);
    return eggAt(bowl, n, by, top - t * deep, 2.4);
  });
  const lip = isLight() ? [] : [eggAt(bowl, n, WALL, top, 2.4), eggAt(bowl, n, WALL + 0.006, top - 0.002, 2.4)];
  const sump = { x: 0, y: bowl.y + bowl.back * 0.25, z: top - deep - 0.05, radius: plan.width * 0.13 };
  const first = outside[0].map((p) => ({ ...p, z: foot }));
  const base = isLight()
    ? []
    : [between(first, eggAt(plan, n, waist(0) + 0.006, foot, standing ? 5 : 4), 1), eggAt(plan, n, waist(0) + 0.002, foot + 0.002, standing ? 5 : 4)];
  const rings = [
    ...base,
    ...outside.map((ring, k) => (k === 0 && !isLight() ? ring.map((p) => ({ ...p, z: foot + 0.008 })) : ring)),
    ...over,
    ...lip,
    ...inner,
  ];
  // The water stands over the trap.
  const last = inner[inner.length - 1];
  const level = top - deep + 0.035;
  const k = inner.findIndex((ring) => ring[0].z <= level);
  const [a, b] = [inner[Math.max(0, k - 1)], inner[k < 0 ? inner.length - 1 : k]];
  const t = a === b ? 1 : (a[0].z - level) / (a[0].z - b[0].z);
  const surface = between(a, b, Math.max(0, Math.min(1, t))).map((p) => ({ ...p, z: level }));
  const below = between(surface, last, 0.3).map((p) => ({ ...p, z: level - 0.012 }));
  return {
    pan: shellFrom(rings, sump, 0.9),
    water: loft([below, surface.map((p, i) => between([p], [below[i]], 0.02)[0])].map((ring, i) => ring.map((p) => ({ ...p, z: i ? level : level - 0.012 })))),
  };
}

/** The seat and the lid over it, which turn up about one axis behind the bowl. */
function seatAndLid(plan: Plan, rim: number, shelf: number): Made[] {
  const n = eggSteps(plan.width);
  const bowl: Plan = { ...plan, back: Math.min(plan.back - shelf * 0.55, plan.front * 1.25) };
  const joint: Joint = {
    kind: 'hinge',
    at: { x: 0, y: bowl.y + bowl.back - 0.012, z: rim + 0.02 },
    axis: { x: -1, y: 0, z: 0 },
    range: [0, (100 * Math.PI) / 180],
  };
  const [z0, z1] = [rim + GAP, rim + GAP + 0.016];
  const hole: Plan = { ...bowl, back: Math.min(bowl.back - 0.05, plan.front) };
  const seat = collar(eggAt(bowl, n, 0.002, 0, 3.2), eggAt(hole, n, 0.062, 0, 2.4), z0, z1, 0.006);
  const lidAt = (by: number, z: number): Vec3[] => eggAt(bowl, n, by, z, 3.2);
  const [l0, l1] = [z1 + GAP * 0.7, z1 + GAP * 0.7 + 0.017];
  const lid = loft(
    isLight()
      ? [lidAt(0.004, l0), lidAt(0, l0 + 0.004), lidAt(0.006, l1)]
      : [
          lidAt(0.005, l0),
          lidAt(0.0015, l0 + 0.001),
          lidAt(0, l0 + 0.004),
          lidAt(0, l1 - 0.008),
          lidAt(0.002, l1 - 0.003),
          lidAt(0.007, l1 - 0.0006),
          lidAt(0.014, l1),
          lidAt(0.06, l1 + 0.002),
        ],
    { crease: 0.9 },
  );
  const pins = new MeshBuilder();
  for (const s of [-1, 1])
    pins.add(rod([v3(s * plan.width * 0.16, joint.at.y, rim + 0.02), v3(s * plan.width * 0.28, joint.at.y, rim + 0.02)], 0.009, { section: 16 }));
  return [
    { part: 'seat', mesh: seat },
    { part: 'lid', mesh: lid, joint },
    { part: 'hinges', mesh: pins.build() },
  ];
}

/** The plate one flushes by, on the wall behind. */
function plate(y: number, z: number): Mesh {
  const out = new MeshBuilder().add(roundedBox(v3(-0.115, y - 0.008, z - 0.08), v3(0.115, y - 0.0004, z + 0.08), { radius: 0.004, steps: 3 }));
  for (const [x0, x1] of [
    [-0.098, 0.016],
    [0.022, 0.098],
  ])
    out.add(roundedBox(v3(x0, y - 0.0115, z - 0.062), v3(x1, y - 0.006, z + 0.062), { radius: 0.003, steps: 2 }));
  return out.build();
}

function wc(size: PieceSize, { form, rim: asked }: WcTraits): Made[] {
  const { width, depth, height } = size;
  const rim = Math.min(asked, height - 0.06);
  const d = depth / 2;
  const coupled = form === 'close coupled';
  const behind = coupled ? 0 : 0.0006;
  const plan = planOf(size, behind);
  const shelf = coupled ? CISTERN + 0.01 : 0.06;
  const own = pan(plan, rim, form === 'wall hung' ? HUNG : 0, form !== 'wall hung', shelf);
  const parts: Made[] = [{ part: 'pan', mesh: own.pan }, { part: 'water', mesh: own.water }, ...seatAndLid(plan, rim, shelf)];
  if (coupled) {
    const c = new MeshBuilder();
    const low = rim + 0.006;
    c.add(roundedBox(v3(-width / 2, d - CISTERN, low), v3(width / 2, d - 0.002, height - 0.035), { radius: 0.022, steps: 4 }));
    c.add(
      roundedBox(v3(-width / 2 - 0.003, d - CISTERN - 0.004, height - 0.033), v3(width / 2 + 0.003, d - 0.0006, height - 0.006), { radius: 0.01, steps: 3 }),
    );
    parts.push({ part: 'cistern', mesh: c.build() }, { part: 'button', mesh: post(0, d - CISTERN / 2, height - 0.008, height, 0.024, 0.022, 24) });
  } else if (form === 'high cistern') {
    const w = Math.min(0.44, width + 0.06) / 2;
    const [z0, z1] = [height - 0.32, height];
    const c = new MeshBuilder().add(roundedBox(v3(-w, d - 0.2, z0), v3(w, d - 0.002, z1 - 0.03), { radius: 0.024, steps: 4 }));
    c.add(roundedBox(v3(-w - 0.006, d - 0.208, z1 - 0.032), v3(w + 0.006, d - 0.0006, z1), { radius: 0.01, steps: 3 }));
    const metal = new MeshBuilder().add(
      rod(
        curve(
          [v3(0, d - 0.07, z0 + 0.01), v3(0, d - 0.07, z0 - 0.1), v3(0, d - 0.045, z0 - 0.3), v3(0, d - 0.045, rim + 0.1), v3(0, d - 0.07, rim - 0.04)],
          isLight() ? 2 : 6,
        ),
        0.018,
        { section: 18 },
      ),
    );
    for (const z of [z0 - 0.34, (z0 + rim) / 2]) metal.add(roseOn(0, d, z, 0.03, 0.02));
    metal
      .add(rod([v3(w * 0.6, d - 0.22, z0 + 0.24), v3(w * 0.6, d - 0.22, z0 - 0.45)], 0.003, { section: 8 }))
      .add(rod([v3(w * 0.6, d - 0.22, z0 - 0.45), v3(w * 0.6, d - 0.22, z0 - 0.54)], (t) => 0.008 + 0.008 * t, { section: 14 }));
    metal.add(rod([v3(w * 0.6, d - 0.1, z0 + 0.24), v3(w * 0.6, d - 0.226, z0 + 0.24)], 0.006, { section: 10 }));
    for (const s of [-1, 1])
      metal.add(rod([v3(s * w * 0.7, d, z0 - 0.14), v3(s * w * 0.7, d, z0 - 0.006), v3(s * w * 0.7, d - 0.18, z0 - 0.006)], 0.007, { section: 10 }));
    parts.push({ part: 'cistern', mesh: c.build() }, { part: 'button', mesh: metal.build() });
  } else parts.push({ part: 'button', mesh: plate(d, Math.min(height - 0.09, 1.02)) });
  return parts.filter((p) => p.mesh.indices.length);
}

const bidetTraits = z.object({ form: choice('Form', ['standing', 'wall hung'], 'standing') });

function bidet(size: PieceSize, { form }: z.output<typeof bidetTraits>): Made[] {
  const { width, height } = size;
  const plan = planOf(size, 0.0006);
  const n = eggSteps(width);
  const hung = form === 'wall hung';
  const rim = height - 0.1;
  const foot = hung ? HUNG : 0;
  const inset = (t: number): number => (hung ? (1 - t) ** 1.8 * width * 0.3 : width * 0.15 * (1 - t) ** 1.2);
  const shares = isLight() ? [0, 0.5, 0.95] : [0, 0.04, 0.15, 0.3, 0.45, 0.6, 0.75, 0.88, 0.95];
  const outside = shares.map((t) => eggAt(plan, n, 0.001 + inset(t), foot + t * (rim - foot)));
  const r = 0.01;
  const over = (isLight() ? [1] : [0, 0.35, 0.7, 1]).map((t) =>
    eggAt(plan, n, 0.001 + r * (1 - Math.cos((Math.PI / 2) * t)), rim - r * (1 - Math.sin((Math.PI / 2) * t))),
  );
  // Behind the bowl its rim is a ledge for the tap.
  const bowl: Plan = { ...plan, back: Math.min(plan.back - 0.11, plan.front) };
  const deep = 0.13;
  const inner = (isLight() ? [0, 0.5, 1] : [0, 0.02, 0.1, 0.25, 0.45, 0.65, 0.82, 0.94, 1]).map((t) =>
    eggAt(bowl, n, 0.04 + (t < 0.02 ? 0 : 0.004) + width * 0.16 * t ** 3, rim - 0.0002 - t * deep, 2.4),
  );
  const waste = { x: 0, y: bowl.y, z: rim - deep - 0.008, radius: 0.03 };
  const ledge = bowl.y + bowl.back + (plan.y + plan.back - bowl.y - bowl.back) / 2 - 0.02;
  const tap = new MeshBuilder()
    .add(post(0, ledge, rim - 0.002, rim + 0.05, 0.022, 0.019, 20))
    .add(
      rod(
        curve(
          [v3(0, ledge, rim + 0.03), v3(0, ledge - 0.03, rim + 0.06), v3(0, ledge - 0.09, rim + 0.055), v3(0, ledge - 0.1, rim + 0.035)],
          isLight() ? 2 : 5,
        ),
        0.011,
        { section: 14 },
      ),
    )
    .add(rod([v3(0, ledge, rim + 0.048), v3(0, ledge + 0.004, rim + 0.066), v3(0, ledge - 0.05, rim + 0.088)], (t) => 0.009 - 0.003 * t, { section: 12 }));
  return [
    { part: 'pan', mesh: shellFrom([...outside, ...over, ...inner], waste) },
    { part: 'tap', mesh: tap.build() },
    { part: 'waste', mesh: wasteOf(waste) },
  ];
}

const eggLine = (size: PieceSize, behind: number, by: number, back = 0) => {
  const plan = planOf(size, behind);
  return outline(eggAt({ ...plan, back: plan.back - back }, 28, by, 0, back ? 2.4 : 4).map(({ x, y }) => ({ x, y })));
};

export const pans: StockItem[] = [
  maker({
    id: 'wc',
    name: 'WC',
    category: 'Bathroom',
    traits: wcTraits,
    size: { width: 0.38, depth: 0.66, height: 0.8 },
    min: { width: 0.34, depth: 0.46, height: 0.7 },
    max: { width: 0.42, depth: 0.75, height: 2.3 },
    mount: 'floor',
    parts: {
      pan: 'ceramic.white',
      seat: 'ceramic.white',
      lid: 'ceramic.white',
      hinges: 'metal.chrome',
      cistern: 'ceramic.white',
      button: 'metal.chrome',
      water: 'water.pool',
    },
    words: 'toilet lavatory bathroom',
    sold: { supplier: 'Sluice & Penn', price: 340 },
    clear: ({ width }) => ({ front: 0.6, sides: besideMiddle(width) }),
    connections: ['water', 'waste'],
    cards: [
      { id: 'wc', name: 'WC' },
      {
        id: 'wc-wall',
        name: 'WC, back to wall',
        size: { width: 0.36, depth: 0.54, height: 1.12 },
        traits: { form: 'back to wall' },
        words: 'concealed cistern',
      },
      { id: 'wc-hung', name: 'WC, wall hung', size: { width: 0.36, depth: 0.54, height: 1.12 }, traits: { form: 'wall hung' }, words: 'concealed frame' },
      { id: 'wc-short', name: 'Short WC', size: { width: 0.36, depth: 0.48, height: 1.12 }, traits: { form: 'wall hung' }, words: 'cloakroom' },
      { id: 'wc-high', name: 'WC, raised rim', size: { width: 0.38, depth: 0.75, height: 0.86 }, traits: { rim: 0.48 }, words: 'wheelchair comfort height' },
      {
        id: 'wc-cistern',
        name: 'WC with a high cistern',
        size: { width: 0.38, depth: 0.66, height: 2.1 },
        traits: { form: 'high cistern' },
        words: 'chain traditional',
      },
    ],
    make: wc,
    symbol(size, { form }) {
      const coupled = form === 'close coupled';
      return [
        ...(coupled ? [outline(rounded(size.width, CISTERN, 0.02, 0, size.depth / 2 - CISTERN / 2))] : []),
        ...(form === 'high cistern' ? [outline(rounded(size.width, 0.2, 0.02, 0, size.depth / 2 - 0.1), true)] : []),
        eggLine(size, coupled ? CISTERN * 0.4 : 0, 0.001),
        eggLine(size, coupled ? CISTERN * 0.4 : 0, 0.06, 0.08),
      ];
    },
  }),
  maker({
    id: 'bidet',
    name: 'Bidet',
    category: 'Bathroom',
    traits: bidetTraits,
    size: { width: 0.36, depth: 0.54, height: 0.5 },
    min: { width: 0.34, depth: 0.48, height: 0.46 },
    max: { width: 0.42, depth: 0.62, height: 0.56 },
    mount: 'floor',
    parts: { pan: 'ceramic.white', tap: 'metal.chrome', waste: 'metal.chrome' },
    words: 'bathroom washing',
    sold: { supplier: 'Sluice & Penn', price: 290 },
    clear: ({ width }) => ({ front: 0.6, sides: besideMiddle(width) }),
    connections: ['water', 'waste'],
    cards: [
      { id: 'bidet', name: 'Bidet' },
      { id: 'bidet-hung', name: 'Bidet, wall hung', traits: { form: 'wall hung' } },
    ],
    make: bidet,
    symbol: (size) => [eggLine(size, 0, 0.001), eggLine(size, 0, 0.05, 0.11)],
  }),
];
