import type { Draft } from 'immer';
import { DomainError } from './errors';
import type { Level, Project, Roof } from './schema';
import { planOf, stateOf } from './topology';
import { collections, collectionsOnLevel } from './kinds';
import { letGo } from './standing-on';
import { withWhatGoesAlong } from './things';
import { dropUnusedCorners } from './walls';
import { DUST, NEAR } from '../units/tolerance';

type NewId = (prefix: string) => string;

/** The levels of a project from the lowest to the highest. */
export const levelsOf = (project: Pick<Project, 'levels'>): Level[] => Object.values(project.levels).sort((a, b) => a.elevation - b.elevation);

/** The level whose ceiling carries the floor of another one; null for the lowest. */
export function levelBelow(project: Pick<Project, 'levels'>, id: string): Level | null {
  const { structure } = project.levels[id];
  const levels = levelsOf(project).filter((l) => l.structure === structure);
  const at = levels.findIndex((l) => l.id === id);
  return at > 0 ? levels[at - 1] : null;
}

/** The level whose floor lies on top of another one; null for the highest. */
export function levelAbove(project: Pick<Project, 'levels'>, id: string): Level | null {
  const { structure } = project.levels[id];
  const levels = levelsOf(project).filter((l) => l.structure === structure);
  return levels[levels.findIndex((l) => l.id === id) + 1] ?? null;
}

/** Raises everything of a building from a height on, the levels as a whole. */
function lift(draft: Draft<Project>, structure: string, from: number, by: number, except?: string): void {
  for (const level of Object.values(stateOf(draft.levels)))
    if (level.structure === structure && level.id !== except && level.elevation > from - DUST) draft.levels[level.id].elevation += by;
}

/** Changes a level; what stands on top of it goes up and down with its height, and with the thickness of its slab where it lies on another. */
export function setLevel(draft: Draft<Project>, id: string, set: Partial<Level>): void {
  const before = { ...stateOf(draft.levels)[id] };
  const below = levelBelow({ levels: stateOf(draft.levels) }, id);
  Object.assign(draft.levels[id], set);
  // Moved as a whole, a level carries what is above along.
  const { structure } = before;
  if (set.elevation !== undefined) lift(draft, structure, before.elevation + NEAR, set.elevation - before.elevation, id);
  if (set.slab !== undefined && below) lift(draft, structure, before.elevation, set.slab - before.slab);
  if (set.height !== undefined) lift(draft, structure, before.elevation + NEAR, set.height - before.height);
}

/** The walls of a level that have the outside on one of their faces. */
export function outerWalls(project: Project, level: string): Set<string> {
  const { arrangement } = planOf(project, level);
  return new Set(arrangement.outside.flatMap((cycle) => cycle.edges.map((e) => arrangement.pieces[e.piece]!.line)));
}

/** How far the floor of a building apart lies above the ground, metres. */
const APART = 0.15;

/**
 * Adds a level above or below another one, or for a building apart, with all of its walls, the outer ones, or none. Levels further up or down make
 * room for it; a roof on the one below goes up to it.
 */
export function addLevel(
  draft: Draft<Project>,
  args: { id: string; name: string; of: string; where: 'above' | 'below' | 'apart'; walls: 'all' | 'outer' | 'none'; height: number; slab: number },
  newId: NewId,
): void {
  const project = { ...stateOf(draft), levels: { ...stateOf(draft.levels) } } as Project;
  const host = project.levels[args.of];
  if (args.where === 'apart') {
    // It shares neither walls nor heights with any other.
    const elevation = Math.round((project.site.ground + APART) * 1e9) / 1e9;
    draft.levels[args.id] = {
      id: args.id,
      name: args.name,
      elevation,
      height: args.height,
      slab: args.slab,
      underlay: null,
      structure: args.name,
      finishes: {},
    };
    return;
  }
  const above = args.where === 'above';
  if (above) lift(draft, host.structure, host.elevation + NEAR, args.height + args.slab);
  else
    for (const id of Object.keys(project.levels))
      if (project.levels[id].structure === host.structure && project.levels[id].elevation < host.elevation - DUST)
        draft.levels[id].elevation -= args.height + host.slab;
  const elevation = above ? host.elevation + host.height + args.slab : host.elevation - host.slab - args.height;
  draft.levels[args.id] = {
    id: args.id,
    name: args.name,
    elevation: Math.round(elevation * 1e9) / 1e9,
    height: args.height,
    slab: args.slab,
    underlay: null,
    structure: host.structure,
    finishes: {},
  };
  const outer = outerWalls(project, host.id);
  const twin = new Map<string, string>();
  const corners = new Map<string, string>();
  const corner = (id: string): string => {
    let known = corners.get(id);
    if (!known) {
      corners.set(id, (known = newId('corner')));
      draft.corners[known] = { ...stateOf(project.corners)[id], id: known, level: args.id };
    }
    return known;
  };
  for (const wall of Object.values(stateOf(project.walls))) {
    if (wall.level !== host.id || args.walls === 'none' || wall.status === 'removed') continue;
    if (args.walls === 'outer' && !outer.has(wall.id)) continue;
    const id = newId('wall');
    twin.set(wall.id, id);
    const roofed = above && wall.top.kind === 'roof';
    draft.walls[id] = {
      ...wall,
      id,
      level: args.id,
      start: corner(wall.start),
      end: corner(wall.end),
      base: 0,
      top: roofed ? { kind: 'roof' } : { kind: 'ceiling' },
    };
    if (roofed) draft.walls[wall.id].top = { kind: 'ceiling' };
  }
  if (!above || args.walls === 'none') return;
  // The roof goes up, its edges told by the walls now below it; shelters stay, and where there are no walls to carry it, so does the roof.
  for (const roof of Object.values(stateOf(project.roofs))) {
    if (roof.level !== host.id || roof.over.kind !== 'level') continue;
    const edges: Roof['edges'] = {};
    for (const [key, edge] of Object.entries(roof.edges)) edges[twin.get(key) ?? key] = edge;
    Object.assign(draft.roofs[roof.id], { level: args.id, edges });
  }
}

/** Takes a level away with all that stands on it; what is above comes down. @throws DomainError `level.last` */
export function deleteLevel(draft: Draft<Project>, id: string): void {
  const levels = stateOf(draft.levels);
  if (Object.keys(levels).length < 2)
    throw new DomainError('level.last', 'The level was not deleted: a house has at least one; delete its walls instead.', [id]);
  const { elevation, height, slab, structure } = levels[id];
  const gone = new Set(
    Object.values(stateOf(draft.walls))
      .filter((w) => w.level === id)
      .map((w) => w.id),
  );
  for (const [key, o] of Object.entries(stateOf(draft.openings))) if (gone.has(o.wall)) delete draft.openings[key];
  const here = collectionsOnLevel().flatMap((name) =>
    Object.values(stateOf(draft[name]) as Record<string, { id: string; level: string }>).flatMap((t) => (t.level === id ? [t.id] : [])),
  );
  const along = new Set(withWhatGoesAlong(stateOf(draft) as Project, here));
  // A piece of another level may have stood on one of this.
  letGo(draft, along);
  for (const name of collections()) if (name !== 'levels') for (const key of Object.keys(stateOf(draft[name]))) if (along.has(key)) delete draft[name][key];
  for (const key of gone) for (const side of ['left', 'right']) delete draft.outside.faces[`${key}/${side}`];
  dropUnusedCorners(draft);
  delete draft.levels[id];
  lift(draft, structure, elevation, -(height + slab));
}
