import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { Exposed } from '@/core/render/film';
import type { Order } from '@/core/render/orders';
import type { Finished, TraceHand } from '@/core/render/trace-job';
import { heronLockCottage } from '@/core/demo/heron-lock';
import { shotFrom } from '@/core/render/shot';
import { ExrFile, type ExrBlocks } from '@/core/formats/exr/exr';
import { packPrint, printRows, printStart } from '@/core/formats/light-file';
import type { DoneRows, LargeStore, RawRows } from '@/core/render/large';
import { unexposed } from '@/core/render/testing';

/** What this browser keeps, as plain maps. */
type Pack = (from: number, rows: Pick<RawRows, 'radiance' | 'cover'>) => Promise<ExrBlocks>;
const store = { orders: new Map<string, Order>(), films: new Map<string, Exposed>(), bands: new Map<string, Map<string, unknown>>() };
vi.mock('./kept', () => ({
  kept: {
    orders: () => Promise.resolve([...store.orders.values()]),
    add: (orders: Order[]) => Promise.resolve(orders.forEach((o) => store.orders.set(o.id, o))),
    change: (id: string, set: Partial<Order>) => Promise.resolve(void (store.orders.has(id) && store.orders.set(id, { ...store.orders.get(id)!, ...set }))),
    remove: (id: string) => Promise.resolve(void (store.orders.delete(id), store.films.delete(id))),
    film: (id: string) => Promise.resolve(store.films.get(id) ?? null),
    large: (id: string, pack: Pack): LargeStore => {
      const mine = store.bands.get(id) ?? new Map<string, unknown>();
      store.bands.set(id, mine);
      const read = <T>(key: string): Promise<T | null> => Promise.resolve((mine.get(key) as T | undefined) ?? null);
      const put = (key: string, value: unknown): Promise<void> => Promise.resolve(void mine.set(key, value));
      return {
        small: () => read<Finished>('small'),
        keepSmall: (small) => put('small', small),
        band: (i) => read<RawRows>(`band/${i}`),
        keepBand: (i, rows) => put(`band/${i}`, rows),
        dropBand: (i) => Promise.resolve(void mine.delete(`band/${i}`)),
        done: (i) => read<DoneRows>(`done/${i}`),
        async pack(piece, from, rows, small) {
          const { bytes, sizes } = await pack(from, rows);
          await put(`done/${piece}`, { sizes, small, bytes });
          return sizes;
        },
      };
    },
    print: ({ id, width, height }: Order) => {
      const parts = [...store.bands.get(id)!]
        .filter(([key]) => key.startsWith('done/'))
        .map(([, value]) => value as DoneRows & { bytes: Uint8Array<ArrayBuffer> });
      const sizes = parts.flatMap((p) => p.sizes);
      return Promise.resolve(new Blob([printStart({ width, height }, sizes), ...parts.map((p) => p.bytes)]));
    },
    keepFilm: (id: string, film: Exposed) => (full ? Promise.reject(new Error('Quota exceeded')) : Promise.resolve(void store.films.set(id, film))),
  },
}));

/** Whether the browser takes no more. */
let full = false;

/** Hands that trace grey pixels, as quickly as they are let. */
let pace = { passes: 0, wait: () => Promise.resolve(), fault: '' };
const closed: string[] = [];
vi.mock('./hands', () => ({
  workerCount: () => 1,
  openWorkshop: ({ id }: Order) => ({
    hands: (size: { width: number; height: number }, region: { width: number; height: number } | null) => [handFor(region ?? size)],
    clean: (radiance: Float32Array) => Promise.resolve(radiance),
    cleaner: { clean: (radiance: Float32Array) => Promise.resolve(radiance) },
    pack: (from: number, rows: { radiance: Float32Array; cover: Float32Array }) => Promise.resolve(packPrint(LARGE, from, rows.radiance, rows.cover)),
    close: () => closed.push(id),
  }),
}));

/** A picture that is made in bands: a little more than is made in one piece. */
const LARGE = { width: 2000, height: 1200 };

function handFor({ width, height }: { width: number; height: number }): TraceHand {
  const own = unexposed({ width, height });
  return {
    prepare: () => (pace.fault ? Promise.reject(new Error(pace.fault)) : Promise.resolve([{ name: 'Sun', kelvin: 5300 }])),
    pass: async () => {
      pace.passes++;
      await pace.wait();
      own.counts.forEach((_, k) => own.counts[k]++);
      own.light.forEach((_, k) => (own.light[k] += 50));
    },
    exposed: () => Promise.resolve(structuredClone(own)),
  };
}
const made: { order: Order; samples: number; exposure: number }[] = [];
const prints: (Blob | null)[] = [];
let refusal = '';
vi.mock('../keep', () => ({
  keepPicture: (order: Order, { samples, exposure, print }: { samples: number; exposure: number; print: Blob | null }) => {
    prints.push(print);
    if (refusal) return Promise.reject(new Error(refusal));
    made.push({ order, samples, exposure });
    return Promise.resolve();
  },
}));
vi.mock('../../store/studio', () => {
  let n = 0;
  return { newId: (prefix: string) => `${prefix}-${n++}`, useStudio: { getState: () => ({ say: () => undefined }) } };
});
vi.mock('../../store/sync', () => ({ errorText: (e: Error) => e.message }));

vi.stubGlobal('navigator', {});
const { takeUpQueue, useQueue } = await import('./queue');
const project = heronLockCottage();
const shot = shotFrom(project.viewpoints['view-kitchen']);
const wanted = (name: string, samples = 6) => ({
  stamp: { project: project.id, scheme: project.scheme, name, viewpoint: null },
  project,
  shot,
  width: 4,
  height: 2,
  samples,
});
const names = (): string[] => useQueue.getState().orders.map((o) => o.stamp.name);
const rest = async (until: () => boolean): Promise<void> => {
  await vi.waitFor(() => expect(until()).toBe(true));
};
/** Lets passes wait until they are let go on. */
function gate(): () => void {
  let open = (): void => undefined;
  const closedGate = new Promise<void>((go) => (open = go));
  pace.wait = () => closedGate;
  return () => {
    pace.wait = () => Promise.resolve();
    open();
  };
}

beforeEach(async () => {
  for (const { id } of useQueue.getState().orders) useQueue.getState().remove(id);
  await rest(() => useQueue.getState().live === null);
  store.orders.clear();
  store.films.clear();
  made.length = closed.length = 0;
  pace = { passes: 0, wait: () => Promise.resolve(), fault: '' };
  refusal = '';
  full = false;
  takeUpQueue();
});

describe('pictures that wait', () => {
  it('are made one after another, kept, and gone from the line', async () => {
    await useQueue.getState().ask(
      ['A', 'B', 'C'].map((n) => wanted(n)),
      true,
    );
    expect(useQueue.getState().looked).toBe(useQueue.getState().orders[0]?.id ?? useQueue.getState().looked);
    await rest(() => made.length === 3 && names().length === 0);
    expect(made.map((m) => [m.order.stamp.name, m.samples])).toEqual([
      ['A', 6],
      ['B', 6],
      ['C', 6],
    ]);
    await rest(() => store.orders.size === 0);
    expect(closed).toHaveLength(3);
  });

  it('can be put before one another, held and let go on; what was traced is not traced again', async () => {
    const go = gate();
    await useQueue.getState().ask([wanted('A', 400), wanted('B'), wanted('C')], false);
    await rest(() => pace.passes > 0);
    const [a, , c] = useQueue.getState().orders;
    useQueue.getState().move(c.id, -1);
    expect(names()).toEqual(['A', 'C', 'B']);
    useQueue.getState().hold(a.id);
    go();
    await rest(() => made.length === 2);
    expect(made.map((m) => m.order.stamp.name)).toEqual(['C', 'B']);
    // Nothing says that it is kept before it is.
    expect(useQueue.getState().unkept).toBe(0);
    const kept = store.orders.get(a.id)!;
    expect([kept.state, kept.done]).toEqual(['held', store.films.get(a.id)!.counts[0]]);
    expect(kept.done).toBeGreaterThan(0);
    pace.passes = 0;
    useQueue.getState().goOn(a.id);
    await rest(() => made.length === 3);
    expect([made[2].samples, pace.passes]).toEqual([400, 400 - kept.done]);
  });

  it('that cannot be made step aside with the reason, and can be tried again', async () => {
    refusal = 'The server can’t be reached.';
    await useQueue.getState().ask([wanted('A')], false);
    await rest(() => useQueue.getState().orders[0]?.state === 'failed');
    expect(useQueue.getState().orders[0].message).toContain('The server can’t be reached.');
    refusal = '';
    pace.fault = 'no memory';
    await useQueue.getState().ask([wanted('B')], false);
    await rest(() => useQueue.getState().orders[1]?.state === 'failed');
    expect(made).toHaveLength(0);
    pace.fault = '';
    for (const { id } of useQueue.getState().orders) useQueue.getState().goOn(id);
    await rest(() => made.length === 2);
  });

  it('that are stopped are gone, and the next is made', async () => {
    const go = gate();
    await useQueue.getState().ask([wanted('A'), wanted('B')], true);
    await rest(() => pace.passes > 0);
    useQueue.getState().remove(useQueue.getState().orders[0].id);
    expect(useQueue.getState().looked).toBeNull();
    go();
    await rest(() => made.length === 1);
    expect(made[0].order.stamp.name).toBe('B');
  });

  it('are shown as they were set while they grew', async () => {
    const go = gate();
    await useQueue.getState().ask([wanted('A')], true);
    await rest(() => pace.passes > 0);
    useQueue.getState().set(useQueue.getState().orders[0].id, { exposure: 7.5, white: 4000 });
    go();
    await rest(() => made.length === 1);
    expect(made[0]).toMatchObject({ exposure: 7.5, order: { white: 4000 } });
    // The one that was looked at stays to be looked at.
    expect(useQueue.getState().last?.order.stamp.name).toBe('A');
  });

  it('are finished also where nothing of them can be kept on the way', async () => {
    full = true;
    const go = gate();
    await useQueue.getState().ask([wanted('A', 40)], false);
    await rest(() => pace.passes > 0);
    useQueue.getState().hold(useQueue.getState().orders[0].id);
    go();
    await rest(() => useQueue.getState().live === null);
    expect([made.length, useQueue.getState().orders[0].state, useQueue.getState().orders[0].done]).toEqual([0, 'held', 0]);
    useQueue.getState().goOn(useQueue.getState().orders[0].id);
    await rest(() => made.length === 1);
    expect(made[0].samples).toBe(40);
  });

  it('of more pixels than are traced in one piece are made in bands, held and gone on with, with all their light in a file', async () => {
    prints.length = 0;
    const go = gate();
    await useQueue.getState().ask([{ ...wanted('A', 2), ...LARGE }], true);
    const { id } = useQueue.getState().orders[0];
    await rest(() => pace.passes > 0);
    // The small one is done, and the first bands; then it is put aside.
    let bands = 0;
    go();
    pace.wait = () => Promise.resolve(void (pace.passes === 9 && (bands++, useQueue.getState().hold(id))));
    await vi.waitFor(() => expect(useQueue.getState().live === null && bands === 1).toBe(true), { timeout: 20_000 });
    expect([made.length, useQueue.getState().orders[0].state, useQueue.getState().orders[0].done]).toEqual([0, 'held', store.orders.get(id)!.done]);
    expect(store.orders.get(id)!.done).toBeGreaterThan(0);
    pace = { passes: 0, wait: () => Promise.resolve(), fault: '' };
    useQueue.getState().goOn(id);
    await vi.waitFor(() => expect(made).toHaveLength(1), { timeout: 20_000 });
    // Five bands of two samples: those that were whole are not traced again, nor is the small one.
    expect(pace.passes).toBeLessThan(2 * 5);
    const file = prints[0]!;
    const exr = await ExrFile.open(async (from, length) => new Uint8Array(await file.slice(from, from + length).arrayBuffer()));
    expect([exr.layout.width, exr.layout.height]).toEqual([LARGE.width, LARGE.height]);
    const { radiance } = await printRows(exr, 1184, 16);
    expect([radiance.length, Math.round(radiance[0]), Math.round(radiance.at(-1)!)]).toEqual([LARGE.width * 16 * 3, 50, 50]);
  });
});
