import { Clipper64, ClipType, FillRule, PolyTree64, type Path64, type PolyPath64 } from 'clipper2-ts';
import type { Region, Ring } from './region';
import type { Vec2 } from './vec';
import { DUST, LATTICE } from '../units/tolerance';

/** Area below which a piece is what rounding to the lattice leaves, m². */
const CRUMB = DUST;

const TYPES = { union: ClipType.Union, intersection: ClipType.Intersection, difference: ClipType.Difference } as const;
export type ClipOperation = keyof typeof TYPES;

const doubleArea = (ring: readonly Vec2[]): number => {
  let sum = 0;
  for (let i = 0, j = ring.length - 1; i < ring.length; j = i++) sum += ring[j].x * ring[i].y - ring[j].y * ring[i].x;
  return sum;
};

const before = (a: Vec2, b: Vec2): number => a.x - b.x || a.y - b.y;

/** A ring that begins at its leftmost point, the lowest of several: the same ring is always written the same way. */
function canonical(ring: Ring): Ring {
  let first = 0;
  for (let i = 1; i < ring.length; i++) if (before(ring[i], ring[first]) < 0) first = i;
  return first ? [...ring.slice(first), ...ring.slice(0, first)] : ring;
}

/**
 * Union, intersection or difference of plane regions, in whole numbers (Vatti's algorithm as the Clipper2 library has it).
 *
 * Every operation works on one lattice that all operations share, counted from a corner of its own, since numbers stay
 * exact and quick while they are small. Points that went in come back as they were. New ones lie on the lattice, but where
 * they lie level with a point that went in, or upright over one, they have its very coordinate: what is cut straight is exact.
 *
 * @returns regions from left to right, each ring from its leftmost point
 */
export function clipRegions(operation: ClipOperation, first: readonly Region[], second: readonly Region[]): Region[] {
  let [x0, y0] = [Infinity, Infinity];
  for (const { outer } of [...first, ...second])
    for (const { x, y } of outer) {
      if (x < x0) x0 = x;
      if (y < y0) y0 = y;
    }
  const [left, low] = [Math.floor(x0 / LATTICE), Math.floor(y0 / LATTICE)];
  const given = new Map<number, Vec2>();
  const [xs, ys] = [new Map<number, number>(), new Map<number, number>()];
  const key = (x: number, y: number): number => x * 0x8000000 + y;
  const path = (ring: Ring, turned: boolean): Path64 => {
    const out: Path64 = ring.map((p) => {
      const [x, y] = [Math.round(p.x / LATTICE) - left, Math.round(p.y / LATTICE) - low];
      const k = key(x, y);
      if (!given.has(k)) given.set(k, p);
      if (!xs.has(x)) xs.set(x, p.x);
      if (!ys.has(y)) ys.set(y, p.y);
      return { x, y };
    });
    return turned ? out.reverse() : out;
  };
  const paths = (regions: readonly Region[]): Path64[] =>
    regions.flatMap(({ outer, holes }) => [path(outer, doubleArea(outer) < 0), ...holes.map((hole) => path(hole, doubleArea(hole) > 0))]);
  const clipper = new Clipper64();
  clipper.preserveCollinear = false;
  clipper.addSubject(paths(first));
  if (second.length) clipper.addClip(paths(second));
  const tree = new PolyTree64();
  clipper.execute(TYPES[operation], FillRule.NonZero, tree);
  const ring = (polygon: Path64): Ring =>
    polygon.map(({ x, y }) => given.get(key(x, y)) ?? { x: xs.get(x) ?? (x + left) * LATTICE, y: ys.get(y) ?? (y + low) * LATTICE });
  const regions: Region[] = [];
  const gather = (node: PolyPath64): void => {
    for (let i = 0; i < node.count; i++) {
      const child = node.child(i);
      const outer = ring(child.polygon!);
      const area = doubleArea(outer) / 2;
      if (area < 0) outer.reverse();
      const region: Region = { outer: canonical(outer), holes: [] };
      for (let h = 0; h < child.count; h++) {
        const inner = child.child(h);
        const hole = ring(inner.polygon!);
        const size = doubleArea(hole) / 2;
        if (Math.abs(size) > CRUMB) region.holes.push(canonical(size > 0 ? hole.reverse() : hole));
        // What lies within a hole is a region of its own.
        gather(inner);
      }
      if (Math.abs(area) > CRUMB) regions.push(region);
    }
  };
  gather(tree);
  return regions.sort((a, b) => before(a.outer[0], b.outer[0]));
}
