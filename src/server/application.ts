import { mkdir, unlink, writeFile } from 'node:fs/promises';
import { DomainError } from '@/core/project/errors';
import type { Project } from '@/core/project/schema';
import { dataFolder } from './config';
import type { Tasks } from './jobs/tasks';
import { Errands } from './jobs/errands';
import { Workers, type WorkOptions } from './jobs/workers';
import { openDatabase, type Database } from './store/database';
import { faultOf } from './store/faults';
import { FileStore, type PictureFacts } from './store/files';
import { checkDatabase, claimFolder, keepHead, passing, places, sweep, type Lock } from './store/folder';
import { Library } from './store/library';
import { Projects } from './store/projects';
import { upkeep } from './store/upkeep';

/** Everything a request needs. */
export interface App {
  folder: string;
  db: Database;
  files: FileStore;
  projects: Projects;
  library: Library;
  workers: Workers;
  /** Long work that is asked after while it runs. */
  errands: Errands;
  close(): Promise<void>;
}

type FromProject = 'card' | 'thumbnail' | 'glb' | 'pdf' | 'png' | 'handed' | 'file';

/** Hands a project to a task as a file, which is gone afterwards. */
export async function workOn<K extends FromProject>(
  { folder, workers }: Pick<App, 'folder' | 'workers'>,
  task: K,
  project: Project | unknown,
  given: Omit<Tasks[K]['given'], 'project' | 'folder' | 'out'>,
  options?: WorkOptions,
): Promise<Tasks[K]['gives']> {
  const file = passing(folder, '.json');
  const out = passing(folder);
  await writeFile(file, JSON.stringify(project));
  try {
    return await workers.run(task, { ...given, project: file, folder, out } as unknown as Tasks[K]['given'], options);
  } catch (error) {
    await unlink(out).catch(() => undefined);
    throw error;
  } finally {
    await unlink(file).catch(() => undefined);
  }
}

const pictures =
  (folder: string, workers: Workers) =>
  async (file: string): Promise<PictureFacts> => {
    const out = passing(folder);
    try {
      return await workers.run('picture', { file, out });
    } catch (error) {
      await unlink(out).catch(() => undefined);
      // A picture that breaks its reader, or keeps it busy, is at fault itself.
      if (error instanceof DomainError && /^work\.(time|memory|died)$/.test(error.code))
        throw new DomainError('asset.damaged', 'The picture was not kept: it could not be read in the time and memory there is for one.');
      throw error;
    }
  };

/** The application over an open database. The folder is the caller's to claim. */
export async function makeApp(db: Database, folder: string): Promise<App> {
  await mkdir(places(folder).passing, { recursive: true });
  const workers = new Workers();
  const files = new FileStore(folder, db, pictures(folder, workers));
  return {
    folder,
    db,
    files,
    projects: new Projects(db, files),
    library: new Library(db),
    workers,
    errands: new Errands(),
    async close() {
      workers.close();
      await db.sequelize.close();
    },
  };
}

const HOUR = 60 * 60 * 1000;

/** Claims a folder, looks its database through, opens it and keeps it up. */
async function openApp(folder: string): Promise<App> {
  const lock: Lock = await claimFolder(folder);
  let db: Database | null = null;
  try {
    await checkDatabase(folder);
    await sweep(folder);
    db = await openDatabase(folder);
    await db.sequelize.query('PRAGMA wal_checkpoint(TRUNCATE)');
    await keepHead(folder);
    const made = await makeApp(db, folder);
    let round = 0;
    const keep = async (): Promise<void> => {
      try {
        await upkeep(made);
        // A look through the whole database every six hours.
        if (round++ % 6 === 5) await checkDatabase(folder);
      } catch (error) {
        console.error(error);
        if (faultOf(error)?.code === 'store.damaged') await letGo(made, error as Error);
      }
    };
    const timer = setInterval(() => void keep(), HOUR);
    timer.unref();
    const first = setTimeout(() => void keep(), 20_000);
    first.unref();
    return {
      ...made,
      async close() {
        clearInterval(timer);
        clearTimeout(first);
        await made.close();
        await lock.release();
      },
    };
  } catch (error) {
    await db?.sequelize.close().catch(() => undefined);
    await lock.release();
    throw faultOf(error) ?? error;
  }
}

// The server's entry and its routes are built apart; they share one application.
const shared = globalThis as typeof globalThis & { enstegonApp?: Promise<App>; enstegonFault?: { error: Error; at: number } };

/** How long a failure to open is answered without another try, ms. */
const PATIENCE = 1500;

/**
 * The application of this process. A failure to open it is not remembered: it is tried again, so that a full disk or a
 * folder that was not there is over when it is over.
 *
 * @throws DomainError `store.…`
 */
export function app(): Promise<App> {
  const { enstegonFault: fault } = shared;
  if (!shared.enstegonApp && fault && Date.now() - fault.at < PATIENCE) return Promise.reject(fault.error);
  return (shared.enstegonApp ??= openApp(dataFolder()).catch((error: Error) => {
    shared.enstegonApp = undefined;
    shared.enstegonFault = { error, at: Date.now() };
    throw error;
  }));
}

/** Closes a database that turned out to be damaged, so that nothing more is written to it. */
async function letGo(open: Pick<App, 'db'>, error: Error): Promise<void> {
  const current = await shared.enstegonApp?.catch(() => undefined);
  if (!current || current.db !== open.db) return;
  shared.enstegonApp = undefined;
  shared.enstegonFault = { error, at: Date.now() };
  await current.close().catch(() => undefined);
}

/** Told of a fault that a request met: a damaged database is closed. */
export async function heedFault(error: unknown): Promise<void> {
  if (faultOf(error)?.code === 'store.damaged' && !(error instanceof DomainError)) {
    const current = await shared.enstegonApp?.catch(() => undefined);
    if (current) await letGo(current, faultOf(error)!);
  }
}

export async function closeApp(): Promise<void> {
  const current = await shared.enstegonApp?.catch(() => undefined);
  shared.enstegonApp = undefined;
  await current?.close();
}
