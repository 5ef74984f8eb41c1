import { MeshBuilder } from '../../geometry/mesh';
import { isLight } from '../../geometry/shapes';
import type { Vec3 } from '../../geometry/vec';
import { shiftBy } from '../forms/carry';
import { randomFrom } from '../forms/random';
import { skin } from '../forms/skin';
import { v3 } from '../types';

/** Books: two boards that overhang the block of leaves, a round spine that joins them. */

/** Covers in several cloths and the leaves between them. */
export interface BookGroups {
  covers: MeshBuilder[];
  leaves: MeshBuilder;
}

/** One book that lies: its spine along x towards −y, from its middle, on z = 0. */
export function book(groups: BookGroups, group: number, wide: number, tall: number, thick: number, matrix: readonly number[]): void {
  const cover = groups.covers[group % groups.covers.length];
  const t = Math.min(0.0028, thick * 0.12);
  const over = 0.003;
  const [w, d] = [tall / 2, wide / 2];
  if (isLight()) {
    cover.add(new MeshBuilder().box(-w, -d, 0, w, d, thick).build(), matrix);
    // From afar one sees covers; the leaves of a few stand for those of all.
    if (group % 7 === 0 || groups.leaves.empty)
      groups.leaves.add(new MeshBuilder().box(-w + over, -d + 0.01, t, w - over, d + 0.0004, thick - t).build(), matrix);
    return;
  }
  // One cover goes round: a board, the spine, the other board. Boards are cut, not rounded.
  const n = 5;
  const outer: [number, number][] = [[d, 0]];
  const inner: [number, number][] = [[d, t]];
  for (let k = 0; k <= n; k++) {
    const a = -Math.PI / 2 - (Math.PI * k) / n;
    outer.push([-d + 0.005 + 0.005 * Math.cos(a), thick / 2 + (thick / 2) * Math.sin(a)]);
    inner.push([-d + 0.005 + 0.0028 * Math.cos(a), thick / 2 + (thick / 2 - t) * Math.sin(a)]);
  }
  outer.push([d, thick]);
  inner.push([d, thick - t]);
  const m = outer.length;
  const points: Vec3[] = [];
  for (const x of [-w, w]) for (const side of [outer, inner]) for (const [y, z] of side) points.push(v3(x, y, z));
  const faces: number[][] = [];
  for (let k = 0; k + 1 < m; k++) {
    const [a, b, c, e] = [k, m + k, 2 * m + k, 3 * m + k];
    faces.push([a, c, c + 1, a + 1], [b, b + 1, e + 1, e], [a, a + 1, b + 1, b], [c, e, e + 1, c + 1]);
  }
  faces.push([0, m, 3 * m, 2 * m], [m - 1, 3 * m - 1, 4 * m - 1, 2 * m - 1]);
  cover.add(skin(points, faces, 0.7), matrix);
  groups.leaves.add(new MeshBuilder().box(-w + over, -d + 0.0024, t + 0.0001, w - over, d - over, thick - t - 0.0001).build(), matrix);
}

/** Books in a row that stand on a shelf with their spines to the front (−y), some leaning, some lying. */
export function rowOfBooks(groups: BookGroups, x0: number, x1: number, y: number, z: number, room: number, deep: number, full: number, seed: number): void {
  const random = randomFrom(seed);
  let x = x0 + 0.004;
  const stop = x0 + (x1 - x0) * full;
  let shared = 0.75;
  let group = Math.floor(random() * 97);
  while (x < stop - 0.02) {
    // A shelf holds runs of a kind: one height, one cloth.
    if (random() < 0.3) [shared, group] = [0.62 + 0.3 * random(), Math.floor(random() * 97)];
    const thick = 0.012 + 0.034 * random() ** 1.5;
    const tall = Math.min(room - 0.012, Math.max(0.12, (shared + 0.04 * random()) * Math.min(room, 0.33)));
    const wide = Math.min(deep - 0.01, tall * (0.66 + 0.1 * random()), 0.24);
    if (x + thick > stop) break;
    if (random() < 0.05 && x + tall < stop) {
      // A few lie on one another.
      let zz = z;
      const own = Math.min(tall, 0.24);
      for (let i = 0; i < 3 && zz + 0.03 < z + room - 0.01; i++) {
        const th = 0.016 + 0.02 * random();
        book(groups, Math.floor(random() * 97), wide, own, th, shiftBy(x + own / 2 + 0.002 * i, y + wide / 2 + 0.004 * random(), zz));
        zz += th;
      }
      x += own + 0.006;
      continue;
    }
    // Stood up on its tail: its length goes up, its thickness along the shelf; spines are not quite in line.
    const back = y + wide / 2 + 0.006 * random();
    book(groups, group + (random() < 0.55 ? 0 : Math.floor(random() * 9)), wide, tall, thick, [
      0,
      0,
      1,
      0,
      0,
      1,
      0,
      0,
      -1,
      0,
      0,
      0,
      x + thick,
      back,
      z + tall / 2,
      1,
    ]);
    x += thick + 0.0006;
  }
}
