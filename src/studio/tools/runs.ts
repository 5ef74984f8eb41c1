import { newRun } from '@/core/cabinetry/begin';
import { leftOn } from '@/core/cabinetry/left';
import { legAlong } from '@/core/cabinetry/sides';
import { lerp, type Vec2 } from '@/core/geometry/vec';
import { derivedOf } from '@/core/model/model';
import { putUnit, type UnitPlaced } from '@/core/placing/units';
import { freeName } from '@/core/project/things';
import type { Side } from '@/core/project/schema';
import { newId, useStudio } from '../store/studio';
import { comingId, get, set, wasSet } from './session';

/** Begins a run of cabinets along a side of a wall, and takes it in hand: what is in it is typed on its docket. */
export function beginRun(wall: string, side: Side, room: string): void {
  const { project, run: edit, select } = useStudio.getState();
  const run = newRun(newId('run'), freeName('Run', project.runs), project.walls[wall].level, [legAlong({ wall, side, room })], project.units);
  if (edit('run.lay', { run, units: [] })) select([{ entity: run.id, target: null }]);
}

/** What a press would put where: worked out in the model as it stands, without what is shown. */
function unitFor(point: Vec2): UnitPlaced | string | null {
  const { tool, level, endPreview } = get();
  if (tool.kind !== 'unit') return null;
  endPreview();
  return putUnit(get().model, level, point, tool.said, (what) => comingId(what));
}

/** Shows the unit in hand where it would go, with what is then left along its wall. */
export function showUnit(point: Vec2): void {
  const placed = unitFor(point);
  if (placed === null) return;
  if (typeof placed === 'string') return set({ measure: { fields: [], note: placed, typed: null, field: 0 } });
  const { run, units, note } = placed;
  const refusal = get().preview('run.lay', { run, units });
  const { model, project } = get();
  const own = derivedOf(model, 'runs').find((r) => r.id === run.id);
  const left = own && !refusal ? leftOn(own, project.units).at(-1) : undefined;
  set({ measure: { fields: [], note: refusal ?? [note, left].filter(Boolean).join('; '), typed: null, field: 0 } });
}

/** Puts it there, and keeps it in hand. */
export function pressUnit(point: Vec2): void {
  const placed = unitFor(point);
  if (placed === null) return;
  const state = get();
  if (typeof placed === 'string') return state.say(`No unit was placed. ${placed}`);
  const { run, units, unit } = placed;
  if (!state.run('run.lay', { run, units })) return;
  wasSet('run');
  wasSet('unit');
  set({ measure: null, selection: [{ entity: unit, target: null }] });
}

/** A point beyond the last unit of the run that is selected, or that a selected unit stands in. */
export function endOfRun(): Vec2 | null {
  const { selection, project, model } = get();
  const entity = selection.at(-1)?.entity ?? '';
  const id = project.runs[entity] ? entity : project.cabinets[entity]?.run;
  const own = derivedOf(model, 'runs').find((r) => r.id === id);
  const last = own?.floor.units.at(-1);
  if (!own) return null;
  if (!last) return lerp(own.legs[0].from, own.legs[0].to, 0.5);
  const leg = last.arms ? last.leg + 1 : last.leg;
  const { from, to } = own.legs[leg];
  const reached = last.arms ? last.arms[1] : last.stretch.to;
  return lerp(from, to, reached / Math.hypot(to.x - from.x, to.y - from.y));
}
