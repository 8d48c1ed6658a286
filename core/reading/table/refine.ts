import { findDates } from '../../dates/index.ts';
import { textOf } from '../../page/index.ts';
import { countNear } from '../near.ts';
import type { Cells } from './cells.ts';
import type { Column } from './heading.ts';
import type { TableRow } from './records.ts';
import { hasLetters } from '../letters.ts';

interface Evidence {
  lefts: number[];
  rights: number[];
  texts: string[];
}

/** The value that most of a list's numbers share within a tolerance, or null when fewer than two thirds do. */
function common(values: number[], tolerance: number): number | null {
  const near = countNear(values, tolerance);
  let best: number | null = null,
    most = 1;
  for (const value of values) {
    const count = near(value);
    if (count > most) {
      most = count;
      best = value;
    }
  }
  return best !== null && most >= values.length * 0.66 ? best : null;
}

/**
 * Moves each column's edges to where its values line up: a centred heading says little about where its column starts.
 * `rows` are the cells of rows that carry an amount.
 */
export function refineEdges(columns: Column[], rows: Pick<TableRow, 'cells' | 'drift'>[]): Column[] {
  return columns.map((column, i) => {
    const evidence: Evidence = { lefts: [], rights: [], texts: [] };
    for (const { cells, drift } of rows) {
      const words = cells[i]!;
      if (words.length === 0) continue;
      evidence.lefts.push(words[0]!.x - (drift?.[i]?.x0 ?? 0));
      evidence.rights.push(words[words.length - 1]!.x + words[words.length - 1]!.w - (drift?.[i]?.x1 ?? 0));
    }
    const left = common(evidence.lefts, 1.2),
      right = common(evidence.rights, 1.2);
    return { ...column, x0: left ?? column.x0, x1: right ?? column.x1 };
  });
}

/** At least two words, and no date with the name of its day. */
const lettered = (text: string): boolean =>
  text.split(' ').filter((word) => hasLetters(word)).length >= 2 && !findDates(text).some((d) => d.length > text.length - 6);
const money = (text: string): boolean => /^[-−(]?[£$€¥]?\s?[\d.,' ]*\d[.,]\d{2}\)?$/.test(text);
const codeLike = (text: string): boolean => /^[\p{L}\d./-]{2,20}$/u.test(text) && /\d/.test(text);

/**
 * Puts right which column is the description and which the code, by what stands in them: headings such as "Item", "Product"
 * and "Hired" are used for either.
 */
export function settleText(columns: Column[], rows: Cells[]): Column[] {
  const texts = columns.map((_, i) => rows.map((cells) => textOf(cells[i]!)).filter(Boolean));
  const share = (i: number, test: (text: string) => boolean): number =>
    texts[i]!.length >= rows.length * 0.3 && texts[i]!.length > 0 ? texts[i]!.filter(test).length / texts[i]!.length : 0;
  const priced = columns.map((c, i) =>
    c.role === 'description' && texts[i]!.length >= rows.length * 0.6 && share(i, money) > 0.5 ? { ...c, role: 'amount' as const } : c,
  );
  const wordShares = columns.map((_, i) => share(i, lettered));
  const described = priced.flatMap((c, i) => (c.role === 'description' ? [i] : []));
  const wordy = columns
    .map((_, i) => i)
    .filter((i) => ['description', 'other', 'quantity', 'code'].includes(priced[i]!.role))
    .sort((a, b) => wordShares[b]! - wordShares[a]!);
  const labelled = described.find((i) => wordShares[i]! > 0.4) ?? null;
  const best = wordy[0];
  const chosen =
    labelled !== null && described.length === 1
      ? labelled
      : best !== undefined && wordShares[best]! > 0.5
        ? best
        : (described[described.length - 1] ?? null);
  if (chosen === null) return priced;
  const hasCode = priced.some((c, i) => c.role === 'code' && i !== chosen);
  return priced.map((column, i) => {
    if (i === chosen) return { ...column, role: 'description' as const };
    if (column.role !== 'description') return column;
    return { ...column, role: !hasCode && share(i, codeLike) > 0.5 ? ('code' as const) : ('other' as const) };
  });
}
