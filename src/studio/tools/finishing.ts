import { surfaceName, type Spot } from '../store/studio';
import { get, set, type TablePoint } from './session';

export function showFinish(at: TablePoint): void {
  const state = get();
  state.endPreview();
  if (!at.spot?.target || state.tool.kind !== 'finish') {
    set({ measure: { fields: [], note: 'point at a surface', typed: null, field: 0 } });
    return;
  }
  const target = finishTarget(at);
  state.preview('finish.apply', { targets: [target], finish: state.tool.finish });
  set({ measure: { fields: [], note: surfaceName(state.project, target), typed: null, field: 0 } });
}

/** With shift held, a wall stands for all walls of its room. */
function finishTarget(at: TablePoint): NonNullable<Spot['target']> {
  const target = at.spot!.target!;
  return at.shift && target.kind === 'wall' ? { kind: 'walls', room: target.room } : target;
}

export function pressFinish(at: TablePoint): void {
  const state = get();
  if (state.tool.kind === 'finish' && at.spot?.target) applyFinish(state.tool.finish, at);
}

/** Puts a finish on the surface under a point. */
export function applyFinish(finish: string, at: TablePoint): void {
  const state = get();
  state.endPreview();
  if (!at.spot?.target) return state.say('No finish was applied: there is no surface here; drop it on a floor, a wall, a ceiling or a piece.');
  const target = finishTarget(at);
  if (state.run('finish.apply', { targets: [target], finish })) {
    state.say(null);
    state.select([at.spot]);
  }
}

/** Shows a finish that is dragged from the ledge on the surface below. */
export function showDropFinish(finish: string, at: TablePoint): void {
  const state = get();
  state.endPreview();
  if (!at.spot?.target) return set({ measure: { fields: [], note: 'drag it onto a surface', typed: null, field: 0 } });
  state.setHover(at.spot);
  state.preview('finish.apply', { targets: [at.spot.target], finish });
  set({ measure: { fields: [], note: surfaceName(state.project, at.spot.target), typed: null, field: 0 } });
}
