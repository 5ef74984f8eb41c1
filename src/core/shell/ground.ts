import { hexahedron, offsetRing } from '../geometry/extrude';
import { MeshBuilder, type Mesh } from '../geometry/mesh';
import { apart, boolean, boxOf, insideRing, signedArea, totalArea } from '../geometry/polygon';
import type { Region, Ring } from '../geometry/region';
import { add, cross, cross3, distance, dot, left, lerp, scale, scale3, sub, sub3, unit, unit3, type Vec2, type Vec3 } from '../geometry/vec';
import type { Deriving } from '../model/deriving';
import { byOrder, regionOf } from '../project/ground-order';
import type { GroundArea, Project } from '../project/schema';
import { DUST, NEAR, TIGHT, TOUCH } from '../units/tolerance';

export interface DerivedGround {
  id: string;
  own: GroundArea;
  /** As it was drawn, counter-clockwise. */
  ring: Ring;
  /** What the areas above it leave of it; none: they cover it wholly. */
  regions: Region[];
  /** Of what is left, in plan, m². */
  area: number;
  /** Of the water in it, m³. */
  volume: number;
  surface: Mesh;
  /** Banks and basins between it and the ground round about. */
  sides: Mesh;
  /** Kerb or retaining edge: closed solids. */
  edge: Mesh;
  /** The water as a closed solid, for what is measured; empty for land. */
  water: Mesh;
}

/** Sizes of edges, metres. */
const KERB = { width: 0.1, above: 0.05 };
const RETAINING = { width: 0.2, above: 0.1 };
/** How far beside an edge it is asked what lies there, metres. */
const BESIDE = 2 * TOUCH;

export const isWater = (area: Pick<GroundArea, 'kind'>): boolean => area.kind === 'water' || area.kind === 'pool';

/** Height of an area over a point of the plan, metres in the world; of water, of its surface. */
export function areaHeight(area: GroundArea, ground: number, p: Vec2): number {
  if (isWater(area)) return ground + area.z;
  const { direction, fall } = area.slope;
  const d = { x: Math.cos(direction), y: Math.sin(direction) };
  return ground + area.z + fall * dot(sub(p, area.points[0]), d);
}

/**
 * Depth of the water over a point, metres: from that at its first edge to that opposite, along a plane bottom. Where the area
 * goes round behind its first edge, the first depth is had where it lies farthest behind.
 */
export function depthAt(area: GroundArea, p: Vec2): number {
  const ring = area.points;
  const d = unit(sub(ring[1], ring[0]));
  const inwards = Math.sign(signedArea(ring));
  const off = (q: Vec2): number => inwards * cross(d, sub(q, ring[0]));
  const offs = ring.map(off);
  const [least, most] = [Math.min(...offs), Math.max(...offs)];
  const t = most - least < DUST ? 0 : (off(p) - least) / (most - least);
  return area.depth.from + (area.depth.to - area.depth.from) * t;
}

/** The area that lies over all others at a point; null: the ground round about. @param areas from the lowest up */
const topmost = (areas: readonly GroundArea[], p: Vec2): GroundArea | null => areas.findLast((area) => insideRing(p, area.points)) ?? null;

/** Height of the ground over a point: of the area that lies uppermost there; water is passed over. Metres in the world. */
export function groundHeight(project: Pick<Project, 'grounds' | 'site'>, p: Vec2): number {
  const land = Object.values(project.grounds)
    .filter((area) => !isWater(area))
    .sort(byOrder);
  const area = topmost(land, p);
  return area ? areaHeight(area, project.site.ground, p) : project.site.ground;
}

const facing = (ring: Ring, clockwise = false): Ring => (signedArea(ring) < 0 === clockwise ? ring : [...ring].reverse());

/** The rings of a region, each with the region at its left. */
const borders = ({ outer, holes }: Region): Ring[] => [facing(outer), ...holes.map((hole) => facing(hole, true))];

/** A piece of the border of an area, with the area at its left. */
interface Piece {
  a: Vec2;
  b: Vec2;
  /** What lies at its other side; null: the ground round about. */
  by: GroundArea | null;
}

/** An edge in pieces, so that each has one neighbour. @param near the areas about it, from the lowest up */
function pieces(a: Vec2, b: Vec2, near: readonly GroundArea[]): Piece[] {
  const length = distance(a, b);
  if (length < NEAR) return [];
  const d = scale(sub(b, a), 1 / length);
  const cuts = [0, length];
  for (const { points } of near)
    points.forEach((p, i) => {
      const q = points[(i + 1) % points.length];
      const [y0, y1] = [cross(d, sub(p, a)), cross(d, sub(q, a))];
      const [x0, x1] = [dot(d, sub(p, a)), dot(d, sub(q, a))];
      // A corner on the line, or an edge across it.
      if (Math.abs(y0) < NEAR) cuts.push(x0);
      else if (y0 > 0 !== y1 > 0 && Math.abs(y1) >= NEAR) cuts.push(x0 + ((x1 - x0) * y0) / (y0 - y1));
    });
  const sorted = cuts.filter((x) => x >= 0 && x <= length).sort((p, q) => p - q);
  const kept = sorted.filter((x, i) => i === 0 || x - sorted[i - 1] > TOUCH);
  if (length - kept[kept.length - 1] > 0) kept[kept.length - 1] = length;
  const out = scale(left(d), -BESIDE);
  return kept.slice(1).map((x1, i): Piece => {
    const at = (x: number): Vec2 => (x === 0 ? a : x === length ? b : add(a, scale(d, x)));
    const [p, q] = [at(kept[i]), at(x1)];
    return { a: p, b: q, by: topmost(near, add(lerp(p, q, 0.5), out)) };
  });
}

/** A flat or sloping region as a surface that is seen from above or from below. */
function sheet(builder: MeshBuilder, region: Region, z: (p: Vec2) => number, up: boolean): void {
  const [a, ...rest] = region.outer.map((p): Vec3 => ({ ...p, z: z(p) }));
  // By three of its points, the farthest from being in line.
  let n: Vec3 = { x: 0, y: 0, z: 0 };
  for (let i = 0; i + 1 < rest.length; i++) {
    const v = cross3(sub3(rest[i], a), sub3(rest[i + 1], a));
    if (Math.abs(v.z) > Math.abs(n.z)) n = v;
  }
  n = unit3(scale3(n, Math.sign(n.z)));
  builder.region(region, (p) => ({ ...p, z: z(p) }), up ? n : { x: -n.x, y: -n.y, z: -n.z }, !up);
}

/** Upright faces over an edge, where one height lies above another; seen from its right, or from its left. */
function bank(builder: MeshBuilder, a: Vec2, b: Vec2, low: (p: Vec2) => number, high: (p: Vec2) => number, seen: 'right' | 'left'): void {
  const [p, q] = seen === 'left' ? [b, a] : [a, b];
  const rise = (r: Vec2): number => high(r) - low(r);
  let [from, to] = [p, q];
  const [h0, h1] = [rise(p), rise(q)];
  if (h0 < NEAR && h1 < NEAR) return;
  // Where the two heights cross, the bank begins or ends.
  if (h0 < 0) from = lerp(p, q, h0 / (h0 - h1));
  if (h1 < 0) to = lerp(p, q, h0 / (h0 - h1));
  const [a0, b0] = [
    { ...from, z: low(from) },
    { ...to, z: low(to) },
  ];
  const [a1, b1] = [
    { ...from, z: high(from) },
    { ...to, z: high(to) },
  ];
  if (a1.z - a0.z < TIGHT) triangle(builder, a0, b0, b1);
  else if (b1.z - b0.z < TIGHT) triangle(builder, a0, b0, a1);
  else builder.quad(a0, b0, b1, a1);
}

function triangle(builder: MeshBuilder, a: Vec3, b: Vec3, c: Vec3): void {
  const n = unit3(cross3(sub3(b, a), sub3(c, a)));
  const along = unit3(sub3(b, a));
  const at = [a, b, c].map((p) => {
    const r = sub3(p, a);
    return builder.vertex(p, n, r.x * along.x + r.y * along.y + r.z * along.z, p.z);
  });
  builder.triangle(at[0], at[1], at[2]);
}

/**
 * An area of the ground: what those above leave of it, the banks between it and its surroundings, and its kerb.
 * Of two areas that meet at different heights, the higher has the bank; a basin goes up to whatever lies round it.
 *
 * @param ground height of the ground round about, metres in the world
 * @param near the other areas that lie about it, from the lowest up
 */
export function deriveGround(area: GroundArea, ground: number, near: readonly GroundArea[] = []): DerivedGround {
  const whole = regionOf(area);
  const ring = whole.outer;
  const above = near.filter((other) => byOrder(other, area) > 0);
  const cut = above.map(regionOf);
  const regions = cut.length ? boolean('difference', [whole], cut) : [whole];
  const top = (p: Vec2): number => areaHeight(area, ground, p);
  const height = (by: GroundArea | null): ((p: Vec2) => number) => (by ? (p) => areaHeight(by, ground, p) : () => ground);
  const [surface, sides, edge, water] = [new MeshBuilder(), new MeshBuilder(), new MeshBuilder(), new MeshBuilder()];
  const wet = isWater(area);
  const bottom = (p: Vec2): number => top(p) - depthAt(area, p);
  const kerb = kerbLine(area, ring);
  let volume = 0;
  for (const region of regions) {
    sheet(surface, region, top, true);
    const round = borders(region).map((border) => border.map((a, i) => [a, border[(i + 1) % border.length]] as const));
    if (wet) {
      sheet(sides, region, bottom, true);
      sheet(water, region, top, true);
      sheet(water, region, bottom, false);
      for (const [a, b] of round.flat()) bank(water, a, b, bottom, top, 'right');
      // Under a plane surface and over a plane bottom: area times the depth in the middle.
      for (const [i, border] of borders(region).entries()) volume += (i ? -1 : 1) * Math.abs(signedArea(border)) * depthAt(area, centroid(border));
    }
    for (const { a, b, by } of round.flat().flatMap(([p, q]) => pieces(p, q, near))) {
      const rim = height(by);
      // A kerb has a face of its own towards the area; what lies beside another area that is over it has none.
      const kerbed = kerb && !(by && above.includes(by));
      const upTo = (height: (p: Vec2) => number): ((p: Vec2) => number) => (kerbed ? (p) => Math.min(height(p), kerbFoot(area, ground, by, p)) : height);
      if (wet) {
        bank(sides, a, b, bottom, upTo(top), 'left');
        bank(sides, a, b, top, upTo(rim), 'left');
        if (!by || !isWater(by)) bank(sides, a, b, rim, top, 'right');
      } else if (!by) {
        bank(sides, a, b, rim, top, 'right');
        bank(sides, a, b, top, upTo(rim), 'left');
      } else if (!isWater(by) && !(above.includes(by) && kerbLine(by, regionOf(by).outer))) bank(sides, a, b, rim, top, 'right');
    }
  }
  if (kerb) putKerb(edge, area, kerb, ground, near, above);
  return {
    id: area.id,
    own: area,
    ring,
    regions,
    area: totalArea(regions),
    volume,
    surface: surface.build(),
    sides: sides.build(),
    edge: edge.build(),
    water: water.build(),
  };
}

/** The outer line of a kerb along a ring, a point for each of its corners; null where it has none. */
function kerbLine(area: GroundArea, ring: Ring): Ring | null {
  if (area.edge === 'none') return null;
  const outer = offsetRing(ring, -kerbSize(area).width);
  return outer.length === ring.length ? outer : null;
}

const kerbSize = (area: GroundArea): { width: number; above: number } => (area.edge === 'kerb' ? KERB : RETAINING);

/** Height of what a kerb stands against beside its area, and how deep it reaches there. */
const kerbRim = (ground: number, by: GroundArea | null, p: Vec2): number => (by && !isWater(by) ? areaHeight(by, ground, p) : ground);
const kerbFoot = (area: GroundArea, ground: number, by: GroundArea | null, p: Vec2): number => {
  const rim = kerbRim(ground, by, p);
  return isWater(area) ? rim - 0.3 : Math.min(areaHeight(area, ground, p), rim) - 0.2;
};

/** A kerb along the outside of an area's ring, but for where another area lies over it. @param outer its outer line */
function putKerb(edge: MeshBuilder, area: GroundArea, outer: Ring, ground: number, near: readonly GroundArea[], above: readonly GroundArea[]): void {
  const size = kerbSize(area);
  const ring = regionOf(area).outer;
  ring.forEach((from, i) => {
    const j = (i + 1) % ring.length;
    const n = scale(left(unit(sub(ring[j], from))), -size.width);
    for (const { a, b, by } of pieces(from, ring[j], near)) {
      if (by && above.includes(by)) continue;
      // Mitred at the corners of the ring, square where it ends at another area.
      const quad = [a === from ? outer[i] : add(a, n), b === ring[j] ? outer[j] : add(b, n), b, a];
      const at = [a, b, b, a];
      const high = at.map((p) => Math.max(areaHeight(area, ground, p), kerbRim(ground, by, p)) + size.above);
      hexahedron(
        edge,
        quad.map((p, k) => ({ ...p, z: kerbFoot(area, ground, by, at[k]) })),
        quad.map((p, k) => ({ ...p, z: high[k] })),
      );
    }
  });
}

/** Centre of the area of a ring. */
function centroid(ring: Ring): Vec2 {
  let [x, y, sum] = [0, 0, 0];
  ring.forEach((a, i) => {
    const b = ring[(i + 1) % ring.length];
    const c = cross(a, b);
    x += (a.x + b.x) * c;
    y += (a.y + b.y) * c;
    sum += c;
  });
  return { x: x / (3 * sum), y: y / (3 * sum) };
}

/** An area of the ground with its parts. */
export function deriveGroundIn(area: GroundArea, { memo, project, owner, parts }: Deriving): DerivedGround {
  const { ground } = project.site;
  const box = boxOf(area.points, RETAINING.width);
  const near = Object.values(project.grounds)
    .filter((other) => other.id !== area.id && !apart(box, boxOf(other.points)))
    .sort(byOrder);
  const made = memo.get('area of ground', area.id, [area, ground, ...near], () => deriveGround(area, ground, near));
  for (const part of ['surface', 'sides', 'edge'] as const) parts.putOf(owner, area, { part, sort: 'ground', mesh: made[part] });
  return made;
}
