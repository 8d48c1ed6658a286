import type { Page, Word } from '../page/index.ts';
import { digitLike } from './confusions.ts';
import { decideStyle } from '../numbers/index.ts';

/** Figures that end at one place across the page, and how many decimals they print. */
interface FigureColumn {
  right: number;
  places: number;
  sign: string;
}

const decimals = /^[-−(£$€]*\d[\d.,]*([.,])(\d{2,4})\)?$/;
const right = (w: Word): number => w.x + w.w;

/** Columns of a page in which at least three figures, and three in five, print the same number of decimals, be it torn off with their point lost. */
function columnsOf(words: Word[]): FigureColumn[] {
  const sign = decideStyle(words).decimal;
  const figures = words.filter((w) => /\d/.test(w.text) && /^[-−(£$€]*[\d.,:]+\)?$/.test(w.text)).sort((a, b) => right(a) - right(b));
  const groups: Word[][] = [];
  for (const w of figures) {
    const group = groups[groups.length - 1];
    if (group && right(w) - right(group[group.length - 1]!) < 0.25 * w.size) group.push(w);
    else groups.push([w]);
  }
  return groups.flatMap((group) => {
    const kinds = new Map<number, number>();
    for (const w of group) {
      const [, own, digits] = decimals.exec(w.text) ?? [];
      // "10,000" is ten thousand where decimals have a point.
      if (digits?.length === 3 && own !== sign) continue;
      const places = digits?.length ?? (/^\d{2}$/.test(w.text) && firstHalf(words, w) ? 2 : 0);
      if (places > 0) kinds.set(places, (kinds.get(places) ?? 0) + 1);
    }
    const [most] = [...kinds].sort((a, b) => b[1] - a[1]);
    if (!most || most[1] < 3 || most[1] < group.length * 0.6) return [];
    return [{ right: right(group[group.length >> 1]!), sign, places: most[0] }];
  });
}

/**
 * A figure with the signs of its thousands and decimals as most others on its page have them: "11,75" or "67.544,61" among points. Two
 * digits at the end are decimals in every country, and coarse ink takes commas for points by the dozen.
 */
function withSign(text: string, sign: string): string {
  const other = sign === '.' ? ',' : '.';
  const [, whole, parted] = /^(\d{1,6})([.,])\d{2}$/.exec(text) ?? [];
  // "12.05" may be a day where decimals have a comma.
  if (parted === other && !(other === '.' && /^(0?[1-9]|[12]\d|3[01])\.(0[1-9]|1[0-2])$/.test(text)))
    return `${whole}${sign}${text.slice(-2)}`;
  const groups = /^(\d{1,3}(?:([.,])\d{3})+)([.,])(\d{2})$/.exec(text);
  if (groups?.[2] === sign && groups[3] === other) return `${groups[1]!.replaceAll(sign, other)}${sign}${groups[4]}`;
  return text;
}

/** A letter between the digits of a figure as the digit that it looks like: "7A5" for "745", whose comma was lost as well. */
const asFigure = (text: string): string =>
  /^\d[\d.,]*[A-Za-z][\d.,]*\d$/.test(text) ? text.replace(/[A-Za-z]/, (c) => digitLike[c] ?? c) : text;

/**
 * Ink loses points, and a figure becomes "26520", "11:99", or falls in two: "324 72". Where it ends in a column whose other figures print decimals,
 * the point is put back. Such a figure is not believed until a sum proves it: `was` keeps what was read.
 */
export function withPoints(pages: Page[]): Page[] {
  return pages.map((given) => {
    if (!given.scan) return given;
    const usual = decideStyle(given.words).decimal;
    const signed = given.words.map((w): Word => {
      const text = w.sure !== undefined ? withSign(w.text, usual) : w.text;
      return text === w.text ? w : { ...w, text, sure: 0.5, was: w.text };
    });
    const page = signed.every((w, i) => w === given.words[i]) ? given : { ...given, words: signed };
    const columns = columnsOf(page.words),
      gone = new Set<Word>();
    const words = page.words.map((given): Word => {
      const column = columns.find((c) => Math.abs(c.right - right(given)) < 0.35 * given.size);
      if (!column || given.sure === undefined) return given;
      const text = asFigure(given.text),
        word = text === given.text ? given : { ...given, text, sure: 0.5, was: given.text };
      const { places, sign } = column;
      const half = /^[.,:]?(\d+)$/.exec(word.text)?.[1],
        before = half?.length === places ? firstHalf(page.words, word) : undefined;
      if (before) {
        gone.add(before);
        const text = `${before.text.replace(/[.,:]$/, '')}${sign}${half}`;
        // The sign between thousands may be lost as well: "1 639 08".
        const thousand = /^\d{3}\D/.test(text)
          ? page.words.find((o) => /^[-−(£$€]?\d{1,3}$/.test(o.text) && standsBefore(o, before))
          : undefined;
        if (thousand) gone.add(thousand);
        const first = thousand ?? before;
        return {
          ...word,
          text: thousand ? `${thousand.text}${sign === '.' ? ',' : '.'}${text}` : text,
          x: first.x,
          w: right(word) - first.x,
          sure: 0.5,
          was: `${thousand ? `${thousand.text} ` : ''}${before.text} ${word.text}`,
        };
      }
      const [, whole, other, rest] = /^(\d{1,3})([.,:;·])(\d+)$/.exec(word.text) ?? [];
      // "2.96250" for "2,962.50": the sign of the thousands was misread and that of the decimals lost.
      if (rest?.length === places + 3 && places !== 3 && /[.,]/.test(other!))
        return {
          ...word,
          text: `${whole}${sign === '.' ? ',' : '.'}${rest.slice(0, 3)}${sign}${rest.slice(3)}`,
          sure: 0.5,
          was: given.text,
        };
      if (rest?.length === places && places !== 3 && other !== sign)
        return { ...word, text: `${whole}${sign}${rest}`, sure: 0.5, was: given.text };
      if (!/^\d+$/.test(word.text)) return word;
      // "24 August 2026" and "Unit 2026" are words of a text, whatever stands above them.
      if (word.text.length <= places || neighbour(page.words, word)) return word;
      return { ...word, text: `${word.text.slice(0, -places)}${sign}${word.text.slice(-places)}`, sure: 0.5, was: given.text };
    });
    return gone.size === 0 && words.every((w, i) => w === page.words[i])
      ? page
      : { ...page, words: words.filter((_, i) => !gone.has(page.words[i]!)) };
  });
}

/** Whether a word other than a currency's sign stands right before one, no farther than words of a text do. */
const neighbour = (words: Word[], word: Word): boolean =>
  words.some(
    (o) => Math.abs(o.y - word.y) < word.size * 0.4 && o.x < word.x && word.x - right(o) < word.size * 0.6 && !/^[-−£$€]+$/.test(o.text),
  );

/** Whether a piece of a figure stands right before another, with no more than a lost sign between them. */
const standsBefore = (o: Word, word: Word): boolean =>
  o !== word &&
  Math.abs(o.y - word.y) < word.size * 0.3 &&
  o.x < word.x &&
  word.x - right(o) < word.size * 0.85 &&
  word.x - right(o) > -word.size * 0.2;

/** The figure that stands right before decimals that lost their point. */
const firstHalf = (words: Word[], word: Word): Word | undefined =>
  words.find((o) => /^[£$€]?\d+([.,]\d{3})*[.,:]?$/.test(o.text) && standsBefore(o, word));
