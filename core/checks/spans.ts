import { endOfMonth, findDates, monthNamed, type IsoDate } from '../dates/index.ts';

/** Days that something is charged for, both included. */
export interface Span {
  from: IsoDate;
  to: IsoDate;
}
/** What stands between two dates that are a beginning and an end, in the languages that are read. */
const between = /^[\s(]*(?:-|–|—|to|until|till|thru|through|bis|t\/m|tot|au|al|till och med|t\.?o\.?m\.?|a|hasta|até|do)[\s)]*$/i;
const monthAndYear = /(?<![\p{L}\d/.-])([\p{L}]{3,13})\.?\s+(20\d{2})(?!\d)/u;
const quarter = /(?<![\p{L}\d])(?:Q([1-4])|([1-4])\.?\s*(?:quarter|Quartal|trimestre|kwartaal))[\s/-]*(20\d{2})(?!\d)/iu;

interface Found extends Span {
  /** Where it stands in the text. */
  index: number;
  end: number;
}
function found(text: string): Found | null {
  const dates = findDates(text);
  for (const [i, first] of dates.entries()) {
    const second = dates[i + 1];
    if (!second || !between.test(text.slice(first.index + first.length, second.index))) continue;
    for (const order of ['day-first', 'month-first', 'year-first'] as const) {
      const [from, to] = [first.dates[order], second.dates[order]];
      if (from && to && from <= to) return { from, to, index: first.index, end: second.index + second.length };
    }
  }
  const place = (match: RegExpExecArray) => ({ index: match.index, end: match.index + match[0].length });
  const q = quarter.exec(text);
  if (q) {
    const last = Number(q[1] ?? q[2]) * 3,
      month = (n: number) => `${q[3]}-${String(n).padStart(2, '0')}-01`;
    return { from: month(last - 2), to: endOfMonth(month(last)), ...place(q) };
  }
  // "12 November 2026" is a day, and says nothing of its month.
  if (dates.length > 0) return null;
  const named = monthAndYear.exec(text),
    month = named && monthNamed(named[1]!);
  if (!month) return null;
  const from = `${named[2]}-${String(month).padStart(2, '0')}-01`;
  return { from, to: endOfMonth(from), ...place(named) };
}

/** The days that a text says something is for: from one date to another, a quarter, or a month; null where it says none. */
export function spanIn(text: string): Span | null {
  const of = found(text);
  return of && { from: of.from, to: of.to };
}

/** What a text is about beside the days, as it is compared. */
const subject = (text: string, { index, end }: Found): string =>
  `${text.slice(0, index)} ${text.slice(end)}`
    .toLowerCase()
    .replace(/(?:^|\s)(?:from|for|von|vom|für|du|van|voor|per)(?=\s|$)/g, ' ')
    .replace(/[^\p{L}]+/gu, ' ')
    .trim();

interface Charged {
  description: string;
}
/** Rows that charge days that an earlier one charged for the same, each with the first such. */
export function chargedTwice<R extends Charged, E extends Charged>(
  rows: readonly R[],
  earlier: readonly E[],
): { row: R; own: Span; of: E; other: Span }[] {
  const before = earlier.flatMap((of) => {
    const days = found(of.description);
    return days ? [{ of, other: { from: days.from, to: days.to }, about: subject(of.description, days) }] : [];
  });
  return rows.flatMap((row) => {
    const days = found(row.description);
    if (!days) return [];
    const about = subject(row.description, days);
    const first = before.find((b) => b.about === about && b.other.from <= days.to && days.from <= b.other.to);
    return first ? [{ row, own: { from: days.from, to: days.to }, of: first.of, other: first.other }] : [];
  });
}
