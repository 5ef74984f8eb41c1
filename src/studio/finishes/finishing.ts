import { create } from 'zustand';
import type { FaceTarget } from '@/core/project/commands';
import { surfaceName } from '@/core/project/surface-name';
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
export function reach(project: Project, target: FaceTarget, scope: Scope, rooms: readonly string[]): FaceTarget[] {
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
    case 'opening': {
      const kind = project.openings[target.opening]?.kind;
      if (!kind || scope !== 'alike') return [target];
      return Object.values(project.openings)
        .filter((o) => o.kind === kind)
        .map((o) => ({ kind: 'opening' as const, opening: o.id, part: target.part }));
    }
    case 'piece': {
      const maker = project.pieces[target.piece]?.maker;
      if (!maker || scope !== 'alike') return [target];
      return Object.values(project.pieces)
        .filter((p) => p.maker === maker)
        .map((p) => ({ kind: 'piece' as const, piece: p.id, part: target.part }));
    }
    case 'moulding': {
      const own = project.mouldings[target.moulding];
      if (!own || scope === 'one') return [target];
      return Object.values(project.mouldings)
        .filter((m) => (scope === 'alike' ? m.kind === own.kind : m.room === own.room))
        .map((m) => ({ kind: 'moulding' as const, moulding: m.id }));
    }
    case 'roof':
      return scope === 'alike' ? Object.keys(project.roofs).map((roof) => ({ ...target, roof })) : [target];
    default:
      return [target];
  }
}

/** What will change, as people say it: "Kitchen, north wall", "all doors, leaf". */
export function reachName(project: Project, target: FaceTarget, targets: readonly FaceTarget[]): string {
  if (targets.length === 1) return surfaceName(project, targets[0]);
  const { length } = targets;
  switch (target.kind) {
    case 'wall':
      return `walls of ${length} rooms`;
    case 'floor':
    case 'ceiling':
      return `${length} ${target.kind}s`;
    case 'opening':
      return `${length} ${project.openings[target.opening]?.kind === 'window' ? 'windows' : 'doors'}, ${target.part}`;
    case 'piece':
      return `${length} alike, ${target.part}`;
    default:
      return `${length} surfaces`;
  }
}
