import { readFile } from 'node:fs/promises';
import path from 'node:path';
import { getDocument, OPS } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { beforeAll, describe, expect, it } from 'vitest';
import { pageMarks } from '../../boards/page';
import { SHADOW } from '../../boards/shadow';
import { emptyProject, type Board, type BoardItem, type Project } from '../../project/schema';
import { POINTS_PER_METRE, writeBoardPdf } from './board-pdf';

/** A picture of one pixel. */
const PIXEL = Uint8Array.from(atob('iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg=='), (c) => c.charCodeAt(0));
const HASH = 'a'.repeat(64);

const paper = { width: 0.42, height: 0.297 };
const base = (id: string, page: string, order: number) => ({ id, page, order, shadow: false });
const items: BoardItem[] = [
  { ...base('title', 'one', 0), kind: 'text', x: 0.02, y: 0.03, width: 0.2, height: 0.02, text: 'Kitchen & dining', size: 0.014, face: 'serif', align: 'left' },
  {
    ...base('aside', 'one', 1),
    kind: 'text',
    x: 0.25,
    y: 0.03,
    width: 0.06,
    height: 0.05,
    text: 'Sample sizes follow the surface',
    size: 0.005,
    face: 'sans',
    align: 'right',
  },
  { ...base('photo', 'one', 2), kind: 'picture', x: 0.02, y: 0.08, width: 0.16, height: 0.1, picture: 'p', shadow: true },
  {
    ...base('disc', 'one', 3),
    kind: 'sample',
    x: 0.22,
    y: 0.1,
    width: 0.06,
    height: 0.06,
    finish: 'metal.brass-brushed',
    form: 'disc',
    note: '',
    shadow: true,
  },
  { ...base('chip', 'two', 0), kind: 'sample', x: 0.1, y: 0.1, width: 0.08, height: 0.05, finish: 'paint.reed', form: 'board', note: 'Doors', shadow: false },
] as BoardItem[];
const board: Board = {
  id: 'b',
  name: 'Board',
  paper,
  pages: { one: { id: 'one', name: 'One', order: 0, ground: '#f4f1ea' }, two: { id: 'two', name: 'Two', order: 1, ground: '#ffffff' } },
  items: Object.fromEntries(items.map((item) => [item.id, item])),
} as Board;
const project = { ...emptyProject('p', 'P'), pictures: { p: { id: 'p', name: 'Photo', image: HASH } } } as unknown as Project;

interface Drawn {
  texts: { text: string; x: number; y: number; size: number }[];
  images: { x: number; y: number; width: number; height: number }[];
}
let drawn: Drawn[];
let asked: { hash: string; width: number }[];

beforeAll(async () => {
  const font = async (name: string): Promise<Uint8Array> => new Uint8Array(await readFile(path.join('node_modules/@fontsource', name)));
  asked = [];
  const bytes = await writeBoardPdf(project, board, {
    fonts: {
      sans: await font('instrument-sans/files/instrument-sans-latin-400-normal.woff'),
      serif: await font('instrument-serif/files/instrument-serif-latin-400-normal.woff'),
    },
    picture: (hash, width) => {
      asked.push({ hash, width });
      return Promise.resolve(PIXEL);
    },
  });
  const pdf = await getDocument({ data: bytes.slice(), verbosity: 0 }).promise;
  drawn = [];
  for (let n = 1; n <= pdf.numPages; n++) {
    const page = await pdf.getPage(n);
    const texts = (await page.getTextContent()).items.flatMap((i) =>
      'str' in i && i.str.trim()
        ? [
            {
              text: i.str,
              x: (i.transform[4] as number) / POINTS_PER_METRE,
              y: (i.transform[5] as number) / POINTS_PER_METRE,
              size: (i.transform[3] as number) / POINTS_PER_METRE,
            },
          ]
        : [],
    );
    const list = await page.getOperatorList();
    const stack: number[][] = [];
    let m = [1, 0, 0, 1, 0, 0];
    const images: Drawn['images'] = [];
    list.fnArray.forEach((fn, i) => {
      if (fn === OPS.save) stack.push(m);
      else if (fn === OPS.restore) m = stack.pop()!;
      else if (fn === OPS.transform) {
        const [a, b, c, d, e, f] = list.argsArray[i] as number[];
        m = [m[0] * a + m[2] * b, m[1] * a + m[3] * b, m[0] * c + m[2] * d, m[1] * c + m[3] * d, m[0] * e + m[2] * f + m[4], m[1] * e + m[3] * f + m[5]];
      } else if (fn === OPS.paintImageXObject)
        images.push({ x: m[4] / POINTS_PER_METRE, y: m[5] / POINTS_PER_METRE, width: m[0] / POINTS_PER_METRE, height: m[3] / POINTS_PER_METRE });
    });
    drawn.push({ texts, images });
  }
});

describe('a board as another reader of the PDF finds it', () => {
  const near = (v: number): number => expect.closeTo(v, 5) as number;

  it('has its pages in order, each with what lies on it', () => {
    expect(drawn).toHaveLength(2);
    expect(drawn[0].texts.map((t) => t.text).join(' ')).toContain('Kitchen & dining');
    expect(drawn[1].texts.map((t) => t.text)).toEqual(['Doors']);
  });

  it('has every word where the marks of the page say, in their size', () => {
    for (const [n, id] of ['one', 'two'].entries()) {
      // Where lines break and begin depends on the fonts: left-set words begin where their thing begins.
      const marks = pageMarks(project, board, board.pages[id], (text, _, size) => text.length * size * 0.5).flatMap((m) =>
        m.kind === 'words' && m.entity !== 'aside' ? [m] : [],
      );
      for (const mark of marks) {
        const own = drawn[n].texts.find((t) => mark.text.startsWith(t.text) || t.text.startsWith(mark.text))!;
        expect([own.x, own.y, own.size]).toEqual([near(mark.at.x), near(mark.at.y), near(mark.size)]);
      }
    }
  });

  it('sets words to the right against the right edge of their thing', () => {
    const lines = drawn[0].texts.filter((t) => t.size < 0.006 && t.size > 0.004);
    expect(lines.length).toBeGreaterThan(1);
    // Ragged at the left: lines of unequal length begin at unequal places, none before the thing.
    expect(new Set(lines.map((t) => t.x.toFixed(4))).size).toBeGreaterThan(1);
    for (const t of lines) expect(t.x).toBeGreaterThanOrEqual(0.25 - 1e-6);
  });

  it('has pictures, samples and shadows where they lie, each shadow under its thing and larger by the blur', () => {
    const marks = pageMarks(project, board, board.pages.one, () => 0).flatMap((m) => (m.kind === 'image' || m.kind === 'shadow' ? [m] : []));
    expect(drawn[0].images).toHaveLength(marks.length);
    marks.forEach((mark, i) => {
      const out = mark.kind === 'shadow' ? SHADOW.blur : 0;
      const [dx, dy] = mark.kind === 'shadow' ? [SHADOW.dx, SHADOW.dy] : [0, 0];
      expect(drawn[0].images[i]).toEqual({
        x: near(mark.min.x - out + dx),
        y: near(mark.min.y - out - dy),
        width: near(mark.max.x - mark.min.x + 2 * out),
        height: near(mark.max.y - mark.min.y + 2 * out),
      });
    });
    expect(asked).toEqual([{ hash: HASH, width: 0.16 }]);
  });
});
