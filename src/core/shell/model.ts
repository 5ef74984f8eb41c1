import type { Arrangement, Cycle } from '../geometry/arrangement';
import { MeshBuilder, placement, type Matrix, type Mesh } from '../geometry/mesh';
import { labelPoint, perimeter, regionArea, signedArea, type Region } from '../geometry/polygon';
import type { Vec2 } from '../geometry/vec';
import { cylinder } from '../geometry/shapes';
import type { FaceTarget } from '../project/commands';
import { wallFoot } from '../project/openings';
import { inPhase, type Phase } from '../project/phase';
import type { Column, Level, Opening, Project, Room, Side } from '../project/schema';
import { rooflightRoom } from '../project/rooflights';
import { legOf, standingIn } from '../project/standing';
import { planOf, roomsByFace, type Plan } from '../project/topology';
import { wallPath, wallThickness } from '../project/wall-line';
import { joinWalls, sameRegion, type JoinedPlan } from './junctions';
import { deriveOpening, floorMesh, type DerivedOpening } from './openings/derive';
import { ceilingHeight, ceilingMesh, clearHeight, extent, stepFace } from './rooms';
import { deriveRooflight, type DerivedRooflight } from './rooflights';
import { makeWall, type DerivedWall, type WallSide } from './walls';

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
  /** The wall, opening, column, room or level it comes from. */
  entity: string;
  target: FaceTarget | null;
  finish: string;
  /** A `cap` is the end of a wall inside a junction: seen only where its neighbour is taken away. */
  kind: 'wall' | 'top' | 'cap' | 'floor' | 'ceiling' | 'slab' | 'opening' | 'column' | 'ground';
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
  /** Clear height from its floor to its ceiling, metres; of a room open to the sky, up to the height of the level. */
  height: number;
  /** Whether anything closes it above. */
  covered: boolean;
}

export interface DerivedColumn {
  id: string;
  column: Column;
  ring: Vec2[];
  height: number;
  mesh: Mesh;
}

export interface DerivedLevel {
  id: string;
  level: Level;
  plan: Plan;
  joined: JoinedPlan;
  walls: DerivedWall[];
  rooms: DerivedRoom[];
  openings: DerivedOpening[];
  columns: DerivedColumn[];
  rooflights: DerivedRooflight[];
  surfaces: Surface[];
}

/** The shell of a project: what follows from walls, openings and rooms. */
export interface ShellModel {
  /** The project as it is in the phase shown. */
  project: Project;
  phase: Phase;
  levels: DerivedLevel[];
  rooms: Map<string, DerivedRoom>;
  walls: Map<string, DerivedWall>;
  openings: Map<string, DerivedOpening>;
}

interface Kept {
  deps: readonly unknown[];
  value: unknown;
}

/**
 * Derives the shell and remembers, per wall, opening and room, what it made last time and from which objects: an edit
 * recomputes only what its inputs have changed for. What is equal is told by identity, so the rest costs a comparison.
 */
export class ShellDeriver {
  private readonly memo = new Map<string, Kept>();
  private readonly joined = new Map<string, JoinedPlan>();
  /** How many memoised values the last derivation had to make, for proof of locality. */
  made = 0;

  derive(whole: Project, phase: Phase = 'after'): ShellModel {
    this.made = 0;
    const project = inPhase(whole, phase);
    const levels = Object.values(project.levels)
      .sort((a, b) => a.elevation - b.elevation)
      .map((level) => this.level(project, level));
    const rooms = new Map<string, DerivedRoom>();
    const walls = new Map<string, DerivedWall>();
    const openings = new Map<string, DerivedOpening>();
    for (const l of levels) {
      for (const r of l.rooms) rooms.set(r.id, r);
      for (const w of l.walls) walls.set(w.id, w);
      for (const o of l.openings) openings.set(o.id, o);
    }
    return { project, phase, levels, rooms, walls, openings };
  }

  private remember<T>(key: string, deps: readonly unknown[], make: () => T): T {
    const known = this.memo.get(key);
    if (known && known.deps.length === deps.length && known.deps.every((d, i) => d === deps[i])) return known.value as T;
    const value = make();
    this.made++;
    this.memo.set(key, { deps, value });
    return value;
  }

  /** The value of last time as long as the new one is the same. */
  private steady<T>(key: string, value: T, same: (a: T, b: T) => boolean): T {
    const known = this.memo.get(key)?.value as T | undefined;
    if (known !== undefined && (known === value || same(known, value))) return known;
    this.memo.set(key, { deps: [], value });
    return value;
  }

  private level(project: Project, level: Level): DerivedLevel {
    const plan = planOf(project, level.id);
    const { arrangement } = plan;
    const before = this.joined.get(level.id);
    const joined = before?.arrangement === arrangement ? before : joinWalls(arrangement, before);
    this.joined.set(level.id, joined);
    const roomOfFace = roomsByFace(project, level.id);
    const roomOfCycle = new Map<Cycle, Room>();
    for (const [f, room] of roomOfFace) {
      const face = arrangement.faces[f];
      roomOfCycle.set(face.outer, room);
      for (const inner of face.inner) roomOfCycle.set(inner, room);
    }
    const roomOf = (cycle: Cycle | undefined): Room | null => (cycle && roomOfCycle.get(cycle)) ?? null;
    const z = level.elevation;
    const surfaces: Surface[] = [];
    const walls: DerivedWall[] = [];
    const sidesOf = new Map<string, WallSide[]>();
    for (const id in project.walls) {
      const wall = project.walls[id];
      if (wall.level !== level.id) continue;
      const pieces = arrangement.byLine.get(id) ?? [];
      const standing = standingIn(project, id);
      const foot = wallFoot(project, wall);
      const type = wall.type === null ? undefined : project.wallTypes[wall.type];
      const deps: unknown[] = [wall, type, level.height, z, foot, standing.length, project.corners[wall.start], project.corners[wall.end]];
      for (const p of pieces) {
        deps.push(joined.pieces[p.index], meeting(arrangement, p.from), meeting(arrangement, p.to));
        for (const cycle of [arrangement.cycles[p.index * 2], arrangement.cycles[p.index * 2 + 1]]) {
          const room = roomOf(cycle);
          deps.push(room?.id, room?.step, room?.cover, room?.outdoors);
        }
      }
      deps.push(...standing);
      const derived = this.remember<DerivedWall>(`wall ${id}`, deps, () => {
        const made = makeWall({
          wall,
          level,
          path: wallPath(project, wall),
          thickness: wallThickness(project, wall),
          foot,
          pieces,
          footprints: pieces.map((p) => joined.pieces[p.index]!),
          openings: standing,
          arrangement,
          roomOf,
        });
        return { ...made, faces: made.faces.map((m) => lift(m, z)), lids: lift(made.lids, z), caps: lift(made.caps, z) };
      });
      walls.push(derived);
      for (const side of derived.sides)
        if (side.room) {
          const list = sidesOf.get(side.room);
          if (list) list.push(side);
          else sidesOf.set(side.room, [side]);
        }
      const finishes = derived.sides.map((side) => {
        const owner = side.room ? project.rooms[side.room] : project.outside;
        return owner.faces[side.key] ?? owner.walls ?? (side.outdoors ? BARE.outside : BARE.wall);
      });
      surfaces.push(...this.remember(`surfaces ${id}`, [derived, ...finishes], () => wallSurfaces(derived, finishes, level.id)));
      if (wall.kind === 'boundary') this.boundary(level, id, plan, roomOf, surfaces);
    }

    const lightsOf = new Map<string, DerivedRooflight[]>();
    const rooflights: DerivedRooflight[] = [];
    for (const id in project.rooflights) {
      const rooflight = project.rooflights[id];
      const room = rooflight.level === level.id ? rooflightRoom(project, rooflight) : null;
      if (!room) continue;
      const derived = this.remember(`rooflight ${id}`, [rooflight, room.id, room.cover, level], () => deriveRooflight(rooflight, room, level));
      rooflights.push(derived);
      lightsOf.set(room.id, [...(lightsOf.get(room.id) ?? []), derived]);
      for (const { part, mesh, finish } of derived.parts)
        surfaces.push({
          key: `${id}/${part}`,
          entity: id,
          target: { kind: 'opening', opening: id, part },
          finish,
          kind: 'opening',
          mesh,
          matrix: derived.matrix,
          level: level.id,
        });
    }

    const rooms: DerivedRoom[] = [];
    for (const [f, room] of roomOfFace) {
      const fresh = joined.faces[f];
      if (!fresh || fresh.outer.length < 3) continue;
      const region = this.steady(`region ${room.id}`, fresh, sameRegion);
      const sides = sidesOf.get(room.id) ?? [];
      const along = room.cover.kind === 'bulkhead' ? room.cover.along : '';
      const edges = along ? sides.filter((s) => s.key === along).map((s) => (s.side === 'left' ? ([s.from, s.to] as const) : ([s.to, s.from] as const))) : [];
      const figures = this.remember(`figures ${room.id}`, [region], () => ({
        area: regionArea(region),
        perimeter: perimeter(region.outer) + region.holes.reduce((sum, hole) => sum + perimeter(hole), 0),
        label: labelPoint(region),
        size: extent(region.outer),
      }));
      const floor = this.remember(`floor ${room.id}`, [region, z, room.step], () =>
        new MeshBuilder().region(region, (p) => ({ ...p, z: z + room.step }), { x: 0, y: 0, z: 1 }).build(),
      );
      const lights = lightsOf.get(room.id) ?? [];
      const ceiling = this.remember(`ceiling ${room.id}`, [region, z, level.height, room.cover, ...edges.flat(), ...lights], () =>
        ceilingMesh(
          region,
          room,
          level,
          z,
          edges,
          lights.map((l) => ({ region: { outer: l.ring, holes: [] }, kerb: l.rooflight.kerb })),
        ),
      );
      const height = clearHeight(room, level) ?? level.height - room.step;
      rooms.push({ id: room.id, room, region, ...figures, sides, height, covered: room.cover.kind !== 'open' });
      surfaces.push(
        ...this.remember(`surfaces ${room.id}`, [floor, ceiling, room.floor, room.ceiling], () =>
          (
            [
              ['floor', floor],
              ['ceiling', ceiling],
            ] as const
          ).map(([kind, mesh]): Surface => ({
            key: `${room.id}/${kind}`,
            entity: room.id,
            target: { kind, room: room.id },
            finish: room[kind] ?? BARE[kind],
            kind,
            mesh,
            matrix: null,
            level: level.id,
          })),
        ),
      );
    }
    rooms.sort((a, b) => b.area - a.area);

    const slab = this.remember(`slab ${level.id}`, [z, level.slab, ...joined.outline], () => slabMesh(joined.outline, z, level.slab));
    surfaces.push({ key: `${level.id}/slab`, entity: level.id, target: null, finish: BARE.outside, kind: 'slab', mesh: slab, matrix: null, level: level.id });

    const openings: DerivedOpening[] = [];
    const byWall = new Map(walls.map((w) => [w.id, w]));
    for (const id in project.openings) {
      const o = project.openings[id];
      const wall = byWall.get(o.wall);
      if (!wall) continue;
      const own = this.opening(project, level, o, wall);
      openings.push(own.derived);
      surfaces.push(...own.surfaces);
    }

    const columns: DerivedColumn[] = [];
    for (const id in project.columns) {
      const column = project.columns[id];
      if (column.level !== level.id) continue;
      const derived = this.remember(`column ${id}`, [column, level], () => columnSolid(column, level));
      columns.push(derived);
      surfaces.push({
        key: `${id}/body`,
        entity: id,
        target: { kind: 'column', column: id },
        finish: column.finish ?? BARE.wall,
        kind: 'column',
        mesh: derived.mesh,
        matrix: null,
        level: level.id,
      });
    }
    return { id: level.id, level, plan, joined, walls, rooms, openings, columns, rooflights, surfaces };
  }

  /** Where floors or ceilings of different heights meet along a boundary, the step between them is closed. */
  private boundary(level: Level, id: string, { arrangement }: Plan, roomOf: (c: Cycle | undefined) => Room | null, surfaces: Surface[]): void {
    for (const piece of arrangement.byLine.get(id) ?? []) {
      const [l, r] = [roomOf(arrangement.cycles[piece.index * 2]), roomOf(arrangement.cycles[piece.index * 2 + 1])];
      if (!l || !r) continue;
      const [a, b] = [arrangement.nodes[piece.from], arrangement.nodes[piece.to]];
      const put = (what: 'floor' | 'ceiling', low: Room, high: Room, z0: number, z1: number): void => {
        if (z1 - z0 < 1e-6) return;
        // The riser faces the lower floor, the drop of a ceiling the higher one.
        const seen = what === 'floor' ? low : high;
        const [p, q] = seen === r ? [a, b] : [b, a];
        surfaces.push(
          ...this.remember(`step ${id} ${piece.s0} ${what}`, [a, b, z0, z1, seen, high], () => [
            {
              key: `${id}/${piece.s0}/${what}`,
              entity: id,
              target: { kind: what, room: high.id },
              finish: (what === 'floor' ? high.floor : low.ceiling) ?? BARE[what],
              kind: what,
              mesh: stepFace(p, q, z0, z1),
              matrix: null,
              level: level.id,
            } as Surface,
          ]),
        );
      };
      const [low, high] = l.step < r.step ? [l, r] : [r, l];
      put('floor', low, high, level.elevation + low.step, level.elevation + high.step);
      if (l.cover.kind === 'open' || r.cover.kind === 'open') continue;
      const [hl, hr] = [ceilingHeight(l, level), ceilingHeight(r, level)];
      const [lower, higher] = hl < hr ? [l, r] : [r, l];
      put('ceiling', lower, higher, level.elevation + Math.min(hl, hr), level.elevation + Math.max(hl, hr));
    }
  }

  private opening(project: Project, level: Level, opening: Opening, wall: DerivedWall): { derived: DerivedOpening; surfaces: Surface[] } {
    const own = wall.wall;
    const on = (side: Side): WallSide | undefined => wall.sides.find((s) => s.side === side && opening.at > s.s0 && opening.at < s.s1);
    const [onLeft, onRight] = [on('left'), on('right')];
    const [outLeft, outRight] = [onLeft?.outdoors ?? true, onRight?.outdoors ?? true];
    const rooms = { left: onLeft?.room ?? null, right: onRight?.room ?? null };
    const finish = (id: string | null): string => (id ? (project.rooms[id].floor ?? BARE.floor) : BARE.outside);
    const leg = opening.form === 'corner' ? legOf(project, opening) : null;
    const other = leg && project.walls[leg.wall];
    const deps = [
      opening,
      leg,
      ...(other ? [other, project.corners[other.start], project.corners[other.end], project.wallTypes] : []),
      own,
      project.corners[own.start],
      project.corners[own.end],
      wall.thickness,
      wall.foot,
      level,
      rooms.left,
      rooms.right,
      outLeft,
      outRight,
      finish(rooms.left),
      finish(rooms.right),
    ];
    return this.remember(`opening ${opening.id}`, deps, () => {
      const derived = deriveOpening({
        project,
        level,
        opening,
        leg,
        thickness: wall.thickness,
        foot: wall.foot,
        rooms,
        outdoors: { left: outLeft, right: outRight },
      });
      const surfaces: Surface[] = derived.parts.map(({ part, mesh, finish: own2 }) => ({
        key: `${opening.id}/${part}`,
        entity: opening.id,
        target: { kind: 'opening', opening: opening.id, part },
        finish: own2,
        kind: 'opening',
        mesh,
        matrix: derived.matrix,
        level: level.id,
      }));
      for (const { side, ring, z } of derived.floors) {
        const id = rooms[side];
        surfaces.push({
          key: `${opening.id}/floor-${side}`,
          entity: id ?? opening.id,
          target: id ? { kind: 'floor', room: id } : null,
          finish: finish(id),
          kind: 'floor',
          mesh: floorMesh(ring, z),
          matrix: derived.matrix,
          level: level.id,
        });
      }
      return { derived, surfaces };
    });
  }
}

/** How many lines, and how many built walls, meet at a node, in one number. */
function meeting({ fans, pieces }: Arrangement, node: number): number {
  let built = 0;
  for (const e of fans[node]) if (pieces[e.piece]!.left + pieces[e.piece]!.right > 0) built++;
  return fans[node].length * 100 + built;
}

function wallSurfaces(wall: DerivedWall, finishes: readonly string[], level: string): Surface[] {
  const surfaces: Surface[] = wall.sides.map((side, i) => ({
    key: `${side.key}/${i}`,
    entity: wall.id,
    target: { kind: 'wall', room: side.room, wall: wall.id, side: side.side },
    finish: finishes[i],
    kind: 'wall',
    mesh: wall.faces[i],
    matrix: null,
    level,
  }));
  if (wall.wall.kind === 'wall')
    for (const [kind, mesh] of [
      ['top', wall.lids],
      ['cap', wall.caps],
    ] as const)
      surfaces.push({ key: `${wall.id}/${kind}`, entity: wall.id, target: null, finish: BARE.cut, kind, mesh, matrix: null, level });
  return surfaces;
}

function columnSolid(column: Column, level: Level): DerivedColumn {
  const height = column.height ?? level.height;
  const m = placement(column.x, column.y, level.elevation, column.rotation);
  const [w, d] = [column.width / 2, column.depth / 2];
  const outline: Vec2[] =
    column.section === 'square'
      ? [
          { x: -w, y: -d },
          { x: w, y: -d },
          { x: w, y: d },
          { x: -w, y: d },
        ]
      : Array.from({ length: 32 }, (_, i) => ({ x: w * Math.cos((i / 16) * Math.PI), y: d * Math.sin((i / 16) * Math.PI) }));
  const body =
    column.section === 'square'
      ? new MeshBuilder().box(-w, -d, 0, w, d, height).build()
      : new MeshBuilder().add(cylinder(0, 0, 0, height, 1, 1, 32), [w, 0, 0, 0, 0, d, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1]).build();
  const ring = outline.map((p) => ({ x: m[0] * p.x + m[4] * p.y + m[12], y: m[1] * p.x + m[5] * p.y + m[13] }));
  return { id: column.id, column, ring, height, mesh: new MeshBuilder().add(body, m).build() };
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
