import { createStore, delMany, entries, get, del, set, setMany, type UseStore } from 'idb-keyval';
import type { Change } from '@/core/project/commands';

/** An edit that was refused: kept apart, with the sentence that says why. */
export interface Aside {
  change: Change;
  title: string;
  message: string;
}

/** An edit that waits in the browser, and the key it waits under. */
export interface Waiting {
  key: string;
  change: Change;
}

let counter = 0;

/**
 * Edits of one project that wait in this browser until the server has them. Each edit is a record of its own, so that
 * several windows share the store without ever overwriting one another; the server knows repeated edits by their ids.
 */
export class Outbox {
  private readonly store: UseStore;

  constructor(private readonly project: string) {
    this.store = createStore('enstegon', 'waiting');
  }

  /** A key that sorts after those of earlier edits. */
  private key(): string {
    return `${this.project} edit ${Date.now().toString(36).padStart(10, '0')} ${(counter++).toString(36).padStart(6, '0')} ${Math.random().toString(36).slice(2, 8)}`;
  }

  private async read<T>(what: 'edit' | 'aside'): Promise<[string, T][]> {
    const all = await entries<string, T>(this.store).catch(() => []);
    return all.filter(([key]) => key.startsWith(`${this.project} ${what} `)).sort(([a], [b]) => (a < b ? -1 : 1));
  }

  /** Everything that waits, of all windows, oldest first. */
  async waiting(): Promise<Waiting[]> {
    // Until the second release a project's edits were one record.
    const old = `waiting ${this.project}`;
    const legacy = await get<Change[]>(old).catch(() => undefined);
    if (legacy) {
      await setMany(
        legacy.map((change) => [this.key(), change]),
        this.store,
      ).catch(() => undefined);
      await del(old).catch(() => undefined);
    }
    return (await this.read<Change>('edit')).map(([key, change]) => ({ key, change }));
  }

  /** Lets an edit wait. Gives back its key. */
  add(change: Change): string {
    const key = this.key();
    void set(key, change, this.store).catch(() => undefined);
    return key;
  }

  async remove(keys: readonly string[]): Promise<void> {
    if (keys.length) await delMany([...keys], this.store).catch(() => undefined);
  }

  async asides(): Promise<Aside[]> {
    return (await this.read<Aside>('aside')).map(([, aside]) => aside);
  }

  async setAside(aside: Aside): Promise<void> {
    await set(`${this.project} aside ${aside.change.id}`, aside, this.store).catch(() => undefined);
  }

  async letGo(id: string): Promise<void> {
    await delMany([`${this.project} aside ${id}`], this.store).catch(() => undefined);
  }
}
