import { MeshBuilder, joinMeshes, type Mesh } from '../geometry/mesh';
import { boolean, insideRing, piecesAround, ringNormal, signedArea, triangulateKeeping } from '../geometry/polygon';
import type { Region, Ring } from '../geometry/region';
import { cross, distance, dot, segmentDistance, sub, unit, type Vec2, type Vec3 } from '../geometry/vec';
import type { DerivedFraming } from './framing';
import { planRing, type RoofPlane, type RoofShape } from '../project/roofs';
import type { Level } from '../project/schema';
import { DUST, HAIR, NEAR, TOUCH, WELD } from '../units/tolerance';

export interface DerivedRoof {
  id: string;
  shape: RoofShape;
  /** Sloping area of its upper side, m². */
  area: number;
  /** Its upper side, its edges, its whole underside: together a closed solid, in world metres. */
  covering: Mesh;
  fascia: Mesh;
  underside: Mesh;
  /** The cut edges of its build-up in what is cut out of it. */
  cuts: Mesh;
  /** What of the underside shows outside the walls. */
  soffit: Mesh;
  gutters: Mesh;
  /** Its timbers; null where it is not framed. */
  framing: DerivedFraming | null;
}

/** What is cut out of a roof, in the plan, by the edge of the plane it is cut from. */
export interface RoofHole {
  edge: number;
  ring: Ring;
}

/** A roof as a solid, and what of it shows. @param covered outlines of what stands below @param holes what is cut out of it */
export function deriveRoof(shape: RoofShape, level: Level, covered: readonly Region[], holes: readonly RoofHole[] = []): DerivedRoof {
  const z = level.elevation;
  const [under, upper] = [shape.under, shape.upper].map((planes) => planes.flatMap((plane) => parted(plane, holes)));
  // Neighbours meet point to point, also where planes were parted.
  const all = [...under, ...upper].flatMap((q) => q.ring);
  const stitched = (plane: RoofPlane): Vec3[] => withPoints3(plane.ring, all);
  const inside = (plane: RoofPlane): boolean => plane.plane !== null || plane.edge < 0;
  const [covering, underside, fascia, cuts] = [new MeshBuilder(), new MeshBuilder(), new MeshBuilder(), new MeshBuilder()];
  for (const plane of upper.filter(inside)) face(plane.plane ? covering : fascia, stitched(plane), z, false);
  for (const plane of under.filter(inside)) face(underside, stitched(plane), z, true);
  for (const hole of holes) {
    const [low, high] = [shape.under, shape.upper].map((planes) => planes.find((q) => q.edge === hole.edge && q.plane)?.plane);
    const own = all.filter((p) => hole.ring.some((a, i) => segmentDistance(p, a, hole.ring[(i + 1) % hole.ring.length]) < NEAR));
    if (low && high) cutFaces(cuts, withPoints3(hole.ring.map(flat), own.map(flat)), low, high, z);
  }
  for (const ring of borders(shape)) ring.forEach((a, i) => edgeBand(fascia, a, ring[(i + 1) % ring.length], under, upper, z));
  if (shape.roof.form === 'flat' && shape.roof.parapet > 0) for (const ring of borders(shape)) fascia.add(parapet(ring, shape, z));
  const soffit = new MeshBuilder();
  for (const plane of under)
    if (plane.plane) for (const part of boolean('difference', [{ outer: planRing(plane), holes: [] }], [...covered])) place(soffit, part, plane, z, true);
  const area = upper.reduce((sum, q) => (q.plane ? sum + signedArea(q.ring) * Math.hypot(1, q.plane.gx, q.plane.gy) : sum), 0);
  return {
    id: shape.roof.id,
    shape,
    area,
    covering: covering.build(),
    fascia: fascia.build(),
    underside: underside.build(),
    cuts: cuts.build(),
    framing: null,
    soffit: soffit.build(),
    gutters: shape.roof.gutter && shape.roof.form === 'pitched' ? joinMeshes(borders(shape).map((ring) => gutters(ring, shape, z))) : joinMeshes([]),
  };
}

/** The rings round a roof, with the roof at their left. */
const borders = ({ outlines }: RoofShape): Ring[] => outlines.flatMap(({ outer, holes }) => [outer, ...holes]);

/** The ceiling of a room that is open to the roof: the underside over it, and flat where no roof is. */
export function roofCeiling(region: Region, roofs: readonly RoofShape[], level: Level, holes: readonly Region[] = []): Mesh {
  const builder = new MeshBuilder();
  for (const { under } of roofs)
    for (const plane of under)
      if (plane.plane)
        for (const part of cutOut(boolean('intersection', [region], [{ outer: planRing(plane), holes: [] }]), holes))
          place(builder, part, plane, level.elevation, true);
  const rest = boolean(
    'difference',
    [region],
    roofs.flatMap((r) => r.outlines),
  );
  for (const part of rest) builder.region(part, (p) => ({ ...p, z: level.elevation + level.height }), { x: 0, y: 0, z: -1 }, true);
  return builder.build();
}

/** A plane as it is left round what is cut out of it. */
function parted(plane: RoofPlane, holes: readonly RoofHole[]): RoofPlane[] {
  const own = plane.plane ? holes.filter((h) => h.edge === plane.edge && insideRing(h.ring[0], plane.ring)) : [];
  if (!own.length) return [plane];
  const { gx, gy, c } = plane.plane!;
  return piecesAround(
    planRing(plane),
    own.map((h) => h.ring),
  ).map((ring) => ({ ...plane, ring: ring.map((p): Vec3 => ({ ...p, z: gx * p.x + gy * p.y + c })) }));
}

const flat = (p: Vec2): Vec3 => ({ x: p.x, y: p.y, z: 0 });

const cutOut = (regions: Region[], holes: readonly Region[]): Region[] =>
  holes.length && regions.length ? boolean('difference', regions, [...holes]) : regions;

/** The edges of a hole through the build-up, seen from within it. */
function cutFaces(builder: MeshBuilder, ring: Ring, low: NonNullable<RoofPlane['plane']>, high: NonNullable<RoofPlane['plane']>, z: number): void {
  const at = (p: Vec2, q: NonNullable<RoofPlane['plane']>): Vec3 => ({ ...p, z: z + q.gx * p.x + q.gy * p.y + q.c });
  const own = signedArea(ring) < 0 ? [...ring].reverse() : ring;
  own.forEach((a, i) => {
    const b = own[(i + 1) % own.length];
    builder.quad(at(b, low), at(a, low), at(a, high), at(b, high));
  });
}

/** What of a roof's underside lies within the walls, but over no room that is open to it. */
export function atticFaces({ shape }: DerivedRoof, level: Level, covered: readonly Region[], open: readonly Region[]): Mesh {
  const builder = new MeshBuilder();
  if (covered.length)
    for (const plane of shape.under)
      if (plane.plane)
        for (const part of cutOut(boolean('intersection', [{ outer: planRing(plane), holes: [] }], [...covered]), open))
          place(builder, part, plane, level.elevation, true);
  return builder.build();
}

/** A part of a plane, seen from above or from below, its texture along the eave and up the slope. */
function place(builder: MeshBuilder, part: Region, { plane }: RoofPlane, z: number, below: boolean): void {
  const { gx, gy, c } = plane!;
  const k = (below ? -1 : 1) / Math.hypot(gx, gy, 1);
  builder.region(part, (p) => ({ ...p, z: z + gx * p.x + gy * p.y + c }), { x: -gx * k, y: -gy * k, z: k }, below);
}

/** A face of the roof with all its points, so that neighbours meet point to point. */
function face(builder: MeshBuilder, ring: readonly Vec3[], z: number, flip: boolean): void {
  const n = ringNormal(ring);
  if (!n) return;
  // Two axes in the face: level along it, and up its slope.
  const level = Math.hypot(n.x, n.y) > NEAR ? unit({ x: -n.y, y: n.x }) : { x: 1, y: 0 };
  const up = { x: n.y * 0 - n.z * level.y, y: n.z * level.x - n.x * 0, z: n.x * level.y - n.y * level.x };
  const flat = ring.map((p) => ({ x: p.x * level.x + p.y * level.y, y: p.x * up.x + p.y * up.y + p.z * up.z }));
  const sign = flip ? -1 : 1;
  const base = ring.map((p, i) => builder.vertex({ x: p.x, y: p.y, z: p.z + z }, { x: n.x * sign, y: n.y * sign, z: n.z * sign }, flat[i].x, flat[i].y));
  const indices = triangulateKeeping(flat);
  for (let i = 0; i < indices.length; i += 3) {
    const [a, b, c] = [base[indices[i]], base[indices[i + 1]], base[indices[i + 2]]];
    if (flip) builder.triangle(a, c, b);
    else builder.triangle(a, b, c);
  }
}

/** The upright band along one edge of the outline between the underside and the upper side: fascia and barge board. */
function edgeBand(builder: MeshBuilder, a: Vec2, b: Vec2, under: readonly RoofPlane[], upper: readonly RoofPlane[], z: number): void {
  const d = unit(sub(b, a));
  const length = distance(a, b);
  const chain = (planes: readonly RoofPlane[]): { s: number; z: number }[] => {
    const found: { s: number; z: number }[] = [];
    for (const { ring, plane } of planes) {
      if (!plane) continue;
      ring.forEach((p, i) => {
        const q = ring[(i + 1) % ring.length];
        if (Math.abs(cross(d, sub(p, a))) > TOUCH || Math.abs(cross(d, sub(q, a))) > TOUCH) return;
        for (const r of [p, q]) {
          const s = dot(sub(r, a), d);
          if (s > -TOUCH && s < length + TOUCH) found.push({ s, z: r.z });
        }
      });
    }
    found.sort((p, q) => p.s - q.s || p.z - q.z);
    return found.filter((p, i) => i === 0 || p.s - found[i - 1].s > TOUCH || Math.abs(p.z - found[i - 1].z) > TOUCH);
  };
  const [low, high] = [chain(under), chain(upper)];
  if (low.length < 2 || high.length < 2) return;
  const ring = [...low, ...high.reverse()].map((q) => ({ x: a.x + d.x * q.s, y: a.y + d.y * q.s, z: q.z }));
  face(builder, ring, z, false);
}

/** A ring with the points of others that lie on its edges. */
function withPoints3(ring: readonly Vec3[], points: readonly Vec3[]): Vec3[] {
  return ring.flatMap((a, i) => {
    const b = ring[(i + 1) % ring.length];
    const d = { x: b.x - a.x, y: b.y - a.y, z: b.z - a.z };
    const l2 = d.x * d.x + d.y * d.y + d.z * d.z;
    const between = points
      .map((p) => ({ p, t: ((p.x - a.x) * d.x + (p.y - a.y) * d.y + (p.z - a.z) * d.z) / l2 }))
      .filter(({ p, t }) => {
        if (t * Math.sqrt(l2) < WELD || (1 - t) * Math.sqrt(l2) < WELD) return false;
        return Math.hypot(p.x - a.x - d.x * t, p.y - a.y - d.y * t, p.z - a.z - d.z * t) < TOUCH;
      })
      .sort((p, q) => p.t - q.t)
      .filter((q, k, list) => k === 0 || (q.t - list[k - 1].t) * Math.sqrt(l2) > WELD);
    return [a, ...between.map((q) => q.p)];
  });
}

const PARAPET = 0.2;

/** The upstand round a flat roof. */
function parapet(ring: Ring, { roof, top }: RoofShape, z: number): Mesh {
  const builder = new MeshBuilder();
  const inner: Ring = ring.map((p, i) => {
    const [a, b] = [ring[(i + ring.length - 1) % ring.length], ring[(i + 1) % ring.length]];
    const [d, e] = [unit(sub(p, a)), unit(sub(b, p))];
    const turn = cross(d, e);
    // The corner of two lines set in by the thickness.
    const k = Math.abs(turn) < DUST ? 0 : (1 - dot(d, e)) / turn;
    return { x: p.x + PARAPET * (-d.y + d.x * -k), y: p.y + PARAPET * (d.x + d.y * -k) };
  });
  const [z0, z1] = [z + top, z + top + roof.parapet];
  ring.forEach((a, i) => {
    const j = (i + 1) % ring.length;
    const [b, p, q] = [ring[j], inner[i], inner[j]];
    builder.quad({ ...a, z: z0 }, { ...b, z: z0 }, { ...b, z: z1 }, { ...a, z: z1 });
    builder.quad({ ...q, z: z0 }, { ...p, z: z0 }, { ...p, z: z1 }, { ...q, z: z1 });
    builder.quad({ ...a, z: z1 }, { ...b, z: z1 }, { ...q, z: z1 }, { ...p, z: z1 });
    builder.quad({ ...p, z: z0 }, { ...q, z: z0 }, { ...b, z: z0 }, { ...a, z: z0 });
  });
  return builder.build();
}

/** Half-round gutters under the eaves: along every edge of the outline that runs level. */
function gutters(ring: Ring, { under }: RoofShape, z: number): Mesh {
  const builder = new MeshBuilder();
  const [r, steps] = [0.06, 8];
  ring.forEach((a, i) => {
    const b = ring[(i + 1) % ring.length];
    const d = unit(sub(b, a));
    const eave = under.find(
      (q) =>
        q.plane &&
        q.ring.some((p, k) => {
          const o = q.ring[(k + 1) % q.ring.length];
          return distance(p, a) < HAIR && distance(o, b) < HAIR && Math.abs(p.z - o.z) < HAIR;
        }),
    );
    if (!eave) return;
    const high = z + eave.ring.find((p) => distance(p, a) < HAIR)!.z + 0.02;
    const out = { x: d.y, y: -d.x };
    const at = (end: Vec2, k: number, radius: number): Vec3 => {
      const angle = Math.PI + (Math.PI * k) / steps;
      const off = r + radius * Math.cos(angle);
      return { x: end.x + out.x * off, y: end.y + out.y * off, z: high + radius * Math.sin(angle) };
    };
    for (let k = 0; k < steps; k++) {
      builder.quad(at(a, k, r), at(b, k, r), at(b, k + 1, r), at(a, k + 1, r));
      builder.quad(at(a, k + 1, r - 0.004), at(b, k + 1, r - 0.004), at(b, k, r - 0.004), at(a, k, r - 0.004));
    }
  });
  return builder.build();
}
