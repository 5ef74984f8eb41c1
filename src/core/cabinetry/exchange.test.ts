import { describe, expect, it } from 'vitest';
import { CARDS } from '../stock/stock';
import { unitsSaid } from '../testing/cabinets';
import { assembleRun, fittingsIn } from './assemble';
import { newRun } from './begin';
import { addable, exchangeable, exchanged } from './exchange';
import type { BackLine } from './run';

const run = newRun('run-a', 'Kitchen', 'ground', [], 'metric');
const wall = (long: number): BackLine[] => [{ from: { x: 0, y: 0 }, to: { x: long, y: 0 } }];
const swap = (line: string, long: number, name: string, card: string, index = 0) => {
  const units = unitsSaid(line);
  const own = units.find((u) => u.name === name)!;
  return exchanged(run, units, wall(long), own.id, index, card, 'metric');
};

describe('what is exchanged', () => {
  it('takes its housing with it: a double oven has a higher cell, and the rest of the front is less', () => {
    const next = swap('600 tall oven, 600 door', 3, 'tall oven', 'oven-double');
    if (typeof next === 'string') throw new Error(next);
    expect(next[0].front.map((r) => r.height)).toEqual([null, expect.closeTo(0.891, 9), 0.715]);
    const [placed] = fittingsIn(assembleRun(run, next, wall(3)).units[0], run.made);
    expect([placed.item.id, placed.traits.form, placed.over]).toEqual(['oven', 'double', {}]);
  });

  it('leaves a raised machine raised: a door before it, or its own front in its place', () => {
    const own = swap('raised dishwasher, 600 door', 3, 'raised dishwasher', 'dishwasher');
    if (typeof own === 'string') throw new Error(own);
    expect(own[0].front.map((r) => r.cells[0].kind)).toEqual(['door', 'appliance', 'pan drawer']);
    const [placed] = fittingsIn(assembleRun(run, own, wall(3)).units[0], run.made);
    expect([placed.how, placed.over, placed.traits.front]).toEqual(['cell', {}, 'its own']);
    const back = exchanged(run, own, wall(3), own[0].id, 0, 'dishwasher-built-in', 'metric');
    if (typeof back === 'string') throw new Error(back);
    expect(back[0].front.map((r) => [r.cells[0].kind, r.cells[0].hand])).toEqual([
      ['door', 'left'],
      ['door', 'down'],
      ['pan drawer', null],
    ]);
    expect(fittingsIn(assembleRun(run, back, wall(3)).units[0], run.made)[0]).toMatchObject({ how: 'raised', over: {} });
  });

  it('says by how much it is too high for its housing', () => {
    expect(swap('600 oven', 3, 'oven', 'oven-double')).toMatch(/^Oven, double is \d+ too high for its housing\.$/);
  });

  it('shifts its neighbours as far as there is room, else the nearest that may be gives way, else says what is missing', () => {
    const wide = swap('600 door, 900 range cooker, 600 drawers', 4, 'range cooker', 'range-cooker-wide');
    if (typeof wide === 'string') throw new Error(wide);
    expect(wide.map((u) => u.width)).toEqual([0.6, 1.103, 0.6]);
    const tight = swap('600 door, 900 range cooker, 600 drawers', 2.1, 'range cooker', 'range-cooker-wide');
    if (typeof tight === 'string') throw new Error(tight);
    expect(tight.map((u) => u.width)).toEqual([expect.closeTo(0.397, 6), 1.103, 0.6]);
    expect(assembleRun(run, tight, wall(2.1)).floor.lacks).toEqual([0]);
    expect(swap('300 door, 900 range cooker, 300 drawers', 1.5, 'range cooker', 'range-cooker-wide')).toBe(
      'Range cooker, 1100 is 203 wider than there is room for; none of its neighbours can be that much narrower.',
    );
    // What has something built in does not give way.
    expect(swap('600 sink, 900 range cooker', 1.5, 'range cooker', 'range-cooker-wide')).toContain('none of its neighbours');
  });

  it('changes fronts with what stands behind them: a fridge built in for one of two doors, and back', () => {
    const free = swap('600 fridge, 600 door', 4, 'fridge', 'fridge-two-doors');
    if (typeof free === 'string') throw new Error(free);
    expect([free[0].width, free[0].front.length, free[0].front[0].cells[0].kind]).toEqual([0.913, 1, 'appliance']);
    expect(free[0].finishes['fridge fronts']).toBe('metal.steel-brushed');
    const back = exchanged(run, free, wall(4), free[0].id, 0, 'fridge-built-in', 'metric');
    if (typeof back === 'string') throw new Error(back);
    expect(back[0].front.flatMap((r) => r.cells.map((c) => c.kind))).toEqual(['door', 'door']);
  });

  it('leaves all other units as they were', () => {
    const units = unitsSaid('600 door, 600 tall oven, 450 drawers');
    const next = exchanged(run, units, wall(4), units[1].id, 0, 'oven-compact', 'metric');
    if (typeof next === 'string') throw new Error(next);
    expect([next[0], next[2]]).toEqual([units[0], units[2]]);
    expect(next[1].front[1].height).toBeCloseTo(0.458, 9);
  });

  it('offers what can be in the same place, and what can be added', () => {
    const ids = (cards: readonly { id: string }[]): string[] => cards.map((c) => c.id);
    expect(ids(exchangeable(CARDS, 'cell'))).toEqual(expect.arrayContaining(['oven', 'oven-double', 'microwave', 'warming-drawer']));
    expect(ids(exchangeable(CARDS, 'cell'))).not.toContain('hob');
    expect(ids(exchangeable(CARDS, 'stands'))).toEqual(expect.arrayContaining(['fridge', 'fridge-built-in', 'range-cooker', 'washer', 'dishwasher']));
    const [door, oven, wallUnit, corner] = unitsSaid('600 door, 600 oven, 600 wall, corner');
    expect(ids(addable(CARDS, door))).toEqual(expect.arrayContaining(['hob', 'sink', 'tap']));
    expect(ids(addable(CARDS, { ...oven, fittings: [] }))).toContain('oven');
    expect(ids(addable(CARDS, oven))).not.toContain('oven');
    expect(ids(addable(CARDS, wallUnit))).toEqual(['hood-flat']);
    expect(addable(CARDS, corner)).toEqual([]);
  });
});
