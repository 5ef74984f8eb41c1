import { execFile } from 'node:child_process';
import { createHash } from 'node:crypto';
import { mkdir, mkdtemp, open, readFile, rename, rm, stat, writeFile } from 'node:fs/promises';
import os from 'node:os';
import path from 'node:path';
import { promisify } from 'node:util';
import { Tally } from './tally';
import { jsonOf, Target } from './target';

const run = promisify(execFile);

const rename1 = (base: number, name: string) => ({
  base,
  changes: [{ id: `disk${name.padStart(8, '0')}`, kind: 'do', command: 'project.rename', args: { name } }],
});

/** Disks that are full, can't be written, or are gone; a database that is damaged. */
export async function disks(port: number): Promise<Tally> {
  const tally = new Tally('full, locked and damaged disks');
  const folder = await mkdtemp(path.join(os.tmpdir(), 'enstegon-disk-'));
  const mounted = await run('mount', ['-t', 'tmpfs', '-o', 'size=12m', 'tmpfs', folder]).then(
    () => true,
    () => false,
  );
  if (!mounted) tally.notes.push('no small file system could be mounted: the full disk and the read-only one were not tried');
  const target = new Target(folder, port);
  try {
    await target.start();
    const id = await target.newProject('Disk');
    let seq = 0;
    const edit = async (name: string, status: number, sentence: RegExp, what: string): Promise<void> => {
      const answer = tally.count(await target.json(`/api/projects/${id}/changes`, rename1(seq, name)), what);
      tally.hold(answer.status === status && sentence.test(answer.body.toString()), `${what}: ${answer.status} ${answer.body.toString().slice(0, 160)}`);
      if (answer.status === 200) seq = jsonOf<{ seq: number }>(answer)!.seq;
    };
    await edit('1', 200, /"ok":true/, 'an edit');
    if (mounted) {
      const filler = path.join(folder, 'filler');
      const handle = await open(filler, 'w');
      const block = Buffer.alloc(64 * 1024);
      for (;;) if (!(await handle.write(block).catch(() => null))) break;
      await handle.close();
      // Not each edit needs a new page: some are kept on a full disk, which is right; in the end there is no room.
      let full = false;
      for (let i = 0; i < 300 && !full; i++) {
        const answer = tally.count(await target.json(`/api/projects/${id}/changes`, rename1(seq, `f${i}`)), 'an edit on a full disk');
        if (answer.status === 200) seq = jsonOf<{ seq: number }>(answer)!.seq;
        full = answer.status === 507 && /The disk is full/.test(answer.body.toString());
      }
      tally.hold(full, 'a full disk is called so');
      const state = jsonOf<{ seq: number }>(tally.count(await target.ask(`/api/projects/${id}`), 'reading on a full disk'));
      tally.hold(state?.seq === seq, 'all that was acknowledged is there on a full disk');
      const upload = tally.count(await target.bytes('/api/assets', new Uint8Array(3_000_000)), 'a picture on a full disk');
      tally.hold(upload.status === 507, `a picture on a full disk: ${upload.status}`);
      // Killed and started while it is full, it is there again when there is room.
      await target.stop('SIGKILL');
      await target.start();
      tally.count(await target.ask('/api/projects'), 'started on a full disk');
      await rm(filler);
      await new Promise((done) => setTimeout(done, 1800));
      await edit('2', 200, /"ok":true/, 'an edit when there is room again');

      await target.stop();
      await run('mount', ['-o', 'remount,ro', folder]);
      await target.start();
      tally.hold(/data folder can’t be written/.test(target.said), 'a read-only folder is said at start');
      const refused = tally.count(await target.ask('/api/projects'), 'started in a read-only folder');
      tally.hold(refused.status === 503 && /can’t be written/.test(refused.body.toString()), 'a read-only folder is called so');
      await run('mount', ['-o', 'remount,rw', folder]);
      await new Promise((done) => setTimeout(done, 1800));
      await edit('4', 200, /"ok":true/, 'an edit when it can be written again');
    }
    const acknowledged = seq;
    await target.stop();

    // Another name in place of the database, then back.
    const database = path.join(folder, 'enstegon.sqlite');
    await rename(database, `${database}.away`);
    await target.start();
    const gone = tally.count(await target.ask('/api/projects'), 'a database that is gone');
    tally.hold(
      gone.status === 503 && /can’t be opened/.test(gone.body.toString()),
      `a database that is gone: ${gone.status} ${gone.body.toString().slice(0, 120)}`,
    );
    await rename(`${database}.away`, database);
    await new Promise((done) => setTimeout(done, 1800));
    tally.hold((await target.ask('/api/projects')).status === 200, 'it goes on by itself when the database is back');
    await target.stop();

    const handle = await open(database, 'r+');
    const { size } = await stat(database);
    await handle.write(Buffer.alloc(4096, 0x5a), 0, 4096, 0);
    if (size > 4096 * 30) await handle.write(Buffer.alloc(2048, 0x5a), 0, 2048, 4096 * 25);
    await handle.close();
    const before = createHash('sha256')
      .update(await readFile(database))
      .digest('hex');
    await target.start();
    for (let i = 0; i < 3; i++) {
      const answer = tally.count(await target.json(`/api/projects/${id}/changes`, rename1(seq, `d${i}`)), 'a damaged database');
      tally.hold(answer.status === 503 && /The database is damaged/.test(answer.body.toString()), `a damaged database: ${answer.status}`);
    }
    await target.stop();
    const after = createHash('sha256')
      .update(await readFile(database))
      .digest('hex');
    tally.hold(before === after, 'a damaged database is never written on');
    const { stdout } = await run('npx', ['tsx', 'src/cli/main.ts', 'repair'], { env: { ...process.env, ENSTEGON_DATA: folder } });
    tally.hold(/^Rebuilt: /.test(stdout), stdout.trim());
    await target.start();
    const state = jsonOf<{ seq: number }>(tally.count(await target.ask(`/api/projects/${id}`), 'after repair'));
    tally.hold(state?.seq === acknowledged, `after repair all is there (${state?.seq} of ${acknowledged})`);
    await edit('5', 200, /"ok":true/, 'an edit after repair');
    // Half of an upload that a kill left behind is swept.
    await target.stop('SIGKILL');
    await mkdir(path.join(folder, 'passing'), { recursive: true });
    await writeFile(path.join(folder, 'passing', 'half'), 'half');
    await target.start();
    tally.hold(!(await stat(path.join(folder, 'passing', 'half')).catch(() => null)), 'what was on its way is swept at start');
  } finally {
    await target.stop();
    if (mounted) await run('umount', [folder]).catch(() => undefined);
    await rm(folder, { recursive: true, force: true });
  }
  return tally;
}
