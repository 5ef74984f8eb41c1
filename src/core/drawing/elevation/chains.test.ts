import { describe, expect, it } from 'vitest';
import { newRun } from '../../cabinetry/begin';
import { deriveModel } from '../../model/derive';
import type { Project } from '../../project/schema';
import { unitsSaid } from '../../testing/cabinets';
import { box, edit, wallBy } from '../../testing/drafting';
import { CHAINS, runChains } from './chains';
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

  it('can be left out one by one, and are none where no run stands', () => {
    const texts = (options: object): string[] =>
      drawElevation(model, [placed], { scale: 0.05, named: false, units: () => null, ...options }).flatMap((g) => figures(g.items));
    expect(texts({}).filter((t) => t === '2700')).toHaveLength(1);
    expect(texts({ chains: CHAINS.filter((c) => c !== 'widths below') })).not.toContain('2700');
    expect(texts({ chains: [] })).toEqual(['4700']);
    expect(Object.values(runChains(deriveModel(room), facesOf(room)[0], 0.05)).flat()).toEqual([]);
  });
});
