'use client';
import '@fontsource-variable/instrument-sans/standard.css';
import '@fontsource/instrument-serif/400.css';
import CssBaseline from '@mui/material/CssBaseline';
import { ThemeProvider } from '@mui/material/styles';
import { AppRouterCacheProvider } from '@mui/material-nextjs/v16-appRouter';
import type { ReactNode } from 'react';
import { colours, theme } from './theme';

/** Type, colour and density of every page. */
export function Look({ nonce, children }: { nonce?: string; children: ReactNode }) {
  return (
    <AppRouterCacheProvider options={{ key: 'en', nonce }}>
      <ThemeProvider theme={theme}>
        <CssBaseline />
        {children}
      </ThemeProvider>
    </AppRouterCacheProvider>
  );
}

/** The mark: a nine-sided plan whose last wall is a door standing open. */
export function Mark({ size = 40 }: { size?: number }) {
  return (
    <svg width={size} height={size} viewBox="0 0 40 40" fill="none" stroke={colours.ink} strokeWidth="2.6" role="img" aria-label="Enstegon">
      <path d="M30.4 31.5 20 37 8.6 31.2 4 19.2 8.4 8.4 20 3l11.6 5.4L36 19.4" />
      <path d="M36 19.4 24.3 24.4" stroke={colours.damson} />
      <path d="M24.3 24.4A12.7 12.7 0 0 0 30.4 31.5" stroke={colours.damson} strokeWidth="1.1" />
    </svg>
  );
}
