import type { Draft } from 'immer';
import type { Project } from './schema';
import type { Cabinet, Run } from './schema/cabinets';
import { withWhatGoesAlong } from './things';

/** The room that sees the first wall of a run; null of one that stands free. */
export function roomOfRun({ legs }: Pick<Run, 'legs'>): string | null {
  for (const leg of legs) if (leg.kind === 'wall') return leg.room;
  return null;
}

/** In how many corners units turn: what stands and what hangs turn in the same ones. */
export const cornersOf = (units: readonly Pick<Cabinet, 'band' | 'corner'>[]): number => {
  const turning = units.filter((u) => u.corner !== null);
  const hung = turning.filter((u) => u.band === 'wall').length;
  return Math.max(hung, turning.length - hung);
};

/** Takes away runs that stood along walls which an edit has taken away, with their units. */
export function dropRuns(before: Project, edited: Project, draft: Draft<Project>): void {
  if (before.walls === edited.walls) return;
  const gone = Object.keys(before.walls).filter((id) => !Object.hasOwn(edited.walls, id));
  if (!gone.length) return;
  for (const id of withWhatGoesAlong(edited, gone)) {
    delete draft.runs[id];
    delete draft.cabinets[id];
  }
}
