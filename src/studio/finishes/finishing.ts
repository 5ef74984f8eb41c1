import { alikeIn } from '@/core/project/kinds';
import { ownerOf, type Target, targetName } from '@/core/project/targets';
import { create } from 'zustand';
import type { Project } from '@/core/project/schema';

/** How far a press with a finish reaches. */
export const SCOPES = {
  one: 'this surface',
  room: 'all walls of the room',
  alike: 'everything alike',
} as const;
export type Scope = keyof typeof SCOPES;

interface FinishingState {
  scope: Scope;
  /** Finishes taken in hand lately, the latest first. */
  recent: string[];
  /** What lies over the table: the scheme list, two schemes side by side, a finish of one's own, a picture to take colours from. */
  panel: null | 'schemes' | 'compare' | 'own' | 'picture';
  /** The finish a new one is made from. */
  from: string | null;
}

export const useFinishing = create<FinishingState>()(() => ({ scope: 'one', recent: [], panel: null, from: null }));

/** Remembers a finish that was taken in hand. */
export const remember = (finish: string): void => useFinishing.setState((s) => ({ recent: [finish, ...s.recent.filter((f) => f !== finish)].slice(0, 16) }));

/** All that a press on one surface means. @param rooms several rooms chosen together, which change with one of them */
export function reach(project: Project, target: Target, scope: Scope, rooms: readonly string[]): Target[] {
  const together = 'room' in target && target.room !== null && rooms.length > 1 && rooms.includes(target.room) ? rooms : null;
  if (scope === 'one' && !together) return [target];
  switch (target.kind) {
    case 'wall': {
      const own = together ?? [target.room];
      if (scope === 'alike') return Object.keys(project.rooms).map((room) => ({ kind: 'walls' as const, room }));
      return own.map((room) => ({ kind: 'walls' as const, room }));
    }
    case 'floor':
    case 'ceiling': {
      const own =
        scope === 'alike'
          ? Object.values(project.rooms)
              .filter((r) => r.use !== 'duct')
              .map((r) => r.id)
          : (together ?? [target.room]);
      return own.map((room) => ({ kind: target.kind, room }));
    }
    case 'part': {
      const owner = scope === 'alike' ? ownerOf(project, target.of, target.part) : null;
      if (!owner) return [target];
      return alikeIn(project, owner.collection, owner.thing).things.map((t) => ({ ...target, of: t.id }));
    }
    case 'moulding': {
      const own = project.mouldings[target.moulding];
      if (!own || scope === 'one') return [target];
      return Object.values(project.mouldings)
        .filter((m) => (scope === 'alike' ? m.kind === own.kind : m.room === own.room))
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
