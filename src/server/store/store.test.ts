import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import os from 'node:os';
import path from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { z } from 'zod';
import { boardOf } from '@/core/boards/layout';
import { writePng } from '@/core/formats/png';
import type { Change } from '@/core/project/commands';
import { DomainError } from '@/core/project/errors';
import { QueryTypes } from 'sequelize';
import sharp from 'sharp';
import { makeApp, type App } from '../app';
import { importProject, makeExport } from '../handing';
import { exportPng, thumbnail } from '../jobs/exports';
import { demoProject, seedDemo } from '../seed';
import { bodyBytes, bodyJson, respond } from '../web/respond';
import { SNAPSHOT_EVERY } from '../config';
import { openDatabase } from './database';
import { pack } from './packing';

let folder: string;
let app: App;

beforeEach(async () => {
  folder = await mkdtemp(path.join(os.tmpdir(), 'enstegon-'));
  app = await makeApp(await openDatabase(folder), folder);
});
afterEach(async () => {
  await app.close();
  await rm(folder, { recursive: true, force: true });
});

let number = 0;
const change = (command: Change['command'], args: unknown): Change => ({ id: `change${String(number++).padStart(4, '0')}`, kind: 'do', command, args });
const rename = (name: string): Change => change('project.rename', { name });

/** The same folder as a process that has just been started sees it. */
const reopened = async (): Promise<App> => {
  await app.close();
  return (app = await makeApp(await openDatabase(folder), folder));
};

const refusal = async (work: Promise<unknown>): Promise<DomainError> => {
  const error = await work.then(
    () => null,
    (e: unknown) => e,
  );
  expect(error).toBeInstanceOf(DomainError);
  return error as DomainError;
};

describe('a project an earlier version kept', () => {
  it('is brought up to date once, and goes on from there', async () => {
    const id = await app.projects.createEmpty('Old', 'metric');
    const { wallTypes: _t, guides: _g, columns: _c, levels, ...rest } = (await app.projects.load(id)).project;
    const { underlay: _u, ...ground } = levels.ground;
    await app.db.snapshots.update({ data: pack({ ...rest, version: 1, levels: { ground } }) }, { where: { projectId: id } });
    const { projects } = await reopened();
    expect((await projects.load(id)).project).toMatchObject({ version: 5, guides: {}, levels: { ground: { underlay: null } } });
    await projects.append(id, 0, [rename('New')]);
    const again = await reopened();
    expect((await again.projects.load(id)).project).toMatchObject({ version: 5, name: 'New' });
  });
});

describe('the log of changes', () => {
  it('appends, numbers and replays', async () => {
    const id = await app.projects.createEmpty('First', 'metric');
    expect(await app.projects.append(id, 0, [rename('Second'), rename('Third')])).toEqual({ ok: true, seq: 2 });
    expect(await app.projects.append(id, 2, [rename('Fourth')])).toEqual({ ok: true, seq: 3 });
    const { projects } = await reopened();
    expect((await projects.load(id)).project.name).toBe('Fourth');
    expect((await projects.history(id)).map((c) => [c.seq, c.title])).toEqual([1, 2, 3].map((seq) => [seq, 'Rename project']));
    expect((await projects.list())[0]).toMatchObject({ id, name: 'Fourth', seq: 3 });
  });

  it('takes a repeated request once', async () => {
    const id = await app.projects.createEmpty('P', 'metric');
    const edits = [rename('A'), rename('B')];
    await app.projects.append(id, 0, edits);
    expect(await app.projects.append(id, 0, edits)).toEqual({ ok: true, seq: 2 });
    expect(await app.projects.append(id, 0, [...edits, rename('C')])).toEqual({ ok: true, seq: 3 });
  });

  it('writes nothing where others came between, and hands their changes over', async () => {
    const id = await app.projects.createEmpty('P', 'metric');
    await app.projects.append(id, 0, [rename('Theirs')]);
    const answer = await app.projects.append(id, 0, [rename('Mine')]);
    expect(answer).toMatchObject({ ok: false, seq: 1 });
    expect(answer.ok ? [] : answer.changes.map((c) => c.title)).toEqual(['Rename project']);
    expect((await app.projects.load(id)).project.name).toBe('Theirs');
    expect(await app.projects.append(id, 9, [rename('Mine')])).toMatchObject({ ok: false });
  });

  it('keeps all of a batch or none of it', async () => {
    const id = await app.projects.createEmpty('P', 'metric');
    const error = await refusal(app.projects.append(id, 0, [rename('A'), change('wall.move', { wall: 'none', offset: 1 })]));
    expect(error.message).toMatch(/no longer in the project/);
    const { projects } = await reopened();
    expect(await projects.load(id)).toMatchObject({ seq: 0, project: { name: 'P' } });
  });

  it('keeps two writers in line', async () => {
    const id = await app.projects.createEmpty('P', 'metric');
    const answers = await Promise.all(Array.from({ length: 20 }, (_, i) => app.projects.append(id, 0, [rename(`N${i}`)])));
    expect(answers.filter((a) => a.ok)).toHaveLength(1);
    expect((await app.projects.load(id)).seq).toBe(1);
  });

  it('bounds replay with snapshots', async () => {
    const id = await app.projects.createEmpty('P', 'metric');
    for (let i = 0; i < SNAPSHOT_EVERY + 5; i++) await app.projects.append(id, i, [rename(`N${i}`)]);
    const seqs = (await app.db.snapshots.findAll({ where: { projectId: id } })).map((s) => s.seq);
    expect(seqs.sort((a, b) => a - b)).toEqual([0, SNAPSHOT_EVERY]);
    const { projects } = await reopened();
    expect((await projects.load(id)).project.name).toBe(`N${SNAPSHOT_EVERY + 4}`);
  });

  it('refuses a picture whose file has not arrived', async () => {
    const id = await app.projects.createEmpty('P', 'metric');
    const args = {
      id: 'x',
      name: 'X',
      viewpoint: null,
      width: 16,
      height: 16,
      samples: 1,
      exposure: 9,
      radiance: 'a'.repeat(64),
      image: 'b'.repeat(64),
      made: 'now',
    };
    expect((await refusal(app.projects.append(id, 0, [change('picture.add', args)]))).code).toBe('asset.missing');
  });

  it('runs with write-ahead logging, full syncing and foreign keys', async () => {
    const pragma = async (name: string) => Object.values((await app.db.sequelize.query(`PRAGMA ${name}`, { type: QueryTypes.SELECT }))[0] as object)[0];
    expect(await pragma('journal_mode')).toBe('wal');
    expect(await pragma('synchronous')).toBe(2);
    expect(await pragma('foreign_keys')).toBe(1);
    await expect(
      app.db.changes.create({
        projectId: 'none',
        seq: 1,
        changeId: 'x',
        kind: 'do',
        target: null,
        command: 'x',
        title: 'x',
        data: Buffer.alloc(0),
        at: new Date(),
      }),
    ).rejects.toThrow();
  });
});

describe('projects', () => {
  it('are deleted and brought back', async () => {
    const id = await app.projects.createEmpty('P', 'metric');
    await app.projects.setDeleted(id, true);
    expect(await app.projects.list()).toEqual([]);
    expect((await refusal(app.projects.load(id))).code).toBe('project.missing');
    await app.projects.setDeleted(id, false);
    expect(await app.projects.list()).toHaveLength(1);
    expect((await refusal(app.projects.setDeleted('none', true))).code).toBe('project.missing');
  });

  it('are duplicated, and live apart', async () => {
    const id = await app.projects.createEmpty('P', 'imperial');
    const copy = await app.projects.duplicate(id);
    await app.projects.append(copy, 0, [rename('Q')]);
    expect((await app.projects.load(id)).project.name).toBe('P');
    expect((await app.projects.load(copy)).project).toMatchObject({ id: copy, name: 'Q', units: 'imperial' });
  });

  it('leave as a file and come back as another project, pictures and all', async () => {
    await seedDemo(app);
    const [{ id }] = await app.projects.list();
    const { file } = await makeExport(app, id, { kind: 'file', board: null, page: null });
    const back = await importProject(app, file);
    const [one, two] = [(await app.projects.load(id)).project, (await app.projects.load(back)).project];
    expect(two).toEqual({ ...one, id: back });
    await writeFile(path.join(folder, 'none'), new Uint8Array([1, 2, 3]));
    expect((await refusal(importProject(app, path.join(folder, 'none')))).message).toMatch(/not opened/);
    expect(await app.projects.list()).toHaveLength(2);
  });

  it('get the demo once, and keep what has become of it', async () => {
    expect(await seedDemo(app)).toBe(true);
    const [{ id }] = await app.projects.list();
    await app.projects.append(id, 0, [rename('Mine now')]);
    expect(await seedDemo(app)).toBe(false);
    expect((await app.projects.list()).map((p) => p.name)).toEqual(['Mine now']);
    await app.projects.setDeleted(id, true);
    expect(await seedDemo(app)).toBe(false);
  });
});

describe('files', () => {
  it('are known by their content and kept once', async () => {
    const png = writePng(new Uint8Array(16), 2, 2);
    const hash = await app.files.keep(png);
    expect(await app.files.keep(png)).toBe(hash);
    expect(await app.files.read(hash)).toEqual({ bytes: Buffer.from(png), mime: 'image/png' });
    expect(await app.files.find(hash)).toMatchObject({ width: 2, height: 2, bytes: png.length });
    expect((await refusal(app.files.keep(Buffer.from('<svg onload=alert(1)>')))).message).toMatch(/only PNG, JPEG/);
    for (const bad of ['../../etc/passwd', 'a'.repeat(64)]) expect((await refusal(app.files.read(bad))).code).toBe('asset.missing');
  });
});

describe('exports', () => {
  it('draw a page as PNG at the proportion of its paper, and a thumbnail', async () => {
    const { project, assets } = await demoProject();
    for (const asset of assets) await app.files.keep(asset.bytes);
    await app.projects.create(project);
    const board = boardOf(project, null);
    const page = await sharp(await exportPng(project, board, null, folder, undefined, 840)).metadata();
    expect([page.width, page.height]).toEqual([840, 594]);
    expect(() => boardOf(project, 'none')).toThrow(DomainError);
    expect((await sharp(await thumbnail(project, folder)).metadata()).width).toBe(560);
    // A project without a picture shows its plan: dark walls on white.
    const plain = await sharp(await thumbnail({ ...project, pictures: {}, boards: {} }, folder))
      .greyscale()
      .stats();
    expect(plain.channels[0].min).toBeLessThan(80);
    expect(plain.channels[0].mean).toBeGreaterThan(200);
  });
});

describe('requests', () => {
  it('are refused above their limit, before they are read to the end', async () => {
    const big = new Request('http://localhost/x', { method: 'POST', body: new Uint8Array(2000) });
    expect((await refusal(bodyBytes(big, 1000))).message).toMatch(/larger than/);
    const honest = new Request('http://localhost/x', { method: 'POST', body: 'x', headers: { 'content-length': '99999' } });
    expect((await refusal(bodyBytes(honest, 1000))).code).toBe('file.large');
  });

  it('are refused when they are not JSON, or not the JSON that is asked for', async () => {
    const read = (body: string) => bodyJson(new Request('http://localhost/x', { method: 'POST', body }), z.object({ a: z.number() }), 1000);
    expect((await refusal(read('{'))).message).toMatch(/not JSON/);
    expect((await refusal(read('{"a":"x"}'))).message).toMatch(/^The request was not understood: a: /);
    expect(await read('{"a":1}')).toEqual({ a: 1 });
  });

  it('answer refusals with a sentence and a fitting status, and hide what went wrong inside', async () => {
    const status = async (code: string) => (await respond(() => Promise.reject(new DomainError(code, 'No.')))).status;
    expect([await status('project.missing'), await status('file.large'), await status('asset.kind'), await status('opening.overlap')]).toEqual([
      404, 413, 415, 422,
    ]);
    const log = console.error;
    console.error = () => undefined;
    const inside = await respond(() => Promise.reject(new Error('secret path')));
    console.error = log;
    expect(inside.status).toBe(500);
    expect(await inside.text()).not.toContain('secret');
  });
});
