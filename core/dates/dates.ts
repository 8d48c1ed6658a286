import { addDays as plusDays, addMonths as plusMonths, endOfMonth as lastOf, isValid, parseISO, format } from 'date-fns';

/** A calendar day as ISO 8601, "2026-11-03". No time, no zone. */
export type IsoDate = string;

const iso = (date: Date): IsoDate => format(date, 'yyyy-MM-dd');

/** True for a real calendar day between 1990 and 2099. */
export function isIsoDate(value: string): boolean {
  return /^(19[9]\d|20\d\d)-\d\d-\d\d$/.test(value) && isValid(parseISO(value)) && iso(parseISO(value)) === value;
}

/** The day from year, month (1 to 12) and day, or null when there is no such day. Two-digit years are 2000 to 2099. */
export function dayOf(year: number, month: number, day: number): IsoDate | null {
  const full = year < 100 ? 2000 + year : year;
  const value = `${String(full).padStart(4, '0')}-${String(month).padStart(2, '0')}-${String(day).padStart(2, '0')}`;
  return isIsoDate(value) ? value : null;
}

export const addDays = (date: IsoDate, days: number): IsoDate => iso(plusDays(parseISO(date), days));
export const addMonths = (date: IsoDate, months: number): IsoDate => iso(plusMonths(parseISO(date), months));
export const endOfMonth = (date: IsoDate): IsoDate => iso(lastOf(parseISO(date)));
export const yearOf = (date: IsoDate): number => Number(date.slice(0, 4));
export const monthOf = (date: IsoDate): number => Number(date.slice(5, 7));

/** A day as it is written in a sentence: "4 Nov 2026". */
export const dayInWords = (date: IsoDate): string => `${Number(date.slice(8, 10))} ${monthNames[monthOf(date) - 1]} ${yearOf(date)}`;
const monthNames = Array.from({ length: 12 }, (_, month) => format(new Date(2000, month), 'MMM'));

/** Whole days from `from` to `to`; negative when `to` is earlier. */
export function daysBetween(from: IsoDate, to: IsoDate): number {
  return Math.round((Date.parse(`${to}T00:00:00Z`) - Date.parse(`${from}T00:00:00Z`)) / 86_400_000);
}
