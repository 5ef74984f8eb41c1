import { offsetRing, prism } from '../geometry/extrude';
import type { Joint } from '../geometry/joint';
import { MeshBuilder, placement, type Mesh } from '../geometry/mesh';
import { signedArea } from '../geometry/polygon';
import type { Ring } from '../geometry/region';
import { add, distance, dot, left, scale, sub, unit, type Vec2 } from '../geometry/vec';
import type { Band, Cell, Construction, FrontLook } from '../project/schema/cabinets';
import type { Made } from '../stock/types';
import type { Cut, Panel } from './carcass';
import { meeting } from './run';
import { FOOT, footAt, leafParts } from './unit';

/** The lines fronts of a corner unit stand on: two that meet, or one across. */
function frontLines(footprint: Ring): [Vec2, Vec2][] {
  const n = footprint.length;
  const [fa, fb] = [footprint[1], footprint[n - 3]];
  return n === 6
    ? [
        [fa, footprint[2]],
        [footprint[2], fb],
      ]
    : [[fa, fb]];
}

/** A leaf of a corner unit: the line it stands on, from where to where along it, and between which heights above the foot of the carcass. Metres. */
export interface CornerLeaf {
  from: Vec2;
  to: Vec2;
  x0: number;
  x1: number;
  z0: number;
  z1: number;
}

/** The leaves of a corner unit: where two meet at the inner corner each keeps the thickness of the other free. */
export function cornerLeaves(
  footprint: Ring,
  height: number,
  band: Band,
  made: Pick<Construction, 'front' | 'gap' | 'side' | 'under' | 'lies' | 'board'>,
): CornerLeaf[] {
  const { front, gap, side, under, board, lies } = made;
  const inset = lies === 'inset';
  const edge = { on: side, half: board / 2, inset: board + gap }[lies];
  const lines = frontLines(footprint);
  // Set in between the boards, two that meet in a corner part there.
  const meets = lines.length === 1 ? edge : inset ? gap : front + gap;
  return lines.flatMap(([from, to], i): CornerLeaf[] => {
    const [x0, x1] = [i === 0 ? edge : meets, distance(from, to) - (i === lines.length - 1 ? edge : meets)];
    return x1 - x0 < 0.05 ? [] : [{ from, to, x0, x1, z0: edge, z1: height - (band === 'base' && !inset ? under : edge) }];
  });
}

/** A board of a corner unit: what it covers of the plan, and between which heights above the foot of its carcass. Metres. */
export interface CornerBoard {
  name: Panel['name'];
  ring: Ring;
  z0: number;
  z1: number;
  /** Length of its edges that are seen. */
  edged: number;
  /** Where these begin in its ring, and how many there are; left out: none is seen. */
  front?: { at: number; count: number };
}

/**
 * The boards of a corner unit that follows two legs: its floor, its top and its shelves are cut to its footprint, its sides stand
 * at its free ends, its backs along both walls, mitred where these meet.
 *
 * @param footprint counter-clockwise, from its back at the first leg: back, front, (where fronts meet,) front, back, corner; in its axes
 * @param height of its carcass, metres
 */
export function cornerBoards(footprint: Ring, height: number, cell: Cell, made: Construction): CornerBoard[] {
  const { board: t, back, setback } = made;
  const n = footprint.length;
  const [a, fa, fb, b, turn] = [footprint[0], footprint[1], footprint[n - 3], footprint[n - 2], footprint[n - 1]];
  const [d, e] = [unit(sub(turn, a)), unit(sub(b, turn))];
  const [od, oe] = [unit(sub(fa, a)), unit(sub(fb, b))];
  const move = (p: Vec2, way: Vec2, by: number): Vec2 => add(p, scale(way, by));
  // Sides stand at the free ends, from the wall to the front.
  const [a1, fa1, b1, fb1] = [move(a, d, t), move(fa, d, t), move(b, e, -t), move(fb, e, -t)];
  const [a2, b2] = [move(a1, od, back), move(b1, oe, back)];
  const mitre = meeting(a2, d, b2, e);
  const fronts = frontLines(footprint);
  /** What lies between sides and backs, its front edge set back. */
  const within = (by: number): Pick<CornerBoard, 'ring' | 'edged' | 'front'> => {
    const lines = fronts.map(([p, q]): [Vec2, Vec2] => {
      const way = unit(sub(q, p));
      return [move(p, left(way), by), way];
    });
    const [first, last] = [lines[0], lines[lines.length - 1]];
    const edge = [meeting(...first, a1, od), ...(n === 6 ? [meeting(...first, ...last)] : []), meeting(...last, b1, oe)];
    return {
      ring: [a2, ...edge, b2, mitre],
      front: { at: 1, count: edge.length - 1 },
      edged: edge.reduce((sum, p, i) => (i ? sum + distance(p, edge[i - 1]) : 0), 0),
    };
  };
  const upright = (name: Panel['name'], ring: Ring, edged = 0, at?: number): CornerBoard => ({
    name,
    ring,
    z0: 0,
    z1: height,
    edged,
    ...(at === undefined ? {} : { front: { at, count: 1 } }),
  });
  const flat = (name: Panel['name'], by: number, z0: number, z1: number): CornerBoard => ({ name, ...within(by), z0, z1 });
  const shelves = Array.from({ length: cell.shelves }, (_, k) => t + ((height - 2 * t) * (k + 1)) / (cell.shelves + 1));
  return [
    upright('side', [a, fa, fa1, a1], height, 1),
    upright('side', [fb, b, b1, fb1], height, 3),
    upright('back', [a1, a2, mitre, turn]),
    upright('back', [turn, mitre, b2, b1]),
    flat('bottom', 0, 0, t),
    flat('top', 0, height - t, height),
    ...shelves.map((z) => flat('shelf', setback + (made.lies === 'inset' ? made.front : 0), z - t / 2, z + t / 2)),
  ];
}

/** The boards of a corner unit as lines of a cutting list: those that are cut to a shape by the rectangle they come from, along their longest side. */
export function cornerCuts(boards: readonly CornerBoard[], made: Construction): Cut[] {
  return boards.map(({ name, ring, z0, z1, edged }): Cut => {
    const longest = ring.reduce(
      (best, p, i) => (distance(p, ring[(i + 1) % ring.length]) > distance(ring[best], ring[(best + 1) % ring.length]) ? i : best),
      0,
    );
    const along = unit(sub(ring[(longest + 1) % ring.length], ring[longest]));
    const spans = [along, left(along)].map((way) => {
      const at = ring.map((p) => dot(p, way));
      return Math.max(...at) - Math.min(...at);
    });
    const lies = name === 'bottom' || name === 'top' || name === 'shelf';
    const [length, width, thickness] = lies ? [spans[0], spans[1], z1 - z0] : [z1 - z0, Math.max(...spans), name === 'back' ? made.back : made.board];
    // An edge that is seen is banded: the board is so much less wide, where it is straight.
    const less = edged > 0 ? made.edging : 0;
    return {
      name,
      board: name === 'back' ? 'back' : 'carcass',
      length,
      width: width - less,
      thickness,
      edging: edged,
      count: 1,
      ...(lies ? { shaped: true as const } : {}),
    };
  });
}

/** A board without the edging along its front, and that edging: what lies between its edges and these moved in. */
function edgingOf(ring: Ring, { at, count }: NonNullable<CornerBoard['front']>, thick: number): { rest: Ring; band: Ring } {
  const n = ring.length;
  const outer = Array.from({ length: count + 1 }, (_, k) => ring[(at + k) % n]);
  const [before, behind] = [ring[(at + n - 1) % n], ring[(at + count + 1) % n]];
  const inward = signedArea(ring) > 0 ? thick : -thick;
  const lines = outer.slice(1).map((q, k): [Vec2, Vec2] => {
    const way = unit(sub(q, outer[k]));
    return [add(outer[k], scale(left(way), inward)), way];
  });
  const inner = [
    meeting(...lines[0], before, unit(sub(outer[0], before))),
    ...lines.slice(1).map((line, k) => meeting(...lines[k], ...line)),
    meeting(...lines[lines.length - 1], behind, unit(sub(behind, outer[count]))),
  ];
  const rest = Array.from({ length: n }, (_, i) => {
    const k = (i - at + n) % n;
    return k <= count ? inner[k] : ring[i];
  });
  return { rest, band: [...outer, ...[...inner].reverse()] };
}

/** Feet at the corners of a footprint. */
function feetUnder(footprint: Ring, high: number): Mesh {
  const out = new MeshBuilder();
  const ring = signedArea(footprint) < 0 ? [...footprint].reverse() : footprint;
  for (const p of offsetRing(ring, FOOT.in)) out.add(footAt(p, high));
  return out.build();
}

/**
 * All parts of a corner unit that follows two legs: its boards, and before them two leaves that turn together, or a door across.
 *
 * @param footprint as of its boards, in its axes
 * @param height of its carcass, metres
 * @param lift height of its carcass above the floor it stands on, metres
 * @param banded the edging of its boards is of another finish than these
 */
export function cornerParts(
  footprint: Ring,
  height: number,
  cell: Cell,
  band: Band,
  made: Construction,
  look: FrontLook,
  lift: number,
  banded = false,
): Made[] {
  const n = footprint.length;
  const [fa, fb] = [footprint[1], footprint[n - 3]];
  const fronts = frontLines(footprint);
  const [boards, edges] = [new MeshBuilder(), new MeshBuilder()];
  for (const { ring, front, z0, z1 } of cornerBoards(footprint, height, cell, made)) {
    const strip = banded && made.edging > 0 && front ? edgingOf(ring, front, made.edging) : null;
    boards.add(prism([{ outer: strip?.rest ?? ring, holes: [] }], lift + z0, lift + z1));
    if (strip) edges.add(prism([{ outer: strip.band, holes: [] }], lift + z0, lift + z1));
  }
  const parts: Made[] = [
    { part: 'carcass', mesh: boards.build() },
    { part: 'edges', mesh: edges.build() },
  ];
  if (lift > 0 && made.stands === 'feet') parts.push({ part: 'feet', mesh: feetUnder(footprint, lift) });
  if (cell.kind === 'open') return parts;
  const hung = cell.hand === 'left' ? fa : fb;
  const joint: Joint = {
    kind: 'hinge',
    at: { ...hung, z: 0 },
    axis: { x: 0, y: 0, z: hung === fa ? -1 : 1 },
    range: [0, (100 * Math.PI) / 180],
  };
  cornerLeaves(footprint, height, band, made).forEach(({ from: p, to: q, ...face }) => {
    const d = unit(sub(q, p));
    const leaf = { ...face, z0: lift + face.z0, z1: lift + face.z1, y: made.lies === 'inset' ? made.front : -0.0004, thick: made.front };
    // One takes hold of the leaf that is farther from the hinges.
    const handled = fronts.length === 1 || (hung === fb) === (p === fa);
    const hand = hung === fa ? 'left' : 'right';
    const { wood, glass, metal, fixed } = leafParts({ hand }, leaf, look, { glazed: cell.kind === 'glazed', drawn: false, band, held: null, handled });
    const place = placement(p.x, p.y, 0, Math.atan2(d.y, d.x));
    const put = (mesh: Mesh): Mesh => new MeshBuilder().add(mesh, place).build();
    parts.push({ part: 'fronts', mesh: put(wood), joint }, { part: 'glass', mesh: put(glass), joint });
    parts.push({ part: 'handles', mesh: put(metal), joint: fixed ? undefined : joint });
  });
  return parts.filter((p) => p.mesh.indices.length);
}
