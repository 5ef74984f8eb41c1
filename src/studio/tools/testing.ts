import { afterEach, beforeEach, expect, vi } from 'vitest';
import type { Project } from '@/core/project/schema';
import { openProject, useStudio } from '../store/studio';
import * as arranging from './arranging';
import { cancel } from './controller';

/** For the tests of tools: a project open in the store before each test, as a page would have it. */
export function openBefore(project: () => Project): void {
  let close: () => void;
  beforeEach(async () => {
    const own = project();
    vi.stubGlobal('addEventListener', () => undefined);
    vi.stubGlobal('removeEventListener', () => undefined);
    vi.stubGlobal('document', { hidden: false });
    vi.stubGlobal('fetch', () => Promise.resolve(Response.json({ seq: 0, project: own, history: [], changes: [] })));
    close = openProject('p');
    const [room] = Object.keys(own.rooms);
    await vi.waitFor(() => expect(state().ready && state().project.rooms[room]).toBeTruthy());
  });
  afterEach(() => {
    cancel();
    close();
    vi.unstubAllGlobals();
  });
}

export const state = () => useStudio.getState();

export const select = (...ids: string[]): void => state().select(ids.map((entity) => ({ entity, target: null })));

/** What is shown before a press is the very model that comes of it. */
export function sameAsShown(worked: () => arranging.Worked): void {
  const before = state().project;
  arranging.showWorked(worked());
  const shown = state().model;
  expect(shown.project).not.toBe(before);
  expect(state().project).toBe(before);
  arranging.showWorked(null);
  expect(state().model.project).toBe(before);
  expect(arranging.doWorked(worked())).toBe(true);
  expect(state().model.project.pieces).toEqual(shown.project.pieces);
}
