import type { Mesh } from './mesh';
import { edgeUses, triangleNormals, weld } from './welding';
import { PLANE } from '../units/tolerance';

/**
 * What an edge of a mesh is: a crease between faces that turn, the boundary of a sheet, or one across a rounded face that is
 * only seen where it bounds the outline.
 */
export type EdgeKind = 'crease' | 'boundary' | 'smooth';

/** The edges of a mesh. Edges within a plane are none. */
export interface MeshEdges {
  /** x, y, z of both ends, six numbers an edge. */
  ends: Float64Array;
  kinds: EdgeKind[];
  /** Unit normals of the faces at both sides, six numbers an edge; at a boundary both are of the one face. */
  normals: Float64Array;
}

/** Neighbouring faces that turn by more than this have a crease between them, radians. */
export const CREASE = (24 * Math.PI) / 180;

const known = new WeakMap<Mesh, MeshEdges>();

/** Creases, boundaries and smooth edges of a mesh, found once. Coordinates are those of the mesh. */
export function meshEdges(mesh: Mesh): MeshEdges {
  let made = known.get(mesh);
  if (!made) known.set(mesh, (made = findEdges(mesh)));
  return made;
}

function findEdges(mesh: Mesh): MeshEdges {
  const welded = weld(mesh);
  const normals = triangleNormals(welded);
  const [ends, sides]: [number[], number[]] = [[], []];
  const kinds: EdgeKind[] = [];
  const [crease, plane] = [Math.cos(CREASE), Math.cos(PLANE)];
  const flat = (t: number): boolean => normals[t * 3] === 0 && normals[t * 3 + 1] === 0 && normals[t * 3 + 2] === 0;
  for (const { a, b, along, back } of edgeUses(welded)) {
    const put = (kind: EdgeKind, t: number, u: number): void => {
      kinds.push(kind);
      for (const n of [a, b]) ends.push(welded.points[n * 3], welded.points[n * 3 + 1], welded.points[n * 3 + 2]);
      for (const n of [t, u]) sides.push(normals[n * 3], normals[n * 3 + 1], normals[n * 3 + 2]);
    };
    const [p, q] = [along.filter((t) => !flat(t)), back.filter((t) => !flat(t))];
    // Where more than two faces meet, every one of them ends.
    if (p.length + q.length > 2) put('crease', p[0] ?? q[0], q[0] ?? p[1]);
    else if (p.length !== 1 || q.length !== 1) {
      const [t, u] = [...p, ...q];
      if (t !== undefined) put('boundary', t, u ?? t);
    } else {
      const [t, u] = [p[0], q[0]];
      const turn = normals[t * 3] * normals[u * 3] + normals[t * 3 + 1] * normals[u * 3 + 1] + normals[t * 3 + 2] * normals[u * 3 + 2];
      if (turn < crease) put('crease', t, u);
      else if (turn < plane) put('smooth', t, u);
    }
  }
  return { ends: Float64Array.from(ends), kinds, normals: Float64Array.from(sides) };
}
