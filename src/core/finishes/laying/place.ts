import { rotate, sub, type Vec2 } from '../../geometry/vec';
import type { FaceLaying, Finish, Laying } from '../../project/schema';
import { settleOffset, tilingOf } from './pattern';
import { NEAR } from '../../units/tolerance';

/** The rectangle a face fills in its own axes, metres, and the angle of those axes in the coordinates of its regions. */
export interface Frame {
  angle: number;
  x0: number;
  y0: number;
  x1: number;
  y1: number;
}

/** Where a pattern begins on a face and how it is turned, in the coordinates of the face's regions. */
export interface Placing {
  origin: Vec2;
  angle: number;
}

const laidFinishes = new WeakMap<Finish, WeakMap<FaceLaying, Finish>>();

/** A finish as it is laid on one face: with the face's own pattern, and at its scale. */
export function laidFinish(finish: Finish, own: FaceLaying | undefined): Finish {
  if (!own || (own.laying === null && own.scale === 1)) return finish;
  let made = laidFinishes.get(finish);
  if (!made) laidFinishes.set(finish, (made = new WeakMap()));
  let laid = made.get(own);
  if (!laid) {
    const k = own.scale;
    const from = own.laying ?? finish.laying;
    laid = {
      ...finish,
      size: { width: finish.size.width * k, height: finish.size.height * k },
      laying: from && scaledLaying(from, k),
    };
    made.set(own, laid);
  }
  return laid;
}

function scaledLaying(laying: Laying, k: number): Laying {
  if (k === 1) return laying;
  return {
    ...laying,
    width: laying.width * k,
    height: laying.height * k,
    joint: laying.joint * k,
    small: laying.small * k,
    cell: laying.cell && {
      width: laying.cell.width * k,
      height: laying.cell.height * k,
      units: laying.cell.units.map((u) => ({ x: u.x * k, y: u.y * k, width: u.width * k, height: u.height * k })),
    },
  };
}

/** Offsets of the rows of a straight pattern as shares of its module; null for patterns without straight rows. */
function rowOffsets(laying: Laying): number[] | null {
  if (laying.pattern === 'stack') return [0];
  if (laying.pattern !== 'running') return null;
  const { p, q } = settleOffset(laying.offset);
  return Array.from({ length: q }, (_, row) => ((row * p) % q) / q);
}

/** The least piece that is left of a unit along a line, when a pattern of that module and those rows begins at `from`. */
function leastCut(length: number, module: number, joint: number, offsets: readonly number[], from: number): number {
  let least = module;
  for (const offset of offsets) {
    const start = from + offset * module;
    for (const end of [0, length]) {
      // How far into a module the edge lies: what is cut off on one side, left on the other.
      const into = (((end - start) % module) + module) % module;
      const left = end === 0 ? module - into : into;
      const piece = left - joint / 2;
      // The joint itself may fall on the edge: then nothing is cut.
      if (piece > 0.0005 && left < module - joint / 2 - 0.0005) least = Math.min(least, piece);
    }
  }
  return least;
}

/**
 * Where a straight pattern begins along one direction, from the lower end: whole units at the edge as long as no piece is
 * left that is smaller than a third of one (trade figures), else where the least piece is largest.
 */
export function evenStart(length: number, module: number, joint: number, offsets: readonly number[]): number {
  const edge = -joint / 2;
  if (leastCut(length, module, joint, offsets, edge) >= module / 3) return edge;
  const half = (length / 2) % module;
  const candidates = [half, (half + module / 2) % module, edge, ...Array.from({ length: 24 }, (_, i) => (i / 24) * module)];
  let best = { from: edge, least: -1 };
  for (const from of candidates) {
    const least = leastCut(length, module, joint, offsets, from);
    if (least > best.least + NEAR) best = { from, least };
  }
  return best.from;
}

/**
 * Where a finish's pattern begins on a face.
 *
 * @param carried length of the faces before it that its joints are carried on from, metres
 */
export function placeOf(laying: Laying | null, own: FaceLaying | undefined, frame: Frame, carried = 0): Placing {
  const [w, h] = [frame.x1 - frame.x0, frame.y1 - frame.y0];
  const start = own?.start ?? 'even';
  const rotation = own?.rotation ?? 0;
  const tiling = laying && tilingOf(laying);
  const [mx, my] =
    laying && rowOffsets(laying) ? [laying.width + laying.joint, laying.height + laying.joint] : tiling ? [tiling.period.x, tiling.period.y] : [0, 0];
  const joint = laying?.joint ?? 0;
  const offsets = laying && rowOffsets(laying);
  let at: Vec2 = { x: -joint / 2, y: -joint / 2 };
  if (start === 'point') at = { x: (own?.origin.x ?? 0) - joint / 2, y: (own?.origin.y ?? 0) - joint / 2 };
  else if (start === 'carried') at = { x: -carried - joint / 2, y: -joint / 2 };
  else if (start === 'middle') at = { x: w / 2, y: h / 2 };
  else if (start === 'unit') at = { x: w / 2 - mx / 2, y: h / 2 - my / 2 };
  else if (start === 'even' && laying && rotation === 0) {
    if (offsets) at = { x: evenStart(w, mx, joint, offsets), y: evenStart(h, my, joint, [0]) };
    else if (laying.pattern !== 'plank') at = { x: w / 2, y: h / 2 };
  } else if (start === 'even' && laying) at = { x: w / 2, y: h / 2 };
  const corner = rotate({ x: frame.x0 + at.x, y: frame.y0 + at.y }, frame.angle);
  return { origin: corner, angle: frame.angle + rotation + (tiling?.angle ?? 0) };
}

/** A point of a face in the axes of the pattern. */
export const toPattern = (placing: Placing, p: Vec2): Vec2 => rotate(sub(p, placing.origin), -placing.angle);

/** A point of the pattern on the face. */
export function fromPattern(placing: Placing, p: Vec2): Vec2 {
  const q = rotate(p, placing.angle);
  return { x: q.x + placing.origin.x, y: q.y + placing.origin.y };
}
