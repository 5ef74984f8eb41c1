import { describe, expect, it } from 'vitest';
import { deriveModel } from '../model/derive';
import type { Cabinet } from '../project/schema';
import { box, house, wallBy } from '../testing/drafting';
import { backLines, legAlong, legRound, legsAround } from './sides';

const room = box(5, 4);
const [inside] = Object.keys(room.rooms);
const along = (a: [number, number], b: [number, number]) => legAlong({ wall: wallBy(room, a, b), side: 'left', room: inside });
const south = along([0, 0], [5, 0]);
const { shell } = deriveModel(room);

/** So many corner units, with one that hangs over each of them. */
const corners = (n: number): Pick<Cabinet, 'band' | 'corner'>[] =>
  Array.from({ length: n }, () => (['base', 'wall'] as const).map((band) => ({ band, corner: 'L' as const }))).flat();

describe('the sides a run stands along', () => {
  it('follow one another to the right as one sees them, each where the one before ends', () => {
    const legs = legsAround({ legs: [south] }, corners(3), shell);
    const [west, north, east] = [along([0, 4], [0, 0]), along([5, 4], [0, 4]), along([5, 0], [5, 4])];
    expect(legs).toEqual([south, west, north, east]);
    const lines = backLines({ legs }, shell.walls)!;
    lines.slice(1).forEach((line, i) => {
      expect(line.from.x).toBeCloseTo(lines[i].to.x, 9);
      expect(line.from.y).toBeCloseTo(lines[i].to.y, 9);
    });
  });

  it('are no more than there are corners, and come round to none twice', () => {
    expect(legsAround({ legs: [south] }, corners(0), shell)).toEqual([south]);
    expect(legsAround({ legs: [south] }, corners(9), shell)).toHaveLength(4);
    expect(legRound({ legs: legsAround({ legs: [south] }, corners(3), shell) }, shell)).toBeNull();
    const free = { kind: 'free', from: { x: 1, y: 1 }, to: { x: 3, y: 1 } } as const;
    expect(legsAround({ legs: [free] }, corners(2), shell)).toEqual([free]);
  });

  it('end at a corner that stands out into the room', () => {
    // Seen from within, the corner at 2, 2 stands out.
    const l = house([
      [0, 0],
      [5, 0],
      [5, 4],
      [2, 4],
      [2, 2],
      [0, 2],
    ]);
    const [only] = Object.keys(l.rooms);
    const first = legAlong({ wall: wallBy(l, [0, 0], [5, 0]), side: 'left', room: only });
    const legs = legsAround({ legs: [first] }, corners(9), deriveModel(l).shell);
    expect(legs.map((leg) => leg.kind === 'wall' && leg.wall)).toEqual([first.wall, wallBy(l, [0, 0], [0, 2]), wallBy(l, [0, 2], [2, 2])]);
  });
});
