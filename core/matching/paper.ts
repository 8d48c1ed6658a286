import type { Word } from '../page/index.ts';
import { hashOf } from './hash.ts';

/** Letters and digits alone, in capitals, letters that are read for digits as these. */
const plain = (text: string): string =>
  text
    .normalize('NFKD')
    .toUpperCase()
    .replace(/[^A-Z0-9]/g, '')
    .replace(/O/g, '0')
    .replace(/[IL]/g, '1');
/** Whether a word is a figure: letters that are read for digits make none. */
const isFigure = ({ text }: Word): boolean => /\d/.test(text) && plain(text).length > 1;

/** More words of a page are not compared: each is held against each. */
const mostWords = 1000;
/** So many keys, each of so many least hashes: pages with nine of ten figures in common share one in nearly all cases, those with half hardly ever. */
const keyCount = 20,
  least = 8;
/** A page with fewer figures says too little. */
const fewest = 6;

/**
 * Keys of a page by the figures on it (MinHash in bands: Broder, On the resemblance and containment of documents, 1997): two scans of one
 * paper share at least one, whatever was read wrongly here and there. 32-bit integers; none where the page has hardly any figure.
 */
export function paperKeys(words: readonly Word[]): number[] {
  const figures = [
    ...new Set(
      words
        .slice(0, mostWords)
        .filter(isFigure)
        .map((w) => plain(w.text)),
    ),
  ];
  if (figures.length < fewest) return [];
  return Array.from({ length: keyCount }, (_, key) => {
    const of = Array.from({ length: least }, (_, k) => Math.min(...figures.map((f) => hashOf(f, key * least + k + 1))));
    return hashOf(of.join(' '), key) | 0;
  });
}

/** How far apart in points a word may stand on two scans, once they lie on each other. */
const apart = 9;
/** Nearer than this it stands over the other: beside it, in the next row, is another word. */
const over = 3;
/** So many words have to stand once on each, to lay them on each other. */
const anchors = 6;

interface Piece {
  text: string;
  /** A figure; and text as it was written, not read from ink. */ figure: boolean;
  exact: boolean;
  x: number;
  y: number;
}
const piecesOf = (words: readonly Word[]): Piece[] =>
  words.slice(0, mostWords).flatMap((w) => {
    const text = plain(w.text);
    return text.length > 1 ? [{ text, figure: isFigure(w), exact: w.sure === undefined, x: w.x, y: w.y + w.h / 2 }] : [];
  });
const median = (of: number[]): number => [...of].sort((a, b) => a - b)[of.length >> 1]!;

/** The same word but for a letter in four read otherwise. */
function readAlike(a: string, b: string): boolean {
  if (a === b) return true;
  if (a.length !== b.length) return false;
  let other = 0;
  for (let i = 0; i < a.length; i++) if (a[i] !== b[i]) other++;
  return other <= a.length / 4;
}

/** Figures of which one may stand for the other: long enough, and as long, so that neither is a piece of the other. */
const comparable = (a: Piece, b: Piece): boolean =>
  a.figure && b.figure && Math.min(a.text.length, b.text.length) > 3 && Math.abs(a.text.length - b.text.length) < 2;

/** Shares of words, and of figures among them, that stand on both pages in the same places, and how many figures are others there. */
interface Likeness {
  words: number;
  figures: number;
  others: number;
}
const nothing: Likeness = { words: 0, figures: 0, others: 0 };

/** How far two pages say the same in the same places, laid on each other by the words that stand once on each. */
function likenessOf(one: readonly Word[], other: readonly Word[]): Likeness {
  const [a, b] = [piecesOf(one), piecesOf(other)];
  const once = (of: Piece[]) => {
    const times = new Map<string, Piece | null>();
    for (const p of of) times.set(p.text, times.has(p.text) ? null : p);
    return times;
  };
  const inB = once(b);
  const pairs = [...once(a)].flatMap(([text, p]) => {
    const q = inB.get(text);
    return p && q ? [{ dx: q.x - p.x, dy: q.y - p.y }] : [];
  });
  if (pairs.length < anchors) return nothing;
  const dx = median(pairs.map((p) => p.dx)),
    dy = median(pairs.map((p) => p.dy));
  const free = new Set(b),
    others = new Set<string>();
  let words = 0,
    figures = 0;
  for (const p of a) {
    const there = [...free]
      .map((q) => ({ q, off: Math.max(Math.abs(q.x - p.x - dx), Math.abs(q.y - p.y - dy)) }))
      .filter((t) => t.off < apart);
    const same = there.find((t) => readAlike(p.text, t.q.text))?.q;
    // What is written differs if it differs; ink may have been misread.
    const other = same ?? there.find((t) => t.off < over && comparable(p, t.q))?.q;
    if (other && comparable(p, other) && p.text !== other.text && (!same || (p.exact && other.exact)))
      others.add(`${p.text} ${other.text}`);
    if (!same) continue;
    free.delete(same);
    words++;
    if (p.text === same.text && p.figure) figures++;
  }
  const count = (of: Piece[]) => of.filter((p) => p.figure).length;
  return { words: (2 * words) / (a.length + b.length), figures: figures / Math.max(1, Math.min(count(a), count(b))), others: others.size };
}

/** From so many words and figures in common, in the same places, it is one paper. */
const wordsAlike = 0.9,
  figuresAlike = 0.8;
/** One figure may be another: a number that a stamp covers, or that was read from another place. */
const othersAtMost = 1;

/** Whether two pages are scans or prints of one paper. */
export function samePaper(one: readonly Word[], other: readonly Word[]): boolean {
  const { words, figures, others } = likenessOf(one, other);
  return words >= wordsAlike && figures >= figuresAlike && others <= othersAtMost;
}
