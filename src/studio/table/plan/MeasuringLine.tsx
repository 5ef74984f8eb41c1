'use client';
import Box from '@mui/material/Box';
import { useEffect, useRef } from 'react';
import { formatLength } from '@/core/units/length';
import { colours } from '../../look/theme';
import { useStudio } from '../../store/studio';
import * as tools from '../../tools/controller';

/** One line while something is drawn or moved: its values, what it snapped to, and what is typed. */
export function MeasuringLine() {
  const measure = useStudio((s) => s.measure);
  const units = useStudio((s) => s.project.units);
  const input = useRef<HTMLInputElement>(null);
  const typing = measure?.typed !== null && measure?.typed !== undefined;
  const field = measure?.field;
  useEffect(() => {
    if (typing) input.current?.focus();
  }, [typing, field]);
  if (!measure || (!measure.fields.length && !measure.note)) return null;
  return (
    <Box
      data-testid="measuring-line"
      role="status"
      sx={{
        position: 'absolute',
        left: 14,
        bottom: 12,
        zIndex: 5,
        display: 'flex',
        bgcolor: colours.paper,
        border: `1px solid ${colours.teal}`,
        borderRadius: '2px',
        color: colours.teal,
        fontSize: 12,
        maxWidth: 'calc(100% - 28px)',
      }}
    >
      {measure.fields.map((f, i) => (
        <Box key={f.label} sx={{ display: 'flex', borderRight: `1px solid ${colours.tealLine}` }}>
          {typing && i === measure.field ? (
            <input
              ref={input}
              aria-label={f.label}
              value={measure.typed ?? ''}
              onChange={(e) => tools.type(e.target.value)}
              onKeyDown={(e) => {
                e.stopPropagation();
                if (e.key === 'Enter') tools.enter();
                else if (e.key === 'Tab' && measure.fields.length > 1) {
                  e.preventDefault();
                  tools.nextField();
                } else if (e.key === 'Escape') tools.type(null);
              }}
              style={{
                width: 104,
                border: 0,
                padding: '4px 10px',
                background: colours.teal,
                color: colours.paper,
                font: 'inherit',
                fontWeight: 600,
                outlineOffset: -2,
              }}
            />
          ) : (
            <Box sx={{ bgcolor: colours.teal, color: colours.paper, fontWeight: 600, px: 1.25, py: 0.5 }}>{formatLength(f.value, units)}</Box>
          )}
          <Box sx={{ px: 1.25, py: 0.5 }}>{f.label}</Box>
        </Box>
      ))}
      {measure.note ? <Box sx={{ px: 1.25, py: 0.5, color: colours.second }}>{measure.note}</Box> : null}
    </Box>
  );
}
