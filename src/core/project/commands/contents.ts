import { current } from 'immer';
import { z } from 'zod';
import { isSimple, signedArea } from '../../geometry/polygon';
import type { Vec2 } from '../../geometry/vec';
import { DomainError } from '../errors';
import { checkDormer } from '../dormers';
import { collections, kindOf, referencesOf, type CollectionName, type PROJECT_KINDS } from '../kinds';
import { Id, Name, type Project } from '../schema';
import { collectionOf } from '../things';
import { checkStair } from '../stairs';
import { define, need, type CommandDefinition } from './define';

/** Refuses an outline that crosses itself or encloses nothing. @throws DomainError `outline.…` */
function checkOutline(name: string, id: string, points: readonly Vec2[]): void {
  if (!isSimple(points)) throw new DomainError('outline.crossed', `${name} was not set: its outline crosses itself; move one of its corners.`, [id]);
  if (Math.abs(signedArea(points)) < 0.01)
    throw new DomainError('outline.small', `${name} was not set: its outline encloses nothing; set its corners apart.`, [id]);
}

/** Whether a thing can stand as it is set. @throws DomainError */
type Check<K extends CollectionName> = (project: Project, thing: Project[K][string]) => void;

/** What is looked at besides the shape of a thing, and whether all that it refers to is there. */
const CHECKS: { [K in CollectionName]?: Check<K> } = {
  stairs: checkStair,
  dormers: checkDormer,
  voids: (_, own) => checkOutline(own.name, own.id, own.points),
  slabs: (_, own) => checkOutline(own.name, own.id, own.points),
  grounds: (_, own) => checkOutline(own.name, own.id, own.points),
  beams: (_, { id, name, a, b }) => {
    if (Math.hypot(b.x - a.x, b.y - a.y, b.z - a.z) < 0.01)
      throw new DomainError('beam.short', `${name} was not set: its ends lie in one point; set them apart.`, [id]);
  },
};

/** The command that sets a thing of a kind whole. @throws DomainError `missing` where what it refers to is not there */
export const putCommand = (collection: CollectionName) => {
  const { schema, put } = kindOf(collection);
  return define({
    title: put!.title,
    shell: put!.shell,
    args: schema,
    apply(draft, thing) {
      for (const { to, id } of referencesOf(collection, thing))
        need(draft[to as CollectionName] as Record<string, unknown>, id, kindOf(to as CollectionName).word);
      (draft[collection] as Record<string, unknown>)[thing.id] = thing;
      (CHECKS[collection] as Check<CollectionName> | undefined)?.(current(draft) as Project, thing as never);
    },
  });
};

/** The kinds whose things are set whole, by the word their command begins with. */
interface Put {
  guide: 'guides';
  column: 'columns';
  rooflight: 'rooflights';
  dormer: 'dormers';
  stair: 'stairs';
  void: 'voids';
  slab: 'slabs';
  beam: 'beams';
  ground: 'grounds';
  fence: 'fences';
  run: 'runs';
  unit: 'cabinets';
}
type PutCommands = { [W in keyof Put as `${W}.put`]: CommandDefinition<(typeof PROJECT_KINDS)[Put[W]]['schema']> };

/** The name of the command that sets things of a kind whole: `stair.put`. */
const putName = (collection: CollectionName): string => `${kindOf(collection).word.split(' ')[0]}.put`;

/** A command for every kind that is set whole. */
export const putCommands = (): PutCommands =>
  Object.fromEntries(
    collections()
      .filter((name) => kindOf(name).put)
      .map((name) => [putName(name), putCommand(name)]),
  ) as unknown as PutCommands;

/** Edits of what a project holds, whatever its kind. */
export const contentsCommands = {
  'thing.rename': define({
    title: 'Rename',
    args: z.object({ id: Id, name: Name }),
    apply(draft, { id, name }) {
      const collection = collectionOf(current(draft) as Project, id);
      const own = draft.contents.groups[id] ?? (collection && (draft[collection] as Record<string, { name?: string }>)[id]);
      if (!own || own.name === undefined) throw new DomainError('missing', 'Nothing was renamed: this thing has no name of its own.', [id]);
      own.name = name;
    },
  }),
  'contents.hide': define({
    title: 'Show or hide',
    args: z.object({ ids: z.array(Id).min(1).max(5000), hidden: z.boolean() }),
    apply: (draft, { ids, hidden }) => void (draft.contents.hidden = listed(draft.contents.hidden, ids, hidden)),
  }),
  'contents.hold': define({
    title: 'Hold or let go',
    args: z.object({ ids: z.array(Id).min(1).max(5000), held: z.boolean() }),
    apply: (draft, { ids, held }) => void (draft.contents.held = listed(draft.contents.held, ids, held)),
  }),
  'contents.group': define({
    title: 'Group',
    args: z.object({ id: Id, name: Name, members: z.array(Id).max(5000), together: z.boolean().default(false) }),
    apply(draft, group) {
      // A thing belongs to one group at a time; one without members ends.
      for (const other of Object.values(draft.contents.groups)) other.members = other.members.filter((m) => !group.members.includes(m));
      if (group.members.length) draft.contents.groups[group.id] = group;
      for (const other of Object.values(draft.contents.groups)) if (!other.members.length) delete draft.contents.groups[other.id];
      if (!group.members.length) delete draft.contents.groups[group.id];
    },
  }),
};

function listed(list: readonly string[], ids: readonly string[], on: boolean): string[] {
  const rest = list.filter((id) => !ids.includes(id));
  return on ? [...rest, ...new Set(ids)] : rest;
}
