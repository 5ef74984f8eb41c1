import { createHash } from 'node:crypto';
import { fork } from 'node:child_process';
import { copyFile, mkdir, open, readdir, readFile, rm, stat, truncate, unlink, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { QueryTypes } from 'sequelize';
import { describe, expect, it } from 'vitest';
import { writePng } from '@/core/formats/png';
import { FORMAT_VERSION } from '@/core/project/schema';
import { cards } from '../cards';
import { makeExport } from '../handing';
import { readProjectFile } from '../jobs/project-file';
import { faultOf, storeFault } from './faults';
import { checkDatabase, claimFolder, keepHead, places, sweep } from './folder';
import { pack } from './packing';
import { repair } from './repair';
import { asVersion4, change, freshApp, refusal, rename } from './testing';

const at = freshApp();

const rectangle = (x: number) =>
  change('wall.draw', {
    level: 'ground',
    points: [
      { x, y: 0 },
      { x: x + 1, y: 0 },
      { x: x + 1, y: 1 },
      { x, y: 1 },
    ],
    closed: true,
    thickness: 0.1,
  });

describe('a damaged project', () => {
  it('is listed with its reason, leaves the others alone, and is exported as far as it goes', async () => {
    const { app } = at;
    const good = await app.projects.createEmpty('Good', 'metric');
    const bad = await app.projects.createEmpty('Bad', 'metric');
    await app.projects.append(bad, 0, [rename('Bad one'), rectangle(0), rename('Bad three')]);
    await app.db.changes.update({ data: Buffer.from('nonsense') }, { where: { projectId: bad, seq: 3 } });
    const { app: again } = { app: await at.reopen() };
    const list = await cards(again);
    expect(list.map((c) => [c.id, c.damaged])).toEqual(
      expect.arrayContaining([
        [good, null],
        [bad, expect.stringMatching(/of its 3 changes, those from 3 on can’t be read; export it/)],
      ]),
    );
    expect((await refusal(again.projects.load(bad))).code).toBe('project.broken');
    const { file, name } = await makeExport(again, bad, { kind: 'file', board: null, page: null });
    expect(name.replace(/\d{4}-\d{2}-\d{2}/, 'DAY')).toBe(`${list.find((c) => c.id === bad)!.name}, what could be read, DAY.enstegon`);
    const { project } = await readProjectFile(file);
    expect(project.name).toBe('Bad one');
    expect(Object.keys(project.walls)).toHaveLength(4);
  });

  it('does not keep the list waiting: what is not known yet is worked out beside it, once', async () => {
    const { app } = at;
    const [good, bad] = [await app.projects.createEmpty('Good', 'metric'), await app.projects.createEmpty('Bad', 'metric')];
    await app.db.snapshots.update({ data: Buffer.from('{') }, { where: { projectId: bad } });
    const first = await cards(app, false);
    expect(first.map((c) => [c.pending, c.damaged])).toEqual([
      [true, null],
      [true, null],
    ]);
    const [one, two] = await Promise.all([cards(app), cards(app)]);
    expect(one).toEqual(two);
    const after = await cards(app, false);
    expect(after.map((c) => [c.id, c.pending, c.damaged !== null]).sort()).toEqual(
      [
        [good, false, false],
        [bad, false, true],
      ].sort(),
    );
    // After an edit it shows the figures it had until there are new ones.
    await app.projects.append(good, 0, [rectangle(0)]);
    expect((await cards(app, false)).find((c) => c.id === good)).toMatchObject({ pending: true, rooms: 0 });
    expect((await cards(app)).find((c) => c.id === good)).toMatchObject({ pending: false, rooms: 1 });
  });

  it('says each way it can be damaged in a sentence', async () => {
    const { app } = at;
    for (const [data, why] of [
      [Buffer.from('{'), /none of its states can be read/],
      [pack(null), /none of its states can be read/],
      [pack({ version: 99 }), /a later version \(99/],
      [pack({}), /its state is damaged/],
      [pack({ version: 1, walls: { a: null } }), /not valid/],
    ] as const) {
      const id = await app.projects.createEmpty('P', 'metric');
      await app.db.snapshots.update({ data }, { where: { projectId: id } });
      expect((await refusal(app.projects.load(id))).message).toMatch(why);
    }
    const id = await app.projects.createEmpty('P', 'metric');
    await app.db.snapshots.destroy({ where: { projectId: id } });
    expect((await refusal(app.projects.load(id))).message).toMatch(/first state is missing/);
    expect((await cards(app)).filter((c) => c.damaged)).toHaveLength(6);
  });

  it('falls back to an earlier state where the latest can’t be read, and loses nothing', async () => {
    const { app } = at;
    const id = await app.projects.createEmpty('P', 'metric');
    for (let i = 0; i < 55; i++) await app.projects.append(id, i, [rename(`N${i}`)]);
    await app.db.snapshots.update({ data: Buffer.from('x') }, { where: { projectId: id, seq: 50 } });
    const again = await at.reopen();
    expect((await again.projects.load(id)).project.name).toBe('N54');
  });
});

describe('an old project that many ask for at once', () => {
  it('is brought up to date once, in one step', async () => {
    const { app } = at;
    const id = await app.projects.createEmpty('Old', 'metric');
    const { project } = await app.projects.load(id);
    await app.db.snapshots.update({ data: pack(asVersion4({ ...project, name: 'Old\u0000' })) }, { where: { projectId: id } });
    const again = await at.reopen();
    const seen: string[] = [];
    again.db.sequelize.addHook('afterBulkDestroy', () => void seen.push('destroyed'));
    const answers = await Promise.all(Array.from({ length: 10 }, () => again.projects.load(id)));
    expect(new Set(answers).size).toBe(1);
    expect(answers[0].project).toMatchObject({ version: FORMAT_VERSION, name: 'Old\ufffd' });
    expect(seen).toEqual(['destroyed']);
    expect(await again.db.snapshots.count({ where: { projectId: id } })).toBe(1);
  });

  it('still has its state when the step fails half-way', async () => {
    const { app } = at;
    const id = await app.projects.createEmpty('Old', 'metric');
    const { project } = await app.projects.load(id);
    await app.db.snapshots.update({ data: pack(asVersion4(project)) }, { where: { projectId: id } });
    const again = await at.reopen();
    const create = again.db.snapshots.create.bind(again.db.snapshots);
    again.db.snapshots.create = (() => Promise.reject(new Error('killed'))) as never;
    await expect(again.projects.load(id)).rejects.toThrow('killed');
    again.db.snapshots.create = create as never;
    expect((await again.projects.load(id)).project.version).toBe(FORMAT_VERSION);
  });
});

describe('the folder', () => {
  it('is claimed by one process, also when that ends without a word', async () => {
    const lock = await claimFolder(at.folder);
    const program = `
      const { claimFolder } = await import(${JSON.stringify(path.resolve('src/server/store/folder.ts'))});
      claimFolder(process.argv[2]).then(() => { process.send('claimed'); setInterval(() => {}, 1000); }, (e) => { process.send(e.message); process.exit(); });`;
    await writeFile(path.join(at.folder, 'other.mts'), program);
    const other = () => {
      const child = fork(path.join(at.folder, 'other.mts'), [at.folder], { execArgv: ['--import', path.resolve('node_modules/tsx/dist/loader.mjs')] });
      return { child, said: new Promise<string>((done) => child.once('message', (m) => done(String(m)))) };
    };
    expect(await other().said).toMatch(/Another server is working with this data folder/);
    await lock.release();
    const { child, said } = other();
    expect(await said).toBe('claimed');
    expect((await refusal(claimFolder(at.folder))).code).toBe('store.locked');
    const gone = new Promise((done) => child.once('exit', done));
    child.kill('SIGKILL');
    await gone;
    await (await claimFolder(at.folder)).release();
  });

  it('is swept of what was on its way', async () => {
    const hash = await at.app.files.keep(writePng(new Uint8Array(4), 1, 1));
    const shelf = path.join(places(at.folder).files, hash.slice(0, 2));
    await writeFile(path.join(shelf, `${hash}.a1b2c3`), 'half');
    await mkdir(path.join(places(at.folder).passing, 'work'), { recursive: true });
    await writeFile(path.join(places(at.folder).passing, 'work', 'x'), 'half');
    expect(await sweep(at.folder)).toBe(2);
    expect(await readdir(shelf)).toEqual([hash]);
    expect(await readdir(places(at.folder).passing)).toEqual([]);
  });

  it('that has lost its database is not begun anew', async () => {
    await keepHead(at.folder);
    await at.reopen(async () => {
      await rm(places(at.folder).database);
      expect((await refusal(checkDatabase(at.folder))).code).toBe('store.gone');
      await writeFile(places(at.folder).database, '');
      expect((await refusal(checkDatabase(at.folder))).code).toBe('store.damaged');
      await rm(places(at.folder).database);
    });
  });
});

describe('faults', () => {
  it('are told apart, however deep they lie', () => {
    const sqlite = (code: string): Error => Object.assign(new Error('x'), { parent: Object.assign(new Error('y'), { code }) });
    for (const [code, kind] of [
      ['SQLITE_FULL', 'store.full'],
      ['ENOSPC', 'store.full'],
      ['SQLITE_READONLY', 'store.readonly'],
      ['EROFS', 'store.readonly'],
      ['SQLITE_CORRUPT', 'store.damaged'],
      ['SQLITE_NOTADB', 'store.damaged'],
      ['SQLITE_BUSY', 'store.busy'],
      ['SQLITE_CANTOPEN', 'store.gone'],
      ['SQLITE_IOERR', 'store.disk'],
    ])
      expect(faultOf(sqlite(code))?.code).toBe(kind);
    expect(faultOf(new Error('x'))).toBeNull();
    expect(faultOf(null)).toBeNull();
    const own = storeFault('full');
    expect(faultOf(own)).toBe(own);
    const sentences = (['full', 'readonly', 'damaged', 'locked', 'gone', 'disk', 'busy'] as const).map((kind) => storeFault(kind).message);
    expect(new Set(sentences).size).toBe(7);
    for (const text of sentences) expect(text).toMatch(/^[A-Z].*\.$/);
  });
});

/** Fills a folder with projects of many changes, closes it and gives back what they were. */
async function worked(): Promise<Map<string, { seq: number; name: string; walls: number }>> {
  const { app } = at;
  const known = new Map<string, { seq: number; name: string; walls: number }>();
  for (let p = 0; p < 4; p++) {
    const id = await app.projects.createEmpty(`House ${p}`, 'metric');
    for (let i = 0; i < 60; i++) await app.projects.append(id, i, [i % 3 ? rename(`House ${p} ${i}`) : rectangle(i * 2)]);
    const { seq, project } = await app.projects.load(id);
    known.set(id, { seq, name: project.name, walls: Object.keys(project.walls).length });
  }
  await app.db.sequelize.query('PRAGMA wal_checkpoint(TRUNCATE)');
  await keepHead(at.folder);
  return known;
}

const spoil = async (file: string, from: number, bytes: Buffer): Promise<void> => {
  const handle = await open(file, 'r+');
  await handle.write(bytes, 0, bytes.length, from);
  await handle.close();
};

const digestOf = async (file: string): Promise<string> =>
  createHash('sha256')
    .update(await readFile(file))
    .digest('hex');

describe('a damaged database', () => {
  it('is known before it is opened, set aside as it was, and rebuilt whole where the log is whole', async () => {
    const known = await worked();
    const { database } = places(at.folder);
    let lost: unknown;
    const after = await at.reopen(async () => {
      // The page with the list of tables, as a disk that failed there would leave it.
      await spoil(database, 0, Buffer.alloc(4096, 0x5a));
      const before = await digestOf(database);
      expect((await refusal(checkDatabase(at.folder))).code).toBe('store.damaged');
      expect(await digestOf(database)).toBe(before);
      const done = await repair(at.folder, new Date('2026-11-28T10:11:12Z'));
      expect(path.basename(done.aside)).toBe('damaged-2026-11-28T101112');
      expect(await digestOf(path.join(done.aside, path.basename(database)))).toBe(before);
      lost = done.lost;
      await checkDatabase(at.folder);
    });
    expect(lost).toEqual({});
    for (const [id, { seq, name, walls }] of known) {
      const state = await after.projects.load(id);
      expect([state.seq, state.project.name, Object.keys(state.project.walls).length]).toEqual([seq, name, walls]);
      expect(await after.projects.history(id)).toHaveLength(60);
    }
    // It goes on from there.
    const [id] = known.keys();
    expect(await after.projects.append(id, 60, [rename('On')])).toEqual({ ok: true, seq: 61 });
  });

  it('gives back every project with what lies on its readable pages, wherever it is hit', async () => {
    const known = await worked();
    const { database } = places(at.folder);
    const [roots] = [
      await at.app.db.sequelize.query<{ name: string; rootpage: number }>("SELECT name, rootpage FROM sqlite_master WHERE type = 'table'", {
        type: QueryTypes.SELECT,
      }),
    ];
    const rootOf = (name: string): number => roots.find((r) => r.name === name)!.rootpage - 1;
    const { size } = await stat(database);
    const pages = size / 4096;
    const whole = path.join(at.folder, 'whole');
    let [tried, readable] = [0, 0];
    await at.reopen(async () => {
      await copyFile(database, whole);
      for (let page = 1; page < pages; page += Math.max(1, Math.floor(pages / 12))) {
        // A hit on the root of a table takes all of that table: no page of it is found any more.
        if ([rootOf('projects'), rootOf('snapshots'), rootOf('changes')].includes(page)) continue;
        await copyFile(whole, database);
        for (const ending of ['-wal', '-shm']) await unlink(`${database}${ending}`).catch(() => undefined);
        await spoil(database, page * 4096, Buffer.alloc(4096, 0xa5));
        const done = await repair(at.folder, new Date(Date.UTC(2026, 0, 1, 0, tried)));
        expect(done.projects).toHaveLength(known.size);
        readable += done.projects.filter((p) => p.readable).length;
        tried++;
      }
      await copyFile(whole, database);
    });
    expect(tried).toBeGreaterThan(5);
    // These projects are so small that one page may hold the states of three; hits on all other pages take none.
    expect(readable).toBeGreaterThanOrEqual(tried * known.size - 6);
  });

  it('that ends too early is rebuilt as far as it reaches', async () => {
    await worked();
    const { database } = places(at.folder);
    const after = await at.reopen(async () => {
      await truncate(database, Math.floor((await stat(database)).size / 4096 / 2) * 4096);
      expect((await refusal(checkDatabase(at.folder))).code).toBe('store.damaged');
      await repair(at.folder);
      await checkDatabase(at.folder);
    });
    for (const row of await after.projects.list()) await after.projects.load(row.id).catch((e: Error) => expect(e.message).toMatch(/can’t be opened/));
  });

  it('is left as it was where nothing of it can be read', async () => {
    await at.reopen(async () => {
      const { database, head } = places(at.folder);
      const whole = await readFile(database);
      await rm(head, { force: true });
      await spoil(database, 0, Buffer.alloc(4096, 1));
      const before = await digestOf(database);
      expect((await refusal(repair(at.folder))).message).toMatch(/^Nothing was repaired: /);
      expect(await digestOf(database)).toBe(before);
      await writeFile(database, whole);
    });
    await rm(places(at.folder).passing, { recursive: true, force: true });
  });
});
