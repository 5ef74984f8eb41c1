import type { Draft } from 'immer';
import { z } from 'zod';
import { need } from './commands/define';
import { linkedWith } from './linked';
import { stateOf } from './topology';
import { collections, kindOf, partKinds, type CollectionName, type Thing } from './kinds';
import { Id, sideKey, type Project } from './schema';

/** What of a patch has a finish of its own. */
export const PATCH_PARTS = ['field', 'panels', 'moulding'] as const;

/** What a finish is chosen for: a face as a room (or the outside, `room: null`) sees it, a part of a thing, a patch, a moulding. */
export const Target = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('floor'), room: Id }),
  z.object({ kind: z.literal('ceiling'), room: Id }),
  z.object({ kind: z.literal('walls'), room: Id.nullable() }),
  z.object({ kind: z.literal('wall'), room: Id.nullable(), wall: Id, side: z.enum(['left', 'right']) }),
  z.object({ kind: z.literal('ground') }).describe('the ground round about'),
  z.object({ kind: z.literal('part'), of: Id, part: z.string().min(1).max(60) }).describe('a named part of a thing'),
  z.object({ kind: z.literal('patch'), patch: Id, part: z.enum(PATCH_PARTS) }),
  z.object({ kind: z.literal('moulding'), moulding: Id }),
]);
export type Target = z.infer<typeof Target>;

/** The outside, where a room is meant. */
const OUTSIDE = '*';

/** What a finish is chosen for as one line of text, by which choices are kept. */
export function addressOf(target: Target): string {
  switch (target.kind) {
    case 'floor':
    case 'ceiling':
      return `${target.kind}/${target.room}`;
    case 'walls':
      return `walls/${target.room ?? OUTSIDE}`;
    case 'wall':
      return `wall/${target.room ?? OUTSIDE}/${target.wall}/${target.side}`;
    case 'ground':
      return 'ground';
    case 'part':
      return `part/${target.of}/${target.part}`;
    case 'patch':
      return `patch/${target.patch}/${target.part}`;
    case 'moulding':
      return `moulding/${target.moulding}`;
  }
}

/** What an address means; null where it is none. */
export function targetOf(address: string): Target | null {
  const [kind, a, b, c] = address.split('/');
  const room = a === OUTSIDE ? null : a;
  switch (kind) {
    case 'floor':
    case 'ceiling':
      return a ? { kind, room: a } : null;
    case 'walls':
      return a ? { kind, room } : null;
    case 'wall':
      return b && (c === 'left' || c === 'right') ? { kind, room, wall: b, side: c } : null;
    case 'ground':
      return { kind };
    case 'part':
      return b ? { kind, of: a, part: b } : null;
    case 'patch':
      return b === 'field' || b === 'panels' || b === 'moulding' ? { kind, patch: a, part: b } : null;
    case 'moulding':
      return a ? { kind, moulding: a } : null;
    default:
      return null;
  }
}

/** The thing a part is of, with its collection; null where there is none. Where ids coincide, the one that has such a part. */
export function ownerOf(project: Project, of: string, part: string): { collection: CollectionName; thing: Thing } | null {
  let first: { collection: CollectionName; thing: Thing } | null = null;
  for (const collection of collections()) {
    const things = project[collection] as Record<string, Thing>;
    if (!Object.hasOwn(things, of) || !things[of].finishes) continue;
    const found = { collection, thing: things[of] };
    if (kindOf(collection).openParts || partKinds(collection, found.thing, project).some((p) => p.part === part)) return found;
    first ??= found;
  }
  return first;
}

/** Chooses a finish for what a target means; null takes the choice away. @throws DomainError `missing` */
export function applyFinish(draft: Draft<Project>, target: Target, finish: string | null): void {
  const put = (record: Record<string, string>, key: string): void => {
    if (finish === null) delete record[key];
    else record[key] = finish;
  };
  const owner = (room: string | null): Draft<Project>['outside'] | Draft<Project>['rooms'][string] =>
    room === null ? draft.outside : need(draft.rooms, room, 'room');
  switch (target.kind) {
    case 'floor':
    case 'ceiling':
      need(draft.rooms, target.room, 'room')[target.kind] = finish;
      return;
    case 'walls':
      Object.assign(owner(target.room), { walls: finish, faces: {} });
      return;
    case 'wall':
      need(draft.walls, target.wall, 'wall');
      put(owner(target.room).faces, sideKey(target.wall, target.side));
      return;
    case 'ground':
      draft.outside.ground = finish;
      return;
    case 'part': {
      const found = ownerOf(draft as Project, target.of, target.part);
      const thing = need(found ? (draft[found.collection] as Record<string, Thing>) : {}, target.of, 'thing');
      put(thing.finishes!, target.part);
      // Linked copies are of one finish.
      if (found?.collection === 'pieces')
        // Most are linked with nothing: those are not all looked through for each part.
        for (const id of draft.pieces[target.of].linked === null ? [target.of] : linkedWith(stateOf(draft.pieces) as Project['pieces'], target.of))
          put(draft.pieces[id].finishes, target.part);
      return;
    }
    case 'patch': {
      const patch = need(draft.patches, target.patch, 'patch');
      if (target.part === 'field') patch.finish = finish ?? patch.finish;
      else if (patch.panels) patch.panels[target.part === 'panels' ? 'field' : 'moulding'] = finish;
      return;
    }
    case 'moulding': {
      const moulding = need(draft.mouldings, target.moulding, 'moulding');
      moulding.finish = finish ?? moulding.finish;
    }
  }
}

/** Whether what a finish is chosen for is still there. */
export function exists(project: Project, target: Target): boolean {
  switch (target.kind) {
    case 'floor':
    case 'ceiling':
    case 'walls':
      return target.room === null || Object.hasOwn(project.rooms, target.room);
    case 'wall':
      return Object.hasOwn(project.walls, target.wall) && (target.room === null || Object.hasOwn(project.rooms, target.room));
    case 'ground':
      return true;
    case 'part':
      return ownerOf(project, target.of, target.part) !== null;
    case 'patch':
      return Object.hasOwn(project.patches, target.patch);
    case 'moulding':
      return Object.hasOwn(project.mouldings, target.moulding);
  }
}

/** The room a target belongs to: null for the outside, undefined where it is in none. */
export function roomOfTarget(project: Project, target: Target): string | null | undefined {
  if ('room' in target) return target.room;
  if (target.kind === 'patch') return project.patches[target.patch]?.on.room;
  if (target.kind === 'moulding') return project.mouldings[target.moulding]?.room;
  return target.kind === 'ground' ? null : undefined;
}

/** The thing a target belongs to, which one selects to get to it; null where it is none. */
export function entityOf(target: Target): string | null {
  switch (target.kind) {
    case 'floor':
    case 'ceiling':
    case 'walls':
      return target.room;
    case 'wall':
      return target.wall;
    case 'ground':
      return null;
    case 'part':
      return target.of;
    case 'patch':
      return target.patch;
    case 'moulding':
      return target.moulding;
  }
}

/** "Kitchen, north wall": the name of what a target means, as people say it. */
export function targetName(project: Project, target: Target): string {
  const room = 'room' in target && target.room ? (project.rooms[target.room]?.name ?? 'Room') : 'Outside';
  switch (target.kind) {
    case 'floor':
    case 'ceiling':
      return `${room}, ${target.kind}`;
    case 'walls':
      return target.room === null ? 'All outside walls' : `${room}, all walls`;
    case 'wall':
      return target.room === null ? outsideName(project, target.wall, target.side) : `${room}, ${compass(project, target.wall, target.side)} wall`;
    case 'ground':
      return 'Ground';
    case 'part': {
      const found = ownerOf(project, target.of, target.part);
      const word = found ? kindOf(found.collection).word : 'part';
      const name = found?.thing.name ?? word.charAt(0).toUpperCase() + word.slice(1);
      // What is of one matter goes by its name alone.
      return target.part === 'body' ? name : `${name}, ${target.part}`;
    }
    case 'patch':
      return `${project.patches[target.patch]?.name ?? 'Patch'}${target.part === 'field' ? '' : `, ${target.part}`}`;
    case 'moulding':
      return `${project.rooms[project.mouldings[target.moulding]?.room]?.name ?? 'Room'}, ${project.mouldings[target.moulding]?.name ?? 'moulding'}`;
  }
}

/** Which wall of a room it is, by the direction one looks to see it. */
function compass(project: Project, wallId: string, side: 'left' | 'right'): string {
  const wall = project.walls[wallId];
  if (!wall) return '';
  const a = project.corners[wall.start];
  const b = project.corners[wall.end];
  // Looking at the left face means looking to the right of the wall's direction.
  return pointName(project, Math.atan2(b.y - a.y, b.x - a.x) + (side === 'left' ? -1 : 1) * (Math.PI / 2));
}

/** "South side, outside": an outside face by the direction it looks to. */
function outsideName(project: Project, wall: string, side: 'left' | 'right'): string {
  const name = compass(project, wall, side === 'left' ? 'right' : 'left');
  return name ? `${name.charAt(0).toUpperCase()}${name.slice(1)} side, outside` : 'Outside';
}

/** The point of the compass a direction of the plan looks to. @param angle radians from the x axis */
export function pointName(project: Project, angle: number): string {
  const clockwise = (((project.site.north - angle) / (2 * Math.PI)) % 1) + 1;
  return ['north', 'north-east', 'east', 'south-east', 'south', 'south-west', 'west', 'north-west'][Math.round((clockwise % 1) * 8) % 8];
}
