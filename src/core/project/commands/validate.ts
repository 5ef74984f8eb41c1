import { distance } from '../../geometry/vec';
import { DomainError } from '../errors';
import { migrate } from '../migrations';
import { checkOpening } from '../openings';
import { checkRooflight } from '../rooflights';
import { collections, kindOf, referencesOf, type CollectionName, type Thing } from '../kinds';
import { projectSchema, WALL_TYPES, type Project } from '../schema';

import { sentence } from './define';

/** Plain data of a project as a version keeps it. @param upTo left out: the version of today */
export const broughtUp = (value: unknown, upTo?: number): unknown => migrate(value, Object.fromEntries(WALL_TYPES.map((t) => [t.id, t])), upTo);

/**
 * Checks that a value is a project and that everything it refers to is there.
 *
 * @throws DomainError `project.…` with one sentence
 */
export function validateProject(value: unknown): Project {
  const parsed = projectSchema().safeParse(broughtUp(value));
  if (!parsed.success) throw new DomainError('project.shape', `The project is not valid: ${sentence(parsed.error)}`, []);
  const project = parsed.data;
  const fail = (what: string, id: string): never => {
    throw new DomainError('project.reference', `The project is not valid: ${what}.`, [id]);
  };
  const known = (collection: Record<string, unknown>, id: string): boolean => Object.hasOwn(collection, id);
  for (const collection of collections())
    for (const [key, thing] of Object.entries(project[collection] as Record<string, Thing>)) {
      if (thing.id !== key) fail(`${collection}.${key} carries another id (${thing.id})`, key);
      for (const { to, id, as } of referencesOf(collection, thing))
        if (!known(project[to as CollectionName], id)) fail(`${kindOf(collection).word} ${key} ${as} that is not there (${id})`, key);
    }
  for (const w of Object.values(project.walls)) {
    if (distance(project.corners[w.start], project.corners[w.end]) < 0.01) fail(`wall ${w.id} is shorter than 10 mm`, w.id);
    if (w.type === null && w.thickness === null && w.kind === 'wall') fail(`wall ${w.id} has neither a type nor a thickness`, w.id);
  }
  for (const o of Object.values(project.openings)) checkOpening(project, o);
  for (const r of Object.values(project.rooflights)) checkRooflight(project, r);
  for (const b of Object.values(project.boards))
    for (const [key, item] of Object.entries(b.items)) {
      if (item.id !== key) fail(`board item ${key} carries another id (${item.id})`, key);
      if (!known(b.pages, item.page)) fail(`board item ${item.id} lies on a page that is not there (${item.page})`, item.id);
      if (item.kind === 'picture' && !known(project.pictures, item.picture)) fail(`board item ${item.id} shows a picture that is not there`, item.id);
    }
  if (!known(project.schemes, project.scheme)) fail(`the scheme in hand is not there (${project.scheme})`, project.scheme);
  for (const s of Object.values(project.schemes))
    if ((s.choices === null) !== (s.id === project.scheme))
      fail(`scheme ${s.id} ${s.choices === null ? 'has no choices' : 'is in hand and has choices apart'}`, s.id);
  return project;
}
