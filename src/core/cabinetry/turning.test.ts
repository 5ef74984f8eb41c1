import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { deriveModel } from '../model/derive';
import { derivedOf } from '../model/model';
import { distance } from '../geometry/vec';
import { unitsSaid } from '../testing/cabinets';
import { box, edit, wallBy } from '../testing/drafting';
import { newRun } from './begin';
import { legAlong } from './sides';
import { lyingOf, turnedTo } from './turning';

const room = box(6, 6);
const [level] = Object.keys(room.levels);

describe('a run that stands free', () => {
  it('is turned about its middle to an angle, as long and as deep as it was, and back', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 6.28, noNaN: true }), fc.double({ min: 0, max: 6.28, noNaN: true }), (first, second) => {
        const legs = [{ kind: 'free' as const, from: { x: 2, y: 3 }, to: { x: 2 + 1.8 * Math.cos(first), y: 3 + 1.8 * Math.sin(first) } }];
        const run = newRun('run-a', 'Island', level, legs, 'metric');
        const derive = (r: typeof run) => derivedOf(deriveModel(edit(room, 'run.lay', { run: r, units: unitsSaid('900 pans, 900 door', r.id) })), 'runs')[0];
        const before = derive(run);
        expect(lyingOf(before, run)).toBeCloseTo(first, 6);
        const turned = { ...run, legs: turnedTo(before, run, second) };
        const after = derive(turned);
        expect(Math.cos(lyingOf(after, turned)! - second)).toBeCloseTo(1, 9);
        const middle = (r: typeof before): { x: number; y: number } => {
          const all = r.units.flatMap((u) => u.placed.footprint);
          return { x: all.reduce((s, p) => s + p.x / all.length, 0), y: all.reduce((s, p) => s + p.y / all.length, 0) };
        };
        expect(distance(after.legs[0].from, after.legs[0].to)).toBeCloseTo(1.8, 5);
        expect(distance(middle(before), middle(after))).toBeLessThan(1e-5);
        const back = derive({ ...run, legs: turnedTo(after, turned, first) });
        expect(distance(back.legs[0].from, before.legs[0].from)).toBeLessThan(1e-5);
      }),
      { numRuns: 60 },
    );
  });

  it('keeps its middle through quarter turns, and what is at a wall has no angle', () => {
    const legs = [{ kind: 'free' as const, from: { x: 2, y: 3 }, to: { x: 3.8, y: 3 } }];
    let run = newRun('run-a', 'Island', level, legs, 'metric');
    const derive = (r: typeof run) => derivedOf(deriveModel(edit(room, 'run.lay', { run: r, units: unitsSaid('900 pans, 900 door', r.id) })), 'runs')[0];
    for (let k = 1; k <= 4; k++) run = { ...run, legs: turnedTo(derive(run), run, (k * Math.PI) / 2) };
    expect(run.legs).toEqual(legs);
    const wall = newRun('run-b', 'Run', level, [legAlong({ wall: wallBy(room, [0, 0], [6, 0]), side: 'left', room: Object.keys(room.rooms)[0] })], 'metric');
    expect(lyingOf(derive(wall), wall)).toBeNull();
  });
});
