import { drawDimension, drawOpening } from '@/core/drawing/plan';
import type { DisplayItem } from '@/core/drawing/display';
import { add, distance, dot, left, scale, sub, unit, type Vec2 } from '@/core/geometry/vec';
import { openingGaps } from '@/core/project/openings';
import { wallEnds } from '@/core/project/wall-line';
import type { Project } from '@/core/project/schema';
import type { Model } from '@/core/derive';
import { snapStep } from '@/core/units/length';
import { newId } from '../store/studio';
import { openingAt } from './place';
import { get, length, set, type TablePoint } from './session';

function wallUnder(at: TablePoint): string | null {
  const { project, level } = get();
  if (at.spot && project.walls[at.spot.entity]) return at.spot.entity;
  let best: string | null = null;
  let least = Infinity;
  for (const wall of Object.values(project.walls)) {
    if (wall.level !== level) continue;
    const [a, b] = wallEnds(project, wall);
    const d = sub(b, a);
    const t = Math.max(0, Math.min(1, dot(sub(at.plan, a), d) / dot(d, d)));
    const off = distance(add(a, scale(d, t)), at.plan);
    if (off < wall.thickness / 2 + at.reach && off < least) {
      least = off;
      best = wall.id;
    }
  }
  return best;
}

export function showOpening(at: TablePoint): void {
  const state = get();
  if (state.tool.kind !== 'opening') return;
  const wall = wallUnder(at);
  if (!wall) {
    state.endPreview();
    set({ marks: [], measure: { fields: [], note: 'point at a wall', typed: null, field: 0 } });
    return;
  }
  const { opening } = openingAt(state.project, wall, at.plan, state.tool.opening, 'preview-opening');
  const refusal = state.preview('opening.add', opening);
  if (refusal) {
    set({ marks: [], measure: { fields: [], note: refusal, typed: null, field: 0 } });
    return;
  }
  const derived = get().model.shell.openings.get(opening.id);
  const gaps = openingGaps(get().model.project, opening);
  set({
    marks: [...(derived ? drawOpening(derived).filter((m) => m.kind !== 'fill') : []), ...gapMarks(opening.id)],
    measure: {
      fields: gaps
        ? [
            { label: 'to one corner', value: gaps.start },
            { label: 'to the other', value: gaps.end },
          ]
        : [],
      note: '',
      typed: null,
      field: 0,
    },
  });
}

/** The distances from an opening to both ends of its clear stretch, as dimensions on the wall. */
export function gapMarks(id: string): DisplayItem[] {
  const { model } = get();
  const opening = model.project.openings[id];
  const gaps = opening && openingGaps(model.project, opening);
  if (!gaps) return [];
  const wall = model.project.walls[opening.wall];
  const [a, b] = wallEnds(model.project, wall);
  const d = unit(sub(b, a));
  const off = scale(left(d), wall.thickness / 2 + 0.28);
  const at = (s: number): Vec2 => add(add(a, scale(d, s)), off);
  const w = opening.width / 2;
  return [
    ...drawDimension(at(gaps.span.from), at(opening.at - w), length(gaps.start), `${id}/start`),
    ...drawDimension(at(opening.at - w), at(opening.at + w), length(opening.width), `${id}/width`),
    ...drawDimension(at(opening.at + w), at(gaps.span.to), length(gaps.end), `${id}/end`),
  ];
}

export function pressOpening(at: TablePoint): void {
  const state = get();
  if (state.tool.kind !== 'opening') return;
  const wall = wallUnder(at);
  if (!wall) return state.say(`No ${state.tool.opening} was placed: point at a wall.`);
  const id = newId(state.tool.opening);
  const { opening } = openingAt(state.project, wall, at.plan, state.tool.opening, id);
  state.endPreview();
  if (state.run('opening.add', opening)) {
    state.setTool({ kind: 'select' });
    state.select([{ entity: id, target: null }]);
  }
}

/** Where an opening's centre comes to lie when it is dragged along its wall. */
export function slideTo(id: string, grab: number, at: TablePoint): number {
  const { project } = get();
  const opening = project.openings[id];
  const [a, b] = wallEnds(project, project.walls[opening.wall]);
  return snapStep(dot(sub(at.plan, a), unit(sub(b, a))) - grab, project.units);
}

/** A value shown beside an opening: its distance to a corner, or its width, metres. */
export function openingValue(model: Model, opening: { id: string; width: number }, which: string): number {
  if (which === 'width') return opening.width;
  const gaps = openingGaps(model.project, model.project.openings[opening.id]);
  return gaps ? (which === 'start' ? gaps.start : gaps.end) : 0;
}

/** What an opening must become for a typed value to hold. */
export function openingFrom(project: Project, id: string, which: string, metres: number): { at?: number; width?: number } | null {
  const opening = project.openings[id];
  const gaps = opening && openingGaps(project, opening);
  if (!gaps) return null;
  if (which === 'width') return { width: metres };
  const at = which === 'start' ? gaps.span.from + metres + opening.width / 2 : gaps.span.to - metres - opening.width / 2;
  return { at: Math.round(at * 1e9) / 1e9 };
}
