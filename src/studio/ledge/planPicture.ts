import { INKS } from '@/core/drawing/inks';

export const PDF_TYPE = 'application/pdf';

/** The longer side a page of a PDF is drawn at, and the most a picture may have, pixels. */
const PAGE_PIXELS = 3000;
const MOST_PIXELS = 60e6;
const MOST_BYTES = 80 * 1024 * 1024;

export type PlanPicture = { ok: true; png: Blob; pixels: { width: number; height: number }; pages: number } | { ok: false; message: string };

const refuse = (message: string): PlanPicture => ({ ok: false, message });

/** A scanned plan as PNG: a picture as it is, or one page of a PDF drawn large enough to trace. */
export async function planPicture(file: File, page = 1): Promise<PlanPicture> {
  if (file.size > MOST_BYTES) return refuse(`${file.name} was not taken in: it has more than 80 MB; make it smaller first.`);
  const head = new Uint8Array(await file.slice(0, 8).arrayBuffer());
  const starts = (...bytes: number[]): boolean => bytes.every((b, i) => head[i] === b);
  if (starts(0x25, 0x50, 0x44, 0x46)) return pdfPage(file, page);
  if (!starts(0x89, 0x50, 0x4e, 0x47) && !starts(0xff, 0xd8, 0xff)) return refuse(`${file.name} was not taken in: it is neither a PNG, a JPEG nor a PDF.`);
  let bitmap: ImageBitmap;
  try {
    bitmap = await createImageBitmap(file);
  } catch {
    return refuse(`${file.name} was not taken in: the picture is damaged and can’t be read.`);
  }
  if (bitmap.width * bitmap.height > MOST_PIXELS) return refuse(`${file.name} was not taken in: it has more than 60 million pixels; make it smaller first.`);
  const canvas = new OffscreenCanvas(bitmap.width, bitmap.height);
  const context = canvas.getContext('2d')!;
  context.fillStyle = INKS.paper;
  context.fillRect(0, 0, canvas.width, canvas.height);
  context.drawImage(bitmap, 0, 0);
  return { ok: true, png: await canvas.convertToBlob({ type: 'image/png' }), pixels: { width: bitmap.width, height: bitmap.height }, pages: 1 };
}

async function pdfPage(file: File, number: number): Promise<PlanPicture> {
  const pdfjs = await import('pdfjs-dist');
  pdfjs.GlobalWorkerOptions.workerSrc = new URL('pdfjs-dist/build/pdf.worker.min.mjs', import.meta.url).toString();
  try {
    const document = await pdfjs.getDocument({ data: new Uint8Array(await file.arrayBuffer()) }).promise;
    if (number > document.numPages) return refuse(`Page ${number} was not taken in: the PDF has ${document.numPages} pages.`);
    const page = await document.getPage(number);
    const plain = page.getViewport({ scale: 1 });
    const viewport = page.getViewport({ scale: PAGE_PIXELS / Math.max(plain.width, plain.height) });
    const canvas = globalThis.document.createElement('canvas');
    canvas.width = Math.round(viewport.width);
    canvas.height = Math.round(viewport.height);
    await page.render({ canvas, viewport, background: INKS.paper }).promise;
    const png = await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/png'));
    if (!png) return refuse(`${file.name} was not taken in: its page can’t be drawn here.`);
    return { ok: true, png, pixels: { width: canvas.width, height: canvas.height }, pages: document.numPages };
  } catch {
    return refuse(`${file.name} was not taken in: the PDF is damaged or protected and can’t be read.`);
  }
}
