import { describe, expect, it } from 'vitest';
import { expectedSeconds, firstPace, learned, spanText, type Pace } from './pace';

const wanted = { width: 1280, height: 800, samples: 64 };
/** A machine that really takes so long. */
const machine: Pace = { prepare: 6, samples: 300_000, finish: 25 };
const takes = (w: typeof wanted) => ({
  prepare: machine.prepare,
  trace: (w.width * w.height * w.samples) / machine.samples,
  finish: (machine.finish * w.width * w.height) / 1e6,
});

describe('how long a picture will take', () => {
  it('is the sum of its parts, and grows with pixels and samples', () => {
    expect(expectedSeconds(machine, wanted)).toBeCloseTo(6 + (1024000 * 64) / 300000 + 25.6, 6);
    expect(expectedSeconds(machine, { ...wanted, samples: 128 })).toBeGreaterThan(expectedSeconds(machine, wanted) * 1.8);
    expect(expectedSeconds(firstPace(8), wanted)).toBeLessThan(expectedSeconds(firstPace(2), wanted));
  });

  it('is known after a few pictures, whatever was thought at first, by pictures of any size', () => {
    for (const hands of [1, 2, 16]) {
      let pace = firstPace(hands);
      for (let i = 0; i < 8; i++) {
        const w = { width: 320 * (1 + (i % 3)), height: 200 * (1 + (i % 3)), samples: 8 * (1 + i) };
        pace = learned(pace, w, takes(w));
      }
      expect(expectedSeconds(pace, wanted) / expectedSeconds(machine, wanted)).toBeCloseTo(1, 1.3);
    }
  });

  it('is not upset by what was not measured', () => {
    const pace = firstPace(2);
    expect(learned(pace, wanted, { prepare: NaN, trace: 0, finish: -3 })).toEqual(pace);
    expect(learned(pace, { ...wanted, samples: 0 }, { prepare: 1, trace: 5, finish: 1 }).samples).toBe(pace.samples);
  });

  it('is said as one says it', () => {
    expect([3, 12, 44, 58, 89, 91, 3540, 3599, 3700, 4900, 7199, 36000].map(spanText)).toEqual([
      '5 s',
      '10 s',
      '45 s',
      '1 min',
      '1 min',
      '2 min',
      '59 min',
      '1 h',
      '1 h',
      '1 h 20 min',
      '2 h',
      '10 h',
    ]);
  });
});
