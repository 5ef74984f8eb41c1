import { describe, expect, it } from 'vitest';
import { deriveModel } from '../model/derive';
import { hungFrom, placesAtOpening } from '../placing/hanging';
import { newOpening } from '../project/opening-defaults';
import type { Opening, Project } from '../project/schema';
import { stockCard } from '../stock/stock';
import { box, edit, wallBy } from '../testing/drafting';
import { coveringFindings } from './coverings';

function hung(card: string, window: Partial<Opening>): Project {
  const bare = box(8, 4);
  const p = edit(bare, 'opening.add', {
    ...newOpening(bare, { id: 'w', wall: wallBy(bare, [0, 0], [8, 0]), kind: 'window', at: 4 }),
    name: 'Window',
    ...window,
  });
  const piece = hungFrom(p, stockCard(card)!, 'c', placesAtOpening(deriveModel(p), 'w')[0])!;
  return edit(p, 'piece.add', { pieces: [piece] });
}
const said = (p: Project): string[] => coveringFindings(deriveModel(p)).map((f) => f.message);
const DEEP = { stand: { kind: 'set-back', from: 'back', by: 0.2 } } as const;

describe('coverings', () => {
  it('are told where they are not made as large as their window asks', () => {
    expect(said(hung('roller-blind', { width: 2.9, height: 1.1, sill: 0.9, ...DEEP }))).toEqual([]);
    expect(said(hung('roller-blind', { width: 3.4, height: 1.1, sill: 0.9, ...DEEP }))).toEqual([
      'Roller blind at Window would be 3390 wide: it is made up to 3000; hang more than one.',
    ]);
    expect(said(hung('roller-blind', { width: 0.35, height: 1.1, sill: 0.9, ...DEEP }))).toEqual([
      'Roller blind at Window would be 340 wide: it is made from 400 on.',
    ]);
  });

  it('are told where they stand out of a recess', () => {
    expect(said(hung('roller-blind', { width: 1.2, height: 1.1, sill: 0.9, stand: { kind: 'set-back', from: 'back', by: 0.05 } }))).toEqual([
      'Roller blind stands 20 out of the recess of Window, which is 50 deep.',
    ]);
    // Where there is hardly a recess it is hung before the wall from the first.
    expect(said(hung('roller-blind', { width: 1.2, height: 1.1, sill: 0.9, stand: { kind: 'set-back', from: 'back', by: 0.01 } }))).toEqual([]);
  });
});
