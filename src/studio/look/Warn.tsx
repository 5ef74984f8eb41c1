import { colours } from './theme';

/** The triangle that goes with every warning. */
export const Warn = () => (
  <svg width="11" height="10" viewBox="0 0 11 10" aria-hidden="true">
    <path d="M5.5 0 11 10H0Z" fill={colours.rust} />
  </svg>
);
