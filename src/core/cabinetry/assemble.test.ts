import fc from 'fast-check';
import { beforeAll, describe, expect, it } from 'vitest';
import { placement, transformPoint } from '../geometry/mesh';
import { totalArea } from '../geometry/polygon';
import { unitsSaid } from '../testing/cabinets';
import { loadKernel, openEdges, volume } from '../testing/solid';
import { assembleRun, runParts, unitParts, wallFoot, type AssembledRun, type AssembledUnit, type LaidOut } from './assemble';
import { newRun } from './begin';
import { CONSTRUCTIONS } from './figures';
import { stretchOn, type BackLine } from './run';

beforeAll(loadKernel);

const made = CONSTRUCTIONS.frameless;
const legs: BackLine[] = [
  { from: { x: 1, y: 4 }, to: { x: 4.2, y: 4 } },
  { from: { x: 4.2, y: 4 }, to: { x: 4.2, y: 1 } },
];

const run: LaidOut = { ...newRun('run', 'Run', 'ground', [], 'metric'), made, ends: 'bare' };
const partsOf = (own: AssembledUnit) => unitParts(own, made);
const kitchen = (): AssembledRun => assembleRun(run, unitsSaid('600 drawers, 800 sink, rest door, corner, 600 oven, 600 dishwasher, 400 door'), legs);

describe('a run as it is built', () => {
  it('fills its first leg up to the corner and goes on along the second', () => {
    const { floor, units } = kitchen();
    expect(floor.lacks).toEqual([0, 0]);
    const door = units.find((u) => u.unit.name === 'door')!;
    expect(door.placed.width).toBeCloseTo(3.2 - 0.6 - 0.8 - 0.9, 9);
    expect(floor.gaps.map((g) => [g.leg, Math.round((g.to - g.from) * 1e6) / 1e6])).toEqual([[1, 0.5]]);
  });

  it('has every part of every unit before its wall, in the room', () => {
    for (const own of kitchen().units)
      for (const { mesh, part } of partsOf(own)) {
        const { matrix, unit } = own;
        expect([unit.name, part, openEdges(mesh)]).toEqual([unit.name, part, 0]);
        const p = mesh.positions;
        for (let i = 0; i < p.length; i += 3) {
          const at = transformPoint(matrix, { x: p[i], y: p[i + 1], z: p[i + 2] });
          expect(at.x).toBeLessThan(4.2 + 1e-5);
          expect(at.y).toBeLessThan(4 + 1e-5);
          // Handles of machines stand out most.
          expect(at.x > 4.2 - 0.56 - 0.08 || at.y > 4 - 0.56 - 0.08).toBe(true);
        }
      }
  });

  it('has a worktop of its outline times its thickness, at 900, on a plinth that runs round the corner', () => {
    const { worktop } = kitchen();
    const parts = runParts(kitchen(), run, legs);
    // 3.2 m and 2.5 m at 600 deep, the corner in both, less what a sink of 540 × 500 with a flange of 12 is let into, its corners round.
    const area = (3.2 + 2.5 - 0.6) * 0.6 - (0.516 * 0.476 - (4 - Math.PI) * 0.015 ** 2);
    expect(totalArea(worktop.regions)).toBeCloseTo(area, 4);
    const top = parts.filter((p) => p.part === 'worktop').map((p) => p.mesh);
    // A slab on each leg, and one more where 3.2 m are longer than one is had.
    expect(top).toHaveLength(3);
    expect(top.reduce((sum, m) => sum + volume(m), 0)).toBeCloseTo(totalArea(worktop.regions) * 0.03, 6);
    const heights = top.flatMap((m) => [...m.positions].filter((_, i) => i % 3 === 2));
    expect([Math.min(...heights), Math.max(...heights)]).toEqual([expect.closeTo(0.87, 6), expect.closeTo(0.9, 6)]);
    expect(volume(parts.find((p) => p.part === 'plinth')!.mesh)).toBeGreaterThan(0);
  });

  it('hangs wall units in line with the height of the worktop, without one of their own', () => {
    const hung = assembleRun(run, unitsSaid('600 wall, 900 wall open, 600 wall glazed'), legs);
    const { units, worktop } = hung;
    expect(runParts(hung, run, legs)).toEqual([]);
    expect(worktop.regions).toEqual([]);
    expect(wallFoot(made)).toBeCloseTo(0.15 + 0.72 + 0.03 + 0.48, 12);
    for (const u of units) expect(u.matrix[14]).toBeCloseTo(wallFoot(made), 12);
    // Square to the plan.
    placement(0, 0, 0, 0)
      .slice(0, 12)
      .forEach((m, i) => expect(units[0].matrix[i]).toBeCloseTo(m, 12));
  });

  it('leaves what is free free, scribes fillers and shows a panel where the next leg stands before a blind unit', () => {
    const free = assembleRun(run, unitsSaid('600 door, 700 space, 50 filler'), legs);
    expect(free.units.map((u) => partsOf(u).map((p) => p.part))).toEqual([expect.arrayContaining(['carcass', 'fronts']), [], ['fronts']]);
    expect(free.worktop.regions).toHaveLength(2);
    const [blind] = assembleRun(run, [{ ...unitsSaid('1000 door left')[0], corner: 'blind left' }], legs).units;
    const fronts = partsOf(blind).filter((p) => p.part === 'fronts');
    expect(fronts.filter((p) => p.joint)).toHaveLength(1);
    expect(fronts.filter((p) => !p.joint)).toHaveLength(1);
  });

  it('hangs nothing where a tall unit stands, whatever stands where', () => {
    const word = fc.tuple(fc.integer({ min: 3, max: 9 }), fc.constantFrom('drawers', 'larder', 'door', 'wall', 'wall glazed', 'wall open'));
    fc.assert(
      fc.property(fc.array(word, { minLength: 1, maxLength: 8 }), fc.integer({ min: 0, max: 5 }), (list, start) => {
        const units = unitsSaid(list.map(([w, kind]) => `${w * 100} ${kind}`).join(', '));
        const { floor, hung } = assembleRun({ ...run, start: start / 10 }, units, [{ from: { x: 0, y: 0 }, to: { x: 20, y: 0 } }]);
        expect(hung.units).toHaveLength(units.filter((u) => u.band === 'wall').length);
        const taken = [...hung.units, ...floor.units.filter((p) => units.find((u) => u.id === p.id)!.band === 'tall')]
          .map((p) => p.stretch)
          .sort((a, b) => a.from - b.from);
        taken.slice(1).forEach((s, i) => expect(s.from).toBeGreaterThan(taken[i].to - 1e-9));
        expect(Math.max(...hung.lacks)).toBeLessThan(1e-9);
      }),
      { numRuns: 200 },
    );
  });

  it('hangs what goes on from a corner beside that corner, not beyond what is tall before it', () => {
    const word = fc.tuple(fc.integer({ min: 3, max: 9 }), fc.constantFrom('larder', 'door', 'wall', 'wall open'));
    const long: BackLine[] = [
      { from: { x: 0, y: 0 }, to: { x: 12, y: 0 } },
      { from: { x: 12, y: 0 }, to: { x: 12, y: -9 } },
    ];
    fc.assert(
      fc.property(fc.array(word, { maxLength: 6 }), fc.array(word, { maxLength: 6 }), (before, behind) => {
        const said = (list: typeof before): string => list.map(([w, kind]) => `, ${w * 100} ${kind}`).join('');
        // What hangs and what stands each turn in the same corner.
        const units = unitsSaid(`${said(before).slice(2)}, 900 corner, 600 wall corner${said(behind)}`);
        const { floor, hung } = assembleRun(run, units, long);
        const isTall = (id: string): boolean => units.find((u) => u.id === id)!.band === 'tall';
        for (const leg of [0, 1]) {
          const taken = [...hung.units, ...floor.units.filter((p) => isTall(p.id))]
            .flatMap((p) => stretchOn(p, long, leg) ?? [])
            .sort((a, b) => a.from - b.from);
          taken.slice(1).forEach((s, i) => expect(s.from).toBeGreaterThan(taken[i].to - 1e-9));
        }
        const corner = hung.units.find((p) => p.corner)!;
        const last = hung.units.filter((p) => p.leg === 0 && !p.corner).at(-1);
        const tall = floor.units.filter((p) => p.leg === 0 && isTall(p.id)).at(-1);
        // The last before the corner stands against it wherever no tall unit is in the way.
        if (last && (!tall || tall.stretch.to < 12 - corner.arms![0] - last.width - 1e-9)) expect(last.stretch.to).toBeCloseTo(12 - corner.arms![0], 9);
      }),
      { numRuns: 150 },
    );
  });

  it('hangs a unit over the middle of the one below it, whatever the widths of others', () => {
    for (const first of [400, 600, 850]) {
      const [a, b, hood] = unitsSaid(`${first} drawers, 900 hob, 600 wall`);
      const { units } = assembleRun(run, [a, b, { ...hood, middle: { of: 'unit', id: b.id } }], legs);
      const middle = (id: string): number => {
        const { stretch } = units.find((u) => u.unit.id === id)!.placed;
        return (stretch.from + stretch.to) / 2;
      };
      expect(middle(hood.id)).toBeCloseTo(first / 1000 + 0.45, 9);
      expect(middle(hood.id)).toBeCloseTo(middle(b.id), 9);
    }
  });
});
