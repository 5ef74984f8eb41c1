import { describe, expect, it } from 'vitest';
import { newRun } from '../cabinetry/begin';
import { STYLES, styleIn, stylesIn } from '../cabinetry/styles';
import { FINISHES } from '../finishes/library';
import { PROFILES } from '../finishes/profiles';
import { deriveModel } from '../model/derive';
import { bodyOf, derivedOf } from '../model/model';
import { costByTrade } from '../schedules/costs';
import { compareSchemes } from '../schedules/schemes';
import { unitsSaid } from '../testing/cabinets';
import { box, change, edit, wallBy } from '../testing/drafting';
import { withScheme } from './choices';
import { validateProject } from './commands';
import { newOpening } from './opening-defaults';
import { apart, kitOfStyle, lookOf, StyleKit, styleFrom } from './joinery';
import type { Project } from './schema';

const room = box(5, 4);
const south = wallBy(room, [0, 0], [5, 0]);
const inside = Object.keys(room.rooms)[0];
const level = Object.keys(room.levels)[0];
const leg = { kind: 'wall' as const, wall: south, side: 'left' as const, room: inside };
const kitchen = edit(room, 'run.lay', { run: newRun('run-a', 'Kitchen', level, [leg], 'metric'), units: unitsSaid('600 drawers, 800 sink, 600 wall glazed') });
const [frame, oak] = STYLES;
const kit = (id: string) => kitOfStyle(kitchen, styleIn(kitchen, id)!);
const given = edit(kitchen, 'style.give', { kit: kit(frame.id), runs: ['run-a'] });
const finish = (p: Project, id: string, part: string): string => bodyOf(deriveModel(p), id)!.parts.find((q) => q.name === part)!.finish;

describe('joinery styles', () => {
  it('of the library are whole: their finishes and sections are there, their names differ', () => {
    for (const { look, parts } of STYLES) {
      for (const id of Object.values(parts)) expect(FINISHES.map((f) => f.id)).toContain(id);
      for (const { profile } of look.cornices) expect(PROFILES.map((p) => p.id)).toContain(profile);
    }
    expect(new Set(STYLES.map((s) => s.name)).size).toBe(STYLES.length);
    expect(stylesIn(given).map((s) => s.id)).toEqual([frame.id, ...STYLES.slice(1).map((s) => s.id)]);
  });

  it('say how a run looks, and what its parts are of; the project has its own copy', () => {
    expect(given.joinery[frame.id]).toEqual(frame);
    expect(derivedOf(deriveModel(given), 'runs')[0].look).toEqual(frame.look);
    expect(finish(given, 'run-a-0', 'fronts')).toBe(frame.parts.fronts);
    expect(finish(given, 'run-a', 'worktop')).toBe(frame.parts.worktop);
    expect(validateProject(JSON.parse(JSON.stringify(given)))).toEqual(given);
  });

  it('give way to what is chosen apart, which is said and brought back', () => {
    let p = edit(given, 'run.put', { ...given.runs['run-a'], look: { handles: 'cup', stile: frame.look.stile } });
    p = edit(p, 'unit.put', { ...p.cabinets['run-a-0'], look: { fronts: 'flat' }, finishes: { fronts: 'paint.reed' } });
    p = edit(p, 'finish.apply', { targets: [{ kind: 'part', of: 'run-a', part: 'plinth' }], finish: 'paint.soot' });
    const style = styleIn(p, frame.id);
    // A value that is chosen as the style says is not apart.
    expect(apart(p.runs['run-a'], style)).toEqual(['handles', 'plinth']);
    expect(apart(p.cabinets['run-a-0'], style)).toEqual(['fronts']);
    expect(lookOf(p.runs['run-a'], style).handles).toBe('cup');
    expect(derivedOf(deriveModel(p), 'runs')[0].units[0].look).toMatchObject({ fronts: 'flat', handles: 'cup' });
    const back = edit(p, 'style.return', { ids: ['run-a', 'run-a-0'] });
    expect(back.runs['run-a']).toEqual(given.runs['run-a']);
    expect(back.cabinets).toEqual(given.cabinets);
  });

  it('that are changed change all runs that are made in them, and nothing else', () => {
    const changed = edit(given, 'style.put', { ...frame, look: { ...frame.look, fronts: 'beaded' } });
    expect(derivedOf(deriveModel(changed), 'runs')[0].look.fronts).toBe('beaded');
    expect(changed.runs).toBe(given.runs);
    // What the project has made its own is not overwritten by giving it again.
    expect(edit(changed, 'style.give', { kit: kit(frame.id), runs: ['run-a'] }).joinery).toEqual(changed.joinery);
  });

  it('are undone to the identical project, and not deleted while runs are made in them', () => {
    const one = change(kitchen, 'style.give', { kit: kit(oak.id), runs: ['run-a'] });
    const undone = change(one.project, 'history.patch', { patches: one.inverse as never });
    expect(undone.project).toEqual(kitchen);
    expect(() => edit(given, 'delete', { ids: [frame.id] })).toThrow(/runs are made in it/);
    const none = edit(given, 'style.give', { kit: null, runs: ['run-a'] });
    expect(edit(none, 'delete', { ids: [frame.id] }).joinery).toEqual({});
  });

  it('are kept from a run, with the finishes of one’s own it needs, and fit another project', () => {
    const own = { ...FINISHES.find((f) => f.id === 'paint.reed')!, id: 'own-1', name: 'Own green' };
    let p = edit(given, 'finish.put', own);
    p = edit(p, 'finish.apply', { targets: [{ kind: 'part', of: 'run-a', part: 'fronts' }], finish: 'own-1' });
    const kept = StyleKit.parse(JSON.parse(JSON.stringify(kitOfStyle(p, styleFrom('style-own', 'Own', p.runs['run-a'], styleIn(p, frame.id))))));
    expect(kept.style.parts).toEqual({ ...frame.parts, fronts: 'own-1' });
    const other = edit(kitchen, 'style.give', { kit: kept, runs: ['run-a'] });
    expect(other.finishes['own-1'].name).toBe('Own green');
    expect(finish(other, 'run-a-0', 'fronts')).toBe('own-1');
    expect(() => edit(other, 'delete', { ids: ['own-1'] })).toThrow(/chosen somewhere/);
    expect(edit(other, 'finish.replace', { from: 'own-1', to: 'paint.soot', room: null }).joinery['style-own'].parts.fronts).toBe('paint.soot');
  });
});

describe('schemes', () => {
  it('choose styles, so that two kitchens are compared with what they cost', () => {
    let p = edit(given, 'scheme.add', { id: 'scheme-2', name: 'Oak', from: given.scheme });
    p = edit(p, 'scheme.choose', { id: 'scheme-2' });
    p = edit(p, 'style.give', { kit: kit(oak.id), runs: ['run-a'] });
    p = edit(p, 'unit.put', { ...p.cabinets['run-a-0'], look: { fronts: 'reeded' } });
    const [first, second] = [withScheme(p, given.scheme), p];
    expect([first.runs['run-a'].style, second.runs['run-a'].style]).toEqual([frame.id, oak.id]);
    expect([first.cabinets['run-a-0'].look, second.cabinets['run-a-0'].look]).toEqual([{}, { fronts: 'reeded' }]);
    expect(withScheme(first, 'scheme-2').runs).toEqual(second.runs);
    const { differences, costs } = compareSchemes(p, given.scheme, 'scheme-2');
    expect(differences).toContainEqual({ address: 'joinery/run-a', what: 'Kitchen, joinery style', first: frame.name, second: oak.name });
    // What differs is what the cabinets cost, and what their finishes do: all else of the order list is the same.
    const all = (q: Project): number => costByTrade(deriveModel(q)).reduce((sum, r) => sum + r.cost, 0);
    expect(costs[0] - costs[1]).not.toBe(0);
    expect(costs[0] - costs[1]).toBeCloseTo(all(first) - all(second), 6);
    expect(validateProject(JSON.parse(JSON.stringify(first)))).toEqual(first);
  });

  it('leave a run that was made in another one as it is', () => {
    let p = edit(room, 'scheme.add', { id: 'scheme-2', name: 'Second', from: room.scheme });
    p = edit(p, 'run.lay', { run: newRun('run-a', 'Kitchen', level, [leg], 'metric', oak.id), units: unitsSaid('600 door') });
    expect(edit(p, 'scheme.choose', { id: 'scheme-2' }).runs).toEqual(p.runs);
  });
});

describe('units that keep to something', () => {
  const windowed = edit(
    kitchen,
    'opening.add',
    newOpening(kitchen, { id: 'window-1', wall: south, kind: 'window', at: 2.2, width: 1.2, height: 1, sill: 1.1 }),
  );
  const middleOf = (p: Project, id: string): number => {
    const { footprint } = derivedOf(deriveModel(p), 'runs')[0].units.find((u) => u.unit.id === id)!.placed;
    const xs = footprint.map((q) => q.x);
    return (Math.min(...xs) + Math.max(...xs)) / 2;
  };

  it('stand under their opening wherever it goes, and beside the one before when it is gone', () => {
    const start = windowed.corners[windowed.walls[south].start].x;
    const way = windowed.corners[windowed.walls[south].end].x > start ? 1 : -1;
    const p = edit(windowed, 'unit.put', { ...windowed.cabinets['run-a-1'], middle: { of: 'opening', id: 'window-1' } });
    expect(middleOf(p, 'run-a-1')).toBeCloseTo(start + way * p.openings['window-1'].at, 6);
    const moved = edit(p, 'opening.set', { opening: 'window-1', set: { at: 3 } });
    expect(middleOf(moved, 'run-a-1')).toBeCloseTo(start + way * moved.openings['window-1'].at, 6);
    const gone = edit(moved, 'delete', { ids: ['window-1'] });
    expect(gone.cabinets['run-a-1'].middle).toBeNull();
  });

  it('hang in the middle of their wall', () => {
    const p = edit(kitchen, 'unit.put', { ...kitchen.cabinets['run-a-2'], middle: { of: 'leg' } });
    const { legs } = derivedOf(deriveModel(p), 'runs')[0];
    expect(middleOf(p, 'run-a-2')).toBeCloseTo((legs[0].from.x + legs[0].to.x) / 2, 6);
  });

  it('are as wide as another, whichever of them is changed, and by themselves again when that is gone', () => {
    let p = edit(kitchen, 'unit.put', { ...kitchen.cabinets['run-a-1'], like: 'run-a-0', width: 0.6 });
    p = edit(p, 'unit.put', { ...p.cabinets['run-a-0'], width: 0.7 });
    expect(['run-a-0', 'run-a-1'].map((id) => p.cabinets[id].width)).toEqual([0.7, 0.7]);
    const one = change(p, 'unit.put', { ...p.cabinets['run-a-1'], width: 0.5 });
    expect(['run-a-0', 'run-a-1'].map((id) => one.project.cabinets[id].width)).toEqual([0.5, 0.5]);
    expect(change(one.project, 'history.patch', { patches: one.inverse as never }).project).toEqual(p);
    const gone = edit(one.project, 'delete', { ids: ['run-a-0'] });
    expect([gone.cabinets['run-a-1'].like, gone.cabinets['run-a-1'].width]).toEqual([null, 0.5]);
  });
});
