import { derivedOf, type Model } from '../model/model';
import { insideRegion, insideRing } from '../geometry/polygon';
import type { Region, Ring } from '../geometry/region';
import { add, cross, distance, dot, length, lerp, scale, segmentDistance, sub, unit, type Vec2, type Vec3 } from '../geometry/vec';
import { holesIn } from '../project/stairs';
import { groundHeight } from '../shell/ground';
import { stairFloors } from '../shell/stairs';
import { DUST, NEAR, NIL } from '../units/tolerance';

/** How one walks: half the width of the shoulders, the highest step up, the deepest step down. Metres. */
export const WALKER = { radius: 0.22, up: 0.3, down: 0.42, eye: 1.6, seated: 1.2 } as const;

/** Something one can stand on. */
interface Floor {
  region: Region;
  /** Its extent in the plan, to leave it out quickly. */
  box: [number, number, number, number];
  z(p: Vec2): number;
}

/** Something one cannot pass, between two heights of the world. */
interface Barrier {
  a: Vec2;
  b: Vec2;
  low: number;
  high: number;
}

/** Where one can stand and what stops one: floors, steps and the ground; walls but for the ways through them, and columns. */
export interface WalkMap {
  floors: Floor[];
  barriers: Barrier[];
  ground(p: Vec2): number;
}

const boxOf = (ring: Ring): [number, number, number, number] => {
  const xs = ring.map((p) => p.x);
  const ys = ring.map((p) => p.y);
  return [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)];
};

/** The ways through walls and what stops one, of a model as it is shown. */
export function walkMap(model: Model): WalkMap {
  const floors: Floor[] = [];
  const barriers: Barrier[] = [];
  const { project } = model.shell;
  const flat = (region: Region, z: number): void => void floors.push({ region, box: boxOf(region.outer), z: () => z });
  for (const level of model.shell.levels) {
    const base = level.level.elevation;
    const holes = holesIn(project, level.id);
    // One stands on the whole of a level, also in its doorways; rooms may lie higher or lower.
    for (const outline of level.joined.outline) {
      const region = { outer: outline.outer, holes: [] };
      floors.push({ region: holes.length ? { outer: outline.outer, holes: holes.map((h) => h.outer) } : region, box: boxOf(outline.outer), z: () => base });
    }
    for (const { region, room } of level.rooms)
      if (room.step > 0) flat(holes.length ? { outer: region.outer, holes: [...region.holes, ...holes.map((h) => h.outer)] } : region, base + room.step);
    for (const stair of level.stairs) for (const { region, z } of stairFloors(stair)) flat(region, base + stair.stair.z + z);
    for (const { ring, slab } of level.slabs) flat({ outer: ring, holes: [] }, base + slab.z);
    for (const wall of level.walls) {
      if (wall.wall.kind !== 'wall') continue;
      const ways = Object.values(project.openings)
        .filter((o) => o.wall === wall.id && (o.kind === 'door' || o.kind === 'passage') && o.sill < 0.25 && o.sill + o.height > 1.7)
        .map((o) => [o.at - o.width / 2 + 0.03, o.at + o.width / 2 - 0.03] as const);
      const [low, high] = [base + wall.foot, base + Math.max(wall.height, wall.foot + 0.4)];
      for (const side of wall.sides)
        for (let i = 0; i + 1 < side.path.length; i++) {
          const [p, q] = [side.path[i], side.path[i + 1]];
          for (const [from, to] of without([p.s, q.s], ways)) {
            const at = (s: number): Vec2 => lerp(p.p, q.p, (s - p.s) / (q.s - p.s || 1));
            barriers.push({ a: at(from), b: at(to), low, high });
          }
        }
      // Across the wall beside every way, so that one does not walk into its thickness.
      for (const way of ways)
        for (const s of way) {
          const ends = (['left', 'right'] as const).map((k) => wall.sides.filter((x) => x.side === k).flatMap((x) => x.path));
          const [l, r] = ends.map((path) => nearest(path, s));
          if (l && r) barriers.push({ a: l, b: r, low, high });
        }
    }
    for (const { ring, height } of derivedOf(model, 'columns', level.id))
      ring.forEach((a, i) => barriers.push({ a, b: ring[(i + 1) % ring.length], low: base, high: base + height }));
  }
  for (const { rings, fence } of derivedOf(model, 'fences')) {
    for (const ring of rings) {
      const z = groundHeight(project, ring[0]) + fence.z;
      ring.forEach((a, i) => barriers.push({ a, b: ring[(i + 1) % ring.length], low: z, high: z + fence.height }));
    }
  }
  // Water is not walked on.
  for (const { ring, own } of derivedOf(model, 'grounds'))
    if (own.kind === 'water' || own.kind === 'pool') {
      const z = project.site.ground;
      ring.forEach((a, i) => barriers.push({ a, b: ring[(i + 1) % ring.length], low: z - 1, high: z + 1 }));
    }
  return { floors, barriers, ground: (p) => groundHeight(project, p) };
}

/** A stretch without some others. */
function without([from, to]: readonly [number, number], gaps: readonly (readonly [number, number])[]): [number, number][] {
  let rest: [number, number][] = [[Math.min(from, to), Math.max(from, to)]];
  for (const [a, b] of gaps)
    rest = rest.flatMap(([p, q]): [number, number][] => {
      const parts: [number, number][] = [
        [p, Math.min(q, a)],
        [Math.max(p, b), q],
      ];
      return b <= p || a >= q ? [[p, q]] : parts.filter(([s, t]) => t - s > NEAR);
    });
  return rest;
}

function nearest(path: readonly { p: Vec2; s: number }[], s: number): Vec2 | null {
  let best: Vec2 | null = null;
  let least = Infinity;
  for (let i = 0; i + 1 < path.length; i++) {
    const [a, b] = [path[i], path[i + 1]];
    const [lo, hi] = [Math.min(a.s, b.s), Math.max(a.s, b.s)];
    const off = s < lo ? lo - s : s > hi ? s - hi : 0;
    if (off >= least) continue;
    least = off;
    best = lerp(a.p, b.p, Math.max(0, Math.min(1, (s - a.s) / (b.s - a.s || 1))));
  }
  return least < 0.05 ? best : null;
}

/** Height of what one would stand on at a point, coming from a height; null where it is too high to step up or too deep to step down. */
export function footing(map: WalkMap, p: Vec2, from: number): number | null {
  let best: number | null = null;
  const take = (z: number): void => {
    if (z <= from + WALKER.up && z >= from - WALKER.down && (best === null || z > best)) best = z;
  };
  for (const floor of map.floors) {
    const [x0, y0, x1, y1] = floor.box;
    if (p.x < x0 || p.x > x1 || p.y < y0 || p.y > y1 || !insideRegion(p, floor.region)) continue;
    take(floor.z(p));
  }
  take(map.ground(p));
  return best;
}

/** What stands in the way at a height of the feet. */
const inWay = (b: Barrier, z: number): boolean => b.high > z + WALKER.up && b.low < z + 1.7;

/**
 * Where one comes to who walks so far from a point: along walls rather than into them, up and down steps, never over an
 * edge that is too deep. The way is taken in short pieces, so that nothing is stepped over.
 *
 * @param at feet, in the world
 */
export function walk(map: WalkMap, at: Vec3, by: Vec2): Vec3 {
  const total = length(by);
  const pieces = Math.max(1, Math.ceil(total / 0.08));
  let p = at;
  for (let i = 0; i < pieces; i++) {
    const next = stepTo(map, p, scale(by, 1 / pieces));
    if (distance(next, p) < NEAR) break;
    p = next;
  }
  return p;
}

function stepTo(map: WalkMap, at: Vec3, by: Vec2): Vec3 {
  const near = map.barriers.filter((b) => inWay(b, at.z) && segmentDistance(at, b.a, b.b) < WALKER.radius + length(by) + 0.02);
  let p: Vec2 = add(at, by);
  for (let k = 0; k < 4; k++) {
    let pushed = false;
    for (const { a, b } of near) {
      const d = segmentDistance(p, a, b);
      if (d >= WALKER.radius - DUST) continue;
      // Out to the side one comes from.
      const foot = closest(p, a, b);
      const side = unit(sub(at, closest(at, a, b)));
      const away = d > NEAR && dot(sub(p, foot), side) > 0 ? unit(sub(p, foot)) : side;
      p = add(foot, scale(away, WALKER.radius));
      pushed = true;
    }
    if (!pushed) break;
  }
  if (near.some(({ a, b }) => segmentDistance(p, a, b) < WALKER.radius * 0.9 || crosses(at, p, a, b))) return at;
  const z = footing(map, p, at.z);
  if (z !== null) return { ...p, z };
  // Over an edge one does not go, but along it.
  for (const axis of [
    { x: by.x, y: 0 },
    { x: 0, y: by.y },
  ]) {
    if (length(axis) < NEAR || (axis.x === by.x && axis.y === by.y)) continue;
    const q = add(at, axis);
    if (near.some(({ a, b }) => segmentDistance(q, a, b) < WALKER.radius * 0.9 || crosses(at, q, a, b))) continue;
    const h = footing(map, q, at.z);
    if (h !== null) return { ...q, z: h };
  }
  return at;
}

function closest(p: Vec2, a: Vec2, b: Vec2): Vec2 {
  const d = sub(b, a);
  const l2 = dot(d, d);
  return l2 < NIL ? a : add(a, scale(d, Math.max(0, Math.min(1, dot(sub(p, a), d) / l2))));
}

function crosses(p: Vec2, q: Vec2, a: Vec2, b: Vec2): boolean {
  const side = (r: Vec2, s: Vec2, t: Vec2): number => cross(sub(s, r), sub(t, r));
  return side(p, q, a) * side(p, q, b) < 0 && side(a, b, p) * side(a, b, q) < 0;
}

/** A place to begin: the middle of a room, or in front of the house where there is none. */
export function startOf(model: Model, room: string | null, level: string): Vec3 {
  const own = room ? model.shell.rooms.get(room) : model.shell.levels.find((l) => l.id === level)?.rooms[0];
  if (own) {
    const elevation = model.project.levels[own.room.level].elevation;
    return { ...clearOf(model, own.label, own.room.level), z: elevation + own.room.step };
  }
  return { x: 0, y: -4, z: model.project.site.ground };
}

/** A point near another one that no piece of furniture stands on. */
function clearOf(model: Model, p: Vec2, level: string): Vec2 {
  const taken = model.pieces.filter((q) => q.piece.level === level && q.item?.mount !== 'ceiling' && q.piece.size.height > 0.1);
  const free = (q: Vec2): boolean => !taken.some((t) => insideRing(q, t.footprint));
  if (free(p)) return p;
  for (let r = 0.3; r < 2; r += 0.3)
    for (let k = 0; k < 8; k++) {
      const q = add(p, { x: r * Math.cos((k * Math.PI) / 4), y: r * Math.sin((k * Math.PI) / 4) });
      if (free(q)) return q;
    }
  return p;
}
