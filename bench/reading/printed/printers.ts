import { chromium, type Browser } from '@playwright/test';
import { jsPDF } from 'jspdf';
import PdfKit from 'pdfkit';
import type { Drawn, Sheet } from '../sheet.ts';

/** Draws a sheet as a PDF in its own way: how it cuts text into runs, encodes letters and embeds faces differs. */
export type Printer = (sheet: Sheet) => Promise<Uint8Array>;

const pagesOf = (sheet: Sheet): Drawn[][] => Array.from({ length: sheet.page }, (_, i) => sheet.drawn.filter((d) => d.page === i + 1));

const kitFaces = {
  sans: ['Helvetica', 'Helvetica-Bold'],
  serif: ['Times-Roman', 'Times-Bold'],
  mono: ['Courier', 'Courier-Bold'],
} as const;

async function withPdfKit(sheet: Sheet): Promise<Uint8Array> {
  const pdf = new PdfKit({ autoFirstPage: false, info: { CreationDate: new Date('2026-11-16T09:00:00Z') } });
  const chunks: Buffer[] = [];
  const done = new Promise<Uint8Array>((resolve) =>
    pdf.on('data', (c: Buffer) => chunks.push(c)).on('end', () => resolve(new Uint8Array(Buffer.concat(chunks)))),
  );
  for (const drawn of pagesOf(sheet)) {
    pdf.addPage({ size: [sheet.width, sheet.height], margin: 0 });
    for (const { text, x, y, size, bold } of drawn)
      pdf
        .font(kitFaces[sheet.look.font][bold ? 1 : 0])
        .fontSize(size)
        .text(text, x, y, { lineBreak: false, baseline: 'alphabetic' });
  }
  pdf.end();
  return done;
}

const jsFaces = { sans: 'helvetica', serif: 'times', mono: 'courier' } as const;

async function withJsPdf(sheet: Sheet): Promise<Uint8Array> {
  const format: [number, number] = [sheet.width, sheet.height],
    orientation = sheet.width > sheet.height ? 'landscape' : 'portrait';
  const pdf = new jsPDF({ unit: 'pt', format, orientation });
  for (const [i, drawn] of pagesOf(sheet).entries()) {
    if (i > 0) pdf.addPage(format, orientation);
    for (const { text, x, y, size, bold } of drawn) {
      pdf.setFont(jsFaces[sheet.look.font], bold ? 'bold' : 'normal');
      pdf.setFontSize(size);
      pdf.text(text, x, y);
    }
  }
  return new Uint8Array(pdf.output('arraybuffer'));
}

const webFaces = { sans: 'sans-serif', serif: 'serif', mono: 'monospace' } as const;
const escaped = (text: string): string => text.replace(/[&<>"]/g, (c) => `&#${c.charCodeAt(0)};`);

/** One picture in vectors a page; each text as wide as it was meant, whatever faces the browser has. */
function markup(sheet: Sheet): string {
  const texts = (drawn: Drawn[]) =>
    drawn
      .map(
        (d) =>
          `<text xml:space="preserve" x="${d.x}" y="${d.y}" font-size="${d.size}" font-weight="${d.bold ? 700 : 400}" textLength="${sheet.measure(d.text, d.size, d.bold)}" lengthAdjust="spacingAndGlyphs">${escaped(d.text)}</text>`,
      )
      .join('');
  const pages = pagesOf(sheet).map(
    (drawn) =>
      `<svg width="${sheet.width}pt" height="${sheet.height}pt" viewBox="0 0 ${sheet.width} ${sheet.height}" font-family="${webFaces[sheet.look.font]}">${texts(drawn)}</svg>`,
  );
  return `<style>@page{size:${sheet.width}pt ${sheet.height}pt;margin:0}body{margin:0}svg{display:block;break-after:page}svg:last-child{break-after:auto}</style>${pages.join('')}`;
}

function withBrowser(browser: Browser): Printer {
  return async (sheet) => {
    const page = await browser.newPage();
    try {
      await page.setContent(markup(sheet));
      return new Uint8Array(await page.pdf({ preferCSSPageSize: true }));
    } finally {
      await page.close();
    }
  };
}

/** Three libraries that programs make PDFs with. */
export const libraries: Record<string, Printer> = { 'pdf-lib': (sheet) => sheet.pdf(), pdfkit: withPdfKit, jspdf: withJsPdf };

/** The libraries and a browser; `close` when nothing is to be printed any more. */
export async function openPrinters(): Promise<{ printers: Record<string, Printer>; close(): Promise<void> }> {
  const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] });
  return { printers: { ...libraries, browser: withBrowser(browser) }, close: () => browser.close() };
}
