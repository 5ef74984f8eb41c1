import { z } from 'zod';

/** What a piece was chosen to be, by the words of its maker. */
export type Traits = Readonly<Record<string, number | boolean | string>>;

/** A trait as one sets it; `unless` names another and the values of it with which this one means nothing. */
export type TraitRow = { unless?: { key: string; is: readonly string[] } } & (
  | { key: string; word: string; kind: 'length' | 'count'; min: number; max: number; step: number; first: number }
  | { key: string; word: string; kind: 'choice'; options: readonly string[]; first: string }
  | { key: string; word: string; kind: 'switch'; first: boolean }
);

interface Range {
  min: number;
  max: number;
  first: number;
  step?: number;
}

/** A length, metres. */
export const length = (word: string, { min, max, first, step = 0.005 }: Range) =>
  z.number().min(min).max(max).default(first).meta({ title: word, unit: 'm', step });

/** How many of something. */
export const count = (word: string, { min, max, first }: Range) => z.number().int().min(min).max(max).default(first).meta({ title: word });

/** One of several. */
export const choice = <const T extends readonly [string, ...string[]]>(word: string, options: T, first: NoInfer<T[number]>) =>
  z
    .enum(options)
    .default(first as never)
    .meta({ title: word });

/** With something, or without. */
export const toggle = (word: string, first: boolean) => z.boolean().default(first).meta({ title: word });

/** A trait that means nothing while another has one of some values. */
export const unless = <T extends z.ZodType>(trait: T, key: string, ...is: string[]): T => trait.meta({ ...trait.meta(), unless: { key, is } });

interface Described {
  type?: string;
  title: string;
  default: never;
  enum?: string[];
  minimum?: number;
  maximum?: number;
  unit?: string;
  step?: number;
  unless?: { key: string; is: string[] };
}

const rows = new WeakMap<z.ZodObject, readonly TraitRow[]>();

/** The traits of a maker, in the order it declares them. */
export function traitRows(schema: z.ZodObject): readonly TraitRow[] {
  let own = rows.get(schema);
  if (!own) {
    const { properties = {} } = z.toJSONSchema(schema, { io: 'input' }) as { properties?: Record<string, Described> };
    own = Object.entries(properties).map(([key, { type, title, default: first, enum: options, minimum, maximum, unit, step, unless: other }]): TraitRow => {
      const word = { word: title, ...(other ? { unless: other } : {}) };
      if (options) return { key, ...word, kind: 'choice', options, first };
      if (type === 'boolean') return { key, ...word, kind: 'switch', first };
      return { key, ...word, kind: unit ? 'length' : 'count', min: minimum!, max: maximum!, step: step ?? 1, first };
    });
    rows.set(schema, own);
  }
  return own;
}

const wholes = new WeakMap<z.ZodObject, WeakMap<Traits, Traits>>();

/** All traits of a maker: those that are chosen, and for those left out, or not possible any more, what it begins with. */
export function wholeTraits(schema: z.ZodObject, chosen: Traits): Traits {
  let known = wholes.get(schema);
  if (!known) wholes.set(schema, (known = new WeakMap()));
  let whole = known.get(chosen);
  if (!whole) {
    whole = Object.fromEntries(
      Object.entries(schema.shape).map(([key, type]) => {
        const own = Object.hasOwn(chosen, key) ? (type as z.ZodType).safeParse(chosen[key]) : undefined;
        return [key, own?.success ? own.data : (type as z.ZodType).parse(undefined)];
      }),
    ) as Traits;
    known.set(chosen, whole);
  }
  return whole;
}
