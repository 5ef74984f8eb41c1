import { buildingKinds } from './building';
import { cabinetKinds } from './cabinets';
import { furnishingKinds } from './furnishing';
import type { Look, PartKind, ProjectKind, Reference, Thing } from './kind';
import { openingKinds } from './openings';
import { outsideKinds } from './outside';
import { upwardsKinds } from './upwards';

export type { PartKind, ProjectKind, Reference, Thing } from './kind';

const { wallTypes, levels, guides, corners, walls, columns, rooms } = buildingKinds;
const { openings, rooflights } = openingKinds;

/**
 * Every kind of thing a project holds, by the name of its collection. What is checked, saved, renamed, hidden, deleted and
 * finished follows from this table.
 */
export const PROJECT_KINDS = {
  wallTypes,
  levels,
  guides,
  corners,
  walls,
  openings,
  columns,
  rooflights,
  ...upwardsKinds,
  rooms,
  ...outsideKinds,
  ...cabinetKinds,
  ...furnishingKinds,
};

export type CollectionName = keyof typeof PROJECT_KINDS;

/** What is known of a collection's things. */
export const kindOf = (collection: CollectionName): ProjectKind => PROJECT_KINDS[collection] as unknown as ProjectKind;

/** Every collection of a project whose things are told apart by id. */
export const collections = (): CollectionName[] => Object.keys(PROJECT_KINDS) as CollectionName[];

/** The collections whose things stand on a level and go with it. */
export const collectionsOnLevel = (): CollectionName[] => collections().filter((name) => kindOf(name).onLevel);

/** The collections whose things have a status: they stand before the work, after it, or both. */
export const collectionsWithStatus = (): CollectionName[] => collections().filter((name) => kindOf(name).status);

/** The parts of a thing, with what each is of before anybody has chosen. */
export const partKinds = (collection: CollectionName, thing: Thing, look: Look): readonly PartKind[] => kindOf(collection).parts?.(thing, look) ?? [];

/** What a thing refers to. */
export const referencesOf = (collection: CollectionName, thing: Thing): readonly Reference[] => kindOf(collection).refers?.(thing) ?? [];

/** The things of a collection that are like one of them, itself among them, and what several of these are called. */
export function alikeIn(
  project: Record<CollectionName, Record<string, unknown>>,
  collection: CollectionName,
  thing: Thing,
): { things: Thing[]; words: string } {
  const { alike, word } = kindOf(collection);
  const own = alike?.(thing);
  const all = Object.values(project[collection] as Record<string, Thing>);
  return { things: own ? all.filter((t) => alike!(t).key === own.key) : all, words: own?.words ?? `${word}s` };
}

/** A part of a thing as it is finished. */
export interface FinishedPart extends PartKind {
  /** Whether anybody has chosen its finish. */
  chosen: boolean;
}

/** How a part of a thing is finished: as chosen for it, else as its kind begins. A part its kind does not know is bare. */
export function finishedPart(collection: CollectionName, thing: Thing, part: string, look: Look): FinishedPart {
  const own = partKinds(collection, thing, look).find((p) => p.part === part);
  const chosen = thing.finishes?.[part];
  return { part, role: own?.role ?? null, finish: chosen ?? own?.finish ?? 'bare.plaster', chosen: chosen !== undefined };
}
