'use client';
import type { LightShare } from '@/core/light/shares';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Slider from '@mui/material/Slider';
import Switch from '@mui/material/Switch';
import { OFF, type Development, type GroupLight } from '@/core/project/schema';
import { WHITES } from '@/core/light/white';
import { AS_TRACED } from '@/core/render/development';
import { Choice } from '../look/Choice';
import { colours } from '../look/theme';
import { EV, KELVIN, WHITE_OF_DISPLAY } from './Developing';

interface Props {
  value: Development;
  shares: readonly LightShare[];
  /** What is meant, for who hears it. */
  of: string;
  picking: boolean;
  limits: boolean;
  onPick(): void;
  onLimits(on: boolean): void;
  onChange(value: Development): void;
  onSettle(value: Development): void;
}

const signed = (v: number, digits = 1): string => `${v > 0 ? '+' : v < 0 ? '−' : ''}${Math.abs(v).toFixed(digits)}`;

/** All that is set of a picture after rendering: how it is developed, and each of its lights. */
export function DevelopmentColumn({ value, shares, of, picking, limits, onPick, onLimits, onChange, onSettle }: Props) {
  const with_ = (part: Partial<Development>): Development => ({ ...value, ...part });
  const line = (
    name: string,
    text: string,
    range: { min: number; max: number; step: number },
    at: number,
    make: (v: number) => Partial<Development>,
    say = text,
  ) => (
    <Line
      name={name}
      of={of}
      text={text}
      say={say}
      range={range}
      value={at}
      onChange={(v) => onChange(with_(make(v)))}
      onSettle={(v) => onSettle(with_(make(v)))}
    />
  );
  const changed = value.warmth !== 0 || value.contrast !== 0 || value.saturation !== 0 || value.highlights !== 0 || value.lights.length > 0;
  const white = value.white ?? WHITE_OF_DISPLAY;
  return (
    <>
      {line('Exposure', `EV ${value.exposure.toFixed(1)}`, EV, value.exposure, (exposure) => ({ exposure }))}
      {line('White', `${white} K`, KELVIN, white, (k) => ({ white: k }), `${white} kelvin`)}
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1, mb: 0.5 }}>
        <Choice label="of" value={String(white)} options={whites(shares, white)} onChoose={(k) => onSettle(with_({ white: Number(k) }))} />
        <Button size="small" aria-pressed={picking} onClick={onPick} sx={{ ml: 'auto', whiteSpace: 'nowrap' }}>
          Pick a grey
        </Button>
      </Box>
      {line('Warmth', signed(value.warmth * 10), { min: -1, max: 1, step: 0.05 }, value.warmth, (warmth) => ({ warmth }))}
      {line('Contrast', signed(value.contrast * 10), { min: -0.4, max: 0.6, step: 0.02 }, value.contrast, (contrast) => ({ contrast }))}
      {line(
        'Highlights',
        value.highlights === 0 ? 'as they are' : `held ${Math.round(value.highlights * 10)}`,
        { min: 0, max: 1, step: 0.05 },
        value.highlights,
        (highlights) => ({
          highlights,
        }),
      )}
      {line('Saturation', signed(value.saturation * 10), { min: -1, max: 1, step: 0.05 }, value.saturation, (saturation) => ({ saturation }))}
      <Box component="label" sx={{ display: 'flex', alignItems: 'center', justifyContent: 'space-between', mt: 0.5 }}>
        Show what is too light or too dark
        <Switch checked={limits} onChange={(e) => onLimits(e.target.checked)} slotProps={{ input: { 'aria-label': 'Show what is too light or too dark' } }} />
      </Box>
      <Box sx={{ mt: 1, pt: 0.75, borderTop: `1px solid ${colours.hairline}`, color: colours.third }}>Its lights</Box>
      {shares.length < 2 ? (
        <Box sx={{ color: colours.third }}>
          {shares.length ? 'All its light comes from one source.' : 'This picture was kept without its lights apart. Render it again to dim them one by one.'}
        </Box>
      ) : (
        shares.map((share) => (
          <Source
            key={share.name}
            share={share}
            of={of}
            set={value.lights.find((l) => l.name === share.name) ?? { name: share.name, level: 0, kelvin: null }}
            onChange={(set) => onChange(with_({ lights: withLight(value.lights, set) }))}
            onSettle={(set) => onSettle(with_({ lights: withLight(value.lights, set) }))}
          />
        ))
      )}
      {changed ? (
        <Button size="small" sx={{ mt: 0.75 }} onClick={() => onSettle(with_(AS_TRACED))}>
          As it was rendered
        </Button>
      ) : null}
    </>
  );
}

/** Lights whose white a picture can be given: daylight, the display, and its own lamps. */
function whites(shares: readonly LightShare[], now: number): [string, string][] {
  const known = new Map<number, string>([
    [WHITES.day, 'daylight'],
    [WHITE_OF_DISPLAY, 'the display'],
  ]);
  for (const { name, kelvin } of shares) {
    const own = Math.round(kelvin / 10) * 10;
    if (own <= KELVIN.max && !known.has(own) && name.startsWith('Lamps')) known.set(own, name);
  }
  if (!known.has(now)) known.set(now, 'what was set');
  return [...known].map(([k, name]) => [String(k), name]);
}

const withLight = (lights: readonly GroupLight[], set: GroupLight): GroupLight[] => [
  ...lights.filter((l) => l.name !== set.name),
  ...(set.level === 0 && set.kelvin === null ? [] : [set]),
];

/** One source: how bright, and of what colour. */
function Source({
  share: { name, kelvin },
  of,
  set,
  onChange,
  onSettle,
}: {
  share: LightShare;
  of: string;
  set: GroupLight;
  onChange(set: GroupLight): void;
  onSettle(set: GroupLight): void;
}) {
  const own = set.kelvin ?? kelvin;
  const level = (v: number): GroupLight => ({ ...set, level: v });
  const colour = (v: number): GroupLight => ({ ...set, kelvin: Math.abs(v - kelvin) < 75 ? null : v });
  return (
    <Box sx={{ mt: 0.75 }}>
      <Line
        name={name}
        of={of}
        text={set.level <= OFF ? 'off' : set.level === 0 ? 'as lit' : `${signed(set.level)} EV`}
        range={{ min: OFF, max: 4, step: 0.1 }}
        value={set.level}
        onChange={(v) => onChange(level(v))}
        onSettle={(v) => onSettle(level(v))}
      />
      <Line
        name={`Colour of ${name}`}
        shown="its colour"
        of={of}
        text={`${Math.round(own)} K`}
        range={KELVIN}
        value={own}
        onChange={(v) => onChange(colour(v))}
        onSettle={(v) => onSettle(colour(v))}
      />
    </Box>
  );
}

function Line({
  name,
  shown = name,
  of,
  text,
  say = text,
  range,
  value,
  onChange,
  onSettle,
}: {
  name: string;
  shown?: string;
  of: string;
  text: string;
  say?: string;
  range: { min: number; max: number; step: number };
  value: number;
  onChange(v: number): void;
  onSettle(v: number): void;
}) {
  return (
    <Box>
      <Box sx={{ display: 'flex', justifyContent: 'space-between', gap: 1, lineHeight: '18px' }}>
        <Box
          component="span"
          sx={{
            minWidth: 0,
            overflow: 'hidden',
            textOverflow: 'ellipsis',
            whiteSpace: 'nowrap',
            color: shown === name ? undefined : colours.third,
            pl: shown === name ? 0 : 1,
          }}
        >
          {shown}
        </Box>
        <Box component="span" sx={{ whiteSpace: 'nowrap', color: colours.ink }}>
          {text}
        </Box>
      </Box>
      <Slider
        size="small"
        {...range}
        value={value}
        track={false}
        aria-label={`${name}${of}`}
        getAriaValueText={() => say}
        onChange={(_, v) => onChange(v as number)}
        onChangeCommitted={(_, v) => onSettle(v as number)}
        sx={{ py: '7px' }}
      />
    </Box>
  );
}
