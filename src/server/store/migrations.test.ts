import { mkdtemp, rm } from 'node:fs/promises';
import os from 'node:os';
import path from 'node:path';
import { QueryTypes, Sequelize } from 'sequelize';
import sqlite3 from 'sqlite3';
import { SequelizeStorage, Umzug } from 'umzug';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { runChange, type Change } from '@/core/project/commands';
import { emptyProject, type Project } from '@/core/project/schema';
import { makeApp } from '../application';
import { openDatabase } from './database';
import { migrations } from './migrations';
import { asVersion4, change } from './testing';

let folder: string;
beforeEach(async () => {
  folder = await mkdtemp(path.join(os.tmpdir(), 'enstegon-old-'));
});
afterEach(() => rm(folder, { recursive: true, force: true }));

const file = (): string => path.join(folder, 'enstegon.sqlite');
const raw = (): Sequelize => new Sequelize({ dialect: 'sqlite', dialectModule: sqlite3, storage: file(), logging: false });
const HASH = 'ab'.repeat(32);

/** A database as the release before kept it: text in place of packed records, snapshots each 50 changes. */
async function oldDatabase(changes: Change[]): Promise<Project> {
  const db = raw();
  const umzug = new Umzug({ migrations, context: db.getQueryInterface(), storage: new SequelizeStorage({ sequelize: db }), logger: undefined });
  await umzug.up({ to: '0002-library' });
  const at = '2026-11-20 10:00:00.000 +00:00';
  let project = emptyProject('old', 'Old');
  const insert = (table: string, row: Record<string, unknown>): Promise<unknown> =>
    db.query(`INSERT INTO ${table} (${Object.keys(row).join(', ')}) VALUES (${Object.keys(row).map((_, i) => `$${i + 1}`)})`, { bind: Object.values(row) });
  await insert('projects', { id: 'old', name: 'Old', seq: changes.length, createdAt: at, changedAt: at });
  await insert('assets', { hash: HASH, mime: 'image/png', bytes: 100, at });
  await insert('snapshots', { projectId: 'old', seq: 0, json: JSON.stringify(asVersion4(project)) });
  for (const [i, one] of changes.entries()) {
    const outcome = runChange(project, one);
    project = outcome.project;
    await insert('changes', {
      projectId: 'old',
      seq: i + 1,
      changeId: one.id,
      kind: 'do',
      command: one.command,
      title: outcome.title,
      args: JSON.stringify(one.args),
      patches: JSON.stringify(outcome.patches),
      inverse: JSON.stringify(outcome.inverse),
      at,
    });
    if ((i + 1) % 50 === 0) await insert('snapshots', { projectId: 'old', seq: i + 1, json: JSON.stringify(asVersion4(project)) });
  }
  await db.close();
  return project;
}

const edits = (n: number): Change[] => [
  change('wall.draw', {
    level: 'ground',
    points: [
      { x: 0, y: 0 },
      { x: 4, y: 0 },
      { x: 4, y: 3 },
      { x: 0, y: 3 },
    ],
    closed: true,
    thickness: 0.1,
  }),
  change('picture.add', {
    id: 'picture-a',
    name: 'A',
    viewpoint: null,
    width: 16,
    height: 16,
    samples: 1,
    exposure: 1,
    radiance: HASH,
    image: HASH,
    made: 'now',
  }),
  ...Array.from({ length: n }, (_, i) => change('project.rename', { name: `Name ${i}` })),
];

describe('a database of the release before', () => {
  it('is packed once, with its projects, their past and the files they need', async () => {
    const project = await oldDatabase(edits(120));
    for (let opened = 0; opened < 2; opened++) {
      const app = await makeApp(await openDatabase(folder), folder);
      const state = await app.projects.load('old');
      expect(state.seq).toBe(122);
      expect(state.project).toEqual(project);
      // Its steps are of an earlier format: none is taken back, each of its states can be had.
      expect([await app.projects.history('old'), await app.projects.boundary('old')]).toEqual([[], 122]);
      expect(await app.db.changes.count({ where: { projectId: 'old' } })).toBe(122);
      expect([(await app.projects.stateAt('old', 60)).name, (await app.projects.stateAt('old', 0)).name]).toEqual(['Name 57', 'Old']);
      expect((await app.db.uses.findAll()).map((u) => [u.projectId, u.hash])).toEqual([['old', HASH]]);
      const columns = await app.db.sequelize.query<{ name: string }>("SELECT name FROM pragma_table_info('changes')", { type: QueryTypes.SELECT });
      expect(columns.map((c) => c.name)).not.toContain('patches');
      await app.close();
    }
    const app = await makeApp(await openDatabase(folder), folder);
    expect(await app.projects.append('old', 122, [change('project.rename', { name: 'On' })])).toEqual({ ok: true, seq: 123 });
    expect((await app.db.sequelize.query('PRAGMA foreign_key_check'))[0]).toEqual([]);
    await app.close();
  });

  it('is as it was when packing is ended half-way', async () => {
    await oldDatabase(edits(5));
    const db = raw();
    // A record that can't be packed ends the step.
    await db.query("UPDATE changes SET args = '{' WHERE seq = 4");
    await db.close();
    await expect(openDatabase(folder)).rejects.toThrow();
    const again = raw();
    const tables = (await again.query<{ name: string }>("SELECT name FROM sqlite_master WHERE type = 'table'", { type: QueryTypes.SELECT })).map((t) => t.name);
    expect(tables.filter((t) => t.startsWith('packed_') || t === 'uses')).toEqual([]);
    expect((await again.query<{ n: number }>('SELECT count(*) AS n FROM changes', { type: QueryTypes.SELECT }))[0].n).toBe(7);
    await again.query("UPDATE changes SET args = '{}' WHERE seq = 4");
    await again.close();
    const app = await makeApp(await openDatabase(folder), folder);
    expect((await app.projects.load('old')).project.name).toBe('Name 4');
    await app.close();
  });
});
