import type { DisplayItem } from '@/core/drawing/display';
import { Marks, Texts, type View } from './marks';

const NONE: ReadonlySet<string> = new Set();

/** Electrical zones over a drawing; they take no presses. */
export function ZoneMarks({ items, view }: { items: readonly DisplayItem[]; view: View }) {
  if (!items.length) return null;
  return (
    <g data-testid="zones" style={{ pointerEvents: 'none' }}>
      <g transform={`translate(${view.x} ${view.y}) scale(${view.k})`}>
        <Marks items={items} />
      </g>
      <Texts items={items} view={view} selected={NONE} room={null} />
    </g>
  );
}
