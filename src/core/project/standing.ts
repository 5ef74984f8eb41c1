import { edgeDirection } from '../geometry/arrangement';
import { cross } from '../geometry/vec';
import type { Opening, Project } from './schema';
import { planOf, stateOf } from './topology';
import { wallLength } from './wall-line';

const byWall = new WeakMap<object, Map<string, Opening[]>>();

/** The openings of a wall. */
export function openingsIn(project: Pick<Project, 'openings'>, wall: string): readonly Opening[] {
  const openings = stateOf(project.openings);
  let index = byWall.get(openings);
  if (!index) {
    byWall.set(openings, (index = new Map()));
    for (const id in openings) {
      const list = index.get(openings[id].wall);
      if (list) list.push(openings[id]);
      else index.set(openings[id].wall, [openings[id]]);
    }
  }
  return index.get(wall) ?? [];
}

/** The wall a corner window goes on along, and the end of that wall at the corner. */
export interface Round {
  wall: string;
  end: 'start' | 'end';
}

/** Walls whose directions differ by less than this sine have no corner a window could go round. */
const BENT = 0.25;

/**
 * The wall round the corner of a corner window: the only other one that meets its own wall at the end it stands at.
 * Null where the end is free, where more walls meet there or one is an arc, and where the two run straight on.
 *
 * @param project in one phase
 */
export function roundCorner(project: Project, opening: Pick<Opening, 'wall' | 'hinge'>): Round | null {
  const wall = project.walls[opening.wall];
  if (!wall) return null;
  const { arrangement } = planOf(project, wall.level);
  const pieces = arrangement.byLine.get(wall.id);
  if (!pieces?.length) return null;
  const node = opening.hinge === 'start' ? pieces[0].from : pieces[pieces.length - 1].to;
  const fan = arrangement.fans[node];
  const other = fan.find((e) => arrangement.pieces[e.piece]!.line !== wall.id);
  const own = fan.find((e) => arrangement.pieces[e.piece]!.line === wall.id);
  if (fan.length !== 2 || !other || !own) return null;
  const { line, left, right } = arrangement.pieces[other.piece]!;
  if (left + right === 0 || wall.bulge !== 0 || project.walls[line].bulge !== 0) return null;
  if (Math.abs(cross(edgeDirection(arrangement, own), edgeDirection(arrangement, other))) < BENT) return null;
  return { wall: line, end: other.forward ? 'start' : 'end' };
}

/** Where the middle of a corner window lies along its wall: it reaches from the corner as far as it is wide, metres. */
export const cornerAt = (project: Project, { wall, hinge, width }: Pick<Opening, 'wall' | 'hinge' | 'width'>): number =>
  hinge === 'start' ? width / 2 : wallLength(project, project.walls[wall]) - width / 2;

const legs = new WeakMap<Opening, Opening>();

/** A corner window as it stands in the wall round its corner; null where it has none. The same object while nothing changes. */
export function legOf(project: Project, opening: Opening): Opening | null {
  const round = roundCorner(project, opening);
  if (!round) return null;
  const leg = { ...opening, wall: round.wall, hinge: round.end, width: opening.depth, depth: opening.width, at: 0 };
  leg.at = cornerAt(project, leg);
  const known = legs.get(opening);
  if (known && known.wall === leg.wall && known.hinge === leg.hinge && known.at === leg.at) return known;
  legs.set(opening, leg);
  return leg;
}

const cornered = new WeakMap<object, readonly Opening[]>();

/** All corner windows of a project. */
function cornerWindows(project: Pick<Project, 'openings'>): readonly Opening[] {
  const openings = stateOf(project.openings);
  let list = cornered.get(openings);
  if (!list) cornered.set(openings, (list = Object.values(openings).filter((o) => o.form === 'corner')));
  return list;
}

/**
 * All that is cut out of a wall: its own openings, and the other ends of the windows that come round its corners.
 *
 * @param project in one phase
 */
export function standingIn(project: Project, wall: string): readonly Opening[] {
  const own = openingsIn(project, wall);
  const around = cornerWindows(project).flatMap((o) => {
    const leg = o.wall === wall ? null : legOf(project, o);
    return leg?.wall === wall ? [leg] : [];
  });
  return around.length ? [...own, ...around] : own;
}
