import { union } from '../../geometry/polygon';
import type { Mesh } from '../../geometry/mesh';
import type { Region } from '../../geometry/region';
import type { Vec2 } from '../../geometry/vec';
import { NIL } from '../../units/tolerance';

/** The outline of a mesh whose points lie in a plane of sight: the union of all triangles that look to the eye. @param at where point k is seen, x to the right */
export function outlineOf({ positions, indices }: Mesh, at: (x: number, y: number, z: number) => Vec2): Region[] {
  const points: Vec2[] = [];
  for (let k = 0; k < positions.length; k += 3) points.push(at(positions[k], positions[k + 1], positions[k + 2]));
  const triangles: Region[] = [];
  for (let k = 0; k < indices.length; k += 3) {
    const [a, b, c] = [points[indices[k]], points[indices[k + 1]], points[indices[k + 2]]];
    if ((b.x - a.x) * (c.y - a.y) - (c.x - a.x) * (b.y - a.y) > NIL) triangles.push({ outer: [a, b, c], holes: [] });
  }
  return triangles.length ? union(triangles) : [];
}

const known = new WeakMap<Mesh, Region[]>();

/** The outline of a mesh seen from its front (−y): x to the right, y up. Kept as long as the mesh is. */
export function frontOutline(mesh: Mesh): Region[] {
  let own = known.get(mesh);
  if (!own) known.set(mesh, (own = outlineOf(mesh, (x, _, z) => ({ x, y: z }))));
  return own;
}

/** How near a mesh comes to whoever looks at its front, metres: the least of its y, the nearest last when sorted by it. */
export function nearestOf({ positions }: Mesh): number {
  let least = Infinity;
  for (let k = 1; k < positions.length; k += 3) least = Math.min(least, positions[k]);
  return least;
}
