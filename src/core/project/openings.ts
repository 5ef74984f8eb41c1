import { edgeDirection, type Arrangement, type HalfEdge } from '../geometry/arrangement';
import { cross, dot, type Vec2 } from '../geometry/vec';
import { formatLength } from '../units/length';
import { DomainError } from './errors';
import { coexist, inPhase, standsIn, type Phase } from './phase';
import type { Level, Opening, Project, Status, Wall } from './schema';
import { wallHeight } from './roofs';
import { legOf, standingIn } from './standing';
import { planOf, stateOf } from './topology';
import { stationAt, wallLength, wallPath, wallProfile, wallThickness, wallTopAt } from './wall-line';
import { DUST, NEAR } from '../units/tolerance';

/** A stretch of a wall, as distances from its start corner along the reference line, metres. */
export interface Span {
  from: number;
  to: number;
}

/** Clear stretches by the pieces of a wall: good for as long as the fans at its nodes are the same objects. */
const spans = new WeakMap<readonly object[], { fans: (readonly HalfEdge[])[]; list: Span[] }>();

/** Openings keep so far off a boundary between rooms, metres: a door belongs to one room at each side. */
const BOUNDARY_GAP = 0.0005;

/**
 * The stretches of a wall that are clear of other walls on both of its faces: where openings can stand.
 * A neighbour with half widths l, r that leaves at angle θ covers, on the face at distance h, the stretch
 * (h·cos θ − l)/sin θ to (h·cos θ + r)/sin θ.
 *
 * @param status of what is to stand there: a wall that is never there at the same time is not in its way
 */
export function clearSpans(project: Project, wall: Wall, status: Status = 'new'): Span[] {
  const phases = (['before', 'after'] as const).filter((phase) => standsIn(status, phase) && standsIn(wall.status, phase));
  const lists = phases.map((phase) => phaseSpans(inPhase(project, phase), wall));
  if (lists.length < 2 || lists[0] === lists[1]) return lists[0] ?? [];
  return lists[0].flatMap((p) => lists[1].map((q) => ({ from: Math.max(p.from, q.from), to: Math.min(p.to, q.to) })).filter((s) => s.to > s.from + DUST));
}

function phaseSpans(project: Project, wall: Wall): Span[] {
  const { arrangement } = planOf(project, wall.level);
  const pieces = arrangement.byLine.get(wall.id) ?? [];
  if (!pieces.length) return [];
  const fans = pieces.flatMap((p) => [arrangement.fans[p.from], arrangement.fans[p.to]]);
  const known = spans.get(pieces);
  if (known && known.fans.length === fans.length && known.fans.every((fan, i) => fan === fans[i])) return known.list;
  const blocked: Span[] = [];
  pieces.forEach((piece) => {
    for (const forward of [true, false]) {
      const n = forward ? piece.from : piece.to;
      const s = forward ? piece.s0 : piece.s1;
      const fan = arrangement.fans[n];
      const through = fan.filter((e) => arrangement.pieces[e.piece]!.line === wall.id).length > 1;
      const reach = reachInto(arrangement, { piece: piece.index, forward }, through);
      if (reach > 0) blocked.push(forward ? { from: s, to: s + reach } : { from: s - reach, to: s });
    }
  });
  blocked.sort((p, q) => p.from - q.from);
  const clear: Span[] = [];
  let at = pieces[0].s0;
  for (const block of blocked) {
    if (block.from > at + DUST) clear.push({ from: at, to: block.from });
    at = Math.max(at, block.to);
  }
  const end = pieces[pieces.length - 1].s1;
  if (end > at + DUST) clear.push({ from: at, to: end });
  const list = clear.filter((s) => s.to - s.from > NEAR);
  spans.set(pieces, { fans, list });
  return list;
}

/** How far into a piece, from the node it leaves, the other lines of that node take away its faces, metres. */
function reachInto(arrangement: Arrangement, edge: HalfEdge, through: boolean): number {
  const piece = arrangement.pieces[edge.piece]!;
  const axis = edgeDirection(arrangement, edge);
  const [L, R] = edge.forward ? [piece.left, piece.right] : [piece.right, piece.left];
  let reach = 0;
  for (const other of arrangement.fans[edge.forward ? piece.from : piece.to]) {
    const o = arrangement.pieces[other.piece]!;
    if (o.line === piece.line) continue;
    const d = edgeDirection(arrangement, other);
    const [l, r] = other.forward ? [o.left, o.right] : [o.right, o.left];
    const [c, s] = [dot(axis, d), cross(axis, d)];
    if (Math.abs(s) < 0.05) continue;
    reach = Math.max(reach, s > 0 ? (L * c + r) / s : (R * c + l) / -s, o.left + o.right === 0 ? BOUNDARY_GAP : 0);
    if (!through) reach = Math.max(reach, s > 0 ? (-R * c - l) / s : (-L * c - r) / -s);
  }
  return reach;
}

/** The clear span an opening of this width best fits in, and the nearest centre inside it; null if none is wide enough. */
export function fitOpening(spans: readonly Span[], at: number, width: number): { span: Span; at: number } | null {
  let best: { span: Span; at: number } | null = null;
  for (const span of spans) {
    if (span.to - span.from < width - DUST) continue;
    const centre = Math.min(Math.max(at, span.from + width / 2), span.to - width / 2);
    if (!best || Math.abs(centre - at) < Math.abs(best.at - at)) best = { span, at: centre };
  }
  return best;
}

/** Spans less what other openings take of them, as far as those would be in the way. */
export function freeSpans(project: Project, opening: Omit<Opening, 'at'>): Span[] {
  const wall = project.walls[opening.wall];
  let free = clearSpans(project, wall, opening.status);
  for (const other of standingIn(inPhase(project, standsIn(opening.status, 'after') ? 'after' : 'before'), opening.wall))
    if (other.id !== opening.id && inTheWay(project, opening, other))
      free = free.flatMap((s) => [
        { from: s.from, to: Math.min(s.to, other.at - other.width / 2) },
        { from: Math.max(s.from, other.at + other.width / 2), to: s.to },
      ]);
  return free.filter((s) => s.to - s.from > NEAR);
}

/** Whether two openings of a wall could overlap: they are there at once, at heights and depths that meet. */
function inTheWay(project: Project, a: Omit<Opening, 'at'>, b: Opening): boolean {
  if (!coexist(a.status, b.status)) return false;
  if (Math.max(b.sill - a.sill - a.height, a.sill - b.sill - b.height) > -NEAR) return false;
  const back = a.kind === 'niche' && b.kind === 'niche' && a.swing !== b.swing;
  return !(back && a.depth + b.depth < wallThickness(project, project.walls[b.wall]) - 0.01);
}

/** Distances from an opening's edges to the ends of the clear stretch it stands in, metres. */
export function openingGaps(project: Project, opening: Opening): { start: number; end: number; span: Span } | null {
  const wall = project.walls[opening.wall];
  const spans = clearSpans(project, wall, opening.status);
  if (opening.form === 'corner' && spans.length) {
    // One of its ends is the corner itself.
    const far = opening.hinge === 'start' ? opening.at + opening.width / 2 : opening.at - opening.width / 2;
    const span = opening.hinge === 'start' ? { from: 0, to: spans[0].to } : { from: spans[spans.length - 1].from, to: opening.at + opening.width / 2 };
    return opening.hinge === 'start' ? { start: 0, end: span.to - far, span } : { start: far - span.from, end: 0, span };
  }
  const fit = fitOpening(spans, opening.at, opening.width);
  if (!fit) return null;
  return {
    start: opening.at - opening.width / 2 - fit.span.from,
    end: fit.span.to - opening.at - opening.width / 2,
    span: fit.span,
  };
}

/** The centre of an opening in the plan, on the reference line of its wall, and the direction of the wall there. */
export function openingStation(project: Project, opening: Pick<Opening, 'wall' | 'at'>): { p: Vec2; d: Vec2 } {
  return stationAt(wallPath(project, project.walls[opening.wall]), opening.at);
}

/** The centre of an opening in the plan. */
export const openingPoint = (project: Project, opening: Pick<Opening, 'wall' | 'at'>): Vec2 => openingStation(project, opening).p;

/**
 * The outline of an opening in the elevation of its wall: x from its centre along the wall, y from the floor of the
 * level, counter-clockwise, metres. Arcs are followed within a millimetre or two.
 */
export function openingOutline(opening: Pick<Opening, 'width' | 'height' | 'sill' | 'shape'>): Vec2[] {
  const { width, height, sill, shape } = opening;
  const w = width / 2;
  const top = sill + height;
  switch (shape.kind) {
    case 'rectangle':
      return [
        { x: -w, y: sill },
        { x: w, y: sill },
        { x: w, y: top },
        { x: -w, y: top },
      ];
    case 'arch': {
      const rise = Math.min(shape.rise, height - 0.001);
      // A segment of a circle up to a half one; a higher rise is a half ellipse.
      const spring = top - rise;
      const steps = 24;
      const arc =
        rise >= w
          ? Array.from({ length: steps + 1 }, (_, i) => {
              const a = (Math.PI * i) / steps;
              return { x: w * Math.cos(a), y: spring + rise * Math.sin(a) };
            })
          : (() => {
              const r = (w * w + rise * rise) / (2 * rise);
              const half = Math.asin(w / r);
              return Array.from({ length: steps + 1 }, (_, i) => {
                const a = half - (2 * half * i) / steps;
                return { x: r * Math.sin(a), y: top - r + r * Math.cos(a) };
              });
            })();
      return [{ x: -w, y: sill }, { x: w, y: sill }, ...(spring - sill > NEAR ? arc : arc.slice(1, -1))];
    }
    case 'ellipse':
      return Array.from({ length: 48 }, (_, i) => {
        const a = (2 * Math.PI * i) / 48;
        return { x: w * Math.cos(a), y: sill + (height / 2) * (1 + Math.sin(a)) };
      });
    case 'outline':
      return shape.points.map((p) => ({ x: (p.x - 0.5) * width, y: sill + p.y * height }));
  }
}

/**
 * Refuses an opening that leaves its wall, meets a junction, rises above the wall, reaches below its foot, goes through
 * as a niche, or overlaps another one.
 *
 * @throws DomainError `opening.…`
 */
export function checkOpening(project: Project, opening: Opening): void {
  const wall = project.walls[opening.wall];
  const refuse: Refuse = (code, why, ids = []) => {
    throw new DomainError(`opening.${code}`, `${opening.name} was not changed: ${why}`, [opening.id, wall.id, ...ids]);
  };
  if (wall.kind === 'boundary') refuse('boundary', 'it would stand in a boundary between rooms, where nothing is built; choose a wall.');
  if (!coexist(opening.status, wall.status)) refuse('status', 'it and its wall would never be there at the same time; change the status of one of them.');
  if (opening.form === 'corner') return checkCorner(project, opening, refuse);
  const clear = clearSpans(project, wall, opening.status);
  const fit = fitOpening(clear, opening.at, opening.width);
  if (!fit) {
    const say = (metres: number): string => formatLength(metres, project.units);
    const widest = Math.max(0, ...clear.map((s) => s.to - s.from));
    return refuse('too-wide', `it would be ${say(opening.width)} wide, and the wall has only ${say(widest)} free in one stretch; choose a smaller width.`);
  }
  if (Math.abs(fit.at - opening.at) > NEAR) refuse('off-wall', 'there it would leave its wall or run into a junction; keep it between the corners.');
  checkHeights(project, opening, refuse);
  if (opening.kind === 'niche') checkNiche(project, opening, refuse);
  for (const phase of phasesOf(opening)) checkNeighbours(project, opening, standingIn(inPhase(project, phase), opening.wall), refuse);
}

type Refuse = (code: string, why: string, ids?: string[]) => never;

const phasesOf = (opening: Pick<Opening, 'status'>): Phase[] => (['before', 'after'] as const).filter((phase) => standsIn(opening.status, phase));

/** A corner window needs a corner of two straight walls, room along both, and height in both. */
function checkCorner(project: Project, opening: Opening, refuse: Refuse): void {
  if (opening.shape.kind !== 'rectangle') refuse('corner-shape', 'a corner window has a rectangular outline; choose that first.');
  for (const phase of phasesOf(opening)) {
    const then = inPhase(project, phase);
    const leg = legOf(then, opening);
    if (!leg)
      return refuse('no-corner', 'it goes round a corner, and at that end of its wall no other straight wall meets it alone; move it to another corner.');
    if (leg.width < 0.1) refuse('too-narrow', 'round the corner it is at least 100 mm wide.');
    for (const part of [opening, leg]) {
      const spans = phaseSpans(then, then.walls[part.wall]);
      const span = part.hinge === 'start' ? spans[0] : spans[spans.length - 1];
      const free = span ? (part.hinge === 'start' ? span.to - part.at + part.width / 2 : part.at + part.width / 2 - span.from) : 0;
      if (part.width > free + NEAR)
        refuse(
          'too-wide',
          `from the corner it would reach ${formatLength(part.width, project.units)}, and only ${formatLength(Math.max(0, free), project.units)} are clear; choose less.`,
        );
      checkHeights(then, part, refuse);
      checkNeighbours(then, part, standingIn(then, part.wall), refuse);
    }
  }
}

/** An opening stays below the upper edge of its wall and above its foot. */
function checkHeights(project: Project, opening: Opening, refuse: Refuse): void {
  const say = (metres: number): string => formatLength(metres, project.units);
  const wall = project.walls[opening.wall];
  const level = project.levels[wall.level];
  const length = wallLength(project, wall);
  const outline = openingOutline(opening);
  const high = (top: number): never =>
    refuse('too-high', `sill and height make ${say(opening.sill + opening.height)}, above the wall’s ${say(top)} there; lower one of them.`);
  for (const p of outline) {
    const top = wallHeight(project, wall, opening.at + p.x);
    if (p.y > top + NEAR) high(top);
  }
  // Where the upper edge has a valley, it is not enough to look at the corners.
  for (const { t, z } of wallProfile(wall, level))
    if (Math.abs(t * length - opening.at) < opening.width / 2 && opening.sill + opening.height > z + NEAR && z < Math.min(...ends(wall, level))) high(z);
  const foot = Math.min(...outline.map((p) => p.y));
  const low = wallFoot(project, wall);
  if (foot < low - NEAR) refuse('too-low', `it would reach below the foot of its wall at ${say(low)}; raise its sill.`);
}

const ends = (wall: Wall, level: Level): number[] => [wallTopAt(wall, level, 0), wallTopAt(wall, level, 1)];

function checkNiche(project: Project, opening: Opening, refuse: Refuse): void {
  const say = (metres: number): string => formatLength(metres, project.units);
  const thickness = wallThickness(project, project.walls[opening.wall]);
  if (opening.depth > thickness - 0.01 + DUST)
    refuse('too-deep', `a niche ${say(opening.depth)} deep would go through the wall of ${say(thickness)}; make it shallower, or make a recess instead.`);
  if (opening.depth < 0.005) refuse('too-shallow', 'a niche is at least 5 mm deep.');
}

function checkNeighbours(project: Project, opening: Opening, others: readonly Opening[], refuse: Refuse): void {
  for (const other of others) {
    if (other.id === opening.id) continue;
    const apart = Math.abs(other.at - opening.at) - (other.width + opening.width) / 2;
    if (apart < -NEAR && inTheWay(project, opening, other)) refuse('overlap', `there it would overlap ${other.name}; move one of them.`, [other.id]);
  }
}

/** Height of a wall's foot above the floor of its level: its own base, or as deep as the floors beside it go, metres. */
export function wallFoot(project: Project, wall: Wall): number {
  if (wall.base !== 0) return wall.base;
  const rooms = stateOf(project.rooms);
  let lows = floors.get(rooms);
  if (!lows) {
    floors.set(rooms, (lows = new Map()));
    for (const id in rooms) if (rooms[id].step < (lows.get(rooms[id].level) ?? 0)) lows.set(rooms[id].level, rooms[id].step);
  }
  return lows.get(wall.level) ?? 0;
}

/** The lowest floor of each level that lies below the level's own. */
const floors = new WeakMap<object, Map<string, number>>();
