import { MeshBuilder, type Mesh } from '../../geometry/mesh';
import { cuts, isFine, isLight, roundedBox } from '../../geometry/shapes';
import type { Vec3 } from '../../geometry/vec';
import { DUST } from '../../units/tolerance';
import { shiftBy } from './carry';
import { loop, skin } from './skin';

/** What is filled and covered: cushions, pillows, pads. Sizes in metres, z up. */

/** Radius of piping, metres. */
export const PIPING = 0.0025;

/** Half of a square sample, finer towards its edges: 0…1 as a sine. */
const stops = (n: number): number[] => Array.from({ length: n + 1 }, (_, i) => Math.sin((Math.PI / 2) * ((2 * i) / n - 1)));

/** The corners of a net of n by m cells along its edge, counter-clockwise from the first. */
const border = (n: number, m: number): [number, number][] => [
  ...Array.from({ length: n }, (_, i): [number, number] => [i, 0]),
  ...Array.from({ length: m }, (_, j): [number, number] => [n, j]),
  ...Array.from({ length: n }, (_, i): [number, number] => [n - i, m]),
  ...Array.from({ length: m }, (_, j): [number, number] => [0, m - j]),
];

/** A point of the square −1…1 on a rectangle with round corners. */
function onOutline(u: number, v: number, w: number, d: number, corner: number): [number, number] {
  const r = Math.min(corner, w, d);
  const [x, y] = [u * w, v * d];
  const [cx, cy] = [Math.max(r - w, Math.min(w - r, x)), Math.max(r - d, Math.min(d - r, y))];
  const [dx, dy] = [x - cx, y - cy];
  const l = Math.hypot(dx, dy);
  if (l < DUST) return [x, y];
  const k = Math.max(Math.abs(dx), Math.abs(dy)) / l;
  return [cx + dx * k, cy + dy * k];
}

interface Cushion {
  width: number;
  depth: number;
  /** Of its band, between its seams. */
  thick: number;
  /** How far its upper side rises over its seam. */
  crown?: number;
  /** How far it is sat in. */
  sag?: number;
  /** Radius of its corners in the plan. */
  corner?: number;
  /** How far its band swells, left, right, front, back: none where it touches another. */
  swell?: readonly [number, number, number, number];
  piping?: boolean;
  /** A number of its own: no two are creased alike. */
  seed?: number;
}

/**
 * A box cushion: a band between two seams with piping in them, the panels above and below it filled. About the origin, on
 * z = 0. What it is sat in lies in its middle, a little to the front; creases run to its corners.
 */
export function cushion({ width, depth, thick, crown = 0.03, sag = 0, corner = 0.04, swell = [0, 0, 0.008, 0], piping = true, seed = 0 }: Cushion): Mesh {
  const builder = new MeshBuilder();
  const [w, d] = [width / 2, depth / 2];
  const n = cuts(isFine() ? 12 : 8, 4);
  const s = stops(n);
  const points: Vec3[] = [];
  const faces: number[][] = [];
  const low = Math.min(0.008, thick / 6);
  const [z0, z1] = [low, thick];
  const bow = (x: number, y: number, t: number): [number, number] => {
    // Swells in the middle of its band and of its sides.
    const k = Math.sin(Math.PI * t);
    const [ex, ey] = [Math.max(0, 1 - (y / d) ** 2), Math.max(0, 1 - (x / w) ** 2)];
    return [
      x + (x > 0 ? swell[1] : -swell[0]) * k * ex * Math.min(1, Math.abs(x / w) ** 8),
      y + (y > 0 ? swell[3] : -swell[2]) * k * ey * Math.min(1, Math.abs(y / d) ** 8),
    ];
  };
  const height = (u: number, v: number): number => {
    const full = (Math.max(0, 1 - u * u) * Math.max(0, 1 - v * v)) ** 0.36;
    const sat = sag * Math.exp(-(((u * w) / 0.2) ** 2) - ((v * d + 0.04) / 0.2) ** 2);
    // Cloth that is pulled together at a corner throws folds along the diagonal.
    const near = Math.abs(u * v) ** 3;
    const crease = isFine() ? 0.0022 * near * Math.sin(9 * (Math.abs(u) - Math.abs(v)) + seed + (u > 0 ? 1 : 0) + (v > 0 ? 2 : 0)) : 0;
    return (crown + 0.0015 * Math.sin(seed * 7.1 + u * 3 + v * 2)) * full - sat * full + crease * (1 - near);
  };
  const grid = (top: boolean): number[][] =>
    s.map((u) =>
      s.map((v) => {
        const [x, y] = onOutline(u, v, w, d, corner);
        points.push({ x, y, z: top ? z1 + height(u, v) : z0 - low * (Math.max(0, 1 - u * u) * Math.max(0, 1 - v * v)) ** 0.4 });
        return points.length - 1;
      }),
    );
  const upper = grid(true);
  const lower = grid(false);
  for (let i = 0; i < n; i++)
    for (let j = 0; j < n; j++) {
      faces.push([upper[i][j], upper[i + 1][j], upper[i + 1][j + 1], upper[i][j + 1]]);
      faces.push([lower[i][j], lower[i][j + 1], lower[i + 1][j + 1], lower[i + 1][j]]);
    }
  // Round about, counter-clockwise from the front left.
  const rim = border(n, n);
  const levels = cuts(isFine() ? 4 : 2, 1);
  const rings: number[][] = [rim.map(([i, j]) => lower[i][j])];
  for (let k = 1; k < levels; k++)
    rings.push(
      rim.map(([i, j]) => {
        const p = points[upper[i][j]];
        const t = k / levels;
        const [x, y] = bow(p.x, p.y, t);
        points.push({ x, y, z: z0 + (z1 - z0) * t });
        return points.length - 1;
      }),
    );
  rings.push(rim.map(([i, j]) => upper[i][j]));
  for (let k = 0; k + 1 < rings.length; k++)
    rim.forEach((_, i) => {
      const j = (i + 1) % rim.length;
      faces.push([rings[k][i], rings[k][j], rings[k + 1][j], rings[k + 1][i]]);
    });
  builder.add(skin(points, faces, 1.45));
  if (piping && isFine()) {
    // Two points of the rim at a corner lie together where it is round: cords skip what is short.
    const path = rim.map(([i, j]) => points[upper[i][j]]);
    builder.add(loop(thinned(path), PIPING, 6));
  }
  return builder.build();
}

/** A closed path without points that lie together. */
function thinned(path: readonly Vec3[]): Vec3[] {
  return path.filter((p, i) => {
    const q = path[(i + path.length - 1) % path.length];
    return Math.hypot(p.x - q.x, p.y - q.y, p.z - q.z) > 2e-3;
  });
}

interface Pillow {
  width: number;
  depth: number;
  thick: number;
  /** How far its sides are drawn in between its corners, as a share. */
  pinch?: number;
  piping?: boolean;
  seed?: number;
}

/** A pillow of two panels sewn together at their edge, its corners drawn out. About the origin, on z = 0. */
export function pillow({ width, depth, thick, pinch = 0.07, piping = false, seed = 0 }: Pillow): Mesh {
  const builder = new MeshBuilder();
  const [w, d] = [width / 2, depth / 2];
  const n = cuts(10, 4);
  const s = stops(n);
  const points: Vec3[] = [];
  const faces: number[][] = [];
  const half = (u: number, v: number): { full: number; x: number; y: number; wave: number } => {
    const full = (Math.max(0, 1 - u * u) * Math.max(0, 1 - v * v)) ** 0.42;
    const x = u * w * (1 - pinch * (1 - v * v) * Math.abs(u) ** 2);
    const y = v * d * (1 - pinch * (1 - u * u) * Math.abs(v) ** 2);
    const edge = 1 - Math.max(0, 1 - Math.max(Math.abs(u), Math.abs(v)) ** 6);
    const wave = isFine() ? 0.05 * edge * full * (Math.sin(11 * u + 5 * seed) * Math.abs(v) + Math.sin(12 * v + 3 * seed) * Math.abs(u)) : 0;
    return { full, x, y, wave };
  };
  const top: number[][] = [];
  const bottom: number[][] = [];
  s.forEach((u, i) => {
    top.push([]);
    bottom.push([]);
    s.forEach((v, j) => {
      const { full, x, y, wave } = half(u, v);
      const rim = i === 0 || j === 0 || i === n || j === n;
      const z = thick * 0.42;
      points.push({ x, y, z: z + thick * 0.58 * full * (1 + wave) + 0.004 * Math.sin(3 * u + seed) * full });
      top[i].push(points.length - 1);
      if (!rim) points.push({ x, y, z: z * (1 - Math.min(1, full * 1.15)) });
      bottom[i].push(points.length - 1);
    });
  });
  for (let i = 0; i < n; i++)
    for (let j = 0; j < n; j++) {
      faces.push([top[i][j], top[i + 1][j], top[i + 1][j + 1], top[i][j + 1]]);
      faces.push([bottom[i][j], bottom[i][j + 1], bottom[i + 1][j + 1], bottom[i + 1][j]]);
    }
  builder.add(skin(points, faces, 1.45));
  if (piping && isFine()) {
    builder.add(loop(thinned(border(n, n).map(([i, j]) => points[top[i][j]])), PIPING, 6));
  }
  return builder.build();
}

/** A stuffed and covered block between two corners: an arm, a back, a seat frame. @param radius of its edges; @param crown how far its sides swell */
export const padded = (min: Vec3, max: Vec3, radius: number, crown = 0.008): Mesh => roundedBox(min, max, { radius, steps: 3, bulge: isLight() ? 0 : crown });

/** A seam with piping round a face of a block that looks to the front, metres; nothing where it is light. */
export function frontSeam(x0: number, x1: number, z0: number, z1: number, y: number, round: number): Mesh {
  const builder = new MeshBuilder();
  if (isFine()) {
    const path: Vec3[] = [];
    const r = Math.min(round, (x1 - x0) / 2, (z1 - z0) / 2);
    for (let q = 0; q < 4; q++) {
      const [cx, cz] = [q === 0 || q === 3 ? x1 - r : x0 + r, q < 2 ? z1 - r : z0 + r];
      for (let k = 0; k <= 4; k++) {
        const a = (Math.PI / 2) * (q + k / 4);
        path.push({ x: cx + r * Math.cos(a), y, z: cz + r * Math.sin(a) });
      }
    }
    builder.add(loop(thinned(path), PIPING, 6));
  }
  return builder.build();
}

/** A covered button drawn into a padded face, as a flat drop about the origin that looks up. */
const button = (radius = 0.011): Mesh => {
  const n = cuts(6, 4);
  const points: Vec3[] = [];
  const faces: number[][] = [];
  const rows = cuts(2, 1);
  for (let k = 0; k < rows; k++)
    for (let i = 0; i < n; i++) {
      const a = (2 * Math.PI * i) / n;
      const t = (Math.PI / 2) * (k / rows);
      points.push({ x: radius * Math.cos(t) * Math.cos(a), y: radius * Math.cos(t) * Math.sin(a), z: radius * 0.5 * Math.sin(t) });
    }
  points.push({ x: 0, y: 0, z: radius * 0.5 });
  for (let k = 0; k + 1 < rows; k++)
    for (let i = 0; i < n; i++) {
      const j = (i + 1) % n;
      faces.push([k * n + i, k * n + j, (k + 1) * n + j, (k + 1) * n + i]);
    }
  for (let i = 0; i < n; i++) faces.push([(rows - 1) * n + i, (rows - 1) * n + ((i + 1) % n), rows * n]);
  points.push({ x: 0, y: 0, z: -0.002 });
  for (let i = 0; i < n; i++) faces.push([(i + 1) % n, i, rows * n + 1]);
  return skin(points, faces, 1.2);
};

interface Tufted {
  width: number;
  height: number;
  /** Of its filling, over what it is sewn to. */
  thick: number;
  columns: number;
  rows: number;
}

/**
 * Deep buttoning: a filled panel drawn in at its buttons, in rows that stand half a step apart, with a fold from each to those
 * beside it in the next row. About the origin, looking up; it reaches 2 mm below z = 0, where it is sewn on.
 */
export function tufted({ width, height, thick, columns, rows }: Tufted): Mesh {
  const builder = new MeshBuilder();
  // Corners of the net lie on the buttons and along the folds, which stay sharp so.
  const k = isFine() ? 3 : 1;
  const [across, up] = [columns * 2 * k, (rows + 1) * k];
  const [dx, dy] = [width / across, height / up];
  const buttons: [number, number][] = [];
  for (let r = 0; r < rows; r++) for (let c = 0; c < columns - (r % 2); c++) buttons.push([(2 * c + 1 + (r % 2)) * k, (r + 1) * k]);
  const dip = (i: number, j: number): number => {
    let deep = 0;
    for (const [x, y] of buttons) {
      const [a, b] = [Math.abs(i - x), Math.abs(j - y)];
      if (a > k || b > k) continue;
      // At a button; and along the diagonals that leave it, less deep half way.
      const along = Math.max(a, b) / k;
      const off = Math.abs(a - b) / k;
      deep = Math.max(deep, (1 - along) ** 2 * Math.max(0, 1 - off), 0.42 * Math.max(0, 1 - off / 0.55) ** 1.6 * (1 - 0.35 * Math.sin(Math.PI * along)));
    }
    return deep;
  };
  const points: Vec3[] = [];
  const faces: number[][] = [];
  const index = (i: number, j: number): number => i * (up + 1) + j;
  for (let i = 0; i <= across; i++)
    for (let j = 0; j <= up; j++) {
      const [u, v] = [(2 * i) / across - 1, (2 * j) / up - 1];
      const full = (Math.max(0, 1 - u ** 8) * Math.max(0, 1 - v ** 8)) ** 0.5;
      points.push({ x: i * dx - width / 2, y: j * dy - height / 2, z: full === 0 ? -0.002 : thick * full * (1 - 0.8 * dip(i, j)) });
    }
  for (let i = 0; i < across; i++) for (let j = 0; j < up; j++) faces.push([index(i, j), index(i + 1, j), index(i + 1, j + 1), index(i, j + 1)]);
  const rim = border(across, up).map(([i, j]) => index(i, j));
  points.push({ x: 0, y: 0, z: -0.002 });
  rim.forEach((p, i) => faces.push([rim[(i + 1) % rim.length], p, points.length - 1]));
  builder.add(skin(points, faces, 1.2));
  if (isFine())
    for (const [i, j] of buttons) {
      const { x, y, z } = points[index(i, j)];
      builder.add(button(), shiftBy(x, y, z - 0.001));
    }
  return builder.build();
}
