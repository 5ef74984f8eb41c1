import { drawDimension } from '@/core/drawing/plan/plan';
import type { DisplayItem } from '@/core/drawing/display';
import { distance, type Vec2 } from '@/core/geometry/vec';
import { newRoof } from '@/core/project/roof-defaults';
import { newId } from '../store/studio';
import { get, length, set, type TablePoint } from './session';
import { snapPoint } from './snap';

/** Corners of the outline drawn so far. */
let points: Vec2[] = [];

export const roofing = (): boolean => points.length > 0;

export function dropRoof(): void {
  points = [];
}

function next(at: TablePoint): { point: Vec2; note: string; closes: boolean } {
  const { project, level } = get();
  if (points.length > 2 && distance(points[0], at.plan) < at.reach) return { point: points[0], note: 'closes the outline', closes: true };
  return { ...snapPoint(project, level, at.plan, at.reach, points.at(-1) ?? null), closes: false };
}

/** Shows the outline of a roof as it is drawn. */
export function showRoof(at: TablePoint): void {
  const { point, note } = next(at);
  const line: DisplayItem = { kind: 'line', points: [...points, point], closed: false, ink: 'measure', pen: 0.35, layer: 'dimension' };
  const last = points.at(-1);
  set({
    marks: last ? [line, ...drawDimension(last, point, length(distance(last, point)))] : [],
    measure: {
      fields: last ? [{ label: 'long', value: distance(last, point) }] : [],
      note: note || (points.length < 3 ? 'press the corners of the roof' : 'press the first corner, or Enter'),
      typed: null,
      field: 0,
    },
  });
}

/** A press sets a corner; on the first one it closes the outline. */
export function pressRoof(at: TablePoint): void {
  const { point, closes } = next(at);
  if (closes) return finishRoof();
  if (points.length && distance(points.at(-1)!, point) < 0.01) return;
  points = [...points, point];
  showRoof(at);
}

/** Puts the roof over the outline drawn. */
export function finishRoof(): void {
  const state = get();
  if (state.tool.kind !== 'roof') return;
  if (points.length < 3) return state.say('No roof was set: its outline has at least three corners; press another one.');
  const id = newId('roof');
  const roof = newRoof(state.project, { id, level: state.level, over: { kind: 'outline', points }, status: state.pen.status }, state.tool.form);
  dropRoof();
  set({ marks: [], measure: null });
  if (!state.run('roof.put', { roof })) return;
  state.setTool({ kind: 'select' });
  state.select([{ entity: id, target: { kind: 'roof', roof: id, part: 'covering' } }]);
}
