import { describe, expect, it } from 'vitest';
import { deriveModel } from '../model/derive';
import { edit, house } from '../testing/drafting';
import { newRoof } from './roof-defaults';
import { roofEdgeNames } from './roof-edge-names';
import { roofShape } from './roofs';

/** Which edges of a house have a gable, by name. */
function gables(corners: [number, number][]): string[] {
  const project = house(corners);
  const roof = newRoof(project, { id: 'r', level: 'ground' }, 'gable');
  const { lines } = roofShape(project, roof)!;
  const names = roofEdgeNames(project, lines);
  // It stands, too.
  expect(deriveModel(edit(project, 'roof.put', { roof })).shell.levels[0].roofs).toHaveLength(1);
  return lines.flatMap((l, i) => (roof.edges[l.key]?.form === 'gable' ? [names[i]] : [])).sort();
}

describe('a new roof', () => {
  it('is covered from the start: slate where it slopes, gravel where it is flat; what is told goes first', () => {
    const project = house([
      [0, 0],
      [6, 0],
      [6, 4],
      [0, 4],
    ]);
    const basics = { id: 'r', level: 'ground' };
    expect(newRoof(project, basics, 'hip').finishes).toEqual({ covering: 'tile.riven-slate' });
    expect(newRoof(project, basics, 'flat').finishes).toEqual({ covering: 'ground.gravel' });
    expect(newRoof(project, { ...basics, finishes: { covering: 'timber.oak' } }, 'hip').finishes).toEqual({ covering: 'timber.oak' });
  });
});

describe('a roof with gables', () => {
  it('has them at the short ends of a plain house', () => {
    expect(
      gables([
        [0, 0],
        [9, 0],
        [9, 6],
        [0, 6],
      ]),
    ).toEqual(['east', 'west']);
    expect(
      gables([
        [0, 0],
        [5, 0],
        [5, 8],
        [0, 8],
      ]),
    ).toEqual(['north', 'south']);
  });

  it('has one at the end of each wing of an L, long or short', () => {
    for (const reach of [2, 3, 4, 6])
      expect(
        gables([
          [0, 0],
          [10, 0],
          [10, 4],
          [4, 4],
          [4, 4 + reach],
          [0, 4 + reach],
        ]),
      ).toEqual(['east, southern', 'north, western']);
  });

  it('has three on a T and two on the legs of a U', () => {
    expect(
      gables([
        [0, 5],
        [4, 5],
        [4, 0],
        [8, 0],
        [8, 5],
        [12, 5],
        [12, 9],
        [0, 9],
      ]),
    ).toEqual(['east, northern', 'south, middle', 'west, northern']);
    expect(
      gables([
        [0, 0],
        [12, 0],
        [12, 8],
        [8, 8],
        [8, 4],
        [4, 4],
        [4, 8],
        [0, 8],
      ]),
    ).toEqual(['north, eastern', 'north, western']);
  });

  it('has none on the slanted sides of a bay', () => {
    expect(
      gables([
        [0, 0],
        [4, 0],
        [4.6, -0.9],
        [6.4, -0.9],
        [7, 0],
        [11, 0],
        [11, 6],
        [0, 6],
      ]),
    ).toEqual(['east', 'west']);
  });
});
