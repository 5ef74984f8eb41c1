import { insideRegion, isConvex, triangulate } from '../geometry/polygon';
import { dot, scale, sub, type Vec2 } from '../geometry/vec';
import { derivedOf, type Model } from '../model/model';
import { footprintOf, fromAxesOf, inAxesOf, type Stand } from '../project/footprint';
import type { Piece } from '../project/schema';
import { standingOn } from '../project/standing-on';
import type { DerivedPiece } from '../stock/stock';
import type { StockItem } from '../stock/types';
import { HAIR, NEAR } from '../units/tolerance';

/** The sides of a piece: its front looks to −y in its own axes, its right is +x. */
export const SIDES = ['left', 'right', 'front', 'back'] as const;
export type PieceSide = (typeof SIDES)[number];

/** What each side is called, after a piece. */
export const SIDE_WORDS: Readonly<Record<PieceSide, string>> = { left: 'at its left', right: 'at its right', front: 'before it', back: 'behind it' };

/** Which way a side looks in the axes of the piece. */
export const OUT: Readonly<Record<PieceSide, Vec2>> = { left: { x: -1, y: 0 }, right: { x: 1, y: 0 }, front: { x: 0, y: -1 }, back: { x: 0, y: 1 } };

/** What bounds the free way in front of one side of a piece. */
export interface Gap {
  /** Metres from the side to what bounds it; less than nothing where that reaches into the piece. */
  distance: number;
  /** The piece or the wall that bounds it; null: an edge of the room that is of no wall. */
  id: string | null;
  kind: 'wall' | 'piece' | 'column';
}

/** Something that is in the way: a line of it in the plan, and what it is of. */
interface Edge {
  a: Vec2;
  b: Vec2;
  id: string | null;
  kind: Gap['kind'];
}

/** Half the extent of a piece along its own x or y, metres. */
export const halfOf = ({ size }: Pick<Piece, 'size'>, side: PieceSide): number => (side === 'left' || side === 'right' ? size.width : size.depth) / 2;

/** The turn of a side in the plan, radians, from where the piece's back looks: the side looks to +y after it is turned back by it. */
const TURN: Readonly<Record<PieceSide, number>> = { back: 0, left: Math.PI / 2, front: Math.PI, right: -Math.PI / 2 };

/** Whether two pieces are at one height, so that they are in each other's way. What lies flat is stepped over. */
function atOneHeight(a: DerivedPiece, b: DerivedPiece): boolean {
  if (a.item?.lies || b.item?.lies) return false;
  const [p, q] = [a.piece, b.piece];
  return p.elevation < q.elevation + q.size.height - HAIR && q.elevation < p.elevation + p.size.height - HAIR;
}

/** A larger seat is none that is drawn up to a table: m² of its footprint, metres of its width. */
const LARGEST_CHAIR = 0.4;
const WIDEST_CHAIR = 0.7;

/** Whether something is a chair that is drawn up to a table. */
export const isChair = (item: Pick<StockItem, 'mount' | 'category'> | undefined, size: { width: number; depth: number }): boolean =>
  item?.mount === 'floor' && item.category === 'Seating' && size.width <= WIDEST_CHAIR && size.width * size.depth <= LARGEST_CHAIR;

/** Whether one of two is a chair and the other something it is drawn up to: they are not in each other's way. */
export function drawnUp(a: Pick<DerivedPiece, 'item' | 'piece'>, b: Pick<DerivedPiece, 'item' | 'piece'>): boolean {
  return [
    [a, b],
    [b, a],
  ].some(([chair, table]) => isChair(chair.item, chair.piece.size) && table.item?.places !== undefined);
}

/** Whether one of two stands below the other: shoes below a bench, a basket below a console. */
function below(a: DerivedPiece, b: DerivedPiece): boolean {
  return [
    [a, b],
    [b, a],
  ].some(([small, large]) => {
    const { width, depth, height } = large.piece.size;
    return (
      small.piece.elevation + small.piece.size.height < large.piece.elevation + height - HAIR &&
      small.footprint.every((p) => {
        const q = inAxesOf(large.piece, p);
        return Math.abs(q.x) < width / 2 + HAIR && Math.abs(q.y) < depth / 2 + HAIR;
      })
    );
  });
}

/** Ids of what stands on a piece, or under it. */
function stacked(model: Model, id: string): Set<string> {
  const { pieces } = model.project;
  const out = new Set([id, ...standingOn(pieces, [id])]);
  for (let on = pieces[id]?.on ?? null; on !== null && !out.has(on); on = pieces[on]?.on ?? null) out.add(on);
  return out;
}

/** Id of the room a piece stands in, or of the one its window looks into where it hangs at one; null: none. */
export function roomAt(model: Model, { level, x, y, hangs = null }: Pick<Piece, 'level' | 'x' | 'y'> & Partial<Pick<Piece, 'hangs'>>): string | null {
  // In its recess it is in no room's outline.
  if (hangs) return model.shell.openings.get(hangs.opening)?.rooms[hangs.side] ?? null;
  return model.shell.levels.find((l) => l.id === level)?.rooms.find((r) => insideRegion({ x, y }, r.region))?.id ?? null;
}

/** All that is in the way of a piece in the plan: faces of walls round it, columns, other pieces at its height. */
function edgesFor(model: Model, own: DerivedPiece, except: ReadonlySet<string>, counts: Counts = ALL): Edge[] {
  const { piece } = own;
  const level = model.shell.levels.find((l) => l.id === piece.level);
  if (!level) return [];
  const edges: Edge[] = [];
  const ring = (points: readonly Vec2[], id: string | null, kind: Edge['kind']): void =>
    points.forEach((a, i) => edges.push({ a, b: points[(i + 1) % points.length], id, kind }));
  const room = level.rooms.find((r) => insideRegion(piece, r.region));
  if (room) {
    for (const side of room.sides) edges.push({ a: side.from, b: side.to, id: side.wall, kind: 'wall' });
    // Bows and short returns are in the outline alone.
    for (const points of [room.region.outer, ...room.region.holes]) ring(points, null, 'wall');
  } else for (const wall of level.walls) for (const points of wall.rings) ring(points, wall.id, 'wall');
  for (const column of derivedOf(model, 'columns', piece.level)) ring(column.ring, column.id, 'column');
  for (const other of model.pieces)
    if (other.piece.level === piece.level && !except.has(other.id) && atOneHeight(own, other) && !drawnUp(own, other) && !below(own, other) && counts(other))
      ring(other.footprint, other.id, 'piece');
  return edges;
}

/**
 * The nearest of some edges in the strip that a side of a box sweeps outwards.
 *
 * @param at middle of the box and its turn; @param half its half extents
 */
function nearest(edges: readonly Edge[], at: Stand, half: Vec2, side: PieceSide): Gap | null {
  // In axes whose y looks out of that side.
  const axes = { ...at, rotation: at.rotation + TURN[side] };
  const [w, d] = side === 'left' || side === 'right' ? [half.y, half.x] : [half.x, half.y];
  // What only touches the side lies beside it, not before it.
  const inside = w - HAIR;
  let best: { y: number; edge: Edge } | null = null;
  for (const edge of edges) {
    const [a, b] = [inAxesOf(axes, edge.a), inAxesOf(axes, edge.b)];
    if (Math.max(a.x, b.x) <= -inside || Math.min(a.x, b.x) >= inside) continue;
    const span = b.x - a.x;
    const yAt = (x: number): number => a.y + ((Math.min(inside, Math.max(-inside, x)) - a.x) / span) * (b.y - a.y);
    const ys = Math.abs(span) < NEAR ? [a.y, b.y] : [yAt(a.x), yAt(b.x)];
    // What lies behind the middle of the box bounds another side.
    if (Math.max(...ys) < NEAR) continue;
    const y = Math.max(0, Math.min(...ys));
    // A face of a wall goes before the bare outline of the room that lies on it.
    if (!best || y < best.y - NEAR || (y < best.y + NEAR && best.edge.id === null && edge.id !== null)) best = { y, edge };
  }
  return best && { distance: best.y - d, id: best.edge.id, kind: best.edge.kind };
}

/** Which other pieces count. */
type Counts = (other: DerivedPiece) => boolean;
const ALL: Counts = () => true;

/** How far a piece is from what bounds it at each of its sides: walls of its room, columns, other pieces at its height. */
export function gapsOf(model: Model, id: string, counts: Counts = ALL): Partial<Record<PieceSide, Gap>> {
  const own = model.pieces.find((p) => p.id === id);
  if (!own) return {};
  const edges = edgesFor(model, own, stacked(model, id), counts);
  const half = { x: own.piece.size.width / 2, y: own.piece.size.depth / 2 };
  return Object.fromEntries(
    SIDES.flatMap((side) => {
      const gap = nearest(edges, own.piece, half, side);
      return gap ? [[side, gap]] : [];
    }),
  );
}

/**
 * The gap at one side of a piece along a part of it only.
 *
 * @param from, to shares of that side: of left and right from the front to the back, of front and back from left to right
 */
export function gapAlong(model: Model, id: string, side: PieceSide, from: number, to: number, counts: Counts = ALL): Gap | null {
  const own = model.pieces.find((p) => p.id === id);
  if (!own) return null;
  const { piece } = own;
  const along = side === 'left' || side === 'right' ? 'y' : 'x';
  const length = along === 'y' ? piece.size.depth : piece.size.width;
  const shift = ((from + to) / 2 - 0.5) * length;
  const at = { ...fromAxesOf(piece, along === 'y' ? { x: 0, y: shift } : { x: shift, y: 0 }), rotation: piece.rotation };
  const half = { x: piece.size.width / 2, y: piece.size.depth / 2 };
  half[along] = ((to - from) * length) / 2;
  return nearest(edgesFor(model, own, stacked(model, id), counts), at, half, side);
}

/** Where a piece comes to stand when one of its sides is to be so far from what bounds it; null where nothing bounds it. @param distance metres */
export function movedTo(model: Model, id: string, side: PieceSide, distance: number): Vec2 | null {
  const gap = gapsOf(model, id)[side];
  const piece = model.project.pieces[id];
  return gap && piece ? fromAxesOf(piece, scale(OUT[side], gap.distance - distance)) : null;
}

/** How far two things may reach into one another before it is said, metres: cloth gives, and hands are not exact. */
export const SLACK = 0.01;

/** What a box would stand in: how far into which wall, column or piece; null: it stands clear. */
export interface Overlap {
  /** Null: a wall of its room, whichever. */
  id: string | null;
  kind: Gap['kind'];
  /** How far it would have to go to be clear, metres, at least. */
  depth: number;
}

/** How far two convex outlines lie in one another: the least way that parts them (separating axes; Gottschalk 1996). 0: apart. */
export function reachInto(a: readonly Vec2[], b: readonly Vec2[]): number {
  let least = Infinity;
  for (const ring of [a, b])
    for (let i = 0; i < ring.length; i++) {
      const along = sub(ring[(i + 1) % ring.length], ring[i]);
      const l = Math.hypot(along.x, along.y);
      if (l < NEAR) continue;
      const axis = { x: along.y / l, y: -along.x / l };
      const [p, q] = [a, b].map((r) => r.map((v) => dot(v, axis)));
      const depth = Math.min(Math.max(...p) - Math.min(...q), Math.max(...q) - Math.min(...p));
      if (depth <= 0) return 0;
      least = Math.min(least, depth);
    }
  return least;
}

/**
 * What a piece that stands on the floor would stand in at a place: said, never forbidden.
 *
 * @param but pieces that are not in its way: itself, and what it is at
 */
export function overlapping(
  model: Model,
  levelId: string,
  at: Stand,
  size: { width: number; depth: number; height: number },
  but: ReadonlySet<string>,
  elevation = 0,
): Overlap | null {
  const level = model.shell.levels.find((l) => l.id === levelId);
  if (!level) return null;
  const own = footprintOf(at, size);
  let worst: Overlap | null = null;
  const meet = (id: string | null, kind: Overlap['kind'], depth: number): void => {
    if (depth > SLACK && depth > (worst?.depth ?? 0)) worst = { id, kind, depth };
  };
  for (const wall of level.walls)
    if (wall.wall.kind === 'wall')
      for (const ring of wall.rings) for (const part of isConvex(ring) ? [ring] : convexParts(ring)) meet(wall.id, 'wall', reachInto(own, part));
  for (const column of derivedOf(model, 'columns', levelId)) meet(column.id, 'column', reachInto(own, column.ring));
  for (const other of model.pieces) {
    if (other.piece.level !== levelId || but.has(other.id) || other.item?.lies) continue;
    const { piece } = other;
    if (elevation >= piece.elevation + piece.size.height - HAIR || piece.elevation >= elevation + size.height - HAIR) continue;
    meet(other.id, 'piece', reachInto(own, other.footprint));
  }
  return worst;
}

/** A ring in triangles, each convex. */
function convexParts(ring: Vec2[]): Vec2[][] {
  const { points, indices } = triangulate({ outer: ring, holes: [] });
  return Array.from({ length: indices.length / 3 }, (_, i) => [0, 1, 2].map((k) => points[indices[i * 3 + k]]));
}
