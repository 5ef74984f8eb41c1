import fc from 'fast-check';
import { beforeAll, describe, expect, it } from 'vitest';
import { drawRunUpright } from '../drawing/elevation/cabinets';
import { deriveModel } from '../model/derive';
import { bodyOf, derivedOf } from '../model/model';
import { newOpening } from '../project/opening-defaults';
import type { Project, Run } from '../project/schema';
import { CORNERS, STANDS } from '../project/schema/cabinets';
import { unitsSaid } from '../testing/cabinets';
import { box, edit, wallBy } from '../testing/drafting';
import { loadKernel, openEdges } from '../testing/solid';
import { levelledTo, levelsFor, upToCeiling } from './ceiling';
import { newRun } from './begin';
import { CONSTRUCTIONS } from './figures';
import { legAlong, legsAround } from './sides';

beforeAll(loadKernel);

const room = box(5, 4);
const [level] = Object.keys(room.levels);
const leg = legAlong({ wall: wallBy(room, [0, 0], [5, 0]), side: 'left', room: Object.keys(room.rooms)[0] });

function laid(line: string, more: Partial<Run> = {}): { project: Project; run: Run } {
  const own: Run = { ...newRun('run-a', 'Kitchen', level, [leg], 'metric'), ...more };
  const units = unitsSaid(line);
  const run = { ...own, legs: legsAround(own, units, deriveModel(room).shell) };
  return { project: edit(room, 'run.lay', { run, units }), run };
}
const derive = (p: Project) => derivedOf(deriveModel(p), 'runs')[0];
const heights = (p: Project, id: string, of: (name: string) => boolean = () => true): [number, number] => {
  const body = bodyOf(deriveModel(p), id)!;
  const zs = body.parts
    .filter((part) => of(part.name))
    .flatMap((part) => [...part.mesh.positions].filter((_, i) => i % 3 === 2).map((z) => z + body.matrix[14]));
  return [Math.min(...zs), Math.max(...zs)];
};

describe('units up to the ceiling', () => {
  it('get a row of fronts more, as high as there is room, and are as high as that lets them be', () => {
    const { project, run } = laid('600 larder, 600 drawers, 600 wall, 900 wall glazed');
    const before = derive(project);
    expect(before.ceiling).toBeCloseTo(2.5, 9);
    const all = before.units.map((u) => u.unit);
    const units = upToCeiling(before, all);
    if (typeof units === 'string') throw new Error(units);
    const next = edit(project, 'run.lay', { run, units });
    for (const id of ['run-a-0', 'run-a-2', 'run-a-3']) {
      // 20 are left to bring them in.
      expect(heights(next, id)[1]).toBeCloseTo(2.5 - 0.02, 4);
      for (const part of bodyOf(deriveModel(next), id)!.parts) expect([id, part.name, openEdges(part.mesh)]).toEqual([id, part.name, 0]);
    }
    // What hangs had 720, and gets a row of 380 over it; glass over glass.
    expect(units[2].front).toMatchObject([{ height: expect.closeTo(0.38, 6), cells: [{ kind: 'door' }] }, {}]);
    expect(units[3].front[0].cells[0].kind).toBe('glazed');
    expect(units[0].front).toHaveLength(all[0].front.length + 1);
    expect(units[1]).toEqual(all[1]);
    // A second press changes nothing, and says so.
    expect(upToCeiling(derive(next), units)).toMatch(/as high as its ceiling/);
  });

  it('leave room for their cornice, and are refused where there is no ceiling', () => {
    const { project, run } = laid('600 wall', { look: { cornices: [{ profile: 'cornice-cove', up: 0, out: 0 }] } });
    const own = derive(project);
    const high = Math.max(...own.sections[0].map((p) => p.y));
    const units = upToCeiling(
      own,
      own.units.map((u) => u.unit),
    );
    if (typeof units === 'string') throw new Error(units);
    const next = edit(project, 'run.lay', { run, units });
    expect(heights(next, 'run-a', (n) => n === 'cornice')[1]).toBeCloseTo(2.5, 4);
    expect(high).toBeGreaterThan(0.02);
    expect(upToCeiling({ ...own, ceiling: null }, [])).toMatch(/no room that has a ceiling/);
  });
});

describe('the tops of hung units', () => {
  it('are level with the tall ones, or with the head of a window, by one choice', () => {
    const lit = edit(
      room,
      'opening.add',
      newOpening(room, { id: 'w', name: 'W1', wall: leg.wall, kind: 'window', at: 1, width: 0.9, height: 1.1, sill: 1.05 }),
    );
    const run = newRun('run-a', 'Kitchen', level, [leg], 'metric');
    const units = unitsSaid('600 larder, 600 drawers, 600 wall, 600 canopy hood').map((u) => (u.name === 'wall' ? { ...u, height: 0.5 } : u));
    const before = derive(edit(lit, 'run.lay', { run, units }));
    const levels = levelsFor(before, lit.openings);
    expect(levels.map((l) => [l.text, Math.round(l.top * 1000)])).toEqual([
      ['the tall units', 2200],
      ['the head of W1', 2150],
    ]);
    for (const { top } of levels) {
      const after = derive(edit(lit, 'run.lay', levelledTo(before, units, top)));
      const hung = after.units.find((u) => u.unit.name === 'wall')!;
      expect(hung.matrix[14] + hung.size.height).toBeCloseTo(top, 6);
      const hood = (d: typeof after) => d.units.find((u) => u.unit.name === 'canopy hood')!.unit;
      expect(hood(after)).toEqual(hood(before));
    }
    // Where nothing is there to be level with there is no such choice.
    expect(levelsFor(derive(laid('600 drawers, 600 wall').project), {})).toEqual([]);
  });
});

describe('what is left under the ceiling', () => {
  it('is closed by boards up to it in the plane of the fronts, with one back to the wall where an end shows', () => {
    const { project } = laid('600 larder, 600 drawers, 600 wall', { infill: true });
    const { trim } = derive(project);
    for (const { z1 } of trim.infills) expect(z1).toBeCloseTo(2.5, 2);
    // The larder is at the wall and shows its right end; what hangs its left one, over which nothing is, and its right.
    expect(trim.infills).toHaveLength(4);
    expect(heights(project, 'run-a', (n) => n === 'panels')[1]).toBeCloseTo(2.5, 2);
    for (const part of bodyOf(deriveModel(project), 'run-a')!.parts) expect(openEdges(part.mesh)).toBe(0);
    expect(derive(laid('600 larder').project).trim.infills).toEqual([]);
    // Seen in the elevation.
    const face = deriveModel(project).shell.levels[0].faces.find((f) => f.side?.wall === leg.wall && f.room === leg.room)!;
    const highest = (p: Project): number =>
      Math.max(
        ...drawRunUpright(derive(p), face).flatMap((i) => ('rings' in i ? i.rings.flat().map((q) => q.y) : 'points' in i ? i.points.map((q) => q.y) : [])),
      );
    expect(highest(project)).toBeCloseTo(2.5, 2);
    expect(highest(laid('600 larder').project)).toBeLessThan(2.3);
  });
});

describe('what units stand on', () => {
  it('is a plinth, feet that reach the floor, or nothing, with what ends them as low as they are', () => {
    for (const stands of STANDS) {
      const made = { ...CONSTRUCTIONS.frameless, stands, plinth: 0.25 };
      const { project } = laid('600 drawers, 600 door', { made, start: 0.5 });
      const low = heights(project, 'run-a-0')[0];
      const run = bodyOf(deriveModel(project), 'run-a')!;
      expect(low).toBeCloseTo(stands === 'hung' ? 0.25 : 0, 3);
      expect(run.parts.some((p) => p.name === 'plinth')).toBe(stands === 'plinth');
      expect(bodyOf(deriveModel(project), 'run-a-0')!.parts.some((p) => p.name === 'feet')).toBe(stands === 'feet');
      expect(heights(project, 'run-a', (n) => n === 'panels')[0]).toBeCloseTo(stands === 'plinth' ? 0 : 0.25, 3);
    }
  });

  it('leaves every part closed, round corners and in every way they are made', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...STANDS),
        fc.constantFrom('frameless', 'imperial', 'imperial framed', 'in-frame' as const),
        fc.constantFrom(...CORNERS),
        fc.double({ min: 0.05, max: 0.4, noNaN: true }),
        (stands, build, corner, plinth) => {
          const made = { ...CONSTRUCTIONS[build], stands, plinth };
          const { project: first, run } = laid('600 door, 1000 corner, 600 drawers', { made, infill: true });
          const units = Object.values(first.cabinets).map((u) => (u.id === 'run-a-1' ? { ...u, corner } : u));
          const project = edit(first, 'run.lay', { run, units });
          const model = deriveModel(project);
          for (const id of ['run-a', 'run-a-0', 'run-a-1', 'run-a-2'])
            for (const part of bodyOf(model, id)!.parts) {
              expect([id, part.name, openEdges(part.mesh)]).toEqual([id, part.name, 0]);
              const zs = [...part.mesh.positions].filter((_, i) => i % 3 === 2);
              if (stands === 'hung') expect(Math.min(...zs)).toBeGreaterThan(plinth - 1e-4);
            }
        },
      ),
      { numRuns: 24 },
    );
  });
});
