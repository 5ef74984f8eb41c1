'use client';
import Box from '@mui/material/Box';
import Slider from '@mui/material/Slider';
import { colours } from '../look/theme';

/** From a room by starlight to snow in the sun, EV; from candles to a blue sky, K. */
export const EV = { min: -8, max: 17, step: 0.1 } as const;
export const KELVIN = { min: 2000, max: 10000, step: 50 } as const;

export interface Development {
  exposure: number;
  /** Colour temperature shown as white, K; null: that of the display. */
  white: number | null;
}

/** Of the display: what a picture without a white of its own is shown with. */
export const WHITE_OF_DISPLAY = 6500;

/** How a picture’s light is shown: exposure and white, changed without rendering again. @param of what is meant, for who hears it */
export function Developing({
  value: { exposure, white },
  of,
  onChange,
  onSettle,
}: {
  value: Development;
  of: string;
  onChange(value: Development): void;
  onSettle?(value: Development): void;
}) {
  const word = (name: string): string => `${name}${of}`;
  return (
    <>
      Exposure
      <Slider
        size="small"
        {...EV}
        value={exposure}
        track={false}
        aria-label={word('Exposure')}
        onChange={(_, v) => onChange({ exposure: v as number, white })}
        onChangeCommitted={(_, v) => onSettle?.({ exposure: v as number, white })}
        sx={{ width: 96, flex: 'none' }}
      />
      <Box sx={{ width: 52, whiteSpace: 'nowrap', color: colours.second }}>EV {exposure.toFixed(1)}</Box>
      White
      <Slider
        size="small"
        {...KELVIN}
        value={white ?? WHITE_OF_DISPLAY}
        track={false}
        aria-label={word('White')}
        getAriaValueText={(v) => `${v} kelvin`}
        onChange={(_, v) => onChange({ exposure, white: v as number })}
        onChangeCommitted={(_, v) => onSettle?.({ exposure, white: v as number })}
        sx={{ width: 80, flex: 'none' }}
      />
      <Box sx={{ width: 48, whiteSpace: 'nowrap', color: colours.second }}>{white ?? WHITE_OF_DISPLAY} K</Box>
    </>
  );
}
