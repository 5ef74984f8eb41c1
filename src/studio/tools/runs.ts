import { newRun } from '@/core/cabinetry/begin';
import { legAlong } from '@/core/cabinetry/sides';
import { freeName } from '@/core/project/things';
import type { Side } from '@/core/project/schema';
import { newId, useStudio } from '../store/studio';

/** Begins a run of cabinets along a side of a wall, and takes it in hand: what is in it is typed on its docket. */
export function beginRun(wall: string, side: Side, room: string): void {
  const { project, run: edit, select } = useStudio.getState();
  const run = newRun(newId('run'), freeName('Run', project.runs), project.walls[wall].level, [legAlong({ wall, side, room })], project.units);
  if (edit('run.lay', { run, units: [] })) select([{ entity: run.id, target: null }]);
}
