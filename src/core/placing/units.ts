import { newRunIn } from '../cabinetry/begin';
import { CONSTRUCTIONS } from '../cabinetry/figures';
import type { DerivedRun } from '../cabinetry/derive';
import { inOrder, unitsFrom } from '../cabinetry/line';
import type { BackLine } from '../cabinetry/run';
import { legAlong, legsAround, lineOf, standingLines } from '../cabinetry/sides';
import { insideRegion } from '../geometry/polygon';
import { add, distance, dot, left, scale, sub, unit, type Vec2 } from '../geometry/vec';
import { derivedOf, type Model } from '../model/model';
import { roomAt } from './around';
import { roomOfRun } from '../project/runs';
import { freeName } from '../project/things';
import { isStraight } from '../shell/bow';
import { faceS } from '../shell/wall-face';
import type { Cabinet, Run, Side } from '../project/schema';
import { formatLength, INCH, type UnitSystem } from '../units/length';
import { NEAR } from '../units/tolerance';

/** A run with a unit put in: what `run.lay` is given. */
export interface UnitPlaced {
  run: Run;
  units: Cabinet[];
  /** The unit that was put in. */
  unit: string;
  /** Where it goes, in words. */
  note: string;
}

/** How far before a wall one points and still means it, and how far into it, metres. */
const BEFORE = 0.9;
const INTO = 0.3;

/** A run begins at a multiple of this along its wall, metres. */
const STEP: Readonly<Record<UnitSystem, number>> = { metric: 0.05, imperial: 3 * INCH };

/** With less than this left beside it a new run begins at the end of its wall; farther than this from a run begins another, metres. */
const FLUSH = 0.25;
const APART = 0.6;

interface Before {
  wall: string;
  side: Side;
  room: string;
  line: BackLine;
  /** Along the line, metres. */
  at: number;
  /** Along its wall, metres. */
  along: number;
}

/** The side of a wall one stands before at a point of the plan: the nearest that a room sees; null: none is near. */
export function sideBefore({ shell }: Model, level: string, point: Vec2): Before | null {
  let best: Before | null = null;
  let least = BEFORE;
  for (const { wall, sides } of shell.walls.values()) {
    if (wall.level !== level || wall.kind === 'boundary') continue;
    for (const side of sides) {
      if (side.room === null || !isStraight(side)) continue;
      const line = lineOf(side);
      const along = unit(sub(line.to, line.from));
      const from = sub(point, line.from);
      const at = dot(from, along);
      // Who faces a wall has its right along the line.
      const off = dot(from, scale(left(along), -1));
      if (at < -NEAR || at > distance(line.from, line.to) + NEAR || off < -INTO || Math.abs(off) >= least) continue;
      least = Math.abs(off);
      best = { wall: side.wall, side: side.side, room: side.room, line, at, along: faceS(side, at) };
    }
  }
  return best;
}

const standsAt = (run: Run, { wall, side }: Before): number => run.legs.findIndex((l) => l.kind === 'wall' && l.wall === wall && l.side === side);

/** How far a place along a leg is from what stands on it, metres; endless where nothing does. */
function awayFrom({ units }: DerivedRun, leg: number, at: number): number {
  const spans = units.flatMap(({ placed: p }) => [...(p.leg === leg ? [p.stretch] : []), ...(p.arms && p.leg + 1 === leg ? [{ from: 0, to: p.arms[1] }] : [])]);
  return Math.min(Infinity, ...spans.map((s) => Math.max(0, s.from - at, at - s.to)));
}

interface Near {
  derived: DerivedRun;
  leg: number;
  /** Along the leg, metres. */
  at: number;
  away: number;
}

/** The unit on the floor one points at, and where along its leg. */
function unitUnder(runs: readonly DerivedRun[], point: Vec2): Near | null {
  for (const derived of runs)
    for (const { unit: own, placed } of derived.units) {
      if (own.band === 'wall' || placed.corner || !insideRegion(point, { outer: placed.footprint, holes: [] })) continue;
      const { from, to } = derived.legs[placed.leg];
      return { derived, leg: placed.leg, at: dot(sub(point, from), unit(sub(to, from))), away: 0 };
    }
  return null;
}

/** How far from the line of what stands free one points and still means it, metres: behind it, before it, beyond its ends. */
const AROUND = { behind: 0.15, before: 0.9, beside: 0.4 } as const;

/** A run that stands free on a single line, where one points beside it. */
function freeNear(derived: DerivedRun, point: Vec2): Near[] {
  const [leg] = derived.run.legs;
  if (derived.run.legs.length !== 1 || leg.kind !== 'free') return [];
  const [{ from, to }] = derived.legs;
  const along = unit(sub(to, from));
  const at = dot(sub(point, from), along);
  const off = dot(sub(point, from), scale(left(along), -1));
  if (off < -AROUND.behind || off > AROUND.before || at < -AROUND.beside || at > distance(from, to) + AROUND.beside) return [];
  return [{ derived, leg: 0, at, away: Math.max(0, -at, at - distance(from, to)) }];
}

/** The line of a run that begins free in a room: its fronts look to the nearest run along a wall, else away from the nearest wall; where one points is the middle of its unit. */
function freeLine(model: Model, runs: readonly DerivedRun[], level: string, point: Vec2, wide: number, step: number): BackLine {
  const off = ({ from, to }: BackLine): number => {
    const d = unit(sub(to, from));
    const t = Math.max(0, Math.min(distance(from, to), dot(sub(point, from), d)));
    return distance(point, add(from, scale(d, t)));
  };
  const nearest = (lines: readonly BackLine[]): BackLine | undefined => [...lines].sort((a, b) => off(a) - off(b))[0];
  const room = roomAt(model, { level, ...point });
  const facing = nearest(runs.filter((r) => roomOfRun(r.run) === room).flatMap((r) => r.legs.filter((_, i) => r.run.legs[i]?.kind === 'wall')));
  const behind = nearest([...model.shell.walls.values()].flatMap(({ sides }) => sides.filter((s) => s.room === room && isStraight(s)).map(lineOf)));
  const by = facing ?? behind;
  const d = by ? scale(unit(sub(by.to, by.from)), facing ? -1 : 1) : { x: 1, y: 0 };
  const { construction, units } = model.project;
  const deep = (construction ?? CONSTRUCTIONS[units === 'metric' ? 'frameless' : 'imperial']).base.depth;
  const corner = add(add(point, scale(d, -wide / 2)), scale(left(d), deep / 2));
  const from = { x: Math.round(corner.x / step) * step, y: Math.round(corner.y / step) * step };
  return { from, to: add(from, scale(d, wide)) };
}

/**
 * What putting a unit where one points does: beside the units that stand or hang along that side of a wall, before the first
 * whose middle lies further on; else it begins a run of its own there. Away from walls it stands free, beside what stands free
 * there.
 *
 * @param model as it stands, without what is shown
 * @param said the unit in the words of a line: "600 drawers"
 * @param newId ids of a run and a unit that do not exist yet
 * @returns what `run.lay` is given, or one sentence on why it goes nowhere
 */
export function putUnit(model: Model, level: string, point: Vec2, said: string, newId: (what: 'run' | 'unit') => string): UnitPlaced | string {
  const { project, shell } = model;
  const runs = derivedOf(model, 'runs').filter((r) => r.run.level === level);
  const under = unitUnder(runs, point);
  const before = under ? null : sideBefore(model, level, point);
  const made = unitsFrom(said, '', [], project.units, () => newId('unit'));
  if (!made.ok) return made.message;
  const [one] = made.units;
  const room = under || before ? null : roomAt(model, { level, ...point });
  if (!under && !before && room === null) return 'Point into a room, or at the face of a wall that a room sees.';
  const near =
    under ??
    (before
      ? runs.flatMap((derived) => {
          const leg = standsAt(derived.run, before);
          return leg < 0 ? [] : [{ derived, leg, at: before.at, away: awayFrom(derived, leg, before.at) }];
        })
      : runs.flatMap((derived) => freeNear(derived, point))
    ).sort((a, b) => a.away - b.away)[0];
  const wide = one.width ?? 0;
  // A run without units is waiting for its first.
  if (near && (near.away < wide + APART || !near.derived.units.length)) {
    const { derived, leg, at } = near;
    const hung = one.band === 'wall';
    const next = derived.units
      .filter((u) => (u.unit.band === 'wall') === hung)
      .find(({ placed: p }) => p.leg > leg || (p.leg === leg && (p.stretch.from + p.stretch.to) / 2 > at));
    const all = inOrder(Object.values(project.cabinets).filter((u) => u.run === derived.id));
    const index = next ? all.findIndex((u) => u.id === next.unit.id) : all.length;
    const units = [...all.slice(0, index), { ...one, run: derived.id }, ...all.slice(index)].map((u, order) => ({ ...u, order }));
    const { from, to } = derived.legs[leg];
    // A single line in the room grows to the side a unit is put to: those that stand stay where they are.
    const grows = !hung && all.length > 0 && derived.run.legs.length === 1 && derived.run.legs[0].kind === 'free';
    const more = scale(unit(sub(to, from)), wide);
    const legs = grows
      ? [{ kind: 'free' as const, ...(index === 0 ? { from: sub(from, more), to } : { from, to: add(to, more) }) }]
      : legsAround(derived.run, units, shell);
    const note = next ? `before ${next.unit.name}` : all.length ? `after ${all[all.length - 1].name}` : `into ${derived.run.name}`;
    return { run: { ...derived.run, legs }, units, unit: one.id, note };
  }
  if (!before) {
    if (one.band !== 'base') return 'It hangs on a wall, or stands before one: point at the face of a wall that a room sees.';
    if (one.width === null) return 'What stands free has a width: say it before the word, as in “600 drawers”.';
    if (one.corner) return 'A corner unit stands where two walls meet: point at the face of a wall that a room sees.';
    const line = freeLine(model, runs, level, point, wide, STEP[project.units]);
    const run = newRunIn(project, newId('run'), freeName('Island', project.runs), level, [{ kind: 'free', ...line }]);
    return { run, units: [{ ...one, run: run.id, order: 0 }], unit: one.id, note: 'stands free' };
  }
  // Where there is no run there is a wall.
  const leg = legAlong({ ...before, at: before.along });
  // The stretch one points at: up to doors, and on before what stands out a little.
  const line = standingLines({ legs: [leg], packed: 'start', start: 0 }, 0, shell.walls, project.openings)?.lines[0] ?? before.line;
  const at = dot(sub(point, line.from), unit(sub(line.to, line.from)));
  const length = distance(line.from, line.to);
  if (wide > length + NEAR) return `It is ${formatLength(wide - length, project.units)} wider than there is room along this wall.`;
  const step = STEP[project.units];
  const begun = Math.min(length - wide, Math.max(0, Math.round((at - wide / 2) / step) * step));
  const start = begun < FLUSH ? 0 : length - wide - begun < FLUSH ? length - wide : begun;
  const run = newRunIn(project, newId('run'), freeName('Run', project.runs), level, [leg]);
  const legs = legsAround(run, [one], shell);
  return {
    run: { ...run, legs, start: one.corner || one.width === null ? 0 : start },
    units: [{ ...one, run: run.id, order: 0 }],
    unit: one.id,
    note: `${formatLength(start, project.units)} from the left, ${formatLength(length - wide - start, project.units)} from the right`,
  };
}
