import type { Draft } from 'immer';
import type { Arrangement, LinePiece } from '../geometry/arrangement';
import { dot } from '../geometry/vec';
import { formatLength } from '../units/length';
import { DomainError } from './errors';
import { clearSpans, fitOpening, openingStation, type Span } from './openings';
import { footprintOf } from './footprint';
import { inPhase } from './phase';
import { planOf } from './topology';
import type { Opening, Piece, Project } from './schema';
import { ridgeOver } from './roofs';
import { cornerAt } from './standing';
import { stationNear, wallLength, wallPath } from './wall-line';
import { DUST, NEAR } from '../units/tolerance';

/** The ids an opening is placed by. */
export function placedBy(opening: Pick<Opening, 'place' | 'head'>): string[] {
  const { place, head } = opening;
  const marks = place.kind === 'between' ? [place.a, place.b] : place.kind === 'gap' ? [place.from] : [];
  return [...marks.filter((m) => m !== 'start' && m !== 'end'), ...(head === null ? [] : [head])];
}

/** The stretch of a wall that a piece stands along, by its footprint. */
export function pieceSpan(project: Project, wallId: string, piece: Piece): Span {
  const path = wallPath(project, project.walls[wallId]);
  const stops = footprintOf(piece, piece.size).map((p) => stationNear(path, p).s);
  return { from: Math.min(...stops), to: Math.max(...stops) };
}

interface Solution {
  at: number;
  width: number;
  sill: number;
  height: number;
}

/** The sizes and the place an opening must have for what it is placed by to hold. */
class Solver {
  private readonly solved = new Map<string, Solution>();
  private readonly open = new Set<string>();

  constructor(
    private readonly before: Project,
    private readonly project: Project,
  ) {}

  solution(id: string): Solution {
    const known = this.solved.get(id);
    if (known) return known;
    const opening = this.project.openings[id];
    if (this.open.has(id))
      throw new DomainError('opening.circle', `${opening.name} was not changed: it would be placed by something that is placed by it; free one of the two.`, [
        id,
      ]);
    this.open.add(id);
    const made = this.solve(opening);
    this.open.delete(id);
    this.solved.set(id, made);
    return made;
  }

  private solve(o: Opening): Solution {
    const { project } = this;
    const wall = project.walls[o.wall];
    const spans = clearSpans(project, wall, o.status);
    const own = { at: o.at, width: o.width, sill: o.sill, height: o.height };
    const head = o.head === null ? null : this.headOf(o.head);
    if (head !== null) {
      if (o.kind === 'door') own.height = head - o.sill;
      else own.sill = head - o.height;
      if (own.height < 0.1)
        throw new DomainError('opening.head', `${o.name} was not changed: the head it is level with lies below its foot; free it first.`, [o.id]);
    }
    const stays = this.inSpace(o);
    const near = (width: number): Span | null => (fitOpening(spans, stays, width) ?? fitOpening(spans, stays, 0))?.span ?? null;
    const { place } = o;
    if (o.form === 'corner') own.at = cornerAt(project, o);
    else
      switch (place.kind) {
        case 'free': {
          // A place that was just chosen stands as it is, to be taken or refused.
          const then = this.before.openings[o.id];
          if (then && then.wall === o.wall && then.at === o.at && then.width === o.width) own.at = fitOpening(spans, stays, o.width)?.at ?? stays;
          break;
        }
        case 'corner': {
          const span = near(o.width);
          if (span) own.at = place.from === 'start' ? span.from + place.gap + o.width / 2 : span.to - place.gap - o.width / 2;
          break;
        }
        case 'centred': {
          const span = near(o.width);
          if (span) own.at = (span.from + span.to) / 2;
          break;
        }
        case 'ridge': {
          const ridge = ridgeOver(project, wall);
          if (ridge === null)
            throw new DomainError(
              'opening.no-ridge',
              `${o.name} was not changed: its wall has no ridge to stand under; give the wall a rake with a ridge first.`,
              [o.id, o.wall],
            );
          own.at = ridge * wallLength(project, wall);
          break;
        }
        case 'row': {
          const span = near(o.width);
          if (!span) break;
          const gap = (span.to - span.from - place.count * o.width) / (place.count + 1);
          if (gap < -DUST)
            throw new DomainError(
              'opening.no-room',
              `Nothing was changed: a row of ${place.count} openings ${formatLength(o.width, project.units)} wide does not fit into the ${formatLength(span.to - span.from, project.units)} that are clear; make them narrower or fewer.`,
              [o.id, o.wall],
            );
          own.at = span.from + gap * (place.index + 1) + o.width * (place.index + 0.5);
          break;
        }
        case 'between': {
          const [p, q] = [this.interval(o, place.a, stays), this.interval(o, place.b, stays)];
          const [first, second] = p.from + p.to <= q.from + q.to ? [p, q] : [q, p];
          own.at = (first.to + second.from) / 2;
          if (place.fill) own.width = second.from - first.to;
          if (own.width < 0.1)
            throw new DomainError(
              'opening.no-room',
              `${o.name} was not changed: only ${formatLength(Math.max(0, own.width), project.units)} is left between what it stands between; an opening is at least 100 mm wide.`,
              [o.id],
            );
          break;
        }
        case 'gap': {
          const beside = this.interval(o, place.from, stays);
          own.at = place.side === 'after' ? beside.to + place.gap + own.width / 2 : beside.from - place.gap - own.width / 2;
          break;
        }
      }
    // What was typed stays as it was meant; what is worked out is kept free of dust.
    const keep = (key: keyof Solution): number => (Math.abs(own[key] - o[key]) < DUST ? o[key] : Math.round(own[key] * 1e9) / 1e9);
    return { at: keep('at'), width: keep('width'), sill: keep('sill'), height: keep('height') };
  }

  /** Where its centre lies along its wall if it stays where it was in space. */
  private inSpace(o: Opening): number {
    const then = this.before.openings[o.id];
    const wall = then && this.before.walls[then.wall];
    if (!wall || then.at !== o.at || then.wall !== o.wall) return o.at;
    const now = this.project.walls[o.wall];
    const [a, b] = [this.before.corners[wall.start], this.before.corners[wall.end]];
    const [c, d] = [this.project.corners[now.start], this.project.corners[now.end]];
    if (a === c && b === d && wall.bulge === now.bulge) return o.at;
    // A wall that was carried as a whole takes its openings along.
    if (a !== c && b !== d && Math.abs(wallLength(this.before, wall) - wallLength(this.project, now)) < NEAR) return o.at;
    return stationNear(wallPath(this.project, now), openingStation(this.before, then).p).s;
  }

  /** The stretch a mark takes up along the wall of an opening. A corner is a stretch without length at the end of the clear one. */
  private interval(o: Opening, mark: string, near: number): Span {
    const { project } = this;
    if (mark === 'start' || mark === 'end') {
      const span = fitOpening(clearSpans(project, project.walls[o.wall], o.status), near, 0)?.span;
      const s = span ? (mark === 'start' ? span.from : span.to) : near;
      return { from: s, to: s };
    }
    const other = project.openings[mark];
    if (other) {
      const { at, width } = this.solution(mark);
      if (other.wall === o.wall) return { from: at - width / 2, to: at + width / 2 };
      // An opening of another wall: what lies square across from it.
      const path = wallPath(project, project.walls[o.wall]);
      const station = openingStation(project, { wall: other.wall, at });
      const s = stationNear(path, station.p).s;
      const turn = Math.abs(dot(station.d, openingStation(project, o).d));
      return { from: s - (width / 2) * turn, to: s + (width / 2) * turn };
    }
    return pieceSpan(project, o.wall, project.pieces[mark]);
  }

  private headOf(id: string): number {
    if (this.project.openings[id]) {
      const { sill, height } = this.solution(id);
      return sill + height;
    }
    const piece = this.project.pieces[id];
    return piece.elevation + piece.size.height;
  }
}

/**
 * After an edit, puts every opening where it belongs: where it stood in space, or where what it is placed by wants it,
 * as far as its wall has room there. What an opening was placed by may be gone: then it stands free from there on.
 *
 * @returns the openings whose surroundings have changed, to be checked
 * @throws DomainError `opening.no-room`, `opening.circle`, `opening.head`
 */
export function settleOpenings(before: Project, edited: Project, draft: Draft<Project>): string[] {
  if (before.openings === edited.openings && before.pieces === edited.pieces && !shellChanged(before, edited) && before.roofs === edited.roofs) return [];
  const touched: string[] = [];
  const solver = new Solver(before, freed(before, edited, draft));
  const arrangements = new Map<string, boolean>();
  const plans = new Map<string, [Arrangement, Arrangement][]>();
  const wallChanged = (id: string): boolean => {
    let changed = arrangements.get(id);
    if (changed === undefined) arrangements.set(id, (changed = surroundingsChanged(before, edited, id, plans)));
    return changed;
  };
  const visited = new Map<string, boolean>();
  const visit = (id: string): boolean => {
    const known = visited.get(id);
    if (known !== undefined) return known;
    visited.set(id, false);
    const o = edited.openings[id];
    const due =
      before.openings[id] !== o ||
      (before.roofs !== edited.roofs && edited.walls[o.wall].top.kind === 'roof') ||
      wallChanged(o.wall) ||
      placedBy(o).some(
        (m) => before.pieces[m] !== edited.pieces[m] || before.openings[m] !== edited.openings[m] || (edited.openings[m] !== undefined && visit(m)),
      );
    visited.set(id, due);
    return due;
  };
  for (const id in edited.openings) {
    const o = edited.openings[id];
    if (!visit(id)) continue;
    touched.push(id);
    const next = solver.solution(id);
    if (next.at !== o.at || next.width !== o.width || next.sill !== o.sill || next.height !== o.height) {
      if (
        o.place.kind === 'free' &&
        o.form !== 'corner' &&
        before.openings[id] &&
        wallChanged(o.wall) &&
        !fitOpening(clearSpans(edited, edited.walls[o.wall], o.status), next.at, o.width)
      )
        throw new DomainError('opening.no-room', `The wall was not changed: ${o.name} would no longer fit in its wall; make the opening narrower first.`, [
          id,
          o.wall,
        ]);
      Object.assign(draft.openings[id], next);
    }
  }
  return touched;
}

const NOTHING: readonly LinePiece[] = [];

const shellChanged = (a: Project, b: Project): boolean =>
  a.walls !== b.walls || a.corners !== b.corners || a.wallTypes !== b.wallTypes || a.levels !== b.levels || a.rooms !== b.rooms;

/** Frees openings from what is no longer there. */
function freed(before: Project, edited: Project, draft: Draft<Project>): Project {
  let openings = edited.openings;
  for (const id in edited.openings) {
    const o = edited.openings[id];
    if (o.place.kind === 'free' && o.head === null) continue;
    const gone = (mark: string): boolean => mark !== 'start' && mark !== 'end' && !edited.openings[mark] && !edited.pieces[mark];
    // A wall that was a gable and is one no longer frees what stood under its ridge.
    const wall = edited.walls[o.wall];
    const lost = o.place.kind === 'ridge' && before.openings[o.id]?.place.kind === 'ridge' && ridgeOver(edited, wall) === null;
    const place = lost || placedBy({ place: o.place, head: null }).some(gone) ? ({ kind: 'free' } as const) : o.place;
    const head = o.head !== null && gone(o.head) ? null : o.head;
    if (place === o.place && head === o.head) continue;
    Object.assign(draft.openings[id], { place, head });
    openings = { ...openings, [id]: { ...o, place, head } };
  }
  return openings === edited.openings ? edited : { ...edited, openings };
}

/** Whether a wall, or what meets it, is no longer as it was. */
function surroundingsChanged(before: Project, edited: Project, id: string, plans: Map<string, [Arrangement, Arrangement][]>): boolean {
  const [a, b] = [before.walls[id], edited.walls[id]];
  if (a !== b || !a || before.levels[a.level] !== edited.levels[b.level]) return true;
  if (before.wallTypes !== edited.wallTypes && a.type !== null && before.wallTypes[a.type] !== edited.wallTypes[a.type]) return true;
  let pairs = plans.get(a.level);
  if (!pairs) {
    // Of each phase the plans before and after the edit; where both phases have the same walls, once.
    const [then, now] = (['before', 'after'] as const).map((phase): [Arrangement, Arrangement] => [
      planOf(inPhase(before, phase), a.level).arrangement,
      planOf(inPhase(edited, phase), a.level).arrangement,
    ]);
    pairs = [then, ...(now[0] === then[0] && now[1] === then[1] ? [] : [now])].filter(([p, q]) => p !== q);
    plans.set(a.level, pairs);
  }
  for (const [p, q] of pairs) {
    const [mine, yours] = [p.byLine.get(id) ?? NOTHING, q.byLine.get(id) ?? NOTHING];
    if (mine.length !== yours.length) return true;
    for (let i = 0; i < mine.length; i++) {
      const { from, to } = mine[i];
      if (mine[i] !== yours[i] || p.fans[from] !== q.fans[from] || p.fans[to] !== q.fans[to]) return true;
    }
  }
  return false;
}
