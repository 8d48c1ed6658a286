import { textOf, type Word } from '../../page/index.ts';

/** Letters that stand for a rate, by the characters that ink makes of them. */
const alike: Record<string, string> = { '7': 'Z', '2': 'Z', '5': 'S', '8': 'B', '4': 'A', '0': 'O', '1': 'I', '6': 'G' };

/**
 * The tax rate that a row states: a code that the page explains, or a number. On ink a code's letter may look like a digit; where the
 * page explains codes, it is taken for the code that it looks like, and less surely.
 */
export function rateOf(
  words: Word[],
  number: string | null,
  legend: ReadonlyMap<string, string>,
): { value: string; confidence: number } | null {
  const text = textOf(words),
    told = legend.get(text.toUpperCase());
  if (told !== undefined) return { value: told, confidence: 0.93 };
  if (legend.size === 0 || text.includes('%') || words.every((w) => w.sure === undefined))
    return number === null ? null : { value: number, confidence: 0.93 };
  const first = text[0]?.toUpperCase() ?? '',
    meant = legend.get(first) ?? legend.get(alike[first] ?? '');
  return meant === undefined ? null : { value: meant, confidence: 0.6 };
}
