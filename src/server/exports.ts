import * as fontkit from 'fontkit';
import sharp, { type OverlayOptions } from 'sharp';
import { itemsOf, layoutText, NOTE, pagesOf } from '@/core/boards/layout';
import { makeSample } from '@/core/boards/sample';
import { SHADOW, shadowPicture } from '@/core/boards/shadow';
import { fetchImages, finishIn } from '@/core/finishes/store';
import { writeBoardPdf } from '@/core/formats/pdf/board-pdf';
import { writeGlb } from '@/core/formats/glb/glb';
import { readPixels } from '@/core/formats/png';
import { DomainError } from '@/core/project/errors';
import type { Board, Project } from '@/core/project/schema';
import { drawPlan } from '@/core/drawing/plan/plan';
import { displaySvg } from '@/core/drawing/svg';
import type { Model } from '@/core/derive';
import type { FileStore } from './files';
import { boardFonts } from './fonts';

/** A board of a project, the first one if none is named. */
export function boardOf(project: Project, id: string | null): Board {
  const board = id ? project.boards[id] : Object.values(project.boards)[0];
  if (!board) throw new DomainError('board.missing', 'There is no such board in the project.', id ? [id] : []);
  return board;
}

/** Brings the pictures to hand that finishes of one's own are made from. */
const bringImages = (project: Project, files: FileStore): Promise<void> =>
  fetchImages(Object.values(project.finishes), async (hash) => readPixels(new Uint8Array((await files.read(hash)).bytes)));

export async function exportGlb(model: Model, files: FileStore): Promise<Uint8Array<ArrayBuffer>> {
  await bringImages(model.project, files);
  return writeGlb(model);
}

export async function exportPdf(project: Project, board: Board, files: FileStore): Promise<Uint8Array> {
  await bringImages(project, files);
  return writeBoardPdf(project, board, { fonts: await boardFonts(), asset: async (hash) => new Uint8Array((await files.read(hash)).bytes) });
}

/**
 * One page of a board as PNG.
 *
 * @param width pixels of the page's width
 */
export async function exportPng(project: Project, board: Board, pageId: string | null, files: FileStore, width = 2400): Promise<Buffer> {
  const page = pagesOf(board).find((p) => p.id === pageId) ?? pagesOf(board)[0];
  if (!page) throw new DomainError('page.missing', 'The board has no page.', [board.id]);
  await bringImages(project, files);
  const k = width / board.paper.width;
  const height = Math.round(board.paper.height * k);
  const fonts = await boardFonts();
  const open = (bytes: Uint8Array): fontkit.Font => fontkit.create(Buffer.from(bytes)) as fontkit.Font;
  const faces = { sans: open(fonts.sans), serif: open(fonts.serif) };
  const layers: OverlayOptions[] = [];
  const texts: string[] = [];
  const write = (text: string, face: fontkit.Font, size: number, x: number, y: number): void => {
    const run = face.layout(text);
    const scale = size / face.unitsPerEm;
    let at = 0;
    run.glyphs.forEach((glyph, i) => {
      const d = glyph.path.toSVG();
      if (d) texts.push(`<path transform="translate(${x + at * scale} ${y}) scale(${scale} ${-scale})" d="${d}"/>`);
      at += run.positions[i].xAdvance;
    });
  };
  for (const item of itemsOf(board, page.id)) {
    const [w, h] = [Math.max(1, Math.round(item.width * k)), Math.max(1, Math.round(item.height * k))];
    if (item.kind === 'text') {
      const face = item.face === 'serif' ? faces.serif : faces.sans;
      const measure = (text: string): number => (face.layout(text).advanceWidth / face.unitsPerEm) * item.size;
      for (const line of layoutText(item, measure)) write(line.text, face, item.size * k, line.x * k, line.y * k);
      continue;
    }
    if (item.shadow) {
      const s = shadowPicture(item.width, item.height, k);
      layers.push({ input: await raw(s), left: Math.round((item.x - SHADOW.blur + SHADOW.dx) * k), top: Math.round((item.y - SHADOW.blur + SHADOW.dy) * k) });
    }
    const input =
      item.kind === 'picture'
        ? await sharp((await files.read(project.pictures[item.picture].image)).bytes)
            .resize(w, h, { fit: 'fill' })
            .png()
            .toBuffer()
        : await raw(makeSample(finishIn(project, item.finish), item.form, w, h, 3));
    layers.push({ input, left: Math.round(item.x * k), top: Math.round(item.y * k) });
    if (item.kind === 'sample')
      write(item.note || finishIn(project, item.finish).name, faces.sans, NOTE.size * k, item.x * k, (item.y + item.height + NOTE.drop) * k);
  }
  // What reaches over the edge of the page is cut there.
  const visible = await Promise.all(layers.map((layer) => crop(layer, width, height)));
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" fill="#1d1e1d">${texts.join('')}</svg>`;
  return sharp({ create: { width, height, channels: 3, background: page.ground } })
    .composite([...visible.filter((l) => l !== null), { input: Buffer.from(svg), left: 0, top: 0 }])
    .png()
    .toBuffer();
}

const raw = ({ pixels, width, height }: { pixels: Uint8ClampedArray; width: number; height: number }): Promise<Buffer> =>
  sharp(Buffer.from(pixels.buffer, pixels.byteOffset, pixels.length), { raw: { width, height, channels: 4 } })
    .png()
    .toBuffer();

async function crop(layer: OverlayOptions, width: number, height: number): Promise<OverlayOptions | null> {
  const { width: w = 0, height: h = 0 } = await sharp(layer.input as Buffer).metadata();
  const [left, top] = [layer.left ?? 0, layer.top ?? 0];
  const [x0, y0, x1, y1] = [Math.max(0, left), Math.max(0, top), Math.min(width, left + w), Math.min(height, top + h)];
  if (x1 <= x0 || y1 <= y0) return null;
  if (x1 - x0 === w && y1 - y0 === h) return layer;
  const input = await sharp(layer.input as Buffer)
    .extract({ left: x0 - left, top: y0 - top, width: x1 - x0, height: y1 - y0 })
    .toBuffer();
  return { input, left: x0, top: y0 };
}

/** The picture of a project's card: its latest picture, or else its plan. */
export async function thumbnail(model: Model, files: FileStore, width = 560, height = 350): Promise<Buffer> {
  const latest = Object.values(model.project.pictures).sort((a, b) => (a.made < b.made ? 1 : -1))[0];
  if (latest) {
    const file = await files.read(latest.image).catch(() => null);
    if (file) return sharp(file.bytes).resize(width, height, { fit: 'cover' }).png().toBuffer();
  }
  const level = model.shell.levels[0];
  const svg = displaySvg(level ? drawPlan(model, level.id, { labels: false, dimensions: false }) : [], width, height);
  return sharp(Buffer.from(svg)).png().toBuffer();
}
