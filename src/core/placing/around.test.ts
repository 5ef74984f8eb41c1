import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { add, rotate } from '../geometry/vec';
import { deriveModel } from '../model/derive';
import type { Piece, Project } from '../project/schema';
import { pieceFrom, stockCard } from '../stock/stock';
import { edit, house } from '../testing/drafting';
import { gapsOf, movedTo, overlapping, reachInto, SIDES } from './around';

/** A room of 6 × 4 m inside, its lower left corner at the origin. */
const bare = house([
  [-0.15, -0.15],
  [6.15, -0.15],
  [6.15, 4.15],
  [-0.15, 4.15],
]);

const piece = (card: string, id: string, x: number, y: number, own: Partial<Piece> = {}): Piece => ({
  ...pieceFrom(stockCard(card)!, id, bare.levels.ground, { x, y }),
  ...own,
});
const withPieces = (...pieces: Piece[]): Project => edit(bare, 'piece.add', { pieces });
const TABLE = { size: { width: 1.6, depth: 0.8, height: 0.75 } };

describe('what bounds a piece', () => {
  it('are the walls of its room, to the face', () => {
    const model = deriveModel(withPieces(piece('table', 't', 2, 1.5, TABLE)));
    const gaps = gapsOf(model, 't');
    expect(SIDES.map((s) => gaps[s]!.distance)).toEqual([1.2, 3.2, 1.1, 2.1].map((v) => expect.closeTo(v, 9)));
    for (const side of SIDES) expect(gaps[side]!.kind).toBe('wall');
    // Each by the wall that is there.
    const middle = (id: string | null): [number, number] => {
      const [a, b] = [bare.walls[id!].start, bare.walls[id!].end].map((c) => bare.corners[c]);
      return [(a.x + b.x) / 2, (a.y + b.y) / 2];
    };
    expect(SIDES.map((s) => middle(gaps[s]!.id))).toEqual([[-0.15, 2], [6.15, 2], [3, -0.15], [3, 4.15]]); // prettier-ignore
  });

  it('is told in its own axes when it is turned', () => {
    const model = deriveModel(withPieces(piece('table', 't', 2, 1.5, { ...TABLE, rotation: Math.PI / 2 })));
    const gaps = gapsOf(model, 't');
    // Turned a quarter its back looks to the left, its right upwards.
    expect([gaps.back!.distance, gaps.right!.distance, gaps.front!.distance, gaps.left!.distance]).toEqual(
      [2 - 0.4, 4 - 1.5 - 0.8, 6 - 2 - 0.4, 1.5 - 0.8].map((v) => expect.closeTo(v, 9)),
    );
  });

  it('are neighbours at its height, not what it stands on, what lies flat or hangs above', () => {
    const model = deriveModel(
      withPieces(
        piece('table', 't', 2, 2, TABLE),
        // A chair is drawn up to a table and is not in its way; a chest is.
        piece('chair', 'd', 3, 2),
        piece('chest', 'c', 4, 2, { size: { width: 0.5, depth: 0.5, height: 0.9 } }),
        piece('rug', 'r', 2, 2),
        piece('pendant', 'p', 3.2, 2),
        piece('vase', 'v', 2, 2, { on: 't', elevation: 0.75 }),
      ),
    );
    expect(gapsOf(model, 't').right).toMatchObject({ id: 'c', kind: 'piece', distance: expect.closeTo(4 - 0.25 - 2.8, 9) });
    expect(gapsOf(model, 't').left).toMatchObject({ kind: 'wall' });
    expect(gapsOf(model, 'v').right!.id).not.toBe('t');
  });

  it('lets a neighbour that only touches the strip pass', () => {
    const model = deriveModel(withPieces(piece('table', 't', 2, 2, TABLE), piece('chest', 'c', 4, 2.65, { size: { width: 0.5, depth: 0.5, height: 0.9 } })));
    // The chest begins at 2.4, where the table ends.
    expect(gapsOf(model, 't').right!.kind).toBe('wall');
  });

  it('takes a piece to any distance that is typed, whichever way it is turned', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -Math.PI, max: Math.PI, noNaN: true }),
        fc.constantFrom(...SIDES),
        fc.double({ min: 0, max: 0.4, noNaN: true }),
        (rotation, side, distance) => {
          const project = withPieces(piece('table', 't', 3, 2, { size: { width: 1, depth: 0.6, height: 0.75 }, rotation }));
          const at = movedTo(deriveModel(project), 't', side, distance)!;
          const after = deriveModel(edit(project, 'piece.set', { piece: 't', set: { ...at } }));
          expect(gapsOf(after, 't')[side]!.distance).toBeCloseTo(distance, 6);
        },
      ),
      { numRuns: 40 },
    );
  });
});

describe('collisions', () => {
  it('of turned squares are as deep as the least way that parts them', () => {
    const square = (x: number, y: number, a: number) => [-1, 1].flatMap((i) => [-1, 1].map((j) => add({ x, y }, rotate({ x: i, y: i * j }, a))));
    expect(reachInto(square(0, 0, 0), square(1.5, 0, 0))).toBeCloseTo(0.5, 9);
    expect(reachInto(square(0, 0, 0), square(2, 0, 0))).toBe(0);
    // One standing on its corner reaches √2 to each side.
    expect(reachInto(square(0, 0, 0), square(2, 0, Math.PI / 4))).toBeCloseTo(Math.SQRT2 - 1, 9);
    expect(reachInto(square(0, 0, 0), square(2, 2, Math.PI / 4))).toBe(0);
    // Seen from the other it is the same.
    fc.assert(
      fc.property(
        fc.double({ min: -2, max: 2, noNaN: true }),
        fc.double({ min: -2, max: 2, noNaN: true }),
        fc.double({ min: 0, max: 3, noNaN: true }),
        (x, y, a) => {
          expect(reachInto(square(0, 0, 0), square(x, y, a))).toBeCloseTo(reachInto(square(x, y, a), square(0, 0, 0)), 9);
        },
      ),
    );
  });

  it('are told with what is in the way, the deepest first', () => {
    const model = deriveModel(withPieces(piece('table', 't', 2, 2, TABLE), piece('rug', 'r', 4, 2)));
    const size = { width: 0.5, depth: 0.5, height: 0.9 };
    const at = (x: number, y: number, rotation = 0) => overlapping(model, 'ground', { x, y, rotation }, size, new Set(['own']));
    expect(at(4, 2)).toBeNull();
    expect(at(3, 2)).toMatchObject({ id: 't', kind: 'piece', depth: expect.closeTo(0.05, 9) });
    expect(at(5.9, 2)).toMatchObject({ kind: 'wall', depth: expect.closeTo(0.15, 6) });
    // Above the table it is clear.
    expect(overlapping(model, 'ground', { x: 2, y: 2, rotation: 0 }, size, new Set(), 0.75)).toBeNull();
  });
});
