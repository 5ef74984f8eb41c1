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

/**
 * Units that are as wide as another keep to that: where the width of one of them was set, all of them have it.
 *
 * @param before what the project was before the edit
 */
export function keepWidths(before: Project, edited: Project, draft: Draft<Project>): void {
  if (before.cabinets === edited.cabinets) return;
  const groups = new Map<string, Cabinet[]>();
  /** The unit that a chain of likenesses ends at. */
  const first = (unit: Cabinet, seen = new Set<string>()): string => {
    const next = unit.like === null || seen.has(unit.id) || !Object.hasOwn(edited.cabinets, unit.like) ? null : edited.cabinets[unit.like];
    return next ? first(next, seen.add(unit.id)) : unit.id;
  };
  for (const unit of Object.values(edited.cabinets)) if (unit.like !== null) groups.set(first(unit), [...(groups.get(first(unit)) ?? []), unit]);
  for (const [id, followers] of groups) {
    const all = [edited.cabinets[id], ...followers.filter((u) => u.id !== id)];
    const set = all.filter((u) => Object.hasOwn(before.cabinets, u.id) && before.cabinets[u.id].width !== u.width);
    const { width } = set.length === 1 ? set[0] : all[0];
    for (const u of all) if (u.width !== width) draft.cabinets[u.id].width = width;
  }
}

/** Units that kept to openings which an edit has taken away stand beside the one before them. */
export function letGoOfOpenings(before: Project, edited: Project, draft: Draft<Project>): void {
  if (before.openings === edited.openings) return;
  for (const { id, middle } of Object.values(edited.cabinets))
    if (middle?.of === 'opening' && !Object.hasOwn(edited.openings, middle.id) && Object.hasOwn(draft.cabinets, id)) draft.cabinets[id].middle = null;
}

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
