import { z } from 'zod';
import { DomainError } from '../errors';
import { Board, BoardItem, Id, Page } from '../schema';

import { define, editable, need, refuseTaken, sentence } from './define';

/** Edits of boards, their pages and items. */
export const boardCommands = {
  'board.add': define({
    title: 'Add board',
    args: Board,
    apply(draft, board) {
      refuseTaken(draft.boards, board.id);
      draft.boards[board.id] = board;
    },
  }),
  'board.set': define({
    title: 'Change board',
    args: z.object({ board: Id, set: editable(Board, ['id', 'pages', 'items']) }),
    apply: (draft, { board, set }) => void Object.assign(need(draft.boards, board, 'board'), set),
  }),
  'page.put': define({
    title: 'Change page',
    args: z.object({ board: Id, page: Page }),
    apply: (draft, { board, page }) => void (need(draft.boards, board, 'board').pages[page.id] = page),
  }),
  'item.add': define({
    title: 'Place on board',
    args: z.object({ board: Id, items: z.array(BoardItem).min(1).max(200) }),
    apply(draft, { board, items }) {
      const target = need(draft.boards, board, 'board');
      for (const item of items) {
        refuseTaken(target.items, item.id);
        need(target.pages, item.page, 'page');
        target.items[item.id] = item;
      }
    },
  }),
  'item.set': define({
    title: 'Change item',
    args: z.object({ board: Id, item: Id, set: z.record(z.string().max(40), z.unknown()) }),
    apply(draft, { board, item, set }) {
      const target = need(draft.boards, board, 'board');
      const old = need(target.items, item, 'item');
      const next = BoardItem.safeParse({ ...old, ...set, id: old.id, kind: old.kind });
      if (!next.success) throw new DomainError('item.values', `The item was not changed: ${sentence(next.error)}`, [item]);
      need(target.pages, next.data.page, 'page');
      target.items[item] = next.data;
    },
  }),
};
