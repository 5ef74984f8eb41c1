import type { Draft } from 'immer';
import { insideRegion } from '../geometry/polygon';
import type { Region } from '../geometry/region';
import { distance, dot, type Vec2 } from '../geometry/vec';
import { DomainError } from './errors';
import { clearSpans, fitOpening, openingStation } from './openings';
import { inPhase } from './phase';
import type { Opening, Project } from './schema';
import { faceAt, faceRegion, faceSides, planOf, roomsByFace, stateOf } from './topology';
import { stationNear, wallEnds, wallPath } from './wall-line';
import { wallAngle } from './walls';
import { carryPoint, carryThings, type Carry } from './thing-carry';
import { TOUCH } from '../units/tolerance';

export type RoomCarry = 'mirror-x' | 'mirror-y' | 'half-turn' | 'quarter-turn';

/**
 * Mirrors or turns a room with all that stands in it. Walls that no other room shares go along; where the outline
 * comes to lie on itself, its walls stay and the doors, windows and niches in them change places instead. Pieces and
 * columns keep the side of the wall they stood at.
 *
 * @throws DomainError `room.carry…` where an opening finds no room at its new place
 */
export function carryRoom(draft: Draft<Project>, roomId: string, how: RoomCarry, newId: (prefix: string) => string): void {
  const project = inPhase(
    {
      ...stateOf(draft as Project),
      walls: stateOf(draft.walls),
      corners: stateOf(draft.corners),
      rooms: stateOf(draft.rooms),
      openings: stateOf(draft.openings),
    } as Project,
    'after',
  );
  const room = project.rooms[roomId];
  const { arrangement } = planOf(project, room.level);
  const at = faceAt(arrangement, room.anchor);
  if (at < 0) throw new DomainError('room.carry-open', 'The room was not changed: it has no closed outline.', [roomId]);
  const face = arrangement.faces[at];
  const region = faceRegion(face);
  const keys = faceSides(arrangement, face);
  const walls = [...new Set([...keys.keys()].map((key) => key.split('/')[0]))];
  // The longest wall gives the room its axes.
  const longest = walls.reduce((a, b) => (distance(...wallEnds(project, project.walls[a])) >= distance(...wallEnds(project, project.walls[b])) ? a : b));
  const angle =
    Math.round(wallAngle(project, project.walls[longest]) / (Math.PI / 2)) === 0 ? wallAngle(project, project.walls[longest]) : axisAngle(project, longest);
  const carry: Carry = {
    about: middle(region, angle),
    turn: how === 'half-turn' ? Math.PI : how === 'quarter-turn' ? Math.PI / 2 : 0,
    mirror: how === 'mirror-x' ? angle + Math.PI / 2 : how === 'mirror-y' ? angle : null,
    by: { x: 0, y: 0 },
  };
  const lands = region.outer.every((p) => region.outer.some((q) => distance(carryPoint(carry, p), q) < TOUCH));
  const inside = (p: Vec2): boolean => insideRegion(p, region);
  const things = [
    ...Object.values(project.pieces).filter((p) => p.level === room.level && inside(p)),
    ...[...Object.values(project.columns), ...Object.values(project.rooflights)].filter((c) => c.level === room.level && inside(c)),
  ];
  if (!lands) {
    const rooms = roomsByFace(project, room.level);
    const shared = walls.filter((id) =>
      [...rooms].some(([f, other]) => other.id !== roomId && [...faceSides(arrangement, arrangement.faces[f]).keys()].some((k) => k.startsWith(`${id}/`))),
    );
    if (shared.length)
      throw new DomainError(
        'room.carry-shared',
        'The room was not changed: its outline would not fall on itself, and other rooms share its walls; mirror it the other way or turn it by half.',
        [roomId, ...shared],
      );
    carryThings(draft, [...walls, ...things.map((t) => t.id)], carry, false, newId);
    draft.rooms[roomId].anchor = carryPoint(carry, room.anchor);
    return;
  }
  // Free-standing walls inside go along; the outline stays.
  const both = walls.filter((id) => keys.has(`${id}/left`) && keys.has(`${id}/right`));
  carryThings(draft, [...both, ...things.map((t) => t.id)], carry, false, newId);
  for (const opening of Object.values(project.openings)) {
    if (!walls.includes(opening.wall) || both.includes(opening.wall)) continue;
    Object.assign(draft.openings[opening.id], carryOpening(project, opening, walls, carry));
  }
}

/** The angle of a wall brought to within a quarter turn. */
function axisAngle(project: Project, wall: string): number {
  const angle = wallAngle(project, project.walls[wall]);
  return angle - Math.round(angle / (Math.PI / 2)) * (Math.PI / 2);
}

/** The middle of a region's extent along its axes. */
function middle(region: Region, angle: number): Vec2 {
  const [u, v] = [
    { x: Math.cos(angle), y: Math.sin(angle) },
    { x: -Math.sin(angle), y: Math.cos(angle) },
  ];
  const extent = (d: Vec2): number => {
    const list = region.outer.map((p) => dot(p, d));
    return (Math.min(...list) + Math.max(...list)) / 2;
  };
  const [a, b] = [extent(u), extent(v)];
  return { x: u.x * a + v.x * b, y: u.y * a + v.y * b };
}

/** Where an opening of an outline that falls on itself comes to stand: in which wall, at which place, and which way it opens. */
function carryOpening(project: Project, o: Opening, walls: readonly string[], carry: Carry): Partial<Opening> {
  const station = openingStation(project, o);
  const target = carryPoint(carry, station.p);
  const heading = Math.atan2(station.d.y, station.d.x);
  const facing = (carry.mirror === null ? heading : 2 * carry.mirror - heading) + carry.turn;
  let best: { wall: string; s: number; away: number } | null = null;
  for (const wall of walls) {
    const near = stationNear(wallPath(project, project.walls[wall]), target);
    if (!best || near.distance < best.away) best = { wall, s: near.s, away: near.distance };
  }
  const wall = project.walls[best!.wall];
  const fit = fitOpening(clearSpans(project, wall, o.status), best!.s, o.width);
  if (!fit)
    throw new DomainError('room.carry-opening', `The room was not changed: ${o.name} would not fit in the wall it comes to stand in; move it first.`, [
      o.id,
      wall.id,
    ]);
  // Seen along the new wall: whether it runs the way the carried one did, and whether its left is still the left.
  const along = Math.cos(facing - wallAngle(project, wall)) > 0;
  const turned = carry.mirror !== null ? along : !along;
  return {
    wall: wall.id,
    at: Math.round(fit.at * 1e9) / 1e9,
    place: { kind: 'free' },
    hinge: along ? o.hinge : o.hinge === 'start' ? 'end' : 'start',
    swing: turned ? (o.swing === 'left' ? 'right' : 'left') : o.swing,
  };
}
