import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { Exposed } from '@/core/render/film';
import type { Order } from '@/core/render/orders';
import type { TraceHand } from '@/core/render/trace-job';
import { heronLockCottage } from '@/core/demo/heron-lock';
import { shotFrom } from '@/core/render/shot';

/** What this browser keeps, as plain maps. */
const store = { orders: new Map<string, Order>(), films: new Map<string, Exposed>() };
vi.mock('./kept', () => ({
  kept: {
    orders: () => Promise.resolve([...store.orders.values()]),
    add: (orders: Order[]) => Promise.resolve(orders.forEach((o) => store.orders.set(o.id, o))),
    change: (id: string, set: Partial<Order>) => Promise.resolve(void (store.orders.has(id) && store.orders.set(id, { ...store.orders.get(id)!, ...set }))),
    remove: (id: string) => Promise.resolve(void (store.orders.delete(id), store.films.delete(id))),
    film: (id: string) => Promise.resolve(store.films.get(id) ?? null),
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
  openWorkshop: ({ id, width, height }: Order) => {
    const n = width * height;
    const own: Exposed = {
      width,
      height,
      groups: 1,
      counts: new Uint32Array(n),
      light: new Float32Array(n * 4),
      squares: new Float32Array(n),
      guides: new Float32Array(n * 8),
    };
    const hand: TraceHand = {
      prepare: () => (pace.fault ? Promise.reject(new Error(pace.fault)) : Promise.resolve([{ name: 'Sun', kelvin: 5300 }])),
      pass: async () => {
        pace.passes++;
        await pace.wait();
        own.counts.forEach((_, k) => own.counts[k]++);
        own.light.forEach((_, k) => (own.light[k] += 50));
      },
      exposed: () => Promise.resolve(structuredClone(own)),
    };
    return { hands: [hand], cleaner: { clean: (radiance: Float32Array) => Promise.resolve(radiance) }, close: () => closed.push(id) };
  },
}));
const made: { order: Order; samples: number; exposure: number }[] = [];
let refusal = '';
vi.mock('../keep', () => ({
  keepPicture: (order: Order, { samples, exposure }: { samples: number; exposure: number }) => {
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
});
