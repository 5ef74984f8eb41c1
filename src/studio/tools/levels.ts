import { DEFAULTS } from '@/core/project/schema';
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
}
