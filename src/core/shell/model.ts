import { labelPoint, perimeter, regionArea, signedArea, type Region } from '../geometry/polygon';
import { MeshBuilder, placement, type Matrix, type Mesh } from '../geometry/mesh';
import { angleOf, sub, unit, type Vec2, type Vec3 } from '../geometry/vec';
import type { FaceTarget } from '../project/commands';
import { openingPoint } from '../project/openings';
import type { Level, Opening, Project, Room } from '../project/schema';
import { planOf, roomsByFace, type Plan } from '../project/topology';
import { joinWalls, type JoinedPlan } from './junctions';
import { openingParts, OPENING_FINISHES, JOINERY, type OpeningPart, type OpeningParts } from './openings';
import { groupOpenings, wallEndings, wallMeshes, wallSides, type DerivedWall, type WallSide } from './walls';

/** What a surface is worth before anybody has chosen a finish. */
export const BARE = {
  wall: 'bare.plaster',
  floor: 'bare.screed',
  ceiling: 'bare.ceiling',
  outside: 'bare.render',
  ground: 'bare.ground',
  cut: 'bare.cut',
} as const;

/** A part of the model that has one finish and one address. Meshes are in world metres, z up. */
export interface Surface {
  key: string;
  /** The wall, opening, room or level it comes from. */
  entity: string;
  target: FaceTarget | null;
  finish: string;
  kind: 'wall' | 'top' | 'floor' | 'ceiling' | 'slab' | 'opening' | 'ground';
  mesh: Mesh;
  /** Where the mesh stands, for meshes shared by several openings. */
  matrix: Matrix | null;
  level: string;
}

export interface DerivedRoom {
  id: string;
  room: Room;
  region: Region;
  /** Clear floor area inside the walls, m². */
  area: number;
  perimeter: number;
  label: Vec2;
  /** Extent inside the walls along the plan axes, metres. */
  size: Vec2;
  sides: WallSide[];
  height: number;
}

export interface DerivedOpening {
  id: string;
  opening: Opening;
  level: string;
  matrix: Matrix;
  point: Vec2;
  /** Direction of the wall, radians. */
  angle: number;
  thickness: number;
  /** Rooms at the left and right of the wall; null outside. */
  rooms: { left: string | null; right: string | null };
  parts: (OpeningParts & { finish: string })[];
  /** The glass as a rectangle in world metres, for daylight to be sampled through; none for doors. */
  portal: { corner: Vec3; along: Vec3; up: Vec3 } | null;
}

export interface DerivedLevel {
  id: string;
  level: Level;
  plan: Plan;
  joined: JoinedPlan;
  walls: DerivedWall[];
  rooms: DerivedRoom[];
  openings: DerivedOpening[];
  surfaces: Surface[];
}

/** The shell of a project: what follows from walls, openings and rooms. */
export interface ShellModel {
  project: Project;
  levels: DerivedLevel[];
  rooms: Map<string, DerivedRoom>;
  walls: Map<string, DerivedWall>;
  openings: Map<string, DerivedOpening>;
}

const AJAR = 0.35;

/**
 * Derives the shell and remembers, per wall, opening and room, what it made last time: an edit recomputes only what
 * its inputs have changed for.
 */
export class ShellDeriver {
  private readonly memo = new Map<string, { signature: string; value: unknown }>();
  private readonly joined = new WeakMap<Plan, JoinedPlan>();
  /** How many memoised values the last derivation had to make, for proof of locality. */
  made = 0;

  derive(project: Project): ShellModel {
    this.made = 0;
    const levels = Object.values(project.levels)
      .sort((a, b) => a.elevation - b.elevation)
      .map((level) => this.level(project, level));
    return {
      project,
      levels,
      rooms: new Map(levels.flatMap((l) => l.rooms.map((r) => [r.id, r]))),
      walls: new Map(levels.flatMap((l) => l.walls.map((w) => [w.id, w]))),
      openings: new Map(levels.flatMap((l) => l.openings.map((o) => [o.id, o]))),
    };
  }

  private remember<T>(key: string, signature: string, make: () => T): T {
    const known = this.memo.get(key);
    if (known && known.signature === signature) return known.value as T;
    const value = make();
    this.made++;
    this.memo.set(key, { signature, value });
    return value;
  }

  private level(project: Project, level: Level): DerivedLevel {
    const plan = planOf(project, level.id);
    const { arrangement } = plan;
    let joined = this.joined.get(plan);
    if (!joined) this.joined.set(plan, (joined = joinWalls(arrangement, (id) => project.walls[id].thickness / 2)));
    const roomOfFace = roomsByFace(project, level.id);
    const sides = wallSides(project, arrangement, joined, roomOfFace);
    const openingsOf = groupOpenings(project);
    const endings = wallEndings(project, arrangement);
    const z = level.elevation;
    const surfaces: Surface[] = [];

    const rings = new Map<string, Vec2[][]>();
    for (const piece of joined.pieces) rings.set(piece.wall, [...(rings.get(piece.wall) ?? []), piece.ring, ...(piece.rest ?? [])]);
    const walls: DerivedWall[] = [];
    for (const wall of Object.values(project.walls)) {
      if (wall.level !== level.id) continue;
      const own = sides.get(wall.id) ?? [];
      const standing = openingsOf.get(wall.id) ?? [];
      const ends = endings.get(wall.id) ?? [];
      const outline = rings.get(wall.id) ?? [];
      const height = wall.height ?? level.height;
      const signature = JSON.stringify([
        z,
        height,
        wall.thickness,
        outline,
        own.map((s) => [s.room, s.from, s.to]),
        standing.map((o) => [o.at, o.width, o.height, o.sill]),
        ends,
      ]);
      const derived = this.remember<DerivedWall>(`wall ${wall.id}`, signature, () => {
        const { faces, top } = wallMeshes(project, wall, own, standing, outline, ends);
        return { id: wall.id, wall, rings: outline, sides: own, height, faces: faces.map((m) => lift(m, z)), top: lift(top, z) };
      });
      const current = { ...derived, wall, sides: own };
      walls.push(current);
      own.forEach((side, i) => {
        const owner = side.room ? project.rooms[side.room] : project.outside;
        surfaces.push({
          key: `${side.key}/${i}`,
          entity: wall.id,
          target: { kind: 'wall', room: side.room, wall: wall.id, side: side.side },
          finish: owner.faces[side.key] ?? owner.walls ?? (side.room ? BARE.wall : BARE.outside),
          kind: 'wall',
          mesh: current.faces[i],
          matrix: null,
          level: level.id,
        });
      });
      surfaces.push({ key: `${wall.id}/top`, entity: wall.id, target: null, finish: BARE.cut, kind: 'top', mesh: current.top, matrix: null, level: level.id });
    }

    const allSides = [...sides.values()].flat();
    const rooms: DerivedRoom[] = [];
    for (const [f, room] of roomOfFace) {
      const region = joined.faces[f];
      if (!region || region.outer.length < 3) continue;
      const derived = this.remember(`room ${room.id}`, JSON.stringify([region, z, level.height]), () => {
        const xs = region.outer.map((p) => p.x);
        const ys = region.outer.map((p) => p.y);
        return {
          area: regionArea(region),
          perimeter: perimeter(region.outer) + region.holes.reduce((sum, hole) => sum + perimeter(hole), 0),
          label: labelPoint(region),
          size: { x: Math.max(...xs) - Math.min(...xs), y: Math.max(...ys) - Math.min(...ys) },
          floor: new MeshBuilder().region(region, (p) => ({ ...p, z }), { x: 0, y: 0, z: 1 }).build(),
          ceiling: new MeshBuilder().region(region, (p) => ({ ...p, z: z + level.height }), { x: 0, y: 0, z: -1 }, true).build(),
        };
      });
      const { floor, ceiling, ...figures } = derived;
      rooms.push({ id: room.id, room, region, ...figures, sides: allSides.filter((s) => s.room === room.id), height: level.height });
      for (const [kind, mesh] of [
        ['floor', floor],
        ['ceiling', ceiling],
      ] as const)
        surfaces.push({
          key: `${room.id}/${kind}`,
          entity: room.id,
          target: { kind, room: room.id },
          finish: room[kind] ?? BARE[kind],
          kind,
          mesh,
          matrix: null,
          level: level.id,
        });
    }
    rooms.sort((a, b) => b.area - a.area);

    const slab = this.remember(`slab ${level.id}`, JSON.stringify([joined.outline, z, level.slab]), () => slabMesh(joined.outline, z, level.slab));
    surfaces.push({ key: `${level.id}/slab`, entity: level.id, target: null, finish: BARE.outside, kind: 'slab', mesh: slab, matrix: null, level: level.id });

    const openings = Object.values(project.openings)
      .filter((o) => project.walls[o.wall]?.level === level.id)
      .map((o) => this.opening(project, level, o, sides.get(o.wall) ?? []));
    for (const o of openings)
      for (const { part, mesh, finish } of o.parts)
        surfaces.push({
          key: `${o.id}/${part}`,
          entity: o.id,
          target: { kind: 'opening', opening: o.id, part },
          finish,
          kind: 'opening',
          mesh,
          matrix: o.matrix,
          level: level.id,
        });
    return { id: level.id, level, plan, joined, walls, rooms, openings, surfaces };
  }

  private opening(project: Project, level: Level, opening: Opening, sides: WallSide[]): DerivedOpening {
    const wall = project.walls[opening.wall];
    const axis = unit(sub(project.corners[wall.end], project.corners[wall.start]));
    const point = openingPoint(project, opening);
    const room = (side: 'left' | 'right'): string | null => sides.find((s) => s.side === side && s.openings.includes(opening.id))?.room ?? null;
    const rooms = { left: room('left'), right: room('right') };
    const inside = rooms.left === null && rooms.right !== null ? 'right' : 'left';
    const angle = angleOf(axis);
    const { kind, width, height, sill, hinge, swing, panes } = opening;
    const shape = JSON.stringify([kind, width, height, sill, hinge, swing, panes, wall.thickness, inside]);
    const parts = this.remember(`opening ${shape}`, shape, () => openingParts({ opening, thickness: wall.thickness, inside, ajar: AJAR }));
    const { frameFace } = JOINERY;
    const out = inside === 'left' ? -1 : 1;
    const depth = Math.max(0, wall.thickness / 2 - JOINERY.frameDepth / 2 - wall.thickness * 0.2) * out;
    const w = width / 2 - frameFace;
    const portal =
      kind === 'window' && (rooms.left === null || rooms.right === null)
        ? {
            corner: { x: point.x - axis.x * w - axis.y * depth, y: point.y - axis.y * w + axis.x * depth, z: level.elevation + sill + frameFace },
            along: { x: axis.x * 2 * w, y: axis.y * 2 * w, z: 0 },
            up: { x: 0, y: 0, z: height - 2 * frameFace },
          }
        : null;
    return {
      id: opening.id,
      opening,
      level: level.id,
      matrix: placement(point.x, point.y, level.elevation, angle),
      point,
      angle,
      thickness: wall.thickness,
      rooms,
      parts: parts.map((p) => ({ ...p, finish: opening.finishes[p.part] ?? OPENING_FINISHES[p.part] })),
      portal,
    };
  }
}

const lift = (mesh: Mesh, z: number): Mesh => (z === 0 ? mesh : { ...mesh, positions: mesh.positions.map((v, i) => (i % 3 === 2 ? v + z : v)) });

/** Edges and underside of the floor slab. */
function slabMesh(outline: Region[], z: number, thickness: number): Mesh {
  const builder = new MeshBuilder();
  if (thickness > 0)
    for (const { outer } of outline) {
      if (outer.length < 3 || signedArea(outer) <= 0) continue;
      outer.forEach((p, i) => {
        const q = outer[(i + 1) % outer.length];
        builder.quad({ ...p, z: z - thickness }, { ...q, z: z - thickness }, { ...q, z }, { ...p, z });
      });
      builder.region({ outer, holes: [] }, (p) => ({ ...p, z: z - thickness }), { x: 0, y: 0, z: -1 }, true);
    }
  return builder.build();
}

/** The parts an opening of a kind has. */
export const partsOf = (kind: Opening['kind']): OpeningPart[] =>
  kind === 'door' ? ['leaf', 'frame', 'architrave', 'handle'] : ['frame', 'glass', 'sill', 'architrave', 'handle'];
