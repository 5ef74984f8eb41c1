import type { Draft } from 'immer';
import { rotate, sub, type Vec2 } from '../geometry/vec';
import { DomainError } from './errors';
import type { Hanging, Opening, Piece, Project } from './schema';
import { onCopies, standingOn } from './standing-on';
import { stateOf } from './topology';
import { cornerAt, plain, wallsAt } from './wall-meeting';
import { copyFaces, dropUnusedCorners } from './walls';

type NewId = (prefix: string) => string;

/** How a set of things is carried: turned about a point, mirrored about a line through it, then moved. */
export interface Carry {
  about: Vec2;
  turn: number;
  /** Direction of the line it is mirrored about, radians; null: not mirrored. */
  mirror: number | null;
  by: Vec2;
}

/** Where a point comes to lie. */
export function carryPoint({ about, turn, mirror, by }: Carry, p: Vec2): Vec2 {
  let q = sub(p, about);
  if (mirror !== null) {
    const d = { x: Math.cos(2 * mirror), y: Math.sin(2 * mirror) };
    q = { x: q.x * d.x + q.y * d.y, y: q.x * d.y - q.y * d.x };
  }
  q = rotate(q, turn);
  // Whole turns of a quarter leave no dust.
  const clean = (v: number): number => Math.round(v * 1e9) / 1e9;
  return { x: clean(about.x + q.x + by.x), y: clean(about.y + q.y + by.y) };
}

/** The direction a thing faces after it was carried, radians. */
export const carryRotation = ({ turn, mirror }: Carry, rotation: number): number => {
  // A piece faces −y turned by its rotation; mirrored, its facing is mirrored and its right becomes its left.
  const facing = rotation - Math.PI / 2;
  const mirrored = mirror === null ? facing : 2 * mirror - facing;
  return mirrored + Math.PI / 2 + turn;
};

/** An opening in a wall that was mirrored: left and right change places. */
const mirrored = (o: Opening): Partial<Opening> => ({ swing: o.swing === 'left' ? 'right' : 'left' });

/**
 * Carries walls with their openings, columns and pieces to another place, or puts copies of them there. Walls that stay
 * and walls that go part at their common corners.
 */
export function carryThings(draft: Draft<Project>, ids: readonly string[], carry: Carry, copy: boolean, newId: NewId): string[] {
  const project = plain(draft);
  const walls = ids.filter((id) => Object.hasOwn(project.walls, id)).map((id) => project.walls[id]);
  const going = new Set(walls.map((w) => w.id));
  const made: string[] = [];
  /** Openings by what each is a copy of. */
  const copiedOpenings = new Map<string, string>();
  const corner = new Map<string, string>();
  const move = (id: string): string => {
    const known = corner.get(id);
    if (known) return known;
    const to = carryPoint(carry, project.corners[id]);
    const shared = copy || wallsAt(project, id).some((w) => !going.has(w.id));
    let target = id;
    if (shared) target = cornerAt(draft, project.corners[id].level, to, newId).id;
    else Object.assign(draft.corners[id], to);
    corner.set(id, target);
    return target;
  };
  for (const wall of walls) {
    const [start, end] = [move(wall.start), move(wall.end)];
    const id = copy ? newId('wall') : wall.id;
    const turned = carry.mirror === null ? {} : { bulge: -wall.bulge, offset: -wall.offset, turned: !wall.turned };
    draft.walls[id] = { ...wall, id, start, end, ...turned };
    if (start === end) throw new DomainError('wall.collapsed', 'Nothing was moved: a wall would shrink to nothing there.', [wall.id]);
    if (copy) copyFaces(draft, wall.id, id);
    made.push(id);
    for (const o of Object.values(stateOf(draft.openings))) {
      if (o.wall !== wall.id) continue;
      const change = carry.mirror === null ? {} : mirrored(o);
      if (copy) {
        const own = newId('opening');
        draft.openings[own] = {
          ...o,
          ...change,
          id: own,
          wall: id,
          place: o.place.kind === 'between' || o.place.kind === 'gap' ? { kind: 'free' } : o.place,
          head: null,
        };
        copiedOpenings.set(o.id, own);
        made.push(own);
      } else Object.assign(draft.openings[o.id], change);
    }
  }
  // What stands on a piece goes with it, and a copy of it stands on the copy.
  // So does what hangs at an opening of a wall that goes.
  const hung = Object.values(project.pieces).flatMap(({ id, hangs }) => (hangs && going.has(project.openings[hangs.opening]?.wall) ? [id] : []));
  const all = [...new Set([...ids, ...hung, ...standingOn(project.pieces, ids)])];
  const copied = new Map<string, Piece>();
  /** At the opening that goes along, or its copy; what goes without its opening hangs no longer. */
  const hangsAfter = (hangs: Hanging): Hanging | null => {
    const opening = copy ? copiedOpenings.get(hangs.opening) : going.has(project.openings[hangs.opening].wall) ? hangs.opening : undefined;
    return opening === undefined ? null : { ...hangs, opening, side: carry.mirror === null ? hangs.side : hangs.side === 'left' ? 'right' : 'left' };
  };
  for (const collection of ['pieces', 'columns', 'rooflights'] as const)
    for (const id of all) {
      const thing = stateOf(draft[collection])[id];
      if (!thing) continue;
      const changed = {
        ...carryPoint(carry, thing),
        rotation: carryRotation(carry, thing.rotation),
        // What has a left and a right has them the other way round in a mirror.
        ...(carry.mirror !== null && 'mirrored' in thing ? { mirrored: !thing.mirrored } : {}),
        ...('hangs' in thing && thing.hangs ? { hangs: hangsAfter(thing.hangs) } : {}),
      };
      if (copy) {
        const own = newId(collection.slice(0, -1));
        const one = { ...thing, id: own, ...changed };
        if (collection === 'pieces') copied.set(id, one as Piece);
        else (draft[collection] as Record<string, object>)[own] = one;
        made.push(own);
      } else Object.assign(draft[collection][id], changed);
    }
  for (const piece of onCopies(copied)) draft.pieces[piece.id] = piece;
  dropUnusedCorners(draft);
  return made;
}
