import type { Draft } from 'immer';
import type { Project } from './schema';
import { stateOf } from './topology';

/** Takes away runs that stood along a wall which is gone, with their units. */
export function dropRuns(draft: Draft<Project>): void {
  const walls = stateOf(draft.walls);
  const gone = new Set(
    Object.values(stateOf(draft.runs))
      .filter(({ legs }) => legs.some((leg) => leg.kind === 'wall' && !Object.hasOwn(walls, leg.wall)))
      .map((run) => run.id),
  );
  if (!gone.size) return;
  for (const id of gone) delete draft.runs[id];
  for (const { id, run } of Object.values(stateOf(draft.cabinets))) if (gone.has(run)) delete draft.cabinets[id];
}
