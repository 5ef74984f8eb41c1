import { describe, expect, it } from 'vitest';
import { distance } from '../../geometry/vec';
import { deriveModel } from '../../model/derive';
import { newRoof, type RoofForm } from '../../project/roof-defaults';
import { roofShape, type RoofShape } from '../../project/roofs';
import { edit, house } from '../../testing/drafting';
import { drawPlan } from './plan';
import { roofFolds } from './roof-folds';

const shapeOf = (corners: [number, number][], form: RoofForm): RoofShape => {
  const project = house(corners);
  return roofShape(project, newRoof(project, { id: 'r', level: 'ground' }, form))!;
};
const lengths = (shape: RoofShape): number[] =>
  roofFolds(shape)
    .map(([a, b]) => distance(a, b))
    .sort((a, b) => a - b);
const extent = ({ outlines: [outline] }: RoofShape): { width: number; depth: number } => {
  const [xs, ys] = [outline.outer.map((p) => p.x), outline.outer.map((p) => p.y)];
  return { width: Math.max(...xs) - Math.min(...xs), depth: Math.max(...ys) - Math.min(...ys) };
};

describe('ridges, hips and valleys in plan', () => {
  it('of a hipped roof: a ridge as long as the house is longer than wide, four hips at 45°', () => {
    const shape = shapeOf(
      [
        [0, 0],
        [10, 0],
        [10, 6],
        [0, 6],
      ],
      'hip',
    );
    const { width, depth } = extent(shape);
    const folds = lengths(shape);
    expect(folds).toHaveLength(5);
    expect(folds).toEqual([width - depth, ...Array<number>(4).fill((depth / 2) * Math.SQRT2)].sort((a, b) => a - b).map((v) => expect.closeTo(v, 3) as number));
  });

  it('of a roof with gables: the ridge alone, from verge to verge', () => {
    const shape = shapeOf(
      [
        [0, 0],
        [10, 0],
        [10, 6],
        [0, 6],
      ],
      'gable',
    );
    expect(lengths(shape)).toEqual([expect.closeTo(extent(shape).width, 3)]);
  });

  it('of a pyramid: four hips to one point; of a single slope: none', () => {
    const pyramid = shapeOf(
      [
        [0, 0],
        [6, 0],
        [6, 6],
        [0, 6],
      ],
      'hip',
    );
    const { width } = extent(pyramid);
    expect(lengths(pyramid)).toEqual(Array(4).fill(expect.closeTo((width / 2) * Math.SQRT2, 3)));
    expect(
      lengths(
        shapeOf(
          [
            [0, 0],
            [10, 0],
            [10, 6],
            [0, 6],
          ],
          'single',
        ),
      ),
    ).toEqual([]);
  });

  it('of an L with gables: two ridges and one valley, at 45° where the wings are as wide', () => {
    const shape = shapeOf(
      [
        [0, 0],
        [10, 0],
        [10, 4],
        [4, 4],
        [4, 9],
        [0, 9],
      ],
      'gable',
    );
    const folds = roofFolds(shape);
    const oblique = folds.filter(([a, b]) => Math.abs(Math.abs(a.x - b.x) - Math.abs(a.y - b.y)) < 1e-3);
    const straight = folds.filter(([a, b]) => Math.abs(a.x - b.x) < 1e-3 || Math.abs(a.y - b.y) < 1e-3);
    expect(oblique.length).toBeGreaterThanOrEqual(1);
    expect(straight.length).toBeGreaterThanOrEqual(2);
    expect(oblique.length + straight.length).toBe(folds.length);
  });

  it('are drawn dashed with the roof they belong to, on its level alone', () => {
    const corners: [number, number][] = [
      [0, 0],
      [10, 0],
      [10, 6],
      [0, 6],
    ];
    const bare = house(corners);
    const project = edit(bare, 'roof.put', { roof: newRoof(bare, { id: 'r', level: 'ground' }, 'hip') });
    const marks = drawPlan(deriveModel(project), 'ground').filter((m) => m.kind === 'line' && m.entity === 'r');
    expect(marks).toHaveLength(6);
    expect(marks.every((m) => m.kind === 'line' && m.dash && m.layer === 'roof')).toBe(true);
  });
});
