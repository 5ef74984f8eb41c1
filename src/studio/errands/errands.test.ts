import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { leftOf, useErrands } from './errands';

/** What the server says of an errand, one answer after another; the last one stays. */
let answers: object[] = [];
const asked: string[] = [];
const links: { href: string; download: string }[] = [];
const errand = (over: object) => ({
  id: 'e1',
  title: 'Model as GLB',
  state: 'running',
  share: 0,
  at: 'Waiting',
  left: null,
  message: null,
  result: null,
  ...over,
});

beforeEach(() => {
  vi.useFakeTimers();
  [asked.length, links.length] = [0, 0];
  vi.stubGlobal('fetch', (url: string, init?: RequestInit) => {
    asked.push(`${init?.method ?? 'GET'} ${url}`);
    if (init?.method === 'DELETE') return Promise.resolve(new Response(null, { status: 204 }));
    const next = answers.length > 1 ? answers.shift()! : answers[0];
    return Promise.resolve(Response.json(next, { status: (next as { status?: number }).status ?? 200 }));
  });
  vi.stubGlobal('document', {
    createElement: () => {
      const link = { href: '', download: '', click: () => void links.push({ href: link.href, download: link.download }) };
      return link;
    },
  });
  useErrands.setState({ running: [] });
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

const begin = () => Promise.resolve(errand({}) as never);

describe('an errand that is followed', () => {
  it('is shown while it runs, and its file is fetched when it is made', async () => {
    answers = [errand({ share: 0.4, at: 'Writing', left: 6 }), errand({ state: 'done', share: 1, result: { file: true, name: 'House.glb' } })];
    const failed: string[] = [];
    const done = useErrands.getState().follow(begin, (m) => failed.push(m));
    await vi.advanceTimersByTimeAsync(150);
    expect(useErrands.getState().running).toMatchObject([{ share: 0.4, at: 'Writing', left: 6 }]);
    await vi.advanceTimersByTimeAsync(1000);
    await done;
    expect(useErrands.getState().running).toEqual([]);
    expect(links).toEqual([{ href: '/api/errands/e1/file', download: 'House.glb' }]);
    expect(failed).toEqual([]);
  });

  it('leads to the project that came of it', async () => {
    answers = [errand({ state: 'done', result: { project: 'p-1' } })];
    const made: string[] = [];
    const done = useErrands.getState().follow(
      begin,
      () => undefined,
      (id) => made.push(id),
    );
    await vi.advanceTimersByTimeAsync(1000);
    await done;
    expect([made, links]).toEqual([['p-1'], []]);
  });

  it('says why it came to nothing, and nothing where it was cancelled', async () => {
    const failed: string[] = [];
    const follow = async (last: object): Promise<void> => {
      answers = [last];
      const done = useErrands.getState().follow(begin, (m) => failed.push(m));
      await vi.advanceTimersByTimeAsync(1000);
      await done;
    };
    await follow(errand({ state: 'failed', message: 'It took too long.' }));
    await follow(errand({ state: 'cancelled' }));
    await follow({ status: 404, message: 'This work is not known any more; start it again.' });
    expect(failed).toEqual(['Model as GLB: It took too long.', 'This work is not known any more; start it again.']);
    // Also where it could not even be begun.
    await useErrands.getState().follow(
      () => Promise.reject(new Error('x')),
      (m) => failed.push(m),
    );
    expect(failed[2]).toMatch(/unexpected/);
    expect(useErrands.getState().running).toEqual([]);
  });

  it('is cancelled by a word to the server, and shows that it is stopping', async () => {
    answers = [errand({ share: 0.2, at: 'Writing' }), errand({ share: 0.2, at: 'Writing' }), errand({ state: 'cancelled' })];
    const done = useErrands.getState().follow(begin, () => undefined);
    await vi.advanceTimersByTimeAsync(130);
    useErrands.getState().cancel('e1');
    expect(useErrands.getState().running[0].at).toBe('Stopping');
    expect(asked).toContain('DELETE /api/errands/e1');
    await vi.advanceTimersByTimeAsync(2000);
    await done;
    expect(useErrands.getState().running).toEqual([]);
  });

  it('is asked after often at first and more seldom later', async () => {
    answers = [errand({ share: 0.1, at: 'Writing' })];
    void useErrands.getState().follow(begin, () => undefined);
    await vi.advanceTimersByTimeAsync(1000);
    const soon = asked.length;
    await vi.advanceTimersByTimeAsync(60_000);
    const later = asked.length;
    expect(soon).toBeGreaterThan(3);
    expect((later - soon) / 60).toBeLessThan(1.3);
  });
});

describe('work of this window', () => {
  it('is shown while it lasts, with what it is at, and gone when it is done or fails', async () => {
    let finish: (value: string) => void = () => undefined;
    const done = useErrands.getState().carry('plan.pdf', (_, tell) => {
      tell('Keeping');
      return new Promise<string>((resolve) => (finish = resolve));
    });
    expect(useErrands.getState().running).toMatchObject([{ title: 'plan.pdf', at: 'Keeping', left: null }]);
    finish('made');
    expect(await done).toBe('made');
    expect(useErrands.getState().running).toEqual([]);
    await expect(useErrands.getState().carry('x', () => Promise.reject(new Error('broken')))).rejects.toThrow('broken');
    expect(useErrands.getState().running).toEqual([]);
  });

  it('is stopped at once: nothing comes of it, whether it heeds the signal or not', async () => {
    const heard: boolean[] = [];
    const heeding = useErrands
      .getState()
      .carry('a', (signal) => new Promise((_, reject) => signal.addEventListener('abort', () => reject(new Error('aborted')))));
    const deaf = useErrands.getState().carry('b', (signal) => {
      signal.addEventListener('abort', () => heard.push(true));
      return new Promise(() => undefined);
    });
    for (const { id } of useErrands.getState().running) useErrands.getState().cancel(id);
    expect([await heeding, await deaf]).toEqual([null, null]);
    expect([heard, asked, useErrands.getState().running]).toEqual([[true], [], []]);
  });
});

it('what is left is said in round words', () => {
  expect(leftOf({ left: null, at: 'Waiting' })).toBe('Waiting');
  expect(leftOf({ left: 0.4, at: 'Packing' })).toBe('Packing, a moment left');
  expect(leftOf({ left: 14, at: 'Writing' })).toBe('Writing, about 14 s left');
  expect(leftOf({ left: 200, at: 'Writing' })).toBe('Writing, about 3 min left');
});
