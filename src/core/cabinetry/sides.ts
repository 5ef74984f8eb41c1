import { distance } from '../geometry/vec';
import type { ShellModel } from '../shell/model';
import type { WallSide } from '../shell/wall-types';
import type { Leg } from '../project/schema/cabinets';
import { NEAR } from '../units/tolerance';
import type { BackLine } from './run';

/** A side of a wall as a leg of a run. */
export const legAlong = ({ wall, side, room }: Pick<WallSide, 'wall' | 'side'> & { room: string }): Leg => ({ kind: 'wall', wall, side, room });

/** Where a leg along a side of a wall begins and ends, from left to right as one sees it: who looks at the left side of a wall has its end to the left. */
export const lineOf = ({ side, from, to }: Pick<WallSide, 'side' | 'from' | 'to'>): BackLine => (side === 'left' ? { from: to, to: from } : { from, to });

/** The side of a wall of the same room that a leg meets in its right or left corner; null where it ends free. */
export function nextSide({ rooms, walls }: Pick<ShellModel, 'rooms' | 'walls'>, leg: Leg, line: BackLine, end: 'right' | 'left'): Leg | null {
  if (leg.kind !== 'wall' || !rooms.has(leg.room)) return null;
  const at = end === 'right' ? line.to : line.from;
  for (const { sides } of walls.values())
    for (const side of sides) {
      if (side.room !== leg.room || side.path.length > 2 || (side.wall === leg.wall && side.side === leg.side)) continue;
      const own = lineOf(side);
      if (distance(end === 'right' ? own.from : own.to, at) < NEAR) return legAlong({ wall: side.wall, side: side.side, room: leg.room });
    }
  return null;
}
