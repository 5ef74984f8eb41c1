import { createStore, del, get, promisifyRequest, set, setMany, values, type UseStore } from 'idb-keyval';
import type { Exposed } from '@/core/render/film';
import { printStart } from '@/core/formats/light-file';
import { LIGHT_TYPE } from '@/core/formats/light-type';
import { bandsOf, type DoneRows, type LargeStore, type RawRows } from '@/core/render/large';
import type { Order } from '@/core/render/orders';
import type { Finished } from '@/core/render/trace-job';
import type { Workshop } from './hands';

// Each in a database of its own: a list of orders is read without the films, which are large.
const lazily = (name: string): (() => UseStore) => {
  let store: UseStore | null = null;
  return () => (store ??= createStore(`enstegon-${name}`, name));
};
const [orderStore, filmStore, bandStore] = [lazily('orders'), lazily('films'), lazily('bands')];

/** Rows of a picture for print that are done, with their part of its file: a blob lies on the disk, not in memory. */
type Packed = DoneRows & { file: Blob };

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
    await bandStore()('readwrite', (store) => {
      // All whose keys begin with its own: “0” comes after “/”.
      store.delete(IDBKeyRange.bound(`${id}/`, `${id}0`));
      return promisifyRequest(store.transaction);
    });
  },
  film: async (id: string): Promise<Exposed | null> => (await get<Exposed>(id, filmStore())) ?? null,
  keepFilm: (id: string, film: Exposed): Promise<void> => set(id, film, filmStore()),
  /** What is kept of a picture for print on the way. */
  large: (id: string, pack: Workshop['pack']): LargeStore => {
    const read = async <T>(key: string): Promise<T | null> => (await get<T>(`${id}/${key}`, bandStore())) ?? null;
    return {
      small: () => read<Finished>('small'),
      keepSmall: (small) => set(`${id}/small`, small, bandStore()),
      band: (i) => read<RawRows>(`band/${i}`),
      keepBand: (i, rows) => set(`${id}/band/${i}`, rows, bandStore()),
      dropBand: (i) => del(`${id}/band/${i}`, bandStore()),
      done: (i) => read<Packed>(`done/${i}`),
      async pack(piece, from, rows, small) {
        const { bytes, sizes } = await pack(from, rows);
        await set(`${id}/done/${piece}`, { sizes, small, file: new Blob([bytes]) } satisfies Packed, bandStore());
        return sizes;
      },
    };
  },
  /** The file of a picture for print that is done: all its light. */
  async print({ id, width, height }: Pick<Order, 'id' | 'width' | 'height'>): Promise<Blob> {
    const parts: Packed[] = [];
    for (let i = 0; i < bandsOf({ width, height }).pieces; i++) parts.push((await get<Packed>(`${id}/done/${i}`, bandStore()))!);
    const sizes = parts.flatMap((p) => p.sizes);
    return new Blob([printStart({ width, height }, sizes), ...parts.map((p) => p.file)], { type: LIGHT_TYPE });
  },
};
