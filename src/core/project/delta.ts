import { collections, type CollectionName, type Thing } from './kinds';
import type { Project } from './schema';

/** What one state of a project has that another lacks, as plain data: things that are others, things that are gone, and what is said of the whole. */
export interface Delta {
  whole: Record<string, unknown>;
  tables: Record<string, { set: Thing[]; gone: string[] }>;
}

const isTable = (key: string): key is CollectionName => (collections() as string[]).includes(key);

/**
 * What has changed from one state of a project to another. Things are told apart by identity, so that an edit costs a
 * comparison for each thing and sends only those it touched.
 *
 * @param before null: nothing is known yet
 */
export function deltaOf(before: Project | null, after: Project): Delta {
  const delta: Delta = { whole: {}, tables: {} };
  for (const key of Object.keys(after) as (keyof Project)[]) {
    if (before?.[key] === after[key]) continue;
    if (!isTable(key)) {
      delta.whole[key] = after[key];
      continue;
    }
    const [then, now] = [(before?.[key] ?? {}) as Record<string, Thing>, after[key] as Record<string, Thing>];
    delta.tables[key] = {
      set: Object.values(now).filter((thing) => then[thing.id] !== thing),
      gone: Object.keys(then).filter((id) => !Object.hasOwn(now, id)),
    };
  }
  return delta;
}

/** The other state of a project. What the delta does not name stays the same object. */
export function applyDelta(before: Project | null, { whole, tables }: Delta): Project {
  const next: Record<string, unknown> = { ...before, ...whole };
  for (const [key, { set, gone }] of Object.entries(tables)) {
    const table: Record<string, Thing> = { ...((before as Record<string, unknown> | null)?.[key] as Record<string, Thing> | undefined) };
    for (const id of gone) delete table[id];
    for (const thing of set) table[thing.id] = thing;
    next[key] = table;
  }
  return next as unknown as Project;
}
