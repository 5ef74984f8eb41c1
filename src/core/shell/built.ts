import { cylinder } from '../geometry/shapes';
import { hexahedron, prism } from '../geometry/extrude';
import { MeshBuilder, joinMeshes, type Mesh } from '../geometry/mesh';
import { apart, boxOf, hull, regionArea, signedArea } from '../geometry/polygon';
import type { Region, Ring } from '../geometry/region';
import { cross3, dot3, length3, scale3, sub3, unit3, type Vec2, type Vec3 } from '../geometry/vec';
import type { Thing } from '../project/kinds';
import { INFILLS } from '../project/kinds/first-finishes';
import { levelAbove } from '../project/levels';
import { type RoofShape } from '../project/roofs';
import type { Beam, Guard, Level, Project, Slab, Void } from '../project/schema';
import { guardHeight, holesIn, profileOf, stairVoid, tryLayout } from '../project/stairs';
import { STAIR_PROFILES } from '../project/stair-rules';
import { guardAlong, openStretches, type GuardMeshes } from './guards';
import { onceAt, type Owner, type Parts } from '../model/body';
import type { Memo } from '../model/memo';
import { arrival, deriveStair, type DerivedStair } from './stairs';
import type { DerivedWall } from './wall-types';
import { NEAR } from '../units/tolerance';

export interface DerivedVoid {
  id: string;
  void: Void;
  area: number;
  guard: GuardMeshes | null;
}

export interface DerivedSlab {
  id: string;
  slab: Slab;
  ring: Ring;
  area: number;
  mesh: Mesh;
  guard: GuardMeshes | null;
}

export interface DerivedBeam {
  id: string;
  beam: Beam;
  /** Along its middle line, metres. */
  length: number;
  mesh: Mesh;
  /** Its outline seen from above. */
  ring: Ring;
}

/** What stands on a level besides walls, rooms and openings. */
export interface Built {
  stairs: DerivedStair[];
  voids: DerivedVoid[];
  slabs: DerivedSlab[];
}

const turned = (points: Ring): Ring => (signedArea(points) < 0 ? [...points].reverse() : points);

/** Puts the parts of a guard, in world metres. @param level the level it stands on, where that is not its owner's */
function putGuard(
  parts: Parts,
  owner: Owner & { kind: 'stairs' | 'voids' | 'slabs' },
  thing: Thing,
  name: string,
  guard: Guard,
  made: GuardMeshes,
  level?: string,
): void {
  for (const part of ['rail', 'infill'] as const)
    // A stair may have guards of several kinds.
    parts.putOf(
      owner,
      thing,
      { part, key: `${name}-${part}`, sort: 'guard', mesh: made[part], level, grain: 'length' },
      part === 'infill' ? INFILLS[guard.infill] : undefined,
    );
}

interface RingGuard {
  ring: Ring;
  guard: Guard;
  /** Height of the world its foot stands at, and its own, metres. */
  z: number;
  height: number;
  /** The widest gap in it, metres. */
  limit: number;
  /** What stands in its place, and where one passes. */
  walls: readonly Region[];
  ways: readonly (readonly [Vec2, Vec2])[];
  /** How far inside the ring it stands, metres. */
  inward: number;
}

/** A guard along a ring. */
function ringGuard({ ring, guard, z, height, limit, walls, ways, inward }: RingGuard): GuardMeshes {
  const runs = openStretches(turned(ring), walls, ways, inward).map((line) => line.map((p): Vec3 => ({ ...p, z })));
  return guardAlong(runs, guard, height, limit);
}

/** Box or round bar between two points, closed. @returns in the coordinates of its points */
export function beamSolid(a: Vec3, b: Vec3, beam: Pick<Beam, 'section' | 'width' | 'depth' | 'turn'>): Mesh {
  const axis = sub3(b, a);
  const l = length3(axis);
  if (l < NEAR) return joinMeshes([]);
  const d = scale3(axis, 1 / l);
  // Width lies level where that can be told; upright posts turn about their own line.
  const level = Math.hypot(d.x, d.y) > NEAR ? unit3({ x: -d.y, y: d.x, z: 0 }) : { x: 1, y: 0, z: 0 };
  const up = cross3(d, level);
  const [c, s] = [Math.cos(beam.turn), Math.sin(beam.turn)];
  const u: Vec3 = { x: level.x * c + up.x * s, y: level.y * c + up.y * s, z: level.z * c + up.z * s };
  const v = cross3(d, u);
  const builder = new MeshBuilder();
  if (beam.section === 'round') {
    const [w, h] = [beam.width / 2, beam.depth / 2];
    builder.add(cylinder(0, 0, 0, l, 1, 1, 24), [u.x * w, u.y * w, u.z * w, 0, v.x * h, v.y * h, v.z * h, 0, d.x, d.y, d.z, 0, a.x, a.y, a.z, 1]);
    return builder.build();
  }
  const at = (p: Vec3, i: number, j: number): Vec3 => ({
    x: p.x + (u.x * i * beam.width + v.x * j * beam.depth) / 2,
    y: p.y + (u.y * i * beam.width + v.y * j * beam.depth) / 2,
    z: p.z + (u.z * i * beam.width + v.z * j * beam.depth) / 2,
  });
  const ring = (p: Vec3): Vec3[] => [at(p, -1, -1), at(p, 1, -1), at(p, 1, 1), at(p, -1, 1)];
  // Seen from the far end the section runs counter-clockwise.
  hexahedron(builder, ring(a), ring(b));
  return builder.build();
}

/** A beam or a post as a solid, in world metres. */
export function deriveBeam(beam: Beam, level: Level): DerivedBeam {
  const z = (p: Vec3): Vec3 => ({ ...p, z: p.z + level.elevation });
  const mesh = beamSolid(z(beam.a), z(beam.b), beam);
  const points: Vec2[] = [];
  for (let i = 0; i < mesh.positions.length; i += 3) points.push({ x: mesh.positions[i], y: mesh.positions[i + 1] });
  return { id: beam.id, beam, length: length3(sub3(beam.b, beam.a)), mesh, ring: hull(points) };
}

/** Lines people pass over between a stair and a floor, with their heights in the world. */
function stairWays(project: Project): { line: [Vec2, Vec2]; z: number }[] {
  const out: { line: [Vec2, Vec2]; z: number }[] = [];
  for (const id in project.stairs) {
    const stair = project.stairs[id];
    const layout = tryLayout(project, stair);
    if (layout) out.push({ line: arrival(layout), z: project.levels[stair.level].elevation + stair.z + layout.height });
  }
  return out;
}

const ways = new WeakMap<object, { levels: object; ways: { line: [Vec2, Vec2]; z: number }[] }>();

function waysOf(project: Project): { line: [Vec2, Vec2]; z: number }[] {
  const known = ways.get(project.stairs);
  if (known?.levels === project.levels) return known.ways;
  const made = stairWays(project);
  ways.set(project.stairs, { levels: project.levels, ways: made });
  return made;
}

/** How far from an outline a wall still keeps people from falling, metres. */
const BESIDE = 0.1;

/** Derives stairs, voids and slabs of a level. */
export function deriveBuilt(memo: Memo, project: Project, level: Level, walls: readonly DerivedWall[], roofs: readonly RoofShape[], parts: Parts): Built {
  const built: Built = { stairs: [], voids: [], slabs: [] };
  const inside = STAIR_PROFILES[profileOf(project)];
  const has = (c: Record<string, { level: string }>): boolean => {
    for (const id in c) if (c[id].level === level.id) return true;
    return false;
  };
  const guarded = has(project.voids) || has(project.slabs) || holesIn(project, level.id).length > 0;
  // What keeps people from falling already: walls from the floor up, higher than a guard.
  const standing = guarded
    ? memo.steady(
        'standing walls',
        level.id,
        walls.filter((w) => w.wall.kind === 'wall' && w.foot < 0.2 && w.height > inside.guard.inside).flatMap((w) => w.rings),
        (a, b) => a.length === b.length && a.every((r, i) => r === b[i]),
      )
    : [];
  /** The walls that stand near an outline: others neither hold anybody there nor are asked. */
  const near = (rings: readonly Ring[]): Ring[] => {
    const own = boxOf(rings.flat(), BESIDE);
    return standing.filter((ring) => !apart(own, boxOf(ring)));
  };
  const barriers = (rings: readonly Ring[]): Region[] => rings.map((outer) => ({ outer, holes: [] }));
  for (const id in project.stairs) {
    const stair = project.stairs[id];
    if (stair.level !== level.id) continue;
    const layout = tryLayout(project, stair);
    if (!layout) continue;
    const derived = memo.get('stair', id, [layout, level], () => deriveStair(layout, level));
    built.stairs.push(derived);
    const owner = { id, kind: 'stairs', level: level.id } as const;
    // Its guards on the level above stand in the same body.
    for (const { part, mesh } of derived.parts) parts.putOf(owner, stair, { part, sort: 'stair', mesh, at: onceAt(derived.matrix), grain: 'length' });
  }
  const limit = inside.gap;
  for (const id in project.voids) {
    const own = project.voids[id];
    if (own.level !== level.id) continue;
    const ring = turned(own.points);
    const passed = waysOf(project).filter((w) => Math.abs(w.z - level.elevation) < 0.05);
    const beside = near([ring]);
    const derived = memo.get('void', id, [own, level, ...beside, ...passed.map((w) => w.line)], (): DerivedVoid => {
      const guard =
        own.guard &&
        ringGuard({
          ring,
          guard: own.guard,
          z: level.elevation,
          height: guardHeight(own.guard, profileOf(project), 'inside'),
          limit,
          walls: barriers(beside),
          ways: passed.map((w) => w.line),
          inward: -0.05,
        });
      return { id, void: own, area: regionArea({ outer: ring, holes: [] }), guard };
    });
    built.voids.push(derived);
    if (derived.guard && own.guard) putGuard(parts, { id, kind: 'voids', level: level.id }, own, 'guard', own.guard, derived.guard);
  }
  // Guards round the voids of the stairs that come up here stand on this level, and belong to their stairs.
  for (const id in project.stairs) {
    const stair = project.stairs[id];
    if (!stair.above || levelAbove(project, stair.level)?.id !== level.id) continue;
    const layout = tryLayout(project, stair);
    if (!layout) continue;
    const guard = stair.above;
    const round = memo.get('stair void', id, [layout, level, project.levels], () => stairVoid(project, stair));
    const beside = near(round.map((r) => r.outer));
    const made = memo.get('stair guard', id, [layout, level, project.levels, ...beside], () => {
      const own = round.map((r) =>
        ringGuard({
          ring: r.outer,
          guard,
          z: level.elevation,
          height: guardHeight(guard, stair.profile, 'inside'),
          limit,
          walls: barriers(beside),
          ways: [arrival(layout)],
          inward: -0.05,
        }),
      );
      return {
        rail: joinMeshes(own.map((g) => g.rail)),
        infill: joinMeshes(own.map((g) => g.infill)),
        length: own.reduce((s, g) => s + g.length, 0),
        gap: null,
      };
    });
    putGuard(parts, { id, kind: 'stairs', level: stair.level }, stair, 'above', guard, made, level.id);
  }
  for (const id in project.slabs) {
    const slab = project.slabs[id];
    if (slab.level !== level.id) continue;
    const z = level.elevation + slab.z;
    const passed = waysOf(project).filter((w) => Math.abs(w.z - z) < 0.06);
    const beside = slab.guard ? near([slab.points]) : [];
    const derived = memo.get('slab of its own', id, [slab, level, ...beside, ...passed.map((w) => w.line)], (): DerivedSlab => {
      const ring = turned(slab.points);
      const outside = slab.kind === 'balcony' || slab.kind === 'deck';
      const guard =
        slab.guard &&
        ringGuard({
          ring,
          guard: slab.guard,
          z,
          height: guardHeight(slab.guard, profileOf(project), outside ? 'outside' : 'inside'),
          limit,
          walls: barriers(beside),
          ways: passed.map((w) => w.line),
          inward: 0.05,
        });
      return {
        id,
        slab,
        ring,
        area: regionArea({ outer: ring, holes: [] }),
        mesh: prism([{ outer: ring, holes: [] }], z - slab.thickness, z),
        guard,
      };
    });
    built.slabs.push(derived);
    const meshes = memo.get('slab parts', id, [derived.mesh], () => splitTop(derived.mesh));
    const owner = { id, kind: 'slabs', level: level.id } as const;
    for (const part of ['top', 'edge'] as const) parts.putOf(owner, slab, { part, sort: 'floor-slab', mesh: meshes[part] });
    if (derived.guard && slab.guard) putGuard(parts, owner, slab, 'guard', slab.guard, derived.guard);
  }
  return built;
}

/** The triangles of a mesh that look up, and the others. */
export function splitTop(mesh: Mesh): { top: Mesh; edge: Mesh } {
  const pick = (up: boolean): Mesh => {
    const kept: number[] = [];
    for (let k = 0; k < mesh.indices.length; k += 3) {
      const at = (i: number): Vec3 => ({ x: mesh.positions[i * 3], y: mesh.positions[i * 3 + 1], z: mesh.positions[i * 3 + 2] });
      const [a, b, c] = [at(mesh.indices[k]), at(mesh.indices[k + 1]), at(mesh.indices[k + 2])];
      const n = cross3(sub3(b, a), sub3(c, a));
      if (n.z > 0.5 * Math.sqrt(dot3(n, n)) === up) kept.push(mesh.indices[k], mesh.indices[k + 1], mesh.indices[k + 2]);
    }
    return { ...mesh, indices: Uint32Array.from(kept) };
  };
  return { top: pick(true), edge: pick(false) };
}
