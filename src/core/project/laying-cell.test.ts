import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { tilingOf } from '../finishes/laying/pattern';
import { lay } from '../finishes/library/make';
import { signedArea } from '../geometry/polygon';
import { cellFault, cutUnit, joinUnits, type Cell } from './laying-cell';

const WHOLE: Cell = { width: 0.6, height: 0.4, units: [{ x: 0, y: 0, width: 0.6, height: 0.4 }] };

describe('a pattern of one’s own', () => {
  it('is faulted where units overlap, also over the edge of what repeats, or leave something uncovered', () => {
    expect(cellFault(WHOLE)).toBeNull();
    expect(cellFault({ ...WHOLE, units: [{ x: 0, y: 0, width: 0.5, height: 0.4 }] })).toMatch(/cover/);
    expect(cellFault({ ...WHOLE, units: [{ x: 0.5, y: 0, width: 0.2, height: 0.4 }, ...WHOLE.units] })).toMatch(/overlap/);
    expect(
      cellFault({
        ...WHOLE,
        units: [
          { x: 0.3, y: 0, width: 0.6, height: 0.2 },
          { x: 0, y: 0.2, width: 0.6, height: 0.2 },
        ],
      }),
    ).toBeNull();
  });

  it('stays whole through any cuts, each unit as large as its parts', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.nat(20), fc.boolean(), fc.double({ min: 0.2, max: 0.8, noNaN: true })), { maxLength: 8 }), (cuts) => {
        const cell = cuts.reduce((c, [i, along, share]) => cutUnit(c, i % c.units.length, along, share), WHOLE);
        expect(cell.units).toHaveLength(cuts.length + 1);
        expect(cellFault(cell)).toBeNull();
        const { units, period } = tilingOf({ ...lay('own', 0.2, 0.2, 0.003, '#b9b6ae'), cell });
        expect(units.reduce((sum, u) => sum + signedArea(u.ring), 0)).toBeLessThan(period.x * period.y);
      }),
    );
  });

  it('has parts joined again that make a rectangle, and no others', () => {
    const halves = cutUnit(WHOLE, 0, false);
    expect(joinUnits(halves, 0, 1)!.units).toEqual([{ x: 0, y: 0, width: 0.6, height: 0.4 }]);
    const three = cutUnit(halves, 1, true);
    expect(joinUnits(three, 0, 1)).toBeNull();
    expect(cellFault(joinUnits(three, 1, 2)!)).toBeNull();
    expect(joinUnits(three, 1, 1)).toBeNull();
  });

  it('has parts joined over the edge of what repeats', () => {
    const quarters = cutUnit(cutUnit(cutUnit(WHOLE, 0, true), 1, false), 0, false);
    // Lower row of two, upper row of three with its outer ones joined over the edge: a running bond.
    const upper = cutUnit(quarters, 3, false);
    const bond = joinUnits(upper, 2, 4)!;
    expect(cellFault(bond)).toBeNull();
    expect(bond.units.some((u) => u.x + u.width > bond.width + 1e-9)).toBe(true);
  });

  it('is left alone by a cut that is none', () => {
    expect(cutUnit(WHOLE, 3, true)).toBe(WHOLE);
    expect(cutUnit(WHOLE, 0, true, 1)).toBe(WHOLE);
  });
});
