import { bar, hexahedron, offsetRing, post } from '../geometry/extrude';
import { MeshBuilder, type Mesh } from '../geometry/mesh';
import { boolean, insideRing, regionArea, signedArea, triangulateKeeping, union } from '../geometry/polygon';
import type { Region, Ring } from '../geometry/region';
import { beside } from '../geometry/polyline';
import { add, cross, cross3, distance, dot, left, lerp, scale, sub, sub3, unit, unit3, type Vec2, type Vec3 } from '../geometry/vec';
import type { Background, Fence, GroundArea, Project } from '../project/schema';
import { Parts, type Owned, type Owner } from '../model/body';
import type { Deriving } from '../model/deriving';
import type { Memo } from '../model/memo';
import { BARE } from '../project/kinds/first-finishes';
import { DUST, NEAR, TIGHT } from '../units/tolerance';

export interface DerivedGround {
  id: string;
  own: GroundArea;
  ring: Ring;
  /** In plan, m². */
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

export interface DerivedFence {
  id: string;
  fence: Fence;
  /** Along its line, metres. */
  length: number;
  mesh: Mesh;
  /** Its outline seen from above, one a stretch. */
  rings: Ring[];
}

/** Sizes of edges, metres. */
const KERB = { width: 0.1, above: 0.05 };
const RETAINING = { width: 0.2, above: 0.1 };
/** How far the ground is drawn, metres. */
export const GROUND_REACH = 400;

const isWater = (area: Pick<GroundArea, 'kind'>): boolean => area.kind === 'water' || area.kind === 'pool';

/** Height of an area over a point of the plan, metres in the world; of water, of its surface. */
export function areaHeight(area: GroundArea, ground: number, p: Vec2): number {
  if (isWater(area)) return ground + area.z;
  const { direction, fall } = area.slope;
  const d = { x: Math.cos(direction), y: Math.sin(direction) };
  return ground + area.z + fall * dot(sub(p, area.points[0]), d);
}

/** Depth of the water over a point: from that at its first edge to that opposite, metres. */
export function depthAt(area: GroundArea, p: Vec2): number {
  const ring = area.points;
  const d = unit(sub(ring[1], ring[0]));
  const off = (q: Vec2): number => Math.abs(cross(d, sub(q, ring[0])));
  const most = Math.max(...ring.map(off));
  const t = most < DUST ? 0 : off(p) / most;
  return area.depth.from + (area.depth.to - area.depth.from) * t;
}

/** Height of the ground over a point: of the area it lies in, the highest where several do; water is passed over. Metres in the world. */
export function groundHeight(project: Pick<Project, 'grounds' | 'site'>, p: Vec2): number {
  let best: number | null = null;
  for (const id in project.grounds) {
    const area = project.grounds[id];
    if (isWater(area) || !insideRing(p, area.points)) continue;
    const z = areaHeight(area, project.site.ground, p);
    if (best === null || z > best) best = z;
  }
  return best ?? project.site.ground;
}

/** A flat or sloping outline as a surface that is seen from above or from below. */
function sheet(builder: MeshBuilder, ring: Ring, z: (p: Vec2) => number, up: boolean): void {
  const points = ring.map((p): Vec3 => ({ ...p, z: z(p) }));
  const a = points[0];
  // Normal of the plane by three of its points, or upright where they lie in line.
  let n: Vec3 = { x: 0, y: 0, z: 1 };
  for (let i = 2; i < points.length; i++) {
    const [b, c] = [points[i - 1], points[i]];
    const v = {
      x: (b.y - a.y) * (c.z - a.z) - (b.z - a.z) * (c.y - a.y),
      y: (b.z - a.z) * (c.x - a.x) - (b.x - a.x) * (c.z - a.z),
      z: (b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x),
    };
    if (v.z > DUST) {
      const l = Math.hypot(v.x, v.y, v.z);
      n = { x: v.x / l, y: v.y / l, z: v.z / l };
      break;
    }
  }
  const k = up ? 1 : -1;
  const base = points.map((p) => builder.vertex(p, { x: n.x * k, y: n.y * k, z: n.z * k }, p.x, p.y));
  const indices = triangulateKeeping(ring);
  for (let i = 0; i < indices.length; i += 3) {
    const [p, q, r] = [base[indices[i]], base[indices[i + 1]], base[indices[i + 2]]];
    if (up) builder.triangle(p, q, r);
    else builder.triangle(p, r, q);
  }
}

/** Upright faces along a ring between two heights, seen from outside where the first is the lower one. */
function skirt(builder: MeshBuilder, ring: Ring, low: (p: Vec2) => number, high: (p: Vec2) => number, inwards: boolean): void {
  ring.forEach((a, i) => {
    const b = ring[(i + 1) % ring.length];
    const [p, q] = inwards ? [b, a] : [a, b];
    if (Math.abs(high(p) - low(p)) + Math.abs(high(q) - low(q)) < NEAR) return;
    const [a0, b0, b1, a1] = [
      { ...p, z: low(p) },
      { ...q, z: low(q) },
      { ...q, z: high(q) },
      { ...p, z: high(p) },
    ];
    // Where both heights come together at one end, a triangle is left.
    if (a1.z - a0.z < TIGHT) triangle(builder, a0, b0, b1);
    else if (b1.z - b0.z < TIGHT) triangle(builder, a0, b0, a1);
    else builder.quad(a0, b0, b1, a1);
  });
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

export function deriveGround(area: GroundArea, ground: number): DerivedGround {
  const ring = signedArea(area.points) < 0 ? [...area.points].reverse() : [...area.points];
  const top = (p: Vec2): number => areaHeight(area, ground, p);
  const [surface, sides, edge, water] = [new MeshBuilder(), new MeshBuilder(), new MeshBuilder(), new MeshBuilder()];
  sheet(surface, ring, top, true);
  let volume = 0;
  const planArea = regionArea({ outer: ring, holes: [] });
  if (isWater(area)) {
    const bottom = (p: Vec2): number => top(p) - depthAt(area, p);
    // The basin: its bottom seen from above, its sides from within, up to the ground.
    sheet(sides, ring, bottom, true);
    skirt(sides, ring, bottom, () => ground, true);
    sheet(water, ring, top, true);
    sheet(water, ring, bottom, false);
    skirt(water, ring, bottom, top, false);
    // Under a plane surface and over a plane bottom: area times the depth in the middle.
    volume = planArea * depthAt(area, centroid(ring));
  } else {
    // A bank down to the ground where it lies above, up to it where it lies below.
    skirt(sides, ring, (p) => Math.min(top(p), ground), top, false);
    skirt(sides, ring, top, (p) => Math.max(top(p), ground), true);
  }
  if (area.edge !== 'none') {
    const size = area.edge === 'kerb' ? KERB : RETAINING;
    const outer = offsetRing(ring, -size.width);
    if (outer.length === ring.length)
      ring.forEach((a, i) => {
        const j = (i + 1) % ring.length;
        const quad = [outer[i], outer[j], ring[j], a];
        const at = [a, ring[j], ring[j], a];
        const high = at.map((p) => Math.max(top(p), ground) + size.above);
        const low = at.map((p) => (isWater(area) ? ground - 0.3 : Math.min(top(p), ground) - 0.2));
        hexahedron(
          edge,
          quad.map((p, k) => ({ ...p, z: low[k] })),
          quad.map((p, k) => ({ ...p, z: high[k] })),
        );
      });
  }
  return { id: area.id, own: area, ring, area: planArea, volume, surface: surface.build(), sides: sides.build(), edge: edge.build(), water: water.build() };
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

/** Distance between the posts of a fence, metres, at most. */
const BAY = 1.8;

export function deriveFence(fence: Fence, foot: (p: Vec2) => number): DerivedFence {
  const builder = new MeshBuilder();
  const line = fence.closed ? [...fence.points, fence.points[0]] : fence.points;
  const rings: Ring[] = [];
  let total = 0;
  const half = fence.thickness / 2;
  const [l, r] = [beside(line, half), beside(line, -half)];
  for (let i = 0; i + 1 < line.length; i++) {
    const [a, b] = [line[i], line[i + 1]];
    const length = distance(a, b);
    if (length < NEAR) continue;
    total += length;
    const d = unit(sub(b, a));
    const bays = Math.max(1, Math.ceil(length / BAY - DUST));
    const at = (s: number): Vec3 => {
      const p = lerp(a, b, s / length);
      return { ...p, z: foot(p) + fence.z };
    };
    if (fence.kind === 'hedge' || fence.kind === 'wall') {
      rings.push([r[i], r[i + 1], l[i + 1], l[i]]);
      // In bays, so that it follows the ground; its corners are mitred.
      for (let k = 0; k < bays; k++) {
        const [s, e] = [k / bays, (k + 1) / bays];
        const quad = [lerp(r[i], r[i + 1], s), lerp(r[i], r[i + 1], e), lerp(l[i], l[i + 1], e), lerp(l[i], l[i + 1], s)];
        const z = [at(s * length).z, at(e * length).z, at(e * length).z, at(s * length).z];
        hexahedron(
          builder,
          quad.map((p, q) => ({ ...p, z: z[q] - 0.1 })),
          quad.map((p, q) => ({ ...p, z: z[q] + fence.height })),
        );
      }
      continue;
    }
    const n = scale(left(d), half);
    rings.push([sub(a, n), sub(b, n), add(b, n), add(a, n)]);
    for (let k = 0; k <= bays; k++) {
      const p = at((length * k) / bays);
      if (k < bays || !fence.closed) post(builder, p, d, 0.09, p.z - 0.3, p.z + fence.height + 0.05);
    }
    for (let k = 0; k < bays; k++) {
      const [p, q] = [at((length * k) / bays), at((length * (k + 1)) / bays)];
      const rails = fence.kind === 'rails' ? [0.3, 0.62, 0.94] : [0.18, 0.85];
      for (const share of rails) bar(builder, p, q, 0.04, fence.height * share - 0.05, fence.height * share + 0.03);
      if (fence.kind === 'rails') continue;
      const side = scale(left(d), 0.03);
      const count = Math.max(1, Math.floor(distance(p, q) / 0.11));
      for (let m = 0; m < count; m++) {
        const [s, e] = [(m + 0.04) / count, (m + 0.96) / count];
        const board = (t: number): Vec3 => ({ ...add(lerp(p, q, t), side), z: p.z + (q.z - p.z) * t });
        bar(builder, board(s), board(e), 0.02, 0.05, fence.height);
      }
    }
  }
  return { id: fence.id, fence, length: total, mesh: builder.build(), rings };
}

/** Deterministic heights of a far silhouette, 0 to 1: a few waves laid over one another. */
const waves = (angle: number, seed: number): number =>
  0.5 + 0.24 * Math.sin(angle * 3 + seed) + 0.16 * Math.sin(angle * 7 + seed * 2.3) + 0.1 * Math.sin(angle * 17 + seed * 4.1);

/** What is seen beyond the site: rings of a landscape, far enough not to come near. */
export function backdrop(background: Background, ground: number): { part: string; finish: string; mesh: Mesh }[] {
  if (background === 'none') return [];
  const out: { part: string; finish: string; mesh: Mesh }[] = [];
  const ring = (part: string, finish: string, radius: number, low: number, high: number, seed: number, rough: number): void => {
    const builder = new MeshBuilder();
    const STEPS = 180;
    const at = (k: number): { p: Vec2; h: number } => {
      const angle = (2 * Math.PI * (k % STEPS)) / STEPS;
      const crown = rough * (0.5 + 0.5 * Math.sin(angle * 61 + seed)) * (0.6 + 0.4 * Math.sin(angle * 113 + seed * 3));
      return { p: { x: radius * Math.cos(angle), y: radius * Math.sin(angle) }, h: low + (high - low) * waves(angle, seed) + crown };
    };
    for (let k = 0; k < STEPS; k++) {
      const [a, b] = [at(k), at(k + 1)];
      // Seen from the middle.
      builder.quad({ ...b.p, z: ground - 1 }, { ...a.p, z: ground - 1 }, { ...a.p, z: ground + a.h }, { ...b.p, z: ground + b.h });
    }
    out.push({ part, finish, mesh: builder.build() });
  };
  if (background === 'fields') {
    ring('hedgerow', 'backdrop.near', 130, 2, 4, 1, 2.5);
    ring('rise', 'backdrop.middle', 220, 8, 20, 2.7, 1.5);
    ring('hills', 'backdrop.far', 340, 22, 48, 5.1, 0);
  } else if (background === 'woods') {
    ring('trees', 'backdrop.near', 80, 10, 15, 1.3, 5);
    ring('wood', 'backdrop.middle', 140, 18, 28, 3.9, 6);
    ring('hills', 'backdrop.far', 340, 30, 60, 5.1, 0);
  } else {
    ring('trees', 'backdrop.near', 95, 4, 7, 1.3, 3);
    const builder = new MeshBuilder();
    const COUNT = 64;
    for (let k = 0; k < COUNT; k++) {
      const angle = (2 * Math.PI * k) / COUNT;
      const w = 6 + 5 * waves(angle * 5, 2);
      const h = 6 + 9 * waves(angle * 9, 4);
      const d = { x: Math.cos(angle), y: Math.sin(angle) };
      const [c, u] = [scale(d, 150), left(d)];
      const quad = [
        add(add(c, scale(u, -w)), scale(d, -5)),
        add(add(c, scale(u, -w)), scale(d, 5)),
        add(add(c, scale(u, w)), scale(d, 5)),
        add(add(c, scale(u, w)), scale(d, -5)),
      ];
      const ring4 = signedArea(quad) < 0 ? [...quad].reverse() : quad;
      hexahedron(
        builder,
        ring4.map((p) => ({ ...p, z: ground - 1 })),
        ring4.map((p) => ({ ...p, z: ground + h })),
      );
    }
    out.push({ part: 'houses', finish: 'brick.red-stock', mesh: builder.build() });
    ring('hills', 'backdrop.far', 340, 16, 34, 5.1, 0);
  }
  return out;
}

/** The ground round about, with holes where areas and basins lie. */
function groundSheet(ground: number, holes: readonly Region[], reach: number): Mesh {
  const builder = new MeshBuilder();
  const square: Ring = [
    { x: -reach, y: -reach },
    { x: reach, y: -reach },
    { x: reach, y: reach },
    { x: -reach, y: reach },
  ];
  for (const part of holes.length ? boolean('difference', [{ outer: square, holes: [] }], [...holes]) : [{ outer: square, holes: [] }])
    builder.region(part, (p) => ({ ...p, z: ground }), { x: 0, y: 0, z: 1 });
  return builder.build();
}

/** An area of the ground with its parts. */
export function deriveGroundIn(area: GroundArea, { memo, project, owner, parts }: Deriving): DerivedGround {
  const { ground } = project.site;
  const made = memo.get('area of ground', area.id, [area, ground], () => deriveGround(area, ground));
  for (const part of ['surface', 'sides', 'edge'] as const) parts.putOf(owner, area, { part, sort: 'ground', mesh: made[part] });
  return made;
}

/** A fence with its parts; it follows the ground. */
export function deriveFenceIn(fence: Fence, { memo, project, owner, parts }: Deriving): DerivedFence {
  const made = memo.get('fence', fence.id, [fence, project.grounds, project.site], () => deriveFence(fence, (p) => groundHeight(project, p)));
  parts.putOf(owner, fence, { part: 'body', sort: 'fence', mesh: made.mesh });
  return made;
}

/** The ground round about, and what is seen beyond the site. @param project in one phase */
export function deriveSite(memo: Memo, project: Project): readonly Owned[] {
  const { ground, background } = project.site;
  const parts = new Parts(memo, project);
  const holes = memo.get('ground holes', '', [project.grounds, ground], () => {
    const rings = Object.values(project.grounds).map(({ points }) => ({ outer: signedArea(points) < 0 ? [...points].reverse() : points, holes: [] }));
    return rings.length > 1 ? union(rings) : rings;
  });
  const near = memo.get('ground', '', [holes, ground], () => groundSheet(ground, holes, GROUND_REACH));
  const own = project.outside.ground;
  parts.put(SITE, { part: 'sheet', sort: 'ground', finish: own ?? BARE.ground, chosen: own !== null, target: { kind: 'ground' }, mesh: near });
  for (const { part, finish, mesh } of memo.get('backdrop', '', [background, ground], () => backdrop(background, ground)))
    parts.put(BEYOND, { part, sort: 'backdrop', finish, target: null, mesh });
  return parts.made;
}

/** The ground round about, and what is seen beyond the site. No thing of a project can have these ids. */
export const SITE: Owner = { id: '/site', kind: 'site', level: null };
export const BEYOND: Owner = { id: '/beyond', kind: 'backdrop', level: null };
