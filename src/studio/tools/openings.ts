import type { DisplayItem } from '@/core/drawing/display';
import { drawDimension } from '@/core/drawing/dimension';
import { openingLines } from '@/core/drawing/plan/plan';
import { add, left, scale, type Vec2 } from '@/core/geometry/vec';
import { KIND_NAMES } from '@/core/project/opening-defaults';
import { openingGaps } from '@/core/project/openings';
import type { Opening, Project } from '@/core/project/schema';
import { stationAt, stationNear, wallExtents, wallPath } from '@/core/project/wall-line';
import type { Model } from '@/core/model/model';
import { snapStep } from '@/core/units/length';
import { openingAt } from './place';
import { comingId, get, length, set, wasSet, type TablePoint } from './session';

/** What is shown before it is placed, and in which wall. */
let shown: { id: string; wall: string } | null = null;

/** The wall under the pointer, or the nearest one within reach. */
export function wallUnder(at: TablePoint): string | null {
  const { project, level } = get();
  // What is shown lies over its wall and is no wall: pointing at it means the wall it is shown in.
  if (shown && project.walls[shown.wall] && at.spot?.entity.startsWith(shown.id)) return shown.wall;
  if (at.spot && project.walls[at.spot.entity]?.kind === 'wall') return at.spot.entity;
  let best: string | null = null;
  let least = Infinity;
  for (const wall of Object.values(project.walls)) {
    if (wall.level !== level || wall.kind === 'boundary') continue;
    const near = stationNear(wallPath(project, wall), at.plan);
    const { left: l, right: r } = wallExtents(project, wall);
    const off = near.distance - (near.off > 0 ? l : r);
    if (off < at.reach && off < least) {
      least = off;
      best = wall.id;
    }
  }
  return best;
}

/** The opening the tool places where one points, or a row of equal ones along the clear stretch of the wall. */
function openingsFor(wall: string, at: TablePoint, id: string): Opening[] {
  const { project, tool } = get();
  if (tool.kind !== 'opening') return [];
  const { opening } = openingAt(project, wall, at.plan, tool.opening, id, tool.form);
  const count = tool.row ?? 1;
  if (count < 2) return [opening];
  const first = Object.keys(project.openings).length + 1;
  return Array.from({ length: count }, (_, index) => ({
    ...opening,
    id: index ? `${id}-${index}` : id,
    name: `${KIND_NAMES[opening.kind]} ${first + index}`,
    place: { kind: 'row' as const, index, count },
  }));
}

export function showOpening(at: TablePoint): void {
  const state = get();
  if (state.tool.kind !== 'opening') return;
  const wall = wallUnder(at);
  if (!wall) {
    shown = null;
    state.endPreview();
    set({ marks: [], measure: { fields: [], note: 'point at a wall', typed: null, field: 0 } });
    return;
  }
  const openings = openingsFor(wall, at, comingId('opening'));
  const [opening] = openings;
  shown = { id: opening.id, wall };
  const refusal = state.preview('opening.add', { openings });
  if (refusal) {
    set({ marks: [], measure: { fields: [], note: refusal, typed: null, field: 0 } });
    return;
  }
  const derived = get().model.shell.openings.get(opening.id);
  const gaps = openingGaps(get().model.project, opening);
  set({
    marks: [...(derived ? openingLines(derived) : []), ...gapMarks(opening.id)],
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
  const path = wallPath(model.project, wall);
  const out = wallExtents(model.project, wall).left + 0.28;
  const at = (s: number): Vec2 => {
    const { p, d } = stationAt(path, s);
    return add(p, scale(left(d), out));
  };
  const w = opening.width / 2;
  const corner = opening.form === 'corner' ? opening.hinge : null;
  return [
    ...(corner === 'start' ? [] : drawDimension(at(gaps.span.from), at(opening.at - w), length(gaps.start), { entity: `${id}/start` })),
    ...drawDimension(at(opening.at - w), at(opening.at + w), length(opening.width), { entity: `${id}/width` }),
    ...(corner === 'end' ? [] : drawDimension(at(opening.at + w), at(gaps.span.to), length(gaps.end), { entity: `${id}/end` })),
  ];
}

export function pressOpening(at: TablePoint): void {
  const state = get();
  if (state.tool.kind !== 'opening') return;
  const wall = wallUnder(at);
  if (!wall) return state.say(`No ${KIND_NAMES[state.tool.opening].toLowerCase()} was placed: point at a wall.`);
  const id = comingId('opening');
  const openings = openingsFor(wall, at, id);
  if (state.run('opening.add', { openings })) {
    wasSet('opening');
    shown = null;
    set({ marks: [], measure: null });
    state.select([{ entity: id, target: null }]);
  }
}

/** Where an opening's centre comes to lie when it is dragged along its wall. */
export function slideTo(id: string, grab: number, at: TablePoint): number {
  const { project } = get();
  const opening = project.openings[id];
  return snapStep(stationNear(wallPath(project, project.walls[opening.wall]), at.plan).s - grab, project.units);
}

/** A value shown beside an opening: its distance to a corner, or its width, metres. */
export function openingValue(model: Model, opening: { id: string; width: number }, which: string): number {
  if (which === 'width') return opening.width;
  const gaps = openingGaps(model.project, model.project.openings[opening.id]);
  return gaps ? (which === 'start' ? gaps.start : gaps.end) : 0;
}

/** What an opening must become for a typed value to hold. */
export function openingFrom(project: Project, id: string, which: string, metres: number): Partial<Pick<Opening, 'at' | 'width' | 'place'>> | null {
  const opening = project.openings[id];
  const gaps = opening && openingGaps(project, opening);
  if (!gaps) return null;
  if (which === 'width') return { width: metres };
  // What stands in a corner gives way with its jamb.
  if (opening.form === 'corner') return { width: opening.width + (opening.hinge === 'start' ? gaps.end : gaps.start) - metres };
  // A typed distance to a corner is meant to hold.
  const from = which === 'start' ? 'start' : 'end';
  return { place: { kind: 'corner', from, gap: metres } };
}
