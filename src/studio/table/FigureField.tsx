'use client';
import { formatLength, formatLengthExact, parseLength, parseSize } from '@/core/units/length';
import { colours } from '../look/theme';
import { useStudio } from '../store/studio';

/** A rim of paper round a figure. */
const RIM = [-2, -1, 0, 1, 2].flatMap((x) => [-2, -1, 0, 1, 2].map((y) => `${x}px ${y}px 1px ${colours.paper}`)).join(',');

/** How wide a figure is shown, pixels. */
export const figureWidth = (text: string): number => 8 + text.length * 6.3;

/** A figure of a dimension that can be typed over. */
export function FigureField({
  label,
  value,
  units,
  onCommit,
  onType,
  onLeave,
  least,
  rounded = false,
  covers = false,
}: {
  label: string;
  value: number;
  units: 'metric' | 'imperial';
  onCommit(metres: number): boolean;
  /** Told what is typed, or null where that is no length. */
  onType?(metres: number | null): void;
  onLeave?(): void;
  /** The shortest length that is taken, metres; null: any, also none. */
  least?: number | null;
  /** Shown as the drawing shows it, not to its last digit. */
  rounded?: boolean;
  /** It covers what the drawing has there, names and figures. */
  covers?: boolean;
}) {
  const shown = rounded ? formatLength(value, units) : formatLengthExact(value, units);
  return (
    <input
      key={`${value.toFixed(6)} ${units}`}
      aria-label={label}
      defaultValue={shown}
      onKeyDown={(e) => {
        e.stopPropagation();
        if (e.key === 'Enter') e.currentTarget.blur();
        if (e.key === 'Escape') {
          e.currentTarget.value = shown;
          e.currentTarget.blur();
        }
      }}
      onChange={(e) => {
        const parsed = parseSize(e.currentTarget.value, units);
        onType?.(parsed.ok ? parsed.metres : null);
      }}
      onBlur={(e) => {
        const reset = (): void => {
          e.currentTarget.value = shown;
          useStudio.getState().endPreview();
        };
        onType?.(null);
        const parsed = least === null ? parseLength(e.currentTarget.value, units) : parseSize(e.currentTarget.value, units, least);
        if (e.currentTarget.value === shown) reset();
        else if (!parsed.ok) {
          useStudio.getState().say(parsed.message);
          reset();
        } else if (Math.abs(parsed.metres - value) > 1e-7 && !onCommit(parsed.metres)) reset();
        onLeave?.();
      }}
      style={{
        display: 'block',
        margin: '0 auto',
        width: rounded ? 68 : figureWidth(shown),
        height: covers ? 15 : 19,
        border: 0,
        // The figure stands on the drawing with a rim of paper: it covers no wall. What the plan draws itself is only covered while it is typed over.
        background: covers ? colours.paper : 'transparent',
        textShadow: rounded ? undefined : RIM,
        color: rounded ? 'transparent' : colours.teal,
        font: 'inherit',
        fontSize: 11,
        textAlign: 'center',
        padding: 0,
      }}
    />
  );
}
