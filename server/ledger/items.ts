import { dueOns } from '@ledgerline/core/dates';
import { allocate, dec } from '@ledgerline/core/money';
import { dueOf, instalments, type WorkingCalendar } from '@ledgerline/core/terms';
import type { BillRecord } from '../bills/store.ts';
import type { Prepared } from './journal.ts';

interface Item {
  dueDate: string | null;
  amount: string;
  baseAmount: string;
}

/**
 * What of a bill falls due when: all of it on its day, or each part on its own, where its terms are instalments and nobody has set another
 * day. The parts add up to the whole in both currencies.
 */
export function itemsOf(
  { issueDate, dueDate, terms, kind, currency }: Pick<BillRecord, 'issueDate' | 'dueDate' | 'terms' | 'kind' | 'currency'>,
  { openAmount, payable }: Pick<Prepared['journal'], 'openAmount' | 'payable'>,
  base: string,
  calendar: WorkingCalendar,
): Item[] {
  const whole = [{ dueDate: dueDate ?? issueDate, amount: openAmount, baseAmount: payable }];
  if (!issueDate || !terms || kind !== 'invoice') return whole;
  // The company may have changed since where due days go that are none: the day that stands there tells.
  const calendars = [calendar, ...dueOns.map((dueOn) => ({ ...calendar, dueOn }))];
  const kept = calendars.find((c) => dueDate === null || dueDate === dueOf(issueDate, terms, c));
  const parts = kept ? instalments(issueDate, terms, dec(openAmount), currency, kept) : null;
  if (!parts) return whole;
  const inBase = allocate(dec(payable), parts.map((p) => p.amount.abs()), base); // prettier-ignore
  return parts.map((part, i) => ({ dueDate: part.dueDate, amount: part.amount.toFixed(), baseAmount: inBase[i]!.toFixed() }));
}
