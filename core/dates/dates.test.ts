import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addDays, daysBetween, findDates, isIsoDate, typedDate } from './index.ts';

const day = fc.integer({ min: 0, max: 20_000 }).map((n) => addDays('2000-01-01', n));

describe('dates', () => {
  it('adding days and counting them are inverse', () =>
    fc.assert(fc.property(day, fc.integer({ min: -4000, max: 4000 }), (d, n) => daysBetween(d, addDays(d, n)) === n)));
  it('knows which days exist', () =>
    expect(['2026-02-29', '2028-02-29', '2026-13-01', '26-01-01'].map(isIsoDate)).toEqual([false, true, false, false]));
  it.each([
    ['7 July 2026', '2026-07-07'],
    ['20th July 2026', '2026-07-20'],
    ['03-Sep-26', '2026-09-03'],
    ['2026-11-03', '2026-11-03'],
    ['July 4, 2026', '2026-07-04'],
    ['July 4,2026', '2026-07-04'],
    ['3. März 2026', '2026-03-03'],
    ['12 février 2026', '2026-02-12'],
    ['1 mei 2026', '2026-05-01'],
    ['5 de octubre de 2026', '2026-10-05'],
    ['9 giugno 2026', '2026-06-09'],
    ['2 maj 2026', '2026-05-02'],
    ['20.07.2026', '2026-07-20'],
    ['2026年11月3日', '2026-11-03'],
    ['9 Nov ’26', '2026-11-09'],
    ["Nov 9, '26", '2026-11-09'],
    ['Regning 1187 af 6/11 2026', '2026-11-06'],
    ['6. 11. 2026', '2026-11-06'],
    ['05 NOV 26', '2026-11-05'],
    ['05NOV26', '2026-11-05'],
    ['the third of November, 2026', '2026-11-03'],
    ['this twenty-first day of May 2026', '2026-05-21'],
    ['3e november 2026', '2026-11-03'],
    ['dnia 3 października 2026 r.', '2026-10-03'],
    ['3. marraskuuta 2026', '2026-11-03'],
  ])('%s is %s', (text, iso) => expect(findDates(text)[0]?.dates['day-first']).toBe(iso));
  it.each(['en', 'de', 'fr', 'nl', 'es', 'it', 'sv', 'da', 'nb', 'pt', 'pl', 'fi', 'cs'])(
    'every month of a year by its name in %s',
    (language) => {
      for (let month = 1; month <= 12; month++) {
        const day = new Intl.DateTimeFormat(language, { day: 'numeric', month: 'long', year: 'numeric' }).format(
          new Date(2026, month - 1, 10),
        );
        expect(findDates(day)[0]?.dates['day-first'], day).toBe(`2026-${String(month).padStart(2, '0')}-10`);
      }
    },
  );
  it('keeps both orders where the text allows both', () =>
    expect(findDates('07/08/2026')[0]!.dates).toEqual({ 'day-first': '2026-08-07', 'month-first': '2026-07-08' }));
  it('finds every date it prints, in any order and style', () =>
    fc.assert(
      fc.property(day, fc.constantFrom('/', '-', '.'), (d, sign) => {
        const [y, m, dd] = d.split('-');
        expect(findDates(`from ${dd}${sign}${m}${sign}${y} on`)[0]?.dates['day-first']).toBe(d);
      }),
    ));
  it.each([
    '3 set 26',
    '2 mars 26',
    '12 NOV 265',
    '5 NOV 26.50',
    '30 nov 40 x 50',
    'the third of May',
    'PO-4471',
    'v1.2.3.4',
    '3/4 4000 mm',
    '6.11 2026',
    'Model ’26',
    '00-14-27',
    '32/13/2026',
    '3 Mayfair 2026',
  ])('%s is no date', (text) => expect(findDates(text)).toEqual([]));
});

describe('what is typed into a date field', () => {
  it.each([
    ['3/11', '2026-11-03'],
    ['3 nov', '2026-11-03'],
    ['today', '2026-11-23'],
    ['+14', '2026-12-07'],
    ['03112026', '2026-11-03'],
    ['31/12/25', '2025-12-31'],
    ['28/12', '2026-12-28'],
    ['2/1', '2027-01-02'],
  ])('%s is %s', (typed, iso) => expect(typedDate(typed, '2026-11-23')).toBe(iso));
  it.each([
    ['3/11', '2027-03-11'],
    ['11/3', '2026-11-03'],
    ['11032026', '2026-11-03'],
    ['11/3/26', '2026-11-03'],
    ['3 nov', '2026-11-03'],
    ['2026-11-03', '2026-11-03'],
    ['31/12/2026', '2026-12-31'],
  ])('%s is %s where the month stands first', (typed, iso) => expect(typedDate(typed, '2026-11-23', 'month-first')).toBe(iso));
  it.each(['', 'x', '31/2', '99'])('%s is refused', (typed) => expect(typedDate(typed, '2026-11-23')).toBeNull());
});
