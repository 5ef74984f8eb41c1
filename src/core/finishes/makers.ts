import { z } from 'zod';
import { Body, Colour, MakerLength, MakerRelief, MakerShare } from '../project/schema';
import { FINISHES } from './library';

export type BodyKind = Body['kind'];

/** What makers are called, the plain ones first. A picture is no maker: it is taken from a file. */
export const MAKER_NAMES: Record<Exclude<BodyKind, 'image'>, string> = {
  flat: 'one even colour',
  timber: 'timber',
  boards: 'weatherboard or logs',
  ribs: 'ribs, flutes or slats',
  cork: 'cork',
  mottle: 'plaster or wash',
  concrete: 'concrete',
  stipple: 'stippled coat',
  comb: 'combed coat',
  glaze: 'glazed tile',
  ceramic: 'unglazed tile',
  brick: 'brick',
  rock: 'layered stone',
  rubble: 'rubble',
  veins: 'veined marble',
  granite: 'granite',
  terrazzo: 'terrazzo',
  motif: 'printed motif',
  stripe: 'stripe',
  grasscloth: 'grasscloth',
  weave: 'woven cloth',
  boucle: 'looped yarn',
  nap: 'velvet or suede',
  hide: 'leather',
  pile: 'carpet pile',
  marbled: 'linoleum',
  studs: 'studded rubber',
  brushed: 'brushed metal',
  hammered: 'hammered metal',
  perforated: 'perforated metal',
  mesh: 'woven metal',
  seam: 'standing seam',
  thatch: 'thatch',
  blades: 'grass',
  pebbles: 'gravel',
  sand: 'sand',
  water: 'water',
};

const TRAIT_NAMES: Record<string, string> = {
  cell: 'grain size',
  chip: 'chip size',
  chips: 'chips',
  flecks: 'flecks',
  second: 'second colour',
  third: 'third colour',
  thread: 'thread',
  vein: 'vein colour',
  joints: 'joint colour',
  board: 'board marks',
  pool: 'pooling',
  upright: 'upright',
};

/** One trait of a maker that may be changed, and how: lengths in metres. */
export type Trait = { key: string; name: string } & (
  | { kind: 'length' | 'share'; value: number; min: number; max: number }
  | { kind: 'choice'; value: string; options: readonly string[] }
  | { kind: 'switch'; value: boolean }
  | { kind: 'colour'; value: string }
  | { kind: 'colours'; value: readonly string[] }
);

/** The traits of a maker, read from the schema it is checked by. Its ground colour is the colour of the finish and none of them. */
export function traitsOf(body: Body): Trait[] {
  const shape = Body.options.find((o) => o.shape.kind.value === body.kind)!.shape as Record<string, z.ZodType>;
  const values = body as unknown as Record<string, unknown>;
  return Object.keys(shape).flatMap((key): Trait[] => {
    if (key === 'kind' || key === 'ground' || key === 'image') return [];
    const named = { key, name: TRAIT_NAMES[key] ?? key };
    const type = shape[key];
    const value = values[key];
    if (type === MakerShare) return [{ ...named, kind: 'share', value: value as number, min: 0, max: 2 }];
    if (type === MakerLength) return [{ ...named, kind: 'length', value: value as number, min: 0.0001, max: 20 }];
    if (type === MakerRelief) return [{ ...named, kind: 'length', value: value as number, min: 0, max: 0.2 }];
    if (type instanceof z.ZodNumber) {
      // Shares and lengths with bounds of their own: a gap is a share of the pitch, the others are lengths.
      return [{ ...named, kind: key === 'gap' ? 'share' : 'length', value: value as number, min: type.minValue ?? 0, max: type.maxValue ?? 20 }];
    }
    if (type instanceof z.ZodEnum) return [{ ...named, kind: 'choice', value: value as string, options: type.options as string[] }];
    if (type instanceof z.ZodBoolean) return [{ ...named, kind: 'switch', value: value as boolean }];
    if (type === Colour) return [{ ...named, kind: 'colour', value: value as string }];
    if (type instanceof z.ZodArray) return [{ ...named, kind: 'colours', value: value as string[] }];
    // A colour that may be left out shows once there is one.
    return typeof value === 'string' ? [{ ...named, kind: 'colour', value }] : [];
  });
}

/** A body by a maker, as the first finish of the library that has it comes; null where none has. */
export const exampleOf = (kind: BodyKind): Body | null => FINISHES.find((f) => f.body.kind === kind)?.body ?? (kind === 'flat' ? { kind } : null);

/** The body with one trait changed. @throws ZodError where the maker does not take the value */
export const withTrait = (body: Body, key: string, value: Trait['value']): Body => Body.parse({ ...body, [key]: value });
