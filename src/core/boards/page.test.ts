import { describe, expect, it } from 'vitest';
import { heronLockCottage } from '../demo/heron-lock';
import { deriveModel } from '../model/derive';
import type { Board, BoardItem, Page } from '../project/schema';
import { composePage } from './compose';
import { NOTE, PAPERS } from './layout';
import { itemMarks, pageMarks, type FaceMeasure } from './page';
import { shadowPicture } from './shadow';

const project = heronLockCottage();
const paper = PAPERS['A3 landscape'];
/** Half an em a letter. */
const measure: FaceMeasure = (text, _, size) => text.length * size * 0.5;

const items = composePage(deriveModel(project), paper, { title: 'Kitchen', line: 'A line', picture: null, room: null });
const page: Page = { id: 'p', name: 'One', order: 0, ground: '#f4f1ea' };
const board: Board = {
  id: 'b',
  name: 'Board',
  paper,
  pages: { p: page },
  items: Object.fromEntries(items.map((item, i) => [`i${i}`, { ...item, id: `i${i}`, page: 'p' } as BoardItem])),
};

const sample = (set: Partial<BoardItem>): BoardItem =>
  ({
    id: 's',
    page: 'p',
    order: 0,
    x: 0.1,
    y: 0.05,
    width: 0.06,
    height: 0.04,
    shadow: true,
    kind: 'sample',
    finish: 'timber.oak',
    form: 'board',
    note: '',
    ...set,
  }) as BoardItem;

describe('the marks of a page', () => {
  const marks = pageMarks(project, board, page, measure);

  it('begin with the ground over the whole paper', () => {
    const [ground] = marks;
    expect(ground.kind === 'fill' && ground.colour).toBe('#f4f1ea');
    expect(ground.kind === 'fill' && ground.rings[0]).toEqual([
      { x: 0, y: 0 },
      { x: paper.width, y: 0 },
      { x: paper.width, y: paper.height },
      { x: 0, y: paper.height },
    ]);
  });

  it('show every thing of the page, the lowest first, each shadow just below its thing', () => {
    const order = [...new Set(marks.flatMap((m) => (m.kind === 'fill' ? [] : [m.entity])))];
    const lowest = Object.values(board.items)
      .sort((a, b) => a.order - b.order || (a.id < b.id ? -1 : 1))
      .map((i) => i.id);
    expect(order).toEqual(lowest);
    marks.forEach((mark, i) => {
      if (mark.kind !== 'shadow') return;
      const next = marks[i + 1];
      expect(next.kind === 'image' && next.entity).toBe(mark.entity);
      expect(next.kind === 'image' && [next.min, next.max]).toEqual([mark.min, mark.max]);
    });
  });

  it('lie where the page says, counted from the lower left', () => {
    const [shadow, image, words] = itemMarks(project, paper, sample({}), measure);
    expect(image).toMatchObject({
      kind: 'image',
      min: { x: 0.1, y: expect.closeTo(paper.height - 0.09, 12) as number },
      max: { x: expect.closeTo(0.16, 12) as number, y: expect.closeTo(paper.height - 0.05, 12) as number },
      shows: { kind: 'sample', finish: 'timber.oak', form: 'board' },
    });
    expect(shadow.kind).toBe('shadow');
    // The note is the finish’s name until another is written, its baseline a step below.
    expect(words).toMatchObject({
      kind: 'words',
      text: 'Oak, oiled',
      size: NOTE.size,
      ink: 'note',
      at: { x: 0.1, y: expect.closeTo(paper.height - 0.09 - NOTE.drop, 12) as number },
    });
    const noted = itemMarks(project, paper, sample({ note: 'Doors', shadow: false } as Partial<BoardItem>), measure);
    expect(noted.map((m) => m.kind)).toEqual(['image', 'words']);
    expect(noted[1]).toMatchObject({ text: 'Doors' });
  });

  it('break words as they are measured, in their face', () => {
    const item = {
      id: 't',
      page: 'p',
      order: 0,
      x: 0.02,
      y: 0.03,
      width: 0.05,
      height: 0.1,
      shadow: false,
      kind: 'text',
      text: 'one two three',
      size: 0.01,
      face: 'serif',
      align: 'left',
    } as BoardItem;
    const lines = itemMarks(project, paper, item, measure);
    expect(lines.map((l) => l.kind === 'words' && [l.text, l.face, l.size])).toEqual([
      ['one two', 'serif', 0.01],
      ['three', 'serif', 0.01],
    ]);
    expect(lines.map((l) => l.kind === 'words' && l.at.y)).toEqual([
      expect.closeTo(paper.height - 0.03 - 0.0092, 9),
      expect.closeTo(paper.height - 0.03 - 0.0092 - 0.0132, 9),
    ]);
  });

  it('show nothing of a picture that is gone', () => {
    const item = { id: 'x', page: 'p', order: 0, x: 0, y: 0, width: 0.1, height: 0.1, shadow: true, kind: 'picture', picture: 'gone' } as BoardItem;
    expect(itemMarks(project, paper, item, measure)).toEqual([]);
  });

  it('give a disc a round shadow, as dark in its middle and none in its corners', () => {
    expect(itemMarks(project, paper, sample({ form: 'disc' } as Partial<BoardItem>), measure)[0]).toMatchObject({ kind: 'shadow', round: true });
    const [square, round] = [false, true].map((own) => shadowPicture(0.06, 0.06, 2000, own));
    const at = ({ width, height, pixels }: typeof square, u: number, v: number): number =>
      pixels[(Math.floor(v * (height - 1)) * width + Math.floor(u * (width - 1))) * 4 + 3];
    expect(at(round, 0.5, 0.5)).toBe(at(square, 0.5, 0.5));
    expect(at(square, 0.1, 0.1)).toBeGreaterThan(40);
    expect(at(round, 0.1, 0.1)).toBe(0);
    // At the rim both are half as dark.
    expect(at(round, 0.5, 0.0035 / 0.067)).toBeCloseTo(at(square, 0.5, 0.0035 / 0.067), -1);
  });
});
