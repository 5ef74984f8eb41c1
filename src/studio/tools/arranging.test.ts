import { describe, expect, it, vi } from 'vitest';
import type { Piece } from '@/core/project/schema';
import { pieceFrom, stockCard } from '@/core/stock/stock';
import { edit, house } from '@/core/testing/drafting';
import { useLibrary } from '../store/library';
import * as arranging from './arranging';
import { collisionNote } from './collisions';
import { escape, nudgeSelection } from './controller';
import { dropPiece, showDrop } from './pieces';
import type { TablePoint } from './session';
import { openBefore, sameAsShown, select, state } from './testing';
import { cardOfSet, chosenSet, chosenWith, keepTogether, openSet, partSet } from './sets';
import { pieceSetOf } from '@/core/project/piece-set';

vi.mock('idb-keyval', () => import('./empty-store'));

const bare = house([
  [0, 0],
  [5, 0],
  [5, 4],
  [0, 4],
]);
const piece = (card: string, id: string, x: number, y: number, own: Partial<Piece> = {}): Piece => ({
  ...pieceFrom(stockCard(card)!, id, bare.levels.ground, { x, y }),
  ...own,
});
const project = edit(bare, 'piece.add', {
  pieces: [
    piece('table', 'table', 2.5, 2, { size: { width: 1.6, depth: 0.8, height: 0.75 } }),
    piece('vase', 'vase', 2.6, 2, { on: 'table', elevation: 0.75 }),
    piece('chest', 'chest', 1, 3.4, { size: { width: 0.8, depth: 0.5, height: 0.8 } }),
    piece('chest', 'other', 3.9, 3.2, { size: { width: 0.8, depth: 0.5, height: 0.8 } }),
  ],
});
openBefore(() => project);

describe('arranging', () => {
  it('shows what a press then does, whichever it is', () => {
    const copying: arranging.Copying = { across: 3, stepAcross: 1, along: 2, stepAlong: 0.8, ring: 5, radius: 1.2, linked: true };
    for (const worked of [
      () => arranging.atDistance('chest', 'left', 0.2),
      () => arranging.backed('other'),
      () => arranging.inMiddle('chest', 'along'),
      () => arranging.faced('chest'),
      () => arranging.chairsAt('table', 'chair'),
      () => arranging.inRows('chest', copying),
      () => arranging.inRing('other', copying),
      () => arranging.replacedBy(['chest', 'other'], 'desk-drawers'),
    ])
      sameAsShown(worked);
    select('table', 'other', 'chest');
    sameAsShown(() => arranging.inOneLine('back'));
    sameAsShown(() => arranging.evenly(0.3));
  });

  it('links the copied with its copies in one step that is undone at once', () => {
    arranging.doWorked(arranging.inRows('chest', { across: 3, stepAcross: 0.9, along: 1, stepAlong: 1, ring: 1, radius: 1, linked: true }));
    const linked = Object.values(state().project.pieces).filter((p) => p.linked !== null);
    expect(linked).toHaveLength(3);
    expect(new Set(linked.map((p) => p.linked)).size).toBe(1);
    state().run('piece.set', { piece: linked[2].id, set: { size: { width: 0.9, depth: 0.5, height: 1 } } });
    expect(state().project.pieces.chest.size.height).toBe(1);
    expect(arranging.doWorked(arranging.unlinked(['chest']))).toBe(true);
    state().undo();
    state().undo();
    state().undo();
    expect(state().project.pieces).toEqual(project.pieces);
  });

  it('says in a sentence what it can’t do, and changes nothing', () => {
    for (const worked of [
      arranging.beforeOpening('table'),
      arranging.inRows('chest', { across: 90, stepAcross: 1, along: 90, stepAlong: 1, ring: 1, radius: 1, linked: false }),
      arranging.inRows('chest', { across: 1, stepAcross: 1, along: 1, stepAlong: 1, ring: 1, radius: 1, linked: false }),
      arranging.inOneLine('left'),
      arranging.evenly(null),
    ]) {
      expect(arranging.doWorked(worked)).toBe(false);
      expect(state().notice).toMatch(/^(Nothing was|Dining table was|Chest of drawers was).*\.$/);
    }
    expect(state().project).toEqual(project);
  });

  it('replaces all that are alike, and knows which are', () => {
    expect(arranging.alikeWith(project, 'chest')).toEqual(['other']);
    expect(arranging.alikeWith(project, 'table')).toEqual([]);
    arranging.doWorked(arranging.replacedBy(['chest', ...arranging.alikeWith(project, 'chest')], 'bookcase'));
    expect([state().project.pieces.chest.maker, state().project.pieces.other.maker]).toEqual(['bookcase', 'bookcase']);
    expect(state().project.pieces.chest.y + state().project.pieces.chest.size.depth / 2).toBeCloseTo(3.4 + 0.25, 9);
  });

  it('keeps what was chosen for parts that the other has too, where that is the same for all that are replaced', () => {
    state().run('piece.add', { pieces: [piece('armchair', 'a', 1.5, 1.5), piece('armchair', 'b', 3.2, 1.5)] });
    const dress = (of: string, part: string, finish: string) => state().run('finish.apply', { targets: [{ kind: 'part', of, part }], finish });
    const finishes = (id: string) => state().project.pieces[id].finishes;
    expect(dress('a', 'cushions', 'cloth.tweed-heath')).toBe(true);
    arranging.doWorked(arranging.replacedBy(['a'], 'sofa-two'));
    expect(finishes('a')).toMatchObject({ cushions: 'cloth.tweed-heath' });
    // What its card began with is not chosen: another card has its own.
    arranging.doWorked(arranging.replacedBy(['b'], 'armchair-buttoned'));
    expect(finishes('b').cushions).toBe('cloth.tan-hide');
    arranging.doWorked(arranging.replacedBy(['b'], 'armchair'));
    expect(finishes('b').cushions ?? 'cloth.moss-herringbone').toBe('cloth.moss-herringbone');
    // Two that differ are replaced by what the card is.
    arranging.doWorked(arranging.replacedBy(['a', 'b'], 'slipper-chair'));
    expect(finishes('a').cushions ?? 'cloth.moss-herringbone').toBe('cloth.moss-herringbone');
  });

  it('goes by steps of the units of the project', () => {
    select('chest');
    const moved = (size: 'small' | 'middle' | 'large', key = 'ArrowRight'): number => {
      const { x, y } = state().project.pieces.chest;
      nudgeSelection(key, size);
      const now = state().project.pieces.chest;
      return Math.hypot(now.x - x, now.y - y);
    };
    expect([moved('small'), moved('middle', 'ArrowUp'), moved('large', 'ArrowLeft')]).toEqual([0.001, 0.01, 0.1].map((v) => expect.closeTo(v, 9)));
    state().run('project.units', { units: 'imperial' });
    expect([moved('small'), moved('middle', 'ArrowDown'), moved('large')]).toEqual([0.0254 / 16, 0.0254, 0.3048].map((v) => expect.closeTo(v, 9)));
    expect(moved('small', 'Enter')).toBe(0);
  });

  it('tells collisions, not of chairs at tables, of what stands on a piece or on which it stands', () => {
    const { model } = state();
    const note = (own: Piece): string => collisionNote(model, own);
    expect(note(piece('chest', 'new', 2.5, 2))).toMatch(/into Dining table$/);
    expect(note(piece('chest', 'new', 4.9, 2))).toMatch(/into a wall$/);
    expect(note(piece('chest', 'new', 4, 1))).toBe('');
    expect(note(piece('chair', 'new', 2.5, 1.5))).toBe('');
    expect(note(project.pieces.table)).toBe('');
    expect(note(piece('rug', 'new', 2.5, 2))).toBe('');
  });
});

describe('sets', () => {
  const at = (x: number, y: number): TablePoint => ({ plan: { x, y }, spot: null, reach: 0.1, shift: false });

  it('are chosen as a whole, opened for one, closed by Escape, and parted', () => {
    select('chest', 'other');
    expect(chosenSet()).toBeNull();
    keepTogether();
    const own = chosenSet()!;
    expect(own).toMatchObject({ name: 'Set 1', members: ['chest', 'other'] });
    const press = (entity: string): string[] => chosenWith({ entity, target: null }).map((s) => s.entity);
    expect(press('chest')).toEqual(['other', 'chest']);
    expect(press('table')).toEqual(['table']);
    openSet(own.id);
    expect(press('chest')).toEqual(['chest']);
    escape();
    expect(press('chest')).toEqual(['other', 'chest']);
    expect(partSet(own.id)).toBe(true);
    expect(press('chest')).toEqual(['chest']);
    state().undo();
    expect(press('chest')).toEqual(['other', 'chest']);
  });

  it('are shown where they are placed, once for one press', () => {
    const set = pieceSetOf(project, ['table', 'chest']);
    useLibrary.setState({ entries: [{ id: 'own-1', kind: 'set', name: 'Corner', data: set }], read: true });
    const card = cardOfSet('own-1');
    showDrop(card, at(2, 2));
    showDrop(card, at(2.4, 2));
    const shown = state().model.project.pieces;
    expect(Object.keys(shown)).toHaveLength(4 + 3);
    dropPiece(card, at(2.4, 2));
    expect(state().project.pieces).toEqual(shown);
    expect(chosenSet()).toMatchObject({ name: 'Corner' });
    dropPiece(card, at(3, 2));
    expect(Object.keys(state().project.pieces)).toHaveLength(4 + 6);
    expect(Object.keys(state().project.contents.groups)).toHaveLength(2);
    useLibrary.setState({ entries: [], read: true });
  });
});
