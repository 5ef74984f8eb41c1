import { describe, expect, it } from 'vitest';
import { heronLockCottage } from '@/core/demo/heron-lock';
import { edit } from '@/core/testing/drafting';
import { ResidentModel } from '@/core/resident/resident';
import { ModelWork, Superseded, type Service } from './model';

/** The worker as a page sees it: every call takes a turn, in order, and only data passes. */
function remote(): { service: Service; asked: string[]; told: number[]; resident: { now: ResidentModel } } {
  const resident = { now: new ResidentModel() };
  const [asked, told]: [string[], number[]] = [[], []];
  let queue: Promise<unknown> = Promise.resolve();
  const turn = <T>(work: () => T): Promise<T> => {
    const next = queue.then(() => new Promise((done) => setTimeout(done, 3))).then(work);
    queue = next.catch(() => undefined);
    return next;
  };
  const service = {
    follow: (from: number, to: number, delta: Parameters<ResidentModel['follow']>[2]) =>
      turn(() => {
        told.push(JSON.stringify(delta).length);
        return resident.now.follow(from, to, structuredClone(delta));
      }),
    rows: (list: string, phase: 'after') =>
      turn(() => {
        asked.push(list);
        return resident.now.rows(list, phase);
      }),
    findings: (phase: 'after') => turn(() => resident.now.findings(phase)),
    compare: (a: string, b: string) => turn(() => resident.now.compare(a, b)),
  };
  return { service: service as unknown as Service, asked, told, resident };
}

const demo = heronLockCottage();
const names = (rows: object[]): string[] => (rows as { name: string }[]).map((r) => r.name);

describe('asking the resident model', () => {
  it('tells it the whole once, then what changes', async () => {
    const { service, told } = remote();
    const work = new ModelWork(service);
    await work.ask('rows', demo, (s) => s.rows('rooms', 'after'));
    const room = Object.keys(demo.rooms)[0];
    const next = edit(demo, 'room.set', { room, set: { name: 'Snug' } });
    expect(names(await work.ask('rows', next, (s) => s.rows('rooms', 'after')))).toContain('Snug');
    await work.ask('findings', next, (s) => s.findings('after'));
    expect(told).toHaveLength(2);
    expect(told[1]).toBeLessThan(told[0] / 50);
  });

  it('of many questions of a kind asks the first and the last; each kind has its own line', async () => {
    const { service, asked } = remote();
    const work = new ModelWork(service);
    const room = Object.keys(demo.rooms)[0];
    const states = Array.from({ length: 8 }, (_, i) => edit(demo, 'room.set', { room, set: { name: `Name ${i}` } }));
    const all = states.map((p) => work.ask('rows', p, (s) => s.rows('rooms', 'after')));
    const beside = work.ask('findings', states[0], (s) => s.findings('after'));
    const results = await Promise.allSettled(all);
    expect(results.map((r) => r.status)).toEqual(['fulfilled', ...Array.from({ length: 6 }, () => 'rejected'), 'fulfilled']);
    for (const r of results) if (r.status === 'rejected') expect(r.reason).toBeInstanceOf(Superseded);
    expect(names((results[7] as PromiseFulfilledResult<object[]>).value)).toContain('Name 7');
    expect(asked).toEqual(['rooms', 'rooms']);
    expect((await beside).length).toBeGreaterThan(0);
  });

  it('answers each question about its own state, though they come by turns', async () => {
    const { service } = remote();
    const work = new ModelWork(service);
    const room = Object.keys(demo.rooms)[0];
    const [a, b] = ['One', 'Two'].map((name) => edit(demo, 'room.set', { room, set: { name } }));
    const [first, second] = await Promise.all([work.ask('left', a, (s) => s.rows('rooms', 'after')), work.ask('right', b, (s) => s.rows('rooms', 'after'))]);
    expect([names(first).includes('One'), names(second).includes('Two')]).toEqual([true, true]);
  });

  it('tells it everything anew where it has been started again', async () => {
    const { service, resident, told } = remote();
    const work = new ModelWork(service);
    await work.ask('rows', demo, (s) => s.rows('rooms', 'after'));
    resident.now = new ResidentModel();
    const next = edit(demo, 'project.rename', { name: 'Other' });
    expect((await work.ask('rows', next, (s) => s.rows('rooms', 'after'))).length).toBeGreaterThan(5);
    expect(told).toHaveLength(3);
  });

  it('fails in a sentence, instead of waiting for ever, where the worker could not be loaded or breaks down', async () => {
    const silent = new Promise<never>(() => undefined);
    const never = { follow: () => silent, rows: () => silent, compare: () => silent, findings: () => silent } as unknown as Service;
    let breaks: (why: Error) => void = () => undefined;
    const broken = new Promise<never>((_, reject) => (breaks = reject));
    broken.catch(() => undefined);
    const work = new ModelWork(never, broken);
    const asked = [work.ask('rows', demo, (s) => s.rows('rooms', 'after')), work.ask('findings', demo, (s) => s.findings('after'))];
    breaks(new Error('Nothing was counted.'));
    const later = work.ask('compare', demo, (s) => s.compare('one', 'two'));
    for (const result of await Promise.allSettled([...asked, later]))
      expect(result).toMatchObject({ status: 'rejected', reason: { message: 'Nothing was counted.' } });
  });
});
