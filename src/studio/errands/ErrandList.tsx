'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { colours } from '../look/theme';
import { leftOf, useErrands } from './errands';

/** Long work under way: what it is, how far it has come, and a way to stop it. One goes on working meanwhile. */
export function ErrandList() {
  const running = useErrands((s) => s.running);
  const cancel = useErrands((s) => s.cancel);
  if (!running.length) return null;
  return (
    <Box
      component="ul"
      aria-label="Work under way"
      data-testid="errands"
      sx={{
        position: 'fixed',
        right: 14,
        bottom: 14,
        zIndex: 30,
        m: 0,
        p: 0,
        listStyle: 'none',
        width: 300,
        bgcolor: '#fff',
        border: `1px solid ${colours.hairline}`,
        boxShadow: '0 4px 14px #0000001f',
      }}
    >
      {running.map((errand) => (
        <Box component="li" key={errand.id} sx={{ p: '8px 6px 9px 12px', '& + &': { borderTop: `1px solid ${colours.hairline}` } }}>
          <Box sx={{ display: 'flex', alignItems: 'baseline', gap: 1 }}>
            <Box sx={{ flex: 1, fontWeight: 550 }}>{errand.title}</Box>
            <Button variant="text" size="small" aria-label={`Cancel ${errand.title}`} onClick={() => cancel(errand.id)}>
              Cancel
            </Button>
          </Box>
          <Box
            role="progressbar"
            aria-label={errand.title}
            aria-valuemin={0}
            aria-valuemax={100}
            aria-valuenow={Math.round(errand.share * 100)}
            sx={{ height: '3px', bgcolor: colours.hairline, mr: '6px', mt: '2px' }}
          >
            <Box sx={{ height: '100%', width: `${Math.max(2, errand.share * 100)}%`, bgcolor: colours.ink, transition: 'width 160ms' }} />
          </Box>
          <Box sx={{ fontSize: 12, color: colours.third, mt: '5px' }}>{leftOf(errand)}</Box>
        </Box>
      ))}
    </Box>
  );
}
