import { boolean, insideRegion } from '../../geometry/polygon';
import { transformPoint, type Mesh } from '../../geometry/mesh';
import type { Region } from '../../geometry/region';
import { dot, sub, type Vec2 } from '../../geometry/vec';
import type { Model } from '../../model/model';
import { isStraight } from '../../shell/bow';
import type { DressedFace } from '../../shell/dress/dressed';
import type { DerivedPiece } from '../../stock/stock';
import { NEAR } from '../../units/tolerance';
import type { DisplayItem, MarkGroup } from '../display';
import { outlineOf } from './outline';
import type { Placed } from './unroll';

/** How near a wall something stands that is drawn in its elevation, metres: what stands away from it is in the way of what one wants to see. */
const AT_WALL = 0.35;

/** The axes of a face as one sees it from in front: along it to the right from its left end, and out of it. */
export interface FaceAxes {
  origin: Vec2;
  right: Vec2;
  out: Vec2;
}

/** The axes of a straight face; null of one that bows. */
export function faceAxes({ side }: Pick<DressedFace, 'side'>): FaceAxes | null {
  if (!side || !isStraight(side) || side.length < NEAR) return null;
  const [origin, end] = side.side === 'left' ? [side.to, side.from] : [side.from, side.to];
  const right = { x: (end.x - origin.x) / side.length, y: (end.y - origin.y) / side.length };
  return { origin, right, out: { x: right.y, y: -right.x } };
}

/** What is seen of a part from one side: its outline, and how far its nearest point is in front of the face. */
interface Silhouette {
  regions: Region[];
  near: number;
}

const known = new WeakMap<DerivedPiece, Map<string, Silhouette[]>>();

/**
 * The outlines of the parts of a piece seen along a direction, in the axes of a face: the union of all triangles that look
 * to the eye.
 */
function silhouettes(piece: DerivedPiece, axes: FaceAxes, floor: number): Silhouette[] {
  const key = [axes.origin.x, axes.origin.y, axes.right.x, axes.right.y, floor].join(' ');
  let own = known.get(piece);
  if (!own) known.set(piece, (own = new Map()));
  let found = own.get(key);
  if (!found) own.set(key, (found = piece.parts.map(({ mesh }) => silhouette(mesh, piece, axes, floor)).sort((a, b) => a.near - b.near)));
  return found;
}

function silhouette(mesh: Mesh, { matrix }: DerivedPiece, { origin, right, out }: FaceAxes, floor: number): Silhouette {
  let near = -Infinity;
  const regions = outlineOf(mesh, (x, y, z) => {
    const p = transformPoint(matrix, { x, y, z });
    const plan = sub(p, origin);
    near = Math.max(near, dot(plan, out));
    return { x: dot(plan, right), y: p.z - floor };
  });
  return { regions, near };
}

/** Pieces that stand at a wall or hang on it, as they are seen in its elevation: outlines of their parts, the far ones first. */
export function drawPieces(model: Model, { face, x }: Placed, key: string): MarkGroup[] {
  const axes = faceAxes(face);
  const side = face.side!;
  if (!axes) return [];
  const level = model.shell.levels.find((l) => l.walls.some((w) => w.id === side.wall));
  const room = level?.rooms.find((r) => r.id === face.room);
  if (!level) return [];
  const floor = level.level.elevation;
  const cut: Region = { outer: [{ x: 0, y: side.foot }, { x: side.length, y: side.foot }, ...[...side.top].reverse()], holes: [] };
  return model.pieces
    .filter((p) => p.piece.level === level.id && (room ? insideRegion(p.piece, room.region) : !level.rooms.some((r) => insideRegion(p.piece, r.region))))
    .flatMap((own) => {
      const corners = own.footprint.map((p) => sub(p, axes.origin));
      const away = Math.min(...corners.map((p) => dot(p, axes.out)));
      const along = corners.map((p) => dot(p, axes.right));
      if (away > AT_WALL || away < -AT_WALL || Math.max(...along) < 0 || Math.min(...along) > side.length) return [];
      return [{ own, away: Math.max(...corners.map((p) => dot(p, axes.out))) }];
    })
    .sort((a, b) => a.away - b.away)
    .flatMap(({ own }) => {
      const items = silhouettes(own, axes, floor).flatMap(({ regions }): DisplayItem[] => {
        // What reaches round the end of the wall is cut there.
        const shown = regions.length ? boolean('intersection', regions, [cut]) : [];
        const rings = shown.flatMap((r) => [r.outer, ...r.holes]).map((ring) => ring.map((p) => ({ x: p.x + x, y: p.y })));
        if (!rings.length) return [];
        return [
          { kind: 'fill', rings, ink: 'bare', entity: own.id, layer: 'piece' },
          { kind: 'lines', rings, ink: 'thin', pen: 0.25, entity: own.id, layer: 'piece' },
        ];
      });
      return items.length ? [{ key: `piece ${own.id} ${key}`, title: own.piece.name, items }] : [];
    });
}
