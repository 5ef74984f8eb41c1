import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { heronLockCottage } from '../demo/heron-lock';
import { deriveModel } from '../model/derive';
import { finishById } from '../finishes/library';
import { newOpening } from '../project/opening-defaults';
import { withScheme } from '../project/choices';
import type { Project } from '../project/schema';
import { pieceFrom, stockItem } from '../stock/stock';
import { edit, house, wallAt } from '../testing/drafting';
import { costByRoom, costByTrade, schemeCost, orderList } from './costs';
import { finishSchedule, mouldingSchedule, surfaceSchedule } from './finishes';
import { orderFor, rollsFor, takeOff, type Lot } from './takeoff';

const seed = Number(process.env.FC_SEED ?? 9);
const room = (p: Project) => Object.values(p.rooms)[0].id;
const south = (p: Project) => wallAt(p, (a, b) => a.y === 0 && b.y === 0);
const lot = (area: number, more: Partial<Lot> = {}): Lot => ({
  finish: 'x',
  laid: finishById('paint.reed'),
  room: null,
  what: 'wall',
  entity: '',
  kind: 'wall',
  area,
  hidden: 0,
  layout: null,
  ordered: true,
  runs: [],
  ...more,
});

describe('what is taken off and ordered', () => {
  it('sums up: over all finishes it is the area of all faces, on random rooms with openings and patches', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 30, max: 70 }),
        fc.integer({ min: 25, max: 60 }),
        fc.integer({ min: 0, max: 3 }),
        fc.double({ min: 0.2, max: 2, noNaN: true }),
        (w, d, windows, height) => {
          let p = house([
            [0, 0],
            [w / 10, 0],
            [w / 10, d / 10],
            [0, d / 10],
          ]);
          for (let i = 0; i < windows; i++)
            p = edit(p, 'opening.add', newOpening(p, { id: `w${i}`, wall: south(p), kind: 'window', at: 0.7 + i * 0.9, width: 0.6 }));
          p = edit(p, 'finish.apply', { targets: [{ kind: 'walls', room: room(p) }], finish: 'paint.reed' });
          p = edit(p, 'finish.apply', { targets: [{ kind: 'floor', room: room(p) }], finish: 'tile.square-ink' });
          p = edit(p, 'patch.put', {
            patches: [
              {
                id: 'b',
                name: 'Band',
                on: { kind: 'walls', room: room(p) },
                shape: { kind: 'band', from: 0, to: height },
                order: 0,
                finish: 'tile.square-white',
                panels: null,
              },
            ],
          });
          const m = deriveModel(p);
          const faces = m.shell.levels[0].faces.reduce((sum, f) => sum + f.area, 0);
          const lots = takeOff(m)
            .filter((l) => l.kind !== 'thing')
            .reduce((sum, l) => sum + l.area, 0);
          expect(lots).toBeCloseTo(faces, 5);
          const [iw, id] = [w / 10 - 0.3, d / 10 - 0.3];
          const reed = finishSchedule(m).find((r) => r.id === 'paint.reed')!.area;
          const white = finishSchedule(m).find((r) => r.id === 'tile.square-white')!.area;
          expect(reed + white).toBeCloseTo(2 * (iw + id) * 2.5 - windows * 0.6 * 1.2, 5);
          const floor = surfaceSchedule(m).find((r) => r.face === 'floor')!;
          expect(floor.area).toBeCloseTo(iw * id, 6);
          expect(Number(floor.whole) + Number(floor.cut)).toBeGreaterThan((iw * id) / (0.1025 * 0.1025) - 1);
        },
      ),
      { numRuns: 12, seed },
    );
  });

  it('leaves out what stands fixed against a wall and on the floor', () => {
    let p = house([
      [0, 0],
      [4, 0],
      [4, 3],
      [0, 3],
    ]);
    const counter = pieceFrom(stockItem('radiator')!, 'c', p.levels.ground, { x: 2, y: 2.85 - 0.31 }, 0);
    p = edit(p, 'piece.add', { pieces: [{ ...counter, size: { width: 2, depth: 0.62, height: 0.9 } }] });
    const bare = deriveModel({ ...p, pieces: {} });
    const m = deriveModel(p);
    const hidden = (kind: string) =>
      surfaceSchedule(m)
        .filter((r) => r.room && r.room !== 'Outside' && r.face === kind)
        .reduce((sum, r) => sum + r.hidden, 0);
    expect(hidden('floor')).toBeCloseTo(2 * 0.62, 6);
    expect(hidden('wall')).toBeCloseTo(2 * 0.9, 6);
    const area = (of: typeof m) =>
      takeOff(of)
        .filter((l) => l.kind !== 'thing')
        .reduce((sum, l) => sum + l.area, 0);
    expect(area(bare) - area(m)).toBeCloseTo(2 * 0.62 + 2 * 0.9, 6);
    // Panels too, framed by 30 mm: what lies within the one behind the counter is seen on either side of it only.
    const panels = { across: 1, up: 1, width: 0.5, margin: 0.1, gap: 0.1, profile: 'panel-ogee', moulding: null, field: 'paint.skein' };
    const band = { id: 'b', name: 'Panels', order: 0, finish: 'paint.reed', panels } as const;
    const clad = edit(p, 'patch.put', { patches: [{ ...band, on: { kind: 'walls', room: room(p) }, shape: { kind: 'band', from: 0, to: 0.9 } }] });
    const within = finishSchedule(deriveModel(clad)).find((r) => r.id === 'paint.skein')!.area;
    expect(within).toBeCloseTo((2 * (3.7 - 0.26) + 2 * (2.7 - 0.26) - 2) * (0.9 - 0.26), 6);
    expect(area(deriveModel(clad))).toBeCloseTo(area(m), 6);
  });

  it('rolls, by worked examples', () => {
    // A room of 4 × 3 m, 2.4 m high, plain paper: 14 m / 0.53 = 27 drops of 2.5 m, four to a roll: 7 rolls.
    expect(rollsFor([{ length: 14, height: 2.4 }], 0.53, 0)).toEqual({ drops: 27, rolls: 7 });
    // The same with a repeat of 0.53 m: drops of 2.65 m, three to a roll: 9 rolls.
    expect(rollsFor([{ length: 14, height: 2.4 }], 0.53, 0.53)).toEqual({ drops: 27, rolls: 9 });
    // One wall of 3.2 m, 2.7 m high, repeat 0.64 m: 7 drops of 3.2 m, three to a roll: 3 rolls.
    expect(rollsFor([{ length: 3.2, height: 2.7 }], 0.53, 0.64)).toEqual({ drops: 7, rolls: 3 });
    // Walls of two heights are cut apart.
    expect(
      rollsFor(
        [
          { length: 5.3, height: 2.4 },
          { length: 1.06, height: 1.2 },
        ],
        0.53,
        0,
      ).drops,
    ).toBe(12);
  });

  it('hangs wallpaper over a band and round a patch in drops as long as what is left of the wall', () => {
    let p = house([
      [0, 0],
      [4, 0],
      [4, 3],
      [0, 3],
    ]);
    p = edit(p, 'opening.add', newOpening(p, { id: 'w', wall: south(p), kind: 'window', at: 2, width: 1 }));
    p = edit(p, 'finish.apply', { targets: [{ kind: 'walls', room: room(p) }], finish: 'wallpaper.stripe-chalk' });
    const drops = (of: Project) => {
      const lots = takeOff(deriveModel(of)).filter((l) => l.finish === 'wallpaper.stripe-chalk');
      return { runs: lots.flatMap((l) => l.runs), order: orderFor(finishById('wallpaper.stripe-chalk'), lots) };
    };
    // 2 (3.7 + 2.7) = 12.8 m of wall 2.5 m high, the window not taken off.
    expect(drops(p).runs.reduce((sum, r) => sum + r.length, 0)).toBeCloseTo(12.8, 6);
    expect(new Set(drops(p).runs.map((r) => r.height.toFixed(3)))).toEqual(new Set(['2.500']));
    const band = { id: 'b', name: 'Band', order: 0, finish: 'tile.square-white', panels: null } as const;
    const below = edit(p, 'patch.put', { patches: [{ ...band, on: { kind: 'walls', room: room(p) }, shape: { kind: 'band', from: 0, to: 1.1 } }] });
    expect(new Set(drops(below).runs.map((r) => r.height.toFixed(3)))).toEqual(new Set(['1.400']));
    // 25 drops of 2.6 m at three a roll; above the band of 1.5 m at six a roll.
    expect(drops(p).order).toMatchObject({ drops: 25, need: 9 });
    expect(drops(below).order).toMatchObject({ drops: 25, need: 5 });
    // A patch to the floor at one end shortens only the drops over it; one in the middle of the wall none.
    const wall = south(p);
    const { side } = deriveModel(p).shell.levels[0].faces.find((f) => f.side?.wall === wall && f.room)!.target as { side: 'left' | 'right' };
    const on = { kind: 'wall', room: room(p), wall, side } as const;
    const at = (base: number, height: number) =>
      edit(p, 'patch.put', { patches: [{ ...band, on, shape: { kind: 'rectangle', at: 2, base, width: 1, height } }] });
    const short = (of: Project) => drops(of).runs.filter((r) => r.height < 2.499);
    expect(short(at(0, 1))).toHaveLength(1);
    expect(short(at(0, 1))[0]).toMatchObject({ length: expect.closeTo(1, 3) as number, height: expect.closeTo(1.5, 3) as number });
    expect(short(at(0.5, 1))).toHaveLength(0);
  });

  it('paint in two coats, boxes and pieces whole, sheets with their waste', () => {
    const paint = orderFor(finishById('paint.reed'), [lot(60)]);
    expect(paint.need).toBeCloseTo((60 * 2 * 1.05) / 12, 9);
    expect(paint.goods).toEqual({ quantity: 10.75, text: '10 l + 0.75 l' });
    expect(orderFor(finishById('timber.oak-plank'), [lot(20)]).goods.quantity).toBe(Math.ceil((20 * 1.08) / 2.2));
    expect(orderFor(finishById('sheet.lino-moss'), [lot(10.4)])).toMatchObject({
      need: expect.closeTo(11.232, 9) as number,
      goods: { quantity: 11.3, text: '11.3 m²' },
    });
    expect(orderFor(finishById('paint.reed'), [lot(60, { ordered: false })]).goods).toEqual({ quantity: 0, text: '' });
  });

  it('tiles in boxes: of a room’s floor, as many boxes as its tiles with breakage fill', () => {
    let p = house([[0, 0], [4, 0], [4, 3], [0, 3]]); // prettier-ignore
    p = edit(p, 'finish.apply', { targets: [{ kind: 'floor', room: room(p) }], finish: 'tile.square-ink' });
    const model = deriveModel(p);
    const [row] = finishSchedule(model).filter((r) => r.id === 'tile.square-ink');
    const finish = finishById('tile.square-ink');
    const each = 0.1025 * 0.1025;
    const tiles = Math.round(finish.coverage / each);
    expect(finish.coverage / each).toBeCloseTo(tiles, 9);
    const { units } = orderFor(
      finish,
      takeOff(model).filter((l) => l.finish === 'tile.square-ink'),
    );
    expect(units).toBeGreaterThan((3.7 * 2.7) / each);
    expect(row.order).toBe(`${Math.ceil(units / tiles)} boxes`);
  });
});

describe('the schedules of finishes', () => {
  const model = deriveModel(heronLockCottage());

  it('of the demo: every row has an area, and what it costs follows from what is ordered', () => {
    const rows = finishSchedule(model);
    for (const row of rows) {
      expect(row.area).toBeGreaterThan(0);
      expect(row.cost).toBeCloseTo(row.quantity * row.price, 6);
    }
    const order = orderList(model);
    for (const row of rows)
      if (row.quantity > 0) expect(order.find((o) => o.id === row.id)).toMatchObject({ order: row.order, cost: expect.closeTo(row.cost, 6) as number });
    const { pieces } = model.project;
    expect(schemeCost(model)).toBeCloseTo(
      order.filter((r) => !pieces[r.id] && !r.id.startsWith('cloth ')).reduce((sum, r) => sum + r.cost, 0),
      6,
    );
  });

  it('of the demo: what it costs is the same by room and by trade, and lengths cover every moulding of a section', () => {
    const all = orderList(model).reduce((sum, r) => sum + r.cost, 0);
    expect(all).toBeGreaterThan(schemeCost(model));
    expect(costByRoom(model).reduce((sum, r) => sum + r.cost, 0)).toBeCloseTo(all, 4);
    expect(costByTrade(model).reduce((sum, r) => sum + r.cost, 0)).toBeCloseTo(all, 6);
    const mouldings = mouldingSchedule(model);
    for (const section of new Set(mouldings.map((m) => m.section))) {
      const net = mouldings.filter((m) => m.section === section).reduce((sum, m) => sum + m.length, 0);
      const row = orderList(model).find((o) => o.id === section)!;
      expect(row.quantity).toBeGreaterThanOrEqual(net * 1.1 - 1e-9);
      expect(row.quantity).toBeLessThan(net * 1.1 + 2.4 + 1e-9);
    }
  });

  it('by room: of a tin that serves two rooms, each has the share it takes', () => {
    let p = house([[0, 0], [6, 0], [6, 3], [0, 3]]); // prettier-ignore
    p = edit(p, 'wall.draw', { level: 'ground', points: [{ x: 2, y: 0 }, { x: 2, y: 3 }], closed: false, thickness: 0.1 }); // prettier-ignore
    const rooms = Object.keys(p.rooms);
    p = edit(p, 'finish.apply', { targets: rooms.map((r) => ({ kind: 'floor' as const, room: r })), finish: 'paint.reed' });
    const model = deriveModel(p);
    const [a, b] = rooms.map((r) => costByRoom(model).find((c) => c.id === r)!.cost);
    const [fa, fb] = rooms.map((r) => model.shell.rooms.get(r)!.area);
    expect(a / b).toBeCloseTo(fa / fb, 6);
    const litres = ((fa + fb) * 2 * 1.05) / 12;
    expect(litres).toBeGreaterThan(2.5);
    expect(litres).toBeLessThan(2.75);
    expect(a + b).toBeCloseTo(2.75 * finishById('paint.reed').price, 6);
  });
});

describe('schemes', () => {
  const base = (() => {
    let p = house([
      [0, 0],
      [4, 0],
      [4, 3],
      [0, 3],
    ]);
    p = edit(p, 'finish.apply', {
      targets: [
        { kind: 'walls', room: room(p) },
        { kind: 'wall', room: room(p), wall: south(p), side: 'left' },
      ],
      finish: 'paint.reed',
    });
    return edit(p, 'finish.apply', { targets: [{ kind: 'floor', room: room(p) }], finish: 'timber.oak-plank' });
  })();

  it('are taken in hand and given back with all their choices, and seen beside one another without either', () => {
    let p = edit(base, 'scheme.add', { id: 'b', name: 'Second', from: 'scheme-1' });
    expect(withScheme(p, 'b').rooms).toEqual(p.rooms);
    p = edit(p, 'scheme.choose', { id: 'b' });
    p = edit(p, 'finish.apply', { targets: [{ kind: 'floor', room: room(p) }], finish: 'stone.flag' });
    p = edit(p, 'moulding.put', {
      mouldings: [
        { id: 'm', name: 'Skirting', room: room(p), kind: 'skirting', profile: 'skirting-plain', height: null, at: null, without: [], finish: 'paint.skein' },
      ],
    });
    const first = withScheme(p, 'scheme-1');
    expect(first.rooms).toEqual(base.rooms);
    expect(first.mouldings).toEqual({});
    expect(p.rooms[room(p)].floor).toBe('stone.flag');
    expect(withScheme(p, 'scheme-1')).toBe(first);
    const back = edit(p, 'scheme.choose', { id: 'scheme-1' });
    expect(back.rooms).toEqual(base.rooms);
    expect(edit(back, 'scheme.choose', { id: 'b' }).rooms[room(p)].floor).toBe('stone.flag');
    expect(() => edit(back, 'scheme.delete', { id: 'scheme-1' })).toThrow(/in hand/);
  });

  it('replace a finish everywhere it is chosen, and say so where it is not', () => {
    const p = edit(base, 'finish.replace', { from: 'paint.reed', to: 'paint.millpond', room: null });
    expect(p.rooms[room(p)]).toMatchObject({ walls: 'paint.millpond', floor: 'timber.oak-plank' });
    expect(Object.values(p.rooms[room(p)].faces)).toEqual(['paint.millpond']);
    expect(() => edit(p, 'finish.replace', { from: 'paint.reed', to: 'paint.soot', room: null })).toThrow(/not chosen anywhere/);
  });

  it('give new rooms what they start with', () => {
    let p = edit(base, 'scheme.set', {
      id: 'scheme-1',
      set: { starts: { floor: 'stone.flag', wall: 'plaster.lime', ceiling: null, joinery: null, worktop: null, metal: null } },
    });
    p = edit(p, 'wall.draw', {
      level: 'ground',
      points: [
        { x: 8, y: 0 },
        { x: 11, y: 0 },
        { x: 11, y: 3 },
        { x: 8, y: 3 },
      ],
      closed: true,
      thickness: 0.2,
    });
    const fresh = Object.values(p.rooms).find((r) => r.id !== room(base))!;
    expect(fresh).toMatchObject({ floor: 'stone.flag', walls: 'plaster.lime', ceiling: null });
  });
});
