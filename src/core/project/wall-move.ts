import type { Draft } from 'immer';
import { add, cross, distance, dot, left, meet, project as projectOn, scale, sub, unit, type Vec2 } from '../geometry/vec';
import { NEAR } from '../units/tolerance';
import { DomainError } from './errors';
import type { Corner, Project, Wall } from './schema';
import { directionOf, guestsOf, hostOf, IN_LINE, plain, runOf, standsOn, wallsAt, type NewId } from './wall-meeting';
import { wallEnds } from './wall-line';

/** Walls that meet a corner along one line, its direction, and where the moved line crosses it. */
interface Crossing {
  d: Vec2;
  walls: Wall[];
  at: Vec2;
}

const parallel = (a: Vec2, b: Vec2, within: number): boolean => Math.abs(cross(a, b)) <= within;

/**
 * Moves a run of walls that lie in one line sideways; what meets it follows. Every neighbour keeps its direction: ends
 * slide along the walls they meet, which grow longer or shorter. Where a neighbour can't follow, because it runs on in the
 * same line or others hold its end, the moved wall leaves it: it ends on what it meets now, or a short wall is put between.
 *
 * @param ids one wall, or several in one line
 * @param offset metres to the left of the first wall's direction
 * @throws DomainError `wall.no-run`, `wall.collapsed` where a neighbour would shrink to nothing, `wall.passed` where it would pass what ends on a neighbour
 */
export function moveWalls(draft: Draft<Project>, ids: readonly string[], offset: number, newId: NewId): void {
  if (Math.abs(offset) < NEAR) return;
  new Move(draft, ids, offset, newId).run();
}

class Move {
  private readonly project: Project;
  private readonly moving: ReadonlySet<string>;
  private readonly axis: Vec2;
  private readonly shift: Vec2;
  /** A point of the line the walls come to lie in. */
  private readonly target: Vec2;

  constructor(
    private readonly draft: Draft<Project>,
    private readonly ids: readonly string[],
    offset: number,
    private readonly newId: NewId,
  ) {
    this.project = plain(draft);
    this.moving = new Set(ids);
    const first = this.project.walls[ids[0]];
    this.axis = directionOf(this.project, first);
    this.shift = scale(left(this.axis), offset);
    this.target = add(wallEnds(this.project, first)[0], this.shift);
    for (const id of ids)
      if (!parallel(this.axis, directionOf(this.project, this.project.walls[id]), IN_LINE))
        throw new DomainError('wall.no-run', 'The walls were not moved: they do not lie in one line; move them one by one.', [...ids]);
  }

  run(): void {
    const { project } = this;
    const ends = new Map<string, Wall[]>();
    for (const id of this.ids)
      for (const end of ['start', 'end'] as const) {
        const wall = project.walls[id];
        ends.set(wall[end], [...(ends.get(wall[end]) ?? []), wall]);
      }
    const guests = this.ids.flatMap((id) => guestsOf(project, project.walls[id]).filter((c) => !ends.has(c.id)));
    for (const guest of new Set(guests))
      this.along(
        guest,
        wallsAt(project, guest.id).filter((w) => !this.moving.has(w.id)),
      );
    for (const [id, movers] of ends) {
      const corner = project.corners[id];
      const others = wallsAt(project, id).filter((w) => !this.moving.has(w.id));
      if (movers.length > 1) this.along(corner, others);
      else this.end(corner, movers[0], others);
    }
    this.check();
  }

  /** The lines of walls that are crossed by the moved one, and where. */
  private crossings(corner: Vec2, walls: readonly Wall[]): Crossing[] {
    const lines: Crossing[] = [];
    for (const wall of walls) {
      const d = directionOf(this.project, wall);
      if (parallel(d, this.axis, IN_LINE)) continue;
      const known = lines.find((l) => parallel(l.d, d, NEAR));
      if (known) {
        known.walls.push(wall);
        continue;
      }
      const at = meet(this.target, this.axis, wallEnds(this.project, wall)[0], d);
      lines.push({ d, walls: [wall], at: at ?? add(corner, this.shift) });
    }
    return lines;
  }

  private put(id: string, to: Vec2): void {
    this.draft.corners[id].x = to.x;
    this.draft.corners[id].y = to.y;
  }

  private newCorner(level: string, { x, y }: Vec2): Corner {
    const corner = { id: this.newId('corner'), level, x, y };
    this.draft.corners[corner.id] = corner;
    return corner;
  }

  /** What ends on the stretch of the moved walls goes along: each line of it slides along itself, to a corner of its own. */
  private along(corner: Corner, others: readonly Wall[]): void {
    const lines = this.crossings(corner, others);
    this.put(corner.id, lines[0]?.at ?? add(corner, this.shift));
    for (const line of lines.slice(1)) {
      const own = this.newCorner(corner.level, line.at);
      for (const wall of line.walls) this.reattach(wall, corner.id, own.id);
    }
    // What runs on in the same line stays where it is.
    const staying = others.filter((o) => parallel(directionOf(this.project, o), this.axis, IN_LINE));
    if (!staying.length) return;
    const own = this.newCorner(corner.level, corner);
    for (const wall of staying) this.reattach(wall, corner.id, own.id);
  }

  private reattach(wall: Wall, from: string, to: string): void {
    const draft = this.draft.walls[wall.id];
    if (wall.start === from) draft.start = to;
    else draft.end = to;
  }

  /** The end of the moved walls slides along what it meets, and takes it along if all of it can follow. */
  private end(corner: Corner, mover: Wall, others: readonly Wall[]): void {
    const host = hostOf(this.project, corner);
    const meeting = host && !this.moving.has(host.id) ? [...others, host] : [...others];
    const lines = this.crossings(corner, meeting);
    const inLine = meeting.some((w) => parallel(directionOf(this.project, w), this.axis, IN_LINE));
    // Rather along a wall that goes as far than one that would have to grow.
    const reached = lines.find((l) => l.walls.some((w) => standsOn(this.project, w, l.at)));
    const line = reached ?? lines[0];
    if (!line) {
      if (inLine) this.leave(corner, mover, add(corner, this.shift), mover);
      else this.put(corner.id, add(corner, this.shift));
      return;
    }
    if (!inLine && lines.length === 1) this.put(corner.id, line.at);
    else this.leave(corner, mover, line.at, reached ? null : line.walls[0]);
  }

  /** The moved wall ends at a corner of its own. @param bridge what a wall from the old corner to it is made like; null: none is needed */
  private leave(corner: Corner, mover: Wall, to: Vec2, bridge: Wall | null): void {
    const own = this.newCorner(corner.level, to);
    this.reattach(mover, corner.id, own.id);
    if (!bridge) return;
    const id = this.newId('wall');
    const sideways = bridge === mover;
    if (distance(corner, to) < 0.01)
      throw new DomainError('wall.step', 'The wall was not moved: the step to what it leaves would be shorter than 10 mm; move it farther.', [mover.id]);
    this.draft.walls[id] = {
      ...bridge,
      id,
      start: corner.id,
      end: own.id,
      bulge: 0,
      offset: sideways ? 0 : bridge.offset * Math.sign(dot(directionOf(this.project, bridge), sub(to, corner)) || 1),
      top: bridge.top.kind === 'raking' ? { kind: 'ceiling' } : bridge.top,
    };
  }

  /** Nothing that was not moved may have turned, shrunk to nothing or lost what ends on it. */
  private check(): void {
    const after = plain(this.draft);
    const shrunk = Object.keys(this.project.walls).filter((id) => {
      const [was, is] = [this.project.walls[id], after.walls[id]];
      const [a, b] = wallEnds(this.project, was);
      const [p, q] = wallEnds(after, is);
      if (a.x === p.x && a.y === p.y && b.x === q.x && b.y === q.y) return false;
      if (distance(p, q) < 0.01 || dot(sub(q, p), sub(b, a)) <= 0)
        throw new DomainError('wall.collapsed', 'The wall was not moved: a neighbouring wall would shrink to nothing; move it less far.', [id]);
      return !this.moving.has(id);
    });
    for (const id of shrunk) {
      const wall = this.project.walls[id];
      for (const guest of guestsOf(this.project, wall)) {
        const still = after.corners[guest.id];
        if (!still || still.x !== guest.x || still.y !== guest.y) continue;
        const [a, b] = wallEnds(after, after.walls[id]);
        const t = projectOn(still, a, b);
        const held = wallsAt(after, guest.id).some((w) => !wallsAt(this.project, guest.id).some((o) => o.id === w.id)) || hostOf(after, still);
        if ((t <= 0 || t >= 1) && !held)
          throw new DomainError('wall.passed', 'The wall was not moved: it would pass a wall that ends on its neighbour; move it less far.', [guest.id, id]);
      }
    }
  }
}

/**
 * Gives a wall a length by moving the neighbour at one end along, with all that runs on in its line and everything that
 * meets it; a free end just moves.
 *
 * @param length metres along what is measured
 * @param measured length of the same before, metres
 * @param keep the end that stays
 */
export function setWallLength(draft: Draft<Project>, wallId: string, length: number, measured: number, keep: 'start' | 'end', newId: NewId): void {
  const project = plain(draft);
  const wall = project.walls[wallId];
  const axis = directionOf(project, wall);
  const delta = length - measured;
  const outward = keep === 'start' ? axis : scale(axis, -1);
  const corner = project.corners[keep === 'start' ? wall.end : wall.start];
  const neighbours = wallsAt(project, corner.id).filter((w) => w.id !== wallId);
  const host = hostOf(project, corner);
  const across = [...neighbours, ...(host ? [host] : [])].find((n) => !parallel(directionOf(project, n), axis, IN_LINE));
  if (across) {
    moveWalls(draft, runOf(project, across.id), delta * dot(outward, left(directionOf(project, across))), newId);
    return;
  }
  const to = add(corner, scale(outward, delta));
  const [from] = wallEnds(project, wall).filter((p) => p !== corner && distance(p, corner) > 0);
  if (distance(from, to) < 0.01 || dot(sub(to, from), outward) <= 0)
    throw new DomainError('wall.collapsed', 'The wall was not changed: it would shrink to nothing; type a greater length.', [wallId]);
  draft.corners[corner.id].x = to.x;
  draft.corners[corner.id].y = to.y;
  for (const n of neighbours) {
    const [p, q] = wallEnds(draft as Project, n);
    if (distance(p, q) < 0.01 || dot(unit(sub(q, p)), directionOf(project, n)) <= 0)
      throw new DomainError('wall.collapsed', 'The wall was not changed: the wall in its line would shrink to nothing; type another length.', [n.id]);
  }
}
