import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Cabinet } from '../project/schema/cabinets';
import { sayRun, unitsFrom } from './line';

let count = 0;
const newId = (): string => `n${count++}`;
const from = (line: string, before: readonly Cabinet[] = [], system: 'metric' | 'imperial' = 'metric'): Cabinet[] => {
  const made = unitsFrom(line, 'r', before, system, newId);
  if (!made.ok) throw new Error(made.message);
  return made.units;
};

const words = ['drawers', 'door', 'sink', 'larder', 'wall', 'corner', 'filler'];
const lines = fc.array(fc.tuple(fc.integer({ min: 2, max: 24 }), fc.constantFrom(...words), fc.boolean()), { minLength: 1, maxLength: 12 });
const typed = (list: readonly (readonly [number, string, boolean])[]): string =>
  list.map(([w, word, fills]) => (fills ? `rest ${word}` : `${w * 50} ${word}`)).join(', ');

describe('a run in one line', () => {
  it('says what was typed, in metric and imperial, and typed again changes nothing', () => {
    fc.assert(
      fc.property(lines, (list) => {
        const units = from(typed(list));
        expect(sayRun(units, 'metric')).toBe(typed(list));
        expect(from(sayRun(units, 'metric'), units)).toEqual(units);
        const inches = from(sayRun(units, 'imperial'), units, 'imperial');
        expect(inches).toEqual(units);
      }),
      { numRuns: 60 },
    );
  });

  it('keeps what was changed apart of units that are still said, wherever others are put in, taken out or moved past', () => {
    const first = from('600 drawers, 450 door, 800 sink');
    const own = first.map((u) => (u.name === 'door' ? { ...u, open: 0.5, finishes: { fronts: 'paint.reed' } } : u));
    const more = from('300 pull-out, 600 drawers, 450 door, 400 door, 800 sink', own);
    expect(more.map((u) => u.order)).toEqual([0, 1, 2, 3, 4]);
    expect(more[2]).toEqual({ ...own[1], order: 2 });
    expect([more[1].id, more[4].id]).toEqual([own[0].id, own[2].id]);
    expect(new Set(more.map((u) => u.id)).size).toBe(5);
    const less = from('450 door', more);
    expect(less).toEqual([{ ...own[1], order: 0 }]);
  });

  it('keeps all of a unit but its width where that alone is typed anew', () => {
    const [unit, other] = from('600 drawers, 450 door');
    const [wider] = from('700 drawers, 450 door', [{ ...unit, finishes: { fronts: 'paint.reed' } }, other]);
    expect(wider).toEqual({ ...unit, width: 0.7, finishes: { fronts: 'paint.reed' } });
  });

  it('lets go of what hung over a unit that is not said any more, and refuses what it does not understand', () => {
    const [hob, hood] = from('900 hob, 600 hood');
    expect(from('600 hood', [hob, { ...hood, middle: { of: 'unit', id: hob.id } }])[0].middle).toBeNull();
    expect(unitsFrom('600 something', 'r', [], 'metric', newId)).toMatchObject({ ok: false, message: expect.stringContaining('names no unit') });
  });
});
