import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dot, left, sub } from '../geometry/vec';
import { deriveModel } from '../model/derive';
import { pieceFrom, stockCard } from '../stock/stock';
import { box, change, edit, wallBy } from '../testing/drafting';
import { runChange } from './commands';
import { DomainError } from './errors';
import { hemAt, hungAt } from './hanging';
import { newOpening } from './opening-defaults';
import { openingStation } from './openings';
import { emptyProject, type Hanging, type Opening, type Piece, type Project } from './schema';

const WINDOW = { width: 1.2, height: 1.1, sill: 0.9 };

/** A box of 6 by 4 m with a window in the middle of its front wall, and a curtain before it. */
function hung(window: Partial<Opening> = {}, hangs: Partial<Hanging> = {}, card = 'curtain'): { project: Project; wall: string; side: 'left' | 'right' } {
  const bare = box();
  const wall = wallBy(bare, [0, 0], [6, 0]);
  const opened = edit(bare, 'opening.add', newOpening(bare, { id: 'w', wall, kind: 'window', at: 3, ...WINDOW, architrave: 0, ...window } as Opening));
  const { rooms } = deriveModel(opened).shell.openings.get('w')!;
  const side = rooms.left ? 'left' : 'right';
  return { project: hang(opened, 'c', { side, ...hangs }, card), wall, side };
}

function hang(project: Project, id: string, hangs: Partial<Hanging>, card = 'curtain'): Project {
  const made = stockCard(card)!;
  const piece = pieceFrom(made, id, project.levels.ground, { x: 0, y: 0 });
  return edit(project, 'piece.add', {
    pieces: [{ ...piece, hangs: { opening: 'w', side: 'left', leg: false, ...made.item.hangs!, ...hangs } }],
  });
}

/** How far the back and the front of a piece are into the room from the middle of its wall, and its ends along it from the middle of the window, metres. */
function extent(project: Project, id = 'c'): { back: number; front: number; from: number; to: number; foot: number; top: number } {
  const piece = project.pieces[id];
  const { p, d } = openingStation(project, project.openings[piece.hangs!.opening]);
  const by = sub(piece, p);
  const off = dot(by, left(d)) * (piece.hangs!.side === 'left' ? 1 : -1);
  const along = dot(by, d);
  const { width, depth, height } = piece.size;
  return {
    back: off - depth / 2,
    front: off + depth / 2,
    from: along - width / 2,
    to: along + width / 2,
    foot: piece.elevation,
    top: piece.elevation + height,
  };
}

describe('what hangs at a window', () => {
  it('before the wall reaches over its edges, from its face into the room', () => {
    const { project } = hung();
    const at = extent(project);
    expect(at.back).toBeCloseTo(0.15, 9);
    expect([at.from, at.to]).toEqual([expect.closeTo(-0.8, 9), expect.closeTo(0.8, 9)]);
    expect([at.foot, at.top]).toEqual([expect.closeTo(0.01, 9), expect.closeTo(2.15, 9)]);
    // Its front looks into the room, whose middle is at 3, 2.
    const { rotation } = project.pieces.c;
    expect(dot({ x: Math.sin(rotation), y: -Math.cos(rotation) }, sub({ x: 3, y: 2 }, project.pieces.c))).toBeGreaterThan(1);
  });

  it('ends at the floor, the sill, below it, at the opening, or is as high as it is', () => {
    expect([hemAt('floor', 0.9), hemAt('sill', 0.9), hemAt('below the sill', 0.9), hemAt('sill', 0)]).toEqual([0.01, 0.91, 0.75, 0.01]);
    const ends = (how: Hanging['ends'], more: Partial<Opening> = {}): number[] => {
      const { foot, top } = extent(hung({ sillBoard: 0, ...more }, { ends: how, below: 0.03 }).project);
      return [foot, top].map((v) => Math.round(v * 1e6) / 1e6);
    };
    expect(ends('floor')).toEqual([0.01, 2.15]);
    expect(ends('sill')).toEqual([0.91, 2.15]);
    expect(ends('below the sill')).toEqual([0.75, 2.15]);
    expect(ends('opening')).toEqual([0.87, 2.15]);
    // A window board is in its way.
    expect(ends('opening', { sillBoard: 0.05 })).toEqual([0.9, 2.15]);
    const own = stockCard('curtain')!.size.height;
    expect(ends('as high as it is')).toEqual([0, Math.max(2.15, own)].map((v) => Math.round(v * 1e6) / 1e6));
  });

  it('in the recess keeps within the reveals, behind the face where there is room, clear of handles', () => {
    const at = extent(hung({ stand: { kind: 'set-back', from: 'back', by: 0.2 } }, {}, 'roller-blind').project);
    expect([at.from, at.to]).toEqual([expect.closeTo(-0.595, 9), expect.closeTo(0.595, 9)]);
    expect([at.foot, at.top]).toEqual([expect.closeTo(0.9, 9), expect.closeTo(2, 9)]);
    // The reveal is 200 mm deep: 60 of handles, 70 of blind.
    expect(at.back).toBeCloseTo(0.15 - 0.2 + 0.06, 9);
    // In one of 40 mm it stands out before the wall.
    const flat = extent(hung({ stand: { kind: 'set-back', from: 'back', by: 0.04 } }, {}, 'roller-blind').project);
    expect(flat.back).toBeCloseTo(0.15 - 0.04, 9);
  });

  it('keeps to the wall it hangs at: to its corners, its ceiling, and half way to what hangs beside it', () => {
    // The inner face starts at 0.15; 0.1 m are left beside the window.
    const at = extent(hung({ at: 0.85 }).project);
    const wide = hung({ at: 0.85 }).project.openings.w.at;
    expect(at.from).toBeCloseTo(0.155 - wide, 6);
    expect(at.to).toBeCloseTo(0.8, 9);
    const { project, wall, side } = hung();
    const two = edit(project, 'opening.add', newOpening(project, { id: 'v', wall, kind: 'window', at: 4.4, ...WINDOW } as Opening));
    expect(extent(two).to).toBeCloseTo(0.6 + 0.1 - 0.005, 9);
    expect(extent(two).from).toBeCloseTo(-0.8, 9);
    const both = hang(two, 'd', { opening: 'v', side });
    expect(extent(both, 'd').from).toBeCloseTo(-0.6 - 0.1 + 0.005, 9);
    // Two hang side by side and do not touch.
    const low = edit(project, 'level.set', { id: 'ground', set: { height: 2.1 } });
    expect(extent(low).top).toBeCloseTo(2.095, 9);
  });

  it('follows its window, whatever is done to that or its wall, and so do its undos', () => {
    const { project, wall } = hung();
    const cases = fc.oneof(
      fc.record({ command: fc.constant('opening.set' as const), set: fc.record({ at: fc.double({ min: 1, max: 5, noNaN: true }) }) }),
      fc.record({
        command: fc.constant('opening.set' as const),
        set: fc.record({
          width: fc.double({ min: 0.4, max: 1.6, noNaN: true }),
          height: fc.double({ min: 0.4, max: 1.2, noNaN: true }),
          sill: fc.double({ min: 0, max: 1, noNaN: true }),
        }),
      }),
      fc.record({ command: fc.constant('wall.move' as const), offset: fc.double({ min: -0.6, max: 0.6, noNaN: true }) }),
      fc.record({ command: fc.constant('level.set' as const), height: fc.double({ min: 2.3, max: 3, noNaN: true }) }),
    );
    fc.assert(
      fc.property(fc.array(cases, { minLength: 1, maxLength: 6 }), (steps) => {
        let now = project;
        for (const step of steps) {
          try {
            const done =
              step.command === 'opening.set'
                ? change(now, 'opening.set', { opening: 'w', set: { ...step.set, place: { kind: 'free' } } })
                : step.command === 'wall.move'
                  ? change(now, 'wall.move', { wall, offset: step.offset })
                  : change(now, 'level.set', { id: 'ground', set: { height: step.height } });
            const back = runChange(done.project, { id: 'undo-this1', kind: 'undo', target: 'x', command: 'history.patch', args: { patches: done.inverse } });
            expect(back.project).toEqual(now);
            now = done.project;
          } catch (error) {
            if (!(error instanceof DomainError)) throw error;
          }
          const piece = now.pieces.c as Piece & { hangs: Hanging };
          const { level, x, y, rotation, elevation, size } = piece;
          const want = hungAt(now, piece);
          expect({ level, x, y, rotation, elevation, size }).toEqual(want);
          // And of itself: the back at the face, the middle over the window, the top above its head.
          const at = extent(now);
          expect(at.back).toBeCloseTo(0.15, 6);
          expect(at.from).toBeLessThanOrEqual(-now.openings.w.width / 2 + 1e-9);
          const { sill, height } = now.openings.w;
          expect(at.top).toBeGreaterThanOrEqual(sill + height - 1e-9);
          expect(at.top).toBeLessThanOrEqual(Math.max(sill + height, Math.min(sill + height + 0.15, now.levels.ground.height)) + 1e-9);
          expect(at.foot).toBeCloseTo(0.01, 6);
        }
      }),
      { numRuns: 25 },
    );
  });

  it('goes when its window goes, or its wall, and comes back with it', () => {
    const { project, wall } = hung();
    for (const id of ['w', wall]) {
      const { project: gone, inverse } = change(project, 'delete', { ids: [id] });
      expect(gone.pieces).toEqual({});
      const back = runChange(gone, { id: 'undo-this2', kind: 'undo', target: 'x', command: 'history.patch', args: { patches: inverse } });
      expect(back.project.pieces.c).toEqual(project.pieces.c);
    }
  });

  it('is taken off where its place is set, and stays where others are moved', () => {
    const { project } = hung();
    const off = edit(project, 'piece.set', { piece: 'c', set: { x: 2, y: 2 } });
    expect(off.pieces.c).toMatchObject({ hangs: null, x: 2, y: 2 });
    expect(edit(project, 'pieces.move', { pieces: ['c'], by: { x: 1, y: 0 }, turn: 0 }).pieces.c).toEqual(project.pieces.c);
    // Its make is its own: it stays where it hangs, as wide and as high as that asks.
    const deep = edit(project, 'piece.set', { piece: 'c', set: { size: { width: 3, depth: 0.2, height: 1 } } });
    expect(deep.pieces.c.hangs).not.toBeNull();
    expect(deep.pieces.c.size).toEqual({ ...project.pieces.c.size, depth: 0.2 });
    expect(extent(deep).back).toBeCloseTo(0.15, 9);
  });

  it('stays in its room when that is mirrored or turned', () => {
    const { project } = hung({ at: 2 }, {}, 'curtain-single');
    const room = Object.keys(project.rooms)[0];
    for (const how of ['mirror-x', 'mirror-y', 'half-turn'] as const) {
      const carried = edit(project, 'room.carry', { room, how });
      const { rooms } = deriveModel(carried).shell.openings.get('w')!;
      expect(rooms[carried.pieces.c.hangs!.side], how).toBe(room);
      expect(extent(carried).back).toBeCloseTo(0.15, 6);
      expect(carried.pieces.c.mirrored, how).toBe(how !== 'half-turn');
    }
  });

  it('stays where it is when its wall is joined to one that runs the other way', () => {
    // Two walls in one line that run towards one another, the window in the second.
    let p = edit(emptyProject('p', 'P'), 'wall.draw', { level: 'ground', points: [{ x: 0, y: 0 }, { x: 3, y: 0 }], closed: false, thickness: 0.2 }); // prettier-ignore
    p = edit(p, 'wall.draw', { level: 'ground', points: [{ x: 6, y: 0 }, { x: 3, y: 0 }], closed: false, thickness: 0.2 }); // prettier-ignore
    const [a, b] = [wallBy(p, [0, 0], [3, 0]), wallBy(p, [6, 0], [3, 0])];
    p = edit(p, 'opening.add', newOpening(p, { id: 'w', wall: b, kind: 'window', at: 1.4, ...WINDOW, architrave: 0 } as Opening));
    for (const side of ['left', 'right'] as const) {
      const before = hang(p, 'c', { side });
      const joined = edit(before, 'wall.join', { a, b });
      expect(joined.openings.w.wall).toBe(a);
      const { x, y, elevation } = joined.pieces.c;
      expect([x, y, elevation]).toEqual([before.pieces.c.x, before.pieces.c.y, before.pieces.c.elevation].map((v) => expect.closeTo(v, 6)));
      expect(joined.pieces.c.hangs!.side).not.toBe(side);
    }
  });

  it('is copied with its wall, at the copy of its window; by itself the copy hangs at none', () => {
    const { project, wall } = hung();
    const how = { about: { x: 3, y: 0 }, turn: 0, mirror: null, by: { x: 0, y: -3 }, copy: true };
    const copied = edit(project, 'carry', { ids: [wall], ...how });
    const [other] = Object.values(copied.pieces).filter((p) => p.id !== 'c');
    expect(other.hangs!.opening).not.toBe('w');
    expect(copied.openings[other.hangs!.opening].wall).not.toBe(wall);
    expect(other.y).toBeCloseTo(copied.pieces.c.y - 3, 6);
    const alone = edit(project, 'carry', { ids: ['c'], ...how });
    expect(Object.values(alone.pieces).find((p) => p.id !== 'c')!.hangs).toBeNull();
    expect(alone.pieces.c.hangs).not.toBeNull();
  });

  it('is not hung between the reveals of an arch, and hangs before the wall where a window becomes one', () => {
    const arch = { kind: 'arch', rise: 0.3 } as const;
    expect(() => hung({ shape: arch }, { where: 'recess' }, 'roller-blind')).toThrow(
      /^Roller blind was not hung between the reveals .* head is not straight; hang it before the wall\.$/,
    );
    const { project } = hung({}, {}, 'roller-blind');
    const arched = edit(project, 'opening.set', { opening: 'w', set: { shape: arch, form: 'fixed' } });
    expect(extent(arched).back).toBeGreaterThanOrEqual(0.15 - 1e-9);
    expect(extent(arched).to).toBeCloseTo(0.675, 9);
  });

  it('needs its window to be there', () => {
    const { project } = hung();
    expect(() => edit(project, 'piece.set', { piece: 'c', set: { hangs: { ...project.pieces.c.hangs!, opening: 'nowhere' } } })).toThrow(DomainError);
    expect(() => hang(project, 'd', { opening: 'nowhere' })).toThrow(DomainError);
  });
});
