'use client';
import Box from '@mui/material/Box';
import Input from '@mui/material/Input';
import { useEffect, useRef, useState, type ReactNode } from 'react';
import { formatLengthExact, parseLength, type UnitSystem } from '@/core/units/length';
import { colours } from './theme';

/** A ruled line of the docket: what it is, its value. */
/** A value with its name; a note stands behind it. */
export function Row({ label, note, children }: { label: string; note?: string; children: ReactNode }) {
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: '84px 1fr', alignItems: 'baseline', minHeight: 24, fontSize: 12.5 }}>
      <Box component="span" sx={{ color: colours.third }}>
        {label}
      </Box>
      <Box
        sx={{
          borderBottom: `1px solid ${colours.hairline}`,
          minWidth: 0,
          display: note ? 'flex' : undefined,
          '& .MuiInput-root': { width: '100%', '&::before, &::after': { display: 'none' } },
        }}
      >
        {typeof children === 'string' ? <Box sx={{ pl: '2px', lineHeight: '23px' }}>{children}</Box> : children}
        {note ? (
          <Box
            component="span"
            sx={{
              color: colours.third,
              maxWidth: '65%',
              lineHeight: '23px',
              flexShrink: 0,
              whiteSpace: 'nowrap',
              overflow: 'hidden',
              textOverflow: 'ellipsis',
            }}
          >
            {note}
          </Box>
        ) : null}
      </Box>
    </Box>
  );
}

interface TextProps {
  label: string;
  value: string;
  onCommit(text: string): boolean | void;
  multiline?: boolean;
}

/** A text that is taken when one leaves it or presses Enter; a refused one goes back to what it was. */
export function TextField({ label, value, onCommit, multiline }: TextProps) {
  const [text, setText] = useState(value);
  const dirty = useRef(false);
  useEffect(() => {
    if (!dirty.current) setText(value);
  }, [value]);
  const commit = (): void => {
    if (!dirty.current) return;
    dirty.current = false;
    if (text === value) return;
    if (onCommit(text) === false) setText(value);
  };
  return (
    <Input
      inputProps={{ 'aria-label': label }}
      value={text}
      multiline={multiline}
      minRows={multiline ? 3 : undefined}
      fullWidth
      onChange={(e) => {
        dirty.current = true;
        setText(e.target.value);
      }}
      onBlur={commit}
      onKeyDown={(e) => {
        e.stopPropagation();
        if (e.key === 'Enter' && !(multiline && e.shiftKey) && !multiline) (e.target as HTMLElement).blur();
        if (e.key === 'Escape') {
          dirty.current = false;
          setText(value);
          (e.target as HTMLElement).blur();
        }
      }}
    />
  );
}

interface LengthProps {
  label: string;
  metres: number;
  units: UnitSystem;
  onCommit(metres: number): boolean | void;
  onRefuse(sentence: string): void;
}

/** A length, typed the way people write it. */
export function LengthField({ label, metres, units, onCommit, onRefuse }: LengthProps) {
  return (
    <TextField
      label={label}
      value={formatLengthExact(metres, units)}
      onCommit={(text) => {
        const parsed = parseLength(text, units);
        if (!parsed.ok) {
          onRefuse(parsed.message);
          return false;
        }
        return onCommit(parsed.metres);
      }}
    />
  );
}

/** A plain number with limits. */
export function NumberField({
  label,
  value,
  min,
  max,
  onCommit,
  onRefuse,
}: {
  label: string;
  value: number;
  min: number;
  max: number;
  onCommit(v: number): boolean | void;
  onRefuse(s: string): void;
}) {
  return (
    <TextField
      label={label}
      value={String(Math.round(value * 100) / 100)}
      onCommit={(text) => {
        const v = Number(text.replace(',', '.').replace('−', '-'));
        if (!text.trim() || !Number.isFinite(v) || v < min || v > max) {
          onRefuse(`“${text}” was not taken: ${label.toLowerCase()} is a number from ${min} to ${max}.`);
          return false;
        }
        return onCommit(v);
      }}
    />
  );
}
