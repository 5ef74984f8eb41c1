import { MeshBuilder, type Mesh } from '../../geometry/mesh';
import { isLight } from '../../geometry/shapes';
import type { Vec2, Vec3 } from '../../geometry/vec';
import { v3 } from '../types';
import { board } from './boards';
import { upright } from './carry';
import { bar, loft, loop, rod } from './skin';
import { post, turned } from './turned';

/** Forms of machines and sinks: cases of sheet metal, racks of wire, knobs, burners, bowls. Sizes in metres, z up, fronts look to −y. */

/** Between two corners. */
export interface Span {
  x0: number;
  x1: number;
  y0: number;
  y1: number;
  z0: number;
  z1: number;
}

/** A case that is open to the front: floor and top go through between its sides, its back stands between them. */
export function shellOf({ x0, x1, y0, y1, z0, z1 }: Span, thick = 0.012): Mesh {
  const t = thick;
  return new MeshBuilder()
    .add(board(x0, y0, z0, x0 + t, y1, z1))
    .add(board(x1 - t, y0, z0, x1, y1, z1))
    .add(board(x0 + t, y0, z0, x1 - t, y1, z0 + t))
    .add(board(x0 + t, y0, z1 - t, x1 - t, y1, z1))
    .add(board(x0 + t, y1 - t, z0 + t, x1 - t, y1, z1 - t))
    .build();
}

/** A rack of wires: a frame, and wires from front to back. */
export function rackOf({ x0, x1, y0, y1 }: Omit<Span, 'z0' | 'z1'>, z: number, pitch = 0.032): Mesh {
  const out = new MeshBuilder();
  const r = 0.0022;
  const wire = (a: Vec3, b: Vec3, radius: number): void => void out.add(rod([a, b], radius, { section: isLight() ? 4 : 8 }));
  for (const y of [y0 + r, y1 - r]) wire(v3(x0, y, z), v3(x1, y, z), r * 1.3);
  for (const x of [x0 + r, x1 - r]) wire(v3(x, y0, z), v3(x, y1, z), r * 1.3);
  const n = Math.max(3, Math.round((x1 - x0) / (isLight() ? pitch * 3 : pitch)));
  for (let i = 1; i < n; i++) wire(v3(x0 + ((x1 - x0) * i) / n, y0, z + r), v3(x0 + ((x1 - x0) * i) / n, y1, z + r), r);
  return out.build();
}

/** A basket of wires: a rack with a rim above it and wires up to that. */
export function basketOf({ x0, x1, y0, y1, z0, z1 }: Span, pitch = 0.05): Mesh {
  const out = new MeshBuilder().add(rackOf({ x0, x1, y0, y1 }, z0 + 0.003, pitch));
  const section = isLight() ? 4 : 8;
  const corners = [v3(x0, y0, z1), v3(x1, y0, z1), v3(x1, y1, z1), v3(x0, y1, z1)];
  corners.forEach((p, i) => {
    const q = corners[(i + 1) % 4];
    out.add(rod([p, q], 0.003, { section }));
    const n = Math.max(2, Math.round(Math.hypot(q.x - p.x, q.y - p.y) / (isLight() ? pitch * 3 : pitch)));
    for (let k = 0; k < n; k++) {
      const [x, y] = [p.x + ((q.x - p.x) * k) / n, p.y + ((q.y - p.y) * k) / n];
      out.add(rod([v3(x, y, z0), v3(x, y, z1)], 0.0018, { section }));
    }
  });
  return out.build();
}

/** A knob on a front, with the mark that shows where it stands. */
export function knobOn(x: number, y: number, z: number, radius = 0.021): { knob: Mesh; mark: Mesh } {
  const knob = turned(
    [
      [0, 0],
      [radius, 0],
      [radius * 0.94, 0.018],
      [radius * 0.86, 0.022],
      [0, 0.022],
    ],
    { segments: 22, round: 0.0015 },
  );
  return {
    knob: new MeshBuilder().add(knob, upright(x, y, z)).build(),
    mark: board(x - 0.0011, y - 0.0226, z + radius * 0.25, x + 0.0011, y - 0.0215, z + radius * 0.8, 0.0004),
  };
}

/** A straight handle on two posts before a front. @param standing it runs up, not across */
export function handleBar(x: number, y: number, z: number, long: number, standing = false, away = 0.042): Mesh {
  const h = long / 2;
  const at = (t: number, d: number): Vec3 => (standing ? v3(x, y - d, z + t) : v3(x + t, y - d, z));
  const out = new MeshBuilder().add(rod([at(-h, away), at(h, away)], 0.009, { section: 14 }));
  for (const t of [-h * 0.86, h * 0.86]) out.add(rod([at(t, -0.001), at(t, away)], 0.0065, { section: 10 }));
  return out.build();
}

/** A gas burner on a plate at a height: its ring and cap, and the support pans stand on. */
export function burner(x: number, y: number, z: number, radius: number): { cap: Mesh; support: Mesh } {
  const cap = turned(
    [
      [0, z],
      [radius * 1.25, z],
      [radius * 1.1, z + 0.006],
      [radius, z + 0.008],
      [radius, z + 0.014],
      [radius * 0.82, z + 0.018],
      [radius * 0.82, z + 0.0215],
      [radius * 0.7, z + 0.0235],
      [0, z + 0.0235],
    ],
    { x, y, segments: 28, round: 0.0012 },
  );
  const support = new MeshBuilder();
  const [r, top] = [radius * 0.55, z + 0.036];
  const reach = Math.max(0.085, radius * 1.9);
  for (let k = 0; k < 4; k++) {
    const a = (k * Math.PI) / 2;
    const [c, s] = [Math.cos(a), Math.sin(a)];
    support.add(bar(v3(x + c * r, y + s * r, top), v3(x + c * reach, y + s * reach, top), 0.0045, 0.0055, { section: 8 })).add(
      bar(v3(x + c * (reach - 0.004), y + s * (reach - 0.004), z), v3(x + c * (reach - 0.004), y + s * (reach - 0.004), top + 0.002), 0.005, 0.0045, {
        section: 8,
      }),
    );
  }
  return { cap, support: support.build() };
}

/** The ring that marks where a pan stands on glass. */
export function ringMark(x: number, y: number, z: number, radius: number): Mesh {
  const n = isLight() ? 14 : 48;
  return loop(
    Array.from({ length: n }, (_, i) => v3(x + radius * Math.cos((2 * Math.PI * i) / n), y + radius * Math.sin((2 * Math.PI * i) / n), z)),
    0.0007,
    4,
  );
}

/** A corner rounded rectangle with so many points a corner, counter-clockwise about a point. */
const ringAt = (x: number, y: number, width: number, depth: number, radius: number, n: number): Vec2[] => {
  const r = Math.min(radius, width / 2 - 0.0005, depth / 2 - 0.0005);
  return [0, 1, 2, 3].flatMap((q) => {
    const [cx, cy] = [(q === 0 || q === 3 ? 1 : -1) * (width / 2 - r), (q < 2 ? 1 : -1) * (depth / 2 - r)];
    return Array.from({ length: n + 1 }, (_, k) => {
      const a = (Math.PI / 2) * (q + k / n);
      return { x: x + cx + r * Math.cos(a), y: y + cy + r * Math.sin(a) };
    });
  });
};

interface Bowl {
  x: number;
  y: number;
  width: number;
  depth: number;
  /** Height of its rim, and how deep it is below it. */
  top: number;
  deep: number;
  /** Of its corners. */
  radius: number;
  /** Of its walls. */
  thick: number;
}

/**
 * A bowl of sheet metal or fireclay: corners and the edge of its floor are round, its floor falls to the waste in its middle.
 *
 * @returns the bowl with its rim, the waste, and the plate of the overflow in its back wall
 */
export function bowlOf({ x, y, width, depth, top, deep, radius, thick }: Bowl): { bowl: Mesh; waste: Mesh } {
  const n = isLight() ? 2 : 6;
  const floor = top - deep;
  const edge = Math.min(0.022, deep / 3, width / 6, depth / 6);
  const steps = isLight() ? 1 : 4;
  const ring = (w: number, d: number, r: number, z: number): Vec3[] => ringAt(x, y, w, d, r, n).map((p) => ({ ...p, z }));
  const waste = Math.min(0.045, width / 5, depth / 5);
  const around = (r: number, z: number): Vec3[] =>
    // As many points as the other rings, each on its way to the waste.
    ring(width, depth, radius, z).map((p) => {
      const l = Math.hypot(p.x - x, p.y - y);
      return { x: x + ((p.x - x) * r) / l, y: y + ((p.y - y) * r) / l, z };
    });
  const fall = Math.min(0.008, deep / 10);
  const outer = (by: number, z: number): Vec3[] => ring(width + 2 * (thick - by), depth + 2 * (thick - by), radius + thick - by, z);
  const rings: Vec3[][] = [
    outer(edge + 0.01, floor - fall - thick),
    outer(edge * 0.3, floor - fall - thick + 0.003),
    outer(0, floor + edge),
    outer(0, top - thick * 0.15),
  ];
  if (!isLight()) rings.push(outer(thick * 0.15, top));
  rings.push(ring(width + thick * 0.3, depth + thick * 0.3, radius, top), ring(width, depth, radius, top - Math.min(0.002, thick * 0.3)));
  for (let k = 0; k <= steps; k++) {
    const a = ((Math.PI / 2) * k) / steps;
    const by = edge * (1 - Math.cos(a));
    rings.push(ring(width - 2 * by, depth - 2 * by, Math.max(0.004, radius - by), floor + edge * (1 - Math.sin(a))));
  }
  rings.push(around(waste, floor - fall), around(waste * 0.92, floor - fall - 0.002));
  const plate = new MeshBuilder().add(
    turned(
      [
        [0, floor - fall - 0.0019],
        [waste * 0.9, floor - fall - 0.0019],
        [waste * 0.9, floor - fall + 0.0006],
        [waste * 0.72, floor - fall + 0.0008],
        [waste * 0.68, floor - fall - 0.0012],
        [0, floor - fall - 0.0012],
      ],
      { x, y, segments: 24, round: 0.0004 },
    ),
  );
  plate.add(post(x, y, floor - fall - 0.0014, floor - fall + 0.006, 0.006, 0.0075, 12));
  // The overflow.
  plate.add(
    turned(
      [
        [0, 0],
        [0.016, 0],
        [0.014, 0.002],
        [0, 0.002],
      ],
      { segments: 18, round: 0.0005 },
    ),
    upright(x, y + depth / 2 + 0.0006, top - Math.min(0.05, deep / 3)),
  );
  return { bowl: loft(rings, { crease: 0.7 }), waste: plate.build() };
}
