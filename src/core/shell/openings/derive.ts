import { IDENTITY, MeshBuilder, multiply, placement, transformPoint, type Matrix, type Mesh } from '../../geometry/mesh';
import { moved, reachOf } from '../../geometry/joint';
import { onceAt, type Hung, type Pane, type PartInput } from '../../model/body';
import { signedArea } from '../../geometry/polygon';
import type { Region, Ring } from '../../geometry/region';
import { add, angleOf, left, scale, type Vec2 } from '../../geometry/vec';
import { openingStation } from '../../project/openings';
import { profileIn } from '../../finishes/profiles';
import type { Level, Opening, Profile, Project, Side } from '../../project/schema';
import { wallExtents } from '../../project/wall-line';
import { bandOf, cornerFrames, cornerShape, seenFrom, type CornerShape } from './corner';
import { openingParts } from './parts';
import type { OpeningParts } from './space';
import { surroundOf } from './surround';

import { inWall, type InWall } from '../../project/opening-stand';
import { NEAR } from '../../units/tolerance';

/** The floor in a way, of one side as far as the middle of the wall. */
export interface Way {
  side: Side;
  /** In the plan. */
  region: Region;
  /** In world metres where it goes on from a room, as that floor lies; of one that leads outside in the axes of the opening. */
  mesh: Mesh;
  /** Above the floor of the level, metres. */
  z: number;
}

/** Key of the floor in a way, within what it belongs to. */
export const wayKey = (opening: string, side: Side): string => `${opening}/${side}`;

/** A part of an opening as far open as it stands. */
export type OpeningPart = Pick<OpeningParts, 'part' | 'key' | 'mesh' | 'grain'> & Pick<PartInput, 'at' | 'joint'>;

export interface DerivedOpening {
  id: string;
  opening: Opening;
  level: string;
  matrix: Matrix;
  /** Its centre in the middle of the wall. */
  point: Vec2;
  /** Direction of the wall, radians. */
  angle: number;
  thickness: number;
  /** Where its frame and its leaf stand in the thickness of the wall. */
  stands: InWall;
  /** Rooms at the left and right of the wall; null outside. */
  rooms: { left: string | null; right: string | null };
  /** The path of a corner window in the plan. */
  corner: CornerShape | null;
  parts: OpeningPart[];
  /** The glass that lets daylight in; none for doors. */
  glazing: Pane[];
  /** Where daylight comes in at a door that stands open or has lights, or where there is no leaf; none indoors and for windows. */
  clear: Pane[];
  /** What its joinery covers of each face of the wall: x along the wall from the middle of the opening, y above the floor. */
  surround: Record<Side, Region[]>;
  /** The floor in a way that goes down to it. */
  floors: Way[];
}

/** A leaf that is opened less lets hardly any light past it. */
const AJAR = 0.03;

export interface OpeningInputs {
  project: Project;
  level: Level;
  opening: Opening;
  /** A corner window as it stands in the other wall. */
  leg: Opening | null;
  thickness: number;
  /** Foot of the wall above the floor of the level. */
  foot: number;
  rooms: { left: string | null; right: string | null };
  outdoors: Record<Side, boolean>;
}

const shapes = new Map<string, OpeningParts[]>();
/** Openings are alike: what fills them is made once for all of a size, of the last so many sizes. */
const KEPT = 4000;

/** What folds or tips: no one joint says where it stands, and its leaves are set anew for every width it is opened to. */
const TIPPING: readonly Opening['form'][] = ['bifold', 'sectional', 'up-and-over'];

function alike(opening: Opening, thickness: number, inside: Side, corner: CornerShape | null, profile: Profile | null): OpeningParts[] {
  const { id: _id, name: _name, wall: _wall, at: _at, finishes: _finishes, place: _place, head: _head, status: _status, open, ...shape } = opening;
  const key = JSON.stringify([shape, thickness, inside, corner, profile?.points, TIPPING.includes(opening.form) && open]);
  let parts = shapes.get(key);
  if (!parts) {
    if (shapes.size > KEPT) shapes.clear();
    shapes.set(key, (parts = openingParts({ opening, thickness, inside, corner, profile })));
  }
  return parts;
}

/** A part opened by its joint as far as its opening is. */
export function opened({ part, key, mesh, at, joint, grain }: OpeningParts, open: number): OpeningPart {
  const value = joint ? reachOf(joint, joint.share * open) : 0;
  const stands = joint && value !== 0 ? multiply(moved(joint, value), at) : at;
  const hung: Hung | undefined = joint && { kind: joint.kind, at: joint.at, axis: joint.axis, range: joint.range, value };
  return { part, key, mesh, ...(stands === IDENTITY ? {} : { at: onceAt(stands) }), ...(hung ? { joint: hung } : {}), ...(grain ? { grain } : {}) };
}

/** What fills an opening, where it stands, and what it lets through. */
export function deriveOpening({ project, level, opening, leg, thickness, foot, rooms, outdoors }: OpeningInputs): DerivedOpening {
  const { p, d } = openingStation(project, opening);
  const { left: l, right: r } = wallExtents(project, project.walls[opening.wall]);
  const point = add(p, scale(left(d), (l - r) / 2));
  const inside: Side = outdoors.left && !outdoors.right ? 'right' : 'left';
  const angle = angleOf(d);
  const corner = leg ? cornerShape(project, opening, leg, inside) : null;
  const local = corner && seenFrom(corner, point, angle);
  const stands = inWall(opening, thickness, inside);
  const { width, height, sill } = opening;
  const face = opening.frame.face;
  const glazed = opening.kind === 'window' && (outdoors.left || outdoors.right);
  const portal = (origin: Vec2, along: Vec2, length: number): Pane => ({
    corner: { x: origin.x + along.x * face, y: origin.y + along.y * face, z: level.elevation + sill + face },
    along: { x: along.x * (length - 2 * face), y: along.y * (length - 2 * face), z: 0 },
    up: { x: 0, y: 0, z: height - 2 * face },
  });
  const glazing = !glazed
    ? []
    : corner
      ? cornerFrames(corner, opening).map(({ origin, d: along, length }) => portal(origin, along, length))
      : [portal({ x: point.x - (d.x * width) / 2 - d.y * stands.frame, y: point.y - (d.y * width) / 2 + d.x * stands.frame }, d, width)];
  const outer = outdoors.left !== outdoors.right;
  const lets = opening.kind === 'passage' || (opening.kind === 'door' && (opening.open > AJAR || opening.glazed > 0));
  const clear = outer && lets ? [portal({ x: point.x - (d.x * width) / 2, y: point.y - (d.y * width) / 2 }, d, width)] : [];
  const down = opening.kind !== 'niche' && sill - foot < NEAR;
  const matrix = placement(point.x, point.y, level.elevation, angle);
  return {
    id: opening.id,
    opening,
    level: level.id,
    matrix,
    point,
    angle,
    thickness,
    stands,
    rooms,
    corner,
    parts: alike(opening, thickness, inside, local, opening.profile ? profileIn(project, opening.profile) : null)
      .filter((p) => p.part !== 'lining' || Object.hasOwn(opening.finishes, 'lining'))
      .map((p) => opened(p, opening.open)),
    glazing,
    clear,
    surround: { left: surroundOf(opening, thickness, inside, 'left'), right: surroundOf(opening, thickness, inside, 'right') },
    floors: down
      ? (['left', 'right'] as const).map((side) => wayOf(side, rooms[side], floorOf(side, width, thickness, local, inside), matrix, level, sill))
      : [],
  };
}

function wayOf(side: Side, room: string | null, local: Ring, matrix: Matrix, level: Level, sill: number): Way {
  const ring = local.map((p) => transformPoint(matrix, { ...p, z: 0 })).map(({ x, y }) => ({ x, y }));
  const turned = (r: Ring): Ring => (signedArea(r) < 0 ? [...r].reverse() : r);
  return {
    side,
    region: { outer: turned(ring), holes: [] },
    mesh: room ? floorMesh(turned(ring), level.elevation + sill) : floorMesh(turned(local), sill),
    z: sill,
  };
}

/** The floor on one side of the middle of the wall, in the local axes of the opening. */
function floorOf(side: Side, width: number, thickness: number, corner: CornerShape | null, inside: Side): Ring {
  const half = ((side === 'left' ? 1 : -1) * thickness) / 2;
  if (corner) {
    const out = (side === inside ? 1 : -1) * corner.indoors;
    return bandOf(corner, [0, 0], [out * corner.first.half, out * corner.second.half]);
  }
  const [y0, y1] = [Math.min(0, half), Math.max(0, half)];
  return [
    { x: -width / 2, y: y0 },
    { x: width / 2, y: y0 },
    { x: width / 2, y: y1 },
    { x: -width / 2, y: y1 },
  ];
}

const floorMesh = (ring: Ring, z: number): Mesh => new MeshBuilder().region({ outer: ring, holes: [] }, (p) => ({ ...p, z }), { x: 0, y: 0, z: 1 }).build();
