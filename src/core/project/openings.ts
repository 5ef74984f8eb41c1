import { edgeDirection } from '../geometry/arrangement';
import { cross, distance, dot, lerp, project as projectOn, sub, unit, type Vec2 } from '../geometry/vec';
import { formatLength } from '../units/length';
import { DomainError } from './errors';
import type { Opening, Project, Wall } from './schema';
import { planOf } from './topology';

/** A stretch of a wall, as distances from its start corner along the centre line, metres. */
export interface Span {
  from: number;
  to: number;
}

/** The two ends of a wall's centre line. */
export function wallEnds(project: Pick<Project, 'corners'>, wall: Wall): [Vec2, Vec2] {
  const a = project.corners[wall.start];
  const b = project.corners[wall.end];
  return [
    { x: a.x, y: a.y },
    { x: b.x, y: b.y },
  ];
}

export const wallLength = (project: Pick<Project, 'corners'>, wall: Wall): number => distance(...wallEnds(project, wall));

/** Height of a wall above the floor of its level, metres. */
export const wallHeight = (project: Project, wall: Wall): number => wall.height ?? project.levels[wall.level].height;

/**
 * The stretches of a wall that are clear of other walls on both of its faces: where openings can stand.
 * At a junction a neighbour of half width g at angle θ takes g / sin θ + h / tan θ of the wall (h: its own half width).
 */
export function clearSpans(project: Project, wall: Wall): Span[] {
  const { arrangement } = planOf(project, wall.level);
  const [a, b] = wallEnds(project, wall);
  const length = distance(a, b);
  const axis = unit(sub(b, a));
  const half = wall.thickness / 2;
  const blocked: Span[] = [];
  const visited = new Set<number>();
  for (const piece of arrangement.pieces) {
    if (piece.line !== wall.id) continue;
    for (const n of [piece.from, piece.to]) {
      if (visited.has(n)) continue;
      visited.add(n);
      const s = projectOn(arrangement.nodes[n], a, b) * length;
      for (const edge of arrangement.fans[n]) {
        const other = arrangement.pieces[edge.piece].line;
        if (other === wall.id) continue;
        const reach = reachAlong(edgeDirection(arrangement, edge), axis, half, project.walls[other].thickness / 2, s, length);
        if (reach > 0) blocked.push({ from: s - reach, to: s + reach });
      }
    }
  }
  blocked.sort((p, q) => p.from - q.from);
  const spans: Span[] = [];
  let at = 0;
  for (const block of blocked) {
    if (block.from > at + 1e-9) spans.push({ from: at, to: block.from });
    at = Math.max(at, block.to);
  }
  if (length > at + 1e-9) spans.push({ from: at, to: length });
  return spans;
}

function reachAlong(d: Vec2, axis: Vec2, half: number, other: number, s: number, length: number): number {
  const sine = Math.abs(cross(axis, d));
  if (sine < 0.05) return 0;
  // At an end of the wall only the inner side of the corner matters: the angle between the two walls.
  const along = s < length / 2 ? dot(axis, d) : -dot(axis, d);
  const atEnd = s < 1e-6 || s > length - 1e-6;
  return other / sine + (half / sine) * (atEnd ? along : Math.abs(along));
}

/** The clear span an opening of this width best fits in, and the nearest centre inside it; null if none is wide enough. */
export function fitOpening(spans: readonly Span[], at: number, width: number): { span: Span; at: number } | null {
  let best: { span: Span; at: number } | null = null;
  for (const span of spans) {
    if (span.to - span.from < width - 1e-9) continue;
    const centre = Math.min(Math.max(at, span.from + width / 2), span.to - width / 2);
    if (!best || Math.abs(centre - at) < Math.abs(best.at - at)) best = { span, at: centre };
  }
  return best;
}

/** Distances from an opening's edges to the ends of the clear stretch it stands in, metres. */
export function openingGaps(project: Project, opening: Opening): { start: number; end: number; span: Span } | null {
  const wall = project.walls[opening.wall];
  const fit = fitOpening(clearSpans(project, wall), opening.at, opening.width);
  if (!fit) return null;
  return {
    start: opening.at - opening.width / 2 - fit.span.from,
    end: fit.span.to - opening.at - opening.width / 2,
    span: fit.span,
  };
}

/** The centre of an opening in the plan. */
export function openingPoint(project: Project, opening: Opening): Vec2 {
  const [a, b] = wallEnds(project, project.walls[opening.wall]);
  return lerp(a, b, opening.at / distance(a, b));
}

/**
 * Refuses an opening that leaves its wall, meets a junction, rises above the wall or overlaps another one.
 *
 * @throws DomainError `opening.…`
 */
export function checkOpening(project: Project, opening: Opening): void {
  const say = (metres: number): string => formatLength(metres, project.units);
  const wall = project.walls[opening.wall];
  const what = opening.name;
  const spans = clearSpans(project, wall);
  const fit = fitOpening(spans, opening.at, opening.width);
  if (!fit) {
    const widest = Math.max(0, ...spans.map((s) => s.to - s.from));
    throw new DomainError(
      'opening.too-wide',
      `${what} was not changed: it would be ${say(opening.width)} wide, and the wall has only ${say(widest)} free in one stretch; choose a smaller width.`,
      [opening.id, wall.id],
    );
  }
  if (Math.abs(fit.at - opening.at) > 1e-6)
    throw new DomainError('opening.off-wall', `${what} was not changed: there it would leave its wall or run into a junction; keep it between the corners.`, [
      opening.id,
      wall.id,
    ]);
  const height = wallHeight(project, wall);
  if (opening.sill + opening.height > height + 1e-6)
    throw new DomainError(
      'opening.too-high',
      `${what} was not changed: sill and height make ${say(opening.sill + opening.height)}, above the wall’s ${say(height)}; lower one of them.`,
      [opening.id, wall.id],
    );
  for (const other of Object.values(project.openings)) {
    if (other.id === opening.id || other.wall !== opening.wall) continue;
    const apart = Math.abs(other.at - opening.at) - (other.width + opening.width) / 2;
    const above = Math.max(other.sill - opening.sill - opening.height, opening.sill - other.sill - other.height);
    if (apart < -1e-6 && above < -1e-6)
      throw new DomainError('opening.overlap', `${what} was not changed: there it would overlap ${other.name}; move one of them.`, [opening.id, other.id]);
  }
}
