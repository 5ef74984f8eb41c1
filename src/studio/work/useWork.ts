import { useEffect, useState } from 'react';
import { errorText } from '../store/sync';
import { useStudio } from '../store/studio';
import { Superseded } from './model';

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
        // A newer question stands in its place.
        if (!alive || error instanceof Superseded) return;
        setBusy(false);
        useStudio.getState().say(errorText(error));
      });
    return () => {
      alive = false;
    };
  }, deps);
  return { value, busy };
}
