import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { FOOT, formatArea, formatLength, formatLengthExact, INCH, parseLength } from './length';

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
    expect(formatLength(11 * FOOT + 4.5 * INCH, 'imperial')).toBe(`11'4 1/2"`);
    expect(formatLength(10 * FOOT, 'imperial')).toBe(`10'`);
    expect(formatLength(0.25 * INCH, 'imperial')).toBe(`1/4"`);
    expect(formatLength(-0.0001, 'metric')).toBe('0');
  });
  it('writes areas', () => {
    expect(formatArea(26.24, 'metric')).toBe('26.2 m²');
    expect(formatArea(10, 'imperial')).toBe('108 sq ft');
  });
});
