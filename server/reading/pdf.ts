import { OPS, type PDFDocumentProxy } from './pdfjs.mjs';
import { wordsOf, type Page, type TextRun } from '@ledgerline/core/page';
import { picturesOn, type Operators, type Placed } from '../imaging/raster.ts';
import { multiply, openPdf, UnreadablePdf } from './open.ts';
import { mayHideText } from './streams.ts';

export interface PdfLimits {
  pages: number;
  runsPerPage: number;
}
export const pdfLimits: PdfLimits = { pages: 200, runsPerPage: 40_000 };

/** What a PDF holds: its pages as words with boxes, and e-invoice data that stands inside it. */
export interface PdfContent {
  pages: Page[];
  /** Places in `pages` of those to be read as pictures: without visible text, scans with hidden text behind them, and text whose figures stand in a picture. */
  pictured: number[];
  /** Pages in the whole file. */ count: number;
  xml: Uint8Array[];
}
/** A page to be read, by its number in the file, turned clockwise. */
export interface Wanted {
  page: number;
  turn: number;
}

const most = 20 * 1024 * 1024;

/**
 * The content of a PDF. Pages without text come without words. Scripts and forms are never run; of what is attached only XML is
 * looked at. Throws UnreadablePdf for a file that can't be opened, has no pages, or too many.
 */
export async function contentOfPdf(bytes: Uint8Array, limits: PdfLimits = pdfLimits, wanted: Wanted[] | null = null): Promise<PdfContent> {
  if (bytes.length === 0) throw new UnreadablePdf('empty');
  const hides = mayHideText(bytes),
    pdf = await openPdf(bytes);
  try {
    if (pdf.numPages > limits.pages) throw new UnreadablePdf('too-many-pages', pdf.numPages);
    const list = wanted ?? Array.from({ length: pdf.numPages }, (_, i) => ({ page: i + 1, turn: 0 }));
    const pages: Page[] = [],
      pictured: number[] = [],
      sparse: (Wanted & { at: number })[] = [];
    for (const { page, turn } of list) {
      if (page > pdf.numPages) continue;
      const { visible, ...read } = await readPage(pdf, page, turn, limits, hides);
      if (!visible) pictured.push(pages.length);
      else if (read.words.filter((w) => figure.test(w.text)).length < fewFigures) sparse.push({ page, turn, at: pages.length });
      pages.push(read);
    }
    if (sparse.length > 0) pictured.push(...(await withTablePictures(await pdf.getData(), sparse, pages)));
    if (pages.length === 0) throw new UnreadablePdf('empty');
    const attached = Object.values(((await pdf.getAttachments()) ?? {}) as Record<string, { filename: string; content: Uint8Array }>);
    return {
      pages,
      pictured,
      count: pdf.numPages,
      xml: attached.filter((a) => /\.xml$/i.test(a.filename) && a.content.length < most).map((a) => new Uint8Array(a.content)),
    };
  } catch (error) {
    throw error instanceof UnreadablePdf ? error : new UnreadablePdf('broken');
  } finally {
    await pdf.destroy();
  }
}

export const pagesOfPdf = async (bytes: Uint8Array, limits: PdfLimits = pdfLimits): Promise<Page[]> =>
  (await contentOfPdf(bytes, limits)).pages;

async function readPage(
  pdf: PDFDocumentProxy,
  number: number,
  turn: number,
  limits: PdfLimits,
  /** Its text may be invisible: that takes a second look. */ hides: boolean,
): Promise<Page & { visible: boolean }> {
  const page = await pdf.getPage(number);
  const { width, height, transform: view } = page.getViewport({ scale: 1, rotation: (page.rotate + turn) % 360 });
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
  const words = wordsOf(runs),
    visible = words.length >= fewWords && (!hides || showsText(await page.getOperatorList()));
  page.cleanup();
  return { number, width, height, words: visible ? words : [], visible };
}

/** An amount as it is printed; a page of text with fewer is no invoice, or its table is a picture. */
const figure = /\d[.,]\d{2}(?!\d)/,
  fewFigures = 3;

/** Pictures of more pixels are none of a table, and a file with more pages of text without amounts is a booklet. */
const tableLimits = { pixels: 40_000_000, pages: 10 };

/**
 * Which of some pages of text have a picture that may hold a table, as one that was pasted in: large and sharp enough, and without text
 * of the page in it. Gives their places in `pages`.
 */
async function withTablePictures(bytes: Uint8Array, sparse: (Wanted & { at: number })[], pages: Page[]): Promise<number[]> {
  const pdf = await openPdf(bytes, { pictures: tableLimits.pixels, known: true });
  try {
    const out: number[] = [];
    for (const { page: number, turn, at } of sparse.slice(0, tableLimits.pages)) {
      const page = await pdf.getPage(number),
        { width, height, words } = pages[at]!;
      const { transform } = page.getViewport({ scale: 1, rotation: (page.rotate + turn) % 360 });
      const within = (p: Placed) => words.filter((w) => w.x > p.x && w.x < p.x + p.w && w.y > p.y && w.y < p.y + p.h).length;
      if (
        picturesOn(await page.getOperatorList(), transform).some(
          (p) => p.w * p.h > width * height * 0.12 && p.dpi > 60 && within(p) < fewWords,
        )
      )
        out.push(at);
      page.cleanup();
    }
    return out;
  } catch {
    // A picture that breaks takes nothing from the text beside it.
    return [];
  } finally {
    await pdf.destroy();
  }
}

/** Fewer words than this are a stamp or a footer that a scanner's driver wrote over its picture. */
const fewWords = 5;

/** Whether a page shows text at all: a scanner's own recogniser puts its text behind the picture, invisible (ISO 32000-1, 9.3.6: mode 3). */
function showsText({ fnArray, argsArray }: Operators): boolean {
  let mode = 0;
  for (const [i, op] of fnArray.entries()) {
    if (op === OPS.setTextRenderingMode) mode = (argsArray[i] as number[])[0]!;
    else if ((op === OPS.showText || op === OPS.showSpacedText) && mode !== 3 && mode !== 7) return true;
  }
  return false;
}
