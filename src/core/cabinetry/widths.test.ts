import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Cabinet } from '../project/schema';
import { unitsSaid } from '../testing/cabinets';
import { assembleRun } from './assemble';
import { newRun } from './begin';
import { sayRun } from './line';
import type { BackLine } from './run';
import { alignedBelow, edgeDragged, mirroredAbout, offersOn, replacedBy, resized, stepped, unitDragged, withoutUnit } from './widths';
import { INCH } from '../units/length';

const run = newRun('run-a', 'Kitchen', 'ground', [{ kind: 'wall', wall: 'w', side: 'left', room: 'r' }], 'metric');
const wall = (long: number): BackLine[] => [{ from: { x: 0, y: 0 }, to: { x: long, y: 0 } }];
const widths = (units: readonly Cabinet[]): (number | null)[] => units.map((u) => u.width);
let next = 0;
const newId = (): string => `new-${next++}`;
const derivedOn = (units: readonly Cabinet[], long: number) => ({ run, legs: wall(long), ...assembleRun(run, units, wall(long)) });

describe('a unit that gets another width', () => {
  const units = unitsSaid('600 door, 500 drawers, 800 sink, 450 door');

  it('shifts the others as far as there is room, else the one beside its edge gives way, else says what is missing', () => {
    const wide = (width: number, long: number, side: 'left' | 'right' = 'right') => resized(run, units, wall(long), 'run-a-1', width, 'shift', side, 'metric');
    expect(widths(wide(0.7, 3) as Cabinet[])).toEqual([0.6, 0.7, 0.8, 0.45]);
    // A sink is not made narrower: the door before it gives.
    expect(widths(wide(0.7, 2.35) as Cabinet[])).toEqual([0.4, 0.7, 0.8, 0.45]);
    expect(widths(wide(0.3, 2.35) as Cabinet[])).toEqual([0.6, 0.3, 0.8, 0.45]);
    expect(wide(1.1, 2.35)).toBe('It is 150 wider than door beside it can give.');
    expect(wide(0.1, 3)).toBe('No unit is narrower than 150.');
    expect(widths(resized(run, units, wall(3), 'run-a-2', 0.9, 'beside', 'right', 'metric') as Cabinet[])).toEqual([0.6, 0.5, 0.9, 0.35]);
    expect(widths(resized(run, units, wall(3), 'run-a-2', 0.9, { unit: 'run-a-0' }, 'right', 'metric') as Cabinet[])).toEqual([0.5, 0.5, 0.9, 0.45]);
  });

  it('never makes the row longer than there is room, and gives and takes the same', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 200, max: 900 }), { minLength: 2, maxLength: 6 }),
        fc.nat(),
        fc.integer({ min: 150, max: 1200 }),
        fc.integer({ min: 0, max: 400 }),
        fc.constantFrom('left' as const, 'right' as const),
        (mm, at, width, rest, side) => {
          const row = unitsSaid(mm.map((w) => `${w} door`).join(', '));
          const long = (mm.reduce((a, b) => a + b, 0) + rest) / 1000;
          const changed = resized(run, row, wall(long), row[at % row.length].id, width / 1000, 'shift', side, 'metric');
          if (typeof changed === 'string') return;
          const { floor } = assembleRun(run, changed, wall(long));
          expect(floor.lacks).toEqual([expect.closeTo(0, 6)]);
          expect(changed[at % row.length].width).toBeCloseTo(width / 1000, 9);
          expect(changed.filter((u, i) => u.width !== row[i].width).length).toBeLessThanOrEqual(2);
        },
      ),
      { numRuns: 60 },
    );
  });
});

describe('what is left of a wall', () => {
  it('is filled in each of the ways, and then nothing is left', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 300, max: 800 }), { minLength: 1, maxLength: 4 }),
        fc.integer({ min: 20, max: 1100 }),
        fc.boolean(),
        (mm, rest, atEnd) => {
          const row = unitsSaid(mm.map((w) => `${w} door`).join(', '));
          const long = (mm.reduce((a, b) => a + b, 0) + rest) / 1000;
          const packed = { ...run, packed: atEnd ? ('end' as const) : ('start' as const) };
          const derived = { run: packed, legs: wall(long), ...assembleRun(packed, row, wall(long)) };
          const offers = offersOn(derived, row, 0, 'metric', newId);
          expect(offers.length).toBeGreaterThan(0);
          for (const { text, units } of offers) {
            const { floor } = assembleRun(packed, units, wall(long));
            const left = floor.gaps.reduce((sum, g) => sum + g.to - g.from, 0);
            expect([text, left, floor.lacks[0]]).toEqual([text, expect.closeTo(0, 5), expect.closeTo(0, 5)]);
            // A filler stands at the wall.
            const filler = units.find((u) => u.bare === 'filler');
            if (filler) expect(units[atEnd ? 0 : units.length - 1].id).toBe(filler.id);
          }
        },
      ),
      { numRuns: 60 },
    );
    const some = offersOn(derivedOn(unitsSaid('600 door, 800 sink'), 1.47), unitsSaid('600 door, 800 sink'), 0, 'metric', newId);
    // Nothing is built into what gets wider.
    expect(some.map((o) => o.text)).toEqual(['filler of 70']);
  });
});

describe('a unit of a run', () => {
  const units = unitsSaid('600 door left, 450 drawers, 900 hob, 500 door');

  it('leaves its place free, or the others close up', () => {
    expect(sayRun(withoutUnit(units, 'run-a-1', true, 0.45), 'metric')).toBe('600 door, 450 space, 900 hob, 500 door');
    expect(sayRun(withoutUnit(units, 'run-a-1', false, 0.45), 'metric')).toBe('600 door, 900 hob, 500 door');
  });

  it('is of another kind in the same place', () => {
    const other = replacedBy({ ...units[1], depth: 0.4, finishes: { fronts: 'paint.reed' } }, 'wine cooler', 'metric');
    expect(other).toMatchObject({ id: 'run-a-1', name: 'wine cooler', width: 0.45, depth: 0.4, order: 1, finishes: { fronts: 'paint.reed' } });
    expect(replacedBy(units[1], 'nonsense', 'metric')).toMatch(/names no unit/);
  });

  it('is the axis of what is mirrored: both sides match, hands turned about', () => {
    const both = mirroredAbout(derivedOn(units, 4), units, 'run-a-2', 'left', newId);
    if (typeof both === 'string') throw new Error(both);
    expect(sayRun(both, 'metric')).toBe('600 door, 450 drawers, 900 hob, 450 drawers, 600 door');
    expect(both.map((u) => u.front.at(-1)!.cells[0].hand)).toEqual(['left', null, null, null, 'right']);
    expect(both.slice(0, 3)).toEqual(units.slice(0, 3));
    // Both sides stay as wide as one another from now on.
    expect(both.map((u) => u.like)).toEqual([null, null, null, 'run-a-1', 'run-a-0']);
    // A copy keeps to nothing: two units would stand in one place.
    const kept = units.map((u, i) => (i === 1 ? { ...u, middle: { of: 'opening' as const, id: 'w' } } : u));
    const copied = mirroredAbout(derivedOn(kept, 4), kept, 'run-a-2', 'left', newId);
    expect(typeof copied === 'string' || copied.map((u) => u.middle)).toEqual([null, { of: 'opening', id: 'w' }, null, null, null]);
    const laid = assembleRun(run, both, wall(4)).floor.units;
    const middle = (laid[2].stretch.from + laid[2].stretch.to) / 2;
    for (const k of [0, 1]) expect(middle - laid[k].stretch.from).toBeCloseTo(laid[4 - k].stretch.to - middle, 9);
    // Twice over it is what it was.
    const again = mirroredAbout(derivedOn(both, 4), both, 'run-a-2', 'right', newId);
    expect(typeof again === 'string' || again.slice(0, 2).map((u) => u.front)).toEqual(units.slice(0, 2).map((u) => u.front));
    expect(mirroredAbout(derivedOn(units, 4), units, 'run-a-0', 'left', newId)).toBe('Nothing stands on that side of door.');
  });
});

describe('what is dragged along a run', () => {
  const units = unitsSaid('600 door, 500 drawers, 800 sink, 450 door, 600 wall');

  it('goes in steps of 50 mm or 3 in, finer ones of 1 mm or a sixteenth, and never below the least', () => {
    expect([stepped(0.523, 'metric', false), stepped(0.5234, 'metric', true), stepped(0.02, 'metric', false)]).toEqual([0.5, 0.523, 0.15]);
    expect(stepped(14 * INCH, 'imperial', false) / INCH).toBeCloseTo(15, 4);
    expect(stepped(14.1 * INCH, 'imperial', true) / INCH).toBeCloseTo(14.125, 4);
    expect(stepped(0, 'imperial', false) / INCH).toBeCloseTo(6, 4);
  });

  it('by its far edge shifts what follows, by its near edge takes from the one beside it', () => {
    const drag = (id: string, side: 'left' | 'right', to: number, long = 3): (number | null)[] | string => {
      const next = edgeDragged(derivedOn(units, long), units, id, side, to, 'metric', false);
      return typeof next === 'string' ? next : widths(next.slice(0, 4));
    };
    expect(drag('run-a-1', 'right', 1.32)).toEqual([0.6, 0.7, 0.8, 0.45]);
    expect(drag('run-a-1', 'left', 0.38)).toEqual([0.4, 0.7, 0.8, 0.45]);
    // A sink keeps its width: what follows it shifts.
    expect(drag('run-a-3', 'left', 1.7)).toEqual([0.6, 0.5, 0.8, 0.65]);
    expect(drag('run-a-1', 'right', 2.9, 2.36)).toMatch(/wider than/);
    const packed = { ...derivedOn(units, 3), run: { ...run, packed: 'end' as const } };
    const next = edgeDragged(packed, units, 'run-a-1', 'left', packed.units[1].placed.stretch.from - 0.1, 'metric', false);
    expect(typeof next === 'string' || widths(next.slice(0, 4))).toEqual([0.6, 0.6, 0.8, 0.45]);
  });

  it('stands before the first whose middle lies farther on, and nothing else changes', () => {
    const derived = derivedOn(units, 3);
    const at = (to: number): string => sayRun(unitDragged(derived, units, 'run-a-1', to), 'metric');
    expect(at(0.1)).toBe('500 drawers, 600 door, 800 sink, 450 door, 600 wall');
    expect(at(1.2)).toBe('600 door, 500 drawers, 800 sink, 450 door, 600 wall');
    expect(at(1.6)).toBe('600 door, 800 sink, 500 drawers, 450 door, 600 wall');
    expect(at(9)).toBe('600 door, 800 sink, 450 door, 500 drawers, 600 wall');
    // What hangs alone has nothing to go past.
    expect(unitDragged(derived, units, 'run-a-4', 2)).toEqual(units);
  });
});

describe('what hangs', () => {
  it('is aligned with what stands below: in the middle of it and as wide, from then on; a hood keeps its width', () => {
    const units = unitsSaid('600 door, 900 hob, 500 drawers, 450 wall, 900 hood, 400 wall glazed');
    const next = alignedBelow(derivedOn(units, 3), units);
    if (typeof next === 'string') throw new Error(next);
    const stretch = (all: readonly Cabinet[], k: number) => {
      const { units: laid } = assembleRun(run, all, wall(3));
      const { from, to } = laid.find((u) => u.unit.id === `run-a-${k}`)!.placed.stretch;
      return [from, to].map((v) => expect.closeTo(v, 9) as number);
    };
    expect([3, 5].map((k) => stretch(next, k))).toEqual([0, 2].map((k) => stretch(next, k)));
    const hood = next.find((u) => u.name === 'hood')!;
    expect([hood.middle, hood.like, hood.width]).toEqual([{ of: 'unit', id: 'run-a-1' }, null, 0.9]);
    // Where what stands moves, what hangs goes with it.
    const moved = next.map((u) => (u.id === 'run-a-0' ? { ...u, width: 0.7 } : u.id === 'run-a-3' ? { ...u, width: 0.7 } : u));
    expect(stretch(moved, 5)).toEqual(stretch(moved, 2));
    expect(alignedBelow(derivedOn(unitsSaid('600 larder, 600 wall'), 3), unitsSaid('600 larder, 600 wall'))).toMatch(/Nothing of it hangs/);
  });
});
