import { stat } from 'node:fs/promises';
import fc from 'fast-check';
import { QueryTypes } from 'sequelize';
import { describe, expect, it } from 'vitest';
import { heronLockCottage } from '@/core/demo/heron-lock';
import { writePng } from '@/core/formats/png';
import { KEPT_DAYS, SNAPSHOT_EVERY } from '../config';
import { deletedProjects } from '../cards';
import { places } from './folder';
import { pack, unpack } from './packing';
import { change, freshApp, refusal, rename } from './testing';
import { thinned } from './thinning';
import { upkeep } from './upkeep';

const at = freshApp();
const days = (n: number): Date => new Date(Date.now() + n * 24 * 60 * 60 * 1000);
const picture = (shade: number): Uint8Array => writePng(new Uint8Array(16).fill(shade), 2, 2);

describe('thinning', () => {
  it('leaves so many snapshots as the log has doublings, the first and the newest among them', () => {
    let kept: number[] = [0];
    for (let seq = SNAPSHOT_EVERY; seq <= 20000; seq += SNAPSHOT_EVERY) {
      kept.push(seq);
      const gone = new Set(thinned(kept));
      kept = kept.filter((s) => !gone.has(s));
      expect(kept).toContain(0);
      expect(kept).toContain(seq);
      expect(kept.length).toBeLessThanOrEqual(Math.log2(seq / SNAPSHOT_EVERY) + 4);
    }
  });

  it('lets any past state be replayed from one not much further back than it is old', () => {
    fc.assert(
      fc.property(fc.integer({ min: 2, max: 600 }), fc.integer({ min: 0, max: 1000 }), (steps, share) => {
        let kept: number[] = [0];
        for (let i = 1; i <= steps; i++) {
          kept.push(i * SNAPSHOT_EVERY);
          const gone = new Set(thinned(kept));
          kept = kept.filter((s) => !gone.has(s));
        }
        const newest = steps * SNAPSHOT_EVERY;
        const past = Math.round((newest * share) / 1000);
        const from = Math.max(...kept.filter((s) => s <= past));
        expect(past - from).toBeLessThanOrEqual(3 * (newest - past) + 2 * SNAPSHOT_EVERY);
      }),
    );
  });
});

describe('packed records', () => {
  it('come back as they were', () => {
    fc.assert(
      fc.property(fc.jsonValue(), (value) => {
        const plain = JSON.parse(JSON.stringify(value)) as unknown;
        expect(unpack(pack(plain))).toEqual(plain);
      }),
    );
  });

  it('take a fraction of their text', () => {
    const project = heronLockCottage();
    expect(pack(project).length).toBeLessThan(JSON.stringify(project).length / 6);
  });
});

describe('upkeep', () => {
  it('takes away what was deleted long enough ago, and nothing before', async () => {
    const { app } = at;
    const id = await app.projects.createEmpty('P', 'metric');
    const stays = await app.projects.createEmpty('Q', 'metric');
    await app.projects.append(id, 0, [rename('R')]);
    await app.projects.setDeleted(id, true);
    const [{ until }] = await deletedProjects(app);
    expect(Math.round((new Date(until).getTime() - Date.now()) / 864e5)).toBe(KEPT_DAYS);
    expect(await upkeep(app, days(KEPT_DAYS - 0.5))).toMatchObject({ projects: 0 });
    await app.projects.setDeleted(id, false);
    expect((await app.projects.load(id)).project.name).toBe('R');
    await app.projects.setDeleted(id, true);
    expect(await upkeep(app, days(KEPT_DAYS + 0.5))).toMatchObject({ projects: 1 });
    expect((await refusal(app.projects.setDeleted(id, false))).code).toBe('project.missing');
    expect([await app.db.changes.count({ where: { projectId: id } }), await app.db.snapshots.count({ where: { projectId: id } })]).toEqual([0, 0]);
    expect((await app.projects.load(stays)).project.name).toBe('Q');
  });

  it('keeps every file that some state of a project needs, and lets the others go after as long', async () => {
    const { app } = at;
    const id = await app.projects.createEmpty('P', 'metric');
    const [used, undone, loose] = await Promise.all([picture(1), picture(2), picture(3)].map((bytes) => app.files.keep(bytes)));
    const add = (key: string, hash: string) =>
      change('picture.add', { id: key, name: key, viewpoint: null, width: 16, height: 16, samples: 1, exposure: 1, radiance: hash, image: hash, made: 'now' });
    await app.projects.append(id, 0, [add('picture-a', used), add('picture-b', undone), change('delete', { ids: ['picture-b'] })]);
    expect(await upkeep(app, days(KEPT_DAYS - 1))).toMatchObject({ files: 0 });
    expect(await upkeep(app, days(KEPT_DAYS + 1))).toMatchObject({ files: 1 });
    // What was taken off the project can be taken back with its picture.
    for (const hash of [used, undone]) await app.files.read(hash);
    expect((await refusal(app.files.read(loose))).code).toBe('asset.missing');
    expect(await app.files.has(loose)).toBe(false);
    // With the project its files go.
    await app.projects.setDeleted(id, true);
    expect(await upkeep(app, days(KEPT_DAYS + 2))).toMatchObject({ projects: 1, files: 2 });
  });

  it('gives space back to the disk', async () => {
    const { app } = at;
    const { id, ...rest } = heronLockCottage();
    for (let i = 0; i < 12; i++) await app.projects.create({ ...rest, id: `${id}-${i}` });
    await app.db.sequelize.query('PRAGMA wal_checkpoint(TRUNCATE)');
    const before = (await stat(places(at.folder).database)).size;
    for (let i = 1; i < 12; i++) await app.projects.setDeleted(`${id}-${i}`, true);
    const { pages } = await upkeep(app, days(KEPT_DAYS + 1));
    const after = (await stat(places(at.folder).database)).size;
    expect(pages).toBeGreaterThan(20);
    expect(before - after).toBe(pages * 4096);
    expect((await app.db.sequelize.query<{ n: number }>('SELECT count(*) AS n FROM projects', { type: QueryTypes.SELECT }))[0].n).toBe(1);
  });
});
