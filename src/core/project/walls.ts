import type { Draft } from 'immer';
import { add, angleOf, cross, distance, dot, left, meet, scale, sub, unit, type Vec2 } from '../geometry/vec';
import { DomainError } from './errors';
import { joinFaces, shiftFaces, splitFaces } from './face-carry';
import { hungAtOpening, turnHung } from './hanging';
import { sideKey, type Project, type Wall } from './schema';
import { forget } from './things';
import { stateOf } from './topology';
import { cornerAt, directionOf, plain, wallsAt, type NewId } from './wall-meeting';
import { moveWalls } from './wall-move';
import { stationAt, wallEnds, wallExtents, wallLength, wallPath, wallThickness, wallTopAt } from './wall-line';
import { DUST, NEAR } from '../units/tolerance';

/** Takes walls away with their openings and the corners nobody needs any more. */
export function deleteWalls(draft: Draft<Project>, ids: readonly string[]): void {
  if (!ids.length) return;
  const gone = new Set(ids);
  const openings = stateOf(draft.openings);
  for (const id of ids) {
    delete draft.walls[id];
    for (const side of ['left', 'right'] as const) if (draft.outside.faces[sideKey(id, side)]) delete draft.outside.faces[sideKey(id, side)];
  }
  for (const id in openings)
    if (gone.has(openings[id].wall)) {
      const hung = hungAtOpening(draft.pieces as Project['pieces'], id).map((p) => p.id);
      forget(draft, hung);
      for (const piece of hung) delete draft.pieces[piece];
      delete draft.openings[id];
    }
  dropUnusedCorners(draft);
}

export function dropUnusedCorners(draft: Draft<Project>): void {
  const walls = stateOf(draft.walls);
  const used = new Set(Object.values(walls).flatMap((w) => [w.start, w.end]));
  for (const id of Object.keys(stateOf(draft.corners))) if (!used.has(id)) delete draft.corners[id];
}

/** Carries the finishes of a wall's faces over to another wall, turned round if asked. */
export function copyFaces(draft: Draft<Project>, from: string, to: string): void {
  const owners = [draft.outside, ...Object.keys(stateOf(draft.rooms)).map((id) => draft.rooms[id])];
  const plainOwners = [stateOf(draft.outside), ...Object.values(stateOf(draft.rooms))];
  plainOwners.forEach((owner, i) => {
    for (const side of ['left', 'right'] as const) {
      const finish = owner.faces[sideKey(from, side)];
      if (finish) owners[i].faces[sideKey(to, side)] = finish;
    }
  });
}

/** Heights of a raking wall along a part of it. */
function topPart(wall: Wall, t0: number, t1: number): Wall['top'] {
  if (wall.top.kind !== 'raking') return { ...wall.top };
  const { apex } = wall.top;
  const inside = apex !== null && apex.at > t0 + 0.02 * (t1 - t0) && apex.at < t1 - 0.02 * (t1 - t0);
  // The height of the level is of no account to a rake.
  const at = (t: number): number => wallTopAt(wall, { height: 0 }, t);
  return { kind: 'raking', start: at(t0), end: at(t1), apex: inside ? { at: (apex.at - t0) / (t1 - t0), height: apex.height } : null };
}

/**
 * Splits a wall at distances from its start into walls that follow one another; openings stay where they are.
 *
 * @returns the ids of the parts, the first of which is the wall's own
 * @throws DomainError `wall.split…` where a part would be too short or an opening stands across the place
 */
export function splitWall(draft: Draft<Project>, wallId: string, at: readonly number[], newId: NewId): string[] {
  const project = plain(draft);
  const wall = project.walls[wallId];
  const path = wallPath(project, wall);
  const length = wallLength(project, wall);
  const stops = [0, ...[...at].sort((a, b) => a - b), length];
  for (let i = 1; i < stops.length; i++)
    if (stops[i] - stops[i - 1] < 0.01)
      throw new DomainError('wall.split-short', 'The wall was not split: a part would be shorter than 10 mm; choose a place farther from its ends.', [wallId]);
  const own = Object.values(stateOf(draft.openings)).filter((o) => o.wall === wallId);
  for (const o of own)
    for (const s of at)
      if (s > o.at - o.width / 2 - NEAR && s < o.at + o.width / 2 + NEAR)
        throw new DomainError('wall.split-opening', `The wall was not split: ${o.name} stands there; choose a place beside it or move it first.`, [
          o.id,
          wallId,
        ]);
  const corners = [wall.start, ...at.map((_, i) => cornerAt(draft, wall.level, stationAt(path, stops[i + 1]).p, newId).id), wall.end];
  const angle = 4 * Math.atan(wall.bulge);
  const ids: string[] = [];
  for (let i = 0; i + 1 < stops.length; i++) {
    const share = (stops[i + 1] - stops[i]) / length;
    const id = i === 0 ? wallId : newId('wall');
    draft.walls[id] = {
      ...wall,
      id,
      start: corners[i],
      end: corners[i + 1],
      bulge: wall.bulge === 0 ? 0 : Math.tan((angle * share) / 4),
      top: topPart(wall, stops[i] / length, stops[i + 1] / length),
    };
    if (i > 0) {
      copyFaces(draft, wallId, id);
      splitFaces(draft, wallId, id, stops[i], stops[i + 1], newId);
    }
    ids.push(id);
    for (const o of own)
      if (o.at > stops[i] && o.at < stops[i + 1]) {
        draft.openings[o.id].wall = id;
        draft.openings[o.id].at = o.at - stops[i];
      }
  }
  return ids;
}

/**
 * Joins two walls: two that follow one another in one line become one wall; others are made to meet, each lengthened
 * or cut to the point where their lines cross.
 *
 * @throws DomainError `wall.join…`
 */
export function joinTwo(draft: Draft<Project>, aId: string, bId: string, newId: NewId): void {
  const project = plain(draft);
  const [a, b] = [project.walls[aId], project.walls[bId]];
  const refuse = (why: string): never => {
    throw new DomainError('wall.join', `The walls were not joined: ${why}`, [aId, bId]);
  };
  if (a.level !== b.level) refuse('they stand on different levels.');
  const [da, db] = [directionOf(project, a), directionOf(project, b)];
  const common = [a.start, a.end].find((c) => c === b.start || c === b.end);
  const parallel = Math.abs(cross(da, db)) < NEAR && a.bulge === 0 && b.bulge === 0;
  if (common && parallel) {
    if (wallThickness(project, a) !== wallThickness(project, b) || a.type !== b.type) refuse('they are not built alike; give them the same type first.');
    if (wallsAt(project, common).length > 2) refuse('another wall meets them there; the corner is needed.');
    const free = (w: Wall): string => (w.start === common ? w.end : w.start);
    const start = a.end === common ? a.start : free(b);
    const end = a.end === common ? free(b) : a.end;
    const shiftA = a.end === common ? 0 : wallLength(project, b);
    const lengthA = wallLength(project, a);
    const lengthB = wallLength(project, b);
    const alike = (b.end === common) === (a.start === common);
    for (const o of Object.values(stateOf(draft.openings))) {
      if (o.wall === aId) draft.openings[o.id].at = o.at + shiftA;
      if (o.wall !== bId) continue;
      const along = alike ? o.at : lengthB - o.at;
      const target = draft.openings[o.id];
      target.wall = aId;
      target.at = a.end === common ? lengthA + along : along;
      if (!alike) {
        target.hinge = o.hinge === 'start' ? 'end' : 'start';
        target.swing = o.swing === 'left' ? 'right' : 'left';
        turnHung(draft, o.id);
      }
    }
    if (shiftA) shiftFaces(draft, aId, shiftA);
    joinFaces(draft, bId, aId, a.end === common ? lengthA : 0, alike ? null : lengthB);
    draft.walls[aId].start = start;
    draft.walls[aId].end = end;
    delete draft.walls[bId];
    dropUnusedCorners(draft);
    return;
  }
  if (common) refuse('they meet already.');
  if (a.bulge !== 0 || b.bulge !== 0) refuse('an arc can’t be lengthened; draw a wall between them.');
  const at = parallel ? null : meet(wallEnds(project, a)[0], da, wallEnds(project, b)[0], db);
  if (!at || Math.abs(at.x) > 1000 || Math.abs(at.y) > 1000) return refuse('they run parallel and never meet.');
  const corner = cornerAt(draft, a.level, at, newId);
  for (const [id, wall] of [
    [aId, a],
    [bId, b],
  ] as const) {
    const [p, q] = wallEnds(project, wall);
    const end = distance(p, at) < distance(q, at) ? 'start' : 'end';
    draft.walls[id][end] = corner.id;
    if (distance(...wallEnds(draft, draft.walls[id])) < 0.01) refuse('one of them would shrink to nothing.');
    // What stands in the wall keeps its place.
    if (end === 'start') {
      const moved = dot(sub(p, at), directionOf(project, wall));
      for (const o of Object.values(stateOf(draft.openings))) if (o.wall === id) draft.openings[o.id].at = o.at + moved;
      shiftFaces(draft, id, moved);
    }
  }
  dropUnusedCorners(draft);
}

/** A wall of the same make beside another one, at a distance of its reference line to the left, metres. */
export function offsetWall(draft: Draft<Project>, wallId: string, by: number, newId: NewId): string {
  const project = plain(draft);
  const wall = project.walls[wallId];
  const path = wallPath(project, wall);
  const shifted = [path[0], path[path.length - 1]].map((station, i) => {
    const { d } = i === 0 ? stationAt(path, 0) : stationAt(path, station.s);
    // An arc keeps its centre: its ends move square to it.
    const normal = wall.bulge === 0 ? left(d) : arcNormal(project, wall, station.p);
    return add(station.p, scale(normal, by));
  });
  if (distance(shifted[0], shifted[1]) < 0.01)
    throw new DomainError('wall.too-short', 'The wall was not drawn: at that distance the arc would shrink to nothing.', [wallId]);
  const id = newId('wall');
  draft.walls[id] = { ...wall, id, start: cornerAt(draft, wall.level, shifted[0], newId).id, end: cornerAt(draft, wall.level, shifted[1], newId).id };
  return id;
}

/** Unit vector to the left of an arc at one of its points. */
function arcNormal(project: Project, wall: Wall, p: Vec2): Vec2 {
  const [a, b] = wallEnds(project, wall);
  const angle = 4 * Math.atan(wall.bulge);
  const apothem = distance(a, b) / 2 / Math.tan(angle / 2);
  const centre = add(scale(add(a, b), 0.5), scale(left(unit(sub(b, a))), apothem));
  const inward = unit(sub(centre, p));
  return wall.bulge > 0 ? inward : scale(inward, -1);
}

/**
 * Sets a stretch of a wall back (or forward) and closes it with two short walls at its ends: an alcove, or a
 * projection, in one piece of wall.
 *
 * @param at distance of its middle from the start of the wall, metres
 * @param depth metres to the left of the wall's direction; negative to the right
 */
export function recessWall(draft: Draft<Project>, wallId: string, at: number, width: number, depth: number, newId: NewId): void {
  const project = plain(draft);
  const wall = project.walls[wallId];
  if (wall.bulge !== 0) throw new DomainError('wall.recess-arc', 'No recess was made: the wall is an arc; choose a straight one.', [wallId]);
  if (Math.abs(depth) < 0.01) throw new DomainError('wall.recess-shallow', 'No recess was made: it is at least 10 mm deep; draw it deeper.', [wallId]);
  const length = wallLength(project, wall);
  if (at - width / 2 < 0.01 || at + width / 2 > length - 0.01)
    throw new DomainError('wall.recess-wide', 'No recess was made: it would reach the end of its wall; make it narrower or move it to the middle.', [wallId]);
  const [, back] = splitWall(draft, wallId, [at - width / 2, at + width / 2], newId);
  const middle = draft.walls[back];
  const shift = scale(left(directionOf(project, wall)), depth);
  const level = wall.level;
  const [p, q] = [draft.corners[middle.start], draft.corners[middle.end]];
  const [r, s] = [p, q].map((c) => cornerAt(draft, level, add(c, shift), newId));
  const jamb = (start: string, end: string): void => {
    const id = newId('wall');
    draft.walls[id] = { ...wall, id, start, end, bulge: 0, offset: 0, top: wall.top.kind === 'raking' ? { kind: 'ceiling' } : { ...wall.top } };
  };
  jamb(p.id, r.id);
  jamb(s.id, q.id);
  Object.assign(middle, { start: r.id, end: s.id });
}

/**
 * Changes what a wall is built of while one of its faces, or its middle, stays where it is.
 *
 * @param keep what stays
 */
export function rebuildWall(
  draft: Draft<Project>,
  wallId: string,
  build: { type: string | null; thickness: number | null },
  keep: 'left' | 'right' | 'middle' | 'line',
  newId: NewId,
): void {
  const project = plain(draft);
  const wall = project.walls[wallId];
  const before = wallExtents(project, wall);
  Object.assign(draft.walls[wallId], build);
  keepFace(draft, wallId, before, keep, newId);
}

/** Sets a wall's offset so that a face stays where it was before its thickness changed; its line moves only where the wall has become too thin. */
export function keepFace(
  draft: Draft<Project>,
  wallId: string,
  before: { left: number; right: number },
  keep: 'left' | 'right' | 'middle' | 'line',
  newId: NewId,
): void {
  if (keep === 'line') return;
  const wall = draft.walls[wallId];
  const half = wallThickness(plain(draft), { ...wall } as Wall) / 2;
  const wanted = keep === 'left' ? before.left - half : keep === 'right' ? half - before.right : (before.left - before.right) / 2;
  const offset = Math.max(-half, Math.min(half, wanted));
  wall.offset = Math.round(offset * 1e9) / 1e9;
  const rest = wanted - offset;
  if (Math.abs(rest) > DUST) moveWalls(draft, [wallId], rest, newId);
}

/** The compass-free direction of a wall, radians, for things that line up with it. */
export const wallAngle = (project: Pick<Project, 'corners'>, wall: Wall): number => angleOf(directionOf(project, wall));
