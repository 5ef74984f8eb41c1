import { distance } from '../../geometry/vec';
import { DomainError } from '../errors';
import { migrate } from '../migrations';
import { checkOpening } from '../openings';
import { checkRooflight } from '../rooflights';
import { COLLECTIONS, ON_LEVEL } from '../things';
import { ProjectSchema, WALL_TYPES, type Project } from '../schema';

import { sentence } from './define';

/**
 * Checks that a value is a project and that everything it refers to is there.
 *
 * @throws DomainError `project.…` with one sentence
 */
export function validateProject(value: unknown): Project {
  const parsed = ProjectSchema.safeParse(migrate(value, Object.fromEntries(WALL_TYPES.map((t) => [t.id, t]))));
  if (!parsed.success) throw new DomainError('project.shape', `The project is not valid: ${sentence(parsed.error)}`, []);
  const project = parsed.data;
  const fail = (what: string, id: string): never => {
    throw new DomainError('project.reference', `The project is not valid: ${what}.`, [id]);
  };
  for (const collection of COLLECTIONS)
    for (const [key, entity] of Object.entries(project[collection])) if (entity.id !== key) fail(`${collection}.${key} carries another id (${entity.id})`, key);
  const known = (collection: Record<string, unknown>, id: string): boolean => Object.hasOwn(collection, id);
  for (const c of Object.values(project.corners))
    if (!known(project.levels, c.level)) fail(`corner ${c.id} stands on a level that is not there (${c.level})`, c.id);
  for (const w of Object.values(project.walls)) {
    if (!known(project.levels, w.level)) fail(`wall ${w.id} stands on a level that is not there (${w.level})`, w.id);
    for (const end of [w.start, w.end]) if (!known(project.corners, end)) fail(`wall ${w.id} ends at a corner that is not there (${end})`, w.id);
    if (distance(project.corners[w.start], project.corners[w.end]) < 0.01) fail(`wall ${w.id} is shorter than 10 mm`, w.id);
    if (w.type !== null && !known(project.wallTypes, w.type)) fail(`wall ${w.id} is of a type that is not there (${w.type})`, w.id);
    if (w.type === null && w.thickness === null && w.kind === 'wall') fail(`wall ${w.id} has neither a type nor a thickness`, w.id);
  }
  for (const o of Object.values(project.openings)) {
    if (!known(project.walls, o.wall)) fail(`opening ${o.id} stands in a wall that is not there (${o.wall})`, o.id);
    checkOpening(project, o);
  }
  for (const r of Object.values(project.rooflights)) if (known(project.levels, r.level)) checkRooflight(project, r);
  for (const collection of ON_LEVEL)
    for (const c of Object.values(project[collection]))
      if (!known(project.levels, c.level)) fail(`${c.id} stands on a level that is not there (${c.level})`, c.id);
  for (const d of Object.values(project.dormers))
    if (!known(project.roofs, d.roof)) fail(`dormer ${d.id} stands on a roof that is not there (${d.roof})`, d.id);
  for (const p of Object.values(project.pictures))
    if (p.viewpoint !== null && !known(project.viewpoints, p.viewpoint)) fail(`picture ${p.id} belongs to a viewpoint that is not there`, p.id);
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
