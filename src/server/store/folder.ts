import { randomBytes } from 'node:crypto';
import { copyFile, mkdir, open, readdir, rename, rm, stat, unlink } from 'node:fs/promises';
import path from 'node:path';
import sqlite3 from 'sqlite3';
import { DATABASE_FILE } from './database';
import { faultOf, storeFault } from './faults';

/** Where things lie in the data folder. */
export const places = (folder: string) => ({
  database: path.join(folder, DATABASE_FILE),
  /** The first page of the database, from which a damaged one can still be read. */
  head: path.join(folder, `${DATABASE_FILE}-head`),
  lock: path.join(folder, 'in-use'),
  /** Files by content hash. */
  files: path.join(folder, 'files'),
  /** What is on its way in or out; swept at start. */
  passing: path.join(folder, 'passing'),
});

/** A name for a file on its way in or out. */
export const passing = (folder: string, ending = ''): string => path.join(places(folder).passing, `${randomBytes(9).toString('hex')}${ending}`);

export interface Lock {
  release(): Promise<void>;
}

/**
 * Checks that the folder can be written, and claims it for this process. The claim is a lock of the operating system on
 * a file: it goes with the process, however that ends.
 *
 * @throws DomainError `store.…`: `locked` where another process has it, else what is wrong with the folder
 */
export async function claimFolder(folder: string): Promise<Lock> {
  try {
    await mkdir(folder, { recursive: true });
    const trial = path.join(folder, `.trial-${process.pid}`);
    const file = await open(trial, 'w');
    try {
      await file.writeFile('x');
      await file.sync();
    } finally {
      await file.close();
      await unlink(trial).catch(() => undefined);
    }
  } catch (error) {
    throw faultOf(error) ?? error;
  }
  const lock = await connect(places(folder).lock, sqlite3.OPEN_READWRITE | sqlite3.OPEN_CREATE);
  try {
    await lock.all('PRAGMA busy_timeout = 0');
    await lock.all('BEGIN EXCLUSIVE');
  } catch (error) {
    await lock.close();
    const fault = faultOf(error);
    throw fault?.code === 'store.busy' ? storeFault('locked') : (fault ?? error);
  }
  return { release: () => lock.close() };
}

export interface Connection {
  all(sql: string, params?: unknown[]): Promise<Record<string, unknown>[]>;
  /** Rows one by one, as far as they can be read; gives back whether that was to the end. */
  walk(sql: string, params: unknown[], onRow: (row: Record<string, unknown>) => void): Promise<boolean>;
  close(): Promise<void>;
}

/** A plain connection, apart from the one that the application writes with. */
export function connect(file: string, mode: number): Promise<Connection> {
  return new Promise((resolve, reject) => {
    const db = new sqlite3.Database(file, mode, (failed) => {
      if (failed) return reject(failed);
      resolve({
        all: (sql, params = []) => new Promise((done, fail) => db.all(sql, params, (e, rows) => (e ? fail(e) : done(rows as Record<string, unknown>[])))),
        walk: (sql, params, onRow) =>
          new Promise((done) =>
            db.each(
              sql,
              params,
              (e: Error | null, row: unknown) => void (e ? done(false) : onRow(row as Record<string, unknown>)),
              (e: Error | null) => done(!e),
            ),
          ),
        close: () => new Promise((done) => db.close(() => done())),
      });
    });
  });
}

/**
 * Looks through the database without writing to it (`PRAGMA quick_check`).
 *
 * @throws DomainError `store.damaged`
 */
export async function checkDatabase(folder: string): Promise<void> {
  const file = places(folder).database;
  const size = await stat(file).then(
    (s) => s.size,
    () => -1,
  );
  if (size <= 0) {
    // A folder that has had a database must not be begun anew.
    if (size < 0 && !(await stat(/* turbopackIgnore: true */ places(folder).head).catch(() => null))) return;
    throw storeFault(size < 0 ? 'gone' : 'damaged');
  }
  try {
    const connection = await connect(file, sqlite3.OPEN_READONLY);
    try {
      const [row] = await connection.all('PRAGMA quick_check(1)');
      if (Object.values(row)[0] !== 'ok') throw storeFault('damaged');
    } finally {
      await connection.close();
    }
  } catch (error) {
    throw faultOf(error) ?? error;
  }
}

const PAGE = 4096;

/** Keeps a copy of the first page, which holds the list of tables. */
export async function keepHead(folder: string): Promise<void> {
  const { database, head } = places(folder);
  const temporary = passing(folder);
  const file = await open(database, 'r');
  try {
    const { buffer } = await file.read(Buffer.alloc(PAGE), 0, PAGE, 0);
    const out = await open(temporary, 'w');
    await out.writeFile(buffer);
    await out.sync();
    await out.close();
  } finally {
    await file.close();
  }
  await rename(temporary, head);
}

/** Removes what was on its way when the last process ended, and halves of files that were being written. */
export async function sweep(folder: string): Promise<number> {
  const at = places(folder);
  let swept = (await readdir(/* turbopackIgnore: true */ at.passing).catch(() => [])).length;
  await rm(at.passing, { recursive: true, force: true });
  await mkdir(at.passing, { recursive: true });
  for (const shelf of await readdir(/* turbopackIgnore: true */ at.files).catch(() => []))
    for (const name of await readdir(path.join(at.files, shelf)).catch(() => []))
      if (!/^[0-9a-f]{64}$/.test(name)) {
        await unlink(path.join(at.files, shelf, name)).catch(() => undefined);
        swept++;
      }
  return swept;
}

/** Copies the database with what its write-ahead log holds, as files. */
export async function copyDatabase(folder: string, to: string): Promise<void> {
  await mkdir(to, { recursive: true });
  for (const ending of ['', '-wal'])
    await copyFile(
      /* turbopackIgnore: true */ `${places(folder).database}${ending}`,
      path.join(/* turbopackIgnore: true */ to, `${DATABASE_FILE}${ending}`),
    ).catch((error: NodeJS.ErrnoException) => {
      if (error.code !== 'ENOENT') throw error;
    });
}
