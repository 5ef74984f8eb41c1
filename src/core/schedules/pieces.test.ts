import { describe, expect, it } from 'vitest';
import { heronLockCottage } from '../demo/heron-lock';
import { deriveModel, Deriver } from '../model/derive';
import { pieceFrom, priceOf, stockCard, stockItem } from '../stock/stock';
import { edit, house } from '../testing/drafting';
import { costByRoom, costByTrade, orderList, tradeOfPiece } from './costs';
import { pieceSchedule } from './pieces';
import type { Piece, Project } from '../project/schema';

const SEAT = stockCard('chair')!;

/** A house of two rooms, 3 m deep, with the wall between them at 2 m. */
function twoRooms(): Project {
  const p = house([[0, 0], [6, 0], [6, 3], [0, 3]]); // prettier-ignore
  return edit(p, 'wall.draw', { level: 'ground', points: [{ x: 2, y: 0 }, { x: 2, y: 3 }], closed: false, thickness: 0.1 }); // prettier-ignore
}

const seat = (p: Project, id: string, x: number, own: Partial<Piece> = {}): Piece => ({ ...pieceFrom(SEAT, id, p.levels.ground, { x, y: 1.5 }), ...own });

describe('the schedule of pieces', () => {
  it('counts what is alike in a room together, and keeps apart what differs in anything bought', () => {
    let p = twoRooms();
    p = edit(p, 'piece.add', {
      pieces: [
        seat(p, 'a', 0.6),
        seat(p, 'b', 1.3),
        seat(p, 'c', 3),
        seat(p, 'd', 4, { finishes: { [Object.keys(SEAT.item.parts)[0]]: 'paint.reed' } }),
        seat(p, 'e', 5, { supply: 'bought' }),
        seat(p, 'f', 9),
      ],
    });
    const rows = pieceSchedule(deriveModel(p));
    expect(rows.map((r) => r.count)).toEqual(expect.arrayContaining([2, 1, 1, 1, 1]));
    expect(rows.reduce((sum, r) => sum + r.count, 0)).toBe(6);
    const price = priceOf(SEAT.item, SEAT.size);
    const pair = rows.find((r) => r.count === 2)!;
    expect(pair).toMatchObject({ price, cost: 2 * price, supplier: SEAT.item.sold.supplier, ...SEAT.size });
    expect(rows.find((r) => r.id === 'd')!.finishes).toContain('Reed');
    expect(rows.find((r) => r.id === 'e')!.status).toBe('bought');
    expect(rows.find((r) => r.id === 'f')!.room).toBe('In no room');
  });

  it('holds what stays and what goes in every phase, without a price', () => {
    let p = twoRooms();
    p = edit(p, 'piece.add', { pieces: [seat(p, 'a', 0.6, { status: 'existing' }), seat(p, 'b', 1.3, { status: 'removed' }), seat(p, 'c', 3)] });
    for (const phase of ['before', 'after'] as const) {
      const rows = pieceSchedule(new Deriver().derive(p, phase));
      expect(rows.map((r) => [r.id, r.status, r.cost > 0]).sort()).toEqual([
        ['a', 'stays', false],
        ['b', 'goes', false],
        ['c', 'to order', true],
      ]);
    }
    expect(orderList(deriveModel(p)).map((r) => r.id)).toEqual(['c']);
  });

  it('names the finishes of what is made, and of no part it has not', () => {
    const p = twoRooms();
    const curtain = { ...pieceFrom(stockCard('curtain')!, 'a', p.levels.ground, { x: 1, y: 1.5 }) };
    const said = (own: Partial<Piece>): string => pieceSchedule(deriveModel(edit(p, 'piece.add', { pieces: [{ ...curtain, ...own }] })))[0].finishes;
    expect(said({})).toMatch(/^cloth: [^;]*; lining: [^;]*; rail: [^;]*$/);
    expect(said({ traits: {} })).toMatch(/^cloth: [^;]*; rail: [^;]*$/);
    expect(said({ traits: { sheer: true, hung: 'pelmet' } })).toMatch(/cloth: .*; sheer: .*; rail: .*; pelmet: /);
  });

  it('stock that is not shipped is listed without a price, and not ordered', () => {
    let p = twoRooms();
    p = edit(p, 'piece.add', { pieces: [seat(p, 'a', 0.6, { maker: 'no-such-maker', finishes: {} })] });
    const model = deriveModel(p);
    expect(pieceSchedule(model)).toMatchObject([{ id: 'a', supplier: '', code: '', price: 0, finishes: '' }]);
    expect(orderList(model)).toEqual([]);
  });

  it('goes into the cost: alike ones of all rooms on one line, shared out by where they stand', () => {
    let p = twoRooms();
    p = edit(p, 'piece.add', { pieces: [seat(p, 'a', 0.6), seat(p, 'b', 3), seat(p, 'c', 4, { supply: 'ordered' }), seat(p, 'd', 5, { supply: 'bought' })] });
    const model = deriveModel(p);
    const price = priceOf(SEAT.item, SEAT.size);
    expect(orderList(model)).toMatchObject([{ trade: 'Furniture', quantity: 4, order: '2 to order, 1 ordered, 1 bought', price, cost: 4 * price }]);
    const by = new Map(costByRoom(model).map((r) => [r.id, r.cost]));
    const [small, large] = [...model.shell.rooms.values()].sort((a, b) => a.area - b.area);
    expect(by.get(small.id)).toBeCloseTo(price, 9);
    expect(by.get(large.id)).toBeCloseTo(3 * price, 9);
    expect(costByTrade(model)).toMatchObject([{ trade: 'Furniture', cost: 4 * price }]);
  });

  it('of the demo: every piece is counted once, and trades are as who brings them', () => {
    const model = deriveModel(heronLockCottage());
    const rows = pieceSchedule(model);
    expect(rows.reduce((sum, r) => sum + r.count, 0)).toBe(Object.keys(model.project.pieces).length);
    expect(tradeOfPiece(stockItem('sofa')!)).toBe('Furniture');
    expect(tradeOfPiece(stockItem('pendant')!)).toBe('Electrical');
    expect(tradeOfPiece(stockItem('rug')!)).toBe('Soft furnishing');
    expect(tradeOfPiece(stockItem('radiator')!)).toBe('Plumbing and heating');
  });
});
