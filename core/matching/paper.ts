import type { Word } from '../page/index.ts';

/** Letters and digits alone, in capitals, letters that are read for digits as these. */
const plain = (text: string): string =>
  text
    .normalize('NFKD')
    .toUpperCase()
    .replace(/[^A-Z0-9]/g, '')
    .replace(/O/g, '0')
    .replace(/[IL]/g, '1');
const numbered = (text: string): boolean => /\d/.test(text) && text.length > 1;

/** A number from 0 to 2³² − 1 out of a text (FNV-1a) and a seed. */
function hashOf(text: string, seed: number): number {
  let h = (0x811c9dc5 ^ seed) >>> 0;
  for (let i = 0; i < text.length; i++) h = Math.imul(h ^ text.charCodeAt(i), 0x01000193);
  h = Math.imul(h ^ (h >>> 16), 0x85ebca6b);
  h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35);
  return (h ^ (h >>> 16)) >>> 0;
}

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
  const figures = [...new Set(words.map((w) => plain(w.text)).filter(numbered))];
  if (figures.length < fewest) return [];
  return Array.from({ length: keyCount }, (_, key) => {
    const of = Array.from({ length: least }, (_, k) => Math.min(...figures.map((f) => hashOf(f, key * least + k + 1))));
    return hashOf(of.join(' '), key) | 0;
  });
}

/** How far apart in points a word may stand on two scans, once they lie on each other. */
const apart = 9;
/** So many words have to stand once on each, to lay them on each other. */
const anchors = 6;

interface Piece {
  text: string;
  x: number;
  y: number;
}
const piecesOf = (words: readonly Word[]): Piece[] =>
  words.flatMap((w) => {
    const text = plain(w.text);
    return text.length > 1 ? [{ text, x: w.x, y: w.y + w.h / 2 }] : [];
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

/** Shares of words, and of figures among them, that stand on both pages in the same places. */
interface Likeness {
  words: number;
  figures: number;
}
const nothing: Likeness = { words: 0, figures: 0 };

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
  const free = new Set(b);
  let words = 0,
    figures = 0;
  for (const p of a)
    for (const q of free)
      if (Math.abs(q.x - p.x - dx) < apart && Math.abs(q.y - p.y - dy) < apart && readAlike(p.text, q.text)) {
        free.delete(q);
        words++;
        if (p.text === q.text && numbered(p.text)) figures++;
        break;
      }
  const count = (of: Piece[]) => of.filter((p) => numbered(p.text)).length;
  return { words: (2 * words) / (a.length + b.length), figures: figures / Math.max(1, Math.min(count(a), count(b))) };
}

/** From so many words and figures in common, in the same places, it is one paper; two months of one rent have about 0.8. */
const onePaper = 0.9;

/** Whether two pages are scans or prints of one paper. */
export function samePaper(one: readonly Word[], other: readonly Word[]): boolean {
  const { words, figures } = likenessOf(one, other);
  return words >= onePaper && figures >= onePaper;
}
