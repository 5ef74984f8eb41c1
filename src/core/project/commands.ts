import { applyPatches, current, enablePatches, produceWithPatches, type Patch } from 'immer';
import { z } from 'zod';
import { choices } from './choices';
import { DomainError } from './errors';
import { dropFaces } from './face-carry';
import { settledHung } from './hanging';
import { checkOpening } from './openings';
import { settleOpenings } from './relations';
import { checkRooflights } from './rooflights';
import { Id, ProjectSchema, type Project } from './schema';
import { collections, type CollectionName } from './kinds';
import { dropRuns, keepWidths, letGoOfOpenings } from './runs';
import { letGo } from './standing-on';
import { forget, refuseHeld, withWhatGoesAlong } from './things';
import { reconcileRooms, stateOf } from './topology';
import { deleteWalls } from './walls';

import { boardCommands } from './commands/boards';
import { cabinetCommands } from './commands/cabinets';
import { contentsCommands, putCommands } from './commands/contents';
import { define, sentence, type CommandDefinition } from './commands/define';
import { dressingCommands } from './commands/dressing';
import { pieceCommands } from './commands/pieces';
import { projectCommands } from './commands/project';
import { shellCommands } from './commands/shell';
import { validateProject } from './commands/validate';

export { Keep, sentence } from './commands/define';
export { Target } from './targets';
export { broughtUp, validateProject } from './commands/validate';

enablePatches();

const Patches = z
  .array(z.object({ op: z.enum(['add', 'remove', 'replace']), path: z.array(z.union([z.string(), z.number()])).max(12), value: z.unknown().optional() }))
  .max(20000);

/** Deleted in ways of their own; everything else without further ado. */
const OWN_WAY: ReadonlySet<CollectionName> = new Set([
  'schemes',
  'finishes',
  'profiles',
  'joinery',
  'wallTypes',
  'levels',
  'corners',
  'walls',
  'rooms',
  'viewpoints',
  'pictures',
  'boards',
]);

const commands = {
  ...projectCommands,
  ...shellCommands,
  ...putCommands(),
  ...contentsCommands,
  ...cabinetCommands,
  ...dressingCommands,
  ...pieceCommands,
  ...boardCommands,
  delete: define({
    title: 'Delete',
    shell: true,
    args: z.object({ ids: z.array(Id).min(1).max(5000) }),
    apply(draft, { ids }) {
      deleteWalls(
        draft,
        ids.filter((id) => Object.hasOwn(draft.walls, id)),
      );
      refuseHeld(draft, ids);
      const gone = withWhatGoesAlong(stateOf(draft) as Project, ids);
      letGo(draft, new Set(gone));
      forget(draft, gone);
      for (const id of gone) {
        for (const name of collections()) if (!OWN_WAY.has(name)) delete draft[name][id];
        if (Object.hasOwn(draft.wallTypes, id)) {
          if (Object.values(stateOf(draft.walls)).some((w) => w.type === id))
            throw new DomainError('type.used', 'The wall type was not deleted: walls are built of it; give them another type first.', [id]);
          delete draft.wallTypes[id];
        }
        if (Object.hasOwn(draft.finishes, id)) {
          const state = current(draft) as Project;
          if ([...choices(state)].some((c) => c.finish === id) || Object.values(state.joinery).some((s) => Object.values(s.parts).includes(id)))
            throw new DomainError('finish.used', 'The finish was not deleted: it is chosen somewhere; replace it first.', [id]);
          delete draft.finishes[id];
        }
        if (Object.hasOwn(draft.profiles, id)) {
          const used =
            Object.values(stateOf(draft.mouldings)).some((m) => m.profile === id) ||
            Object.values(stateOf(draft.patches)).some((q) => q.panels?.profile === id) ||
            [...Object.values(stateOf(draft.joinery)), ...Object.values(stateOf(draft.runs))].some((s) => s.look.cornices?.some((c) => c.profile === id));
          if (used) throw new DomainError('profile.used', 'The section was not deleted: mouldings are cut from it; give them another one first.', [id]);
          delete draft.profiles[id];
        }
        if (Object.hasOwn(draft.joinery, id)) {
          if (Object.values(stateOf(draft.runs)).some((r) => r.style === id))
            throw new DomainError('style.used', 'The joinery style was not deleted: runs are made in it; give them another one first.', [id]);
          for (const scheme of Object.values(draft.schemes)) if (scheme.style === id) scheme.style = null;
          delete draft.joinery[id];
        }
        if (Object.hasOwn(draft.viewpoints, id)) {
          delete draft.viewpoints[id];
          for (const picture of Object.values(draft.pictures)) if (picture.viewpoint === id) picture.viewpoint = null;
        }
        delete draft.pictures[id];
        delete draft.boards[id];
        for (const board of Object.values(draft.boards)) {
          delete board.pages[id];
          for (const item of Object.values(board.items))
            if (item.id === id || item.page === id || (item.kind === 'picture' && item.picture === id)) delete board.items[item.id];
        }
      }
    },
  }),
  /** Undo and redo: the recorded patches of an earlier change, the other way round. */
  'history.patch': define({
    title: 'Undo',
    args: z.object({ patches: Patches }),
    apply: () => undefined,
  }),
};

export type CommandName = keyof typeof commands;
export type CommandArgs<N extends CommandName> = z.input<(typeof commands)[N]['args']>;
export const commandNames = Object.keys(commands) as CommandName[];

/** One edit as it travels and is kept: enough to run it again on another copy of the project. */
export const Change = z.object({
  id: z.string().regex(/^[A-Za-z0-9_-]{6,40}$/),
  kind: z.enum(['do', 'undo', 'redo']),
  /** The change that is undone or redone. */
  target: z.string().max(40).optional(),
  command: z.enum(commandNames as [CommandName, ...CommandName[]]),
  args: z.unknown(),
});
export type Change = z.infer<typeof Change>;

/** What a change did: the new project, and the patches there and back. */
export interface Outcome {
  project: Project;
  patches: Patch[];
  inverse: Patch[];
  title: string;
}

export const commandTitle = (command: CommandName): string => commands[command].title;

/**
 * Runs a change on a project.
 *
 * @throws DomainError when the arguments or the result are not acceptable; the given project is left as it was
 */
export function runChange(project: Project, change: Change): Outcome {
  // A kind that is set whole brings its command with it.
  const definition = (commands[change.command] ?? (putCommands() as Record<string, unknown>)[change.command]) as CommandDefinition<z.ZodType>;
  const args = definition.args.safeParse(change.args);
  if (!args.success) throw new DomainError('arguments', `Nothing was changed: ${sentence(args.error)}`, []);
  if (change.command === 'history.patch') return runPatches(project, (args.data as { patches: Patch[] }).patches, change.kind);
  let counter = 0;
  const newId = (prefix: string): string => `${prefix}-${change.id}.${counter++}`;
  const [edited, patches, inverse] = produceWithPatches(project, (draft) => definition.apply(draft, args.data, { newId }));
  if (!definition.shell && edited.openings === project.openings && edited.pieces === project.pieces && edited.cabinets === project.cabinets) {
    checkRooflights(project, edited);
    return { project: edited, patches, inverse, title: definition.title };
  }
  // A second pass brings openings and rooms in step; it leaves the walls alone, so that their plan is worked out once.
  let touched: string[] = [];
  const [next, more, back] = produceWithPatches(edited, (draft) => {
    touched = settleOpenings(project, edited, draft);
    keepWidths(project, edited, draft);
    if (definition.shell) {
      reconcileRooms(project, edited, draft, newId);
      dropFaces(project, edited, draft);
      dropRuns(project, edited, draft);
      letGoOfOpenings(project, edited, draft);
    }
  });
  for (const id of touched) checkOpening(next, next.openings[id]);
  checkRooflights(project, next);
  // What hangs at openings comes last: it goes where they have come to stand.
  const hung = settledHung(project, next);
  const [last, most, first] = produceWithPatches(next, (draft) => {
    for (const [id, now] of hung) Object.assign(draft.pieces[id], now);
  });
  return { project: last, patches: [...patches, ...more, ...most], inverse: [...first, ...back, ...inverse], title: definition.title };
}

/** Said where undo reaches the steps that an earlier version of the format kept. */
export const EARLIER_FORMAT =
  'Nothing was taken back: the steps before this one were made with an earlier version of Enstegon; the project as it was then is kept.';

const valueAt = (value: unknown, path: readonly (string | number)[]): unknown =>
  path.reduce<unknown>((v, key) => (v !== null && typeof v === 'object' ? (v as Record<string, unknown>)[key] : undefined), value);

/** Whether a value has fields that another lacks, at any depth. */
const hasMore = (value: unknown, than: unknown): boolean =>
  value !== null &&
  typeof value === 'object' &&
  (than === null ||
    typeof than !== 'object' ||
    Object.keys(value).some((key) => !Object.hasOwn(than, key) || hasMore((value as Record<string, unknown>)[key], (than as Record<string, unknown>)[key])));

/** What undo may reach: all that commands change. */
const UNDONE = new Set<string | number>(Object.keys(ProjectSchema.shape).filter((key) => !['format', 'version', 'id'].includes(key)));

function runPatches(project: Project, patches: Patch[], kind: Change['kind']): Outcome {
  if (patches.some(({ path }) => !UNDONE.has(path[0]))) throw new DomainError('arguments', 'Nothing was changed: undo reaches only what edits change.', []);
  let next: Project;
  try {
    next = applyPatches(project, patches);
  } catch {
    throw new DomainError('history.gone', 'That step can’t be taken back: what it changed has been changed or deleted since.', []);
  }
  const valid = validateProject(next);
  // A step of an earlier format would bring back fields that are none any more.
  if (patches.some(({ path }) => hasMore(valueAt(next, path.slice(0, 2)), valueAt(valid, path.slice(0, 2)))))
    throw new DomainError('history.format', EARLIER_FORMAT, []);
  // It brings back what lacks fields that came since: they are what they are in a file that lacks them.
  const lacking = patches.map(({ path }) => path.slice(0, 2)).filter((path) => hasMore(valueAt(valid, path), valueAt(next, path)));
  // The way back from a patch is its own difference, found by replaying it on a draft.
  const [result, forward, inverse] = produceWithPatches(project, (draft) => {
    applyPatches(draft, patches);
    for (const path of lacking) (valueAt(draft, path.slice(0, -1)) as Record<string, unknown>)[path.at(-1)!] = valueAt(valid, path);
  });
  return { project: result, patches: forward, inverse, title: kind === 'redo' ? 'Redo' : 'Undo' };
}
