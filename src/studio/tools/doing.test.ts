import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { house } from '@/core/testing/drafting';
import { stockItem } from '@/core/stock/stock';
import { openProject, useStudio } from '../store/studio';
import { pressBuilding, showBuilding } from './building';
import { cancel, down, move, up } from './controller';
import { applyFinish, showDropFinish, showFinish } from './finishing';
import { pressOpening, showOpening } from './openings';
import { pressOutline, showOutline } from './outlining';
import { dropPiece, showDrop } from './pieces';
import type { TablePoint } from './session';

vi.mock('idb-keyval', () => ({
  get: () => Promise.resolve(undefined),
  set: () => Promise.resolve(),
  del: () => Promise.resolve(),
  createStore: () => 'store',
  entries: () => Promise.resolve([]),
  setMany: () => Promise.resolve(),
  delMany: () => Promise.resolve(),
}));

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
    const maker = stockItem('sofa')!.id;
    for (const x of [2, 3.5])
      sameModel(
        () => showDrop(maker, at(x, 2)),
        () => dropPiece(maker, at(x, 2)),
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
    let seed = 7;
    const random = (): number => (seed = (seed * 16807) % 2147483647) / 2147483647;
    for (let k = 0; k < 25; k++) {
      const ids = Object.keys(state().project.walls);
      const own = ids[Math.floor(random() * ids.length)];
      const [a, b] = [state().project.walls[own].start, state().project.walls[own].end].map((id) => state().project.corners[id]);
      const t = random();
      const p = { x: a.x + (b.x - a.x) * t + (random() - 0.5) * 0.2, y: a.y + (b.y - a.y) * t + (random() - 0.5) * 0.2 };
      state().setTool({ kind: 'opening', opening: random() < 0.5 ? 'door' : 'window' } as never);
      showOpening(at(p.x, p.y, { entity: own, target: null }));
      const shown = state().model;
      if (shown.project === state().project) continue;
      const id = Object.keys(shown.project.openings).find((o) => !state().project.openings[o])!;
      pressOpening(at(p.x, p.y, { entity: id, target: null }));
      expect(state().project.openings[id]).toEqual(shown.project.openings[id]);
      if (Object.keys(state().project.openings).length > 4) state().run('delete', { ids: Object.keys(state().project.openings) });
    }
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
