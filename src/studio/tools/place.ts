import { lerp, distance, dot, project as projectOn, sub, unit, add, scale, type Vec2, type Vec3 } from '@/core/geometry/vec';
import { clearSpans, fitOpening, freeSpans } from '@/core/project/openings';
import { cornerAt, roundCorner } from '@/core/project/standing';
import { stationNear, wallLength, wallPath } from '@/core/project/wall-line';
import { newOpening } from '@/core/project/opening-defaults';
import type { Opening, Piece, Project } from '@/core/project/schema';
import type { Model } from '@/core/model/model';
import { seatNear } from '@/core/placing/arrange';
import { isChair } from '@/core/placing/around';
import { dropOf } from '@/core/stock/stock';
import { restsOn } from '@/core/placing/resting';
import type { PieceSize, StockItem } from '@/core/stock/types';
import { snapStep } from '@/core/units/length';
import { NEAR } from '@/core/units/tolerance';
import type { WallPoint } from './session';

/** Where a piece stands: the point and the way it faces. */
export interface Standing {
  x: number;
  y: number;
  rotation: number;
  note: string;
  /** Where it is put on something, or taken off: how high it stands then, and on what. */
  rests?: { elevation: number; on: string | null };
}

interface Finding {
  level: string;
  item: StockItem | undefined;
  size: PieceSize;
  traits?: Piece['traits'];
  at: Vec2;
  rotation: number;
  /** How near a wall counts, metres. */
  reach: number;
  /** The piece itself, and what stands on it, where it is there already. */
  except?: ReadonlySet<string>;
  /** What one points at in the model. */
  onto?(except: ReadonlySet<string>): Vec3 | null;
}

const NOBODY: ReadonlySet<string> = new Set();

/** How near its place at a table a chair is drawn to it, metres. */
const SEAT_REACH = 0.35;

/** What has no more room than this beside it, metres, stands in the middle between two walls. */
const RECESS_PLAY = 0.4;

interface Along {
  level: string;
  item: Pick<StockItem, 'mount' | 'lies'>;
  size: { width: number; depth: number };
  /** Start of the face, its direction, and the way into the room. */
  from: Vec2;
  along: Vec2;
  out: Vec2;
  except: ReadonlySet<string>;
}

/** Where along a wall a piece stands side by side with one that stands there already, where that is near. */
function neighbourAlong(model: Model, { level, item, size, from, along, out, except }: Along, s: number, near: number): { s: number; name: string } | null {
  let best: { s: number; name: string } | null = null;
  let least = near;
  for (const { id, piece, item: other, footprint } of model.pieces) {
    if (piece.level !== level || except.has(id) || other?.lies || other?.mount !== item.mount) continue;
    const spans = footprint.map((q) => ({ along: dot(sub(q, from), along), out: dot(sub(q, from), out) }));
    // It stands at this wall too.
    const nearest = Math.min(...spans.map((q) => q.out));
    if (nearest > size.depth || Math.max(...spans.map((q) => q.out)) < 0) continue;
    const ends = spans.map((q) => q.along);
    for (const at of [Math.min(...ends) - size.width / 2, Math.max(...ends) + size.width / 2]) {
      if (Math.abs(at - s) >= least) continue;
      least = Math.abs(at - s);
      best = { s: at, name: piece.name };
    }
  }
  return best;
}

/** Lets a piece find its place at a wall one looks at: what hangs on walls with its middle where one points, all else with its back to it. */
export function standUpright(model: Model, item: StockItem, size: PieceSize, wall: WallPoint, traits?: Piece['traits']): Standing {
  const half = size.width / 2;
  const along = wall.length < size.width ? wall.length / 2 : Math.min(wall.length - half, Math.max(half, snapStep(wall.along, model.project.units)));
  const at = add(add(wall.origin, scale(wall.right, along)), scale(wall.out, size.depth / 2));
  const rotation = Math.atan2(wall.out.y, wall.out.x) + Math.PI / 2;
  if (item.mount === 'wall') {
    const elevation = Math.max(0, snapStep(wall.height - size.height / 2, model.project.units));
    return { ...at, rotation, note: 'on the wall', rests: { elevation, on: null } };
  }
  if (item.mount !== 'top') return { ...at, rotation, note: 'against the wall' };
  const rest = restsOn(model, wall.level, at, NOBODY, wall.height);
  return {
    ...at,
    rotation,
    note: rest ? `on ${rest.name}` : 'on the floor',
    rests: { elevation: rest ? Math.max(0, rest.height - dropOf(item, size, traits)) : 0, on: rest?.piece ?? null },
  };
}

/** Lets a piece find its place: with its back to a wall that is near, otherwise free at a whole step. */
export function standPiece(model: Model, { level, item, size, traits, at: p, rotation, reach, except = NOBODY, onto }: Finding): Standing {
  const { project } = model;
  if (item?.mount === 'top') {
    const seen = onto?.(except);
    const at = seen ?? p;
    const floor = project.levels[level].elevation;
    const rest = restsOn(model, level, at, except, seen ? seen.z - floor : undefined);
    return {
      x: snapStep(at.x, project.units),
      y: snapStep(at.y, project.units),
      // On something it stands as that does.
      rotation: rest?.rotation && rotation === 0 ? rest.rotation : rotation,
      note: rest ? `on ${rest.name}` : 'on the floor',
      rests: { elevation: rest ? Math.max(0, rest.height - dropOf(item, size, traits)) : 0, on: rest?.piece ?? null },
    };
  }
  // A chair finds its place at a table by itself.
  if (isChair(item, size)) {
    const seat = seatNear(model, level, p, { size, except }, Math.max(reach, SEAT_REACH));
    if (seat) return { x: seat.x, y: seat.y, rotation: seat.rotation, note: `at ${project.pieces[seat.table].name}` };
  }
  const free = { x: snapStep(p.x, project.units), y: snapStep(p.y, project.units), rotation, note: '' };
  if (!item || item.mount === 'ceiling' || item.lies) return free;
  const gap = item.mount === 'window' ? 0.03 : 0;
  const near = Math.max(reach, item.mount === 'wall' || item.mount === 'window' ? 0.6 : 0.18);
  let best: Standing | null = null;
  let least = Infinity;
  for (const wall of model.shell.walls.values()) {
    if (wall.wall.level !== level) continue;
    for (const side of wall.sides) {
      const t = projectOn(p, side.from, side.to);
      if (t < 0 || t > 1) continue;
      const foot = lerp(side.from, side.to, t);
      const along = unit(sub(side.to, side.from));
      const out = side.side === 'left' ? { x: -along.y, y: along.x } : { x: along.y, y: -along.x };
      const off = (p.x - foot.x) * out.x + (p.y - foot.y) * out.y;
      if (off < -wall.thickness / 2) continue;
      const gapNow = off - size.depth / 2;
      if (gapNow > near || off > size.depth / 2 + near) continue;
      if (Math.abs(gapNow) < least) {
        least = Math.abs(gapNow);
        // Along the wall: against a corner or a neighbour when near to it, else at a whole step from the start of the face.
        const length = distance(side.from, side.to);
        let s = t * length;
        let note = 'against the wall';
        const beside = neighbourAlong(model, { level, item, size, from: side.from, along, out, except }, s, near * 0.8);
        const play = length - size.width;
        if (play >= -NEAR && play < RECESS_PLAY) {
          // It fills a recess, or the end of a narrow room.
          s = length / 2;
          note = 'between the walls';
        } else if (s - size.width / 2 < near * 0.8) s = size.width / 2;
        else if (length - s - size.width / 2 < near * 0.8) s = length - size.width / 2;
        else if (beside) {
          s = beside.s;
          note = `beside ${beside.name}`;
        } else s = snapStep(s, project.units);
        const at = add(add(side.from, scale(along, s)), scale(out, size.depth / 2 + gap));
        best = { x: at.x, y: at.y, rotation: Math.atan2(out.y, out.x) + Math.PI / 2, note };
      }
    }
  }
  return best ?? free;
}

/** A new opening at the point of a wall nearest to `p`; its centre is kept within the clear part of the wall, beside what stands there. */
export function openingAt(
  project: Project,
  wallId: string,
  p: Vec2,
  kind: Opening['kind'],
  id: string,
  form?: Opening['form'],
): { opening: Opening; fits: boolean } {
  const wall = project.walls[wallId];
  const near = stationNear(wallPath(project, wall), p);
  const base = newOpening(project, {
    id,
    wall: wallId,
    kind,
    at: near.s,
    form,
    swing: near.off >= 0 ? 'left' : 'right',
    status: wall.status === 'existing' ? 'existing' : 'new',
  });
  if (base.form === 'corner') {
    const length = wallLength(project, wall);
    // At the nearer corner that a window can go round.
    const nearer = near.s < length / 2 ? (['start', 'end'] as const) : (['end', 'start'] as const);
    const hinge = nearer.find((end) => roundCorner(project, { wall: wallId, hinge: end })) ?? nearer[0];
    const opening = { ...base, hinge };
    return { fits: true, opening: { ...opening, at: cornerAt(project, opening) } };
  }
  const fit =
    fitOpening(freeSpans(project, base), snapStep(near.s, project.units), base.width) ??
    fitOpening(clearSpans(project, wall, base.status), snapStep(near.s, project.units), base.width);
  return { fits: Boolean(fit), opening: { ...base, at: fit ? Math.round(fit.at * 1e6) / 1e6 : near.s } };
}
