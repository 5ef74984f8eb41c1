import { describe, expect, it } from 'vitest';
import { heronLockCottage } from '../demo/heron-lock';
import { plainHouse, random, randomEdit } from '../testing/random';
import { edit } from '../testing/drafting';
import { applyDelta, deltaOf } from './delta';

describe('what has changed between two states', () => {
  it('brings the one to the other, sent as data, and leaves everything else the same object', () => {
    for (let seed = 1; seed <= 20; seed++) {
      const next = random(seed * 31);
      let project = plainHouse(next);
      let held = applyDelta(null, structuredClone(deltaOf(null, project)));
      for (let n = 0; n < 15; n++) {
        const after = randomEdit(project, next, n);
        const delta = deltaOf(project, after);
        const now = applyDelta(held, structuredClone(delta));
        expect(now).toEqual(after);
        for (const key of Object.keys(after) as (keyof typeof after)[]) if (project[key] === after[key]) expect(now[key]).toBe(held[key]);
        for (const id of Object.keys(after.walls)) if (project.walls[id] === after.walls[id]) expect(now.walls[id]).toBe(held.walls[id]);
        [project, held] = [after, now];
      }
    }
  });

  it('is nothing where nothing has, and a few things where few were touched', () => {
    const demo = heronLockCottage();
    expect(deltaOf(demo, demo)).toEqual({ whole: {}, tables: {} });
    const renamed = edit(demo, 'project.rename', { name: 'Other' });
    expect(deltaOf(demo, renamed)).toEqual({ whole: { name: 'Other' }, tables: {} });
    const wall = Object.keys(demo.walls)[0];
    const moved = edit(demo, 'wall.set', { wall, set: { base: 0.05 } });
    expect(JSON.stringify(deltaOf(demo, moved)).length).toBeLessThan(JSON.stringify(demo).length / 50);
  });
});
