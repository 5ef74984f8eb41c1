'use client';
import Skeleton from '@mui/material/Skeleton';

/** Lies over what is still being drawn or fetched, and lets its colour show. Presses go through it: one that began on it would be lost when it goes. */
export const Coming = () => (
  <Skeleton
    data-testid="coming"
    variant="rectangular"
    animation="wave"
    width="100%"
    height="100%"
    sx={{
      position: 'absolute',
      inset: 0,
      bgcolor: 'transparent',
      pointerEvents: 'none',
      '@media (prefers-reduced-motion: reduce)': { '&::after': { animation: 'none' } },
    }}
  />
);
