import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { FOOT, formatArea, formatLength, formatLengthExact, INCH, parseLength, parseSize } from './length';

const metres = (text: string, system: 'metric' | 'imperial' = 'metric') => {
  const parsed = parseLength(text, system);
  if (!parsed.ok) throw new Error(parsed.message);
  return parsed.metres;
};

describe('parseLength', () => {
  it.each([
    ['3450', 3.45],
    ['3.45 m', 3.45],
    ['3,45 m', 3.45],
    ['345cm', 3.45],
    [`11'4 1/2"`, 11 * FOOT + 4.5 * INCH],
    [`11′ 4½″`.replace('½', ' 1/2'), 11 * FOOT + 4.5 * INCH],
    ['=3600-2*45', 3.51],
    ['=(3600-90)/2', 1.755],
    ['3.45 m + 50', 3.5],
    ['10 ft', 3.048],
    [`1/16"`, INCH / 16],
    ['-200', -0.2],
    // A hyphen after the feet joins, as on a drawing; with spaces or after = it takes away.
    [`8'-2 7/16"`, 8 * FOOT + (2 + 7 / 16) * INCH],
    [`8'-0"`, 8 * FOOT],
    [`8'-7/16"`, 8 * FOOT + (7 / 16) * INCH],
    [`12'-6`, 12 * FOOT + 6 * INCH],
    [`12' - 6"`, 12 * FOOT - 6 * INCH],
    [`=12'-6"`, 12 * FOOT - 6 * INCH],
    [`=12'-2*4 1/2"`, 12 * FOOT - 9 * INCH],
    [`12'-2*4 1/2"`, 12 * FOOT - 9 * INCH],
  ])('reads %s', (text, expected) => {
    expect(metres(text)).toBeCloseTo(expected, 9);
  });

  it('takes a bare number as inches in the imperial system', () => {
    expect(metres('136 1/2', 'imperial')).toBeCloseTo(136.5 * INCH, 9);
    expect(metres(`11'4 1/2`, 'imperial')).toBeCloseTo(136.5 * INCH, 9);
  });

  it.each(['', 'abc', '3 m * 2 m', '5/0', '12 parsecs', '((3)', '1e999'])('refuses %j with a sentence', (text) => {
    const parsed = parseLength(text, 'metric');
    expect(parsed.ok).toBe(false);
    if (!parsed.ok) expect(parsed.message).toMatch(/^[“T].*\.$/);
  });

  it('gives back every sixteenth of an inch as it was typed', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 16 * 12 * 60 }), (sixteenths) => {
        const typed = formatLength((sixteenths / 16) * INCH, 'imperial');
        expect(metres(typed, 'imperial')).toBeCloseTo((sixteenths * INCH) / 16, 7);
        expect(formatLength(metres(typed, 'imperial'), 'imperial')).toBe(typed);
      }),
    );
  });

  it('gives back every tenth of a millimetre through the exact form', () => {
    fc.assert(
      fc.property(fc.integer({ min: -500000, max: 500000 }), (tenths) => {
        const text = formatLengthExact(tenths / 10000, 'metric');
        expect(metres(text)).toBeCloseTo(tenths / 10000, 8);
      }),
    );
  });
});

describe('formatLength', () => {
  it('writes millimetres, and feet with the lowest fraction', () => {
    expect(formatLength(3.4504, 'metric')).toBe('3450');
    expect(formatLength(11 * FOOT + 4.5 * INCH, 'imperial')).toBe(`11'-4 1/2"`);
    expect(formatLength(10 * FOOT, 'imperial')).toBe(`10'-0"`);
    expect(formatLength(10 * FOOT + 0.5 * INCH, 'imperial')).toBe(`10'-0 1/2"`);
    expect(formatLength(0.25 * INCH, 'imperial')).toBe(`1/4"`);
    expect(formatLength(-0.0001, 'metric')).toBe('0');
  });
  it('writes areas', () => {
    expect(formatArea(26.24, 'metric')).toBe('26.2 m²');
    expect(formatArea(10, 'imperial')).toBe('108 sq ft');
  });
});

describe('a length in a field', () => {
  it('is written as on a drawing, never in thousandths of an inch', () => {
    expect(formatLengthExact(2.5, 'imperial')).toBe(`8'-2 7/16"`);
    expect(formatLengthExact(3 * INCH + INCH / 64, 'imperial')).toBe(`3 1/64"`);
    fc.assert(
      fc.property(fc.double({ min: 0, max: 60, noNaN: true }), (v) => {
        const text = formatLengthExact(v, 'imperial');
        expect(text).toMatch(/^(\d+'-)?(\d+( \d+\/\d+)?|\d+\/\d+)"$/);
        expect(Math.abs(metres(text, 'imperial') - v)).toBeLessThanOrEqual(INCH / 32 + 1e-7);
      }),
    );
  });

  it('gives back every sixty-fourth of an inch as it was typed', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 64 * 12 * 40 }), (n) => {
        expect(metres(formatLengthExact((n * INCH) / 64, 'imperial'), 'imperial')).toBeCloseTo((n * INCH) / 64, 7);
      }),
    );
  });
});

describe('a size that is built', () => {
  it.each(['0', '-500', '1e9', 'abc', '', '9.9', '500001', '=3-3'])('is refused in one sentence: %j', (text) => {
    const parsed = parseSize(text, 'metric');
    expect(parsed.ok).toBe(false);
    if (!parsed.ok) expect(parsed.message).toMatch(/^[“T].*\.$/);
  });

  it('is told within which limits it may be, in the units of the project', () => {
    const refusal = (text: string, system: 'metric' | 'imperial'): string => {
      const parsed = parseSize(text, system);
      return parsed.ok ? '' : parsed.message;
    };
    expect(refusal('-500', 'metric')).toBe('“-500” can’t be built; nothing was changed. Type a length between 10 mm and 500 m.');
    expect(refusal('0', 'imperial')).toContain(`between 3/8" and 1640 ft`);
    expect(parseSize('10', 'metric')).toEqual({ ok: true, metres: 0.01 });
    expect(parseSize('500 m', 'metric')).toEqual({ ok: true, metres: 500 });
  });
});
