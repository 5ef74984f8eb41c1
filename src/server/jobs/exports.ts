import * as fontkit from 'fontkit';
import sharp, { type OverlayOptions, type Sharp } from 'sharp';
import { pagesOf } from '@/core/boards/layout';
import { pageMarks } from '@/core/boards/page';
import { makeSample } from '@/core/boards/sample';
import { SHADOW, shadowPicture } from '@/core/boards/shadow';
import { deriveModel } from '@/core/model/derive';
import { drawPlan } from '@/core/drawing/plan/plan';
import type { PageMark } from '@/core/drawing/display';
import { fillOf, INKS } from '@/core/drawing/inks';
import { displaySvg } from '@/core/drawing/svg';
import { fetchImages, finishIn } from '@/core/finishes/store';
import { writeGlb } from '@/core/formats/glb/glb';
import { writeBoardPdf } from '@/core/formats/pdf/board-pdf';
import { DomainError } from '@/core/project/errors';
import type { Board, Project } from '@/core/project/schema';
import { keptFile } from '../store/files';
import { boardFonts } from './fonts';
import { encodePng, pixelsOf } from './pictures';
import { openPrint } from './print-picture';

/** Told how far an export has come, 0 to 1, and what it is at. */
export type Tell = (share: number, at: string) => void;

const quiet: Tell = () => undefined;

/** Brings the pictures to hand that finishes of one's own are made from. */
const bringImages = (project: Project, folder: string): Promise<void> =>
  fetchImages(Object.values(project.finishes), async (hash) => pixelsOf(await keptFile(folder, hash)));

/** @param folder the data folder that holds the files of the project */
export async function exportGlb(project: Project, folder: string, tell = quiet): Promise<Uint8Array<ArrayBuffer>> {
  tell(0, 'Working out the model');
  await bringImages(project, folder);
  const model = deriveModel(project);
  return writeGlb(model, { encode: encodePng, tell: (share) => tell(0.15 + 0.85 * share, 'Writing surfaces and textures') });
}

/** Dots an inch that pictures have on paper; finer ones are made as fine as this. */
const PRINT = 300;

/**
 * A picture as boards show it. One for print is developed from its full light where its small picture has too few pixels.
 *
 * @param width that it is shown in, pixels
 */
async function boardPicture(project: Project, hash: string, width: number, folder: string): Promise<Sharp> {
  const file = await keptFile(folder, hash);
  const own = Object.values(project.pictures).find((p) => p.image === hash && p.full !== null);
  if (!own || width <= ((await sharp(file).metadata()).width ?? 0)) return sharp(file);
  return (await openPrint(own, folder))!.shown();
}

export async function exportPdf(project: Project, board: Board, folder: string, tell = quiet): Promise<Uint8Array> {
  await bringImages(project, folder);
  return writeBoardPdf(project, board, {
    fonts: await boardFonts(),
    picture: async (hash, width) => {
      const pixels = Math.max(16, Math.round((width / 0.0254) * PRINT));
      const picture = (await boardPicture(project, hash, pixels, folder)).resize({ width: pixels, withoutEnlargement: true });
      const { isOpaque } = await sharp(await keptFile(folder, hash)).stats();
      return new Uint8Array(isOpaque ? await picture.jpeg({ quality: 95, chromaSubsampling: '4:4:4' }).toBuffer() : await picture.png().toBuffer());
    },
    tell: (share) => tell(share, 'Laying out pages'),
  });
}

/** The most pixels that are made of one thing on a page; what is larger is drawn coarser. */
const MOST = 4e6;

/**
 * One page of a board as PNG.
 *
 * @param width pixels of the page's width
 */
export async function exportPng(project: Project, board: Board, pageId: string | null, folder: string, tell = quiet, width = 2400): Promise<Buffer> {
  const page = pageId === null ? pagesOf(board)[0] : pagesOf(board).find((p) => p.id === pageId);
  if (!page) throw new DomainError('page.missing', 'The board has no such page.', [board.id]);
  await bringImages(project, folder);
  // A narrow, long page is as many pixels as a common one.
  const k = Math.min(width / board.paper.width, Math.sqrt(2e7 / (board.paper.width * board.paper.height)));
  const [pageWidth, pageHeight] = [Math.max(1, Math.round(board.paper.width * k)), Math.max(1, Math.round(board.paper.height * k))];
  const fonts = await boardFonts();
  const open = (bytes: Uint8Array): fontkit.Font => fontkit.create(Buffer.from(bytes)) as fontkit.Font;
  const faces = { sans: open(fonts.sans), serif: open(fonts.serif) };
  const layers: OverlayOptions[] = [];
  const texts: string[] = [];
  const write = ({ text, face: name, size, at, ink }: Extract<PageMark, { kind: 'words' }>): void => {
    const face = faces[name];
    const run = face.layout(text);
    const scale = (size * k) / face.unitsPerEm;
    let x = at.x * k;
    run.glyphs.forEach((glyph, i) => {
      const d = glyph.path.toSVG();
      if (d) texts.push(`<path fill="${INKS[ink]}" transform="translate(${x} ${(board.paper.height - at.y) * k}) scale(${scale} ${-scale})" d="${d}"/>`);
      x += run.positions[i].xAdvance * scale;
    });
  };
  const measure = (text: string, face: 'sans' | 'serif', size: number): number => (faces[face].layout(text).advanceWidth / faces[face].unitsPerEm) * size;
  const marks = pageMarks(project, board, page, measure);
  let background = page.ground;
  for (const [i, mark] of marks.entries()) {
    tell(i / (marks.length + 1), 'Laying out the page');
    if (mark.kind === 'words') write(mark);
    else if (mark.kind === 'fill') background = fillOf(mark);
    else {
      const [width, height] = [mark.max.x - mark.min.x, mark.max.y - mark.min.y];
      const out = mark.kind === 'shadow' ? SHADOW.blur : 0;
      const [dx, dy] = mark.kind === 'shadow' ? [SHADOW.dx, SHADOW.dy] : [0, 0];
      const box = {
        x: (mark.min.x - out + dx) * k,
        y: (board.paper.height - mark.max.y - out + dy) * k,
        width: (width + 2 * out) * k,
        height: (height + 2 * out) * k,
      };
      const layer = await lay(box, pageWidth, pageHeight, async (scale, w, h) => {
        if (mark.kind === 'shadow') return raw(shadowPicture(width, height, k * scale, mark.round));
        if (mark.shows.kind === 'picture') return (await boardPicture(project, mark.shows.hash, w, folder)).resize(w, h, { fit: 'fill' });
        return raw(makeSample(finishIn(project, mark.shows.finish), mark.shows.form, w, h, w * h > 1e6 ? 2 : 3));
      });
      if (layer) layers.push(layer);
    }
  }
  tell(marks.length / (marks.length + 1), 'Putting the page together');
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${pageWidth}" height="${pageHeight}">${texts.join('')}</svg>`;
  return sharp({ create: { width: pageWidth, height: pageHeight, channels: 3, background } })
    .composite([...layers, { input: Buffer.from(svg), left: 0, top: 0 }])
    .png()
    .toBuffer();
}

/** A made picture as something that can be cut and scaled. */
const raw = ({ pixels, width, height }: { pixels: Uint8ClampedArray; width: number; height: number }): Promise<Sharp> =>
  Promise.resolve(sharp(Buffer.from(pixels.buffer, pixels.byteOffset, pixels.length), { raw: { width, height, channels: 4 } }));

/**
 * Lays a thing on a page: what of it lies on the page, in the page's pixels. It is made whole, and coarser where it is
 * much larger than the page.
 *
 * @param make makes it in so many pixels, `scale` times as fine as the page
 */
async function lay(
  box: { x: number; y: number; width: number; height: number },
  pageWidth: number,
  pageHeight: number,
  make: (scale: number, width: number, height: number) => Promise<Sharp>,
): Promise<OverlayOptions | null> {
  const [left, top] = [Math.round(box.x), Math.round(box.y)];
  const [w, h] = [Math.max(1, Math.round(box.width)), Math.max(1, Math.round(box.height))];
  const [x0, y0, x1, y1] = [Math.max(0, left), Math.max(0, top), Math.min(pageWidth, left + w), Math.min(pageHeight, top + h)];
  if (x1 <= x0 || y1 <= y0) return null;
  const scale = Math.min(1, Math.sqrt(MOST / (w * h)));
  const made = await (await make(scale, Math.max(1, Math.round(w * scale)), Math.max(1, Math.round(h * scale)))).png({ compressionLevel: 1 }).toBuffer();
  const { width: mw, height: mh } = await sharp(made).metadata();
  if (mw === w && mh === h && x1 - x0 === w && y1 - y0 === h) return { input: made, left, top };
  const cut = (at: number, length: number, of: number): [number, number] => {
    const start = Math.min(of - 1, Math.max(0, Math.floor(at)));
    return [start, Math.max(1, Math.min(of - start, Math.round(length)))];
  };
  const [cx, cw] = cut(((x0 - left) / w) * mw, ((x1 - x0) / w) * mw, mw);
  const [cy, ch] = cut(((y0 - top) / h) * mh, ((y1 - y0) / h) * mh, mh);
  const input = await sharp(made)
    .extract({ left: cx, top: cy, width: cw, height: ch })
    .resize(x1 - x0, y1 - y0, { fit: 'fill' })
    .png({ compressionLevel: 1 })
    .toBuffer();
  return { input, left: x0, top: y0 };
}

/** The picture of a project's card: its latest picture, or else its plan. */
export async function thumbnail(project: Project, folder: string, width = 560, height = 350): Promise<Buffer> {
  const latest = Object.values(project.pictures).sort((a, b) => (a.made < b.made ? 1 : -1))[0];
  if (latest) {
    const made = await keptFile(folder, latest.image)
      .then((file) => sharp(file).resize(width, height, { fit: 'cover' }).png().toBuffer())
      .catch(() => null);
    if (made) return made;
  }
  const model = deriveModel(project);
  const level = model.shell.levels[0];
  const svg = displaySvg(level ? drawPlan(model, level.id, { labels: false, dimensions: false }) : [], width, height);
  return sharp(Buffer.from(svg)).png().toBuffer();
}
