import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { getDocument, VerbosityLevel, type PDFDocumentProxy } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { wordsOf, type Page, type TextRun } from '@ledgerline/core/page';

const folder = dirname(createRequire(import.meta.url).resolve('pdfjs-dist/package.json'));

export interface PdfLimits { pages: number; runsPerPage: number }
export const pdfLimits: PdfLimits = { pages: 200, runsPerPage: 40_000 };

/** Why a PDF can't be read, as a code; the words for people are in `reading/notes.ts`. */
export type PdfFault = 'encrypted' | 'broken' | 'empty' | 'too-many-pages' | 'no-text';

export class UnreadablePdf extends Error {
  constructor(readonly fault: PdfFault, readonly pages = 0) { super(fault); }
}

async function open(bytes: Uint8Array): Promise<PDFDocumentProxy> {
  try {
    return await getDocument({
      data: bytes, verbosity: VerbosityLevel.ERRORS, isEvalSupported: false, useSystemFonts: false, disableFontFace: true,
      enableXfa: false, stopAtErrors: false, maxImageSize: 1,
      standardFontDataUrl: `${join(folder, 'standard_fonts')}/`, cMapUrl: `${join(folder, 'cmaps')}/`, cMapPacked: true,
    }).promise;
  } catch (error) {
    throw new UnreadablePdf(error instanceof Error && error.name === 'PasswordException' ? 'encrypted' : 'broken');
  }
}

/**
 * The pages of a digital PDF as words with boxes. Scripts, forms and attachments are never run or opened.
 * Throws UnreadablePdf for a file that can't be opened, has no pages, too many, or no text at all.
 */
export async function pagesOfPdf(bytes: Uint8Array, limits: PdfLimits = pdfLimits): Promise<Page[]> {
  if (bytes.length === 0) throw new UnreadablePdf('empty');
  const pdf = await open(bytes);
  try {
    if (pdf.numPages > limits.pages) throw new UnreadablePdf('too-many-pages', pdf.numPages);
    const pages: Page[] = [];
    for (let number = 1; number <= pdf.numPages; number++) pages.push(await readPage(pdf, number, limits));
    if (pages.length === 0) throw new UnreadablePdf('empty');
    if (pages.every((page) => page.words.length === 0)) throw new UnreadablePdf('no-text', pages.length);
    return pages;
  } catch (error) {
    throw error instanceof UnreadablePdf ? error : new UnreadablePdf('broken');
  } finally {
    await pdf.destroy();
  }
}

async function readPage(pdf: PDFDocumentProxy, number: number, limits: PdfLimits): Promise<Page> {
  const page = await pdf.getPage(number);
  const { width, height, transform: view } = page.getViewport({ scale: 1 });
  const content = await page.getTextContent({ includeMarkedContent: false });
  const runs: TextRun[] = [];
  for (const item of content.items.slice(0, limits.runsPerPage)) {
    if (!('str' in item) || item.str === '') continue;
    const t = multiply(view, item.transform as number[]);
    const size = Math.hypot(t[2]!, t[3]!);
    // Text turned against the page (stamps, side notes) is left out.
    if (size < 2 || Math.abs(t[1]!) > 0.2 * Math.hypot(t[0]!, t[1]!) || t[0]! < 0) continue;
    runs.push({ text: item.str.normalize('NFKC'), x: t[4]!, y: t[5]!, width: item.width, size, font: item.fontName });
  }
  page.cleanup();
  return { number, width, height, words: wordsOf(runs) };
}

/** Product of two PDF transformation matrices (ISO 32000-1, 8.3.3). */
function multiply(a: number[], b: number[]): number[] {
  const [a0 = 1, a1 = 0, a2 = 0, a3 = 1, a4 = 0, a5 = 0] = a;
  const [b0 = 1, b1 = 0, b2 = 0, b3 = 1, b4 = 0, b5 = 0] = b;
  return [a0 * b0 + a2 * b1, a1 * b0 + a3 * b1, a0 * b2 + a2 * b3, a1 * b2 + a3 * b3, a0 * b4 + a2 * b5 + a4, a1 * b4 + a3 * b5 + a5];
}
