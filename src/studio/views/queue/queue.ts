import { create } from 'zustand';
import { usualWhite } from '@/core/light/white';
import { learned } from '@/core/render/pace';
import { lastPlace, lined, moved, nextOf, type Order } from '@/core/render/orders';
import type { Exposed } from '@/core/render/film';
import { isLarge, LargeJob, smallSize, type LargeStore } from '@/core/render/large';
import { TraceJob, type Job, type TraceProgress } from '@/core/render/trace-job';
import { rememberedPace, rememberPace } from '../../store/habits';
import { newId, useStudio } from '../../store/studio';
import { errorText } from '../../store/sync';
import { keepPart, keepPicture } from '../keep';
import { openWorkshop, workerCount, type Workshop } from './hands';
import { kept } from './kept';

/** A picture as it grows. */
export interface Live {
  order: Order;
  phase: TraceProgress['phase'] | 'keeping';
  samples: number;
  /** Seconds it will still trace; null while that can’t be told. */
  left: number | null;
  exposure: number;
  /** Mean radiance so far, three values a pixel; only in the window that makes it. */
  radiance: Float32Array | null;
  version: number;
}

/** What is said of a picture that is asked for. */
export type Wanted = Pick<Order, 'stamp' | 'project' | 'shot' | 'width' | 'height' | 'samples'> & Pick<Partial<Order>, 'sheet' | 'part'>;

interface QueueState {
  /** What is to be made, of all projects, in its order. */
  orders: Order[];
  /** Changes of orders that this browser has not kept yet: a reload would lose them. */
  unkept: number;
  /** The picture under way. */
  live: Live | null;
  /** The one that was finished last, as long as it is looked at. */
  last: Live | null;
  /** The order that is looked at as it grows. */
  looked: string | null;
  /** Asks for pictures. @param look whether the first of them is looked at */
  ask(wanted: readonly Wanted[], look: boolean): Promise<void>;
  hold(id: string): void;
  goOn(id: string): void;
  move(id: string, by: -1 | 1): void;
  remove(id: string): void;
  /** Sets how one is shown when it is finished. */
  set(id: string, values: Pick<Partial<Order>, 'exposure' | 'white'>): void;
  /** Sets one aside that could not be made; it can be tried again. */
  fail(id: string, message: string): void;
  look(id: string | null): void;
}

/** What of a picture is traced, pixels: the whole, or the part that is made again. */
export const sizeOf = ({ part, width, height }: Order): { width: number; height: number } => part?.region ?? { width, height };

/** Size of what is shown of it as it grows: of a picture for print a small one. */
export const shownSize = (order: Order): { width: number; height: number } => smallSize(sizeOf(order));

/** EV until the first light is metered. */
const FIRST_EXPOSURE = 10;

/** Colour temperature an order is shown with as white, K. */
export const whiteOf = (order: Order): number => order.white ?? usualWhite(order.project.site);

const LOCK = 'enstegon-pictures';

/** What windows tell one another: that orders have changed, and how far the one under way is. */
type News = { orders: true } | { live: (Omit<Live, 'radiance' | 'order'> & { id: string }) | null };
let channel: BroadcastChannel | null = null;
const tell = (news: News): void => channel?.postMessage(news);

/** Whether this window makes the pictures: one window of a browser does. */
let maker = false;

/** The picture under way in this window. */
interface Under {
  id: string;
  workshop: Workshop;
  /** Null until what was kept of it is read. */
  job: Job | null;
  over: boolean;
}
let under: Under | null = null;

/** Changes of orders are kept one after another. */
let keeping: Promise<unknown> = Promise.resolve();
const change = (make: () => Promise<unknown>): void => {
  useQueue.setState((s) => ({ unkept: s.unkept + 1 }));
  keeping = keeping.then(make).catch((error: unknown) => useStudio.getState().say(errorText(error)));
  void keeping.then(() => {
    useQueue.setState((s) => ({ unkept: s.unkept - 1 }));
    tell({ orders: true });
  });
};

const orderOf = (id: string): Order | undefined => useQueue.getState().orders.find((o) => o.id === id);

async function reread(): Promise<void> {
  const before = keeping;
  await before;
  const orders = await kept.orders();
  // What was changed here meanwhile is not in them yet.
  if (keeping !== before) return reread();
  useQueue.setState({ orders: lined(orders) });
  // What another window held or took away is put down here.
  const own = under && orderOf(under.id);
  if (under && !own) putDown();
  else if (own && own.state !== 'waiting') under!.job?.halt();
  work();
}

/** Ends the picture under way as it is; what was kept of it stays kept. */
function putDown(): void {
  if (!under) return;
  under.over = true;
  under.job?.cancel();
  under.workshop.close(false);
  under = null;
  show(null);
}

function show(live: Live | null): void {
  useQueue.setState({ live });
  if (!live) return tell({ live: null });
  const { radiance: _, order, ...rest } = live;
  tell({ live: { ...rest, id: order.id } });
}

function shown(id: string, values: Partial<Live>): void {
  const { live } = useQueue.getState();
  if (live?.order.id === id) show({ ...live, ...values });
}

/** Makes the next picture, if none is under way. */
function work(): void {
  if (!maker || under) return;
  const order = nextOf(useQueue.getState().orders);
  if (order) void make(order);
}

async function make(order: Order): Promise<void> {
  const { id } = order;
  const own: Under = { id, workshop: openWorkshop({ ...order, region: order.part?.region }), job: null, over: false };
  under = own;
  show({ order, phase: 'preparing', samples: order.done, left: null, exposure: order.exposure ?? FIRST_EXPOSURE, radiance: null, version: 0 });
  let failed = false;
  try {
    const film = await kept.film(id);
    if (!own.over && orderOf(id)?.state === 'waiting') await trace(order, own, film);
  } catch (error) {
    failed = true;
    if (!own.over) useQueue.getState().fail(id, `The picture was not finished. ${errorText(error)}`);
  }
  if (own.over) return;
  own.workshop.close(!failed);
  under = null;
  show(null);
  work();
}

/** What is kept of a picture for print is told with its order. */
const noting = (id: string, store: LargeStore): LargeStore => ({
  ...store,
  async keepBand(i, rows) {
    await store.keepBand(i, rows);
    const done = useQueue.getState().live?.samples ?? 0;
    await kept.change(id, { done });
    useQueue.setState((s) => ({ orders: s.orders.map((o) => (o.id === id ? { ...o, done } : o)) }));
  },
});

async function trace(order: Order, own: Under, film: Exposed | null): Promise<void> {
  const { id, samples } = order;
  const size = sizeOf(order);
  const large = isLarge(size);
  const began = { preparing: performance.now(), tracing: 0, cleaning: 0 };
  const watch = ({ phase, samples: traced, left, shown: news }: TraceProgress): void => {
    if (phase === 'tracing') began.tracing ||= performance.now();
    if (phase === 'cleaning') began.cleaning ||= performance.now();
    const version = (useQueue.getState().live?.version ?? 0) + 1;
    const exposure = orderOf(id)?.exposure;
    shown(id, {
      phase: phase === 'done' ? 'keeping' : phase,
      samples: traced,
      left,
      ...(news ? { radiance: news.radiance, version, exposure: exposure ?? Math.round(news.exposure * 10) / 10 } : {}),
    });
  };
  const keep = async (sums: Exposed): Promise<void> => {
    // Of a picture for print it is the small one, of which nothing counts yet.
    const done = large ? 0 : sums.counts[0];
    try {
      await kept.keepFilm(id, sums);
      await kept.change(id, { done });
    } catch {
      // Where no more can be kept the picture goes on all the same; it would begin from what was kept before.
      return;
    }
    useQueue.setState((s) => ({ orders: s.orders.map((o) => (o.id === id ? { ...o, done } : o)) }));
  };
  const clock = (): number => performance.now() / 1000;
  const { workshop } = own;
  own.job = large
    ? new LargeJob(order.stamp, { ...size, samples }, workshop, noting(id, kept.large(id, workshop.pack)), watch, clock, { film, keep })
    : new TraceJob(
        order.stamp,
        workshop.hands({ width: order.width, height: order.height }, order.part?.region ?? null),
        workshop.cleaner,
        { ...size, samples },
        watch,
        clock,
        { film, keep },
      );
  const finished = await own.job.run();
  if (!finished || own.over) return;
  // One that was begun another day tells little of how long a whole one takes.
  if (!film && !large) {
    const took = {
      prepare: (began.tracing - began.preparing) / 1000,
      trace: (began.cleaning - began.tracing) / 1000,
      finish: (performance.now() - began.cleaning) / 1000,
    };
    rememberPace(learned(rememberedPace(workerCount()), { ...size, samples }, took));
  }
  const now = orderOf(id) ?? order;
  const keepIt = now.part ? keepPart : keepPicture;
  const print = finished.blocks ? await kept.print(now) : null;
  await keepIt(now, { ...finished, print, exposure: now.exposure ?? useQueue.getState().live?.exposure ?? finished.exposure, white: whiteOf(now) });
  const { live } = useQueue.getState();
  useQueue.setState((s) => ({ orders: s.orders.filter((o) => o.id !== id), last: live && { ...live, phase: 'done' } }));
  change(() => kept.remove(id));
}

/** Pictures that are to be made, one after another, beside one's work; they outlive the page. */
export const useQueue = create<QueueState>()((set, get) => {
  /** Changes an order here at once, and where it is kept. */
  const alter = (id: string, values: Partial<Order>): void => {
    set((s) => ({ orders: s.orders.map((o) => (o.id === id ? { ...o, ...values } : o)) }));
    change(() => kept.change(id, values));
  };
  return {
    orders: [],
    unkept: 0,
    live: null,
    last: null,
    looked: null,
    async ask(wanted, look) {
      const first = lastPlace(get().orders);
      const orders = wanted.map((w, i): Order => ({
        sheet: null,
        part: null,
        ...w,
        id: newId('order'),
        place: first + i,
        state: 'waiting',
        done: 0,
        message: null,
        exposure: null,
        white: null,
      }));
      set((s) => ({ orders: lined([...s.orders, ...orders]), ...(look ? { looked: orders[0].id, last: null } : {}) }));
      change(() => kept.add(orders));
      await keeping;
      work();
    },
    hold(id) {
      alter(id, { state: 'held' });
      // What has been traced is kept before it is put down.
      if (under?.id === id) under.job?.halt();
    },
    goOn(id) {
      alter(id, { state: 'waiting', message: null });
      work();
    },
    move(id, by) {
      const places = new Map(moved(get().orders, id, by).map((o) => [o.id, o.place]));
      set((s) => ({ orders: lined(s.orders.map((o) => ({ ...o, place: places.get(o.id) ?? o.place }))) }));
      change(() => Promise.all([...places].map(([one, place]) => kept.change(one, { place }))));
    },
    remove(id) {
      set((s) => ({ orders: s.orders.filter((o) => o.id !== id), looked: s.looked === id ? null : s.looked }));
      change(() => kept.remove(id));
      if (under?.id === id) putDown();
      void keeping.then(work);
    },
    set: (id, values) => {
      const { live, last } = get();
      if (live?.order.id === id && values.exposure !== undefined && values.exposure !== null) shown(id, { exposure: values.exposure });
      if (last?.order.id !== id) alter(id, values);
    },
    fail: (id, message) => alter(id, { state: 'failed', message }),
    look: (id) => set((s) => ({ looked: id, last: s.last && s.last.order.id === id ? s.last : null })),
  };
});

let taken = false;

/** Takes up the pictures that wait in this browser, once for a page. One window makes them; where it is closed, another goes on from what was kept. */
export function takeUpQueue(): void {
  if (taken) return;
  taken = true;
  if (typeof BroadcastChannel !== 'undefined') {
    channel = new BroadcastChannel(LOCK);
    channel.onmessage = ({ data }: MessageEvent<News>) => {
      if ('orders' in data) void reread();
      else if (!maker) {
        const order = data.live && orderOf(data.live.id);
        useQueue.setState({ live: data.live && order ? { ...data.live, order, radiance: null } : null });
      }
    };
  }
  const begin = (): Promise<void> => {
    maker = true;
    return reread();
  };
  // Where nothing can be kept, pictures are made as long as the page stands.
  void reread().catch(() => undefined);
  // Without locks, as on a page that is not served safely, every window makes what it was asked for.
  if (!navigator.locks) void begin();
  else
    void navigator.locks.request(LOCK, () => {
      void begin();
      return new Promise(() => undefined);
    });
}
