import { z } from 'zod';
import { MeshBuilder, type Mesh } from '../../geometry/mesh';
import { within } from '../../geometry/shapes';
import { distance, type Vec2 } from '../../geometry/vec';
import { DUST } from '../../units/tolerance';
import type { HandleStyle } from '../../project/schema/cabinets';
import { drawer, timber, type Moving } from '../forms/boards';
import { shiftBy, upright } from '../forms/carry';
import { ellipse, roundRectangle, slab } from '../forms/flat';
import { bar, squareSection } from '../forms/skin';
import { turned } from '../forms/turned';
import { choice, count, length, toggle } from '../traits';
import { maker, outline, rectangle, stroke, v3, type Made, type PieceSize, type SeatPlace, type StockItem } from '../types';
import { movingParts } from './moving';

const tableTraits = (leg: number) =>
  z.object({
    top: choice('Top', ['square corners', 'round corners', 'round'], 'square corners'),
    base: choice('Base', ['four legs', 'trestles', 'pedestal', 'frame', 'block'], 'four legs'),
    section: choice('Legs', ['round', 'square', 'turned', 'raked'], 'round'),
    leg: length('Leg', { min: 0.02, max: 0.12, first: leg, step: 0.001 }),
    thick: length('Thickness', { min: 0.015, max: 0.06, first: 0.032, step: 0.001 }),
    apron: toggle('Rails', true),
    leaf: length('Drawn out', { min: 0, max: 0.9, first: 0, step: 0.05 }),
    shelf: toggle('Shelf below', false),
  });

type TableTraits = z.output<ReturnType<typeof tableTraits>>;

/** The outline of a top: its corners, or none. */
const topOutline = ({ width, depth }: PieceSize, top: TableTraits['top']) =>
  top === 'round' ? ellipse(width, depth) : roundRectangle(width, depth, top === 'round corners' ? 0.28 * Math.min(width, depth) : 0.012);

/** A leg of a table between the floor and its rails. @param sx, sy where it leans to */
function tableLeg(x: number, y: number, top: number, leg: number, section: TableTraits['section'], sx: number, sy: number): Mesh {
  if (section === 'turned') {
    const r = leg / 2;
    const neck = top - Math.min(0.14, top * 0.3);
    return new MeshBuilder()
      .add(
        turned(
          [
            [0, 0],
            [r * 0.5, 0],
            [r * 0.62, 0.02],
            [r * 0.5, 0.05],
            [r * 0.66, top * 0.2],
            [r * 0.98, neck - 0.09],
            [r * 0.72, neck - 0.035],
            [r * 1.02, neck - 0.018],
            [r * 0.78, neck + 0.002],
            [0, neck + 0.002],
          ],
          { x, y, segments: 20 },
        ),
      )
      .add(timber(x - r, y - r, neck, x + r, y + r, top))
      .build();
  }
  const lean = section === 'raked' ? 0.09 : section === 'round' ? 0.015 : 0;
  return bar(v3(x + sx * lean, y + sy * lean, 0), v3(x, y, top), leg * (section === 'square' ? 0.42 : 0.34), leg / 2, {
    section: section === 'square' ? squareSection(0.12) : 16,
  });
}

function table(size: PieceSize, { top, base, section, leg, thick, apron, leaf, shelf }: TableTraits): Made[] {
  const { width, depth, height } = size;
  const [w, d] = [width / 2, depth / 2];
  const under = height - thick;
  const legs = new MeshBuilder();
  const tops = new MeshBuilder();
  // Leaves that are drawn out lie within the width; the fixed top lies between them.
  const drawn = top === 'square corners' && width - 2 * (leaf / 2) > 0.5 ? leaf / 2 : 0;
  const own = w - drawn;
  if (base === 'four legs') {
    // Under a round top they stand on a smaller rectangle.
    const k = top === 'round' ? Math.SQRT1_2 : 1;
    const lean = section === 'raked' ? 0.09 : 0.015;
    const inset = leg / 2 + (top === 'round' ? 0.02 : Math.max(0.012, Math.min(0.05, width * 0.03)) + (lean - 0.015));
    const [x1, y1] = [Math.max(0.08, own * k - inset), Math.max(0.06, d * k - inset)];
    for (const x of [-1, 1]) for (const y of [-1, 1]) legs.add(tableLeg(x * x1, y * y1, under + 0.002, leg, section, x, y));
    if (apron) {
      const rail = Math.min(0.09, height * 0.2);
      const t = Math.min(0.011, leg * 0.3);
      for (const y of [-1, 1]) legs.add(timber(-x1, y * y1 - t, under - rail, x1, y * y1 + t, under + 0.001));
      for (const x of [-1, 1]) legs.add(timber(x * x1 - t, -y1, under - rail + 0.0004, x * x1 + t, y1, under + 0.0006));
    }
    if (shelf) legs.add(timber(-x1 - 0.004, -y1 - 0.004, Math.min(0.16, under * 0.4), x1 + 0.004, y1 + 0.004, Math.min(0.16, under * 0.4) + 0.018));
  } else if (base === 'trestles') {
    const splay = Math.min(0.1, 0.3 * own);
    const [x1, y1] = [Math.min(own - splay - leg / 2, Math.max(own - 0.28, 0.35 * own)), Math.min(d - leg / 2, Math.max(d - 0.1, 0.5 * d))];
    const square = squareSection(0.15);
    for (const x of [-1, 1]) {
      for (const y of [-1, 1])
        for (const s of [-1, 1])
          legs.add(
            bar(v3(x * x1 + s * splay, y * y1, 0), v3(x * x1 + s * 0.006, y * y1 * 0.45, under - 0.03), leg * 0.42, leg / 2, { section: square, flat: 0.7 }),
          );
      legs.add(timber(x * x1 - leg * 0.6, -y1, under - 0.07, x * x1 + leg * 0.6, y1, under + 0.001));
      for (const s of [-1, 1])
        legs.add(bar(v3(x * x1 + s * splay * 0.66, -y1 * 0.8, under * 0.3), v3(x * x1 + s * splay * 0.66, y1 * 0.8, under * 0.3), leg * 0.25));
    }
    if (apron) legs.add(timber(-x1, -0.014, under * 0.45, x1, 0.014, under * 0.45 + 0.07));
  } else if (base === 'frame') {
    // Hoops of a flat bar at both ends.
    const t = leg / 2;
    const x1 = Math.max(0.1, own - Math.max(0.08, own * 0.16));
    const y1 = d * (top === 'round' ? 0.62 : 0.92);
    for (const x of [-1, 1]) {
      for (const y of [-1, 1]) legs.add(timber(x * x1 - t, y * y1 - (y > 0 ? 2 * t * 0.6 : 0), 0, x * x1 + t, y * y1 + (y > 0 ? 0 : 2 * t * 0.6), under));
      legs
        .add(timber(x * x1 - t + 0.0006, -y1 + t, 0.0008, x * x1 + t - 0.0006, y1 - t, t * 1.2))
        .add(timber(x * x1 - t + 0.0006, -y1 + t, under - t * 1.2, x * x1 + t - 0.0006, y1 - t, under + 0.001));
    }
    if (apron) legs.add(timber(-x1, -t, under - t * 1.4, x1, t, under - 0.001));
    if (shelf) legs.add(timber(-x1, -y1 * 0.9, t * 1.2, x1, y1 * 0.9, t * 1.2 + 0.016));
  } else if (base === 'block') {
    // Two upright boards, or one drum below a round top.
    if (top === 'round') legs.add(slab(ellipse(width * 0.56, depth * 0.56), 0, under + 0.001, 0.004));
    else for (const x of [-1, 1]) legs.add(timber(x * own * 0.72 - leg * 0.5, -d * 0.78, 0, x * own * 0.72 + leg * 0.5, d * 0.78, under + 0.001));
    if (top !== 'round' && apron) legs.add(timber(-own * 0.72, -0.016, under - 0.12, own * 0.72, 0.016, under));
  } else {
    const foot = Math.min(w, d) * 0.62;
    const r = leg * 0.7;
    legs.add(
      turned(
        [
          [0, 0],
          [foot, 0],
          [foot, 0.012],
          [foot * 0.6, 0.028],
          [r * 1.25, 0.05],
          [0, 0.05],
        ],
        { segments: 40, round: 0.003 },
      ),
    );
    // The post is turned from wood of its own, which runs up it.
    legs.add(
      turned(
        [
          [0, 0.046],
          [r * 1.24, 0.046],
          [r, 0.12],
          [r, under - 0.06],
          [r * 1.5, under - 0.02],
          [foot * 0.7, under - 0.012],
          [foot * 0.7, under + 0.001],
          [0, under + 0.001],
        ],
        { segments: 40, round: 0.003 },
      ),
    );
  }
  if (!drawn) tops.add(slab(topOutline(size, top), under, height, Math.min(0.009, thick * 0.3), 4));
  else {
    tops.add(slab(roundRectangle(2 * own, depth, 0.008), under, height, 0.006, 4));
    for (const x of [-1, 1]) {
      tops.add(slab(roundRectangle(drawn - 0.0015, depth, 0.008), under, height - 0.0004, 0.006, 4), shiftBy(x * (own + drawn / 2 + 0.00075), 0, 0));
      // It runs on bearers that come out with it.
      for (const y of [-1, 1])
        legs.add(timber(x > 0 ? own - 0.3 : -w + 0.05, y * d * 0.6 - 0.012, under - 0.045, x > 0 ? w - 0.05 : -own + 0.3, y * d * 0.6 + 0.012, under - 0.001));
    }
  }
  return [
    { part: 'top', mesh: tops.build() },
    { part: 'legs', mesh: legs.build() },
  ];
}

const tableSymbol = (size: PieceSize, { top, leaf }: TableTraits) => {
  const lines = [outline(within(0.0019, () => topOutline(size, top)))];
  if (top === 'square corners' && size.width - leaf > 0.5 && leaf > 0)
    for (const x of [-1, 1]) lines.push(stroke([x * (size.width - leaf) * 0.5, -size.depth / 2], [x * (size.width - leaf) * 0.5, size.depth / 2]));
  return lines;
};

/** The edge of a table that one takes up, and that is lost at its corners, metres. */
const PER_SEAT = 0.6;
const CORNERS = 0.1;
/** Round a round table one takes up a little more. */
const PER_SEAT_ROUND = 0.62;
/** From this depth on somebody sits at each end, and below the other one at one side only, metres. */
const END = 0.75;
const BOTH_SIDES = 0.55;
/** Lower ones are not sat at, metres. */
const SAT_AT = 0.65;

/** Where one sits at a table: evenly along its sides, at each end that is wide enough; round a round one by its edge, from its front. */
function placesAt({ width, depth, height }: PieceSize, { top }: TableTraits): SeatPlace[] {
  if (height < SAT_AT) return [];
  if (top === 'round') return roundPlaces(width / 2, depth / 2);
  const turned = depth > width;
  const [long, short] = turned ? [depth, width] : [width, depth];
  const along = Math.floor((long - CORNERS) / PER_SEAT + DUST);
  const out: SeatPlace[] = [];
  for (const side of short < BOTH_SIDES ? [-1] : [-1, 1])
    for (let i = 0; i < along; i++) out.push({ x: ((i + 0.5) / along - 0.5) * long, y: (side * short) / 2, rotation: side < 0 ? Math.PI : 0 });
  if (short >= END && short >= BOTH_SIDES)
    for (const side of [-1, 1]) out.push({ x: (side * long) / 2, y: 0, rotation: side < 0 ? Math.PI / 2 : -Math.PI / 2 });
  return turned ? out.map(({ x, y, rotation }) => ({ x: y, y: -x, rotation: rotation - Math.PI / 2 })) : out;
}

/** Points at equal ways along an ellipse, from its front, by the chords of many steps. */
function roundPlaces(a: number, b: number): SeatPlace[] {
  const steps = 720;
  const at = (k: number): Vec2 => ({ x: a * Math.sin((k / steps) * 2 * Math.PI), y: -b * Math.cos((k / steps) * 2 * Math.PI) });
  const ways = [0];
  for (let k = 1; k <= steps; k++) ways.push(ways[k - 1] + distance(at(k - 1), at(k)));
  const seats = Math.max(1, Math.floor(ways[steps] / PER_SEAT_ROUND));
  return Array.from({ length: seats }, (_, i) => {
    const k = ways.findIndex((way) => way >= (i / seats) * ways[steps] - DUST);
    const p = at(k);
    // A chair faces the table: its front looks against the normal of the edge.
    return { ...p, rotation: Math.atan2(p.y / (b * b), p.x / (a * a)) - Math.PI / 2 };
  });
}

export const tables: StockItem[] = [
  maker({
    id: 'table',
    name: 'Table',
    category: 'Tables',
    traits: tableTraits(0.065),
    size: { width: 1.8, depth: 0.9, height: 0.75 },
    min: { width: 0.6, depth: 0.3, height: 0.6 },
    max: { width: 3.2, depth: 1.6, height: 1.1 },
    mount: 'floor',
    parts: { top: 'timber.oak', legs: 'timber.oak' },
    sold: { supplier: 'Ferrow & Daughters', price: 960 },
    clear: (size, traits) => (placesAt(size, traits).length > 1 && size.depth > 0.55 ? { front: 0.75, back: 0.75, sides: 0.75 } : { front: 0.7 }),
    seats: (size, traits) => placesAt(size, traits).length,
    places: placesAt,
    cards: [
      { id: 'table', name: 'Dining table' },
      {
        id: 'table-round',
        name: 'Round table',
        size: { width: 1.2, depth: 1.2, height: 0.75 },
        traits: { top: 'round', base: 'pedestal', leg: 0.09 },
        words: 'dining',
      },
      { id: 'table-oval', name: 'Oval table', size: { width: 2, depth: 1.05, height: 0.75 }, traits: { top: 'round' }, words: 'dining' },
      {
        id: 'table-trestle',
        name: 'Trestle table',
        size: { width: 2, depth: 0.85, height: 0.75 },
        traits: { base: 'trestles', leg: 0.045 },
        words: 'dining desk',
      },
      {
        id: 'table-soft',
        name: 'Rounded table',
        size: { width: 1.6, depth: 0.9, height: 0.75 },
        traits: { top: 'round corners', apron: false },
        words: 'dining',
      },
      {
        id: 'table-farm',
        name: 'Farmhouse table',
        size: { width: 2, depth: 0.9, height: 0.76 },
        traits: { section: 'turned', leg: 0.085, thick: 0.036 },
        finishes: { top: 'timber.pine', legs: 'paint.putty-knife' },
        words: 'dining kitchen turned legs',
      },
      {
        id: 'table-extending',
        name: 'Extending table',
        size: { width: 2.2, depth: 0.9, height: 0.75 },
        traits: { section: 'square', leaf: 0.8, leg: 0.06 },
        words: 'dining leaves',
      },
      {
        id: 'table-raked',
        name: 'Raked-leg table',
        size: { width: 1.5, depth: 0.85, height: 0.74 },
        traits: { section: 'raked', apron: false, leg: 0.05, thick: 0.024, top: 'round corners' },
        words: 'dining',
      },
      {
        id: 'table-hoop',
        name: 'Hoop-leg table',
        size: { width: 1.8, depth: 0.9, height: 0.75 },
        traits: { base: 'frame', leg: 0.05, thick: 0.028 },
        finishes: { legs: 'metal.powder-black' },
        words: 'dining desk steel',
      },
      {
        id: 'console',
        name: 'Console table',
        size: { width: 1.2, depth: 0.34, height: 0.8 },
        traits: { leg: 0.04, section: 'square', shelf: true },
        words: 'hall',
      },
      { id: 'desk', name: 'Writing table', size: { width: 1.3, depth: 0.65, height: 0.74 }, traits: { leg: 0.045, thick: 0.026 }, words: 'desk study' },
      {
        id: 'table-bar',
        name: 'Bar table',
        size: { width: 0.7, depth: 0.7, height: 1.05 },
        traits: { top: 'round', base: 'pedestal', leg: 0.07 },
        words: 'high',
      },
    ],
    make: table,
    symbol: tableSymbol,
  }),
  maker({
    id: 'low-table',
    name: 'Low table',
    category: 'Tables',
    traits: tableTraits(0.032),
    size: { width: 1.1, depth: 0.6, height: 0.4 },
    min: { width: 0.3, depth: 0.3, height: 0.3 },
    max: { width: 1.6, depth: 1.2, height: 0.6 },
    mount: 'floor',
    parts: { top: 'timber.walnut', legs: 'metal.iron-black' },
    words: 'coffee side',
    sold: { supplier: 'Ferrow & Daughters', price: 420 },
    clear: { front: 0.4 },
    cards: [
      { id: 'low-table', name: 'Low table' },
      { id: 'low-table-round', name: 'Round low table', size: { width: 0.8, depth: 0.8, height: 0.38 }, traits: { top: 'round', apron: false } },
      { id: 'low-table-soft', name: 'Rounded low table', size: { width: 1.2, depth: 0.7, height: 0.36 }, traits: { top: 'round corners', apron: false } },
      {
        id: 'low-table-shelf',
        name: 'Low table with shelf',
        size: { width: 1.1, depth: 0.6, height: 0.42 },
        traits: { section: 'square', shelf: true, leg: 0.045 },
        finishes: { top: 'timber.oak', legs: 'timber.oak' },
      },
      {
        id: 'low-table-drum',
        name: 'Drum table',
        size: { width: 0.75, depth: 0.75, height: 0.36 },
        traits: { top: 'round', base: 'block', thick: 0.03 },
        finishes: { top: 'stone.travertine', legs: 'stone.travertine' },
      },
      {
        id: 'low-table-stone',
        name: 'Stone-top low table',
        size: { width: 1, depth: 0.55, height: 0.38 },
        traits: { base: 'frame', leg: 0.024, thick: 0.02, apron: false },
        finishes: { top: 'stone.marble-green' },
      },
      {
        id: 'side-table',
        name: 'Side table',
        size: { width: 0.42, depth: 0.42, height: 0.52 },
        traits: { top: 'round', base: 'pedestal', leg: 0.03, thick: 0.018 },
        words: 'lamp bedside',
      },
    ],
    make: table,
    symbol: tableSymbol,
  }),
  maker({
    id: 'nest',
    name: 'Nest of tables',
    category: 'Tables',
    traits: z.object({
      count: count('Tables', { min: 2, max: 4, first: 3 }),
      shape: choice('Shape', ['square', 'round'], 'square'),
      apart: length('Drawn apart', { min: 0, max: 0.3, first: 0.08, step: 0.01 }),
    }),
    size: { width: 0.6, depth: 0.45, height: 0.5 },
    min: { width: 0.4, depth: 0.35, height: 0.4 },
    max: { width: 0.9, depth: 0.9, height: 0.6 },
    mount: 'floor',
    parts: { top: 'timber.oak-smoked', legs: 'timber.oak-smoked' },
    words: 'side occasional',
    sold: { supplier: 'Ferrow & Daughters', price: 310 },
    cards: [
      { id: 'nest', name: 'Nest of tables' },
      {
        id: 'nest-round',
        name: 'Nest of round tables',
        size: { width: 0.6, depth: 0.6, height: 0.46 },
        traits: { shape: 'round', count: 2 },
        finishes: { top: 'stone.marble', legs: 'metal.brass-brushed' },
      },
    ],
    make({ width, depth, height }, { count: n, shape, apart }) {
      const tops = new MeshBuilder();
      const legs = new MeshBuilder();
      const step = Math.min(apart, (width - 0.3) / Math.max(1, n - 1) / 1.2);
      // The largest stands at the left; each of the others is lower and drawn out to the right.
      for (let i = 0; i < n; i++) {
        const wide = width - step * (n - 1) - i * 0.06;
        const deep = Math.max(0.2, depth - i * (shape === 'round' ? 0.06 : 0.03));
        const x = -width / 2 + wide / 2 + (n > 1 ? (i * (width - wide)) / (n - 1) : 0);
        const high = height - i * 0.045;
        const own = shape === 'round' ? ellipse(Math.min(wide, deep), Math.min(wide, deep)) : roundRectangle(wide, deep, 0.01);
        tops.add(slab(own, high - 0.02, high, 0.004, 4), shiftBy(x, 0, 0));
        const [lx, ly] = shape === 'round' ? [Math.min(wide, deep) * 0.33, Math.min(wide, deep) * 0.33] : [wide / 2 - 0.02, deep / 2 - 0.02];
        for (const sx of [-1, 1])
          for (const sy of [-1, 1])
            legs.add(
              bar(v3(x + sx * lx, sy * ly, 0), v3(x + sx * lx, sy * ly, high - 0.019), 0.009, 0.0125, { section: shape === 'round' ? 12 : squareSection(0.2) }),
            );
        if (shape !== 'round') for (const sx of [-1, 1]) legs.add(timber(x + sx * lx - 0.008, -ly, high - 0.06, x + sx * lx + 0.008, ly, high - 0.0195));
      }
      return [
        { part: 'top', mesh: tops.build() },
        { part: 'legs', mesh: legs.build() },
      ];
    },
    symbol: ({ width, depth }, { shape }) => [
      shape === 'round' ? outline(within(0.0019, () => ellipse(width, depth))) : outline(rectangle(width, depth)),
      outline(rectangle(width * 0.7, depth * 0.8, width * 0.12, 0), true),
    ],
  }),
  maker({
    id: 'desk-drawers',
    name: 'Desk',
    category: 'Tables',
    traits: z.object({
      pedestals: choice('Drawers', ['left', 'right', 'both', 'under the top'], 'right'),
      fronts: choice('Fronts', ['flat', 'framed'], 'flat'),
      handles: choice('Handles', ['bar', 'knob', 'cup', 'none'], 'knob'),
      mirror: toggle('Mirror', false),
      leg: length('Leg', { min: 0.025, max: 0.08, first: 0.04, step: 0.001 }),
    }),
    size: { width: 1.4, depth: 0.65, height: 0.75 },
    min: { width: 0.8, depth: 0.42, height: 0.7 },
    max: { width: 2.2, depth: 1, height: 1.5 },
    mount: 'floor',
    parts: {
      top: 'timber.walnut',
      legs: 'timber.walnut',
      fronts: 'timber.walnut',
      drawers: 'timber.birch',
      handles: 'metal.brass-aged',
      glass: 'mirror.silver',
    },
    words: 'writing study office',
    sold: { supplier: 'Ferrow & Daughters', price: 780 },
    clear: { front: 0.75 },
    seats: () => 1,
    places: ({ depth }) => [{ x: 0, y: -depth / 2, rotation: Math.PI }],
    cards: [
      { id: 'desk-drawers', name: 'Desk with drawers' },
      {
        id: 'desk-pedestal',
        name: 'Pedestal desk',
        size: { width: 1.6, depth: 0.8, height: 0.76 },
        traits: { pedestals: 'both', fronts: 'framed', handles: 'cup' },
      },
      {
        id: 'dressing-table',
        name: 'Dressing table',
        size: { width: 1.1, depth: 0.48, height: 1.35 },
        traits: { pedestals: 'under the top', mirror: true },
        finishes: { top: 'timber.cherry', legs: 'timber.cherry', fronts: 'timber.cherry' },
        words: 'bedroom mirror make-up',
      },
    ],
    make(size, { pedestals, fronts, handles, mirror, leg }) {
      const { width, depth, height } = size;
      const [w, d] = [width / 2, depth / 2];
      const top = mirror ? Math.min(0.75, height - 0.35) : height;
      const under = top - 0.026;
      const legs = new MeshBuilder();
      const moving: Moving[] = [];
      const wide = Math.min(0.42, width * 0.32);
      const own: HandleStyle = handles;
      const chest = (x0: number, n: number): void => {
        const z0 = 0.1;
        for (const x of [x0, x0 + wide - 0.018]) legs.add(timber(x, -d + 0.03, z0, x + 0.018, d - 0.02, under));
        legs
          .add(timber(x0 + 0.018, -d + 0.032, z0, x0 + wide - 0.018, d - 0.022, z0 + 0.018))
          .add(timber(x0 + 0.018, d - 0.034, z0 + 0.018, x0 + wide - 0.018, d - 0.0215, under - 0.001));
        const each = (under - 0.004 - z0) / n;
        for (let i = 0; i < n; i++)
          moving.push(
            drawer({
              x0: x0 + 0.002,
              x1: x0 + wide - 0.002,
              z0: z0 + i * each + 0.0015,
              z1: z0 + (i + 1) * each - 0.0015,
              y: -d + 0.029,
              depth: depth - 0.06,
              style: fronts,
              handles: own,
            }),
          );
      };
      if (pedestals === 'left' || pedestals === 'both') chest(-w + 0.01, 3);
      if (pedestals === 'right' || pedestals === 'both') chest(w - 0.01 - wide, 3);
      if (pedestals === 'under the top') {
        const n = width > 1 ? 3 : 2;
        const x1 = w - leg - 0.004;
        const each = (2 * x1) / n;
        for (let i = 0; i < n; i++)
          moving.push(
            drawer({
              x0: -x1 + i * each + 0.0015,
              x1: -x1 + (i + 1) * each - 0.0015,
              z0: under - 0.12,
              z1: under - 0.004,
              y: -d + 0.032,
              depth: depth - 0.07,
              style: fronts,
              handles: own,
            }),
          );
        legs.add(timber(-x1, d - 0.05, under - 0.12, x1, d - 0.032, under + 0.001));
        for (const x of [-1, 1]) legs.add(timber(x > 0 ? x1 : -x1 - 0.018, -d + 0.04, under - 0.12, x > 0 ? x1 + 0.018 : -x1, d - 0.04, under + 0.001));
      }
      // Legs where no chest carries the top.
      const sides = pedestals === 'left' ? [1] : pedestals === 'right' ? [-1] : pedestals === 'both' ? [] : [-1, 1];
      for (const x of sides)
        for (const y of [-1, 1])
          legs.add(
            bar(
              v3(x * (w - leg / 2 - 0.006), y * (d - leg / 2 - 0.012), 0),
              v3(x * (w - leg / 2 - 0.006), y * (d - leg / 2 - 0.012), under + 0.001),
              leg * 0.34,
              leg / 2,
              { section: squareSection(0.14) },
            ),
          );
      if (pedestals === 'left' || pedestals === 'right') legs.add(timber(-w + 0.03, d - 0.05, under - 0.2, w - 0.03, d - 0.032, under - 0.06));
      for (const x of pedestals === 'both' ? [-1, 1] : pedestals === 'left' ? [-1] : pedestals === 'right' ? [1] : [])
        for (const k of [0.03, wide - 0.05])
          for (const y of [-d + 0.06, d - 0.06])
            legs.add(bar(v3(x < 0 ? -w + 0.01 + k + 0.01 : w - 0.01 - k - 0.01, y, 0), v3(x < 0 ? -w + 0.02 + k : w - 0.02 - k, y, 0.102), 0.012, 0.017));
      const glass = new MeshBuilder();
      if (mirror) {
        const r = Math.min(w * 0.5, (height - top) / 2 - 0.02);
        const z = top + (height - top) / 2;
        const deep = 0.02;
        glass.add(slab(ellipse(2 * r, height - top - 0.05), 0, deep * 0.6, 0.003), upright(0, d - 0.03 + deep * 0.3, z));
        legs.add(slab(ellipse(2 * r + 0.03, height - top - 0.02), 0, deep * 0.5, 0.004), upright(0, d - 0.02, z));
        for (const x of [-1, 1])
          legs
            .add(bar(v3(x * (r + 0.028), d - 0.03, top - 0.002), v3(x * (r + 0.028), d - 0.03, z + 0.03), 0.011, 0.008))
            .add(bar(v3(x * (r + 0.03), d - 0.03, z), v3(x * (r - 0.005), d - 0.028, z), 0.006));
      }
      return [
        { part: 'top', mesh: slab(roundRectangle(width, depth, 0.008), under, top, 0.005, 4) },
        { part: 'legs', mesh: legs.build() },
        ...movingParts(moving),
        { part: 'glass', mesh: glass.build() },
      ];
    },
    symbol: ({ width, depth }, { pedestals }) => [
      outline(rectangle(width, depth)),
      ...(pedestals === 'left' || pedestals === 'both'
        ? [outline(rectangle(Math.min(0.42, width * 0.32), depth - 0.05, -width / 2 + 0.01 + Math.min(0.42, width * 0.32) / 2, 0), true)]
        : []),
      ...(pedestals === 'right' || pedestals === 'both'
        ? [outline(rectangle(Math.min(0.42, width * 0.32), depth - 0.05, width / 2 - 0.01 - Math.min(0.42, width * 0.32) / 2, 0), true)]
        : []),
    ],
  }),
  maker({
    id: 'bench-table',
    name: 'Work bench',
    category: 'Tables',
    traits: z.object({ drawers: count('Drawers', { min: 0, max: 5, first: 3 }), vice: toggle('Vice', false), shelf: toggle('Shelf below', false) }),
    size: { width: 2.0, depth: 0.75, height: 0.9 },
    min: { width: 1.0, depth: 0.55, height: 0.7 },
    max: { width: 3.0, depth: 1.0, height: 1.0 },
    mount: 'floor',
    parts: { top: 'timber.ash', legs: 'timber.ash', fronts: 'paint.soot', drawers: 'timber.birch', handles: 'metal.brass-brushed', vice: 'metal.iron-black' },
    words: 'workshop bookbinder',
    sold: { supplier: 'Ferrow & Daughters', price: 640 },
    clear: { front: 0.8 },
    cards: [
      { id: 'bench-table', name: 'Work bench' },
      { id: 'bench-table-vice', name: 'Work bench with vice', traits: { vice: true, shelf: true, drawers: 2 }, words: 'joiner tools' },
    ],
    make(size, { drawers, vice, shelf }) {
      const parts = table(size, { top: 'square corners', base: 'four legs', section: 'square', leg: 0.085, thick: 0.045, apron: true, leaf: 0, shelf });
      const { width, depth, height } = size;
      const w = width / 2 - 0.14;
      const each = drawers ? (2 * w) / drawers : 0;
      const moving = Array.from({ length: drawers }, (_, i) =>
        drawer({
          x0: -w + i * each + 0.01,
          x1: -w + (i + 1) * each - 0.01,
          z0: height - 0.18,
          z1: height - 0.05,
          y: -depth / 2 + 0.044,
          depth: depth - 0.12,
          style: 'flat',
          handles: 'cup',
        }),
      );
      const iron = new MeshBuilder();
      if (vice) {
        const x = -width / 2 + 0.3;
        const y = -depth / 2;
        iron
          .add(timber(x - 0.09, y - 0.045, height - 0.15, x + 0.09, y - 0.012, height - 0.012))
          .add(timber(x - 0.09, y, height - 0.15, x + 0.09, y + 0.03, height - 0.046));
        iron
          .add(bar(v3(x, y - 0.072, height - 0.09), v3(x, y + 0.2, height - 0.09), 0.012))
          .add(bar(v3(x - 0.1, y - 0.066, height - 0.09), v3(x + 0.1, y - 0.066, height - 0.09), 0.0055));
        for (const k of [-0.06, 0.06]) iron.add(bar(v3(x + k, y - 0.03, height - 0.11), v3(x + k, y + 0.2, height - 0.11), 0.008));
      }
      return [...parts, ...movingParts(moving), { part: 'vice', mesh: iron.build() }];
    },
    symbol: ({ width, depth }) => [outline(rectangle(width, depth)), stroke([-width / 2, -depth / 2 + 0.06], [width / 2, -depth / 2 + 0.06])],
  }),
];
