'use client';
import { openingOutline } from '@/core/project/openings';
import type { Opening, Piece } from '@/core/project/schema';
import { stockItem } from '@/core/stock/stock';
import { formatLength, type UnitSystem } from '@/core/units/length';
import { colours } from '../look/theme';

type Props = ({ kind: 'piece'; piece: Piece } | { kind: 'opening'; opening: Opening }) & { units: UnitSystem };

/** A small dimensioned drawing of the thing itself: a piece from above, an opening face on. */
export function Diagram(props: Props) {
  const [w, h] = props.kind === 'piece' ? [props.piece.size.width, props.piece.size.depth] : [props.opening.width, props.opening.height];
  const [bw, bh] = [128, 74];
  const k = Math.min(bw / w, bh / h);
  const [pw, ph] = [w * k, h * k];
  const [ox, oy] = [104 - pw / 2 + 8, 22 + (bh - ph) / 2];
  const tick = (x: number, y: number) => <line x1={x - 3} y1={y + 3} x2={x + 3} y2={y - 3} />;
  return (
    <svg width="206" height="106" viewBox="0 0 206 106" role="img" aria-label="Diagram with dimensions" style={{ display: 'block' }}>
      <g stroke="#6f706d" fill="none" strokeWidth="1">
        {props.kind === 'piece'
          ? (stockItem(props.piece.maker)?.symbol(props.piece.size) ?? []).map((line, i) => (
              <path
                key={i}
                d={`M${line.points.map((p) => `${ox + pw / 2 + p.x * k} ${oy + ph / 2 - p.y * k}`).join('L')}${line.closed ? 'Z' : ''}`}
                strokeDasharray={line.dashed ? '4 2' : undefined}
                fill={line.closed && i === 0 ? '#fbfbfa' : 'none'}
              />
            ))
          : openingLines(props.opening, ox, oy, pw, ph)}
      </g>
      <g stroke={colours.teal} strokeWidth="0.8">
        <line x1={ox} y1={oy - 8} x2={ox + pw} y2={oy - 8} />
        {tick(ox, oy - 8)}
        {tick(ox + pw, oy - 8)}
        <line x1={ox - 9} y1={oy} x2={ox - 9} y2={oy + ph} />
        {tick(ox - 9, oy)}
        {tick(ox - 9, oy + ph)}
      </g>
      <g fill={colours.teal} fontSize="10.5" textAnchor="middle">
        <text x={ox + pw / 2} y={oy - 11.5}>
          {formatLength(w, props.units)}
        </text>
        <text transform={`translate(${ox - 13} ${oy + ph / 2}) rotate(-90)`}>{formatLength(h, props.units)}</text>
      </g>
    </svg>
  );
}

function openingLines(o: Opening, x: number, y: number, w: number, h: number) {
  if (o.kind === 'door' && o.shape.kind === 'rectangle')
    return (
      <>
        <rect x={x} y={y} width={w} height={h} fill="#fbfbfa" />
        <rect x={x + 3} y={y + 3} width={w - 6} height={h - 3} />
        <path
          d={
            (o.hinge === 'start') === (o.swing === 'left')
              ? `M${x + 3} ${y + 3}L${x + w - 3} ${y + h / 2}L${x + 3} ${y + h}`
              : `M${x + w - 3} ${y + 3}L${x + 3} ${y + h / 2}L${x + w - 3} ${y + h}`
          }
          strokeDasharray="6 3 1 3"
        />
      </>
    );
  if (o.kind !== 'window' || o.shape.kind !== 'rectangle') {
    const k = { x: w / o.width, y: h / o.height };
    const points = openingOutline(o).map((p) => `${x + w / 2 + p.x * k.x} ${y + h - (p.y - o.sill) * k.y}`);
    return <path d={`M${points.join('L')}Z`} fill="#fbfbfa" />;
  }
  const { across, up } = o.panes;
  return (
    <>
      <rect x={x} y={y} width={w} height={h} fill="#fbfbfa" />
      <rect x={x + 3} y={y + 3} width={w - 6} height={h - 6} />
      {Array.from({ length: across - 1 }, (_, i) => (
        <line key={`a${i}`} x1={x + 3 + ((w - 6) * (i + 1)) / across} y1={y + 3} x2={x + 3 + ((w - 6) * (i + 1)) / across} y2={y + h - 3} />
      ))}
      {Array.from({ length: up - 1 }, (_, i) => (
        <line key={`u${i}`} x1={x + 3} y1={y + 3 + ((h - 6) * (i + 1)) / up} x2={x + w - 3} y2={y + 3 + ((h - 6) * (i + 1)) / up} />
      ))}
    </>
  );
}
