import type { IsoDate } from '../dates/index.ts';
import { allocate, dec, type Decimal } from '../money/index.ts';
import { dueDate, parseTerms, type PaymentTerms, type WorkingCalendar } from './terms.ts';

/** A part of a bill, in percent of it, and when that falls due. */
export interface TermsPart {
  percent: string;
  terms: PaymentTerms;
}
/** What falls due on a day. */
export interface Instalment {
  dueDate: IsoDate;
  amount: Decimal;
}

const share = /^(\d{1,3}(?:[.,]\d{1,4})?)\s?%\s*(?:in|after|within|at|due)?\s*(.*)$/i;
const most = 12;

/**
 * Instalments in the trade's words: "30% on receipt, 70% 30 days", "50% 30 days and 50% 60 days", "30/60/90 days" in equal parts.
 * Null where the terms are none, or their parts are not the whole.
 */
export function inParts(text: string): TermsPart[] | null {
  const equal = /^\s*(\d{1,3}(?:\s?\/\s?\d{1,3}){1,11})\s*days\s*$/i.exec(text);
  if (equal) {
    const days = equal[1]!.split('/').map(Number);
    if (days.some((d, i) => i > 0 && d <= days[i - 1]!)) return null;
    const parts = allocate(dec(100), days.map(() => dec(1)), 'GBP'); // prettier-ignore
    return days.map((d, i) => ({ percent: parts[i]!.toFixed(), terms: parseTerms(`${d} days`)! }));
  }
  const pieces = text.split(/[,;](?!\d)|\band\b|\bthen\b/i).map((p) => p.trim());
  if (pieces.length < 2 || pieces.length > most) return null;
  const parts: TermsPart[] = [];
  for (const piece of pieces) {
    const [, percent, rest] = share.exec(piece) ?? [];
    const terms =
      rest === undefined
        ? null
        : (parseTerms(rest) ?? (/^(?:on |up)?(?:receipt|now|order)$/i.test(rest) ? parseTerms('due on receipt') : null));
    if (percent === undefined || !terms || dec(percent.replace(',', '.')).lte(0)) return null;
    parts.push({ percent: percent.replace(',', '.'), terms });
  }
  return parts.reduce((all, p) => all.plus(p.percent), dec(0)).eq(100) ? parts : null;
}

/** What is read of a text about payment: in parts, or as a whole. Null where it says nothing of it. */
export const readTerms = (text: string): PaymentTerms | TermsPart[] | null => inParts(text) ?? parseTerms(text);

/** The day on which a bill of that date falls due by its terms, the first part of it where it is paid in parts; null where they say none. */
export function dueOf(issued: IsoDate, terms: string, calendar?: WorkingCalendar): IsoDate | null {
  const read = readTerms(terms);
  if (!read) return null;
  const days = (Array.isArray(read) ? read.map((p) => p.terms) : [read]).map((t) => dueDate(issued, t, calendar));
  return days.sort()[0]!;
}

/** What of an amount falls due when; parts of one day are one. Their sum is the amount. Null where the terms are no instalments. */
export function instalments(
  issued: IsoDate,
  terms: string,
  amount: Decimal,
  currency: string,
  calendar?: WorkingCalendar,
): Instalment[] | null {
  const parts = inParts(terms);
  if (!parts) return null;
  const shares = allocate(amount, parts.map((p) => dec(p.percent)), currency); // prettier-ignore
  const days = new Map<IsoDate, Decimal>();
  for (const [i, part] of parts.entries()) {
    const day = dueDate(issued, part.terms, calendar);
    days.set(day, (days.get(day) ?? dec(0)).plus(shares[i]!));
  }
  return [...days].sort(([a], [b]) => (a < b ? -1 : 1)).flatMap(([day, of]) => (of.isZero() ? [] : [{ dueDate: day, amount: of }]));
}
