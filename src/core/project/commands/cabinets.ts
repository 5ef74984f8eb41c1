import { z } from 'zod';
import { DomainError } from '../errors';
import { cornersOf } from '../runs';
import { Cabinet, Run } from '../schema';
import { stateOf } from '../topology';
import { define, need } from './define';

/** Edits of runs of cabinets. */
export const cabinetCommands = {
  'run.lay': define({
    title: 'Lay out run',
    args: z.object({ run: Run, units: z.array(Cabinet).max(200).describe('all units of the run: those it had and has no longer go') }),
    apply(draft, { run, units }) {
      need(draft.levels, run.level, 'level');
      for (const leg of run.legs) if (leg.kind === 'wall') need(draft.walls, leg.wall, 'wall');
      const own = new Map(units.map((u) => [u.id, u]));
      for (const unit of units) {
        if (unit.run !== run.id) throw new DomainError('run.other', 'The run was not laid out: one of its units belongs to another run.', [unit.id]);
        if (unit.over !== null && own.get(unit.over)?.band === 'wall')
          throw new DomainError('run.over', 'The run was not laid out: a unit can’t hang over one that hangs itself.', [unit.id]);
        if (unit.over !== null && !own.has(unit.over))
          throw new DomainError('run.over', 'The run was not laid out: a unit hangs over one that is not in it.', [unit.id]);
      }
      if (cornersOf(units) > run.legs.length - 1)
        throw new DomainError('run.corners', 'The run was not laid out: it has more corner units than corners.', [run.id]);
      draft.runs[run.id] = run;
      for (const { id, run: of } of Object.values(stateOf(draft.cabinets))) if (of === run.id && !own.has(id)) delete draft.cabinets[id];
      for (const unit of units) draft.cabinets[unit.id] = unit;
    },
  }),
};
