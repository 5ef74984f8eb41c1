import { bar, between } from '../geometry/extrude';
import { MeshBuilder, type Mesh } from '../geometry/mesh';
import { boolean, clipHalf, insideRing } from '../geometry/polygon';
import type { Ring } from '../geometry/region';
import { add, cross, distance, dot, left, lerp, scale, sub, unit, type Vec2, type Vec3 } from '../geometry/vec';
import { planRing, roofHeight, type RoofPlane, type RoofShape } from '../project/roofs';
import type { Framing, Level } from '../project/schema';
import { DUST, HAIR, NEAR } from '../units/tolerance';

export type MemberKind = 'rafter' | 'ridge' | 'hip' | 'valley' | 'purlin' | 'tie' | 'king post' | 'strut';

/** One timber of a roof. Ends of its middle line in the coordinates of the level, metres. */
export interface Member {
  kind: MemberKind;
  a: Vec3;
  b: Vec3;
  length: number;
  width: number;
  depth: number;
  /** A closed solid, in the coordinates of the level; made when it is asked for. */
  readonly mesh: Mesh;
}

export interface DerivedFraming {
  members: Member[];
  /** All of them in world metres. */
  mesh: Mesh;
}

/** What a roof is framed with at first (trade figures). */
export const FRAMING: Framing = {
  shown: true,
  spacing: 0.45,
  rafter: { width: 0.047, depth: 0.175 },
  ridge: { width: 0.047, depth: 0.2 },
  purlins: 0,
  purlin: { width: 0.075, depth: 0.2 },
  ties: 'tie',
  tie: { width: 0.075, depth: 0.225 },
  every: 3,
};

interface Sloping {
  plane: NonNullable<RoofPlane['plane']>;
  ring: Ring;
  edge: number;
  /** Uphill in the plan, and across. */
  up: Vec2;
  across: Vec2;
  tan: number;
  /** Depth upright of what lies square to the plane so deep. */
  upright: number;
}

const zOn = (p: { gx: number; gy: number; c: number }, q: Vec2): number => p.gx * q.x + p.gy * q.y + p.c;

/** Builds one timber, in the coordinates of the level. */
type Build = (into: MeshBuilder) => void;

/** A plan outline as a body that hangs so deep below a plane. */
const hung =
  (ring: Ring, plane: Sloping['plane'], depth: number): Build =>
  (into) => {
    const high = ring.map(({ x, y }) => ({ x, y, z: plane.gx * x + plane.gy * y + plane.c }));
    between(
      into,
      high.map(({ x, y, z }) => ({ x, y, z: z - depth })),
      high,
    );
  };

const barOf =
  (a: Vec3, b: Vec3, width: number, low: number, high: number): Build =>
  (into) =>
    bar(into, a, b, width, low, high);

/**
 * The timbers under a roof: rafters square to the eaves at their spacing, ridges, hips and valleys where planes meet,
 * purlins, and ties or trusses from wall to wall. Rafters are plumb cut along the edges of their planes and trimmed round
 * what is cut out of the roof.
 *
 * @param holes what is cut out of the roof, by the edge of its plane
 */
export function deriveFraming(shape: RoofShape, framing: Framing, level: Level, holes: readonly { edge: number; ring: Ring }[]): DerivedFraming {
  const members: Member[] = [];
  const slopes = shape.under.flatMap((q): Sloping[] => {
    if (!q.plane) return [];
    const g = Math.hypot(q.plane.gx, q.plane.gy);
    if (g < 0.02) return [];
    const up = { x: q.plane.gx / g, y: q.plane.gy / g };
    return [{ plane: q.plane, ring: planRing(q), edge: q.edge, up, across: { x: up.y, y: -up.x }, tan: g, upright: Math.hypot(1, g) }];
  });
  const all = new MeshBuilder();
  const put = (kind: MemberKind, a: Vec3, b: Vec3, width: number, depth: number, build: Build): void => {
    const length = Math.hypot(b.x - a.x, b.y - a.y, b.z - a.z);
    // What is not shown is counted all the same.
    if (framing.shown) build(all);
    members.push({
      kind,
      a,
      b,
      length,
      width,
      depth,
      get mesh() {
        const own = new MeshBuilder();
        build(own);
        return own.build();
      },
    });
  };
  // Rafters.
  const { rafter } = framing;
  for (const s of slopes) {
    const stations = s.ring.map((p) => dot(p, s.across));
    const [from, to] = [Math.min(...stations), Math.max(...stations)];
    const count = Math.max(1, Math.round((to - from - rafter.width) / framing.spacing));
    const pitch = (to - from - rafter.width) / count;
    const cut = holes.filter((h) => h.edge === s.edge).map((h) => ({ outer: h.ring, holes: [] }));
    for (let k = 0; k <= count; k++) {
      const at = from + rafter.width / 2 + k * pitch;
      const strip = clipHalf(
        clipHalf(s.ring, (p) => dot(p, s.across) - at + rafter.width / 2),
        (p) => at + rafter.width / 2 - dot(p, s.across),
      );
      if (strip.length < 3) continue;
      for (const part of cut.length ? boolean('difference', [{ outer: strip, holes: [] }], cut) : [{ outer: strip, holes: [] }]) {
        const ups = part.outer.map((p) => dot(p, s.up));
        const [u0, u1] = [Math.min(...ups), Math.max(...ups)];
        if (u1 - u0 < 0.15) continue;
        const point = (u: number): Vec3 => {
          const p = add(scale(s.across, at), scale(s.up, u));
          return { ...p, z: zOn(s.plane, p) - (rafter.depth / 2) * s.upright };
        };
        put('rafter', point(u0), point(u1), rafter.width, rafter.depth, hung(part.outer, s.plane, rafter.depth * s.upright));
      }
    }
  }
  // Where two planes meet.
  const { ridge } = framing;
  const ridges: [Vec3, Vec3][] = [];
  const planes = shape.under.filter((q) => q.plane);
  for (let i = 0; i < planes.length; i++)
    for (let j = i + 1; j < planes.length; j++)
      for (const [a, b] of sharedEdges(planes[i], planes[j])) {
        const d = unit(sub(b, a));
        const m = lerp(a, b, 0.5);
        const inside = insideRing(add(m, scale(left(d), 1e-3)), planRing(planes[i])) ? planes[i] : planes[j];
        const other = inside === planes[i] ? planes[j] : planes[i];
        const p = add(m, scale(left(d), 0.01));
        const convex = zOn(inside.plane!, p) < zOn(other.plane!, p);
        const level2 = Math.abs(a.z - b.z) < 1e-3;
        const kind: MemberKind = level2 && convex ? 'ridge' : convex ? 'hip' : 'valley';
        if (level2 && !convex) continue;
        // Its top keeps below both planes.
        const fall = Math.max(...[inside, other].map((q) => Math.abs(q.plane!.gx * -d.y + q.plane!.gy * d.x)));
        const drop = convex ? (fall * ridge.width) / 2 : 0;
        const depth = ridge.depth + (kind === 'ridge' ? 0 : 0.025);
        put(kind, { ...a, z: a.z - drop - depth / 2 }, { ...b, z: b.z - drop - depth / 2 }, ridge.width, depth, barOf(a, b, ridge.width, -drop - depth, -drop));
        if (kind === 'ridge') ridges.push([a, b]);
      }
  // Purlins under the rafters, level along each slope.
  const { purlin } = framing;
  for (const s of slopes) {
    const ups = s.ring.map((p) => dot(p, s.up));
    const eave = shape.lines[s.edge];
    const low = Math.max(Math.min(...ups), eave ? dot(eave.a, s.up) : -Infinity);
    const high = Math.max(...ups);
    for (let n = 1; n <= framing.purlins; n++) {
      const u = low + ((high - low) * n) / (framing.purlins + 1);
      const band = clipHalf(
        clipHalf(s.ring, (p) => dot(p, s.up) - u),
        (p) => u + HAIR - dot(p, s.up),
      );
      if (band.length < 2) continue;
      const across = band.map((p) => dot(p, s.across));
      const [a, b] = [Math.min(...across), Math.max(...across)].map((c): Vec3 => {
        const p = add(scale(s.across, c), scale(s.up, u));
        return { ...p, z: zOn(s.plane, p) - rafter.depth * s.upright };
      });
      if (distance(a, b) < 0.3) continue;
      const drop = (purlin.width / 2) * s.tan;
      put(
        'purlin',
        { ...a, z: a.z - drop - purlin.depth / 2 },
        { ...b, z: b.z - drop - purlin.depth / 2 },
        purlin.width,
        purlin.depth,
        barOf(a, b, purlin.width, -drop - purlin.depth, -drop),
      );
    }
  }
  // Ties across, under the ridges, from wall line to wall line.
  if (framing.ties !== 'none')
    for (const [a, b] of ridges) {
      const long = distance(a, b);
      const step = framing.spacing * framing.every;
      const count = Math.max(1, Math.round(long / step));
      const d = unit(sub(b, a));
      for (let k = 0; k <= count; k++) {
        const foot = add(a, scale(d, Math.min(long - framing.tie.width / 2, Math.max(framing.tie.width / 2, (long * k) / count))));
        tie(shape, framing, foot, left(d), put);
      }
    }
  const mesh = all.build();
  for (let k = 2; k < mesh.positions.length; k += 3) mesh.positions[k] += level.elevation;
  return { members, mesh };
}

/** How far a tie lies above the plane the walls end in: the boards of a ceiling are fixed under it, metres. */
const BOARDS = 0.0125;
/** In which steps a tie is drawn in from the walls, metres, and how many at most. */
const STEP = 0.02;
const MOST_STEPS = 200;

/** A tie beam across the roof at a point, with king post and struts where it is a truss. */
function tie(
  shape: RoofShape,
  framing: Framing,
  foot: Vec2,
  across: Vec2,
  put: (kind: MemberKind, a: Vec3, b: Vec3, width: number, depth: number, build: Build) => void,
): void {
  const { width, depth } = framing.tie;
  // Where the line across leaves the walls.
  const ends = ([1, -1] as const).map((k) => {
    let best = Infinity;
    for (const { a, b } of shape.lines) {
      const e = sub(b, a);
      const dir = scale(across, k);
      const det = cross(dir, e);
      if (Math.abs(det) < DUST) continue;
      const w = sub(a, foot);
      const [t, s] = [cross(w, e) / det, cross(w, dir) / det];
      if (t > NEAR && s > -DUST && s < 1 + DUST) best = Math.min(best, t);
    }
    return best;
  });
  if (!ends.every(Number.isFinite)) return;
  const at = (t: number): Vec2 => add(foot, scale(across, t));
  const z = (t: number): number => roofHeight([shape], at(t)) ?? 0;
  const plate = Math.min(z(ends[0] - HAIR), z(-ends[1] + HAIR)) + BOARDS;
  const top = plate + depth;
  // Under the rafters: drawn in from both walls until its upper edge is below them.
  const sag = framing.rafter.depth * 1.2;
  const inset = (end: number, k: 1 | -1): number => {
    // The roof rises inwards: the first step that is high enough is found by halving.
    const clear = (i: number): boolean => end - i * STEP <= 0 || z(k * (end - i * STEP)) - sag >= top;
    let [low, high] = [0, MOST_STEPS];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (clear(middle)) high = middle;
      else low = middle + 1;
    }
    return end - low * STEP;
  };
  const [p, q] = [inset(ends[0], 1), inset(ends[1], -1)];
  if (p + q < 0.4) return;
  const [a, b]: Vec3[] = [
    { ...at(p), z: plate },
    { ...at(-q), z: plate },
  ];
  put('tie', { ...a, z: plate + depth / 2 }, { ...b, z: plate + depth / 2 }, width, depth, barOf(a, b, width, 0, depth));
  if (framing.ties !== 'truss') return;
  const apex = z(0) - framing.ridge.depth;
  if (apex - top < 0.25) return;
  const post = { width, depth: width * 1.4 };
  const half = scale(across, post.depth / 2);
  const [c, e]: Vec3[] = [
    { ...sub(foot, half), z: top },
    { ...add(foot, half), z: top },
  ];
  put('king post', { ...foot, z: top }, { ...foot, z: apex }, width, post.depth, barOf(c, e, width, 0, apex - top));
  for (const k of [1, -1] as const) {
    const out = (k === 1 ? p : q) * 0.52;
    const head = z(k * out) - sag;
    const from: Vec3 = { ...at((k * post.depth) / 2), z: top + 0.12 };
    const to: Vec3 = { ...at(k * out), z: head };
    if (to.z - from.z < 0.1) continue;
    put('strut', from, to, width, 0.12, barOf(from, to, width, -0.06, 0.06));
  }
}

/** The pieces of line two planes have in common, with their heights. */
function sharedEdges(a: RoofPlane, b: RoofPlane): [Vec3, Vec3][] {
  const out: [Vec3, Vec3][] = [];
  a.ring.forEach((p, i) => {
    const q = a.ring[(i + 1) % a.ring.length];
    const l = distance(p, q);
    if (l < 1e-3) return;
    const d = unit(sub(q, p));
    b.ring.forEach((r, k) => {
      const s = b.ring[(k + 1) % b.ring.length];
      if (dot(d, unit(sub(s, r))) > -0.9999) return;
      if (Math.abs(cross(d, sub(r, p))) > HAIR || Math.abs(cross(d, sub(s, p))) > HAIR) return;
      const [t0, t1] = [Math.max(0, dot(sub(s, p), d)), Math.min(l, dot(sub(r, p), d))];
      if (t1 - t0 < 0.05) return;
      const at = (t: number): Vec3 => ({ ...add(p, scale(d, t)), z: p.z + ((q.z - p.z) * t) / l });
      // Both must be there at the same height: planes over one another are not neighbours.
      const zb = (t: number): number => (b.plane ? zOn(b.plane, at(t)) : NaN);
      if (Math.abs(zb(t0) - at(t0).z) > 1e-3) return;
      out.push([at(t0), at(t1)]);
    });
  });
  return out;
}
