import { alikeIn } from '@/core/project/kinds';
import { ownerOf, type Target, targetName } from '@/core/project/targets';
import { create } from 'zustand';
import type { FaceLaying, Project } from '@/core/project/schema';
import type { SchemeKit } from '@/core/project/scheme-kit';

/** How far a press with a finish reaches. */
export const SCOPES = {
  one: 'this surface',
  room: 'all walls of the room',
  outside: 'all outside walls',
  alike: 'everything alike',
} as const;
export type Scope = keyof typeof SCOPES;

interface FinishingState {
  scope: Scope;
  /** Finishes taken in hand lately, the latest first. */
  recent: string[];
  /** What lies over the table: the scheme list, two schemes side by side, a kept one to be taken over, a finish of one's own, a picture to take colours from. */
  panel: null | 'schemes' | 'compare' | 'takeover' | 'own' | 'picture';
  /** The kept scheme that may be taken over, with the id it would get. */
  taking: { id: string; kit: SchemeKit } | null;
  /** The finish a new one is made from. */
  from: string | null;
}

export const useFinishing = create<FinishingState>()(() => ({ scope: 'one', recent: [], panel: null, taking: null, from: null }));

/** How the pattern of a band that runs all round goes on from wall to wall: its joints meet in the corners. */
export const CARRIED: FaceLaying = { laying: null, start: 'carried', origin: { x: 0, y: 0 }, rotation: 0, scale: 1 };

/** Remembers a finish that was taken in hand. */
export const remember = (finish: string): void => useFinishing.setState((s) => ({ recent: [finish, ...s.recent.filter((f) => f !== finish)].slice(0, 16) }));

/** Why a press reaches nothing, where what is pointed at has no part in what it is meant for. */
export function outOfReach(target: Target, scope: Scope): string | null {
  if (scope !== 'room' || ('room' in target && target.room !== null)) return null;
  return target.kind === 'wall' || target.kind === 'walls'
    ? 'an outside face belongs to no room: choose “all outside walls” or “this surface”'
    : 'point at a wall, the floor or the ceiling of a room';
}

/** All that a press on one surface means: what the words of the scope say, and nothing else. @param rooms several rooms chosen together, which change with one of them */
export function reach(project: Project, target: Target, scope: Scope, rooms: readonly string[]): Target[] {
  if (outOfReach(target, scope)) return [];
  if (scope === 'outside') return [{ kind: 'walls', room: null }];
  const together = 'room' in target && target.room !== null && rooms.length > 1 && rooms.includes(target.room) ? rooms : null;
  if (scope === 'room') return (together ?? [(target as { room: string }).room]).map((room) => ({ kind: 'walls', room }));
  if (scope === 'one' && !together) return [target];
  // Ducts are no rooms for people.
  const all = Object.values(project.rooms).flatMap((r) => (r.use === 'duct' ? [] : [r.id]));
  const own = scope === 'alike' ? all : together!;
  switch (target.kind) {
    case 'wall':
      // Inside faces are alike among themselves, and so are outside ones.
      if (target.room === null) return [{ kind: 'walls', room: null }];
      return own.map((room) => ({ kind: 'walls', room }));
    case 'floor':
    case 'ceiling':
      return own.map((room) => ({ kind: target.kind, room }));
    case 'part': {
      const owner = ownerOf(project, target.of, target.part);
      if (!owner) return [target];
      return alikeIn(project, owner.collection, owner.thing).things.map((t) => ({ ...target, of: t.id }));
    }
    case 'moulding': {
      const moulding = project.mouldings[target.moulding];
      if (!moulding) return [target];
      return Object.values(project.mouldings)
        .filter((m) => m.kind === moulding.kind)
        .map((m) => ({ kind: 'moulding' as const, moulding: m.id }));
    }
    default:
      return [target];
  }
}

/** What will change, as people say it: "Kitchen, north wall", "all doors, leaf". */
export function reachName(project: Project, target: Target, targets: readonly Target[]): string {
  if (targets.length === 1) return targetName(project, targets[0]);
  const { length } = targets;
  switch (target.kind) {
    case 'wall':
      return `walls of ${length} rooms`;
    case 'floor':
    case 'ceiling':
      return `${length} ${target.kind}s`;
    case 'part': {
      const owner = ownerOf(project, target.of, target.part);
      return `${length} ${owner ? alikeIn(project, owner.collection, owner.thing).words : 'things'}, ${target.part}`;
    }
    default:
      return `${length} surfaces`;
  }
}
