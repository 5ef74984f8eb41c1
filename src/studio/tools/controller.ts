import { drawDimension, drawOpening } from '@/core/drawing/plan';
import type { DisplayItem } from '@/core/drawing/display';
import { angleOf, distance, dot, left, sub, unit, add, scale, type Vec2 } from '@/core/geometry/vec';
import { openingGaps, wallEnds } from '@/core/project/openings';
import type { Piece } from '@/core/project/schema';
import { pieceFrom, stockItem } from '@/core/stock/stock';
import { formatLength, parseLength, snapStep } from '@/core/units/length';
import { newId, surfaceName, useStudio, type Spot } from '../store/studio';
import { openingAt, standPiece } from './place';
import { snapPoint } from './snap';

/** A pointer event in the model: where on the floor, what is under it, how far a few pixels reach. */
export interface TablePoint {
  plan: Vec2;
  spot: Spot | null;
  /** What ten pixels are here, metres. */
  reach: number;
  shift: boolean;
}

type Drag =
  | { kind: 'wall'; wall: string; from: Vec2; moved: boolean }
  | { kind: 'piece'; piece: Piece; grab: Vec2; moved: boolean }
  | { kind: 'pieces'; from: Vec2; by: Vec2; moved: boolean }
  | { kind: 'turn'; piece: Piece; moved: boolean }
  | { kind: 'opening'; opening: string; grab: number; moved: boolean };

const get = useStudio.getState;
const set = useStudio.setState;

let drag: Drag | null = null;
let chain: Vec2[] = [];
let pointer: TablePoint | null = null;
let end: Vec2 | null = null;

const guide = ([a, b]: [Vec2, Vec2]): DisplayItem => ({
  kind: 'line',
  points: [a, b],
  closed: false,
  ink: 'measure',
  pen: 0.13,
  dash: true,
  layer: 'dimension',
});
const length = (metres: number): string => formatLength(metres, get().project.units);

/** Ends whatever the tool has begun. */
export function cancel(): void {
  chain = [];
  end = null;
  drag = null;
  get().endPreview();
  set({ measure: null, marks: [], ghost: [] });
}

/** Escape: first what has been begun, then the tool, then the selection. */
export function escape(): void {
  const state = get();
  if (chain.length || drag) cancel();
  else if (state.tool.kind !== 'select') state.setTool({ kind: 'select' });
  else state.select([]);
}

/** A press on the table. Returns true when the tool takes the drag. */
export function down(at: TablePoint): boolean {
  const state = get();
  pointer = at;
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
  pointer = at;
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

// Walls -------------------------------------------------------------------------------------------------------------

function snapped(at: TablePoint): ReturnType<typeof snapPoint> {
  const { project, level, tool } = get();
  const from = tool.kind === 'walls' && tool.shape === 'chain' ? (chain.at(-1) ?? null) : null;
  return snapPoint(project, level, at.plan, at.reach, from, tool.kind === 'walls' && tool.shape === 'chain' ? chain : []);
}

function showWalls(at: TablePoint): void {
  const { tool, measure } = get();
  if (tool.kind !== 'walls') return;
  const { point, note, guides } = snapped(at);
  end = point;
  const marks: DisplayItem[] = guides.map(guide);
  const last = chain.at(-1);
  if (!last) {
    set({ marks: [...marks, ...cross(point)], ghost: [point], measure: { fields: [], note: note || 'press to start', typed: null, field: 0 } });
    return;
  }
  const target = typedEnd(last, point) ?? point;
  end = target;
  if (tool.shape === 'rectangle') {
    const ring = [last, { x: target.x, y: last.y }, target, { x: last.x, y: target.y }];
    const inside = rectangleInside(last, target, tool.thickness);
    marks.push({ kind: 'line', points: ring, closed: true, ink: 'measure', pen: 0.35, layer: 'dimension' });
    marks.push(...drawDimension(ring[0], ring[1], length(inside.x)), ...drawDimension(ring[1], ring[2], length(inside.y)));
    set({
      marks,
      ghost: [...ring, ring[0]],
      measure: {
        fields: [
          { label: 'inside width', value: inside.x },
          { label: 'inside depth', value: inside.y },
        ],
        note,
        typed: measure?.typed ?? null,
        field: measure?.field ?? 0,
      },
    });
    return;
  }
  const along = distance(last, target);
  const points = [...chain, target];
  marks.push({ kind: 'line', points, closed: false, ink: 'measure', pen: 0.35, layer: 'dimension' });
  for (let i = 0; i + 1 < points.length; i++)
    if (distance(points[i], points[i + 1]) > 1e-6) marks.push(...drawDimension(points[i], points[i + 1], length(distance(points[i], points[i + 1]))));
  const angle = ((Math.round((angleOf(sub(target, last)) * 180) / Math.PI) % 360) + 360) % 360;
  set({
    marks,
    ghost: points,
    measure: { fields: [{ label: 'length on the centre line', value: along }], note: note || `${angle}°`, typed: measure?.typed ?? null, field: 0 },
  });
}

const cross = (p: Vec2): DisplayItem[] =>
  [
    [
      { x: p.x - 0.08, y: p.y },
      { x: p.x + 0.08, y: p.y },
    ],
    [
      { x: p.x, y: p.y - 0.08 },
      { x: p.x, y: p.y + 0.08 },
    ],
  ].map((points) => ({ kind: 'line', points, closed: false, ink: 'measure', pen: 0.25, layer: 'dimension' }));

const rectangleInside = (a: Vec2, b: Vec2, thickness: number): Vec2 => ({
  x: Math.max(0, Math.abs(b.x - a.x) - thickness),
  y: Math.max(0, Math.abs(b.y - a.y) - thickness),
});

/** Values typed so far for a rectangle. */
let typedSizes: (number | null)[] = [null, null];

/** Where the end lies once typed values are taken into account; null while nothing readable is typed. */
function typedEnd(last: Vec2, point: Vec2): Vec2 | null {
  const { measure, project, tool } = get();
  if (tool.kind !== 'walls') return null;
  const parsed = measure?.typed ? parseLength(measure.typed, project.units) : null;
  const current = parsed?.ok && parsed.metres > 0 ? parsed.metres : null;
  if (tool.shape === 'chain') {
    if (current === null || distance(last, point) < 1e-6) return null;
    return add(last, scale(unit(sub(point, last)), current));
  }
  const sizes = [...typedSizes];
  if (current !== null) sizes[measure!.field] = current;
  if (sizes[0] === null && sizes[1] === null) return null;
  const sign = { x: point.x < last.x ? -1 : 1, y: point.y < last.y ? -1 : 1 };
  return {
    x: sizes[0] === null ? point.x : last.x + sign.x * (sizes[0] + tool.thickness),
    y: sizes[1] === null ? point.y : last.y + sign.y * (sizes[1] + tool.thickness),
  };
}

function pressWalls(at: TablePoint): void {
  const { tool } = get();
  if (tool.kind !== 'walls') return;
  const last = chain.at(-1);
  const { point } = snapped(at);
  const target = last ? (typedEnd(last, point) ?? point) : point;
  addPoint(target);
}

function addPoint(point: Vec2): void {
  const state = get();
  if (state.tool.kind !== 'walls') return;
  if (!chain.length) {
    chain = [point];
    typedSizes = [null, null];
    set({ measure: { fields: [], note: '', typed: null, field: 0 } });
    return;
  }
  const { thickness, shape } = state.tool;
  const draw = (points: Vec2[], closed: boolean): boolean => state.run('wall.draw', { level: state.level, points, closed, thickness, height: null });
  if (shape === 'rectangle') {
    const a = chain[0];
    if (draw([a, { x: point.x, y: a.y }, point, { x: a.x, y: point.y }], true)) {
      chain = [];
      set({ marks: [], ghost: [], measure: null });
    }
    return;
  }
  const last = chain.at(-1)!;
  if (distance(last, point) < 1e-6) return finishChain();
  const closing = distance(chain[0], point) < 1e-6 && chain.length > 2;
  const joins = meetsWall(point);
  if (!draw([last, point], false)) return;
  if (closing || joins) chain = [];
  else chain = [...chain, point];
  set({ measure: chain.length ? { fields: [], note: '', typed: null, field: 0 } : null, ...(chain.length ? {} : { marks: [], ghost: [] }) });
  if (chain.length && pointer) showWalls(pointer);
}

/** Whether a point lies on a wall that stood before, so that a chain ends there. */
function meetsWall(p: Vec2): boolean {
  const { project, level } = get();
  const own = new Set(chain.map((q) => `${q.x.toFixed(6)} ${q.y.toFixed(6)}`));
  return Object.values(project.walls).some((wall) => {
    if (wall.level !== level) return false;
    const [a, b] = wallEnds(project, wall);
    // The walls of the chain itself don't end it.
    if ([a, b].every((q) => own.has(`${q.x.toFixed(6)} ${q.y.toFixed(6)}`))) return false;
    const d = sub(b, a);
    const t = dot(sub(p, a), d) / dot(d, d);
    return t >= -1e-9 && t <= 1 + 1e-9 && distance(add(a, scale(d, t)), p) < 1e-5;
  });
}

/** Ends a chain where it is. */
export function finishChain(): void {
  chain = [];
  set({ marks: [], ghost: [], measure: null });
}

export const drawing = (): boolean => chain.length > 0;

// The measuring line ------------------------------------------------------------------------------------------------

/** A typed character or a changed text on the measuring line. */
export function type(text: string | null): void {
  const { measure } = get();
  if (!measure) return;
  set({ measure: { ...measure, typed: text } });
  if (pointer && chain.length) showWalls(pointer);
}

/** Tab on the measuring line: on to the next value. */
export function nextField(): void {
  const { measure, project } = get();
  if (!measure || measure.fields.length < 2) return;
  const parsed = measure.typed ? parseLength(measure.typed, project.units) : null;
  if (parsed?.ok) typedSizes[measure.field] = parsed.metres;
  set({ measure: { ...measure, typed: '', field: (measure.field + 1) % measure.fields.length } });
  if (pointer && chain.length) showWalls(pointer);
}

/** Enter on the measuring line: takes the typed value. */
export function enter(): void {
  const { measure, project, say } = get();
  if (!measure || !chain.length) return;
  if (measure.typed === null || measure.typed.trim() === '') {
    if (measure.fields.length < 2 && !measure.typed) return finishChain();
  } else {
    const parsed = parseLength(measure.typed, project.units);
    if (!parsed.ok) return say(parsed.message);
    if (parsed.metres <= 0.01 || parsed.metres > 500)
      return say(`A wall can’t be ${measure.typed.trim()} long; nothing was drawn. Type a length between 10 mm and 500 m.`);
    if (measure.fields.length === 2 && measure.field === 0 && typedSizes[1] === null) return nextField();
  }
  if (end && pointer) {
    const target = typedEnd(chain.at(-1)!, end) ?? end;
    set({ measure: { ...measure, typed: null, field: 0 } });
    addPoint(target);
  }
}

// Openings ----------------------------------------------------------------------------------------------------------

function wallUnder(at: TablePoint): string | null {
  const { project, level } = get();
  if (at.spot && project.walls[at.spot.entity]) return at.spot.entity;
  let best: string | null = null;
  let least = Infinity;
  for (const wall of Object.values(project.walls)) {
    if (wall.level !== level) continue;
    const [a, b] = wallEnds(project, wall);
    const d = sub(b, a);
    const t = Math.max(0, Math.min(1, dot(sub(at.plan, a), d) / dot(d, d)));
    const off = distance(add(a, scale(d, t)), at.plan);
    if (off < wall.thickness / 2 + at.reach && off < least) {
      least = off;
      best = wall.id;
    }
  }
  return best;
}

function showOpening(at: TablePoint): void {
  const state = get();
  if (state.tool.kind !== 'opening') return;
  const wall = wallUnder(at);
  if (!wall) {
    state.endPreview();
    set({ marks: [], measure: { fields: [], note: 'point at a wall', typed: null, field: 0 } });
    return;
  }
  const { opening } = openingAt(state.project, wall, at.plan, state.tool.opening, 'preview-opening');
  const refusal = state.preview('opening.add', opening);
  if (refusal) {
    set({ marks: [], measure: { fields: [], note: refusal, typed: null, field: 0 } });
    return;
  }
  const derived = get().model.shell.openings.get(opening.id);
  const gaps = openingGaps(get().model.project, opening);
  set({
    marks: [...(derived ? drawOpening(derived).filter((m) => m.kind !== 'fill') : []), ...gapMarks(opening.id)],
    measure: {
      fields: gaps
        ? [
            { label: 'to one corner', value: gaps.start },
            { label: 'to the other', value: gaps.end },
          ]
        : [],
      note: '',
      typed: null,
      field: 0,
    },
  });
}

/** The distances from an opening to both ends of its clear stretch, as dimensions on the wall. */
export function gapMarks(id: string): DisplayItem[] {
  const { model } = get();
  const opening = model.project.openings[id];
  const gaps = opening && openingGaps(model.project, opening);
  if (!gaps) return [];
  const wall = model.project.walls[opening.wall];
  const [a, b] = wallEnds(model.project, wall);
  const d = unit(sub(b, a));
  const off = scale(left(d), wall.thickness / 2 + 0.28);
  const at = (s: number): Vec2 => add(add(a, scale(d, s)), off);
  const w = opening.width / 2;
  return [
    ...drawDimension(at(gaps.span.from), at(opening.at - w), length(gaps.start), `${id}/start`),
    ...drawDimension(at(opening.at - w), at(opening.at + w), length(opening.width), `${id}/width`),
    ...drawDimension(at(opening.at + w), at(gaps.span.to), length(gaps.end), `${id}/end`),
  ];
}

function pressOpening(at: TablePoint): void {
  const state = get();
  if (state.tool.kind !== 'opening') return;
  const wall = wallUnder(at);
  if (!wall) return state.say(`No ${state.tool.opening} was placed: point at a wall.`);
  const id = newId(state.tool.opening);
  const { opening } = openingAt(state.project, wall, at.plan, state.tool.opening, id);
  state.endPreview();
  if (state.run('opening.add', opening)) {
    state.setTool({ kind: 'select' });
    state.select([{ entity: id, target: null }]);
  }
}

// Pieces ------------------------------------------------------------------------------------------------------------

function ghostPiece(maker: string, at: TablePoint, id: string): { piece: Piece; note: string } | null {
  const { model, project, level } = get();
  const item = stockItem(maker);
  if (!item) return null;
  const piece = pieceFrom(item, id, project.levels[level], at.plan);
  const standing = standPiece(model, level, item, piece.size, at.plan, 0, at.reach);
  return { piece: { ...piece, x: standing.x, y: standing.y, rotation: standing.rotation }, note: standing.note };
}

function showPlace(at: TablePoint): void {
  const { tool } = get();
  if (tool.kind === 'place') showDrop(tool.maker, at);
}

/** Shows a piece where it would stand. */
export function showDrop(maker: string, at: TablePoint): void {
  const made = ghostPiece(maker, at, 'preview-piece');
  if (!made) return;
  get().endPreview();
  get().preview('piece.add', { pieces: [made.piece] });
  set({
    measure: {
      fields: [
        { label: 'wide', value: made.piece.size.width },
        { label: 'deep', value: made.piece.size.depth },
      ],
      note: made.note,
      typed: null,
      field: 0,
    },
  });
}

/** Puts a piece down. */
export function dropPiece(maker: string, at: TablePoint): void {
  const id = newId('piece');
  const made = ghostPiece(maker, at, id);
  const state = get();
  state.endPreview();
  if (!made || !state.run('piece.add', { pieces: [made.piece] })) return;
  state.setTool({ kind: 'select' });
  state.select([{ entity: id, target: null }]);
}

/** A copy of the selected pieces beside them. */
export function duplicateSelection(): void {
  const state = get();
  const pieces = state.selection.map((s) => state.project.pieces[s.entity]).filter(Boolean);
  if (!pieces.length) return;
  const copies = pieces.map((p) => {
    const c = Math.cos(p.rotation);
    const s = Math.sin(p.rotation);
    return { ...structuredClone(p), id: newId('piece'), x: p.x + c * (p.size.width + 0.05), y: p.y + s * (p.size.width + 0.05) };
  });
  if (state.run('piece.add', { pieces: copies })) state.select(copies.map((c) => ({ entity: c.id, target: null })));
}

export function deleteSelection(): void {
  const state = get();
  const ids = state.selection.map((s) => s.entity).filter((id) => !state.project.rooms[id]);
  if (!ids.length) return;
  if (state.run('delete', { ids })) state.select([]);
}

/** Ids of the selected pieces. */
const selectedPieces = (): string[] =>
  get()
    .selection.map((s) => s.entity)
    .filter((id) => get().project.pieces[id]);

/** Turns the selected pieces a quarter, or by `angle` radians. */
export function turnSelection(angle = Math.PI / 2): void {
  const pieces = selectedPieces();
  if (pieces.length) get().run('pieces.move', { pieces, by: { x: 0, y: 0 }, turn: angle });
}

/** Moves the selected pieces, metres. */
export function nudgeSelection(x: number, y: number): void {
  const pieces = selectedPieces();
  if (pieces.length) get().run('pieces.move', { pieces, by: { x, y }, turn: 0 });
}

// Finishes ----------------------------------------------------------------------------------------------------------

function showFinish(at: TablePoint): void {
  const state = get();
  state.endPreview();
  if (!at.spot?.target || state.tool.kind !== 'finish') {
    set({ measure: { fields: [], note: 'point at a surface', typed: null, field: 0 } });
    return;
  }
  const target = finishTarget(at);
  state.preview('finish.apply', { targets: [target], finish: state.tool.finish });
  set({ measure: { fields: [], note: surfaceName(state.project, state.model, target), typed: null, field: 0 } });
}

/** With shift held, a wall stands for all walls of its room. */
function finishTarget(at: TablePoint): NonNullable<Spot['target']> {
  const target = at.spot!.target!;
  return at.shift && target.kind === 'wall' ? { kind: 'walls', room: target.room } : target;
}

function pressFinish(at: TablePoint): void {
  const state = get();
  if (state.tool.kind === 'finish' && at.spot?.target) applyFinish(state.tool.finish, at);
}

/** Puts a finish on the surface under a point. */
export function applyFinish(finish: string, at: TablePoint): void {
  const state = get();
  state.endPreview();
  if (!at.spot?.target) return state.say('No finish was applied: there is no surface here; drop it on a floor, a wall, a ceiling or a piece.');
  const target = finishTarget(at);
  if (state.run('finish.apply', { targets: [target], finish })) {
    state.say(null);
    state.select([at.spot]);
  }
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

function slideTo(id: string, grab: number, at: TablePoint): number {
  const { project } = get();
  const opening = project.openings[id];
  const [a, b] = wallEnds(project, project.walls[opening.wall]);
  return snapStep(dot(sub(at.plan, a), unit(sub(b, a))) - grab, project.units);
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

// Typed values beside a selected opening ------------------------------------------------------------------------------

/** A value shown beside an opening: its distance to a corner, or its width, metres. */
export function openingValue(model: ReturnType<typeof get>['model'], opening: { id: string; width: number }, which: string): number {
  if (which === 'width') return opening.width;
  const gaps = openingGaps(model.project, model.project.openings[opening.id]);
  return gaps ? (which === 'start' ? gaps.start : gaps.end) : 0;
}

/** What an opening must become for a typed value to hold. */
export function openingFrom(project: ReturnType<typeof get>['project'], id: string, which: string, metres: number): { at?: number; width?: number } | null {
  const opening = project.openings[id];
  const gaps = opening && openingGaps(project, opening);
  if (!gaps) return null;
  if (which === 'width') return { width: metres };
  const at = which === 'start' ? gaps.span.from + metres + opening.width / 2 : gaps.span.to - metres - opening.width / 2;
  return { at: Math.round(at * 1e9) / 1e9 };
}

/** Shows a finish that is dragged from the ledge on the surface below. */
export function showDropFinish(finish: string, at: TablePoint): void {
  const state = get();
  state.endPreview();
  if (!at.spot?.target) return set({ measure: { fields: [], note: 'drag it onto a surface', typed: null, field: 0 } });
  state.setHover(at.spot);
  state.preview('finish.apply', { targets: [at.spot.target], finish });
  set({ measure: { fields: [], note: surfaceName(state.project, state.model, at.spot.target), typed: null, field: 0 } });
}

// By keyboard -----------------------------------------------------------------------------------------------------------

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
      pointer = at({ x: start.plan.x + 3, y: start.plan.y + 2 }, null);
      return showWalls(pointer);
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

/** Arrow keys give the wall being drawn its direction; a typed length does the rest. */
export function steer(key: string): void {
  const last = chain.at(-1);
  const { tool } = get();
  if (!last || tool.kind !== 'walls') return;
  const d = { ArrowLeft: { x: -1, y: 0 }, ArrowRight: { x: 1, y: 0 }, ArrowUp: { x: 0, y: 1 }, ArrowDown: { x: 0, y: -1 } }[key];
  if (!d) return;
  const now = pointer?.plan ?? last;
  const plan =
    tool.shape === 'rectangle'
      ? { x: d.x ? last.x + d.x * Math.max(0.5, Math.abs(now.x - last.x)) : now.x, y: d.y ? last.y + d.y * Math.max(0.5, Math.abs(now.y - last.y)) : now.y }
      : add(last, d);
  pointer = { plan, spot: null, reach: 0.02, shift: false };
  showWalls(pointer);
}
