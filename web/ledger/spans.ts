import { addMonths, endOfMonth, monthOf } from '@ledgerline/core/dates';

/** Days from one to another, both with it. */
export interface Span {
  from: string;
  to: string;
}
const monthFrom = (day: string): string => `${day.slice(0, 8)}01`;

/** The spans that people sum taxes over, as seen from a day. */
export function spansAt(today: string): [label: string, span: Span][] {
  const month = monthFrom(today),
    quarter = addMonths(month, -((monthOf(today) - 1) % 3)),
    year = `${today.slice(0, 4)}-01-01`;
  const of = (from: string, months: number): Span => ({ from, to: endOfMonth(addMonths(from, months - 1)) });
  return [
    ['This month', of(month, 1)],
    ['Last month', of(addMonths(month, -1), 1)],
    ['This quarter', of(quarter, 3)],
    ['Last quarter', of(addMonths(quarter, -3), 3)],
    ['This year', of(year, 12)],
    ['Last year', of(addMonths(year, -12), 12)],
  ];
}
