import type { PageMark } from '../drawing/display';
import { finishIn } from '../finishes/store';
import type { Vec2 } from '../geometry/vec';
import type { Board, BoardItem, Page, Project } from '../project/schema';
import { itemsOf, layoutText, NOTE } from './layout';

/** Width of a text of a face and a size, metres. */
export type FaceMeasure = (text: string, face: 'sans' | 'serif', size: number) => number;

/** What one thing of a page is drawn with, the lowest first. Pages say where things lie from their upper left; marks from the lower left. */
export function itemMarks(project: Pick<Project, 'finishes' | 'pictures'>, paper: Board['paper'], item: BoardItem, measure: FaceMeasure): PageMark[] {
  const { id: entity, x, y, width, height } = item;
  const place = (px: number, py: number): Vec2 => ({ x: px, y: paper.height - py });
  if (item.kind === 'text') {
    const { face, size } = item;
    return layoutText(item, (text) => measure(text, face, size)).map((line) => ({
      kind: 'words',
      at: place(line.x, line.y),
      text: line.text,
      size,
      face,
      ink: 'line',
      entity,
    }));
  }
  const box = { min: place(x, y + height), max: place(x + width, y), entity };
  const marks: PageMark[] = item.shadow ? [{ kind: 'shadow', ...box, round: item.kind === 'sample' && item.form === 'disc' }] : [];
  if (item.kind === 'picture') {
    const picture = project.pictures[item.picture];
    return picture ? [...marks, { kind: 'image', ...box, shows: { kind: 'picture', hash: picture.image } }] : [];
  }
  const { finish, form } = item;
  return [
    ...marks,
    { kind: 'image', ...box, shows: { kind: 'sample', finish, form } },
    {
      kind: 'words',
      at: place(x, y + height + NOTE.drop),
      text: item.note || finishIn(project, finish).name,
      size: NOTE.size,
      face: 'sans',
      ink: 'note',
      entity,
    },
  ];
}

/** A page of a board as marks, the lowest first: every writer of pages draws these and nothing else. */
export function pageMarks(project: Pick<Project, 'finishes' | 'pictures'>, board: Board, page: Page, measure: FaceMeasure): PageMark[] {
  const { width, height } = board.paper;
  const ring = [
    { x: 0, y: 0 },
    { x: width, y: 0 },
    { x: width, y: height },
    { x: 0, y: height },
  ];
  return [
    { kind: 'fill', rings: [ring], ink: 'paper', colour: page.ground, layer: 'page' },
    ...itemsOf(board, page.id).flatMap((item) => itemMarks(project, board.paper, item, measure)),
  ];
}
