'use client';
import Switch from '@mui/material/Switch';
import type { ReactNode } from 'react';
import { formatLength, parseLength, type UnitSystem } from '@/core/units/length';
import { Choice } from './Choice';
import { LengthField, NumberField, Row, TextField } from './fields';

const DEGREES = 180 / Math.PI;

type Value = string | number | boolean | null;

interface Of<V> {
  label: string;
  /** What a reader of the screen hears, where the label alone would be unclear. */
  aria?: string;
  value: V;
  set(value: V): boolean | void;
}

/** One line of a docket: what kind of value it is decides how it is edited. */
export type Field =
  | ({ kind: 'text' } & Of<string>)
  | ({ kind: 'length' } & Of<number>)
  /** A length that follows from rules while it is null; `auto` is what they give. */
  | ({ kind: 'length?'; auto: string } & Of<number | null>)
  | ({ kind: 'number'; min: number; max: number; scale?: number } & Of<number>)
  | ({ kind: 'number?'; auto: string; min: number; max: number } & Of<number | null>)
  | ({ kind: 'angle'; min?: number; max?: number } & Of<number>)
  | ({ kind: 'switch' } & Of<boolean>)
  | ({ kind: 'choice'; options: readonly (readonly [string, string])[] } & Of<string>)
  | { kind: 'fact'; label: string; value: ReactNode }
  | false
  | null;

/** A value that rules give until one is typed: in brackets while it is theirs; cleared, it is theirs again. */
function Given({ label, aria, text, auto, onText }: { label: string; aria: string; text: string | null; auto: string; onText(text: string): boolean }) {
  return (
    <Row label={label}>
      <TextField label={aria} value={text ?? `(${auto})`} onCommit={(t) => onText(t.trim())} />
    </Row>
  );
}

/** The lines of a docket. */
export function FieldTable({ fields, units, say }: { fields: readonly Field[]; units: UnitSystem; say(text: string): void }) {
  return (
    <>
      {fields.map((f) => {
        if (!f) return null;
        if (f.kind === 'fact')
          return (
            <Row key={f.label} label={f.label}>
              {f.value}
            </Row>
          );
        const aria = f.aria ?? f.label;
        const key = aria;
        const taken = (v: Value, set: (v: never) => boolean | void): boolean => set(v as never) !== false;
        switch (f.kind) {
          case 'text':
            return (
              <Row key={key} label={f.label}>
                <TextField label={aria} value={f.value} onCommit={f.set} />
              </Row>
            );
          case 'length':
            return (
              <Row key={key} label={f.label}>
                <LengthField label={aria} metres={f.value} units={units} onRefuse={say} onCommit={(v) => taken(v, f.set)} />
              </Row>
            );
          case 'length?':
            return (
              <Given
                key={key}
                label={f.label}
                aria={aria}
                auto={f.auto}
                text={f.value === null ? null : formatLength(f.value, units)}
                onText={(text) => {
                  if (text === '' || text.startsWith('(')) return taken(null, f.set);
                  const parsed = parseLength(text, units);
                  if (parsed.ok) return taken(parsed.metres, f.set);
                  say(parsed.message);
                  return false;
                }}
              />
            );
          case 'number':
            return (
              <Row key={key} label={f.label}>
                <NumberField
                  label={aria}
                  value={f.value * (f.scale ?? 1)}
                  min={f.min}
                  max={f.max}
                  onRefuse={say}
                  onCommit={(v) => taken(v / (f.scale ?? 1), f.set)}
                />
              </Row>
            );
          case 'number?':
            return (
              <Given
                key={key}
                label={f.label}
                aria={aria}
                auto={f.auto}
                text={f.value === null ? null : String(f.value)}
                onText={(text) => {
                  if (text === '' || text.startsWith('(')) return taken(null, f.set);
                  const n = Number(text);
                  if (Number.isInteger(n) && n >= f.min && n <= f.max) return taken(n, f.set);
                  say(`“${text}” was not taken: ${f.label.toLowerCase()} is a whole number from ${f.min} to ${f.max}, or nothing to leave it to the rules.`);
                  return false;
                }}
              />
            );
          case 'angle':
            return (
              <Row key={key} label={f.label}>
                <NumberField
                  label={aria}
                  value={Math.round(f.value * DEGREES * 1000) / 1000}
                  min={f.min ?? -360}
                  max={f.max ?? 360}
                  onRefuse={say}
                  onCommit={(v) => taken(v / DEGREES, f.set)}
                />
              </Row>
            );
          case 'switch':
            return (
              <Row key={key} label={f.label}>
                <Switch checked={f.value} slotProps={{ input: { 'aria-label': aria } }} onChange={(e) => void f.set(e.target.checked)} />
              </Row>
            );
          case 'choice':
            return (
              <Row key={key} label={f.label}>
                <Choice bare label={aria} value={f.value} options={f.options} onChoose={(v) => void f.set(v)} />
              </Row>
            );
        }
      })}
    </>
  );
}
