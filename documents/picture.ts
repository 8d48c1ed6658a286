import { PDFDocument, popGraphicsState, pushGraphicsState, setTextRenderingMode, StandardFonts, TextRenderingMode } from '@cantoo/pdf-lib';
import type { Invoice } from './invoice.ts';
import { makePdf } from './maker.ts';
import { paperFile, wornPage, type Wear } from './paper.ts';

/** Invoices on paper, as a scanner, a fax or a phone delivers them: words that no text layer has. `format` tiff and fax give one page for each. */
export async function pictureOf(
  invoices: Invoice[],
  format: 'png' | 'jpeg' | 'tiff' | 'fax' = 'png',
  wear: Wear = {},
): Promise<Uint8Array> {
  const pages = [];
  for (const [i, invoice] of invoices.entries()) pages.push(await wornPage(await makePdf(invoice), 1, { seed: i + 1, skew: 0.7, ...wear }));
  return paperFile(pages, format, wear.dpi ?? 200);
}

/** A letter with a picture pasted into it, as a PDF: words at their places, in points from the top, and the picture in a box. */
export async function pastedPdf(
  words: { text: string; x: number; y: number; size: number }[],
  picture: Uint8Array,
  box: { x: number; y: number; w: number; h: number },
): Promise<Uint8Array> {
  const file = await PDFDocument.create(),
    page = file.addPage([595, 842]),
    font = await file.embedFont(StandardFonts.Helvetica);
  for (const { text, x, y, size } of words) page.drawText(text, { x, y: 842 - y, size, font });
  page.drawImage(await file.embedPng(picture), { x: box.x, y: 842 - box.y - box.h, width: box.w, height: box.h });
  return file.save();
}

/** Pictures as pages of a PDF, as a scanner makes it: no text, only the pictures. `hidden` is what the scanner's own recogniser put behind each. */
export async function scannedPdf(pictures: Uint8Array[], hidden: string | null = null): Promise<Uint8Array> {
  const file = await PDFDocument.create();
  for (const bytes of pictures) {
    const image = bytes[0] === 0xff ? await file.embedJpg(bytes) : await file.embedPng(bytes);
    const page = file.addPage([595, 842]);
    if (hidden) {
      page.pushOperators(pushGraphicsState(), setTextRenderingMode(TextRenderingMode.Invisible));
      hidden.split('\n').forEach((line, i) => page.drawText(line, { x: 60, y: 780 - i * 14, size: 10 }));
      page.pushOperators(popGraphicsState());
    }
    page.drawImage(image, { x: 0, y: 0, width: 595, height: 842 });
  }
  return file.save();
}
