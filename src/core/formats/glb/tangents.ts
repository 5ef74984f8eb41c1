import type { Mesh } from '../../geometry/mesh';
import { cross3, dot3, length3, unit3 } from '../../geometry/vec';
import { NIL } from '../../units/tolerance';

/**
 * Tangents for relief textures (Lengyel, "Computing tangent space basis vectors", 2001): along growing u, square to the
 * normal; the fourth value turns the bitangent up the picture, towards falling v, as glTF reads it.
 */
export function tangents(mesh: Mesh, normals: Float32Array): Float32Array<ArrayBuffer> {
  const { positions: p, uvs, indices } = mesh;
  const count = p.length / 3;
  const along = new Float64Array(count * 3);
  const up = new Float64Array(count * 3);
  for (let k = 0; k < indices.length; k += 3) {
    const [a, b, c] = [indices[k], indices[k + 1], indices[k + 2]];
    const [du1, dv1, du2, dv2] = [uvs[b * 2] - uvs[a * 2], uvs[b * 2 + 1] - uvs[a * 2 + 1], uvs[c * 2] - uvs[a * 2], uvs[c * 2 + 1] - uvs[a * 2 + 1]];
    const det = du1 * dv2 - du2 * dv1;
    if (Math.abs(det) < 1e-14) continue;
    for (let i = 0; i < 3; i++) {
      const e1 = p[b * 3 + i] - p[a * 3 + i];
      const e2 = p[c * 3 + i] - p[a * 3 + i];
      for (const v of [a, b, c]) {
        along[v * 3 + i] += (dv2 * e1 - dv1 * e2) * Math.sign(det);
        up[v * 3 + i] += (du1 * e2 - du2 * e1) * Math.sign(det);
      }
    }
  }
  const out = new Float32Array(count * 4);
  for (let v = 0; v < count; v++) {
    const n = { x: normals[v * 3], y: normals[v * 3 + 1], z: normals[v * 3 + 2] };
    const t = { x: along[v * 3], y: along[v * 3 + 1], z: along[v * 3 + 2] };
    const d = dot3(n, t);
    let square = { x: t.x - n.x * d, y: t.y - n.y * d, z: t.z - n.z * d };
    // Where the texture gives no direction, any one square to the normal will do.
    if (length3(square) < NIL) square = cross3(n, Math.abs(n.z) < 0.9 ? { x: 0, y: 0, z: 1 } : { x: 1, y: 0, z: 0 });
    const unit = unit3(square);
    const b = cross3(n, unit);
    out.set([unit.x, unit.y, unit.z, b.x * up[v * 3] + b.y * up[v * 3 + 1] + b.z * up[v * 3 + 2] > 0 ? -1 : 1], v * 4);
  }
  return out;
}
