import { apart, boolean, boxOf, signedArea, totalArea } from '../geometry/polygon';
import type { Region } from '../geometry/region';
import type { GroundArea, Project } from './schema';
import { NEAR } from '../units/tolerance';

/** How areas of the ground lie over one another before anybody has said: what is softer below, water above all. */
const LAID: readonly GroundArea['kind'][] = ['lawn', 'gravel', 'drive', 'paving', 'bed', 'water', 'pool'];

/** Sorts areas from the lowest to the one that cuts all others. */
export const byOrder = (a: Pick<GroundArea, 'order' | 'id'>, b: Pick<GroundArea, 'order' | 'id'>): number => a.order - b.order || (a.id < b.id ? -1 : 1);

/** An area as it was drawn, counter-clockwise. */
export const regionOf = ({ points }: Pick<GroundArea, 'points'>): Region => ({ outer: signedArea(points) < 0 ? [...points].reverse() : points, holes: [] });

/** Whether two areas have more than an edge in common. */
function overlap(a: GroundArea, b: GroundArea): boolean {
  if (apart(boxOf(a.points), boxOf(b.points))) return false;
  return totalArea(boolean('intersection', [regionOf(a)], [regionOf(b)])) > NEAR;
}

/** Whether two areas ever lie there at the same time. */
const meetInTime = (a: GroundArea, b: GroundArea): boolean =>
  !((a.status === 'removed' && b.status === 'new') || (a.status === 'new' && b.status === 'removed'));

/** The areas an area cuts, and those that cut it, each from the lowest up. */
export function cutting(project: Pick<Project, 'grounds'>, id: string): { below: GroundArea[]; above: GroundArea[] } {
  const own = project.grounds[id];
  const others = Object.values(project.grounds)
    .filter((g) => g.id !== id && meetInTime(g, own) && overlap(g, own))
    .sort(byOrder);
  return { below: others.filter((g) => byOrder(g, own) < 0), above: others.filter((g) => byOrder(g, own) > 0) };
}

/** A number between two; past the one that is there; 0 where there is none. */
const between = (low: number | undefined, high: number | undefined): number =>
  low === undefined ? (high === undefined ? 0 : high - 1) : high === undefined ? low + 1 : (low + high) / 2;

/** The order a new area of a kind comes to have: above all that its kind lies over, below the rest. */
export function firstOrder(project: Pick<Project, 'grounds'>, kind: GroundArea['kind']): number {
  const all = Object.values(project.grounds).sort(byOrder);
  const rank = LAID.indexOf(kind);
  const last = all.findLastIndex((g) => LAID.indexOf(g.kind) <= rank);
  return between(all[last]?.order, all[last + 1]?.order);
}

/**
 * The order by which an area comes to lie over the next that cuts it, or under the next it cuts; null where there is none.
 * No other area is changed.
 */
export function orderPast(project: Pick<Project, 'grounds'>, id: string, way: 'over' | 'under'): number | null {
  const { below, above } = cutting(project, id);
  const next = way === 'over' ? above[0] : below[below.length - 1];
  if (!next) return null;
  const rest = Object.values(project.grounds)
    .filter((g) => g.id !== id)
    .sort(byOrder);
  const at = rest.indexOf(next);
  return way === 'over' ? between(next.order, rest[at + 1]?.order) : between(rest[at - 1]?.order, next.order);
}
