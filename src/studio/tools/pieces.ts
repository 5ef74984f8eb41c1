import type { Vec2 } from '@/core/geometry/vec';
import type { Piece } from '@/core/project/schema';
import { onCopies, standingOn } from '@/core/project/standing-on';
import { pieceFrom, stockCard } from '@/core/stock/stock';
import { newId } from '../store/studio';
import { collisionNote } from './collisions';
import { hangingNote, hungWhere } from './hanging';
import { standPiece, standUpright } from './place';
import { selectedPieces } from './selected';
import { dropSet, isSetCard, showSet } from './sets';
import { comingId, get, set, wasSet, type TablePoint } from './session';

function ghostPiece(name: string, at: TablePoint, id: string): { piece: Piece; note: string } | null {
  const { model, project, level } = get();
  const card = stockCard(name);
  if (!card) return null;
  const { item } = card;
  const hung = hungWhere(card, at, id);
  if (hung) return hung;
  const starts = project.schemes[project.scheme].starts;
  if (at.wall) {
    const piece = pieceFrom(card, id, project.levels[at.wall.level], at.plan, 0, starts);
    const { note, rests, ...stands } = standUpright(model, item, piece.size, at.wall, piece.traits);
    return { piece: { ...piece, ...stands, ...rests }, note };
  }
  const piece = pieceFrom(card, id, project.levels[level], at.plan, 0, starts);
  const { x, y, rotation, note, rests } = standPiece(model, {
    level,
    item,
    size: piece.size,
    traits: piece.traits,
    at: at.plan,
    rotation: 0,
    reach: at.reach,
    except: new Set([id]),
    onto: at.onto,
  });
  return { piece: { ...piece, x, y, rotation, ...rests }, note };
}

export function showPlace(at: TablePoint): void {
  const { tool } = get();
  if (tool.kind === 'place') showDrop(tool.card, at);
}

/** Shows a piece where it would stand. */
export function showDrop(card: string, at: TablePoint): void {
  if (isSetCard(card)) return showSet(card, at);
  const made = ghostPiece(card, at, comingId('piece'));
  if (!made) return;
  get().preview('piece.add', { pieces: [made.piece] });
  set({
    measure: {
      fields: [
        { label: 'wide', value: made.piece.size.width },
        { label: 'deep', value: made.piece.size.depth },
      ],
      note: [made.note, collisionNote(get().model, made.piece)].filter(Boolean).join(', '),
      typed: null,
      field: 0,
    },
  });
}

/** Puts a piece down. */
export function dropPiece(card: string, at: TablePoint): void {
  if (isSetCard(card)) return dropSet(card, at);
  const id = comingId('piece');
  const made = ghostPiece(card, at, id);
  const state = get();
  if (!made) return state.endPreview();
  if (!state.run('piece.add', { pieces: [made.piece] })) return;
  wasSet('piece');
  set({ measure: null });
  state.select([{ entity: id, target: null }]);
}

/** A copy of the selected pieces beside them. */
export function duplicateSelection(): void {
  const state = get();
  const pieces = state.selection.map((s) => state.project.pieces[s.entity]).filter(Boolean);
  if (!pieces.length) return;
  const copied = new Map<string, Piece>();
  for (const p of pieces) {
    const by = { x: Math.cos(p.rotation) * (p.size.width + 0.05), y: Math.sin(p.rotation) * (p.size.width + 0.05) };
    // What stands on it is copied with it, and goes as far.
    for (const id of [p.id, ...standingOn(state.project.pieces, [p.id])]) {
      const one = state.project.pieces[id];
      if (!copied.has(id)) copied.set(id, { ...structuredClone(one), id: newId('piece'), x: one.x + by.x, y: one.y + by.y, hangs: null });
    }
  }
  if (state.run('piece.add', { pieces: onCopies(copied) })) state.select(pieces.map((p) => ({ entity: copied.get(p.id)!.id, target: null })));
}

export function deleteSelection(): void {
  const state = get();
  const ids = state.selection.map((s) => s.entity).filter((id) => !state.project.rooms[id]);
  if (!ids.length) return;
  if (state.run('delete', { ids })) state.select([]);
}

/** Turns the selected pieces a quarter, or by `angle` radians. */
export function turnSelection(angle = Math.PI / 2): void {
  const pieces = selectedPieces();
  const hung = hangingNote();
  if (hung) return get().say(hung);
  if (pieces.length) get().run('pieces.move', { pieces, by: { x: 0, y: 0 }, turn: angle });
}

/** How far an arrow moves pieces, metres: 1, 10, 100 mm; 1/16, 1, 12 in. */
const STEPS = { metric: { small: 0.001, middle: 0.01, large: 0.1 }, imperial: { small: 0.0254 / 16, middle: 0.0254, large: 0.3048 } } as const;
const WAYS: Readonly<Record<string, readonly [x: number, y: number]>> = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] };

/** How far an arrow goes, metres; null: it is no arrow. */
export function nudge(key: string, units: keyof typeof STEPS, size: keyof (typeof STEPS)['metric']): Vec2 | null {
  const way = WAYS[key];
  const step = STEPS[units][size];
  return way ? { x: way[0] * step, y: way[1] * step } : null;
}

/** Moves the selected pieces by a step in the plan. @param key of the arrow */
export function nudgeSelection(key: string, size: keyof (typeof STEPS)['metric']): void {
  const pieces = selectedPieces();
  const by = nudge(key, get().project.units, size);
  const hung = hangingNote();
  if (hung && by) return get().say(hung);
  if (pieces.length && by) get().run('pieces.move', { pieces, by, turn: 0 });
}
