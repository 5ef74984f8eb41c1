import { finishIn } from '../finishes/store';
import type { Model } from '../model/model';
import { roomAt } from '../placing/around';
import type { Piece } from '../project/schema';
import { codeOf, makeParts, priceOf, stockItem, traitsFor } from '../stock/stock';

/** What becomes of a piece: it stays, it goes, or it is new and so far with being bought. */
export type Fate = 'stays' | 'goes' | Piece['supply'];

const FATES: readonly Fate[] = ['stays', 'goes', 'to order', 'ordered', 'bought'];

export const fateOf = ({ status, supply }: Pick<Piece, 'status' | 'supply'>): Fate =>
  status === 'existing' ? 'stays' : status === 'removed' ? 'goes' : supply;

/** Pieces of one room that are alike in all that is bought. SI units. */
export interface PieceRow {
  /** Of the first of them. */
  id: string;
  level: string;
  room: string;
  name: string;
  count: number;
  width: number;
  depth: number;
  height: number;
  /** Its parts with their finishes: "seat: Wool, oat; legs: Oak, oiled". */
  finishes: string;
  status: Fate;
  supplier: string;
  code: string;
  /** Of one, in the money of the project; what is there already costs nothing. */
  price: number;
  cost: number;
}

/** What tells things that are bought apart: what it is, how large, of what, by which name. */
function sort({ maker, name, size, traits, mirrored, finishes }: Piece): string {
  const item = stockItem(maker);
  return JSON.stringify([maker, name, size.width, size.depth, size.height, item ? traitsFor(item, traits) : traits, mirrored, Object.entries(finishes).sort()]);
}

/** Pieces that are alike, together, in the order in which the first of each was placed. */
function alike(pieces: readonly Piece[], apart: (piece: Piece) => string = () => ''): Piece[][] {
  const by = new Map<string, Piece[]>();
  for (const piece of pieces) {
    const key = `${apart(piece)} ${sort(piece)}`;
    const own = by.get(key);
    if (own) own.push(piece);
    else by.set(key, [piece]);
  }
  return [...by.values()];
}

/** What one piece of stock costs; what is not shipped has no price. */
const priceOfPiece = ({ maker, size }: Piece): number => {
  const item = stockItem(maker);
  return item ? priceOf(item, size) : 0;
};

/** Every piece, also what goes and what stood there before: by level, room and name. */
export function pieceSchedule(model: Model): PieceRow[] {
  const { project } = model;
  const levels = Object.values(project.levels).sort((a, b) => a.elevation - b.elevation);
  return levels.flatMap((level) => {
    const own = Object.values(project.pieces).filter((p) => p.level === level.id);
    const rooms = new Map(own.map((p) => [p.id, roomAt(model, p)]));
    return alike(own, (p) => `${rooms.get(p.id)} ${fateOf(p)}`)
      .map((all): PieceRow => {
        const [first] = all;
        const item = stockItem(first.maker);
        // A maker has parts that not all it makes have: the sheer of curtains.
        const made = item && new Set(makeParts(item, first.size, first.traits).map((p) => p.part));
        const room = rooms.get(first.id);
        const status = fateOf(first);
        const price = first.status === 'new' ? priceOfPiece(first) : 0;
        return {
          id: first.id,
          level: level.name,
          room: room ? (project.rooms[room]?.name ?? '') : 'In no room',
          name: first.name,
          count: all.length,
          ...first.size,
          finishes: Object.entries({ ...item?.parts, ...first.finishes })
            .filter(([part]) => !made || made.has(part))
            .map(([part, id]) => `${part}: ${finishIn(project, id).name}`)
            .join('; '),
          status,
          supplier: item?.sold.supplier ?? '',
          code: item ? codeOf(item) : '',
          price,
          cost: price * all.length,
        };
      })
      .sort(
        (a, b) =>
          a.room.localeCompare(b.room, 'en') || a.name.localeCompare(b.name, 'en') || FATES.indexOf(a.status) - FATES.indexOf(b.status) || b.width - a.width,
      );
  });
}

/** New pieces that are alike, all of the house together. */
export interface PieceLot {
  first: Piece;
  price: number;
  /** How many of them are how far: "4 to order, 2 bought". */
  order: string;
  pieces: readonly Piece[];
}

/** What is bought of pieces: one lot of all that are alike. What stands outside, or in no room, is bought too. */
export function pieceLots({ project }: Model): PieceLot[] {
  return alike(Object.values(project.pieces).filter((p) => p.status === 'new' && stockItem(p.maker))).map((pieces) => ({
    first: pieces[0],
    price: priceOfPiece(pieces[0]),
    order: FATES.flatMap((fate) => {
      const count = pieces.filter((p) => p.supply === fate).length;
      return count ? [`${count} ${fate}`] : [];
    }).join(', '),
    pieces,
  }));
}
