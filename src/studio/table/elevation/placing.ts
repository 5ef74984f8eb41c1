import { faceAxes } from '@/core/drawing/elevation/pieces';
import { placedAt, type Placed } from '@/core/drawing/elevation/unroll';
import { signedArea } from '@/core/geometry/polygon';
import { add, dot, scale, sub, type Vec2 } from '@/core/geometry/vec';
import { footprintOf } from '@/core/project/footprint';
import { newOpening } from '@/core/project/opening-defaults';
import type { FaceLaying, Opening, Patch, Piece } from '@/core/project/schema';
import { bodyOf, type Model } from '@/core/model/model';
import { addressOf, entityOf } from '@/core/project/targets';
import { freeName } from '@/core/project/things';
import type { DressedFace } from '@/core/shell/dress/dressed';
import { faceS } from '@/core/shell/wall-face';
import { stockItem } from '@/core/stock/stock';
import { CARRIED } from '../../finishes/finishing';
import { newId, useStudio, type Spot } from '../../store/studio';
import type { TablePoint } from '../../tools/session';

export const KINDS = ['window', 'passage', 'niche', 'patch', 'band'] as const;
export type Kind = (typeof KINDS)[number];
export const KIND_WORDS: Record<Kind, string> = { window: 'window', passage: 'pass-through', niche: 'niche', patch: 'patch', band: 'band' };

/** The band over the whole of the face that a drag began on. @param round over all faces that are shown */
export const bandOf = (faces: readonly Placed[], drawn: readonly Vec2[], round: boolean): Vec2[] => {
  const own = round ? faces : [placedAt(faces, drawn[0].x)];
  const [first, last] = [own[0], own[own.length - 1]];
  const ys = drawn.map((p) => p.y);
  const [a, b] = [Math.min(...ys), Math.max(...ys)];
  const [from, to] = [first.x, last.x + last.face.side!.length];
  return [
    { x: from, y: a },
    { x: to, y: a },
    { x: to, y: b },
    { x: from, y: b },
  ];
};

/** Places what was drawn: an opening, a patch or a band. @param round whether a band runs round all walls of the room */
export function placeOutline(kind: Kind, outline: readonly Vec2[], { face, x }: Placed, round: boolean): void {
  const state = useStudio.getState();
  const side = face.side!;
  const { wall } = side;
  const local = outline.map((p) => ({ x: p.x - x, y: p.y }));
  const along = local.map((p) => ({ x: faceS(side, p.x), y: p.y }));
  const xs = along.map((p) => p.x);
  const ys = along.map((p) => p.y);
  const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const rectangle = outline.length === 4 && Math.abs(Math.abs(signedArea([...along])) - (x1 - x0) * (y1 - y0)) < 1e-9;
  if (kind === 'patch' || kind === 'band') {
    if (y1 - y0 < 0.01 || (kind === 'patch' && x1 - x0 < 0.01))
      return state.say('Nothing was placed: a patch is at least 10 mm wide and high; draw it larger.');
    const id = newId('patch');
    const shape: Patch['shape'] =
      kind === 'band'
        ? { kind: 'band', from: y0, to: y1 }
        : rectangle
          ? { kind: 'rectangle', at: (x0 + x1) / 2, base: y0, width: x1 - x0, height: y1 - y0 }
          : { kind: 'polygon', points: along };
    const finish = state.tool.kind === 'finish' ? state.tool.finish : 'tile.square-white';
    const orders = Object.values(state.project.patches).map((p) => p.order);
    const patch: Patch = {
      id,
      name: freeName(kind === 'band' ? 'Band' : 'Patch', state.project.patches),
      on: kind === 'band' && round && face.room ? { kind: 'walls', room: face.room } : { kind: 'wall', room: face.room, wall, side: side.side },
      shape,
      order: Math.min(1e6, Math.max(0, ...orders) + 1),
      finish,
      panels: null,
    };
    const layings: Record<string, FaceLaying> = patch.on.kind === 'walls' ? { [addressOf({ kind: 'patch', patch: id, part: 'field' })]: CARRIED } : {};
    if (state.run('patch.put', { patches: [patch], layings })) state.select([{ entity: id, target: { kind: 'patch', patch: id, part: 'field' } }]);
    return;
  }
  if (x1 - x0 < 0.1 || y1 - y0 < 0.1) return state.say('Nothing was placed: an opening is at least 100 mm wide and high; draw it larger.');
  const turned = signedArea(along) < 0 ? [...along].reverse() : along;
  const low = turned.findIndex((p, i) => p.y === y0 && turned[(i + 1) % turned.length].y === y0);
  const from = low < 0 ? 0 : low;
  const shape: Opening['shape'] = rectangle
    ? { kind: 'rectangle' }
    : { kind: 'outline', points: [...turned.slice(from), ...turned.slice(0, from)].map((p) => ({ x: (p.x - x0) / (x1 - x0), y: (p.y - y0) / (y1 - y0) })) };
  const id = newId(kind);
  const opening = newOpening(state.project, {
    id,
    wall,
    kind,
    at: (x0 + x1) / 2,
    width: x1 - x0,
    height: y1 - y0,
    sill: y0,
    shape,
    swing: side.side,
    status: state.project.walls[wall].status === 'existing' ? 'existing' : 'new',
  });
  if (kind === 'window' && !rectangle) Object.assign(opening, { form: 'fixed' });
  if (state.run('opening.add', opening)) state.select([{ entity: id, target: null }]);
}

/** A piece that is dragged in an elevation, from where, and where it would stand. */
export interface Carrying {
  piece: Piece;
  from: Vec2;
  meant: ReturnType<typeof movedUpright>;
}

/** The one of some faces that a piece stands at: nearest to it of those it stands before. */
export function faceBehind(faces: readonly Placed[], piece: Piece): DressedFace | null {
  let best: { face: DressedFace; off: number } | null = null;
  for (const { face } of faces) {
    const axes = faceAxes(face);
    if (!axes) continue;
    const from = sub(piece, axes.origin);
    const [along, off] = [dot(from, axes.right), Math.abs(dot(from, axes.out))];
    if (along >= 0 && along <= face.side!.length && (!best || off < best.off)) best = { face, off };
  }
  return best?.face ?? null;
}

/** Where a piece at a wall comes to by a way along and up the wall: what hangs there goes up and down too. Null: it stands at none of the faces, or at one that bows. */
export function movedUpright(piece: Piece, faces: readonly Placed[], by: Vec2): { x: number; y: number; elevation?: number } | null {
  // What hangs at a window goes with that.
  if (piece.hangs) return null;
  const face = faceBehind(faces, piece);
  const axes = face && faceAxes(face);
  if (!axes) return null;
  const hangs = stockItem(piece.maker)?.mount === 'wall';
  return {
    x: piece.x + axes.right.x * by.x,
    y: piece.y + axes.right.y * by.x,
    ...(hangs ? { elevation: Math.max(0, piece.elevation + by.y) } : {}),
  };
}

/** A distance of a piece in the elevation of its wall, which can be typed over. */
export interface UprightGap {
  /** How it is called after the piece. */
  words: string;
  /** From the edge of the piece to what it is measured to, in the drawing. */
  from: Vec2;
  to: Vec2;
  value: number;
  /** The way along and up the wall after which it is a length. */
  by(metres: number): Vec2;
}

/** How far a piece is from the ends of the wall it is at, and above the floor where it hangs: none where it goes with a window. */
export function uprightGaps(piece: Piece, faces: readonly Placed[]): UprightGap[] {
  const face = faceBehind(faces, piece);
  const axes = face && faceAxes(face);
  if (!axes || piece.hangs) return [];
  const { x } = faces.find((f) => f.face === face)!;
  const along = footprintOf(piece, piece.size).map((p) => dot(sub(p, axes.origin), axes.right));
  const [left, right] = [Math.min(...along), Math.max(...along)];
  const [low, high] = [piece.elevation, piece.elevation + piece.size.height];
  const { length } = face.side!;
  const middle = (low + high) / 2;
  const gaps: UprightGap[] = [
    { words: 'to the left end of the wall', from: { x: x + left, y: middle }, to: { x, y: middle }, value: left, by: (v) => ({ x: v - left, y: 0 }) },
    {
      words: 'to the right end of the wall',
      from: { x: x + right, y: middle },
      to: { x: x + length, y: middle },
      value: length - right,
      by: (v) => ({ x: length - right - v, y: 0 }),
    },
  ];
  const across = x + (left + right) / 2;
  if (stockItem(piece.maker)?.mount === 'wall')
    gaps.push({ words: 'above the floor', from: { x: across, y: low }, to: { x: across, y: 0 }, value: low, by: (v) => ({ x: 0, y: v - low }) });
  return gaps;
}

/** The point of the model where one points in the elevation of some faces; null over one that bows. */
export function pointOn(faces: readonly Placed[], p: Vec2, level: string, shift = false, spot: Spot | null = null): TablePoint | null {
  const { face, x } = placedAt(faces, p.x);
  const axes = faceAxes(face);
  if (!axes) return null;
  const along = Math.min(face.side!.length, Math.max(0, p.x - x));
  const plan = add(axes.origin, scale(axes.right, along));
  return { plan, spot, reach: 0.1, shift, wall: { ...axes, level, length: face.side!.length, along, height: p.y } };
}

/** Parts of things that are mostly seen in an elevation, whichever comes first. */
const SEEN = ['fronts', 'leaf', 'frame', 'worktop'];

/**
 * What one points at in an elevation, as a finish is put on it: a thing by the part of it that is mostly seen there, a run by how
 * high one points; else the face of the wall.
 *
 * @param entity the thing that is drawn there; null: none
 */
export function spotUpright(model: Model, faces: readonly Placed[], entity: string | null, p: Vec2): Spot | null {
  const { face } = placedAt(faces, p.x);
  const wall: Spot = { entity: entityOf(face.target) ?? '', target: face.target };
  if (entity === null || entity === face.side?.wall) return wall;
  const { patches, mouldings, runs } = model.project;
  if (Object.hasOwn(patches, entity)) return { entity, target: { kind: 'patch', patch: entity, part: 'field' } };
  if (Object.hasOwn(mouldings, entity)) return { entity, target: { kind: 'moulding', moulding: entity } };
  const parts = (bodyOf(model, entity)?.parts ?? []).filter((part) => part.target?.kind === 'part');
  const low = Object.hasOwn(runs, entity) && p.y < runs[entity].made.plinth ? parts.find((part) => part.name === 'plinth') : undefined;
  const meant = low ?? SEEN.flatMap((name) => parts.find((part) => part.name === name) ?? [])[0] ?? parts[0];
  return meant?.target ? { entity, target: meant.target } : wall;
}
