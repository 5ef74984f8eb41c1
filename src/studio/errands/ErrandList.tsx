'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { colours } from '../look/theme';
import { leftOf, useErrands } from './errands';

/** Long work under way, in a line of its own: what it is, how far it has come, and a way to stop it. One goes on working meanwhile. */
export function ErrandList() {
  const running = useErrands((s) => s.running);
  const cancel = useErrands((s) => s.cancel);
  if (!running.length) return null;
  return (
    <Box component="ul" aria-label="Work under way" data-testid="errands" sx={{ m: 0, p: 0, listStyle: 'none', display: 'flex', gap: '18px', minWidth: 0 }}>
      {running.map((errand) => (
        <Box component="li" key={errand.id} sx={{ display: 'flex', alignItems: 'center', gap: '4px', minWidth: 0 }}>
          <Box sx={{ minWidth: 0, maxWidth: 330, fontSize: 12.5 }}>
            <Box sx={{ whiteSpace: 'nowrap', overflow: 'hidden', textOverflow: 'ellipsis' }}>
              <strong>{errand.title}</strong>{' '}
              <Box component="span" sx={{ color: colours.third }}>
                {leftOf(errand)}
              </Box>
            </Box>
            <Box
              role="progressbar"
              aria-label={errand.title}
              aria-valuemin={0}
              aria-valuemax={100}
              aria-valuenow={Math.round(errand.share * 100)}
              sx={{ height: '2px', bgcolor: colours.hairline, mt: '3px' }}
            >
              <Box sx={{ height: '100%', width: `${Math.max(2, errand.share * 100)}%`, bgcolor: colours.ink, transition: 'width 160ms' }} />
            </Box>
          </Box>
          <Button variant="text" size="small" aria-label={`Cancel ${errand.title}`} onClick={() => cancel(errand.id)}>
            Cancel
          </Button>
        </Box>
      ))}
    </Box>
  );
}
