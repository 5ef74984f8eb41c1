import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { deriveModel } from '../model/derive';
import type { Piece, Project } from '../project/schema';
import { edit, house } from '../testing/drafting';
import { restUnder } from './resting';
import { pieceFrom, stockCard } from './stock';

const bare = house([
  [0, 0],
  [6, 0],
  [6, 5],
  [0, 5],
]);
const NONE: ReadonlySet<string> = new Set();
const put = (...pieces: Piece[]): Project => edit(bare, 'piece.add', { pieces });
const piece = (card: string, over: Partial<Piece> = {}): Piece => ({ ...pieceFrom(stockCard(card)!, card, bare.levels.ground, { x: 3, y: 2.5 }), ...over });
const rest = (project: Project, x: number, y: number, aim?: number, except = NONE) => restUnder(deriveModel(project).pieces, 'ground', { x, y }, except, aim);

describe('what something small comes to rest on', () => {
  it('is the top of a table under it, and the floor beside it, however the table is turned', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -4, max: 4, noNaN: true }),
        fc.double({ min: -0.85, max: 0.85, noNaN: true }),
        fc.double({ min: -0.4, max: 0.4, noNaN: true }),
        (rotation, u, w) => {
          const project = put(piece('table', { rotation }));
          const at = (a: number, b: number) =>
            [3 + Math.cos(rotation) * a - Math.sin(rotation) * b, 2.5 + Math.sin(rotation) * a + Math.cos(rotation) * b] as const;
          expect(rest(project, ...at(u, w))).toEqual({ piece: 'table', height: expect.closeTo(0.75, 6) as number });
          expect(rest(project, ...at(1.02 + Math.abs(u), w))).toBeNull();
        },
      ),
      { numRuns: 30 },
    );
  });

  it('is raised with what it stands on, and of several things the highest', () => {
    expect(rest(put(piece('table', { elevation: 0.2 })), 3, 2.5)?.height).toBeCloseTo(0.95, 6);
    const two = put(piece('table'), piece('books-stacked', { elevation: 0.75, on: 'table' }));
    expect(rest(two, 3, 2.5)?.piece).toBe('books-stacked');
    expect(rest(two, 3, 2.5)!.height).toBeGreaterThan(0.85);
    // Neither itself, nor what is said not to count.
    expect(rest(two, 3, 2.5, undefined, new Set(['books-stacked']))?.piece).toBe('table');
  });

  it('is the shelf one points at in the model, in a bookcase of several', () => {
    const project = put(piece('shelves-empty'));
    const heights = [0.3, 0.7, 1.1, 1.5].map((aim) => rest(project, 3, 2.5, aim)!.height);
    expect(new Set(heights.map((h) => h.toFixed(3))).size).toBeGreaterThan(2);
    heights.forEach((h, i) => expect(Math.abs(h - [0.3, 0.7, 1.1, 1.5][i])).toBeLessThan(0.3));
    expect(rest(project, 3, 2.5)!.height).toBeCloseTo(1.8, 2);
  });

  it('is the floor where one points at the floor, never a rug, a lamp on the ceiling, or another level', () => {
    expect(rest(put(piece('table')), 3, 2.5, 0)).toBeNull();
    expect(rest(put(piece('rug')), 3, 2.5)).toBeNull();
    expect(rest(put(piece('pendant')), 3, 2.5)).toBeNull();
    expect(restUnder(deriveModel(put(piece('table'))).pieces, 'upper', { x: 3, y: 2.5 }, NONE)).toBeNull();
  });

  it('is the seat of a chair, not the air before its back', () => {
    const { height } = rest(put(piece('sofa')), 3, 2.2)!;
    expect(height).toBeGreaterThan(0.4);
    expect(height).toBeLessThan(0.5);
  });
});
