import type { Arrangement, Cycle, LinePiece, PlanFace } from '../geometry/arrangement';
import { insideRing, isSimple, piecesAround, ringNormal, signedArea, tidyRing } from '../geometry/polygon';
import type { Region, Ring } from '../geometry/region';
import { beside } from '../geometry/polyline';
import { sweepOutline, SweepError, type Slope, type Sweep } from '../geometry/skeleton';
import { add, cross, distance, dot, left, lerp, meet, scale, sub, unit, type Vec2, type Vec3 } from '../geometry/vec';
import { DomainError } from './errors';
import { inPhase, standsIn } from './phase';
import type { Level, Project, Roof, RoofEdge, Room, Wall } from './schema';
import { levelAbove } from './levels';
import { faceAt, planOf, roomsByFace } from './topology';
import { stationAt, wallEnds, wallExtents, wallLength, wallPath, wallRidge, wallTopAt } from './wall-line';
import { DUST, HAIR, NEAR, NIL, TOUCH } from '../units/tolerance';

/** One edge of the outline a roof covers: over the outer face of a wall, or of a free outline. */
export interface EaveLine {
  /** By which the edge is told otherwise: the wall below, or its number in a free outline. */
  key: string;
  a: Vec2;
  b: Vec2;
}

/** A plane of a roof's underside or upper side. Heights in metres above the floor of the level. */
export interface RoofPlane {
  edge: number;
  ring: Vec3[];
  /** Height over a point of the plan: gx·x + gy·y + c; null where it stands upright. */
  plane: { gx: number; gy: number; c: number } | null;
}

/** A roof worked out: its outline with the overhangs, both of its sides. */
export interface RoofShape {
  roof: Roof;
  /** The lines over the walls, ring by ring: round each of its outlines, then round the courts in it, with the roof at their left. */
  rings: EaveLine[][];
  /** The lines of all rings in one row: planes are numbered by them. */
  lines: EaveLine[];
  /** Its outlines with the overhangs, courts taken out. */
  outlines: Region[];
  under: RoofPlane[];
  upper: RoofPlane[];
  /** Height of the ridge of its upper side. */
  top: number;
}

/** How an edge is closed. */
export const edgeOf = (roof: Roof, key: string): RoofEdge => roof.edges[key] ?? roof.all;

/** The outer line of a cycle of walls, each edge over the face that looks away from it. */
function outerLines(arrangement: Arrangement, cycle: Cycle): EaveLine[] {
  // An outside cycle has the outside at its left; seen from the house it runs the other way round.
  const edges = [...cycle.edges].reverse().map((e) => {
    const piece = arrangement.pieces[e.piece]!;
    const [from, to] = e.forward ? [piece.to, piece.from] : [piece.from, piece.to];
    const [a, b] = [arrangement.nodes[from], arrangement.nodes[to]];
    const out = e.forward ? piece.left : piece.right;
    return { key: piece.line, a, b, out };
  });
  // Walls that stick out alone are passed on both sides: they carry nothing.
  const kept = edges.filter((e, i) => !edges.some((o, k) => k !== i && o.a === e.b && o.b === e.a));
  const shifted = kept.map(({ key, a, b, out }) => {
    const n = scale(left(unit(sub(b, a))), -out);
    return { key, a: add(a, n), b: add(b, n) };
  });
  return joined(shifted);
}

/** Edges brought to meet at their corners; those that run on in one line become one. */
function joined(edges: readonly EaveLine[]): EaveLine[] {
  const merged: EaveLine[] = [];
  for (const e of edges) {
    const last = merged[merged.length - 1];
    if (last && runsOn(last, e)) merged[merged.length - 1] = { ...last, b: e.b };
    else merged.push({ ...e });
  }
  if (merged.length > 2 && runsOn(merged[merged.length - 1], merged[0])) merged[0] = { ...merged[0], a: merged.pop()!.a };
  const ring = merged.map((e, i) => {
    const before = merged[(i + merged.length - 1) % merged.length];
    return meet(before.a, sub(before.b, before.a), e.a, sub(e.b, e.a)) ?? e.a;
  });
  return merged.map((e, i) => ({ key: e.key, a: ring[i], b: ring[(i + 1) % ring.length] })).filter((e) => distance(e.a, e.b) > NEAR);
}

function runsOn(p: EaveLine, q: EaveLine): boolean {
  const [d, e] = [unit(sub(p.b, p.a)), unit(sub(q.b, q.a))];
  return dot(d, e) > 0 && Math.abs(cross(d, e)) < NEAR && Math.abs(cross(d, sub(q.a, p.a))) < TOUCH;
}

/** The rings of lines a roof covers, with the roof at their left. @param project in one phase */
function ringsOf(project: Project, roof: Roof): EaveLine[][] {
  if (roof.over.kind === 'outline') {
    const points = signedArea(roof.over.points) < 0 ? [...roof.over.points].reverse() : roof.over.points;
    return [points.map((a, i) => ({ key: String(i), a, b: points[(i + 1) % points.length] }))];
  }
  const { arrangement } = planOf(project, roof.level);
  if (roof.over.kind === 'level') {
    const outer = arrangement.outside.map((cycle) => outerLines(arrangement, cycle)).filter((lines) => lines.length > 2);
    return [...outer.sort((p, q) => areaOf(q) - areaOf(p)), ...courtsOf(project, roof.level, arrangement)];
  }
  if (roof.over.kind !== 'rooms') return [];
  const over = levelAbove(project, roof.level);
  const above = over ? planOf(project, over.id).arrangement : null;
  // The outline of several rooms: their walls, less those that they share.
  const wanted = new Set(roof.over.rooms);
  const faces = [...roomsByFace(project, roof.level)].filter(([, room]) => wanted.has(room.id)).map(([f]) => arrangement.faces[f]);
  return borderRings(arrangement, faces, (piece, forward, a, b) => {
    const out = forward ? piece.right : piece.left;
    const d = unit(sub(b, a));
    // Against a wall that goes on upwards the roof ends at its near face; else it covers the wall.
    const far = add(lerp(a, b, 0.5), scale(left(d), -out - 0.05));
    return above && faceAt(above, far) >= 0 ? (forward ? piece.left : piece.right) : -out;
  });
}

/**
 * The rings round faces of the plan, less the lines that they share, with the faces at their left.
 *
 * @param aside how far to the left of its wall the line of a piece lies, metres; `forward`: the face lies to the left of the piece
 */
function borderRings(
  arrangement: Arrangement,
  faces: readonly PlanFace[],
  aside: (piece: LinePiece, forward: boolean, a: Vec2, b: Vec2) => number,
): EaveLine[][] {
  const edges = faces.flatMap((face) => face.outer.edges);
  const own = new Set(edges.map((e) => `${e.piece} ${e.forward}`));
  const open = edges.filter((e) => !own.has(`${e.piece} ${!e.forward}`));
  const rings: EaveLine[][] = [];
  while (open.length) {
    const lines: EaveLine[] = [];
    let at = open.pop();
    while (at) {
      const piece = arrangement.pieces[at.piece]!;
      const [from, to] = at.forward ? [piece.from, piece.to] : [piece.to, piece.from];
      const [a, b] = [arrangement.nodes[from], arrangement.nodes[to]];
      const n = scale(left(unit(sub(b, a))), aside(piece, at.forward, a, b));
      lines.push({ key: piece.line, a: add(a, n), b: add(b, n) });
      const k = open.findIndex((e) => {
        const p = arrangement.pieces[e.piece]!;
        return (e.forward ? p.from : p.to) === to;
      });
      at = k < 0 ? undefined : open.splice(k, 1)[0];
    }
    const ring = joined(lines);
    if (ring.length > 2) rings.push(ring);
  }
  return rings.sort((p, q) => areaOf(q) - areaOf(p));
}

/** Rooms of a level that are open to the sky. */
const skyRooms = (project: Pick<Project, 'rooms'>, level: string): Room[] =>
  Object.values(project.rooms).filter((r) => r.level === level && r.cover.kind === 'open');

/** The rings of the courts within a level: rooms open to the sky with other rooms all round, seen from the roof about them. */
function courtsOf(project: Project, level: string, arrangement: Arrangement): EaveLine[][] {
  const sky = new Set(skyRooms(project, level).map((r) => r.id));
  if (!sky.size) return [];
  const outside = new Set(arrangement.outside.flatMap((cycle) => cycle.edges.map((e) => `${e.piece} ${!e.forward}`)));
  const faces = [...roomsByFace(project, level)]
    .filter(([, room]) => sky.has(room.id))
    .map(([f]) => arrangement.faces[f])
    .filter((face) => face.outer.edges.every((e) => !outside.has(`${e.piece} ${e.forward}`)));
  return borderRings(arrangement, faces, (piece, forward) => (forward ? piece.left : piece.right)).map((ring) =>
    [...ring].reverse().map(({ key, a, b }) => ({ key, a: b, b: a })),
  );
}

const areaOf = (lines: readonly EaveLine[]): number => signedArea(lines.map((l) => l.a));

/** Metres inwards a metre of rise. */
const run = (pitch: number): number => 1 / Math.tan(pitch);

/** The slopes of an edge, from the height its underside (or upper side) has over the edge of the overhang. */
function slopesOf(edge: RoofEdge, level: Level, lift: (pitch: number) => number, low: number): Slope[] {
  const line = level.height + edge.rise;
  if (edge.form === 'gable') return [{ from: low, run: 0 }];
  if (edge.form === 'half-hip')
    return [
      { from: low, run: 0 },
      { from: line + edge.hip + lift(edge.pitch), run: run(edge.pitch) },
    ];
  const eave = line - edge.overhang * Math.tan(edge.pitch) + lift(edge.pitch);
  const slopes = [{ from: eave, run: run(edge.pitch) }];
  if (edge.upper) {
    // Above the break the plane has another pitch; the build-up is as thick square to either.
    const t1 = Math.tan(edge.pitch);
    const t2 = Math.tan(edge.upper.pitch);
    const [l1, l2] = [lift(edge.pitch), lift(edge.upper.pitch)];
    // Where the two raised planes meet.
    const d = edge.upper.from / t1 + (Math.abs(t1 - t2) < DUST ? 0 : (l2 - l1) / (t1 - t2));
    slopes.push({ from: line + l1 + d * t1, run: run(edge.upper.pitch) });
  }
  return slopes;
}

interface Known {
  arrangement: Arrangement;
  level: Level;
  rooms: object;
  /** The rooms open to the sky, which a roof over the level leaves free. */
  sky: string;
  /** Of the level above, where walls may go on upwards. */
  above: Arrangement | null;
  shape: RoofShape | null;
}

/** The shapes of each roof over the last few plans of its walls: before and after an edit, in both phases. */
const shapes = new WeakMap<Roof, Known[]>();
const KEPT = 4;

/**
 * A roof over its outline; null where it has none (yet). Remembered while its walls stay the same.
 *
 * @param project in one phase
 */
export function roofShape(project: Project, roof: Roof): RoofShape | null {
  const { arrangement } = planOf(project, roof.level);
  const level = project.levels[roof.level];
  const rooms = roof.over.kind === 'rooms' ? project.rooms : NONE;
  const next = roof.over.kind === 'rooms' ? levelAbove(project, roof.level) : null;
  const above = next ? planOf(project, next.id).arrangement : null;
  const sky =
    roof.over.kind === 'level'
      ? skyRooms(project, roof.level)
          .map((r) => r.id)
          .join(' ')
      : '';
  const known = shapes.get(roof) ?? [];
  const same = known.find((k) => k.arrangement === arrangement && k.level === level && k.rooms === rooms && k.above === above && k.sky === sky);
  if (same) return same.shape;
  const shape = makeShape(project, roof, level);
  shapes.set(roof, [{ arrangement, level, rooms, sky, above, shape }, ...known].slice(0, KEPT));
  return shape;
}

const NONE = {};

/** Whether a roof is drawn as it is, not found from the edges of an outline. */
export const isDrawn = (roof: Roof): boolean => roof.over.kind === 'swept' || roof.over.kind === 'plane';

const numbered = (ring: Ring): EaveLine[] => ring.map((a, i) => ({ key: String(i), a, b: ring[(i + 1) % ring.length] }));

/** One plane as it was drawn. */
function drawnPlane(roof: Roof, level: Level): RoofShape | null {
  if (roof.over.kind !== 'plane') return null;
  const { points, z, direction, pitch } = roof.over;
  const ring = signedArea(points) < 0 ? [...points].reverse() : points;
  if (!isSimple(ring) || Math.abs(signedArea(ring)) < 0.01) return null;
  const [gx, gy] = [Math.cos(direction) * Math.tan(pitch), Math.sin(direction) * Math.tan(pitch)];
  const plane = (lift: number): RoofPlane => {
    const c = level.height + z + lift - gx * points[0].x - gy * points[0].y;
    return { edge: 0, ring: ring.map((p) => ({ ...p, z: gx * p.x + gy * p.y + c })), plane: { gx, gy, c } };
  };
  const upper = [plane(roof.thickness / Math.cos(pitch))];
  return {
    roof,
    rings: [numbered(ring)],
    lines: numbered(ring),
    outlines: [{ outer: ring, holes: [] }],
    under: [plane(0)],
    upper,
    top: Math.max(...upper[0].ring.map((p) => p.z)),
  };
}

/** A cross-section carried along a path; bends of the path are mitred. */
function sweptSection(roof: Roof, level: Level): RoofShape | null {
  if (roof.over.kind !== 'swept') return null;
  const { path, section } = roof.over;
  // The upper side lies the build-up above, square to every piece of the section; its ends are plumb over those of the underside.
  const flat = section.map((p): Vec2 => ({ x: p.x, y: p.z }));
  const lifted = beside(flat, roof.thickness);
  const [first, last] = [flat[0].x, flat[flat.length - 1].x];
  const over = (x: number): number => {
    let k = 0;
    while (k + 2 < lifted.length && lifted[k + 1].x < x) k++;
    const [a, b] = [lifted[k], lifted[k + 1]];
    return a.y + ((b.y - a.y) * (x - a.x)) / (b.x - a.x || 1);
  };
  const raised = [
    { x: first, z: over(first) },
    ...lifted.filter((p) => p.x > first + HAIR && p.x < last - HAIR).map((p) => ({ x: p.x, z: p.y })),
    { x: last, z: over(last) },
  ];
  const planes = (points: readonly { x: number; z: number }[]): RoofPlane[] | null => {
    const out: RoofPlane[] = [];
    const lines = points.map((p) => beside(path, p.x));
    for (let k = 0; k + 1 < points.length; k++)
      for (let j = 0; j + 1 < path.length; j++) {
        const [z0, z1] = [level.height + points[k].z, level.height + points[k + 1].z];
        const ring = [
          { ...lines[k][j], z: z0 },
          { ...lines[k][j + 1], z: z0 },
          { ...lines[k + 1][j + 1], z: z1 },
          { ...lines[k + 1][j], z: z1 },
        ];
        if (points[k + 1].x - points[k].x < NEAR || signedArea(ring) < NEAR || !isSimple(ring)) return null;
        out.push({ edge: k, ring, plane: planeOf(ring) });
      }
    return out;
  };
  const [under, upper] = [planes(section), planes(raised)];
  if (!under || !upper) return null;
  const outer = [...beside(path, section[0].x), ...beside(path, section[section.length - 1].x).reverse()];
  if (!isSimple(outer)) return null;
  const top = Math.max(...upper.flatMap((q) => q.ring.map((p) => p.z)));
  return { roof, rings: [numbered(outer)], lines: numbered(outer), outlines: [{ outer, holes: [] }], under, upper, top };
}

function makeShape(project: Project, roof: Roof, level: Level): RoofShape | null {
  if (roof.over.kind === 'plane') return drawnPlane(roof, level);
  if (roof.over.kind === 'swept') return sweptSection(roof, level);
  const rings = ringsOf(project, roof).filter((lines) => lines.length > 2 && Math.abs(areaOf(lines)) > 0.1);
  const parts = partsOf(rings);
  if (!parts.length) return null;
  const flat = roof.form === 'flat';
  // In the order of the parts, each with its courts.
  const ordered = parts.flat();
  const lines = ordered.flat();
  const edges = lines.map((l) => edgeOf(roof, l.key));
  const outlines = parts.map(([outer, ...courts]): Region => {
    const [ring, ...holes] = [outer, ...courts].map((lines) => overhung(roof, lines));
    return { outer: ring, holes };
  });
  if (flat) {
    const at = (z: number): RoofPlane[] =>
      outlines
        .flatMap(({ outer, holes }) =>
          piecesAround(
            outer,
            holes.map((hole) => [...hole].reverse()),
          ),
        )
        .map((ring) => ({ edge: -1, ring: ring.map((p) => ({ ...p, z })), plane: { gx: 0, gy: 0, c: z } }));
    const z = level.height + roof.all.rise;
    return { roof, rings: ordered, lines, outlines, under: at(z), upper: at(z + roof.thickness), top: z + roof.thickness };
  }
  const sides = [() => 0, (pitch: number) => roof.thickness / Math.cos(pitch)].map((lift): Sweep | null => {
    const starts = edges.filter((e) => e.form === 'slope').map((e) => level.height + e.rise - e.overhang * Math.tan(e.pitch) + lift(e.pitch));
    const low = Math.min(...(starts.length ? starts : edges.map((e) => level.height + e.rise)));
    const whole: Sweep = { faces: [], cap: [], top: -Infinity };
    let first = 0;
    try {
      for (const [i, part] of parts.entries()) {
        const own = part.flat().map((l) => slopesOf(edgeOf(roof, l.key), level, lift, low));
        const { faces, cap, top } = sweepOutline(outlines[i], own);
        const from = first;
        whole.faces.push(...faces.map((f) => (f.edge < 0 ? f : { ...f, edge: f.edge + from })));
        whole.cap.push(...cap);
        whole.top = Math.max(whole.top, top);
        first += own.length;
      }
      return whole;
    } catch (error) {
      // Planes that never meet make no roof; whoever sets it is told so by `checkRoof`.
      if (error instanceof SweepError) return null;
      throw error;
    }
  });
  if (!sides[0] || !sides[1]) return null;
  const planes = (sweep: Sweep): RoofPlane[] => sweep.faces.map((f) => ({ edge: f.edge, ring: f.ring, plane: f.slope >= 0 ? planeOf(f.ring) : null }));
  return { roof, rings: ordered, lines, outlines, under: planes(sides[0]), upper: planes(sides[1]), top: sides[1].top };
}

/** Rings as the parts of a roof: an outline each, with the courts that lie in it. */
function partsOf(rings: readonly EaveLine[][]): EaveLine[][][] {
  const parts = rings.filter((lines) => areaOf(lines) > 0).map((outer) => [outer]);
  for (const court of rings.filter((lines) => areaOf(lines) < 0))
    parts
      .find(([outer]) =>
        insideRing(
          court[0].a,
          outer.map((l) => l.a),
        ),
      )
      ?.push(court);
  return parts;
}

/** A ring of lines moved out by the overhang of each. */
function overhung(roof: Roof, lines: readonly EaveLine[]): Ring {
  const shifted = lines.map(({ key, a, b }) => {
    const n = scale(left(unit(sub(b, a))), roof.form === 'flat' && roof.parapet > 0 ? 0 : -edgeOf(roof, key).overhang);
    return { a: add(a, n), b: add(b, n) };
  });
  return shifted.map((e, i) => {
    const before = shifted[(i + shifted.length - 1) % shifted.length];
    return meet(before.a, sub(before.b, before.a), e.a, sub(e.b, e.a)) ?? e.a;
  });
}

/** The plane through a ring as height over the plan; null where it stands upright. */
function planeOf(ring: readonly Vec3[]): RoofPlane['plane'] {
  const n = ringNormal(ring);
  if (!n || Math.abs(n.z) < NEAR) return null;
  const [gx, gy] = [-n.x / n.z, -n.y / n.z];
  return { gx, gy, c: ring[0].z - gx * ring[0].x - gy * ring[0].y };
}

/**
 * Edges of a mansard that have shrunk to nothing below their break: they have no upper plane, and above the break those of their
 * neighbours go on. An edge that is gone does not come back, though its upper plane would lie lower farther in.
 *
 * @returns places in `lines`
 */
export function endBelowBreak({ roof, lines, under }: Pick<RoofShape, 'roof' | 'lines' | 'under'>): number[] {
  return lines.flatMap((line, i) => {
    const { form, upper } = edgeOf(roof, line.key);
    if (form === 'gable' || !upper) return [];
    const steep = Math.tan(upper.pitch);
    const there = under.some((q) => q.edge === i && q.plane && Math.abs(Math.hypot(q.plane.gx, q.plane.gy) - steep) < NEAR * 10);
    return there ? [] : [i];
  });
}

/** The plan of a plane. */
export const planRing = (plane: RoofPlane): Ring => tidyRing(plane.ring.map(({ x, y }) => ({ x, y })));

/** The roofs of a level in a phase, worked out. @param project in one phase */
export function roofsOver(project: Project, level: string): RoofShape[] {
  const out: RoofShape[] = [];
  for (const id in project.roofs) {
    if (project.roofs[id].level !== level) continue;
    const shape = roofShape(project, project.roofs[id]);
    if (shape) out.push(shape);
  }
  return out;
}

/** The roofs that walls and rooms go up to: those built on them, and shelters over an outline of their own only where there are no others. */
export function roofsToFollow(shapes: readonly RoofShape[]): readonly RoofShape[] {
  const built = shapes.filter((s) => s.roof.over.kind === 'level' || s.roof.over.kind === 'rooms');
  return built.length ? built : shapes;
}

/** A ring as numbers, with the box round it: asked about often. */
interface FlatRing {
  xy: Float64Array;
  x0: number;
  y0: number;
  x1: number;
  y1: number;
}

function flatRing(ring: readonly Vec2[]): FlatRing {
  const flat: FlatRing = { xy: new Float64Array(ring.length * 2), x0: Infinity, y0: Infinity, x1: -Infinity, y1: -Infinity };
  ring.forEach(({ x, y }, i) => {
    flat.xy[i * 2] = x;
    flat.xy[i * 2 + 1] = y;
    flat.x0 = Math.min(flat.x0, x - TOUCH);
    flat.y0 = Math.min(flat.y0, y - TOUCH);
    flat.x1 = Math.max(flat.x1, x + TOUCH);
    flat.y1 = Math.max(flat.y1, y + TOUCH);
  });
  return flat;
}

const flats = new WeakMap<RoofShape, { outlines: FlatRing[]; under: { plane: NonNullable<RoofPlane['plane']>; ring: FlatRing }[] }>();

function flatOf(shape: RoofShape): NonNullable<ReturnType<typeof flats.get>> {
  let flat = flats.get(shape);
  if (!flat) {
    flat = {
      outlines: shape.outlines.map((o) => flatRing(o.outer)),
      under: shape.under.flatMap(({ plane, ring }) => (plane ? [{ plane, ring: flatRing(ring) }] : [])),
    };
    flats.set(shape, flat);
  }
  return flat;
}

/** Whether a point lies in a ring or on its edge. */
function covers({ xy, x0, y0, x1, y1 }: FlatRing, x: number, y: number): boolean {
  if (x < x0 || x > x1 || y < y0 || y > y1) return false;
  let within = false;
  for (let i = 0, j = xy.length - 2; i < xy.length; j = i, i += 2) {
    const [ax, ay, bx, by] = [xy[j], xy[j + 1], xy[i], xy[i + 1]];
    if (ay > y !== by > y && x < ax + ((bx - ax) * (y - ay)) / (by - ay)) within = !within;
    const [dx, dy] = [bx - ax, by - ay];
    const l2 = dx * dx + dy * dy;
    if (l2 < NIL) continue;
    const t = Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / l2));
    const [ox, oy] = [x - ax - dx * t, y - ay - dy * t];
    if (ox * ox + oy * oy < TOUCH * TOUCH) return true;
  }
  return within;
}

/** Height of the lowest roof over a point, above the floor of the level, metres; null where none is over it. */
export function roofHeight(shapes: readonly RoofShape[], p: Vec2): number | null {
  let best: number | null = null;
  for (const shape of shapes) {
    const { outlines, under } = flatOf(shape);
    if (!outlines.some((outline) => covers(outline, p.x, p.y))) continue;
    for (const { plane, ring } of under) {
      if (!covers(ring, p.x, p.y)) continue;
      const z = plane.gx * p.x + plane.gy * p.y + plane.c;
      if (best === null || z < best) best = z;
    }
  }
  return best;
}

/** The walls along the outline of a roof. */
export function wallsBelow(project: Project, roof: Roof): string[] {
  const phase = standsIn(roof.status, 'after') ? 'after' : 'before';
  const shape = roofShape(inPhase(project, phase), roof);
  if (!shape || (roof.over.kind !== 'level' && roof.over.kind !== 'rooms')) return [];
  // Walls that run along the lines, also those that were brought together to one line.
  return Object.values(project.walls)
    .filter((w) => w.level === roof.level && w.kind === 'wall' && alongLines(project, w, shape.lines))
    .map((w) => w.id);
}

/** Whether one face of a wall lies in one of the lines. */
function alongLines(project: Project, wall: Wall, lines: readonly EaveLine[]): boolean {
  const [a, b] = wallEnds(project, wall);
  const { left: l, right: r } = wallExtents(project, wall);
  const n = left(unit(sub(b, a)));
  return [l, -r].some((y) => {
    const [p, q] = [add(a, scale(n, y)), add(b, scale(n, y))];
    return lines.some((line) => {
      const d = unit(sub(line.b, line.a));
      const along = dot(sub(lerp(p, q, 0.5), line.a), d);
      return Math.abs(cross(d, sub(p, line.a))) < HAIR && Math.abs(cross(d, sub(q, line.a))) < HAIR && along > 0 && along < distance(line.a, line.b);
    });
  });
}

/** Refuses a roof whose planes never meet, or that has nothing to cover. @throws DomainError `roof.…` */
export function checkRoof(project: Project, roof: Roof): void {
  let found = false;
  for (const phase of (['before', 'after'] as const).filter((p) => standsIn(roof.status, p))) if (roofShape(inPhase(project, phase), roof)) found = true;
  if (found) return;
  if (isDrawn(roof))
    throw new DomainError('roof.drawn', `${roof.name} was not set: its outline crosses itself, or its section is too wide for the bends of its path.`, [
      roof.id,
    ]);
  const phase = standsIn(roof.status, 'after') ? 'after' : 'before';
  if (ringsOf(inPhase(project, phase), roof).length)
    throw new DomainError('roof.open', `${roof.name} was not changed: its planes would never meet; let at least one more edge slope.`, [roof.id]);
  throw new DomainError('roof.nothing', `${roof.name} was not set: there is no closed outline for it to cover; draw walls round a room first.`, [roof.id]);
}

/** Where a line of the plan crosses the edges between the planes of roofs, as shares of its length. */
export function creases(shapes: readonly RoofShape[], a: Vec2, b: Vec2): number[] {
  const d = sub(b, a);
  const found: number[] = [];
  for (const { under } of shapes)
    for (const { ring, plane } of under) {
      if (!plane) continue;
      ring.forEach((p, i) => {
        const e = sub(ring[(i + 1) % ring.length], p);
        const det = cross(d, e);
        // A crease along the line does not cross it.
        if (Math.abs(det) < NEAR * Math.sqrt(dot(d, d) * dot(e, e))) return;
        const t = cross(sub(p, a), e) / det;
        const k = cross(sub(p, a), d) / det;
        if (t > NEAR && t < 1 - NEAR && k > -NEAR && k < 1 + NEAR) found.push(t);
      });
    }
  return found.sort((p, q) => p - q).filter((t, i, list) => i === 0 || t - list[i - 1] > NEAR);
}

/** The roofs over a wall in the phase it stands in. */
const roofsAbove = (project: Project, wall: Wall): readonly RoofShape[] =>
  roofsToFollow(roofsOver(inPhase(project, standsIn(wall.status, 'after') ? 'after' : 'before'), wall.level));

/** Height of a wall's upper edge at a distance from its start: of both its faces the lower, above the floor of the level, metres. */
export function wallHeight(project: Project, wall: Wall, s: number): number {
  const level = project.levels[wall.level];
  const length = wallLength(project, wall);
  if (wall.top.kind !== 'roof') return wallTopAt(wall, level, s / length);
  const roofs = roofsAbove(project, wall);
  const { p, d } = stationAt(wallPath(project, wall), s);
  const { left: l, right: r } = wallExtents(project, wall);
  return Math.min(...[l, -r].map((y) => roofHeight(roofs, add(p, scale(left(d), y))) ?? level.height));
}

/** Where along a wall, as a share of its length, its upper edge has a ridge: of its own rake, or of the roof above; null where it has none. */
export function ridgeOver(project: Project, wall: Wall): number | null {
  const level = project.levels[wall.level];
  if (wall.top.kind !== 'roof') return wallRidge(wall, level);
  const [a, b] = wallEnds(project, wall);
  const roofs = roofsAbove(project, wall);
  const height = (t: number): number => roofHeight(roofs, lerp(a, b, t)) ?? level.height;
  const bends = creases(roofs, a, b).filter((t) => height(t) > height(t - 1e-3) && height(t) > height(t + 1e-3));
  return bends.length ? bends.reduce((best, t) => (height(t) > height(best) ? t : best)) : null;
}
