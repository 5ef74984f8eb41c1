'use client';
import { TextField } from './fields';

const mm = (v: number): number => Math.round(v * 1e5) / 100;

/** Rows of lengths typed in millimetres, a line a row, none below nought: `rows` and what is given on are in metres. */
export function LengthRows(props: {
  label: string;
  rows: readonly (readonly number[])[];
  /** Whether rows of these numbers of values will do; else `wrong` is said and nothing is set. */
  fits(counts: readonly number[]): boolean;
  wrong: string;
  say(text: string): void;
  onSet(rows: number[][]): boolean;
}) {
  return (
    <TextField
      label={props.label}
      multiline
      value={props.rows.map((row) => row.map(mm).join(' ')).join('\n')}
      onCommit={(text) => {
        const rows = text
          .trim()
          .split('\n')
          .map((line) =>
            line
              .trim()
              .split(/[\s,;]+/)
              .map((word) => Number(word) / 1000),
          );
        if (!props.fits(rows.map((row) => row.length)) || rows.flat().some((v) => !Number.isFinite(v) || v < 0)) {
          props.say(props.wrong);
          return false;
        }
        return props.onSet(rows);
      }}
    />
  );
}
