import { addressOf, entityOf, type Target } from '@/core/project/targets';
import { choices } from '@/core/project/choices';
import { partsOf } from '@/core/model/model';
import { finishIn, knowsFinish } from '@/core/finishes/store';
import { outOfReach, reach, reachName, remember, useFinishing, type Scope } from '../finishes/finishing';
import { useLibrary } from '../store/library';
import { treatmentFor } from '@/core/shell/dress/treatment';
import { newId, targetName } from '../store/studio';
import { get, set, type TablePoint } from './session';

const note = (text: string): void => set({ measure: { fields: [], note: text, typed: null, field: 0 } });

/** Rooms that are chosen together. */
const rooms = (): string[] => {
  const { selection, project } = get();
  return selection.map((s) => s.entity).filter((id) => project.rooms[id]);
};

/** How far a press here reaches. With shift held, a wall stands for all walls of its room, or all outside ones. */
function scopeAt(at: TablePoint): Scope {
  const { scope } = useFinishing.getState();
  const target = at.spot!.target!;
  if (!at.shift || scope !== 'one') return scope;
  return target.kind === 'wall' ? (target.room === null ? 'outside' : 'room') : scope;
}

/** All that a press here would change. */
const targetsAt = (at: TablePoint): Target[] => reach(get().project, at.spot!.target!, scopeAt(at), rooms());

/** Shows what a finish would change here, and names it; or says why it would change nothing. */
function showReach(finish: string, at: TablePoint): void {
  const state = get();
  const target = at.spot!.target!;
  const targets = targetsAt(at);
  if (!targets.length) {
    state.endPreview();
    return note(outOfReach(target, scopeAt(at)) ?? 'point at a surface');
  }
  state.preview('finish.apply', { targets, finish });
  note(reachName(state.project, target, targets));
}

/** The finish that shows at a point. */
export function finishAt(target: Target): string | null {
  const { model } = get();
  const address = addressOf(target);
  for (const [, part] of partsOf(model)) if (part.target && addressOf(part.target) === address) return part.finish;
  for (const choice of choices(model.project)) if (addressOf(choice.target) === address) return choice.finish;
  return null;
}

export function showFinish(at: TablePoint): void {
  const state = get();
  const { tool } = state;
  // A finish that goes on being shown is not put back and worked out again at each move.
  if (tool.kind !== 'finish' || !at.spot?.target) state.endPreview();
  if (!at.spot?.target) return note(tool.kind === 'pick' ? 'point at a surface to pick its finish up' : 'point at a surface');
  if (tool.kind === 'pick') {
    const finish = finishAt(at.spot.target);
    return note(finish ? `${targetName(state.project, at.spot.target)}: ${finishIn(state.project, finish).name}` : targetName(state.project, at.spot.target));
  }
  if (tool.kind === 'treat') {
    const { target } = at.spot;
    if (target.kind !== 'wall') return note('point at a wall');
    const args = treatmentFor(state.model, tool.from, target, tool.mirrored, (prefix) => `${prefix}-preview`);
    if (args) state.preview('treatment.put', { ...args, patches: args.patches.map((p, i) => ({ ...p, id: `preview-${i}` })) });
    return note(`${targetName(state.project, tool.from)} onto ${targetName(state.project, target)}`);
  }
  if (tool.kind !== 'finish') return;
  showReach(tool.finish, at);
}

export function pressFinish(at: TablePoint): void {
  const state = get();
  if (state.tool.kind === 'treat') return treat(at);
  if (state.tool.kind === 'pick') {
    const finish = at.spot?.target ? finishAt(at.spot.target) : null;
    if (!finish) return state.say('Nothing was picked up: there is no finish here; point at a floor, a wall, a ceiling or a piece.');
    state.say(null);
    return takeFinish(finish);
  }
  if (state.tool.kind === 'finish' && at.spot?.target) applyFinish(state.tool.finish, at);
}

/** A face as it is pointed at from a list. */
const listed = (target: Target, shift: boolean): TablePoint => ({ plan: { x: 0, y: 0 }, spot: { entity: entityOf(target) ?? '', target }, reach: 0, shift });

const putsFinishes = (): boolean => ['finish', 'pick', 'treat'].includes(get().tool.kind);

/** Shows what a press on a face of a list would do, if a finish is in hand; and where the face is. */
export function showFace(target: Target): void {
  const at = listed(target, false);
  get().setHover(at.spot);
  if (putsFinishes()) showFinish(at);
}

/** Presses a face of a list. Returns whether what is in hand has to do with faces. */
export function pressFace(target: Target, shift: boolean): boolean {
  if (!putsFinishes()) return false;
  pressFinish(listed(target, shift));
  return true;
}

/** A finish of the practice’s library becomes one of the project’s when it is first taken. */
function brought(id: string): boolean {
  const { project, run } = get();
  if (knowsFinish(project, id)) return true;
  const kept = useLibrary.getState().entries.find((e) => e.kind === 'finish' && e.data.id === id);
  return kept?.kind === 'finish' ? run('finish.put', kept.data) : true;
}

/** Takes a finish in hand, to be put on one surface after another. */
export function takeFinish(finish: string): void {
  if (!brought(finish)) return;
  remember(finish);
  get().setTool({ kind: 'finish', finish });
}

/** Puts a finish on the surface under a point, and on what else is meant by it. */
export function applyFinish(finish: string, at: TablePoint): void {
  const state = get();
  if (!at.spot?.target) {
    state.endPreview();
    return state.say('No finish was applied: there is no surface here; drop it on a floor, a wall, a ceiling or a piece.');
  }
  const targets = targetsAt(at);
  if (!targets.length) {
    state.endPreview();
    return state.say(`No finish was applied: ${outOfReach(at.spot.target, scopeAt(at))}.`);
  }
  if (!brought(finish)) return;
  const chosen = rooms();
  if (get().run('finish.apply', { targets, finish })) {
    remember(finish);
    state.say(null);
    // Rooms that were chosen together stay so.
    if (chosen.length < 2) state.select([at.spot]);
  }
}

/** Shows a finish that is dragged from the ledge on the surface below. */
export function showDropFinish(finish: string, at: TablePoint): void {
  const state = get();
  if (!at.spot?.target) {
    state.endPreview();
    return note('drag it onto a surface');
  }
  state.setHover(at.spot);
  showReach(finish, at);
}

/** Copies the treatment of the wall in hand onto the one under a point. */
function treat(at: TablePoint): void {
  const state = get();
  state.endPreview();
  const { tool } = state;
  const target = at.spot?.target;
  if (tool.kind !== 'treat') return;
  if (target?.kind !== 'wall') return state.say('Nothing was copied: a wall’s treatment goes onto another wall; point at one.');
  const args = treatmentFor(state.model, tool.from, target, tool.mirrored, newId);
  if (args && state.run('treatment.put', args)) state.say(null);
}
