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
  cancel(id: string): void;
}

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
  cancel(id) {
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
