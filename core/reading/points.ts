import type { Page, Word } from '../page/index.ts';

/** Figures that end at one place across the page, and how many decimals they print. */
interface FigureColumn {
  right: number;
  places: number;
  sign: string;
}

const decimals = /^[-−(£$€]*\d[\d.,]*([.,])(\d{2,4})\)?$/;
const right = (w: Word): number => w.x + w.w;

/** Columns of a page in which at least three figures, and four in five, print the same number of decimals. */
function columnsOf(words: Word[]): FigureColumn[] {
  const figures = words.filter((w) => /\d/.test(w.text) && /^[-−(£$€]*[\d.,]+\)?$/.test(w.text)).sort((a, b) => right(a) - right(b));
  const groups: Word[][] = [];
  for (const w of figures) {
    const group = groups[groups.length - 1];
    if (group && right(w) - right(group[group.length - 1]!) < 0.25 * w.size) group.push(w);
    else groups.push([w]);
  }
  return groups.flatMap((group) => {
    const kinds = new Map<string, number>();
    for (const w of group) {
      const [, sign, places] = decimals.exec(w.text) ?? [];
      if (sign) kinds.set(sign + places!.length, (kinds.get(sign + places!.length) ?? 0) + 1);
    }
    const [most] = [...kinds].sort((a, b) => b[1] - a[1]);
    if (!most || most[1] < 3 || most[1] < group.length * 0.6) return [];
    return [{ right: right(group[group.length >> 1]!), sign: most[0][0]!, places: Number(most[0].slice(1)) }];
  });
}

/**
 * Ink loses points, and a figure becomes "26520" or falls in two: "324 72". Where it ends in a column whose other figures print decimals,
 * the point is put back. Such a figure is not believed until a sum proves it: `was` keeps what was read.
 */
export function withPoints(pages: Page[]): Page[] {
  return pages.map((page) => {
    if (!page.scan) return page;
    const columns = columnsOf(page.words),
      gone = new Set<Word>();
    const words = page.words.map((word): Word => {
      const column = columns.find((c) => Math.abs(c.right - right(word)) < 0.35 * word.size);
      if (!column || word.sure === undefined || !/^\d+$/.test(word.text)) return word;
      const { places, sign } = column;
      const before = word.text.length === places ? firstHalf(page.words, word) : undefined;
      if (before) {
        gone.add(before);
        const text = `${before.text}${sign}${word.text}`;
        return { ...word, text, x: before.x, w: right(word) - before.x, sure: 0.5, was: `${before.text} ${word.text}` };
      }
      // "24 August 2026" and "Unit 2026" are words of a text, whatever stands above them.
      if (word.text.length <= places || neighbour(page.words, word)) return word;
      return { ...word, text: `${word.text.slice(0, -places)}${sign}${word.text.slice(-places)}`, sure: 0.5, was: word.text };
    });
    return gone.size === 0 && words.every((w, i) => w === page.words[i])
      ? page
      : { ...page, words: words.filter((_, i) => !gone.has(page.words[i]!)) };
  });
}

/** Whether a word other than a currency's sign stands right before one, no farther than words of a text do. */
const neighbour = (words: Word[], word: Word): boolean =>
  words.some(
    (o) =>
      Math.abs(o.y - word.y) < word.size * 0.4 && o.x < word.x && word.x - right(o) < word.size * 0.6 && !/^[-−£$€]+$/.test(o.text),
  );

/** The figure that stands right before decimals that lost their point. */
const firstHalf = (words: Word[], word: Word): Word | undefined =>
  words.find(
    (o) =>
      o !== word &&
      Math.abs(o.y - word.y) < word.size * 0.3 &&
      o.x < word.x &&
      word.x - right(o) < word.size * 0.85 &&
      word.x - right(o) > -word.size * 0.2 &&
      /^[£$€]?\d{1,3}([.,]\d{3})*$/.test(o.text),
  );
