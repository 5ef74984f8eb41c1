import fontkit from '@pdf-lib/fontkit';
import { PDFDocument, rgb, type PDFFont, type PDFImage } from 'pdf-lib';
import { itemsOf, layoutText, NOTE, pagesOf, type TextMeasure } from '../../boards/layout';
import { makeSample } from '../../boards/sample';
import { shadowPicture, SHADOW } from '../../boards/shadow';
import { finishIn } from '../../finishes/store';
import type { Board, Project } from '../../project/schema';
import { writePng } from '../png';

/** Points of a PDF per metre. */
export const POINTS_PER_METRE = 72 / 0.0254;

/** Pixels per metre of samples on paper: 200 dots an inch. */
const SAMPLE_DENSITY = 200 / 0.0254;

/** The most pixels of one sample. */
const SAMPLE_PIXELS = 1.8e6;

/** Pixels per metre of shadows, which are soft. */
const SHADOW_DENSITY = 2400;

export interface BoardFiles {
  /** Instrument Sans and Instrument Serif as font files fontkit reads. */
  fonts: { sans: Uint8Array; serif: Uint8Array };
  /** A picture of the project by content hash, as PNG or JPEG, fine enough to be printed so many metres wide. */
  picture(hash: string, width: number): Promise<Uint8Array>;
  /** Told how far it has come, 0 to 1. */
  tell?(share: number): void;
}

/**
 * A board as PDF: pages of true size, text as text with embedded fonts, pictures and samples as images with soft
 * shadows. Dates are left out, so that the same board gives the same bytes.
 */
export async function writeBoardPdf(project: Project, board: Board, files: BoardFiles): Promise<Uint8Array> {
  const pdf = await PDFDocument.create({ updateMetadata: false });
  pdf.registerFontkit(fontkit);
  pdf.setTitle(`${project.name}: ${board.name}`);
  pdf.setProducer('Enstegon');
  pdf.setCreator('Enstegon');
  const fonts = {
    sans: await pdf.embedFont(files.fonts.sans, { subset: true }),
    serif: await pdf.embedFont(files.fonts.serif, { subset: true }),
  };
  const k = POINTS_PER_METRE;
  const { width: pw, height: ph } = board.paper;
  const images = new Map<string, PDFImage>();
  const image = async (key: string, make: () => Promise<Uint8Array> | Uint8Array): Promise<PDFImage> => {
    let made = images.get(key);
    if (!made) {
      const bytes = await make();
      images.set(key, (made = await (bytes[0] === 0xff ? pdf.embedJpg(bytes) : pdf.embedPng(bytes))));
    }
    return made;
  };
  const total = Object.keys(board.items).length;
  let laid = 0;
  for (const page of pagesOf(board)) {
    const sheet = pdf.addPage([pw * k, ph * k]);
    const n = parseInt(page.ground.slice(1), 16);
    sheet.drawRectangle({ x: 0, y: 0, width: pw * k, height: ph * k, color: rgb(((n >> 16) & 255) / 255, ((n >> 8) & 255) / 255, (n & 255) / 255) });
    for (const item of itemsOf(board, page.id)) {
      files.tell?.(laid++ / total);
      const place = { x: item.x * k, y: (ph - item.y - item.height) * k, width: item.width * k, height: item.height * k };
      if (item.shadow && item.kind !== 'text') {
        const blur = SHADOW.blur;
        const shadow = await image(`shadow ${item.width.toFixed(4)} ${item.height.toFixed(4)}`, () => {
          const s = shadowPicture(item.width, item.height, SHADOW_DENSITY);
          return writePng(s.pixels, s.width, s.height);
        });
        sheet.drawImage(shadow, {
          x: (item.x - blur + SHADOW.dx) * k,
          y: (ph - item.y - item.height - blur - SHADOW.dy) * k,
          width: (item.width + 2 * blur) * k,
          height: (item.height + 2 * blur) * k,
        });
      }
      if (item.kind === 'picture') {
        const picture = project.pictures[item.picture];
        sheet.drawImage(await image(`${picture.image} ${item.width.toFixed(4)}`, () => files.picture(picture.image, item.width)), place);
      } else if (item.kind === 'sample') {
        const finish = finishIn(project, item.finish);
        // What is very large, or very long, is drawn coarser.
        const density = Math.min(SAMPLE_DENSITY, Math.sqrt(SAMPLE_PIXELS / (item.width * item.height)));
        const [w, h] = [item.width, item.height].map((side) => Math.max(12, Math.round(side * density)));
        const chip = await image(`sample ${item.finish} ${item.form} ${w} ${h}`, () => {
          const s = makeSample(finish, item.form, w, h, 3);
          return writePng(s.pixels, s.width, s.height);
        });
        sheet.drawImage(chip, place);
        drawNote(sheet, fonts.sans, item.note || finish.name, item.x * k, (ph - item.y - item.height) * k);
      } else {
        const font = item.face === 'serif' ? fonts.serif : fonts.sans;
        const measure: TextMeasure = (text) => font.widthOfTextAtSize(text, item.size * k) / k;
        for (const line of layoutText(item, measure))
          sheet.drawText(line.text, { x: line.x * k, y: (ph - line.y) * k, size: item.size * k, font, color: rgb(0.114, 0.118, 0.114) });
      }
    }
  }
  return pdf.save();
}

function drawNote(sheet: ReturnType<PDFDocument['addPage']>, font: PDFFont, note: string, x: number, y: number): void {
  sheet.drawText(note, { x, y: y - NOTE.drop * POINTS_PER_METRE, size: NOTE.size * POINTS_PER_METRE, font, color: rgb(0.365, 0.369, 0.357) });
}
