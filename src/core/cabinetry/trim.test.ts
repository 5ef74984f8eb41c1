import fc from 'fast-check';
import { beforeAll, describe, expect, it } from 'vitest';
import { PROFILES } from '../finishes/profiles';
import { signedArea, totalArea } from '../geometry/polygon';
import { closedSection } from '../geometry/sweep';
import type { Run } from '../project/schema';
import { unitsSaid } from '../testing/cabinets';
import { loadKernel, openEdges, volume } from '../testing/solid';
import { assembleRun, runParts, unitParts, wallFoot } from './assemble';
import { newRun } from './begin';
import type { BackLine } from './run';
import { lengthOf } from './trim';

beforeAll(loadKernel);

const cove = PROFILES.find((p) => p.id === 'cornice-small')!;
const wall = (i: number): Run['legs'][number] => ({ kind: 'wall', wall: `w${i}`, side: 'left', room: 'r' });
const base = {
  ...newRun('run-a', 'Kitchen', 'ground', [wall(0)], 'metric'),
  look: { cornices: [{ profile: cove.id, up: 0, out: 0 }], pelmet: 0.04 },
  upstand: 0.1,
};
const line: BackLine[] = [{ from: { x: 0, y: 0 }, to: { x: 4, y: 0 } }];
const L: BackLine[] = [...line, { from: { x: 4, y: 0 }, to: { x: 4, y: -4 } }];
const laid = (words: string, over: Partial<Run> = {}, legs = line) => assembleRun({ ...base, ...over }, unitsSaid(words), legs);
const t = base.made.front;

describe('what finishes a run', () => {
  it('is a panel at each end that shows, and none at a wall, a neighbour as large, or where there is no room', () => {
    // At the left a wall, at the right room.
    const one = laid('600 door, 600 drawers');
    expect(one.trim.panels).toHaveLength(1);
    const xs = one.trim.panels[0].ring.map((p) => p.x);
    expect([Math.min(...xs), Math.max(...xs)]).toEqual([expect.closeTo(1.2, 9), expect.closeTo(1.2 + t, 9)]);
    expect([one.trim.panels[0].z0, one.trim.panels[0].z1]).toEqual([0, expect.closeTo(0.87, 9)]);
    // The worktop covers it.
    expect(Math.max(...one.worktop.regions.flatMap((r) => r.outer).map((p) => p.x))).toBeCloseTo(1.2 + t, 9);
    expect(laid('4000 door').trim.panels).toEqual([]);
    // A tall unit beside a low one shows its side above the worktop; a panel would find no room.
    const step = laid('600 larder, 600 door');
    expect(step.trim.clad.get(unitsSaid('600 larder')[0].id)).toEqual(['right']);
    const parts = unitParts(step.units[0], base.made);
    const plain = unitParts({ ...step.units[0], clad: [] }, base.made);
    const wood = (all: typeof parts, name: string): number => all.filter((p) => p.part === name).reduce((sum, p) => sum + volume(p.mesh), 0);
    expect(wood(parts, 'fronts') - wood(plain, 'fronts')).toBeCloseTo(wood(plain, 'carcass') - wood(parts, 'carcass'), 9);
    expect(wood(plain, 'carcass') - wood(parts, 'carcass')).toBeCloseTo(0.018 * 0.56 * 2.05, 3);
    expect(laid('600 door', { ends: 'bare' }).trim.panels).toEqual([]);
  });

  it('of what stands free is a panel at both ends and a back, and room for knees behind it', () => {
    const free: Run['legs'] = [{ kind: 'free', from: { x: 0, y: 0 }, to: { x: 1.8, y: 0 } }];
    const island = laid('600 door, 600 drawers, 600 open', { legs: free, behind: 0.3 }, [{ from: { x: 0, y: 0 }, to: { x: 1.8, y: 0 } }]);
    const ends = island.trim.panels.filter((p) => Math.min(...p.ring.map((q) => q.y)) < -0.3);
    expect(ends).toHaveLength(2);
    expect(island.trim.panels.filter((p) => Math.min(...p.ring.map((q) => q.y)) > -1e-9)).toHaveLength(3);
    const ys = island.worktop.regions.flatMap((r) => r.outer).map((p) => p.y);
    expect([Math.max(...ys), Math.min(...ys)]).toEqual([expect.closeTo(0.3, 9), expect.closeTo(-0.6, 9)]);
  });

  it('is a cornice and a pelmet that run along the fronts, return at ends that show, and end at what is taller', () => {
    const { trim } = laid('600 larder, 600 door, 600 door, 600 wall, 600 wall');
    // On the larder: along it, from the wall at its left; on what hangs: beside the larder, with a return at its right.
    expect(trim.cornices).toHaveLength(2);
    const [hung, tall] = trim.cornices;
    const deep = (d: number): number => d + t;
    expect(hung.z).toBeCloseTo(wallFoot(base.made) + 0.72, 9);
    // A panel stands at the free end.
    expect(lengthOf(hung)).toBeCloseTo(1.2 + t + deep(0.33), 9);
    // The larder is higher than what hangs beside it: its cornice returns there too.
    expect(lengthOf(tall)).toBeCloseTo(0.6 + (tall.stretches.length > 1 ? deep(0.56) : 0), 9);
    expect(lengthOf(trim.pelmets[0])).toBeCloseTo(1.2 + t + deep(0.33), 9);
  });

  it('has the volume of its section times its length, mitres and all, and is closed, round a corner too', () => {
    const words = '900 corner, 600 door, 600 wall corner, 600 wall';
    const legs: Run['legs'] = [wall(0), wall(1)];
    const run = { ...base, legs };
    const { trim } = laid(words, { legs }, L);
    const parts = runParts(laid(words, { legs }, L), run, L, [cove.points]);
    for (const { mesh, part } of parts) expect([part, openEdges(mesh)]).toEqual([part, 0]);
    const [edge] = trim.cornices;
    expect(edge.stretches).toHaveLength(4);
    const section = closedSection(cove.points);
    const area = signedArea(section);
    // About a corner a section goes as far as its middle does: so much more outside, so much less in the corner of the room.
    const middle =
      section.reduce((sum, p, i) => {
        const q = section[(i + 1) % section.length];
        return sum + ((p.x + q.x) * (p.x * q.y - q.x * p.y)) / 6;
      }, 0) / area;
    // Two returns turn outwards, one corner inwards.
    const outwards = 2 - 1;
    const cornice = parts.filter((p) => p.part === 'cornice').reduce((sum, p) => sum + volume(p.mesh), 0);
    expect(cornice).toBeCloseTo(area * (lengthOf(edge) + 2 * middle * outwards), 6);
  });

  it('lets the worktop fall to the floor at its ends, instead of a panel', () => {
    const { trim } = laid('600 door, 600 drawers', { falls: 'right' });
    expect(trim.panels).toEqual([]);
    expect(trim.falls).toHaveLength(1);
    expect([trim.falls[0].z0, trim.falls[0].z1]).toEqual([0, expect.closeTo(0.87, 9)]);
    expect(laid('600 door', { falls: 'left' }).trim.falls).toEqual([]);
  });

  it('takes the plinth back to the wall at ends that no panel closes, and round what stands free', () => {
    // A wardrobe that ends where its wall does not: no room for a panel beside it.
    const bare = laid('600 door, 600 drawers', { ends: 'bare' });
    const strip = 1.2 * 0.016;
    const side = (0.56 - 0.055 - 0.016 - 0.0006) * 0.016;
    expect(totalArea(bare.plinth)).toBeCloseTo(strip + side, 5);
    expect(totalArea(laid('600 door, 600 drawers').plinth)).toBeCloseTo(strip, 5);
    const legs = [{ kind: 'free', from: { x: 0, y: 0 }, to: { x: 1.2, y: 0 } }] as Run['legs'];
    const free = laid('600 door, 600 drawers', { ends: 'bare', legs }, [{ from: { x: 0, y: 0 }, to: { x: 1.2, y: 0 } }]);
    expect(free.plinth).toHaveLength(1);
    expect(free.plinth[0].holes).toHaveLength(1);
    // Sides that go down to the floor want none.
    expect(laid('600 door', { ends: 'bare', made: { ...base.made, build: 'imperial' } }).trim.returns).toEqual([]);
  });

  it('never lies over a unit, whatever stands where, and every solid of it is closed', () => {
    const word = fc.tuple(fc.integer({ min: 3, max: 9 }), fc.constantFrom('door', 'larder', 'drawers', 'wall', 'filler', 'space', 'washer', 'range cooker'));
    fc.assert(
      fc.property(
        fc.array(word, { minLength: 1, maxLength: 7 }),
        fc.constantFrom('none', 'left', 'right', 'both'),
        fc.integer({ min: 0, max: 4 }),
        (list, falls, start) => {
          const run = { ...base, falls, start: start / 10 } as Run;
          const long: BackLine[] = [{ from: { x: 0, y: 0 }, to: { x: 9, y: 0 } }];
          const own = assembleRun(run, unitsSaid(list.map(([w, kind]) => `${w * 100} ${kind}`).join(', ')), long);
          for (const { ring, z0 } of [...own.trim.panels, ...own.trim.falls]) {
            const [low, high] = [Math.min(...ring.map((p) => p.x)), Math.max(...ring.map((p) => p.x))];
            for (const { placed, unit } of own.units)
              if (unit.bare !== 'space' && (unit.band === 'wall') === z0 > 0.5)
                expect(Math.min(high, placed.stretch.to) - Math.max(low, placed.stretch.from)).toBeLessThan(1e-9);
          }
          for (const { mesh, part } of runParts(own, run, long, [cove.points])) expect([part, openEdges(mesh)]).toEqual([part, 0]);
        },
      ),
      { numRuns: 60 },
    );
  });
});
