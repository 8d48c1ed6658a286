import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addDays, addWorkingDays, calendarCountries, daysBetween, easter, holidays, isWorkingDay, onWorkingDay } from './index.ts';

const of = (country: string, year: number) => [...holidays(country, year)].sort().map((d) => d.slice(5));

describe('public holidays', () => {
  it('have Easter as the almanacs do', () =>
    expect([2000, 2019, 2024, 2025, 2026, 2027, 2038].map(easter)).toEqual([
      '2000-04-23', '2019-04-21', '2024-03-31', '2025-04-20', '2026-04-05', '2027-03-28', '2038-04-25',
    ])); // prettier-ignore
  it('of England and Wales, with substitutes for weekends', () => {
    expect(of('GB', 2026)).toEqual(['01-01', '04-03', '04-06', '05-04', '05-25', '08-31', '12-25', '12-28']);
    expect(of('GB', 2021).slice(-2)).toEqual(['12-27', '12-28']);
    expect(of('GB', 2022)).toEqual(['01-03', '04-15', '04-18', '05-02', '05-30', '08-29', '12-26', '12-27']);
  });
  it('of France, the Netherlands, Germany, Belgium and Ireland', () => {
    expect(of('FR', 2026)).toEqual(['01-01', '04-06', '05-01', '05-08', '05-14', '05-25', '07-14', '08-15', '11-01', '11-11', '12-25']);
    expect(of('NL', 2025)).toEqual(['01-01', '04-18', '04-21', '04-26', '05-05', '05-29', '06-09', '12-25', '12-26']);
    expect(of('DE', 2026)).toEqual(['01-01', '04-03', '04-06', '05-01', '05-14', '05-25', '10-03', '12-25', '12-26']);
    expect(of('BE', 2026)).toHaveLength(10);
    expect(of('IE', 2026)).toEqual(['01-01', '02-02', '03-17', '04-06', '05-04', '06-01', '08-03', '10-26', '12-25', '12-26']);
    expect(of('IE', 2030)).toContain('02-01');
    expect(of('XX', 2026)).toEqual([]);
  });
});

const day = fc.integer({ min: 0, max: 15_000 }).map((n) => addDays('2010-01-01', n)),
  country = fc.constantFrom(...calendarCountries, 'XX');
describe('working days', () => {
  it('are found before and after any day, near it, and stay where they are', () =>
    fc.assert(
      fc.property(day, country, (from, where) => {
        const [next, before] = [onWorkingDay(from, where, 'next'), onWorkingDay(from, where, 'before')];
        expect([isWorkingDay(next, where), isWorkingDay(before, where)]).toEqual([true, true]);
        expect(before <= from && from <= next && daysBetween(before, next) <= 7).toBe(true);
        if (isWorkingDay(from, where)) expect([before, next]).toEqual([from, from]);
        expect(onWorkingDay(from, where, 'stays')).toBe(from);
      }),
    ));
  it('are counted: so many of them lie after the first day, up to the last', () =>
    fc.assert(
      fc.property(day, country, fc.integer({ min: 0, max: 30 }), (from, where, n) => {
        const to = addWorkingDays(from, n, where);
        const between = Array.from({ length: daysBetween(from, to) }, (_, i) => addDays(from, i + 1));
        expect(between.filter((d) => isWorkingDay(d, where))).toHaveLength(n);
        if (n > 0) expect(isWorkingDay(to, where)).toBe(true);
      }),
    ));
});
