import { useEffect, useMemo, useState } from 'react';
import type { Placing } from '@/core/finishes/laying/place';
import type { Region } from '@/core/geometry/region';
import type { Laying } from '@/core/project/schema';
import type { CountedLayout, LayingService } from '@/workers/laying.worker';
import { useStudio } from '../store/studio';
import { Summoned, unlessLost } from '../work/summoned';

const laying = new Summoned<LayingService>(
  () => new Worker(new URL('../../workers/laying.worker.ts', import.meta.url), { type: 'module' }),
  'Units are not drawn: the part of the application that lays them has stopped; reload the page.',
  (sentence) => useStudio.getState().say(sentence),
);

const known = new WeakMap<object, { key: string; layout: Promise<CountedLayout | null> }>();

/** What is to be laid: on what (another one is another layout), how, and where its pattern begins. */
export interface Wanted {
  /** What it is asked for by; stays the same while the thing is edited. */
  key: string;
  of: object;
  laying: Laying;
  placing: Placing;
  regions: readonly Region[];
}

/** The layout of one face, made in a worker once for all who ask. */
function layoutOf(wanted: Wanted): Promise<CountedLayout | null> {
  const key = JSON.stringify([wanted.laying, wanted.placing]);
  let made = known.get(wanted.of);
  if (made?.key !== key) {
    known.set(wanted.of, (made = { key, layout: laying.ask((s) => s.layOut(wanted.laying, wanted.placing, wanted.regions)) }));
    // It is asked for again where the worker was gone.
    made.layout.catch(() => known.delete(wanted.of));
  }
  return made.layout;
}

const NONE: ReadonlyMap<string, CountedLayout> = new Map();

/**
 * The units on faces as they are laid and counted, made in a worker. While new ones are made the last ones stand.
 *
 * @param wanted kept by the caller as long as nothing in it has changed
 */
export function useLayouts(wanted: readonly Wanted[]): ReadonlyMap<string, CountedLayout> {
  const [layouts, setLayouts] = useState(NONE);
  useEffect(() => {
    if (!wanted.length) return setLayouts(NONE);
    let alive = true;
    Promise.all(wanted.map(async (one) => [one.key, await layoutOf(one)] as const)).then(
      (done) => alive && setLayouts(new Map(done.flatMap(([key, layout]) => (layout ? [[key, layout]] : [])))),
      unlessLost,
    );
    return () => {
      alive = false;
    };
  }, [wanted]);
  return layouts;
}

/** The same of one face; null: none is wanted. */
export function useLayout(of: object | null, laying: Laying | null, placing: Placing, regions: readonly Region[]): CountedLayout | null {
  const key = of && laying ? JSON.stringify([laying, placing]) : '';
  // The key stands for laying and placing, the face for its regions.
  const wanted = useMemo(() => (of && laying ? [{ key: '', of, laying, placing, regions }] : []), [of, key]);
  const layouts = useLayouts(wanted);
  return wanted.length ? (layouts.get('') ?? null) : null;
}
