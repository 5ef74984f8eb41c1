import { mkdir, open, rename, rm, stat } from 'node:fs/promises';
import path from 'node:path';
import sqlite3 from 'sqlite3';
import { DomainError } from '@/core/project/errors';
import { DATABASE_FILE, openDatabase, type Database } from './database';
import { connect, copyDatabase, keepHead, passing, places, type Connection } from './folder';
import { pack } from './packing';
import { Projects } from './projects';

/** What could be read of a damaged database. */
export interface Repaired {
  /** Where the damaged database lies now. */
  aside: string;
  projects: { name: string; seq: number; last: number; readable: boolean }[];
  /** Stretches of rows that could not be read, by table. */
  lost: Record<string, number>;
}

/** In the order in which they refer to one another. */
const TABLES = ['projects', 'snapshots', 'changes', 'assets', 'uses', 'library'] as const;

/**
 * Sets the database of a folder aside and makes a new one of what it holds. Rows are read in ranges of their row
 * numbers, round the damaged pages. Where the first page is damaged, the copy that was kept of it takes its place.
 *
 * The folder must be claimed before.
 *
 * @throws DomainError `repair.…`
 */
export async function repair(folder: string, now = new Date()): Promise<Repaired> {
  const at = places(folder);
  if (!(await stat(at.database).catch(() => null))) throw new DomainError('repair.missing', 'Nothing was repaired: there is no database in this folder.');
  await mkdir(at.passing, { recursive: true });
  const bench = passing(folder);
  try {
    await copyDatabase(folder, bench);
    const rows = await rescue(bench, at.head);
    const made = path.join(bench, 'new');
    await mkdir(made);
    const db = await openDatabase(made);
    const lost = await fill(db, rows);
    const projects = await account(db);
    await db.sequelize.query('PRAGMA wal_checkpoint(TRUNCATE)');
    await db.sequelize.close();
    const aside = path.join(folder, `damaged-${now.toISOString().slice(0, 19).replace(/:/g, '')}`);
    await mkdir(aside);
    for (const ending of ['', '-wal', '-shm'])
      await rename(`${at.database}${ending}`, path.join(aside, `${DATABASE_FILE}${ending}`)).catch((error: NodeJS.ErrnoException) => {
        if (error.code !== 'ENOENT') throw error;
      });
    await rename(path.join(made, DATABASE_FILE), at.database);
    await keepHead(folder);
    return { aside, projects, lost };
  } finally {
    await rm(bench, { recursive: true, force: true });
  }
}

type Row = Record<string, unknown>;
type Rescued = Map<(typeof TABLES)[number], { rows: Row[]; lost: number }>;

/** Reads what can be read of the copy in a folder. */
async function rescue(folder: string, head: string): Promise<Rescued> {
  const file = path.join(folder, DATABASE_FILE);
  for (const mend of [null, head]) {
    if (mend) await mendHead(file, mend);
    let connection: Connection | null = null;
    try {
      // Opened for writing, so that the write-ahead log is taken in: it is a copy.
      connection = await connect(file, sqlite3.OPEN_READWRITE);
      const tables = new Set((await connection.all("SELECT name FROM sqlite_master WHERE type = 'table'")).map((r) => r.name));
      if (!tables.has('projects')) throw new Error('no tables');
      const found: Rescued = new Map();
      for (const table of TABLES) found.set(table, tables.has(table) ? await readTable(connection, table) : { rows: [], lost: 0 });
      return found;
    } catch (error) {
      if (mend)
        throw new DomainError(
          'repair.unreadable',
          `Nothing was repaired: the list of tables can’t be read (${String(error)}); the database was left as it is.`,
        );
    } finally {
      await connection?.close();
    }
  }
  throw new Error('Unreachable.');
}

/** Puts the kept first page over a damaged one, with the lists that may be out of date left empty. */
async function mendHead(file: string, head: string): Promise<void> {
  const source = await open(head, 'r').catch(() => null);
  if (!source) throw new DomainError('repair.head', 'Nothing was repaired: the first page of the database is damaged and no copy of it was kept.');
  const { buffer } = await source.read(Buffer.alloc(4096), 0, 4096, 0);
  await source.close();
  const pages = Math.floor((await stat(file)).size / 4096);
  // SQLite file format, 1.3: size in pages at 28, first free page at 32 and their number at 36; the size counts where 24 equals 92.
  buffer.writeUInt32BE(pages, 28);
  buffer.writeUInt32BE(0, 32);
  buffer.writeUInt32BE(0, 36);
  buffer.copy(buffer, 92, 24, 28);
  const target = await open(file, 'r+');
  await target.write(buffer, 0, 4096, 0);
  await target.close();
}

/** Where rows are looked for beyond a damaged page: near its ends, and spread between them. */
function* probes(from: number, to: number): Generator<number> {
  for (let step = 1; step <= to - from; step *= 2) {
    yield from + step;
    yield to - step;
  }
  for (let i = 1; i < 48; i++) yield from + Math.floor(((to - from) * i) / 48);
}

/**
 * The rows of a table, by stretches of row numbers: each is read upwards and downwards as far as that goes. What lies
 * between is looked into at single row numbers, and from one that can be read the stretch is begun anew.
 *
 * @returns the rows, and how many stretches could not be read
 */
async function readTable(connection: Connection, table: string): Promise<{ rows: Row[]; lost: number }> {
  const found = new Map<number, Row>();
  const walk = async (from: number, to: number, order: 'ASC' | 'DESC'): Promise<{ whole: boolean; last: number | null }> => {
    let last: number | null = null;
    const whole = await connection.walk(
      `SELECT rowid AS "rowid", * FROM "${table}" NOT INDEXED WHERE rowid BETWEEN ? AND ? ORDER BY rowid ${order}`,
      [from, to],
      ({ rowid, ...row }) => {
        last = rowid as number;
        found.set(last, row);
      },
    );
    return { whole, last };
  };
  let lost = 0;
  const stretch = async (from: number, to: number): Promise<void> => {
    if (from > to) return;
    const up = await walk(from, to, 'ASC');
    if (up.whole) return;
    const down = await walk(from, to, 'DESC');
    const [low, high] = [up.last ?? from - 1, down.last ?? to + 1];
    for (const at of probes(low, high))
      if (at > low && at < high && (await walk(at, at, 'ASC')).whole) {
        await stretch(low + 1, at - 1);
        await stretch(at, high - 1);
        return;
      }
    lost++;
  };
  // Where the last row lies on a damaged page its number is not known; there are fewer rows than this.
  const last = await connection.all(`SELECT max(rowid) AS n FROM "${table}" NOT INDEXED`).then(
    ([row]) => Number(row.n ?? 0),
    () => 1 << 24,
  );
  await stretch(1, last);
  return { rows: [...found].sort(([a], [b]) => a - b).map(([, row]) => row), lost };
}

/** Fills the new tables; what refers to a project whose row was lost gets a row made from its newest state. */
async function fill(db: Database, rescued: Rescued): Promise<Record<string, number>> {
  const known = new Set(rescued.get('projects')!.rows.map((r) => r.id));
  const newest = new Map<string, number>();
  for (const table of ['snapshots', 'changes'] as const)
    for (const { projectId, seq } of rescued.get(table)!.rows as { projectId: string; seq: number }[])
      newest.set(projectId, Math.max(newest.get(projectId) ?? 0, seq));
  const stamp = new Date().toISOString();
  for (const [id, seq] of newest)
    if (!known.has(id))
      rescued.get('projects')!.rows.push({ id, name: `Recovered ${id}`, seq, createdAt: stamp, changedAt: stamp, deletedAt: null, card: null });
  const lost: Record<string, number> = {};
  for (const table of TABLES) {
    const { rows, lost: gone } = rescued.get(table)!;
    if (gone) lost[table] = gone;
    await db.write(async (transaction) => {
      for (const row of rows.map(packed)) {
        const columns = Object.keys(row);
        await db.sequelize
          .query(`INSERT OR IGNORE INTO "${table}" (${columns.map((c) => `"${c}"`).join(', ')}) VALUES (${columns.map((_, i) => `$${i + 1}`).join(', ')})`, {
            bind: columns.map((c) => row[c]),
            transaction,
          })
          .catch(() => void (lost[table] = (lost[table] ?? 0) + 1));
      }
    });
  }
  return lost;
}

/** A row of the tables as they were before records were packed, packed; any other row as it is. */
function packed(row: Row): Row {
  try {
    if (typeof row.json === 'string') {
      const { json, ...rest } = row;
      return { ...rest, data: pack(JSON.parse(json)) };
    }
    if (typeof row.patches === 'string') {
      const { args, patches, inverse, ...rest } = row as Record<string, string>;
      return { ...rest, data: pack({ args: JSON.parse(args) as unknown, patches: JSON.parse(patches) as unknown, inverse: JSON.parse(inverse) as unknown }) };
    }
  } catch {
    // What can't be read is kept as it is, and named when its project is opened.
  }
  return row;
}

/** How far each project can be read; a log with a gap ends before it. */
async function account(db: Database): Promise<Repaired['projects']> {
  const projects = new Projects(db, { has: () => Promise.resolve(true) });
  const list: Repaired['projects'] = [];
  for (const row of await db.projects.findAll()) {
    const found = await projects.salvage(row.id).catch(() => null);
    const name = (found?.project as { name?: string } | undefined)?.name ?? row.name;
    list.push({ name, seq: found?.seq ?? 0, last: row.seq, readable: found !== null });
    if (!found) continue;
    // The project goes on from what could be read; changes beyond a gap stand on nothing.
    await db.write(async (transaction) => {
      await db.projects.update({ seq: found.seq, name }, { where: { id: row.id }, transaction });
      await db.sequelize.query('DELETE FROM changes WHERE projectId = $1 AND seq > $2', { bind: [row.id, found.seq], transaction });
      await db.sequelize.query('DELETE FROM snapshots WHERE projectId = $1 AND seq > $2', { bind: [row.id, found.seq], transaction });
    });
  }
  return list;
}
