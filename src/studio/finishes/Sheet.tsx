'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import type { ReactNode } from 'react';
import { useFocusInside } from '../look/focus';
import { PANEL, SERIF } from '../look/theme';
import { useFinishing } from './finishing';

export const close = (): void => useFinishing.setState({ panel: null });

/** A sheet that lies over the table while something is made or compared. */
export function Sheet({ title, width, children, actions }: { title: string; width: number | string; children: ReactNode; actions?: ReactNode }) {
  const inside = useFocusInside<HTMLElement>();
  return (
    <Box
      component="section"
      ref={inside}
      tabIndex={-1}
      role="dialog"
      aria-label={title}
      onKeyDown={(e) => {
        if (e.key === 'Escape') close();
        e.stopPropagation();
      }}
      sx={{
        ...PANEL,
        left: 14,
        top: 34,
        bottom: 14,
        width,
        maxWidth: 'calc(100% - 28px)',
        zIndex: 8,
        p: '14px 16px 12px',
        display: 'flex',
        flexDirection: 'column',
        minHeight: 0,
        fontSize: 12.5,
        outline: 'none',
      }}
    >
      <Box sx={{ display: 'flex', alignItems: 'baseline', gap: 1, mb: 1 }}>
        <Box component="h2" sx={{ m: 0, flex: 1, font: `22px ${SERIF}`, lineHeight: 1.1 }}>
          {title}
        </Box>
        {actions}
        <Button size="small" onClick={close}>
          Close
        </Button>
      </Box>
      <Box sx={{ flex: 1, minHeight: 0, overflow: 'auto' }}>{children}</Box>
    </Box>
  );
}
