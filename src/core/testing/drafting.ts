import { deriveModel } from '../model/derive';
import { runChange, type CommandArgs, type CommandName, type Outcome } from '../project/commands';
import { wallEnds } from '../project/wall-line';
import { emptyProject, type Project } from '../project/schema';

let step = 0;

/** What comes of a command, with an id of its own for every call. */
export const change = <N extends CommandName>(project: Project, command: N, args: CommandArgs<N>): Outcome =>
  runChange(project, { id: `change${String(step++).padStart(5, '0')}`, kind: 'do', command, args });

/** The project after a command. */
export const edit = <N extends CommandName>(project: Project, command: N, args: CommandArgs<N>): Project => change(project, command, args).project;

/** Walls along points of the plan, metres. */
export const draw = (project: Project, points: [number, number][], extra: Partial<CommandArgs<'wall.draw'>> = {}): Project =>
  edit(project, 'wall.draw', { level: 'ground', points: points.map(([x, y]) => ({ x, y })), closed: false, thickness: 0.1, ...extra });

/** A house of outer walls round corners of the plan, metres. */
export const house = (corners: [number, number][], thickness = 0.3): Project => draw(emptyProject('p', 'House'), corners, { closed: true, thickness });

/** Id of the first wall whose ends pass a test. */
export const wallAt = (project: Project, test: (a: { x: number; y: number }, b: { x: number; y: number }) => boolean): string =>
  Object.values(project.walls).find((w) => test(project.corners[w.start], project.corners[w.end]))!.id;

/** A rectangular house from a corner at the origin, by its reference lines, metres. */
export const box = (width = 6, depth = 4, extra: Partial<CommandArgs<'wall.draw'>> = {}): Project =>
  draw(
    emptyProject('p', 'P'),
    [
      [0, 0],
      [width, 0],
      [width, depth],
      [0, depth],
    ],
    { closed: true, thickness: 0.3, ...extra },
  );

/** Id of the wall between two points, whichever way it runs. */
export const wallBy = (p: Project, a: [number, number], b: [number, number]): string =>
  Object.values(p.walls).find((w) => {
    const [s, e] = wallEnds(p, w);
    const at = (q: { x: number; y: number }, [x, y]: [number, number]): boolean => Math.hypot(q.x - x, q.y - y) < 1e-6;
    return (at(s, a) && at(e, b)) || (at(s, b) && at(e, a));
  })!.id;

/** Areas of all rooms, the smallest first, m². */
export const areas = (p: Project): number[] => [...deriveModel(p).shell.rooms.values()].map((r) => r.area).sort((a, b) => a - b);
