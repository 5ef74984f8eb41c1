import type { Draft } from 'immer';
import { insideRegion } from '../geometry/polygon';
import type { Arrangement, PlanFace } from '../geometry/arrangement';
import { add, cross, distance, dot, left, meet, scale, sub, unit, type Vec2 } from '../geometry/vec';
import { DomainError } from './errors';
import { hungAtOpening, turnHung } from './hanging';
import { clearSpans, fitOpening, openingStation } from './openings';
import { inPhase } from './phase';
import type { Opening, Project } from './schema';
import { faceAt, faceRegion, faceSides, planOf, roomsByFace, stateOf } from './topology';
import { stationNear, wallEnds, wallExtents, wallPath } from './wall-line';
import { wallAngle } from './walls';
import { carryPoint, carryThings, type Carry } from './thing-carry';
import { NEAR, TOUCH } from '../units/tolerance';

const WAYS = {
  'mirror-x': 'mirrored left–right',
  'mirror-y': 'mirrored front–back',
  'half-turn': 'turned by half',
  'quarter-turn': 'turned by a quarter',
} as const;
export type RoomCarry = keyof typeof WAYS;

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
  const sides = sidesOf(project, arrangement, face);
  const clear = clearRing(sides);
  const keys = faceSides(arrangement, face);
  const walls = [...new Set([...keys.keys()].map((key) => key.split('/')[0]))];
  // The longest wall gives the room its axes.
  const longest = walls.reduce((a, b) => (distance(...wallEnds(project, project.walls[a])) >= distance(...wallEnds(project, project.walls[b])) ? a : b));
  const angle =
    Math.round(wallAngle(project, project.walls[longest]) / (Math.PI / 2)) === 0 ? wallAngle(project, project.walls[longest]) : axisAngle(project, longest);
  const carryOf = (way: RoomCarry): Carry => ({
    about: middle(clear, angle),
    turn: way === 'half-turn' ? Math.PI : way === 'quarter-turn' ? Math.PI / 2 : 0,
    mirror: way === 'mirror-x' ? angle + Math.PI / 2 : way === 'mirror-y' ? angle : null,
    by: { x: 0, y: 0 },
  });
  const landing = (way: RoomCarry): boolean => {
    const own = carryOf(way);
    return clear.every((p) => clear.some((q) => distance(carryPoint(own, p), q) < TOUCH));
  };
  const carry = carryOf(how);
  const lands = landing(how);
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
    if (shared.length) {
      const ways = (Object.keys(WAYS) as RoomCarry[]).filter(landing).map((way) => WAYS[way]);
      const rest = ways.length ? `it can be ${ways.join(' or ')}` : 'its outline is another from every side';
      throw new DomainError('room.carry-shared', `The room was not changed: its outline would not fall on itself, and other rooms share its walls; ${rest}.`, [
        roomId,
        ...shared,
      ]);
    }
    carryThings(draft, [...walls, ...things.map((t) => t.id)], carry, false, newId);
    draft.rooms[roomId].anchor = carryPoint(carry, room.anchor);
    return;
  }
  // Free-standing walls inside go along; the outline stays.
  const both = walls.filter((id) => keys.has(`${id}/left`) && keys.has(`${id}/right`));
  // What hangs at an opening goes where that goes.
  const loose = things.filter((t) => !project.pieces[t.id]?.hangs);
  carryThings(draft, [...both, ...loose.map((t) => t.id)], carry, false, newId);
  for (const opening of Object.values(project.openings)) {
    if (both.includes(opening.wall)) continue;
    // A wall may go on past the room: what stands in it there stays.
    if (!sides.some((side) => side.wall === opening.wall && opening.at > side.s0 - NEAR && opening.at < side.s1 + NEAR)) continue;
    const { turned, ...values } = carryOpening(project, opening, walls, carry);
    Object.assign(draft.openings[opening.id], values);
    if (turned) turnHung(draft, opening.id);
    // What has a left and a right has them the other way round in a mirror.
    if (carry.mirror !== null)
      for (const { id } of hungAtOpening(draft.pieces as Project['pieces'], opening.id)) draft.pieces[id].mirrored = !draft.pieces[id].mirrored;
  }
}

/** The angle of a wall brought to within a quarter turn. */
function axisAngle(project: Project, wall: string): number {
  const angle = wallAngle(project, project.walls[wall]);
  return angle - Math.round(angle / (Math.PI / 2)) * (Math.PI / 2);
}

/** One side of a room: along the line of a wall, and how far its face lies inside that. */
interface RoomSide {
  p: Vec2;
  q: Vec2;
  inset: number;
  wall: string;
  /** The stretch of the wall, from its start. */
  s0: number;
  s1: number;
}

function sidesOf(project: Project, { pieces, nodes }: Pick<Arrangement, 'pieces' | 'nodes'>, face: PlanFace): RoomSide[] {
  return face.outer.edges.map(({ piece: index, forward }) => {
    const piece = pieces[index]!;
    const wall = project.walls[piece.line];
    const { left: l, right: r } = wallExtents(project, wall);
    const [p, q] = forward ? [nodes[piece.from], nodes[piece.to]] : [nodes[piece.to], nodes[piece.from]];
    return { p, q, inset: forward ? l : r, wall: wall.id, s0: piece.s0, s1: piece.s1 };
  });
}

/** The clear outline of a room, from face to face; sides that run on in one line are one side. */
function clearRing(sides: readonly RoomSide[]): Vec2[] {
  const own = sides.filter(({ p, q }) => distance(p, q) > TOUCH);
  return own.flatMap((side, i) => {
    const before = own[(i + own.length - 1) % own.length];
    const [d, e] = [unit(sub(side.q, side.p)), unit(sub(before.q, before.p))];
    const [from, to] = [add(side.p, scale(left(d), side.inset)), add(before.q, scale(left(e), before.inset))];
    if (Math.abs(cross(d, e)) > TOUCH) return [meet(to, e, from, d) ?? from];
    return distance(from, to) < TOUCH ? [] : [to, from];
  });
}

/** The middle of an outline's extent along its axes. */
function middle(ring: readonly Vec2[], angle: number): Vec2 {
  const [u, v] = [
    { x: Math.cos(angle), y: Math.sin(angle) },
    { x: -Math.sin(angle), y: Math.cos(angle) },
  ];
  const extent = (d: Vec2): number => {
    const list = ring.map((p) => dot(p, d));
    return (Math.min(...list) + Math.max(...list)) / 2;
  };
  const [a, b] = [extent(u), extent(v)];
  return { x: u.x * a + v.x * b, y: u.y * a + v.y * b };
}

/** Where an opening of an outline that falls on itself comes to stand: in which wall, at which place, and which way it opens. */
function carryOpening(project: Project, o: Opening, walls: readonly string[], carry: Carry): Partial<Opening> & { turned: boolean } {
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
    turned,
    wall: wall.id,
    at: Math.round(fit.at * 1e9) / 1e9,
    place: { kind: 'free' },
    hinge: along ? o.hinge : o.hinge === 'start' ? 'end' : 'start',
    swing: turned ? (o.swing === 'left' ? 'right' : 'left') : o.swing,
  };
}
