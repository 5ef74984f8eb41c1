import { prism } from '../../geometry/extrude';
import { MeshBuilder } from '../../geometry/mesh';
import { signedArea, tidyRing } from '../../geometry/polygon';
import type { Ring } from '../../geometry/region';
import { add, dot, left, meet, rotate, scale, sub, type Vec2 } from '../../geometry/vec';
import { openingStation } from '../../project/openings';
import type { Opening, Project } from '../../project/schema';
import { wallExtents } from '../../project/wall-line';
import { frameDepth, framePlace, type Standing } from '../../project/opening-stand';
import { JOINERY } from './sizes';

/** A stretch of a corner window, along the middle of its wall. */
interface Stretch {
  /** Its jamb away from the corner. */
  jamb: Vec2;
  /** Direction in which the path runs: towards the corner in the first, away from it in the second. */
  d: Vec2;
  /** Half the thickness of the wall. */
  half: number;
}

/** A corner window in the plan as a path from its one jamb round the corner to the other. */
export interface CornerShape {
  first: Stretch;
  second: Stretch;
  /** The side of the path that is indoors: 1 left, −1 right. */
  indoors: 1 | -1;
}

/** The path of a corner window. @param inside the side of its own wall that is indoors */
export function cornerShape(project: Project, opening: Opening, leg: Opening, inside: 'left' | 'right'): CornerShape {
  const stretch = (part: Opening, towards: boolean): Stretch => {
    const { p, d } = openingStation(project, part);
    const { left: l, right: r } = wallExtents(project, project.walls[part.wall]);
    // From its middle to its far jamb it goes away from the corner.
    const away = part.hinge === 'start' ? 1 : -1;
    return {
      jamb: add(add(p, scale(left(d), (l - r) / 2)), scale(d, (away * part.width) / 2)),
      d: scale(d, towards ? -away : away),
      half: (l + r) / 2,
    };
  };
  const indoors = (inside === 'left') === (opening.hinge === 'end') ? 1 : -1;
  return { first: stretch(opening, true), second: stretch(leg, false), indoors };
}

/** A line parallel to the path, so far to the left of the middle of each wall: jamb, corner, jamb. */
export function parallel({ first, second }: CornerShape, y1: number, y2: number): [Vec2, Vec2, Vec2] {
  const a = add(first.jamb, scale(left(first.d), y1));
  const b = add(second.jamb, scale(left(second.d), y2));
  return [a, meet(a, first.d, b, second.d) ?? a, b];
}

/** How far the middle of the frame lies to the left of the middle of each wall. */
export const frameLines = ({ first, second, indoors }: CornerShape, opening: Standing): [number, number] => [
  framePlace(opening, first.half * 2, indoors > 0 ? 'left' : 'right'),
  framePlace(opening, second.half * 2, indoors > 0 ? 'left' : 'right'),
];

/** Half the depth of the frame in each wall, metres. */
export const frameHalves = ({ first, second }: CornerShape, opening: Standing): [number, number] => [
  frameDepth(opening, first.half * 2) / 2,
  frameDepth(opening, second.half * 2) / 2,
];

/** A corner window as seen from axes at a point, turned by an angle. */
export function seenFrom(shape: CornerShape, origin: Vec2, angle: number): CornerShape {
  const turn = (s: Stretch): Stretch => ({ ...s, jamb: rotate(sub(s.jamb, origin), -angle), d: rotate(s.d, -angle) });
  return { ...shape, first: turn(shape.first), second: turn(shape.second) };
}

/** The band between two parallels, as a ring. */
export function bandOf(shape: CornerShape, [a1, a2]: [number, number], [b1, b2]: [number, number]): Ring {
  // Where a frame fills its wall, a band may have no width in one of the two.
  const ring = tidyRing([...parallel(shape, a1, a2), ...parallel(shape, b1, b2).reverse()]);
  return signedArea(ring) < 0 ? ring.reverse() : ring;
}

/** Where the glazed frames of the two stretches stand: origin, direction and length, the post between them left free. */
export function cornerFrames(shape: CornerShape, opening: Opening): { origin: Vec2; d: Vec2; length: number; depth: number }[] {
  const [y1, y2] = frameLines(shape, opening);
  const [a, c, b] = parallel(shape, y1, y2);
  const post = postOf(shape, opening);
  const reach = (d: Vec2): number[] => post.map((p) => dot(sub(p, c), d));
  const [d1, d2] = [shape.first.d, shape.second.d];
  const [f1, f2] = frameHalves(shape, opening);
  const before = -Math.min(...reach(d1));
  const after = Math.max(...reach(d2));
  return [
    { origin: a, d: d1, length: dot(sub(c, a), d1) - before, depth: 2 * f1 },
    { origin: add(c, scale(d2, after)), d: d2, length: dot(sub(b, c), d2) - after, depth: 2 * f2 },
  ];
}

/** The post where the two frames meet. */
function postOf(shape: CornerShape, opening: Opening): Ring {
  const [y1, y2] = frameLines(shape, opening);
  const [f1, f2] = frameHalves(shape, opening);
  const ring = [
    [f1, f2],
    [-f1, f2],
    [-f1, -f2],
    [f1, -f2],
  ].map(([p, q]) => parallel(shape, y1 + p, y2 + q)[1]);
  return signedArea(ring) < 0 ? ring.reverse() : ring;
}

/** Post and sill board of a corner window. */
export function cornerJoinery(shape: CornerShape, opening: Opening): { post: MeshBuilder; sill: MeshBuilder } {
  const { sill, height, sillBoard } = opening;
  const post = new MeshBuilder().add(prism([{ outer: postOf(shape, opening), holes: [] }], sill, sill + height));
  const board = new MeshBuilder();
  if (sillBoard > 0 && sill > 0.05) {
    const { indoors, first, second } = shape;
    const [y1, y2] = frameLines(shape, opening);
    const face: [number, number] = [indoors * first.half, indoors * second.half];
    const nose: [number, number] = [face[0] + indoors * sillBoard, face[1] + indoors * sillBoard];
    const [f1, f2] = frameHalves(shape, opening);
    const edge: [number, number] = [y1 + indoors * f1, y2 + indoors * f2];
    board.add(prism([{ outer: bandOf(shape, face, nose), holes: [] }], sill - JOINERY.sillThickness, sill));
    board.add(prism([{ outer: bandOf(shape, edge, face), holes: [] }], sill - 0.002, sill + 0.001));
  }
  return { post, sill: board };
}
