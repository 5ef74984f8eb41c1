import { describe, expect, it } from 'vitest';
import { deriveModel } from '../model/derive';
import { hungFrom, placesAtOpening } from '../placing/hanging';
import { newOpening } from '../project/opening-defaults';
import type { Opening, Piece, Project } from '../project/schema';
import { stockCard } from '../stock/stock';
import { box, edit, wallBy } from '../testing/drafting';
import { finishIn } from '../finishes/store';
import { coveringSchedule, soldAs } from './coverings';
import { costByRoom, costByTrade, orderList } from './costs';

/** A house with a window of 2 by 1.2 m, its sill at 0.9 m, and a covering at it. */
function hung(card: string, own: Partial<Piece> = {}, window: Partial<Opening> = {}): Project {
  const bare = box(8, 4);
  const p = edit(bare, 'opening.add', {
    ...newOpening(bare, { id: 'w', wall: wallBy(bare, [0, 0], [8, 0]), kind: 'window', at: 4, width: 2, height: 1.2, sill: 0.9 }),
    name: 'Window',
    stand: { kind: 'set-back', from: 'back', by: 0.2 },
    ...window,
  });
  const piece = hungFrom(p, stockCard(card)!, 'c', placesAtOpening(deriveModel(p), 'w')[0])!;
  return edit(p, 'piece.add', { pieces: [{ ...piece, ...own }] });
}
const row = (p: Project) => coveringSchedule(deriveModel(p))[0];

describe('the schedule of coverings', () => {
  it('gives finished size, cloth, lining and track of curtains by hand', () => {
    const p = hung('curtain');
    const one = row(p);
    // The pole: 2 m and 200 mm at each side. The curtains: 30 mm within its ends; from 41 mm below its top to 1 mm above its foot at 10 mm.
    expect(one).toMatchObject({ opening: 'Window', hung: 'before the wall', width: expect.closeTo(2.4, 9), track: expect.closeTo(2.4, 9) });
    expect(one.drop).toBeCloseTo(2.25 - 0.01 - 0.041 - 0.001, 6);
    // Each covers 1.17 m at twice the cloth: 2.34 m, of cloth 1.4 m wide 1.67 widths, two to the half. Four drops, with heading and hem.
    const { bolt, repeat } = soldAs(finishIn(p, 'cloth.oat-weave'));
    expect([bolt, repeat]).toEqual([1.4, 0]);
    expect(one).toMatchObject({ widths: 2, cut: expect.closeTo(one.drop + 0.33, 9), metres: expect.closeTo(4 * (one.drop + 0.33), 9) });
    expect(one.lining).toBeCloseTo(one.metres, 9);
    expect(one.sheer).toBe(0);
  });

  it('cuts to the repeat of a print, sheers in one width, a Roman blind flat; a roller blind is sewn of nothing', () => {
    const printed = row(hung('curtain', { finishes: { cloth: 'cloth.print-sprig' } }));
    expect(printed.cut / 0.36).toBeCloseTo(Math.ceil((printed.drop + 0.33) / 0.36), 6);
    const wave = row(hung('curtain-wave'));
    // The sheer covers 2.34 m at 1.6: 3.74 m of cloth 2.9 m wide: one and a half widths, two drops.
    expect(wave.sheer).toBeCloseTo(2 * (2.25 - 0.01 - 0.055 - 0.001 + 0.33), 6);
    expect(row(hung('roman-blind'))).toMatchObject({ hung: 'in the recess', width: expect.closeTo(1.99, 9), widths: 1.5, drop: expect.closeTo(1.194, 6) });
    // What hangs in a recess is of the room its window looks into.
    const p = hung('roman-blind');
    expect(row(p).room).toBe(Object.values(p.rooms)[0].name);
    expect(row(hung('roller-blind'))).toMatchObject({ widths: null, metres: 0, track: 0, width: expect.closeTo(1.99, 9), drop: expect.closeTo(1.2, 9) });
  });

  it('follows its window, costs the cloth with the making, and nothing where it is there already', () => {
    const p = hung('curtain');
    const wide = edit(p, 'opening.set', { opening: 'w', set: { width: 3 } });
    expect(row(wide).width).toBeCloseTo(3.4, 9);
    expect(row(wide).metres).toBeGreaterThan(row(p).metres);
    const model = deriveModel(p);
    const orders = orderList(model);
    const cloth = orders.find((o) => o.name === 'For coverings: Oat weave')!;
    expect(cloth.quantity).toBeCloseTo(Math.ceil(row(p).metres * 10) / 10, 9);
    expect(cloth.cost).toBeCloseTo(cloth.quantity * finishIn(p, 'cloth.oat-weave').price, 9);
    expect(orders.filter((o) => o.trade === 'Soft furnishing').map((o) => o.name)).toEqual(
      expect.arrayContaining(['Curtain pair', 'For coverings: Oat weave', 'For coverings: White linen']),
    );
    const [sewn] = costByTrade(model).filter((t) => t.trade === 'Soft furnishing');
    expect(sewn.cost).toBeCloseTo(
      orders.filter((o) => o.trade === 'Soft furnishing').reduce((sum, o) => sum + o.cost, 0),
      9,
    );
    const room = costByRoom(model).find((r) => r.id === Object.keys(p.rooms)[0])!;
    expect(room.cost).toBeGreaterThanOrEqual(sewn.cost - 1e-9);
    const kept = deriveModel(edit(p, 'piece.set', { piece: 'c', set: { status: 'existing' } }));
    expect(coveringSchedule(kept)[0]).toMatchObject({ status: 'stays', cost: 0 });
    expect(orderList(kept).filter((o) => o.trade === 'Soft furnishing')).toEqual([]);
  });
});
