import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { signedArea } from '@/core/geometry/polygon';
import { shapeOutline } from '@/core/project/drafting';
import { house } from '@/core/testing/drafting';
import { random } from '@/core/testing/random';
import { openProject, useStudio } from '../store/studio';
import { pressBuilding, showBuilding } from './building';
import { cancel, down, enter, move, nextField, type, up } from './controller';
import { applyFinish, showDropFinish, showFinish } from './finishing';
import { pressOpening, showOpening } from './openings';
import { pressOutline, showOutline } from './outlining';
import { dropPiece, showDrop } from './pieces';
import type { TablePoint } from './session';
import { pressWalls, showWalls } from './walls';

vi.mock('idb-keyval', () => import('./empty-store'));

const project = house([
  [0, 0],
  [5, 0],
  [5, 4],
  [0, 4],
]);
const [room] = Object.keys(project.rooms);
const [wall] = Object.keys(project.walls);
const at = (x: number, y: number, spot: TablePoint['spot'] = null): TablePoint => ({ plan: { x, y }, spot, reach: 0.1, shift: false });
const state = () => useStudio.getState();

let close: () => void;
beforeEach(async () => {
  vi.stubGlobal('addEventListener', () => undefined);
  vi.stubGlobal('removeEventListener', () => undefined);
  vi.stubGlobal('document', { hidden: false });
  vi.stubGlobal('fetch', () => Promise.resolve(Response.json({ seq: 0, project, history: [], changes: [] })));
  close = openProject('p');
  await vi.waitFor(() => expect(state().ready && state().project.rooms[room]).toBeTruthy());
});
afterEach(() => {
  cancel();
  close();
  vi.unstubAllGlobals();
});

/** What is shown and then done is one model: nothing is worked out a second time. */
function sameModel(show: () => void, act: () => void): void {
  const before = state().project;
  show();
  const shown = state().model;
  expect(shown.project).not.toBe(before);
  act();
  expect(state().project).not.toBe(before);
  expect(state().model).toBe(shown);
  expect(shown.project).toBe(state().project);
}

describe('what is shown is what is done', () => {
  it('of a piece dragged from the ledge, and of the next one after it', () => {
    const card = 'sofa';
    for (const x of [2, 3.5])
      sameModel(
        () => showDrop(card, at(x, 2)),
        () => dropPiece(card, at(x, 2)),
      );
    expect(Object.keys(state().project.pieces)).toHaveLength(2);
  });

  it('of an opening on a wall', () => {
    state().setTool({ kind: 'opening', opening: 'window', form: 'casement' } as never);
    const spot = { entity: wall, target: null };
    sameModel(
      () => showOpening(at(2.5, 0, spot)),
      () => pressOpening(at(2.5, 0, spot)),
    );
  });

  it('of an opening whose own picture lies under the pointer, where two walls run side by side', () => {
    // Both are within reach of the point; the nearer one is not the one that was pointed at.
    const other = Object.keys(project.walls).find((id) => id !== wall)!;
    state().setTool({ kind: 'opening', opening: 'door', form: 'hinged' } as never);
    const corner = project.corners[project.walls[wall].end];
    const near = { x: corner.x - 0.6, y: corner.y };
    const pointed = { entity: other, target: null };
    showOpening(at(near.x, near.y, pointed));
    const first = Object.values(state().model.project.openings)[0];
    expect(first.wall).toBe(other);
    const itself = { entity: first.id, target: null };
    sameModel(
      () => showOpening(at(near.x, near.y, itself)),
      () => pressOpening(at(near.x, near.y, itself)),
    );
    expect(state().project.openings[first.id]).toEqual(first);
  });

  it('of openings anywhere along random walls, whatever of what is shown is pointed at', () => {
    const next = random(7);
    let placed = 0;
    for (let k = 0; k < 25; k++) {
      const ids = Object.keys(state().project.walls);
      const own = ids[Math.floor(next() * ids.length)];
      const [a, b] = [state().project.walls[own].start, state().project.walls[own].end].map((id) => state().project.corners[id]);
      const t = next();
      const p = { x: a.x + (b.x - a.x) * t + (next() - 0.5) * 0.2, y: a.y + (b.y - a.y) * t + (next() - 0.5) * 0.2 };
      state().setTool(next() < 0.5 ? { kind: 'opening', opening: 'door', form: 'hinged' } : { kind: 'opening', opening: 'window', form: 'casement' });
      showOpening(at(p.x, p.y, { entity: own, target: null }));
      const shown = state().model;
      if (shown.project === state().project) continue;
      const id = Object.keys(shown.project.openings).find((o) => !state().project.openings[o])!;
      pressOpening(at(p.x, p.y, { entity: id, target: null }));
      expect(state().project.openings[id]).toEqual(shown.project.openings[id]);
      placed++;
      if (Object.keys(state().project.openings).length > 4) state().run('delete', { ids: Object.keys(state().project.openings) });
    }
    // Most of them found room.
    expect(placed).toBeGreaterThan(12);
  });

  it('of a finish that is dragged onto a floor; where it has been shown it is not shown again', () => {
    const spot = { entity: room, target: { kind: 'floor', room } as const };
    sameModel(
      () => showDropFinish('stone.flag', at(2, 2, spot)),
      () => applyFinish('stone.flag', at(2, 2, spot)),
    );
    state().setTool({ kind: 'finish', finish: 'tile.quarry-red' });
    showFinish(at(2, 2, spot));
    const shown = state().model;
    showFinish(at(2.1, 2, spot));
    expect(state().model).toBe(shown);
    showFinish(at(9, 9));
    expect(state().model.project).toBe(state().project);
  });

  it('of a wall that is dragged', () => {
    const spot = { entity: wall, target: null };
    const [a, b] = [project.walls[wall].start, project.walls[wall].end].map((id) => project.corners[id]);
    const from = { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 };
    state().select([spot]);
    sameModel(
      () => {
        down(at(from.x, from.y, spot));
        move(at(from.x + 0.3, from.y - 0.3, spot));
      },
      () => up(at(from.x + 0.3, from.y - 0.3, spot)),
    );
  });

  it('of a column', () => {
    state().setTool({ kind: 'column', section: 'round' } as never);
    sameModel(
      () => showBuilding(at(2.5, 2)),
      () => pressBuilding(at(2.5, 2)),
    );
    expect(Object.values(state().project.columns)[0].section).toBe('round');
  });

  it('of what is drawn by two opposite corners', () => {
    useStudio.setState(({ pen }) => ({ pen: { ...pen, outline: 'rectangle' } }));
    state().setTool({ kind: 'outline', make: { what: 'slab', kind: 'mezzanine' } } as never);
    showOutline(at(1, 1));
    pressOutline(at(1, 1));
    sameModel(
      () => showOutline(at(2.5, 3)),
      () => pressOutline(at(2.5, 3)),
    );
    const [slab] = Object.values(state().project.slabs);
    expect(slab.points).toHaveLength(4);
    // The next one is another.
    state().setTool({ kind: 'outline', make: { what: 'slab', kind: 'mezzanine' } } as never);
    for (const p of [at(3, 1), at(4, 2)]) pressOutline(p);
    expect(Object.keys(state().project.slabs)).toHaveLength(2);
  });

  it('shows nothing of what would be refused, nor what was shown before it', () => {
    const rest = state().model;
    expect(state().preview('wall.move', { wall, offset: 0.3 })).toBeNull();
    expect(state().model).not.toBe(rest);
    expect(state().preview('wall.move', { wall: 'none', offset: 0.3 })).toMatch(/\.$/);
    expect(state().model).toBe(rest);
    // The same gesture goes on.
    expect(state().preview('wall.move', { wall, offset: 0.2 })).toBeNull();
    expect(state().model).not.toBe(rest);
    state().endPreview();
    expect(state().model).toBe(rest);
  });

  it('goes back to what stands where an edit is refused, or comes to nothing', () => {
    const rest = state().model;
    state().preview('wall.move', { wall, offset: 0.3 });
    expect(state().model).not.toBe(rest);
    expect(state().run('wall.move', { wall: 'none', offset: 0.3 })).toBe(false);
    expect(state().model.project).toBe(state().project);
    state().preview('wall.move', { wall, offset: 0.3 });
    state().run('project.rename', { name: project.name });
    expect(state().model.project).toBe(state().project);
    applyFinish('stone.flag', at(9, 9));
    expect(state().notice).toMatch(/^No finish was applied/);
  });
});

describe('faces of what is traced', () => {
  /** The inner faces of the rooms, and the outermost extent of the walls, of the model. */
  const inner = (): { min: { x: number; y: number }; max: { x: number; y: number } }[] =>
    [...state().model.shell.rooms.values()].map((r) => {
      const [xs, ys] = [r.region.outer.map((p) => p.x), r.region.outer.map((p) => p.y)];
      return { min: { x: Math.min(...xs), y: Math.min(...ys) }, max: { x: Math.max(...xs), y: Math.max(...ys) } };
    });
  const outer = (own: readonly string[]): { min: { x: number; y: number }; max: { x: number; y: number } } => {
    const points = [...state().model.shell.walls.values()].filter((w) => own.includes(w.wall.id)).flatMap((w) => w.rings.flat());
    const [xs, ys] = [points.map((p) => p.x), points.map((p) => p.y)];
    return { min: { x: Math.min(...xs), y: Math.min(...ys) }, max: { x: Math.max(...xs), y: Math.max(...ys) } };
  };
  const next = random(99);
  const at5 = (low: number, high: number): number => Math.round((low + (high - low) * next()) * 200) / 200;

  it('go through the points that are pressed, along whichever face one draws', () => {
    for (let k = 0; k < 24; k++) {
      state().run('delete', { ids: Object.keys(state().project.walls) });
      const reference = (['inside', 'outside', 'centre'] as const)[k % 3];
      const thickness = [0.1, 0.215, 0.3][Math.floor(next() * 3)];
      useStudio.setState(({ pen }) => ({ pen: { ...pen, type: null, thickness, reference } }));
      state().setTool({ kind: 'walls', shape: 'rectangle' } as never);
      const [a, b] = [
        { x: at5(0, 4), y: at5(0, 4) },
        { x: at5(6, 10), y: at5(6, 10) },
      ];
      // From any corner to the opposite one.
      const [right, up] = [next() < 0.5, next() < 0.5];
      const presses = [
        { x: right ? a.x : b.x, y: up ? a.y : b.y },
        { x: right ? b.x : a.x, y: up ? b.y : a.y },
      ];
      for (const { x, y } of presses) {
        showWalls(at(x, y));
        pressWalls(at(x, y));
      }
      expect(Object.keys(state().project.walls)).toHaveLength(4);
      const box = reference === 'inside' ? inner()[0] : outer(Object.keys(state().project.walls));
      const by = reference === 'centre' ? thickness / 2 : 0;
      expect([box.min.x, box.min.y, box.max.x, box.max.y].map((v) => v.toFixed(6))).toEqual([a.x - by, a.y - by, b.x + by, b.y + by].map((v) => v.toFixed(6)));
    }
  });

  it('are as far apart as is typed, 4000 × 3000 inside; a room beside another shares its wall', () => {
    state().run('delete', { ids: Object.keys(state().project.walls) });
    useStudio.setState(({ pen }) => ({ pen: { ...pen, type: null, thickness: 0.215, reference: 'inside' } }));
    state().setTool({ kind: 'walls', shape: 'rectangle' } as never);
    const draw = (from: [number, number], towards: [number, number], width: string, depth: string): void => {
      move(at(...from));
      down(at(...from));
      move(at(...towards));
      type(width);
      nextField();
      type(depth);
      enter();
    };
    draw([1, 1], [3, 3], '4000', '3000');
    expect(inner()).toEqual([{ min: { x: 1, y: 1 }, max: { x: expect.closeTo(5, 9) as number, y: expect.closeTo(4, 9) as number } }]);
    // From its upper right corner on: the middle of a wall is pressed, the size is meant inside.
    draw([5 + 0.1075, 4 + 0.1075], [7, 3], '2000', '1500');
    expect(Object.keys(state().project.rooms)).toHaveLength(2);
    const right = inner().find((box) => box.min.x > 5)!;
    expect(right.min.x).toBeCloseTo(5.215, 6);
    expect(right.max.x - right.min.x).toBeCloseTo(2, 6);
    expect(right.max.y - right.min.y).toBeCloseTo(1.5, 6);
  });

  it('along a chain too, whichever way round one goes', () => {
    const points: [number, number][] = [
      [1, 1],
      [5, 1],
      [5, 4],
      [1, 4],
      [1, 1],
    ];
    for (const way of [points, [...points].reverse()]) {
      state().run('delete', { ids: Object.keys(state().project.walls) });
      useStudio.setState(({ pen }) => ({ pen: { ...pen, type: null, thickness: 0.3, reference: 'inside' } }));
      state().setTool({ kind: 'walls', shape: 'chain' } as never);
      for (const [x, y] of way) {
        showWalls(at(x, y));
        pressWalls(at(x, y));
      }
      expect(inner()).toEqual([
        {
          min: { x: expect.closeTo(1, 9) as number, y: expect.closeTo(1, 9) as number },
          max: { x: expect.closeTo(5, 9) as number, y: expect.closeTo(4, 9) as number },
        },
      ]);
    }
  });

  it.each(['rectangle', 'L', 'T', 'U', 'bay'] as const)('enclose, drawn as %s, just what is pressed, from any corner, at any thickness', (shape) => {
    for (const thickness of [0.1, 0.3]) {
      state().run('delete', { ids: Object.keys(state().project.walls) });
      useStudio.setState(({ pen }) => ({ pen: { ...pen, type: null, thickness, reference: 'inside' } }));
      state().setTool({ kind: 'walls', shape } as never);
      const [a, b] = [
        { x: 7, y: 1 },
        { x: 1, y: 6 },
      ];
      for (const p of [a, b]) {
        move(at(p.x, p.y));
        down(at(p.x, p.y));
        up(at(p.x, p.y));
      }
      const pressed = shapeOutline(shape, 6, 5);
      const [room, ...more] = [...state().model.shell.rooms.values()];
      expect(more).toEqual([]);
      expect(room.area).toBeCloseTo(signedArea(pressed), 6);
      for (const p of pressed) {
        const corner = { x: p.x + 1, y: p.y + 1 };
        expect(Math.min(...room.region.outer.map((q) => Math.hypot(q.x - corner.x, q.y - corner.y)))).toBeLessThan(1e-6);
      }
    }
  });

  it('are drawn by press, drag and release as by two presses; a press that stays is the first of two', () => {
    const draw = (act: () => void): unknown => {
      state().run('delete', { ids: Object.keys(state().project.walls) });
      useStudio.setState(({ pen }) => ({ pen: { ...pen, type: null, thickness: 0.2, reference: 'inside' } }));
      state().setTool({ kind: 'walls', shape: 'rectangle' } as never);
      act();
      return inner();
    };
    const dragged = draw(() => {
      move(at(1, 1));
      down(at(1, 1));
      move(at(3, 2));
      move(at(4, 3));
      up(at(4, 3));
    });
    const pressed = draw(() => {
      for (const p of [at(1, 1), at(4, 3)]) {
        move(p);
        down(p);
        // A hand is never quite still.
        up({ ...p, plan: { x: p.plan.x + 0.02, y: p.plan.y } });
      }
    });
    expect(dragged).toEqual(pressed);
    expect(dragged).toHaveLength(1);
  });

  it('are not drawn where what is typed can’t be read or built: one sentence, nothing changed', () => {
    state().run('delete', { ids: Object.keys(state().project.walls) });
    useStudio.setState(({ pen }) => ({ pen: { ...pen, type: null, thickness: 0.2, reference: 'inside' } }));
    state().setTool({ kind: 'walls', shape: 'rectangle' } as never);
    move(at(1, 1));
    down(at(1, 1));
    up(at(1, 1));
    move(at(4, 3));
    for (const [typed, sentence] of [
      ['abc', '“abc” is not a length'],
      ['0', '“0” can’t be built; nothing was changed'],
      ['-2000', 'can’t be built'],
      ['900000', 'between 10 mm and 500 m'],
    ] as const) {
      type(typed);
      enter();
      expect(state().notice).toContain(sentence);
      // Nor does a press take the pointer for it.
      down(at(4, 3));
      up(at(4, 3));
      expect(state().project.walls).toEqual({});
    }
    type('3000');
    nextField();
    type('2000');
    enter();
    const [box, ...rest] = inner();
    expect(rest).toEqual([]);
    expect([box.min.x, box.min.y, box.max.x, box.max.y].map((v) => v.toFixed(9))).toEqual(['1.000000000', '1.000000000', '4.000000000', '3.000000000']);
  });

  it('outside, beside a house that stands: the shared wall is counted in', () => {
    state().run('delete', { ids: Object.keys(state().project.walls) });
    useStudio.setState(({ pen }) => ({ pen: { ...pen, type: null, thickness: 0.2, reference: 'outside' } }));
    const box = (from: [number, number], towards: [number, number]): void => {
      state().setTool({ kind: 'walls', shape: 'rectangle' } as never);
      move(at(...from));
      down(at(...from));
      up(at(...from));
      move(at(...towards));
      type('4000');
      nextField();
      type('3000');
      enter();
    };
    box([0, 0], [2, 2]);
    const first = outer(Object.keys(state().project.walls));
    expect([first.max.x - first.min.x, first.max.y - first.min.y]).toEqual([expect.closeTo(4, 9), expect.closeTo(3, 9)]);
    // From the middle of its lower right corner: outside, the new part reaches half a wall to the left of what is pressed.
    const before = new Set(Object.keys(state().project.walls));
    box([3.9, 0.1], [6, 2]);
    expect(Object.keys(state().project.rooms)).toHaveLength(2);
    const own = outer(Object.keys(state().project.walls).filter((id) => !before.has(id)));
    expect(own.max.x - 3.8).toBeCloseTo(4, 6);
  });
});

describe('a recess', () => {
  // Along the south wall: its reference line is y = 0, its faces lie at ±0.15.
  it.each([
    ['the inner face, outwards', 0.15, -0.7],
    ['the inner face, inwards', 0.15, 0.9],
    ['the outer face, inwards', -0.15, 0.8],
    ['the outer face, outwards', -0.15, -0.9],
    ['the middle, inwards', 0, 0.7],
    ['the middle, outwards', 0, -0.7],
  ])('pressed on %s, goes the way it is dragged', (_, from, to) => {
    const before = new Set(Object.keys(state().project.corners));
    const spot = { entity: wall, target: null };
    state().setTool({ kind: 'recess', make: 'recess' });
    down(at(2, from, spot));
    move(at(3, to, spot));
    const shown = state().model.project;
    up(at(3, to, spot));
    const { corners } = state().project;
    expect(Object.keys(shown.corners)).toHaveLength(Object.keys(corners).length);
    const fresh = Object.values(corners).filter((c) => !before.has(c.id));
    const far = fresh.filter((c) => Math.abs(c.y) > 0.05);
    expect(far).toHaveLength(2);
    for (const c of far) expect(Math.sign(c.y)).toBe(Math.sign(to));
    expect(far.map((c) => c.x).sort()).toEqual([expect.closeTo(2, 1), expect.closeTo(3, 1)]);
  });
});
