import type { Opening, Project, Room, Status, Wall } from './schema';

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

/** The walls of a phase. */
export const wallsIn = (project: Pick<Project, 'walls'>, phase: Phase): Record<string, Wall> => present(project.walls, phase);

/** The project as it is in one phase: what has a status, as far as it is there then. */
export function inPhase(project: Project, phase: Phase): Project {
  const walls = present(project.walls, phase);
  const rooms = present<Room>(project.rooms, phase);
  const columns = present(project.columns, phase);
  const rooflights = present(project.rooflights, phase);
  const roofs = present(project.roofs, phase);
  let openings = present<Opening>(project.openings, phase);
  if (walls !== project.walls && Object.values(openings).some((o) => !walls[o.wall]))
    openings = Object.fromEntries(Object.entries(openings).filter(([, o]) => walls[o.wall]));
  if (
    walls === project.walls &&
    rooms === project.rooms &&
    openings === project.openings &&
    columns === project.columns &&
    rooflights === project.rooflights &&
    roofs === project.roofs
  )
    return project;
  return { ...project, walls, rooms, openings, columns, rooflights, roofs };
}
