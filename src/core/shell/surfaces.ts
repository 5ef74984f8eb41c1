import type { Mesh } from '../geometry/mesh';
import type { Parts } from '../model/body';
import { partKinds } from '../project/kinds';
import { BARE } from '../project/kinds/first-finishes';
import type { DerivedWall, WallSide } from './wall-types';

/** The parts of a wall: its faces with their finishes, its top, its hidden ends. */
export function putWall(
  parts: Parts,
  wall: DerivedWall,
  finishOf: (side: WallSide) => { finish: string; chosen: boolean },
  tops: { top: Mesh; edge: Mesh },
  level: string,
): void {
  const owner = { id: wall.id, kind: 'walls', level } as const;
  wall.sides.forEach((side, i) =>
    parts.put(owner, {
      part: side.side,
      key: `${side.side}/${i}`,
      sort: 'wall',
      ...finishOf(side),
      target: { kind: 'wall', room: side.room, wall: wall.id, side: side.side },
      mesh: wall.faces[i],
    }),
  );
  if (wall.wall.kind !== 'wall') return;
  // A top that is seen goes on as the face beside it, the one in a room first; what ends at a ceiling shows the cut.
  if (partKinds('walls', wall.wall, NO_LOOK).length) {
    const beside = wall.sides.find((side) => !side.outdoors) ?? wall.sides[0];
    parts.putOf(owner, wall.wall, { part: 'top', sort: 'top', mesh: tops.top }, beside && finishOf(beside).finish);
  } else parts.put(owner, { part: 'top', sort: 'top', finish: BARE.cut, target: null, mesh: tops.top });
  parts.put(owner, { part: 'foot', sort: 'top', finish: BARE.cut, target: null, mesh: tops.edge });
  parts.put(owner, { part: 'cap', sort: 'cap', finish: BARE.cut, target: null, mesh: wall.caps });
}

const NO_LOOK = { roofs: {}, outside: { walls: null } };
