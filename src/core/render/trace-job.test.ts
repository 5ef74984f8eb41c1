import { describe, expect, it } from 'vitest';
import type { Exposed } from './film';
import { TraceJob, type Cleaner, type TraceHand, type TraceProgress } from './trace-job';
import { unexposed } from './testing';

const SIZE = { width: 4, height: 2 };
const stamp = { project: 'p', scheme: 's', name: 'Kitchen', viewpoint: 'v' };

/** Hands whose passes take a second of a clock that goes by itself, each pass as bright as its number. */
function hands(count: number, clean: Cleaner['clean'] = (radiance) => Promise.resolve(radiance)) {
  const time = { now: 0 };
  const numbers: number[] = [];
  const asked = { passes: 0, at: [] as number[] };
  const list = Array.from({ length: count }, (_, i): TraceHand => {
    const n = SIZE.width * SIZE.height;
    const own = unexposed(SIZE);
    return {
      prepare: () => Promise.resolve([{ name: 'Sun', kelvin: 5300 }]),
      pass: async (number) => {
        numbers.push(number);
        await Promise.resolve();
        asked.passes++;
        time.now += 1 / count;
        for (let k = 0; k < n * 4; k++) own.light[k] += asked.passes;
        own.guides.forEach((_, k) => (own.guides[k] += i));
        own.counts.forEach((_, k) => own.counts[k]++);
      },
      exposed: () => {
        asked.at.push(asked.passes);
        return Promise.resolve(structuredClone(own));
      },
    };
  });
  return { list, time, numbers, asked, cleaner: { clean } };
}

describe('a picture traced by several hands', () => {
  it('has the mean of all their passes, as many as were asked for', async () => {
    for (const count of [1, 2, 5]) {
      const { list, time, cleaner, numbers, asked } = hands(count);
      const told: TraceProgress[] = [];
      const made = await new TraceJob(
        stamp,
        list,
        cleaner,
        { ...SIZE, samples: 12 },
        (p) => told.push(p),
        () => time.now,
      ).run();
      expect([asked.passes, made!.samples]).toEqual([12, 12]);
      // 1 to 12, on average.
      for (const v of made!.radiance) expect(v).toBeCloseTo(6.5, 5);
      // No sample is traced twice, whoever traces it.
      expect(numbers.toSorted((a, b) => a - b)).toEqual(Array.from({ length: 12 }, (_, i) => i));
      expect(told.map((p) => p.phase).filter((p, i, all) => p !== all[i - 1])).toEqual(['preparing', 'tracing', 'cleaning', 'parting', 'done']);
      expect(told.filter((p) => p.phase === 'tracing').at(-1)!.samples).toBe(12);
    }
  });

  it('is repainted more and more seldom, and says how long it will still take', async () => {
    const { list, time, cleaner, asked } = hands(1);
    const told: TraceProgress[] = [];
    await new TraceJob(
      stamp,
      list,
      cleaner,
      { ...SIZE, samples: 64 },
      (p) => told.push(p),
      () => time.now,
    ).run();
    // Sums are only brought together to be shown, and once at the end.
    const painted = asked.at.slice(0, -1);
    expect(painted[0]).toBe(1);
    expect(painted.length).toBeLessThan(22);
    const gaps = painted.slice(1).map((n, i) => n - painted[i]);
    expect(gaps.every((g, i) => i === 0 || g >= gaps[i - 1])).toBe(true);
    for (const p of told) if (p.phase === 'tracing' && p.left !== null) expect(p.left).toBeCloseTo(64 - p.samples, 6);
  });

  it('shows itself clean while it grows, and with its grain never again; the meter reads what is shown', async () => {
    const calls: number[] = [];
    const { list, time, cleaner } = hands(1, (radiance) => {
      calls.push(radiance[0]);
      time.now += 0.5;
      return Promise.resolve(radiance.map(() => 100));
    });
    const told: TraceProgress[] = [];
    const made = await new TraceJob(
      stamp,
      list,
      cleaner,
      { ...SIZE, samples: 40 },
      (p) => told.push(p),
      () => time.now,
    ).run();
    const shown = told.flatMap((p) => (p.shown ? [p.shown] : []));
    const first = shown.findIndex((p) => p.radiance[0] === 100);
    expect(first).toBeGreaterThan(0);
    for (const p of shown.slice(first)) expect([p.radiance[0], p.exposure]).toEqual([100, made!.exposure]);
    // It rests thrice as long as it took, so that most of the time goes into tracing.
    expect(calls.length).toBeGreaterThan(3);
    expect(calls.length).toBeLessThan(40 / 1.5);
  });

  it('is put aside and goes on from what was kept, with no sample lost or traced twice', async () => {
    const clock = (h: { time: { now: number } }) => () => h.time.now;
    const size = { ...SIZE, samples: 70 };
    const first = hands(2);
    const films: Exposed[] = [];
    const keep = (film: Exposed): Promise<void> => Promise.resolve(void films.push(structuredClone(film)));
    const job: TraceJob = new TraceJob(stamp, first.list, first.cleaner, size, (p) => p.samples === 47 && job.halt(), clock(first), { film: null, keep });
    expect(await job.run()).toBeNull();
    // Kept on the way, not more often than every so many seconds, and at the end.
    expect(films.length).toBeGreaterThan(1);
    expect(films.length).toBeLessThan(5);
    const film = films.at(-1)!;
    const traced = film.counts[0];
    expect(first.numbers.toSorted((a, b) => a - b)).toEqual(Array.from({ length: traced }, (_, i) => i));
    const second = hands(3);
    const told: TraceProgress[] = [];
    const made = await new TraceJob(stamp, second.list, second.cleaner, size, (p) => told.push(p), clock(second), { film, keep }).run();
    expect(second.numbers.toSorted((a, b) => a - b)).toEqual(Array.from({ length: 70 - traced }, (_, i) => traced + i));
    expect(told.find((p) => p.phase === 'tracing')!.samples).toBe(traced);
    expect(made!.samples).toBe(70);
    // The mean of both parts: 1 to `traced`, then 1 to the rest.
    const sum = (n: number): number => (n * (n + 1)) / 2;
    for (const v of made!.radiance) expect(v).toBeCloseTo((sum(traced) + sum(70 - traced)) / 70, 4);
  });

  it('begins anew where what was kept is of another picture', async () => {
    const { list, time, cleaner, numbers } = hands(1);
    const other: Exposed = {
      width: 2,
      height: 2,
      groups: 1,
      counts: new Uint32Array(4).fill(5),
      light: new Float32Array(16),
      squares: new Float32Array(4),
      guides: new Float32Array(32),
    };
    const kept = { film: other, keep: () => Promise.resolve() };
    const made = await new TraceJob(
      stamp,
      list,
      cleaner,
      { ...SIZE, samples: 6 },
      () => undefined,
      () => time.now,
      kept,
    ).run();
    expect([made!.samples, numbers.length]).toEqual([6, 6]);
  });

  it('goes on where a cleaning on the way fails, and fails where the last one does', async () => {
    let calls = 0;
    const { list, time, cleaner } = hands(1, (radiance) => (calls++ ? Promise.resolve(radiance) : Promise.reject(new Error('no memory'))));
    const made = await new TraceJob(
      stamp,
      list,
      cleaner,
      { ...SIZE, samples: 20 },
      () => undefined,
      () => time.now,
    ).run();
    expect(made!.samples).toBe(20);
  });

  it('belongs to what it was begun with, and is not told of again once it is cancelled', async () => {
    const { list, time, cleaner } = hands(2);
    const told: TraceProgress[] = [];
    const job: TraceJob = new TraceJob(
      stamp,
      list,
      cleaner,
      { ...SIZE, samples: 50 },
      (p) => {
        told.push(p);
        if (p.samples === 3) job.cancel();
      },
      () => time.now,
    );
    expect(await job.run()).toBeNull();
    expect(told.at(-1)!.samples).toBe(3);
    expect(job.stamp).toEqual(stamp);
  });

  it('fails with what a hand fails with', async () => {
    const { list, time, cleaner } = hands(2, () => Promise.reject(new Error('no memory')));
    await expect(
      new TraceJob(
        stamp,
        list,
        cleaner,
        { ...SIZE, samples: 4 },
        () => undefined,
        () => time.now,
      ).run(),
    ).rejects.toThrow('no memory');
    const dead = hands(2);
    dead.list[1].prepare = () => Promise.reject(new Error('gone'));
    await expect(
      new TraceJob(
        stamp,
        dead.list,
        dead.cleaner,
        { ...SIZE, samples: 4 },
        () => undefined,
        () => dead.time.now,
      ).run(),
    ).rejects.toThrow('gone');
  });
});
