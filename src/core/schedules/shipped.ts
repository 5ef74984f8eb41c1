import { offered } from '../finishes/library';
import { CARDS, codeOf, makeParts, priceOf, traitsFor } from '../stock/stock';

/** A card of the stock: what it is of its maker, how large it is, metres, and which parts it has. */
export interface StockRow {
  card: string;
  name: string;
  maker: string;
  category: string;
  width: number;
  depth: number;
  height: number;
  mount: string;
  traits: string;
  parts: string;
  supplier: string;
  code: string;
  price: number;
}

/** All that can be placed. */
export const stockList = (): StockRow[] =>
  CARDS.map(({ id, name, item, size, traits }) => ({
    card: id,
    name,
    maker: item.id,
    category: item.category,
    ...size,
    mount: item.mount,
    traits: Object.entries(item.traits ? traitsFor(item, traits) : {})
      .map(([key, value]) => `${key}: ${String(value)}`)
      .join('; '),
    parts: makeParts(item, size, traits)
      .map(({ part }) => part)
      .join('; '),
    supplier: item.sold.supplier,
    code: codeOf(item),
    price: priceOf(item, size),
  }));

/** A shipped finish, with its invented supplier. */
export interface ShippedFinish {
  id: string;
  name: string;
  category: string;
  supplier: string;
  code: string;
  unit: string;
  price: number;
}

/** All finishes that ship. */
export const finishList = (): ShippedFinish[] =>
  offered.map(({ id, name, category, supplier, code, unit, price }) => ({ id, name, category, supplier, code, unit, price }));
