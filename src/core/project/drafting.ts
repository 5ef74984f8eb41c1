import type { Draft } from 'immer';
import { add, cross, distance, dot, left, lerp, scale, sub, unit, type Vec2 } from '../geometry/vec';
import { DomainError } from './errors';
import { clearSpans } from './openings';
import type { Project, Side, Wall } from './schema';
import { stateOf } from './topology';
import { stationAt, wallExtents, wallPath } from './wall-line';
import { cornerAt, plain, wallsAt } from './wall-meeting';
import { dropUnusedCorners } from './walls';
import { NEAR, TOUCH } from '../units/tolerance';

type NewId = (prefix: string) => string;

/** What walls are made of and how high they are, apart from where they stand. */
export type WallMake = Pick<Wall, 'kind' | 'type' | 'thickness' | 'turned' | 'offset' | 'base' | 'top' | 'status'>;

export interface WallChain {
  points: readonly Vec2[];
  closed: boolean;
  bulges?: readonly number[];
}

/** The stretches of a straight line between two points along which no wall like it stands yet, as shares of its length. */
function bareStretches(project: Pick<Project, 'walls' | 'corners' | 'wallTypes'>, level: string, a: Vec2, b: Vec2, make: WallMake): [number, number][] {
  const long = distance(a, b);
  const d = unit(sub(b, a));
  const own = wallExtents(project, make as Wall);
  const covered: [number, number][] = [];
  for (const id in project.walls) {
    const wall = project.walls[id];
    if (wall.level !== level || wall.bulge !== 0 || (wall.kind === 'boundary' && make.kind === 'wall')) continue;
    const [p, q] = [project.corners[wall.start], project.corners[wall.end]];
    if (Math.abs(cross(d, sub(p, a))) > TOUCH || Math.abs(cross(d, sub(q, a))) > TOUCH) continue;
    const [s, t] = [dot(d, sub(p, a)), dot(d, sub(q, a))];
    // Two walls back to back on one line are two walls: only what takes the same room stands there already.
    const { left: l, right: r } = wallExtents(project, wall);
    const [low, high] = s < t ? [-r, l] : [-l, r];
    const common = Math.min(high, own.left) - Math.max(low, -own.right);
    if (make.kind === 'wall' && common < Math.min(high - low, own.left + own.right) / 2) continue;
    covered.push([Math.min(s, t), Math.max(s, t)]);
  }
  const bare: [number, number][] = [];
  let from = 0;
  for (const [s, t] of covered.sort((x, y) => x[0] - y[0])) {
    if (s > from + TOUCH) bare.push([from, Math.min(s, long)]);
    from = Math.max(from, t);
    if (from > long) break;
  }
  if (from < long - TOUCH) bare.push([from, long]);
  return bare.filter(([s, t]) => s < long && t - s > TOUCH).map(([s, t]) => [s / long, t / long]);
}

/**
 * Draws walls along a chain of points. Stretches along which a wall stands already are passed over.
 *
 * @throws DomainError `wall.too-short`, `wall.nothing`
 */
export function drawWalls(draft: Draft<Project>, level: string, { points, closed, bulges }: WallChain, make: WallMake, newId: NewId): string[] {
  const drawn: string[] = [];
  const stood = plain(draft);
  for (let i = 0; i + (closed ? 0 : 1) < points.length; i++) {
    const a = cornerAt(draft, level, points[i], newId);
    const b = cornerAt(draft, level, points[(i + 1) % points.length], newId);
    if (a.id === b.id) continue;
    if (distance(a, b) < 0.01) throw new DomainError('wall.too-short', 'The wall was not drawn: it would be shorter than 10 mm; type a greater length.', []);
    const bulge = bulges?.[i] ?? 0;
    const twin = wallsAt(draft as Project, a.id).some((w) => (w.start === b.id || w.end === b.id) && Math.abs(w.bulge) === Math.abs(bulge));
    if (twin) continue;
    const stretches = bulge === 0 ? bareStretches(stood, level, points[i], points[(i + 1) % points.length], make) : [[0, 1] as const];
    for (const [from, to] of stretches) {
      const [start, end] = [from, to].map((t) => (t === 0 ? a.id : t === 1 ? b.id : cornerAt(draft, level, lerp(a, b, t), newId).id));
      if (start === end) continue;
      const id = newId('wall');
      draft.walls[id] = { finishes: {}, ...make, id, level, start, end, bulge };
      drawn.push(id);
    }
  }
  dropUnusedCorners(draft);
  if (!drawn.length) throw new DomainError('wall.nothing', 'No wall was drawn: both ends are the same point, or the wall stands there already.', []);
  return drawn;
}

/** The corners of an outline whose inside has these sizes: what a typed room means. Counter-clockwise from its lower left inner corner. */
export function shapeOutline(shape: 'rectangle' | 'L' | 'T' | 'U' | 'bay', width: number, depth: number): Vec2[] {
  const p = (x: number, y: number): Vec2 => ({ x: x * width, y: y * depth });
  switch (shape) {
    case 'rectangle':
      return [p(0, 0), p(1, 0), p(1, 1), p(0, 1)];
    case 'L':
      return [p(0, 0), p(1, 0), p(1, 0.5), p(0.5, 0.5), p(0.5, 1), p(0, 1)];
    case 'T':
      return [p(1 / 3, 0), p(2 / 3, 0), p(2 / 3, 0.5), p(1, 0.5), p(1, 1), p(0, 1), p(0, 0.5), p(1 / 3, 0.5)];
    case 'U':
      return [p(0, 0), p(1, 0), p(1, 1), p(2 / 3, 1), p(2 / 3, 0.4), p(1 / 3, 0.4), p(1 / 3, 1), p(0, 1)];
    case 'bay': {
      // Three sides of half a hexagon before the middle of the front.
      const out = Math.min(width * 0.2, 0.9);
      const [x0, x1] = [width * 0.25, width * 0.75];
      return [
        { x: 0, y: 0 },
        { x: x0, y: 0 },
        { x: x0 + out * 0.577, y: -out },
        { x: x1 - out * 0.577, y: -out },
        { x: x1, y: 0 },
        { x: width, y: 0 },
        p(1, 1),
        p(0, 1),
      ];
    }
  }
}

export interface BoxArgs {
  wall: string;
  side: Side;
  at: number;
  width: number;
  depth: number;
  thickness: number;
  top: Wall['top'];
  base: number;
  name: string;
}

/**
 * Boxes in a pipe, a cupboard or a chimney against a face of a wall: thin walls around a rectangle that end on the
 * wall, or on the one beside it where the box stands in the corner. What is inside becomes a duct.
 *
 * @throws DomainError `box.…` where there is no face for it
 */
export function boxIn(draft: Draft<Project>, args: BoxArgs, newId: NewId): void {
  const project = { ...plain(draft), rooms: stateOf(draft.rooms) } as Project;
  const wall = project.walls[args.wall];
  if (wall.bulge !== 0) throw new DomainError('box.arc', 'Nothing was boxed in: the wall is an arc; choose a straight one.', [wall.id]);
  const span = clearSpans(project, wall, wall.status).find((s) => args.at > s.from - NEAR && args.at < s.to + NEAR);
  if (!span || args.width > span.to - span.from + NEAR)
    throw new DomainError('box.no-room', 'Nothing was boxed in: the wall has no clear stretch that wide there; make it narrower.', [wall.id]);
  const path = wallPath(project, wall);
  const { d } = stationAt(path, args.at);
  const out = args.side === 'left' ? left(d) : scale(left(d), -1);
  const face = args.side === 'left' ? wallExtents(project, wall).left : wallExtents(project, wall).right;
  const half = args.thickness / 2;
  let [s0, s1] = [args.at - args.width / 2, args.at + args.width / 2];
  if (s0 < span.from) [s0, s1] = [span.from, span.from + args.width];
  if (s1 > span.to) [s0, s1] = [span.to - args.width, span.to];
  const point = (s: number, off: number): Vec2 => add(add(path[0].p, scale(d, s)), scale(out, off));
  const front = face + args.depth - half;
  // In a corner the side against the other wall is left out and the front runs into that wall.
  const [inStart, inEnd] = [s0 - span.from < NEAR && span.from > NEAR, span.to - s1 < NEAR && span.to < path[1].s - NEAR];
  const points: Vec2[] = [
    ...(inStart ? [point(s0 - half, front)] : [point(s0 + half, 0), point(s0 + half, front)]),
    ...(inEnd ? [point(s1 + half, front)] : [point(s1 - half, front), point(s1 - half, 0)]),
  ];
  const make: WallMake = { kind: 'wall', type: null, thickness: args.thickness, turned: false, offset: 0, base: args.base, top: args.top, status: 'new' };
  drawWalls(draft, wall.level, { points, closed: false }, make, newId);
  const middle = point((s0 + s1) / 2, face + args.depth / 2 - half / 2);
  if (args.depth > args.thickness + 0.005 && args.base === 0) {
    const id = newId('room');
    draft.rooms[id] = {
      id,
      level: wall.level,
      name: args.name,
      anchor: middle,
      use: 'duct',
      step: 0,
      cover: { kind: 'flat', height: null },
      outdoors: false,
      status: 'new',
      floor: null,
      ceiling: null,
      walls: null,
      faces: {},
    };
  }
}

/** Where the foot of a point lies along a direction from another, metres. */
export const alongFrom = (from: Vec2, d: Vec2, p: Vec2): number => dot(sub(p, from), unit(d));
