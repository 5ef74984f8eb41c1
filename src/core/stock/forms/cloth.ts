import type { Vec3 } from '../../geometry/vec';
import { DUST, NEAR, NIL } from '../../units/tolerance';
import { randomFrom } from './random';

/** What cloth lies on: how far a point is from its surface, metres, inside below nought, and the way out. */
export type Support = (x: number, y: number, z: number) => { off: number; x: number; y: number; z: number };

/** A box with rounded edges that stands in the way of cloth. */
export function blockSupport(min: Vec3, max: Vec3, radius: number): Support {
  const c = [(min.x + max.x) / 2, (min.y + max.y) / 2, (min.z + max.z) / 2];
  const h = [(max.x - min.x) / 2 - radius, (max.y - min.y) / 2 - radius, (max.z - min.z) / 2 - radius];
  return (x, y, z) => {
    const p = [x - c[0], y - c[1], z - c[2]];
    const q = p.map((v, k) => Math.abs(v) - h[k]);
    const outer = q.map((v) => Math.max(v, 0));
    const l = Math.hypot(outer[0], outer[1], outer[2]);
    if (l > NIL) {
      const [nx, ny, nz] = outer.map((v, k) => (v / l) * Math.sign(p[k]));
      return { off: l - radius, x: nx, y: ny, z: nz };
    }
    const k = q.indexOf(Math.max(...q));
    return { off: q[k] - radius, x: k === 0 ? Math.sign(p[0]) || 1 : 0, y: k === 1 ? Math.sign(p[1]) || 1 : 0, z: k === 2 ? Math.sign(p[2]) || 1 : 0 };
  };
}

/** An upright round or oval block, its upper edge sharp. */
export function roundSupport(rx: number, ry: number, z1: number): Support {
  return (x, y, z) => {
    const k = Math.hypot(x / rx, y / ry);
    const side = (k - 1) * Math.min(rx, ry);
    const top = z - z1;
    if (side > top && k > NEAR) {
      const [gx, gy] = [x / rx ** 2, y / ry ** 2];
      const l = Math.hypot(gx, gy) || 1;
      return { off: side, x: gx / l, y: gy / l, z: 0 };
    }
    return { off: top, x: 0, y: 0, z: 1 };
  };
}

/** What keeps cloth from falling through the floor. */
export const floorSupport: Support = (_x, _y, z) => ({ off: z, x: 0, y: 0, z: 1 });

interface Drape {
  /** How many meshes along and across. */
  nu: number;
  nv: number;
  /** Where it is let fall from: a flat piece of its full size. */
  start(u: number, v: number): Vec3;
  supports: readonly Support[];
  /** How near its surface comes to what it lies on, metres. */
  thick?: number;
  /** Whether a corner of the grid is held. */
  held?(i: number, j: number): boolean;
  /** How stiff it is to bending: compliance, m/N as in the source. */
  bend?: number;
  steps?: number;
  seed?: number;
}

/**
 * Cloth that has come to rest on what it was let fall on: position-based dynamics with compliance (Macklin, Müller and
 * Chentanez 2016), one iteration of many small steps (Macklin and others 2019). Its threads do not stretch, it shears and
 * bends softly, and it clings to what it touches. The same for the same seed.
 *
 * @returns points, (nu + 1) × (nv + 1), by u then v
 */
export function drape({ nu, nv, start, supports, thick = 0.003, held, bend = 4e-3, steps = 420, seed = 1 }: Drape): Vec3[][] {
  const m = nv + 1;
  const count = (nu + 1) * m;
  const p = new Float64Array(count * 3);
  const random = randomFrom(seed);
  for (let i = 0; i <= nu; i++)
    for (let j = 0; j <= nv; j++) {
      const s = start(i / nu, j / nv);
      const k = (i * m + j) * 3;
      p[k] = s.x;
      p[k + 1] = s.y;
      // Nothing is quite even: where it would fold on a line it has to choose a side.
      p[k + 2] = s.z + 0.002 * random();
    }
  const before = p.slice();
  const speed = new Float64Array(count * 3);
  const fixed = new Uint8Array(count);
  if (held) for (let i = 0; i <= nu; i++) for (let j = 0; j <= nv; j++) fixed[i * m + j] = held(i, j) ? 1 : 0;
  const links: number[] = [];
  const rest: number[] = [];
  const give: number[] = [];
  const link = (i: number, j: number, k: number, l: number, soft: number): void => {
    if (k < 0 || l < 0 || k > nu || l > nv) return;
    const [a, b] = [(i * m + j) * 3, (k * m + l) * 3];
    const [s, t] = [start(i / nu, j / nv), start(k / nu, l / nv)];
    links.push(a, b);
    rest.push(Math.hypot(t.x - s.x, t.y - s.y, t.z - s.z));
    give.push(soft);
  };
  for (let i = 0; i <= nu; i++)
    for (let j = 0; j <= nv; j++) {
      link(i, j, i + 1, j, 0);
      link(i, j, i, j + 1, 0);
      link(i, j, i + 1, j + 1, bend * 0.2);
      link(i, j, i + 1, j - 1, bend * 0.2);
      link(i, j, i + 2, j, bend);
      link(i, j, i, j + 2, bend);
    }
  const h = 1 / 240;
  const damping = 0.985;
  for (let step = 0; step < steps; step++) {
    for (let k = 0; k < count; k++) {
      if (fixed[k]) continue;
      const a = k * 3;
      speed[a + 2] -= 9.81 * h;
      for (let c = 0; c < 3; c++) {
        before[a + c] = p[a + c];
        p[a + c] += speed[a + c] * h;
      }
    }
    // Every node weighs the same: a length is shared by both its ends, unless one is held.
    for (let l = 0; l < rest.length; l++) {
      const [a, b] = [links[l * 2], links[l * 2 + 1]];
      const [wa, wb] = [fixed[a / 3] ? 0 : 1, fixed[b / 3] ? 0 : 1];
      if (wa + wb === 0) continue;
      const [x, y, z] = [p[b] - p[a], p[b + 1] - p[a + 1], p[b + 2] - p[a + 2]];
      const d = Math.sqrt(x * x + y * y + z * z);
      if (d < DUST) continue;
      // Soft links only resist: each is held with a compliance by the square of the step.
      const c = (d - rest[l]) / (wa + wb + give[l] / (h * h)) / d;
      p[a] += wa * c * x;
      p[a + 1] += wa * c * y;
      p[a + 2] += wa * c * z;
      p[b] -= wb * c * x;
      p[b + 1] -= wb * c * y;
      p[b + 2] -= wb * c * z;
    }
    for (let k = 0; k < count; k++) {
      if (fixed[k]) continue;
      const a = k * 3;
      for (const support of supports) {
        const s = support(p[a], p[a + 1], p[a + 2]);
        const depth = thick - s.off;
        if (depth <= 0) continue;
        p[a] += s.x * depth;
        p[a + 1] += s.y * depth;
        p[a + 2] += s.z * depth;
        // What touches is held back along the surface.
        const [mx, my, mz] = [p[a] - before[a], p[a + 1] - before[a + 1], p[a + 2] - before[a + 2]];
        const through = mx * s.x + my * s.y + mz * s.z;
        const k2 = 0.55;
        p[a] -= (mx - through * s.x) * k2;
        p[a + 1] -= (my - through * s.y) * k2;
        p[a + 2] -= (mz - through * s.z) * k2;
      }
    }
    for (let k = 0; k < count * 3; k++) speed[k] = fixed[(k / 3) | 0] ? 0 : ((p[k] - before[k]) / h) * damping;
  }
  return Array.from({ length: nu + 1 }, (_, i) =>
    Array.from({ length: m }, (__, j) => {
      const k = (i * m + j) * 3;
      return { x: p[k], y: p[k + 1], z: p[k + 2] };
    }),
  );
}

/** A grid of points with so many more between them, on a smooth surface through them (Catmull–Rom along both). */
export function finerGrid(grid: readonly (readonly Vec3[])[], times: number): Vec3[][] {
  const along = (row: readonly Vec3[]): Vec3[] => {
    const out: Vec3[] = [];
    const get = (i: number): Vec3 => row[Math.max(0, Math.min(row.length - 1, i))];
    for (let i = 0; i + 1 < row.length; i++)
      for (let k = 0; k < times; k++) {
        const t = k / times;
        const w = [(-t + 2 * t * t - t ** 3) / 2, (2 - 5 * t * t + 3 * t ** 3) / 2, (t + 4 * t * t - 3 * t ** 3) / 2, (-t * t + t ** 3) / 2];
        const q = [get(i - 1), get(i), get(i + 1), get(i + 2)];
        const mix = (key: keyof Vec3): number => q.reduce((sum, v, n) => sum + w[n] * v[key], 0);
        out.push({ x: mix('x'), y: mix('y'), z: mix('z') });
      }
    out.push(row[row.length - 1]);
    return out;
  };
  const rows = grid.map(along);
  const columns = rows[0].map((_, j) => along(rows.map((r) => r[j])));
  return columns[0].map((_, i) => columns.map((c) => c[i]));
}

/** Every so many rows and columns of a grid, its last ones always. */
export function coarserGrid(grid: readonly (readonly Vec3[])[], every: number): Vec3[][] {
  const pick = <T>(list: readonly T[]): T[] => list.filter((_, i) => i % every === 0 || i === list.length - 1);
  return pick(grid).map(pick);
}

/** The faces of a grid of points, laid row by row. */
export function gridNet(grid: readonly (readonly Vec3[])[]): { points: Vec3[]; faces: number[][] } {
  const m = grid[0].length;
  const faces: number[][] = [];
  for (let i = 0; i + 1 < grid.length; i++) for (let j = 0; j + 1 < m; j++) faces.push([i * m + j, (i + 1) * m + j, (i + 1) * m + j + 1, i * m + j + 1]);
  return { points: grid.flat(), faces };
}

const rested = new Map<string, Vec3[][]>();
const KEPT = 60;

/** Cloth come to rest, worked out once for all that its name says. */
export function draped(name: string, how: () => Drape): Vec3[][] {
  let grid = rested.get(name);
  if (!grid) {
    grid = drape(how());
    if (rested.size >= KEPT) rested.delete(rested.keys().next().value!);
    rested.set(name, grid);
  }
  return grid;
}

/** Normals of a grid of points, up where it lies. */
export function gridNormals(grid: readonly (readonly Vec3[])[]): Vec3[][] {
  const [n, m] = [grid.length, grid[0].length];
  const at = (i: number, j: number): Vec3 => grid[Math.max(0, Math.min(n - 1, i))][Math.max(0, Math.min(m - 1, j))];
  return grid.map((row, i) =>
    row.map((_, j) => {
      const [a, b, c, d] = [at(i - 1, j), at(i + 1, j), at(i, j - 1), at(i, j + 1)];
      const [ux, uy, uz] = [b.x - a.x, b.y - a.y, b.z - a.z];
      const [vx, vy, vz] = [d.x - c.x, d.y - c.y, d.z - c.z];
      const [x, y, z] = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
      const l = Math.hypot(x, y, z) || 1;
      return { x: x / l, y: y / l, z: z / l };
    }),
  );
}

/**
 * Cloth of two layers with filling between them, as a closed net: its upper side over a grid, its lower side on it, both
 * joined at a hem.
 *
 * @param loft how far the layers lie apart in the middle, metres; @param hem at the edge
 */
export function filled(grid: readonly (readonly Vec3[])[], loft: number, hem = 0.004): { points: Vec3[]; faces: number[][] } {
  const normals = gridNormals(grid);
  const [n, m] = [grid.length, grid[0].length];
  const points: Vec3[] = [];
  const faces: number[][] = [];
  const layer = (k: number): number[][] =>
    grid.map((row, i) =>
      row.map((p, j) => {
        const edge = Math.min(i, n - 1 - i, j, m - 1 - j) / Math.max(1, Math.min(n, m) / 8);
        const by = k * (hem + (loft - hem) * Math.min(1, edge) ** 0.5);
        const q = normals[i][j];
        points.push({ x: p.x + q.x * by, y: p.y + q.y * by, z: p.z + q.z * by });
        return points.length - 1;
      }),
    );
  const [low, high] = [layer(0), layer(1)];
  for (let i = 0; i + 1 < n; i++)
    for (let j = 0; j + 1 < m; j++) {
      faces.push([high[i][j], high[i + 1][j], high[i + 1][j + 1], high[i][j + 1]]);
      faces.push([low[i][j], low[i][j + 1], low[i + 1][j + 1], low[i + 1][j]]);
    }
  const hemmed = (a: [number, number], b: [number, number]): void => void faces.push([low[a[0]][a[1]], low[b[0]][b[1]], high[b[0]][b[1]], high[a[0]][a[1]]]);
  for (let i = 0; i + 1 < n; i++) {
    hemmed([i, 0], [i + 1, 0]);
    hemmed([i + 1, m - 1], [i, m - 1]);
  }
  for (let j = 0; j + 1 < m; j++) {
    hemmed([n - 1, j], [n - 1, j + 1]);
    hemmed([0, j + 1], [0, j]);
  }
  return { points, faces };
}
