/** Numbers that look random and are the same each time (mulberry32). */
export class Chance {
  constructor(private state: number) {}

  next(): number {
    this.state = (this.state + 0x6d2b79f5) | 0;
    let t = Math.imul(this.state ^ (this.state >>> 15), 1 | this.state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  }

  below(n: number): number {
    return Math.floor(this.next() * n);
  }

  of<T>(list: readonly T[]): T {
    return list[this.below(list.length)];
  }
}

const ODD: unknown[] = [
  null,
  true,
  0,
  -1,
  -0,
  1e9,
  1e308,
  -1e-12,
  0.1,
  2 ** 53,
  '',
  ' ',
  '\u0000',
  '\ud800',
  '__proto__',
  'constructor',
  'toString',
  'ground',
  '../../x',
  '<b>',
  '=1+1',
  'x'.repeat(3000),
  [],
  {},
  [[]],
  { x: null },
  { __proto__: null },
  '2026-02-30T25:61',
  '#zzzzzz',
  'f'.repeat(64),
];

/** A copy of plain data with one to four of its values changed, taken away, doubled or put elsewhere. */
export function mutated(value: unknown, chance: Chance): unknown {
  const copy = JSON.parse(JSON.stringify(value)) as unknown;
  const spots: { of: Record<string, unknown>; key: string }[] = [];
  const gather = (v: unknown): void => {
    if (v === null || typeof v !== 'object') return;
    for (const key of Object.keys(v)) {
      spots.push({ of: v as Record<string, unknown>, key });
      gather((v as Record<string, unknown>)[key]);
    }
  };
  gather(copy);
  if (!spots.length) return chance.of(ODD);
  for (let n = 1 + chance.below(4); n > 0; n--) {
    const { of, key } = chance.of(spots);
    switch (chance.below(6)) {
      case 0:
        delete of[key];
        break;
      case 1:
        Object.defineProperty(of, chance.of(['__proto__', 'constructor', 'id', 'x', '']), {
          value: chance.of(ODD),
          enumerable: true,
          configurable: true,
          writable: true,
        });
        break;
      case 2:
        of[key] = chance.of(spots).of;
        try {
          JSON.stringify(copy);
        } catch {
          of[key] = null;
        }
        break;
      case 3:
        if (typeof of[key] === 'number') of[key] = of[key] * chance.of([-1, 0, 1e-9, 1e6, 1.0001]);
        else of[key] = chance.of(ODD);
        break;
      default:
        of[key] = chance.of(ODD);
    }
  }
  return copy;
}

/** A copy of bytes that was cut, changed, doubled in part, or had zeros written into it. */
export function spoiled(bytes: Uint8Array, chance: Chance): Uint8Array {
  const copy = new Uint8Array(bytes);
  switch (chance.below(5)) {
    case 0:
      return copy.subarray(0, chance.below(copy.length));
    case 1: {
      const at = chance.below(copy.length);
      return new Uint8Array(Buffer.concat([copy.subarray(0, at), copy.subarray(chance.below(at + 1))]));
    }
    case 2: {
      const at = chance.below(copy.length);
      copy.fill(0, at, at + chance.below(64));
      return copy;
    }
    default:
      for (let n = 1 + chance.below(8); n > 0; n--) copy[chance.below(copy.length)] = chance.below(256);
      return copy;
  }
}
