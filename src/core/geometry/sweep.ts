import { MeshBuilder, type Mesh } from './mesh';
import { triangulate, signedArea } from './polygon';
import { add3, cross3, dot3, scale3, sub3, unit3, type Vec2, type Vec3 } from './vec';
import { DUST, NEAR } from '../units/tolerance';

/** One stretch of a path a section is swept along: from its start, with the direction away from what it lies on. */
export interface SweepStretch {
  from: Vec3;
  to: Vec3;
  /** Unit vector away from the wall, square to the stretch. */
  out: Vec3;
}

/** The closed outline of a section that lies against a wall: its points, and its back. Counter-clockwise, x out, y up. */
export function closedSection(points: readonly Vec2[]): Vec2[] {
  // What runs along the wall is its back already.
  let [i, j] = [0, points.length - 1];
  while (i < j && points[i + 1].x < DUST) i++;
  while (j > i && points[j - 1].x < DUST) j--;
  const first = points[i];
  const last = points[j];
  const ring = points.slice(i, j + 1);
  if (last.x > DUST) ring.push({ x: 0, y: last.y });
  if (first.x > DUST) ring.push({ x: 0, y: first.y });
  const clean = ring.filter((p, i) => {
    const q = ring[(i + 1) % ring.length];
    return Math.hypot(p.x - q.x, p.y - q.y) > DUST;
  });
  return signedArea(clean) < 0 ? clean.reverse() : clean;
}

/**
 * Sweeps a section along stretches that follow one another, mitred where they meet: each stretch is a prism cut by the
 * plane through the joint that halves the angle between its neighbours, open ends cut square and closed. Where the
 * sections of two stretches do not meet in that plane (a raking one turning into a level one), both are closed there.
 *
 * @param section closed, x away from the wall, y up along it
 * @param closed whether the last stretch meets the first
 * @param before a stretch swept elsewhere that leads to the first one; @param after one that the last one leads to
 */
export function sweep(
  section: readonly Vec2[],
  stretches: readonly SweepStretch[],
  closed: boolean,
  before: SweepStretch | null = null,
  after: SweepStretch | null = null,
): Mesh {
  const builder = new MeshBuilder();
  const first = before ? 1 : 0;
  const all = [...(before ? [before] : []), ...stretches, ...(after ? [after] : [])];
  const n = all.length;
  const along = all.map((s) => unit3(sub3(s.to, s.from)));
  const frames = all.map((s, i) => ({ out: s.out, up: cross3(s.out, along[i]) }));
  /** The section of a stretch in a plane through a point. */
  const cutAt = (i: number, p: Vec3, normal: Vec3): Vec3[] => {
    const { out, up } = frames[i];
    const slant = dot3(along[i], normal);
    return section.map((q) => {
      const at = add3(p, add3(scale3(out, q.x), scale3(up, q.y)));
      const t = Math.abs(slant) < 0.05 ? 0 : dot3(sub3(p, at), normal) / slant;
      return add3(at, scale3(along[i], t));
    });
  };
  const lengths: number[] = [0];
  section.forEach((p, i) => {
    const q = section[(i + 1) % section.length];
    lengths.push(lengths[i] + Math.hypot(q.x - p.x, q.y - p.y));
  });
  const faces = triangulate({ outer: [...section], holes: [] });
  const cap = (ring: readonly Vec3[], normal: Vec3, flip: boolean): void => {
    const base = faces.points.map((q, k) => builder.vertex(ring[k], normal, q.x, q.y));
    for (let k = 0; k < faces.indices.length; k += 3) {
      const [a, b, c] = [base[faces.indices[k]], base[faces.indices[k + 1]], base[faces.indices[k + 2]]];
      if (flip) builder.triangle(a, c, b);
      else builder.triangle(a, b, c);
    }
  };
  const joint = (i: number, j: number): Vec3 => {
    const sum = add3(along[i], along[j]);
    return Math.hypot(sum.x, sum.y, sum.z) < NEAR ? along[i] : unit3(sum);
  };
  const same = (a: readonly Vec3[], b: readonly Vec3[]): boolean => a.every((p, k) => Math.hypot(p.x - b[k].x, p.y - b[k].y, p.z - b[k].z) < NEAR);
  let run = 0;
  for (let i = first; i < first + stretches.length; i++) {
    const own = all[i];
    const [last, next] = [i > 0 ? i - 1 : closed ? n - 1 : -1, i < n - 1 ? i + 1 : closed ? 0 : -1];
    const start = cutAt(i, own.from, last >= 0 ? joint(last, i) : along[i]);
    const end = cutAt(i, own.to, next >= 0 ? joint(i, next) : along[i]);
    const length = Math.hypot(...Object.values(sub3(own.to, own.from)));
    section.forEach((_, k) => {
      const m = (k + 1) % section.length;
      const normal = unit3(cross3(sub3(end[k], start[k]), sub3(start[m], start[k])));
      const u = (p: Vec3): number => run + dot3(sub3(p, own.from), along[i]);
      const v0 = lengths[k];
      const v1 = lengths[k + 1];
      const [a, b, c, d] = [
        builder.vertex(start[k], normal, u(start[k]), v0),
        builder.vertex(start[m], normal, u(start[m]), v1),
        builder.vertex(end[m], normal, u(end[m]), v1),
        builder.vertex(end[k], normal, u(end[k]), v0),
      ];
      // Seen the way it runs, the section turns counter-clockwise.
      builder.triangle(a, c, b).triangle(a, d, c);
    });
    // With x out, y up and the way on, the section is seen from behind at its start.
    const meets = (ring: readonly Vec3[], other: number, p: Vec3, normal: Vec3): boolean => same(ring, cutAt(other, p, normal));
    if (last < 0 || !meets(start, last, all[last].to, joint(last, i))) cap(start, scale3(along[i], -1), false);
    if (next < 0 || !meets(end, next, all[next].from, joint(i, next))) cap(end, along[i], true);
    run += length;
  }
  return builder.build();
}
