import { wrap, type Remote } from 'comlink';
import { useEffect, useState } from 'react';
import type { Placing } from '@/core/finishes/laying/place';
import type { Region } from '@/core/geometry/polygon';
import type { Laying } from '@/core/project/schema';
import type { CountedLayout, LayingService } from '@/workers/laying.worker';

let remote: Remote<LayingService> | null = null;

const service = (): Remote<LayingService> =>
  (remote ??= wrap<LayingService>(new Worker(new URL('../../workers/laying.worker.ts', import.meta.url), { type: 'module' })));

const known = new WeakMap<object, { key: string; layout: Promise<CountedLayout | null> }>();

/**
 * The units on a face as they are laid and counted, made in a worker. While a new one is made the last one stands.
 *
 * @param of the derived face or patch: another one is another layout; null: none is wanted
 */
export function useLayout(of: object | null, laying: Laying | null, placing: Placing, regions: readonly Region[]): CountedLayout | null {
  const [layout, setLayout] = useState<CountedLayout | null>(null);
  const key = of && laying ? JSON.stringify([laying, placing]) : '';
  useEffect(() => {
    if (!of || !laying) return setLayout(null);
    let alive = true;
    let made = known.get(of);
    if (made?.key !== key) known.set(of, (made = { key, layout: service().layOut(laying, placing, regions) }));
    void made.layout.then((done) => alive && setLayout(done));
    return () => {
      alive = false;
    };
    // The key stands for laying and placing, the face for its regions.
  }, [of, key]);
  return layout;
}
