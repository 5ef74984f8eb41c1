import { angleOf, distance, dot, left, sub, unit, type Vec2 } from '@/core/geometry/vec';
import { openingGaps } from '@/core/project/openings';
import { wallEnds } from '@/core/project/wall-line';
import type { Piece } from '@/core/project/schema';
import { stockItem } from '@/core/stock/stock';
import { snapStep } from '@/core/units/length';
import type { Spot } from '../store/studio';
import { applyFinish, pressFinish, showFinish } from './finishing';
import { gapMarks, pressOpening, showOpening, slideTo } from './openings';
import { dropPiece, nudgeSelection, selectedPieces, showPlace } from './pieces';
import { standPiece } from './place';
import { get, set, type TablePoint } from './session';
import { drawing, dropWalls, follow, pressWalls, showWalls } from './walls';

export { applyFinish, showDropFinish } from './finishing';
export { gapMarks, openingFrom, openingValue } from './openings';
export { deleteSelection, dropPiece, duplicateSelection, nudgeSelection, showDrop, turnSelection } from './pieces';
export type { TablePoint } from './session';
export { drawing, enter, finishChain, nextField, steer, type } from './walls';

type Drag =
  | { kind: 'wall'; wall: string; from: Vec2; moved: boolean }
  | { kind: 'piece'; piece: Piece; grab: Vec2; moved: boolean }
  | { kind: 'pieces'; from: Vec2; by: Vec2; moved: boolean }
  | { kind: 'turn'; piece: Piece; moved: boolean }
  | { kind: 'opening'; opening: string; grab: number; moved: boolean };

let drag: Drag | null = null;

/** Ends whatever the tool has begun. */
export function cancel(): void {
  dropWalls();
  drag = null;
  get().endPreview();
  set({ measure: null, marks: [], ghost: [] });
}

/** Escape: first what has been begun, then the tool, then the selection. */
export function escape(): void {
  const state = get();
  if (drawing() || drag) cancel();
  else if (state.tool.kind !== 'select') state.setTool({ kind: 'select' });
  else state.select([]);
}

/** A press on the table. Returns true when the tool takes the drag. */
export function down(at: TablePoint): boolean {
  const state = get();
  follow(at);
  switch (state.tool.kind) {
    case 'walls':
      pressWalls(at);
      return true;
    case 'opening':
    case 'finish':
    case 'place':
      return true;
    case 'select': {
      const { spot } = at;
      if (!spot) {
        state.select([]);
        return false;
      }
      const already = state.selection.some((s) => s.entity === spot.entity);
      const together = already && state.selection.length > 1 && state.selection.every((s) => state.project.pieces[s.entity]);
      if (together && !at.shift) {
        // One of several selected pieces is grabbed: all of them go along.
        drag = { kind: 'pieces', from: at.plan, by: { x: 0, y: 0 }, moved: false };
        return true;
      }
      if (at.shift) state.select(already ? state.selection.filter((s) => s.entity !== spot.entity) : [...state.selection, spot]);
      else state.select([spot]);
      const piece = state.project.pieces[spot.entity];
      const opening = state.project.openings[spot.entity];
      if (piece) drag = { kind: 'piece', piece, grab: sub(at.plan, piece), moved: false };
      else if (opening) {
        const [a, b] = wallEnds(state.project, state.project.walls[opening.wall]);
        drag = { kind: 'opening', opening: opening.id, grab: dot(sub(at.plan, a), unit(sub(b, a))) - opening.at, moved: false };
      } else if (state.project.walls[spot.entity]) drag = { kind: 'wall', wall: spot.entity, from: at.plan, moved: false };
      return drag !== null;
    }
  }
}

/** Begins turning a piece by its handle. */
export function grabTurn(piece: Piece): void {
  drag = { kind: 'turn', piece, moved: false };
}

export function move(at: TablePoint): void {
  const state = get();
  follow(at);
  if (drag) return dragTo(at);
  state.setHover(at.spot);
  switch (state.tool.kind) {
    case 'walls':
      return showWalls(at);
    case 'opening':
      return showOpening(at);
    case 'place':
      return showPlace(at);
    case 'finish':
      return showFinish(at);
  }
}

export function up(at: TablePoint): void {
  const state = get();
  if (drag) {
    const done = drag;
    drag = null;
    if (done.moved) commitDrag(done, at);
    else state.endPreview();
    set({ measure: null, marks: [] });
    return;
  }
  switch (state.tool.kind) {
    case 'opening':
      return pressOpening(at);
    case 'place':
      return dropPiece(state.tool.maker, at);
    case 'finish':
      return pressFinish(at);
  }
}

export function leave(): void {
  get().setHover(null);
  if (get().tool.kind !== 'walls' && !drag) set({ marks: [], ghost: [], measure: null });
}

// Dragging ----------------------------------------------------------------------------------------------------------

function offsetOf(wallId: string, from: Vec2, to: Vec2): number {
  const { project } = get();
  const [a, b] = wallEnds(project, project.walls[wallId]);
  return snapStep(dot(sub(to, from), left(unit(sub(b, a)))), project.units);
}

function dragTo(at: TablePoint): void {
  const state = get();
  const d = drag!;
  if (d.kind === 'wall') {
    const offset = offsetOf(d.wall, d.from, at.plan);
    if (!d.moved && Math.abs(offset) < at.reach / 2) return;
    d.moved = true;
    const refusal = state.preview('wall.move', { wall: d.wall, offset });
    set({ measure: { fields: [{ label: 'moved', value: Math.abs(offset) }], note: refusal ?? 'neighbours follow', typed: null, field: 0 } });
  } else if (d.kind === 'piece') {
    const p = sub(at.plan, d.grab);
    if (!d.moved && distance(p, d.piece) < at.reach / 2) return;
    d.moved = true;
    const item = stockItem(d.piece.maker);
    const standing = at.shift
      ? { x: p.x, y: p.y, rotation: d.piece.rotation, note: 'free' }
      : standPiece(state.model, d.piece.level, item, d.piece.size, p, d.piece.rotation, at.reach);
    state.preview('piece.set', { piece: d.piece.id, set: { x: standing.x, y: standing.y, rotation: standing.rotation } });
    set({ measure: { fields: [{ label: 'moved', value: distance(standing, d.piece) }], note: standing.note, typed: null, field: 0 } });
  } else if (d.kind === 'pieces') {
    const { units } = state.project;
    d.by = { x: snapStep(at.plan.x - d.from.x, units), y: snapStep(at.plan.y - d.from.y, units) };
    if (!d.moved && Math.hypot(d.by.x, d.by.y) < at.reach / 2) return;
    d.moved = true;
    state.preview('pieces.move', { pieces: selectedPieces(), by: d.by, turn: 0 });
    set({ measure: { fields: [{ label: 'moved', value: Math.hypot(d.by.x, d.by.y) }], note: 'together', typed: null, field: 0 } });
  } else if (d.kind === 'turn') {
    d.moved = true;
    state.preview('piece.set', { piece: d.piece.id, set: { rotation: turnTo(d.piece, at) } });
    const shown = Math.round((turnTo(d.piece, at) * 180) / Math.PI);
    set({ measure: { fields: [], note: `${((shown % 360) + 360) % 360}°`, typed: null, field: 0 } });
  } else {
    const at2 = slideTo(d.opening, d.grab, at);
    d.moved = true;
    const refusal = state.preview('opening.set', { opening: d.opening, set: { at: at2 } });
    const opening = get().model.project.openings[d.opening];
    const gaps = openingGaps(get().model.project, opening);
    set({
      marks: gapMarks(d.opening),
      measure: {
        fields:
          gaps && !refusal
            ? [
                { label: 'to one corner', value: gaps.start },
                { label: 'to the other', value: gaps.end },
              ]
            : [],
        note: refusal ?? '',
        typed: null,
        field: 0,
      },
    });
  }
}

function turnTo(piece: Piece, at: TablePoint): number {
  const angle = angleOf(sub(at.plan, piece)) + Math.PI / 2;
  const step = at.shift ? Math.PI / 180 : Math.PI / 12;
  return Math.round(angle / step) * step;
}

function commitDrag(d: Drag, at: TablePoint): void {
  const state = get();
  if (d.kind === 'wall') {
    const offset = offsetOf(d.wall, d.from, at.plan);
    state.endPreview();
    if (offset) state.run('wall.move', { wall: d.wall, offset });
  } else if (d.kind === 'piece') {
    const { x, y, rotation } = state.model.project.pieces[d.piece.id] ?? d.piece;
    state.endPreview();
    state.run('piece.set', { piece: d.piece.id, set: { x, y, rotation } });
  } else if (d.kind === 'pieces') {
    state.endPreview();
    nudgeSelection(d.by.x, d.by.y);
  } else if (d.kind === 'turn') {
    state.endPreview();
    state.run('piece.set', { piece: d.piece.id, set: { rotation: turnTo(d.piece, at) } });
  } else {
    const target = slideTo(d.opening, d.grab, at);
    state.endPreview();
    state.run('opening.set', { opening: d.opening, set: { at: target } });
  }
}

/** Enter in a pane does what a press would: at the room in hand, the selected wall, or the selected surface. */
export function actByKey(): void {
  const state = get();
  const { tool, model, room, level, selection, project } = state;
  const rooms = model.shell.levels.find((l) => l.id === level)?.rooms ?? [];
  const at = (plan: Vec2, spot: Spot | null): TablePoint => ({ plan, spot, reach: 0.05, shift: false });
  switch (tool.kind) {
    case 'walls': {
      // Beside what stands already, so that the first corner is free.
      const corners = Object.values(project.corners).filter((c) => c.level === level);
      const start = at(
        { x: corners.length ? Math.max(...corners.map((c) => c.x)) + 1 : 0, y: corners.length ? Math.min(...corners.map((c) => c.y)) : 0 },
        null,
      );
      pressWalls(start);
      const ahead = at({ x: start.plan.x + 3, y: start.plan.y + 2 }, null);
      follow(ahead);
      return showWalls(ahead);
    }
    case 'place': {
      const own = rooms.find((r) => r.id === room) ?? rooms[0];
      return dropPiece(tool.maker, at(own?.label ?? { x: 0, y: 0 }, null));
    }
    case 'opening': {
      const wall = selection.find((s) => project.walls[s.entity]);
      if (!wall) return state.say(`No ${tool.opening} was placed: select a wall first.`);
      const [a, b] = wallEnds(project, project.walls[wall.entity]);
      return pressOpening(at({ x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 }, wall));
    }
    case 'finish': {
      const spot = selection.at(-1) ?? null;
      return applyFinish(tool.finish, at({ x: 0, y: 0 }, spot));
    }
  }
}
