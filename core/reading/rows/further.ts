import { union, type Word } from '../../page/index.ts';
import type { FurtherCell } from '../types.ts';
import type { Weighed } from './described.ts';
import type { PrintedRow } from './printed.ts';
import { hasLetter } from '../letters.ts';

/** More than these on a line are words of another kind. */
const mostCells = 8,
  longest = 60;

const says = (text: string): boolean => /[\p{L}\p{N}]/u.test(text) && !/^[x×@]$/i.test(text);

/** Pieces of a line's rows in which nothing is used, each with the column that it stands in. */
function leftOf(items: readonly Weighed[], used: ReadonlySet<Weighed>): { key: string; words: Weighed[] }[] {
  const pieces = new Map<string, Weighed[]>();
  for (const w of items) {
    const id = `${w.at} ${w.item.left}`;
    (pieces.get(id) ?? pieces.set(id, []).get(id)!).push(w);
  }
  return [...pieces.values()].flatMap((piece) => {
    // Figures of one piece stand in columns of their own.
    const parts: Weighed[][] = [];
    for (const w of piece) {
      const last = parts.at(-1);
      if (used.has(w)) parts.push([]);
      else if (last?.length && !w.item.figure && !last.at(-1)!.item.figure) last.push(w);
      else parts.push([w]);
    }
    const whole = parts.length === 1;
    return (
      parts
        // Words out of the middle of a piece are not a cell.
        .filter((words) => words.length > 0 && says(textOf(words)) && (whole || words[0]!.item.figure))
        .map((words) => ({ key: words[0]!.item.figure ? words[0]!.column : `${words[0]!.column} words`, words }))
    );
  });
}
const textOf = (words: readonly Weighed[]): string => words.map((w) => w.item.text).join(' ');

/** The words that stand over a piece, in the nearest heading that has any. */
function headingOver(words: readonly Weighed[]): string | null {
  const left = Math.min(...words.map((w) => w.item.x)),
    right = Math.max(...words.map((w) => w.item.end));
  for (const head of words[0]!.heads) {
    const over = head.row.segments.filter((s) => s.x < right + 2 && s.x + s.w > left - 2 && hasLetter(s.text));
    if (over.some((s) => /\d/.test(s.text))) return null;
    if (over.length === 1) return over[0]!.text;
  }
  return null;
}

/** A cell of words of a page. */
export const cellOf = (heading: string | null, value: string, page: number, words: readonly Word[]): FurtherCell => ({
  heading: heading?.slice(0, longest) || null,
  value: value.slice(0, longest),
  mark: { page, ...union([...words]) },
});

/**
 * What lines say beside their figures and words, in columns of its own: a batch, weight beside pieces, delivered and back-ordered, a date
 * of service. A column has a heading or stands in most lines; what stands once and has none is nothing that could be named.
 */
export function furtherOf(
  own: readonly (readonly Weighed[])[],
  used: readonly ReadonlySet<Weighed>[],
  rows: readonly PrintedRow[],
): FurtherCell[][] {
  const left = own.map((items, line) => leftOf(items, used[line]!));
  const lines = new Map<string, number>();
  for (const pieces of left) for (const key of new Set(pieces.map((p) => p.key))) lines.set(key, (lines.get(key) ?? 0) + 1);
  const counts = (key: string) =>
    left.every((pieces, line) => pieces.every((p) => p.key !== key || Number(textOf(p.words).replace(/\.$/, '')) === line + 1));
  return left.map((pieces) =>
    pieces
      .filter(({ key }) => !counts(key))
      .flatMap(({ key, words }) => {
        const heading = words[0]!.at === words[0]!.first ? headingOver(words) : null;
        const often = own.length > 1 && lines.get(key)! >= 0.6 * own.length;
        if (!heading && !often) return [];
        const [first] = words;
        return [
          cellOf(
            heading,
            textOf(words),
            rows[first!.at]!.row.page,
            words.flatMap((w) => w.item.words),
          ),
        ];
      })
      .slice(0, mostCells),
  );
}
