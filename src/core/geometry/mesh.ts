import { triangulate } from './polygon';
import type { Region } from './region';
import { cross3, sub3, type Vec2, type Vec3 } from './vec';

/** Triangles with a normal and a texture coordinate a vertex. Coordinates and texture coordinates are metres. */
export interface Mesh {
  positions: Float32Array;
  normals: Float32Array;
  uvs: Float32Array;
  indices: Uint32Array;
}

/** Column-major 4×4 matrix, as WebGL and glTF write it. */
export type Matrix = readonly number[];

export const IDENTITY: Matrix = [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1];

/** Turn about the z axis, then move. */
export function placement(x: number, y: number, z: number, rotation: number): Matrix {
  const c = Math.cos(rotation);
  const s = Math.sin(rotation);
  return [c, s, 0, 0, -s, c, 0, 0, 0, 0, 1, 0, x, y, z, 1];
}

export const transformPoint = (m: Matrix, p: Vec3): Vec3 => ({
  x: m[0] * p.x + m[4] * p.y + m[8] * p.z + m[12],
  y: m[1] * p.x + m[5] * p.y + m[9] * p.z + m[13],
  z: m[2] * p.x + m[6] * p.y + m[10] * p.z + m[14],
});

/** One matrix after another: first `b`, then `a`. */
export function multiply(a: Matrix, b: Matrix): Matrix {
  if (a === IDENTITY) return b;
  if (b === IDENTITY) return a;
  const out: number[] = [];
  for (let column = 0; column < 4; column++)
    for (let row = 0; row < 4; row++) {
      let sum = 0;
      for (let k = 0; k < 4; k++) sum += a[k * 4 + row] * b[column * 4 + k];
      out.push(sum);
    }
  return out;
}

/** Collects vertices and triangles; faces are flat unless normals are given. */
export class MeshBuilder {
  private readonly p: number[] = [];
  private readonly n: number[] = [];
  private readonly t: number[] = [];
  private readonly i: number[] = [];

  get empty(): boolean {
    return this.i.length === 0;
  }

  vertex(p: Vec3, n: Vec3, u: number, v: number): number {
    this.p.push(p.x, p.y, p.z);
    this.n.push(n.x, n.y, n.z);
    this.t.push(u, v);
    return this.p.length / 3 - 1;
  }

  triangle(a: number, b: number, c: number): this {
    this.i.push(a, b, c);
    return this;
  }

  /** A flat quadrilateral, counter-clockwise from its front; texture runs along its first edge from `u0`, `v0`. */
  quad(a: Vec3, b: Vec3, c: Vec3, d: Vec3, u0 = 0, v0 = 0): this {
    // Written out in numbers: most of a house is made of these.
    let [ax, ay, az] = [b.x - a.x, b.y - a.y, b.z - a.z];
    const [ex, ey, ez] = [d.x - a.x, d.y - a.y, d.z - a.z];
    let [nx, ny, nz] = [ay * ez - az * ey, az * ex - ax * ez, ax * ey - ay * ex];
    const l = Math.sqrt(ax * ax + ay * ay + az * az) || 1;
    ax /= l;
    ay /= l;
    az /= l;
    const m = Math.sqrt(nx * nx + ny * ny + nz * nz) || 1;
    nx /= m;
    ny /= m;
    nz /= m;
    const [ux, uy, uz] = [ny * az - nz * ay, nz * ax - nx * az, nx * ay - ny * ax];
    const first = this.p.length / 3;
    for (let i = 0; i < 4; i++) {
      const q = i === 0 ? a : i === 1 ? b : i === 2 ? c : d;
      const [rx, ry, rz] = [q.x - a.x, q.y - a.y, q.z - a.z];
      this.p.push(q.x, q.y, q.z);
      this.n.push(nx, ny, nz);
      this.t.push(u0 + rx * ax + ry * ay + rz * az, v0 + rx * ux + ry * uy + rz * uz);
    }
    this.i.push(first, first + 1, first + 2, first, first + 2, first + 3);
    return this;
  }

  /** A flat region carried into space; `flip` for regions seen from below. Texture coordinates are the plane ones unless others are given. */
  region(region: Region, place: (p: Vec2) => Vec3, normal: Vec3, flip = false, uv: (p: Vec2) => Vec2 = (p) => p): this {
    const { points, indices } = triangulate(region);
    const base = points.map((q) => {
      const t = uv(q);
      return this.vertex(place(q), normal, t.x, t.y);
    });
    for (let k = 0; k < indices.length; k += 3)
      if (flip) this.triangle(base[indices[k]], base[indices[k + 2]], base[indices[k + 1]]);
      else this.triangle(base[indices[k]], base[indices[k + 1]], base[indices[k + 2]]);
    return this;
  }

  /** A box between two corners, with the texture along each face. */
  box(x0: number, y0: number, z0: number, x1: number, y1: number, z1: number): this {
    const v = (x: number, y: number, z: number): Vec3 => ({ x, y, z });
    this.quad(v(x0, y0, z0), v(x1, y0, z0), v(x1, y0, z1), v(x0, y0, z1), x0, z0);
    this.quad(v(x1, y0, z0), v(x1, y1, z0), v(x1, y1, z1), v(x1, y0, z1), y0, z0);
    this.quad(v(x1, y1, z0), v(x0, y1, z0), v(x0, y1, z1), v(x1, y1, z1), -x1, z0);
    this.quad(v(x0, y1, z0), v(x0, y0, z0), v(x0, y0, z1), v(x0, y1, z1), -y1, z0);
    this.quad(v(x0, y0, z1), v(x1, y0, z1), v(x1, y1, z1), v(x0, y1, z1), x0, y0);
    return this.quad(v(x0, y1, z0), v(x1, y1, z0), v(x1, y0, z0), v(x0, y0, z0), x0, -y1);
  }

  /** Adds a mesh, carried by a matrix; normals go by its cofactors, so that they stay square to what is stretched. */
  add({ positions, normals, uvs, indices }: Mesh, m: Matrix = IDENTITY): this {
    const base = this.p.length / 3;
    const turns = m[0] !== 1 || m[5] !== 1 || m[10] !== 1 || m[1] !== 0 || m[2] !== 0 || m[4] !== 0 || m[6] !== 0 || m[8] !== 0 || m[9] !== 0;
    const c = turns ? cofactors(m) : null;
    for (let k = 0; k < positions.length; k += 3) {
      const [x, y, z] = [positions[k], positions[k + 1], positions[k + 2]];
      const [nx, ny, nz] = [normals[k], normals[k + 1], normals[k + 2]];
      if (!c) {
        this.p.push(x + m[12], y + m[13], z + m[14]);
        this.n.push(nx, ny, nz);
        continue;
      }
      this.p.push(m[0] * x + m[4] * y + m[8] * z + m[12], m[1] * x + m[5] * y + m[9] * z + m[13], m[2] * x + m[6] * y + m[10] * z + m[14]);
      const [tx, ty, tz] = [c[0] * nx + c[3] * ny + c[6] * nz, c[1] * nx + c[4] * ny + c[7] * nz, c[2] * nx + c[5] * ny + c[8] * nz];
      const l = Math.sqrt(tx * tx + ty * ty + tz * tz) || 1;
      this.n.push(tx / l, ty / l, tz / l);
    }
    for (let k = 0; k < uvs.length; k++) this.t.push(uvs[k]);
    for (let k = 0; k < indices.length; k++) this.i.push(base + indices[k]);
    return this;
  }

  build(): Mesh {
    return {
      positions: new Float32Array(this.p),
      normals: new Float32Array(this.n),
      uvs: new Float32Array(this.t),
      indices: new Uint32Array(this.i),
    };
  }
}

/** Several meshes as one, without carrying them anywhere. */
export function joinMeshes(meshes: readonly Mesh[]): Mesh {
  if (meshes.length === 1) return meshes[0];
  const sum = (length: (m: Mesh) => number): number => meshes.reduce((total, m) => total + length(m), 0);
  const joined: Mesh = {
    positions: new Float32Array(sum((m) => m.positions.length)),
    normals: new Float32Array(sum((m) => m.normals.length)),
    uvs: new Float32Array(sum((m) => m.uvs.length)),
    indices: new Uint32Array(sum((m) => m.indices.length)),
  };
  let [p, t, i] = [0, 0, 0];
  for (const m of meshes) {
    joined.positions.set(m.positions, p);
    joined.normals.set(m.normals, p);
    joined.uvs.set(m.uvs, t);
    for (let k = 0; k < m.indices.length; k++) joined.indices[i + k] = m.indices[k] + p / 3;
    p += m.positions.length;
    t += m.uvs.length;
    i += m.indices.length;
  }
  return joined;
}

/** Cofactors of the upper left 3 × 3 of a matrix, column-major. */
function cofactors(m: Matrix): number[] {
  const at = (row: number, column: number): number => m[(column % 3) * 4 + (row % 3)];
  const out: number[] = [];
  for (let column = 0; column < 3; column++)
    for (let row = 0; row < 3; row++) out.push(at(row + 1, column + 1) * at(row + 2, column + 2) - at(row + 1, column + 2) * at(row + 2, column + 1));
  return out;
}

const areas = new WeakMap<Mesh, number>();

/** Area of all triangles, m²; worked out once. */
export function meshArea(mesh: Mesh): number {
  const known = areas.get(mesh);
  if (known !== undefined) return known;
  let sum = 0;
  const at = (k: number): Vec3 => ({ x: mesh.positions[k * 3], y: mesh.positions[k * 3 + 1], z: mesh.positions[k * 3 + 2] });
  for (let k = 0; k < mesh.indices.length; k += 3) {
    const a = at(mesh.indices[k]);
    const n = cross3(sub3(at(mesh.indices[k + 1]), a), sub3(at(mesh.indices[k + 2]), a));
    sum += Math.hypot(n.x, n.y, n.z) / 2;
  }
  areas.set(mesh, sum);
  return sum;
}

/** The middle of the box round a mesh, in its own coordinates. */
export function middleOf({ positions: p }: Mesh): Vec3 {
  const low = [Infinity, Infinity, Infinity];
  const high = [-Infinity, -Infinity, -Infinity];
  for (let k = 0; k < p.length; k++) {
    low[k % 3] = Math.min(low[k % 3], p[k]);
    high[k % 3] = Math.max(high[k % 3], p[k]);
  }
  return { x: (low[0] + high[0]) / 2, y: (low[1] + high[1]) / 2, z: (low[2] + high[2]) / 2 };
}
