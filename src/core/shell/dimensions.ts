import type { Cycle } from '../geometry/arrangement';
import { add, cross, distance, dot, left, scale, sub, unit, type Vec2 } from '../geometry/vec';
import type { CommandArgs } from '../project/commands';
import type { Project } from '../project/schema';
import { wallEnds } from '../project/wall-line';
import type { DerivedLevel, DerivedRoom } from './model';
import type { WallSide } from './wall-types';
import { DUST, HAIR, NEAR } from '../units/tolerance';

/** A length that can be typed over: from what bounds it at one end to what bounds it at the other. */
export interface Dimension {
  key: string;
  a: Vec2;
  b: Vec2;
  /** Metres. */
  value: number;
  /** The walls that give way at either end; null where nothing stands. */
  ends: [string | null, string | null];
  /** Further walls in line with those at the ends, which go with them. */
  runs?: [string[], string[]];
  /** The wall the length is measured along, whose free end gives way where there is no other. */
  along: string | null;
}

/** The wall a walk around a room comes to after (or before) a stretch of one side. */
function neighbour(level: DerivedLevel, side: WallSide, end: 'from' | 'to'): string | null {
  const { arrangement } = level.plan;
  const pieces = (arrangement.byLine.get(side.wall) ?? []).filter((p) => p.s1 > side.s0 + NEAR && p.s0 < side.s1 - NEAR);
  if (!pieces.length) return null;
  const piece = end === 'to' ? pieces[pieces.length - 1] : pieces[0];
  const forward = side.side === 'left';
  const cycle: Cycle | undefined = arrangement.cycles[piece.index * 2 + (forward ? 0 : 1)];
  if (!cycle) return null;
  const at = cycle.edges.findIndex((e) => e.piece === piece.index && e.forward === forward);
  const on = (end === 'to') === forward ? 1 : -1;
  const next = cycle.edges[(at + on + cycle.edges.length) % cycle.edges.length];
  const line = arrangement.pieces[next.piece]!.line;
  return line === side.wall ? null : line;
}

/** The lengths of a wall's faces, between what meets them. */
export function wallDimensions(level: DerivedLevel, wallId: string): Dimension[] {
  const wall = level.walls.find((w) => w.id === wallId);
  if (!wall || wall.wall.bulge !== 0) return [];
  return wall.sides
    .filter((side) => side.s1 - side.s0 > 0.05)
    .map((side, i) => ({
      key: `${side.key}/${i}`,
      a: side.from,
      b: side.to,
      value: distance(side.from, side.to),
      ends: [neighbour(level, side, 'from'), neighbour(level, side, 'to')],
      along: wallId,
    }));
}

/** The inside width and depth of a room through its middle, along its longest wall and square to it. */
export function roomDimensions(room: DerivedRoom): Dimension[] {
  if (!room.sides.length) return [];
  const longest = room.sides.reduce((a, b) => (distance(a.from, a.to) >= distance(b.from, b.to) ? a : b));
  const u = unit(sub(longest.to, longest.from));
  const across = Math.abs(u.x) >= Math.abs(u.y) ? (u.x < 0 ? scale(u, -1) : u) : u.y > 0 ? { x: u.y, y: -u.x } : { x: -u.y, y: u.x };
  return [across, left(across)].flatMap((d, i): Dimension[] => {
    const [back, ahead] = [hit(room, scale(d, -1)), hit(room, d)];
    if (!back || !ahead) return [];
    return [
      { key: `${room.id}/${i === 0 ? 'width' : 'depth'}`, a: back.p, b: ahead.p, value: distance(back.p, ahead.p), ends: [back.wall, ahead.wall], along: null },
    ];
  });
}

/** The overall width and depth of a level along the plan axes, from outer face to outer face. */
export function overallDimensions(level: DerivedLevel): Dimension[] {
  const points = level.joined.outline.flatMap((r) => r.outer);
  if (points.length < 3 || !level.rooms.length) return [];
  let [x0, x1, y0, y1] = [Infinity, -Infinity, Infinity, -Infinity];
  for (const p of points) [x0, x1, y0, y1] = [Math.min(x0, p.x), Math.max(x1, p.x), Math.min(y0, p.y), Math.max(y1, p.y)];
  const at = (axis: 'x' | 'y', extreme: number): string[] =>
    level.walls
      .filter(({ wall, sides }) => {
        const face = sides.find((s) => Math.abs(s.from[axis] - extreme) < HAIR && Math.abs(s.to[axis] - extreme) < HAIR);
        return wall.bulge === 0 && face;
      })
      .map((w) => w.id);
  const make = (key: string, axis: 'x' | 'y', a: Vec2, b: Vec2): Dimension => {
    const [low, high] = [at(axis, a[axis]), at(axis, b[axis])];
    return { key: `overall/${key}`, a, b, value: b[axis] - a[axis], ends: [low[0] ?? null, high[0] ?? null], runs: [low.slice(1), high.slice(1)], along: null };
  };
  return [make('width', 'x', { x: x0, y: y0 }, { x: x1, y: y0 }), make('depth', 'y', { x: x0, y: y0 }, { x: x0, y: y1 })];
}

/** The first face a ray from a room's middle meets. */
function hit(room: DerivedRoom, d: Vec2): { p: Vec2; wall: string } | null {
  let best: { t: number; wall: string } | null = null;
  for (const side of room.sides) {
    const e = sub(side.to, side.from);
    const det = cross(d, e);
    if (Math.abs(det) < DUST) continue;
    const t = cross(sub(side.from, room.label), e) / det;
    const s = cross(sub(side.from, room.label), d) / det;
    if (t > 0 && s >= 0 && s <= 1 && (!best || t < best.t)) best = { t, wall: side.wall };
  }
  return best && { p: add(room.label, scale(d, best.t)), wall: best.wall };
}

/** What is said of the two ends of a dimension, as one sees them in the plan: which of them gives way. */
export function endWords({ a, b }: Pick<Dimension, 'a' | 'b'>): readonly [string, string] {
  const across = Math.abs(b.x - a.x) >= Math.abs(b.y - a.y);
  const first = across ? a.x < b.x : a.y < b.y;
  const [low, high] = across ? ['left', 'right'] : ['lower', 'upper'];
  const say = (word: string): string => `The ${word} end gives way`;
  return first ? [say(low), say(high)] : [say(high), say(low)];
}

/**
 * The edit that gives a dimension another length.
 *
 * @param end which end gives way
 * @returns null where nothing at that end can
 */
export function dimensionEdit(
  project: Project,
  dimension: Dimension,
  length: number,
  end: 0 | 1,
): { command: 'wall.move'; args: CommandArgs<'wall.move'> } | { command: 'wall.length'; args: CommandArgs<'wall.length'> } | null {
  const wall = dimension.ends[end];
  const outward = unit(end === 1 ? sub(dimension.b, dimension.a) : sub(dimension.a, dimension.b));
  if (wall && project.walls[wall]) {
    const [p, q] = wallEnds(project, project.walls[wall]);
    const n = left(unit(sub(q, p)));
    const share = dot(outward, n);
    if (Math.abs(share) < 0.05) return null;
    // Moved along the dimension, an oblique wall moves less square to itself.
    return { command: 'wall.move', args: { wall, run: dimension.runs?.[end] ?? [], offset: (length - dimension.value) * share } };
  }
  if (dimension.along) return { command: 'wall.length', args: { wall: dimension.along, length, measured: dimension.value, keep: end === 1 ? 'start' : 'end' } };
  return null;
}
