import { PDFDocument, rgb, StandardFonts, type PDFFont } from '@cantoo/pdf-lib';
import { wordsOf, type Page, type TextRun } from '@ledgerline/core/page';
import type { Look } from './look.ts';

export interface Drawn {
  page: number;
  text: string;
  x: number;
  y: number;
  size: number;
  bold: boolean;
  white: boolean;
}
interface Faces {
  regular: PDFFont;
  bold: PDFFont;
}

const families = {
  sans: [StandardFonts.Helvetica, StandardFonts.HelveticaBold],
  serif: [StandardFonts.TimesRoman, StandardFonts.TimesRomanBold],
  mono: [StandardFonts.Courier, StandardFonts.CourierBold],
} as const;
const pdfs = await PDFDocument.create();
const faces: Record<Look['font'], Faces> = {
  sans: { regular: await pdfs.embedFont(families.sans[0]), bold: await pdfs.embedFont(families.sans[1]) },
  serif: { regular: await pdfs.embedFont(families.serif[0]), bold: await pdfs.embedFont(families.serif[1]) },
  mono: { regular: await pdfs.embedFont(families.mono[0]), bold: await pdfs.embedFont(families.mono[1]) },
};

export interface Style {
  size?: number;
  bold?: boolean;
  align?: 'left' | 'right' | 'centre';
  white?: boolean;
}

/** Paper to draw text on; afterwards it is pages of words, as the text layer would give them, or a PDF. */
export class Sheet {
  readonly drawn: Drawn[] = [];
  page = 1;
  y = 0;
  constructor(readonly look: Look) {}
  get width(): number {
    return this.look.paper[0];
  }
  get height(): number {
    return this.look.paper[1];
  }
  get left(): number {
    return this.look.margin;
  }
  get right(): number {
    return this.width - this.look.margin;
  }

  measure(text: string, size = this.look.size, bold = false): number {
    return faces[this.look.font][bold ? 'bold' : 'regular'].widthOfTextAtSize(text, size);
  }

  text(text: string, x: number, y: number, { size = this.look.size, bold = false, align = 'left', white = false }: Style = {}): void {
    if (text === '') return;
    const width = this.measure(text, size, bold);
    this.drawn.push({
      page: this.page,
      text,
      x: align === 'right' ? x - width : align === 'centre' ? x - width / 2 : x,
      y,
      size,
      bold,
      white,
    });
  }

  nextPage(): void {
    this.page++;
    this.y = 0;
  }

  /** A piece of text as the producing program would write it: whole, by word, or by letter. */
  #runs({ text, x, y, size, bold }: Drawn): TextRun[] {
    const run = (part: string, at: number): TextRun => ({
      text: part,
      x: x + this.measure(text.slice(0, at + part.length), size, bold) - this.measure(part, size, bold),
      y,
      width: this.measure(part, size, bold),
      size,
      font: bold ? 'b' : 'r',
    });
    if (this.look.runs === 'cell') return [run(text, 0)];
    const parts = this.look.runs === 'word' ? [...text.matchAll(/\S+/g)] : [...text.matchAll(/\S/gu)];
    return parts.map((m) => run(m[0], m.index));
  }

  pages(): Page[] {
    return Array.from({ length: this.page }, (_, i) => ({
      number: i + 1,
      width: this.width,
      height: this.height,
      words: wordsOf(this.drawn.filter((d) => d.page === i + 1).flatMap((d) => this.#runs(d))),
    }));
  }

  async pdf(): Promise<Uint8Array> {
    const pdf = await PDFDocument.create();
    const when = new Date('2026-11-16T09:00:00Z');
    pdf.setCreationDate(when);
    pdf.setModificationDate(when);
    const [regular, bold] = await Promise.all(families[this.look.font].map((f) => pdf.embedFont(f)));
    for (let n = 1; n <= this.page; n++) {
      const page = pdf.addPage(this.look.paper);
      for (const d of this.drawn.filter((item) => item.page === n)) {
        if (d.white)
          page.drawRectangle({
            x: d.x - 3,
            y: this.height - d.y - 3,
            width: this.measure(d.text, d.size, d.bold) + 6,
            height: d.size + 4,
            color: rgb(0.15, 0.15, 0.2),
          });
        for (const run of this.#runs(d))
          page.drawText(run.text, {
            x: run.x,
            y: this.height - run.y,
            size: d.size,
            font: (d.bold ? bold : regular)!,
            color: d.white ? rgb(1, 1, 1) : rgb(0.1, 0.1, 0.1),
          });
      }
    }
    return pdf.save();
  }
}
