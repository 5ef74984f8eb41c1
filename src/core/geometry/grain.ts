import { DUST, WELD } from '../units/tolerance';
import type { Mesh } from './mesh';
import type { Vec3 } from './vec';

/** Which way the wood of a part runs: along the longest side of each of its boards, or along an axis of its mesh. */
export type Grain = 'length' | Vec3;

/** Sets of numbers that are joined one by one, by their first member (Tarjan 1975, with paths halved). */
class Sets {
  private readonly parent: Int32Array;

  constructor(count: number) {
    this.parent = Int32Array.from({ length: count }, (_, i) => i);
  }

  find(i: number): number {
    const { parent } = this;
    while (parent[i] !== i) i = parent[i] = parent[parent[i]];
    return i;
  }

  join(a: number, b: number): void {
    const [p, q] = [this.find(a), this.find(b)];
    if (p !== q) this.parent[Math.max(p, q)] = Math.min(p, q);
  }
}

/** Boards of a mesh: vertices that lie at one point belong to one solid. */
function boards({ positions }: Mesh, faces: Sets): Sets {
  const solids = new Sets(positions.length / 3);
  const seen = new Map<string, number>();
  for (let v = 0; v < positions.length / 3; v++) {
    solids.join(v, faces.find(v));
    const key = [0, 1, 2].map((k) => Math.round(positions[v * 3 + k] / WELD)).join(' ');
    const other = seen.get(key);
    if (other === undefined) seen.set(key, v);
    else solids.join(v, other);
  }
  return solids;
}

/** The longest side of what each board reaches over: an axis of the mesh by its first vertex. */
function lengths({ positions }: Mesh, solids: Sets): Map<number, number> {
  const boxes = new Map<number, number[]>();
  for (let v = 0; v < positions.length / 3; v++) {
    const solid = solids.find(v);
    let box = boxes.get(solid);
    if (!box) boxes.set(solid, (box = [Infinity, Infinity, Infinity, -Infinity, -Infinity, -Infinity]));
    for (let k = 0; k < 3; k++) {
      box[k] = Math.min(box[k], positions[v * 3 + k]);
      box[k + 3] = Math.max(box[k + 3], positions[v * 3 + k]);
    }
  }
  return new Map(
    [...boxes].map(([solid, box]) => {
      const sides = [0, 1, 2].map((k) => box[k + 3] - box[k]);
      return [solid, sides.indexOf(Math.max(...sides))];
    }),
  );
}

const turned = new WeakMap<Mesh, Map<string, Mesh>>();

/**
 * A mesh whose texture runs along the grain: faces on which it runs across are given it turned by a quarter. Finishes that
 * have a grain run along u. The same object for the same mesh and grain; the mesh itself where nothing has to be turned.
 */
export function alongGrain(mesh: Mesh, grain: Grain): Mesh {
  const key = grain === 'length' ? grain : `${grain.x} ${grain.y} ${grain.z}`;
  let known = turned.get(mesh);
  if (!known) turned.set(mesh, (known = new Map()));
  let made = known.get(key);
  if (!made) known.set(key, (made = turn(mesh, grain)));
  return made;
}

function turn(mesh: Mesh, grain: Grain): Mesh {
  const { positions: p, uvs: t, indices } = mesh;
  const faces = new Sets(p.length / 3);
  for (let k = 0; k < indices.length; k += 3) {
    faces.join(indices[k], indices[k + 1]);
    faces.join(indices[k], indices[k + 2]);
  }
  const solids = grain === 'length' ? boards(mesh, faces) : null;
  const axes = solids && lengths(mesh, solids);
  // How much more the texture runs along the grain than across it, over each face.
  const along = new Map<number, number>();
  for (let k = 0; k < indices.length; k += 3) {
    const [a, b, c] = [indices[k], indices[k + 1], indices[k + 2]];
    const [u1, v1, u2, v2] = [t[b * 2] - t[a * 2], t[b * 2 + 1] - t[a * 2 + 1], t[c * 2] - t[a * 2], t[c * 2 + 1] - t[a * 2 + 1]];
    const area = u1 * v2 - u2 * v1;
    if (area === 0) continue;
    const axis = axes && axes.get(solids.find(a))!;
    const g = axis === null ? (grain as Vec3) : { x: axis === 0 ? 1 : 0, y: axis === 1 ? 1 : 0, z: axis === 2 ? 1 : 0 };
    // Where u and v grow on the triangle, times its area (Lengyel 2001).
    const edge = (q: number): number => (p[q * 3] - p[a * 3]) * g.x + (p[q * 3 + 1] - p[a * 3 + 1]) * g.y + (p[q * 3 + 2] - p[a * 3 + 2]) * g.z;
    const [e1, e2] = [edge(b), edge(c)];
    const more = Math.abs(v2 * e1 - v1 * e2) - Math.abs(u1 * e2 - u2 * e1);
    const face = faces.find(a);
    along.set(face, (along.get(face) ?? 0) + more);
  }
  if (![...along.values()].some((more) => more < -DUST)) return mesh;
  const uvs = t.slice();
  for (let v = 0; v < uvs.length / 2; v++) {
    if ((along.get(faces.find(v)) ?? 0) >= -DUST) continue;
    uvs[v * 2] = t[v * 2 + 1];
    uvs[v * 2 + 1] = -t[v * 2];
  }
  return { ...mesh, uvs };
}
