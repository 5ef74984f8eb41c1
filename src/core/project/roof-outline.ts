import { offsetRing } from '../geometry/extrude';
import { hull, insideRing, isSimple, perimeter, ringDistance, signedArea } from '../geometry/polygon';
import type { Ring } from '../geometry/region';
import { add, left, rotate, scale, type Vec2 } from '../geometry/vec';
import { inPhase, standsIn } from './phase';
import type { Project, Roof, Status, Wall } from './schema';
import { planOf } from './topology';
import { stationAt, wallExtents, wallPath } from './wall-line';
import { HAIR, NEAR } from '../units/tolerance';

/** An outline of less than this carries no roof, m². */
const LEAST = 0.5;
/** What is narrower than this stands in one line, metres. */
const NARROW = 0.5;

const stands = ({ status }: { status: Status }): boolean => standsIn(status, 'after');

/** The corners of what stands upright in the plan: posts and columns. */
function footprints(project: Project, level: string): Ring[] {
  const box = (at: Vec2, width: number, depth: number, angle: number): Ring =>
    [
      { x: -width / 2, y: -depth / 2 },
      { x: width / 2, y: -depth / 2 },
      { x: width / 2, y: depth / 2 },
      { x: -width / 2, y: depth / 2 },
    ].map((p) => add(at, rotate(p, angle)));
  const columns = Object.values(project.columns).filter((c) => c.level === level && stands(c));
  const posts = Object.values(project.beams).filter((b) => b.level === level && stands(b) && Math.hypot(b.a.x - b.b.x, b.a.y - b.b.y) < NEAR);
  return [...columns.map((c) => box(c, c.width, c.depth, c.rotation)), ...posts.map((b) => box(b.a, b.width, b.depth, b.turn))];
}

/** The walls of one open run as its corners in order; null where they fork, close, or fall into several runs. */
function openRun(walls: readonly Wall[]): string[] | null {
  const at = new Map<string, string[]>();
  for (const { start, end } of walls) {
    at.set(start, [...(at.get(start) ?? []), end]);
    at.set(end, [...(at.get(end) ?? []), start]);
  }
  const ends = [...at].filter(([, to]) => to.length === 1);
  if (ends.length !== 2 || [...at.values()].some((to) => to.length > 2)) return null;
  const run = [ends[0][0]];
  while (run.length <= walls.length) {
    const next = at.get(run[run.length - 1])!.find((c) => c !== run[run.length - 2]);
    if (!next) break;
    run.push(next);
  }
  return run.length === walls.length + 1 ? run : null;
}

/**
 * The outline that walls which do not close, posts and columns of a level carry a roof on: of one run of walls its two ends
 * joined, if all posts stand within; else the hull of all. Null where they stand in one line, or there are none.
 */
export function foundOutline(project: Project, level: string): Ring | null {
  const walls = Object.values(project.walls).filter((w) => w.level === level && w.kind === 'wall' && stands(w));
  const feet = footprints(project, level);
  const run = openRun(walls);
  if (run && run.length > 2 && walls.every((w) => w.bulge === 0)) {
    const corners = run.map((id) => ({ x: project.corners[id].x, y: project.corners[id].y }));
    const ring = signedArea(corners) < 0 ? corners.reverse() : corners;
    const half = Math.max(...walls.map((w) => Math.max(...Object.values(wallExtents(project, w)))));
    const outer = offsetRing(ring, -half);
    const within = (p: Vec2): boolean => insideRing(p, outer) || ringDistance(p, outer) < HAIR;
    if (isSimple(ring) && isSimple(outer) && signedArea(outer) > LEAST && feet.flat().every(within)) return outer;
  }
  const faces = walls.flatMap((wall) => {
    const { left: l, right: r } = wallExtents(project, wall);
    const path = wallPath(project, wall);
    return path.flatMap(({ s }) => {
      const { p, d } = stationAt(path, s);
      return [add(p, scale(left(d), l)), add(p, scale(left(d), -r))];
    });
  });
  const points = [...faces, ...feet.flat()];
  if (points.length < 3) return null;
  const ring = hull(points);
  return ring.length > 2 && signedArea(ring) > LEAST && (2 * signedArea(ring)) / perimeter(ring) > NARROW ? ring : null;
}

/** What a roof over a level covers: its walls where they close, else the outline that is found from open sides and posts. */
export function overLevel(project: Project, level: string): Roof['over'] {
  if (planOf(inPhase(project, 'after'), level).arrangement.faces.length) return { kind: 'level' };
  const points = foundOutline(project, level);
  return points ? { kind: 'outline', points } : { kind: 'level' };
}
