import { addDays, dayOf, yearOf, type IsoDate } from './dates.ts';

/** Countries whose public holidays are known here; of any other only Saturdays and Sundays are no working days. */
export const calendarCountries = ['BE', 'DE', 'FR', 'GB', 'IE', 'NL'] as const;
export type CalendarCountry = (typeof calendarCountries)[number];
/** What becomes of a day that is worked out and is no working day: it stays, or is the next or the last working day before it. */
export const dueOns = ['stays', 'next', 'before'] as const;
export type DueOn = (typeof dueOns)[number];

/** 0 for Sunday to 6 for Saturday. */
const weekday = (day: IsoDate): number => new Date(`${day}T00:00:00Z`).getUTCDay();

/** Easter Sunday of a year (Meeus, Jones and Butcher: Nature, 20 April 1876). */
export function easter(year: number): IsoDate {
  const a = year % 19,
    b = Math.floor(year / 100),
    c = year % 100;
  const h = (19 * a + b - Math.floor(b / 4) - Math.floor((b - Math.floor((b + 8) / 25) + 1) / 3) + 15) % 30;
  const l = (32 + 2 * (b % 4) + 2 * Math.floor(c / 4) - h - (c % 4)) % 7;
  const m = Math.floor((a + 11 * h + 22 * l) / 451);
  const n = h + l - 7 * m + 114;
  return dayOf(year, Math.floor(n / 31), (n % 31) + 1)!;
}

/** The first such weekday of a month, or the last (`month` is 1 to 12). */
function nth(year: number, month: number, wanted: number, which: 'first' | 'last'): IsoDate {
  let day = which === 'first' ? dayOf(year, month, 1)! : addDays(dayOf(month === 12 ? year + 1 : year, (month % 12) + 1, 1)!, -1);
  while (weekday(day) !== wanted) day = addDays(day, which === 'first' ? 1 : -1);
  return day;
}
const monday = 1,
  friday = 5,
  saturday = 6;

/** Fixed days, each on the next weekday that is free where it falls on a weekend. */
function withSubstitutes(days: readonly IsoDate[]): IsoDate[] {
  const taken = new Set<IsoDate>();
  // Those on a weekday keep their day; the others take what is left after them.
  for (const day of [...days].sort((x, y) => Number(weekday(x) % 6 === 0) - Number(weekday(y) % 6 === 0) || (x < y ? -1 : 1))) {
    let on = day;
    while (weekday(on) % 6 === 0 || taken.has(on)) on = addDays(on, 1);
    taken.add(on);
  }
  return [...taken];
}

/**
 * Public holidays by country, as the law has them: the whole country's alone. England and Wales (Banking and Financial Dealings Act 1971),
 * Ireland (Organisation of Working Time Act 1997), France (Code du travail, L3133-1), the Netherlands (Algemene termijnenwet, art. 3),
 * Germany (laws of all Länder), Belgium (royal decree of 18 April 1974).
 */
const laws: Record<
  CalendarCountry,
  (year: number, of: (month: number, day: number) => IsoDate, fromEaster: (days: number) => IsoDate) => IsoDate[]
> = {
  GB: (year, of, fromEaster) => [
    ...withSubstitutes([of(1, 1)]),
    fromEaster(-2),
    fromEaster(1),
    nth(year, 5, monday, 'first'),
    nth(year, 5, monday, 'last'),
    nth(year, 8, monday, 'last'),
    ...withSubstitutes([of(12, 25), of(12, 26)]),
  ],
  IE: (year, of, fromEaster) => [
    of(1, 1),
    weekday(of(2, 1)) === friday ? of(2, 1) : nth(year, 2, monday, 'first'),
    of(3, 17),
    fromEaster(1),
    nth(year, 5, monday, 'first'),
    nth(year, 6, monday, 'first'),
    nth(year, 8, monday, 'first'),
    nth(year, 10, monday, 'last'),
    of(12, 25),
    of(12, 26),
  ],
  FR: (_, of, fromEaster) => [
    of(1, 1), fromEaster(1), of(5, 1), of(5, 8), fromEaster(39), fromEaster(50), of(7, 14), of(8, 15), of(11, 1), of(11, 11), of(12, 25),
  ], // prettier-ignore
  NL: (_, of, fromEaster) => [
    of(1, 1),
    fromEaster(-2),
    fromEaster(1),
    // The King's birthday is kept on the Saturday where it falls on a Sunday.
    weekday(of(4, 27)) === 0 ? of(4, 26) : of(4, 27),
    of(5, 5),
    fromEaster(39),
    fromEaster(50),
    of(12, 25),
    of(12, 26),
  ],
  DE: (_, of, fromEaster) => [
    of(1, 1), fromEaster(-2), fromEaster(1), of(5, 1), fromEaster(39), fromEaster(50), of(10, 3), of(12, 25), of(12, 26),
  ], // prettier-ignore
  BE: (_, of, fromEaster) => [
    of(1, 1), fromEaster(1), of(5, 1), fromEaster(39), fromEaster(50), of(7, 21), of(8, 15), of(11, 1), of(11, 11), of(12, 25),
  ], // prettier-ignore
};

const known = new Map<string, ReadonlySet<IsoDate>>();
/** A country's public holidays in a year; none where the country is not known here. */
export function holidays(country: string, year: number): ReadonlySet<IsoDate> {
  const law = (laws as Record<string, (typeof laws)[CalendarCountry] | undefined>)[country],
    key = `${country} ${year}`;
  const found = known.get(key);
  if (!law || found) return found ?? new Set();
  const sunday = easter(year);
  const made = new Set(law(year, (month, day) => dayOf(year, month, day)!, (days) => addDays(sunday, days))); // prettier-ignore
  known.set(key, made);
  return made;
}

/** Whether banks and offices of a country work on a day: no Saturday, Sunday or public holiday. */
export const isWorkingDay = (day: IsoDate, country: string): boolean =>
  weekday(day) !== 0 && weekday(day) !== saturday && !holidays(country, yearOf(day)).has(day);

/** A day that is worked out, moved to a working day as it is wanted. */
export function onWorkingDay(day: IsoDate, country: string, dueOn: DueOn): IsoDate {
  let on = day;
  if (dueOn !== 'stays') while (!isWorkingDay(on, country)) on = addDays(on, dueOn === 'next' ? 1 : -1);
  return on;
}

/** So many working days after a day. */
export function addWorkingDays(day: IsoDate, days: number, country: string): IsoDate {
  let on = day;
  for (let left = days; left > 0;) {
    on = addDays(on, 1);
    if (isWorkingDay(on, country)) left--;
  }
  return on;
}
