import type { Body, Category, Finish, FinishUnit, Laying, Role } from '../../project/schema';
import { meanOfMatter } from '../texture';
import { tilingOf } from '../laying/pattern';
import { MEANS } from './means';

export type Options = Partial<Omit<Finish, 'id' | 'name' | 'category' | 'colour' | 'body'>>;

interface House {
  supplier: string;
  initials: string;
  roles: Role[];
  roughness: number;
  unit: FinishUnit;
  price: number;
  coverage: number;
  waste: number;
}

/** What holds for a category until a finish says otherwise. Suppliers and prices are invented. */
const HOUSES: Record<Category, House> = {
  Paint: {
    supplier: 'Marren Colour Works',
    initials: 'MC',
    roles: ['wall', 'ceiling', 'joinery'],
    roughness: 0.75,
    unit: 'litre',
    price: 34,
    coverage: 12,
    waste: 0.05,
  },
  Plaster: { supplier: 'Tarn Edge Plasters', initials: 'TP', roles: ['wall', 'ceiling'], roughness: 0.85, unit: 'm2', price: 42, coverage: 1, waste: 0.08 },
  Wallpaper: { supplier: 'Fenner & Loe', initials: 'FL', roles: ['wall'], roughness: 0.85, unit: 'roll', price: 68, coverage: 5.33, waste: 0.1 },
  Timber: { supplier: 'Sallow & Ridd', initials: 'SR', roles: ['joinery', 'accent'], roughness: 0.48, unit: 'm2', price: 96, coverage: 1, waste: 0.08 },
  Tile: { supplier: 'Orrin Kilns', initials: 'OK', roles: ['wall', 'floor'], roughness: 0.35, unit: 'm2', price: 74, coverage: 1, waste: 0.1 },
  Brick: { supplier: 'Cinder Lane Brickfield', initials: 'CB', roles: ['wall'], roughness: 0.92, unit: 'm2', price: 58, coverage: 1, waste: 0.05 },
  Stone: { supplier: 'Tarn Edge Stone', initials: 'TS', roles: ['floor', 'wall', 'worktop'], roughness: 0.6, unit: 'm2', price: 160, coverage: 1, waste: 0.1 },
  Sheet: { supplier: 'Hollin Boardmakers', initials: 'HB', roles: ['floor', 'joinery'], roughness: 0.5, unit: 'm2', price: 52, coverage: 1, waste: 0.08 },
  Carpet: { supplier: 'Wether Mill', initials: 'WM', roles: ['floor', 'textile'], roughness: 0.96, unit: 'm2', price: 64, coverage: 1, waste: 0.08 },
  Cloth: { supplier: 'Wether Mill', initials: 'WC', roles: ['textile', 'accent'], roughness: 0.95, unit: 'metre', price: 48, coverage: 1.4, waste: 0.1 },
  Metal: { supplier: 'Brake Forge', initials: 'BF', roles: ['metal', 'accent'], roughness: 0.3, unit: 'm2', price: 210, coverage: 1, waste: 0.05 },
  Glass: { supplier: 'Pellan Glass', initials: 'PG', roles: ['accent'], roughness: 0.02, unit: 'm2', price: 140, coverage: 1, waste: 0 },
  Outside: { supplier: 'Lower Marren Yard', initials: 'LM', roles: [], roughness: 0.9, unit: 'm2', price: 26, coverage: 1, waste: 0.05 },
};

const counted = new Map<Category, number>();

/** What a body of several colours is drawn in; the finish's colour is then their mean. */
const printed = (body: Body, ground: string): Body => (body.kind === 'motif' || body.kind === 'stripe' ? { ...body, ground } : body);

/** Every finish has a figure of its own, so that two marbles are not cut from one slab (FNV-1a of its name). */
function figureOf(id: string): number {
  let h = 0x811c9dc5;
  for (let i = 0; i < id.length; i++) h = Math.imul(h ^ id.charCodeAt(i), 0x01000193);
  return (h >>> 0) % 10000;
}

/** What a box of tiles covers at about, m². */
const BOX = 1;

/** Tiles come in boxes of so many whole ones; their prices are said by the square metre. */
function boxed(made: Finish): void {
  if (made.category !== 'Tile' || made.unit !== 'm2' || !made.laying) return;
  const { period, units } = tilingOf(made.laying);
  const each = (period.x * period.y) / units.length;
  made.unit = 'box';
  made.coverage = Math.max(1, Math.round(BOX / each)) * each;
  made.price = Math.round(made.price * made.coverage * 100) / 100;
}

/** A finish of the library. @param colour its mean, or the ground of a print or stripe; @param size of what repeats, metres */
export function finish(
  id: string,
  name: string,
  category: Category,
  colour: string,
  body: Body = { kind: 'flat' },
  size: [number, number] = [1, 1],
  options: Options = {},
): Finish {
  const n = (counted.get(category) ?? 0) + 1;
  counted.set(category, n);
  const { initials, ...house } = HOUSES[category];
  const made: Finish = {
    id,
    name,
    category,
    colour,
    body: printed(body, colour),
    laying: null,
    size: { width: size[0], height: size[1] },
    sheen: category === 'Cloth' || category === 'Carpet' ? 0.25 : 0,
    metalness: category === 'Metal' ? 1 : 0,
    transmission: 0,
    translucency: 0,
    opacity: 1,
    ior: 1.5,
    relief: 1,
    figure: figureOf(id),
    solid: false,
    glows: false,
    bare: false,
    reflectance: null,
    code: `${initials}-${String(100 + n * 7)}`,
    ...house,
    ...options,
  };
  boxed(made);
  return made.body.kind === 'motif' || made.body.kind === 'stripe' ? { ...made, colour: MEANS[id] ?? meanOfMatter(made) } : made;
}

const PLAIN: Omit<Laying, 'pattern' | 'width' | 'height' | 'joint' | 'joints'> = {
  offset: 0,
  angle: Math.PI / 4,
  small: 0.1,
  variation: 0.08,
  edge: 0.002,
  recess: 0.0012,
  lap: 0,
  cell: null,
};

/** A laying from its pattern, the size of a unit and its joint, metres. */
export const lay = (pattern: Laying['pattern'], width: number, height: number, joint: number, joints: string, more: Partial<Laying> = {}): Laying => ({
  ...PLAIN,
  pattern,
  width,
  height,
  joint,
  joints,
  ...more,
});

/** Boards laid tight: the joint is a dark line. */
export const boards = (pattern: Laying['pattern'], width: number, height: number, more: Partial<Laying> = {}): Laying =>
  lay(pattern, width, height, 0.0008, '#2a211a', { variation: 0.1, edge: 0.0016, recess: 0.0009, ...more });
