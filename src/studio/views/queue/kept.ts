import { createStore, del, get, promisifyRequest, set, setMany, values, type UseStore } from 'idb-keyval';
import type { Exposed } from '@/core/render/film';
import type { Order } from '@/core/render/orders';

// Each in a database of its own: a list of orders is read without the films, which are large.
const lazily = (name: string): (() => UseStore) => {
  let store: UseStore | null = null;
  return () => (store ??= createStore(`enstegon-${name}`, name));
};
const [orderStore, filmStore] = [lazily('orders'), lazily('films')];

/** Orders and what has been traced of them, in this browser: they outlive the page, and all its windows share them. */
export const kept = {
  /** All orders, of every project. */
  orders: (): Promise<Order[]> => values<Order>(orderStore()),
  add: (orders: readonly Order[]): Promise<void> =>
    setMany(
      orders.map((o) => [o.id, o]),
      orderStore(),
    ),
  /** Changes an order, if it is still there. */
  change: (id: string, set: Partial<Order>): Promise<void> =>
    orderStore()('readwrite', (store) => {
      const asked = store.get(id) as IDBRequest<Order | undefined>;
      asked.onsuccess = () => void (asked.result && store.put({ ...asked.result, ...set }, id));
      return promisifyRequest(store.transaction);
    }),
  async remove(id: string): Promise<void> {
    await del(id, orderStore());
    await del(id, filmStore());
  },
  film: async (id: string): Promise<Exposed | null> => (await get<Exposed>(id, filmStore())) ?? null,
  keepFilm: (id: string, film: Exposed): Promise<void> => set(id, film, filmStore()),
};
