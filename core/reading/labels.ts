import { union, type Box, type Word } from '../page/index.ts';
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

/**
 * Labels of a lexicon in a run of words, leftmost and longest first, without overlap. Words between are left alone.
 */
export function findLabels<Role>(words: Word[], book: PhraseBook<Role>): Found<Role>[] {
  const tokens = words.flatMap((word, index) => tokensOf(word.text).map((text) => ({ text, word: index })));
  const found: Found<Role>[] = [];
  for (let at = 0; at < tokens.length;) {
    // "Number" at the end of a compound is no label by itself: "Artikelnummer".
    const tail = tokens[at]!.text === '#' && tokens[at - 1]?.word === tokens[at]!.word;
    const phrase = tail ? undefined : book.get(tokens[at]!.text)?.find((p) => matchAt(tokens, at, p, words));
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
