import { placement, transformPoint, type Matrix, type Mesh } from '../geometry/mesh';
import { offChords, within } from '../geometry/shapes';
import type { Vec2 } from '../geometry/vec';
import { footprintOf } from '../project/footprint';
import { NO_STARTS, type Finish, type Piece, type Project, type StartRole, type Starts } from '../project/schema';
import { finishIn } from '../finishes/store';
import type { Parts } from '../model/body';
import { basins } from './makers/basins';
import { bathroomTaps } from './makers/bathroom-taps';
import { bathroomThings } from './makers/bathroom-things';
import { baths } from './makers/baths';
import { beds } from './makers/beds';
import { belongings } from './makers/belongings';
import { cabinets } from './makers/cabinets';
import { chairs } from './makers/chairs';
import { blindsAndShutters } from './makers/blinds';
import { curtainsAndValances } from './makers/curtains';
import { cooking } from './makers/cooking';
import { cooling } from './makers/cooling';
import { crockeryMakers } from './makers/crockery';
import { fires } from './makers/fires';
import { hallThings } from './makers/hall';
import { kitchenwareMakers } from './makers/kitchenware';
import { fixedLuminaires } from './makers/luminaires-fixed';
import { laundry } from './makers/laundry';
import { hungLuminaires } from './makers/luminaires-hung';
import { sinks } from './makers/sinks';
import { standingLuminaires } from './makers/luminaires-standing';
import { machines } from './makers/machines';
import { greenery } from './makers/plants';
import { joinParts, type MadePart } from './joined';
import { LAMP_PART } from './makers/shades';
import { pans } from './makers/pans';
import { shelves } from './makers/shelves';
import { tables } from './makers/tables';
import { textiles } from './makers/textiles';
import { toysAndBaskets } from './makers/toys';
import { upholstery } from './makers/upholstery';
import { vessels } from './makers/vessels';
import { walls } from './makers/walls';
import { showers } from './makers/showers';
import { wholeTraits, type Traits } from './traits';
import { rectangle, type Card, type Clear, type Made, type PieceSize, type SeatPlace, type StockCard, type StockItem, type SymbolLine } from './types';

/** All makers, in the order of the ledge. */
export const STOCK: readonly StockItem[] = [
  ...upholstery,
  ...chairs,
  ...tables,
  ...beds,
  ...cabinets,
  ...shelves,
  ...hallThings,
  ...cooking,
  ...cooling,
  ...laundry,
  ...sinks,
  ...baths,
  ...showers,
  ...pans,
  ...basins,
  ...bathroomTaps,
  ...bathroomThings,
  ...fires,
  ...textiles,
  ...curtainsAndValances,
  ...blindsAndShutters,
  ...walls,
  ...belongings,
  ...vessels,
  ...toysAndBaskets,
  ...crockeryMakers,
  ...kitchenwareMakers,
  ...machines,
  ...greenery,
  ...hungLuminaires,
  ...fixedLuminaires,
  ...standingLuminaires,
];

const byId = new Map(STOCK.map((item) => [item.id, item]));

/** The maker of a name, if it is shipped. */
export const stockItem = (maker: string): StockItem | undefined => byId.get(maker);

/** Everything that can be placed, in the order of the ledge. */
export const CARDS: readonly StockCard[] = STOCK.flatMap((item) =>
  (item.cards ?? [{ id: item.id, name: item.name } as Card]).map((card): StockCard => ({
    size: item.size,
    traits: {},
    finishes: {},
    hangs: {},
    ...card,
    words: [item.words, card.words].filter(Boolean).join(' '),
    item,
  })),
);

const cardById = new Map(CARDS.map((card) => [card.id, card]));

/** The card of a name, if it is shipped. */
export const stockCard = (id: string): StockCard | undefined => cardById.get(id);

/** A size brought within what the item allows. */
export function clampSize(item: StockItem, size: PieceSize): PieceSize {
  const clamp = (key: keyof PieceSize): number => Math.min(item.max[key], Math.max(item.min[key], size[key]));
  return { width: clamp('width'), depth: clamp('depth'), height: clamp('height') };
}

/** How a piece is drawn in the plan, in its own axes; undefined where its maker is not shipped. */
export function symbolOf({
  maker,
  size,
  traits,
  mirrored,
}: Pick<Piece, 'maker' | 'size' | 'traits'> & Partial<Pick<Piece, 'mirrored'>>): SymbolLine[] | undefined {
  const item = stockItem(maker);
  const lines = item?.symbol(size, traitsFor(item, traits));
  return mirrored ? lines?.map((line) => ({ ...line, points: line.points.map(({ x, y }) => ({ x: -x, y })) })) : lines;
}

const NONE: Traits = {};

const made = new Map<string, readonly MadePart[]>();
const KEPT = 800;

/** Forgets all parts made so far, so that the next ones are made anew. */
export const forgetParts = (): void => {
  made.clear();
  shut.clear();
};

/** How far curves may lie off their chords in pictures, metres: not seen from a step away. */
export const FINE = 0.0005;

/** How far they may in the view, metres: a tenth of the triangles, or fewer. */
export const LIGHT = 0.003;

/** The traits of a piece of a maker, none left out. */
export const traitsFor = (item: StockItem, traits: Traits): Traits => (item.traits ? wholeTraits(item.traits, traits) : traits);

/**
 * The parts of an item at a size; shared by all pieces of that size.
 *
 * @param off how far its curves may lie off their chords, metres
 * @param open how far its doors and drawers stand open, 0…1
 * @param mirrored its left and right change places
 */
export function makeParts(item: StockItem, size: PieceSize, traits: Traits = NONE, off = LIGHT, open = 0, mirrored = false): readonly MadePart[] {
  const whole = traitsFor(item, traits);
  const key = `${item.id} ${size.width} ${size.depth} ${size.height} ${off} ${open} ${mirrored} ${item.traits ? JSON.stringify(whole) : ''}`;
  let parts = made.get(key);
  if (!parts && mirrored)
    parts = kept(
      key,
      makeParts(item, size, traits, off, open).map((p) => ({ ...p, mesh: mirroredMesh(p.mesh) })),
    );
  if (!parts) {
    const all = within(off, () => item.make(size, whole));
    // Splayed legs are cut level with the floor.
    for (const { mesh } of all) for (let p = mesh.positions, k = 2; k < p.length; k += 3) p[k] = Math.max(0, p[k]);
    parts = joinParts(all, open, Object.keys(item.parts));
    kept(key, parts);
  }
  return parts;
}

/** Remembers parts, and forgets the oldest. */
function kept(key: string, parts: readonly MadePart[]): readonly MadePart[] {
  if (made.size >= KEPT) made.delete(made.keys().next().value!);
  made.set(key, parts);
  return parts;
}

const shut = new Map<string, readonly Made[]>();

/** What a maker makes, shut, mesh by mesh with what each moves by; shared by all of one size, as fine as what is made around it. */
export function madeShut(item: StockItem, size: PieceSize, traits: Traits): readonly Made[] {
  const key = `${item.id} ${size.width} ${size.depth} ${size.height} ${offChords()} ${JSON.stringify(traits)}`;
  let own = shut.get(key);
  if (!own) {
    if (shut.size >= KEPT / 4) shut.delete(shut.keys().next().value!);
    shut.set(key, (own = item.make(size, traits as never)));
  }
  return own;
}

/** A mesh with its left and right changed, its triangles still looking outwards. */
function mirroredMesh(mesh: Mesh): Mesh {
  const flip = (from: Float32Array): Float32Array => from.map((v, k) => (k % 3 === 0 ? -v : v));
  return {
    ...mesh,
    positions: flip(mesh.positions),
    normals: flip(mesh.normals),
    indices: mesh.indices.map((_, k, all) => (k % 3 === 0 ? all[k] : all[k % 3 === 1 ? k + 1 : k - 1])),
  };
}

/** Whether anything of an item opens. */
export const opens = (item: StockItem, size: PieceSize, traits: Traits = NONE): boolean =>
  within(LIGHT, () => item.make(size, traitsFor(item, traits))).some((p) => p.joint);

/** How prices grow with what is made: less than its volume does. */
const GROWTH = 0.6;

/** What a piece of a maker costs at a size, in the currency of the project, whole: made up, as everything that is sold here. */
export function priceOf({ sold, size: usual }: StockItem, size: PieceSize): number {
  const volume = ({ width, depth, height }: PieceSize): number => width * depth * height;
  const price = sold.price * (volume(size) / volume(usual)) ** GROWTH;
  return price < 100 ? Math.max(1, Math.round(price)) : Math.round(price / 5) * 5;
}

/** The code a maker's supplier knows it by: its initials and a number of its own (FNV-1a of its name). */
export function codeOf({ id, sold: { supplier } }: StockItem): string {
  let h = 0x811c9dc5;
  for (let i = 0; i < id.length; i++) h = Math.imul(h ^ id.charCodeAt(i), 0x01000193);
  const initials = supplier
    .split(/[^A-Za-z]+/)
    .map((word) => word[0])
    .join('')
    .toUpperCase();
  return `${initials}-${1000 + ((h >>> 0) % 9000)}`;
}

/** What a piece needs clear beside it, metres. */
export function clearOf(item: StockItem, size: PieceSize, traits: Traits = NONE): Clear {
  return (typeof item.clear === 'function' ? item.clear(size, traitsFor(item, traits)) : item.clear) ?? {};
}

/** How far a piece hangs down below what it lies on, metres. */
export const dropOf = (item: StockItem, size: PieceSize, traits: Traits = NONE): number => item.drop?.(size, traitsFor(item, traits)) ?? 0;

/** How many sit on a piece or at it. */
export const seatsOf = (item: StockItem, size: PieceSize, traits: Traits = NONE): number => item.seats?.(size, traitsFor(item, traits)) ?? 0;

/** Where one sits at a piece, on a chair drawn up to it: in its own axes. */
export const placesAt = (item: StockItem, size: PieceSize, traits: Traits = NONE): SeatPlace[] => item.places?.(size, traitsFor(item, traits)) ?? [];

/** How many lie in it. */
export const sleepsIn = (item: StockItem, size: PieceSize, traits: Traits = NONE): number => item.sleeps?.(size, traitsFor(item, traits)) ?? 0;

/** A placed piece with everything that follows from it. */
export interface DerivedPiece {
  id: string;
  piece: Piece;
  item: StockItem | undefined;
  matrix: Matrix;
  /** Meshes in the piece's own axes: what opens stands as far open as the piece says. */
  readonly parts: (MadePart & { finish: string })[];
  /** Corners of its footprint in the plan. */
  footprint: Vec2[];
  symbol: SymbolLine[];
}

const derived = new WeakMap<Piece, { elevation: number; value: DerivedPiece }>();

/** A piece in the world: where it stands, what it is made of, how it is drawn. Remembered while the piece is unchanged. */
export function derivePiece(project: Project, piece: Piece): DerivedPiece {
  const elevation = project.levels[piece.level].elevation;
  const known = derived.get(piece);
  if (known && known.elevation === elevation) return known.value;
  const item = stockItem(piece.maker);
  const matrix = placement(piece.x, piece.y, elevation + piece.elevation, piece.rotation);
  const plan = (p: Vec2): Vec2 => {
    const q = transformPoint(matrix, { ...p, z: 0 });
    return { x: q.x, y: q.y };
  };
  let parts: DerivedPiece['parts'] | undefined;
  const value: DerivedPiece = {
    id: piece.id,
    piece,
    item,
    matrix,
    // Schedules and checks need no meshes: they are made when they are first asked for.
    get parts() {
      return (parts ??= item
        ? makeParts(item, piece.size, piece.traits, LIGHT, piece.open, piece.mirrored).map((p) => ({
            ...p,
            finish: piece.finishes[p.part] ?? item.parts[p.part],
          }))
        : []);
    },
    footprint: footprintOf(piece, piece.size),
    symbol: (symbolOf(piece) ?? [{ points: rectangle(piece.size.width, piece.size.depth), closed: true }]).map((line) => ({
      ...line,
      points: line.points.map(plan),
    })),
  };
  derived.set(piece, { elevation, value });
  return value;
}

/** Puts the parts of a placed piece. The part that glows carries its light. */
export function putPiece(parts: Parts, project: Project, { id, piece, item, matrix, parts: made }: DerivedPiece): void {
  const owner = { id, kind: 'pieces', level: piece.level, matrix } as const;
  for (const { part, mesh, finish, framed } of made) {
    const finished = framed && finishIn(project, finish);
    parts.put(owner, {
      part,
      sort: 'piece',
      role: (item?.cabinet && PART_ROLES[part]) || null,
      finish,
      chosen: part in piece.finishes,
      target: { kind: 'part', of: id, part },
      mesh,
      // A picture fills its frame.
      ...(finished?.body.kind === 'image' ? { laid: framedIn(finished, framed!) } : {}),
      // Boards are sawn along the grain.
      grain: 'length',
      fine: item && (() => makeParts(item, piece.size, piece.traits, FINE, piece.open, piece.mirrored).find((p) => p.part === part)!.mesh),
      lamp: part === LAMP_PART && piece.lamp ? piece.lamp : undefined,
    });
  }
}

const frames = new WeakMap<Finish, Map<string, Finish>>();

/** A picture brought to the size of its frame; the same object for the same picture and frame. */
function framedIn(finish: Finish, { width, height }: { width: number; height: number }): Finish {
  const key = `${width} ${height}`;
  let own = frames.get(finish);
  if (!own) frames.set(finish, (own = new Map()));
  let framed = own.get(key);
  if (!framed) own.set(key, (framed = { ...finish, size: { width, height } }));
  return framed;
}

/** What the parts of cabinets are for, by their names. */
const PART_ROLES: Record<string, StartRole> = {
  fronts: 'joinery',
  carcass: 'joinery',
  plinth: 'joinery',
  top: 'worktop',
  worktop: 'worktop',
  handles: 'metal',
};

/** What the parts of a new cabinet begin with, where the scheme says so. */
const startsOf = (item: StockItem, starts: Starts): Record<string, string> =>
  item.cabinet
    ? Object.fromEntries(
        Object.keys(item.parts).flatMap((part) => {
          const role = PART_ROLES[part];
          const finish = role && starts[role];
          return finish ? [[part, finish]] : [];
        }),
      )
    : {};

/**
 * A new piece, standing at a point.
 *
 * @param what a card, or the first one of a maker
 * @param starts what the scheme in hand gives new cabinets
 */
export function pieceFrom(
  what: StockItem | StockCard,
  id: string,
  level: Project['levels'][string],
  at: Vec2,
  rotation = 0,
  starts: Starts = NO_STARTS,
): Piece {
  const card = 'item' in what ? what : CARDS.find((c) => c.item === what)!;
  const { item, size } = card;
  const elevation = item.mount === 'ceiling' ? level.height - size.height : (item.foot ?? 0);
  return {
    id,
    name: card.name,
    maker: item.id,
    level: level.id,
    x: at.x,
    y: at.y,
    elevation: Math.max(0, elevation),
    rotation,
    size: { ...size },
    traits: { ...card.traits },
    finishes: { ...card.finishes, ...startsOf(item, starts) },
    open: 0,
    mirrored: false,
    linked: null,
    status: 'new',
    supply: 'to order',
    on: null,
    hangs: null,
    lamp: item.lamp ? { ...item.lamp } : null,
  };
}
