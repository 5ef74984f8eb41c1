import type { Arrangement } from '../geometry/arrangement';
import { MeshBuilder, type Mesh } from '../geometry/mesh';
import { boolean, type Region } from '../geometry/polygon';
import { COINCIDENT, distance, dot, lerp, sub, unit, type Vec2, type Vec3 } from '../geometry/vec';
import { wallHeight } from '../project/openings';
import { sideKey, type Opening, type Project, type Room, type Side, type Wall } from '../project/schema';
import type { JoinedPlan } from './junctions';

/** One stretch of a wall's face, as one room (or the outside) sees it. */
export interface WallSide {
  key: string;
  wall: string;
  side: Side;
  /** The room it belongs to; null outside. */
  room: string | null;
  /** Its ends in the plan, from the start towards the end of the wall. */
  from: Vec2;
  to: Vec2;
  /** The same ends as distances along the wall's centre line. */
  s0: number;
  s1: number;
  height: number;
  /** Its surface, openings taken off, m². */
  area: number;
  openings: string[];
}

export interface DerivedWall {
  id: string;
  wall: Wall;
  /** Footprints of its pieces between junctions. */
  rings: Vec2[][];
  sides: WallSide[];
  height: number;
  /** Vertical faces of each side, in the order of `sides`. */
  faces: Mesh[];
  /** The cut upper side, and ends that stand above lower neighbours. */
  top: Mesh;
}

/** Gathers the pieces of each wall into continuous stretches per side and room. */
export function wallSides(project: Project, arrangement: Arrangement, joined: JoinedPlan, roomOfFace: Map<number, Room>): Map<string, WallSide[]> {
  const faceOf = new Map<number, number>();
  arrangement.faces.forEach((face, f) => {
    for (const cycle of [face.outer, ...face.inner]) for (const e of cycle.edges) faceOf.set(e.piece * 2 + (e.forward ? 0 : 1), f);
  });
  const byWall = new Map<string, WallSide[]>();
  const openingsOf = groupOpenings(project);
  for (const side of ['left', 'right'] as const) {
    const last = new Map<string, WallSide>();
    for (const piece of arrangement.pieces) {
      const wall = project.walls[piece.line];
      const a = project.corners[wall.start];
      const axis = unit(sub(project.corners[wall.end], a));
      const face = faceOf.get(piece.index * 2 + (side === 'left' ? 0 : 1));
      const room = face === undefined ? null : (roomOfFace.get(face)?.id ?? null);
      const [from, to] = joined.pieces[piece.index][side];
      const previous = last.get(wall.id);
      const s1 = dot(sub(to, a), axis);
      if (previous && previous.room === room && distance(previous.to, from) < COINCIDENT * 10) {
        previous.to = to;
        previous.s1 = s1;
        continue;
      }
      const next: WallSide = {
        key: sideKey(wall.id, side),
        wall: wall.id,
        side,
        room,
        from,
        to,
        s0: dot(sub(from, a), axis),
        s1,
        height: wallHeight(project, wall),
        area: 0,
        openings: [],
      };
      last.set(wall.id, next);
      byWall.set(wall.id, [...(byWall.get(wall.id) ?? []), next]);
    }
  }
  for (const [wall, stretches] of byWall) {
    // Between crowded junctions nothing may be left of a side.
    const sides = stretches.filter((side) => side.s1 - side.s0 > COINCIDENT);
    byWall.set(wall, sides);
    for (const side of sides) {
      const standing = (openingsOf.get(wall) ?? []).filter((o) => o.at > side.s0 && o.at < side.s1);
      side.openings = standing.map((o) => o.id);
      side.area = (side.s1 - side.s0) * side.height - standing.reduce((sum, o) => sum + o.width * o.height, 0);
    }
  }
  return byWall;
}

export function groupOpenings(project: Project): Map<string, Opening[]> {
  const groups = new Map<string, Opening[]>();
  for (const o of Object.values(project.openings)) groups.set(o.wall, [...(groups.get(o.wall) ?? []), o]);
  return groups;
}

/** A face of a wall in its own plane (x along, y up) with its openings cut out. */
export function sideRegion(side: WallSide, openings: readonly Opening[]): Region[] {
  const rectangle = (x0: number, y0: number, x1: number, y1: number): Region => ({
    outer: [
      { x: x0, y: y0 },
      { x: x1, y: y0 },
      { x: x1, y: y1 },
      { x: x0, y: y1 },
    ],
    holes: [],
  });
  const whole = rectangle(side.s0, 0, side.s1, side.height);
  const cuts = openings
    .filter((o) => side.openings.includes(o.id))
    .map((o) => ({ x0: o.at - o.width / 2, x1: o.at + o.width / 2, y0: o.sill, y1: o.sill + o.height }))
    .sort((p, q) => p.x0 - q.x0);
  // The usual case needs no clipping: openings side by side, clear of the ends and the top; doors notch the foot.
  const plain = cuts.every((c, i) => c.x0 > side.s0 && c.x1 < side.s1 && c.y1 < side.height && (i === 0 || cuts[i - 1].x1 < c.x0));
  if (!plain)
    return boolean(
      'difference',
      [whole],
      cuts.map((c) => rectangle(c.x0, c.y0, c.x1, c.y1)),
    );
  const foot = cuts.filter((c) => c.y0 <= 0);
  const outer: Vec2[] = [{ x: side.s0, y: 0 }];
  for (const { x0, x1, y1 } of foot) outer.push({ x: x0, y: 0 }, { x: x0, y: y1 }, { x: x1, y: y1 }, { x: x1, y: 0 });
  outer.push({ x: side.s1, y: 0 }, { x: side.s1, y: side.height }, { x: side.s0, y: side.height });
  return [{ outer, holes: cuts.filter((c) => c.y0 > 0).map((c) => rectangle(c.x0, c.y0, c.x1, c.y1).outer.reverse()) }];
}

/**
 * The faces of a wall as meshes in the level's own height (floor at 0). Texture coordinates run along the wall from
 * its start and up from the floor, in metres, so that a pattern goes on across openings.
 */
export function wallMeshes(
  project: Project,
  wall: Wall,
  sides: WallSide[],
  openings: readonly Opening[],
  rings: Vec2[][],
  ends: { point: Vec2; free: boolean; lowest: number }[],
): Pick<DerivedWall, 'faces' | 'top'> {
  const a = project.corners[wall.start];
  const b = project.corners[wall.end];
  const axis = unit(sub(b, a));
  const normal = { x: -axis.y, y: axis.x };
  const height = wallHeight(project, wall);
  const half = wall.thickness / 2;
  const faces = sides.map((side) => {
    const builder = new MeshBuilder();
    const out = side.side === 'left' ? 1 : -1;
    const n: Vec3 = { x: normal.x * out, y: normal.y * out, z: 0 };
    const length = side.s1 - side.s0;
    const place = (p: Vec2): Vec3 => {
      const q = lerp(side.from, side.to, length ? (p.x - side.s0) / length : 0);
      return { x: q.x, y: q.y, z: p.y };
    };
    // Seen from the left side the wall's direction runs to the left, so the region is turned over.
    for (const region of sideRegion(side, openings)) builder.region(region, place, n, out > 0);
    for (const o of openings) {
      if (!side.openings.includes(o.id)) continue;
      addReveal(builder, o, { a, axis, normal, half, out });
    }
    for (const end of ends) {
      const atStart = distance(end.point, a) < distance(end.point, b);
      if (!end.free || side.side !== 'left' || Math.abs((atStart ? side.s0 : side.s1) - dot(sub(end.point, a), axis)) > 1e-6) continue;
      const l = { x: end.point.x + normal.x * half, y: end.point.y + normal.y * half };
      const r = { x: end.point.x - normal.x * half, y: end.point.y - normal.y * half };
      const [p, q] = atStart ? [l, r] : [r, l];
      builder.quad({ ...p, z: 0 }, { ...q, z: 0 }, { ...q, z: height }, { ...p, z: height });
    }
    return builder.build();
  });
  const top = new MeshBuilder();
  for (const ring of rings) if (ring.length > 2) top.region({ outer: ring, holes: [] }, (p) => ({ ...p, z: height }), { x: 0, y: 0, z: 1 });
  for (const end of ends) {
    if (end.free || end.lowest >= height - 1e-6) continue;
    const d = distance(end.point, a) < distance(end.point, b) ? -1 : 1;
    const l = { x: end.point.x + normal.x * half, y: end.point.y + normal.y * half };
    const r = { x: end.point.x - normal.x * half, y: end.point.y - normal.y * half };
    const [p, q] = d > 0 ? [r, l] : [l, r];
    top.quad({ ...p, z: end.lowest }, { ...q, z: end.lowest }, { ...q, z: height }, { ...p, z: height });
  }
  return { faces, top: top.build() };
}

/** The half of an opening's reveal that belongs to one side of the wall: jambs, head and foot. */
function addReveal(builder: MeshBuilder, o: Opening, { a, axis, normal, half, out }: { a: Vec2; axis: Vec2; normal: Vec2; half: number; out: number }): void {
  const at = (s: number, y: number, z: number): Vec3 => ({ x: a.x + axis.x * s + normal.x * y, y: a.y + axis.y * s + normal.y * y, z });
  const [s0, s1, z0, z1] = [o.at - o.width / 2, o.at + o.width / 2, o.sill, o.sill + o.height];
  const [inner, outer] = out > 0 ? [0, half] : [-half, 0];
  builder.quad(at(s0, outer, z0), at(s0, inner, z0), at(s0, inner, z1), at(s0, outer, z1));
  builder.quad(at(s1, inner, z0), at(s1, outer, z0), at(s1, outer, z1), at(s1, inner, z1));
  builder.quad(at(s0, outer, z1), at(s0, inner, z1), at(s1, inner, z1), at(s1, outer, z1));
  builder.quad(at(s0, inner, z0), at(s0, outer, z0), at(s1, outer, z0), at(s1, inner, z0));
}

/** The ends of a wall with what meets it there. */
export function wallEndings(project: Project, arrangement: Arrangement): Map<string, { point: Vec2; free: boolean; lowest: number }[]> {
  const found = new Map<string, { point: Vec2; free: boolean; lowest: number }[]>();
  arrangement.fans.forEach((fan, n) => {
    const heights = fan.map((e) => wallHeight(project, project.walls[arrangement.pieces[e.piece].line]));
    const seen = new Set<string>();
    fan.forEach((e) => {
      const id = arrangement.pieces[e.piece].line;
      if (seen.has(id)) return;
      seen.add(id);
      // A wall that runs through a junction has no end there.
      if (fan.filter((o) => arrangement.pieces[o.piece].line === id).length > 1) return;
      const lowest = fan.length > 1 ? Math.min(...heights.filter((_, i) => arrangement.pieces[fan[i].piece].line !== id)) : 0;
      found.set(id, [...(found.get(id) ?? []), { point: arrangement.nodes[n], free: fan.length === 1, lowest }]);
    });
  });
  return found;
}
