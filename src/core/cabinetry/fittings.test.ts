import fc from 'fast-check';
import { beforeAll, describe, expect, it } from 'vitest';
import { MeshBuilder } from '../geometry/mesh';
import { totalArea } from '../geometry/polygon';
import { within } from '../geometry/shapes';
import { CARDS, LIGHT } from '../stock/stock';
import { unitsSaid } from '../testing/cabinets';
import { bounds } from '../testing/measures';
import { loadKernel, openEdges, volume } from '../testing/solid';
import { assembleRun, fittingsIn, frontOf, unitParts, type AssembledUnit } from './assemble';
import { newRun } from './begin';
import { PLAIN_LOOK } from '../project/joinery';
import { cardOf, firstFinish, placeFittings, whatIs } from './fittings';
import { CONSTRUCTIONS } from './figures';
import { builtInOf } from './said';
import type { BackLine } from './run';
import { makeUnit, unitCarcass } from './unit';

beforeAll(loadKernel);

const run = newRun('run-a', 'Kitchen', 'ground', [], 'metric');
const { made } = run;
const legs: BackLine[] = [{ from: { x: 0, y: 0 }, to: { x: 12, y: 0 } }];
const laid = (line: string) => assembleRun(run, unitsSaid(line), legs);
const only = (line: string): AssembledUnit => laid(line).units[0];
const placed = (line: string) => fittingsIn(only(line), made);
const TOP = made.plinth + made.base.height + made.worktop.thickness;

describe('what is built into a unit', () => {
  it('is where it works: an oven flush with the fronts in its cell, a hob on the worktop, a hood 650 above it', () => {
    const [oven, hob] = placed('600 oven with hob');
    expect([oven.item.id, hob.item.id]).toEqual(['oven', 'hob']);
    expect(oven.at.y - oven.size.depth / 2).toBeCloseTo(-made.base.depth - made.front, 9);
    // In the lower 595 of the front, above the plinth.
    expect(oven.at.z).toBeGreaterThanOrEqual(made.plinth);
    expect(oven.at.z + oven.size.height).toBeLessThan(made.plinth + 0.595 + 1e-9);
    // The glass lies on the worktop, its body in it.
    expect(hob.at.z + hob.built.surface!(hob.size, hob.traits)!).toBeCloseTo(TOP, 9);
    const all = laid('900 hob, 900 canopy hood');
    const hood = fittingsIn(all.units[1], made)[0];
    expect(all.units[1].matrix[14] + hood.at.z).toBeCloseTo(TOP + 0.65, 9);
  });

  it('cuts the worktop as it is: a sink by its bowls, a hob by its body, a tap by its hole where it stands beside the sink', () => {
    const area = (line: string): number => totalArea(laid(line).worktop.regions);
    const whole = area('900 door');
    // Trade figures: a hob of 590 × 520 goes into 560 × 490; this one is 510 deep, as the worktop allows.
    expect(whole - area('900 hob')).toBeCloseTo(0.56 * 0.48 - (4 - Math.PI) * 0.012 ** 2, 4);
    const under = builtInOf(['sink-under', 'tap']);
    const [unit] = unitsSaid('900 sink');
    const cut = assembleRun(run, [{ ...unit, fittings: under.fittings }], legs).worktop.regions;
    expect(cut).toHaveLength(1);
    // The bowl, and the hole of the tap behind it: 35 across.
    const holes = cut[0].holes.map((h) => totalArea([{ outer: [...h].reverse(), holes: [] }])).sort((a, b) => a - b);
    expect(holes).toHaveLength(2);
    expect(holes[0]).toBeCloseTo(Math.PI * 0.0175 ** 2, 4);
    const ys = cut[0].holes.map((h) => Math.max(...h.map((p) => p.y)));
    expect(Math.max(...ys)).toBeLessThan(-0.01);
    // A Belfast sink is open to the front.
    const apron = laid('600 belfast sink').worktop.regions;
    expect(apron.flatMap((r) => r.holes)).toEqual([]);
    expect(totalArea(apron)).toBeLessThan(area('600 door') - 0.2);
  });

  it('stands instead of a carcass, behind fronts, or in one that has no back', () => {
    const parts = (line: string): string[] => [...new Set(unitParts(only(line), run.made).map((p) => p.part))];
    expect(parts('600 dishwasher').filter((p) => !p.startsWith('dishwasher '))).toEqual([]);
    expect(parts('600 dishwasher door')).toEqual(expect.arrayContaining(['fronts', 'handles', 'dishwasher tub']));
    expect(parts('600 dishwasher door')).not.toContain('carcass');
    expect(parts('600 fridge')).toEqual(expect.arrayContaining(['carcass', 'fronts', 'fridge shelves']));
    expect(parts('600 fridge')).not.toContain('fridge fronts');
    // Nothing goes over a range cooker; the worktop goes on over a washer.
    expect(laid('600 door, 900 range cooker, 600 door').worktop.stretches).toHaveLength(2);
    expect(laid('600 door, 600 washer, 600 door').worktop.stretches).toHaveLength(1);
    expect(totalArea(laid('600 washer').plinth)).toBe(0);
  });

  it('is raised in a tall unit that has a place for it among others: a machine behind a door, or one over the other', () => {
    const dishwasher = only('raised dishwasher');
    const [machine] = fittingsIn(dishwasher, made);
    expect([machine.how, machine.over]).toEqual(['raised', {}]);
    expect(machine.size.width).toBeCloseTo(0.598, 9);
    const { carcass, front } = makeUnit(dishwasher.unit.front, dishwasher.size, 'tall', made, PLAIN_LOOK, 'left', dishwasher.unit.fittings);
    // It stands on the shelf over the drawer, under the one below the door, and touches no board.
    const z = machine.at.z - made.plinth;
    const [low, high] = carcass.panels.filter((p) => p.name === 'shelf').sort((a, b) => a.min.z - b.min.z);
    expect(z).toBeGreaterThan(low.max.z);
    expect(z - low.max.z).toBeLessThan(0.005);
    expect(z + machine.size.height).toBeLessThan(high.min.z);
    expect(machine.at.y - machine.size.depth / 2).toBeGreaterThan(-dishwasher.size.depth);
    // Its door covers it.
    const [door] = front.cells.find((c) => c.cell.hand === 'down')!.leaves;
    expect([door.z0 < z, door.z1 > z + machine.size.height]).toEqual([true, true]);
    const tower = fittingsIn(only('washer and dryer'), made);
    expect(tower.map((m) => [cardOf(m).id, m.how, m.over])).toEqual([
      ['dryer', 'cell', {}],
      ['washer', 'cell', {}],
    ]);
    expect(tower[0].at.z).toBeGreaterThan(tower[1].at.z + tower[1].size.height + made.board - 1e-9);
    // Behind fronts that are set in it stands farther back.
    const [inset] = placeFittings(dishwasher.unit, dishwasher.size, front, { ...made, lies: 'inset' });
    expect(inset.at.y - machine.at.y).toBeCloseTo(made.front, 9);
    // A free machine alone in its unit has no carcass, as before.
    expect(fittingsIn(only('600 free fridge'), made)[0].how).toBe('stands');
  });

  it('is a basin in, on or under the top of a vanity, its tap behind it, the top cut out as it wants', () => {
    const low = { ...run, made: { ...made, base: { height: 0.65, depth: 0.46 }, plinth: 0.15 } };
    const of = (line: string) => {
      const all = assembleRun(low, unitsSaid(line), legs);
      return { all, fittings: fittingsIn(all.units[0], low.made) };
    };
    const top = 0.15 + 0.65 + made.worktop.thickness;
    const inset = of('800 vanity');
    const [basin, tap] = inset.fittings;
    expect([basin.item.id, tap.item.id, basin.over, tap.over]).toEqual(['basin-top', 'bathroom-tap', {}, {}]);
    // Its rim lies on the top, its body below it; the tap stands behind it on the top.
    expect(basin.at.z + basin.size.height).toBeGreaterThan(top);
    expect(basin.at.z + basin.size.height).toBeLessThan(top + 0.02);
    expect(tap.at.z).toBeCloseTo(top, 2);
    expect(tap.at.y).toBeGreaterThan(basin.at.y);
    const bowl = of('600 vanity bowl');
    expect(bowl.fittings[0].at.z).toBeCloseTo(top, 3);
    // The bowl stands on it: only its waste and the tap go through, as circles of sixteen corners.
    expect(totalArea(of('600 door').all.worktop.regions) - totalArea(bowl.all.worktop.regions)).toBeCloseTo(
      8 * Math.sin(Math.PI / 8) * (0.0225 ** 2 + 0.0175 ** 2),
      6,
    );
    expect(totalArea(of('800 door').all.worktop.regions) - totalArea(inset.all.worktop.regions)).toBeGreaterThan(0.1);
  });

  it('is reached through a unit without a back where a boiler or meters are housed', () => {
    for (const [line, backs] of [
      ['500 boiler housing', 0],
      ['400 service housing', 0],
      ['500 wall', 1],
    ] as const) {
      const own = only(line);
      expect([line, unitCarcass(own.unit, own.size, made, frontOf(own, made), []).panels.filter((p) => p.name === 'back').length]).toEqual([line, backs]);
    }
  });

  it('fits into its unit, or says by how much it does not', () => {
    for (const { word } of [
      { word: 'oven' },
      { word: 'tall oven' },
      { word: 'fridge' },
      { word: 'dishwasher' },
      { word: 'tall double oven' },
      { word: 'tall oven and microwave' },
      { word: 'wall microwave' },
    ])
      for (const f of placed(`600 ${word}`)) expect([word, f.item.id, f.over]).toEqual([word, f.item.id, {}]);
    const [unit] = unitsSaid('500 oven');
    const wide = { ...unit, fittings: [{ ...unit.fittings[0], size: { width: 0.595, depth: 0.55, height: 0.595 } }] };
    const [f] = fittingsIn(assembleRun(run, [wide], legs).units[0], made);
    expect(f.over.width).toBeCloseTo(0.595 - (0.5 - 0.003), 9);
  });

  it('is closed, keeps within its unit in height and width, and moves with the unit', () => {
    const words = ['oven', 'oven with hob', 'sink', 'gas hob', 'tall oven', 'fridge', 'dishwasher door', 'belfast sink', 'wall microwave'];
    fc.assert(
      fc.property(fc.constantFrom(...words), fc.integer({ min: 60, max: 90 }), (word, wide) => {
        const own = only(`${wide * 10} ${word}`);
        const parts = within(LIGHT, () => unitParts(own, run.made));
        const fitted = parts.filter((p) => fittingsIn(own, made).some((f) => p.part.startsWith(`${f.built.word} `)));
        expect(fitted.length).toBeGreaterThan(0);
        for (const { mesh, part } of fitted) {
          expect([word, part, openEdges(mesh)]).toEqual([word, part, 0]);
          const { low, high } = bounds([mesh]);
          expect(low[0]).toBeGreaterThan(-0.001);
          expect(high[0]).toBeLessThan(wide / 100 + 0.001);
          expect(high[1]).toBeLessThan(1e-6);
        }
      }),
      { numRuns: 40 },
    );
  });

  it('leaves the carcass no board where it stands: of the housing of a fridge and of the fridge nothing is twice', () => {
    const own = only('600 fridge');
    const parts = within(LIGHT, () => unitParts(own, run.made));
    const join = (names: (part: string) => boolean) =>
      parts
        .filter((p) => names(p.part))
        .reduce((b, p) => b.add(p.mesh), new MeshBuilder())
        .build();
    const [carcass, fridge] = [join((n) => n === 'carcass'), join((n) => n.startsWith('fridge '))];
    expect(volume(carcass)).toBeGreaterThan(0.01);
    const [a, b] = [bounds([carcass]), bounds([fridge])];
    for (const k of [0, 2]) {
      expect(b.low[k]).toBeGreaterThan(a.low[k]);
      expect(b.high[k]).toBeLessThan(a.high[k]);
    }
  });

  it('has a card and first finishes, whatever of the stock it is', () => {
    for (const card of CARDS) {
      const { fittings } = builtInOf([card.id]);
      if (!card.item.builtIn) {
        expect(fittings).toEqual([]);
        continue;
      }
      const what = whatIs(fittings[0])!;
      expect(cardOf({ ...what, size: card.size }).id).toBe(card.id);
      for (const [part, finish] of Object.entries(card.item.parts)) expect(firstFinish(fittings, `${what.built.word} ${part}`)).toBe(finish);
    }
  });

  it('is of the sizes of the trade: fronts of ovens in cells of 600, imperial dishwashers in 24 in', () => {
    const imperial = newRun('run-b', 'Kitchen', 'ground', [], 'imperial');
    const units = unitsSaid('24" dishwasher, 30" tall oven', 'run-b');
    for (const own of assembleRun(imperial, units, legs).units)
      for (const f of fittingsIn(own, CONSTRUCTIONS.imperial)) expect([f.item.id, f.over]).toEqual([f.item.id, {}]);
  });
});
