import { edgeDirection, tail, type Arrangement, type Cycle, type PlanFace, type HalfEdge, type LinePiece } from '../geometry/arrangement';
import { boolean, signedArea, tidyRing, union } from '../geometry/polygon';
import type { Region, Ring } from '../geometry/region';
import { add, cross, distance, dot, left, meet, scale, sub, unit, type Vec2 } from '../geometry/vec';
import { DUST, NEAR } from '../units/tolerance';

/** The corner points between two neighbouring walls of a junction: one where they mitre, two where they step. */
type Wedge = [Vec2, Vec2];

/** A piece of wall between two junctions, as it stands on the floor. */
export interface PieceFootprint {
  wall: string;
  ring: Ring;
  /** The ends of its two sides, from the start towards the end of the wall. */
  left: [Vec2, Vec2];
  right: [Vec2, Vec2];
  /** Its ends across: at the start from left to right, at the end from right to left. */
  startCap: Vec2[];
  endCap: Vec2[];
  /** Further parts, where a crowded junction has cut the footprint apart. */
  rest?: Ring[];
}

export interface JoinedPlan {
  arrangement: Arrangement;
  /** By place of the piece, before crowded ones are clipped. */
  plain: ((PieceFootprint & { crowded: boolean }) | undefined)[];
  /** By place of the piece in the arrangement. */
  pieces: (PieceFootprint | undefined)[];
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
  if (turn <= DUST) turn += 2 * Math.PI;
  const limit = MITRE_LIMIT * 2 * Math.max(ha, hb);
  const p = Math.abs(Math.sin(turn)) > DUST ? meet(footA, da, footB, db) : null;
  if (p && (turn < Math.PI * 0.95 || distance(p, node) <= limit)) return [p, p];
  if (turn > Math.PI * 1.1) return [footA, footB];
  // Nearly straight: both sides end on the bisector of the wedge.
  const bisector = { x: Math.cos(turn / 2) * da.x - Math.sin(turn / 2) * da.y, y: Math.sin(turn / 2) * da.x + Math.cos(turn / 2) * da.y };
  if (Math.abs(ha - hb) <= NEAR) return [meet(footA, da, node, bisector) ?? footA, meet(footB, db, node, bisector) ?? footB];
  const thin = ha < hb ? da : db;
  const step = add(node, scale(thin, reach(thin)));
  return [meet(footA, da, step, bisector) ?? footA, meet(footB, db, step, bisector) ?? footB];
}

/** The corners around one junction, by half-edge: after it and before it, counter-clockwise. */
type Corners = ReadonlyMap<number, { after: Wedge; before: Wedge }>;

const key = (e: HalfEdge): number => e.piece * 2 + (e.forward ? 0 : 1);

/** Extents of a half-edge at its own left and right. */
function extents({ pieces }: Arrangement, e: HalfEdge): { left: number; right: number } {
  const { left: l, right: r } = pieces[e.piece]!;
  return e.forward ? { left: l, right: r } : { left: r, right: l };
}

const regions = new WeakMap<PlanFace, Region>();
const outlines = new WeakMap<Cycle, Region>();

/** Fans are new objects wherever something about their lines has changed, so their corners can be remembered by them. */
const corners = new WeakMap<readonly HalfEdge[], Corners>();

function cornersAt(arrangement: Arrangement, n: number): Corners {
  const fan = arrangement.fans[n];
  const known = corners.get(fan);
  if (known) return known;
  const node = arrangement.nodes[n];
  const made = new Map<number, { after: Wedge; before: Wedge }>();
  for (const e of fan) made.set(key(e), { after: [node, node], before: [node, node] });
  fan.forEach((e, i) => {
    const f = fan[(i + 1) % fan.length];
    const [de, df] = [edgeDirection(arrangement, e), edgeDirection(arrangement, f)];
    const [he, hf] = [extents(arrangement, e).left, extents(arrangement, f).right];
    const w: Wedge =
      fan.length === 1
        ? [add(node, scale(left(de), he)), add(node, scale(left(de), -hf))]
        : wedge(node, de, he, df, hf, (thin) =>
            Math.max(
              0,
              ...fan.map((o) => {
                if (o === e || o === f) return 0;
                const own = extents(arrangement, o);
                return Math.max(own.left, own.right) * Math.abs(cross(edgeDirection(arrangement, o), thin));
              }),
            ),
          );
    made.get(key(e))!.after = w;
    made.get(key(f))!.before = w;
  });
  corners.set(fan, made);
  return made;
}

function footprint(arrangement: Arrangement, piece: LinePiece): PieceFootprint & { crowded: boolean } {
  const { nodes, fans } = arrangement;
  const [a, b] = [nodes[piece.from], nodes[piece.to]];
  const start = cornersAt(arrangement, piece.from).get(piece.index * 2)!;
  const end = cornersAt(arrangement, piece.to).get(piece.index * 2 + 1)!;
  const [startLeft, startRight, endRight, endLeft] = [start.after, start.before, end.after, end.before];
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
    NEAR * 2,
  );
  const d = sub(b, a);
  const most = -NEAR * Math.hypot(d.x, d.y);
  const crowded = piece.left + piece.right > 0 && (dot(sub(endRight[0], startRight[1]), d) < most || dot(sub(endLeft[1], startLeft[0]), d) < most);
  const chain = (...points: Vec2[]): Vec2[] => points.filter((p, i) => i === 0 || distance(p, points[i - 1]) > NEAR * 2);
  const startCap = chain(startLeft[0], ...(free(piece.from) ? [] : [...cut(startLeft, a), a]), startRight[1]);
  const endCap = chain(endRight[0], ...(free(piece.to) ? [] : [...cut(endRight, b), b]), endLeft[1]);
  return { wall: piece.line, ring, startCap, endCap, left: [startLeft[0], endLeft[1]], right: [startRight[1], endRight[0]], crowded };
}

const samePoints = (a: readonly Vec2[], b: readonly Vec2[]): boolean => a.length === b.length && a.every((p, i) => p.x === b[i].x && p.y === b[i].y);

const sameFootprint = (a: PieceFootprint, b: PieceFootprint): boolean =>
  a.wall === b.wall &&
  (a.rest?.length ?? -1) === (b.rest?.length ?? -1) &&
  (a.rest ?? []).every((ring, i) => samePoints(ring, b.rest![i])) &&
  samePoints(a.ring, b.ring) &&
  samePoints(a.left, b.left) &&
  samePoints(a.right, b.right) &&
  samePoints(a.startCap, b.startCap) &&
  samePoints(a.endCap, b.endCap);

/** Whether two regions are the same, point for point. */
export const sameRegion = (a: Region, b: Region): boolean =>
  samePoints(a.outer, b.outer) && a.holes.length === b.holes.length && a.holes.every((hole, i) => samePoints(hole, b.holes[i]));

/**
 * Joins walls cleanly at their junctions: L, T, X and oblique, of any thicknesses. The footprints never overlap;
 * together with the inner outlines of the faces they fill the outer outline without a gap.
 *
 * @param before what it was for the arrangement before an edit: what has not changed is taken over, object by object
 */
export function joinWalls(arrangement: Arrangement, before?: JoinedPlan): JoinedPlan {
  const { pieces, fans } = arrangement;
  const after = (e: HalfEdge): Wedge => cornersAt(arrangement, tail(arrangement, e)).get(key(e))!.after;
  const h = (e: HalfEdge): { left: number; right: number } => extents(arrangement, e);
  /** Pieces shorter than the junctions at their ends. */
  const crowded = new Set<number>();
  const plain: JoinedPlan['plain'] = pieces.map((piece, i) => {
    if (!piece) return undefined;
    const known = before?.arrangement.pieces[i] === piece ? before.plain[i] : undefined;
    const kept = known && before!.arrangement.fans[piece.from] === fans[piece.from] && before!.arrangement.fans[piece.to] === fans[piece.to];
    const made = kept ? known : footprint(arrangement, piece);
    // Something else may have changed at the junction and left this piece as it was.
    const own = known && known !== made && known.crowded === made.crowded && sameFootprint(known, made) ? known : made;
    if (own.crowded) crowded.add(i);
    return own;
  });
  const footprints: (PieceFootprint | undefined)[] = crowded.size ? plain.slice() : plain;

  const walk = (cycle: Cycle): Ring => {
    const ring: Ring = [];
    cycle.edges.forEach((e) => {
      // The face lies at the left; at the tail of e its corner is the wedge after e, reached from the far side.
      const [onEdge, onPrevious] = after(e);
      ring.push(onPrevious, onEdge);
    });
    return tidyRing(ring, NEAR * 2);
  };

  if (crowded.size) clipCrowded(arrangement, footprints, crowded, h, after);
  const solid = (p: PieceFootprint | undefined): Region[] =>
    (p ? [p.ring, ...(p.rest ?? [])] : []).filter((ring) => ring.length > 2).map((outer) => ({ outer, holes: [] }));
  // A piece that was clipped bounds its faces with more than its two sides: they are what the footprints leave over.
  const leaveOver = (cycle: Cycle): boolean => crowded.size > 0 && cycle.edges.some((e) => crowded.has(e.piece));
  const largest = (regions: Region[]): Region => regions.sort((p, q) => signedArea(q.outer) - signedArea(p.outer))[0] ?? { outer: [], holes: [] };
  const faces = arrangement.faces.map((face): Region => {
    const cycles = [face.outer, ...face.inner];
    if (cycles.some(leaveOver)) {
      const around = new Set(cycles.flatMap((c) => c.edges.flatMap((e) => [...fans[pieces[e.piece]!.from], ...fans[pieces[e.piece]!.to]].map((o) => o.piece))));
      const axes = { outer: face.outer.ring, holes: [] };
      const rooms = boolean(
        'difference',
        [axes],
        [...around].flatMap((i) => solid(footprints[i])),
      );
      const room = largest(rooms);
      // A pocket pinched off between crowded walls is nobody's room: it is walled up.
      const host = cycles.flatMap((c) => c.edges).find((e) => crowded.has(e.piece))!.piece;
      for (const pocket of rooms.slice(1)) footprints[host] = { ...footprints[host]!, rest: [...(footprints[host]!.rest ?? []), pocket.outer] };
      return room;
    }
    const known = regions.get(face);
    if (known) return known;
    const region = { outer: walk(face.outer), holes: face.inner.map(walk).filter((ring) => ring.length > 2) };
    regions.set(face, region);
    return region;
  });
  const outline = arrangement.outside.map((cycle): Region => {
    if (!leaveOver(cycle)) {
      const known = outlines.get(cycle) ?? { outer: walk(cycle).reverse(), holes: [] };
      outlines.set(cycle, known);
      return known;
    }
    const around = new Set(cycle.edges.flatMap((e) => [...fans[pieces[e.piece]!.from], ...fans[pieces[e.piece]!.to]].map((o) => o.piece)));
    const inside = arrangement.faces.filter((f) => f.outer.edges.some((e) => around.has(e.piece))).map((f) => ({ outer: f.outer.ring, holes: [] }));
    return { outer: largest(union([...inside, ...[...around].flatMap((i) => solid(footprints[i]))])).outer, holes: [] };
  });
  if (crowded.size && before)
    footprints.forEach((own, i) => {
      const known = before.pieces[i];
      if (own && known && own !== known && sameFootprint(own, known)) footprints[i] = known;
    });
  return { arrangement, plain, pieces: footprints, faces, outline };
}

/** The second corner of a cut-off wedge: it bounds a triangle beside the junction that belongs to one wall. */
const cut = (w: Wedge, node: Vec2): Vec2[] => (cross(sub(w[0], node), sub(w[1], node)) > 1e-10 ? [w[1]] : []);

/**
 * Junctions nearer to one another than their walls are thick: the pieces between them are taken as rectangles with their
 * mitred corners and clipped against what meets them, so that nothing overlaps and no corner is missing. Changes the footprints of these pieces in place; all others keep theirs.
 */
function clipCrowded(
  arrangement: Arrangement,
  footprints: (PieceFootprint | undefined)[],
  crowded: ReadonlySet<number>,
  half: (e: HalfEdge) => { left: number; right: number },
  after: (e: HalfEdge) => Wedge,
): void {
  const { nodes, pieces, fans } = arrangement;
  const at = (nodesOf: Iterable<number>): Set<number> => new Set([...nodesOf].flatMap((n) => fans[n].map((e) => e.piece)));
  const ends = (list: Iterable<number>): number[] => [...list].flatMap((i) => [pieces[i]!.from, pieces[i]!.to]);
  const group = at(ends(crowded));
  let covered: Region[] = [];
  for (const i of at(ends(group))) if (!group.has(i)) covered.push({ outer: footprints[i]!.ring, holes: [] });
  const order = [...group].sort((p, q) => Number(crowded.has(p)) - Number(crowded.has(q)) || p - q);
  for (const i of order) {
    const { from, to, left: wide, right: narrow } = pieces[i]!;
    if (wide + narrow === 0) continue;
    // A neighbour that is long enough keeps its mitres, as far as nothing else stands there.
    if (!crowded.has(i)) {
      const whole = [{ outer: footprints[i]!.ring, holes: [] }];
      clip(i, whole);
      continue;
    }
    const parts: Region[] = [];
    const n = left(unit(sub(nodes[to], nodes[from])));
    const [r, l] = [scale(n, -narrow), scale(n, wide)];
    parts.push({ outer: [add(nodes[from], r), add(nodes[to], r), add(nodes[to], l), add(nodes[from], l)], holes: [] });
    for (const node of [from, to])
      for (const [k, e] of fans[node].entries()) {
        const next = fans[node][(k + 1) % fans[node].length];
        if (fans[node].length < 2 || (e.piece !== i && next.piece !== i)) continue;
        // The corner outside the two rectangles, where the turn is wider than half a circle.
        const [p, q] = after(e);
        const kite = tidyRing([
          nodes[node],
          add(nodes[node], scale(left(edgeDirection(arrangement, e)), half(e).left)),
          p,
          q,
          sub(nodes[node], scale(left(edgeDirection(arrangement, next)), half(next).right)),
        ]);
        if (kite.length > 2 && signedArea(kite) > DUST && cross(edgeDirection(arrangement, e), edgeDirection(arrangement, next)) < 0)
          parts.push({ outer: kite, holes: [] });
      }
    clip(i, parts);
  }

  function clip(i: number, parts: Region[]): void {
    // Clipping leaves dust where edges lie on one another.
    const rest = boolean('difference', union(parts), covered)
      .map((r) => tidyRing(r.outer, NEAR * 2))
      .filter((ring) => ring.length > 2 && signedArea(ring) > DUST)
      .sort((p, q) => signedArea(q) - signedArea(p));
    covered = [...covered, ...parts];
    footprints[i] = { ...footprints[i]!, ring: rest[0] ?? [], rest: rest.slice(1) };
  }
}
