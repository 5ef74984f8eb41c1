import { applyPatches } from 'immer';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { heronLockCottage } from '../demo/heron-lock';
import { edit, house } from '../testing/drafting';
import { newBeam, newFence, newGround, newSlab, newVoid, rectangleOf } from './built-defaults';
import { runChange, validateProject } from './commands';
import { newDormer } from './dormers';
import { levelAbove, levelBelow } from './levels';
import { anchorOf, cornersOf, withAnchor, withCorners, type Put } from './putting';
import { newRoof } from './roof-defaults';
import { STAIR_FORMS, type Project } from './schema';
import { holesIn, newStair } from './stairs';
import { collections } from './kinds';
import { collectionOf } from './things';

/** Two levels under a gable roof. */
function storeys(): Project {
  let project = house([
    [0, 0],
    [9, 0],
    [9, 7],
    [0, 7],
  ]);
  project = edit(project, 'level.add', { id: 'upper', name: 'Upper', of: 'ground', where: 'above', walls: 'all', height: 2.4, slab: 0.25 });
  return edit(project, 'roof.put', { roof: newRoof(project, { id: 'roof', level: 'upper' }, 'gable') });
}

const base = storeys();
const at = fc.double({ min: 1, max: 5, noNaN: true });

/** One edit of what this stretch brought, anywhere in the house. */
const puts = fc.tuple(fc.integer({ min: 0, max: 9 }), at, at, fc.constantFrom(...STAIR_FORMS)).map(([kind, x, y, form]): ((p: Project, n: number) => Put) => {
  const ring = rectangleOf({ x, y }, { x: x + 1.2, y: y + 1 });
  const put = (command: Put['command'], args: unknown): Put => ({ command, args }) as Put;
  return (p, n) => {
    const id = `thing-${n}`;
    switch (kind) {
      case 0:
        return put('stair.put', newStair(p, { id, level: 'ground', x, y, form }));
      case 1:
        return put('void.put', newVoid(p, { id, level: 'upper', points: ring }));
      case 2:
        return put('slab.put', newSlab(p, { id, level: 'ground', kind: 'mezzanine', points: ring }));
      case 3:
        return put('beam.put', newBeam(p, { id, level: 'ground', a: { x, y, z: 2 }, b: { x: x + 2, y, z: 2.3 } }));
      case 4:
        return put('ground.put', newGround(p, { id, kind: 'pool', points: ring }));
      case 5:
        return put('fence.put', newFence(p, { id, kind: 'hedge', points: ring }));
      case 6:
        return put('dormer.put', { ...newDormer(p, { id, roof: 'roof' })!, at: x });
      case 7:
        return put('contents.group', { id, name: 'Some', members: Object.keys(p.stairs) });
      case 8:
        return put('contents.hide', { ids: [...Object.keys(p.stairs), 'roof'], hidden: x > 3 });
      default:
        return put('delete', { ids: [...Object.keys(p.stairs).slice(0, 1), ...Object.keys(p.dormers).slice(0, 1), 'none'] });
    }
  };
});

describe('edits upwards and outside', () => {
  it('are undone to the identical project, one after another, and leave a valid one', () => {
    let done = 0;
    fc.assert(
      fc.property(fc.array(puts, { minLength: 2, maxLength: 8 }), (list) => {
        let project = base;
        const back: { before: Project; inverse: Parameters<typeof applyPatches>[1] }[] = [];
        list.forEach((make, n) => {
          const { command, args } = make(project, n);
          try {
            const outcome = runChange(project, { id: `change${n}`, kind: 'do', command, args });
            back.push({ before: project, inverse: outcome.inverse });
            project = outcome.project;
            done++;
          } catch (error) {
            // Refused with one sentence, and nothing lost.
            expect(String(error)).toMatch(/\.$/);
          }
        });
        expect(() => validateProject(structuredClone(project))).not.toThrow();
        for (const { before, inverse } of back.reverse()) {
          project = applyPatches(project, inverse);
          expect(project).toEqual(before);
        }
      }),
      { numRuns: 60 },
    );
    expect(done).toBeGreaterThan(100);
  });

  it('move a thing by its anchor, and one corner by itself', () => {
    const demo = heronLockCottage();
    for (const id of ['deck', 'canal', 'hedge', 'stair-main']) {
      const from = anchorOf(demo, id)!;
      const { command, args } = withAnchor(demo, id, { x: from.x + 1, y: from.y + 2 })!;
      const moved = edit(demo, command, args as never);
      expect(anchorOf(moved, id)).toEqual({ x: expect.closeTo(from.x + 1, 9), y: expect.closeTo(from.y + 2, 9) });
      const [before, after] = [cornersOf(demo, id), cornersOf(moved, id)];
      before?.forEach((p, i) => expect(after![i]).toEqual({ x: expect.closeTo(p.x + 1, 9), y: expect.closeTo(p.y + 2, 9) }));
    }
    const points = cornersOf(demo, 'deck')!.map((p, i) => (i === 2 ? { x: p.x + 0.5, y: p.y } : p));
    const { command, args } = withCorners(demo, 'deck', [...points])!;
    expect(edit(demo, command, args as never).slabs.deck.points[2].x).toBeCloseTo(14.1, 9);
    expect(anchorOf(demo, Object.keys(demo.walls)[0])).toBeNull();
    // A roof on its walls has no anchor of its own; one over an outline has, and is moved as one.
    expect(anchorOf(demo, 'roof-main')).toBeNull();
    const free = edit(demo, 'roof.put', {
      roof: newRoof(demo, { id: 'shelter', level: 'ground', over: { kind: 'outline', points: rectangleOf({ x: 20, y: 0 }, { x: 24, y: 3 }) } }, 'hip'),
    });
    const shifted = withAnchor(free, 'shelter', { x: 21, y: 1 })!;
    expect(cornersOf(edit(free, shifted.command, shifted.args as never), 'shelter')![2]).toEqual({ x: 25, y: 4 });
  });

  it('rename, lock, hide and group what there is, and refuse what there is not', () => {
    let project = storeys();
    project = edit(project, 'stair.put', newStair(project, { id: 's', level: 'ground', x: 2, y: 1 }));
    expect(edit(project, 'thing.rename', { id: 's', name: 'Main stair' }).stairs.s.name).toBe('Main stair');
    expect(() => edit(project, 'thing.rename', { id: 'nobody', name: 'X' })).toThrow(/no name of its own/);
    const held = edit(project, 'contents.hold', { ids: ['s'], held: true });
    expect(() => edit(held, 'delete', { ids: ['s'] })).toThrow(/held; let go first/);
    expect(edit(edit(held, 'contents.hold', { ids: ['s'], held: false }), 'delete', { ids: ['s'] }).stairs).toEqual({});
    let grouped = edit(project, 'contents.group', { id: 'g', name: 'Up', members: ['s', 'roof'] });
    grouped = edit(grouped, 'contents.group', { id: 'h', name: 'Other', members: ['s'] });
    expect(Object.values(grouped.contents.groups).map((g) => g.members)).toEqual([['roof'], ['s']]);
    const gone = edit(edit(grouped, 'contents.hide', { ids: ['s'], hidden: true }), 'delete', { ids: ['s'] });
    expect([gone.contents.hidden, gone.contents.groups.h.members]).toEqual([[], []]);
  });

  it('a building apart stands for itself: its levels carry nothing of the house', () => {
    let project = storeys();
    project = edit(project, 'level.add', { id: 'shed', name: 'Shed', of: 'ground', where: 'apart', walls: 'outer', height: 2.2, slab: 0.2 });
    expect(project.levels.shed).toMatchObject({ structure: 'Shed', elevation: expect.closeTo(-0.11, 9) });
    expect(Object.values(project.walls).some((w) => w.level === 'shed')).toBe(false);
    expect([levelAbove(project, 'ground')?.id, levelBelow(project, 'upper')?.id]).toEqual(['upper', 'ground']);
    expect([levelAbove(project, 'shed'), levelBelow(project, 'shed')]).toEqual([null, null]);
    const raised = edit(project, 'level.set', { id: 'ground', set: { height: 2.8 } });
    expect([raised.levels.upper.elevation, raised.levels.shed.elevation]).toEqual([expect.closeTo(3.05, 9), expect.closeTo(-0.11, 9)]);
  });

  it('a stair follows the height between levels, and so does its void', () => {
    let project = storeys();
    project = edit(project, 'stair.put', newStair(project, { id: 's', level: 'ground', x: 4, y: 1 }));
    const low = holesIn(project, 'upper');
    const high = holesIn(edit(project, 'level.set', { id: 'ground', set: { height: 3 } }), 'upper');
    expect(low).toHaveLength(1);
    const reach = (r: typeof low): number => Math.max(...r[0].outer.map((p) => p.y));
    expect(reach(high)).toBeGreaterThan(reach(low));
    // A removed stair leaves the floor whole in the house as it will be.
    const gone = edit(project, 'status.set', { ids: ['s'], status: 'removed' });
    expect(gone.stairs.s.status).toBe('removed');
  });
});

describe('things', () => {
  it('are found in their collections, every collection by its name', () => {
    const demo = heronLockCottage();
    for (const name of collections()) for (const id of Object.keys(demo[name]).slice(0, 3)) expect(collectionOf(demo, id)).toBe(name);
    expect(collectionOf(demo, 'no such thing')).toBeNull();
  });

  it('of version 2 are brought up to date: nothing upwards, the ground where it was', () => {
    const now = storeys();
    const { dormers: _d, stairs: _s, voids: _v, slabs: _b, beams: _e, grounds: _g, fences: _f, contents: _o, site, ...rest } = structuredClone(now);
    const { ground: _ground, background: _background, ...place } = site;
    const roofs = Object.fromEntries(Object.entries(rest.roofs).map(([id, { framing: _1, ...roof }]) => [id, roof]));
    const levels = Object.fromEntries(Object.entries(rest.levels).map(([id, { structure: _3, finishes: _2, ...level }]) => [id, level]));
    const project = validateProject({ ...rest, roofs, levels, site: place, version: 2 });
    expect(project).toEqual(now);
  });
});
