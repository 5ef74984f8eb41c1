import { cycleRing, edgeDirection, type Arrangement, type Cycle, type HalfEdge } from '../geometry/arrangement';
import { boolean, signedArea, tidyRing, union, type Region, type Ring } from '../geometry/polygon';
import { add, COINCIDENT, cross, distance, dot, left, meet, scale, sub, unit, type Vec2 } from '../geometry/vec';

/** The corner points between two neighbouring walls of a junction: one where they mitre, two where they step. */
type Wedge = [Vec2, Vec2];

/** A piece of wall between two junctions, as it stands on the floor. */
export interface PieceFootprint {
  wall: string;
  ring: Ring;
  /** The ends of its two sides, from the start towards the end of the wall. */
  left: [Vec2, Vec2];
  right: [Vec2, Vec2];
  /** Further parts, where a crowded junction has cut the footprint apart. */
  rest?: Ring[];
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
 * `a` meets the right side of `b`. Collinear walls of unequal thickness step along the bisector, beyond the walls that
 * meet them there, so that a corner of thick walls stays whole where a thin one runs on from it; very acute outer
 * corners are cut off.
 *
 * @param reach how far the other walls of the junction stand out from the node, along the thinner of the two
 */
function wedge(node: Vec2, da: Vec2, ha: number, db: Vec2, hb: number, reach: (thin: Vec2) => number): Wedge {
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
  if (Math.abs(ha - hb) <= COINCIDENT) return [meet(footA, da, node, bisector) ?? footA, meet(footB, db, node, bisector) ?? footB];
  const thin = ha < hb ? da : db;
  const step = add(node, scale(thin, reach(thin)));
  return [meet(footA, da, step, bisector) ?? footA, meet(footB, db, step, bisector) ?? footB];
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
          : wedge(nodes[n], edgeDirection(arrangement, e), h(e), edgeDirection(arrangement, f), h(f), (thin) =>
              Math.max(0, ...fan.map((o) => (o === e || o === f ? 0 : h(o) * Math.abs(cross(edgeDirection(arrangement, o), thin))))),
            );
      after[key(e)] = w;
      before[key(f)] = w;
    });
  });

  /** Pieces shorter than the junctions at their ends. */
  const crowded = new Set<number>();
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
    const ring = tidyRing(
      [
        ...(free(piece.from) ? [] : [a]),
        startRight[1],
        endRight[0],
        ...(free(piece.to) ? [] : [...cut(endRight, b), b]),
        endLeft[1],
        startLeft[0],
        ...(free(piece.from) ? [] : cut(startLeft, a)),
      ],
      COINCIDENT * 2,
    );
    const d = sub(b, a);
    const most = -COINCIDENT * Math.hypot(d.x, d.y);
    if (dot(sub(endRight[0], startRight[1]), d) < most || dot(sub(endLeft[1], startLeft[0]), d) < most) crowded.add(piece.index);
    return { wall: piece.line, ring, left: [startLeft[0], endLeft[1]], right: [startRight[1], endRight[0]] };
  });

  const walk = (cycle: Cycle): Ring => {
    const ring: Ring = [];
    cycle.edges.forEach((e) => {
      // The face lies at the left; at the tail of e its corner is the wedge after e, reached from the far side.
      const [onEdge, onPrevious] = after[key(e)];
      ring.push(onPrevious, onEdge);
    });
    return tidyRing(ring, COINCIDENT * 2);
  };

  if (crowded.size) clipCrowded(arrangement, footprints, crowded, h, after);
  const solid = (p: PieceFootprint): Region[] => [p.ring, ...(p.rest ?? [])].filter((ring) => ring.length > 2).map((outer) => ({ outer, holes: [] }));
  // A piece that was clipped bounds its faces with more than its two sides: they are what the footprints leave over.
  const leaveOver = (cycle: Cycle): boolean => cycle.edges.some((e) => crowded.has(e.piece));
  const largest = (regions: Region[]): Region => regions.sort((p, q) => signedArea(q.outer) - signedArea(p.outer))[0] ?? { outer: [], holes: [] };
  const faces = arrangement.faces.map((face): Region => {
    const cycles = [face.outer, ...face.inner];
    if (cycles.some(leaveOver)) {
      const around = new Set(cycles.flatMap((c) => c.edges.flatMap((e) => [...fans[pieces[e.piece].from], ...fans[pieces[e.piece].to]].map((o) => o.piece))));
      const axes = { outer: cycleRing(arrangement, face.outer), holes: [] };
      const rooms = boolean(
        'difference',
        [axes],
        [...around].flatMap((i) => solid(footprints[i])),
      );
      const room = largest(rooms);
      // A pocket pinched off between crowded walls is nobody's room: it is walled up.
      const host = cycles.flatMap((c) => c.edges).find((e) => crowded.has(e.piece))!.piece;
      for (const pocket of rooms.slice(1)) footprints[host] = { ...footprints[host], rest: [...(footprints[host].rest ?? []), pocket.outer] };
      return room;
    }
    return { outer: walk(face.outer), holes: face.inner.map(walk).filter((ring) => ring.length > 2) };
  });
  const outline = arrangement.outside.map((cycle): Region => {
    if (!leaveOver(cycle)) return { outer: walk(cycle).reverse(), holes: [] };
    const around = new Set(cycle.edges.flatMap((e) => [...fans[pieces[e.piece].from], ...fans[pieces[e.piece].to]].map((o) => o.piece)));
    const inside = arrangement.faces
      .filter((f) => f.outer.edges.some((e) => around.has(e.piece)))
      .map((f) => ({ outer: cycleRing(arrangement, f.outer), holes: [] }));
    return { outer: largest(union([...inside, ...[...around].flatMap((i) => solid(footprints[i]))])).outer, holes: [] };
  });
  return { pieces: footprints, faces, outline };
}

/** The second corner of a cut-off wedge: it bounds a triangle beside the junction that belongs to one wall. */
const cut = (w: Wedge, node: Vec2): Vec2[] => (cross(sub(w[0], node), sub(w[1], node)) > 1e-10 ? [w[1]] : []);

/**
 * Junctions nearer to one another than their walls are thick: the pieces between them are taken as rectangles with their
 * mitred corners and clipped against what meets them, so that nothing overlaps and no corner is missing. Changes the footprints of these pieces in place; all others keep theirs.
 */
function clipCrowded(
  arrangement: Arrangement,
  footprints: PieceFootprint[],
  crowded: ReadonlySet<number>,
  half: (e: HalfEdge) => number,
  after: readonly Wedge[],
): void {
  const { nodes, pieces, fans } = arrangement;
  const at = (nodesOf: Iterable<number>): Set<number> => new Set([...nodesOf].flatMap((n) => fans[n].map((e) => e.piece)));
  const ends = (list: Iterable<number>): number[] => [...list].flatMap((i) => [pieces[i].from, pieces[i].to]);
  const group = at(ends(crowded));
  let covered: Region[] = [];
  for (const i of at(ends(group))) if (!group.has(i)) covered.push({ outer: footprints[i].ring, holes: [] });
  const order = [...group].sort((p, q) => Number(crowded.has(p)) - Number(crowded.has(q)) || p - q);
  for (const i of order) {
    const { from, to } = pieces[i];
    // A neighbour that is long enough keeps its mitres, as far as nothing else stands there.
    if (!crowded.has(i)) {
      const whole = [{ outer: footprints[i].ring, holes: [] }];
      clip(i, whole);
      continue;
    }
    const parts: Region[] = [];
    const n = scale(left(unit(sub(nodes[to], nodes[from]))), half({ piece: i, forward: true }));
    parts.push({ outer: [sub(nodes[from], n), sub(nodes[to], n), add(nodes[to], n), add(nodes[from], n)], holes: [] });
    for (const node of [from, to])
      for (const [k, e] of fans[node].entries()) {
        const next = fans[node][(k + 1) % fans[node].length];
        if (fans[node].length < 2 || (e.piece !== i && next.piece !== i)) continue;
        // The corner outside the two rectangles, where the turn is wider than half a circle.
        const [p, q] = after[e.piece * 2 + (e.forward ? 0 : 1)];
        const kite = tidyRing([
          nodes[node],
          add(nodes[node], scale(left(edgeDirection(arrangement, e)), half(e))),
          p,
          q,
          sub(nodes[node], scale(left(edgeDirection(arrangement, next)), half(next))),
        ]);
        if (kite.length > 2 && signedArea(kite) > 1e-9 && cross(edgeDirection(arrangement, e), edgeDirection(arrangement, next)) < 0)
          parts.push({ outer: kite, holes: [] });
      }
    clip(i, parts);
  }

  function clip(i: number, parts: Region[]): void {
    // Clipping leaves dust where edges lie on one another.
    const rest = boolean('difference', union(parts), covered)
      .map((r) => tidyRing(r.outer, COINCIDENT * 2))
      .filter((ring) => ring.length > 2 && signedArea(ring) > 1e-9)
      .sort((p, q) => signedArea(q) - signedArea(p));
    covered = [...covered, ...parts];
    footprints[i] = { ...footprints[i], ring: rest[0] ?? [], rest: rest.slice(1) };
  }
}
