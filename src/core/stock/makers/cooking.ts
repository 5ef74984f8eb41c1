import { z } from 'zod';
import { MeshBuilder, type Mesh } from '../../geometry/mesh';
import { isLight } from '../../geometry/shapes';
import type { Joint } from '../../geometry/joint';
import { board } from '../forms/boards';
import { roundRectangle, slab } from '../forms/flat';

import { burner, handleBar, knobOn, rackOf, ringMark, shellOf, type Span } from '../forms/metalwork';
import { loft } from '../forms/skin';
import { post } from '../forms/turned';
import { choice, count, toggle } from '../traits';
import { circle, maker, outline, rectangle, rounded, stroke, v3, type Made, type PieceSize, type StockItem } from '../types';

/** Parts by name, in the order they were first put into. */
type Bag = Record<string, MeshBuilder>;

/** How thick the front of an oven is, and the strip of its controls high, metres. */
const DOOR = 0.035;
const FASCIA = 0.11;

/** How far a door that comes down opens, radians. */
const DOWN = (88 * Math.PI) / 180;

/** A door of glass in a frame that comes down, or hangs at its left. */
function ovenDoor(out: Made[], { x0, x1, z0, z1 }: Omit<Span, 'y0' | 'y1'>, y: number, side: boolean): void {
  const joint: Joint = side
    ? { kind: 'hinge', at: v3(x0, y, 0), axis: v3(0, 0, -1), range: [0, DOWN] }
    : { kind: 'hinge', at: v3(0, y, z0), axis: v3(1, 0, 0), range: [0, DOWN] };
  const f = y - DOOR;
  const frame = new MeshBuilder();
  const rail = Math.min(0.055, (z1 - z0) * 0.2);
  // Its frame stands behind a pane that covers it.
  frame
    .add(board(x0 + 0.004, f + 0.005, z0 + 0.004, x0 + 0.06, y - 0.002, z1 - 0.004))
    .add(board(x1 - 0.06, f + 0.005, z0 + 0.004, x1 - 0.004, y - 0.002, z1 - 0.004))
    .add(board(x0 + 0.06, f + 0.005, z0 + 0.004, x1 - 0.06, y - 0.002, z0 + 0.06))
    .add(board(x0 + 0.06, f + 0.005, z1 - rail - 0.02, x1 - 0.06, y - 0.002, z1 - 0.004));
  const glass = new MeshBuilder()
    .add(board(x0, f, z0, x1, f + 0.0044, z1, 0.0016))
    .add(board(x0 + 0.05, y - 0.012, z0 + 0.05, x1 - 0.05, y - 0.008, z1 - rail - 0.012));
  const across = (x0 + x1) / 2;
  const handle = side ? handleBar(x1 - 0.04, f, (z0 + z1) / 2, (z1 - z0) * 0.7, true) : handleBar(across, f, z1 - rail * 0.6, (x1 - x0) * 0.86);
  out.push({ part: 'fronts', mesh: frame.build(), joint }, { part: 'glass', mesh: glass.build(), joint }, { part: 'handles', mesh: handle, joint });
}

/** What is behind an oven door: enamel, racks, the seal round it. */
function cavity(bag: Bag, { x0, x1, y0, y1, z0, z1 }: Span, racks: number): void {
  bag.cavity.add(shellOf({ x0, x1, y0: y0 + 0.004, y1, z0, z1 }, 0.03));
  for (let k = 1; k <= racks; k++) {
    const z = z0 + 0.03 + ((z1 - z0 - 0.06) * k) / (racks + 1);
    bag.metal.add(rackOf({ x0: x0 + 0.034, x1: x1 - 0.034, y0: y0 + 0.03, y1: y1 - 0.05 }, z));
  }
  const seal = (a: number, b: number, c: number, d: number): void => void bag.seal.add(board(a, y0 + 0.0005, b, c, y0 + 0.0042, d, 0.0012));
  seal(x0 + 0.012, z0 + 0.012, x1 - 0.012, z0 + 0.02);
  seal(x0 + 0.012, z1 - 0.02, x1 - 0.012, z1 - 0.012);
  seal(x0 + 0.012, z0 + 0.02, x0 + 0.02, z1 - 0.02);
  seal(x1 - 0.02, z0 + 0.02, x1 - 0.012, z1 - 0.02);
}

const bag = (...names: string[]): Bag => Object.fromEntries(names.map((n) => [n, new MeshBuilder()]));
const made = (own: Bag): Made[] => Object.entries(own).map(([part, builder]) => ({ part, mesh: builder.build() }));
const whole = (all: Made[]): Made[] => all.filter((p) => p.mesh.indices.length);

/** The strip of controls over a door: knobs, and a clock between them. */
function fascia(own: Bag, x0: number, x1: number, z0: number, z1: number, f: number, knobs: number): void {
  own.case.add(board(x0, f + 0.004, z0, x1, f + DOOR - 0.002, z1, 0.0016));
  const z = (z0 + z1) / 2;
  const w = x1 - x0;
  const middle = (x0 + x1) / 2;
  const wide = Math.min(0.16, w * 0.3);
  own.display.add(board(middle - wide / 2, f + 0.0015, z - 0.02, middle + wide / 2, f + 0.0036, z + 0.02, 0.0008));
  // Its hours in four figures.
  for (let k = 0; k < 4; k++) {
    const x = middle + (k - 1.5) * 0.016 + (k > 1 ? 0.004 : -0.004);
    own.marks
      .add(board(x - 0.004, f + 0.0004, z - 0.008, x + 0.004, f + 0.0014, z - 0.0068, 0.0003))
      .add(board(x - 0.004, f + 0.0004, z + 0.0068, x + 0.004, f + 0.0014, z + 0.008, 0.0003));
    own.marks.add(board(x + 0.0028, f + 0.0004, z - 0.0066, x + 0.004, f + 0.0014, z + 0.0066, 0.0003));
  }
  const r = Math.min(0.021, (z1 - z0) * 0.28);
  for (let k = 0; k < knobs; k++) {
    const left = k < knobs / 2;
    const of = Math.ceil(knobs / 2);
    const i = left ? k : k - of;
    const room = w / 2 - wide / 2 - 0.03;
    const x = left ? x0 + 0.03 + (room * (i + 0.5)) / of : x1 - 0.03 - (room * (i + 0.5)) / of;
    const { knob, mark } = knobOn(x, f + 0.0042, z, r);
    own.knobs.add(knob);
    own.marks.add(mark);
    if (!isLight())
      // Where it can be turned to.
      for (let m = 0; m < 7; m++) {
        const a = ((m - 3) * Math.PI) / 4.5 + Math.PI / 2;
        const [mx, mz] = [x + Math.cos(a) * (r + 0.007), z + Math.sin(a) * (r + 0.007)];
        own.marks.add(board(mx - 0.0008, f + 0.0031, mz - 0.0008, mx + 0.0008, f + 0.0042, mz + 0.0008, 0.0003));
      }
  }
}

const ovenTraits = z.object({ form: choice('Form', ['single', 'double', 'compact', 'microwave'], 'single') });

function oven({ width, depth, height }: PieceSize, { form }: z.output<typeof ovenTraits>): Made[] {
  const [w, d] = [width / 2, depth / 2];
  const own = bag('case', 'cavity', 'metal', 'seal', 'knobs', 'marks', 'display');
  const out: Made[] = [];
  const f = -d;
  const y = f + DOOR;
  // Its body goes into the carcass: narrower than its face.
  const b = w - 0.019;
  const high = Math.min(FASCIA, height * 0.24);
  if (form === 'microwave') {
    // Its controls are beside its door.
    const cut = w - Math.min(0.13, width * 0.24);
    own.case.add(board(cut + 0.002, f + 0.004, 0.002, w, y - 0.002, height - 0.002, 0.0016));
    own.display.add(board(cut + 0.02, f + 0.0015, height * 0.74, w - 0.018, f + 0.0036, height * 0.86, 0.0008));
    const { knob, mark } = knobOn((cut + w) / 2, f + 0.0042, height * 0.36, 0.024);
    own.knobs.add(knob);
    own.marks.add(mark);
    for (let k = 0; k < 3; k++)
      own.knobs.add(board(cut + 0.03, f + 0.001, height * (0.52 + 0.06 * k), w - 0.028, f + 0.0042, height * (0.52 + 0.06 * k) + 0.009, 0.001));
    cavity(own, { x0: -b, x1: cut - 0.03, y0: y, y1: d, z0: 0.02, z1: height - 0.02 }, 0);
    own.metal.add(post((cut - 0.03 - b) / 2, y + (d - y) / 2, 0.05, 0.056, Math.min(0.13, (d - y) / 2 - 0.05), undefined, 40));
    ovenDoor(out, { x0: -w, x1: cut - 0.002, z0: 0.002, z1: height - 0.002 }, y, true);
    return whole([...out, ...made(own)]);
  }
  const doors = form === 'double' ? [0.62, 0.38] : [1];
  const room = height - high - 0.004;
  fascia(own, -w, w, height - high, height, f, form === 'compact' ? 2 : form === 'double' ? 4 : 2);
  let z0 = 0.002;
  for (const share of doors) {
    const z1 = z0 + room * share - 0.003;
    ovenDoor(out, { x0: -w, x1: w, z0, z1 }, y, false);
    cavity(own, { x0: -b, x1: b, y0: y, y1: d, z0: z0 + 0.012, z1: z1 - 0.004 }, share < 0.5 || form === 'compact' ? 1 : 2);
    z0 = z1 + 0.003;
  }
  own.case.add(shellOf({ x0: -b + 0.0004, x1: b - 0.0004, y0: y, y1: d - 0.004, z0: height - high + 0.002, z1: height - 0.006 }, 0.004));
  return whole([...out, ...made(own)]);
}

const hobTraits = z.object({
  heat: choice('Heat', ['induction', 'gas', 'ceramic'], 'induction'),
  rings: count('Rings', { min: 2, max: 6, first: 4 }),
  draught: toggle('Draws off downwards', false),
});

/** What of a hob lies below the worktop, metres. */
const HOB_BODY = 0.05;

/** Width of the grille of a hob that draws off downwards, and the room on each side of it, metres; narrower hobs have none. */
const GRILLE = { wide: 0.085, beside: 0.012, least: 0.7 } as const;

/** What of a hob that draws off downwards lies below the worktop: its fan, metres. */
const FAN = 0.19;

/** Whether a hob is wide enough for a grille between its rings. */
const drawsOff = ({ width, height }: Pick<PieceSize, 'width' | 'height'>, { draught, heat }: z.output<typeof hobTraits>): boolean =>
  draught && heat !== 'gas' && width >= GRILLE.least && height >= FAN + 0.01;

/** At what height of a hob the face of the worktop lies, metres. */
const surfaceOf = (size: PieceSize, traits: z.output<typeof hobTraits>): number => (drawsOff(size, traits) ? FAN : HOB_BODY);

/** Where rings lie on both sides of a grille: two behind one another. */
function ringsBeside(width: number, depth: number): { x: number; y: number; r: number }[] {
  const [inner, outer] = [GRILLE.wide / 2 + GRILLE.beside, width / 2];
  const r = Math.min(0.105, ((outer - inner) / 2) * 0.9, depth * 0.21);
  return [-1, 1].flatMap((s) => [-1, 1].map((t) => ({ x: (s * (inner + outer)) / 2, y: t * depth * 0.23, r })));
}

/** Where rings of a hob lie, as shares of its width and depth from its middle, and how large they are. */
function ringsOf(n: number, width: number, depth: number): { x: number; y: number; r: number }[] {
  const wok = n === 3 || n === 5;
  const pairs = (wok ? n - 1 : n) / 2;
  const [w, d] = [width * 0.5, depth * 0.5];
  const columns = pairs + (wok ? 1 : 0);
  const at = (c: number): number => -w + (2 * w * (c + 0.5)) / columns;
  const most = Math.min((0.86 * w) / columns, d * 0.42);
  const out: { x: number; y: number; r: number }[] = [];
  for (let c = 0; c < columns; c++) {
    if (wok && c === Math.floor(columns / 2)) out.push({ x: at(c), y: 0.02, r: Math.min(0.125, (0.94 * w) / columns, d * 0.5) });
    else for (const s of [-1, 1]) out.push({ x: at(c), y: s * d * 0.46 + d * 0.06, r: Math.min(most, (c % 2 === 0) === s > 0 ? 0.105 : 0.08) });
  }
  return out;
}

/** Rings or burners on a plate whose surface is at a height, with what works them. */
function cooktop(own: Bag, width: number, depth: number, z: number, heat: string, n: number, beside = false): void {
  const field = beside ? ringsBeside(width - 0.02, depth - 0.06) : ringsOf(n, width - 0.02, depth - (heat === 'gas' ? 0.12 : 0.06));
  const front = -depth / 2 + 0.04;
  if (heat === 'gas') {
    for (const { x, y, r } of field) {
      const { cap, support } = burner(x, y + 0.035, z - 0.0005, r * 0.42);
      own.burners.add(cap);
      own.supports.add(support);
    }
    for (let k = 0; k < n; k++) {
      const x = (k - (n - 1) / 2) * Math.min(0.065, (width - 0.1) / n);
      own.knobs.add(post(x, front, z - 0.0005, z + 0.021, 0.017, 0.0155, 18));
      own.marks.add(board(x - 0.001, front + 0.003, z + 0.0208, x + 0.001, front + 0.014, z + 0.0216, 0.0003));
    }
    return;
  }
  for (const { x, y, r } of field) {
    own.marks.add(ringMark(x, y + 0.02, z, r));
    if (heat === 'ceramic') own.marks.add(ringMark(x, y + 0.02, z, r * 0.6));
    else
      for (const [a, b] of [
        [0.03, 0.0008],
        [0.0008, 0.03],
      ])
        own.marks.add(board(x - a / 2, y + 0.02 - b / 2, z - 0.0002, x + a / 2, y + 0.02 + b / 2, z + 0.0005, 0.0002));
  }
  for (let k = 0; k < n + 2; k++) {
    const x = (k - (n + 1) / 2) * 0.034;
    own.marks.add(ringMark(x, front, z, 0.006));
  }
}

/** How many rings a hob of a width has. */
const ringsFor = (rings: number, width: number): number => Math.min(rings, width < 0.5 ? 2 : width < 0.7 ? 4 : width < 0.85 ? 5 : 6);

function hob(size: PieceSize, traits: z.output<typeof hobTraits>): Made[] {
  const { width, depth } = size;
  const own = bag('plate', 'body', 'burners', 'supports', 'knobs', 'marks', 'grille');
  const beside = drawsOff(size, traits);
  const face = surfaceOf(size, traits);
  const z = face + 0.006;
  if (beside) {
    // Slats across it, and a fan under its body that blows out behind.
    const [long, half] = [depth * 0.62, GRILLE.wide / 2];
    const n = isLight() ? 6 : 16;
    for (const [x0, x1] of [
      [-half, -half + 0.006],
      [half - 0.006, half],
    ])
      own.grille.add(board(x0, -long / 2, z - 0.0002, x1, long / 2, z + 0.0036, 0.001));
    for (let k = 0; k < n; k++) {
      const y = -long / 2 + (long * k) / n;
      own.grille.add(board(-half + 0.0063, y, z + 0.0001, half - 0.0063, y + (long / n) * 0.55, z + 0.0032, 0.0006));
    }
    own.body.add(board(-0.14, -depth * 0.3, 0, 0.14, depth * 0.3, face - HOB_BODY - 0.0004, 0.004));
  }
  own.plate.add(slab(roundRectangle(width, depth, 0.008), face + 0.0004, z, 0.0025));
  own.body.add(slab(roundRectangle(width - 0.035, depth - 0.036, 0.01), face - HOB_BODY, face + 0.0003, 0.003));
  cooktop(own, width, depth, z, traits.heat, ringsFor(traits.rings, width), beside);
  return whole(made(own));
}

const hoodTraits = z.object({ form: choice('Form', ['chimney', 'canopy', 'box', 'flat'], 'chimney') });

function hood({ width, depth, height }: PieceSize, { form }: z.output<typeof hoodTraits>): Made[] {
  const own = bag('body', 'shaft', 'filters', 'knobs', 'light');
  const [w, d] = [width / 2, depth / 2];
  const box = form === 'box' || form === 'flat' ? height : Math.min(0.055, height * 0.4);
  own.body.add(shellBelow(-w, w, -d, d, 0, box));
  // Two filters of layered mesh, and two lights at the front.
  const n = width > 0.75 ? 3 : 2;
  for (let k = 0; k < n; k++) {
    const [x0, x1] = [-w + 0.03 + ((width - 0.06) * k) / n, -w + 0.03 + ((width - 0.06) * (k + 1)) / n];
    own.filters.add(board(x0 + 0.003, -d + 0.1, 0.006, x1 - 0.003, d - 0.03, 0.0145, 0.001));
    if (!isLight())
      for (let m = 1; m < 9; m++)
        own.filters.add(
          board(x0 + 0.012, -d + 0.1 + ((depth - 0.14) * m) / 9, 0.0042, x1 - 0.012, -d + 0.1 + ((depth - 0.14) * m) / 9 + 0.008, 0.0066, 0.0008),
        );
    own.filters.add(board((x0 + x1) / 2 - 0.03, -d + 0.104, 0.003, (x0 + x1) / 2 + 0.03, -d + 0.112, 0.0068, 0.001));
  }
  for (const x of [-0.3, 0.3]) own.light.add(post(width * x, -d + 0.055, 0.0062, 0.0095, 0.028, undefined, 24));
  for (let k = 0; k < 4; k++) own.knobs.add(post(w * 0.5 + k * 0.022, -d + 0.02, 0.0055, 0.009, 0.006, undefined, 12));
  const rectangleAt = (hw: number, y0: number, y1: number, zz: number) => [v3(-hw, y0, zz), v3(hw, y0, zz), v3(hw, y1, zz), v3(-hw, y1, zz)];
  const flue = Math.min(0.13, w * 0.8);
  if (form === 'canopy') {
    own.body.add(
      loft(
        [
          rectangleAt(w - 0.001, -d + 0.001, d, box + 0.0004),
          rectangleAt(w * 0.98, -d + 0.012, d, box + 0.012),
          rectangleAt(flue, d - 2 * Math.min(flue, d * 0.9), d, height),
        ],
        { crease: 0.3 },
      ),
    );
  } else if (form === 'chimney') {
    own.body.add(
      loft(
        [
          rectangleAt(w * 0.96, -d + 0.012, d, box + 0.0004),
          rectangleAt(flue + 0.01, d - 2 * Math.min(flue, d * 0.9) - 0.01, d, box + Math.min(0.06, height * 0.2)),
        ],
        { crease: 0.3 },
      ),
    );
    const split = box + (height - box) * 0.55;
    own.shaft.add(board(-flue, d - 2 * Math.min(flue, d * 0.9), box + Math.min(0.06, height * 0.2) + 0.0004, flue, d, split, 0.0015));
    own.shaft.add(board(-flue + 0.003, d - 2 * Math.min(flue, d * 0.9) + 0.003, split + 0.0004, flue - 0.003, d, height, 0.0015));
  }
  return whole(made(own));
}

/** A box that is open below for what is let into it, from its rim in. */
function shellBelow(x0: number, x1: number, y0: number, y1: number, z0: number, z1: number): Mesh {
  const t = 0.018;
  return new MeshBuilder()
    .add(board(x0, y0, z0, x0 + t, y1, z1))
    .add(board(x1 - t, y0, z0, x1, y1, z1))
    .add(board(x0 + t, y0 + 0.0003, z0, x1 - t, y0 + 0.035, z1 - 0.0003))
    .add(board(x0 + t, y1 - t, z0, x1 - t, y1, z1 - 0.0003))
    .add(board(x0 + t, y0 + 0.035, Math.max(z0 + 0.009, z0 + 0.0096), x1 - t, y1 - t, z1 - 0.0006))
    .build();
}

const rangeTraits = z.object({
  heat: choice('Heat', ['gas', 'induction'], 'gas'),
  doors: choice('Below', ['two ovens', 'an oven', 'three ovens'], 'two ovens'),
  rail: toggle('Rail before it', true),
});

/** Height of the feet of a range cooker, metres. */
const FEET = 0.09;

function rangeCooker({ width, depth, height }: PieceSize, { heat, doors, rail }: z.output<typeof rangeTraits>): Made[] {
  const own = bag('case', 'plate', 'cavity', 'metal', 'seal', 'knobs', 'marks', 'display', 'burners', 'supports', 'feet');
  const [w, d] = [width / 2, depth / 2];
  const out: Made[] = [];
  const top = height - 0.04;
  const f = -d;
  const y = f + DOOR;
  const lower = top - FASCIA - 0.02;
  fascia(own, -w, w, lower + 0.004, top - 0.016, f, Math.min(8, 4 + Math.round((width - 0.6) / 0.15)));
  own.plate.add(slab(roundRectangle(width, depth, 0.006), top - 0.0155, top, 0.003));
  own.plate.add(board(-w + 0.002, d - 0.022, top - 0.0004, w - 0.002, d - 0.0004, height, 0.003));
  cooktop(own, width - 0.04, depth - 0.06, top, heat === 'gas' ? 'gas' : 'induction', width < 0.75 ? 4 : width < 1 ? 5 : 6);
  const columns = doors === 'an oven' ? [1] : doors === 'two ovens' ? [0.58, 0.42] : [0.5, 0.5];
  let x0 = -w;
  columns.forEach((share, i) => {
    const x1 = x0 + width * share;
    const split = doors === 'three ovens' && i === 1 ? [FEET, (FEET + lower) / 2, lower] : [FEET, lower];
    for (let k = 0; k + 1 < split.length; k++) {
      const [z0, z1] = [split[k] + (k ? 0.002 : 0), split[k + 1] - 0.002];
      ovenDoor(out, { x0: x0 + 0.0015, x1: x1 - 0.0015, z0, z1 }, y, false);
      cavity(own, { x0: x0 + 0.018, x1: x1 - 0.018, y0: y, y1: d - 0.03, z0: z0 + 0.012, z1: z1 - 0.01 }, z1 - z0 < 0.34 ? 1 : 2);
    }
    x0 = x1;
  });
  own.case.add(shellOf({ x0: -w, x1: w, y0: y + 0.0004, y1: d - 0.002, z0: FEET - 0.01, z1: top - 0.016 }, 0.016));
  for (const x of [-1, 1]) for (const at of [-d + 0.08, d - 0.06]) own.feet.add(post(x * (w - 0.05), at, 0, FEET - 0.0096, 0.022, 0.018, 18));
  own.case.add(board(-w + 0.02, y + 0.03, 0.01, w - 0.02, y + 0.042, FEET - 0.011));
  if (rail) own.metal.add(handleBar(0, f + 0.002, top - 0.006, width * 0.96, false, 0.05));
  return whole([...out, ...made(own)]);
}

/** Lower ones have no window, metres. */
const LOWEST_WINDOW = 0.24;

const drawerTraits = z.object({ form: choice('Form', ['warming drawer', 'microwave drawer'], 'warming drawer') });

/** A drawer that is heated, under an oven; or one that is a microwave, with its controls over its window. */
function warmingDrawer({ width, depth, height }: PieceSize, { form }: z.output<typeof drawerTraits>): Made[] {
  const own = bag('case');
  const [w, d] = [width / 2, depth / 2];
  const y = -d + 0.02;
  const b = w - 0.019;
  own.case.add(shellOf({ x0: -b, x1: b, y0: y + 0.001, y1: d, z0: 0.004, z1: height - 0.006 }, 0.006));
  const joint: Joint = { kind: 'slide', at: v3(0, 0, 0), axis: v3(0, -1, 0), range: [0, depth * 0.7] };
  const box = new MeshBuilder();
  const [q, low, rim] = [b - 0.012, 0.016, height - 0.035];
  for (const s of [-1, 1]) box.add(board(s < 0 ? -q : q - 0.004, y + 0.0004, low, s < 0 ? -q + 0.004 : q, d - 0.05, rim));
  box.add(board(-q + 0.004, y + 0.0004, low, q - 0.004, d - 0.05, low + 0.004)).add(board(-q + 0.004, d - 0.054, low + 0.004, q - 0.004, d - 0.05, rim));
  const drawer = { part: 'drawer', mesh: box.build(), joint };
  if (form === 'warming drawer' || height < LOWEST_WINDOW)
    return [
      ...whole(made(own)),
      { part: 'fronts', mesh: board(-w, -d, 0.002, w, y, height - 0.002, 0.002), joint },
      { part: 'handles', mesh: handleBar(0, -d, height * 0.72, width * 0.5), joint },
      drawer,
    ];
  const fascia = height - 0.085;
  const [side, foot, head] = [0.06, 0.055, fascia - 0.03];
  const front = new MeshBuilder()
    .add(board(-w, -d, 0.002, -w + side, y, fascia - 0.003, 0.0016))
    .add(board(w - side, -d, 0.002, w, y, fascia - 0.003, 0.0016))
    .add(board(-w + side, -d, 0.002, w - side, y, foot, 0.0016))
    .add(board(-w + side, -d, head, w - side, y, fascia - 0.003, 0.0016));
  const controls = new MeshBuilder();
  for (let k = 0; k < 7; k++) controls.add(board(-0.09 + k * 0.026, -d - 0.0012, fascia + 0.03, -0.076 + k * 0.026, -d - 0.0002, fascia + 0.044, 0.0004));
  return [
    ...whole(made(own)),
    { part: 'fronts', mesh: front.build(), joint },
    { part: 'glass', mesh: board(-w + side + 0.0006, -d + 0.002, foot + 0.0006, w - side - 0.0006, -d + 0.0066, head - 0.0006, 0.0006), joint },
    // It is opened by its controls, which stay where they are.
    { part: 'display', mesh: board(-w, -d, fascia, w, y, height - 0.002, 0.0016) },
    { part: 'marks', mesh: controls.build() },
    drawer,
  ];
}

const STEEL = {
  case: 'metal.steel-brushed',
  fronts: 'metal.steel-brushed',
  handles: 'metal.steel-brushed',
  knobs: 'metal.steel-brushed',
  metal: 'metal.chrome',
};

export const cooking: StockItem[] = [
  maker({
    id: 'oven',
    name: 'Oven',
    category: 'Appliances',
    traits: ovenTraits,
    size: { width: 0.595, depth: 0.565, height: 0.595 },
    min: { width: 0.44, depth: 0.3, height: 0.35 },
    max: { width: 0.9, depth: 0.6, height: 1 },
    mount: 'floor',
    foot: 0.15,
    builtIn: { word: 'oven', how: () => 'cell' },
    parts: { ...STEEL, glass: 'glass.smoke', cavity: 'ceramic.ink', seal: 'paint.soot', marks: 'paint.skein', display: 'glass.smoke' },
    words: 'cooker built-in bake',
    sold: { supplier: 'Relay Street Electrical', price: 540 },
    clear: { front: 1 },
    connections: ['socket'],
    cards: [
      { id: 'oven', name: 'Oven, single' },
      { id: 'oven-double', name: 'Oven, double', size: { width: 0.595, depth: 0.565, height: 0.888 }, traits: { form: 'double' } },
      { id: 'oven-compact', name: 'Oven, compact', size: { width: 0.595, depth: 0.565, height: 0.455 }, traits: { form: 'compact' } },
      { id: 'microwave', name: 'Microwave, built in', size: { width: 0.595, depth: 0.33, height: 0.38 }, traits: { form: 'microwave' } },
    ],
    make: oven,
    symbol: ({ width, depth }) => [outline(rectangle(width, depth)), stroke([-width / 2, -depth / 2 + DOOR], [width / 2, -depth / 2 + DOOR])],
  }),
  maker({
    id: 'warming-drawer',
    name: 'Warming drawer',
    category: 'Appliances',
    traits: drawerTraits,
    size: { width: 0.595, depth: 0.55, height: 0.14 },
    min: { width: 0.44, depth: 0.4, height: 0.12 },
    max: { width: 0.76, depth: 0.6, height: 0.45 },
    mount: 'floor',
    foot: 0.15,
    builtIn: { word: 'warming drawer', how: () => 'cell' },
    parts: {
      case: 'metal.steel-brushed',
      fronts: 'metal.steel-brushed',
      handles: 'metal.steel-brushed',
      drawer: 'metal.steel-brushed',
      glass: 'glass.smoke',
      display: 'glass.smoke',
      marks: 'paint.skein',
    },
    words: 'plates microwave',
    cards: [
      { id: 'warming-drawer', name: 'Warming drawer' },
      { id: 'microwave-drawer', name: 'Microwave drawer', size: { width: 0.595, depth: 0.55, height: 0.38 }, traits: { form: 'microwave drawer' } },
    ],
    sold: { supplier: 'Relay Street Electrical', price: 380 },
    connections: ['socket'],
    make: warmingDrawer,
    symbol: ({ width, depth }) => [outline(rectangle(width, depth))],
  }),
  maker({
    id: 'hob',
    name: 'Hob',
    category: 'Appliances',
    traits: hobTraits,
    size: { width: 0.59, depth: 0.52, height: 0.06 },
    min: { width: 0.28, depth: 0.4, height: 0.056 },
    max: { width: 1, depth: 0.55, height: 0.22 },
    mount: 'floor',
    foot: 0.86,
    builtIn: {
      word: 'hob',
      how: () => 'top',
      surface: surfaceOf,
      // Trade figures: a hob of 590 × 520 goes into 560 × 490.
      cut: ({ width, depth }) => rounded(width - 0.03, depth - 0.03, 0.012),
    },
    parts: {
      plate: 'glass.smoke',
      body: 'metal.powder-black',
      grille: 'metal.powder-black',
      burners: 'metal.iron-black',
      supports: 'metal.iron-black',
      knobs: 'metal.steel-brushed',
      marks: 'paint.skein',
    },
    words: 'cooker induction gas ceramic rings downdraught extractor',
    sold: { supplier: 'Relay Street Electrical', price: 420 },
    clear: { front: 1, sides: 0.3 },
    connections: ['socket'],
    cards: [
      { id: 'hob', name: 'Hob, induction' },
      { id: 'hob-wide', name: 'Hob, induction, wide', size: { width: 0.8, depth: 0.52, height: 0.06 }, traits: { rings: 5 } },
      { id: 'hob-gas', name: 'Hob, gas', size: { width: 0.59, depth: 0.52, height: 0.1 }, traits: { heat: 'gas' }, finishes: { plate: 'metal.steel-brushed' } },
      {
        id: 'hob-gas-wide',
        name: 'Hob, gas, wide',
        size: { width: 0.75, depth: 0.52, height: 0.1 },
        traits: { heat: 'gas', rings: 5 },
        finishes: { plate: 'metal.steel-brushed' },
      },
      { id: 'hob-draught', name: 'Hob with downdraught', size: { width: 0.83, depth: 0.52, height: 0.2 }, traits: { draught: true } },
      { id: 'hob-two', name: 'Hob, two rings', size: { width: 0.3, depth: 0.52, height: 0.06 }, traits: { rings: 2, heat: 'ceramic' } },
    ],
    make: hob,
    symbol: (size, traits) => {
      const { width, depth } = size;
      const beside = drawsOff(size, traits);
      const field = beside
        ? ringsBeside(width - 0.02, depth - 0.06)
        : ringsOf(ringsFor(traits.rings, width), width - 0.02, depth - (traits.heat === 'gas' ? 0.12 : 0.06));
      return [
        outline(rounded(width, depth, 0.01)),
        ...(beside ? [outline(rectangle(GRILLE.wide, depth * 0.62))] : []),
        ...field.map(({ x, y, r }) => outline(circle(r * 0.9, x, y + 0.02, 20))),
      ];
    },
  }),
  maker({
    id: 'hood',
    name: 'Hood',
    category: 'Appliances',
    traits: hoodTraits,
    size: { width: 0.598, depth: 0.45, height: 0.9 },
    min: { width: 0.45, depth: 0.26, height: 0.12 },
    max: { width: 1.2, depth: 0.6, height: 1.6 },
    mount: 'wall',
    foot: 1.55,
    builtIn: { word: 'hood', how: ({ form }) => (form === 'flat' ? 'below' : 'hangs') },
    parts: { body: 'metal.steel-brushed', shaft: 'metal.steel-brushed', filters: 'metal.steel-polished', knobs: 'metal.chrome', light: 'glass.frosted' },
    words: 'extractor canopy chimney',
    sold: { supplier: 'Relay Street Electrical', price: 360 },
    connections: ['socket', 'flue'],
    cards: [
      { id: 'hood', name: 'Hood with chimney' },
      { id: 'hood-canopy', name: 'Canopy hood', size: { width: 0.9, depth: 0.5, height: 0.7 }, traits: { form: 'canopy' } },
      { id: 'hood-box', name: 'Box hood', size: { width: 0.9, depth: 0.5, height: 0.35 }, traits: { form: 'box' } },
      { id: 'hood-flat', name: 'Hood, built in', size: { width: 0.55, depth: 0.29, height: 0.15 }, traits: { form: 'flat' } },
    ],
    make: hood,
    symbol: ({ width, depth }) => [
      outline(rectangle(width, depth), true),
      outline(rectangle(Math.min(0.26, width), Math.min(0.26, depth), 0, depth / 2 - Math.min(0.13, depth / 2)), true),
    ],
  }),
  maker({
    id: 'range-cooker',
    name: 'Range cooker',
    category: 'Appliances',
    traits: rangeTraits,
    size: { width: 0.9, depth: 0.62, height: 0.94 },
    min: { width: 0.6, depth: 0.55, height: 0.86 },
    max: { width: 1.2, depth: 0.72, height: 1 },
    mount: 'floor',
    builtIn: { word: 'range cooker', how: () => 'stands' },
    parts: {
      ...STEEL,
      case: 'metal.enamel-green',
      fronts: 'metal.enamel-green',
      glass: 'glass.smoke',
      plate: 'metal.steel-brushed',
      cavity: 'ceramic.ink',
      seal: 'paint.soot',
      marks: 'paint.skein',
      display: 'glass.smoke',
      burners: 'metal.iron-black',
      supports: 'metal.iron-black',
      feet: 'metal.powder-black',
    },
    words: 'stove oven hob',
    sold: { supplier: 'Relay Street Electrical', price: 2450 },
    clear: { front: 1.1 },
    connections: ['socket'],
    cards: [
      { id: 'range-cooker', name: 'Range cooker, 900' },
      { id: 'range-cooker-wide', name: 'Range cooker, 1100', size: { width: 1.1, depth: 0.62, height: 0.94 }, traits: { doors: 'three ovens' } },
      {
        id: 'range-cooker-induction',
        name: 'Range cooker, induction',
        traits: { heat: 'induction' },
        finishes: { plate: 'glass.smoke', case: 'metal.powder-black', fronts: 'metal.powder-black' },
      },
    ],
    make: rangeCooker,
    symbol: ({ width, depth }) => [
      outline(rectangle(width, depth)),
      ...ringsOf(width < 0.75 ? 4 : width < 1 ? 5 : 6, width - 0.06, depth - 0.18).map(({ x, y, r }) => outline(circle(r * 0.9, x, y + 0.02, 20))),
    ],
  }),
];
