'use client';
import { useState } from 'react';
import { drawDimension } from '@/core/drawing/dimension';
import type { Placed } from '@/core/drawing/elevation/unroll';
import type { Piece } from '@/core/project/schema';
import { useStudio } from '../../store/studio';
import * as arranging from '../../tools/arranging';
import { FigureField } from '../FigureField';
import { Marks, type View } from '../marks';
import { movedUpright, uprightGaps, type UprightGap } from './placing';

/** Shorter ones are not shown: there is no room to type, pixels. */
const SHOWN = 26;

/** How far the selected piece is from the ends of its wall and from the floor, which can be typed over. */
export function UprightGaps({ piece, faces, view }: { piece: Piece; faces: readonly Placed[]; view: View }) {
  const shown = uprightGaps(piece, faces);
  return (
    <>
      {shown.map((gap) => (
        <Gap key={gap.words} piece={piece} gap={gap} faces={faces} view={view} />
      ))}
    </>
  );
}

function Gap({ piece, gap, faces, view }: { piece: Piece; gap: UprightGap; faces: readonly Placed[]; view: View }) {
  const units = useStudio((s) => s.project.units);
  // While one types, the piece is shown where it would hang; the field stays as it was.
  const [held, setHeld] = useState<{ piece: Piece; gap: UprightGap } | null>(null);
  const at = held ?? (gap.value * view.k >= SHOWN ? { piece, gap } : null);
  if (!at) return null;
  const marks = drawDimension(at.gap.from, at.gap.to, '');
  const text = marks.find((m) => m.kind === 'text')!;
  const [x, y] = [view.x + text.at.x * view.k, view.y - text.at.y * view.k];
  const worked = (v: number): arranging.Worked => {
    const set = movedUpright(at.piece, faces, at.gap.by(v));
    return set ? arranging.to('piece.set', { piece: piece.id, set }) : { refusal: `${piece.name} was not moved: it stands at no wall that is drawn here.` };
  };
  return (
    <g>
      <g transform={`translate(${view.x} ${view.y}) scale(${view.k})`}>
        <Marks items={marks} />
      </g>
      <foreignObject transform={`translate(${x} ${y}) rotate(${(-text.angle * 180) / Math.PI})`} x={-40} y={-20} width={80} height={19}>
        <FigureField
          label={`Distance: ${gap.words}`}
          value={at.gap.value}
          units={units}
          least={null}
          onType={(v) => {
            if (v !== null) setHeld(at);
            arranging.showWorked(v === null ? null : worked(v));
          }}
          onCommit={(v) => arranging.doWorked(worked(v))}
          onLeave={() => setHeld(null)}
        />
      </foreignObject>
    </g>
  );
}
