/**
 * What waits to be done, by its key: what was asked for in the latest turn comes first, and within a turn what was asked for first.
 * Cards that one has just turned to get their pictures before those one has left, from the left.
 */
export class Turns<T> {
  private readonly waiting = new Map<string, { turn: number; what: T }>();
  private turn = 0;
  private open = false;

  get(key: string): T | undefined {
    return this.waiting.get(key)?.what;
  }

  /** Asks for something. What is asked for before the page has drawn again is of one turn. */
  add(key: string, what: T): void {
    if (!this.open) {
      this.open = true;
      this.turn++;
      queueMicrotask(() => (this.open = false));
    }
    this.waiting.set(key, { turn: this.turn, what });
  }

  drop(key: string): void {
    this.waiting.delete(key);
  }

  /** Takes what comes next; null where nothing waits. */
  take(): [key: string, what: T] | null {
    let next: [string, { turn: number; what: T }] | null = null;
    for (const entry of this.waiting) if (!next || entry[1].turn > next[1].turn) next = entry;
    if (!next) return null;
    this.waiting.delete(next[0]);
    return [next[0], next[1].what];
  }
}
