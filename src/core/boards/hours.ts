import type { BoardItem } from '../project/schema';
import { fit } from './layout';

type Plain = BoardItem extends infer I ? (I extends BoardItem ? Omit<I, 'id' | 'page'> : never) : never;

/** Shares of the paper’s height. */
const MARGIN = 0.055;
const HEAD = 0.15;
const GAP = 0.022;
const CAPTION = 0.034;

/** Columns that let pictures stand largest on a page. */
function columnsFor(count: number, aspect: number, width: number, height: number): number {
  let best = { columns: 1, area: 0 };
  for (let columns = 1; columns <= count; columns++) {
    const box = fit(aspect, width / columns, height / Math.ceil(count / columns));
    if (box.width * box.height > best.area) best = { columns, area: box.width * box.height };
  }
  return best.columns;
}

/** Where the title of a sheet of hours stands. @param paper metres */
export const sheetTitle = (paper: { width: number; height: number }, text: string): Plain => ({
  kind: 'text',
  order: 0,
  x: paper.height * MARGIN,
  y: paper.height * 0.045,
  width: paper.width - 2 * paper.height * MARGIN,
  height: paper.height * 0.07,
  shadow: false,
  text,
  size: paper.height * 0.042,
  face: 'serif',
  align: 'left',
});

/**
 * One picture of a sheet of hours with its caption: the pictures stand row by row, as large as they fit.
 *
 * @param paper metres
 * @param which of how many pictures it is, from 0
 * @param aspect width over height of each
 */
export function sheetPicture(
  paper: { width: number; height: number },
  { index, count, aspect }: { index: number; count: number; aspect: number },
  picture: string,
  caption: string,
): Plain[] {
  const [w, h] = [paper.width, paper.height];
  const [margin, gap, foot] = [h * MARGIN, h * GAP, h * CAPTION];
  const [wide, high] = [w - 2 * margin + gap, h - h * HEAD - margin + gap];
  const columns = columnsFor(count, aspect, wide, high - foot * Math.ceil(count / 2));
  const rows = Math.ceil(count / columns);
  const cell = { width: wide / columns, height: high / rows };
  const box = fit(aspect, cell.width - gap, cell.height - gap - foot);
  const x = margin + (index % columns) * cell.width;
  const y = h * HEAD + Math.floor(index / columns) * cell.height;
  return [
    { kind: 'picture', order: 1 + index * 2, x, y, ...box, shadow: false, picture },
    {
      kind: 'text',
      order: 2 + index * 2,
      x,
      y: y + box.height + foot * 0.15,
      width: box.width,
      height: foot * 0.8,
      shadow: false,
      text: caption,
      size: h * 0.017,
      face: 'sans',
      align: 'left',
    },
  ];
}
