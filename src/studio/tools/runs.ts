import { newRunIn } from '@/core/cabinetry/begin';
import { leftOn } from '@/core/cabinetry/left';
import { legAlong } from '@/core/cabinetry/sides';
import { inOrder } from '@/core/cabinetry/line';
import { edgeDragged, unitDragged } from '@/core/cabinetry/widths';
import { dot, lerp, sub, unit, type Vec2 } from '@/core/geometry/vec';
import { derivedOf } from '@/core/model/model';
import { putUnit, type UnitPlaced } from '@/core/placing/units';
import { freeName } from '@/core/project/things';
import type { CommandArgs } from '@/core/project/commands';
import type { Cabinet, Side } from '@/core/project/schema';
import { newId, useStudio } from '../store/studio';
import { comingId, get, set, wasSet } from './session';

/** Begins a run of cabinets along a side of a wall, and takes it in hand: what is in it is typed on its docket. */
export function beginRun(wall: string, side: Side, room: string): void {
  const { project, run: edit, select } = useStudio.getState();
  const run = newRunIn(project, newId('run'), freeName('Run', project.runs), project.walls[wall].level, [legAlong({ wall, side, room })]);
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

/** A unit of a run as it stands in the model, without what is shown; null where it is not there. */
function standingUnit(id: string) {
  const { project, endPreview } = get();
  endPreview();
  const { model } = get();
  const run = project.cabinets[id]?.run;
  const derived = derivedOf(model, 'runs').find((r) => r.id === run);
  const own = derived?.units.find((u) => u.unit.id === id);
  return derived && own ? { derived, own, all: inOrder(Object.values(project.cabinets).filter((u) => u.run === run)) } : null;
}

/** Metres along the leg a unit stands at. */
function placeAlong({ derived, own }: NonNullable<ReturnType<typeof standingUnit>>, point: Vec2): number {
  const { from, to } = derived.legs[own.placed.leg];
  return dot(sub(point, from), unit(sub(to, from)));
}

/** What dragging an edge of a unit to a point does, and how wide it is then. @param fine in the finer steps */
export function edgeTo(
  id: string,
  side: 'left' | 'right',
  point: Vec2,
  fine: boolean,
): { args: CommandArgs<'run.lay'>; width: number | null; note: string; refusal: string | null } {
  const found = standingUnit(id)!;
  return edgeAlong(id, side, placeAlong(found, point), fine);
}

/** What dragging an edge of a unit along its leg does. @param to metres along the leg */
export function edgeAlong(id: string, side: 'left' | 'right', to: number, fine: boolean): ReturnType<typeof edgeTo> {
  const { derived, all } = standingUnit(id)!;
  const { units: system } = get().project;
  const next = edgeDragged(derived, all, id, side, to, system, fine);
  const as = (units: Cabinet[]): CommandArgs<'run.lay'> => ({ run: derived.run, units });
  if (typeof next === 'string') return { args: as(all), width: null, note: '', refusal: next };
  return { args: as(next), width: next.find((u) => u.id === id)!.width, note: leftOn(derived, system).join(', '), refusal: null };
}

/** What dragging a unit along its run to a point does. */
export function alongTo(id: string, point: Vec2): { args: CommandArgs<'run.lay'>; note: string } | null {
  const found = standingUnit(id);
  if (!found || found.own.placed.corner) return null;
  const units = unitDragged(found.derived, found.all, id, placeAlong(found, point));
  const at = units.findIndex((u) => u.id === id);
  const [before, next] = [units[at - 1], units[at + 1]];
  return { args: { run: found.derived.run, units }, note: next ? `before ${next.name}` : before ? `after ${before.name}` : '' };
}

/** The points of the plan by which the edges of a unit are dragged: where its front begins and ends. */
export function edgesOf(id: string): { side: 'left' | 'right'; p: Vec2 }[] {
  const { model, project } = get();
  if (project.cabinets[id]?.width === null || project.cabinets[id]?.corner) return [];
  const own = derivedOf(model, 'runs')
    .flatMap((r) => r.units)
    .find((u) => u.unit.id === id);
  if (!own) return [];
  const [a, b, c, d] = own.placed.footprint;
  return [
    { side: 'left', p: lerp(a, b, 0.5) },
    { side: 'right', p: lerp(d, c, 0.5) },
  ];
}
