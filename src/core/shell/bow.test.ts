import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { deriveModel } from '../model/derive';
import { takeOff } from '../schedules/takeoff';
import { emptyProject, type Moulding, type Project } from '../project/schema';
import { draw, edit } from '../testing/drafting';

/** A round room: four quarters of a circle, their reference line of the radius. */
const round = (radius: number, thickness: number): Project =>
  draw(emptyProject('p', 'Round'), [[radius, 0], [0, radius], [-radius, 0], [0, -radius]], { closed: true, thickness, bulges: Array.from({ length: 4 }, () => Math.tan(Math.PI / 8)) }); // prettier-ignore

const only = (p: Project) => [...deriveModel(p).shell.rooms.values()][0];

describe('rooms with arcs', () => {
  it('a round room has the area and the circumference of its circle, not of a polygon in it', () => {
    fc.assert(
      fc.property(fc.double({ min: 1.2, max: 6, noNaN: true }), fc.constantFrom(0.1, 0.2, 0.3), (radius, thickness) => {
        const p = round(radius, thickness);
        const own = only(p);
        const r = radius - thickness / 2;
        expect(own.area / (Math.PI * r * r)).toBeCloseTo(1, 4);
        expect(own.perimeter / (2 * Math.PI * r)).toBeCloseTo(1, 4);
        const walls = own.sides.reduce((sum, s) => sum + s.area, 0);
        expect(walls / (2 * Math.PI * r * own.height)).toBeCloseTo(1, 4);
        expect(own.highArea / own.area).toBeCloseTo(1, 9);
        // The polygon alone is less by some thousandths.
        expect(own.bowed / own.area).toBeGreaterThan(1e-4);
      }),
      { numRuns: 30 },
    );
  });

  it('a bay is a segment of a circle beside its rectangle', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.1, max: 0.9, noNaN: true }), fc.double({ min: 2, max: 6, noNaN: true }), fc.boolean(), (bulge, width, inwards) => {
        // The south wall curves out of the room or into it; drawn counter-clockwise the room lies at the left of every wall.
        // Where an arc comes back at an acute angle the corner is cut off, and the outline is another.
        fc.pre(!inwards || bulge < 0.35);
        const t = 0.1;
        const own = only(
          draw(emptyProject('p', 'Bay'), [[0, 0], [width, 0], [width, 5], [0, 5]], { closed: true, thickness: t, bulges: [inwards ? -bulge : bulge, 0, 0, 0] }), // prettier-ignore
        );
        const half = 2 * Math.atan(bulge);
        const r = width / 2 / Math.sin(half);
        const face = inwards ? r + t / 2 : r - t / 2;
        const foot = (x: number): number => (inwards ? -1 : 1) * (r * Math.cos(half) - Math.sqrt(face * face - (x - width / 2) ** 2));
        // The room between its upright walls, by Simpson's rule.
        const n = 2000;
        const [x0, x1] = [t / 2, width - t / 2];
        let area = 0;
        for (let i = 0; i <= n; i++) {
          const weight = i === 0 || i === n ? 1 : i % 2 ? 4 : 2;
          area += (weight * (5 - t / 2 - foot(x0 + ((x1 - x0) * i) / n)) * (x1 - x0)) / n / 3;
        }
        expect(Math.abs(own.area / area - 1)).toBeLessThan(1e-4);
        const around = 2 * face * Math.asin((width / 2 - t / 2) / face) + (x1 - x0) + 2 * (5 - t / 2 - foot(x0));
        expect(Math.abs(own.perimeter / around - 1)).toBeLessThan(5e-4);
      }),
      { numRuns: 40 },
    );
  });

  it('what is taken off of floor, ceiling and walls is what the room says', () => {
    let p = round(2.5, 0.2);
    const [room] = Object.keys(p.rooms);
    p = edit(p, 'finish.apply', { targets: [{ kind: 'walls', room }, { kind: 'floor', room }, { kind: 'ceiling', room }], finish: 'paint.reed' }); // prettier-ignore
    const skirting: Moulding = {
      id: 'm',
      name: 'Skirting',
      room,
      kind: 'skirting',
      profile: 'skirting-plain',
      height: null,
      at: null,
      without: [],
      finish: 'paint.reed',
    };
    p = edit(p, 'moulding.put', { mouldings: [skirting] });
    const model = deriveModel(p);
    expect(model.shell.levels[0].mouldings[0].length).toBeCloseTo(2 * Math.PI * 2.4, 2);
    const own = model.shell.rooms.get(room)!;
    const lots = takeOff(model).filter((l) => l.room === room && l.kind !== 'thing');
    const of = (kind: string): number => lots.filter((l) => l.kind === kind && l.what !== 'wall end').reduce((sum, l) => sum + l.area, 0);
    const r = 2.4;
    expect(of('ceiling')).toBeCloseTo(Math.PI * r * r, 2);
    expect(of('wall')).toBeCloseTo(
      own.sides.reduce((sum, s) => sum + s.area, 0),
      2,
    );
    expect(of('floor')).toBeCloseTo(Math.PI * r * r, 2);
  });
});
