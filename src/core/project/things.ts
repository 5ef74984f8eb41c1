import { DomainError } from './errors';
import type { Project } from './schema';

/** The collections whose things stand on a level and go with it. */
export const ON_LEVEL = [
  'walls',
  'rooms',
  'columns',
  'rooflights',
  'roofs',
  'stairs',
  'voids',
  'slabs',
  'beams',
  'guides',
  'pieces',
] as const satisfies (keyof Project)[];

/** The collections whose things have a status: they stand before the work, after it, or both. */
export const WITH_STATUS = [
  'walls',
  'rooms',
  'openings',
  'columns',
  'rooflights',
  'roofs',
  'dormers',
  'stairs',
  'voids',
  'slabs',
  'beams',
  'grounds',
  'fences',
] as const satisfies (keyof Project)[];

/** Every collection of a project whose things are told apart by id. */
export const COLLECTIONS = [
  'wallTypes',
  'levels',
  'guides',
  'corners',
  'walls',
  'openings',
  'columns',
  'rooflights',
  'roofs',
  'dormers',
  'stairs',
  'voids',
  'slabs',
  'beams',
  'rooms',
  'grounds',
  'fences',
  'pieces',
  'viewpoints',
  'pictures',
  'boards',
  'finishes',
  'patches',
  'mouldings',
  'profiles',
  'schemes',
] as const satisfies (keyof Project)[];

export type CollectionName = (typeof COLLECTIONS)[number];

/** The collection a thing is in; null where it is in none. */
export function collectionOf(project: Project, id: string): CollectionName | null {
  return COLLECTIONS.find((name) => Object.hasOwn(project[name], id)) ?? null;
}

/** The first "Word n" that nothing of a collection is called yet. */
export function freeName(word: string, collection: Record<string, { name: string }>): string {
  const taken = new Set(Object.values(collection).map((thing) => thing.name));
  for (let n = 1; ; n++) if (!taken.has(`${word} ${n}`)) return `${word} ${n}`;
}

/** Refuses to take away what is locked. @throws DomainError `locked` */
export function refuseLocked(project: Pick<Project, 'outline'>, ids: readonly string[]): void {
  const locked = new Set(project.outline.locked);
  const held = ids.filter((id) => locked.has(id));
  if (held.length)
    throw new DomainError('locked', `Nothing was deleted: ${held.length === 1 ? 'it is' : `${held.length} of these are`} locked; unlock first.`, held);
}

/** What of a project is out of sight: ids of things, and of levels with all on them. */
export const hiddenIn = (project: Pick<Project, 'outline'>): ReadonlySet<string> => new Set(project.outline.hidden);
