import { describe, expect, it } from 'vitest';
import { offered } from './library';
import { CLOTH_SHEENS, PASSINGS, passingOf, RELIEFS, valueOf, withPassing, wordOf, type Passing } from './trade-words';

describe('measures in words', () => {
  it('read back as they were written, and take the nearest word for what lies between', () => {
    for (const words of [CLOTH_SHEENS, RELIEFS]) for (const [name, value] of words) expect(wordOf(words, valueOf(words, name))).toBe(wordOf(words, value));
    expect(wordOf(CLOTH_SHEENS, 0.7)).toBe('strong, as velvet');
    expect(wordOf(RELIEFS, 1.1)).toBe('true to it');
    expect(() => valueOf(RELIEFS, 'soft')).toThrow(RangeError);
  });
});

describe('the light a finish lets through', () => {
  const all = Object.keys(PASSINGS) as Passing[];

  it('is of one kind, whichever it was before, and choosing what it is changes nothing', () => {
    for (const finish of offered)
      for (const passing of all) {
        const next = withPassing(finish, passing);
        expect(passingOf(next)).toBe(passing);
        expect(withPassing(next, passing)).toEqual(next);
        // What was not so before passes no light twice.
        if (passing !== passingOf(finish)) expect(next.transmission + next.translucency).toBeLessThanOrEqual(1);
      }
    for (const finish of offered) expect(withPassing(finish, passingOf(finish))).toMatchObject({ transmission: finish.transmission, opacity: finish.opacity });
  });

  it('of the shipped ones is clear for glass, and none for paint and stone', () => {
    const kinds = (category: string) => new Set(offered.filter((f) => f.category === category).map(passingOf));
    expect(kinds('Glass')).toContain('clear');
    for (const solid of ['Paint', 'Stone', 'Tile', 'Brick']) expect([...kinds(solid)]).toEqual(['none']);
  });
});
