import { z } from 'zod';
import { DomainError } from '../errors';
import { cornersOf } from '../runs';
import { broughtBack, giveStyle, StyleKit } from '../joinery';
import { Cabinet, Id, JoineryStyle, Run, type Project } from '../schema';
import { Construction } from '../schema/cabinets';
import { stateOf } from '../topology';
import { define, need } from './define';

/** Edits of runs of cabinets, and of the styles they are made in. */
export const cabinetCommands = {
  'construction.set': define({
    title: 'Set construction',
    args: z.object({ made: Construction.nullable(), runs: z.array(Id).max(500).describe('that are made so too') }),
    apply(draft, { made, runs }) {
      draft.construction = made;
      for (const id of runs) if (made) need(draft.runs, id, 'run').made = made;
    },
  }),
  'style.put': define({
    title: 'Set joinery style',
    args: JoineryStyle,
    apply: (draft, style) => void (draft.joinery[style.id] = style),
  }),
  'style.give': define({
    title: 'Give joinery style',
    args: z.object({ kit: StyleKit.nullable().describe('null: none'), runs: z.array(Id).min(1).max(500) }),
    apply(draft, { kit, runs }) {
      for (const id of runs) need(draft.runs, id, 'run');
      giveStyle(draft, kit, runs);
    },
  }),
  'style.return': define({
    title: 'Bring back to joinery style',
    args: z.object({ ids: z.array(Id).min(1).max(2000).describe('of runs and of units') }),
    apply(draft, { ids }) {
      const joinery = stateOf(draft.joinery) as Project['joinery'];
      const styleOf = (run: string): JoineryStyle | null => joinery[draft.runs[run]?.style ?? ''] ?? null;
      for (const id of ids) {
        if (Object.hasOwn(draft.runs, id)) draft.runs[id] = broughtBack(stateOf(draft.runs[id]) as Run, styleOf(id));
        else {
          const unit = stateOf(need(draft.cabinets, id, 'unit')) as Cabinet;
          draft.cabinets[id] = broughtBack(unit, styleOf(unit.run));
        }
      }
    },
  }),
  'run.lay': define({
    title: 'Lay out run',
    args: z.object({ run: Run, units: z.array(Cabinet).max(200).describe('all units of the run: those it had and has no longer go') }),
    apply(draft, { run, units }) {
      need(draft.levels, run.level, 'level');
      for (const leg of run.legs) if (leg.kind === 'wall') need(draft.walls, leg.wall, 'wall');
      const own = new Map(units.map((u) => [u.id, u]));
      for (const unit of units) {
        if (unit.run !== run.id) throw new DomainError('run.other', 'The run was not laid out: one of its units belongs to another run.', [unit.id]);
        const { middle, like } = unit;
        if (middle?.of === 'unit' && own.get(middle.id)?.band === 'wall')
          throw new DomainError('run.middle', 'The run was not laid out: a unit can’t hang over one that hangs itself.', [unit.id]);
        if (middle?.of === 'unit' && unit.band !== 'wall')
          throw new DomainError('run.middle', 'The run was not laid out: what stands can’t keep to the middle of another unit.', [unit.id]);
        if (middle?.of === 'unit' && !own.has(middle.id))
          throw new DomainError('run.middle', 'The run was not laid out: a unit hangs over one that is not in it.', [unit.id]);
        if (middle?.of === 'opening') need(draft.openings, middle.id, 'opening');
        if (like !== null && (like === unit.id || !own.has(like)))
          throw new DomainError('run.like', 'The run was not laid out: a unit is as wide as one that is not in it.', [unit.id]);
      }
      if (cornersOf(units) > run.legs.length - 1)
        throw new DomainError('run.corners', 'The run was not laid out: it has more corner units than corners.', [run.id]);
      draft.runs[run.id] = run;
      for (const { id, run: of } of Object.values(stateOf(draft.cabinets))) if (of === run.id && !own.has(id)) delete draft.cabinets[id];
      for (const unit of units) draft.cabinets[unit.id] = unit;
    },
  }),
};
