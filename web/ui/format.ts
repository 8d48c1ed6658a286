import { dec, formatAmount, grouped, minorUnits } from '@ledgerline/core/money';

export const money = (amount: string | null, currency: string): string => (amount === null ? '' : formatAmount(amount, currency));
/** The price of one, with all the decimals that it has: 0.0042, but 4.50. */
export const price = (amount: string, currency: string): string =>
  dec(amount).decimalPlaces() > minorUnits(currency) ? grouped(dec(amount).toFixed()) : money(amount, currency);
const day = new Intl.DateTimeFormat(undefined, { day: 'numeric', month: 'short', year: 'numeric', timeZone: 'UTC' });
export const showDay = (iso: string | null): string => (iso ? day.format(new Date(`${iso}T00:00:00Z`)) : '');
const time = new Intl.DateTimeFormat(undefined, { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' });
export const showTime = (iso: string): string => time.format(new Date(iso));
export const todayIso = (): string => {
  const now = new Date();
  return `${now.getFullYear()}-${String(now.getMonth() + 1).padStart(2, '0')}-${String(now.getDate()).padStart(2, '0')}`;
};
export const showSize = (bytes: number): string =>
  bytes < 1024 * 1024 ? `${Math.max(1, Math.round(bytes / 1024))} KB` : `${(bytes / 1024 / 1024).toFixed(1)} MB`;
/** The order in which the person's language writes day and month. */
export const dateOrder = (): 'day-first' | 'month-first' => {
  const parts = new Intl.DateTimeFormat(undefined, { day: 'numeric', month: 'numeric' }).formatToParts(new Date(2026, 10, 23));
  return parts.find((p) => p.type === 'day' || p.type === 'month')?.type === 'month' ? 'month-first' : 'day-first';
};
/** What parts decimals in the person's language. */
export const decimalSign = (): '.' | ',' =>
  new Intl.NumberFormat(undefined).formatToParts(1.5).find((p) => p.type === 'decimal')?.value === ',' ? ',' : '.';
