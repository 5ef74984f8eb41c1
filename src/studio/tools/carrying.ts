import type { Vec2 } from '@/core/geometry/vec';
import { runOf } from '@/core/project/wall-meeting';
import { get } from './session';

/** Ids of the selected things that can be carried: walls, pieces, columns, rooflights. */
export function carried(): string[] {
  const { project, selection } = get();
  return selection.map((s) => s.entity).filter((id) => project.walls[id] || project.pieces[id] || project.columns[id] || project.rooflights[id]);
}

/** The middle of the selected things. */
function middle(ids: readonly string[]): Vec2 {
  const { project } = get();
  const points = ids.flatMap((id): Vec2[] => {
    const wall = project.walls[id];
    if (wall) return [project.corners[wall.start], project.corners[wall.end]];
    return [project.pieces[id] ?? project.columns[id] ?? project.rooflights[id]];
  });
  const xs = points.map((p) => p.x);
  const ys = points.map((p) => p.y);
  return { x: (Math.min(...xs) + Math.max(...xs)) / 2, y: (Math.min(...ys) + Math.max(...ys)) / 2 };
}

/** Moves or copies the selected things by a way, turned by an angle about their middle. */
export function carryCopies(by: Vec2, turn: number, copy: boolean): void {
  const ids = carried();
  if (!ids.length) return get().say('Nothing was moved: select walls, columns or pieces first.');
  // A copy in the very same place would not be seen.
  const aside = copy && by.x === 0 && by.y === 0 && turn === 0 ? { x: 0.5, y: -0.5 } : by;
  get().run('carry', { ids, about: middle(ids), turn, mirror: null, by: aside, copy });
}

/** Mirrors the selected things about their middle, left to right or front to back. */
export function mirrorSelection(axis: 'x' | 'y'): void {
  const ids = carried();
  if (ids.length) get().run('carry', { ids, about: middle(ids), turn: 0, mirror: axis === 'x' ? Math.PI / 2 : 0, by: { x: 0, y: 0 }, copy: false });
}

/** Selects the walls that lie in one line with the selected one, so that they are moved together. */
export function lineUp(): void {
  const { project, selection, select } = get();
  const wall = selection.find((s) => project.walls[s.entity]);
  if (wall) select(runOf(project, wall.entity).map((entity) => ({ entity, target: null })));
}
