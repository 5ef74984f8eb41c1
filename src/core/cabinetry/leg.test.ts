import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { WIDTHS } from './figures';
import { fillings, layLeg, widened } from './leg';
import { sharedOut } from './shares';

const width = fc.oneof(
  fc.constant(null),
  fc.integer({ min: 150, max: 1200 }).map((mm) => mm / 1000),
);
const widths = fc.array(width, { minLength: 1, maxLength: 12 });

describe('a length that is divided', () => {
  it('is what its parts and its rest add up to', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.1, max: 12, noNaN: true }), widths, fc.constantFrom(0, 0.05, 0.15), (length, sizes, least) => {
        const shared = sharedOut(length, sizes, least);
        expect(shared.sizes.reduce((a, b) => a + b, 0) + shared.rest).toBeCloseTo(length, 9);
        sizes.forEach((s, i) => expect(shared.sizes[i]).toBe(s ?? shared.sizes[sizes.indexOf(null)]));
        if (sizes.includes(null) && shared.sizes[sizes.indexOf(null)] > least) expect(shared.rest).toBe(0);
      }),
    );
  });
});

describe('units along a leg', () => {
  it('never overlap, and units, gaps and what lacks add up to the leg', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.5, max: 9, noNaN: true }), widths, fc.constantFrom('start', 'end'), (length, list, packed) => {
        const { units, gaps, lacks } = layLeg(length, list, [], packed as 'start' | 'end', 0.15);
        for (let i = 1; i < units.length; i++) expect(Math.abs(units[i].from - units[i - 1].to)).toBeLessThan(1e-9);
        const taken = units.reduce((sum, u) => sum + u.to - u.from, 0);
        expect(taken + gaps.reduce((sum, g) => sum + g.to - g.from, 0) - lacks).toBeCloseTo(length, 9);
      }),
    );
  });

  it('stand with the pinned one in the middle of what it is centred on, the rest shared on both sides of it', () => {
    // 600 oven centred in a wall of 3.7 m; two units before it, one that shares behind it.
    const { units, gaps, lacks } = layLeg(3.7, [0.5, 0.8, 0.6, null], [{ unit: 2, middle: 1.85 }]);
    expect(lacks).toBe(0);
    expect(units[2]).toEqual({ from: 1.55, to: 2.15 });
    expect(units[1].to).toBeCloseTo(1.55, 12);
    expect(units[0].from).toBeCloseTo(0.25, 12);
    expect(units[3].to).toBeCloseTo(3.7, 12);
    expect(gaps).toHaveLength(1);
    expect(gaps[0].to - gaps[0].from).toBeCloseTo(0.25, 12);
  });

  it('between two pins begin at the first', () => {
    const { units, gaps } = layLeg(
      5,
      [0.6, 0.5, 0.6, 0.4],
      [
        { unit: 0, middle: 1 },
        { unit: 2, middle: 3 },
      ],
    );
    expect(units.map((u) => [u.from, u.to].map((x) => Math.round(x * 1e6) / 1e6))).toEqual([
      [0.7, 1.3],
      [1.3, 1.8],
      [2.7, 3.3],
      [3.3, 3.7],
    ]);
    expect(gaps).toHaveLength(3);
  });

  it('say by how much they are too long', () => {
    expect(layLeg(2, [0.9, 0.9, 0.45]).lacks).toBeCloseTo(0.25, 12);
    expect(layLeg(2, [0.9, 0.9], [{ unit: 1, middle: 0.6 }]).lacks).toBeCloseTo(0.75, 12);
    expect(layLeg(0.1, [null, null], [], 'start', 0.15).lacks).toBeCloseTo(0.2, 12);
  });
});

describe('what is left', () => {
  it('is filled by a wider unit, by all, by a filler or by the widest unit that fits, exactly', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.002, max: 1.4, noNaN: true }), fc.array(fc.constantFrom(0.3, 0.5, 0.6), { minLength: 1, maxLength: 6 }), (rest, list) => {
        const before = list.reduce((a, b) => a + b, 0);
        for (const way of fillings(rest, list, WIDTHS.metric)) {
          const after =
            way.kind === 'widen'
              ? list.reduce((sum, w, i) => sum + (i === way.unit ? way.width : w), 0)
              : way.kind === 'spread'
                ? way.widths.reduce((a, b) => a + b, 0)
                : before + way.width + (way.kind === 'unit' ? way.filler : 0);
          expect(after).toBeCloseTo(before + rest, 9);
          if (way.kind === 'unit') expect(WIDTHS.metric).toContain(way.width);
        }
      }),
    );
    expect(fillings(0.437, [0.6], WIDTHS.metric).map((f) => f.kind)).toEqual(['widen', 'unit']);
    expect(fillings(0.437, [0.6], WIDTHS.metric).at(-1)).toEqual({ kind: 'unit', width: 0.4, filler: expect.closeTo(0.037, 12) as number });
    expect(fillings(0.04, [null, null], WIDTHS.metric)).toEqual([{ kind: 'filler', width: 0.04 }]);
    expect(fillings(0, [0.6], WIDTHS.metric)).toEqual([]);
  });

  it('or one gives way, or the others shift as far as there is room', () => {
    expect(widened([0.6, 0.5, 0.9], 0, 0.9, { kind: 'unit', unit: 2 }, 0, 0.15)).toEqual({ ok: true, widths: [0.9, 0.5, expect.closeTo(0.6, 12) as number] });
    expect(widened([0.6, 0.5, 0.4], 0, 0.9, { kind: 'unit', unit: 2 }, 0, 0.15)).toEqual({ ok: false, lacks: expect.closeTo(0.05, 12) as number });
    expect(widened([0.6, 0.5], 0, 0.9, { kind: 'shift' }, 0.2, 0.15)).toEqual({ ok: false, lacks: expect.closeTo(0.1, 12) as number });
    expect(widened([0.6, 0.5], 0, 0.45, { kind: 'shift' }, 0, 0.15)).toEqual({ ok: true, widths: [0.45, 0.5] });
  });
});
