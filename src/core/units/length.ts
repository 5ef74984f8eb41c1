import { TIGHT } from './tolerance';
/** Lengths as people write them. Inside, a length is metres; here is the only place where that is translated. */

export type UnitSystem = 'metric' | 'imperial';

export const INCH = 0.0254;
export const FOOT = 12 * INCH;

/** What `parseLength` answers: metres, or one sentence for people. */
export type ParsedLength = { ok: true; metres: number } | { ok: false; message: string };

const UNITS: Record<string, number> = { mm: 0.001, cm: 0.01, m: 1, ft: FOOT, in: INCH, "'": FOOT, '"': INCH };

type Token = { kind: 'number'; value: number } | { kind: 'unit'; metres: number } | { kind: 'op'; op: string };

/** As on a drawing: in 8'-2 7/16" the hyphen joins feet and inches. In what begins with = it takes away, as everywhere else. */
const drafted = (text: string): string => text.replace(/(\d')-(?=(?:\d+(?:\.\d*)?(?:\s+\d+\/\d+)?|\d+\/\d+)"?(?!\s*[*/(]))/g, '$1 ');

function tokenize(text: string): Token[] | null {
  const tokens: Token[] = [];
  const given = text
    .replace(/[′’‘]/g, "'")
    .replace(/''|[″”“]/g, '"')
    .replace(/[×·]/g, '*')
    .replace(/÷/g, '/')
    .replace(/−/g, '-')
    .replace(/(\d),(\d)/g, '$1.$2')
    .toLowerCase();
  const source = given.startsWith('=') ? given.slice(1) : drafted(given);
  const pattern = /\s*(?:(\d+(?:\.\d*)?|\.\d+)|(mm|cm|m|ft|feet|foot|inches|inch|in|'|")|([-+*/()]))/y;
  let at = 0;
  while (at < source.length) {
    if (!source.slice(at).trim()) break;
    pattern.lastIndex = at;
    const match = pattern.exec(source);
    if (!match) return null;
    at = pattern.lastIndex;
    if (match[1] !== undefined) tokens.push({ kind: 'number', value: Number(match[1]) });
    else if (match[2] !== undefined) {
      const unit = match[2].startsWith('f') ? 'ft' : match[2].startsWith('in') ? 'in' : match[2];
      tokens.push({ kind: 'unit', metres: UNITS[unit] });
    } else tokens.push({ kind: 'op', op: match[3] });
  }
  return tokens;
}

/** A value under evaluation: a plain number, or a length in metres. */
interface Value {
  value: number;
  length: boolean;
}

/** Recursive descent over sums, products and quantities; a bare number becomes a length only at the end. */
class Evaluator {
  private at = 0;
  constructor(
    private readonly tokens: Token[],
    private readonly bare: number,
  ) {}

  run(): number | null {
    const value = this.sum();
    if (!value || this.at !== this.tokens.length) return null;
    return this.asLength(value);
  }

  private op(...ops: string[]): string | null {
    const token = this.tokens[this.at];
    if (token?.kind === 'op' && ops.includes(token.op)) {
      this.at++;
      return token.op;
    }
    return null;
  }

  private asLength(value: Value): number {
    return value.length ? value.value : value.value * this.bare;
  }

  private sum(): Value | null {
    let left = this.product();
    if (!left) return null;
    for (let op = this.op('+', '-'); op; op = this.op('+', '-')) {
      const right = this.product();
      if (!right) return null;
      const length: boolean = left.length || right.length;
      const a: number = length ? this.asLength(left) : left.value;
      const b: number = length ? this.asLength(right) : right.value;
      left = { value: op === '+' ? a + b : a - b, length };
    }
    return left;
  }

  private product(): Value | null {
    let left = this.quantity();
    if (!left) return null;
    for (let op = this.op('*', '/'); op; op = this.op('*', '/')) {
      const right = this.quantity();
      if (!right) return null;
      if (op === '*') {
        if (left.length && right.length) return null;
        left = { value: left.value * right.value, length: left.length || right.length };
      } else {
        if (right.value === 0 || (right.length && !left.length)) return null;
        left = { value: left.value / right.value, length: left.length && !right.length };
      }
    }
    return left;
  }

  /** A number with its unit, a parenthesis, or a compound such as 11' 4 1/2". */
  private quantity(): Value | null {
    if (this.op('-')) {
      const value = this.quantity();
      return value && { ...value, value: -value.value };
    }
    if (this.op('(')) {
      const value = this.sum();
      return value && this.op(')') ? value : null;
    }
    let total: number | null = null;
    let plain: number | null = null;
    for (;;) {
      const token = this.tokens[this.at];
      if (token?.kind !== 'number') break;
      let number = token.value;
      this.at++;
      const second = this.tokens[this.at];
      // "4 1/2": a whole number, then a fraction of two whole numbers.
      if (second?.kind === 'number' && this.isFraction(this.at)) {
        number += this.fraction();
      } else if (this.isFraction(this.at - 1) && this.unitAfterFraction(this.at - 1)) {
        this.at--;
        number = this.fraction();
      }
      const unit = this.tokens[this.at];
      if (unit?.kind === 'unit') {
        this.at++;
        total = (total ?? 0) + number * unit.metres;
        if (unit.metres !== FOOT) break;
      } else if (total !== null) {
        // After feet, a bare number is inches: 11' 4 1/2.
        total += number * INCH;
        break;
      } else {
        plain = number;
        break;
      }
    }
    if (total !== null) return { value: total, length: true };
    return plain === null ? null : { value: plain, length: false };
  }

  private isFraction(at: number): boolean {
    const [a, slash, b] = this.tokens.slice(at, at + 3);
    return a?.kind === 'number' && slash?.kind === 'op' && slash.op === '/' && b?.kind === 'number' && b.value !== 0;
  }

  private unitAfterFraction(at: number): boolean {
    const unit = this.tokens[at + 3];
    return unit?.kind === 'unit' && unit.metres <= FOOT && unit.metres >= INCH;
  }

  private fraction(): number {
    const a = this.tokens[this.at] as { value: number };
    const b = this.tokens[this.at + 2] as { value: number };
    this.at += 3;
    return a.value / b.value;
  }
}

/**
 * Reads a length as people type it: `3450`, `3.45 m`, `11'4 1/2"`, `=3600-2*45`.
 * A number without a unit is millimetres in the metric system and inches in the imperial one.
 *
 * @returns metres, or a sentence that says what could not be read
 */
export function parseLength(text: string, system: UnitSystem): ParsedLength {
  const source = text.trim();
  const example = system === 'metric' ? '3450, 3.45 m or =3600-2*45' : `11'-4 1/2", 136 1/2 or =12' - 2*4 1/2"`;
  if (!source) return { ok: false, message: `Type a length, for example ${example}.` };
  const tokens = tokenize(source);
  const metres = tokens && new Evaluator(tokens, system === 'metric' ? 0.001 : INCH).run();
  if (metres === null || !Number.isFinite(metres)) return { ok: false, message: `“${text.trim()}” is not a length. Type, for example, ${example}.` };
  // A hundredth of a micrometre is below anything typed; it removes binary dust such as 3.4499999999999997.
  return { ok: true, metres: Math.round(metres * 1e8) / 1e8 };
}

/** The shortest and the longest that is built, metres. */
export const SIZES = { least: 0.01, most: 500 } as const;

/**
 * Reads the size of something that is built, new or changed.
 *
 * @returns metres, or a sentence that says what could not be read or built
 */
export function parseSize(text: string, system: UnitSystem, least: number = SIZES.least): ParsedLength {
  const parsed = parseLength(text, system);
  if (!parsed.ok || (parsed.metres >= least - TIGHT && parsed.metres <= SIZES.most + TIGHT)) return parsed;
  const [low, high] =
    system === 'metric' ? [`${formatLength(least, system)} mm`, `${SIZES.most} m`] : [formatLength(least, system), `${Math.floor(SIZES.most / FOOT)} ft`];
  return { ok: false, message: `“${text.trim()}” can’t be built; nothing was changed. Type a length between ${low} and ${high}.` };
}

/**
 * Writes a length for people: whole millimetres, or feet, inches and sixteenths as on a drawing.
 *
 * @param metres length in metres
 */
export function formatLength(metres: number, system: UnitSystem): string {
  if (system === 'metric') return String(Math.round(metres * 1000) + 0);
  return feetAndInches(metres, 16);
}

/** Feet, inches and a fraction of lowest terms: 8'-2 7/16". @param parts of an inch that are told apart */
function feetAndInches(metres: number, parts: number): string {
  const count = Math.round(Math.abs(metres / INCH) * parts);
  const sign = metres < 0 && count > 0 ? '−' : '';
  const feet = Math.floor(count / (12 * parts));
  const inches = Math.floor((count % (12 * parts)) / parts);
  let top = count % parts;
  let bottom = parts;
  while (top > 0 && top % 2 === 0) {
    top /= 2;
    bottom /= 2;
  }
  const fraction = top ? `${top}/${bottom}` : '';
  const inchText = [inches || !fraction || feet ? String(inches) : '', fraction].filter(Boolean).join(' ');
  return feet === 0 ? `${sign}${inchText}"` : `${sign}${feet}'-${inchText}"`;
}

/**
 * Writes a length for an entry field: tenths of a micrometre are kept in millimetres; feet and inches are written as on a
 * drawing, to the sixty-fourth where that is exact, else to the nearest sixteenth. A field that is left as it is changes nothing.
 */
export function formatLengthExact(metres: number, system: UnitSystem): string {
  if (system === 'imperial') {
    const exact = Math.abs(Math.round((metres / INCH) * 64) * (INCH / 64) - metres) < TIGHT;
    return feetAndInches(metres, exact ? 64 : 16);
  }
  const short = formatLength(metres, system);
  const back = parseLength(short, system);
  return back.ok && Math.abs(back.metres - metres) < TIGHT ? short : String(Math.round(metres * 1e6) / 1e3);
}

/** Writes an area in square metres for people: `26.2 m²` or `282 sq ft`. */
export function formatArea(squareMetres: number, system: UnitSystem): string {
  return system === 'metric' ? `${squareMetres.toFixed(1)} m²` : `${Math.round(squareMetres / (FOOT * FOOT))} sq ft`;
}

/** The nearest multiple of the unit system's snap step (5 mm; 1/2 in), in metres. */
export function snapStep(metres: number, system: UnitSystem): number {
  const step = system === 'metric' ? 0.005 : INCH / 2;
  return Math.round(Math.round(metres / step) * step * 1e8) / 1e8;
}
