'use client';
import { INKS, MARKED } from '@/core/drawing/inks';
import { createTheme } from '@mui/material/styles';

/** The colours of the chrome: none of them has chroma but the accent and the measuring ink. What drawings have too is theirs. */
export const colours = {
  page: '#EDEDEB',
  panel: INKS.bare,
  strip: '#F1F1EF',
  /** What a picture or a page lies on. */
  table: '#E5E5E2',
  /** Material that is cut through, in small drawings. */
  section: '#E9E6E1',
  paper: INKS.paper,
  hairline: '#D5D5D2',
  firm: '#C6C6C2',
  ink: INKS.line,
  second: '#5D5E5B',
  third: MARKED.quiet,
  damson: MARKED.chosen,
  damsonTint: MARKED.chosenRoom,
  damsonWash: MARKED.chosenThing,
  teal: INKS.measure,
  tealTint: '#E4EFEF',
  tealLine: '#BFD6D6',
  faint: INKS.faint,
  /** Over a drawing: what lies under it shows through. */
  veil: '#F7F7F5E4',
  /** Round a swatch, so that a pale one has an edge. */
  edge: '#00000026',
  rust: '#A0561B',
} as const;

/** What is too light or too dark in a picture is marked with, as it is written into its pixels. */
export const LIMIT_MARKS = { over: [0xa0, 0x56, 0x1b], under: [0x4f, 0x8f, 0x93] } as const;

/** Shadows of what lies on the table; `cut`: of what is cut out of a square. */
export const LIFT = { square: '0 6px 18px #0000001c', cut: '0 6px 9px #0000001c' } as const;

/** What is read out and not shown. */
export const UNSEEN = { position: 'absolute', width: 1, height: 1, overflow: 'hidden', clipPath: 'inset(50%)', whiteSpace: 'nowrap' } as const;

/** What lies on the table: a panel over it, or a notice. */
export const PANEL = { position: 'absolute', bgcolor: colours.paper, border: `1px solid ${colours.firm}`, boxShadow: LIFT.square } as const;

export const SANS = "'Instrument Sans Variable', 'Instrument Sans', sans-serif";
export const SERIF = "'Instrument Serif', serif";

export const theme = createTheme({
  palette: {
    mode: 'light',
    primary: { main: colours.damson, contrastText: colours.paper },
    secondary: { main: colours.teal },
    warning: { main: colours.rust },
    text: { primary: colours.ink, secondary: colours.second },
    background: { default: colours.page, paper: colours.paper },
    divider: colours.hairline,
  },
  shape: { borderRadius: 3 },
  typography: {
    fontFamily: SANS,
    fontSize: 12.5,
    body1: { fontSize: 13, lineHeight: 1.35 },
    body2: { fontSize: 12.5, lineHeight: 1.35 },
    h1: { fontFamily: SERIF, fontSize: 23, fontWeight: 400, letterSpacing: 0.1 },
    h2: { fontFamily: SERIF, fontSize: 20, fontWeight: 400 },
    button: { textTransform: 'none', fontSize: 13, fontWeight: 550, letterSpacing: 0 },
  },
  transitions: { duration: { shortest: 90, shorter: 120, short: 140, standard: 160, complex: 200, enteringScreen: 160, leavingScreen: 120 } },
  components: {
    MuiCssBaseline: {
      styleOverrides: {
        html: { height: '100%' },
        body: { height: '100%', fontStretch: '88%', fontVariantNumeric: 'tabular-nums', overscrollBehavior: 'none' },
        // Whatever a key can reach shows it; a panel that has just opened shows itself by being there.
        '*:focus-visible:not([tabindex="-1"], input, textarea)': { outline: `2px solid ${colours.damson} !important`, outlineOffset: '-1px' },
        // Figures the drawing shows anyway keep their arrows for when one is at them.
        '.quiet-figure input:focus': { background: `${colours.paper} !important`, color: `${colours.teal} !important` },
        '.quiet-figure .gives-way': { opacity: 0 },
        '.quiet-figure:hover .gives-way, .quiet-figure:focus-within .gives-way': { opacity: 1 },
        '@media (prefers-reduced-motion: reduce)': { '*': { transition: 'none !important', animation: 'none !important' } },
      },
    },
    MuiButtonBase: { defaultProps: { disableRipple: true } },
    MuiButton: {
      defaultProps: { disableElevation: true, variant: 'outlined', color: 'inherit' },
      styleOverrides: {
        root: {
          minWidth: 0,
          padding: '3px 12px',
          lineHeight: 1.4,
          borderColor: colours.ink,
          backgroundColor: colours.paper,
          '&:hover': { backgroundColor: colours.strip },
        },
      },
      variants: [
        {
          props: { variant: 'contained' },
          style: { backgroundColor: colours.damson, color: colours.paper, border: `1px solid ${colours.damson}`, '&:hover': { backgroundColor: '#651F3D' } },
        },
        { props: { variant: 'text' }, style: { borderColor: 'transparent', backgroundColor: 'transparent', color: colours.second, padding: '3px 6px' } },
      ],
    },
    MuiIconButton: { styleOverrides: { root: { borderRadius: 3, padding: 4, color: colours.second } } },
    MuiPaper: { styleOverrides: { root: { backgroundImage: 'none' } } },
    MuiTooltip: {
      // It never lies in the way of the next press.
      defaultProps: { disableInteractive: true, enterDelay: 500, enterNextDelay: 500 },
      styleOverrides: { tooltip: { backgroundColor: colours.ink, fontSize: 12, borderRadius: 2 } },
    },
    MuiInputBase: { styleOverrides: { root: { fontSize: 12.5 }, input: { padding: '1px 2px', height: 'auto' } } },
    MuiInput: {
      styleOverrides: {
        root: {
          '&::before': { borderBottomColor: colours.hairline },
          '&:hover:not(.Mui-disabled)::before': { borderBottom: `1px solid ${colours.third}` },
          '&::after': { borderBottomColor: colours.damson, borderBottomWidth: 1 },
        },
      },
    },
    MuiSelect: {
      defaultProps: { variant: 'standard' },
      styleOverrides: { select: { padding: '1px 20px 1px 2px !important', minHeight: '0 !important', '&:focus': { backgroundColor: 'transparent' } } },
    },
    MuiMenuItem: {
      styleOverrides: { root: { fontSize: 12.5, minHeight: 28, paddingTop: 3, paddingBottom: 3, '&.Mui-selected': { backgroundColor: colours.damsonTint } } },
    },
    // A list that is still closing would swallow the next press.
    MuiMenu: { defaultProps: { transitionDuration: 0 }, styleOverrides: { paper: { border: `1px solid ${colours.firm}`, boxShadow: PANEL.boxShadow } } },
    MuiDialog: { styleOverrides: { paper: { border: `1px solid ${colours.firm}`, boxShadow: '0 12px 40px #0000002e', borderRadius: 2 } } },
    MuiSlider: {
      styleOverrides: {
        root: { height: 2, padding: '9px 0', color: colours.ink },
        thumb: {
          width: 9,
          height: 15,
          borderRadius: 2,
          backgroundColor: colours.paper,
          border: `1px solid ${colours.ink}`,
          '&:hover, &.Mui-active, &.Mui-focusVisible': { boxShadow: `0 0 0 3px ${colours.damsonTint}` },
        },
        rail: { backgroundColor: colours.firm, opacity: 1 },
      },
    },
    MuiSwitch: {
      styleOverrides: {
        root: { width: 30, height: 16, padding: 0 },
        switchBase: {
          padding: 2,
          '&.Mui-checked': { transform: 'translateX(14px)', color: colours.paper, '& + .MuiSwitch-track': { backgroundColor: colours.damson, opacity: 1 } },
        },
        thumb: { width: 12, height: 12, borderRadius: 2, boxShadow: 'none' },
        track: { borderRadius: 3, backgroundColor: colours.third, opacity: 1 },
      },
    },
    MuiTableCell: {
      styleOverrides: { root: { padding: '5px 10px', fontSize: 12.5, borderColor: colours.hairline }, head: { color: colours.second, fontWeight: 550 } },
    },
  },
});
