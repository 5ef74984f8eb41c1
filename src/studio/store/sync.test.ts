import { applyPatches, enablePatches, type Patch } from 'immer';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { runChange, type Change } from '@/core/project/commands';
import { DomainError } from '@/core/project/errors';
import { emptyProject, type Project } from '@/core/project/schema';
import type { KeptChange } from './api';
import { stacksOf, Sync, type SyncState } from './sync';

enablePatches();

/** The browser's own store, for a test that runs without a browser. */
const waiting = new Map<string, unknown>();
vi.mock('idb-keyval', () => ({
  get: (key: string) => Promise.resolve(structuredClone(waiting.get(key))),
  set: (key: string, value: unknown) => Promise.resolve(void waiting.set(key, structuredClone(value))),
  del: (key: string) => Promise.resolve(void waiting.delete(key)),
  createStore: () => 'store',
  entries: () => Promise.resolve(structuredClone([...waiting])),
  setMany: (all: [string, unknown][]) => Promise.resolve(all.forEach(([key, value]) => waiting.set(key, structuredClone(value)))),
  delMany: (keys: string[]) => Promise.resolve(keys.forEach((key) => waiting.delete(key))),
}));

/** A server in memory that keeps the rules of the real one. */
class Server {
  project: Project = emptyProject('p', 'P');
  log: KeptChange[] = [];
  online = true;
  /** Commands that are refused here though they ran in the window. */
  refuse = new Set<string>();
  /** Whether a refusal names the edit at fault. */
  names = true;

  change(change: Change): void {
    const outcome = runChange(this.project, change);
    this.project = outcome.project;
    this.log.push({
      id: change.id,
      seq: this.log.length + 1,
      kind: change.kind,
      target: change.target ?? null,
      title: outcome.title,
      patches: outcome.patches,
      inverse: outcome.inverse,
    } as KeptChange);
  }

  readonly fetch = async (url: string, init?: RequestInit): Promise<Response> => {
    await Promise.resolve();
    if (!this.online) throw new TypeError('offline');
    const json = (value: unknown, status = 200): Response => Response.json(value, { status });
    if (!url.includes('/changes')) return json({ seq: this.log.length, project: this.project, history: this.log });
    if (init?.method !== 'POST') {
      const since = Number(new URL(url, 'http://x').searchParams.get('since'));
      return json({ seq: this.log.length, changes: this.log.slice(since) });
    }
    const { base, changes } = JSON.parse(init.body as string) as { base: number; changes: Change[] };
    const between = this.log.slice(base);
    if (between.some((c) => !changes.some((o) => o.id === c.id))) return json({ ok: false, seq: this.log.length, changes: between }, 409);
    const before = { project: this.project, log: this.log.slice() };
    for (const c of changes)
      try {
        if (this.refuse.has(c.command)) throw new DomainError('refused', `The server refuses ${c.command}.`);
        if (!this.log.some((k) => k.id === c.id)) this.change(c);
      } catch (error) {
        // All of a batch or none of it.
        [this.project, this.log] = [before.project, before.log];
        return json({ message: (error as DomainError).message, ...(this.names ? { change: c.id } : {}) }, 422);
      }
    return json({ ok: true, seq: this.log.length });
  };
}

let server: Server;
let state: SyncState;
let sync: Sync;
let number = 0;
const other = (command: Change['command'], args: unknown): Change => ({ id: `other${number++}xx`, kind: 'do', command, args });

const open = async (): Promise<void> => {
  sync = await Sync.open('p', (next) => (state = next));
};
const settle = (ms = 4000): Promise<unknown> => vi.advanceTimersByTimeAsync(ms);

beforeEach(async () => {
  vi.useFakeTimers();
  vi.stubGlobal('addEventListener', () => undefined);
  vi.stubGlobal('removeEventListener', () => undefined);
  vi.stubGlobal('document', { hidden: false });
  server = new Server();
  waiting.clear();
  vi.stubGlobal('fetch', server.fetch);
  await open();
});
afterEach(() => {
  sync.close();
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

const square = (x: number) => ({
  level: 'ground',
  points: [
    { x, y: 0 },
    { x: x + 3, y: 0 },
    { x: x + 3, y: 3 },
    { x, y: 3 },
  ],
  closed: true,
  thickness: 0.1,
});

describe('edits', () => {
  it('show at once and are acknowledged soon', async () => {
    sync.run('project.rename', { name: 'Q' });
    expect(state.project.name).toBe('Q');
    expect(state.status).toBe('keeping');
    await settle();
    expect(state.status).toBe('kept');
    expect(server.project.name).toBe('Q');
    expect(waiting.size).toBe(0);
  });

  it('that are refused change nothing', () => {
    expect(() => sync.run('wall.move', { wall: 'none', offset: 1 })).toThrow(DomainError);
    expect(state.project).toEqual(server.project);
    expect(state.undo).toEqual([]);
  });

  it('that change nothing leave no step', () => {
    sync.run('project.rename', { name: 'P' });
    expect(state.undo).toEqual([]);
  });
});

describe('undo and redo', () => {
  it('go back and forward step by step, and reach the server', async () => {
    const states = [state.project];
    for (const name of ['A', 'B', 'C']) {
      sync.run('project.rename', { name });
      states.push(state.project);
    }
    sync.undo();
    sync.undo();
    expect(state.project).toEqual(states[1]);
    sync.redo();
    expect(state.project).toEqual(states[2]);
    await settle();
    expect(server.project).toEqual(states[2]);
    expect(state.undo.map((s) => s.title)).toEqual(['Rename project', 'Rename project']);
    expect(state.redo).toHaveLength(1);
  });

  it('a new edit ends what could be redone', () => {
    sync.run('project.rename', { name: 'A' });
    sync.undo();
    sync.run('project.units', { units: 'imperial' });
    expect(state.redo).toEqual([]);
    sync.redo();
    expect(state.project).toMatchObject({ name: 'P', units: 'imperial' });
  });

  it('reach back through a reload', async () => {
    sync.run('wall.draw', square(0));
    sync.run('project.rename', { name: 'A' });
    sync.undo();
    await settle();
    sync.close();
    await open();
    expect(state.undo).toHaveLength(1);
    expect(state.redo).toHaveLength(1);
    sync.undo();
    expect(state.project.walls).toEqual({});
    sync.redo();
    sync.redo();
    expect(state.project.name).toBe('A');
  });

  it('say so when what a step touched is gone', async () => {
    sync.run('wall.draw', square(0));
    const [wall] = Object.keys(state.project.walls);
    sync.run('wall.set', { wall, set: { base: 0.3 } });
    await settle();
    server.change(other('delete', { ids: Object.keys(server.project.walls) }));
    await settle();
    sync.undo();
    expect(state.message).toMatch(/can’t be taken back/);
  });

  it('are read from a history of undone and redone changes', () => {
    const kept = (id: string, kind: KeptChange['kind'], target: string | null = null): KeptChange => ({
      id,
      seq: 1,
      kind,
      target,
      title: id,
      patches: [],
      inverse: [],
    });
    const { undo, redo } = stacksOf([
      kept('a', 'do'),
      kept('b', 'do'),
      kept('c', 'do'),
      kept('u1', 'undo', 'c'),
      kept('u2', 'undo', 'b'),
      kept('r1', 'redo', 'b'),
    ]);
    expect([undo.map((s) => s.id), redo.map((s) => s.id)]).toEqual([['a', 'b'], ['c']]);
  });
});

describe('another window', () => {
  it('brings its changes in', async () => {
    server.change(other('project.rename', { name: 'Theirs' }));
    await settle();
    expect(state.project.name).toBe('Theirs');
    expect(state.message).toBeNull();
  });

  it('and this one both keep their edits', async () => {
    server.change(other('project.units', { units: 'imperial' }));
    sync.run('project.rename', { name: 'Mine' });
    await settle();
    expect(server.project).toMatchObject({ name: 'Mine', units: 'imperial' });
    expect(state.project).toEqual(server.project);
    expect(state.message).toMatch(/both sets of edits are kept/);
    sync.dismiss();
    expect(state.message).toBeNull();
  });

  it('that deleted what is edited here leads to a sentence, not to a silent loss', async () => {
    sync.run('wall.draw', square(0));
    await settle();
    const [wall] = Object.keys(state.project.walls);
    server.change(other('delete', { ids: Object.keys(server.project.walls) }));
    sync.run('wall.set', { wall, set: { base: 0.2 } });
    sync.run('project.rename', { name: 'Still mine' });
    await settle();
    expect(state.message).toMatch(/one edit of this window could not be kept/);
    expect(server.project.name).toBe('Still mine');
    expect(state.project).toEqual(server.project);
  });
});

describe('offline', () => {
  it('edits wait, survive a reload, and are sent later in their order', async () => {
    server.online = false;
    sync.run('wall.draw', square(0));
    sync.run('project.rename', { name: 'Offline' });
    await settle();
    expect(state.status).toBe('offline');
    expect([...waiting.keys()].filter((k) => k.startsWith('p edit '))).toHaveLength(2);
    sync.close();
    server.online = true;
    await open();
    expect(state.project.name).toBe('Offline');
    await settle();
    expect(server.log.map((c) => c.title)).toEqual(['Draw walls', 'Rename project']);
    expect(Object.keys(server.project.rooms)).toHaveLength(1);
    expect(state.status).toBe('kept');
  });

  it('an answer that is lost on its way is not taken twice', async () => {
    const honest = server.fetch;
    let lost = true;
    vi.stubGlobal('fetch', async (url: string, init?: RequestInit) => {
      const answer = await honest(url, init);
      if (init?.method === 'POST' && lost) {
        lost = false;
        throw new TypeError('connection reset');
      }
      return answer;
    });
    sync.run('wall.draw', square(0));
    await settle(8000);
    expect(server.log).toHaveLength(1);
    expect(state.status).toBe('kept');
    expect(state.project).toEqual(server.project);
  });

  it.each([
    ['names', true],
    ['does not name', false],
  ])('of a batch with an edit that the server refuses and %s, the others are kept', async (_, names) => {
    server.online = false;
    sync.run('wall.draw', square(0));
    sync.run('project.units', { units: 'imperial' });
    sync.run('project.rename', { name: 'Kept' });
    sync.run('wall.draw', square(6));
    server.online = true;
    server.refuse.add('project.units');
    server.names = names;
    await settle(20000);
    expect(server.log.map((c) => c.title)).toEqual(['Draw walls', 'Rename project', 'Draw walls']);
    expect(state.project).toEqual(server.project);
    expect(state.project).toMatchObject({ name: 'Kept', units: 'metric' });
    expect(state.aside.map((a) => [a.title, a.message])).toEqual([['Change units', 'The server refuses project.units.']]);
    expect([...waiting.keys()].filter((k) => k.includes(' edit '))).toEqual([]);
    // It is still there after a reload, can be tried again, and let go.
    sync.close();
    await open();
    expect(state.aside).toHaveLength(1);
    server.refuse.clear();
    sync.retry(state.aside[0].change.id);
    await settle();
    expect(server.project.units).toBe('imperial');
    expect(state.aside).toEqual([]);
  });

  it('edits that stood on a refused one are set aside with it, and can be let go', async () => {
    server.online = false;
    sync.run('wall.draw', square(0));
    const [wall] = Object.keys(state.project.walls);
    sync.run('wall.set', { wall, set: { base: 0.3 } });
    sync.run('project.rename', { name: 'Kept' });
    server.online = true;
    server.refuse.add('wall.draw');
    await settle(20000);
    expect(server.log.map((c) => c.title)).toEqual(['Rename project']);
    expect(state.aside.map((a) => a.change.command)).toEqual(['wall.draw', 'wall.set']);
    expect(state.aside[1].message).toMatch(/no longer in the project/);
    for (const { change } of state.aside) sync.letGo(change.id);
    expect(state.aside).toEqual([]);
    expect(waiting.size).toBe(0);
  });

  it('two windows that are offline at once keep the edits of both, also when both are closed', async () => {
    const one = sync;
    let second!: SyncState;
    const two = await Sync.open('p', (next) => (second = next));
    server.online = false;
    one.run('wall.draw', square(0));
    two.run('project.rename', { name: 'Two' });
    one.run('wall.draw', square(6));
    two.run('project.units', { units: 'imperial' });
    await settle();
    expect(second.status).toBe('offline');
    one.close();
    two.close();
    server.online = true;
    await open();
    await settle();
    expect(server.log.map((c) => c.title).sort()).toEqual(['Change units', 'Draw walls', 'Draw walls', 'Rename project'].sort());
    expect(server.project).toMatchObject({ name: 'Two', units: 'imperial' });
    expect(Object.keys(server.project.rooms)).toHaveLength(2);
    expect(waiting.size).toBe(0);
  });

  it('a window that takes over what another one still sends sends nothing twice', async () => {
    server.online = false;
    sync.run('wall.draw', square(0));
    server.online = true;
    let second!: SyncState;
    const two = await Sync.open('p', (next) => (second = next));
    await settle();
    expect(server.log).toHaveLength(1);
    expect(second.project).toEqual(server.project);
    expect(state.project).toEqual(server.project);
    two.close();
  });

  it('edits that waited in the form of the first release are sent', async () => {
    sync.close();
    waiting.set('waiting p', [other('project.rename', { name: 'Older' })]);
    await open();
    await settle();
    expect(server.project.name).toBe('Older');
    expect(waiting.size).toBe(0);
  });

  it('a server that can keep nothing now is named, and edits wait for it', async () => {
    vi.stubGlobal('fetch', (url: string, init?: RequestInit) =>
      init?.method === 'POST' ? Promise.resolve(Response.json({ code: 'store.full', message: 'The disk is full.' }, { status: 507 })) : server.fetch(url, init),
    );
    sync.run('project.rename', { name: 'Waits' });
    await settle();
    expect(state).toMatchObject({ status: 'held', message: 'The disk is full.', aside: [] });
    sync.run('project.units', { units: 'imperial' });
    await settle();
    expect(state.message).toBe('The disk is full.');
    vi.stubGlobal('fetch', server.fetch);
    await settle(8000);
    expect(server.project).toMatchObject({ name: 'Waits', units: 'imperial' });
    expect(state).toMatchObject({ status: 'kept', message: null });
  });
});

it('the patches that travel make the same project everywhere', async () => {
  sync.run('wall.draw', square(0));
  sync.run('wall.draw', square(3));
  sync.undo();
  await settle();
  let replayed = emptyProject('p', 'P');
  for (const c of server.log) replayed = applyPatches(replayed, c.patches as Patch[]);
  expect(replayed).toEqual(state.project);
});
