'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { exampleOf, MAKER_NAMES, traitsOf, withTrait, type BodyKind, type Trait } from '@/core/finishes/makers';
import type { Finish } from '@/core/project/schema';
import { useEdit } from '../docket/parts';
import { FieldTable, type Field } from '../look/FieldTable';
import { colours } from '../look/theme';

const MAKERS = Object.entries(MAKER_NAMES);
const title = (name: string): string => name[0].toUpperCase() + name.slice(1);

/** Which maker draws a finish, and its traits: a value the maker does not take is refused with a sentence. */
export function MakerRows({ finish, onSet }: { finish: Finish; onSet(values: Partial<Finish>): void }) {
  const { units, say } = useEdit();
  const { body } = finish;
  const put = (trait: Trait, value: Trait['value']): boolean => {
    try {
      onSet({ body: withTrait(body, trait.key, value) });
      return true;
    } catch {
      say(`The ${trait.name} was not changed: ${String(value)} is not a value it takes.`);
      return false;
    }
  };
  const traits = traitsOf(body);
  const fields = traits.map((trait): Field => {
    const label = title(trait.name);
    const aria = `Maker: ${trait.name}`;
    switch (trait.kind) {
      case 'length':
        // Threads and flecks are finer than lengths of rooms are written.
        return {
          kind: 'number',
          label: `${label}, mm`,
          aria,
          value: Math.round(trait.value * 1e6) / 1e6,
          scale: 1000,
          min: trait.min * 1000,
          max: trait.max * 1000,
          set: (v) => put(trait, v),
        };
      case 'share':
        return {
          kind: 'number',
          label: `${label}, %`,
          aria,
          value: trait.value,
          scale: 100,
          min: trait.min * 100,
          max: trait.max * 100,
          set: (v) => put(trait, v),
        };
      case 'choice':
        return {
          kind: 'choice',
          label,
          aria,
          value: trait.value,
          options: trait.options.map((o) => [o, o.replace('-', ' ')] as const),
          set: (v) => put(trait, v),
        };
      case 'switch':
        return { kind: 'switch', label, aria, value: trait.value, set: (v) => put(trait, v) };
      default:
        return null;
    }
  });
  const dyes = traits.flatMap((trait) =>
    trait.kind === 'colour'
      ? [{ key: trait.key, name: trait.name, value: trait.value, set: (v: string) => put(trait, v) }]
      : trait.kind === 'colours'
        ? trait.value.map((value, i) => ({
            key: `${trait.key} ${i}`,
            name: `${trait.name} ${i + 1}`,
            value,
            set: (v: string) =>
              put(
                trait,
                trait.value.map((c, k) => (k === i ? v : c)),
              ),
          }))
        : [],
  );
  return (
    <Box component="section" aria-label="Maker" sx={{ mt: 1, borderTop: `1px solid ${colours.hairline}`, pt: 0.75 }}>
      <FieldTable
        units={units}
        say={say}
        fields={[
          {
            kind: 'choice',
            label: 'Drawn as',
            value: body.kind,
            options: body.kind === 'image' ? [['image', 'a picture'] as const, ...MAKERS] : MAKERS,
            set: (kind) => {
              const next = exampleOf(kind as BodyKind);
              if (next && kind !== body.kind) onSet({ body: next });
            },
          },
          ...fields,
          body.kind === 'flat' || body.kind === 'image'
            ? null
            : { kind: 'number', label: 'Variation', value: finish.figure, min: 0, max: 9999, set: (figure) => onSet({ figure: Math.round(figure) }) },
        ]}
      />
      {dyes.length ? (
        <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, mt: 0.5, fontSize: 12, color: colours.third }}>
          {dyes.map((dye) => (
            <Box component="label" key={dye.key} sx={{ display: 'flex', gap: 0.5, alignItems: 'center' }}>
              {dye.name}
              <input type="color" value={dye.value} aria-label={`Maker: ${dye.name}`} onChange={(e) => dye.set(e.target.value)} />
            </Box>
          ))}
        </Box>
      ) : null}
      {body.kind === 'flat' || body.kind === 'image' ? null : (
        <Button size="small" onClick={() => onSet({ figure: (finish.figure * 31 + 17) % 10000 })}>
          Another variation
        </Button>
      )}
    </Box>
  );
}
