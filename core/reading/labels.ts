import { union, type Box, type Word } from '../page/index.ts';
import { nearestOf, oneLetterOff } from './lexicon/likeness.ts';
import { tokensOf } from './lexicon/tokens.ts';
import type { Phrase, PhraseBook } from './lexicon/index.ts';

export interface Found<Role> {
  role: Role;
  weak: boolean;
  /** Index of the first and last word. */ from: number;
  to: number;
  words: Word[];
  box: Box;
  text: string;
}

interface Token {
  text: string;
  word: number;
  /** How sure the recogniser was of its word. */
  sure: number;
}

// Words further apart than this many text heights belong to different labels: "Date    Due date" is not "date due".
const widest = 1.3;

function matchAt<Role>(tokens: Token[], at: number, phrase: Phrase<Role>, words: Word[]): boolean {
  if (phrase.tokens.length > tokens.length - at || !phrase.tokens.every((t, k) => tokens[at + k]!.text === t)) return false;
  for (let i = tokens[at]!.word; i < tokens[at + phrase.tokens.length - 1]!.word; i++) {
    const [one, next] = [words[i]!, words[i + 1]!];
    if (next.x - (one.x + one.w) > widest * one.size) return false;
  }
  return true;
}

/** A recogniser that is surer of a word than this seldom misread it. */
const unsure = 0.88;
// Ink repeats its misreadings; each is looked up once.
const seen = new WeakMap<ReadonlySet<string>, Map<string, string>>();

/** The word of a label that ink may have meant: "teference" for "reference". */
function meant(text: string, known: ReadonlySet<string>): string {
  let cache = seen.get(known);
  if (!cache) seen.set(known, (cache = new Map()));
  let word = cache.get(text);
  if (word === undefined) {
    if (cache.size > 20_000) cache.clear();
    cache.set(text, (word = nearestOf(text, known)));
  }
  return word;
}

/** In a label of several words one that the recogniser was less sure of than this may have been misread. */
const unsureAmongOthers = 0.93;

/** The longest phrase that begins at a token; else one of several words of which ink may have spoiled one by a letter, where the others stand. */
function phraseAt<Role>(tokens: Token[], at: number, book: PhraseBook<Role>, words: Word[]): Phrase<Role> | undefined {
  const exact = book.phrases.get(tokens[at]!.text)?.find((p) => matchAt(tokens, at, p, words));
  if (exact || !tokens[at + 1]) return exact;
  for (let i = at; i < Math.min(tokens.length, at + 3); i++) {
    if (tokens[i]!.sure >= unsureAmongOthers || book.words.has(tokens[i]!.text)) continue;
    for (const text of oneLetterOff(tokens[i]!.text, book.words)) {
      const mended = tokens.with(i, { ...tokens[i]!, text });
      const phrase = book.phrases
        .get(mended[at]!.text)
        ?.find((p) => p.tokens.length > Math.max(1, i - at) && matchAt(mended, at, p, words));
      if (phrase) return phrase;
    }
  }
  return undefined;
}

/**
 * Labels of a lexicon in a run of words, leftmost and longest first, without overlap. Words between are left alone.
 */
export function findLabels<Role>(words: Word[], book: PhraseBook<Role>): Found<Role>[] {
  const tokens = words.flatMap((word, index) =>
    tokensOf(word.text).map((text): Token => {
      const sure = word.sure ?? 1;
      return { text: sure < unsure ? meant(text, book.words) : text, word: index, sure };
    }),
  );
  const found: Found<Role>[] = [];
  for (let at = 0; at < tokens.length;) {
    // "Number" at the end of a compound is no label by itself: "Artikelnummer".
    const tail = tokens[at]!.text === '#' && tokens[at - 1]?.word === tokens[at]!.word;
    const phrase = tail ? undefined : phraseAt(tokens, at, book, words);
    if (!phrase) {
      at++;
      continue;
    }
    const from = tokens[at]!.word,
      to = tokens[at + phrase.tokens.length - 1]!.word;
    const part = words.slice(from, to + 1);
    found.push({ role: phrase.role, weak: phrase.weak, from, to, words: part, box: union(part), text: phrase.tokens.join(' ') });
    at += phrase.tokens.length;
  }
  return found;
}
