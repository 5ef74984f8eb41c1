import { describe, expect, it } from 'vitest';
import { Accumulator } from './accumulator';
import { TraceJob, type TraceHand, type TraceProgress } from './trace-job';

const SIZE = { width: 4, height: 2 };
const stamp = { project: 'p', scheme: 's', name: 'Kitchen', viewpoint: 'v' };

/** Hands whose passes take a second of a clock that goes by itself, each pass as bright as its number. */
function hands(count: number, filter: TraceHand['filter'] = (radiance) => Promise.resolve(radiance)) {
  const time = { now: 0 };
  const seeds: number[] = [];
  const asked = { sums: 0, passes: 0 };
  const list = Array.from({ length: count }, (_, i): TraceHand => {
    const own = new Accumulator(SIZE.width, SIZE.height);
    return {
      prepare: (seed) => Promise.resolve(void seeds.push(seed)),
      pass: async () => {
        await Promise.resolve();
        asked.passes++;
        time.now += 1 / count;
        const n = SIZE.width * SIZE.height;
        own.add(new Float32Array(n * 3).fill(asked.passes), new Float32Array(n * 6).fill(i));
      },
      sums: () => {
        asked.sums++;
        return Promise.resolve(own.sums());
      },
      filter,
    };
  });
  return { list, time, seeds, asked };
}

describe('a picture traced by several hands', () => {
  it('has the mean of all their passes, as many as were asked for', async () => {
    for (const count of [1, 2, 5]) {
      const { list, time, seeds, asked } = hands(count);
      const told: TraceProgress[] = [];
      const made = await new TraceJob(
        stamp,
        list,
        { ...SIZE, samples: 12 },
        (p) => told.push(p),
        () => time.now,
      ).run();
      expect([asked.passes, made!.samples]).toEqual([12, 12]);
      // 1 to 12, on average.
      for (const v of made!.radiance) expect(v).toBeCloseTo(6.5, 5);
      expect(new Set(seeds).size).toBe(count);
      expect(told.map((p) => p.phase).filter((p, i, all) => p !== all[i - 1])).toEqual(['preparing', 'tracing', 'filtering', 'done']);
      expect(told.filter((p) => p.phase === 'tracing').at(-1)!.samples).toBe(12);
    }
  });

  it('is repainted more and more seldom, and says how long it will still take', async () => {
    const { list, time, asked } = hands(1);
    const told: TraceProgress[] = [];
    await new TraceJob(
      stamp,
      list,
      { ...SIZE, samples: 64 },
      (p) => told.push(p),
      () => time.now,
    ).run();
    const painted = told.filter((p) => p.phase === 'tracing' && p.shown).map((p) => p.samples);
    expect(painted[0]).toBe(1);
    expect(painted.length).toBeLessThan(22);
    const gaps = painted.slice(1).map((n, i) => n - painted[i]);
    expect(gaps.every((g, i) => i === 0 || g >= gaps[i - 1])).toBe(true);
    // Sums are only brought together to be shown, and once at the end.
    expect(asked.sums).toBe(painted.length + 1);
    for (const p of told) if (p.phase === 'tracing' && p.left !== null) expect(p.left).toBeCloseTo(64 - p.samples, 6);
  });

  it('belongs to what it was begun with, and is not told of again once it is cancelled', async () => {
    const { list, time } = hands(2);
    const told: TraceProgress[] = [];
    const job: TraceJob = new TraceJob(
      stamp,
      list,
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
    const { list, time } = hands(2, () => Promise.reject(new Error('no memory')));
    await expect(
      new TraceJob(
        stamp,
        list,
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
        { ...SIZE, samples: 4 },
        () => undefined,
        () => dead.time.now,
      ).run(),
    ).rejects.toThrow('gone');
  });
});
