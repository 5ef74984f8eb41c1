'use client';
import type { Placed } from '@/core/drawing/elevation/unroll';
import type { Piece } from '@/core/project/schema';
import * as arranging from '../../tools/arranging';
import type { View } from '../marks';
import { TypedDistance } from '../TypedDistance';
import { movedUpright, uprightGaps } from './placing';

/** How far the selected piece is from the ends of its wall and from the floor, which can be typed over. */
export function UprightGaps({ piece, faces, view }: { piece: Piece; faces: readonly Placed[]; view: View }) {
  return (
    <>
      {uprightGaps(piece, faces).map((gap) => (
        <TypedDistance
          key={gap.words}
          label={`Distance: ${gap.words}`}
          distance={gap}
          view={view}
          worked={(v) => {
            const set = movedUpright(piece, faces, gap.by(v));
            return set
              ? arranging.to('piece.set', { piece: piece.id, set })
              : { refusal: `${piece.name} was not moved: it stands at no wall that is drawn here.` };
          }}
        />
      ))}
    </>
  );
}
