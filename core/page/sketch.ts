import type { Page } from './types.ts';
import { wordsOf } from './words.ts';

/** A piece of text on a sketched page: left edge, baseline, text, and its height in points (10). */
export type Piece = [x: number, y: number, text: string, size?: number];

/** A page sketched from pieces of text, as a digital document would give them; for tests that need one small thing on paper. */
export function sketch(pieces: Piece[], { width = 595, height = 842, number = 1 } = {}): Page {
  const widths = (text: string, size: number) => [...text].reduce((w, ch) => w + (/[il.,:;'|! ]/.test(ch) ? 0.28 : 0.55), 0) * size;
  return {
    number,
    width,
    height,
    words: wordsOf(pieces.map(([x, y, text, size = 10]) => ({ text, x, y, width: widths(text, size), size, font: 'f' }))),
  };
}
