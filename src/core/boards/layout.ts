import { DomainError } from '../project/errors';
import type { Board, BoardItem, Page, Project } from '../project/schema';

/** A board of a project, the first one if none is named. @throws DomainError `board.missing` */
export function boardOf(project: Project, id: string | null): Board {
  const board = id === null ? Object.values(project.boards)[0] : Object.hasOwn(project.boards, id) ? project.boards[id] : undefined;
  if (!board) throw new DomainError('board.missing', 'There is no such board in the project.', id ? [id] : []);
  return board;
}

/** Pages of a board in their order. */
export const pagesOf = (board: Board): Page[] => Object.values(board.pages).sort((a, b) => a.order - b.order || (a.id < b.id ? -1 : 1));

/** Items of a page from the lowest to the topmost. */
export const itemsOf = (board: Board, page: string): BoardItem[] =>
  Object.values(board.items)
    .filter((item) => item.page === page)
    .sort((a, b) => a.order - b.order || (a.id < b.id ? -1 : 1));

/** Height of the note under a sample, metres: its type size and the distance of its baseline below the sample. */
export const NOTE = { size: 0.0032, drop: 0.0054 } as const;

/** Distance between lines of text, in type sizes. */
export const LEADING = 1.32;

/** Width of a text at the item's size, metres. */
export type TextMeasure = (text: string) => number;

export interface TextLine {
  text: string;
  /** Start and baseline on the page, metres from the upper left. */
  x: number;
  y: number;
}

/** Breaks an item's text into lines that fit its width and places them. */
export function layoutText(item: Extract<BoardItem, { kind: 'text' }>, measure: TextMeasure): TextLine[] {
  const lines: string[] = [];
  for (const paragraph of item.text.split('\n')) {
    let line = '';
    for (const word of paragraph.split(/\s+/)) {
      const longer = line ? `${line} ${word}` : word;
      if (line && measure(longer) > item.width) {
        lines.push(line);
        line = word;
      } else line = longer;
    }
    lines.push(line);
  }
  return lines.map((text, i) => {
    const free = item.width - measure(text);
    const x = item.x + (item.align === 'left' ? 0 : item.align === 'centre' ? free / 2 : free);
    return { text, x, y: item.y + item.size * (0.92 + i * LEADING) };
  });
}

/** Papers by name, landscape, metres. */
export const PAPERS: Record<string, { width: number; height: number }> = {
  'A4 landscape': { width: 0.297, height: 0.21 },
  'A3 landscape': { width: 0.42, height: 0.297 },
  'A4 portrait': { width: 0.21, height: 0.297 },
  'Letter landscape': { width: 0.2794, height: 0.2159 },
  'Tabloid landscape': { width: 0.4318, height: 0.2794 },
};

/** The largest rectangle of a proportion inside a frame. */
export function fit(ratio: number, width: number, height: number): { width: number; height: number } {
  return width / height > ratio ? { width: height * ratio, height } : { width, height: width / ratio };
}
