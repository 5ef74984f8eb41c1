import { create } from 'zustand';
import { api, type Errand } from '../store/api';
import { errorText } from '../store/sync';

interface ErrandsState {
  /** Long work under way, oldest first. */
  running: Errand[];
  /**
   * Begins long work on the server and follows it. A file that comes of it is downloaded.
   *
   * @param onFailed told why it came to nothing
   * @param onProject told the project that came of it
   */
  follow(begin: () => Promise<Errand>, onFailed: (message: string) => void, onProject?: (id: string) => void): Promise<void>;
  /**
   * Shows work of this window as long as it lasts, with a way to stop it.
   *
   * @param title what comes of it
   * @param work is handed a signal that tells it to stop, and a way to say what it is at
   * @returns what came of it; null where it was stopped
   */
  carry<T>(title: string, work: (signal: AbortSignal, tell: (at: string) => void) => Promise<T>): Promise<T | null>;
  cancel(id: string): void;
}

/** Work of this window that can be stopped, by its id. */
const here = new Map<string, AbortController>();
let carried = 0;

/** How often it is asked after, ms: often at first, so that what is quick feels quick. */
const pause = (asked: number): number => Math.min(900, 120 + asked * 60);

export const useErrands = create<ErrandsState>((set, get) => ({
  running: [],
  async follow(begin, onFailed, onProject) {
    try {
      let errand = await begin();
      set({ running: [...get().running, errand] });
      try {
        for (let asked = 0; errand.state === 'running'; asked++) {
          await new Promise((done) => setTimeout(done, pause(asked)));
          errand = await api.errand(errand.id);
          set({ running: get().running.map((e) => (e.id === errand.id ? errand : e)) });
        }
      } finally {
        set({ running: get().running.filter((e) => e.id !== errand.id) });
      }
      if (errand.state === 'failed') onFailed(`${errand.title}: ${errand.message ?? 'it was not made.'}`);
      if (errand.state !== 'done' || !errand.result) return;
      if ('project' in errand.result) onProject?.(errand.result.project);
      else {
        const link = document.createElement('a');
        link.href = `/api/errands/${errand.id}/file`;
        link.download = errand.result.name;
        link.click();
      }
    } catch (error) {
      onFailed(errorText(error));
    }
  },
  async carry(title, work) {
    const id = `here ${carried++}`;
    const stop = new AbortController();
    here.set(id, stop);
    set({ running: [...get().running, { id, title, state: 'running', share: 0, at: 'Reading', left: null, message: null, result: null }] });
    // Stopped, it is over for who waits, whether or not the work itself can be broken off.
    const stopped = new Promise<null>((over) => stop.signal.addEventListener('abort', () => over(null)));
    const tell = (at: string): void => set({ running: get().running.map((e) => (e.id === id ? { ...e, at } : e)) });
    try {
      return await Promise.race([work(stop.signal, tell), stopped]);
    } catch (error) {
      if (stop.signal.aborted) return null;
      throw error;
    } finally {
      here.delete(id);
      set({ running: get().running.filter((e) => e.id !== id) });
    }
  },
  cancel(id) {
    const own = here.get(id);
    if (own) return own.abort();
    set({ running: get().running.map((e) => (e.id === id ? { ...e, at: 'Stopping' } : e)) });
    void api.cancelErrand(id).catch(() => undefined);
  },
}));

/** What is left of an errand, in words. */
export function leftOf({ left, at }: Pick<Errand, 'left' | 'at'>): string {
  if (left === null) return at;
  const time = left < 1.5 ? 'a moment' : left < 90 ? `about ${Math.round(left)} s` : `about ${Math.round(left / 60)} min`;
  return `${at}, ${time} left`;
}
