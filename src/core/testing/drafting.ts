import { runChange, type CommandArgs, type CommandName } from '../project/commands';
import { emptyProject, type Project } from '../project/schema';

let step = 0;

/** The project after a command, with an id of its own for every call. */
export const edit = <N extends CommandName>(project: Project, command: N, args: CommandArgs<N>): Project =>
  runChange(project, { id: `change${String(step++).padStart(5, '0')}`, kind: 'do', command, args }).project;

/** Walls along points of the plan, metres. */
export const draw = (project: Project, points: [number, number][], extra: Partial<CommandArgs<'wall.draw'>> = {}): Project =>
  edit(project, 'wall.draw', { level: 'ground', points: points.map(([x, y]) => ({ x, y })), closed: false, thickness: 0.1, ...extra });

/** A house of outer walls round corners of the plan, metres. */
export const house = (corners: [number, number][], thickness = 0.3): Project => draw(emptyProject('p', 'House'), corners, { closed: true, thickness });

/** Id of the first wall whose ends pass a test. */
export const wallAt = (project: Project, test: (a: { x: number; y: number }, b: { x: number; y: number }) => boolean): string =>
  Object.values(project.walls).find((w) => test(project.corners[w.start], project.corners[w.end]))!.id;
