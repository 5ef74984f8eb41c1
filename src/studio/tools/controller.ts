import type { CommandArgs, CommandName } from '@/core/project/commands';
import { angleOf, distance, dot, left, sub, unit, type Vec2 } from '@/core/geometry/vec';
import { openingGaps } from '@/core/project/openings';
import { stationAt, stationNear, wallEnds, wallPath } from '@/core/project/wall-line';
import { anchorOf, cornersOf, withAnchor, withCorners } from '@/core/project/putting';
import type { Piece } from '@/core/project/schema';
import { UNDERLAY } from './session';
import { snapPoint } from './snap';
import { againstWall } from '@/core/shell/stair-place';
import { standingOn } from '@/core/project/standing-on';
import { stockItem } from '@/core/stock/stock';
import { snapStep } from '@/core/units/length';
import type { Spot } from '../store/studio';
import { applyFinish, pressFinish, showFinish } from './finishing';
import { gapMarks, pressOpening, showOpening, slideTo } from './openings';
import { dropPiece, showPlace } from './pieces';
import { alongTo, edgeTo, endOfRun, pressUnit, showUnit } from './runs';
import { selectedPieces } from './selected';
import { collisionNote } from './collisions';
import { chosenWith } from './sets';
import { draggedOver } from './hanging';
import { standPiece, type Standing } from './place';
import { get, set, type TablePoint } from './session';
import {
  building,
  dropBuilding,
  enterBuilding,
  nextBuildingField,
  pressBuilding,
  releaseBuilding,
  showBuilding,
  typeBuilding,
  waitingForLength,
} from './building';
import { dropOutline, enterOutline, nextOutlineField, outlineByKey, outlining, pressOutline, showOutline, typeOutline } from './outlining';
import { drawing as drawingWalls, dropWalls, enterWalls, follow, nextWallField, pressWalls, releaseWalls, showWalls, typeWalls } from './walls';

export { applyFinish, pressFace, showDropFinish, showFace } from './finishing';
export { gapMarks, openingFrom, openingValue } from './openings';
export { deleteSelection, dropPiece, duplicateSelection, nudgeSelection, showDrop, turnSelection } from './pieces';
export { selectedPieces } from './selected';
export { chosenSet, keepSet, keepTogether, openSet, partSet } from './sets';
export { edgesOf } from './runs';
export type { TablePoint } from './session';
export { carryCopies, lineUp, mirrorSelection } from './carrying';
export { finishChain, steer } from './walls';

type Drag =
  | { kind: 'wall'; wall: string; run: string[]; from: Vec2; moved: boolean }
  | { kind: 'corner'; corner: string; moved: boolean }
  | { kind: 'standing'; id: string; grab: Vec2; moved: boolean }
  | { kind: 'point'; id: string; index: number; moved: boolean }
  | { kind: 'underlay'; grab: Vec2; moved: boolean }
  | { kind: 'piece'; piece: Piece; grab: Vec2; moved: boolean }
  | { kind: 'pieces'; from: Vec2; by: Vec2; moved: boolean }
  | { kind: 'turn'; piece: Piece; moved: boolean }
  | { kind: 'edge'; unit: string; side: 'left' | 'right'; from: Vec2 | null; moved: boolean }
  | { kind: 'unit'; unit: string; from: Vec2; moved: boolean }
  | { kind: 'opening'; opening: string; grab: number; moved: boolean };

let drag: Drag | null = null;

/** Whether something has been begun that typed values belong to. */
export const drawing = (): boolean => drawingWalls() || building() || outlining();

/** A typed character or a changed text on the measuring line. */
export function type(text: string | null): void {
  const { measure } = get();
  if (!measure) return;
  set({ measure: { ...measure, typed: text } });
  typeWalls();
  typeBuilding();
  typeOutline();
}

/** Tab on the measuring line: on to the next value. */
export function nextField(): void {
  if (outlining()) nextOutlineField();
  else if (building()) nextBuildingField();
  else nextWallField();
}

/** Enter on the measuring line: takes the typed value. */
export function enter(): void {
  if (outlining()) enterOutline();
  else if (building()) enterBuilding();
  else enterWalls();
}

/** Ends whatever the tool has begun. */
export function cancel(): void {
  dropWalls();
  dropBuilding();
  dropOutline();
  drag = null;
  pending = null;
  get().endPreview();
  set({ measure: null, marks: [], ghost: [] });
}

/** Escape: first what has been begun, then the tool, then the selection. */
export function escape(): void {
  const state = get();
  if (drawing() || drag) cancel();
  else if (state.tool.kind !== 'select') state.setTool({ kind: 'select' });
  else if (state.openSet && !state.selection.length) set({ openSet: null });
  else state.select([]);
}

/** A press on the table. Returns true when the tool takes the drag. */
export function down(given: TablePoint): boolean {
  const state = get();
  // What is held is out of the pointer’s reach.
  const at = given.spot && state.project.contents.held.includes(given.spot.entity) ? { ...given, spot: null } : given;
  follow(at);
  switch (state.tool.kind) {
    case 'walls':
      pressWalls(at);
      return true;
    case 'outline':
      pressOutline(at);
      return true;
    case 'opening':
    case 'finish':
    case 'pick':
    case 'treat':
    case 'place':
    case 'unit':
      return true;
    case 'recess':
    case 'column':
    case 'rooflight':
    case 'split':
    case 'guide':
    case 'underlay':
      pressBuilding(at);
      return true;
    case 'select': {
      const { spot } = at;
      if (!spot) {
        state.select([]);
        return false;
      }
      if (spot.entity === UNDERLAY) {
        const { underlay } = state.project.levels[state.level];
        state.select([spot]);
        if (underlay && !underlay.held) drag = { kind: 'underlay', grab: sub(at.plan, underlay.origin), moved: false };
        return true;
      }
      const already = state.selection.some((s) => s.entity === spot.entity);
      const together = already && state.selection.length > 1 && state.selection.every((s) => state.project.pieces[s.entity]);
      if (together && !at.shift) {
        // One of several selected pieces is grabbed: all of them go along.
        drag = { kind: 'pieces', from: at.plan, by: { x: 0, y: 0 }, moved: false };
        return true;
      }
      const walls = already && state.selection.every((s) => state.project.walls[s.entity]) ? state.selection.map((s) => s.entity) : [];
      if (walls.length > 1 && !at.shift) {
        drag = { kind: 'wall', wall: spot.entity, run: walls, from: at.plan, moved: false };
        return true;
      }
      if (at.shift) state.select(already ? state.selection.filter((s) => s.entity !== spot.entity) : [...state.selection, spot]);
      else state.select(chosenWith(spot));
      if (!at.shift && get().selection.length > 1) {
        drag = { kind: 'pieces', from: at.plan, by: { x: 0, y: 0 }, moved: false };
        return true;
      }
      const piece = state.project.pieces[spot.entity];
      const opening = state.project.openings[spot.entity];
      // A unit that is in hand already goes along its run; the first press takes it in hand.
      if (already && state.project.cabinets[spot.entity] && !at.shift) drag = { kind: 'unit', unit: spot.entity, from: at.plan, moved: false };
      else if (piece) drag = { kind: 'piece', piece, grab: sub(at.plan, piece), moved: false };
      else if (opening) {
        drag = {
          kind: 'opening',
          opening: opening.id,
          grab: stationNear(wallPath(state.project, state.project.walls[opening.wall]), at.plan).s - opening.at,
          moved: false,
        };
      } else if (standing(spot.entity)) drag = { kind: 'standing', id: spot.entity, grab: sub(at.plan, standing(spot.entity)!), moved: false };
      else if (state.project.walls[spot.entity]) drag = { kind: 'wall', wall: spot.entity, run: [], from: at.plan, moved: false };
      return drag !== null;
    }
  }
}

/** Begins turning a piece by its handle. */
export function grabTurn(piece: Piece): void {
  drag = { kind: 'turn', piece, moved: false };
}

/** Begins dragging an edge of a unit by its handle. */
export function grabEdge(unit: string, side: 'left' | 'right'): void {
  drag = { kind: 'edge', unit, side, from: null, moved: false };
}

/** Begins moving a corner by its handle. */
export function grabCorner(corner: string): void {
  drag = { kind: 'corner', corner, moved: false };
}

/** Begins moving one corner of an outline by its handle. */
export function grabPoint(id: string, index: number): void {
  drag = { kind: 'point', id, index, moved: false };
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
    case 'unit':
      return showUnit(at.plan);
    case 'finish':
    case 'pick':
    case 'treat':
      return showFinish(at);
    case 'outline':
      return showOutline(at);
    case 'recess':
    case 'column':
    case 'rooflight':
    case 'split':
    case 'guide':
    case 'underlay':
      if (!waitingForLength()) showBuilding(at);
  }
}

export function up(at: TablePoint): void {
  const state = get();
  if (drag) {
    if (drag.moved) dragTo(at);
    const done = drag;
    drag = null;
    if (done.moved) commitDrag();
    else state.endPreview();
    set({ measure: null, marks: [] });
    return;
  }
  switch (state.tool.kind) {
    case 'walls':
      return releaseWalls(at);
    case 'opening':
      return pressOpening(at);
    case 'place':
      return dropPiece(state.tool.card, at);
    case 'unit':
      return pressUnit(at.plan);
    case 'finish':
    case 'pick':
    case 'treat':
      return pressFinish(at);
    case 'recess':
      return releaseBuilding(at);
  }
}

export function leave(): void {
  get().setHover(null);
  if (get().tool.kind === 'walls' || building() || outlining() || drag) return;
  get().endPreview();
  set({ marks: [], ghost: [], measure: null });
}

// Dragging ----------------------------------------------------------------------------------------------------------

function offsetOf(wallId: string, from: Vec2, to: Vec2): number {
  const { project } = get();
  const [a, b] = wallEnds(project, project.walls[wallId]);
  return snapStep(dot(sub(to, from), left(unit(sub(b, a)))), project.units);
}

/** What can be taken by a point of its own, and not where it is held. */
const standing = (id: string): Vec2 | null => (get().project.contents.held.includes(id) ? null : anchorOf(get().project, id));

/** What a release would do: the command shown last. */
let pending: (() => void) | null = null;

/** Shows what a command would do, and keeps it for the release. */
function show<N extends CommandName>(command: N, args: CommandArgs<N>): string | null {
  pending = () => void get().run(command, args);
  return get().preview(command, args);
}

function dragTo(at: TablePoint): void {
  const state = get();
  const d = drag!;
  if (d.kind === 'wall') {
    const offset = offsetOf(d.wall, d.from, at.plan);
    if (!d.moved && Math.abs(offset) < at.reach / 2) return;
    d.moved = true;
    const refusal = show('wall.move', { wall: d.wall, run: d.run, offset });
    set({ measure: { fields: [{ label: 'moved', value: Math.abs(offset) }], note: refusal ?? 'neighbours follow', typed: null, field: 0 } });
  } else if (d.kind === 'corner') {
    const c = state.project.corners[d.corner];
    const others = { ...state.project, corners: Object.fromEntries(Object.entries(state.project.corners).filter(([id]) => id !== d.corner)) };
    const { point, note } = snapPoint({ ...others, walls: {} }, at.plan, { level: c.level, reach: at.reach });
    if (!d.moved && distance(at.plan, c) < at.reach / 2) return;
    d.moved = true;
    const refusal = show('corner.move', { corner: d.corner, to: point });
    set({ measure: { fields: [{ label: 'moved', value: distance(point, c) }], note: refusal ?? note, typed: null, field: 0 } });
  } else if (d.kind === 'standing') {
    const own = standing(d.id)!;
    const p = sub(at.plan, d.grab);
    if (!d.moved && distance(p, own) < at.reach / 2) return;
    d.moved = true;
    const { point, note } = snapPoint(state.project, p, { level: state.level, reach: at.reach });
    const stair = state.project.stairs[d.id];
    const level = stair && state.model.shell.levels.find((l) => l.id === stair.level);
    const placed = stair && level && !at.shift ? againstWall({ ...stair, x: point.x, y: point.y }, level, at.reach * 2) : null;
    const meant = withAnchor(state.project, d.id, placed?.side ? placed.stair : point);
    const refusal = meant && show(meant.command, meant.args as never);
    set({
      measure: {
        fields: [{ label: 'moved', value: distance(point, own) }],
        note: refusal ?? (placed?.side ? 'against the wall' : note),
        typed: null,
        field: 0,
      },
    });
  } else if (d.kind === 'point') {
    const list = cornersOf(state.project, d.id);
    if (!list) return;
    d.moved = true;
    const { point, note } = snapPoint(state.project, at.plan, { level: state.level, reach: at.reach });
    const meant = withCorners(
      state.project,
      d.id,
      list.map((p, i) => (i === d.index ? point : { x: p.x, y: p.y })),
    );
    const refusal = meant && show(meant.command, meant.args as never);
    set({ measure: { fields: [{ label: 'moved', value: distance(point, list[d.index]) }], note: refusal ?? note, typed: null, field: 0 } });
  } else if (d.kind === 'underlay') {
    const level = state.project.levels[state.level];
    if (!level.underlay) return;
    const origin = sub(at.plan, d.grab);
    if (!d.moved && distance(origin, level.underlay.origin) < at.reach / 2) return;
    d.moved = true;
    show('level.set', { id: level.id, set: { underlay: { ...level.underlay, origin } } });
    set({ measure: { fields: [{ label: 'moved', value: distance(origin, level.underlay.origin) }], note: '', typed: null, field: 0 } });
  } else if (d.kind === 'piece') {
    const p = sub(at.plan, d.grab);
    if (!d.moved && distance(p, d.piece) < at.reach / 2) return;
    d.moved = true;
    const item = stockItem(d.piece.maker);
    const except = new Set([d.piece.id, ...standingOn(state.project.pieces, [d.piece.id])]);
    const over = item?.hangs && !at.shift ? draggedOver(d.piece, { plan: p, reach: at.reach }) : null;
    if (over) {
      show('piece.set', { piece: d.piece.id, set: { hangs: over.piece.hangs } });
      set({ measure: { fields: [{ label: 'moved', value: distance(over.piece, d.piece) }], note: over.note, typed: null, field: 0 } });
      return;
    }
    const standing: Standing = at.shift
      ? { x: p.x, y: p.y, rotation: d.piece.rotation, note: 'free' }
      : standPiece(state.model, {
          level: d.piece.level,
          item,
          size: d.piece.size,
          traits: d.piece.traits,
          at: p,
          rotation: d.piece.rotation,
          reach: at.reach,
          except,
          onto: at.onto,
        });
    const { x, y, rotation, rests } = standing;
    // Away from its window it hangs at none.
    show('piece.set', { piece: d.piece.id, set: { x, y, rotation, ...rests, ...(d.piece.hangs ? { hangs: null } : {}) } });
    const met = collisionNote(state.model, { ...d.piece, x, y, rotation, ...rests });
    const note = [standing.note, met].filter(Boolean).join(', ');
    set({ measure: { fields: [{ label: 'moved', value: distance(standing, d.piece) }], note, typed: null, field: 0 } });
  } else if (d.kind === 'pieces') {
    const { units } = state.project;
    d.by = { x: snapStep(at.plan.x - d.from.x, units), y: snapStep(at.plan.y - d.from.y, units) };
    if (!d.moved && Math.hypot(d.by.x, d.by.y) < at.reach / 2) return;
    d.moved = true;
    show('pieces.move', { pieces: selectedPieces(), by: d.by, turn: 0 });
    set({ measure: { fields: [{ label: 'moved', value: Math.hypot(d.by.x, d.by.y) }], note: 'together', typed: null, field: 0 } });
  } else if (d.kind === 'edge') {
    d.from ??= at.plan;
    if (!d.moved && distance(at.plan, d.from) < at.reach / 2) return;
    d.moved = true;
    const laid = edgeTo(d.unit, d.side, at.plan, at.shift);
    // What is refused is not done on release either.
    if (laid.refusal) pending = null;
    set({
      measure: {
        fields: laid.width === null ? [] : [{ label: 'wide', value: laid.width }],
        note: laid.refusal ?? show('run.lay', laid.args) ?? laid.note,
        typed: null,
        field: 0,
      },
    });
  } else if (d.kind === 'unit') {
    if (!d.moved && distance(at.plan, d.from) < at.reach) return;
    d.moved = true;
    const laid = alongTo(d.unit, at.plan);
    if (laid) set({ measure: { fields: [], note: show('run.lay', laid.args) ?? laid.note, typed: null, field: 0 } });
    else pending = null;
  } else if (d.kind === 'turn') {
    d.moved = true;
    show('piece.set', { piece: d.piece.id, set: { rotation: turnTo(d.piece, at) } });
    const shown = Math.round((turnTo(d.piece, at) * 180) / Math.PI);
    set({ measure: { fields: [], note: `${((shown % 360) + 360) % 360}°`, typed: null, field: 0 } });
  } else {
    const at2 = slideTo(d.opening, d.grab, at);
    d.moved = true;
    const refusal = show('opening.set', { opening: d.opening, set: { at: at2, place: { kind: 'free' } } });
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

/** Runs what the drag last showed. */
function commitDrag(): void {
  const state = get();
  const meant = pending;
  pending = null;
  meant?.();
  state.endPreview();
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
      return dropPiece(tool.card, at(own?.label ?? { x: 0, y: 0 }, null));
    }
    case 'unit': {
      const end = endOfRun();
      return end ? pressUnit(end) : state.say('No unit was placed: select a run, or a unit of one, first.');
    }
    case 'recess':
    case 'split':
    case 'column':
    case 'rooflight': {
      const wall = selection.find((s) => project.walls[s.entity]);
      const own = rooms.find((r) => r.id === room) ?? rooms[0];
      if ((tool.kind === 'recess' || tool.kind === 'split') && !wall) return state.say('Nothing was changed: select a wall first.');
      const path = wall && tool.kind !== 'rooflight' ? wallPath(project, project.walls[wall.entity]) : [];
      const p = path.length ? stationAt(path, path[path.length - 1].s / 2).p : (own?.label ?? { x: 0, y: 0 });
      const spot = at(p, wall ?? null);
      pressBuilding(spot);
      return releaseBuilding(spot);
    }
    case 'opening': {
      const wall = selection.find((s) => project.walls[s.entity]);
      if (!wall) return state.say(`No ${tool.opening} was placed: select a wall first.`);
      const [a, b] = wallEnds(project, project.walls[wall.entity]);
      return pressOpening(at({ x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 }, wall));
    }
    case 'outline': {
      const own = rooms.find((r) => r.id === room) ?? rooms[0];
      return outlineByKey(own?.label ?? { x: 0, y: 0 });
    }
    case 'finish': {
      const spot = selection.at(-1) ?? null;
      return applyFinish(tool.finish, at({ x: 0, y: 0 }, spot));
    }
  }
}
