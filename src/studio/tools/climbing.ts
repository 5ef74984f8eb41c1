import { levelAbove } from '@/core/project/levels';
import type { Project, Slab } from '@/core/project/schema';
import type { WallPen } from '../store/studio';

/** The slabs of a level that one can climb to. */
export const slabsToClimb = (project: Project, level: string): Slab[] =>
  Object.values(project.slabs).filter((s) => s.level === level && s.kind !== 'foundation' && s.z > 0.1);

/**
 * What a new stair of a level climbs to: what was chosen, if it is there; else the level above, a slab of the level, or the
 * height of the level.
 */
export function climbFor(project: Project, level: string, climb: WallPen['climb']): WallPen['climb'] {
  const slabs = slabsToClimb(project, level);
  if (climb.to === 'height') return climb;
  if (climb.to === 'slab' && slabs.some((s) => s.id === climb.slab)) return climb;
  if (levelAbove(project, level)) return { to: 'level' };
  if (slabs.length) return { to: 'slab', slab: slabs[0].id };
  const own = project.levels[level];
  return { to: 'height', metres: own.height + own.slab };
}

/** How high that is above the floor of the level, metres; null: up to the level above, whatever becomes of its height. */
export function riseOf(project: Project, level: string, climb: WallPen['climb']): number | null {
  const meant = climbFor(project, level, climb);
  if (meant.to === 'level') return null;
  return meant.to === 'slab' ? project.slabs[meant.slab].z : meant.metres;
}
