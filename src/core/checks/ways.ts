import { boxOf, insideRegion } from '../geometry/polygon';
import { distance, segmentDistance, type Vec2 } from '../geometry/vec';
import { derivedOf, type Model } from '../model/model';
import { isChair } from '../placing/around';
import { fromAxesOf } from '../project/footprint';
import type { DerivedRoom } from '../shell/model';
import type { DerivedPiece } from '../stock/stock';

/** A way through a room that is narrower than one wants. */
export interface NarrowWay {
  room: string;
  /** Ids of the doors it leads from and to. */
  from: string;
  to: string;
  /** How wide it is where it is narrowest, metres. */
  width: number;
  /** Pieces that make it narrow, the nearest first. */
  near: string[];
}

/** Pitch of the grid that ways are looked for on, metres. */
const PITCH = 0.05;
/** The cells round a cell. */
const NEIGHBOURS = [-1, 0, 1].flatMap((dx) => [-1, 0, 1].map((dy) => [dx, dy] as const)).filter(([dx, dy]) => dx !== 0 || dy !== 0);
/** How far within a door one is in the room, metres: a door itself is narrower than a way. */
const WITHIN = 0.45;
/** What a way may be narrower by than it is wanted, metres: as much as the grid is not sure of. */
const UNSURE = 0.05;

/** Edges that are in the way on the floor, with the piece each is of. */
interface Edge {
  a: Vec2;
  b: Vec2;
  id: string | null;
}

/**
 * Ways between the doors of each room that furniture makes narrower than is wanted. The widest way between two doors is
 * that of the greatest bottleneck: cells of a grid are joined from the farthest off everything to the nearest (a maximum
 * spanning forest by union and find; Hu 1961), and the cell that joins two doors tells how wide their way is.
 *
 * @param wanted metres
 */
export function narrowWays(model: Model, wanted: number): NarrowWay[] {
  return model.shell.levels.flatMap((level) => level.rooms.flatMap((room) => narrowIn(model, level.id, room, wanted)));
}

function narrowIn(model: Model, level: string, room: DerivedRoom, wanted: number): NarrowWay[] {
  const { project } = model.shell;
  const doors = [...new Set(room.sides.flatMap((s) => s.openings))].filter((id) => ['door', 'passage'].includes(project.openings[id].kind));
  if (doors.length < 2) return [];
  const pieces = model.pieces.filter(
    ({ piece, item }) =>
      piece.level === level && item && !item.lies && item.mount === 'floor' && !isChair(item, piece.size) && insideRegion(piece, room.region),
  );
  if (!pieces.length) return [];
  const known = remembered.get(room);
  // All it follows from; derived things are the same objects as long as nothing of them changes.
  const from: unknown[] = [wanted, ...doors.map((id) => model.shell.openings.get(id)), ...derivedOf(model, 'columns', level), ...pieces];
  if (known && known.from.length === from.length && known.from.every((v, i) => v === from[i])) return known.ways;
  const ways = between(model, level, room, doors, pieces, wanted);
  remembered.set(room, { from, ways });
  return ways;
}

/** What was found in a room, and from what. */
const remembered = new WeakMap<DerivedRoom, { from: readonly unknown[]; ways: NarrowWay[] }>();

function between(model: Model, level: string, room: DerivedRoom, doors: readonly string[], pieces: readonly DerivedPiece[], wanted: number): NarrowWay[] {
  const ring = (points: readonly Vec2[], id: string | null): Edge[] => points.map((a, i) => ({ a, b: points[(i + 1) % points.length], id }));
  const walls = [
    ...[room.region.outer, ...room.region.holes].flatMap((r) => ring(r, null)),
    ...derivedOf(model, 'columns', level).flatMap((c) => ring(c.ring, null)),
  ];
  const furniture = pieces.flatMap((p) => ring(p.footprint, p.id));
  const inside = (p: Vec2): boolean => insideRegion(p, room.region);
  const free = (p: Vec2): boolean => inside(p) && !pieces.some((own) => insideRegion(p, { outer: own.footprint, holes: [] }));
  const starts = doors.map((id) => doorstep(model, id, room));
  const ways = widest(room, starts, [...walls, ...furniture], free);
  const bare = widest(room, starts, walls, inside);
  const out: NarrowWay[] = [];
  for (let i = 0; i < doors.length; i++)
    for (let j = i + 1; j < doors.length; j++) {
      const [own, alone] = [ways(i, j), bare(i, j)];
      // A room that is narrow by itself is no fault of what stands in it.
      if (!own || !alone || own.width > wanted - UNSURE || own.width > alone.width - UNSURE) continue;
      const near = pieces
        .map((p) => ({ id: p.id, off: Math.min(...ring(p.footprint, p.id).map((e) => segmentDistance(own.at, e.a, e.b))) }))
        .filter(({ off }) => off < own.width / 2 + PITCH * 1.5)
        .sort((a, b) => a.off - b.off)
        .map(({ id }) => id);
      out.push({ room: room.id, from: doors[i], to: doors[j], width: own.width, near: near.slice(0, 2) });
    }
  // The narrowest way of a room stands for all that pass the same place.
  return out
    .sort((a, b) => a.width - b.width)
    .filter((way, i, all) => all.findIndex((w) => w.near.join(' ') === way.near.join(' ')) === i)
    .slice(0, 2);
}

/** Where one stands who has come in by a door. */
function doorstep(model: Model, id: string, room: DerivedRoom): Vec2 {
  const { point, angle, thickness, rooms } = model.shell.openings.get(id)!;
  const side = rooms.left === room.id ? 1 : -1;
  return fromAxesOf({ ...point, rotation: angle }, { x: 0, y: side * (thickness / 2 + WITHIN) });
}

/** The widest way between two of some places: how wide it is and where it is narrowest. Null: there is none. */
function widest(
  room: DerivedRoom,
  starts: readonly Vec2[],
  edges: readonly Edge[],
  free: (p: Vec2) => boolean,
): (i: number, j: number) => { width: number; at: Vec2 } | null {
  const { x0, y0, x1, y1 } = boxOf(room.region.outer);
  const [nx, ny] = [Math.ceil((x1 - x0) / PITCH) + 1, Math.ceil((y1 - y0) / PITCH) + 1];
  const point = (k: number): Vec2 => ({ x: x0 + (k % nx) * PITCH, y: y0 + Math.floor(k / nx) * PITCH });
  const off = new Float64Array(nx * ny).fill(-1);
  for (let k = 0; k < off.length; k++) {
    const p = point(k);
    if (!free(p)) continue;
    let least = Infinity;
    for (const { a, b } of edges) least = Math.min(least, segmentDistance(p, a, b));
    off[k] = least;
  }
  // A place takes the cell near it that is farthest off everything: one goes round a chair beside a door.
  const cells = starts.map((s) => {
    let best = -1;
    for (let k = 0; k < off.length; k++) if (off[k] >= 0 && distance(point(k), s) < WITHIN && (best < 0 || off[k] > off[best])) best = k;
    return best;
  });
  const parent = new Int32Array(off.length).fill(-1);
  const find = (k: number): number => {
    let root = k;
    while (parent[root] !== root) root = parent[root];
    while (parent[k] !== root) [k, parent[k]] = [parent[k], root];
    return root;
  };
  const order = [...off.keys()].filter((k) => off[k] >= 0).sort((a, b) => off[b] - off[a]);
  const met = new Map<string, { width: number; at: Vec2 }>();
  /** Places whose cells have come together so far, by the root of their cells. */
  const held = new Map<number, number[]>();
  for (const k of order) {
    parent[k] = k;
    const own = cells.flatMap((c, i) => (c === k ? [i] : []));
    held.set(k, own);
    for (let i = 0; i < own.length; i++) for (const j of own.slice(i + 1)) met.set(`${own[i]} ${j}`, { width: off[k] * 2, at: point(k) });
    const [x, y] = [k % nx, Math.floor(k / nx)];
    for (const [dx, dy] of NEIGHBOURS) {
      const [u, v] = [x + dx, y + dy];
      if (u < 0 || v < 0 || u >= nx || v >= ny) continue;
      const n = v * nx + u;
      if (parent[n] < 0) continue;
      const [a, b] = [find(k), find(n)];
      if (a === b) continue;
      for (const i of held.get(a)!) for (const j of held.get(b)!) met.set([Math.min(i, j), Math.max(i, j)].join(' '), { width: off[k] * 2, at: point(k) });
      parent[b] = a;
      held.set(a, [...held.get(a)!, ...held.get(b)!]);
      held.delete(b);
    }
  }
  return (i, j) => met.get(`${Math.min(i, j)} ${Math.max(i, j)}`) ?? null;
}
