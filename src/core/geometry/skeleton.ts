import { insideRing, signedArea } from './polygon';
import type { Region, Ring } from './region';
import { add, cross, distance, dot, left, lerp, scale, sub, unit, type Vec2, type Vec3 } from './vec';
import { DUST, NEAR, NIL, TIGHT } from '../units/tolerance';

/** How an edge of the outline moves inwards as the height grows: from a height on, so many metres for each metre of rise. */
export interface Slope {
  from: number;
  /** Metres inwards a metre of rise: 1 / tan(pitch); 0 where it rises upright. */
  run: number;
}

/** One plane piece of a roof over an outline: what one edge sweeps on one slope. */
export interface SweptFace {
  /** Index of the edge: those of the outer ring first, then of each hole. −1: an upright step between two edges in one line. */
  edge: number;
  /** Which of its slopes. */
  slope: number;
  /** Its corners, counter-clockwise seen from above (from outside where it is upright). Height in `z`. */
  ring: Vec3[];
}

/** A sweep of an outline: its faces, and what is left where it was stopped. */
export interface Sweep {
  faces: SweptFace[];
  /** Flat regions left at the height where it stopped. */
  cap: Region[];
  /** Greatest height reached. */
  top: number;
}

interface Line {
  edge: number;
  u: Vec2;
  n: Vec2;
  slopes: readonly Slope[];
}

/** A corner of the moving outline and the edge that leaves it. */
interface Node {
  p: Vec2;
  line: Line;
  v: Vec2;
}

interface Quad {
  line: Line;
  slope: number;
  z0: number;
  z1: number;
  a0: Vec2;
  b0: Vec2;
  a1: Vec2;
  b1: Vec2;
}

export class SweepError extends Error {}

/**
 * Sweeps the edges of an outline inwards and upwards, each by its own slopes, until they meet: the roof with a plane over
 * every edge, hips, valleys and ridges where planes meet. With one slope for all edges this is the straight skeleton
 * (Aichholzer and others 1995); with several its weighted form, and with slopes that begin at a height its additively
 * weighted one, which gives half hips, mansards and eaves of different heights.
 *
 * The outline is moved from event to event: an edge that shrinks to nothing, a corner that meets an edge, a slope that
 * begins. At each the outline is brought in order again: what has no length is dropped, what touches is parted.
 *
 * @param region outline, counter-clockwise, and its holes, clockwise
 * @param slopes of each edge, rising by `from`; an edge stands upright below the first
 * @param stop height at which it ends flat
 * @throws SweepError where the edges never meet
 */
export function sweepOutline(region: Region, slopes: readonly (readonly Slope[])[], stop = Infinity): Sweep {
  let index = 0;
  let loops: Node[][] = [region.outer, ...region.holes].map((ring) =>
    ring.map((p, i): Node => {
      const u = unit(sub(ring[(i + 1) % ring.length], p));
      return { p, v: { x: 0, y: 0 }, line: { edge: index, u, n: left(u), slopes: slopes[index++] } };
    }),
  );
  const starts = [...new Set(slopes.flatMap((list) => list.map((s) => s.from)))].sort((a, b) => a - b);
  let z = starts[0] ?? 0;
  const quads: Quad[] = [];
  const most = 40 * (index + 4);
  for (let step = 0; loops.length && z < stop; step++) {
    if (step > most) throw new SweepError('The edges of the outline never meet.');
    const runs = (line: Line): number => runAt(line.slopes, z);
    loops = loops.map((loop) => stepped(loop, runs));
    for (const loop of loops) setVelocities(loop, runs);
    const change = starts.find((s) => s > z + NEAR) ?? Infinity;
    const next = Math.min(stop, change, z + timeToEvent(loops, runs));
    if (!Number.isFinite(next)) throw new SweepError('The edges of the outline never meet; let one of them slope.');
    const dt = next - z;
    const moved = loops.map((loop) => loop.map((node): Node => ({ ...node, p: add(node.p, scale(node.v, dt)) })));
    snap(moved);
    if (dt > 0)
      loops.forEach((loop, k) =>
        loop.forEach((node, i) => {
          const j = (i + 1) % loop.length;
          const after = moved[k];
          quads.push({ line: node.line, slope: slopeAt(node.line.slopes, z), z0: z, z1: next, a0: node.p, b0: loop[j].p, a1: after[i].p, b1: after[j].p });
        }),
      );
    z = next;
    loops = inOrder(moved);
  }
  return { faces: facesOf(quads), cap: regionsOf(loops), top: z };
}

const slopeAt = (slopes: readonly Slope[], z: number): number => {
  let k = -1;
  for (let i = 0; i < slopes.length; i++) if (slopes[i].from <= z + NEAR) k = i;
  return k;
};

const runAt = (slopes: readonly Slope[], z: number): number => slopes[slopeAt(slopes, z)]?.run ?? 0;

/** Puts upright steps between edges in one line that move at different speeds. */
function stepped(loop: readonly Node[], runs: (line: Line) => number): Node[] {
  return loop.flatMap((node, i) => {
    const before = loop[(i + loop.length - 1) % loop.length].line;
    const { line } = node;
    if (Math.abs(cross(before.u, line.u)) > DUST || dot(before.u, line.u) < 0) return [node];
    const difference = runs(before) - runs(line);
    if (Math.abs(difference) < DUST) return [node];
    const u = difference > 0 ? scale(line.n, -1) : line.n;
    return [{ ...node, line: { edge: -1, u, n: left(u), slopes: [] } }, node];
  });
}

/** The speed of every corner: along both of its edges it keeps up with their moving lines. */
function setVelocities(loop: Node[], runs: (line: Line) => number): void {
  loop.forEach((node, i) => {
    const a = loop[(i + loop.length - 1) % loop.length].line;
    const b = node.line;
    const [sa, sb] = [runs(a), runs(b)];
    const det = cross(a.n, b.n);
    node.v = Math.abs(det) < DUST ? scale(b.n, sb) : { x: (sa * b.n.y - sb * a.n.y) / det, y: (sb * a.n.x - sa * b.n.x) / det };
  });
}

/** How much higher the next thing happens: an edge has shrunk to nothing, or a hollow corner has met an edge. */
function timeToEvent(loops: readonly Node[][], runs: (line: Line) => number): number {
  let best = Infinity;
  for (const loop of loops)
    loop.forEach((node, i) => {
      const next = loop[(i + 1) % loop.length];
      const rate = dot(sub(next.v, node.v), node.line.u);
      if (rate < -NIL) best = Math.min(best, Math.max(0, dot(sub(next.p, node.p), node.line.u) / -rate));
    });
  for (const loop of loops)
    loop.forEach((corner, i) => {
      const before = loop[(i + loop.length - 1) % loop.length];
      if (cross(before.line.u, corner.line.u) > -DUST) return;
      for (const other of loops)
        other.forEach((node, j) => {
          const end = other[(j + 1) % other.length];
          if (node === corner || end === corner) return;
          const { n, u } = node.line;
          const away = dot(n, sub(corner.p, node.p));
          const rate = dot(n, corner.v) - runs(node.line);
          if (rate > -NIL || away < -NEAR) return;
          const t = Math.max(0, away / -rate);
          if (t >= best) return;
          const at = add(corner.p, scale(corner.v, t));
          const [p, q] = [add(node.p, scale(node.v, t)), add(end.p, scale(end.v, t))];
          const s = dot(sub(at, p), u);
          if (s > -NEAR && s < dot(sub(q, p), u) + NEAR) best = t;
        });
    });
  return best;
}

/** Brings corners that have come to lie at one place to exactly the same point. */
function snap(loops: readonly Node[][]): void {
  const all = loops.flat();
  const size = NEAR * 20;
  const cells = new Map<string, Node[]>();
  for (const node of all) {
    const [x, y] = [Math.floor(node.p.x / size), Math.floor(node.p.y / size)];
    let found: Node | undefined;
    for (let i = -1; i <= 1 && !found; i++)
      for (let j = -1; j <= 1 && !found; j++) found = cells.get(`${x + i} ${y + j}`)?.find((o) => distance(o.p, node.p) < NEAR * 4);
    if (found) node.p = found.p;
    const key = `${x} ${y}`;
    const list = cells.get(key);
    if (list) list.push(node);
    else cells.set(key, [node]);
  }
}

/** The loops without edges of no length and without spikes, parted where they touch, without those of no area. */
function inOrder(loops: readonly Node[][]): Node[][] {
  const open = loops.map(tidy);
  const done: Node[][] = [];
  while (open.length) {
    const loop = open.pop()!;
    if (loop.length < 3) continue;
    const touch = touching(loop, [...open, ...done]);
    if (!touch) {
      done.push(loop);
      continue;
    }
    const { i, other, j, atEnd } = touch;
    if (other === loop) {
      const [p, q] = partLoop(loop, i, j, atEnd);
      open.push(tidy(p), tidy(q));
    } else {
      for (const list of [open, done]) {
        const k = list.indexOf(other);
        if (k >= 0) list.splice(k, 1);
      }
      const around = (list: readonly Node[], from: number): Node[] => [...list.slice(from), ...list.slice(0, from)];
      const joined = atEnd
        ? [...around(loop, i), ...around(other, j)]
        : [...around(loop, i), { ...other[j], p: loop[i].p }, ...around(other, (j + 1) % other.length)];
      open.push(tidy(joined));
    }
  }
  return done.filter((loop) => Math.abs(signedArea(loop.map((n) => n.p))) > NEAR * length(loop));
}

const length = (loop: readonly Node[]): number => loop.reduce((sum, n, i) => sum + distance(n.p, loop[(i + 1) % loop.length].p), 0);

/** A loop parted at a corner that touches one of its edges (or, at the end of it, another corner). */
function partLoop(loop: readonly Node[], i: number, j: number, atEnd: boolean): [Node[], Node[]] {
  const from = (a: number, b: number): Node[] => {
    const out: Node[] = [];
    for (let k = a; ; k = (k + 1) % loop.length) {
      out.push(loop[k]);
      if (k === b) return out;
    }
  };
  const before = (k: number): number => (k + loop.length - 1) % loop.length;
  if (atEnd) return [from(i, before(j)), from(j, before(i))];
  return [from(i, j), [{ ...loop[j], p: loop[i].p }, ...from((j + 1) % loop.length, before(i))]];
}

interface Touch {
  i: number;
  other: Node[];
  j: number;
  /** Whether it is the corner `j` that is touched, not the edge that leaves it. */
  atEnd: boolean;
}

/**
 * The first place where a corner of a loop meets an edge or a corner that it does not belong to, and their insides overlap
 * there, so that the loops must change partners. Loops that touch from outside are left alone.
 */
function touching(loop: Node[], others: readonly Node[][]): Touch | null {
  for (const other of [loop, ...others])
    for (let i = 0; i < loop.length; i++)
      for (let j = 0; j < other.length; j++) {
        const p = loop[i].p;
        const b = other[(j + 1) % other.length].p;
        if (other === loop && (j === i || (j + 1) % loop.length === i)) continue;
        const atEnd = distance(p, other[j].p) < NEAR;
        if (!atEnd && !onEdge(p, other[j].p, b)) continue;
        if (overlapAt(corner(loop, i), atEnd ? corner(other, j) : straight(other[j].p, b))) return { i, other, j, atEnd };
      }
  // A corner of another loop may meet an edge of this one.
  for (const other of others)
    for (let j = 0; j < other.length; j++)
      for (let i = 0; i < loop.length; i++) {
        const b = loop[(i + 1) % loop.length].p;
        const { p } = other[j];
        if (!onEdge(p, loop[i].p, b) || !overlapAt(straight(loop[i].p, b), corner(other, j))) continue;
        // The edge is given a corner there, so that the two meet corner to corner.
        loop.splice(i + 1, 0, { ...loop[i], p });
        return { i: i + 1, other, j, atEnd: true };
      }
  return null;
}

/** Whether a point lies on an edge, away from its ends. */
function onEdge(p: Vec2, a: Vec2, b: Vec2): boolean {
  const d = sub(b, a);
  const t = dot(sub(p, a), d) / dot(d, d);
  return t > 0 && t < 1 && distance(p, a) >= NEAR && distance(p, b) >= NEAR && distance(p, lerp(a, b, t)) <= NEAR;
}

/** The inside at a corner as a range of angles: from the edge that leaves it counter-clockwise to the one that comes. */
interface Sector {
  from: number;
  width: number;
}

const TURN = 2 * Math.PI;
const turn = (angle: number): number => ((angle % TURN) + TURN) % TURN;

function sector(out: Vec2, back: Vec2): Sector {
  const from = Math.atan2(out.y, out.x);
  return { from, width: turn(Math.atan2(back.y, back.x) - from) };
}

function corner(loop: readonly Node[], i: number): Sector {
  const { p } = loop[i];
  return sector(sub(loop[(i + 1) % loop.length].p, p), sub(loop[(i + loop.length - 1) % loop.length].p, p));
}

const straight = (a: Vec2, b: Vec2): Sector => ({ from: Math.atan2(b.y - a.y, b.x - a.x), width: Math.PI });

function overlapAt(a: Sector, b: Sector): boolean {
  const slack = TIGHT;
  // Two edges that have come to lie on one another have nothing left between them.
  const closed = (angle: number): boolean => Math.min(turn(angle), TURN - turn(angle)) < slack;
  if (closed(b.from + b.width - a.from) || closed(a.from + a.width - b.from)) return true;
  const ahead = turn(b.from - a.from);
  const behind = turn(a.from - b.from);
  return (ahead < a.width - slack && b.width > slack) || (behind < b.width - slack && a.width > slack);
}

/** A loop without edges of no length, and without spikes that fold back on themselves. */
function tidy(loop: readonly Node[]): Node[] {
  let nodes = [...loop];
  for (;;) {
    const before = nodes.length;
    nodes = nodes.filter((node, i) => distance(node.p, nodes[(i + 1) % nodes.length].p) > NEAR);
    for (let i = 0; i < nodes.length && nodes.length > 2; i++) {
      const k = (i + nodes.length - 1) % nodes.length;
      const j = (i + 1) % nodes.length;
      const [a, p, b] = [nodes[k].p, nodes[i].p, nodes[j].p];
      const [d, e] = [unit(sub(p, a)), unit(sub(b, p))];
      if (dot(d, e) > -1 + DUST) continue;
      // Of the two edges that lie on one another the shorter is dropped.
      if (distance(a, p) <= distance(p, b)) nodes[i] = { ...nodes[i], p: a };
      else nodes[i] = { ...nodes[i], p: b };
      break;
    }
    if (nodes.length === before && !nodes.some((node, i) => distance(node.p, nodes[(i + 1) % nodes.length].p) <= NEAR)) return nodes;
    if (nodes.length < 3) return nodes;
  }
}

/** What each edge has swept on each of its slopes, put together from the stretches between events. */
function facesOf(quads: readonly Quad[]): SweptFace[] {
  const groups = new Map<Line, Map<number, Quad[]>>();
  for (const q of quads) {
    const bySlope = groups.get(q.line) ?? new Map<number, Quad[]>();
    groups.set(q.line, bySlope);
    bySlope.set(q.slope, [...(bySlope.get(q.slope) ?? []), q]);
  }
  const faces: SweptFace[] = [];
  for (const [line, bySlope] of groups)
    for (const [slope, list] of bySlope) for (const ring of outlineOf(line, list)) faces.push({ edge: line.edge, slope, ring });
  return faces;
}

/**
 * The outline of stretches that lie on one another: seen along the edge and upwards they are trapezia with level edges;
 * a level edge that two of them share, or the part of it that they share, is inside.
 */
function outlineOf(line: Line, quads: readonly Quad[]): Vec3[][] {
  interface Side {
    from: Vec3;
    to: Vec3;
  }
  const sides: Side[] = [];
  const levels = new Map<number, { up: [number, number, Vec2, Vec2][]; down: [number, number, Vec2, Vec2][] }>();
  const level = (z: number): { up: [number, number, Vec2, Vec2][]; down: [number, number, Vec2, Vec2][] } => {
    let known = levels.get(z);
    if (!known) levels.set(z, (known = { up: [], down: [] }));
    return known;
  };
  const s = (p: Vec2): number => dot(p, line.u);
  for (const q of quads) {
    if (distance(q.a0, q.b0) > NEAR) level(q.z0).up.push([s(q.a0), s(q.b0), q.a0, q.b0]);
    if (distance(q.a1, q.b1) > NEAR) level(q.z1).down.push([s(q.a1), s(q.b1), q.a1, q.b1]);
    sides.push({ from: { ...q.b0, z: q.z0 }, to: { ...q.b1, z: q.z1 } }, { from: { ...q.a1, z: q.z1 }, to: { ...q.a0, z: q.z0 } });
  }
  for (const [z, { up, down }] of levels) {
    const points = [...up, ...down].flatMap(([s0, s1, a, b]) => [
      { s: s0, p: a },
      { s: s1, p: b },
    ]);
    points.sort((p, q) => p.s - q.s);
    const stops = points.filter((p, i) => i === 0 || p.s - points[i - 1].s > NEAR);
    for (let i = 1; i < stops.length; i++) {
      const [a, b] = [stops[i - 1], stops[i]];
      const mid = (a.s + b.s) / 2;
      const covers = (list: [number, number, Vec2, Vec2][]): boolean => list.some(([s0, s1]) => s0 < mid && s1 > mid);
      const [isUp, isDown] = [covers(up), covers(down)];
      if (isUp && !isDown) sides.push({ from: { ...a.p, z }, to: { ...b.p, z } });
      else if (isDown && !isUp) sides.push({ from: { ...b.p, z }, to: { ...a.p, z } });
    }
  }
  return chained(sides);
}

/** Directed sides put together to closed rings, without corners on straight lines. */
function chained(sides: readonly { from: Vec3; to: Vec3 }[]): Vec3[][] {
  const key = (p: Vec3): string => `${Math.round(p.x / (NEAR * 10))} ${Math.round(p.y / (NEAR * 10))} ${Math.round(p.z / (NEAR * 10))}`;
  const leaving = new Map<string, { from: Vec3; to: Vec3 }[]>();
  for (const side of sides) {
    if (key(side.from) === key(side.to)) continue;
    const list = leaving.get(key(side.from));
    if (list) list.push(side);
    else leaving.set(key(side.from), [side]);
  }
  const rings: Vec3[][] = [];
  for (const list of leaving.values())
    while (list.length) {
      const ring: Vec3[] = [];
      let side: { from: Vec3; to: Vec3 } | undefined = list.pop();
      while (side) {
        ring.push(side.from);
        if (key(side.to) === key(ring[0])) break;
        side = leaving.get(key(side.to))?.pop();
      }
      const clean = straightened(ring);
      if (clean.length > 2) rings.push(clean);
    }
  return rings;
}

function straightened(ring: readonly Vec3[]): Vec3[] {
  return ring.filter((p, i) => {
    const [a, b] = [ring[(i + ring.length - 1) % ring.length], ring[(i + 1) % ring.length]];
    const [d, e] = [
      { x: p.x - a.x, y: p.y - a.y, z: p.z - a.z },
      { x: b.x - p.x, y: b.y - p.y, z: b.z - p.z },
    ];
    const c = Math.hypot(d.y * e.z - d.z * e.y, d.z * e.x - d.x * e.z, d.x * e.y - d.y * e.x);
    return c > TIGHT * Math.hypot(d.x, d.y, d.z);
  });
}

/** Loops as regions: those that run round the other way are holes of the one around them. */
function regionsOf(loops: readonly Node[][]): Region[] {
  const rings: Ring[] = loops.map((loop) => loop.map((n) => n.p));
  const outers = rings.filter((r) => signedArea(r) > 0).map((outer): Region => ({ outer, holes: [] }));
  for (const hole of rings.filter((r) => signedArea(r) < 0)) {
    const host = outers.find((r) => insideRing(hole[0], r.outer));
    if (host) host.holes.push(hole);
  }
  return outers;
}
