import { Op, QueryTypes } from 'sequelize';
import { readdir, rm, stat } from 'node:fs/promises';
import path from 'node:path';
import { KEPT_DAYS } from '../config';
import type { Database } from './database';
import type { FileStore } from './files';
import { places } from './folder';
import type { Projects } from './projects';

const DAY = 24 * 60 * 60 * 1000;

/** What a round of upkeep did. */
export interface Upkept {
  projects: number;
  files: number;
  snapshots: number;
  /** Pages given back to the disk. */
  pages: number;
}

/**
 * Takes away for good what was deleted more than `KEPT_DAYS` ago, files that no state of any project has needed for as
 * long, and snapshots closer together than their age asks for; gives the space back.
 *
 * @param now the moment that ages are counted to
 */
export async function upkeep({ db, projects, files }: { db: Database; projects: Projects; files: FileStore }, now = new Date()): Promise<Upkept> {
  const before = new Date(now.getTime() - KEPT_DAYS * DAY);
  const done: Upkept = { projects: 0, files: 0, snapshots: 0, pages: 0 };
  for (const { id } of await db.projects.findAll({ where: { deletedAt: { [Op.lt]: before } }, attributes: ['id'] })) {
    await projects.purge(id);
    done.projects++;
  }
  for (const { id } of await db.projects.findAll({ attributes: ['id'] })) done.snapshots += await db.write((transaction) => projects.thin(id, transaction));
  const needed = new Set((await db.uses.findAll({ attributes: ['hash'], group: ['hash'] })).map((u) => u.hash));
  for (const { data } of await db.library.findAll({ attributes: ['data'] })) for (const [hash] of data.matchAll(/[0-9a-f]{64}/g)) needed.add(hash);
  for (const { hash } of await db.assets.findAll({ where: { at: { [Op.lt]: before } }, attributes: ['hash'] }))
    if (!needed.has(hash)) {
      await files.remove(hash);
      done.files++;
    }
  // Files that were put in their place by a process that ended before it could note them.
  const known = new Set((await db.assets.findAll({ attributes: ['hash'] })).map((a) => a.hash));
  const shelves = places(files.folder).files;
  for (const shelf of await readdir(shelves).catch(() => []))
    for (const name of await readdir(path.join(shelves, shelf)).catch(() => [])) {
      const file = path.join(shelves, shelf, name);
      if (!known.has(name) && !needed.has(name) && (await stat(file)).mtime < before) {
        await rm(file, { force: true });
        done.files++;
      }
    }
  const free = async (): Promise<number> =>
    (await db.sequelize.query<{ freelist_count: number }>('PRAGMA freelist_count', { type: QueryTypes.SELECT }))[0].freelist_count;
  const empty = await free();
  if (empty > 0) {
    await db.sequelize.query('PRAGMA incremental_vacuum');
    await db.sequelize.query('PRAGMA wal_checkpoint(TRUNCATE)');
    done.pages = empty - (await free());
  }
  return done;
}
