import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { heronLockCottage } from '../demo/heron-lock';
import { hoursOf, lastPlace, lined, momentText, moved, nextOf, wishes, type Order } from './orders';

const demo = heronLockCottage();
const order = (id: string, place: number, state: Order['state'] = 'waiting'): Order => ({ id, place, state }) as Order;

describe('several pictures at once', () => {
  const viewpoints = ['view-kitchen', Object.keys(demo.viewpoints).find((id) => id !== 'view-kitchen')!];
  const schemes = Object.keys(demo.schemes);

  it('are every viewpoint with every scheme at every moment, each named by what tells it from the others', () => {
    const moments = ['2026-06-21T09:00', '2026-06-21T18:30'];
    const list = wishes(demo, { viewpoints, schemes, moments });
    expect(list).toHaveLength(2 * schemes.length * 2);
    expect(new Set(list.map((w) => w.name)).size).toBe(list.length);
    expect(list.map((w) => w.name)).toContain(`${demo.viewpoints['view-kitchen'].name}, ${demo.schemes[schemes[0]].name}, 09:00`);
    // They come in the order of the project, however they were chosen.
    expect(wishes(demo, { viewpoints: viewpoints.toReversed(), schemes: schemes.toReversed(), moments })).toEqual(list);
    for (const { project, viewpoint, shot } of list) {
      expect(moments).toContain(project.site.moment);
      expect(schemes).toContain(project.scheme);
      expect(shot.camera.eye).toEqual(viewpoint.eye);
      expect(shot.round).toBe(false);
    }
    // The project itself stays as it is.
    expect(demo.site.moment).not.toBe(moments[0]);
  });

  it('keep plain names where there is nothing to tell apart, and say the day where days differ', () => {
    const at = [demo.site.moment];
    expect(wishes(demo, { viewpoints: ['view-kitchen'], schemes: [demo.scheme], moments: at })[0].name).toBe(demo.viewpoints['view-kitchen'].name);
    // The very project where nothing is another.
    expect(wishes(demo, { viewpoints: ['view-kitchen'], schemes: [demo.scheme], moments: at })[0].project).toBe(demo);
    const days = wishes(demo, { viewpoints: ['view-kitchen'], schemes: [demo.scheme], moments: ['2026-06-21T09:00', '2026-12-21T09:00'] });
    expect(days[1].name).toMatch(/, 21 December, 09:00$/);
    expect(wishes(demo, { viewpoints: ['gone'], schemes, moments: at })).toEqual([]);
    expect(wishes(demo, { viewpoints, schemes: ['gone'], moments: at })).toEqual([]);
  });

  it('of a day come at even hours', () => {
    expect(hoursOf('2026-03-20', 8 * 60, 12 * 60, 120)).toEqual(['2026-03-20T08:00', '2026-03-20T10:00', '2026-03-20T12:00']);
    expect(hoursOf('2026-03-20', 23 * 60, 30 * 60, 45)).toEqual(['2026-03-20T23:00', '2026-03-20T23:45']);
    expect(hoursOf('2026-03-20', 600, 500, 30)).toEqual([]);
    expect(hoursOf('2026-03-20', 0, 500, 0)).toEqual([]);
    expect(momentText('2026-05-12T10:30')).toBe('12 May, 10:30');
  });
});

describe('a line of orders', () => {
  it('makes first what comes first and is not held', () => {
    const line = [order('c', 2), order('a', 0, 'held'), order('b', 1, 'failed')];
    expect(lined(line).map((o) => o.id)).toEqual(['a', 'b', 'c']);
    expect(nextOf(line)!.id).toBe('c');
    expect(nextOf([order('a', 0, 'held')])).toBeNull();
    expect(lastPlace(line)).toBe(3);
    expect(lastPlace([])).toBe(0);
  });

  it('lets one go before or behind its neighbour, and no other moves', () => {
    const places = fc.array(fc.integer({ min: 0, max: 5 }), { minLength: 1, maxLength: 7 });
    fc.assert(
      fc.property(places, fc.nat(6), fc.constantFrom<-1 | 1>(-1, 1), (all, which, by) => {
        const line = all.map((place, i) => order(`o${i}`, place));
        const before = lined(line).map((o) => o.id);
        const at = which % line.length;
        const changed = new Map(moved(line, before[at], by).map((o) => [o.id, o]));
        const after = lined(line.map((o) => changed.get(o.id) ?? o)).map((o) => o.id);
        const expected = [...before];
        if (before[at + by] !== undefined) [expected[at], expected[at + by]] = [expected[at + by], expected[at]];
        expect(after).toEqual(expected);
      }),
    );
  });
});
