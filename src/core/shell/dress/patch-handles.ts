import { cornersOf, draggedCorner, type Corner } from '../../geometry/corners';
import type { Vec2 } from '../../geometry/vec';
import type { Patch } from '../../project/schema';
import { faceS, faceX } from '../wall-face';
import type { Face } from './dressed';

/** A patch moved on its face. */
export function movedPatch(patch: Patch, by: Vec2, face: Face): Patch {
  const { shape } = patch;
  const side = face.side!;
  if (shape.kind === 'rectangle')
    return { ...patch, shape: { ...shape, at: faceS(side, faceX(side, shape.at) + by.x), base: Math.max(-5, shape.base + by.y) } };
  if (shape.kind === 'polygon')
    return { ...patch, shape: { ...shape, points: shape.points.map((p) => ({ x: faceS(side, faceX(side, p.x) + by.x), y: p.y + by.y })) } };
  return patch;
}

/** Smallest side of a patch, metres. */
const LEAST = 0.01;

/** Where a patch can be taken hold of, in the coordinates of its face: corners, or the edges of a band. Those marked new add a corner. */
export function handlesOf({ shape }: Patch, { side }: Face): Corner[] {
  if (!side) return [];
  if (shape.kind === 'band') return [shape.from, shape.to].map((y) => ({ at: { x: side.length / 2, y }, adds: false }));
  if (shape.kind === 'rectangle') {
    const [x0, x1] = [faceX(side, shape.at - shape.width / 2), faceX(side, shape.at + shape.width / 2)].sort((a, b) => a - b);
    const [y0, y1] = [shape.base, shape.base + shape.height];
    return [
      { x: x0, y: y0 },
      { x: x1, y: y0 },
      { x: x1, y: y1 },
      { x: x0, y: y1 },
    ].map((at) => ({ at, adds: false }));
  }
  return cornersOf(
    shape.points.map((p) => ({ x: faceX(side, p.x), y: p.y })),
    true,
  );
}

/** A patch with one of its handles dragged to a place of its face; a corner dragged onto its neighbour goes. */
export function draggedHandle(patch: Patch, face: Face, index: number, to: Vec2): Patch {
  const { shape } = patch;
  const side = face.side!;
  if (shape.kind === 'band')
    return index === 0
      ? { ...patch, shape: { ...shape, from: Math.max(-5, Math.min(to.y, shape.to - LEAST)) } }
      : { ...patch, shape: { ...shape, to: Math.max(to.y, shape.from + LEAST) } };
  if (shape.kind === 'rectangle') {
    const still = handlesOf(patch, face)[(index + 2) % 4].at;
    const apart = (a: number, b: number): number => (Math.abs(a - b) < LEAST ? b + (a < b ? -LEAST : LEAST) : a);
    const [x, y] = [apart(to.x, still.x), apart(Math.max(-5, to.y), still.y)];
    return {
      ...patch,
      shape: {
        kind: 'rectangle',
        at: faceS(side, (x + still.x) / 2),
        base: Math.min(y, still.y),
        width: Math.abs(x - still.x),
        height: Math.abs(y - still.y),
      },
    };
  }
  return { ...patch, shape: { kind: 'polygon', points: draggedCorner(shape.points, index, { x: faceS(side, to.x), y: to.y }, true, LEAST) } };
}
