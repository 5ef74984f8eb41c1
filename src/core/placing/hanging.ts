import { dot, left, sub, type Vec2 } from '../geometry/vec';
import type { Model } from '../model/model';
import { hangingSo, hungAt, openingOf } from '../project/hanging';
import { openingStation } from '../project/openings';
import { standsIn } from '../project/phase';
import type { Hanging, Opening, Piece, Project, Side, Starts } from '../project/schema';
import { wallExtents } from '../project/wall-line';
import { NEAR } from '../units/tolerance';
import { pieceFrom, stockItem, traitsFor } from '../stock/stock';
import type { HangsHow, StockCard } from '../stock/types';

/** A side of an opening that something can hang at; of a window round a corner also at its other part. */
export type HangingPlace = Pick<Hanging, 'opening' | 'side' | 'leg'>;

const SIDES: readonly Side[] = ['left', 'right'];

/** The places at an opening: at its sides where there is a room; at both where there is none. */
export function placesAtOpening(model: Model, id: string): HangingPlace[] {
  const derived = model.shell.openings.get(id);
  if (!derived || derived.opening.kind === 'niche') return [];
  const rooms = SIDES.filter((side) => derived.rooms[side]);
  const legs = derived.opening.form === 'corner' ? [false, true] : [false];
  return (rooms.length ? rooms : SIDES).flatMap((side) => legs.map((leg) => ({ opening: id, side, leg })));
}

/** How far beside an opening one may point and still mean it, metres. */
const BESIDE = 0.3;

/**
 * The place one means at a point of the plan: at the nearest window, door or passage there, at the side one is at as
 * far as that is a room.
 *
 * @param reach how far before the wall still counts, metres
 */
export function placeNear(model: Model, level: string, p: Vec2, reach: number): HangingPlace | null {
  const { project } = model;
  let best: { place: HangingPlace; away: number } | null = null;
  for (const { opening } of model.shell.openings.values()) {
    const wall = project.walls[opening.wall];
    if (wall?.level !== level) continue;
    for (const place of placesAtOpening(model, opening.id)) {
      const own = openingOf(project, place);
      const { p: at, d } = openingStation(project, own);
      const [along, off] = [Math.abs(dot(sub(p, at), d)), dot(sub(p, at), left(d)) * (place.side === 'left' ? 1 : -1)];
      const extents = wallExtents(project, project.walls[own.wall]);
      const before = off - extents[place.side];
      // From behind the wall it is meant less than from before it.
      if (along > own.width / 2 + BESIDE || before > reach || off < -extents.left - extents.right - reach) continue;
      const away = Math.max(0, along - own.width / 2) + (before > 0 ? before : -off * 0.01 + (off < 0 ? -off : 0));
      if (!best || away < best.away) best = { place, away };
    }
  }
  return best?.place ?? null;
}

/** How something hangs at a place. */
const hangsAt = (project: Project, { opening, side, leg }: HangingPlace, { where, ends, sides, above, below }: HangsHow): Hanging =>
  hangingSo(project, { where, ends, sides, above, below, opening, side, leg });

/** A piece as it hangs at a place, by how it hangs now or by how its maker says. Null: its maker hangs nothing. */
export function hungOver(project: Project, piece: Piece, place: HangingPlace): Piece | null {
  const how = piece.hangs ?? stockItem(piece.maker)?.hangs;
  if (!how) return null;
  const hangs = hangsAt(project, place, how);
  return { ...piece, hangs, on: null, ...hungAt(project, { hangs, size: piece.size }) };
}

/** A new piece of a card as it hangs at a place; null: it hangs at no opening. */
export function hungFrom(project: Project, card: StockCard, id: string, place: HangingPlace, starts?: Starts): Piece | null {
  const own = card.item.hangs;
  if (!own) return null;
  const level = project.levels[project.walls[project.openings[place.opening].wall].level];
  const hangs = hangsAt(project, place, { ...own, ...card.hangs });
  const piece = pieceFrom(card, id, level, { x: 0, y: 0 }, 0, starts);
  return { ...piece, hangs, ...hungAt(project, { hangs, size: piece.size }) };
}

/** What hangs at a place. */
export const hangingAt = (project: Project, place: HangingPlace): Piece[] =>
  Object.values(project.pieces).filter(({ hangs: h }) => h?.opening === place.opening && h.side === place.side && h.leg === place.leg);

/** New pieces at openings, and the ones that are taken down for them. */
export interface Dressing {
  pieces: Piece[];
  instead: string[];
}

/** What hangs at a place already and makes room for a piece: what its maker made. */
const madeAlike = (project: Project, place: HangingPlace, piece: Pick<Piece, 'id' | 'maker'>): string[] =>
  hangingAt(project, place).flatMap((p) => (p.maker === piece.maker && p.id !== piece.id ? [p.id] : []));

/** A card hung at places. @param next ids of the new pieces; @param starts what the scheme in hand gives new pieces */
export function dressed(model: Model, card: StockCard, places: readonly HangingPlace[], next: () => string, starts?: Starts): Dressing {
  const out: Dressing = { pieces: [], instead: [] };
  for (const place of places) {
    const piece = hungFrom(model.project, card, next(), place, starts);
    if (!piece) continue;
    out.pieces.push(piece);
    out.instead.push(...madeAlike(model.project, place, piece));
  }
  return out;
}

/** Whether openings take the same covering: windows are dressed like windows, doors like doors. */
const likeWise = (a: Opening, b: Opening): boolean => a.kind === b.kind && standsIn(b.status, 'after') === standsIn(a.status, 'after');

/**
 * What hangs at one window hung at all others of its room, or of the house. Of windows side by side in one wall those
 * in the one half are mirrored, where it has a left and a right.
 *
 * @param next ids of the new pieces
 */
export function dressedLike(model: Model, id: string, scope: 'room' | 'house', next: () => string): Dressing {
  const { project, shell } = model;
  const piece = project.pieces[id];
  const out: Dressing = { pieces: [], instead: [] };
  const { hangs } = piece;
  if (!hangs) return out;
  const own = project.openings[hangs.opening];
  const room = shell.openings.get(own.id)?.rooms[hangs.side] ?? null;
  const roomOf = (place: HangingPlace): string | null => shell.openings.get(place.opening)?.rooms[place.side] ?? null;
  const places = [...shell.openings.values()].flatMap(({ opening }) => {
    if (!likeWise(own, opening)) return [];
    const all = placesAtOpening(model, opening.id);
    // A window between two rooms is dressed in the one where one is, or at one side.
    if (scope === 'room') return room === null ? [] : all.filter((place) => roomOf(place) === room);
    return all.some((p) => p.side === hangs.side && p.opening === own.id)
      ? all.filter((p) => p.side === hangs.side)
      : all.filter((p) => p.side === all[0].side);
  });
  const item = stockItem(piece.maker);
  const roomed = (place: HangingPlace): string => `${openingOf(project, place).wall} ${roomOf(place)}`;
  const handed = item?.handed?.(traitsFor(item, piece.traits)) ?? false;
  for (const place of places) {
    if (place.opening === hangs.opening && place.side === hangs.side && place.leg === hangs.leg) continue;
    const flipped = handed && inOtherHalf(project, places, hangs, place, roomed);
    const one = hungOver(project, { ...structuredClone(piece), id: next(), linked: null, mirrored: flipped !== piece.mirrored }, place)!;
    out.pieces.push(one);
    out.instead.push(...madeAlike(project, place, one));
  }
  return out;
}

/**
 * Whether a place lies in the other half of its wall, seen from its room, than one whose hand is known; one alone in its
 * wall is as that.
 *
 * @param beside what places side by side have in common: their wall and their room
 */
function inOtherHalf(
  project: Project,
  places: readonly HangingPlace[],
  known: HangingPlace,
  place: HangingPlace,
  beside: (place: HangingPlace) => string,
): boolean {
  // Seen from the left of a wall its start is at the right.
  const rightward = (p: HangingPlace): number => openingOf(project, p).at * (p.side === 'left' ? -1 : 1);
  const halfIn = (p: HangingPlace): number => {
    const all = places.filter((o) => beside(o) === beside(p)).map(rightward);
    const middle = (Math.min(...all) + Math.max(...all)) / 2;
    return all.length < 2 ? 0 : Math.sign(Math.round((rightward(p) - middle) / NEAR));
  };
  const half = halfIn(place);
  // One that is known by itself counts as the left one.
  return half !== 0 && half !== (halfIn(known) || -1);
}
