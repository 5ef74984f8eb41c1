import { mkdtemp, readFile, rm, stat, writeFile } from 'node:fs/promises';
import os from 'node:os';
import path from 'node:path';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { heronLockCottage } from '@/core/demo/heron-lock';
import { writePng } from '@/core/formats/png';
import { DomainError } from '@/core/project/errors';
import { Errands, type Errand } from './errands';
import type { Progress } from './tasks';
import { Workers, type WorkOptions } from './workers';

let folder: string;
let workers: Workers;
beforeAll(async () => {
  folder = await mkdtemp(path.join(os.tmpdir(), 'enstegon-work-'));
  await writeFile(path.join(folder, 'house.json'), JSON.stringify(heronLockCottage()));
  await writeFile(path.join(folder, 'room.json'), /```json\n([\s\S]*?)```/.exec(await readFile('docs/project-file.md', 'utf8'))![1]);
  await writeFile(path.join(folder, 'ok.png'), writePng(new Uint8Array(16), 2, 2));
  await writeFile(path.join(folder, 'bad.png'), writePng(new Uint8Array(16), 2, 2).subarray(0, 40));
});
afterEach(() => workers.close());
afterAll(() => rm(folder, { recursive: true, force: true }));

const at = (name: string): string => path.join(folder, name);
const picture = (name = 'ok.png') => workers.run('picture', { file: at(name), out: at('plain') });
const glb = (options?: WorkOptions) => workers.run('glb', { project: at('house.json'), folder, out: at('house.glb') }, options);
const code = (work: Promise<unknown>): Promise<string> =>
  work.then(
    () => 'done',
    (e: unknown) => (e instanceof DomainError ? e.code : String(e)),
  );
const ROOMY = { seconds: 120, megabytes: 3000 };

describe('work in a process of its own', () => {
  it('gives back what came of it, or the refusal with its code', async () => {
    workers = new Workers();
    expect(await picture()).toMatchObject({ width: 2, height: 2, mime: 'image/png' });
    expect(await code(picture('bad.png'))).toBe('asset.damaged');
    expect(await picture()).toMatchObject({ width: 2 });
  });

  it('tells how far it has come, in order, to the end', async () => {
    workers = new Workers();
    const told: Progress[] = [];
    await workers.run('glb', { project: at('room.json'), folder, out: at('house.glb') }, { onProgress: (progress) => told.push(progress) });
    expect(told.length).toBeGreaterThan(15);
    expect(told.map((p) => p.share)).toEqual(told.map((p) => p.share).sort((a, b) => a - b));
    expect(told.at(-1)!.share).toBeGreaterThan(0.9);
    expect((await stat(at('house.glb'))).size).toBeGreaterThan(1e5);
  });

  it('is stopped when it takes too long, and the next piece of work is not harmed', async () => {
    workers = new Workers({ short: ROOMY, long: { seconds: 1.5, megabytes: 3000 } });
    expect(await code(glb())).toBe('work.time');
    expect(await code(glb())).toBe('work.time');
    expect(await picture()).toMatchObject({ width: 2 });
  });

  it('is stopped when it takes too much memory', async () => {
    workers = new Workers({ short: ROOMY, long: { seconds: 120, megabytes: 150 } });
    expect(await code(glb())).toMatch(/^work\.(memory|died)$/);
    expect(await picture()).toMatchObject({ width: 2 });
  });

  it('is cancelled while it runs and while it waits, and what waits behind goes on', async () => {
    workers = new Workers();
    const [running, waiting] = [new AbortController(), new AbortController()];
    const first = code(glb({ signal: running.signal }));
    const second = code(glb({ signal: waiting.signal }));
    const third = code(workers.run('file', { project: at('house.json'), folder, out: at('house.zip'), damaged: false }));
    await new Promise((done) => setTimeout(done, 300));
    waiting.abort();
    running.abort();
    expect([await first, await second, await third]).toEqual(['work.cancelled', 'work.cancelled', 'done']);
    const over = new AbortController();
    over.abort();
    expect(await code(glb({ signal: over.signal }))).toBe('work.cancelled');
  });

  it('on the short lane goes past work on the long one', async () => {
    workers = new Workers();
    const abort = new AbortController();
    let done = false;
    const long = code(glb({ signal: abort.signal })).finally(() => (done = true));
    expect(await picture()).toMatchObject({ width: 2 });
    expect(done).toBe(false);
    abort.abort();
    expect(await long).toBe('work.cancelled');
  });
});

describe('errands', () => {
  const settled = async (errands: Errands, id: string): Promise<Errand> => {
    for (;;) {
      const errand = errands.look(id);
      if (errand.state !== 'running') return errand;
      await new Promise((done) => setTimeout(done, 5));
    }
  };

  it('say how far they are, what is left, and give their file once', async () => {
    workers = new Workers();
    const errands = new Errands();
    let go!: () => void;
    const gate = new Promise<void>((done) => (go = done));
    let tell!: (progress: Progress) => void;
    const { id, state } = errands.begin('Work', async (_, onProgress) => {
      tell = onProgress;
      await gate;
      return { file: at('ok.png'), headers: { 'content-type': 'image/png' }, name: 'x.png' };
    });
    expect(state).toBe('running');
    tell({ share: 0.01, at: 'Beginning' });
    expect(errands.look(id)).toMatchObject({ share: 0.01, at: 'Beginning', left: null });
    await new Promise((done) => setTimeout(done, 600));
    tell({ share: 0.5, at: 'Half' });
    // As long again as it took until now.
    expect(errands.look(id).left).toBe(1);
    expect(() => errands.take(id)).toThrow(/no file/);
    go();
    expect(await settled(errands, id)).toMatchObject({ state: 'done', share: 1, result: { file: true, name: 'x.png' } });
    expect(errands.take(id).file).toBe(at('ok.png'));
    expect(() => errands.take(id)).toThrow(/no file/);
  });

  it('end in a sentence, whatever went wrong', async () => {
    workers = new Workers();
    const errands = new Errands();
    const log = console.error;
    console.error = () => undefined;
    const refused = errands.begin('Work', () => Promise.reject(new DomainError('x', 'It was refused.')));
    const failed = errands.begin('Work', () => Promise.reject(new Error('secret path')));
    expect(await settled(errands, refused.id)).toMatchObject({ state: 'failed', message: 'It was refused.' });
    expect((await settled(errands, failed.id)).message).not.toContain('secret');
    console.error = log;
    const cut = errands.begin(
      'Work',
      (signal) => new Promise((_, reject) => signal.addEventListener('abort', () => reject(new DomainError('work.cancelled', 'Cancelled.')))),
    );
    errands.cancel(cut.id);
    expect(await settled(errands, cut.id)).toMatchObject({ state: 'cancelled' });
    errands.cancel(cut.id);
    for (const id of [cut.id, '__proto__', 'none']) expect(() => errands.look(id)).toThrow(/not known any more/);
  });
});
