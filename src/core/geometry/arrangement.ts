import RBush from 'rbush';
import { angleOf, COINCIDENT, cross, distance, dot, lerp, project, scale, sub, unit, type Vec2 } from './vec';
import { insideRing, signedArea } from './polygon';

/** A straight line that takes part in the arrangement, with the half width it occupies at each side. */
export interface ArrangedLine {
  id: string;
  a: Vec2;
  b: Vec2;
  half: number;
}

/** A part of a line between two neighbouring nodes. */
export interface LinePiece {
  index: number;
  line: string;
  from: number;
  to: number;
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
}

/** A bounded face: its outer cycle and the groups of lines that stand free inside it. */
export interface Face {
  outer: Cycle;
  inner: Cycle[];
}

export interface Arrangement {
  nodes: Vec2[];
  pieces: LinePiece[];
  /** Outgoing half-edges of each node, counter-clockwise by direction. */
  fans: HalfEdge[][];
  faces: Face[];
  /** Outer cycles that lie in no face: the outside of the drawing. */
  outside: Cycle[];
}

interface Box {
  minX: number;
  minY: number;
  maxX: number;
  maxY: number;
  index: number;
}

/** Gives points one index each, points nearer than the tolerance the same one (a grid hash). */
class NodeTable {
  readonly nodes: Vec2[] = [];
  private readonly cells = new Map<string, number[]>();

  index(p: Vec2): number {
    const size = COINCIDENT * 4;
    const cx = Math.floor(p.x / size);
    const cy = Math.floor(p.y / size);
    for (let i = -1; i <= 1; i++)
      for (let j = -1; j <= 1; j++) for (const n of this.cells.get(`${cx + i},${cy + j}`) ?? []) if (distance(this.nodes[n], p) <= COINCIDENT * 2) return n;
    const key = `${cx},${cy}`;
    const index = this.nodes.push(p) - 1;
    this.cells.set(key, [...(this.cells.get(key) ?? []), index]);
    return index;
  }
}

/** Where on line `h` the end `p` of a line along `d` meets it: on its axis, or ending inside its thickness. */
function endOnLine(p: Vec2, d: Vec2, h: ArrangedLine): Vec2 | null {
  const span = distance(h.a, h.b);
  if (span <= COINCIDENT) return null;
  const axis = unit(sub(h.b, h.a));
  const off = cross(axis, sub(p, h.a));
  if (Math.abs(off) > h.half + COINCIDENT) return null;
  const across = cross(axis, d);
  let s = dot(sub(p, h.a), axis);
  if (Math.abs(off) > COINCIDENT) {
    // Keep the direction of the arriving line: follow it to the axis rather than dropping a perpendicular.
    if (Math.abs(across) < 0.1) return null;
    s -= (off / across) * dot(d, axis);
  }
  if (s <= h.half || s >= span - h.half) {
    if (Math.abs(off) > COINCIDENT || s < -COINCIDENT || s > span + COINCIDENT) return null;
  }
  return lerp(h.a, h.b, s / span);
}

/**
 * Splits lines where they meet, end on one another or cross, and finds the faces between them.
 *
 * A planar subdivision by half-edges (de Berg et al., Computational Geometry, ch. 2); candidates for meeting come
 * from an R-tree, so the cost grows near-linearly for plans whose walls have few neighbours.
 */
export function arrange(lines: readonly ArrangedLine[]): Arrangement {
  const tree = new RBush<Box>();
  const box = (l: ArrangedLine, index: number): Box => ({
    minX: Math.min(l.a.x, l.b.x) - l.half,
    minY: Math.min(l.a.y, l.b.y) - l.half,
    maxX: Math.max(l.a.x, l.b.x) + l.half,
    maxY: Math.max(l.a.y, l.b.y) + l.half,
    index,
  });
  const boxes = lines.map(box);
  tree.load(boxes);

  // The ends as they are joined: an end inside another line's thickness is carried to that line's axis.
  const ends = lines.map((l) => [l.a, l.b]);
  const cuts: number[][] = lines.map(() => []);
  const table = new NodeTable();
  lines.forEach((l, i) => {
    for (const end of [0, 1]) {
      const p = ends[i][end];
      const d = unit(sub(l.b, l.a));
      let best: { point: Vec2; host: number } | null = null;
      for (const other of tree.search({ minX: p.x, minY: p.y, maxX: p.x, maxY: p.y })) {
        if (other.index === i) continue;
        const h = lines[other.index];
        if (distance(p, h.a) <= COINCIDENT || distance(p, h.b) <= COINCIDENT) {
          best = null;
          break;
        }
        const point = endOnLine(p, d, h);
        if (point && (!best || distance(point, p) < distance(best.point, p))) best = { point, host: other.index };
      }
      if (best) {
        ends[i][end] = best.point;
        cuts[best.host].push(project(best.point, h(best.host).a, h(best.host).b));
      }
    }
  });
  function h(index: number): ArrangedLine {
    return lines[index];
  }

  lines.forEach((_, i) => {
    const [a, b] = ends[i];
    const d = sub(b, a);
    for (const other of tree.search(boxes[i])) {
      if (other.index <= i) continue;
      const [c, e] = ends[other.index];
      const f = sub(e, c);
      const det = cross(d, f);
      if (Math.abs(det) < 1e-9) continue;
      const t = cross(sub(c, a), f) / det;
      const u = cross(sub(c, a), d) / det;
      const te = COINCIDENT / Math.hypot(d.x, d.y);
      const ue = COINCIDENT / Math.hypot(f.x, f.y);
      if (t < -te || t > 1 + te || u < -ue || u > 1 + ue) continue;
      if (t > te && t < 1 - te) cuts[i].push(t);
      if (u > ue && u < 1 - ue) cuts[other.index].push(u);
    }
  });

  const pieces: LinePiece[] = [];
  const seen = new Set<string>();
  lines.forEach((l, i) => {
    const [a, b] = ends[i];
    const stops = [0, ...cuts[i].filter((t) => t > 0 && t < 1).sort((p, q) => p - q), 1];
    let from = table.index(a);
    for (let k = 1; k < stops.length; k++) {
      const to = table.index(k === stops.length - 1 ? b : lerp(a, b, stops[k]));
      if (to === from) continue;
      const key = from < to ? `${from}-${to}` : `${to}-${from}`;
      // Two lines on top of one another would enclose nothing; the first one stands.
      if (!seen.has(key)) {
        seen.add(key);
        pieces.push({ index: pieces.length, line: l.id, from, to });
      }
      from = to;
    }
  });

  const { nodes } = table;
  const fans: HalfEdge[][] = nodes.map(() => []);
  for (const piece of pieces) {
    fans[piece.from].push({ piece: piece.index, forward: true });
    fans[piece.to].push({ piece: piece.index, forward: false });
  }
  const direction = (edge: HalfEdge): number => {
    const { from, to } = pieces[edge.piece];
    return angleOf(edge.forward ? sub(nodes[to], nodes[from]) : sub(nodes[from], nodes[to]));
  };
  for (const fan of fans) fan.sort((p, q) => direction(p) - direction(q));

  return { nodes, pieces, fans, ...findFaces(nodes, pieces, fans) };
}

/** The node a half-edge leaves. */
export const tail = (pieces: LinePiece[], edge: HalfEdge): number => (edge.forward ? pieces[edge.piece].from : pieces[edge.piece].to);

/** The node a half-edge arrives at. */
export const head = (pieces: LinePiece[], edge: HalfEdge): number => (edge.forward ? pieces[edge.piece].to : pieces[edge.piece].from);

function findFaces(nodes: Vec2[], pieces: LinePiece[], fans: HalfEdge[][]): { faces: Face[]; outside: Cycle[] } {
  const id = (e: HalfEdge): number => e.piece * 2 + (e.forward ? 0 : 1);
  const visited = new Uint8Array(pieces.length * 2);
  // The successor of a half-edge keeps the same face at its left: at the head, the next outgoing edge clockwise
  // from the way back.
  const place = new Int32Array(pieces.length * 2);
  for (const fan of fans) fan.forEach((edge, i) => (place[id(edge)] = i));
  const next = (e: HalfEdge): HalfEdge => {
    const back = { piece: e.piece, forward: !e.forward };
    const fan = fans[head(pieces, e)];
    return fan[(place[id(back)] + fan.length - 1) % fan.length];
  };
  const cycles: Cycle[] = [];
  for (const piece of pieces)
    for (const forward of [true, false]) {
      const start = { piece: piece.index, forward };
      if (visited[id(start)]) continue;
      const edges: HalfEdge[] = [];
      for (let e = start; !visited[id(e)]; e = next(e)) {
        visited[id(e)] = 1;
        edges.push(e);
      }
      cycles.push({ edges, area: signedArea(edges.map((e) => nodes[tail(pieces, e)])) });
    }
  const bounded = cycles.filter((c) => c.area > 1e-9);
  const faces: Face[] = bounded.map((outer) => ({ outer, inner: [] }));
  const rings = bounded.map((c) => c.edges.map((e) => nodes[tail(pieces, e)]));
  const outside: Cycle[] = [];
  const component = components(nodes.length, pieces);
  for (const cycle of cycles) {
    if (cycle.area > 1e-9) continue;
    const node = tail(pieces, cycle.edges[0]);
    let host = -1;
    for (let f = 0; f < bounded.length; f++) {
      if (component[tail(pieces, bounded[f].edges[0])] === component[node]) continue;
      if (insideRing(nodes[node], rings[f]) && (host < 0 || bounded[f].area < bounded[host].area)) host = f;
    }
    if (host >= 0) faces[host].inner.push(cycle);
    else outside.push(cycle);
  }
  return { faces, outside };
}

function components(count: number, pieces: LinePiece[]): number[] {
  const parent = Array.from({ length: count }, (_, i) => i);
  const root = (i: number): number => {
    while (parent[i] !== i) i = parent[i] = parent[parent[i]];
    return i;
  };
  for (const { from, to } of pieces) parent[root(from)] = root(to);
  return parent.map((_, i) => root(i));
}

/** The ring of a cycle along the axes. */
export const cycleRing = (arrangement: Arrangement, cycle: Cycle): Vec2[] => cycle.edges.map((e) => arrangement.nodes[tail(arrangement.pieces, e)]);

/** Unit direction of a half-edge. */
export function edgeDirection(arrangement: Arrangement, edge: HalfEdge): Vec2 {
  const { from, to } = arrangement.pieces[edge.piece];
  const d = unit(sub(arrangement.nodes[to], arrangement.nodes[from]));
  return edge.forward ? d : scale(d, -1);
}
