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
    // A hyphen after the feet joins, as on a drawing; after = it takes away.
    [`8'-2 7/16"`, 8 * FOOT + (2 + 7 / 16) * INCH],
    [`8'-0"`, 8 * FOOT],
    [`8'-7/16"`, 8 * FOOT + (7 / 16) * INCH],
    [`12'-6`, 12 * FOOT + 6 * INCH],
    [`=12' - 6"`, 12 * FOOT - 6 * INCH],
    [`3'-4 1/2"`, 3 * FOOT + 4.5 * INCH],
    [`0'-4 1/2"`, 4.5 * INCH],
    [`3'–4½"`, 3 * FOOT + 4.5 * INCH],
    [`-3'-4½"`, -(3 * FOOT + 4.5 * INCH)],
    [`3 ft-4 in`, 3 * FOOT + 4 * INCH],
    ['¾"', 0.75 * INCH],
    ['2⅜ in', 2.375 * INCH],
    ['3 m 45', 3.45],
    ['3m 45cm', 3.45],
    ['3m45', 3.45],
    ['3 m 450', 3.45],
    ['3 m 45 cm 5 mm', 3.455],
    ['3 450', 3.45],
    ['3\u202f450', 3.45],
    ['1\u00a0234,5', 1.2345],
    ['1\u2009234\u2009567', 1234.567],
    ['1.234,5', 1.2345],
    ['1,234.5', 1.2345],
    ['1,234,567', 1234.567],
    ['0,450 m', 0.45],
    ['12,5', 0.0125],
    ['2 x 600', 1.2],
    ['2×600', 1.2],
    ['600 x 2 + 50', 1.25],
    ['=3 450/2', 1.725],
    ['3.45 metres', 3.45],
    [',5 m', 0.5],
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

  it('takes a comma for thousands in the imperial system', () => {
    expect(metres('1,234', 'imperial')).toBeCloseTo(1234 * INCH, 9);
    expect(metres('12,5', 'imperial')).toBeCloseTo(12.5 * INCH, 9);
  });

  it.each([
    ['3,450', '3.450 or 3450'],
    ['3,450 m', '3.450 or 3450'],
    [`12' - 6"`, `12'-6" as on a drawing, or 6" taken from 12'`],
    [`12' -6`, `12'-6"`],
    [`12'-18"`, `12'-18" as on a drawing, or 18" taken from 12', which is =12'-18"`],
    ['3 m 5', '3.05 m or 3.5 m'],
  ])('refuses %s, which can be read in two ways, and names both', (text, ways) => {
    const parsed = parseLength(text, 'metric');
    expect(parsed.ok || parsed.message).toContain(`“${text}” can be read in two ways: ${ways}`);
  });

  it.each([
    '',
    'abc',
    '3 45',
    '3,4,5',
    '1.2.3',
    '3 m 4567',
    `4.5 1/2"`,
    '1,23,456',
    'x 600',
    '2 x',
    '3 1/0',
    '4 mm 3 m',
    '3 m * 2 m',
    '5/0',
    '12 parsecs',
    '((3)',
    '1e999',
  ])('refuses %j with a sentence', (text) => {
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

describe('a grammar written apart from the reader', () => {
  /** Something written, and what it is in metres. */
  type Written = fc.Arbitrary<{ text: string; metres: number }>;
  const space = fc.constantFrom(' ', '\u00a0', '\u202f', '\u2009');
  const dash = fc.constantFrom('-', '–', '‑', '‐');
  const sign = fc.constantFrom(["'", '"'], ['′', '″'], ['’', '”'], ["'", "''"], ['ft ', ' in'], [' feet ', ' inches']);
  const grouped = (n: number, by: string): string => String(n).replace(/\B(?=(\d{3})+$)/g, by);
  const VULGAR: [string, string, number][] = [['¼', '1/4', 0.25], ['½', '1/2', 0.5], ['¾', '3/4', 0.75], ['⅛', '1/8', 0.125], ['⅜', '3/8', 0.375], ['⅝', '5/8', 0.625], ['⅞', '7/8', 0.875]]; // prettier-ignore
  /** Inches below twelve with a fraction, drawn as one sign or as two figures. */
  const inches = fc.tuple(fc.integer({ min: 0, max: 11 }), fc.option(fc.constantFrom(...VULGAR)), fc.boolean(), space).map(([whole, part, one, gap]) => ({
    text: part ? (one ? `${whole || ''}${part[0]}` : `${whole ? whole + gap : ''}${part[1]}`) : String(whole),
    inches: whole + (part?.[2] ?? 0),
  }));
  const feetAndInches: Written = fc.tuple(fc.integer({ min: 0, max: 99 }), inches, sign, dash, fc.boolean()).map(([feet, rest, [foot, inch], join, worded]) => {
    // Words are parted by spaces; signs by a dash, a space or nothing.
    const text = foot.length > 1 ? `${feet}${foot}${rest.text}${inch}` : `${feet}${foot}${worded ? ' ' : join}${rest.text}${inch}`;
    return { text, metres: (feet * 12 + rest.inches) * 0.0254 };
  });
  const millimetres: Written = fc
    .tuple(fc.integer({ min: 1, max: 400000 }), fc.option(fc.integer({ min: 1, max: 9 })), space, fc.boolean())
    .map(([whole, tenth, gap, comma]) => ({
      text: `${grouped(whole, gap)}${tenth ? `${comma ? ',' : '.'}${tenth}` : ''}`,
      metres: (whole + (tenth ?? 0) / 10) / 1000,
    }));
  const inUnits: Written = fc
    .tuple(fc.integer({ min: 1, max: 40 }), fc.integer({ min: 0, max: 99 }), fc.constantFrom('m', ' m', ' metres'), fc.constantFrom('', 'cm', ' cm'))
    .map(([m, cm, unit, small]) => ({ text: `${m}${unit} ${String(cm).padStart(2, '0')}${small}`, metres: m + cm / 100 }));
  const one: Written = fc.oneof(feetAndInches, millimetres, inUnits);
  /** So many times, more, less, a part of it. */
  const reckoned: Written = fc.oneof(
    one,
    fc
      .tuple(fc.integer({ min: 2, max: 9 }), fc.constantFrom(' x ', 'x', '×', '*', ' * '), millimetres)
      .map(([n, times, of]) => ({ text: `${n}${times}${of.text}`, metres: n * of.metres })),
    fc
      .tuple(one, one)
      .map(([a, b]) => ({ text: `=${a.text} + ${b.text}`, metres: a.metres + b.metres }))
      .filter(({ text }) => !/\d['′’ft].*[-–‑‐]/.test(text)),
    fc.tuple(millimetres, fc.integer({ min: 2, max: 9 })).map(([a, n]) => ({ text: `=(${a.text})/${n}`, metres: a.metres / n })),
  );

  it('is read as it was meant', () => {
    fc.assert(
      fc.property(reckoned, ({ text, metres: meant }) => {
        const parsed = parseLength(text, 'metric');
        expect(parsed.ok ? parsed.metres : parsed.message).toBeCloseTo(meant as never, 7);
      }),
      { numRuns: 2000, seed: Number(process.env.FC_SEED ?? 15) },
    );
  });

  it('whatever is typed is a length or a sentence, never another exception', () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom(...`0123456789.,'"½⅜ -–+*/()xmftinc=`.split('')), { maxLength: 14 }),
        fc.constantFrom('metric' as const, 'imperial' as const),
        (signs, system) => {
          const parsed = parseLength(signs.join(''), system);
          if (parsed.ok) expect(Number.isFinite(parsed.metres)).toBe(true);
          else expect(parsed.message).toMatch(/^[“T].*\.$/s);
        },
      ),
      { numRuns: 3000 },
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
