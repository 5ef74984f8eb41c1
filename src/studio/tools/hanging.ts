import type { Model } from '@/core/model/model';
import { dressed, dressedLike, hungFrom, hungOver, placeNear, placesAtOpening, type HangingPlace } from '@/core/placing/hanging';
import type { Hanging, Piece } from '@/core/project/schema';
import { CARDS, stockCard } from '@/core/stock/stock';
import type { StockCard } from '@/core/stock/types';
import { to, type Worked } from './arranging';
import { selectedPieces } from './selected';
import { comingIds, get, type TablePoint } from './session';

/** Cards of what hangs at windows and doors. */
export const HANGING_CARDS: readonly StockCard[] = CARDS.filter((c) => c.item.hangs);

/** How near before a wall one points for its window to be meant, metres. */
const REACH = 0.6;

/** How far off a window may be for a piece to be hung at it by a press, metres. */
const FAR = 1.5;

/** The window or door that is meant where one points, and at which side of it. */
function meant(at: Pick<TablePoint, 'plan' | 'spot' | 'reach'>): HangingPlace | null {
  const { model, level } = get();
  const own = at.spot && model.project.openings[at.spot.entity] ? placesAtOpening(model, at.spot.entity) : [];
  // In the model one points at the window itself, wherever the floor behind it is.
  return own.length === 1 ? own[0] : placeNear(model, level, at.plan, Math.max(at.reach, REACH));
}

const called = (place: HangingPlace): string => `at ${get().project.openings[place.opening].name}`;

/** A new piece of a card where one points: at the window that is meant; null where none is, or it hangs at none. */
export function hungWhere(card: StockCard, at: TablePoint, id: string): { piece: Piece; note: string } | null {
  const { project } = get();
  const place = card.item.hangs && meant(at);
  const piece = place && hungFrom(project, card, id, place, project.schemes[project.scheme].starts);
  return piece ? { piece, note: called(place) } : null;
}

/** A piece that is dragged, at the window it is dragged to. */
export function draggedOver(piece: Piece, at: Pick<TablePoint, 'plan' | 'reach'>): { piece: Piece; note: string } | null {
  const place = meant({ ...at, spot: null });
  const over = place && hungOver(get().project, piece, place);
  return over ? { piece: over, note: called(place) } : null;
}

/** Hung at the window nearest to it. */
export function hungNear(id: string): Worked {
  const { model, project } = get();
  const piece = project.pieces[id];
  const place = placeNear(model, piece.level, piece, FAR);
  const over = place && hungOver(project, piece, place);
  return over?.hangs
    ? to('piece.set', { piece: id, set: { hangs: over.hangs } })
    : { refusal: `${piece.name} was not hung: there is no window or door near it.` };
}

/** Hung in another way, at its window. */
export const hungSo = (id: string, how: Partial<Hanging>): Worked =>
  to('piece.set', { piece: id, set: { hangs: { ...get().project.pieces[id].hangs!, ...how } } });

/** Hung no longer: it stays where it is, whatever becomes of its window. */
export const takenOff = (id: string): Worked => to('piece.set', { piece: id, set: { hangs: null } });

/** Hung at all other windows of its room or of the house too. */
export function hungEverywhere(id: string, scope: 'room' | 'house'): Worked {
  const { model, project } = get();
  const { pieces, instead } = dressedLike(model, id, scope, comingIds('piece'));
  const where = scope === 'room' ? 'room' : 'house';
  return pieces.length
    ? to('coverings.hang', { pieces, instead })
    : {
        refusal: `${project.pieces[id].name} was not copied: its ${where} has no other ${project.openings[project.pieces[id].hangs?.opening ?? '']?.kind ?? 'window'}.`,
      };
}

/** A card hung at openings. @param room the room it is hung in; null: at every side that has one */
export function hungAtAll(openings: readonly string[], cardId: string, room: string | null = null): Worked {
  const { model, project } = get();
  const roomOf = (place: HangingPlace): string | null => model.shell.openings.get(place.opening)!.rooms[place.side];
  const places = openings.flatMap((id) => placesAtOpening(model, id)).filter((place) => room === null || roomOf(place) === room);
  const { pieces, instead } = dressed(model, stockCard(cardId)!, places, comingIds('piece'), project.schemes[project.scheme].starts);
  return pieces.length
    ? to('coverings.hang', { pieces, instead }, pieces.length === 1 ? [pieces[0].id] : undefined)
    : { refusal: 'Nothing was hung: there is no window or door here to hang it at.' };
}

/** Windows that look into a room. */
export function windowsOf(model: Model, room: string): string[] {
  return [...model.shell.openings.values()].flatMap(({ id, opening, rooms }) =>
    opening.kind === 'window' && (rooms.left === room || rooms.right === room) ? [id] : [],
  );
}

/** Said where one would move what hangs at openings; empty where some of the selected pieces stand for themselves. */
export function hangingNote(): string {
  const { project } = get();
  const pieces = selectedPieces().map((id) => project.pieces[id]);
  const [first] = pieces;
  if (!first || pieces.some((p) => !p.hangs)) return '';
  return `${first.name} was not moved: it hangs at ${project.openings[first.hangs!.opening].name} and goes with it; take it off first.`;
}
