import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { newRun } from '../cabinetry/begin';
import { deriveModel } from '../model/derive';
import { derivedOf } from '../model/model';
import { runChange } from '../project/commands';
import type { Project } from '../project/schema';
import { unitsSaid } from '../testing/cabinets';
import { STYLES } from '../cabinetry/styles';
import { box, change, edit, wallBy } from '../testing/drafting';
import { putUnit, sideBefore, type UnitPlaced } from './units';

// Inside, the room is 4.7 by 3.7 m; who faces the south wall has x = 4.85 at the left.
const room = box(5, 4);
const level = Object.keys(room.levels)[0];
const south = wallBy(room, [0, 0], [5, 0]);

let count = 0;
const newId = (what: string): string => `${what}-${count++}`;
const put = (project: Project, x: number, y: number, said: string): UnitPlaced => {
  const placed = putUnit(deriveModel(project), level, { x, y }, said, newId);
  if (typeof placed === 'string') throw new Error(placed);
  return placed;
};
const laid = (project: Project, x: number, y: number, said: string): Project => {
  const { run, units } = put(project, x, y, said);
  return edit(project, 'run.lay', { run, units });
};
const names = (project: Project): string[] =>
  Object.values(project.cabinets)
    .sort((a, b) => a.order - b.order)
    .map((u) => u.name);

describe('a run that begins', () => {
  it('is made as its project says, in the style its scheme has for new runs; others are made so by one step', () => {
    const first = laid(room, 2, 0.4, '600 drawers');
    const [{ id, made }] = Object.values(first.runs);
    const own = { ...made, base: { height: 0.65, depth: 0.5 }, stands: 'feet' as const };
    const done = change(first, 'construction.set', { made: own, runs: [id] });
    expect(done.project.runs[id].made).toEqual(own);
    expect(change(done.project, 'history.patch', { patches: done.inverse as never }).project).toEqual(first);
    const styled = edit(done.project, 'scheme.set', { id: first.scheme, set: { style: STYLES[0].id } });
    const { run } = put(styled, 2.5, 2, '900 pans');
    expect(run).toMatchObject({ made: own, style: STYLES[0].id, name: 'Island 1' });
    const plain = edit(done.project, 'construction.set', { made: null, runs: [] });
    expect(put(plain, 2.5, 2, '900 pans').run.made).toEqual(made);
    // Runs that are there stay as they are made.
    expect(plain.runs[id].made).toEqual(own);
  });
});

describe('where a unit is put', () => {
  it('begins a run along the face one points before, in steps, and flush where little is left', () => {
    expect(sideBefore(deriveModel(room), level, { x: 2, y: 0.4 })).toMatchObject({ wall: south, side: 'left', at: expect.closeTo(2.85, 6) });
    expect(put(room, 2, 0.4, '600 drawers').run).toMatchObject({ start: expect.closeTo(2.55, 6), legs: [{ wall: south }] });
    expect(put(room, 4.5, 0.4, '600 drawers').run.start).toBe(0);
    expect(put(room, 0.5, 0.4, '600 drawers').run.start).toBeCloseTo(4.7 - 0.6, 6);
    expect(put(room, 2, 0.4, '600 drawers').note).toBe('2550 from the left, 1550 from the right');
  });

  it('goes beside the units that stand there, where one points among them', () => {
    let project = laid(room, 4.5, 0.4, '600 drawers');
    project = laid(project, 4.1, 0.4, '800 sink');
    expect(names(project)).toEqual(['drawers', 'sink']);
    expect(Object.keys(project.runs)).toHaveLength(1);
    // Between the two, whose middles lie 0.3 and 1.0 m from the left.
    project = laid(project, 4.85 - 0.7, 0.4, '450 door');
    expect(names(project)).toEqual(['drawers', 'door', 'sink']);
    // What hangs is a row of its own.
    project = laid(project, 4.85 - 0.7, 0.4, '600 wall');
    project = laid(project, 4.85 - 0.2, 0.4, '500 wall');
    const [run] = derivedOf(deriveModel(project), 'runs');
    expect(run.hung.units.map((p) => p.stretch.to - p.stretch.from)).toEqual([expect.closeTo(0.5, 9), expect.closeTo(0.6, 9)]);
    // Far from it another one begins.
    expect(Object.keys(laid(project, 0.5, 0.4, '600 larder').runs)).toHaveLength(2);
  });

  it('goes round the corner with a corner unit, and on along the next wall', () => {
    let project = laid(room, 0.5, 0.4, '900 corner');
    expect(Object.values(project.runs)[0].legs).toHaveLength(2);
    project = laid(project, 0.4, 1.5, '600 drawers');
    expect(names(project)).toEqual(['corner', 'drawers']);
    expect(Object.keys(project.runs)).toHaveLength(1);
  });

  it('says in a sentence why it goes nowhere, and changes nothing', () => {
    const model = deriveModel(room);
    expect(putUnit(model, level, { x: 9, y: 9 }, '600 drawers', newId)).toBe('Point into a room, or at the face of a wall that a room sees.');
    expect(putUnit(model, level, { x: 2.5, y: 2 }, '600 wall', newId)).toContain('It hangs on a wall');
    expect(putUnit(model, level, { x: 2.5, y: 2 }, 'corner', newId)).toContain('where two walls meet');
    expect(putUnit(model, level, { x: 2.5, y: 2 }, 'rest door', newId)).toContain('has a width');
    expect(putUnit(deriveModel(box(3, 2)), level, { x: 0.3, y: 1 }, '3000 drawers', newId)).toMatch(/^It is 1300 wider than there is room along this wall\.$/);
    expect(putUnit(model, level, { x: 2, y: 0.3 }, '600 nothing', newId)).toContain('names no unit');
  });

  it('stands free in the room, its fronts to the run along the nearest wall, and grows to both sides', () => {
    let project = laid(laid(room, 4.5, 0.4, '600 drawers'), 4.1, 0.4, '800 sink');
    project = laid(project, 2.5, 2.1, '600 pans');
    const island = Object.values(project.runs).find((r) => r.legs[0].kind === 'free')!;
    expect(island.name).toBe('Island 1');
    const derived = () => derivedOf(deriveModel(project), 'runs').find((r) => r.id === island.id)!;
    const [unit] = derived().units;
    // The run stands at the south wall: the fronts of the island look south, its back lies north of what one points at.
    const ys = unit.placed.footprint.map((p) => p.y);
    expect(Math.max(...ys)).toBeCloseTo(2.4, 1);
    expect(Math.abs((Math.max(...ys) + Math.min(...ys)) / 2 - 2.1)).toBeLessThan(0.05);
    const start = Math.max(...unit.placed.footprint.map((p) => p.x));
    const words = (): string[] => derived().units.map((u) => u.unit.name);
    // Who faces its fronts stands south of it and looks north: its left is the west.
    const [{ from, to }] = derived().legs;
    expect(to.x).toBeGreaterThan(from.x);
    project = laid(project, to.x + 0.2, 2.1, '300 wine cooler');
    expect(words()).toEqual(['pans', 'wine cooler']);
    expect(derived().legs[0].to.x).toBeCloseTo(to.x + 0.3, 9);
    project = laid(project, from.x - 0.2, 2.1, '600 open');
    expect(words()).toEqual(['open', 'pans', 'wine cooler']);
    // What stood there stands there still.
    const pans = derived().units.find((u) => u.unit.name === 'pans')!;
    expect(Math.max(...pans.placed.footprint.map((p) => p.x))).toBeCloseTo(start, 9);
    expect(derived().floor.lacks[0]).toBeCloseTo(0, 9);
    expect(derived().floor.gaps).toEqual([]);
    // A width that is changed makes it longer: nothing is too long for a line in the room.
    project = edit(project, 'unit.put', { ...project.cabinets[pans.unit.id], width: 0.9 });
    expect([derived().floor.lacks, derived().floor.gaps]).toEqual([[expect.closeTo(0, 9)], []]);
  });

  it('keeps every leg of a run of several that stands free, and makes a line longer whose units share it', () => {
    const at = (x: number, y: number) => ({ x, y });
    const legs = [
      { kind: 'free' as const, from: at(1.2, 2.6), to: at(3.4, 2.6) },
      { kind: 'free' as const, from: at(3.4, 2.6), to: at(3.4, 1.2) },
    ];
    const run = (id: string, own: typeof legs) => ({ ...newRun(id, 'Bar', level, own, 'metric') });
    const two = edit(room, 'run.lay', { run: run('bar', legs), units: unitsSaid('600 door, corner', 'bar') });
    const [unit] = derivedOf(deriveModel(two), 'runs')[0].units;
    const middle = unit.placed.footprint.reduce((s, p) => at(s.x + p.x / 4, s.y + p.y / 4), at(0, 0));
    expect(put(two, middle.x - 0.1, middle.y, '300 door').run.legs).toHaveLength(2);
    const one = edit(room, 'run.lay', { run: run('bar', legs.slice(0, 1)), units: unitsSaid('rest door, rest door', 'bar') });
    const [leg] = put(one, 3.5, 2.4, '600 drawers').run.legs;
    expect(leg).toMatchObject({ from: at(1.2, 2.6), to: { x: expect.closeTo(4, 9), y: 2.6 } });
  });

  it('wherever one presses, and whatever one puts there, can be laid out; what stands there already stays in its order', () => {
    const point = fc.record({ x: fc.double({ min: -0.2, max: 5.2, noNaN: true }), y: fc.double({ min: -0.2, max: 4.2, noNaN: true }) });
    const said = fc.constantFrom('600 drawers', '450 door', '600 wall', '600 larder', '50 filler', '1200 sink');
    fc.assert(
      fc.property(fc.array(fc.tuple(point, said), { minLength: 1, maxLength: 8 }), (presses) => {
        let project = room;
        for (const [{ x, y }, words] of presses) {
          const placed = putUnit(deriveModel(project), level, { x, y }, words, newId);
          if (typeof placed === 'string') continue;
          const done = runChange(project, { id: newId('change-of'), kind: 'do', command: 'run.lay', args: { run: placed.run, units: placed.units } });
          const before = Object.values(project.cabinets)
            .filter((u) => u.run === placed.run.id)
            .sort((a, b) => a.order - b.order);
          const rest = Object.values(done.project.cabinets)
            .filter((u) => u.run === placed.run.id && u.id !== placed.unit)
            .sort((a, b) => a.order - b.order);
          expect(rest.map((u) => u.id)).toEqual(before.map((u) => u.id));
          project = done.project;
        }
      }),
      { numRuns: 40 },
    );
  });
});
