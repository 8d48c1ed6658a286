import { addDays, addMonths, endOfMonth, type IsoDate } from '../dates/index.ts';
import { decOrNull } from '../money/index.ts';
import { type HeaderCells, type LineCells, type LineKind } from '../bills/index.ts';

export const everies = ['month', 'quarter', 'year', 'weeks'] as const;
export type Every = (typeof everies)[number];
/** When a bill repeats: `weeks` is for every so many weeks. `until`: the last day on which one may be made. */
export interface Rhythm {
  every: Every;
  weeks: number | null;
  begins: IsoDate;
  until: IsoDate | null;
}
/** What each bill is made from: the head without number and dates, and the lines. */
export interface Template {
  head: Pick<HeaderCells, 'kind' | 'terms' | 'currency' | 'purchaseOrder' | 'net' | 'tax' | 'gross' | 'pricesIncludeTax'>;
  lines: ({ kind: LineKind } & LineCells)[];
}

const months = { month: 1, quarter: 3, year: 12 };

/** The n-th turn, the first being 0. A day that a month does not have is its last; the next month has it again. */
function turnAt(rhythm: Rhythm, n: number): IsoDate {
  if (rhythm.every === 'weeks') return addDays(rhythm.begins, 7 * (rhythm.weeks ?? 1) * n);
  const first = addMonths(`${rhythm.begins.slice(0, 7)}-01`, months[rhythm.every] * n),
    last = endOfMonth(first),
    day = rhythm.begins.slice(8);
  return day > last.slice(8) ? last : `${first.slice(0, 7)}-${day}`;
}

/** The first turn after a day, or at the beginning where there is none before; null once it is over. */
export function nextTurn(rhythm: Rhythm, after: IsoDate | null): IsoDate | null {
  let n = 0;
  if (after !== null && after >= rhythm.begins) {
    // Near enough from below, then step by step.
    const days = (Date.parse(after) - Date.parse(rhythm.begins)) / 86_400_000;
    n = Math.max(0, Math.floor(days / (rhythm.every === 'weeks' ? 7 * (rhythm.weeks ?? 1) : 31 * months[rhythm.every])) - 1);
    while (turnAt(rhythm, n) <= after) n++;
  }
  const turn = turnAt(rhythm, n);
  return rhythm.until !== null && turn > rhythm.until ? null : turn;
}

/** The lines and totals of a turn's bill: as they were, or without amounts where these are to be filled in. */
export function turnOf({ head, lines }: Template, fixed: boolean): Template {
  if (fixed) return { head, lines };
  return {
    head: { ...head, net: null, tax: null, gross: null },
    lines: lines.map((l) => ({ ...l, quantity: null, unitPrice: null, amount: null, discountPercent: null, serviceDate: null })),
  };
}

/**
 * Whether a document's bill may be the one that a turn waits for: the same supplier is the caller's matter; the dates lie within so many
 * days of each other, and, where amounts are fixed, the totals are the same.
 */
export function fitsTurn(
  turn: { day: IsoDate; within: number; fixed: boolean; gross: string | null },
  came: { issueDate: IsoDate | null; gross: string | null },
): boolean {
  if (came.issueDate === null) return false;
  const apart = Math.abs(Date.parse(came.issueDate) - Date.parse(turn.day)) / 86_400_000;
  if (apart > turn.within) return false;
  const [a, b] = [decOrNull(turn.gross), decOrNull(came.gross)];
  return !turn.fixed || (a !== null && b !== null && a.eq(b));
}
