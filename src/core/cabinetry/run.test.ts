import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { clipRegions } from '../geometry/clipping';
import { signedArea, totalArea } from '../geometry/polygon';
import { add, scale, type Vec2 } from '../geometry/vec';
import type { CornerForm } from '../project/schema/cabinets';
import { BLIND_FILLER, coverOf, layRun, type BackLine, type RunUnit } from './run';

/** Legs one after another, each turned to the right of the one before: into the room. @param angles inside of the room, radians */
function legs(lengths: readonly number[], angles: readonly number[], from: Vec2 = { x: 0, y: 0 }, way = 0): BackLine[] {
  const out: BackLine[] = [];
  let [at, turn] = [from, way];
  lengths.forEach((l, i) => {
    if (i > 0) turn -= Math.PI - angles[i - 1];
    const to = add(at, scale({ x: Math.cos(turn), y: Math.sin(turn) }, l));
    out.push({ from: at, to });
    at = to;
  });
  return out;
}

const RIGHT = Math.PI / 2;

const width = fc.oneof(
  fc.constant(null),
  fc.integer({ min: 150, max: 900 }).map((mm) => mm / 1000),
);
const row = fc.array(width, { maxLength: 6 });

describe('a run along its legs', () => {
  it('has units that nowhere overlap, and units, gaps and corners that add up to each leg, whatever the angles', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 3, max: 7, noNaN: true }), { minLength: 1, maxLength: 3 }),
        fc.array(fc.double({ min: 1.3, max: 2.2, noNaN: true }), { minLength: 2, maxLength: 2 }),
        fc.array(row, { minLength: 3, maxLength: 3 }),
        fc.array(fc.constantFrom<CornerForm>('L', 'diagonal', 'blind left', 'blind right'), { minLength: 2, maxLength: 2 }),
        fc.double({ min: 0, max: 6.3, noNaN: true }),
        fc.constantFrom<'start' | 'end'>('start', 'end'),
        (lengths, angles, rows, forms, way, packed) => {
          let n = 0;
          const depth = 0.58;
          const units: RunUnit[] = lengths.flatMap((_, i): RunUnit[] => [
            ...rows[i].map((w) => ({ id: `u${n++}`, width: w, depth })),
            ...(i < lengths.length - 1 ? [{ id: `c${i}`, width: 1, depth, corner: forms[i] }] : []),
          ]);
          const lines = legs(lengths, angles, { x: 3, y: -2 }, way);
          const laid = layRun(lines, units, packed, 0.2);
          expect(laid.units.map((u) => u.id).sort()).toEqual(units.map((u) => u.id).sort());
          lengths.forEach((l, i) => {
            const own = laid.units.filter((u) => u.leg === i && !u.arms).reduce((sum, u) => sum + u.width, 0);
            const gaps = laid.gaps.filter((g) => g.leg === i).reduce((sum, g) => sum + g.to - g.from, 0);
            const arm = (k: number, side: 0 | 1): number => laid.units.find((u) => u.id === `c${k}`)?.arms?.[side] ?? 0;
            expect(own + gaps + arm(i, 0) + arm(i - 1, 1) - laid.lacks[i]).toBeCloseTo(l, 9);
          });
          if (laid.lacks.some((x) => x > 0)) return;
          for (const u of laid.units) expect(coverOf(u, lines, depth)).toEqual(u.footprint);
          for (const u of laid.units) expect(signedArea(u.footprint)).toBeGreaterThan(0);
          laid.units.forEach((a, i) => {
            for (const b of laid.units.slice(i + 1)) {
              const shared = clipRegions('intersection', [{ outer: a.footprint, holes: [] }], [{ outer: b.footprint, holes: [] }]);
              expect([a.id, b.id, totalArea(shared)]).toEqual([a.id, b.id, expect.closeTo(0, 5)]);
            }
          });
        },
      ),
    );
  });

  it('packs units against the corner unit, which follows both walls', () => {
    const [a, b] = legs([4, 3], [RIGHT]);
    const { units, gaps } = layRun(
      [a, b],
      [
        { id: 'drawers', width: 0.6, depth: 0.56 },
        { id: 'corner', width: 0.9, depth: 0.56, corner: 'L' },
        { id: 'sink', width: 0.8, depth: 0.56 },
      ],
    );
    const [drawers, corner, sink] = units;
    expect([drawers.stretch.from, drawers.stretch.to]).toEqual([expect.closeTo(2.5, 12), expect.closeTo(3.1, 12)]);
    expect([sink.leg, sink.stretch.from]).toEqual([1, 0.9]);
    expect(signedArea(corner.footprint)).toBeCloseTo(0.9 * 0.9 - (0.9 - 0.56) ** 2, 12);
    expect(gaps.map((g) => [g.leg, Math.round((g.to - g.from) * 1e6) / 1e6])).toEqual([
      [0, 2.5],
      [1, 1.3],
    ]);
  });

  it('leaves room for handles beside a unit that runs blind into a corner', () => {
    const lines = legs([4, 3], [RIGHT]);
    const blind = (corner: CornerForm) =>
      layRun(lines, [
        { id: 'blind', width: 1, depth: 0.56, corner },
        { id: 'next', width: 0.5, depth: 0.56 },
      ]).units;
    expect(blind('blind left')[1].stretch.from).toBeCloseTo(0.56 + BLIND_FILLER, 12);
    expect(signedArea(blind('blind left')[0].footprint)).toBeCloseTo(0.56, 12);
    // The other way round it lies along the second leg.
    expect(blind('blind right')[1].stretch.from).toBeCloseTo(1, 12);
    expect(blind('blind right')[0]).toMatchObject({ leg: 1, width: 1 });
  });

  it('centres a unit on a window of the second leg, between the corner and what follows', () => {
    const { units } = layRun(legs([3, 4], [RIGHT]), [
      { id: 'corner', width: 0.9, depth: 0.56, corner: 'L' },
      { id: 'fill', width: null, depth: 0.56 },
      { id: 'sink', width: 0.8, depth: 0.56, middle: 2.1 },
      { id: 'door', width: 0.5, depth: 0.56 },
    ]);
    const by = (id: string): number[] => Object.values(units.find((u) => u.id === id)!.stretch).map((x) => Math.round(x * 1e6) / 1e6);
    expect(by('fill')).toEqual([0.9, 1.7]);
    expect(by('sink')).toEqual([1.7, 2.5]);
    expect(by('door')).toEqual([2.5, 3]);
  });
});
