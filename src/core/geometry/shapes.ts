import { MeshBuilder, type Mesh } from './mesh';
import { DUST } from '../units/tolerance';
import { add3, cross3, scale3, sub3, unit3, type Vec3 } from './vec';

/** Rounded solids that furniture is made of. All sizes in metres, z up, texture coordinates in metres. */

/** How far a curve may lie off its chords, metres; none: as many cuts as the shape asks for. */
let off = Infinity;

/** Makes shapes whose curves lie no farther off their chords than a length, metres. */
export function within<T>(length: number, make: () => T): T {
  const before = off;
  off = length;
  try {
    return make();
  } finally {
    off = before;
  }
}

/** How far curves of what is made now may lie off their chords, metres. */
export const offChords = (): number => off;

/** From here on what is made is light: curves are cut as coarsely as their chords may lie, and small rounded edges are left out. */
const LIGHT = 0.002;

/** Whether what is made now is for a picture one looks at from close by: every edge is rounded, and thread and piping are there. */
export const isFine = (): boolean => off < LIGHT;

/** Whether what is made now is for a view that has to be quick. */
export const isLight = (): boolean => off >= LIGHT && off < Infinity;

/** One of two counts, by whether what is made is light. */
export const cuts = (fine: number, light: number): number => (isLight() ? light : fine);

/** The most times a curve is cut finer than its shape asks for. */
const FINEST = 4;

/** Into how many chords an arc is cut: as many as asked for, or enough for it to lie within `off` of them; where it is light, no more than asked for. */
export function chords(radius: number, arc: number, asked: number): number {
  const least = Math.max(1, Math.round((2 * arc) / Math.PI));
  if (off >= radius) return isLight() ? Math.min(asked, least) : asked;
  const enough = Math.ceil(arc / (2 * Math.acos(1 - off / radius)));
  if (isLight()) return Math.min(asked, Math.max(least, enough));
  return Math.max(asked, Math.min(asked * FINEST, enough));
}

/** Steps of a rounded edge: three at least where it is fine, so that no edge turns by more than 30°. */
const roundSteps = (radius: number, asked: number): number => Math.max(isFine() ? 3 : 1, chords(radius, Math.PI / 2, asked));

/** Edges that are rounded by less are sharp where it is light, metres. */
const SHARP = 0.012;

interface RoundedBoxOptions {
  /** Radius of the edges. */
  radius: number;
  /** Steps of each rounded edge. */
  steps?: number;
  /** How far the faces swell out in their middle, for cushions. */
  bulge?: number;
}

/**
 * A box with rounded edges between two corners; with `bulge` a cushion. Points of a subdivided cube are carried onto
 * the rounded surface: nearest point of the inner box plus the radius along the direction away from it.
 */
export function roundedBox(min: Vec3, max: Vec3, { radius, steps: asked = 2, bulge = 0 }: RoundedBoxOptions): Mesh {
  const builder = new MeshBuilder();
  const half = [(max.x - min.x) / 2, (max.y - min.y) / 2, (max.z - min.z) / 2];
  const centre = [(max.x + min.x) / 2, (max.y + min.y) / 2, (max.z + min.z) / 2];
  const r = Math.max(1e-4, Math.min(radius, half[0] * 0.999, half[1] * 0.999, half[2] * 0.999));
  if (isLight() && r <= SHARP && !bulge) return builder.box(min.x, min.y, min.z, max.x, max.y, max.z).build();
  const steps = isLight() ? 1 : roundSteps(r, asked);
  // Where the grid of a face is cut along each axis: the rounded edges and, for cushions, the middle.
  const stops = half.map((h) => {
    const edge: number[] = [];
    for (let k = 0; k <= steps; k++) edge.push(h - r + r * Math.tan((k / steps) * (Math.PI / 4)));
    const count = isLight() ? 1 : bulge > 0.025 && bulge > off ? 8 : 4;
    const middle = bulge ? Array.from({ length: count }, (_, i) => (count === 1 ? 0 : -0.6 + (1.2 * i) / (count - 1))).map((t) => t * (h - r)) : [];
    return [...edge.map((e) => -e).reverse(), ...middle, ...edge];
  });
  // A point's coordinates and normal, by axis; shared by all points, for thousands of boxes stand in a furnished room.
  const [p, n] = [
    [0, 0, 0],
    [0, 0, 0],
  ];
  for (let w = 0; w < 3; w++) {
    const [u, v] = [(w + 1) % 3, (w + 2) % 3];
    const [us, vs] = [stops[u], stops[v]];
    for (const sign of [-1, 1]) {
      let first = 0;
      for (let i = 0; i < us.length; i++)
        for (let j = 0; j < vs.length; j++) {
          const [a, b] = [us[i], vs[j]];
          p[w] = sign * half[w];
          p[u] = a;
          p[v] = b;
          let length = 0;
          for (let k = 0; k < 3; k++) {
            const inside = Math.max(r - half[k], Math.min(half[k] - r, p[k]));
            n[k] = p[k] - inside;
            p[k] = inside;
            length += n[k] * n[k];
          }
          length = Math.sqrt(length);
          const swell = bulge && bulge * (1 - (a / half[u]) ** 2) * (1 - (b / half[v]) ** 2);
          for (let k = 0; k < 3; k++) {
            n[k] /= length;
            p[k] += n[k] * r + centre[k];
          }
          p[w] += sign * swell;
          if (bulge) {
            n[u] += (2 * swell * a) / (half[u] ** 2 - a * a + 1e-3);
            n[v] += (2 * swell * b) / (half[v] ** 2 - b * b + 1e-3);
            const l = Math.sqrt(n[0] * n[0] + n[1] * n[1] + n[2] * n[2]);
            for (let k = 0; k < 3; k++) n[k] /= l;
          }
          const at = builder.point(p[0], p[1], p[2], n[0], n[1], n[2], p[u], p[v]);
          if (i === 0 && j === 0) first = at;
        }
      for (let i = 0; i + 1 < us.length; i++)
        for (let j = 0; j + 1 < vs.length; j++) {
          const low = first + i * vs.length + j;
          const [q, s, t] = [low + vs.length, low + vs.length + 1, low + 1];
          if (sign > 0) builder.triangle(low, q, s).triangle(low, s, t);
          else builder.triangle(low, s, q).triangle(low, t, s);
        }
    }
  }
  return builder.build();
}

/**
 * A solid of revolution about the z axis through (x, y).
 *
 * @param profile points (radius, height) from bottom to top; sharp where two equal points follow each other
 */
export function lathe(profile: readonly (readonly [number, number])[], { x = 0, y = 0, segments: asked = 24 } = {}): Mesh {
  const segments = chords(Math.max(...profile.map(([r]) => r)), 2 * Math.PI, asked);
  const builder = new MeshBuilder();
  let along = 0;
  for (let k = 0; k + 1 < profile.length; k++) {
    const [r0, z0] = profile[k];
    const [r1, z1] = profile[k + 1];
    const l = Math.hypot(r1 - r0, z1 - z0);
    if (l < DUST) continue;
    const flat = { r: (z1 - z0) / l, z: (r0 - r1) / l };
    const blend = (a: number): { r: number; z: number } => {
      const other = profile[a];
      const beyond = a === k ? profile[k - 1] : profile[k + 2];
      if (!beyond) return flat;
      const [p, q] = a === k ? [beyond, other] : [other, beyond];
      const m = Math.hypot(q[0] - p[0], q[1] - p[1]);
      if (m < DUST) return flat;
      const n = { r: (q[1] - p[1]) / m, z: (p[0] - q[0]) / m };
      // Round where the turn is gentle, by how much lies on either side; sharp where it is an edge.
      return n.r * flat.r + n.z * flat.z > 0.7 ? { r: n.r * m + flat.r * l, z: n.z * m + flat.z * l } : flat;
    };
    const n0 = blend(k);
    const n1 = blend(k + 1);
    const reach = Math.max(r0, r1);
    const level = Math.abs(flat.z) > Math.SQRT1_2;
    let last: [number, number] | null = null;
    for (let s = 0; s <= segments; s++) {
      const a = (s / segments) * 2 * Math.PI;
      const [c, d] = [Math.cos(a), Math.sin(a)];
      const make = (r: number, z: number, n: { r: number; z: number }, v: number): number =>
        builder.vertex(
          { x: x + r * c, y: y + r * d, z },
          unit3({ x: n.r * c, y: n.r * d, z: n.z }),
          // What is nearly level shows its texture straight, as cut from a board; round about it would run in spokes.
          level ? r * c : a * reach,
          level ? r * d : v,
        );
      const pair: [number, number] = [make(r0, z0, n0, along), make(r1, z1, n1, along + l)];
      if (last) {
        if (r0 > DUST) builder.triangle(last[0], pair[0], pair[1]);
        if (r1 > DUST) builder.triangle(last[0], pair[1], last[1]);
      }
      last = pair;
    }
    along += l;
  }
  return builder.build();
}

/** An upright cylinder or cone frustum. */
export const cylinder = (x: number, y: number, z0: number, z1: number, r0: number, r1 = r0, segments = 16): Mesh =>
  lathe(
    [
      [0, z0],
      [r0, z0],
      [r0, z0],
      [r1, z1],
      [r1, z1],
      [0, z1],
    ],
    { x, y, segments },
  );

/** A round bar along a path, with flat ends. */
export function tube(path: readonly Vec3[], radius: number, asked = 10): Mesh {
  const segments = chords(radius, 2 * Math.PI, asked);
  const builder = new MeshBuilder();
  let reference: Vec3 = { x: 0, y: 0, z: 1 };
  let last: number[] | null = null;
  let along = 0;
  const directions = path.map((p, i) => unit3(sub3(path[Math.min(i + 1, path.length - 1)], path[Math.max(i - 1, 0)])) as Vec3);
  if (Math.abs(directions[0].z) > 0.9) reference = { x: 1, y: 0, z: 0 };
  path.forEach((p, i) => {
    const d = directions[i];
    const side = unit3(cross3(reference, d));
    const up = cross3(d, side);
    reference = up;
    if (i) along += Math.hypot(p.x - path[i - 1].x, p.y - path[i - 1].y, p.z - path[i - 1].z);
    const ring: number[] = [];
    for (let s = 0; s <= segments; s++) {
      const a = (s / segments) * 2 * Math.PI;
      const n = add3(scale3(side, Math.cos(a)), scale3(up, Math.sin(a)));
      ring.push(builder.vertex(add3(p, scale3(n, radius)), n, a * radius, along));
    }
    if (last) for (let s = 0; s < segments; s++) builder.triangle(last[s], last[s + 1], ring[s + 1]).triangle(last[s], ring[s + 1], ring[s]);
    last = ring;
    if (i === 0 || i === path.length - 1) {
      const n = scale3(d, i === 0 ? -1 : 1);
      const hub = builder.vertex(p, n, 0, 0);
      const rim = Array.from({ length: segments }, (_, s) => {
        const a = (s / segments) * 2 * Math.PI;
        return builder.vertex(add3(p, add3(scale3(side, radius * Math.cos(a)), scale3(up, radius * Math.sin(a)))), n, 0, 0);
      });
      for (let s = 0; s < segments; s++) {
        const t = (s + 1) % segments;
        if (i === 0) builder.triangle(hub, rim[t], rim[s]);
        else builder.triangle(hub, rim[s], rim[t]);
      }
    }
  });
  return builder.build();
}

/** A smooth surface over a grid of points, seen from both sides, for cloth and leaves. */
export function sheet(point: (u: number, v: number) => Vec3, across: number, up: number, width: number, height: number): Mesh {
  const [nu, nv] = isFine() ? [across * 2, up * 2] : isLight() ? [Math.ceil(across / 2), Math.ceil(up / 2)] : [across, up];
  const builder = new MeshBuilder();
  const e = 1e-3;
  const grid: number[][] = [];
  for (let i = 0; i <= nu; i++) {
    grid.push([]);
    for (let j = 0; j <= nv; j++) {
      const u = i / nu;
      const v = j / nv;
      const du = sub3(point(Math.min(1, u + e), v), point(Math.max(0, u - e), v));
      const dv = sub3(point(u, Math.min(1, v + e)), point(u, Math.max(0, v - e)));
      grid[i].push(builder.vertex(point(u, v), unit3(cross3(du, dv)), u * width, v * height));
    }
  }
  for (let i = 0; i < nu; i++)
    for (let j = 0; j < nv; j++) {
      const [a, b, c, d] = [grid[i][j], grid[i + 1][j], grid[i + 1][j + 1], grid[i][j + 1]];
      builder.triangle(a, b, c).triangle(a, c, d);
    }
  return builder.build();
}
