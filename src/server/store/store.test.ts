import { rm, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { boardOf } from '@/core/boards/layout';
import { writePng } from '@/core/formats/png';
import { FORMAT_VERSION } from '@/core/project/schema';
import { DomainError } from '@/core/project/errors';
import { QueryTypes } from 'sequelize';
import sharp from 'sharp';
import { importProject, makeExport } from '../handing';
import { exportPng, thumbnail } from '../jobs/exports';
import { demoProject, seedDemo } from '../seed';
import { bodyBytes, bodyJson, respond } from '../web/respond';
import { SNAPSHOT_EVERY } from '../config';
import { filePlace } from './files';
import { pack } from './packing';
import { STRETCH, type ChangeRefused } from './projects';
import { change, freshApp, refusal, rename } from './testing';

const at = freshApp();

/** The demo is made once for all tests: its pictures are developed each time. */
const demo = demoProject();
const once = () => demo;

describe('a project an earlier version kept', () => {
  it('is brought up to date once, and goes on from there', async () => {
    const id = await at.app.projects.createEmpty('Old', 'metric');
    const { wallTypes: _t, guides: _g, columns: _c, levels, ...rest } = (await at.app.projects.load(id)).project;
    const { underlay: _u, ...ground } = levels.ground;
    await at.app.db.snapshots.update({ data: pack({ ...rest, version: 1, levels: { ground } }) }, { where: { projectId: id } });
    const { projects } = await at.reopen();
    expect((await projects.load(id)).project).toMatchObject({ version: FORMAT_VERSION, guides: {}, levels: { ground: { underlay: null } } });
    await projects.append(id, 0, [rename('New')]);
    const again = await at.reopen();
    expect((await again.projects.load(id)).project).toMatchObject({ version: FORMAT_VERSION, name: 'New' });
  });
});

describe('the log of changes', () => {
  it('appends, numbers and replays', async () => {
    const id = await at.app.projects.createEmpty('First', 'metric');
    expect(await at.app.projects.append(id, 0, [rename('Second'), rename('Third')])).toEqual({ ok: true, seq: 2 });
    expect(await at.app.projects.append(id, 2, [rename('Fourth')])).toEqual({ ok: true, seq: 3 });
    const { projects } = await at.reopen();
    expect((await projects.load(id)).project.name).toBe('Fourth');
    expect((await projects.history(id)).map((c) => [c.seq, c.title])).toEqual([1, 2, 3].map((seq) => [seq, 'Rename project']));
    expect((await projects.list())[0]).toMatchObject({ id, name: 'Fourth', seq: 3 });
  });

  it('takes a repeated request once', async () => {
    const id = await at.app.projects.createEmpty('P', 'metric');
    const edits = [rename('A'), rename('B')];
    await at.app.projects.append(id, 0, edits);
    expect(await at.app.projects.append(id, 0, edits)).toEqual({ ok: true, seq: 2 });
    expect(await at.app.projects.append(id, 0, [...edits, rename('C')])).toEqual({ ok: true, seq: 3 });
  });

  it('writes nothing where others came between, and hands their changes over', async () => {
    const id = await at.app.projects.createEmpty('P', 'metric');
    await at.app.projects.append(id, 0, [rename('Theirs')]);
    const answer = await at.app.projects.append(id, 0, [rename('Mine')]);
    expect(answer).toMatchObject({ ok: false, seq: 1 });
    expect(answer.ok ? [] : answer.changes.map((c) => c.title)).toEqual(['Rename project']);
    expect((await at.app.projects.load(id)).project.name).toBe('Theirs');
    expect(await at.app.projects.append(id, 9, [rename('Mine')])).toMatchObject({ ok: false });
  });

  it('keeps all of a batch or none of it', async () => {
    const id = await at.app.projects.createEmpty('P', 'metric');
    const error = await refusal(at.app.projects.append(id, 0, [rename('A'), change('wall.move', { wall: 'none', offset: 1 })]));
    expect(error.message).toMatch(/no longer in the project/);
    const { projects } = await at.reopen();
    expect(await projects.load(id)).toMatchObject({ seq: 0, project: { name: 'P' } });
  });

  it('names the change at fault, and none of the others', async () => {
    const id = await at.app.projects.createEmpty('P', 'metric');
    const [good, bad] = [rename('A'), change('wall.move', { wall: 'none', offset: 1 })];
    const error = await refusal(at.app.projects.append(id, 0, [good, bad, rename('B')]));
    expect((error as ChangeRefused).change).toBe(bad.id);
    const twice = rename('C');
    expect((await refusal(at.app.projects.append(id, 0, [twice, twice]))) as ChangeRefused).toMatchObject({ code: 'change.twice', change: twice.id });
    expect((await at.app.projects.load(id)).seq).toBe(0);
  });

  it('keeps two writers in line', async () => {
    const id = await at.app.projects.createEmpty('P', 'metric');
    const answers = await Promise.all(Array.from({ length: 20 }, (_, i) => at.app.projects.append(id, 0, [rename(`N${i}`)])));
    expect(answers.filter((a) => a.ok)).toHaveLength(1);
    expect((await at.app.projects.load(id)).seq).toBe(1);
  });

  it('bounds replay with snapshots', async () => {
    const id = await at.app.projects.createEmpty('P', 'metric');
    for (let i = 0; i < SNAPSHOT_EVERY + 5; i++) await at.app.projects.append(id, i, [rename(`N${i}`)]);
    const seqs = (await at.app.db.snapshots.findAll({ where: { projectId: id } })).map((s) => s.seq);
    expect(seqs.sort((a, b) => a - b)).toEqual([0, SNAPSHOT_EVERY]);
    const { projects } = await at.reopen();
    expect((await projects.load(id)).project.name).toBe(`N${SNAPSHOT_EVERY + 4}`);
  });

  it('refuses a picture whose file has not arrived', async () => {
    const id = await at.app.projects.createEmpty('P', 'metric');
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
    expect((await refusal(at.app.projects.append(id, 0, [change('picture.add', args)]))).code).toBe('asset.missing');
  });

  it('hands what came between over in stretches, each with the number it reaches', async () => {
    const { app } = at;
    const id = await app.projects.createEmpty('P', 'metric');
    const data = pack({ args: null, patches: [{ op: 'replace', path: ['name'], value: 'Q' }], inverse: [] });
    const row = { projectId: id, kind: 'do' as const, target: null, command: 'project.rename', title: 'Rename project', data, at: new Date() };
    const last = STRETCH + 3;
    await app.db.changes.bulkCreate(Array.from({ length: last }, (_, i) => ({ ...row, seq: i + 1, changeId: `far${String(i).padStart(6, '0')}` })));
    await app.db.projects.update({ seq: last }, { where: { id } });
    const first = await app.projects.append(id, 0, [rename('Late')]);
    expect([first.ok, first.seq, first.ok ? 0 : first.changes.length]).toEqual([false, STRETCH, STRETCH]);
    const second = await app.projects.append(id, first.seq, [rename('Late')]);
    expect([second.ok, second.seq, second.ok ? 0 : second.changes.length]).toEqual([false, last, 3]);
    expect(await app.projects.append(id, second.seq, [rename('Late')])).toEqual({ ok: true, seq: last + 1 });
  });

  it('runs with write-ahead logging, full syncing and foreign keys, in transactions too', async () => {
    const pragma = async (name: string) => Object.values((await at.app.db.sequelize.query(`PRAGMA ${name}`, { type: QueryTypes.SELECT }))[0] as object)[0];
    expect(await pragma('journal_mode')).toBe('wal');
    expect(await pragma('synchronous')).toBe(2);
    expect(await pragma('foreign_keys')).toBe(1);
    await at.app.db.write(async (transaction) => {
      const own = async (name: string) =>
        Object.values((await at.app.db.sequelize.query(`PRAGMA ${name}`, { type: QueryTypes.SELECT, transaction }))[0] as object)[0];
      expect([await own('synchronous'), await own('foreign_keys'), await own('busy_timeout')]).toEqual([2, 1, 5000]);
    });
    await expect(
      at.app.db.changes.create({
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
    const id = await at.app.projects.createEmpty('P', 'metric');
    await at.app.projects.setDeleted(id, true);
    expect(await at.app.projects.list()).toEqual([]);
    expect((await refusal(at.app.projects.load(id))).code).toBe('project.missing');
    await at.app.projects.setDeleted(id, false);
    expect(await at.app.projects.list()).toHaveLength(1);
    expect((await refusal(at.app.projects.setDeleted('none', true))).code).toBe('project.missing');
  });

  it('are duplicated, and live apart', async () => {
    const id = await at.app.projects.createEmpty('P', 'imperial');
    const copy = await at.app.projects.duplicate(id);
    await at.app.projects.append(copy, 0, [rename('Q')]);
    expect((await at.app.projects.load(id)).project.name).toBe('P');
    expect((await at.app.projects.load(copy)).project).toMatchObject({ id: copy, name: 'Q', units: 'imperial' });
  });

  it('leave as a file and come back as another project, pictures and all', async () => {
    await seedDemo(at.app, once);
    const [{ id }] = await at.app.projects.list();
    const { file } = await makeExport(at.app, id, { kind: 'file', board: null, page: null });
    const back = await importProject(at.app, file);
    const [one, two] = [(await at.app.projects.load(id)).project, (await at.app.projects.load(back)).project];
    expect(two).toEqual({ ...one, id: back });
    await writeFile(path.join(at.folder, 'none'), new Uint8Array([1, 2, 3]));
    expect((await refusal(importProject(at.app, path.join(at.folder, 'none')))).message).toMatch(/not opened/);
    expect(await at.app.projects.list()).toHaveLength(2);
  });

  it('get the demo once, and keep what has become of it', async () => {
    expect(await seedDemo(at.app, once)).toBe(true);
    const [{ id }] = await at.app.projects.list();
    await at.app.projects.append(id, 0, [rename('Mine now')]);
    expect(await seedDemo(at.app, once)).toBe(false);
    expect((await at.app.projects.list()).map((p) => p.name)).toEqual(['Mine now']);
    await at.app.projects.setDeleted(id, true);
    expect(await seedDemo(at.app, once)).toBe(false);
  });
});

describe('files', () => {
  it('are known by their content and kept once', async () => {
    const png = writePng(new Uint8Array(16), 2, 2);
    const hash = await at.app.files.keep(png);
    expect(await at.app.files.keep(png)).toBe(hash);
    expect(await at.app.files.read(hash)).toEqual({ bytes: Buffer.from(png), mime: 'image/png' });
    expect(await at.app.files.find(hash)).toMatchObject({ width: 2, height: 2, bytes: png.length });
    expect((await refusal(at.app.files.keep(Buffer.from('<svg onload=alert(1)>')))).message).toMatch(/only PNG, JPEG/);
    for (const bad of ['../../etc/passwd', 'a'.repeat(64)]) expect((await refusal(at.app.files.read(bad))).code).toBe('asset.missing');
  });
});

describe('exports', () => {
  it('draw a page as PNG at the proportion of its paper, and a thumbnail', async () => {
    const { project, assets } = await once();
    for (const asset of assets) await at.app.files.keep(asset.bytes);
    await at.app.projects.create(project);
    const board = boardOf(project, null);
    const page = await sharp(await exportPng(project, board, null, at.folder, undefined, 840)).metadata();
    expect([page.width, page.height]).toEqual([840, 594]);
    expect(() => boardOf(project, 'none')).toThrow(DomainError);
    expect((await sharp(await thumbnail(project, at.folder)).metadata()).width).toBe(560);
    // A project without a picture shows its plan: dark walls on white.
    const plain = await sharp(await thumbnail({ ...project, pictures: {}, boards: {} }, at.folder))
      .greyscale()
      .stats();
    expect(plain.channels[0].min).toBeLessThan(80);
    expect(plain.channels[0].mean).toBeGreaterThan(200);
  });
});

describe('a picture whose file is gone', () => {
  it('is named where something is made of it, and left out of a card', async () => {
    await seedDemo(at.app, once);
    const [{ id }] = await at.app.projects.list();
    const { project } = await at.app.projects.load(id);
    for (const { image, radiance } of Object.values(project.pictures))
      for (const hash of [image, radiance]) await rm(filePlace(at.folder, hash), { force: true });
    for (const kind of ['file', 'pdf', 'png']) {
      const error = await refusal(makeExport(at.app, id, { kind, board: null, page: null }));
      expect([kind, error.code]).toEqual([kind, 'asset.missing']);
      expect(error.message).toMatch(/^Nothing was made: a picture of the project is not here any more \([0-9a-f]{8}…\)\.$/);
    }
    expect((await sharp(await thumbnail(project, at.folder)).metadata()).width).toBe(560);
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
