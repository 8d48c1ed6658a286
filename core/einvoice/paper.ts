import type { Page, Word } from '../page/index.ts';

export interface Face {
  size?: number;
  bold?: boolean;
  align?: 'left' | 'right';
}

/** Width of a character as a share of the text height, for a plain proportional face. */
function em(ch: string): number {
  if (/[il.,:;'|!Ij ]/.test(ch)) return 0.27;
  if (/[ftr()\-[\]/]/.test(ch)) return 0.34;
  if (/[mwMW@%]/.test(ch)) return 0.86;
  if (/[A-Z&ÄÖÜÉÈ]/.test(ch)) return 0.68;
  return ch.charCodeAt(0) > 0x2e80 ? 1 : 0.55;
}

/** A4 pages to put text on: what stands where is what marks point at. */
export class Paper {
  readonly #pages: Page[] = [{ number: 1, width: 595, height: 842, words: [] }];
  y = 0;
  get page(): number {
    return this.#pages.length;
  }
  pages(): Page[] {
    return this.#pages;
  }
  down(by: number): void {
    this.y += by;
  }
  full(need: number): boolean {
    return this.y + need > 800;
  }
  next(): void {
    this.#pages.push({ number: this.page + 1, width: 595, height: 842, words: [] });
    this.y = 60;
  }

  width(text: string, { size = 10, bold = false }: Face = {}): number {
    return [...text].reduce((w, ch) => w + em(ch), 0) * size * (bold ? 1.06 : 1);
  }

  /** Puts one line of text with its baseline at y; gives its words. */
  text(text: string, x: number, y: number, face: Face = {}): Word[] {
    const { size = 10, bold = false, align = 'left' } = face;
    let at = align === 'right' ? x - this.width(text, face) : x;
    const words: Word[] = [];
    for (const part of text.split(/(\s+)/)) {
      const w = this.width(part, face);
      if (part.trim()) words.push({ text: part, x: at, y: y - size * 0.78, w, h: size, size, font: bold ? 'bold' : 'regular' });
      at += w;
    }
    this.#pages[this.#pages.length - 1]!.words.push(...words);
    return words;
  }

  /** Puts text from x on, broken before `to`; y ends on the last line. */
  lines(text: string, x: number, to: number, face: Face = {}): Word[][] {
    const rows: string[] = [];
    for (const word of text.split(/\s+/)) {
      const last = rows[rows.length - 1];
      if (last !== undefined && x + this.width(`${last} ${word}`, face) <= to) rows[rows.length - 1] = `${last} ${word}`;
      else rows.push(this.fit(word, to - x));
    }
    return rows.slice(0, 60).map((row, i) => {
      if (i > 0) this.down((face.size ?? 10) * 1.3);
      if (this.full(20)) this.next();
      return this.text(row, x, this.y, face);
    });
  }

  /** A text cut to a width, with an ellipsis. */
  fit(text: string, width: number): string {
    if (this.width(text) <= width) return text;
    let end = text.length;
    while (end > 1 && this.width(`${text.slice(0, end)}…`) > width) end--;
    return `${text.slice(0, end)}…`;
  }
}
