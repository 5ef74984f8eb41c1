'use client';
import Box from '@mui/material/Box';
import { CaretDownIcon, CaretRightIcon } from '@phosphor-icons/react';
import { useId, type ReactNode } from 'react';
import { useGroups } from '../store/habits';
import { colours } from '../look/theme';

/** Rows of a docket that are changed seldom, folded under a heading; this browser remembers which one has unfolded. */
export function Group({ title, children }: { title: string; children: ReactNode }) {
  const open = useGroups((s) => s.open.includes(title));
  const toggle = useGroups((s) => s.toggle);
  const id = useId();
  return (
    <Box component="section" aria-label={title} sx={{ borderTop: `1px solid ${colours.hairline}`, mt: 0.75 }}>
      <Box
        component="button"
        type="button"
        aria-expanded={open}
        aria-controls={id}
        onClick={() => toggle(title)}
        sx={{
          all: 'unset',
          cursor: 'pointer',
          display: 'flex',
          alignItems: 'center',
          gap: 0.75,
          width: '100%',
          minHeight: 26,
          fontSize: 12.5,
          fontWeight: 550,
          color: colours.second,
          '&:hover': { color: colours.ink },
        }}
      >
        {open ? <CaretDownIcon size={10} /> : <CaretRightIcon size={10} />}
        {title}
      </Box>
      <div id={id} hidden={!open}>
        {open ? children : null}
      </div>
    </Box>
  );
}
