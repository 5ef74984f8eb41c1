'use client';
import type { TraitRow, Traits } from '@/core/stock/traits';
import { formatLength } from '@/core/units/length';
import { FieldTable, type Field } from '../look/FieldTable';
import { useEdit } from './parts';

/** What something is of all that its maker makes. */
export function TraitRows({
  name,
  traits,
  rows,
  whole,
  set: change,
}: {
  name: string;
  /** What was chosen, and that with what the maker begins with. */
  traits: Traits;
  whole: Traits;
  rows: readonly TraitRow[];
  set(traits: Record<string, Traits[string]>): boolean;
}) {
  const { units, say } = useEdit();
  const put = (key: string, value: Traits[string]): boolean => change({ ...traits, [key]: value });
  const fields = rows.map((row): Field => {
    const { key, word: label } = row;
    if (row.unless?.is.includes(whole[row.unless.key] as string)) return null;
    const value = whole[key];
    const set = (v: Traits[string]): boolean => put(key, v);
    switch (row.kind) {
      case 'length':
        return {
          kind: 'length',
          label,
          value: value as number,
          set(v) {
            if (v >= row.min - 1e-9 && v <= row.max + 1e-9) return put(key, Math.min(row.max, Math.max(row.min, v)));
            say(`${name} was not changed: its ${label.toLowerCase()} goes from ${formatLength(row.min, units)} to ${formatLength(row.max, units)}.`);
            return false;
          },
        };
      case 'count':
        return { kind: 'number', label, value: value as number, min: row.min, max: row.max, set: (v) => put(key, Math.round(v)) };
      case 'choice':
        return { kind: 'choice', label, value: value as string, options: row.options.map((o) => [o, o] as const), set };
      case 'switch':
        return { kind: 'switch', label, value: value as boolean, set };
    }
  });
  return <FieldTable units={units} say={say} fields={fields} />;
}
