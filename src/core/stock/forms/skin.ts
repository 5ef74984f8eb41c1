import { MeshBuilder, type Mesh } from '../../geometry/mesh';
import { chords, isFine } from '../../geometry/shapes';
import { add3, cross3, dot3, length3, scale3, sub3, unit3, type Vec2, type Vec3 } from '../../geometry/vec';
import { DUST } from '../../units/tolerance';

/** Surfaces from points and faces, and what is lofted and swept. Sizes in metres, z up. */

/** Faces that turn by less than this are one smooth surface, radians. */
const CREASE = 0.65;

/** Twice the area of a face times its normal (Newell). */
function areaNormal(points: readonly Vec3[], face: readonly number[]): Vec3 {
  let n = { x: 0, y: 0, z: 0 };
  for (let i = 1; i + 1 < face.length; i++) n = add3(n, cross3(sub3(points[face[i]], points[face[0]]), sub3(points[face[i + 1]], points[face[0]])));
  return n;
}

/**
 * A mesh over points. The normal at a corner is that of the faces about it, weighted by their area, as far as they turn by
 * less than `crease` from its own (Max 1999 compares the weights). Texture lies along the axes, in metres.
 *
 * @param faces indices of points, counter-clockwise from outside, three or more
 * @param crease radians
 */
export function skin(points: readonly Vec3[], faces: readonly (readonly number[])[], crease = CREASE): Mesh {
  const builder = new MeshBuilder();
  const whole = faces.map((f) => areaNormal(points, f));
  const flat = whole.map((n) => (length3(n) > DUST * DUST ? unit3(n) : null));
  const around: number[][] = points.map(() => []);
  faces.forEach((f, k) => flat[k] && new Set(f).forEach((i) => around[i].push(k)));
  const least = Math.cos(crease);
  const made = new Map<string, number>();
  faces.forEach((f, k) => {
    const own = flat[k];
    if (!own) return;
    const [ax, ay, az] = [Math.abs(own.x), Math.abs(own.y), Math.abs(own.z)];
    const axis = az >= ax && az >= ay ? 2 : ax >= ay ? 0 : 1;
    const corners = f.map((i) => {
      let n = { x: 0, y: 0, z: 0 };
      for (const j of around[i]) if (dot3(flat[j]!, own) >= least) n = add3(n, whole[j]);
      n = unit3(n);
      const key = `${i} ${axis} ${Math.round(n.x * 5e3)} ${Math.round(n.y * 5e3)} ${Math.round(n.z * 5e3)}`;
      let at = made.get(key);
      if (at === undefined) {
        const p = points[i];
        const [u, v] = axis === 2 ? [p.x, p.y] : axis === 0 ? [p.y, p.z] : [p.x, p.z];
        made.set(key, (at = builder.vertex(p, n, u, v)));
      }
      return at;
    });
    for (let i = 1; i + 1 < corners.length; i++)
      if (corners[0] !== corners[i] && corners[i] !== corners[i + 1] && corners[0] !== corners[i + 1]) builder.triangle(corners[0], corners[i], corners[i + 1]);
  });
  return builder.build();
}

/** Points with faces between them, before they are a mesh. */
export interface Net {
  points: Vec3[];
  faces: number[][];
}

/**
 * Rings of equal count, one after another, joined to a surface; the first and the last are closed by a fan unless `open`.
 *
 * @param rings counter-clockwise as seen from the end one goes to
 */
export function loftNet(rings: readonly (readonly Vec3[])[], open = false): Net {
  const n = rings[0].length;
  const points = rings.flat();
  const faces: number[][] = [];
  for (let k = 0; k + 1 < rings.length; k++)
    for (let i = 0; i < n; i++) {
      const j = (i + 1) % n;
      faces.push([k * n + i, k * n + j, (k + 1) * n + j, (k + 1) * n + i]);
    }
  if (!open)
    for (const k of [0, rings.length - 1]) {
      const ring = rings[k];
      const middle = points.length;
      points.push(scale3(ring.reduce(add3), 1 / n));
      for (let i = 0; i < n; i++) {
        const [a, b] = [k * n + i, k * n + ((i + 1) % n)];
        faces.push(k ? [middle, a, b] : [middle, b, a]);
      }
    }
  return { points, faces };
}

/** A lofted surface as a mesh. */
export function loft(rings: readonly (readonly Vec3[])[], { open = false, crease = CREASE } = {}): Mesh {
  const { points, faces } = loftNet(rings, open);
  return skin(points, faces, crease);
}

/** Frames along a path that do not twist about it (parallel transport; Bishop 1975). */
export function framesAlong(path: readonly Vec3[], start?: Vec3): { side: Vec3; up: Vec3; along: Vec3 }[] {
  let reference: Vec3 = start ?? { x: 0, y: 0, z: 1 };
  const directions = path.map((_, i) => unit3(sub3(path[Math.min(i + 1, path.length - 1)], path[Math.max(i - 1, 0)])));
  if (Math.abs(dot3(directions[0], reference)) > 0.9) reference = { x: 0, y: 1, z: 0 };
  return directions.map((along) => {
    const side = unit3(cross3(reference, along));
    const up = cross3(along, side);
    reference = up;
    return { side, up, along };
  });
}

/** The section of a round bar, about the origin, of radius one. */
export const roundSection = (radius: number, asked: number): Vec2[] => {
  const n = Math.max(isFine() ? 6 : 3, chords(radius, 2 * Math.PI, asked));
  return Array.from({ length: n }, (_, i) => ({ x: Math.cos((2 * Math.PI * i) / n), y: Math.sin((2 * Math.PI * i) / n) }));
};

/** A square section of half side one, its corners rounded by a share of it. */
export function squareSection(round = 0.2): Vec2[] {
  const steps = isFine() ? 3 : 0;
  return [0, 1, 2, 3].flatMap((q) => {
    const [cx, cy] = [(q === 0 || q === 3 ? 1 : -1) * (1 - round), (q < 2 ? 1 : -1) * (1 - round)];
    if (!steps) return [{ x: q === 0 || q === 3 ? 1 : -1, y: q < 2 ? 1 : -1 }];
    return Array.from({ length: steps + 1 }, (_, k) => {
      const a = (Math.PI / 2) * (q + k / steps);
      return { x: cx + round * Math.cos(a), y: cy + round * Math.sin(a) };
    });
  });
}

interface Rod {
  /** How many chords about it, or its section of size one. */
  section?: number | readonly Vec2[];
  /** Another half size across its first one. */
  flat?: number;
  /** Which way its section stands up. */
  up?: Vec3;
}

/**
 * A bar along a path, thicker and thinner along it, its ends rounded.
 *
 * @param radius half of its thickness, metres, or that at a share 0…1 of its length
 */
export function rod(path: readonly Vec3[], radius: number | ((t: number) => number), { section = 12, flat = 1, up }: Rod = {}): Mesh {
  const at = typeof radius === 'number' ? () => radius : radius;
  const lengths = [0];
  for (let i = 1; i < path.length; i++) lengths.push(lengths[i - 1] + length3(sub3(path[i], path[i - 1])));
  const whole = lengths.at(-1)!;
  const frames = framesAlong(path, up);
  const outline = typeof section === 'number' ? roundSection(Math.max(at(0), at(1), at(0.5)), section) : section;
  const ring = (i: number, r: number, shift: number): Vec3[] => {
    const { side, up: u, along } = frames[i];
    const p = add3(path[i], scale3(along, shift));
    return outline.map((q) => add3(p, add3(scale3(side, q.x * r), scale3(u, q.y * r * flat))));
  };
  const rings: Vec3[][] = [];
  const steps = isFine() ? 3 : 0;
  const last = path.length - 1;
  const e0 = Math.min(0.3 * at(0), 0.002, whole / 4);
  const e1 = Math.min(0.3 * at(1), 0.002, whole / 4);
  for (let k = 0; k < steps; k++) {
    const a = (Math.PI / 2) * (k / steps);
    rings.push(ring(0, at(0) - e0 * (1 - Math.sin(a)), e0 * (1 - Math.cos(a))));
  }
  path.forEach((_, i) => rings.push(ring(i, at(whole ? lengths[i] / whole : 0), i === 0 && steps ? e0 : i === last && steps ? -e1 : 0)));
  for (let k = steps - 1; k >= 0; k--) {
    const a = (Math.PI / 2) * (k / steps);
    rings.push(ring(last, at(1) - e1 * (1 - Math.sin(a)), -e1 * (1 - Math.cos(a))));
  }
  // A thin bar of few sides is shaded round.
  return loft(rings, { crease: typeof section === 'number' ? Math.min(1.3, ((2 * Math.PI) / outline.length) * Math.max(flat, 1 / flat) + 0.12) : CREASE });
}

/** A straight bar from a point to a point, thicker at one end. */
export const bar = (from: Vec3, to: Vec3, r0: number, r1 = r0, rod_: Rod = {}): Mesh => rod([from, to], (t) => r0 + (r1 - r0) * t, rod_);

/** A smooth path through points (centripetal Catmull–Rom; Yuksel and others 2011), so many steps between two. */
export function curve(points: readonly Vec3[], steps: number, closed = false): Vec3[] {
  const n = points.length;
  const get = (i: number): Vec3 => (closed ? points[((i % n) + n) % n] : points[Math.max(0, Math.min(n - 1, i))]);
  const out: Vec3[] = [];
  const last = closed ? n : n - 1;
  for (let i = 0; i < last; i++) {
    const [a, b, c, d] = [get(i - 1), get(i), get(i + 1), get(i + 2)];
    const knot = (p: Vec3, q: Vec3): number => Math.sqrt(Math.max(DUST, length3(sub3(p, q))));
    const [t1, t2, t3] = [knot(a, b), knot(b, c), knot(c, d)];
    // Tangents at b and c of the spline that runs through all four.
    const m = (p: Vec3, q: Vec3, r: Vec3, s: number, t: number): Vec3 =>
      scale3(add3(sub3(scale3(sub3(q, p), 1 / s), scale3(sub3(r, p), 1 / (s + t))), scale3(sub3(r, q), 1 / t)), t2);
    const m1 = length3(sub3(b, a)) < DUST ? sub3(c, b) : m(a, b, c, t1, t2);
    const m2 = length3(sub3(d, c)) < DUST ? sub3(c, b) : m(b, c, d, t2, t3);
    for (let k = 0; k < steps; k++) {
      const t = k / steps;
      const [t_2, t_3] = [t * t, t * t * t];
      out.push(add3(add3(scale3(b, 2 * t_3 - 3 * t_2 + 1), scale3(m1, t_3 - 2 * t_2 + t)), add3(scale3(c, -2 * t_3 + 3 * t_2), scale3(m2, t_3 - t_2))));
    }
  }
  if (!closed) out.push(points[n - 1]);
  return out;
}

/** A round cord along a closed path: piping, rings, rims. */
export function loop(path: readonly Vec3[], radius: number, asked = 6): Mesh {
  const n = path.length;
  const outline = roundSection(radius, asked);
  const points: Vec3[] = [];
  const middle = scale3(path.reduce(add3), 1 / n);
  path.forEach((p, i) => {
    const along = unit3(sub3(path[(i + 1) % n], path[(i + n - 1) % n]));
    // Away from the middle of the loop: it comes round to itself without a twist.
    const away = sub3(p, middle);
    const up = unit3(sub3(away, scale3(along, dot3(away, along))));
    const side = cross3(up, along);
    for (const q of outline) points.push(add3(p, add3(scale3(side, q.x * radius), scale3(up, q.y * radius))));
  });
  const m = outline.length;
  const faces: number[][] = [];
  for (let i = 0; i < n; i++)
    for (let k = 0; k < m; k++) {
      const [a, b] = [i * m, ((i + 1) % n) * m];
      const l = (k + 1) % m;
      faces.push([a + k, a + l, b + l, b + k]);
    }
  return skin(points, faces, Math.PI);
}

/**
 * A strip of an even thickness between two curves that follow each other, its long edges rounded.
 *
 * @param line points of its middle, @param across half of its width there, as vectors
 */
export function slat(line: readonly Vec3[], across: (i: number) => Vec3, thick: number): Mesh {
  const frames = framesAlong(line, across(0));
  const steps = isFine() ? 6 : 1;
  const r = thick / 2;
  return loft(
    line.map((p, i) => {
      const side = across(i);
      const half = length3(side);
      const s = unit3(side);
      const up = unit3(cross3(frames[i].along, s));
      const ring: Vec3[] = [];
      for (const [sign, from] of [
        [1, -Math.PI / 2],
        [-1, Math.PI / 2],
      ] as const)
        for (let k = 0; k <= steps; k++) {
          const a = from + (Math.PI * k) / steps;
          ring.push(add3(p, add3(scale3(s, sign * (half - r) + r * Math.cos(a)), scale3(up, r * Math.sin(a)))));
        }
      return ring;
    }),
  );
}
