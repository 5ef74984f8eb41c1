/** What was made last for each of many things of one kind, with what it was made from. */
class Kind {
  readonly kept = new Map<string, { deps: readonly unknown[]; value: unknown }>();
}

/**
 * Remembers what was made last, by kind and id, and makes it again only when one of the objects it follows from is another.
 * Things are told apart by identity alone, so that asking costs a few comparisons.
 */
export class Memo {
  private readonly kinds = new Map<string, Kind>();
  /** How many values had to be made since this was last set to 0, for proof of locality. */
  made = 0;

  private kind(name: string): Kind {
    let kind = this.kinds.get(name);
    if (!kind) this.kinds.set(name, (kind = new Kind()));
    return kind;
  }

  /** The value made last for these dependencies, or a new one. */
  get<T>(kind: string, id: string, deps: readonly unknown[], make: () => T): T {
    const { kept } = this.kind(kind);
    const known = kept.get(id);
    if (known && sameItems(known.deps, deps)) return known.value as T;
    const value = make();
    this.made++;
    kept.set(id, { deps, value });
    return value;
  }

  /** The value of last time as long as the new one is the same. */
  steady<T>(kind: string, id: string, value: T, same: (a: T, b: T) => boolean): T {
    const { kept } = this.kind(kind);
    const known = kept.get(id)?.value as T | undefined;
    if (known !== undefined && (known === value || same(known, value))) return known;
    kept.set(id, { deps: [], value });
    return value;
  }
}

/** Whether two lists hold the same objects in the same order. */
export function sameItems(a: readonly unknown[], b: readonly unknown[]): boolean {
  if (a.length !== b.length) return false;
  for (let i = 0; i < a.length; i++) if (a[i] !== b[i]) return false;
  return true;
}
