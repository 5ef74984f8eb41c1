import type { Draft } from 'immer';
import { COINCIDENT, cross, distance, dot, left, meet, project as projectOn, scale, segmentDistance, sub, add, unit, type Vec2 } from '../geometry/vec';
import { DomainError } from './errors';
import { clearSpans, fitOpening, wallEnds } from './openings';
import { sideKey, type Corner, type Project, type Wall } from './schema';

/** The corner of a level at a point, made if there is none. */
export function cornerAt(draft: Draft<Project>, level: string, p: Vec2, newId: (prefix: string) => string): Corner {
  for (const corner of Object.values(draft.corners)) if (corner.level === level && distance(corner, p) <= COINCIDENT * 10) return corner;
  const corner = { id: newId('corner'), level, x: p.x, y: p.y };
  draft.corners[corner.id] = corner;
  return draft.corners[corner.id];
}

/** All walls that start or end at a corner. */
export const wallsAt = (project: Pick<Project, 'walls'>, corner: string): Wall[] =>
  Object.values(project.walls).filter((w) => w.start === corner || w.end === corner);

/** A wall on whose stretch between its ends a corner stands, other than the walls of the corner itself. */
function hostOf(project: Project, corner: Corner): Wall | undefined {
  return Object.values(project.walls).find((w) => {
    if (w.level !== corner.level || w.start === corner.id || w.end === corner.id) return false;
    const [a, b] = wallEnds(project, w);
    const t = projectOn(corner, a, b);
    return t > 0 && t < 1 && segmentDistance(corner, a, b) <= w.thickness / 2 + COINCIDENT;
  });
}

/** Corners of other walls that end on the stretch of a wall. */
function guestsOf(project: Project, wall: Wall): Corner[] {
  const [a, b] = wallEnds(project, wall);
  return Object.values(project.corners).filter((c) => {
    if (c.level !== wall.level || c.id === wall.start || c.id === wall.end) return false;
    const t = projectOn(c, a, b);
    return t > 0 && t < 1 && segmentDistance(c, a, b) <= wall.thickness / 2 + COINCIDENT;
  });
}

/**
 * Moves a wall sideways; what meets it follows. Ends slide along the line of the neighbour they meet, so that the
 * neighbours keep their direction; where a neighbour runs on in the same line, a short wall is put between.
 *
 * @param offset metres to the left of the wall's direction
 */
export function moveWall(draft: Draft<Project>, wallId: string, offset: number, newId: (prefix: string) => string): void {
  const wall = draft.walls[wallId];
  const [a, b] = wallEnds(draft, wall);
  const axis = unit(sub(b, a));
  const shift = scale(left(axis), offset);
  const guests = guestsOf(draft, wall).map((corner) => ({ corner, neighbours: wallsAt(draft, corner.id) }));
  const moved = add(a, shift);

  const slide = (corner: Corner, others: Wall[]): Vec2 => {
    const lines = others.map((o) => wallEnds(draft, o)).map(([p, q]) => ({ p, d: unit(sub(q, p)) }));
    const oblique = lines.filter((l) => Math.abs(cross(l.d, axis)) > 0.05);
    const straight = add(corner, shift);
    if (!oblique.length) return straight;
    const target = meet(moved, axis, oblique[0].p, oblique[0].d);
    const agree = oblique.every((l) => Math.abs(cross(l.d, oblique[0].d)) < 1e-6);
    return target && agree ? target : straight;
  };

  for (const end of ['start', 'end'] as const) {
    const corner = draft.corners[wall[end]];
    const others = wallsAt(draft, corner.id).filter((w) => w.id !== wallId);
    const host = hostOf(draft, corner);
    const inLine = others.filter((o) => {
      const [p, q] = wallEnds(draft, o);
      return Math.abs(cross(unit(sub(q, p)), axis)) <= 0.05;
    });
    if (inLine.length && others.length === inLine.length) {
      // The neighbour runs on straight: a jog keeps it where it is.
      const jog = { id: newId('corner'), level: wall.level, x: corner.x + shift.x, y: corner.y + shift.y };
      draft.corners[jog.id] = jog;
      const id = newId('wall');
      draft.walls[id] = { ...wall, id, start: corner.id, end: jog.id };
      draft.walls[wallId][end] = jog.id;
      continue;
    }
    const target = slide(corner, host ? [...others, host] : others);
    corner.x = target.x;
    corner.y = target.y;
  }
  for (const { corner, neighbours } of guests) {
    const target = slide(corner, neighbours);
    corner.x = target.x;
    corner.y = target.y;
  }
  refuseCollapse(draft);
}

/**
 * Gives a wall a length by moving the neighbour at one end along with everything that meets it; a free end just
 * moves.
 *
 * @param length metres along the centre line
 * @param keep the end that stays
 */
export function setWallLength(draft: Draft<Project>, wallId: string, length: number, keep: 'start' | 'end', newId: (prefix: string) => string): void {
  const wall = draft.walls[wallId];
  const [a, b] = wallEnds(draft, wall);
  const axis = unit(sub(b, a));
  const delta = length - distance(a, b);
  const outward = keep === 'start' ? axis : scale(axis, -1);
  const corner = draft.corners[keep === 'start' ? wall.end : wall.start];
  const neighbours = wallsAt(draft, corner.id).filter((w) => w.id !== wallId);
  const host = hostOf(draft, corner);
  const across = [...neighbours, ...(host ? [host] : [])].find((n) => {
    const [p, q] = wallEnds(draft, n);
    return Math.abs(cross(unit(sub(q, p)), axis)) > 0.05;
  });
  if (across) {
    const [p, q] = wallEnds(draft, across);
    moveWall(draft, across.id, delta * dot(outward, left(unit(sub(q, p)))), newId);
  } else {
    corner.x += outward.x * delta;
    corner.y += outward.y * delta;
    refuseCollapse(draft);
  }
}

function refuseCollapse(draft: Draft<Project>): void {
  for (const wall of Object.values(draft.walls))
    if (distance(...wallEnds(draft, wall)) < 0.01)
      throw new DomainError('wall.collapsed', 'The wall was not moved: a neighbouring wall would shrink to nothing; move it less far.', [wall.id]);
}

/** Takes walls away with their openings and the corners nobody needs any more. */
export function deleteWalls(draft: Draft<Project>, ids: readonly string[]): void {
  for (const id of ids) {
    delete draft.walls[id];
    for (const opening of Object.values(draft.openings)) if (opening.wall === id) delete draft.openings[opening.id];
    for (const side of ['left', 'right'] as const) delete draft.outside.faces[sideKey(id, side)];
  }
  const used = new Set(Object.values(draft.walls).flatMap((w) => [w.start, w.end]));
  for (const id of Object.keys(draft.corners)) if (!used.has(id)) delete draft.corners[id];
}

/**
 * After walls have moved, keeps every opening where it stood in space, as far as its wall still has room there.
 *
 * @throws DomainError `opening.no-room` where a wall has become too short for its opening
 */
export function settleOpenings(before: Project, draft: Draft<Project>): void {
  for (const opening of Object.values(draft.openings)) {
    const wall = draft.walls[opening.wall];
    const old = before.walls[opening.wall];
    if (!old || !before.openings[opening.id]) continue;
    const [a, b] = wallEnds(draft, wall);
    const [oa, ob] = wallEnds(before, old);
    if (distance(a, oa) < 1e-9 && distance(b, ob) < 1e-9 && wall.thickness === old.thickness) continue;
    const centre = add(oa, scale(unit(sub(ob, oa)), before.openings[opening.id].at));
    const own = before.openings[opening.id].at === opening.at ? projectOn(centre, a, b) * distance(a, b) : opening.at;
    const fit = fitOpening(clearSpans(draft as Project, wall), own, opening.width);
    if (!fit)
      throw new DomainError('opening.no-room', `The wall was not changed: ${opening.name} would no longer fit in its wall; make the opening narrower first.`, [
        opening.id,
        wall.id,
      ]);
    opening.at = Math.round(fit.at * 1e9) / 1e9;
  }
}
