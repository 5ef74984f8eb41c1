import { wrap, type Remote } from 'comlink';
import { useEffect, useState } from 'react';
import type { ScheduleService } from '@/workers/schedules.worker';
import { errorText } from '../store/sync';
import { useStudio } from '../store/studio';

let remote: Remote<ScheduleService> | null = null;

/** The worker that counts. */
export const schedules = (): Remote<ScheduleService> =>
  (remote ??= wrap<ScheduleService>(new Worker(new URL('../../workers/schedules.worker.ts', import.meta.url), { type: 'module' })));

/** What a worker makes of some inputs; what it made before stays until the new one has come. */
export function useWork<T>(make: () => Promise<T>, deps: readonly unknown[]): { value: T | null; busy: boolean } {
  const [value, setValue] = useState<T | null>(null);
  const [busy, setBusy] = useState(true);
  useEffect(() => {
    let alive = true;
    setBusy(true);
    make()
      .then((made) => {
        if (!alive) return;
        setValue(made);
        setBusy(false);
      })
      .catch((error: unknown) => {
        if (!alive) return;
        setBusy(false);
        useStudio.getState().say(errorText(error));
      });
    return () => {
      alive = false;
    };
  }, deps);
  return { value, busy };
}
