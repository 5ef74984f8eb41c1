import { CONSTRUCTIONS } from '@/core/cabinetry/figures';
import { legAlong } from '@/core/cabinetry/sides';
import { freeName } from '@/core/project/things';
import type { Run, Side } from '@/core/project/schema';
import { newId, useStudio } from '../store/studio';

/** Begins a run of cabinets along a side of a wall, and takes it in hand: what is in it is typed on its docket. */
export function beginRun(wall: string, side: Side, room: string): void {
  const { project, run: edit, select } = useStudio.getState();
  const id = newId('run');
  const run: Run = {
    id,
    name: freeName('Run', project.runs),
    level: project.walls[wall].level,
    legs: [legAlong({ wall, side, room })],
    packed: 'start',
    start: 0,
    made: CONSTRUCTIONS[project.units === 'metric' ? 'frameless' : 'imperial'],
    fronts: 'framed',
    handles: 'bar',
    status: 'new',
    finishes: {},
  };
  if (edit('run.lay', { run, units: [] })) select([{ entity: id, target: null }]);
}
