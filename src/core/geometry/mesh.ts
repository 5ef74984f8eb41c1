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

/** An array of numbers twice as long at least, with what stood in the old one. */
const longer = <A extends Float32Array | Uint32Array>(old: A, room: number): A => {
  const next = new (old.constructor as new (length: number) => A)(Math.max(room, old.length * 2));
  next.set(old);
  return next;
};

/** What a builder writes into while it builds. */
interface Buffers {
  positions: Float32Array;
  normals: Float32Array;
  uvs: Float32Array;
  indices: Uint32Array;
}

/** Buffers of builders that have built: the next ones write into them, and none has to grow its own from nothing. */
const spare: Buffers[] = [];
const SPARE = 16;
/** What is larger than so many vertices is let go of: a worker shall not hold a street for ever. */
const LARGEST = 1 << 16;

/** Collects vertices and triangles; faces are flat unless normals are given. Once built it holds nothing. */
export class MeshBuilder {
  private buffers: Buffers = spare.pop() ?? {
    positions: new Float32Array(3 * 64),
    normals: new Float32Array(3 * 64),
    uvs: new Float32Array(2 * 64),
    indices: new Uint32Array(3 * 32),
  };
  private vertices = 0;
  private corners = 0;

  get empty(): boolean {
    return this.corners === 0;
  }

  /** Makes room for so many more vertices and corners of triangles. */
  private reserve(vertices: number, corners: number): void {
    const b = this.buffers;
    const [v, c] = [this.vertices + vertices, this.corners + corners];
    if (v * 3 > b.positions.length) {
      b.positions = longer(b.positions, v * 3);
      b.normals = longer(b.normals, v * 3);
      b.uvs = longer(b.uvs, v * 2);
    }
    if (c > b.indices.length) b.indices = longer(b.indices, c);
  }

  /** Writes a vertex where room was made. */
  private put(x: number, y: number, z: number, nx: number, ny: number, nz: number, u: number, v: number): void {
    const { positions, normals, uvs } = this.buffers;
    const k = this.vertices * 3;
    positions[k] = x;
    positions[k + 1] = y;
    positions[k + 2] = z;
    normals[k] = nx;
    normals[k + 1] = ny;
    normals[k + 2] = nz;
    uvs[this.vertices * 2] = u;
    uvs[this.vertices * 2 + 1] = v;
    this.vertices++;
  }

  vertex(p: Vec3, n: Vec3, u: number, v: number): number {
    return this.point(p.x, p.y, p.z, n.x, n.y, n.z, u, v);
  }

  /** A vertex in plain numbers: where it lies, its normal, its texture coordinates. */
  point(x: number, y: number, z: number, nx: number, ny: number, nz: number, u: number, v: number): number {
    this.reserve(1, 0);
    this.put(x, y, z, nx, ny, nz, u, v);
    return this.vertices - 1;
  }

  triangle(a: number, b: number, c: number): this {
    this.reserve(0, 3);
    const { indices } = this.buffers;
    indices[this.corners++] = a;
    indices[this.corners++] = b;
    indices[this.corners++] = c;
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
    const v = this.vertices;
    this.reserve(4, 6);
    for (let i = 0; i < 4; i++) {
      const q = i === 0 ? a : i === 1 ? b : i === 2 ? c : d;
      const [rx, ry, rz] = [q.x - a.x, q.y - a.y, q.z - a.z];
      this.put(q.x, q.y, q.z, nx, ny, nz, u0 + rx * ax + ry * ay + rz * az, v0 + rx * ux + ry * uy + rz * uz);
    }
    return this.triangle(v, v + 1, v + 2).triangle(v, v + 2, v + 3);
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
    const base = this.vertices;
    this.reserve(positions.length / 3, indices.length);
    const turns = m[0] !== 1 || m[5] !== 1 || m[10] !== 1 || m[1] !== 0 || m[2] !== 0 || m[4] !== 0 || m[6] !== 0 || m[8] !== 0 || m[9] !== 0;
    const moves = m[12] !== 0 || m[13] !== 0 || m[14] !== 0;
    const { positions: P, normals: N, uvs: T, indices: I } = this.buffers;
    let k = base * 3;
    if (!turns) {
      N.set(normals, k);
      if (!moves) P.set(positions, k);
      else
        for (let j = 0; j < positions.length; j += 3, k += 3) {
          P[k] = positions[j] + m[12];
          P[k + 1] = positions[j + 1] + m[13];
          P[k + 2] = positions[j + 2] + m[14];
        }
    } else {
      const c = cofactors(m);
      for (let j = 0; j < positions.length; j += 3, k += 3) {
        const [x, y, z] = [positions[j], positions[j + 1], positions[j + 2]];
        const [nx, ny, nz] = [normals[j], normals[j + 1], normals[j + 2]];
        P[k] = m[0] * x + m[4] * y + m[8] * z + m[12];
        P[k + 1] = m[1] * x + m[5] * y + m[9] * z + m[13];
        P[k + 2] = m[2] * x + m[6] * y + m[10] * z + m[14];
        const [tx, ty, tz] = [c[0] * nx + c[3] * ny + c[6] * nz, c[1] * nx + c[4] * ny + c[7] * nz, c[2] * nx + c[5] * ny + c[8] * nz];
        const l = Math.sqrt(tx * tx + ty * ty + tz * tz) || 1;
        N[k] = tx / l;
        N[k + 1] = ty / l;
        N[k + 2] = tz / l;
      }
    }
    T.set(uvs, base * 2);
    for (let j = 0; j < indices.length; j++) I[this.corners + j] = base + indices[j];
    this.vertices += positions.length / 3;
    this.corners += indices.length;
    return this;
  }

  /** What was collected, as a mesh of its own; the builder is empty after it. */
  build(): Mesh {
    const { positions, normals, uvs, indices } = this.buffers;
    const mesh = {
      positions: positions.slice(0, this.vertices * 3),
      normals: normals.slice(0, this.vertices * 3),
      uvs: uvs.slice(0, this.vertices * 2),
      indices: indices.slice(0, this.corners),
    };
    if (spare.length < SPARE && positions.length <= 3 * LARGEST) {
      spare.push(this.buffers);
      this.buffers = { positions: positions.subarray(0, 0), normals: normals.subarray(0, 0), uvs: uvs.subarray(0, 0), indices: indices.subarray(0, 0) };
    }
    this.vertices = 0;
    this.corners = 0;
    return mesh;
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
