import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { newRoof } from '@/core/project/roof-defaults';
import { edit, house } from '@/core/testing/drafting';
import { openProject, useStudio } from '../store/studio';
import { addLevel, removeLevel } from './levels';

vi.mock('idb-keyval', () => import('./empty-store'));

const bare = house([
  [0, 0],
  [6, 0],
  [6, 5],
  [0, 5],
]);
const project = edit(bare, 'roof.put', { roof: { ...newRoof(bare, { id: 'r', level: 'ground' }, 'gable'), name: 'Main roof' } });
const state = () => useStudio.getState();

let close: () => void;
beforeEach(async () => {
  vi.stubGlobal('addEventListener', () => undefined);
  vi.stubGlobal('removeEventListener', () => undefined);
  vi.stubGlobal('document', { hidden: false });
  vi.stubGlobal('fetch', () => Promise.resolve(Response.json({ seq: 0, project, history: [], changes: [] })));
  close = openProject('p');
  await vi.waitFor(() => expect(state().ready && state().project.roofs.r).toBeTruthy());
});
afterEach(() => {
  close();
  vi.unstubAllGlobals();
});

describe('a level under a roof', () => {
  it('takes the roof up with the walls, and says so; undone, all is as before', () => {
    addLevel('ground', 'above', 'outer');
    const [id] = Object.keys(state().project.levels).filter((l) => l !== 'ground');
    expect(state().project.roofs.r.level).toBe(id);
    expect(state().level).toBe(id);
    expect(state().notice).toBe('Main roof went up onto Upper floor.');
    state().undo();
    expect(state().project.roofs.r.level).toBe('ground');
    // What was said goes with the next thing done.
    expect(state().notice).toBeNull();
  });

  it('leaves it where nothing would carry it, and says that too', () => {
    addLevel('ground', 'above', 'none');
    expect(state().project.roofs.r.level).toBe('ground');
    expect(state().notice).toBe('Main roof stayed on Ground.');
  });

  it('gives names of their own, and says nothing of roofs below', () => {
    addLevel('ground', 'below', 'outer');
    expect(state().notice).toBeNull();
    addLevel('ground', 'below', 'none');
    expect(
      Object.values(state().project.levels)
        .map((l) => l.name)
        .sort(),
    ).toEqual(['Cellar', 'Cellar 2', 'Ground']);
  });

  it('is not deleted with its roof silently', () => {
    addLevel('ground', 'above', 'outer');
    const [id] = Object.keys(state().project.levels).filter((l) => l !== 'ground');
    removeLevel(id);
    expect(state().project.levels[id]).toBeUndefined();
    expect(state().project.roofs.r).toBeUndefined();
    expect(state().notice).toBe('Main roof went with Upper floor; undo brings both back.');
    state().undo();
    expect(state().project.roofs.r.level).toBe(id);
  });
});
