import { add, cross, distance, scale, sub, unit } from '../geometry/vec';
import { isStraight } from '../shell/bow';
import type { ShellModel } from '../shell/model';
import type { DerivedWall, WallSide } from '../shell/wall-types';
import { cornersOf } from '../project/runs';
import type { Cabinet, Leg, Run } from '../project/schema/cabinets';
import { NEAR } from '../units/tolerance';
import type { BackLine } from './run';

/** A side of a wall as a leg of a run. */
export const legAlong = ({ wall, side, room }: Pick<WallSide, 'wall' | 'side'> & { room: string }): Extract<Leg, { kind: 'wall' }> => ({
  kind: 'wall',
  wall,
  side,
  room,
});

/** Where a leg along a side of a wall begins and ends, from left to right as one sees it: who looks at the left side of a wall has its end to the left. */
export const lineOf = ({ side, from, to }: Pick<WallSide, 'side' | 'from' | 'to'>): BackLine => (side === 'left' ? { from: to, to: from } : { from, to });

type Walls = ReadonlyMap<string, DerivedWall>;

/** The side of a wall a leg runs along: that which its room sees, else the longest there is. */
export function sideOf({ wall, side, room }: Extract<Leg, { kind: 'wall' }>, walls: Walls): WallSide | null {
  const own = (walls.get(wall)?.sides ?? []).filter((s) => s.side === side);
  return own.find((s) => s.room === room) ?? own.reduce<WallSide | null>((best, s) => (best && best.length >= s.length ? best : s), null);
}

/** Lines the backs of units stand on, from left to right as one sees them; null where a wall is not there. */
export function backLines({ legs }: Pick<Run, 'legs'>, walls: Walls): BackLine[] | null {
  const lines = legs.map((leg): BackLine | null => {
    if (leg.kind === 'free') return { from: leg.from, to: leg.to };
    const side = sideOf(leg, walls);
    return side && lineOf(side);
  });
  return lines.every((l) => l !== null) ? lines : null;
}

/** Lines of a run: one that stands free on a single line is as long as its units, where all of them have a width. */
export function asLongAs(units: readonly Pick<Cabinet, 'band' | 'width'>[], { legs }: Pick<Run, 'legs'>, lines: BackLine[] | null): BackLine[] | null {
  const standing = units.filter((u) => u.band !== 'wall');
  if (!lines || legs.length !== 1 || legs[0].kind !== 'free' || !standing.length || standing.some((u) => u.width === null)) return lines;
  const [{ from, to }] = lines;
  const long = standing.reduce((sum, u) => sum + u.width!, 0);
  return [{ from, to: add(from, scale(unit(sub(to, from)), long)) }];
}

/** The side of a wall of the same room that comes towards whoever stands before a leg in its right or left corner; null where it ends free. */
export function nextSide({ rooms, walls }: Pick<ShellModel, 'rooms' | 'walls'>, leg: Leg, line: BackLine, end: 'right' | 'left'): Leg | null {
  if (leg.kind !== 'wall' || !rooms.has(leg.room)) return null;
  const at = end === 'right' ? line.to : line.from;
  for (const { sides } of walls.values())
    for (const side of sides) {
      if (side.room !== leg.room || !isStraight(side) || (side.wall === leg.wall && side.side === leg.side)) continue;
      const own = lineOf(side);
      const towards = cross(sub(line.to, line.from), sub(own.to, own.from)) < 0;
      if (towards && distance(end === 'right' ? own.from : own.to, at) < NEAR) return legAlong({ wall: side.wall, side: side.side, room: leg.room });
    }
  return null;
}

const same = (a: Leg, b: Leg): boolean => a.kind === 'wall' && b.kind === 'wall' && a.wall === b.wall && a.side === b.side;

/** The leg a run goes on with round its right corner; null where it ends free, or comes back to where it was. */
export function legRound({ legs }: Pick<Run, 'legs'>, shell: Pick<ShellModel, 'rooms' | 'walls'>): Leg | null {
  const line = backLines({ legs }, shell.walls)?.at(-1);
  const next = line && nextSide(shell, legs.at(-1)!, line, 'right');
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
