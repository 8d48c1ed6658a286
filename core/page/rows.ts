import type { Box, Page, Row, Segment, Word } from './types.ts';

/** The smallest box round all of them. */
export function union(boxes: Box[]): Box {
  let x = Infinity,
    y = Infinity,
    right = -Infinity,
    bottom = -Infinity;
  for (const b of boxes) {
    x = Math.min(x, b.x);
    y = Math.min(y, b.y);
    right = Math.max(right, b.x + b.w);
    bottom = Math.max(bottom, b.y + b.h);
  }
  return { x, y, w: right - x, h: bottom - y };
}

export const textOf = (words: Word[]): string => words.map((w) => w.text).join(' ');

/** A gap wider than this many text heights parts two segments of a row; a space between words is about a quarter. */
export const segmentGap = 0.72;

export function segmentOf(page: number, words: Word[]): Segment {
  const longest = words.reduce((a, b) => (b.text.length > a.text.length ? b : a), words[0]!);
  const { x, y, w, h } = union(words);
  return { x, y, w, h, page, words, text: textOf(words), size: longest.size, font: longest.font };
}

/** The font of words whose letters are all equally wide; a space between them is as wide as a letter. */
export const typewriter = 'typewriter';

/** How far two words of a segment may stand apart. Ink of a letterhead is spaced as its designer liked it, and may have lost a letter. */
const widest = (gap: number, a: Word, b: Word): number => {
  // Ink ends before the cell of a comma or a one does; two spaces are 1.2 text heights at least.
  if (a.font === typewriter) return (a.sure === undefined ? 0.8 : 1.05) * Math.max(a.size, b.size);
  return (a.sure !== undefined && a.size > 12.5 && b.size > 12.5 ? Math.max(gap, 1.1) : gap) * Math.min(a.size, b.size);
};

/** Cuts words that stand on one row into segments at wide gaps. */
export function segmentsOf(page: number, words: Word[], gap = segmentGap): Segment[] {
  const groups: Word[][] = [];
  for (const word of words) {
    const group = groups[groups.length - 1];
    const last = group?.[group.length - 1];
    if (group && last && word.x - (last.x + last.w) < widest(gap, last, word)) group.push(word);
    else groups.push([word]);
  }
  return groups.map((group) => segmentOf(page, group));
}

/** Groups a page's words into printed rows by their baselines, tolerant of a small skew and of mixed sizes. */
export function rowsOf(page: Page): Row[] {
  const groups: { base: number; size: number; words: Word[] }[] = [];
  const base = (w: Word) => w.y + w.h * 0.78;
  for (const word of [...page.words].sort((a, b) => base(a) - base(b))) {
    const group = groups.slice(-4).find((g) => Math.abs(g.base - base(word)) < 0.38 * Math.min(g.size, word.size));
    if (group) {
      group.words.push(word);
      group.base += (base(word) - group.base) / group.words.length;
    } else groups.push({ base: base(word), size: word.size, words: [word] });
  }
  return groups
    .sort((a, b) => a.base - b.base)
    .map(({ words }) => {
      words.sort((a, b) => a.x - b.x);
      return { ...union(words), page: page.number, words, segments: segmentsOf(page.number, words), text: textOf(words) };
    });
}
