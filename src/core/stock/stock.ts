import { placement, transformPoint, type Matrix, type Mesh } from '../geometry/mesh';
import { within } from '../geometry/shapes';
import type { Vec2 } from '../geometry/vec';
import { NO_STARTS, type Piece, type Project, type StartRole, type Starts } from '../project/schema';
import type { Parts } from '../model/body';
import { LAMP_PART, luminaires } from './luminaires';
import { seating } from './seating';
import { storage } from './storage';
import { washing } from './washing';
import { tables } from './tables';
import { wholeTraits, type Traits } from './traits';
import { rectangle, type PieceSize, type StockCard, type StockItem, type SymbolLine } from './types';

/** All makers, in the order of the ledge. */
export const STOCK: readonly StockItem[] = [...seating, ...tables, ...storage, ...washing, ...luminaires];

const byId = new Map(STOCK.map((item) => [item.id, item]));

/** The maker of a name, if it is shipped. */
export const stockItem = (maker: string): StockItem | undefined => byId.get(maker);

/** Everything that can be placed, in the order of the ledge. */
export const CARDS: readonly StockCard[] = STOCK.flatMap((item) =>
  (item.cards ?? [{ id: item.id, name: item.name }]).map((card): StockCard => ({
    size: item.size,
    traits: {},
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
export function symbolOf({ maker, size, traits }: Pick<Piece, 'maker' | 'size' | 'traits'>): SymbolLine[] | undefined {
  const item = stockItem(maker);
  return item?.symbol(size, traitsFor(item, traits));
}

const NONE: Traits = {};

const made = new Map<string, { part: string; mesh: Mesh }[]>();
const KEPT = 500;

/** Forgets all parts made so far, so that the next ones are made anew. */
export const forgetParts = (): void => made.clear();

/** How far curves may lie off their chords in pictures, metres: not seen from a step away. */
export const FINE = 0.001;

/** The traits of a piece of a maker, none left out. */
export const traitsFor = (item: StockItem, traits: Traits): Traits => (item.traits ? wholeTraits(item.traits, traits) : traits);

/** The parts of an item at a size; shared by all pieces of that size. @param off how far its curves may lie off their chords, metres */
export function makeParts(item: StockItem, size: PieceSize, traits: Traits = NONE, off = Infinity): { part: string; mesh: Mesh }[] {
  const whole = traitsFor(item, traits);
  const key = `${item.id} ${size.width} ${size.depth} ${size.height} ${off} ${item.traits ? JSON.stringify(whole) : ''}`;
  let parts = made.get(key);
  if (!parts) {
    const order = Object.keys(item.parts);
    parts = within(off, () => item.make(size, whole))
      .filter(({ mesh }) => mesh.indices.length > 0)
      .sort((a, b) => order.indexOf(a.part) - order.indexOf(b.part));
    // Splayed legs are cut level with the floor.
    for (const { mesh } of parts) for (let k = 2; k < mesh.positions.length; k += 3) mesh.positions[k] = Math.max(0, mesh.positions[k]);
    if (made.size >= KEPT) made.delete(made.keys().next().value!);
    made.set(key, parts);
  }
  return parts;
}

/** A placed piece with everything that follows from it. */
export interface DerivedPiece {
  id: string;
  piece: Piece;
  item: StockItem | undefined;
  matrix: Matrix;
  /** Meshes in the piece's own axes. */
  parts: { part: string; mesh: Mesh; finish: string }[];
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
  const value: DerivedPiece = {
    id: piece.id,
    piece,
    item,
    matrix,
    parts: item ? makeParts(item, piece.size, piece.traits).map((p) => ({ ...p, finish: piece.finishes[p.part] ?? item.parts[p.part] })) : [],
    footprint: rectangle(piece.size.width, piece.size.depth).map(plan),
    symbol: (symbolOf(piece) ?? [{ points: rectangle(piece.size.width, piece.size.depth), closed: true }]).map((line) => ({
      ...line,
      points: line.points.map(plan),
    })),
  };
  derived.set(piece, { elevation, value });
  return value;
}

/** Puts the parts of a placed piece. The part that glows carries its light. */
export function putPiece(parts: Parts, { id, piece, item, matrix, parts: made }: DerivedPiece): void {
  const owner = { id, kind: 'pieces', level: piece.level, matrix } as const;
  for (const { part, mesh, finish } of made)
    parts.put(owner, {
      part,
      sort: 'piece',
      role: (item?.cabinet && PART_ROLES[part]) || null,
      finish,
      chosen: part in piece.finishes,
      target: { kind: 'part', of: id, part },
      mesh,
      // Boards are sawn along the grain.
      grain: 'length',
      fine: item && (() => makeParts(item, piece.size, piece.traits, FINE).find((p) => p.part === part)!.mesh),
      lamp: part === LAMP_PART && piece.lamp ? piece.lamp : undefined,
    });
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
    finishes: startsOf(item, starts),
    lamp: item.lamp ? { ...item.lamp } : null,
  };
}
