import { describe, expect, it, vi } from 'vitest';
import { newOpening } from '@/core/project/opening-defaults';
import { hungFrom, placesAtOpening } from '@/core/placing/hanging';
import { deriveModel } from '@/core/model/derive';
import { stockCard } from '@/core/stock/stock';
import { box, edit, wallBy } from '@/core/testing/drafting';
import * as arranging from './arranging';
import { down, move, nudgeSelection, turnSelection, up } from './controller';
import * as hanging from './hanging';
import { dropPiece, duplicateSelection, showDrop } from './pieces';
import type { TablePoint } from './session';
import { openBefore, sameAsShown, select, state } from './testing';

vi.mock('idb-keyval', () => import('./empty-store'));

/** A room of 6 by 4 m with two windows at its front and one at its side, a curtain at the first. */
const project = (() => {
  let p = box();
  for (const [id, a, b, at] of [
    ['one', [0, 0], [6, 0], 1.5],
    ['two', [0, 0], [6, 0], 4.5],
    ['three', [6, 0], [6, 4], 2],
  ] as const)
    p = edit(p, 'opening.add', {
      ...newOpening(p, { id, wall: wallBy(p, [...a], [...b]), kind: 'window', at, width: 1, height: 1.1, sill: 0.9 }),
      name: `Window ${id}`,
    });
  const own = hungFrom(p, stockCard('curtain')!, 'own', placesAtOpening(deriveModel(p), 'one')[0])!;
  return edit(p, 'piece.add', { pieces: [own] });
})();
const [room] = Object.keys(project.rooms);
openBefore(() => project);

const at = (x: number, y: number): TablePoint => ({ plan: { x, y }, spot: null, reach: 0.1, shift: false });
const hangsAt = (id: string): string | null => state().project.pieces[id].hangs?.opening ?? null;

describe('hanging', () => {
  it('shows what a press then does, whichever it is', () => {
    for (const worked of [
      () => hanging.hungSo('own', { ends: 'below the sill' }),
      () => hanging.hungSo('own', { sides: 0.4, above: 0.05 }),
      () => hanging.hungEverywhere('own', 'room'),
      () => hanging.hungAtAll(['three'], 'roller-blind'),
      () => hanging.hungAtAll(hanging.windowsOf(state().model, room), 'shutters', room),
      () => arranging.replacedBy(['own'], 'roman-blind'),
      () => hanging.takenOff('own'),
    ])
      sameAsShown(worked);
    expect(hangsAt('own')).toBeNull();
    sameAsShown(() => hanging.hungNear('own'));
    expect(hangsAt('own')).toBe('one');
  });

  it('hangs a card at the window one drops it at, in plan and at the window itself, and lets it stand elsewhere', () => {
    for (const [card, point, opening] of [
      ['curtain-eyelet', at(4.4, 0.5), 'two'],
      ['roller-blind', { ...at(0, 9), spot: { entity: 'three', target: null } }, 'three'],
      ['curtain', at(3, 2.2), null],
    ] as const) {
      showDrop(card, point);
      const shown = state().model.project.pieces;
      expect(state().measure?.note.startsWith(opening ? `at Window ${opening}` : '')).toBe(true);
      dropPiece(card, point);
      expect(state().project.pieces).toEqual(shown);
      const [id] = state().selection.map((s) => s.entity);
      expect(hangsAt(id)).toBe(opening);
    }
  });

  it('is dragged from window to window, and off them', () => {
    const { x, y } = state().project.pieces.own;
    const drag = (to: TablePoint): void => {
      const piece = state().project.pieces.own;
      down({ ...at(piece.x, piece.y), spot: { entity: 'own', target: null } });
      move(at((piece.x + to.plan.x) / 2, to.plan.y));
      move(to);
      up(to);
    };
    drag(at(4.5, 0.3));
    expect(hangsAt('own')).toBe('two');
    expect(state().project.pieces.own.x).toBeCloseTo(x + 3, 6);
    expect(state().project.pieces.own.y).toBeCloseTo(y, 6);
    drag(at(3, 2.5));
    expect(hangsAt('own')).toBeNull();
    drag(at(5.6, 2));
    expect(hangsAt('own')).toBe('three');
    for (let i = 0; i < 3; i++) state().undo();
    expect(state().project.pieces.own).toEqual(project.pieces.own);
  });

  it('goes with its window alone: arrows and turns say so', () => {
    select('own');
    for (const act of [() => nudgeSelection('ArrowLeft', 'large'), () => turnSelection()]) {
      state().say('');
      act();
      expect(state().notice).toBe('Curtain pair was not moved: it hangs at Window one and goes with it; take it off first.');
    }
    expect(state().project).toEqual(project);
    // A copy beside it hangs nowhere.
    duplicateSelection();
    expect(hangsAt(state().selection[0].entity)).toBeNull();
  });

  it('says in a sentence what it can’t do', () => {
    state().run('delete', { ids: ['two', 'three'] });
    const now = state().project;
    for (const worked of [hanging.hungEverywhere('own', 'room'), hanging.hungAtAll([], 'curtain')]) {
      expect(arranging.doWorked(worked)).toBe(false);
      expect(state().notice).toMatch(/^(Curtain pair was not copied: its room has no other window|Nothing was hung: .*)\.$/);
    }
    expect(state().project).toBe(now);
  });
});
