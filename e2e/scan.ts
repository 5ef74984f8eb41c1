import { PDFDocument } from 'pdf-lib';
import sharp from 'sharp';
import { fromPixels } from '../src/core/project/underlay';
import type { Underlay } from '../src/core/project/schema';
import type { Studio } from './studio';

/** A plan of known size as a scanner gives it: stretched along, and laid on a little crooked. */
const TRUE = { width: 8, depth: 6 };
export const SCAN = { k: 100, stretch: 1.04, turned: 2, width: 1100, height: 800 };

/** The corners of the scanned outline, in pixels from the middle of the picture, x to the right, y up. */
const scanned = (x: number, y: number): { x: number; y: number } => {
  // As the paper lay: turned first, stretched by the scanner then.
  const a = (SCAN.turned * Math.PI) / 180;
  const [u, v] = [(x - TRUE.width / 2) * SCAN.k, (y - TRUE.depth / 2) * SCAN.k];
  return { x: (u * Math.cos(a) - v * Math.sin(a)) * SCAN.stretch, y: u * Math.sin(a) + v * Math.cos(a) };
};

export async function scan(): Promise<Buffer> {
  const [w, h] = [SCAN.width, SCAN.height];
  const path = [
    [0, 0],
    [8, 0],
    [8, 6],
    [0, 6],
  ]
    .map(([x, y]) => scanned(x, y))
    .map((p) => `${w / 2 + p.x} ${h / 2 - p.y}`)
    .join('L');
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${w}" height="${h}"><rect width="100%" height="100%" fill="#f3efe6"/><path d="M${path}Z" fill="none" stroke="#333" stroke-width="26" stroke-linejoin="miter"/></svg>`;
  return sharp(Buffer.from(svg)).png().toBuffer();
}

/** The same scan on the only page of a PDF. */
export async function scanPdf(): Promise<Buffer> {
  const pdf = await PDFDocument.create();
  const page = pdf.addPage([SCAN.width, SCAN.height]);
  page.drawImage(await pdf.embedPng(await scan()), { x: 0, y: 0, width: SCAN.width, height: SCAN.height });
  return Buffer.from(await pdf.save());
}

/** Where a corner of the true outline lies in the plan by the underlay as it is. A page of a PDF is drawn larger. */
export const onPlan = (underlay: Underlay, x: number, y: number): { x: number; y: number } => {
  const k = underlay.pixels.width / SCAN.width;
  const p = scanned(x, y);
  return fromPixels(underlay, { x: p.x * k, y: p.y * k });
};

/** Presses a corner of the outline as it shows on the scan. */
export async function pressScan(studio: Studio, x: number, y: number): Promise<void> {
  const { underlay } = (await studio.project()).levels.ground;
  const p = onPlan(underlay!, x, y);
  await studio.press(p.x, p.y);
}
