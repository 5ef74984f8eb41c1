import { produce, type Draft } from 'immer';
import { collections, type Thing } from './kinds';
import { sideKey, type Choices, type Project } from './schema';
import { addressOf, applyFinish, exists, targetOf, type Target } from './targets';
import { stateOf } from './topology';

/** A choice somebody has made: for what, and which finish. */
export interface Choice {
  target: Target;
  finish: string;
}

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
  for (const collection of collections())
    for (const thing of Object.values<Thing>(project[collection] as Record<string, Thing>))
      for (const part in thing.finishes) yield { target: { kind: 'part', of: thing.id, part }, finish: thing.finishes[part] };
  for (const patch of Object.values(project.patches)) {
    yield { target: { kind: 'patch', patch: patch.id, part: 'field' }, finish: patch.finish };
    if (patch.panels?.field) yield { target: { kind: 'patch', patch: patch.id, part: 'panels' }, finish: patch.panels.field };
    if (patch.panels?.moulding) yield { target: { kind: 'patch', patch: patch.id, part: 'moulding' }, finish: patch.panels.moulding };
  }
  for (const moulding of Object.values(project.mouldings)) yield { target: { kind: 'moulding', moulding: moulding.id }, finish: moulding.finish };
}

const own = (target: Target): boolean => target.kind === 'patch' || target.kind === 'moulding';

/** Styles of runs, and what of their looks and of those of their units is apart: of units only where something is. */
function joineryOf({ runs, cabinets }: Pick<Project, 'runs' | 'cabinets'>): Choices['joinery'] {
  const out: Choices['joinery'] = {};
  for (const { id, style, look } of Object.values(runs)) out[id] = { style, look };
  for (const { id, look } of Object.values(cabinets)) if (Object.keys(look).length) out[id] = { style: null, look };
  return out;
}

/** What a scheme consists of, as it stands on the things of a project. */
export function choicesOf(project: Project): Choices {
  const finishes: Record<string, string> = {};
  // Those of patches and mouldings stand on these themselves.
  for (const { target, finish } of choices(project)) if (!own(target)) finishes[addressOf(target)] = finish;
  return { finishes, layings: project.layings, patches: project.patches, mouldings: project.mouldings, joinery: joineryOf(project) };
}

/**
 * Another finish comes with a laying of its own: units chosen for the one before do not hold for it.
 *
 * @param but faces, by their keys, whose laying stays where the walls of a room are meant
 */
export function forgetLaying(draft: Draft<Project>, target: Target, but: Readonly<Record<string, unknown>> = {}): void {
  for (const address of Object.keys(stateOf(draft.layings))) {
    const face = targetOf(address);
    const meant =
      target.kind === 'walls'
        ? face?.kind === 'wall' && face.room === target.room && !Object.hasOwn(but, sideKey(face.wall, face.side))
        : address === addressOf(target);
    if (meant) delete draft.layings[address];
  }
}

/** Gives the walls of a room (null: the outside) a finish; those with a finish of their own keep it, and how it lies. */
export function giveOtherWalls(draft: Draft<Project>, room: string | null, finish: string): void {
  const owner = room === null ? draft.outside : draft.rooms[room];
  forgetLaying(draft, { kind: 'walls', room }, stateOf(owner.faces));
  owner.walls = finish;
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
  for (const { id } of Object.values(project.runs)) {
    // A run that the scheme has no word for was made in another one: it stays as it is.
    if (!Object.hasOwn(next.joinery, id)) continue;
    Object.assign(draft.runs[id], next.joinery[id]);
    for (const unit of Object.values(project.cabinets)) if (unit.run === id) draft.cabinets[unit.id].look = next.joinery[unit.id]?.look ?? {};
  }
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

/** A project as a picture of it is taken: with one of its schemes in hand, in the light of a moment; the same object where neither changes. */
export function takenIn(project: Project, scheme: string, moment: string): Project {
  const dressed = withScheme(project, scheme);
  return moment === dressed.site.moment ? dressed : { ...dressed, site: { ...dressed.site, moment } };
}
