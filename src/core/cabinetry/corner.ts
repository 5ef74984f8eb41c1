import { prism } from '../geometry/extrude';
import type { Joint } from '../geometry/joint';
import { MeshBuilder, placement, type Mesh } from '../geometry/mesh';
import type { Ring } from '../geometry/region';
import { add, distance, left, scale, sub, unit, type Vec2 } from '../geometry/vec';
import type { Band, Cell, Construction, FrontLook } from '../project/schema/cabinets';
import type { Made } from '../stock/types';
import { meeting } from './run';
import { leafParts } from './unit';

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
export function cornerLeaves(footprint: Ring, height: number, band: Band, made: Pick<Construction, 'front' | 'gap' | 'side' | 'under'>): CornerLeaf[] {
  const { front, gap, side, under } = made;
  const lines = frontLines(footprint);
  const meets = lines.length > 1 ? front + gap : side;
  return lines.flatMap(([from, to], i): CornerLeaf[] => {
    const [x0, x1] = [i === 0 ? side : meets, distance(from, to) - (i === lines.length - 1 ? side : meets)];
    return x1 - x0 < 0.05 ? [] : [{ from, to, x0, x1, z0: side, z1: height - (band === 'base' ? under : side) }];
  });
}

/**
 * A corner unit that follows two legs: its floor, its top and its shelves are cut to its footprint, its sides stand at its free
 * ends, its backs along both walls; an L has two leaves that turn together, a diagonal one a door across.
 *
 * @param footprint counter-clockwise, from its back at the first leg: back, front, (where fronts meet,) front, back, corner; in its axes
 * @param height of its carcass, metres
 * @param lift height of its carcass above the floor it stands on, metres
 */
export function cornerParts(footprint: Ring, height: number, cell: Cell, band: Band, made: Construction, look: FrontLook, lift: number): Made[] {
  const { board: t, back, setback } = made;
  const n = footprint.length;
  const [a, fa, fb, b, turn] = [footprint[0], footprint[1], footprint[n - 3], footprint[n - 2], footprint[n - 1]];
  const [d, e] = [unit(sub(turn, a)), unit(sub(b, turn))];
  const [od, oe] = [unit(sub(fa, a)), unit(sub(fb, b))];
  const move = (p: Vec2, way: Vec2, by: number): Vec2 => add(p, scale(way, by));
  // Sides stand at the free ends, from the wall to the front.
  const [a1, fa1, b1, fb1] = [move(a, d, t), move(fa, d, t), move(b, e, -t), move(fb, e, -t)];
  const sides: Ring[] = [
    [a, fa, fa1, a1],
    [fb, b, b1, fb1],
  ];
  // Backs are mitred where both walls meet.
  const [a2, b2] = [move(a1, od, back), move(b1, oe, back)];
  const mitre = meeting(a2, d, b2, e);
  const backs: Ring[] = [
    [a1, a2, mitre, turn],
    [turn, mitre, b2, b1],
  ];
  const fronts = frontLines(footprint);
  /** What lies between sides and backs, its front edge set back. */
  const board = (by: number): Ring => {
    const lines = fronts.map(([p, q]): [Vec2, Vec2] => {
      const way = unit(sub(q, p));
      return [move(p, left(way), by), way];
    });
    const [first, last] = [lines[0], lines[lines.length - 1]];
    return [a2, meeting(...first, a1, od), ...(n === 6 ? [meeting(...first, ...last)] : []), meeting(...last, b1, oe), b2, mitre];
  };
  const boards = new MeshBuilder();
  const lay = (rings: readonly Ring[], z0: number, z1: number): void =>
    void boards.add(
      prism(
        rings.map((outer) => ({ outer, holes: [] })),
        lift + z0,
        lift + z1,
      ),
    );
  lay(sides, 0, height);
  lay(backs, 0, height);
  lay([board(0)], 0, t);
  lay([board(0)], height - t, height);
  for (let k = 1; k <= cell.shelves; k++) {
    const z = t + ((height - 2 * t) * k) / (cell.shelves + 1);
    lay([board(setback)], z - t / 2, z + t / 2);
  }
  const parts: Made[] = [{ part: 'carcass', mesh: boards.build() }];
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
    const leaf = { ...face, z0: lift + face.z0, z1: lift + face.z1, y: -0.0004, thick: made.front };
    // One takes hold of the leaf that is farther from the hinges.
    const handled = fronts.length === 1 || (hung === fb) === (p === fa);
    const hand = hung === fa ? 'left' : 'right';
    const { wood, glass, metal, fixed } = leafParts({ hand }, leaf, look, { glazed: cell.kind === 'glazed', drawn: false, band, handled });
    const place = placement(p.x, p.y, 0, Math.atan2(d.y, d.x));
    const put = (mesh: Mesh): Mesh => new MeshBuilder().add(mesh, place).build();
    parts.push({ part: 'fronts', mesh: put(wood), joint }, { part: 'glass', mesh: put(glass), joint });
    parts.push({ part: 'handles', mesh: put(metal), joint: fixed ? undefined : joint });
  });
  return parts.filter((p) => p.mesh.indices.length);
}
