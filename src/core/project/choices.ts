import { produce, type Draft } from 'immer';
import { addressOf, targetOf } from './addresses';
import { applyFinish, type FaceTarget } from './commands/finishing';
import type { Choices, Project } from './schema';
import { stateOf } from './topology';

/** A choice somebody has made: for what, and which finish. */
export interface Choice {
  target: FaceTarget;
  finish: string;
}

const ROOF_PARTS = ['covering', 'soffit', 'fascia', 'timber'] as const;

/** Every finish chosen in a project, patches and mouldings included. */
export function* choices(project: Project): Generator<Choice> {
  const sides = function* (room: string | null, owner: { walls: string | null; faces: Record<string, string> }): Generator<Choice> {
    if (owner.walls) yield { target: { kind: 'walls', room }, finish: owner.walls };
    for (const [key, finish] of Object.entries(owner.faces)) {
      const [wall, side] = key.split('/');
      yield { target: { kind: 'wall', room, wall, side: side === 'left' ? 'left' : 'right' }, finish };
    }
  };
  for (const room of Object.values(project.rooms)) {
    if (room.floor) yield { target: { kind: 'floor', room: room.id }, finish: room.floor };
    if (room.ceiling) yield { target: { kind: 'ceiling', room: room.id }, finish: room.ceiling };
    yield* sides(room.id, room);
  }
  yield* sides(null, project.outside);
  if (project.outside.ground) yield { target: { kind: 'ground' }, finish: project.outside.ground };
  for (const piece of Object.values(project.pieces))
    for (const [part, finish] of Object.entries(piece.finishes)) yield { target: { kind: 'piece', piece: piece.id, part }, finish };
  for (const opening of [...Object.values(project.openings), ...Object.values(project.rooflights)])
    for (const [part, finish] of Object.entries(opening.finishes)) yield { target: { kind: 'opening', opening: opening.id, part }, finish };
  for (const column of Object.values(project.columns)) if (column.finish) yield { target: { kind: 'column', column: column.id }, finish: column.finish };
  for (const roof of Object.values(project.roofs))
    for (const part of ROOF_PARTS) {
      const finish = roof[part];
      if (finish) yield { target: { kind: 'roof', roof: roof.id, part }, finish };
    }
  for (const collection of [project.stairs, project.slabs, project.dormers])
    for (const thing of Object.values<{ id: string; finishes: Record<string, string> }>(collection))
      for (const [part, finish] of Object.entries<string>(thing.finishes)) yield { target: { kind: 'part', of: thing.id, part }, finish };
  for (const [collection, part] of [
    [project.beams, 'body'],
    [project.fences, 'body'],
    [project.grounds, 'surface'],
  ] as const)
    for (const thing of Object.values<{ id: string; finish: string | null }>(collection))
      if (thing.finish) yield { target: { kind: 'part', of: thing.id, part }, finish: thing.finish };
  for (const patch of Object.values(project.patches)) {
    yield { target: { kind: 'patch', patch: patch.id, part: 'field' }, finish: patch.finish };
    if (patch.panels?.field) yield { target: { kind: 'patch', patch: patch.id, part: 'panels' }, finish: patch.panels.field };
    if (patch.panels?.moulding) yield { target: { kind: 'patch', patch: patch.id, part: 'moulding' }, finish: patch.panels.moulding };
  }
  for (const moulding of Object.values(project.mouldings)) yield { target: { kind: 'moulding', moulding: moulding.id }, finish: moulding.finish };
}

/** The room a choice belongs to: null for the outside, undefined where it is in none. */
export function roomOfTarget(project: Project, target: FaceTarget): string | null | undefined {
  if ('room' in target) return target.room;
  if (target.kind === 'patch') return project.patches[target.patch]?.on.room;
  if (target.kind === 'moulding') return project.mouldings[target.moulding]?.room;
  if (target.kind === 'ground') return null;
  return undefined;
}

const own = (target: FaceTarget): boolean => target.kind === 'patch' || target.kind === 'moulding';

/** What a scheme consists of, as it stands on the things of a project. */
export function choicesOf(project: Project): Choices {
  const finishes: Record<string, string> = {};
  // Those of patches and mouldings stand on these themselves.
  for (const { target, finish } of choices(project)) if (!own(target)) finishes[addressOf(target)] = finish;
  return { finishes, layings: project.layings, patches: project.patches, mouldings: project.mouldings };
}

/** Whether what a finish is chosen for is still there. */
export function exists(project: Project, target: FaceTarget): boolean {
  const has = (collection: Record<string, unknown>, id: string): boolean => Object.hasOwn(collection, id);
  switch (target.kind) {
    case 'floor':
    case 'ceiling':
      return has(project.rooms, target.room);
    case 'walls':
      return target.room === null || has(project.rooms, target.room);
    case 'wall':
      return has(project.walls, target.wall) && (target.room === null || has(project.rooms, target.room));
    case 'piece':
      return has(project.pieces, target.piece);
    case 'opening':
      return has(project.openings, target.opening) || has(project.rooflights, target.opening);
    case 'column':
      return has(project.columns, target.column);
    case 'roof':
      return has(project.roofs, target.roof);
    case 'part':
      return [project.stairs, project.slabs, project.dormers, project.beams, project.fences, project.grounds].some((c) => has(c, target.of));
    case 'patch':
      return has(project.patches, target.patch);
    case 'moulding':
      return has(project.mouldings, target.moulding);
    case 'ground':
      return true;
  }
}

/** Takes away every choice of the scheme in hand and lays others on the things that are there. */
function layChoices(draft: Draft<Project>, next: Choices): void {
  const project = stateOf(draft as Project);
  for (const { target } of [...choices(project)]) if (!own(target)) applyFinish(draft, target, null);
  const there = (room: string | null): boolean => room === null || Object.hasOwn(project.rooms, room);
  draft.layings = { ...next.layings };
  draft.patches = Object.fromEntries(
    Object.entries(next.patches).filter(([, p]) => there(p.on.room) && (p.on.kind !== 'wall' || Object.hasOwn(project.walls, p.on.wall))),
  );
  draft.mouldings = Object.fromEntries(Object.entries(next.mouldings).filter(([, m]) => there(m.room)));
  // All walls of a room come before single ones, which they would wipe out.
  const entries = Object.entries(next.finishes).sort(([a], [b]) => Number(b.startsWith('walls/')) - Number(a.startsWith('walls/')));
  for (const [address, finish] of entries) {
    const target = targetOf(address);
    if (target && exists(project, target)) applyFinish(draft, target, finish);
  }
}

/** Takes a scheme in hand; the choices of the one before are kept with it. */
export function takeScheme(draft: Draft<Project>, id: string): void {
  if (draft.scheme === id) return;
  const before = choicesOf(stateOf(draft as Project));
  const next = stateOf(draft.schemes[id] as Project['schemes'][string]).choices;
  draft.schemes[draft.scheme].choices = before as Draft<Choices>;
  if (next) layChoices(draft, next);
  draft.schemes[id].choices = null;
  draft.scheme = id;
}

const seen = new WeakMap<Project, Map<string, Project>>();

/** A project as it would be with another of its schemes in hand; the same object while neither changes. */
export function withScheme(project: Project, id: string): Project {
  if (project.scheme === id || !Object.hasOwn(project.schemes, id)) return project;
  let known = seen.get(project);
  if (!known) seen.set(project, (known = new Map()));
  let made = known.get(id);
  if (!made) known.set(id, (made = produce(project, (draft) => takeScheme(draft, id))));
  return made;
}
