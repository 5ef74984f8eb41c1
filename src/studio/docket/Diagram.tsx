'use client';
import { openingDiagram, pieceDiagram } from '@/core/drawing/diagram';
import type { Opening, Piece } from '@/core/project/schema';
import type { UnitSystem } from '@/core/units/length';
import { Marks, PX_PER_MM, Texts } from '../table/marks';

type Props = ({ kind: 'piece'; piece: Piece } | { kind: 'opening'; opening: Opening }) & { units: UnitSystem };

/** The size of the drawing, pixels. */
const SIZE = { width: 206, height: 118 };
const FRAME = { width: SIZE.width / PX_PER_MM, height: SIZE.height / PX_PER_MM };
const NOBODY = new Set<string>();

/** A small dimensioned drawing of the thing itself: a piece from above, an opening face on. */
export function Diagram(props: Props) {
  const { items, scale, middle } = props.kind === 'piece' ? pieceDiagram(props.piece, FRAME, props.units) : openingDiagram(props.opening, FRAME, props.units);
  const k = PX_PER_MM / scale;
  const view = { k, x: SIZE.width / 2 - middle.x * k, y: SIZE.height / 2 + middle.y * k };
  return (
    <svg {...SIZE} role="img" aria-label="Diagram with dimensions" style={{ display: 'block' }}>
      <g transform={`translate(${view.x} ${view.y}) scale(${k})`}>
        <Marks items={items} />
      </g>
      <Texts items={items} view={view} selected={NOBODY} room={null} />
    </svg>
  );
}
