import { describe, expect, it } from 'vitest';
import { finishById } from '../finishes/library';
import { pieceFrom, stockCard } from '../stock/stock';
import { edit, house } from '../testing/drafting';
import { PieceSet, pieceSetOf, placedSet, setWith } from './piece-set';
import type { Piece, Project } from './schema';

const bare = house([
  [0, 0],
  [6, 0],
  [6, 5],
  [0, 5],
]);
const piece = (card: string, id: string, x: number, y: number, own: Partial<Piece> = {}): Piece => ({
  ...pieceFrom(stockCard(card)!, id, bare.levels.ground, { x, y }),
  ...own,
});
const green = { ...finishById('paint.reed'), id: 'own.green', name: 'Our green' };
const furnished = edit(edit(bare, 'finish.put', green), 'piece.add', {
  pieces: [
    piece('table', 'table', 2, 2, { size: { width: 1.6, depth: 0.8, height: 0.75 }, finishes: { top: 'own.green' }, linked: 'k' }),
    piece('table', 'second', 4, 2, { size: { width: 1.6, depth: 0.8, height: 0.75 }, linked: 'k' }),
    piece('vase', 'vase', 2.1, 2, { elevation: 0.75, on: 'table' }),
    piece('chair', 'chair', 2, 1.2, { on: null }),
  ],
});

describe('a set', () => {
  it('is told from the middle of its pieces, with what stands on them and the finishes of one’s own', () => {
    const set = pieceSetOf(furnished, ['table', 'chair']);
    expect(PieceSet.safeParse(JSON.parse(JSON.stringify(set))).success).toBe(true);
    expect(set.pieces.map((p) => p.id).sort()).toEqual(['chair', 'table', 'vase']);
    expect(set.finishes.map((f) => f.id)).toEqual(['own.green']);
    const size = stockCard('chair')!.size;
    // From the back of the table to the back of the chair.
    const middle = (2 + 0.4 + 1.2 - size.depth / 2) / 2;
    expect(set.pieces.find((p) => p.id === 'table')).toMatchObject({ x: 0, y: expect.closeTo(2 - middle, 9) });
    // What it stood on is not in the set.
    expect(pieceSetOf(furnished, ['vase']).pieces[0].on).toBeNull();
  });

  it('stands in another project with ids of its own, its finishes, and kept together', () => {
    const other = house([[0, 0], [4, 0], [4, 4], [0, 4]]); // prettier-ignore
    const set = pieceSetOf(furnished, ['table', 'second', 'chair']);
    let n = 0;
    const made = placedSet(set, other, 'ground', { x: 1, y: 3 }, () => `new${n++}`);
    const after = edit(other, 'set.place', { id: 'g', name: 'Dining', ...made });
    const by = (name: string): Piece[] => Object.values(after.pieces).filter((p) => p.maker === name);
    expect(Object.keys(after.pieces)).toHaveLength(4);
    expect(by('vase')[0].on).toBe(by('table')[0].id);
    expect(by('vase')[0].x - by('table')[0].x).toBeCloseTo(0.1, 9);
    expect(after.finishes['own.green'].name).toBe('Our green');
    expect(by('table').map((t) => t.linked)).toEqual([`link.${by('table')[0].id}`, `link.${by('table')[0].id}`]);
    expect(setWith(after, by('chair')[0].id)).toMatchObject({ id: 'g', name: 'Dining', together: true });
    // A second time a finish that is there already stays as it is.
    const again = placedSet(set, after, 'ground', { x: 3, y: 3 }, () => `new${n++}`);
    expect(again.finishes).toEqual([]);
    const twice = edit(after, 'set.place', { id: 'h', name: 'Dining 2', ...again });
    expect(new Set(Object.values(twice.pieces).flatMap((p) => p.linked ?? [])).size).toBe(2);
    expect(() => edit(after, 'set.place', { id: 'g', name: 'Dining', ...again })).toThrow();
  });

  it('is parted, and a plain group is none', () => {
    const kept = (together: boolean): Project => edit(furnished, 'contents.group', { id: 'g', name: 'G', members: ['table', 'chair'], together });
    expect(setWith(kept(true), 'chair')?.id).toBe('g');
    expect(setWith(kept(false), 'chair')).toBeNull();
    expect(setWith(edit(kept(true), 'contents.group', { id: 'g', name: 'G', members: [], together: false }), 'chair')).toBeNull();
  });
});
