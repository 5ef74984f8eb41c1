import { MeshBuilder, type Mesh } from '../../geometry/mesh';
import { chords, isLight } from '../../geometry/shapes';
import type { Vec3 } from '../../geometry/vec';
import { HAIR } from '../../units/tolerance';
import { loft } from './skin';
import { post, turned } from './turned';

/** Forms of what is cast and fired: shells that are lofted from many sections, with round rims, floors that fall, and wastes. Sizes in metres, z up. */

/** A section of a shell at a height: a rectangle about a point, each of its corners round by its own radius. */
export interface Section {
  width: number;
  depth: number;
  z: number;
  x?: number;
  y?: number;
  /** Of the corners, from that at the right behind, counter-clockwise; one for all of them. */
  radius: number | readonly [number, number, number, number];
}

/** The points of a section, counter-clockwise, as many at each of its corners as is said. */
export function ringOf({ width, depth, z, x = 0, y = 0, radius }: Section, steps: number): Vec3[] {
  const radii = typeof radius === 'number' ? [radius, radius, radius, radius] : radius;
  return [0, 1, 2, 3].flatMap((q) => {
    // A corner may take what those beside it leave of a side, and half of it in any case.
    const [beside, behind] = [Math.min(radii[[1, 0, 3, 2][q]], width / 2), Math.min(radii[3 - q], depth / 2)];
    const r = Math.max(HAIR, Math.min(radii[q], width - beside - HAIR, depth - behind - HAIR));
    const [cx, cy] = [x + (q === 0 || q === 3 ? 1 : -1) * (width / 2 - r), y + (q < 2 ? 1 : -1) * (depth / 2 - r)];
    return Array.from({ length: steps + 1 }, (_, k) => {
      const a = (Math.PI / 2) * (q + k / steps);
      return { x: cx + r * Math.cos(a), y: cy + r * Math.sin(a), z };
    });
  });
}

/** An egg about the origin at a height: round in front, squarer behind as far as is said, 2 being round. */
export interface Egg {
  width: number;
  /** How far it goes before the origin, and behind it. */
  front: number;
  back: number;
  z: number;
  y?: number;
  /** Exponent of the superellipse behind (Lamé 1818). */
  square?: number;
}

/** The points of an egg, counter-clockwise. */
export function eggRing({ width, front, back, z, y = 0, square = 3 }: Egg, n: number): Vec3[] {
  return Array.from({ length: n }, (_, i) => {
    const a = (2 * Math.PI * i) / n;
    const [c, s] = [Math.cos(a), Math.sin(a)];
    const e = s > 0 ? 2 / square : 1;
    return { x: (width / 2) * Math.sign(c) * Math.abs(c) ** e, y: y + (s > 0 ? back : front) * Math.sign(s) * Math.abs(s) ** e, z };
  });
}

/** How many points there are at each corner of sections, the roundest of which has such a radius. */
export const cornerSteps = (radius: number): number => chords(radius, Math.PI / 2, isLight() ? 3 : 8);

/** How many points there are about an egg. */
export const eggSteps = (width: number): number => chords(width / 2, 2 * Math.PI, isLight() ? 14 : 36);

/** Where a waste is: its middle, its radius, and the height of the floor round it. */
export interface Waste {
  x: number;
  y: number;
  z: number;
  radius: number;
}

/** A ring drawn in round a point, each of its points on its way there. */
export const drawnIn = (ring: readonly Vec3[], { x, y, z, radius }: Waste): Vec3[] =>
  ring.map((p) => {
    const l = Math.hypot(p.x - x, p.y - y) || 1;
    return { x: x + ((p.x - x) * radius) / l, y: y + ((p.y - y) * radius) / l, z };
  });

/** A ring between two, at a share of the way. */
export const between = (a: readonly Vec3[], b: readonly Vec3[], t: number): Vec3[] =>
  a.map((p, i) => ({ x: p.x + (b[i].x - p.x) * t, y: p.y + (b[i].y - p.y) * t, z: p.z + (b[i].z - p.z) * t }));

/**
 * A shell from its foot outside, over its rim, down inside to its waste: one closed surface, smooth but where it is said to be
 * creased. Its floor falls from the last section to the waste.
 *
 * @param rings outside from below, then inside from above; of equal counts
 * @param waste where it runs out; null: its last ring is closed as it is
 */
export function shellFrom(rings: readonly (readonly Vec3[])[], waste: Waste | null, crease = 0.9): Mesh {
  const last = rings[rings.length - 1];
  const floor = waste ? [0.35, 0.7].map((t) => between(last, drawnIn(last, waste), t)) : [];
  const sunk = waste ? [drawnIn(last, waste), drawnIn(last, { ...waste, radius: waste.radius * 0.94, z: waste.z - 0.0015 })] : [];
  return loft([...rings, ...floor, ...sunk], { crease });
}

/** The metal of a waste: a flange let into the floor, a grating or a plug that stands up from it. */
export function wasteOf({ x, y, z, radius }: Waste, plug = true): Mesh {
  const out = new MeshBuilder().add(
    turned(
      [
        [0, z - 0.0014],
        [radius * 0.92, z - 0.0014],
        [radius * 0.92, z + 0.0008],
        [radius * 0.72, z + 0.001],
        [radius * 0.66, z - 0.0008],
        [0, z - 0.0008],
      ],
      { x, y, segments: 24, round: 0.0004 },
    ),
  );
  if (plug) out.add(post(x, y, z - 0.001, z + 0.004, radius * 0.52, radius * 0.58, 20));
  return out.build();
}

/** A round plate on a wall that looks to −y: overflows, roses, covers of pipes. @param y of the wall */
export function roseOn(x: number, y: number, z: number, radius: number, thick = 0.004): Mesh {
  const flat = turned(
    [
      [0, 0],
      [radius, 0],
      [radius, thick * 0.5],
      [radius * 0.86, thick],
      [0, thick],
    ],
    { segments: 24, round: Math.min(0.0008, thick * 0.3) },
  );
  return new MeshBuilder().add(flat, [1, 0, 0, 0, 0, 0, 1, 0, 0, -1, 0, 0, x, y, z, 1]).build();
}

/**
 * A collar between two outlines that follow one another, from a height to another: its upper edges are round. Panels round a tub,
 * rims, seats.
 *
 * @param outer points of its outer outline, counter-clockwise @param inner as many of its inner one
 */
export function collar(outer: readonly Vec3[], inner: readonly Vec3[], z0: number, z1: number, round = 0.003): Mesh {
  const at = (t: number, z: number): Vec3[] => between(outer, inner, t).map((p) => ({ ...p, z }));
  const wide = Math.hypot(outer[0].x - inner[0].x, outer[0].y - inner[0].y) || 1;
  const r = Math.min(round, (z1 - z0) / 3, wide / 3);
  const steps = isLight() ? 1 : 3;
  const arc = (k: number): { in: number; up: number } => ({
    in: (r / wide) * (1 - Math.cos((Math.PI / 2) * (k / steps))),
    up: r * (1 - Math.sin((Math.PI / 2) * (k / steps))),
  });
  const turn = Array.from({ length: steps + 1 }, (_, k) => arc(k));
  const rings = [
    ...[...turn].reverse().map(({ in: i, up }) => at(i, z0 + up)),
    ...turn.map(({ in: i, up }) => at(i, z1 - up)),
    ...[...turn].reverse().map(({ in: i, up }) => at(1 - i, z1 - up)),
    ...turn.map(({ in: i, up }) => at(1 - i, z0 + up)),
  ];
  // It comes round to itself: the first ring once more.
  return loft([...rings, rings[0]], { open: true, crease: 0.7 });
}
