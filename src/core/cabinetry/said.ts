import type { Band, Cell, Fitting, FrontGrid, Hand, InsideKind } from '../project/schema/cabinets';
import { stockCard } from '../stock/stock';
import { formatLengthExact, INCH, parseLength, type UnitSystem } from '../units/length';
import { WIDEST_DOOR } from './figures';
import { NEAR } from '../units/tolerance';
import { partOf, whatIs } from './fittings';
import { newCell } from '../project/joinery';

/** A unit as it is said in a line: what it is, how wide, and what is in it. */
export interface SaidUnit {
  /** What was typed of it, without how often. */
  text: string;
  /** What it is called in the trade. */
  word: string;
  band: Band;
  /** Metres; null: it takes what is left. */
  width: number | null;
  front: FrontGrid;
  /** What of the stock is built into it, and how its parts are finished where its card says so. */
  fittings: Fitting[];
  finishes: Record<string, string>;
  /** It turns the run into the next wall. */
  corner: boolean;
  /** It has no back. */
  backless: boolean;
  /** No carcass: a strip between a unit and a wall, or room that is left free. */
  bare: 'filler' | 'space' | null;
}

/** What a line says, or one sentence on what of it was not understood, and where that stands in it. */
export type Said = { ok: true; units: SaidUnit[] } | { ok: false; message: string; from: number; to: number };

interface Kind {
  word: string;
  /** Other words for it. */
  also?: string[];
  band: Band;
  /** Width where none is said, metric and imperial, metres; left out: one has to be said. */
  usual?: [number, number];
  front(said: { hand: Hand | null; count: number | null }): FrontGrid;
  /** Cards of the stock that are built into it. */
  cards?: readonly string[];
  corner?: true;
  backless?: true;
  bare?: 'filler' | 'space';
}

const row = (height: number | null, ...cells: Partial<Cell>[]): FrontGrid[number] => ({
  height,
  cells: cells.map(newCell),
});

/** A row of the inside of a cell with one field. */
const inside = (height: number | null, kind: InsideKind, count = 0): Cell['inside'][number] => ({
  height,
  fields: [{ width: null, kind, count: Math.max(0, count) }],
});

/** Height of the drawer over a door, metres. */
const DRAWER_LINE = 0.14;
/** Height of the niche an oven stands in, metres. */
const OVEN = 0.595;

const drawers = (count: number): FrontGrid =>
  count === 3
    ? // The upper one for cutlery, two deep ones for pans below it.
      [row(DRAWER_LINE, { kind: 'drawer' }), row(null, { kind: 'pan drawer' }), row(null, { kind: 'pan drawer' })]
    : Array.from({ length: count }, (_, i) => row(null, { kind: count < 3 ? 'pan drawer' : i < count - 1 ? 'drawer' : 'pan drawer' }));

/** All of the front is an appliance. */
const APPLIANCE = (): FrontGrid => [row(null, { kind: 'appliance' })];

const door = (hand: Hand | null, shelves: number): Partial<Cell> => ({ kind: 'door', hand, shelves });

/** What can be said, by the words of the trade. */
const KINDS: readonly Kind[] = [
  { word: 'door', also: ['highline', 'cupboard'], band: 'base', front: ({ hand, count }) => [row(null, door(hand, count ?? 1))] },
  { word: 'drawerline', also: ['drawer over door'], band: 'base', front: ({ hand }) => [row(DRAWER_LINE, { kind: 'drawer' }), row(null, door(hand, 1))] },
  { word: 'drawers', also: ['drawer', 'drawer pack'], band: 'base', front: ({ count }) => drawers(count ?? 3) },
  { word: 'pans', also: ['pan drawers'], band: 'base', front: ({ count }) => drawers(count ?? 2) },
  { word: 'sink', band: 'base', cards: ['sink', 'tap'], front: ({ hand }) => [row(null, door(hand, 0))] },
  {
    word: 'sink with drainer',
    band: 'base',
    cards: ['sink-drainer-right', 'tap'],
    front: ({ hand }) => [row(null, door(hand, 0))],
  },
  { word: 'undermounted sink', also: ['sink under'], band: 'base', cards: ['sink-under', 'tap'], front: ({ hand }) => [row(null, door(hand, 0))] },
  {
    word: 'belfast sink',
    band: 'base',
    cards: ['sink-belfast', 'tap-bridge'],
    front: ({ hand }) => [row(0.26, { kind: 'appliance' }), row(null, door(hand, 0))],
  },
  { word: 'vanity', also: ['basin unit'], band: 'base', cards: ['basin-inset', 'tap-basin'], front: ({ hand }) => [row(null, door(hand, 0))] },
  { word: 'vanity bowl', band: 'base', cards: ['basin-bowl', 'tap-basin-tall'], front: ({ count }) => drawers(count ?? 2) },
  { word: 'hob', band: 'base', cards: ['hob'], front: ({ count }) => [row(DRAWER_LINE, { kind: 'dummy' }), ...drawers(count ?? 2)] },
  { word: 'downdraught hob', band: 'base', usual: [0.9, 36 * INCH], cards: ['hob-draught'], front: () => [row(null, { kind: 'pan drawer' })] },
  { word: 'gas hob', band: 'base', cards: ['hob-gas'], front: ({ count }) => [row(DRAWER_LINE, { kind: 'dummy' }), ...drawers(count ?? 2)] },
  {
    word: 'oven',
    band: 'base',
    usual: [0.6, 30 * INCH],
    cards: ['oven'],
    front: () => [row(OVEN, { kind: 'appliance' }), row(null, { kind: 'panel' })],
  },
  {
    word: 'oven with hob',
    band: 'base',
    usual: [0.6, 30 * INCH],
    cards: ['oven', 'hob'],
    // The body of the hob lies behind a rail.
    front: () => [row(null, { kind: 'panel' }), row(OVEN, { kind: 'appliance' })],
  },
  {
    word: 'microwave drawer',
    band: 'base',
    usual: [0.6, 24 * INCH],
    cards: ['microwave-drawer'],
    front: () => [row(0.385, { kind: 'appliance' }), row(null, { kind: 'drawer' })],
  },
  { word: 'range cooker', also: ['range'], band: 'base', usual: [0.9, 36 * INCH], cards: ['range-cooker'], front: APPLIANCE },
  { word: 'dishwasher', band: 'base', usual: [0.6, 24 * INCH], cards: ['dishwasher'], front: APPLIANCE },
  {
    word: 'dishwasher door',
    also: ['built-in dishwasher'],
    band: 'base',
    usual: [0.6, 24 * INCH],
    cards: ['dishwasher-built-in'],
    front: () => [row(null, { kind: 'door', hand: 'down' })],
  },
  { word: 'washer', also: ['washing machine'], band: 'base', usual: [0.6, 27 * INCH], cards: ['washer'], front: APPLIANCE },
  { word: 'dryer', band: 'base', usual: [0.6, 27 * INCH], cards: ['dryer'], front: APPLIANCE },
  { word: 'wine cooler', band: 'base', usual: [0.3, 12 * INCH], cards: ['wine-cooler'], front: APPLIANCE },
  { word: 'fridge under worktop', also: ['under-counter fridge'], band: 'base', usual: [0.6, 24 * INCH], cards: ['fridge-under'], front: APPLIANCE },
  {
    word: 'pull-out',
    also: ['pullout', 'bottle rack'],
    band: 'base',
    front: ({ count }) => [row(null, { kind: 'door', hand: 'pull-out', shelves: count ?? 2 })],
  },
  { word: 'open', also: ['shelves'], band: 'base', front: ({ count }) => [row(null, { kind: 'open', shelves: count ?? 2 })] },
  { word: 'corner', also: ['corner unit'], band: 'base', usual: [0.9, 36 * INCH], corner: true, front: ({ hand }) => [row(null, door(hand, 1))] },
  { word: 'wall', also: ['wall unit'], band: 'wall', front: ({ hand, count }) => [row(null, door(hand, count ?? 2))] },
  { word: 'wall open', also: ['wall shelves'], band: 'wall', front: ({ count }) => [row(null, { kind: 'open', shelves: count ?? 2 })] },
  { word: 'wall glazed', also: ['glazed'], band: 'wall', front: ({ hand, count }) => [row(null, { kind: 'glazed', hand, shelves: count ?? 2 })] },
  { word: 'bridge', also: ['lift-up'], band: 'wall', front: () => [row(null, { kind: 'door', hand: 'up' })] },
  { word: 'wall corner', band: 'wall', usual: [0.6, 24 * INCH], corner: true, front: ({ hand }) => [row(null, door(hand, 2))] },
  { word: 'hood', band: 'wall', usual: [0.6, 30 * INCH], cards: ['hood'], front: APPLIANCE },
  { word: 'canopy hood', band: 'wall', usual: [0.9, 36 * INCH], cards: ['hood-canopy'], front: APPLIANCE },
  { word: 'built-in hood', band: 'wall', usual: [0.6, 30 * INCH], cards: ['hood-flat'], front: () => [row(null, { kind: 'door', hand: 'up' })] },
  {
    word: 'wall microwave',
    band: 'wall',
    usual: [0.6, 30 * INCH],
    cards: ['microwave'],
    front: () => [row(null, { kind: 'door', hand: 'up' }), row(0.385, { kind: 'appliance' })],
  },
  {
    word: 'larder',
    also: ['tall', 'pantry'],
    band: 'tall',
    front: ({ hand, count }) => [row(null, door(hand, count ?? 2)), row(null, door(hand, count ?? 2))],
  },
  {
    word: 'tall oven',
    also: ['oven tower', 'oven housing'],
    band: 'tall',
    usual: [0.6, 30 * INCH],
    cards: ['oven'],
    front: ({ hand }) => [row(null, door(hand, 1)), row(OVEN, { kind: 'appliance' }), row(0.715, { kind: 'pan drawer' })],
  },
  {
    word: 'tall double oven',
    also: ['double oven'],
    band: 'tall',
    usual: [0.6, 30 * INCH],
    cards: ['oven-double'],
    front: ({ hand }) => [row(null, door(hand, 1)), row(0.891, { kind: 'appliance' }), row(0.57, { kind: 'pan drawer' })],
  },
  {
    word: 'tall oven and microwave',
    also: ['oven and microwave'],
    band: 'tall',
    usual: [0.6, 30 * INCH],
    cards: ['oven', 'microwave'],
    // The first appliance is the upper one.
    front: ({ hand }) => [row(null, door(hand, 1)), row(OVEN, { kind: 'appliance' }), row(0.385, { kind: 'appliance' }), row(0.57, { kind: 'pan drawer' })],
  },
  {
    word: 'raised dishwasher',
    also: ['dishwasher housing'],
    band: 'tall',
    // A machine of 600 between its sides.
    usual: [0.64, 27 * INCH],
    cards: ['dishwasher-built-in'],
    front: ({ hand }) => [row(null, door(hand ?? 'left', 1)), row(0.845, { kind: 'door', hand: 'down' }), row(0.4, { kind: 'pan drawer' })],
  },
  {
    word: 'washer and dryer',
    also: ['laundry housing'],
    band: 'tall',
    usual: [0.64, 30 * INCH],
    cards: ['dryer', 'washer'],
    front: ({ hand }) => [row(null, door(hand ?? 'left', 0)), row(0.873, { kind: 'appliance' }), row(0.882, { kind: 'appliance' })],
  },
  { word: 'two-door fridge', band: 'tall', usual: [0.92, 36 * INCH], cards: ['fridge-two-doors'], front: APPLIANCE },
  { word: 'free fridge', also: ['free-standing fridge'], band: 'tall', usual: [0.61, 30 * INCH], cards: ['fridge'], front: APPLIANCE },
  {
    word: 'fridge',
    also: ['fridge freezer', 'fridge housing', 'fridge 70/30'],
    band: 'tall',
    usual: [0.6, 30 * INCH],
    cards: ['fridge-built-in'],
    front: ({ hand }) => [row(null, door(hand, 0)), row(0.715, door(hand, 0))],
  },
  {
    word: 'fridge 50/50',
    band: 'tall',
    usual: [0.6, 30 * INCH],
    cards: ['fridge-built-in'],
    front: ({ hand }) => [row(null, door(hand, 0)), row(null, door(hand, 0))],
  },
  // What they house is put in by others: nothing is behind their doors, not even a back.
  {
    word: 'boiler housing',
    band: 'wall',
    usual: [0.5, 21 * INCH],
    backless: true,
    front: ({ hand }) => [row(null, { ...door(hand, 0), inside: [inside(null, 'nothing')] })],
  },
  {
    word: 'service housing',
    band: 'tall',
    usual: [0.4, 18 * INCH],
    backless: true,
    front: ({ hand }) => [row(null, { ...door(hand, 1) }), row(0.715, { ...door(hand, 0), inside: [inside(null, 'nothing')] })],
  },
  {
    word: 'wardrobe',
    band: 'tall',
    // A shelf for hats, and a rail below it.
    front: ({ hand, count }) => [row(null, { ...door(hand, 0), inside: [inside(0.3, 'shelves', (count ?? 1) - 1), inside(null, 'rail')] })],
  },
  {
    word: 'wardrobe drawers',
    band: 'tall',
    front: ({ hand, count }) => [
      row(null, { ...door(hand, 0), inside: [inside(0.3, 'nothing'), inside(null, 'rail'), inside(0.19 * (count ?? 3) + 0.02, 'drawers', count ?? 3)] }),
    ],
  },
  {
    word: 'wardrobe shelves',
    band: 'tall',
    front: ({ hand, count }) => [row(null, { ...door(hand, 0), inside: [inside(null, 'shelves', count ?? 5)] })],
  },
  {
    word: 'wardrobe shoes',
    band: 'tall',
    front: ({ hand, count }) => [row(null, { ...door(hand, 0), inside: [inside(null, 'rail'), inside(0.2 * (count ?? 3), 'shoes', count ?? 3)] })],
  },
  {
    word: 'tall corner',
    band: 'tall',
    usual: [1, 40 * INCH],
    corner: true,
    front: ({ hand, count }) => [row(null, door(hand, count ?? 3))],
  },
  {
    word: 'boot shelves',
    also: ['boot bench'],
    band: 'base',
    front: ({ count }) => [row(null, { kind: 'open', inside: [inside(null, 'shoes', count ?? 2)] })],
  },
  {
    word: 'bins',
    also: ['bin pull-out'],
    band: 'base',
    front: ({ count }) => [row(null, { ...door('pull-out', 0), inside: [inside(null, 'bins', count ?? 2)] })],
  },
  { word: 'wine rack', band: 'base', front: () => [row(null, { kind: 'open', inside: [inside(null, 'bottles')] })] },
  {
    word: 'wall plates',
    also: ['plate rack'],
    band: 'wall',
    front: () => [row(null, { kind: 'open', inside: [inside(null, 'plates'), inside(null, 'plates')] })],
  },
  {
    word: 'larder baskets',
    also: ['pull-out larder'],
    band: 'tall',
    front: ({ count }) => [row(null, { ...door('pull-out', 0), inside: [inside(null, 'baskets', count ?? 5)] })],
  },
  { word: 'filler', band: 'base', bare: 'filler', usual: [0.05, 3 * INCH], front: () => [row(null, { kind: 'panel' })] },
  { word: 'space', also: ['gap'], band: 'base', bare: 'space', front: () => [] },
];

/** A kind of unit as it is chosen from many: its word, and what a line says of it where one puts it down. */
export interface UnitKind {
  word: string;
  band: Band;
  said: string;
}

/** The width of a unit that has no usual one, metric and imperial, metres. */
const FIRST_WIDTH: readonly [number, number] = [0.6, 24 * INCH];

/** Every kind of unit that stands in a run, in its usual width. */
export const unitKinds = (system: UnitSystem): UnitKind[] =>
  KINDS.filter((k) => k.bare !== 'space').map(({ word, band, usual = FIRST_WIDTH }) => ({
    word,
    band,
    said: `${formatLengthExact(usual[system === 'metric' ? 0 : 1], system)} ${word}`,
  }));

/** Every word for a kind, the longest first: "wall corner" before "wall". */
const WORDS: readonly { text: string; kind: Kind }[] = KINDS.flatMap((kind) => [kind.word, ...(kind.also ?? [])].map((text) => ({ text, kind }))).sort(
  (a, b) => b.text.length - a.text.length,
);

const HAND_WORDS: readonly [RegExp, Hand][] = [
  [/\b(left-hung|left|lh)\b/, 'left'],
  [/\b(right-hung|right|rh)\b/, 'right'],
  [/\b(pair|double)\b/, 'pair'],
  [/\bsliding\b/, 'sliding'],
  [/\bpocket\b/, 'pocket'],
];

/** Most drawers or shelves of a unit. */
const MOST = 8;

const REST = /\b(rest|fill)\b/;

/** The first length of a text with where it ends; null where it begins with none. */
function lengthAtStart(text: string, system: UnitSystem): { metres: number; rest: string } | null {
  // The longest beginning that reads as a length: "11'-4 1/2" drawers".
  const words = text.split(/\s+/);
  for (let n = Math.min(4, words.length); n > 0; n--) {
    const read = parseLength(words.slice(0, n).join(' '), system);
    if (read.ok) return { metres: read.metres, rest: words.slice(n).join(' ') };
  }
  return null;
}

/** What cards of the stock are as fittings of a unit. */
export function builtInOf(cards: readonly string[]): Pick<SaidUnit, 'fittings' | 'finishes'> {
  const out: Pick<SaidUnit, 'fittings' | 'finishes'> = { fittings: [], finishes: {} };
  for (const id of cards) {
    const card = stockCard(id);
    const fitting = card && { maker: card.item.id, size: null, traits: { ...card.traits } };
    const what = fitting && whatIs(fitting);
    if (!what) continue;
    // A card of another size than its maker’s is of that size.
    out.fittings.push(card.size === card.item.size ? fitting : { ...fitting, size: { ...card.size } });
    for (const [part, finish] of Object.entries(card.finishes)) out.finishes[partOf(what.built, part)] = finish;
  }
  return out;
}

function readOne(text: string, system: UnitSystem): SaidUnit | string {
  const said = text.toLowerCase();
  const measured = lengthAtStart(said, system);
  let rest = measured ? measured.rest : said;
  const fills = REST.test(rest);
  rest = rest.replace(REST, ' ');
  const found = WORDS.find(({ text: word }) => new RegExp(`(^|\\s)${word}(\\s|$)`).test(rest));
  if (!found) return `“${text}” names no unit; say what it is, as in “600 drawers” or “450 door left”.`;
  const { kind } = found;
  rest = rest.replace(found.text, ' ');
  let hand: Hand | null = null;
  for (const [pattern, own] of HAND_WORDS)
    if (pattern.test(rest)) {
      hand = own;
      rest = rest.replace(pattern, ' ');
    }
  const counted = /\b(\d{1,2})\b/.exec(rest);
  const count = counted && Number(counted[1]);
  if (count !== null && (count < 1 || count > MOST)) return `“${text}” can’t be made; a unit has 1 to ${MOST} drawers or shelves.`;
  rest = rest.replace(/\b\d{1,2}\b/, ' ').replace(/\b(with|unit|shelves|shelf|drawers?|and|a|of)\b/g, ' ');
  const over = rest.trim();
  if (over) return `“${over}” in “${text}” was not understood.`;
  const width = measured?.metres ?? null;
  if (width === null && !fills && !kind.usual) return `“${text}” has no width; put it before the word, as in “600 ${kind.word}”, or say “rest ${kind.word}”.`;
  if (width !== null && (width < 0.01 || width > 4)) return `A unit “${text}” can’t be made; give it a width up to 4 m.`;
  const own = kind.usual?.[system === 'metric' ? 0 : 1] ?? null;
  return {
    text,
    word: kind.word,
    band: kind.band,
    width: fills ? null : (width ?? own),
    front: kind.front({ hand, count }),
    ...builtInOf(kind.cards ?? []),
    corner: kind.corner ?? false,
    backless: kind.backless ?? false,
    bare: kind.bare ?? null,
  };
}

/**
 * Reads a run as it is said in the trade: "600 drawers, 800 sink, 600 oven, 450 door left, 500 drawerline". Units are parted by
 * commas, "2 x 600 drawers" stands for two, a width without a unit of length is millimetres or inches.
 */
export function readLine(line: string, system: UnitSystem): Said {
  const units: SaidUnit[] = [];
  let at = 0;
  for (const part of line.split(/[,;]/)) {
    const from = at + (part.length - part.trimStart().length);
    at += part.length + 1;
    const text = part.trim();
    if (!text) continue;
    const times = /^([1-9]\d?)\s*(?:x|×|\*)\s*(.+)$/i.exec(text);
    const one = readOne(times ? times[2] : text, system);
    if (typeof one === 'string') return { ok: false, message: one, from, to: from + text.length };
    for (let i = 0; i < (times ? Number(times[1]) : 1); i++) units.push(one);
  }
  return { ok: true, units };
}

/** Where the last unit of a line begins to be said. */
export const lastSaid = (line: string): number => Math.max(line.lastIndexOf(','), line.lastIndexOf(';')) + 1;

/** The words at the end of what is said of a unit, after its width. */
const WORD = /[a-z][a-z -]*$/i;

/** A line with the word that is being typed at its end, or is still to come, said whole. */
export function completed(line: string, word: string): string {
  const at = lastSaid(line);
  const last = line.slice(at);
  const begun = WORD.test(last);
  return line.slice(0, at) + last.replace(WORD, '') + (begun || /\s$/.test(last) ? '' : ' ') + word;
}

/** Words that go on what is being typed at the end of a line, the best first. */
export function completions(line: string): string[] {
  const typed = WORD.exec(line.slice(lastSaid(line)).trimStart())?.[0].toLowerCase() ?? '';
  if (!typed) return KINDS.filter((k) => k.band === 'base').map((k) => k.word);
  const begun = [...new Set(WORDS.filter(({ text }) => text.startsWith(typed) && text !== typed).map(({ text }) => text))].sort((a, b) => a.length - b.length);
  // Once a kind is said whole, its hand may follow.
  const whole = WORDS.find(({ text }) => typed.startsWith(`${text} `));
  const more = whole ? typed.slice(whole.text.length + 1) : '';
  const hands = whole ? ['left', 'right', 'pair'].filter((w) => w.startsWith(more) && w !== more).map((w) => `${whole.text} ${w}`) : [];
  return [...begun, ...hands];
}

/** Whether a cell is so wide that a pair of doors closes it. */
export const isWide = (width: number): boolean => width > WIDEST_DOOR + NEAR;

/** How a door moves that nobody has said: wide ones are a pair, others hang away from the middle of the run. */
export const handOf = (cell: Cell, width: number, before: 'left' | 'right'): Hand => cell.hand ?? (isWide(width) ? 'pair' : before);
