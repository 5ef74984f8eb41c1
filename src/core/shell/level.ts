import type { Cycle, HalfEdge, LinePiece } from '../geometry/arrangement';
import { MeshBuilder, type Mesh } from '../geometry/mesh';
import { boolean, labelPoint, perimeter, regionArea, signedArea, totalArea } from '../geometry/polygon';
import type { Region, Ring } from '../geometry/region';
import { lerp, segmentDistance, type Vec2 } from '../geometry/vec';
import { levelAbove } from '../project/levels';
import { wallFoot } from '../project/openings';
import { roofsOver, roofsToFollow, type RoofShape } from '../project/roofs';
import type { Level, Opening, Project, Room, Side } from '../project/schema';
import { holesIn } from '../project/stairs';
import { legOf, openingsIn, standingIn } from '../project/standing';
import { planOf, roomsByFace, type Plan } from '../project/topology';
import { wallPath, wallThickness } from '../project/wall-line';
import { deriveBuilt, splitTop } from './built';
import { OverheadDeriver } from './overhead';
import { joinWalls, sameRegion, type JoinedPlan } from './junctions';
import { Parts } from '../model/body';
import { type Memo } from '../model/memo';
import type { DerivedLevel, DerivedRoom } from './model';
import { deriveOpening, wayKey, type DerivedOpening } from './openings/derive';
import { type DerivedRooflight } from './rooflights';
import { dressLevel } from './dress/dress';
import { chosenForSide } from './dress/faces';
import { roofCeiling } from './roofs';
import { ceilingHeight, ceilingMesh, clearHeight, extent, highArea, stepFace } from './rooms';
import { BARE } from '../project/kinds/first-finishes';
import { roofsNear, sameNear } from './roof-near';
import { putWall } from './surfaces';
import { sameSide } from './wall-face';
import { makeWall } from './walls';
import type { DerivedWall, WallSide } from './wall-types';
import { NEAR } from '../units/tolerance';

/** What is known about a level while it is derived. */
interface Work {
  project: Project;
  level: Level;
  plan: Plan;
  joined: JoinedPlan;
  /** The roofs over the level. */
  roofs: RoofShape[];
  roomOf(cycle: Cycle | undefined): Room | null;
  /** Everything that was made. */
  parts: Parts;
}

/** What a room is derived from. */
interface RoomGiven {
  level: Level;
  room: Room;
  /** Its region as the plan has it now. */
  fresh: Region;
  sides: WallSide[];
  lights: readonly DerivedRooflight[];
  /** Roofs its ceiling follows. */
  follows: readonly RoofShape[];
  /** Holes in its floor, in its ceiling, and of the roofs it follows. */
  inFloor: readonly Region[];
  inCeiling: readonly Region[];
  cuts: readonly Region[];
}

/** Derives one level after another, part by part. */
export class LevelDeriver {
  private readonly joined = new Map<string, JoinedPlan>();
  private readonly shapes = new Map<string, RoomShape>();

  private readonly overhead: OverheadDeriver;

  constructor(private readonly memo: Memo) {
    this.overhead = new OverheadDeriver(memo);
  }

  derive(project: Project, level: Level): DerivedLevel {
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
    const work: Work = {
      project,
      level,
      plan,
      joined,
      roofs: roofsOver(project, level.id),
      parts: new Parts(this.memo, project),
      roomOf: (cycle) => (cycle && roomOfCycle.get(cycle)) ?? null,
    };
    const walls = this.walls(work);
    const rooflights = this.overhead.rooflights(work);
    const rooms = this.rooms(work, roomOfFace, walls, rooflights);
    this.slab(work);
    const openings = this.openings(work, walls);
    const roofs = this.overhead.roofs(work, rooms);
    const dormers = this.overhead.dormers(work);
    const built = deriveBuilt(this.memo, project, level, walls, work.roofs, work.parts);
    const bare = { id: level.id, level, plan, joined, walls, rooms, openings, rooflights, roofs, dormers, ...built, parts: work.parts.made };
    return { ...bare, ...dressLevel(this.memo, project, { ...bare, faces: [], mouldings: [] }) };
  }

  private walls(work: Work): DerivedWall[] {
    const { project, level, plan, joined, roomOf, parts } = work;
    const roofs = roofsToFollow(work.roofs);
    const { arrangement } = plan;
    const topOf = (id: string): number => {
      const { top, kind } = project.walls[id];
      return kind === 'boundary' ? -Infinity : top.kind === 'fixed' ? top.height : top.kind === 'half' ? level.height / 2 : Infinity;
    };
    const walls: DerivedWall[] = [];
    for (const id in project.walls) {
      const wall = project.walls[id];
      if (wall.level !== level.id) continue;
      const pieces: readonly LinePiece[] = arrangement.byLine.get(id) ?? [];
      const standing = standingIn(project, id);
      const foot = wallFoot(project, wall);
      const type = wall.type === null ? undefined : project.wallTypes[wall.type];
      const deps: unknown[] = [
        wall,
        type,
        roofs.length > 0,
        level.height,
        level.elevation,
        foot,
        standing.length,
        project.corners[wall.start],
        project.corners[wall.end],
      ];
      for (const p of pieces) {
        deps.push(joined.pieces[p.index], this.meeting(work, p.from), this.meeting(work, p.to));
        for (const node of [p.from, p.to])
          for (const e of arrangement.fans[node]) {
            const { line } = arrangement.pieces[e.piece]!;
            if (line !== id && topOf(line) !== Infinity) deps.push(line, topOf(line));
          }
        deps.push(this.shape(roomOf(arrangement.cycles[p.index * 2])), this.shape(roomOf(arrangement.cycles[p.index * 2 + 1])));
      }
      const follows = wall.top.kind === 'roof';
      // Of a roof that changes elsewhere nothing is to be done here.
      const near =
        follows && roofs.length
          ? this.memo.steady(
              'roofs over wall',
              id,
              roofsNear(
                roofs,
                pieces.flatMap((p) => joined.pieces[p.index]!.ring),
              ),
              sameNear,
            ).roofs
          : NO_ROOFS;
      deps.push(near);
      for (const opening of standing) deps.push(opening);
      const derived = this.memo.get('wall', id, deps, () => {
        const made = makeWall({
          wall,
          level,
          path: wallPath(project, wall),
          thickness: wallThickness(project, wall),
          foot,
          pieces,
          footprints: pieces.map((p) => joined.pieces[p.index]!),
          openings: standing,
          roofs: near,
          roofsOver: roofs.length > 0,
          arrangement,
          roomOf,
          topOf,
        });
        const z = level.elevation;
        // A long wall is made anew for one of the rooms beside it: the sides the others see stay the same objects.
        const sides = made.sides.map((side) => this.memo.steady('side', `${side.key} ${side.room ?? ''} ${side.s0.toFixed(6)}`, side, sameSide));
        return { ...made, sides, faces: made.faces.map((m) => lift(m, z)), lids: lift(made.lids, z), caps: lift(made.caps, z) };
      });
      walls.push(derived);
      putWall(
        parts,
        derived,
        (side) => {
          const chosen = chosenForSide(project, side);
          return { finish: chosen ?? (side.outdoors ? BARE.outside : BARE.wall), chosen: chosen !== null };
        },
        this.memo.get('tops of wall', id, [derived.lids], () => splitTop(derived.lids)),
        level.id,
      );
      if (wall.kind === 'boundary') this.boundary(work, id);
    }
    return walls;
  }

  /** How many lines, and how many built walls, meet at a node, in one number. */
  private meeting({ plan: { arrangement } }: Work, node: number): number {
    const fan = arrangement.fans[node];
    let known = meetings.get(fan);
    if (known === undefined) {
      known = fan.length * 100;
      for (const e of fan) if (arrangement.pieces[e.piece]!.left + arrangement.pieces[e.piece]!.right > 0) known++;
      meetings.set(fan, known);
    }
    return known;
  }

  /** What of a room the walls around it follow from; the same object while that stays the same. */
  private shape(room: Room | null): RoomShape | null {
    if (!room) return null;
    const known = this.shapes.get(room.id);
    if (known?.step === room.step && known.cover === room.cover && known.outdoors === room.outdoors) return known;
    const made = { id: room.id, step: room.step, cover: room.cover, outdoors: room.outdoors };
    this.shapes.set(room.id, made);
    return made;
  }

  /** The holes of a floor, or of the ceiling under it, that lie in a room; the same object while they stay the same. */
  private holes(what: string, id: string, holes: readonly Region[], region: Region): Region[] {
    const own = this.memo.get(`${what} cut`, id, [holes, region], () => (holes.length ? boolean('intersection', [region], [...holes]) : NO_HOLES));
    return own.length ? this.memo.steady(what, id, own, (a, b) => a.length === b.length && a.every((r, i) => sameRegion(r, b[i]))) : NO_HOLES;
  }

  private rooms(work: Work, roomOfFace: Map<number, Room>, walls: readonly DerivedWall[], rooflights: readonly DerivedRooflight[]): DerivedRoom[] {
    const sidesOf = new Map<string, WallSide[]>();
    for (const wall of walls)
      for (const side of wall.sides)
        if (side.room) {
          const list = sidesOf.get(side.room);
          if (list) list.push(side);
          else sidesOf.set(side.room, [side]);
        }
    const rooms: DerivedRoom[] = [];
    const above = levelAbove(work.project, work.level.id);
    const inFloor = holesIn(work.project, work.level.id);
    const inCeiling = above ? holesIn(work.project, above.id) : NO_HOLES;
    const cuts = this.memo.steady(
      'cuts in roofs',
      work.level.id,
      roofsToFollow(work.roofs).flatMap((shape) => this.overhead.cut(work.project, shape).map((h): Region => ({ outer: h.ring, holes: [] }))),
      (a, b) => a.length === b.length && a.every((r, i) => sameRegion(r, b[i])),
    );
    for (const [f, room] of roomOfFace) {
      const fresh = work.joined.faces[f];
      if (!fresh || fresh.outer.length < 3) continue;
      const sides = sidesOf.get(room.id) ?? [];
      const lights = rooflights.length ? rooflights.filter((l) => l.room === room.id) : [];
      const follows = room.cover.kind === 'roof' ? roofsToFollow(work.roofs) : [];
      const own = this.memo.get(
        'room',
        room.id,
        [fresh, room, work.level, inFloor, inCeiling, ...sides, ...lights, ...follows, follows.length ? cuts : null],
        () => this.room({ level: work.level, room, fresh, sides, lights, follows, inFloor, inCeiling, cuts: follows.length ? cuts : NO_HOLES }),
      );
      rooms.push(own.derived);
      const owner = { id: room.id, kind: 'rooms', level: work.level.id } as const;
      for (const kind of ['floor', 'ceiling'] as const)
        work.parts.put(owner, {
          part: kind,
          sort: kind,
          finish: room[kind] ?? BARE[kind],
          chosen: room[kind] !== null,
          target: { kind, room: room.id },
          mesh: own[kind],
        });
    }
    return rooms.sort((a, b) => b.area - a.area);
  }

  private room({ level, room, fresh, sides, lights, follows, inFloor, inCeiling, cuts }: RoomGiven): { derived: DerivedRoom; floor: Mesh; ceiling: Mesh } {
    const z = level.elevation;
    const { id } = room;
    const region = this.memo.steady('region', id, fresh, sameRegion);
    const along = room.cover.kind === 'bulkhead' ? room.cover.along : '';
    const edges = along ? sides.filter((s) => s.key === along).map((s) => (s.side === 'left' ? ([s.from, s.to] as const) : ([s.to, s.from] as const))) : [];
    const gone = this.holes('floor holes', id, inFloor, region);
    const over = this.holes('ceiling holes', id, inCeiling, region);
    const bowed = sides.reduce((sum, s) => sum + s.bow.area, 0);
    const longer = sides.reduce((sum, s) => sum + s.length * (s.bow.stretch - 1), 0);
    const figures = this.memo.get('figures', id, [region, gone, level, room.step, room.cover, bowed, longer, ...follows], () => ({
      area: regionArea(region) - totalArea(gone) + bowed,
      bowed,
      highArea: highArea(gone.length ? boolean('difference', [region], gone) : [region], room, level, follows) * (1 + bowed / regionArea(region)),
      perimeter: perimeter(region.outer) + region.holes.reduce((sum, hole) => sum + perimeter(hole), 0) + longer,
      label: labelPoint(region),
      size: extent(region.outer),
    }));
    const plan = this.memo.get('floor and ceiling in plan', id, [region, gone, over, ...lights], () => {
      const lit = lights.map((l): Region => ({ outer: l.ring, holes: [] }));
      return {
        floor: gone.length ? boolean('difference', [region], gone) : [region],
        ceiling: over.length || lit.length ? boolean('difference', [region], [...over, ...lit]) : [region],
      };
    });
    const floor = this.memo.get('floor', id, [plan, z, room.step], () => {
      const builder = new MeshBuilder();
      for (const part of plan.floor) builder.region(part, (p) => ({ ...p, z: z + room.step }), { x: 0, y: 0, z: 1 });
      return builder.build();
    });
    const ceiling = this.memo.get('ceiling', id, [region, over, z, level.height, room.cover, ...edges.flat(), ...lights, ...follows, cuts], () =>
      follows.length
        ? roofCeiling(region, follows, level, cuts)
        : ceilingMesh(region, room, level, z, edges, [
            ...lights.map((l) => ({ region: { outer: l.ring, holes: [] }, kerb: l.rooflight.kerb })),
            // Above a ceiling that hangs lower than the slab, the void goes on up to it.
            ...over.map((r) => ({ region: r, kerb: Math.max(0, level.height - ceilingHeight(room, level)) })),
          ]),
    );
    const height = clearHeight(room, level) ?? level.height - room.step;
    return { derived: { id, room, region, ...figures, ...plan, sides, height, covered: room.cover.kind !== 'open' }, floor, ceiling };
  }

  private slab({ project, level, joined, parts }: Work): void {
    const holes = holesIn(project, level.id);
    const meshes = this.memo.get('slab', level.id, [level.elevation, level.slab, holes, ...joined.outline], () =>
      slabMeshes(joined.outline, level.elevation, level.slab, holes, SLAB_GAP),
    );
    const owner = { id: level.id, kind: 'levels', level: level.id } as const;
    for (const part of ['edge', 'voids'] as const) parts.putOf(owner, level, { part, sort: 'slab', mesh: meshes[part] });
    // The ceilings below hide it.
    parts.put(owner, { part: 'underside', sort: 'slab', finish: BARE.ceiling, target: null, mesh: meshes.underside });
  }

  private openings(work: Work, walls: readonly DerivedWall[]): DerivedOpening[] {
    const { project, level } = work;
    const openings: DerivedOpening[] = [];
    const byWall = new Map(walls.map((w) => [w.id, w]));
    for (const wall of walls) {
      const standing = openingsIn(project, wall.id);
      if (!standing.length) continue;
      const deps: unknown[] = [wall, level];
      for (const opening of standing) {
        deps.push(opening);
        const leg = opening.form === 'corner' ? legOf(project, opening) : null;
        if (leg) deps.push(leg, byWall.get(leg.wall));
      }
      for (const derived of this.memo.get('openings of wall', wall.id, deps, () => standing.map((opening) => this.opening(work, opening, wall)))) {
        openings.push(derived);
        this.putOpening(work, derived);
      }
    }
    return openings;
  }

  private opening({ project, level }: Work, opening: Opening, wall: DerivedWall): DerivedOpening {
    const leg = opening.form === 'corner' ? legOf(project, opening) : null;
    const on = (side: Side): WallSide | undefined => wall.sides.find((s) => s.side === side && opening.at > s.s0 && opening.at < s.s1);
    const [onLeft, onRight] = [on('left'), on('right')];
    const outdoors = { left: onLeft?.outdoors ?? true, right: onRight?.outdoors ?? true };
    const rooms = { left: onLeft?.room ?? null, right: onRight?.room ?? null };
    const own = wall.wall;
    const other = leg && project.walls[leg.wall];
    const deps = [opening, leg, other, other && project.corners[other.start], other && project.corners[other.end], other && project.wallTypes, own];
    deps.push(project.corners[own.start], project.corners[own.end]);
    const place = [wall.thickness, wall.foot, level, rooms.left, rooms.right, outdoors.left, outdoors.right];
    return this.memo.get('opening', opening.id, [...deps, ...place], () =>
      deriveOpening({ project, level, opening, leg, thickness: wall.thickness, foot: wall.foot, rooms, outdoors }),
    );
  }

  private putOpening({ project, level, parts }: Work, { opening, matrix, rooms, parts: filling, floors, glazing }: DerivedOpening): void {
    const owner = { id: opening.id, kind: 'openings', level: level.id, matrix } as const;
    const glass = filling.find(({ part }) => part === 'glass');
    for (const made of filling) parts.putOf(owner, opening, { ...made, sort: 'opening', host: opening.wall, panes: made === glass ? glazing : undefined });
    for (const { side, mesh, z } of floors) {
      const room = rooms[side];
      // The floor in a way belongs to the room beside it.
      if (room) {
        const { floor } = project.rooms[room];
        parts.put(
          { id: room, kind: 'rooms', level: level.id },
          {
            part: 'floor',
            // At another height than the room's it is a floor for itself.
            key: Math.abs(z - project.rooms[room].step) < NEAR ? wayKey(opening.id, side) : `${wayKey(opening.id, side)}/apart`,
            sort: 'floor',
            mesh,
            finish: floor ?? BARE.floor,
            chosen: floor !== null,
            target: { kind: 'floor', room },
          },
        );
      } else parts.putOf(owner, opening, { part: 'threshold', key: wayKey(opening.id, side), sort: 'floor', mesh });
    }
  }

  /** Where floors or ceilings of different heights meet along a boundary, the step between them is closed. */
  private boundary({ level, plan: { arrangement }, roomOf, parts }: Work, id: string): void {
    for (const piece of arrangement.byLine.get(id) ?? []) {
      const [l, r] = [roomOf(arrangement.cycles[piece.index * 2]), roomOf(arrangement.cycles[piece.index * 2 + 1])];
      if (!l || !r) continue;
      const [a, b] = [arrangement.nodes[piece.from], arrangement.nodes[piece.to]];
      const put = (what: 'floor' | 'ceiling', low: Room, high: Room, z0: number, z1: number): void => {
        if (z1 - z0 < NEAR) return;
        // The riser faces the lower floor, the drop of a ceiling the higher one.
        const seen = what === 'floor' ? low : high;
        const [p, q] = seen === r ? [a, b] : [b, a];
        const mesh = this.memo.get(`step of ${what}`, `${id} ${piece.s0}`, [a, b, z0, z1, seen], () => stepFace(p, q, z0, z1));
        const chosen = what === 'floor' ? high.floor : low.ceiling;
        parts.put(
          { id, kind: 'walls', level: level.id },
          {
            part: what,
            key: `${piece.s0}/${what}`,
            sort: what,
            finish: chosen ?? BARE[what],
            chosen: chosen !== null,
            target: { kind: what, room: high.id },
            mesh,
          },
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
}

const NO_HOLES: Region[] = [];
const NO_ROOFS: readonly RoofShape[] = [];

type RoomShape = Pick<Room, 'id' | 'step' | 'cover' | 'outdoors'>;

/** Fans are new objects wherever something about their lines has changed. */
const meetings = new WeakMap<readonly HalfEdge[], number>();

const lift = (mesh: Mesh, z: number): Mesh => (z === 0 ? mesh : { ...mesh, positions: mesh.positions.map((v, i) => (i % 3 === 2 ? v + z : v)) });

/** How far the underside of a slab lies above the ceilings that hide it, metres: no two faces lie in one plane. */
const SLAB_GAP = 0.004;

/** A floor slab: its edge between the walls of two levels, the edges of its holes, its underside. */
export interface SlabMeshes {
  edge: Mesh;
  voids: Mesh;
  underside: Mesh;
}

/**
 * Edges and underside of the floor slab, those of its holes too. Its edges go down to the walls and ceilings below.
 *
 * @param gap how far its underside lies above them, metres
 */
export function slabMeshes(outline: Region[], z: number, full: number, holes: readonly Region[] = [], gap = 0): SlabMeshes {
  const thickness = full - Math.min(gap, full / 2);
  const [edge, voids, underside] = [new MeshBuilder(), new MeshBuilder(), new MeshBuilder()];
  if (thickness > 0)
    for (const { outer } of outline) {
      if (outer.length < 3 || signedArea(outer) <= 0) continue;
      for (const part of holes.length ? boolean('difference', [{ outer, holes: [] }], [...holes]) : [{ outer, holes: [] }]) {
        for (const ring of [part.outer, ...part.holes])
          ring.forEach((p, i) => {
            const q = ring[(i + 1) % ring.length];
            // A hole may reach as far as the edge: what of the ring lies on the outline is edge still.
            const middle = lerp(p, q, 0.5);
            const builder = ring !== part.outer || (holes.length > 0 && !onRing(middle, outer)) ? voids : edge;
            builder.quad({ ...p, z: z - full }, { ...q, z: z - full }, { ...q, z }, { ...p, z });
          });
        underside.region(part, (p) => ({ ...p, z: z - thickness }), { x: 0, y: 0, z: -1 }, true);
      }
    }
  return { edge: edge.build(), voids: voids.build(), underside: underside.build() };
}

/** Whether a point lies on a ring. */
const onRing = (p: Vec2, ring: Ring): boolean => ring.some((a, i) => segmentDistance(p, a, ring[(i + 1) % ring.length]) < NEAR * 10);
