'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { colours, PANEL } from './look/theme';
import { Warn } from './look/Warn';
import { letAsideGo, retryAside, useStudio } from './store/studio';

/** Edits that were refused after they were shown: each with its reason, to be tried again or let go. */
export function Asides() {
  const aside = useStudio((s) => s.sync.aside);
  if (!aside.length) return null;
  return (
    <Box
      component="section"
      role="alert"
      aria-label="Edits set aside"
      data-testid="asides"
      sx={{
        ...PANEL,
        left: 12,
        bottom: 12,
        zIndex: 20,
        width: 400,
        maxHeight: 260,
        overflow: 'auto',
        border: `1px solid ${colours.rust}`,
        borderRadius: '2px',
        p: '8px 12px 6px',
        fontSize: 12.5,
      }}
    >
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1, fontWeight: 550 }}>
        <Warn /> {aside.length === 1 ? 'One edit is set aside' : `${aside.length} edits are set aside`}; everything else is kept
      </Box>
      <Box component="ul" sx={{ listStyle: 'none', m: '4px 0 0', p: 0 }}>
        {aside.map(({ change, title, message }) => (
          <Box component="li" key={change.id} sx={{ py: '5px', borderTop: `1px solid ${colours.hairline}` }}>
            <strong>{title}.</strong> {message}
            <Box sx={{ display: 'flex', gap: 0.5, ml: '-6px' }}>
              <Button variant="text" size="small" onClick={() => retryAside(change.id)}>
                Try again
              </Button>
              <Button variant="text" size="small" onClick={() => letAsideGo(change.id)}>
                Let it go
              </Button>
            </Box>
          </Box>
        ))}
      </Box>
    </Box>
  );
}
