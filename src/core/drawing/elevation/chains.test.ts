import { describe, expect, it } from 'vitest';
import { newRun } from '../../cabinetry/begin';
import { deriveModel } from '../../model/derive';
import type { Project } from '../../project/schema';
import { unitsSaid } from '../../testing/cabinets';
import { box, edit, wallBy } from '../../testing/drafting';
import { CHAINS, figuresOf, runChains } from './chains';
import { drawElevation } from './elevation';
import { elevationFaces } from './unroll';

const room = box(5, 4);
const south = wallBy(room, [0, 0], [5, 0]);
const inside = Object.keys(room.rooms)[0];
const kitchen = (line: string): Project =>
  edit(room, 'run.lay', {
    run: newRun('run-a', 'Kitchen', Object.keys(room.levels)[0], [{ kind: 'wall', wall: south, side: 'left', room: inside }], 'metric'),
    units: unitsSaid(line),
  });
const facesOf = (p: Project) => elevationFaces(deriveModel(p), { wall: south, side: 'left', room: inside }, false);

describe('the dimensions of a run in its elevation', () => {
  const p = kitchen('600 drawers, 800 sink, 600 larder, 450 wall, 600 wall glazed');
  const model = deriveModel(p);
  const [placed] = facesOf(p);
  const chains = runChains(model, placed, 0.05);
  const figures = (items: (typeof chains)['heights']): string[] => items.flatMap((i) => (i.kind === 'text' ? [i.text] : []));

  it('are widths of what stands with what is left, of what hangs, and heights that add up to the room', () => {
    expect(figures(chains['widths below'])).toEqual(['600', '800', '600', '2700']);
    expect(figures(chains['widths above'])).toEqual(['450', '600']);
    expect(figures(chains.heights)).toEqual(['150', '720', '30', '480', '720', '100', '300']);
    expect(figures(chains.heights).reduce((sum, f) => sum + Number(f), 0)).toBe(2500);
    expect(figures(chains['widths below']).reduce((sum, f) => sum + Number(f), 0)).toBe(4700);
  });

  it('have the figures of a unit where its strings measure it, to be typed over', () => {
    const drawers = figuresOf(model, [placed], 'run-a-0', 0.05)!;
    expect([drawers.width.value, drawers.height.value]).toEqual([expect.closeTo(0.6, 9), expect.closeTo(0.72, 9)]);
    // On the line of the string: the same height as its figures, as far along as its unit stands.
    const text = chains['widths below'].find((i) => i.kind === 'text')!;
    if (text.kind !== 'text') throw new Error('A figure is text.');
    expect(text.at.y).toBeCloseTo(drawers.width.from.y, 9);
    expect((drawers.width.from.x + drawers.width.to.x) / 2).toBeCloseTo(text.at.x, 9);
    expect([drawers.height.from.y, drawers.height.to.y]).toEqual([expect.closeTo(0.15, 9), expect.closeTo(0.87, 9)]);
    expect(figuresOf(model, [placed], 'run-a-3', 0.05)!.width.from.y).toBeGreaterThan(2);
    expect(figuresOf(model, [placed], 'none', 0.05)).toBeNull();
  });

  it('can be left out one by one, and are none where no run stands', () => {
    const texts = (options: object): string[] =>
      drawElevation(model, [placed], { scale: 0.05, named: false, units: () => null, ...options }).flatMap((g) => figures(g.items));
    expect(texts({}).filter((t) => t === '2700')).toHaveLength(1);
    expect(texts({ chains: CHAINS.filter((c) => c !== 'widths below') })).not.toContain('2700');
    expect(texts({ chains: [] })).toEqual(['4700']);
    expect(Object.values(runChains(deriveModel(room), facesOf(room)[0], 0.05)).flat()).toEqual([]);
  });
});
