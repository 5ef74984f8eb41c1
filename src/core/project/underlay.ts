import { add, distance, rotate, sub, type Vec2 } from '../geometry/vec';
import type { Underlay } from './schema';
import { NIL } from '../units/tolerance';

/** A point of the plan in the pixels of an underlay, from its middle: x to the right, y up. */
export const toPixels = (underlay: Underlay, p: Vec2): Vec2 => {
  const q = rotate(sub(p, underlay.origin), -underlay.rotation);
  return { x: q.x / underlay.scale.x, y: q.y / underlay.scale.y };
};

/** A point of an underlay, in pixels from its middle, in the plan. */
export const fromPixels = (underlay: Underlay, q: Vec2): Vec2 =>
  add(underlay.origin, rotate({ x: q.x * underlay.scale.x, y: q.y * underlay.scale.y }, underlay.rotation));

/** An underlay laid into the plan before its scale is known: its longer side takes up `size` metres around a point. */
export function laidUnder(image: string, name: string, pixels: { width: number; height: number }, middle: Vec2, size = 12): Underlay {
  const k = size / Math.max(pixels.width, pixels.height);
  return { image, name, pixels, origin: { x: middle.x, y: middle.y }, scale: { x: k, y: k }, rotation: 0, opacity: 0.5, held: false, shown: true };
}

/**
 * Brings an underlay to scale by the true distance between two of its points. The first pair scales both directions
 * alike. A second pair, in another direction, finds out whether the scan is stretched: with u, v the pixels between the
 * points along and across, (u·sx)² + (v·sy)² = d² for both pairs gives the two scales; the first pair is remembered by
 * the scale it gave. Where both pairs run the same way the second one alone decides, for its own direction.
 *
 * @param pair two points of the plan, where the underlay lies now
 * @param metres the true distance between them
 * @returns the underlay at its new scale, the first point staying where it is, and a sentence
 */
export function brought(
  underlay: Underlay,
  pair: readonly [Vec2, Vec2],
  metres: number,
  step: 'first' | 'second',
  first?: { u: number; v: number; d: number },
): { underlay: Underlay; note: string } {
  const [a, b] = pair.map((p) => toPixels(underlay, p));
  const [u, v] = [Math.abs(b.x - a.x), Math.abs(b.y - a.y)];
  let scale = { ...underlay.scale };
  let note: string;
  if (step === 'first') {
    const k = metres / Math.hypot(u * scale.x, v * scale.y);
    scale = { x: scale.x * k, y: scale.y * k };
    note = 'The underlay is to scale by this length. Pick a second one across it to find out whether the scan is stretched, or press Escape.';
  } else {
    const solved = first ? solve(first, { u, v, d: metres }) : null;
    if (solved) scale = solved;
    else if (u >= v) scale.x = Math.sqrt(Math.max(NIL, metres * metres - (v * scale.y) ** 2)) / u;
    else scale.y = Math.sqrt(Math.max(NIL, metres * metres - (u * scale.x) ** 2)) / v;
    const stretch = (scale.x / scale.y - 1) * 100;
    note =
      Math.abs(stretch) < 0.05
        ? 'The scan is not stretched: both directions have the same scale.'
        : `The scan is stretched: along it measures ${Math.abs(stretch).toFixed(1)} % ${stretch > 0 ? 'more' : 'less'} a pixel than across; both are corrected.`;
  }
  const made = { ...underlay, scale };
  // The first point stays under the pointer.
  const moved = fromPixels(made, a);
  return { underlay: { ...made, origin: add(underlay.origin, sub(pair[0], moved)) }, note };
}

/** Two scales from two lengths that run in different directions; null where they run too much alike. */
function solve(p: { u: number; v: number; d: number }, q: { u: number; v: number; d: number }): { x: number; y: number } | null {
  const det = p.u ** 2 * q.v ** 2 - q.u ** 2 * p.v ** 2;
  if (Math.abs(det) < 0.05 * (p.u ** 2 + p.v ** 2) * (q.u ** 2 + q.v ** 2)) return null;
  const x2 = (p.d ** 2 * q.v ** 2 - q.d ** 2 * p.v ** 2) / det;
  const y2 = (p.u ** 2 * q.d ** 2 - q.u ** 2 * p.d ** 2) / det;
  return x2 > 0 && y2 > 0 ? { x: Math.sqrt(x2), y: Math.sqrt(y2) } : null;
}

/** By how much an underlay's two scales differ, as a share of the greater. */
export const stretchOf = (underlay: Underlay): number => underlay.scale.x / underlay.scale.y - 1;

/** The corners of an underlay in the plan, from its lower left one counter-clockwise. */
export function corners(underlay: Underlay): Vec2[] {
  const { width, height } = underlay.pixels;
  return [
    [-1, -1],
    [1, -1],
    [1, 1],
    [-1, 1],
  ].map(([x, y]) => fromPixels(underlay, { x: (x * width) / 2, y: (y * height) / 2 }));
}

/** Distance between two points of an underlay as it lies now, metres. */
export const measured = (underlay: Underlay, a: Vec2, b: Vec2): number => distance(fromPixels(underlay, a), fromPixels(underlay, b));
