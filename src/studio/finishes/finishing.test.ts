import { beforeEach, describe, expect, it } from 'vitest';
import { newOpening } from '@/core/project/opening-defaults';
import type { Project } from '@/core/project/schema';
import { pieceFrom, stockItem } from '@/core/stock/stock';
import { edit, house, wallAt } from '@/core/testing/drafting';
import { targetName } from '@/core/project/targets';
import { outOfReach, reach, reachName, remember, useFinishing } from './finishing';

const square = (): Project =>
  house([
    [0, 0],
    [4, 0],
    [4, 3],
    [0, 3],
  ]);
const along = (p: Project, y: number): string => wallAt(p, (a, b) => a.y === y && b.y === y);

describe('how far a press with a finish reaches', () => {
  let p: Project;
  beforeEach(() => {
    p = square();
    p = edit(p, 'wall.draw', {
      level: 'ground',
      points: [
        { x: 2, y: 0 },
        { x: 2, y: 3 },
      ],
      closed: false,
      thickness: 0.1,
    });
    for (const [i, at] of [0.8, 3.2].entries()) p = edit(p, 'opening.add', newOpening(p, { id: `w${i}`, wall: along(p, 0), kind: 'window', at, width: 0.6 }));
    p = edit(p, 'opening.add', newOpening(p, { id: 'd', wall: along(p, 3), kind: 'door', at: 1 }));
    const chair = (id: string) => pieceFrom(stockItem('chair')!, id, p.levels.ground, { x: 1, y: 1 });
    p = edit(p, 'piece.add', { pieces: [chair('a'), chair('b')] });
  });

  it('one surface stays one surface, unless rooms were chosen together', () => {
    const [first, second] = Object.keys(p.rooms);
    const floor = { kind: 'floor', room: first } as const;
    expect(reach(p, floor, 'one', [])).toEqual([floor]);
    expect(reach(p, floor, 'one', [first])).toEqual([floor]);
    expect(reach(p, floor, 'one', [first, second])).toEqual([floor, { kind: 'floor', room: second }]);
    // A room that was not chosen changes alone.
    expect(reach(p, { kind: 'floor', room: 'other' }, 'one', [first, second])).toHaveLength(1);
  });

  it('a wall stands for all walls of its room, of rooms chosen together, of all rooms, or for the outside', () => {
    const [first, second] = Object.keys(p.rooms);
    const wall = { kind: 'wall', room: first, wall: along(p, 0), side: 'left' } as const;
    expect(reach(p, wall, 'room', [])).toEqual([{ kind: 'walls', room: first }]);
    expect(reach(p, wall, 'room', [first, second])).toHaveLength(2);
    expect(reach(p, wall, 'alike', [])).toHaveLength(2);
    // An outside face belongs to no room; a floor stands for the walls of its room.
    const outside = { ...wall, room: null };
    expect(reach(p, outside, 'room', [])).toEqual([]);
    expect(outOfReach(outside, 'room')).toMatch(/all outside walls/);
    expect(reach(p, outside, 'outside', [])).toEqual([{ kind: 'walls', room: null }]);
    expect(reach(p, outside, 'alike', [])).toEqual([{ kind: 'walls', room: null }]);
    expect(reach(p, { kind: 'floor', room: first }, 'room', [])).toEqual([{ kind: 'walls', room: first }]);
    expect(reach(p, { kind: 'ground' }, 'room', [])).toEqual([]);
    expect(outOfReach({ kind: 'part', of: 'd', part: 'leaf' }, 'room')).toMatch(/point at a wall/);
    expect(reachName(p, outside, reach(p, outside, 'outside', []))).toBe('All outside walls');
  });

  it('everything alike: all doors or all windows, all pieces of a kind, all mouldings of a kind', () => {
    const windows = reach(p, { kind: 'part', of: 'w0', part: 'frame' }, 'alike', []);
    expect(windows.map((t) => t.kind === 'part' && t.of)).toEqual(['w0', 'w1']);
    expect(reachName(p, windows[0], windows)).toBe('2 windows, frame');
    expect(reach(p, { kind: 'part', of: 'd', part: 'leaf' }, 'alike', [])).toHaveLength(1);
    const chairs = reach(p, { kind: 'part', of: 'a', part: 'seat' }, 'alike', []);
    expect(reachName(p, chairs[0], chairs)).toBe('2 alike, seat');
    // A chair is no wall.
    expect(reach(p, { kind: 'part', of: 'a', part: 'seat' }, 'room', [])).toEqual([]);
    const mouldings = Object.keys(p.rooms).map((r, i) => ({
      id: `m${i}`,
      name: 'skirting',
      room: r,
      kind: 'skirting' as const,
      profile: 'skirting-plain',
      height: null,
      at: null,
      without: [],
      finish: 'paint.skein',
    }));
    const q = edit(p, 'moulding.put', { mouldings });
    expect(reach(q, { kind: 'moulding', moulding: 'm0' }, 'alike', [])).toHaveLength(2);
    expect(reach(q, { kind: 'moulding', moulding: 'm0' }, 'one', [])).toHaveLength(1);
    expect(reach(q, { kind: 'moulding', moulding: 'm0' }, 'room', [])).toEqual([]);
  });

  it('names outside faces by the side they look to, with north where the site has it', () => {
    const faces = (north: number): string[] =>
      Object.values(p.walls)
        .filter((w) => w.thickness !== 0.1)
        .flatMap((w) => (['left', 'right'] as const).map((side) => [w, side] as const))
        .map(([w, side]) => {
          const [a, b] = [p.corners[w.start], p.corners[w.end]];
          const out = { x: (a.y - b.y) * (side === 'left' ? 1 : -1), y: (b.x - a.x) * (side === 'left' ? 1 : -1) };
          const name = targetName({ ...p, site: { ...p.site, north } }, { kind: 'wall', room: null, wall: w.id, side });
          return `${Math.round(out.x / Math.hypot(out.x, out.y))} ${Math.round(out.y / Math.hypot(out.x, out.y))} ${name}`;
        });
    const up = faces(Math.PI / 2);
    expect(up).toContain('0 -1 South side, outside');
    expect(up).toContain('1 0 East side, outside');
    expect(up).toContain('0 1 North side, outside');
    // North to the left in the plan: what faces down faces west.
    expect(faces(Math.PI)).toContain('0 -1 West side, outside');
  });

  it('what was taken in hand lately is remembered once, the latest first', () => {
    useFinishing.setState({ recent: [] });
    for (const id of ['a', 'b', 'a', 'c']) remember(id);
    expect(useFinishing.getState().recent).toEqual(['c', 'a', 'b']);
  });
});
