import { DEFAULTS, type Project } from '@/core/project/schema';
import { newId } from '../store/studio';
import { get, set } from './session';

/** Which walls of the level it is added to a new level takes over. */
export const TAKEN_OVER = [
  ['outer', 'the outer walls'],
  ['all', 'all walls'],
  ['none', 'no walls'],
] as const;
export type TakenOver = (typeof TAKEN_OVER)[number][0];

const NAMES = { above: 'Upper floor', below: 'Cellar', apart: 'Outbuilding' } as const;

/** Adds a level above or below another one, or apart from it, and takes it in hand. */
export function addLevel(of: string, where: 'above' | 'below' | 'apart', walls: TakenOver): void {
  const { project, run, select } = get();
  const level = project.levels[of];
  const id = newId('level');
  const taken = new Set(Object.values(project.levels).map((l) => l.name));
  let name: string = NAMES[where];
  for (let n = 2; taken.has(name); n++) name = `${NAMES[where]} ${n}`;
  const slab = where === 'below' ? level.slab : DEFAULTS.level.slab;
  if (!run('level.add', { id, name, of, where, walls, height: level.height, slab })) return;
  set({ level: id, room: null });
  select([{ entity: id, target: null }]);
  const said = roofWords(project, get().project, of, id, where);
  if (said) get().say(said);
}

const listed = (roofs: readonly { name: string }[]): string => roofs.map((r) => r.name).join(' and ');

/** What became of the roofs of a level when another was set on it. */
function roofWords(before: Project, after: Project, of: string, id: string, where: 'above' | 'below' | 'apart'): string | null {
  if (where !== 'above') return null;
  const own = Object.values(before.roofs).filter((r) => r.level === of);
  const up = own.filter((r) => after.roofs[r.id]?.level === id);
  const stay = own.filter((r) => after.roofs[r.id]?.level === of);
  const words = [
    up.length ? `${listed(up)} went up onto ${after.levels[id].name}` : '',
    stay.length ? `${listed(stay)} stayed on ${after.levels[of].name}` : '',
  ].filter(Boolean);
  return words.length ? `${words.join('; ')}.` : null;
}

/** Deletes a level, and says which roofs went with it. */
export function removeLevel(id: string): void {
  const { project, run } = get();
  const roofs = Object.values(project.roofs).filter((r) => r.level === id);
  if (!run('level.delete', { id })) return;
  if (roofs.length) get().say(`${listed(roofs)} went with ${project.levels[id].name}; undo brings both back.`);
}
