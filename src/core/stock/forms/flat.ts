import { MeshBuilder, type Mesh } from '../../geometry/mesh';
import { chords } from '../../geometry/shapes';
import type { Vec2 } from '../../geometry/vec';

/** Forms that stock is made of beside those of `geometry/shapes`. Sizes in metres, z up. */

/** An ellipse about the origin, counter-clockwise, round within what is asked of curves. @param n its chords, where it has to have as many as another one */
export function ellipse(width: number, depth: number, asked = 40, n = chords(Math.max(width, depth) / 2, 2 * Math.PI, asked)): Vec2[] {
  return Array.from({ length: n }, (_, i) => {
    const a = (2 * Math.PI * i) / n;
    return { x: (width / 2) * Math.cos(a), y: (depth / 2) * Math.sin(a) };
  });
}

/** A rectangle about the origin whose corners are arcs, counter-clockwise. */
export function roundRectangle(width: number, depth: number, radius: number, asked = 6): Vec2[] {
  const r = Math.min(radius, width / 2, depth / 2);
  const n = chords(r, Math.PI / 2, asked);
  return [0, 1, 2, 3].flatMap((q) => {
    const [cx, cy] = [(q === 0 || q === 3 ? 1 : -1) * (width / 2 - r), (q < 2 ? 1 : -1) * (depth / 2 - r)];
    return Array.from({ length: n + 1 }, (_, k) => {
      const a = (Math.PI / 2) * (q + k / n);
      return { x: cx + r * Math.cos(a), y: cy + r * Math.sin(a) };
    });
  });
}

/**
 * A slab whose outline bulges nowhere inwards, its upper and lower edges rounded.
 *
 * @param outline counter-clockwise; its curves are no tighter than the edges are round
 * @param radius of the edges, no more than half of the thickness
 */
export function slab(outline: readonly Vec2[], bottom: number, top: number, radius: number, asked = 3): Mesh {
  const builder = new MeshBuilder();
  const r = Math.min(radius, (top - bottom) / 2);
  const steps = chords(r, Math.PI / 2, asked);
  const n = outline.length;
  // Straight out of the outline at each corner, weighted by the edges beside it.
  const out = outline.map((p, i) => {
    const [a, b] = [outline[(i + n - 1) % n], outline[(i + 1) % n]];
    const [x, y] = [b.y - a.y, a.x - b.x];
    const l = Math.hypot(x, y) || 1;
    return { x: x / l, y: y / l, p };
  });
  const rings: { inset: number; z: number; lean: number }[] = [];
  for (let k = 0; k <= steps; k++)
    rings.push({
      inset: 1 - Math.sin((Math.PI / 2) * (k / steps)),
      z: bottom + r * (1 - Math.cos((Math.PI / 2) * (k / steps))),
      lean: (Math.PI / 2) * (k / steps - 1),
    });
  for (let k = 0; k <= steps; k++)
    rings.push({
      inset: 1 - Math.cos((Math.PI / 2) * (k / steps)),
      z: top - r * (1 - Math.sin((Math.PI / 2) * (k / steps))),
      lean: (Math.PI / 2) * (k / steps),
    });
  let first = -1;
  rings.forEach(({ inset, z, lean }) => {
    let along = 0;
    for (let i = 0; i <= n; i++) {
      const { x, y, p } = out[i % n];
      if (i) along += Math.hypot(p.x - outline[i - 1].x, p.y - outline[i - 1].y);
      const at = builder.point(p.x - x * r * inset, p.y - y * r * inset, z, x * Math.cos(lean), y * Math.cos(lean), Math.sin(lean), along, z);
      if (first < 0) first = at;
    }
  });
  for (let k = 0; k + 1 < rings.length; k++)
    for (let i = 0; i < n; i++) {
      const a = first + k * (n + 1) + i;
      builder.triangle(a, a + 1, a + n + 2).triangle(a, a + n + 2, a + n + 1);
    }
  for (const [z, side] of [
    [bottom, -1],
    [top, 1],
  ] as const) {
    const middle = builder.point(0, 0, z, 0, 0, side, 0, 0);
    const rim = out.map(({ x, y, p }) => builder.point(p.x - x * r, p.y - y * r, z, 0, 0, side, p.x, side * p.y));
    for (let i = 0; i < n; i++) {
      const [a, b] = [rim[i], rim[(i + 1) % n]];
      if (side > 0) builder.triangle(middle, a, b);
      else builder.triangle(middle, b, a);
    }
  }
  return builder.build();
}
