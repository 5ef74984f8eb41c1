import { mkdtemp, rm } from 'node:fs/promises';
import os from 'node:os';
import path from 'node:path';
import { afterEach, beforeEach, expect } from 'vitest';
import type { Change } from '@/core/project/commands';
import { DomainError } from '@/core/project/errors';
import type { Project } from '@/core/project/schema';
import { makeApp, type App } from '../application';
import { openDatabase } from './database';

/** An application on a folder of its own for each test of a file. */
export function freshApp(): { readonly folder: string; readonly app: App; reopen(between?: () => Promise<void>): Promise<App> } {
  let folder = '';
  let app: App;
  beforeEach(async () => {
    folder = await mkdtemp(path.join(os.tmpdir(), 'enstegon-'));
    app = await makeApp(await openDatabase(folder), folder);
  });
  afterEach(async () => {
    // A test that failed half-way may have closed it.
    await app.close().catch(() => undefined);
    await rm(folder, { recursive: true, force: true });
  });
  return {
    get folder() {
      return folder;
    },
    get app() {
      return app;
    },
    /** The same folder as a process that has just been started sees it. */
    async reopen(between) {
      await app.close();
      await between?.();
      return (app = await makeApp(await openDatabase(folder), folder));
    },
  };
}

/** What version 4 kept of a project without finishes on its parts. */
export function asVersion4({ contents: { held, ...rest }, ...project }: Project): object {
  return { ...project, outline: { ...rest, locked: held }, version: 4 };
}

let number = 0;
export const change = (command: Change['command'], args: unknown): Change => ({
  id: `change${String(number++).padStart(5, '0')}`,
  kind: 'do',
  command,
  args,
});
export const rename = (name: string): Change => change('project.rename', { name });

/** The refusal that work ends in. */
export async function refusal(work: Promise<unknown>): Promise<DomainError> {
  const error: unknown = await work.then(
    () => null,
    (e: unknown) => e,
  );
  expect(error).toBeInstanceOf(DomainError);
  return error as DomainError;
}
