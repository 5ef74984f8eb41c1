import type { Draft } from 'immer';
import { cross, distance, project as projectOn, segmentDistance, sub, unit, type Vec2 } from '../geometry/vec';
import { NEAR } from '../units/tolerance';
import type { Corner, Project, Wall } from './schema';
import { stateOf } from './topology';
import { wallEnds, wallExtents } from './wall-line';

export type NewId = (prefix: string) => string;

/** Lines whose directions differ by less than this (sine of the angle) count as running on in one another's line. */
export const IN_LINE = 0.05;

/** The corner of a level at a point, made if there is none. */
export function cornerAt(draft: Draft<Project>, level: string, p: Vec2, newId: NewId): Corner {
  const corners = stateOf(draft.corners);
  for (const id in corners) if (corners[id].level === level && distance(corners[id], p) <= NEAR * 10) return draft.corners[id];
  const corner = { id: newId('corner'), level, x: p.x, y: p.y };
  draft.corners[corner.id] = corner;
  return draft.corners[corner.id];
}

const byCorner = new WeakMap<object, Map<string, Wall[]>>();

/** All walls that start or end at a corner. */
export function wallsAt(project: Pick<Project, 'walls'>, corner: string): Wall[] {
  const walls = stateOf(project.walls);
  let index = byCorner.get(walls);
  if (!index) {
    byCorner.set(walls, (index = new Map()));
    for (const id in walls)
      for (const end of [walls[id].start, walls[id].end]) {
        const list = index.get(end);
        if (list) list.push(walls[id]);
        else index.set(end, [walls[id]]);
      }
  }
  return index.get(corner) ?? [];
}

const reachOf = (project: Pick<Project, 'wallTypes'>, wall: Wall): number => {
  const { left: l, right: r } = wallExtents(project, wall);
  return Math.max(l, r) + NEAR;
};

/** Whether a point lies on the stretch of a wall between its ends, within its thickness. */
export function standsOn(project: Pick<Project, 'corners' | 'wallTypes'>, wall: Wall, p: Vec2): boolean {
  const [a, b] = wallEnds(project, wall);
  const t = projectOn(p, a, b);
  return t > 0 && t < 1 && segmentDistance(p, a, b) <= reachOf(project, wall);
}

/** A wall on whose stretch between its ends a corner stands, other than the walls of the corner itself. */
export function hostOf(project: Project, corner: Corner): Wall | undefined {
  for (const id in project.walls) {
    const w = project.walls[id];
    if (w.level === corner.level && w.start !== corner.id && w.end !== corner.id && standsOn(project, w, corner)) return w;
  }
  return undefined;
}

/** Corners of other walls that end on the stretch of a wall. */
export function guestsOf(project: Project, wall: Wall): Corner[] {
  const out: Corner[] = [];
  for (const id in project.corners) {
    const c = project.corners[id];
    if (c.level === wall.level && c.id !== wall.start && c.id !== wall.end && standsOn(project, wall, c)) out.push(c);
  }
  return out;
}

/** The project as plain data, for reading while a draft is written: iterating a draft would copy everything in it. */
export const plain = (draft: Draft<Project>): Project =>
  ({ ...stateOf(draft as Project), walls: stateOf(draft.walls), corners: stateOf(draft.corners), wallTypes: stateOf(draft.wallTypes) }) as Project;

export const directionOf = (project: Pick<Project, 'corners'>, wall: Wall): Vec2 => {
  const [a, b] = wallEnds(project, wall);
  return unit(sub(b, a));
};

/** The run of walls in one line that a wall belongs to, the wall first. */
export function runOf(project: Project, wallId: string): string[] {
  const axis = directionOf(project, project.walls[wallId]);
  const found = [wallId];
  for (const id of found)
    for (const end of [project.walls[id].start, project.walls[id].end])
      for (const next of wallsAt(project, end))
        if (!found.includes(next.id) && next.bulge === 0 && Math.abs(cross(axis, directionOf(project, next))) < NEAR) found.push(next.id);
  return found;
}
