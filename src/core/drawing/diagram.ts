import type { Vec2 } from '../geometry/vec';
import type { Opening, Piece } from '../project/schema';
import { symbolOf } from '../stock/stock';
import { rectangle, type SymbolLine } from '../stock/types';
import { formatLength, type UnitSystem } from '../units/length';
import { drawDimension } from './dimension';
import { carry, displayBounds, type DisplayItem } from './display';
import { openingFront } from './elevation/opening';

/** A thing drawn by itself, with its two sizes over and beside it, to fill a frame. */
export interface Diagram {
  items: DisplayItem[];
  /** Metres that one millimetre of the paper stands for. */
  scale: number;
  /** The middle of the frame, metres. */
  middle: Vec2;
}

/** Room for a figure and its line, millimetres of the paper. */
const MARGIN = 7;
/** Between the thing and the lines of its sizes, millimetres. */
const CLEAR = 2.4;

/** @param frame millimetres of the paper */
function diagram(items: readonly DisplayItem[], width: number, height: number, frame: { width: number; height: number }, units: UnitSystem): Diagram {
  const scale = Math.max(width / (frame.width - 2 * MARGIN), height / (frame.height - 2 * MARGIN));
  const { min } = displayBounds(items) ?? { min: { x: 0, y: 0 } };
  const [low, high] = [
    { x: min.x, y: min.y },
    { x: min.x + width, y: min.y + height },
  ];
  const off = CLEAR * scale;
  const tick = 0.8 * scale;
  return {
    items: [
      ...items,
      ...drawDimension({ x: low.x, y: high.y + off }, { x: high.x, y: high.y + off }, formatLength(width, units), { tick }),
      ...drawDimension({ x: low.x - off, y: low.y }, { x: low.x - off, y: high.y }, formatLength(height, units), { tick }),
    ],
    scale,
    // The figures stand above and at the left.
    middle: { x: (low.x + high.x) / 2 - off, y: (low.y + high.y) / 2 + off },
  };
}

/** A piece from above, as the plan shows it. @param frame millimetres of the paper */
export function pieceDiagram({ maker, size, traits, mirrored, id }: Piece, frame: { width: number; height: number }, units: UnitSystem): Diagram {
  const own: readonly SymbolLine[] = symbolOf({ maker, size, traits, mirrored }) ?? [{ points: rectangle(size.width, size.depth), closed: true }];
  const outline = rectangle(size.width, size.depth);
  const items: DisplayItem[] = [
    { kind: 'fill', rings: [own[0].closed ? [...own[0].points] : outline], ink: 'bare', entity: id, layer: 'piece' },
    ...own.map((l): DisplayItem => ({ kind: 'line', points: [...l.points], closed: l.closed, ink: 'thin', pen: 0.25, dash: l.dashed, layer: 'piece' })),
  ];
  return diagram(items, size.width, size.depth, frame, units);
}

/** An opening as it is seen from the side it opens to. @param frame millimetres of the paper */
export function openingDiagram(o: Opening, frame: { width: number; height: number }, units: UnitSystem): Diagram {
  // Seen from the left of its wall, the start of the wall lies at the right.
  const mirrored = o.swing === 'left';
  const seen = openingFront(o, { from: o.swing, outside: true });
  const items = mirrored ? carry(seen, (p) => ({ x: -p.x, y: p.y })) : seen;
  return diagram(items, o.width, o.height, frame, units);
}
