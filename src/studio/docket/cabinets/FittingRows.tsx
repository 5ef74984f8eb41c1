'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useMemo } from 'react';
import { fittingsIn } from '@/core/cabinetry/assemble';
import { addable, exchangeable, exchanged } from '@/core/cabinetry/exchange';
import { cardOf } from '@/core/cabinetry/fittings';
import { derivedOf } from '@/core/model/model';
import type { Cabinet } from '@/core/project/schema';
import { CARDS } from '@/core/stock/stock';
import { traitRows } from '@/core/stock/traits';
import { Row } from '../../look/fields';
import { colours } from '../../look/theme';
import { useStudio } from '../../store/studio';
import { CardField } from '../CardField';
import { useEdit } from '../parts';
import { TraitRows } from '../TraitRows';

const capital = (word: string): string => `${word[0].toUpperCase()}${word.slice(1)}`;

/** What is built into a unit: exchanged for another of the stock, chosen in what it can be, taken out, added to. */
export function FittingRows({ unit }: { unit: Cabinet }) {
  const model = useStudio((s) => s.model);
  const { units: system, run: edit, say } = useEdit();
  const derived = derivedOf(model, 'runs').find((r) => r.id === unit.run);
  const own = derived?.units.find((u) => u.unit.id === unit.id);
  const more = useMemo(() => addable(CARDS, unit), [unit]);
  if (!derived || !own) return null;
  const placed = fittingsIn(own, derived.run.made);
  if (!placed.length && !more.length) return null;
  const all = derived.units.map((u) => u.unit);
  const put = (index: number, card: string): boolean => {
    const next = exchanged(derived.run, all, derived.legs, unit.id, index, card, system);
    if (typeof next === 'string') {
      say(`Nothing was exchanged. ${next}`);
      return false;
    }
    return edit('run.lay', { run: derived.run, units: next });
  };
  const set = (index: number, values: Partial<Cabinet['fittings'][number]>): boolean =>
    edit('unit.put', { ...unit, fittings: unit.fittings.map((f, i) => (i === index ? { ...f, ...values } : f)) });
  return (
    <Box component="section" aria-label="Built in" sx={{ borderTop: `1px solid ${colours.hairline}`, mt: 0.75, pt: 0.25 }}>
      {placed.map((p) => {
        const index = unit.fittings.indexOf(p.fitting);
        const { item, built, traits } = p;
        const how = built.how(traits);
        const label = capital(built.word);
        return (
          <div key={`${index} ${item.id}`}>
            <Row label={label}>
              <CardField label={label} options={exchangeable(CARDS, how)} value={cardOf(p)} placeholder="" onChoose={(card) => card && put(index, card.id)} />
            </Row>
            {item.traits ? (
              <TraitRows name={item.name} traits={p.fitting.traits} rows={traitRows(item.traits)} whole={traits} set={(t) => set(index, { traits: t })} />
            ) : null}
            <Button size="small" sx={{ my: 0.5 }} onClick={() => edit('unit.put', { ...unit, fittings: unit.fittings.filter((_, i) => i !== index) })}>
              Take out {built.word}
            </Button>
          </div>
        );
      })}
      {more.length ? (
        <Row label="Build in">
          <CardField
            label="Build in"
            options={more}
            value={null}
            placeholder="an appliance, a sink"
            onChoose={(card) => card && put(unit.fittings.length, card.id)}
          />
        </Row>
      ) : null}
    </Box>
  );
}
