import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { degrees, radians, turn } from './angle';
import { FOOT, formatLength, INCH, parseLength, snapStep } from './length';

describe('angles', () => {
  it('go to radians and back, and into one turn', () => {
    expect(radians(180)).toBeCloseTo(Math.PI, 12);
    fc.assert(
      fc.property(fc.double({ min: -1e4, max: 1e4, noNaN: true }), (a) => {
        expect(degrees(radians(a))).toBeCloseTo(a, 6);
        const t = turn(a);
        expect(t).toBeGreaterThanOrEqual(0);
        expect(t).toBeLessThan(2 * Math.PI + 1e-9);
        expect(Math.cos(t)).toBeCloseTo(Math.cos(a), 6);
        expect(Math.sin(t)).toBeCloseTo(Math.sin(a), 6);
      }),
    );
  });
});

describe('sums as people type them', () => {
  const metres = (text: string, units: 'metric' | 'imperial' = 'metric'): number => {
    const parsed = parseLength(text, units);
    if (!parsed.ok) throw new Error(parsed.message);
    return parsed.metres;
  };

  it('agree with arithmetic on millimetres', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 9000 }), fc.integer({ min: 1, max: 400 }), fc.integer({ min: 1, max: 12 }), (a, b, n) => {
        expect(metres(`=${a}-${n}*${b}`)).toBeCloseTo((a - n * b) / 1000, 6);
        expect(metres(`(${a}+${b})/${n}`)).toBeCloseTo((a + b) / n / 1000, 6);
        expect(metres(`${a} mm + ${b} cm`)).toBeCloseTo(a / 1000 + b / 100, 6);
      }),
    );
  });

  it('mix feet, inches and fractions', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 40 }), fc.integer({ min: 0, max: 11 }), fc.integer({ min: 1, max: 15 }), (feet, inches, sixteenths) => {
        const expected = feet * FOOT + (inches + sixteenths / 16) * INCH;
        expect(metres(`${feet}' ${inches} ${sixteenths}/16"`, 'imperial')).toBeCloseTo(expected, 7);
        expect(metres(`${feet} ft ${inches} in`, 'imperial')).toBeCloseTo(feet * FOOT + inches * INCH, 7);
      }),
    );
  });

  it('never throw, whatever is typed', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 20 }), fc.constantFrom('metric' as const, 'imperial' as const), (text, units) => {
        const parsed = parseLength(text, units);
        if (parsed.ok) expect(Number.isFinite(parsed.metres)).toBe(true);
        else expect(parsed.message.length).toBeGreaterThan(10);
      }),
      { numRuns: 2000 },
    );
  });

  it('snap to the step of the units, never farther than half of it', () => {
    fc.assert(
      fc.property(fc.double({ min: -50, max: 50, noNaN: true }), fc.constantFrom('metric' as const, 'imperial' as const), (v, units) => {
        const step = units === 'metric' ? 0.005 : INCH / 2;
        const snapped = snapStep(v, units);
        expect(Math.abs(snapped - v)).toBeLessThanOrEqual(step / 2 + 1e-8);
        expect(Math.abs(snapped / step - Math.round(snapped / step))).toBeLessThan(1e-4);
      }),
    );
  });

  it('write negative lengths with a minus and nothing as nothing', () => {
    expect(formatLength(-1.5, 'metric')).toBe('-1500');
    expect(formatLength(-1.5 * FOOT, 'imperial')).toBe(`−1'-6"`);
    expect(formatLength(0, 'imperial')).toBe(`0"`);
  });
});
