import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Body } from '../project/schema';
import { finishLrv, isOpen } from './finish';
import { FINISHES, finishById } from './library';
import { exampleOf, MAKER_NAMES, traitsOf, withTrait, type BodyKind, type Trait } from './makers';
import { makeTexture, textureLrv } from './texture';

const seed = Number(process.env.FC_SEED ?? 9);
const KINDS = Object.keys(MAKER_NAMES) as (keyof typeof MAKER_NAMES)[];

/** Any value a trait takes. */
const valueOf = (trait: Trait): fc.Arbitrary<Trait['value']> => {
  switch (trait.kind) {
    case 'length':
      // What a sane maker is set to: from a tenth to ten times what it comes with.
      return fc.double({ min: Math.max(trait.min, trait.value / 10), max: Math.min(trait.max, Math.max(trait.value * 10, trait.min)), noNaN: true });
    case 'share':
      return fc.double({ min: trait.min, max: trait.max, noNaN: true });
    case 'choice':
      return fc.constantFrom(...trait.options);
    case 'switch':
      return fc.boolean();
    case 'colour':
      return fc.constantFrom('#102030', '#c8d0b0');
    case 'colours':
      return fc.constantFrom(['#102030'], ['#c8d0b0', '#804020', '#ffffff']);
  }
};

describe('makers', () => {
  it('are all named, and each is shown by a finish of the library', () => {
    const kinds = Body.options.map((o) => o.shape.kind.value).filter((k): k is BodyKind => k !== 'image');
    expect([...KINDS].sort()).toEqual([...kinds].sort());
    for (const kind of KINDS) expect(exampleOf(kind)?.kind).toBe(kind);
  });

  it('have as traits all they are made with, but for the ground and pictures', () => {
    expect(traitsOf({ kind: 'timber', cut: 'plain', contrast: 0.4, figure: 0.3, pores: 0.2 })).toEqual([
      { key: 'cut', name: 'cut', kind: 'choice', value: 'plain', options: ['plain', 'quarter', 'burr'] },
      { key: 'contrast', name: 'contrast', kind: 'share', value: 0.4, min: 0, max: 2 },
      { key: 'figure', name: 'figure', kind: 'share', value: 0.3, min: 0, max: 2 },
      { key: 'pores', name: 'pores', kind: 'share', value: 0.2, min: 0, max: 2 },
    ]);
    expect(traitsOf(exampleOf('ribs')!).map((t) => `${t.key} ${t.kind}`)).toEqual([
      'pitch length',
      'gap share',
      'depth length',
      'form choice',
      'grain share',
      'upright switch',
    ]);
    expect(traitsOf({ kind: 'flat' })).toEqual([]);
    for (const { body } of FINISHES) {
      const keys = Object.keys(body).filter((k) => !['kind', 'ground', 'image'].includes(k) && (body as Record<string, unknown>)[k] !== null);
      expect(traitsOf(body).map((t) => t.key)).toEqual(keys);
    }
  });

  it('refuse what their schema does', () => {
    expect(() => withTrait({ kind: 'nap', contrast: 0.2 }, 'contrast', 3)).toThrow();
    expect(() => withTrait({ kind: 'hide', cell: 0.004 }, 'cell', 0)).toThrow();
    expect(withTrait({ kind: 'hide', cell: 0.004 }, 'cell', 0.006)).toEqual({ kind: 'hide', cell: 0.006 });
  });

  it('leave open what lies between wires and in holes, as large as these are', () => {
    const openShare = (id: string): number => {
      const { colour } = makeTexture(finishById(id), 512);
      return colour.reduce((sum, v, i) => sum + (i % 4 === 3 ? 1 - v / 255 : 0), 0) / (colour.length / 4);
    };
    // Wires of 2 mm every 8 mm; holes of 7 mm every 12 mm in rows that stand in the gaps of the last.
    expect(openShare('metal.steel-mesh')).toBeCloseTo((1 - 2 / 8) ** 2, 1);
    expect(openShare('metal.steel-perforated')).toBeCloseTo((Math.PI * 3.5 ** 2) / (12 ** 2 * (Math.sqrt(3) / 2)), 1);
    expect(openShare('metal.iron-black')).toBe(0);
  });

  for (const kind of KINDS)
    it(`draw with whatever traits: ${MAKER_NAMES[kind]} is the same each time, opaque, as bright as declared and of sane heights`, () => {
      const from = FINISHES.find((f) => f.body.kind === kind) ?? finishById('paint.reed');
      fc.assert(
        fc.property(fc.integer({ min: 0, max: 9999 }), fc.tuple(...traitsOf(from.body).map(valueOf)), (figure, values) => {
          const body = traitsOf(from.body).reduce((b, trait, i) => withTrait(b, trait.key, values[i]), from.body);
          const finish = { ...from, body, figure, laying: null };
          const made = makeTexture(finish, 48);
          const { width, height, colour, relief, rough } = made;
          // Only what has wires or holes is open, and nothing is nowhere matter.
          if (!isOpen(finish)) for (let i = 3; i < colour.length; i += 4) expect(colour[i]).toBe(255);
          if (relief) for (const h of relief) expect(h >= 0 && h < 0.5).toBe(true);
          if (rough) expect(rough).toHaveLength(width * height);
          // Prints have the colour they come to; all else comes to the colour it has, within what traits at their bounds clip.
          if (body.kind !== 'motif' && body.kind !== 'stripe') expect(Math.abs(textureLrv(made) - finishLrv(finish))).toBeLessThan(2);
          expect(makeTexture(finish, 48).colour).toEqual(colour);
        }),
        { numRuns: 4, seed },
      );
    });
});
