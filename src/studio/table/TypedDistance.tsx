'use client';
import { useState } from 'react';
import { drawDimension } from '@/core/drawing/dimension';
import type { Vec2 } from '@/core/geometry/vec';
import { useStudio } from '../store/studio';
import * as arranging from '../tools/arranging';
import { FigureField } from './FigureField';
import { Marks, type View } from './marks';

/** Shorter ones are not shown: there is no room to type, pixels. */
const SHOWN = 26;

/** A distance in a drawing, from one point to another, metres. */
export interface Distance {
  from: Vec2;
  to: Vec2;
  value: number;
}

/** A distance of a piece that is typed over where it is drawn: what is typed is shown, Enter does it. */
export function TypedDistance({
  label,
  distance,
  view,
  worked,
}: {
  label: string;
  distance: Distance | null;
  view: View;
  worked(metres: number, from: Distance): arranging.Worked;
}) {
  const units = useStudio((s) => s.project.units);
  // While one types, the piece is shown where it would be; the field stays as it was.
  const [held, setHeld] = useState<Distance | null>(null);
  const shown = held ?? (distance && distance.value * view.k >= SHOWN ? distance : null);
  if (!shown) return null;
  const marks = drawDimension(shown.from, shown.to, '');
  const text = marks.find((m) => m.kind === 'text')!;
  const [x, y] = [view.x + text.at.x * view.k, view.y - text.at.y * view.k];
  return (
    <g>
      <g transform={`translate(${view.x} ${view.y}) scale(${view.k})`}>
        <Marks items={marks} />
      </g>
      <foreignObject transform={`translate(${x} ${y}) rotate(${(-text.angle * 180) / Math.PI})`} x={-40} y={-17} width={80} height={16}>
        <FigureField
          label={label}
          value={shown.value}
          units={units}
          least={null}
          covers
          onType={(v) => {
            if (v !== null) setHeld(shown);
            arranging.showWorked(v === null ? null : worked(v, shown));
          }}
          onCommit={(v) => arranging.doWorked(worked(v, shown))}
          onLeave={() => setHeld(null)}
        />
      </foreignObject>
    </g>
  );
}
