import { addressOf, type Target } from '../../project/targets';
import { type Mesh, meshArea } from '../../geometry/mesh';
import { totalArea } from '../../geometry/polygon';
import type { Region } from '../../geometry/region';
import { distance, left, lerp, rotate, scale, sub, unit, type Vec2, type Vec3 } from '../../geometry/vec';
import type { Frame } from '../../finishes/laying/place';
import type { Level, Project } from '../../project/schema';
import type { DerivedRoom } from '../model';
import { BARE } from '../../project/kinds/first-finishes';
import type { DerivedWall, WallSide } from '../wall-types';
import { faceS } from '../wall-face';
import type { Face } from './dressed';
import { DUST, HAIR, NEAR } from '../../units/tolerance';

/** Where a point of a face lies in space, so far in front of it. */
export function onFace(face: Face, p: Vec2, out = 0): Vec3 {
  if (!face.side) return { x: p.x, y: p.y, z: face.z + (face.kind === 'ceiling' ? -out : out) };
  const { side } = face;
  const s = faceS(side, p.x);
  const { path } = side;
  let i = 1;
  while (i < path.length - 1 && s > path[i].s) i++;
  const [a, b] = [path[i - 1], path[i]];
  const q = lerp(a.p, b.p, b.s - a.s < DUST ? 0 : (s - a.s) / (b.s - a.s));
  const n = scale(left(unit(sub(b.p, a.p))), side.side === 'left' ? out : -out);
  return { x: q.x + n.x, y: q.y + n.y, z: face.z + p.y };
}

/** Direction away from a face at a point of it. */
export function outOf(face: Face, x: number): Vec3 {
  if (!face.side) return { x: 0, y: 0, z: face.kind === 'ceiling' ? -1 : 1 };
  const [p, q] = [onFace(face, { x, y: 0 }, 0), onFace(face, { x, y: 0 }, 1)];
  return { x: q.x - p.x, y: q.y - p.y, z: 0 };
}

/** The walls of a room in the order one sees them, turning to the right: chains that end where nothing is built. */
export function wallsRound(sides: readonly WallSide[]): { chain: WallSide[]; closed: boolean }[] {
  const ends = (s: WallSide): [Vec2, Vec2] => (s.side === 'left' ? [s.to, s.from] : [s.from, s.to]);
  const open = new Set(sides.filter((s) => s.length > NEAR));
  const chains: { chain: WallSide[]; closed: boolean }[] = [];
  while (open.size) {
    // Begun with a side that nothing leads to, or else with the longest.
    const first =
      [...open].find((s) => ![...open].some((o) => o !== s && distance(ends(o)[1], ends(s)[0]) < HAIR)) ??
      [...open].reduce((a, b) => (b.length > a.length + NEAR ? b : a));
    const chain = [first];
    open.delete(first);
    for (;;) {
      const end = ends(chain[chain.length - 1])[1];
      const next = [...open].find((s) => distance(ends(s)[0], end) < HAIR);
      if (!next) break;
      chain.push(next);
      open.delete(next);
    }
    chains.push({ chain, closed: chain.length > 1 && distance(ends(chain[0])[0], ends(chain[chain.length - 1])[1]) < HAIR });
  }
  return chains;
}

/** The rectangle round regions in axes turned with the longest edge of the first one. */
function frameAlong(regions: readonly Region[]): Frame {
  let best = { length: 0, angle: 0 };
  for (const { outer } of regions.slice(0, 1))
    outer.forEach((a, i) => {
      const b = outer[(i + 1) % outer.length];
      const l = distance(a, b);
      if (l > best.length + NEAR) best = { length: l, angle: Math.atan2(b.y - a.y, b.x - a.x) };
    });
  // The same line whichever way it is walked along.
  const angle = best.angle > Math.PI / 2 + DUST ? best.angle - Math.PI : best.angle <= -Math.PI / 2 + DUST ? best.angle + Math.PI : best.angle;
  const clean = Math.abs(angle) < DUST ? 0 : angle;
  const points = regions.flatMap((r) => r.outer).map((p) => rotate(p, -clean));
  return {
    angle: clean,
    x0: Math.min(...points.map((p) => p.x)),
    y0: Math.min(...points.map((p) => p.y)),
    x1: Math.max(...points.map((p) => p.x)),
    y1: Math.max(...points.map((p) => p.y)),
  };
}

/** What has been chosen for a side of a wall; null: nothing. */
export function chosenForSide(project: Project, side: Pick<WallSide, 'key' | 'room'>): string | null {
  const owner = side.room ? project.rooms[side.room] : project.outside;
  return owner.faces[side.key] ?? owner.walls;
}

function wallFace(project: Project, level: Level, side: WallSide, carried: number): Face {
  const target: Target = { kind: 'wall', room: side.room, wall: side.wall, side: side.side };
  const chosen = chosenForSide(project, side);
  return {
    address: addressOf(target),
    target,
    kind: 'wall',
    room: side.room,
    level: level.id,
    side,
    regions: side.regions,
    area: totalArea(side.regions) * side.bow.stretch,
    frame: { angle: 0, x0: 0, y0: side.foot, x1: side.length, y1: side.height },
    finish: chosen ?? (side.outdoors ? BARE.outside : BARE.wall),
    chosen: chosen !== null,
    carried,
    z: level.elevation,
  };
}

/** The faces of a room: its walls, turning to the right, its floor and its ceiling. */
export function facesOfRoom(project: Project, level: Level, room: DerivedRoom, meshOf: (kind: 'floor' | 'ceiling') => Mesh | undefined): Face[] {
  const faces: Face[] = [];
  for (const { chain } of wallsRound(room.sides)) {
    let carried = 0;
    for (const side of chain) {
      faces.push(wallFace(project, level, side, carried));
      carried += side.length;
    }
  }
  for (const kind of ['floor', 'ceiling'] as const) {
    if (kind === 'ceiling' && !room.covered) continue;
    const target: Target = { kind, room: room.id };
    const regions = kind === 'floor' ? room.floor : room.ceiling;
    if (!regions.length) continue;
    const mesh = meshOf(kind);
    const chosen = room.room[kind];
    faces.push({
      address: addressOf(target),
      target,
      kind,
      room: room.id,
      level: level.id,
      side: null,
      regions,
      area: (kind === 'ceiling' && mesh ? meshArea(mesh) : totalArea(regions)) + room.bowed,
      frame: frameAlong(regions),
      finish: chosen ?? BARE[kind],
      chosen: chosen !== null,
      carried: 0,
      z: level.elevation + (kind === 'floor' ? room.room.step : room.room.step + room.height),
    });
  }
  return faces;
}

/** The faces of a wall that no room sees. */
export const outerFaces = (project: Project, level: Level, wall: DerivedWall): Face[] =>
  wall.sides.filter((side) => side.room === null && side.length > NEAR).map((side) => wallFace(project, level, side, 0));
