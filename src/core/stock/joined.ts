import { opensTo } from '../geometry/joint';
import { MeshBuilder, type Mesh } from '../geometry/mesh';
import type { Made } from './types';

/** All of one name that something is made of, in one mesh. */
export type MadePart = Pick<Made, 'part' | 'mesh' | 'framed'>;

/**
 * What is made of many meshes as one mesh for each name.
 *
 * @param open how far what opens stands open, 0…1
 * @param first names that come first, in order; others follow as they come
 */
export function joinParts(made: readonly Made[], open: number, first: readonly string[] = []): MadePart[] {
  const byName = new Map<string, Made[]>();
  for (const one of made) {
    if (!one.mesh.indices.length) continue;
    const list = byName.get(one.part);
    if (list) list.push(one);
    else byName.set(one.part, [one]);
  }
  return [...first, ...[...byName.keys()].filter((part) => !first.includes(part))].flatMap((part) => {
    const all = byName.get(part);
    return all ? [{ part, mesh: joined(all, open), framed: all[0].framed }] : [];
  });
}

/** Meshes of one part as one: what opens stands as far open as is said. */
function joined(all: readonly Made[], open: number): Mesh {
  if (all.length === 1 && !(open && all[0].joint)) return all[0].mesh;
  const builder = new MeshBuilder();
  for (const { mesh, joint } of all) builder.add(mesh, joint && open ? opensTo(joint, open) : undefined);
  return builder.build();
}
