import { readFileSync } from 'node:fs';
import { gunzipSync } from 'node:zlib';
import { mkdtemp, rm } from 'node:fs/promises';
import os from 'node:os';
import path from 'node:path';
import sqlite3 from 'sqlite3';
import { FORMAT_VERSION } from '../src/core/project/schema';
import { pack } from '../src/server/store/packing';
import { Tally } from './tally';
import { jsonOf, Target } from './target';

/** Runs one statement on the database of a stopped server. */
const statement = (folder: string, sql: string, values: unknown[]): Promise<void> =>
  new Promise((resolve, reject) => {
    const db = new sqlite3.Database(path.join(folder, 'enstegon.sqlite'));
    db.run(sql, values, (error) => db.close(() => (error ? reject(error) : resolve())));
  });

/** The demo as version 4 wrote it. */
const earlier = JSON.parse(gunzipSync(readFileSync('src/core/testing/earlier/heron-lock-4.json.gz')).toString()) as object;

/** A project that an earlier version kept, asked for ten times at once and killed meanwhile; a damaged one beside it. */
export async function old(port: number): Promise<Tally> {
  const tally = new Tally('old and damaged projects');
  const folder = await mkdtemp(path.join(os.tmpdir(), 'enstegon-old-'));
  const target = new Target(folder, port);
  try {
    await target.start();
    const [elder, damaged, sound] = [await target.newProject('Elder'), await target.newProject('Damaged'), await target.newProject('Sound')];
    await target.stop();
    const before = pack({ ...earlier, id: elder, name: 'Elder' });
    for (let round = 0; round < 3; round++) {
      await statement(folder, 'UPDATE snapshots SET data = ? WHERE projectId = ?', [before, elder]);
      await statement(folder, 'UPDATE snapshots SET data = ? WHERE projectId = ?', [Buffer.from('no state'), damaged]);
      await statement(folder, 'UPDATE projects SET card = NULL', []);
      await target.start();
      const answers = await Promise.all(Array.from({ length: 10 }, () => target.ask(`/api/projects/${elder}`)));
      const bodies = new Set(answers.map((a) => a.body.toString()));
      tally.hold(answers.every((a) => a.status === 200) && bodies.size === 1, `ten reads of an old project at once: ${answers.map((a) => a.status).join(' ')}`);
      tally.hold(jsonOf<{ project: { version: number } }>(answers[0])?.project.version === FORMAT_VERSION, 'it is brought up to date');
      const list = jsonOf<{ id: string; damaged: string | null }[]>(tally.count(await target.ask('/api/projects'), 'the list'));
      tally.hold(
        list?.find((p) => p.id === damaged)?.damaged?.startsWith('This project can’t be opened') === true,
        'a damaged project is listed with its reason',
      );
      tally.hold(list?.find((p) => p.id === sound)?.damaged === null && list?.find((p) => p.id === elder)?.damaged === null, 'the others are as they were');
      await target.stop();
      // Killed while it is brought up to date, it is there all the same.
      await statement(folder, 'UPDATE snapshots SET data = ? WHERE projectId = ?', [before, elder]);
      await target.start();
      const asked = target.ask(`/api/projects/${elder}`);
      await new Promise((done) => setTimeout(done, 5 + round * 40));
      await target.stop('SIGKILL');
      await asked;
      await target.start();
      tally.hold((await target.ask(`/api/projects/${elder}`)).status === 200, 'killed while it was brought up to date, it is still there');
      await target.stop();
    }
  } finally {
    await target.stop();
    await rm(folder, { recursive: true, force: true });
  }
  return tally;
}
