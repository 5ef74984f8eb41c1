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
        <Line key={errand.id} title={errand.title} at={leftOf(errand)} share={errand.share} stop="Cancel" onStop={() => cancel(errand.id)} />
      ))}
    </Box>
  );
}

/** One piece of work: its name, how far it is, and what can be done with it. */
export function Line({ title, at, share, stop, onStop }: { title: string; at: string; share: number; stop: string; onStop(): void }) {
  return (
    <Box component="li" sx={{ display: 'flex', alignItems: 'center', gap: '4px', minWidth: 0 }}>
      <Box sx={{ minWidth: 0, maxWidth: 330, fontSize: 12.5 }}>
        <Box sx={{ whiteSpace: 'nowrap', overflow: 'hidden', textOverflow: 'ellipsis' }}>
          <strong>{title}</strong>{' '}
          <Box component="span" sx={{ color: colours.third }}>
            {at}
          </Box>
        </Box>
        <Box
          role="progressbar"
          aria-label={title}
          aria-valuemin={0}
          aria-valuemax={100}
          aria-valuenow={Math.round(share * 100)}
          sx={{ height: '2px', bgcolor: colours.hairline, mt: '3px' }}
        >
          <Box sx={{ height: '100%', width: `${Math.max(2, share * 100)}%`, bgcolor: colours.ink, transition: 'width 160ms' }} />
        </Box>
      </Box>
      <Button variant="text" size="small" aria-label={`${stop} ${title}`} onClick={onStop}>
        {stop}
      </Button>
    </Box>
  );
}
