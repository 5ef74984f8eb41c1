import RBush from 'rbush';
import { insideRing, signedArea } from './polygon';
import { angleOf, cross, distance, dot, lerp, project, scale, sub, unit, type Vec2 } from './vec';
import { DUST, NEAR, NIL } from '../units/tolerance';

/** A line that takes part in the arrangement: straight, or an arc followed by chords; with the widths it occupies at its sides. */
export interface ArrangedLine {
  id: string;
  /** Its points with their distances from its start, metres. */
  path: readonly { p: Vec2; s: number }[];
  left: number;
  right: number;
}

/** A part of a line between two neighbouring nodes, with its distances from the start of the line. */
export interface LinePiece {
  index: number;
  line: string;
  from: number;
  to: number;
  s0: number;
  s1: number;
  left: number;
  right: number;
}

/** One directed side of a piece: the face at its left lies on the `left` or `right` of the line's own direction. */
export interface HalfEdge {
  piece: number;
  forward: boolean;
}

/** A closed walk along half-edges with one face at its left. */
export interface Cycle {
  edges: HalfEdge[];
  /** Signed area of the walk along the axes; negative for the outside of a connected group of lines. */
  area: number;
  /** The points of the walk, from its least point on. */
  ring: Vec2[];
}

/** A bounded face: its outer cycle and the groups of lines that stand free inside it. */
export interface PlanFace {
  outer: Cycle;
  inner: Cycle[];
}

/** A plane subdivision. Places in `nodes`, `pieces` and `fans` may be empty where an edit took something away. */
export interface Arrangement {
  nodes: readonly Vec2[];
  pieces: readonly (LinePiece | undefined)[];
  /** The pieces of each line in its own direction. */
  byLine: ReadonlyMap<string, readonly LinePiece[]>;
  /** Outgoing half-edges of each node, counter-clockwise by direction. */
  fans: readonly (readonly HalfEdge[])[];
  faces: readonly PlanFace[];
  /** The cycle each half-edge belongs to, at twice the piece's place; one more for the backward edge. */
  cycles: readonly (Cycle | undefined)[];
  /** Outer cycles that lie in no face: the outside of the drawing. */
  outside: readonly Cycle[];
}

interface Chord {
  minX: number;
  minY: number;
  maxX: number;
  maxY: number;
  line: Line;
  k: number;
  /** As given. */
  a: Vec2;
  b: Vec2;
  s0: number;
  s1: number;
  /** As joined: an end inside another line's thickness is carried to that line's axis. */
  ja: Vec2;
  jb: Vec2;
}

interface Host {
  line: Line;
  k: number;
  t: number;
  point: Vec2;
}

interface Line {
  input: ArrangedLine;
  chords: Chord[];
  hosts: [Host | null, Host | null];
  stops: number[][];
  pieces: LinePiece[];
}

/** Gives points one index each, points nearer than the tolerance the same one (a grid hash). */
class NodeTable {
  readonly nodes: Vec2[] = [];
  private readonly uses: number[] = [];
  private readonly free: number[] = [];
  private readonly cells = new Map<string, number[]>();

  private static cell(p: Vec2): [number, number] {
    const size = NEAR * 4;
    return [Math.floor(p.x / size), Math.floor(p.y / size)];
  }

  /** The index of a point that is there already, or −1. */
  find(p: Vec2): number {
    const [cx, cy] = NodeTable.cell(p);
    for (let i = -1; i <= 1; i++)
      for (let j = -1; j <= 1; j++) for (const n of this.cells.get(`${cx + i},${cy + j}`) ?? []) if (distance(this.nodes[n], p) <= NEAR * 2) return n;
    return -1;
  }

  take(p: Vec2): number {
    const known = this.find(p);
    if (known >= 0) {
      this.uses[known]++;
      return known;
    }
    const [cx, cy] = NodeTable.cell(p);
    const index = this.free.pop() ?? this.nodes.length;
    this.nodes[index] = p;
    this.uses[index] = 1;
    const key = `${cx},${cy}`;
    this.cells.set(key, [...(this.cells.get(key) ?? []), index]);
    return index;
  }

  drop(index: number): void {
    if (--this.uses[index] > 0) return;
    const key = NodeTable.cell(this.nodes[index]).join(',');
    const rest = this.cells.get(key)!.filter((n) => n !== index);
    if (rest.length) this.cells.set(key, rest);
    else this.cells.delete(key);
    this.free.push(index);
  }
}

/** Where on a chord the end `p` of a line along `d` meets it: on its axis, or ending inside its thickness. */
function endOnChord(p: Vec2, d: Vec2, h: Chord): { t: number; point: Vec2 } | null {
  const span = distance(h.a, h.b);
  if (span <= NEAR) return null;
  const { left, right, path } = h.line.input;
  const axis = unit(sub(h.b, h.a));
  const off = cross(axis, sub(p, h.a));
  if (off > left + NEAR || off < -right - NEAR) return null;
  let s = dot(sub(p, h.a), axis);
  if (Math.abs(off) > NEAR) {
    // Keep the direction of the arriving line: follow it to the axis rather than dropping a perpendicular.
    const across = cross(axis, d);
    if (Math.abs(across) < 0.1) return null;
    s -= (off / across) * dot(d, axis);
  }
  if (s < -NEAR || s > span + NEAR) return null;
  // Beside a corner of the host the two stand free of one another, unless the end is on the axis itself.
  const along = h.s0 + s;
  const reach = Math.max(left, right);
  if ((along <= reach || along >= path[path.length - 1].s - reach) && Math.abs(off) > NEAR) return null;
  return { t: s / span, point: lerp(h.a, h.b, s / span) };
}

const sameStops = (a: number[][], b: number[][]): boolean =>
  a.length === b.length && a.every((list, k) => list.length === b[k].length && list.every((t, i) => Math.abs(t - b[k][i]) < NIL));

/**
 * Splits lines where they meet, end on one another or cross, finds the faces between them, and keeps both in step with
 * the lines at a cost that follows what has changed.
 *
 * A planar subdivision by half-edges (de Berg et al., Computational Geometry, ch. 2); candidates for meeting come from
 * an R-tree. An edit re-cuts the changed lines and those beside them, and walks again only the cycles that pass a node
 * whose fan has changed; all other pieces, fans, cycles and faces stay the same objects.
 */
export class Arranger {
  private readonly lines = new Map<string, Line>();
  private readonly tree = new RBush<Chord>();
  private readonly table = new NodeTable();
  private readonly pieces: (LinePiece | undefined)[] = [];
  private readonly freePieces: number[] = [];
  private readonly fans: (readonly HalfEdge[])[] = [];
  private readonly cycleOf: (Cycle | undefined)[] = [];
  private readonly cycles = new Set<Cycle>();
  private readonly faceOf = new Map<Cycle, PlanFace>();
  /** The ways between two nodes that are taken, and the lines that lie on top of them. */
  private readonly ways = new Map<string, { waiting: Set<Line> }>();
  private last: Arrangement = { nodes: [], pieces: [], byLine: new Map(), fans: [], faces: [], cycles: [], outside: [] };

  /** The arrangement of these lines. Lines that are the same objects as last time are known not to have changed. */
  update(inputs: readonly ArrangedLine[]): Arrangement {
    const present = new Set<string>();
    const fresh: Line[] = [];
    const gone: Line[] = [];
    for (const input of inputs) {
      present.add(input.id);
      const known = this.lines.get(input.id);
      if (known?.input === input) continue;
      if (known) gone.push(known);
      fresh.push(makeLine(input));
    }
    if (this.lines.size + fresh.length - gone.length > present.size) for (const [id, line] of this.lines) if (!present.has(id)) gone.push(line);
    if (!fresh.length && !gone.length) return this.last;

    const dirty = new Set<number>();
    const stale = new Set<Cycle>();
    const again = new Set<Line>();
    for (const line of gone) {
      for (const chord of line.chords) this.tree.remove(chord);
      this.lines.delete(line.input.id);
      this.dropPieces(line, dirty, stale, again);
    }
    const chords = fresh.flatMap((l) => l.chords);
    if (chords.length > 40) this.tree.load(chords);
    else for (const chord of chords) this.tree.insert(chord);
    for (const line of fresh) this.lines.set(line.input.id, line);

    const beside = new Set<Line>(fresh);
    for (const line of [...gone, ...fresh]) for (const chord of line.chords) for (const near of this.tree.search(chord)) beside.add(near.line);
    const recut = new Set<Line>(beside);
    const moved = new Set<Line>(fresh);
    for (const line of beside) {
      const hosts: Line['hosts'] = [this.hostOf(line, 0), this.hostOf(line, 1)];
      line.hosts = hosts;
      const [first, last] = [line.chords[0], line.chords[line.chords.length - 1]];
      const [ja, jb] = [hosts[0]?.point ?? first.a, hosts[1]?.point ?? last.b];
      if (!same2(ja, first.ja) || !same2(jb, last.jb)) moved.add(line);
      first.ja = ja;
      last.jb = jb;
    }
    for (const line of moved) for (const chord of line.chords) for (const near of this.tree.search(chord)) recut.add(near.line);
    for (const line of recut) {
      const stops = this.stopsOf(line);
      if (!moved.has(line) && sameStops(stops, line.stops)) continue;
      line.stops = stops;
      // A line that only meets others elsewhere keeps the pieces between the places that stayed.
      this.dropPieces(line, dirty, stale, again, moved.has(line) ? undefined : this.waysOf(line));
      again.add(line);
    }
    // In the order of the lines, so that of two lines on top of one another the same one always stands.
    for (const line of [...again].filter((l) => this.lines.get(l.input.id) === l).sort((a, b) => (a.input.id < b.input.id ? -1 : 1))) {
      this.makePieces(line, dirty);
    }
    this.walkAgain(dirty, stale);
    return (this.last = this.snapshot());
  }

  /** The line an end of a line stops on, inside its thickness or on its axis; null for a free end or a common corner. */
  private hostOf(line: Line, end: 0 | 1): Host | null {
    const chord = end === 0 ? line.chords[0] : line.chords[line.chords.length - 1];
    const p = end === 0 ? chord.a : chord.b;
    const d = unit(sub(chord.b, chord.a));
    let best: Host | null = null;
    for (const h of this.tree.search({ minX: p.x, minY: p.y, maxX: p.x, maxY: p.y })) {
      if (h.line === line) continue;
      const { path } = h.line.input;
      if (distance(p, path[0].p) <= NEAR || distance(p, path[path.length - 1].p) <= NEAR) return null;
      const found = endOnChord(p, d, h);
      if (!found) continue;
      const gap = best ? distance(found.point, p) - distance(best.point, p) : -1;
      if (gap < -NIL || (Math.abs(gap) <= NIL && h.line.input.id < best!.line.input.id)) best = { line: h.line, k: h.k, ...found };
    }
    return best;
  }

  /** Where each chord of a line is cut, as shares of its joined length. */
  private stopsOf(line: Line): number[][] {
    return line.chords.map((chord) => {
      const cuts: number[] = [];
      const d = sub(chord.jb, chord.ja);
      const l2 = dot(d, d);
      if (l2 <= NEAR * NEAR) return [];
      const te = NEAR / Math.sqrt(l2);
      for (const other of this.tree.search(chord)) {
        if (other.line === line) continue;
        for (const host of other.line.hosts) if (host?.line === line && host.k === chord.k) cuts.push(project(host.point, chord.ja, chord.jb));
        const f = sub(other.jb, other.ja);
        const det = cross(d, f);
        if (Math.abs(det) < DUST) continue;
        const t = cross(sub(other.ja, chord.ja), f) / det;
        const u = cross(sub(other.ja, chord.ja), d) / det;
        const ue = NEAR / Math.hypot(f.x, f.y);
        if (t < -te || t > 1 + te || u < -ue || u > 1 + ue) continue;
        cuts.push(t);
      }
      const inner = cuts.filter((t) => t > te && t < 1 - te).sort((p, q) => p - q);
      return inner.filter((t, i) => i === 0 || t - inner[i - 1] > te);
    });
  }

  /** The points a line is cut into, chord by chord. */
  private static points(chord: Chord, stops: readonly number[]): Vec2[] {
    return [chord.ja, ...stops.map((t) => lerp(chord.ja, chord.jb, t)), chord.jb];
  }

  /** The ways between nodes a line takes with its present stops. */
  private waysOf(line: Line): Set<string> {
    const ways = new Set<string>();
    line.chords.forEach((chord, k) => {
      const nodes = Arranger.points(chord, line.stops[k]).map((p) => this.table.find(p));
      for (let i = 1; i < nodes.length; i++) ways.add(wayKey(nodes[i - 1], nodes[i]));
    });
    return ways;
  }

  private makePieces(line: Line, dirty: Set<number>): void {
    const { id, left, right } = line.input;
    const kept = new Map(line.pieces.map((p) => [wayKey(p.from, p.to), p]));
    line.pieces = [];
    line.chords.forEach((chord, k) => {
      const length = distance(chord.a, chord.b) || 1;
      const axis = scale(sub(chord.b, chord.a), 1 / length);
      const at = (p: Vec2): number => chord.s0 + (dot(sub(p, chord.a), axis) / length) * (chord.s1 - chord.s0);
      const points = Arranger.points(chord, line.stops[k]);
      for (let i = 1; i < points.length; i++) {
        const from = this.table.take(points[i - 1]);
        const to = this.table.take(points[i]);
        const key = wayKey(from, to);
        const own = kept.get(key);
        if (own) {
          line.pieces.push(own);
          this.table.drop(from);
          this.table.drop(to);
          continue;
        }
        const way = this.ways.get(key);
        // Two lines on top of one another would enclose nothing; the first one stands.
        if (to === from || way) {
          way?.waiting.add(line);
          this.table.drop(from);
          this.table.drop(to);
          continue;
        }
        this.ways.set(key, { waiting: new Set() });
        const index = this.freePieces.pop() ?? this.pieces.length;
        const piece = { index, line: id, from, to, s0: at(points[i - 1]), s1: at(points[i]), left, right };
        this.pieces[index] = piece;
        line.pieces.push(piece);
        this.fans[from] = [...(this.fans[from] ?? []), { piece: index, forward: true }];
        this.fans[to] = [...(this.fans[to] ?? []), { piece: index, forward: false }];
        dirty.add(from).add(to);
      }
    });
  }

  private dropPieces(line: Line, dirty: Set<number>, stale: Set<Cycle>, again: Set<Line>, keep?: ReadonlySet<string>): void {
    const left = keep ? line.pieces.filter((p) => keep.has(wayKey(p.from, p.to))) : [];
    for (const { index, from, to } of line.pieces) {
      const key = wayKey(from, to);
      if (keep?.has(key)) continue;
      for (const forward of [true, false]) {
        const cycle = this.cycleOf[halfEdge(index, forward)];
        if (cycle) stale.add(cycle);
        this.cycleOf[halfEdge(index, forward)] = undefined;
      }
      for (const n of [from, to]) {
        this.fans[n] = this.fans[n].filter((e) => e.piece !== index);
        dirty.add(n);
        this.table.drop(n);
      }
      for (const waiting of this.ways.get(key)?.waiting ?? []) again.add(waiting);
      this.ways.delete(key);
      this.pieces[index] = undefined;
      this.freePieces.push(index);
    }
    line.pieces = left;
  }

  private walkAgain(dirty: Set<number>, stale: Set<Cycle>): void {
    const { nodes } = this.table;
    const direction = (e: HalfEdge): number => {
      const { from, to } = this.pieces[e.piece]!;
      return angleOf(e.forward ? sub(nodes[to], nodes[from]) : sub(nodes[from], nodes[to]));
    };
    const open: HalfEdge[] = [];
    for (const n of dirty) {
      this.fans[n] = (this.fans[n] ?? [])
        .map((e) => ({ e, angle: direction(e) }))
        .sort((p, q) => p.angle - q.angle)
        .map(({ e }) => e);
      for (const e of this.fans[n]) {
        const cycle = this.cycleOf[halfEdge(e.piece, e.forward)];
        if (cycle) stale.add(cycle);
        open.push(e, { piece: e.piece, forward: !e.forward });
      }
    }
    for (const cycle of stale) {
      this.cycles.delete(cycle);
      this.faceOf.delete(cycle);
      for (const e of cycle.edges) {
        if (this.cycleOf[halfEdge(e.piece, e.forward)] === cycle) this.cycleOf[halfEdge(e.piece, e.forward)] = undefined;
        open.push(e);
      }
    }
    for (const start of open) {
      if (!this.pieces[start.piece] || this.cycleOf[halfEdge(start.piece, start.forward)]) continue;
      const edges: HalfEdge[] = [];
      const cycle: Cycle = { edges, area: 0, ring: [] };
      for (let e = start; !this.cycleOf[halfEdge(e.piece, e.forward)]; e = this.next(e)) {
        this.cycleOf[halfEdge(e.piece, e.forward)] = cycle;
        edges.push(e);
      }
      const ring = edges.map((e) => nodes[this.tail(e)]);
      // From the least point on, so that the same face reads the same whatever the way it came about.
      let least = 0;
      ring.forEach((p, i) => {
        if (p.x < ring[least].x || (p.x === ring[least].x && p.y < ring[least].y)) least = i;
      });
      cycle.edges = [...edges.slice(least), ...edges.slice(0, least)];
      cycle.ring = [...ring.slice(least), ...ring.slice(0, least)];
      cycle.area = signedArea(cycle.ring);
      this.cycles.add(cycle);
    }
  }

  /** The successor of a half-edge keeps the same face at its left: at its head, the next outgoing edge clockwise from the way back. */
  private next(e: HalfEdge): HalfEdge {
    const piece = this.pieces[e.piece]!;
    const fan = this.fans[e.forward ? piece.to : piece.from];
    const back = fan.findIndex((o) => o.piece === e.piece && o.forward !== e.forward);
    return fan[(back + fan.length - 1) % fan.length];
  }

  private tail = (e: HalfEdge): number => (e.forward ? this.pieces[e.piece]!.from : this.pieces[e.piece]!.to);

  private snapshot(): Arrangement {
    const bounded: Cycle[] = [];
    const around: Cycle[] = [];
    for (const cycle of this.cycles) (cycle.area > DUST ? bounded : around).push(cycle);
    bounded.sort(byPlace);
    around.sort(byPlace);
    const inner = new Map<Cycle, Cycle[]>();
    const outside: Cycle[] = [];
    for (const cycle of around) {
      // A point just outside the leftmost one of the group belongs to whatever face the group stands in.
      const p = { x: cycle.ring[0].x - NEAR * 10, y: cycle.ring[0].y };
      let host: Cycle | null = null;
      for (const face of bounded) {
        if (face.ring[0].x > p.x) break;
        if ((!host || face.area < host.area) && insideRing(p, face.ring)) host = face;
      }
      if (host) inner.set(host, [...(inner.get(host) ?? []), cycle]);
      else outside.push(cycle);
    }
    const faces = bounded.map((outer) => {
      const own = inner.get(outer) ?? [];
      const known = this.faceOf.get(outer);
      if (known && known.inner.length === own.length && known.inner.every((c, i) => c === own[i])) return known;
      const face = { outer, inner: own };
      this.faceOf.set(outer, face);
      return face;
    });
    const byLine = new Map<string, readonly LinePiece[]>();
    for (const [id, line] of this.lines) byLine.set(id, line.pieces);
    return { nodes: this.table.nodes.slice(), pieces: this.pieces.slice(), byLine, fans: this.fans.slice(), faces, cycles: this.cycleOf.slice(), outside };
  }
}

const wayKey = (from: number, to: number): string => (from < to ? `${from}-${to}` : `${to}-${from}`);

const halfEdge = (piece: number, forward: boolean): number => piece * 2 + (forward ? 0 : 1);

const same2 = (a: Vec2, b: Vec2): boolean => a.x === b.x && a.y === b.y;

const byPlace = (a: Cycle, b: Cycle): number => a.ring[0].x - b.ring[0].x || a.ring[0].y - b.ring[0].y || a.area - b.area;

function makeLine(input: ArrangedLine): Line {
  const margin = Math.max(input.left, input.right) + NEAR * 4;
  const line: Line = { input, chords: [], hosts: [null, null], stops: [], pieces: [] };
  for (let k = 0; k + 1 < input.path.length; k++) {
    const [a, b] = [input.path[k].p, input.path[k + 1].p];
    line.chords.push({
      minX: Math.min(a.x, b.x) - margin,
      minY: Math.min(a.y, b.y) - margin,
      maxX: Math.max(a.x, b.x) + margin,
      maxY: Math.max(a.y, b.y) + margin,
      line,
      k,
      a,
      b,
      s0: input.path[k].s,
      s1: input.path[k + 1].s,
      ja: a,
      jb: b,
    });
  }
  return line;
}

/** The arrangement of lines, made at once. */
export const arrange = (lines: readonly ArrangedLine[]): Arrangement => new Arranger().update(lines);

/** A straight line for an arrangement. */
export const straightLine = (id: string, a: Vec2, b: Vec2, half: number): ArrangedLine => ({
  id,
  path: [
    { p: a, s: 0 },
    { p: b, s: distance(a, b) },
  ],
  left: half,
  right: half,
});

/** The node a half-edge leaves. */
export const tail = ({ pieces }: Pick<Arrangement, 'pieces'>, edge: HalfEdge): number => (edge.forward ? pieces[edge.piece]!.from : pieces[edge.piece]!.to);

/** The node a half-edge arrives at. */
export const head = ({ pieces }: Pick<Arrangement, 'pieces'>, edge: HalfEdge): number => (edge.forward ? pieces[edge.piece]!.to : pieces[edge.piece]!.from);

/** Unit direction of a half-edge. */
export function edgeDirection(arrangement: Arrangement, edge: HalfEdge): Vec2 {
  const { from, to } = arrangement.pieces[edge.piece]!;
  const d = unit(sub(arrangement.nodes[to], arrangement.nodes[from]));
  return edge.forward ? d : scale(d, -1);
}
