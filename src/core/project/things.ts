import type { Draft } from 'immer';
import { DomainError } from './errors';
import { collections, kindOf, referencesOf, type CollectionName, type Thing } from './kinds';
import type { Project } from './schema';

/** The collection a thing is in; null where it is in none. */
export function collectionOf(project: Project, id: string): CollectionName | null {
  return collections().find((name) => Object.hasOwn(project[name], id)) ?? null;
}

/** Some things, and all that goes along with them when they are deleted. */
export function withWhatGoesAlong(project: Project, ids: readonly string[]): string[] {
  const gone = new Set(ids);
  for (let before = -1; before !== gone.size;) {
    before = gone.size;
    for (const name of collections()) {
      if (!kindOf(name).refers) continue;
      for (const thing of Object.values(project[name] as Record<string, Thing>))
        if (!gone.has(thing.id) && referencesOf(name, thing).some((r) => r.gone === 'along' && gone.has(r.id) && r.to !== 'levels')) gone.add(thing.id);
    }
  }
  return [...gone];
}

/** The first "Word n" that nothing of a collection is called yet. @param first number to try */
export function freeName(word: string, collection: Record<string, { name: string }>, first = 1): string {
  const taken = new Set(Object.values(collection).map((thing) => thing.name));
  for (let n = first; ; n++) if (!taken.has(`${word} ${n}`)) return `${word} ${n}`;
}

/** Refuses to take away what is held. @throws DomainError `held` */
export function refuseHeld(project: Pick<Project, 'contents'>, ids: readonly string[]): void {
  const held = new Set(project.contents.held);
  const own = ids.filter((id) => held.has(id));
  if (own.length) throw new DomainError('held', `Nothing was deleted: ${own.length === 1 ? 'it is' : `${own.length} of these are`} held; let go first.`, own);
}

/** What of a project is out of sight: ids of things, and of levels with all on them. */
export const hiddenIn = (project: Pick<Project, 'contents' | 'cabinets'>): ReadonlySet<string> => withUnits(project, project.contents.hidden);

/** Things, and of runs of cabinets among them the units. */
export function withUnits({ cabinets }: Pick<Project, 'cabinets'>, ids: Iterable<string>): ReadonlySet<string> {
  const all = new Set(ids);
  if (all.size) for (const { id, run } of Object.values(cabinets)) if (all.has(run)) all.add(id);
  return all;
}

/** Takes things that go out of the lists of what is out of sight and what is together. */
export function forget(draft: Draft<Project>, ids: readonly string[]): void {
  const gone = new Set(ids);
  if (!gone.size) return;
  const { contents } = draft;
  if (contents.hidden.some((h) => gone.has(h))) contents.hidden = contents.hidden.filter((h) => !gone.has(h));
  for (const group of Object.values(contents.groups)) if (group.members.some((m) => gone.has(m))) group.members = group.members.filter((m) => !gone.has(m));
}
