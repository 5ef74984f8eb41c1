import { placedSet, pieceSetOf, setWith, type PieceSet } from '@/core/project/piece-set';
import type { LibraryEntry } from '../store/api';
import { keepInLibrary, useLibrary } from '../store/library';
import { newId, type Spot } from '../store/studio';
import { snapStep } from '@/core/units/length';
import { selectedPieces } from './selected';
import { comingId, comingIds, get, set, wasSet, type TablePoint } from './session';

/** Sets: pieces that are kept together, chosen and moved as one, kept in the library and placed in any project. */

/** What is chosen by a press on something: all of a set that is not open. */
export function chosenWith(spot: Spot): Spot[] {
  const { project, openSet } = get();
  const own = setWith(project, spot.entity);
  if (!own || own.id === openSet) return [spot];
  const members = own.members.filter((id) => project.pieces[id]);
  // The one that was pressed is the last: the docket names it.
  return [...members.filter((id) => id !== spot.entity).map((entity) => ({ entity, target: null })), spot];
}

/** The set that is chosen as a whole; null: none. */
export function chosenSet(): { id: string; name: string; members: string[] } | null {
  const { project, selection } = get();
  const own = selection.length ? setWith(project, selection[0].entity) : null;
  const chosen = new Set(selection.map((s) => s.entity));
  return own && own.members.filter((id) => project.pieces[id]).every((id) => chosen.has(id)) && selection.every((s) => own.members.includes(s.entity))
    ? own
    : null;
}

/** Keeps the selected pieces together from now on. */
export function keepTogether(): void {
  const members = selectedPieces();
  const names = new Set(Object.values(get().project.contents.groups).map((g) => g.name));
  let n = 1;
  while (names.has(`Set ${n}`)) n++;
  get().run('contents.group', { id: newId('group'), name: `Set ${n}`, members, together: true });
}

/** Opens a set, so that one of its pieces is changed alone; null closes it. */
export function openSet(id: string | null): void {
  set({ openSet: id });
  if (id) get().select([]);
}

/** Its pieces are each on their own again. */
export const partSet = (id: string): boolean => get().run('contents.group', { id, name: get().project.contents.groups[id].name, members: [], together: false });

/** Keeps a set in one's own library, for any project; one of the same name takes its place. */
export function keepSet(id: string): Promise<void> {
  const { project } = get();
  const { name, members } = project.contents.groups[id];
  const there = members.filter((m) => project.pieces[m]);
  return keepInLibrary({ kind: 'set', name, data: pieceSetOf(project, there) });
}

/** What a tool that places a set has in hand, as a card would be. */
const PREFIX = 'set ';
export const cardOfSet = (id: string): string => PREFIX + id;
export const isSetCard = (card: string): boolean => card.startsWith(PREFIX);

type SetEntry = Extract<LibraryEntry, { kind: 'set' }>;

/** The sets of the library. */
export const setsIn = (entries: readonly LibraryEntry[]): SetEntry[] => entries.flatMap((e) => (e.kind === 'set' ? [e] : []));

function placing(card: string, at: TablePoint): { id: string; name: string; pieces: PieceSet['pieces']; finishes: PieceSet['finishes'] } | null {
  const { project, level } = get();
  const entry = setsIn(useLibrary.getState().entries).find((e) => cardOfSet(e.id) === card);
  if (!entry) return null;
  const { units } = project;
  const made = placedSet(entry.data, project, level, { x: snapStep(at.plan.x, units), y: snapStep(at.plan.y, units) }, comingIds('piece'));
  return { id: comingId('group'), name: entry.name, ...made };
}

/** Shows a set where it would stand. */
export function showSet(card: string, at: TablePoint): void {
  const made = placing(card, at);
  if (made) get().preview('set.place', made);
}

/** Puts a set down. */
export function dropSet(card: string, at: TablePoint): void {
  const made = placing(card, at);
  if (!made || !get().run('set.place', made)) return;
  wasSet('group');
  wasSet('piece');
  set({ measure: null });
  get().select(made.pieces.map(({ id }) => ({ entity: id, target: null })));
}
