import type { Mark, Segment, Word } from '../../page/index.ts';
import type { LabelledRow, Layout } from '../layout.ts';

/** A word of a printed row, or the part of one behind its colon or number sign: "Invoice:4711" is a label and a number. */
export interface Token {
  text: string;
  word: Word;
  x: number;
  end: number;
  segment: Segment;
}

/** A printed row as what stands in it one after another. */
export interface TokenRow {
  row: LabelledRow;
  tokens: Token[];
}

/** Where a word is cut in two: behind a colon, number sign or bracket that joins a label to its value. */
const seam = /^(.*\p{L}[^\d]*?[:#(=])(?=[^:#(=]*\d)(.+)$/u;

function tokensOf(segment: Segment): Token[] {
  return segment.words.flatMap((word): Token[] => {
    const whole = { text: word.text, word, x: word.x, end: word.x + word.w, segment };
    const parts = /:\/\/|@|www\./.test(word.text) ? null : seam.exec(word.text);
    if (!parts) return [whole];
    const cut = word.x + (word.w * parts[1]!.length) / word.text.length;
    return [
      { ...whole, text: parts[1]!, end: cut },
      { ...whole, text: parts[2]!, x: cut },
    ];
  });
}

export const tokenRows = (layout: Layout): TokenRow[] => layout.rows.map((row) => ({ row, tokens: row.segments.flatMap(tokensOf) }));

/** The median height of a document's text, in points. */
export function bodySize(layout: Layout): number {
  let size = bodySizes.get(layout);
  if (size === undefined) {
    const sizes = Float64Array.from(layout.pages.flatMap((p) => p.words.map((w) => w.size))).sort();
    bodySizes.set(layout, (size = sizes[sizes.length >> 1] ?? 10));
  }
  return size;
}
const bodySizes = new WeakMap<Layout, number>();

/** Where tokens of a row stand. */
export function markOf({ row }: TokenRow, tokens: readonly Token[]): Mark {
  const x = Math.min(...tokens.map((t) => t.x)),
    y = Math.min(...tokens.map((t) => t.word.y));
  return { page: row.page, x, y, w: Math.max(...tokens.map((t) => t.end)) - x, h: Math.max(...tokens.map((t) => t.word.y + t.word.h)) - y };
}
