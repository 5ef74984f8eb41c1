import { finishIn } from '../finishes/store';
import type { Model } from '../model/model';
import { openingOf } from '../project/hanging';
import type { Finish, Piece } from '../project/schema';
import { clothFor, type Cloth } from '../stock/coverings/cloth';
import { codeOf, priceOf, stockItem, traitsFor } from '../stock/stock';
import { roomAt } from '../placing/around';
import { fateOf, type Fate } from './pieces';

/** Width of cloth where a finish that is not sold by the metre is sewn, metres. */
const USUAL_BOLT = 1.37;

/** How cloth is sold: the width of its bolt, and how far its pattern repeats along it; 0: it has none to match. Metres. */
export const soldAs = ({ unit, coverage, body, size }: Pick<Finish, 'unit' | 'coverage' | 'body' | 'size'>): { bolt: number; repeat: number } => ({
  bolt: unit === 'metre' ? coverage : USUAL_BOLT,
  repeat: body.kind === 'motif' || body.kind === 'image' ? size.height : 0,
});

/** Cloth of one part of a covering, and what is bought of it. */
export interface SewnCloth extends Cloth {
  part: string;
  finish: Finish;
  drop: number;
}

/** What is sewn for a piece; nothing where its maker sews nothing. */
export function sewnFor(model: Model, { maker, size, traits, finishes }: Piece): SewnCloth[] {
  const item = stockItem(maker);
  return (item?.sewn?.(size, traitsFor(item, traits)) ?? []).map(({ part, width, drop, fullness, count }) => {
    const finish = finishIn(model.project, finishes[part] ?? item!.parts[part]);
    return { part, finish, drop, ...clothFor({ width, drop, fullness, curtains: count, ...soldAs(finish) }) };
  });
}

/** A covering with what it is made of. SI units. */
export interface CoveringRow {
  id: string;
  level: string;
  room: string;
  opening: string;
  name: string;
  hung: string;
  /** Finished. */
  width: number;
  drop: number;
  cloth: string;
  /** Widths of cloth in each curtain, to the half. */
  widths: number | null;
  /** Length of one drop as it is cut. */
  cut: number;
  /** What is bought of the cloth, of its lining and of a sheer behind it. */
  metres: number;
  lining: number;
  sheer: number;
  track: number;
  status: Fate;
  supplier: string;
  code: string;
  /** Of its making, without the cloth, in the money of the project; what is there already costs nothing. */
  cost: number;
}

/** Everything that hangs at windows and doors, room by room: finished sizes, cloth, track. */
export function coveringSchedule(model: Model): CoveringRow[] {
  const { project } = model;
  const rows = Object.values(project.pieces).flatMap((piece): CoveringRow[] => {
    const item = stockItem(piece.maker);
    if (!item?.hangs) return [];
    const room = roomAt(model, piece);
    const sewn = sewnFor(model, piece);
    const of = (part: string): SewnCloth | undefined => sewn.find((s) => s.part === part);
    const main = of('cloth');
    return [
      {
        id: piece.id,
        level: project.levels[piece.level].name,
        room: room ? (project.rooms[room]?.name ?? '') : 'In no room',
        opening: piece.hangs && project.openings[piece.hangs.opening] ? openingOf(project, piece.hangs).name : '',
        name: piece.name,
        hung: piece.hangs ? (piece.hangs.where === 'recess' ? 'in the recess' : 'before the wall') : '',
        width: piece.size.width,
        drop: main?.drop ?? piece.size.height,
        cloth: main?.finish.name ?? '',
        widths: main?.widths ?? null,
        cut: main?.cut ?? 0,
        metres: main?.metres ?? 0,
        lining: of('lining')?.metres ?? 0,
        sheer: of('sheer')?.metres ?? 0,
        track: item.track?.(piece.size, traitsFor(item, piece.traits)) ?? 0,
        status: fateOf(piece),
        supplier: item.sold.supplier,
        code: codeOf(item),
        cost: piece.status === 'new' ? priceOf(item, piece.size) : 0,
      },
    ];
  });
  const elevation = (name: string): number => Object.values(project.levels).find((l) => l.name === name)!.elevation;
  return rows.sort(
    (a, b) =>
      elevation(a.level) - elevation(b.level) ||
      a.room.localeCompare(b.room, 'en') ||
      a.opening.localeCompare(b.opening, 'en') ||
      a.name.localeCompare(b.name, 'en'),
  );
}

/** Cloth of one finish that is bought for new coverings. */
export interface ClothLot {
  finish: Finish;
  metres: number;
  pieces: { piece: Piece; metres: number }[];
}

/** The cloth that is bought by the metre for all new coverings, of what is not bought yet or is. */
export function clothLots(model: Model): ClothLot[] {
  const lots = new Map<string, ClothLot>();
  for (const piece of Object.values(model.project.pieces)) {
    if (piece.status !== 'new') continue;
    for (const { finish, metres } of sewnFor(model, piece)) {
      const lot = lots.get(finish.id) ?? { finish, metres: 0, pieces: [] };
      lot.metres += metres;
      lot.pieces.push({ piece, metres });
      lots.set(finish.id, lot);
    }
  }
  return [...lots.values()];
}
