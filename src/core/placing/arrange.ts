import { boxOf } from '../geometry/polygon';
import { add, distance, rotate, scale, sub, type Vec2 } from '../geometry/vec';
import type { Model } from '../model/model';
import { DomainError } from '../project/errors';
import { footprintOf, fromAxesOf, inAxesOf, type Stand } from '../project/footprint';
import type { Piece, Project } from '../project/schema';
import { onCopies, standingOn } from '../project/standing-on';
import { clampSize, placesAt, type DerivedPiece } from '../stock/stock';
import type { PieceSize, StockCard } from '../stock/types';
import { DUST, NEAR } from '../units/tolerance';
import { gapsOf, overlapping, reachInto, SLACK, type PieceSide } from './around';

/** Where a piece comes to stand. */
export interface Place {
  piece: string;
  set: { x: number; y: number; rotation?: number };
}

/** What is brought into one line: one side of each, or its middle. `left`…`back` are the sides of the first. */
export type Line = PieceSide | 'middle across' | 'middle along';

/** A box round a piece, in the axes of another. */
function extent({ footprint }: DerivedPiece, rotation: number): { low: Vec2; high: Vec2 } {
  const box = boxOf(footprint.map((p) => rotate(p, -rotation)));
  return { low: { x: box.x0, y: box.y0 }, high: { x: box.x1, y: box.y1 } };
}

const derivedOfAll = (model: Model, ids: readonly string[]): DerivedPiece[] =>
  ids.flatMap((id) => {
    const found = model.pieces.find((p) => p.id === id);
    return found ? [found] : [];
  });

/** Pieces moved so that a side of each, or its middle, lies in one line with that of the first, which stays. Axes are those of the first. */
export function inLine(model: Model, ids: readonly string[], line: Line): Place[] {
  const all = derivedOfAll(model, ids);
  if (all.length < 2) return [];
  const { rotation } = all[0].piece;
  const at = ({ low, high }: { low: Vec2; high: Vec2 }): Vec2 => {
    switch (line) {
      case 'left':
        return { x: low.x, y: 0 };
      case 'right':
        return { x: high.x, y: 0 };
      case 'front':
        return { x: 0, y: low.y };
      case 'back':
        return { x: 0, y: high.y };
      case 'middle across':
        return { x: (low.x + high.x) / 2, y: 0 };
      case 'middle along':
        return { x: 0, y: (low.y + high.y) / 2 };
    }
  };
  const first = at(extent(all[0], rotation));
  return all.slice(1).map(({ id, piece }, i) => ({ piece: id, set: add(piece, rotate(sub(first, at(extent(all[i + 1], rotation))), rotation)) }));
}

/**
 * Pieces moved so that the gaps between them are even: the two outermost stay, or, with a gap given, the first of them.
 * Along the direction in which they lie farthest apart, in the axes of the first.
 *
 * @param gap metres; null: what lies between the outermost is shared out
 */
export function spread(model: Model, ids: readonly string[], gap: number | null = null): Place[] {
  const all = derivedOfAll(model, ids);
  if (all.length < 2 || (gap === null && all.length < 3)) return [];
  const { rotation } = all[0].piece;
  const boxes = all.map((p) => ({ own: p, ...extent(p, rotation) }));
  const reach = (axis: 'x' | 'y'): number => {
    const middles = boxes.map((b) => (b.low[axis] + b.high[axis]) / 2);
    return Math.max(...middles) - Math.min(...middles);
  };
  const axis = reach('x') >= reach('y') ? 'x' : 'y';
  const sorted = [...boxes].sort((a, b) => a.low[axis] + a.high[axis] - b.low[axis] - b.high[axis]);
  const [first, last] = [sorted[0], sorted[sorted.length - 1]];
  const filled = sorted.reduce((sum, b) => sum + b.high[axis] - b.low[axis], 0);
  const between = gap ?? (last.high[axis] - first.low[axis] - filled) / (sorted.length - 1);
  let at = first.low[axis];
  return sorted.flatMap(({ own, low, high }) => {
    const by = at - low[axis];
    at += high[axis] - low[axis] + between;
    if (Math.abs(by) < DUST) return [];
    return [{ piece: own.id, set: add(own.piece, rotate(axis === 'x' ? { x: by, y: 0 } : { x: 0, y: by }, rotation)) }];
  });
}

/** A piece moved to the middle between what bounds it at its left and right, or at its front and back: of a wall, a recess, two neighbours. */
export function centred(model: Model, id: string, way: 'across' | 'along'): Place[] {
  const gaps = gapsOf(model, id);
  const [low, high] = way === 'across' ? [gaps.left, gaps.right] : [gaps.front, gaps.back];
  const piece = model.project.pieces[id];
  if (!low || !high) return [];
  const by = (high.distance - low.distance) / 2;
  return [{ piece: id, set: fromAxesOf(piece, way === 'across' ? { x: by, y: 0 } : { x: 0, y: by }) }];
}

/** How far a wall may be behind a piece whose window is meant, metres. */
const BEHIND = 1.5;

/** A piece moved along the wall at its back to the middle of the nearest window or door there. */
export function centredOnOpening(model: Model, id: string): Place[] {
  const piece = model.project.pieces[id];
  const back = gapsOf(model, id).back;
  if (!back || back.kind !== 'wall' || back.distance > BEHIND) return [];
  let best: { by: number; far: number } | null = null;
  for (const { opening, point, level } of model.shell.openings.values()) {
    if (level !== piece.level || (back.id !== null && opening.wall !== back.id)) continue;
    const local = inAxesOf(piece, point);
    // Openings of the wall behind it, not of one it only leans towards.
    if (local.y < 0 || local.y > piece.size.depth / 2 + BEHIND + 0.6) continue;
    if (!best || Math.abs(local.x) < best.far) best = { by: local.x, far: Math.abs(local.x) };
  }
  return best ? [{ piece: id, set: fromAxesOf(piece, { x: best.by, y: 0 }) }] : [];
}

type NewId = () => string;

/** Copies of a piece with what stands on it, each moved and turned. @param moves one for each copy, in the plan */
function copies(project: Project, id: string, moves: readonly { about: Vec2; turn: number; by: Vec2 }[], newId: NewId, linked: string | null): Piece[] {
  return moves.flatMap(({ about, turn, by }) => {
    const copied = new Map<string, Piece>();
    for (const own of [id, ...standingOn(project.pieces, [id])]) {
      const one = project.pieces[own];
      const at = add(add(about, rotate(sub(one, about), turn)), by);
      copied.set(own, {
        ...structuredClone(one),
        id: newId(),
        ...at,
        rotation: one.rotation + turn,
        linked: own === id ? linked : null,
        hangs: null,
      });
    }
    return onCopies(copied);
  });
}

/** The most copies that are made at once. */
export const MOST_COPIES = 200;

/**
 * Copies of a piece in rows: so many across and so many along, each a step on in the axes of the piece.
 *
 * @param count how many there are then in all, across and along; @param step metres, across and along
 * @param linked what they are linked by; null: each is its own
 * @throws DomainError `copies.many`
 */
export function rowsOf(
  project: Project,
  id: string,
  { count, step }: { count: { across: number; along: number }; step: { across: number; along: number } },
  newId: NewId,
  linked: string | null = null,
): Piece[] {
  const piece = project.pieces[id];
  if (count.across * count.along - 1 > MOST_COPIES)
    throw new DomainError('copies.many', `Nothing was copied: at most ${MOST_COPIES} copies are made at once; ask for fewer.`, [id]);
  const moves = Array.from({ length: count.across * count.along - 1 }, (_, n) => {
    const [i, j] = [(n + 1) % count.across, Math.floor((n + 1) / count.across)];
    return { about: piece, turn: 0, by: rotate({ x: i * step.across, y: j * step.along }, piece.rotation) };
  });
  return copies(project, id, moves, newId, linked);
}

/**
 * Copies of a piece in a ring: evenly round a point, each turned with it.
 *
 * @param count how many there are then in all
 * @throws DomainError `copies.many`
 */
export function ringOf(project: Project, id: string, about: Vec2, count: number, newId: NewId, linked: string | null = null): Piece[] {
  if (count - 1 > MOST_COPIES) throw new DomainError('copies.many', `Nothing was copied: at most ${MOST_COPIES} copies are made at once; ask for fewer.`, [id]);
  const moves = Array.from({ length: count - 1 }, (_, i) => ({ about, turn: ((i + 1) / count) * 2 * Math.PI, by: { x: 0, y: 0 } }));
  return copies(project, id, moves, newId, linked);
}

/** How far a chair is drawn under a table, metres, and at most of its own depth. */
const TUCK = 0.24;
const TUCK_SHARE = 0.45;
/** Chairs that are in each other's way are drawn out by so much at a time, metres. */
const DRAW_OUT = 0.02;

/** Where a seat stands at each place of a table: drawn under it as far as leaves them clear of one another. @param seat its size, metres */
export function seatsAt({ piece, item }: DerivedPiece, seat: { width: number; depth: number }): Stand[] {
  const places = item ? placesAt(item, piece.size, piece.traits) : [];
  const stand = (tuck: number): Stand[] =>
    places.map((place) => {
      const rotation = (piece.mirrored ? -place.rotation : place.rotation) + piece.rotation;
      const out = { x: -Math.sin(rotation), y: Math.cos(rotation) };
      const at = fromAxesOf(piece, { x: piece.mirrored ? -place.x : place.x, y: place.y });
      return { ...add(at, scale(out, seat.depth / 2 - tuck)), rotation };
    });
  const clear = (all: ReturnType<typeof stand>): boolean => {
    const boxes = all.map((a) => footprintOf(a, seat));
    return boxes.every((box, i) => boxes.slice(i + 1).every((other) => reachInto(box, other) <= SLACK));
  };
  for (let tuck = Math.min(TUCK, seat.depth * TUCK_SHARE); tuck > 0; tuck -= DRAW_OUT) {
    const all = stand(tuck);
    if (clear(all)) return all;
  }
  return stand(0);
}

/** Chairs round a table: at every place of it that is clear, as many as fit. */
export function chairsRound(model: Model, table: string, { item, size }: { item: StockCard['item']; size: PieceSize }): Stand[] {
  const own = model.pieces.find((p) => p.id === table);
  if (!own) return [];
  const room = clampSize(item, size);
  return seatsAt(own, room).filter((at) => !overlapping(model, own.piece.level, at, room, new Set([table, ...standingOn(model.project.pieces, [table])])));
}

/** The free place at a table that is nearest to a point, for a seat that is being placed; null: none within reach. @param reach metres */
export function seatNear(
  model: Model,
  level: string,
  p: Vec2,
  { size, except }: { size: PieceSize; except: ReadonlySet<string> },
  reach: number,
): (Stand & { table: string }) | null {
  let best: (Stand & { table: string }) | null = null;
  let least = reach;
  for (const own of model.pieces) {
    if (own.piece.level !== level || except.has(own.id) || !own.item?.places) continue;
    for (const at of seatsAt(own, size)) {
      const far = distance(at, p);
      if (far > least - NEAR) continue;
      if (overlapping(model, level, at, size, new Set([...except, own.id, ...standingOn(model.project.pieces, [own.id])]))) continue;
      least = far;
      best = { ...at, table: own.id };
    }
  }
  return best;
}
