import { profileIn } from '../finishes/profiles';
import { finishIn } from '../finishes/store';
import { derivedOf, type Model } from '../model/model';
import type { Finish } from '../project/schema';
import { builtInThings, roomOf, type BuiltInThing } from './appliances';
import { priceOfUnit } from './cabinets';
import { mouldingSchedule } from './finishes';
import { lengthsOf } from './goods';
import { orderFor, takeOff, type Lot } from './takeoff';
import { DUST } from '../units/tolerance';
import { cardOf } from '../cabinetry/fittings';
import { roomAt } from '../placing/around';
import { clothLots } from './coverings';
import { pieceLots } from './pieces';
import { codeOf, stockItem } from '../stock/stock';
import type { StockItem } from '../stock/types';

/** The trades that finish a house, in the order they come. */
export const TRADES = [
  'Groundwork',
  'Masonry',
  'Plastering',
  'Tiling',
  'Floor laying',
  'Joinery',
  'Metalwork',
  'Glazing',
  'Decorating',
  'Soft furnishing',
  'Plumbing and heating',
  'Electrical',
  'Furniture',
] as const;
export type Trade = (typeof TRADES)[number];

/** Which trade lays a finish. */
export function tradeOf({ category, roles }: Pick<Finish, 'category' | 'roles'>): Trade {
  switch (category) {
    case 'Paint':
    case 'Wallpaper':
      return 'Decorating';
    case 'Plaster':
      return 'Plastering';
    case 'Tile':
      return 'Tiling';
    case 'Brick':
    case 'Stone':
      return 'Masonry';
    case 'Carpet':
      return 'Floor laying';
    case 'Cloth':
      return 'Soft furnishing';
    case 'Metal':
      return 'Metalwork';
    case 'Glass':
      return 'Glazing';
    case 'Outside':
      return 'Groundwork';
    default:
      return roles.includes('floor') ? 'Floor laying' : 'Joinery';
  }
}

/** Which trade brings a piece: lights are wired, what water or a flue is led to is plumbed, textiles and coverings are sewn. */
export function tradeOfPiece({ mount, category, lamp, connections = [] }: Pick<StockItem, 'mount' | 'category' | 'lamp' | 'connections'>): Trade {
  if (lamp && (mount === 'wall' || mount === 'ceiling')) return 'Electrical';
  if (connections.some((c) => c !== 'socket')) return 'Plumbing and heating';
  return category === 'Textiles' || category === 'At windows' ? 'Soft furnishing' : 'Furniture';
}

/** One thing that is ordered for the whole of a project. SI units. */
export interface OrderRow {
  id: string;
  trade: Trade;
  name: string;
  supplier: string;
  code: string;
  /** Net, as it is measured: "18.4 m²", "12.30 m". */
  net: string;
  order: string;
  quantity: number;
  price: number;
  cost: number;
  /** What of its cost falls to which room; null: outside, or no room of its own. */
  shares: { room: string | null; outside: boolean; cost: number }[];
}

/** What is shared out in proportion to what each takes of it; what nothing was taken of falls to nobody. */
function shared(cost: number, parts: readonly { room: string | null; outside: boolean; amount: number }[]): OrderRow['shares'] {
  const whole = parts.reduce((sum, p) => sum + p.amount, 0);
  const by = new Map<string, OrderRow['shares'][number]>();
  for (const { room, outside, amount } of parts) {
    const key = `${room} ${outside}`;
    const own = by.get(key) ?? { room, outside, cost: 0 };
    own.cost += whole > 0 ? (cost * amount) / whole : 0;
    by.set(key, own);
  }
  return [...by.values()];
}

/** All that is ordered of finishes and mouldings: one line for each. */
function finishOrders(model: Model): OrderRow[] {
  const { project } = model.shell;
  const lots = new Map<string, Lot[]>();
  for (const lot of takeOff(model)) {
    if (finishIn(project, lot.finish).bare || !lot.ordered) continue;
    const own = lots.get(lot.finish);
    if (own) own.push(lot);
    else lots.set(lot.finish, [lot]);
  }
  const rows = [...lots].flatMap(([id, own]): OrderRow[] => {
    const finish = finishIn(project, id);
    const { goods } = orderFor(finish, own);
    if (goods.quantity <= DUST) return [];
    const cost = goods.quantity * finish.price;
    return [
      {
        id,
        trade: tradeOf(finish),
        name: finish.name,
        supplier: finish.supplier,
        code: finish.code,
        net: `${own.reduce((sum, l) => sum + l.area, 0).toFixed(2)} m²`,
        order: goods.text,
        quantity: goods.quantity,
        price: finish.price,
        cost,
        shares: shared(
          cost,
          own.map((l) => ({ room: l.room, outside: l.kind !== 'thing' && l.room === null, amount: l.area })),
        ),
      },
    ];
  });
  // Offcuts of one room serve in another: lengths are bought for all of one section together.
  const bySection = new Map<string, { section: string; lengths: { room: string | null; length: number }[] }>();
  for (const { section, within: room, length } of mouldingSchedule(model)) {
    const own = bySection.get(section) ?? { section, lengths: [] };
    own.lengths.push({ room, length });
    bySection.set(section, own);
  }
  for (const { section, lengths } of bySection.values()) {
    const profile = profileIn(project, section);
    const metres = lengths.reduce((sum, l) => sum + l.length, 0);
    const goods = lengthsOf(metres);
    if (!profile || goods.quantity <= DUST) continue;
    const cost = goods.quantity * profile.price;
    rows.push({
      id: section,
      trade: 'Joinery',
      name: `Moulding: ${profile.name}`,
      supplier: '',
      code: '',
      net: `${metres.toFixed(2)} m`,
      order: goods.text,
      quantity: goods.quantity,
      price: profile.price,
      cost,
      shares: shared(
        cost,
        lengths.map((l) => ({ room: l.room, outside: l.room === null, amount: l.length })),
      ),
    });
  }
  return rows;
}

/** All new pieces: one line for those that are alike. */
function pieceOrders(model: Model): OrderRow[] {
  return pieceLots(model).map(({ first, price, order, pieces }): OrderRow => {
    const item = stockItem(first.maker)!;
    const cost = price * pieces.length;
    return {
      id: first.id,
      trade: tradeOfPiece(item),
      name: first.name,
      supplier: item.sold.supplier,
      code: codeOf(item),
      net: `${pieces.length}`,
      order,
      quantity: pieces.length,
      price,
      cost,
      shares: shared(
        cost,
        pieces.map((p) => {
          const room = roomAt(model, p);
          return { room, outside: room === null, amount: 1 };
        }),
      ),
    };
  });
}

/** Units of cabinets by the run, and what is built into them: one line for those that are alike. */
function cabinetOrders(model: Model): OrderRow[] {
  const units = derivedOf(model, 'runs').flatMap((run): OrderRow[] => {
    const cost = run.run.status === 'new' ? run.units.reduce((sum, u) => sum + priceOfUnit(u, run), 0) : 0;
    const count = run.units.filter((u) => !u.unit.bare).length;
    return cost
      ? [
          {
            id: run.id,
            trade: 'Joinery',
            name: `Cabinets: ${run.run.name}`,
            supplier: '',
            code: '',
            net: `${count}`,
            order: `${count} units`,
            quantity: 1,
            price: cost,
            cost,
            shares: shared(cost, [{ room: roomOf(run), outside: false, amount: 1 }]),
          },
        ]
      : [];
  });
  const lots = new Map<string, BuiltInThing[]>();
  for (const thing of builtInThings(model)) {
    if (!thing.price) continue;
    const key = JSON.stringify([thing.item.id, thing.placed.size, thing.placed.traits]);
    lots.set(key, [...(lots.get(key) ?? []), thing]);
  }
  const things = [...lots.values()].map((all): OrderRow => {
    const [{ item, price, placed, unit }] = all;
    const cost = price * all.length;
    return {
      id: `${unit.unit.id} ${item.id}`,
      trade: tradeOfPiece(item),
      name: cardOf(placed).name,
      supplier: item.sold.supplier,
      code: codeOf(item),
      net: `${all.length}`,
      order: `${all.length} to order`,
      quantity: all.length,
      price,
      cost,
      shares: shared(
        cost,
        all.map(({ run }) => ({ room: roomOf(run), outside: false, amount: 1 })),
      ),
    };
  });
  return [...units, ...things];
}

/** Cloth by the metre for what hangs at windows, to the tenth of a metre. */
function clothOrders(model: Model): OrderRow[] {
  return clothLots(model).map(({ finish, metres, pieces }): OrderRow => {
    const quantity = Math.ceil(metres * 10 - DUST) / 10;
    const cost = quantity * finish.price;
    return {
      id: `cloth ${finish.id}`,
      trade: 'Soft furnishing',
      name: `For coverings: ${finish.name}`,
      supplier: finish.supplier,
      code: finish.code,
      net: `${metres.toFixed(2)} m`,
      order: `${quantity.toFixed(1)} m`,
      quantity,
      price: finish.price,
      cost,
      shares: shared(
        cost,
        pieces.map(({ piece, metres: amount }) => {
          const room = roomAt(model, piece);
          return { room, outside: room === null, amount };
        }),
      ),
    };
  });
}

/** All that is ordered, of finishes, mouldings and pieces: one line for each, by trade. */
export function orderList(model: Model): OrderRow[] {
  const rows = [...finishOrders(model), ...pieceOrders(model), ...cabinetOrders(model), ...clothOrders(model)];
  return rows.sort((a, b) => TRADES.indexOf(a.trade) - TRADES.indexOf(b.trade) || b.cost - a.cost || (a.name < b.name ? -1 : 1));
}

/** What each trade's finishes, mouldings and pieces cost. */
export function costByTrade(model: Model): { id: string; trade: Trade; holds: string; cost: number }[] {
  const rows = orderList(model);
  return TRADES.flatMap((trade) => {
    const own = rows.filter((r) => r.trade === trade);
    return own.length ? [{ id: trade, trade, holds: own.map((r) => r.name).join(', '), cost: own.reduce((sum, r) => sum + r.cost, 0) }] : [];
  });
}

/** What the finishes, mouldings and pieces of each room cost: of what is bought for several, the share each takes. */
export function costByRoom(model: Model): { id: string; room: string; level: string; holds: string; cost: number }[] {
  const { project, levels } = model.shell;
  const by = new Map<string, { id: string; room: string; level: string; names: string[]; cost: number }>();
  for (const row of orderList(model))
    for (const { room, outside, cost } of row.shares) {
      const key = room ?? (outside ? 'outside' : 'things');
      const own = by.get(key) ?? {
        id: room ?? key,
        room: room ? (project.rooms[room]?.name ?? '') : outside ? 'Outside' : 'What is built and stands in it',
        level: room ? (levels.find((l) => l.id === project.rooms[room]?.level)?.level.name ?? '') : '',
        names: [],
        cost: 0,
      };
      own.names.push(row.name);
      own.cost += cost;
      by.set(key, own);
    }
  return [...by.values()]
    .map(({ names, ...rest }) => ({ ...rest, holds: names.join(', ') }))
    .sort((a, b) => (a.level === b.level ? b.cost - a.cost : a.level < b.level ? 1 : -1));
}

/** What all that a scheme decides costs, in the money of its project: finishes, mouldings, and cabinets with what is built into them. */
export const schemeCost = (model: Model): number => [...finishOrders(model), ...cabinetOrders(model)].reduce((sum, row) => sum + row.cost, 0);
