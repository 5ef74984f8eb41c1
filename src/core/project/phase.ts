import type { Project, Status } from './schema';
import { collectionsWithStatus } from './kinds';

/** Which state of the house is meant: as it stands now, or as it will be. */
export type Phase = 'before' | 'after';

/** Whether a thing with this status is there in a phase. */
export const standsIn = (status: Status, phase: Phase): boolean => status !== (phase === 'before' ? 'new' : 'removed');

/** Whether two things are ever there at once. */
export const coexist = (a: Status, b: Status): boolean => (['before', 'after'] as const).some((phase) => standsIn(a, phase) && standsIn(b, phase));

const kept = new WeakMap<object, Partial<Record<Phase, object>>>();

/** A collection without what a phase lacks; the same object where nothing is lacking, and the same one every time. */
function present<T extends { status: Status }>(collection: Record<string, T>, phase: Phase): Record<string, T> {
  let known = kept.get(collection);
  if (!known) kept.set(collection, (known = {}));
  if (!known[phase]) {
    let whole = true;
    for (const id in collection) if (!standsIn(collection[id].status, phase)) whole = false;
    known[phase] = whole ? collection : Object.fromEntries(Object.entries(collection).filter(([, entity]) => standsIn(entity.status, phase)));
  }
  return known[phase] as Record<string, T>;
}

/** The project as it is in one phase: what has a status, as far as it is there then. */
export function inPhase(project: Project, phase: Phase): Project {
  let next: Project = project;
  for (const name of collectionsWithStatus()) {
    const own = project[name] as unknown as Record<string, { status: Status }>;
    const kept = present(own, phase);
    if (kept !== own) next = { ...next, [name]: kept };
  }
  const { walls, roofs } = next;
  // What stands in a wall, or on a roof, goes with it.
  if (walls !== project.walls && Object.values(next.openings).some((o) => !walls[o.wall]))
    next = { ...next, openings: Object.fromEntries(Object.entries(next.openings).filter(([, o]) => walls[o.wall])) };
  if (roofs !== project.roofs && Object.values(next.dormers).some((d) => !roofs[d.roof]))
    next = { ...next, dormers: Object.fromEntries(Object.entries(next.dormers).filter(([, d]) => roofs[d.roof])) };
  return next;
}
