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
