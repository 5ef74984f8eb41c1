import fontkit from '@pdf-lib/fontkit';
import { PDFDocument, rgb, type PDFImage, type RGB } from 'pdf-lib';
import { pagesOf } from '../../boards/layout';
import { pageMarks } from '../../boards/page';
import { makeSample } from '../../boards/sample';
import { shadowPicture, SHADOW } from '../../boards/shadow';
import { fillOf, INKS } from '../../drawing/inks';
import { fromLinear, hexToLinear } from '../../finishes/colour';
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
  const measure = (text: string, face: 'sans' | 'serif', size: number): number => fonts[face].widthOfTextAtSize(text, size * k) / k;
  const pages = pagesOf(board).map((page) => pageMarks(project, board, page, measure));
  const total = pages.reduce((sum, marks) => sum + marks.length, 0);
  let laid = 0;
  for (const marks of pages) {
    const sheet = pdf.addPage([pw * k, ph * k]);
    for (const mark of marks) {
      files.tell?.(laid++ / total);
      if (mark.kind === 'fill') {
        const color = colourOf(fillOf(mark));
        for (const ring of mark.rings) sheet.drawSvgPath(`M${ring.map((p) => `${p.x * k} ${-p.y * k}`).join('L')}Z`, { x: 0, y: 0, color });
        continue;
      }
      if (mark.kind === 'words') {
        sheet.drawText(mark.text, { x: mark.at.x * k, y: mark.at.y * k, size: mark.size * k, font: fonts[mark.face], color: colourOf(INKS[mark.ink]) });
        continue;
      }
      const [width, height] = [mark.max.x - mark.min.x, mark.max.y - mark.min.y];
      if (mark.kind === 'shadow') {
        const { blur, dx, dy } = SHADOW;
        const shadow = await image(`shadow ${width.toFixed(4)} ${height.toFixed(4)} ${mark.round}`, () => {
          const s = shadowPicture(width, height, SHADOW_DENSITY, mark.round);
          return writePng(s.pixels, s.width, s.height);
        });
        sheet.drawImage(shadow, {
          x: (mark.min.x - blur + dx) * k,
          y: (mark.min.y - blur - dy) * k,
          width: (width + 2 * blur) * k,
          height: (height + 2 * blur) * k,
        });
        continue;
      }
      const { shows } = mark;
      const place = { x: mark.min.x * k, y: mark.min.y * k, width: width * k, height: height * k };
      if (shows.kind === 'picture') sheet.drawImage(await image(`${shows.hash} ${width.toFixed(4)}`, () => files.picture(shows.hash, width)), place);
      else {
        // What is very large, or very long, is drawn coarser.
        const density = Math.min(SAMPLE_DENSITY, Math.sqrt(SAMPLE_PIXELS / (width * height)));
        const [w, h] = [width, height].map((side) => Math.max(12, Math.round(side * density)));
        const chip = await image(`sample ${shows.finish} ${shows.form} ${w} ${h}`, () => {
          const s = makeSample(finishIn(project, shows.finish), shows.form, w, h, 3);
          return writePng(s.pixels, s.width, s.height);
        });
        sheet.drawImage(chip, place);
      }
    }
  }
  return pdf.save();
}

function colourOf(hex: string): RGB {
  const [r, g, b] = hexToLinear(hex).map(fromLinear);
  return rgb(r, g, b);
}
