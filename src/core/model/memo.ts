/** One value that was made, with what it was made from and the slots that were asked for on the way. */
interface Made {
  deps: readonly unknown[];
  value: unknown;
  uses: readonly Slot[];
}

/** What is remembered under one kind and id: the value made last, and the one before it. */
class Slot {
  last: Made | null = null;
  before: Made | null = null;
  /** The round of sweeping it was reached in. */
  round = 0;

  keep(made: Made): void {
    this.before = this.last;
    this.last = made;
  }
}

/** How much the slots may grow before those that nothing leads to any more are swept. */
const GROWTH = 1.25;
const LEAST = 512;

/**
 * Remembers what was made, by kind and id, and makes it again only when one of the objects it follows from is another.
 * Things are told apart by identity alone, so that asking costs a few comparisons. Of each slot the last two values are
 * kept, so that going back to where a drag began makes nothing; what is no longer reached from the last derivation is swept.
 */
export class Memo {
  private readonly kinds = new Map<string, Map<string, Slot>>();
  /** The slots asked for by what is being made, innermost last; the first list is that of the derivation itself. */
  private frames: Slot[][] = [[]];
  private count = 0;
  private limit = LEAST;
  private round = 0;
  /** How many values had to be made since the last `begin`, for proof of locality. */
  made = 0;

  /** How many slots there are. */
  get size(): number {
    return this.count;
  }

  /** Begins a derivation: what it does not reach may be swept at its end. */
  begin(): void {
    this.made = 0;
    this.frames = [[]];
  }

  /** Ends a derivation and sweeps, now and then, the slots it did not reach. */
  end(): void {
    if (this.count <= this.limit) return;
    this.round++;
    const reach = (slots: readonly Slot[]): void => {
      for (const slot of slots) {
        if (slot.round === this.round) continue;
        slot.round = this.round;
        if (slot.last) reach(slot.last.uses);
        if (slot.before) reach(slot.before.uses);
      }
    };
    reach(this.frames[0]);
    for (const slots of this.kinds.values())
      for (const [id, slot] of slots)
        if (slot.round !== this.round) {
          slots.delete(id);
          this.count--;
        }
    this.limit = Math.max(LEAST, this.count * GROWTH);
  }

  private slot(kind: string, id: string): Slot {
    let slots = this.kinds.get(kind);
    if (!slots) this.kinds.set(kind, (slots = new Map()));
    let slot = slots.get(id);
    if (!slot) {
      slots.set(id, (slot = new Slot()));
      this.count++;
    }
    this.frames[this.frames.length - 1].push(slot);
    return slot;
  }

  /** One of the last two values made for these dependencies, or a new one. */
  get<T>(kind: string, id: string, deps: readonly unknown[], make: () => T): T {
    const slot = this.slot(kind, id);
    if (slot.last && sameItems(slot.last.deps, deps)) return slot.last.value as T;
    if (slot.before && sameItems(slot.before.deps, deps)) {
      slot.keep(slot.before);
      return slot.last!.value as T;
    }
    const uses: Slot[] = [];
    this.frames.push(uses);
    try {
      const value = make();
      this.made++;
      slot.keep({ deps, value, uses });
      return value;
    } finally {
      this.frames.pop();
    }
  }

  /** One of the last two values as long as the new one is the same. */
  steady<T>(kind: string, id: string, value: T, same: (a: T, b: T) => boolean): T {
    const slot = this.slot(kind, id);
    const alike = (made: Made | null): boolean => made !== null && (made.value === value || same(made.value as T, value));
    if (alike(slot.last)) return slot.last!.value as T;
    if (alike(slot.before)) slot.keep(slot.before!);
    else slot.keep({ deps: NOTHING, value, uses: NOTHING });
    return slot.last!.value as T;
  }
}

const NOTHING: readonly never[] = [];

/** Whether two lists hold the same objects in the same order. */
export function sameItems(a: readonly unknown[], b: readonly unknown[]): boolean {
  if (a.length !== b.length) return false;
  for (let i = 0; i < a.length; i++) if (a[i] !== b[i]) return false;
  return true;
}
