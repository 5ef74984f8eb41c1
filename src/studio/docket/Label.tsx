'use client';
import Box from '@mui/material/Box';
import type { ReactNode } from 'react';
import { createPortal } from 'react-dom';
import { colours, LIFT, SERIF } from '../look/theme';
import { usePlace } from './DocketPlace';

/** The label itself, in its place: a cut corner, an eyelet, a title in the book face. */
export function Label({ title, line, children }: { title: string; line: string; children: ReactNode }) {
  const slot = usePlace((s) => s.slot);
  if (!slot) return null;
  return createPortal(
    <Box
      component="aside"
      data-testid="docket"
      aria-label={`Docket: ${title}`}
      sx={{ width: '100%', minHeight: 0, filter: `drop-shadow(${LIFT.cut})`, display: 'flex' }}
    >
      <Box
        sx={{
          bgcolor: colours.paper,
          border: `1px solid ${colours.firm}`,
          p: '14px 14px 12px',
          width: '100%',
          overflow: 'auto',
          clipPath: 'polygon(16px 0,100% 0,100% 100%,0 100%,0 16px)',
          position: 'relative',
          '&::before': {
            content: '""',
            position: 'absolute',
            left: 12,
            top: 12,
            width: 9,
            height: 9,
            border: `1.5px solid ${colours.third}`,
            borderRadius: '50%',
          },
        }}
      >
        <Box component="h2" sx={{ m: 0, ml: '18px', mr: '22px', font: `20px ${SERIF}`, lineHeight: 1.15, overflowWrap: 'anywhere' }}>
          {title}
        </Box>
        <Box sx={{ ml: '18px', mb: 1, color: colours.third, fontSize: 12 }}>{line}</Box>
        {children}
      </Box>
    </Box>,
    slot,
  );
}
