import { beforeAll, describe, expect, it } from 'vitest';
import { unitsSaid } from '../testing/cabinets';
import { bounds } from '../testing/measures';
import { loadKernel, openEdges, volume } from '../testing/solid';
import { assembleRun, runParts } from './assemble';
import { newRun } from './begin';
import type { Construction } from '../project/schema/cabinets';
import { PLINTH } from './plinth';
import type { BackLine } from './run';

beforeAll(loadKernel);

const legs: BackLine[] = [{ from: { x: 0, y: 0 }, to: { x: 6, y: 0 } }];
const plinthOf = (line: string, making: Partial<Construction> = {}) => {
  const run = newRun('run-a', 'Run', 'ground', [], 'metric');
  const own = { ...run, made: { ...run.made, ...making } };
  const laid = assembleRun(own, unitsSaid(line), legs);
  return { laid, parts: runParts(laid, own, legs).filter((p) => p.part === 'plinth' || p.part === 'grilles') };
};

describe('grilles in a plinth', () => {
  it('are under what wants air, where they are wanted', () => {
    const grilles = (line: string, vented = true): number => plinthOf(line, { vented }).laid.grilles.length;
    expect(grilles('600 fridge, 600 door')).toBe(1);
    expect(grilles('600 fridge, 600 door', false)).toBe(0);
    expect(grilles('600 door, 600 tall oven')).toBe(0);
    // What stands without a back is served from below.
    expect(grilles('600 door, 400 service housing, 600 fridge')).toBe(2);
    // What stands on the floor itself has no plinth before it.
    expect(grilles('300 wine cooler')).toBe(0);
  });

  it('take out of the board what their opening is, and fill it with bars', () => {
    const whole = plinthOf('600 fridge, 600 door').parts;
    const { laid, parts } = plinthOf('600 fridge, 600 door', { vented: true });
    expect(whole.map((p) => p.part)).toEqual(['plinth']);
    expect(parts.map((p) => p.part)).toEqual(['plinth', 'grilles']);
    for (const { mesh } of parts) expect(openEdges(mesh)).toBe(0);
    const [{ z0, z1 }] = laid.grilles;
    // 500 wide, 90 high in a plinth of 150.
    expect(volume(whole[0].mesh) - volume(parts[0].mesh)).toBeCloseTo(0.5 * 0.09 * PLINTH, 7);
    const { low, high } = bounds([parts[1].mesh]);
    expect([low[2] > z0, high[2] < z1]).toEqual([true, true]);
    expect(high[0] - low[0]).toBeCloseTo(0.5, 6);
    expect((high[0] + low[0]) / 2).toBeCloseTo(0.3, 6);
    expect(high[1] - low[1]).toBeCloseTo(PLINTH, 6);
    // More than half of the opening is free.
    expect(volume(parts[1].mesh) / (0.5 * 0.09 * PLINTH)).toBeLessThan(0.5);
  });
});
