/** The grammar of lengths as people write them: numbers, units, fractions, sums of both. Inside, a length is metres. */

export const INCH = 0.0254;
export const FOOT = 12 * INCH;

export type UnitSystem = 'metric' | 'imperial';

/** What is written can be read in two ways; `ways` names both, so that one of them can be typed. */
export class TwoWays extends Error {
  constructor(readonly ways: string) {
    super(ways);
  }
}

type UnitName = 'mm' | 'cm' | 'm' | 'ft' | 'in';
const METRES: Record<UnitName, number> = { mm: 0.001, cm: 0.01, m: 1, ft: FOOT, in: INCH };

/** What a unit is called, the longer words first. */
const WORDS: readonly [RegExp, UnitName][] = [
  [/^(?:millimet(?:re|er)s?|mm)(?![a-z])/, 'mm'],
  [/^(?:centimet(?:re|er)s?|cm)(?![a-z])/, 'cm'],
  [/^(?:met(?:re|er)s?|m)(?![a-z])/, 'm'],
  [/^(?:feet|foot|ft(?![a-z])|')/, 'ft'],
  [/^(?:inch(?:es)?|in(?![a-z])|")/, 'in'],
];

/** `digits`: of a whole number as it was written, for what is told by how many there are. */
type Token = { kind: 'number'; value: number; digits: string | null } | { kind: 'unit'; unit: UnitName } | { kind: 'op'; op: string };

/** Signs that are drawn alike are one sign; kinds of space are one space. */
const plain = (text: string): string =>
  text
    // 4½ is four and a half, not forty-one halves.
    .replace(/(?<=\d)(?=[¼-¾⅐-⅞])/g, ' ')
    .normalize('NFKC')
    .replace(/⁄|÷/g, '/')
    .replace(/[′’‘ʹ´`]/g, "'")
    .replace(/''|[″”“]/g, '"')
    .replace(/[‐-―−]/g, '-')
    .replace(/[×·⋅∙]/g, '*')
    .replace(/\s+/g, ' ')
    .trim()
    .toLowerCase();

const GROUPED = (sign: string): RegExp => new RegExp(`^[1-9]\\d{0,2}(?:\\${sign}\\d{3})+$`);

/**
 * A number with its separators. A point parts decimals. A comma does too where it can do nothing else; where it could also part
 * thousands, that is what it does in a project in feet, and in one in millimetres nobody knows.
 *
 * @returns null where it is no number
 * @throws TwoWays
 */
function numberOf(written: string, system: UnitSystem): number | null {
  const text = written.replace(/ /g, '');
  const [points, commas] = [text.split('.').length - 1, text.split(',').length - 1];
  const grouped = text !== written;
  const decimal = (whole: string, part: string): number => Number(`${whole || '0'}.${part || '0'}`);
  if (points + commas === 0) return Number(text);
  if (points && commas) {
    const sign = text.lastIndexOf('.') > text.lastIndexOf(',') ? '.' : ',';
    const [whole, part, more] = text.split(sign);
    const other = sign === '.' ? ',' : '.';
    if (more !== undefined || grouped || !GROUPED(other).test(whole)) return null;
    return decimal(whole.replaceAll(other, ''), part);
  }
  const sign = points ? '.' : ',';
  if (points + commas > 1) return !grouped && GROUPED(sign).test(text) ? Number(text.replaceAll(sign, '')) : null;
  const [whole, part] = text.split(sign);
  if (sign === ',' && !grouped && GROUPED(',').test(text)) {
    if (system === 'imperial') return Number(whole + part);
    throw new TwoWays(`${whole}.${part} or ${whole}${part}; type it without the comma`);
  }
  return decimal(whole, part);
}

/** Digits in groups of three with spaces between, or digits and separators, with decimals. */
const NUMBER = /^(?:[1-9]\d{0,2}(?: \d{3})+(?!\d)(?:[.,]\d+)?|\d[\d.,]*|[.,]\d+)/;

function tokenize(text: string, system: UnitSystem): Token[] | null {
  const tokens: Token[] = [];
  let rest = text;
  while ((rest = rest.trimStart())) {
    let written = NUMBER.exec(rest)?.[0];
    if (written !== undefined) {
      // 1 125/250 is one and a half: the last group is the upper part of a fraction. 3 450/2 is half of 3450.
      const under = /^ ?\/ ?(\d+)/.exec(rest.slice(written.length))?.[1];
      if (under && written.includes(' ') && Number(written.split(' ').at(-1)) < Number(under)) written = written.slice(0, written.lastIndexOf(' '));
      const value = numberOf(written, system);
      if (value === null) return null;
      tokens.push({ kind: 'number', value, digits: /^\d+$/.test(written) ? written : null });
      rest = rest.slice(written.length);
      continue;
    }
    const op = /^(?:[-+*/()]|x(?![a-z]))/.exec(rest)?.[0];
    const word = WORDS.find(([pattern]) => pattern.test(rest));
    if (op) tokens.push({ kind: 'op', op: op === 'x' ? '*' : op });
    else if (word) tokens.push({ kind: 'unit', unit: word[1] });
    else return null;
    rest = rest.slice(op ? op.length : word![0].exec(rest)![0].length);
  }
  return tokens;
}

const INCHES = String.raw`(?:\d+(?:\.\d*)?(?: \d+ ?\/ ?\d+)?|\d+ ?\/ ?\d+)`;
/** Feet, a hyphen, inches, and nothing that would reckon with them. */
const HYPHEN = new RegExp(String.raw`(\d+(?:\.\d+)?) ?('|ft\b|feet\b|foot\b)( ?)-( ?)(${INCHES}) ?("|in\b|inch\b|inches\b)?(?! ?[*/(x\d.])`, 'g');

/**
 * As on a drawing: in 8'-2 7/16" the hyphen joins feet and inches. With spaces about it, or before more than eleven inches, it
 * could as well take away.
 *
 * @throws TwoWays
 */
const drafted = (text: string): string =>
  text.replace(HYPHEN, (_, feet: string, foot: string, before: string, after: string, inches: string) => {
    if (before || after || parseFloat(inches) >= 12)
      throw new TwoWays(`${feet}'-${inches}" as on a drawing, or ${inches}" taken from ${feet}', which is =${feet}'-${inches}"`);
    return `${feet}${foot} ${inches}"`;
  });

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

  /** A number with its unit, a parenthesis, or what is written in several units: 11' 4 1/2", 3 m 45. */
  private quantity(): Value | null {
    if (this.op('-')) {
      const value = this.quantity();
      return value && { ...value, value: -value.value };
    }
    if (this.op('(')) {
      const value = this.sum();
      return value && this.op(')') ? value : null;
    }
    const first = this.number();
    if (!first) return null;
    const unit = this.unit();
    if (!unit) return { value: first.value, length: false };
    return { value: first.value * METRES[unit] + this.further(unit, first.value), length: true };
  }

  /** What comes after a number of one unit: smaller ones, or a bare number that is told by its place. Metres. */
  private further(unit: UnitName, whole: number): number {
    const from = this.at;
    const next = this.number();
    if (!next) return 0;
    const after = this.unit();
    if (unit === 'ft' && (after === 'in' || after === null)) return next.value * INCH;
    if (unit === 'm' && (after === 'cm' || after === 'mm')) return next.value * METRES[after] + (after === 'cm' ? this.further('cm', next.value) : 0);
    if (unit === 'cm' && after === 'mm') return next.value * METRES.mm;
    if (unit === 'm' && after === null && next.digits !== null) {
      if (next.digits.length === 2) return next.value * METRES.cm;
      if (next.digits.length === 3) return next.value * METRES.mm;
      if (next.digits.length === 1) throw new TwoWays(`${whole}.0${next.digits} m or ${whole}.${next.digits} m; type one of them`);
    }
    this.at = from;
    return 0;
  }

  private unit(): UnitName | null {
    const token = this.tokens[this.at];
    if (token?.kind !== 'unit') return null;
    this.at++;
    return token.unit;
  }

  /** A number: 4, 4 1/2, or 1/2 where it is a fraction of a foot or an inch. */
  private number(): { value: number; digits: string | null } | null {
    const token = this.tokens[this.at];
    if (token?.kind !== 'number') return null;
    if (this.isFraction(this.at) && this.inchesAt(this.at + 3)) return { value: this.fraction(), digits: null };
    this.at++;
    // "4 1/2": a whole number, then a fraction of two whole numbers.
    if (token.digits !== null && this.isFraction(this.at)) return { value: token.value + this.fraction(), digits: null };
    return token;
  }

  private isFraction(at: number): boolean {
    const [a, slash, b] = this.tokens.slice(at, at + 3);
    return a?.kind === 'number' && slash?.kind === 'op' && slash.op === '/' && b?.kind === 'number' && a.digits !== null && b.digits !== null && b.value !== 0;
  }

  private inchesAt(at: number): boolean {
    const token = this.tokens[at];
    return token?.kind === 'unit' && (token.unit === 'in' || token.unit === 'ft');
  }

  private fraction(): number {
    const a = this.tokens[this.at] as { value: number };
    const b = this.tokens[this.at + 2] as { value: number };
    this.at += 3;
    return a.value / b.value;
  }
}

/**
 * Reads what is written as a length.
 *
 * @returns metres; null where it is no length
 * @throws TwoWays where it can be read in two ways
 */
export function readLength(text: string, system: UnitSystem): number | null {
  const given = plain(text);
  const tokens = tokenize(given.startsWith('=') ? given.slice(1) : drafted(given), system);
  return tokens && new Evaluator(tokens, system === 'metric' ? 0.001 : INCH).run();
}
