import { add, cross, distance, dot, scale, sub, unit, type Vec2 } from '../geometry/vec';
import { isStraight } from '../shell/bow';
import { faceX } from '../shell/wall-face';
import type { ShellModel } from '../shell/model';
import type { DerivedWall, WallSide } from '../shell/wall-types';
import { cornersOf } from '../project/runs';
import type { Cabinet, Leg, Run } from '../project/schema/cabinets';
import type { Opening } from '../project/schema';
import { HAIR, NEAR } from '../units/tolerance';
import type { Stretch } from './leg';
import type { BackLine, LegEnd } from './run';

/** A side of a wall as a leg of a run. @param at a place it stands before, metres along the wall */
export const legAlong = ({ wall, side, room, at }: Pick<WallSide, 'wall' | 'side'> & { room: string; at?: number }): Extract<Leg, { kind: 'wall' }> => ({
  kind: 'wall',
  wall,
  side,
  room,
  ...(at === undefined ? {} : { at }),
});

/** Where a leg along a side of a wall begins and ends, from left to right as one sees it: who looks at the left side of a wall has its end to the left. */
export const lineOf = ({ side, from, to }: Pick<WallSide, 'side' | 'from' | 'to'>): BackLine => (side === 'left' ? { from: to, to: from } : { from, to });

type Walls = ReadonlyMap<string, DerivedWall>;

/** The sides of a wall a leg may run along: those that its room sees, else the longest there is; from left to right as one sees them. */
function partsOf({ wall, side, room }: Extract<Leg, { kind: 'wall' }>, walls: Walls): WallSide[] {
  const own = (walls.get(wall)?.sides ?? []).filter((s) => s.side === side);
  const seen = own.filter((s) => s.room === room);
  const parts = seen.length ? seen : own.reduce<WallSide[]>((best, s) => (best[0] && best[0].length >= s.length ? best : [s]), []);
  return side === 'left' ? parts.sort((a, b) => b.s0 - a.s0) : parts.sort((a, b) => a.s0 - b.s0);
}

/** The side of a wall a leg runs along: that which it stands before, else the first along the wall. */
export function sideOf(leg: Extract<Leg, { kind: 'wall' }>, walls: Walls): WallSide | null {
  const parts = partsOf(leg, walls);
  const { at } = leg;
  const near = (s: WallSide): number => (at === undefined ? s.s0 : Math.max(0, s.s0 - at, at - s.s1));
  return parts.reduce<WallSide | null>((best, s) => (best && near(best) <= near(s) ? best : s), null);
}

/** Something that stands out from a wall behind a run: units before it are so much less deep. Metres. */
export interface Obstacle extends Stretch {
  leg: number;
  depth: number;
  /** Its height above the floor of the level: what hangs higher is as deep as it is. */
  top: number;
}

/** What stands out farther parts a run, as a chimney breast does: it does not go on before it, metres. */
const DEEPEST = 0.35;

/** The line of a leg along all the sides of its wall that what stands out a little parts, with what stands out there. */
function lineAlong(leg: Extract<Leg, { kind: 'wall' }>, walls: Walls): { line: BackLine; side: WallSide; obstacles: Omit<Obstacle, 'leg'>[] } | null {
  const own = sideOf(leg, walls);
  if (!own) return null;
  const parts = partsOf(leg, walls).filter((s) => isStraight(s));
  const k = parts.indexOf(own);
  if (k < 0) return { line: lineOf(own), side: own, obstacles: [] };
  const d = unit(sub(lineOf(own).to, lineOf(own).from));
  const off = (p: Vec2, from: Vec2): Vec2 => ({ x: dot(sub(p, from), d), y: -cross(d, sub(p, from)) });
  /** How far what stands between two parts stands out, and how high it is; endless where one can't tell. */
  const between = (a: WallSide, b: WallSide): { deep: number; top: number } => {
    const [from, to] = [lineOf(a).to, lineOf(b).from];
    const long = distance(from, to);
    let [deep, top] = [0, 0];
    for (const { sides } of walls.values())
      for (const s of sides) {
        if (s.room !== leg.room) continue;
        const [p, q] = [off(s.from, from), off(s.to, from)];
        if (Math.min(p.x, q.x) < -HAIR || Math.max(p.x, q.x) > long + HAIR || Math.min(p.y, q.y) < -HAIR) continue;
        deep = Math.max(deep, p.y, q.y);
        top = Math.max(top, s.height);
      }
    return { deep: deep > NEAR ? deep : Infinity, top };
  };
  let [first, last] = [k, k];
  const found: { a: WallSide; b: WallSide; deep: number; top: number }[] = [];
  const goesOn = (i: number): boolean => {
    const [a, b] = [parts[i], parts[i + 1]];
    const own = a && b ? between(a, b) : null;
    if (!own || own.deep > DEEPEST) return false;
    found.push({ a, b, ...own });
    return true;
  };
  while (goesOn(last)) last++;
  while (goesOn(first - 1)) first--;
  const line = { from: lineOf(parts[first]).from, to: lineOf(parts[last]).to };
  const along = (p: Vec2): number => off(p, line.from).x;
  return { line, side: own, obstacles: found.map(({ a, b, deep, top }) => ({ from: along(lineOf(a).to), to: along(lineOf(b).from), depth: deep, top })) };
}

/** Lines the backs of units stand on, from left to right as one sees them; null where a wall is not there. */
export function backLines({ legs }: Pick<Run, 'legs'>, walls: Walls): BackLine[] | null {
  const lines = legs.map((leg): BackLine | null => (leg.kind === 'free' ? { from: leg.from, to: leg.to } : (lineAlong(leg, walls)?.line ?? null)));
  return lines.every((l) => l !== null) ? lines : null;
}

/** What of a wall no unit stands before: doors, ways through, windows down to the floor, with what frames them. */
const isWay = ({ kind, sill }: Opening): boolean => kind === 'door' || kind === 'passage' || (kind === 'window' && sill < LOWEST);

/** Windows that begin lower are ways out, metres. */
const LOWEST = 0.3;

/**
 * Lines of a run as far as units may stand: they end at doors, and go on before what stands out a little. A leg that begins or
 * ends in no corner has the stretch it stands before, else that at which it is packed; between two corners it is whole.
 *
 * @param turns in how many corners of it units stand
 */
export function standingLines(
  { legs, packed, start }: Pick<Run, 'legs' | 'packed' | 'start'>,
  turns: number,
  walls: Walls,
  openings: Readonly<Record<string, Opening>>,
): { lines: BackLine[]; obstacles: Obstacle[] } | null {
  const obstacles: Obstacle[] = [];
  const lines = legs.map((leg, i): BackLine | null => {
    if (leg.kind === 'free') return { from: leg.from, to: leg.to };
    const own = lineAlong(leg, walls);
    if (!own) return null;
    const { line, side } = own;
    const long = distance(line.from, line.to);
    const d = unit(sub(line.to, line.from));
    const alongLine = (s: number): number => dot(sub(lineOf(side).from, line.from), d) + faceX(side, s);
    const ways = Object.values(openings)
      .filter((o) => o.wall === leg.wall && isWay(o))
      .map((o): Stretch => {
        const [a, b] = [alongLine(o.at - o.width / 2), alongLine(o.at + o.width / 2)];
        return { from: Math.min(a, b) - o.architrave, to: Math.max(a, b) + o.architrave };
      })
      .sort((a, b) => a.from - b.from);
    const free: Stretch[] = [];
    let from = 0;
    for (const way of ways) {
      if (way.from > from + NEAR && way.from < long) free.push({ from, to: way.from });
      from = Math.max(from, way.to);
    }
    if (from < long - NEAR) free.push({ from, to: long });
    const [turnsBefore, turnsBehind] = [i > 0 && i <= turns, i < turns];
    const atEnd = turnsBehind || (packed === 'end' && !turnsBefore);
    const place = leg.at !== undefined && !turnsBefore && !turnsBehind ? alongLine(leg.at) : null;
    const meant =
      place !== null
        ? free.reduce<Stretch | null>((best, s) => (best && apart(best, place) <= apart(s, place) ? best : s), null)
        : ((atEnd ? [...free].reverse().find((s) => s.from < long - start - NEAR) : free.find((s) => s.to > start + NEAR)) ?? null);
    // Between two corners, and where nothing is left beside doors, it is whole.
    const whole = !meant || !ways.length || (turnsBefore && turnsBehind);
    // Where it begins is measured from where its wall does, but for a stretch one has pointed at.
    const low = whole ? 0 : place !== null || atEnd ? meant.from : 0;
    const high = whole ? long : place !== null || !atEnd ? meant.to : long;
    obstacles.push(...own.obstacles.map((o) => ({ ...o, from: o.from - low, to: o.to - low, leg: i })));
    const at = (p: Vec2, end: 'from' | 'to'): LegEnd => (meetsWall(leg.room, line, p, end, walls) ? 'wall' : 'nothing');
    return {
      from: add(line.from, scale(d, low)),
      to: add(line.from, scale(d, high)),
      ends: [low > NEAR ? 'way' : at(line.from, 'from'), high < long - NEAR ? 'way' : at(line.to, 'to')],
    };
  });
  return lines.every((l) => l !== null) ? { lines, obstacles } : null;
}

/** Whether a wall of the room comes towards whoever stands before a line, at one of its ends. */
function meetsWall(room: string, line: BackLine, p: Vec2, end: 'from' | 'to', walls: Walls): boolean {
  for (const { sides } of walls.values())
    for (const s of sides) {
      if (s.room !== room || s.length < NEAR) continue;
      const own = lineOf(s);
      // A wall that is bent comes towards one by its first stretch: its ends are enough to say so.
      const turn = cross(sub(line.to, line.from), sub(own.to, own.from)) * (end === 'to' ? -1 : 1);
      if (turn > NEAR && distance(end === 'to' ? own.from : own.to, p) < HAIR) return true;
    }
  return false;
}

const apart = ({ from, to }: Stretch, at: number): number => Math.max(0, from - at, at - to);

/** Lines of a run: one that stands free on a single line is as long as its units, where all of them have a width. */
export function asLongAs(units: readonly Pick<Cabinet, 'band' | 'width'>[], { legs }: Pick<Run, 'legs'>, lines: BackLine[] | null): BackLine[] | null {
  const standing = units.filter((u) => u.band !== 'wall');
  if (!lines || legs.length !== 1 || legs[0].kind !== 'free' || !standing.length || standing.some((u) => u.width === null)) return lines;
  const [{ from, to }] = lines;
  const long = standing.reduce((sum, u) => sum + u.width!, 0);
  return [{ from, to: add(from, scale(unit(sub(to, from)), long)) }];
}

/** The side of a wall of the same room that comes towards whoever stands before a leg in its right corner; null where it ends free. */
function nextSide({ rooms, walls }: Pick<ShellModel, 'rooms' | 'walls'>, leg: Leg, line: BackLine): Leg | null {
  if (leg.kind !== 'wall' || !rooms.has(leg.room)) return null;
  for (const { sides } of walls.values())
    for (const side of sides) {
      if (side.room !== leg.room || !isStraight(side) || (side.wall === leg.wall && side.side === leg.side)) continue;
      const own = lineOf(side);
      const towards = cross(sub(line.to, line.from), sub(own.to, own.from)) < 0;
      if (towards && distance(own.from, line.to) < NEAR) return legAlong({ wall: side.wall, side: side.side, room: leg.room });
    }
  return null;
}

const same = (a: Leg, b: Leg): boolean => a.kind === 'wall' && b.kind === 'wall' && a.wall === b.wall && a.side === b.side;

/** The leg a run goes on with round its right corner; null where it ends free, or comes back to where it was. */
export function legRound({ legs }: Pick<Run, 'legs'>, shell: Pick<ShellModel, 'rooms' | 'walls'>): Leg | null {
  const line = backLines({ legs }, shell.walls)?.at(-1);
  const next = line && nextSide(shell, legs.at(-1)!, line);
  return next && !legs.some((l) => same(l, next)) ? next : null;
}

/** The legs of a run that turns in as many corners as it has corner units: it goes on along the walls to its right, as far as there are any. */
export function legsAround(run: Pick<Run, 'legs'>, units: readonly Pick<Cabinet, 'band' | 'corner'>[], shell: Pick<ShellModel, 'rooms' | 'walls'>): Leg[] {
  const legs = [...run.legs];
  const corners = cornersOf(units);
  while (legs.length <= corners) {
    const next = legRound({ legs }, shell);
    if (!next) break;
    legs.push(next);
  }
  return legs;
}
