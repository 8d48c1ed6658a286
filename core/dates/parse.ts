import { addDays, dayOf, yearOf, type IsoDate } from './dates.ts';
import { isWordToo, monthNamed, plainMonth } from './months.ts';

/** How a date of three numbers is ordered on this document. */
export type DateOrder = 'day-first' | 'month-first' | 'year-first';

export interface FoundDate {
  /** Every reading the text allows, by order; one entry when the order does not matter. */
  dates: Partial<Record<DateOrder, IsoDate>>;
  index: number;
  length: number;
}

/** "third", "twenty-first": the days of a month in words. */
const ordinals =
  'first second third fourth fifth sixth seventh eighth ninth tenth eleventh twelfth thirteenth fourteenth fifteenth sixteenth seventeenth eighteenth nineteenth twentieth twenty-first twenty-second twenty-third twenty-fourth twenty-fifth twenty-sixth twenty-seventh twenty-eighth twenty-ninth thirtieth thirty-first'.split(
    ' ',
  );

const patterns = {
  yearFirst: /(?<![\d/.-])(\d{4})([-/.])(\d{1,2})\2(\d{1,2})(?![\d/-]|\.\d)/g,
  inNumbers: /(?<![\d/.-])(\d{1,2})([-/.])(\d{1,2})\2(\d{4}|\d{2})(?![\d/-]|\.\d)/g,
  japanese: /(?<![\d/.-])(\d{4})\s?年\s?(\d{1,2})\s?月\s?(\d{1,2})\s?日/g,
  dayNameYear:
    /(?<![\p{L}\d/.-])(\d{1,2})(?:st|nd|rd|th|\.|er|º|e|:e)?(?:\s+(?:de|of)(?!\p{L}))?[\s-]*([\p{L}]{3,13})\.?(?:\s+de)?,?[\s-]*(\d{4}|(?<=-)\d{2}|(?<=[\s-])['’]\d{2})(?!\d)/giu,
  nameDayYear: /(?<!\p{L})([\p{L}]{3,13})\.?\s+(\d{1,2})(?:st|nd|rd|th)?(?:,\s*|\s+)(\d{4}|['’]\d{2})(?!\d)/giu,
  // "6/11 2026" and "6. 11. 2026", as they are written in the north and the east.
  dayMonthYear: /(?<![\d/.-])(\d{1,2})(?:\/(\d{1,2})\s|\. ?(\d{1,2})\. )((?:19|20)\d{2})(?![\d/-]|[.,]\d)/g,
  // "05 NOV 26", "05NOV26": a name between two short numbers.
  shortYear: /(?<![\p{L}\d/.,-])(\d{1,2}\s|\d{2})([\p{L}]{3,13})\.?\s?([2-4]\d)(?![\p{L}\d%,/]|\.\d|-\d|\s?[x×])/gu,
  inWords: /(?<![\p{L}-])(\p{L}+(?:-\p{L}+)?)\s+(?:day\s+)?of\s+([\p{L}]{3,9}),?\s+(\d{4})(?!\d)/giu,
} as const;

/** A year of four digits or two, an apostrophe before it: "’26". */
const yearIn = (text: string): number => Number(text.replace(/\D/g, ''));

// A document's texts are looked at from several sides. Bounded, since they come from outside.
const looked = new Map<string, readonly FoundDate[]>();
const mostLooked = 5000;
const none: readonly FoundDate[] = [];

/** All dates in a piece of text, leftmost first, each with its possible readings. */
export function findDates(text: string): readonly FoundDate[] {
  // Nothing shorter than "1.1.26" is a date.
  if (text.length < 6 || !/\d/.test(text)) return none;
  let found = looked.get(text);
  if (!found) {
    if (looked.size >= mostLooked) looked.clear();
    looked.set(text, (found = datesIn(text)));
  }
  return found;
}

function datesIn(text: string): FoundDate[] {
  const named = /\p{L}{3}/u.test(text);
  const found: FoundDate[] = [];
  const add = (match: RegExpMatchArray, dates: FoundDate['dates']) => {
    if (Object.keys(dates).length === 0) return;
    const index = match.index ?? 0;
    if (found.some((f) => index < f.index + f.length && f.index < index + match[0].length)) return;
    found.push({ dates, index, length: match[0].length });
  };
  const single = (date: IsoDate | null): FoundDate['dates'] => (date ? { 'day-first': date, 'month-first': date, 'year-first': date } : {});
  for (const m of text.matchAll(patterns.yearFirst)) add(m, single(dayOf(+m[1]!, +m[3]!, +m[4]!)));
  if (text.includes('年')) for (const m of text.matchAll(patterns.japanese)) add(m, single(dayOf(+m[1]!, +m[2]!, +m[3]!)));
  for (const m of text.matchAll(patterns.inNumbers)) {
    const dates: FoundDate['dates'] = {};
    const dayFirst = dayOf(+m[4]!, +m[3]!, +m[1]!);
    const monthFirst = dayOf(+m[4]!, +m[1]!, +m[3]!);
    if (dayFirst) dates['day-first'] = dayFirst;
    if (monthFirst && m[2] !== '.') dates['month-first'] = monthFirst;
    add(m, dates);
  }
  for (const m of text.matchAll(patterns.dayMonthYear)) add(m, single(dayOf(+m[4]!, +(m[2] ?? m[3])!, +m[1]!)));
  if (!named) return found.sort((a, b) => a.index - b.index);
  for (const m of text.matchAll(patterns.dayNameYear)) {
    const month = monthNamed(m[2]!);
    if (month) add(m, single(dayOf(yearIn(m[3]!), month, +m[1]!)));
  }
  for (const m of text.matchAll(patterns.nameDayYear)) {
    const month = monthNamed(m[1]!);
    if (month) add(m, single(dayOf(yearIn(m[3]!), month, +m[2]!)));
  }
  for (const m of text.matchAll(patterns.shortYear)) {
    const month = isWordToo(m[2]!) ? undefined : monthNamed(m[2]!);
    if (month) add(m, single(dayOf(+m[3]!, month, +m[1]!)));
  }
  for (const m of text.matchAll(patterns.inWords)) {
    const month = monthNamed(m[2]!),
      day = ordinals.indexOf(m[1]!.toLowerCase()) + 1;
    if (month && day > 0) add(m, single(dayOf(+m[3]!, month, day)));
  }
  return found.sort((a, b) => a.index - b.index);
}

/**
 * What a person types into a date field: "3/11", "3 nov", "03112026", "2026-11-03", "today", "+14".
 * A missing year is the one that brings the date nearest to `today`. Of three numbers, day and month stand in the order given. Null
 * when it is no date.
 */
export function typedDate(typed: string, today: IsoDate, order: 'day-first' | 'month-first' = 'day-first'): IsoDate | null {
  const text = plainMonth(typed.trim());
  if (text === 'today' || text === 't') return today;
  if (text === 'yesterday') return addDays(today, -1);
  const shift = /^([+-])(\d{1,3})$/.exec(text);
  if (shift) return addDays(today, Number(shift[1]! + shift[2]!));
  const whole = findDates(typed.trim())[0];
  if (whole && whole.length === typed.trim().length)
    return whole.dates[order] ?? whole.dates['day-first'] ?? whole.dates['month-first'] ?? null;
  const compact = /^(\d{2})(\d{2})(\d{4}|\d{2})$/.exec(text);
  const [first, second] = order === 'month-first' ? [2, 1] : [1, 2];
  if (compact) return dayOf(+compact[3]!, +compact[second]!, +compact[first]!);
  const short = /^(\d{1,2})[\s/.-]+(\d{1,2}|[a-z]{3,13})$/.exec(text);
  if (!short) return null;
  const inNumbers = /^\d/.test(short[2]!);
  const month = inNumbers ? Number(short[second]) : monthNamed(short[2]!),
    dayNumber = Number(inNumbers ? short[first] : short[1]);
  if (!month) return null;
  const year = yearOf(today);
  const near = [year - 1, year, year + 1].map((y) => dayOf(y, month, dayNumber)).filter((d): d is IsoDate => d !== null);
  const distance = (d: IsoDate) => Math.abs(Date.parse(d) - Date.parse(today));
  return near.sort((a, b) => distance(a) - distance(b))[0] ?? null;
}
