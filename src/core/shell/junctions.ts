import { edgeDirection, tail, type Arrangement, type Cycle, type HalfEdge } from '../geometry/arrangement';
import { boolean, signedArea, tidyRing, type Region, type Ring } from '../geometry/polygon';
import { add, cross, distance, dot, left, meet, scale, sub, unit, type Vec2 } from '../geometry/vec';

/** The corner points between two neighbouring walls of a junction: one where they mitre, two where they step. */
type Wedge = [Vec2, Vec2];

/** A piece of wall between two junctions, as it stands on the floor. */
export interface PieceFootprint {
  wall: string;
  ring: Ring;
  /** The ends of its two sides, from the start towards the end of the wall. */
  left: [Vec2, Vec2];
  right: [Vec2, Vec2];
}

export interface JoinedPlan {
  pieces: PieceFootprint[];
  /** The inner outline of each face of the arrangement. */
  faces: Region[];
  /** The outline of everything that is wall or enclosed by walls. */
  outline: Region[];
}

/** How far, in wall thicknesses, an outer mitre may run out before it is cut off square. */
const MITRE_LIMIT = 4;

/**
 * The corner between half-edge `a` and its counter-clockwise neighbour `b` at a junction: where the left side of
 * `a` meets the right side of `b`. Collinear walls of unequal thickness step along the bisector; very acute
 * outer corners are cut off.
 */
function wedge(node: Vec2, da: Vec2, ha: number, db: Vec2, hb: number): Wedge {
  const footA = add(node, scale(left(da), ha));
  const footB = add(node, scale(left(db), -hb));
  let turn = Math.atan2(cross(da, db), dot(da, db));
  if (turn <= 1e-9) turn += 2 * Math.PI;
  const limit = MITRE_LIMIT * 2 * Math.max(ha, hb);
  const p = Math.abs(Math.sin(turn)) > 1e-9 ? meet(footA, da, footB, db) : null;
  if (p && (turn < Math.PI * 0.95 || distance(p, node) <= limit)) return [p, p];
  if (turn > Math.PI * 1.1) return [footA, footB];
  // Nearly straight: both sides end on the bisector of the wedge.
  const bisector = { x: Math.cos(turn / 2) * da.x - Math.sin(turn / 2) * da.y, y: Math.sin(turn / 2) * da.x + Math.cos(turn / 2) * da.y };
  return [meet(footA, da, node, bisector) ?? footA, meet(footB, db, node, bisector) ?? footB];
}

/**
 * Joins walls cleanly at their junctions: L, T, X and oblique, of any thicknesses. The footprints never overlap;
 * together with the inner outlines of the faces they fill the outer outline without a gap.
 *
 * @param half half thickness of a wall by id, metres
 */
export function joinWalls(arrangement: Arrangement, half: (wall: string) => number): JoinedPlan {
  const { nodes, pieces, fans } = arrangement;
  const key = (e: HalfEdge): number => e.piece * 2 + (e.forward ? 0 : 1);
  const h = (e: HalfEdge): number => half(pieces[e.piece].line);
  /** After half-edge e, counter-clockwise around its tail. */
  const after: Wedge[] = [];
  const before: Wedge[] = [];
  fans.forEach((fan, n) => {
    fan.forEach((e, i) => {
      const f = fan[(i + 1) % fan.length];
      const w: Wedge =
        fan.length === 1
          ? [add(nodes[n], scale(left(edgeDirection(arrangement, e)), h(e))), add(nodes[n], scale(left(edgeDirection(arrangement, e)), -h(e)))]
          : wedge(nodes[n], edgeDirection(arrangement, e), h(e), edgeDirection(arrangement, f), h(f));
      after[key(e)] = w;
      before[key(f)] = w;
    });
  });

  let regular = true;
  const footprints: PieceFootprint[] = pieces.map((piece) => {
    const out: HalfEdge = { piece: piece.index, forward: true };
    const back: HalfEdge = { piece: piece.index, forward: false };
    const [a, b] = [nodes[piece.from], nodes[piece.to]];
    const startLeft = after[key(out)];
    const startRight = before[key(out)];
    const endRight = after[key(back)];
    const endLeft = before[key(back)];
    // A cut-off corner belongs to the clockwise wall of the two.
    const free = (n: number): boolean => fans[n].length === 1;
    const ring = tidyRing([
      ...(free(piece.from) ? [] : [a]),
      startRight[1],
      endRight[0],
      ...(free(piece.to) ? [] : [...cut(endRight, b), b]),
      endLeft[1],
      startLeft[0],
      ...(free(piece.from) ? [] : cut(startLeft, a)),
    ]);
    const d = sub(b, a);
    if (dot(sub(endRight[0], startRight[1]), d) <= 0 || dot(sub(endLeft[1], startLeft[0]), d) <= 0) regular = false;
    return { wall: piece.line, ring, left: [startLeft[0], endLeft[1]], right: [startRight[1], endRight[0]] };
  });

  const walk = (cycle: Cycle): Ring => {
    const ring: Ring = [];
    cycle.edges.forEach((e) => {
      // The face lies at the left; at the tail of e its corner is the wedge after e, reached from the far side.
      const [onEdge, onPrevious] = after[key(e)];
      ring.push(onPrevious, onEdge);
    });
    return tidyRing(ring);
  };

  if (regular) {
    const faces = arrangement.faces.map((face) => ({
      outer: walk(face.outer),
      holes: face.inner.map(walk).filter((ring) => ring.length > 2),
    }));
    const outline = arrangement.outside.map((cycle): Region => ({ outer: walk(cycle).reverse(), holes: [] }));
    if (faces.every((f) => f.outer.length > 2 && signedArea(f.outer) > 0)) return { pieces: footprints, faces, outline };
  }
  return joinByClipping(arrangement, footprints, half);
}

/** The second corner of a cut-off wedge: it bounds a triangle beside the junction that belongs to one wall. */
const cut = (w: Wedge, node: Vec2): Vec2[] => (cross(sub(w[0], node), sub(w[1], node)) > 1e-10 ? [w[1]] : []);

/**
 * The rare plans where walls are shorter than their own junctions: the footprints are clipped against one another,
 * earlier walls first.
 */
function joinByClipping(arrangement: Arrangement, footprints: PieceFootprint[], half: (wall: string) => number): JoinedPlan {
  const { nodes, pieces } = arrangement;
  let covered: Region[] = [];
  const clipped = footprints.map((footprint, i): PieceFootprint => {
    const a = nodes[pieces[i].from];
    const b = nodes[pieces[i].to];
    const d = unit(sub(b, a));
    const n = scale(left(d), half(pieces[i].line));
    const rectangle = { outer: [sub(a, n), sub(b, n), add(b, n), add(a, n)], holes: [] };
    const rest = boolean('difference', [rectangle], covered);
    covered = boolean('union', covered, [rectangle]);
    const largest = rest.sort((p, q) => signedArea(q.outer) - signedArea(p.outer))[0];
    return {
      wall: footprint.wall,
      ring: largest ? largest.outer : [],
      left: [add(a, n), add(b, n)],
      right: [sub(a, n), sub(b, n)],
    };
  });
  const ringOf = (c: Cycle): Ring => c.edges.map((e) => nodes[tail(pieces, e)]);
  const faces = arrangement.faces.map((face): Region => {
    const rest = boolean('difference', [{ outer: ringOf(face.outer), holes: [] }], covered);
    return rest.sort((p, q) => signedArea(q.outer) - signedArea(p.outer))[0] ?? { outer: [], holes: [] };
  });
  const outline = boolean('union', covered, arrangement.faces.map((f) => ({ outer: ringOf(f.outer), holes: [] }))).map((r) => ({
    outer: r.outer,
    holes: [],
  }));
  return { pieces: clipped, faces, outline };
}
